package say_test

import (
	"encoding/json"
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
)

// What a drill and its dose take is what an experienced coach accepts, for one player without
// a queue: the book's drills and those that are known by their words alone.
func TestTimesAreAsACoachKnowsThem(t *testing.T) {
	text, err := os.ReadFile("testdata/pace-said.json")
	require.NoError(t, err)
	var all []struct {
		Drill, Dose string
		Seconds     [2]float64
	}
	require.NoError(t, json.Unmarshal(text, &all))
	within := 0
	for _, c := range all {
		d := empty()
		d.Players = d.Players[:1]
		d.Units = nil
		write(d, c.Drill+" "+c.Dose)
		seconds, says := 0.0, ""
		for i := range d.Blocks {
			for n, item := range d.Blocks[i].Items {
				for range max(1, d.Blocks[i].Rounds) {
					seconds += d.Blocks[i].Work(n, item.Drill.Range.Target, drill.Group{People: 1, Lanes: 1})
				}
				says += " + " + item.Drill.Code + ": " + item.Drill.Words(item.Drill.Range.Target)
			}
		}
		if seconds >= c.Seconds[0] && seconds <= c.Seconds[1] {
			within++
			continue
		}
		fmt.Printf("%s | %s: %.0f s, not %g to %g:%s\n", c.Drill, c.Dose, seconds, c.Seconds[0], c.Seconds[1], says)
	}
	assert.GreaterOrEqual(t, within, 79, "of %d", len(all))
}
