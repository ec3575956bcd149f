package drill_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/drill"
)

func ExampleDrill_Words() {
	throws := drill.Drill{Unit: "throws", Dose: drill.Dose{Kind: drill.Count}}
	jog := drill.Drill{Dose: drill.Dose{Kind: drill.Time}}
	fmt.Println(throws.Words(9), throws.Figure(9), jog.Words(150), jog.Figure(150))
	// Output: 9 throws 9 2:30 min 2:30 min
}

func ExampleLoad_Words() {
	hops, sprints := drill.Load{Seconds: 60, Contacts: 12}, drill.Load{Seconds: 90, SprintMetres: 80, Contacts: 4}
	fmt.Println(hops.Add(sprints).Words(), hops.Most(sprints).Words(), drill.Load{Seconds: 60}.Words())
	// Output: [16 ground contacts 80 m sprinted] [12 ground contacts 80 m sprinted] []
}

func TestEachPhaseHasItsNameKeyAndLetter(t *testing.T) {
	letters := map[string]bool{}
	for _, p := range drill.Phases {
		assert.NotEmpty(t, p.Name())
		found, ok := drill.PhaseOf(p.Key())
		assert.True(t, ok, p.Key())
		assert.Equal(t, p, found)
		if letter := p.Letter(); letter != "" {
			assert.False(t, letters[letter], "%s marks one phase alone", letter)
			letters[letter] = true
			assert.Equal(t, p.Name()[:1], letter)
		}
	}
	assert.Len(t, letters, 5, "own time and what comes after have none")
	_, ok := drill.PhaseOf("")
	assert.False(t, ok)
	_, ok = drill.PhaseOf("warm")
	assert.False(t, ok)
}

func TestADrillSuitsItsGradeAndThoseAbove(t *testing.T) {
	for _, c := range []struct {
		least, squad drill.Grade
		suits        bool
	}{
		{"", drill.Junior, true}, {drill.Junior, drill.Junior, true}, {drill.Club, drill.Junior, false},
		{drill.Elite, drill.Junior, false},
		{drill.Club, "", true}, {drill.Elite, "", false}, {drill.Elite, drill.Elite, true},
	} {
		assert.Equal(t, c.suits, drill.Drill{Least: c.least}.Suits(c.squad), "%q for %q", c.least, c.squad)
	}
	for _, g := range drill.Grades {
		assert.NotEmpty(t, g.Name())
		assert.Positive(t, drill.TopSpeed[g])
	}
	assert.Empty(t, drill.Grade("world").Name())
	assert.Less(t, drill.TopSpeed[drill.Junior], drill.TopSpeed[drill.Elite])
}

func TestWhatIsHeldIsCountedForOneMuscle(t *testing.T) {
	hold := drill.Drill{Static: true, Dose: drill.Dose{Kind: drill.Hold, Sets: 2, Sides: 2, HoldSeconds: 20}}
	assert.InDelta(t, 120, hold.HeldSeconds(3), 1e-9,
		"two sets of three holds of 20 s; the other side is another muscle")
	assert.False(t, hold.Dynamic())
	hold.Static = false
	assert.Zero(t, hold.HeldSeconds(3), "held, but no stretch: an activation")
	held := drill.Drill{Static: true, Dose: drill.Dose{Kind: drill.Time}}
	assert.InDelta(t, 60, held.HeldSeconds(60), 1e-9, "however it is counted")
	held.OneSided = true
	assert.InDelta(t, 30, held.HeldSeconds(60), 1e-9)
	for effort, is := range map[float64][2]bool{0.1: {true, false}, 0.2: {false, false}, 0.4: {false, true},
		0.95: {false, true}} {
		// quiet, dynamic
		d := drill.Drill{Effort: effort}
		assert.Equal(t, is, [2]bool{d.Quiet(), d.Dynamic()}, "%v", effort)
	}
	assert.False(t, drill.Drill{Effort: 0.9, Dose: drill.Dose{Kind: drill.Hold}}.Dynamic(), "a hold does not move")
	assert.True(t, drill.Drill{NeedsWarm: true}.Deep())
	assert.True(t, drill.Drill{EndRange: true}.Deep())
}

func TestStepsOfEffortAreTheirOwn(t *testing.T) {
	sprints := drill.Drill{Effort: 0.9, Dose: drill.Dose{Kind: drill.Travel, Metres: 30,
		Efforts: []float64{0.7, 0.9, 1}, TopSpeed: 8}}
	group := drill.Group{People: 1, Lanes: 1}
	assert.Equal(t, 60, sprints.Load(3, group).SprintMetres, "the first is no sprint")
	assert.Equal(t, 90, sprints.Load(4, group).SprintMetres, "the last one repeats")
	assert.Equal(t, []float64{0.7, 0.9}, sprints.Efforts(2))
	assert.Equal(t, 1.0, sprints.PeakEffort(5))
	ladder := drill.Drill{Effort: 0.6, Rungs: []drill.Rung{{Metres: 10, Effort: 0.5}, {Metres: 20, Effort: 0.9}},
		Dose: drill.Dose{Kind: drill.Count}}
	assert.Equal(t, []float64{0.5}, ladder.Efforts(1))
	assert.Equal(t, 0.9, ladder.PeakEffort(4))
}

func TestAThrowIsToldByWhatIsDone(t *testing.T) {
	act := func(name, unit string, high bool) drill.Drill {
		return drill.Drill{Name: name, Unit: unit, Overhead: high, Effort: 0.6, Dose: drill.Dose{Kind: drill.Count}}
	}
	for _, k := range []drill.Drill{act("Line-out", "throws", true), act("Serves, easy to full", "serves", true),
		act("Jump shots", "shots", true), act("Throw at a mark", "", false)} {
		assert.True(t, k.Throws(), k.Name)
	}
	for _, k := range []drill.Drill{act("High balls", "catches", true), act("Kicks at posts", "kicks", false),
		act("Wrist shots", "shots", false), act("Catch a throw", "catches", true)} {
		assert.False(t, k.Throws(), k.Name)
	}
}

func TestKitIsForEachOrForEachStation(t *testing.T) {
	squad := drill.Group{People: 23, Lanes: 6}
	each := drill.Drill{Kit: []string{"ball"}, Dose: drill.Dose{Kind: drill.Travel}}
	assert.Equal(t, 23, each.Pieces(squad), "a ball each")
	turns := drill.Drill{Kit: []string{"ball"}, Dose: drill.Dose{Kind: drill.Count}}
	assert.Equal(t, 6, turns.Pieces(squad), "one at each station")
	assert.Equal(t, 2, turns.Pieces(drill.Group{People: 2, Lanes: 6}), "no more than there are people")
	turns.Together = true
	assert.Equal(t, 1, turns.Pieces(squad), "one for all")
	assert.Equal(t, 0, turns.Pieces(drill.Group{Lanes: 6}))
	assert.Equal(t, 6, each.LanePieces("ball", squad))
	game := drill.Drill{Kit: []string{"ball"}, Qualities: []string{"game"}, Dose: drill.Dose{Kind: drill.Time}}
	assert.Equal(t, 1, game.Pieces(squad), "a game has one ball")
	assert.True(t, drill.Counted("ball"))
	assert.False(t, drill.Counted("Skates"), "a player's own")
	assert.False(t, drill.Counted("wall"), "the place's")
	assert.True(t, drill.Carried("skates"))
	assert.False(t, drill.Carried("wall"))
}

func TestACopyOfADrillIsItsOwn(t *testing.T) {
	d := drill.Drill{Code: "a", Phases: []drill.Phase{drill.Raise}, Cues: []string{"tall"},
		Rungs: []drill.Rung{{Metres: 10}}}
	c := d.Clone()
	assert.Equal(t, d, c)
	c.Phases[0], c.Cues[0], c.Rungs[0].Metres = drill.Sport, "low", 99
	assert.Equal(t, []any{drill.Raise, "tall", 10.0}, []any{d.Phases[0], d.Cues[0], float64(d.Rungs[0].Metres)})
}

func TestAStepGoesNoFurtherThanTheRange(t *testing.T) {
	r := drill.Range{Min: 4, Target: 8, Max: 12, Step: 3}
	for amount, want := range map[int][]int{-5: {4}, 4: {4}, 12: {12}, 99: {12}} {
		assert.Equal(t, want[0], r.Clamp(amount), "%d", amount)
	}
	for amount := 4; amount <= 12; amount++ {
		in := r.Clamp(amount)
		assert.GreaterOrEqual(t, in, r.Min)
		assert.LessOrEqual(t, in, r.Max)
	}
	for name, bad := range map[string]drill.Range{"step": {Min: 1, Target: 1, Max: 1},
		"minimum": {Target: 1, Max: 1, Step: 1}, "target": {Min: 2, Target: 1, Max: 3, Step: 1},
		"maximum": {Min: 1, Target: 2, Max: drill.MaxAmount + 1, Step: 1}} {
		assert.Error(t, bad.Validate(), name)
	}
	assert.NoError(t, r.Validate())
}
