package movement_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
	"cuestart/core/movement"
)

func ExampleOf() {
	u, _ := movement.Of("walking lunges with a twist")
	fmt.Println(u.Aim, u.Phase, u.Joints, u.Planes, u.Travels)
	// Output: range mobilise [ankle knee hip back] [front turn] true
}

// The most telling movement leads, parts of the body say what a stretch works, what else is
// said changes it.
func TestADrillIsUnderstoodFromItsWords(t *testing.T) {
	for name, want := range map[string]movement.Understood{
		"single-leg hop and stick": {Aim: "landing", Phase: drill.Activate, Joints: []string{"ankle", "knee", "hip"},
			Planes: []string{"front"}},
		"calf stretch on the wall": {Aim: "range", Phase: drill.Mobilise, Joints: []string{"ankle"},
			Planes: []string{"front"}},
		"good mornings with a stick": {Aim: "control", Phase: drill.Activate, Joints: []string{"hip", "back"},
			Planes: []string{"front"}},
		"partner-resisted march": {Aim: "rhythm", Phase: drill.Raise, Joints: []string{"ankle", "knee", "hip"},
			Planes: []string{"front"}, Travels: true, Alternates: true},
		"ankles": {Aim: "range", Phase: drill.Mobilise, Joints: []string{"ankle"},
			Planes: []string{"front", "side"}},
		"skater jumps": {Aim: "jump", Phase: drill.Potentiate, Joints: []string{"ankle", "knee", "hip"},
			Planes: []string{"side"}, Alternates: true},
		"wrist circles, both ways": {Aim: "range", Phase: drill.Mobilise, Joints: []string{"wrist"},
			Planes: []string{"side", "turn"}},
		"explosive step-ups onto box": {Aim: "strength", Phase: drill.Potentiate,
			Joints: []string{"ankle", "knee", "hip"}, Planes: []string{"front"}},
	} {
		is, known := movement.Of(name)
		require.True(t, known, name)
		assert.True(t, is.Effort > 0 && is.Effort <= 1, name)
		is.Effort, is.Contacts, is.Seconds, is.Pace = 0, 0, [3]float64{}, [3]float64{}
		assert.Equal(t, want, is, name)
	}
	for _, name := range []string{"", "42", "frobnicate", "世界", "????"} {
		_, known := movement.Of(name)
		assert.False(t, known, name)
	}
}

// Whatever is said, what is understood can be done: terms of the field, an effort, times that
// rise.
func FuzzOf(f *testing.F) {
	for _, seed := range []string{"slow explosive single-leg hops in place with a band", "walk walk walk",
		"seated band-resisted overhead press, eyes shut"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, name string) {
		u, known := movement.Of(name)
		if !known {
			return
		}
		assert.Subset(t, drill.Regions, u.Joints)
		assert.Subset(t, drill.Planes, u.Planes)
		assert.True(t, u.Effort > 0 && u.Effort <= 1)
		assert.True(t, u.Seconds[0] <= u.Seconds[1] && u.Seconds[1] <= u.Seconds[2])
		assert.True(t, u.Pace[0] <= u.Pace[1] && u.Pace[1] <= u.Pace[2])
	})
}
