package pen_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/docs/formats"
)

// empty is a plan without blocks.
func empty() *plan.Document {
	d := &plan.Document{
		Format: plan.Format,
		Title:  "Own",
		Kind:   plan.Match,
		Party:  plan.Party{Leaders: []plan.Leader{{ID: "ines", Name: "Ines Calloway"}, {ID: "pell", Name: "Pell"}}},
		Site: plan.Site{Zones: []plan.Zone{{ID: "near", Name: "Near half", Capacity: 40, Lanes: 6, Metres: 40},
			{ID: "far", Name: "Far half", Capacity: 30, Lanes: 4, Metres: 40}}},
		Hours: plan.Hours{StartName: "Kick-off", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(75 * 60), Margin: 480},
		Work: plan.Work{Fixed: []plan.Fixed{{ID: "kit", Name: "Kit on", Who: []string{plan.Everyone},
			Span: plan.Span{From: clock.BeforeStart(1500), To: clock.BeforeStart(1380)}}}, Method: plan.DefaultMethod},
	}
	for i, name := range []string{"Wren Addlestrop", "Hester Quillfeather", "Pia Lindqvarn", "Juno Ketterick",
		"Mara Tolland"} {
		first, last, _ := strings.Cut(name, " ")
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", i+1), Number: []int{2, 8, 9, 10, 15}[i],
			First: first, Last: last, Position: []string{"Hooker", "", "Centre", "Centre", "Wing"}[i]})
	}
	d.Turns = plan.Turns{First: "Batting first", Later: "Bowling first"}
	d.Units = []plan.Unit{{ID: "backs", Name: "Backs", Players: []string{"p3", "p4", "p5"}},
		{ID: "lineout", Name: "Line-out", Players: []string{"p1", "p2"}}}
	return d
}

var index = say.NewIndex(book.Drills(), "")

func write(d *plan.Document, text string) []pen.Became {
	of := pen.ContextOf(d, "rugby-union", book.Drills())
	of.Index = index
	r := say.NewReader(of)
	became := pen.Write(r, d, r.ReadAll(text), "")
	return became
}

// shape is what a plan says, apart from ids.
func shape(d *plan.Document) (lines []string) {
	for _, f := range d.Fixed {
		lines = append(lines, fmt.Sprint(f.Name, f.Span, f.Who))
	}
	for _, b := range d.Bring {
		lines = append(lines, fmt.Sprint("bring ", b))
	}
	for b := range d.AllBlocks() {
		if l := d.ListOf(b.ID); l != nil {
			lines = append(lines, string("on the list "+l.When))
		}
		lines = append(lines, fmt.Sprint(b.Form, b.Split, b.Change, b.On, b.Form == plan.ByChoice && b.Picks() > 1))
		lines = append(lines, fmt.Sprint(b.Name, "|", b.Phase, "|", d.Audience(b.Who), "|", d.ZoneName(b.Zone), "|",
			d.LeaderName(b.Leader), "|", d.HeldWords(b), "|", b.Priority, b.Loose, b.Rounds, b.RoundRest, b.Note))
		for _, item := range b.Items {
			k := item.Drill
			lines = append(lines, fmt.Sprint("  ", k.Code, " ", k.Words(k.Range.Target), " ", item.AtOnce,
				item.Alongside, k.Dose.Exact, k.Effort, k.Dose.RestSeconds, k.Dose.TurnSeconds, k.Cues))
		}
	}
	return lines
}

// A coach's list is the plan in just that order with just those holds.
func TestAListIsWrittenInItsOrder(t *testing.T) {
	d := empty()
	became := write(d, `jog 3 x 120 m, 50 %
leg swings 8 each way a leg (no bounce)
dead bug 4 a side, 3-1-3
neck holds forward / left / right / back, 3 x 6 s each
line-out throws 5 5 3 to front middle back
shoulder taps 2 x 10, rest 20 s, backs
out with high knees, back with heel kicks, 18 m
--- Potentiate
team talk 68-55
scrum sets 6 after line-out
kicks at posts at 40, 10 and 15, far half, Pell
squats 5, then 3 sprints 15 m`)
	for _, b := range became {
		assert.Empty(t, b.Problem, b.Line.Said)
		assert.Empty(t, b.Line.Note, b.Line.Said)
	}
	require.NoError(t, d.Validate())
	var names []string
	for _, b := range d.Blocks {
		names = append(names, b.Name)
	}
	assert.Equal(t, []string{"Jog", "Leg swings", "Dead bug, neck holds", "Line-out throws", "Shoulder taps",
		"Line: high knees", "Potentiate", "Kicks at posts", "Squats, sprints"}, names)
	assert.Equal(t, "after Line-out throws", d.HeldWords(&d.Blocks[6]))
	assert.Equal(t, "at 40′", d.HeldWords(&d.Blocks[7]))
	assert.Equal(t, []string{"p4", "p5"}, d.Blocks[7].Who)
	assert.Equal(t, []string{"Far half", "Pell"}, []string{d.ZoneName(d.Blocks[7].Zone),
		d.LeaderName(d.Blocks[7].Leader)})
	assert.Equal(t, []string{"no bounce"}, d.Blocks[1].Items[0].Drill.Cues)
	assert.Equal(t, "8 each way, a side", d.Blocks[1].Items[0].Drill.Words(8))
	talk := d.Fixed[1]
	assert.Equal(t, plan.Span{From: clock.BeforeStart(68 * 60), To: clock.BeforeStart(55 * 60)}, talk.Span)
}

func TestLinesUnderOneHeadingMakeOneBlock(t *testing.T) {
	d := empty()
	became := write(d, `Mobilise:
ankle rocks 8 a side
hip circles 6 a side
hip circles 6 a side, backs

Circuit: 3 rounds, 30 s rest, Ines, near half
squats 10
wobble holds 20 s
something that nobody counts
drop the thing 8, after the parade
throws 6, led by Hester`)
	require.NoError(t, d.Validate())
	require.Len(t, d.Blocks, 4)
	assert.Equal(t, []int{2, 1, 3}, []int{len(d.Blocks[0].Items), len(d.Blocks[1].Items), len(d.Blocks[2].Items)})
	assert.Equal(t, "Circuit", d.Blocks[2].Name)
	assert.Equal(t, []any{3, 30, "Ines Calloway"}, []any{d.Blocks[2].Rounds, d.Blocks[2].RoundRest,
		d.LeaderName(d.Blocks[2].Leader)})
	assert.Equal(t, "our-wobble-holds", d.Blocks[2].Items[1].Drill.Code)
	assert.Equal(t, "Hester Q.", d.LeaderName(d.Blocks[3].Leader), "a player may lead")
	assert.True(t, became[7].Line.Doubtful(), "it is not in the book")

	became = write(d, "hops 5, done by 30, not before 20\nskips 20 m, straight after the fireworks")
	assert.Contains(t, became[0].Problem, "leaves no time between")
	assert.Contains(t, d.Blocks[4].Note, "hops 5, done by 30, not before 20", "what cannot be is not lost")
	assert.Equal(t, "straight after the fireworks", became[1].Line.Note)
}

// What is fixed for everybody among lines parts them; where the fences contradict each other
// one sentence says so, and nothing between them is held or lost.
func TestFixedTimesAmongLinesAreFences(t *testing.T) {
	d := empty()
	became := write(d, "jog 3 min\n\nTalk 40 to 30\nskips 2 x 20 m\n\nKit on 25 to 23\nsprints 3 x 15 m")
	require.Len(t, d.Blocks, 3)
	event := func(name string) string {
		for _, f := range d.Fixed {
			if f.Name == name {
				return f.ID
			}
		}
		return "none"
	}
	assert.Equal(t, event("Talk"), d.Blocks[0].Hold.Before)
	assert.Equal(t, plan.Hold{After: event("Talk"), Before: "kit"}, d.Blocks[1].Hold)
	assert.Equal(t, "kit", d.Blocks[2].Hold.After)
	for _, b := range became {
		assert.Empty(t, b.Problem)
	}

	d = empty()
	became = write(d, "jog 3 min\n\nTalk 20 to 15\nskips 2 x 20 m\n\nKit on 35 to 30\nsprints 3 x 15 m")
	require.Len(t, d.Blocks, 3)
	assert.Equal(t, plan.Hold{}, d.Blocks[1].Hold)
	said := ""
	for _, b := range became {
		said += b.Problem
	}
	assert.Equal(t, "Kit on is earlier than Talk, which stands above it: what stands between them is held by neither",
		said)
	require.NoError(t, d.Validate())
}

// Whatever a plan is, printed as lines and read again it is the same plan.
func TestAPlanPrintedAndReadAgainIsTheSame(t *testing.T) {
	drills := book.Drills()
	rapid.Check(t, func(t *rapid.T) {
		d := empty()
		d.Fixed[0].Name = rapid.SampledFrom([]string{"Kit on", "Inside: drink, jersey, last word",
			"Referee, front rows", "Anthem 2 x", "Walk to Hall"}).Draw(t, "fixed")
		d.Fixed[0].Who = rapid.SampledFrom([][]string{{plan.Everyone}, {"lineout"}, {"p5"}}).Draw(t, "whose")
		moment := func(name string) *clock.Moment {
			m := clock.BeforeStart(60 * rapid.IntRange(9, 70).Draw(t, name))
			return &m
		}
		for i := range rapid.IntRange(1, 5).Draw(t, "blocks") {
			b := plan.Block{Name: rapid.SampledFrom([]string{"Bands", "Jumps, sprints", "Out (wide): 3 x",
				"Mobilise"}).Draw(t, "name") + fmt.Sprint(" ", i), Aim: "why",
				Who: rapid.SampledFrom([][]string{{plan.Everyone}, {"backs"}, {"lineout", "p4"}, {"p5"}}).Draw(t,
					"who"), Phase: rapid.SampledFrom(drill.Phases[:6]).Draw(t, "phase"),
				Zone:     rapid.SampledFrom([]string{"near", "far"}).Draw(t, "zone"),
				Leader:   rapid.SampledFrom([]string{"", "ines", "pell"}).Draw(t, "leader"),
				Priority: rapid.SampledFrom(plan.Priorities).Draw(t, "priority"), Loose: rapid.Bool().Draw(t, "loose"),
				Rounds: rapid.SampledFrom([]int{0, 0, 3}).Draw(t, "rounds"),
				Form:   rapid.SampledFrom(plan.Forms).Draw(t, "form"),
				On:     rapid.SampledFrom([]plan.Turn{plan.Usual, plan.Usual, plan.Later}).Draw(t, "on")}
			if b.Form == plan.AtStations {
				b.Split, b.Change = rapid.SampledFrom(plan.Splits[:3]).Draw(t, "split"),
					rapid.SampledFrom([]int{0, 25}).Draw(t, "change")
			}
			for range rapid.IntRange(1, 3).Draw(t, "drills") {
				k := rapid.SampledFrom(drills).Draw(t, "drill").For(drill.Club)
				k.Range.Target = k.Range.Clamp(rapid.IntRange(k.Range.Min, k.Range.Max).Draw(t, "amount"))
				switch rapid.IntRange(0, 5).Draw(t, "said") {
				case 0:
					k.Effort = float64(rapid.IntRange(2, 20).Draw(t, "effort")) / 20
					k.Dose.Efforts = []float64{k.Effort}
				case 1:
					if k.Dose.Kind == drill.Travel {
						k.Dose.TurnSeconds = 45
					}
				}
				if rapid.IntRange(0, 3).Draw(t, "cued") == 0 {
					k.Cues = []string{"tall", "no bounce, 3 times"}
				}
				b.Items = append(b.Items,
					plan.Item{Drill: k, AtOnce: rapid.SampledFrom([]int{0, 0, 0, 7}).Draw(t, "at once"),
						Alongside: len(b.Items) > 0 && b.Form == plan.InOrder &&
							rapid.IntRange(0, 5).Draw(t, "beside") == 0})
			}
			id := d.Insert(b, "")
			var to plan.Holds
			switch rapid.IntRange(0, 6).Draw(t, "hold") {
			case 0:
				to.At = moment("at")
			case 1:
				to.Until = moment("until")
			case 2:
				to.From = moment("from")
			case 3:
				to.Hold.Before = "kit"
			case 4:
				if i > 0 {
					to.Straight = d.Blocks[i-1].ID
				}
			}
			d.SetHold(id, to)
		}
		text := strings.Join(pen.Print(d, drills), "\n")
		again := empty()
		again.Fixed = nil
		write(again, text)
		assert.Equal(t, shape(d), shape(again), text)
		if rapid.IntRange(0, 4).Draw(t, "words") == 0 {
			was := shape(d)
			lines, _ := words(d)
			pen.Rewrite(reader(d), d, lines)
			assert.Equal(t, was, shape(d), lines)
		}
	})
}

// Plans as coaches say them stay what they are through a file and through the lines.
func TestWrittenPlansStayThemselves(t *testing.T) {
	text, err := os.ReadFile("testdata/plans.txt")
	require.NoError(t, err)
	plans := strings.Split(string(text), "===\n")
	require.GreaterOrEqual(t, len(plans), 30)
	for _, said := range plans {
		d := empty()
		for _, became := range write(d, said) {
			assert.Empty(t, became.Problem, said)
			assert.Empty(t, became.Line.Note, said)
		}
		require.NoError(t, d.Validate(), said)
		for b := range d.AllBlocks() {
			assert.True(t, b.Form == plan.InOrder || len(b.Items) > 1, "%s: stations and choices stay together", said)
		}
		kept, err := json.Marshal(d)
		require.NoError(t, err)
		var read plan.Document
		require.NoError(t, formats.Read(bytes.NewReader(kept), formats.Plan, &read), said)
		assert.Equal(t, shape(d), shape(&read), "through a file")
		again := empty()
		again.Fixed = nil
		lines := strings.Join(pen.Print(&read, book.Drills()), "\n")
		write(again, lines)
		assert.Equal(t, shape(d), shape(again), said+lines)
		own, _ := words(d)
		was := shape(d)
		pen.Rewrite(reader(d), d, own)
		assert.Equal(t, was, shape(d), own)
	}
}

// Whatever is typed, reading it neither fails nor loses it, and what it makes is a plan.
func FuzzRead(f *testing.F) {
	for _, one := range []string{"jog 3 x 120 m, 50 %", "leg swings 8 each way a leg (no bounce)", "at 40, 10 and 15",
		"\"x\": everyone (", "--- Potentiate", "out a back b", "1 x 2 x 3 x 4 / 5", "team talk 68-55", "\x02\x03(",
		"3-1-3 at 99:99 %"} {
		f.Add(one)
	}
	f.Fuzz(func(t *testing.T, text string) {
		d := empty()
		became := write(d, text)
		if err := d.Validate(); err != nil {
			t.Fatalf("%q: %s", text, err)
		}
		for _, b := range became {
			if b.Line.Is == say.IsDrill && b.Line.Name == "" {
				t.Fatalf("%q became nothing: %+v", text, b)
			}
		}
	})
}

// What is said of one part leaves the others as they are, also where their words would not be read so.
func TestAPartLeavesTheOthers(t *testing.T) {
	d := empty()
	write(d, "jog 3 x 60 m\n\nskips 20 m\n\nhands 3 min, backs, near half, Pell")
	b := &d.Blocks[2]
	b.After, b.Loose, b.Rounds, b.RoundRest = []string{d.Blocks[0].ID, d.Blocks[1].ID}, true, 3, 20
	want := b.Clone()
	_, err := pen.SetPart(say.NewReader(pen.ContextOf(d, "rugby-union", book.Drills())), d, b.ID, pen.PartWhere,
		"far half")
	require.NoError(t, err)
	assert.Equal(t, "Far half", d.ZoneName(b.Zone))
	want.Zone = b.Zone
	assert.Equal(t, want, *b)
}

// A part is let go by saying nothing of it, but for who.
func TestAPartIsLetGo(t *testing.T) {
	for part, left := range map[pen.Part]string{pen.PartWhere: "Backs, Pell, at 30",
		pen.PartLed: "Backs, Near half, at 30", pen.PartWhen: "Backs, Near half, Pell"} {
		d := empty()
		write(d, "hands 3 min, backs, near half, Pell, at 30")
		r := say.NewReader(pen.ContextOf(d, "rugby-union", book.Drills()))
		_, err := pen.SetPart(r, d, d.Blocks[0].ID, part, "")
		require.NoError(t, err, part)
		assert.Equal(t, left, pen.Attributes(d, &d.Blocks[0]))
	}
}

// What is said of a block beside its drills is read, kept and said again; what cannot be
// is refused and changes nothing.
func TestWhatIsSaidBesideABlock(t *testing.T) {
	for text, again := range map[string]string{
		"backs, far half, Pell, 26 to 18, must": "Backs, Far half, Pell, from 26 to 18, must",
		"9 and 15, near half, before kit on":    "#9, #15, Near half, Pell, before Kit on",
		// what is not said stays
		"everyone, Ines, straight after jog": "everyone, Near half, Ines Calloway, straight after Jog",
		"juno, not before 30, 3 rounds, 20 s rest, could": "#10, Near half, Pell, " +
			"not before 30, could, 3 rounds, rest 20 s",
		"line-out, done by 14:40, in any order": "Line-out, Near half, Pell, done by 14:40, in any order",
		"hooker and wing, at 30":                "#2, #15, Near half, Pell, at 30",
		"centres, at 30":                        "#9, #10, Near half, Pell, at 30",
		"at 40":                                 "Backs, Near half, Pell, at 40",
		"far half, must":                        "Backs, Far half, Pell, must",
	} {
		d := empty()
		write(d, "jog 3 x 60 m\n\nhands 3 min, backs, near half, Pell")
		r := say.NewReader(pen.ContextOf(d, "rugby-union", book.Drills()))
		_, err := pen.SetPart(r, d, d.Blocks[1].ID, pen.PartWho, text)
		require.NoError(t, err, text)
		said := pen.Attributes(d, &d.Blocks[1])
		assert.Equal(t, again, said, text)
		require.NoError(t, d.Validate(), text)
		once := d.Clone()
		_, err = pen.SetPart(r, d, d.Blocks[1].ID, pen.PartWho, said)
		require.NoError(t, err, said)
		assert.Equal(t, shape(once), shape(d), "%s: what is said back is the same", text)
	}
	for text, says := range map[string]string{
		"the moon":                     `"moon" is nobody, no place and no time`,
		"backs, at 90":                 "lies outside the work",
		"not before 18, done by 26":    "no time between",
		"straight after the fireworks": "fireworks",
		"12 squats":                    "",
		"":                             "",
	} {
		d := empty()
		write(d, "hands 3 min, backs")
		was := shape(d)
		_, err := pen.SetPart(say.NewReader(pen.ContextOf(d, "rugby-union", book.Drills())), d, d.Blocks[0].ID,
			pen.PartWho, text)
		if says != "" {
			assert.ErrorContains(t, err, says, text)
		}
		if err != nil {
			assert.Equal(t, was, shape(d), "%s: refused, nothing changed", text)
		}
	}
}

func TestWorkBeginsAsEarlyAsItsListSays(t *testing.T) {
	d := empty()
	of := pen.ContextOf(d, "rugby-union", book.Drills())
	of.Index = index
	r := say.NewReader(of)
	text := "Kick 7pm\nT-90 bands 10\njog 2 laps\nT-20 sprints 3 x 20 m"
	was := pen.Rewrite(r, d, text)
	assert.Equal(t, 90*60, d.Open.Before)
	assert.Equal(t, "Your list says 19:00, this session starts at 15:00: change one of them", was[0].Noted)
	assert.Equal(t, "Work begins at 90′, as this says", was[1].Noted)
	for _, one := range was {
		assert.Empty(t, one.Problem, one.Line.Said)
	}
	assert.Empty(t, say.StartSaid(d, "KO 3pm"))
	assert.Empty(t, say.StartSaid(d, "ko 3.00 sharp"))
	assert.Empty(t, say.StartSaid(d, "starters 10 throws"))
}

func TestWhatADayEndsWithIsSaidAgain(t *testing.T) {
	for head, line := range map[string]string{"After the bell:": "Bell", "--- After the final whistle": "Final whistle",
		"after the lift": "End of the lift", "Cool down:": "Final whistle"} {
		d := empty()
		write(d, "jog 2 min\n"+head+"\nroll calves 30 s")
		require.Len(t, d.Lists, 1, head)
		assert.Equal(t, []any{plan.AfterEnd, line}, []any{d.Lists[0].When, d.Lists[0].Line}, head)
		again := empty()
		write(again, strings.Join(pen.Print(d, book.Drills()), "\n"))
		assert.Equal(t, shape(d), shape(again), head)
		assert.Equal(t, line, again.Lists[0].Line, head)
	}
}
