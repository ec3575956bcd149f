package say

import (
	"slices"
	"strings"

	"cuestart/core/drill"
)

// words are those of a list: "front middle back", "left, middle and right".
func words(list string) []string {
	return slices.DeleteFunc(strings.FieldsFunc(strings.NewReplacer(" and ", " ", "/", " ", ",", " ", soft,
		" ").Replace(strings.ToLower(list)+" "), func(r rune) bool { return r == ' ' }),
		func(w string) bool { return w == "the" || w == "x" || smallNumbers[w] > 0 })
}

// places take a grid, with the same or with other counts in each cell, and parts.
func (s *counting) places(d *Dose) bool { return d.Laps == 0 && s.grid(d) && s.cells(d) }

func (s *counting) grid(d *Dose) bool {
	if s.namedPlaces(d) || s.spots(d) {
		return true
	}
	if at := ladderOf.FindStringSubmatchIndex(s.text); at != nil {
		counts, columns := digits.FindAllString(s.text[at[2]:at[3]], -1), words(s.text[at[4]:at[5]])
		if len(counts) == len(columns) && slices.Max(numbers(counts)) > 0 && !slices.ContainsFunc(columns, unitWord) {
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

// heights are the words for places that lie across those to the left and right.
var heights = strings.Fields("near far short long low high deep")

// cells takes the cells that are said apart: "the low corners ten", or "far right three"
// of "left, middle, right, near and far", which then are rows and columns.
func (s *counting) cells(d *Dose) bool {
	for _, g := range segments(s.text) {
		m := cellApart.FindStringSubmatch(strings.Trim(softRun.ReplaceAllString(g.text, " "), " "))
		if m == nil {
			continue
		}
		named, n := words(cornerWord.ReplaceAllString(m[1], "")), number(m[2])
		crossed := d.crossed()
		if d.apart(named, n) || crossed.apart(named, n) {
			if len(d.Counts) == 0 && len(d.PartReps) == 0 {
				*d = crossed
			}
			s.text = s.text[:g.from] + soft + strings.Repeat(" ", g.to-g.from-1) + s.text[g.to:]
		}
	}
	return true
}

// crossed is the dose with places near and far as rows, left and right as columns, where
// there are some of both.
func (d *Dose) crossed() Dose {
	c := *d
	if len(d.Rows) > 0 || d.Counts != nil {
		return c
	}
	c.Columns = nil
	for _, place := range d.Columns {
		if slices.Contains(heights, place) {
			c.Rows = append(c.Rows, place)
		} else {
			c.Columns = append(c.Columns, place)
		}
	}
	if len(c.Rows) < 2 || len(c.Columns) < 2 {
		return *d
	}
	return c
}

var (
	cellApart  = Spaced(`^(?:the~)?([a-z -]+?)~` + num + `$`)
	cornerWord = Spaced(`\b(?:corners?|ones?|sides?|posts?)\b`)
)

// apart gives the cells or parts that all the words name a number of their own.
func (d *Dose) apart(named []string, n int) (found bool) {
	if len(named) == 0 || n == 0 && len(d.Parts) > 0 {
		return false
	}
	all := func(cell string) bool {
		return !slices.ContainsFunc(named, func(w string) bool { return !slices.Contains(strings.Fields(cell), w) })
	}
	if len(d.Parts) > 0 {
		own := slices.Clone(d.PartReps)
		if own == nil {
			own = make([]int, len(d.Parts))
		}
		for i, part := range d.Parts {
			if all(part) {
				own[i], found = n, true
			}
		}
		if found {
			d.PartReps = own
		}
		return found
	}
	rows := d.Rows
	if len(rows) == 0 {
		rows = []string{""}
	}
	counts := make([][]int, len(rows))
	for i, row := range rows {
		for j, column := range d.Columns {
			was := max(1, d.Tries)
			if i < len(d.Counts) && j < len(d.Counts[i]) {
				was = d.Counts[i][j]
			}
			if all(row + " " + column) {
				was, found = n, true
			}
			counts[i] = append(counts[i], was)
		}
	}
	if found {
		d.Counts, d.Tries = counts, 0
	}
	return found
}

// parts take "forward / left / right / back", or a list of places with "two each".
func (s *counting) parts(d *Dose) bool {
	if at := slashed.FindStringSubmatchIndex(s.text); at != nil {
		var parts []string
		for _, p := range strings.Split(s.text[at[2]:at[3]], "/") {
			parts = append(parts, strings.ToLower(strings.Trim(p, " "+soft)))
		}
		lead := strings.Fields(parts[0]) // the name stands before the first part
		if len(lead) > 0 {
			words := 1
			if n := len(strings.Fields(parts[1])); len(lead) >= n && n > 1 &&
				isPlace(strings.Join(lead[len(lead)-n:], " ")) {
				words = n
			}
			parts[0] = strings.Join(lead[len(lead)-words:], " ")
			from := at[2] + strings.LastIndex(strings.ToLower(s.text[at[2]:at[3]][:strings.Index(s.text[at[2]:at[3]],
				"/")]), parts[0])
			d.Parts = parts
			s.text = s.text[:from] + soft + s.text[at[3]:]
			return true
		}
	}
	m := eachOf.FindStringSubmatch(s.text)
	if m == nil {
		if at := manyFrom.FindStringSubmatchIndex(s.text); at != nil &&
			isPlace(strings.ReplaceAll(s.text[at[4]:at[5]], ",", " ")) {
			d.Kind, d.Columns, d.Tries = drill.Grid, words(s.text[at[4]:at[5]]), number(s.text[at[2]:at[3]])
			s.text = s.text[:at[0]] + soft + s.text[at[1]:]
			return true
		}
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
func (s *counting) listed(d *Dose) bool {
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
	if at := strings.LastIndexAny(list[0].text, " "+soft); parts == nil && at > 0 && first > 2 &&
		isPlace(list[0].text[at+1:]) && !isPlace(list[0].text) {
		parts, from = append(parts, strings.ToLower(list[0].text[at+1:])),
			strings.LastIndex(s.text[:list[0].to], list[0].text[at+1:])
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

var units = strings.Fields("s sec secs second seconds min mins minute minutes m metres meters x a each per " +
	"side sides leg legs arm arms way ways of reps rep sets times lengths in all total and rest hold holds " +
	"exactly breaths rounds forward forwards back backward backwards out")

func unitWord(w string) bool { return slices.Contains(units, w) && w != "back" && w != "forward" }
