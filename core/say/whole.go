package say

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/hear"
	"cuestart/core/pattern"
)

// A list is told what its lines are as a whole: each by what it is alone, by its mark, indent and
// amounts, by what stands around it, and by what the line above it is. What speaks for what is
// learned (hear.InList).

// kinds are how likely a line is of each of hear.Kinds.
type kinds [len(hear.KindLetters)]float64

// alone is how likely each line of a list is of each kind where it stands alone.
func (r *Reader) alone(lines []string) []kinds {
	all := make([]kinds, len(lines))
	for i, line := range lines {
		if text := strings.TrimSpace(AsTyped(line)); text != "" && len(text) <= longestAside {
			_, rest := r.roster(tidySigns(text))
			all[i] = r.mark(rest).Kinds
		}
	}
	return all
}

// mark is a line by its marks and tags; it is read once.
func (r *Reader) mark(text string) hear.Reading {
	reading, known := r.marked[text]
	if !known {
		reading = hear.Line(text, lexicon{r})
		r.marked[text] = reading
	}
	return reading
}

// speaks is what speaks for the kinds of each line of a list that says something: by itself, and
// with what the line above it is.
func (k *sketch) speaks(alone []kinds, told []string) (of map[int][]string) {
	of = map[int][]string{}
	all := k.said()
	own := map[int][]string{}
	for n, i := range all {
		own[i] = k.looks(i, n, len(all))
	}
	list, rows, styles := k.shapes(all), k.rows(all), k.styles(all, told, alone)
	for n, i := range all {
		own[i] = append(own[i], rows[i]...)
		if n+1 < len(all) && k.when[i] != "" && k.when[all[n+1]] == "" {
			own[i] = append(own[i], "when over none")
		}
	}
	for n, i := range all {
		f := slices.Concat(own[i], k.likes(alone[i]), styles[i],
			[]string{"told:" + kindTold(told[i]), "told:" + kindTold(told[i]) + best(alone[i])})
		if w := strings.Fields(strings.ToLower(strings.Trim(k.plain[i], " *-=:.!"))); len(w) > 0 {
			f = append(f, "1"+w[0], "9"+w[len(w)-1])
		}
		f = append(f, list...)
		if n > 0 {
			for _, a := range own[all[n-1]] {
				f = append(f, "<"+a)
			}
			f = append(f, "<"+best(alone[all[n-1]]))
		}
		if n+1 < len(all) {
			for _, a := range own[all[n+1]] {
				f = append(f, ">"+a)
			}
			f = append(f, ">"+best(alone[all[n+1]]), best(alone[i])+">"+best(alone[all[n+1]]))
		}
		if n+2 < len(all) {
			f = append(f, ">>"+best(alone[all[n+2]]), ">>"+k.amount(all[n+2]))
		}
		of[i] = f
	}
	return of
}

// said are the lines that say something.
func (k *sketch) said() (all []int) {
	for i := range k.typed {
		if strings.TrimSpace(k.typed[i]) != "" {
			all = append(all, i)
		}
	}
	return all
}

// asWhole are the lines of a list, told by rules, as what they are likeliest to be together.
func (k *sketch) asWhole(told []string, r *Reader) []string {
	alone := r.alone(k.plain)
	are := likeliest(k.said(), k.speaks(alone, told), func(f []string) kinds { return hear.InList(f) })
	k.are = map[int]hear.Kind{}
	for i, is := range are {
		if (is == hear.Remark || is == hear.Fixed) && (alone[i][slices.Index(hear.Kinds, hear.Drill)] >= surelyDone ||
			r.ofBook(k.plain[i])) || is == hear.Heading && lastsAtEnd.MatchString(k.plain[i]) && r.ofBook(k.plain[i]) {
			// "No-step kicks 5", "Keep-ball 1:30", wherever it stands
			is = hear.Drill
		}
		if is == hear.Heading && asideOf.MatchString(strings.TrimSpace(k.plain[i])) { // "bring two balls"
			is = hear.Remark
		}
		if is == hear.Remark && k.when[i] != "" { // what has a time is no remark
			is = atTime(alone[i])
		}
		if text := strings.TrimSpace(k.plain[i]); !k.ownForm(i, text) &&
			(is == hear.Drill || is == hear.Fixed || r.ruled(text).Is != IsFixed) {
			told[i], k.are[i] = r.clocked(k.as(i, is, text, told[i])), is
		}
	}
	return told
}

// atTime is the likeliest kind of a line that is at a time.
func atTime(alone kinds) hear.Kind {
	best := hear.Fixed
	for _, is := range []hear.Kind{hear.Drill, hear.Heading} {
		if alone[slices.Index(hear.Kinds, is)] > alone[slices.Index(hear.Kinds, best)] {
			best = is
		}
	}
	return best
}

// surelyDone is how likely a line is a drill by itself that is one in any list, unless it heads others.
const surelyDone = 0.99

// lastsAtEnd is a line that says last for how many minutes and seconds.
var lastsAtEnd = pattern.Must(`\pL \d{1,2}:[0-5]\d\s*$`)

// ofBook tells whether a line is a drill of the book by its name, with how much of it.
func (r *Reader) ofBook(text string) bool {
	l := r.ruled(text)
	return l.Is == IsDrill && l.Code != "" && !l.Slip && l.Dose != nil && !event(text) && (lexicon{r}).Known(l.Name)
}

// clockEnd is when a heading begins, as its front said it.
var clockEnd = pattern.Must(`^(## .* - at )(\d{1,2})[.:](\d\d)$`)

// clocked is a heading with the clock's time of that day that is meant with it: at 3.22, with a
// start at four, is 15:22.
func (r *Reader) clocked(text string) string {
	m := clockEnd.FindStringSubmatch(text)
	if m == nil {
		return text
	}
	hour, _ := strconv.Atoi(m[2])
	minute, _ := strconv.Atoi(m[3])
	toGo, fits := (lexicon{r}).Clock(hour, minute)
	if !fits {
		return text
	}
	at := r.start/60 - int(toGo)
	return m[1] + clockOf(at/60, at%60)
}

// inForm is what a plan printed as lines has: names in quotation marks, what is fixed, a word and
// a colon before what is done, a choice.
var inForm = pattern.Must(`"|(?i:^fixed:|\b(?:they choose|(?:free|own|their|your|by) choice)\b)|:[^\d()]`)

// ownForm tells whether a line says itself what it is, in the form in which a plan is printed, as a part that has its
// own name here, or in sentences, of which each is something.
func (k *sketch) ownForm(i int, text string) bool {
	if n, _ := which(text); n > 0 && !strings.Contains(text, `"`) { // "Part two: loosen off"
		return false
	}
	return len(sentences(text)) > 1 || strings.HasPrefix(text, noteMark) || strings.HasPrefix(text, drillMark) ||
		inForm.MatchString(text) || section(text) || marked.MatchString(text) && k.marks[i] == unmarked
}

// countLast is how many of what there are, at the end of a line.
var countLast = pattern.Must(`\pL (?:x ?)?\d{1,2}$`)

// howMany tells whether a line ends in how many, and not in which part it is or when.
func howMany(text string) bool {
	n, _ := which(text)
	return n == 0 && countLast.MatchString(text) && !headTimes.MatchString(text)
}

// as is a line marked as what it is, where it was told otherwise.
func (k *sketch) as(i int, is hear.Kind, bare, told string) string {
	switch heads, notes := strings.HasPrefix(told, headMark), strings.HasPrefix(told, noteMark); {
	case is == hear.Heading && !heads && k.next(i) < len(k.typed) && !howMany(bare):
		return headMark + k.headed(i, bare)
	case is == hear.Remark && !notes:
		return noteMark + bare
	case is != hear.Heading && heads, is != hear.Remark && notes:
		return bare + k.when[i]
	}
	return told
}

// kindTold is the kind as which a line was marked.
func kindTold(told string) string {
	switch {
	case strings.HasPrefix(told, headMark):
		return "H"
	case strings.HasPrefix(told, noteMark):
		return "R"
	}
	return "-"
}

func best(is kinds) string {
	at := slices.Index(is[:], slices.Max(is[:]))
	return hear.KindLetters[at:at+1] + strconv.Itoa(int(is[at]*4))
}

// likes are how likely a line is of each kind alone, in steps.
func (k *sketch) likes(alone kinds) (list []string) {
	for at, p := range alone {
		step := 0
		for _, least := range []float64{0.02, 0.1, 0.3, 0.6, 0.85, 0.97, 0.995} {
			if p >= least {
				step++
			}
		}
		list = append(list, "p"+hear.KindLetters[at:at+1]+strconv.Itoa(step))
	}
	return append(list, "is:"+best(alone))
}

// amount tells of a line whether it says how much.
func (k *sketch) amount(i int) string {
	bare := headTimes.ReplaceAllString(outOf.ReplaceAllString(inBrackets.ReplaceAllString(k.plain[i], ""), ""), "")
	switch {
	case strings.ContainsAny(bare, "0123456789"):
		return "figure"
	case anyAmount.MatchString(bare):
		return "amount"
	}
	return "none"
}

// likeliest are the kinds of the lines of a list of which all together are likeliest, by what speaks for each; what is
// above counts too.
func likeliest(lines []int, speaks map[int][]string, says func([]string) kinds) map[int]hear.Kind {
	const n = len(hear.KindLetters)
	type step struct {
		score [n]float64
		from  [n]int
	}
	steps := make([]step, len(lines))
	for at, i := range lines {
		for before := range n {
			if at == 0 && before > 0 {
				break
			}
			p := says(slices.Concat(speaks[i], after(at, before, speaks[i])))
			for is := range n {
				score := math.Log(p[is] + 1e-9)
				if at > 0 {
					score += steps[at-1].score[before]
				}
				if before == 0 || score > steps[at].score[is] {
					steps[at].score[is], steps[at].from[is] = score, before
				}
			}
		}
	}
	are := map[int]hear.Kind{}
	if len(lines) == 0 {
		return are
	}
	end := steps[len(steps)-1].score
	if len(lines) > 2 {
		end[slices.Index(hear.Kinds, hear.Heading)] -= headsNothing
	}
	is := slices.Index(end[:], slices.Max(end[:]))
	for at := len(lines) - 1; at >= 0; at-- {
		are[lines[at]] = hear.Kinds[is]
		is = steps[at].from[is]
	}
	return are
}

// headsNothing is by how much less likely a heading is below which nothing stands.
const headsNothing = 6

// after is what speaks for a kind because of that of the line above, the index of one of
// hear.Kinds; none above the first.
func after(at, above int, speaks []string) (list []string) {
	if at == 0 {
		return []string{"after^"}
	}
	is := "after" + hear.KindLetters[above:above+1]
	list = append(list, is)
	for _, f := range speaks {
		switch f {
		case "opens", "figure", "none", "mark0", "mark1", "mark2", "mark3", "deeper", "marked below", "capitals",
			"colon", "told:H", "told:-", "told:R", "is:D3", "is:H3", "is:R3", "is:F3", "is:D4", "is:H2", "when", "last":
			list = append(list, is+"&"+f)
		}
	}
	return list
}

// toGo is a number of minutes at the front or at the end of what is fixed: "25 call room".
var toGo = pattern.Must(`^(?:(\d{1,3})(?:'| min)?[ :-]+([\pL].*)|(.*[\pL)]) (\d{1,3}))$`)

// inList is a line as what it is in its list, where by itself it would be something else.
func (r *Reader) inList(l Line, text string, is hear.Kind) Line {
	fits := func(of ...hear.Kind) (Line, bool) {
		who, rest := r.roster(tidySigns(text))
		for _, reading := range hear.Readings(rest, lexicon{r}) {
			if slices.Contains(of, reading.Is) {
				return r.meaning(text, who, reading), true
			}
		}
		return l, false
	}
	switch {
	case is == hear.Drill && (l.Is == IsBlock || l.Is == IsNote || l.Is == IsFixed && r.ruled(text).Is != IsFixed):
		if drilled, can := fits(hear.Drill, hear.Combo, hear.Choice); can {
			return drilled
		}
		return r.counted(l, text)
	case is == hear.Fixed && l.Is != IsFixed && l.Is != IsPhase && (l.Is == IsBlock || r.mayBeFixed(text)):
		at := text
		if atEnd.MatchString(text) {
		} else if m := toGo.FindStringSubmatch(text); m != nil {
			at = m[2] + m[3] + " - at " + m[1] + m[4]
		} else if m := clockFront.FindStringSubmatch(text); m != nil {
			at = m[2] + " - at " + m[1]
		}
		if fixed := r.ruled("fixed: " + at); fixed.Is == IsFixed {
			return fixed
		}
		if fixed, can := fits(hear.Fixed); can {
			return fixed
		}
		if l.Is == IsBlock && l.At == nil && l.Window == nil {
			return Line{Is: IsFixed, Said: l.Said, Name: l.Name, Cues: l.Cues, Who: l.Who, Whom: l.Whom}
		}
	}
	return l
}

// soMany is a line of words and of how many, and when.
var soMany = pattern.Must(`^(.*?\pL)( (?:x ?)?\d{1,3}(?: - at [\d:.]+)?)$`)

// counted is a line of which every word might be how hard, or where, as a drill that is called so: "half pace x 6".
func (r *Reader) counted(l Line, text string) Line {
	m := soMany.FindStringSubmatch(text)
	if m == nil || amountAlone(atEnd.ReplaceAllString(text, "")) && !effortWords.MatchString(m[1]) {
		return l
	}
	drilled := r.Read("exercise" + m[2])
	if drilled.Is != IsDrill || drilled.Dose == nil {
		return l
	}
	drilled.Name, drilled.Code, drilled.Said = m[1], "", l.Said
	return drilled
}

// mayBeFixed tells whether a line could be something fixed where it stands alone.
func (r *Reader) mayBeFixed(text string) bool {
	const least = 0.25
	_, rest := r.roster(tidySigns(text))
	return event(text) || r.mark(rest).Kinds[slices.Index(hear.Kinds, hear.Fixed)] >= least
}
