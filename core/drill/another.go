package drill

import "slices"

// Another finds a drill of the book that does most of what k does: the same regions,
// planes and qualities, at about the same effort, in that phase; none of those used.
// Nil where nothing is alike.
func Another(book []Drill, k Drill, phase Phase, used map[string]bool, sport string) (found *Drill) {
	best := 0
	for i := range book {
		d := &book[i]
		if used[d.Code] || d.Code == k.Code || !d.Serves(phase) ||
			len(d.Sports) > 0 && !slices.Contains(d.Sports, sport) || d.Effort > k.Effort+0.15 ||
			d.Effort < k.Effort-0.25 {
			continue
		}
		alike := 2*common(d.Qualities, k.Qualities) + common(d.Regions, k.Regions) + common(d.Planes, k.Planes)
		for _, kit := range slices.Concat(d.Kit, d.LaneKit) {
			if !slices.Contains(k.Kit, kit) && !slices.Contains(k.LaneKit, kit) {
				alike-- // it wants something more
			}
		}
		if alike > best {
			best, found = alike, d
		}
	}
	return found
}

func common(a, b []string) (n int) {
	for _, one := range a {
		if slices.Contains(b, one) {
			n++
		}
	}
	return n
}
