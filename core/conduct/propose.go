package conduct

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/today"
	"cuestart/core/warmth"
)

// Proposal is what becomes of the plan if something is different. Nothing is changed until
// it is taken, as an event that holds Is and Placed.
type Proposal struct {
	Is     Different
	Said   string // what is different
	Placed []Place
	Left   int      // seconds from now until everybody is due
	Goes   []string // names of blocks that are not done any more
	Comes  []string // that are done after all
	Less   []string // what is shorter, with its doses: "Scrum 4 sets, not 6"
	Moves  []string // what comes at another minute: "Team run 6′30″, not 8′"
	Cold   []string // who is under the line at the start, with the estimate
	TopUps []TopUp  // what would keep them warm
	Mind   []string // what to mind in the weather that it is by then, by block
	Fits   bool     // all musts are in
	Why    string   // what stands in the way, where they are not
}

// TopUp is a short block that keeps people moving who would be cold at the start.
type TopUp struct {
	Who     []string // ids
	Name    string
	Seconds int
	Effort  float64      // 0 to 1
	At      clock.Offset // when it begins
}

// Propose fits what is left of a plan again, for something that is different. It fails with
// [plan.Problems] where that cannot be.
func (s *Stand) Propose(ctx context.Context, different Different, steps int) (*Proposal, error) {
	d := s.Document.Clone()
	stood := s.Stood()
	said, err := different.apply(d, stood, s.Now)
	if err != nil {
		return nil, err
	}
	start, err := d.Start.Resolve()
	if err != nil {
		return nil, err
	}
	moved := clock.Offset(start.Unix() - s.startUnix)
	for i := range stood {
		stood[i].Start, stood[i].End = stood[i].Start-moved, stood[i].End-moved
	}
	now := s.Now - moved
	after, err := s.next(ctx, d, different, stood, now, steps)
	if err != nil {
		return nil, err
	}
	p := &Proposal{Is: different, Said: said, Left: left(d, &different, now), Fits: after.Result.Feasible,
		Why: sentence(after.Result.Why)}
	for _, b := range after.Blocks(d) {
		place := Place{Block: b.ID, From: start.Unix() + int64(b.Start), To: start.Unix() + int64(b.End), Kept: b.Kept,
			Why: b.Cut, Less: b.Less}
		if r := s.Run(b.ID); r != nil && r.State != Ahead && r.State != LeftOut {
			place.State, place.From = r.State, s.Unix(r.Start)
			if place.Kept = true; r.State != Over {
				place.To = s.Unix(r.End)
			}
		}
		for n := range b.Items {
			place.Amounts = append(place.Amounts, b.Amount(n))
		}
		p.Placed = append(p.Placed, place)
	}
	p.compare(s, d, after, moved)
	p.cold(d, after, now)
	p.mind(d, after, now)
	return p, nil
}

// left is how many seconds of work are left: until who is due last, less what is lost.
func left(d *plan.Document, different *Different, now clock.Offset) int {
	latest := 0
	for i, p := range d.Players {
		if i == 0 || p.DueShift > latest {
			latest = p.DueShift
		}
	}
	seconds := int(-now) + latest - d.Margin - d.Slack
	if different.Is == IsMinutes {
		seconds -= different.Seconds
	}
	return max(0, seconds)
}

// sentence begins as one does.
func sentence(text string) string {
	first, size := utf8.DecodeRuneInString(text)
	if size == 0 {
		return ""
	}
	return string(unicode.ToUpper(first)) + text[size:]
}

// next is the plan as it would be: what is only moving about or held to its times is not
// fitted again.
func (s *Stand) next(ctx context.Context, d *plan.Document, different Different, stood []schedule.Stood,
	now clock.Offset,
	steps int) (*schedule.Schedule, error) {
	switch {
	case different.Is == IsTopUp:
		b := &d.Blocks[len(d.Blocks)-1]
		amounts := []int{b.Items[0].Drill.Range.Target}
		at := clock.Offset(clock.CeilTo(float64(now), clock.Grid))
		stood = append(stood, schedule.Stood{Block: b.ID, Kept: true, Start: at,
			End: at + clock.Offset(b.Items[0].Drill.Range.Target), Amounts: amounts})
		return schedule.As(d, stood)
	case different.Is == IsStart && different.Seconds > 0 && !different.Hold:
		return schedule.As(d, stood)
	}
	return schedule.Refit(ctx, d, stood, now, steps)
}

// Stood are the blocks as they stand: what is over its time is given half a minute more.
func (s *Stand) Stood() (list []schedule.Stood) {
	const more = 30
	for i := range s.Runs {
		r := &s.Runs[i]
		stood := schedule.Stood{Block: r.ID, Start: r.Start, End: r.End, Why: r.Cut, Less: r.Less}
		for n := range r.Items {
			stood.Amounts = append(stood.Amounts, r.Amount(n))
		}
		switch r.State {
		case Finished, Under, Over:
			stood.Kept, stood.Begun = true, true
			if r.State == Over {
				stood.End = s.Now + more
			}
		case Skipped:
			stood.Kept, stood.Skip, stood.Begun = r.End > r.Start, true, r.End > r.Start
		case Ahead:
			stood.Kept = true
		}
		list = append(list, stood)
	}
	return list
}

// compare says what is otherwise than it stands.
func (p *Proposal) compare(s *Stand, d *plan.Document, after *schedule.Schedule, moved clock.Offset) {
	now := after.Blocks(d)
	for i := range s.Runs {
		r := &s.Runs[i]
		n := slices.IndexFunc(now, func(b schedule.Block) bool { return b.ID == r.ID })
		if r.State != Ahead && r.State != LeftOut {
			continue
		}
		switch {
		case n < 0 || !now[n].Kept:
			if r.State == Ahead {
				p.Goes = append(p.Goes, r.Name)
			}
		case r.State == LeftOut:
			p.Comes = append(p.Comes, fmt.Sprintf("%s %s, at %s", r.Name, clock.Lasting(now[n].Length()),
				now[n].Start.ToGo()))
		default:
			p.differ(r, &now[n], moved)
		}
	}
}

func (p *Proposal) differ(r *Run, now *schedule.Block, moved clock.Offset) {
	var doses []string
	for n := range r.Items {
		if was, is := r.Amount(n), now.Amount(n); was != is {
			k := &r.Items[n].Drill
			words := fmt.Sprintf("%s, not %s", k.Words(is), k.Figure(was))
			if len(r.Items) > 1 {
				words = k.Name + " " + words
			}
			doses = append(doses, words)
		}
	}
	if doses != nil {
		p.Less = append(p.Less, r.Name+": "+strings.Join(doses, "; "))
	}
	if by := now.Start + moved - r.Start; by >= 30 || by <= -30 {
		p.Moves = append(p.Moves, fmt.Sprintf("%s at %s", r.Name, now.Start.ToGo()))
	}
}

// mind says what is still to come that wet ground makes a risk of: jumps, hops and cuts, and
// work on the ground.
func (p *Proposal) mind(d *plan.Document, s *schedule.Schedule, now clock.Offset) {
	if p.Is.Weather != Rain {
		return
	}
	for _, b := range s.Blocks(d) {
		if !b.Kept || b.Start < now || d.Indoors(b.Block) {
			continue
		}
		for _, item := range b.Items {
			if k := &item.Drill; k.ContactsPerUnit > 0 || k.Ground || slices.Contains(k.Qualities, "landing") ||
				slices.Contains(k.Qualities, "change") {
				p.Mind = append(p.Mind, b.Name+": "+k.Name)
			}
		}
	}
}

// Top-ups are looked for in these steps, of seconds, and at these efforts: easy running,
// strides, strides and jumps.
const (
	leastTopUp = 60
	stepTopUp  = 30
	mostTopUp  = 360
)

var topUpEfforts = []float64{0.6, 0.75, 0.85}

// cold finds who would be under the line at the start, the coldest first, and the least that
// keeps them above it, right before everybody is due.
func (p *Proposal) cold(d *plan.Document, s *schedule.Schedule, now clock.Offset) {
	type chilled struct {
		players []string
		at      float64
	}
	var groups []chilled
	on, people := today.Apply(d), 0
	air := warmth.AirOf(on)
	for _, strand := range warmth.Strands(on, s) {
		at := strand.Estimate(0)
		if at >= warmth.Warm || len(strand.Players) == 0 {
			continue
		}
		groups, people = append(groups, chilled{strand.Players, at}), people+len(strand.Players)
		last := now
		for i := range strand.Stretches {
			if x := &strand.Stretches[i]; x.Block != nil {
				last = max(last, clock.Offset(math.Ceil(x.To)))
			}
		}
		if t, ok := topUp(&strand, air, last, clock.Offset(-d.Margin)); ok {
			p.add(d, t, strand.Players)
		}
	}
	slices.SortStableFunc(groups, func(a, b chilled) int { return cmp.Compare(a.at, b.at) })
	floor := func(at float64) string { return d.Measure.Warmer(math.Floor(at*10) / 10) }
	if len(groups) > 1 && people == len(d.Players) {
		p.Cold = []string{fmt.Sprintf("everybody, %s to %s", floor(groups[0].at), floor(groups[len(groups)-1].at))}
		return
	}
	for _, g := range groups {
		p.Cold = append(p.Cold, called(d, g.players)+" "+floor(g.at))
	}
}

// add puts a top-up to those that are the same.
func (p *Proposal) add(d *plan.Document, t TopUp, players []string) {
	for i := range p.TopUps {
		if same := &p.TopUps[i]; same.Seconds == t.Seconds && same.Effort == t.Effort && same.At == t.At {
			same.Who = append(slices.Clone(same.Who), players...)
			same.Name = called(d, same.Who)
			return
		}
	}
	t.Who, t.Name = players, called(d, players)
	p.TopUps = append(p.TopUps, t)
}

// called is what players are called at the pitch side: by number where they have one.
func called(d *plan.Document, players []string) string {
	if len(players) == len(d.Players) && len(players) > 1 {
		return "everybody"
	}
	if numbers := d.Numbers(players); len(players) > 1 && !strings.Contains(numbers, "+") {
		return numbers
	}
	return d.Audience(players)
}

// topUp is the least work that ends when everybody is due and keeps a strand warm to the
// start, begun no earlier than from.
func topUp(s *warmth.Strand, air warmth.Air, from, due clock.Offset) (best TopUp, ok bool) {
	for _, effort := range topUpEfforts {
		for seconds := leastTopUp; seconds <= mostTopUp; seconds += stepTopUp {
			at := due - clock.Offset(seconds)
			if at < from || ok && effort*float64(seconds) >= best.Effort*float64(best.Seconds) {
				break
			}
			pieces := []warmth.Piece{{Effort: effort, Seconds: float64(seconds)}, {Seconds: float64(-due)}}
			if warmth.Onward(s.Estimate(at), pieces, air) >= warmth.Warm {
				best, ok = TopUp{Seconds: seconds, Effort: effort, At: at}, true
			}
		}
	}
	return best, ok
}
