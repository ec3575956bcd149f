package book_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/book"
	"cuestart/core/drill"
)

func TestEveryPhaseHasDrills(t *testing.T) {
	assert.GreaterOrEqual(t, len(book.Drills()), 30)
	for _, phase := range []drill.Phase{drill.Raise, drill.Activate, drill.Mobilise, drill.Potentiate, drill.Sport, drill.Own} {
		n := 0
		for _, d := range book.Drills() {
			if d.Serves(phase) {
				n++
			}
			assert.NotEmpty(t, d.Cues, d.Code)
		}
		assert.GreaterOrEqual(t, n, 3, "phase %q", phase)
	}
}

func TestABookWithAMistakeIsRefused(t *testing.T) {
	for _, bad := range []string{"- x: [", "- {code: a, name: A, aim: b, jumps: 3}", "- {code: a, name: A, aim: b, dose: {kind: time}, range: {min: 0, target: 1, max: 1, step: 1}}"} {
		_, err := book.Read([]byte(bad))
		assert.Error(t, err, bad)
	}
}
