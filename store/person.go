package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"regexp"
	"strings"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/store/db"
)

// FormerPlayer is what an erased person is called in plans that are kept.
const FormerPlayer = "A former player"

// PlansOf reads the plan in force of each session of a club: its title, place and
// start, and the club's players in it.
func (s People) PlansOf(ctx context.Context, clubID uint64, each func(title, place string, start time.Time,
	players []uint64)) error {
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

// Erase begins to forget a player of the club: their name, rulings, tests, what they were hurt
// by and what could be taken back of them go, with changes of what names them (units), in one
// transaction. What plans and logs say of them is rewritten by [Store.FinishErasing]. It fails
// with ErrNotFound.
func (s People) Erase(ctx context.Context, by Account, id uint64, what string, changes ...Change) error {
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.LockClub(ctx, by.ClubID); err != nil {
			return known(err)
		}
		row, err := q.PlayerForUpdate(ctx, db.PlayerForUpdateParams{ClubID: by.ClubID, ID: id})
		if err != nil {
			return known(err)
		}
		if _, err := apply(ctx, q, by.ClubID, changes); err != nil {
			return err
		}
		return errors.Join(q.AddErasing(ctx, db.AddErasingParams{PlayerID: id, ClubID: by.ClubID, First: row.First,
			Last: row.Last}),
			q.EraseRulings(ctx, db.EraseRulingsParams{ClubID: by.ClubID, PlayerID: id}),
			q.EraseTrials(ctx, db.EraseTrialsParams{ClubID: by.ClubID, PlayerID: id}),
			q.ForgetHurt(ctx, db.ForgetHurtParams{ClubID: by.ClubID, Roster: id, Person: fmt.Sprintf("p%d", id)}),
			q.EraseChanges(ctx, by.ClubID),
			q.LoseName(ctx, db.LoseNameParams{First: FormerPlayer, ClubID: by.ClubID, ID: id}),
			audit(ctx, q, by, "erased a person", what))
	})
}

// FinishErasing makes a former player of whoever is being forgotten, in every plan, log and
// note: a session a transaction, so that it may be cut short and called again.
func (s People) FinishErasing(ctx context.Context) error {
	rows, err := s.queries.Erasing(ctx)
	if err != nil {
		return err
	}
	for _, row := range rows {
		who, err := s.erased(ctx, row)
		if err != nil {
			return err
		}
		sessions, err := s.queries.SessionIDs(ctx, row.ClubID)
		if err != nil {
			return err
		}
		for _, session := range sessions {
			if err := s.within(ctx, func(q *db.Queries) error { return who.from(ctx, q, session) }); err != nil {
				return err
			}
		}
		err = s.within(ctx, func(q *db.Queries) error {
			return errors.Join(q.ErasePlayer(ctx, db.ErasePlayerParams{ClubID: row.ClubID, ID: row.PlayerID}),
				q.Erased(ctx, row.PlayerID))
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// erased is a person to be forgotten: the club's id, what they are called, and which of their
// names nobody else of the club has, so that it tells who is meant by itself.
type erased struct {
	id          uint64
	name, short string
	alone       *regexp.Regexp // nil: none
}

func (s People) erased(ctx context.Context, row db.Erasing) (who erased, err error) {
	who = erased{id: row.PlayerID, name: strings.TrimSpace(row.First + " " + row.Last),
		short: plan.Player{First: row.First, Last: row.Last}.ShortName(), alone: nil}
	others, err := s.queries.NamesOfClub(ctx, db.NamesOfClubParams{ClubID: row.ClubID, ID: row.PlayerID})
	shared := map[string]bool{}
	for _, other := range others {
		shared[strings.ToLower(other.First)], shared[strings.ToLower(other.Last)] = true, true
	}
	var alone []string
	for _, name := range []string{row.First, row.Last} {
		if len([]rune(name)) > 2 && !shared[strings.ToLower(name)] {
			alone = append(alone, regexp.QuoteMeta(name))
		}
	}
	if alone != nil {
		who.alone = regexp.MustCompile(`(^|[^\pL])(` + strings.Join(alone, "|") + `)([^\pL]|$)`)
	}
	return who, err
}

// noted is a note without the person's names, also where one of them stands alone.
func (e erased) noted(text string) string {
	text = e.unnamed(text)
	for was := ""; e.alone != nil && was != text; { // names beside each other share what parts them
		was, text = text, e.alone.ReplaceAllString(text, "${1}"+FormerPlayer+"${3}")
	}
	return text
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
			done = append(done, q.RewriteEdition(ctx, db.RewriteEditionParams{Document: document,
				Schedule: e.unnamed(row.Schedule), Summary: e.noted(row.Summary), SessionID: session,
				Number: row.Number}))
		}
	}
	published, err := q.PublicationDocuments(ctx, session)
	for _, row := range published {
		if document, found := e.forget(row.Document); found {
			done = append(done, q.RewritePublication(ctx, db.RewritePublicationParams{Document: document,
				Schedule: e.unnamed(row.Schedule), SessionID: session, Number: row.Number}))
		}
	}
	done = append(done, e.fromRun(ctx, q, session), e.fromLog(ctx, q, session))
	person := fmt.Sprintf("p%d", e.id) // as in plans
	done = append(done, e.fromWords(ctx, q, session),
		q.ForgetSeen(ctx, db.ForgetSeenParams{SessionID: session, Person: person}),
		q.ForgetWords(ctx, db.ForgetWordsParams{SessionID: session, Person: person}))
	return errors.Join(append(done, err, q.ForgetDigest(ctx, session))...)
}

// fromWords takes the person out of what others said from their phones.
func (e erased) fromWords(ctx context.Context, q *db.Queries, session uint64) error {
	words, err := q.WordTexts(ctx, session)
	for _, row := range words {
		if says := e.noted(row.Says); says != row.Says {
			err = errors.Join(err, q.RewriteWord(ctx, db.RewriteWordParams{Says: cut(says, 400), ID: row.ID}))
		}
	}
	return err
}

// fromRun takes the person out of what was pressed while a session ran.
func (e erased) fromRun(ctx context.Context, q *db.Queries, session uint64) error {
	runs, err := q.RunText(ctx, session)
	for _, row := range runs {
		document, found := e.forget(row.Document)
		followed, followedThem := e.forget(row.Followed.String)
		if found || followedThem {
			err = errors.Join(err, q.RewriteRun(ctx, db.RewriteRunParams{Document: document,
				Schedule: e.unnamed(row.Schedule),
				Followed: sql.NullString{String: followed, Valid: row.Followed.Valid}, SessionID: session}))
		}
	}
	events, problem := q.RunEvents(ctx, db.RunEventsParams{SessionID: session, Limit: math.MaxInt32})
	for _, row := range events {
		if content := e.pressed(row.Content); content != row.Content {
			problem = errors.Join(problem,
				q.RewriteEvent(ctx, db.RewriteEventParams{Content: content, SessionID: session, Arrived: row.Arrived}))
		}
	}
	return errors.Join(err, problem)
}

// pressed is an event without the person's names; in its note also where one stands alone.
func (e erased) pressed(content string) string {
	var event conduct.Event
	if json.Unmarshal([]byte(content), &event) == nil && event.Says != "" && e.noted(event.Says) != event.Says {
		event.Says = cut(e.noted(event.Says), conduct.MaxSays)
		if made, err := json.Marshal(event); err == nil {
			content = string(made)
		}
	}
	return e.unnamed(content)
}

// fromLog takes the person out of a session's log: what was done stays, by a former player.
func (e erased) fromLog(ctx context.Context, q *db.Queries, session uint64) error {
	texts, err := q.LogTexts(ctx, session)
	for _, row := range texts {
		err = errors.Join(err, q.RewriteLogSession(ctx, db.RewriteLogSessionParams{Note: cut(e.noted(row.Note), 400),
			Differs: e.noted(row.Differs), SessionID: session}))
	}
	blocks, problem := q.BlocksOfLog(ctx, session)
	for _, row := range blocks {
		if note := cut(e.noted(row.Note), 400); note != row.Note {
			problem = errors.Join(problem,
				q.RewriteLogNotes(ctx, db.RewriteLogNotesParams{Note: note, SessionID: session, Number: row.Number}))
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
func (s People) LeftPlayers(ctx context.Context, clubID, squad uint64) ([]LeftPlayer, error) {
	rows, err := s.queries.LeftPlayers(ctx, db.LeftPlayersParams{ClubID: clubID, SquadID: squad})
	list := make([]LeftPlayer, len(rows))
	for i, row := range rows {
		list[i] = LeftPlayer{row.ID, row.First, row.Last}
	}
	return list, err
}

// BringBack lets a player who has left be in their squad again; without a number, which
// somebody else may wear by now.
func (s People) BringBack(ctx context.Context, by Account, squad, id uint64) error {
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.LockClub(ctx, by.ClubID); err != nil {
			return known(err)
		}
		n, err := q.BringBack(ctx, db.BringBackParams{ClubID: by.ClubID, SquadID: squad, ID: id})
		if err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return audit(ctx, q, by, "brought a player back", "")
	})
}
