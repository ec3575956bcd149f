package planner

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"strings"
	"time"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/measure"
	"cuestart/store"
)

// ErrForbidden is returned where an account's role does not allow something:
// rulings are for medical staff alone, everything else for coaches.
var ErrForbidden = errors.New("your role does not allow this")

// ErrUnproved is returned where the password has to be given again first.
var ErrUnproved = errors.New("the password has to be given again")

// How long a sign-in is good without being used, and without the password where it
// is about rulings.
const (
	IdleLimit    = 12 * time.Hour
	MedicalLimit = 30 * time.Minute
)

// Founding is what the first page asks for: a club, its squad and its coach.
type Founding struct {
	Club, Sport, Squad, Grade string
	Name, Email               string // of the coach, the e-mail in lower case
	PasswordHash              string
	Zone                      string // of its time, an IANA name; "": not said
	Units                     string // m, yd or ft; "": what is usual where it is
	Language                  string // in which pages speak to it, such as "es"; "": English
}

// Empty tells whether there is no club yet.
func (p *Planner) Empty(ctx context.Context) (bool, error) { return p.store.Empty(ctx) }

// Found makes the first club. It fails with ErrTaken where there is one already.
func (p *Planner) Found(ctx context.Context, f Founding) (Account, error) {
	coach, squad, err := p.store.Found(ctx, f.Club, f.Sport, f.Squad, f.Grade, Account{Email: f.Email, Name: f.Name, Role: Coach}, f.PasswordHash)
	if err != nil {
		return coach, err
	}
	if f.Language != "" {
		terms, err := p.store.Terms(ctx, coach.ClubID)
		if terms.Language = f.Language; err == nil {
			err = p.store.SetTerms(ctx, coach, terms)
		}
		if err != nil {
			return coach, err
		}
	}
	// Who founds a club leads in it, and has a leader's page, until somebody says otherwise.
	ids, err := p.Save(ctx, coach, "the club begins", Change{Is: club.Staff{Name: f.Name, Role: "coach", Leads: true}}, Change{Is: club.Venue{Name: "Home", TimeZone: f.zone()}})
	plays, ok := book.Sport(f.Sport)
	if units := f.units(plays.System); err == nil && ok && units != plays.System {
		plays.System = units
		err = p.SaveSport(ctx, coach, plays, 0)
	}
	if err == nil {
		err = p.UsualZones(ctx, coach, ids[1])
	}
	var targets []Change
	for _, t := range plays.Targets {
		targets = append(targets, Change{Is: club.Target{Squad: squad, Region: t.Region, Quality: t.Quality, Hard: t.Hard, Days: t.Days, AtMost: t.AtMost}})
	}
	if err == nil && len(targets) > 0 {
		_, err = p.Save(ctx, coach, "targets of a week to begin with", targets...)
	}
	return coach, err
}

// zone is the club's time zone; where none is known, coordinated universal time.
func (f Founding) zone() string {
	if _, err := time.LoadLocation(f.Zone); err != nil || f.Zone == "" || f.Zone == "Local" {
		return "UTC"
	}
	return f.Zone
}

// units are what the club says lengths, air and wind in: as was said, else as the sport has it,
// else as is usual where the club is.
func (f Founding) units(of measure.System) measure.System {
	usual := measure.Usual(f.Zone)
	switch f.Units {
	case "m":
		return measure.System{}
	case "yd", "ft":
		usual.Yards, usual.Feet = f.Units == "yd", f.Units == "ft"
	case "":
		usual.Yards = usual.Yards || of.Yards
	}
	return usual
}

// AccountByEmail returns the account and what proves it, or ErrNotFound; who is
// suspended or removed is not found.
func (p *Planner) AccountByEmail(ctx context.Context, email string) (Account, Secrets, error) {
	return p.store.AccountByEmail(ctx, email)
}

// Speak sets in which language pages speak to who is signed in; "": as to their club.
func (p *Planner) Speak(ctx context.Context, by Account, language string) error {
	if err := May(by, ToSelf); err != nil {
		return err
	}
	return p.store.SetLanguage(ctx, by, language)
}

// SignIn writes down that somebody signed in with a browser, and returns what that is
// known by.
func (p *Planner) SignIn(ctx context.Context, who Account, agent string) (uint64, error) {
	return p.store.AddSignIn(ctx, who, agent, p.Now())
}

// SignInFailed writes down that somebody did not prove to be the owner of an account.
func (p *Planner) SignInFailed(ctx context.Context, who Account) error {
	return p.store.Audit(ctx, who, "failed to sign in", "")
}

// SignedIn is who is signed in under an id, or ErrNotFound where that has ended. That
// it is used is noted once a minute.
func (p *Planner) SignedIn(ctx context.Context, id uint64) (Account, error) {
	who, err := p.store.SignedIn(ctx, id, p.Now().Add(-IdleLimit))
	if err == nil && p.Now().Sub(who.Seen) > time.Minute {
		err = p.store.Seen(ctx, id, p.Now(), false)
	}
	return who, err
}

// Prove tells whether who is signed in has proved lately enough who they are, to see
// and make rulings; using what it is asked for counts as that.
func (p *Planner) Prove(ctx context.Context, who Account) (bool, error) {
	since := p.Now().Sub(who.Proved)
	if since > MedicalLimit {
		return false, nil
	}
	if since > time.Minute {
		return true, p.Proved(ctx, who)
	}
	return true, nil
}

// Proved notes that who is signed in has given their password.
func (p *Planner) Proved(ctx context.Context, who Account) error {
	return p.store.Seen(ctx, who.SignIn, p.Now(), true)
}

// SignIns lists where an account is signed in, the latest used first.
func (p *Planner) SignIns(ctx context.Context, who Account) ([]SignIn, error) {
	if err := May(who, ToSelf); err != nil {
		return nil, err
	}
	return p.store.SignInsOf(ctx, who.ID, p.Now().Add(-IdleLimit))
}

// SignOut ends one of an account's sign-ins.
func (p *Planner) SignOut(ctx context.Context, who Account, id uint64) error {
	if err := May(who, ToSelf); err != nil {
		return err
	}
	return p.store.EndSignIn(ctx, who.ID, id)
}

// Accounts lists who signs in for the club, the oldest first.
func (p *Planner) Accounts(ctx context.Context, clubID uint64) ([]Account, error) {
	return p.store.Accounts(ctx, clubID)
}

// IsHead tells whether the account is the club's head: its oldest coach.
func (p *Planner) IsHead(ctx context.Context, by Account) (bool, error) {
	head, err := p.store.Head(ctx, by.ClubID)
	return head == by.ID, err
}

// changes is the act of changing who has a role.
func changes(role Role) Act {
	if role == Medical {
		return ToVouch
	}
	return ToLead
}

// mayChange tells whether an account may change another of its club: coaches change
// coaches and assistants, medical staff change medical staff, and everybody themselves.
func (p *Planner) mayChange(ctx context.Context, by Account, id uint64) (Account, error) {
	all, err := p.store.Accounts(ctx, by.ClubID)
	if err != nil {
		return Account{}, err
	}
	for _, a := range all {
		if a.ID != id {
			continue
		}
		if a.ID == by.ID {
			return a, May(by, ToSelf)
		}
		return a, May(by, changes(a.Role))
	}
	return Account{}, ErrNotFound
}

// SetRole makes a coach an assistant, or the other way round. Nobody becomes medical
// staff that way. It fails with ErrForbidden, and with ErrTaken where no coach would
// be left.
func (p *Planner) SetRole(ctx context.Context, by Account, id uint64, role Role) error {
	is, err := p.mayChange(ctx, by, id)
	if err == nil {
		err = May(by, ToLead)
	}
	if err == nil && (is.Role == Medical || role == Medical || role.Name() == "") {
		err = ErrForbidden
	}
	if err != nil {
		return err
	}
	return p.store.ChangeAccount(ctx, by.ClubID, id, store.AccountChange{Role: &role}, by, "made "+role.Name())
}

// Suspend lets somebody sign in no more, or again.
func (p *Planner) Suspend(ctx context.Context, by Account, id uint64, suspended bool) error {
	if _, err := p.mayChange(ctx, by, id); err != nil {
		return err
	}
	what := "let in again"
	if suspended {
		what = "suspended"
	}
	return p.store.ChangeAccount(ctx, by.ClubID, id, store.AccountChange{Suspended: &suspended}, by, what)
}

// RemoveMember takes somebody's account away.
func (p *Planner) RemoveMember(ctx context.Context, by Account, id uint64) error {
	if _, err := p.mayChange(ctx, by, id); err != nil {
		return err
	}
	return p.store.ChangeAccount(ctx, by.ClubID, id, store.AccountChange{Removed: true}, by, "removed a member")
}

// SetPassword sets an account's own password by its hash, and ends its other sign-ins.
func (p *Planner) SetPassword(ctx context.Context, by Account, hash string) error {
	if err := May(by, ToSelf); err != nil {
		return err
	}
	err := p.store.ChangeAccount(ctx, by.ClubID, by.ID, store.AccountChange{Password: &hash, Keep: by.SignIn}, by, "changed their password")
	return errors.Join(err, p.warn(ctx, by, err, "your password was changed"))
}

// warn sends a letter to an account's owner that something of their sign-in was changed, unless
// that failed.
func (p *Planner) warn(ctx context.Context, who Account, failed error, what string) error {
	if failed != nil {
		return nil
	}
	return p.store.Post(ctx, store.Letter{To: who.Email, Subject: "Your sign-in to Cue Start", Body: fmt.Sprintf("Hello %s,\n\n%s just now. If that was not you, ask for a new password from the sign-in page at once, and tell your club.\n", who.Name, what)})
}

// SetFactor sets an account's second factor by its secret, and returns codes that each sign in
// once where the phone is lost; "": none any more.
func (p *Planner) SetFactor(ctx context.Context, by Account, secret string) (codes []string, err error) {
	if err := May(by, ToSelf); err != nil {
		return nil, err
	}
	what, codes := "set a second factor", recoveryCodes()
	if secret == "" {
		what, codes = "took their second factor off", []string{}
	}
	err = p.store.ChangeAccount(ctx, by.ClubID, by.ID, store.AccountChange{Factor: &secret, Codes: codes}, by, what)
	return codes, errors.Join(err, p.warn(ctx, by, err, map[bool]string{true: "your second factor was taken off", false: "a second factor was set"}[secret == ""]))
}

// RenewRecoveryCodes makes new codes in place of those that there are.
func (p *Planner) RenewRecoveryCodes(ctx context.Context, by Account) (codes []string, err error) {
	if err := May(by, ToSelf); err != nil {
		return nil, err
	}
	if !by.Factor {
		return nil, ErrNothing
	}
	codes = recoveryCodes()
	return codes, p.store.ChangeAccount(ctx, by.ClubID, by.ID, store.AccountChange{Codes: codes}, by, "made new recovery codes")
}

// RecoveryCodes is how many of an account's codes are not used.
func (p *Planner) RecoveryCodes(ctx context.Context, by Account) (int, error) {
	return p.store.RecoveryCodes(ctx, by.ID)
}

// UseRecoveryCode tells whether a code is one of an account's, and uses it up.
func (p *Planner) UseRecoveryCode(ctx context.Context, who Account, code string) (bool, error) {
	return p.store.UseRecoveryCode(ctx, who, strings.ToUpper(strings.Join(strings.Fields(strings.ReplaceAll(code, "-", "")), "")))
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
func (p *Planner) KnowBrowser(ctx context.Context, who Account, token string) (string, error) {
	return p.store.KnowBrowser(ctx, who, token, p.Now())
}

// KnowsBrowser tells whether the owner of an e-mail address has signed in with a browser.
func (p *Planner) KnowsBrowser(ctx context.Context, token, email string) (bool, error) {
	return p.store.KnowsBrowser(ctx, token, email)
}

// UseFactor tells whether a step of an account's second factor is used for the first
// time.
func (p *Planner) UseFactor(ctx context.Context, id uint64, step int64) (bool, error) {
	return p.store.UseFactor(ctx, id, step)
}

// Invite asks somebody to join the staff with a role, for a week: by a letter that
// holds their link, which nobody else sees; origin is how the site is reached. Waits:
// medical staff have to confirm it first. It fails with ErrForbidden where no coach
// asks, or medical staff for another role.
func (p *Planner) Invite(ctx context.Context, by Account, name, email string, role Role, origin string) (waits bool, err error) {
	act := ToLead
	if role == Medical {
		act = ToAsk
	}
	if err := May(by, act); err != nil {
		return false, err
	}
	return p.store.Invite(ctx, by, name, email, role, p.Now(), func(token string) store.Letter { return invitation(by, name, email, role, origin, token) })
}

func invitation(by Account, name, email string, role Role, origin, token string) store.Letter {
	return store.Letter{To: email, Subject: fmt.Sprintf("%s invites you to Cue Start", by.ClubName),
		Body: fmt.Sprintf("Hello %s,\n\n%s invites you to join %s as %s. Open this link within a week and choose a password:\n\n%s/join/%s\n\nIt is for you alone and works once.\n",
			name, by.Name, by.ClubName, role.Name(), origin, token)}
}

// Confirm lets an invitation of medical staff go out that waits for one of them.
func (p *Planner) Confirm(ctx context.Context, by Account, id uint64, origin string) error {
	if err := May(by, ToVouch); err != nil {
		return err
	}
	return p.store.Confirm(ctx, by, id, p.Now(), func(i store.Invitation, token string) store.Letter {
		return invitation(by, i.Name, i.Email, i.Role, origin, token)
	})
}

// Invitations lists those that are pending.
func (p *Planner) Invitations(ctx context.Context, clubID uint64) ([]Invitation, error) {
	return p.store.Invitations(ctx, clubID, p.Now())
}

// WithdrawInvitation ends an invitation before it is used.
func (p *Planner) WithdrawInvitation(ctx context.Context, by Account, id uint64) error {
	if err := May(by, ToAsk); err != nil {
		return err
	}
	return p.store.WithdrawInvitation(ctx, by, id)
}

// Invited returns whom a link invites, or ErrNotFound where it is wrong, used or
// over.
func (p *Planner) Invited(ctx context.Context, token string) (Account, error) {
	return p.store.Invited(ctx, token, p.Now())
}

// Join makes the account of who was invited. It fails with ErrNotFound where the
// link is wrong, used or over, with ErrWaits where medical staff have to confirm it first, and
// with ErrTaken where the e-mail has an account.
func (p *Planner) Join(ctx context.Context, token, passwordHash string) (Account, error) {
	return p.store.Join(ctx, token, passwordHash, p.Now())
}

// Forgot sends a link to set a new password to the owner of an e-mail address, where
// it has an account; nobody learns whether it does.
func (p *Planner) Forgot(ctx context.Context, email, origin string) error {
	who, _, err := p.store.AccountByEmail(ctx, email)
	if errors.Is(err, ErrNotFound) {
		return nil
	} else if err != nil {
		return err
	}
	token, err := p.store.AddReset(ctx, who.ID, p.Now())
	if err != nil {
		return err
	}
	return errors.Join(p.store.Audit(ctx, who, "asked for a new password", ""), p.store.Post(ctx, store.Letter{To: email, Subject: "A new password for Cue Start",
		Body: fmt.Sprintf("Hello %s,\n\nopen this link within an hour to set a new password:\n\n%s/reset/%s\n\nIf you did not ask for it, leave it: your password stays as it is.\n", who.Name, origin, token)}))
}

// Resets is whose password a link sets, or ErrNotFound.
func (p *Planner) Resets(ctx context.Context, token string) (Account, error) {
	return p.store.Resets(ctx, token, p.Now())
}

// Reset sets the password of whom a link resets, by its hash, and returns them. Other links,
// their sign-ins and those that are half done end with the old one.
func (p *Planner) Reset(ctx context.Context, token, hash string) (Account, error) {
	who, err := p.store.UseReset(ctx, token, hash, p.Now())
	return who, errors.Join(err, p.warn(ctx, who, err, "your password was set by a link"))
}

// Letters are the newest of the outbox, sent or not.
func (p *Planner) Letters(ctx context.Context) ([]Letter, error) { return p.store.Letters(ctx) }

// Audit writes down what somebody did.
func (p *Planner) Audit(ctx context.Context, by Account, what, subject string) error {
	return p.store.Audit(ctx, by, what, subject)
}

// AuditLog lists what was written down of the club, the latest first, from an entry
// on. It fails with ErrForbidden where not the club's head asks.
func (p *Planner) AuditLog(ctx context.Context, by Account, from int) ([]Audited, error) {
	if head, err := p.IsHead(ctx, by); err != nil || !head {
		return nil, errors.Join(err, ErrForbidden)
	}
	return p.store.AuditOf(ctx, by.ClubID, from)
}

// Terms are how long the club keeps what it need not keep.
func (p *Planner) Terms(ctx context.Context, clubID uint64) (Terms, error) {
	return p.store.Terms(ctx, clubID)
}

// SetTerms sets them. It fails with ErrForbidden where not the club's head asks.
func (p *Planner) SetTerms(ctx context.Context, by Account, t Terms) error {
	if head, err := p.IsHead(ctx, by); err != nil || !head {
		return errors.Join(err, ErrForbidden)
	}
	return p.store.SetTerms(ctx, by, t)
}
