package shell

import (
	"bytes"
	"cmp"
	"crypto/rand"
	"embed"
	"fmt"
	"html"
	"html/template"
	"io/fs"
	"net/http"
	"slices"
	"strings"
	"sync"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/web/assets"
)

// Page is a screen as an answer.
type Page struct {
	Screens *Screens
	Name    string // of the file, without .html
	Title   string
	Nav     string // the entry of the menu that it belongs to
	Status  int    // 0: 200
	Body    any
	Phone   bool   // for a phone, without the menu
	Tongue  Tongue // English where it is zero
	Part    string // the template that is sent by itself when the page's script asks for it

	wrong plan.Problems // why what was asked for was not done
}

// frame is what the layout around a page shows.
type frame struct {
	Title, Path, Nav string
	Lang             string
	Look             string // day, night or sun
	Account          *planner.Account
	Said             string // what was done just now
	Undo             string // what taking back would undo, on pages of what the club keeps
	Help             *Help  // nil: the page says all there is to say
	Body             any
}

// entry is a page of the menu. Keeps: a club keeps things there, and can take
// changes of these back.
type entry struct {
	Key, Label string
}

var menu = []entry{{"drills", "Drills"}, {"routines", "Routines"}, {"squad", "Squad"}, {"ground", "Ground"},
	{"week", "Week"}, {"log", "Log"}}

func (p *Page) write(r *Request) {
	status := max(p.Status, http.StatusOK)
	if r.Wants(p.Part) {
		r.gin.Header(partHeader, p.Part)
		p.execute(r, status, p.Part, p.Body)
		return
	}
	f := &frame{Title: p.Title, Lang: p.lang(r), Path: r.gin.Request.URL.Path, Nav: p.Nav, Look: r.look(), Body: p.Body}
	layout := "layout"
	if r.By.ID != 0 {
		f.Account = &r.By
	}
	if p.Phone {
		layout = "phone"
	} else if r.By.ID != 0 {
		f.Said = r.shell.sessions.PopString(r.Context(), saidKey)
		f.Undo, f.Help = p.undo(r), r.help()
	}
	p.execute(r, status, layout, f)
}

// lang is the language of a page.
func (p *Page) lang(r *Request) string {
	if p.Phone {
		return cmp.Or(p.Tongue.Lang, "en")
	}
	return r.Speaks().Lang
}

// undo is what the page offers to take back.
func (p *Page) undo(r *Request) string {
	if !slices.ContainsFunc(menu, func(e entry) bool { return e.Key == p.Nav }) {
		return ""
	}
	newest, err := r.shell.Office.Keep.Newest(r.Context(), r.By)
	if err != nil {
		r.shell.Log.Error("the newest change", "error", err)
	}
	return newest
}

func (p *Page) execute(r *Request, status int, block string, data any) {
	text := p.unsaid(p.Screens.Render(p.Name, block, data))
	speaks := p.Tongue
	if !p.Phone {
		speaks = r.Speaks()
	}
	text = speaks.Page(text)
	r.gin.Data(status, "text/html; charset=utf-8", []byte(text))
}

// unsaid is a page on which nothing that was refused goes without a sentence: what it has no place for
// stands over it.
func (p *Page) unsaid(text string) string {
	var all strings.Builder
	for _, wrong := range p.wrong {
		if wrong.What != "" && !strings.Contains(html.UnescapeString(text), wrong.What) {
			fmt.Fprintf(&all, `<p class="problem problem-over" role="alert">%s</p>`, html.EscapeString(wrong.What))
		}
	}
	if all.Len() == 0 {
		return text
	}
	from := max(0, strings.Index(text, "<main"))
	at := from + strings.Index(text[from:], ">") + 1
	return text[:at] + all.String() + text[at:]
}

// Screens are the templates of a room: every file is a page or a part, and the
// parts are there for all its pages.
type Screens struct {
	pages map[string]func() *template.Template // parsed when they are first asked for
}

// Render is a template of a page by itself.
func (s *Screens) Render(page, block string, data any) string {
	var text bytes.Buffer
	if err := s.pages[page]().ExecuteTemplate(&text, block, data); err != nil {
		panic(fmt.Errorf("page %s: %w", page, err))
	}
	return text.String()
}

//go:embed *.html
var files embed.FS

// own are the shell's own pages.
var own = Parse(files, nil)

// Parse reads the templates of a room, with functions of its own and beside those that it
// shares, each page when it is first shown. A template that does not parse is a bug, and panics.
func Parse(room fs.FS, funcs template.FuncMap, shared ...fs.FS) *Screens {
	base := sync.OnceValue(func() *template.Template {
		all := template.New("").Funcs(template.FuncMap{
			"asset":  assets.URL,
			"number": drill.Number,
			"once":   rand.Text,
			"looks":  func() []string { return looks },
			"menu":   func() []entry { return menu },
			"group":  func(label, name string, ticks []Tick) tickGroup { return tickGroup{label, name, ticks} },
		}).Funcs(funcs)
		for _, fsys := range append([]fs.FS{files}, append(shared, room)...) {
			template.Must(all.ParseFS(fsys, "*.html"))
		}
		return all
	})
	names, err := fs.Glob(room, "*.html")
	if err != nil {
		panic(err)
	}
	s := &Screens{map[string]func() *template.Template{}}
	for _, name := range names {
		s.pages[strings.TrimSuffix(name, ".html")] = sync.OnceValue(func() *template.Template {
			// Each page has a main of its own: the file's is the last.
			return template.Must(template.Must(base().Clone()).ParseFS(room, name))
		})
	}
	return s
}
