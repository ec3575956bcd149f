package phone

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Before its script runs, a phone says how far off the start is in what people count in.
func TestHowLongIsLeft(t *testing.T) {
	for at, want := range map[int][2]string{
		-9*86400 - 15*3600: {"9 d 15 h", "to go"},
		-86400:             {"1 d 0 h", "to go"},
		-2*3600 - 5*60:     {"2:05", "hours to go"},
		-27*60 - 5:         {"27′05″", "minutes to go"},
		0:                  {"0′", "minutes to go"},
	} {
		length, caption := left(at)
		assert.Equal(t, want, [2]string{length, caption})
	}
	length, caption := left(65)
	assert.Equal(t, []string{"+1′05″", "since the start"}, []string{length, caption})
}
