package web

import (
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"sort"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"cuestart/core/drill"
	"cuestart/planner"
)

// shownAtMost is how many drills a list shows before it asks for more words.
const shownAtMost = 300

type drillsBody struct {
	Query   drill.Query
	Space   string
	Total   int
	Groups  []foundGroup
	More    int
	Filters []filter
	Open    *openDrill
	Edits   bool
	Plain   bool // nothing is asked for
}

// foundGroup is the drills of a phase that were found.
type foundGroup struct {
	Phase  drill.Phase
	Name   string
	Drills []foundDrill
}

type foundDrill struct {
	Code, Name, Aim, Dose, Works, Kit string
	Phase                             drill.Phase
	Open                              bool
	Href                              string
}

// filter is one thing to look by.
type filter struct {
	Name, Label, Any, Now string
	Choices               []choice
}

type choice struct{ Value, Label string }

// openDrill is the drill whose page is open beside the list.
type openDrill struct {
	drill.Drill
	Dose, Work, Load, Works, Level, Space, Where string
	Phases                                       []drill.Phase
	Marks                                        []string
	Links                                        []drillLink
	Own, Sports                                  string
	Steps                                        []ladderStep
	Close                                        string
}

// ladderStep is a rung with the acts that the target puts on it.
type ladderStep struct{ What, Acts string }

type drillLink struct{ What, Name, Href, None string }

var phaseOrder = []drill.Phase{drill.Raise, drill.Activate, drill.Mobilise, drill.Potentiate, drill.Sport, drill.Own, drill.After}

func words(list []string) (choices []choice) {
	for _, w := range list {
		choices = append(choices, choice{w, w})
	}
	return choices
}

var spaces = []choice{{"spot", "on the spot"}, {"10", "up to 10 m"}, {"20", "up to 20 m"}, {"30", "up to 30 m"}}

func (s *Site) drills(c *gin.Context) {
	b := s.book(c)
	if b == nil {
		return
	}
	body := drillsOf(c, b)
	body.Edits = coach(c)
	if c.GetHeader("X-Part") == "found" {
		s.part(c, http.StatusOK, "drills/drills", "found", body)
		return
	}
	s.show(c, http.StatusOK, "drills/drills", "Drill book", "drills", body)
}

func drillsOf(c *gin.Context, b *planner.Book) *drillsBody {
	q := drill.Query{Text: c.Query("q"), Phase: c.Query("phase"), Region: c.Query("region"), Plane: c.Query("plane"), Quality: c.Query("quality"),
		Kit: c.Query("kit"), Grade: drill.Grade(c.Query("level")), Sport: c.Query("sport")}
	space := c.Query("space")
	if q.Metres, _ = strconv.Atoi(space); space == "spot" {
		q.Metres = -1
	}
	found := q.Find(b.Drills)
	body := &drillsBody{Query: q, Space: space, Total: len(found), Plain: q == drill.Query{}}
	if len(found) > shownAtMost {
		body.More = len(found) - shownAtMost
		found = found[:shownAtMost]
	}
	asked := c.Request.URL.Query()
	open := asked.Get("drill")
	for _, phase := range phaseOrder {
		group := foundGroup{Phase: phase, Name: phaseNames[phase]}
		for _, d := range found {
			if !d.Serves(phase) || d.Phases[0] != phase && (q.Phase == "" || q.Phase != tile(phase)) || q.Phase != "" && q.Phase != tile(phase) {
				continue
			}
			group.Drills = append(group.Drills, foundDrill{Code: d.Code, Name: d.Name, Aim: d.Aim, Dose: d.Words(d.Range.Target), Works: strings.Join(d.Regions, " "),
				Kit: strings.Join(slices.Concat(d.Kit, d.LaneKit), ", "), Phase: phase, Open: d.Code == open, Href: with(asked, "drill", d.Code)})
		}
		if len(group.Drills) > 0 {
			body.Groups = append(body.Groups, group)
		}
	}
	kit := map[string]bool{}
	for _, d := range b.Drills {
		for _, k := range slices.Concat(d.Kit, d.LaneKit) {
			kit[k] = true
		}
	}
	var kits []string
	for k := range kit {
		kits = append(kits, k)
	}
	sort.Strings(kits)
	var phases, grades []choice
	for _, p := range phaseOrder {
		phases = append(phases, choice{tile(p), phaseNames[p]})
	}
	for _, g := range drill.Grades {
		grades = append(grades, choice{string(g), gradeNames[g]})
	}
	body.Filters = []filter{
		{"phase", "Phase", "every phase", q.Phase, phases},
		{"region", "Joint", "every joint", q.Region, words(drill.Regions)},
		{"plane", "Plane", "every plane", q.Plane, words(drill.Planes)},
		{"quality", "Trains", "everything", q.Quality, words(drill.Qualities)},
		{"kit", "Kit", "any kit", q.Kit, append([]choice{{drill.NoKit, "no kit"}}, words(kits)...)},
		{"space", "Room", "any room", space, spaces},
		{"level", "Squad", "every level", string(q.Grade), grades},
	}
	if d, ok := b.Find(open); ok {
		body.Open = openOf(b, d, asked)
	}
	return body
}

var gradeNames = map[drill.Grade]string{drill.Junior: "juniors", drill.Club: "club", drill.Elite: "elite"}

// with is the address of the drill book with one thing asked for set.
func with(asked url.Values, key, value string) string {
	next := url.Values{}
	for k, v := range asked {
		if k != key && len(v) > 0 && v[0] != "" {
			next[k] = v[:1]
		}
	}
	if value != "" {
		next.Set(key, value)
	}
	return "/drills?" + next.Encode()
}

func openOf(b *planner.Book, d drill.Drill, asked url.Values) *openDrill {
	o := &openDrill{Drill: d, Phases: d.Phases, Level: gradeNames[d.Least], Close: with(asked, "drill", ""),
		Dose: fmt.Sprintf("%s, from %s to %s", d.Words(d.Range.Target), d.Figure(d.Range.Min), d.Figure(d.Range.Max))}
	group := drill.Group{People: 1, Lanes: 1}
	k := d.For(drill.Club)
	o.Work = fmt.Sprintf("%.0f s for one", k.Work(k.Range.Target, group))
	if k.Dose.Kind == drill.Travel || k.Dose.Kind == drill.Count || k.Dose.Kind == drill.Grid {
		o.Work += fmt.Sprintf(", %.0f s for 24 in six lanes", k.Work(k.Range.Target, drill.Group{People: 24, Lanes: 6}))
	}
	load := k.Load(k.Range.Target, group)
	o.Load = strings.Join(count(load.Contacts, "contacts", load.SprintMetres, "m sprinted", load.Acts, "acts"), ", ")
	o.Works = strings.Join(nonEmpty(strings.Join(d.Regions, ", "), planeWords(d.Planes)), " · ")
	switch {
	case d.Space.Length > 0:
		o.Space = fmt.Sprintf("%g × %g m a lane", d.Space.Length, d.Space.Width)
	default:
		o.Space = fmt.Sprintf("on the spot, %g m apart", d.Space.Width)
	}
	for mark, is := range map[string]bool{"on the ground": d.Ground, "held still": d.Static, "only once warm": d.NeedsWarm, "to the end of the range": d.EndRange,
		"one side at a time": d.OneSided, "tires the arm": d.ArmPump, "overhead": d.Overhead, "body contact": d.Collision, "all together": d.Together} {
		if is {
			o.Marks = append(o.Marks, mark)
		}
	}
	sort.Strings(o.Marks)
	if !d.Ground {
		o.Marks = append([]string{"standing"}, o.Marks...)
	}
	for i, n := range d.Ladder(d.Range.Target) {
		o.Steps = append(o.Steps, ladderStep{d.Rungs[i].String(), fmt.Sprint(n)})
	}
	for _, link := range []struct{ what, code, none string }{{"Easier", d.Easier, "this is the plainest form"}, {"Harder", d.Harder, "this is the hardest: turn up the dose"}, {"Instead", d.Swap, "nothing is named"}} {
		l := drillLink{What: link.what, None: link.none}
		if other, ok := b.Find(link.code); ok {
			l.Name, l.Href = other.Name, with(asked, "drill", other.Code)
		}
		o.Links = append(o.Links, l)
	}
	if own, ok := b.Own[d.Code]; ok {
		o.Own = "Changed by your club"
		if own.Edition == 0 {
			o.Own = ""
		}
	}
	return o
}

func planeWords(planes []string) string {
	if len(planes) == 0 {
		return ""
	}
	return strings.Join(planes, ", ") + " plane"
}

// Pct is the effort in per cent.
func (o *openDrill) Pct() float64 { return 100 * o.Effort }
