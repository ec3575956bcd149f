package figure

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Range is what a joint does, in degrees.
type Range struct{ Least, Most float64 }

// What the joints of a supple body do, a little more than the usual clinical ranges (Norkin and
// White, Measurement of Joint Motion, 5th ed.): bending in the hip is that of the thigh before
// the trunk, of an arm before the trunk too, with what a turn of the trunk adds behind it; then
// those of the front view.
var (
	sideLimits = map[string]Range{"lean": {-180, 180}, "tilt": {0, 0}, "turn": {-75, 75}, "back": {-45, 80},
		"neck": {-75, 80}, "hip": {-60, 150}, "knee": {-8, 160}, "foot": {-65, 50}, "shoulder": {-85, 270},
		"elbow": {-12, 155}}
	frontLimits = map[string]Range{"lean": {-95, 95}, "tilt": {-95, 95}, "turn": {-75, 75}, "back": {0, 0},
		"neck": {-45, 45}, "hip": {-45, 95}, "knee": {-60, 160}, "foot": {-180, 180}, "shoulder": {-60, 190},
		"elbow": {-160, 160}}
)

// Validate names what no body does, by the field it is in. No figure is none that is
// wrong.
func (f *Figure) Validate() error {
	switch {
	case f == nil:
		return nil
	case f.View == Above:
		return f.Course.validate()
	case f.View != "" && f.View != Side && !f.View.Frontal():
		return fmt.Errorf("view: a figure is seen from the side, the front, the back or above")
	case f.Moves != "" && !slices.Contains([]Moves{There, Once, Loop, Travel, Retreat}, f.Moves):
		return fmt.Errorf("moves: it goes there and back, once, in a loop or travels")
	case len(f.Poses) == 0 || len(f.Poses) > MostPoses:
		return fmt.Errorf("poses: a figure has 1 to %d poses, not %d", MostPoses, len(f.Poses))
	case len(f.Props) > 6 || len(f.NotSo) > MostFaults:
		return fmt.Errorf("props: no more than 6 things and 4 faults")
	}
	for i, p := range f.Poses {
		if err := f.View.pose(p); err != nil {
			return fmt.Errorf("pose %d: %w", i+1, err)
		}
	}
	for _, w := range f.NotSo {
		if !slices.Contains(Joints, w.Joint) {
			return fmt.Errorf("not so: %q is no joint", w.Joint)
		}
		if n := len(strings.Fields(w.Says)); n == 0 || n > 5 || len(w.Says) > 40 {
			return fmt.Errorf("not so: say in three words what is wrong")
		}
		if err := f.View.pose(w.Pose); err != nil {
			return fmt.Errorf("not so: %w", err)
		}
	}
	for _, p := range f.Props {
		if err := p.validate(); err != nil {
			return err
		}
	}
	return nil
}

func (p Prop) validate() error {
	switch {
	case !slices.Contains(Props, p.Is):
		return fmt.Errorf("props: %q is none of %s", p.Is, strings.Join(Props, ", "))
	case p.In != "" && !slices.Contains(Joints, p.In), p.To != "" && !slices.Contains(Joints, p.To):
		return fmt.Errorf("props: the %s is at no joint that there is", p.Is)
	}
	for _, n := range []float64{p.At, p.High, p.Wide} {
		if !within(n, -300, 300) {
			return fmt.Errorf("props: the %s is too far, too high or too wide", p.Is)
		}
	}
	return nil
}

// within tells whether a number is one, and between two others.
func within(n, least, most float64) bool {
	return !math.IsNaN(n) && n >= least && n <= most
}

// pose says what a body does not do in a pose.
func (v View) pose(p Pose) error {
	limits := sideLimits
	if v.Frontal() {
		limits = frontLimits
	}
	check := func(what string, degrees float64) error {
		if r := limits[what]; !within(degrees, r.Least, r.Most) {
			return fmt.Errorf("the %s does %g to %g degrees, not %g", what, r.Least, r.Most, math.Round(degrees))
		}
		return nil
	}
	if !within(p.Lift, 0, 120) || !within(p.Share, 0, 100) || !within(p.On, -200, 200) {
		return fmt.Errorf("a lift is 0 to 120, a share 0 to 100, and it goes on by 200 at most")
	}
	for _, t := range p.Touch {
		if !slices.Contains(Joints, t) {
			return fmt.Errorf("%q is nothing that touches the ground", t)
		}
	}
	near, far, hips, farHips := v.trunks(p)
	type angle struct {
		what    string
		degrees float64
	}
	all := []angle{{"lean", p.Lean}, {"tilt", p.Tilt}, {"turn", p.Turn}, {"back", p.Round}, {"neck", p.Neck}}
	for i, leg := range []Limb{p.Leg, p.FarLeg.or(p.Leg)} {
		if len(leg) > 3 {
			return fmt.Errorf("a leg has a thigh, a shank and a foot")
		}
		hip := turnOf(leg.at(0, 0)+[]float64{hips, farHips}[i], limits["hip"])
		all = append(all, angle{"hip", hip}, angle{"knee", leg.at(1, 0)})
		if lower := leg.at(0, 0) - leg.at(1, 0); len(leg) == 3 {
			all = append(all, angle{"foot", turnOf(leg[2]-lower-90, limits["foot"])})
		}
	}
	for i, arm := range []Limb{p.Arm, p.FarArm.or(p.Arm)} {
		if len(arm) > 2 {
			return fmt.Errorf("an arm has an upper arm and a forearm")
		}
		up := turnOf(arm.at(0, 4)+[]float64{near, far}[i], limits["shoulder"])
		all = append(all, angle{"shoulder", up}, angle{"elbow", arm.at(1, 8)})
	}
	for _, a := range all {
		if err := check(a.what, a.degrees); err != nil {
			return err
		}
	}
	return nil
}

// Loose says which of what is said to touch the ground hangs in the air, "" where all do:
// more than a line's thickness above it.
func (f *Figure) Loose(p Pose) string {
	if p.Lift > 0 {
		return "" // it flies
	}
	b := f.View.stood(f.View.settled(p))
	for _, t := range p.touches() {
		room := 2.0
		switch {
		case t == "head":
			room = head + 3
		case strings.HasSuffix(t, "shoulder"), strings.HasSuffix(t, "hip"):
			room = 5 // the trunk is thick
		}
		if y := b.At(t).Y - p.Lift; y > room {
			return fmt.Sprintf("the %s is %.0f above the ground", t, y)
		}
	}
	return ""
}
