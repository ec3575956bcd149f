// Package pen writes lines that were read onto a plan, and a plan as such lines.
//
// What package [cuestart/core/say] read of a list becomes blocks, drills, holds and fixed times
// ([Write], [Rewrite]); a plan is printed in words that read as the same plan ([Print]), and in its
// coach's own words where it was written in such ([YourWords]).
package pen

import (
	"maps"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// ContextOf is what a line about a plan may speak of.
func ContextOf(d *plan.Document, sport string, book []drill.Drill) say.Context {
	c := say.Context{Sport: sport, Book: book}
	if start, err := d.Start.Resolve(); err == nil {
		c.Start = start.Format("15:04")
	}
	for _, u := range d.Units {
		c.Units = append(c.Units, u.Name)
	}
	for _, p := range d.Players {
		c.Players = append(c.Players, say.Player{Number: p.Number, Name: strings.TrimSpace(p.First + " " + p.Last)})
		for _, one := range plan.Positions(p.Position) {
			if !slices.Contains(c.Positions, one) {
				c.Positions = append(c.Positions, one)
			}
		}
	}
	for _, l := range d.Leaders {
		c.Staff = append(c.Staff, l.Name)
	}
	for _, z := range d.Zones {
		c.Zones = append(c.Zones, z.Name)
	}
	for _, f := range d.Fixed {
		c.Fixed = append(c.Fixed, f.Name)
	}
	for _, b := range d.Blocks {
		c.Blocks = append(c.Blocks, b.Name)
	}
	c.Turns, c.Kit = d.Turns, slices.Sorted(maps.Keys(d.Kit))
	for _, p := range plan.Methods[d.Method].Phases {
		c.Phases = append(c.Phases, string(p))
	}
	return c
}

// Became is what a line became in a plan.
type Became struct {
	Line    say.Line
	Block   string   // id of the block it is in; "": none
	Items   []int    // its drills there
	Problem string   // what could not be done of it, in a sentence
	Noted   string   // what it says of the day that is otherwise, or was changed for it, in a sentence
	Before  []Placed // its drills in blocks before that one
}

// Placed is where drills of a line were put.
type Placed struct {
	Block string // id
	Items []int
}

// Write puts lines into a plan, before the block of that id or last, and returns what
// became of each. It leaves nothing out:
// what cannot be done of a line is said, and what was not understood stays as a note.
func Write(r *say.Reader, d *plan.Document, lines []say.Line, before string) (became []Became) {
	w := &writer{Reader: r, doc: d, before: before}
	for i := range lines {
		became = append(became, w.line(&lines[i]))
	}
	w.name()
	return became
}

// WriteInto puts the drills of lines into a block, last. What else they say is not for
// the block to change and stays as a note.
func WriteInto(r *say.Reader, d *plan.Document, lines []say.Line, block string) (became []Became) {
	b := d.Block(block)
	if b == nil {
		return nil
	}
	w := &writer{Reader: r, doc: d, block: block, only: true, named: b.Name != b.Holds(), phase: b.Phase, said: true}
	for i := range lines {
		if is := lines[i].Is; is == say.IsDrill || is == say.IsDrills || is == say.IsLegs || is == say.IsCombo ||
			is == say.IsChoice ||
			is == say.IsNote {
			became = append(became, w.line(&lines[i]))
		} else if is != say.IsBlank {
			became = append(became, Became{Line: lines[i],
				Problem: "write drills here; the rest goes into the line below"})
		}
	}
	w.name()
	return became
}

// writer puts lines into a plan, one after the other.
type writer struct {
	only bool // into this block and no other
	*say.Reader
	doc    *plan.Document
	before string // id of the block that new ones go before; "": last
	phase  drill.Phase
	said   bool // a heading said the phase
	head   *say.Line
	headed *say.Line               // the heading that a block was named for
	block  string                  // id of the block that is being filled; "": none
	key    string                  // what its lines have in common
	named  bool                    // its name was said
	work   map[drill.Phase]float64 // seconds of its drills by phase
	list   plan.When               // the kind of list that new blocks go into; "": the run-in
	ends   string                  // what its line is called; "": nobody said
	above  []string                // ids of the blocks since the last fence
	fence  string                  // id of the event that new ones come after; "": none
}

func (w *writer) line(l *say.Line) Became {
	b := Became{Line: *l}
	if l.Phase != "" || l.List != "" {
		w.end()
		w.phase, _ = drill.PhaseOf(l.Phase)
		w.said, w.head, w.list, w.ends = l.Phase != "", nil, l.List, l.Ends
		if w.phase == drill.After && w.list == "" {
			w.list = plan.AfterEnd
		}
		if l.Is == say.IsPhase && l.Name != "" { // the word is the name of what stands under it
			w.head = &say.Line{Is: say.IsBlock, Name: l.Name}
		}
		if l.Is == say.IsPhase && l.Note != "" {
			b.Problem = "nobody is called " + l.Note + ": the phase begins without"
		}
	}
	switch l.Is {
	case say.IsBlank:
		if w.end(); w.head == w.headed { // a heading with nothing below it yet is of what follows
			w.head = nil
		}
	case say.IsFixed:
		b.Problem = w.fixed(l)
	case say.IsBlock:
		w.end()
		if l.Part { // of its own phase, where it is called so, whatever stood above it
			w.phase, w.said = drill.PhaseOf(w.Reader.Phase(l.Name))
		}
		if was := w.head; was != nil && was != w.headed && was.Name != "" && was.Said != "" {
			// two in a row: a title above
			w.doc.Note(say.OneLine(say.AsTyped(was.Said)))
		}
		if w.head = l; len(l.Drills) > 0 {
			w.drills(l, &b)
			w.end()
			w.head = nil
		}
	case say.IsStock:
		_, err := w.doc.SetStock(l.Stock)
		b.Problem = sentence(err)
	case say.IsBring:
		b.Problem = w.bring(l.Name)
	case say.IsNote:
		w.note(l.Note)
		b.Block = w.block
	case say.IsDrill, say.IsDrills, say.IsLegs, say.IsCombo, say.IsChoice:
		w.drills(l, &b)
	}
	return b
}

// end ends the block that is being filled.
func (w *writer) end() {
	w.name()
	w.block, w.key = "", ""
}

// name names a block for what it holds, where nobody said its name.
func (w *writer) name() {
	b := w.doc.Block(w.block)
	if b == nil || w.named {
		return
	}
	b.Name = b.Holds()
}

func (w *writer) fixed(l *say.Line) string {
	f := plan.Fixed{Name: say.Capital(l.Name), Who: []string{plan.Everyone}}
	for _, known := range w.doc.Fixed {
		if say.Fold(known.Name) == say.Fold(l.Name) {
			f = known
			f.Who = slices.Clone(known.Who)
		}
	}
	if len(l.Who) > 0 {
		f.Who = w.ids(l.Who)
	}
	if l.From == nil || l.To == nil {
		w.note(say.OneLine(l.Said))
		return "say when: " + say.Capital(l.Name) + " at 30"
	}
	f.Span = plan.Span{From: *moment(l, l.From), To: *moment(l, l.To)}
	_, err := w.doc.SetFixed(f)
	if err == nil {
		return w.between(f.Name)
	}
	return sentence(err)
}

// sentence is what an edit refused for, "" where it did not.
func sentence(err error) string {
	if problems, ok := err.(plan.Problems); ok {
		return problems[0].What
	} else if err != nil {
		return err.Error()
	}
	return ""
}

// moment is a moment as it was said: on the clock, or to go.
func moment(l *say.Line, at *int) *clock.Moment {
	if at == nil {
		return nil
	}
	m := clock.BeforeStart(-*at)
	if on, ok := l.Clocks[*at]; ok {
		m = clock.AtClock(on)
	}
	return &m
}

// ids are the ids of people by what they are called.
func (w *writer) ids(who []string) (ids []string) {
	for _, one := range who {
		ids = say.AppendNew(ids, w.id(one)) // who plays two positions is told once
	}
	return ids
}

func (w *writer) id(one string) []string {
	if one == "*" {
		return []string{plan.Everyone}
	}
	for _, u := range w.doc.Units {
		if u.Name == one {
			return []string{u.ID}
		}
	}
	for _, p := range w.doc.Players {
		if n := strconv.Itoa(p.Number); p.Number > 0 && n == one || strings.TrimSpace(p.First+" "+p.Last) == one {
			return []string{p.ID}
		}
	}
	var ids []string
	for _, p := range w.doc.Players {
		if plan.Plays(p.Position, one) {
			ids = append(ids, p.ID)
		}
	}
	return ids
}

// note keeps what was not understood: beside the block, or else the plan.
func (w *writer) note(text string) {
	if b := w.doc.Block(w.block); b != nil {
		b.Note = strings.TrimSpace(b.Note + "\n" + text)
	} else {
		w.doc.Note(text)
	}
}

// drills puts the drills of a line into the block it belongs to.
func (w *writer) drills(l *say.Line, became *Became) {
	list := items(l)
	with := w.merged(l)
	if l.Is == say.IsCombo {
		with.RestSeconds = 0 // it is the drill's, not the block's
	}
	together := drill.Phase("")
	if l.Is == say.IsDrills && !w.said { // they stay together, in the phase of the last that is known
		together = w.together(list)
	}
	for i := range list {
		item, phase := w.item(&list[i], &with)
		if together != "" {
			phase = together
		}
		if l.Is == say.IsDrills {
			together = phase
		}
		b, problem := w.into(&with, phase, list[i].Name)
		if b == nil {
			became.Problem = problem
			return
		}
		w.turns(&list[i], &item, len(w.doc.Members(b.Who)))
		if problem != "" { // it is said now, and stands beside the block later
			became.Problem = problem
			w.note(say.OneLine(l.Said) + ": " + problem)
		}
		if became.Block != b.ID { // what stands in a block before, which was full, is not of this one
			if became.Block != "" {
				became.Before = append(became.Before, Placed{became.Block, became.Items})
			}
			became.Block, became.Items = b.ID, nil
		}
		became.Items = append(became.Items, len(b.Items))
		b.Items = append(b.Items, item)
		w.weigh(b, phase)
		if b.Aim == "" || len(b.Items) < 3 {
			b.Aim = b.Aims()
		}
		if note := list[i].Note; note != "" {
			w.note(note)
		}
	}
	if l.Is != say.IsDrill && l.Note != "" {
		w.note(l.Note)
	}
}

// items are the drills of a line, each as it goes into the plan.
func items(l *say.Line) []say.Line {
	switch {
	case l.Is == say.IsDrill, l.Is == say.IsChoice, l.Is == say.IsCombo && (l.Times > 1 || l.RestSeconds > 0):
		return []say.Line{*l}
	case l.Is == say.IsLegs:
		return []say.Line{{Is: say.IsLegs, Name: l.Name, Out: l.Out, Back: l.Back, Trips: l.Trips, Cues: l.Cues}}
	}
	return l.Drills
}

// together is the phase of the last of drills that is known; "" where none is.
func (w *writer) together(list []say.Line) (phase drill.Phase) {
	for i := range list {
		if k := w.book(list[i].Code); k != nil && len(k.Phases) > 0 {
			phase = k.Phases[0]
		}
	}
	return phase
}

// bring adds things to carry, parted by commas; what names nobody is a thing too.
func (w *writer) bring(text string) string {
	was := make([]string, 0, len(w.doc.Bring)+4)
	for _, b := range w.doc.Bring {
		was = append(was, brought(w.doc, b))
	}
	_, err := w.doc.SetBring(strings.Join(append(was, strings.Split(text, ",")...), "\n"))
	return sentence(err)
}

// brought is a thing to carry as it is said, with who does.
func brought(d *plan.Document, b plan.Bring) string {
	if who := d.WhoBrings(b); who != "" {
		return b.What + ": " + who
	}
	return b.What
}

// turns sets what was said of kit that goes round.
func (w *writer) turns(l *say.Line, item *plan.Item, people int) {
	item.AtOnce, item.Alongside = min(l.AtOnce, plan.MaxPlayers), l.Alongside
	if l.Waves > 1 && people > 1 {
		item.AtOnce = (people + l.Waves - 1) / l.Waves
	}
	if l.PerLane == 0 {
		return
	}
	k := &item.Drill
	if len(k.LaneKit) == 0 && strings.Contains(strings.ToLower(k.Name), "hurdle") {
		k.LaneKit = []string{"hurdle"}
	}
	if len(k.LaneKit) > 0 {
		k.PerLane = map[string]int{k.LaneKit[0]: min(l.PerLane, 100)}
	}
}

// book is the drill of the book of that code; nil where there is none.
func (w *writer) book(code string) *drill.Drill {
	if i := slices.IndexFunc(w.Book, func(d drill.Drill) bool { return d.Code == code && code != "" }); i >= 0 {
		return &w.Book[i]
	}
	return nil
}

// item makes the drill of a line, and says in which phase it belongs.
func (w *writer) item(l, with *say.Line) (plan.Item, drill.Phase) {
	switch {
	case l.Is == say.IsCombo && len(l.Drills) > 0:
		return w.combo(l, with)
	case l.Is == say.IsChoice && len(l.Drills) > 0:
		return w.choice(l, with)
	}
	k, phase := w.knownFor(l)
	lane := w.lane(with)
	if k.Code == "" {
		k = w.ownDrill(l, phase, with, lane)
	} else {
		usual := k.Name
		k = onto(l, k, lane)
		if u, known := movement.Of(l.Name); known {
			u = u.Paced(append(slices.Clone(l.Cues), l.Note)...)
			besides(&k.Dose, usual, u)
			sided := l.Dose == nil || l.Dose.Sides == 2 || l.Dose.SaidSides > 0 || l.Dose.Own
			atPace(&k.Dose, u, ofTheBook, sided)
			k.OneSided = k.OneSided && (sided || !u.Alternates) // from side to side, as they were counted
		}
	}
	if l.Dose != nil && k.For(w.doc.Grade).Validate() != nil { // nobody can do that: it stays as a note
		bare := *l
		bare.Dose, bare.Exact = nil, false
		bare.Note = strings.TrimSpace(bare.Note + " " + with.Said)
		item, phase := w.item(&bare, with)
		l.Note = bare.Note
		return item, phase
	}
	switch {
	case with.Yards || l.Yards:
		k.Dose.Yards, k.Dose.Feet = true, false
	case with.Feet || l.Feet:
		k.Dose.Yards, k.Dose.Feet = false, true
	case with.Metric || l.Metric:
		k.Dose.Yards, k.Dose.Feet = false, false
	case w.doc.Measure.Unit() != "m":
		k = k.In(w.doc.Measure)
	}
	if cues := slices.Concat(l.Cues, others(l)); len(cues) > 0 {
		k.Cues = slices.Clone(cues[:min(len(cues), 6)])
	}
	return plan.Item{Drill: k.For(w.doc.Grade), Written: true}, phase
}

// lane is how long the place of a line is, in metres; 20 where that is not known.
func (w *writer) lane(l *say.Line) float64 {
	for _, z := range w.doc.Zones {
		if z.Name == l.Where && z.Metres > 0 {
			return z.Metres
		}
	}
	if l.Where == "" {
		if z := w.doc.Roomiest(); z != nil && z.Metres > 0 {
			return z.Metres
		}
	}
	return 20
}
