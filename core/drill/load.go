package drill

import "fmt"

// Load is what work leaves in one player. Seconds are time on task, with
// waiting in line; the rest is counted.
type Load struct {
	Seconds       int // at work, of any effort
	HardSeconds   int // at an effort of 80 % and more
	GroundSeconds int // sitting, kneeling or lying
	StandSeconds  int // waiting for a turn, of Seconds
	Contacts      int // jumps, hops and landings
	SprintMetres  int // at an effort of 90 % and more
	Acts          int // throws, kicks, catches
}

// Add is the sum of two loads.
func (l Load) Add(m Load) Load {
	return Load{l.Seconds + m.Seconds, l.HardSeconds + m.HardSeconds, l.GroundSeconds + m.GroundSeconds, l.StandSeconds + m.StandSeconds,
		l.Contacts + m.Contacts, l.SprintMetres + m.SprintMetres, l.Acts + m.Acts}
}

// Most is the greater of each figure of two loads.
func (l Load) Most(m Load) Load {
	return Load{max(l.Seconds, m.Seconds), max(l.HardSeconds, m.HardSeconds), max(l.GroundSeconds, m.GroundSeconds), max(l.StandSeconds, m.StandSeconds),
		max(l.Contacts, m.Contacts), max(l.SprintMetres, m.SprintMetres), max(l.Acts, m.Acts)}
}

// Words says what is counted of the load, where there is any: "12 contacts",
// "80 m sprinted", "9 acts".
func (l Load) Words() (words []string) {
	for _, one := range []struct {
		n    int
		what string
	}{{l.Contacts, "contacts"}, {l.SprintMetres, "m sprinted"}, {l.Acts, "acts"}} {
		if one.n > 0 {
			words = append(words, fmt.Sprintf("%d %s", one.n, one.what))
		}
	}
	return words
}
