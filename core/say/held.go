package say

import (
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// What a heading, or a line below its drills, says of each of them: a length, a way, how many of each.
var (
	heldDose  = pattern.Must(`(?i)\b\d+ ?(?:m|metres?|meters?|yds?|yards?|ft|feet)\b|\b(?:\d+|two|three|four|five|six|eight|ten|twice) (?:of )?each\b|\b(?:there|down|up|out) and back\b|(?:\b(?:and|then) |& ?)back\b|\b(?:[a-z]*line|box|post|cone|wall|basket|net|half ?way|court|hash) to (?:the )?(?:far |other )?(?:[a-z]+|\d\d)\b`)
	notHeld   = pattern.Must(`(?i)\b(?:apart|between|gap|away|back (?:in|at|to|by|for)|min|mins|minutes)\b`)
	thereBack = pattern.Must(`(?i)\b(?:there|down|up|out) and back\b`)
	headParts = pattern.Must(`[.:;(),]|[-–—] | [-–—]`)
	ofAll     = pattern.Must(`(?i)^(?:all|each|everything|every one|all of (?:these|them|those)|these)(?: (?:are|is|for|over|at|of (?:these|them|those)))*,? (.+)$`)
	doseHead  = pattern.Must(`(?i)^([a-z][a-z '&/-]{2,28}?)(?:[.:,]|(?: [-–—])? \(| [-–—]) ?(.+?)\)?$`)
)

// wayAtEnd is how far what stands under a heading goes, at its end.
var wayAtEnd = pattern.Must(`(?i)^[a-z][a-z '&/-]*? ((?:across|over|to|the length of|from [a-z0-9 ]+ to) (?:the |our )?[a-z0-9 ]+?(?: (?:and|&) back)(?:,? x ?\d+)?)$`)

// eachOver is a line that names what follows it and ends in how much of each: "Drills 2 x 20 m of each:".
var eachOver = pattern.Must(`(?i)^([a-z][a-z '&/-]{2,28}?) ((?:(?:\d+|two|three) ?x ?)?\d+ ?(?:m|metres?|meters?|yds?|yards?|s|secs?|seconds?)?(?: there and back)?),? ?(?:of each|each|on each|per drill|each drill):$`)

// holds is what a heading says of each of its lines; "" where it says nothing of how much.
func holds(text string) string {
	if m := clockFront.FindStringSubmatch(text); m != nil {
		text = m[2]
	}
	if m := wayAtEnd.FindStringSubmatch(text); m != nil && !headParts.MatchString(text) {
		// "moves across the area and back"
		return m[1]
	}
	for _, at := range headParts.FindAllStringIndex(text, -1) {
		if rest := strings.Trim(text[at[1]:], " ()-–—,.:"); heldDose.MatchString(rest) && !notHeld.MatchString(rest) &&
			at[0] > 1 {
			if first := headParts.FindStringIndex(rest); first == nil || heldDose.MatchString(rest[:first[0]]) {
				return rest
			}
		}
	}
	return ""
}

// farOver is a line that names what follows it and says how far each goes without a sign between:
// "Drills over 20 m walk back".
var farOver = pattern.Must(`(?i)^([a-z][a-z '&/-]{2,28}?),? (?:all )?(?:over|for|at) (\d+ ?(?:m|metres?|meters?|yds?|yards?)\b) ?,?(.*)$`)

// doseOver is a line that names what follows and says how much of each of it: "Drills. 30 m, two of each".
func doseOver(text string) (name, dose string) {
	if m := eachOver.FindStringSubmatch(text); m != nil &&
		movement.Lead(strings.TrimSuffix(strings.ToLower(m[1]), "drills")) == "" {
		return m[1], m[2]
	}
	if m := farOver.FindStringSubmatch(text); m != nil {
		text = strings.TrimRight(m[1]+", "+m[2]+", "+strings.TrimSpace(m[3]), ", ")
	}
	m := doseHead.FindStringSubmatch(text)
	if m == nil || strings.HasSuffix(text, ":") || !heldDose.MatchString(m[2]) || notHeld.MatchString(m[2]) {
		return "", ""
	}
	if word := strings.ToLower(m[1]); movement.Lead(word) != "" && !strings.HasSuffix(word, "drills") &&
		!strings.HasSuffix(word, "runs") {
		return "", ""
	}
	return m[1], m[2]
}

// What is said of stations beside what is done at them: how many, how long at each, how long to change.
var (
	stationsOver = pattern.Must(`(?i)^(?:(\d{1,2}|two|three|four|five|six|seven|eight|nine|ten) )?stations?\b[:,.]?(?: [-–—])? (.+)$`)
	atEach       = pattern.Must(`(?i)\b(\d+ ?(?:seconds?|secs?|s|minutes?|mins?)\b|a minute|half a minute)(?: (?:work|on|at|each|per|a|every|station)\b)*`)
	toChange     = pattern.Must(`(?i)\b(\d+ ?(?:seconds?|secs?|s))\b(?: (?:to|for the|for))? (?:change|changeover|swap|rotate|move|rest|off)`)
	ofStations   = pattern.Must(`(?i)^(?:\d+ groups? of \d+|groups? of \d+|in (?:\d+|[a-z]+) groups|move (?:on )?clockwise|clockwise|(?:change|swap|rotate|move)(?: on)?(?: on)?(?: the| my)? (?:whistle|shout|call)|anti-?clockwise|\d rounds?|once round|twice round)$`)
)

// stations is a line over stations that names none of them: its heading, and how long is worked at each.
func stations(text string) (head, dose string) {
	m := stationsOver.FindStringSubmatch(strings.TrimSuffix(text, ":"))
	if m == nil {
		return "", ""
	}
	head = "Stations"
	var told []string
	for _, part := range strings.Split(m[2], ",") {
		part = strings.TrimSpace(part)
		switch change, at := toChange.FindStringSubmatch(part), atEach.FindStringSubmatch(part); {
		case change != nil:
			head += ", change " + change[1]
		case at != nil && strings.TrimSpace(strings.Replace(part, at[0], "", 1)) == "":
			dose = at[1]
		case !ofStations.MatchString(part):
			return "", ""
		default:
			told = append(told, part)
		}
	}
	if dose == "" {
		return "", ""
	}
	if told != nil {
		head += " (" + strings.Join(told, ", ") + ")"
	}
	return head, dose
}

// below gives a dose that is said below its lines to those that have none, up to the heading or the empty
// line above them.
func (k *sketch) below(i int, dose string) (given bool) {
	for j := i - 1; j >= 0; j-- {
		text := strings.TrimSpace(k.plain[j])
		if text == "" || strings.HasPrefix(text, headMark) || strings.HasPrefix(text, noteMark) {
			break
		}
		if !anyAmount.MatchString(text) && movement.Lead(text) != "" {
			k.dose[j], given = dose, true
		}
	}
	return given
}

// sameAgain is a line of which there is as much as of the one above it.
var (
	sameAgain = pattern.Must(`(?i)(?:[,:]| [-–—]|) (?:(?:the )?same(?: again| as (?:above|before)| dose| distance| for these)?|ditto|as above|igual|lo mismo)\.?$`)
	sameFrom  = pattern.Must(`(?i)^(?:the )?same(?: again)?,? ((?:from|with|but|on|in|off|to) .+)$`)
	fromWhere = pattern.Must(`(?i) (?:from|with|on|in|off|to) `)
)

// acrossWhat is what is told of where something goes.
var acrossWhat = pattern.Must(`(?i)^(?:across|along|round|around|over|between|through) `)

// onceOnly is a line that is done once where the others are done more often.
var onceOnly = pattern.Must(`(?i),? (?:one|once)(?: only)?$`)

// onlyTime is how long is worked, at a station.
var onlyTime = pattern.Must(`(?i)^\d+ ?(?:s|secs?|seconds?|mins?|minutes?)$`)

// again is a line as it would be said without the one above it: "same from feet" is what was done from
// knees.
func (r *Reader) again(text string) string {
	if m := sameFrom.FindStringSubmatch(text); m != nil && r.above != nil {
		name := r.above.Name
		if at := fromWhere.FindStringIndex(name); at != nil {
			name = name[:at[0]]
		}
		return name + " " + m[1]
	}
	return text
}

// asAbove is a line of which there is as much as of the one above it, and where that was: "carioca, same again".
func (r *Reader) asAbove(l Line, text string) (same Line, as bool) {
	at := sameAgain.FindStringIndex(text)
	if r.above == nil || r.above.Dose == nil || at == nil || at[0] < 2 {
		return l, false
	}
	if same = r.Read(text[:at[0]]); same.Is != IsDrill || same.Dose != nil {
		return l, false
	}
	d := *r.above.Dose
	d.Efforts = slices.Clone(d.Efforts)
	same.Dose, same.Said, same.Yards, same.Feet = &d, l.Said, r.above.Yards, r.above.Feet
	if d.To != "" {
		same.Cues = append(same.Cues, "to the "+d.To)
	}
	for _, cue := range r.above.Cues {
		if acrossWhat.MatchString(cue) {
			same.Cues = append(same.Cues, cue)
		}
	}
	return same, true
}

// held gives a line that says no amount what its heading says, or the line above it.
func (r *Reader) held(l Line, p Piece) Line {
	text := p.Text
	if same, as := r.asAbove(l, text); as {
		return same
	}
	if far, _, _ := strings.Cut(p.Dose, ","); far != "" && l.goesSoOften() { // so often, as far as the others
		u, _ := movement.Of(l.Name)
		if with := r.Read(text + ", " + far); u.Travels && with.Dose != nil && with.Dose.Kind == drill.Travel &&
			with.Dose.Trips%max(1, l.Dose.Reps, l.Dose.Trips) == 0 && with.Name == l.Name {
			with.Said = l.Said
			return with
		}
	}
	// at a station
	timed := onlyTime.MatchString(p.Dose) && l.Is == IsDrill && l.Dose != nil && l.Dose.Kind == drill.Travel
	if p.Dose == "" || l.dosed() && !timed || l.Is != IsDrill && l.Is != IsDrills && l.Is != IsCombo &&
		l.Is != IsChoice {
		return l
	}
	if timed { // so long, however far
		if work := r.Read("rope " + p.Dose); work.Dose != nil {
			l.Dose = work.Dose
		}
		return l
	}
	dose := p.Dose
	if m := onceOnly.FindString(text); m != "" { // one of it, as far as the others
		far, _, _ := strings.Cut(dose, ",")
		dose, text = far+" x 1", strings.TrimRight(strings.Replace(text, m, "", 1), " ,")
	}
	if l.Is == IsCombo || l.Is == IsDrills {
		return r.legsHeld(l, dose)
	}
	with := r.Read(text + ", " + dose)
	if with.Is != l.Is && !(with.Is == IsCombo && l.Is == IsDrills) || !with.dosed() ||
		with.Name != l.Name && l.Is == IsDrill {
		return l
	}
	with.Said = l.Said
	return with
}

// goesSoOften tells whether a line says how often something is done and not how far.
func (l *Line) goesSoOften() bool {
	if l.Is != IsDrill || l.Dose == nil || l.Dose.SaidSides != 0 {
		return false
	}
	return l.Dose.Kind == drill.Reps && l.Dose.Sets <= 1 || l.Dose.Kind == drill.Travel && l.Dose.Metres == 0 &&
		l.Dose.To == "" && l.Dose.Laps == 0
}

// legsHeld gives what is done in turn the length that its heading says of each, out and back one step each.
func (r *Reader) legsHeld(l Line, dose string) Line {
	far := r.Read("jog " + dose).Dose
	if far == nil || far.Kind != drill.Travel || len(l.Drills) == 0 {
		return l
	}
	for i := range l.Drills {
		if u, known := movement.Of(l.Drills[i].Name); !known || !u.Travels {
			return l
		}
	}
	l.Drills = slices.Clone(l.Drills)
	for i := range l.Drills {
		d := *far
		d.Trips, d.Efforts = max(1, far.Trips/len(l.Drills)), slices.Clone(far.Efforts)
		l.Drills[i].Dose = &d
	}
	return l
}

// dosed tells whether a line says how much of anything there is.
func (l *Line) dosed() bool {
	return l.Dose != nil && l.Dose.Kind != "" || l.Times > 1 || slices.ContainsFunc(l.Drills, func(line Line) bool {
		return line.Dose != nil && (line.Dose.Reps > 1 || line.Dose.Kind != "reps")
	})
}
