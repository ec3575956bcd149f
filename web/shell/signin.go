package shell

import (
	"context"
	"strings"
	"time"

	"github.com/ulule/limiter/v3"
	"github.com/ulule/limiter/v3/drivers/store/memory"

	"cuestart/planner"
)

// LetIn starts a signed-in session under a new token, and leads to where the
// browser wanted to go.
func (r *Request) LetIn(who planner.Account) (Answer, error) {
	ctx := r.Context()
	if err := r.shell.sessions.RenewToken(ctx); err != nil {
		return nil, err
	}
	r.shell.guard.forget(ctx, who.Email)
	r.shell.sessions.Put(ctx, accountKey, int64(who.ID))
	return Go(r.shell.sessions.PopString(ctx, backKey)), nil
}

// LetOut ends the signed-in session.
func (r *Request) LetOut() error { return r.shell.sessions.Destroy(r.Context()) }

// CleanEmail is an e-mail address as accounts keep it.
func CleanEmail(text string) string { return strings.ToLower(strings.TrimSpace(text)) }

// guard slows down guessing: so many tries a quarter of an hour for one address,
// and for one e-mail from anywhere.
type guard struct {
	byAddress, byEmail *limiter.Limiter
}

func newGuard() *guard {
	kept := memory.NewStore()
	return &guard{
		byAddress: limiter.New(kept, limiter.Rate{Period: 15 * time.Minute, Limit: 60}),
		byEmail:   limiter.New(kept, limiter.Rate{Period: 15 * time.Minute, Limit: 10}),
	}
}

// reached counts a try, and tells whether it is one too many.
func (g *guard) reached(r *Request) bool {
	ctx := r.Context()
	address, err := g.byAddress.Get(ctx, "address "+r.gin.RemoteIP())
	email, err2 := g.byEmail.Get(ctx, "email "+CleanEmail(r.Form.Text("email")))
	return err == nil && err2 == nil && (address.Reached || email.Reached)
}

// forget clears the count of an e-mail whose owner has signed in.
func (g *guard) forget(ctx context.Context, email string) { g.byEmail.Reset(ctx, "email "+email) }
