package store

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"time"

	"cuestart/store/db"
)

// Role is what an account may do.
type Role string

// The roles.
const (
	Coach     Role = "coach"
	Assistant Role = "assistant"
	Medical   Role = "medical"
)

var roleNames = map[Role]string{Coach: "coach", Assistant: "assistant", Medical: "medical staff"}

// Name is the role as a coach says it; "" where there is no such role.
func (r Role) Name() string { return roleNames[r] }

// Account is somebody of a club who signs in.
type Account struct {
	ID       uint64
	ClubID   uint64
	ClubName string
	Email    string // in lower case
	Name     string
	Role     Role
}

// Squad is a team of a club.
type Squad struct {
	ID    uint64
	Name  string
	Grade string // junior, club or elite
}

// Empty tells whether the database has no club yet.
func (s *Store) Empty(ctx context.Context) (bool, error) {
	n, err := s.queries.CountClubs(ctx)
	return n == 0, err
}

// Found makes a club, its first squad and its first coach. Only the first club
// of a database can be made so; later ones fail with ErrTaken, also when two
// ask at once.
func (s *Store) Found(ctx context.Context, club, sport, squad, grade string, coach Account, passwordHash string) (account Account, squadID uint64, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		// One after the other, so that only one can be first.
		if err := q.LockFounding(ctx); err != nil {
			return err
		}
		if n, err := q.CountClubs(ctx); err != nil || n > 0 {
			if err == nil {
				err = ErrTaken
			}
			return err
		}
		clubID, err := q.AddClub(ctx, db.AddClubParams{Name: club, Sport: sport})
		if err != nil {
			return err
		}
		id, err := q.AddAccount(ctx, db.AddAccountParams{ClubID: uint64(clubID), Email: coach.Email, Name: coach.Name, Role: string(coach.Role), PasswordHash: passwordHash})
		if err != nil {
			return known(err)
		}
		first, err := q.AddSquad(ctx, db.AddSquadParams{ClubID: uint64(clubID), Name: squad, Grade: grade})
		squadID = uint64(first)
		account = coach
		account.ID, account.ClubID, account.ClubName = uint64(id), uint64(clubID), club
		return err
	})
	return account, squadID, err
}

// AccountByEmail returns the account and the hash of its password, or
// ErrNotFound.
func (s *Store) AccountByEmail(ctx context.Context, email string) (Account, string, error) {
	row, err := s.queries.AccountByEmail(ctx, email)
	if err != nil {
		return Account{}, "", known(err)
	}
	return Account{ID: row.ID, ClubID: row.ClubID, Email: row.Email, Name: row.Name, Role: Role(row.Role)}, row.PasswordHash, nil
}

// Account returns an account, or ErrNotFound.
func (s *Store) Account(ctx context.Context, id uint64) (Account, error) {
	row, err := s.queries.Account(ctx, id)
	if err != nil {
		return Account{}, known(err)
	}
	return Account{ID: row.ID, ClubID: row.ClubID, ClubName: row.ClubName, Email: row.Email, Name: row.Name, Role: Role(row.Role)}, nil
}

// Squads lists the squads of a club, the oldest first.
func (s *Store) Squads(ctx context.Context, clubID uint64) ([]Squad, error) {
	rows, err := s.queries.Squads(ctx, clubID)
	squads := make([]Squad, len(rows))
	for i, row := range rows {
		squads[i] = Squad{row.ID, row.Name, row.Grade}
	}
	return squads, err
}

// AddSquad makes a further squad of a club.
func (s *Store) AddSquad(ctx context.Context, clubID uint64, name, grade string) (uint64, error) {
	id, err := s.queries.AddSquad(ctx, db.AddSquadParams{ClubID: clubID, Name: name, Grade: grade})
	return uint64(id), known(err)
}

// Squad returns a squad of the club, or ErrNotFound.
func (s *Store) Squad(ctx context.Context, clubID, id uint64) (Squad, error) {
	row, err := s.queries.Squad(ctx, db.SquadParams{ID: id, ClubID: clubID})
	return Squad{row.ID, row.Name, row.Grade}, known(err)
}

// Sport is the key or name of the club's sport, as it was founded.
func (s *Store) Sport(ctx context.Context, clubID uint64) (string, error) {
	row, err := s.queries.Club(ctx, clubID)
	return row.Sport, known(err)
}

// BookEdition counts the changes of the club's drills and sport.
func (s *Store) BookEdition(ctx context.Context, clubID uint64) (uint32, error) {
	edition, err := s.queries.BookEdition(ctx, clubID)
	return edition, known(err)
}

// Accounts lists who signs in for the club, the oldest first.
func (s *Store) Accounts(ctx context.Context, clubID uint64) ([]Account, error) {
	rows, err := s.queries.Accounts(ctx, clubID)
	accounts := make([]Account, len(rows))
	for i, row := range rows {
		accounts[i] = Account{ID: row.ID, ClubID: clubID, Email: row.Email, Name: row.Name, Role: Role(row.Role)}
	}
	return accounts, err
}

// Invite asks somebody to join the staff with a role, for a week. It returns
// the token of their link, which is kept only as a hash.
func (s *Store) Invite(ctx context.Context, by Account, name, email string, role Role, now time.Time) (token string, err error) {
	token = newToken()
	return token, s.queries.AddInvitation(ctx, db.AddInvitationParams{TokenHash: hashOf(token), ClubID: by.ClubID, Name: name, Email: email,
		Role: string(role), MadeBy: by.ID, ExpiresAt: now.UTC().Add(7 * 24 * time.Hour)})
}

func hashOf(token string) string { return fmt.Sprintf("%x", sha256.Sum256([]byte(token))) }

// Invited returns whom a link invites, or ErrNotFound where it is wrong, used
// or over.
func (s *Store) Invited(ctx context.Context, token string, now time.Time) (Account, error) {
	row, err := s.queries.Invitation(ctx, hashOf(token))
	if err == nil && (row.UsedAt.Valid || !now.Before(row.ExpiresAt)) {
		err = ErrNotFound
	}
	return Account{ClubID: row.ClubID, ClubName: row.ClubName, Email: row.Email, Name: row.Name, Role: Role(row.Role)}, known(err)
}

// Join makes the account of who was invited. It fails with ErrNotFound where the
// link is wrong, used or over, and with ErrTaken where the e-mail has an account.
func (s *Store) Join(ctx context.Context, token, passwordHash string, now time.Time) (account Account, err error) {
	account, err = s.Invited(ctx, token, now)
	if err != nil {
		return account, err
	}
	err = s.within(ctx, func(q *db.Queries) error {
		if n, err := q.UseInvitation(ctx, hashOf(token)); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		id, err := q.AddAccount(ctx, db.AddAccountParams{ClubID: account.ClubID, Email: account.Email, Name: account.Name, Role: string(account.Role), PasswordHash: passwordHash})
		account.ID = uint64(id)
		return known(err)
	})
	return account, err
}
