package board

import (
	"net/http"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/planner/wording"
	"cuestart/web/heard"
	"cuestart/web/shell"
)

// heardForm is what lines are taken for, before or after they are put in.
type heardForm struct {
	Head  string
	Total string // what the drills take together
	Both  bool   // the lines themselves are shown beside
	Done  bool   // they are in the plan
	Words string // where they stand beside what they are, where they are several and in the plan
	Lines []heard.Line
}

// fewLines is how many lines are shown as they were written; of more the doubtful ones
// come first.
const fewLines = 6

// Whether lines are in the plan already.
const inPlan, onlyRead = true, false

// heardOf shows what lines became; done tells that they are in the plan.
func heardOf(h *wording.Heard, done bool) *heardForm {
	shown := &heardForm{Done: done}
	doubts := 0
	for i := range h.Lines {
		if h.Lines[i].Line.Is == say.IsBlank || h.Lines[i].Line.Said == "" {
			continue
		}
		line := heard.Of(h.Document, &h.Lines[i])
		if line.Doubt() {
			doubts++
		}
		shown.Lines = append(shown.Lines, line)
	}
	if shown.Both = len(shown.Lines) > 1 || done; len(shown.Lines) > fewLines {
		slices.SortStableFunc(shown.Lines, func(a, b heard.Line) int {
			switch {
			case a.Doubt() == b.Doubt():
				return 0
			case a.Doubt():
				return -1
			}
			return 1
		})
	}
	if seconds := lasts(h); seconds > 0 {
		shown.Total = clock.Lasting(int(seconds + 0.5))
	}
	verb := ""
	if done {
		verb = " put in"
	}
	switch {
	case doubts > 0:
		shown.Head = drill.Number(len(shown.Lines), "lines") + verb + ", look at " + drill.Number(doubts, "")
	case done:
		shown.Head = drill.Number(len(shown.Lines), "lines") + verb
	default:
		shown.Head = "Understood as"
	}
	return shown
}

// lasts is how many seconds the lines take: the blocks that they make as the board has them,
// and what they add to others by itself.
func lasts(h *wording.Heard) (seconds float64) {
	items, added := map[string]int{}, map[string]float64{}
	for i := range h.Lines {
		if b := h.Document.Block(h.Lines[i].Block); b != nil {
			items[b.ID] += len(h.Lines[i].Items)
			added[b.ID] += heard.WorkOf(h.Document, b, h.Lines[i].Items)
		}
	}
	for id, n := range items {
		if b := h.Document.Block(id); n == len(b.Items) {
			seconds += float64(b.Seconds(b.Targets(), h.Document.Group(b)))
		} else {
			seconds += added[id]
		}
	}
	return seconds
}

// placeOf is where lines are written.
func placeOf(r *shell.Request) wording.Place {
	return wording.Place{Into: r.Form.Raw("into"), Before: r.Form.Raw("before")}
}

// Hear reads lines as they are typed.
func (in Room) Hear(r *shell.Request) (shell.Answer, error) {
	found, err := in.Wording.Hear(r.Context(), r.Club(), r.ParamID("session"), r.Form.Raw("text"), placeOf(r))
	if wrong := shell.Problems(err); wrong != nil && r.Wants("heard") {
		return &shell.Page{Screens: screens, Name: "page", Part: "heard",
			Body: &heardForm{Head: wrong[0].What, Lines: []heard.Line{{Became: "Nothing is put in like this"}}}}, nil
	}
	if err != nil {
		return nil, err
	}
	if !r.Wants("heard") {
		return shell.Go(shell.Session(r.ParamID("session"))), nil
	}
	return &shell.Page{Screens: screens, Name: "page", Part: "heard", Body: heardOf(found, onlyRead)}, nil
}

// Write puts lines into the plan.
func (in Room) Write(r *shell.Request) (shell.Answer, error) {
	at := placeOf(r)
	b, found, err := in.Wording.Write(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"),
		r.Form.Raw("text"), at)
	if err != nil || !r.Wants("board") {
		return in.changed(r, at.Into, b, err, func(b *body) { b.Typed = r.Form.Raw("text") })
	}
	made := in.page(r, b, at.Into, nil, nil)
	made.Status = http.StatusOK
	shown := heardOf(found, inPlan)
	if on := made.Body.(*body); len(shown.Lines) > 1 || slices.ContainsFunc(shown.Lines, heard.Line.Doubt) {
		if on.Heard = shown; len(shown.Lines) > 1 {
			shown.Words = on.To("words")
		}
	}
	return made, nil
}

// SetSaid reads who does a block, where, led by whom or when.
func (in Room) SetSaid(r *shell.Request) (shell.Answer, error) {
	block, part, text := r.Param("block"), pen.Part(r.Form.Raw("part")), r.Form.Text("said")
	if text == noneOf[part] {
		text = ""
	}
	edit, err := in.Wording.SetPart(r.Context(), r.Club(), r.ParamID("session"), block, part, text)
	if err != nil {
		return nil, err
	}
	return in.change(r, block, edit, func(b *body) {
		if b.Chosen != nil {
			b.Chosen.refill(part, text)
		}
	})
}

// SetItem moves a drill within its block, puts another in its place, or takes it out.
func (in Room) SetItem(r *shell.Request) (shell.Answer, error) {
	f, block := r.Form, r.Param("block")
	item := f.At(plan.AtBlock(block, "items")).Int("item", 0, plan.MaxItems-1)
	switch {
	case f.Has("toggle"):
		return in.change(r, block,
			func(d *plan.Document) (string, error) { return toggled(d, block, item, f.Raw("toggle")) }, nil)
	case f.Has("tell"):
		return in.change(r, block, func(d *plan.Document) (string, error) {
			return d.Block(block).Tell(item, f.Raw("tell"))
		}, nil)
	case f.Has("out"):
		return in.change(r, block, func(d *plan.Document) (string, error) { return d.RemoveItem(block, item) }, nil)
	case f.Has("by"):
		by := f.Int("by", -plan.MaxItems, plan.MaxItems)
		return in.change(r, block, func(d *plan.Document) (string, error) { return d.MoveItem(block, item, by) }, nil)
	}
	book, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	return in.change(r, block, func(d *plan.Document) (string, error) {
		known, ok := book.Find(f.Raw("drill"))
		if b := d.Block(block); !ok && b != nil && item < len(b.Items) {
			known, ok = book.FormOf(b.Items[item].Drill, f.Raw("drill"))
		}
		if !ok {
			return "", plan.In(plan.AtBlock(block, "items"), "this drill is no longer in the book")
		}
		return d.SwapItem(block, item, book.Item(known, d.Grade))
	}, nil)
}

// AddPrinciple puts in what the plan lacks of what a warm-up usually has.
func (in Room) AddPrinciple(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.AddPrinciple(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"),
		r.Form.Raw("principle"))
	return in.changed(r, "", b, err, nil)
}

// Relist lists the blocks in the order of the method.
func Relist(r *shell.Request) Edited {
	return edits("", (*plan.Document).Relist, nil)
}

// toggled does a drill of a block otherwise, or again as before.
func toggled(d *plan.Document, block string, item int, way string) (string, error) {
	b := d.Block(block)
	if b == nil || item >= len(b.Items) {
		return "", plan.ErrNoSuchBlock
	}
	if way == "beside" {
		return d.SetAlongside(block, item, !b.Items[item].Alongside)
	}
	switch k := &b.Items[item].Drill; {
	case way == "exact":
		return d.SetExact(block, item, !k.Dose.Exact)
	case k.Dose.OwnSide:
		return d.SetSides(block, item, 2)
	}
	return d.SetSides(block, item, 0)
}
