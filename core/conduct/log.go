package conduct

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/today"
)

// Log is what was really done of a session.
type Log struct {
	Blocks  []Logged
	Players []Attended
	Differs []string // what was otherwise than planned, sentences
}

// Logged is a block as it was done.
type Logged struct {
	Block, Name string
	Phase       drill.Phase
	Leader      string  // name
	Planned     int     // seconds; 0: it was left out of the plan
	Actual      int     // seconds; 0: it was not done
	Measured    bool    // somebody said when it was over
	Pace        float64 // what the plan had multiplied its doses' seconds by; 1: by nothing
	Who         []string
	Note        string
	Drills      []LoggedDrill
}

// LoggedDrill is a drill as it was done.
type LoggedDrill struct {
	Item       int
	Code, Name string
	Amount     int
	Seconds    int      // at work
	Without    []string // persons of the block who left it out
	Ticks      string   // what was ticked of its grid, in words: "left 2 of 2, right 1 of 2, again"
}

// How a player was there.
const (
	There = "there"
	Late  = "late"
	Out   = "out"  // they left it, or were hurt
	Away  = "away" // they did not come
)

// Attended is a player on the day.
type Attended struct {
	Person string // id in the plan
	Roster uint64
	Name   string
	Was    string
	Effort int // 0 to 10; -1: not said
	Note   string
}

// AsPlanned is the log of a session that went as its plan says.
func AsPlanned(base Plan) (*Log, error) {
	start, err := base.Document.Start.Resolve()
	if err != nil {
		return nil, err
	}
	const after = 12 * 3600
	s, err := Of(base, nil, (start.Unix()+after)*1000)
	if err != nil {
		return nil, err
	}
	return s.Log(base), nil
}

// Log is what the events say was done, and the plan where they say nothing. Base is the plan
// when it began.
func (s *Stand) Log(base Plan) *Log {
	l := &Log{Differs: slices.Clone(s.Said)}
	gone := map[string]int64{}
	for _, a := range s.Out {
		gone[a.Player] = a.At
	}
	for _, stand := range append([]*Stand{s}, s.Lines...) {
		for i := range stand.Runs {
			l.Blocks = append(l.Blocks, stand.logged(&stand.Runs[i], base.Document, gone))
		}
	}
	for _, p := range base.Document.Players {
		attended := Attended{Person: p.ID, Roster: p.Roster, Name: p.ShortName(), Was: There, Effort: -1}
		if at, out := gone[p.ID]; out {
			attended.Was = Out
			if !slices.ContainsFunc(s.Runs, func(r Run) bool { return r.State == Finished && s.Unix(r.Start) < at }) {
				attended.Was = Away
			}
		} else if now := s.Document.Player(p.ID); now != nil && now.Late > 0 {
			attended.Was = Late
		}
		l.Players = append(l.Players, attended)
	}
	l.notes(s, base.Document)
	return l
}

// logged is a block as it was done. Who was out by then did not do it.
func (s *Stand) logged(r *Run, d *plan.Document, gone map[string]int64) Logged {
	b := Logged{Block: r.ID, Name: r.Name, Phase: r.Phase, Leader: s.Document.LeaderName(r.Leader), Planned: r.Wanted,
		Measured: r.Done, Pace: cmp.Or(r.Pace, 1)}
	known := d.Block(r.ID)
	who := r.Who
	if known != nil {
		who = known.Who
	}
	switch r.State {
	case Skipped, LeftOut:
	case Over: // nobody said when it was over: it is taken to have gone as planned
		b.Actual = r.Planned.Seconds()
	default:
		b.Actual = max(0, int(r.End-r.Start))
	}
	open, _ := s.Document.Open.Offset(s.Schedule.Start) // it was read before
	for _, id := range d.Members(who) {
		p := s.Document.Player(id)
		at, out := gone[id]
		late := p != nil && p.Late > 0 && open+clock.Offset(p.Late) >= r.End
		if b.Actual > 0 && !(out && at <= s.Unix(r.Start)) && !late {
			b.Who = append(b.Who, id)
		}
	}
	amounts := make([]int, len(r.Items))
	for n := range amounts {
		amounts[n] = r.Amount(n)
	}
	seconds, all := make([]float64, len(r.Items)), 0.0
	for _, part := range r.Parts(amounts, r.Group, nil) {
		if all += part.Seconds; part.Work {
			seconds[part.Item] += part.Seconds
		}
	}
	versions, ticks := today.Versions(d), s.Ticks()
	for n, item := range r.Items {
		drill := LoggedDrill{Item: n, Code: item.Drill.Code, Name: item.Drill.Name, Amount: amounts[n]}
		if b.Actual > 0 && all > 0 {
			drill.Seconds = int(math.Round(seconds[n] * float64(b.Actual) / all))
		}
		drill.Ticks = ticked(&item.Drill, amounts[n], ticks, r.ID, n)
		for _, v := range versions {
			if v.Block == r.ID && v.Item == n {
				drill.Without = append(drill.Without, v.Player)
			}
		}
		b.Drills = append(b.Drills, drill)
	}
	return b
}

// Lasted says how long the block really was, in seconds; its drills' seconds follow.
func (b *Logged) Lasted(seconds int) {
	was := b.Actual
	if b.Actual = seconds; seconds == was {
		return
	}
	b.Measured = seconds > 0
	for i := range b.Drills {
		if d := &b.Drills[i]; was > 0 {
			d.Seconds = d.Seconds * seconds / was
		} else {
			d.Seconds = seconds / len(b.Drills)
		}
	}
}

// Attend takes who was not there out of what was done; a block that was done after all is
// done by those for whom the plan has it.
func (l *Log) Attend(d *plan.Document) {
	away := func(id string) bool {
		return slices.ContainsFunc(l.Players, func(a Attended) bool { return a.Person == id && a.Was == Away })
	}
	for n := range l.Blocks {
		b := &l.Blocks[n]
		b.Who = slices.DeleteFunc(b.Who, away)
		if known := d.Block(b.Block); b.Actual > 0 && len(b.Who) == 0 && known != nil {
			b.Who = slices.DeleteFunc(d.Members(known.Who), away)
		}
	}
}

// mostTicked is how many characters of what was ticked are said.
const mostTicked = 400

// ticked says what was ticked of a drill's grid, cell by cell; "" where nothing was.
func ticked(k *drill.Drill, amount int, ticks map[Cell]Count, block string, item int) string {
	var said []string
	for _, cell := range k.Grid(amount) {
		count := ticks[Cell{block, item, cell.N}]
		if count == (Count{}) {
			continue
		}
		words := fmt.Sprintf("%s %d of %d", cell.Name(), count.Tries, cell.Tries)
		if count.Again {
			words += ", to come back to"
		}
		said = append(said, words)
	}
	all := []rune(strings.Join(said, "; "))
	return string(all[:min(len(all), mostTicked)])
}

// notes puts what was noted to its block or player.
func (l *Log) notes(s *Stand, d *plan.Document) {
	for _, e := range Standing(s.Events) {
		if e.Kind != Note || strings.TrimSpace(e.Says) == "" {
			continue
		}
		if i := slices.IndexFunc(l.Players, func(a Attended) bool { return a.Person == e.Player }); e.Player != "" &&
			i >= 0 {
			l.Players[i].Note = joined(l.Players[i].Note, e.Says)
		} else if i := slices.IndexFunc(l.Blocks, func(b Logged) bool { return b.Block == e.Block }); i >= 0 {
			l.Blocks[i].Note = joined(l.Blocks[i].Note, e.Says)
		}
	}
}

func joined(a, b string) string {
	if a == "" {
		return b
	}
	both := []rune(a + "; " + b)
	return string(both[:min(len(both), MaxSays)])
}

// Content is what tells one run of a list from another: its blocks with their drills.
type Content struct {
	Block  string        `json:"block"` // name
	Drills []ContentItem `json:"drills"`
}

// ContentItem is a drill with its amount.
type ContentItem struct {
	Name   string `json:"name"`
	Amount int    `json:"amount"`
}

// Content is what was done of the log.
func (l *Log) Content() (list []Content) {
	for _, b := range l.Blocks {
		if b.Actual == 0 {
			continue
		}
		c := Content{Block: b.Name}
		for _, d := range b.Drills {
			c.Drills = append(c.Drills, ContentItem{d.Name, d.Amount})
		}
		list = append(list, c)
	}
	return list
}

// Changed says what one run had otherwise than an earlier one, a sentence a thing: whole
// blocks, drills, amounts.
func Changed(was, is []Content) (says []string) {
	find := func(list []Content, name string) *Content {
		if i := slices.IndexFunc(list, func(c Content) bool { return c.Block == name }); i >= 0 {
			return &list[i]
		}
		return nil
	}
	for _, b := range was {
		if find(is, b.Block) == nil {
			says = append(says, "without "+b.Block)
		}
	}
	for _, b := range is {
		old := find(was, b.Block)
		if old == nil {
			says = append(says, "with "+b.Block)
			continue
		}
		for _, d := range old.Drills {
			if !slices.ContainsFunc(b.Drills, func(x ContentItem) bool { return x.Name == d.Name }) {
				says = append(says, fmt.Sprintf("%s without %s", b.Block, d.Name))
			}
		}
		for _, d := range b.Drills {
			i := slices.IndexFunc(old.Drills, func(x ContentItem) bool { return x.Name == d.Name })
			switch {
			case i < 0:
				says = append(says, fmt.Sprintf("%s with %s", b.Block, d.Name))
			case old.Drills[i].Amount != d.Amount:
				says = append(says, fmt.Sprintf("%s: %d, not %d", d.Name, d.Amount, old.Drills[i].Amount))
			}
		}
	}
	return says
}
