// Package schedule fits plan documents: it makes a problem of one, has
// [runin.Fit] solve it, and reads the answer back in the document's terms.
//
// A [Schedule] is what is kept of that. [Schedule.Blocks] joins it with its
// document, so that nobody else has to know which index belongs to what.
package schedule

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/speech"
)

// Schedule is a plan document fitted. It is kept as JSON beside its document;
// what stands in it by index is in the document's order.
type Schedule struct {
	Start   time.Time      `json:"start"`
	Result  *runin.Result  `json:"result"`
	Amounts [][]int        `json:"amounts"`        // of each drill, by block; nil where the block is left out
	Less    []*Less        `json:"less,omitempty"` // what else is smaller, by block; nil where nothing is
	Fixed   []Window       `json:"fixed"`
	Players []runin.Player `json:"players"` // with their windows
}

// Window is a fixed event of the document, placed on the time line.
type Window struct {
	ID      string       `json:"id"`
	Players []string     `json:"players"`
	Start   clock.Offset `json:"start"`
	End     clock.Offset `json:"end"`
}

// latePrefix begins the id of the window in which a late player is awaited.
const latePrefix = "late "

// Late returns the player whose late arrival the window stands for, or "" where
// it is an event of the day.
func (w Window) Late() string {
	if player, late := strings.CutPrefix(w.ID, latePrefix); late {
		return player
	}
	return ""
}

// AtOnce is how many steps a fit may take while somebody waits for it, at a desk or at the
// pitch side, so that the same question has one answer: some fifty milliseconds, after which
// doses give way before drills do.
const AtOnce = 20_000

// Fit fits a document, spending at most steps steps (0: by the size of the plan). It fails with
// [plan.Problems] where the document is not valid; a document whose musts do not fit is an
// answer.
func Fit(ctx context.Context, d *plan.Document, steps int) (*Schedule, error) {
	c, err := Compile(d)
	if err != nil {
		return nil, err
	}
	r, err := runin.Fit(ctx, &c.Problem, steps)
	if err != nil {
		return nil, fmt.Errorf("the plan cannot be read as a run-in: %w", err)
	}
	return c.schedule(r).spread(d, c.Document), nil
}

// schedule is the answer to the compiled problem in the terms of its document.
func (c *Compiled) schedule(r *runin.Result) *Schedule {
	s := &Schedule{Start: c.Start, Result: r, Players: c.Problem.Players, Amounts: make([][]int, len(r.Blocks)),
		Less: make([]*Less, len(r.Blocks))}
	for i := range r.Blocks {
		if r.Blocks[i].Kept {
			is := c.dosing(i, r.Blocks[i].Level)
			s.Amounts[i], s.Less[i] = is.Amounts, is.Less
		}
		r.Blocks[i].Why = c.why(i, &r.Blocks[i])
	}
	for _, f := range c.Problem.Fixed {
		s.Fixed = append(s.Fixed, Window{ID: f.ID, Players: f.Players, Start: f.Start, End: f.End})
	}
	return s
}

// spread gives a schedule of what is run today places for what is not.
func (s *Schedule) spread(d, run *plan.Document) *Schedule {
	if len(run.Blocks) == len(d.Blocks) {
		return s
	}
	blocks, amounts, less := make([]runin.Scheduled, len(d.Blocks)), make([][]int, len(d.Blocks)),
		make([]*Less, len(d.Blocks))
	at := 0
	for i := range d.Blocks {
		if idle := d.Idle(&d.Blocks[i]); idle != "" {
			blocks[i] = runin.Scheduled{ID: d.Blocks[i].ID, Why: idle}
			continue
		}
		blocks[i], amounts[i], less[i] = s.Result.Blocks[at], s.Amounts[at], s.Less[at]
		at++
	}
	s.Result.Blocks, s.Amounts, s.Less = blocks, amounts, less
	return s
}

// Block is a block of a document with what its schedule makes of it.
type Block struct {
	*plan.Block       // as it is done: with fewer rounds or sets where they are cut
	Less        *Less // what of it is cut so; nil: nothing
	Kept        bool  // it is in the plan that was fitted
	Start, End  clock.Offset
	Missed      []runin.Missed // who is called away from it, and for how long
	Cut         string         // why it is shorter than asked for, or left out; "": it is in full
	Members     []string       // ids of its players
	Group       drill.Group
	Ways        map[string][]int // by player, their own way through it: from station to station, or what they chose

	amounts []int
	asked   int // rounds that the plan has
}

// unplaced is why a block is not kept that the schedule knows nothing of: it is of another
// version of the plan.
const unplaced = "not fitted yet"

// Blocks joins the schedule with its document, or with [today.Apply] of it: the
// blocks in the document's order.
func (s *Schedule) Blocks(d *plan.Document) []Block {
	joined := make([]Block, len(d.Blocks))
	at := make(map[string]int, len(s.Result.Blocks))
	for i := range s.Result.Blocks {
		at[s.Result.Blocks[i].ID] = i
	}
	for i := range d.Blocks {
		b := &d.Blocks[i]
		joined[i] = Block{Block: b, Cut: unplaced, Members: d.Members(b.Who), Group: d.Group(b), Ways: d.Ways(b)}
		n, known := at[b.ID]
		if !known {
			continue
		}
		r, block := &s.Result.Blocks[n], &joined[i]
		block.Kept, block.Start, block.End, block.Missed, block.Cut = r.Kept, r.Start, r.End, r.Missed, r.Why
		if n < len(s.Amounts) && len(s.Amounts[n]) == len(b.Items) {
			block.amounts = s.Amounts[n]
			if n < len(s.Less) {
				block.Less, block.asked = s.Less[n], b.Rounds
				block.Block = block.Less.Of(b)
			}
		}
	}
	return joined
}

// OnlyOnce tells whether a block is done less than its least, since the musts do not fit.
func (s *Schedule) OnlyOnce(block string) bool {
	return slices.ContainsFunc(s.Result.Blocks,
		func(b runin.Scheduled) bool { return b.ID == block && b.Kept && b.Level < 0 })
}

// Length is how long the block lasts, in seconds; 0 where it is left out.
func (b *Block) Length() int { return int(b.End - b.Start) }

// Amount is what is planned of drill n: its target where the block is left out.
func (b *Block) Amount(n int) int {
	if b.amounts == nil {
		return b.Items[n].Drill.Range.Target
	}
	return b.amounts[n]
}

// Named names each drill with what is planned of it: "Easy lengths: 6 lengths of 40 m".
func (b *Block) Named() []string {
	words := b.Doses()
	for n := range words {
		words[n] = b.Items[n].Drill.Name + ": " + words[n]
	}
	return words
}

// Doses says what is planned of each drill, as a coach does.
func (b *Block) Doses() []string {
	words := make([]string, len(b.Items))
	for n, item := range b.Items {
		words[n] = item.Drill.Words(b.Amount(n))
		if spread := b.Spread(speech.English, n); spread != "" {
			words[n] += ", " + spread
		}
	}
	return words
}

// Load is what the block leaves in each of its players; the most in any, where they
// choose.
func (b *Block) Load() (sum drill.Load) {
	for n, item := range b.Items {
		load := item.Drill.Load(b.Amount(n), b.At(n, b.Group))
		if b.Form == plan.ByChoice && b.Picks() == 1 {
			sum = sum.Most(load)
			continue
		}
		for range max(1, b.Rounds) {
			sum = sum.Add(load)
		}
	}
	return sum
}

// Has tells whether a player, by id, is in the block.
func (b *Block) Has(player string) bool { return slices.Contains(b.Members, player) }

// Event is a fixed event of the day with its place on the time line, or the time in which a late
// player is awaited.
type Event struct {
	Window
	Fixed  string // id of the document's; "": it is none
	Name   string
	Who    []string // as the document has it
	Active bool     // it keeps the players warm
	Zone   string   // where it is; "": wherever they are
}

// Events joins the schedule's windows with what the document says of them.
func (s *Schedule) Events(d *plan.Document) []Event {
	events := make([]Event, len(s.Fixed))
	for i, w := range s.Fixed {
		events[i] = Event{Window: w, Name: "Not there yet", Who: w.Players}
		if f := d.Event(w.ID); f != nil {
			events[i].Fixed, events[i].Name, events[i].Who, events[i].Active = f.ID, f.Name, f.Who, f.Active
			events[i].Zone = f.Zone
		}
	}
	return events
}
