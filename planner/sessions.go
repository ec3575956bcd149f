package planner

import (
	"context"
	"time"

	"cuestart/core/schedule"
	"cuestart/store"
)

// stillListed is how long after its start a session stays on the list.
const stillListed = 12 * time.Hour

// Listed is a session as the list of those to come shows it.
type Listed struct {
	ID                             uint64
	Squad, Title, Place, StartName string
	Players                        int
	Start                          time.Time // on the venue's clock
	Verdict                        schedule.Verdict
	Published                      bool
	Newer                          []string // what medical staff ruled, or lifted, since the plan was made
}

// Sessions lists the club's sessions to come, and those of the last twelve
// hours, the nearest first.
func (p *Planner) Sessions(ctx context.Context, clubID uint64) ([]Listed, error) {
	sessions, err := p.store.Sessions(ctx, clubID, p.Now().Add(-stillListed))
	if err != nil {
		return nil, err
	}
	all, err := p.ruled(ctx, clubID)
	if err != nil {
		return nil, err
	}
	listed := make([]Listed, len(sessions))
	for i := range sessions {
		if listed[i], err = p.listed(ctx, &sessions[i], all); err != nil {
			return nil, err
		}
	}
	return listed, nil
}

func (p *Planner) listed(ctx context.Context, s *store.Session, all ruled) (Listed, error) {
	if s.Schedule == nil {
		var err error
		if s.Schedule, err = schedule.Fit(ctx, s.Document, atOnce); err != nil {
			return Listed{}, err
		}
	}
	d := s.Document
	_, newer := all.of(d)
	return Listed{ID: s.ID, Squad: s.SquadName, Title: d.Title, Place: d.Place, StartName: d.StartName, Players: len(d.Players), Start: s.Schedule.Start,
		Verdict: s.Schedule.Judge(d), Published: s.Published, Newer: newer}, nil
}

// Remove takes a session off every list, and what its links show with it. It
// fails with ErrNotFound.
func (p *Planner) Remove(ctx context.Context, by Account, id uint64) error {
	return p.store.Remove(ctx, by.ClubID, id, true)
}

// Restore brings a removed session back. It fails with ErrNotFound.
func (p *Planner) Restore(ctx context.Context, by Account, id uint64) error {
	return p.store.Remove(ctx, by.ClubID, id, false)
}
