package hear

import (
	"slices"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/pattern"
)

// word is a word, a number or a sign of a line.
type word struct {
	is       string // in one form: small, numbers in figures, units short, usual slips mended
	number   float64
	numeral  bool // it is a number
	spelt    bool // in letters
	sign     bool
	from, to int // bytes of the line
}

// canon is what words are taken for: units, numbers in letters, slips of small words.
var canon = table(`
0 zero | 1 one | 2 two | 3 three | 4 four | 5 five | 6 six | 7 seven | 8 eight | 9 nine | 10 ten | 11 eleven | 12 twelve
0.75 three-quarter three-quarters | 15 fifteen | 20 twenty | 25 twenty-five | 30 thirty | 40 forty | 45 forty-five | 50 fifty | 60 sixty | 70 seventy | 80 eighty | 90 ninety | 100 hundred
m metre metres meter meters mtr mtrs | yd yds yard yards | ft feet foot | km kilometre kilometres
s sec secs second seconds | min mins minute minutes minute's
and n an' & ampersand | with w wit wiv w/ | the teh da | between betwen btwn inbetween | through thru | each eech
until till til 'til untill | back bk | you u ya | to 2wards towards | left lft l | right rt r | forward fwd fwds forwards | backward bwd bwds
percent perc pct % | approximately approx about roughly around abt
side sides | leg legs | arm arms | hand hands | way ways | rep reps repetition repetitions | set sets | round rounds rnd rnds | time times
length lengths | width widths | lap laps | breath breaths | step steps | people ppl | please pls plz | hamstring hammy hammies
kicks kix | forehand fh forehands | backhand bh backhands | before b4 prior beforehand | part pt | until till til 'til untill | worlds world's | childs child's | its it's
`)

// keep are words that are what they are after a number only: "3 feet", but "fast feet".
var unitsOnly = map[string]bool{"ft": true, "s": true, "m": true, "yd": true, "r": true, "l": true, "km": true}

func table(text string) map[string]string {
	to := map[string]string{}
	for _, row := range strings.FieldsFunc(text, func(r rune) bool { return r == '|' || r == '\n' }) {
		words := strings.Fields(row)
		for _, w := range words[min(1, len(words)):] {
			to[w] = words[0]
		}
	}
	return to
}

// signs are what parts a line, in one form.
var signs = map[rune]string{'–': "-", '—': "-", '−': "-", '→': "to", '×': "x", '•': "*", '·': "*", '’': "'", '‘': "'",
	'′': "'", '″': "\"", '“': "\"", '”': "\"", '…': "…"}

// fractions are numbers in one letter.
var fractions = map[rune]float64{'½': 0.5, '¾': 0.75, '¼': 0.25}

// split parts a line into its words.
func split(line string) (words []word) {
	runes, at := []rune(line), make([]int, 0, len(line)+1)
	for i := range line {
		at = append(at, i)
	}
	at = append(at, len(line))
	letter := func(i int) bool {
		return i >= 0 && i < len(runes) && (unicode.IsLetter(runes[i]) || unicode.Is(unicode.Mn, runes[i]))
	}
	digit := func(i int) bool { return i >= 0 && i < len(runes) && runes[i] >= '0' && runes[i] <= '9' }
	for i := 0; i < len(runes); {
		r, from := runes[i], i
		switch {
		case unicode.IsSpace(r) || unicode.IsControl(r) || r == 0xFEFF || unicode.Is(unicode.Cf, r):
			i++
			continue
		case fractions[r] > 0:
			i++
			words = append(words, word{is: strconv.FormatFloat(fractions[r], 'g', -1, 64), number: fractions[r],
				numeral: true, from: at[from], to: at[i]})
			continue
		case digit(i):
			i = number(runes, i, digit, letter)
		case letter(i):
			i = letters(runes, i, digit, letter)
		default:
			i++
		}
		if r == ':' && digit(i) && digit(i+1) && !digit(i+2) && (from == 0 || unicode.IsSpace(runes[from-1])) {
			i += 2
			words = append(words, seconds(string(runes[i-2:i]), at[from], at[i-1], at[i])...)
			continue
		}
		text := strings.ToLower(string(runes[from:i]))
		w := word{is: text, from: at[from], to: at[i]}
		w.form(runes, from, i, words)
		if w.is == "please" {
			continue
		}
		if n := len(words) - 1; w.is == "back" && n >= 0 && words[n].is == "an" {
			words[n].is = "and"
		}
		words = append(words, w)
		words = sides(words)
	}
	return eachShort(words)
}

// seconds are the words of ":30".
func seconds(digits string, from, last, to int) []word {
	n, _ := strconv.ParseFloat(digits, 64)
	return []word{{is: strings.TrimLeft(digits, "0"), number: n, numeral: true, from: from, to: last},
		{is: "s", from: last, to: to}}
}

// eachShort makes "each side" of an e behind a number: "lunges 5e", "6 e, hooks 4 e", "5 e block".
func eachShort(words []word) []word {
	for i := 1; i < len(words); i++ {
		w, next := &words[i], ""
		if i+1 < len(words) && !words[i+1].delimits() {
			next = words[i+1].is
		}
		if w.is != "e" || !(words[i-1].numeral || words[i-1].is == "s" && i > 1 && words[i-2].numeral) {
			continue
		}
		if limbs.MatchString(next) {
			w.is = "ea"
		} else if next == "" || next == "x" || words[i+1].sign {
			w.is = "e/s"
		}
	}
	return words
}

// limbs are what something is done with or at on each side.
var limbs = pattern.Must(`^(?:sides?|legs?|arms?|hands?|foot|feet|shoulders?|hips?|knees?|ankles?|ways?|directions?|corners?|ends?|blocks?)$`)

// sides makes one word of sides that play, said in letters, as two v one, and of figures of eight.
func sides(words []word) []word {
	n := len(words)
	if n > 1 && words[n-2].is == "figure" && words[n-1].numeral ||
		n > 1 && words[n-2].is == "figure-eight" && words[n-1].is == "s" {
		// figure 8s are no seconds
		return append(words[:n-2], word{is: "figure-eight", from: words[n-2].from, to: words[n-1].to})
	}
	if n > 2 && words[n-1].is == "s" && words[n-2].numeral && words[n-1].from == words[n-2].to &&
		slices.Contains([]string{"flying", "fly", "rolling"}, words[n-3].is) {
		// flying 20s are of 20 m
		return append(words[:n-2], word{is: words[n-2].is + "s", from: words[n-2].from, to: words[n-1].to})
	}
	if n == 2 && words[1].is == "s" && words[0].from == 0 &&
		slices.Contains([]string{"90", "180", "360", "540"}, words[0].is) && words[0].to == words[1].from {
		// 180s are turns
		return []word{{is: words[0].is + "s", from: 0, to: words[1].to}}
	}
	if n > 2 && words[n-1].numeral && words[n-3].numeral && !words[n-1].spelt && words[n-2].is == "v" &&
		words[n-1].number <= 15 {
		// 1 v 1
		is := words[n-3].is + "v" + words[n-1].is
		return append(words[:n-3], word{is: is, from: words[n-3].from, to: words[n-1].to})
	}
	if n < 3 || !words[n-1].spelt || !words[n-3].spelt || words[n-3].number > 15 || words[n-1].number > 15 ||
		!slices.Contains([]string{"v", "vs", "versus", "on"}, words[n-2].is) {
		return words
	}
	is := strconv.Itoa(int(words[n-3].number)) + "v" + strconv.Itoa(int(words[n-1].number))
	return append(words[:n-3], word{is: is, from: words[n-3].from, to: words[n-1].to})
}

// workThenRest is how long work and rest last, from behind the first number: " on 20 off".
var workThenRest = pattern.Must(`(?i)^ on \d+ ?(?:s|secs?|mins?)? (?:off|rest)\b`)

// number is where a number ends: 1.5, 0:30, 14:20; a sport's own words with figures stay
// whole: 5v2, 4th, 90/90.
func number(runes []rune, i int, digit, letter func(int) bool) int {
	from := i
	for digit(i) {
		i++
	}
	switch rest := strings.ToLower(string(runes[i:min(len(runes), i+3)])); {
	// seven low, seven high, seven all the way
	case string(runes[from:i]) == "21" && strings.HasPrefix(rest, "s") && !letter(i+1):
		return i + 1
	case strings.HasPrefix(string(runes[i:]), " on ") && digit(i+4) &&
		!workThenRest.MatchString(string(runes[i:min(len(runes), i+16)])):
		for i += 4; digit(i); i++ {
		}
		return i
	case strings.HasPrefix(rest, "on") && digit(i+2): // 1on1
		for i += 2; digit(i); i++ {
		}
		return i
	case strings.HasPrefix(rest, "d") && !letter(i+1): // 3D skills
		return i + 1
	// 3-step, 6-yard box
	case strings.HasPrefix(rest, "-") && letter(i+1) && letter(i+2) &&
		(!unitLetters(runes, i+1, letter) || ofLine(runes, i+1, letter)):
		for i++; letter(i) || i < len(runes) && runes[i] == '-' && letter(i+1); i++ {
		}
		return i
	case strings.HasPrefix(rest, "-") && symmetric(runes, from, digit) > 0: // 5-10-5
		return symmetric(runes, from, digit)
	case strings.HasPrefix(rest, "v") && digit(i+1), strings.HasPrefix(rest, "/90") && string(runes[from:i]) == "90":
		for i++; digit(i); i++ {
		}
		if i < len(runes) && runes[i] == 's' && !letter(i+1) {
			i++
		}
		return i
	case len(rest) >= 2 && (rest[:2] == "st" || rest[:2] == "nd" || rest[:2] == "rd" || rest[:2] == "th") &&
		!letter(i+2):
		return i + 2
	case (strings.HasPrefix(rest, ".") || strings.HasPrefix(rest, ":")) && digit(i+1):
		for i++; digit(i); i++ {
		}
	}
	return i
}

// ofLine tells whether a unit is of a line or a box of the ground: 6-yard box.
func ofLine(runes []rune, i int, letter func(int) bool) bool {
	for letter(i) {
		i++
	}
	rest := strings.ToLower(string(runes[i:min(len(runes), i+5)]))
	return strings.HasPrefix(rest, " box") || strings.HasPrefix(rest, " line") || strings.HasPrefix(rest, " area")
}

// unitLetters tells whether letters are a unit: 8-sec.
func unitLetters(runes []rune, i int, letter func(int) bool) bool {
	from := i
	for letter(i) {
		i++
	}
	w := strings.ToLower(string(runes[from:i]))
	return unitsOnly[w] || unitsOnly[canon[w]] || canon[w] == "min" || w == "min" || w == "to"
}

// symmetric is where a name like 5-10-5 ends; 0: it is none.
func symmetric(runes []rune, i int, digit func(int) bool) int {
	var parts []string
	for len(parts) < 3 {
		from := i
		for digit(i) {
			i++
		}
		if from == i {
			return 0
		}
		parts = append(parts, string(runes[from:i]))
		if len(parts) < 3 {
			if i >= len(runes) || runes[i] != '-' {
				return 0
			}
			i++
		}
	}
	if parts[0] != parts[2] || len(parts[1]) < 2 {
		return 0
	}
	return i
}

// letters is where a word ends: up-downs, world's, e/s, OL/DL stay whole, x4 is two.
func letters(runes []rune, i int, digit, letter func(int) bool) int {
	if (runes[i] == 'x' || runes[i] == 'X') && (digit(i+1) || i+1 < len(runes) && runes[i+1] == ' ' && digit(i+2)) {
		return i + 1
	}
	if strings.ContainsRune("uUvVbB", runes[i]) && digit(i+1) && !letter(i+2) &&
		(i == 0 || unicode.IsSpace(runes[i-1])) {
		// u16, v2, b4
		for i++; digit(i) || letter(i); i++ {
		}
		return i
	}
	if of := shirtOf.FindString(string(runes[i:min(len(runes), i+6)])); of != "" &&
		(i == 0 || !letter(i-1) && !digit(i-1)) {
		// QB2, CB1
		return i + len(of)
	}
	for letter(i) || i < len(runes) && letter(i-1) && letter(i+1) &&
		(runes[i] == '\'' || runes[i] == '’' || runes[i] == '-' || runes[i] == '/' || runes[i] == '‑') {
		i++
	}
	if i < len(runes) && runes[i] == '/' && (runes[i-1] == 'w' || runes[i-1] == 'W') {
		i++ // w/
	}
	return i
}

// shirtOf is which of several of one position: QB2.
var shirtOf = pattern.Must(`^(?:[A-Z]{2,3}\d|h\d)\b`)

// form gives a word its one form.
func (w *word) form(runes []rune, from, to int, before []word) {
	r := runes[from]
	afterNumber := len(before) > 0 && before[len(before)-1].numeral
	switch {
	case r >= '0' && r <= '9':
		text := strings.Replace(w.is, ",", ".", 1)
		if m, s, clock := strings.Cut(text, ":"); clock {
			minutes, _ := strconv.Atoi(m)
			seconds, _ := strconv.Atoi(s)
			w.number, w.numeral = float64(60*minutes+seconds), true
			return
		}
		n, err := strconv.ParseFloat(text, 64)
		w.number, w.numeral = n, err == nil
	case unicode.IsLetter(r):
		w.is = strings.ReplaceAll(w.is, "’", "'")
		c, known := canon[w.is]
		if !known || unitsOnly[c] && !afterNumber || c == "ft" && before[len(before)-1].spelt { // "land two feet"
			return
		}
		if n, err := strconv.ParseFloat(c, 64); err == nil {
			w.number, w.numeral, w.spelt = n, true, true
		}
		w.is = c
	default:
		w.sign = true
		if s, ok := signs[r]; ok {
			w.is = s
		}
		left, right := from == 0 || unicode.IsSpace(runes[from-1]), to >= len(runes) || unicode.IsSpace(runes[to])
		switch {
		case w.is == "-" && left && right:
			w.is = "--"
		case w.is == "-" && left && to < len(runes) && runes[to] >= '0' && runes[to] <= '9':
			w.is = "t-"
		case w.is == "'" && afterNumber:
			w.is, w.sign = "min", false
		case w.is == "&":
			w.is, w.sign = "and", false
		case w.is == "%":
			w.is = "percent"
		case w.is == "to" || w.is == "x":
			w.sign = false
		}
	}
}

// delimits tells whether a sign parts what is said before it from what is said after.
func (w *word) delimits() bool {
	return w.sign && strings.Contains(", . ; : -- ( ) ! ? \" * #", w.is) && w.is != ""
}

// joined are words in their one form, with a space between.
func joined(words []word) (text string, starts []int) {
	var b strings.Builder
	for i := range words {
		if i > 0 {
			b.WriteByte(' ')
		}
		starts = append(starts, b.Len())
		b.WriteString(words[i].is)
	}
	return b.String(), starts
}
