// Package web is the pages of Cue Start: Gin routes, one file a page with its
// handler, its view model and its form, and the templates and assets they use.
package web

import (
	"embed"
	"html/template"
	"log/slog"
	"net/http"
	"strings"
	"time"

	"github.com/alexedwards/scs/mysqlstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"
	"github.com/klauspost/compress/gzhttp"

	"cuestart/planner"
)

//go:embed templates assets/dist
var files embed.FS

// Config is what the pages need to know of the world.
type Config struct {
	Planner *planner.Planner
	URL     string // as others reach the site, such as https://cue.example; "" to go by each request
	Secure  bool   // behind TLS: cookies are sent over it only
	Log     *slog.Logger
}

// Site is the pages, ready to be served.
type Site struct {
	Config
	sessions *scs.SessionManager
	signIns  *mysqlstore.MySQLStore
	pages    map[string]*template.Template
	assets   map[string]asset
	guard    *signInGuard
}

// New makes the site. Close it when it is no longer served.
func New(config Config) (*Site, error) {
	s := &Site{Config: config, guard: newSignInGuard()}
	if err := s.loadAssets(); err != nil {
		return nil, err
	}
	if err := s.loadPages(); err != nil {
		return nil, err
	}
	s.signIns = mysqlstore.NewWithCleanupInterval(config.Planner.Store.DB, 10*time.Minute)
	s.sessions = scs.New()
	s.sessions.Store = s.signIns
	s.sessions.Lifetime = 30 * 24 * time.Hour
	s.sessions.Cookie.Name = "cuestart"
	s.sessions.Cookie.HttpOnly = true
	s.sessions.Cookie.SameSite = http.SameSiteLaxMode
	s.sessions.Cookie.Secure = config.Secure
	s.sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		config.Log.Error("sign-in store", "path", r.URL.Path, "error", err)
		http.Error(w, "The database does not answer. Nothing is lost: try again in a moment.", http.StatusServiceUnavailable)
	}
	return s, nil
}

// Close ends what the site does in the background.
func (s *Site) Close() { s.signIns.StopCleanup() }

// Handler is the site as an HTTP handler.
func (s *Site) Handler() http.Handler {
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	engine.SetTrustedProxies(nil)
	engine.Use(s.recover, headers, s.readForm)
	s.routes(engine)
	origin := http.NewCrossOriginProtection()
	origin.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		http.Error(w, "This form was sent from another site and is refused.", http.StatusForbidden)
	}))
	// Bodies are small forms; anything larger is cut off.
	limited := http.MaxBytesHandler(engine, 1<<20)
	return gzhttp.GzipHandler(origin.Handler(s.sessions.LoadAndSave(limited)))
}

// headers sets what every answer carries.
func headers(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self'; font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cache-Control", "no-store")
	c.Next()
}

// readForm refuses a form that is too large or no form, before anything is
// made of the half of it.
func (s *Site) readForm(c *gin.Context) {
	err := c.Request.ParseForm()
	if strings.HasPrefix(c.ContentType(), "multipart/") {
		err = c.Request.ParseMultipartForm(1 << 20)
	}
	if err != nil {
		s.plain(c, http.StatusRequestEntityTooLarge, "That is too much at once", "The form could not be read. Go back, shorten what you entered and send it again.")
		return
	}
	c.Next()
}

// recover turns a panic into a plain page and a line in the log.
func (s *Site) recover(c *gin.Context) {
	defer func() {
		if bug := recover(); bug != nil {
			s.Log.Error("panic", "path", c.Request.URL.Path, "bug", bug)
			if !c.Writer.Written() {
				s.plain(c, http.StatusInternalServerError, "Something broke on our side", "It is written down. Nothing that was saved is lost; go back and try again.")
			}
			c.Abort()
		}
	}()
	c.Next()
}
