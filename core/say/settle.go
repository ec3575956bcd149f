package say

import (
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/movement"
)

// ofActs makes acts of trips: they are thrown or kicked so far.
func (d *Dose) ofActs() {
	if d.Kind == drill.Travel && d.Trips > 0 {
		d.bare = d.Trips
	}
	d.Kind, d.Trips, d.Metres, d.Share = "", 0, 0, ""
}

// settle makes one kind of what was said, by the drill where that is known.
func (d *Dose) settle(known *drill.Drill, name string) {
	kind := drill.Kind("")
	if known != nil {
		kind = known.Dose.Kind
	}
	if u, moves := movement.Of(name); moves && !u.Travels && d.Kind == drill.Travel && d.Share == "side to side" &&
		d.Metres == 0 && kind != drill.Travel {
		d.Kind, d.bare, d.Trips, d.Share = drill.Reps, max(d.bare, d.Trips), 0, "" // on the spot, from side to side
	}
	switch {
	case d.Kind == drill.Time && !d.inAll && (kind == drill.Hold || d.held || d.SaidSides > 0):
		d.Kind, d.HoldSeconds, d.Seconds = drill.Hold, float64(d.Seconds), 0
	case d.Parts != nil && d.Kind == "" && (kind == drill.Grid || kind == drill.Count || kind == "" && NamesActs(name)):
		d.Kind, d.Columns, d.Parts, d.Tries = drill.Grid, d.Parts, nil, d.bare
	case d.Kind == drill.Grid && d.Parts == nil && (kind == drill.Reps || kind == drill.Hold) && !NamesActs(name):
		d.toParts(kind)
	case d.Kind == "" && d.Breaths == 0:
		if d.Kind = d.kindOfNumber(kind, name); d.Kind == drill.Grid && known != nil && d.bare > known.Range.Max {
			d.Kind = drill.Count // so many in all
		}
	case d.Kind == drill.Count && (d.SaidSides > 0 || d.Own || d.Directions > 0 || d.Tempo != nil):
		d.Kind, d.Reps, d.Acts = drill.Reps, d.Acts, 0
	}
	if known != nil && known.Dose.Sides == 2 && d.each && d.Parts == nil && d.SaidSides == 0 && !d.Own {
		d.SaidSides = 2
	}
	if d.Kind == drill.Travel && kind == "" && d.bare == 0 && d.Trips == 0 && len(d.Efforts) > 1 {
		d.Trips = len(d.Efforts)
	}
	d.fill(kind)
	d.Least = d.least(d.Amount())
}

// toParts makes places of a drill of repetitions the parts of it.
func (d *Dose) toParts(kind drill.Kind) {
	d.Kind, d.Parts, d.Columns = kind, d.Columns, nil
	if len(d.Counts) > 0 {
		d.PartReps, d.Counts = d.Counts[0], nil
	} else {
		d.Reps, d.Tries = d.Tries, 0
	}
}

// kindOfNumber is the kind of dose that a bare number means.
func (d *Dose) kindOfNumber(kind drill.Kind, name string) drill.Kind {
	switch {
	case len(d.Efforts) > 1 || (d.Effort > 0 || d.often) && kind == drill.Travel:
		return drill.Travel
	case d.SaidSides > 0 || d.Own || d.Directions > 0 || d.Tempo != nil || d.inAll || d.Parts != nil:
		if kind == drill.Hold {
			return drill.Hold
		}
		return drill.Reps
	case kind == drill.Travel && d.each:
		d.SaidSides = 2
		return drill.Reps
	case kind != "":
		return kind
	case NamesActs(name):
		return drill.Count
	}
	return drill.Reps
}

// NamesActs tells whether a name ends in acts of a sport.
func NamesActs(name string) bool {
	for _, w := range strings.FieldsFunc(strings.ToLower(name), func(r rune) bool { return r == ' ' || r == '-' }) {
		if slices.Contains(actNames, w) {
			return true
		}
	}
	return false
}

// fill puts the bare number and the defaults where they belong.
func (d *Dose) fill(kind drill.Kind) {
	n := d.bare
	switch d.Kind {
	case drill.Reps, drill.Hold:
		d.Sets = max(d.Sets, 1)
		defer d.fillParts()
		switch {
		case d.Reps == 0 && n > 0:
			d.Reps = n
		case n > 0 && d.Kind == drill.Hold:
			d.Reps = n
		}
		d.Sides = max(d.SaidSides, 1)
		if d.Own && d.ownSide {
			d.Sides = "own"
		}
		if d.inAll && d.SaidSides < 2 && !d.Own {
			d.Sides, d.Reps = 2, (d.Reps+1)/2
		} else if d.inAll {
			d.Reps = (d.Reps + 1) / 2
		}
		if d.Kind == drill.Hold && d.Reps == 0 {
			d.Reps = 1
		}
	case drill.Travel:
		if d.Trips == 0 {
			d.Trips = n
		}
		if d.Trips == 0 {
			d.Trips = max(1, len(d.Efforts))
		}
		if d.SaidSides > 0 || d.Directions > 0 {
			d.Trips *= 2
		}
	case drill.Count:
		if d.Acts == 0 {
			d.Acts = n
		}
	case drill.Grid:
		if d.Counts == nil && d.Tries == 0 {
			d.Tries = max(n, 1)
		}
	case drill.Time:
		if d.Seconds == 0 {
			d.Seconds = 60 * n // a number of minutes
		}
	}
}

// fillParts gives the parts that have no number of their own that of all.
func (d *Dose) fillParts() {
	for i, n := range d.PartReps {
		if n == 0 {
			d.PartReps[i] = max(1, d.Reps)
		}
	}
}

// Amount is the number that a coach turns.
func (d *Dose) Amount() int {
	switch d.Kind {
	case drill.Reps, drill.Hold:
		most := d.Reps
		for _, n := range d.PartReps {
			most = max(most, n)
		}
		return most
	case drill.Travel:
		return d.Trips
	case drill.Count:
		return d.Acts
	case drill.Grid:
		most := d.Tries
		for _, row := range d.Counts {
			most = max(most, slices.Max(row))
		}
		return most
	}
	return d.Seconds
}
