package share

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	ical "github.com/arran4/golang-ical"

	"cuestart/core/clock"
	"cuestart/core/list"
	"cuestart/core/plan"
)

// Appointment is a session in somebody's calendar.
type Appointment struct {
	UID         string // the same in every edition
	Sequence    int    // counts the editions
	Cancelled   bool
	From, To    time.Time // in the venue's zone
	Made        time.Time
	Summary     string
	Description string
	Location    string
	URL         string
}

// Appointed is a session as a list has it, to be told apart by uid: from its first thing
// to the start.
func Appointed(d *plan.Document, start time.Time, entries []list.Entry) Appointment {
	if zone, err := time.LoadLocation(d.Start.Zone); err == nil {
		start = start.In(zone) // by its name, which a calendar needs
	}
	var lines []string
	for i := range entries {
		e := &entries[i]
		line := fmt.Sprintf("%s (%s) %s", clock.Clock(start, e.From), e.From.ToGo(), e.Name)
		if e.Block != nil && e.Block.Zone != "" {
			line += ", " + d.ZoneName(e.Block.Zone)
		}
		lines = append(lines, line)
	}
	return Appointment{From: start.Add(time.Duration(entries[0].From) * time.Second), To: start, Location: d.Place,
		Summary:     fmt.Sprintf("%s, %s %s", d.Title, d.StartName, clock.Clock(start, 0)),
		Description: strings.Join(lines, "\n")}
}

// alarmBefore is how long before the first thing somebody is reminded.
const alarmBefore = "-PT30M"

// WriteAgenda writes appointments as an iCalendar file (RFC 5545), which a calendar may
// also ask for again: a newer edition of an appointment takes the older one's place.
func WriteAgenda(name string, list []Appointment) string {
	cal := ical.NewCalendarFor("Cue Start")
	cal.SetMethod(ical.MethodPublish)
	cal.SetName(name)
	cal.SetXWRCalName(name)
	cal.SetRefreshInterval("PT15M")
	cal.SetXPublishedTTL("PT15M")
	for _, zone := range zonesOf(list) {
		cal.Components = append(cal.Components, zone)
	}
	for _, a := range list {
		a.into(cal.AddEvent(a.UID))
	}
	return cal.Serialize()
}

// zonesOf describes the clock of each zone that appointments are in, as long as they last.
func zonesOf(list []Appointment) (zones []*ical.VTimezone) {
	spans := map[string][2]time.Time{}
	for _, a := range list {
		name := a.From.Location().String()
		span, known := spans[name]
		if !known || a.From.Before(span[0]) {
			span[0] = a.From
		}
		if a.To.After(span[1]) {
			span[1] = a.To
		}
		spans[name] = span
	}
	for _, name := range slices.Sorted(maps.Keys(spans)) {
		zones = append(zones, zoneOf(name, spans[name][0], spans[name][1]))
	}
	return zones
}

// into writes the appointment as an event.
func (a Appointment) into(e *ical.VEvent) {
	for property, at := range map[ical.ComponentProperty]time.Time{ical.ComponentPropertyDtStart: a.From,
		ical.ComponentPropertyDtEnd: a.To} {
		e.SetProperty(property, at.Format("20060102T150405"), ical.WithTZID(at.Location().String()))
	}
	e.SetDtStampTime(a.Made)
	e.SetModifiedAt(a.Made)
	e.SetSequence(a.Sequence)
	e.SetSummary(plainText(a.Summary))
	e.SetDescription(plainText(a.Description))
	status := ical.ObjectStatusConfirmed
	if a.Cancelled {
		status = ical.ObjectStatusCancelled
	}
	e.SetStatus(status)
	if a.Location != "" {
		e.SetLocation(plainText(a.Location))
	}
	if a.URL != "" {
		e.SetURL(a.URL)
	}
	if a.Cancelled {
		return
	}
	alarm := e.AddAlarm()
	alarm.SetAction(ical.ActionDisplay)
	alarm.SetTrigger(alarmBefore)
	alarm.SetDescription(plainText(a.Summary))
}

// plainText is what a calendar may hold: its line breaks are one kind, which is escaped, and there is
// nothing else in it by which a program could see the end of a line.
func plainText(said string) string {
	said = strings.NewReplacer("\r\n", "\n", "\r", "\n", "\u2028", "\n", "\u2029", "\n").Replace(said)
	return strings.Map(func(r rune) rune {
		if r < ' ' && r != '\n' && r != '\t' || r == 0x7f || r == 0x85 {
			return -1
		}
		return r
	}, said)
}

// zoneOf describes the clock of a zone from a moment to another: each change of it in
// the year before the first and up to the last.
func zoneOf(name string, from, to time.Time) *ical.VTimezone {
	zone := &ical.VTimezone{ComponentBase: ical.ComponentBase{}}
	zone.SetProperty(ical.ComponentPropertyTzid, name)
	location := from.Location()
	at := time.Date(from.Year()-1, from.Month(), from.Day(), 12, 0, 0, 0, time.UTC)
	add := func(change time.Time, before int) {
		abbreviation, offset := change.In(location).Zone()
		part := ical.ComponentBase{}
		part.SetProperty(ical.ComponentPropertyDtStart, change.In(time.FixedZone("", before)).Format("20060102T150405"))
		part.SetProperty("TZOFFSETFROM", offsetText(before))
		part.SetProperty("TZOFFSETTO", offsetText(offset))
		part.SetProperty("TZNAME", abbreviation)
		if change.In(location).IsDST() {
			zone.Components = append(zone.Components, &ical.Daylight{ComponentBase: part})
		} else {
			zone.Components = append(zone.Components, &ical.Standard{ComponentBase: part})
		}
	}
	_, offset := at.In(location).Zone()
	add(at, offset)
	for ; at.Before(to); at = at.Add(time.Hour) {
		if _, next := at.Add(time.Hour).In(location).Zone(); next != offset {
			add(at.Add(time.Hour), offset)
			offset = next
		}
	}
	return zone
}

// offsetText writes seconds east of Greenwich: "+0100".
func offsetText(seconds int) string {
	sign := '+'
	if seconds < 0 {
		sign, seconds = '-', -seconds
	}
	return fmt.Sprintf("%c%02d%02d", sign, seconds/3600, seconds%3600/60)
}
