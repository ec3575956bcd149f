package say

import (
	"strings"

	"cuestart/core/pattern"
)

// ReadAttributes reads what a text says of a block; left is what was not understood.
func (r *Reader) ReadAttributes(text string) (l Line, left string) {
	list := strings.Split(tidy(text), ",")
	for i, one := range list {
		if m := heldAt.FindStringSubmatch(strings.TrimSpace(one)); m != nil && len(list) < 3 {
			list[i] = "at " + m[1]
		}
	}
	s := newScan(r, strings.Join(list, ","), nil)
	s.hideQuoted()
	s.whole(&l)
	if m := s.take(roundsOf); m != nil {
		l.often(m)
		d := &Dose{}
		s.rest(d)
		l.RestSeconds = d.RestSeconds
	}
	name, note := s.name(s.text)
	return l, strings.Trim(name+", "+note, ", ")
}

// ReadDose reads what is said of how much of a drill is done; left is what was not understood, and no dose
// where none was said.
func ReadDose(name, said string) (l Line, left string) {
	s := newScan(NewReader(Context{}), " "+tidy(said), nil)
	l = Line{Is: IsDrill}
	d := s.dose(&l)
	about, note := s.name(s.text)
	left = strings.Trim(about+", "+note, ", ")
	if d == nil || left != "" { // as in a line of a list
		if heard := s.Heard(name + " " + said); heard.Is == IsDrill && heard.Dose != nil &&
			len(lost(&heard, said)) == 0 && len(heard.Cues) == 0 {
			d, left = heard.Dose, ""
		}
	}
	if d == nil {
		return l, tidy(said)
	}
	d.settle(nil, name)
	l.Dose = d
	return l, left
}

// StepsSaid are the steps of a combination with how much of each, as they were said: "3 pogos
// then sprint 10 m" of "3 pogos then sprint 10 m x 4"; "" where none says how much.
func (l *Line) StepsSaid() string {
	said := inBrackets.ReplaceAllString(bullet.ReplaceAllString(AsTyped(l.Said), "$1"), "")
	said = strings.TrimSpace(oftenAtEnd.ReplaceAllString(strings.TrimSpace(atEnd.ReplaceAllString(said, "")), ""))
	if _, after, labelled := strings.Cut(said, ": "); labelled &&
		!strings.Contains(Fold(l.Name), Fold(said[:strings.Index(said, ": ")])) {
		said = after // who does it
	}
	said = strings.Trim(said, " ,.;")
	if !strings.ContainsAny(said, "0123456789") && !numberWord.MatchString(said) || Fold(said) == Fold(l.Name) {
		return ""
	}
	return Short(said)
}

// oftenAtEnd is how often a combination is done, at its end.
var oftenAtEnd = pattern.Must(`(?i)[,;]?\s*(?:\b[x×] ?\d{1,2}|\b\d{1,2} ?[x×]|\b(?:\d{1,2}|two|three|four|five|six) (?:times|rounds|sets|goes|reps)|\b(?:once|twice|thrice))(?: each| through| over)?(?:[,;.].*)?$`)

var heldAt = pattern.Must(`(?i)^(?:held )?(\d{1,3}(?:[:.]\d\d)?)$`)
