package say

import (
	"maps"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/plan"
)

// ContextOf is what a line about a plan may speak of.
func ContextOf(d *plan.Document, sport string, book []drill.Drill) Context {
	c := Context{Sport: sport, Book: book}
	if start, err := d.Start.Resolve(); err == nil {
		c.Start = start.Format("15:04")
	}
	for _, u := range d.Units {
		c.Units = append(c.Units, u.Name)
	}
	for _, p := range d.Players {
		c.Players = append(c.Players, Player{p.Number, strings.TrimSpace(p.First + " " + p.Last)})
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
	Line    Line
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
func (r *Reader) Write(d *plan.Document, lines []Line, before string) (became []Became) {
	w := &writer{Reader: r, doc: d, before: before}
	for i := range lines {
		became = append(became, w.line(&lines[i]))
	}
	w.name()
	return became
}

// WriteInto puts the drills of lines into a block, last. What else they say is not for
// the block to change and stays as a note.
func (r *Reader) WriteInto(d *plan.Document, lines []Line, block string) (became []Became) {
	b := d.Block(block)
	if b == nil {
		return nil
	}
	w := &writer{Reader: r, doc: d, block: block, only: true, named: b.Name != b.Holds(), phase: b.Phase, said: true}
	for i := range lines {
		if is := lines[i].Is; is == IsDrill || is == IsDrills || is == IsLegs || is == IsCombo || is == IsChoice ||
			is == IsNote {
			became = append(became, w.line(&lines[i]))
		} else if is != IsBlank {
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
	*Reader
	doc    *plan.Document
	before string // id of the block that new ones go before; "": last
	phase  drill.Phase
	said   bool // a heading said the phase
	head   *Line
	headed *Line                   // the heading that a block was named for
	block  string                  // id of the block that is being filled; "": none
	key    string                  // what its lines have in common
	named  bool                    // its name was said
	work   map[drill.Phase]float64 // seconds of its drills by phase
	list   plan.When               // the kind of list that new blocks go into; "": the run-in
	ends   string                  // what its line is called; "": nobody said
	above  []string                // ids of the blocks since the last fence
	fence  string                  // id of the event that new ones come after; "": none
}

func (w *writer) line(l *Line) Became {
	b := Became{Line: *l}
	if l.Phase != "" || l.List != "" {
		w.end()
		w.phase, _ = drill.PhaseOf(l.Phase)
		w.said, w.head, w.list, w.ends = l.Phase != "", nil, l.List, l.Ends
		if w.phase == drill.After && w.list == "" {
			w.list = plan.AfterEnd
		}
		if l.Is == IsPhase && l.Name != "" { // the word is the name of what stands under it
			w.head = &Line{Is: IsBlock, Name: l.Name}
		}
		if l.Is == IsPhase && l.Note != "" {
			b.Problem = "nobody is called " + l.Note + ": the phase begins without"
		}
	}
	switch l.Is {
	case IsBlank:
		if w.end(); w.head == w.headed { // a heading with nothing below it yet is of what follows
			w.head = nil
		}
	case IsFixed:
		b.Problem = w.fixed(l)
	case IsBlock:
		w.end()
		if l.part { // of its own phase, where it is called so, whatever stood above it
			w.phase, w.said = drill.PhaseOf(w.Reader.phase(l.Name))
		}
		if was := w.head; was != nil && was != w.headed && was.Name != "" && was.Said != "" {
			// two in a row: a title above
			w.doc.Note(oneLine(AsTyped(was.Said)))
		}
		if w.head = l; len(l.Drills) > 0 {
			w.drills(l, &b)
			w.end()
			w.head = nil
		}
	case IsStock:
		_, err := w.doc.SetStock(l.Stock)
		b.Problem = sentence(err)
	case IsBring:
		b.Problem = w.bring(l.Name)
	case IsNote:
		w.note(l.Note)
		b.Block = w.block
	case IsDrill, IsDrills, IsLegs, IsCombo, IsChoice:
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

func (w *writer) fixed(l *Line) string {
	f := plan.Fixed{Name: capital(l.Name), Who: []string{plan.Everyone}}
	for _, known := range w.doc.Fixed {
		if fold(known.Name) == fold(l.Name) {
			f = known
			f.Who = slices.Clone(known.Who)
		}
	}
	if len(l.Who) > 0 {
		f.Who = w.ids(l.Who)
	}
	if l.From == nil || l.To == nil {
		w.note(oneLine(l.Said))
		return "say when: " + capital(l.Name) + " at 30"
	}
	f.Span = plan.Span{From: *l.moment(l.From), To: *l.moment(l.To)}
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
func (l *Line) moment(at *int) *clock.Moment {
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
		ids = appendNew(ids, w.id(one)) // who plays two positions is told once
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
func (w *writer) drills(l *Line, became *Became) {
	list := l.items()
	with := w.merged(l)
	if l.Is == IsCombo {
		with.RestSeconds = 0 // it is the drill's, not the block's
	}
	together := drill.Phase("")
	if l.Is == IsDrills && !w.said { // they stay together, in the phase of the last that is known
		together = w.together(list)
	}
	for i := range list {
		item, phase := w.item(&list[i], &with)
		if together != "" {
			phase = together
		}
		if l.Is == IsDrills {
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
			w.note(oneLine(l.Said) + ": " + problem)
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
	if l.Is != IsDrill && l.Note != "" {
		w.note(l.Note)
	}
}

// items are the drills of a line, each as it goes into the plan.
func (l *Line) items() []Line {
	switch {
	case l.Is == IsDrill, l.Is == IsChoice, l.Is == IsCombo && (l.Times > 1 || l.RestSeconds > 0):
		return []Line{*l}
	case l.Is == IsLegs:
		return []Line{{Is: IsLegs, Name: l.Name, Out: l.Out, Back: l.Back, Trips: l.Trips, Cues: l.Cues}}
	}
	return l.Drills
}

// together is the phase of the last of drills that is known; "" where none is.
func (w *writer) together(list []Line) (phase drill.Phase) {
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
func (w *writer) turns(l *Line, item *plan.Item, people int) {
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
func (w *writer) item(l, with *Line) (plan.Item, drill.Phase) {
	switch {
	case l.Is == IsCombo && len(l.Drills) > 0:
		return w.combo(l, with)
	case l.Is == IsChoice && len(l.Drills) > 0:
		return w.choice(l, with)
	}
	k, phase := w.knownFor(l)
	lane := w.lane(with)
	if k.Code == "" {
		k = w.ownDrill(l, phase, with, lane)
	} else {
		usual := k.Name
		k = l.onto(k, lane)
		if u, known := movement.Of(l.Name); known {
			u = u.Paced(append(slices.Clone(l.Cues), l.Note)...)
			besides(&k.Dose, usual, u)
			sided := l.Dose == nil || l.Dose.Sides == 2 || l.Dose.sides > 0 || l.Dose.own
			atPace(&k.Dose, u, false, sided)
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
	if cues := slices.Concat(l.Cues, l.others()); len(cues) > 0 {
		k.Cues = slices.Clone(cues[:min(len(cues), 6)])
	}
	return plan.Item{Drill: k.For(w.doc.Grade), Written: true}, phase
}

// lane is how long the place of a line is, in metres; 20 where that is not known.
func (w *writer) lane(l *Line) float64 {
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

// capital is a name with its first letter large.
func capital(name string) string {
	for i, c := range name {
		return string(unicode.ToUpper(c)) + name[i+len(string(c)):]
	}
	return name
}

// short is a name as long as one may be.
func short(name string) string {
	if letters := []rune(name); len(letters) > plan.MaxName {
		return string(letters[:plan.MaxName-1]) + "…"
	}
	return name
}
