package planner

import (
	"context"
	"errors"

	"cuestart/store"
)

// ErrForbidden is returned where an account's role does not allow something:
// rulings are for medical staff alone, everything else for coaches.
var ErrForbidden = errors.New("your role does not allow this")

// Founding is what the first page asks for: a club, its squad and its coach.
type Founding struct {
	Club, Sport, Squad, Grade string
	Name, Email               string // of the coach, the e-mail in lower case
	PasswordHash              string
}

// Empty tells whether there is no club yet.
func (p *Planner) Empty(ctx context.Context) (bool, error) { return p.store.Empty(ctx) }

// Found makes the first club. It fails with ErrTaken where there is one already.
func (p *Planner) Found(ctx context.Context, f Founding) (Account, error) {
	coach, _, err := p.store.Found(ctx, f.Club, f.Sport, f.Squad, f.Grade, Account{Email: f.Email, Name: f.Name, Role: Coach}, f.PasswordHash)
	return coach, err
}

// Account returns an account, or ErrNotFound.
func (p *Planner) Account(ctx context.Context, id uint64) (Account, error) {
	return p.store.Account(ctx, id)
}

// AccountByEmail returns the account and the hash of its password, or
// ErrNotFound.
func (p *Planner) AccountByEmail(ctx context.Context, email string) (Account, string, error) {
	return p.store.AccountByEmail(ctx, email)
}

// Accounts lists who signs in for the club, the oldest first.
func (p *Planner) Accounts(ctx context.Context, clubID uint64) ([]Account, error) {
	return p.store.Accounts(ctx, clubID)
}

// Invite asks somebody to join the staff with a role, for a week, and returns the
// token of their link. It fails with ErrForbidden where no coach asks.
func (p *Planner) Invite(ctx context.Context, by Account, name, email string, role Role) (token string, err error) {
	if by.Role != store.Coach {
		return "", ErrForbidden
	}
	return p.store.Invite(ctx, by, name, email, role, p.Now())
}

// Invited returns whom a link invites, or ErrNotFound where it is wrong, used or
// over.
func (p *Planner) Invited(ctx context.Context, token string) (Account, error) {
	return p.store.Invited(ctx, token, p.Now())
}

// Join makes the account of who was invited. It fails with ErrNotFound where the
// link is wrong, used or over, and with ErrTaken where the e-mail has an account.
func (p *Planner) Join(ctx context.Context, token, passwordHash string) (Account, error) {
	return p.store.Join(ctx, token, passwordHash, p.Now())
}
