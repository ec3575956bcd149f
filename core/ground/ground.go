// Package ground is the plan of a ground from above: where its places lie, how far one is
// from another, and who stands where.
package ground

import (
	"math"
	"strings"

	"cuestart/core/plan"
)

// Pace is how fast people walk from one place to the next, in m/s (Bohannon 1997, Age and
// Ageing 26:15-19: comfortable for adults).
const Pace = 1.4

// Point is a point of the plan, in metres.
type Point struct{ X, Y float64 }

// Place is a zone where it lies.
type Place struct {
	plan.Zone
	Lie  plan.Lie
	Said bool // somebody laid it there; else it is a usual place for it
}

// Room between places that nobody laid, in metres.
const (
	apart  = 4.0
	across = 12.0 // from what is outdoors to what is under a roof
	usual  = 20.0 // length of a place of which none is known
	person = 6.0  // square metres a person
	lane   = 2.5  // width of a lane
)

// Arrange lays out zones: where they were said to lie, and the others side by side, what is
// under a roof below what is not. Parts of one pitch, its halves or thirds, touch.
func Arrange(zones []plan.Zone) []Place {
	places := make([]Place, len(zones))
	right, low := 0.0, 0.0
	for i, z := range zones {
		places[i] = Place{Zone: z}
		if z.Lies != nil {
			places[i].Lie, places[i].Said = *z.Lies, true
			_, max := Bounds(places[i : i+1])
			right, low = math.Max(right, max.X+apart), math.Max(low, max.Y)
		}
	}
	for _, covered := range []bool{false, true} {
		at := right
		if covered {
			at = 0
		}
		top := 0.0
		if covered && low > 0 {
			top = low + across
		}
		part := false
		for i := range places {
			p := &places[i]
			if p.Said || p.Covered != covered {
				continue
			}
			p.Lie = usually(p.Zone)
			if part && ofPitch(p.Name) {
				at -= apart
			}
			part = ofPitch(p.Name)
			p.Lie.X, p.Lie.Y = at+p.Lie.Long/2, top+p.Lie.Wide/2
			at += p.Lie.Long + apart
			low = math.Max(low, top+p.Lie.Wide)
		}
	}
	return places
}

// usually is how large a zone is of which that was not said.
func usually(z plan.Zone) plan.Lie {
	l := plan.Lie{Long: z.Metres}
	if l.Long <= 0 {
		l.Long = usual
	}
	l.Wide = math.Round(math.Min(l.Long*1.4, math.Max(float64(z.Lanes)*lane, float64(z.Capacity)*person/l.Long)))
	l.Wide = math.Max(l.Wide, 4)
	return l
}

// ofPitch tells whether a zone is a part of one pitch or court.
func ofPitch(name string) bool {
	name = strings.ToLower(name)
	return strings.Contains(name, "half") || strings.Contains(name, "third")
}

// Corners are the corners of a place, in order.
func (p Place) Corners() (corners [4]Point) {
	sin, cos := math.Sincos(float64(p.Lie.Turn) * math.Pi / 180)
	for i, at := range [4]Point{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}} {
		x, y := at.X*p.Lie.Long/2, at.Y*p.Lie.Wide/2
		corners[i] = Point{p.Lie.X + x*cos - y*sin, p.Lie.Y + x*sin + y*cos}
	}
	return corners
}

// Bounds are the corners of what places cover together.
func Bounds(places []Place) (min, max Point) {
	min, max = Point{math.Inf(1), math.Inf(1)}, Point{math.Inf(-1), math.Inf(-1)}
	for _, p := range places {
		for _, c := range p.Corners() {
			min = Point{math.Min(min.X, c.X), math.Min(min.Y, c.Y)}
			max = Point{math.Max(max.X, c.X), math.Max(max.Y, c.Y)}
		}
	}
	return min, max
}

// Metres is how far it is from the middle of one place to the middle of another.
func Metres(a, b Place) float64 { return math.Hypot(a.Lie.X-b.Lie.X, a.Lie.Y-b.Lie.Y) }

// Seconds is how long that takes to walk.
func Seconds(a, b Place) int { return int(math.Round(Metres(a, b) / Pace)) }
