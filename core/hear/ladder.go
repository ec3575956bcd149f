package hear

import "cuestart/core/pattern"

// ladder is the reading in which one thing is done so often from so far, and then so often from
// further: throws 60 ft x 10, 90 ft x 10. Of what does not travel it is all of them, and from where
// is told; of what does each length is a step.
func (h *hearing) ladder() Reading {
	for k := range h.marks {
		if h.marks[k].role == roleRungs {
			return h.rungs(&h.marks[k])
		}
	}
	var rungs []int
	for k := range h.marks {
		if m := &h.marks[k]; m.role == roleTrips || m.role == roleSetsReps && m.n >= 10 && int(m.n)%5 == 0 &&
			bareLadder.MatchString(h.line) {
			rungs = append(rungs, k)
		}
	}
	if len(rungs) < 2 {
		return no
	}
	for i := 1; i < len(rungs); i++ { // nothing else is named between them
		for w := h.marks[rungs[i-1]].to; w < h.marks[rungs[i]].from; w++ {
			if !h.words[w].delimits() && !h.is(w, "then", "and", "at", "from", "+") {
				return no
			}
		}
	}
	r := h.single()
	if r.Is != Drill || r.Name == "" {
		return no
	}
	first, last := &h.marks[rungs[0]], &h.marks[rungs[len(rungs)-1]]
	r.Score += float64(len(rungs))
	a := r.Amount
	if !h.Goes(r.Name) {
		a.Trips, a.Metres, a.Reps, a.Sets, a.Parts = 0, 0, 0, 0, nil
		for _, k := range rungs {
			a.Reps += h.marks[k].sets
		}
		r.Amount, r.Cues = a, append(r.Cues, h.text(first.from, last.to))
		return r
	}
	r.Is, r.Times, r.Amount = Combo, 1, Amount{Rest: a.Rest, Efforts: a.Efforts}
	a.Sets, a.Reps = 0, 0
	for _, k := range rungs {
		a.Trips, a.Metres = h.marks[k].sets, h.marks[k].n
		r.Steps = append(r.Steps, Step{r.Name, a})
	}
	return r
}

// bareLadder is a row of so often so far without a unit: "starts: 1x10, 2x20, 1x30".
var bareLadder = pattern.Must(`(?i)\b(?:starts|sprints|strides|runs|accels|accelerations|flys|blocks)\b.*\d ?[x×] ?\d0\b, ?\d ?[x×] ?\d0\b`)

// rungs is the reading in which so many are done from each of several distances: "20, 30, 40 yd x 3 each".
func (h *hearing) rungs(m *mark) Reading {
	r := h.single()
	if r.Is != Drill || r.Name == "" {
		return no
	}
	a := r.Amount
	r.Score += 4
	if !h.Goes(r.Name) {
		a.Reps, a.Sets, a.Trips, a.Metres, a.Sides, a.Parts = m.n*float64(len(m.list)), 0, 0, 0, 0, nil
		r.Amount, r.Cues = a, append(r.Cues, h.text(m.from, m.to))
		return r
	}
	r.Is, r.Times, r.Amount = Combo, 1, Amount{Rest: a.Rest, Efforts: a.Efforts}
	for _, far := range m.list {
		r.Steps = append(r.Steps, Step{r.Name, Amount{Trips: m.n, Metres: far, Unit: h.unit(m)}})
	}
	return r
}
