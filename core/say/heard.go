package say

import (
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/drill"
	"cuestart/core/hear"
	"cuestart/core/measure"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// lexicon is what a reader knows of words.
type lexicon struct{ *Reader }

// asked is what was asked about a text, and answers what was answered: a line asks the same again and again.
type asked struct {
	of   byte // m: whether it moves, k: is known, w: is a word of names, p: is a person, s: is held, g: goes somewhere
	text string
}

func (x lexicon) once(of byte, text string, answer func(string) bool) bool {
	ok, before := x.answers[asked{of, text}]
	if !before {
		ok = answer(text)
		x.answers[asked{of, text}] = ok
	}
	return ok
}

func (x lexicon) Moves(text string) bool {
	return x.once('m', text, func(text string) bool { return movement.Lead(text) != "" })
}

func (x lexicon) Known(name string) bool {
	return x.once('k', name, func(name string) bool {
		return x.Index.called[unspaced(plainName(name))] || x.Index.called[strings.Join(keyWords(name), " ")]
	})
}

func (x lexicon) Word(word string) bool {
	return x.once('w', word, func(word string) bool { return x.Index.words[stem(plainName(word))] })
}

func (x lexicon) Still(name string) bool { return x.once('s', name, x.still) }

func (x lexicon) still(name string) bool {
	if k, _ := x.Index.Find(name); k != nil {
		return k.Dose.Kind == drill.Hold || stillWords.MatchString(name)
	}
	u, moves := movement.Of(name)
	return moves && u.Effort < 0.35 && !u.Travels && stillWords.MatchString(name)
}

func (x lexicon) Goes(name string) bool { return x.once('g', name, x.goes) }

func (x lexicon) goes(name string) bool {
	if k, _ := x.Index.Find(name); k != nil {
		return k.Dose.Kind == drill.Travel
	}
	u, moves := movement.Of(name)
	return moves && u.Travels
}

func (x lexicon) Person(text string) bool { return x.once('p', text, x.person) }

func (x lexicon) person(text string) bool {
	name := strings.TrimPrefix(Fold(text), "the ")
	if x.Plays != nil && len(text) > 1 && strings.ToUpper(text) == text && (text[0] < '0' || text[0] > '9') { // GS, CBs
		if x.Plays.Means(text) != "" {
			return true
		}
	}
	if name == "" || name[0] >= '0' && name[0] <= '9' { // a number alone is how many
		return false
	}
	if name == "everyone" || name == "everybody" || name == "all" || name == "all of them" || name == "all of you" {
		return true
	}
	if some, halves := strings.CutSuffix(name, "halves"); halves {
		name = some + "halfs"
	}
	if one, many := strings.CutSuffix(name, "s"); x.Plays != nil && many &&
		(len(one) > 3 || len(one) > 2 && !x.Moves(one)) && !isPlace(name) {
		if x.Plays.Means(one) != "" {
			return true
		}
	}
	return x.called[name] || x.called[strings.TrimSuffix(name, "s")]
}

func (x lexicon) Leads(text string) bool {
	return slices.ContainsFunc(x.staff, func(n named) bool { return n.fold == Fold(text) })
}

func (x lexicon) Place(text string) bool {
	return slices.ContainsFunc(x.Zones, func(z string) bool { return Fold(z) == Fold(text) })
}

func (x lexicon) Clock(hour, minute int) (float64, bool) {
	if x.start < 0 {
		return 0, false
	}
	for _, h := range []int{hour, hour + 12} { // "3.15" in the afternoon
		if toGo := x.start/60 - 60*h - minute; toGo >= -60 && toGo <= 240 {
			return float64(toGo), true
		}
	}
	return 0, false
}

func (x lexicon) Line(text string) (float64, bool) {
	if x.Plays == nil {
		return 0, false
	}
	l, ok := x.Plays.Line(text)
	return l.Metres, ok
}

var stillWords = Spaced(`\b(?:hold|holds|stretch|stretches|plank|planks|iso|isos|pose|sit|sits|hang|position|pigeon|copenhagens?|balance|squeeze)\b`)

// Heard is the line as the marks and readings of package hear have it.
func (r *Reader) Heard(text string) Line {
	who, rest := r.roster(tidySigns(text))
	return r.meaning(text, who, r.mark(rest))
}

// meaning is a line as one reading of it has it.
func (r *Reader) meaning(text string, who []string, reading hear.Reading) Line {
	reading.Who = append(who, reading.Who...)
	l := Line{Said: text, Cues: slices.Clone(reading.Cues), At: reading.At,
		ofLine: ofLine{Score: reading.Score, one: reading.One, sure: reading.Sure}}
	r.resolve(&l, &reading)
	if reading.From != nil || reading.To != nil || reading.Done != nil {
		l.Window = &Window{reading.From, reading.To}
		if reading.Done != nil {
			l.Window[1] = reading.Done
		}
	}
	switch reading.Is {
	case hear.Drill:
		l.Is = IsDrill
		r.hearDrill(&l, reading.Name, &reading.Amount)
		l.toldWhere(reading.Amount.To)
		if m := backOf.FindStringSubmatch(" " + text); m != nil && l.Dose != nil {
			l.Dose.WayBack = backPace[strings.ToLower(m[2])]
		}
	case hear.Combo:
		r.hearCombo(&l, &reading, text)
	case hear.Choice:
		l.Is, l.Name = IsChoice, reading.Name
		for _, name := range reading.Choices {
			l.Drills = append(l.Drills, r.oneOf(name, &reading.Amount))
		}
	case hear.Heading:
		l.hearHeading(&reading)
	case hear.Fixed:
		l.hearFixed(&reading)
	case hear.Remark:
		l.Is, l.Note = IsNote, OneLine(text)
	}
	return l
}

// hearCombo fills in several things done one after the other.
func (r *Reader) hearCombo(l *Line, reading *hear.Reading, text string) {
	l.Is, l.Name, l.Times, l.RestSeconds = IsCombo, reading.Name, int(reading.Times), reading.Amount.Rest
	for _, e := range reading.Amount.Efforts {
		l.Cues = append(l.Cues, strconv.Itoa(int(100*e+0.5))+" %")
	}
	each := eachAtEnd.FindStringSubmatch(text)
	of := each != nil && number(each[1]) == l.Times && !strings.Contains(strings.ToLower(text), " then ") &&
		!slices.ContainsFunc(reading.Steps, func(s hear.Step) bool {
			once := s.Amount
			once.Reps -= 1
			return !s.Amount.None() && !once.None() || s.Amount.Metres > 0
		})
	for _, s := range reading.Steps {
		if of { // "arms, arms and body, half slide, 20 strokes each"
			s.Amount.Reps, l.Times = reading.Times, 1
		}
		l.Drills = append(l.Drills, r.oneOf(s.Name, &s.Amount))
	}
}

// hearHeading fills in a heading: where it is of people at a place, by them.
func (l *Line) hearHeading(reading *hear.Reading) {
	l.Is, l.Name = IsBlock, reading.Name
	if len(reading.Who) > 0 && placeFirst.MatchString(l.Name) { // "Goalies with Ife on the far goal all along"
		l.Name, l.Cues = strings.Join(reading.Who, ", "), append(l.Cues, l.Name)
	}
}

// placeFirst is what is a place rather than a name.
var placeFirst = pattern.Must(`(?i)^(?:on|in|at|by|the) `)

// eachAtEnd is how many of each of several there are, at the end of a line.
var eachAtEnd = Spaced(`\b` + num + `~(?:(?:strokes|reps|hits|touches|balls)~)?each[ .,]*$`)

// toldWhere tells with a drill where people, or what they send, go.
func (l *Line) toldWhere(to string) {
	if l.Dose == nil {
		return
	}
	if l.Dose.To != "" {
		to = l.Dose.To
	} else if l.Dose.Kind == drill.Travel {
		return
	}
	if to = strings.TrimPrefix(to, "the "); to == "" {
		return
	}
	if l.Dose.To != "" {
		l.Dose.To = to
	}
	l.Cues = append(l.Cues, "to the "+to)
}

// rosterOf are people in short, several of them, before a colon: "GS + GA: shots".
var rosterOf = pattern.Must(`^\s*((?:[A-Z][A-Za-z0-9]{0,4}|\d{1,2})(?:(?: ?(?:\+|&|/|,|and) ?| )(?:[A-Z][A-Za-z0-9]{0,4}|\d{1,2}))+): *(.+)$`)

// rosterFirst are people in short straight before what they do: "QBs, WRs, TEs routes on air".
var rosterFirst = pattern.Must(`^\s*([A-Z]{1,3}s?(?: ?(?:\+|&|/|,|and) ?[A-Z]{1,3}s?)+) +([a-z0-9].+)$`)

// roster takes people in short from the front of a line, where somebody knows each of them.
func (r *Reader) roster(text string) (who []string, rest string) {
	m := rosterOf.FindStringSubmatch(text)
	if m == nil {
		m = rosterFirst.FindStringSubmatch(text)
	}
	if m == nil {
		return nil, text
	}
	for _, one := range rosterPart.Split(m[1], -1) {
		if number(one) == 0 && !(lexicon{r}).Person(one) && (r.Plays == nil || r.Plays.Means(one) == "") { // C and WA
			return nil, text
		}
		who = append(who, one)
	}
	return who, m[2]
}

var rosterPart = pattern.Must(` ?(?:\+|&|/|,|\band\b) ?| `)

// drilled is a line that a coach says is a drill.
func (r *Reader) drilled(text string) Line {
	l := r.Read(text)
	if l.Is == IsDrill || l.Is == IsDrills || l.Is == IsCombo || l.Is == IsChoice {
		l.Said = drillMark + text
		return l
	}
	l = Line{Is: IsDrill, Said: drillMark + text}
	r.hearDrill(&l, strings.TrimSpace(text), &hear.Amount{})
	return l
}

// Spans are which letters of a line gave what was read of it: its name, how much, who, where, when,
// by whom, what is told.
func (r *Reader) Spans(text string, read ...*Line) []hear.Span {
	var names, cues []string
	for _, l := range read {
		if l.Is == IsNote {
			if cues = append(cues, AsTyped(l.Said)); len(read) == 1 {
				return []hear.Span{{From: 0, To: len(text), Gave: "cue"}}
			}
			continue
		}
		names, cues = append(names, l.Name), append(cues, l.Told()...)
		for i := range l.Drills {
			names, cues = append(names, l.Drills[i].Name), append(cues, l.Drills[i].Cues...)
		}
	}
	return r.inSentences(text, names, cues)
}

// inSentences are the spans of a line sentence by sentence, as it is read; what a sentence was
// put otherwise of is looked at as it was typed.
func (r *Reader) inSentences(text string, names, cues []string) (all []hear.Span) {
	at := 0
	spans := func(to int) {
		for _, s := range hear.Spans(text[at:to], lexicon{r}, names, cues) {
			s.From, s.To = s.From+at, s.To+at
			all = append(all, s)
		}
		at = to
	}
	for _, one := range sentences(text) {
		if begins := strings.Index(text[at:], one); begins >= 0 && one != "" {
			spans(at + begins)
			spans(at + len(one))
		}
	}
	spans(len(text))
	return all
}

// Told are the cues of a line without where people go, which is told with them.
func (l *Line) Told() []string {
	return slices.DeleteFunc(slices.Clone(l.Cues),
		func(cue string) bool { return l.Dose != nil && l.Dose.To != "" && cue == "to the "+l.Dose.To })
}

// oneOf is one of several drills of a line.
func (r *Reader) oneOf(name string, a *hear.Amount) Line {
	line := Line{Is: IsDrill}
	r.hearDrill(&line, name, a)
	return line
}

// hearFixed fills in something of the day: from when to when, where that was said.
func (l *Line) hearFixed(reading *hear.Reading) {
	l.Is, l.Name, l.From, l.To = IsFixed, reading.Name, reading.From, reading.To
	if reading.At != nil {
		l.From = reading.At
	}
	if l.From == nil && reading.Amount.Seconds > 0 {
		l.Cues = append(l.Cues, strconv.Itoa(int(reading.Amount.Seconds/60+0.5))+" min")
	}
	if l.From == nil || l.To != nil {
		return
	}
	ends := min(0, *l.From+fixedLasts)
	if reading.Amount.Seconds > 0 {
		ends = min(0, *l.From+int(reading.Amount.Seconds))
	}
	l.To = &ends
}

// fixedLasts is how long something fixed takes of which only the start was said, in seconds.
const fixedLasts = 300

// hearDrill fills in a drill by its name and how much of it was said.
func (r *Reader) hearDrill(l *Line, name string, a *hear.Amount) {
	l.Name = strings.ReplaceAll(name, "’", "'")
	k, likely, spelt := r.Index.seek(l.Name)
	if way := thisWay.FindStringSubmatch(l.Name); way != nil && (lexicon{r}).Known(way[1]) { // backpedal back
		k, likely, spelt = r.Index.seek(way[1])
	}
	if k != nil {
		l.Code, l.Slip = k.Code, !spelt
	}
	for _, other := range likely {
		l.Likely = append(l.Likely, other.Name)
	}
	l.Yards, l.Feet = a.Unit == "yd", a.Unit == "ft"
	d := r.heardDose(a, name)
	if d == nil {
		return
	}
	l.Dose = d
	if k != nil && k.Dose.Kind == drill.Count && d.Kind == drill.Travel && d.Laps == 0 && sent.MatchString(name) {
		// throws of 60 ft: where from is told
		d.Kind, d.Acts, d.Trips = drill.Count, d.Trips, 0
		l.Cues = append(l.Cues, told(d.Metres, a.Unit))
		d.Metres = 0
	}
}

// unitFirst is what is left of a length before a name: of "10m x 3 walk back".
var unitFirst = pattern.Must(`^(?:m|yd|yds|ft|s|min|km)(?: x)?\s+`)

// thisWay is a name with the way it goes behind it.
var thisWay = pattern.Must(`(?i)^(.+) (?:back|home|down|out|up|there)$`)

// sent are acts by which a ball goes, and not who does them.
var sent = Spaced(`\b(?:throws?|toss|kicks?|pass|passes|serves?|shots?|pitches|hits?)$`)

// told is a length in the unit in which it was said.
func told(metres float64, unit string) string {
	switch unit {
	case "yd":
		metres /= measure.Yard
	case "ft":
		metres /= measure.Foot
	default:
		unit = "m"
	}
	return strconv.FormatFloat(math.Round(10*metres)/10, 'f', -1, 64) + " " + unit
}

// heardDose is an amount as a dose; nil where nothing was said.
func (r *Reader) heardDose(a *hear.Amount, name string) *Dose {
	d := &Dose{Sets: whole(a.Sets), LeastSets: whole(a.LeastSets), Least: whole(a.Least), RestSeconds: a.Rest,
		Tempo: a.Tempo, Efforts: a.Efforts, scratch: scratch{each: a.Each}}
	if a.Sides == 2 {
		d.Sides, d.SaidSides = 2, 2
	}
	if a.Ways == 2 {
		d.Directions = 2
	}
	if len(a.Efforts) == 1 {
		d.Effort, d.Efforts = a.Efforts[0], nil
	}
	if m := shuttle.FindStringSubmatch(name); m != nil && a.Trips == 0 && a.Seconds == 0 {
		// 5-10-5: out, across and back
		a.Trips, a.Metres = max(1, a.Reps), float64(number(m[1])+number(m[2])+number(m[3]))
	}
	switch {
	case a.Trips > 0 || a.Laps > 0:
		r.heardWay(a, d, name)
	case a.Seconds > 0 && max(a.Sets, a.Reps) > 1: // so often so long
		d.Kind, d.Sets, d.Reps, d.HoldSeconds = drill.Hold, 1, whole(max(a.Sets, a.Reps)), a.Seconds
		if d.LeastSets > 0 {
			d.Least = 0
		}
	case a.Seconds > 0 && a.Sides == 2: // so long a side
		d.Kind, d.Reps, d.HoldSeconds = drill.Hold, 1, a.Seconds
	case a.Seconds > 0:
		d.Kind, d.Seconds, d.Sets = drill.Time, whole(a.Seconds), 0
	case (a.Hold > 0 || a.Breaths > 0) && !a.Counted:
		d.Kind, d.HoldSeconds, d.Breaths, d.Reps = drill.Hold, a.Hold, whole(a.Breaths), max(1, whole(a.Reps))
	case a.Reps > 0 || len(a.Parts) > 0:
		d.Kind, d.Reps, d.HoldSeconds, d.Breaths = drill.Reps, whole(a.Reps), a.Hold, whole(a.Breaths)
		heardParts(a, d)
	case (d.Effort > 0 || d.Efforts != nil) && (lexicon{r}).Goes(name):
		d.Kind, d.Trips = drill.Travel, max(1, len(d.Efforts))
	default:
		return nil
	}
	if k, _ := r.Index.Find(name); k != nil {
		d.asKnown(k, name, a)
	}
	if letters := hear.Letters(name); len(letters) > 1 && a.Ways == float64(len(letters)) && d.Kind == drill.Reps {
		// Y-T-W, six of each
		d.Parts, a.Ways = letters, 0
	}
	if d.Kind == drill.Reps || d.Kind == drill.Hold {
		d.atLeastOnce(a.Ways)
	}
	return d
}

// eachSide takes each for each side where every drill of the book that may be meant has two: "lunge & overhead reach x5
// each".
func (k *knower) eachSide(l *Line) {
	d := l.Dose
	if d == nil || !d.each || d.SaidSides != 0 || d.Sides != 1 || d.Parts != nil || l.Code != "" ||
		d.Kind != drill.Reps && d.Kind != drill.Hold {
		return
	}
	if len(l.Likely) == 0 && !oneLimb.MatchString(l.Name) {
		return
	}
	for _, name := range l.Likely {
		if known, _ := k.Index.Find(name); (known == nil || known.Dose.Sides != 2) && !oneLimb.MatchString(l.Name) {
			return
		}
	}
	d.Sides, d.SaidSides = 2, 2
}

// oneLimb is what is done with one leg or arm at a time.
var oneLimb = pattern.Must(`(?i)\b(?:SL|SA|(?:single|one|1)[- ](?:leg|arm)(?:ged|ed)?)\b`)

// atLeastOnce fills in what is not said of what is counted: a set, a side; and counts several ways.
func (d *Dose) atLeastOnce(ways float64) {
	if d.Sets = max(1, d.Sets); d.Sides == nil {
		d.Sides = 1
	}
	if ways > 2 {
		d.Reps *= whole(ways)
	}
}

// asKnown gives what was only counted the kind of a drill that is known: acts, lengths; each is
// each side of what has two.
func (d *Dose) asKnown(k *drill.Drill, name string, a *hear.Amount) {
	if a.Each && d.SaidSides == 0 && k.Dose.Sides == 2 && (d.Kind == drill.Reps || d.Kind == drill.Hold) {
		d.Sides, d.SaidSides = 2, 2
	}
	if d.Kind != drill.Reps || d.HoldSeconds+float64(d.Breaths) > 0 || d.Sets > 1 || d.Tempo != nil ||
		d.Directions > 1 || len(a.Parts) > 0 || a.Ways > 2 {
		return
	}
	if k.Dose.Kind != drill.Count && k.Dose.Kind != drill.Travel {
		return
	}
	switch {
	case k.Dose.Kind == drill.Count:
		d.Kind, d.Acts = drill.Count, d.Reps*max(1, d.SaidSides)
	case d.SaidSides == 0 && gaits.MatchString(name):
		d.Kind, d.Trips = drill.Travel, d.Reps
	default:
		return
	}
	d.Reps, d.Sets, d.Sides, d.SaidSides = 0, 0, nil, 0
}

// gaits are counted in lengths.
var gaits = Spaced(`\b(?:runs?|sprints?|jogs?|strides?|shuffles?|cross-steps|carioca|karaoke|skips|lengths|backpedals?|accelerations?|build-ups|bounds)$`)

func whole(n float64) int { return int(math.Round(n)) }

// heardWay is an amount of lengths, or of laps.
func (k *knower) heardWay(a *hear.Amount, d *Dose, name string) {
	ways := max(1, whole(a.Ways), whole(a.Sides)) // there one way and back the other is two lengths
	d.Directions, d.Sides, d.SaidSides = 0, nil, 0
	d.Kind, d.Trips, d.Metres, d.To = drill.Travel, max(1, whole(a.Trips))*ways, math.Round(1000*a.Metres)/1000, a.To
	if d.To != "" && d.Metres == 0 { // a line that nobody measured
		d.Metres = unmeasured
	}
	if a.Laps > 0 {
		d.Laps, d.Metres = max(0.5, a.Laps)*max(1, a.Ways), k.wayRound(name)
		if d.Trips = whole(d.Laps); d.Laps != math.Trunc(d.Laps) { // a lap and a half is one way
			d.Trips, d.Metres = 1, math.Round(d.Laps*d.Metres)
		}
	}
}

// unmeasured is how far it is taken to be to a line of which nobody knows that, in metres.
const unmeasured = 20

var shuttle = pattern.Must(`\b(\d{1,2})-(\d{1,2})-(\d{1,2})\b`)

// heardParts are parts with counts of their own: of two that are alike one with two sides or ways.
func heardParts(a *hear.Amount, d *Dose) {
	if len(a.Parts) == 0 {
		return
	}
	total, same := 0.0, true
	for _, n := range a.Parts {
		total += n
		same = same && n == a.Parts[0]
	}
	switch {
	case same && len(a.Parts) == 2 && a.PartSides:
		d.Reps = int(a.Parts[0])
	case same && len(a.Parts) == 2:
		d.Reps, d.Directions = int(a.Parts[0]), 2
	default:
		d.Reps = int(total)
		if a.PartSides {
			d.Sides, d.SaidSides = 1, 0
		}
	}
}

// OneLine is a text as a note keeps it: nothing in it that cannot be seen, one space where there are several.
func OneLine(text string) string {
	return strings.TrimSpace(spaces.ReplaceAllString(tidySigns(text), " "))
}

// tidySigns leaves the signs of a line as they are but what cannot be seen.
func tidySigns(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsControl(r) && r != '\t' {
			return ' '
		}
		return r
	}, text)
}

// Readings are how else a line could be meant, the best first.
func (r *Reader) Readings(text string) []hear.Reading {
	return hear.Readings(tidySigns(text), lexicon{r})
}

// resolve takes who, where and when as the plan knows them; what it does not know is a cue, so
// that nobody loses it.
func (r *Reader) resolve(l *Line, reading *hear.Reading) {
	l.Who, l.Where, l.Leader, l.Before, l.After = nil, "", "", "", ""
	for _, one := range reading.Who {
		if who := r.audience(strings.TrimSuffix(strings.TrimPrefix(one, "the "), " only")); who != nil {
			l.Who = AppendNew(l.Who, who)
		} else {
			l.Whom = append(l.Whom, one)
		}
	}
	for _, one := range reading.Not {
		if who := r.audience(strings.TrimPrefix(one, "the ")); who != nil {
			l.Not = AppendNew(l.Not, who)
		} else {
			l.Whom = append(l.Whom, "not "+one)
		}
	}
	if reading.Where != "" {
		if l.Where = r.zone(strings.TrimPrefix(strings.ToLower(reading.Where), "the "), byLastWord); l.Where == "" {
			l.Cues = append(l.Cues, reading.Where)
		}
	}
	if reading.Leader != "" {
		s := newScan(r, "", nil)
		if !s.lead(l, reading.Leader) {
			l.Cues = append(l.Cues, "with "+reading.Leader)
		}
	}
	for name, to := range map[string]*string{reading.Before: &l.Before, reading.After: &l.After} {
		if name == "" {
			continue
		}
		known := ""
		for _, one := range slices.Concat(r.Fixed, r.Blocks) {
			if Fold(one) == Fold(name) {
				known = one
			}
		}
		switch {
		case known == "" && to == &l.Before:
			l.Cues = append(l.Cues, "until "+name)
		case known == "":
			l.Cues = append(l.Cues, "after "+name)
		case reading.Right && to == &l.After:
			l.StraightAfter = known
		default:
			*to = known
		}
	}
}
