package drill

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/measure"
	"cuestart/core/speech"
)

// Words writes amount of the drill as a coach says it, always with its unit: "8 a side", "2 × 6
// reps", "3 holds of 10 s a side", "4 lengths of 20 m", "9 throws", "2:30 min", with the effort
// where that was said: "5 min at 60 %".
func (d Drill) Words(amount int) string { return d.WordsIn(speech.English, amount) }

// WordsIn is Words in another language.
func (d Drill) WordsIn(say speech.Say, amount int) string {
	return ranged(d, say, d.much(say, amount), amount) + percents(say, d.Dose.Efforts)
}

// ranged writes an amount of which the least was said too as a range: "8–10 reps", or where
// it is not done in full "9 reps of 8–10".
func ranged(d Drill, say speech.Say, words string, amount int) string {
	r := d.Range
	if !r.Said || r.Min >= r.Target || d.Dose.Kind == Time {
		return words
	}
	whole := fmt.Sprintf("%d–%d", r.Min, r.Target)
	if amount != r.Target {
		return say("%s of %s", words, whole)
	}
	number, with := fmt.Sprint(amount), whole
	if d.Dose.Sets > 1 && (d.Dose.Kind == Reps || d.Dose.Kind == Hold) {
		number, with = "× "+number, "× "+with
	}
	return strings.Replace(words, number, with, 1)
}

// much is how much an amount is, without the effort.
func (d Drill) much(say speech.Say, amount int) string {
	unit := d.Unit
	side := d.Dose.sideWords(say)
	switch d.Dose.Kind {
	case Reps:
		if unit == "" && side == "" {
			unit = "reps"
		}
		return inSets(d.Dose, say, amount, unit) + side + d.Dose.PartWords() + d.Dose.TempoWords()
	case Hold:
		if unit == "" {
			unit = "holds"
		}
		if d.Dose.Breaths > 0 {
			return say("%s of %s", inSets(d.Dose, say, amount, unit), NumberIn(say, d.Dose.Breaths, "breaths")) + side +
				d.Dose.PartWords()
		}
		return say("%s of %g s", inSets(d.Dose, say, amount, unit), d.Dose.HoldSeconds) + side + d.Dose.PartWords()
	case Line:
		return NumberIn(say, amount, "trips") + ": " + d.Dose.legWords(say)
	case Travel:
		if unit == "" {
			unit = "lengths"
		}
		return say("%s of %s", NumberIn(say, amount, unit), d.Dose.Length(d.Dose.Metres))
	case Grid:
		if len(d.Dose.Counts) > 0 {
			return d.countWords(amount)
		}
		return say("%d in each of %d places", amount, d.Dose.Cells)
	case Time:
		return clock.Lasting(amount)
	}
	if unit == "" {
		unit = "times"
	}
	if d.Dose.ByPair {
		return NumberIn(say, amount, unit) + say(" a pair")
	}
	return NumberIn(say, amount, unit)
}

// Yard is a yard in metres.
const Yard = measure.Yard

// Length writes a length of the dose: "20 m", or "22 yd" where it was said so.
func (d Dose) Length(metres float64) string {
	return measure.System{Yards: d.Yards, Feet: d.Feet}.Length(metres)
}

// In is the dose said in the units of a club, its lengths about as long and even in them.
func (d Dose) In(s measure.System) Dose {
	if s.Unit() == "m" || d.Yards || d.Feet {
		return d
	}
	d.Yards, d.Feet = s.Yards && !s.Feet, s.Feet
	if d.To != "" {
		return d // a line lies where it lies
	}
	d.Metres = s.Nice(d.Metres)
	d.Legs = slices.Clone(d.Legs)
	for i := range d.Legs {
		d.Legs[i].Metres = s.Nice(d.Legs[i].Metres)
	}
	return d
}

// In is the drill said in the units of a club: its dose, its rungs, the room that it takes.
func (d Drill) In(s measure.System) Drill {
	metres := d.Dose.Metres
	if d.Dose = d.Dose.In(s); d.Unit == "laps" {
		d.Dose.Metres = metres // and a lap is as long as it is
	}
	d.Rungs = slices.Clone(d.Rungs)
	for i := range d.Rungs {
		d.Rungs[i].Metres = s.Nice(d.Rungs[i].Metres)
	}
	for _, texts := range []*[]string{&d.Cues, &d.Rows} {
		*texts = slices.Clone(*texts)
		for i, text := range *texts {
			(*texts)[i] = s.Text(text)
		}
	}
	return d
}

// inSets writes an amount in sets: "6 reps", "2 × 6".
func inSets(dose Dose, say speech.Say, amount int, unit string) string {
	if dose.LeastSets > 0 && dose.LeastSets < dose.Sets {
		return strings.TrimSpace(fmt.Sprintf("%d–%d × %s", dose.LeastSets, dose.Sets, NumberIn(say, amount, unit)))
	}
	if dose.Sets > 1 {
		return strings.TrimSpace(fmt.Sprintf("%d × %s", dose.Sets, NumberIn(say, amount, unit)))
	}
	return NumberIn(say, amount, unit)
}

// percents writes the efforts of trips: " at 70, 80, 90 %".
func percents(say speech.Say, efforts []float64) string {
	if len(efforts) == 0 {
		return ""
	}
	var list []string
	for _, e := range efforts {
		list = append(list, fmt.Sprint(math.Round(100*e)))
	}
	return say(" at %s %%", strings.Join(list, ", "))
}

// Number writes a number of what is counted, in the singular where it is one: "2
// players", "1 player".
func Number(n int, unit string) string { return NumberIn(speech.English, n, unit) }

// NumberIn is Number in another language, as far as that knows the unit.
func NumberIn(say speech.Say, n int, unit string) string {
	if n == 1 {
		unit = singular(unit)
	}
	if unit == "" {
		return fmt.Sprint(n)
	}
	return fmt.Sprintf("%d %s", n, say(strings.ReplaceAll(unit, "%", "%%")))
}

// singular is one of what a unit counts: "catch" of catches, "throw" of throws.
func singular(unit string) string {
	for _, ending := range []string{"ches", "shes", "sses", "xes"} {
		if strings.HasSuffix(unit, ending) {
			return strings.TrimSuffix(unit, "es")
		}
	}
	return strings.TrimSuffix(unit, "s")
}

// Figure writes amount without its unit, where the unit was just said: "8", or
// "2:30 min" for plain time.
func (d Drill) Figure(amount int) string {
	if d.Dose.Kind == Time {
		return d.Words(amount)
	}
	return fmt.Sprint(amount)
}
