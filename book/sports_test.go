package book_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/drill"
)

func TestEverySportIsWhole(t *testing.T) {
	require.Len(t, book.Sports(), 24)
	known := func(code string) bool { _, ok := book.Find(code); return ok }
	for _, s := range book.Sports() {
		require.NoError(t, s.Validate(known), s.Key)
		for what, n := range map[string]int{"zones": len(s.Zones), "zones of the other form": len(s.Elsewhere),
			"lines": len(s.Lines), "shape": len(s.Shape), "kit": len(s.Kit),
			"measures": len(s.Measures), "targets": len(s.Targets), "fixed": len(s.Fixed),
			"examples": len(s.Example) - 2, "act": len(s.Act),
			"words to begin": min(len(s.Begins.First), len(s.Begins.Later)),
			"home and away":  min(len(s.Home.Called), len(s.Away.Called)), "minutes on the ground away": s.Away.From} {
			assert.Positive(t, n, "%s: %s", s.Key, what)
		}
		assert.Greater(t, s.Round(), 30.0, "%s: once round", s.Key)
		inUnit := map[string]bool{}
		for _, u := range s.Units {
			for _, p := range u.Positions {
				inUnit[p] = true
			}
		}
		for _, p := range s.Positions {
			assert.NotEmpty(t, s.Called[p], "%s: what a %s is called", s.Key, p)
			assert.True(t, inUnit[p] || len(s.Units) == 0, "%s: %s is in no unit", s.Key, p)
		}
		for _, target := range s.Targets {
			assert.NoError(t, club.Target{Region: target.Region, Quality: target.Quality, Hard: target.Hard,
				Days: target.Days, AtMost: target.AtMost}.Validate(), s.Key)
		}
		for _, line := range s.Lines {
			found, ok := s.Line("the " + line.Name)
			assert.True(t, ok && found.Metres == line.Metres, "%s: %s is told from others", s.Key, line.Name)
		}
		covered := false
		for _, z := range s.Zones {
			covered = covered || z.Plan("z").Covered
		}
		for _, z := range s.Elsewhere {
			assert.True(t, z.Plan("z").Covered != covered || covered && s.Ground == "ice" || s.Key == "class" ||
				s.Key == "roller-derby" || s.Key == "speed-skating" || s.Key == "tennis" || s.Key == "padel",
				"%s: %s is of the other form", s.Key, z.Name)
		}
	}
	assert.Subset(t, drill.Regions, book.Sports()[0].Stresses)
}

// Squads as the players of each sport would send them: who, with which number, and where they play.
func TestSquadsArePastedAsTheyAreSent(t *testing.T) {
	text, err := os.ReadFile("testdata/squads.json")
	require.NoError(t, err)
	var squads map[string]struct {
		Text    string
		Players [][3]any
	}
	require.NoError(t, json.Unmarshal(text, &squads))
	require.Len(t, squads, len(book.Sports()))
	all, right := 0, 0
	for key, squad := range squads {
		plays, _ := book.Sport(key)
		read := club.ReadNames(squad.Text, &plays)
		if !assert.Len(t, read, len(squad.Players), key) {
			continue
		}
		for i, want := range squad.Players {
			got := read[i]
			all++
			if got.Problem == "" && got.Player.Label() == want[0] && float64(got.Player.Number) == want[1] &&
				got.Player.Position == want[2] {
				right++
			} else {
				t.Logf("%s: want %v, read %q #%d %q %s", key, want, got.Player.Label(), got.Player.Number,
					got.Player.Position, got.Problem)
			}
		}
	}
	assert.GreaterOrEqual(t, float64(right)/float64(all), 0.95, "%d of %d", right, all)
}
