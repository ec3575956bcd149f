package log

import (
	"encoding/xml"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/week"
	"cuestart/planner"
	"cuestart/planner/keep"
	"cuestart/planner/learn"
)

// given is a week of two players, one of whom did neck holds.
func given() *learn.Week {
	neck := &drill.Drill{Code: "neck", Name: "Neck", Regions: []string{"neck"}, Qualities: []string{"strength"},
		Planes: []string{"front"}, Range: drill.Range{Target: 4}}
	work := []week.Work{{Player: "1", Day: "2026-11-24", Drill: neck, Seconds: 120}}
	target := club.Target{Squad: 1, Region: "neck", Quality: "strength", Days: 2}
	return &learn.Week{Squad: &keep.Squad{}, Monday: time.Date(2026, 11, 23, 0, 0, 0, 0, time.UTC),
		People: []learn.Weekly{{Key: "1", Name: "Ada <M."}, {Key: "2", Name: "Bo L."}},
		Given:  week.Of(work), Owed: week.Owing([]string{"1", "2"}, work, []week.Target{target}),
		Targets: []planner.Entry[club.Target]{{ID: 7, Is: target}}, Fills: []drill.Drill{*neck}}
}

func TestAWeekIsTheMeanOrOnes(t *testing.T) {
	b := &weekBody{}
	b.table(given())
	require.Equal(t, []string{"strength"}, b.Qualities)
	neck := b.Rows[len(b.Rows)-1]
	assert.Equal(t, "neck", neck.Region)
	assert.Equal(t, weekCell{"1.0", 100}, neck.Cells[0], "two minutes of one are one of each in the mean")
	assert.Equal(t, 4, neck.Cells[0].Step())
	assert.Empty(t, b.Planes[len(b.Planes)-1].Minutes)
	alone := &weekBody{Player: "1"}
	alone.table(given())
	assert.Equal(t, "2.0", alone.Rows[len(alone.Rows)-1].Cells[0].Minutes)
	nobody := &weekBody{Player: "2"}
	nobody.table(given())
	assert.Empty(t, nobody.Qualities)
}

func TestWhoMissesATargetIsNamed(t *testing.T) {
	b := &weekBody{}
	b.targets(given())
	require.Len(t, b.Targets, 1)
	assert.False(t, b.Targets[0].Met)
	assert.Equal(t, "Ada <M. (1 of 2), Bo L. (0 of 2)", b.Targets[0].Says)
	require.Len(t, b.Fills, 1)
	assert.Equal(t, "neck strength", b.Fills[0].Gives)
	one := &weekBody{Player: "2"}
	one.targets(given())
	assert.Equal(t, "Bo L. (0 of 2)", one.Targets[0].Says)
}

func TestThePictureOfAWeekIsWhole(t *testing.T) {
	for _, w := range []*learn.Week{given(), {Squad: &keep.Squad{}, Given: map[string]week.Given{}}} {
		reader := xml.NewDecoder(strings.NewReader(weekPicture(w)))
		for {
			_, err := reader.Token()
			if err == io.EOF {
				break
			}
			require.NoError(t, err)
		}
	}
	for minutes, says := range map[float64]string{0: "", -1: "", 0.01: "", 0.06: "0.1", 9.9: "9.9", 9.97: "10",
		120: "120"} {
		assert.Equal(t, says, minutesText(minutes), minutes)
	}
	assert.Zero(t, portion(3, 0))
	assert.Equal(t, 100, portion(7, 3))
}
