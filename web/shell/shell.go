// Package shell is what every screen stands on: who is signed in and what they
// may do, reading a form, answering and refusing, the layout around a page, and
// the looks.
//
// A screen is a [Handler]: it gets a [Request], which knows who asks and for
// which club, and returns an [Answer] or an error. The shell writes the answer;
// what an error means is decided here and nowhere else.
package shell

import (
	"log/slog"
	"net/http"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"

	"cuestart/live"
	"cuestart/planner"
	"cuestart/planner/office"
)

// Config is what the site needs to know of the world.
type Config struct {
	Office  *office.Office // the use cases
	Live    *live.Hub      // tells open pages what is new
	SignIns scs.Store      // where signed-in browsers are kept
	URL     string         // as others reach the site, such as https://cue.example; "" to go by each request
	Secure  bool           // behind TLS: cookies are sent over it only
	Proxies []string       // whose word on where a request comes from is taken
	Outbox  bool           // the letters that wait to be sent are shown on a page: for a demo
	Log     *slog.Logger
	Hashing *argon2id.Params // what a hash of a password costs; nil: as is usual
}

// Shell serves the screens.
type Shell struct {
	Config
	sessions *scs.SessionManager
	routes   func() gin.RoutesInfo
	guard    *guard
}

// New makes a shell.
func New(config Config) *Shell {
	s := &Shell{Config: config, sessions: scs.New(), guard: newGuard()}
	s.sessions.Store = config.SignIns
	s.sessions.Lifetime = 30 * 24 * time.Hour
	s.sessions.Cookie.Name = "cuestart"
	s.sessions.Cookie.HttpOnly = true
	s.sessions.Cookie.SameSite = http.SameSiteLaxMode
	if s.sessions.Cookie.Secure = config.Secure; config.Secure {
		s.sessions.Cookie.Name = "__Host-cuestart" // of this host alone, and over TLS
	}
	s.sessions.ErrorFunc = func(w http.ResponseWriter, r *http.Request, err error) {
		config.Log.Error("sign-in store", "path", logged(r.URL.Path), "error", err)
		if planner.IsFull(err) {
			http.Error(w,
				"The disk is full. Nobody can sign in until there is room on the server; what was saved is safe.",
				http.StatusInsufficientStorage)
			return
		}
		http.Error(w, "The database does not answer. Nothing is lost: try again in a moment.",
			http.StatusServiceUnavailable)
	}
	return s
}

// What is kept of a signed-in browser.
const (
	signInKey  = "sign-in" // its id
	pendingKey = "pending" // what is held until more is proved
	saidKey    = "said"    // what was done, to be said once on the next page
)
