package share

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
)

// WriteList writes a plan as CSV, a line a drill or an event, in the order of time.
func WriteList(w io.Writer, d *plan.Document, s *schedule.Schedule) error {
	head := []string{"to go", "clock", "seconds", "phase", "block", "who", "where", "leader", "drill", "dose", "say",
		"look for", "caution"}
	var rows [][]string
	entries := list.All(d, s)
	for i := range entries {
		e := &entries[i]
		line := []string{e.From.ToGo(), clock.Clock(s.Start, e.From), fmt.Sprint(e.Seconds()), "", e.Name}
		if e.Block == nil {
			rows = append(rows, append(line, make([]string, len(head)-len(line))...))
			continue
		}
		line[3] = e.Block.Phase.Name()
		line = append(line, d.Audience(e.Block.Who), d.ZoneName(e.Block.Zone), d.LeaderName(e.Block.Leader))
		for _, doing := range e.Drills {
			k := &doing.Drill
			rows = append(rows, append(slices.Clone(line), k.Name, doing.Words(speech.English),
				strings.Join(k.Cues, ". "), strings.Join(k.Faults, ". "), k.Caution))
		}
	}
	return writeTable(w, head, rows)
}
