package figure_test

import (
	"encoding/json"
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
	{figure.Hip, figure.MidBack, 14.5}, {figure.MidBack, figure.Shoulder, 14.5}, {figure.Shoulder, figure.Neck, 5},
	{figure.Neck, figure.Head, 6.5},
	{figure.NearHip, figure.Knee, 24}, {figure.Knee, figure.Ankle, 24}, {figure.FarHip, figure.FarKnee, 24},
	{figure.FarKnee, figure.FarAnkle, 24},
	{figure.NearShoulder, figure.Elbow, 17}, {figure.Elbow, figure.Hand, 16}, {figure.FarShoulder, figure.FarElbow, 17},
	{figure.FarElbow, figure.FarHand, 16},
}

func far(a, b figure.Point) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }

func assertWhole(t require.TestingT, b figure.Body) {
	for _, l := range limbs {
		require.InDelta(t, l.long, far(b[l.from], b[l.to]), 0.01, "%s to %s", figure.Joints[l.from],
			figure.Joints[l.to])
	}
}

// angle draws whole degrees.
func angle(t *rapid.T, name string, least, most int) float64 {
	return float64(rapid.IntRange(least, most).Draw(t, name))
}

func anyPose(t *rapid.T) figure.Pose {
	thigh, bend := angle(t, "thigh", -40, 90), angle(t, "knee", 0, 120)
	p := figure.Pose{Lean: angle(t, "lean", -10, 50), Round: angle(t, "round", 0, 40), Neck: angle(t, "neck", -30, 30),
		Leg:    figure.Limb{thigh, bend},
		FarLeg: figure.Limb{angle(t, "far thigh", -40, 90), angle(t, "far knee", 0, 120)},
		Arm:    figure.Limb{angle(t, "arm", -60, 140), angle(t, "elbow", 0, 140)}}
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
		f := &figure.Figure{}
		again := p.Mirrored().Mirrored()
		assert.Equal(t, f.View.Of(p), f.View.Of(again), "and its mirror is itself")
		assert.Equal(t, p.Touch, again.Touch)
		p.Touch = nil
		a, b := f.View.Of(p), f.View.Of(p.Mirrored())
		for _, pair := range [][2]figure.Joint{{figure.Knee, figure.FarKnee}, {figure.Hand, figure.FarHand}} {
			assert.InDelta(t, a[pair[0]].Y, b[pair[1]].Y, 0.01)
			assert.InDelta(t, a[pair[1]].X, b[pair[0]].X, 0.01)
		}
	})
}

func TestWhatTouchesDoes(t *testing.T) {
	for name, p := range map[string]figure.Pose{
		"hands and toes": {Lean: 90, Neck: -18, Leg: figure.Limb{-90, 0, 0}, Arm: figure.Limb{0, 0},
			Touch: []string{"hand", "toe"}},
		"hands and knees": {Lean: 74, Leg: figure.Limb{0, 98, -68}, Arm: figure.Limb{0, 0},
			Touch: []string{"hand", "knee"}},
		"a long step": {Leg: figure.Limb{40, 6}, FarLeg: figure.Limb{-30, 10, 40}, Touch: []string{"ankle", "far toe"}},
	} {
		f := &figure.Figure{}
		assert.Empty(t, f.Loose(p), name)
	}
	assert.Equal(t, "the hand is 50 above the ground",
		(&figure.Figure{}).Loose(figure.Pose{Arm: figure.Limb{0, 60}, Lean: -20, Touch: []string{"ankle", "hand"}}))
}

func TestWhatNoBodyDoesIsRefused(t *testing.T) {
	pose := func(change func(*figure.Pose)) *figure.Figure {
		p := figure.Pose{}
		change(&p)
		return &figure.Figure{Poses: []figure.Pose{p}}
	}
	for says, f := range map[string]*figure.Figure{
		"pose 1: the knee does -8 to 160 degrees, not 200": pose(func(p *figure.Pose) {
			p.Leg = figure.Limb{0, 200}
		}),
		"pose 1: the hip does -60 to 150 degrees, not -90": pose(func(p *figure.Pose) {
			p.Leg = figure.Limb{-90, 0}
		}),
		"pose 1: the elbow does -12 to 155 degrees, not -40": pose(func(p *figure.Pose) {
			p.Arm = figure.Limb{0, -40}
		}),
		"pose 1: the lean does -180 to 180 degrees, not NaN": pose(func(p *figure.Pose) { p.Lean = math.NaN() }),
		"pose 1: the neck does -75 to 80 degrees, not +Inf":  pose(func(p *figure.Pose) { p.Neck = math.Inf(1) }),
		"pose 1: a leg has a thigh, a shank and a foot": pose(func(p *figure.Pose) {
			p.Leg = figure.Limb{0, 0, 0, 0}
		}),
		`pose 1: "nose" is nothing that touches the ground`: pose(func(p *figure.Pose) {
			p.Touch = []string{"nose"}
		}),
		"poses: a figure has 1 to 4 poses, not 1000": {Poses: make([]figure.Pose, 1000)},
		"poses: a figure has 1 to 4 poses, not 0":    {},
		"view: a figure is seen from the side":       {View: "inside", Poses: make([]figure.Pose, 1)},
		"moves: it goes there and back":              {Moves: "flies", Poses: make([]figure.Pose, 1)},
		"not so: say in three words what is wrong": {Poses: make([]figure.Pose, 1),
			NotSo: []figure.Wrong{{Joint: "knee"}}},
		`not so: "nose" is no joint`: {Poses: make([]figure.Pose, 1),
			NotSo: []figure.Wrong{{Joint: "nose", Says: "too long"}}},
		"props: \"horse\" is none of ball": {Poses: make([]figure.Pose, 1),
			Props: []figure.Prop{{Is: "horse"}}},
		"course: from above there are 1 to 6 ways to go": {View: figure.Above},
		"course: a way goes over 2 to 24 places": {View: figure.Above,
			Course: &figure.Course{Ways: []figure.Way{{Over: []figure.Place{{0, 0}}}}}},
		"course: the line stands at two numbers of metres, a l": {View: figure.Above,
			Course: &figure.Course{Marks: []figure.Mark{{Is: "line", At: figure.Place{0, 0}}},
				Ways: []figure.Way{{Over: []figure.Place{{0, 0}, {1, 1}}}}}},
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
		wild := figure.Pose{Lean: angle(t, "lean", -999, 999), Neck: angle(t, "neck", -999, 999),
			Tilt: angle(t, "tilt", -200, 200),
			Leg:  figure.Limb{angle(t, "thigh", -999, 999), angle(t, "knee", -999, 999), angle(t, "foot", -999, 999)},
			Arm:  figure.Limb{angle(t, "arm", -999, 999), angle(t, "elbow", -999, 999)}}
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

// Poses that a foot takes another's place between stay where they are; one that goes on
// lands so much farther.
func TestWhereItStands(t *testing.T) {
	right := figure.Pose{Leg: figure.Limb{40, 60}, FarLeg: figure.Limb{0, 0}, Touch: []string{"far ankle"}}
	f := &figure.Figure{Moves: figure.Loop, Poses: []figure.Pose{right, right.Mirrored()}}
	b := f.Bodies()
	assert.InDelta(t, b[0][figure.FarAnkle].X, b[1][figure.Ankle].X, 0.01, "a foot takes the other's place")
	f.Poses[1].On = 30
	b = f.Bodies()
	assert.InDelta(t, b[0][figure.FarAnkle].X+30, b[1][figure.Ankle].X, 0.01)
	up := &figure.Figure{Poses: []figure.Pose{{}, {Lift: 20}}}
	b = up.Bodies()
	assert.InDelta(t, 20, b[1][figure.Ankle].Y, 0.01)
	assert.InDelta(t, 20, b[1][figure.Head].Y-b[0][figure.Head].Y, 0.01)
}

// The back rounds without growing, and hollows the other way; its handle follows the hand.
func TestTheBackRounds(t *testing.T) {
	f := &figure.Figure{}
	straight, round, hollow := f.Stand(figure.Pose{Lean: 40}), f.Stand(figure.Pose{Lean: 40, Round: 60}),
		f.Stand(figure.Pose{Lean: 40, Round: -40})
	behind := func(b figure.Body) float64 { // of the line from the hips to the shoulders
		s, h, m := b[figure.Shoulder], b[figure.Hip], b[figure.MidBack]
		return (m.Y-h.Y)*(s.X-h.X) - (m.X-h.X)*(s.Y-h.Y)
	}
	assert.InDelta(t, 0, behind(straight), 0.01)
	assert.Greater(t, behind(round), 50.0)
	assert.Less(t, behind(hollow), -50.0)
	at := straight[figure.MidBack]
	dragged := f.Drag(figure.Pose{Lean: 40}, figure.MidBack, figure.Point{X: at.X - 4, Y: at.Y + 4})
	assert.InDelta(t, 45, dragged.Round, 4)
}

// A chest that turns brings the near shoulder forward, as it is seen from the side; from the
// front it is narrower, and on the way it is between.
func TestTheChestTurns(t *testing.T) {
	f := &figure.Figure{Poses: []figure.Pose{{Arm: figure.Limb{90, 0}}, {Turn: 60, Arm: figure.Limb{90, 0}}}}
	require.NoError(t, f.Validate())
	all := f.Bodies()
	assert.InDelta(t, all[0].At("near shoulder").X, all[0].At("far shoulder").X, 0.01)
	assert.InDelta(t, 20.8, all[1].At("near shoulder").X-all[1].At("far shoulder").X, 0.1)
	assert.InDelta(t, 33, all[1].At("hand").X-all[1].At("near shoulder").X, 0.1, "the arm goes with it")
	middle := f.Frames(9)[2].Pose.Turn
	assert.True(t, middle > 10 && middle < 50, "%v", middle)
	f.View = figure.Front
	all = f.Bodies()
	assert.InDelta(t, 12, all[1].At("near shoulder").X-all[1].At("far shoulder").X, 0.1)
	f.Poses[1].Turn = 80
	assert.ErrorContains(t, f.Validate(), "turn")
}

func TestACourseIsDrawnToScale(t *testing.T) {
	c := &figure.Course{Marks: []figure.Mark{{Is: "cone", At: figure.Place{0, 0}},
		{Is: "ladder", At: figure.Place{0, 0}, To: figure.Place{5, 1}},
		{Is: "box", At: figure.Place{-5, -5}, To: figure.Place{15, 5}}},
		Ways: []figure.Way{{Over: []figure.Place{{0, 0}, {10, 0}, {10, 4}}},
			{By: "ball", Over: []figure.Place{{0, 1}, {3, 3}}},
			{Easy: true, Bent: true, Over: []figure.Place{{0, 0}, {4, 4}, {8, 0}}}}}
	f := &figure.Figure{View: figure.Above, Course: c}
	require.NoError(t, f.Validate())
	x := f.Still()
	assert.InDelta(t, 110+18, x.Box.Right-x.Box.Left, 0.1, "20 m are as wide as it gets")
	run := c.Run()
	assert.InDelta(t, 55, far(run[0], run[1]), 0.1, "10 m")
	assert.InDelta(t, 22, far(run[1], run[2]), 0.1, "4 m")
	rungs, dashed, longest := 0, 0, 0
	for _, s := range x.Strokes {
		for _, p := range s.Points {
			assert.True(t, p.X >= x.Box.Left && p.X <= x.Box.Right && p.Y >= x.Box.Bottom && p.Y <= x.Box.Top,
				"%v is outside", p)
		}
		if s.Tone == figure.InkFar && len(s.Points) == 2 && s.Points[0].X == s.Points[1].X {
			rungs++
		}
		if s.Dashed {
			dashed++
		}
		longest = max(longest, len(s.Points))
	}
	assert.Equal(t, 11, rungs, "every half metre")
	assert.Equal(t, 2, dashed, "what is walked, and the ball")
	assert.Greater(t, longest, 10, "a bent way is a curve")
}

// Whatever is read is refused or drawn: nothing of it panics.
func FuzzFigure(f *testing.F) {
	f.Add(`{"poses":[{"leg":[40,70],"touch":["ankle"]},{"lift":20}],"props":[{"is":"band","in":"hand","to":"far hand"},{"is":"partner","at":40}],"not_so":[{"pose":{},"joint":"knee","says":"falls in"}]}`)
	f.Add(`{"view":"above","course":{"ways":[{"over":[[0,0],[1,1]],"bent":true}],"marks":[{"is":"ladder","at":[0,0],"to":[3,1]}]}}`)
	f.Add(`{"view":"front","moves":"travel","poses":[{"lean":-74,"tilt":-74,"far_arm":[0,90],"touch":["far elbow","far ankle"]}]}`)
	f.Fuzz(func(t *testing.T, text string) {
		is := new(figure.Figure)
		if json.Unmarshal([]byte(text), is) != nil || is.Validate() != nil {
			return
		}
		is.Still()
		is.Small()
		for _, w := range is.NotSo {
			is.Fault(w)
		}
		if is.View == figure.Above {
			return
		}
		is.Stage(is.Frames(9))
		for _, p := range is.Poses {
			is.Loose(p)
			require.NoError(t, (&figure.Figure{View: is.View,
				Poses: []figure.Pose{is.Drag(p, figure.Hand, figure.Point{X: 10, Y: 50})}}).Validate())
		}
	})
}

// Between two poses an angle goes the shorter way, gently at both ends, and each part of the
// cycle takes its share.
func TestTheWayBetweenTwoPoses(t *testing.T) {
	over := &figure.Figure{Moves: figure.Once, Poses: []figure.Pose{{Arm: figure.Limb{170, 0}},
		{Arm: figure.Limb{-170, 0}}}}
	frames := over.Frames(11)
	var angles []float64
	for _, f := range frames {
		angles = append(angles, f.Pose.Arm[0])
	}
	assert.InDelta(t, 170, angles[0], 0.01)
	assert.InDelta(t, 180, angles[5], 0.01, "over the head, not round by the hip")
	assert.InDelta(t, 190, angles[10], 0.01)
	for i := 1; i < len(angles); i++ {
		assert.Greater(t, angles[i], angles[i-1])
	}
	assert.Less(t, angles[1]-angles[0], angles[5]-angles[4], "it starts gently")
	assert.InDelta(t, angles[1]-angles[0], angles[10]-angles[9], 0.01, "and ends so")

	slow := &figure.Figure{Poses: []figure.Pose{{Share: 1}, {Lean: 30, Share: 3}}}
	frames = slow.Frames(5) // there takes three quarters of it, back one
	assert.InDelta(t, 30, frames[3].Pose.Lean, 0.01)
	assert.InDelta(t, 0, frames[4].Pose.Lean, 0.01)
	held := &figure.Figure{Poses: []figure.Pose{{Lean: 30}}}
	assert.Len(t, held.Frames(9), 1)
	assert.Positive(t, held.Seconds())
}

// On paper three poses and more stand in a row, in order and apart; what travels shows one
// step and where it goes; what is held shows no way.
func TestWhatStandsOnPaper(t *testing.T) {
	row := &figure.Figure{Poses: []figure.Pose{{}, {Leg: figure.Limb{60, 90}}, {Lean: 30}}}
	strip := row.Strip()
	require.Len(t, strip, 3)
	for i := 1; i < len(strip); i++ {
		before, after := figure.BoxOf(0, strip[i-1]), figure.BoxOf(0, strip[i])
		assert.Greater(t, after.Left, before.Right)
	}
	flares := func(f *figure.Figure) (all []figure.Stroke) {
		for _, s := range f.Still().Strokes {
			if s.Tone == figure.Flare {
				all = append(all, s)
			}
		}
		return all
	}
	assert.Empty(t, flares(row))
	step := figure.Pose{Leg: figure.Limb{70, 90}, FarLeg: figure.Limb{-20, 10, 40}, Touch: []string{"far toe"}}
	for moves, ahead := range map[figure.Moves]bool{figure.Travel: true, figure.Retreat: false} {
		f := &figure.Figure{Moves: moves, Poses: []figure.Pose{step, step.Mirrored()}}
		assert.Nil(t, f.Strip())
		arrow := flares(f)
		require.Len(t, arrow, 2, "a way and its tip")
		way := arrow[0].Points
		assert.Equal(t, ahead, way[len(way)-1].X > way[0].X, moves)
	}
	swing := []figure.Pose{{Leg: figure.Limb{-40, 10}, FarLeg: figure.Limb{0, 0}, Touch: []string{"far ankle"}},
		{Leg: figure.Limb{60, 0}, FarLeg: figure.Limb{0, 0}, Touch: []string{"far ankle"}}}
	assert.NotEmpty(t, flares(&figure.Figure{Poses: swing}))
	assert.Empty(t, flares(&figure.Figure{Poses: swing, Holds: true}))
	assert.Len(t, flares(&figure.Figure{Poses: swing[:1], NotSo: []figure.Wrong{{}}}), 0)
	assert.Len(t, (&figure.Figure{Poses: swing[:1]}).Small().Strokes, 8,
		"the ground, five lines, one with its edge, and a head")
}

// A pose that says nothing stands upright on both feet; one that leans so that nothing can
// reach keeps what was said.
func TestWhatCannotReachStaysAsItWasSaid(t *testing.T) {
	f := &figure.Figure{}
	b := f.Stand(figure.Pose{})
	assert.InDelta(t, 0, b[figure.Ankle].Y, 0.01)
	assert.InDelta(t, 88.5, b[figure.Head].Y, 0.01,
		"a hundred to the crown: 48 of legs, 29 of trunk, 5 of neck, the head")
	up := figure.Pose{Arm: figure.Limb{180, 0}, Touch: []string{"hand", "ankle"}}
	assert.Contains(t, f.Loose(up), "the hand is")
	assert.InDelta(t, 48, f.Stand(up)[figure.Hip].Y, 0.5, "it is not thrown over for it")
	assert.Empty(t, f.Loose(figure.Pose{Lift: 30}), "what flies touches nothing")
}
