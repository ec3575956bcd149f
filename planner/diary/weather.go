package diary

import (
	"context"
	"time"

	"cuestart/core/plan"
)

// Weather forecasts the hours of a day at a place: °C, rain in mm an hour, wind
// in m/s. It may be slow, wrong or away; no plan waits for it.
type Weather interface {
	Hours(ctx context.Context, place string, day time.Time) (celsius, rain, wind [24]float64, err error)
}

// patience is how long a page waits for the forecast.
const patience = 250 * time.Millisecond

// Forecast is what the weather service says of the hour of a start; ok is false
// where it did not answer in time, or not sensibly.
func (di *Diary) Forecast(ctx context.Context, place string, start time.Time) (day plan.Conditions, ok bool) {
	if di.Weather == nil || place == "" {
		return day, false
	}
	type answer struct {
		celsius, rain, wind [24]float64
		err                 error
	}
	ctx, cancel := context.WithTimeout(ctx, patience)
	defer cancel()
	got := make(chan answer, 1)
	go func() {
		var a answer
		a.celsius, a.rain, a.wind, a.err = di.Weather.Hours(ctx, place, start)
		got <- a
	}()
	select {
	case <-ctx.Done():
		return day, false
	case a := <-got:
		hour := start.Hour()
		air, wind := a.celsius[hour], a.wind[hour]
		if a.err != nil || plan.AirProblem(air) != "" || plan.WindProblem(wind) != "" ||
			!(a.rain[hour] >= 0 && a.rain[hour] <= 200) {
			return day, false
		}
		rained := a.rain[hour] >= 0.2 || hour > 0 && a.rain[hour-1] >= 0.2
		return plan.Conditions{Celsius: &air, Wind: wind, Wet: rained}, true
	}
}
