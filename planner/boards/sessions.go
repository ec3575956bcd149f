package boards

import (
	"context"
	"time"

	"cuestart/core/verdict"
	"cuestart/planner"
)

// StillListed is how long after its start a session stays on the list.
const StillListed = 12 * time.Hour

// Listed is a session as the list of those to come shows it.
type Listed struct {
	ID                             uint64
	Squad, Title, Place, StartName string
	Players                        int
	Start                          time.Time // on the venue's clock
	Verdict                        verdict.Verdict
	Published                      bool
	Newer                          []string // what medical staff ruled, or lifted, since the plan was made
}

// AnySession tells whether a club has a session, past or to come.
func (bd *Boards) AnySession(ctx context.Context, clubID uint64) (bool, error) {
	return bd.sessions.AnySession(ctx, clubID)
}

// Sessions lists the club's sessions to come, and those of the last twelve hours, the nearest
// first, most at most; more is how many are not listed.
func (bd *Boards) Sessions(ctx context.Context, clubID uint64, most int) (listed []Listed, more int, err error) {
	sessions, all, err := bd.sessions.Sessions(ctx, clubID, bd.base.Now().Add(-StillListed), most)
	if err != nil {
		return nil, 0, err
	}
	rulings, err := bd.keep.Ruled(ctx, clubID)
	if err != nil {
		return nil, 0, err
	}
	for _, s := range sessions {
		if s.Digest == nil {
			if s.Digest, err = bd.digest(ctx, clubID, s.ID); err != nil {
				return nil, 0, err
			}
		}
		d := s.Digest
		_, newer := rulings.Of(d.People())
		listed = append(listed, Listed{ID: s.ID, Squad: s.SquadName, Title: d.Title, Place: d.Place,
			StartName: d.StartName, Players: d.Heads(), Start: d.Start,
			Verdict: d.Verdict, Published: s.Published, Newer: newer})
	}
	return listed, all - len(sessions), nil
}

// digest makes the digest of a session by the present engine, and keeps it.
func (bd *Boards) digest(ctx context.Context, clubID, id uint64) (*verdict.Digest, error) {
	session, err := bd.sessions.Session(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	if err := bd.refit(ctx, session); err != nil {
		return nil, err
	}
	return verdict.DigestOf(session.Document, session.Schedule), nil
}

// Remove takes a session off every list, and what its links show with it. It
// fails with ErrNotFound.
func (bd *Boards) Remove(ctx context.Context, by planner.Account, id uint64) error {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return err
	}
	return bd.sessions.Remove(ctx, by.ClubID, id)
}

// Restore brings a removed session back. It fails with ErrNotFound.
func (bd *Boards) Restore(ctx context.Context, by planner.Account, id uint64) error {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return err
	}
	return bd.sessions.Restore(ctx, by.ClubID, id)
}
