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

// change makes an edit of a form that was read whole, and answers with the board,
// with block open.
func change(r *shell.Request, block string, edit boards.Edit, refill func(*body)) (shell.Answer, error) {
	b, err := (*boards.Board)(nil), r.Form.Err()
	if err == nil {
		b, err = r.Planner.Boards.ChangeFor(asked(r), r.By, r.ParamID("session"), r.Form.Count("revision"), r.Form.Raw("who"), edit)
	}
	return changed(r, block, b, err, refill)
}

// SetTiming moves the start, by a press or to a time, and sets the margin.
func SetTiming(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	sent := timingForm{Local: f.Raw("start"), Occurrence: f.Raw("occurrence"), Margin: f.Raw("margin")}
	shift := f.IntOr("shift", 0, -1440, 1440)
	margin, err := clock.ParseDuration(sent.Margin)
	if err != nil {
		f.Refuse("margin", "%s", err)
	}
	return change(r, "", func(d *plan.Document) (string, error) {
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
			said, err := r.Planner.Boards.SetStart(start)(d)
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
func SetDose(r *shell.Request) (shell.Answer, error) {
	f, block := r.Form, r.Param("block")
	item := f.At(plan.AtBlock(block, "items")).Int("item", 0, plan.MaxItems-1)
	f.At(plan.AtItem(block, item))
	if f.Has("by") {
		steps := f.Int("by", -100, 100)
		return change(r, block, func(d *plan.Document) (string, error) { return d.StepDose(block, item, steps) }, nil)
	}
	amount := f.Int("amount", 0, drill.MaxAmount)
	return change(r, block, func(d *plan.Document) (string, error) { return d.SetDose(block, item, amount) }, nil)
}

// SetPriority says how willingly a block is given up.
func SetPriority(r *shell.Request) (shell.Answer, error) {
	block, priority := r.Param("block"), plan.Priority(r.Form.Raw("priority"))
	return change(r, block, func(d *plan.Document) (string, error) { return d.SetPriority(block, priority) }, nil)
}

// SetOrder exchanges a block with its neighbour.
func SetOrder(r *shell.Request) (shell.Answer, error) {
	block := r.Param("block")
	by := r.Form.At(plan.AtBlock(block, "")).Int("by", -1, 1)
	if by == 0 {
		r.Form.Refuse("by", "say whether it goes before or after")
	}
	return change(r, block, func(d *plan.Document) (string, error) { return d.Step(block, by) }, nil)
}

// RemoveBlock takes a block out.
func RemoveBlock(r *shell.Request) (shell.Answer, error) {
	return change(r, "", func(d *plan.Document) (string, error) { return d.Remove(r.Param("block")) }, nil)
}

// SetBlock changes a block's name, aim and phase, and how many are at it at once.
func SetBlock(r *shell.Request) (shell.Answer, error) {
	f, block := r.Form, r.Param("block")
	to := plan.BlockFields{Name: f.Text("name"), Aim: f.Text("aim")}
	to.Stations = f.At(plan.AtBlock(block, "stations")).IntOr("stations", 0, 1, 100)
	phase, known := drill.PhaseOf(f.Raw("phase"))
	return change(r, block, func(d *plan.Document) (string, error) {
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
func SetFixed(r *shell.Request) (shell.Answer, error) {
	f := r.Form.At("fixed")
	if f.Has("gone") {
		return change(r, "", func(d *plan.Document) (string, error) { return d.RemoveFixed(f.Raw("id")) }, nil)
	}
	event := plan.Fixed{ID: f.Raw("id"), Name: f.Text("name"), Who: []string{f.Raw("who")}, Active: f.Has("active"), Zone: f.Raw("zone")}
	event.Span = plan.Span{From: f.Moment("from"), To: f.Moment("to")}
	return change(r, "", func(d *plan.Document) (string, error) {
		if known := d.Event(event.ID); known != nil && event.Who[0] == "" {
			event.Who = known.Who // as it is: players picked one by one
		}
		return d.SetFixed(event)
	}, nil)
}

// SetPlayer says that a player comes late, does not begin, or is not there at all.
func SetPlayer(r *shell.Request) (shell.Answer, error) {
	f, player := r.Form.At("players"), r.Form.Raw("player")
	if f.Has("out") {
		return change(r, "", func(d *plan.Document) (string, error) { return d.SetOut(player) }, nil)
	}
	if f.Has("bench") {
		on := f.Raw("bench") == "yes"
		return change(r, "", func(d *plan.Document) (string, error) { return d.SetBench(player, on) }, nil)
	}
	if f.Has("over") {
		over := f.Raw("over") == "yes"
		return change(r, "", func(d *plan.Document) (string, error) { return d.SetOver(player, over) }, nil)
	}
	at := f.Text("arrives")
	return change(r, "", func(d *plan.Document) (string, error) { return d.SetArrival(player, at) }, nil)
}

// SeeNotes takes the notes off the board.
func SeeNotes(r *shell.Request) (shell.Answer, error) {
	return change(r, "", (*plan.Document).SeenNotes, nil)
}

// SetSpare lets doses go up to their maximum where minutes are left, or not.
func SetSpare(r *shell.Request) (shell.Answer, error) {
	use := r.Form.Raw("use") == "yes"
	return change(r, "", func(d *plan.Document) (string, error) { return d.SetSpare(use) }, nil)
}

// SetSlack plans work to end so many seconds sooner than it has to.
func SetSlack(r *shell.Request) (shell.Answer, error) {
	slack := r.Form.Int("slack", 0, plan.MostSlack)
	return change(r, "", func(d *plan.Document) (string, error) { return d.SetSlack(slack) }, nil)
}

// SetDay sets the day's conditions.
func SetDay(r *shell.Request) (shell.Answer, error) {
	day, sent := r.Form.Day()
	return change(r, "", boards.SetDay(day), func(b *body) {
		if b.Drawers.Day != nil {
			b.Drawers.Day.Day = sent
		}
	})
}

// SetFactor takes factors of the day, parted by commas, or refuses them.
func SetFactor(r *shell.Request) (shell.Answer, error) {
	return change(r, "", boards.SetFactors(strings.Split(r.Form.Raw("factor"), ","), r.Form.Raw("on") == "yes"), nil)
}

// SetHead changes what is said of the session as a whole.
func SetHead(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	to := plan.HeadFields{Title: f.Text("title"), Place: f.Text("place"), StartName: f.Text("start_name"), Method: f.Raw("method"), Open: f.Moment("open")}
	return change(r, "", func(d *plan.Document) (string, error) { return d.SetHead(to) }, nil)
}

// Mend makes the change that a check offers.
func Mend(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	b, err := r.Planner.Boards.Mend(asked(r), r.By, r.ParamID("session"), f.Count("revision"), f.Raw("rule"), f.Raw("where"))
	if errors.Is(err, check.ErrNoMend) {
		err = plan.In("board", "No single change puts this right without spoiling something else. Change it by hand, or keep it as is and say why.")
	}
	return changed(r, "", b, err, nil)
}

// Except keeps a finding as it is, with a reason.
func Except(r *shell.Request) (shell.Answer, error) {
	return change(r, "", boards.Except(r.Form.Raw("rule"), r.Form.Raw("where"), r.Form.Text("reason")), nil)
}

// TakeRulings brings the plan up to what medical staff have ruled.
func TakeRulings(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.Boards.TakeRulings(r.Context(), r.By, r.ParamID("session"))
	return changed(r, "", b, err, nil)
}

// Build puts blocks into an empty plan: built for its day, or of a routine.
func Build(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.Diary.Build(asked(r), r.By, r.ParamID("session"), r.Form.Count("revision"), r.Form.Raw("from"))
	if wrong := shell.Problems(err); wrong != nil {
		err = plan.In("board", "%s", wrong[0].What)
	}
	return changed(r, "", b, err, nil)
}

// Undo takes the last change back.
func Undo(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.Boards.Undo(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"))
	return changed(r, r.Form.Raw("block"), b, err, nil)
}

// Redo brings back what Undo took away.
func Redo(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.Boards.Redo(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"))
	return changed(r, r.Form.Raw("block"), b, err, nil)
}

// Withdraw ends the players' link.
func Withdraw(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.Reach.Withdraw(r.Context(), r.By, r.ParamID("session"))
	return changed(r, r.Form.Raw("block"), b, err, nil)
}

// KeepRoutine keeps the session's blocks as a routine.
func KeepRoutine(r *shell.Request) (shell.Answer, error) {
	id, name := r.ParamID("session"), r.Form.Text("name")
	keep := diary.Keep{Name: name, For: r.Form.Text("for"), Season: r.Form.Text("season")}
	if block := r.Form.Raw("only"); block != "" {
		keep.Only = []string{block}
	}
	err := r.Planner.Diary.SaveRoutine(r.Context(), r.By, id, keep)
	return r.Saved(err, name+" is saved as a routine", "/routines", func(wrong plan.Problems) (*shell.Page, error) {
		b, err := r.Planner.Boards.Board(r.Context(), r.Club(), id)
		if err != nil {
			return nil, err
		}
		return page(r, b, "", plan.Problems{{Where: "routine", What: wrong[0].What}}, nil), nil
	})
}

// PutRoutine puts a routine's blocks into the plan, beside its own.
func PutRoutine(r *shell.Request) (shell.Answer, error) {
	b, err := r.Planner.Diary.PutRoutine(asked(r), r.By, r.ParamID("session"), r.Form.Count("revision"), r.Form.ID("from"))
	return changed(r, "", b, err, nil)
}

// Remove takes the session off the list; it can be brought back.
func Remove(r *shell.Request) (shell.Answer, error) {
	id := r.ParamID("session")
	return shell.Go(fmt.Sprintf("/today?removed=%d", id)), r.Planner.Boards.Remove(r.Context(), r.By, id)
}

// Restore brings a removed session back.
func Restore(r *shell.Request) (shell.Answer, error) {
	id := r.ParamID("session")
	return shell.Go(shell.Session(id)), r.Planner.Boards.Restore(r.Context(), r.By, id)
}

// SetPace plans a block as long as it runs with this team, or as its doses come to.
func SetPace(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	block := f.Raw("block")
	if f.Has("none") {
		return change(r, block, func(d *plan.Document) (string, error) { return d.SetPace(block, 0) }, nil)
	}
	b, err := r.Planner.Boards.TakePace(asked(r), r.By, r.ParamID("session"), f.Count("revision"), block)
	return changed(r, "", b, err, nil)
}
