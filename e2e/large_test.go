package e2e

import (
	"encoding/json"
	"fmt"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// large is a plan of 46 players in 14 groups and of 40 blocks, as a file.
func large() []byte {
	d := &plan.Document{Format: plan.Format, Title: "Forty-six on two fields", Kind: plan.Match, StartName: "Throw-in", Start: clock.Start{Local: "2027-03-06T15:00", Zone: "Europe/London"}, Open: clock.BeforeStart(75 * 60), Margin: 600,
		Method: plan.DefaultMethod, Place: "Tidegate"}
	first := []string{"Ada", "Bea", "Cleo", "Dara", "Elke", "Faye", "Gwen", "Hana", "Iris", "Juno", "Kaya", "Lotte", "Mina"}
	for n := range 46 {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", n+1), Number: n + 1, First: first[n%13], Last: string(rune('A'+n/13)) + "ster"})
	}
	groups := make([][]string, 14)
	for n := range 46 {
		groups[n%14] = append(groups[n%14], fmt.Sprint("p", n+1))
	}
	for i, players := range groups {
		d.Units = append(d.Units, plan.Unit{ID: fmt.Sprint("u", i), Name: fmt.Sprint("Group ", i+1), Players: players})
	}
	for i, name := range []string{"Near half", "Far half", "Strip", "Second field", "Wall", "Cage", "Hall"} {
		d.Zones = append(d.Zones, plan.Zone{ID: fmt.Sprint("z", i), Name: name, Capacity: 60 - 5*i, Lanes: 8, Metres: 40})
	}
	for i, name := range []string{"Ines", "Dorrit", "Pell", "Runa", "Odd", "Mael", "Tove"} {
		d.Leaders = append(d.Leaders, plan.Leader{ID: fmt.Sprint("l", i), Name: name})
	}
	all := book.Drills()
	add := func(phase drill.Phase, who, zone, leader string, priority plan.Priority) {
		n := len(d.Blocks)
		var known drill.Drill
		for i := range all {
			if k := all[(i+17*n)%len(all)]; k.Serves(phase) && len(k.Kit) == 0 && k.Range.Steps() > 1 {
				known = k
				break
			}
		}
		d.Blocks = append(d.Blocks, plan.Block{ID: fmt.Sprint("b", n), Name: known.Name, Aim: known.Aim, Phase: phase, Who: []string{who}, Zone: zone, Leader: leader, Priority: priority, Excusable: who == plan.Everyone,
			Items: []plan.Item{{Drill: known}}})
	}
	for i, phase := range []drill.Phase{drill.Raise, drill.Raise, drill.Activate, drill.Mobilise, drill.Mobilise, drill.Potentiate, drill.Potentiate} {
		add(phase, plan.Everyone, "z0", "l0", []plan.Priority{plan.Must, plan.Should}[i%2])
	}
	for i := range 33 {
		add(drill.Sport, fmt.Sprint("u", i%14), fmt.Sprint("z", i%7), fmt.Sprint("l", (i+i/14)%7), []plan.Priority{plan.Should, plan.Could}[i%2])
	}
	text, err := json.Marshal(d)
	if err != nil {
		panic(err)
	}
	return text
}
