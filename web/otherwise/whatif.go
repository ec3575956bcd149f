package otherwise

import (
	"fmt"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/verdict"
	"cuestart/planner/boards"
	"cuestart/planner/whatif"
	"cuestart/web/chart"
	"cuestart/web/shell"
)

// whatIf is the page that shows the plan beside how it would be if something came otherwise.
type whatIf struct {
	ID       uint64
	Revision uint32
	Title    string
	Edits    bool
	Groups   []ifGroup
	Fields   []shell.Choice // of what is supposed, to be sent again
	Arrive   []pick         // whether everybody arrives as now; none: it makes no difference
	Who      []shell.Tick   // who is late, and who might be
	Late     int            // minutes; 0: nobody is supposed to be late
	Was, Is  *ifSide        // Is: nil where nothing is supposed, or it cannot be
	Problem  string
}

// ifGroup is a kind of things that might come otherwise.
type ifGroup struct {
	Name  string
	Picks []pick // Value is the query
}

// pick is one of them.
type pick struct {
	Value, Name, Short string
	On                 bool
}

// ifSide is a plan on one side of the page.
type ifSide struct {
	Head    string
	Verdict verdict.Verdict
	Likely  verdict.Likely
	Chart   *chart.Chart
	Changes []string
}

// To is the address of something under the session.
func (w *whatIf) To(under ...string) string { return shell.Session(w.ID, under...) }

// supposedOf is what a query or form supposes; "" as its kind: nothing.
func supposedOf(get func(string) string, list func(string) []string) (what whatif.Supposed) {
	what = whatif.Supposed{Is: schedule.If(get("if")), Arrive: get("arrive") != "too", ID: get("id"), Who: list("who")}
	if minutes, err := strconv.Atoi(get("by")); err == nil {
		what.Minutes = max(-180, min(180, minutes))
	}
	return what
}

// fieldsOf are the fields that [supposedOf] reads.
func fieldsOf(what whatif.Supposed) url.Values {
	to := url.Values{"if": {string(what.Is)}}
	if what.Minutes != 0 {
		to.Set("by", strconv.Itoa(what.Minutes))
	}
	if what.ID != "" {
		to.Set("id", what.ID)
	}
	if what.Is == schedule.IfStart && !what.Arrive {
		to.Set("arrive", "too")
	}
	for _, id := range what.Who {
		to.Add("who", id)
	}
	return to
}

// lateMinutes is how late who comes late is supposed to be, until somebody says otherwise.
const lateMinutes = 15

// groups are the things that might come otherwise in a plan.
func (w *whatIf) groups(d *plan.Document, supposed whatif.Supposed) {
	add := func(group, name, long string, what whatif.Supposed) {
		if len(w.Groups) == 0 || w.Groups[len(w.Groups)-1].Name != group {
			w.Groups = append(w.Groups, ifGroup{Name: group})
		}
		g := &w.Groups[len(w.Groups)-1]
		on := supposed.Is == what.Is && supposed.ID == what.ID &&
			(supposed.Minutes == what.Minutes || what.Is == schedule.IfLate)
		g.Picks = append(g.Picks, pick{Value: "?" + fieldsOf(what).Encode(), Name: long, On: on, Short: name})
	}
	for _, by := range []int{-20, -15, -10, -5, 5, 10, 15, 20} {
		way := "later"
		if by < 0 {
			way = "earlier"
		}
		add(d.StartName, strings.Replace(fmt.Sprintf("%+d", by), "-", "−", 1),
			fmt.Sprintf("%s %d min %s", d.StartName, max(by, -by), way),
			whatif.Supposed{Is: schedule.IfStart, Minutes: by, Arrive: true})
	}
	for _, minutes := range []int{45, 30, 20, 10} {
		add("Minutes there are", strconv.Itoa(minutes), fmt.Sprintf("%d minutes before the start", minutes),
			whatif.Supposed{Is: schedule.IfMinutes, Minutes: minutes})
	}
	var last []string
	for _, p := range d.Players[max(0, len(d.Players)-4):] {
		last = append(last, p.ID)
	}
	add("Late", "some come late", "some come late", whatif.Supposed{Is: schedule.IfLate, Minutes: lateMinutes,
		Who: last})
	for _, z := range d.Zones {
		add("Only there", z.Name, "only "+z.Name, whatif.Supposed{Is: schedule.IfPlace, ID: z.ID})
	}
	for _, l := range d.Leaders {
		add("Without", l.Name, "without "+l.Name, whatif.Supposed{Is: schedule.IfLeader, ID: l.ID})
	}
}

// asks fills in what is asked of what is supposed: who is late; who arrives when.
func (w *whatIf) asks(b *boards.Board, supposed whatif.Supposed) {
	d := b.Document
	for name, values := range fieldsOf(supposed) {
		for _, value := range values {
			w.Fields = append(w.Fields, shell.Choice{Value: value, Label: name})
		}
	}
	slices.SortFunc(w.Fields, func(a, b shell.Choice) int { return strings.Compare(a.Label+a.Value, b.Label+b.Value) })
	switch supposed.Is {
	case schedule.IfLate:
		w.Late = supposed.Minutes
		for _, p := range d.Players {
			tick := shell.Tick{Value: p.ID, Label: strings.TrimSpace(d.Numbers([]string{p.ID}) + " " + p.First),
				On: slices.Contains(supposed.Who, p.ID)}
			w.Who = append(w.Who, tick)
		}
	case schedule.IfStart:
		open, err := d.Open.Offset(b.Schedule.Start)
		if err != nil {
			return
		}
		as, too := supposed, supposed
		as.Arrive, too.Arrive = true, false
		w.Arrive = []pick{{Value: "?" + fieldsOf(as).Encode(), On: supposed.Arrive,
			Short: "as now, at " + clock.Clock(b.Schedule.Start, open)},
			{Value: "?" + fieldsOf(too).Encode(), On: !supposed.Arrive,
				Short: "too, at " + clock.Clock(b.Schedule.Start, open+clock.Offset(60*supposed.Minutes))}}
	}
}

// Lengths of the two charts.
const (
	besideWidth  = 600
	besideLabels = 116
)

// side is a board as one side of the page.
func (in Room) side(r *shell.Request, b *boards.Board, id, head string, from clock.Offset,
	open func(string) string) *ifSide {
	return &ifSide{Head: head, Verdict: b.Verdict(), Likely: in.Boards.Likely(b),
		Chart: chart.New(chart.Plan{Document: b.Document, Schedule: b.Schedule, Strands: b.Strands},
			chart.View{ID: id, Width: besideWidth, Labels: besideLabels, From: from, Plain: true, Href: open})}
}

// Suppose shows the plan beside how it would be if something came otherwise.
func (in Room) Suppose(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	asked := r.Asked()
	return in.ifPage(r, b, supposedOf(r.Query, func(name string) []string { return asked[name] }), nil)
}

func (in Room) ifPage(r *shell.Request, b *boards.Board, what whatif.Supposed,
	wrong plan.Problems) (*shell.Page, error) {
	w := &whatIf{ID: b.ID, Revision: b.Revision, Title: b.Document.Title, Edits: r.Coach()}
	if what.Is == schedule.IfLate && what.Minutes <= 0 {
		what.Minutes = lateMinutes
	}
	w.groups(b.Document, what)
	if what.Is != "" {
		w.asks(b, what)
	}
	from, _ := chart.Span(b.Document, b.Blocks, b.Schedule.Events(b.Document))
	var then *whatif.Variant
	if what.Is != "" && wrong == nil {
		var err error
		if then, err = in.WhatIf.Suppose(r.Context(), r.Club(), b, what); err != nil {
			if wrong = shell.Problems(err); wrong == nil {
				return nil, err
			}
		}
	}
	if wrong != nil {
		w.Problem = wrong[0].What
	}
	open := func(block string) string { return shell.Block(b.ID, block) }
	if then != nil {
		other, _ := chart.Span(then.Document, then.Blocks, then.Schedule.Events(then.Document))
		from = min(from, other)
		w.Is = in.side(r, then.Board, "is", strings.ToUpper(then.Said[:1])+then.Said[1:], from, open)
		w.Is.Changes = then.Changes
	}
	w.Was = in.side(r, b, "was", "As planned", from, open)
	return &shell.Page{Screens: screens, Name: "whatif", Part: "whatif", Title: "What if: " + w.Title, Nav: "runin",
		Body: w}, nil
}

// TakeIf puts the plan in force as it would be.
func (in Room) TakeIf(r *shell.Request) (shell.Answer, error) {
	what := supposedOf(r.Form.Raw, r.Form.List)
	_, err := in.WhatIf.TakeSupposed(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"), what)
	return r.Changed(err, shell.Go(shell.Session(r.ParamID("session"))),
		func(wrong plan.Problems) (*shell.Page, error) {
			b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
			if err != nil {
				return nil, err
			}
			return in.ifPage(r, b, what, wrong)
		})
}
