package today

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/plan"
)

// Scale turns the drills of a block step by step, always the one that so far
// changed least in proportion, while that brings the block's work nearer to what
// the factor asks for. What is exact, and what teaches where less is asked for,
// stays as it is.
//
// Stations change on one whistle: they are turned together, and only where each of them is
// so many seconds.
func Scale(b *plan.Block, times float64, group drill.Group) {
	scale(b, times, group, func(*plan.Item) bool { return true })
}

// scale is Scale of those drills of which may tells that they may be turned.
func scale(b *plan.Block, times float64, group drill.Group, may func(*plan.Item) bool) {
	if times == 1 || !slices.ContainsFunc(b.Items, func(i plan.Item) bool { return may(&i) }) {
		return
	}
	if b.Form == plan.AtStations {
		scaleStations(b, times)
		return
	}
	s := scalingOf(b, times < 1)
	wanted := 0.0
	for n := range b.Items {
		known := &b.Items[n].Drill
		seconds := b.Work(n, s.planned[n], group)
		if known.Dose.Exact || b.Alongside(n) || !may(&b.Items[n]) || times < 1 && known.Teaches() {
			wanted += seconds
			continue
		}
		wanted += times * seconds
		s.turned = append(s.turned, n)
	}
	s.turn(b, group, wanted)
}

// scalingOf is a block before any of its drills is turned.
func scalingOf(b *plan.Block, less bool) *scaling {
	s := &scaling{items: b.Items, planned: make([]int, len(b.Items)), step: 1}
	if less {
		s.step = -1
	}
	for n := range b.Items {
		s.planned[n] = b.Items[n].Drill.Range.Target
	}
	return s
}

// turn steps the drills that may be turned while that brings the block's work nearer to so
// many seconds.
func (s *scaling) turn(b *plan.Block, group drill.Group, wanted float64) {
	is := 0.0
	for n := range b.Items {
		is += b.Work(n, b.Items[n].Drill.Range.Target, group)
	}
	for {
		n := s.next()
		if n < 0 {
			return
		}
		r := &b.Items[n].Drill.Range
		to := r.Target + s.step*r.Step
		after := is + b.Work(n, to, group) - b.Work(n, r.Target, group)
		if math.Abs(after-wanted) >= math.Abs(is-wanted)-hair {
			return
		}
		r.Target, is = to, after
	}
}

// scaleStations turns the seconds at all stations, by the longest step of any.
func scaleStations(b *plan.Block, times float64) {
	step, room := 1, drill.MaxAmount
	for i := range b.Items {
		k := &b.Items[i].Drill
		if k.Dose.Kind != drill.Time || k.Dose.Exact || k.Range.Target != b.Items[0].Drill.Range.Target {
			return
		}
		step = max(step, k.Range.Step)
		if times > 1 {
			room = min(room, k.Range.Max-k.Range.Target)
		} else {
			room = min(room, k.Range.Target-k.Range.Min)
		}
	}
	if len(b.Items) == 0 {
		return
	}
	wanted := math.Abs(times-1) * float64(b.Items[0].Drill.Range.Target)
	by := min(int(wanted/float64(step)+0.5)*step, room/step*step)
	if times < 1 {
		by = -by
	}
	for i := range b.Items {
		b.Items[i].Drill.Range.Target += by
	}
}

// hair is what sums of seconds may differ by without being different.
const hair = 1e-9

// scaling is a block whose drills are turned up (step 1) or down (-1).
type scaling struct {
	items   []plan.Item
	planned []int
	turned  []int // indices of what may be turned
	step    int
}

// next is the drill that so far changed least in proportion, of those that can
// still be turned; -1: none.
func (s *scaling) next() int {
	next, least := -1, 0.0
	for _, n := range s.turned {
		r := s.items[n].Drill.Range
		if to := r.Target + s.step*r.Step; to < r.Min || to > r.Max {
			continue
		}
		if share := math.Abs(float64(r.Target-s.planned[n])) / float64(s.planned[n]); next < 0 || share < least-hair {
			next, least = n, share
		}
	}
	return next
}

// Stretch is the edit that turns the doses of a block, in whole steps, until its work is as
// near as they come to so many seconds more, or less where that is negative. What is exact
// stays. Where nothing can be turned that way it is refused with the range.
func Stretch(d *plan.Document, block string, by int) (string, error) {
	b := d.Block(block)
	if b == nil {
		return "", plan.ErrNoSuchBlock
	}
	if by == 0 {
		return b.Name + " stays as it is", nil
	}
	group := d.Group(b)
	s := scalingOf(b, by < 0)
	work := 0.0
	for n := range b.Items {
		work += b.Work(n, s.planned[n], group)
		if !b.Items[n].Drill.Dose.Exact && !b.Alongside(n) {
			s.turned = append(s.turned, n)
		}
	}
	if s.next() < 0 {
		return "", plan.In(plan.AtBlock(block, "items"), "%s", s.end(b))
	}
	if b.Form == plan.AtStations && work > 0 {
		scaleStations(b, (work+float64(by)/float64(max(1, b.Rounds)))/work)
	} else {
		s.turn(b, group, work+float64(by)/float64(max(1, b.Rounds)))
	}
	var said []string
	for n := range b.Items {
		if known := &b.Items[n].Drill; known.Range.Target != s.planned[n] {
			said = append(said, known.Name+" "+known.Words(known.Range.Target))
		}
	}
	if said == nil {
		return b.Name + " stays as it is", nil
	}
	return strings.Join(said, ", "), nil
}

// end says why a block's doses go no further.
func (s *scaling) end(b *plan.Block) string {
	if len(s.turned) == 0 {
		return b.Name + " is never shortened: its doses stay"
	}
	known := &b.Items[s.turned[0]].Drill
	end := known.Range.Max
	if s.step < 0 {
		end = known.Range.Min
	}
	if len(s.turned) > 1 {
		return fmt.Sprintf("the doses of %s go no further", b.Name)
	}
	return fmt.Sprintf("%s goes no further than %s", known.Name, known.Words(end))
}
