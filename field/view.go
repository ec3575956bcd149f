package field

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/today"
)

// View is what a phone at the pitch side shows. Moments are Unix seconds.
type View struct {
	Start     int64      `json:"start"`
	StartName string     `json:"startName"`
	StartTime string     `json:"startTime"`
	Pace      string     `json:"pace"` // "0:40 behind · Line-out is waited for"
	Behind    int        `json:"behind"`
	Quiet     bool       `json:"quiet"`
	On        []Card     `json:"on"`     // under way
	Events    []Fixed    `json:"events"` // of the day, that are on
	Idle      []Idle     `json:"idle"`
	Next      []Card     `json:"next"` // to come, in the order of time
	Past      []Card     `json:"past"` // over, the latest first
	Left      []Card     `json:"left"` // left out
	Different []string   `json:"different"`
	Disputes  []Dispute  `json:"disputes"`
	Loose     bool       `json:"loose"`
	Out       []Absent   `json:"out"`
	Lists     []ListLine `json:"lists"`
	Players   []Choice   `json:"players"` // who is there, to be picked
	Places    []Choice   `json:"places"`
	Leaders   []Choice   `json:"leaders"`
	Last      string     `json:"last"` // id of the last change, which a new one knows
	Caution   string     `json:"caution"`
}

// Card is a block.
type Card struct {
	ID     string   `json:"id"`
	Name   string   `json:"name"`
	Phase  string   `json:"phase"`
	Letter string   `json:"letter"`
	Who    string   `json:"who"`
	Leader string   `json:"leader"`
	Where  string   `json:"where"`
	From   int64    `json:"from"`
	To     int64    `json:"to"`
	ToGo   string   `json:"toGo"`
	Length string   `json:"length"`
	State  string   `json:"state"`
	Waits  string   `json:"waits"`
	Then   string   `json:"then"` // what its players do next
	List   string   `json:"list"` // name of the list that it is of; "": the run-in
	Drills []Drill  `json:"drills"`
	Others []string `json:"others"` // who does something else by a ruling, without the reason
	Own    []string `json:"own"`    // what its players always do in own time
	Last   string   `json:"last"`   // id of the last event about it
}

// Drill is a drill of a block, as it is told.
type Drill struct {
	Item    int      `json:"item"`
	Name    string   `json:"name"`
	Dose    string   `json:"dose"`
	Say     string   `json:"say"`
	Look    string   `json:"look"`
	Caution string   `json:"caution"`
	Columns []string `json:"columns"`
	Rows    []Row    `json:"rows"` // of a grid
}

// Row is a row of a grid.
type Row struct {
	Name  string `json:"name"`
	Cells []Cell `json:"cells"`
}

// Cell is a cell of a grid; Tries 0: it is not wanted.
type Cell struct {
	N     int  `json:"n"`
	Tries int  `json:"tries"`
	Count int  `json:"count"`
	Again bool `json:"again"`
}

// Fixed is an event of the day that is on.
type Fixed struct {
	Name string `json:"name"`
	Who  string `json:"who"`
	To   int64  `json:"to"`
}

// Idle is who does nothing.
type Idle struct {
	Who    string   `json:"who"`
	IDs    []string `json:"ids"`
	Since  int64    `json:"since"` // 0: they have not begun
	Next   string   `json:"next"`
	At     int64    `json:"at"` // when that comes; 0: nothing comes
	Stands bool     `json:"stands"`
	Warm   string   `json:"warm"`
}

// Dispute is two events that say otherwise, in words.
type Dispute struct {
	Says string `json:"says"`
	Held string `json:"held"` // id
}

// Absent is who is out.
type Absent struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Stays bool   `json:"stays"`
}

// ListLine is a list with a line of its own.
type ListLine struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Line    string `json:"line"`    // what its line is called
	Length  int    `json:"length"`  // seconds that there are
	Forward bool   `json:"forward"` // it runs from its line on
	At      int64  `json:"at"`      // its line; 0: it was not started
}

// Choice is something to pick.
type Choice struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

const caution = "Stop on pain. A knock to the head means out. Medical rulings come before any plan."

func viewOf(base *plan.Document, s *conduct.Stand) *View {
	d := s.Document
	seconds, block := s.Behind()
	v := &View{Start: s.Unix(0), StartName: d.StartName, StartTime: clock.Clock(s.Schedule.Start, 0), Behind: seconds,
		Pace: pace(s, seconds, block), Quiet: s.Quiet(), Different: s.Said, Loose: s.Loose,
		Last: s.Last("plan"), Caution: caution}
	ticks := s.Ticks()
	v.cards(s, "", ticks)
	for _, l := range d.Lists {
		line := ListLine{ID: l.ID, Name: l.Name, Line: l.Line, Length: l.Length, Forward: l.Forward()}
		if i := slices.IndexFunc(s.Lines, func(stand *conduct.Stand) bool { return stand.List == l.ID }); i >= 0 {
			line.At = s.Lines[i].Unix(0)
			v.cards(s.Lines[i], l.Name, ticks)
		}
		v.Lists = append(v.Lists, line)
	}
	slices.SortStableFunc(v.Next, func(a, b Card) int { return cmp.Compare(a.From, b.From) })
	slices.SortStableFunc(v.Past, func(a, b Card) int { return cmp.Compare(b.To, a.To) })
	for _, e := range s.Schedule.Events(d) {
		if e.Fixed != "" && e.Start <= s.Now && s.Now < e.End {
			v.Events = append(v.Events, Fixed{e.Name, d.Audience(e.Who), s.Unix(e.End)})
		}
	}
	for _, idle := range together(s.Idle()) {
		v.Idle = append(v.Idle, idleOf(s, idle))
	}
	for _, x := range s.Disputes {
		v.Disputes = append(v.Disputes,
			Dispute{said(base, &x.Other) + "; " + said(base, &x.Held) + ". The later one counts.", x.Held.ID})
	}
	for _, a := range s.Out {
		v.Out = append(v.Out, Absent{a.Player, a.Name, a.Stays})
	}
	v.choices(d)
	return v
}

func (v *View) choices(d *plan.Document) {
	for _, p := range d.Players {
		choice := Choice{p.ID, strings.TrimSpace(d.Numbers([]string{p.ID}) + " " + p.ShortName())}
		if p.Number == 0 {
			choice.Name = p.ShortName()
		}
		v.Players = append(v.Players, choice)
	}
	for _, z := range d.Zones {
		v.Places = append(v.Places, Choice{z.ID, z.Name})
	}
	for _, l := range d.Leaders {
		v.Leaders = append(v.Leaders, Choice{l.ID, l.Name})
	}
}

// pace says how far the session is behind or ahead, and who is waited for.
func pace(s *conduct.Stand, seconds int, block string) string {
	const little = 15
	r := s.Run(block)
	switch {
	case r == nil || seconds < little && seconds > -little:
		return "on time"
	case seconds < 0:
		return clock.Duration(-seconds) + " ahead"
	case r.State == conduct.Over:
		return clock.Duration(seconds) + " behind · " + r.Name + " is waited for"
	}
	return clock.Duration(seconds) + " behind"
}

// cards are the blocks of a run-in or of a list.
func (v *View) cards(s *conduct.Stand, list string, ticks map[conduct.Cell]conduct.Count) {
	for i := range s.Runs {
		card := cardOf(s, &s.Runs[i], list, ticks)
		switch s.Runs[i].State {
		case conduct.Under, conduct.Over:
			v.On = append(v.On, card)
		case conduct.Ahead:
			v.Next = append(v.Next, card)
		case conduct.LeftOut:
			v.Left = append(v.Left, card)
		default:
			v.Past = append(v.Past, card)
		}
	}
}

func cardOf(s *conduct.Stand, r *conduct.Run, list string, ticks map[conduct.Cell]conduct.Count) Card {
	d := s.Document
	c := Card{ID: r.ID, Name: r.Name, Phase: r.Phase.Key(), Letter: r.Phase.Letter(), Who: d.Audience(r.Who),
		Leader: d.LeaderName(r.Leader), Where: d.ZoneName(r.Zone), From: s.Unix(r.Start), To: s.Unix(r.End),
		ToGo: r.Start.ToGo(), Length: clock.Lasting(r.Length()), State: string(r.State), List: list,
		Last: s.Last("block " + r.ID)}
	if len(r.Members) < len(d.Players) {
		if numbers := d.Numbers(r.Members); numbers != "" && !strings.HasPrefix(numbers, "+") {
			if strings.Contains(c.Who, ", ") { // a list of names
				c.Who = ""
			}
			c.Who = strings.TrimSpace(c.Who + " " + numbers)
		}
	}
	if w := s.Run(r.WaitsFor); w != nil {
		c.Waits = w.Name
	}
	if next := following(s, r); next != nil {
		c.Then = next.Name
		if zone := d.ZoneName(next.Zone); zone != "" && next.Zone != r.Zone {
			c.Then += ", " + zone
		}
	}
	c.Own = d.OwnLines(r.Block.Block, r.Members)
	for n := range r.Items {
		c.Drills = append(c.Drills, drillOf(d, r, n, ticks))
	}
	for _, v := range today.Versions(d) {
		if v.Block != r.ID {
			continue
		}
		name, of := d.Player(v.Player).ShortName(), r.Items[v.Item].Drill.Name
		if v.Drill == nil {
			c.Others = append(c.Others, fmt.Sprintf("%s leaves out %s", name, of))
		} else {
			c.Others = append(c.Others, fmt.Sprintf("%s does %s instead of %s", name, v.Drill.Name, of))
		}
	}
	return c
}

// following is what most of a block's players do next.
func following(s *conduct.Stand, r *conduct.Run) (next *conduct.Run) {
	for i := range s.Runs {
		if b := &s.Runs[i]; b.State == conduct.Ahead && b.ID != r.ID && b.Start >= r.Start &&
			slices.ContainsFunc(r.Members, b.Has) && (next == nil || b.Start < next.Start) {
			next = b
		}
	}
	return next
}

func drillOf(d *plan.Document, r *conduct.Run, n int, ticks map[conduct.Cell]conduct.Count) Drill {
	k := r.Items[n].Drill
	drill := Drill{Item: n, Name: k.Name, Dose: k.Words(r.Amount(n)), Say: sentences(d, k.Cues),
		Look: sentences(d, k.Faults), Caution: k.Caution, Columns: k.Columns}
	rows, _, cells := k.Table(r.Amount(n))
	for i, line := range cells {
		row := Row{Name: rows[i]}
		for _, c := range line {
			count := ticks[conduct.Cell{Block: r.ID, Item: n, Cell: c.N}]
			row.Cells = append(row.Cells, Cell{N: c.N, Tries: c.Tries, Count: count.Tries, Again: count.Again})
		}
		drill.Rows = append(drill.Rows, row)
	}
	return drill
}

func sentences(d *plan.Document, list []string) string {
	said := make([]string, len(list))
	for i, one := range list {
		said[i] = strings.TrimSuffix(d.Quote(one), ".") + "."
	}
	return strings.Join(said, " ")
}

// together puts those who wait for the same, and have for about as long, on one line.
func together(all []conduct.Idle) (list []conduct.Idle) {
	const about = 20 // seconds
	for _, idle := range all {
		i := slices.IndexFunc(list, func(o conduct.Idle) bool {
			by := o.Since - idle.Since
			return o.Event == idle.Event && o.Stands == idle.Stands &&
				(o.Next == idle.Next || o.Next != nil && idle.Next != nil && o.Next.ID == idle.Next.ID) &&
				by <= about &&
				by >= -about
		})
		if i < 0 {
			idle.Players = slices.Clone(idle.Players)
			list = append(list, idle)
			continue
		}
		list[i].Players = append(list[i].Players, idle.Players...)
		list[i].Warm = min(list[i].Warm, idle.Warm)
	}
	return list
}

func idleOf(s *conduct.Stand, one conduct.Idle) Idle {
	idle := Idle{Who: s.Document.Audience(one.Players), IDs: one.Players, Stands: one.Stands,
		Warm: fmt.Sprintf("%.1f °C", math.Floor(one.Warm*10)/10)}
	if numbers := s.Document.Numbers(one.Players); len(one.Players) > 1 && numbers != "" &&
		!strings.HasPrefix(numbers, "+") {
		idle.Who = numbers
	}
	if len(one.Players) == len(s.Document.Players) && len(one.Players) > 1 {
		idle.Who = "Everybody"
	}
	if one.Since > -1<<30 {
		idle.Since = s.Unix(one.Since)
	}
	if one.Next != nil {
		idle.Next, idle.At = one.Next.Name, s.Unix(one.Next.Start)
	}
	if one.Event != "" {
		idle.Next, idle.At = one.Event, 0
	}
	return idle
}

var presses = map[conduct.Kind]string{conduct.Begin: "%s started %s", conduct.Done: "%s: %s is done",
	conduct.Skip: "%s skips %s", conduct.Again: "%s has %s done again"}

// said is an event in words: "Ines: Scrum is done".
func said(d *plan.Document, e *conduct.Event) string {
	name := e.Block
	if b := d.Block(e.Block); b != nil {
		name = b.Name
	}
	switch e.Kind {
	case conduct.Change:
		return e.By + ": " + different(d, e.Is)
	case conduct.Line:
		return e.By + " started a list"
	}
	return fmt.Sprintf(presses[e.Kind], e.By, name)
}

// different says what is different without its plan: "start 10 min earlier".
func different(d *plan.Document, is *conduct.Different) string {
	var names []string
	for _, id := range is.Who {
		if p := d.Player(id); p != nil {
			names = append(names, p.ShortName())
		}
	}
	who := strings.Join(names, ", ")
	switch is.Is {
	case conduct.IsStart:
		if is.Seconds < 0 {
			return "the start is " + clock.Lasting(-is.Seconds) + " earlier"
		}
		return "the start is " + clock.Lasting(is.Seconds) + " later"
	case conduct.IsLate:
		return who + " late"
	case conduct.IsOut:
		return who + " out"
	case conduct.IsPlace:
		return d.ZoneName(is.ID) + " is lost"
	case conduct.IsLeader:
		return d.LeaderName(is.ID) + " is not there"
	case conduct.IsMinutes:
		return clock.Lasting(is.Seconds) + " lost"
	case conduct.IsWeather:
		return cmp.Or(is.Weather, "the air") + " changed"
	case conduct.IsTopUp:
		return "kept moving"
	}
	return "fitted again"
}
