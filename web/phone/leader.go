package phone

import (
	"encoding/json"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/today"
	"cuestart/planner/reach"
	"cuestart/web/shell"
)

// leaderBody is a leader's page: where they stand when, with what, and who is theirs.
type leaderBody struct {
	mineBody
	Simple bool // for assistants and players who lead: what to do and to say, nothing to judge
	Led    []led
	Ticks  string // of the grids, for the page's script
}

// led is a block that a leader leads, or an event of the whole squad.
type led struct {
	item
	Who, Numbers string
	People       []theirs
	Told         []told
	Versions     []string // who does it otherwise, without the reason
	Next         string   // where they stand next
}

// theirs is a player of a block, and when they are there if that is late.
type theirs struct{ ID, Name, Late string }

// told is a drill as a leader tells it.
type told struct {
	move
	Item      int
	Say, Look string
	Here      string   // who begins at this station, or chose this
	Rows      []string // of a grid; [""] where it has columns alone
	Columns   []string
	Cells     [][]cell
}

// cell is one of a grid, by its place in it; Tries 0: not wanted.
type cell struct{ N, Tries int }

// leader is a leader's page.
func (in Room) leader(r *shell.Request, found *reach.Shared) (shell.Answer, error) {
	tongue, w := r.Tongue(), way(r)
	who, d, start := found.Leader(), found.Document, found.Schedule.Start
	b := &leaderBody{mineBody: mineBody{Tongue: tongue, Base: base(w), Link: shell.Link(w.Token), Own: true,
		Title: d.Title, Name: who.Name, StartName: d.StartName,
		Start: clock.Clock(start, 0), Day: tongue.ShortDay(start), Zone: d.Start.Zone, Edition: found.Number,
		Published: tongue.Moment(found.At.In(start.Location())),
		StartUnix: start.Unix(), NowMilli: r.Now().UnixMilli()}}
	switch r.Query("show") {
	case "simple":
		b.Simple = true
	case "":
		b.Simple = strings.Contains(strings.ToLower(who.Role), "assistant") ||
			strings.Contains(strings.ToLower(who.Role), "player")
	}
	away, err := in.Reach.Away(r.Context(), found)
	if err != nil {
		return nil, err
	}
	entries := list.Led(d, found.Schedule, who.ID)
	maps := wheres(tongue, d, entries)
	for i := range entries {
		one, err := in.itemOf(r, tongue, d, &entries[i], found.ClubID)
		if err != nil {
			return nil, err
		}
		one.Map = maps[i]
		b.Items = append(b.Items, one)
	}
	b.mark(int(r.Now().Sub(start).Seconds()), found.Schedule)
	for i := range entries {
		b.Led = append(b.Led, ledOf(d, &entries[i], b.Items[i], away))
		if entries[i].Block != nil && entries[i].Block.Frame() {
			if b.Led[i].Yours, err = in.ownLines(r, tongue, found, entries[i].With); err != nil {
				return nil, err
			}
		}
	}
	b.nextPlaces()
	if b.Ticks, err = in.ticksOf(r, found); err != nil {
		return nil, err
	}
	return &shell.Page{Screens: screens, Name: "leader", Title: b.Name + ", " + b.Title, Body: b, Phone: true,
		Tongue: tongue}, nil
}

// ownLines are what each of players always does in own time, and what they say is tight.
func (in Room) ownLines(r *shell.Request, tongue shell.Tongue, found *reach.Shared,
	players []string) (lines []string, err error) {
	tight, err := in.Reach.Tight(r.Context(), found)
	for _, id := range players {
		p := found.Document.Player(id)
		if own := append(slices.Clone(p.Own), tightWords(tongue, tight[id])...); len(own) > 0 {
			lines = append(lines, p.ShortName()+": "+strings.Join(own, "; "))
		}
	}
	return lines, err
}

// ledOf is a block as its leader has it.
func ledOf(d *plan.Document, e *list.Entry, one item, away map[string]string) led {
	l := led{item: one}
	if e.Block == nil {
		return l
	}
	l.Who = d.Audience(e.Block.Who)
	if len(e.With) < len(d.Players) {
		l.Numbers = d.Numbers(e.With)
	}
	for _, id := range e.With {
		p := d.Player(id)
		is := theirs{ID: id, Name: p.ShortName()}
		if at, late := away[id]; late {
			is.Late = at
			if at == "" {
				is.Late = "?"
			}
		} else if p.Late > 0 {
			is.Late = clock.Lasting(p.Late)
		}
		l.People = append(l.People, is)
	}
	here := e.Block.Here(one.T, d)
	for n, doing := range e.Drills {
		it := toldOf(doing, l.Drills[n])
		if n < len(here) {
			it.Here = here[n]
		}
		l.Told = append(l.Told, it)
	}
	for _, v := range today.Versions(d) {
		if v.Block != e.Key {
			continue
		}
		name, of := d.Player(v.Player).ShortName(), e.Block.Items[v.Item].Drill.Name
		if v.Drill == nil {
			l.Versions = append(l.Versions, one.T("%s leaves out %s", name, of))
		} else {
			l.Versions = append(l.Versions, one.T("%s does %s instead of %s", name, one.Told(v.Drill.Name),
				one.Told(of)))
		}
	}
	return l
}

// toldOf is a drill as a leader tells it, with its grid to tick.
func toldOf(doing list.Doing, is move) told {
	k := &doing.Drill
	t := told{move: is, Item: doing.Item, Say: strings.Join(k.Cues, ". "), Look: strings.Join(k.Faults, ". ")}
	rows, columns, cells := k.Table(doing.Amount)
	t.Rows, t.Columns = rows, columns
	for _, row := range cells {
		line := make([]cell, len(row))
		for j, c := range row {
			line[j] = cell{c.N, c.Tries}
		}
		t.Cells = append(t.Cells, line)
	}
	return t
}

// nextPlaces say of each block where its leader stands next.
func (b *leaderBody) nextPlaces() {
	for i := range b.Led {
		for _, next := range b.Led[i+1:] {
			if next.Where != "" && next.Where != b.Led[i].Where {
				b.Led[i].Next = b.T("Next place: %s, at %s", next.Where, next.ToGo)
			}
			break
		}
	}
}

// ticked are the ticks of a grid, as they were sent last.
type ticked struct {
	Block string `json:"block"`
	Item  int    `json:"item"`
	Ticks string `json:"ticks"`
}

// ticksOf are the ticks of a leader's grids, for the page's script.
func (in Room) ticksOf(r *shell.Request, found *reach.Shared) (string, error) {
	words, err := in.Reach.Ticks(r.Context(), found)
	if err != nil {
		return "", err
	}
	all := []ticked{}
	for _, w := range words {
		all = append(all, ticked{w.Block, w.Item, w.Says})
	}
	text, err := json.Marshal(all)
	return string(text), err
}
