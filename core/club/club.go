// Package club knows what a club keeps between sessions: its squads' players and units, what
// medical staff ruled, its ground, kit, staff, routines and fixtures. Each is a small document
// that a plan copies whole.
package club

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Kind says what a thing of the club is.
type Kind string

// The kinds of things that a club keeps.
const (
	KindPlayer      Kind = "player"
	KindUnit        Kind = "unit"
	KindRestriction Kind = "restriction"
	KindVenue       Kind = "venue"
	KindZone        Kind = "zone"
	KindKit         Kind = "kit"
	KindStaff       Kind = "staff"
	KindRoutine     Kind = "routine"
	KindFixture     Kind = "fixture"
	KindDrill       Kind = "drill" // the club's own, or its change of the book's
	KindSport       Kind = "sport" // the club's copy
	KindTrial       Kind = "trial"
	KindTarget      Kind = "target" // what a week should hold
)

// Thing is what all of them have.
type Thing interface {
	Kind() Kind
	// Label names it in a list and in an undo.
	Label() string
	// Unique is what no other thing of its kind and owner may share, or "".
	Unique() string
	// Validate says what is wrong with it as [plan.Problems], or nil.
	Validate() error
}

// Player is a member of a squad.
type Player struct {
	Number   int         `json:"number,omitempty"` // 0: none
	First    string      `json:"first"`
	Last     string      `json:"last"`
	Position string      `json:"position,omitempty"`
	Foot     Side        `json:"foot,omitempty"`
	Hand     Side        `json:"hand,omitempty"`  // that throws
	Bats     Side        `json:"bats,omitempty"`  // the side of the bat; "": as the hand
	Level    drill.Grade `json:"level,omitempty"` // "": as the squad
	Build    Build       `json:"build,omitempty"`
	Own      string      `json:"own,omitempty"` // what they always do in own time, a line each
	// drills that they do in another form: "leg-swings=easier", with spaces between
	Forms string `json:"forms,omitempty"`
	Notes string `json:"notes,omitempty"`
}

// MaxNumber is the highest shirt number.
const MaxNumber = 999

// Side is a hand or foot.
type Side string

// The sides.
const (
	Right Side = "right"
	Left  Side = "left"
	Both  Side = "both"
)

// Build is how a body moves, where it matters.
type Build string

// The builds: a stiff player gets more range, a hypermobile one control.
const (
	Usual       Build = ""
	Stiff       Build = "stiff"
	Hypermobile Build = "hypermobile"
)

func (Player) Kind() Kind      { return KindPlayer }
func (p Player) Label() string { return strings.TrimSpace(p.First + " " + p.Last) }

// OwnLines are what they always do in own time, a line each.
func (p Player) OwnLines() (lines []string) {
	for line := range strings.Lines(p.Own) {
		if line = strings.TrimSpace(line); line != "" {
			lines = append(lines, line)
		}
	}
	return lines
}

// FormsOf are the drills that they do in another form: easier or harder, by code.
func (p Player) FormsOf() map[string]string {
	forms := map[string]string{}
	for _, one := range strings.Fields(p.Forms) {
		if code, form, ok := strings.Cut(one, "="); ok {
			forms[code] = form
		}
	}
	if len(forms) == 0 {
		return nil
	}
	return forms
}

// FormWords say which drills they do in another form: "the easier hop and stick".
func (p Player) FormWords() (words []string) {
	for _, one := range strings.Fields(p.Forms) {
		if code, form, ok := strings.Cut(one, "="); ok {
			words = append(words, "the "+form+" "+strings.ReplaceAll(strings.TrimPrefix(code, "our-"), "-", " "))
		}
	}
	return words
}

// WithForm are the forms with one more, or with "" one less.
func (p Player) WithForm(code, form string) string {
	kept := slices.DeleteFunc(strings.Fields(p.Forms),
		func(one string) bool { return strings.HasPrefix(one, code+"=") })
	if form != "" {
		kept = append(kept, code+"="+form)
	}
	return strings.Join(kept, " ")
}

// Unique is the shirt number; names may come twice.
func (p Player) Unique() string {
	if p.Number == 0 {
		return ""
	}
	return fmt.Sprintf("#%d", p.Number)
}

func (p Player) Validate() error {
	v := problems{}
	v.mustName("first", p.First)
	v.mayName("last", p.Last)
	v.mayName("position", p.Position)
	v.when(p.Number < 0 || p.Number > MaxNumber, "number", fmt.Sprintf("a number lies between 1 and %d", MaxNumber))
	v.oneOf("foot", string(p.Foot), "", "right", "left", "both")
	v.oneOf("hand", string(p.Hand), "", "right", "left", "both")
	v.oneOf("bats", string(p.Bats), "", "right", "left", "both")
	v.oneOf("level", string(p.Level), "", "junior", "club", "elite")
	v.oneOf("build", string(p.Build), "", "stiff", "hypermobile")
	v.when(len(p.Notes) > 500, "notes", "keep notes to 500 characters")
	v.when(len(p.Forms) > 1000, "forms", "so many other forms of drills are not kept: take some back")
	v.when(len(p.Own) > 500 || len(p.OwnLines()) > plan.MaxOwn, "own",
		fmt.Sprintf("keep it to %d lines, 500 characters in all", plan.MaxOwn))
	return v.err()
}

// Unit is a set of players that works together, across positions.
type Unit struct {
	Name    string   `json:"name"`
	Players []uint64 `json:"players"` // ids of the squad's players
}

func (Unit) Kind() Kind       { return KindUnit }
func (u Unit) Label() string  { return u.Name }
func (u Unit) Unique() string { return u.Name }
func (u Unit) Validate() error {
	v := problems{}
	v.mustName("name", u.Name)
	v.when(len(u.Players) == 0, "players", "nobody is in it")
	return v.err()
}

// MaxRuledMinutes is the most that medical staff may limit work to.
const MaxRuledMinutes = 240

// Restriction is what licensed medical staff ruled for a player. The coach sees
// what it rules, never the reason.
type Restriction struct {
	NoJumps    bool     `json:"no_jumps,omitempty"`
	NoOverhead bool     `json:"no_overhead,omitempty"`
	MaxEffort  int      `json:"max_effort,omitempty"` // per cent; 0: no limit
	Spare      []string `json:"spare,omitempty"`      // joints
	MaxMinutes int      `json:"max_minutes,omitempty"`
	From       string   `json:"from"`             // day, 2026-11-28
	Until      string   `json:"until,omitempty"`  // the last day; "": until it is lifted
	Review     string   `json:"review,omitempty"` // day on which it is looked at again
	Reason     string   `json:"reason,omitempty"` // for medical staff only
}

func (Restriction) Kind() Kind       { return KindRestriction }
func (r Restriction) Label() string  { return r.Words() }
func (r Restriction) Unique() string { return "" }
func (r Restriction) Validate() error {
	v := problems{}
	v.when(r.Words() == "", "rules", "say what it rules: at least one thing")
	v.when(r.MaxEffort < 0 || r.MaxEffort > 100, "max_effort", "effort lies between 1 and 100 per cent")
	v.when(r.MaxMinutes < 0 || r.MaxMinutes > MaxRuledMinutes, "max_minutes",
		fmt.Sprintf("minutes lie between 1 and %d", MaxRuledMinutes))
	for _, joint := range r.Spare {
		v.oneOf("spare", joint, drill.Regions...)
	}
	v.mustDay("from", r.From)
	v.mayDay("until", r.Until)
	v.mayDay("review", r.Review)
	v.when(r.Until != "" && r.Until < r.From, "until", "it ends before it begins")
	v.when(len(r.Reason) > 500, "reason", "keep it to 500 characters")
	return v.err()
}

// Words says what it rules: "no jumps, spare the knee".
func (r Restriction) Words() string {
	var words []string
	if r.NoJumps {
		words = append(words, "no jumps")
	}
	if r.NoOverhead {
		words = append(words, "nothing overhead")
	}
	if r.MaxEffort > 0 {
		words = append(words, fmt.Sprintf("no more than %d %% effort", r.MaxEffort))
	}
	for _, joint := range r.Spare {
		words = append(words, "spare the "+joint)
	}
	if r.MaxMinutes > 0 {
		words = append(words, fmt.Sprintf("%d minutes at most", r.MaxMinutes))
	}
	return strings.Join(words, ", ")
}

// Holds tells whether it is in force on a day, 2026-11-28.
func (r Restriction) Holds(day string) bool {
	return r.From <= day && (r.Until == "" || day <= r.Until)
}

// For is the restriction as a plan carries it, without dates and reason.
func (r Restriction) For(player string) plan.Restriction {
	return plan.Restriction{Player: player, NoJumps: r.NoJumps, NoOverhead: r.NoOverhead,
		MaxEffort: float64(r.MaxEffort) / 100, Spare: r.Spare, MaxMinutes: r.MaxMinutes}
}

// Fixture is a match or training that is to come, without a plan yet.
type Fixture struct {
	UID   string      `json:"uid"` // of the calendar it was read from, or made up
	For   plan.Kind   `json:"kind"`
	Title string      `json:"title"`
	Start clock.Start `json:"start"`
	Place string      `json:"place,omitempty"`
	Day   bool        `json:"day,omitempty"` // the whole day: the hour is not known yet
}

func (Fixture) Kind() Kind       { return KindFixture }
func (f Fixture) Label() string  { return f.Title }
func (f Fixture) Unique() string { return f.UID }
func (f Fixture) Validate() error {
	v := problems{}
	v.mustName("title", f.Title)
	v.mayName("place", f.Place)
	v.oneOf("kind", string(f.For), string(plan.Match), string(plan.Training))
	v.when(f.UID == "" || len(f.UID) > 100, "uid", "a fixture needs an id of 1 to 100 characters")
	_, err := f.Start.Resolve()
	if err != nil {
		v.add("start", err.Error())
	}
	return v.err()
}

// Trial is a test that a player did on a day: jump height, sprint time, reach.
type Trial struct {
	Player string    `json:"-"` // full name, where it is read from a list; kept, it is its owner
	Test   string    `json:"test"`
	Unit   string    `json:"unit"`
	Better Direction `json:"better"`
	Mean   bool      `json:"mean,omitempty"` // the mean of the tries counts, else the best
	Day    string    `json:"day"`            // 2026-11-28
	Part   string    `json:"part,omitempty"` // Before or After a session's run-in; "": neither
	Tries  []float64 `json:"tries"`
}

// When a test was done, where that was around a session's run-in.
const (
	Before = "before"
	After  = "after"
)

// Direction says which result of a test is the better one.
type Direction string

// The directions.
const (
	Higher Direction = "higher"
	Lower  Direction = "lower"
)

func (Trial) Kind() Kind      { return KindTrial }
func (t Trial) Label() string { return strings.TrimSpace(t.Player + " " + t.Test) }

// Unique is the test and the day: a player does it once a day, or once before and once
// after, in several tries.
func (t Trial) Unique() string { return strings.TrimSpace(t.Test + " " + t.Day + " " + t.Part) }
func (t Trial) Validate() error {
	v := problems{}
	v.mustName("test", t.Test)
	v.when(len(t.Unit) > 20, "unit", "keep it to 20 characters")
	v.oneOf("better", string(t.Better), string(Higher), string(Lower))
	v.mustDay("day", t.Day)
	v.when(len(t.Tries) == 0 || len(t.Tries) > 20, "tries", "there are between 1 and 20 tries")
	v.oneOf("part", t.Part, "", Before, After)
	for _, x := range t.Tries {
		v.when(!(x > -1e6 && x < 1e6), "tries", "a try is a number below a million")
	}
	return v.err()
}

// Best is what the tries come to: the best of them, or their mean where that counts; 0 where
// there are none.
func (t Trial) Best() float64 {
	if len(t.Tries) == 0 {
		return 0
	}
	if t.Mean {
		sum := 0.0
		for _, x := range t.Tries {
			sum += x
		}
		return sum / float64(len(t.Tries))
	}
	if t.Better == Lower {
		return slices.Min(t.Tries)
	}
	return slices.Max(t.Tries)
}

// problems collects what is wrong with a thing.
type problems struct{ found plan.Problems }

func (p *problems) add(where, what string) {
	p.found = append(p.found, plan.Problem{Where: where, What: what})
}

func (p *problems) when(wrong bool, where, what string) {
	if wrong {
		p.add(where, what)
	}
}

func (p *problems) mayName(where, name string) {
	if name != "" {
		p.mustName(where, name)
	}
}

func (p *problems) mustName(where, name string) {
	if what := plan.NameProblem(name); what != "" {
		p.add(where, what)
	}
}

func (p *problems) oneOf(where, word string, all ...string) {
	if !slices.Contains(all, word) {
		known := slices.DeleteFunc(slices.Clone(all), func(s string) bool { return s == "" })
		p.add(where, fmt.Sprintf("%q is not one of %s", word, strings.Join(known, ", ")))
	}
}

func (p *problems) mayDay(where, day string) {
	if day != "" {
		p.mustDay(where, day)
	}
}

func (p *problems) mustDay(where, day string) {
	_, err := time.Parse(time.DateOnly, day)
	p.when(err != nil, where, fmt.Sprintf("%q is not a day such as 2026-11-28", day))
}

func (p *problems) err() error {
	if len(p.found) == 0 {
		return nil
	}
	return p.found
}

func (p *problems) hours(opens, closes string) {
	for where, at := range map[string]string{"opens": opens, "closes": closes} {
		if _, err := time.Parse("15:04", at); at != "" && err != nil {
			p.add(where, fmt.Sprintf("%q is not a time such as 13:30", at))
		}
	}
	p.when(opens != "" && closes != "" && closes <= opens, "closes", "it closes before it opens")
}
