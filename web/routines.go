package web

import (
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

type routinesBody struct {
	Rows     []routineRow
	Open     *openRoutine
	Coach    bool
	Problems plan.Problems
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
}

type costLine struct{ Figure, What string }

type routineBlock struct {
	ID, Name, Who, Where, Leader, Aim string
	Phase                             drill.Phase
	Priority                          plan.Priority
	Items                             []routineItem
}

type routineItem struct {
	Index       int
	Code, Name  string
	Words, Grid string
	Pool        int // drills that take turns in this place
	Href        string
}

// slotForm picks the drills that take turns in a place.
type slotForm struct {
	Block string
	Item  int
	Name  string
	Pool  []tickBox
}

func (s *Site) routines(c *gin.Context) {
	ctx, clubID := c.Request.Context(), account(c).ClubID
	kept, err := store.Things[club.Routine](ctx, s.Planner.Store, clubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	day, err := s.Planner.UsualDay(ctx, clubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	b := s.book(c)
	if b == nil {
		return
	}
	body := &routinesBody{Coach: coach(c)}
	open := numberID(c.Query("routine"))
	if open == 0 && len(kept) > 0 {
		open = kept[0].ID
	}
	for _, k := range kept {
		cost := k.Is.Cost(day)
		row := routineRow{ID: k.ID, Name: k.Is.Name, For: k.Is.For, Open: k.ID == open, Changed: len(k.Is.Changed()), Kit: strings.Join(cost.Kit, ", "),
			Cost: strings.Join(nonEmpty(clock.Duration(cost.Seconds), strings.Join(count(cost.Load.Contacts, "contacts", cost.Load.SprintMetres, "m sprinted"), ", ")), " · ")}
		for _, block := range k.Is.Blocks {
			if !slices.Contains(row.Phases, block.Phase) {
				row.Phases = append(row.Phases, block.Phase)
			}
		}
		body.Rows = append(body.Rows, row)
		if row.Open {
			body.Open = openRoutineOf(k, cost, b, c.Query("slot"))
		}
	}
	s.show(c, http.StatusOK, "routines/routines", "Routines", "routines", body)
}

func openRoutineOf(k store.Kept[club.Routine], cost club.Cost, b *planner.Book, slot string) *openRoutine {
	r := k.Is
	o := &openRoutine{ID: k.ID, Edition: k.Edition, Name: r.Name, For: r.For, Method: plan.Methods[r.Method].Name, Changed: r.Changed(), Cost: []costLine{
		{clock.Duration(cost.Seconds), "minutes, of the busiest player"},
		{clock.Duration(cost.Load.HardSeconds), "minutes of hard work"},
		{fmt.Sprint(cost.Load.Contacts), "ground contacts"},
		{fmt.Sprint(cost.Load.SprintMetres), "metres at 90 % and over"},
		{fmt.Sprint(cost.Load.Acts), "acts of the sport"},
		{clock.Duration(cost.Ground), "minutes of ground time, all places together"},
	}}
	if len(cost.Kit) > 0 {
		o.Cost = append(o.Cost, costLine{fmt.Sprint(len(cost.Kit)), "kinds of kit: " + strings.Join(cost.Kit, ", ")})
	}
	for _, block := range r.Blocks {
		rb := routineBlock{ID: block.ID, Name: block.Name, Who: strings.Join(block.Who, ", "), Where: block.Zone, Leader: block.Leader, Aim: block.Aim, Phase: block.Phase, Priority: block.Priority}
		if slices.Contains(block.Who, plan.Everyone) {
			rb.Who = "Whole squad"
		}
		for n, item := range block.Items {
			at := fmt.Sprintf("%s.%d", block.ID, n)
			ri := routineItem{Index: n, Code: item.Drill.Code, Name: item.Drill.Name, Words: item.Drill.Words(item.Drill.Range.Target), Href: fmt.Sprintf("/routines?routine=%d&slot=%s#slot", k.ID, at)}
			i := slices.IndexFunc(r.Slots, func(s club.Slot) bool { return s.Block == block.ID && s.Item == n })
			var pool []string
			if i >= 0 {
				pool = r.Slots[i].Pool
				ri.Pool = len(pool)
			}
			if slot == at {
				o.Slot = &slotForm{Block: block.ID, Item: n, Name: item.Drill.Name}
				for _, d := range b.Drills {
					if d.Serves(block.Phase) && (d.Code == item.Drill.Code || slices.Contains(pool, d.Code) || slices.ContainsFunc(d.Regions, func(j string) bool { return slices.Contains(item.Drill.Regions, j) })) {
						o.Slot.Pool = append(o.Slot.Pool, tickBox{d.Code, d.Name, slices.Contains(pool, d.Code) || pool == nil && d.Code == item.Drill.Code})
					}
				}
			}
			rb.Items = append(rb.Items, ri)
		}
		o.Blocks = append(o.Blocks, rb)
	}
	return o
}

// saveSlot sets which drills take turns in a place of a routine.
func (s *Site) saveSlot(c *gin.Context) {
	ctx, id := c.Request.Context(), numberID(c.Param("id"))
	kept, err := store.Things[club.Routine](ctx, s.Planner.Store, account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	i := slices.IndexFunc(kept, func(k store.Kept[club.Routine]) bool { return k.ID == id })
	if i < 0 {
		s.notFound(c)
		return
	}
	r, block, item := kept[i].Is, c.PostForm("block"), number(c.PostForm("item"))
	r.Slots = slices.DeleteFunc(slices.Clone(r.Slots), func(s club.Slot) bool { return s.Block == block && s.Item == item })
	if pool := c.PostFormArray("pool"); len(pool) > 1 {
		r.Slots = append(r.Slots, club.Slot{Block: block, Item: item, Pool: pool})
	}
	_, err = s.Planner.Keep(ctx, *account(c), r.Name+": what takes turns", store.Change{ID: id, Edition: edition(c), Is: r})
	s.saved(c, err, "It is saved", fmt.Sprintf("/routines?routine=%d", id), func(_ int, wrong plan.Problems) {
		s.plain(c, http.StatusConflict, "That was not saved", wrong[0].What)
	})
}

func (s *Site) removeRoutine(c *gin.Context) {
	_, err := s.Planner.Keep(c.Request.Context(), *account(c), c.PostForm("name")+" is no longer kept", store.Change{ID: numberID(c.Param("id")), Is: club.Routine{}, Gone: true})
	s.saved(c, err, c.PostForm("name")+" is no longer kept", "/routines", func(_ int, wrong plan.Problems) {
		s.plain(c, http.StatusConflict, "That was not saved", wrong[0].What)
	})
}
