// Package weather stands in for a forecast service: hourly values that look
// like autumn to spring in the temperate north, the same for the same place and
// day. It can be made slow, wrong or absent, as a real one is at times.
package weather

import (
	"context"
	"errors"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"time"
)

// Service is a simulated forecast. The zero value answers at once, and well.
type Service struct {
	Mood Mood
}

// Mood is how the service behaves today.
type Mood string

// The moods.
const (
	Well   Mood = ""
	Slow   Mood = "slow"   // answers after ten seconds
	Wrong  Mood = "wrong"  // answers with nonsense
	Absent Mood = "absent" // does not answer
)

// Hours forecasts the hours of a day at a place: air in °C, rain in mm an hour,
// wind in m/s. It fails where it is absent, or ctx ends first.
func (s Service) Hours(ctx context.Context, place string, day time.Time) (celsius, rain, wind [24]float64, err error) {
	switch s.Mood {
	case Absent:
		return celsius, rain, wind, errors.New("the weather service does not answer")
	case Wrong:
		for h := range celsius {
			celsius[h], rain[h], wind[h] = 999, -1, math.NaN()
		}
		return celsius, rain, wind, nil
	case Slow:
		select {
		case <-ctx.Done():
			return celsius, rain, wind, ctx.Err()
		case <-time.After(10 * time.Second):
		}
	}
	h := fnv.New64a()
	h.Write([]byte(place + day.Format(time.DateOnly)))
	r := rand.New(rand.NewPCG(h.Sum64(), 7))
	season := 10 - 8*math.Cos(2*math.Pi*float64(day.YearDay()-15)/365)
	mean, swing, wet, blow := season+6*(r.Float64()-0.5), 2+4*r.Float64(), r.Float64() < 0.35, 2+6*r.Float64()
	from := r.IntN(24)
	for hour := range celsius {
		celsius[hour] = math.Round(10*(mean-swing*math.Cos(2*math.Pi*float64(hour-3)/24))) / 10
		wind[hour] = math.Round(10*(blow+2*r.Float64())) / 10
		if wet && (hour-from+24)%24 < 5 {
			rain[hour] = math.Round(10*(0.3+2*r.Float64())) / 10
		}
	}
	return celsius, rain, wind, nil
}
