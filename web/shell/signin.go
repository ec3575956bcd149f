package shell

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"net/netip"
	"strings"
	"time"

	"github.com/ulule/limiter/v3"
	"github.com/ulule/limiter/v3/drivers/store/memory"

	"cuestart/planner"
)

// LetIn starts a signed-in session under a new token, and leads back to where the
// browser wanted to go. Nothing is kept of a browser before that.
func (r *Request) LetIn(who planner.Account, back string) (Answer, error) {
	ctx := r.Context()
	id, err := r.Planner.SignIn(ctx, who, r.gin.Request.UserAgent())
	if err != nil {
		return nil, err
	}
	if err := r.shell.sessions.RenewToken(ctx); err != nil {
		return nil, err
	}
	r.shell.guard.forget(ctx, r, who.Email)
	r.shell.sessions.Remove(ctx, pendingKey)
	r.shell.sessions.Put(ctx, signInKey, int64(id))
	return Go(back), nil
}

// LetOut ends the signed-in session.
func (r *Request) LetOut() error {
	if id := r.shell.sessions.GetInt64(r.Context(), signInKey); id > 0 {
		if who, err := r.Planner.SignedIn(r.Context(), uint64(id)); err == nil {
			if err := r.Planner.SignOut(r.Context(), who, uint64(id)); err != nil {
				return err
			}
		}
	}
	return r.shell.sessions.Destroy(r.Context())
}

// Hold keeps a word of who is about to prove something more: whose password was right,
// or the secret of a second factor that is yet to be tried.
func (r *Request) Hold(what string) { r.shell.sessions.Put(r.Context(), pendingKey, what) }

// Held is what was held, or "".
func (r *Request) Held() string { return r.shell.sessions.GetString(r.Context(), pendingKey) }

// Failed counts a try that failed, by address and e-mail together.
func (r *Request) Failed(email string) { r.shell.guard.failed(r.Context(), r, email) }

// Agent is the browser in a few words.
func Agent(text string) string {
	for _, known := range [][2]string{{"Edg/", "Edge"}, {"Firefox/", "Firefox"}, {"Chrome/", "Chrome"}, {"Safari/", "Safari"}} {
		if strings.Contains(text, known[0]) {
			system := "a computer"
			if strings.Contains(text, "Mobile") || strings.Contains(text, "Android") {
				system = "a phone"
			}
			return known[1] + " on " + system
		}
	}
	return "another browser"
}

// CleanEmail is an e-mail address as accounts keep it.
func CleanEmail(text string) string { return strings.ToLower(strings.TrimSpace(text)) }

// guard slows down guessing: so many failures a quarter of an hour for one e-mail from
// one address, and for one address in all. Who signs in rightly is never counted, so
// that an attacker locks out nobody but themselves.
type guard struct {
	byBoth, byAddress *limiter.Limiter
}

// How many failures of a quarter of an hour are borne.
const (
	failuresOfBoth    = 10
	failuresOfAddress = 60
	guardedFor        = 15 * time.Minute
)

func newGuard() *guard {
	kept := memory.NewStore()
	return &guard{
		byBoth:    limiter.New(kept, limiter.Rate{Period: guardedFor, Limit: failuresOfBoth}),
		byAddress: limiter.New(kept, limiter.Rate{Period: guardedFor, Limit: failuresOfAddress}),
	}
}

// keys are what failures of an e-mail are counted under: of one length, whatever was
// sent. The addresses of one IPv6 network are one.
func keys(r *Request, email string) (both, address string) {
	from := r.gin.ClientIP()
	if ip, err := netip.ParseAddr(from); err == nil && ip.Is6() && !ip.Is4In6() {
		if network, err := ip.Prefix(64); err == nil {
			from = network.String()
		}
	}
	key := func(text string) string {
		sum := sha256.Sum256([]byte(text))
		return hex.EncodeToString(sum[:12])
	}
	return key("both " + from + " " + email), key("address " + from)
}

// reached tells whether another try would be one too many.
func (g *guard) reached(r *Request) bool {
	both, address := keys(r, CleanEmail(r.Form.Text("email")))
	ctx := r.Context()
	of, err := g.byBoth.Peek(ctx, both)
	from, err2 := g.byAddress.Peek(ctx, address)
	return err == nil && of.Remaining == 0 || err2 == nil && from.Remaining == 0
}

// failed counts a failure. The address is looked at first, so that one address makes
// no more entries than are borne.
func (g *guard) failed(ctx context.Context, r *Request, email string) {
	both, address := keys(r, email)
	if from, err := g.byAddress.Get(ctx, address); err == nil && !from.Reached {
		g.byBoth.Get(ctx, both)
	}
}

// forget clears the count of an e-mail whose owner has signed in.
func (g *guard) forget(ctx context.Context, r *Request, email string) {
	both, _ := keys(r, email)
	g.byBoth.Reset(ctx, both)
}
