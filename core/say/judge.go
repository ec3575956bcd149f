package say

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/hear"
	"cuestart/core/measure"
	"cuestart/core/pattern"
)

// named tells whether what a drill is called is a name: the book's, or words of names alone.
func (r *Reader) named(l *Line) bool {
	x := lexicon{r}
	if l.Dose != nil && slices.ContainsFunc(l.Dose.Parts, func(p string) bool {
		return len(p) < 2 && strings.ToUpper(p) != p || slices.ContainsFunc(strings.Fields(p),
			func(w string) bool { return !x.Word(w) && !isPlace(w) })
	}) {
		return false
	}
	if l.Name == "" || l.Is == IsLegs {
		return l.Is == IsLegs
	}
	words := strings.Fields(Fold(l.Name))
	if clockFirst.MatchString(l.Name) {
		return false
	}
	if len(strings.Trim(l.Name, "., ")) < 2 {
		return false
	}
	switch {
	case l.Code != "" && !l.Slip && x.Known(l.Name):
		return true
	case l.Lanes > 0 && l.Code != "" && !strings.ContainsAny(l.Name, ",;0123456789"):
		return true
	case l.Dose != nil && len(l.Dose.Parts) > 1 && !strings.ContainsAny(l.Name, "0123456789;,"):
		return true
	case strings.ContainsAny(l.Name, "0123456789:;,") || len(words) > 5:
		return false
	case l.Dose != nil && l.Dose.To != "" && len(words) <= 3:
		return true
	}
	if andSoMany.MatchString(l.Name) || notNamed.MatchString(l.Name) || hear.Group(l.Name) {
		return false
	}
	return !slices.ContainsFunc(words, func(w string) bool { return slices.Contains(between, w) })
}

// between are words that stand in no short name of a drill.
var between = strings.Fields("off every from by till until then for round & after before when while if just " +
	"each her his my you of but w wit do does else an an' facing vs")

// lost are the numbers of a line that what was read of it does not say again.
func lost(l *Line, text string) (numbers []string) {
	said := figuresOf{}
	l.tells(said)
	if l.At != nil {
		text = clockFirst.ReplaceAllString(text, "")
	}
	if l.Is == IsFixed && l.From != nil {
		text = clocks.ReplaceAllString(text, "")
	}
	if l.Lanes > 0 {
		text = inLines.ReplaceAllString(text, "")
	}
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
	figures = pattern.Must(`\d+`)
	ordinal = pattern.Must(`^\s*[(]?\d{1,2}(?:[.)]| -)\s`)
)

// figuresOf are numbers in all the ways in which they may have been said.
type figuresOf map[string]bool

func (said figuresOf) put(numbers ...float64) {
	for _, n := range numbers {
		for _, one := range []float64{n, 60 * n, n / 60, 100 * n, n / measure.Yard, n / measure.Foot, math.Mod(n, 60)} {
			if whole := math.Round(one); math.Abs(one-whole) < 0.02 {
				said[strconv.Itoa(int(whole))] = true
			}
		}
	}
}

func (said figuresOf) read(text string) {
	for w := range strings.FieldsSeq(strings.ToLower(text)) {
		if n := smallNumbers[strings.Trim(w, ".,:;()")]; n > 0 {
			said[strconv.Itoa(n)] = true
		}
	}
	for _, n := range figures.FindAllString(text, -1) {
		said[n] = true
	}
}

// tells gathers the numbers that a line says.
func (l *Line) tells(said figuresOf) {
	for _, text := range slices.Concat([]string{l.Name, l.Where, l.Leader, l.Note, l.Before, l.After, l.StraightAfter},
		l.Who, l.Whom, l.Not, l.Cues) {
		said.read(text)
	}
	times := []*int{l.At, l.From, l.To}
	if l.Window != nil {
		times = append(times, l.Window[:]...)
	}
	for _, at := range times {
		if at != nil {
			said.put(float64(-*at))
		}
	}
	said.put(float64(l.Times), float64(l.Times)/2, float64(l.Rounds), float64(l.LeastRounds), l.RestSeconds,
		float64(l.Lanes), float64(l.AtOnce), float64(l.Trips), float64(l.Pick), float64(l.Change), float64(l.Waves),
		float64(l.PerLane), float64(l.count))
	if l.Dose != nil {
		l.Dose.tells(said)
	}
	together := 0
	for i := range l.Drills {
		l.Drills[i].tells(said)
		if d := l.Drills[i].Dose; d != nil {
			together += d.Seconds
		}
	}
	said.put(float64(together))
	if l.From != nil && l.To != nil {
		said.put(float64(*l.To - *l.From))
	}
	for _, clock := range l.Clocks {
		said.read(clock)
	}
	for _, n := range l.Stock {
		said.put(float64(n))
	}
}

// tells gathers the numbers of a dose.
func (d *Dose) tells(said figuresOf) {
	said.put(float64(d.Sets), float64(d.LeastSets), float64(d.Reps), float64(d.Directions), d.HoldSeconds,
		float64(d.Breaths), d.RestSeconds, float64(d.Least), float64(d.Trips), d.Laps, math.Floor(d.Laps), d.Metres,
		d.Effort, float64(d.Acts), float64(d.Tries), float64(d.Seconds), float64(d.Seconds*max(1, d.Sets)))
	said.put(d.Efforts...)
	if n := float64(len(d.Efforts)); n > 1 { // ten at each
		said.put(float64(d.Acts)/n, float64(d.Reps)/n, float64(d.Trips)/n)
	}
	said.put(float64(2*d.Reps), float64(2*d.Trips), float64(d.Trips)/2, float64(d.Trips)/4, d.Laps/2, float64(d.Acts)/2,
		float64(d.Seconds)/2, float64(d.Reps*max(1, d.SaidSides))/2, float64(d.Reps)/3, float64(d.Reps)/4)
	all := 0
	for _, n := range slices.Concat(d.Counts...) {
		all += n
	}
	said.put(float64(all), float64(len(d.Columns)), float64(max(1, len(d.Columns))*max(1, len(d.Rows))))
	said.put(d.Tempo...)
	said.read(d.To)
	for _, n := range slices.Concat(append(d.Counts, d.PartReps)...) {
		said.put(float64(n))
	}
}

// better is the better of two readings of a line: that by the rules where they explain it wholly,
// else the one that explains more.
func (r *Reader) better(ruled, heard Line) Line {
	if heard.Is == IsFixed && startFirst.FindString(ruled.Said) == ruled.Said { // what starts is the plan's
		return Line{Is: IsNote, Said: ruled.Said, Note: OneLine(ruled.Said)}
	}
	if heard.Is == IsNote && (ruled.Dose == nil || ruled.Code == "" && heard.Score >= 4.5) &&
		forbids.MatchString(ruled.Said) {
		return heard
	}
	// rounds of one drill with a rest
	times := heard.Dose != nil && heard.Dose.RestSeconds > 0 && heard.Dose.HoldSeconds > 0 && ruled.Rounds > 0 &&
		max(heard.Dose.Sets, heard.Dose.Reps) >= ruled.Rounds
	if surely(&ruled, &heard) || times && len(lost(&heard, heard.Said)) == 0 {
		return heard
	}
	if ruled.Is == IsBlank || heard.Is == "" || heard.Is != IsNote && heard.nameless() ||
		strings.ContainsAny(ruled.Said, "\"{}<>") || strings.HasSuffix(ruled.Said, ":") || r.explained(&ruled, &heard) {
		r.shorten(&ruled, &heard)
		return ruled
	}
	if gone := lost(&heard, heard.Said); len(gone) > 0 {
		noted := ruled
		noted.Note = ""
		if less := len(lost(&noted, ruled.Said)); (less < len(gone) ||
			ruled.Code != "" && (less == len(gone) || len(gone) > 1) && len(lost(&ruled, ruled.Said)) == 0) &&
			ruled.Is != IsNote && (ruled.Dose.structured() || !strings.ContainsAny(ruled.Name, "0123456789:")) {
			return ruled
		}
		heard.Note = OneLine(heard.Said) // so that nothing that was said is lost
	}
	return heard
}

// nameless tells whether what a line is, or one of its drills, has no letter in its name.
func (l *Line) nameless() bool {
	return Fold(l.Name) == "" || slices.ContainsFunc(l.Drills, func(line Line) bool { return Fold(line.Name) == "" })
}

// numberFirst is a line that begins with minutes to go.
var numberFirst = pattern.Must(`^\d{1,3} [a-z]`)

// ofTheirs is one thing to do of which people may choose.
var ofTheirs = pattern.Must(`(?i)^[^:]* or [^:]*\b(?:your|their) choice\b`)

// runs are how many things a line says of how a block is run.
func (l *Line) runs() (n int) {
	for _, ok := range []bool{l.Priority != "", l.Loose, l.Form != "", l.On != "", l.AtOnce > 0, l.Waves > 0,
		l.Lanes > 0, l.Alongside, l.PerLane > 0, l.Phase != "", l.Rounds > 0 && l.RestSeconds > 0, l.Exact,
		l.Pick > 0} {
		if ok {
			n++
		}
	}
	return n
}

// shaped tells whether an amount has a shape that another reading of it lacks: places by places, pairs, a share
// of the ground, a tempo, the least that will do.
func (d *Dose) shaped(other *Dose) bool {
	switch {
	case d == nil:
		return false
	case d.By != "" || d.inAll || d.Share != "" && (other == nil || other.Kind == drill.Travel ||
		other.Directions > 1) || d.WayBack > 0 || d.Unnamed || len(d.Rows) > 0 && len(d.Columns) > 0:
		return true
	case other == nil:
		return false
	case d.Tempo != nil && other.Tempo == nil, other.To != "" && len(d.To) > len(other.To) &&
		strings.HasSuffix(d.To, other.To), d.Least > 0 && other.Least == 0 || d.LeastSets > 0 && other.LeastSets == 0:
		return true
	}
	return (d.Kind == drill.Grid || len(d.Parts) > 0) && !d.halves() && !d.bogus(other)
}

// halves tells whether an amount has two parts of which there is as much: sides, or ways.
func (d *Dose) halves() bool {
	return d != nil && len(d.PartReps) == 2 && d.PartReps[0] == d.PartReps[1]
}

// bogus tells whether what an amount takes for places or parts is none: another reading counts otherwise.
func (d *Dose) bogus(other *Dose) bool {
	if d == nil || other == nil || d.Kind != drill.Grid && len(d.Parts) == 0 || d.Unnamed ||
		len(d.Rows) > 0 && len(d.Columns) > 0 {
		return false
	}
	if other.SaidSides == 2 && other.Directions > 1 && d.Kind == drill.Grid { // four low and four high, each side
		return true
	}
	where := slices.Concat(d.Columns, d.Rows, d.Parts)
	// Y, T and W
	placed := d.SaidSides >= other.SaidSides &&
		!slices.ContainsFunc(where, func(one string) bool { return !isPlace(one) && (len(one) > 1 || one > "Z") })
	return !placed && !sameTotals(d, other)
}

// wayHome is how people come back.
var wayHome = pattern.Must(`(?i)^(?:walk|jog|run|swim|skate|easy) (?:back|home|in|return)`)

// overlooks tells whether the rules took for something else what the other reading knows: strokes in a name for
// its parts, a line of the ground and so many lengths for two times, where something is sent from for where
// people go.
func overlooks(ruled, heard *Line) bool {
	h, d := heard.Dose, ruled.Dose
	if h == nil {
		return false
	}
	if d == nil {
		return ruled.Window != nil && heard.Window == nil && heard.At == nil
	}
	slash := len(d.Parts) > 1 && d.PartReps == nil && h.Parts == nil &&
		strings.Contains(heard.Name, d.Parts[0]+"/"+d.Parts[1])
	from := d.To != "" && h.To == "" && h.Kind != drill.Travel &&
		strings.Contains(strings.ToLower(ruled.Said), "from the "+d.To)
	return slash || from
}

// unitLeft is a cue that begins with a unit whose number was taken for something else.
var unitLeft = pattern.Must(`(?i)^(?:minutes?|mins?|seconds?|secs?|metres?|yards?|reps?|rounds?|sets?)\b`)

// forbids is what nobody is to do.
var forbids = pattern.Must(`(?i)^(?:don'?t|don’t|never|nobody)\b|^(?:then )?(?:re)?join\b|^from \d+\b.* joins?\b|^(?:at|from) \d{1,2} (?:they|we|you|everyone|everybody|all)\b|^(?:in |make |form )?(?:\d+|two|three|four|five|six|a) (?:even |equal |big )?(?:lines|groups|circles?|rows|queues|teams)\b`)

// OwnTime tells whether a line is of one player, at a time: strapping, the physio's table.
func (k *knower) OwnTime(l *Line) bool {
	return len(l.Who) == 1 && l.Window != nil && l.Dose == nil && slices.ContainsFunc(k.Players, func(p Player) bool {
		return strconv.Itoa(p.Number) == l.Who[0] || p.Name == l.Who[0]
	})
}

// doubtful is the score below which a reading by marks is not worth more than one by the rules.
const doubtful, hopeless, vain = 4.6, 3.2, 0.5

// explained tells whether a line says what only the rules know.
func (r *Reader) explained(ruled, heard *Line) bool {
	several := heard.Is == IsCombo && (heard.Times > 1 || heard.Score >= 7) || heard.Is == IsChoice
	if clearly(ruled, heard) {
		return false
	}
	if r.otherwise(ruled, heard) {
		return true
	}
	switch ruled.Is {
	case IsPhase, IsFixed, IsBring, IsStock, IsLegs:
		return true
	case IsBlock:
		return blockStands(ruled, heard, several)
	case IsNote:
		return noteStands(ruled, heard)
	}
	if overheard(ruled, heard) {
		return false
	}
	// ten at 60, ten at 75
	noTime := ruled.At != nil && heard.At == nil && heard.Dose != nil && len(heard.Dose.Efforts) > 1
	if own := r.OwnTime(ruled); own || noTime || strings.EqualFold(heard.Name, "a "+ruled.Name) { // A skip
		return own
	}
	if ruled.Is == IsDrills && heard.Is == IsCombo && heard.Times < 2 { // each with its own amount: drills in turn
		several = !slices.ContainsFunc(heard.Drills, func(line Line) bool {
			return line.Dose == nil || line.Dose.Reps != 1
		}) && several
	}
	if ruled.Is == IsDrill && heard.Is == IsDrill && heard.Score >= vain && len(lost(heard, heard.Said)) == 0 {
		return r.fuller(ruled, heard)
	}
	if several || len(lost(ruled, ruled.Said)) > 0 || likelier(ruled, heard) || overlooks(ruled, heard) ||
		slices.ContainsFunc(slices.Concat(ruled.Cues, strings.Split(ruled.Note, ", ")), unitLeft.MatchString) {
		return false
	}
	if ruled.Is == IsDrills && heard.Times < 2 {
		return r.allKnown(ruled, heard)
	}
	if !r.named(ruled) || strings.ContainsAny(ruled.Note, "0123456789") && !onlyMetres.MatchString(ruled.Note) {
		return false
	}
	if h, d := heard.Dose, ruled.Dose; h != nil && d != nil &&
		(onlyMetres.MatchString(ruled.Note) && h.Kind == drill.Count && (heard.Yards || heard.Feet) ||
			h.SaidSides == 2 && d.Kind == drill.Grid && h.Directions > 1 || d.halves()) {
		return false
	}
	return r.knows(ruled, heard) || ruled.plans() > heard.plans() || ruled.Dose.structured() || agree(ruled, heard) ||
		heard.Is == IsDrill && heard.Score < doubtful && ruled.Dose != nil
}

// allKnown tells whether the drills that were ruled are all the book's, or all said with a dose.
func (r *Reader) allKnown(ruled, heard *Line) bool {
	strange := func(line Line) bool { return line.Code == "" }
	bare := func(line Line) bool { return !r.named(&line) || line.Dose == nil || toldTo.MatchString(line.Name) }
	return heard.Code == "" && !slices.ContainsFunc(ruled.Drills, strange) || !slices.ContainsFunc(ruled.Drills, bare)
}

// clearly tells whether what was heard is so sure, or what was ruled so bare of sense, that nothing
// else is looked at.
func clearly(ruled, heard *Line) bool {
	elsewhen := heard.At != nil && (ruled.At == nil || *ruled.At != *heard.At)
	if clockFirst.MatchString(ruled.Said) && elsewhen && ruled.Is != IsFixed { // 14:20 is nothing to hold
		return true
	}
	heads := heard.Is == IsBlock && heard.Score >= 8 && ruled.Is == IsDrill && ruled.Code == ""
	return heads || inSets(ruled, heard) || ruled.Dose.bogus(heard.Dose) || oneThing(ruled, heard)
}

// likelier tells whether what was heard as a time, a heading or something fixed is likelier than
// the drill that was ruled.
func likelier(ruled, heard *Line) bool {
	switch {
	case heard.At != nil && ruled.At == nil && ruled.Window == nil && ruled.Dose != nil && heard.Dose == nil:
		return true
	case heard.Is == IsBlock && heard.Score >= 6:
		bare := ruled.Dose == nil || len(ruled.Dose.Parts) > 1 && ruled.Dose.Reps == 0
		return bare && ruled.Code == ""
	case heard.Is == IsFixed && heard.Score >= 6:
		return heard.At != nil && ruled.Dose == nil
	}
	return false
}

// noteStands tells whether what the rules read as a remark is one, whatever else is heard.
func noteStands(ruled, heard *Line) bool {
	if asideOf.MatchString(ruled.Said) && heard.Dose == nil && heard.Is != IsFixed {
		return true
	}
	return !strings.ContainsAny(ruled.Said, "0123456789") && len(strings.Fields(ruled.Said)) > 4 &&
		!(heard.Is == IsDrill && heard.Dose != nil && heard.Score >= 4.5)
}

// blockStands tells whether what the rules read as a block is one, whatever else is heard.
func blockStands(ruled, heard *Line, several bool) bool {
	those := ofThose.MatchString(ruled.Said)
	doubted := heard.Is != IsDrill || heard.Dose == nil || heard.Score < 5 && !(those && heard.Score >= 2)
	switch {
	case heard.Is == IsChoice && ofTheirs.MatchString(ruled.Said):
		return false
	case (ruled.Form != "" || ruled.Pick > 0) && !those:
		return true
	}
	// who, where, in which order: "High balls: Back three, Far half, in any order"
	planned := ruled.plans() > 2 && ruled.plans() > heard.plans()
	return !several && doubted || planned && heard.Is == IsDrill
}

// fuller tells whether the rules, where both read one drill, lose nothing and know more of it than what is heard: its
// shape, who, where or when, how it is run.
func (r *Reader) fuller(ruled, heard *Line) bool {
	shaped := ruled.Dose.shaped(heard.Dose)
	switch {
	case len(lost(ruled, ruled.Said)) > 0 || !r.named(ruled), ruled.Dose == nil && heard.Dose != nil,
		ruled.Rounds > 0 && ruled.RestSeconds == 0 && !shaped:
		return false
	case shaped, eachSide(ruled, heard), morePeople(ruled, heard), r.wholeName(ruled, heard):
		return true
	}
	alike := agree(ruled, heard) && heard.plans() <= ruled.plans() && !ruled.Dose.halves() &&
		(heard.Dose == nil || heard.Dose.SaidSides <= ruled.Dose.SaidSides)
	return alike || ruled.runs() > heard.runs() || ruled.plans() > heard.plans()
}

// overheard tells whether the rules missed people, or drills, of a line in which several are done.
func overheard(ruled, heard *Line) bool {
	if ruled.Is != IsDrills || heard.Is != IsCombo {
		return false
	}
	noted := slices.ContainsFunc(ruled.Drills, func(line Line) bool { return line.Note != "" })
	return len(heard.Who)+len(heard.Whom) > len(ruled.Who)+len(ruled.Whom) ||
		noted && len(heard.Drills) > len(ruled.Drills)
}

// surely tells whether a line is no drill, as sure as can be, where the rules read one that is not in the book or of
// which nothing is said.
func surely(ruled, heard *Line) bool {
	const enough = 0.75
	none := heard.Is == IsBlock || heard.Is == IsFixed || heard.Is == IsNote
	return none && heard.sure >= enough && ruled.Is == IsDrill && (ruled.Code == "" || ruled.Dose == nil) &&
		!heard.nameless() && len(lost(heard, heard.Said)) == 0
}

// oneThing tells whether a line's words say that one thing is done, of which the rules make several, and more than
// parts of the body: those have a drill each.
func oneThing(ruled, heard *Line) bool {
	if ruled.Is != IsDrills || heard.Is != IsDrill || heard.Dose == nil {
		return false
	}
	sure := heard.Score >= doubtful && len(lost(heard, heard.Said)) == 0
	own := heard.one && slices.ContainsFunc(ruled.Drills, func(line Line) bool { return line.Code == "" })
	uncounted := len(ruled.Drills) > 0 && ruled.Drills[0].Dose == nil
	return sure && (own || uncounted) ||
		slices.ContainsFunc(ruled.Drills, func(line Line) bool { return wayHome.MatchString(line.Name) })
}

// otherwise tells whether the rules know of a line what it is: a drill of the book with a comma in its name, more
// drills, rounds of a block, minutes to go at its beginning.
func (r *Reader) otherwise(ruled, heard *Line) bool {
	if ruled.Is == IsDrill && heard.Is == IsDrill && strings.ContainsAny(ruled.Name, ",:") &&
		(lexicon{r}).Known(ruled.Name) {
		return true
	}
	if heard.Is == IsCombo &&
		(ruled.Is == IsDrill && (strings.ContainsAny(ruled.Name, ",:") && (lexicon{r}).Known(ruled.Name) ||
			ruled.Dose != nil && len(ruled.Dose.Parts) > 2) || len(ruled.Drills) > len(heard.Drills)) {
		return true
	}
	return ruled.Is == IsBlock && ruled.Rounds > 0 && heard.Is == IsDrill ||
		ruled.At != nil && heard.At == nil && numberFirst.MatchString(ruled.Said)
}

// knows tells whether the rules know more of a line: a longer name that is known, the least of an amount, a
// ladder, that nothing is fixed.
func (r *Reader) knows(ruled, heard *Line) bool {
	switch known := (lexicon{r}).Known(ruled.Name); {
	case r.wholeName(ruled, heard),
		(known || ruled.Code != "") && ruled.Dose == nil && heard.Dose == nil && heard.Is == IsDrill &&
			len(ruled.Name) > len(heard.Name),
		ruled.Code != "" && heard.Code == "" && heard.Is == IsDrill && ruled.Dose != nil && heard.Dose != nil &&
			sameTotals(ruled.Dose, heard.Dose),
		ruled.Code != "" && ruled.Code == heard.Code && ruled.Dose != nil && heard.Dose != nil &&
			ruled.Dose.Metres > 0 && heard.Dose.Metres == 0,
		eachSide(ruled, heard),
		onlyMetres.MatchString(ruled.Note) && strings.Contains(ruled.Note, ","), // a ladder
		ruled.Lanes > 0 && ruled.Code != "" && ruled.Code == heard.Code,
		morePeople(ruled, heard),
		ruled.Dose != nil && heard.Dose != nil && (ruled.Dose.Least > 0 && heard.Dose.Least == 0 ||
			ruled.Dose.LeastSets > 0 && heard.Dose.LeastSets == 0),
		heard.Is == IsFixed && heard.From == nil && len(strings.Fields(heard.Said)) == 1,
		heard.Is == IsFixed && heard.From == nil && (ruled.Code != "" || ruled.Window != nil),
		heard.Is == IsBlock && ruled.Dose == nil && (ruled.Window != nil && !hear.Group(ruled.Name) || known):
		return true
	}
	return false
}

// eachSide tells whether the rules alone know that what is counted of a drill of the book is each side's.
func eachSide(ruled, heard *Line) bool {
	d, h := ruled.Dose, heard.Dose
	return d != nil && h != nil && ruled.Code != "" && ruled.Code == heard.Code && d.SaidSides > h.SaidSides &&
		d.Kind == h.Kind && d.Reps == h.Reps && len(h.Parts) == 0
}

// wholeName tells whether the rules have the whole of a name that is known, of which the other is a part: scrum sets.
func (r *Reader) wholeName(ruled, heard *Line) bool {
	d, h := ruled.Dose, heard.Dose
	return d != nil && h != nil && sameTotals(d, h) && len(ruled.Name) > len(heard.Name) &&
		(lexicon{r}).Known(ruled.Name)
}

// morePeople tells whether the rules know more of those who do a drill of the book: 9, 10 and 15.
func morePeople(ruled, heard *Line) bool {
	return ruled.Code != "" && ruled.Code == heard.Code && len(ruled.Who) > len(heard.Who)+len(heard.Whom)
}

// inSets tells whether rounds of one drill are its sets: two rounds of ten.
func inSets(ruled, heard *Line) bool {
	return ruled.Rounds > 1 && ruled.Is == IsDrill && heard.Dose != nil && heard.Dose.Sets == ruled.Rounds &&
		oneInRounds.MatchString(ruled.Said)
}

// agree tells whether two readings are of the same drill and as much of it.
func agree(a, b *Line) bool {
	if a.Is != IsDrill || b.Is != IsDrill || (a.Dose == nil) != (b.Dose == nil) ||
		len(a.Who) != len(b.Who)+len(b.Whom) {
		return false
	}
	if a.Dose != nil && !sameTotals(a.Dose, b.Dose) {
		return false
	}
	if a.Dose != nil && (a.Dose.Kind == drill.Hold && b.Dose.Kind == drill.Reps ||
		b.Dose.RestSeconds != a.Dose.RestSeconds || b.Dose.Effort != a.Dose.Effort ||
		len(b.Dose.Efforts) != len(a.Dose.Efforts)) {
		return false
	}
	return a.Code != "" && a.Code == b.Code || unspaced(plainName(a.Name)) == unspaced(plainName(b.Name))
}

// andSoMany is a second thing that is counted: "plank and ten calf raises".
var andSoMany = pattern.Must(`(?i) and (?:two|three|four|five|six|seven|eight|nine|ten|twelve|fifteen|twenty|thirty) `)

// notNamed are names that hold what is told beside them.
var notNamed = pattern.Must(`(?i: - | no | and back(?:wards)?$)|(?i: (?:on|all|in|to|at|with|for|s|the|a)$)|(?i:\b(?:low|tall|soft|quiet|loose|easy|big) (?:hips|hands|feet|knees|arms|chest)\b)|(?i:\b(?:hands|eyes|chest|head|heels|toes|hips|elbows) (?:up|down|high|low|in)$)| (?:with|w) [A-Z]`)

// oneInRounds are rounds of one thing: two rounds of ten.
var oneInRounds = Spaced(`\brounds?~of~` + num)

var inLines = pattern.Must(`(?i)\blines of \d+`)

// clocks are times of the day.
var clocks = pattern.Must(`\b\d{1,2}[:.]\d\d\b`)

var clockFirst = pattern.Must(`^\d{1,2}[:.]\d\d `)

// timesLength is how often and how far: 3 x 15 m.
var timesLength = pattern.Must(`(?i)\d ?x ?\d+ ?(?:m|yds?|yards?|ft|feet)\b`)

var ofThose = pattern.Must(`(?i)\bof (?:them|those|these|em)\b`)

// toldTo are names that are none: what is said to players.
var toldTo = pattern.Must(`(?i)^(?:then|and|go|swap|sit|drink|rest|keep|feet|cheek|no)\b`)

var onlyMetres = pattern.Must(`^[\d.]+ m(?:, [\d.]+ m)*$`)

// plans are how many things of the plan a line speaks of.
func (l *Line) plans() (n int) {
	for _, ok := range []bool{len(l.Who) > 0, l.Where != "", l.Leader != "", l.Priority != "", l.Loose, l.Before != "",
		l.After != "", l.StraightAfter != "", l.Window != nil, l.At != nil, l.Form != "", l.On != "", l.AtOnce > 0,
		l.Waves > 0, l.Lanes > 0, l.Alongside, l.Rounds > 0, l.PerLane > 0, l.Phase != ""} {
		if ok {
			n++
		}
	}
	return n
}

// structured tells whether a dose has places, parts or pairs.
func (d *Dose) structured() bool {
	return d != nil && (d.Kind == drill.Grid || d.By != "" || len(d.Parts) > 0 || d.inAll || d.Tempo != nil ||
		d.Share != "" || d.WayBack > 0)
}

// sameTotals tells whether two doses are as much.
func sameTotals(a, b *Dose) bool { return a.total() == b.total() }

// total is how much a dose is: how many, how far, for how long.
func (d *Dose) total() [3]float64 {
	ways := max(1, d.SaidSides) * max(1, d.Directions)
	reps := max(1, d.Sets) * max(1, d.Reps) * ways
	if reps *= max(1, len(d.Parts)); len(d.PartReps) > 0 {
		reps = 0
		for _, n := range d.PartReps {
			reps += n * max(1, d.Sets) * ways
		}
	}
	switch d.Kind {
	case drill.Count:
		reps = d.Acts
	case drill.Grid:
		reps = d.Tries * max(1, len(d.Rows)) * max(1, len(d.Columns))
		for _, row := range d.Counts {
			for _, n := range row {
				reps += n
			}
		}
	case drill.Time:
		return [3]float64{1, 0, float64(d.Seconds)}
	}
	return [3]float64{float64(reps), float64(d.Trips*ways) * max(1, d.Metres), d.HoldSeconds + 4*float64(d.Breaths)}
}

// howAtEnd is what begins words behind a name that say where and how it is done.
var howAtEnd = pattern.Must(`(?i)^(?:in|on|at|inside|outside|by|behind|near|beside|along|between|around|round|off|against|edge|with|w|w/|hands?|keep|no|without|while|facing|vs)\b`)

// shorten gives a reading by the rules the name that the other has, where that is the same without where and how
// it is done, which is told.
func (r *Reader) shorten(ruled, heard *Line) {
	if strings.Contains(ruled.Said, `"`+ruled.Name+`"`) { // its coach said what it is called
		return
	}
	if ruled.Is != IsDrill || heard.Is != IsDrill || (lexicon{r}).Known(ruled.Name) || ruled.Dose == nil ||
		heard.Dose == nil || heard.Name == "" || len(heard.Name) >= len(ruled.Name) {
		return
	}
	long, short := strings.ToLower(ruled.Name), strings.ToLower(heard.Name)
	at := strings.Index(" "+long+" ", " "+short+" ")
	if at < 0 || !sameTotals(ruled.Dose, heard.Dose) && ruled.Dose.Kind != drill.Grid || heard.Score < vain {
		return
	}
	first, rest := strings.TrimSpace(ruled.Name[:at]), strings.TrimSpace(ruled.Name[at+len(short):])
	if rest != "" && !howAtEnd.MatchString(rest) || ruled.Code != "" && heard.Code == "" ||
		first != "" && len(heard.Who)+len(heard.Whom) <= len(ruled.Who)+len(ruled.Whom) {
		return
	}
	if first != "" {
		ruled.Who, ruled.Whom = heard.Who, heard.Whom
	}
	if ruled.Leader == "" && heard.Leader != "" {
		ruled.Leader, rest = heard.Leader, ""
	}
	if rest != "" && !slices.ContainsFunc(ruled.Cues, func(cue string) bool { return strings.Contains(cue, rest) }) {
		ruled.Cues = append(ruled.Cues, rest)
	}
	ruled.Name, ruled.Code, ruled.Likely, ruled.Slip = heard.Name, heard.Code, heard.Likely, heard.Slip
}
