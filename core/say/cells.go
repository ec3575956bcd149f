package say

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
)

// mostSpots is how many places without names are read.
const mostSpots = 12

// A cell with its count before it, "3 far right"; the first behind a name.
var (
	cellSaid  = Spaced(`^` + num + `~([a-z-]+)~([a-z-]+)$`)
	firstCell = Spaced(`[ \x01:](` + num + `~[a-z-]+~[a-z-]+)~$`)
)

// namedPlaces takes cells that are said one by one, as a sheet prints them: "2 near left, 2 near
// right, 3 far left, 3 far right".
func (s *counting) namedPlaces(d *Dose) bool {
	var rows, columns []string
	counts, all := map[[2]string]int{}, 0
	from, to := -1, 0
	for _, g := range segments(s.text) {
		if at := firstCell.FindStringSubmatchIndex(s.text[g.from:g.to]); from < 0 && at != nil {
			// the name stands before them
			g.from, g.text = g.from+at[2], s.text[g.from+at[2]:g.to]
		}
		m := cellSaid.FindStringSubmatch(strings.TrimSpace(softRun.ReplaceAllString(g.text, " ")))
		if m == nil && from >= 0 && g.text != "" {
			break
		}
		if m == nil {
			continue
		}
		if from < 0 {
			from = g.from
		}
		to = g.to
		rows, columns = AppendNew(rows, []string{strings.ToLower(m[2])}),
			AppendNew(columns, []string{strings.ToLower(m[3])})
		counts[[2]string{strings.ToLower(m[2]), strings.ToLower(m[3])}] = number(m[1])
		all += number(m[1])
	}
	if all == 0 || len(rows) < 2 || len(columns) < 2 || len(counts) < max(3, len(rows)*len(columns)-2) ||
		slices.ContainsFunc(rows, unitWord) {
		return false
	}
	d.Kind, d.Rows, d.Columns = drill.Grid, rows, columns
	for _, row := range rows {
		var line []int
		for _, column := range columns {
			line = append(line, counts[[2]string{row, column}])
		}
		d.Counts = append(d.Counts, line)
	}
	s.text = s.text[:from] + soft + s.text[to:]
	return true
}

var (
	eachOfSpots = Spaced(`\b` + num + `~in each of~` + num + `~(?:places|spots|corners|cells)\b`)
	spotsEach   = Spaced(`\b` + num + `~(?:places|spots|corners)\b,?~(?:with~)?` + num +
		`~(?:each|at each|from each|in each)\b`)
)

// placesEach are places of several words: "from up top, left alley, right alley, five each".
var placesEach = pattern.Must(`(?i):?[ \x01]*\bfrom[ \x01]+(?:the )?([a-z][a-z -]+(?:,[ \x01]*(?:and )?[a-z][a-z -]+)+),[ \x01]*` +
	num + ` each\b`)

// spots takes places of several words, or such as have no names: "five spots, three each".
func (s *counting) spots(d *Dose) bool {
	if at := placesEach.FindStringSubmatchIndex(s.text); at != nil {
		list := strings.Split(strings.ReplaceAll(s.text[at[2]:at[3]], soft, " "), ",")
		long := false
		for i, one := range list {
			list[i] = strings.ToLower(strings.TrimPrefix(strings.TrimSpace(one), "and "))
			long = long || strings.Contains(list[i], " ")
		}
		if long && !slices.ContainsFunc(list, func(one string) bool { return strings.Contains(one, " and ") }) {
			d.Kind, d.Columns, d.Tries = drill.Grid, list, number(s.text[at[4]:at[5]])
			s.text = s.text[:at[0]] + soft + s.text[at[1]:]
			return true
		}
	}
	tries, places := 1, 2
	m := s.take(eachOfSpots)
	if m == nil {
		m, tries, places = s.take(spotsEach), 2, 1
	}
	if m == nil {
		return false
	}
	d.Kind, d.Tries = drill.Grid, number(m[tries])
	for n := range min(number(m[places]), mostSpots) {
		d.Columns = append(d.Columns, fmt.Sprintf("spot %d", n+1))
	}
	d.Unnamed = true
	return true
}
