package board

import (
	"errors"
	"fmt"
	"strings"
	"time"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner/boards"
	"cuestart/planner/diary"
	"cuestart/web/shell"
)

// Edited is what a form makes of a session's plan: the edit, the block that is open after it, and
// what fills the form again where it is refused.
type Edited struct {
	block  string
	edit   boards.Edit
	refill func(*body)
}

func edits(block string, edit boards.Edit, refill func(*body)) Edited {
	return Edited{block, edit, refill}
}

// Edit serves a form that edits the plan.
func (in Room) Edit(form func(*shell.Request) Edited) shell.Handler {
	return func(r *shell.Request) (shell.Answer, error) {
		edited := form(r)
		return in.change(r, edited.block, edited.edit, edited.refill)
	}
}

// change makes an edit of a form that was read whole, and answers with the board,
// with block open.
func (in Room) change(r *shell.Request, block string, edit boards.Edit, refill func(*body)) (shell.Answer, error) {
	b, err := (*boards.Board)(nil), r.Form.Err()
	if err == nil {
		b, err = in.Boards.ChangeFor(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"),
			r.Form.Raw("who"), edit)
	}
	return in.changed(r, block, b, err, refill)
}

// SetTiming moves the start, by a press or to a time, and sets the margin.
func SetTiming(r *shell.Request) Edited {
	f := r.Form
	sent := timingForm{Local: f.Raw("start"), Occurrence: f.Raw("occurrence"), Margin: f.Raw("margin")}
	shift := f.IntOr("shift", 0, -1440, 1440)
	margin, err := clock.ParseDuration(sent.Margin)
	if err != nil {
		f.Refuse("margin", "%s", err)
	}
	return edits("", func(d *plan.Document) (string, error) {
		start := clock.Start{Local: sent.Local, Zone: d.Start.Zone, Occurrence: clock.Occurrence(sent.Occurrence)}
		if f.Has("shift") {
			at, err := d.Start.Resolve()
			if err != nil {
				return "", err
			}
			start = clock.StartAt(at.Add(time.Duration(shift) * time.Minute))
		}
		var done []string
		if start != d.Start {
			said, err := boards.SetStart(start, r.Now())(d)
			if err != nil {
				return "", err
			}
			done = append(done, said)
		}
		if margin != d.Margin {
			said, err := d.SetMargin(margin)
			if err != nil {
				return "", err
			}
			done = append(done, said)
		}
		return strings.Join(done, ", "), nil
	}, func(b *body) { sent.Zone = b.Timing.Zone; b.Timing = sent })
}

// SetDose turns a drill's dose: to an amount, or by so many steps.
func SetDose(r *shell.Request) Edited {
	f, block := r.Form, r.Param("block")
	item := f.At(plan.AtBlock(block, "items")).Int("item", 0, plan.MaxItems-1)
	f.At(plan.AtItem(block, item))
	if f.Has("by") {
		steps := f.Int("by", -100, 100)
		return edits(block, func(d *plan.Document) (string, error) { return d.StepDose(block, item, steps) }, nil)
	}
	amount := f.Int("amount", 0, drill.MaxAmount)
	return edits(block, func(d *plan.Document) (string, error) { return d.SetDose(block, item, amount) }, nil)
}

// SetPriority says how willingly a block is given up.
func SetPriority(r *shell.Request) Edited {
	block, priority := r.Param("block"), plan.Priority(r.Form.Raw("priority"))
	return edits(block, func(d *plan.Document) (string, error) { return d.SetPriority(block, priority) }, nil)
}

// SetOrder exchanges a block with its neighbour.
func SetOrder(r *shell.Request) Edited {
	block := r.Param("block")
	by := r.Form.At(plan.AtBlock(block, "")).Int("by", -1, 1)
	if by == 0 {
		r.Form.Refuse("by", "say whether it goes before or after")
	}
	return edits(block, func(d *plan.Document) (string, error) { return d.Step(block, by) }, nil)
}

// RemoveBlock takes a block out.
func RemoveBlock(r *shell.Request) Edited {
	return edits("", func(d *plan.Document) (string, error) { return d.Remove(r.Param("block")) }, nil)
}

// SetBlock changes a block's name, aim and phase, and how many are at it at once.
func SetBlock(r *shell.Request) Edited {
	f, block := r.Form, r.Param("block")
	to := plan.BlockFields{Name: f.Text("name"), Aim: f.Text("aim")}
	to.Stations = f.At(plan.AtBlock(block, "stations")).IntOr("stations", 0, 1, 100)
	phase, known := drill.PhaseOf(f.Raw("phase"))
	return edits(block, func(d *plan.Document) (string, error) {
		b := d.Block(block)
		if b == nil {
			return "", plan.ErrNoSuchBlock
		}
		to.Who, to.Zone, to.Leader = b.Who, b.Zone, b.Leader
		if known && (phase == drill.After) == (b.Phase == drill.After) {
			b.Phase = phase
		}
		return d.SetBlock(block, to)
	}, nil)
}

// SetFixed changes, adds or takes out what the day holds.
func SetFixed(r *shell.Request) Edited {
	f := r.Form.At("fixed")
	if f.Has("gone") {
		return edits("", func(d *plan.Document) (string, error) { return d.RemoveFixed(f.Raw("id")) }, nil)
	}
	event := plan.Fixed{ID: f.Raw("id"), Name: f.Text("name"), Who: []string{f.Raw("who")}, Active: f.Has("active"),
		Zone: f.Raw("zone")}
	event.Span = plan.Span{From: f.Moment("from"), To: f.Moment("to")}
	return edits("", func(d *plan.Document) (string, error) {
		if known := d.Event(event.ID); known != nil && event.Who[0] == "" {
			event.Who = known.Who // as it is: players picked one by one
		}
		return d.SetFixed(event)
	}, nil)
}

// SetPlayer says that a player comes late, does not begin, or is not there at all.
func SetPlayer(r *shell.Request) Edited {
	f, player := r.Form.At("players"), r.Form.Raw("player")
	if f.Has("out") {
		return edits("", func(d *plan.Document) (string, error) { return d.SetOut(player) }, nil)
	}
	if f.Has("bench") {
		on := f.Raw("bench") == "yes"
		return edits("", func(d *plan.Document) (string, error) { return d.SetBench(player, on) }, nil)
	}
	if f.Has("over") {
		over := f.Raw("over") == "yes"
		return edits("", func(d *plan.Document) (string, error) { return d.SetOver(player, over) }, nil)
	}
	at := f.Text("arrives")
	return edits("", func(d *plan.Document) (string, error) { return d.SetArrival(player, at) }, nil)
}

// SeeNotes takes the notes off the board.
func SeeNotes(r *shell.Request) Edited {
	return edits("", (*plan.Document).SeenNotes, nil)
}

// SetSpare lets doses go up to their maximum where minutes are left, or not.
func SetSpare(r *shell.Request) Edited {
	use := r.Form.Raw("use") == "yes"
	return edits("", func(d *plan.Document) (string, error) { return d.SetSpare(use) }, nil)
}

// SetSlack plans work to end so many seconds sooner than it has to.
func SetSlack(r *shell.Request) Edited {
	slack := r.Form.Int("slack", 0, plan.MostSlack)
	return edits("", func(d *plan.Document) (string, error) { return d.SetSlack(slack) }, nil)
}

// SetDay sets the day's conditions.
func SetDay(r *shell.Request) Edited {
	day, sent := r.Form.Day()
	return edits("", boards.SetDay(day), func(b *body) {
		if b.Drawers.Day != nil {
			b.Drawers.Day.Day = sent
		}
	})
}

// SetFactor takes factors of the day, parted by commas, or refuses them.
func SetFactor(r *shell.Request) Edited {
	return edits("", boards.SetFactors(strings.Split(r.Form.Raw("factor"), ","), r.Form.Raw("on") == "yes"), nil)
}

// SetHead changes what is said of the session as a whole.
func SetHead(r *shell.Request) Edited {
	f := r.Form
	to := plan.HeadFields{Title: f.Text("title"), Place: f.Text("place"), StartName: f.Text("start_name"),
		Method: f.Raw("method"), Open: f.Moment("open")}
	return edits("", func(d *plan.Document) (string, error) { return d.SetHead(to) }, nil)
}

// Mend makes the change that a check offers.
func (in Room) Mend(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	b, err := in.Boards.Mend(r.Insisting(), r.By, r.ParamID("session"), f.Count("revision"), f.Raw("rule"),
		f.Raw("where"))
	if errors.Is(err, check.ErrNoMend) {
		err = plan.In("board",
			"No single change puts this right without spoiling something else. Change it by hand, or keep it "+
				"as is and say why.")
	}
	return in.changed(r, "", b, err, nil)
}

// Except keeps a finding as it is, with a reason.
func Except(r *shell.Request) Edited {
	return edits("", boards.Except(r.Form.Raw("rule"), r.Form.Raw("where"), r.Form.Text("reason")), nil)
}

// TakeRulings brings the plan up to what medical staff have ruled.
func (in Room) TakeRulings(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.TakeRulings(r.Context(), r.By, r.ParamID("session"))
	return in.changed(r, "", b, err, nil)
}

// Build puts blocks into an empty plan: built for its day, or of a routine.
func (in Room) Build(r *shell.Request) (shell.Answer, error) {
	b, err := in.Diary.Build(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"), r.Form.Raw("from"))
	if wrong := shell.Problems(err); wrong != nil {
		err = plan.In("board", "%s", wrong[0].What)
	}
	return in.changed(r, "", b, err, nil)
}

// Undo takes the last change back.
func (in Room) Undo(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Undo(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"))
	return in.changed(r, r.Form.Raw("block"), b, err, nil)
}

// Redo brings back what Undo took away.
func (in Room) Redo(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Redo(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"))
	return in.changed(r, r.Form.Raw("block"), b, err, nil)
}

// Publish shares the plan with the players.
func (in Room) Publish(r *shell.Request) (shell.Answer, error) {
	b, err := in.Reach.Publish(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"))
	if err == nil {
		r.Say(fmt.Sprintf("Plan %d is published: it is on everybody's link now", b.Publication.Number))
	}
	return in.changed(r, r.Form.Raw("block"), b, err, nil)
}

// Withdraw ends the players' link.
func (in Room) Withdraw(r *shell.Request) (shell.Answer, error) {
	b, err := in.Reach.Withdraw(r.Context(), r.By, r.ParamID("session"))
	return in.changed(r, r.Form.Raw("block"), b, err, nil)
}

// KeepRoutine keeps the session's blocks as a routine.
func (in Room) KeepRoutine(r *shell.Request) (shell.Answer, error) {
	id, name := r.ParamID("session"), r.Form.Text("name")
	keep := diary.Keep{Name: name, For: r.Form.Text("for"), Season: r.Form.Text("season")}
	if block := r.Form.Raw("only"); block != "" {
		keep.Only = []string{block}
	}
	err := in.Diary.SaveRoutine(r.Context(), r.By, id, keep)
	return r.Saved(err, name+" is saved as a routine", "/routines", func(wrong plan.Problems) (*shell.Page, error) {
		b, err := in.Boards.Board(r.Context(), r.Club(), id)
		if err != nil {
			return nil, err
		}
		return in.page(r, b, "", plan.Problems{{Where: "routine", What: wrong[0].What}}, nil), nil
	})
}

// PutRoutine puts a routine's blocks into the plan, beside its own.
func (in Room) PutRoutine(r *shell.Request) (shell.Answer, error) {
	b, err := in.Diary.PutRoutine(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"),
		r.Form.ID("from"))
	return in.changed(r, "", b, err, nil)
}

// Remove takes the session off the list; it can be brought back.
func (in Room) Remove(r *shell.Request) (shell.Answer, error) {
	id := r.ParamID("session")
	return shell.Go(fmt.Sprintf("/today?removed=%d", id)), in.Boards.Remove(r.Context(), r.By, id)
}

// Restore brings a removed session back.
func (in Room) Restore(r *shell.Request) (shell.Answer, error) {
	id := r.ParamID("session")
	return shell.Go(shell.Session(id)), in.Boards.Restore(r.Context(), r.By, id)
}

// SetPace plans a block as long as it runs with this team, or as its doses come to.
func (in Room) SetPace(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	block := f.Raw("block")
	if f.Has("none") {
		return in.change(r, block, func(d *plan.Document) (string, error) { return d.SetPace(block, 0) }, nil)
	}
	b, err := in.Boards.TakePace(r.Insisting(), r.By, r.ParamID("session"), f.Count("revision"), block)
	return in.changed(r, "", b, err, nil)
}
