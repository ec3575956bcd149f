package planner

import (
	"context"
	"time"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/store"
)

// Hurt is that somebody is in pain, was hurt, or had a knock to the head, as far as whoever
// asks may know of it.
type Hurt = store.Hurt

// HurtHead is the kind of a knock to the head.
const HurtHead = store.HurtHead

// What medical staff answer.
const (
	StaysOut = store.AnswerOut
	GoesOn   = store.AnswerOn
)

// HurtSays says it to staff. What a player says of their pain is read by [Planner.HurtRead]
// alone; that somebody is out, and after a knock to the head stays out, who runs the session
// has to know.
func HurtSays(h Hurt) string {
	switch h.Kind {
	case store.HurtHead:
		return "out after a knock to the head, says " + h.By
	case store.HurtOut:
		return "out, hurt, says " + h.By
	}
	return "wants to see medical staff before going on"
}

// HurtAnswered says what medical staff answered, or "".
func HurtAnswered(h Hurt) string {
	switch h.Answer {
	case StaysOut:
		return h.AnsweredBy + ": stays out"
	case GoesOn:
		if h.AnsweredBy == "" {
			return "seen"
		}
		return h.AnsweredBy + ": may go on"
	}
	return ""
}

// OpenHurt lists who of the club is hurt and was not answered, the oldest first.
func (p *Planner) OpenHurt(ctx context.Context, by Account) ([]Hurt, error) {
	if err := May(by, ToSee); err != nil {
		return nil, err
	}
	list, err := p.store.Open(ctx, by.ClubID)
	return unread(list), err
}

// HurtIn lists who was hurt in a session, answered or not, the oldest first.
func (p *Planner) HurtIn(ctx context.Context, by Account, session uint64) ([]Hurt, error) {
	if err := May(by, ToSee); err != nil {
		return nil, err
	}
	list, err := p.store.HurtIn(ctx, by.ClubID, session)
	return unread(list), err
}

// HurtOf lists what a player of the club was hurt by, the latest first.
func (p *Planner) HurtOf(ctx context.Context, by Account, player uint64) ([]Hurt, error) {
	if err := May(by, ToSee); err != nil {
		return nil, err
	}
	list, err := p.store.HurtOf(ctx, by.ClubID, player, playerID(player))
	return unread(list), err
}

// Today is the day that it is at the club: on the clock of its first ground.
func (p *Planner) Today(ctx context.Context, clubID uint64) (string, error) {
	venues, err := entries[club.Venue](ctx, p, clubID)
	if err != nil {
		return "", err
	}
	zone := time.UTC
	if len(venues) > 0 {
		if is, err := time.LoadLocation(venues[0].Is.TimeZone); err == nil {
			zone = is
		}
	}
	return p.Now().In(zone).Format(time.DateOnly), nil
}

// SquadOf is the squad that a player of the club is in, 0 where they are in none.
func (p *Planner) SquadOf(ctx context.Context, clubID, player uint64) (uint64, error) {
	is, err := p.store.Ruled(ctx, clubID)
	for _, k := range is.Players {
		if k.ID == player && !k.Gone {
			return k.Squad, err
		}
	}
	return 0, err
}

// unread is a list without what only medical staff read, and they one by one.
func unread(list []Hurt) []Hurt {
	for i := range list {
		list[i].Says = ""
	}
	return list
}

// HurtRead is one of them with all that was said. What it says is for medical staff who have
// proved lately who they are, and it is written down that they read; others get it without. It
// fails with ErrNotFound, and with ErrUnproved.
func (p *Planner) HurtRead(ctx context.Context, by Account, id uint64) (Hurt, error) {
	if err := May(by, ToSee); err != nil {
		return Hurt{}, err
	}
	h, err := p.store.HurtBy(ctx, by.ClubID, id)
	if err != nil {
		return h, err
	}
	if May(by, ToRead) != nil {
		h.Says = ""
		return h, nil
	}
	if err := p.mayRead(ctx, by); err != nil {
		return Hurt{}, err
	}
	return h, p.store.Audit(ctx, by, "read who is hurt", h.Name)
}

// MayAnswer fails with ErrForbidden for who may not say whether somebody hurt goes on: that is
// for medical staff, and for a coach only where the club has none who sign in.
func (p *Planner) MayAnswer(ctx context.Context, by Account) error {
	if May(by, ToAnswer) == nil {
		return nil
	}
	if err := May(by, ToLead); err != nil {
		return err
	}
	all, err := p.store.Accounts(ctx, by.ClubID)
	for _, a := range all {
		if May(a, ToAnswer) == nil && !a.Suspended {
			return ErrForbidden
		}
	}
	return err
}

// AnswerHurt keeps what medical staff answer: StaysOut or GoesOn. After a knock to the head
// nobody goes on the same day. It fails with ErrForbidden, ErrNotFound, ErrUnproved,
// [plan.Problems], and with ErrStale where somebody has answered already.
func (p *Planner) AnswerHurt(ctx context.Context, by Account, id uint64, answer string) error {
	if err := p.MayAnswer(ctx, by); err != nil {
		return err
	}
	if May(by, ToRead) == nil {
		if err := p.mayRead(ctx, by); err != nil {
			return err
		}
	}
	h, err := p.store.HurtBy(ctx, by.ClubID, id)
	switch {
	case err != nil:
		return err
	case h.Answer != "":
		return ErrStale
	case answer != StaysOut && answer != GoesOn:
		return plan.In("answer", "Say whether they stay out or may go on.")
	case answer == GoesOn && h.Kind == store.HurtHead && sameDay(h, p.Now()):
		return plan.In("answer", "After a knock to the head nobody goes on the same day: follow your governing body's protocol.")
	}
	defer p.nudge()
	return p.store.Answer(ctx, by, id, answer, p.Now())
}

// sameDay tells whether a moment is on the day that somebody was hurt, where it was.
func sameDay(h Hurt, now time.Time) bool {
	return h.Pressed.Format(time.DateOnly) == now.In(h.Pressed.Location()).Format(time.DateOnly)
}
