package shell

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/url"
	pathpkg "path"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"

	"cuestart/planner"
	"cuestart/web/assets"
)

// How large a form may be: of who is signed in, and of doors that anybody may knock at. Anything
// larger is cut off, before it is in memory.
const (
	mostBytes     = 1 << 20
	mostOpenBytes = 16 << 10
)

// large is from where on a form waits for its turn, so that many at once take no more memory
// than so many.
const large = 64 << 10

// largeAtOnce is how many of these are read at once.
var largeAtOnce = make(chan struct{}, 16)

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
		request := &Request{shell: r.shell, asks: asks{c}, Form: &Form{values: c.Request.PostForm}}
		if request.Form.values == nil {
			request.Form.values = url.Values{}
		}
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

// May are routes for who is signed in and whose role allows an act; others are sent to sign
// in, or refused. What no route asks for, no role is let in by.
func (r Routes) May(act planner.Act) Routes {
	r.check = func(q *Request) error {
		if err := q.mustBeSignedIn(); err != nil || q.May(act) {
			return err
		}
		return Refusal{http.StatusForbidden, "That is not yours to do",
			"Medical staff make rulings and answer who is hurt; coaches and assistants plan and change everything " +
				"else."}
	}
	return r
}

// Handler serves the site whose screens map puts in place.
func (s *Shell) Handler(screens func(open Routes)) http.Handler {
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	if err := engine.SetTrustedProxies(s.Proxies); err != nil {
		s.Log.Error("the proxies are no addresses", "error", err)
	}
	s.routes = engine.Routes
	engine.Use(s.recover, s.headers, s.ours, limited, s.readForm)
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
	return gzhttp.GzipHandler(origin.Handler(s.knowing(http.MaxBytesHandler(engine, mostBytes))))
}

// knowing finds out who asks, where it matters: the site's health and its files are
// for everybody, and wait for no database that does not answer; whoever has a link is
// not signed in.
func (s *Shell) knowing(site http.Handler) http.Handler {
	known := s.sessions.LoadAndSave(site)
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if ofLinks(r) {
			site.ServeHTTP(w, r)
			return
		}
		known.ServeHTTP(w, r)
	})
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
		return r.Method == method && path != "/" && len(pattern) == len(parts) &&
			slices.EqualFunc(pattern, parts, func(p, part string) bool {
				return p == part || strings.HasPrefix(p, ":") && part != ""
			})
	})
}

// answerWithin is how long a request may take, with all that it asks of the database.
const answerWithin = 30 * time.Second

// limited ends what takes too long. Streams last as long as a page is open.
func limited(c *gin.Context) {
	if strings.HasSuffix(c.Request.URL.Path, "/live") {
		c.Next()
		return
	}
	ctx, cancel := context.WithTimeout(c.Request.Context(), answerWithin)
	defer cancel()
	c.Request = c.Request.WithContext(ctx)
	c.Next()
}

// ours refuses what is asked of another site: a foreign name in the Host header would
// find its way into links that are sent out.
func (s *Shell) ours(c *gin.Context) {
	host := c.Request.Host
	if name, _, err := net.SplitHostPort(host); err == nil {
		host = name
	}
	host = strings.Trim(host, "[]")
	if known, err := url.Parse(s.URL); err == nil && s.URL != "" && strings.EqualFold(known.Hostname(), host) ||
		host == "localhost" || isHere(c.Request, host) {
		c.Next()
		return
	}
	c.String(http.StatusMisdirectedRequest,
		"This site is not known by that name. Set CUESTART_URL to the address by which others reach it.\n")
	c.Abort()
}

// isHere tells whether a host is the address that the request came in at, or this
// machine.
func isHere(r *http.Request, host string) bool {
	ip := net.ParseIP(host)
	if ip == nil {
		return false
	}
	local, _ := r.Context().Value(http.LocalAddrContextKey).(*net.TCPAddr)
	return ip.IsLoopback() || local != nil && local.IP.Equal(ip)
}

// logged is a path as it is written down: what it holds of a link is masked.
func logged(path string) string {
	parts := strings.Split(path, "/")
	for i := 2; i < len(parts); i++ {
		if slices.Contains([]string{"r", "join", "reset", "handed"}, parts[1]) && len(parts[i]) > 8 {
			parts[i] = fmt.Sprintf("%x", sha256.Sum256([]byte(parts[i])))[:6]
		}
	}
	return strings.Join(parts, "/")
}

// withBack is an address with the one to come back to.
func withBack(path, back string) string {
	if back == "" || back == "/" {
		return path
	}
	return path + "?back=" + url.QueryEscape(back)
}

// headers sets what every answer carries.
func (s *Shell) headers(c *gin.Context) {
	h := c.Writer.Header()
	if s.Secure {
		h.Set("Strict-Transport-Security", "max-age=31536000")
	}
	h.Set("Content-Security-Policy",
		"default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self'; font-src 'self'; "+
			"connect-src 'self'; manifest-src 'self'; worker-src 'self'; form-action 'self'; base-uri 'none'; "+
			"frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cache-Control", "no-store")
	c.Next()
}

// readForm refuses a form that is too large or no form, before anything is made
// of the half of it.
func (s *Shell) readForm(c *gin.Context) {
	if c.Request.Body != nil && c.Request.Body != http.NoBody {
		most := int64(mostOpenBytes)
		if s.asksSignedIn(c.Request) {
			most = mostBytes
		}
		if n := c.Request.ContentLength; most > large && (n < 0 || n > large) {
			select {
			case largeAtOnce <- struct{}{}:
				defer func() { <-largeAtOnce }() // it is answered
			case <-c.Request.Context().Done():
				c.Abort()
				return
			}
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most)
	}
	err := c.Request.ParseForm()
	if strings.HasPrefix(c.ContentType(), "multipart/") {
		err = c.Request.ParseMultipartForm(mostBytes)
	}
	var much *http.MaxBytesError
	switch {
	case errors.As(err, &much):
		s.plainly(c, http.StatusRequestEntityTooLarge, "That is too much at once",
			"The form could not be read. Go back, shorten what you entered and send it again.")
	case err != nil:
		s.plainly(c, http.StatusBadRequest, "That cannot be read",
			"The address or the form is broken. Go back and try it again from the page.")
	default:
		c.Next()
	}
}

// asksSignedIn tells whether a request comes from a browser that is signed in.
func (s *Shell) asksSignedIn(r *http.Request) bool {
	return !ofLinks(r) && s.sessions.GetInt64(r.Context(), signInKey) > 0
}

// ofLinks tells whether a request is for what links show, or for what is everybody's: nobody is
// signed in there.
func ofLinks(r *http.Request) bool {
	return r.URL.Path == "/healthz" || strings.HasPrefix(r.URL.Path, "/assets/") || strings.HasPrefix(r.URL.Path, "/r/")
}

// recover turns a panic into a plain page and a line in the log.
func (s *Shell) recover(c *gin.Context) {
	defer func() {
		bug := recover()
		if bug == nil {
			return
		}
		s.Log.Error("panic", "path", logged(c.Request.URL.Path), "bug", bug)
		if !c.Writer.Written() {
			s.plainly(c, http.StatusInternalServerError, "Something broke on our side",
				"It is written down. Nothing that was saved is lost; go back and try again.")
		}
		c.Abort()
	}()
	c.Next()
}

// plainly says one thing and ends the request.
func (s *Shell) plainly(c *gin.Context, status int, heading, line string) {
	Refusal{status, heading, line}.write(&Request{shell: s, asks: asks{c}})
	c.Abort()
}

// failed is the answer to an error that is no form's fault.
func (r *Request) failed(err error) Answer {
	var refusal Refusal
	switch {
	case errors.As(err, &refusal):
		return refusal
	case errors.Is(err, errSignedOut):
		return Go(withBack("/sign-in", r.here()))
	case errors.Is(err, errProve) && r.gin.Request.Method == http.MethodPost:
		return Resend("/again?to=" + url.QueryEscape(r.gin.Request.URL.Path))
	case errors.Is(err, errProve):
		return Go(withBack("/again", r.here()))
	case errors.Is(err, errFactor):
		return Go("/me")
	case errors.Is(err, planner.ErrDone):
		r.Say("That was saved already")
		return Go(pageAbove(r.shell.routes(), &http.Request{Method: http.MethodGet, URL: r.gin.Request.URL}))
	case planner.IsFull(err):
		r.shell.Log.Error("the disk is full", "path", logged(r.gin.Request.URL.Path), "error", err)
		return Refusal{http.StatusInsufficientStorage, "The disk is full",
			"Nothing can be saved until there is room on the server. What was saved is safe."}
	case errors.Is(err, planner.ErrNotFound):
		return Refusal{http.StatusNotFound, "There is nothing here", "The address is wrong, or what it named is gone."}
	case errors.Is(err, planner.ErrForbidden):
		return Refusal{http.StatusForbidden, "That is not yours to change",
			"Medical staff make rulings; coaches and assistants change everything else."}
	case errors.Is(err, context.Canceled) && r.Context().Err() != nil:
		return Sentence{statusGone, ""} // nobody is there to read it
	}
	if wrong := Problems(err); wrong != nil { // of a form that cannot be shown again
		return Refusal{http.StatusUnprocessableEntity, "That was not done", wrong[0].What + "."}
	}
	r.shell.Log.Error("request failed", "path", logged(r.gin.Request.URL.Path), "error", err)
	return Refusal{http.StatusServiceUnavailable, "That did not work just now",
		"The database does not answer. Nothing that was saved is lost: try again in a moment."}
}

// statusGone is written down where who asked has gone away.
const statusGone = 499

// healthWithin is how long the database may take to answer and count as well.
const healthWithin = 1500 * time.Millisecond

func (s *Shell) health(c *gin.Context) {
	c.Header("X-Program", "cuestart")
	ctx, cancel := context.WithTimeout(c.Request.Context(), healthWithin)
	defer cancel()
	if err := s.Office.Ping(ctx); err != nil {
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
	if c.Param("version") == assets.Version() {
		c.Header("Cache-Control", "public, max-age=31536000, immutable")
	}
	if f.Packed {
		c.Header("Content-Encoding", "gzip")
	}
	c.Data(http.StatusOK, f.Kind, f.Content)
}
