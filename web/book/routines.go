package book

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/web/shell"
)

type routinesBody struct {
	Rows  []routineRow
	Open  *openRoutine
	Coach bool
}

type routineRow struct {
	ID                   uint64
	Name, For, Cost, Kit string
	Phases               []drill.Phase
	Changed              int
	Open                 bool
}

// openRoutine is the routine that is shown whole.
type openRoutine struct {
	ID                uint64
	Edition           uint32
	Name, For, Method string
	Cost              []costLine
	Blocks            []routineBlock
	Changed           []string
	Slot              *slotForm
	Handed            string // the link by which it is handed out; "": it is not
}

type costLine struct{ Figure, What string }

type routineBlock struct {
	ID, Name, Who, Where, Leader string
	Phase                        drill.Phase
	Priority                     plan.Priority
	Items                        []routineItem
}

type routineItem struct {
	Code, Name, Words string
	Pool              int // drills that take turns in this place
	Href              string
}

// slotForm picks the drills that take turns in a place.
type slotForm struct {
	Block string
	Item  int
	Name  string
	Pool  []shell.Tick
}

// Routines is the routines, one of them whole.
func (in Room) Routines(r *shell.Request) (shell.Answer, error) {
	kept, err := in.Books.Routines(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b := &routinesBody{Coach: r.Coach()}
	p := &shell.Page{Screens: screens, Name: "routines", Title: "Routines", Nav: "routines", Body: b}
	if len(kept) == 0 {
		return p, nil
	}
	day, err := in.Diary.UsualDay(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	drills, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	open := cmp.Or(r.QueryID("routine"), kept[0].ID)
	for _, k := range kept {
		cost := k.Is.Cost(day)
		b.Rows = append(b.Rows, rowOf(k, cost, k.ID == open))
		if k.ID == open {
			b.Open = openRoutineOf(k, cost, plays)
			b.Open.slot(k.Is, drills, r.Query("slot"))
			token, err := in.Books.HandedOut(r.Context(), r.Club(), k.ID)
			if err != nil {
				return nil, err
			}
			if token != "" {
				b.Open.Handed = r.Origin() + shell.Handed(token)
			}
		}
	}
	return p, nil
}

func rowOf(k planner.Entry[club.Routine], cost club.Cost, open bool) routineRow {
	load := cost.Load
	load.Acts = 0 // they differ by position
	row := routineRow{ID: k.ID, Name: k.Is.Name, For: k.Is.For, Open: open, Changed: len(k.Is.Changed()),
		Kit:  strings.Join(cost.Kit, ", "),
		Cost: shell.Joined(" · ", clock.Lasting(cost.Seconds), strings.Join(load.Words(), ", "))}
	for _, block := range k.Is.Blocks {
		if !slices.Contains(row.Phases, block.Phase) {
			row.Phases = append(row.Phases, block.Phase)
		}
	}
	return row
}

func openRoutineOf(k planner.Entry[club.Routine], cost club.Cost, plays *sport.Sport) *openRoutine {
	r := k.Is
	o := &openRoutine{ID: k.ID, Edition: k.Edition, Name: r.Name, For: r.For, Method: plan.Methods[r.Method].Name,
		Changed: r.Changed(), Cost: costLines(cost, plays)}
	for _, block := range r.Blocks {
		rb := routineBlock{ID: block.ID, Name: block.Name, Who: strings.Join(block.Who, ", "), Where: block.Zone,
			Leader: block.Leader, Phase: block.Phase, Priority: block.Priority}
		if slices.Contains(block.Who, plan.Everyone) {
			rb.Who = "Whole squad"
		}
		for n, item := range block.Items {
			rb.Items = append(rb.Items, routineItem{Code: item.Drill.Code, Name: item.Drill.Name,
				Words: item.Drill.Words(item.Drill.Range.Target),
				Pool:  len(poolOf(r, block.ID, n)), Href: fmt.Sprintf("%s&slot=%s#slot", shell.Routine(k.ID),
					slotKey(block.ID, n))})
		}
		o.Blocks = append(o.Blocks, rb)
	}
	return o
}

func costLines(cost club.Cost, plays *sport.Sport) []costLine {
	lines := []costLine{
		{clock.Duration(cost.Seconds), "minutes, of the busiest player"},
		{clock.Duration(cost.Load.HardSeconds), "minutes of hard work"},
		{fmt.Sprint(cost.Load.Contacts), "ground contacts"},
		{plays.Number(float64(cost.Load.SprintMetres)), plays.System.Units() + " at 90 % and over"},
		{fmt.Sprint(cost.Load.Acts), cmp.Or(plays.Act, "throws, kicks and hits")},
		{clock.Duration(cost.Ground), "minutes on the pitch, all places together"},
	}
	if len(cost.Kit) > 0 {
		lines = append(lines, costLine{fmt.Sprint(len(cost.Kit)), "kinds of kit: " + strings.Join(cost.Kit, ", ")})
	}
	return lines
}

// slotKey names a place of a routine in an address.
func slotKey(block string, item int) string { return fmt.Sprintf("%s.%d", block, item) }

// poolOf are the drills that take turns in a place; nil: none do.
func poolOf(r club.Routine, block string, item int) []string {
	if i := slices.IndexFunc(r.Slots, func(s club.Slot) bool { return s.Block == block && s.Item == item }); i >= 0 {
		return r.Slots[i].Pool
	}
	return nil
}

// slot opens the form of the place that is asked for: the drills that work one of
// the same joints may take turns there.
func (o *openRoutine) slot(r club.Routine, b *books.Book, asked string) {
	for _, block := range r.Blocks {
		for n, item := range block.Items {
			if slotKey(block.ID, n) != asked {
				continue
			}
			pool := poolOf(r, block.ID, n)
			o.Slot = &slotForm{Block: block.ID, Item: n, Name: item.Drill.Name}
			for _, d := range b.Drills {
				if d.Serves(block.Phase) && (d.Code == item.Drill.Code || slices.Contains(pool, d.Code) ||
					alike(d, item.Drill)) {
					on := slices.Contains(pool, d.Code) || pool == nil && d.Code == item.Drill.Code
					o.Slot.Pool = append(o.Slot.Pool, shell.Tick{Value: d.Code, Label: d.Name, On: on})
				}
			}
		}
	}
}

// alike tells whether two drills work one of the same joints.
func alike(d, e drill.Drill) bool {
	return slices.ContainsFunc(d.Regions, func(joint string) bool { return slices.Contains(e.Regions, joint) })
}

// SaveSlot sets which drills take turns in a place of a routine.
func (in Room) SaveSlot(r *shell.Request) (shell.Answer, error) {
	f, id := r.Form, r.ParamID("id")
	slot := club.Slot{Block: f.Raw("block"), Item: f.Int("item", 0, plan.MaxItems-1), Pool: f.List("pool")}
	err := f.Err()
	if err == nil {
		err = in.Books.SetSlot(r.Context(), r.By, id, f.Count("edition"), slot)
	}
	return r.Saved(err, "It is saved", shell.Routine(id), shell.Gone)
}

// HandOut makes a link to a page of a routine's drills, or ends it.
func (in Room) HandOut(r *shell.Request) (shell.Answer, error) {
	id := r.ParamID("id")
	if r.Form.Has("gone") {
		return shell.Go(shell.Routine(id)), in.Books.WithdrawHanded(r.Context(), r.By, id)
	}
	return shell.Go(shell.Routine(id)), in.Books.HandOut(r.Context(), r.By, id)
}

// RemoveRoutine no longer keeps a routine.
func (in Room) RemoveRoutine(r *shell.Request) (shell.Answer, error) {
	name, err := in.Books.RemoveRoutine(r.Context(), r.By, r.ParamID("id"))
	return r.Saved(err, name+" is no longer kept", "/routines", shell.Gone)
}
