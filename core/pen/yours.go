package pen

import (
	"cmp"
	"reflect"
	"slices"
	"strings"

	"cuestart/core/pattern"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// Yours is a line of a plan in its coach's words.
type Yours struct {
	Text   string
	Anew   bool // written here: what it says was changed by hand, or never said
	pieces []piece
}

// piece is what a sentence of a line became.
type piece struct {
	text  string
	block string // id; "": none
	is    string // what else it became
	items []int  // its drills in the block
}

// YourWords are today's plan as lines in the coach's words: what is still as it was written stands
// as it was typed, what was changed by hand is written in the same manner.
func YourWords(r *say.Reader, d *plan.Document) []Yours {
	y := &yours{by: r, printer: newPrinter(d, r.Book, r.Index), claimed: map[string]map[int]bool{},
		lines: map[string][]Yours{}, spoken: map[string]bool{}}
	y.claim()
	var lead []Yours // what stands before a block is of it
	for i := range d.Said {
		lead = append(lead, y.line(i)...)
		if group := groupOf(lead); group != "" {
			y.lines[group] = append(y.lines[group], lead...)
			for _, l := range lead {
				for _, p := range l.pieces {
					y.spoken[p.block] = true
				}
			}
			lead = nil
		}
	}
	var all []Yours
	for i := range d.Blocks {
		all = append(all, y.block(&d.Blocks[i])...)
	}
	for i := range d.Lists {
		l := &d.Lists[i]
		for n := range l.Blocks {
			if n == 0 && !y.spoken[l.Blocks[0].ID] {
				all = append(all, Yours{}, Yours{Text: "--- " + headOf(l), Anew: true,
					pieces: []piece{{block: l.Blocks[0].ID}}})
			}
			all = append(all, y.block(&l.Blocks[n])...)
		}
	}
	if len(all) > 0 && all[0].Text == "" && all[0].pieces == nil && len(d.Said) == 0 {
		all = all[1:]
	}
	return append(all, lead...)
}

// yours writes a plan in its coach's words.
type yours struct {
	*printer
	by      *say.Reader
	claimed map[string]map[int]bool // drills of blocks that lines speak of
	found   [][][]found             // of each line, of each of its sentences, its drills
	lines   map[string][]Yours      // by the first block that they speak of
	spoken  map[string]bool         // blocks of which some line speaks
}

// found is a drill of a sentence as the plan has it.
type found struct {
	at   int  // in its block; -1: it is gone
	same bool // as it was understood
}

// groupOf is the first block that lines speak of.
func groupOf(lines []Yours) string {
	for _, l := range lines {
		for _, p := range l.pieces {
			if p.block != "" {
				return p.block
			}
		}
	}
	return ""
}

// claim finds the drills that the lines speak of: first those that are as they were.
func (y *yours) claim() {
	said := y.doc.Said
	y.found = make([][][]found, len(said))
	for i := range said {
		for _, part := range said[i].Parts {
			y.found[i] = append(y.found[i], make([]found, len(part.Items)))
		}
	}
	for _, exact := range []bool{true, false} {
		for i := range said {
			for k := range said[i].Parts {
				y.claimFor(&said[i].Parts[k], y.found[i][k], exact)
			}
		}
	}
}

func (y *yours) claimFor(part *plan.SaidPart, to []found, exact bool) {
	for n, item := range part.Items {
		if !to[n].same {
			to[n] = y.seek(part.Block, item, exact)
		}
	}
}

// seek finds a drill in a block that no line before it spoke of.
func (y *yours) seek(block string, item plan.SaidItem, exact bool) found {
	b := y.doc.Block(block)
	if b == nil {
		return found{at: -1}
	}
	if y.claimed[block] == nil {
		y.claimed[block] = map[int]bool{}
	}
	for i := range b.Items {
		if same := y.itemOf(b, i) == item.As; b.Items[i].Drill.Code == item.Code && !y.claimed[block][i] &&
			(same || !exact) {
			y.claimed[block][i] = true
			return found{i, same}
		}
	}
	return found{at: -1}
}

// line is a line that was typed, as it stands today: whole, or what is left of it.
func (y *yours) line(i int) (list []Yours) {
	said := &y.doc.Said[i]
	whole, intact := Yours{Text: said.Text}, true
	for k := range said.Parts {
		lines, same := y.part(&said.Parts[k], y.found[i][k])
		if intact = intact && same; k == 0 && !same && len(lines) > 0 &&
			lines[len(lines)-1].first(said.Parts[k].Block) >= 0 {
			lines[len(lines)-1].Text = listMark.FindString(said.Text) + lines[len(lines)-1].Text
		}
		list = append(list, lines...)
		for _, l := range lines {
			whole.pieces = append(whole.pieces, l.pieces...)
		}
	}
	if intact {
		return []Yours{whole}
	}
	return list
}

// part is a sentence as it stands today; same tells that nothing of it was changed.
func (y *yours) part(part *plan.SaidPart, items []found) (list []Yours, same bool) {
	b := y.doc.Block(part.Block)
	switch {
	case part.Is != "":
		now := y.things(part)
		if now == part.Of {
			return []Yours{{Text: part.Text, pieces: []piece{{text: part.Text, is: part.Is}}}}, true
		} else if now == "" {
			return nil, false
		}
		return []Yours{{Text: now, Anew: true, pieces: []piece{{text: now, is: part.Is}}}}, false
	case part.Block == "":
		return []Yours{{Text: part.Text, pieces: []piece{{text: part.Text}}}}, true
	case b == nil:
		return nil, false
	}
	same = part.Of == "" || part.Of == y.of(b)
	if !same {
		list = append(list, Yours{Text: y.head(b), Anew: true, pieces: []piece{{block: b.ID}}})
	}
	is, left := piece{text: part.Text, block: b.ID}, true
	for _, f := range items {
		if f.at >= 0 {
			is.items = append(is.items, f.at)
		}
		left = left && f.same
	}
	switch {
	case left && same: // all is as it was
		return append(list, Yours{Text: say.AsTyped(part.Text), pieces: []piece{is}}), true
	case len(items) == 0: // a heading that says something else now
		return list, false
	}
	for _, at := range is.items {
		list = append(list, y.written(b, at))
	}
	return list, false
}

// things is what is fixed, or carried, by the name that a line gave it, in words; "": it is no more.
func (y *yours) things(part *plan.SaidPart) string {
	if is := fixedWords(y.printer, part.Is); is != "" {
		return is
	}
	if part.Of == part.Text { // kit, and what is carried, are kept where they are changed
		return part.Of
	}
	return ""
}

// of is what is said of a block beside its drills.
func (y *yours) of(b *plan.Block) string { return strings.Join(y.attributes(b), ", ") }

// head is the heading of a block.
func (y *yours) head(b *plan.Block) string { return spelt(b.Name) + ": " + y.of(b) }

// written is a drill of a block, in words that are read as it.
func (y *yours) written(b *plan.Block, at int) Yours {
	text := y.everyday(y.itemOf(b, at))
	return Yours{Text: text, Anew: true, pieces: []piece{{text: text, block: b.ID, items: []int{at}}}}
}

// everyday is a printed line without the quotation marks that its reading does not need.
func (y *yours) everyday(text string) string {
	bare := strings.ReplaceAll(text, `"`, "")
	with, without := y.by.Read(text), y.by.Read(bare)
	with.Said, without.Said, with.Score, without.Score = "", "", 0, 0
	among := say.Pieces([]string{"squats 10", bare, "squats 10"}) // a list may see a heading, or two sentences
	if reflect.DeepEqual(with, without) && len(among) == 3 && among[1].Text == bare {
		return bare
	}
	return text
}

// listMark is what a list puts before its lines.
var listMark = pattern.Must(`^\s*(?:[-*•·–—]\s+|\(?\d{1,2}[.)]\s+|\(?[A-Za-z][.)]\s+)`)

// block are the lines of a block: what was said of it, and what was never said.
func (y *yours) block(b *plan.Block) []Yours {
	lines, said := y.lines[b.ID], y.claimed[b.ID]
	if !y.spoken[b.ID] {
		lines = []Yours{{}, {Text: y.head(b), Anew: true, pieces: []piece{{block: b.ID}}}}
	}
	for i := range b.Items {
		if said[i] {
			continue
		}
		at := 1 + slices.IndexFunc(lines, func(l Yours) bool { return l.has(b.ID, i-1) })
		if at == 0 && i > 0 || at == 0 && len(said) == 0 {
			at = len(lines)
		} else if at == 0 { // before its first drill
			at = max(0, slices.IndexFunc(lines, func(l Yours) bool { return l.first(b.ID) >= 0 }))
		}
		lines = slices.Insert(lines, at, y.written(b, i))
	}
	if sorted := slices.IsSortedFunc(withItems(lines, b.ID),
		func(x, z Yours) int { return cmp.Compare(x.first(b.ID), z.first(b.ID)) }); !sorted {
		slices.SortStableFunc(lines, func(x, z Yours) int { return cmp.Compare(x.first(b.ID), z.first(b.ID)) })
	}
	return lines
}

func withItems(lines []Yours, block string) (list []Yours) {
	for _, l := range lines {
		if l.first(block) >= 0 {
			list = append(list, l)
		}
	}
	return list
}

// first is the first drill of a block that a line speaks of; -1: none.
func (l Yours) first(block string) int {
	for _, p := range l.pieces {
		if p.block == block && len(p.items) > 0 {
			return p.items[0]
		}
	}
	return -1
}

func (l Yours) has(block string, item int) bool {
	return slices.ContainsFunc(l.pieces,
		func(p piece) bool { return p.block == block && slices.Contains(p.items, item) })
}

// blockOf is the block of a sentence of a line, or the first of the line.
func (l Yours) blockOf(sentence string) string {
	for _, p := range l.pieces {
		if p.block != "" && say.AsTyped(p.text) == say.AsTyped(sentence) {
			return p.block
		}
	}
	return groupOf([]Yours{l})
}
