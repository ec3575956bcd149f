package share

import (
	"bytes"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	ical "github.com/arran4/golang-ical"
	"github.com/teambition/rrule-go"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/plan"
)

// What is taken from a calendar at the most: fixtures, events in all and such as recur,
// and how long the rule of one may be, in letters and in each of its lists.
const (
	calendarMost  = 400
	eventsMost    = 5000
	recurringMost = 200
	ruleMost      = 300
	rulePartsMost = 31
)

var errNoCalendar = errors.New("it is no calendar that can be read")

// nestedMost is how deep the parts of a calendar lie in each other: an alarm of an event
// of the calendar.
const nestedMost = 3

// nested tells whether the parts of a calendar end where they should, and lie no deeper
// in each other than they may. The parser takes as much memory as it is asked to.
func nested(file []byte) bool {
	file = bytes.ReplaceAll(file, []byte("\r"), nil)
	for _, fold := range []string{"\n ", "\n\t"} {
		file = bytes.ReplaceAll(file, []byte(fold), nil)
	}
	depth := 0
	for line := range bytes.Lines(file) {
		name, _, _ := bytes.Cut(bytes.TrimSpace(line), []byte(":"))
		name, _, _ = bytes.Cut(name, []byte(";"))
		switch strings.ToUpper(string(name[:min(len(name), len("BEGIN"))])) {
		case "BEGIN":
			depth++
		case "END":
			depth--
		}
		if depth < 0 || depth > nestedMost {
			return false
		}
	}
	return depth == 0
}

// ReadCalendar reads the events of an iCalendar file that begin between from and to as fixtures,
// those that recur one by one. Times are told by the clock of the event's own zone, those in UTC
// by zone's. Events that cannot be read are problems, counted as lines; an error is about the
// whole file.
func ReadCalendar(file []byte, zone string, from, to time.Time) ([]Row[club.Fixture], []Problem, error) {
	here, err := time.LoadLocation(zone)
	if err != nil {
		return nil, nil, fmt.Errorf("the time zone %q is not known", zone)
	}
	events, err := eventsOf(file)
	if err != nil {
		return nil, nil, err
	}
	var rows []Row[club.Fixture]
	var wrong []Problem
	moved := map[string]bool{} // occurrences that have an event of their own, by id and moment
	for _, e := range events {
		if id := e.GetProperty(ical.ComponentPropertyRecurrenceId); id != nil {
			if at, _, err := moment(id, here); err == nil {
				moved[e.Id()+at.UTC().String()] = true
			}
		}
	}
	for n, e := range events {
		found, err := occurrences(e, here, from, to, moved)
		if err != nil {
			wrong = append(wrong, Problem{n + 1, value(e, ical.ComponentPropertySummary), err.Error()})
			continue
		}
		for _, f := range found {
			if err := f.Validate(); err != nil {
				wrong = append(wrong, Problem{n + 1, f.Title, err.Error()})
				continue
			}
			rows = append(rows, Row[club.Fixture]{Line: n + 1, Is: f})
		}
	}
	slices.SortStableFunc(rows,
		func(a, b Row[club.Fixture]) int { return strings.Compare(a.Is.Start.Local, b.Is.Start.Local) })
	if len(rows) > calendarMost {
		return nil, nil, fmt.Errorf("it holds %d fixtures, %d are read at once: take a shorter time", len(rows),
			calendarMost)
	}
	return rows, wrong, nil
}

// eventsOf are the events of a calendar, where they are no more than are read at once.
func eventsOf(file []byte) ([]*ical.VEvent, error) {
	if !nested(file) {
		return nil, errNoCalendar
	}
	calendar, err := ical.ParseCalendar(bytes.NewReader(file))
	if err != nil {
		return nil, errNoCalendar
	}
	events, recur := calendar.Events(), 0
	for _, e := range events {
		if e.GetProperty(ical.ComponentPropertyRrule) != nil {
			recur++
		}
	}
	switch {
	case len(events) > eventsMost:
		return nil, fmt.Errorf("it holds %d events, %d are read at once: take a shorter time", len(events), eventsMost)
	case recur > recurringMost:
		return nil, fmt.Errorf("more than %d of its events recur: take a smaller calendar", recurringMost)
	}
	return events, nil
}

func value(e *ical.VEvent, property ical.ComponentProperty) string {
	if p := e.GetProperty(property); p != nil {
		return strings.TrimSpace(ical.FromText(p.Value))
	}
	return ""
}

// moment reads a date or a date and time, by the clock of its own zone; allDay
// where it has no time.
func moment(p *ical.IANAProperty, here *time.Location) (at time.Time, allDay bool, err error) {
	zone := here
	if ids := p.ICalParameters["TZID"]; len(ids) > 0 {
		if zone, err = time.LoadLocation(strings.Trim(ids[0], `"`)); err != nil {
			return at, false, fmt.Errorf("its time zone %q is not known", ids[0])
		}
	}
	return parse(p.Value, zone, here)
}

func parse(text string, zone, here *time.Location) (at time.Time, allDay bool, err error) {
	switch {
	case len(text) == len("20261128"):
		at, err = time.ParseInLocation("20060102", text, zone)
		allDay = true
	case strings.HasSuffix(text, "Z"):
		at, err = time.Parse("20060102T150405Z", text)
		at = at.In(here)
	default:
		at, err = time.ParseInLocation("20060102T150405", text, zone)
	}
	if err != nil {
		err = fmt.Errorf("%q is no date and time", text)
	}
	return at, allDay, err
}

// occurrences are the fixtures of an event in the time asked for.
func occurrences(e *ical.VEvent, here *time.Location, from, to time.Time,
	moved map[string]bool) ([]club.Fixture, error) {
	if strings.EqualFold(value(e, ical.ComponentPropertyStatus), "CANCELLED") {
		return nil, nil
	}
	begin := e.GetProperty(ical.ComponentPropertyDtStart)
	if begin == nil {
		return nil, errors.New("it has no start")
	}
	first, allDay, err := moment(begin, here)
	if err != nil {
		return nil, err
	}
	moments, err := recurring(e, first, from, to)
	if err != nil {
		return nil, err
	}
	add, err := momentsOf(e, ical.ComponentPropertyRdate, here)
	if err != nil {
		return nil, err
	}
	out, err := momentsOf(e, ical.ComponentPropertyExdate, here)
	if err != nil {
		return nil, err
	}
	single := e.GetProperty(ical.ComponentPropertyRecurrenceId) != nil
	recurs := e.GetProperty(ical.ComponentPropertyRrule) != nil || len(add) > 0
	cancelled := map[int64]bool{}
	for _, at := range out {
		cancelled[at.Unix()] = true
	}
	var found []club.Fixture
	for _, at := range append(moments, add...) {
		gone := cancelled[at.Unix()] || !single && moved[e.Id()+at.UTC().String()]
		if !at.Before(from) && !at.After(to) && !gone {
			found = append(found, fixture(e, at, allDay, recurs || single))
		}
	}
	return found, nil
}

// recurring are the moments at which an event recurs in the time asked for; the
// first alone where it does not.
func recurring(e *ical.VEvent, first, from, to time.Time) ([]time.Time, error) {
	rule := e.GetProperty(ical.ComponentPropertyRrule)
	if rule == nil {
		return []time.Time{first}, nil
	}
	unread := fmt.Errorf("how it recurs cannot be read: %s", short(rule.Value))
	if len(rule.Value) > ruleMost {
		return nil, unread
	}
	option, err := rrule.StrToROptionInLocation(rule.Value, first.Location())
	if err != nil {
		return nil, unread
	}
	if option.Freq > rrule.DAILY || len(option.Byhour) > 1 || len(option.Byminute) > 1 || len(option.Bysecond) > 1 {
		return nil, errors.New("it recurs more often than once a day")
	}
	if first.Year() < 1990 {
		return nil, errors.New("it recurs since before 1990: give it a later start")
	}
	for _, part := range [][]int{option.Bymonth, option.Bymonthday, option.Byyearday, option.Byweekno, option.Bysetpos,
		option.Byeaster} {
		if len(part) > rulePartsMost {
			return nil, unread
		}
	}
	for _, day := range option.Byweekday {
		if n := day.N(); n < -5 || n > 5 {
			return nil, unread
		}
	}
	if never(option) {
		return nil, nil
	}
	option.Dtstart = first
	return moments(option, from, to, unread)
}

// moments are those of a rule in the time asked for. A rule on which the reader of rules
// breaks down cannot be read.
func moments(option *rrule.ROption, from, to time.Time, unread error) (list []time.Time, err error) {
	defer func() {
		if recover() != nil {
			list, err = nil, unread
		}
	}()
	if option.Until.IsZero() || option.Until.After(to) {
		option.Until = to
	}
	r, err := rrule.NewRRule(*option)
	if err != nil {
		return nil, unread
	}
	return r.Between(from, to, true), nil
}

// never tells whether a rule names only days that no month has, such as the 30th of
// February, so that looking for one would not end.
func never(o *rrule.ROption) bool {
	longest := []int{31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31}
	months := o.Bymonth
	if len(months) == 0 {
		months = []int{1, 3, 5, 7, 8, 10, 12}
	}
	has := func(day int) bool {
		return slices.ContainsFunc(months,
			func(m int) bool { return m >= 1 && m <= 12 && max(day, -day) <= longest[m-1] && day != 0 })
	}
	return len(o.Bymonthday) > 0 && !slices.ContainsFunc(o.Bymonthday, has)
}

// mostUID is how long the id of a fixture may be.
const mostUID = 100

// fixture is an event at a moment; one of several has the day in its id.
func fixture(e *ical.VEvent, at time.Time, allDay, oneOfSeveral bool) club.Fixture {
	f := club.Fixture{UID: e.Id(), For: plan.Match, Title: short(value(e, ical.ComponentPropertySummary)),
		Place: short(value(e, ical.ComponentPropertyLocation)),
		Start: clock.StartAt(at), Day: allDay}
	if oneOfSeveral {
		f.UID += " " + at.Format(time.DateOnly)
	}
	f.UID = f.UID[max(0, len(f.UID)-mostUID):]
	for _, word := range []string{"train", "practice", "session", "gym"} {
		if strings.Contains(strings.ToLower(f.Title), word) {
			f.For = plan.Training
		}
	}
	return f
}

// short cuts a text to the length of a name.
func short(text string) string {
	if r := []rune(text); len(r) > plan.MaxName {
		return string(r[:plan.MaxName-1]) + "…"
	}
	return text
}

// momentsOf reads every moment of a property that may come often, with several
// moments each.
func momentsOf(e *ical.VEvent, property ical.ComponentProperty, here *time.Location) (all []time.Time, err error) {
	for _, p := range e.GetProperties(property) {
		for _, text := range strings.Split(p.Value, ",") {
			one := *p
			one.Value = text
			at, _, err := moment(&one, here)
			if err != nil {
				return nil, err
			}
			all = append(all, at)
		}
	}
	return all, nil
}
