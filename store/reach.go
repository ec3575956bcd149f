package store

import (
	"context"
	"database/sql"
	"time"

	"cuestart/store/db"
)

// News is what is new of a session.
type News struct {
	Session uint64
	Staff   bool // it is for staff alone
}

// News are the sessions of which something is new in the last few seconds, by the id of
// what is new: a publication, a link withdrawn, a word from a phone; for staff, a change
// of the plan.
func (s Shares) News(ctx context.Context) (map[uint64]News, error) {
	rows, err := s.queries.News(ctx)
	found := map[uint64]News{}
	for _, row := range rows {
		found[row.ID] = News{row.SessionID, row.Staff}
	}
	return found, err
}

// Seen is who has opened which publication.
type Seen struct {
	Person   string
	Number   int
	Own      bool // by their own link
	At       time.Time
	Answered time.Time // when they answered that they have; zero: they have not
}

// SetSeen keeps that people have opened publications of a session, the first time they
// do; with answered that they say so.
func (s Shares) SetSeen(ctx context.Context, session uint64, people []Seen, answered bool) error {
	return s.within(ctx, func(q *db.Queries) error {
		for _, seen := range people {
			if err := setSeen(ctx, q, session, seen, answered); err != nil {
				return err
			}
		}
		return nil
	})
}

func setSeen(ctx context.Context, q *db.Queries, session uint64, seen Seen, answered bool) error {
	err := q.SetSeen(ctx, db.SetSeenParams{SessionID: session, Person: seen.Person, Number: uint32(seen.Number),
		Own: seen.Own, OpenedAt: seen.At})
	if err != nil || !answered {
		return err
	}
	n, err := q.SetAnswered(ctx, db.SetAnsweredParams{AnsweredAt: sql.NullTime{Time: seen.At, Valid: true},
		SessionID: session, Person: seen.Person, Number: uint32(seen.Number)})
	if err != nil || n == 0 {
		return err
	}
	return q.AddNews(ctx, db.AddNewsParams{SessionID: session})
}

// SeenBy lists who has opened which publication of a session.
func (s Shares) SeenBy(ctx context.Context, session uint64) (list []Seen, err error) {
	rows, err := s.queries.Seen(ctx, session)
	for _, row := range rows {
		list = append(list, Seen{Person: row.Person, Number: int(row.Number), Own: row.Own, At: row.OpenedAt,
			Answered: row.AnsweredAt.Time})
	}
	return list, err
}

// CountSeen counts who has opened the newest publication of a session.
func (s Shares) CountSeen(ctx context.Context, session uint64) (int, error) {
	n, err := s.queries.CountSeen(ctx, session)
	return int(n), err
}

// Kind of a [Word].
const (
	WordLate   = "late"
	WordEasier = "easier"
	WordSore   = "sore"
	WordGrid   = "grid" // the ticks of a grid: the newest of a block and drill counts

	WordMissing = "missing" // a leader misses a player, whose id it says
	WordEffort  = "effort"  // how hard it was, 0 to 10: the newest counts
	WordChoice  = "choice"  // a player would do a drill of a block by choice, whose name it says
)

// Word is what somebody says from their phone.
type Word struct {
	ID      uint64
	Person  string
	Once    string // names the press: one that is sent twice is kept once
	Kind    string
	Block   string
	Item    int
	Says    string
	Own     bool // it was said by their own link
	Pressed time.Time
	Made    time.Time // when it came in
	Noted   time.Time // when a coach or medical staff took it in; zero: not yet
}

// How many words of a kind are kept of one person about a session: more is no person. Who
// comes by the team's link may be anybody, so those are fewer, and take no room from what a
// person says by their own.
const (
	mostWords     = 60
	mostTeamWords = 12
	mostTicks     = 300 // grids of a leader
)

// AddWord keeps a word; a press that was kept already is passed over. Ticks take the place of
// older ones of the same grid. It fails with ErrMany where there are too many of its kind.
func (s Shares) AddWord(ctx context.Context, session uint64, w Word) error {
	return s.within(ctx, func(q *db.Queries) error {
		if had, err := q.HasWord(ctx, db.HasWordParams{SessionID: session, Person: w.Person,
			Once: w.Once}); err != nil || had > 0 {
			return err
		}
		n, err := q.CountWords(ctx, db.CountWordsParams{SessionID: session, Person: w.Person, Kind: w.Kind, Own: w.Own})
		if err != nil {
			return err
		}
		most := mostTeamWords
		if w.Own {
			most = mostWords
		}
		if w.Kind == WordGrid {
			most = mostTicks
		}
		if int(n) >= most {
			return ErrMany
		}
		id, err := q.AddWord(ctx, db.AddWordParams{SessionID: session, Person: w.Person, Once: w.Once, Kind: w.Kind,
			Block: w.Block, Item: uint32(w.Item), Says: w.Says, Own: w.Own,
			PressedAt: w.Pressed, MadeAt: w.Made})
		if err != nil {
			return err
		}
		if w.Kind == WordGrid {
			return q.DropOlderTicks(ctx, db.DropOlderTicksParams{SessionID: session, Person: w.Person, Block: w.Block,
				Item: uint32(w.Item), Newest: uint64(id)})
		}
		return q.AddNews(ctx, db.AddNewsParams{SessionID: session})
	})
}

// Words lists what was said about a session, the oldest first, without ticks.
func (s Shares) Words(ctx context.Context, session uint64) (list []Word, err error) {
	rows, err := s.queries.Words(ctx, session)
	for _, row := range rows {
		list = append(list, Word{ID: row.ID, Person: row.Person, Kind: row.Kind, Block: row.Block, Item: int(row.Item),
			Says: row.Says, Own: row.Own,
			Pressed: row.PressedAt, Made: row.MadeAt, Noted: row.NotedAt.Time})
	}
	return list, err
}

// Ticks are those of a leader's grids, by block and drill: the newest of each.
func (s Shares) Ticks(ctx context.Context, session uint64, person string) (list []Word, err error) {
	rows, err := s.queries.GridWords(ctx, db.GridWordsParams{SessionID: session, Person: person})
	for _, row := range rows {
		list = append(list, Word{Person: row.Person, Kind: WordGrid, Block: row.Block, Item: int(row.Item),
			Says: row.Says})
	}
	return list, err
}

// AllTicks are those of all leaders' grids of a session: the newest of each.
func (s Shares) AllTicks(ctx context.Context, session uint64) (list []Word, err error) {
	rows, err := s.queries.AllGridWords(ctx, session)
	for _, row := range rows {
		list = append(list, Word{Person: row.Person, Kind: WordGrid, Block: row.Block, Item: int(row.Item),
			Says: row.Says, Pressed: row.PressedAt})
	}
	return list, err
}

// NoteWord keeps that a word was taken in.
func (s Shares) NoteWord(ctx context.Context, session, id uint64, at time.Time) error {
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.NoteWord(ctx, db.NoteWordParams{NotedAt: sql.NullTime{Time: at, Valid: true}, SessionID: session,
			ID: id}); err != nil {
			return err
		}
		return q.AddNews(ctx, db.AddNewsParams{SessionID: session})
	})
}

// Said is a word as it is given to the person who said it.
type Said struct {
	Kind    string    `json:"kind"`
	Says    string    `json:"says"`
	At      time.Time `json:"at"`
	Session string    `json:"session"`
}

// WordsOf lists all that a person has said to a club.
func (s Shares) WordsOf(ctx context.Context, clubID uint64, person string) (list []Said, err error) {
	rows, err := s.queries.WordsOf(ctx, db.WordsOfParams{ClubID: clubID, Person: person})
	for _, row := range rows {
		list = append(list, Said{Kind: row.Kind, Says: row.Says, At: row.MadeAt, Session: row.Title})
	}
	return list, err
}
