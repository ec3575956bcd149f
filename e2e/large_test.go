package e2e

import (
	"encoding/base64"
	"encoding/json"
	"fmt"
	"net/url"
	"regexp"
	"testing"
	"time"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
)

// large is a plan of 46 players in 14 groups and of 40 blocks, as a file.
func large() []byte {
	d := &plan.Document{
		Format: plan.Format,
		Title:  "Forty-six on two fields",
		Kind:   plan.Match,
		Site:   plan.Site{Place: "Tidegate"},
		Hours: plan.Hours{StartName: "Throw-in", Start: clock.Start{Local: "2027-03-06T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(75 * 60), Margin: 600},
		Work: plan.Work{Method: plan.DefaultMethod},
	}
	first := []string{"Ada", "Bea", "Cleo", "Dara", "Elke", "Faye", "Gwen", "Hana", "Iris", "Juno", "Kaya", "Lotte",
		"Mina"}
	for n := range 46 {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", n+1), Number: n + 1, First: first[n%13],
			Last: string(rune('A'+n/13)) + "ster"})
	}
	groups := make([][]string, 14)
	for n := range 46 {
		groups[n%14] = append(groups[n%14], fmt.Sprint("p", n+1))
	}
	for i, players := range groups {
		d.Units = append(d.Units, plan.Unit{ID: fmt.Sprint("u", i), Name: fmt.Sprint("Group ", i+1), Players: players})
	}
	for i, name := range []string{"Near half", "Far half", "Strip", "Second field", "Wall", "Cage", "Hall"} {
		d.Zones = append(d.Zones, plan.Zone{ID: fmt.Sprint("z", i), Name: name, Capacity: 60 - 5*i, Lanes: 8,
			Metres: 40})
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
		d.Blocks = append(d.Blocks, plan.Block{ID: fmt.Sprint("b", n), Name: known.Name, Aim: known.Aim, Phase: phase,
			Who: []string{who}, Zone: zone, Leader: leader, Priority: priority, Excusable: who == plan.Everyone,
			Items: []plan.Item{{Drill: known}}})
	}
	for i, phase := range []drill.Phase{drill.Raise, drill.Raise, drill.Activate, drill.Mobilise, drill.Mobilise,
		drill.Potentiate, drill.Potentiate} {
		add(phase, plan.Everyone, "z0", "l0", []plan.Priority{plan.Must, plan.Should}[i%2])
	}
	for i := range 33 {
		add(drill.Sport, fmt.Sprint("u", i%14), fmt.Sprint("z", i%7), fmt.Sprint("l", (i+i/14)%7),
			[]plan.Priority{plan.Should, plan.Could}[i%2])
	}
	text, err := json.Marshal(d)
	if err != nil {
		panic(err)
	}
	return text
}

// underTheHand measures the board of the large plan: its page, a drag step from the pointer
// to the painted answer, and what might come otherwise.
func underTheHand(t *testing.T, p *program) error {
	page, err := p.post("/import", url.Values{"kind": {"plan"}, "file64": {base64.StdEncoding.EncodeToString(large())}})
	if err != nil {
		return err
	}
	at := regexp.MustCompile(`/sessions/\d+`).FindString(page.text)
	if err := p.views("board_large_p95", at); err != nil {
		return err
	}
	var times []time.Duration
	for _, what := range []string{"if=start&by=-10", "if=start&by=-20&arrive=too", "if=start&by=10",
		"if=late&by=15&who=p43&who=p44&who=p45&who=p46", "if=place&id=z0", "if=leader&id=l2", "if=minutes&by=45",
		"if=minutes&by=30", "if=minutes&by=20"} {
		for range 4 {
			began := time.Now()
			if _, err := p.get(at + "/what-if?" + what); err != nil {
				return err
			}
			times = append(times, time.Since(began))
		}
	}
	measured("whatif_p95", p95(times), "ms")

	b := newBrowser(t, p.address)
	b.signIn()
	b.open(at)
	b.until(`document.querySelector("[x-data=drag]")?._x_dataStack`)
	b.run(`window.steps = []; const plain = window.fetch; window.fetch = async (...asked) => {
		const began = performance.now(), answer = await plain(...asked);
		if (String(asked[0]).includes("/drag?")) requestAnimationFrame(() => setTimeout(() => steps.push(performance.now() - began)));
		return answer; }`)
	x, y, width, _, minute := b.lies(`a[data-block="b3"] rect`)
	b.mouse("mousePressed", x+width/2, y+60, false)
	for n := range 80 {
		b.mouse("mouseMoved", x+width/2+minute*(float64(n)/8-5), y+60, false)
		time.Sleep(80 * time.Millisecond)
	}
	steps := eval[[]float64](b, `steps`)
	b.mouse("mouseReleased", x+width/2, y+60, false)
	times = nil
	for _, ms := range steps {
		times = append(times, time.Duration(ms*float64(time.Millisecond)))
	}
	measured("drag_step_p95", p95(times), "ms")
	return nil
}
