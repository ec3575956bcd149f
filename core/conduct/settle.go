package conduct

import (
	"cmp"
	"slices"

	"cuestart/core/clock"
	"cuestart/core/schedule"
)

// press is what was said of a block last, and when it was first and last spoken of.
type press struct{ begin, done, skip, first, last int64 }

// presses are those of blocks, in Unix seconds.
func presses(events []Event, now int64) map[string]press {
	all := map[string]press{}
	for _, e := range events {
		p, at := all[e.Block], e.At/1000
		if at > now {
			continue
		}
		switch e.Kind {
		case Begin, Again:
			p = press{begin: at, first: p.first}
		case Done:
			p.done, p.skip = at, 0
		case Skip:
			p.done, p.skip = 0, at
		default:
			continue
		}
		p.first, p.last = cmp.Or(p.first, at), at
		all[e.Block] = p
	}
	return all
}

// stand works out each block: by what was said of it, else by the plan, waiting for what its
// players did before.
func (s *Stand) stand(at map[string]placed, events []Event) error {
	now := s.startUnix + int64(s.Now)
	said := presses(events, now)
	f := fold{document: s.Document, at: at, start: s.startUnix}
	stood := f.stood()
	asPlanned, err := schedule.As(s.Document, stood)
	if err != nil {
		return err
	}
	blocks := asPlanned.Blocks(s.Document)
	s.Runs = make([]Run, len(blocks))
	order := make([]int, len(blocks))
	for i, b := range blocks {
		order[i] = i
		s.Runs[i] = Run{Block: b, State: LeftOut, Planned: clock.Window{From: stood[i].Start, To: stood[i].End}}
		if _, pressed := said[b.ID]; pressed || stood[i].Kept {
			s.Runs[i].State = Ahead
			s.Runs[i].Start, s.Runs[i].End = stood[i].Start, stood[i].End
		}
	}
	slices.SortStableFunc(order,
		func(a, b int) int { return cmp.Compare(s.Runs[a].Planned.From, s.Runs[b].Planned.From) })
	s.mark(said)
	for n, i := range order {
		if s.Runs[i].State != LeftOut {
			s.settle(i, order[:n], order[n+1:], said, at)
		}
	}
	for i := range s.Runs {
		r := &s.Runs[i]
		stood[i].Kept, stood[i].Start, stood[i].End = r.State != LeftOut && r.End > r.Start, r.Start, r.End
	}
	if s.Schedule, err = schedule.As(s.Document, stood); err == nil {
		for i, b := range s.Schedule.Blocks(s.Document) {
			b.Start, b.End = s.Runs[i].Start, s.Runs[i].End // also of what took no time
			s.Runs[i].Block = b
		}
	}
	return err
}

// mark finds whose blocks somebody marks, and since when: what was over before then went by
// the plan, and so does what nobody marks.
func (s *Stand) mark(said map[string]press) {
	s.marks = map[string]clock.Offset{}
	for i := range s.Runs {
		if is, pressed := said[s.Runs[i].ID]; pressed {
			at := offset(is.first, s.startUnix)
			if from, known := s.marks[s.Runs[i].Leader]; !known || at < from {
				s.marks[s.Runs[i].Leader] = at
			}
		}
	}
}

// settle works out block i after those before it.
func (s *Stand) settle(i int, before, after []int, said map[string]press, at map[string]placed) {
	r, is, was := &s.Runs[i], said[s.Runs[i].ID], at[s.Runs[i].ID]
	rel := func(unix int64) clock.Offset { return offset(unix, s.startUnix) }
	r.Said, r.Done, r.Wanted = is != press{}, is.done > 0, was.length
	if over := was.state == Finished || was.state == Skipped; over && is.last <= was.since && is.done == 0 &&
		is.skip == 0 {
		r.State = was.state
		return
	}
	length := clock.Offset(r.Planned.Seconds())
	if length == 0 {
		length = clock.Offset(s.wanted(i))
	}
	if was.state == "" {
		s.wait(i, before)
	}
	if is.begin > 0 {
		r.Start, r.WaitsFor = rel(is.begin), ""
	}
	r.End = r.Start + length
	switch {
	case is.done > 0:
		r.State, r.End, r.WaitsFor = Finished, rel(is.done), ""
		if is.begin == 0 {
			r.Start = min(r.Start, r.Planned.From, r.End)
		}
	case is.skip > 0:
		r.State, r.End = Skipped, rel(is.skip)
		r.Start = min(r.Start, r.End)
	case r.Start > s.Now:
		r.State = Ahead
	case s.Now < r.End:
		r.State = Under
	default:
		r.State = Finished
		if from, marked := s.marks[r.Leader]; marked && r.End >= from {
			r.State, r.End = Over, s.Now
		}
	}
	if next, ok := s.overtaken(i, after, said); ok && (r.State == Under || r.State == Over) {
		r.State, r.End = Finished, max(r.Start, min(r.Start+length, next))
	}
}

// wait has block i begin no sooner than what its players do before it is over.
func (s *Stand) wait(i int, before []int) {
	r := &s.Runs[i]
	for _, j := range before {
		b := &s.Runs[j]
		if b.State == LeftOut || b.Planned.To > r.Planned.From || !s.share(j, i) {
			continue
		}
		free := b.End
		if b.State == Over {
			free++
		}
		if free > r.Start {
			r.Start, r.WaitsFor = free, b.ID
		}
	}
}

// overtaken is when a later block with the same players was said to have begun, or to be
// over: then this one is. What goes on without who is called away calls nobody away.
func (s *Stand) overtaken(i int, after []int, said map[string]press) (at clock.Offset, ok bool) {
	for _, j := range after {
		is := said[s.Runs[j].ID]
		unix := cmp.Or(is.begin, is.done)
		if unix == 0 || !s.share(i, j) || s.Runs[j].Excusable && 2*len(s.Runs[i].Members) < len(s.Runs[j].Members) {
			continue
		}
		when := offset(unix, s.startUnix)
		if is.begin == 0 {
			when = min(when, s.Runs[j].Planned.From)
		}
		if !ok || when < at {
			at, ok = when, true
		}
	}
	return at, ok
}

// share tells whether blocks i and j cannot run at once: they have a player in common, and
// where the first goes on without who is called away, half of its players.
func (s *Stand) share(i, j int) bool {
	a, b := &s.Runs[i], &s.Runs[j]
	both := 0
	for _, id := range a.Members {
		if b.Has(id) {
			both++
		}
	}
	if a.Excusable {
		return 2*both >= len(a.Members) && both > 0
	}
	return both > 0
}

// wanted is how long a block lasts that the plan left out.
func (s *Stand) wanted(i int) int {
	b := &s.Runs[i]
	amounts := make([]int, len(b.Items))
	for n := range amounts {
		amounts[n] = b.Amount(n)
	}
	return b.Seconds(amounts, b.Group)
}
