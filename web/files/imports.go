package files

import (
	"cmp"
	"encoding/base64"
	"errors"
	"fmt"
	"io"
	"net/http"

	"cuestart/core/plan"
	"cuestart/planner/keep"
	"cuestart/share"
	"cuestart/web/shell"
)

// fileMost is how large a file may be that is read in, in bytes.
const fileMost = 700 << 10

// importBody is the page that reads a file in: the choice, then the preview.
type importBody struct {
	Kind, Zone string
	Squad      uint64
	Squads     []shell.IDChoice
	File       string // what is to be read, for the second step
	Name       string
	Rows       []keep.Difference
	New        int
	Changed    int
	Same       int
	Wrong      []wrongRow
	Unsure     []wrongRow // what may be taken over, and looks like a slip
	Problem    string
}

type wrongRow struct {
	Line         int
	Column, What string
}

// kind is what can be read in, as the page names it, and where it is seen then.
type kind struct {
	shell.Choice
	read func(Room, *shell.Request, *importBody, []byte) error
	next func(*importBody) string
}

// kinds are in the order of the page. A plan is a session of its own: it is taken
// over at once.
var kinds = []kind{
	{shell.Choice{Value: "squad", Label: "Players of a squad (CSV)"}, Room.readSquad, ofSquad},
	{shell.Choice{Value: "fixtures", Label: "Fixtures (CSV)"}, Room.readFixtures, ofToday},
	{shell.Choice{Value: "calendar", Label: "Fixtures from a calendar (.ics)"}, Room.readCalendar, ofToday},
	{shell.Choice{Value: "drills", Label: "Drills (CSV)"}, Room.readDrills,
		func(*importBody) string { return "/drills" }},
	{shell.Choice{Value: "tests", Label: "Tests of players (CSV)"}, Room.readTests, ofSquad},
	{shell.Choice{Value: "routine", Label: "A routine (JSON)"}, Room.readRoutine,
		func(*importBody) string { return "/routines" }},
	{shell.Choice{Value: "plan", Label: "A plan (JSON)"}, nil, nil},
}

func ofSquad(b *importBody) string { return shell.Squad(b.Squad) }
func ofToday(*importBody) string   { return "/today" }

// columnsOf is what the columns of a table are called.
type columnsOf struct{ Kind, Label, Says string }

// Columns tells what each kind of table holds.
func (importBody) Columns() []columnsOf {
	return []columnsOf{
		{"squad",
			"Squad", "number, first name, last name, position, foot, hand, level, body, notes. First name is enough."},
		{"drills",
			"Drills",
			"name and say are enough; also aim, phases, joints, counted in, target, sets, sides, kit each and more."},
		{"fixtures", "Fixtures", "title, kind, day, start, place, time zone."},
		{"tests", "Tests", "player, test, unit, better, day, tries."},
	}
}

// Kinds are the choices of the page.
func (importBody) Kinds() []kind { return kinds }

// Import is the form that reads a file in.
func (in Room) Import(r *shell.Request) (shell.Answer, error) {
	return in.importPage(r, &importBody{Kind: r.Query("kind"), Squad: r.QueryID("squad")}, "")
}

// importPage is the form or its preview, with what is wrong with the file as a
// whole.
func (in Room) importPage(r *shell.Request, b *importBody, problem string) (*shell.Page, error) {
	teams, err := in.Keep.Teams(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	for _, t := range teams {
		b.Squads = append(b.Squads, shell.IDChoice{ID: t.ID, Label: t.Name})
	}
	b.Kind, b.Problem = cmp.Or(b.Kind, kinds[0].Value), problem
	p := &shell.Page{Screens: screens, Name: "import", Title: "Import a list", Nav: "squad", Body: b}
	if problem != "" || len(b.Wrong) > 0 {
		p.Status = http.StatusUnprocessableEntity
	}
	return p, nil
}

// ReadIn previews a file, and takes it over when that is asked for.
func (in Room) ReadIn(r *shell.Request) (shell.Answer, error) {
	f := r.Form
	b := &importBody{Kind: f.Raw("kind"), Squad: f.ID("squad"), Name: f.Raw("name"), Zone: "Europe/London"}
	file, err := uploaded(r, b)
	if err != nil {
		return in.importPage(r, b, err.Error())
	}
	b.File = base64.StdEncoding.EncodeToString(file)
	ground, err := in.Keep.Ground(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	if len(ground.Venues) > 0 {
		b.Zone = ground.Venues[0].Is.TimeZone
	}
	if b.Kind == "plan" {
		return in.readPlan(r, b, file)
	}
	var of kind
	for _, k := range kinds {
		if k.Value == b.Kind {
			of = k
		}
	}
	if of.read == nil {
		return in.importPage(r, b, "pick what is in the file")
	}
	if err := of.read(in, r, b, file); err != nil {
		return in.importPage(r, b, err.Error())
	}
	b.count()
	if !f.Has("take") || len(b.Wrong) > 0 {
		return in.importPage(r, b, "")
	}
	said := fmt.Sprintf("%d imported: %d new, %d changed", b.New+b.Changed+b.Same, b.New, b.Changed)
	return r.Saved(in.Keep.Import(r.Context(), r.By, said, b.Rows), said, of.next(b),
		func(wrong plan.Problems) (*shell.Page, error) {
			return in.importPage(r, b, wrong[0].What)
		})
}

func (b *importBody) count() {
	for _, d := range b.Rows {
		switch {
		case d.New:
			b.New++
		case d.Same:
			b.Same++
		default:
			b.Changed++
		}
	}
}

// uploaded is the file of the form: sent now, or with the preview before. An
// error is a sentence.
func uploaded(r *shell.Request, b *importBody) ([]byte, error) {
	if r.Form.Has("file64") {
		return base64.StdEncoding.DecodeString(r.Form.Raw("file64"))
	}
	header, err := r.File("file")
	if err != nil {
		return nil, errors.New("pick a file first")
	}
	if header.Size > fileMost {
		return nil, fmt.Errorf("it is larger than %d kB: split it", fileMost>>10)
	}
	f, err := header.Open()
	if err != nil {
		return nil, errors.New("the file could not be read")
	}
	defer f.Close()
	b.Name = header.Filename
	return io.ReadAll(io.LimitReader(f, fileMost))
}

// readPlan makes a session of a plan file.
func (in Room) readPlan(r *shell.Request, b *importBody, file []byte) (shell.Answer, error) {
	d, err := share.ReadPlan(file)
	if err != nil {
		return in.importPage(r, b, err.Error())
	}
	id, err := in.Diary.AddPlan(r.Context(), r.By, b.Squad, d)
	return r.Saved(err, d.Title+" is imported", shell.Session(id), func(wrong plan.Problems) (*shell.Page, error) {
		return in.importPage(r, b, wrong.Error())
	})
}
