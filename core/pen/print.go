package pen

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/core/speech"
)

// Print writes a plan as lines that a [Reader] of that plan reads as the same one: what
// is fixed, and under each phase its blocks with their drills.
func Print(d *plan.Document, book []drill.Drill) []string {
	p := newPrinter(d, book, nil)
	for i := range d.Fixed {
		p.fixed(&d.Fixed[i])
	}
	phase := drill.Phase("none")
	for i := range d.Blocks {
		b := &d.Blocks[i]
		if b.Phase != phase {
			p.lines = append(p.lines, "", "--- "+b.Phase.Name())
			phase = b.Phase
		} else {
			p.lines = append(p.lines, "")
		}
		p.block(b)
	}
	for i := range d.Lists {
		p.lines = append(p.lines, "", "--- "+headOf(&d.Lists[i]))
		for n := range d.Lists[i].Blocks {
			p.block(&d.Lists[i].Blocks[n])
			p.lines = append(p.lines, "")
		}
	}
	for _, b := range d.Bring {
		p.lines = append(p.lines, "bring: "+brought(d, b))
	}
	return p.lines
}

func newPrinter(d *plan.Document, book []drill.Drill, known *say.Index) *printer {
	of := ContextOf(&plan.Document{
		Party: plan.Party{Units: d.Units, Players: d.Players, Leaders: d.Leaders, Turns: d.Turns},
		Site:  plan.Site{Zones: d.Zones},
		Hours: plan.Hours{Start: d.Start},
		Work:  plan.Work{Method: d.Method},
	}, "", book)
	of.Index = known
	return &printer{doc: d, reader: say.NewReader(of)}
}

// headOf is what the lines of a list stand under.
func headOf(l *plan.List) string {
	if l.When == plan.AfterEnd {
		return say.AfterHead(l.Line)
	}
	return say.ListNames[l.When][0]
}

type printer struct {
	doc    *plan.Document
	reader *say.Reader
	lines  []string
}

// point is a moment as it is said.
func point(m clock.Moment) string {
	if m.Clock != "" {
		return m.Clock
	}
	if m.Before%60 == 0 {
		return strconv.Itoa(m.Before / 60)
	}
	return fmt.Sprintf("%d:%02d", m.Before/60, m.Before%60)
}

func (p *printer) fixed(f *plan.Fixed) {
	rest := fmt.Sprintf(" %s to %s", point(f.Span.From), point(f.Span.To))
	if who := p.who(f.Who); who != "everyone" {
		rest += ", " + who
	}
	line := f.Name + rest
	if l := p.reader.Read(line); l.Is != say.IsFixed || say.Capital(l.Name) != f.Name || l.Note != "" {
		// its name is no usual one
		line = "fixed: " + quote(f.Name) + rest
	}
	p.lines = append(p.lines, line)
}

// who names people as they are read.
func (p *printer) who(ids []string) string {
	var names []string
	for _, id := range ids {
		if id == plan.Everyone {
			return "everyone"
		}
		if u := p.doc.Unit(id); u != nil {
			names = append(names, u.Name)
		} else if x := p.doc.Player(id); x != nil && x.Number > 0 {
			names = append(names, "#"+strconv.Itoa(x.Number))
		} else if x != nil {
			names = append(names, strings.TrimSpace(x.First+" "+x.Last))
		}
	}
	return strings.Join(names, ", ")
}

func (p *printer) block(b *plan.Block) {
	p.lines = append(p.lines, quote(b.Name)+": "+strings.Join(p.attributes(b), ", "))
	for i := range b.Items {
		p.lines = append(p.lines, p.itemOf(b, i))
	}
	if b.Note != "" {
		for _, one := range strings.Split(b.Note, "\n") {
			p.lines = append(p.lines, "note: "+one)
		}
	}
}

// itemOf is drill i of a block as a line.
func (p *printer) itemOf(b *plan.Block, i int) string {
	line := p.item(&b.Items[i].Drill)
	if n := b.Items[i].AtOnce; n > 0 {
		line += fmt.Sprintf(", %d at once", n)
	}
	if b.Alongside(i) {
		line = "alongside: " + line
	}
	return line
}

// attributes are what is said of a block beside its drills.
func (p *printer) attributes(b *plan.Block) []string {
	said := []string{p.who(b.Who)}
	for _, one := range []string{p.doc.ZoneName(b.Zone), p.doc.LeaderName(b.Leader)} {
		if one != "" {
			said = append(said, one)
		}
	}
	said = append(said, p.holds(b)...)
	if b.Priority != plan.Should {
		said = append(said, string(b.Priority))
	}
	if b.Loose {
		said = append(said, "in any order")
	}
	said = append(said, p.form(b)...)
	if b.Rounds > 1 {
		said = append(said, strings.ReplaceAll(b.RoundWords(speech.English, b.Rounds), "–", "-"))
		if b.RoundRest > 0 {
			said = append(said, fmt.Sprintf("rest %d s", b.RoundRest))
		}
	}
	return said
}

// form says how a block is run.
func (p *printer) form(b *plan.Block) (said []string) {
	switch b.Form {
	case plan.AtStations:
		said = append(said, "at stations")
		if b.Split != plan.Evenly && b.Split != plan.ByHand {
			said = append(said, "groups by "+string(b.Split))
		}
		if b.Change > 0 {
			said = append(said, fmt.Sprintf("change %d s", b.Change))
		}
	case plan.ByChoice:
		said = append(said, fmt.Sprintf("%d of %d", b.Picks(), len(b.Items)))
	}
	if b.Stations > 0 {
		said = append(said, fmt.Sprintf("in %d lanes", b.Stations))
	}
	if b.On != plan.Usual {
		said = append(said, "when "+p.doc.Turns.Name(b.On))
	}
	return said
}

// quote keeps a name from being read as anything else.
func quote(name string) string { return `"` + strings.ReplaceAll(name, `"`, "'") + `"` }

// spelt quotes a name only where it has more than letters and single spaces.
func spelt(name string) string {
	for _, part := range strings.Split(name, " ") {
		if part == "" || strings.ContainsFunc(part, func(r rune) bool { return !unicode.IsLetter(r) && r != '-' }) {
			return quote(name)
		}
	}
	return name
}

func (p *printer) holds(b *plan.Block) (said []string) {
	h := b.Hold
	if b.Pin != nil {
		said = append(said, "at "+point(*b.Pin))
	}
	switch {
	case h.From != nil && h.Until != nil:
		said = append(said, "from "+point(*h.From)+" to "+point(*h.Until))
	case h.From != nil:
		said = append(said, "not before "+point(*h.From))
	case h.Until != nil:
		said = append(said, "done by "+point(*h.Until))
	}
	if f := p.doc.Event(h.Before); f != nil {
		said = append(said, "before "+spelt(f.Name))
	}
	if f := p.doc.Event(h.After); f != nil {
		said = append(said, "after "+spelt(f.Name))
	}
	for _, id := range b.After {
		if a := p.doc.Block(id); a != nil {
			said = append(said, "after "+spelt(a.Name))
		}
	}
	if a := p.doc.Block(h.Straight); a != nil {
		said = append(said, "straight after "+spelt(a.Name))
	}
	return said
}

// item is a drill with its dose and cues, by the name that is read as that drill.
func (p *printer) item(k *drill.Drill) string {
	known := p.reader.Index.Coded(k.Code)
	name := k.Name
	if known != nil && (strings.ContainsAny(name, `"(`) || p.reader.Means(name) != k.Code) {
		name = known.Name
	}
	if k.Dose.Kind == drill.Line {
		return spokenLegs(k)
	}
	said := quote(name) + " " + strings.Join(spoken(k, known), ", ")
	if k.Dose.Exact {
		said += ", exactly"
	}
	if len(k.Cues) > 0 && (known == nil || !slices.Equal(k.Cues, known.Cues)) {
		said += " (" + strings.NewReplacer("(", "", ")", "").Replace(strings.Join(k.Cues, "; ")) + ")"
	}
	return said
}

func spokenLegs(k *drill.Drill) string {
	out, back := []string{}, []string{}
	same := !slices.ContainsFunc(k.Dose.Legs, func(l drill.Leg) bool { return l.Metres != k.Dose.Legs[0].Metres })
	for _, leg := range k.Dose.Legs {
		said := leg.Name
		if !same {
			said += " " + k.Dose.Length(leg.Metres)
		}
		if leg.Back {
			back = append(back, said)
		} else {
			out = append(out, said)
		}
	}
	said := "out with " + strings.Join(out, " then ")
	if len(back) > 0 {
		said += ", back with " + strings.Join(back, " then ")
	}
	if same {
		said += ", " + k.Dose.Length(k.Dose.Legs[0].Metres)
	}
	if k.Range.Target > 1 {
		return fmt.Sprintf("%s, %d times", said, k.Range.Target)
	}
	return said + ", once"
}

// spoken is the dose of a drill in the words that are read as that dose.
func spoken(k, known *drill.Drill) (said []string) {
	d, n := &k.Dose, k.Range.Target
	switch d.Kind {
	case drill.Reps:
		said = append(said, repsSaid(d, n))
		if len(d.Tempo) > 0 {
			said = append(said, strings.TrimPrefix(d.TempoWords(), ", "))
		}
	case drill.Hold:
		said = append(said, holdSaid(d, n))
	case drill.Travel:
		said = append(said, fmt.Sprintf("%d x %s", n, d.Length(d.Metres)))
		if len(d.Efforts) == 0 && (known == nil || known.Effort != k.Effort || len(known.Dose.Efforts) > 0) {
			said = append(said, fmt.Sprintf("%g %%", math.Round(100*k.Effort)))
		}
	case drill.Count:
		if said = append(said, countSaid(n, d.ByPair)); !d.ByPair && (known == nil || known.Dose.Kind != drill.Count) {
			said[0] += " acts"
		}
	case drill.Grid:
		said = append(said, gridSaid(k, known, n))
	case drill.Time:
		time := timeSaid(n)
		if known != nil && known.Dose.Kind == drill.Hold {
			time += " in all" // else it would be held so long
		}
		said = append(said, time)
	}
	if len(d.Efforts) > 0 {
		said = append(said, percentsOf(d.Efforts))
	}
	if d.Kind == drill.Travel && d.TurnSeconds > 0 && (known == nil && d.TurnSeconds != usualTurn ||
		known != nil && known.Dose.TurnSeconds != d.TurnSeconds) {
		said = append(said, fmt.Sprintf("rest %g s", d.TurnSeconds))
	}
	if r := k.Range; r.Min < r.Target && (r.Said || r.Target == r.Max) &&
		(known == nil || known.Range.Min != r.Min || known.Range.Max != r.Max) {
		said = append(said, "at least "+leastSaid(d.Kind, r.Min))
	}
	if d.RestSeconds > 0 && (known == nil || known.Dose.Kind != d.Kind || known.Dose.RestSeconds != d.RestSeconds) &&
		(d.Kind == drill.Reps || d.Kind == drill.Hold) {
		said = append(said, fmt.Sprintf("rest %g s", d.RestSeconds))
	}
	return said
}

func countSaid(n int, pair bool) string {
	if pair {
		return fmt.Sprintf("%d in pairs", n)
	}
	return strconv.Itoa(n)
}

func leastSaid(kind drill.Kind, n int) string {
	if kind == drill.Time {
		return fmt.Sprintf("%d s", n)
	}
	return strconv.Itoa(n)
}

func timeSaid(n int) string {
	if n%60 == 0 {
		return fmt.Sprintf("%d min", n/60)
	}
	if n < 60 {
		return fmt.Sprintf("%d s", n)
	}
	return clock.Duration(n)
}

func percentsOf(efforts []float64) string {
	var list []string
	for _, e := range efforts {
		list = append(list, fmt.Sprint(math.Round(100*e)))
	}
	return "at " + strings.Join(list, ", ") + " %"
}

// sidesSaid are sides and directions.
func sidesSaid(d *drill.Dose) (said string) {
	if d.Directions == 2 {
		said += " each way"
	}
	if d.OwnSide {
		said += ", own side"
	} else if d.Sides == 2 {
		said += " a side"
	}
	return said
}

func repsSaid(d *drill.Dose, n int) string {
	if len(d.Parts) > 0 {
		return partsSaid(d, n)
	}
	if d.Sets > 1 {
		return fmt.Sprintf("%s x %d%s", setsSaid(d), n, sidesSaid(d))
	}
	return fmt.Sprintf("%d%s", n, sidesSaid(d))
}

// setsSaid is how many sets: "3", or "2-3" where two will do.
func setsSaid(d *drill.Dose) string {
	if d.LeastSets > 0 && d.LeastSets < d.Sets {
		return fmt.Sprintf("%d-%d", d.LeastSets, d.Sets)
	}
	return fmt.Sprint(d.Sets)
}

func holdSaid(d *drill.Dose, n int) string {
	if d.Breaths > 0 {
		return fmt.Sprintf("%d x %d breaths%s", n, d.Breaths, sidesSaid(d))
	}
	said := fmt.Sprintf("%d x %g s%s", n, d.HoldSeconds, sidesSaid(d))
	if d.Sets > 1 {
		said = setsSaid(d) + " x " + said
	}
	if len(d.Parts) > 0 {
		said = strings.TrimPrefix(d.PartWords(), ", ") + ", " + said
	}
	return said
}

func partsSaid(d *drill.Dose, n int) string {
	long := slices.ContainsFunc(d.Parts, func(p drill.Part) bool { return strings.Contains(p.Name, " ") })
	if d.Parts[0].Reps > 0 && long {
		var names, own []string
		for _, p := range d.Parts {
			if names = append(names, p.Name); p.Reps != n {
				own = append(own, fmt.Sprintf(", %s %d", p.Name, p.Reps))
			}
		}
		return fmt.Sprintf("%s, %d x %d%s%s", strings.Join(names, " / "), d.Sets, n, sidesSaid(d),
			strings.Join(own, ""))
	}
	if d.Parts[0].Reps > 0 {
		var list []string
		for _, p := range d.Parts {
			list = append(list, fmt.Sprintf("%d %s", p.Reps, p.Name))
		}
		return strings.Join(list, ", ")
	}
	return fmt.Sprintf("%s, %d x %d%s", strings.TrimPrefix(d.PartWords(), ", "), d.Sets, n, sidesSaid(d))
}

func gridSaid(k, known *drill.Drill, n int) string {
	if len(k.Dose.Counts) == 1 {
		var list []string
		for i, w := range k.Dose.Counts[0] {
			list = append(list, fmt.Sprintf("%d %s", w, k.Columns[i]))
		}
		return strings.Join(list, ", ")
	}
	usual := known != nil && slices.Equal(k.Rows, known.Rows) && slices.Equal(k.Columns, known.Columns)
	plain := len(k.Columns) > 1 && len(k.Rows) > 1 &&
		!strings.Contains(strings.Join(append(slices.Clone(k.Rows), k.Columns...), ""), " ")
	if plain && (!usual || len(k.Dose.Counts) > 1) {
		said := fmt.Sprintf("%s x %s, %d each", strings.Join(k.Rows, " "), strings.Join(k.Columns, " "), n)
		for i, row := range k.Dose.Counts {
			for j, w := range row {
				if w != n {
					said += fmt.Sprintf(", %s %s %d", k.Rows[i], k.Columns[j], w)
				}
			}
		}
		return said
	}
	return fmt.Sprintf("%d each", n)
}
