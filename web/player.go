package web

import (
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/today"
	"cuestart/store"
)

// sharedBody lets a player find their own list.
type sharedBody struct {
	Title, Day, StartName, Start string
	Token                        string
	Players                      []sharedEntry
}

type sharedEntry struct{ ID, Name, Number string }

// mineBody is one player's run-in.
type mineBody struct {
	Token, Title, Name, Number string
	StartName, Start, Day      string
	Edition                    int
	Published                  string
	StartUnix                  int64
	Countdown                  string
	Items                      []mineItem
	Carry                      []string
	Cautions                   []string
}

type mineItem struct {
	From, To            int // seconds from the start
	ToGo, Clock         string
	Name, Length        string
	Phase               drill.Phase
	Fixed               bool
	Where, With, Leader string
	Doses, Cues, Kit    []string
	Why                 string
	State               string // past, now, next or "", when the page was made
	Seconds             int
	Missed              string
}

// Opened tells whether the page shows all of the item at once.
func (i mineItem) Opened() bool { return i.State == "now" || i.State == "next" }

// shared finds what a link shows, or answers that it shows nothing.
func (s *Site) shared(c *gin.Context) *store.Shared {
	c.Header("X-Robots-Tag", "noindex")
	found, err := s.Planner.Store.Shared(c.Request.Context(), c.Param("token"))
	switch {
	case errors.Is(err, store.ErrWithdrawn):
		s.plain(c, http.StatusGone, "This link was withdrawn", "Ask your coach for the new one.")
	case errors.Is(err, store.ErrNotFound):
		s.plain(c, http.StatusNotFound, "This link leads nowhere", "Check that it was copied whole, or ask your coach for it again.")
	case err != nil:
		s.failed(c, err)
	default:
		return found
	}
	return nil
}

func (s *Site) sharedSquad(c *gin.Context) {
	found := s.shared(c)
	if found == nil {
		return
	}
	d := found.Document
	body := sharedBody{Title: d.Title, Day: found.Schedule.Start.Format("Monday 2 January"), StartName: d.StartName, Start: clock.Clock(found.Schedule.Start, 0), Token: c.Param("token")}
	for _, p := range d.Players {
		entry := sharedEntry{ID: p.ID, Name: p.ShortName()}
		if p.Number > 0 {
			entry.Number = fmt.Sprint(p.Number)
		}
		body.Players = append(body.Players, entry)
	}
	s.write(c, http.StatusOK, "mine/squad", "phone", &page{Title: d.Title, Look: look(c), Body: body})
}

func (s *Site) mine(c *gin.Context) {
	found := s.shared(c)
	if found == nil {
		return
	}
	p := found.Document.Player(c.Param("player"))
	if p == nil {
		s.notFound(c)
		return
	}
	body := s.mineBody(found, p)
	body.Token = c.Param("token")
	s.write(c, http.StatusOK, "mine/mine", "phone", &page{Title: body.Name + ", " + body.Title, Look: look(c), Body: body})
}

func (s *Site) mineBody(found *store.Shared, p *plan.Player) mineBody {
	d, fitted := found.Document, found.Schedule
	start := fitted.Start
	body := mineBody{Title: d.Title, Name: p.ShortName(), StartName: d.StartName, Start: clock.Clock(start, 0), Day: start.Format("Mon 2 Jan"),
		Edition: found.Number, Published: found.At.In(start.Location()).Format("Mon 15:04"), StartUnix: start.Unix()}
	if p.Number > 0 {
		body.Number = fmt.Sprint(p.Number)
	}
	versions := today.Versions(d)
	for i := range fitted.Result.Blocks {
		r, b := &fitted.Result.Blocks[i], &d.Blocks[i]
		if !r.Kept || !slices.Contains(d.Members(b.Who), p.ID) {
			continue
		}
		item := mineItem{From: int(r.Start), To: int(r.End), Name: b.Name, Phase: b.Phase, Where: zoneName(d, b.Zone), Leader: leaderName(d, b.Leader), Why: b.Aim, With: company(d, b, p)}
		words := doses(b, fitted.Amounts[i])
		for n, known := range b.Items {
			line := words[n]
			if len(b.Items) > 1 {
				line = known.Drill.Name + ": " + line
			}
			if i := slices.IndexFunc(versions, func(v today.Version) bool { return v.Player == p.ID && v.Block == b.ID && v.Item == n }); i >= 0 {
				line = "For you: " + versions[i].Words(known.Drill)
				if versions[i].Drill == nil {
					item.Doses = append(item.Doses, line)
					continue
				}
				known.Drill = *versions[i].Drill
			}
			item.Doses = append(item.Doses, line)
			item.Cues = append(item.Cues, first(known.Drill.Cues, 2-min(1, len(b.Items)-1))...)
			body.Carry = appendNew(body.Carry, known.Drill.Kit...)
			item.Kit = appendNew(item.Kit, known.Drill.Kit...)
			body.Cautions = warn(body.Cautions, known.Drill.Caution)
		}
		for _, m := range r.Missed {
			if m.Player == p.ID {
				item.Missed = fmt.Sprintf("You are called away for %s of it", clock.Duration(m.Seconds))
			}
		}
		body.Items = append(body.Items, item)
	}
	for _, f := range fitted.Fixed {
		if !slices.Contains(f.Players, p.ID) {
			continue
		}
		body.Items = append(body.Items, mineItem{From: int(f.Start), To: int(f.End), Name: fixedName(d, f.ID), Fixed: true})
	}
	slices.SortStableFunc(body.Items, func(x, y mineItem) int { return x.From - y.From })
	now := int(s.Planner.Now().Sub(start).Seconds())
	body.Countdown = clock.Offset(now).ToGo()
	body.mark(now, found)
	return body
}

// mark fills in what depends on the time.
func (m *mineBody) mark(now int, found *store.Shared) {
	met := false
	for i := range m.Items {
		item := &m.Items[i]
		item.ToGo, item.Clock = clock.Offset(item.From).MinutesToGo(), clock.Clock(found.Schedule.Start, clock.Offset(item.From))
		item.Seconds = item.To - item.From
		item.Length = clock.Duration(item.Seconds)
		switch {
		case item.To <= now:
			item.State = "past"
		case !met && item.From <= now:
			item.State, met = "now", true
		case !met:
			item.State, met = "next", true
		}
	}
}

// company is who the player does a block with, where that is not everybody.
func company(d *plan.Document, b *plan.Block, p *plan.Player) string {
	members := d.Members(b.Who)
	if len(members) == len(d.Players) || len(members) == 1 {
		return ""
	}
	others := slices.DeleteFunc(slices.Clone(members), func(id string) bool { return id == p.ID })
	if len(others) > 3 {
		return strings.ToLower(who(d, b.Who))
	}
	var names []string
	for _, id := range others {
		names = append(names, d.Player(id).ShortName())
	}
	return strings.Join(names, ", ")
}

func first[T any](list []T, n int) []T { return list[:min(n, len(list))] }

func appendNew(list []string, more ...string) []string {
	for _, one := range more {
		if !slices.Contains(list, one) {
			list = append(list, one)
		}
	}
	return list
}
