package say

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/drill"
	"cuestart/core/hear"
	"cuestart/core/measure"
	"cuestart/core/movement"
)

// lexicon is what a reader knows of words.
type lexicon struct{ *Reader }

func (x lexicon) Moves(text string) bool {
	moves, known := x.moves[text]
	if !known {
		moves = movement.Lead(text) != ""
		x.moves[text] = moves
	}
	return moves
}

func (x lexicon) Known(name string) bool {
	return x.known.called[unspaced(plainName(name))] || x.known.called[strings.Join(keyWords(name), " ")]
}

func (x lexicon) Word(word string) bool { return x.known.words[stem(plainName(word))] }

func (x lexicon) Still(name string) bool {
	if k, _ := x.known.find(name); k != nil {
		return k.Dose.Kind == drill.Hold
	}
	u, moves := movement.Of(name)
	return moves && u.Effort < 0.35 && !u.Travels && stillWords.MatchString(name)
}

func (x lexicon) Goes(name string) bool {
	if k, _ := x.known.find(name); k != nil {
		return k.Dose.Kind == drill.Travel
	}
	u, moves := movement.Of(name)
	return moves && u.Travels
}

func (x lexicon) Person(text string) bool {
	name := strings.TrimPrefix(fold(text), "the ")
	if name == "everyone" || name == "everybody" || name == "all" {
		return true
	}
	return slices.ContainsFunc(x.people, func(n named) bool { return n.fold == name || n.fold+"s" == name })
}

func (x lexicon) Leads(text string) bool {
	return slices.ContainsFunc(x.staff, func(n named) bool { return n.fold == fold(text) })
}

func (x lexicon) Place(text string) bool {
	return slices.ContainsFunc(x.Zones, func(z string) bool { return fold(z) == fold(text) })
}

func (x lexicon) Line(text string) (float64, bool) {
	if x.Plays == nil {
		return 0, false
	}
	l, ok := x.Plays.Line(text)
	return l.Metres, ok
}

var stillWords = pattern(`\b(?:hold|holds|stretch|stretches|plank|planks|iso|isos|pose|sit|sits|hang|position|pigeon|copenhagens?|balance|squeeze)\b`)

// Heard is the line as the marks and readings of package hear have it.
func (r *Reader) Heard(text string) Line {
	is := hear.Line(tidySigns(text), lexicon{r})
	l := Line{Said: text, Cues: is.Cues, At: is.At, score: is.Score}
	r.resolve(&l, &is)
	if is.From != nil || is.To != nil || is.Done != nil {
		l.Window = &Window{is.From, is.To}
		if is.Done != nil {
			l.Window[1] = is.Done
		}
	}
	switch is.Is {
	case hear.Drill:
		l.Is = IsDrill
		r.hearDrill(&l, is.Name, &is.Amount)
		if m := backOf.FindStringSubmatch(" " + text); m != nil && l.Dose != nil {
			l.Dose.back = backPace[strings.ToLower(m[2])]
		}
	case hear.Combo:
		l.Is, l.Name, l.Times, l.RestSeconds = IsCombo, is.Name, int(is.Times), is.Amount.Rest
		for _, e := range is.Amount.Efforts {
			l.Cues = append(l.Cues, strconv.Itoa(int(100*e+0.5))+" %")
		}
		for _, s := range is.Steps {
			one := Line{Is: IsDrill}
			r.hearDrill(&one, s.Name, &s.Amount)
			l.Drills = append(l.Drills, one)
		}
	case hear.Choice:
		l.Is, l.Name = IsChoice, is.Name
		for _, name := range is.Choices {
			one := Line{Is: IsDrill}
			r.hearDrill(&one, name, &is.Amount)
			l.Drills = append(l.Drills, one)
		}
	case hear.Heading:
		l.Is, l.Name = IsBlock, is.Name
	case hear.Fixed:
		l.Is, l.Name, l.From, l.To = IsFixed, is.Name, is.From, is.To
		if is.At != nil {
			l.From = is.At
		}
		if l.From != nil && l.To == nil {
			ends := min(0, *l.From+fixedLasts)
			if is.Amount.Seconds > 0 {
				ends = min(0, *l.From+int(is.Amount.Seconds))
			}
			l.To = &ends
		}
	case hear.Remark:
		l.Is, l.Note = IsNote, text
	}
	return l
}

// fixedLasts is how long something fixed takes of which only the start was said, in seconds.
const fixedLasts = 300

// hearDrill fills in a drill by its name and how much of it was said.
func (r *Reader) hearDrill(l *Line, name string, a *hear.Amount) {
	l.Name = strings.ReplaceAll(name, "’", "'")
	k, likely, spelt := r.known.seek(l.Name)
	if k != nil {
		l.Code, l.slip = k.Code, !spelt
	}
	for _, other := range likely {
		l.Likely = append(l.Likely, other.Name)
	}
	l.Yards, l.Feet = a.Unit == "yd", a.Unit == "ft"
	if d := r.heardDose(a, name); d != nil {
		l.Dose = d
	}
}

// heardDose is an amount as a dose; nil where nothing was said.
func (r *Reader) heardDose(a *hear.Amount, name string) *Dose {
	whole := func(n float64) int { return int(math.Round(n)) }
	d := &Dose{Sets: whole(a.Sets), LeastSets: whole(a.LeastSets), Least: whole(a.Least), RestSeconds: a.Rest, Tempo: a.Tempo}
	if a.Sides == 2 {
		d.Sides, d.sides = 2, 2
	}
	if a.Ways == 2 {
		d.Directions = 2
	}
	if len(a.Efforts) == 1 {
		d.Effort = a.Efforts[0]
	} else {
		d.Efforts = a.Efforts
	}
	if m := shuttle.FindStringSubmatch(name); m != nil && a.Trips == 0 && a.Seconds == 0 { // 5-10-5: out, across and back
		a.Trips, a.Metres = max(1, a.Reps), float64(number(m[1])+number(m[2])+number(m[3]))
	}
	switch {
	case a.Trips > 0 || a.Laps > 0:
		d.Kind, d.Trips, d.Metres, d.To = drill.Travel, max(1, whole(a.Trips)), math.Round(1000*a.Metres)/1000, a.To
		if d.To != "" && d.Metres == 0 { // a line that nobody measured
			d.Metres = unmeasured
		}
		if a.Laps > 0 {
			d.Laps, d.Metres = max(1, whole(a.Laps)), r.wayRound(name)
			d.Trips = d.Laps
		}
	case a.Seconds > 0 && max(a.Sets, a.Reps) > 1: // so often so long
		d.Kind, d.Sets, d.Reps, d.HoldSeconds = drill.Hold, 1, whole(max(a.Sets, a.Reps)), a.Seconds
		if d.LeastSets > 0 {
			d.Least = 0
		}
	case a.Seconds > 0:
		d.Kind, d.Seconds, d.Sets = drill.Time, whole(a.Seconds), 0
	case (a.Hold > 0 || a.Breaths > 0) && !a.Counted:
		d.Kind, d.HoldSeconds, d.Breaths, d.Reps = drill.Hold, a.Hold, whole(a.Breaths), max(1, whole(a.Reps))
		if a.Ways > 2 {
			d.Reps *= whole(a.Ways)
		}
	case a.Reps > 0 || len(a.Parts) > 0:
		d.Kind, d.Reps, d.HoldSeconds, d.Breaths = drill.Reps, whole(a.Reps), a.Hold, whole(a.Breaths)
		if a.Ways > 2 {
			d.Reps *= whole(a.Ways)
		}
		r.heardParts(a, d)
	default:
		if d.Effort == 0 && d.Efforts == nil || !(lexicon{r}).Goes(name) {
			return nil
		}
		d.Kind, d.Trips = drill.Travel, max(1, len(d.Efforts))
	}
	if d.Kind == drill.Reps || d.Kind == drill.Hold {
		d.Sets = max(1, d.Sets)
		if d.Sides == nil {
			d.Sides = 1
		}
	}
	return d
}

// unmeasured is how far it is taken to be to a line of which nobody knows that, in metres.
const unmeasured = 20

var shuttle = regexp.MustCompile(`\b(\d{1,2})-(\d{1,2})-(\d{1,2})\b`)

// heardParts are parts with counts of their own: of two that are alike one with two sides or ways.
func (r *Reader) heardParts(a *hear.Amount, d *Dose) {
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
			d.Sides, d.sides = 1, 0
		}
	}
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

// named tells whether what a drill is called is a name: the book's, or words of names alone.
func (r *Reader) named(l *Line) bool {
	x := lexicon{r}
	if l.Dose != nil && slices.ContainsFunc(l.Dose.Parts, func(p string) bool { return len(p) < 2 && strings.ToUpper(p) != p || !x.Word(p) }) {
		return false
	}
	if l.Name == "" || l.Is == IsLegs {
		return l.Is == IsLegs
	}
	words := strings.Fields(fold(l.Name))
	switch {
	case l.Code != "" && !l.slip && x.Known(l.Name):
		return true
	case strings.ContainsAny(l.Name, "0123456789:;,") || len(words) > 5:
		return false
	case l.Dose != nil && l.Dose.To != "" && len(words) <= 3:
		return true
	}
	if notNamed.MatchString(l.Name) || hear.Group(l.Name) {
		return false
	}
	return !slices.ContainsFunc(words, func(w string) bool { return slices.Contains(between, w) })
}

// between are words that stand in no short name of a drill.
var between = strings.Fields("off every from by till until then for round & after before when while if just each her his my you of but w wit do an an' facing")

// lost are the numbers of a line that what was read of it does not say again.
func lost(l *Line, text string) (numbers []string) {
	said := map[string]bool{}
	l.tells(said)
	for _, w := range strings.Fields(strings.ToLower(text)) {
		if n := smallNumbers[strings.Trim(w, ".,:;")]; n > 2 && !said[strconv.Itoa(n)] {
			numbers = append(numbers, w)
		}
	}
	for _, n := range figures.FindAllString(ordinal.ReplaceAllString(text, ""), -1) {
		if !said[strings.TrimLeft(n, "0")] && !said[n] {
			numbers = append(numbers, n)
		}
	}
	return numbers
}

var (
	figures = regexp.MustCompile(`\d+`)
	ordinal = regexp.MustCompile(`^\s*[(]?\d{1,2}(?:[.)]| -)\s`)
)

// tells gathers the numbers that a line says, in any of the ways in which they are said.
func (l *Line) tells(said map[string]bool) {
	put := func(numbers ...float64) {
		for _, n := range numbers {
			for _, one := range []float64{n, n / 2, 60 * n, n / 60, 100 * n, n / measure.Yard, n / measure.Foot, math.Mod(n, 60)} {
				if whole := math.Round(one); math.Abs(one-whole) < 0.02 {
					said[strconv.Itoa(int(whole))] = true
				}
			}
		}
	}
	for _, text := range slices.Concat([]string{l.Name, l.Where, l.Leader, l.Note, l.Before, l.After, l.StraightAfter}, l.Who, l.Whom, l.Not, l.Cues) {
		for w := range strings.FieldsSeq(strings.ToLower(text)) {
			if n := smallNumbers[strings.Trim(w, ".,:;()")]; n > 0 {
				said[strconv.Itoa(n)] = true
			}
		}
		for _, n := range figures.FindAllString(text, -1) {
			said[n] = true
		}
	}
	for _, at := range []*int{l.At, l.From, l.To} {
		if at != nil {
			put(float64(-*at))
		}
	}
	if l.Window != nil {
		for _, at := range l.Window {
			if at != nil {
				put(float64(-*at))
			}
		}
	}
	put(float64(l.Times), float64(l.Rounds), float64(l.LeastRounds), l.RestSeconds, float64(l.Lanes), float64(l.AtOnce), float64(l.Trips), float64(l.Pick), float64(l.Change), float64(l.Waves), float64(l.PerLane), float64(l.count))

	if d := l.Dose; d != nil {
		put(float64(d.Sets), float64(d.LeastSets), float64(d.Reps), float64(d.Directions), d.HoldSeconds, float64(d.Breaths), d.RestSeconds, float64(d.Least), float64(d.Trips), float64(d.Laps), d.Metres, d.Effort, float64(d.Acts), float64(d.Tries), float64(d.Seconds), float64(d.Seconds*max(1, d.Sets)))
		put(d.Efforts...)
		put(d.Tempo...)
		for _, n := range figures.FindAllString(d.To, -1) {
			said[n] = true
		}
		for _, n := range d.PartReps {
			put(float64(n))
		}
		for _, row := range d.Counts {
			for _, n := range row {
				put(float64(n))
			}
		}
	}
	for i := range l.Drills {
		l.Drills[i].tells(said)
	}
	for _, n := range l.Stock {
		put(float64(n))
	}
}

// better is the better of two readings of a line: that by the rules where they explain it wholly,
// else the one that explains more.
func (r *Reader) better(ruled, heard Line) Line {
	if ruled.Is == IsBlank || heard.Is == "" || heard.Is != IsNote && fold(heard.Name) == "" || strings.ContainsAny(ruled.Said, "\"{}") || strings.HasSuffix(ruled.Said, ":") || r.explained(&ruled, &heard) {
		return ruled
	}
	if gone := lost(&heard, heard.Said); len(gone) > 0 {
		if len(lost(&ruled, ruled.Said)) < len(gone) && ruled.Is != IsNote && !strings.ContainsAny(ruled.Name, "0123456789:") {
			return ruled
		}
		heard.Note = heard.Said // so that nothing that was said is lost
	}
	return heard
}

// ownTime tells whether a line is of one player, at a time: strapping, the physio's table.
func (r *Reader) ownTime(l *Line) bool {
	return len(l.Who) == 1 && l.Window != nil && l.Dose == nil && slices.ContainsFunc(r.Players, func(p Player) bool {
		return strconv.Itoa(p.Number) == l.Who[0] || p.Name == l.Who[0]
	})
}

// doubtful is the score below which a reading by marks is not worth more than one by the rules.
const doubtful, hopeless = 4.6, 3.2

// explained tells whether the rules explain a line wholly: by a name that is one, with nothing
// lost, or by what only they know.
func (r *Reader) explained(ruled, heard *Line) bool {
	several := heard.Is == IsCombo && heard.Times > 1 || heard.Is == IsChoice
	amount := strings.ContainsAny(ruled.Said, "0123456789")
	if (heard.Is == IsDrill && (heard.score < doubtful && r.named(ruled) && ruled.Dose != nil || heard.score < hopeless && !strings.ContainsAny(ruled.Name, "0123456789")) || r.ownTime(ruled)) && !several && (ruled.Is == IsDrill || ruled.Is == IsDrills) && len(lost(ruled, ruled.Said)) == 0 {
		return true
	}
	switch ruled.Is {
	case IsPhase, IsFixed, IsBring, IsStock, IsLegs:
		return true
	case IsBlock:
		if ruled.Form != "" || ruled.Pick > 0 && !ofThose.MatchString(ruled.Said) {
			return true
		}
		return !several && (heard.Is != IsDrill || heard.Dose == nil || heard.score < 5)
	case IsNote:
		return !amount && len(strings.Fields(ruled.Said)) > 4
	case IsDrills:
		return !several && !slices.ContainsFunc(ruled.Drills, func(one Line) bool { return !r.named(&one) || one.Dose == nil || told.MatchString(one.Name) })
	}
	x, structured := lexicon{r}, ruled.Dose.structured()
	switch {
	case structured && ruled.Dose.Kind == drill.Grid && len(ruled.Dose.Counts) > 0, structured && len(ruled.Dose.Parts) > 1 && len(lost(ruled, ruled.Said)) < len(lost(heard, heard.Said)),
		heard.Is == IsDrill && ruled.Dose == nil && heard.Dose == nil && len(strings.Fields(ruled.Name)) <= 3 && ruled.Note == "" && !notNamed.MatchString(ruled.Name):
		return true
	case several || !r.named(ruled) || strings.ContainsAny(ruled.Note, "0123456789") && !onlyMetres.MatchString(ruled.Note):
		return false
	case ruled.plans() > heard.plans(), heard.Is == IsDrill && ruled.Dose == nil && heard.Dose == nil, r.phase(ruled.Name) != "" || x.Known(ruled.Name) && ruled.Dose != nil && structured:
		return true
	case ruled.Code == "" && heard.score >= 5 && (heard.Is == IsFixed && heard.From != nil || heard.Is == IsBlock):
		return false
	case heard.Is == IsFixed && heard.From != nil && ruled.Dose == nil, heard.Is == IsBlock && ruled.Dose == nil && ruled.Code == "" && heard.score > 2.5:
		return false
	case !structured && !x.Known(ruled.Name) && len(heard.Who)+len(heard.Whom) > len(ruled.Who) && heard.Is == IsDrill && !strings.EqualFold(ruled.Name, heard.Name) && strings.HasSuffix(strings.ToLower(ruled.Name), strings.ToLower(heard.Name)):
		return false
	case ruled.Dose != nil && heard.Dose != nil && !structured && ruled.Dose.Least == 0 && ruled.Dose.LeastSets == 0:
		h, d := heard.Dose, ruled.Dose
		if h.Kind == drill.Reps && h.HoldSeconds+float64(h.Breaths) > 0 && (d.Kind == drill.Hold || d.HoldSeconds+float64(d.Breaths) == 0) || max(1, h.Sets)*max(1, h.Reps) > max(1, d.Sets)*max(1, d.Reps, d.Acts, d.Trips) || h.RestSeconds > 0 && d.RestSeconds == 0 && ruled.RestSeconds == 0 || len(h.Efforts) > len(d.Efforts) || h.Effort > 0 && d.Effort == 0 && d.Efforts == nil {
			return false
		}
	case ruled.Dose == nil && heard.Dose != nil && amount:
		return false
	}
	return ruled.Dose != nil || !amount || ruled.Form != "" || ruled.At != nil || ruled.Window != nil
}

// notNamed are names that hold what is told beside them.
var notNamed = regexp.MustCompile(`(?i: (?:on|all|in|to|at|with|for|s|the|a)$)|(?i:\b(?:low|tall|soft|quiet|loose|easy|big) (?:hips|hands|feet|knees|arms|chest)\b)| (?:with|w) [A-Z]`)

var ofThose = regexp.MustCompile(`(?i)\bof (?:them|those|these)\b`)

// told are names that are none: what is said to players.
var told = regexp.MustCompile(`(?i)^(?:then|and|swap|sit|drink|rest|keep|feet|cheek|no)\b`)

var onlyMetres = regexp.MustCompile(`^[\d.]+ m$`)

// plans are how many things of the plan a line speaks of.
func (l *Line) plans() (n int) {
	for _, is := range []bool{len(l.Who) > 0, l.Where != "", l.Leader != "", l.Priority != "", l.Loose, l.Before != "", l.After != "", l.StraightAfter != "", l.Window != nil, l.At != nil, l.Form != "", l.On != "", l.AtOnce > 0, l.Waves > 0, l.Lanes > 0, l.Alongside, l.Rounds > 0, l.PerLane > 0, l.Phase != ""} {
		if is {
			n++
		}
	}
	return n
}

// structured tells whether a dose has places, parts or pairs.
func (d *Dose) structured() bool {
	return d != nil && (d.Kind == drill.Grid || d.By != "" || len(d.Parts) > 0 || d.inAll || d.Tempo != nil || d.Share != "" || d.back > 0)
}

// sameTotals tells whether two doses are as much.
func sameTotals(a, b *Dose) bool {
	total := func(d *Dose) [3]float64 {
		sides := max(1, d.sides)
		reps := max(1, d.Sets) * max(1, d.Reps) * sides * max(1, d.Directions)
		if d.Kind == drill.Count {
			reps = d.Acts
		}
		if d.Kind == drill.Time {
			return [3]float64{1, 0, float64(d.Seconds)}
		}
		return [3]float64{float64(reps), float64(d.Trips) * max(1, d.Metres), d.HoldSeconds + 4*float64(d.Breaths)}
	}
	return total(a) == total(b)
}

// resolve takes who, where and when as the plan knows them; what it does not know is a cue, so
// that nobody loses it.
func (r *Reader) resolve(l *Line, is *hear.Reading) {
	l.Who, l.Where, l.Leader, l.Before, l.After = nil, "", "", "", ""
	for _, one := range is.Who {
		if who := r.audience(strings.TrimSuffix(strings.TrimPrefix(one, "the "), " only")); who != nil {
			l.Who = appendNew(l.Who, who)
		} else {
			l.Whom = append(l.Whom, one)
		}
	}
	for _, one := range is.Not {
		if who := r.audience(strings.TrimPrefix(one, "the ")); who != nil {
			l.Not = appendNew(l.Not, who)
		} else {
			l.Whom = append(l.Whom, "not "+one)
		}
	}
	if is.Where != "" {
		if l.Where = r.zone(strings.TrimPrefix(strings.ToLower(is.Where), "the "), true); l.Where == "" {
			l.Cues = append(l.Cues, is.Where)
		}
	}
	if is.Leader != "" {
		s := &scan{Reader: r}
		if !s.lead(l, is.Leader) {
			l.Cues = append(l.Cues, "with "+is.Leader)
		}
	}
	for name, to := range map[string]*string{is.Before: &l.Before, is.After: &l.After} {
		if name == "" {
			continue
		}
		known := ""
		for _, one := range slices.Concat(r.Fixed, r.Blocks) {
			if fold(one) == fold(name) {
				known = one
			}
		}
		switch {
		case known == "" && to == &l.Before:
			l.Cues = append(l.Cues, "until "+name)
		case known == "":
			l.Cues = append(l.Cues, "after "+name)
		case is.Right && to == &l.After:
			l.StraightAfter = known
		default:
			*to = known
		}
	}
}
