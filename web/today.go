package web

import (
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/planner"
)

// cardCuts is how many cuts a card shows.
const cardCuts = 3

type todayBody struct {
	Cards []card
}

// card is a session to come.
type card struct {
	ID                     uint64
	Title, Sub, Day, Clock string
	StartName, Away        string
	Verdict                verdict
	More                   int // cuts beyond those shown
	Shared                 bool
	Work                   string
}

func (s *Site) today(c *gin.Context) {
	sessions, err := s.Planner.Sessions(c.Request.Context(), account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	body := todayBody{}
	for i := range sessions {
		session := &sessions[i]
		d, start := session.Document, session.Schedule.Start
		one := card{ID: session.ID, Title: d.Title, Day: start.Format("Monday 2 January"), Clock: clock.Clock(start, 0), StartName: d.StartName,
			Away: away(start.Sub(s.Planner.Now())), Verdict: judge(d, session.Schedule), Shared: session.Published,
			Sub: strings.Join(nonEmpty(session.SquadName, d.Place, fmt.Sprintf("%d players", len(d.Players))), " · ")}
		if len(one.Verdict.Cuts) > cardCuts {
			one.More = len(one.Verdict.Cuts) - cardCuts
			one.Verdict.Cuts = one.Verdict.Cuts[:cardCuts]
		}
		body.Cards = append(body.Cards, one)
	}
	s.show(c, http.StatusOK, "today/today", "Today", "today", body)
}

// away says how far off a start is, in the largest units that matter.
func away(left time.Duration) string {
	switch minutes := int(left.Minutes()); {
	case left < 0:
		return "started"
	case minutes < 120:
		return fmt.Sprintf("in %d minutes", minutes)
	case minutes < 48*60:
		return fmt.Sprintf("in %d hours", minutes/60)
	default:
		return fmt.Sprintf("in %d days", minutes/60/24)
	}
}

// newSessionBody is the form of a session to come.
type newSessionBody struct {
	Kind, Title, Local, Zone, Occurrence, Players string
	First                                         bool // there is no session to take the plan from
	Problems                                      plan.Problems
}

func (s *Site) newSession(c *gin.Context) {
	body, err := s.newSessionForm(c)
	if err != nil {
		s.failed(c, err)
		return
	}
	s.show(c, http.StatusOK, "today/new", "New session", "today", body)
}

// newSessionForm is filled in from the last session.
func (s *Site) newSessionForm(c *gin.Context) (newSessionBody, error) {
	body := newSessionBody{Kind: string(plan.Match), Zone: "Europe/London", Players: "20", First: true}
	sessions, err := s.Planner.Store.Sessions(c.Request.Context(), account(c).ClubID, time.Time{}.AddDate(1970, 0, 0))
	if err != nil {
		return body, err
	}
	if n := len(sessions); n > 0 {
		body.First, body.Zone = false, sessions[n-1].Document.Start.Zone
	}
	if zone, err := time.LoadLocation(body.Zone); err == nil {
		body.Local = s.Planner.Now().In(zone).AddDate(0, 0, 1).Format("2006-01-02") + "T15:00"
	}
	return body, nil
}

func (s *Site) addSession(c *gin.Context) {
	body, err := s.newSessionForm(c)
	if err != nil {
		s.failed(c, err)
		return
	}
	body.Kind, body.Title, body.Local, body.Zone, body.Players = c.PostForm("kind"), strings.TrimSpace(c.PostForm("title")), c.PostForm("start"), strings.TrimSpace(c.PostForm("zone")), c.PostForm("players")
	body.Occurrence = c.PostForm("occurrence")
	players, _ := strconv.Atoi(body.Players) // 0 where it is no number, which is refused
	id, err := s.Planner.Add(c.Request.Context(), *account(c), planner.NewSession{Kind: plan.Kind(body.Kind), Title: body.Title,
		Start: clock.Start{Local: body.Local, Zone: body.Zone, Occurrence: clock.Occurrence(body.Occurrence)}, Players: players})
	var refused plan.Problems
	switch {
	case errors.As(err, &refused):
		body.Problems = refused
		s.show(c, http.StatusUnprocessableEntity, "today/new", "New session", "today", body)
	case err != nil:
		s.failed(c, err)
	default:
		c.Redirect(http.StatusSeeOther, fmt.Sprintf("/sessions/%d", id))
	}
}
