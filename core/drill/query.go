package drill

import (
	"slices"
	"strings"
	"unicode"
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
}

// Find lists the drills that fit, those first whose name holds the words.
func (q Query) Find(drills []Drill) (found []Drill) {
	words := strings.FieldsFunc(fold(q.Text), func(r rune) bool { return unicode.IsSpace(r) || r == ',' })
	var rest []Drill
	for i := range drills {
		d := &drills[i]
		if !q.fits(d) {
			continue
		}
		name := fold(d.Name)
		inName, anywhere, whole := true, true, ""
		for _, w := range words {
			if strings.Contains(name, w) {
				continue
			}
			if inName = false; whole == "" {
				whole = d.words()
			}
			anywhere = anywhere && strings.Contains(whole, w)
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
		q.Sport != "" && len(d.Sports) > 0 && !slices.Contains(d.Sports, q.Sport):
		return false
	}
	return true
}

// words is everything of a drill that a coach may look for.
func (d *Drill) words() string {
	var b strings.Builder
	b.Grow(512)
	add := func(text string) { b.WriteByte(' '); b.WriteString(text) }
	for _, one := range [...]string{d.Aim, d.Caution, d.Unit, d.Code} {
		add(one)
	}
	for _, list := range [...][]string{d.Cues, d.Faults, d.Regions, d.Planes, d.Qualities, d.Kit, d.LaneKit} {
		for _, one := range list {
			add(one)
		}
	}
	return fold(b.String())
}

// fold makes letters comparable: small, and hyphens as spaces.
func fold(text string) string { return strings.ReplaceAll(strings.ToLower(text), "-", " ") }
