// Package measure says lengths, air and wind in the units that a club uses. They are kept in
// metres, °C and metres a second.
package measure

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"cuestart/core/pattern"
)

// Metres in a yard, a foot and a mile.
const (
	Yard = 0.9144
	Foot = 0.3048
	Mile = 1609.344
)

// System is which units a club uses; the zero System is metric.
type System struct {
	Yards      bool `json:"yards,omitempty"`
	Feet       bool `json:"feet,omitempty"`
	Fahrenheit bool `json:"fahrenheit,omitempty"`
	Miles      bool `json:"miles,omitempty"` // wind in miles an hour
}

// Unit is what lengths are said in: m, yd, ft.
func (s System) Unit() string {
	switch {
	case s.Feet:
		return "ft"
	case s.Yards:
		return "yd"
	}
	return "m"
}

// Units are what lengths are said in, in full: metres, yards, feet.
func (s System) Units() string {
	return map[string]string{"m": "metres", "yd": "yards", "ft": "feet"}[s.Unit()]
}

// In is a length of so many metres in the system's unit.
func (s System) In(metres float64) float64 {
	switch {
	case s.Feet:
		return metres / Foot
	case s.Yards:
		return metres / Yard
	}
	return metres
}

// Length is a length of so many metres as it is said: "20 m", "22 yd", "60 ft"; to a tenth.
func (s System) Length(metres float64) string { return s.Number(metres) + " " + s.Unit() }

// Number is Length without the unit.
func (s System) Number(metres float64) string {
	in := s.In(metres)
	if near := math.Round(in); s.Unit() != "m" && math.Abs(in-near) < 0.03 {
		return fmt.Sprintf("%g", near) // 18.29 m were 20 yards
	} else if s.Unit() == "m" {
		return fmt.Sprintf("%g", math.Round(100*in)/100)
	}
	if in >= 100 {
		return fmt.Sprintf("%g", math.Round(in))
	}
	return fmt.Sprintf("%g", math.Round(10*in)/10)
}

// Nice is about as far, a whole number of the system's unit that a coach would pace out: fives from ten on.
func (s System) Nice(metres float64) float64 {
	in := s.In(metres)
	switch {
	case s.Unit() == "m":
		return metres
	case in >= 10:
		in = 5 * math.Round(in/5)
	default:
		in = max(1, math.Round(in))
	}
	return s.Metres(in)
}

// Metres are so many of the system's unit in metres.
func (s System) Metres(in float64) float64 {
	switch {
	case s.Feet:
		return in * Foot
	case s.Yards:
		return in * Yard
	}
	return in
}

// units are the words for a length's unit, with the metres of one.
var units = []struct {
	words  string
	metres float64
}{{" m metre metres meter meters ", 1}, {" yd yds yard yards ", Yard}, {" ft foot feet ' ", Foot}}

// ReadLength reads a length as it is said, in the system's unit where none is said; false where
// it is none.
func (s System) ReadLength(text string) (metres float64, ok bool) {
	text = strings.ToLower(strings.TrimSpace(strings.Replace(text, ",", ".", 1)))
	end := strings.IndexFunc(text, func(r rune) bool { return (r < '0' || r > '9') && r != '.' })
	if end < 0 {
		end = len(text)
	}
	n, err := strconv.ParseFloat(text[:end], 64)
	if err != nil {
		return 0, false
	}
	unit := strings.Trim(text[end:], " .")
	if unit == "" {
		return toMillimetres(s.Metres(n)), true
	}
	for _, u := range units {
		if strings.Contains(u.words, " "+unit+" ") {
			return toMillimetres(n * u.metres), true
		}
	}
	return 0, false
}

func toMillimetres(metres float64) float64 { return math.Round(1000*metres) / 1000 }

// metresIn are lengths in a text: "12, 15, 18 m".
var metresIn = pattern.Must(`\b\d+(?:, \d+)* m\b`)

// degreesIn are temperatures in a text, of the air or over rest.
var degreesIn = pattern.Must(`\b(\d+) °C( over rest)?`)

// Text is a text with its metres in the system's unit, about as far, and its degrees.
func (s System) Text(text string) string {
	if s.Fahrenheit {
		text = degreesIn.ReplaceAllStringFunc(text, func(said string) string {
			m := degreesIn.FindStringSubmatch(said)
			n, _ := strconv.ParseFloat(m[1], 64) // it is digits
			if m[2] != "" {
				return s.Warmer(n) + m[2]
			}
			return s.Air(n)
		})
	}
	if s.Unit() == "m" {
		return text
	}
	return metresIn.ReplaceAllStringFunc(text, func(said string) string {
		list := strings.Split(strings.TrimSuffix(said, " m"), ", ")
		for i, one := range list {
			n, _ := strconv.ParseFloat(one, 64) // it is digits
			list[i] = s.Number(s.Nice(n))
		}
		return strings.Join(list, ", ") + " " + s.Unit()
	})
}

// Degrees is the unit of the air: °C, °F.
func (s System) Degrees() string {
	if s.Fahrenheit {
		return "°F"
	}
	return "°C"
}

// Air is a temperature of so many °C as it is said.
func (s System) Air(celsius float64) string {
	return fmt.Sprintf("%.4g %s", s.Thermometer(celsius), s.Degrees())
}

// Thermometer is what shows at so many °C.
func (s System) Thermometer(celsius float64) float64 {
	if s.Fahrenheit {
		return math.Round(10*(celsius*9/5+32)) / 10
	}
	return celsius
}

// Celsius is what a thermometer of the system shows, in °C.
func (s System) Celsius(shown float64) float64 {
	if s.Fahrenheit {
		return math.Round(100*(shown-32)*5/9) / 100
	}
	return shown
}

// Warmer is a difference of so many °C as it is said, to a tenth.
func (s System) Warmer(celsius float64) string {
	if s.Fahrenheit {
		celsius *= 1.8
	}
	return fmt.Sprintf("%.1f %s", celsius, s.Degrees())
}

// Speeds is the unit of the wind: m/s, mph.
func (s System) Speeds() string {
	if s.Miles {
		return "mph"
	}
	return "m/s"
}

// Wind is a wind of so many metres a second as it is said.
func (s System) Wind(speed float64) string { return fmt.Sprintf("%.3g %s", s.Gauge(speed), s.Speeds()) }

// Gauge is what a wind gauge of the system shows at so many metres a second.
func (s System) Gauge(speed float64) float64 {
	if s.Miles {
		return math.Round(10*speed*3600/Mile) / 10
	}
	return speed
}

// Blows is what a wind gauge of the system shows, in metres a second.
func (s System) Blows(shown float64) float64 {
	if s.Miles {
		return math.Round(100*shown*Mile/3600) / 100
	}
	return shown
}

// Usual is what is used where a time zone lies: yards, °F and miles in the United States, as most
// clubs there have it.
func Usual(zone string) System {
	for _, us := range []string{"America/New_York", "America/Chicago", "America/Denver", "America/Los_Angeles",
		"America/Phoenix", "America/Anchorage", "Pacific/Honolulu",
		"America/Detroit", "America/Boise", "America/Indiana/", "America/Kentucky/", "America/North_Dakota/", "US/"} {
		if strings.HasPrefix(zone, us) {
			return System{Yards: true, Fahrenheit: true, Miles: true}
		}
	}
	return System{}
}
