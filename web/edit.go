package web

import (
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/store"
)

// edition is the one that the form was made on.
func edition(c *gin.Context) uint32 {
	n, _ := strconv.ParseUint(c.PostForm("edition"), 10, 32) // 0, which is always stale, if it is none
	return uint32(n)
}

// change makes an edit and shows the board again, with block open; a refused
// one with its sentences and the entered values.
func (s *Site) change(c *gin.Context, block string, edit planner.Edit, refill func(*boardBody)) {
	s.done(c, block, s.Planner.Change(c.Request.Context(), *account(c), sessionID(c), edition(c), edit), refill)
}

// done answers a write to the board.
func (s *Site) done(c *gin.Context, block string, err error, refill func(*boardBody)) {
	switch refused := problems(err); {
	case err == nil && part(c):
		s.showBoard(c, http.StatusOK, block, nil, nil)
	case err == nil:
		back := fmt.Sprintf("/sessions/%d", sessionID(c))
		if block != "" {
			back += "?block=" + block
		}
		c.Redirect(http.StatusSeeOther, back)
	case refused != nil:
		s.showBoard(c, http.StatusUnprocessableEntity, block, refused, refill)
	case errors.Is(err, store.ErrStale):
		s.showBoard(c, http.StatusConflict, block, nil, func(b *boardBody) {
			b.Stale = true
			if refill != nil {
				refill(b)
			}
		})
	case errors.Is(err, store.ErrNothing):
		s.showBoard(c, http.StatusConflict, block, plan.Problems{{Where: "board", What: "There is nothing more to undo or redo."}}, nil)
	default:
		s.failed(c, err)
	}
}

func (s *Site) setTiming(c *gin.Context) {
	form := timingForm{Local: c.PostForm("start"), Occurrence: c.PostForm("occurrence"), Margin: c.PostForm("margin")}
	s.change(c, "", func(d *plan.Document) (string, error) {
		start := clock.Start{Local: form.Local, Zone: d.Start.Zone, Occurrence: clock.Occurrence(form.Occurrence)}
		if minutes, err := strconv.Atoi(c.PostForm("shift")); err == nil {
			at, err := d.Start.Resolve()
			if err != nil {
				return "", err
			}
			start = clock.StartAt(at.Add(time.Duration(max(-1440, min(minutes, 1440))) * time.Minute))
		}
		margin, err := clock.ParseDuration(form.Margin)
		if err != nil {
			return "", plan.Problems{{Where: "margin", What: err.Error()}}
		}
		var done []string
		if start.Local != d.Start.Local || start.Occurrence != d.Start.Occurrence {
			said, err := s.Planner.SetStart(start)(d)
			if err != nil {
				return "", err
			}
			done = append(done, said)
		}
		if margin != d.Margin {
			said, err := d.SetMargin(margin)
			if err != nil {
				return "", err
			}
			done = append(done, said)
		}
		return strings.Join(done, ", "), nil
	}, func(b *boardBody) { form.Zone = b.Timing.Zone; b.Timing = form })
}

func (s *Site) setDose(c *gin.Context) {
	block := c.Param("block")
	item, _ := strconv.Atoi(c.PostForm("item"))
	s.change(c, block, func(d *plan.Document) (string, error) {
		b := d.Block(block)
		if b == nil || item < 0 || item >= len(b.Items) {
			return "", plan.ErrNoSuchBlock
		}
		r := b.Items[item].Drill.Range
		amount, err := strconv.Atoi(c.PostForm("amount"))
		if steps, err2 := strconv.Atoi(c.PostForm("by")); err2 == nil && steps >= -100 && steps <= 100 {
			amount, err = r.Clamp(r.Target+steps*r.Step), nil
		}
		if err != nil {
			return "", plan.Problems{{Where: fmt.Sprintf("blocks.%s.items.%d", block, item), What: "write a whole number"}}
		}
		return d.SetDose(block, item, amount)
	}, nil)
}

func (s *Site) setPriority(c *gin.Context) {
	block := c.Param("block")
	s.change(c, block, func(d *plan.Document) (string, error) {
		return d.SetPriority(block, plan.Priority(c.PostForm("priority")))
	}, nil)
}

func (s *Site) setOrder(c *gin.Context) {
	block, by := c.Param("block"), 1
	if c.PostForm("by") == "-1" {
		by = -1
	}
	s.change(c, block, func(d *plan.Document) (string, error) { return d.Swap(block, by) }, nil)
}

func (s *Site) removeBlock(c *gin.Context) {
	s.change(c, "", func(d *plan.Document) (string, error) { return d.Remove(c.Param("block")) }, nil)
}

func (s *Site) addBlock(c *gin.Context) {
	form := addForm{Drill: c.PostForm("drill"), Who: c.PostForm("who"), Priority: c.PostForm("priority")}
	phase, code, _ := strings.Cut(form.Drill, " ")
	if phase == tile(drill.Own) {
		phase = string(drill.Own)
	}
	book := s.book(c)
	if book == nil {
		return
	}
	s.change(c, "", func(d *plan.Document) (string, error) {
		known, ok := book.Find(code)
		if !ok {
			return "", plan.Problems{{Where: "add.drill", What: "pick a drill"}}
		}
		return d.Add(known, drill.Phase(phase), []string{form.Who}, plan.Priority(form.Priority))
	}, func(b *boardBody) {
		b.Add.Open, b.Add.Drill, b.Add.Who, b.Add.Priority = true, form.Drill, form.Who, form.Priority
	})
}

func (s *Site) setSpare(c *gin.Context) {
	s.change(c, "", func(d *plan.Document) (string, error) { return d.SetSpare(c.PostForm("use") == "yes") }, nil)
}

func (s *Site) mend(c *gin.Context) {
	err := s.Planner.Mend(c.Request.Context(), *account(c), sessionID(c), edition(c), c.PostForm("rule"), c.PostForm("where"))
	if errors.Is(err, check.ErrNoMend) {
		err = plan.Problems{{Where: "board", What: "No single change mends this without spoiling something else. Change the plan by hand, or keep it with a reason."}}
	}
	s.done(c, "", err, nil)
}

func (s *Site) keep(c *gin.Context) {
	s.change(c, "", planner.Except(c.PostForm("rule"), c.PostForm("where"), c.PostForm("reason")), nil)
}

func (s *Site) undo(c *gin.Context) {
	s.done(c, c.PostForm("block"), s.Planner.Undo(c.Request.Context(), *account(c), sessionID(c), edition(c)), nil)
}

func (s *Site) redo(c *gin.Context) {
	s.done(c, c.PostForm("block"), s.Planner.Redo(c.Request.Context(), *account(c), sessionID(c), edition(c)), nil)
}

func (s *Site) publish(c *gin.Context) {
	_, err := s.Planner.Store.Publish(c.Request.Context(), account(c).ClubID, sessionID(c), edition(c))
	s.done(c, c.PostForm("block"), err, nil)
}

func (s *Site) withdraw(c *gin.Context) {
	err := s.Planner.Store.Withdraw(c.Request.Context(), account(c).ClubID, sessionID(c))
	s.done(c, c.PostForm("block"), err, nil)
}

// setDay sets the day's conditions.
func (s *Site) setDay(c *gin.Context) {
	day, form, wrong := readDay(c)
	s.change(c, "", func(d *plan.Document) (string, error) {
		if len(wrong) > 0 {
			return "", wrong
		}
		return planner.SetDay(day)(d)
	}, func(b *boardBody) { b.Day = form })
}

func (s *Site) setFactor(c *gin.Context) {
	s.change(c, "", planner.SetFactor(c.PostForm("factor"), c.PostForm("on") == "yes"), nil)
}

// keepRoutine keeps the session's blocks as a routine.
func (s *Site) keepRoutine(c *gin.Context) {
	name := strings.TrimSpace(c.PostForm("name"))
	err := s.Planner.KeepRoutine(c.Request.Context(), *account(c), sessionID(c), name, strings.TrimSpace(c.PostForm("for")))
	var refused plan.Problems
	switch {
	case errors.As(err, &refused):
		s.showBoard(c, http.StatusUnprocessableEntity, "", plan.Problems{{Where: "routine", What: refused[0].What}}, nil)
	case err != nil:
		s.failed(c, err)
	default:
		s.say(c, name+" is kept as a routine")
		c.Redirect(http.StatusSeeOther, "/routines")
	}
}

// setBlock changes what is said of a block beside its drills.
func (s *Site) setBlock(c *gin.Context) {
	block := c.Param("block")
	s.change(c, block, func(d *plan.Document) (string, error) {
		who := []string{c.PostForm("who")}
		if b := d.Block(block); b != nil && who[0] == "" {
			who = b.Who // as it is: players picked one by one
		}
		return d.SetBlock(block, plan.BlockFields{Name: strings.TrimSpace(c.PostForm("name")), Aim: strings.TrimSpace(c.PostForm("aim")), Who: who,
			Zone: c.PostForm("zone"), Leader: c.PostForm("leader"), Stations: number(c.PostForm("stations"))})
	}, nil)
}

// addItem puts a drill of the club's book into a block.
func (s *Site) addItem(c *gin.Context) {
	book := s.book(c)
	if book == nil {
		return
	}
	block := c.Param("block")
	s.change(c, block, func(d *plan.Document) (string, error) {
		known, ok := book.Find(c.PostForm("drill"))
		if !ok {
			return "", plan.Problems{{Where: "blocks." + block + ".items", What: "pick a drill"}}
		}
		return d.AddItem(block, book.Item(known, d.Grade))
	}, nil)
}

func (s *Site) removeItem(c *gin.Context) {
	block := c.Param("block")
	s.change(c, block, func(d *plan.Document) (string, error) { return d.RemoveItem(block, number(c.PostForm("item"))) }, nil)
}

// setFixed changes or adds what the day holds.
func (s *Site) setFixed(c *gin.Context) {
	s.change(c, "", func(d *plan.Document) (string, error) {
		if c.PostForm("gone") != "" {
			return d.RemoveFixed(c.PostForm("id"))
		}
		f := plan.Fixed{ID: c.PostForm("id"), Name: strings.TrimSpace(c.PostForm("name")), Who: []string{c.PostForm("who")}, Active: c.PostForm("active") != ""}
		if known := d.Fixed; f.ID != "" && f.Who[0] == "" {
			for _, k := range known {
				if k.ID == f.ID {
					f.Who = k.Who
				}
			}
		}
		var wrong error
		if f.Span.From, wrong = moment(c.PostForm("from")); wrong == nil {
			f.Span.To, wrong = moment(c.PostForm("to"))
		}
		if wrong != nil {
			return "", plan.Problems{{Where: "fixed", What: wrong.Error()}}
		}
		return d.SetFixed(f)
	}, nil)
}

// moment reads minutes to go, 46 or 4:30, or a time on the clock, 13:52 with a
// leading @.
func moment(text string) (clock.Moment, error) {
	text = strings.TrimSpace(text)
	if at, isClock := strings.CutPrefix(text, "@"); isClock {
		if _, err := time.Parse("15:04", at); err != nil {
			return clock.Moment{}, fmt.Errorf("%q is no time on the clock such as @13:52", text)
		}
		return clock.AtClock(at), nil
	}
	seconds, err := clock.ParseDuration(text)
	return clock.BeforeStart(seconds), err
}

// momentText writes a moment as moment reads it.
func momentText(m clock.Moment, start time.Time) string {
	if m.Clock != "" {
		return "@" + m.Clock
	}
	at, err := m.Offset(start)
	if err != nil {
		return ""
	}
	return strings.TrimSuffix(clock.Duration(int(-at)), ":00")
}

// setPlayer says that a player comes late or not at all.
func (s *Site) setPlayer(c *gin.Context) {
	s.change(c, "", func(d *plan.Document) (string, error) {
		if c.PostForm("out") != "" {
			return d.SetOut(c.PostForm("player"))
		}
		return d.SetLate(c.PostForm("player"), 60*number(c.PostForm("late")))
	}, nil)
}

// takeRulings brings the plan up to what medical staff have ruled.
func (s *Site) takeRulings(c *gin.Context) {
	s.done(c, "", s.Planner.TakeRulings(c.Request.Context(), *account(c), sessionID(c), edition(c)), nil)
}

// setHead changes what is said of the session as a whole.
func (s *Site) setHead(c *gin.Context) {
	s.change(c, "", func(d *plan.Document) (string, error) {
		open, err := moment(c.PostForm("open"))
		if err != nil {
			return "", plan.Problems{{Where: "open", What: err.Error()}}
		}
		return d.SetHead(plan.HeadFields{Title: strings.TrimSpace(c.PostForm("title")), Place: strings.TrimSpace(c.PostForm("place")), StartName: strings.TrimSpace(c.PostForm("start_name")), Method: c.PostForm("method"), Open: open})
	}, nil)
}

// removeSession takes a session off the list; it can be brought back.
func (s *Site) removeSession(c *gin.Context) {
	if err := s.Planner.Store.Remove(c.Request.Context(), account(c).ClubID, sessionID(c), true); err != nil {
		s.failed(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, fmt.Sprintf("/today?removed=%d", sessionID(c)))
}

func (s *Site) restoreSession(c *gin.Context) {
	if err := s.Planner.Store.Remove(c.Request.Context(), account(c).ClubID, sessionID(c), false); err != nil {
		s.failed(c, err)
		return
	}
	c.Redirect(http.StatusSeeOther, fmt.Sprintf("/sessions/%d", sessionID(c)))
}
