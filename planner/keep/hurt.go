package keep

import (
	"context"
	"time"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner"
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

// HurtSays says it to staff. What a player says of their pain is read by [Keep.HurtRead]
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
func (kp *Keep) OpenHurt(ctx context.Context, by planner.Account) ([]Hurt, error) {
	if err := planner.May(by, planner.ToSee); err != nil {
		return nil, err
	}
	list, err := kp.people.Open(ctx, by.ClubID)
	return unread(list), err
}

// HurtIn lists who was hurt in a session, answered or not, the oldest first.
func (kp *Keep) HurtIn(ctx context.Context, by planner.Account, session uint64) ([]Hurt, error) {
	if err := planner.May(by, planner.ToSee); err != nil {
		return nil, err
	}
	list, err := kp.people.HurtIn(ctx, by.ClubID, session)
	return unread(list), err
}

// HurtOf lists what a player of the club was hurt by, the latest first.
func (kp *Keep) HurtOf(ctx context.Context, by planner.Account, player uint64) ([]Hurt, error) {
	if err := planner.May(by, planner.ToSee); err != nil {
		return nil, err
	}
	list, err := kp.people.HurtOf(ctx, by.ClubID, player, planner.PlayerID(player))
	return unread(list), err
}

// Today is the day that it is at the club: on the clock of its first ground.
func (kp *Keep) Today(ctx context.Context, clubID uint64) (string, error) {
	venues, err := planner.Entries[club.Venue](ctx, kp.base, clubID)
	if err != nil {
		return "", err
	}
	zone := time.UTC
	if len(venues) > 0 {
		if is, err := time.LoadLocation(venues[0].Is.TimeZone); err == nil {
			zone = is
		}
	}
	return kp.base.Now().In(zone).Format(time.DateOnly), nil
}

// SquadOf is the squad that a player of the club is in, 0 where they are in none.
func (kp *Keep) SquadOf(ctx context.Context, clubID, player uint64) (uint64, error) {
	ruled, err := kp.people.Ruled(ctx, clubID)
	for _, k := range ruled.Players {
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
func (kp *Keep) HurtRead(ctx context.Context, by planner.Account, id uint64) (Hurt, error) {
	if err := planner.May(by, planner.ToSee); err != nil {
		return Hurt{}, err
	}
	h, err := kp.people.HurtBy(ctx, by.ClubID, id)
	if err != nil {
		return h, err
	}
	if planner.May(by, planner.ToRead) != nil {
		h.Says = ""
		return h, nil
	}
	if err := kp.mayRead(ctx, by); err != nil {
		return Hurt{}, err
	}
	return h, kp.accounts.Audit(ctx, by, "read who is hurt", h.Name)
}

// MayAnswer fails with ErrForbidden for who may not say whether somebody hurt goes on: that is
// for medical staff, and for a coach only where the club has none who sign in.
func (kp *Keep) MayAnswer(ctx context.Context, by planner.Account) error {
	if planner.May(by, planner.ToAnswer) == nil {
		return nil
	}
	if err := planner.May(by, planner.ToLead); err != nil {
		return err
	}
	all, err := kp.accounts.Accounts(ctx, by.ClubID)
	for _, a := range all {
		if planner.May(a, planner.ToAnswer) == nil && !a.Suspended {
			return planner.ErrForbidden
		}
	}
	return err
}

// AnswerHurt keeps what medical staff answer: StaysOut or GoesOn. After a knock to the head
// nobody goes on the same day. It fails with ErrForbidden, ErrNotFound, ErrUnproved,
// [plan.Problems], and with ErrStale where somebody has answered already.
func (kp *Keep) AnswerHurt(ctx context.Context, by planner.Account, id uint64, answer string) error {
	if err := kp.MayAnswer(ctx, by); err != nil {
		return err
	}
	if planner.May(by, planner.ToRead) == nil {
		if err := kp.mayRead(ctx, by); err != nil {
			return err
		}
	}
	h, err := kp.people.HurtBy(ctx, by.ClubID, id)
	switch {
	case err != nil:
		return err
	case h.Answer != "":
		return planner.ErrStale
	case answer != StaysOut && answer != GoesOn:
		return plan.In("answer", "Say whether they stay out or may go on.")
	case answer == GoesOn && h.Kind == store.HurtHead && sameDay(h, kp.base.Now()):
		return plan.In("answer",
			"After a knock to the head nobody goes on the same day: follow your governing body's protocol.")
	}
	defer kp.base.Tell()
	return kp.people.Answer(ctx, by, id, answer, kp.base.Now())
}

// sameDay tells whether a moment is on the day that somebody was hurt, where it was.
func sameDay(h Hurt, now time.Time) bool {
	return h.Pressed.Format(time.DateOnly) == now.In(h.Pressed.Location()).Format(time.DateOnly)
}
