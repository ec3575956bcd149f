package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
)

// How much there is today is the plan's own; what cannot be counted changes nothing.
func TestStockIsOfTheDay(t *testing.T) {
	d := &plan.Document{Party: plan.Party{Kit: map[string]int{"cone": 40, "hurdle": 6}}}
	club := d.Kit
	said, err := d.SetStock(map[string]int{"hurdle": 20, "rope": 10})
	require.NoError(t, err)
	assert.Equal(t, "There are 20 × hurdle, 10 × rope", said)
	assert.Equal(t, map[string]int{"cone": 40, "hurdle": 20, "rope": 10}, d.Kit)
	assert.Equal(t, 6, club["hurdle"], "the club's own stays")
	for what, pieces := range map[string]map[string]int{"none": {}, "too many": {"hurdle": 1001},
		"less than none": {"hurdle": -1}, "no name": {"": 3}, "a long name": {strings.Repeat("x", 90): 3},
		"of the place": {"post": 2}, "one bad": {"rope": 5, "wall": 1}} {
		_, err := d.SetStock(pieces)
		assert.Error(t, err, what)
	}
	assert.Equal(t, 10, d.Kit["rope"])
}

func TestAGroupIsNamedByNumbersWhereAllHaveOne(t *testing.T) {
	d := &plan.Document{
		Party: plan.Party{Players: []plan.Player{{ID: "a", Number: 4, First: "Ada", Last: "Moss"},
			{ID: "b", Number: 5, First: "Bo"}, {ID: "c", First: "Cy", Last: "Lind"}}},
	}
	for want, ids := range map[string][]string{"4 5": {"a", "b", "gone"}, "Ada M., Cy L.": {"a", "c"}, "": {"gone"}} {
		assert.Equal(t, want, d.GroupNames(ids))
	}
}
