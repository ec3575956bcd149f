package keep

import (
	"context"
	"time"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// Person is all that is known of a player, to be given to them.
type Person struct {
	Player   club.Player      `json:"player"`
	Squad    string           `json:"squad"`
	Units    []string         `json:"units,omitempty"`
	Rulings  []ruledPerson    `json:"rulings,omitempty"`
	Tests    []club.Trial     `json:"tests,omitempty"`
	Sessions []inSession      `json:"sessions,omitempty"`
	Said     []store.Said     `json:"said,omitempty"` // from their phone
	Hurt     []wasHurt        `json:"hurt,omitempty"` // in full to medical staff alone
	Logged   []store.Attended `json:"logged,omitempty"`
}

type ruledPerson struct {
	Rules  string `json:"rules"`
	From   string `json:"from"`
	Until  string `json:"until,omitempty"`
	Review string `json:"review,omitempty"`
	Reason string `json:"reason,omitempty"` // to medical staff alone
}

type wasHurt struct {
	Kind    string    `json:"kind"`
	At      time.Time `json:"at"`
	Session string    `json:"session"`
	By      string    `json:"by,omitempty"`   // who said so; else the player
	Says    string    `json:"says,omitempty"` // to medical staff alone
	Answer  string    `json:"answer,omitempty"`
}

type inSession struct {
	Title string    `json:"title"`
	Start time.Time `json:"start"`
	Place string    `json:"place,omitempty"`
}

// Person gathers all that is known of a player of the squad; the reasons of rulings
// are there for medical staff alone. It is written down who asked.
func (kp *Keep) Person(ctx context.Context, by planner.Account, squad *Squad, id uint64) (*Person, error) {
	if err := planner.May(by, planner.ToExport); err != nil {
		return nil, err
	}
	k := squad.Player(id)
	if k == nil {
		return nil, planner.ErrNotFound
	}
	person := &Person{Player: k.Is, Squad: squad.Name}
	for _, u := range squad.Units {
		for _, member := range u.Is.Players {
			if member == id {
				person.Units = append(person.Units, u.Is.Name)
			}
		}
	}
	var err error
	if person.Rulings, err = kp.rulingsOf(ctx, by, squad, id); err != nil {
		return nil, err
	}
	tests, err := kp.Trials(ctx, by.ClubID, squad)
	if err != nil {
		return nil, err
	}
	for _, t := range tests {
		if t.Owner == id {
			person.Tests = append(person.Tests, t.Is)
		}
	}
	err = kp.people.PlansOf(ctx, by.ClubID, func(title, place string, start time.Time, players []uint64) {
		for _, roster := range players {
			if roster == id {
				person.Sessions = append(person.Sessions, inSession{title, start, place})
			}
		}
	})
	if err != nil {
		return nil, err
	}
	if err := kp.said(ctx, by, person, id); err != nil {
		return nil, err
	}
	return person, kp.accounts.Audit(ctx, by, "exported a person's data", k.Is.Label())
}

// rulingsOf are a player's rulings, with their reasons for medical staff alone.
func (kp *Keep) rulingsOf(ctx context.Context, by planner.Account, squad *Squad,
	id uint64) (list []ruledPerson, err error) {
	reasons := map[uint64]string{}
	if planner.May(by, planner.ToRead) == nil {
		if reasons, err = kp.Reasons(ctx, by, id); err != nil {
			return nil, err
		}
	}
	for _, r := range squad.Rulings {
		if r.Owner == id {
			list = append(list, ruledPerson{Rules: r.Is.Words(), From: r.Is.From, Until: r.Is.Until,
				Review: r.Is.Review, Reason: reasons[r.ID]})
		}
	}
	return list, nil
}

// said gathers what a player said, and what logs say of them.
func (kp *Keep) said(ctx context.Context, by planner.Account, person *Person, id uint64) (err error) {
	if person.Said, err = kp.shares.WordsOf(ctx, by.ClubID, planner.PlayerID(id)); err != nil {
		return err
	}
	hurt, err := kp.people.HurtOf(ctx, by.ClubID, id, planner.PlayerID(id))
	if err != nil {
		return err
	}
	for _, h := range hurt {
		one := wasHurt{Kind: h.Kind, At: h.Pressed, Session: h.Title, By: h.By, Says: h.Says, Answer: HurtAnswered(h)}
		if planner.May(by, planner.ToRead) != nil {
			one.Says = ""
		}
		person.Hurt = append(person.Hurt, one)
	}
	person.Logged, err = kp.logs.AttendedBy(ctx, by.ClubID, id)
	return err
}

// Erase forgets a player of the squad: their row, rulings and tests go, and in every
// plan that is kept they become a former player. It cannot be taken back; where it is cut
// short, the next start goes on. It fails with ErrForbidden.
func (kp *Keep) Erase(ctx context.Context, by planner.Account, squad *Squad, id uint64) error {
	if err := planner.May(by, planner.ToErase); err != nil {
		return err
	}
	k := squad.Player(id)
	if k == nil {
		return planner.ErrNotFound
	}
	err := kp.people.Erase(ctx, by, id, "a player of "+squad.Name, squad.leaving(id)...)
	if err == nil {
		err = kp.people.FinishErasing(context.WithoutCancel(ctx))
	}
	kp.base.Erased()
	return err
}

// Left are players who have left the squad and for whom medical staff have ruled
// something that is still in force, by their names.
func (kp *Keep) Left(ctx context.Context, clubID, squad uint64, name string) (id uint64, rules string, err error) {
	gone, err := kp.people.LeftPlayers(ctx, clubID, squad)
	if err != nil {
		return 0, "", err
	}
	rulings, err := planner.Entries[club.Restriction](ctx, kp.base, clubID)
	if err != nil {
		return 0, "", err
	}
	day, err := kp.Today(ctx, clubID)
	if err != nil {
		return 0, "", err
	}
	for _, left := range gone {
		if planner.FullName(left.First, left.Last) != name {
			continue
		}
		for _, r := range rulings {
			if r.Owner == left.ID && (r.Is.Until == "" || r.Is.Until >= day) {
				return left.ID, r.Is.Words(), nil
			}
		}
	}
	return 0, "", nil
}

// LeftRuled is a ruling for somebody who has left the squad. It holds for whoever of their name
// comes into it, until it is lifted.
type LeftRuled struct {
	Ruling uint64
	Name   string
	Words  string
}

// LeftRulings lists them, as far as they are in force, for who may lift them. It fails with
// ErrForbidden.
func (kp *Keep) LeftRulings(ctx context.Context, by planner.Account, squad uint64) (list []LeftRuled, err error) {
	if err := planner.May(by, planner.ToRule); err != nil {
		return nil, err
	}
	day, err := kp.Today(ctx, by.ClubID)
	if err != nil {
		return nil, err
	}
	ruled, err := kp.people.Ruled(ctx, by.ClubID)
	for _, k := range ruled.Players {
		for _, r := range ruled.Rulings {
			if k.Gone && k.Squad == squad && r.Owner == k.ID && (r.Is.Until == "" || r.Is.Until >= day) {
				list = append(list, LeftRuled{r.ID, plan.Player{First: k.First, Last: k.Last}.Label(), r.Is.Words()})
			}
		}
	}
	return list, err
}

// BringBack lets a player who has left be in the squad again, with what medical staff
// have ruled for them.
func (kp *Keep) BringBack(ctx context.Context, by planner.Account, squad, id uint64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	return kp.people.BringBack(ctx, by, squad, id)
}
