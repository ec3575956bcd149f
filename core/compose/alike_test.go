package compose_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/compose"
	"cuestart/core/conduct"
	"cuestart/core/schedule"
)

// What if the start were called earlier, asked at the desk, and the same pressed at the pitch
// side before anything has begun, have one answer: of sixty plans of all sports.
func TestTheDeskAndThePitchSideAnswerAlike(t *testing.T) {
	ctx, sports := context.Background(), book.Sports()
	for n := range 60 {
		s := &sports[n%len(sports)]
		b := brief(s, 6+n%25)
		b.Minutes = []int{35, 50, 60}[n%3]
		made, err := compose.Compose(ctx, b)
		require.NoError(t, err)
		d, earlier := made.Document, []int{10, 15, 5, 20}[n%4]
		plan, err := schedule.Fit(ctx, d, schedule.AtOnce)
		require.NoError(t, err)

		supposed := d.Clone()
		_, err = plan.Suppose(supposed, schedule.Supposed{Is: schedule.IfStart, Minutes: -earlier, Arrive: true})
		require.NoError(t, err)
		desk, err := schedule.Fit(ctx, supposed, schedule.AtOnce)
		require.NoError(t, err)

		stand, err := conduct.Of(conduct.Plan{Document: d, Schedule: plan}, nil, (plan.Start.Unix()-100*60)*1000)
		require.NoError(t, err)
		pitch, err := stand.Propose(ctx, conduct.Different{Is: conduct.IsStart, Seconds: -earlier * 60},
			schedule.AtOnce)
		require.NoError(t, err)

		assert.Equal(t, desk.Result.Feasible, pitch.Fits, "%s, %d min earlier", s.Key, earlier)
		for i, is := range desk.Blocks(supposed) {
			at := pitch.Placed[i]
			require.Equal(t, is.Kept, at.Kept, "%s, %d min earlier: %s", s.Key, earlier, is.Name)
			for k := range is.Items {
				assert.Equal(t, is.Amount(k), at.Amounts[k], "%s, %d min earlier: %s", s.Key, earlier, is.Name)
			}
		}
	}
}
