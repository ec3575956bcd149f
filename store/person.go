package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"cuestart/core/plan"
	"cuestart/store/db"
)

// FormerPlayer is what an erased person is called in plans that are kept.
const FormerPlayer = "A former player"

// PlansOf reads the plan in force of each session of a club: its title, place and
// start, and the club's players in it.
func (s *Store) PlansOf(ctx context.Context, clubID uint64, each func(title, place string, start time.Time, players []uint64)) error {
	sessions, err := s.queries.SessionIDs(ctx, clubID)
	if err != nil {
		return err
	}
	for _, id := range sessions {
		row, err := s.queries.HeadDocument(ctx, id)
		if err != nil {
			return err
		}
		d := new(plan.Document)
		if err := json.Unmarshal([]byte(row.Document), d); err != nil {
			return err
		}
		var players []uint64
		for _, p := range d.Players {
			players = append(players, p.Roster)
		}
		each(d.Title, d.Place, row.StartAt, players)
	}
	return nil
}

// Erase deletes a club's player with their rulings, tests and what could be taken back
// of them, and makes a former player of them in every edition and publication.
func (s *Store) Erase(ctx context.Context, clubID, id uint64, first, last string) error {
	sessions, err := s.queries.SessionIDs(ctx, clubID)
	if err != nil {
		return err
	}
	who := erased{id, strings.TrimSpace(first + " " + last), plan.Player{First: first, Last: last}.ShortName()}
	for _, session := range sessions { // one by one: each is a small transaction
		if err := s.within(ctx, func(q *db.Queries) error { return who.from(ctx, q, session) }); err != nil {
			return err
		}
	}
	return s.within(ctx, func(q *db.Queries) error {
		return errors.Join(q.EraseRulings(ctx, db.EraseRulingsParams{ClubID: clubID, PlayerID: id}), q.EraseTrials(ctx, db.EraseTrialsParams{ClubID: clubID, PlayerID: id}),
			q.EraseChanges(ctx, clubID), q.ErasePlayer(ctx, db.ErasePlayerParams{ClubID: clubID, ID: id}))
	})
}

// erased is a person to be forgotten: the club's id, and what they are called.
type erased struct {
	id          uint64
	name, short string
}

// from takes the person out of what is kept of a session.
func (e erased) from(ctx context.Context, q *db.Queries, session uint64) error {
	editions, err := q.EditionDocuments(ctx, session)
	if err != nil {
		return err
	}
	var done []error
	for _, row := range editions {
		if document, found := e.forget(row.Document); found {
			done = append(done, q.RewriteEdition(ctx, db.RewriteEditionParams{Document: document, Schedule: e.unnamed(row.Schedule), Summary: e.unnamed(row.Summary), SessionID: session, Number: row.Number}))
		}
	}
	published, err := q.PublicationDocuments(ctx, session)
	for _, row := range published {
		if document, found := e.forget(row.Document); found {
			done = append(done, q.RewritePublication(ctx, db.RewritePublicationParams{Document: document, Schedule: e.unnamed(row.Schedule), SessionID: session, Number: row.Number}))
		}
	}
	done = append(done, e.fromRun(ctx, q, session), e.fromLog(ctx, q, session))
	person := fmt.Sprintf("p%d", e.id) // as in plans
	done = append(done, q.ForgetSeen(ctx, db.ForgetSeenParams{SessionID: session, Person: person}), q.ForgetWords(ctx, db.ForgetWordsParams{SessionID: session, Person: person}))
	return errors.Join(append(done, err, q.ForgetDigest(ctx, session))...)
}

// fromRun takes the person out of what was pressed while a session ran.
func (e erased) fromRun(ctx context.Context, q *db.Queries, session uint64) error {
	runs, err := q.RunText(ctx, session)
	for _, row := range runs {
		if document, found := e.forget(row.Document); found {
			err = errors.Join(err, q.RewriteRun(ctx, db.RewriteRunParams{Document: document, Schedule: e.unnamed(row.Schedule), SessionID: session}))
		}
	}
	events, problem := q.RunEvents(ctx, db.RunEventsParams{SessionID: session})
	for _, row := range events {
		if content := e.unnamed(row.Content); content != row.Content {
			problem = errors.Join(problem, q.RewriteEvent(ctx, db.RewriteEventParams{Content: content, SessionID: session, Arrived: row.Arrived}))
		}
	}
	return errors.Join(err, problem)
}

// fromLog takes the person out of a session's log: what was done stays, by a former player.
func (e erased) fromLog(ctx context.Context, q *db.Queries, session uint64) error {
	texts, err := q.LogTexts(ctx, session)
	for _, row := range texts {
		err = errors.Join(err, q.RewriteLogSession(ctx, db.RewriteLogSessionParams{Note: e.unnamed(row.Note), Differs: e.unnamed(row.Differs), SessionID: session}))
	}
	blocks, problem := q.BlocksOfLog(ctx, session)
	for _, row := range blocks {
		if note := e.unnamed(row.Note); note != row.Note {
			problem = errors.Join(problem, q.RewriteLogNotes(ctx, db.RewriteLogNotesParams{Note: note, SessionID: session, Number: row.Number}))
		}
	}
	return errors.Join(err, problem, q.ForgetLogPlayer(ctx, db.ForgetLogPlayerParams{Name: FormerPlayer, Roster: e.id}))
}

// forget makes a former player of the person in a document; found tells whether they
// were in it.
func (e erased) forget(text string) (forgotten string, found bool) {
	d := new(plan.Document)
	if json.Unmarshal([]byte(text), d) != nil {
		return text, false
	}
	for i := range d.Players {
		p := &d.Players[i]
		if p.Roster != e.id && strings.TrimSpace(p.First+" "+p.Last) != e.name {
			continue
		}
		found = true
		*p = plan.Player{ID: p.ID, First: FormerPlayer, Position: p.Position, Late: p.Late, DueShift: p.DueShift}
	}
	if !found {
		return text, false
	}
	kept := d.Restrictions[:0]
	for _, r := range d.Restrictions {
		if p := d.Player(r.Player); p == nil || p.First != FormerPlayer {
			kept = append(kept, r)
		}
	}
	d.Restrictions = kept
	made, err := json.Marshal(d)
	if err != nil {
		return text, false
	}
	return e.unnamed(string(made)), true
}

// unnamed is a text without the person's names.
func (e erased) unnamed(text string) string {
	quoted := func(name string) string {
		as, _ := json.Marshal(name)
		return strings.Trim(string(as), `"`)
	}
	for _, name := range []string{e.name, e.short} {
		text = strings.ReplaceAll(strings.ReplaceAll(text, quoted(name), FormerPlayer), name, FormerPlayer)
	}
	return text
}

// LeftPlayer is a player who has left a squad.
type LeftPlayer struct {
	ID          uint64
	First, Last string
}

// LeftPlayers lists who has left a squad.
func (s *Store) LeftPlayers(ctx context.Context, clubID, squad uint64) ([]LeftPlayer, error) {
	rows, err := s.queries.LeftPlayers(ctx, db.LeftPlayersParams{ClubID: clubID, SquadID: squad})
	list := make([]LeftPlayer, len(rows))
	for i, row := range rows {
		list[i] = LeftPlayer{row.ID, row.First, row.Last}
	}
	return list, err
}

// BringBack lets a player who has left be in their squad again; without a number, which
// somebody else may wear by now.
func (s *Store) BringBack(ctx context.Context, by Account, squad, id uint64) error {
	return s.within(ctx, func(q *db.Queries) error {
		n, err := q.BringBack(ctx, db.BringBackParams{ClubID: by.ClubID, SquadID: squad, ID: id})
		if err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return audit(ctx, q, by, "brought a player back", "")
	})
}
