package shell

import (
	"errors"
	"fmt"
	"net/url"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/planner"
)

// sent is a form with one field.
func sent(name, value string) *Form { return NewForm(url.Values{name: {value}}) }

func TestAMomentIsReadAsItIsWritten(t *testing.T) {
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	for _, text := range []string{"46", "4:30", "0", "@13:52"} {
		f := sent("at", text)
		assert.Equal(t, text, MomentText(f.Moment("at"), start))
		require.NoError(t, f.Err(), text)
	}
	for _, bad := range []string{"", "soon", "@25:00", "@", "4:99", "-3"} {
		f := sent("at", bad)
		f.Moment("at")
		assert.NotEmpty(t, Problems(f.Err()).At("at"), bad)
	}
}

// Nothing is taken for something else: what is no number is refused, never 0.
func TestANumberIsReadOrRefused(t *testing.T) {
	for text, want := range map[string]int{"0": 0, " 12 ": 12, "1440": 1440, "ten": -1, "-1": -1, "1441": -1, "1.5": -1,
		"12e1": -1, "": 7} {
		f := sent("late", text)
		got := f.IntOr("late", 7, 0, 1440)
		if want < 0 {
			assert.NotEmpty(t, Problems(f.Err()).At("late"), text)
			continue
		}
		assert.NoError(t, f.Err(), text)
		assert.Equal(t, want, got)
	}
	f := sent("late", "")
	f.At("players").Int("late", 0, 10)
	f.At("").Int("minutes", 5, 180)
	wrong := Problems(f.Err())
	assert.Equal(t, "write a whole number between 0 and 10", wrong.At("players"), "one that has to be there")
	assert.Equal(t, "write a whole number between 5 and 180", wrong.At("minutes"))
	for text, want := range map[string]float64{"4": 4, "-3,5": -3.5, "1e2": 100} {
		got, there := sent("air", text).Decimal("air", "no")
		assert.True(t, there)
		assert.Equal(t, want, got)
	}
	for _, bad := range []string{"cold", "NaN", "1,2,3"} {
		f := sent("air", bad)
		_, there := f.Decimal("air", "no air")
		assert.False(t, there)
		assert.Equal(t, "no air", Problems(f.Err()).At("air"))
	}
}

func TestADayIsReadAsItIsShown(t *testing.T) {
	air := -2.5
	day := plan.Conditions{Celsius: &air, Wind: 9, Wet: true, AfterLoss: true}
	shown := DayOf(day, measure.System{Fahrenheit: true})
	assert.Equal(t, "27.5", shown.Air)
	values := url.Values{"air": {shown.Air}, "wind": {shown.Wind}, "degrees": {shown.In.Degrees()},
		"speeds": {shown.In.Speeds()}}
	for _, tick := range shown.Ticks {
		if tick.On {
			values.Add("day", tick.Value)
		}
	}
	f := NewForm(values)
	read, again := f.Day()
	require.NoError(t, f.Err())
	assert.Equal(t, day, read)
	assert.Equal(t, shown, again)
	for field, bad := range map[string]string{"air": "56", "wind": "61"} {
		f := sent(field, bad)
		_, again := f.Day()
		assert.NotEmpty(t, Problems(f.Err()).At(field))
		assert.Contains(t, []string{again.Air, again.Wind}, bad, "it is shown as it was sent")
	}
}

func TestOnlyPathsOfThisSiteAreGoneBackTo(t *testing.T) {
	for path, want := range map[string]string{"/sessions/1?block=a": "/sessions/1?block=a", "//evil.example": "/today",
		"https://evil.example": "/today",
		"":                     "/today", "/\\evil": "/today", "/a\r\nb": "/today"} {
		assert.Equal(t, want, SafePath(path))
	}
	assert.Equal(t, "/sessions/7/blocks/a/dose", Session(7, "blocks", "a", "dose"))
	assert.Equal(t, "/sessions/7?block=a+b", Block(7, "a b"))
	assert.Equal(t, "/squad?squad=2&player=new", Squad(2, "player", "new"))
}

// An error of a form is a sentence at a place; any other is none of the form's.
func TestWhatARefusalSays(t *testing.T) {
	for err, where := range map[error]string{plan.ErrNoSuchBlock: "board", planner.ErrNothing: "board",
		planner.ErrTaken: "taken", fmt.Errorf("wrapped: %w", planner.ErrStale): "stale"} {
		require.Len(t, Problems(err), 1)
		assert.Equal(t, where, Problems(err)[0].Where)
	}
	assert.Nil(t, Problems(errors.New("the disk is full")))
	assert.Nil(t, Problems(planner.ErrNotFound))
}
