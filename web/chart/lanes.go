package chart

import (
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

// What the lanes of a chart may be.
const (
	ByPeople = ""       // strands: who does the same things
	ByZone   = "place"  // where it happens
	ByLeader = "leader" // who leads it
	OnGround = "ground" // none: the plan of the ground, at one second
)

// laneRow is what a lane of the chart holds: a strand's players, or blocks of a place or a
// leader that do not overlap.
type laneRow struct {
	players []string
	key     string // id of the zone or leader; "": none, or people
	name    string
	blocks  []string
	end     clock.Offset
}

func rowsOf(b Plan, by string) (rows []laneRow) {
	if by == ByPeople {
		for _, players := range laneOrder(b.Document, b.Schedule.Result) {
			rows = append(rows, laneRow{players: players})
		}
		return rows
	}
	type place struct{ key, name string }
	var places []place
	of := func(x *schedule.Block) string { return x.Zone }
	if by == ByZone {
		for _, z := range b.Document.Zones {
			places = append(places, place{z.ID, z.Name})
		}
		places = append(places, place{"", "no place"})
	} else {
		of = func(x *schedule.Block) string { return x.Leader }
		for _, l := range b.Document.Leaders {
			places = append(places, place{l.ID, l.Name})
		}
		places = append(places, place{"", "nobody leads"})
	}
	blocks := slices.Clone(b.blocks)
	slices.SortStableFunc(blocks, func(x, y schedule.Block) int { return int(x.Start - y.Start) })
	for _, at := range places {
		first := len(rows)
		if at.key != "" {
			rows = append(rows, laneRow{key: at.key, name: at.name, end: -1 << 30})
		}
		for i := range blocks {
			if x := &blocks[i]; x.Kept && of(x) == at.key {
				rows = sideBySide(rows, first, laneRow{key: at.key, name: at.name}, x)
			}
		}
	}
	return rows
}

// sideBySide puts a block into the first of the rows from first on that is free by then, or
// into a further one.
func sideBySide(rows []laneRow, first int, next laneRow, b *schedule.Block) []laneRow {
	for i := first; i < len(rows); i++ {
		if rows[i].end <= b.Start {
			rows[i].blocks, rows[i].end = append(rows[i].blocks, b.ID), b.End
			return rows
		}
	}
	next.blocks, next.end = []string{b.ID}, b.End
	if len(rows) > first {
		next.name = ""
	}
	return append(rows, next)
}

// laneOrder is the strands by the lowest number in each.
func laneOrder(d *plan.Document, r *runin.Result) [][]string {
	index := map[string]int{}
	for i, p := range d.Players {
		index[p.ID] = p.Number*1000 + i
	}
	lanes := slices.Clone(r.Strands)
	slices.SortFunc(lanes, func(a, b []string) int { return index[a[0]] - index[b[0]] })
	return lanes
}

// lanes names who is in each lane, or what it is.
func (c *Chart) lanes(d *plan.Document) {
	room := int(float64(c.LabelX) / laneTextWider)
	for i, row := range c.rows {
		y := c.Top + i*c.laneHeight
		mid := y + c.laneHeight/2
		l := lane{Y: y, WhoY: mid - whoAbove, NameY: mid + namesBelow, Key: row.key,
			Players: strings.Join(row.players, " ")}
		l.OneLine = c.laneHeight < laneTwo
		l.Who = d.FewNumbers(row.players,
			func(text string) bool { return textWidth(text, whoSize) <= float64(c.LabelX) })
		left := room
		if l.OneLine && l.Who != "" {
			left = room - int(textWidth(l.Who, whoSize)) - inLine
		}
		l.Names = cutTo(d.FirstNames(row.players,
			func(text string) bool { return textWidth(text, laneTextSize) <= float64(left) }), laneTextSize, left)
		l.Drags = l.Who + " " + l.Names + ": drop them on a block"
		l.Faint = c.Follow != "" && row.players != nil && !slices.Contains(row.players, c.Follow)
		if c.FollowHref != nil && row.players != nil {
			l.Href = c.FollowHref(row.players)
		}
		if row.players == nil {
			l.Names = cutTo(row.name, laneTextSize, room)
		}
		if l.Who == "" {
			l.WhoY, l.Who, l.Names = mid+namesAlone, l.Names, ""
		} else if l.OneLine {
			l.WhoY = mid + inLine
		}
		c.Lanes = append(c.Lanes, l)
	}
}

// lanesOf are the lanes that a block lies in.
func (c *Chart) lanesOf(b *schedule.Block) (lanes []int) {
	if c.By == ByPeople {
		return c.lanesWith(b.Members)
	}
	for i, row := range c.rows {
		if slices.Contains(row.blocks, b.ID) {
			lanes = append(lanes, i)
		}
	}
	return lanes
}

// lanesWith are the lanes of some players; of a chart by place or leader none.
func (c *Chart) lanesWith(players []string) (lanes []int) {
	for i, row := range c.rows {
		if len(row.players) > 0 && slices.Contains(players, row.players[0]) {
			lanes = append(lanes, i)
		}
	}
	return lanes
}

// joinsOf is when players who come late join the others: they come, and make up what they
// missed.
func joinsOf(s *schedule.Schedule, all []schedule.Block) map[string]clock.Offset {
	joins := map[string]clock.Offset{}
	for _, w := range s.Fixed {
		if late := w.Late(); late != "" {
			joins[late] = w.End
		}
	}
	for i := range all {
		for player := range joins {
			if all[i].ID == schedule.ShortListID(player) {
				joins[player] = all[i].End
			}
		}
	}
	return joins
}

// piecesOf are the boxes of a block: in the lane of who comes late from when they join it.
func (c *Chart) piecesOf(b *schedule.Block, short bool, later clock.Offset) []piece {
	lanes := c.lanesOf(b)
	var pieces []piece
	if c.By == ByPeople && later == 0 && !short {
		lanes = slices.DeleteFunc(slices.Clone(lanes), func(lane int) bool {
			from, late := c.joins[c.rows[lane].players[0]]
			if !late || from <= b.Start {
				return false
			}
			if from < b.End {
				pieces = append(pieces, c.pieces([]int{lane}, from, b.End, blockInset)...)
			}
			return true
		})
	}
	return append(c.pieces(lanes, b.Start+later, b.End+later, blockInset), pieces...)
}

// pieces are the boxes of adjacent lanes from one moment to another.
func (c *Chart) pieces(lanes []int, from, to clock.Offset, inset int) (list []piece) {
	left, right := c.x(max(from, c.from)), c.x(to)
	for n, i := range lanes {
		if n > 0 && lanes[n-1] == i-1 {
			list[len(list)-1].H += c.laneHeight
			continue
		}
		list = append(list, piece{box: box{X: left, Y: c.Top + i*c.laneHeight + inset, W: max(leastWidth, right-left-1),
			H: c.laneHeight - 2*inset}})
	}
	return list
}
