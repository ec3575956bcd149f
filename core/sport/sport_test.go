package sport_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
)

func netball() sport.Sport {
	return sport.Sport{Key: "netball", Name: "Netball", Start: "First centre pass", Stresses: []string{"knee"},
		Positions: []string{"Shooter", "Centre"},
		Units:     []sport.Unit{{Name: "Circle", Positions: []string{"Shooter"}}},
		Zones:     []sport.Zone{{Name: "Third", Capacity: 10, Lanes: 2}},
		Due:       []sport.Due{{Who: "Shooter", Later: 5}},
		Fixed:     []sport.Fixed{{Name: "Line up", Who: sport.Everyone, From: 4}},
		Craft: []sport.Craft{{Name: "Shots", For: []string{"Circle"}, Drills: []string{"shots"},
			Priority: plan.Must, Zone: "Third"}},
		Team: sport.Craft{Name: "Passes", Drills: []string{"shots"}, Priority: plan.Could}}
}

func known(code string) bool { return code == "shots" }

func ExampleSport_Covers() {
	n := netball()
	fmt.Println(n.Covers("Circle", "Shooter"), n.Covers("Circle", "Centre"), n.Covers("Centre", "Centre"))
	// Output: true false true
}

func TestAMistakeInASportIsNamed(t *testing.T) {
	n := netball()
	require.NoError(t, n.Validate(known))
	for says, spoil := range map[string]func(*sport.Sport){
		"a sport needs a key":             func(s *sport.Sport) { s.Zones = nil },
		`"soul" is not a joint`:           func(s *sport.Sport) { s.Stresses = []string{"soul"} },
		`"Libero" is not a position`:      func(s *sport.Sport) { s.Units[0].Positions = []string{"Libero"} },
		`due "Libero": it is nobody`:      func(s *sport.Sport) { s.Due[0].Who = "Libero" },
		"Line up ends before it starts":   func(s *sport.Sport) { s.Fixed[0].To = 5 },
		"Shots: pick at least one drill":  func(s *sport.Sport) { s.Craft[0].Drills = nil },
		`Shots is for "Libero"`:           func(s *sport.Sport) { s.Craft[0].For = []string{"Libero"} },
		`there is no zone "Moon"`:         func(s *sport.Sport) { s.Craft[0].Zone = "Moon" },
		`Passes: there is no drill "fly"`: func(s *sport.Sport) { s.Team.Drills = []string{"fly"} },
	} {
		s := netball()
		spoil(&s)
		assert.ErrorContains(t, s.Validate(known), says)
	}
	assert.Equal(t, []drill.Phase{drill.Sport, drill.Own, drill.Mobilise},
		[]drill.Phase{sport.Craft{}.In(), sport.Craft{Phase: "own"}.In(), sport.Craft{Phase: "mobilise"}.In()})
}

func TestAPositionIsFoundAsItIsCalled(t *testing.T) {
	netball := sport.Sport{Called: map[string][]string{"Goal shooter": {"GS"}, "Goal attack": {"GA"}},
		Positions: []string{"Goal shooter", "Goal attack", "Centre", "Goal keeper"}}
	hockey := sport.Sport{Called: map[string][]string{"Keeper": {"goalie"}},
		Positions: []string{"Keeper", "Defender", "Midfielder", "Forward"}}
	for said, want := range map[string][2]string{"GS": {"Goal shooter", ""}, "ga": {"Goal attack", ""},
		"centre": {"Centre", ""}, "goal-keeper": {"Goal keeper", ""},
		"Gaol Attack": {"", "Goal attack"}, "drummer": {"", ""}, "": {"", ""}} {
		position, near := netball.Find(said)
		assert.Equal(t, want, [2]string{position, near}, said)
	}
	position, _ := hockey.Find("goalie")
	assert.Equal(t, "Keeper", position)
	keepers := 0
	for n := range 20 {
		if hockey.Position(n) == "Keeper" {
			keepers++
		}
	}
	assert.Equal(t, 2, keepers, "of twenty whom nobody has named")
}
