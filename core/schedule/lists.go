package schedule

import (
	"slices"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/today"
)

// Line is a list of a document, timed from its own line.
type Line struct {
	*plan.List
	Document *plan.Document // with the list's blocks for its own
	Schedule *Schedule      // from the line: after it positive, before a restart negative
	Over     int            // seconds by which its least is longer than the time that there is
}

// Seconds is how long it takes, from the line or to it.
func (l *Line) Seconds() (seconds int) {
	for _, b := range l.Schedule.Result.Blocks {
		if !b.Kept {
			continue
		}
		if l.Forward() {
			seconds = max(seconds, int(b.End))
		} else {
			seconds = max(seconds, int(-b.Start))
		}
	}
	return seconds
}

// Lists times the lists of a document. Doses are as full as the list's length allows;
// blocks that share nobody run side by side.
func Lists(d *plan.Document) []Line {
	lines := make([]Line, len(d.Lists))
	for i := range d.Lists {
		lines[i] = line(d, &d.Lists[i])
	}
	return lines
}

func line(d *plan.Document, l *plan.List) Line {
	on := today.Apply(d.On(l))
	timed := Line{List: l, Document: on}
	dosings := make([][]Dosing, len(on.Blocks))
	most := 1
	for i := range on.Blocks {
		dosings[i] = Dosings(&on.Blocks[i], on.Group(&on.Blocks[i]), toTarget)
		most = max(most, len(dosings[i]))
	}
	room := l.Length - l.Margin
	for cut := range most { // one level less of each, until it fits
		timed.Schedule = placed(on, l, dosings, cut)
		timed.Over = 0
		if l.Length == 0 {
			break
		}
		used := timed.Seconds()
		if !l.Forward() {
			used -= l.Margin
		}
		if timed.Over = max(0, used-room); timed.Over == 0 {
			break
		}
	}
	timed.Schedule.Start, _ = d.Start.Resolve()
	return timed
}

// placed lays the blocks one after the other, each at its fullest dose but cut levels.
func placed(d *plan.Document, l *plan.List, dosings [][]Dosing, cut int) *Schedule {
	s := &Schedule{Result: &runin.Result{Feasible: true, Blocks: make([]runin.Scheduled, len(d.Blocks))},
		Amounts: make([][]int, len(d.Blocks)), Less: make([]*Less, len(d.Blocks))}
	free := map[string]int{} // seconds from the line, by player
	order := make([]int, len(d.Blocks))
	for i := range order {
		order[i] = i
	}
	if !l.Forward() {
		slices.Reverse(order)
	}
	for _, i := range order {
		b, r := &d.Blocks[i], &s.Result.Blocks[i]
		r.ID = b.ID
		if r.Why = d.Idle(b); r.Why != "" {
			continue
		}
		members := d.Members(b.Who)
		level := max(0, len(dosings[i])-1-cut)
		at := 0
		if !l.Forward() {
			at = l.Margin
		}
		for _, id := range members {
			at = max(at, free[id])
		}
		end := at + dosings[i][level].Seconds
		for _, id := range members {
			free[id] = end
		}
		r.Kept, r.Level, r.Start, r.End = true, level, clock.Offset(at), clock.Offset(end)
		if !l.Forward() {
			r.Start, r.End = clock.Offset(-end), clock.Offset(-at)
		}
		s.Amounts[i], s.Less[i] = dosings[i][level].Amounts, dosings[i][level].Less
		if full := dosings[i][len(dosings[i])-1]; level < len(dosings[i])-1 {
			r.Why = "as " + clock.Lasting(l.Length) + " allow: " +
				clock.Lasting(full.Seconds-dosings[i][level].Seconds) + " shorter"
		}
	}
	for _, p := range d.Players {
		s.Players = append(s.Players, runin.Player{ID: p.ID})
	}
	s.Result.Strands = strandsOf(d)
	return s
}

// strandsOf are the players who have the same blocks.
func strandsOf(d *plan.Document) (strands [][]string) {
	at, keys := map[string]int{}, map[string]string{}
	for i := range d.Blocks {
		for _, id := range d.Members(d.Blocks[i].Who) {
			keys[id] += d.Blocks[i].ID + " "
		}
	}
	for _, p := range d.Players {
		key := keys[p.ID]
		if key == "" {
			continue
		}
		if n, ok := at[key]; ok {
			strands[n] = append(strands[n], p.ID)
			continue
		}
		at[key], strands = len(strands), append(strands, []string{p.ID})
	}
	return strands
}

// longestHold is how many seconds one hold of a drill lasts; 0 of what is not held.
func longestHold(k *drill.Drill) float64 {
	if k.Dose.Kind != drill.Hold {
		return 0
	}
	if k.Dose.Breaths > 0 {
		return float64(k.Dose.Breaths * drill.BreathSeconds)
	}
	return k.Dose.HoldSeconds
}

// Findings are what the few rules of a list say of it, in sentences: it is too long for
// its time; after the end, a hold is longer than 30 s or hard work is in it.
func (l *Line) Findings() (says []string) {
	if l.Over > 0 {
		says = append(says,
			"It takes "+clock.Lasting(l.Over)+" more than there are: take something out, or make its doses smaller.")
	}
	for i := range l.Document.Blocks {
		b := &l.Document.Blocks[i]
		for n := range b.Items {
			k := &b.Items[n].Drill
			switch {
			case l.When == plan.AfterEnd && longestHold(k) > LongestAfter:
				says = append(says, k.Name+": holds after the end last 10 to 30 s (Behm 2016).")
			case l.When == plan.AfterEnd && k.Effort >= drill.HardEffort:
				says = append(says, k.Name+" is hard work: after the end a body comes down.")
			case l.When != plan.AfterEnd && k.Static && longestHold(k) >= ShortHold:
				says = append(says,
					k.Name+" is held long, right before play: keep it short, or leave it for after the end.")
			}
		}
	}
	if l.When == plan.AtBreak && len(l.Document.Blocks) > 0 && !slices.ContainsFunc(l.Document.Blocks, hard) {
		says = append(says, "Nothing in it is hard: a short sprint or two brings back what was lost (Mohr 2004).")
	}
	return says
}

func hard(b plan.Block) bool {
	return slices.ContainsFunc(b.Items,
		func(i plan.Item) bool { return i.Drill.PeakEffort(i.Drill.Range.Target) >= drill.HardEffort })
}

// LongestAfter and ShortHold are how long one hold may last after the end, and right
// before play, in seconds.
const (
	LongestAfter = 30
	ShortHold    = 30
)
