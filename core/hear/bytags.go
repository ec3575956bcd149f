package hear

import (
	"slices"
	"strings"
)

// byTags is a reading in which the words of a line are there for what their tags say; of how much, where they tell
// otherwise than its marks.
func (h *hearing) byTags(best Reading) Reading {
	if h.tags == nil {
		h.tags, h.names = h.tagged()
		h.thereAndBack(h.tags)
		h.names = h.labels(h.tags, h.names)
		if row := h.countedRow(); len(row) > 1 && len(row) >= len(h.names) {
			h.takeRow(row)
		}
		h.called = len(h.names)
	}
	of := h.tags
	if h.called == 0 || best.Is == "" {
		return best
	}
	name := h.names[0]
	r := h.named(name.from, name.to, 0)
	r.Score, r.One = best.Score, h.called == 1
	h.knownFirst(&r, name)
	h.whoByTags(&r, of)
	lengths := r.Amount.Trips == 1 && r.Amount.Metres > 0 &&
		len(slices.DeleteFunc(h.grouped(of), func(g group) bool { return g.tag != tagMetres })) > 1
	if !lengths && h.agree(of) && !h.tagsSayMore(of, &r) &&
		!(r.Amount.None() && slices.ContainsFunc(of, func(t tag) bool { return t == tagSets || t == tagReps })) {
		return r
	}
	if amount := h.tally(of, r.Name); amount.Totals() != r.Amount.Totals() {
		amount.Tempo, amount.Each = r.Amount.Tempo, r.Amount.Each
		if len(amount.Efforts) == 0 && slices.Contains(of, tagEffort) {
			amount.Efforts = r.Amount.Efforts
		}
		r.Amount = amount
		h.notWays(&r, of)
	}
	h.inAll(&r.Amount)
	return r
}

// whoByTags adds who does something, and who does not, by the tags of a line, where no mark says so already.
func (h *marked) whoByTags(r *Reading, of []tag) {
	for _, g := range h.grouped(of) {
		if slices.ContainsFunc(h.marks,
			func(m mark) bool { return m.role == roleWho && m.from < g.to && g.from < m.to }) {
			continue
		}
		text := strings.Trim(h.text(g.from, g.to), " ,:")
		switch g.tag {
		case tagWho:
			r.Who = append(r.Who, text)
		case tagNot:
			for _, w := range []string{"except ", "bar ", "but "} {
				text = strings.TrimPrefix(text, w)
			}
			r.Not = append(r.Not, text)
		}
	}
}

// notWays adds up two counts that are alike, of which nothing says that they are ways or sides, and tells the second of
// them: "10 approaches, 10 swings".
func (h *sentence) notWays(r *Reading, of []tag) {
	parts := r.Amount.Parts
	if len(parts) != 2 || parts[0] != parts[1] || r.Amount.PartSides ||
		slices.ContainsFunc(h.words, func(w word) bool { return classes[w.is] == "way" || classes[w.is] == "place" }) {
		return
	}
	counts := slices.DeleteFunc(h.grouped(of), func(g group) bool { return g.tag != tagReps })
	if len(counts) != 2 || slices.Contains(of, tagSides) || slices.Contains(of, tagPart) {
		return
	}
	r.Amount.Parts = []float64{parts[0] + parts[1]}
	told := strings.Trim(h.text(counts[1].from, len(h.words)), " .")
	if !slices.ContainsFunc(r.Cues, func(cue string) bool { return strings.Contains(told, cue) }) {
		r.Cues = append(r.Cues, told)
	}
}

// inAll takes a number of which half is said to be each side's for both sides together: "12 (6
// each)", "10 passes, 5 each hand".
func (h *labelled) inAll(a *Amount) {
	var at []int
	for i := range h.words {
		if h.words[i].numeral {
			at = append(at, i)
		}
	}
	if len(at) != 2 || h.called > 1 || a.Seconds+a.Hold+a.Trips+a.Metres != 0 {
		return
	}
	all, half, behind := h.words[at[0]].number, h.words[at[1]].number, at[1]+1
	each := h.is(behind, "each", "ea", "e/s", "left", "right") ||
		h.is(behind, "per", "a", "on", "off") && h.is(behind+1, "side", "leg", "arm", "hand", "foot", "each", "left")
	if all > 0 && half == all/2 && each && at[1]-at[0] > 1 {
		a.Reps, a.Sides, a.Parts, a.Sets, a.Ways = half, 2, nil, 0, 0
	}
}

// knownFirst fills in who is known by name before what they do: "Ada, Bo: throws".
func (h *labelled) knownFirst(r *Reading, name naming) {
	if who := h.whoFirst(); who >= 0 && h.chunks[who].to <= name.from {
		for i := h.chunks[who].from; i < h.chunks[who].to; i++ {
			if text := h.text(i, i+1); h.Person(text) && !slices.ContainsFunc(r.Who,
				func(is string) bool { return strings.Contains(is, text) }) && h.tags[i] != tagWho {
				r.Who = append(r.Who, text)
			}
		}
	}
}

// labels takes what stands before a colon at the beginning of a line, where something that is done stands behind it,
// for who does it, or for what sort it is of: it is no name.
func (h *lexed) labels(of []tag, names []naming) []naming {
	colon := slices.IndexFunc(h.words, func(w word) bool { return w.delimits() })
	if colon < 1 || !h.is(colon, ":") || slices.ContainsFunc(of[:colon], func(t tag) bool { return t >= tagReps }) {
		return names
	}
	later := slices.DeleteFunc(slices.Clone(names), func(n naming) bool { return n.from < colon })
	people := h.Person(h.text(0, colon)) || slices.ContainsFunc(h.words[:colon],
		func(w word) bool { return slices.Contains(groupWords, w.is) || h.Person(w.is) })
	if len(later) == 0 || len(later) == len(names) && !people || slices.Contains(of[:colon], tagWho) {
		return names
	}
	if own := len(later) == 1 && len(names) == 2 && !people && h.numeral(later[0].from-1) &&
		!h.Known(strings.ToLower(h.text(later[0].from, later[0].to))); own {
		// "slip cordon: 20 edges"
		for i := later[0].from; i < later[0].to; i++ {
			of[i] = tagTold
		}
		return names[:1]
	}
	for i := range colon {
		if of[i] = tagTold; people {
			of[i] = tagWho
		}
	}
	return later
}

// fitting are the tags that the numbers of marks may have.
var fitting = map[role][]tag{
	roleCount: {tagReps, tagLeast}, roleSets: {tagSets, tagReps, tagLeast},
	roleTimes: {tagSets, tagReps, tagLeast, tagLaps}, roleSetsReps: {tagSets, tagReps, tagLeast, tagMetres},
	roleSide: {tagSides}, roleWays: {tagSides, tagPart, tagSets}, roleParts: {tagReps, tagSets},
	roleTime: {tagTime, tagSets, tagLeast},
	roleHeld: {tagHold, tagReps}, roleBreaths: {tagBreaths, tagReps}, roleOnOff: {tagTime, tagRest, tagSets},
	roleRest:  {tagRest},
	roleTrips: {tagSets, tagMetres}, roleMetres: {tagMetres}, roleLine: {tagLine}, roleLengths: {tagLengths, tagSets},
	roleLaps:    {tagLaps},
	roleEfforts: {tagEffort}, roleDegrees: {tagReps, tagEffort, tagSets}, roleRungs: {tagMetres, tagSets},
}

// agree tells whether the marks of a line and its tags take its numbers for the same, one of them for how many.
func (h *marked) agree(of []tag) bool {
	marked, counts, times := h.owners(), map[int]bool{}, map[int]bool{}
	for i := range h.words {
		if !h.words[i].numeral || h.words[i].spelt && of[i] == tagTold && marked[i] < 0 {
			continue
		}
		if marked[i] < 0 {
			if of[i] >= tagReps {
				return false
			}
			continue
		}
		role := h.marks[marked[i]].role
		if role == roleRungs || role == roleDegrees || role == roleBreaths || role == roleOnOff {
			// they are what they are
			return true
		}
		fits, counted := fitting[role]
		if counted != (of[i] >= tagReps) || counted && !slices.Contains(fits, of[i]) {
			return false
		}
		switch of[i] {
		case tagReps:
			counts[marked[i]] = true
		case tagTime:
			times[marked[i]] = true
		}
	}
	return len(counts) < 2 && len(times) < 2
}

// tagsSayMore tells whether the tags of a line know more of how much than its marks: parts of
// which each is done, or a line of the ground to which as many lengths go.
func (h *lined) tagsSayMore(of []tag, r *Reading) bool {
	parts, line, lengths := 0, false, false
	for _, g := range h.grouped(of) {
		parts += btoi(g.tag == tagPart)
		line = line || g.tag == tagLine
		lengths = lengths || g.tag == tagSets || g.tag == tagLengths || g.tag == tagBack
	}
	now, then := r.Amount.Totals(), h.tally(of, r.Name)
	by := then.Totals()
	switch {
	case parts > 1 && len(r.Amount.Parts) == 0:
		return by[0] > now[0] && now[0] > 0 || by[4] > now[4] && now[4] > 0
	case line && lengths:
		return now[1] == 0 && now[3] == 0 && now[4] == 0 && r.Amount.To == ""
	}
	return false
}

// onlyTold tells whether a mark of how much has a number and is, by the tags of the line, only told.
func (h *labelled) onlyTold(m *mark) bool {
	if _, counted := fitting[m.role]; !counted || m.role == roleOnOff || len(h.tags) == 0 {
		return false
	}
	return slices.ContainsFunc(h.words[m.from:m.to], func(w word) bool { return w.numeral }) &&
		!slices.ContainsFunc(h.tags[m.from:m.to], func(t tag) bool { return t != tagTold })
}

// thereAndBack takes a line of the ground from which people come back for how far they go, where it was only told.
func (h *marked) thereAndBack(of []tag) {
	for _, m := range h.marks {
		if m.role != roleLine || m.to >= len(of) || of[m.to] != tagBack {
			continue
		}
		if !slices.ContainsFunc(of[m.from:m.to], func(t tag) bool { return t != tagTold }) {
			for i := m.from; i < m.to; i++ {
				of[i] = tagLine
			}
		}
	}
}
