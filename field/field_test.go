package field_test

import (
	"encoding/json"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/conduct"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/demo"
	"cuestart/field"
)

var start = time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)

// match is the demo's match on a phone.
func match(t *testing.T) (*field.Phone, conduct.Plan) { return with(t, demo.HomeMatch) }

// with is a plan that starts at start, on a phone.
func with(t *testing.T, made func(start time.Time) *plan.Document) (*field.Phone, conduct.Plan) {
	london, err := time.LoadLocation("Europe/London")
	require.NoError(t, err)
	d := made(start.In(london))
	s, err := schedule.Fit(t.Context(), d, 3000)
	require.NoError(t, err)
	text, err := json.Marshal(conduct.Plan{Document: d, Schedule: s})
	require.NoError(t, err)
	phone, err := field.Open(text)
	require.NoError(t, err)
	return phone, conduct.Plan{Document: d, Schedule: s}
}

func minutes(n float64) int64 { return start.UnixMilli() - int64(n*60_000) }

func view(t *testing.T, phone *field.Phone, at int64, events ...conduct.Event) (v field.View) {
	text, err := json.Marshal(append([]conduct.Event{}, events...))
	require.NoError(t, err)
	made, err := phone.View(text, at)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(made, &v))
	return v
}

func names(cards []field.Card) (list []string) {
	for _, c := range cards {
		list = append(list, c.Name)
	}
	return list
}

// A phone tells its plan in the language that came with it: the words and the drills of the book,
// not names, ids or states.
func TestAPhoneTellsItInItsLanguage(t *testing.T) {
	english, plan := match(t)
	text, err := json.Marshal(map[string]any{"document": plan.Document, "schedule": plan.Schedule,
		"pieces": map[string]string{
			"on time": "a tiempo", "Kicks at posts": "Patadas a palos", "Same steps": "Los mismos pasos",
			"the start is # earlier": "el inicio es # antes", "Pell": "Otro"}})
	require.NoError(t, err)
	phone, err := field.Open(text)
	require.NoError(t, err)
	was, is := view(t, english, minutes(41)), view(t, phone, minutes(41))
	assert.Equal(t, "a tiempo", is.Pace)
	require.Len(t, is.On, len(was.On))
	assert.Equal(t, "Patadas a palos", is.On[0].Name)
	assert.Contains(t, is.On[0].Drills[0].Say, "Los mismos pasos. ")
	assert.Equal(t, was.On[0].Leader, is.On[0].Leader, "nobody is called otherwise")
	assert.Equal(t, [3]string{was.On[0].ID, was.On[0].State, was.On[0].Phase},
		[3]string{is.On[0].ID, is.On[0].State, is.On[0].Phase})
	assert.Equal(t, was.Players, is.Players)
}

func TestAPhoneShowsNowAndNext(t *testing.T) {
	phone, _ := match(t)
	v := view(t, phone, minutes(41))
	require.Equal(t, []string{"Kicks at posts"}, names(v.On))
	kicks := v.On[0]
	assert.Equal(t, "Kickers 10 15", kicks.Who)
	assert.Equal(t, "Pell", kicks.Leader)
	assert.Equal(t, "Rising loop, Near half", kicks.Then)
	require.NotEmpty(t, kicks.Drills[0].Rows, "a grid to tick")
	assert.Contains(t, kicks.Drills[0].Say, "Same steps.")
	assert.Equal(t, "Rising loop", v.Next[0].Name)
	assert.Equal(t, "39′50″", v.Next[0].ToGo)
	assert.Equal(t, "on time", v.Pace)
	assert.Equal(t, "15:00", v.StartTime)
	assert.Len(t, v.Players, 23)
	assert.Equal(t, "1 Orla P.", v.Players[0].Name)
	assert.Contains(t, v.Caution, "head means out")
	quiet := view(t, phone, minutes(2))
	assert.True(t, quiet.Quiet)
	assert.Empty(t, quiet.On)
	assert.Equal(t, []string{"Line up"}, []string{quiet.Events[0].Name})
	assert.GreaterOrEqual(t, quiet.Past[0].To, quiet.Past[1].To, "the latest first")
}

func TestAPhoneSaysWhatWasPressed(t *testing.T) {
	phone, _ := match(t)
	done := conduct.Event{ID: "a", By: "Ines", At: minutes(31), Kind: conduct.Done, Block: "raise"}
	v := view(t, phone, minutes(28), done)
	assert.Equal(t, []string{"Bands"}, names(v.On))
	assert.Equal(t, "over", v.On[0].State)
	assert.True(t, strings.HasSuffix(v.Pace, "behind · Bands is waited for"), v.Pace)
	assert.Equal(t, "Bands", v.Next[0].Waits)
	tick := conduct.Event{ID: "t", By: "Pell", At: minutes(42), Kind: conduct.Tick, Block: "kicks", Cell: 1, Tries: 1}
	cell := view(t, phone, minutes(41), tick).On[0].Drills[0].Rows[0].Cells
	assert.Equal(t, 1, cell[1].Count)
	skip := conduct.Event{ID: "b", By: "Pell", At: minutes(30), Kind: conduct.Skip, Block: "raise"}
	require.Len(t, view(t, phone, minutes(28), done, skip).Disputes, 1)
	assert.Equal(t, "Ines: Rising loop is done; Pell skips Rising loop. The later one counts.",
		view(t, phone, minutes(28), skip, done).Disputes[0].Says)
	early, late := -600, 300
	for says, is := range map[string]conduct.Different{"the start is 10 min earlier": {Is: conduct.IsStart,
		Seconds: early}, "the start is 5 min later": {Is: conduct.IsStart, Seconds: late},
		"Orla P. out":      {Is: conduct.IsOut, Who: []string{"p1"}},
		"Orla P. late":     {Is: conduct.IsLate, Who: []string{"p1"}, Seconds: 60},
		"Far half is lost": {Is: conduct.IsPlace, ID: "far"}, "Pell is not there": {Is: conduct.IsLeader, ID: "pell"},
		"3 min lost":   {Is: conduct.IsMinutes, Seconds: 180},
		"rain changed": {Is: conduct.IsWeather, Weather: conduct.Rain},
		"kept moving":  {Is: conduct.IsTopUp, Who: []string{"p1"}, Seconds: 60},
		"fitted again": {Is: conduct.IsBehind}} {
		two := []conduct.Event{{ID: "x", By: "Ines", At: minutes(41), Kind: conduct.Change, Is: &is},
			{ID: "y", By: "Pell", At: minutes(40.5), Kind: conduct.Change,
				Is: &conduct.Different{Is: conduct.IsMinutes, Seconds: 60}}}
		v := view(t, phone, minutes(40), two...)
		require.Len(t, v.Disputes, 1, says)
		assert.Contains(t, v.Disputes[0].Says, "Ines: "+says)
		assert.True(t, v.Loose)
		assert.Equal(t, "y", v.Last)
	}
}

// Who waits for the same is one line.
func TestWhoWaitsForTheSameIsOneLine(t *testing.T) {
	phone, _ := match(t)
	v := view(t, phone, minutes(23.6))
	for i, one := range v.Idle {
		for _, other := range v.Idle[i+1:] {
			assert.False(t, one.Next == other.Next && one.Stands == other.Stands && one.Since == other.Since,
				"%s and %s", one.Who, other.Who)
		}
	}
}

func TestWhatIsNoPlanIsSaid(t *testing.T) {
	for _, text := range []string{"", "{", "{}", `{"document":{}}`, "[]"} {
		_, err := field.Open([]byte(text))
		assert.Error(t, err, text)
	}
	phone, _ := match(t)
	_, err := phone.View([]byte("nothing"), minutes(30))
	assert.Error(t, err)
	_, err = phone.Propose([]byte("[]"), minutes(30), []byte(`{"is":"start","seconds":-7200}`), 100)
	assert.ErrorContains(t, err, "over already")
	_, err = phone.Propose([]byte("[]"), minutes(30), []byte(`[`), 100)
	assert.Error(t, err)
}
