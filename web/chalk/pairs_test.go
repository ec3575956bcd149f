package chalk_test

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/web/chalk"
)

func TestPairsAreDrawnWithTheirNumbers(t *testing.T) {
	assert.Empty(t, chalk.Pairs(nil, "cm"))
	drawn := string(chalk.Pairs([]chalk.Pair{{Name: "<Ada>", From: 31, To: 32.5, Real: true},
		{Name: "Bo", From: 30, To: 29}}, "cm"))
	assert.Contains(t, drawn, "&lt;Ada&gt;")
	assert.NotContains(t, drawn, "<Ada>")
	assert.Contains(t, drawn, ">+1.5<")
	assert.Contains(t, drawn, ">-1<")
	assert.Contains(t, drawn, ">cm<")
	assert.Equal(t, 1, strings.Count(drawn, `stroke-width="4"`), "one is likely real")
}

// Whatever the results, the chart is well formed and everything lies on it.
func TestPairsAlwaysFit(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		list := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) chalk.Pair {
			return chalk.Pair{Name: "x", From: rapid.Float64Range(-1e4, 1e4).Draw(t, "from"),
				To: rapid.Float64Range(-1e4, 1e4).Draw(t, "to")}
		}), 1, 8).Draw(t, "list")
		if rapid.Bool().Draw(t, "same") {
			for i := range list {
				list[i].To, list[i].From = list[0].From, list[0].From
			}
		}
		drawn := string(chalk.Pairs(list, "cm"))
		assert.NotContains(t, drawn, "NaN")
		assert.NotContains(t, drawn, "Inf")
		reader := xml.NewDecoder(strings.NewReader(drawn))
		for {
			_, err := reader.Token()
			if err == io.EOF {
				break
			}
			require.NoError(t, err)
		}
	})
}
