package figure

import (
	"math"
	"slices"
	"strings"
)

// How far a body is turned and a knee is bent more or less than it was said, so that what
// touches does, in degrees.
const (
	mostTurn = 35.0
	mostBend = 80.0
)

// upper and lower are the ends of a body that may touch the ground at once.
var (
	upper = []string{"hand", "far hand", "elbow", "far elbow", "shoulder", "far shoulder", "near shoulder", "head"}
	lower = []string{"ankle", "far ankle", "toe", "far toe", "knee", "far knee", "hip", "near hip", "far hip"}
)

// settled is a pose of which all that is said to touch the ground does, as far as a small
// turn of the whole body, and a little more or less bend in a knee, can bring it there.
func (v View) settled(p Pose) Pose {
	legs := []string{"", "far "}
	same := p.paired()
	if same {
		legs = legs[:1]
	}
	touches, flies := p.touches(), len(p.Touch) == 0 && p.Lift > 0
	p = plain(p)
	if flies {
		return p
	}
	high, low := firstOf(touches, upper), firstOf(touches, lower)
	if high != "" && low != "" {
		p = v.zero(p, mostTurn, v.turned, func(b *Body) float64 { return b.At(high).Y - b.At(low).Y })
	}
	for _, side := range legs {
		for _, joint := range []string{"ankle", "toe", "knee"} {
			name := side + joint
			if b := v.Of(p); slices.Contains(touches, name) && b.lowestOf(name)-b.lowest() > 0.4 {
				p = v.lowered(p, name, same)
			}
		}
	}
	return p
}

// lowered is a plain pose with a joint of a leg brought to the ground: its knee bends more
// or less, or, to bring a knee there, its hip; where that is not enough the other leg
// bends. Legs that are said to be the same stay so.
func (v View) lowered(p Pose, joint string, same bool) Pose {
	far := strings.HasPrefix(joint, "far ")
	high := func(b *Body) float64 { return b.lowestOf(joint) - b.lowestBut(joint, same) }
	change := func(how func(Pose, bool, float64) Pose, far bool) func(Pose, float64) Pose {
		return func(p Pose, by float64) Pose {
			if p = how(p, far, by); same {
				p.FarLeg = p.Leg
			}
			return p
		}
	}
	how := bent
	if strings.HasSuffix(joint, "knee") {
		how = swung
	}
	p = v.zero(p, mostBend, change(how, far), high)
	if !same && v.height(p, joint)-p.Lift > 2 { // it is as long as it can be
		p = v.zero(p, mostBend, change(bent, !far), high)
	}
	return p
}

// firstOf is the first of some joints that is in a list.
func firstOf(joints, list []string) string {
	for _, j := range joints {
		if slices.Contains(list, j) {
			return j
		}
	}
	return ""
}

// zero changes a pose by the least that makes a measure of its body nothing; a pose for
// which no change does so stays as it is.
func (v View) zero(p Pose, most float64, change func(Pose, float64) Pose, measure func(*Body) float64) Pose {
	at := func(by float64) float64 {
		b := v.Of(change(p, by))
		return measure(&b)
	}
	const stride, halvings = 5.0, 14
	start := at(0)
	if math.Abs(start) < 0.02 {
		return p
	}
	for step := stride; step <= most; step += stride {
		for _, end := range []float64{step, -step} {
			if start*at(end) > 0 {
				continue
			}
			from, to := end-math.Copysign(stride, end), end
			for range halvings {
				if middle := (from + to) / 2; start*at(middle) > 0 {
					from = middle
				} else {
					to = middle
				}
			}
			return change(p, to)
		}
	}
	return p
}

// plain is a pose with every limb and every angle said.
func plain(p Pose) Pose {
	leg := func(l Limb, stands bool) Limb {
		usual := l.at(0, 0) - l.at(1, 0) + 90
		if stands {
			usual = 90
		}
		return Limb{l.at(0, 0), l.at(1, 0), l.at(2, usual)}
	}
	near, far := p.standing()
	p.Leg, p.FarLeg = leg(p.Leg, near), leg(p.FarLeg.or(p.Leg), far)
	p.Arm, p.FarArm = Limb{p.Arm.at(0, 4), p.Arm.at(1, 8)}, Limb{p.FarArm.or(p.Arm).at(0, 4),
		p.FarArm.or(p.Arm).at(1, 8)}
	return p
}

// turned is a plain pose of which the whole body is turned forward, feet that stand flat
// aside.
func (v View) turned(p Pose, by float64) Pose {
	far := -by
	if v.Frontal() {
		far = by
		p.Tilt += by
	}
	p.Lean += by
	const hangs = false
	limb := func(l Limb, by float64, stands bool) Limb {
		l = slices.Clone(l)
		l[0] += by
		if len(l) == 3 && !stands {
			l[2] += by
		}
		return l
	}
	p.Leg, p.FarLeg = limb(p.Leg, -by, p.Leg[2] == 90), limb(p.FarLeg, far, p.FarLeg[2] == 90)
	p.Arm, p.FarArm = limb(p.Arm, -by, hangs), limb(p.FarArm, far, hangs)
	return p
}

// bent is a plain pose with a leg bent more, its foot going straight up.
func bent(p Pose, far bool, by float64) Pose {
	return onLeg(p, far, func(l Limb) Limb { return Limb{l[0] + by/2, max(-6, l[1]+by), l[2]} })
}

// swung is a plain pose with a thigh farther ahead, the shank as it was.
func swung(p Pose, far bool, by float64) Pose {
	return onLeg(p, far, func(l Limb) Limb { return Limb{l[0] + by, l[1] + by, l[2]} })
}

func onLeg(p Pose, far bool, change func(Limb) Limb) Pose {
	if far {
		p.FarLeg = change(p.FarLeg)
	} else {
		p.Leg = change(p.Leg)
	}
	return p
}

// height is how high a joint of a pose is, set on the ground.
func (v View) height(p Pose, joint string) float64 {
	b := v.stood(p)
	return b.At(joint).Y
}

// lowestOf is how low a joint is; an ankle with its toe.
func (b *Body) lowestOf(joint string) float64 {
	j := byName[joint]
	if j == Ankle || j == FarAnkle {
		return min(b[j].Y, b[j+1].Y)
	}
	return b[j].Y
}

// lowestBut is how low a body reaches without a joint of a leg and the rest of the leg
// that hangs on it; without the other leg's too, where both go together.
func (b *Body) lowestBut(joint string, both bool) float64 {
	first, last := byName[joint], Toe
	if first >= FarKnee {
		last = FarToe
	}
	if first == Toe || first == FarToe {
		first--
	}
	low := b[Head].Y - head
	for i, p := range b {
		j := Joint(i)
		if both && j >= FarKnee && j <= FarToe {
			j -= FarKnee - Knee
		}
		if j < first || j > last {
			low = min(low, p.Y)
		}
	}
	return low
}
