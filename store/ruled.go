package store

import (
	"context"
	"time"

	"cuestart/core/club"
	"cuestart/store/db"
)

// Ruled is what medical staff of a club have ruled, for whom, and who had a knock to the head
// that they have not answered. Reasons are not in it.
type Ruled struct {
	Players []Member
	Rulings []Entry[club.Restriction]
	Knocks  []Knock
}

// Member is somebody of a club's squads, or who was: who leaves keeps what was ruled for them.
type Member struct {
	ID, Squad   uint64
	First, Last string
	Gone        bool // has left
}

// Knock is that somebody had a knock to the head, and may not go on.
type Knock struct {
	Session  uint64
	Person   string // id of the player in that session's plan
	Roster   uint64
	Name     string
	At       time.Time
	Answered bool // medical staff: they stay out
}

// Ruled reads what is ruled in a club.
func (s People) Ruled(ctx context.Context, clubID uint64) (Ruled, error) {
	return ruled(ctx, s.queries, clubID)
}

// holdRuled locks a session, and is the same as Ruled until the transaction is over: no ruling
// is made or lifted, no player comes or goes, and nobody hurt is answered before that. Both
// locks come before anything is read, so that all that is read is of after them.
func holdRuled(ctx context.Context, q *db.Queries, clubID, session uint64) (is Ruled, at db.LockSessionRow, err error) {
	if _, err = q.HoldClub(ctx, clubID); err != nil {
		return is, at, known(err)
	}
	if at, err = q.LockSession(ctx, db.LockSessionParams{ID: session, ClubID: clubID}); err != nil {
		return is, at, known(err)
	}
	is, err = ruled(ctx, q, clubID)
	return is, at, err
}

func ruled(ctx context.Context, q *db.Queries, clubID uint64) (is Ruled, err error) {
	people, err := q.EveryPlayer(ctx, clubID)
	if err != nil {
		return is, err
	}
	for _, row := range people {
		is.Players = append(is.Players, Member{ID: row.ID, Squad: row.SquadID, First: row.First, Last: row.Last,
			Gone: row.Gone})
	}
	if is.Rulings, err = entries[club.Restriction](ctx, q, clubID); err != nil {
		return is, err
	}
	knocks, err := q.KnocksOfClub(ctx, clubID)
	for _, row := range knocks {
		is.Knocks = append(is.Knocks, Knock{Session: row.SessionID, Person: row.Person, Roster: row.Roster,
			Name: row.Name, At: row.PressedAt,
			Answered: row.Answer != ""})
	}
	return is, err
}

// forSafety tells whether things of a kind decide what may be published: who changes them
// waits for what is being published, and the other way round.
func forSafety(kind club.Kind) bool { return kind == club.KindRestriction || kind == club.KindPlayer }

// waitsForPublishing holds off what is published until changes of things are over, where they
// decide it.
func waitsForPublishing(ctx context.Context, q *db.Queries, clubID uint64, kinds ...club.Kind) error {
	for _, kind := range kinds {
		if forSafety(kind) {
			_, err := q.LockClub(ctx, clubID)
			return known(err)
		}
	}
	return nil
}
