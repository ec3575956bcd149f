package shell

import (
	"context"
	"errors"
	"net/http"
	pathpkg "path"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"

	"cuestart/planner"
	"cuestart/web/assets"
)

// mostBytes is how large a form may be; anything larger is cut off.
const mostBytes = 1 << 20

// Handler answers a request. An error of the store, or of what a role may do,
// needs no answer of its own.
type Handler func(*Request) (Answer, error)

// Routes is where screens are put: a part of the site with the same conditions.
type Routes struct {
	shell *Shell
	group *gin.RouterGroup
	check func(*Request) error // what a request has to hold; nil: nothing
}

// Get answers GET and HEAD requests of a path, such as /squad/:squad.
func (r Routes) Get(path string, h Handler) {
	r.group.GET(path, r.handle(h))
	r.group.HEAD(path, r.handle(h))
}

// Post answers POST requests of a path.
func (r Routes) Post(path string, h Handler) { r.group.POST(path, r.handle(h)) }

func (r Routes) handle(h Handler) gin.HandlerFunc {
	return func(c *gin.Context) {
		request := &Request{Planner: r.shell.Planner, shell: r.shell, gin: c, Form: &Form{values: c.Request.PostForm}}
		answer, err := Answer(nil), error(nil)
		if r.check != nil {
			err = r.check(request)
		}
		if err == nil {
			answer, err = h(request)
		}
		if err != nil {
			answer = request.failed(err)
		}
		if answer != nil {
			answer.write(request)
		}
	}
}

// SignedIn are routes for who is signed in; others are sent to sign in.
func (r Routes) SignedIn() Routes {
	r.check = (*Request).mustBeSignedIn
	return r
}

// Coaches are routes for coaches and assistants, who may change what the club
// keeps.
func (r Routes) Coaches() Routes {
	r.check = func(q *Request) error {
		if err := q.mustBeSignedIn(); err != nil || q.Coach() {
			return err
		}
		return Refusal{http.StatusForbidden, "That is for coaches", "Medical staff make rulings on the squad's page; coaches and assistants change everything else."}
	}
	return r
}

// Slowed are routes on which guessing is slowed down, by address and by the
// e-mail of the form.
func (r Routes) Slowed() Routes {
	r.check = func(q *Request) error {
		q.TooMany = r.shell.guard.reached(q)
		return nil
	}
	return r
}

// Handler serves the site whose screens map puts in place.
func (s *Shell) Handler(screens func(open Routes)) http.Handler {
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	engine.SetTrustedProxies(nil)
	engine.Use(s.recover, headers, s.readForm)
	open := Routes{shell: s, group: &engine.RouterGroup}
	engine.GET("/assets/:version/*file", s.asset)
	engine.HEAD("/assets/:version/*file", s.asset)
	engine.HEAD("/healthz", s.health)
	engine.GET("/healthz", s.health)
	open.Post("/look", setLook)
	screens(open)
	nothing := open.handle(func(r *Request) (Answer, error) {
		if above := pageAbove(engine.Routes(), r.gin.Request); above != "" {
			return Go(above), nil
		}
		return nil, planner.ErrNotFound
	})
	engine.NoRoute(nothing)
	engine.NoMethod(nothing)
	origin := http.NewCrossOriginProtection()
	origin.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		http.Error(w, "This form was sent from another site and is refused.", http.StatusForbidden)
	}))
	return gzhttp.GzipHandler(origin.Handler(s.sessions.LoadAndSave(http.MaxBytesHandler(engine, mostBytes))))
}

// pageAbove is the page that a form's address belongs to, where somebody loads that
// again after the form was refused: the nearest one above it; "" where no form is
// sent there.
func pageAbove(routes gin.RoutesInfo, asked *http.Request) string {
	if asked.Method != http.MethodGet || !answers(routes, http.MethodPost, asked.URL.Path) {
		return ""
	}
	for path := asked.URL.Path; path != "/" && path != "."; {
		if path = pathpkg.Dir(path); answers(routes, http.MethodGet, path) {
			return path
		}
	}
	return ""
}

// answers tells whether there is a route of that method for a path.
func answers(routes gin.RoutesInfo, method, path string) bool {
	parts := strings.Split(path, "/")
	return slices.ContainsFunc(routes, func(r gin.RouteInfo) bool {
		pattern := strings.Split(r.Path, "/")
		return r.Method == method && path != "/" && len(pattern) == len(parts) && slices.EqualFunc(pattern, parts, func(p, part string) bool {
			return p == part || strings.HasPrefix(p, ":") && part != ""
		})
	})
}

// headers sets what every answer carries.
func headers(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self'; font-src 'self'; "+
		"connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cache-Control", "no-store")
	c.Next()
}

// readForm refuses a form that is too large or no form, before anything is made
// of the half of it.
func (s *Shell) readForm(c *gin.Context) {
	err := c.Request.ParseForm()
	if strings.HasPrefix(c.ContentType(), "multipart/") {
		err = c.Request.ParseMultipartForm(mostBytes)
	}
	var much *http.MaxBytesError
	switch {
	case errors.As(err, &much):
		s.plainly(c, http.StatusRequestEntityTooLarge, "That is too much at once", "The form could not be read. Go back, shorten what you entered and send it again.")
	case err != nil:
		s.plainly(c, http.StatusBadRequest, "That cannot be read", "The address or the form is broken. Go back and try it again from the page.")
	default:
		c.Next()
	}
}

// recover turns a panic into a plain page and a line in the log.
func (s *Shell) recover(c *gin.Context) {
	defer func() {
		bug := recover()
		if bug == nil {
			return
		}
		s.Log.Error("panic", "path", c.Request.URL.Path, "bug", bug)
		if !c.Writer.Written() {
			s.plainly(c, http.StatusInternalServerError, "Something broke on our side", "It is written down. Nothing that was saved is lost; go back and try again.")
		}
		c.Abort()
	}()
	c.Next()
}

// plainly says one thing and ends the request.
func (s *Shell) plainly(c *gin.Context, status int, heading, line string) {
	Refusal{status, heading, line}.write(&Request{Planner: s.Planner, shell: s, gin: c})
	c.Abort()
}

// failed is the answer to an error that is no form's fault.
func (r *Request) failed(err error) Answer {
	var refusal Refusal
	switch {
	case errors.As(err, &refusal):
		return refusal
	case errors.Is(err, errSignedOut):
		return Go("/sign-in")
	case errors.Is(err, planner.ErrNotFound):
		return Refusal{http.StatusNotFound, "There is nothing here", "The address is wrong, or what it named is gone."}
	case errors.Is(err, planner.ErrForbidden):
		return Refusal{http.StatusForbidden, "That is not yours to change", "Medical staff make rulings; coaches and assistants change everything else."}
	case errors.Is(err, context.Canceled):
		return nil
	}
	if wrong := Problems(err); wrong != nil { // of a form that cannot be shown again
		return Refusal{http.StatusUnprocessableEntity, "That was not done", wrong[0].What + "."}
	}
	r.shell.Log.Error("request failed", "path", r.gin.Request.URL.Path, "error", err)
	return Refusal{http.StatusServiceUnavailable, "That did not work just now", "The database does not answer. Nothing that was saved is lost: try again in a moment."}
}

func (s *Shell) health(c *gin.Context) {
	c.Header("X-Program", "cuestart")
	if err := s.Planner.Ping(c.Request.Context()); err != nil {
		c.String(http.StatusServiceUnavailable, "the database does not answer\n")
		return
	}
	c.String(http.StatusOK, "ok\n")
}

func (s *Shell) asset(c *gin.Context) {
	f, ok := assets.Find(strings.TrimPrefix(c.Param("file"), "/"))
	if !ok {
		s.plainly(c, http.StatusNotFound, "There is nothing here", "The address is wrong, or what it named is gone.")
		return
	}
	if c.Param("version") == assets.Version {
		c.Header("Cache-Control", "public, max-age=31536000, immutable")
	}
	c.Data(http.StatusOK, f.Kind, f.Content)
}
