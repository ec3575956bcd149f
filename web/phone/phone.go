// Package phone is what a link shows: who are you, and a player's own run-in.
package phone

import (
	"embed"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/planner"
	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, nil)

// squadBody lets a player find their own list.
type squadBody struct {
	Title, Day, StartName, Start string
	Token                        string
	Players                      []entry
}

type entry struct{ ID, Name, Number string }

// mineBody is one player's run-in.
type mineBody struct {
	Token, Title, Name, Number string
	Own                        bool // it is the player's own link
	StartName, Start, Day      string
	Edition                    int
	Published                  string
	StartUnix                  int64
	Countdown, Caption         string
	Items                      []item
	Carry                      []string
}

// item is a block or an event of the day, as one player has it.
type item struct {
	From, To            int // seconds from the start
	ToGo, Clock         string
	Name, Length        string
	Phase               drill.Phase
	Fixed               bool
	Where, With, Leader string
	Drills              []move
	Rounds              string
	Kit                 []string
	Why                 string
	State               string // past, now, next or "", when the page was made
	Seconds             int
	Missed              string
}

// move is a drill of a block, as one player does it.
type move struct {
	Name, Dose string
	Instead    string // what it stands in for, by a ruling; the dose is "" where it is left out
	Cues       []string
	Caution    string
}

// Opened tells whether the page shows all of the item at once.
func (i item) Opened() bool { return i.State == "now" || i.State == "next" }

// shared finds what a link shows to everybody.
func shared(r *shell.Request) (*planner.Shared, error) {
	r.Unlisted()
	found, err := r.Planner.Shared(r.Context(), r.Param("token"))
	return found, refused(err)
}

// refused says in words why a link shows nothing.
func refused(err error) error {
	switch {
	case errors.Is(err, planner.ErrOver):
		return shell.Refusal{Status: http.StatusGone, Heading: "This link has ended", Line: "It was good until a day after the session. Ask your coach for the next one."}
	case errors.Is(err, planner.ErrWithdrawn):
		return shell.Refusal{Status: http.StatusGone, Heading: "This link was withdrawn", Line: "Ask your coach for the new one."}
	case errors.Is(err, planner.ErrNotFound):
		return shell.Refusal{Status: http.StatusNotFound, Heading: "This link leads nowhere", Line: "Check that it was copied whole, or ask your coach for it again."}
	}
	return err
}

// Squad asks who is there.
func Squad(r *shell.Request) (shell.Answer, error) {
	found, err := shared(r)
	if err != nil {
		return nil, err
	}
	d, start := found.Document, found.Schedule.Start
	b := squadBody{Title: d.Title, Day: start.Format("Monday 2 January"), StartName: d.StartName, Start: clock.Clock(start, 0), Token: r.Param("token")}
	for _, p := range d.Players {
		b.Players = append(b.Players, entry{p.ID, p.ShortName(), number(&p)})
	}
	return &shell.Page{Screens: screens, Name: "squad", Title: d.Title, Body: b, Phone: true}, nil
}

// number is a player's shirt number, or "".
func number(p *plan.Player) string {
	if p.Number == 0 {
		return ""
	}
	return fmt.Sprint(p.Number)
}

// Mine is a player's run-in as everybody with the link may see it.
func Mine(r *shell.Request) (shell.Answer, error) {
	found, err := shared(r)
	return mine(r, found, err, false)
}

// Own is a player's run-in under their own link: with what medical staff ruled for them.
func Own(r *shell.Request) (shell.Answer, error) {
	r.Unlisted()
	found, err := r.Planner.Own(r.Context(), r.Param("token"), r.Param("player"), r.Param("key"))
	return mine(r, found, refused(err), true)
}

func mine(r *shell.Request, found *planner.Shared, err error, own bool) (shell.Answer, error) {
	if err != nil {
		return nil, err
	}
	p := found.Document.Player(r.Param("player"))
	if p == nil {
		return nil, planner.ErrNotFound
	}
	b := mineOf(found, p)
	b.Token, b.Own = r.Param("token"), own
	b.mark(int(r.Planner.Now().Sub(found.Schedule.Start).Seconds()), found.Schedule)
	return &shell.Page{Screens: screens, Name: "mine", Title: b.Name + ", " + b.Title, Body: b, Phone: true}, nil
}

func mineOf(found *planner.Shared, p *plan.Player) *mineBody {
	d, start := found.Document, found.Schedule.Start
	b := &mineBody{Title: d.Title, Name: p.ShortName(), Number: number(p), StartName: d.StartName, Start: clock.Clock(start, 0), Day: start.Format("Mon 2 Jan"),
		Edition: found.Number, Published: found.At.In(start.Location()).Format("Mon 15:04"), StartUnix: start.Unix()}
	versions := today.Versions(d)
	for _, block := range found.Schedule.Blocks(d) {
		if block.Kept && block.Has(p.ID) {
			b.Items = append(b.Items, b.itemOf(d, &block, p, versions))
		}
	}
	for _, e := range found.Schedule.Events(d) {
		if slices.Contains(e.Players, p.ID) {
			b.Items = append(b.Items, item{From: int(e.Start), To: int(e.End), Name: e.Name, Fixed: true})
		}
	}
	slices.SortStableFunc(b.Items, func(x, y item) int { return x.From - y.From })
	return b
}

// itemOf is a block as the player does it: with what stands in for a drill that a
// ruling touches.
func (b *mineBody) itemOf(d *plan.Document, block *schedule.Block, p *plan.Player, versions []today.Version) item {
	one := item{From: int(block.Start), To: int(block.End), Name: block.Name, Phase: block.Phase, Where: d.ZoneName(block.Zone), Leader: d.LeaderName(block.Leader),
		Why: block.Says(), Rounds: block.Often(), With: company(d, block, p)}
	doses := block.Doses()
	for n := range block.Items {
		known := block.Items[n].Drill
		line := move{Name: known.Name, Dose: doses[n]}
		own := func(v today.Version) bool { return v.Player == p.ID && v.Block == block.ID && v.Item == n }
		if i := slices.IndexFunc(versions, own); i >= 0 {
			if versions[i].Drill == nil {
				one.Drills = append(one.Drills, move{Name: "You leave out " + known.Name})
				continue
			}
			line.Instead = known.Name
			known = *versions[i].Drill
			line.Name, line.Dose = known.Name, known.Words(known.Range.Target)
		}
		line.Cues, line.Caution = known.Cues, known.Caution
		one.Drills = append(one.Drills, line)
		one.Kit = appendNew(one.Kit, slices.Concat(known.Kit, known.LaneKit)...)
		for _, kit := range known.Kit {
			if drill.Carried(kit) && known.Pieces(block.Group) >= block.Group.People {
				b.Carry = appendNew(b.Carry, kit)
			}
		}
	}
	for _, m := range block.Missed {
		if m.Player == p.ID {
			one.Missed = fmt.Sprintf("You are called away for %s of it", clock.Lasting(m.Seconds))
		}
	}
	return one
}

// left is how long it is to the start, or since it, and what that is; at is in seconds
// from the start.
func left(at int) (length, caption string) {
	day, hour := 24*60*60, 60*60
	switch {
	case at > 0:
		return clock.Offset(at).ToGo(), "since the start"
	case -at >= day:
		return fmt.Sprintf("%d d %d h", -at/day, -at%day/hour), "to go"
	case -at >= hour:
		return fmt.Sprintf("%d:%02d", -at/hour, -at%hour/60), "hours to go"
	}
	return clock.Offset(at).ToGo(), "minutes to go"
}

// mark fills in what depends on the time, in seconds from the start.
func (b *mineBody) mark(now int, s *schedule.Schedule) {
	b.Countdown, b.Caption = left(now)
	met := false
	for i := range b.Items {
		one := &b.Items[i]
		one.ToGo, one.Clock = clock.Offset(one.From).ToGo(), clock.Clock(s.Start, clock.Offset(one.From))
		one.Seconds = one.To - one.From
		one.Length = clock.Lasting(one.Seconds)
		switch {
		case one.To <= now:
			one.State = "past"
		case !met && one.From <= now:
			one.State, met = "now", true
		case !met:
			one.State, met = "next", true
		}
	}
}

// company is who the player does a block with, where that is not everybody.
func company(d *plan.Document, b *schedule.Block, p *plan.Player) string {
	if len(b.Members) == len(d.Players) || len(b.Members) == 1 {
		return ""
	}
	others := slices.DeleteFunc(slices.Clone(b.Members), func(id string) bool { return id == p.ID })
	if len(others) > 3 {
		return strings.ToLower(d.Audience(b.Who))
	}
	var names []string
	for _, id := range others {
		names = append(names, d.Player(id).ShortName())
	}
	return strings.Join(names, ", ")
}

func appendNew(list []string, more ...string) []string {
	for _, one := range more {
		if !slices.Contains(list, one) {
			list = append(list, one)
		}
	}
	return list
}
