package board

import (
	"fmt"
	"maps"
	"net/http"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/core/speech"
	"cuestart/planner/wording"
	"cuestart/web/shell"
)

// heard is what lines are taken for, before or after they are put in.
type heard struct {
	Head  string
	Total string // what the drills take together
	Both  bool   // the lines themselves are shown beside
	Done  bool   // they are in the plan
	Words string // where they stand beside what they are, where they are several and in the plan
	Lines []heardLine
}

// heardLine is a line and what it became.
type heardLine struct {
	Said, Became string
	Beside       string // who, where, led by whom, when, as far as it was said
	Lasts        string
	Phase        *drill.Phase
	Yours        []yours  // its drills that are the coach's own
	Doubts       []string // what the coach should look at
}

// yours is a drill of the coach's own, by what is taken of its words.
type yours struct {
	Is    string // moving further · hip, turning · 3 s a rep; "": nothing is known of it
	Block string // where its chips are; "": it is not in the plan yet
}

// yoursOf is what an own drill of a block is taken for.
func yoursOf(k *drill.Drill, block string) yours {
	is := shell.Joined(" · ", movement.Says(k, movement.For), movement.Says(k, movement.Works))
	if is != "" {
		is = shell.Joined(" · ", is, movement.Says(k, movement.Fast))
	}
	return yours{is, block}
}

// Doubt tells whether the coach should look at it.
func (l heardLine) Doubt() bool { return len(l.Doubts) > 0 }

// fewLines is how many lines are shown as they were written; of more the doubtful ones
// come first.
const fewLines = 6

// heardOf shows what lines became; done tells that they are in the plan.
func heardOf(h *wording.Heard, done bool) *heard {
	shown := &heard{Done: done}
	doubts := 0
	for i := range h.Lines {
		if h.Lines[i].Line.Is == say.IsBlank || h.Lines[i].Line.Said == "" {
			continue
		}
		line := heardLineOf(h.Document, &h.Lines[i])
		if line.Doubt() {
			doubts++
		}
		shown.Lines = append(shown.Lines, line)
	}
	if shown.Both = len(shown.Lines) > 1 || done; len(shown.Lines) > fewLines {
		slices.SortStableFunc(shown.Lines, func(a, b heardLine) int {
			return map[bool]int{true: 0, false: 1}[a.Doubt()] - map[bool]int{true: 0, false: 1}[b.Doubt()]
		})
	}
	if seconds := lasts(h); seconds > 0 {
		shown.Total = clock.Lasting(int(seconds + 0.5))
	}
	verb := map[bool]string{true: " put in", false: ""}[done]
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
			added[b.ID] += workOf(h.Document, b, h.Lines[i].Items)
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

// workOf is how many seconds some drills of a block take, in all its rounds.
func workOf(d *plan.Document, b *plan.Block, items []int) (seconds float64) {
	group := d.Group(b)
	for _, n := range items {
		if !b.Alongside(n) {
			seconds += b.Work(n, b.Items[n].Drill.Range.Target, group)
		}
	}
	if b.Form == "" {
		seconds *= float64(max(1, b.Rounds))
	}
	return seconds
}

// heardLineOf shows one line.
func heardLineOf(d *plan.Document, became *say.Became) (shown heardLine) {
	l := &became.Line
	shown.Said = say.AsTyped(l.Said)
	switch l.Is {
	case say.IsPhase:
		phase, _ := drill.PhaseOf(l.Phase)
		shown.Became, shown.Phase = phase.Name()+" from here on", &phase
		if l.List != "" {
			shown.Became, shown.Phase = "A list of its own from here on", nil
		}
	case say.IsFixed:
		if shown.Became = "Fixed: " + l.Name; l.From == nil || l.To == nil {
			shown.Became = "Kept as a note: " + l.Name
			break
		}
		shown.Beside = clock.Offset(*l.From).ToGo() + " to " + clock.Offset(*l.To).ToGo() + " to go"
	case say.IsBlock:
		shown.Became = "A block: " + shell.Joined(", ", l.Name, rounds(l))
		if l.Name == "" {
			shown.Became = "For the lines below"
		}
	case say.IsStock:
		shown.Became = stockWords(l.Stock)
	case say.IsBring:
		shown.Became = "To carry out: " + l.Name
	case say.IsNote:
		shown.Became = "Kept as a note"
		shown.Doubts = append(shown.Doubts, "No drill was found in it")
	}
	shown.does(d, became)
	shown.doubts(became)
	return shown
}

// does fills in the drills that a line became, in one block or in several.
func (shown *heardLine) does(d *plan.Document, became *say.Became) {
	var parts []string
	seconds := 0.0
	for _, placed := range append(slices.Clone(became.Before), say.Placed{Block: became.Block, Items: became.Items}) {
		b := d.Block(placed.Block)
		if b == nil || len(placed.Items) == 0 {
			continue
		}
		for _, n := range placed.Items {
			k := b.Items[n].Drill
			words := k.Name + ": " + k.Words(k.Range.Target)
			if steps := became.Line.StepsSaid(); became.Line.Is == say.IsCombo && steps != "" && slices.Contains(k.Cues, steps) {
				words += ", each " + steps
			}
			parts = append(parts, words)
			if say.IsOwn(k.Code) {
				shown.Yours = append(shown.Yours, yoursOf(&k, placed.Block))
			}
		}
		seconds += workOf(d, b, placed.Items)
		shown.Phase = &b.Phase
	}
	if b := d.Block(became.Block); b != nil && len(became.Items) > 0 {
		shown.Became = strings.Join(parts, "; ")
		shown.Lasts = clock.Lasting(int(seconds + 0.5))
		shown.Beside = beside(d, b, &became.Line)
	}
}

// stockWords say how much there is today: "There are today: 20 × hurdle".
func stockWords(stock map[string]int) string {
	var parts []string
	for _, name := range slices.Sorted(maps.Keys(stock)) {
		parts = append(parts, fmt.Sprintf("%d × %s", stock[name], name))
	}
	return "There are today: " + strings.Join(parts, ", ")
}

func rounds(l *say.Line) string {
	if l.Rounds == 0 {
		return ""
	}
	b := plan.Block{Rounds: l.Rounds, LeastRounds: l.LeastRounds}
	return b.RoundWords(speech.English, l.Rounds)
}

// beside is who does it, where, led by whom and when, as far as the line says so.
func beside(d *plan.Document, b *plan.Block, l *say.Line) string {
	parts := []string{rounds(l)}
	if len(l.Who) > 0 {
		parts = append(parts, d.Audience(b.Who))
	}
	if l.Where != "" {
		parts = append(parts, d.ZoneName(b.Zone))
	}
	if l.Leader != "" {
		parts = append(parts, d.LeaderName(b.Leader))
	}
	parts = append(parts, d.HeldWords(b), strings.Join(l.Cues, "; "))
	return shell.Joined(" · ", parts...)
}

// doubts are what the coach should look at.
func (h *heardLine) doubts(became *say.Became) {
	l := &became.Line
	if became.Problem != "" {
		h.Doubts = append(h.Doubts, became.Problem)
	}
	list := l.Drills
	if l.Is == say.IsDrill {
		list = []say.Line{*l}
	}
	for _, one := range list {
		if one.Code == "" && became.Block != "" && len(one.Likely) > 0 {
			h.Doubts = append(h.Doubts, "Or did you mean "+strings.Join(one.Likely, ", ")+"?")
		}
		if one.Note != "" && l.Is == say.IsDrills {
			h.Doubts = append(h.Doubts, "Kept as a note: "+one.Note)
		}
	}
	if l.Note != "" && l.Is != say.IsNote {
		h.Doubts = append(h.Doubts, "Kept as a note: "+l.Note)
	}
}

// placeOf is where lines are written.
func placeOf(r *shell.Request) wording.Place {
	return wording.Place{Into: r.Form.Raw("into"), Before: r.Form.Raw("before")}
}

// Hear reads lines as they are typed.
func Hear(r *shell.Request) (shell.Answer, error) {
	found, err := r.Planner.Wording.Hear(r.Context(), r.Club(), r.ParamID("session"), r.Form.Raw("text"), placeOf(r))
	if wrong := shell.Problems(err); wrong != nil && r.Wants("heard") {
		return &shell.Page{Screens: screens, Name: "page", Part: "heard", Body: &heard{Head: wrong[0].What, Lines: []heardLine{{Became: "Nothing is put in like this"}}}}, nil
	}
	if err != nil {
		return nil, err
	}
	if !r.Wants("heard") {
		return shell.Go(shell.Session(r.ParamID("session"))), nil
	}
	return &shell.Page{Screens: screens, Name: "page", Part: "heard", Body: heardOf(found, false)}, nil
}

// Write puts lines into the plan.
func Write(r *shell.Request) (shell.Answer, error) {
	at := placeOf(r)
	b, found, err := r.Planner.Wording.Write(asked(r), r.By, r.ParamID("session"), r.Form.Count("revision"), r.Form.Raw("text"), at)
	if err != nil || !r.Wants("board") {
		return changed(r, at.Into, b, err, func(b *body) { b.Typed = r.Form.Raw("text") })
	}
	made := page(r, b, at.Into, nil, nil)
	made.Status = http.StatusOK
	shown := heardOf(found, true)
	if on := made.Body.(*body); len(shown.Lines) > 1 || slices.ContainsFunc(shown.Lines, heardLine.Doubt) {
		if on.Heard = shown; len(shown.Lines) > 1 {
			shown.Words = on.To("words")
		}
	}
	return made, nil
}

// SetSaid reads who does a block, where, led by whom and when.
func SetSaid(r *shell.Request) (shell.Answer, error) {
	block, text := r.Param("block"), r.Form.Text("said")
	edit, err := r.Planner.Wording.SetAttributes(r.Context(), r.Club(), r.ParamID("session"), block, text)
	if err != nil {
		return nil, err
	}
	return change(r, block, edit, func(b *body) {
		if b.Chosen != nil {
			b.Chosen.Said = text
		}
	})
}

// SetItem moves a drill within its block, puts another in its place, or takes it out.
func SetItem(r *shell.Request) (shell.Answer, error) {
	f, block := r.Form, r.Param("block")
	item := f.At(plan.AtBlock(block, "items")).Int("item", 0, plan.MaxItems-1)
	switch {
	case f.Has("toggle"):
		return change(r, block, func(d *plan.Document) (string, error) { return toggled(d, block, item, f.Raw("toggle")) }, nil)
	case f.Has("out"):
		return change(r, block, func(d *plan.Document) (string, error) { return d.RemoveItem(block, item) }, nil)
	case f.Has("by"):
		by := f.Int("by", -plan.MaxItems, plan.MaxItems)
		return change(r, block, func(d *plan.Document) (string, error) { return d.MoveItem(block, item, by) }, nil)
	}
	book, err := r.Planner.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	return change(r, block, func(d *plan.Document) (string, error) {
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
func AddPrinciple(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.Boards.AddPrinciple(asked(r), r.By, r.ParamID("session"), r.Form.Count("revision"), r.Form.Raw("principle"))
	return changed(r, "", b, err, nil)
}

// Relist lists the blocks in the order of the method.
func Relist(r *shell.Request) (shell.Answer, error) {
	return change(r, "", (*plan.Document).Relist, nil)
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
