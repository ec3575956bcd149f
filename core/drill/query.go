package drill

import (
	"bytes"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// NoKit, as the kit of a [Query], asks for drills that need none.
const NoKit = "none"

// Query is what a coach looks for in the drill book. An empty field asks for
// nothing.
type Query struct {
	Text    string // words, each of which is somewhere in the drill
	Phase   string // a phase; "own" is own time
	Region  string
	Plane   string
	Quality string
	Kit     string // one piece that it may need, or NoKit
	Metres  int    // the longest lane there is; -1: on the spot only
	Grade   Grade  // of the squad
	Sport   string // key: drills of other sports do not count
	Season  string // a time of the season: drills of another one do not count
}

// Find lists the drills that fit, those first whose name holds the words.
func (q Query) Find(drills []Drill) (found []Drill) {
	words := bytes.FieldsFunc(fold(nil, q.Text), func(r rune) bool { return unicode.IsSpace(r) || r == ',' })
	var rest []Drill
	var text []byte // of one drill after the other
	for i := range drills {
		d := &drills[i]
		if !q.fits(d) {
			continue
		}
		text = fold(text[:0], d.Name)
		name, whole := len(text), false
		inName, anywhere := true, true
		for _, w := range words {
			if bytes.Contains(text[:name], w) {
				continue
			}
			if inName = false; !whole {
				text, whole = d.words(text), true
			}
			anywhere = anywhere && bytes.Contains(text, w)
		}
		switch {
		case inName:
			found = append(found, *d)
		case anywhere:
			rest = append(rest, *d)
		}
	}
	return append(found, rest...)
}

func (q Query) fits(d *Drill) bool {
	phase := Phase(q.Phase)
	if q.Phase == "own" {
		phase = Own
	}
	switch {
	case q.Phase != "" && !d.Serves(phase),
		q.Region != "" && !slices.Contains(d.Regions, q.Region),
		q.Plane != "" && !slices.Contains(d.Planes, q.Plane),
		q.Quality != "" && !slices.Contains(d.Qualities, q.Quality),
		q.Kit == NoKit && len(d.Kit)+len(d.LaneKit) > 0,
		q.Kit != "" && q.Kit != NoKit && !slices.Contains(d.Kit, q.Kit) && !slices.Contains(d.LaneKit, q.Kit),
		q.Metres < 0 && d.Space.Length > 0,
		q.Metres > 0 && d.Space.Length > float64(q.Metres),
		q.Grade != "" && !d.Suits(q.Grade),
		q.Season != "" && len(d.Seasons) > 0 && !slices.Contains(d.Seasons, q.Season),
		q.Sport != "" && len(d.Sports) > 0 && !slices.Contains(d.Sports, q.Sport):
		return false
	}
	return true
}

// words appends everything of a drill that a coach may look for, folded.
func (d *Drill) words(text []byte) []byte {
	for _, one := range [...]string{d.Aim, d.Caution, d.Unit, d.Code} {
		text = fold(append(text, '\n'), one)
	}
	for _, list := range [...][]string{d.Cues, d.Faults, d.Regions, d.Planes, d.Qualities, d.Kit, d.LaneKit} {
		for _, one := range list {
			text = fold(append(text, '\n'), one)
		}
	}
	return text
}

// fold appends text with its letters made comparable: small, and hyphens as
// spaces.
func fold(to []byte, text string) []byte {
	for i := 0; i < len(text); i++ {
		c := text[i]
		switch {
		case c == '-':
			c = ' '
		case 'A' <= c && c <= 'Z':
			c += 'a' - 'A'
		case c >= utf8.RuneSelf:
			return append(to, strings.ReplaceAll(strings.ToLower(text[i:]), "-", " ")...)
		}
		to = append(to, c)
	}
	return to
}
