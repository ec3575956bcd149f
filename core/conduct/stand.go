package conduct

import (
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// Plan is a plan as it was when its session began to run.
type Plan struct {
	Document *plan.Document     `json:"document"`
	Schedule *schedule.Schedule `json:"schedule"`
}

// State is how far a block is.
type State string

// The states of a block.
const (
	Ahead    State = "ahead"
	Under    State = "under"    // under way
	Over     State = "over"     // under way, and longer than it was planned
	Finished State = "finished" // said so, or taken to be
	Skipped  State = "skipped"
	LeftOut  State = "out"
)

// Run is a block as it stands. Times are from the document's start.
type Run struct {
	schedule.Block
	State    State
	Planned  clock.Window // where the plan in force has it
	Wanted   int          // seconds that it was planned to last, before anything was waited for
	Done     bool         // somebody pressed when it was over
	Said     bool         // somebody pressed, else it is taken to go by the plan
	WaitsFor string       // id of the block that it waits for; "": none
}

// Stand is how a session stands at a moment.
type Stand struct {
	Document  *plan.Document
	Schedule  *schedule.Schedule // with each block where it stands
	Now       clock.Offset
	Runs      []Run // the document's, in its order
	Events    []Event
	Disputes  []Dispute
	Said      []string // what is different by now, in words, in the order of time
	Loose     bool     // changes were taken that did not know of each other: what is left is to be fitted again
	Out       []Absent
	Lines     []*Stand // lists that run by a line of their own
	List      string   // id of the list, of one of these
	Moved     int      // seconds by which the start moved
	startUnix int64
	after     string                  // id of the last change
	marks     map[string]clock.Offset // since when somebody says of a leader's blocks when they are over
}

// Absent is a player who was there, or was awaited, and is out.
type Absent struct {
	Player string // id
	Name   string
	At     int64 // Unix seconds
	Stays  bool  // after a knock to the head nobody comes back
}

// placed is where the plan in force has a block, in Unix seconds.
type placed struct {
	from, to int64
	amounts  []int
	less     *schedule.Less
	kept     bool
	why      string
	length   int   // seconds that it was planned to last
	state    State // of what had begun when the plan was fitted again; "": it had not
	since    int64 // when that was
}

// fold is the events put to the plan so far.
type fold struct {
	document *plan.Document
	at       map[string]placed
	start    int64 // Unix seconds of the start
}

// Of is how a plan stands after events, at a moment in Unix milliseconds. Events need be in
// no order. What an event says of a block or player that the plan does not have is passed
// over. It fails where the plan's start is none.
func Of(base Plan, events []Event, now int64) (*Stand, error) {
	events = Join(events)
	standing := Standing(events)
	f, err := newFold(base)
	if err != nil {
		return nil, err
	}
	s := &Stand{Events: events, Disputes: Disputes(standing)}
	first := f.start
	for _, e := range standing {
		if e.Kind != Change || e.Is == nil || e.At > now {
			continue
		}
		said, err := f.change(e)
		if err != nil {
			continue // what it was about is gone by an earlier one
		}
		s.Loose = e.After != s.after
		s.after, s.Said = e.ID, append(s.Said, said)
		if e.Is.Is == IsOut {
			s.Out = append(s.Out, absent(base.Document, e.Is, e.At/1000)...)
		}
	}
	s.Document, s.startUnix, s.Moved = f.document, f.start, int(f.start-first)
	s.Now = offset(now/1000, f.start)
	if err := s.stand(f.at, standing); err != nil {
		return nil, err
	}
	return s, s.lines(standing, now)
}

func newFold(base Plan) (*fold, error) {
	d := base.Document.Clone()
	d.Upgrade()
	start, err := d.Start.Resolve()
	if err != nil {
		return nil, err
	}
	f := &fold{document: d, at: map[string]placed{}, start: start.Unix()}
	for _, b := range base.Schedule.Blocks(base.Document) {
		is := placed{from: f.start + int64(b.Start), to: f.start + int64(b.End), kept: b.Kept, why: b.Cut,
			length: b.Length(), less: b.Less}
		for n := range b.Items {
			is.amounts = append(is.amounts, b.Amount(n))
		}
		f.at[b.ID] = is
	}
	return f, nil
}

// change puts what is different to the plan, with where its blocks were put then.
func (f *fold) change(e Event) (said string, err error) {
	next := f.document.Clone()
	if said, err = e.Is.apply(next, f.stood(), offset(e.At/1000, f.start)); err != nil {
		return "", err
	}
	start, err := next.Start.Resolve()
	if err != nil {
		return "", err
	}
	f.document, f.start = next, start.Unix()
	for _, p := range e.Placed {
		if !f.sensible(&p) {
			continue
		}
		is := placed{from: p.From, to: p.To, amounts: p.Amounts, less: p.Less, kept: p.Kept, why: p.Why,
			length: int(p.To - p.From), state: p.State, since: e.At / 1000}
		if was, known := f.at[p.Block]; known && p.State != "" {
			is.length = was.length
		}
		f.at[p.Block] = is
	}
	return said, nil
}

// farthest is how far from the start a block may be put, in seconds, and longest how long it
// may last.
const (
	farthest = 24 * 3600
	longest  = 4 * 3600
)

// sensible tells whether a place is one that a block of the plan can have: it comes from a
// phone.
func (f *fold) sensible(p *Place) bool {
	b := f.document.Block(p.Block)
	if b == nil || len(p.Amounts) != len(b.Items) || p.To < p.From || p.To-p.From > longest ||
		p.From < f.start-farthest || p.From > f.start+farthest {
		return false
	}
	for n, amount := range p.Amounts {
		if amount < 0 || amount > drill.MaxAmount || amount > 10*max(1, b.Items[n].Drill.Range.Max) {
			return false
		}
	}
	return p.Less.Suits(b)
}

// stood are the blocks as the plan in force has them.
func (f *fold) stood() (list []schedule.Stood) {
	for i := range f.document.Blocks {
		is := f.at[f.document.Blocks[i].ID]
		list = append(list, schedule.Stood{Block: f.document.Blocks[i].ID, Kept: is.kept,
			Start: offset(is.from, f.start), End: offset(is.to, f.start), Amounts: is.amounts, Less: is.less,
			Why: is.why})
	}
	return list
}

func absent(d *plan.Document, different *Different, at int64) (list []Absent) {
	for _, id := range different.Who {
		if p := d.Player(id); p != nil {
			list = append(list, Absent{Player: id, Name: p.ShortName(), At: at, Stays: different.Why == Head})
		}
	}
	return list
}

// lines are the lists that were started, each by its own line.
func (s *Stand) lines(events []Event, now int64) error {
	to := map[string]int64{}
	for _, e := range events {
		if e.Kind == Line && e.At <= now {
			to[e.List] = e.To
		}
	}
	for _, timed := range schedule.Lists(s.Document) {
		line, runs := to[timed.ID]
		if !runs {
			continue
		}
		one := &Stand{Document: timed.Document, List: timed.ID, startUnix: line, Now: offset(now/1000, line)}
		f := &fold{document: timed.Document, at: map[string]placed{}, start: line}
		for _, b := range timed.Schedule.Blocks(timed.Document) {
			is := placed{from: line + int64(b.Start), to: line + int64(b.End), kept: b.Kept, why: b.Cut, less: b.Less}
			for n := range b.Items {
				is.amounts = append(is.amounts, b.Amount(n))
			}
			f.at[b.ID] = is
		}
		if err := one.stand(f.at, events); err != nil {
			return err
		}
		s.Lines = append(s.Lines, one)
	}
	return nil
}

// Unix is a moment of the stand in Unix seconds.
func (s *Stand) Unix(at clock.Offset) int64 { return s.startUnix + int64(at) }

// Run is the block of that id as it stands, or nil.
func (s *Stand) Run(id string) *Run {
	if i := slices.IndexFunc(s.Runs, func(r Run) bool { return r.ID == id }); i >= 0 {
		return &s.Runs[i]
	}
	return nil
}

// Last is the id of the last event about what a press would be about, which the press
// knows; "" where there is none.
func (s *Stand) Last(about string) (id string) {
	if about == "plan" {
		return s.after
	}
	for _, e := range Standing(s.Events) {
		if e.About() == about {
			id = e.ID
		}
	}
	return id
}
