package pen_test

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// What a sheet prints of a drill is what may be said: read again, it is the same dose.
func TestASheetsDosesAreReadBack(t *testing.T) {
	text, err := os.ReadFile("testdata/plans.txt")
	require.NoError(t, err)
	for _, said := range strings.Split(string(text), "===\n") {
		d := empty()
		write(d, said)
		for b := range d.AllBlocks() {
			for n, printed := range (&schedule.Block{Block: b, Group: d.Group(b)}).Named() {
				if k := b.Items[n].Drill; b.Form == plan.AtStations && k.Dose.Kind == drill.Time {
					printed += " in all" // the head of the stations says so
				}
				again := empty()
				write(again, printed)
				if !assert.NotEmpty(t, again.Blocks, printed) {
					continue
				}
				is, was := again.Blocks[len(again.Blocks)-1].Items[0].Drill, b.Items[n].Drill
				assert.Equal(t, was.Words(was.Range.Target), is.Words(is.Range.Target), printed)
			}
		}
	}
}
