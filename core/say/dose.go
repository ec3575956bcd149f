package say

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"cuestart/core/drill"
)

// Dose is what was said of how much. What was not said is left out.
type Dose struct {
	Kind         drill.Kind `json:"kind"`
	Sets         int        `json:"sets,omitempty"`
	Reps         int        `json:"reps,omitempty"`
	Sides        any        `json:"sides,omitempty"` // 1, 2, "own"
	Directions   int        `json:"directions,omitempty"`
	Parts        []string   `json:"parts,omitempty"`
	PartReps     []int      `json:"part_reps,omitempty"` // where each part has its own
	HoldSeconds  float64    `json:"hold_seconds,omitempty"`
	Breaths      int        `json:"breaths,omitempty"`
	Tempo        []float64  `json:"tempo,omitempty"`
	RestSeconds  float64    `json:"rest_seconds,omitempty"`
	Trips        int        `json:"trips,omitempty"`
	Metres       float64    `json:"metres,omitempty"`
	Share        string     `json:"share,omitempty"` // third, half, full, down and back, side to side
	Effort       float64    `json:"effort,omitempty"`
	Efforts      []float64  `json:"efforts,omitempty"`
	Acts         int        `json:"acts,omitempty"`
	By           string     `json:"by,omitempty"` // pair
	Rows         []string   `json:"rows,omitempty"`
	Columns      []string   `json:"columns,omitempty"`
	Tries        int        `json:"tries,omitempty"`
	Counts       [][]int    `json:"counts,omitempty"`
	Seconds      int        `json:"seconds,omitempty"`
	sides        int        // 0: not said
	each         bool       // each, without saying of what
	own, inAll   bool
	bare         int  // a number without a unit
	acts         bool // it was said of acts
	there        bool // there and back
	minutes      bool // the time was said in minutes
	held         bool // the word hold was said
	saidDistance bool
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
	for _, re := range []*regexp.Regexp{afterFirst, ownFirst, everyWhere} {
		if at := re.FindStringIndex(s.text); at != nil && at[0] > 0 {
			s.hide(at[0], at[1]) // "the first five minutes" is a name
		}
	}
	s.most()
	if s.take(exactOf) != nil {
		l.Exact = true
	}
	for _, rule := range []func(*Dose) bool{s.tempo, s.rest, s.effort, s.breaths, s.places, s.sideWords, s.distance, s.holds, s.time, s.acted, s.plainNumber} {
		rule(d)
	}
	if m := s.takeIf((d.Kind == drill.Hold || d.Kind == drill.Time), timesLast); m != nil {
		d.Reps, d.held = number(m[1]), true
	}
	if m := s.takeIf(d.Kind == drill.Travel && d.Trips == 0 && d.bare == 0, anyNumber); m != nil {
		d.bare = number(m[1])
	}
	if m := s.take(setsLast); m != nil {
		d.Sets = number(m[1])
	}
	if m := s.takeIf(d.Kind == "" && d.bare == 0, onceTwice); m != nil {
		d.bare = times(m[1])
	}
	if s.acted(d); d.Kind == "" && d.bare == 0 && d.sides == 0 && !d.own && d.Directions == 0 && len(d.Efforts) == 0 && d.Effort == 0 && d.Tempo == nil && d.RestSeconds == 0 && d.Parts == nil {
		return nil
	}
	return d
}

// most makes "8 to 10" ten: what is asked for is the more.
func (s *scan) most() {
	if tempoOf.MatchString(s.text) {
		return
	}
	s.text = reach.ReplaceAllStringFunc(s.text, func(m string) string {
		g := reach.FindStringSubmatch(m)
		if number(g[1]) >= number(g[2]) {
			return m
		}
		return strings.Repeat("x", strings.Count(m[:1], "x")) + g[2] + g[3]
	})
}

func (s *scan) tempo(d *Dose) bool {
	m := s.take(tempoOf)
	if m == nil {
		return false
	}
	for _, part := range m[1:] {
		if part != "" {
			d.Tempo = append(d.Tempo, decimal(part))
		}
	}
	return true
}

func (s *scan) rest(d *Dose) bool {
	for _, re := range []*regexp.Regexp{restAfter, restOf} {
		if m := s.take(re); m != nil {
			d.RestSeconds = seconds(decimal(m[1]), m[2])
			return true
		}
	}
	return false
}

var digits = regexp.MustCompile(`\d{1,3}`)

func (s *scan) effort(d *Dose) bool {
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
func (s *scan) steps(d *Dose) bool {
	at := bareSteps.FindStringSubmatchIndex(s.text)
	if at == nil {
		return false
	}
	list := numbers(digits.FindAllString(s.text[at[2]:at[3]], -1))
	if !slices.IsSorted(list) || list[0] < 40 || list[len(list)-1] > 100 || list[len(list)-1] < 85 || len(list) > drill.MostEfforts {
		return false
	}
	for _, n := range list {
		d.Efforts = append(d.Efforts, float64(n)/100)
	}
	s.text = s.text[:at[2]] + soft + s.text[at[3]:]
	return true
}

func (s *scan) breaths(d *Dose) bool {
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
func (s *scan) sideWords(d *Dose) bool {
	d.each = eachEnd.MatchString(s.text)
	if s.take(ownSide) != nil {
		d.own = true
	}
	if m := s.take(toAndFro); m != nil {
		d.Directions, d.bare = 2, number(m[1])
	}
	if s.take(waysOf) != nil {
		d.Directions = 2
	}
	for s.take(sidesOf) != nil {
		d.sides = 2
	}
	if s.take(inAllOf) != nil {
		d.inAll = true
	}
	return false
}

// words are those of a list: "front middle back", "left, middle and right".
func words(list string) []string {
	return slices.DeleteFunc(strings.FieldsFunc(strings.NewReplacer(" and ", " ", "/", " ", ",", " ", soft, " ").Replace(strings.ToLower(list)+" "), func(r rune) bool { return r == ' ' }),
		func(w string) bool { return w == "the" || w == "x" || smallNumbers[w] > 0 })
}

// places take a grid, with the same or with other counts in each cell, and parts.
func (s *scan) places(d *Dose) bool {
	if at := ladderOf.FindStringSubmatchIndex(s.text); at != nil {
		counts, columns := digits.FindAllString(s.text[at[2]:at[3]], -1), words(s.text[at[4]:at[5]])
		if len(counts) == len(columns) && !slices.ContainsFunc(columns, unitWord) {
			d.Kind, d.Columns, d.Counts = drill.Grid, columns, [][]int{numbers(counts)}
			s.text = s.text[:at[0]] + soft + s.text[at[1]:]
			return true
		}
	}
	if at := cellsOf.FindStringSubmatchIndex(s.text); at != nil {
		rows, columns, from := words(s.text[at[2]:at[3]]), words(s.text[at[4]:at[5]]), at[0]
		if strings.Trim(s.text[:from], " ,"+soft) == "" && len(rows) > 2 { // the name stands before them
			rows, from = rows[1:], from+len(rows[0])
		}
		if len(rows) > 1 && len(columns) > 1 && !slices.ContainsFunc(rows, unitWord) {
			d.Kind, d.Rows, d.Columns, d.Tries = drill.Grid, rows, columns, 1
			s.text = s.text[:from] + soft + s.text[at[1]:]
			if m := s.take(eachOf); m != nil {
				d.Tries = number(m[1])
			} else if m := s.take(eachFirst); m != nil {
				d.Tries = times(strings.Fields(m[0])[0])
			}
			return true
		}
	}
	if m := pairList.FindStringSubmatchIndex(s.text); m != nil {
		var columns []string
		var counts []int
		for _, one := range onePair.FindAllStringSubmatch(s.text[m[2]:m[3]], -1) {
			counts, columns = append(counts, number(one[1])), append(columns, strings.ToLower(one[2]))
		}
		if len(columns) > 1 && !slices.ContainsFunc(columns, unitWord) {
			d.Columns, d.Counts = columns, [][]int{counts}
			d.Kind = drill.Grid
			s.text = s.text[:m[2]] + soft + s.text[m[3]:]
			if all := actsOf.FindStringSubmatchIndex(s.text); all != nil { // "ten frees: three left, ..." says it twice
				s.text = s.text[:all[2]] + soft + s.text[all[4]:]
			}
			return true
		}
	}
	return s.parts(d)
}

// parts take "forward / left / right / back", or a list of places with "two each".
func (s *scan) parts(d *Dose) bool {
	if at := slashed.FindStringSubmatchIndex(s.text); at != nil {
		var parts []string
		for _, p := range strings.Split(s.text[at[2]:at[3]], "/") {
			parts = append(parts, strings.ToLower(strings.Trim(p, " "+soft)))
		}
		lead := strings.Fields(parts[0]) // the name stands before the first part
		if len(lead) > 0 {
			parts[0] = lead[len(lead)-1]
			from := at[2] + strings.LastIndex(strings.ToLower(s.text[at[2]:at[3]][:strings.Index(s.text[at[2]:at[3]], "/")]), parts[0])
			d.Parts = parts
			s.text = s.text[:from] + soft + s.text[at[3]:]
			return true
		}
	}
	m := eachOf.FindStringSubmatch(s.text)
	if m == nil {
		return s.listed(d)
	}
	if at := fromList.FindStringSubmatchIndex(s.text); at != nil {
		d.Kind, d.Columns, d.Tries = drill.Grid, words(s.text[at[2]:at[3]]), number(m[1])
		s.text = s.text[:at[0]] + soft + s.text[at[1]:]
		s.take(eachOf)
		return true
	}
	return s.listed(d)
}

// listed take the places between a name and its dose as the parts of it: "post work, low
// left, low right, six each", "neck: forward, back, left, right, 3 x 5 s each".
func (s *scan) listed(d *Dose) bool {
	list := segments(s.text)
	first := slices.IndexFunc(list, func(g segment) bool { return startsCount.MatchString(g.text) })
	if first < 2 {
		return false
	}
	var parts []string
	from := list[1].from - 1
	if head, place, colon := strings.Cut(list[0].text, ": "); colon && isPlace(place) {
		parts, from = append(parts, strings.ToLower(place)), strings.Index(s.text, head)+len(head)
	}
	for _, g := range list[1:first] {
		if !isPlace(g.text) {
			return false // they are drills of their own
		}
		parts = append(parts, strings.ToLower(g.text))
	}
	if len(parts) < 2 || len(parts) == 2 && slices.Contains(parts, "left") {
		return false
	}
	d.Parts = parts
	s.text = s.text[:from] + "," + s.text[list[first].from:]
	return true
}

func numbers(list []string) (n []int) {
	for _, one := range list {
		n = append(n, number(one))
	}
	return n
}

var units = strings.Fields("s sec secs second seconds min mins minute minutes m metres meters x a each per side sides leg legs arm arms way ways of reps rep sets times lengths in all total and rest hold holds exactly breaths rounds forward forwards back backward backwards out")

func unitWord(w string) bool { return slices.Contains(units, w) && w != "back" && w != "forward" }

// distance takes trips and metres.
func (s *scan) distance(d *Dose) bool {
	if s.lengthList(d) {
		return true
	}
	s.trips(d)
	if (d.saidDistance || d.Share != "") && d.Kind == "" {
		d.Kind = drill.Travel // how often is still to be said
		if m := s.take(timesOf); m != nil {
			d.Trips = number(m[1])
		} else if m := s.take(onceTwice); m != nil {
			d.Trips = times(m[1])
		}
	}
	return d.Kind == drill.Travel
}

// lengthList takes "10 m, 20 m, 30 m": as many trips, as long as they are all together.
func (s *scan) lengthList(d *Dose) bool {
	m := metreList.FindStringSubmatchIndex(s.text)
	if m == nil {
		return false
	}
	list := numbers(digits.FindAllString(s.text[m[2]:m[3]], -1))
	if len(list) < 2 || !slices.IsSorted(list) || len(list) == 2 && strings.Count(strings.ToLower(s.text[m[0]:m[1]]), "m") < 2 {
		return false
	}
	d.Kind, d.Trips = drill.Travel, len(list)
	for _, n := range list {
		d.Metres += float64(n) / float64(len(list))
	}
	s.text = s.text[:m[0]] + ", " + s.keep(s.text[m[0]:m[1]]) + s.text[m[1]:]
	return true
}

// trips take how often and how far.
func (s *scan) trips(d *Dose) {
	travel := func() {
		d.Kind = drill.Travel
		d.Trips = max(d.Trips, 1)
	}
	if m := s.take(sideToSide); m != nil {
		d.Share = "side to side"
	}
	if m := s.take(lengthsOf); m != nil {
		d.Trips, d.Metres = number(m[1]), decimal(m[2])
		travel()
	} else if m := s.take(metresOf); m != nil {
		d.Metres = decimal(m[1])
		d.saidDistance = true
	}
	if m := s.take(shareOf); m != nil {
		d.Share = strings.Replace(strings.ToLower(m[1]), "whole", "full", 1)
		d.saidDistance = true
	}
	if m := s.take(backAndOut); m != nil {
		n := max(number(m[1]), 1)
		if m[2] != "" {
			n *= max(1, times(m[2]))
		}
		d.Trips = 2 * max(n, d.Trips)
		d.there = true
		travel()
	}
	if m := s.takeIf(!d.there, lengths); m != nil {
		d.Trips = number(m[1])
		if word := strings.ToLower(m[0]); strings.Contains(word, "width") {
			d.Share = "side to side"
		} else if strings.Contains(word, "half") {
			d.Share = "half"
		} else if d.Metres == 0 && d.Share == "" {
			d.Share = "full"
		}
		travel()
	}
}

// holds take what is held for some seconds, so many times.
func (s *scan) holds(d *Dose) bool {
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
	for _, re := range []*regexp.Regexp{holdFor, heldFor} {
		if m := s.take(re); m != nil {
			d.Kind, d.HoldSeconds = drill.Hold, seconds(decimal(m[1]), m[2])
			return true
		}
	}
	return false
}

// time takes plain time; whether it is held the drill decides.
func (s *scan) time(d *Dose) bool {
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
		return put(map[string]float64{"half a minute": 30, "half a min": 30, "a minute": 60, "a min": 60, "a minute and a half": 90, "one and a half minutes": 90, "a couple of minutes": 120, "couple of minutes": 120}[strings.ToLower(m[1])])
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
func (s *scan) acted(d *Dose) bool {
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
	if m := s.take(repsOf); m != nil {
		d.Kind, d.Reps = drill.Reps, number(m[1])
		return true
	}
	return false
}

var actsOf = pattern(`\b` + num + `~(` + strings.Join(actNames, "|") + `)\b(?:~each)?`)

// plainNumber takes a number that nothing else was said of.
func (s *scan) plainNumber(d *Dose) bool {
	if d.bare > 0 {
		return true
	}
	if m := leadNumber.FindStringSubmatch(s.text); m != nil && (d.Kind == "" || d.Kind == drill.Travel && d.Trips == 0) {
		d.bare = number(m[1])
		s.text = m[2]
		return true
	}
	if d.Kind != "" && !(d.Kind == drill.Travel && d.Trips == 0) {
		return false
	}
	if m := s.take(lastNumber); m != nil {
		d.bare = number(m[1])
		s.text += ","
		return true
	}
	if m := s.takeIf((d.sides > 0 || d.Directions > 0 || d.own || d.inAll || d.Tempo != nil), anyNumber); m != nil {
		d.bare = number(m[1])
		return true
	}
	return false
}

var anyNumber = regexp.MustCompile(`(?i)(?:^|[ ,\x01])(\d{1,3})(?:[ ,\x01]|$)`)
