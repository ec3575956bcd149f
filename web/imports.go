package web

import (
	"cmp"
	"encoding/base64"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/share"
)

// fileMost is how large a file may be that is read in, in bytes.
const fileMost = 700 << 10

// importBody is the page that reads a file in: the choice, then the preview.
type importBody struct {
	Kind, Zone string
	Squad      uint64
	Squads     []idChoice
	File       string // what is to be read, for the second step
	Name       string
	Rows       []planner.Difference
	New        int
	Changed    int
	Same       int
	Wrong      []wrongRow
	Problem    string
}

type wrongRow struct {
	Line         int
	Column, What string
}

// importKinds are what can be read in, as the page names it.
var importKinds = []choice{{"squad", "Players of a squad (CSV)"}, {"fixtures", "Fixtures (CSV)"}, {"calendar", "Fixtures from a calendar (.ics)"}, {"drills", "Drills (CSV)"}, {"tests", "Tests of players (CSV)"}, {"routine", "A routine (JSON)"}, {"plan", "A plan (JSON)"}}

// Kinds are the choices of the page.
func (importBody) Kinds() []choice { return importKinds }

func (s *Site) importForm(c *gin.Context) {
	body := &importBody{Kind: c.Query("kind"), Squad: numberID(c.Query("squad"))}
	s.showImport(c, http.StatusOK, body)
}

func (s *Site) showImport(c *gin.Context, status int, body *importBody) {
	squads, err := s.Planner.Store.Squads(c.Request.Context(), account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	for _, q := range squads {
		body.Squads = append(body.Squads, idChoice{q.ID, q.Name})
	}
	if body.Kind == "" {
		body.Kind = "squad"
	}
	s.show(c, status, "imports/import", "Read a file in", "squad", body)
}

// importFile previews a file, and takes it over when that is asked for.
func (s *Site) importFile(c *gin.Context) {
	body := &importBody{Kind: c.PostForm("kind"), Squad: numberID(c.PostForm("squad")), Name: c.PostForm("name"), Zone: "Europe/London"}
	refuse := func(what string) {
		body.Problem = what
		s.showImport(c, http.StatusUnprocessableEntity, body)
	}
	file, err := uploaded(c, body)
	if err != nil {
		refuse(err.Error())
		return
	}
	body.File = base64.StdEncoding.EncodeToString(file)
	ground := s.groundOf(c)
	if ground == nil {
		return
	}
	if len(ground.Venues) > 0 {
		body.Zone = ground.Venues[0].Is.TimeZone
	}
	if body.Kind == "plan" {
		s.importPlan(c, body, file)
		return
	}
	if err := s.compare(c, body, file); err != nil {
		refuse(err.Error())
		return
	}
	for _, d := range body.Rows {
		switch {
		case d.New:
			body.New++
		case d.Same:
			body.Same++
		default:
			body.Changed++
		}
	}
	if c.PostForm("take") == "" || len(body.Wrong) > 0 {
		status := http.StatusOK
		if len(body.Wrong) > 0 {
			status = http.StatusUnprocessableEntity
		}
		s.showImport(c, status, body)
		return
	}
	said := fmt.Sprintf("%d read in: %d new, %d changed", body.New+body.Changed+body.Same, body.New, body.Changed)
	next := map[string]string{"squad": fmt.Sprintf("/squad?squad=%d", body.Squad), "fixtures": "/today", "calendar": "/today", "drills": "/drills", "tests": fmt.Sprintf("/squad?squad=%d", body.Squad), "routine": "/routines"}[body.Kind]
	s.saved(c, s.Planner.Import(c.Request.Context(), *account(c), said, body.Rows), said, next, func(_ int, wrong plan.Problems) { refuse(wrong[0].What) })
}

// uploaded is the file of the form: sent now, or with the preview before.
func uploaded(c *gin.Context, body *importBody) ([]byte, error) {
	if text := c.PostForm("file64"); text != "" {
		return base64.StdEncoding.DecodeString(text)
	}
	header, err := c.FormFile("file")
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
	body.Name = header.Filename
	return io.ReadAll(io.LimitReader(f, fileMost))
}

// compare reads the file and finds what it would change. An error is a sentence
// about the whole file.
func (s *Site) compare(c *gin.Context, body *importBody, file []byte) error {
	ctx, clubID := c.Request.Context(), account(c).ClubID
	switch body.Kind {
	case "squad":
		squad, err := s.Planner.Squad(ctx, clubID, body.Squad)
		if err != nil {
			return errors.New("pick a squad")
		}
		body.Squad = squad.ID
		rows, wrong, err := share.ReadPlayers(file)
		return taken[club.Player](c, s, body, squad.ID, rows, wrong, err)
	case "fixtures":
		rows, wrong, err := share.ReadFixtures(file, body.Zone)
		return taken[club.Fixture](c, s, body, 0, rows, wrong, err)
	case "calendar":
		now := s.Planner.Now()
		rows, wrong, err := share.ReadCalendar(file, body.Zone, now, now.AddDate(1, 0, 0))
		return taken[club.Fixture](c, s, body, 0, rows, wrong, err)
	case "drills":
		rows, wrong, err := share.ReadDrills(file)
		if err != nil {
			return err
		}
		b, err := s.Planner.Book(ctx, clubID)
		if err != nil {
			return errors.New("the database does not answer: try again in a moment")
		}
		var drills []club.Drill
		for _, r := range rows {
			drills = append(drills, r.Is)
		}
		for _, l := range b.Unknown(drills) {
			column := map[string]string{"swap": "instead"}[l.Field]
			wrong = append(wrong, share.Problem{Line: rows[l.Index].Line, Column: cmp.Or(column, l.Field), What: fmt.Sprintf("there is no drill %q", l.Code)})
		}
		return taken[club.Drill](c, s, body, 0, rows, wrong, err)
	case "tests":
		squad, err := s.Planner.Squad(ctx, clubID, body.Squad)
		if err != nil {
			return errors.New("pick a squad")
		}
		body.Squad = squad.ID
		rows, wrong, err := share.ReadTrials(file)
		for i, r := range rows {
			id := playerOf(squad, r.Is.Player)
			if rows[i].Owner = id; id == 0 {
				wrong = append(wrong, share.Problem{Line: r.Line, Column: "player", What: fmt.Sprintf("%q is not in %s", r.Is.Player, squad.Name)})
			}
		}
		return taken[club.Trial](c, s, body, 0, rows, wrong, err)
	case "routine":
		r, err := share.ReadRoutine(file)
		return taken[club.Routine](c, s, body, 0, []share.Row[club.Routine]{{Line: 1, Is: r}}, nil, err)
	}
	return errors.New("pick what is in the file")
}

// taken fills the preview.
func taken[T club.Thing](c *gin.Context, s *Site, body *importBody, owner uint64, rows []share.Row[T], wrong []share.Problem, err error) error {
	if err != nil {
		return err
	}
	for _, p := range wrong {
		body.Wrong = append(body.Wrong, wrongRow{p.Line, p.Column, p.What})
	}
	if len(wrong) > 0 {
		return nil
	}
	var incoming []planner.Incoming
	for _, r := range rows {
		incoming = append(incoming, planner.Incoming{Line: r.Line, Owner: r.Owner, Is: r.Is})
	}
	differences, clashes, err := planner.Differences[T](c.Request.Context(), s.Planner, account(c).ClubID, owner, incoming)
	if err != nil {
		return errors.New("the database does not answer: try again in a moment")
	}
	for _, clash := range clashes {
		body.Wrong = append(body.Wrong, wrongRow{Line: clash.Line, What: clash.What})
	}
	body.Rows = differences
	return nil
}

// playerOf is the id of the squad's player of that full name; 0: there is none.
func playerOf(squad *planner.Squad, name string) uint64 {
	for _, k := range squad.Players {
		if strings.EqualFold(k.Is.Label(), strings.TrimSpace(name)) {
			return k.ID
		}
	}
	return 0
}

// importPlan makes a session of a plan file.
func (s *Site) importPlan(c *gin.Context, body *importBody, file []byte) {
	d, err := share.ReadPlan(file)
	if err == nil {
		var id uint64
		if id, err = s.Planner.AddPlan(c.Request.Context(), *account(c), body.Squad, d); err == nil {
			s.say(c, d.Title+" is read in")
			c.Redirect(http.StatusSeeOther, fmt.Sprintf("/sessions/%d", id))
			return
		}
	}
	body.Problem = err.Error()
	s.showImport(c, http.StatusUnprocessableEntity, body)
}
