package check_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// A finding says what is wrong, where and why; a mend makes it go away.
func ExampleCheck() {
	d := sound()
	d.Block("play").Aim = ""
	s, _ := schedule.Fit(context.Background(), d, 0)
	in := check.Input{Document: d, Schedule: s, Book: book}
	for _, f := range check.Check(in) {
		fmt.Println(f.Severity, f.Rule, f.Where)
		next, said, _ := check.Mend(context.Background(), in, f.Rule, f.Where)
		fmt.Println(said, "→", next.Block("play").Aim)
	}
	// Output:
	// note no-aim play
	// play: why → why
}

// Each rule has a name of its own, says why, and no stop that medical staff ruled
// can be kept against.
func TestEveryRuleIsOneRow(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range check.Rules {
		assert.False(t, seen[r.ID], "%s is one rule alone", r.ID)
		seen[r.ID] = true
		assert.NotEmpty(t, r.Why, r.ID)
		assert.Contains(t, []check.Severity{check.Stop, check.Warn, check.Note}, r.Severity, r.ID)
	}
	assert.False(t, check.Excusable("restriction"))
	assert.True(t, check.Excusable("no-aim"))
	assert.Equal(t, 1, check.Count([]check.Finding{{Severity: check.Note}, {Severity: check.Stop}}).Stops)
}

// What a coach keeps with a reason stays a finding, and says the reason.
func TestAKeptFindingSaysWhy(t *testing.T) {
	d := sound()
	d.Block("play").Aim = ""
	d.Exceptions = []plan.Exception{{Rule: "no-aim", Where: "play", Reason: "everybody knows"}}
	found := check.Check(input(t, d))
	if assert.Len(t, found, 1) {
		assert.Equal(t, "everybody knows", found[0].Reason)
	}
	d.Exceptions[0].Where = "quick"
	assert.Empty(t, check.Check(input(t, d))[0].Reason, "kept elsewhere")
}

// A mend of what is not there, or of nothing that a change could mend, is refused.
func TestNoMendIsSaid(t *testing.T) {
	in := input(t, sound())
	for _, rule := range []string{"no-aim", "unknown", ""} {
		_, _, err := check.Mend(context.Background(), in, rule, "play")
		assert.ErrorIs(t, err, check.ErrNoMend, rule)
	}
	d := sound()
	d.Blocks = append(d.Blocks, block("late", drill.Raise, timed("hold", drill.Raise, 0.3, 60, nil)))
	before := d.Clone()
	check.Check(input(t, d))
	assert.Equal(t, before, d, "checking changes nothing")
}
