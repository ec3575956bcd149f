package club_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/club"
	"cuestart/core/sport"
)

// Messages as they are sent: who, with what number, where they play, which side they use.
func TestNamesAreReadAsTheyAreSent(t *testing.T) {
	baseball := &sport.Sport{Key: "baseball", Act: "throws", Positions: []string{"Pitcher", "Catcher", "Left field"},
		Called: map[string][]string{"Pitcher": {"P", "SP"}, "Catcher": {"C"}, "Left field": {"LF", "7"}},
		Units:  []sport.Unit{{Name: "Battery", Positions: []string{"Pitcher", "Catcher"}}}}
	type player struct {
		name, position string
		number         int
		hand, bats     club.Side
	}
	for text, want := range map[string][]player{
		"Ana Birk, Cleo Daunt and twin, Eve Fenn": {{name: "Ana Birk"}, {name: "Cleo Daunt and twin"},
			{name: "Eve Fenn"}},
		"1. Ana Birk\n2. Cleo Daunt\n3. Eve Fenn LF": {{name: "Ana Birk"}, {name: "Cleo Daunt"},
			{name: "Eve Fenn", position: "Left field"}},
		"7) Ana Birk\n31) Cleo Daunt": {{name: "Ana Birk", number: 7},
			{name: "Cleo Daunt", number: 31}},
		"#7 Ana Birk (c) - catcher": {{name: "Ana Birk", number: 7,
			position: "Catcher"}},
		"Pitchers:\n- Ana Birk\n- Cleo Daunt 12\n\nCatchers\n* Eve": {{name: "Ana Birk", position: "Pitcher"},
			{name: "Cleo Daunt", number: 12, position: "Pitcher"}, {name: "Eve", position: "Catcher"}},
		"Pitchers: Ana Birk, Cleo Daunt": {{name: "Ana Birk", position: "Pitcher"},
			{name: "Cleo Daunt", position: "Pitcher"}},
		"No\tName\tPos\n4\tAna Birk\tSP/LF\n5\tBirk\tC": {{name: "Ana Birk", number: 4,
			position: "Pitcher / Left field"}, {name: "Birk", number: 5, position: "Catcher"}},
		"Ana Birk LF bats L throws R\nCleo Daunt S/R C": {{name: "Ana Birk", position: "Left field", hand: club.Right,
			bats: club.Left}, {name: "Cleo Daunt", position: "Catcher", hand: club.Right, bats: club.Both}},
		"Birk, Ana\nDaunt, Cleo": {{name: "Ana Birk"}, {name: "Cleo Daunt"}},
		"Ana Birk (lefty)\r\nJo O'Neil-Márquez - rover": {{name: "Ana Birk", hand: club.Left},
			{name: "Jo O'Neil-Márquez", position: "rover"}},
	} {
		read := club.ReadNames(text, baseball)
		if !assert.Len(t, read, len(want), text) {
			continue
		}
		for i, w := range want {
			p := read[i].Player
			assert.Equal(t, w, player{name: p.Label(), position: p.Position, number: p.Number, hand: p.Hand,
				bats: p.Bats}, text)
			assert.Empty(t, read[i].Problem, text)
		}
	}
	again := club.ReadNames("Ana Birk\nAna Birk\n9 Cleo\n9 Eve", baseball)
	require.Len(t, again, 4)
	assert.Equal(t, "Ana Birk is there twice: taken once", again[1].Problem)
	assert.Equal(t, []int{9, 9}, []int{again[2].Player.Number, again[3].Player.Number},
		"as they were said: who keeps it is the squad's to say")
	rapid.Check(t, func(t *rapid.T) { // whoever is read can be kept, or is said
		for _, n := range club.ReadNames(rapid.String().Draw(t, "text"), baseball) {
			if n.Problem == "" {
				assert.NoError(t, n.Player.Validate())
			}
		}
	})
}
