package book

import (
	"encoding/json"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/web/shell"
)

// pressed is a figure after presses and drags on its page, as they are sent.
func pressed(t *testing.T, begin string, sent ...url.Values) *drawing {
	f := &drawing{Drill: drill.Drill{Name: "Dip", Faults: []string{"Heels lift off the ground early", "Chest falls"}},
		Is: &figure.Figure{Poses: []figure.Pose{{}}}, Text: begin}
	at := "0"
	for _, one := range sent {
		one.Set("figure", f.Text)
		if !one.Has("at") {
			one.Set("at", at)
		}
		in := shell.NewForm(one)
		f.Problems, f.Text = nil, ""
		f.read(in)
		if act := acts[one.Get("do")]; act != nil && len(f.Problems) == 0 {
			act(f, in)
		}
		f.page()
		at = string(rune('0' + f.At))
		require.NoError(t, json.Unmarshal([]byte(f.Text), new(figure.Figure)), f.Text)
	}
	return f
}

func do(what string, more ...string) url.Values {
	v := url.Values{"do": {what}}
	for i := 0; i+1 < len(more); i += 2 {
		v.Add(more[i], more[i+1])
	}
	return v
}

func TestPosesAreAddedMirroredAndTakenOut(t *testing.T) {
	one := `{"poses":[{"leg":[20,40],"arm":[90,0]}]}`
	f := pressed(t, one, do("add"))
	assert.Len(t, f.Is.Poses, 2)
	assert.Equal(t, 1, f.At, "the new one is shown")
	assert.Equal(t, f.Is.Poses[0], f.Is.Poses[1], "it begins as the one before it")
	f = pressed(t, one, do("add"), do("add"), do("add"), do("add"), do("add"))
	assert.Len(t, f.Is.Poses, figure.MostPoses)
	assert.False(t, f.More())
	f = pressed(t, one, do("add"), do("drag", "joint", "hand", "x", "20", "y", "95"), do("mirror"))
	assert.Equal(t, figure.Limb{90, 0}, f.Is.Poses[0].Arm)
	assert.NotEqual(t, f.Is.Poses[0].Arm, f.Is.Poses[1].FarArm, "what was dragged is on the other side")
	assert.Equal(t, figure.Limb{90, 0}, f.Is.Poses[1].Arm)
	f = pressed(t, one, do("add"), do("remove"), do("remove"), do("remove"))
	assert.Len(t, f.Is.Poses, 1, "one stays")
	assert.NoError(t, f.Is.Validate())
}

func TestAFaultIsBegunFromThePoseThatIsShown(t *testing.T) {
	f := pressed(t, `{"poses":[{"leg":[20,40]}]}`, do("fault"), do("fault"))
	require.Len(t, f.Is.NotSo, 2)
	assert.Equal(t, []string{"heels lift off the", "chest falls"}, []string{f.Is.NotSo[0].Says, f.Is.NotSo[1].Says},
		"its words are those of the drill's own faults")
	assert.Equal(t, figure.Limb{20, 40}, f.Is.NotSo[0].Pose.Leg)
	assert.Equal(t, 2, f.At)
	require.NotNil(t, f.Wrong())
	f = pressed(t, f.Text, do("fields", "at", "2", "fields", "yes", "joint-wrong", "back", "says", "back rounds",
		"round", "50", "touch", "ankle", "touch", "far ankle"))
	assert.Equal(t, figure.Wrong{Joint: "back", Says: "back rounds", Pose: f.Is.NotSo[1].Pose}, f.Is.NotSo[1])
	assert.EqualValues(t, 50, f.Is.NotSo[1].Pose.Round)
	f = pressed(t, f.Text, do("fault"), do("fault"), do("fault"))
	assert.Len(t, f.Is.NotSo, figure.MostFaults)
	assert.Len(t, f.Picks(), 1+figure.MostFaults)
	f = pressed(t, f.Text, do("remove", "at", "2"))
	assert.Len(t, f.Is.NotSo, figure.MostFaults-1)
	assert.Len(t, f.Is.Poses, 1, "the pose is no fault")
}

// A number that a body does not reach is brought back to what it does, with a word; the
// others stay as they were written.
func TestNumbersAreHeldWithinTheBody(t *testing.T) {
	f := pressed(t, `{"poses":[{"leg":[20,40]}]}`, do("fields", "fields", "yes", "leg1", "999", "lean", "30", "neck",
		"no number", "view", "", "moves", "loop", "holds", "yes"))
	require.Len(t, f.Problems, 1)
	assert.Equal(t, "pose 1: the knee does -8 to 160 degrees, not 999", f.Problems[0].What)
	assert.EqualValues(t, 160, f.Is.Poses[0].Leg[1])
	assert.EqualValues(t, 30, f.Is.Poses[0].Lean)
	assert.Equal(t, figure.Loop, f.Is.Moves)
	assert.True(t, f.Is.Holds)
	f = pressed(t, `{"poses":[{"leg":[20,40]}]}`, do("fields", "fields", "yes", "view", "inside"))
	assert.NotEmpty(t, f.Problems)
	for _, n := range f.Numbers() {
		assert.NotEmpty(t, n.Label)
		n.set(1)
	}
}
