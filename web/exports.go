package web

import (
	"fmt"
	"io"
	"net/http"

	"github.com/gin-gonic/gin"

	"cuestart/core/club"
	"cuestart/share"
	"cuestart/store"
)

// sendFile offers a file to be saved.
func sendFile(c *gin.Context, name, kind string, write func(io.Writer) error) {
	c.Header("Content-Disposition", fmt.Sprintf("attachment; filename=%q", name))
	c.Header("Content-Type", kind)
	c.Status(http.StatusOK)
	if err := write(c.Writer); err != nil {
		c.Error(err)
	}
}

const csvKind, jsonKind = "text/csv; charset=utf-8", "application/json"

func (s *Site) exportSquad(c *gin.Context) {
	squad := s.squadOf(c, numberID(c.Query("squad")))
	if squad == nil {
		return
	}
	var players []club.Player
	for _, k := range squad.Players {
		players = append(players, k.Is)
	}
	sendFile(c, "squad.csv", csvKind, func(w io.Writer) error { return share.WritePlayers(w, players) })
}

func (s *Site) exportTests(c *gin.Context) {
	squad := s.squadOf(c, numberID(c.Query("squad")))
	if squad == nil {
		return
	}
	kept, err := store.Things[club.Trial](c.Request.Context(), s.Planner.Store, account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	var trials []club.Trial
	for _, k := range kept {
		if p := squad.Player(k.Owner); p != nil {
			k.Is.Player = p.Is.Label()
			trials = append(trials, k.Is)
		}
	}
	sendFile(c, "tests.csv", csvKind, func(w io.Writer) error { return share.WriteTrials(w, trials) })
}

func (s *Site) exportFixtures(c *gin.Context) {
	kept, err := store.Things[club.Fixture](c.Request.Context(), s.Planner.Store, account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	var fixtures []club.Fixture
	for _, k := range kept {
		fixtures = append(fixtures, k.Is)
	}
	sendFile(c, "fixtures.csv", csvKind, func(w io.Writer) error { return share.WriteFixtures(w, fixtures) })
}

func (s *Site) exportDrills(c *gin.Context) {
	b := s.book(c)
	if b == nil {
		return
	}
	sendFile(c, "drills.csv", csvKind, func(w io.Writer) error { return share.WriteDrills(w, b.Drills) })
}

func (s *Site) exportRoutine(c *gin.Context) {
	kept, err := store.Things[club.Routine](c.Request.Context(), s.Planner.Store, account(c).ClubID)
	if err != nil {
		s.failed(c, err)
		return
	}
	for _, k := range kept {
		if k.ID == numberID(c.Param("id")) {
			sendFile(c, "routine.json", jsonKind, func(w io.Writer) error { return share.WriteJSON(w, k.Is) })
			return
		}
	}
	s.notFound(c)
}

func (s *Site) exportPlan(c *gin.Context) {
	session, err := s.Planner.Store.Session(c.Request.Context(), account(c).ClubID, sessionID(c))
	if err != nil {
		s.failed(c, err)
		return
	}
	sendFile(c, "plan.json", jsonKind, func(w io.Writer) error { return share.WriteJSON(w, session.Document) })
}
