package drill

// Load is what work leaves in one player. Seconds are time on task, with waiting in line; the
// rest is counted.
type Load struct {
	Seconds       int // at work: active, not quiet
	QuietSeconds  int // quiet: no active minute
	HardSeconds   int // at an effort of 80 % and more
	GroundSeconds int // sitting, kneeling or lying
	StandSeconds  int // waiting for a turn, of Seconds
	Contacts      int // jumps, hops and landings
	SprintMetres  int // at an effort of 90 % and more
	Acts          int // throws, kicks, catches
}

// fields are the figures of a load, to be treated alike.
func (l *Load) fields() [8]*int {
	return [...]*int{&l.Seconds, &l.QuietSeconds, &l.HardSeconds, &l.GroundSeconds, &l.StandSeconds, &l.Contacts,
		&l.SprintMetres, &l.Acts}
}

// Add is the sum of two loads.
func (l Load) Add(m Load) Load {
	for i, field := range l.fields() {
		*field += *m.fields()[i]
	}
	return l
}

// Most is the greater of each figure of two loads.
func (l Load) Most(m Load) Load {
	for i, field := range l.fields() {
		*field = max(*field, *m.fields()[i])
	}
	return l
}

// Part is what a share of the load leaves, 0 to 1.
func (l Load) Part(share float64) Load {
	for _, field := range l.fields() {
		*field = int(float64(*field)*share + 0.5)
	}
	return l
}

// Words says what is counted of the load, where there is any: "12 ground contacts",
// "80 m sprinted", "9 tries".
func (l Load) Words() (words []string) {
	for _, one := range []struct {
		n    int
		what string
	}{{l.Contacts, "ground contacts"}, {l.SprintMetres, "m sprinted"}, {l.Acts, "tries"}} {
		if one.n > 0 {
			words = append(words, Number(one.n, one.what))
		}
	}
	return words
}

// Load is what amount of the drill, done in group, leaves in each of them.
func (d Drill) Load(amount int, group Group) Load {
	dose := d.Dose.WithAmount(amount)
	seconds := int(d.Work(amount, group) + 0.5)
	load := Load{Contacts: int(d.ContactsPerUnit*float64(dose.Units()) + 0.5),
		SprintMetres: int(sprinted(d, amount) + 0.5)}
	if d.Quiet() {
		load.QuietSeconds = seconds
	} else {
		alone := int(d.Work(amount, Group{People: min(1, group.People), Lanes: 1}) + 0.5)
		load.Seconds, load.StandSeconds = seconds, max(0, seconds-alone)
	}
	if d.Effort >= HardEffort {
		load.HardSeconds = seconds
	}
	if d.Ground {
		load.GroundSeconds = seconds
	}
	if d.Turns() {
		load.Acts = dose.Units()
	}
	return load
}
