package web

import (
	"bytes"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"html/template"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"cuestart/core/plan"
	"cuestart/store"
)

// page is what every page has: the frame around its own Body.
type page struct {
	Title   string
	Look    string // day, night or sun
	Account *store.Account
	Path    string
	Nav     string // the entry of the menu that the page belongs to
	Said    string // what was done just now
	Undo    string // what taking back would undo, on pages of what the club keeps
	Body    any
}

// navEntry is a page of the menu.
type navEntry struct{ Key, Label string }

var navEntries = []navEntry{{"drills", "Drills"}, {"routines", "Routines"}, {"squad", "Squad"}, {"ground", "Ground"}}

// keeps are the entries of the menu under which a club keeps things.
var keeps = []string{"drills", "squad", "ground", "routines"}

// looks are the themes that a coach can pick, in the order they are offered.
var looks = []string{"day", "night", "sun"}

func (s *Site) loadPages() error {
	s.pages = map[string]*template.Template{}
	funcs := template.FuncMap{
		"asset":  s.assetURL,
		"looks":  func() []string { return looks },
		"letter": letter,
		"group":  func(label, name string, ticks []tickBox) tickGroup { return tickGroup{label, name, ticks} },
		"links":  linksOf,
		"way":    func(value, label, why, now string) wayChoice { return wayChoice{value, label, why, now} },
		"pages":  func() []navEntry { return navEntries },
		"tile":   tile,
	}
	shared, err := template.New("").Funcs(funcs).ParseFS(files, "templates/*.html")
	if err != nil {
		return err
	}
	folders, err := fs.Glob(files, "templates/*/*.html")
	if err != nil {
		return err
	}
	for _, file := range folders {
		name := strings.TrimSuffix(strings.TrimPrefix(file, "templates/"), ".html")
		own, err := shared.Clone()
		if err != nil {
			return err
		}
		// The parts of a folder are there for all its pages.
		if own, err = own.ParseFS(files, path.Dir(file)+"/*.html"); err != nil {
			return err
		}
		if s.pages[name], err = own.ParseFS(files, file); err != nil {
			return err
		}
	}
	return nil
}

// show writes a page inside the layout.
func (s *Site) show(c *gin.Context, status int, name, title, nav string, body any) {
	p := &page{Title: title, Look: look(c), Account: account(c), Path: c.Request.URL.Path, Nav: nav, Body: body}
	if p.Account != nil {
		p.Said = s.sessions.PopString(c.Request.Context(), saidKey)
		if slices.Contains(keeps, nav) {
			var err error
			if p.Undo, _, err = s.Planner.Store.Newest(c.Request.Context(), *p.Account); err != nil {
				s.Log.Error("the newest change", "error", err)
			}
		}
	}
	s.write(c, status, name, "layout", p)
}

// part writes a template of a page by itself, for a script to put in place.
func (s *Site) part(c *gin.Context, status int, name, part string, body any) {
	c.Header("X-Part", part)
	s.write(c, status, name, part, body)
}

func (s *Site) write(c *gin.Context, status int, name, block string, data any) {
	var text bytes.Buffer
	if err := s.pages[name].ExecuteTemplate(&text, block, data); err != nil {
		panic(fmt.Errorf("page %s: %w", name, err))
	}
	c.Data(status, "text/html; charset=utf-8", text.Bytes())
}

// plainBody is a page that says one thing.
type plainBody struct{ Heading, Line string }

func (s *Site) plain(c *gin.Context, status int, heading, line string) {
	s.show(c, status, "plain/plain", heading, "", plainBody{heading, line})
	c.Abort()
}

func (s *Site) notFound(c *gin.Context) {
	s.plain(c, http.StatusNotFound, "There is nothing here", "The address is wrong, or what it named is gone.")
}

// failed answers an error that is no form's fault.
func (s *Site) failed(c *gin.Context, err error) {
	switch {
	case errors.Is(err, store.ErrNotFound):
		s.notFound(c)
	case errors.Is(err, context.Canceled):
		c.Abort()
	default:
		s.Log.Error("request failed", "path", c.Request.URL.Path, "error", err)
		s.plain(c, http.StatusServiceUnavailable, "That did not work just now", "The database does not answer. Nothing that was saved is lost: try again in a moment.")
	}
}

// problems reads an error of a form: its sentences, or nil if it is none.
func problems(err error) plan.Problems {
	var found plan.Problems
	if errors.As(err, &found) {
		return found
	}
	if errors.Is(err, plan.ErrNoSuchBlock) {
		return plan.Problems{{Where: "board", What: "This block is no longer in the plan."}}
	}
	return nil
}

func (s *Site) health(c *gin.Context) {
	c.Header("X-Program", "cuestart")
	if err := s.Planner.Store.DB.PingContext(c.Request.Context()); err != nil {
		c.String(http.StatusServiceUnavailable, "the database does not answer\n")
		return
	}
	c.String(http.StatusOK, "ok\n")
}

// asset is a built file, ready to be sent.
type asset struct {
	content []byte
	kind    string
	version string
}

func (s *Site) loadAssets() error {
	s.assets = map[string]asset{}
	root := "assets/dist"
	whole := sha256.New()
	err := fs.WalkDir(files, root, func(name string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() {
			return err
		}
		content, err := files.ReadFile(name)
		whole.Write(content)
		s.assets[strings.TrimPrefix(name, root+"/")] = asset{content: content, kind: mime.TypeByExtension(path.Ext(name))}
		return err
	})
	// One version for all, so that a style finds its fonts beside it.
	version := fmt.Sprintf("%x", whole.Sum(nil)[:6])
	for name, a := range s.assets {
		a.version = version
		if strings.HasSuffix(name, ".woff2") {
			a.kind = "font/woff2"
		}
		s.assets[name] = a
	}
	return err
}

func (s *Site) assetURL(name string) (string, error) {
	a, ok := s.assets[name]
	if !ok {
		return "", fmt.Errorf("there is no asset %s", name)
	}
	return "/assets/" + a.version + "/" + name, nil
}

func (s *Site) asset(c *gin.Context) {
	a, ok := s.assets[strings.TrimPrefix(c.Param("file"), "/")]
	if !ok {
		s.notFound(c)
		return
	}
	if c.Param("version") == a.version {
		c.Header("Cache-Control", "public, max-age=31536000, immutable")
	}
	c.Data(http.StatusOK, a.kind, a.content)
}

// look is the theme that the browser has picked.
func look(c *gin.Context) string {
	picked, _ := c.Cookie("look")
	for _, known := range looks {
		if picked == known {
			return picked
		}
	}
	return looks[0]
}

func (s *Site) setLook(c *gin.Context) {
	picked := c.PostForm("look")
	if !slices.Contains(looks, picked) {
		picked = looks[0]
	}
	http.SetCookie(c.Writer, &http.Cookie{Name: "look", Value: picked, Path: "/", MaxAge: int((365 * 24 * time.Hour).Seconds()), HttpOnly: true, SameSite: http.SameSiteLaxMode, Secure: s.Secure})
	c.Redirect(http.StatusSeeOther, safePath(c.PostForm("back")))
}

// safePath is a path of this site, whatever a form says.
func safePath(wanted string) string {
	if !strings.HasPrefix(wanted, "/") || strings.HasPrefix(wanted, "//") || strings.ContainsAny(wanted, "\\\r\n") {
		return "/today"
	}
	return wanted
}
