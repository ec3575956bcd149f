package phone

import (
	"encoding/json"

	"cuestart/core/clock"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/planner/books"
	"cuestart/planner/reach"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// wallBody is the screen of a dressing room: what each group does now and next, and
// where.
type wallBody struct {
	mineBody
	Strands string  // for the page's script: what each strand does, all day
	Shown   []looks // how the drills of each block look, where there is room
	Look    string
	Looks   []string
}

// looks are the drills of a block.
type looks struct {
	Key string
	All []chalk.Drawn
}

// looksOf are those of the blocks that are in the plan.
func looksOf(d *plan.Document, book *books.Book) (all []looks) {
	for i := range d.Blocks {
		one := looks{Key: d.Blocks[i].ID}
		for n := range d.Blocks[i].Items {
			k := &d.Blocks[i].Items[n].Drill
			one.All = append(one.All, chalk.Of(book.Looks(k), k))
		}
		all = append(all, one)
	}
	return all
}

// strand is players with the same list, as the wall's script reads it.
type strand struct {
	Numbers []int    `json:"numbers"` // shirts; 0: none
	Names   []string `json:"names"`
	List    []onWall `json:"list"`
}

// onWall is a block or an event, in seconds from the start.
type onWall struct {
	From   int    `json:"from"`
	To     int    `json:"to"`
	Key    string `json:"key"`
	Name   string `json:"name"`
	Where  string `json:"where,omitempty"`
	Phase  string `json:"phase"`
	Letter string `json:"letter"`
}

// Wall is the screen of a dressing room.
func (in Room) Wall(r *shell.Request) (shell.Answer, error) {
	found, err := in.shared(r)
	if err != nil {
		return nil, err
	}
	tongue, d, start := r.Tongue(), found.Document, found.Schedule.Start
	address := shell.Link(found.Token) + "/wall"
	b := &wallBody{Look: r.Look(), Looks: shell.Looks(), mineBody: mineBody{Tongue: tongue, Base: address,
		Link: shell.Link(found.Token), Title: d.Title, StartName: d.StartName, Start: clock.Clock(start, 0),
		Day:  tongue.Day(start),
		Zone: d.Start.Zone, Edition: found.Number, Published: tongue.Moment(found.At.In(start.Location())),
		StartUnix: start.Unix(), NowMilli: r.Now().UnixMilli()}}
	b.count(int(r.Now().Sub(start).Seconds()))
	book, err := in.Reach.Shown(r.Context(), found.ClubID)
	if err != nil {
		return nil, err
	}
	b.Shown = looksOf(d, book)
	strands, err := json.Marshal(strandsOf(found))
	b.Strands = string(strands)
	return &shell.Page{Screens: screens, Name: "wall", Title: d.Title, Body: b, Phone: true, Tongue: tongue}, err
}

func strandsOf(found *reach.Shared) (all []strand) {
	d := found.Document
	of := list.Each(d, found.Schedule)
	for _, players := range found.Schedule.Result.Strands {
		one := strand{}
		for _, id := range players {
			p := d.Player(id)
			one.Numbers, one.Names = append(one.Numbers, p.Number), append(one.Names, p.First)
		}
		for _, e := range of(players[0]) {
			wall := onWall{From: int(e.From), To: int(e.To), Key: e.Key, Name: e.Name, Phase: "fixed"}
			if e.Block != nil {
				wall.Where, wall.Phase, wall.Letter = d.ZoneName(e.Block.Zone), e.Block.Phase.Key(),
					e.Block.Phase.Letter()
			}
			one.List = append(one.List, wall)
		}
		all = append(all, one)
	}
	return all
}
