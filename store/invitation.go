package store

import (
	"context"
	"errors"
	"time"

	"cuestart/store/db"
)

// invitedFor is how long an invitation is good.
const invitedFor = 7 * 24 * time.Hour

// Invitation is somebody who was asked to join the staff, and has not yet.
type Invitation struct {
	ID      uint64
	Name    string
	Email   string
	Role    Role
	Expires time.Time
	Waits   bool // for medical staff to confirm it
}

// Letter is a message to somebody, which waits in the outbox until it is sent.
type Letter struct {
	ID            uint64
	To            string
	Subject, Body string
	Made          time.Time
	Sent          bool
}

// Invite asks somebody to join the staff with a role, for a week. Write makes the
// letter to them of the token of their link, which is kept only as a hash and which
// nobody else sees. Where the role is medical and the club has medical staff, it
// waits until one of them confirms it.
func (s Accounts) Invite(ctx context.Context, by Account, name, email string, role Role, now time.Time,
	write func(token string) Letter) (waits bool, err error) {
	token := newToken()
	err = s.within(ctx, func(q *db.Queries) error {
		vouched := role == Medical && by.Role == Medical
		if role == Medical && !vouched {
			n, err := q.CountRole(ctx, db.CountRoleParams{ClubID: by.ClubID, Role: string(Medical)})
			if err != nil {
				return err
			}
			waits = n > 0
		}
		err := q.AddInvitation(ctx, db.AddInvitationParams{TokenHash: hashOf(token), ClubID: by.ClubID, Name: name,
			Email: email,
			Role:  string(role), MadeBy: by.ID, ExpiresAt: now.UTC().Add(invitedFor), Waits: waits, Vouched: vouched})
		if err == nil && !waits {
			err = addLetter(ctx, q, write(token))
		}
		return errors.Join(err, audit(ctx, q, by, "invited "+role.Name(), name+", "+email))
	})
	return waits, err
}

// Confirm lets an invitation that waits for medical staff go out.
func (s Accounts) Confirm(ctx context.Context, by Account, id uint64, now time.Time,
	write func(i Invitation, token string) Letter) error {
	token := newToken()
	return s.within(ctx, func(q *db.Queries) error {
		row, err := q.InvitationByID(ctx, db.InvitationByIDParams{ID: id, ClubID: by.ClubID})
		if err != nil {
			return known(err)
		}
		n, err := q.ConfirmInvitation(ctx, db.ConfirmInvitationParams{TokenHash: hashOf(token),
			ExpiresAt: now.UTC().Add(invitedFor), ID: id, ClubID: by.ClubID})
		if err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		invitation := Invitation{ID: id, Name: row.Name, Email: row.Email, Role: Role(row.Role)}
		return errors.Join(addLetter(ctx, q, write(invitation, token)),
			audit(ctx, q, by, "confirmed an invitation", row.Name+", "+row.Email))
	})
}

// Invitations lists those that are pending.
func (s Accounts) Invitations(ctx context.Context, clubID uint64, now time.Time) ([]Invitation, error) {
	rows, err := s.queries.Invitations(ctx, db.InvitationsParams{ClubID: clubID, ExpiresAt: now.UTC()})
	list := make([]Invitation, len(rows))
	for i, row := range rows {
		list[i] = Invitation{ID: row.ID, Name: row.Name, Email: row.Email, Role: Role(row.Role), Expires: row.ExpiresAt,
			Waits: row.Waits}
	}
	return list, err
}

// WithdrawInvitation ends an invitation before it is used.
func (s Accounts) WithdrawInvitation(ctx context.Context, by Account, id uint64) error {
	return s.within(ctx, func(q *db.Queries) error {
		row, err := q.InvitationByID(ctx, db.InvitationByIDParams{ID: id, ClubID: by.ClubID})
		if err != nil {
			return known(err)
		}
		n, err := q.WithdrawInvitation(ctx, db.WithdrawInvitationParams{ID: id, ClubID: by.ClubID})
		if err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return audit(ctx, q, by, "withdrew an invitation", row.Name+", "+row.Email)
	})
}

// Invited returns whom a link invites, or ErrNotFound where it is wrong, used,
// withdrawn or over.
func (s Accounts) Invited(ctx context.Context, token string, now time.Time) (Account, error) {
	row, err := s.queries.Invitation(ctx, hashOf(token))
	if err == nil && (row.UsedAt.Valid || row.WithdrawnAt.Valid || row.Waits || !now.Before(row.ExpiresAt)) {
		err = ErrNotFound
	}
	return Account{ClubID: row.ClubID, ClubName: row.ClubName, Email: row.Email, Name: row.Name, Role: Role(row.Role)},
		known(err)
}

// unvouched tells whether an invitation is for medical staff of a club that has some, none of
// whom has invited or confirmed it.
func unvouched(ctx context.Context, q *db.Queries, clubID uint64, token string) (bool, error) {
	row, err := q.Invitation(ctx, hashOf(token))
	if err != nil || Role(row.Role) != Medical || row.Vouched {
		return false, known(err)
	}
	n, err := q.CountRole(ctx, db.CountRoleParams{ClubID: clubID, Role: string(Medical)})
	return n > 0, err
}

// mustWait has an invitation wait for medical staff, where the club has some by now and none
// of them knows of it.
func (s Accounts) mustWait(ctx context.Context, clubID uint64, token string) (waits bool, err error) {
	if waits, err = unvouched(ctx, s.queries, clubID, token); err == nil && waits {
		err = s.queries.InvitationWaits(ctx, hashOf(token))
	}
	return waits, err
}

// Join makes the account of who was invited. It fails with ErrNotFound where the
// link is wrong, used or over, with ErrWaits where medical staff have to confirm it by now, and
// with ErrTaken where the e-mail has an account.
func (s Accounts) Join(ctx context.Context, token, passwordHash string, now time.Time) (account Account, err error) {
	account, err = s.Invited(ctx, token, now)
	if err != nil {
		return account, err
	}
	if waits, err := s.mustWait(ctx, account.ClubID, token); err != nil {
		return Account{}, err
	} else if waits {
		return Account{}, ErrWaits
	}
	err = s.within(ctx, func(q *db.Queries) error {
		if account.Role == Medical { // decided here, whatever was so when they were invited
			if _, err := q.LockClub(ctx, account.ClubID); err != nil {
				return known(err)
			}
			if waits, err := unvouched(ctx, q, account.ClubID, token); err != nil {
				return err
			} else if waits {
				return ErrWaits
			}
		}
		if n, err := q.UseInvitation(ctx, db.UseInvitationParams{TokenHash: hashOf(token),
			ExpiresAt: now}); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		id, err := q.AddAccount(ctx, db.AddAccountParams{ClubID: account.ClubID, Email: account.Email,
			Name: account.Name, Role: string(account.Role), PasswordHash: passwordHash})
		account.ID = uint64(id)
		if err != nil {
			return known(err)
		}
		return audit(ctx, q, account, "joined as "+account.Role.Name(), "")
	})
	return account, err
}

// Post puts a letter into the outbox.
func (s Accounts) Post(ctx context.Context, letter Letter) error {
	return addLetter(ctx, s.queries, letter)
}

func addLetter(ctx context.Context, q *db.Queries, l Letter) error {
	return q.AddLetter(ctx, db.AddLetterParams{Recipient: l.To, Subject: l.Subject, Body: l.Body})
}

// Letters are the newest of the outbox, sent or not.
func (s Accounts) Letters(ctx context.Context) ([]Letter, error) {
	rows, err := s.queries.Letters(ctx)
	list := make([]Letter, len(rows))
	for i, row := range rows {
		list[i] = Letter{ID: row.ID, To: row.Recipient, Subject: row.Subject, Body: row.Body, Made: row.MadeAt,
			Sent: row.SentAt.Valid}
	}
	return list, err
}

// Deliver hands the letters that wait to send, and notes which went out. One that
// cannot be sent waits for the next time, ten times.
func (s Accounts) Deliver(ctx context.Context, send func(context.Context, Letter) error) error {
	rows, err := s.queries.UnsentLetters(ctx)
	if err != nil {
		return err
	}
	var failed []error
	for _, row := range rows {
		if err := send(ctx, Letter{ID: row.ID, To: row.Recipient, Subject: row.Subject, Body: row.Body}); err != nil {
			failed = append(failed, err, s.queries.LetterTried(ctx, row.ID))
			continue
		}
		failed = append(failed, s.queries.LetterSent(ctx, row.ID))
	}
	return errors.Join(failed...)
}
