package web

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/store"
)

// sportBody is the club's sport, open for change: lists are lines, and what is
// in a line is parted by upright strokes.
type sportBody struct {
	Key, Name, Start, First             string
	Margin                              string
	Stresses                            []tickBox
	Positions, Units, Due, Fixed, Craft string
	Team                                string
	Presets                             []choice
	Own                                 bool
	Edition                             uint32
	Problems                            plan.Problems
}

func (s *Site) sport(c *gin.Context) {
	plays, err := s.Planner.Sport(c.Request.Context(), account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	if preset, ok := book.Sport(c.Query("preset")); ok {
		plays = &preset
	}
	s.showSport(c, http.StatusOK, sportBodyOf(plays))
}

func (s *Site) showSport(c *gin.Context, status int, body *sportBody) {
	kept, err := store.Things[club.Sport](c.Request.Context(), s.Planner.Store, account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	if len(kept) > 0 {
		body.Own, body.Edition = true, kept[0].Edition
	}
	for _, p := range book.Sports() {
		body.Presets = append(body.Presets, choice{p.Key, p.Name})
	}
	s.show(c, status, "ground/sport", "Our sport", "ground", body)
}

func sportBodyOf(p *sport.Sport) *sportBody {
	b := &sportBody{Key: p.Key, Name: p.Name, Start: p.Start, First: p.First, Margin: strconv.Itoa(p.Margin), Positions: strings.Join(p.Positions, "\n"), Team: craftLine(p.Team)}
	for _, j := range drill.Regions {
		b.Stresses = append(b.Stresses, tickBox{j, j, slices.Contains(p.Stresses, j)})
	}
	lines := func(into *string, line string) { *into = strings.TrimPrefix(*into+"\n"+line, "\n") }
	for _, u := range p.Units {
		lines(&b.Units, u.Name+" | "+strings.Join(u.Positions, ", "))
	}
	for _, d := range p.Due {
		lines(&b.Due, fmt.Sprintf("%s | %d | %d", d.Who, d.First, d.Later))
	}
	for _, f := range p.Fixed {
		lines(&b.Fixed, fmt.Sprintf("%s | %s | %d | %d", f.Name, f.Who, f.From, f.To))
	}
	for _, k := range p.Craft {
		lines(&b.Craft, craftLine(k))
	}
	return b
}

func craftLine(k sport.Craft) string {
	line := fmt.Sprintf("%s | %s | %s | %s", k.Name, strings.Join(k.For, ", "), strings.Join(k.Drills, ", "), k.Priority)
	if k.Stations > 0 || k.Phase != "" || k.Zone != "" {
		line += fmt.Sprintf(" | %d | %s | %s", k.Stations, k.Phase, k.Zone)
	}
	return line
}

// cells parts a line; what is missing is "".
func cells(line string, n int) []string {
	parts := strings.Split(line, "|")
	for i := range parts {
		parts[i] = strings.TrimSpace(parts[i])
	}
	for len(parts) < n {
		parts = append(parts, "")
	}
	return parts
}

func commas(text string) (list []string) {
	for _, one := range strings.Split(text, ",") {
		if one = strings.TrimSpace(one); one != "" {
			list = append(list, one)
		}
	}
	return list
}

func (s *Site) saveSport(c *gin.Context) {
	ctx := c.Request.Context()
	b := s.book(c)
	if b == nil {
		return
	}
	p, wrong := readSport(c)
	again := func(status int, wrong plan.Problems) {
		body := sportBodyOf(&p)
		body.Positions, body.Units, body.Due, body.Fixed, body.Craft, body.Team = c.PostForm("positions"), c.PostForm("units"), c.PostForm("due"), c.PostForm("fixed"), c.PostForm("craft"), c.PostForm("team")
		body.Problems = wrong
		s.showSport(c, status, body)
	}
	if err := p.Validate(func(code string) bool { _, ok := b.Find(code); return ok }); err != nil {
		for _, line := range strings.Split(err.Error(), "\n") {
			wrong = append(wrong, plan.Problem{Where: "sport", What: strings.TrimPrefix(line, "sport "+p.Key+": ")})
		}
	}
	if err := (club.Sport{Sport: p}).Validate(); err != nil {
		wrong = append(wrong, plan.Problem{Where: "sport", What: err.Error()})
	}
	if len(wrong) > 0 {
		again(http.StatusUnprocessableEntity, wrong)
		return
	}
	s.saved(c, s.Planner.KeepSport(ctx, *account(c), p, edition(c)), p.Name+" is saved", "/sport", again)
}

// readSport reads the form; the usual ground stays that of the preset.
func readSport(c *gin.Context) (p sport.Sport, wrong plan.Problems) {
	p, _ = book.Sport(c.PostForm("key"))
	p.Key, p.Name, p.Start, p.First = c.PostForm("key"), strings.TrimSpace(c.PostForm("name")), strings.TrimSpace(c.PostForm("start")), strings.TrimSpace(c.PostForm("first"))
	p.Margin, p.Stresses = number(c.PostForm("margin")), c.PostFormArray("stresses")
	if p.Margin < 0 || p.Margin > 60 {
		wrong = append(wrong, plan.Problem{Where: "margin", What: "the margin lies between 0 and 60 minutes"})
	}
	p.Positions, p.Units, p.Due, p.Fixed, p.Craft = entries(c.PostForm("positions")), nil, nil, nil, nil
	whole := func(where, line, text string) int {
		n, err := strconv.Atoi(text)
		if err != nil {
			wrong = append(wrong, plan.Problem{Where: where, What: fmt.Sprintf("%q: %q is no whole number of minutes", line, text)})
		}
		return n
	}
	for _, line := range entries(c.PostForm("units")) {
		x := cells(line, 2)
		p.Units = append(p.Units, sport.Unit{Name: x[0], Positions: commas(x[1])})
	}
	for _, line := range entries(c.PostForm("due")) {
		x := cells(line, 3)
		p.Due = append(p.Due, sport.Due{Who: x[0], First: whole("due", line, x[1]), Later: whole("due", line, x[2])})
	}
	for _, line := range entries(c.PostForm("fixed")) {
		x := cells(line, 4)
		p.Fixed = append(p.Fixed, sport.Fixed{Name: x[0], Who: x[1], From: whole("fixed", line, x[2]), To: whole("fixed", line, x[3])})
	}
	craft := func(where, line string) sport.Craft {
		x := cells(line, 7)
		k := sport.Craft{Name: x[0], For: commas(x[1]), Drills: commas(x[2]), Priority: plan.Priority(x[3]), Phase: x[5], Zone: x[6]}
		if x[4] != "" {
			k.Stations = whole(where, line, x[4])
		}
		return k
	}
	for _, line := range entries(c.PostForm("craft")) {
		p.Craft = append(p.Craft, craft("craft", line))
	}
	p.Team = craft("team", strings.TrimSpace(c.PostForm("team")))
	return p, wrong
}

func (s *Site) resetSport(c *gin.Context) {
	s.saved(c, s.Planner.ResetSport(c.Request.Context(), *account(c)), "The sport is as it came", "/sport", func(int, plan.Problems) { s.notFound(c) })
}
