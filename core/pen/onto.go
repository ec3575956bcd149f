package pen

import (
	"fmt"
	"hash/fnv"
	"math"
	"slices"
	"strings"
	"unicode"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// defaults are what a drill of one's own is taken for until somebody says more, by phase.
var defaults = map[drill.Phase]struct {
	aim    string
	effort float64
}{
	drill.Raise:      {"Heart rate and warmth", 0.5},
	drill.Activate:   {"Wakes what the sport needs", 0.35},
	drill.Mobilise:   {"Range of motion, moving", 0.4},
	drill.Potentiate: {"Match intensity, few and full", 0.85},
	drill.Sport:      {"Touch and timing before the start", 0.6},
	drill.Own:        {"Own time", 0.1},
}

// Aim is what a drill of one's own is for until somebody says more, by its phase.
func Aim(phase drill.Phase) string { return defaults[phase].aim }

// Put doses a drill as it is said; left is what was not understood.
func Put(k drill.Drill, said string) (with drill.Drill, left string) {
	l, left := say.ReadDose(k.Name, said)
	if l.Dose == nil {
		return k, left
	}
	k.Range = drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}
	return onto(&l, k, 20), left
}

// ownDrill makes a drill that the book does not have.
func (w *writer) ownDrill(l *say.Line, phase drill.Phase, with *say.Line, lane float64) drill.Drill {
	name := l.Name
	if l.Is == say.IsLegs {
		name = plan.LineName + l.Name
	}
	k := drill.Drill{Code: OwnCode(name), Name: say.Short(say.Capital(name)), Aim: defaults[phase].aim,
		Effort: defaults[phase].effort, Phases: []drill.Phase{phase},
		Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 60, Target: 120, Max: 300, Step: 15},
		Least: drill.Junior}
	if l.Alongside { // nothing is done meanwhile that would tire
		k.Effort = defaults[drill.Own].effort
	}
	if w := with.Window; l.Dose == nil && w != nil && w[0] != nil && w[1] != nil {
		n := max(15, min(*w[1]-*w[0]-plan.HandoverSeconds, drill.MaxAmount))
		k.Range = drill.Range{Min: max(15, n/2), Target: n, Max: n, Step: 5} // it fills its slot
	}
	if l.Is == say.IsLegs {
		return w.legs(k, l, lane)
	}
	k = onto(l, k, lane)
	understood(&k, l.Name)
	return k
}

// Form is another form of a drill of one's own, as its name says; not ok where there is none.
func Form(k drill.Drill, name string) (is drill.Drill, ok bool) {
	if name == "" || !IsOwn(k.Code) {
		return is, false
	}
	is = k.Clone()
	is.Code, is.Name = OwnCode(name), say.Short(name)
	is.Easier, is.Harder, is.Swap = "", "", ""
	qualities, regions := is.Qualities, is.Regions
	understood(&is, name)
	is.Qualities = qualities // it is for the same
	if len(regions) > 0 {
		is.Regions = regions
	}
	return is, is.Validate() == nil
}

// understood has a drill of one's own be what its words say, where nobody has said more.
func understood(k *drill.Drill, name string) {
	u, known := movement.Of(name)
	if !known {
		return
	}
	k.Regions, k.Planes, k.Qualities = u.Joints, u.Planes, nil
	if slices.Contains(drill.Qualities, u.Aim) {
		k.Qualities = []string{u.Aim}
	}
	if len(k.Dose.Efforts) == 0 {
		k.Effort = u.Effort
	}
	switch k.Dose.Kind {
	case drill.Reps:
		k.ContactsPerUnit = u.Contacts
	case drill.Hold:
		k.Static = u.Aim == "range"
	}
	atPace(&k.Dose, u, ofOnesOwn, bothSides)
}

// Understands is what a line's drill is by its words, and how many seconds it takes one player
// without a queue; nil, and 0, where the line is no drill, or nothing is known of it.
func Understands(r *say.Reader, l *say.Line) (u *movement.Understood, seconds float64) {
	if l.Is != say.IsDrill {
		return nil, 0
	}
	if is, known := movement.Of(l.Name); known {
		u = &is
	}
	w := &writer{Reader: r, doc: &plan.Document{Work: plan.Work{Method: plan.DefaultMethod}}}
	line := *l
	item, _ := w.item(&line, &line)
	alone := drill.Group{People: 1, Lanes: 1}
	return u, item.Drill.Work(item.Drill.Range.Target, alone)
}

// Whose drill it is, and how it is done, that goes at a pace.
const ofOnesOwn, ofTheBook, bothSides = true, false, true

// atPace has a dose go at the pace that its words say: one of one's own always, one of the
// book where nobody would do it as fast or as slowly as the book has it.
func atPace(d *drill.Dose, u movement.Understood, own, sided bool) {
	set := func(field *float64, usual, least, most float64) {
		if usual > 0 && (own || *field < least || *field > most) {
			*field = usual
		}
	}
	switch d.Kind {
	case drill.Reps:
		if u.Alternates && !sided { // both sides are within what was counted
			d.Sides = 1
		}
		if d.Tempo == nil {
			set(&d.RepSeconds, u.Seconds[1], u.Seconds[0], u.Seconds[2])
		}
	case drill.Travel:
		if len(d.Efforts) == 0 {
			set(&d.Speed, u.Pace[1], u.Pace[0], u.Pace[2])
		}
	case drill.Count:
		if own {
			set(&d.ActSeconds, u.Seconds[1], 0, 0)
		}
	}
}

// besides has a dose of the book go as what is said beside the drill's name has it: slowly,
// with a reset, backwards.
func besides(d *drill.Dose, usual string, said movement.Understood) {
	is, known := movement.Of(usual)
	if !known {
		return
	}
	if d.Kind == drill.Reps && d.Tempo == nil && is.Seconds[1] > 0 && said.Seconds[1] > 0 {
		d.RepSeconds *= said.Seconds[1] / is.Seconds[1]
	}
	if d.Kind == drill.Travel && len(d.Efforts) == 0 && is.Pace[1] > 0 && said.Pace[1] > 0 {
		d.Speed *= said.Pace[1] / is.Pace[1]
	}
}

// IsOwn tells whether a code is one of a drill of a club's own.
func IsOwn(code string) bool { return strings.HasPrefix(code, "our-") }

// OwnCode is the code of a drill of one's own of that name.
func OwnCode(name string) string {
	const most = 60
	told := true // the letters tell it from others
	code := strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= '0' && r <= '9' {
			return r
		}
		told = told && !unicode.IsLetter(r) && !unicode.IsSymbol(r)
		return '-'
	}, say.Fold(name))
	code = "our-" + strings.Join(strings.FieldsFunc(code, func(r rune) bool { return r == '-' }), "-")
	if told && len(code) <= most && code != "our-" {
		return code
	}
	sum := fnv.New32a()
	sum.Write([]byte(say.Fold(name)))
	return fmt.Sprintf("%s-%x", strings.TrimRight(code[:min(len(code), most)], "-"), sum.Sum32())
}

// legs makes a line of drills out and back.
func (w *writer) legs(k drill.Drill, l *say.Line, lane float64) drill.Drill {
	k.Effort, k.Dose = 0, drill.Dose{Kind: drill.Line, Trips: l.Trips, TurnSeconds: usualTurn, IntervalSeconds: 4,
		Flow: drill.Continuous}
	k.Range = drill.Range{Min: 1, Target: max(1, l.Trips), Max: max(4, l.Trips), Step: 1}
	for _, leg := range l.Out {
		w.leg(&k, leg, wayOut, lane)
	}
	for _, leg := range l.Back {
		w.leg(&k, leg, wayBack, lane)
	}
	return k
}

// Which way of a line a drill is on.
const wayOut, wayBack = false, true

// leg adds a drill to a line, at the speed that the book knows of it.
func (w *writer) leg(k *drill.Drill, leg say.Leg, back bool, lane float64) {
	top, graded := drill.TopSpeed[w.doc.Grade]
	if !graded {
		top = drill.TopSpeed[drill.Club]
	}
	one, effort := drill.Leg{Name: leg.Name, Code: leg.Code, Metres: leg.Metres, Back: back}, 0.45
	for _, z := range w.doc.Zones {
		if one.Metres == 0 && leg.Where != "" && z.Name == leg.Where {
			one.Metres = z.Metres
		}
	}
	if one.Metres == 0 {
		one.Metres = lane
	}
	if known, _ := w.Index.Find(leg.Name); known != nil {
		effort, one.Speed = max(0.2, known.Effort), known.Dose.Speed
		k.Regions, k.Planes = say.AppendNew(k.Regions, known.Regions), say.AppendNew(k.Planes, known.Planes)
	}
	if one.Speed == 0 {
		one.Speed = effort * top
	}
	k.Effort = max(k.Effort, effort)
	k.Dose.Legs = append(k.Dose.Legs, one)
}

// onto puts what was said of how much onto a drill.
func onto(l *say.Line, k drill.Drill, lane float64) drill.Drill {
	d := l.Dose
	if d == nil {
		return k
	}
	settle := 0.0
	if d.Kind == drill.Reps && (d.HoldSeconds > 0 || d.Breaths > 0) { // each is held: the rep leads into it
		held := *d
		held.Kind, d = drill.Hold, &held
		if settle = k.Dose.RepSeconds; k.Dose.Kind != drill.Reps {
			settle = k.Dose.SettleSeconds
		}
		if u, known := movement.Of(l.Name); known && settle == 0 {
			settle = u.Seconds[1]
		}
	}
	amount := d.Amount()
	if d.Kind != k.Dose.Kind {
		k = turnInto(k, d.Kind)
	}
	efforts := slices.Clone(d.Efforts)
	if d.Effort > 0 {
		efforts = []float64{max(0.1, d.Effort)}
	}
	if len(efforts) > 0 && !slices.Equal(efforts, k.Dose.Efforts) {
		k.Effort, k.Dose.Efforts, k.Dose.Speed = slices.Max(efforts), efforts, 0
	}
	fields(d, &k, lane)
	if settle > 0 {
		k.Dose.SettleSeconds = min(60, settle)
	}
	if amount > 0 {
		k.Range = around(k, amount)
	}
	if d.Least > 0 && amount > d.Least {
		k.Range.Min, k.Range.Max, k.Range.Said = d.Least, amount, true
	}
	if l.Exact {
		k.Dose.Exact = true
		k.Range.Min, k.Range.Max = k.Range.Target, k.Range.Target
	}
	return k
}

// usualTurn is how many seconds a turn takes where nobody said so.
const usualTurn = 3

// turnInto is a drill counted in another way than in the book.
func turnInto(k drill.Drill, kind drill.Kind) drill.Drill {
	was := k.Dose
	k.Dose = drill.Dose{Kind: kind, Sets: 1, Sides: max(1, was.Sides)}
	k.Unit, k.Rungs, k.Rows, k.Columns = "", nil, nil, nil
	k.Range = drill.Range{Min: 1, Target: 1, Max: 1, Step: 1}
	switch kind {
	case drill.Reps:
		if k.Dose.RepSeconds = 3; was.ActSeconds > 0 {
			k.Dose.RepSeconds = was.ActSeconds
		}
	case drill.Hold:
		k.Dose.HoldSeconds, k.Dose.SettleSeconds = 10, 2
	case drill.Travel:
		k.Dose = drill.Dose{Kind: kind, Metres: 20, TurnSeconds: usualTurn, IntervalSeconds: 4, Flow: drill.Regroup,
			Efforts: was.Efforts}
	case drill.Count, drill.Grid:
		k.Dose = drill.Dose{Kind: kind, ActSeconds: 8, Cells: 1}
		if was.ActSeconds > 0 {
			k.Dose.ActSeconds = was.ActSeconds
		}
	case drill.Time:
		k.Dose = drill.Dose{Kind: kind}
	}
	return k
}

// fields sets what was said beside the amount.
func fields(d *say.Dose, k *drill.Drill, lane float64) {
	to := &k.Dose
	switch d.Kind {
	case drill.Reps, drill.Hold:
		to.Sets = min(20, max(1, d.Sets))
		if d.LeastSets < to.Sets {
			to.LeastSets = d.LeastSets
		}
		if d.SaidSides > 0 || d.Sides == 2 {
			to.Sides = 2
		}
		if to.Sides == 0 {
			to.Sides = 1
		}
		if to.OwnSide = d.Own; d.Own {
			to.Sides = 1
		}
		to.Directions, to.Tempo, to.Breaths, to.Parts = d.Directions, slices.Clone(d.Tempo), d.Breaths, parts(d)
		if len(to.Parts) > 0 && d.SaidSides == 0 {
			to.Sides = 1 // the parts say which
		}
		if d.HoldSeconds > 0 {
			to.HoldSeconds = min(300, d.HoldSeconds)
		}
		if d.RestSeconds > 0 {
			to.RestSeconds = min(600, d.RestSeconds)
		}
	case drill.Travel:
		travels(d, k, lane)
	case drill.Count:
		to.ByPair = d.By == "pair"
		if k.Unit == "" && strings.HasSuffix(say.LastWord(strings.ToLower(k.Name)), "s") && say.NamesActs(k.Name) {
			k.Unit = say.LastWord(strings.ToLower(k.Name))
		}
	case drill.Grid:
		if len(d.Columns) > 0 && !(d.Unnamed && max(1, len(k.Rows))*len(k.Columns) == len(d.Columns)) {
			k.Rows, k.Columns, to.Counts = slices.Clone(d.Rows), slices.Clone(d.Columns), d.Counts
			to.Cells = max(1, len(d.Rows)) * len(d.Columns)
		}
	}
}

// travels sets what was said of a way: how far, how one comes back, how often round.
func travels(d *say.Dose, k *drill.Drill, lane float64) {
	to := &k.Dose
	if d.Metres > 0 {
		to.Metres, to.Share = min(500, math.Round(100*d.Metres)/100), ""
	} else if share, ok := shares[d.Share]; ok {
		to.Metres, to.Share = max(1, math.Round(share*lane)), d.Share
	}
	if d.RestSeconds > 0 {
		to.TurnSeconds = min(600, d.RestSeconds)
	}
	if d.WayBack > 0 && to.Metres > 0 {
		to.TurnSeconds = math.Round(to.Metres/d.WayBack) + 1
	}
	to.To = d.To
	if d.Laps > 0 { // round and round: nobody turns
		k.Unit, to.TurnSeconds = "laps", 0
	}
}

// parts are the parts that were named, each with how often it is done.
func parts(d *say.Dose) (parts []drill.Part) {
	for i, name := range d.Parts {
		p := drill.Part{Name: name}
		if i < len(d.PartReps) {
			p.Reps = d.PartReps[i]
		}
		parts = append(parts, p)
	}
	return parts
}

// shares are parts of a place's length.
var shares = map[string]float64{"third": 1.0 / 3, "half": 0.5, "full": 1, "side to side": 1, "down and back": 2}

// around is how far an amount may go that was said: down to half of it, a time to two
// thirds, where nobody said what is the least, and up to half as much again for those who
// ask for more.
func around(k drill.Drill, amount int) drill.Range {
	amount = max(1, min(amount, drill.MaxAmount))
	r := drill.Range{Min: (amount + 1) / 2, Target: amount, Max: min(drill.MaxAmount, amount+(amount+1)/2),
		Step: max(1, k.Range.Step)}
	if k.Dose.Kind == drill.Time {
		if r.Step = 15; amount < 60 {
			r.Step = 5
		}
		r.Min = (2*amount + 2) / 3
	}
	if r.Step > amount-r.Min { // a step leads from the least to what was said
		r.Step = max(1, amount-r.Min)
	}
	return r
}
