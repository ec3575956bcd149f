package web

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

type squadBody struct {
	ID        uint64
	Name      string
	Grade     string
	Squads    []idChoice
	Players   []squadRow
	Units     []unitRow
	Positions []string
	Player    *playerForm
	Unit      *unitForm
	Ruling    *rulingForm
	Coach     bool
	Medical   bool
	Ruled     int
	Problems  plan.Problems
}

type squadRow struct {
	ID                        uint64
	Number, Name, Position    string
	Sides, Build, Units, Note string
	Rulings                   []string
	Open                      bool
}

type unitRow struct {
	ID        uint64
	Name, Who string
	Open      bool
}

type playerForm struct {
	ID      uint64
	Edition uint32
	club.Player
	Rulings []rulingRow // in force or to come
	Trials  []trialRow  // the latest of each test, and the one before
}

// trialRow is a test of a player: the latest, and what it was before.
type trialRow struct{ Test, Result, Day, Before string }

// trialsOf lists the latest result of each test of a player.
func trialsOf(kept []store.Kept[club.Trial], player uint64) (rows []trialRow) {
	by := map[string][]club.Trial{}
	var tests []string
	for _, k := range kept {
		if k.Owner == player {
			if by[k.Is.Test] == nil {
				tests = append(tests, k.Is.Test)
			}
			by[k.Is.Test] = append(by[k.Is.Test], k.Is)
		}
	}
	slices.Sort(tests)
	for _, test := range tests {
		list := by[test]
		slices.SortFunc(list, func(a, b club.Trial) int { return strings.Compare(b.Day, a.Day) })
		words := func(t club.Trial) string { return strings.TrimSpace(fmt.Sprintf("%g %s", t.Best(), t.Unit)) }
		row := trialRow{Test: test, Result: words(list[0]), Day: fmt.Sprintf("best of %d, %s", len(list[0].Tries), dayWords(list[0].Day))}
		if len(list) > 1 {
			row.Before = fmt.Sprintf("%s on %s", words(list[1]), dayWords(list[1].Day))
		}
		rows = append(rows, row)
	}
	return rows
}

type rulingRow struct {
	ID                  uint64
	Words, Days, Reason string
}

type unitForm struct {
	ID      uint64
	Edition uint32
	Name    string
	Members []tickBox
}

type rulingForm struct {
	club.Restriction
	Player uint64
	Name   string
	Joints []tickBox
}

func (s *Site) squad(c *gin.Context) { s.showSquad(c, http.StatusOK, nil, nil) }

// showSquad writes the page, after a refused form with its problems and what
// refill puts back into it.
func (s *Site) showSquad(c *gin.Context, status int, wrong plan.Problems, refill func(*squadBody)) {
	ctx := c.Request.Context()
	id := numberID(c.Query("squad"))
	if c.Param("squad") != "" {
		id = numberID(c.Param("squad"))
	}
	squad, err := s.Planner.Squad(ctx, account(c).ClubID, id)
	if err != nil {
		s.failed(c, err)
		return
	}
	squads, err := s.Planner.Store.Squads(ctx, account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	plays, err := s.Planner.Sport(ctx, account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	body := &squadBody{ID: squad.ID, Name: squad.Name, Grade: gradeNames[drill.Grade(squad.Grade)], Positions: plays.Positions, Problems: wrong,
		Coach: coach(c), Medical: account(c).Role == store.Medical}
	for _, q := range squads {
		body.Squads = append(body.Squads, idChoice{q.ID, q.Name})
	}
	today := s.Planner.Now().Format(time.DateOnly)
	open, unit, ruling := c.Query("player"), c.Query("unit"), numberID(c.Query("ruling"))
	for _, k := range squad.Players {
		body.Players = append(body.Players, squadRowOf(squad, k, today, fmt.Sprint(k.ID) == open))
		if len(body.Players[len(body.Players)-1].Rulings) > 0 {
			body.Ruled++
		}
		if fmt.Sprint(k.ID) == open {
			trials, err := store.Things[club.Trial](ctx, s.Planner.Store, account(c).ClubID)
			if err != nil {
				s.failed(c, err)
				return
			}
			body.Player = &playerForm{ID: k.ID, Edition: k.Edition, Player: k.Is, Rulings: rulingsOf(squad, k.ID, today, body.Medical), Trials: trialsOf(trials, k.ID)}
		}
		if k.ID == ruling && body.Medical {
			body.Ruling = &rulingForm{Restriction: club.Restriction{From: today}, Player: k.ID, Name: k.Is.Label()}
			body.Ruling.tick()
		}
	}
	if open == "new" {
		body.Player = &playerForm{Player: club.Player{Foot: club.Right, Hand: club.Right}}
	}
	for _, u := range squad.Units {
		row := unitRow{ID: u.ID, Name: u.Is.Name, Open: fmt.Sprint(u.ID) == unit}
		var who []string
		for _, k := range squad.Players {
			if slices.Contains(u.Is.Players, k.ID) {
				who = append(who, k.Is.First)
			}
		}
		row.Who = strings.Join(who, ", ")
		body.Units = append(body.Units, row)
		if row.Open {
			body.Unit = unitFormOf(squad, u.ID, u.Edition, u.Is)
		}
	}
	if unit == "new" {
		body.Unit = unitFormOf(squad, 0, 0, club.Unit{})
	}
	if refill != nil {
		refill(body)
	}
	s.show(c, status, "squad/squad", "Squad", "squad", body)
}

var sideWords = map[club.Side]string{club.Left: "left", club.Right: "right", club.Both: "both"}

func squadRowOf(squad *planner.Squad, k store.Kept[club.Player], today string, open bool) squadRow {
	row := squadRow{ID: k.ID, Name: k.Is.Label(), Position: k.Is.Position, Build: string(k.Is.Build), Note: k.Is.Notes, Open: open}
	if k.Is.Number > 0 {
		row.Number = fmt.Sprint(k.Is.Number)
	}
	var sides []string
	if k.Is.Foot != "" && k.Is.Foot != club.Right {
		sides = append(sides, sideWords[k.Is.Foot]+map[bool]string{true: " feet", false: " foot"}[k.Is.Foot == club.Both])
	}
	if k.Is.Hand != "" && k.Is.Hand != club.Right {
		sides = append(sides, sideWords[k.Is.Hand]+map[bool]string{true: " hands", false: " hand"}[k.Is.Hand == club.Both])
	}
	row.Sides = strings.Join(sides, ", ")
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

// dayWords writes a day, 2026-11-28, as a coach does: Sat 28 Nov.
func dayWords(day string) string {
	if at, err := time.Parse(time.DateOnly, day); err == nil {
		return at.Format("Mon 2 Jan")
	}
	return day
}

func rulingsOf(squad *planner.Squad, player uint64, today string, medical bool) (rows []rulingRow) {
	holds, later := squad.In(player, today)
	for _, r := range append(holds, later...) {
		row := rulingRow{ID: r.ID, Words: r.Is.Words(), Days: "from " + dayWords(r.Is.From)}
		if r.Is.Until != "" {
			row.Days += " until " + dayWords(r.Is.Until)
		} else {
			row.Days += " until it is lifted"
		}
		if r.Is.Review != "" {
			row.Days += ", looked at again " + dayWords(r.Is.Review)
		}
		if medical { // the reason is for them alone
			row.Reason = r.Is.Reason
		}
		rows = append(rows, row)
	}
	return rows
}

func unitFormOf(squad *planner.Squad, id uint64, edition uint32, u club.Unit) *unitForm {
	f := &unitForm{ID: id, Edition: edition, Name: u.Name}
	for _, k := range squad.Players {
		label := k.Is.Label()
		if k.Is.Number > 0 {
			label = fmt.Sprintf("%d %s", k.Is.Number, label)
		}
		f.Members = append(f.Members, tickBox{fmt.Sprint(k.ID), label, slices.Contains(u.Players, k.ID)})
	}
	return f
}

func (f *rulingForm) tick() {
	f.Joints = nil
	for _, j := range drill.Regions {
		f.Joints = append(f.Joints, tickBox{j, j, slices.Contains(f.Spare, j)})
	}
}

func (s *Site) addSquad(c *gin.Context) {
	name, grade := strings.TrimSpace(c.PostForm("name")), c.PostForm("grade")
	var wrong plan.Problems
	if what := plan.NameProblem(name); what != "" {
		wrong = append(wrong, plan.Problem{Where: "squad", What: what})
	}
	if gradeNames[drill.Grade(grade)] == "" {
		wrong = append(wrong, plan.Problem{Where: "squad", What: "pick a level"})
	}
	if len(wrong) > 0 {
		s.showSquad(c, http.StatusUnprocessableEntity, wrong, nil)
		return
	}
	id, err := s.Planner.Store.AddSquad(c.Request.Context(), account(c).ClubID, name, grade)
	s.saved(c, err, name+" is there", fmt.Sprintf("/squad?squad=%d", id), func(status int, wrong plan.Problems) { s.showSquad(c, status, wrong, nil) })
}

func (s *Site) savePlayer(c *gin.Context) {
	squad := s.squadOf(c, numberID(c.Param("squad")))
	if squad == nil {
		return
	}
	p := club.Player{First: strings.TrimSpace(c.PostForm("first")), Last: strings.TrimSpace(c.PostForm("last")), Position: strings.TrimSpace(c.PostForm("position")),
		Number: number(c.PostForm("number")), Foot: club.Side(c.PostForm("foot")), Hand: club.Side(c.PostForm("hand")), Level: drill.Grade(c.PostForm("level")),
		Build: club.Build(c.PostForm("build")), Notes: strings.TrimSpace(c.PostForm("notes"))}
	id := numberID(c.PostForm("id"))
	said := p.Label() + " is saved"
	_, err := s.Planner.Keep(c.Request.Context(), *account(c), said, store.Change{ID: id, Owner: squad.ID, Edition: edition(c), Is: p})
	next := fmt.Sprintf("/squad?squad=%d", squad.ID)
	if id == 0 {
		next += "&player=new" // the next one
	}
	s.saved(c, err, said, next, func(status int, wrong plan.Problems) {
		s.showSquad(c, status, wrong, func(b *squadBody) { b.Player = &playerForm{ID: id, Edition: edition(c), Player: p} })
	})
}

func (s *Site) removePlayer(c *gin.Context) {
	squad := s.squadOf(c, numberID(c.Param("squad")))
	if squad == nil {
		return
	}
	player := squad.Player(numberID(c.Param("id")))
	if player == nil {
		s.notFound(c)
		return
	}
	err := s.Planner.RemovePlayer(c.Request.Context(), *account(c), squad, player.ID)
	s.saved(c, err, player.Is.Label()+" left the squad", fmt.Sprintf("/squad?squad=%d", squad.ID), func(status int, wrong plan.Problems) { s.showSquad(c, status, wrong, nil) })
}

func (s *Site) saveUnit(c *gin.Context) {
	squad := s.squadOf(c, numberID(c.Param("squad")))
	if squad == nil {
		return
	}
	u := club.Unit{Name: strings.TrimSpace(c.PostForm("name"))}
	for _, text := range c.PostFormArray("players") {
		if id := numberID(text); squad.Player(id) != nil {
			u.Players = append(u.Players, id)
		}
	}
	id, gone := numberID(c.PostForm("id")), c.PostForm("gone") != ""
	said := u.Name + " is saved"
	if gone {
		said = u.Name + " is taken out"
	}
	_, err := s.Planner.Keep(c.Request.Context(), *account(c), said, store.Change{ID: id, Owner: squad.ID, Edition: edition(c), Is: u, Gone: gone})
	s.saved(c, err, said, fmt.Sprintf("/squad?squad=%d", squad.ID), func(status int, wrong plan.Problems) {
		s.showSquad(c, status, wrong, func(b *squadBody) { b.Unit = unitFormOf(squad, id, edition(c), u) })
	})
}

func (s *Site) saveRuling(c *gin.Context) {
	squad := s.squadOf(c, numberID(c.Param("squad")))
	if squad == nil {
		return
	}
	player := squad.Player(numberID(c.Param("player")))
	if player == nil {
		s.notFound(c)
		return
	}
	rules := c.PostFormArray("rules")
	r := club.Restriction{NoJumps: slices.Contains(rules, "jumps"), NoOverhead: slices.Contains(rules, "overhead"), MaxEffort: number(c.PostForm("max_effort")),
		MaxMinutes: number(c.PostForm("max_minutes")), Spare: c.PostFormArray("spare"), From: c.PostForm("from"), Until: c.PostForm("until"), Review: c.PostForm("review"), Reason: strings.TrimSpace(c.PostForm("reason"))}
	said := player.Is.Label() + ": " + r.Words()
	_, err := s.Planner.Keep(c.Request.Context(), *account(c), said, store.Change{Owner: player.ID, Is: r})
	s.saved(c, err, said, fmt.Sprintf("/squad?squad=%d&player=%d", squad.ID, player.ID), func(status int, wrong plan.Problems) {
		s.showSquad(c, status, wrong, func(b *squadBody) {
			b.Ruling = &rulingForm{Restriction: r, Player: player.ID, Name: player.Is.Label()}
			b.Ruling.tick()
		})
	})
}

func (s *Site) liftRuling(c *gin.Context) {
	_, err := s.Planner.Keep(c.Request.Context(), *account(c), "a ruling lifted", store.Change{ID: numberID(c.Param("id")), Is: club.Restriction{}, Gone: true})
	if errors.Is(err, store.ErrNotFound) {
		err = nil // it is lifted already
	}
	s.saved(c, err, "The ruling is lifted", "/squad?squad="+c.PostForm("squad"), func(status int, wrong plan.Problems) { s.showSquad(c, status, wrong, nil) })
}
