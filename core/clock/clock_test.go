package clock_test

import (
	"fmt"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
)

func ExampleOffset_ToGo() {
	fmt.Println(clock.Offset(-2280).ToGo(), clock.Offset(0).ToGo(), clock.Offset(150).ToGo())
	// Output: 38′ 0′ +2′30″
}

func TestParseDurationReadsWhatDurationWrites(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		seconds := rapid.IntRange(0, 86400).Draw(t, "seconds")
		read, err := clock.ParseDuration(clock.Duration(seconds))
		require.NoError(t, err)
		assert.Equal(t, seconds, read)
	})
	for _, bad := range []string{"", "x", "1:60", "-3", "+3", "1:2:3", "99999999", "1441"} {
		_, err := clock.ParseDuration(bad)
		assert.Error(t, err, bad)
	}
}

func TestCeilToForgivesAHair(t *testing.T) {
	assert.Equal(t, 90, clock.CeilTo(90.0000000001, 5))
	assert.Equal(t, 95, clock.CeilTo(90.1, 5))
	assert.Equal(t, 0, clock.CeilTo(0, 5))
}

func TestStartAtAClockChange(t *testing.T) {
	resolve := func(local string, which clock.Occurrence) (time.Time, error) {
		return clock.Start{Local: local, Zone: "Europe/London", Occurrence: which}.Resolve()
	}
	_, err := resolve("2027-03-28T01:30", clock.Only)
	assert.ErrorIs(t, err, clock.ErrSkipped)
	_, err = resolve("2026-10-25T01:30", clock.Only)
	assert.ErrorIs(t, err, clock.ErrRepeated)
	first, err := resolve("2026-10-25T01:30", clock.First)
	require.NoError(t, err)
	second, err := resolve("2026-10-25T01:30", clock.Second)
	require.NoError(t, err)
	assert.Equal(t, time.Hour, second.Sub(first))
	assert.Equal(t, clock.Second, clock.StartAt(second).Occurrence)
	_, err = resolve("2026-02-30T15:00", clock.Only)
	assert.ErrorIs(t, err, clock.ErrNotATime)
	_, err = clock.Start{Local: "2026-11-28T15:00", Zone: "Nowhere/At_All"}.Resolve()
	assert.ErrorContains(t, err, "not known")
}

func TestMomentOnTheClockStaysWhenTheStartMoves(t *testing.T) {
	start, err := clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}.Resolve()
	require.NoError(t, err)
	for _, moved := range []time.Duration{0, 20 * time.Minute, -15 * time.Minute} {
		at, err := clock.AtClock("14:10").Offset(start.Add(moved))
		require.NoError(t, err)
		assert.Equal(t, "14:10", clock.Clock(start.Add(moved), at))
		at, err = clock.BeforeStart(600).Offset(start.Add(moved))
		require.NoError(t, err)
		assert.Equal(t, clock.Offset(-600), at)
	}
	_, err = clock.AtClock("25:99").Offset(start)
	assert.Error(t, err)
}
