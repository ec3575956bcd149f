package plan

import (
	"slices"
	"strings"
)

// BetweenPositions stands between the positions of somebody who has several.
const BetweenPositions = " / "

// Positions are those that a text names: "Wing / Centre", "back and forward".
func Positions(text string) (list []string) {
	text = strings.NewReplacer("/", ",", "&", ",", "+", ",", ";", ",", " and ", ",", " or ", ",").Replace(text)
	for one := range strings.SplitSeq(text, ",") {
		if one = strings.TrimSpace(one); one != "" && !slices.Contains(list, one) {
			list = append(list, one)
		}
	}
	return list
}

// Plays tells whether one of the positions is that.
func Plays(positions, position string) bool {
	return positions == position || slices.Contains(Positions(positions), position)
}

// PlaysOneOf tells whether one of the positions is among those.
func PlaysOneOf(positions string, of []string) bool {
	return slices.ContainsFunc(of, func(position string) bool { return Plays(positions, position) })
}
