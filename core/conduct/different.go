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
func (different *Different) Problem() string {
	long := slices.ContainsFunc(different.Who, func(id string) bool { return len(id) > 80 })
	switch {
	case !slices.Contains(all, different.Is):
		return "nobody knows what is different"
	case len(different.Who) > plan.MaxPlayers || long || len(different.ID) > 80 || len(different.Why) > 80 ||
		len(different.Weather) > 80:
		return "it says too much"
	case different.Seconds < -mostMoved || different.Seconds > mostMoved || different.Effort < 0 ||
		different.Effort > 1:
		return "that is no time or effort"
	}
	return ""
}

func (different *Different) same(o *Different) bool {
	return o != nil && different.Is == o.Is && different.Seconds == o.Seconds && different.ID == o.ID &&
		different.Why == o.Why &&
		different.Weather == o.Weather && slices.Equal(different.Who, o.Who)
}

// apply changes a document, whose blocks are planned as stood, by what is different since
// now, and says it. It fails with [plan.Problems] where that cannot be.
func (different *Different) apply(d *plan.Document, stood []schedule.Stood, now clock.Offset) (string, error) {
	switch different.Is {
	case IsStart:
		return different.start(d, now)
	case IsLate:
		return different.late(d, now)
	case IsOut:
		return different.out(d)
	case IsPlace:
		return different.place(d, stood, now)
	case IsLeader:
		s, err := schedule.As(d, stood)
		if err != nil {
			return "", err
		}
		return s.Suppose(d, schedule.Supposed{Is: schedule.IfLeader, ID: different.ID})
	case IsMinutes:
		if different.Seconds < 30 || different.Seconds > mostLost {
			return "", plan.In("different", "between half a minute and two hours can be lost")
		}
		span := plan.Span{From: clock.BeforeStart(int(-now)), To: clock.BeforeStart(int(-now) - different.Seconds)}
		if _, err := d.SetFixed(plan.Fixed{Name: "Held up", Who: []string{plan.Everyone}, Span: span}); err != nil {
			return "", err
		}
		return fmt.Sprintf("%s lost", clock.Lasting(different.Seconds)), nil
	case IsWeather:
		return different.weather(d, stood, now)
	case IsBehind:
		return "fitted again", nil
	case IsTopUp:
		return different.topUp(d)
	}
	return "", plan.In("different", "pick what is different")
}

// start moves the start. What is on already stays when it was, and so does the opening.
func (different *Different) start(d *plan.Document, now clock.Offset) (string, error) {
	if different.Seconds == 0 || different.Seconds%60 != 0 || different.Seconds < -mostMoved ||
		different.Seconds > mostMoved {
		return "", plan.In("different", "the start moves by whole minutes, three hours at most")
	}
	was, err := d.Start.Resolve()
	if err != nil {
		return "", err
	}
	if int(-now)+different.Seconds <= 0 {
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
				at.Before += different.Seconds
			}
		}
	}
	to := was.Add(time.Duration(different.Seconds) * time.Second)
	d.Open = clock.BeforeStart(int(-open) + different.Seconds)
	d.Start = clock.StartAt(to)
	way := "later"
	if different.Seconds < 0 {
		way = "earlier"
	}
	return fmt.Sprintf("%s %s %s: %s", d.StartName, clock.Lasting(max(different.Seconds, -different.Seconds)), way,
		to.Format("15:04")), nil
}

func (different *Different) late(d *plan.Document, now clock.Offset) (string, error) {
	if different.Seconds < 0 || different.Seconds > mostLate {
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
	for _, id := range different.Who {
		seconds := max(0, int(now-open)+different.Seconds)
		if p := d.Player(id); different.Seconds == 0 && p != nil {
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
	case different.Seconds == 0 && len(names) == 1:
		return names[0] + " is here", nil
	case different.Seconds == 0:
		return strings.Join(names, ", ") + " are here", nil
	}
	return fmt.Sprintf("%s in %s", strings.Join(names, ", "), clock.Lasting(different.Seconds)), nil
}

func (different *Different) out(d *plan.Document) (string, error) {
	var names []string
	for _, id := range different.Who {
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
func (different *Different) place(d *plan.Document, stood []schedule.Stood, now clock.Offset) (string, error) {
	z := d.Zone(different.ID)
	if z == nil {
		return "", plan.In("different", "pick which place is lost")
	}
	name := z.Name
	return "without " + name, leave(d, stood, now, []string{different.ID}, nil)
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

func (different *Different) weather(d *plan.Document, stood []schedule.Stood, now clock.Offset) (string, error) {
	switch {
	case different.Weather == Lightning:
		var open []string
		for _, z := range d.Zones {
			if !z.Covered {
				open = append(open, z.ID)
			}
		}
		again := clock.BeforeStart(int(-now) - LightningWaits)
		return "lightning: nobody outdoors until 30 min after the last strike", leave(d, stood, now, open, &again)
	case different.Weather == Rain:
		d.Today.Wet = true
		return "rain: the ground is wet", nil
	case different.Celsius == nil && different.Shows == nil:
		return "", plan.In("different", "say how the weather is")
	}
	c := 0.0
	if different.Celsius != nil {
		c = *different.Celsius
	} else {
		c = d.Measure.Celsius(*different.Shows)
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
func (different *Different) topUp(d *plan.Document) (string, error) {
	if different.Seconds < clock.Grid || different.Seconds > 600 || d.Nobody(different.Who) {
		return "", plan.In("different", "keep somebody moving, for ten minutes at most")
	}
	seconds := different.Seconds - different.Seconds%clock.Grid
	k := drill.Drill{Code: TopUpID, Name: "Keep moving", Aim: "Warm until the start",
		Phases: []drill.Phase{drill.Raise}, Effort: topUpEfforts[0], Dose: drill.Dose{Kind: drill.Time},
		Range: drill.Range{Min: seconds, Target: seconds, Max: seconds, Step: clock.Grid},
		Cues:  []string{"Easy running, knees and heels", "Arms too"}}
	if different.Effort > k.Effort && different.Effort <= topUpEfforts[len(topUpEfforts)-1] {
		k.Effort, k.Cues = different.Effort, []string{"Strides, each a little faster", "A few jumps, land soft"}
	}
	b := plan.Block{Name: k.Name, Aim: k.Aim, Phase: drill.Raise, Who: different.Who, Priority: plan.Should,
		Excusable: true,
		Items:     []plan.Item{{Drill: k}}}
	if len(different.Who) > 0 {
		b.Zone = d.UsualZone(different.Who)
	}
	if id := d.Insert(b, ""); different.ID != "" && len(different.ID) <= maxID && d.Block(different.ID) == nil {
		d.Block(id).ID = different.ID
	}
	return fmt.Sprintf("%s kept moving, %s", cmp.Or(d.Audience(different.Who), "everyone"), clock.Lasting(seconds)), nil
}
