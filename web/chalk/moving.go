package chalk

import (
	"fmt"
	"html/template"
	"math"
	"strconv"
	"strings"

	"cuestart/core/figure"
)

// A cycle is written in so many moments; between them the browser turns each limb evenly,
// so that it keeps its length.
const (
	fewFrames  = 9  // from one pose to another, and back
	manyFrames = 13 // over more
)

// Moving is it as it is done, moving; who prefers less motion sees it still.
func (d Drawn) Moving() template.HTML {
	if !d.Moves() {
		return d.Still()
	}
	f := d.figure
	var w writer
	if f.View == figure.Above {
		x := f.Still()
		w.open(x.Box, d.words, large)
		for _, s := range x.Strokes {
			w.stroke(s)
		}
		w.add(`<circle class="ff t0 fig-moving" r="4.5"><animateMotion dur="4s" repeatCount="indefinite" path="%s"/></circle>`,
			path(f.Course.Run()))
		return w.close()
	}
	frames := fewFrames
	if len(f.Poses) > 2 {
		frames = manyFrames
	}
	x, all := f.Ends(), f.Frames(frames)
	stage := f.Stage(all)
	w.open(stage.Box.With(x.Box), d.words, large)
	w.add(`<g class="fig-still">`)
	for _, s := range x.Strokes {
		w.stroke(s)
	}
	w.add(`</g><g class="fig-moving">`)
	for _, s := range stage.Strokes {
		w.stroke(s)
	}
	m := &mover{writer: &w, figure: f, frames: all, clock: fmt.Sprintf(`dur="%ss" repeatCount="indefinite"`,
		n(f.Seconds()))}
	m.ride(figure.Hip)
	m.body(f.View.Frontal())
	w.add("</g>")
	m.held(f)
	w.add("</g>")
	return w.close()
}

// mover writes limbs that turn.
type mover struct {
	*writer
	figure *figure.Figure
	frames []figure.Frame
	clock  string
}

// Angles in the world of what is drawn, in a pose.
type angles func(figure.Pose) []float64

func lean(p figure.Pose) float64 { return p.Lean }
func tilt(p figure.Pose) float64 { return p.Tilt }

// Which limb it is, and from where it is seen.
const near, away, fromSide, fromFront = false, true, false, true

// arm and leg are the angles of a limb, out being -1 on the far side from the front.
func arm(far bool, out float64) angles {
	return func(p figure.Pose) []float64 {
		l := p.Arm
		if far {
			l = p.FarArm
		}
		return []float64{out * l[0], out * (l[0] + l[1])}
	}
}

func leg(far bool, out float64, frontal bool) angles {
	return func(p figure.Pose) []float64 {
		l := p.Leg
		if far {
			l = p.FarLeg
		}
		if frontal {
			return []float64{out * l[0], out * (l[0] - l[1]), out * figure.FootOut}
		}
		return []float64{l[0], l[0] - l[1], l[2]}
	}
}

// body writes the body, what is farther away first.
func (m *mover) body(frontal bool) {
	if !frontal {
		m.limb(part{tone: figure.InkFar, up: 29}, arm(away, 1), 17, 16)
		m.limb(part{tone: figure.InkFar}, leg(away, 1, fromSide), 24, 24, 9)
		m.spine()
		m.limb(part{}, leg(near, 1, fromSide), 24, 24, 9)
		m.limb(part{up: 29, edged: true}, arm(near, 1), 17, 16)
		return
	}
	m.chest()
	m.limb(part{aside: -8}, leg(away, -1, fromFront), 24, 24, figure.FootFront)
	m.limb(part{aside: 8}, leg(near, 1, fromFront), 24, 24, figure.FootFront)
	m.limb(part{up: 29, aside: -12}, arm(away, -1), 17, 16)
	m.limb(part{up: 29, aside: 12}, arm(near, 1), 17, 16)
}

// animate writes how something changes over a cycle.
func (m *mover) animate(kind string, value func(figure.Frame) string) {
	values := make([]string, len(m.frames))
	for i, f := range m.frames {
		values[i] = value(f)
	}
	m.add(`<animateTransform attributeName="transform" type="%s" %s values="%s"/>`, kind, m.clock,
		strings.Join(values, ";"))
}

// turn writes how a group turns: its angle in the world less that of what it hangs on; the
// shorter way, always.
func (m *mover) turn(of func(figure.Pose) float64) {
	before, first := 0.0, true
	still := true
	values := make([]string, len(m.frames))
	for i, f := range m.frames {
		a := -of(f.Pose)
		if !first {
			a = before + math.Remainder(a-before, 360)
			still = still && math.Abs(a-before) < 0.05
		}
		before, first = a, false
		values[i] = strconv.Itoa(int(math.Round(a)))
	}
	if still {
		m.add(`<g transform="rotate(%s)">`, values[0])
		return
	}
	m.add(`<g><animateTransform attributeName="transform" type="rotate" %s values="%s"/>`, m.clock,
		strings.Join(values, ";"))
}

// ride begins a group that goes with a joint.
func (m *mover) ride(joint figure.Joint) {
	m.add("<g>")
	m.animate("translate", func(f figure.Frame) string { return at(f.Body[joint]) })
}

// part is where a limb hangs on the trunk, or on the hips.
type part struct {
	tone      figure.Tone
	up, aside float64
	edged     bool
}

// limb writes parts that hang one on the other.
func (m *mover) limb(p part, of angles, lengths ...float64) {
	m.add(`<g class="t%d">`, p.tone)
	closing := "</g>" + m.joint(p)
	for i, long := range lengths {
		m.turn(func(pose figure.Pose) float64 {
			a := of(pose)
			if i == 0 {
				return a[0]
			}
			return a[i] - a[i-1]
		})
		if p.edged {
			m.add(`<path class="t%d" stroke-width="%s" d="M0 0V%s"/>`, figure.Paper,
				n(figure.LimbWidth+figure.EdgeWidth), n(long))
		}
		m.add(`<path d="M0 0V%s"/>`, n(long))
		closing += "</g>"
		if i < len(lengths)-1 {
			m.add(`<g transform="translate(0 %s)">`, n(long))
			closing += "</g>"
		}
	}
	m.add("%s", closing)
}

// joint moves to where a limb hangs on the trunk, and returns what ends that.
func (m *mover) joint(p part) (closing string) {
	switch {
	case p.up == 0 && p.aside == 0:
		return ""
	case p.up != 0 && p.aside == 0: // on a back that rounds
		m.turn(func(pose figure.Pose) float64 { return pose.Round/2 - pose.Lean })
		m.add(`<g transform="translate(0 %s)">`, n(-p.up/2))
		m.turn(func(pose figure.Pose) float64 { return -pose.Round })
		side := 1.0
		if p.tone == figure.InkFar {
			side = -1
		}
		m.shoulder(side, p.up/2)
		m.turn(func(pose figure.Pose) float64 { return pose.Lean + pose.Round/2 })
		return "</g></g></g></g></g>"
	case p.up != 0:
		m.turn(func(pose figure.Pose) float64 { return -lean(pose) })
		m.shoulder(math.Copysign(1, p.aside), p.up)
		m.turn(lean)
	default:
		m.turn(func(pose figure.Pose) float64 { return -tilt(pose) })
		m.add(`<g transform="translate(%s %s)">`, n(p.aside), n(-p.up))
		m.turn(tilt)
	}
	return "</g></g></g>"
}

// shoulder begins a group at a shoulder, so far above what the group before it hangs on:
// where the chest turns it goes with it.
func (m *mover) shoulder(side, up float64) {
	where := func(f figure.Frame) string { return n(side*math.Round(m.figure.Chest(f.Pose))) + " " + n(-up) }
	if !m.figure.Turns() {
		m.add(`<g transform="translate(%s)">`, where(m.frames[0]))
		return
	}
	m.add("<g>")
	m.animate("translate", where)
}

// across writes a line of the chest that gets wider and narrower as it turns.
func (m *mover) across(attributes string, line func(half float64) string) {
	values := make([]string, len(m.frames))
	for i, f := range m.frames {
		values[i] = line(math.Round(m.figure.Chest(f.Pose)))
	}
	m.add(`<path class="t0" %s d="%s"><animate attributeName="d" %s values="%s"/></path>`, attributes, values[0],
		m.clock, strings.Join(values, ";"))
}

// spine writes a trunk of two parts, neck and head.
func (m *mover) spine() {
	m.turn(func(p figure.Pose) float64 { return p.Round/2 - p.Lean })
	m.add(`<path class="t0" stroke-width="%s" d="M0 0V-14.5"/><g transform="translate(0 -14.5)">`, n(figure.TrunkWidth))
	m.turn(func(p figure.Pose) float64 { return -p.Round })
	m.add(`<path class="t0" stroke-width="%s" d="M0 0V-14.5"/><g transform="translate(0 -14.5)">`, n(figure.TrunkWidth))
	if m.figure.Turns() {
		m.across(fmt.Sprintf(`stroke-width="%s"`, n(figure.TrunkWidth)),
			func(half float64) string { return "M" + n(-half) + " 0H" + n(half) })
	}
	m.head("</g></g>")
}

// chest writes a trunk from the front.
func (m *mover) chest() {
	m.turn(func(p figure.Pose) float64 { return -p.Lean })
	if m.figure.Turns() {
		m.across(fmt.Sprintf(`stroke-width="%s"`, n(figure.TrunkWidth)),
			func(half float64) string { return "M" + n(-half) + "-29H" + n(half) + "L8 0H-8Z" })
	} else {
		m.add(`<path class="t0" stroke-width="%s" d="M-12-29H12L8 0H-8Z"/>`, n(figure.TrunkWidth))
	}
	m.add(`<g transform="translate(0 -29)">`)
	m.head("")
}

// head writes neck and head, and ends the trunk that they are on.
func (m *mover) head(closing string) {
	m.turn(func(p figure.Pose) float64 { return -p.Neck })
	m.add(`<path class="t0" d="M0 0V-5"/><circle class="ff t0" cy="-11.5" r="%s"/></g></g></g>%s`, n(figure.HeadRadius),
		closing)
}

// held writes what hangs on the joints.
func (m *mover) held(f *figure.Figure) {
	for _, p := range f.Props {
		switch {
		case p.In == "":
		case p.Is == "band":
			values := make([]string, len(m.frames))
			for i, frame := range m.frames {
				values[i] = path([]figure.Point{frame.Body.At(p.In), p.Tied(frame.Body)})
			}
			m.add(`<path class="t9 fd" stroke-width="1.6" d="%s"><animate attributeName="d" %s values="%s"/></path>`,
				values[0], m.clock, strings.Join(values, ";"))
		default:
			m.ride(figure.Named(p.In))
			for _, s := range p.Held() {
				m.stroke(s)
			}
			m.add("</g>")
		}
	}
}
