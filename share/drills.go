package share

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"unicode"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/measure"
	"cuestart/core/pen"
)

var drillColumns = []column[club.Drill]{
	text("code", func(d *club.Drill) *string { return &d.Code }),
	text("name", func(d *club.Drill) *string { return &d.Name }),
	several("also called", func(d *club.Drill) *[]string { return &d.Also }),
	text("aim", func(d *club.Drill) *string { return &d.Aim }),
	{name: "phases", others: nil, set: setPhases, get: getPhases},
	several("joints", func(d *club.Drill) *[]string { return &d.Regions }),
	several("planes", func(d *club.Drill) *[]string { return &d.Planes }),
	several("trains", func(d *club.Drill) *[]string { return &d.Qualities }),
	word("counted in", func(d *club.Drill) *drill.Kind { return &d.Dose.Kind }, drill.Kinds...),
	whole("least", func(d *club.Drill) *int { return &d.Range.Min }),
	{name: "target", others: []string{"dose", "how much", "amount"}, set: setTarget,
		get: func(d *club.Drill) string { return strconv.Itoa(d.Range.Target) }},
	whole("most", func(d *club.Drill) *int { return &d.Range.Max }),
	whole("step", func(d *club.Drill) *int { return &d.Range.Step }),
	text("unit", func(d *club.Drill) *string { return &d.Unit }),
	whole("sets", func(d *club.Drill) *int { return &d.Dose.Sets }),
	whole("sides", func(d *club.Drill) *int { return &d.Dose.Sides }),
	whole("directions", func(d *club.Drill) *int { return &d.Dose.Directions }),
	yes("own side", func(d *club.Drill) *bool { return &d.Dose.OwnSide }),
	each("parts", ";", func(d *club.Drill) *[]drill.Part { return &d.Dose.Parts }, partOf, partSaid),
	each("tempo", " ", func(d *club.Drill) *[]float64 { return &d.Dose.Tempo }, secondsOf, plain),
	whole("breaths", func(d *club.Drill) *int { return &d.Dose.Breaths }),
	decimal("seconds a rep", func(d *club.Drill) *float64 { return &d.Dose.RepSeconds }),
	decimal("seconds held", func(d *club.Drill) *float64 { return &d.Dose.HoldSeconds }),
	decimal("seconds to settle", func(d *club.Drill) *float64 { return &d.Dose.SettleSeconds }),
	decimal("seconds between sets", func(d *club.Drill) *float64 { return &d.Dose.RestSeconds }),
	decimal("metres", func(d *club.Drill) *float64 { return &d.Dose.Metres }),
	decimal("metres a second", func(d *club.Drill) *float64 { return &d.Dose.Speed }),
	text("share of the place", func(d *club.Drill) *string { return &d.Dose.Share }),
	each("efforts", ";", func(d *club.Drill) *[]float64 { return &d.Dose.Efforts }, effortOf,
		func(e float64) string { return plain(math.Round(1000*e) / 10) }),
	decimal("metres a second at most", func(d *club.Drill) *float64 { return &d.Dose.TopSpeed }),
	each("legs", ";", func(d *club.Drill) *[]drill.Leg { return &d.Dose.Legs }, legOf, legSaid),
	decimal("seconds to turn", func(d *club.Drill) *float64 { return &d.Dose.TurnSeconds }),
	decimal("seconds between waves", func(d *club.Drill) *float64 { return &d.Dose.IntervalSeconds }),
	word("waves", func(d *club.Drill) *drill.Flow { return &d.Dose.Flow }, drill.Continuous, drill.Regroup),
	whole("cells", func(d *club.Drill) *int { return &d.Dose.Cells }),
	each("tries", ";", func(d *club.Drill) *[][]int { return &d.Dose.Counts }, triesOf, triesSaid),
	yes("in pairs", func(d *club.Drill) *bool { return &d.Dose.ByPair }),
	yes("as written", func(d *club.Drill) *bool { return &d.Dose.Exact }),
	several("rows", func(d *club.Drill) *[]string { return &d.Rows }),
	several("columns", func(d *club.Drill) *[]string { return &d.Columns }),
	each("ladder", ";", func(d *club.Drill) *[]drill.Rung { return &d.Rungs },
		func(text string) (drill.Rung, error) { return drill.ParseRung(text, measure.System{}) },
		func(r drill.Rung) string { return r.Words(measure.System{}) }),
	decimal("seconds an act", func(d *club.Drill) *float64 { return &d.Dose.ActSeconds }),
	decimal("effort", func(d *club.Drill) *float64 { return &d.Effort }),
	decimal("contacts each", func(d *club.Drill) *float64 { return &d.ContactsPerUnit }),
	yes("ground", func(d *club.Drill) *bool { return &d.Ground }),
	yes("static", func(d *club.Drill) *bool { return &d.Static }),
	yes("only warm", func(d *club.Drill) *bool { return &d.NeedsWarm }),
	yes("end of range", func(d *club.Drill) *bool { return &d.EndRange }),
	yes("one side at a time", func(d *club.Drill) *bool { return &d.OneSided }),
	yes("tires the arm", func(d *club.Drill) *bool { return &d.ArmPump }),
	yes("overhead", func(d *club.Drill) *bool { return &d.Overhead }),
	yes("body contact", func(d *club.Drill) *bool { return &d.Collision }),
	yes("as one", func(d *club.Drill) *bool { return &d.Together }),
	several("kit each", func(d *club.Drill) *[]string { return &d.Kit }),
	{name: "kit a lane", others: nil, set: setLaneKit, get: func(d *club.Drill) string {
		return strings.Join(d.LaneKitSaid(), "; ")
	}},
	several("kit of the group", func(d *club.Drill) *[]string { return &d.GroupKit }),
	decimal("metres long", func(d *club.Drill) *float64 { return &d.Space.Length }),
	decimal("metres wide", func(d *club.Drill) *float64 { return &d.Space.Width }),
	several("say", func(d *club.Drill) *[]string { return &d.Cues }),
	several("look for", func(d *club.Drill) *[]string { return &d.Faults }),
	text("easier", func(d *club.Drill) *string { return &d.Easier }),
	text("harder", func(d *club.Drill) *string { return &d.Harder }),
	text("instead", func(d *club.Drill) *string { return &d.Swap }),
	text("caution", func(d *club.Drill) *string { return &d.Caution }),
	word("least level", func(d *club.Drill) *drill.Grade { return &d.Least }, drill.Junior, drill.Club, drill.Elite),
	several("sports", func(d *club.Drill) *[]string { return &d.Sports }),
	several("seasons", func(d *club.Drill) *[]string { return &d.Seasons }),
	{name: "figure", others: nil, set: setFigure, get: getFigure},
}

// setTarget reads how much: a number, or as a coach says it, such as "2 x 8 each side".
func setTarget(d *club.Drill, cell string) (err error) {
	if d.Range.Target, err = strconv.Atoi(cell); err == nil {
		return nil
	}
	dosed, left := pen.Put(d.Drill, cell)
	if left != "" {
		return fmt.Errorf("%q is no amount: write a number, or as you say it, such as 2 x 8 each side", left)
	}
	d.Drill = dosed
	return nil
}

// partOf reads a part of a dose, "left" or "left 4".
func partOf(cell string) (drill.Part, error) {
	name, reps := cell, 0
	if i := strings.LastIndexByte(cell, ' '); i > 0 {
		if n, err := strconv.Atoi(cell[i+1:]); err == nil {
			name, reps = strings.TrimSpace(cell[:i]), n
		}
	}
	return drill.Part{Name: name, Reps: reps}, nil
}

func partSaid(p drill.Part) string {
	if p.Reps == 0 {
		return p.Name
	}
	return fmt.Sprint(p.Name, " ", p.Reps)
}

// legOf reads a leg of a line: "high knees (high-knees), 18 m, 2.4 m/s, back", where the drill's
// code may be left out.
func legOf(cell string) (leg drill.Leg, err error) {
	parts := strings.Split(cell, ",")
	if leg.Back = strings.EqualFold(strings.TrimSpace(parts[len(parts)-1]), "back"); leg.Back {
		parts = parts[:len(parts)-1]
	}
	wrong := fmt.Errorf("%q is no leg: write drill, metres, metres a second, such as high knees, 18 m, 2.4 m/s, back",
		cell)
	if len(parts) != 3 {
		return leg, wrong
	}
	leg.Name = strings.TrimSpace(parts[0])
	if name, code, ok := strings.Cut(strings.TrimSuffix(leg.Name, ")"), " ("); ok {
		leg.Name, leg.Code = name, code
	}
	for i, field := range []*float64{&leg.Metres, &leg.Speed} {
		number, _, _ := strings.Cut(strings.TrimSpace(parts[i+1]), " ")
		if *field, err = strconv.ParseFloat(number, 64); err != nil {
			return leg, wrong
		}
	}
	return leg, nil
}

func legSaid(leg drill.Leg) string {
	said := strings.ReplaceAll(leg.Name, ",", " ")
	if leg.Code != "" {
		said += " (" + leg.Code + ")"
	}
	said += fmt.Sprintf(", %s m, %s m/s", plain(leg.Metres), plain(leg.Speed))
	if leg.Back {
		said += ", back"
	}
	return said
}

// triesOf reads the tries of a row of cells: "5 5 3".
func triesOf(cell string) (row []int, err error) {
	for _, one := range strings.Fields(cell) {
		n, err := strconv.Atoi(one)
		if err != nil {
			return nil, fmt.Errorf("%q is no row of tries: write how many in each cell, such as 5 5 3", cell)
		}
		row = append(row, n)
	}
	return row, nil
}

func triesSaid(row []int) string { return strings.Trim(fmt.Sprint(row), "[]") }

// secondsOf reads one of the numbers of a tempo.
func secondsOf(cell string) (float64, error) {
	seconds, err := strconv.ParseFloat(cell, 64)
	if err != nil || !(seconds >= 0 && seconds <= 60) {
		return 0, fmt.Errorf("%q is no tempo: write seconds down, held and up, such as 3 1 3", cell)
	}
	return seconds, nil
}

// effortOf reads the effort of a single trip in per cent.
func effortOf(cell string) (float64, error) {
	percent, err := strconv.ParseFloat(strings.TrimSpace(strings.TrimSuffix(cell, "%")), 64)
	if err != nil || !(percent >= 10 && percent <= 100) {
		return 0, fmt.Errorf("%q is no effort: write per cent of each trip, such as 70; 90; 100", cell)
	}
	return percent / 100, nil
}

func setLaneKit(d *club.Drill, cell string) error {
	var list []string
	for _, one := range strings.Split(cell, ";") {
		if one = strings.TrimSpace(one); one != "" {
			list = append(list, one)
		}
	}
	d.SetLaneKit(list)
	return nil
}

func setPhases(d *club.Drill, cell string) error {
	d.Phases = nil
	for _, one := range strings.Split(cell, ";") {
		phase := drill.Phase(strings.ToLower(strings.TrimSpace(one)))
		switch phase {
		case "":
			continue
		case "own":
			phase = drill.Own
		case drill.Raise, drill.Activate, drill.Mobilise, drill.Potentiate, drill.Sport, drill.After:
		default:
			return fmt.Errorf("%q is no phase: they are raise, activate, mobilise, potentiate, sport, own, after", one)
		}
		d.Phases = append(d.Phases, phase)
	}
	return nil
}

func getPhases(d *club.Drill) string {
	var list []string
	for _, p := range d.Phases {
		if p == drill.Own {
			p = "own"
		}
		list = append(list, string(p))
	}
	return strings.Join(list, "; ")
}

// ReadDrills reads drills from CSV.
func ReadDrills(file []byte) ([]Row[club.Drill], []Problem, error) {
	begin := func() club.Drill {
		return club.Drill{Drill: drill.Drill{Phases: []drill.Phase{drill.Mobilise}, Effort: 0.4,
			Dose:  drill.Dose{Kind: drill.Reps},
			Range: drill.Range{Min: 4, Target: 8, Max: 12, Step: 1}}}
	}
	return read(asTable(file), drillColumns, "name", begin, usual)
}

// asTable makes a table of a plain list of names, each with its cues in brackets or behind
// a colon: "Heel slides (slow; breathe)". What is a table stays as it is.
func asTable(file []byte) []byte {
	lines := strings.Split(strings.ReplaceAll(strings.ToValidUTF8(string(file), ""), "\r", ""), "\n")
	head := strings.ToLower(strings.TrimPrefix(lines[0], "\ufeff"))
	if strings.Contains(head, "name") || strings.Contains(head, "code") ||
		strings.Count(head, ",")+strings.Count(head, "\t") > 2 || strings.IndexByte(head, 0) >= 0 {
		return file
	}
	var table strings.Builder
	out := csv.NewWriter(&table)
	out.Write([]string{"name", "say"})
	for _, line := range lines {
		name, cues, _ := strings.Cut(strings.TrimLeft(strings.TrimSpace(line), "-*•0123456789. "), "(")
		if cues == "" {
			name, cues, _ = strings.Cut(name, ":")
		}
		if name = strings.TrimSpace(name); name != "" {
			out.Write([]string{name, strings.TrimRight(strings.TrimSpace(cues), ")")})
		}
	}
	out.Flush()
	return []byte(table.String())
}

// usual fills in what a list of names and cues does not say: it is done eight times,
// to move, until the club says otherwise.
func usual(d *club.Drill) {
	if d.Range == (drill.Range{}) {
		d.Range = drill.Range{Min: 4, Target: 8, Max: 12, Step: 1}
	}
	if d.Code == "" {
		d.Code = strings.Join(strings.FieldsFunc(strings.ToLower(d.Name),
			func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) }), "-")
	}
	if d.Aim == "" && d.Name != "" {
		d.Aim = "Our own: say what it is for"
		if len(d.Cues) > 0 {
			d.Aim = d.Cues[0]
		}
	}
	if k := d.Dose.Kind; k == drill.Reps || k == drill.Hold {
		d.Dose.Sets, d.Dose.Sides = max(1, d.Dose.Sets), max(1, d.Dose.Sides)
	}
	if d.Dose.Kind == drill.Reps && d.Dose.RepSeconds == 0 {
		d.Dose.RepSeconds = 3
	}
}

// WriteDrills writes drills as CSV that ReadDrills reads back whole.
func WriteDrills(w io.Writer, drills []club.Drill) error { return writeRows(w, drillColumns, drills) }

// noFigure is written for a drill that the club shows without one.
const noFigure = "none"

func setFigure(d *club.Drill, cell string) (err error) {
	switch d.Plain = cell == noFigure; {
	case cell != "" && !d.Plain:
		d.Figure, err = ReadFigure(cell)
	}
	return err
}

func getFigure(d *club.Drill) string {
	switch {
	case d.Plain:
		return noFigure
	case d.Figure == nil:
		return ""
	}
	text, _ := json.Marshal(d.Figure) // numbers that were validated, and words
	return string(text)
}
