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

func ExampleStart_Resolve() {
	for _, s := range []clock.Start{
		{Local: "2026-11-28T15:00", Zone: "Europe/London"},
		{Local: "2027-03-28T01:30", Zone: "Europe/London"},
		{Local: "2027-10-31T01:30", Zone: "Europe/London"},
		{Local: "2027-10-31T01:30", Zone: "Europe/London", Occurrence: clock.Second},
	} {
		at, err := s.Resolve()
		fmt.Println(at.UTC().Format(time.TimeOnly), err != nil)
	}
	// Output:
	// 15:00:00 false
	// 00:00:00 true
	// 00:00:00 true
	// 01:30:00 false
}

func ExampleMoment_Offset() {
	start, _ := clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}.Resolve()
	for _, m := range []clock.Moment{clock.BeforeStart(46 * 60), clock.AtClock("14:14"), clock.AtClock("15:10")} {
		o, _ := m.Offset(start)
		fmt.Println(o.ToGo(), o.Lasting(), clock.Clock(start, o))
	}
	// Output:
	// 46′ 46 min 14:14
	// 46′ 46 min 14:14
	// +10′ -10 min 15:10
}

// Every minute of every zone can be said, and is read as it was said.
func TestAnyMomentIsSaidOnTheClockOfItsZone(t *testing.T) {
	zones := []string{"UTC", "Europe/London", "America/St_Johns", "Australia/Lord_Howe", "Asia/Kathmandu",
		"Pacific/Apia", "Africa/Casablanca", "America/Asuncion"}
	rapid.Check(t, func(t *rapid.T) {
		zone, err := time.LoadLocation(rapid.SampledFrom(zones).Draw(t, "zone"))
		require.NoError(t, err)
		at := time.Unix(60*rapid.Int64Range(time.Date(2020, 1, 1, 0, 0, 0, 0, time.UTC).Unix()/60,
			time.Date(2035, 1, 1, 0, 0, 0, 0, time.UTC).Unix()/60).Draw(t, "minute"), 0).In(zone)
		start := clock.StartAt(at)
		again, err := start.Resolve()
		require.NoError(t, err, "%+v", start)
		assert.True(t, at.Equal(again), "%v was said as %+v, which is %v", at, start, again)
		before := rapid.IntRange(-3*3600, 12*3600).Draw(t, "before")
		o, err := clock.BeforeStart(before).Offset(at)
		require.NoError(t, err)
		assert.Equal(t, clock.Offset(-before), o)
	})
}

func TestWindowsShareWhatLiesInBoth(t *testing.T) {
	w := clock.Window{From: -600, To: -300}
	assert.Equal(t, 300, w.Seconds())
	assert.Zero(t, clock.Window{From: 0, To: -10}.Seconds(), "never negative")
	for _, c := range []struct {
		from, to clock.Offset
		shared   int
	}{{-600, -300, 300}, {-700, -500, 100}, {-400, 0, 100}, {-900, -600, 0}, {-300, 0, 0}, {-500, -400, 100},
		{-900, 0, 300}} {
		v := clock.Window{From: c.from, To: c.to}
		assert.Equal(t, c.shared, w.Overlap(v), "%v", v)
		assert.Equal(t, c.shared, v.Overlap(w))
	}
}

func TestMinutesToGoLookLikeNoClock(t *testing.T) {
	for o, want := range map[clock.Offset]string{-2280: "38′", -2310: "38′30″", 0: "0′", 120: "+2′", 150: "+2′30″",
		-5: "0′05″"} {
		assert.Equal(t, want, o.ToGo(), "%d", o)
		if o <= 0 {
			seconds, err := clock.ParseDuration(want)
			require.NoError(t, err)
			assert.EqualValues(t, -o, seconds, "what is shown can be typed")
		}
	}
	for seconds, want := range map[int]string{45: "45 s", 60: "1 min", 90: "1:30 min", 0: "0 s"} {
		assert.Equal(t, want, clock.Lasting(seconds))
	}
}

func TestAWrongMomentIsRefused(t *testing.T) {
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	for _, bad := range []string{"25:00", "14:60", "soon", "1400", "14:0"} {
		_, err := clock.AtClock(bad).Offset(start)
		assert.Error(t, err, bad)
	}
	for _, bad := range []clock.Start{{Local: "2026-11-28T15:00", Zone: "Moon/Base"}, {Local: "15:00", Zone: "UTC"},
		{Local: "2026-02-30T15:00", Zone: "UTC"}, {Zone: "UTC"}} {
		_, err := bad.Resolve()
		assert.Error(t, err, "%+v", bad)
	}
}
