package today

import (
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
)

func TestHowFarOffAStartIs(t *testing.T) {
	for want, left := range map[string]time.Duration{"in 30 minutes": 30 * time.Minute,
		"in 3 hours": 3*time.Hour + time.Minute, "in 3 days": 80 * time.Hour} {
		assert.Equal(t, want, away(left))
	}
}

func TestTheUsualStartIsTheNextSaturday(t *testing.T) {
	for now, want := range map[string]string{"2026-11-25T10:00:00Z": "2026-11-28T15:00",
		"2026-11-28T14:59:00Z": "2026-11-28T15:00", "2026-11-28T15:00:00Z": "2026-12-05T15:00"} {
		at, _ := time.Parse(time.RFC3339, now)
		assert.Equal(t, want, nextSaturday(at, "Europe/London"))
	}
	assert.Empty(t, nextSaturday(time.Now(), "Moon/Base"))
}
