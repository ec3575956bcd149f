package figure

import "math"

// Tone is how strong a stroke is.
type Tone uint8

// The tones. Far ones are of the limbs away from who looks.
const (
	Ink Tone = iota
	InkFar
	Grey // a fault, and what is not the last of a row
	GreyFar
	Faint // where it began, and a partner
	FaintFar
	Thing // what stands or is held
	Paper // the edge around what lies before the trunk
	Chalk // the ground
	Flare // what moves, and what is wrong
	Tones // how many there are
)

// Stroke is a line, a shape or a circle of a picture.
type Stroke struct {
	Tone   Tone
	Width  float64 // of the line, in hundredths of the body's height; 0: it is filled
	Points []Point // its line; of a circle the middle
	Radius float64 // of a circle; 0: it is none
	Dashed bool
}

// Picture is a drawing: what is drawn first lies lowest.
type Picture struct {
	Box     Box
	Strokes []Stroke
}

// Widths of lines.
const (
	LimbWidth  = 5.5
	TrunkWidth = 8.0
	EdgeWidth  = 2.2 // beyond the limb
	wayWidth   = 2.6
)

// margin is kept free around a picture.
const margin = 5.0

func (x *Picture) line(tone Tone, width float64, points ...Point) {
	x.Strokes = append(x.Strokes, Stroke{Tone: tone, Width: width, Points: points})
}

func (x *Picture) circle(tone Tone, width, radius float64, at Point) {
	x.Strokes = append(x.Strokes, Stroke{Tone: tone, Width: width, Points: []Point{at}, Radius: radius})
}

// stage is an empty picture of that room, with the ground.
func stage(room Box) *Picture {
	x := &Picture{Box: Box{Left: room.Left - margin, Right: room.Right + margin, Top: room.Top + margin,
		Bottom: room.Bottom - 3}}
	x.line(Chalk, 2.5, Point{x.Box.Left, -3}, Point{x.Box.Right, -3})
	return x
}

// body draws a body in a tone, its far limbs in the next one.
func (x *Picture) body(f *Figure, b *Body, tone Tone) {
	lines := f.Lines(b)
	for i, l := range lines {
		width, shade := LimbWidth, tone
		if l.Trunk {
			width = TrunkWidth
		}
		if l.Far {
			shade++
		}
		if i == len(lines)-1 && !f.View.Frontal() {
			x.circle(tone, 0, head, b[Head])
			x.line(Paper, LimbWidth+EdgeWidth, l.Points...)
		}
		x.line(shade, width, l.Points...)
	}
	if f.View.Frontal() {
		x.circle(tone, 0, head, b[Head])
	}
}

// Still is a drill as it is done, on paper: its last pose in ink, the first faint, and an
// arrow along the way of what travels most; three or four poses in a row; a course.
func (f *Figure) Still() *Picture {
	if f.View == Above {
		return f.Course.draw()
	}
	if row := f.Strip(); row != nil {
		x := stage(f.reach(row))
		for i := range row {
			tone := Grey
			if i == len(row)-1 {
				tone = Ink
			}
			x.pose(f, &row[i], tone)
		}
		return x
	}
	return f.Ends()
}

// Ends is the first pose, faint, and the last one, in ink, where they are.
func (f *Figure) Ends() *Picture {
	poses := f.settle()
	bodies := f.bodies(poses)
	first, last, way := &bodies[0], &bodies[len(bodies)-1], f.farthest(poses, bodies)
	if f.Goes() != 0 { // one step says it
		bodies, last = bodies[:1], first
	}
	room := f.Around(bodies)
	if f.Goes() != 0 {
		way = f.Onward(&room)
	}
	for _, p := range way {
		room = room.With(Box{Left: p.X - margin, Right: p.X + margin, Top: p.Y + margin, Bottom: 0})
	}
	x := stage(room)
	x.standing(f)
	if first != last && !f.Holds {
		x.body(f, first, Faint)
	}
	x.pose(f, last, Ink)
	x.arrow(Flare, way)
	return x
}

// Small is a drill at a glance: one body alone, or its course.
func (f *Figure) Small() *Picture {
	if f.View == Above {
		return f.Course.draw()
	}
	last := f.Poses[len(f.Poses)-1]
	if f.Goes() != 0 {
		last = f.Poses[0]
	}
	b := f.Stand(last)
	x := stage(f.reach([]Body{b}))
	x.pose(f, &b, Ink)
	return x
}

// Fault is how it is not done: the pose, and a cross where it goes wrong.
func (f *Figure) Fault(wrong Wrong) *Picture {
	b := f.Stand(wrong.Pose)
	x := stage(f.Around([]Body{b}))
	x.standing(f)
	x.pose(f, &b, Grey)
	at, arm := b.At(wrong.Joint), 5.5
	x.line(Flare, 3.4, Point{at.X - arm, at.Y + arm}, Point{at.X + arm, at.Y - arm})
	x.line(Flare, 3.4, Point{at.X + arm, at.Y + arm}, Point{at.X - arm, at.Y - arm})
	return x
}

// Bench is a pose by itself, its first contact at 0, before it faintly another one.
func (f *Figure) Bench(p Pose, before *Pose) *Picture {
	b := f.Stand(p)
	x := stage(f.Around([]Body{b}))
	x.standing(f)
	if before != nil {
		was := f.Stand(*before)
		x.body(f, &was, Faint)
	}
	x.pose(f, &b, Ink)
	return x
}

// Stage is the ground of a movement with what stands around, and the room that all its
// frames need.
func (f *Figure) Stage(frames []Frame) *Picture {
	bodies := make([]Body, len(frames))
	for i := range frames {
		bodies[i] = frames[i].Body
	}
	x := stage(f.Around(bodies))
	x.standing(f)
	return x
}

// pose draws a body with what it holds.
func (x *Picture) pose(f *Figure, b *Body, tone Tone) {
	x.body(f, b, tone)
	for _, p := range f.Props {
		switch {
		case p.In == "":
		case p.Is == "band":
			x.Strokes = append(x.Strokes, Stroke{Tone: Flare, Width: 1.6, Points: []Point{b.At(p.In), p.Tied(*b)},
				Dashed: true})
		default:
			for _, s := range p.Held() {
				x.Strokes = append(x.Strokes, s.moved(b.At(p.In)))
			}
		}
	}
}

func (s Stroke) moved(by Point) Stroke {
	points := make([]Point, len(s.Points))
	for i, p := range s.Points {
		points[i] = Point{p.X + by.X, p.Y + by.Y}
	}
	s.Points = points
	return s
}

// Held are the strokes of what a joint holds or lies on, around the joint.
func (p Prop) Held() (strokes []Stroke) {
	x := &Picture{}
	switch p.Is {
	case "roller":
		x.circle(Thing, 2, 5.5, Point{p.At, p.High - 7.5})
	case "ball":
		x.circle(Paper, 0, max(p.Wide, 7)/2, Point{p.At, p.High})
		x.circle(Ink, 1.8, max(p.Wide, 7)/2, Point{p.At, p.High})
	case "stick":
		x.line(Thing, 2.6, heading(Point{}, p.Turn, -p.At), heading(Point{}, p.Turn, p.Wide-p.At))
	}
	return x.Strokes
}

// standing draws what stands around.
func (x *Picture) standing(f *Figure) {
	for _, p := range f.Props {
		if p.In != "" {
			continue
		}
		foot, top := Point{p.At, -3}, Point{p.At, p.High}
		switch p.Is {
		case "wall":
			x.line(Thing, 3, foot, Point{p.At, max(p.High, 100)})
		case "post":
			x.line(Thing, 2, foot, Point{p.At, max(p.High, 90)})
		case "box":
			x.line(Thing, 2, Point{p.At, -2}, top, Point{p.At + p.Wide, p.High}, Point{p.At + p.Wide, -2})
		case "hurdle":
			x.line(Thing, 2, foot, top)
			x.line(Thing, 2, Point{p.At - 5, p.High}, Point{p.At + 5, p.High})
		case "line":
			x.line(Ink, 2, Point{p.At, 0}, Point{p.At, -6})
		case "partner":
			b := f.Partner(p)
			x.body(f, &b, Faint)
		}
	}
}

// arrow draws a way with its end.
func (x *Picture) arrow(tone Tone, way []Point) {
	if len(way) < 2 {
		return
	}
	x.line(tone, wayWidth, way...)
	end, before := way[len(way)-1], way[max(0, len(way)-3)]
	dx, dy := end.X-before.X, end.Y-before.Y
	long := max(0.1, math.Hypot(dx, dy))
	dx, dy = dx/long, dy/long
	point := func(on, aside float64) Point {
		return Point{end.X + on*dx - aside*dy, end.Y + on*dy + aside*dx}
	}
	x.line(tone, 0, point(4, 0), point(-3, 4), point(-3, -4))
}
