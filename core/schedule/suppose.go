package schedule

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/plan"
)

// If is what might come otherwise on the day.
type If string

// What might come.
const (
	IfStart   If = "start"   // the start is called earlier or later
	IfLate    If = "late"    // some come late
	IfPlace   If = "place"   // one place alone is free
	IfLeader  If = "leader"  // a leader is not there
	IfMinutes If = "minutes" // there are so many minutes before the start
)

// Supposed is something that might come otherwise.
type Supposed struct {
	Is      If
	Minutes int      // by which the start moves, that some come late, or that there are
	Arrive  bool     // start: everybody arrives when they do now, else as much earlier or later
	Who     []string // late: ids of players
	ID      string   // of the place or the leader
}

// Suppose is the edit that has something come otherwise, in a plan that is scheduled as s.
// It fails with [plan.Problems] where it cannot.
func (s *Schedule) Suppose(d *plan.Document, what Supposed) (string, error) {
	switch what.Is {
	case IfStart:
		return supposeStart(d, what)
	case IfLate:
		var names []string
		for _, id := range what.Who {
			if _, err := d.SetLate(id, what.Minutes*60); err != nil {
				return "", err
			}
			names = append(names, d.Player(id).ShortName())
		}
		if names == nil {
			return "", plan.In("suppose", "say who comes late")
		}
		return fmt.Sprintf("%s %d min late", strings.Join(names, ", "), what.Minutes), nil
	case IfPlace:
		for b := range d.AllBlocks() {
			if b.Zone != "" && b.Zone != what.ID {
				if _, err := d.SetZone(b.ID, what.ID); err != nil {
					return "", err
				}
			}
		}
		if d.Zone(what.ID) == nil {
			return "", plan.In("suppose", "pick the place that is left")
		}
		return "only " + d.ZoneName(what.ID), nil
	case IfLeader:
		return s.without(d, what.ID)
	case IfMinutes:
		return supposeMinutes(d, what.Minutes)
	}
	return "", plan.In("suppose", "pick what might come otherwise")
}

func supposeStart(d *plan.Document, what Supposed) (string, error) {
	was, err := d.Start.Resolve()
	if err != nil {
		return "", plan.In("start", "%s", err)
	}
	open, err := d.Open.Offset(was)
	if err != nil {
		return "", plan.In("open", "%s", err)
	}
	by := time.Duration(what.Minutes) * time.Minute
	said, err := d.SetStart(clock.StartAt(was.Add(by)))
	if err != nil {
		return "", err
	}
	if what.Arrive {
		open -= clock.Offset(by / time.Second)
	}
	if open >= clock.Offset(-d.Margin) {
		return "", plan.In("suppose", "everybody would arrive too late for any of it")
	}
	d.Open = clock.BeforeStart(int(-open))
	return said, nil
}

func supposeMinutes(d *plan.Document, minutes int) (string, error) {
	start, err := d.Start.Resolve()
	if err != nil {
		return "", plan.In("start", "%s", err)
	}
	if minutes*60 <= d.Margin {
		return "", plan.In("suppose", "work ends %s before the start: that leaves nothing", clock.Lasting(d.Margin))
	}
	if open, err := d.Open.Offset(start); err == nil && int(-open) <= minutes*60 {
		return "", plan.In("suppose", "there are only %s as it is", clock.Lasting(int(-open)))
	}
	d.Open = clock.BeforeStart(minutes * 60)
	return fmt.Sprintf("%d minutes before the start", minutes), nil
}

// without takes a leader out of the plan. Each block goes to another who leads nothing else
// meanwhile, the one with the least to lead first; where there is none nobody leads it.
func (s *Schedule) without(d *plan.Document, leader string) (string, error) {
	gone := d.Leader(leader)
	if gone == nil {
		return "", plan.In("suppose", "pick who is not there")
	}
	name := gone.Name
	blocks := s.Blocks(d)
	leads := map[string]int{}
	for _, b := range blocks {
		leads[b.Leader] += b.Length()
	}
	for i := range blocks {
		b := &blocks[i]
		if b.Leader != leader {
			continue
		}
		free := func(l plan.Leader) bool {
			return l.ID != leader && !slices.ContainsFunc(blocks, func(o Block) bool {
				return o.Kept && b.Kept && o.Leader == l.ID && o.Start < b.End && b.Start < o.End
			})
		}
		next := ""
		for _, l := range d.Leaders {
			if free(l) && (next == "" || leads[l.ID] < leads[next]) {
				next = l.ID
			}
		}
		leads[next] += b.Length()
		b.Block.Leader = next
		d.Block(b.ID).Leader = next
	}
	for b := range d.AllBlocks() {
		if b.Leader == leader {
			b.Leader = ""
		}
	}
	d.Leaders = slices.DeleteFunc(d.Leaders, func(l plan.Leader) bool { return l.ID == leader })
	for i := range d.Bring {
		if d.Bring[i].Who == leader {
			d.Bring[i].Who = ""
		}
	}
	return "without " + name, nil
}

// Differences says, block by block, what another schedule of the plan has otherwise: what
// goes, comes in, is shorter or longer, or stands elsewhere by half a minute or more.
func (s *Schedule) Differences(d, to *plan.Document, then *Schedule) (says []string) {
	was := s.Blocks(d)
	for _, now := range then.Blocks(to) {
		i := slices.IndexFunc(was, func(b Block) bool { return b.ID == now.ID })
		if i < 0 {
			continue
		}
		var parts []string
		old := was[i]
		switch by := now.Length() - old.Length(); {
		case old.Kept && !now.Kept:
			parts = append(parts, "left out")
		case !old.Kept && now.Kept:
			parts = append(parts, fmt.Sprintf("in, at %s", now.Start.ToGo()))
		case !now.Kept:
		default:
			if by != 0 {
				parts = append(parts, fmt.Sprintf("%s, not %s (%s)", clock.Lasting(now.Length()),
					clock.Lasting(old.Length()), strings.Join(now.Doses(), ", ")))
			}
			if moved := now.Start - old.Start; moved >= 30 || moved <= -30 {
				parts = append(parts, fmt.Sprintf("at %s, not %s", now.Start.ToGo(), old.Start.ToGo()))
			}
		}
		if old.Leader != now.Leader {
			name := to.LeaderName(now.Leader)
			if name == "" {
				name = "nobody"
			}
			parts = append(parts, name+" leads")
		}
		if old.Zone != now.Zone {
			parts = append(parts, to.ZoneName(now.Zone))
		}
		if parts != nil {
			says = append(says, now.Name+": "+strings.Join(parts, "; "))
		}
	}
	return says
}
