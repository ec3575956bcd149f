package schedule

import (
	"time"

	"cuestart/core/plan"
	"cuestart/core/runin"
)

// DigestVersion is that of the digests that this package makes: one of another
// version has to be made anew.
const DigestVersion = 100*1 + runin.Version

// Digest is what a list says of a session, without its plan.
type Digest struct {
	Version int            `json:"version"`
	Start   time.Time      `json:"start"` // on the venue's clock
	Plan    *plan.Document `json:"plan"`  // what it is called, when, for whom and what medical staff ruled; no more
	Content []string       `json:"content,omitempty"`
	Verdict Verdict        `json:"verdict"`
}

// Digest is the digest of a fitted document.
func (s *Schedule) Digest(d *plan.Document) Digest {
	light := &plan.Document{Format: d.Format, Title: d.Title, Kind: d.Kind, StartName: d.StartName, Start: d.Start, Place: d.Place, Restrictions: d.Restrictions}
	for _, p := range d.Players {
		light.Players = append(light.Players, plan.Player{ID: p.ID, Roster: p.Roster, First: p.First, Last: p.Last})
	}
	return Digest{DigestVersion, s.Start, light, d.Content(), s.Judge(d)}
}
