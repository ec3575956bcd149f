package share_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/conduct"
	"cuestart/core/drill"
	"cuestart/share"
)

// A log is saved with names, never ids; what a spreadsheet would run is text; read back, it
// is the same.
func TestALogIsSaved(t *testing.T) {
	l := &conduct.Log{Differs: []string{"Kick-off 10 min earlier"},
		Blocks: []conduct.Logged{{Block: "b1", Name: "=Scrum", Phase: drill.Sport, Leader: "Dorrit", Planned: 170,
			Actual: 195, Measured: true, Who: []string{"p1", "p2"}, Note: "wet; slow",
			Drills: []conduct.LoggedDrill{{Code: "scrum-sets", Name: "Scrum sets", Amount: 5, Seconds: 150,
				Without: []string{"p2"}}, {Item: 1, Code: "x", Name: "Walk", Amount: 2}}}},
		Players: []conduct.Attended{{Person: "p1", Name: "Ada M.", Was: conduct.There, Effort: 6},
			{Person: "p2", Name: "Bo L.", Was: conduct.Late, Effort: -1, Note: "bus"}}}
	file := share.NewLogFile("A v B", "2026-11-28", "2026/27", "cold", l)
	var out bytes.Buffer
	require.NoError(t, share.WriteLog(&out, file))
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(out.String(), "\ufeff"))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	assert.Equal(t, []string{"2026-11-28", "A v B", "'=Scrum", "sport", "Dorrit", "2:50", "3:15", "Scrum sets", "5",
		"150", "Ada M.; Bo L.", "Bo L.", "wet; slow"}, rows[1])
	out.Reset()
	require.NoError(t, share.WriteJSON(&out, file))
	assert.NotContains(t, out.String(), `"p1"`)
	again := new(share.LogFile)
	require.NoError(t, json.Unmarshal(out.Bytes(), again))
	file.Blocks[0].Drills[1].Without = nil // none is none
	assert.Equal(t, file, again)
	assert.Nil(t, again.Players[1].Effort, "who said nothing said nothing")
}

func TestAWeekIsSaved(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, share.WriteWeek(&out,
		[]share.WeekLine{{Player: "Ada M.", Region: "neck", Quality: "strength", Minutes: 1.2}}))
	assert.Contains(t, out.String(), "Ada M.,neck,strength,1.20")
	out.Reset()
	require.NoError(t, share.WriteWeek(&out, nil))
	assert.Equal(t, 1, strings.Count(out.String(), "\n"), "a week with nothing in it has its heading")
}

// Tests before and after come back from a table whole, and what is neither is named.
func TestTestsBeforeAndAfterAreReadBack(t *testing.T) {
	var out bytes.Buffer
	list := []club.Trial{{Player: "Ada Moss", Test: "Jump", Unit: "cm", Better: club.Higher, Day: "2026-11-28",
		Part: club.Before, Tries: []float64{31, 32.5}},
		{Player: "Ada Moss", Test: "Jump", Unit: "cm", Better: club.Higher, Day: "2026-11-28", Part: club.After,
			Mean: true, Tries: []float64{33}}}
	require.NoError(t, share.WriteTrials(&out, list))
	rows, wrong, err := share.ReadTrials(out.Bytes())
	require.NoError(t, err)
	require.Empty(t, wrong)
	require.Len(t, rows, 2)
	assert.Equal(t, list, []club.Trial{rows[0].Is, rows[1].Is})
	_, wrong,
		err = share.ReadTrials([]byte("player,test,unit,better,day,when,counts,tries\n" +
		"Ada,Jump,cm,higher,2026-11-28,during,most,31\n"))
	require.NoError(t, err)
	require.Len(t, wrong, 2)
	assert.Contains(t, wrong[0].What+wrong[1].What, "before, after, or nothing")
}
