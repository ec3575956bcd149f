package shell

import (
	"fmt"
	"maps"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/plan"
)

// Form is what was sent, read field by field. What is wrong with a field is
// collected, to be said beside it: nothing is taken for something else.
type Form struct {
	values url.Values
	wrong  plan.Problems
	where  string // where problems are put; "": at the field
}

// NewForm is a form of values.
func NewForm(values url.Values) *Form { return &Form{values: values} }

// At has the problems of the fields that are read from now on said at one place,
// such as "players"; "": beside each field.
func (f *Form) At(where string) *Form {
	f.where = where
	return f
}

// Refuse collects a problem of a field.
func (f *Form) Refuse(field, what string, args ...any) {
	if f.where != "" {
		field = f.where
	}
	f.wrong.Add(field, fmt.Sprintf(what, args...))
}

// Must collects what is wrong with a field, if it is.
func (f *Form) Must(field, problem string) {
	if problem != "" {
		f.Refuse(field, "%s", problem)
	}
}

// Err is what was wrong so far, as [plan.Problems], or nil.
func (f *Form) Err() error { return f.wrong.Err() }

// Raw is a field as it was sent.
func (f *Form) Raw(name string) string { return f.values.Get(name) }

// Lines are all values of a name, a line each.
func (f *Form) Lines(name string) string { return strings.Join(f.values[name], "\n") }

// Text is a field without the white space around it.
func (f *Form) Text(name string) string { return strings.TrimSpace(f.values.Get(name)) }

// Has tells whether a field was sent and is not empty.
func (f *Form) Has(name string) bool { return f.values.Get(name) != "" }

// List is every value of a field.
func (f *Form) List(name string) []string { return f.values[name] }

// Names are the names of the fields that were sent, in order.
func (f *Form) Names() []string { return slices.Sorted(maps.Keys(f.values)) }

// Ticked tells whether the box of that value is ticked.
func (f *Form) Ticked(name, value string) bool { return slices.Contains(f.values[name], value) }

// Entries splits a field at line breaks and semicolons.
func (f *Form) Entries(name string) (list []string) {
	for _, one := range strings.FieldsFunc(f.values.Get(name), func(r rune) bool { return r == '\n' || r == ';' }) {
		if one = strings.TrimSpace(one); one != "" {
			list = append(list, one)
		}
	}
	return list
}

// ID is a field that names something; 0, which nothing has, if it does not.
func (f *Form) ID(name string) uint64 { return readID(f.values.Get(name)) }

// Count is a field that counts changes, edition or revision: what the form was
// made on. It is 0, which is always stale, if it is none.
func (f *Form) Count(name string) uint32 {
	n, _ := strconv.ParseUint(f.values.Get(name), 10, 32)
	return uint32(n)
}

// Int is a whole number between low and high.
func (f *Form) Int(name string, low, high int) int {
	n, err := strconv.Atoi(f.Text(name))
	if err != nil || n < low || n > high {
		f.Refuse(name, "write a whole number between %d and %d", low, high)
		return low
	}
	return n
}

// IntOr is a whole number between low and high, or none where the field is empty.
func (f *Form) IntOr(name string, none, low, high int) int {
	if f.Text(name) == "" {
		return none
	}
	return f.Int(name, low, high)
}

// Decimal is a number, with a point or a comma; false where the field is empty or
// holds something else, which is refused with problem.
func (f *Form) Decimal(name, problem string) (float64, bool) {
	text := f.Text(name)
	if text == "" {
		return 0, false
	}
	x, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	if err != nil || x != x {
		f.Refuse(name, "%s", problem)
		return 0, false
	}
	return x, true
}

// Moment is minutes to go, 46 or 4:30, or a time on the clock, 13:52 with a
// leading @.
func (f *Form) Moment(name string) clock.Moment {
	text := f.Text(name)
	if at, isClock := strings.CutPrefix(text, "@"); isClock {
		if _, err := time.Parse("15:04", at); err != nil {
			f.Refuse(name, "%q is no time on the clock such as @13:52", text)
		}
		return clock.AtClock(at)
	}
	seconds, err := clock.ParseDuration(text)
	if err != nil {
		f.Refuse(name, "%s", err)
	}
	return clock.BeforeStart(seconds)
}

// MomentText writes a moment as [Form.Moment] reads it.
func MomentText(m clock.Moment, start time.Time) string {
	if m.Clock != "" {
		return "@" + m.Clock
	}
	at, err := m.Offset(start)
	if err != nil {
		return ""
	}
	return strings.TrimSuffix(clock.Duration(int(-at)), ":00")
}
