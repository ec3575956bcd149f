// Package pitch is the pitch side: a session while it runs, on the phone in the coach's
// hand, with or without a signal. The core runs on the phone; the server keeps what was
// pressed, and tells the other phones.
package pitch

import (
	"cmp"
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"cuestart/core/conduct"
	"cuestart/core/speech"
	"cuestart/field"
	"cuestart/planner"
	"cuestart/planner/pitchside"
	"cuestart/web/assets"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, nil)

// body is the page. What it shows is made by its script; the first view is made here.
type body struct {
	ID       uint64
	Title    string
	Base     string
	View     string // JSON of a [field.View]
	NowMilli int64
	Me       string
	Account  uint64 // of who is signed in
	Zone     string
	Degrees  string // of the thermometer
	Script   string // address of the one that runs the core
	Edits    bool   // who looks may press
	Try      int    // seconds to go at which it is rehearsed; 0: it is not
	Early    string // when it can be pressed from, before that
	Looks    []string
	Look     string
	Words    string // JSON of what the script says itself, by the English words
}

// Minutes is to go when it is rehearsed.
func (b *body) Minutes() int { return b.Try / 60 }

// What one press says, in minutes.
func (*body) Earlier() []int  { return []int{-15, -10, -5} }
func (*body) Later() []int    { return []int{5, 10, 15, 30} }
func (*body) Minutes5() []int { return []int{5, 10, 15} }
func (*body) Lost() []int     { return []int{2, 3, 5, 10, 15} }

// Show is the pitch side of a session.
func (in Room) Show(r *shell.Request) (shell.Answer, error) {
	id := r.ParamID("session")
	running, err := in.Pitchside.Running(r.Context(), r.Club(), id)
	if err != nil {
		return nil, err
	}
	now, speaks := r.Now(), r.Speaks()
	d, start := running.Document, running.Schedule.Start
	b := &body{ID: id, Title: d.Title, Base: shell.Pitch(id), NowMilli: now.UnixMilli(), Me: r.By.Name,
		Account: r.By.ID, Script: corePath, Zone: d.Start.Zone, Degrees: d.Measure.Degrees(),
		Edits: r.May(planner.ToRun), Try: r.QueryCount("try"),
		Looks: slices.DeleteFunc(slices.Clone(shell.Looks()), func(l string) bool { return l == r.Look() }),
		Look:  r.Look()}
	at, events := now.UnixMilli(), running.Events
	if b.Try > 0 {
		at, events = start.Add(-time.Duration(b.Try)*time.Second).UnixMilli(), nil
	}
	if from := running.Opens(); now.Before(from) && b.Try == 0 {
		b.Early = from.Format("15:04, Monday 2 January")
	}
	b.Words = words(speaks)
	b.View, err = view(running.Plan, events, at, speaks.Table())
	return &shell.Page{Screens: screens, Name: "pitch", Title: "Running " + d.Title, Body: b, Phone: true,
		Tongue: speaks}, err
}

// view is the first one, by which the page shows something before the core is there.
func view(plan conduct.Plan, events []conduct.Event, at int64, in *speech.Table) (string, error) {
	text, err := json.Marshal(append([]conduct.Event{}, events...))
	if err != nil {
		return "", err
	}
	made, err := field.On(plan, in).View(text, at)
	return string(made), err
}

// spoken is what the script says itself; %s stands for what it puts in.
var spoken = []string{"%s is done", "%s has started", "%s is skipped", "%s once more", "%s: one try",
	"%s: to come back to", "Note kept",
	"Say the time that the start is called for.", "Say what the thermometer shows.", "since the start", "to go",
	"in %s", "now", "again", "%s of %s",
	"rehearsal: nothing is kept", "no signal · %s to send", "no signal · nothing is lost", "%s to send", "all sent",
	"%s: %s from %s",
	"The plan is not on this phone yet. It loads as soon as there is a signal.", "standing %s",
	"· %s above rest, an estimate", "waits for %s", "skipped",
	"Fit both together", "Catch up", "Start it now", "%s in %s′", "Cold at the start. %s"}

// words are what the script says, by the English words, in a language; "" in English.
func words(in shell.Tongue) string {
	pieces, said := in.Pieces(), map[string]string{}
	if pieces == nil {
		return ""
	}
	for _, english := range spoken {
		said[english] = cmp.Or(pieces[english], english)
	}
	text, err := json.Marshal(said)
	if err != nil {
		panic(err) // they are texts
	}
	return string(text)
}

// running is the plan with what was pressed, for the phone to keep.
type running struct {
	*pitchside.Running
	Now    int64             `json:"now"`              // Unix milliseconds
	Pieces map[string]string `json:"pieces,omitempty"` // of the language in which it is told, where that is not English
}

// Plan is the plan with what was pressed.
func (in Room) Plan(r *shell.Request) (shell.Answer, error) {
	found, err := in.Pitchside.Running(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	text, err := json.Marshal(running{found, r.Now().UnixMilli(), r.Speaks().Pieces()})
	return shell.Raw{Kind: shell.JSON, Content: text}, err
}

// told is what a phone hears: what was pressed since, and the time.
type told struct {
	Events  []conduct.Event     `json:"events"`
	Last    uint32              `json:"last"`
	More    bool                `json:"more,omitempty"` // there are further events than fit here
	Now     int64               `json:"now"`
	Hurt    []shell.HurtRow     `json:"hurt"`    // who is hurt, with what medical staff answered
	Trouble string              `json:"trouble"` // why the players do not have what was changed
	Clash   string              `json:"clash"`   // what was changed on the board as well
	Refused []pitchside.Refused `json:"refused,omitempty"`
}

func (in Room) since(r *shell.Request, have uint32) (is told, err error) {
	ctx, id := r.Context(), r.ParamID("session")
	if is.Events, is.Last, is.More, err = in.Pitchside.Arrived(ctx, r.Club(), id, have); err != nil {
		return is, err
	}
	hurt, err := in.Keep.HurtIn(ctx, r.By, id)
	if err != nil {
		return is, err
	}
	is.Now, is.Hurt = r.Now().UnixMilli(), append([]shell.HurtRow{}, shell.HurtRows(r, hurt)...)
	is.Trouble, is.Clash, err = in.Pitchside.RunTold(ctx, id)
	return is, err
}

// Press takes in what was pressed on a phone, and answers with what others pressed.
func (in Room) Press(r *shell.Request) (shell.Answer, error) {
	var events []conduct.Event
	if err := json.Unmarshal([]byte(r.Form.Raw("events")), &events); err != nil {
		return nil, shell.Refusal{Status: 422, Heading: "That cannot be read",
			Line: "What was pressed came in broken. It stays on the phone."}
	}
	refused, err := in.Pitchside.Pressed(r.Context(), r.By, r.ParamID("session"), events)
	if err != nil {
		return nil, err
	}
	is, err := in.since(r, uint32(r.Form.Int("have", 0, 1<<30)))
	if is.Refused = refused; err != nil {
		return nil, err
	}
	text, err := json.Marshal(is)
	return shell.Raw{Kind: shell.JSON, Content: text}, err
}

// pulse is how often a phone hears the time, so that both know that the other is there.
const pulse = 20 * time.Second

// Live tells a phone at once what was pressed on another.
func (in Room) Live(r *shell.Request) (shell.Answer, error) {
	have := uint32(r.QueryCount("have"))
	if _, err := in.since(r, have); err != nil {
		return nil, err
	}
	return shell.Stream{Run: func(ctx context.Context, send func(event, data string) error) error {
		news := r.Live().Listen(r.ParamID("session"), true)
		defer news.Close()
		beat := time.NewTicker(pulse)
		defer beat.Stop()
		for {
			is, err := in.since(r, have)
			if err != nil {
				return err
			}
			have = is.Last
			text, err := json.Marshal(is)
			if err == nil {
				err = send("pressed", string(text))
			}
			if err != nil {
				return err
			}
			if is.More {
				continue
			}
			select {
			case <-ctx.Done():
				return nil
			case <-news.Over():
				return nil
			case <-beat.C:
			case <-news.News:
			}
		}
	}}, nil
}

// keptFiles are what a phone keeps to run a session without a signal.
var keptFiles = []string{"phone.css", "pitch.js", "field.wasm", "wasm_exec.js", "icon.svg",
	"fonts/barlow-condensed-small-600-normal.woff2", "fonts/atkinson-hyperlegible-small-400-normal.woff2"}

// Worker is the script that keeps the page, its plan and the core.
func Worker(*shell.Request) (shell.Answer, error) { return shell.Keeper(keptFiles, corePath) }

// corePath is where the script lies that runs the core: under the pitch side, so that what
// keeps its pages keeps what the core loads too.
const corePath = "/pitch/field.js"

// Core is the script that runs the core beside the page.
func Core(*shell.Request) (shell.Answer, error) {
	script, _ := assets.Find("field.js")
	loader, err := assets.URL("wasm_exec.js")
	if err != nil {
		return nil, err
	}
	core, err := assets.URL("field.wasm")
	return shell.Raw{Kind: "text/javascript; charset=utf-8",
		Content: fmt.Appendf(nil, "const loader = %q, core = %q;\n%s", loader, core, script.Content), Core: true}, err
}
