package say

import (
	"math"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
)

// Dose is what was said of how much. What was not said is left out.
type Dose struct {
	Kind        drill.Kind `json:"kind"`
	Sets        int        `json:"sets,omitempty"`
	LeastSets   int        `json:"least_sets,omitempty"` // of "2-3 sets" the two
	Reps        int        `json:"reps,omitempty"`
	Sides       any        `json:"sides,omitempty"` // 1, 2, "own"
	Directions  int        `json:"directions,omitempty"`
	Parts       []string   `json:"parts,omitempty"`
	PartReps    []int      `json:"part_reps,omitempty"` // where each part has its own
	HoldSeconds float64    `json:"hold_seconds,omitempty"`
	Breaths     int        `json:"breaths,omitempty"`
	Tempo       []float64  `json:"tempo,omitempty"`
	RestSeconds float64    `json:"rest_seconds,omitempty"`
	Least       int        `json:"least,omitempty"` // of "8 to 10" the eight, in what the amount is counted in
	Trips       int        `json:"trips,omitempty"`
	To          string     `json:"to,omitempty"`   // the line of the ground that each trip goes to
	Laps        float64    `json:"laps,omitempty"` // so often round a place; a lap and a half is one trip
	Metres      float64    `json:"metres,omitempty"`
	Share       string     `json:"share,omitempty"` // third, half, full, down and back, side to side
	Effort      float64    `json:"effort,omitempty"`
	Efforts     []float64  `json:"efforts,omitempty"`
	Acts        int        `json:"acts,omitempty"`
	By          string     `json:"by,omitempty"` // pair
	Rows        []string   `json:"rows,omitempty"`
	Columns     []string   `json:"columns,omitempty"`
	Tries       int        `json:"tries,omitempty"`
	Counts      [][]int    `json:"counts,omitempty"`
	Seconds     int        `json:"seconds,omitempty"`

	scratch `json:"-"`
}

// scratch is what a reading itself has to remember of an amount; none of it is told.
type scratch struct {
	SaidSides    int  // 0: not said
	each         bool // each, without saying of what
	Own, inAll   bool
	ownSide      bool    // in this word
	bare         int     // a number without a unit
	WayBack      float64 // metres a second of the way back, where that was said
	from, upTo   int     // of "8 to 10"
	acts         bool    // it was said of acts
	there        bool    // there and back
	often        bool    // once, twice
	minutes      bool    // the time was said in minutes
	held         bool    // the word hold was said
	saidDistance bool
	Unnamed      bool // its places have no names
}

func seconds(n float64, unit string) float64 {
	if strings.HasPrefix(strings.ToLower(unit), "m") || unit == "'" {
		return 60 * n
	}
	return n
}

// dose takes what a text says of how much; nil where it says nothing.
func (s *scan) dose(l *Line) *Dose {
	d := &Dose{}
	s.text = countOf.ReplaceAllString(s.text, "hold $1 s")
	for _, re := range []*pattern.Pattern{afterFirst, ownFirst, everyWhere} {
		if at := re.FindStringIndex(s.text); at != nil && at[0] > 0 {
			s.hide(at[0], at[1]) // "the first five minutes" is a name
		}
	}
	s.letters(d)
	s.wayBack(l, d)
	s.reach(d)
	if s.take(exactOf) != nil {
		l.Exact = true
	}
	for _, rule := range []func(*Dose) bool{s.tempo, s.rest, s.effort, s.breaths, s.laps,
		func(d *Dose) bool { return s.lineOf(l, d) }, s.places, s.sideWords, s.distance, s.holds, s.time, s.acted,
		s.plainNumber} {
		rule(d)
	}
	if m := s.takeIf((d.Kind == drill.Hold || d.Kind == drill.Time), timesLast); m != nil {
		d.Reps, d.held = number(m[1]), true
	}
	if m := s.takeIf(d.Kind == drill.Hold && d.Reps == 0 && d.bare == 0, anyNumber); m != nil {
		d.bare = number(m[1])
	}
	if m := s.takeIf(d.Kind == drill.Travel && d.Trips == 0 && d.bare == 0, anyNumber); m != nil {
		d.bare = number(m[1])
	}
	if m := s.take(setsLast); m != nil {
		d.Sets = number(m[1])
	}
	if m := s.takeIf(d.Kind == "" && d.bare == 0, onceTwice); m != nil {
		d.bare, d.often = times(m[1]), true
	}
	if d.LeastSets > 0 && d.Sets <= 1 { // 2-3 x 20 s are two or three holds
		d.Least, d.LeastSets = d.LeastSets, 0
	}
	if s.acted(d); d.Kind == "" && d.bare == 0 && d.SaidSides == 0 && !d.Own && d.Directions == 0 &&
		len(d.Efforts) == 0 &&
		d.Effort == 0 && d.Tempo == nil && d.RestSeconds == 0 && d.Parts == nil {
		return nil
	}
	return d
}

// reach makes "8 to 10" ten, of which eight will do; "at least 8" says as much.
func (s *counting) reach(d *Dose) {
	if m := s.take(atLeast); m != nil {
		d.Least = number(m[1]) * max(1, int(seconds(1, m[2])))
	}
	if tempoOf.MatchString(s.text) {
		return
	}
	if at := setsReach.FindStringSubmatchIndex(s.text); at != nil {
		few, many := number(s.text[at[2]:at[3]]), number(s.text[at[4]:at[5]])
		if few > 0 && few < many {
			d.LeastSets = few
			s.text = s.text[:at[0]] + strings.Repeat("\x01", at[4]-at[0]) + s.text[at[4]:]
		}
	}
	s.text = reach.ReplaceAllStringFunc(s.text, func(m string) string {
		g := reach.FindStringSubmatch(m)
		if number(g[1]) >= number(g[2]) {
			return m
		}
		d.from, d.upTo = number(g[1]), number(g[2])
		return strings.Repeat("x", strings.Count(m[:1], "x")) + g[2] + g[3]
	})
}

// least is the amount that will do, of a dose whose amount is known.
func (d *Dose) least(amount int) int {
	switch {
	case d.Least > 0 && d.Least < amount:
		return d.Least
	case d.upTo > 0 && amount%d.upTo == 0: // in minutes, there and back
		return d.from * (amount / d.upTo)
	}
	return 0
}

func (s *counting) tempo(d *Dose) bool {
	if m := s.take(boxOf); m != nil { // in, hold, out, hold
		n := decimal(m[1])
		d.Tempo = []float64{n, n, n, n}
		return true
	}
	m := tempoOf.FindStringSubmatch(s.text)
	if m == nil || s.legsOf(d, m) {
		return false
	}
	s.take(tempoOf)
	for _, part := range m[1:] {
		if part != "" {
			d.Tempo = append(d.Tempo, decimal(part))
		}
	}
	return true
}

// legsOf takes the legs of a shuttle, "5-10-5": longer than anybody lowers a weight for.
func (s *counting) legsOf(d *Dose, parts []string) bool {
	sum := 0.0
	for _, part := range parts[1:] {
		sum += decimal(part)
	}
	if slices.Max(numbers(digits.FindAllString(parts[0], -1))) < 10 {
		return false
	}
	at := tempoOf.FindStringIndex(s.text)
	s.hide(at[0], at[1])
	d.Kind, d.Metres = drill.Travel, sum
	return true
}

func (s *counting) rest(d *Dose) bool {
	for _, re := range []*pattern.Pattern{restAfter, restOf} {
		if m := s.take(re); m != nil {
			d.RestSeconds = seconds(decimal(m[1]), m[2])
			return true
		}
	}
	return false
}

var digits = pattern.Must(`\d{1,3}`)

func (s *counting) effort(d *Dose) bool {
	if s.take(flatOut) != nil {
		d.Effort = 1
		return true
	}
	m := s.take(percents)
	if m == nil {
		return s.steps(d)
	}
	for _, p := range digits.FindAllString(m[0], -1) {
		if e := decimal(p) / 100; e >= 0.1 && e <= 1 && len(d.Efforts) < drill.MostEfforts {
			d.Efforts = append(d.Efforts, e)
		}
	}
	if len(d.Efforts) == 1 {
		d.Effort, d.Efforts = d.Efforts[0], nil
	}
	return true
}

// steps take efforts that are said without their per cent: "60, 80, 100".
func (s *counting) steps(d *Dose) bool {
	at := bareSteps.FindStringSubmatchIndex(s.text)
	if at == nil {
		return false
	}
	list := numbers(digits.FindAllString(s.text[at[2]:at[3]], -1))
	if !areEfforts(list) {
		return false
	}
	for _, n := range list {
		d.Efforts = append(d.Efforts, float64(n)/100)
	}
	s.text = s.text[:at[2]] + soft + s.text[at[3]:]
	return true
}

// areEfforts tells whether numbers rise as efforts in per cent do.
func areEfforts(list []int) bool {
	return slices.IsSorted(list) && list[0] >= 40 && list[len(list)-1] <= 100 && list[len(list)-1] >= 85 &&
		len(list) <= drill.MostEfforts
}

// perCent adds what is left out of "3 x 20 m at 70, 90, 100", which is no minute.
func perCent(text string) string {
	text = spacedSteps.ReplaceAllStringFunc(text,
		func(m string) string { return strings.Join(digits.FindAllString(m, -1), ", ") + " %" })
	at := atSteps.FindStringSubmatchIndex(text)
	if at == nil || !metresOf.MatchString(text[:at[0]]) ||
		!areEfforts(numbers(digits.FindAllString(text[at[2]:at[3]], -1))) {
		return text
	}
	return text[:at[3]] + " %" + text[at[3]:]
}

func (s *counting) breaths(d *Dose) bool {
	m := s.take(breathsOf)
	if m == nil {
		return false
	}
	d.Kind, d.Breaths = drill.Hold, number(m[1])
	if t := s.take(timesOf); t != nil {
		d.Reps = number(t[1])
	}
	return true
}

// sideWords take sides, directions and "in all".
func (s *counting) sideWords(d *Dose) bool {
	d.each = eachEnd.MatchString(s.text)
	if m := s.take(ownSide); m != nil {
		d.Own, d.ownSide = true, strings.Contains(strings.ToLower(m[0]), "own")
	}
	if m := s.take(toAndFro); m != nil {
		d.Directions, d.bare = 2, number(m[1])
	}
	if s.take(waysOf) != nil {
		d.Directions = 2
	}
	for s.take(sidesOf) != nil {
		d.SaidSides = 2
	}
	if s.take(inAllOf) != nil {
		d.inAll = true
	}
	return false
}

// holds take what is held for some seconds, so many times.
func (s *counting) holds(d *Dose) bool {
	if d.Kind != "" {
		return false
	}
	if m := s.take(setsTimed); m != nil {
		d.Kind, d.Sets, d.Reps, d.HoldSeconds = drill.Hold, number(m[1]), number(m[2]), seconds(decimal(m[3]), m[4])
		return true
	}
	if m := s.take(timed); m != nil {
		d.Kind, d.Reps, d.HoldSeconds = drill.Hold, number(m[1]), seconds(decimal(m[2]), m[3])
		return true
	}
	if m := eachTimed.FindStringSubmatchIndex(s.text); m != nil { // "5 s each, 5"
		rest := s.text[:m[0]] + soft + s.text[m[1]:]
		if n := anyNumber.FindStringSubmatchIndex(rest); n != nil {
			d.Kind, d.Reps, d.HoldSeconds = drill.Hold, number(rest[n[2]:n[3]]),
				seconds(decimal(s.text[m[2]:m[3]]), s.text[m[4]:m[5]])
			s.text = rest[:n[2]] + soft + rest[n[3]:]
			return true
		}
	}
	for _, re := range []*pattern.Pattern{holdFor, heldFor} {
		if m := s.take(re); m != nil {
			d.Kind, d.HoldSeconds = drill.Hold, seconds(decimal(m[1]), m[2])
			return true
		}
	}
	return false
}

// time takes plain time; whether it is held the drill decides.
func (s *counting) time(d *Dose) bool {
	if d.Kind != "" {
		return false
	}
	put := func(n float64) bool {
		d.Kind, d.Seconds = drill.Time, int(math.Round(n))
		return true
	}
	if m := s.take(clockTime); m != nil {
		return put(60*decimal(m[1]) + decimal(m[2]))
	}
	if m := s.take(minSec); m != nil {
		return put(60*decimal(m[1]) + decimal(m[2]))
	}
	if m := s.take(aMinute); m != nil {
		return put(map[string]float64{"half a minute": 30, "half a min": 30, "a minute": 60, "a min": 60,
			"a minute and a half": 90, "one and a half minutes": 90, "a couple of minutes": 120,
			"couple of minutes": 120}[strings.ToLower(m[1])])
	}
	if m := s.take(plainTime); m != nil {
		n := decimal(m[1])
		if m[2] != "" {
			n += 0.5
		}
		return put(seconds(n, m[3]))
	}
	return false
}

// acted takes counted acts and repetitions.
func (s *counting) acted(d *Dose) bool {
	if d.Kind != "" && d.Kind != drill.Count {
		return false
	}
	if m := s.takeIf(d.Acts == 0, numberPair); m != nil {
		d.Kind, d.Acts, d.By = drill.Count, number(m[1]), "pair"
		return true
	}
	if m := s.take(perPlace); m != nil {
		d.bare = number(m[1])
		return true
	}
	if m := s.take(setsOf); m != nil {
		d.Kind, d.Sets, d.Reps = drill.Reps, number(m[1]), number(m[2])
		return true
	}
	if at := actsOf.FindStringSubmatchIndex(s.text); at != nil && d.Acts == 0 {
		n, noun := number(s.text[at[2]:at[3]]), s.text[at[4]:at[5]]
		d.Acts, d.acts = n, true
		d.Kind = drill.Count
		if s.take(pairwise) != nil {
			d.By = "pair"
		}
		at = actsOf.FindStringSubmatchIndex(s.text)
		before := strings.Trim(strings.ReplaceAll(s.text[:at[0]], soft, " "), " ,;-")
		if before == "" { // the acts are all that it is called
			s.text = s.text[:at[0]] + soft + noun + s.text[at[5]:]
		} else {
			s.text = s.text[:at[0]] + soft + s.text[at[1]:]
		}
		return true
	}
	for _, re := range []*pattern.Pattern{repsOf, overHurdles} {
		if m := s.take(re); m != nil {
			d.Kind, d.Reps = drill.Reps, number(m[1])
			return true
		}
	}
	return false
}

var actsOf = Spaced(`\b` + num + `~(` + strings.Join(actNames, "|") + `)\b(?:~each)?`)

// plainNumber takes a number that nothing else was said of.
func (s *counting) plainNumber(d *Dose) bool {
	if d.bare > 0 {
		return true
	}
	if m := leadNumber.FindStringSubmatch(s.text); m != nil &&
		(d.Kind == "" || d.Kind == drill.Travel && d.Trips == 0) {
		d.bare = number(m[1])
		s.text = m[2]
		return true
	}
	if d.Kind != "" && !(d.Kind == drill.Travel && d.Trips == 0) {
		return false
	}
	s.text = numberHow.ReplaceAllString(s.text, "$1$2, $3$4") // "8 slow"
	if m := s.take(lastNumber); m != nil {
		d.bare = number(m[1])
		s.text += ","
		return true
	}
	if m := s.takeIf((d.SaidSides > 0 || d.Directions > 0 || d.Own || d.inAll || d.Tempo != nil), anyNumber); m != nil {
		d.bare = number(m[1])
		return true
	}
	return false
}

var anyNumber = pattern.Must(`(?i)(?:^|[ ,\x01])(\d{1,3})(?:[ ,\x01]|$)`)
