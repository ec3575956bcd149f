package hear_test

import (
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"cuestart/core/hear"
	"cuestart/core/movement"
)

// words is a lexicon that knows movements, and a few people, lines and places.
type words struct{}

func (words) Moves(text string) bool { return movement.Lead(text) != "" }
func (words) Known(name string) bool { return name == "90/90 switches" }
func (words) Word(word string) bool  { return movement.Lead(word) != "" || word == "drill" }
func (words) Still(name string) bool {
	return strings.Contains(name, "plank") || strings.Contains(name, "stretch")
}
func (words) Person(text string) bool { return text == "keepers" || text == "everyone" }
func (words) Leads(text string) bool  { return text == "ada" }
func (words) Place(text string) bool  { return text == "hall" }
func (words) Line(text string) (float64, bool) {
	return map[string]float64{"half way": 50, "22": 22}[text], text == "half way" || text == "22"
}
func (words) Clock(hour, minute int) (float64, bool) {
	return float64(15*60 - 60*hour - minute), hour == 14
}
func (words) Goes(name string) bool {
	u, known := movement.Of(name)
	return known && u.Travels
}

// What people write is read as they mean it: what is done, and how much of it.
func TestLinesAreHeardAsTheyAreMeant(t *testing.T) {
	for line, want := range map[string]hear.Reading{
		"b) Squats 3 sets of 8, chest up": {Name: "Squats",
			Amount: hear.Amount{Sets: 3, Reps: 8}},
		"lunges ten on each leg, slow down fast up": {Name: "lunges",
			Amount: hear.Amount{Reps: 10, Sides: 2}},
		"leg swings 6-8 e/s hold the post": {Name: "leg swings",
			Amount: hear.Amount{Reps: 8, Least: 6, Sides: 2}},
		"arm circles 10 fwd 10 back, both arms together": {Name: "arm circles",
			Amount: hear.Amount{Parts: []float64{10, 10}}},
		"side plank count of twenty each side x2": {Name: "side plank",
			Amount: hear.Amount{Sets: 2, Reps: 1, Sides: 2, Hold: 20}},
		"snap downs 5, stick for 2 secs": {Name: "snap downs",
			Amount: hear.Amount{Reps: 5, Hold: 2, Counted: true}},
		"calf stretch half a minute a side": {Name: "calf stretch",
			Amount: hear.Amount{Reps: 1, Sides: 2, Hold: 30}},
		"leg swings 8 & 8": {Name: "leg swings",
			Amount: hear.Amount{Parts: []float64{8, 8}, Sides: 2, PartSides: true}},
		"sprints 2 @ 70, 2 @ 85, 1 @ 95 over 20m": {Name: "sprints",
			Amount: hear.Amount{Trips: 5, Metres: 20, Efforts: []float64{0.7, 0.85, 0.95}}},
		"fast feet 20 secs on 10 off x 4": {Name: "fast feet",
			Amount: hear.Amount{Sets: 4, Seconds: 20, Rest: 10}},
		"Jog to half way an back twice": {Name: "Jog",
			Amount: hear.Amount{Trips: 4, Metres: 50, To: "half way"}},
		"keepers - skips 20 yds up & back": {Name: "skips",
			Amount: hear.Amount{Trips: 2, Metres: 18.288, Unit: "yd"}, Who: []string{"keepers"}},
		"strides 4 x 60m @ 60/70/80/90, 2 min betwen, flats": {Name: "strides",
			Amount: hear.Amount{Trips: 4, Metres: 60, Rest: 120, Efforts: []float64{0.6, 0.7, 0.8, 0.9}}},
		"jog a couple of laps, chat if you like": {Name: "jog", Amount: hear.Amount{Laps: 2}},
		"throws 6 at 60%, 6 at 80, 3 flat out": {Name: "throws",
			Amount: hear.Amount{Reps: 15, Efforts: []float64{0.6, 0.8, 1}}},
		"split squats 3x5 e/s 3-1-1": {Name: "split squats",
			Amount: hear.Amount{Sets: 3, Reps: 5, Sides: 2, Tempo: []float64{3, 1, 1}}},
		"1. 90/90 switches x10 alternating": {Name: "90/90 switches",
			Amount: hear.Amount{Reps: 10}},
		"skips 15m - if it's boggy do them on the spot 5 each leg": {Name: "skips",
			Amount: hear.Amount{Trips: 1, Metres: 15}},
		"pogos 20 then sprint 10 m x 4":                           {Is: hear.Combo, Times: 4},
		"carioca 20m down, side shuffle back, twice":              {Is: hear.Combo, Times: 2},
		"two rounds of 5 push ups, 5 star jumps, 5 tuck jumps":    {Is: hear.Combo, Times: 2},
		"squat jump straight into a 5 m sprint. 3 of those, full": {Is: hear.Combo, Times: 3},
		"bike or jog 5 mins, whatever's free": {Is: hear.Choice, Name: "bike or jog",
			Amount: hear.Amount{Seconds: 300}},
		"Coin toss @ 20":               {Is: hear.Fixed, Name: "Coin toss"},
		"PART 2: BALL WORK (32 to 24)": {Is: hear.Heading, Name: "PART 2"},
		"right lads, lunges 8 e/s": {Name: "lunges",
			Amount: hear.Amount{Reps: 8, Sides: 2}},
		"everyone but the second row jog 2 laps": {Name: "jog", Amount: hear.Amount{Laps: 2},
			Not: []string{"the second row"}},
		"jump and freeze, 6 goes (count to 3 before you move)": {Name: "jump and freeze",
			Amount: hear.Amount{Reps: 6}},
		"shuffles twice, once off each foot": {Name: "shuffles",
			Amount: hear.Amount{Reps: 2}},
		"strides 30 m at 70, 90, 100 %": {Name: "strides",
			Amount: hear.Amount{Trips: 3, Metres: 30, Efforts: []float64{0.7, 0.9, 1}}},
		"standing throws 3 @50% 2 @70 1 @90": {Name: "standing throws",
			Amount: hear.Amount{Reps: 6, Efforts: []float64{0.5, 0.7, 0.9}}},
		"side plank - 15 sec left, 15 right": {Name: "side plank",
			Amount: hear.Amount{Reps: 1, Sides: 2, Hold: 15}},
		"14:20 skips 20m": {Name: "skips", Amount: hear.Amount{Trips: 1, Metres: 20}},
		"lunges 5 each way, squats x 10, doubles 4": {Is: hear.Combo, Times: 1},
		"throws 20, 30, 40 yds x 3 each":            {Name: "throws", Amount: hear.Amount{Reps: 9}},
		"sprints 60% 70% 80%, two of each": {Name: "sprints",
			Amount: hear.Amount{Reps: 6, Each: true, Efforts: []float64{0.6, 0.7, 0.8}}},
		"jog a lap and a half": {Name: "jog", Amount: hear.Amount{Laps: 1.5}},
		"they can skip or hula hoop, whichever, for 90 seconds": {Is: hear.Choice, Name: "skip or hula hoop",
			Amount: hear.Amount{Seconds: 90}},
		"two lines on the baseline":    {Is: hear.Remark},
		"At 4 they sit down with me":   {Is: hear.Remark},
		"20 s of plank and ten squats": {Is: hear.Combo, Times: 1},
		"overhead toss 5": {Name: "overhead toss",
			Amount: hear.Amount{Reps: 5}},
		"neck iso 4 ways 8 s": {Name: "neck iso",
			Amount: hear.Amount{Ways: 4, Seconds: 8}},
		"squeeze ball hold 5 x 10": {Name: "squeeze ball hold",
			Amount: hear.Amount{Reps: 10, Hold: 5, Counted: true}},
		"ground balls 5 going away, 5 coming to you": {Name: "ground balls",
			Amount: hear.Amount{Parts: []float64{5, 5}}},
		"face offs: 10 clamps 10 rakes": {Name: "face offs",
			Amount: hear.Amount{Parts: []float64{10, 10}}},
		"two foot landings from a box 6, freeze 2 secs": {Name: "two foot landings",
			Amount: hear.Amount{Reps: 6, Hold: 2, Counted: true}},
		"throwing, start at 10m go to 25, 5 minutes": {Name: "throwing",
			Amount: hear.Amount{Seconds: 300}},
		"strides 3x60 @ 70/80/90": {Name: "strides",
			Amount: hear.Amount{Trips: 3, Metres: 60, Efforts: []float64{0.7, 0.8, 0.9}}},
		"high knees 3x20": {Name: "high knees",
			Amount: hear.Amount{Sets: 3, Reps: 20}},
		"shadow corners 6 x 20s/20s": {Name: "shadow corners",
			Amount: hear.Amount{Sets: 6, Seconds: 20, Rest: 20}},
		"shooting in pairs, 5 spots 4 each": {Name: "shooting",
			Amount: hear.Amount{Parts: []float64{4, 4, 4, 4, 4}, Each: false}, Who: []string{"in pairs"}},
		"shoulder taps against the wall :30 x 2": {Name: "shoulder taps",
			Amount: hear.Amount{Sets: 2, Seconds: 30}},
		"sweeps to the shed doors & back": {Name: "sweeps",
			Amount: hear.Amount{Trips: 2, To: "shed doors"}},
		"30 s plank, 30 s side plank": {Is: hear.Combo, Times: 1},
		"jumps, x5 front x5 middle": {Name: "jumps",
			Amount: hear.Amount{Parts: []float64{5, 5}}},
		"bear crawl 10 m fwd 10 m back": {Name: "bear crawl",
			Amount: hear.Amount{Trips: 2, Metres: 10}},
		"passing, 2 min right foot, 1 min left": {Name: "passing",
			Amount: hear.Amount{Seconds: 180}},
		"passing: chest, bounce, lob - 10 of each": {Name: "passing",
			Amount: hear.Amount{Parts: []float64{10, 10, 10}}},
		"shots, 4 each routine, 3 routines": {Name: "shots",
			Amount: hear.Amount{Parts: []float64{4, 4, 4}}},
		"kicks from hands 6 from the ground 6": {Name: "kicks",
			Amount: hear.Amount{Parts: []float64{6, 6}}},
		"squats 8, last 2 with a jump":            {Name: "squats", Amount: hear.Amount{Reps: 8}},
		"180s x 4":                                {Name: "180s", Amount: hear.Amount{Reps: 4}},
		"pitch inspection at 40 with the ump":     {Is: hear.Fixed, Name: "pitch inspection"},
		"Shin pads and boots please, no trainers": {Is: hear.Remark},
		"pop-ups off 5 steps x 4": {Name: "pop-ups",
			Amount: hear.Amount{Reps: 4}},
		"chair sprints half court 4, full": {Name: "chair sprints",
			Amount: hear.Amount{Reps: 4, Efforts: []float64{1}}},
		"20 kicks":                                    {Name: "kicks", Amount: hear.Amount{Reps: 20}},
		"jog wall to wall x 6":                        {Name: "jog", Amount: hear.Amount{Trips: 6, To: "wall"}},
		"run, hop, jump x 4":                          {Is: hear.Combo, Times: 4},
		"register and hall rules (3 min)":             {Is: hear.Fixed, Name: "register and hall rules"},
		"u16 girls warmup v2":                         {Is: hear.Heading, Name: "u16 girls warmup v2"},
		"clean the spikes tonight not in the morning": {Is: hear.Remark},
		"bibs are in the blue bag, cones in the shed": {Is: hear.Remark},
		"don't forget we're on the small pitch again so mind the fence": {Is: hear.Remark},
	} {
		got := hear.Line(line, words{})
		if want.Is == "" {
			want.Is = hear.Drill
		}
		assert.Equal(t, want.Is, got.Is, line)
		if want.Is != hear.Remark && want.Is != hear.Combo {
			assert.Equal(t, want.Name, got.Name, line)
		}
		assert.Equal(t, want.Times, got.Times, line)
		if want.Is == hear.Drill || want.Is == hear.Choice {
			got.Amount.Metres = float64(int(1000*got.Amount.Metres+0.5)) / 1000
			assert.Equal(t, want.Amount, got.Amount, line)
		}
		if want.Who != nil {
			assert.Equal(t, want.Who, got.Who, line)
		}
	}
}

// When and where are not how many.
func TestWhenIsNotHowMany(t *testing.T) {
	minutes := func(at *int) int {
		if at == nil {
			return 0
		}
		return -*at / 60
	}
	is := hear.Line("squats 10, done by 35, with Ada", words{})
	assert.Equal(t, []any{35, "Ada", 10.0}, []any{minutes(is.Done), is.Leader, is.Amount.Reps})
	is = hear.Line("14:20 squats 6/6", words{})
	assert.Equal(t, []any{40, []float64{6, 6}}, []any{minutes(is.At), is.Amount.Parts},
		"a time of the day is nothing to hold")
	is = hear.Line("Wheels warm - Ada leads, 40 down to 32", words{})
	assert.Equal(t, []any{hear.Heading, 40, 32}, []any{is.Is, minutes(is.From), minutes(is.To)})
	is = hear.Line("everyone but the keepers: sprints to half way, 5 of them, 90 percent, walk back", words{})
	assert.Equal(t, []any{5.0, []float64{0.9}, "sprints"}, []any{is.Amount.Trips, is.Amount.Efforts, is.Name})
	assert.Contains(t, is.Cues, "walk back", "what is told stays as it was typed")
}

// Whatever is typed, there is a reading, the best is first, and no name or cue is anything but
// what was typed.
func FuzzLine(f *testing.F) {
	for _, line := range []string{"", "squats `10\nplank", "0 x 10", "1e9 sprints", "☃ 10 × 3–5 m ½",
		"x4 % to the and back", "- - -", "((((", "a or or b or", "8 each way a leg then", "٣ squats",
		strings.Repeat("10 x ", 60)} {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, line string) {
		if len(line) > 400 || !utf8.ValidString(line) {
			t.Skip()
		}
		all := hear.Readings(line, words{})
		for i, r := range all {
			assert.True(t, i == 0 || r.Score <= all[0].Score)
			assert.False(t, r.Is == hear.Drill && !strings.Contains(line, r.Name), "%q of %q", r.Name, line)
			for _, cue := range r.Cues {
				assert.Contains(t, line, cue)
			}
		}
	})
}

// Pieces in any order are read without a panic, and no amount is less than nothing.
func TestPiecesInAnyOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pieces := rapid.SliceOfN(rapid.SampledFrom([]string{"10", "x4", "each leg", "squats", "then", "sprint", "20 m",
			"and back", ",", ":", "(", ")", "at 20", "30 to 12", "hold 5", "3-1-1", "twice", "with Ada", "keepers",
			"if", "or", "half a min", "on", "off", "%", "60/75/90", "3x8", "left"}), 1, 12).Draw(t, "pieces")
		a := hear.Line(strings.Join(pieces, " "), words{}).Amount
		for _, n := range []float64{a.Sets, a.Reps, a.Least, a.Sides, a.Hold, a.Seconds, a.Rest, a.Trips, a.Metres,
			a.Laps} {
			assert.GreaterOrEqual(t, n, 0.0)
		}
	})
}
