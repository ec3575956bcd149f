package say

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/drill"
)

// mostSpots is how many places without names are read.
const mostSpots = 12

// cellSaid is a cell with its count before it: "3 far right".
var cellSaid = pattern(`^` + num + `~([a-z-]+)~([a-z-]+)$`)

// named takes cells that are said one by one, as a sheet prints them: "2 near left, 2 near
// right, 3 far left, 3 far right".
func (s *scan) named(d *Dose) bool {
	var rows, columns []string
	counts := map[[2]string]int{}
	from, to := -1, 0
	for _, g := range segments(s.text) {
		if at := strings.LastIndex(s.text[g.from:g.to], ": "); from < 0 && at >= 0 { // the name stands before them
			g.from, g.text = g.from+at+1, s.text[g.from+at+1:g.to]
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
		rows, columns = appendNew(rows, []string{strings.ToLower(m[2])}), appendNew(columns, []string{strings.ToLower(m[3])})
		counts[[2]string{strings.ToLower(m[2]), strings.ToLower(m[3])}] = number(m[1])
	}
	if len(rows) < 2 || len(columns) < 2 || len(counts) < max(3, len(rows)*len(columns)-2) || slices.ContainsFunc(rows, unitWord) {
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
	eachOfSpots = pattern(`\b` + num + `~in each of~` + num + `~(?:places|spots|corners|cells)\b`)
	spotsEach   = pattern(`\b` + num + `~(?:places|spots|corners)\b,?~(?:with~)?` + num + `~(?:each|at each|from each|in each)\b`)
)

// spots takes places that have no names: "five spots, three each".
func (s *scan) spots(d *Dose) bool {
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
	d.unnamed = true
	return true
}
