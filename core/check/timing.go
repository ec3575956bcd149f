package check

import (
	"fmt"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/warmth"
)

// step is the effort that leads up to full: a step below [drill.SprintEffort].
const step = 0.7

// noStep finds full effort with nothing between 70 and 90 % before it.
func noStep(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		// By steps, or the first full effort was found already.
		led := slices.ContainsFunc(s.Stretches[:n], func(y warmth.Stretch) bool { return y.Effort >= step })
		if x.Effort < drill.SprintEffort || led {
			continue
		}
		rising := r.from(func(d drill.Drill) bool {
			return d.Effort >= step && d.Effort < drill.SprintEffort && d.Serves(drill.Potentiate) && d.ContactsPerUnit == 0
		})
		r.add(x.Block.ID, fmt.Sprintf("%s is full effort, and no step leads up to it", x.Drill.Name), s.Players, "Put rising strides before it",
			before(x.Block.ID, x.Drill.Code, rising), takeOut(x.Block.ID, x.Drill.Code))
	}
}

// sprint is a drill of the book at full effort.
func (r *reading) sprint() *drill.Drill {
	return r.from(func(d drill.Drill) bool {
		return d.Effort >= drill.SprintEffort && d.ContactsPerUnit == 0 && d.Serves(drill.Potentiate)
	})
}

func noFull(r *reading) {
	if r.Document.Kind != plan.Match {
		return
	}
	var players []string
	for k := range r.strands {
		if r.strands[k].Facts().SinceFull < 0 {
			players = append(players, r.strands[k].Players...)
		}
	}
	if len(players) > 0 {
		r.add("", r.names(players)+": no effort of 90 % before the match", players, "Add short sprints",
			extra(r.sprint(), "Short sprints", drill.Potentiate, players), extra(r.sprint(), "Short sprints", lastPhase(r.Document), players))
	}
}

func sharpEarly(r *reading) {
	if r.Document.Kind != plan.Match {
		return
	}
	for k := range r.strands {
		s := &r.strands[k]
		last, ever := 0.0, false
		for _, x := range s.Stretches {
			if x.Effort >= drill.HardEffort {
				last, ever = x.To, true
			}
		}
		if ever && last < float64(s.Due)-sharpWithin {
			r.add("", fmt.Sprintf("%s: the last hard work ends at %s to go", r.names(s.Players), clock.Offset(last).ToGo()), s.Players, "Add short sprints at the end",
				extra(r.sprint(), "Short sprints", lastPhase(r.Document), s.Players))
		}
	}
}

func hardEarly(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		if x.Effort < drill.HardEffort || x.From >= float64(s.Due)-hardWithin {
			continue
		}
		id, code := x.Block.ID, x.Drill.Code
		r.add(id, fmt.Sprintf("%s starts at %s to go", x.Drill.Name, clock.Offset(x.From).ToGo()), s.Players, "Shorten what follows, or take it out",
			whole(func(d *plan.Document) { shortenAfter(d, id) }), takeAll(id, func(k drill.Drill) bool { return k.Effort >= drill.HardEffort }), takeOut(id, code))
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

func coolStart(r *reading) {
	if r.Document.Kind != plan.Match {
		return
	}
	var players []string
	lowest := warmth.Full
	for k := range r.strands {
		s := &r.strands[k]
		if s.End() < warmth.Warm && s.Due <= 0 {
			players = append(players, s.Players...)
			lowest = min(lowest, s.End())
		}
	}
	if len(players) == 0 {
		return
	}
	game := r.from(func(d drill.Drill) bool { return d.Effort >= step && d.Dose.Kind == drill.Time })
	layers := whole(func(d *plan.Document) { d.Today.Layers = true })
	sooner := whole(func(d *plan.Document) { d.Margin = min(d.Margin, 300) })
	finish := extra(game, "Hard finish", lastPhase(r.Document), players)
	r.add("", fmt.Sprintf("%s: %.1f °C over rest at the start, an estimate", r.names(players), lowest), players, "Wear layers, end later or add a hard finish",
		layers, all(layers, extra(r.sprint(), "Short sprints", lastPhase(r.Document), players)), all(layers, finish), all(layers, sooner), all(layers, sooner, inFull(game, finish)))
}

// cooling finds strands that stand idle for long once they are warm, before
// they are due.
func cooling(r *reading) {
	for k := range r.strands {
		s := &r.strands[k]
		for _, gap := range idleOnceWarm(s) {
			if gap.Seconds() <= idleTooLong {
				continue
			}
			game := r.from(func(d drill.Drill) bool {
				return d.Effort >= drill.DynamicEffort && d.Dose.Kind == drill.Time && d.Serves(lastPhase(r.Document))
			})
			there, anywhere := extra(game, "Keep warm", lastPhase(r.Document), s.Players), extra(game, "Keep warm", drill.Own, s.Players)
			r.add("", fmt.Sprintf("%s: %s idle once warm, from %s to go", r.names(s.Players), clock.Duration(gap.Seconds()), gap.From.ToGo()), s.Players,
				"Fill the gap with an easy game, or let the pins go",
				there, anywhere, inFull(game, there), inFull(game, anywhere), unpin)
		}
	}
}

// idleOnceWarm lists the times in which a strand that is warm does nothing
// before it is due.
func idleOnceWarm(s *warmth.Strand) (gaps []clock.Window) {
	warm, ever := s.FirstAbove(warmth.Warm)
	if !ever {
		return nil
	}
	for _, x := range s.Stretches {
		from, to := x.From, min(x.To, float64(s.Due))
		if x.Block != nil || x.Effort > 0 || from >= float64(s.Due) {
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
			if 2*m.Seconds <= b.Length() {
				continue
			}
			pulse := r.from(func(d drill.Drill) bool { return d.Serves(b.Phase) && d.Dose.Kind == drill.Time && d.Effort > 0 })
			if pulse == nil {
				pulse = r.from(func(d drill.Drill) bool { return d.Serves(b.Phase) })
			}
			player := []string{m.Player}
			r.add(b.ID, fmt.Sprintf("%s misses %s of %s", r.names(player), clock.Duration(m.Seconds), b.Name), player, "Give a catch-up of their own",
				func(d *plan.Document) bool {
					return without(d, b.ID, m.Player) && extra(pulse, b.Name+", catch-up", b.Phase, player)(d)
				})
		}
	}
}

func dueLate(r *reading) {
	for _, p := range r.Schedule.Players {
		if p.Due > -180 && r.Document.Kind == plan.Match && !bench(r.Document, p.ID) {
			id := p.ID
			r.add("", fmt.Sprintf("%s may work until %s to go", r.names([]string{id}), p.Due.ToGo()), []string{id}, "Be due 3 minutes before",
				whole(func(d *plan.Document) {
					d.Margin = max(d.Margin, 180)
					for i := range d.Players {
						d.Players[i].DueShift = min(d.Players[i].DueShift, d.Margin-180)
					}
				}))
		}
	}
}

// bench tells whether a player's turn comes later: a due time after the start.
func bench(d *plan.Document, id string) bool {
	p := d.Player(id)
	return p != nil && p.DueShift > d.Margin
}

func margin(r *reading) {
	if m := r.Document.Margin; r.Document.Kind == plan.Match && (m < 180 || m > 600) {
		r.add("", fmt.Sprintf("Work ends %s before the start", clock.Duration(m)), nil, "Make it 5 minutes",
			whole(func(d *plan.Document) { d.Margin = 300 }), whole(func(d *plan.Document) { d.Margin = 600 }), whole(func(d *plan.Document) { d.Margin = 180 }))
	}
}

func armPump(r *reading) {
	for s, n := range r.work() {
		x := &s.Stretches[n]
		if !x.Drill.ArmPump {
			continue
		}
		i := slices.IndexFunc(s.Stretches[n+1:], func(y warmth.Stretch) bool { return y.Drill != nil && y.Drill.Overhead && y.From-x.To < pumpClear })
		if i < 0 {
			continue
		}
		y := &s.Stretches[n+1+i]
		r.add(x.Block.ID, fmt.Sprintf("%s ends %s before %s", x.Drill.Name, clock.Duration(int(y.From-x.To)), y.Drill.Name), s.Players,
			"Take "+x.Drill.Name+" out", takeOut(x.Block.ID, x.Drill.Code))
	}
}
