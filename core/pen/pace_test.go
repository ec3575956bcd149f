package pen_test

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
	type said struct {
		Drill, Dose string
		Seconds     [2]float64
	}
	var all []said
	for _, name := range []string{"testdata/pace-said.json", "testdata/pace-more.json"} {
		text, err := os.ReadFile(name)
		require.NoError(t, err)
		var some []said
		require.NoError(t, json.Unmarshal(text, &some))
		all = append(all, some...)
	}
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
	assert.GreaterOrEqual(t, 100*within, 95*len(all), "%d of %d", within, len(all))
}
