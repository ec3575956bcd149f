package verdict

import (
	"fmt"
	"math"

	"cuestart/core/clock"
	"cuestart/core/odds"
	"cuestart/core/plan"
)

// Likely says how a plan will go on the day, in words; it is an estimate.
type Likely struct {
	Head    string // "Runs late about one day in three."
	Line    string // what makes it late, and what would help
	Block   string // the block that does
	Earlier int    // seconds to be done earlier so that it holds on 19 days of 20; 0: it does
	Wants   int    // the slack that the plan would have then, in seconds
}

// LikelyOf are the words of a plan's odds; nothing where nothing is planned.
func LikelyOf(d *plan.Document, o odds.Odds) (likely Likely) {
	switch tenths := int(math.Round(10 * o.Holds)); {
	case o.Empty:
		return likely
	case o.Earlier == 0:
		likely = Likely{Head: "Hardly ever late."}
		if d.Slack > 0 {
			likely.Line = clock.Lasting(d.Slack) + " to spare are planned"
		}
		return likely
	default:
		likely.Head = "Runs late " + lateDays[max(10-tenths, 1)] + "."
	}
	likely.Block, likely.Earlier, likely.Wants = o.Worst, o.Earlier, min(plan.MostSlack, d.Slack+o.Earlier)
	if b := d.Block(o.Worst); b != nil {
		likely.Line = b.Name + " is what makes it late. "
	}
	likely.Line += fmt.Sprintf("Finish %s earlier and it is on time 19 days in 20", clock.Lasting(o.Earlier))
	return likely
}

// lateDays are how often it is late, by the days of ten.
var lateDays = [...]string{"", "about one day in ten", "about one day in five", "about one day in three",
	"about two days in five",
	"every other day", "about three days in five", "about two days in three", "about four days in five",
	"about nine days in ten",
	"nearly every day"}
