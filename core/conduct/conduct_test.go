package conduct_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/core/clock"
	"cuestart/core/conduct"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/schedule"
)

// day is four blocks for six players, the third of them for two alone, on a pitch with a hall.
func day(t require.TestingT) conduct.Plan {
	d := &plan.Document{
		Format: plan.Format,
		Title:  "Saturday",
		Kind:   plan.Match,
		Party: plan.Party{Units: []plan.Unit{{ID: "few", Name: "Throwers", Players: []string{"p1", "p2"}}},
			Leaders: []plan.Leader{{ID: "dorrit", Name: "Dorrit"}, {ID: "pell", Name: "Pell"}}},
		Site: plan.Site{Zones: []plan.Zone{{ID: "pitch", Name: "Pitch", Capacity: 30, Lanes: 6, Metres: 40},
			{ID: "hall", Name: "Hall", Capacity: 30, Lanes: 4, Metres: 20, Covered: true}}},
		Hours: plan.Hours{StartName: "Kick-off", Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"},
			Open: clock.BeforeStart(2400), Margin: 480},
		Work: plan.Work{Method: plan.DefaultMethod},
	}
	for n := range 6 {
		d.Players = append(d.Players, plan.Player{ID: fmt.Sprint("p", n+1), First: fmt.Sprint("P", n+1), Last: "X"})
	}
	d.Fixed = []plan.Fixed{{ID: "talk", Name: "Talk", Who: []string{plan.Everyone},
		Span: plan.Span{From: clock.BeforeStart(2300), To: clock.BeforeStart(2200)}}}
	phases := []drill.Phase{drill.Raise, drill.Mobilise, drill.Potentiate, drill.Sport}
	for n, id := range []string{"jog", "swings", "throws", "run"} {
		k := drill.Drill{Code: id, Name: id, Aim: "why", Phases: []drill.Phase{phases[n]}, Effort: 0.7,
			Dose: drill.Dose{Kind: drill.Time}, Range: drill.Range{Min: 120, Target: 300, Max: 300, Step: 30}}
		b := plan.Block{ID: id, Name: id, Aim: "why", Phase: phases[n], Who: []string{plan.Everyone}, Zone: "pitch",
			Leader: "dorrit", Priority: plan.Must, Items: []plan.Item{{Drill: k}}}
		if id == "throws" {
			b.Who, b.Priority = []string{"few"}, plan.Could
		}
		d.Blocks = append(d.Blocks, b)
	}
	s, err := schedule.Fit(context.Background(), d, 0)
	require.NoError(t, err)
	require.True(t, s.Result.Feasible)
	return conduct.Plan{Document: d, Schedule: s}
}

// phone presses at moments of the plan, in seconds from its start.
type phone struct {
	t    require.TestingT
	by   string
	plan conduct.Plan
	had  []conduct.Event
}

func (p *phone) milli(at clock.Offset) int64 {
	return (p.plan.Schedule.Start.Unix() + int64(at)) * 1000
}

func (p *phone) press(at clock.Offset, e conduct.Event) conduct.Event {
	e.ID, e.By, e.At = fmt.Sprint(p.by, len(p.had)), p.by, p.milli(at)
	s := p.stand(at)
	e.After = s.Last(e.About())
	p.had = append(p.had, e)
	return e
}

func (p *phone) stand(at clock.Offset) *conduct.Stand {
	s, err := conduct.Of(p.plan, p.had, p.milli(at))
	require.NoError(p.t, err)
	return s
}

func (p *phone) take(at clock.Offset, is conduct.Different) *conduct.Proposal {
	made, err := p.stand(at).Propose(context.Background(), is, schedule.AtOnce)
	require.NoError(p.t, err)
	p.press(at, conduct.Event{Kind: conduct.Change, Is: &is, Placed: made.Placed})
	return made
}

func (p *phone) at(id string) clock.Offset {
	for _, b := range p.plan.Schedule.Blocks(p.plan.Document) {
		if b.ID == id {
			return b.Start
		}
	}
	return 0
}

func states(s *conduct.Stand) (all []conduct.State) {
	for _, r := range s.Runs {
		all = append(all, r.State)
	}
	return all
}

func TestWithoutAPressItGoesByThePlan(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	s := p.stand(p.at("swings") + 10)
	assert.Equal(t, []conduct.State{conduct.Finished, conduct.Under, conduct.Ahead, conduct.Ahead}, states(s))
	by, _ := s.Behind()
	assert.Zero(t, by)
	assert.True(t, p.stand(-100).Quiet())
	assert.False(t, p.stand(-500).Quiet())
}

func TestWhoMarksIsToldWhoIsWaitedFor(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	p.press(p.at("swings"), conduct.Event{Kind: conduct.Done, Block: "jog"})
	over := p.at("throws") + 40
	s := p.stand(over)
	assert.Equal(t, []conduct.State{conduct.Finished, conduct.Over, conduct.Ahead, conduct.Ahead}, states(s))
	by, block := s.Behind()
	assert.Equal(t, 40, by)
	assert.Equal(t, "swings", block)
	assert.Equal(t, "swings", s.Run("throws").WaitsFor)
	p.press(over, conduct.Event{Kind: conduct.Done, Block: "swings"})
	assert.Equal(t, conduct.Under, p.stand(over+1).Run("throws").State, "who was waited for goes on at once")
	p.press(over+20, conduct.Event{Kind: conduct.Again, Block: "swings"})
	assert.Equal(t, conduct.Under, p.stand(over+30).Run("swings").State)
	p.press(over+40, conduct.Event{Kind: conduct.Skip, Block: "throws"})
	assert.Equal(t, conduct.Skipped, p.stand(over+50).Run("throws").State)
	p.press(over+60, conduct.Event{Kind: conduct.Begin, Block: "run"})
	s = p.stand(over + 70)
	assert.Equal(t, conduct.Under, s.Run("run").State)
	assert.Equal(t, conduct.Finished, s.Run("swings").State, "its players are at the next")
}

func TestACalledStartCutsAndALaterOneTopsUp(t *testing.T) {
	p := &phone{t: t, by: "Ines", plan: day(t)}
	now := p.at("swings") + 60
	sooner, err := p.stand(now).Propose(context.Background(), conduct.Different{Is: conduct.IsStart, Seconds: -300},
		schedule.AtOnce)
	require.NoError(t, err)
	assert.Equal(t, "Kick-off 5 min earlier: 14:55", sooner.Said)
	assert.NotEmpty(t, sooner.Less)
	assert.True(t, sooner.Fits)
	p.take(now, conduct.Different{Is: conduct.IsStart, Seconds: -300})
	s := p.stand(now + 1)
	assert.Equal(t, -300, s.Moved)
	assert.LessOrEqual(t, s.Run("run").End, clock.Offset(-480))
	q := &phone{t: t, by: "Ines", plan: day(t)}
	later := q.take(now, conduct.Different{Is: conduct.IsStart, Seconds: 1800})
	assert.Empty(t, later.Less)
	require.NotEmpty(t, later.Cold, "half an hour of standing")
	require.NotEmpty(t, later.TopUps)
	up := later.TopUps[0]
	q.take(now+1, conduct.Different{Is: conduct.IsTopUp, Who: up.Who, Seconds: up.Seconds, ID: "up"})
	assert.Equal(t, conduct.Under, q.stand(now+10).Run("up").State)
	held := q.take(now+2, conduct.Different{Is: conduct.IsStart, Seconds: 300, Hold: true})
	assert.NotEmpty(t, held.Moves)
}

func TestWhatElseIsDifferent(t *testing.T) {
	base := day(t)
	at := func(is conduct.Different) (*conduct.Stand, *conduct.Proposal) {
		p := &phone{t: t, by: "Ines", plan: base}
		now := p.at("swings") + 60
		made := p.take(now, is)
		return p.stand(now + 1), made
	}
	s, made := at(conduct.Different{Is: conduct.IsPlace, ID: "pitch"})
	assert.Equal(t, "hall", s.Run("run").Zone)
	assert.Equal(t, "pitch", s.Run("jog").Zone, "what is over was there")
	assert.True(t, made.Fits)
	s, _ = at(conduct.Different{Is: conduct.IsLeader, ID: "dorrit"})
	assert.Equal(t, "pell", s.Run("run").Leader)
	s, made = at(conduct.Different{Is: conduct.IsOut, Who: []string{"p1", "p2"}, Why: conduct.Head})
	assert.Contains(t, made.Goes, "throws", "nobody is left for it")
	assert.Nil(t, s.Document.Player("p1"))
	assert.True(t, s.Out[0].Stays)
	s, _ = at(conduct.Different{Is: conduct.IsMinutes, Seconds: 120})
	assert.GreaterOrEqual(t, s.Run("run").Start, s.Now+119)
	s, _ = at(conduct.Different{Is: conduct.IsWeather, Weather: conduct.Lightning})
	assert.Equal(t, "hall", s.Run("run").Zone)
	s, _ = at(conduct.Different{Is: conduct.IsLate, Who: []string{"p1"}, Seconds: 240})
	assert.Positive(t, s.Document.Player("p1").Late)
	for _, wrong := range []conduct.Different{{Is: "nothing"}, {Is: conduct.IsStart, Seconds: 90},
		{Is: conduct.IsStart, Seconds: -7200}, {Is: conduct.IsOut, Who: []string{"p9"}},
		{Is: conduct.IsPlace, ID: "moon"}, {Is: conduct.IsMinutes, Seconds: 1e6}, {Is: conduct.IsTopUp, Seconds: 60},
		{Is: conduct.IsLate}, {Is: conduct.IsWeather}} {
		_, err := s.Propose(context.Background(), wrong, schedule.AtOnce)
		assert.Error(t, err, wrong.Is)
	}
}

func TestTwoPhonesApartComeToOne(t *testing.T) {
	base := day(t)
	ines, pell := &phone{t: t, by: "Ines", plan: base}, &phone{t: t, by: "Pell", plan: base}
	now := ines.at("swings") + 60
	ines.take(now, conduct.Different{Is: conduct.IsStart, Seconds: -300})
	pell.take(now+5, conduct.Different{Is: conduct.IsOut, Who: []string{"p6"}, Why: conduct.Head})
	pell.press(now+6, conduct.Event{Kind: conduct.Tick, Block: "throws", Tries: 1})
	ines.press(now+7, conduct.Event{Kind: conduct.Tick, Block: "throws", Tries: 2})
	ines.press(now+20, conduct.Event{Kind: conduct.Done, Block: "swings"})
	pell.press(now+40, conduct.Event{Kind: conduct.Skip, Block: "swings"})
	one := &phone{t: t, by: "both", plan: base, had: conduct.Join(ines.had, pell.had, ines.had)}
	s := one.stand(now + 60)
	assert.Len(t, s.Events, 6, "each once")
	assert.Equal(t, s, (&phone{t: t, plan: base, had: conduct.Join(pell.had, ines.had)}).stand(now+60),
		"whoever came first")
	assert.Equal(t, -300, s.Moved)
	assert.Nil(t, s.Document.Player("p6"))
	assert.True(t, s.Loose, "neither knew of the other")
	assert.Len(t, s.Disputes, 2, "the plan, and whether swings were done")
	assert.Equal(t, 3, s.Ticks()[conduct.Cell{Block: "throws"}].Tries)
	one.take(now+61, conduct.Different{Is: conduct.IsBehind})
	s = one.stand(now + 62)
	assert.False(t, s.Loose)
	assert.LessOrEqual(t, s.Run("run").End, clock.Offset(-480))
	one.press(now+63, conduct.Event{Kind: conduct.Back, Of: pell.had[0].ID})
	assert.Nil(t, one.stand(now+64).Document.Player("p6"), "a knock to the head is not taken back here")
}

// Whatever is pressed when, a re-fit never touches what has begun, and no event is lost.
func TestARefitNeverTouchesThePast(t *testing.T) {
	base := day(t)
	blocks := []string{"jog", "swings", "throws", "run", "gone"}
	rapid.Check(t, func(t *rapid.T) {
		p := &phone{t: t, by: "Ines", plan: base}
		at := rapid.IntRange(-2400, -900).Draw(t, "from")
		for range rapid.IntRange(0, 6).Draw(t, "presses") {
			at += rapid.IntRange(1, 200).Draw(t, "then")
			p.press(clock.Offset(at), conduct.Event{Block: rapid.SampledFrom(blocks).Draw(t, "block"),
				Kind: rapid.SampledFrom([]conduct.Kind{conduct.Begin, conduct.Done, conduct.Skip,
					conduct.Again}).Draw(t, "kind")})
		}
		now := clock.Offset(at + 1)
		was := p.stand(now)
		is := rapid.SampledFrom([]conduct.Different{{Is: conduct.IsStart, Seconds: -300},
			{Is: conduct.IsStart, Seconds: 600, Hold: true}, {Is: conduct.IsBehind},
			{Is: conduct.IsMinutes, Seconds: 120},
			{Is: conduct.IsOut, Who: []string{"p3"}}, {Is: conduct.IsPlace, ID: "pitch"}}).Draw(t, "is")
		made, err := was.Propose(context.Background(), is, 300)
		if err != nil {
			return // there is no time left for it
		}
		p.press(now, conduct.Event{Kind: conduct.Change, Is: &is, Placed: made.Placed})
		after := p.stand(now)
		assert.Len(t, after.Events, len(p.had))
		for i := range was.Runs {
			r := &was.Runs[i]
			then := after.Run(r.ID)
			if then == nil || r.State == conduct.Ahead || r.State == conduct.LeftOut {
				continue
			}
			assert.Equal(t, was.Unix(r.Start), after.Unix(then.Start), "%s began when it did", r.ID)
			if r.State == conduct.Finished || r.State == conduct.Skipped {
				assert.Equal(t, was.Unix(r.End), after.Unix(then.End), "%s was over when it was", r.ID)
			}
			assert.Equal(t, r.State == conduct.Skipped, then.State == conduct.Skipped, r.ID)
		}
		for _, r := range after.Runs {
			if r.State == conduct.Ahead {
				assert.Greater(t, r.Start, after.Now-clock.Grid, r.ID)
			}
		}
	})
}

// What a phone sends is never trusted: whatever it says of places, people and times, the
// stand is one, and its log too.
func TestNonsenseFromAPhoneBreaksNothing(t *testing.T) {
	base := day(t)
	rapid.Check(t, func(t *rapid.T) {
		id := rapid.SampledFrom([]string{"jog", "swings", "throws", "run", "gone", ""})
		far := rapid.OneOf(rapid.Int64(), rapid.Int64Range(base.Schedule.Start.Unix()-4000,
			base.Schedule.Start.Unix()+4000))
		events := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) conduct.Event {
			return conduct.Event{ID: rapid.StringN(1, 8, 20).Draw(t, "id"), By: "x", At: far.Draw(t, "at"),
				Kind: rapid.SampledFrom([]conduct.Kind{conduct.Begin, conduct.Done, conduct.Skip, conduct.Again,
					conduct.Change, conduct.Tick, conduct.Note, conduct.Line, conduct.Back, "x"}).Draw(t, "kind"),
				Block: id.Draw(t, "block"), Player: id.Draw(t, "player"), Item: rapid.Int().Draw(t, "item"),
				To: far.Draw(t, "to"),
				Is: &conduct.Different{Is: rapid.SampledFrom([]string{"start", "late", "out", "place", "leader",
					"minutes", "weather", "behind", "top-up", "?"}).Draw(t, "is"),
					Seconds: rapid.IntRange(-9000, 9000).Draw(t, "seconds"),
					Who:     []string{rapid.SampledFrom([]string{"p1", "p2", "*", "zz"}).Draw(t, "who")},
					ID:      rapid.SampledFrom([]string{"pitch", "dorrit", "x"}).Draw(t, "of")},
				Placed: []conduct.Place{{Block: id.Draw(t, "placed"), From: far.Draw(t, "from"),
					To: far.Draw(t, "until"), Kept: true, Amounts: rapid.SliceOfN(rapid.Int(), 0, 2).Draw(t,
						"amounts")}}}
		}), 0, 8).Draw(t, "events")
		s, err := conduct.Of(base, events, (base.Schedule.Start.Unix()-1000)*1000)
		require.NoError(t, err)
		assert.NotNil(t, s.Log(base))
		s.Idle()
		s.Behind()
		_, _ = s.Propose(context.Background(), conduct.Different{Is: conduct.IsBehind}, 100)
	})
}
