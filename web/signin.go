package web

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/gin-gonic/gin"
	"github.com/ulule/limiter/v3"
	"github.com/ulule/limiter/v3/drivers/store/memory"

	"cuestart/book"
	"cuestart/core/plan"
	"cuestart/store"
)

const (
	accountKey = "account" // in the sign-in store and in Gin's context
	backKey    = "back"    // where to go once signed in
)

// account is who is signed in, or nil.
func account(c *gin.Context) *store.Account {
	if found, ok := c.Get(accountKey); ok {
		return found.(*store.Account)
	}
	return nil
}

// signedIn lets only those through who are, and sends others to sign in.
func (s *Site) signedIn(c *gin.Context) {
	ctx := c.Request.Context()
	id := s.sessions.GetInt64(ctx, accountKey)
	if id > 0 {
		found, err := s.Planner.Store.Account(ctx, uint64(id))
		if err == nil {
			c.Set(accountKey, &found)
			c.Next()
			return
		}
		if !errors.Is(err, store.ErrNotFound) {
			s.failed(c, err)
			return
		}
	}
	if c.Request.Method == http.MethodGet {
		s.sessions.Put(ctx, backKey, c.Request.URL.RequestURI())
	}
	c.Redirect(http.StatusSeeOther, "/sign-in")
	c.Abort()
}

// signInGuard slows down guessing: so many tries a quarter of an hour for one
// address, and for one e-mail from anywhere.
type signInGuard struct {
	byAddress, byEmail *limiter.Limiter
}

func newSignInGuard() *signInGuard {
	kept := memory.NewStore()
	return &signInGuard{
		byAddress: limiter.New(kept, limiter.Rate{Period: 15 * time.Minute, Limit: 60}),
		byEmail:   limiter.New(kept, limiter.Rate{Period: 15 * time.Minute, Limit: 10}),
	}
}

const tooManyKey = "too many tries"

func (g *signInGuard) slow(c *gin.Context) {
	ctx := c.Request.Context()
	address, err := g.byAddress.Get(ctx, "address "+c.RemoteIP())
	email, err2 := g.byEmail.Get(ctx, "email "+cleanEmail(c.PostForm("email")))
	if err == nil && err2 == nil && (address.Reached || email.Reached) {
		c.Set(tooManyKey, true)
	}
	c.Next()
}

// forget clears the count of an e-mail whose owner has signed in.
func (g *signInGuard) forget(ctx context.Context, email string) {
	g.byEmail.Reset(ctx, "email "+email)
}

func cleanEmail(text string) string { return strings.ToLower(strings.TrimSpace(text)) }

// nobody is a hash to compare with where there is no account, so that the time
// of the answer does not tell.
var nobody = sync.OnceValue(func() string {
	hash, _ := argon2id.CreateHash("nobody", argon2id.DefaultParams)
	return hash
})

type signInBody struct {
	Email, Problem string
}

func (s *Site) signIn(c *gin.Context) {
	empty, err := s.Planner.Store.Empty(c.Request.Context())
	if err != nil {
		s.failed(c, err)
		return
	}
	if empty {
		c.Redirect(http.StatusSeeOther, "/welcome")
		return
	}
	s.show(c, http.StatusOK, "signin/signin", "Sign in", "", signInBody{})
}

func (s *Site) enter(c *gin.Context) {
	ctx, email, password := c.Request.Context(), cleanEmail(c.PostForm("email")), c.PostForm("password")
	refuse := func(status int, problem string) {
		s.show(c, status, "signin/signin", "Sign in", "", signInBody{Email: c.PostForm("email"), Problem: problem})
	}
	if c.GetBool(tooManyKey) {
		refuse(http.StatusTooManyRequests, "Too many tries. Wait a quarter of an hour and try again.")
		return
	}
	found, hash, err := s.Planner.Store.AccountByEmail(ctx, email)
	if errors.Is(err, store.ErrNotFound) {
		hash, err = nobody(), nil
	}
	if err != nil {
		s.failed(c, err)
		return
	}
	if right, err := argon2id.ComparePasswordAndHash(password, hash); err != nil || !right || found.ID == 0 {
		refuse(http.StatusUnauthorized, "The e-mail and password do not belong together.")
		return
	}
	s.guard.forget(ctx, email)
	s.letIn(c, found)
}

// letIn starts a signed-in session under a new token.
func (s *Site) letIn(c *gin.Context, who store.Account) {
	ctx := c.Request.Context()
	if err := s.sessions.RenewToken(ctx); err != nil {
		s.failed(c, err)
		return
	}
	s.sessions.Put(ctx, accountKey, int64(who.ID))
	c.Redirect(http.StatusSeeOther, safePath(s.sessions.PopString(ctx, backKey)))
}

func (s *Site) leave(c *gin.Context) {
	if err := s.sessions.Destroy(c.Request.Context()); err != nil {
		s.failed(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, "/sign-in")
}

// welcomeBody is the form that makes the first club.
type welcomeBody struct {
	Club, Squad, Sport, Grade, Name, Email string
	Problems                               plan.Problems
}

func (s *Site) welcome(c *gin.Context) {
	empty, err := s.Planner.Store.Empty(c.Request.Context())
	if err != nil {
		s.failed(c, err)
		return
	}
	if !empty {
		c.Redirect(http.StatusSeeOther, "/sign-in")
		return
	}
	s.show(c, http.StatusOK, "signin/welcome", "Welcome", "", welcomeBody{Grade: "club"})
}

func (s *Site) found(c *gin.Context) {
	form := welcomeBody{Club: c.PostForm("club"), Squad: c.PostForm("squad"), Sport: c.PostForm("sport"), Grade: c.PostForm("grade"), Name: c.PostForm("name"), Email: c.PostForm("email")}
	form.check(c.PostForm("password"))
	if len(form.Problems) > 0 {
		s.show(c, http.StatusUnprocessableEntity, "signin/welcome", "Welcome", "", form)
		return
	}
	hash, err := argon2id.CreateHash(c.PostForm("password"), argon2id.DefaultParams)
	if err != nil {
		s.failed(c, err)
		return
	}
	coach, _, err := s.Planner.Store.Found(c.Request.Context(), form.Club, form.Sport, form.Squad, form.Grade,
		store.Account{Email: cleanEmail(form.Email), Name: form.Name, Role: store.Coach}, hash)
	switch {
	case errors.Is(err, store.ErrTaken):
		c.Redirect(http.StatusSeeOther, "/sign-in")
	case err != nil:
		s.failed(c, err)
	default:
		s.letIn(c, coach)
	}
}

// Grades are the levels of a squad, as a coach says them.
func (welcomeBody) Grades() map[string]string {
	return map[string]string{"junior": "Juniors", "club": "Club", "elite": "Elite"}
}

// Sports are those that Cue Start knows; another is made of the nearest one.
func (welcomeBody) Sports() (list []choice) {
	for _, s := range book.Sports() {
		list = append(list, choice{s.Key, s.Name})
	}
	return list
}

func (f *welcomeBody) check(password string) {
	for _, field := range []struct{ where, value string }{{"club", f.Club}, {"squad", f.Squad}, {"name", f.Name}} {
		if problem := plan.NameProblem(field.value); problem != "" {
			f.Problems = append(f.Problems, plan.Problem{Where: field.where, What: problem})
		}
	}
	if _, known := book.Sport(f.Sport); !known {
		f.Problems = append(f.Problems, plan.Problem{Where: "sport", What: "pick the sport, or the one that is nearest to yours"})
	}
	if f.Grade != "junior" && f.Grade != "club" && f.Grade != "elite" {
		f.Problems = append(f.Problems, plan.Problem{Where: "grade", What: "pick a level"})
	}
	if !emailLike(cleanEmail(f.Email)) {
		f.Problems = append(f.Problems, plan.Problem{Where: "email", What: "write an e-mail address such as coach@club.example"})
	}
	if what := passwordProblem(password); what != "" {
		f.Problems = append(f.Problems, plan.Problem{Where: "password", What: what})
	}
}

func emailLike(email string) bool {
	return len(email) <= 254 && strings.Count(email, "@") == 1 && !strings.HasPrefix(email, "@") && !strings.HasSuffix(email, "@") && !strings.ContainsAny(email, " \r\n\t")
}

// passwordProblem says what is wrong with a new password, or "".
func passwordProblem(password string) string {
	if n := len([]rune(password)); n < 10 || n > 200 {
		return "use 10 characters or more, such as three words of your own"
	}
	return ""
}
