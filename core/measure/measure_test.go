package measure_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/measure"
)

func ExampleSystem_Length() {
	yards, feet := measure.System{Yards: true}, measure.System{Feet: true}
	fmt.Println(yards.Length(18.29), yards.Length(20), feet.Length(18.288), measure.System{}.Length(18.29))
	fmt.Println(yards.Length(yards.Nice(20)), feet.Length(feet.Nice(4)))
	fmt.Println(measure.System{Fahrenheit: true}.Text("Below 2 °C over rest; at 30 °C drink"))
	fmt.Println(feet.Text("12, 15, 18 m, then effort"))
	// Output:
	// 20 yd 21.9 yd 60 ft 18.29 m
	// 20 yd 15 ft
	// Below 3.6 °F over rest; at 86 °F drink
	// 40, 50, 60 ft, then effort
}

func TestALengthIsReadAsItIsSaid(t *testing.T) {
	yards := measure.System{Yards: true}
	for text, want := range map[string]float64{"20": 20 * measure.Yard, "20 m": 20, "20yd": 20 * measure.Yard,
		"60 ft": 60 * measure.Foot, "60'": 60 * measure.Foot, "10.5 metres": 10.5, " 10,5 m ": 10.5} {
		got, ok := yards.ReadLength(text)
		assert.True(t, ok, text)
		assert.InDelta(t, want, got, 0.001, text)
	}
	for _, text := range []string{"", "yd", "20 furlongs", "1e9", "-3", "٣ m", "20 m m"} {
		_, ok := yards.ReadLength(text)
		assert.False(t, ok, text)
	}
}

// What is said is read back, in any system.
func TestAirAndWindAreReadBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := measure.System{Fahrenheit: rapid.Bool().Draw(t, "f"), Miles: rapid.Bool().Draw(t, "mph")}
		air, wind := rapid.Float64Range(-30, 45).Draw(t, "air"), rapid.Float64Range(0, 40).Draw(t, "wind")
		assert.InDelta(t, air, s.Celsius(s.Thermometer(air)), 0.06)
		assert.InDelta(t, wind, s.Blows(s.Gauge(wind)), 0.06)
	})
	assert.True(t, measure.Usual("America/Chicago").Fahrenheit)
	assert.Equal(t, measure.System{}, measure.Usual("Europe/Dublin"))
}
