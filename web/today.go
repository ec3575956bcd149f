package web

import (
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"cuestart/core/clock"
)

// cardCuts is how many cuts a card shows.
const cardCuts = 3

type todayBody struct {
	Cards    []card
	Fixtures []fixtureRow // without a run-in yet
	More     int
	Edits    bool
	Removed  uint64 // session that was just removed
}

// card is a session to come.
type card struct {
	ID                     uint64
	Title, Sub, Day, Clock string
	StartName, Away        string
	Verdict                verdict
	More                   int // cuts beyond those shown
	Shared                 bool
	Newer                  []string // rulings that the plan does not hold yet
	Work                   string
}

func (s *Site) today(c *gin.Context) {
	sessions, err := s.Planner.Sessions(c.Request.Context(), account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	body := todayBody{Edits: coach(c), Removed: numberID(c.Query("removed"))}
	if body.Fixtures, body.More, err = s.toCome(c, sessions); err != nil {
		s.failed(c, err)
		return
	}
	for i := range sessions {
		session := &sessions[i]
		d, start := session.Document, session.Schedule.Start
		one := card{ID: session.ID, Title: d.Title, Day: start.Format("Monday 2 January"), Clock: clock.Clock(start, 0), StartName: d.StartName,
			Away: away(start.Sub(s.Planner.Now())), Verdict: judge(d, session.Schedule), Shared: session.Published, Newer: session.Newer,
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
