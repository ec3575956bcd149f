package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"cuestart/store/db"
)

// Hurt is that somebody of a session is in pain, or was hurt. It is kept until medical staff
// have answered, whatever becomes of the plan, and stays with the player.
type Hurt struct {
	ID                        uint64
	Session                   uint64
	Title                     string    // of the session
	Start                     time.Time // of the session, on its venue's clock
	Person                    string    // id of the player in the session's plan
	Roster                    uint64    // the club's player; 0: nobody it knows
	Name                      string
	Once                      string // names the press: one that is sent twice is kept once
	Kind                      string // HurtPain, HurtOut or HurtHead
	Says                      string // for medical staff alone
	By                        string // who said it at the pitch side; "": the player, from their phone
	Own                       bool   // by their own link
	Pressed, Made, AnsweredAt time.Time
	Answer                    string // "", AnswerOut or AnswerOn
	AnsweredBy                string
}

// Kinds of a [Hurt].
const (
	HurtPain = "pain" // the player says so from their phone
	HurtOut  = "hurt" // out, hurt: said at the pitch side
	HurtHead = "head" // out after a knock to the head
)

// What medical staff answer.
const (
	AnswerOut = "out" // stays out of this session
	AnswerOn  = "on"  // may go on
)

// How often a player's pain is kept of a session, by their own link and by the team's: the
// second may be anybody's, and takes no room from the first.
const (
	mostOwnHurt  = 200
	mostTeamHurt = 12
)

// AddHurt keeps that a player says they are in pain; a press that was kept already is passed
// over. It fails with ErrMany where there are too many by that door.
func (s People) AddHurt(ctx context.Context, session uint64, h Hurt) error {
	return s.within(ctx, func(q *db.Queries) error {
		if had, err := q.HasHurt(ctx, db.HasHurtParams{SessionID: session, Person: h.Person,
			Once: h.Once}); err != nil || had > 0 {
			return err
		}
		n, err := q.CountHurt(ctx, db.CountHurtParams{SessionID: session, Person: h.Person, Own: h.Own})
		if err != nil {
			return err
		}
		if h.Own && n >= mostOwnHurt || !h.Own && n >= mostTeamHurt {
			return ErrMany
		}
		return addHurt(ctx, q, session, h)
	})
}

func addHurt(ctx context.Context, q *db.Queries, session uint64, h Hurt) error {
	n, err := q.AddHurt(ctx, db.AddHurtParams{Person: h.Person, Roster: h.Roster, Name: cut(h.Name, 160), Once: h.Once,
		Kind: h.Kind, Says: cut(h.Says, 400), SaidBy: cut(h.By, 120), Own: h.Own,
		PressedAt: h.Pressed.UTC(), MadeAt: h.Made.UTC(), ID: session})
	if err != nil || n == 0 {
		return err
	}
	return q.AddNews(ctx, db.AddNewsParams{SessionID: session})
}

func hurt(row db.HurtByIDRow) Hurt {
	h := Hurt{ID: row.ID, Session: row.SessionID, Title: row.Title, Start: row.StartAt, Person: row.Person,
		Roster: row.Roster, Name: row.Name, Kind: row.Kind, Says: row.Says, By: row.SaidBy,
		Own: row.Own, Pressed: row.PressedAt, Made: row.MadeAt, Answer: row.Answer, AnsweredBy: row.AnsweredBy,
		AnsweredAt: row.AnsweredAt.Time}
	if zone, err := time.LoadLocation(row.TimeZone); err == nil {
		h.Start, h.Pressed = h.Start.In(zone), h.Pressed.In(zone)
	}
	return h
}

// Open lists who is hurt and has no answer yet, in all sessions of a club, the oldest first.
func (s People) Open(ctx context.Context, clubID uint64) (list []Hurt, err error) {
	rows, err := s.queries.HurtOfClub(ctx, clubID)
	for _, row := range rows {
		list = append(list, hurt(db.HurtByIDRow(row)))
	}
	return list, err
}

// HurtIn lists who was hurt in a session of the club, answered or not, the oldest first.
func (s People) HurtIn(ctx context.Context, clubID, session uint64) (list []Hurt, err error) {
	rows, err := s.queries.HurtOfSession(ctx, db.HurtOfSessionParams{ClubID: clubID, SessionID: session})
	for _, row := range rows {
		list = append(list, hurt(db.HurtByIDRow(row)))
	}
	return list, err
}

// HurtOf lists what a player of the club was hurt by, the latest first. Person is how plans
// name them.
func (s People) HurtOf(ctx context.Context, clubID, player uint64, person string) (list []Hurt, err error) {
	rows, err := s.queries.HurtOfPlayer(ctx, db.HurtOfPlayerParams{ClubID: clubID, Roster: player, Person: person})
	for _, row := range rows {
		list = append(list, hurt(db.HurtByIDRow(row)))
	}
	return list, err
}

// HurtBy is the one of that id, or ErrNotFound.
func (s People) HurtBy(ctx context.Context, clubID, id uint64) (Hurt, error) {
	row, err := s.queries.HurtByID(ctx, db.HurtByIDParams{ID: id, ClubID: clubID})
	return hurt(row), known(err)
}

// Answer keeps what medical staff answered, and writes it down. It fails with ErrStale where
// there is an answer already, and with ErrNotFound.
func (s People) Answer(ctx context.Context, by Account, id uint64, answer string, now time.Time) error {
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.HoldClub(ctx, by.ClubID); err != nil {
			return known(err)
		}
		row, err := q.HurtByID(ctx, db.HurtByIDParams{ID: id, ClubID: by.ClubID})
		if err != nil {
			return known(err)
		}
		n, err := q.AnswerHurt(ctx, db.AnswerHurtParams{Answer: answer, AnsweredBy: cut(by.Name, 120),
			AnsweredAt: sql.NullTime{Time: now.UTC(), Valid: true}, ID: id, ClubID: by.ClubID})
		if err == nil && n == 0 {
			err = ErrStale
		}
		return errors.Join(err, audit(ctx, q, by, "answered who is hurt", row.Name),
			q.AddNews(ctx, db.AddNewsParams{SessionID: row.SessionID}))
	})
}

// Reasons are those of a player's rulings, by ruling. That they were read is written down
// before they are handed out. It fails with ErrNotFound where the player is another club's.
func (s People) Reasons(ctx context.Context, by Account, player uint64) (reasons map[uint64]string, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		rows, err := q.ReasonsOf(ctx, db.ReasonsOfParams{ClubID: by.ClubID, PlayerID: player})
		if err != nil || len(rows) == 0 {
			return err
		}
		reasons = map[uint64]string{}
		for _, row := range rows {
			reasons[row.ID] = row.Reason
		}
		return audit(ctx, q, by, "read a reason", rows[0].Name)
	})
	if err != nil {
		return nil, err
	}
	return reasons, nil
}
