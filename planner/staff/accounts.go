package staff

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"strings"
	"time"

	"cuestart/planner"
	"cuestart/store"
)

// IdleLimit is how long a sign-in is good without being used.
const IdleLimit = 12 * time.Hour

// Staff is who signs in. Its methods may be called concurrently; each takes who asks, and what
// is another club's is not there.
type Staff struct {
	base *planner.Base

	accounts store.Accounts
	clubs    store.Clubs
}

// New is the staff of all clubs.
func New(base *planner.Base, s *store.Store) *Staff {
	return &Staff{base: base, accounts: s.Accounts, clubs: s.Clubs}
}

// Empty tells whether there is no club yet.
func (st *Staff) Empty(ctx context.Context) (bool, error) { return st.clubs.Empty(ctx) }

// AccountByEmail returns the account and what proves it, or ErrNotFound; who is
// suspended or removed is not found.
func (st *Staff) AccountByEmail(ctx context.Context, email string) (planner.Account, planner.Secrets, error) {
	return st.accounts.AccountByEmail(ctx, email)
}

// Speak sets in which language pages speak to who is signed in; "": as to their club.
func (st *Staff) Speak(ctx context.Context, by planner.Account, language string) error {
	if err := planner.May(by, planner.ToSelf); err != nil {
		return err
	}
	return st.accounts.SetLanguage(ctx, by, language)
}

// SignIn writes down that somebody signed in with a browser, and returns what that is
// known by.
func (st *Staff) SignIn(ctx context.Context, who planner.Account, agent string) (uint64, error) {
	return st.accounts.AddSignIn(ctx, who, agent, st.base.Now())
}

// SignInFailed writes down that somebody did not prove to be the owner of an account.
func (st *Staff) SignInFailed(ctx context.Context, who planner.Account) error {
	return st.accounts.Audit(ctx, who, "failed to sign in", "")
}

// SignedIn is who is signed in under an id, or ErrNotFound where that has ended. That
// it is used is noted once a minute.
func (st *Staff) SignedIn(ctx context.Context, id uint64) (planner.Account, error) {
	who, err := st.accounts.SignedIn(ctx, id, st.base.Now().Add(-IdleLimit))
	if err == nil && st.base.Now().Sub(who.Seen) > time.Minute {
		err = st.accounts.Seen(ctx, id, st.base.Now(), false)
	}
	return who, err
}

// Prove tells whether who is signed in has proved lately who they are ([planner.Base.Prove]).
func (st *Staff) Prove(ctx context.Context, who planner.Account) (bool, error) {
	return st.base.Prove(ctx, who)
}

// Proved notes that who is signed in has given their password.
func (st *Staff) Proved(ctx context.Context, who planner.Account) error {
	return st.accounts.Seen(ctx, who.SignIn, st.base.Now(), true)
}

// SignIns lists where an account is signed in, the latest used first.
func (st *Staff) SignIns(ctx context.Context, who planner.Account) ([]planner.SignIn, error) {
	if err := planner.May(who, planner.ToSelf); err != nil {
		return nil, err
	}
	return st.accounts.SignInsOf(ctx, who.ID, st.base.Now().Add(-IdleLimit))
}

// SignOut ends one of an account's sign-ins.
func (st *Staff) SignOut(ctx context.Context, who planner.Account, id uint64) error {
	if err := planner.May(who, planner.ToSelf); err != nil {
		return err
	}
	return st.accounts.EndSignIn(ctx, who.ID, id)
}

// Accounts lists who signs in for the club, the oldest first.
func (st *Staff) Accounts(ctx context.Context, clubID uint64) ([]planner.Account, error) {
	return st.accounts.Accounts(ctx, clubID)
}

// IsHead tells whether the account is the club's head: its oldest coach.
func (st *Staff) IsHead(ctx context.Context, by planner.Account) (bool, error) {
	head, err := st.accounts.Head(ctx, by.ClubID)
	return head == by.ID, err
}

// changes is the act of changing who has a role.
func changes(role planner.Role) planner.Act {
	if role == planner.Medical {
		return planner.ToVouch
	}
	return planner.ToLead
}

// mayChange tells whether an account may change another of its club: coaches change
// coaches and assistants, medical staff change medical staff, and everybody themselves.
func (st *Staff) mayChange(ctx context.Context, by planner.Account, id uint64) (planner.Account, error) {
	all, err := st.accounts.Accounts(ctx, by.ClubID)
	if err != nil {
		return planner.Account{}, err
	}
	for _, a := range all {
		if a.ID != id {
			continue
		}
		if a.ID == by.ID {
			return a, planner.May(by, planner.ToSelf)
		}
		return a, planner.May(by, changes(a.Role))
	}
	return planner.Account{}, planner.ErrNotFound
}

// SetRole makes a coach an assistant, or the other way round. Nobody becomes medical
// staff that way. It fails with ErrForbidden, and with ErrTaken where no coach would
// be left.
func (st *Staff) SetRole(ctx context.Context, by planner.Account, id uint64, role planner.Role) error {
	account, err := st.mayChange(ctx, by, id)
	if err == nil {
		err = planner.May(by, planner.ToLead)
	}
	if err == nil && (account.Role == planner.Medical || role == planner.Medical || role.Name() == "") {
		err = planner.ErrForbidden
	}
	if err != nil {
		return err
	}
	return st.accounts.ChangeAccount(ctx, by.ClubID, id, store.AccountChange{Role: &role}, by, "made "+role.Name())
}

// Suspend lets somebody sign in no more, or again.
func (st *Staff) Suspend(ctx context.Context, by planner.Account, id uint64, suspended bool) error {
	if _, err := st.mayChange(ctx, by, id); err != nil {
		return err
	}
	what := "let in again"
	if suspended {
		what = "suspended"
	}
	return st.accounts.ChangeAccount(ctx, by.ClubID, id, store.AccountChange{Suspended: &suspended}, by, what)
}

// RemoveMember takes somebody's account away.
func (st *Staff) RemoveMember(ctx context.Context, by planner.Account, id uint64) error {
	if _, err := st.mayChange(ctx, by, id); err != nil {
		return err
	}
	return st.accounts.ChangeAccount(ctx, by.ClubID, id, store.AccountChange{Removed: true}, by, "removed a member")
}

// SetPassword sets an account's own password by its hash, and ends its other sign-ins.
func (st *Staff) SetPassword(ctx context.Context, by planner.Account, hash string) error {
	if err := planner.May(by, planner.ToSelf); err != nil {
		return err
	}
	err := st.accounts.ChangeAccount(ctx, by.ClubID, by.ID, store.AccountChange{Password: &hash, Keep: by.SignIn}, by,
		"changed their password")
	return errors.Join(err, st.warn(ctx, by, err, "your password was changed"))
}

// warn sends a letter to an account's owner that something of their sign-in was changed, unless
// that failed.
func (st *Staff) warn(ctx context.Context, who planner.Account, failed error, what string) error {
	if failed != nil {
		return nil
	}
	return st.accounts.Post(ctx, store.Letter{To: who.Email, Subject: "Your sign-in to Cue Start",
		Body: fmt.Sprintf("Hello %s,\n\n%s just now. If that was not you, ask for a new password from the "+
			"sign-in page at once, and tell your club.\n",
			who.Name, what)})
}

// SetFactor sets an account's second factor by its secret, and returns codes that each sign in
// once where the phone is lost; "": none any more.
func (st *Staff) SetFactor(ctx context.Context, by planner.Account, secret string) (codes []string, err error) {
	if err := planner.May(by, planner.ToSelf); err != nil {
		return nil, err
	}
	what, codes := "set a second factor", recoveryCodes()
	if secret == "" {
		what, codes = "took their second factor off", []string{}
	}
	err = st.accounts.ChangeAccount(ctx, by.ClubID, by.ID, store.AccountChange{Factor: &secret, Codes: codes}, by, what)
	told := "a second factor was set"
	if secret == "" {
		told = "your second factor was taken off"
	}
	return codes, errors.Join(err, st.warn(ctx, by, err, told))
}

// RenewRecoveryCodes makes new codes in place of those that there are.
func (st *Staff) RenewRecoveryCodes(ctx context.Context, by planner.Account) (codes []string, err error) {
	if err := planner.May(by, planner.ToSelf); err != nil {
		return nil, err
	}
	if !by.Factor {
		return nil, planner.ErrNothing
	}
	codes = recoveryCodes()
	return codes, st.accounts.ChangeAccount(ctx, by.ClubID, by.ID, store.AccountChange{Codes: codes}, by,
		"made new recovery codes")
}

// RecoveryCodes is how many of an account's codes are not used.
func (st *Staff) RecoveryCodes(ctx context.Context, by planner.Account) (int, error) {
	return st.accounts.RecoveryCodes(ctx, by.ID)
}

// UseRecoveryCode tells whether a code is one of an account's, and uses it up.
func (st *Staff) UseRecoveryCode(ctx context.Context, who planner.Account, code string) (bool, error) {
	return st.accounts.UseRecoveryCode(ctx, who,
		strings.ToUpper(strings.Join(strings.Fields(strings.ReplaceAll(code, "-", "")), "")))
}

// recoveryCodes are ten codes of ten letters and figures, 50 bits each.
func recoveryCodes() (codes []string) {
	for range 10 {
		codes = append(codes, rand.Text()[:10])
	}
	return codes
}

// BrowserKnownFor is how long a browser is known that is not used.
const BrowserKnownFor = 180 * 24 * time.Hour

// KnowBrowser has a browser known as an account's, by a token that it may have already.
func (st *Staff) KnowBrowser(ctx context.Context, who planner.Account, token string) (string, error) {
	return st.accounts.KnowBrowser(ctx, who, token, st.base.Now())
}

// KnowsBrowser tells whether the owner of an e-mail address has signed in with a browser.
func (st *Staff) KnowsBrowser(ctx context.Context, token, email string) (bool, error) {
	return st.accounts.KnowsBrowser(ctx, token, email)
}

// UseFactor tells whether a step of an account's second factor is used for the first
// time.
func (st *Staff) UseFactor(ctx context.Context, id uint64, step int64) (bool, error) {
	return st.accounts.UseFactor(ctx, id, step)
}

// Invite asks somebody to join the staff with a role, for a week: by a letter that
// holds their link, which nobody else sees; origin is how the site is reached. Waits:
// medical staff have to confirm it first. It fails with ErrForbidden where no coach
// asks, or medical staff for another role.
func (st *Staff) Invite(ctx context.Context, by planner.Account, name, email string, role planner.Role,
	origin string) (waits bool, err error) {
	act := planner.ToLead
	if role == planner.Medical {
		act = planner.ToAsk
	}
	if err := planner.May(by, act); err != nil {
		return false, err
	}
	return st.accounts.Invite(ctx, by, name, email, role, st.base.Now(),
		func(token string) store.Letter { return invitation(by, name, email, role, origin, token) })
}

func invitation(by planner.Account, name, email string, role planner.Role, origin, token string) store.Letter {
	return store.Letter{To: email, Subject: fmt.Sprintf("%s invites you to Cue Start", by.ClubName),
		Body: fmt.Sprintf("Hello %s,\n\n%s invites you to join %s as %s. Open this link within a week and "+
			"choose a password:\n\n%s/join/%s\n\nIt is for you alone and works once.\n",
			name, by.Name, by.ClubName, role.Name(), origin, token)}
}

// Confirm lets an invitation of medical staff go out that waits for one of them.
func (st *Staff) Confirm(ctx context.Context, by planner.Account, id uint64, origin string) error {
	if err := planner.May(by, planner.ToVouch); err != nil {
		return err
	}
	return st.accounts.Confirm(ctx, by, id, st.base.Now(), func(i store.Invitation, token string) store.Letter {
		return invitation(by, i.Name, i.Email, i.Role, origin, token)
	})
}

// Invitations lists those that are pending.
func (st *Staff) Invitations(ctx context.Context, clubID uint64) ([]planner.Invitation, error) {
	return st.accounts.Invitations(ctx, clubID, st.base.Now())
}

// WithdrawInvitation ends an invitation before it is used.
func (st *Staff) WithdrawInvitation(ctx context.Context, by planner.Account, id uint64) error {
	if err := planner.May(by, planner.ToAsk); err != nil {
		return err
	}
	return st.accounts.WithdrawInvitation(ctx, by, id)
}

// Invited returns whom a link invites, or ErrNotFound where it is wrong, used or
// over.
func (st *Staff) Invited(ctx context.Context, token string) (planner.Account, error) {
	return st.accounts.Invited(ctx, token, st.base.Now())
}

// Join makes the account of who was invited. It fails with ErrNotFound where the
// link is wrong, used or over, with ErrWaits where medical staff have to confirm it first, and
// with ErrTaken where the e-mail has an account.
func (st *Staff) Join(ctx context.Context, token, passwordHash string) (planner.Account, error) {
	return st.accounts.Join(ctx, token, passwordHash, st.base.Now())
}

// Forgot sends a link to set a new password to the owner of an e-mail address, where
// it has an account; nobody learns whether it does.
func (st *Staff) Forgot(ctx context.Context, email, origin string) error {
	who, _, err := st.accounts.AccountByEmail(ctx, email)
	if errors.Is(err, planner.ErrNotFound) {
		return nil
	} else if err != nil {
		return err
	}
	token, err := st.accounts.AddReset(ctx, who.ID, st.base.Now())
	if err != nil {
		return err
	}
	return errors.Join(st.accounts.Audit(ctx, who, "asked for a new password", ""),
		st.accounts.Post(ctx, store.Letter{To: email, Subject: "A new password for Cue Start",
			Body: fmt.Sprintf("Hello %s,\n\nopen this link within an hour to set a new "+
				"password:\n\n%s/reset/%s\n\nIf you did not ask for it, leave it: your password stays as it is.\n",
				who.Name, origin, token)}))
}

// Resets is whose password a link sets, or ErrNotFound.
func (st *Staff) Resets(ctx context.Context, token string) (planner.Account, error) {
	return st.accounts.Resets(ctx, token, st.base.Now())
}

// Reset sets the password of whom a link resets, by its hash, and returns them. Other links,
// their sign-ins and those that are half done end with the old one.
func (st *Staff) Reset(ctx context.Context, token, hash string) (planner.Account, error) {
	who, err := st.accounts.UseReset(ctx, token, hash, st.base.Now())
	return who, errors.Join(err, st.warn(ctx, who, err, "your password was set by a link"))
}

// Letters are the newest of the outbox, sent or not.
func (st *Staff) Letters(ctx context.Context) ([]planner.Letter, error) {
	return st.accounts.Letters(ctx)
}

// Audit writes down what somebody did.
func (st *Staff) Audit(ctx context.Context, by planner.Account, what, subject string) error {
	return st.accounts.Audit(ctx, by, what, subject)
}

// AuditLog lists what was written down of the club, the latest first, from an entry
// on. It fails with ErrForbidden where not the club's head asks.
func (st *Staff) AuditLog(ctx context.Context, by planner.Account, from int) ([]planner.Audited, error) {
	if head, err := st.IsHead(ctx, by); err != nil || !head {
		return nil, errors.Join(err, planner.ErrForbidden)
	}
	return st.accounts.AuditOf(ctx, by.ClubID, from)
}

// Terms are how long the club keeps what it need not keep.
func (st *Staff) Terms(ctx context.Context, clubID uint64) (planner.Terms, error) {
	return st.accounts.Terms(ctx, clubID)
}

// SetTerms sets them. It fails with ErrForbidden where not the club's head asks.
func (st *Staff) SetTerms(ctx context.Context, by planner.Account, t planner.Terms) error {
	if head, err := st.IsHead(ctx, by); err != nil || !head {
		return errors.Join(err, planner.ErrForbidden)
	}
	return st.accounts.SetTerms(ctx, by, t)
}
