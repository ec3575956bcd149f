package weather_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/standin/weather"
)

func TestTheForecastLooksLikeWeather(t *testing.T) {
	ctx := context.Background()
	day := time.Date(2026, 1, 1, 15, 0, 0, 0, time.UTC)
	wet, cold, warm := 0, 0.0, 0.0
	for n := range 365 {
		air, rain, wind, err := weather.Service{}.Hours(ctx, "Tidegate", day.AddDate(0, 0, n))
		require.NoError(t, err)
		again, _, _, _ := weather.Service{}.Hours(ctx, "Tidegate", day.AddDate(0, 0, n))
		assert.Equal(t, air, again, "the same for the same place and day")
		rained := false
		for h := range air {
			assert.True(t, air[h] > -15 && air[h] < 35 && rain[h] >= 0 && rain[h] < 10 && wind[h] >= 0 && wind[h] < 15)
			rained = rained || rain[h] > 0
		}
		if rained {
			wet++
		}
		if n < 31 {
			cold += air[15] / 31
		} else if n >= 181 && n < 212 {
			warm += air[15] / 31
		}
	}
	assert.True(t, wet > 60 && wet < 200, "%d wet days", wet)
	assert.Greater(t, warm, cold+10, "July is warmer than January")
}

func TestTheServiceHasItsMoods(t *testing.T) {
	ctx, cancel := context.WithTimeout(context.Background(), 20*time.Millisecond)
	defer cancel()
	_, _, _, err := weather.Service{Mood: weather.Slow}.Hours(ctx, "x", time.Now())
	assert.ErrorIs(t, err, context.DeadlineExceeded)
	_, _, _, err = weather.Service{Mood: weather.Absent}.Hours(context.Background(), "x", time.Now())
	assert.Error(t, err)
	air, _, _, err := weather.Service{Mood: weather.Wrong}.Hours(context.Background(), "x", time.Now())
	require.NoError(t, err)
	assert.Greater(t, air[0], 100.0)
}
