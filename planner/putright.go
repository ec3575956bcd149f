package planner

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// mostToCome bounds the sessions to come that follow what was put right, and how long after
// its start one is not to come any more.
const mostToCome = 60

// right is what plans follow of what a club keeps, as it is known at one moment.
type right struct {
	playbook
	players []Entry[club.Player]
}

func (p *Planner) rightNow(ctx context.Context, clubID uint64) (is right, err error) {
	if is.playbook, err = p.playbook(ctx, clubID); err != nil {
		return is, err
	}
	is.players, err = entries[club.Player](ctx, p, clubID)
	return is, err
}

// Follow looks at what plans follow of what a club keeps, before that is changed; what it
// returns has the plans of sessions to come follow the change, once it is made.
func (p *Planner) follows(ctx context.Context, clubID uint64) (then func(context.Context, Account) error, err error) {
	before, err := p.rightNow(ctx, clubID)
	return func(ctx context.Context, by Account) error { return p.putRight(ctx, by, before) }, err
}

// putRight has the plans of sessions to come follow what the club keeps by now and did not
// before: players who were put right, drills whose pace is another. A plan that somebody else
// is changing at that moment, or that is under way, is left alone.
func (p *Planner) putRight(ctx context.Context, by Account, before right) error {
	if May(by, ToPlan) != nil {
		return nil
	}
	is, err := p.rightNow(ctx, by.ClubID)
	if err != nil {
		return err
	}
	var players []plan.Known
	for _, k := range is.players {
		if was := find(before.players, k.ID); was != nil && was.Is != k.Is {
			players = append(players, plan.Known{Was: playerOf(*was), Now: playerOf(k)})
		}
	}
	var paces []put
	for _, was := range before.book.Drills {
		probe := was.Dose
		if now, has := is.book.Find(was.Code); has && probe.TakePace(was.Dose, now.Dose) {
			paces = append(paces, put{was, now})
		}
	}
	described := is.described(before)
	if players == nil && paces == nil && described == nil {
		return nil
	}
	units := map[string][]string{}
	for _, u := range is.sport.Units {
		units[u.Name] = u.Positions
	}
	return p.eachToCome(ctx, by, func(d *plan.Document) (string, error) {
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
	for code, own := range is.book.Own {
		was := before.book.Own[code]
		if !say.IsOwn(code) || own.Is.Gone || own.ID == was.ID && own.Edition == was.Edition || own.Is.Draft {
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

// eachToCome edits the plans of all sessions to come.
func (p *Planner) eachToCome(ctx context.Context, by Account, edit Edit) error {
	sessions, _, err := p.store.Sessions(ctx, by.ClubID, p.Now(), mostToCome)
	if err != nil {
		return err
	}
	for _, s := range sessions {
		session, err := p.session(ctx, by.ClubID, s.ID)
		if err != nil || p.begun(session) {
			continue
		}
		var wrong plan.Problems
		var contested *Contested
		_, err = p.Change(ctx, by, s.ID, session.Revision, edit)
		if err != nil && !errors.As(err, &wrong) && !errors.As(err, &contested) && !errors.Is(err, ErrStale) {
			return err
		}
	}
	return nil
}

// playerOf is a player of the club as a plan has them.
func playerOf(k Entry[club.Player]) plan.Player {
	return plan.Player{ID: playerID(k.ID), Roster: k.ID, Number: k.Is.Number, First: k.Is.First, Last: k.Is.Last, Position: k.Is.Position,
		Hand: drill.Way(k.Is.Hand), Foot: drill.Way(k.Is.Foot), Bats: drill.Way(k.Is.Bats), Level: k.Is.Level, Loose: k.Is.Build == club.Hypermobile, Own: k.Is.OwnLines(), Forms: k.Is.FormsOf()}
}
