package board

import (
	"fmt"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/schedule"
	"cuestart/planner"
)

// way is a walk between two places, as a thin step in a lane.
type way struct{ Path, Says string }

// walks draws the walks of each lane's people from one place to the next.
func (c *chart) walks(b *planner.Board, events []schedule.Event) {
	type stop struct {
		zone     string
		from, to clock.Offset
	}
	for n, row := range c.rows {
		if len(row.players) == 0 {
			continue
		}
		who := row.players[0]
		var stops []stop
		for i := range b.Blocks {
			if x := &b.Blocks[i]; x.Kept && x.Has(who) {
				stops = append(stops, stop{x.Zone, x.Start, x.End})
			}
		}
		for _, e := range events {
			if slices.Contains(e.Players, who) {
				stops = append(stops, stop{e.Zone, e.Start, e.End})
			}
		}
		slices.SortStableFunc(stops, func(a, b stop) int { return int(a.from - b.from) })
		last := stop{}
		for _, s := range stops {
			if s.zone == "" {
				continue
			}
			if seconds := schedule.Walk(b.Document, last.zone, s.zone); seconds > 0 && last.to >= c.from {
				end := min(s.from, last.to+clock.Offset(seconds))
				c.Walks = append(c.Walks, way{fmt.Sprintf("M%d %dH%d", c.x(last.to), c.Top+n*c.laneHeight+c.laneHeight/2, max(c.x(end), c.x(last.to)+leastWidth)),
					fmt.Sprintf("walk to %s, %s", b.Document.ZoneName(s.zone), clock.Duration(seconds))})
			}
			last = s
		}
	}
}
