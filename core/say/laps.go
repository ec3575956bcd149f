package say

import (
	"math"
	"strings"

	"cuestart/core/drill"
)

// lapsOf are laps, and of what: "2 laps", "a lap of the rink", "1/2 lap".
var lapsOf = Spaced(`\b(?:(1/2|half)~(?:of~)?(?:a~)?|` + num +
	`~(?:x~)?|(a|one)~)(?:easy~|full~|slow~|steady~)?laps?\b(?:~(?:of|round|around)~(?:the~|a~)?(?:` + wayWords +
	`)\b)?`)

// ways are how far it is once round a place, in metres, by its word: two lengths and two
// widths less eight of the corners that are cut, of the usual size of it; a track and a pool
// as they are measured.
var ways = []struct {
	word   string
	metres float64
}{
	{"skat", 172}, {"swim", 50}, {"football pitch", 338}, {"pitch", 338}, {"field", 320}, {"oval", 440}, {"rink", 172},
	{"ice", 172}, {"court", 78}, {"hall", 112}, {"gym", 92}, {"track", 400},
	{"pool", 50}, {"diamond", 110}, {"bases", 110}, {"infield", 110}, {"ground", 338}, {"park", 338}, {"mat", 40},
	{"studio", 60},
}

var wayWords = func() string {
	var words []string
	for _, w := range ways {
		words = append(words, w.word)
	}
	return strings.Join(words, "|")
}()

// usualWay is the way round where a sport is done, by its key; of others it is a pitch's.
var usualWay = map[string]string{"basketball": "court", "volleyball": "court", "handball": "court", "netball": "court",
	"futsal": "court", "badminton": "court", "tennis": "court",
	"wheelchair-basketball": "court", "ice-hockey": "rink", "baseball": "diamond", "softball": "diamond",
	"athletics": "track", "swimming": "pool", "water-polo": "pool",
	"cricket": "oval", "australian-football": "oval", "gymnastics": "hall", "strength": "gym"}

// laps takes how often something goes once round a place.
func (s *scan) laps(d *Dose) bool {
	said := strings.ToLower(s.text)
	m := s.takeIf(d.Kind == "", lapsOf)
	if m == nil {
		return false
	}
	for s.take(lapsOf) != nil { // said again
		continue
	}
	d.Kind, d.Laps, d.Metres = drill.Travel, float64(max(1, number(m[2]))), s.wayRound(said)
	if d.Trips = whole(d.Laps); m[1] != "" {
		d.Metres = math.Round(d.Metres / 2)
	}
	return true
}

// backOf is how one comes back: "walk back", "jogging back to the start".
var backOf = Spaced(`[ ,(\x01]~(?:and~)?(?:slow~|easy~)?((walk|jog)(?:ing)?~back)(?:~to~(?:the~)?start)?(?:~(?:recovery|easy|slowly|between))?\b`)

// backPace is how fast one comes back, in metres a second (Bohannon 1997 of walking).
var backPace = map[string]float64{"walk": 1.4, "jog": 2.3}

// wayBack takes how one comes back to where a length begins, which is told with it.
func (s *counting) wayBack(l *Line, d *Dose) {
	at := backOf.FindStringIndex(s.text)
	if at == nil || strings.Trim(s.text[:at[0]], " ,"+soft) == "" || !metresOf.MatchString(s.text) {
		return
	}
	if m := s.take(backOf); m != nil {
		d.WayBack = backPace[strings.ToLower(m[2])]
		l.Cues = append(l.Cues, strings.ToLower(m[1]))
	}
}

// wayRound is how far it is once round the place that a line names, else that of the sport.
func (k *knower) wayRound(said string) float64 {
	usual := 0.0
	if k.Plays != nil {
		usual = k.Plays.Round()
	}
	for _, w := range ways {
		if strings.Contains(said, w.word) {
			return w.metres
		}
		if usual == 0 && w.word == usualWay[k.Sport] {
			usual = w.metres
		}
	}
	if usual == 0 {
		usual = 338 // a pitch
	}
	return usual
}

// letters hides a list of letters, which are a name: "Y, T and W raises", and takes how
// often each is done.
func (s *counting) letters(d *Dose) {
	m := letterList.FindStringSubmatchIndex(s.text)
	if m == nil {
		return
	}
	names := strings.FieldsFunc(s.text[m[2]:m[3]], func(r rune) bool { return r < 'A' || r > 'Z' })
	after := s.text[m[3]:]
	n := ofEach.FindStringSubmatchIndex(after)
	if n == nil {
		return
	}
	d.Kind, d.Parts, d.Reps, d.Sets = drill.Reps, names, number(after[n[2]:n[3]]), 1
	s.text = s.text[:m[2]] + s.keep(s.text[m[2]:m[3]]) + after[:n[0]] + soft + after[n[1]:]
}
