package chart

import (
	"fmt"

	"cuestart/core/clock"
	"cuestart/core/list"
)

// way is a walk between two places, as a thin step in a lane.
type way struct{ Path, Says string }

// walks draws the walks of each lane's people from one place to the next.
func (c *Chart) walks(b Plan) {
	of := list.Each(b.Document, b.Schedule)
	for n, row := range c.rows {
		if len(row.players) == 0 {
			continue
		}
		left := clock.Offset(0) // when they left the last place
		for _, e := range of(row.players[0]) {
			if e.Walk > 0 && left >= c.from {
				there := min(e.From, left+clock.Offset(e.Walk))
				c.Walks = append(c.Walks,
					way{fmt.Sprintf("M%d %dH%d", c.x(left), c.Top+n*c.laneHeight+c.laneHeight/2,
						max(c.x(there), c.x(left)+leastWidth)),
						fmt.Sprintf("walk to %s, %s", b.Document.ZoneName(e.Zone), clock.Duration(e.Walk))})
			}
			if e.Zone != "" {
				left = e.To
			}
		}
	}
}
