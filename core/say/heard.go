package say

import (
	"math"
	"slices"
	"strings"
	"unicode"

	"cuestart/core/drill"
	"cuestart/core/hear"
	"cuestart/core/measure"
	"cuestart/core/movement"
)

// lexicon is what a reader knows of words.
type lexicon struct{ *Reader }

func (x lexicon) Moves(text string) bool { return movement.Lead(text) != "" }

func (x lexicon) Known(name string) bool {
	words := keyWords(name)
	close := unspaced(plainName(name))
	return slices.ContainsFunc(x.known.names, func(e entry) bool { return e.likeness(close, words) >= slips })
}

func (x lexicon) Word(word string) bool { return x.known.words[stem(plainName(word))] }

func (x lexicon) Still(name string) bool {
	if k, _ := x.known.find(name); k != nil {
		return k.Dose.Kind == drill.Hold
	}
	u, moves := movement.Of(name)
	return moves && u.Effort < 0.35 && !u.Travels && stillWords.MatchString(name)
}

func (x lexicon) Goes(name string) bool {
	if k, _ := x.known.find(name); k != nil {
		return k.Dose.Kind == drill.Travel
	}
	u, moves := movement.Of(name)
	return moves && u.Travels
}

func (x lexicon) Person(text string) bool {
	name := strings.TrimPrefix(fold(text), "the ")
	if name == "everyone" || name == "everybody" || name == "all" {
		return true
	}
	return slices.ContainsFunc(x.people, func(n named) bool { return n.fold == name || n.fold+"s" == name })
}

func (x lexicon) Leads(text string) bool {
	return slices.ContainsFunc(x.staff, func(n named) bool { return n.fold == fold(text) })
}

func (x lexicon) Place(text string) bool {
	return slices.ContainsFunc(x.Zones, func(z string) bool { return fold(z) == fold(text) })
}

func (x lexicon) Line(text string) (float64, bool) {
	if x.Plays == nil {
		return 0, false
	}
	l, ok := x.Plays.Line(text)
	return l.Metres, ok
}

var stillWords = pattern(`\b(?:hold|holds|stretch|stretches|plank|planks|iso|isos|pose|sit|sits|hang|position|pigeon|copenhagens?|balance|squeeze)\b`)

// Heard is the line as the marks and readings of package hear have it.
func (r *Reader) Heard(text string) Line {
	is := hear.Line(tidySigns(text), lexicon{r})
	l := Line{Said: text, Cues: is.Cues, Where: is.Where, Leader: is.Leader, Before: is.Before, score: is.Score, numbers: is.Numbers}
	l.Who = is.Who
	l.At = is.At
	if is.Right {
		l.StraightAfter = is.After
	} else {
		l.After = is.After
	}
	if is.From != nil || is.To != nil || is.Done != nil {
		l.Window = &Window{is.From, is.To}
		if is.Done != nil {
			l.Window[1] = is.Done
		}
	}
	switch is.Is {
	case hear.Drill:
		l.Is = IsDrill
		r.hearDrill(&l, is.Name, &is.Amount)
	case hear.Combo:
		l.Is, l.Name, l.Times = IsCombo, is.Name, int(is.Times)
		for _, s := range is.Steps {
			one := Line{Is: IsDrill}
			r.hearDrill(&one, s.Name, &s.Amount)
			l.Drills = append(l.Drills, one)
		}
	case hear.Choice:
		l.Is, l.Name = IsChoice, is.Name
		for _, name := range is.Choices {
			one := Line{Is: IsDrill}
			r.hearDrill(&one, name, &is.Amount)
			l.Drills = append(l.Drills, one)
		}
	case hear.Heading:
		l.Is, l.Name = IsBlock, is.Name
	case hear.Fixed:
		l.Is, l.Name, l.From, l.To = IsFixed, is.Name, is.From, is.To
		if is.At != nil {
			l.From = is.At
		}
	case hear.Remark:
		l.Is, l.Note = IsNote, text
	}
	return l
}

// hearDrill fills in a drill by its name and how much of it was said.
func (r *Reader) hearDrill(l *Line, name string, a *hear.Amount) {
	l.Name = strings.ReplaceAll(name, "’", "'")
	k, likely, spelt := r.known.seek(l.Name)
	if k != nil {
		l.Code, l.slip = k.Code, !spelt
	}
	for _, other := range likely {
		l.Likely = append(l.Likely, other.Name)
	}
	l.Yards, l.Feet = a.Unit == "yd", a.Unit == "ft"
	if d := r.heardDose(a, name); d != nil {
		l.Dose = d
	}
}

// heardDose is an amount as a dose; nil where nothing was said.
func (r *Reader) heardDose(a *hear.Amount, name string) *Dose {
	whole := func(n float64) int { return int(math.Round(n)) }
	d := &Dose{Sets: whole(a.Sets), LeastSets: whole(a.LeastSets), Least: whole(a.Least), RestSeconds: a.Rest, Tempo: a.Tempo}
	if a.Sides == 2 {
		d.Sides, d.sides = 2, 2
	}
	if a.Ways == 2 {
		d.Directions = 2
	}
	if len(a.Efforts) == 1 {
		d.Effort = a.Efforts[0]
	} else {
		d.Efforts = a.Efforts
	}
	switch {
	case a.Trips > 0 || a.Laps > 0:
		d.Kind, d.Trips, d.Metres, d.To = drill.Travel, whole(a.Trips), math.Round(1000*a.Metres)/1000, a.To
		if a.Laps > 0 {
			d.Laps, d.Metres = whole(a.Laps), r.wayRound(name)
			d.Trips = d.Laps
		}
	case a.Seconds > 0:
		d.Kind, d.Seconds = drill.Time, whole(a.Seconds)
		if d.Reps = 0; a.Reps > 1 {
			d.Reps = whole(a.Reps)
		}
	case (a.Hold > 0 || a.Breaths > 0) && !a.Counted:
		d.Kind, d.HoldSeconds, d.Breaths, d.Reps = drill.Hold, a.Hold, whole(a.Breaths), max(1, whole(a.Reps))
		if a.Ways > 2 {
			d.Reps *= whole(a.Ways)
		}
	case a.Reps > 0 || len(a.Parts) > 0:
		d.Kind, d.Reps, d.HoldSeconds, d.Breaths = drill.Reps, whole(a.Reps), a.Hold, whole(a.Breaths)
		if a.Ways > 2 {
			d.Reps *= whole(a.Ways)
		}
		r.heardParts(a, d)
	default:
		if d.Effort == 0 && d.Efforts == nil && d.Tempo == nil {
			return nil
		}
	}
	if d.Kind == drill.Reps || d.Kind == drill.Hold {
		d.Sets = max(1, d.Sets)
		if d.Sides == nil {
			d.Sides = 1
		}
	}
	return d
}

// heardParts are parts with counts of their own: of two that are alike one with two sides or ways.
func (r *Reader) heardParts(a *hear.Amount, d *Dose) {
	if len(a.Parts) == 0 {
		return
	}
	total, same := 0.0, true
	for _, n := range a.Parts {
		total += n
		same = same && n == a.Parts[0]
	}
	switch {
	case same && len(a.Parts) == 2 && a.PartSides:
		d.Reps = int(a.Parts[0])
	case same && len(a.Parts) == 2:
		d.Reps, d.Directions = int(a.Parts[0]), 2
	default:
		d.Reps = int(total)
		if a.PartSides {
			d.Sides, d.sides = 1, 0
		}
	}
}

// tidySigns leaves the signs of a line as they are but what cannot be seen.
func tidySigns(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsControl(r) && r != '\t' {
			return ' '
		}
		return r
	}, text)
}

var _ = measure.Yard

// Readings are how else a line could be meant, the best first.
func (r *Reader) Readings(text string) []hear.Reading {
	return hear.Readings(tidySigns(text), lexicon{r})
}

// sure tells whether the line is explained wholly: by words that are known, with nothing left.
func (r *Reader) sure(l *Line) bool {
	x := lexicon{r}
	switch l.Is {
	case IsPhase, IsFixed, IsBring, IsStock, IsBlank, IsLegs:
		return true
	case IsBlock:
		return len(l.Drills) > 0 || l.Form != "" || l.Pick > 0 || l.Rounds > 0
	case IsNote:
		return false
	case IsDrills:
		return !slices.ContainsFunc(l.Drills, func(one Line) bool { return !r.sure(&one) })
	}
	if l.Note != "" || l.Name == "" || l.Form != "" || strings.ContainsAny(l.Name, "0123456789:;,") {
		return false
	}
	words := strings.Fields(fold(l.Name))
	if l.Code != "" && !l.slip && len(words) <= 6 {
		return l.Dose != nil || !strings.ContainsAny(l.Said, "0123456789")
	}
	if len(words) > 4 || !x.Moves(l.Name) {
		return false
	}
	for _, w := range words {
		if !x.Word(w) {
			return false
		}
	}
	return l.Dose != nil
}

// better is the better of two readings of a line: that by the rules where it is sure of it, else
// the one that explains more.
func (r *Reader) better(ruled, heard Line) Line {
	if r.sure(&ruled) || ruled.Is == IsBlank {
		return ruled
	}
	return heard
}
