package figure

import (
	"math"
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

// Said is a pose that says of its far limbs only what another one says of them, where both
// are the same.
func (p Pose) Said(as Pose) Pose {
	if as.FarLeg == nil {
		p.FarLeg = nil
	}
	if as.FarArm == nil {
		p.FarArm = nil
	}
	return p
}

// Within is a pose with every joint brought back to what a body does.
func (f *Figure) Within(p Pose) Pose {
	limits := sideLimits
	if f.Frontal() {
		limits = frontLimits
	}
	hold := func(what string, degrees float64) float64 {
		r := limits[what]
		if math.IsNaN(degrees) {
			degrees = 0
		}
		return max(r.Least, min(r.Most, degrees))
	}
	p = f.plain(p)
	p.Lean, p.Tilt, p.Neck = hold("lean", p.Lean), hold("tilt", p.Tilt), hold("neck", p.Neck)
	p.Lift, p.Share, p.On = max(0, min(120, p.Lift)), max(0, min(100, p.Share)), max(-200, min(200, p.On))
	near, far, hips, farHips := f.trunks(p)
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
func (f *Figure) trunks(p Pose) (near, far, hips, farHips float64) {
	if f.Frontal() { // outwards is the other way on the other side
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
