package movement_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
	"cuestart/core/movement"
)

// What a coach says of a drill of their own is what the chips say afterwards.
func TestAChipHoldsWhatWasSaid(t *testing.T) {
	travel := drill.Dose{Kind: drill.Travel, Trips: 2, Metres: 20, Speed: 2, TurnSeconds: 3, IntervalSeconds: 4,
		Flow: drill.Continuous}
	reps := drill.Dose{Kind: drill.Reps, Sets: 1, Reps: 8, Sides: 1, RepSeconds: 3}
	for _, c := range []struct {
		chip       movement.Chip
		dose       drill.Dose
		said, says string
	}{
		{chip: movement.For, dose: reps, said: "balance", says: "balance"},
		{chip: movement.Works, dose: reps, said: "hips and hamstrings", says: "knee, hip"},
		{chip: movement.Works, dose: reps, said: "ankle, turning", says: "ankle, turning"},
		{chip: movement.Works, dose: reps, said: "everything: whole body", says: "ankle, knee, hip, back, shoulder"},
		{chip: movement.Fast, dose: reps, said: "4 s a rep", says: "4 s a rep"},
		{chip: movement.Fast, dose: reps, said: "slow", says: "3 s a rep"},
		{chip: movement.Fast, dose: travel, said: "25 s a length", says: "25 s a length"},
		{chip: movement.Fast, dose: travel, said: "2,5 m/s", says: "8 s a length"},
		{chip: movement.Cue, dose: reps, said: "tall; quiet feet", says: "tall; quiet feet"},
		{chip: movement.Cue, dose: reps, said: "", says: ""},
	} {
		k := drill.Drill{Code: "our-x", Name: "Wobble reach", Dose: c.dose}
		require.NoError(t, movement.Set(&k, c.chip, c.said), c.said)
		assert.Equal(t, c.says, movement.Says(&k, c.chip), c.said)
	}
	for chip, said := range map[movement.Chip]string{movement.For: "fun for all", movement.Works: "blorp",
		movement.Fast: "like the wind", "colour": "red"} {
		k := drill.Drill{Code: "our-x", Name: "Wobble", Dose: reps}
		was := k
		assert.Error(t, movement.Set(&k, chip, said))
		assert.Equal(t, was, k, "nothing is changed")
	}
	k := drill.Drill{Name: "Sprint race", Dose: drill.Dose{Kind: drill.Time}}
	assert.ErrorContains(t, movement.Set(&k, movement.Fast, "quick"), "by the clock")
	k.Dose = travel
	assert.Error(t, movement.Set(&k, movement.Fast, "900 s a length"), "nobody goes so slowly")
	assert.Equal(t, travel, k.Dose)
}

func TestAMovementHasAnEasierAndAHarderForm(t *testing.T) {
	for name, want := range map[string][2]string{
		"Single-leg hop and stick": {"Hop and stick, two feet", "Single-leg hop and stick, repeated"},
		"Wobble walking lunge":     {"Wobble walking lunge, on the spot", "Wobble walking lunge, slow"},
		"Bear plank":               {"Bear plank, on the knees", "Bear plank, eyes closed"},
		"Star balance":             {"Star balance, holding on", "Star balance, eyes closed"},
		"Two-footed line jumps":    {"Two-footed line jumps, slower", "Line jumps, one leg"},
		"Blorp":                    {"", ""},
		"":                         {"", ""},
	} {
		assert.Equal(t, want, [2]string{movement.Easier(name), movement.Harder(name)}, name)
	}
}
