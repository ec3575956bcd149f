package verdict

import (
	"fmt"
	"time"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/schedule"
)

// DigestVersion is that of the digests that this package makes: one of another
// version has to be made anew.
const DigestVersion = 100*2 + runin.Version

// Digest is what a list says of a session, without its plan. It is small: a list
// reads many.
type Digest struct {
	Version   int         `json:"version"`
	Title     string      `json:"title"`
	StartName string      `json:"start_name"`
	Place     string      `json:"place,omitempty"`
	When      clock.Start `json:"when"`
	Start     time.Time   `json:"start"` // the same, on the venue's clock
	Verdict   Verdict     `json:"verdict"`

	Roster       []uint64           `json:"roster,omitempty"`  // the club's players whom nothing is ruled for
	Players      []plan.Player      `json:"players,omitempty"` // all others, by name
	Restrictions []plan.Restriction `json:"restrictions,omitempty"`
}

// DigestOf is the digest of a fitted document.
func DigestOf(d *plan.Document, s *schedule.Schedule) *Digest {
	digest := &Digest{Version: DigestVersion, Title: d.Title, StartName: d.StartName, Place: d.Place, When: d.Start,
		Start: s.Start, Verdict: Of(d, s, check.Check(check.Input{Document: d, Schedule: s})),
		Restrictions: d.Restrictions}
	ruled := map[string]bool{}
	for _, r := range d.Restrictions {
		ruled[r.Player] = true
	}
	for _, p := range d.Players {
		if p.Roster > 0 && !ruled[p.ID] {
			digest.Roster = append(digest.Roster, p.Roster)
		} else {
			digest.Players = append(digest.Players, plan.Player{ID: p.ID, Roster: p.Roster, First: p.First,
				Last: p.Last})
		}
	}
	return digest
}

// Heads is how many players the plan is for.
func (digest *Digest) Heads() int { return len(digest.Roster) + len(digest.Players) }

// People is the plan's players and what medical staff ruled for them, as a
// document without anything else; the club's players have no names in it.
func (digest *Digest) People() *plan.Document {
	d := &plan.Document{
		Party: plan.Party{Players: digest.Players, Restrictions: digest.Restrictions},
		Hours: plan.Hours{Start: digest.When},
	}
	for _, id := range digest.Roster {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprintf("roster %d", id), Roster: id})
	}
	return d
}
