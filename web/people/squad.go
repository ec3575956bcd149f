// Package people is who plays for the club: squads with their players and units, what medical
// staff have ruled for them, and who is hurt.
package people

import (
	"embed"
	"encoding/json"
	"fmt"
	"html/template"
	"io"
	"net/http"
	"slices"
	"strings"
	"time"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, template.FuncMap{})

type squadBody struct {
	ID        uint64
	Name      string
	Grade     string
	Squads    []shell.IDChoice
	Players   []playerRow
	Units     []unitRow
	Groups    []unitRow // all units, by the numbers of who is in them
	Positions []string
	Player    *playerForm
	Unit      *unitForm
	Ruling    *rulingForm
	Names     *namesForm   // where names are pasted
	Asked     []keep.Asked // positions that the sport does not have
	Coach     bool
	Medical   bool
	Bats      bool             // the sport has a bat
	Ruled     int              // players under a ruling today
	Hurt      []shell.HurtRow  // who is hurt, and has no answer yet
	Left      []keep.LeftRuled // for medical staff: rulings of who has left
	Problems  plan.Problems
}

// Open is the address of the page with something of it open.
func (b *squadBody) Open(what string, value any) string { return shell.Squad(b.ID, what, value) }

// Here is the address of the page.
func (b *squadBody) Here() string { return shell.Squad(b.ID) }

type playerRow struct {
	ID                        uint64
	Number, Name, Position    string
	Sides, Build, Units, Note string
	Rulings                   []string
	Open                      bool
}

type playerForm struct {
	ID      uint64
	Edition uint32
	club.Player
	Number  string
	Asked   bool            // whether it is somebody who has left
	Rulings []rulingRow     // in force or to come
	Trials  []trialRow      // the latest of each test, and the one before
	Hurt    []shell.HurtRow // what they were hurt by, the latest first
}

// Squad is a squad's page.
func (in Room) Squad(r *shell.Request) (shell.Answer, error) {
	if r.Medical() {
		if err := r.MustProve(); err != nil {
			return nil, err
		}
	}
	squad, err := in.Keep.Squad(r.Context(), r.Club(), r.QueryID("squad"))
	if err != nil {
		return nil, err
	}
	return in.squadPage(r, squad, nil, nil)
}

// squadPage is a squad's page; after a refused form with its problems, and with
// what refill puts back into it.
func (in Room) squadPage(r *shell.Request, squad *keep.Squad, wrong plan.Problems,
	refill func(*squadBody)) (*shell.Page, error) {
	teams, err := in.Keep.Teams(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b := &squadBody{ID: squad.ID, Name: squad.Name, Grade: drill.Grade(squad.Grade).Name(), Positions: plays.Positions,
		Problems: wrong, Coach: r.Coach(), Medical: r.Medical()}
	for _, t := range teams {
		b.Squads = append(b.Squads, shell.IDChoice{ID: t.ID, Label: t.Name})
	}
	today, err := in.Keep.Today(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b.rows(squad, today, r.QueryID("player"))
	for _, u := range squad.Units {
		b.Units = append(b.Units, unitRow{ID: u.ID, Name: u.Is.Name, Who: firstNames(squad, u.Is), Numbers: ""})
	}
	b.Groups = groupsOf(squad, plays)
	if err := b.hurt(in, r); err != nil {
		return nil, err
	}
	if b.Medical {
		if b.Left, err = in.Keep.LeftRulings(r.Context(), r.By, squad.ID); err != nil {
			return nil, err
		}
	}
	if err := b.open(in, r, squad, today); err != nil {
		return nil, err
	}
	if b.Coach {
		b.Asked = squad.AskPositions(plays)
	}
	if b.Coach && b.Player == nil && b.Unit == nil && (r.Query("names") != "" || len(b.Players) == 0) {
		b.Names = &namesForm{}
	}
	if refill != nil {
		refill(b)
	}
	if b.Bats = plays.Bats(); b.Names != nil {
		b.Names.Example = shell.ExampleNames(plays.Positions)
	}
	return &shell.Page{Screens: screens, Name: "squad", Title: "Squad", Nav: "squad", Body: b}, nil
}

// rows lists the players, one of them open.
func (b *squadBody) rows(squad *keep.Squad, today string, open uint64) {
	for _, k := range squad.Players {
		row := playerRowOf(squad, k, today)
		if row.Open = k.ID == open; len(row.Rulings) > 0 {
			b.Ruled++
		}
		b.Players = append(b.Players, row)
	}
}

// newOne, in an address, opens the form of a further one.
const newOne = "new"

// open opens what the address asks for.
func (b *squadBody) open(in Room, r *shell.Request, squad *keep.Squad, today string) error {
	if k := squad.Player(r.QueryID("player")); k != nil {
		trials, err := in.Keep.Trials(r.Context(), r.Club(), squad)
		if err != nil {
			return err
		}
		b.Player = playerFormOf(k.ID, k.Edition, k.Is)
		b.Player.Trials = trialsOf(trials, k.ID)
		if b.Player.Rulings, err = in.rulingsOf(r, squad, k.ID, today); err != nil {
			return err
		}
		if b.Player.Hurt, err = in.hurtOf(r, k.ID); err != nil {
			return err
		}
	} else if r.Query("player") == newOne {
		b.Player = playerFormOf(0, 0, club.Player{Foot: club.Right, Hand: club.Right})
	}
	if k := squad.Player(r.QueryID("ruling")); k != nil && b.Medical {
		b.Ruling = rulingFormOf(k, club.Restriction{From: today})
	}
	if u := squad.Unit(r.QueryID("unit")); u != nil {
		b.Unit = unitFormOf(squad, u.ID, u.Edition, u.Is)
	} else if r.Query("unit") == newOne {
		b.Unit = unitFormOf(squad, 0, 0, club.Unit{})
	}
	return nil
}

func playerFormOf(id uint64, edition uint32, p club.Player) *playerForm {
	f := &playerForm{ID: id, Edition: edition, Player: p}
	if p.Number > 0 {
		f.Number = fmt.Sprint(p.Number)
	}
	return f
}

// Under are the players under a ruling.
func (b *squadBody) Under() (rows []playerRow) {
	for _, p := range b.Players {
		if len(p.Rulings) > 0 {
			rows = append(rows, p)
		}
	}
	return rows
}

func playerRowOf(squad *keep.Squad, k planner.Entry[club.Player], today string) playerRow {
	row := playerRow{ID: k.ID, Name: k.Is.Label(), Position: k.Is.Position, Build: string(k.Is.Build), Note: k.Is.Notes}
	if k.Is.Number > 0 {
		row.Number = fmt.Sprint(k.Is.Number)
	}
	row.Sides = shell.Joined(", ", sideWords(k.Is.Foot, "foot", "feet"), sideWords(k.Is.Hand, "hand", "hands"))
	var units []string
	for _, u := range squad.Units {
		if slices.Contains(u.Is.Players, k.ID) {
			units = append(units, u.Is.Name)
		}
	}
	row.Units = strings.Join(units, ", ")
	holds, _ := squad.In(k.ID, today)
	for _, r := range holds {
		words := r.Is.Words()
		if r.Is.Until != "" {
			words += " until " + dayWords(r.Is.Until)
		}
		row.Rulings = append(row.Rulings, words)
	}
	return row
}

// sideWords says which side a player uses, where it is not the right one.
func sideWords(s club.Side, one, both string) string {
	switch s {
	case club.Left:
		return "left " + one
	case club.Both:
		return "both " + both
	}
	return ""
}

// dayWords writes a day, 2026-11-28, as a coach does: Sat 28 Nov.
func dayWords(day string) string {
	if at, err := time.Parse(time.DateOnly, day); err == nil {
		return at.Format("Mon 2 Jan")
	}
	return day
}

// AddSquad makes a further squad.
func (in Room) AddSquad(r *shell.Request) (shell.Answer, error) {
	name := r.Form.Text("name")
	id, err := in.Keep.AddSquad(r.Context(), r.By, name, drill.Grade(r.Form.Raw("grade")))
	return r.Saved(err, name+" is there", shell.Squad(id), func(wrong plan.Problems) (*shell.Page, error) {
		squad, err := in.Keep.Squad(r.Context(), r.Club(), 0)
		if err != nil {
			return nil, err
		}
		return in.squadPage(r, squad, wrong, nil)
	})
}

// squadOf is the squad that the path names.
func (in Room) squadOf(r *shell.Request) (*keep.Squad, error) {
	id := r.ParamID("squad")
	if id == 0 {
		return nil, planner.ErrNotFound
	}
	return in.Keep.Squad(r.Context(), r.Club(), id)
}

// playerOf is the player of the path's squad that the path names.
func (in Room) playerOf(r *shell.Request, param string) (*keep.Squad, *planner.Entry[club.Player], error) {
	squad, err := in.squadOf(r)
	if err != nil {
		return nil, nil, err
	}
	player := squad.Player(r.ParamID(param))
	if player == nil {
		return nil, nil, planner.ErrNotFound
	}
	return squad, player, nil
}

// SavePlayer saves a player, or adds one.
func (in Room) SavePlayer(r *shell.Request) (shell.Answer, error) {
	squad, err := in.squadOf(r)
	if err != nil {
		return nil, err
	}
	f := r.Form
	id, edition := f.ID("id"), f.Count("edition")
	p := club.Player{First: f.Text("first"), Last: f.Text("last"), Position: f.Text("position"),
		Number: f.IntOr("number", 0, 1, club.MaxNumber),
		Foot:   club.Side(f.Raw("foot")), Hand: club.Side(f.Raw("hand")), Bats: club.Side(f.Raw("bats")),
		Level: drill.Grade(f.Raw("level")), Build: club.Build(f.Raw("build")), Own: strings.TrimSpace(f.Raw("own")),
		Forms: f.Raw("forms"), Notes: f.Text("notes")}
	said := p.Label() + " is saved"
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	positions, _ := plays.FindAll(p.Position)
	p.Position = strings.Join(positions, plan.BetweenPositions)
	if id == 0 && f.Raw("somebody") == "" {
		if again, err := in.askedAbout(r, squad, p, f); again != nil || err != nil {
			return again, err
		}
	}
	if err = f.Err(); err == nil {
		_, err = in.Keep.Save(r.Context(), r.By, said, planner.Change{ID: id, Owner: squad.ID, Edition: edition, Is: p})
	}
	next := shell.Squad(squad.ID)
	if id == 0 {
		next = shell.Squad(squad.ID, "player", newOne) // the next one
	}
	return r.Saved(err, said, next, func(wrong plan.Problems) (*shell.Page, error) {
		return in.squadPage(r, squad, wrong, func(b *squadBody) {
			b.Player = playerFormOf(id, edition, p)
			b.Player.Number = f.Raw("number")
		})
	})
}

// askedAbout asks who is meant by somebody of the name of a player who has left and for
// whom medical staff have ruled something, or does what was answered; nil where there is
// nothing to ask.
func (in Room) askedAbout(r *shell.Request, squad *keep.Squad, p club.Player, f *shell.Form) (shell.Answer, error) {
	left, _, err := in.Keep.Left(r.Context(), r.Club(), squad.ID, strings.ToLower(p.First+" "+p.Last))
	if err != nil || left == 0 {
		return nil, err
	}
	if f.Raw("same") != "" {
		return r.Saved(in.Keep.BringBack(r.Context(), r.By, squad.ID, left),
			p.Label()+" is back, with what medical staff ruled", shell.Squad(squad.ID, "player", left), shell.Gone)
	}
	page, err := in.squadPage(r, squad, nil, func(b *squadBody) {
		b.Player = playerFormOf(0, 0, p)
		b.Player.Number, b.Player.Asked = f.Raw("number"), true
	})
	if err == nil {
		page.Status = http.StatusConflict
	}
	return page, err
}

// RemovePlayer takes a player out of the squad.
func (in Room) RemovePlayer(r *shell.Request) (shell.Answer, error) {
	squad, player, err := in.playerOf(r, "id")
	if err != nil {
		return nil, err
	}
	err = in.Keep.RemovePlayer(r.Context(), r.By, squad, player.ID)
	return r.Saved(err, player.Is.Label()+" left the squad", shell.Squad(squad.ID),
		func(wrong plan.Problems) (*shell.Page, error) {
			return in.squadPage(r, squad, wrong, nil)
		})
}

// Person is all that is known of a player, as a file.
func (in Room) Person(r *shell.Request) (shell.Answer, error) {
	if r.Medical() {
		if err := r.MustProve(); err != nil {
			return nil, err
		}
	}
	squad, player, err := in.playerOf(r, "id")
	if err != nil {
		return nil, err
	}
	person, err := in.Keep.Person(r.Context(), r.By, squad, player.ID)
	if err != nil {
		return nil, err
	}
	return shell.File{Name: "person.json", Kind: shell.JSON, Write: func(w io.Writer) error {
		e := json.NewEncoder(w)
		e.SetIndent("", " ")
		return e.Encode(person)
	}}, nil
}

// Erase forgets a player, which cannot be taken back.
func (in Room) Erase(r *shell.Request) (shell.Answer, error) {
	squad, player, err := in.playerOf(r, "id")
	if err != nil {
		return nil, err
	}
	if !r.Form.Has("sure") {
		err = plan.In("erase", "tick the box first: it cannot be taken back")
	} else {
		err = in.Keep.Erase(r.Context(), r.By, squad, player.ID)
	}
	return r.Saved(err, "A player is forgotten", shell.Squad(squad.ID), func(wrong plan.Problems) (*shell.Page, error) {
		return in.squadPage(r, squad, wrong,
			func(b *squadBody) { b.Player = playerFormOf(player.ID, player.Edition, player.Is) })
	})
}
