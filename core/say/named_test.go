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
		{"rugby-union", "Jog to the 22 and back x4", 8, 22, "22", false},
		{"rugby-union", "jog 22 to 22 and back, twice", 4, 22, "22", false},
		{"football", "easy run out to the box and back, 4 times", 8, 16.5, "box", false},
		{"football", "strides goal line to half way 60/75/90%", 3, 52.5, "half way", false},
		{"netball", "side steps sideline to sideline x 4", 4, 15.25, "sideline", false},
		{"basketball", "defensive slides baseline to baseline x6", 6, 28, "baseline", false},
		{"ice-hockey", "backwards skate to the far blue and back x3", 6, 38, "far blue", false},
		{"baseball", "home to first x3", 3, 27.4, "home to first", false},
		{"american-football", "shuffle sideline to the hash and back, twice", 4, 18.288, "sideline", true},
		{"australian-football", "high knees to the fifty n back", 2, 50, "fifty", false},
		{"ultimate", "karaoke to the brick and back", 2, 18, "brick", false},
		{"volleyball", "shuffle to the net x6", 6, 9, "net", false},
		{"tennis", "side steps tramline to tramline 4 times", 4, 10.97, "tramline", false},
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
