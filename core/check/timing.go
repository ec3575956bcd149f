package check

import (
	"fmt"
	"math"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/warmth"
)

// noStep finds full effort with nothing between 70 and 90 % before it.
func noStep(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		if x.Peak() < drill.SprintEffort || led(s.Stretches[:n], x) {
			continue
		}
		strides := func(d drill.Drill) bool {
			return d.Effort >= drill.RisingEffort && d.Effort < drill.SprintEffort &&
				(anyOf(d.Qualities, "sprint") || anyOf(d.Qualities, "acceleration")) &&
				d.ContactsPerUnit == 0 && !anyOf(d.Qualities, "game")
		}
		r.add(x.Block.ID, fmt.Sprintf("%s: straight to full speed, build up first", x.Drill.Name), s.Players,
			"Put rising strides before it",
			before(x.Block.ID, x.Drill.Code, r.from(strides)), before(x.Block.ID, x.Drill.Code, r.fromFew(strides)),
			takeOut(x.Block.ID, x.Drill.Code))
	}
}

// led tells whether a step of 70 to 90 % leads up to the first full effort of a
// stretch: in one of those before, or in its own first trips.
func led(before []warmth.Stretch, x *warmth.Stretch) bool {
	rises := func(e float64) bool { return e >= drill.RisingEffort }
	for i := range before {
		if before[i].Drill != nil && slices.ContainsFunc(before[i].Drill.Efforts(before[i].Amount), rises) {
			return true // by steps, or the first full effort was found already
		}
	}
	for _, e := range x.Drill.Efforts(x.Amount) {
		if e >= drill.SprintEffort {
			return false
		}
		if rises(e) {
			return true
		}
	}
	return false
}

// sprint is a drill of the book at full effort.
func (in *Input) sprint() *drill.Drill {
	return in.from(func(d drill.Drill) bool {
		return d.PeakEffort(d.Range.Min) >= drill.SprintEffort && d.ContactsPerUnit == 0 && d.Serves(drill.Potentiate)
	})
}

// mayGoFull tells whether players may work at full effort at all.
func (r *reading) mayGoFull(players []string) bool {
	return !slices.ContainsFunc(r.Document.Ruled(players[0]),
		func(x plan.Restriction) bool { return x.MaxEffort > 0 && x.MaxEffort < drill.SprintEffort })
}

func noFull(r *reading) {
	if r.Document.Kind != plan.Match {
		return
	}
	var players []string
	for k := range r.strands {
		if s := &r.strands[k]; s.Facts().SinceFull < 0 && r.mayGoFull(s.Players) && !r.content(s.Players) {
			players = append(players, s.Players...)
		}
	}
	if len(players) > 0 {
		r.add("", r.Names(players)+": no effort of 90 % before the match", players, "Add short sprints",
			extra(r.sprint(), "Short sprints", drill.Potentiate, players),
			extra(r.sprint(), "Short sprints", lastPhase(r.Document), players))
	}
}

func sharpEarly(r *reading) {
	if r.Document.Kind != plan.Match {
		return
	}
	for k := range r.strands {
		s := &r.strands[k]
		last, ever := 0.0, false
		for i := range s.Stretches {
			if x := &s.Stretches[i]; x.Peak() >= drill.HardEffort {
				last, ever = x.To, true
			}
		}
		if ever && last < float64(r.due(s))-sharpWithin && !r.content(s.Players) {
			r.add("", fmt.Sprintf("%s: the last hard work ends with %s to go", r.Names(s.Players),
				clock.Offset(last).Lasting()), s.Players, "Add short sprints at the end",
				extra(r.sprint(), "Short sprints", lastPhase(r.Document), s.Players))
		}
	}
}

// hardEarly finds hard work long before it is of use. What stands outside the
// order, such as early kicks, may lie anywhere.
func hardEarly(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		if x.Peak() < drill.HardEffort || x.Block.Phase == drill.Own || x.From >= float64(r.due(s))-hardWithin {
			continue
		}
		id, code := x.Block.ID, x.Drill.Code
		r.add(id, fmt.Sprintf("%s starts with %s to go", x.Drill.Name, clock.Offset(x.From).Lasting()), s.Players,
			"Shorten what follows",
			whole(func(d *plan.Document) { shortenAfter(d, id) }),
			takeAll(id, func(k drill.Drill) bool { return k.PeakEffort(k.Range.Target) >= drill.HardEffort }),
			takeOut(id, code))
	}
}

// shortenAfter turns down to the least what is listed after a block.
func shortenAfter(d *plan.Document, block string) {
	after := false
	for i := range d.Blocks {
		if after {
			for n := range d.Blocks[i].Items {
				least(&d.Blocks[i].Items[n].Drill)
			}
		}
		after = after || d.Blocks[i].ID == block
	}
}

// coolStart finds who is not warm at the start. What is shown as 2.0 is not below 2.
func coolStart(r *reading) {
	if r.Document.Kind != plan.Match {
		return
	}
	var players []string
	lowest := warmth.Full
	for k := range r.strands {
		s := &r.strands[k]
		if at := math.Round(10*s.End()) / 10; at < warmth.Warm && s.Due <= 0 && !r.content(s.Players) {
			players = append(players, s.Players...)
			lowest = min(lowest, at)
		}
	}
	if len(players) == 0 || lowest == warmth.Full {
		return
	}
	game := r.from(func(d drill.Drill) bool { return d.Effort >= drill.RisingEffort && d.Dose.Kind == drill.Time })
	layers := whole(func(d *plan.Document) { d.Today.Layers = true })
	sooner := whole(func(d *plan.Document) { d.Margin = min(d.Margin, 300) })
	changes := []change{layers, all(layers, sooner)}
	mend := "Keep them warmer: layers, or a later end"
	if !slices.ContainsFunc(r.findings, func(f Finding) bool { return f.Rule == "too-long" }) {
		finish := extra(game, "Hard finish", lastPhase(r.Document), players)
		changes = append(changes, all(layers, extra(r.sprint(), "Short sprints", lastPhase(r.Document), players)),
			all(layers, finish), all(layers, sooner, inFull(game, finish)))
		mend = "Keep them warmer: layers, a later end or a hard finish"
	}
	r.add("", fmt.Sprintf("%s: about %s over rest at the start", r.Names(players), r.Document.Measure.Warmer(lowest)),
		players, mend, changes...)
}

// cooling finds strands that stand idle for long once they are warm, before they are due.
func cooling(r *reading) {
	for k := range r.strands {
		s := &r.strands[k]
		for _, gap := range idleOnceWarm(s) {
			if gap.Seconds() <= idleTooLong {
				continue
			}
			game := r.from(func(d drill.Drill) bool {
				return d.Dynamic() && d.Dose.Kind == drill.Time && d.Serves(lastPhase(r.Document))
			})
			there, anywhere := extra(game, "Keep warm", lastPhase(r.Document), s.Players),
				extra(game, "Keep warm", drill.Own, s.Players)
			r.add("", fmt.Sprintf("%s: %s idle once warm, with %s to go", r.Names(s.Players), lasting(gap.Seconds()),
				gap.From.Lasting()), s.Players,
				"Fill the gap with an easy game", there, anywhere, inFull(game, there), inFull(game, anywhere))
		}
	}
}

// idleOnceWarm lists the times in which a strand that is warm does nothing before it is due.
func idleOnceWarm(s *warmth.Strand) (gaps []clock.Window) {
	warm, ever := s.FirstAbove(warmth.Warm)
	if !ever {
		return nil
	}
	for _, x := range s.Stretches {
		from, to := x.From, min(x.To, float64(s.Due))
		if x.Effort >= drill.QuietEffort || x.Block != nil && (x.Drill == nil || !x.Drill.Quiet()) ||
			from >= float64(s.Due) {
			continue
		}
		if last := len(gaps) - 1; last >= 0 && int(gaps[last].To) == int(from) {
			gaps[last].To = clock.Offset(to)
			continue
		}
		gaps = append(gaps, clock.Window{From: clock.Offset(max(from, float64(s.From)+warm)), To: clock.Offset(to)})
	}
	return gaps
}

func missedMust(r *reading) {
	for b := range r.kept() {
		if b.Priority != plan.Must {
			continue
		}
		for _, m := range b.Missed {
			if 2*m.Seconds <= b.Length() || r.ownBlock(m.Player) {
				continue
			}
			pulse := r.from(func(d drill.Drill) bool {
				return d.Serves(b.Phase) && d.Dose.Kind == drill.Time && d.Effort >= drill.QuietEffort &&
					len(d.Kit)+len(d.LaneKit) == 0
			})
			if pulse == nil {
				pulse = r.from(func(d drill.Drill) bool { return d.Serves(b.Phase) && d.Effort >= drill.QuietEffort })
			}
			player := []string{m.Player}
			catchUp := extra(pulse, b.Name+", catch-up", b.Phase, player)
			r.add(b.ID, fmt.Sprintf("%s is away for %s of %s", r.names(player), lasting(m.Seconds), b.Name), player,
				"Give a catch-up of their own",
				catchUp, extra(pulse, b.Name+", catch-up", drill.Own, player),
				func(d *plan.Document) bool { return without(d, b.ID, m.Player) && catchUp(d) })
		}
	}
}

// dueLate finds players who are due later than the others and have no calm before
// the start. Whose turn comes later may be due at the start or after it.
func dueLate(r *reading) {
	if r.Document.Kind != plan.Match {
		return
	}
	var late []string
	latest := clock.Offset(-calm)
	for _, p := range r.Schedule.Players {
		if known := r.Document.Player(p.ID); p.Due > -calm && p.Due < 0 && known != nil && known.DueShift > 0 {
			late, latest = append(late, p.ID), max(latest, p.Due)
		}
	}
	if len(late) > 0 {
		r.add("", fmt.Sprintf("%s may work until %s before the start", r.Names(late), lasting(int(-latest))), late,
			"Be done 3 minutes before",
			whole(func(d *plan.Document) {
				for _, id := range late {
					p := d.Player(id)
					p.DueShift = min(p.DueShift, d.Margin-calm)
				}
			}))
	}
}

func margin(r *reading) {
	if m := r.Document.Margin; r.Document.Kind == plan.Match && (m < 180 || m > 600) {
		r.add("", fmt.Sprintf("Work ends %s before the start", lasting(m)), nil, "Make it 5 minutes",
			whole(func(d *plan.Document) { d.Margin = 300 }), whole(func(d *plan.Document) { d.Margin = 600 }),
			whole(func(d *plan.Document) { d.Margin = 180 }))
	}
}

func armPump(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		if !x.Drill.ArmPump {
			continue
		}
		i := slices.IndexFunc(s.Stretches[n+1:],
			func(y warmth.Stretch) bool { return y.Drill != nil && y.Drill.Throws() && y.From-x.To < pumpClear })
		if i < 0 {
			continue
		}
		y := &s.Stretches[n+1+i]
		r.add(x.Block.ID, fmt.Sprintf("%s ends %s before %s", x.Drill.Name, lasting(int(y.From-x.To)), y.Drill.Name),
			s.Players,
			"Take "+x.Drill.Name+" out", takeOut(x.Block.ID, x.Drill.Code))
	}
}
