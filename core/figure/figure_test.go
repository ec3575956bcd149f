package figure_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/figure"
)

// limbs are the parts of a body, with their lengths.
var limbs = []struct {
	from, to figure.Joint
	long     float64
}{
	{figure.Hip, figure.MidBack, 14.5}, {figure.MidBack, figure.Shoulder, 14.5}, {figure.Shoulder, figure.Neck, 5}, {figure.Neck, figure.Head, 6.5},
	{figure.NearHip, figure.Knee, 24}, {figure.Knee, figure.Ankle, 24}, {figure.FarHip, figure.FarKnee, 24}, {figure.FarKnee, figure.FarAnkle, 24},
	{figure.NearShoulder, figure.Elbow, 17}, {figure.Elbow, figure.Hand, 16}, {figure.FarShoulder, figure.FarElbow, 17}, {figure.FarElbow, figure.FarHand, 16},
}

func far(a, b figure.Point) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }

func assertWhole(t require.TestingT, b figure.Body) {
	for _, l := range limbs {
		require.InDelta(t, l.long, far(b[l.from], b[l.to]), 0.01, "%s to %s", figure.Joints[l.from], figure.Joints[l.to])
	}
}

// angle draws whole degrees.
func angle(t *rapid.T, name string, least, most int) float64 {
	return float64(rapid.IntRange(least, most).Draw(t, name))
}

func anyPose(t *rapid.T) figure.Pose {
	thigh, bend := angle(t, "thigh", -40, 90), angle(t, "knee", 0, 120)
	p := figure.Pose{Lean: angle(t, "lean", -10, 50), Round: angle(t, "round", 0, 40), Neck: angle(t, "neck", -30, 30), Leg: figure.Limb{thigh, bend},
		FarLeg: figure.Limb{angle(t, "far thigh", -40, 90), angle(t, "far knee", 0, 120)}, Arm: figure.Limb{angle(t, "arm", -60, 140), angle(t, "elbow", 0, 140)}}
	p.Touch = rapid.SampledFrom([][]string{nil, {"ankle"}, {"far ankle", "ankle"}, {"hand", "toe"}}).Draw(t, "touch")
	return p
}

func anyFigure(t *rapid.T) *figure.Figure {
	f := &figure.Figure{View: rapid.SampledFrom([]figure.View{figure.Side, figure.Front}).Draw(t, "view"),
		Moves: rapid.SampledFrom([]figure.Moves{"", figure.Once, figure.Loop, figure.Travel}).Draw(t, "moves")}
	for range rapid.IntRange(1, figure.MostPoses).Draw(t, "poses") {
		f.Poses = append(f.Poses, anyPose(t))
	}
	return f
}

func TestWhateverMovesKeepsItsLimbsAndStaysOnTheGround(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := anyFigure(t)
		for _, b := range f.Bodies() {
			assertWhole(t, b)
		}
		for _, frame := range f.Frames(13) {
			assertWhole(t, frame.Body)
			lowest := frame.Body[figure.Head].Y - figure.HeadRadius
			for _, p := range frame.Body {
				lowest = min(lowest, p.Y)
			}
			assert.InDelta(t, 0, lowest, 0.01)
		}
	})
}

func TestItComesBackToWhereItBegan(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := anyFigure(t)
		f.Moves = figure.There
		frames := f.Frames(13)
		for j := range frames[0].Body {
			assert.InDelta(t, 0, far(frames[0].Body[j], frames[len(frames)-1].Body[j]), 0.01, figure.Joints[j])
		}
	})
}

func TestTheOtherSideIsItsMirror(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := anyPose(t)
		assert.Equal(t, p, p.Mirrored().Mirrored().Said(p))
		f := &figure.Figure{}
		p.Touch = nil
		a, b := f.Of(p), f.Of(p.Mirrored())
		for _, pair := range [][2]figure.Joint{{figure.Knee, figure.FarKnee}, {figure.Hand, figure.FarHand}} {
			assert.InDelta(t, a[pair[0]].Y, b[pair[1]].Y, 0.01)
			assert.InDelta(t, a[pair[1]].X, b[pair[0]].X, 0.01)
		}
	})
}

func TestWhatTouchesDoes(t *testing.T) {
	for name, p := range map[string]figure.Pose{
		"hands and toes":  {Lean: 90, Neck: -18, Leg: figure.Limb{-90, 0, 0}, Arm: figure.Limb{0, 0}, Touch: []string{"hand", "toe"}},
		"hands and knees": {Lean: 74, Leg: figure.Limb{0, 98, -68}, Arm: figure.Limb{0, 0}, Touch: []string{"hand", "knee"}},
		"a long step":     {Leg: figure.Limb{40, 6}, FarLeg: figure.Limb{-30, 10, 40}, Touch: []string{"ankle", "far toe"}},
	} {
		f := &figure.Figure{}
		assert.Empty(t, f.Loose(p), name)
	}
	assert.Equal(t, "the hand is 50 above the ground", (&figure.Figure{}).Loose(figure.Pose{Arm: figure.Limb{0, 60}, Lean: -20, Touch: []string{"ankle", "hand"}}))
}

func TestWhatNoBodyDoesIsRefused(t *testing.T) {
	pose := func(change func(*figure.Pose)) *figure.Figure {
		p := figure.Pose{}
		change(&p)
		return &figure.Figure{Poses: []figure.Pose{p}}
	}
	for says, f := range map[string]*figure.Figure{
		"pose 1: the knee does -8 to 160 degrees, not 200":      pose(func(p *figure.Pose) { p.Leg = figure.Limb{0, 200} }),
		"pose 1: the hip does -60 to 150 degrees, not -90":      pose(func(p *figure.Pose) { p.Leg = figure.Limb{-90, 0} }),
		"pose 1: the elbow does -12 to 155 degrees, not -40":    pose(func(p *figure.Pose) { p.Arm = figure.Limb{0, -40} }),
		"pose 1: the lean does -180 to 180 degrees, not NaN":    pose(func(p *figure.Pose) { p.Lean = math.NaN() }),
		"pose 1: the neck does -75 to 80 degrees, not +Inf":     pose(func(p *figure.Pose) { p.Neck = math.Inf(1) }),
		"pose 1: a leg has a thigh, a shank and a foot":         pose(func(p *figure.Pose) { p.Leg = figure.Limb{0, 0, 0, 0} }),
		`pose 1: "nose" is nothing that touches the ground`:     pose(func(p *figure.Pose) { p.Touch = []string{"nose"} }),
		"poses: a figure has 1 to 4 poses, not 1000":            {Poses: make([]figure.Pose, 1000)},
		"poses: a figure has 1 to 4 poses, not 0":               {},
		"view: a figure is seen from the side":                  {View: "inside", Poses: make([]figure.Pose, 1)},
		"moves: it goes there and back":                         {Moves: "flies", Poses: make([]figure.Pose, 1)},
		"not so: say in three words what is wrong":              {Poses: make([]figure.Pose, 1), NotSo: []figure.Wrong{{Joint: "knee"}}},
		`not so: "nose" is no joint`:                            {Poses: make([]figure.Pose, 1), NotSo: []figure.Wrong{{Joint: "nose", Says: "too long"}}},
		"props: \"horse\" is none of ball":                      {Poses: make([]figure.Pose, 1), Props: []figure.Prop{{Is: "horse"}}},
		"course: from above there are 1 to 6 ways to go":        {View: figure.Above},
		"course: a way goes over 2 to 24 places":                {View: figure.Above, Course: &figure.Course{Ways: []figure.Way{{Over: []figure.Place{{0, 0}}}}}},
		"course: the line stands at two numbers of metres, a l": {View: figure.Above, Course: &figure.Course{Marks: []figure.Mark{{Is: "line", At: figure.Place{0, 0}}}, Ways: []figure.Way{{Over: []figure.Place{{0, 0}, {1, 1}}}}}},
	} {
		err := f.Validate()
		if assert.Error(t, err, says) {
			assert.True(t, strings.HasPrefix(err.Error(), says), err.Error())
		}
	}
}

// What is held within its limits can be moved between them without leaving them.
func TestHeldWithinItsLimits(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := &figure.Figure{View: rapid.SampledFrom([]figure.View{figure.Side, figure.Front}).Draw(t, "view")}
		wild := figure.Pose{Lean: angle(t, "lean", -999, 999), Neck: angle(t, "neck", -999, 999), Tilt: angle(t, "tilt", -200, 200),
			Leg: figure.Limb{angle(t, "thigh", -999, 999), angle(t, "knee", -999, 999), angle(t, "foot", -999, 999)}, Arm: figure.Limb{angle(t, "arm", -999, 999), angle(t, "elbow", -999, 999)}}
		f.Poses = []figure.Pose{f.Within(wild)}
		require.NoError(t, f.Validate())
	})
}

func ExampleFigure_Stand() {
	squat := figure.Pose{Lean: 38, Neck: -20, Leg: figure.Limb{88, 122}, Arm: figure.Limb{85, 5}}
	b := (&figure.Figure{}).Stand(squat)
	fmt.Println("hip", b[figure.Hip])
	fmt.Println("knee", b[figure.Knee])
	// Output:
	// hip -10.6, 20.7
	// knee 13.4, 19.9
}

// A hand that drags a joint never bends a body further than it goes, and brings a hand to
// where it is dragged if it can get there.
func TestDraggedWithinItsLimits(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := &figure.Figure{View: rapid.SampledFrom([]figure.View{figure.Side, figure.Front}).Draw(t, "view")}
		p := f.Within(anyPose(t))
		for range 3 {
			joint := rapid.SampledFrom(figure.Handles).Draw(t, "joint")
			p = f.Drag(p, joint, figure.Point{X: angle(t, "x", -90, 90), Y: angle(t, "y", -5, 120)})
		}
		f.Poses = []figure.Pose{p}
		require.NoError(t, f.Validate())
		require.NotEmpty(t, p.Touch)
	})
	f := &figure.Figure{}
	to := figure.Point{X: 25, Y: 90}
	b := f.Stand(f.Drag(figure.Pose{}, figure.Hand, to))
	assert.InDelta(t, 0, far(to, b[figure.Hand]), 0.7, "whole degrees")
	deeper := f.Drag(figure.Pose{Leg: figure.Limb{40, 70}}, figure.Hip, figure.Point{X: -8, Y: 30})
	b = f.Stand(deeper)
	assert.InDelta(t, 30, b[figure.Hip].Y, 0.7, "the knees bend over the feet")
	off := f.Drag(figure.Pose{}, figure.Ankle, figure.Point{X: 10, Y: 30})
	assert.Equal(t, []string{"far ankle"}, off.Touch)
	assert.Equal(t, []string{"far ankle", "ankle"}, f.Drag(off, figure.Ankle, figure.Point{X: 14, Y: 1}).Touch)
}
