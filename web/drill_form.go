package web

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// drillForm is the form that changes a drill.
type drillForm struct {
	drill.Drill
	New                           bool
	Edition                       uint32
	Cues, Faults, Kit, LaneKit    string
	Rows, Columns, Ladder         string
	Own                           bool
	Codes                         []choice
	Problems                      plan.Problems
	PhaseChoices, Regions, Planes []tickBox
	Qualities, Flags              []tickBox
	Grades                        []choice
	Kinds                         []choice
}

// tickGroup is boxes under one name.
type tickGroup struct {
	Label, Name string
	Ticks       []tickBox
}

// namedLink is a field that names another drill.
type namedLink struct{ Name, Label, Now string }

func linksOf(d drill.Drill) []namedLink {
	return []namedLink{{"easier", "Easier form", d.Easier}, {"harder", "Harder form", d.Harder}, {"swap", "Instead of it", d.Swap}}
}

// tickBox is a box that is ticked or not.
type tickBox struct {
	Value, Label string
	On           bool
}

var flagNames = []struct {
	name, label string
	of          func(*drill.Drill) *bool
}{
	{"ground", "on the ground", func(d *drill.Drill) *bool { return &d.Ground }},
	{"static", "held still, to stretch", func(d *drill.Drill) *bool { return &d.Static }},
	{"needs_warm", "only once warm", func(d *drill.Drill) *bool { return &d.NeedsWarm }},
	{"end_range", "to the end of the range", func(d *drill.Drill) *bool { return &d.EndRange }},
	{"one_sided", "one side at a time", func(d *drill.Drill) *bool { return &d.OneSided }},
	{"arm_pump", "tires the throwing arm", func(d *drill.Drill) *bool { return &d.ArmPump }},
	{"overhead", "hands overhead", func(d *drill.Drill) *bool { return &d.Overhead }},
	{"collision", "body contact at full effort", func(d *drill.Drill) *bool { return &d.Collision }},
	{"together", "the group does it as one", func(d *drill.Drill) *bool { return &d.Together }},
}

// numbers of a dose, with what they are called in the form.
var doseFields = []struct {
	Name, Label, For string
	of               func(*drill.Drill) any
}{
	{"sets", "sets", "reps hold", func(d *drill.Drill) any { return &d.Dose.Sets }},
	{"sides", "sides (1 or 2)", "reps hold", func(d *drill.Drill) any { return &d.Dose.Sides }},
	{"rep_seconds", "seconds a rep", "reps", func(d *drill.Drill) any { return &d.Dose.RepSeconds }},
	{"hold_seconds", "seconds held", "hold", func(d *drill.Drill) any { return &d.Dose.HoldSeconds }},
	{"settle_seconds", "seconds to settle", "hold", func(d *drill.Drill) any { return &d.Dose.SettleSeconds }},
	{"rest_seconds", "seconds between sets", "reps hold", func(d *drill.Drill) any { return &d.Dose.RestSeconds }},
	{"metres", "metres a trip", "travel", func(d *drill.Drill) any { return &d.Dose.Metres }},
	{"speed", "metres a second", "travel", func(d *drill.Drill) any { return &d.Dose.Speed }},
	{"turn_seconds", "seconds to turn", "travel", func(d *drill.Drill) any { return &d.Dose.TurnSeconds }},
	{"interval_seconds", "seconds between waves", "travel", func(d *drill.Drill) any { return &d.Dose.IntervalSeconds }},
	{"act_seconds", "seconds an act", "count grid", func(d *drill.Drill) any { return &d.Dose.ActSeconds }},
	{"cells", "cells (rows × columns)", "grid", func(d *drill.Drill) any { return &d.Dose.Cells }},
	{"contacts_per_unit", "ground contacts each", "", func(d *drill.Drill) any { return &d.ContactsPerUnit }},
	{"length", "metres long", "", func(d *drill.Drill) any { return &d.Space.Length }},
	{"width", "metres wide", "", func(d *drill.Drill) any { return &d.Space.Width }},
	{"min", "least", "", func(d *drill.Drill) any { return &d.Range.Min }},
	{"target", "target", "", func(d *drill.Drill) any { return &d.Range.Target }},
	{"max", "most", "", func(d *drill.Drill) any { return &d.Range.Max }},
	{"step", "step", "", func(d *drill.Drill) any { return &d.Range.Step }},
}

// doseNumber is a number field of the form.
type doseNumber struct{ Name, Label, For, Value string }

// Numbers are the fields whose names are given, with their values.
func (f *drillForm) Numbers(names ...string) (list []doseNumber) {
	for _, n := range doseFields {
		if !slices.Contains(names, n.Name) {
			continue
		}
		one := doseNumber{n.Name, n.Label, n.For, ""}
		switch v := n.of(&f.Drill).(type) {
		case *int:
			one.Value = fmt.Sprint(*v)
		case *float64:
			one.Value = fmt.Sprint(*v)
		}
		list = append(list, one)
	}
	return list
}

// EffortPct is the effort in per cent.
func (f *drillForm) EffortPct() int { return int(100*f.Effort + 0.5) }

func (s *Site) editDrill(c *gin.Context) {
	b := s.book(c)
	if b == nil {
		return
	}
	d, ok := b.Find(c.Param("code"))
	if !ok {
		s.notFound(c)
		return
	}
	form := &drillForm{Drill: d, New: c.Query("copy") != ""}
	if own, ok := b.Own[d.Code]; ok && !form.New {
		form.Own, form.Edition = true, own.Edition
	}
	if form.New {
		form.Code, form.Name = "", d.Name+", ours"
	}
	s.showDrillForm(c, http.StatusOK, b, form)
}

func (s *Site) showDrillForm(c *gin.Context, status int, b *planner.Book, f *drillForm) {
	f.Cues, f.Faults = strings.Join(f.Drill.Cues, "\n"), strings.Join(f.Drill.Faults, "\n")
	f.Kit, f.LaneKit = strings.Join(f.Drill.Kit, "; "), strings.Join(f.Drill.LaneKit, "; ")
	f.Rows, f.Columns = strings.Join(f.Drill.Rows, "; "), strings.Join(f.Drill.Columns, "; ")
	var rungs []string
	for _, r := range f.Drill.Rungs {
		rungs = append(rungs, r.String())
	}
	f.Ladder = strings.Join(rungs, "\n")
	for _, p := range phaseOrder {
		f.PhaseChoices = append(f.PhaseChoices, tickBox{tile(p), phaseNames[p], f.Drill.Serves(p)})
	}
	ticks := func(all, on []string) (list []tickBox) {
		for _, w := range all {
			list = append(list, tickBox{w, w, slices.Contains(on, w)})
		}
		return list
	}
	f.Regions, f.Planes, f.Qualities = ticks(drill.Regions, f.Drill.Regions), ticks(drill.Planes, f.Drill.Planes), ticks(drill.Qualities, f.Drill.Qualities)
	for _, flag := range flagNames {
		f.Flags = append(f.Flags, tickBox{flag.name, flag.label, *flag.of(&f.Drill)})
	}
	for _, g := range drill.Grades {
		f.Grades = append(f.Grades, choice{string(g), gradeNames[g]})
	}
	f.Kinds = []choice{{"reps", "repetitions"}, {"hold", "holds"}, {"travel", "lengths or trips"}, {"count", "acts of the sport"}, {"grid", "a grid of places"}, {"time", "plain time"}}
	for _, d := range b.Drills {
		f.Codes = append(f.Codes, choice{d.Code, d.Name})
	}
	slices.SortFunc(f.Codes, func(a, b choice) int { return strings.Compare(a.Label, b.Label) })
	title := f.Name
	if f.New {
		title = "A drill of our own"
	}
	s.show(c, status, "drills/edit", title, "drills", f)
}

func (s *Site) saveDrill(c *gin.Context) {
	ctx := c.Request.Context()
	b := s.book(c)
	if b == nil {
		return
	}
	code := c.Param("code")
	form := &drillForm{New: code == "new", Edition: edition(c), Own: b.Own[code].ID != 0}
	if known, ok := b.Find(code); ok {
		form.Drill = known
	} else if !form.New {
		s.notFound(c)
		return
	}
	wrong := form.read(c)
	if form.New {
		form.Code = b.Free(form.Name)
	}
	if len(wrong) > 0 {
		form.Problems = wrong
		s.showDrillForm(c, http.StatusUnprocessableEntity, b, form)
		return
	}
	err := s.Planner.KeepDrill(ctx, *account(c), club.Drill{Drill: form.Drill}, form.Edition)
	s.saved(c, err, form.Name+" is saved", "/drills?drill="+url.QueryEscape(form.Code), func(status int, wrong plan.Problems) {
		form.Problems = wrong
		s.showDrillForm(c, status, b, form)
	})
}

// read takes the form's fields into the drill.
func (f *drillForm) read(c *gin.Context) (wrong plan.Problems) {
	d := &f.Drill
	d.Name, d.Aim, d.Unit, d.Caution = strings.TrimSpace(c.PostForm("name")), strings.TrimSpace(c.PostForm("aim")), strings.TrimSpace(c.PostForm("unit")), strings.TrimSpace(c.PostForm("caution"))
	d.Cues, d.Faults, d.Kit, d.LaneKit = entries(c.PostForm("cues")), entries(c.PostForm("faults")), entries(c.PostForm("kit")), entries(c.PostForm("lane_kit"))
	d.Rows, d.Columns, d.Rungs = entries(c.PostForm("rows")), entries(c.PostForm("columns")), nil
	for _, text := range entries(c.PostForm("ladder")) {
		r, err := drill.ParseRung(text)
		if err != nil {
			wrong = append(wrong, plan.Problem{Where: "ladder", What: err.Error()})
			continue
		}
		d.Rungs = append(d.Rungs, r)
	}
	d.Regions, d.Planes, d.Qualities = c.PostFormArray("regions"), c.PostFormArray("planes"), c.PostFormArray("qualities")
	d.Easier, d.Harder, d.Swap, d.Least = c.PostForm("easier"), c.PostForm("harder"), c.PostForm("swap"), drill.Grade(c.PostForm("least"))
	d.Dose.Kind, d.Dose.Flow = drill.Kind(c.PostForm("kind")), ""
	if d.Dose.Kind == drill.Travel {
		d.Dose.Flow = drill.Flow(c.PostForm("flow"))
	}
	d.Phases = nil
	for _, p := range phaseOrder {
		if slices.Contains(c.PostFormArray("phases"), tile(p)) {
			d.Phases = append(d.Phases, p)
		}
	}
	for _, flag := range flagNames {
		*flag.of(d) = slices.Contains(c.PostFormArray("flags"), flag.name)
	}
	if pct, err := strconv.Atoi(c.PostForm("effort")); err == nil && pct >= 0 && pct <= 100 {
		d.Effort = float64(pct) / 100
	} else {
		wrong = append(wrong, plan.Problem{Where: "effort", What: "effort lies between 0 and 100 per cent"})
	}
	for _, n := range doseFields {
		text := strings.TrimSpace(c.PostForm(n.Name))
		if n.For != "" && !strings.Contains(n.For, string(d.Dose.Kind)) {
			text = "" // of another kind of dose
		}
		var err error
		switch v := n.of(d).(type) {
		case *int:
			*v, err = strconv.Atoi(orZero(text))
		case *float64:
			*v, err = strconv.ParseFloat(orZero(text), 64)
		}
		if err != nil || strings.HasPrefix(text, "-") {
			wrong = append(wrong, plan.Problem{Where: "dose", What: fmt.Sprintf("%q is no number of %s", text, n.Label)})
		}
	}
	if n := len(d.Rows) * len(d.Columns); n > 0 {
		d.Dose.Cells = n // counted for the coach
	}
	return wrong
}

func orZero(text string) string {
	if text == "" {
		return "0"
	}
	return text
}

func (s *Site) removeDrill(c *gin.Context) {
	b := s.book(c)
	if b == nil {
		return
	}
	d, ok := b.Find(c.Param("code"))
	if !ok {
		s.notFound(c)
		return
	}
	err := s.Planner.KeepDrill(c.Request.Context(), *account(c), club.Drill{Drill: d, Gone: true}, 0)
	s.saved(c, err, d.Name+" is out of your book", "/drills", func(status int, wrong plan.Problems) {
		s.showDrillForm(c, status, b, &drillForm{Drill: d, Problems: wrong})
	})
}

func (s *Site) resetDrill(c *gin.Context) {
	err := s.Planner.ResetDrill(c.Request.Context(), *account(c), c.Param("code"))
	if err == store.ErrNotFound {
		s.notFound(c)
		return
	}
	s.saved(c, err, "It is as it came", "/drills?drill="+url.QueryEscape(c.Param("code")), func(int, plan.Problems) { s.notFound(c) })
}
