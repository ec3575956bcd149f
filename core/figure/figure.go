// Package figure draws a drill from a few angles: a body of fixed limbs, its poses, how it
// moves from one to the next, and where it touches the ground. It knows lengths, angles
// and contacts; what draws its lines on a page is not its concern.
//
// The body is 100 high. In the side view it faces right, x grows forward and y upward; a
// limb's first angle is from hanging straight down, forward positive, in the world and not
// from the trunk. A knee bends back, an elbow forward. In the front view a limb's angle is
// outwards, and the other side mirrors it unless it is said.
package figure

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// View is from where the body is seen.
type View string

// The views.
const (
	Side  View = "side"
	Front View = "front"
	Back  View = "back"  // the lines are those from the front
	Above View = "above" // a court, a line or a gate: a course
)

// Moves says how the poses follow each other.
type Moves string

// How they do. There goes from the first to the last and back; Once stays at the last;
// Loop goes on to the first again; Travel and Retreat do so and move on, too.
const (
	There   Moves = "there and back"
	Once    Moves = "once"
	Loop    Moves = "loop"
	Travel  Moves = "travel"
	Retreat Moves = "travel back"
)

// Figure is how a drill looks.
type Figure struct {
	View   View    `json:"view,omitempty"`   // "": from the side
	Moves  Moves   `json:"moves,omitempty"`  // "": there and back
	Poses  []Pose  `json:"poses,omitempty"`  // 1 to 4; none from above
	Course *Course `json:"course,omitempty"` // from above
	Props  []Prop  `json:"props,omitempty"`
	NotSo  []Wrong `json:"not_so,omitempty"` // common faults
	Holds  bool    `json:"still,omitempty"`  // it is held
}

// Limb is a limb's angles in degrees: thigh or upper arm, then how far the knee or the
// elbow bends, then for a leg the foot, from hanging (90 is flat). The foot may be left
// out: then it is flat where it stands and in line where it does not.
type Limb []float64

// Pose is a body at one moment.
type Pose struct {
	Share float64 `json:"share,omitempty"` // of the cycle, beside the others'; 0: as much as each
	// of the trunk from upright, forward positive; 90: face down, -90: on the back
	Lean float64 `json:"lean,omitempty"`
	Tilt float64 `json:"tilt,omitempty"` // of the hips from level, from the front: as the lean
	// of the chest over the hips: the near shoulder forward; of who faces us, towards us
	Turn   float64  `json:"turn,omitempty"`
	Round  float64  `json:"round,omitempty"` // of the back, from the side; hollow: negative
	Neck   float64  `json:"neck,omitempty"`  // of the head from the trunk, forward positive
	Leg    Limb     `json:"leg,omitempty"`   // the near one; none: it hangs
	FarLeg Limb     `json:"far_leg,omitempty"`
	Arm    Limb     `json:"arm,omitempty"`
	FarArm Limb     `json:"far_arm,omitempty"`
	Touch  []string `json:"touch,omitempty"` // what is on the ground or leans on something; the first stays where it is
	On     float64  `json:"on,omitempty"`    // how far it has gone on since the pose before, beside its contact
	Lift   float64  `json:"lift,omitempty"`  // height of a flight, or of what it stands on
}

// Prop is a thing that stands, lies or is held, or somebody.
type Prop struct {
	Is string `json:"is"` // one of Props
	// from where the first contact stands, forward; of what is held, from the joint
	At   float64 `json:"at,omitempty"`
	High float64 `json:"high,omitempty"` // of its upper edge; of what is held, above the joint
	Wide float64 `json:"wide,omitempty"`
	In   string  `json:"in,omitempty"`   // the joint that holds it, lies on it, or pulls at it
	To   string  `json:"to,omitempty"`   // the other joint of a band; where it is tied at a place, none
	Turn float64 `json:"turn,omitempty"` // of a stick, from hanging
	Pose *Pose   `json:"pose,omitempty"` // of a partner, who faces the other way
	Same bool    `json:"same,omitempty"` // the partner faces the same way
}

// Props are the things that there are.
var Props = []string{"ball", "band", "box", "hurdle", "line", "partner", "post", "roller", "stick", "wall"}

// Wrong is a pose that is not so: where, and in three words why.
type Wrong struct {
	Pose  Pose   `json:"pose"`
	Joint string `json:"joint"`
	Says  string `json:"says"`
}

// How many poses a figure has at most, and how many faults.
const (
	MostPoses  = 4
	MostFaults = 4
)

// Point is a place, in hundredths of the body's height.
type Point struct{ X, Y float64 }

// Lengths of the body, of a height of 100.
const (
	trunk    = 29.0
	neck     = 5.0
	head     = 6.5 // radius
	upperArm = 17.0
	forearm  = 16.0
	thigh    = 24.0
	shank    = 24.0
	foot     = 9.0
	hips     = 16.0 // wide, from the front
	shoulder = 24.0
)

// Of the head, and of a foot that points at who looks: its angle outwards, and its length.
const (
	HeadRadius = head
	FootOut    = 59.0
	FootFront  = 3.5
)

// Frontal tells whether it is seen from the front or from the back.
func (v View) Frontal() bool { return v == Front || v == Back }

// Joint is a place of the body.
type Joint int

// The joints. From the side the near and the far hip, and shoulder, are one.
const (
	Hip Joint = iota
	Shoulder
	Neck
	Head
	Knee
	Ankle
	Toe
	FarKnee
	FarAnkle
	FarToe
	Elbow
	Hand
	FarElbow
	FarHand
	NearHip
	FarHip
	NearShoulder
	FarShoulder
	MidBack
	joints
)

// Joints are their names, in order.
var Joints = []string{"hip", "shoulder", "neck", "head", "knee", "ankle", "toe", "far knee", "far ankle", "far toe",
	"elbow", "hand", "far elbow", "far hand", "near hip", "far hip", "near shoulder", "far shoulder", "back"}

var byName = func() map[string]Joint {
	all := map[string]Joint{}
	for i, name := range Joints {
		all[name] = Joint(i)
	}
	return all
}()

// Named is the joint of that name.
func Named(name string) Joint { return byName[name] }

// Body is where everything is.
type Body [joints]Point

// At is where the joint of that name is.
func (b *Body) At(name string) Point { return b[byName[name]] }

// heading is the point so far from another in a direction: degrees from hanging straight
// down, forward positive.
func heading(from Point, degrees, length float64) Point {
	sin, cos := math.Sincos(degrees * math.Pi / 180)
	return Point{from.X + length*sin, from.Y - length*cos}
}

// at is angle n of a limb, or what it is by itself.
func (l Limb) at(n int, usual float64) float64 {
	if n < len(l) {
		return l[n]
	}
	return usual
}

// or is a limb, or the other where it was not said.
func (l Limb) or(other Limb) Limb {
	if l == nil {
		return other
	}
	return l
}

// Of is the body in a pose, its hip at 0, 0.
func (v View) Of(p Pose) Body {
	if v.Frontal() {
		return front(p)
	}
	var b Body
	b[MidBack] = heading(b[Hip], 180-p.Lean+p.Round/2, trunk/2)
	b[Shoulder] = heading(b[MidBack], 180-p.Lean-p.Round/2, trunk/2)
	ahead := p.ahead()
	b[NearShoulder] = heading(b[Shoulder], 90-p.Lean-p.Round/2, ahead)
	b[FarShoulder] = heading(b[Shoulder], 90-p.Lean-p.Round/2, -ahead)
	up := 180 - p.Lean - p.Round/2 - p.Neck
	b[Neck] = heading(b[Shoulder], up, neck)
	b[Head] = heading(b[Neck], up, head)
	near, far := p.standing()
	b.leg(Knee, Hip, p.Leg, 1, near)
	b.leg(FarKnee, Hip, p.FarLeg.or(p.Leg), 1, far)
	b.arm(Elbow, NearShoulder, p.Arm, 1)
	b.arm(FarElbow, FarShoulder, p.FarArm.or(p.Arm), 1)
	return b
}

// ahead is how far the near shoulder of a turned chest is before its middle, from the side.
func (p Pose) ahead() float64 { return shoulder / 2 * math.Sin(p.Turn*math.Pi/180) }

// broad is half the width of the shoulders that is seen from the front.
func (p Pose) broad() float64 { return shoulder / 2 * math.Cos(p.Turn*math.Pi/180) }

// Chest is how far the near shoulder is from the middle of the chest as it is seen: from the
// side, forward; from the front, aside.
func (f *Figure) Chest(p Pose) float64 {
	if f.View.Frontal() {
		return p.broad()
	}
	return p.ahead()
}

// Turns tells whether the chest turns over the hips, in any pose.
func (f *Figure) Turns() bool {
	return slices.ContainsFunc(f.Poses, func(p Pose) bool { return p.Turn != 0 })
}

// paired tells whether both legs do the same.
func (p Pose) paired() bool {
	return p.FarLeg == nil && !slices.ContainsFunc(p.Touch, func(t string) bool { return strings.HasPrefix(t, "far ") })
}

// standing tells which of the feet stand.
func (p Pose) standing() (near, far bool) {
	near = p.stands("ankle", "toe")
	return near, p.stands("far ankle", "far toe") || near && p.paired()
}

// stands tells whether one of the joints is said to touch.
func (p Pose) stands(joints ...string) bool {
	return slices.ContainsFunc(p.touches(), func(t string) bool { return slices.Contains(joints, t) })
}

// touches are the joints that touch, by name: the feet where nothing is said.
func (p Pose) touches() []string {
	if len(p.Touch) == 0 {
		return []string{"ankle", "far ankle"}
	}
	return p.Touch
}

// leg places a knee, and the ankle and the toe behind it.
func (b *Body) leg(knee, from Joint, l Limb, out float64, stands bool) {
	upper := l.at(0, 0)
	lower := upper - l.at(1, 0)
	usual := lower + 90
	if stands {
		usual = 90
	}
	b[knee] = heading(b[from], out*upper, thigh)
	b[knee+1] = heading(b[knee], out*lower, shank)
	b[knee+2] = heading(b[knee+1], out*l.at(2, usual), foot)
}

// arm places an elbow, and the hand behind it.
func (b *Body) arm(elbow, from Joint, l Limb, out float64) {
	upper := l.at(0, 4)
	b[elbow] = heading(b[from], out*upper, upperArm)
	b[elbow+1] = heading(b[elbow], out*(upper+l.at(1, 8)), forearm)
}

// front is the body from the front: near is its left, on the right of the picture.
func front(p Pose) Body {
	var b Body
	across := heading(Point{}, 90-p.Lean, 1) // the line of the shoulders
	b[NearHip], b[FarHip] = heading(b[Hip], 90-p.Tilt, hips/2), heading(b[Hip], -90-p.Tilt, hips/2)
	b[Shoulder] = heading(b[Hip], 180-p.Lean, trunk)
	s := b[Shoulder]
	b[MidBack] = Point{s.X / 2, s.Y / 2}
	broad := p.broad()
	b[NearShoulder] = Point{s.X + across.X*broad, s.Y + across.Y*broad}
	b[FarShoulder] = Point{s.X - across.X*broad, s.Y - across.Y*broad}
	up := 180 - p.Lean - p.Neck
	b[Neck] = heading(s, up, neck)
	b[Head] = heading(b[Neck], up, head)
	b.leg(Knee, NearHip, p.Leg, 1, false)
	b.leg(FarKnee, FarHip, p.FarLeg.or(p.Leg), -1, false)
	b[Toe], b[FarToe] = heading(b[Ankle], FootOut, FootFront), heading(b[FarAnkle], -FootOut, FootFront)
	b.arm(Elbow, NearShoulder, p.Arm, 1)
	b.arm(FarElbow, FarShoulder, p.FarArm.or(p.Arm), -1)
	return b
}

// lowest is how low the body reaches: its joints, its back and its head.
func (b Body) lowest() float64 {
	low := b[Head].Y - head
	for _, p := range b {
		low = min(low, p.Y)
	}
	return low
}

// moved is the body elsewhere.
func (b Body) moved(x, y float64) Body {
	for i := range b {
		b[i].X, b[i].Y = b[i].X+x, b[i].Y+y
	}
	return b
}

// stood is the body in a pose with its lowest point on the ground, or lifted.
func (v View) stood(p Pose) Body {
	b := v.Of(p)
	return b.moved(0, p.Lift-b.lowest())
}

// holds is the joint of a pose where the contact of the next one is: the same, or the first
// that it stands on where that one hangs in the air, so that a foot takes another's place.
func (p Pose) holds(pin string) string {
	foot := strings.Replace(pin, "toe", "ankle", 1)
	for _, t := range p.touches() {
		if strings.Replace(t, "toe", "ankle", 1) == foot {
			return pin
		}
	}
	return p.touches()[0]
}

// Bodies are the poses where they stand: what touches first in each of them is where it
// was in the one before, or takes its place.
func (f *Figure) Bodies() []Body { return f.bodies(f.settle()) }

// settle are its poses, settled.
func (f *Figure) settle() []Pose {
	all := make([]Pose, len(f.Poses))
	for i, p := range f.Poses {
		all[i] = f.View.settled(p)
	}
	return all
}

func (f *Figure) bodies(settled []Pose) []Body {
	all := make([]Body, len(f.Poses))
	for i, p := range f.Poses {
		b := f.View.stood(settled[i])
		pin := p.touches()[0]
		was := Point{}
		if i > 0 {
			was = all[i-1].At(f.Poses[i-1].holds(pin))
		}
		all[i] = b.moved(was.X+p.On-b.At(pin).X, 0)
	}
	return all
}

// Stand is a pose by itself, its first contact at 0.
func (f *Figure) Stand(p Pose) Body {
	b := f.View.stood(f.View.settled(p))
	return b.moved(-b.At(p.touches()[0]).X, 0)
}

// moves is how it moves, there and back where nothing was said.
func (f *Figure) moves() Moves {
	if f.Moves == "" {
		return There
	}
	return f.Moves
}

// String names a point.
func (p Point) String() string { return fmt.Sprintf("%.1f, %.1f", p.X, p.Y) }
