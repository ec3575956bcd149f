package runin

import "slices"

type span struct{ from, to int }

// merge sorts spans and joins those that touch; empty ones go.
func merge(spans []span) []span {
	spans = slices.DeleteFunc(slices.Clone(spans), func(s span) bool { return s.to <= s.from })
	slices.SortFunc(spans, func(a, b span) int { return a.from - b.from })
	var merged []span
	for _, s := range spans {
		if n := len(merged); n > 0 && s.from <= merged[n-1].to {
			merged[n-1].to = max(merged[n-1].to, s.to)
			continue
		}
		merged = append(merged, s)
	}
	return merged
}

// overlap is the number of seconds that [from, to) shares with merged spans.
func overlap(spans []span, from, to int) (seconds int) {
	for _, s := range spans {
		seconds += max(0, min(s.to, to)-max(s.from, from))
	}
	return seconds
}

func floorTo(t, grid int) int {
	if r := t % grid; r < 0 {
		return t - r - grid
	} else {
		return t - r
	}
}
