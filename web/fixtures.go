package web

import (
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"cuestart/core/club"
	"cuestart/planner"
	"cuestart/store"
)

// fixtureRow is a fixture that has no run-in yet.
type fixtureRow struct {
	ID                             uint64
	Title, Kind, Day, Clock, Place string
}

// toCome lists the fixtures without a run-in, the nearest first.
func (s *Site) toCome(c *gin.Context, sessions []planner.Listed) (rows []fixtureRow, more int, err error) {
	kept, err := store.Things[club.Fixture](c.Request.Context(), s.Planner.Store, account(c).ClubID)
	if err != nil {
		return nil, 0, err
	}
	now := s.Planner.Now().Add(-12 * time.Hour)
	type dated struct {
		at  time.Time
		row fixtureRow
	}
	var list []dated
	for _, k := range kept {
		at, err := k.Is.Start.Resolve()
		planned := slices.ContainsFunc(sessions, func(one planner.Listed) bool {
			return one.Schedule.Start.Equal(at) && strings.EqualFold(one.Document.Title, k.Is.Title)
		})
		if err != nil || at.Before(now) || planned {
			continue
		}
		row := fixtureRow{ID: k.ID, Title: k.Is.Title, Kind: string(k.Is.For), Day: at.Format("Mon 2 Jan"), Clock: at.Format("15:04"), Place: k.Is.Place}
		if k.Is.Day {
			row.Clock = "hour not known"
		}
		list = append(list, dated{at, row})
	}
	slices.SortStableFunc(list, func(a, b dated) int { return a.at.Compare(b.at) })
	for _, d := range list {
		rows = append(rows, d.row)
	}
	const shown = 8
	if len(rows) > shown {
		return rows[:shown], len(rows) - shown, nil
	}
	return rows, 0, nil
}
