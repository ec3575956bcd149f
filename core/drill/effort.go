package drill

import "slices"

// The shares of full effort, 0 to 1, at which work changes its name.
const (
	QuietEffort = 0.15 // below it a drill is quiet: its minutes are no active ones
	// from it what moves counts as dynamic, which a static hold wants after it (Behm & Chaouachi
	// 2011)
	DynamicEffort = 0.4
	RisingEffort  = 0.7 // from it a step leads up to full effort
	HardEffort    = 0.8 // from it minutes count as hard
	SprintEffort  = 0.9 // from it metres count as sprinted
)

// StaticTooLong is how many seconds of static stretch on one muscle cost power
// before a match (Behm et al. 2016).
const StaticTooLong = 60

// HeldSeconds is how long amount of the drill stretches one muscle of one side,
// in seconds; 0 where it is no static stretch.
func (d Drill) HeldSeconds(amount int) float64 {
	dose := d.Dose.WithAmount(amount)
	switch {
	case !d.Static:
		return 0
	case dose.Kind == Hold:
		return float64(dose.Sets*dose.Reps) * dose.held()
	case dose.Kind == Reps:
		return float64(dose.Sets*dose.Reps) * dose.rep()
	case dose.Kind == Time && d.OneSided:
		return float64(dose.Seconds) / 2
	}
	return dose.Work(Group{People: 1, Lanes: 1})
}

// Deep tells whether the drill is deep: it needs a warm body, or goes to the end
// of the range (Jeffreys 2007).
func (d Drill) Deep() bool { return d.NeedsWarm || d.EndRange }

// Quiet tells whether the drill is no active work: a talk, breathing, picturing
// what will go right.
func (d Drill) Quiet() bool {
	return d.Effort < QuietEffort && d.Dose.Kind != Hold && d.Dose.Kind != Reps
}

// Dynamic tells whether the drill moves: no hold, nothing quiet.
func (d Drill) Dynamic() bool { return !d.Static && d.Dose.Kind != Hold && d.Effort >= DynamicEffort }

// Jumps tells whether the drill is jumping or landing that needs even, dry ground;
// the small leap of a catch or a throw does not.
func (d Drill) Jumps() bool {
	return d.ContactsPerUnit > 0 && !slices.Contains(d.Qualities, "craft") &&
		(d.Effort >= HardEffort || slices.Contains(d.Qualities, "jump") || slices.Contains(d.Qualities, "landing"))
}

// Teaches tells whether the drill teaches how to land, which is not done less of
// where there is less to do.
func (d Drill) Teaches() bool {
	return slices.Contains(d.Qualities, "landing") && d.Effort < SprintEffort
}

// Efforts are the efforts that amount of the drill goes through, in order: of its
// trips, of its ladder's steps, or the one of the drill.
func (d Drill) Efforts(amount int) []float64 {
	var list []float64
	switch {
	case len(d.Dose.Efforts) > 0:
		for trip := range min(amount, len(d.Dose.Efforts)) {
			list = append(list, d.Dose.effort(trip))
		}
	case len(d.Rungs) > 0:
		for i, acts := range d.Ladder(amount) {
			if acts > 0 {
				list = append(list, d.Rungs[i].Effort)
			}
		}
	}
	if len(list) == 0 {
		return []float64{d.Effort}
	}
	return list
}

// PeakEffort is the greatest of the efforts that amount of the drill goes through.
func (d Drill) PeakEffort(amount int) float64 { return slices.Max(d.Efforts(amount)) }

// sprinted is how many metres of amount are run at 90 % and more.
func sprinted(d Drill, amount int) (metres float64) {
	if d.Dose.Kind != Travel {
		return 0
	}
	if len(d.Dose.Efforts) == 0 {
		if d.Effort < SprintEffort {
			return 0
		}
		return float64(amount) * d.Dose.Metres
	}
	for trip := range amount {
		if d.Dose.effort(trip) >= SprintEffort {
			metres += d.Dose.Metres
		}
	}
	return metres
}

// Hardest are the efforts of the left trips of so many: the easiest go first, the last stays.
func (d Dose) Hardest(trips, left int) []float64 {
	all := make([]float64, trips)
	for n := range all {
		all[n] = d.effort(n)
	}
	for len(all) > max(1, left) {
		easiest := 0
		for n, e := range all[:len(all)-1] {
			if e < all[easiest] {
				easiest = n
			}
		}
		all = slices.Delete(all, easiest, easiest+1)
	}
	return all
}
