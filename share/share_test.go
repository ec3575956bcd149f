package share_test

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"runtime"
	"strconv"
	"strings"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/share"
)

func TestASquadComesBackWhole(t *testing.T) {
	name := rapid.StringMatching(`[=+@\-'A-Zäéø"; ,]{0,3}[a-zA-Zäß',;"]{1,10}`)
	rapid.Check(t, func(t *rapid.T) {
		var squad []club.Player
		for n := range rapid.IntRange(1, 8).Draw(t, "players") {
			p := club.Player{Number: n, First: strings.TrimSpace(name.Draw(t, "first")),
				Last: strings.TrimSpace(name.Draw(t, "last")), Foot: club.Both, Hand: club.Left,
				Build: rapid.SampledFrom([]club.Build{"", club.Stiff, club.Hypermobile}).Draw(t, "build"),
				Notes: strings.TrimSpace(name.Draw(t, "notes"))}
			if p.Validate() == nil {
				squad = append(squad, p)
			}
		}
		var file bytes.Buffer
		require.NoError(t, share.WritePlayers(&file, squad))
		cells, err := csv.NewReader(bytes.NewReader(file.Bytes()[3:])).ReadAll()
		require.NoError(t, err)
		for _, row := range cells[1:] {
			for _, cell := range row {
				assert.False(t, cell != "" && strings.ContainsRune("=+-@", rune(cell[0])),
					"a spreadsheet would work out %q", cell)
			}
		}
		rows, wrong, err := share.ReadPlayers(file.Bytes())
		require.NoError(t, err)
		require.Empty(t, wrong)
		require.Len(t, rows, len(squad))
		for i := range squad {
			assert.Equal(t, squad[i], rows[i].Is)
		}
	})
}

func TestTheDrillBookComesBackWhole(t *testing.T) {
	var file bytes.Buffer
	var all []club.Drill
	for _, d := range book.Drills() {
		all = append(all, club.Drill{Drill: d, Figure: book.Figure(d.Code), Plain: d.Code == "skips"})
	}
	require.NoError(t, share.WriteDrills(&file, all))
	rows, wrong, err := share.ReadDrills(file.Bytes())
	require.NoError(t, err)
	require.Empty(t, wrong)
	var back []drill.Drill
	for i, r := range rows {
		back = append(back, r.Is.Drill)
		assert.Equal(t, r.Is.Code == "skips", r.Is.Plain)
		if !r.Is.Plain {
			assert.Equal(t, all[i].Figure, r.Is.Figure, r.Is.Code)
		}
	}
	for i, d := range book.Drills() {
		if len(d.Regions) == 0 {
			d.Regions, d.Planes = back[i].Regions, back[i].Planes // none, however it is written
		}
		assert.Equal(t, d, back[i])
	}
}

// A dose may be said in ways that no drill of the book is counted in.
func TestADoseHoweverSaidComesBackWhole(t *testing.T) {
	metres := rapid.Float64Range(1, 500)
	word := rapid.StringMatching(`[a-z]{1,9}( [a-z]{2,9})?`)
	rapid.Check(t, func(t *rapid.T) {
		d := drill.Drill{Code: "ours", Name: "Ours", Aim: "Ours", Phases: []drill.Phase{drill.Raise}, Effort: 0.5,
			Range: drill.Range{Min: 1, Target: 2, Max: 3, Step: 1}}
		d.Also = rapid.SliceOfN(word, 1, 3).Draw(t, "also")
		d.Dose = drill.Dose{Kind: drill.Line, Flow: drill.Regroup,
			Directions: rapid.IntRange(0, 2).Draw(t, "directions"), Breaths: rapid.IntRange(0, 50).Draw(t, "breaths"),
			OwnSide: rapid.Bool().Draw(t, "own side"), ByPair: rapid.Bool().Draw(t, "pairs"),
			Exact:  rapid.Bool().Draw(t, "exact"),
			Tempo:  rapid.SliceOfN(rapid.Float64Range(0, 60), 1, 4).Draw(t, "tempo"),
			Counts: rapid.SliceOfN(rapid.SliceOfN(rapid.IntRange(0, 100), 1, 4), 1, 3).Draw(t, "counts")}
		for range rapid.IntRange(1, 4).Draw(t, "parts") {
			d.Dose.Parts = append(d.Dose.Parts, drill.Part{Name: word.Draw(t, "part"),
				Reps: rapid.IntRange(0, 100).Draw(t, "reps")})
			d.Dose.Legs = append(d.Dose.Legs, drill.Leg{Name: word.Draw(t, "leg"),
				Code:   rapid.SampledFrom([]string{"", "high-knees"}).Draw(t, "code"),
				Metres: metres.Draw(t, "m"), Speed: rapid.Float64Range(0.2, 12).Draw(t, "m/s"),
				Back: rapid.Bool().Draw(t, "back")})
		}
		var file bytes.Buffer
		require.NoError(t, share.WriteDrills(&file, []club.Drill{{Drill: d}}))
		rows, wrong, err := share.ReadDrills(file.Bytes())
		require.NoError(t, err)
		require.Empty(t, wrong)
		assert.Equal(t, d, rows[0].Is.Drill)
	})
	_, wrong, err := share.ReadDrills([]byte("name,counted in,parts,tempo,tries,efforts,legs\n" +
		"A,reps,left 4; right,3 x 3,,,\nB,grid,,,5 five,,\nC,travel,,,,70; 900,\nD,line,,,,,high knees " +
		"18\nE,line,,,,,\"knees, far, 2\"\n"))
	require.NoError(t, err)
	var said []string
	for _, p := range wrong {
		said = append(said, p.Error())
	}
	for i, says := range []string{`line 2, tempo: "x" is no tempo`, `line 3, tries: "5 five" is no row of tries`,
		`line 4, efforts: "900" is no effort`, `line 5, legs: "high knees 18" is no leg`,
		`line 6, legs: "knees, far, 2" is no leg`} {
		require.Greater(t, len(said), i)
		assert.Contains(t, strings.Join(said, "\n"), says)
	}
}

func TestSpreadsheetsHabitsAreUnderstood(t *testing.T) {
	want := []club.Player{{Number: 9, First: "Pia", Last: "Lindqvärn", Foot: club.Left, Hand: club.Right},
		{First: "Ida", Last: "Ö, the \"wall\"", Foot: club.Right, Hand: club.Right}}
	for name, file := range map[string]string{
		"comma": "No.,First name,Surname,Foot\n9,Pia,Lindqvärn,left\n,Ida,\"Ö, the \"\"wall\"\"\",\n",
		"bom and crlf": "\xef\xbb\xbfnumber,first,last,foot\r\n9,Pia,Lindqvärn,LEFT\r\n,Ida,\"Ö, the " +
			"\"\"wall\"\"\",right\r\n\r\n,,,\r\n",
		"semicolon": "sep=;\r\nnumber;first;last;foot\r\n9;Pia;Lindqvärn;left\r\n;Ida;\"Ö, the " +
			"\"\"wall\"\"\";\r\n",
		"tab, no newline": "number\tfirst\tlast\tfoot\r9\tPia\tLindqvärn\tleft\r\tIda\t\"Ö, the \"\"wall\"\"\"\t",
		"latin letters":   "number,first,last,foot\n9,Pia,Lindqv\xe4rn,left\n,Ida,\"\xd6, the \"\"wall\"\"\",\n",
	} {
		rows, wrong, err := share.ReadPlayers([]byte(file))
		require.NoError(t, err, name)
		assert.Empty(t, wrong, name)
		require.Len(t, rows, 2, name)
		assert.Equal(t, want, []club.Player{rows[0].Is, rows[1].Is}, name)
	}
	for says, file := range map[string]string{"UTF-16": "\xff\xfea\x00", "is empty": "\r\n\r\n",
		"no column \"first name\"": "number,last\n1,x\n"} {
		_, _, err := share.ReadPlayers([]byte(file))
		assert.ErrorContains(t, err, says)
	}
}

func TestEachBadRowIsNamedByLineAndColumn(t *testing.T) {
	var file strings.Builder
	file.WriteString("number,first name,last name,foot,body\n")
	for n := 1; n <= 300; n++ {
		row := fmt.Sprintf("%d,P%d,Q,right,", n, n)
		switch n {
		case 10:
			row = "ten,P10,Q,right,"
		case 50:
			row = "50,,Q,right,"
		case 120:
			row = "120,P120,Q,middle,"
		case 200:
			row = "7,P200,Q,right,"
		case 299:
			row = "299,P299,Q,right,bendy"
		}
		file.WriteString(row + "\n")
	}
	rows, wrong, err := share.ReadPlayers([]byte(file.String()))
	require.NoError(t, err)
	assert.Len(t, rows, 300)
	var said []string
	for _, p := range wrong {
		said = append(said, p.Error())
	}
	assert.Equal(t, []string{
		`line 11, number: "ten" is no whole number`,
		"line 51, first name: give it a name",
		`line 121, foot: "middle" is not one of right, left, both`,
		"line 201: 7 is in line 8 already",
		`line 300, body: "bendy" is not one of stiff, hypermobile`,
	}, said)
	_, wrong, err = share.ReadPlayers([]byte("first name,shoe\nIda,39\n"))
	require.NoError(t, err)
	assert.Contains(t, wrong[0].Error(), "line 1, shoe: this column is not known")
}

func TestFixturesComeBackWhole(t *testing.T) {
	list := []club.Fixture{
		{UID: "a", For: plan.Match, Title: "A v B", Start: clock.Start{Local: "2026-11-28T15:00",
			Zone: "Europe/London"}, Place: "=Tidegate"},
		{UID: "b", For: plan.Training, Title: "Gym", Start: clock.Start{Local: "2026-10-25T01:30",
			Zone: "Europe/London", Occurrence: clock.Second}},
		{UID: "c", For: plan.Match, Title: "Cup", Start: clock.Start{Local: "2026-12-05T00:00", Zone: "Asia/Tokyo"},
			Day: true},
	}
	var file bytes.Buffer
	require.NoError(t, share.WriteFixtures(&file, list))
	rows, wrong, err := share.ReadFixtures(file.Bytes(), "Europe/Paris")
	require.NoError(t, err)
	require.Empty(t, wrong)
	for i := range list {
		assert.Equal(t, list[i], rows[i].Is)
	}
	rows, wrong,
		err = share.ReadFixtures([]byte("match;kick-off;date\nA v B;3:30 pm;28.11.2026\nC v "+
		"D;25:00;29.11.2026\nE v F;;someday\n"),
		"Europe/London")
	require.NoError(t, err)
	assert.Equal(t, clock.Start{Local: "2026-11-28T15:30", Zone: "Europe/London"}, rows[0].Is.Start)
	require.Len(t, wrong, 2)
	assert.Equal(t, []string{"kick-off", "date"}, []string{wrong[0].Column, wrong[1].Column})
}

const season = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n" +
	"BEGIN:VEVENT\r\nUID:match\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Europe/London:20261128T150000\r\n" +
	"SUMMARY:Brackwater v Fell\r\n moor\\, first\r\nLOCATION:Tidegate\r\nEND:VEVENT\r\n" +
	"BEGIN:VEVENT\r\nUID:utc\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20260704T130000Z\r\nSUMMARY:Summer " +
	"cup\r\nEND:VEVENT\r\n" +
	"BEGIN:VEVENT\r\nUID:day\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20261205\r\nSUMMARY:Away\r\n" +
	"END:VEVENT\r\n" +
	"BEGIN:VEVENT\r\nUID:tue\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Europe/London:20261013T185000\r\n" +
	"RRULE:FREQ=WEEKLY;COUNT=4\r\nEXDATE;TZID=Europe/London:20261020T185000\r\nSUMMARY:Tuesday training\r\n" +
	"END:VEVENT\r\n" +
	"BEGIN:VEVENT\r\nUID:tue\r\nDTSTAMP:20260101T000000Z\r\nRECURRENCE-ID;TZID=Europe/London:20261027T185000\r\n" +
	"DTSTART;TZID=Europe/London:20261027T193000\r\nSUMMARY:Tuesday training, later\r\nEND:VEVENT\r\n" +
	"BEGIN:VEVENT\r\nUID:off\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20261128T150000Z\r\nSTATUS:CANCELLED\r\n" +
	"SUMMARY:Off\r\nEND:VEVENT\r\n" +
	"BEGIN:VEVENT\r\nUID:odd\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;TZID=Nowhere/Land:20261128T150000\r\n" +
	"SUMMARY:Odd\r\nEND:VEVENT\r\n" +
	"END:VCALENDAR\r\n"

func TestACalendarIsReadAsFixtures(t *testing.T) {
	from, to := time.Date(2026, 7, 1, 0, 0, 0, 0, time.UTC), time.Date(2027, 7, 1, 0, 0, 0, 0, time.UTC)
	rows, wrong, err := share.ReadCalendar([]byte(season), "Europe/London", from, to)
	require.NoError(t, err)
	var said []string
	for _, r := range rows {
		said = append(said, fmt.Sprintf("%s %s %s %v", r.Is.Start.Local, r.Is.For, r.Is.Title, r.Is.Day))
	}
	assert.Equal(t, []string{
		"2026-07-04T14:00 match Summer cup false", // told by the clock at the ground
		"2026-10-13T18:50 training Tuesday training false",
		"2026-10-27T19:30 training Tuesday training, later false",
		"2026-11-03T18:50 training Tuesday training false", // the same hour after the clocks went back
		"2026-11-28T15:00 match Brackwater v Fellmoor, first false",
		"2026-12-05T00:00 match Away true",
	}, said)
	require.Len(t, wrong, 1)
	assert.Contains(t, wrong[0].What, `"Nowhere/Land" is not known`)
	_, _, err = share.ReadCalendar([]byte("hello"), "Europe/London", from, to)
	assert.Error(t, err)
	ids := map[string]bool{}
	for _, r := range rows {
		assert.False(t, ids[r.Is.UID], r.Is.UID)
		ids[r.Is.UID] = true
	}
}

func TestTestsComeBackWhole(t *testing.T) {
	list := []club.Trial{{Player: "Pia Lindqvarn", Test: "Jump height", Unit: "cm", Better: club.Higher,
		Day: "2026-11-24", Tries: []float64{38.2, 39.1, -1}},
		{Player: "Pia Lindqvarn", Test: "10 m", Unit: "s", Better: club.Lower, Day: "2026-11-24",
			Tries: []float64{1.83, 1.79}}}
	var file bytes.Buffer
	require.NoError(t, share.WriteTrials(&file, list))
	rows, wrong, err := share.ReadTrials(file.Bytes())
	require.NoError(t, err)
	require.Empty(t, wrong)
	assert.Equal(t, list, []club.Trial{rows[0].Is, rows[1].Is})
	assert.Equal(t, []float64{39.1, 1.79}, []float64{list[0].Best(), list[1].Best()})
	_, wrong,
		err = share.ReadTrials([]byte("name,test,day,tries\nA,Jump,24.11.2026,\"38,2; " +
		"39\"\nA,Jump,2026-11-24,40\nA,Jump,soon,fast\nA,,2026-11-24,\n"))
	require.NoError(t, err)
	var said []string
	for _, p := range wrong {
		said = append(said, p.Error())
	}
	assert.Equal(t, []string{"line 3: a Jump 2026-11-24 is in line 2 already",
		`line 4, day: "soon" is no day: write it as 2026-11-28 or 28.11.2026`,
		`line 4, tries: "fast" is no number; part several tries with ;`,
		"line 5, test: give it a name", "line 5, tries: there are between 1 and 20 tries"}, said)
}

func TestPlansAndRoutinesComeBackWhole(t *testing.T) {
	at, err := clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}.Resolve()
	require.NoError(t, err)
	d := demo.HomeMatch(at)
	var file bytes.Buffer
	require.NoError(t, share.WriteJSON(&file, d))
	back, err := share.ReadPlan(file.Bytes())
	require.NoError(t, err)
	assert.Equal(t, d, back)
	file.Reset()
	r := club.NewRoutine(d, "Match day", "home")
	r.Slots, r.Was = []club.Slot{{Block: "raise", Pool: []string{"skips", "rising-loop"}}}, r.Blocks[:2]
	require.NoError(t, share.WriteJSON(&file, r))
	kept, err := share.ReadRoutine(file.Bytes())
	require.NoError(t, err)
	assert.Equal(t, r, kept)
	for says, text := range map[string]string{"additional properties": `{"name": "x", "method": "ramp", "blocks": [], "tempo": 3}`, "not a method": strings.Replace(file.String(), `"ramp"`, `"mine"`, 1), "missing properties": `{}`, "not one JSON value": `{"name": `} {
		_, err := share.ReadRoutine([]byte(text))
		assert.ErrorContains(t, err, says)
	}
	_, err = share.ReadPlan([]byte(`{"format": 1}`))
	assert.Error(t, err)
}

func FuzzReaders(f *testing.F) {
	f.Add([]byte(season))
	f.Add([]byte("number;first;last\r\n1;\"a\r\nb\";'=c\r\n"))
	f.Fuzz(func(t *testing.T, file []byte) {
		from := time.Date(2026, 7, 1, 0, 0, 0, 0, time.UTC)
		share.ReadPlayers(file) // must not panic, whatever they say
		share.ReadDrills(file)
		share.ReadTrials(file)
		share.ReadFixtures(file, "Europe/London")
		share.ReadCalendar(file, "Europe/London", from, from.AddDate(1, 0, 0))
	})
}

// A calendar of a few hundred bytes does not keep the server busy, whatever its rules
// say: each is answered at once, and in little memory.
func TestACalendarIsBounded(t *testing.T) {
	list := func(from, to int) string {
		var all []string
		for n := from; n <= to; n++ {
			all = append(all, strconv.Itoa(n))
		}
		return strings.Join(all, ",")
	}
	for name, rule := range map[string]string{
		"every second": "FREQ=DAILY;BYHOUR=" + list(0, 23) + ";BYMINUTE=" + list(0, 59) + ";" +
			"BYSECOND=" + list(0, 59),
		"the 30th of February": "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30",
		"a 53rd Monday":        "FREQ=MONTHLY;BYDAY=53MO",
		"a day in no month":    "FREQ=YEARLY;BYMONTH=2;BYYEARDAY=200",
		"a week in no month":   "FREQ=YEARLY;BYMONTH=2;BYWEEKNO=30;BYMONTHDAY=1",
		"a far interval":       "FREQ=DAILY;INTERVAL=99999999",
		"no interval":          "FREQ=DAILY;INTERVAL=0",
		"a position of none":   "FREQ=MONTHLY;BYDAY=MO;BYSETPOS=300",
	} {
		text := "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:a\r\n" +
			"DTSTART:20261101T150000Z\r\nSUMMARY:x\r\nRRULE:" + rule + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		begin := time.Now()
		from := time.Date(2026, 11, 1, 0, 0, 0, 0, time.UTC)
		rows, _, err := share.ReadCalendar([]byte(text), "Europe/London", from, from.AddDate(1, 0, 0))
		runtime.ReadMemStats(&after)
		assert.Less(t, time.Since(begin), 5*time.Second, name)
		assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(300<<20), name)
		assert.LessOrEqual(t, len(rows), 400, name)
		assert.NotPanics(t, func() { _ = err })
	}
	for _, deep := range []string{strings.Repeat("BEGIN:VEVENT\r\n", 40_000),
		"BEGIN:VCALENDAR\r\n" + strings.Repeat("BE\r\n GIN:VALARM\r\n", 20_000),
		"END:VCALENDAR\r\nBEGIN:VCALENDAR\r\n"} {
		_, _, err := share.ReadCalendar([]byte(deep), "Europe/London", time.Time{}, time.Now())
		assert.ErrorContains(t, err, "no calendar")
	}
	wide := "name," + strings.Repeat("x,", 400_000) + "\n" + strings.Repeat(",", 200_000)
	_, _, err := share.ReadDrills([]byte(wide))
	assert.ErrorContains(t, err, "columns at the most")
	rows := "first name,number\n" + strings.Repeat("Ada,ten\n", 4000)
	_, wrong, err := share.ReadPlayers([]byte(rows))
	require.NoError(t, err)
	assert.LessOrEqual(t, len(wrong), 101)
	assert.Contains(t, wrong[len(wrong)-1].What, "more problems")
}

// What an older spreadsheet saves is letters and marks; what looks like a formula behind
// a semicolon stays in its cell; a list of names and cues is a list of drills.
func TestListsAreReadAsTheyAreSaved(t *testing.T) {
	rows, wrong, err := share.ReadPlayers([]byte("first name,last name\nSe\xe1n,O\x92Dea\n"))
	require.NoError(t, err)
	require.Empty(t, wrong)
	assert.Equal(t, "Seán O’Dea", rows[0].Is.Label())
	var out strings.Builder
	require.NoError(t, share.WritePlayers(&out, []club.Player{{First: "a;=1+1", Last: "b"}}))
	assert.Contains(t, out.String(), `"a;=1+1"`)
	drills, wrong, err := share.ReadDrills([]byte("name;say\nLeg swings;tall, no bounce\nHip circles;\n"))
	require.NoError(t, err)
	require.Empty(t, wrong)
	require.Len(t, drills, 2)
	assert.Equal(t, []any{"leg-swings", "tall, no bounce"}, []any{drills[0].Is.Code, drills[0].Is.Cues[0]})
	for _, kind := range []string{"squad", "drills", "fixtures", "tests"} {
		var empty strings.Builder
		known, err := share.Template(&empty, kind)
		require.NoError(t, err)
		assert.True(t, known && strings.Count(empty.String(), "\n") == 1, kind)
	}
}

func TestAPlainListOfNamesAndCuesIsRead(t *testing.T) {
	rows, wrong, err := share.ReadDrills([]byte("- Heel slides (slow; breathe)\r\n\r\n2. Box circles: tall hips\n" +
		"Plain"))
	require.NoError(t, err)
	assert.Empty(t, wrong)
	var said [][]string
	for _, row := range rows {
		said = append(said, append([]string{row.Is.Name}, row.Is.Cues...))
	}
	assert.Equal(t, [][]string{{"Heel slides", "slow", "breathe"}, {"Box circles", "tall hips"}, {"Plain"}}, said)
	rows, _, err = share.ReadDrills([]byte("name;kit a lane;seasons\nHops;5 hurdle;pre-season; finals"))
	require.NoError(t, err)
	assert.Equal(t, 5, rows[0].Is.PerLane["hurdle"])
}

func TestAFigureInATableIsReadOrRefusedAtItsCell(t *testing.T) {
	rows, wrong, err := share.ReadDrills([]byte("name;figure\nA;\nB;none\nC;\"{\"\"poses\"\":[{\"\"lean\"\":20}]}" +
		"\"\nD;\"{\"\"poses\"\":[{\"\"leg\"\":[0,200]}]}\"\nE;squat\n"))
	require.NoError(t, err)
	var said []string
	for _, p := range wrong {
		said = append(said, p.Error())
	}
	require.Len(t, said, 2)
	assert.Contains(t, said[0], "line 5, figure: pose 1: the knee does -8 to 160 degrees, not 200")
	assert.Contains(t, said[1], "line 6, figure: this is no figure")
	byName := map[string]club.Drill{}
	for _, r := range rows {
		byName[r.Is.Name] = r.Is
	}
	assert.Nil(t, byName["A"].Figure)
	assert.False(t, byName["A"].Plain)
	assert.True(t, byName["B"].Plain)
	assert.EqualValues(t, 20, byName["C"].Figure.Poses[0].Lean)
}
