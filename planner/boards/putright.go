package boards

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/books"
)

// mostToCome bounds the sessions to come that follow what was put right, and how long after
// its start one is not to come any more.
const mostToCome = 60

// right is what plans follow of what a club keeps, as it is known at one moment.
type right struct {
	books.Playbook
	players []planner.Entry[club.Player]
}

func (bd *Boards) rightNow(ctx context.Context, clubID uint64) (is right, err error) {
	if is.Playbook, err = bd.books.Playbook(ctx, clubID); err != nil {
		return is, err
	}
	is.players, err = planner.Entries[club.Player](ctx, bd.base, clubID)
	return is, err
}

// Follow looks at what plans follow of what a club keeps, before that is changed; what it
// returns has the plans of sessions to come follow the change, once it is made.
func (bd *Boards) Follow(ctx context.Context, clubID uint64) (then func(context.Context, planner.Account) error,
	err error) {
	before, err := bd.rightNow(ctx, clubID)
	return func(ctx context.Context, by planner.Account) error { return bd.putRight(ctx, by, before) }, err
}

// putRight has the plans of sessions to come follow what the club keeps by now and did not
// before: players who were put right, drills whose pace is another. A plan that somebody else
// is changing at that moment, or that is under way, is left alone.
func (bd *Boards) putRight(ctx context.Context, by planner.Account, before right) error {
	if planner.May(by, planner.ToPlan) != nil {
		return nil
	}
	is, err := bd.rightNow(ctx, by.ClubID)
	if err != nil {
		return err
	}
	var players []plan.Known
	for _, k := range is.players {
		if was := planner.Find(before.players, k.ID); was != nil && was.Is != k.Is {
			players = append(players, plan.Known{Was: PlayerOf(*was), Now: PlayerOf(k)})
		}
	}
	var paces []put
	for _, was := range before.Book.Drills {
		probe := was.Dose
		if now, has := is.Book.Find(was.Code); has && probe.TakePace(was.Dose, now.Dose) {
			paces = append(paces, put{was, now})
		}
	}
	described := is.described(before)
	if players == nil && paces == nil && described == nil {
		return nil
	}
	units := map[string][]string{}
	for _, u := range is.Sport.Units {
		units[u.Name] = u.Positions
	}
	return bd.EachToCome(ctx, by, func(d *plan.Document) (string, error) {
		said := d.PutRight(players, units)
		for _, k := range paces {
			if says := d.TakePace(k.was, k.is); says != "" {
				said = append(said, says)
			}
		}
		for _, k := range described {
			if says := d.Redescribe(k.was, k.is); says != "" {
				said = append(said, says)
			}
		}
		if more := len(said) - 2; more > 0 {
			said = append(said[:2], fmt.Sprintf("%d more put right", more))
		}
		return strings.Join(said, ", "), nil
	})
}

// put is a drill that was put right.
type put struct{ was, is drill.Drill }

// described are the club's own drills that are described otherwise than before, or are now for
// the first time.
func (is right) described(before right) (list []put) {
	for code, own := range is.Book.Own {
		was := before.Book.Own[code]
		if !pen.IsOwn(code) || own.Is.Gone || own.ID == was.ID && own.Edition == was.Edition || own.Is.Draft {
			continue
		}
		if was.ID == 0 {
			was.Is.Drill = own.Is.Drill
			was.Is.Drill.Cues = nil
		}
		list = append(list, put{was.Is.Drill, own.Is.Drill})
	}
	slices.SortFunc(list, func(a, b put) int { return strings.Compare(a.is.Code, b.is.Code) })
	return list
}

// EachToCome edits the plans of all sessions to come.
func (bd *Boards) EachToCome(ctx context.Context, by planner.Account, edit Edit) error {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return err
	}
	sessions, _, err := bd.sessions.Sessions(ctx, by.ClubID, bd.base.Now(), mostToCome)
	if err != nil {
		return err
	}
	for _, s := range sessions {
		session, err := bd.Session(ctx, by.ClubID, s.ID)
		if err != nil || bd.Begun(session) {
			continue
		}
		var wrong plan.Problems
		var contested *Contested
		_, err = bd.Change(ctx, by, s.ID, session.Revision, edit)
		if err != nil && !errors.As(err, &wrong) && !errors.As(err, &contested) && !errors.Is(err, planner.ErrStale) {
			return err
		}
	}
	return nil
}

// PlayerOf is a player of the club as a plan has them.
func PlayerOf(k planner.Entry[club.Player]) plan.Player {
	return plan.Player{ID: planner.PlayerID(k.ID), Roster: k.ID, Number: k.Is.Number, First: k.Is.First,
		Last: k.Is.Last, Position: k.Is.Position,
		Hand: drill.Way(k.Is.Hand), Foot: drill.Way(k.Is.Foot), Bats: drill.Way(k.Is.Bats), Level: k.Is.Level,
		Loose: k.Is.Build == club.Hypermobile, Own: k.Is.OwnLines(), Forms: k.Is.FormsOf()}
}
