package shell

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"net/http"
	"net/netip"
	"time"

	"github.com/ulule/limiter/v3"
	"github.com/ulule/limiter/v3/drivers/store/memory"

	"cuestart/planner"
	"cuestart/planner/staff"
)

// What somebody proves; wrong tries of each are counted apart.
const (
	ByPassword = "password" // at sign-in
	ByFactor   = "factor"   // the second factor, at sign-in
	ByOwn      = "own"      // the password again, of who is signed in
	ByLetter   = "letter"   // nothing: a letter is sent, so that nobody is flooded with them
)

// How many wrong tries of a quarter of an hour are borne: for one account, from one browser
// that its owner has signed in with before, and from one address in all.
const (
	failuresOfAccount = 10
	failuresOfBrowser = 10
	failuresOfAddress = 60
	guardedFor        = 15 * time.Minute
)

// guard slows down guessing. Wrong tries are counted by account, wherever they come from, and
// by address, whatever account they are for. A browser that has signed in with an account
// before is counted by itself: neither who guesses at the account elsewhere, nor who guesses
// behind the same address, locks its owner out.
type guard struct{ byAccount, byBrowser, byAddress *limiter.Limiter }

func newGuard() *guard {
	kept := memory.NewStore()
	of := func(most int64) *limiter.Limiter {
		return limiter.New(kept, limiter.Rate{Period: guardedFor, Limit: most})
	}
	return &guard{of(failuresOfAccount), of(failuresOfBrowser), of(failuresOfAddress)}
}

// count is something that is counted.
type count struct {
	by  *limiter.Limiter
	key string // of one length, whatever was sent
}

func counted(by *limiter.Limiter, what string) count {
	sum := sha256.Sum256([]byte(what))
	return count{by, hex.EncodeToString(sum[:12])}
}

// one counts one more, and tells whether that is too many.
func (c count) one(ctx context.Context) (tooMany bool) {
	is, err := c.by.Get(ctx, c.key)
	return err == nil && is.Reached
}

// Guarded tries whether somebody proves to be who they say, unless there were too many wrong
// tries. Each is counted before it is tried, so that many at once are no way round.
func (r *Request) Guarded(kind, email string, right func() (bool, error)) (ok, tooMany bool, err error) {
	ctx := r.Context()
	counts, err := r.counts(kind, email)
	if err != nil {
		return false, false, err
	}
	for _, c := range counts {
		if c.one(ctx) {
			return false, true, nil
		}
	}
	if ok, err = right(); ok || err != nil {
		for _, c := range counts { // rightly: it never counted
			if c.by == r.shell.guard.byAddress || err != nil {
				c.by.Increment(ctx, c.key, -1)
			} else {
				c.by.Reset(ctx, c.key)
			}
		}
	}
	return ok, false, err
}

// counts are what a try is counted by. The address comes first, so that one address makes no
// more entries than are borne.
func (r *Request) counts(kind, email string) ([]count, error) {
	g := r.shell.guard
	if kind == ByPassword {
		if token := r.Cookie(knownCookie); token != "" {
			known, err := r.shell.Office.Staff.KnowsBrowser(r.Context(), token, email)
			if known || err != nil {
				return []count{counted(g.byBrowser, "browser "+token+" "+email)}, err
			}
		}
	}
	account := counted(g.byAccount, kind+" "+email)
	if r.By.ID != 0 {
		return []count{account}, nil
	}
	return []count{counted(g.byAddress, "address "+r.network()), account}, nil
}

// network is the address that asks; the addresses of one IPv6 network are one.
func (r *Request) network() string {
	from := r.gin.ClientIP()
	if ip, err := netip.ParseAddr(from); err == nil && ip.Is6() && !ip.Is4In6() {
		if network, err := ip.Prefix(64); err == nil {
			return network.String()
		}
	}
	return from
}

// knownCookie is how a browser is known again by which its owner has signed in.
const knownCookie = "known"

// Know has the browser known from now on as an account's, whose owner has shown who they are.
func (r *Request) Know(who planner.Account) error {
	token, err := r.shell.Office.Staff.KnowBrowser(r.Context(), who, r.Cookie(knownCookie))
	if err != nil {
		return err
	}
	http.SetCookie(r.gin.Writer, &http.Cookie{Name: knownCookie, Value: token, Path: "/",
		MaxAge: int(staff.BrowserKnownFor.Seconds()), HttpOnly: true, SameSite: http.SameSiteLaxMode,
		Secure: r.shell.Secure})
	return nil
}
