package hear

import (
	"slices"
	"strings"

	"cuestart/core/pattern"
)

// notSteps are what people are told to do beside what is done in turn.
var notSteps = strings.Fields("swap switch sit rest change drink water walk jog back home repeat go on off " +
	"down up you let see come be stay keep keeping stretch it that them after over")

// placeWords are where something is done, and nothing that is.
var placeWords = strings.Fields("left right near far middle centre low high front inside outside short long " +
	"line lane spot place forehand backhand big small wide narrow slow slowly fast faster quick harder easy")

// postures are how people are while they do something.
var postures = strings.Fields("standing sitting kneeling lying seated walking moving still stationary")

// formWords say in which form something is done.
var formWords = strings.Fields("bent straight knee knees leg legs arm arms single double both")

// combo is the reading in which several steps are done in turn, as one.
func (h *hearing) combo() Reading {
	who := h.whoFirst()
	steps, firm, own := h.inTurn(who)
	steps = h.opened(steps)
	each := h.eachCounted(who)
	apart := !firm && len(each) >= 2
	if apart {
		steps = slices.Compact(slices.Sorted(slices.Values(slices.Concat(steps, each))))
		own = max(own, len(each))
	}
	if listed := h.underLabel(); listed != nil { // drills: arms, half slide, full, twenty each
		steps, apart = listed, true
	}
	if row := h.row(); len(steps) < 3 && row != nil {
		steps = row
	}
	if len(steps) < 2 {
		return h.hyphened()
	}
	listed := 0
	for _, k := range steps {
		if c := &h.chunks[k]; c.to-c.from <= 4 {
			listed++
		}
	}
	switch {
	case h.sharedEach() != nil && len(steps) > 2, firm && len(steps) >= 2, own >= 2 && own >= len(steps)-1:
	case listed >= 3 && listed == len(steps) && !slices.ContainsFunc(steps[:len(steps)-1],
		func(k int) bool { return h.counted(&h.chunks[k]) }):
	default:
		return no
	}
	r := h.stepped(steps, apart)
	if firm {
		r.Score += 2.5
	}
	if end := h.chunks[steps[len(steps)-1]].to - 1; h.is(end, "back", "home") {
		r.Score++
	}
	return r
}

// inTurn are the chunks that may be steps, whether a word joins them, and how many have an amount of their own.
func (h *parted) inTurn(who int) (steps []int, firm bool, own int) {
	for k := range h.chunks {
		c := &h.chunks[k]
		if k == who || c.from >= c.to || c.after == "(" || c.after == "or" {
			continue
		}
		joined := c.after == "then" || c.after == "into" || c.after == "+"
		if !h.step(c, len(steps) > 0) {
			continue
		}
		if h.counted(c) {
			own++
		}
		if len(steps) > 0 && joined && h.chunks[k-1].from == h.chunks[k-1].to ||
			joined && len(steps) > 0 && steps[len(steps)-1] == k-1 {
			firm = true
		}
		steps = append(steps, k)
	}
	return steps, firm, own
}

// numbered tells whether a chunk says how often, or how long.
func (h *marked) numbered(c *chunk) bool {
	return slices.ContainsFunc(slices.Concat(c.before, c.marks), func(m int) bool {
		is := &h.marks[m]
		return slices.Contains([]role{roleCount, roleSetsReps, roleTime, roleHeld, roleBreaths, roleTimes, roleParts},
			is.role) && (is.role != roleCount || is.from > c.from || is.n < 40)
	})
}

// eachCounted are the chunks of a list of which each has its own amount, whatever they are called: "kick
// slides 5, punches 10, doubles 4". Something of them is known.
func (h *parted) eachCounted(who int) (list []int) {
	known, series := false, h.series()
	for k := range h.chunks {
		c := &h.chunks[k]
		listed := c.after == "," || c.after == "" && len(list) == 0 ||
			(c.after == ":" || c.after == "--") && k == 1 && (who == 0 || series)
		if k == who || !listed || c.from >= c.to || c.to-c.from > 4 || !h.numbered(c) {
			continue
		}
		if first := h.words[c.from].is; slices.Contains(cueFirst, first) && !series &&
			!(c.to-c.from > 1 && strings.HasSuffix(h.words[c.to-1].is, "s")) || slices.Contains(notSteps, first) ||
			only(h.words[c.from:c.to], placeWords) || only(h.words[c.from:c.to], natural) ||
			groupLike(h.words[c.from:c.to]) {
			continue
		}
		text := strings.ToLower(h.text(c.from, c.to))
		known = known || h.Moves(text) || h.Known(text)
		list = append(list, k)
	}
	if !known && len(list) < 2 {
		return nil
	}
	return list
}

// series tells whether a line begins with what a row of drills is called, before a colon or a dash.
func (h *parted) series() bool {
	return len(h.chunks) > 1 && len(h.chunks[0].marks) == 0 && h.chunks[0].from < h.chunks[0].to &&
		(h.chunks[1].after == ":" || h.chunks[1].after == "--") &&
		h.is(h.chunks[0].to-1, "drill", "drills", "ladder", "series", "circuit", "complex", "sequence", "progression",
			"flow", "combo")
}

// row are chunks of a word or two with commas between them, of which the last says how often all are done:
// "clear, drop, smash, net x 6".
func (h *parted) row() (list []int) {
	known := false
	for k := range h.chunks {
		c := &h.chunks[k]
		text := strings.ToLower(h.text(c.from, c.to))
		switch {
		case c.after != "," && len(list) > 0:
			return nil
		case c.from >= c.to || c.to-c.from > 2 || len(c.before) > 0 || slices.Contains(cueFirst, h.words[c.from].is) ||
			only(h.words[c.from:c.to], placeWords) || groupLike(h.words[c.from:c.to]) || h.Person(text):
			return nil
		}
		known = known || h.Moves(text) || h.Known(text)
		if list = append(list, k); len(c.marks) > 0 {
			break
		}
	}
	if !known || len(list) < 3 {
		return nil
	}
	last := &h.chunks[list[len(list)-1]]
	if len(last.marks) != 1 || h.marks[last.marks[0]].role != roleTimes {
		return nil
	}
	return list
}

// sharedEach are the marks, with commas around them and nothing else, that say how much of each of what stands
// before them: ", four each".
func (h *parted) sharedEach() []int {
	for k := len(h.chunks) - 1; k > 1; k-- {
		c := &h.chunks[k]
		if c.from < c.to || c.after != "," && c.after != "--" {
			continue
		}
		counts, each := false, false
		for _, m := range c.marks {
			is := h.marks[m].role
			if is == roleMetres && h.is(h.marks[m].to-1, "each") { // 30 m of each
				return c.marks[:1]
			}
			each = each || is == roleEach
			counts = counts || is == roleCount || is == roleTime || is == roleSetsReps
		}
		if each && counts && len(c.marks) == 2 {
			return c.marks[:1]
		}
	}
	return nil
}

// underLabel are what a label says are drills, with commas between them and how much of each at their end.
func (h *parted) underLabel() (list []int) {
	if !h.series() || h.sharedEach() == nil {
		return nil
	}
	for k := 1; k < len(h.chunks); k++ {
		c := &h.chunks[k]
		if c.from >= c.to {
			break
		}
		if c.after != "," && k > 1 || len(c.marks)+len(c.before) > 0 || c.to-c.from > 4 {
			return nil
		}
		list = append(list, k)
	}
	return list
}

// opened adds the words that a list of short steps begins with: "clear, drop, smash".
func (h *parted) opened(steps []int) []int {
	if len(steps) < 2 || steps[0] != 1 || h.whoFirst() >= 0 {
		return steps
	}
	c, next := &h.chunks[0], &h.chunks[1]
	if c.to-c.from > 2 || c.from >= c.to || len(c.marks)+len(c.before) > 0 || next.after != "," ||
		next.to-next.from > 2 || only(h.words[c.from:c.to], placeWords) {
		return steps
	}
	return append([]int{0}, steps...)
}

// counted tells whether a chunk has an amount of its own.
func (h *marked) counted(c *chunk) bool {
	for _, k := range slices.Concat(c.before, c.marks) {
		switch h.marks[k].role {
		case roleCount, roleSetsReps, roleTime, roleHeld, roleBreaths, roleTrips, roleMetres, roleLine, roleBack,
			roleParts, roleLaps, roleLengths, roleTimes:
			return true
		}
	}
	last := h.words[c.to-1].is
	return c.to-c.from > 1 && (last == "back" || last == "home" || last == "out" || last == "down" || last == "up")
}

// repeats tells whether a chunk says how often it is done over.
func (h *marked) repeats(c *chunk) bool {
	return slices.ContainsFunc(c.marks, func(k int) bool {
		is := h.marks[k].role
		return is == roleTrips || is == roleTimes || is == roleSetsReps
	})
}

// stepped is the combo of chunks; apart tells whether each has its own amount and nothing joins them.
func (h *hearing) stepped(steps []int, apart bool) Reading {
	r := h.with(0, 0, h.all())
	r.Is, r.Cues = Combo, nil
	last, both, total := steps[len(steps)-1], 1.0, 0.0
	// each is done so often
	apart = apart || slices.ContainsFunc(steps[:len(steps)-1], func(k int) bool { return h.repeats(&h.chunks[k]) })
	for _, k := range steps {
		c := &h.chunks[k]
		from, to, score := h.name(c, later)
		total += score
		var own []int
		for _, m := range slices.Concat(c.before, c.marks) {
			times, ways, ok := h.shared(m, k == steps[0], k == last, apart)
			if r.Times = max(r.Times, times); ways > 0 {
				both = ways
			}
			if ok {
				own = append(own, m)
			}
		}
		r.Steps = append(r.Steps, h.oneStep(c, from, to, own))
	}
	if len(r.Steps) == 2 && strings.EqualFold(r.Steps[0].Name, r.Steps[1].Name) {
		return no
	}
	if !apart && h.sharedEach() == nil {
		r.Times = max(r.Times, h.timesBeside(steps))
	}
	if r.Times > 1 {
		r.Times *= both
	}
	r.Times = max(1, r.Times)
	all := h.amount("", h.all())
	r.Amount = Amount{Rest: all.Rest, Efforts: all.Efforts}
	r.Name = h.clean(h.chunks[steps[0]].from, h.chunks[last].to)
	r.Cues = append(r.Cues, h.cues(h.chunks[steps[0]].from, h.chunks[last].to)...)
	if who := h.whoFirst(); who >= 0 {
		r.Who = append(r.Who, h.text(h.chunks[who].from, h.chunks[who].to))
	}
	r.Moves = true
	r.Score = total/float64(len(steps)) + 2.5 + 0.5*float64(len(steps))
	return r
}

// oneStep is the step that words of a chunk name, with the marks that are its own, or those that all share.
func (h *parted) oneStep(c *chunk, from, to int, own []int) Step {
	h.name0, h.name1 = from, to
	name := h.clean(from, to)
	if each := h.sharedEach(); each != nil && !h.numbered(c) &&
		!slices.ContainsFunc(own, func(m int) bool {
			return h.marks[m].role == roleLengths || h.marks[m].role == roleTrips
		}) {
		own = append(own, each...)
	}
	a := h.amount(name, own)
	if a.None() {
		a.Reps = 1
	}
	return Step{name, a}
}

// shared is what a mark of a step says of all of them: how often they are done, on how many sides;
// own tells whether it is the step's.
func (h *marked) shared(m int, first, last, apart bool) (times, ways float64, own bool) {
	mk := &h.marks[m]
	text := h.text(mk.from, mk.to)
	switch mk.role {
	case roleTimes, roleSets:
		if last && !apart || first && mk.from == 0 {
			return mk.n, 0, false
		}
	case roleTrips:
		if last && !apart && !strings.Contains(h.line, " + ") {
			mk.role = roleMetres
			return mk.sets, 0, true
		}
	case roleSetsReps:
		if first && (strings.Contains(text, "round") || strings.Contains(text, "set")) {
			mk.role = roleCount
			return mk.sets, 0, true
		}
	case roleSide, roleWays:
		if last && !apart {
			return 0, mk.n, false
		}
	case roleRest, roleEfforts:
		return 0, 0, false
	case roleCount:
		after := m > 0 && h.marks[m-1].role == roleMetres && h.marks[m-1].to >= mk.from-1 // 10 m, 3 times
		if last && (strings.Contains(text, "of") || after) {
			return mk.n, 0, false
		}
	}
	return 0, 0, true
}

// timesBeside is how often steps are done, as pieces beside them say.
func (h *parted) timesBeside(steps []int) (times float64) {
	both := 1.0
	for k := range h.chunks {
		if slices.Contains(steps, k) {
			continue
		}
		for _, m := range slices.Concat(h.chunks[k].before, h.chunks[k].marks) {
			switch mk := &h.marks[m]; mk.role {
			case roleSide:
				both = 2
			case roleTimes, roleSets, roleCount:
				times = max(times, mk.n)
			case roleParts:
				for _, n := range mk.list {
					times += n
				}
			}
		}
	}
	return times * both
}

// hyphened is a combo written as one word: catch-turn-throw.
func (h *hearing) hyphened() Reading {
	for k := range h.chunks {
		c := &h.chunks[k]
		if c.from >= c.to {
			continue
		}
		parts := strings.Split(strings.ToLower(h.words[c.from].is), "-")
		if len(parts) < 3 || c.to-c.from > 2 {
			continue
		}
		for _, p := range parts {
			if !h.Word(p) && !h.Moves(p) {
				return no
			}
		}
		r := h.with(c.from, c.to, h.all())
		a := h.amount("", h.all())
		r.Is, r.Name, r.Moves = Combo, h.clean(c.from, c.to), true
		r.Times = max(1, a.Sets) * max(1, a.Reps)
		for _, n := range a.Parts {
			r.Times += n
		}
		if len(a.Parts) > 0 {
			r.Times--
		}
		for _, p := range parts {
			r.Steps = append(r.Steps, Step{Name: p, Amount: Amount{Reps: 1}})
		}
		r.Amount = Amount{Rest: a.Rest, Efforts: a.Efforts}
		r.Score = 9
		return r
	}
	return no
}

// theirChoice is how people are told to choose.
var theirChoice = pattern.Must(`(?i)\b(?:(?:your|their|own) choice|whichever|(?:you|they) choose|pick one|take your pick)\b`)

// shortChoices tells whether what may be chosen has names of a few words, and each is something to do.
func (h *parted) shortChoices(parts []int) bool {
	for n, k := range parts {
		c := &h.chunks[k]
		if c.to-c.from > 3 || only(h.words[c.from:c.to], placeWords) || only(h.words[c.from:c.to], natural) ||
			groupLike(h.words[c.from:c.to]) || h.aside[c.from] ||
			n > 0 && (slices.Contains(cueFirst, h.words[c.from].is) &&
				!h.Known(strings.ToLower(h.text(c.from, c.to))) || slices.Contains(preps, h.words[c.from].is) ||
				len(c.before) > 0) {
			return false
		}
	}
	return true
}

// choice is the reading in which one of several is done.
func (h *hearing) choice() Reading {
	ors := 0
	var parts []int
	for k := range h.chunks {
		c := &h.chunks[k]
		if c.from >= c.to {
			continue
		}
		if c.after == "or" {
			ors++
		}
		next := k+1 < len(h.chunks) && h.chunks[k+1].after == "or"
		if c.after == "or" || next || c.after == "," && ors == 0 {
			parts = append(parts, k)
		}
	}
	if ors == 0 || len(parts) < 2 {
		return no
	}
	r := h.with(h.chunks[parts[0]].from, h.chunks[parts[len(parts)-1]].to, h.all())
	r.Is = Choice
	total := 0.0
	for _, k := range parts {
		from, to, score := h.name(&h.chunks[k], k == parts[0])
		total += score
		r.Choices = append(r.Choices, h.clean(from, to))
	}
	if h.chunks[parts[len(parts)-1]].after != "or" || h.chunks[parts[0]].after == "," && parts[0] > 0 && total < 4 {
		return no
	}
	r.Name = strings.Join(r.Choices, " or ")
	r.Moves = total/float64(len(parts)) > 3
	r.Amount = h.amount(r.Choices[0], h.all())
	r.Score = total/float64(len(parts)) + 2.5 + sense(r.Choices[0], &r.Amount)
	if theirChoice.MatchString(h.line) || h.shortChoices(parts) {
		r.Score += 4
	}
	if slices.ContainsFunc(r.Choices, func(one string) bool { return len(strings.Fields(one)) > 5 }) {
		r.Score -= 4
	}
	return r
}
