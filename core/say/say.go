// Package say reads a warm-up as coaches say it, a line at a time. Package
// [cuestart/core/pen] writes what was read onto a plan, and a plan as such lines.
//
// A [Reader] knows the plan's people, places and drills by name. What it reads of a
// line is a [Line]: a phase, something fixed, a block, a line of legs, a drill or
// several. A line is read from the outside in: cues in brackets first, then when, who,
// where and by whom, then doses; what is left is the drill's name. Nothing is lost: what
// no rule takes stays as a note.
package say

import (
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/drill"
	"cuestart/core/hear"
	"cuestart/core/measure"
	"cuestart/core/pattern"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

// Limits of what is read. A line beyond them is kept as a note as far as a note goes.
const (
	MaxLines  = 200 // lines read at once
	MaxLength = 300 // letters of a line
)

// Context is what a line may speak of.
type Context struct {
	Start    string   `json:"start"`              // the start on the clock, 15:00
	Sport    string   `json:"sport"`              // its key
	Language string   `json:"language,omitempty"` // that the lines are in, where it is not English
	Units    []string `json:"units"`
	Players  []Player `json:"players"`
	Staff    []string `json:"staff"`
	Zones    []string `json:"zones"`
	Fixed    []string `json:"fixed"`
	Blocks   []string `json:"blocks"`
	Phases   []string `json:"phases"` // keys, in the method's order; none: those of RAMP

	Turns plan.Turns `json:"turns,omitzero"` // how a day begins

	Kit []string `json:"kit,omitempty"` // names of kit that is counted

	Positions []string `json:"positions,omitempty"` // that players have: all who have one are named at once

	Plays *sport.Sport  `json:"-"` // the sport, with its lines and what its people are called; nil: not known
	Book  []drill.Drill `json:"-"` // the drills that are known
	Index *Index        `json:"-"` // of the book; nil: it is made
}

// Player is one of the squad.
type Player struct {
	Number int    `json:"number"` // 0: none
	Name   string `json:"name"`
}

// The kinds of line.
const (
	IsPhase  = "phase"
	IsFixed  = "fixed"
	IsBlock  = "block"
	IsLegs   = "line"
	IsDrill  = "drill"
	IsDrills = "drills"
	IsBlank  = "blank"
	IsNote   = "note"
	IsBring  = "bring" // a thing to carry out
	IsStock  = "stock" // how many there are of some kit today
	IsCombo  = "combo" // drills that are done in turn as one, so many times
	IsChoice = "choice"
)

// Line is what was understood of a line.
type Line struct {
	Is    string `json:"is"`
	Said  string `json:"said,omitempty"`  // the line itself
	Phase string `json:"phase,omitempty"` // key of a phase
	Name  string `json:"name,omitempty"`
	Code  string `json:"code,omitempty"` // of the known drill; "": it is not in the book
	Dose  *Dose  `json:"dose,omitempty"` // nil: none was said
	Exact bool   `json:"exact,omitempty"`

	Cues     []string `json:"cues,omitempty"`
	Who      []string `json:"who,omitempty"`  // names of units, numbers or names of players, "*"
	Whom     []string `json:"whom,omitempty"` // who was said and is nobody of the plan
	Not      []string `json:"not,omitempty"`  // who of them does not, as in Who
	Where    string   `json:"where,omitempty"`
	Leader   string   `json:"leader,omitempty"` // a staff name, or as in Who a player
	Priority string   `json:"priority,omitempty"`
	Loose    bool     `json:"loose,omitempty"` // in any order with its neighbours

	At            *int    `json:"at,omitempty"` // seconds from the start, negative before it
	Window        *Window `json:"window,omitempty"`
	Before        string  `json:"before,omitempty"`         // name of something fixed, or of a block
	After         string  `json:"after,omitempty"`          // the same
	StraightAfter string  `json:"straight_after,omitempty"` // name of a block
	From          *int    `json:"from,omitempty"`           // of something fixed
	To            *int    `json:"to,omitempty"`

	Rounds      int     `json:"rounds,omitempty"`
	LeastRounds int     `json:"least_rounds,omitempty"` // how few will do: 2-3 rounds
	RestSeconds float64 `json:"rest_seconds,omitempty"` // between rounds
	Forms
	List plan.When `json:"list,omitempty"` // a list with a line of its own begins
	Ends string    `json:"ends,omitempty"` // what that line is called

	Stock map[string]int `json:"stock,omitempty"` // pieces of kit, by its name

	Yards     bool `json:"yards,omitempty"`     // its lengths were said in yards
	Feet      bool `json:"feet,omitempty"`      // or in feet
	Metric    bool `json:"-"`                   // or in metres
	AtOnce    int  `json:"at_once,omitempty"`   // how many do the drill at once
	Waves     int  `json:"waves,omitempty"`     // in how many turns
	PerLane   int  `json:"per_lane,omitempty"`  // pieces of its kit in each lane
	Alongside bool `json:"alongside,omitempty"` // done while the one before it is

	Out    []Leg  `json:"out,omitempty"`
	Back   []Leg  `json:"back,omitempty"`
	Trips  int    `json:"trips,omitempty"`
	Drills []Line `json:"drills,omitempty"`

	Clocks map[int]string `json:"clocks,omitempty"` // of these moments, those that were said as times on the clock

	Note   string   `json:"note,omitempty"`   // what no rule took
	Likely []string `json:"likely,omitempty"` // names of other drills that may be meant

	Times int `json:"times,omitempty"` // how often a combo is done

	ofLine `json:"-"`
}

// ofLine is what a reading itself has to remember of a line; none of it is told.
type ofLine struct {
	Score  float64 // how well the line is explained
	one    bool    // its words say that one thing is done
	sure   float64 // how likely it is of its kind
	shared string  // the dose of every station
	count  int     // how many stations there are
	Part   bool    // a part of the list begins with it, told by the list's marks
	Slip   bool    // the drill was meant, but not spelt so
	Para   bool    // it is of a paragraph that is a block
}

// Window is from when until when; nil: no such bound.
type Window [2]*int

// Leg is a drill on the way of a line.
type Leg struct {
	Name   string  `json:"name"`
	Code   string  `json:"code,omitempty"`
	Metres float64 `json:"metres,omitempty"` // 0: as long as the place
	Where  string  `json:"where,omitempty"`  // the place that it leads over; "": that of the block
}

// Doubtful tells whether a coach should look at what became of the line.
func (l *Line) Doubtful() bool {
	if l.Is == IsNote || l.Note != "" || l.Is == IsDrill && l.Code == "" || len(l.Likely) > 0 {
		return true
	}
	for i := range l.Drills {
		if l.Drills[i].Doubtful() {
			return true
		}
	}
	return false
}

// knower knows what lines may speak of: who, where, and what else there is today.
type knower struct {
	Context
	start   int // seconds of the day; -1: not known
	lines   lineNames
	people  []named
	called  map[string]bool // what the people are called, folded
	staff   []named
	answers map[asked]bool // to what was asked of words
}

// Reader reads lines that speak of one context.
type Reader struct {
	knower
	marked map[string]hear.Reading // lines by their marks, of those that were read
	above  *Line                   // the last drill of a list that was read
}

// NewReader is a reader of lines about a plan.
func NewReader(c Context) *Reader {
	if len(c.Phases) == 0 {
		for _, p := range []drill.Phase{drill.Raise, drill.Activate, drill.Mobilise, drill.Potentiate, drill.Sport} {
			c.Phases = append(c.Phases, string(p))
		}
	}
	r := &Reader{marked: map[string]hear.Reading{}, knower: knower{Context: c, start: dayTime(c.Start),
		called: map[string]bool{}, answers: map[asked]bool{}}}
	if r.Index == nil {
		r.Index = NewIndex(c.Book, c.Sport)
	}
	r.lines = r.Index.lines(c.Plays)
	for _, u := range c.Units {
		r.people = append(r.people, named{Fold(u), u})
		for _, also := range c.Plays.AlsoUnit(u) {
			r.people = append(r.people, named{Fold(also), u})
		}
	}
	for _, p := range c.Players {
		r.people = append(r.people, personNames(p, c.Players)...)
	}
	for _, position := range c.Positions {
		called := []string{position}
		if c.Plays != nil {
			called = append(called, c.Plays.Called[position]...)
		}
		for n, word := range called {
			for _, name := range []string{Fold(word), Fold(word) + "s"} {
				if n > 0 && (len(name) < 3 || strings.ContainsAny(name, "0123456789")) || isPlace(name) {
					// "back" is also where to
					continue
				}
				r.people = append(r.people, named{name, position})
			}
		}
	}
	for _, s := range c.Staff {
		r.staff = append(r.staff, named{Fold(s), s})
		if first, _, more := strings.Cut(s, " "); more && !sharesFirst(first, c.Staff) {
			r.staff = append(r.staff, named{Fold(first), s})
		}
	}
	for _, one := range r.people {
		r.called[one.fold] = true
	}
	return r
}

// ReadAll reads a list, a line after the other; beyond MaxLines none is read.
func (r *Reader) ReadAll(text string) []Line {
	var lines []Line
	for _, piece := range r.Pieces(strings.Split(strings.ReplaceAll(text, "\r", ""), "\n")) {
		if len(lines) == MaxLines {
			break
		}
		line := r.ReadPiece(piece)
		lines = append(lines, line)
		r.Remember(line)
	}
	return lines
}

// Remember lets later lines speak of what this one puts in.
func (k *knower) Remember(l Line) {
	switch l.Is {
	case IsDrill, IsBlock, IsLegs:
		if l.Name != "" && !slices.Contains(k.Blocks, l.Name) {
			k.Blocks = append(k.Blocks, l.Name)
		}
	case IsDrills:
		for _, line := range l.Drills {
			k.Remember(line)
		}
	case IsFixed:
		if !slices.Contains(k.Fixed, l.Name) {
			k.Fixed = append(k.Fixed, l.Name)
		}
	}
}

// inMetres is a text with its lengths in metres, in which unit they were said kept.
func (l *Line) inMetres(text string) string {
	l.Metric = inMetresOf.MatchString(text)
	if of := inMetres(text, yardsOf, measure.Yard); of != text {
		l.Yards = true
		return of
	}
	of := inMetres(text, feetOf, measure.Foot)
	l.Feet = of != text
	return of
}

// whenAlone is a heading that says nothing but from when on what stands below it is done: "From
// 45:"; comesIn is a time at which people only come in, go out or are done: "15 in".
var (
	whenAlone = pattern.Must(`(?i)^(from|at) (\d{1,3})(?: ?min(?:utes)?)?(?: out| to go)?:\s*$`)
	comesIn   = pattern.Must(`(?i)^(\d{1,2}),? ((?:back )?(?:in|out|off|inside|ready|done))[.!]?$`)
)

// onlyWhen reads a line that says little more than when.
func onlyWhen(text string) (l Line, ok bool) {
	if m := whenAlone.FindStringSubmatch(text); m != nil {
		at := -60 * number(m[2])
		l = Line{Is: IsBlock, Said: text, Name: strings.TrimRight(text, ": ")}
		if l.At = &at; strings.EqualFold(m[1], "from") {
			l.At, l.Window = nil, &Window{&at, nil}
		}
		return l, true
	}
	if m := comesIn.FindStringSubmatch(text); m != nil && number(m[1]) > 0 {
		at := -60 * number(m[1])
		to := min(0, at+fixedLasts)
		return Line{Is: IsFixed, Said: text, Name: Capital(m[2]), From: &at, To: &to}, true
	}
	return l, false
}

// Read reads one line.
func (r *Reader) Read(text string) Line {
	if is, drilled := strings.CutPrefix(text, drillMark); drilled {
		return r.drilled(is)
	}
	if l, ok := onlyWhen(text); ok {
		return l
	}
	text = r.reworded(text)
	ruled := r.ruled(text)
	if strings.HasPrefix(text, headMark) || strings.HasPrefix(text, noteMark) || ruled.Is == IsBlank ||
		len(text) > MaxLength {
		return ruled
	}
	l := r.better(ruled, r.Heard(text))
	if l.Is == IsDrill && l.Note != "" && l.Dose != nil && !strings.ContainsAny(l.Note, "0123456789") &&
		l.Note != l.Said && !ofPlan.MatchString(l.Note) && !hear.Group(l.Note) {
		// what is said beside how much is told
		l.Cues, l.Note = append(l.Cues, strings.Split(l.Note, ", ")...), ""
	}
	l.Name = unitFirst.ReplaceAllString(l.Name, "")
	l.countedOnce(text)
	l.notMinutes(text)
	l.inTurn(text)
	l.farAs()
	l.Cues = slices.DeleteFunc(l.Cues, func(cue string) bool { // what another says too
		return l.Is == IsBlock &&
			slices.ContainsFunc(l.Cues, func(other string) bool { return other != cue && strings.Contains(other, cue) })
	})
	if l.Is == IsFixed && (l.At != nil || l.From != nil) {
		l.Name = clockAtFront.ReplaceAllString(l.Name, "")
	}
	if l.Is == IsDrill && l.Note == "" && noneOf.MatchString(text) {
		l.Note = OneLine(text)
	}
	l.seconds(text)
	r.meant(&l)
	r.eachSide(&l)
	for i := range l.Drills {
		r.meant(&l.Drills[i])
		r.eachSide(&l.Drills[i])
	}
	return l
}

// countedOnce leaves out who wears a number that a line says once, for how much: of "overheads eight", eight are not
// number eight's.
func (l *Line) countedOnce(text string) {
	if l.Dose == nil {
		return
	}
	d := l.Dose
	said := []int{d.Reps, d.Acts, d.Sets, d.Trips, d.Tries, d.Seconds}
	l.Who = slices.DeleteFunc(l.Who, func(shirt string) bool {
		times := 0
		for _, w := range strings.FieldsFunc(strings.ToLower(text),
			func(c rune) bool { return !unicode.IsLetter(c) && !unicode.IsDigit(c) }) {
			if w == shirt || smallNumbers[w] > 0 && strconv.Itoa(smallNumbers[w]) == shirt {
				times++
			}
		}
		n, err := strconv.Atoi(shirt)
		return err == nil && n > 0 && times == 1 && slices.Contains(said, n)
	})
}

// withInBrackets is a line that says in brackets behind its people with whom they are: "Forwards
// (Coach Orr): lineouts 8".
var withInBrackets = pattern.Must(`^(\pL[\pL &+/-]*?) \((?:with |w/ ?)?((?:(?i:coach) )?\p{Lu}\pL+)\) ?[:–-] ?(\S.*)$`)

// reworded is a line with what has but one meaning put as the rest is read.
func (r *Reader) reworded(text string) string {
	text = minutesTo.ReplaceAllString(text, "at $1")
	text = thenWith.ReplaceAllString(text, "$1$2 $3 $4, then $2 $5 $6 $4")
	text = alsoMinutes.ReplaceAllString(text, "$1 minutes$2")
	if len(spelled.FindAllString(text, 2)) > 1 { // a row of them
		text = spelled.ReplaceAllStringFunc(text, func(said string) string {
			m := spelled.FindStringSubmatch(said)
			return strconv.Itoa(number(m[1])) + m[2]
		})
	}
	if m := withInBrackets.FindStringSubmatch(text); m != nil && (hear.Group(m[1]) || (lexicon{r}).Person(m[1])) {
		text = m[1] + " with " + m[2] + ": " + m[3]
	}
	if m := onlyPhase.FindStringSubmatch(text); m != nil {
		text = headMark + m[1] + " (" + strings.Trim(m[2], " ,()") + ")"
	}
	if r.Sport == "swimming" || r.Sport == "water-polo" || r.Sport == "water polo" {
		text = swum.ReplaceAllString(text, "$1 x $2 m")
		text = swumOnce.ReplaceAllString(text, "$1 m $2")
		text = sendOff.ReplaceAllString(text, "$1 (on $2)$3")
	}
	return text
}

// minutesTo is when something is, by the minutes to it: "studs checked at 20 to".
var minutesTo = pattern.Must(`(?i)\bat (\d{1,2}) (?:mins? )?to$`)

// clockAtFront is when something is, before what it is called.
var clockAtFront = pattern.Must(`^\d{1,2}[:.]\d\d[ ,:-]+`)

// thenWith is the same once more with something: "jogs four widths, then with the hurl four".
var thenWith = pattern.Must(`(?i)^((?:everyone|everybody|all) )?([a-z][a-z -]*?) ` + num +
	` (widths|lengths|laps), ?(?:and )?then (with (?:the |an? )?[a-z]+) ` + num + `(?: (?:widths|lengths|laps))?\.?$`)

// spelled is a length of time whose number is a word: "three minutes".
var spelled = pattern.Must(`(?i)\b` + num + `( (?:minutes|mins|seconds|secs)\b)`)

// alsoMinutes is how long the second of two games is, where the first had minutes: "mini-court
// three minutes, full court four".
var alsoMinutes = pattern.Must(`(?i)(min(?:ute)?s?\b[^,;]*[,;] *(?:and |then )*(?:full|half|whole|big|small|mini|short|long|cross)[- ](?:court|pitch|field|table|rink|court rally) (?:\d{1,2}|two|three|four|five|six|seven|eight|nine|ten))( *(?:[,;.]|$))`)

// noneOf is none of something, of which nobody does any.
var noneOf = pattern.Must(`^(?:\D*\s)?0(?:\s|$)`)

// sendOff is how often each of several begins: "4 x 25 build @ 30".
var sendOff = pattern.Must(`^(\s*\d{1,2} ?[x×] ?\d{1,4}\b[^@]*[^@ ]) ?@ ?(\d?:?\d\d)((?: [^%@]*)?)$`)

// What is swum is counted in metres, whether they are said or not: "4x50 build", "400 easy".
var (
	swum     = pattern.Must(`(?i)\b(\d{1,2}) ?x ?(15|25|50|75|100|150|200|300|400)\b(?: ?m\b)?`)
	swumOnce = pattern.Must(`(?i)^(50|75|100|150|200|300|400|500|600|800) ([a-z])`)
)

// ofPlan is a note that says when, or with whom, and was not understood.
var ofPlan = Spaced(`^(?:straight|right|after|before|at|from|until|done|led|with|for|forwards?|backs)\b`)

// ruled is the line as one rule after another has it.
func (r *Reader) ruled(text string) Line {
	text = tidy(text)
	line := Line{Said: text}
	switch {
	case text == "":
		line.Is = IsBlank
		return line
	case len([]rune(text)) > MaxLength:
		line.Is, line.Note = IsNote, string([]rune(text)[:MaxLength])
		return line
	}
	if r.aside(&line, text) {
		return line
	}
	heads := false
	line.Part = strings.HasPrefix(text, headMark)
	if m := marked.FindStringSubmatch(text); m != nil && m[1] != "" &&
		(!startsWithNumber(m[1]) || line.Part && whichPart.MatchString(m[1])) {
		text, heads = m[1], true
	}
	for _, re := range []*pattern.Pattern{lanesFirst, inLanes} {
		if m := re.FindStringSubmatchIndex(text); m != nil && line.Lanes == 0 {
			line.Lanes, text = number(text[m[2]:m[3]]), strings.TrimSpace(text[:m[0]]+text[m[1]:])
		}
	}
	if text = r.underHead(&line, text); text == "" {
		return line
	}
	text = line.inMetres(text)
	text, stands := cutFixed(perCent(bullet.ReplaceAllString(text, "$1")))
	s := newScan(r, text, nil)
	s.stands = stands
	s.hideQuoted()
	s.hideBrackets()
	s.hideKnown()
	s.whole(&line)
	switch {
	case s.legs(&line), s.formed(&line), s.fixed(&line), s.block(&line):
	default:
		s.drills(&line)
	}
	if line.Part && line.Is != IsPhase && line.Is != IsBlock && line.Is != IsFixed { // the list's marks say so
		line.Is, line.Dose, line.Drills = IsDrill, nil, nil
	}
	s.heading(&line, text, heads)
	line.ours()
	line.Note = strings.TrimPrefix(line.Note, headMark)
	return line
}

// ours ends what was asked of a name that its coach put in quotation marks.
func (l *Line) ours() {
	if strings.Contains(l.Said, `"`+l.Name+`"`) {
		l.Likely = nil
	}
	for i := range l.Drills {
		if strings.Contains(l.Said, `"`+l.Drills[i].Name+`"`) {
			l.Drills[i].Likely = nil
		}
	}
}

// heading makes a line that the marks of the list say heads what follows it one.
func (s *scan) heading(line *Line, text string, heads bool) {
	if heads && (line.Is == IsDrill || line.Is == IsBlock) && line.Dose == nil {
		line.Is, line.Code, line.Likely = IsBlock, "", nil
		if name := headName(text); name != "" && !strings.Contains(text, `"`) {
			line.Name = name
		}
	}
	if line.Is == IsBlock {
		s.bracketed(line)
	}
}

// underHead is what stands behind the head of a part of the list, the whole line where it has
// none; "" where the line is nothing but such a head.
func (k *knower) underHead(line *Line, text string) string {
	rest, head := k.section(line, text)
	switch {
	case head && rest == "":
		line.Is = IsPhase
		if line.Note == "" && line.List == "" {
			line.Name = strings.Trim(text, " :")
		}
	case head && onlyMinutes.MatchString(rest): // "own time: 5 min" is what it is called
		rest = strings.TrimSpace(strings.SplitN(text, ":", 2)[0]) + " " + rest
	}
	return rest
}

// onlyMinutes is a length of time and nothing else.
var onlyMinutes = Spaced(`^` + dec + `~(?:min|mins|minutes?|s|secs?|seconds?|')$`)

// asideOf is what is told beside the drills: what not to do, who cannot, who leads it all.
var asideOf = pattern.Must(`(?i)^(?:ojo\b|no [a-z]|bring |don'?t |do not |never |nobody |remember |please |make sure |lead(?:er)? (?:for|of|is) |no need)|\b(?:can'?t|cannot|mustn'?t|not allowed)\b`)

// aside reads what is said beside the drills: a note, what to carry, how much there is.
func (k *knower) aside(line *Line, text string) bool {
	if note, said := strings.CutPrefix(text, noteMark); said {
		line.Is, line.Note = IsNote, note
	} else if m := brings.FindStringSubmatch(text); m != nil {
		line.Is, line.Name = IsBring, strings.TrimSpace(m[1])
	} else if asideOf.MatchString(text) && !strings.ContainsAny(text, "0123456789") {
		line.Is, line.Note = IsNote, text
	} else if stock := k.stockOf(text); stock != nil {
		line.Is, line.Stock = IsStock, stock
	}
	return line.Is != ""
}

// whichPart is which of several parts a heading is of: "1st part, no ball".
var whichPart = pattern.Must(`^\d(?:st|nd|rd|th) `)

// cutFixed takes a "fixed:" from the front of a line, and tells whether it was there.
func cutFixed(text string) (string, bool) {
	const word = "fixed:"
	if len(text) < len(word) || !strings.EqualFold(text[:len(word)], word) {
		return text, false
	}
	return strings.TrimSpace(text[len(word):]), true
}

var (
	spaces  = pattern.Must(`[\s\x00-\x1f]+`)
	bullet  = pattern.Must(`^(?:[-*•·]+|\d{1,2}[.)]|\d{1,2} -|[A-Za-z]\))\s+(\S)`)
	symbols = strings.NewReplacer("×", "x", "–", "-", "—", "-", "’", "'", "‘", "'", "½", " 1/2", "“", "\"", "”", "\"",
		"＋", "+", "′", "'", "…", "")
)

// shorthand are ways to write a dose short.
var shorthand = []struct {
	is    *pattern.Pattern
	means string
}{
	{pattern.Must(`(?i)(\d) ?(?:ea|each)/(side|leg|arm)\b`), "$1 a $2"},
	{pattern.Must(`(?i)(\d) ?/ ?(side|leg|arm|foot|hand)\b`), "$1 a $2"},
	{pattern.Must(`(?i)\ba dozen\b`), "12"},
	{pattern.Must(`(?i)\ba couple(?: of)?\b`), "2"},
	{pattern.Must(`(?i)\b(\d{1,3})-?ish\b`), "$1"},
	{pattern.Must(`(?i)(\d) ?ea\b`), "$1 each"},
	{pattern.Must(`(?i)(\d) ?(?:l/r|e/s|ps)\b`), "$1 a side"},
	{pattern.Must(`(?i)(^| )x(\d)`), "${1}x $2"},
	{pattern.Must(`(?i) to (?:begin|start)(?: with)?([,.]|$)`), "$1"},
	{pattern.Must(`(?i)\b((?:left|right) (?:hand|foot)) (\d{1,2}), ?((?:left|right) (?:hand|foot)) (\d{1,2})`),
		"$2 $1, $4 $3"},
	{pattern.Must(`(?i)([a-z]{2}) ?/ ?(\d{1,2} [a-z]{2})`), "$1, $2"},
}

// tidy is a line with one kind of space, dash and sign.
func tidy(text string) string {
	text = strings.ToValidUTF8(text, "")
	text = strings.TrimSpace(spaces.ReplaceAllString(symbols.Replace(text), " "))
	for _, short := range shorthand {
		text = short.is.ReplaceAllString(text, short.means)
	}
	return text
}

var marked = pattern.Must(`^(?:-{2,}|#+|={2,}|\*{2,})\s*(.*?)\s*[-=#*:]*$`)

// heading reads a phase, alone or before what is done in it.
func (k *knower) heading(text string) (phase, rest string) {
	head, rest, colon := strings.Cut(text, ":")
	if !colon {
		return k.Phase(text), ""
	}
	return k.Phase(head), strings.TrimSpace(rest)
}

func startsWithNumber(text string) bool { return text != "" && text[0] >= '0' && text[0] <= '9' }

// Phase is the key of a phase by any of its names; "" where it is none.
func (k *knower) Phase(name string) string {
	name = Fold(name)
	for _, key := range append(k.Phases, drill.Own.Key(), string(drill.After)) {
		for _, other := range phaseNames[key] {
			if name == other {
				return key
			}
		}
	}
	return ""
}
