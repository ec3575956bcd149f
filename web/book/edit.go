package book

import (
	"fmt"
	"io"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/web/shell"
)

// drillForm is the form that changes a drill.
type drillForm struct {
	drill.Drill
	New                             bool
	From                            string // what a new one is a copy of
	Edition                         uint32
	Cues, Faults, Kit, LaneKit      string
	GroupKit, Seasons               string
	Rows, Columns, Ladder, Efforts  string
	Own                             bool
	Draft                           bool     // it was made of a line, and is still to be completed
	Said                            string   // how much, as it is said, of a new one
	Names                           []string // of the other drills
	Stands                          []standIn
	Problems                        plan.Problems
	PhaseTicks, RegionTicks         []shell.Tick
	PlaneTicks, QualityTicks, Flags []shell.Tick
	Grades, Kinds                   []shell.Choice
	sent                            map[string]string // numbers as they were sent, where these are none
}

// standIn is a field that names another drill, which stands in for this one; Now is what it is called.
type standIn struct {
	Name, Label, Now string
	code             *string
}

func (f *drillForm) standIns() []standIn {
	return []standIn{{Name: "easier", Label: "Easier form", code: &f.Easier},
		{Name: "harder", Label: "Harder form", code: &f.Harder}, {Name: "swap", Label: "Instead of it", code: &f.Swap}}
}

// readStandIns takes the drills that stand in for this one, by their names.
func (f *drillForm) readStandIns(in *shell.Form, b *books.Book) {
	for _, s := range f.standIns() {
		s.Now = in.Text(s.Name)
		drill, found := b.Find(*s.code)
		if !found || drill.Name != s.Now { // two may be called alike: what was named stays
			drill, found = b.Named(s.Now)
		}
		if s.Now != "" && !found {
			in.Refuse(s.Name, "no drill is called %q", s.Now)
		}
		*s.code, f.Stands = drill.Code, append(f.Stands, s)
	}
}

// flags are what a drill is or is not; mark is what its page says of it.
var flags = []struct {
	name, label, mark string
	of                func(*drill.Drill) *bool
}{
	{name: "ground", label: "on the ground", mark: "on the ground",
		of: func(d *drill.Drill) *bool { return &d.Ground }},
	{name: "static", label: "held still, to stretch", mark: "held still",
		of: func(d *drill.Drill) *bool { return &d.Static }},
	{name: "needs_warm", label: "only once warm", mark: "only once warm",
		of: func(d *drill.Drill) *bool { return &d.NeedsWarm }},
	{name: "end_range", label: "to the end of the range", mark: "to the end of the range",
		of: func(d *drill.Drill) *bool { return &d.EndRange }},
	{name: "one_sided", label: "one side at a time", mark: "one side at a time",
		of: func(d *drill.Drill) *bool { return &d.OneSided }},
	{name: "arm_pump", label: "tires the throwing arm", mark: "tires the arm",
		of: func(d *drill.Drill) *bool { return &d.ArmPump }},
	{name: "overhead", label: "hands overhead", mark: "overhead",
		of: func(d *drill.Drill) *bool { return &d.Overhead }},
	{name: "collision", label: "body contact at full effort", mark: "body contact",
		of: func(d *drill.Drill) *bool { return &d.Collision }},
	{name: "together", label: "the group does it as one", mark: "all together",
		of: func(d *drill.Drill) *bool { return &d.Together }},
}

// numbers of a drill, with what they are called in the form, and the kinds of
// dose that have them ("": all).
var numbers = []struct {
	Name, Label, For string
	of               func(*drill.Drill) any
}{
	{Name: "sets", Label: "sets", For: "reps hold", of: func(d *drill.Drill) any { return &d.Dose.Sets }},
	{Name: "sides", Label: "sides (1 or 2)", For: "reps hold", of: func(d *drill.Drill) any { return &d.Dose.Sides }},
	{Name: "rep_seconds", Label: "seconds a rep", For: "reps",
		of: func(d *drill.Drill) any { return &d.Dose.RepSeconds }},
	{Name: "hold_seconds", Label: "seconds held", For: "hold",
		of: func(d *drill.Drill) any { return &d.Dose.HoldSeconds }},
	{Name: "settle_seconds", Label: "seconds to settle", For: "hold",
		of: func(d *drill.Drill) any { return &d.Dose.SettleSeconds }},
	{Name: "rest_seconds", Label: "seconds between sets", For: "reps hold",
		of: func(d *drill.Drill) any { return &d.Dose.RestSeconds }},
	{Name: "metres", Label: "metres a trip", For: "travel", of: func(d *drill.Drill) any { return &d.Dose.Metres }},
	{Name: "speed", Label: "metres a second", For: "travel", of: func(d *drill.Drill) any { return &d.Dose.Speed }},
	{Name: "turn_seconds", Label: "seconds to turn", For: "travel",
		of: func(d *drill.Drill) any { return &d.Dose.TurnSeconds }},
	{Name: "interval_seconds", Label: "seconds between waves", For: "travel", of: func(d *drill.Drill) any {
		return &d.Dose.IntervalSeconds
	}},
	{Name: "act_seconds", Label: "seconds an act", For: "count grid",
		of: func(d *drill.Drill) any { return &d.Dose.ActSeconds }},
	{Name: "cells", Label: "cells (rows × columns)", For: "grid",
		of: func(d *drill.Drill) any { return &d.Dose.Cells }},
	{Name: "contacts_per_unit", Label: "ground contacts each", For: "",
		of: func(d *drill.Drill) any { return &d.ContactsPerUnit }},
	{Name: "length", Label: "metres long", For: "", of: func(d *drill.Drill) any { return &d.Space.Length }},
	{Name: "width", Label: "metres wide", For: "", of: func(d *drill.Drill) any { return &d.Space.Width }},
	{Name: "min", Label: "least", For: "", of: func(d *drill.Drill) any { return &d.Range.Min }},
	{Name: "target", Label: "target", For: "", of: func(d *drill.Drill) any { return &d.Range.Target }},
	{Name: "max", Label: "most", For: "", of: func(d *drill.Drill) any { return &d.Range.Max }},
	{Name: "step", Label: "step", For: "", of: func(d *drill.Drill) any { return &d.Range.Step }},
}

var kinds = []shell.Choice{{Value: "reps", Label: "repetitions"}, {Value: "hold", Label: "holds"},
	{Value: "travel", Label: "lengths or trips"},
	{Value: "count", Label: "throws, kicks, hits or catches"}, {Value: "grid", Label: "a grid of places"},
	{Value: "time", Label: "plain time"}}

// numberField is a number field of the form.
type numberField struct{ Name, Label, For, Value string }

// numbers are the fields whose names are given, with their values.
func (f *drillForm) numbers(names ...string) (list []numberField) {
	for _, n := range numbers {
		if !slices.Contains(names, n.Name) {
			continue
		}
		field := numberField{Name: n.Name, Label: n.Label, For: n.For, Value: f.sent[n.Name]}
		if field.Value == "" {
			switch v := n.of(&f.Drill).(type) {
			case *int:
				field.Value = fmt.Sprint(*v)
			case *float64:
				field.Value = fmt.Sprint(*v)
			}
		}
		list = append(list, field)
	}
	return list
}

// Counted are the numbers that a kind of dose is counted in.
func (f *drillForm) Counted() []numberField {
	return f.numbers("sets", "sides", "rep_seconds", "hold_seconds", "settle_seconds", "rest_seconds",
		"metres", "speed", "turn_seconds", "interval_seconds", "act_seconds", "cells")
}

// Limits are how far the dose may go.
func (f *drillForm) Limits() []numberField { return f.numbers("min", "target", "max", "step") }

// Beside are the numbers beside the dose.
func (f *drillForm) Beside() []numberField { return f.numbers("contacts_per_unit", "length", "width") }

// EffortPct is the effort in per cent.
func (f *drillForm) EffortPct() string {
	if sent := f.sent["effort"]; sent != "" {
		return sent
	}
	return fmt.Sprint(int(100*f.Effort + 0.5))
}

// Brief tells whether the form asks for little, and the rest lies behind "more".
func (f *drillForm) Brief() bool { return f.New && f.From == "" && len(f.Problems) == 0 }

// Edit is the form of a drill.
func (in Room) Edit(r *shell.Request) (shell.Answer, error) {
	b, d, err := in.drillOf(r)
	if err != nil {
		return nil, err
	}
	f := &drillForm{Drill: d, New: r.Query("copy") != "", From: d.Name}
	if own, ok := b.Own[d.Code]; ok && !f.New {
		f.Own, f.Edition = true, own.Edition
	}
	if f.New {
		f.Code, f.Name = "", d.Name+", ours"
	}
	return f.page(b), nil
}

// SetPicture keeps the club's own picture of a drill, or takes it away.
func (in Room) SetPicture(r *shell.Request) (shell.Answer, error) {
	code, err := r.Param("code"), error(nil)
	if r.Form.Has("gone") {
		err = in.Books.RemovePicture(r.Context(), r.By, code)
		return shell.Go(shell.Drill(code)), err
	}
	file, err := sent(r)
	if err == nil {
		err = in.Books.SetPicture(r.Context(), r.By, code, file)
	}
	if wrong := shell.Problems(err); wrong != nil {
		return nil, shell.Refusal{Status: http.StatusUnprocessableEntity, Heading: "That picture was not kept",
			Line: wrong[0].What}
	}
	return shell.Go(shell.Drill(code)), err
}

// sent is the picture of the form.
func sent(r *shell.Request) ([]byte, error) {
	head, err := r.File("picture")
	if err != nil {
		return nil, plan.In("picture", "Pick a picture first.")
	}
	file, err := head.Open()
	if err != nil {
		return nil, err
	}
	defer file.Close()
	return io.ReadAll(file)
}

// Picture is the club's own picture of a drill.
func (in Room) Picture(r *shell.Request) (shell.Answer, error) {
	content, err := in.Books.Picture(r.Context(), r.Club(), r.Param("code"))
	return shell.Raw{Kind: shell.JPEG, Content: content}, err
}

// drillOf is the drill that the path names, in the club's book.
func (in Room) drillOf(r *shell.Request) (*books.Book, drill.Drill, error) {
	b, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return nil, drill.Drill{}, err
	}
	d, ok := b.Find(r.Param("code"))
	if !ok {
		return nil, d, planner.ErrNotFound
	}
	return b, d, nil
}

func (f *drillForm) page(b *books.Book) *shell.Page {
	f.Cues, f.Faults = strings.Join(f.Drill.Cues, "\n"), strings.Join(f.Drill.Faults, "\n")
	f.Kit, f.LaneKit = strings.Join(f.Drill.Kit, "; "), strings.Join(f.Drill.LaneKitSaid(), "; ")
	f.GroupKit, f.Seasons = strings.Join(f.Drill.GroupKit, "; "), strings.Join(f.Drill.Seasons, "; ")
	f.Rows, f.Columns = strings.Join(f.Drill.Rows, "; "), strings.Join(f.Drill.Columns, "; ")
	if f.Efforts == "" {
		var efforts []string
		for _, e := range f.Drill.Dose.Efforts {
			efforts = append(efforts, fmt.Sprint(math.Round(100*e)))
		}
		f.Efforts = strings.Join(efforts, ", ")
	}
	if f.Ladder == "" {
		var rungs []string
		for _, r := range f.Drill.Rungs {
			rungs = append(rungs, r.Words(measure.System{Yards: f.Drill.Dose.Yards, Feet: f.Drill.Dose.Feet}))
		}
		f.Ladder = strings.Join(rungs, "\n")
	}
	for _, p := range drill.Phases {
		f.PhaseTicks = append(f.PhaseTicks, shell.Tick{Value: p.Key(), Label: p.Name(), On: f.Drill.Serves(p)})
	}
	f.RegionTicks, f.PlaneTicks = shell.Ticks(drill.Regions, f.Drill.Regions), shell.Ticks(drill.Planes, f.Drill.Planes)
	f.QualityTicks = shell.Ticks(drill.Qualities, f.Drill.Qualities)
	for _, flag := range flags {
		f.Flags = append(f.Flags, shell.Tick{Value: flag.name, Label: flag.label, On: *flag.of(&f.Drill)})
	}
	f.Grades, f.Kinds = grades(), kinds
	if f.Dose.Kind == drill.Line {
		f.Kinds = append(slices.Clone(kinds), shell.Choice{Value: "line", Label: "a line of drills, out and back"})
	}
	f.Draft = b.Own[f.Code].Is.Draft
	f.others(b)
	title := f.Name
	if f.New {
		title = "A drill of our own"
	}
	return &shell.Page{Screens: screens, Name: "edit", Title: title, Nav: "drills", Body: f}
}

// others names the drills that may stand in for this one, and those that do.
func (f *drillForm) others(b *books.Book) {
	for _, d := range b.Drills {
		if d.Code != f.Code || f.New {
			f.Names = append(f.Names, d.Name)
		}
	}
	slices.Sort(f.Names)
	if f.Stands != nil { // as they were sent
		return
	}
	for _, s := range f.standIns() {
		drill, _ := b.Find(*s.code)
		s.Now = drill.Name
		f.Stands = append(f.Stands, s)
	}
}

// Save saves a drill as the club's own; "new" is a further one.
func (in Room) Save(r *shell.Request) (shell.Answer, error) {
	b, d, err := in.drillOf(r)
	f := &drillForm{Drill: d, New: r.Param("code") == "new", Edition: r.Form.Count("edition")}
	if f.New {
		b, err = in.Books.Book(r.Context(), r.Club())
	}
	if err != nil {
		return nil, err
	}
	f.Own = b.Own[d.Code].ID != 0
	f.read(r.Form)
	f.readStandIns(r.Form, b)
	if f.New {
		f.Code = b.Free(f.Name)
		f.say(r.Form)
	}
	if err = r.Form.Err(); err == nil {
		err = in.Books.SaveDrill(r.Context(), r.By, club.Drill{Drill: f.Drill}, f.Edition)
	}
	return r.Saved(err, f.Name+" is saved", shell.Drill(f.Code), func(wrong plan.Problems) (*shell.Page, error) {
		f.Problems = wrong
		return f.page(b), nil
	})
}

// say takes how much of a new drill as it was said, and an aim where none was written.
func (f *drillForm) say(in *shell.Form) {
	if f.Said = in.Text("said"); f.Said != "" {
		left := ""
		if f.Drill, left = pen.Put(f.Drill, f.Said); left != "" {
			in.Refuse("said", "%q is no amount: write it as 6 a side, 3 x 20 m, 2 min", left)
		}
	}
	if f.Aim == "" && len(f.Phases) > 0 {
		f.Aim = pen.Aim(f.Phases[0])
	}
}

// read takes the form's fields into the drill.
func (f *drillForm) read(in *shell.Form) {
	d := &f.Drill
	d.Name, d.Aim, d.Unit, d.Caution = in.Text("name"), in.Text("aim"), in.Text("unit"), in.Text("caution")
	d.Cues, d.Faults, d.Kit = in.Entries("cues"), in.Entries("faults"), in.Entries("kit")
	d.GroupKit, d.Seasons = in.Entries("group_kit"), in.Entries("seasons")
	d.SetLaneKit(in.Entries("lane_kit"))
	d.Rows, d.Columns = in.Entries("rows"), in.Entries("columns")
	d.Regions, d.Planes, d.Qualities = in.List("regions"), in.List("planes"), in.List("qualities")
	d.Least = drill.Grade(in.Raw("least"))
	was := d.Dose.Kind
	d.Dose.Kind, d.Dose.Flow = drill.Kind(in.Raw("kind")), ""
	if d.Dose.Kind == drill.Travel {
		d.Dose.Flow = drill.Flow(in.Raw("flow"))
		f.readEfforts(in)
	} else {
		d.Dose.Efforts, d.Dose.TopSpeed = nil, 0
	}
	if !d.Turns() {
		d.Rows, d.Columns = nil, nil
	}
	d.Phases = nil
	for _, p := range drill.Phases {
		if in.Ticked("phases", p.Key()) {
			d.Phases = append(d.Phases, p)
		}
	}
	for _, flag := range flags {
		*flag.of(d) = in.Ticked("flags", flag.name)
	}
	f.readRungs(in)
	f.readNumbers(in)
	if !d.Turns() {
		d.Rungs = nil
	}
	if r := &d.Range; was != d.Dose.Kind && r.Step > max(1, r.Max-r.Min) {
		r.Step = 1 // it was the other kind's
	}
	if r := d.Range; r.Max > r.Min && r.Step > r.Max-r.Min {
		in.Refuse("dose", "a step of %d is more than there is between %d and %d", r.Step, r.Min, r.Max)
	}
}

// readEfforts reads the efforts of single trips, in per cent.
func (f *drillForm) readEfforts(in *shell.Form) {
	f.Efforts, f.Drill.Dose.Efforts = in.Raw("efforts"), nil
	for _, one := range strings.FieldsFunc(f.Efforts, func(r rune) bool {
		return r == ',' || r == ';' || r == ' ' || r == '%'
	}) {
		percent, err := strconv.Atoi(one)
		if err != nil || percent < 10 || percent > 100 {
			in.Refuse("efforts", "%q is no effort: write per cent of each trip, such as 70, 80, 90", one)
			continue
		}
		f.Drill.Dose.Efforts = append(f.Drill.Dose.Efforts, float64(percent)/100)
	}
}

func (f *drillForm) readRungs(in *shell.Form) {
	f.Ladder, f.Drill.Rungs = in.Raw("ladder"), nil
	for _, text := range in.Entries("ladder") {
		r, err := drill.ParseRung(text, measure.System{Yards: f.Drill.Dose.Yards, Feet: f.Drill.Dose.Feet})
		if err != nil {
			in.Refuse("ladder", "%s", err)
			continue
		}
		f.Drill.Rungs = append(f.Drill.Rungs, r)
	}
}

// readNumbers reads the numbers that the kind of dose has; those of other kinds
// go. What is no number is kept as it was sent.
func (f *drillForm) readNumbers(in *shell.Form) {
	d := &f.Drill
	f.sent = map[string]string{}
	if pct, err := strconv.Atoi(in.Text("effort")); err == nil && pct >= 0 && pct <= 100 {
		d.Effort = float64(pct) / 100
	} else {
		in.Refuse("effort", "effort lies between 0 and 100 per cent")
		f.sent["effort"] = in.Raw("effort")
	}
	for _, n := range numbers {
		text := in.Text(n.Name)
		if text == "" || n.For != "" && !strings.Contains(n.For, string(d.Dose.Kind)) {
			text = "0"
		}
		var err error
		switch v := n.of(d).(type) {
		case *int:
			*v, err = strconv.Atoi(text)
		case *float64:
			*v, err = strconv.ParseFloat(text, 64)
		}
		if err != nil || strings.HasPrefix(text, "-") {
			in.Refuse("dose", "%q is no number of %s", text, n.Label)
			f.sent[n.Name] = text
		}
	}
	if n := len(d.Rows) * len(d.Columns); n > 0 {
		d.Dose.Cells = n // counted for the coach
	}
}

// Remove takes a drill out of the club's book.
func (in Room) Remove(r *shell.Request) (shell.Answer, error) {
	b, d, err := in.drillOf(r)
	if err != nil {
		return nil, err
	}
	err = in.Books.SaveDrill(r.Context(), r.By, club.Drill{Drill: d, Gone: true}, 0)
	return r.Saved(err, d.Name+" is out of your book", "/drills", func(wrong plan.Problems) (*shell.Page, error) {
		f := &drillForm{Drill: d, Problems: wrong}
		return f.page(b), nil
	})
}

// Reset brings a drill back to how it came.
func (in Room) Reset(r *shell.Request) (shell.Answer, error) {
	err := in.Books.ResetDrill(r.Context(), r.By, r.Param("code"))
	return r.Saved(err, "It is as it came", shell.Drill(r.Param("code")), shell.Gone)
}
