package store

import (
	"context"
	"encoding/json"
	"time"

	"cuestart/core/plan"
	"cuestart/store/db"
)

// Step is a change of a session's plan, as its history lists it.
type Step struct {
	Number  int
	Summary string
	By      string // "": the program, or somebody who left
	At      time.Time
}

// mostSteps is how many steps of a history are listed.
const mostSteps = 300

// History returns the changes of a club's session, the newest first; none where it is not
// there.
func (s Sessions) History(ctx context.Context, clubID, session uint64) (steps []Step, err error) {
	rows, err := s.queries.History(ctx, db.HistoryParams{SessionID: session, ClubID: clubID, Limit: mostSteps})
	for _, r := range rows {
		steps = append(steps, Step{Number: int(r.Number), Summary: r.Summary, By: r.MadeBy, At: r.MadeAt})
	}
	return steps, err
}

// PlanAt returns the plan of a session as it was after a step, or ErrNotFound. The session
// has to be known to be the club's.
func (s Sessions) PlanAt(ctx context.Context, session uint64, step int) (*plan.Document, error) {
	row, err := s.queries.Edition(ctx, db.EditionParams{SessionID: session, Number: uint32(step)})
	if err != nil {
		return nil, known(err)
	}
	d := new(plan.Document)
	if err := json.Unmarshal([]byte(row.Document), d); err != nil {
		return nil, err
	}
	d.Upgrade()
	return d, nil
}
