package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/plan"
)

// squad is a plan of n players with numbers.
func squad(n int) *plan.Document {
	d := &plan.Document{Hours: plan.Hours{Margin: 300, StartName: "Kick-off"}}
	for i := 1; i <= n; i++ {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i), Number: i, First: fmt.Sprint("Name", i),
			Last: "Z"})
	}
	return d
}

func TestNumbersAreWrittenAsACoachDoes(t *testing.T) {
	d := squad(12)
	for want, ids := range map[string][]string{"1–3": {"p3", "p1", "p2"}, "4 5": {"p4", "p5"},
		"1 3–5 9": {"p9", "p1", "p4", "p5", "p3"}, "7 +1": {"p7", "gone"}, "": nil} {
		assert.Equal(t, want, d.Numbers(ids))
	}
	short := func(text string) bool { return len(text) <= 14 }
	assert.Equal(t, "Name1 +2", d.FirstNames([]string{"p1", "p2", "p3"}, short))
	assert.Equal(t, "everybody", d.FirstNames(d.Members([]string{plan.Everyone}), short))
}

func TestAnAudienceIsNamedShortly(t *testing.T) {
	d := &plan.Document{
		Party: plan.Party{Units: []plan.Unit{{ID: "u", Name: "Line-out", Players: []string{"p1"}}}},
	}
	var all []string
	for n := 1; n <= 9; n++ {
		id := fmt.Sprintf("p%d", n)
		all = append(all, id)
		d.Players = append(d.Players, plan.Player{ID: id, First: string(rune('A' + n - 1))})
	}
	for want, ids := range map[string][]string{
		"Whole squad":        {plan.Everyone},
		"Line-out, B":        {"u", "p2"},
		"A, B, C, D":         all[:4],
		"A, B, C and 2 more": all[:5],
		"All but I":          all[:8],
		"All but G, H, I":    all[:6],
		"":                   {"gone"},
	} {
		assert.Equal(t, want, d.Audience(ids))
	}
	assert.Equal(t, "Whole squad", d.Audience(all), "one by one")
}

func TestACautionIsSaidOnce(t *testing.T) {
	var said []string
	for _, caution := range []string{"Even, dry ground only", "Light band; stop on pain", "Even, dry ground",
		"even, dry ground only; a knock to the head means out", "Stop on hip pain", "", "Nothing to mind",
		"élan first"} {
		said = plan.AddCaution(said, caution)
	}
	assert.Equal(t, []string{"Even, dry ground only", "Light band", "Élan first"}, said)
}
