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
	ID        uint64
	ClubID    uint64
	ClubName  string
	Email     string // in lower case
	Name      string
	Role      Role
	Suspended bool
	Factor    bool // a second factor is asked for at sign-in

	// Of who is signed in.
	SignIn      uint64    // this browser's sign-in
	Seen        time.Time // when it was last used
	Proved      time.Time // when the password was last given, or a medical page was used since
	Language    string    // in which pages speak to them, a code such as "es"; "": as to the club
	Clubs       string    // in which they speak to the club; "": English
	NeedsFactor bool      // the club asks medical staff for a second factor, and there is none yet
}

// Secrets are what proves who somebody is.
type Secrets struct {
	PasswordHash string
	Factor       string // base 32; "": none
}

// AccountByEmail returns the account and what proves it, or ErrNotFound; who is
// suspended or removed is not found.
func (s Accounts) AccountByEmail(ctx context.Context, email string) (Account, Secrets, error) {
	row, err := s.queries.AccountByEmail(ctx, email)
	if err != nil {
		return Account{}, Secrets{}, known(err)
	}
	return Account{ID: row.ID, ClubID: row.ClubID, Email: row.Email, Name: row.Name, Role: Role(row.Role),
		Factor: row.Factor != ""}, Secrets{row.PasswordHash, row.Factor}, nil
}

// Accounts lists who signs in for the club, the oldest first, and those suspended.
func (s Accounts) Accounts(ctx context.Context, clubID uint64) ([]Account, error) {
	rows, err := s.queries.Accounts(ctx, clubID)
	accounts := make([]Account, len(rows))
	for i, row := range rows {
		accounts[i] = Account{ID: row.ID, ClubID: clubID, Email: row.Email, Name: row.Name, Role: Role(row.Role),
			Suspended: row.SuspendedAt.Valid, Factor: row.HasFactor}
	}
	return accounts, err
}

// Account is one of a club, whoever may sign in, or ErrNotFound.
func (s Accounts) Account(ctx context.Context, clubID, id uint64) (Account, error) {
	all, err := s.Accounts(ctx, clubID)
	for _, account := range all {
		if account.ID == id {
			return account, err
		}
	}
	return Account{}, errors.Join(err, ErrNotFound)
}

// Head is the id of the club's head: its oldest coach.
func (s Accounts) Head(ctx context.Context, clubID uint64) (uint64, error) {
	id, err := s.queries.HeadOf(ctx, clubID)
	return id, known(err)
}

// AccountChange is what becomes of an account of the club. What is nil stays.
type AccountChange struct {
	Role      *Role
	Suspended *bool
	Removed   bool
	Password  *string // its hash; every sign-in but keep ends
	Keep      uint64
	Factor    *string  // its secret; "": none any more
	Codes     []string // recovery codes in place of those that there are; nil: they stay
}

// ChangeAccount changes an account of a club. It fails with ErrNotFound, and with
// ErrTaken where the club would be left without a coach.
func (s Accounts) ChangeAccount(ctx context.Context, clubID, id uint64, c AccountChange, by Account,
	what string) error {
	return s.within(ctx, func(q *db.Queries) error {
		row, err := q.AccountForUpdate(ctx, db.AccountForUpdateParams{ID: id, ClubID: clubID})
		if err != nil {
			return known(err)
		}
		goes := c.Removed || c.Suspended != nil && *c.Suspended || c.Role != nil && *c.Role != Coach
		if Role(row.Role) == Coach && goes {
			if n, err := q.CountRole(ctx, db.CountRoleParams{ClubID: clubID, Role: string(Coach)}); err != nil ||
				n < 2 {
				return errors.Join(err, ErrTaken)
			}
		}
		var done []error
		if c.Role != nil {
			done = append(done, q.SetRole(ctx, db.SetRoleParams{Role: string(*c.Role), ID: id}))
		}
		if c.Suspended != nil {
			done = append(done, q.Suspend(ctx, db.SuspendParams{SuspendedAt: moment(*c.Suspended), ID: id}))
		}
		if c.Password != nil {
			done = append(done, q.SetPassword(ctx, db.SetPasswordParams{PasswordHash: *c.Password, ID: id}),
				q.EndResetsOf(ctx, id))
		}
		if c.Codes != nil {
			done = append(done, q.DropRecoveryCodes(ctx, id))
			for _, code := range c.Codes {
				done = append(done, q.AddRecoveryCode(ctx, db.AddRecoveryCodeParams{AccountID: id,
					CodeHash: hashOf(code)}))
			}
		}
		if c.Factor != nil {
			done = append(done, q.SetFactor(ctx, db.SetFactorParams{Factor: *c.Factor, ID: id}))
		}
		if c.Removed || c.Password != nil || c.Suspended != nil && *c.Suspended {
			done = append(done, q.EndSignedInsOf(ctx, db.EndSignedInsOfParams{AccountID: id, ID: c.Keep}))
		}
		if c.Removed {
			done = append(done, q.RemoveAccount(ctx, id), q.EndResetsOf(ctx, id), q.DropRecoveryCodes(ctx, id),
				q.ForgetBrowsersOf(ctx, id))
		}
		return errors.Join(append(done, audit(ctx, q, by, what, row.Name))...)
	})
}

// UseFactor marks a step of the second factor as used; false where it was.
func (s Accounts) UseFactor(ctx context.Context, id uint64, step int64) (bool, error) {
	n, err := s.queries.UseFactorStep(ctx, db.UseFactorStepParams{FactorStep: step, ID: id, FactorStep_2: step})
	return n > 0, err
}

// SignIn is a browser that is signed in.
type SignIn struct {
	ID         uint64
	Agent      string
	Made, Seen time.Time
}

// AddSignIn writes down that somebody signed in.
func (s Accounts) AddSignIn(ctx context.Context, who Account, agent string, now time.Time) (id uint64, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		now = now.UTC()
		made, err := q.AddSignedIn(ctx, db.AddSignedInParams{AccountID: who.ID, Agent: cut(agent, 120), MadeAt: now,
			SeenAt: now, ProvedAt: now})
		id = uint64(made)
		return errors.Join(err, audit(ctx, q, who, "signed in", ""))
	})
	return id, err
}

// SignedIn is who is signed in, or ErrNotFound where the sign-in ended, was not used
// since, or its account may sign in no more.
func (s Accounts) SignedIn(ctx context.Context, id uint64, since time.Time) (Account, error) {
	row, err := s.queries.SignedIn(ctx, db.SignedInParams{ID: id, SeenAt: since.UTC()})
	if err != nil {
		return Account{}, known(err)
	}
	return Account{ID: row.ID, ClubID: row.ClubID, ClubName: row.ClubName, Email: row.Email, Name: row.Name,
		Role: Role(row.Role), Factor: row.HasFactor, Language: row.Language, Clubs: row.ClubLanguage,
		SignIn: row.SignIn, Seen: row.SeenAt, Proved: row.ProvedAt,
		NeedsFactor: Role(row.Role) == Medical && row.MedicalFactor && !row.HasFactor}, nil
}

// Seen notes that a sign-in is used; proved, that its owner has proved who they are.
func (s Accounts) Seen(ctx context.Context, id uint64, now time.Time, proved bool) error {
	if proved {
		return s.queries.SignedInProved(ctx, db.SignedInProvedParams{ProvedAt: now.UTC(), SeenAt: now.UTC(), ID: id})
	}
	return s.queries.SignedInSeen(ctx, db.SignedInSeenParams{SeenAt: now.UTC(), ID: id})
}

// SetLanguage sets in which language pages speak to who is signed in; "": as to their club.
func (s Accounts) SetLanguage(ctx context.Context, who Account, language string) error {
	return s.queries.SetLanguage(ctx, db.SetLanguageParams{Language: language, ID: who.ID})
}

// SignInsOf lists where an account is signed in, the latest used first.
func (s Accounts) SignInsOf(ctx context.Context, account uint64, since time.Time) ([]SignIn, error) {
	rows, err := s.queries.SignedInsOf(ctx, db.SignedInsOfParams{AccountID: account, SeenAt: since.UTC()})
	list := make([]SignIn, len(rows))
	for i, row := range rows {
		list[i] = SignIn{ID: row.ID, Agent: row.Agent, Made: row.MadeAt, Seen: row.SeenAt}
	}
	return list, err
}

// EndSignIn ends one of an account's sign-ins.
func (s Accounts) EndSignIn(ctx context.Context, account, id uint64) error {
	_, err := s.queries.EndSignedIn(ctx, db.EndSignedInParams{ID: id, AccountID: account})
	return err
}

// AddReset makes a link by which an account's owner sets a new password, for an hour.
func (s Accounts) AddReset(ctx context.Context, account uint64, now time.Time) (token string, err error) {
	token = newToken()
	return token, s.queries.AddReset(ctx, db.AddResetParams{TokenHash: hashOf(token), AccountID: account,
		ExpiresAt: now.UTC().Add(time.Hour)})
}

// Resets is whose password a link sets, or ErrNotFound where it is wrong, used or over.
func (s Accounts) Resets(ctx context.Context, token string, now time.Time) (Account, error) {
	row, err := s.queries.Reset(ctx, hashOf(token))
	if err == nil && (row.UsedAt.Valid || !now.Before(row.ExpiresAt)) {
		err = ErrNotFound
	}
	return Account{ID: row.AccountID, ClubID: row.ClubID, Email: row.Email, Name: row.Name}, known(err)
}

// UseReset sets the password of whom a link resets, and ends their sign-ins and their other
// links.
func (s Accounts) UseReset(ctx context.Context, token, hash string, now time.Time) (Account, error) {
	who, err := s.Resets(ctx, token, now)
	if err != nil {
		return who, err
	}
	return who, s.within(ctx, func(q *db.Queries) error {
		if n, err := q.UseReset(ctx, db.UseResetParams{UsedAt: moment(true), TokenHash: hashOf(token)}); err != nil ||
			n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return errors.Join(q.SetPassword(ctx, db.SetPasswordParams{PasswordHash: hash, ID: who.ID}),
			q.EndSignedInsOf(ctx, db.EndSignedInsOfParams{AccountID: who.ID}), q.EndResetsOf(ctx, who.ID),
			audit(ctx, q, who, "set a new password", "by a link"))
	})
}

// UseRecoveryCode tells whether a code is one of an account's that was not used, and uses it.
func (s Accounts) UseRecoveryCode(ctx context.Context, who Account, code string) (used bool, err error) {
	err = s.within(ctx, func(q *db.Queries) error {
		n, err := q.UseRecoveryCode(ctx, db.UseRecoveryCodeParams{AccountID: who.ID, CodeHash: hashOf(code)})
		if used = n > 0; err != nil || !used {
			return err
		}
		return audit(ctx, q, who, "used a recovery code", "")
	})
	return used, err
}

// RecoveryCodes is how many of an account's are not used.
func (s Accounts) RecoveryCodes(ctx context.Context, account uint64) (int, error) {
	n, err := s.queries.CountRecoveryCodes(ctx, account)
	return int(n), err
}

// KnowBrowser keeps that an account's owner has signed in with a browser, which has a token of
// ours or gets one: none that somebody else has given it.
func (s Accounts) KnowBrowser(ctx context.Context, who Account, token string, now time.Time) (string, error) {
	known := int64(0)
	if isToken(token) {
		var err error
		if known, err = s.queries.IsKnownBrowser(ctx, hashOf(token)); err != nil {
			return "", err
		}
	}
	if known == 0 {
		token = newToken()
	}
	return token, s.queries.KnowBrowser(ctx, db.KnowBrowserParams{TokenHash: hashOf(token), AccountID: who.ID,
		SeenAt: now.UTC()})
}

// KnowsBrowser tells whether the owner of an e-mail address has signed in with a browser.
func (s Accounts) KnowsBrowser(ctx context.Context, token, email string) (bool, error) {
	if !isToken(token) {
		return false, nil
	}
	n, err := s.queries.KnowsBrowser(ctx, db.KnowsBrowserParams{TokenHash: hashOf(token), Email: email})
	return n > 0, err
}

func hashOf(token string) string { return fmt.Sprintf("%x", sha256.Sum256([]byte(token))) }
