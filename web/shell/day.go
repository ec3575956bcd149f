package shell

import (
	"fmt"

	"cuestart/core/measure"
	"cuestart/core/plan"
)

// Day is the form of a day's conditions.
type Day struct {
	Air, Wind string
	In        measure.System
	Said      string // what the forecast says, or that it does not
	Ticks     []Tick
}

// dayTicks are the conditions that hold or do not.
var dayTicks = []struct {
	name, label string
	of          func(*plan.Conditions) *bool
}{
	{"wet", "wet ground", func(t *plan.Conditions) *bool { return &t.Wet }},
	{"uneven", "uneven ground", func(t *plan.Conditions) *bool { return &t.Uneven }},
	{"layers", "warm layers while waiting", func(t *plan.Conditions) *bool { return &t.Layers }},
	{"hard_yesterday", "the day after a hard day", func(t *plan.Conditions) *bool { return &t.HardYesterday }},
	{"tired_block", "a tired block of the season", func(t *plan.Conditions) *bool { return &t.TiredBlock }},
	{"after_loss", "after a defeat", func(t *plan.Conditions) *bool { return &t.AfterLoss }},
	{"light", "a light session follows", func(t *plan.Conditions) *bool { return &t.Light }},
	{"hard_next", "a hard session follows", func(t *plan.Conditions) *bool { return &t.HardNext }},
}

// DayOf is the form of known conditions.
func DayOf(t plan.Conditions, in measure.System) (d Day) {
	d.In = in
	if t.Celsius != nil {
		d.Air = fmt.Sprintf("%.3g", in.Thermometer(*t.Celsius))
	}
	if t.Wind > 0 {
		d.Wind = fmt.Sprintf("%.3g", in.Gauge(t.Wind))
	}
	for _, tick := range dayTicks {
		d.Ticks = append(d.Ticks, Tick{tick.name, tick.label, *tick.of(&t)})
	}
	return d
}

// Day reads the day's conditions: air, wind and day. It returns the form as it
// was sent too.
func (f *Form) Day() (t plan.Conditions, sent Day) {
	for _, tick := range dayTicks {
		*tick.of(&t) = f.Ticked("day", tick.name)
	}
	in := measure.System{Fahrenheit: f.Raw("degrees") == "°F", Miles: f.Raw("speeds") == "mph"} // as the form was shown
	sent = DayOf(t, in)
	sent.Air, sent.Wind = f.Text("air"), f.Text("wind")
	nowhere := plan.AirHighest + 1 // what is no number is refused as what lies outside
	if air, ok := f.Decimal("air", plan.AirProblem(nowhere)); ok {
		air = in.Celsius(air)
		f.Must("air", plan.AirProblem(air))
		t.Celsius = &air
	}
	if wind, ok := f.Decimal("wind", plan.WindProblem(-1)); ok {
		wind = in.Blows(wind)
		f.Must("wind", plan.WindProblem(wind))
		t.Wind = wind
	}
	return t, sent
}
