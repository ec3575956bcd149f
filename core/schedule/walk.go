package schedule

import (
	"cuestart/core/ground"
	"cuestart/core/plan"
	"cuestart/core/runin"
)

// walks are the ways between the places of a document that its club laid on the plan of the
// ground; there are none where nobody did.
func walks(d *plan.Document) (list []runin.Walk) {
	for i, from := range d.Zones {
		for _, to := range d.Zones[:i] {
			if seconds := walk(&from, &to); seconds > 0 {
				list = append(list, runin.Walk{From: from.ID, To: to.ID, Seconds: seconds})
			}
		}
	}
	return list
}

// walk is how many seconds it takes from one place to another; 0 where one of them was laid
// nowhere.
func walk(from, to *plan.Zone) int {
	if from == nil || to == nil || from.ID == to.ID || from.Lies == nil || to.Lies == nil {
		return 0
	}
	return ground.Seconds(ground.Place{Lie: *from.Lies}, ground.Place{Lie: *to.Lies})
}

// Walk is how many seconds it takes from one place of a document to another, by their ids; 0
// where it is the same, or one was laid nowhere on the plan of the ground.
func Walk(d *plan.Document, from, to string) int { return walk(d.Zone(from), d.Zone(to)) }
