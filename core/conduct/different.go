package conduct

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// What is different from the plan.
const (
	IsStart   = "start"   // the start is called earlier or later
	IsLate    = "late"    // somebody comes so much later from now; 0: they are here
	IsOut     = "out"     // somebody is out, or hurt
	IsPlace   = "place"   // a place is lost
	IsLeader  = "leader"  // a leader is not there any more
	IsMinutes = "minutes" // nothing can go on for so long
	IsWeather = "weather" // it is otherwise than it was
	IsBehind  = "behind"  // nothing else: what is left is fitted into what is left of the time
	IsTopUp   = "top-up"  // who stands is kept moving
)

// Head is the reason why somebody is out who had a knock to the head: they stay out, whatever
// the plan.
const Head = "head"

// Lightning is the weather in which nobody stays outdoors until half an hour after the last
// strike.
const (
	Lightning      = "lightning"
	Rain           = "rain"
	LightningWaits = 30 * 60 // seconds
)

// Longest pieces of time that can be said, in seconds.
const (
	mostMoved = 3 * 3600
	mostLost  = 2 * 3600
	mostLate  = 3 * 3600
)

// Different is something that is different from the plan.
type Different struct {
	Is string `json:"is"`
	// by which the start moves, they come later, are lost, or a top-up lasts
	Seconds int      `json:"seconds,omitempty"`
	Effort  float64  `json:"effort,omitempty"`  // of a top-up, 0 to 1; 0: easy running
	Hold    bool     `json:"hold,omitempty"`    // a later start: what is left waits for it; else it goes on as planned
	Who     []string `json:"who,omitempty"`     // ids of players
	ID      string   `json:"id,omitempty"`      // of a place or a leader; of the block that a top-up becomes
	Why     string   `json:"why,omitempty"`     // somebody is out: hurt, or Head
	Weather string   `json:"weather,omitempty"` // Rain, Lightning, or "" where Celsius says it
	Celsius *float64 `json:"celsius,omitempty"`
	// what the thermometer shows, in the plan's unit, where Celsius does not say it
	Shows *float64 `json:"shows,omitempty"`
}

// all are the things that can be different.
var all = []string{IsStart, IsLate, IsOut, IsPlace, IsLeader, IsMinutes, IsWeather, IsBehind, IsTopUp}

// Problem says what is wrong with it as it came in, or "": whether the plan has what it names
// is judged where it is put to the plan.
func (is *Different) Problem() string {
	long := slices.ContainsFunc(is.Who, func(id string) bool { return len(id) > 80 })
	switch {
	case !slices.Contains(all, is.Is):
		return "nobody knows what is different"
	case len(is.Who) > plan.MaxPlayers || long || len(is.ID) > 80 || len(is.Why) > 80 || len(is.Weather) > 80:
		return "it says too much"
	case is.Seconds < -mostMoved || is.Seconds > mostMoved || is.Effort < 0 || is.Effort > 1:
		return "that is no time or effort"
	}
	return ""
}

func (is *Different) same(o *Different) bool {
	return o != nil && is.Is == o.Is && is.Seconds == o.Seconds && is.ID == o.ID && is.Why == o.Why &&
		is.Weather == o.Weather && slices.Equal(is.Who, o.Who)
}

// apply changes a document, whose blocks are planned as stood, by what is different since
// now, and says it. It fails with [plan.Problems] where that cannot be.
func (is *Different) apply(d *plan.Document, stood []schedule.Stood, now clock.Offset) (string, error) {
	switch is.Is {
	case IsStart:
		return is.start(d, now)
	case IsLate:
		return is.late(d, now)
	case IsOut:
		return is.out(d)
	case IsPlace:
		return is.place(d, stood, now)
	case IsLeader:
		s, err := schedule.As(d, stood)
		if err != nil {
			return "", err
		}
		return s.Suppose(d, schedule.Supposed{Is: schedule.IfLeader, ID: is.ID})
	case IsMinutes:
		if is.Seconds < 30 || is.Seconds > mostLost {
			return "", plan.In("different", "between half a minute and two hours can be lost")
		}
		span := plan.Span{From: clock.BeforeStart(int(-now)), To: clock.BeforeStart(int(-now) - is.Seconds)}
		if _, err := d.SetFixed(plan.Fixed{Name: "Held up", Who: []string{plan.Everyone}, Span: span}); err != nil {
			return "", err
		}
		return fmt.Sprintf("%s lost", clock.Lasting(is.Seconds)), nil
	case IsWeather:
		return is.weather(d, stood, now)
	case IsBehind:
		return "fitted again", nil
	case IsTopUp:
		return is.topUp(d)
	}
	return "", plan.In("different", "pick what is different")
}

// start moves the start. What is on already stays when it was, and so does the opening.
func (is *Different) start(d *plan.Document, now clock.Offset) (string, error) {
	if is.Seconds == 0 || is.Seconds%60 != 0 || is.Seconds < -mostMoved || is.Seconds > mostMoved {
		return "", plan.In("different", "the start moves by whole minutes, three hours at most")
	}
	was, err := d.Start.Resolve()
	if err != nil {
		return "", err
	}
	if int(-now)+is.Seconds <= 0 {
		return "", plan.In("different", "that would be over already")
	}
	open, err := d.Open.Offset(was)
	if err != nil {
		return "", err
	}
	for i := range d.Fixed {
		from, err := d.Fixed[i].Span.From.Offset(was)
		for _, at := range []*clock.Moment{&d.Fixed[i].Span.From, &d.Fixed[i].Span.To} {
			if err == nil && from < now && at.Clock == "" {
				at.Before += is.Seconds
			}
		}
	}
	to := was.Add(time.Duration(is.Seconds) * time.Second)
	d.Open = clock.BeforeStart(int(-open) + is.Seconds)
	d.Start = clock.StartAt(to)
	way := "later"
	if is.Seconds < 0 {
		way = "earlier"
	}
	return fmt.Sprintf("%s %s %s: %s", d.StartName, clock.Lasting(max(is.Seconds, -is.Seconds)), way,
		to.Format("15:04")), nil
}

func (is *Different) late(d *plan.Document, now clock.Offset) (string, error) {
	if is.Seconds < 0 || is.Seconds > mostLate {
		return "", plan.In("different", "somebody comes within three hours")
	}
	start, err := d.Start.Resolve()
	if err != nil {
		return "", err
	}
	open, err := d.Open.Offset(start)
	if err != nil {
		return "", err
	}
	var names []string
	for _, id := range is.Who {
		seconds := max(0, int(now-open)+is.Seconds)
		if p := d.Player(id); is.Seconds == 0 && p != nil {
			seconds = min(seconds, p.Late) // from now on, and nobody is later for it
		}
		if _, err := d.SetLate(id, seconds); err != nil {
			return "", err
		}
		names = append(names, d.Player(id).ShortName())
	}
	switch {
	case names == nil:
		return "", plan.In("different", "say who")
	case is.Seconds == 0 && len(names) == 1:
		return names[0] + " is here", nil
	case is.Seconds == 0:
		return strings.Join(names, ", ") + " are here", nil
	}
	return fmt.Sprintf("%s in %s", strings.Join(names, ", "), clock.Lasting(is.Seconds)), nil
}

func (is *Different) out(d *plan.Document) (string, error) {
	var names []string
	for _, id := range is.Who {
		p := d.Player(id)
		if p == nil {
			return "", plan.In("different", "this player is not in the plan")
		}
		name := p.ShortName()
		if _, err := d.SetOut(id); err != nil {
			return "", err
		}
		names = append(names, name)
	}
	if names == nil {
		return "", plan.In("different", "say who")
	}
	return strings.Join(names, ", ") + " out", nil
}

// place loses a place: what is left of it goes where there is room.
func (is *Different) place(d *plan.Document, stood []schedule.Stood, now clock.Offset) (string, error) {
	z := d.Zone(is.ID)
	if z == nil {
		return "", plan.In("different", "pick which place is lost")
	}
	name := z.Name
	return "without " + name, leave(d, stood, now, []string{is.ID}, nil)
}

// leave takes blocks not over out of places, to another with room for them, the most like it
// first. Blocks that find none stay where they are, and are not run.
func leave(d *plan.Document, stood []schedule.Stood, now clock.Offset, lost []string, again *clock.Moment) error {
	start, err := d.Start.Resolve()
	if err != nil {
		return err
	}
	for i := range d.Zones {
		if slices.Contains(lost, d.Zones[i].ID) {
			d.Zones[i].Free = until(d.Zones[i].Free, start, now)
			if again != nil {
				d.Zones[i].Free = append(d.Zones[i].Free, plan.Span{From: *again, To: clock.BeforeStart(-24 * 3600)})
			}
		}
	}
	for i := range d.Blocks {
		b := &d.Blocks[i]
		over := slices.ContainsFunc(stood,
			func(s schedule.Stood) bool { return s.Block == b.ID && s.Kept && s.End <= now })
		if !slices.Contains(lost, b.Zone) || over {
			continue
		}
		people, was := len(d.Members(b.Who)), *d.Zone(b.Zone)
		best := ""
		for _, z := range d.Zones {
			if slices.Contains(lost, z.ID) || z.Capacity < people {
				continue
			}
			if best == "" || unlike(z, was) < unlike(*d.Zone(best), was) {
				best = z.ID
			}
		}
		if best != "" {
			b.Zone = best
		}
	}
	return nil
}

// unlike is by how much a place lacks what another has.
func unlike(z, was plan.Zone) (by int) {
	if z.Covered != was.Covered {
		by += 10
	}
	if z.Metres < was.Metres {
		by += 5 + int(was.Metres-z.Metres)/10
	}
	return by + max(0, was.Lanes-z.Lanes)
}

// until is the part of spans before now; none at all where there would be none.
func until(free []plan.Span, start time.Time, now clock.Offset) (kept []plan.Span) {
	const long = 24 * 3600
	if len(free) == 0 {
		free = []plan.Span{{From: clock.BeforeStart(long), To: clock.BeforeStart(-long)}}
	}
	for _, f := range free {
		window, err := f.Window(start)
		if err != nil || window.From >= now {
			continue
		}
		if window.To > now {
			f.To = clock.BeforeStart(int(-now))
		}
		kept = append(kept, f)
	}
	if kept == nil {
		kept = []plan.Span{{From: clock.BeforeStart(long + 60), To: clock.BeforeStart(long)}}
	}
	return kept
}

func (is *Different) weather(d *plan.Document, stood []schedule.Stood, now clock.Offset) (string, error) {
	switch {
	case is.Weather == Lightning:
		var open []string
		for _, z := range d.Zones {
			if !z.Covered {
				open = append(open, z.ID)
			}
		}
		again := clock.BeforeStart(int(-now) - LightningWaits)
		return "lightning: nobody outdoors until 30 min after the last strike", leave(d, stood, now, open, &again)
	case is.Weather == Rain:
		d.Today.Wet = true
		return "rain: the ground is wet", nil
	case is.Celsius == nil && is.Shows == nil:
		return "", plan.In("different", "say how the weather is")
	}
	c := 0.0
	if is.Celsius != nil {
		c = *is.Celsius
	} else {
		c = d.Measure.Celsius(*is.Shows)
	}
	if problem := plan.AirProblem(c); problem != "" {
		return "", plan.In("different", "%s", problem)
	}
	d.Today.Celsius = &c
	return d.Measure.Air(c) + " by now", nil
}

// TopUpID is the id of the drill that keeps people moving.
const TopUpID = "keep-moving"

// topUp adds a short block that keeps people moving.
func (is *Different) topUp(d *plan.Document) (string, error) {
	if is.Seconds < clock.Grid || is.Seconds > 600 || d.Nobody(is.Who) {
		return "", plan.In("different", "keep somebody moving, for ten minutes at most")
	}
	seconds := is.Seconds - is.Seconds%clock.Grid
	k := drill.Drill{Code: TopUpID, Name: "Keep moving", Aim: "Warm until the start",
		Phases: []drill.Phase{drill.Raise}, Effort: topUpEfforts[0], Dose: drill.Dose{Kind: drill.Time},
		Range: drill.Range{Min: seconds, Target: seconds, Max: seconds, Step: clock.Grid},
		Cues:  []string{"Easy running, knees and heels", "Arms too"}}
	if is.Effort > k.Effort && is.Effort <= topUpEfforts[len(topUpEfforts)-1] {
		k.Effort, k.Cues = is.Effort, []string{"Strides, each a little faster", "A few jumps, land soft"}
	}
	b := plan.Block{Name: k.Name, Aim: k.Aim, Phase: drill.Raise, Who: is.Who, Priority: plan.Should, Excusable: true,
		Items: []plan.Item{{Drill: k}}}
	if len(is.Who) > 0 {
		b.Zone = d.UsualZone(is.Who)
	}
	if id := d.Insert(b, ""); is.ID != "" && len(is.ID) <= maxID && d.Block(is.ID) == nil {
		d.Block(id).ID = is.ID
	}
	return fmt.Sprintf("%s kept moving, %s", cmp.Or(d.Audience(is.Who), "everyone"), clock.Lasting(seconds)), nil
}
