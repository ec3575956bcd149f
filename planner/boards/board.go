package boards

import (
	"context"
	"fmt"

	"golang.org/x/sync/errgroup"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/core/odds"
	"cuestart/core/pace"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/sport"
	"cuestart/core/today"
	"cuestart/core/verdict"
	"cuestart/core/warmth"
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/planner/keep"
	"cuestart/store"
)

// Board is a session with everything that its page shows.
type Board struct {
	*store.Session
	Blocks      []schedule.Block // the document's, as they are planned
	Publication planner.Publication
	Strands     []warmth.Strand // in the order of the schedule
	Findings    []check.Finding
	Opened      int      // who has opened what was published last
	Newer       []string // what medical staff ruled, or lifted, since the plan was made
	LastTime    []Remembered
	Runs        bool // somebody has pressed at the pitch side

	Book    *books.Book
	sport   *sport.Sport
	zones   []plan.Zone // as they lie on the plan of the ground
	reading check.Input // what the checks went by
	paces   map[string]pace.Pace
}

// Plays is the club's sport, which is not to be changed.
func (b *Board) Plays() *sport.Sport { return b.sport }

// Looks is how a drill of the plan looks, as [Book.Looks].
func (b *Board) Looks(k *drill.Drill) *figure.Figure { return b.Book.Looks(k) }

// Drills are those of the club's book that the board's squad may do.
func (b *Board) Drills() []drill.Drill {
	return drill.Query{Sport: b.sport.Key, Grade: b.Document.Grade}.Find(b.Book.Drills)
}

// Verdict is whether the board's plan can be run as it is.
func (b *Board) Verdict() verdict.Verdict { return verdict.Of(b.Document, b.Schedule, b.Findings) }

// Likely is how the plan of a board will go on the day; the same for as long as the plan is.
func (bd *Boards) Likely(b *Board) verdict.Likely {
	if b.Revision == 0 { // it is but supposed
		return verdict.LikelyOf(b.Document, odds.Of(b.Schedule.Day(b.Document, b.paces)))
	}
	is, _ := bd.likely.Get(context.Background(), fmt.Sprint(b.ID, " ", b.Revision, " ", known(b.paces)),
		func(context.Context) (verdict.Likely, error) {
			// working it out does not fail
			return verdict.LikelyOf(b.Document, odds.Of(b.Schedule.Day(b.Document, b.paces))), nil
		})
	return is
}

// Board opens a session of the club, or fails with ErrNotFound.
func (bd *Boards) Board(ctx context.Context, clubID, id uint64) (*Board, error) {
	session, err := bd.Session(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	return bd.Show(ctx, clubID, session)
}

// Session reads a session, fitted by the present engine.
func (bd *Boards) Session(ctx context.Context, clubID, id uint64) (*store.Session, error) {
	session, err := bd.sessions.Session(ctx, clubID, id)
	if err != nil || session.Schedule != nil {
		return session, err
	}
	return session, bd.refit(ctx, session)
}

// refit fits a session where an older engine did, and keeps that.
func (bd *Boards) refit(ctx context.Context, session *store.Session) (err error) {
	if session.Schedule == nil {
		if session.Schedule, err = schedule.Fit(ctx, session.Document, schedule.AtOnce); err != nil {
			return err
		}
	}
	return bd.sessions.Refitted(ctx, session)
}

// Show is a session with what is checked and looked up beside it. What does not
// wait for one another is looked up at once.
func (bd *Boards) Show(ctx context.Context, clubID uint64, session *store.Session) (*Board, error) {
	b := &Board{Session: session}
	var known books.Playbook
	var all keep.Ruled
	var earlier [][]string
	look, within := errgroup.WithContext(ctx)
	look.Go(func() (err error) {
		b.Publication, err = bd.shares.Published(within, session.ID)
		return err
	})
	look.Go(func() (err error) { b.Opened, err = bd.shares.CountSeen(within, session.ID); return err })
	look.Go(func() (err error) { known, err = bd.books.Playbook(within, clubID); return err })
	look.Go(func() (err error) { all, err = bd.keep.Ruled(within, clubID); return err })
	look.Go(func() (err error) {
		earlier, err = bd.sessions.Earlier(within, session.ID, check.ReadsEarlier)
		return err
	})
	look.Go(func() (err error) { b.LastTime, err = bd.LastTime(within, clubID, session); return err })
	look.Go(func() (err error) { b.Runs, err = bd.runs.HasRun(within, session.ID); return err })
	look.Go(func() (err error) { b.paces, err = bd.paces(within, clubID, session.ID); return err })
	look.Go(func() (err error) { b.zones, err = bd.laid(within, clubID, session.Document.Zones); return err })
	b.Blocks = session.Schedule.Blocks(session.Document)
	b.Strands = warmth.Strands(today.Apply(session.Document), session.Schedule)
	if err := look.Wait(); err != nil {
		return nil, err
	}
	b.Book, b.sport = known.Book, known.Sport
	_, b.Newer = all.Of(session.Document)
	b.reading = check.Input{Document: b.Document, Schedule: b.Schedule, Book: b.Book.Drills, Sport: b.sport.Key,
		Own: b.sport.PrinciplesOf(b.Document.Kind), Strands: b.Strands, Earlier: earlier, Steps: Tried}
	b.Findings = check.Check(b.reading)
	return b, nil
}

// Cutdowns are the plans for 5, 10, 15 … minutes less, down to the least that
// holds the musts.
func (bd *Boards) Cutdowns(ctx context.Context, b *Board) ([]schedule.Cut, error) {
	cuts, err := bd.sessions.Cuts(ctx, b.Session)
	if err != nil || cuts != nil {
		return cuts, err
	}
	if cuts, err = schedule.Cutdowns(ctx, b.Document, schedule.AtOnce); err != nil {
		return nil, err
	}
	return cuts, bd.sessions.SetCuts(ctx, b.Session, cuts)
}

// Edit changes a document in place and says what it did, as the edits of package plan do.
type Edit func(*plan.Document) (summary string, err error)

// Mend changes the plan so that a finding goes away. It fails with
// [check.ErrNoMend] where no single change does that, with ErrStale where the
// plan is not revision any more, and with ErrNotFound.
func (bd *Boards) Mend(ctx context.Context, by planner.Account, id uint64, revision uint32, rule,
	where string) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	board, err := bd.Board(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	next, said, err := check.Mend(ctx, board.reading, rule, where)
	if err != nil {
		return nil, err
	}
	return bd.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		*d = *next
		return said, nil
	})
}

// Undo takes the last change back. It fails with ErrNothing where there is none,
// with ErrStale where the plan is not revision any more, and with ErrNotFound.
func (bd *Boards) Undo(ctx context.Context, by planner.Account, id uint64, revision uint32) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if err := bd.sessions.Undo(ctx, by.ClubID, id, revision); err != nil {
		return nil, err
	}
	return bd.Board(ctx, by.ClubID, id)
}

// Redo brings back what Undo took away. It fails with ErrNothing where nothing
// was undone, with ErrStale where the plan is not revision any more, and with
// ErrNotFound.
func (bd *Boards) Redo(ctx context.Context, by planner.Account, id uint64, revision uint32) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if err := bd.sessions.Redo(ctx, by.ClubID, id, revision); err != nil {
		return nil, err
	}
	return bd.Board(ctx, by.ClubID, id)
}

// Document is the plan in force of a session, or ErrNotFound.
func (bd *Boards) Document(ctx context.Context, clubID, id uint64) (*plan.Document, error) {
	session, err := bd.sessions.Session(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	return session.Document, nil
}
