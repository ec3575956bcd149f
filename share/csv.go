// Package share reads and writes what a club exchanges with other programs: one
// file a format.
package share

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
)

// Problem is one thing wrong with a file that is read in: its line, counted from 1, the column by
// its name in the file, and what to do about it.
type Problem struct {
	Line   int
	Column string // "": the whole line
	What   string
}

func (p Problem) Error() string {
	if p.Column == "" {
		return fmt.Sprintf("line %d: %s", p.Line, p.What)
	}
	return fmt.Sprintf("line %d, %s: %s", p.Line, p.Column, p.What)
}

// MaxRows is how many rows are read at most, maxColumns how many columns, and
// maxProblems how many problems are listed.
const (
	MaxRows     = 5000
	maxColumns  = 100
	maxProblems = 100
)

// table is a file of rows under a heading.
type table struct {
	head  []string
	rows  [][]string
	lines []int // of each row
}

// readTable reads CSV as spreadsheets write it: with a byte order mark or not,
// commas, semicolons or tabs, any line ending, quoted fields over several lines.
// An error is a sentence about the whole file.
func readTable(text []byte) (*table, error) {
	text = bytes.TrimPrefix(text, []byte("\xef\xbb\xbf"))
	if bytes.HasPrefix(text, []byte("\xff\xfe")) || bytes.HasPrefix(text, []byte("\xfe\xff")) {
		return nil, errors.New("it is written in UTF-16: save it as CSV UTF-8")
	}
	if !utf8.Valid(text) {
		text = latin(text)
	}
	text = bytes.ReplaceAll(bytes.ReplaceAll(text, []byte("\r\n"), []byte("\n")), []byte("\r"), []byte("\n"))
	if first, rest, _ := bytes.Cut(text, []byte("\n")); bytes.HasPrefix(bytes.ToLower(first), []byte("sep=")) {
		text = rest // a spreadsheet's own remark
	}
	r := csv.NewReader(bytes.NewReader(text))
	r.Comma = comma(text)
	r.FieldsPerRecord = -1
	r.LazyQuotes = true
	t := &table{}
	for {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			return nil, fmt.Errorf("it cannot be read as CSV: %s", err)
		}
		line, _ := r.FieldPos(0)
		for i := range row {
			row[i] = plainCell(strings.TrimSpace(row[i]))
		}
		if !slices.ContainsFunc(row, func(cell string) bool { return cell != "" }) {
			continue
		}
		if len(row) > maxColumns {
			return nil, fmt.Errorf("line %d has %d cells: there are %d columns at the most", line, len(row), maxColumns)
		}
		if t.head == nil {
			t.head = row
			continue
		}
		if len(t.rows) >= MaxRows {
			return nil, fmt.Errorf("it has more than %d rows", MaxRows)
		}
		t.rows = append(t.rows, row)
		t.lines = append(t.lines, line)
	}
	if t.head == nil {
		return nil, errors.New("it is empty: the first line names the columns")
	}
	return t, nil
}

// comma guesses what separates the cells: what the first line has most of outside quotes.
func comma(text []byte) rune {
	first, _, _ := bytes.Cut(text, []byte("\n"))
	best, most := ',', 0
	for _, sep := range []rune{',', ';', '\t'} {
		n, quoted := 0, false
		for _, r := range string(first) {
			if r == '"' {
				quoted = !quoted
			}
			if r == sep && !quoted {
				n++
			}
		}
		if n > most {
			best, most = sep, n
		}
	}
	return best
}

// latin reads a file of an older spreadsheet, in which a byte is a letter or a mark
// (Windows-1252).
func latin(text []byte) []byte {
	decoded, err := charmap.Windows1252.NewDecoder().Bytes(text)
	if err != nil {
		return bytes.ToValidUTF8(text, nil)
	}
	return decoded
}

// formula begins what a spreadsheet would take for something to work out.
const formula = "=+-@\t\r"

// safeCell makes a cell harmless in a spreadsheet: what would be worked out is
// shown as it is written.
func safeCell(cell string) string {
	if cell == "" || !strings.ContainsRune(formula, rune(cell[0])) {
		if strings.HasPrefix(cell, "'") { // so that reading it back loses nothing
			return "'" + cell
		}
		return cell
	}
	if _, err := strconv.ParseFloat(cell, 64); err == nil {
		return cell
	}
	return "'" + cell
}

// plainCell takes off what safeCell has put on.
func plainCell(cell string) string {
	if len(cell) > 1 && cell[0] == '\'' && (strings.ContainsRune(formula, rune(cell[1])) || cell[1] == '\'') {
		return cell[1:]
	}
	return cell
}

// writeTable writes rows under a heading, with commas, a byte order mark and
// CRLF, which every spreadsheet opens right.
func writeTable(w io.Writer, head []string, rows [][]string) error {
	if _, err := io.WriteString(w, "\xef\xbb\xbf"); err != nil {
		return err
	}
	for _, row := range append([][]string{head}, rows...) {
		cells := make([]string, len(row))
		for i := range row {
			cells[i] = quoted(safeCell(row[i]))
		}
		if _, err := io.WriteString(w, strings.Join(cells, ",")+"\r\n"); err != nil {
			return err
		}
	}
	return nil
}

// quoted puts a cell in quotes where some spreadsheet would part it: at a comma, and
// at a semicolon, behind which it would look for a formula.
func quoted(cell string) string {
	if !strings.ContainsAny(cell, ",;\t\"\r\n") && strings.TrimSpace(cell) == cell {
		return cell
	}
	return `"` + strings.ReplaceAll(cell, `"`, `""`) + `"`
}

// column is one column of a table that is about a T.
type column[T any] struct {
	name   string
	others []string // what else it may be called
	set    func(*T, string) error
	get    func(*T) string
}

// readRows reads a table row by row. A column that is not known, one that is
// there twice, and a cell that does not hold are problems.
func readRows[T any](t *table, columns []column[T], begin func() T) (list []T, lines []int, wrong []Problem) {
	at := make([]*column[T], len(t.head))
	seen := map[string]bool{}
	for i, name := range t.head {
		for c := range columns {
			if sameName(columns[c].name, name) || slices.ContainsFunc(columns[c].others,
				func(o string) bool { return sameName(o, name) }) {
				at[i] = &columns[c]
			}
		}
		switch {
		case name == "":
		case at[i] == nil:
			wrong = append(wrong, Problem{1, name, "this column is not known; they are " + names(columns)})
		case seen[at[i].name]:
			wrong = append(wrong, Problem{1, name, "this column is there twice"})
		default:
			seen[at[i].name] = true
		}
	}
	for n, row := range t.rows {
		one := begin()
		for i, cell := range row {
			if i >= len(at) {
				if cell != "" {
					wrong = append(wrong, Problem{t.lines[n], fmt.Sprintf("cell %d", i+1),
						"there is no column above it"})
				}
				continue
			}
			if at[i] == nil {
				continue
			}
			if err := at[i].set(&one, cell); err != nil {
				wrong = append(wrong, Problem{t.lines[n], t.head[i], err.Error()})
			}
		}
		list = append(list, one)
		lines = append(lines, t.lines[n])
	}
	return list, lines, wrong
}

func sameName(a, b string) bool {
	fold := func(s string) string {
		return strings.NewReplacer(" ", "", "_", "", "-", "", ".", "").Replace(strings.ToLower(s))
	}
	return fold(a) == fold(b)
}

func names[T any](columns []column[T]) string {
	var list []string
	for _, c := range columns {
		list = append(list, c.name)
	}
	return strings.Join(list, ", ")
}

func writeRows[T any](w io.Writer, columns []column[T], list []T) error {
	var head []string
	for _, c := range columns {
		head = append(head, c.name)
	}
	rows := make([][]string, len(list))
	for i := range list {
		for _, c := range columns {
			rows[i] = append(rows[i], c.get(&list[i]))
		}
	}
	return writeTable(w, head, rows)
}

// text, whole and others are columns of usual kinds.
func text[T any](name string, field func(*T) *string, others ...string) column[T] {
	return column[T]{name: name, others: others, set: func(t *T, cell string) error { *field(t) = cell; return nil },
		get: func(t *T) string { return *field(t) }}
}

func whole[T any](name string, field func(*T) *int, others ...string) column[T] {
	return column[T]{name: name, others: others, set: func(t *T, cell string) error {
		if cell == "" {
			*field(t) = 0
			return nil
		}
		n, err := strconv.Atoi(cell)
		if err != nil {
			return fmt.Errorf("%q is no whole number", cell)
		}
		*field(t) = n
		return nil
	}, get: func(t *T) string {
		if *field(t) == 0 {
			return ""
		}
		return strconv.Itoa(*field(t))
	}}
}

func decimal[T any](name string, field func(*T) *float64) column[T] {
	return column[T]{name: name, others: nil, set: func(t *T, cell string) (err error) {
		if cell == "" {
			*field(t) = 0
			return nil
		}
		if *field(t), err = strconv.ParseFloat(strings.Replace(cell, ",", ".", 1), 64); err != nil ||
			*field(t) != *field(t) {
			*field(t) = 0
			return fmt.Errorf("%q is no number", cell)
		}
		return nil
	}, get: func(t *T) string {
		if *field(t) == 0 {
			return ""
		}
		return plain(*field(t))
	}}
}

func plain(x float64) string { return strconv.FormatFloat(x, 'g', -1, 64) }

func several[T any](name string, field func(*T) *[]string) column[T] {
	same := func(s string) string { return s }
	return each(name, ";", field, func(s string) (string, error) { return s, nil }, same)
}

// each is a column of several things, each read and said on its own.
func each[T, E any](name, between string, field func(*T) *[]E, of func(string) (E, error),
	said func(E) string) column[T] {
	return column[T]{name: name, others: nil, set: func(t *T, cell string) error {
		*field(t) = nil
		for _, one := range strings.Split(cell, between) {
			if one = strings.TrimSpace(one); one == "" {
				continue
			}
			e, err := of(one)
			if err != nil {
				return err
			}
			*field(t) = append(*field(t), e)
		}
		return nil
	}, get: func(t *T) string {
		var all []string
		for _, e := range *field(t) {
			all = append(all, said(e))
		}
		if between == ";" {
			return strings.Join(all, "; ")
		}
		return strings.Join(all, between)
	}}
}

func yes[T any](name string, field func(*T) *bool) column[T] {
	return column[T]{name: name, others: nil, set: func(t *T, cell string) error {
		switch strings.ToLower(cell) {
		case "", "no", "n", "0", "false":
			*field(t) = false
		case "yes", "y", "x", "1", "true":
			*field(t) = true
		default:
			return fmt.Errorf("%q is neither yes nor no", cell)
		}
		return nil
	}, get: func(t *T) string {
		if *field(t) {
			return "yes"
		}
		return ""
	}}
}

// word is a column of one of a few words.
func word[T any, S ~string](name string, field func(*T) *S, all ...S) column[T] {
	return column[T]{name: name, others: nil, set: func(t *T, cell string) error {
		for _, one := range all {
			if strings.EqualFold(string(one), cell) {
				*field(t) = one
				return nil
			}
		}
		if cell == "" {
			return nil
		}
		var list []string
		for _, one := range all {
			if one != "" {
				list = append(list, string(one))
			}
		}
		return fmt.Errorf("%q is not one of %s", cell, strings.Join(list, ", "))
	}, get: func(t *T) string { return string(*field(t)) }}
}
