package board

import (
	"slices"
	"strconv"
	"strings"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/planner/boards"
	"cuestart/web/shell"
)

// shown is how many things stand over the chart at most; the others are one press away.
const shown = 3

// thing is something to look at or to decide: one sentence, and what one press does about it.
type thing struct {
	Says, Why string
	Stop      bool           // it has to be put right first
	Block     string         // that it is about; "": none that can be opened
	To        string         // where what is pressed goes to
	Fields    []shell.Choice // that go with it
	Press     []answer       // what may be pressed
	Found     *finding       // nil: the checks have nothing to do with it
}

// answer is a press on a thing, and what its button says.
type answer struct{ Name, Value, Says string }

// thingOn is a thing with the page it stands on.
type thingOn struct {
	On *body
	Is thing
}

// things are all there is to look at or to decide: first what has to be put right, then what
// is otherwise than it was written, what the day offers, what to look at, what is likely, and
// what is only noted.
func (b *body) things(board *boards.Board) {
	d := board.Document
	var stops, warns, notes []thing
	for i := range b.Findings {
		f := &b.Findings[i]
		one := thing{Says: say.Capital(f.What) + ".", Why: f.Why, Stop: f.Severity == check.Stop, Found: f}
		if d.Block(f.Where) != nil {
			one.Block = f.Where
		}
		if f.Mend != "" {
			one.To = "mend"
			one.Fields = []shell.Choice{{Label: "rule", Value: f.Rule}, {Label: "where", Value: f.Where}}
			one.Press = []answer{{Says: say.Capital(f.Mend)}}
		}
		switch f.Severity {
		case check.Stop:
			stops = append(stops, one)
		case check.Warn:
			warns = append(warns, one)
		default:
			notes = append(notes, one)
		}
	}
	b.Things = slices.Concat(stops, b.otherwise(), b.offered(d), warns, b.likely(), notes)
	b.First = b.Things[:min(shown, len(b.Things))]
	b.Rest = len(b.Things) - len(b.First)
}

// otherwise is what is not as it was written: shortened, left out, missed, fitted to the day.
func (b *body) otherwise() (list []thing) {
	for _, c := range b.Verdict.Cuts {
		list = append(list, thing{Says: c.What + ".", Why: say.Capital(c.Why)})
	}
	for i, n := range b.Notes {
		one := thing{Says: strings.TrimSuffix(n, ".") + "."}
		if i == len(b.Notes)-1 {
			one.To, one.Press = "notes", []answer{{Says: "OK, got it"}}
		}
		list = append(list, one)
	}
	return list
}

// offered is what the day could do to what was written.
func (b *body) offered(d *plan.Document) (list []thing) {
	for _, o := range offers(d) {
		list = append(list, thing{Says: o.Says, To: "factor",
			Fields: []shell.Choice{{Label: "factor", Value: o.Factors}},
			Press:  []answer{{"on", "yes", "Do it"}, {"on", "no", "No, as written"}}})
	}
	return list
}

// likely is how often it would be late, and what runs longer with this team than it is planned.
func (b *body) likely() (list []thing) {
	const source = "Blocks last 12 % more or less than planned on most days; people wait for each other, for places " +
		"and for leaders. An estimate"
	switch l := b.Likely; {
	case l.Head == "":
	case l.Earlier > 0:
		list = append(list, thing{Says: l.Head, Why: strings.TrimSuffix(l.Line, ".") + ". " + source, Block: l.Block,
			To:    "slack",
			Press: []answer{{"slack", strconv.Itoa(l.Wants), "Finish " + clock.Lasting(l.Earlier) + " earlier"}}})
	case b.Slack > 0:
		list = append(list, thing{Says: l.Head, Why: strings.TrimSuffix(say.Capital(l.Line), ".") + ". " + source,
			To: "slack", Press: []answer{{"slack", "0", "Without the spare time"}}})
	}
	for _, p := range b.Paces {
		list = append(list, thing{Says: p.Says + ".", Block: p.Block, To: "pace",
			Fields: []shell.Choice{{Label: "block", Value: p.Block}},
			Press:  []answer{{Says: "Plan it so"}}})
	}
	return list
}
