package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/drill"
	"cuestart/store/db"
)

// Log is the log of a session as it is kept.
type Log struct {
	conduct.Log
	Session uint64
	Squad   uint64
	Day     string // 2026-11-28, on the venue's clock
	Kind    string
	Title   string
	Season  string
	Note    string
	Edition uint32 // counts its changes; 0: it is not kept yet
	Maker   string
	Content []conduct.Content
}

// Log returns the log of a session of the club, or ErrNotFound.
func (s Logs) Log(ctx context.Context, clubID, session uint64) (*Log, error) {
	row, err := s.queries.LogSession(ctx, db.LogSessionParams{SessionID: session, ClubID: clubID})
	if err != nil {
		return nil, known(err)
	}
	l := &Log{Session: row.SessionID, Squad: row.SquadID, Day: row.Day.Format(time.DateOnly), Kind: row.Kind,
		Title: row.Title, Season: row.Season, Note: row.Note, Edition: row.Edition, Maker: row.Maker}
	if err := errors.Join(json.Unmarshal([]byte(row.Differs), &l.Differs),
		json.Unmarshal([]byte(row.Content), &l.Content)); err != nil {
		return nil, err
	}
	blocks, err := s.queries.BlocksOfLog(ctx, session)
	if err != nil {
		return nil, err
	}
	drills, err := s.queries.DrillsOfLog(ctx, session)
	if err != nil {
		return nil, err
	}
	players, err := s.queries.PlayersOfLog(ctx, session)
	if err != nil {
		return nil, err
	}
	all := []*Log{l}
	for _, b := range blocks {
		addLogged(all, db.LogBlocksRow(b))
	}
	for _, d := range drills {
		addDone(all, db.LogDrillsRow(d))
	}
	for _, p := range players {
		addAttended(all, db.LogPlayersRow(p))
	}
	return l, nil
}

// Logs are those of a squad of the club from one day to another, the latest first, most at
// most.
func (s Logs) Logs(ctx context.Context, clubID, squad uint64, from, to time.Time, most int) ([]*Log, error) {
	rows, err := s.queries.LogSessions(ctx, db.LogSessionsParams{SquadID: squad, ClubID: clubID, FromDay: from,
		ToDay: to, Limit: int32(most)})
	if err != nil || len(rows) == 0 {
		return nil, err
	}
	all := make([]*Log, len(rows))
	for i, row := range rows {
		all[i] = &Log{Session: row.SessionID, Squad: row.SquadID, Day: row.Day.Format(time.DateOnly), Kind: row.Kind,
			Title: row.Title, Season: row.Season, Note: row.Note, Edition: 1}
		if err := errors.Join(json.Unmarshal([]byte(row.Differs), &all[i].Differs),
			json.Unmarshal([]byte(row.Content), &all[i].Content)); err != nil {
			return nil, err
		}
	}
	from = rows[len(rows)-1].Day // what is beyond the most is not read
	blocks, err := s.queries.LogBlocks(ctx, db.LogBlocksParams{SquadID: squad, FromDay: from, ToDay: to})
	if err != nil {
		return nil, err
	}
	drills, err := s.queries.LogDrills(ctx, db.LogDrillsParams{SquadID: squad, FromDay: from, ToDay: to})
	if err != nil {
		return nil, err
	}
	players, err := s.queries.LogPlayers(ctx, db.LogPlayersParams{SquadID: squad, FromDay: from, ToDay: to})
	for _, b := range blocks {
		addLogged(all, b)
	}
	for _, d := range drills {
		addDone(all, d)
	}
	for _, p := range players {
		addAttended(all, p)
	}
	return all, err
}

func logOf(all []*Log, session uint64) *Log {
	for _, l := range all {
		if l.Session == session {
			return l
		}
	}
	return &Log{} // beyond the most
}

func addLogged(all []*Log, b db.LogBlocksRow) {
	logged := conduct.Logged{Block: b.Block, Name: b.Name, Phase: drill.Phase(b.Phase), Leader: b.Leader,
		Planned: int(b.Planned), Actual: int(b.Actual), Measured: b.Measured, Pace: b.Pace, Note: b.Note}
	_ = json.Unmarshal([]byte(b.Who), &logged.Who) // it was written by us
	l := logOf(all, b.SessionID)
	l.Blocks = append(l.Blocks, logged)
}

func addDone(all []*Log, d db.LogDrillsRow) {
	l := logOf(all, d.SessionID)
	if int(d.Number) >= len(l.Blocks) {
		return
	}
	drill := conduct.LoggedDrill{Item: int(d.Item), Code: d.Code, Name: d.Name, Amount: int(d.Amount),
		Seconds: int(d.Seconds), Ticks: d.Ticks}
	_ = json.Unmarshal([]byte(d.Without), &drill.Without)
	l.Blocks[d.Number].Drills = append(l.Blocks[d.Number].Drills, drill)
}

func addAttended(all []*Log, p db.LogPlayersRow) {
	attended := conduct.Attended{Person: p.Person, Roster: p.Roster, Name: p.Name, Was: p.Was, Effort: -1, Note: p.Note}
	if p.Effort.Valid {
		attended.Effort = int(p.Effort.Int16)
	}
	l := logOf(all, p.SessionID)
	l.Players = append(l.Players, attended)
}

// SaveLog keeps the log of a session of the club in place of what there is. It fails with
// ErrStale where edition is not the one in force, and with ErrNotFound.
func (s Logs) SaveLog(ctx context.Context, by Account, l *Log) error {
	day, err := time.Parse(time.DateOnly, l.Day)
	if err != nil {
		return err
	}
	differs, err := json.Marshal(l.Differs)
	if err != nil {
		return err
	}
	content, err := json.Marshal(l.Log.Content())
	if err != nil {
		return err
	}
	return s.within(ctx, func(q *db.Queries) error {
		if _, err := q.LockSession(ctx, db.LockSessionParams{ID: l.Session, ClubID: by.ClubID}); err != nil {
			return known(err)
		}
		edition, err := q.LogEdition(ctx, l.Session)
		if errors.Is(err, sql.ErrNoRows) {
			err = nil
		}
		if err != nil {
			return err
		}
		if edition != l.Edition {
			return ErrStale
		}
		if err := q.RemoveLog(ctx, l.Session); err != nil {
			return err
		}
		if err := q.AddLogSession(ctx, db.AddLogSessionParams{Day: day, Season: l.Season, Note: l.Note,
			Differs: string(differs), Content: string(content), Edition: edition + 1,
			MadeBy: sql.NullInt64{Int64: int64(by.ID), Valid: true}, MadeAt: time.Now().UTC(),
			ID: l.Session}); err != nil {
			return err
		}
		return addLog(ctx, q, l)
	})
}

func addLog(ctx context.Context, q *db.Queries, l *Log) error {
	for n, b := range l.Blocks {
		who, _ := json.Marshal(b.Who)
		if err := q.AddLogBlock(ctx, db.AddLogBlockParams{SessionID: l.Session, Number: uint16(n), Block: b.Block,
			Name: b.Name, Phase: string(b.Phase), Leader: b.Leader, Planned: uint32(b.Planned),
			Actual: uint32(b.Actual), Measured: b.Measured, Pace: cmp.Or(b.Pace, 1), Note: b.Note,
			Who: string(who)}); err != nil {
			return err
		}
		for _, d := range b.Drills {
			without, _ := json.Marshal(d.Without)
			if err := q.AddLogDrill(ctx, db.AddLogDrillParams{SessionID: l.Session, Number: uint16(n),
				Item: uint16(d.Item), Code: d.Code, Name: d.Name, Amount: int32(d.Amount), Seconds: uint32(d.Seconds),
				Without: string(without), Ticks: d.Ticks}); err != nil {
				return err
			}
		}
	}
	for _, p := range l.Players {
		effort := sql.NullInt16{Int16: int16(p.Effort), Valid: p.Effort >= 0}
		if err := q.AddLogPlayer(ctx, db.AddLogPlayerParams{SessionID: l.Session, Person: p.Person, Roster: p.Roster,
			Name: p.Name, Was: p.Was, Effort: effort, Note: p.Note}); err != nil {
			return err
		}
	}
	return nil
}

// SquadOf is the squad of a session of the club, or ErrNotFound.
func (s Logs) SquadOf(ctx context.Context, clubID, session uint64) (uint64, error) {
	squad, err := s.queries.SquadOfSession(ctx, db.SquadOfSessionParams{ID: session, ClubID: clubID})
	return squad, known(err)
}

// Counted is how often a squad did a drill.
type Counted struct {
	Code, Name string
	Times      int
	Last       string // 2026-11-28
}

// SeasonCounts counts how often a squad did each drill from one day to another. The squad
// has to be known to be the club's.
func (s Logs) SeasonCounts(ctx context.Context, squad uint64, from, to time.Time) (list []Counted, err error) {
	rows, err := s.queries.SeasonCounts(ctx, db.SeasonCountsParams{SquadID: squad, FromDay: from, ToDay: to})
	for _, r := range rows {
		list = append(list, Counted{Code: r.Code, Name: asText(r.Name), Times: int(r.Times), Last: dayIn(r.Last)})
	}
	return list, err
}

// LastDone is the day on which a squad did each drill last, by code.
func (s Logs) LastDone(ctx context.Context, squad uint64) (map[string]string, error) {
	rows, err := s.queries.LastDone(ctx, squad)
	last := map[string]string{}
	for _, r := range rows {
		last[r.Code] = dayIn(r.Last)
	}
	return last, err
}

// asText and dayIn read what an aggregate gives.
func asText(x any) string {
	if b, ok := x.([]byte); ok {
		return string(b)
	}
	text, _ := x.(string)
	return text
}

func dayIn(x any) string {
	if at, ok := x.(time.Time); ok {
		return at.Format(time.DateOnly)
	}
	return asText(x)
}

// Ran is how long a block of a squad was planned and lasted.
type Ran struct {
	Name            string
	Planned, Actual int     // seconds
	Pace            float64 // what the plan had multiplied its doses' seconds by
}

// BlockRuns are the measured runs of a squad's blocks from a day on, the oldest first.
func (s Logs) BlockRuns(ctx context.Context, squad uint64, from time.Time) (list []Ran, err error) {
	rows, err := s.queries.BlockRuns(ctx, db.BlockRunsParams{SquadID: squad, Day: from})
	for _, r := range rows {
		list = append(list, Ran{Name: r.Name, Planned: int(r.Planned), Actual: int(r.Actual), Pace: r.Pace})
	}
	return list, err
}

// Unlogged is a session whose log nobody kept.
type Unlogged struct {
	Session uint64
	Day     time.Time
	Plan    conduct.Plan
}

// Unlogged are the sessions of a squad of the club in a stretch of time whose logs nobody
// kept, with the plans in force; those fitted by another version of the engine are left out.
func (s Logs) Unlogged(ctx context.Context, clubID, squad uint64, from, to time.Time) (list []Unlogged, err error) {
	rows, err := s.queries.UnloggedSessions(ctx, db.UnloggedSessionsParams{ClubID: clubID, SquadID: squad,
		FromAt: from.UTC(), ToAt: to.UTC()})
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		d, fitted, err := opened(r.Document, r.Schedule, r.Engine)
		if err != nil {
			return nil, err
		}
		if fitted != nil {
			list = append(list, Unlogged{r.ID, fitted.Start, conduct.Plan{Document: d, Schedule: fitted}})
		}
	}
	return list, nil
}

// Attended is a session that a player was at, as it is given to them.
type Attended struct {
	Day     string `json:"day"`
	Session string `json:"session"`
	Was     string `json:"was"`
	Effort  *int   `json:"effort,omitempty"`
	Note    string `json:"note,omitempty"`
}

// AttendedBy lists the logged sessions of a club's player, the oldest first.
func (s Logs) AttendedBy(ctx context.Context, clubID, player uint64) (list []Attended, err error) {
	rows, err := s.queries.AttendedBy(ctx, db.AttendedByParams{Roster: player, ClubID: clubID})
	for _, r := range rows {
		attended := Attended{Day: r.Day.Format(time.DateOnly), Session: r.Title, Was: r.Was, Note: r.Note}
		if r.Effort.Valid {
			effort := int(r.Effort.Int16)
			attended.Effort = &effort
		}
		list = append(list, attended)
	}
	return list, err
}
