package board

import (
	"strconv"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/planner/boards"
	"cuestart/planner/wording"
	"cuestart/web/shell"
)

// listBody is a list with a line of its own: after the end, at half-time, on the bench.
type listBody struct {
	ID, Name, Line        string
	When                  plan.When
	Length, Margin, Every string // minutes
	Lasts                 string
	Rows                  []row
	Says                  []string // what its few rules find
	Problem               string
}

// Ends tells what its length is called.
func (l listBody) Ends() string {
	return map[plan.When]string{plan.AfterEnd: "Minutes there are", plan.AtBreak: "The break lasts, min",
		plan.OnBench: "Each lasts, min"}[l.When]
}

// at says where a block of it stands, in minutes of its line: "2:00 after", "6:30 to go".
func at(l *schedule.Line, b *schedule.Block) string {
	if l.Forward() {
		return clock.Duration(int(b.Start))
	}
	return b.Start.ToGo()
}

// lists are the lists of the plan, and the chosen block where it is in one of them.
func (b *body) lists(board *boards.Board, chosen string) {
	lines := board.Lists()
	for i := range lines {
		l := &lines[i]
		made := listBody{ID: l.ID, Name: l.Name, Line: l.Line, When: l.When, Lasts: clock.Lasting(l.Seconds()),
			Says: l.Findings(), Problem: b.Problems.At(plan.AtList(l.ID))}
		for of, into := range map[int]*string{l.Length / 60: &made.Length, l.Margin / 60: &made.Margin,
			l.Every: &made.Every} {
			if of > 0 {
				*into = strconv.Itoa(of)
			}
		}
		blocks := l.Schedule.Blocks(l.Document)
		for n := range blocks {
			one := rowOf(board, l.Document, &blocks[n])
			one.Clock, one.ToGo = "", at(l, &blocks[n])
			if one.Chosen = one.ID == chosen; one.Chosen {
				b.Chosen = chosenOf(b, board, l.Document, blocks, n, one)
				b.Chosen.List = l.Line
			}
			made.Rows = append(made.Rows, one)
		}
		b.Lists = append(b.Lists, made)
	}
}

// Missing are the kinds of list that the plan does not have yet.
func (b *body) Missing() (list []shell.Choice) {
	names := map[plan.When]string{plan.AfterEnd: "after the end", plan.AtBreak: "half-time",
		plan.OnBench: "bench top-ups"}
	for _, when := range plan.Whens {
		there := false
		for _, l := range b.Lists {
			there = there || l.When == when
		}
		if !there {
			list = append(list, shell.Choice{Value: string(when), Label: names[when]})
		}
	}
	return list
}

// AddList adds a list with what one of its kind usually holds.
func (in Room) AddList(r *shell.Request) (shell.Answer, error) {
	b, err := in.Diary.FillList(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"),
		plan.When(r.Form.Raw("when")))
	return in.changed(r, "", b, err, nil)
}

// SetList changes what is said of a list, or takes it out.
func SetList(r *shell.Request) Edited {
	f, id := r.Form, r.Param("list")
	if f.Has("gone") {
		return edits("", func(d *plan.Document) (string, error) { return d.RemoveList(id) }, nil)
	}
	at := f.At(plan.AtList(id))
	to := plan.ListFields{Name: f.Text("name"), Line: f.Text("line"), Length: 60 * at.IntOr("length", 0, 1, 120),
		Margin: 60 * at.IntOr("margin", 0, 0, 60), Every: at.IntOr("every", 0, 1, 120)}
	f.At("")
	return edits("", func(d *plan.Document) (string, error) { return d.SetList(id, to) }, nil)
}

// WriteList puts lines into a list.
func (in Room) WriteList(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	at := wording.Place{List: plan.When(f.Raw("when"))}
	b, heard, err := in.Wording.Write(r.Insisting(), r.By, r.ParamID("session"), f.Count("revision"), f.Raw("text"), at)
	return in.changed(r, "", b, err, func(made *body) {
		if heard != nil {
			made.Heard = heardOf(heard, inPlan)
		}
	})
}
