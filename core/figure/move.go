package figure

import (
	"math"
	"slices"
)

// Frame is a moment of a movement.
type Frame struct {
	Pose Pose
	Body Body
}

// Frames are so many moments of a whole cycle, the first and the last being the same where
// it comes back. Between two poses every angle goes the shorter way, gently at both ends;
// limbs keep their lengths.
func (f *Figure) Frames(n int) []Frame {
	poses := f.settle()
	return f.View.frames(n, poses, f.bodies(poses), f.legs())
}

func (v View) frames(n int, poses []Pose, bodies []Body, legs []way) []Frame {
	if len(legs) == 0 || n < 2 {
		return []Frame{{poses[0], bodies[0]}}
	}
	total := 0.0
	for _, l := range legs {
		total += l.share
	}
	frames := make([]Frame, n)
	for i := range frames {
		at := total * float64(i) / float64(n-1)
		k := 0
		for k < len(legs)-1 && at > legs[k].share {
			at -= legs[k].share
			k++
		}
		frames[i] = v.between(poses, bodies, legs[k], min(1, at/legs[k].share))
	}
	return frames
}

// way is from one pose to another.
type way struct {
	from, to int
	share    float64
}

func (f *Figure) legs() (legs []way) {
	share := func(i int) float64 {
		if s := f.Poses[i].Share; s > 0 {
			return s
		}
		return 1
	}
	last := len(f.Poses) - 1
	for i := range last {
		legs = append(legs, way{i, i + 1, share(i + 1)})
	}
	switch f.moves() {
	case There:
		for i := last; i > 0; i-- {
			legs = append(legs, way{i, i - 1, share(i - 1)})
		}
	case Loop, Travel, Retreat:
		if last > 0 {
			legs = append(legs, way{last, 0, share(0)})
		}
	}
	return legs
}

// between is a moment on the way from one pose to another; t is 0 to 1.
func (v View) between(poses []Pose, bodies []Body, w way, t float64) Frame {
	from, to := poses[w.from], poses[w.to]
	ease := t * t * (3 - 2*t)
	p := Pose{Lift: from.Lift + (to.Lift-from.Lift)*ease}
	for _, a := range []struct{ of, a, b *float64 }{{&p.Lean, &from.Lean, &to.Lean}, {&p.Tilt, &from.Tilt, &to.Tilt},
		{&p.Turn, &from.Turn, &to.Turn}, {&p.Neck, &from.Neck, &to.Neck}, {&p.Round, &from.Round, &to.Round}} {
		*a.of = mixed(*a.a, *a.b, ease)
	}
	p.Leg, p.FarLeg = from.Leg.mixed(to.Leg, ease), from.FarLeg.mixed(to.FarLeg, ease)
	p.Arm, p.FarArm = from.Arm.mixed(to.Arm, ease), from.FarArm.mixed(to.FarArm, ease)
	for _, touch := range from.touches() { // what touches in both does on the way
		if slices.Contains(to.touches(), touch) {
			p.Touch = append(p.Touch, touch)
		}
	}
	if len(p.Touch) > 1 {
		p = v.settled(p)
	}
	b := v.stood(p)
	pin := to.touches()[0]
	if w.to < w.from { // on the way back what stood there still does
		pin = from.touches()[0]
	}
	start, end := bodies[w.from].At(pin).X, bodies[w.to].At(pin).X
	return Frame{p, b.moved(start+(end-start)*ease-b.At(pin).X, 0)}
}

// mixed is an angle between two, on the shorter way.
func mixed(a, b, t float64) float64 {
	d := math.Mod(b-a, 360)
	if d > 180 {
		d -= 360
	} else if d < -180 {
		d += 360
	}
	return a + d*t
}

// mixed is a limb between two.
func (l Limb) mixed(other Limb, t float64) Limb {
	between := make(Limb, len(l))
	for i := range l {
		between[i] = mixed(l[i], other[i], t)
	}
	return between
}

// farthest is the way of the hand or foot that travels most from the first pose to the
// last; nil where nothing travels far.
func (f *Figure) farthest(poses []Pose, bodies []Body) []Point {
	if len(f.Poses) < 2 || f.Holds || f.moves() == Loop {
		return nil
	}
	joint, best := joints, 14.0 // less is no way to speak of
	for _, j := range []Joint{Hand, Ankle, FarHand, FarAnkle, Head} {
		far := 0.0
		for i := 1; i < len(bodies); i++ {
			far = max(far, math.Hypot(bodies[i][j].X-bodies[0][j].X, bodies[i][j].Y-bodies[0][j].Y))
		}
		if far > best+1 {
			best, joint = far, j
		}
	}
	if joint == joints {
		return nil
	}
	var path []Point
	for _, frame := range f.View.frames(7, poses, bodies, f.legs()[:len(poses)-1]) {
		path = append(path, frame.Body[joint])
	}
	return path
}
