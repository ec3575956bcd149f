package say

import (
	"slices"
	"strings"

	"cuestart/core/drill"
)

// distance takes trips and metres.
func (s *counting) distance(d *Dose) bool {
	if d.Laps > 0 || d.To != "" {
		return true
	}
	if s.lengthList(d) {
		return true
	}
	s.trips(d)
	if (d.saidDistance || d.Share != "") && d.Kind == "" {
		d.Kind = drill.Travel // how often is still to be said
		if m := s.take(timesOf); m != nil {
			d.Trips = number(m[1])
		} else if m := s.take(onceTwice); m != nil {
			d.Trips = times(m[1])
		}
	}
	return d.Kind == drill.Travel
}

// lengthList takes "10 m, 20 m, 30 m": as many trips, as long as they are all together.
func (s *counting) lengthList(d *Dose) bool {
	m := metreList.FindStringSubmatchIndex(s.text)
	if m == nil {
		return false
	}
	list := numbers(digits.FindAllString(s.text[m[2]:m[3]], -1))
	if len(list) < 2 || !slices.IsSorted(list) || len(list) == 2 && strings.Count(strings.ToLower(s.text[m[0]:m[1]]),
		"m") < 2 {
		return false
	}
	d.Kind, d.Trips = drill.Travel, len(list)
	for _, n := range list {
		d.Metres += float64(n) / float64(len(list))
	}
	s.text = s.text[:m[0]] + ", " + s.keep(s.text[m[0]:m[1]]) + s.text[m[1]:]
	return true
}

// trips take how often and how far.
func (s *counting) trips(d *Dose) {
	travel := func() {
		d.Kind = drill.Travel
		d.Trips = max(d.Trips, 1)
	}
	if m := s.take(sideToSide); m != nil {
		d.Share = "side to side"
	}
	if m := s.take(lengthsOf); m != nil {
		d.Trips, d.Metres = number(m[1]), decimal(m[2])
		travel()
	} else if m := s.take(metresOf); m != nil {
		d.Metres = decimal(m[1])
		d.saidDistance = true
	}
	if m := s.takeIf(!plainTime.MatchString(s.text), shareOf); m != nil { // "full court 4 min" is played there
		d.Share = strings.Replace(strings.ToLower(m[1]), "whole", "full", 1)
		d.saidDistance = true
	}
	if m := s.take(backAndOut); m != nil {
		n := max(number(m[1]), 1)
		if m[2] != "" {
			n *= max(1, times(m[2]))
		}
		d.Trips = 2 * max(n, d.Trips)
		d.there = true
		travel()
	}
	if m := s.takeIf(!d.there, lengths); m != nil {
		d.Trips = number(m[1])
		if word := strings.ToLower(m[0]); strings.Contains(word, "width") {
			d.Share = "side to side"
		} else if strings.Contains(word, "half") {
			d.Share = "half"
		} else if d.Metres == 0 && d.Share == "" {
			d.Share = "full"
		}
		travel()
	}
}
