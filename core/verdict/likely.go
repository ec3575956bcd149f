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
	Head    string // "On time 7 days of 10."
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
		likely = Likely{Head: "On time 19 days of 20."}
		if d.Slack > 0 {
			likely.Line = clock.Lasting(d.Slack) + " of slack are planned"
		}
		return likely
	case tenths == 0:
		likely.Head = "Hardly ever on time."
	case tenths == 10:
		likely.Head = "On time 9 days of 10."
	default:
		likely.Head = fmt.Sprintf("On time %d days of 10.", tenths)
	}
	likely.Block, likely.Earlier, likely.Wants = o.Worst, o.Earlier, min(plan.MostSlack, d.Slack+o.Earlier)
	if b := d.Block(o.Worst); b != nil {
		likely.Line = b.Name + " makes it late"
	}
	if likely.Line != "" {
		likely.Line += "; "
	}
	likely.Line += fmt.Sprintf("done %s earlier, it is 19 of 20", clock.Lasting(o.Earlier))
	return likely
}
