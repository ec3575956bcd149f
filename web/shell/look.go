package shell

import (
	"net/http"
	"slices"
	"strings"
	"time"
)

// looks are the themes that a coach can pick, in the order they are offered.
var looks = []string{"day", "night", "sun"}

// Looks are the themes that can be picked.
func Looks() []string { return looks }

// Look is the theme that the browser has picked.
func (r *Request) Look() string { return r.look() }

// look is the theme that the browser has picked.
func (r *Request) look() string {
	if picked := r.Cookie("look"); slices.Contains(looks, picked) {
		return picked
	}
	return looks[0]
}

// Keep has the browser remember a value for a year; [Request.Cookie] gives it.
func (r *Request) Keep(name, value string) {
	http.SetCookie(r.gin.Writer, &http.Cookie{Name: name, Value: value, Path: "/",
		MaxAge:   int((365 * 24 * time.Hour).Seconds()),
		HttpOnly: true, SameSite: http.SameSiteLaxMode, Secure: r.shell.Secure})
}

func setLook(r *Request) (Answer, error) {
	picked := r.Form.Text("look")
	if !slices.Contains(looks, picked) {
		picked = looks[0]
	}
	r.Keep("look", picked)
	return Go(r.Form.Text("back")), nil
}

// SafePath is a path of this site, whatever a form says.
func SafePath(wanted string) string {
	// browsers pass over some of these
	odd := strings.ContainsFunc(wanted, func(r rune) bool { return r <= ' ' || r == '\\' || r == 0x7f })
	if !strings.HasPrefix(wanted, "/") || strings.HasPrefix(wanted, "//") || odd {
		return "/today"
	}
	return wanted
}
