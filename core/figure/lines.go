package figure

import "math"

// Line is a stroke of a body: a limb, or the trunk.
type Line struct {
	Far    bool // it is of the side away from who looks
	Trunk  bool
	Points []Point
}

// Lines are a body's strokes, those farther away first: an arm is the last, for it lies
// before the trunk.
func (f *Figure) Lines(b *Body) []Line {
	const near, away = false, true // from who looks
	limb := func(far bool, joints ...Joint) Line {
		l := Line{Far: far && !f.View.Frontal()}
		for _, j := range joints {
			l.Points = append(l.Points, b[j])
		}
		return l
	}
	spine := limb(near, Hip, MidBack, Shoulder, Neck)
	spine.Trunk = true
	if f.Turns() && !f.View.Frontal() { // its shoulders are seen beside each other
		girdle := limb(near, FarShoulder, NearShoulder)
		girdle.Trunk = true
		return []Line{limb(away, FarShoulder, FarElbow, FarHand), limb(away, FarHip, FarKnee, FarAnkle, FarToe),
			spine, girdle, limb(near, NearHip, Knee, Ankle, Toe), limb(near, NearShoulder, Elbow, Hand)}
	}
	if !f.View.Frontal() {
		return []Line{limb(away, FarShoulder, FarElbow, FarHand), limb(away, FarHip, FarKnee, FarAnkle, FarToe),
			spine, limb(near, NearHip, Knee, Ankle, Toe), limb(near, NearShoulder, Elbow, Hand)}
	}
	chest := limb(near, NearHip, FarHip, FarShoulder, NearShoulder, NearHip)
	chest.Trunk = true
	return []Line{chest, limb(near, Shoulder, Neck), limb(away, FarHip, FarKnee, FarAnkle, FarToe),
		limb(near, NearHip, Knee, Ankle, Toe),
		limb(away, FarShoulder, FarElbow, FarHand), limb(near, NearShoulder, Elbow, Hand)}
}

// Box is the room that bodies take, with what is around them.
type Box struct{ Left, Right, Top, Bottom float64 }

// BoxOf is the room of some bodies: their lines are so thick, and the ground is in it.
func BoxOf(thick float64, bodies ...Body) Box {
	x := Box{Left: math.Inf(1), Right: math.Inf(-1), Top: math.Inf(-1), Bottom: 0}
	for _, b := range bodies {
		for joint, p := range b {
			reach := thick
			if Joint(joint) == Head {
				reach = head + 1
			}
			x.Left, x.Right, x.Top, x.Bottom = min(x.Left, p.X-reach), max(x.Right, p.X+reach), max(x.Top, p.Y+reach),
				min(x.Bottom, p.Y-reach)
		}
	}
	return x
}

// Around is the room that bodies take, with what stands beside them.
func (f *Figure) Around(bodies []Body) Box {
	x := f.reach(bodies)
	for _, p := range f.Props {
		if p.In != "" {
			continue
		}
		if p.Is == "partner" {
			x = x.With(BoxOf(5.5, f.Partner(p)))
			continue
		}
		x.Left, x.Right, x.Top = min(x.Left, p.At-4), max(x.Right, p.At+p.Wide+4), max(x.Top, p.High)
	}
	return x
}

// reach is the room of bodies with what they hold.
func (f *Figure) reach(bodies []Body) Box {
	x := BoxOf(LimbWidth, bodies...)
	for _, p := range f.Props {
		if p.In == "" {
			continue
		}
		for _, held := range p.heldRoom(bodies) {
			x = x.With(held)
		}
	}
	return x
}

// heldRoom is the room of what is held, in each of some bodies.
func (p Prop) heldRoom(bodies []Body) (held []Box) {
	for _, b := range bodies {
		at := b.At(p.In)
		switch p.Is {
		case "stick":
			held = append(held, points(at, heading(at, p.Turn, p.Wide-p.At)))
		case "band":
			held = append(held, points(at, p.Tied(b)))
		default:
			r := max(p.Wide, 11) / 2
			held = append(held, points(Point{at.X + p.At - r, at.Y + p.High - r},
				Point{at.X + p.At + r, at.Y + p.High + r}))
		}
	}
	return held
}

// points is the room of some points.
func points(all ...Point) Box {
	x := Box{Left: all[0].X, Right: all[0].X, Top: all[0].Y, Bottom: all[0].Y}
	for _, p := range all {
		x = x.With(Box{Left: p.X, Right: p.X, Top: p.Y, Bottom: p.Y})
	}
	return x
}

// Tied is where a band ends.
func (p Prop) Tied(b Body) Point {
	if p.To != "" {
		return b.At(p.To)
	}
	return Point{p.At, p.High}
}

// With is the room of both.
func (x Box) With(y Box) Box {
	return Box{Left: min(x.Left, y.Left), Right: max(x.Right, y.Right), Top: max(x.Top, y.Top),
		Bottom: min(x.Bottom, y.Bottom)}
}

// Partner is the body of a partner, where it stands.
func (f *Figure) Partner(p Prop) Body {
	pose := Pose{}
	if p.Pose != nil {
		pose = *p.Pose
	}
	b := f.Stand(pose)
	for i := range b {
		if !p.Same {
			b[i].X = -b[i].X
		}
		b[i].X += p.At
	}
	return b
}

// Strip is a figure of three or four poses that stays where it is as one looks at it on
// paper: a body beside the other, in order. It is nil for others.
func (f *Figure) Strip() []Body {
	if len(f.Poses) < 3 || f.Goes() != 0 {
		return nil
	}
	row := make([]Body, len(f.Poses))
	right := 0.0
	for i, p := range f.Poses {
		b := f.Stand(p)
		room := BoxOf(3, b)
		row[i] = b.moved(right-room.Left, 0)
		right += room.Right - room.Left + 5
	}
	return row
}

// Goes is 1 for what travels forward, -1 back, 0 for what stays.
func (f *Figure) Goes() int {
	switch f.moves() {
	case Travel:
		return 1
	case Retreat:
		return -1
	}
	return 0
}

// Onward is the way of what travels, at the end of its room that it goes to; the room is
// made wider for it.
func (f *Figure) Onward(x *Box) []Point {
	const far, high = 14.0, 58.0
	if f.Goes() > 0 {
		x.Right += far + 4
		return []Point{{x.Right - far, high}, {x.Right - far/2, high}, {x.Right - 4, high}}
	}
	x.Left -= far + 4
	return []Point{{x.Left + far, high}, {x.Left + far/2, high}, {x.Left + 4, high}}
}

// Seconds is how long a cycle takes to look at: a step is quick, a stretch is not.
func (f *Figure) Seconds() float64 {
	switch n := float64(len(f.Poses)); f.moves() {
	case There:
		return 1.1 * 2 * max(1, n-1)
	case Once:
		return 1.4 * max(1, n-1)
	default:
		return 0.45 * n
	}
}
