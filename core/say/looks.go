package say

import (
	"slices"
	"strconv"
	"strings"

	"cuestart/core/hear"
	"cuestart/core/movement"
	"cuestart/core/pattern"
)

// looks is how a line looks: the nth of all.
func (k *sketch) looks(i, n, all int) []string {
	text := strings.TrimSpace(k.plain[i])
	words := strings.Fields(strings.ToLower(text))
	list := []string{k.amount(i), "mark" + strconv.Itoa(int(k.marks[i])),
		"long" + strconv.Itoa(min(len(words), 5)+min(len(words)/8, 3))}
	for _, of := range [][]look{k.stands(i, n, all), k.typeset(i, text), tells(text, words, k.when[i])} {
		for _, one := range of {
			if one.holds {
				list = append(list, one.is)
			}
		}
	}
	return list
}

// look is something that holds of a line or does not.
type look struct {
	is    string
	holds bool
}

// stands is where a line stands: the nth of all.
func (k *sketch) stands(i, n, all int) []look {
	next, last := k.next(i), i-1
	for last >= 0 && strings.TrimSpace(k.typed[last]) == "" {
		last--
	}
	below := next < len(k.typed)
	list := []look{
		{"opens", i == 0 || strings.TrimSpace(k.typed[i-1]) == ""},
		{"ends", i+1 >= len(k.typed) || strings.TrimSpace(k.typed[i+1]) == ""},
		{"first", n == 0}, {"second", n == 1}, {"last", n == all-1}, {"before last", n == all-2},
		{"deeper", last >= 0 && indent(k.typed[i]) > indent(k.typed[last])},
	}
	if below {
		marked := k.marks[i] != unmarked
		list = append(list, look{"deeper below", indent(k.typed[next]) > indent(k.typed[i])},
			look{"marked below", !marked && k.marks[next] != unmarked},
			look{"other mark below", marked && k.marks[next] != unmarked && k.marks[next] != k.marks[i]},
			look{"unmarked below", marked && k.marks[next] == unmarked})
	}
	return list
}

// typeset is how a line is written.
func (k *sketch) typeset(i int, text string) []look {
	typed := strings.TrimRight(k.typed[i], " \t\r")
	first, last := byte(0), byte(0)
	if text != "" {
		first, last = text[0], text[len(text)-1]
	}
	return []look{
		{"colon", strings.HasSuffix(typed, ":")}, {"colon in", strings.Contains(text, ": ")},
		{"dash in", strings.Contains(text, " - ") || strings.Contains(text, " – ")},
		{"brackets", strings.Contains(text, "(")}, {"commas", strings.Contains(text, ", ")},
		{"capitals", inCapitals.MatchString(text)}, {"Large", first >= 'A' && first <= 'Z'},
		{"starred", strings.HasPrefix(typed, "**") || strings.HasPrefix(typed, "--") || strings.HasPrefix(typed, "==")},
		{"!", strings.HasSuffix(typed, "!")}, {".", strings.HasSuffix(typed, ".")},
		{"number first", first >= '0' && first <= '9'}, {"number last", last >= '0' && last <= '9'},
	}
}

// tells is of what a line's words are.
func tells(text string, words []string, when string) []look {
	return []look{
		{"when", when != ""}, {"times", headTimes.MatchString(text) || outOf.MatchString(text)},
		{"of minutes", ofMinutes.MatchString(text)},
		{"event", event(text)}, {"greets", greetings.MatchString(text)},
		{"title", titleWords.MatchString(text) || dayWords.MatchString(text)},
		{"squad", squadWords.MatchString(text)}, {"opener", openers.MatchString(text)},
		{"section", section(headName(text))},
		{"moves", movement.Lead(text) != ""}, {"group", len(words) > 0 && hear.Group(strings.Trim(words[0], ",.:()"))},
	}
}

// shapes are how a list as a whole looks.
func (k *sketch) shapes(all []int) (list []string) {
	marks, colons, capitals, parts, deep, times := 0, 0, 0, 0, 0, 0
	for n, i := range all {
		text := strings.TrimSpace(k.plain[i])
		if k.marks[i] != unmarked {
			marks++
		}
		if strings.HasSuffix(text, ":") {
			colons++
		}
		if inCapitals.MatchString(text) {
			capitals++
		}
		if n > 0 && strings.TrimSpace(k.typed[i-1]) == "" {
			parts++
		}
		if n > 0 && indent(k.typed[i]) > indent(k.typed[all[n-1]]) {
			deep++
		}
		if k.when[i] != "" {
			times++
		}
	}
	share := func(name string, of int) {
		if of > 1 {
			list = append(list, name)
		}
	}
	if marks*2 > len(all) {
		list = append(list, "L:marks")
	}
	share("L:colons", colons)
	share("L:capitals", capitals)
	share("L:parts", parts)
	share("L:deep", deep)
	share("L:times", times)
	if len(list) == 0 {
		list = append(list, "L:plain")
	}
	return list
}

// countedOff is a line that begins with which of several it is: "Part two", "3rd part", "(1) run", "A2 pitch".
var countedOff = pattern.Must(`(?i)^[(*#-]*\s*(?:(part|block|phase|stage|station|section|set|group|round|bit|day|zone)\s+)?([a-d])?(\d{1,2}|one|two|three|four|five|six|first|second|third|fourth)?(st|nd|rd|th)?\b[).:/-]*`)

var ordinals = map[string]int{"one": 1, "first": 1, "two": 2, "second": 2, "three": 3, "third": 3, "four": 4,
	"fourth": 4, "five": 5, "six": 6}

// which is the number with which a line begins and in what manner it is counted; 0 where it is not.
func which(line string) (n int, manner string) {
	m := countedOff.FindStringSubmatch(strings.TrimSpace(line))
	if m == nil || m[3] == "" && m[2] == "" {
		return 0, ""
	}
	if n = ordinals[strings.ToLower(m[3])]; n == 0 {
		n, _ = strconv.Atoi(m[3])
	}
	if m[3] == "" {
		n = int(strings.ToLower(m[2])[0]-'a') + 1
		return n, strings.ToLower(m[1]) + "|letter"
	}
	return n, strings.ToLower(m[1] + "|" + m[2] + "|" + m[4])
}

// rows is whether lines count, up from line to line or down towards the start, and whether others stand between those
// that do.
func (k *sketch) rows(all []int) map[int][]string {
	of := map[int][]string{}
	add := func(lines []int, name string) {
		apart := 0
		for at := 1; at < len(lines); at++ {
			if slices.Index(all, lines[at])-slices.Index(all, lines[at-1]) > 1 {
				apart++
			}
		}
		if 2*apart >= len(lines)-1 {
			name += " apart"
		}
		for _, i := range lines {
			of[i] = append(of[i], name)
		}
	}
	up, down, last := map[string][]int{}, []int(nil), 1000
	next := map[string]int{}
	for _, i := range all {
		n, manner := which(k.typed[i])
		if n == 0 {
			continue
		}
		if next[manner] == n || next[manner] == 0 && n == 1 {
			up[manner], next[manner] = append(up[manner], i), n+1
		}
		if manner == "||" && n < last {
			down, last = append(down, i), n
		}
	}
	for _, lines := range up {
		if len(lines) > 1 {
			add(lines, "counts")
		}
	}
	if len(down) > 2 {
		add(down, "falls")
	}
	return of
}

// style is how a line is set off from others.
func (k *sketch) style(i int) string {
	text := strings.TrimSpace(k.plain[i])
	is := strconv.Itoa(int(k.marks[i]))
	for _, holds := range []bool{inCapitals.MatchString(text), strings.HasSuffix(text, ":"), k.when[i] != "",
		k.amount(i) == "figure", i == 0 || strings.TrimSpace(k.typed[i-1]) == "", indent(k.typed[i]) > 0,
		text != "" && text[0] >= 'A' && text[0] <= 'Z'} {
		if holds {
			is += "1"
		} else {
			is += "0"
		}
	}
	return is
}

// styles is how many of the other lines that are set off alike look like headings.
func (k *sketch) styles(all []int, told []string, alone []kinds) map[int][]string {
	heads, lines := map[string]float64{}, map[string]float64{}
	looks := func(i int) float64 {
		p := alone[i][slices.Index(hear.Kinds, hear.Heading)]
		if kindTold(told[i]) == "H" {
			p = max(p, 0.8)
		}
		return p
	}
	for _, i := range all {
		heads[k.style(i)] += looks(i)
		lines[k.style(i)]++
	}
	of := map[int][]string{}
	for _, i := range all {
		others, those := heads[k.style(i)]-looks(i), lines[k.style(i)]-1
		if those == 0 {
			of[i] = []string{"style alone"}
			continue
		}
		share := "style" + strconv.Itoa(int(4*others/those))
		of[i] = []string{share, share + "of" + strconv.Itoa(min(int(those), 3)), share + best(alone[i])}
	}
	return of
}

// headed is a line as a heading: without the number with which it counts, with when it begins behind it.
func (k *sketch) headed(i int, text string) string {
	if m := clockFront.FindStringSubmatch(text); m != nil && k.when[i] == "" {
		text, k.when[i] = m[2], " - at "+m[1]
	}
	if name, dose := doseOver(text); name != "" {
		text, k.dose[i] = name, dose
	} else if dose := holds(text); dose != "" {
		k.dose[i] = dose
	}
	if _, manner := which(text); manner == "||" {
		text = bareNumber.ReplaceAllString(text, "$2")
	}
	return fallingIn.ReplaceAllString(strings.TrimRight(text, ":"), " - from $1 to $2") + k.when[i]
}
