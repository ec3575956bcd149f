package plan

import "fmt"

// Conditions are the day's facts that change doses and checks.
type Conditions struct {
	Celsius       *float64 `json:"air_celsius,omitempty"` // nil: not known
	Wind          float64  `json:"wind,omitempty"`        // m/s
	Layers        bool     `json:"layers,omitempty"`      // warm layers are worn while waiting
	Wet           bool     `json:"wet,omitempty"`
	Uneven        bool     `json:"uneven,omitempty"`
	HardYesterday bool     `json:"hard_yesterday,omitempty"`
	TiredBlock    bool     `json:"tired_block,omitempty"` // a hard block of the season
	AfterLoss     bool     `json:"after_loss,omitempty"`  // a game lifts the mood
	Light         bool     `json:"light,omitempty"`       // a light session follows
	HardNext      bool     `json:"hard_next,omitempty"`   // a hard session follows: what leads up to it is kept small
	DrinkEvery    int      `json:"drink_every,omitempty"` // minutes between drink stops; 0: none are planned
	Off           []string `json:"off,omitempty"`         // factors that the coach switched off, by id
	On            []string `json:"on,omitempty"`          // factors that the coach wants of what they wrote too, by id
	Written       Offers   `json:"written,omitempty"`     // what the day's factors do to what a coach wrote
}

// Offers says what the day's factors do to what a coach wrote.
type Offers string

// What a club may want of them.
const (
	Ask    Offers = ""       // each is an offer
	Always Offers = "always" // they are done at once
	Never  Offers = "never"  // they are not spoken of
)

// What a day's air and wind may be, as they are entered or forecast.
const (
	AirLowest   = -40.0 // °C
	AirHighest  = 55.0  // °C
	WindHighest = 60.0  // m/s
)

// DrinkEvery is how many minutes lie between drink stops in the heat, unless a
// coach says otherwise.
const DrinkEvery = 10

// AirProblem says what is wrong with a temperature in °C, or "".
func AirProblem(celsius float64) string {
	if celsius >= AirLowest && celsius <= AirHighest { // false for NaN
		return ""
	}
	return fmt.Sprintf("the air lies between %g and %g °C", AirLowest, AirHighest)
}

// WindProblem says what is wrong with a wind in m/s, or "".
func WindProblem(speed float64) string {
	if speed >= 0 && speed <= WindHighest {
		return ""
	}
	return fmt.Sprintf("the wind lies between 0 and %g m/s", WindHighest)
}

// Air is how a temperature feels to somebody who warms up.
type Air string

// The bands of air, by a coach's rule of thumb: up to 5 °C, up to 12 °C, from
// 24 °C, from 30 °C, and what lies between.
const (
	Cold Air = "cold"
	Cool Air = "cool"
	Mild Air = "mild"
	Warm Air = "warm"
	Hot  Air = "hot"
)

// AirOf is the band of a temperature in °C.
func AirOf(celsius float64) Air {
	switch {
	case celsius <= 5:
		return Cold
	case celsius <= 12:
		return Cool
	case celsius >= 30:
		return Hot
	case celsius >= 24:
		return Warm
	}
	return Mild
}

// Air is the day's band; Mild where no temperature is known.
func (c Conditions) Air() Air {
	if c.Celsius == nil {
		return Mild
	}
	return AirOf(*c.Celsius)
}

// MaxLate is how many seconds after the opening a player may come at the most:
// a day.
const MaxLate = 24 * 3600

// lateProblem says what is wrong with a lateness in seconds, or "".
func lateProblem(seconds int) string {
	if seconds < 0 || seconds > MaxLate {
		return "late or due lies outside the day"
	}
	return ""
}

// MissesMuch tells whether a late player misses a third of the seconds that
// there are to work, and so needs a short version of their own.
func (p Player) MissesMuch(seconds int) bool { return 3*p.Late > seconds }
