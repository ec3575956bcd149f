package sport

import (
	"slices"
	"strings"
	"unicode"
)

// also is what positions are called in short, or by others, by their names in lower
// case. What is ambiguous is settled by which positions the sport has.
var also = map[string][]string{
	"prop": {"p", "lhp", "thp", "loosehead", "loose head", "tighthead", "tight head", "loosehead prop", "tighthead prop"}, "hooker": {"h", "hk"},
	"lock": {"l", "lk", "second row", "2nd row"}, "flanker": {"f", "fl", "blindside", "openside", "blindside flanker", "openside flanker", "back row"},
	"number eight": {"n8", "8", "no 8", "no. 8", "number 8", "no8", "eight", "eighthman"}, "scrum-half": {"sh", "scrumhalf", "nine", "half-back", "halfback"},
	"fly-half": {"fh", "flyhalf", "ten", "stand-off", "outside half", "first five"}, "full-back": {"fb", "fullback", "full back", "lb", "rb", "left back", "right back"},
	"centre": {"c", "ctr", "center", "inside centre", "outside centre", "midfield centre", "ic", "oc"}, "wing": {"w", "wg", "winger", "lw", "rw", "left wing", "right wing", "sf", "small forward"},
	"keeper": {"gk", "g", "k", "goalie", "goalkeeper", "goal keeper", "goaltender", "wicket-keeper", "wicketkeeper", "wk", "goal"}, "centre-back": {"cb", "centreback", "center back", "centre half"},
	"midfielder": {"mf", "m", "mid", "cm", "dm", "am", "midfield", "middie"}, "winger": {"w", "lw", "rw", "wing", "wide"}, "forward": {"f", "fw", "fwd", "striker", "st", "cf", "pf", "power forward"},
	"defender": {"d", "def", "back", "defence", "defense", "long pole", "cb", "lb", "rb"}, "last player": {"fixo", "fixed", "defender", "last man"}, "pivot": {"p", "pv", "pivo", "line", "circle runner"},
	"goal shooter": {"gs", "shooter"}, "goal attack": {"ga"}, "wing attack": {"wa"}, "wing defence": {"wd", "wing defense"}, "goal defence": {"gd", "goal defense"}, "goal keeper": {"gk", "keeper", "goalie", "goalkeeper"},
	"point": {"pg", "point guard", "1"}, "guard": {"g", "sg", "shooting guard", "2"}, "setter": {"s"}, "outside hitter": {"oh", "outside", "left side"}, "opposite": {"opp", "op", "o", "right side"}, "middle": {"m", "mb", "middle blocker"}, "libero": {"l", "lib"},
	"back": {"b", "lb", "rb", "cb", "left back", "right back", "centre back", "playmaker"}, "opener": {"op", "opening batter", "opening bat"}, "batter": {"bat", "batsman", "b"},
	"fast bowler": {"fast", "quick", "seamer", "pace", "pace bowler"}, "slow bowler": {"spin", "spinner", "slow"}, "all-rounder": {"ar", "all rounder", "allrounder"},
	"pitcher": {"p", "sp", "rp"}, "catcher": {"c"}, "infielder": {"if", "inf", "infield", "1b", "2b", "3b", "ss", "shortstop", "first base", "second base", "third base"}, "outfielder": {"of", "outfield", "lf", "cf", "rf"},
	"jammer": {"j"}, "blocker": {"b"}, "handler": {"h"}, "cutter": {"c"}, "attacker": {"a", "att", "attack", "forward"},
}

// Find is the position of the sport that a text means: its name in any case, or what
// it is called in short. Where there is none, near is the one that the text is likest
// to; "" where it is like none.
func (s *Sport) Find(text string) (position, near string) {
	said := plainly(text)
	if said == "" {
		return "", ""
	}
	for _, p := range s.Positions {
		if plainly(p) == said {
			return p, ""
		}
	}
	for _, p := range s.Positions {
		if slices.ContainsFunc(also[strings.ToLower(p)], func(a string) bool { return plainly(a) == said }) {
			return p, ""
		}
	}
	least := len([]rune(said))/2 + 1 // slips beyond which it is another word
	for _, p := range s.Positions {
		if n := slips(said, plainly(p)); n < least {
			near, least = p, n
		}
	}
	return "", near
}

// plainly is a text without case, spaces and marks.
func plainly(text string) string {
	return strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) {
			return unicode.ToLower(r)
		}
		return -1
	}, text)
}

// slips is how many letters have to be changed, put in or left out to make a of b.
func slips(a, b string) int {
	x, y := []rune(a), []rune(b)
	row := make([]int, len(y)+1)
	for j := range row {
		row[j] = j
	}
	for i := range x {
		corner := row[0]
		row[0] = i + 1
		for j := range y {
			above := row[j+1]
			change := corner
			if x[i] != y[j] {
				change++
			}
			row[j+1] = min(change, above+1, row[j]+1)
			corner = above
		}
	}
	return row[len(y)]
}
