package say_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/book"
	"cuestart/core/say"
)

// Lines of the ground are known by what each sport calls them; there and back is two lengths, and
// where it goes is told with it.
func TestALineOfTheGroundIsKnownByItsName(t *testing.T) {
	for _, c := range []struct {
		sport, line  string
		trips        int
		metres       float64
		to           string
		alsoNoMetres bool
	}{
		{sport: "rugby-union", line: "Jog to the 22 and back x4", trips: 8, metres: 22, to: "22", alsoNoMetres: false},
		{sport: "rugby-union", line: "jog 22 to 22 and back, twice", trips: 4, metres: 22, to: "22",
			alsoNoMetres: false},
		{sport: "football", line: "easy run out to the box and back, 4 times", trips: 8, metres: 16.5, to: "box",
			alsoNoMetres: false},
		{sport: "football", line: "strides goal line to half way 60/75/90%", trips: 3, metres: 52.5, to: "half way",
			alsoNoMetres: false},
		{sport: "netball", line: "side steps sideline to sideline x 4", trips: 4, metres: 15.25, to: "sideline",
			alsoNoMetres: false},
		{sport: "basketball", line: "defensive slides baseline to baseline x6", trips: 6, metres: 28, to: "baseline",
			alsoNoMetres: false},
		{sport: "ice-hockey", line: "backwards skate to the far blue and back x3", trips: 6, metres: 38, to: "far blue",
			alsoNoMetres: false},
		{sport: "baseball", line: "home to first x3", trips: 3, metres: 27.4, to: "home to first", alsoNoMetres: false},
		{sport: "american-football", line: "shuffle sideline to the hash and back, twice", trips: 4, metres: 18.288,
			to: "sideline", alsoNoMetres: true},
		{sport: "australian-football", line: "high knees to the fifty n back", trips: 2, metres: 50, to: "fifty",
			alsoNoMetres: false},
		{sport: "ultimate", line: "karaoke to the brick and back", trips: 2, metres: 18, to: "brick",
			alsoNoMetres: false},
		{sport: "volleyball", line: "shuffle to the net x6", trips: 6, metres: 9, to: "net", alsoNoMetres: false},
		{sport: "tennis", line: "side steps tramline to tramline 4 times", trips: 4, metres: 10.97, to: "tramline",
			alsoNoMetres: false},
	} {
		plays, ok := book.Sport(c.sport)
		require.True(t, ok, c.sport)
		r := say.NewReader(say.Context{Sport: c.sport, Plays: &plays, Book: book.Drills()})
		line := r.Read(c.line)
		if !assert.NotNil(t, line.Dose, c.line) {
			continue
		}
		assert.Equal(t, c.trips, line.Dose.Trips, c.line)
		assert.InDelta(t, c.metres, line.Dose.Metres, 0.01, c.line)
		if !c.alsoNoMetres {
			assert.Equal(t, c.to, line.Dose.To, c.line)
		}
		assert.Contains(t, strings.Join(line.Cues, " "), "to the", c.line)
	}
	plays, _ := book.Sport("rugby-union")
	r := say.NewReader(say.Context{Sport: "rugby-union", Plays: &plays, Positions: []string{"Prop", "Wing"},
		Book: book.Drills()})
	for text, who := range map[string]string{"looseheads: neck holds 3 x 6 s": "Prop",
		"wingers: high balls 6": "Wing"} {
		assert.Equal(t, []string{who}, r.Read(text).Who, "a position is named as its players call it: %s", text)
	}
	eight := say.NewReader(say.Context{Sport: "rugby-union", Plays: &plays,
		Players: []say.Player{{Number: 8, Name: "Hester Quill"}}, Book: book.Drills()})
	assert.Empty(t, eight.Read("overheads eight").Who, "a number is said once: for how many")
	assert.Equal(t, []string{"8"}, eight.Read("8: high balls 4").Who)
	squad := say.Context{Plays: &plays, Book: book.Drills()}
	for n := range 23 {
		squad.Players = append(squad.Players, say.Player{Number: n + 1, Name: fmt.Sprintf("Wren %c", 'A'+n)})
	}
	full := say.NewReader(squad)
	for n := 2; n <= 23; n++ { // a number behind a drill is how many, and nobody
		line := full.Read(fmt.Sprintf("groin rocks %d", n))
		assert.Empty(t, line.Who, n)
		assert.Equal(t, n, line.Dose.Reps, n)
	}
	for _, said := range []string{"10 squats", "22 press-ups", "hold for 50", "press to the back", "half squats 10"} {
		if d := r.Read(said).Dose; d != nil {
			assert.Empty(t, d.To, said)
		}
	}
	assert.Equal(t, []float64{0.5, 0.7, 0.9}, r.Read("build ups 30 m, 50 70 90 %").Dose.Efforts)
	rapid.Check(t, func(t *rapid.T) {
		words := rapid.SliceOfN(rapid.SampledFrom([]string{"to", "the", "22", "half way", "and back", "x4", "posts",
			"touch", "twice", "jog", "10", ",", "from", "%"}), 1, 9).Draw(t, "words")
		if d := r.Read(strings.Join(words, " ")).Dose; d != nil && d.To != "" {
			assert.Positive(t, d.Metres)
			assert.Positive(t, d.Trips)
		}
	})
}
