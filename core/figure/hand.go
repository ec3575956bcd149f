package figure

import (
	"math"
	"slices"
	"strings"
)

// Mirrored is a pose with its sides changed: what the near limbs did, the far ones do.
func (p Pose) Mirrored() Pose {
	q := p
	q.Leg, q.FarLeg = p.FarLeg.or(p.Leg), p.Leg
	q.Arm, q.FarArm = p.FarArm.or(p.Arm), p.Arm
	q.Touch = nil
	for _, t := range p.Touch {
		q.Touch = append(q.Touch, other(t))
	}
	return q
}

// other is the joint of the other side; those of the middle are their own.
func other(joint string) string {
	if rest, far := strings.CutPrefix(joint, "far "); far {
		if _, paired := byName["near "+rest]; paired {
			return "near " + rest
		}
		return rest
	}
	if rest, near := strings.CutPrefix(joint, "near "); near {
		return "far " + rest
	}
	if _, paired := byName["far "+joint]; paired && joint != "hip" && joint != "shoulder" {
		return "far " + joint
	}
	return joint
}

// Within is a pose in whole degrees with every joint brought back to what a body does.
func (f *Figure) Within(p Pose) Pose {
	limits := sideLimits
	if f.View.Frontal() {
		limits = frontLimits
	}
	hold := func(what string, degrees float64) float64 {
		r := limits[what]
		if math.IsNaN(degrees) {
			degrees = 0
		}
		return max(r.Least, min(r.Most, degrees))
	}
	p = plain(p)
	for _, l := range []*Limb{&p.Leg, &p.FarLeg, &p.Arm, &p.FarArm} {
		*l = slices.Clone(*l)
		for i := range *l {
			(*l)[i] = math.Round((*l)[i])
		}
	}
	for what, angle := range map[string]*float64{"lean": &p.Lean, "tilt": &p.Tilt, "turn": &p.Turn, "neck": &p.Neck,
		"back": &p.Round} {
		*angle = hold(what, math.Round(*angle))
	}
	p.Lift, p.Share, p.On = max(0, min(120, p.Lift)), max(0, min(100, p.Share)), max(-200, min(200, p.On))
	near, far, hips, farHips := f.View.trunks(p)
	leg := func(l Limb, trunk float64) Limb {
		thigh := hold("hip", turnOf(l[0]+trunk, limits["hip"])) - trunk
		knee := hold("knee", l[1])
		foot := hold("foot", turnOf(l[2]-(thigh-knee)-90, limits["foot"])) + thigh - knee + 90
		return Limb{thigh, knee, foot}
	}
	arm := func(l Limb, trunk float64) Limb {
		return Limb{hold("shoulder", turnOf(l[0]+trunk, limits["shoulder"])) - trunk, hold("elbow", l[1])}
	}
	p.Leg, p.FarLeg = leg(p.Leg, hips), leg(p.FarLeg, farHips)
	p.Arm, p.FarArm = arm(p.Arm, near), arm(p.FarArm, far)
	return p
}

// trunks are the leans that the limbs of a pose count from: those of the near and the far
// arm, and leg.
func (v View) trunks(p Pose) (near, far, hips, farHips float64) {
	if v.Frontal() { // outwards is the other way on the other side
		return p.Lean, -p.Lean, p.Tilt, -p.Tilt
	}
	return p.Lean, p.Lean, p.Lean, p.Lean
}

// turnOf is an angle with whole turns added or taken away so that it lies as near to the
// middle of a range as can be.
func turnOf(degrees float64, r Range) float64 {
	middle := (r.Least + r.Most) / 2
	return middle + math.Remainder(degrees-middle, 360)
}

// Handles are the joints that a hand may drag, those that lie beneath first.
var Handles = []Joint{FarToe, FarAnkle, FarKnee, FarElbow, FarHand, MidBack, Hip, Shoulder, Head, Toe, Ankle, Knee,
	Elbow, Hand}

// ground is how low a joint is put down, and how high it is taken off the ground, in
// hundredths of the body's height.
const (
	putDown  = 4.0
	takenOff = 7.0
)

// Drag is a pose with a joint brought to a place, or as near as the body can: a hand or a
// foot takes its limb with it, the hip bends the legs over the feet, the shoulder leans
// the trunk, the back rounds. The place is in the room of [Figure.Stand]. What is brought down to the
// ground touches it, what is lifted off does not.
func (f *Figure) Drag(p Pose, joint Joint, to Point) Pose {
	b := f.Stand(p)
	legs := p.paired()
	p = f.View.settled(p)
	switch joint {
	case Hip:
		dx, dy := to.X-b[Hip].X, to.Y-b[Hip].Y
		for _, foot := range []Joint{Ankle, FarAnkle} { // the feet stay
			p = f.View.reached(p, &b, foot, Point{b[foot].X - dx, b[foot].Y - dy})
		}
	case Shoulder:
		p.Lean = 180 - aim(b[Hip], to)
	case Head, Neck:
		p.Neck = 180 - p.Lean - p.Round/2 - aim(b[Shoulder], to)
	case MidBack: // how far it is behind the line from the hips to the shoulders
		sin, cos := math.Sincos(p.Lean * math.Pi / 180)
		behind := ((to.Y-b[Hip].Y)*sin - (to.X-b[Hip].X)*cos) / (trunk / 2)
		p.Round = 2 * math.Asin(max(-1, min(1, behind))) * 180 / math.Pi
	case Knee, FarKnee, Elbow, FarElbow, Toe, FarToe:
		p = f.View.swing(p, &b, joint, to)
	default:
		p = f.View.reached(p, &b, joint, to)
	}
	p.Touch = touching(p.touches(), Joints[joint], to.Y)
	p = f.Within(p)
	if legs && slices.Equal(p.Leg, p.FarLeg) { // they did the same, and still do
		p.FarLeg = nil
	}
	if slices.Equal(p.Arm, p.FarArm) {
		p.FarArm = nil
	}
	return p
}

// touching are the joints that touch when one of them has come to a height. One always
// does.
func touching(touches []string, joint string, height float64) []string {
	at := slices.Index(touches, joint)
	lies := slices.Contains(upper, joint) || slices.Contains(lower, joint)
	switch {
	case at < 0 && height < putDown && lies && joint != "head" && joint != "hip":
		return append(slices.Clone(touches), joint)
	case at >= 0 && height > takenOff && len(touches) > 1:
		return slices.Delete(slices.Clone(touches), at, at+1)
	}
	return slices.Clone(touches)
}

// aim is the direction from a point to another, in degrees from hanging down.
func aim(from, to Point) float64 {
	return math.Atan2(to.X-from.X, from.Y-to.Y) * 180 / math.Pi
}

// limbOf is the limb of a pose that a joint belongs to, where it hangs, and which way is
// out.
func (v View) limbOf(p *Pose, joint Joint) (l *Limb, root Joint, out float64) {
	out = 1
	switch joint {
	case Knee, Ankle, Toe:
		return &p.Leg, NearHip, out
	case Elbow, Hand:
		return &p.Arm, NearShoulder, out
	}
	if v.Frontal() {
		out = -1
	}
	if joint == FarElbow || joint == FarHand {
		return &p.FarArm, FarShoulder, out
	}
	return &p.FarLeg, FarHip, out
}

// rootAt is where a limb hangs: from the side at the middle of the body.
func (v View) rootAt(b *Body, root Joint) Point {
	if v.Frontal() {
		return b[root]
	}
	return b[map[Joint]Joint{NearHip: Hip, FarHip: Hip, NearShoulder: Shoulder, FarShoulder: Shoulder}[root]]
}

// swing turns a part of a limb so that its end points at a place; what hangs on it goes
// along.
func (v View) swing(p Pose, b *Body, joint Joint, to Point) Pose {
	l, root, out := v.limbOf(&p, joint)
	limb := slices.Clone(*l)
	if joint == Toe || joint == FarToe {
		limb[2] = out * aim(b[joint-1], to)
	} else {
		limb[0] = out * aim(v.rootAt(b, root), to)
	}
	*l = limb
	return p
}

// reached bends a limb of two parts so that its end comes to a place.
func (v View) reached(p Pose, b *Body, joint Joint, to Point) Pose {
	l, root, out := v.limbOf(&p, joint)
	first, second, way := thigh, shank, 1.0
	if joint == Hand || joint == FarHand {
		first, second, way = upperArm, forearm, -1
	}
	from := v.rootAt(b, root)
	far := math.Hypot(to.X-from.X, to.Y-from.Y)
	far = max(math.Abs(first-second)+0.1, min(first+second-0.1, far))
	degrees := func(opposite, a, b float64) float64 {
		return math.Acos(max(-1, min(1, (a*a+b*b-opposite*opposite)/(2*a*b)))) * 180 / math.Pi
	}
	side := 1.0
	if v.Frontal() && (*l)[1] < 0 {
		side = -1
	}
	limb := slices.Clone(*l)
	limb[0] = out*aim(from, to) + way*side*degrees(second, first, far)
	limb[1] = side * (180 - degrees(far, first, second))
	if len(limb) == 3 && !p.stands(Joints[joint]) {
		limb[2] = limb[0] - limb[1] + 90
	}
	*l = limb
	return p
}
