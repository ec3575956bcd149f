package boards

import (
	"context"
	"errors"
	"fmt"
	"reflect"
	"strings"

	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// Contested is the error of a change of what somebody else changed otherwise meanwhile.
// Nothing is changed; under [Insist] it would take the place of theirs.
type Contested struct {
	Names []string // of what both changed
	By    string   // who was faster; "": nobody whose name is known
	Did   string   // what they changed last
	Mine  string   // what the change is
}

func (c *Contested) Error() string {
	who := c.By
	if who == "" {
		who = "Somebody else"
	}
	return fmt.Sprintf("%s changed %s meanwhile (%s). Your change: %s.", who, strings.Join(c.Names, ", "), c.Did,
		c.Mine)
}

type insistKey struct{}

// Insist has changes under the context take the place of what somebody else changed
// meanwhile.
func Insist(ctx context.Context) context.Context { return context.WithValue(ctx, insistKey{}, true) }

// Attempts is how often a change is joined with those of others that were faster again.
const Attempts = 4

// Change applies edit to the plan that the caller saw as revision, fits the
// result, puts it in force and returns the board as it is then. What others changed
// since stays, where it is something else; where it is the same it fails with a [Contested].
// It fails with [plan.Problems] or [plan.ErrNoSuchBlock] where the edit or its result does
// not hold, with ErrStale where that revision is not known any more, and with ErrNotFound;
// then nothing is changed.
func (bd *Boards) Change(ctx context.Context, by planner.Account, id uint64, revision uint32,
	edit Edit) (b *Board, err error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	for n := 0; n == 0 || errors.Is(err, planner.ErrStale) && n < Attempts; n++ {
		var session *store.Session
		if session, err = bd.Session(ctx, by.ClubID, id); err != nil {
			return nil, err
		}
		base := session.Document.Clone()
		if session.Revision != revision {
			if base, _, err = bd.sessions.PlanOf(ctx, id, revision); err != nil {
				return nil, err
			}
		}
		b, err = bd.change(ctx, by, session, base, edit)
	}
	return b, err
}

// change makes an edit of base, joined with what the session has by now.
func (bd *Boards) change(ctx context.Context, by planner.Account, session *store.Session, base *plan.Document,
	edit Edit) (*Board, error) {
	document := session.Document.Clone()
	document.Upgrade()
	base.Upgrade()
	next := base.Clone()
	summary, err := edit(next)
	if err != nil {
		return nil, err
	}
	next.Follow(base)
	if next.Zones, err = bd.laid(ctx, by.ClubID, next.Zones); err != nil { // people walk as the ground lies by now
		return nil, err
	}
	if !reflect.DeepEqual(base, document) {
		insist, _ := ctx.Value(insistKey{}).(bool)
		merged, clashes, err := plan.Merge(base, next, document, insist)
		if err != nil {
			return nil, err
		}
		if len(clashes) > 0 && !insist {
			return nil, ClashOf(session, clashes, summary)
		}
		next = merged
	}
	if reflect.DeepEqual(next, document) {
		return bd.Show(ctx, by.ClubID, session)
	}
	if next.Zones, err = bd.laid(ctx, by.ClubID, next.Zones); err != nil {
		return nil, err
	}
	known, err := bd.books.Playbook(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	known.Book.FillForms(next)
	fitted, err := bd.Fit(ctx, next, bd.Begun(session))
	if err != nil {
		return nil, err
	}
	changed, err := bd.sessions.ChangePlan(ctx, by.ClubID, session,
		store.Fitted{Document: next, Schedule: fitted, Summary: summary, By: by.ID})
	if err != nil {
		return nil, err
	}
	changed.Made.By = by.Name
	bd.base.Tell()
	return bd.Show(ctx, by.ClubID, changed)
}

// ClashOf says what both a session's newest change and mine have otherwise.
func ClashOf(session *store.Session, clashes []plan.Clash, mine string) error {
	c := &Contested{By: session.Made.By, Did: session.Made.Summary, Mine: mine}
	for _, clash := range clashes {
		if c.Names = append(c.Names, clash.Name); clash.Name == "" {
			c.Names[len(c.Names)-1] = strings.ReplaceAll(clash.Where, ".", " ")
		}
	}
	return c
}

// InForce is the revision of a session's plan, and how it came about.
func (bd *Boards) InForce(ctx context.Context, clubID, id uint64) (revision uint32, made store.Made, err error) {
	return bd.sessions.InForce(ctx, clubID, id)
}
