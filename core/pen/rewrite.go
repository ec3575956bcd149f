package pen

import (
	"reflect"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// Written is what became of a line of a text.
type Written struct {
	Became
	At int // the line of the text, from 0
}

// Rewrite reads a plan's words again, as they were edited, and leaves alone what was not: lines that
// are as [Reader.YourWords] has them keep their blocks and drills with whatever was set by hand.
// What became of each sentence of the text is returned, in its order.
func Rewrite(r *say.Reader, d *plan.Document, text string) []Written {
	was := YourWords(r, d)
	w := &rewrite{Reader: r, was: was, now: strings.Split(strings.ReplaceAll(text, "\r", ""), "\n"), d: d}
	w.match()
	old := make([]string, len(was))
	for i := range was {
		old[i] = was[i].Text
	}
	base, before := afresh(r, d, old, func(int) bool { return true })
	next, after := afresh(r, d, w.now, func(j int) bool { return w.same[j] >= 0 })
	w.base, w.next, w.after = base, next, after
	w.pair(before)
	w.merge()
	w.without()
	next.KeepSaid(saidOf(r, next, w.now, after))
	*d = *next
	return after
}

// rewrite is a plan between its words as they were and as they are.
type rewrite struct {
	*say.Reader
	was  []Yours
	now  []string
	same []int // the old line that a line is; -1: none
	like []int // or that it was edited from

	d, base, next *plan.Document // as it is, by its old words, by its new words
	after         []Written
	of            map[string]string // the plan's block that a block by the new words is
	wasOf         map[string]string // and the block by the old words that that is
}

// afresh reads lines into a plan that is otherwise as d, without what they said of the day where
// settled tells so.
func afresh(r *say.Reader, d *plan.Document, lines []string, settled func(line int) bool) (*plan.Document, []Written) {
	c := d.Clone()
	c.Blocks, c.Said = nil, nil
	for i := range c.Lists {
		c.Lists[i].Blocks = nil
	}
	reader := *r
	reader.Blocks = nil
	w := &writer{Reader: &reader, doc: c}
	var all []Written
	var read []say.Line
	pieces := r.Pieces(lines)
	for _, one := range pieces {
		l := reader.ReadPiece(one)
		reader.Remember(l)
		read = append(read, l)
	}
	first := opens(r, c, read)
	for i, one := range pieces {
		l := read[i]
		became := Became{Line: l}
		if is := l.Is; !settled(one.Line) || is != say.IsBring && is != say.IsStock {
			became = w.line(&l)
		}
		if i == first {
			became.Noted = "Work begins at " + clock.Offset(-c.Open.Before).ToGo() + ", as this says"
		} else if l.Is == say.IsNote {
			became.Noted = say.StartSaid(c, l.Said)
		}
		all = append(all, Written{became, one.Line})
	}
	w.name()
	return c, all
}

// match finds which lines are as they were, in order, and which took the place of one.
func (w *rewrite) match() {
	n, m := len(w.was), len(w.now)
	most := make([][]int, n+1)
	for i := range most {
		most[i] = make([]int, m+1)
	}
	for i := n - 1; i >= 0; i-- {
		for j := m - 1; j >= 0; j-- {
			if most[i][j] = max(most[i+1][j], most[i][j+1]); w.was[i].Text == w.now[j] {
				most[i][j] = max(most[i][j], most[i+1][j+1]+1)
			}
		}
	}
	w.same, w.like = make([]int, m), make([]int, m)
	i, from, fromNow := 0, 0, 0
	gap := func(i, j int) { // as many lines anew as are gone: each for each
		for k := fromNow; k < j && i-from == j-fromNow; k++ {
			w.like[k] = from + k - fromNow
		}
		from, fromNow = i+1, j+1
	}
	for j := range m {
		for w.same[j], w.like[j] = -1, -1; i < n && w.was[i].Text != w.now[j] && most[i+1][j] == most[i][j]; {
			i++
		}
		if i < n && w.was[i].Text == w.now[j] && most[i][j] == most[i+1][j+1]+1 {
			w.same[j] = i
			gap(i, j)
			i++
		}
	}
	gap(n, m)
}

// pair finds which block by the new words is which of the plan, and which by the old words that is.
func (w *rewrite) pair(before []Written) {
	w.wasOf, w.of = map[string]string{}, map[string]string{}
	for _, b := range before {
		if id := w.was[b.At].blockOf(b.Line.Said); id != "" && b.Block != "" && w.wasOf[id] == "" {
			w.wasOf[id] = b.Block
		}
	}
	votes, first := map[[2]string]int{}, [][2]string{}
	for _, a := range w.after {
		for weight, line := range []int{w.like[a.At], w.same[a.At]} {
			if line < 0 || a.Block == "" {
				continue
			}
			if id := w.was[line].blockOf(a.Line.Said); id != "" {
				pair := [2]string{a.Block, id}
				if votes[pair] == 0 {
					first = append(first, pair)
				}
				votes[pair] += 1 + 9*weight
			}
		}
	}
	slices.SortStableFunc(first, func(x, y [2]string) int { return votes[y] - votes[x] })
	taken := map[string]bool{}
	for _, pair := range first {
		if w.of[pair[0]] == "" && !taken[pair[1]] {
			w.of[pair[0]], taken[pair[1]] = pair[1], true
		}
	}
}

// merge makes the blocks by the new words: drills of lines that are as they were from the plan, what
// else a block is from the plan too where the words say of it what they said.
func (w *rewrite) merge() {
	for _, a := range w.after {
		if a.Block == "" || w.same[a.At] < 0 {
			continue
		}
		have := w.was[w.same[a.At]].drills(w.d, say.AsTyped(a.Line.Said))
		var to []*plan.Item
		for _, put := range append(slices.Clone(a.Before), Placed{a.Block, a.Items}) {
			for _, item := range put.Items {
				to = append(to, &w.next.Block(put.Block).Items[item])
			}
		}
		for n := range to {
			if len(have) == len(to) {
				*to[n] = have[n]
			}
		}
	}
	ids := map[string]string{}
	for b := range w.next.AllBlocks() {
		if ids[b.ID] = w.of[b.ID]; ids[b.ID] == "" {
			ids[b.ID] = w.free(ids)
		}
	}
	baseIDs := map[string]string{}
	for id, by := range w.wasOf {
		baseIDs[by] = id
	}
	for b := range w.next.AllBlocks() {
		was, by := w.d.Block(w.of[b.ID]), w.base.Block(w.wasOf[w.of[b.ID]])
		renumber(b, ids)
		if was != nil && by != nil {
			from := by.Clone()
			renumber(&from, baseIDs)
			*b = threeWay(b, &from, was)
		}
	}
	for i := range w.after {
		w.after[i].Block = ids[w.after[i].Block]
		for k := range w.after[i].Before {
			w.after[i].Before[k].Block = ids[w.after[i].Before[k].Block]
		}
	}
}

// drills are those that a sentence of a line is of, or all of the line's.
func (l Yours) drills(d *plan.Document, text string) (list []plan.Item) {
	for _, p := range l.pieces {
		if b := d.Block(p.block); b != nil && (len(l.pieces) == 1 || say.AsTyped(p.text) == text) {
			for _, i := range p.items {
				item := b.Clone().Items[i]
				list = append(list, item)
			}
		}
	}
	return list
}

// free is an id that no block has.
func (w *rewrite) free(taken map[string]string) string {
	for n := 1; ; n++ {
		id := "w" + strconv.Itoa(n)
		used := w.d.Block(id) != nil
		for _, one := range taken {
			used = used || one == id
		}
		if !used {
			return id
		}
	}
}

// renumber gives a block, and what it follows, other ids; what follows nothing any more does not.
func renumber(b *plan.Block, ids map[string]string) {
	b.ID = ids[b.ID]
	var after []string
	for _, id := range b.After {
		if ids[id] != "" {
			after = append(after, ids[id])
		}
	}
	b.After, b.Hold.Straight = after, ids[b.Hold.Straight]
}

// threeWay is a block as it is, with what the new words say of it otherwise than the old ones did,
// and with their drills.
func threeWay(now, before, block *plan.Block) plan.Block {
	b, auto := block.Clone(), block.Name == block.Holds()
	to, new, old := reflect.ValueOf(&b).Elem(), reflect.ValueOf(now).Elem(), reflect.ValueOf(before).Elem()
	for i := range to.NumField() {
		if name := to.Type().Field(i).Name; name == "Items" || name == "ID" || name == "Aim" || name == "Why" {
			continue
		}
		if !reflect.DeepEqual(new.Field(i).Interface(), old.Field(i).Interface()) {
			to.Field(i).Set(new.Field(i))
		}
	}
	alike := slices.EqualFunc(now.Items, block.Items, func(x, y plan.Item) bool { return x.Drill.Code == y.Drill.Code })
	if b.Items = now.Items; !alike {
		b.Aim, b.Choices, b.Groups = now.Aim, nil, nil
	}
	if auto && now.Name == now.Holds() {
		b.Name = b.Holds()
	}
	return b
}

// without takes out what lines that are gone said of the day, and leaves what others said as it is.
func (w *rewrite) without() {
	for _, a := range w.after {
		if a.Line.Is != say.IsFixed || w.same[a.At] < 0 {
			continue
		}
		at := func(list []plan.Fixed) int {
			return slices.IndexFunc(list, func(f plan.Fixed) bool { return say.Fold(f.Name) == say.Fold(a.Line.Name) })
		}
		if was, now := at(w.d.Fixed), at(w.next.Fixed); was >= 0 && now >= 0 {
			w.next.Fixed[now] = w.d.Fixed[was]
		}
	}
	kept := map[int]bool{}
	for _, i := range w.same {
		kept[i] = true
	}
	said := func(p piece) bool {
		return slices.ContainsFunc(w.after,
			func(a Written) bool { return p.is != "" && say.Fold(a.Line.Name) == say.Fold(p.is) })
	}
	for i, l := range w.was {
		for _, p := range l.pieces {
			switch {
			case kept[i]:
			case p.is != "" && !said(p):
				w.next.Fixed = slices.DeleteFunc(w.next.Fixed,
					func(f plan.Fixed) bool { return say.Fold(f.Name) == say.Fold(p.is) })
				w.next.Bring = slices.DeleteFunc(w.next.Bring,
					func(b plan.Bring) bool { return "bring "+say.Fold(b.What) == p.is })
			case p.block == "" && p.is == "":
				w.next.Notes = slices.DeleteFunc(w.next.Notes, func(n string) bool { return n == say.AsTyped(p.text) })
			}
		}
	}
}

// Keep keeps lines with the plan that they were written into.
func Keep(r *say.Reader, d *plan.Document, text string, became []Became) {
	lines := strings.Split(strings.ReplaceAll(text, "\r", ""), "\n")
	var all []Written
	for i, one := range r.Pieces(lines) {
		if i < len(became) {
			all = append(all, Written{became[i], one.Line})
		}
	}
	said := slices.Clone(d.Said)
	if len(said) > 0 {
		said = append(said, plan.Said{})
	}
	d.KeepSaid(append(said, saidOf(r, d, lines, all)...))
}

// saidOf is what was said and what it became.
func saidOf(r *say.Reader, d *plan.Document, lines []string, became []Written) []plan.Said {
	k := &keeper{printer: newPrinter(d, r.Book, r.Index), first: map[string]bool{}}
	said := make([]plan.Said, len(lines))
	for j := range lines {
		said[j].Text = lines[j]
	}
	for i := range became {
		if a := &became[i]; a.Line.Is != say.IsBlank {
			said[a.At].Parts = append(said[a.At].Parts, k.parts(a, became[i:])...)
		}
	}
	return said
}

// keeper keeps what lines became.
type keeper struct {
	*printer
	first map[string]bool // blocks of which some line spoke
}

// parts are what a sentence became, in each block that has something of it; below is it and what follows.
func (k *keeper) parts(a *Written, below []Written) (list []plan.SaidPart) {
	head, is := a.Block, ""
	switch a.Line.Is {
	case say.IsFixed:
		is = say.Fold(a.Line.Name)
	case say.IsBring, say.IsStock:
		is = "bring " + say.Fold(a.Line.Name)
	case say.IsBlock, say.IsPhase:
		if n := slices.IndexFunc(below, func(next Written) bool { return next.Block != "" }); n >= 0 { // it heads that
			head = below[n].Block
		}
	}
	for _, put := range append(slices.Clone(a.Before), Placed{head, a.Items}) {
		part := plan.SaidPart{Text: a.Line.Said, Is: is}
		switch b := k.doc.Block(put.Block); {
		case b != nil:
			part.Block, part.Items = b.ID, k.items(b, put.Items)
			if !k.first[b.ID] {
				k.first[b.ID], part.Of = true, strings.Join(k.attributes(b), ", ")
			}
		case a.Line.Is == say.IsFixed:
			part.Of = fixedWords(k.printer, a.Line.Name)
		case is != "":
			part.Of = a.Line.Said
		}
		list = append(list, part)
	}
	return list
}

// items are drills of a block as they were understood.
func (k *keeper) items(b *plan.Block, at []int) (list []plan.SaidItem) {
	for _, i := range at {
		if i < len(b.Items) {
			list = append(list, plan.SaidItem{Code: b.Items[i].Drill.Code, As: k.itemOf(b, i)})
		}
	}
	return list
}

// fixedWords are how something fixed is printed; "" where there is none of that name.
func fixedWords(p *printer, name string) string {
	for i := range p.doc.Fixed {
		if f := &p.doc.Fixed[i]; say.Fold(f.Name) == say.Fold(name) {
			one := *p
			one.lines = nil
			one.fixed(f)
			return one.lines[0]
		}
	}
	return ""
}
