package boards

import (
	"context"
	"math"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/ground"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/warmth"
	"cuestart/planner"
)

// Moment is the whole squad at a moment of a plan.
type Moment struct {
	At     clock.Offset
	Groups []Group // by lowest number
	Places []Standing
}

// Group is players who do the same things, and how they are then.
type Group struct {
	schedule.Doing
	Warm float64 // °C over rest, an estimate
	Walk *Walk   // to what they do next; nil: none, or nobody knows how far
}

// Walk is a way from one place to another.
type Walk struct {
	From, To      ground.Place
	Metres        int
	Needs, There  int // seconds that it takes, and that there are
	Players, Next string
}

// Tight tells whether there are fewer seconds than the walk takes.
func (w *Walk) Tight() bool { return w.There < w.Needs }

// Standing is a place, with who stands there.
type Standing struct {
	ground.Place
	Groups []*schedule.Block // what happens there, each once
	People int
	LostIn int // seconds until it is free no more; 0: it is not lost within the next few minutes
}

// soon is within how many seconds a place that is lost is worth a word.
const soon = 5 * 60

// Ground is where the plan's places lie, as the club has laid them out, or as is usual.
func (b *Board) Ground() []ground.Place { return ground.Arrange(b.zones) }

// Coldest is the least warmth of some players at a moment, in °C over rest.
func (b *Board) Coldest(at clock.Offset, players []string) float64 {
	coldest := math.Inf(1)
	for k := range b.Strands {
		if s := &b.Strands[k]; slices.ContainsFunc(s.Players,
			func(p string) bool { return slices.Contains(players, p) }) {
			coldest = min(coldest, s.Estimate(at))
		}
	}
	return coldest
}

// MomentOf is who does what where at a moment of a board.
func (b *Board) MomentOf(at clock.Offset) *Moment {
	d := b.Document
	m := &Moment{At: at}
	for _, p := range b.Ground() {
		m.Places = append(m.Places, Standing{Place: p, LostIn: lostIn(p.Zone, b.Schedule, at)})
	}
	warm := map[string]*warmth.Strand{}
	for k := range b.Strands {
		for _, p := range b.Strands[k].Players {
			warm[p] = &b.Strands[k]
		}
	}
	for _, doing := range b.Schedule.Moment(d, at) {
		g := Group{Doing: doing}
		if s := warm[doing.Players[0]]; s != nil {
			g.Warm = s.Estimate(at)
		}
		if doing.Block != nil {
			m.stand(doing)
		}
		g.Walk = m.walk(doing, at)
		m.Groups = append(m.Groups, g)
	}
	index := map[string]int{}
	for i, p := range d.Players {
		index[p.ID] = p.Number*1000 + i
	}
	slices.SortFunc(m.Groups, func(x, y Group) int { return index[x.Players[0]] - index[y.Players[0]] })
	return m
}

// stand puts players where they are.
func (m *Moment) stand(g schedule.Doing) {
	for i := range m.Places {
		if p := &m.Places[i]; p.ID == g.Block.Zone {
			p.People += len(g.Players)
			if !slices.ContainsFunc(p.Groups, func(b *schedule.Block) bool { return b.ID == g.Block.ID }) {
				p.Groups = append(p.Groups, g.Block)
			}
		}
	}
}

// walk is the way from where players are to where they do what comes next, as far as both
// places were laid on the plan of the ground.
func (m *Moment) walk(g schedule.Doing, at clock.Offset) *Walk {
	if g.Block == nil || g.Next == nil || g.Block.Zone == g.Next.Zone {
		return nil
	}
	from, to := m.place(g.Block.Zone), m.place(g.Next.Zone)
	if from == nil || to == nil || !from.Said || !to.Said {
		return nil
	}
	return &Walk{From: *from, To: *to, Metres: int(ground.Metres(*from, *to)), Needs: ground.Seconds(*from, *to),
		There: int(g.Next.Start - g.Block.End)}
}

func (m *Moment) place(zone string) *ground.Place {
	for i := range m.Places {
		if m.Places[i].ID == zone {
			return &m.Places[i].Place
		}
	}
	return nil
}

// lostIn is in how many seconds a zone that is free now is lost, if that is soon; 0: not.
func lostIn(z plan.Zone, s *schedule.Schedule, at clock.Offset) int {
	for _, free := range z.Free {
		w, err := free.Window(s.Start)
		if err == nil && w.From <= at && at < w.To && w.To-at <= soon && w.To < 0 {
			return int(w.To - at)
		}
	}
	return 0
}

// laid are zones of a plan as the club has laid them on the plans of its grounds since.
func (bd *Boards) laid(ctx context.Context, clubID uint64, zones []plan.Zone) ([]plan.Zone, error) {
	known, err := planner.Entries[club.Zone](ctx, bd.base, clubID)
	if err != nil {
		return nil, err
	}
	zones = slices.Clone(zones)
	for i := range zones {
		for _, k := range known {
			if k.Is.Lies != nil && k.Is.Name == zones[i].Name {
				l := *k.Is.Lies
				zones[i].Lies = &l
			}
		}
	}
	return zones, nil
}

// Lists are the plan's lists, each timed from its own line.
func (b *Board) Lists() []schedule.Line { return schedule.Lists(b.Document) }
