package trial_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/trial"
)

func TestAResultThatCannotBeIsSaid(t *testing.T) {
	others := []float64{31, 33, 29, 35}
	for _, c := range []struct {
		test trial.Test
		x    float64
		says string
	}{
		{jump, 32, ""},
		{jump, -5, "-5 cm cannot be: a result is above zero"},
		{jump, 0, "0 cm cannot be: a result is above zero"},
		{jump, 9999, "9999 cm is far from the usual 33 cm: is it a slip?"},
		{jump, 3.2, "3.2 cm is far from the usual 33 cm: is it a slip?"},
		{jump, math.NaN(), "a result is a number below a million"},
		{jump, math.Inf(1), "a result is a number below a million"},
		{trial.Test{Name: "Reach", Unit: "cm"}, -5, ""},
	} {
		assert.Equal(t, c.says, c.test.Problem(c.x, others), c.x)
	}
	assert.Empty(t, jump.Problem(9999, nil), "where nothing is known nothing is far off")
}

func TestTheUsualTestsAreWhole(t *testing.T) {
	met := map[string]bool{}
	for _, k := range trial.Known {
		assert.NotEmpty(t, k.Unit, k.Name)
		assert.False(t, met[k.Name], k.Name)
		met[k.Name] = true
		assert.Equal(t, k.Unit == "s", k.Lower, "%s: a shorter time is the better one", k.Name)
	}
}
