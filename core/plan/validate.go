package plan

import (
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"cuestart/core/clock"
	"cuestart/core/drill"
)

// Limits of a document. They are far above any squad's needs and keep the
// fit's work bounded.
const (
	MaxName    = 80  // characters of a name or title
	MaxPlayers = 120 // players
	MaxBlocks  = 60  // blocks
	MaxItems   = 12  // drills in a block
	MaxOwn     = 8   // lines of what a player always does in own time
	mostNotes  = 20
	maxNote    = 300
)

// Validate checks everything about the document that does not need the fit,
// and returns [Problems] or nil.
func (d *Document) Validate() error {
	v := validator{doc: d}
	v.head()
	if len(d.Notes) > mostNotes {
		v.add("notes", "%d notes are too many: keep %d", len(d.Notes), mostNotes)
	}
	for _, s := range d.Notes {
		if utf8.RuneCountInString(s) > maxNote || strings.ContainsAny(s, "\n\r\x00") {
			v.add("notes", "keep a note to one line of %d characters", maxNote)
		}
	}
	v.day()
	v.people()
	v.places()
	v.staff()
	ids := v.ids()
	for i := range d.Fixed {
		v.fixed(&d.Fixed[i])
	}
	if len(d.Blocks) > MaxBlocks {
		v.add("blocks", "a plan has %d blocks at most", MaxBlocks)
	}
	for b := range d.AllBlocks() {
		v.block(b, ids)
	}
	v.lists()
	return v.problems.Err()
}

type validator struct {
	doc      *Document
	start    time.Time
	problems Problems
}

func (v *validator) add(where, what string, args ...any) {
	v.problems = append(v.problems, Problem{where, fmt.Sprintf(what, args...)})
}

// must adds what is wrong, if it is.
func (v *validator) must(where, problem string) {
	if problem != "" {
		v.add(where, "%s", problem)
	}
}

func (v *validator) name(where, name string) { v.must(where, NameProblem(name)) }

// NameProblem says what is wrong with a name, or "".
func NameProblem(name string) string {
	switch n := utf8.RuneCountInString(name); {
	case strings.TrimSpace(name) == "":
		return "give it a name"
	case n > MaxName:
		return fmt.Sprintf("%d characters is too long: keep it to %d", n, MaxName)
	case strings.ContainsAny(name, "\n\r\x00") || !utf8.ValidString(name):
		return "keep the name to one line of plain text"
	}
	return ""
}

func (v *validator) head() {
	d := v.doc
	v.name("title", d.Title)
	if d.Kind != Match && d.Kind != Training {
		v.add("kind", "%q is neither match nor training", d.Kind)
	}
	if _, ok := Methods[d.Method]; !ok {
		v.add("method", "%q is not a method that is known", d.Method)
	}
	if d.Slack < 0 || d.Slack > MostSlack {
		v.add("margin", "slack lies between 0 and %d minutes", MostSlack/60)
	}
	if d.Margin < 0 || d.Margin > 3600 {
		v.add("margin", "the margin lies between 0 and 60 minutes")
	}
	start, err := d.Start.Resolve()
	if err != nil {
		v.add("start", "%s", err)
		return
	}
	v.start = start
	open, err := d.Open.Offset(start)
	switch {
	case err != nil:
		v.add("open", "%s", err)
	case open < -24*3600:
		v.add("open", "work opens more than a day before the start")
	case int(open) > -d.Margin:
		v.add("start", "the ground opens at %s, after the work has to end at %s: start later, or open earlier",
			clock.Clock(start, open), clock.Clock(start, clock.Offset(-d.Margin)))
	}
}

// day checks the conditions, the kit and the restrictions.
func (v *validator) day() {
	d := v.doc
	if t := d.Today.Celsius; t != nil {
		v.must("today.air_celsius", AirProblem(*t))
	}
	if d.Today.DrinkEvery < 0 || d.Today.DrinkEvery > 120 {
		v.add("today.drink_every", "drink stops come every 1 to 120 minutes")
	}
	switch d.Grade {
	case "", drill.Junior, drill.Club, drill.Elite:
	default:
		v.add("grade", "%q is not junior, club or elite", d.Grade)
	}
	for name, n := range d.Kit {
		if n < 0 || n > 10_000 {
			v.add("kit."+name, "there are between 0 and 10,000")
		}
	}
	for _, r := range d.Restrictions {
		if r.MaxEffort < 0 || r.MaxEffort > 1 || r.MaxMinutes < 0 {
			v.add("restrictions."+r.Player, "effort lies between 0 and 1, minutes above 0")
		}
	}
}

func (v *validator) people() {
	d := v.doc
	if len(d.Players) == 0 {
		v.add("players", "nobody is picked: a run-in needs at least one player")
	}
	if len(d.Players) > MaxPlayers {
		v.add("players", "a plan has %d players at most", MaxPlayers)
	}
	for _, p := range d.Players {
		v.name("players."+p.ID, p.First)
		v.must("players."+p.ID, lateProblem(p.Late))
		if p.DueShift < -3600 || p.DueShift > 4*3600 {
			v.add("players."+p.ID, "the due time lies outside the day")
		}
	}
}

func (v *validator) places() {
	for _, z := range v.doc.Zones {
		v.name("zones."+z.ID, z.Name)
		if z.Capacity < 1 || z.Lanes < 1 {
			v.add("zones."+z.ID, "a zone holds at least one person, in at least one lane")
		}
		if z.Lies != nil && z.Lies.Problem() != "" {
			v.add("zones."+z.ID, "%s", z.Lies.Problem())
		}
		for _, span := range z.Free {
			v.span("zones."+z.ID, span)
		}
	}
}

func (v *validator) span(where string, span Span) {
	if v.start.IsZero() {
		return
	}
	window, err := span.Window(v.start)
	if err != nil {
		v.add(where, "%s", err)
	} else if window.To <= window.From {
		v.add(where, "it ends before it starts")
	}
}

// staff checks when leaders are there.
func (v *validator) staff() {
	for _, l := range v.doc.Leaders {
		for _, span := range l.Free {
			v.span("leaders."+l.ID, span)
		}
	}
}

// ids collects every id, and finds the empty and the doubled ones.
func (v *validator) ids() map[string]string {
	ids := map[string]string{}
	put := func(kind, id string) {
		if id == "" || id == Everyone || len(id) > 64 {
			v.add(kind, "every one of the %s needs an id of its own", kind)
		} else if _, taken := ids[id]; taken {
			v.add(kind, "the id %q is used twice", id)
		}
		ids[id] = kind
	}
	d := v.doc
	for _, p := range d.Players {
		put("players", p.ID)
	}
	for _, u := range d.Units {
		put("units", u.ID)
	}
	for _, z := range d.Zones {
		put("zones", z.ID)
	}
	for _, l := range d.Leaders {
		put("leaders", l.ID)
	}
	for _, f := range d.Fixed {
		put("fixed", f.ID)
	}
	for b := range d.AllBlocks() {
		put("blocks", b.ID)
	}
	for i := range d.Lists {
		put("lists", d.Lists[i].ID)
	}
	return ids
}

func (v *validator) fixed(f *Fixed) {
	v.name("fixed."+f.ID, f.Name)
	v.span("fixed."+f.ID, f.Span)
}

// held checks what the block is held by.
func (v *validator) held(b *Block, ids map[string]string) {
	for _, id := range b.follows() {
		if ids[id] != "blocks" || id == b.ID || v.doc.ListOf(id) != v.doc.ListOf(b.ID) {
			v.add(AtBlock(b.ID, "hold"), "it cannot come after %q", id)
			return
		}
	}
	if v.must(AtBlock(b.ID, "hold"), v.doc.circle(b)); !v.start.IsZero() {
		v.window(b)
	}
}

// window checks that a hold can be kept on some day, if not on this one.
func (v *validator) window(b *Block) {
	for _, m := range []*clock.Moment{b.Pin, b.Hold.From, b.Hold.Until} {
		if m != nil {
			if at, err := m.Offset(v.start); err != nil || at < -24*3600 || at > 24*3600 {
				v.add(AtBlock(b.ID, "hold"), "it is held outside the day")
				return
			}
		}
	}
	for _, id := range []string{b.Hold.Before, b.Hold.After} {
		if id != "" && v.doc.Event(id) == nil {
			v.add(AtBlock(b.ID, "hold"), "%q is not among what the day holds", id)
			return
		}
	}
}

func (v *validator) block(b *Block, ids map[string]string) {
	at := func(field string) string { return AtBlock(b.ID, field) }
	v.name(at("name"), b.Name)
	if len(b.Aim) > 4*MaxName {
		v.add(at("aim"), "keep the aim to one line")
	}
	if list := v.doc.ListOf(b.ID); list != nil && b.Phase == drill.After {
		// what comes after the end has no place in a method
	} else if b.Phase != drill.Own && !slices.Contains(Methods[v.doc.Method].Phases, b.Phase) {
		v.add(at("phase"), "%q is not a phase of the method", b.Phase)
	}
	if b.Priority.Weight() == 0 {
		v.add(at("priority"), "the priority is must, should or could")
	}
	if len(v.doc.Members(b.Who)) == 0 && v.doc.unfilled(b.Who) == "" {
		v.add(at("who"), "nobody is in it: pick a unit or players")
	}
	for _, ref := range []struct{ id, kind string }{{b.Zone, "zones"}, {b.Leader, "leaders"}} {
		if ref.id != "" && ids[ref.id] != ref.kind {
			v.add(at(ref.kind), "%q is not among the %s of this plan", ref.id, ref.kind)
		}
	}
	v.held(b, ids)
	if b.Stations < 0 || b.Stations > 100 {
		v.add(at("stations"), "there are between 1 and 100 stations")
	}
	v.rounds(b)
	v.form(b)
	if utf8.RuneCountInString(b.Note) > 4*maxNote || strings.ContainsRune(b.Note, 0) {
		v.add(at("note"), "keep the note short")
	}
	if b.SetUp < 0 || b.SetUp > 3600 {
		v.add(at("set_up"), "set-up takes between 0 and 60 minutes")
	}
	if len(b.Items) == 0 || len(b.Items) > MaxItems {
		v.add(at("items"), "a block has between 1 and %d drills", MaxItems)
	}
	for i, item := range b.Items {
		if err := item.Drill.Validate(); err != nil {
			v.add(AtItem(b.ID, i), "%s", err)
		}
	}
}

// rounds checks how often it is gone through.
func (v *validator) rounds(b *Block) {
	if b.Pace != 0 && !(b.Pace >= FastestPace && b.Pace <= SlowestPace) {
		v.add(AtBlock(b.ID, "pace"), "a block runs between %g and %g times as long", FastestPace, SlowestPace)
	}
	if b.Rounds < 0 || b.Rounds > 20 || b.RoundRest < 0 || b.RoundRest > 600 {
		v.add(AtBlock(b.ID, "rounds"), "there are between 1 and 20 rounds, with a rest of up to 10 minutes")
	} else if b.LeastRounds < 0 || b.LeastRounds > max(1, b.Rounds) {
		v.add(AtBlock(b.ID, "rounds"), "the fewest rounds are no more than the rounds")
	}
}

// form checks how the block is run.
func (v *validator) form(b *Block) {
	at := func(field string) string { return AtBlock(b.ID, field) }
	if !slices.Contains(Forms, b.Form) || !slices.Contains(Splits, b.Split) {
		v.add(at("form"), "a block is run in order, at stations or by choice")
	}
	if b.On != Usual && b.On != First && b.On != Later {
		v.add(at("on"), "say on which days it is run")
	}
	if b.Change < 0 || b.Change > 600 {
		v.add(at("change"), "groups change within 10 minutes")
	}
	if b.Pick < 0 || b.Pick > MaxItems {
		v.add(at("pick"), "each does between 1 and all of the drills")
	}
	if len(b.Groups) > MaxItems {
		v.add(at("groups"), "there is one group for each station")
	}
	for _, item := range b.Items {
		if item.AtOnce < 0 || item.AtOnce > MaxPlayers {
			v.add(at("turns"), "between 1 and all do it at once")
		}
	}
}

// lists checks what is said of the day beside the run-in.
func (v *validator) lists() {
	d := v.doc
	if len(d.Lists) > mostLists || len(d.Facing) > mostFacts || len(d.Bring) > mostBring {
		v.add("lists", "that is more than a plan holds")
	}
	for i := range d.Lists {
		v.must(AtList(d.Lists[i].ID), d.Lists[i].problem())
	}
	for _, f := range d.Facing {
		v.must("facing", NameProblem(f.Name))
		v.must("facing", NameProblem(f.Says))
	}
	for _, b := range d.Bring {
		v.must("bring", NameProblem(b.What))
	}
	if d.Turn != Usual && d.Turn != First && d.Turn != Later {
		v.add("turn", "say how the day begins")
	}
}
