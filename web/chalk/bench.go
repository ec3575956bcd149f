package chalk

import (
	"html/template"

	"cuestart/core/figure"
)

// handles are what the joints are called where they are dragged.
var handles = map[figure.Joint]string{figure.Hip: "hips", figure.Shoulder: "shoulders", figure.MidBack: "back",
	figure.Head: "head",
	figure.Knee: "near knee", figure.Ankle: "near ankle", figure.Toe: "near toes", figure.Elbow: "near elbow",
	figure.Hand:    "near hand",
	figure.FarKnee: "far knee", figure.FarAnkle: "far ankle", figure.FarToe: "far toes", figure.FarElbow: "far elbow",
	figure.FarHand: "far hand"}

// The room on which a pose is changed by hand, at the least: it stays as it is while a
// joint is dragged.
var benchRoom = figure.Box{Left: -75, Right: 95, Top: 122, Bottom: -3}

// Bench is a pose with a handle on each joint, for a hand that drags it; before it faintly
// the one that comes before.
func Bench(f *figure.Figure, p figure.Pose, before *figure.Pose) template.HTML {
	var w writer
	x := f.Bench(p, before)
	room := x.Box.With(benchRoom)
	w.add(`<svg class="fig bench" viewBox="%s %s %s %s" role="group" aria-label="The pose: drag a joint, or reach it with Tab and move it with the arrow keys">`,
		n(room.Left), n(-room.Top), n(room.Right-room.Left), n(room.Top-room.Bottom))
	for _, s := range x.Strokes {
		w.stroke(s)
	}
	b := f.Stand(p)
	for _, j := range figure.Handles {
		if f.View.Frontal() && (j == figure.Toe || j == figure.FarToe || j == figure.MidBack) {
			continue
		}
		w.add(`<circle class="hold" data-joint="%s" data-x="%s" data-y="%s" cx="%s" cy="%s" r="3.6" tabindex="0" role="button" aria-label="%s"/>`,
			figure.Joints[j], n(b[j].X), n(b[j].Y), n(b[j].X), n(-b[j].Y), handles[j])
	}
	return w.close()
}
