package schedule

import (
	"cuestart/core/clock"
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

// Walk is a way that somebody takes between two things of the plan.
type Walk struct {
	From, To   string // ids of the places
	Start, End clock.Offset
}

// Seconds is how long it takes.
func (w Walk) Seconds() int { return int(w.End - w.Start) }

// Walks are the ways that a player, or who leads, takes from one to the next of blocks and
// events, in the order of time: each begins as what is before it ends. Who is where is
// told by places, the ids of each one's place, "" where it has none.
func Walks(d *plan.Document, at []clock.Window, places []string) (list []Walk) {
	last := -1
	for n, where := range places {
		if where == "" {
			continue
		}
		if last >= 0 {
			if seconds := walk(d.Zone(places[last]), d.Zone(where)); seconds > 0 {
				from := at[n-1].To
				list = append(list, Walk{places[last], where, from, min(at[n].From, from+clock.Offset(seconds))})
			}
		}
		last = n
	}
	return list
}
