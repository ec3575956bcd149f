package list

import (
	"slices"
	"strings"
	"time"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/speech"
)

// Dated is a list with the start that it counts back from.
type Dated struct {
	StartName string
	Start     time.Time // in the venue's zone
	Entries   []Entry
	Place     func(*Entry) string // where an entry is; "": not said
	Leader    func(*Entry) string
}

// mostChanges is how many changes are said one by one.
const mostChanges = 6

// Changes says what a newer list has otherwise, a sentence each, in the words of say:
// "Kick-off now 15:30", "High balls now at 16′20″, 8 catches: 2 fewer". None where the
// lists are the same.
func Changes(say speech.Say, before, after Dated) (said []string) {
	if !before.Start.Equal(after.Start) {
		said = append(said, say("%s now %s", after.StartName, clock.Clock(after.Start, 0)))
	}
	for i := range after.Entries {
		is := &after.Entries[i]
		if was := find(before.Entries, is.Key); was == nil {
			said = append(said, say("New: %s at %s", is.Name, is.From.ToGo()))
		} else if more := changed(say, before, after, was, is); len(more) > 0 {
			said = append(said, is.Name+" "+strings.Join(more, ", "))
		}
	}
	for i := range before.Entries {
		if was := &before.Entries[i]; find(after.Entries, was.Key) == nil {
			said = append(said, say("%s is out", was.Name))
		}
	}
	if more := len(said) - mostChanges; more > 0 {
		said = append(said[:mostChanges], say("and %d more changes", more))
	}
	return said
}

func find(entries []Entry, key string) *Entry {
	if i := slices.IndexFunc(entries, func(e Entry) bool { return e.Key == key }); i >= 0 {
		return &entries[i]
	}
	return nil
}

// changed says what of an entry is otherwise, as parts of one sentence after its name.
func changed(say speech.Say, before, after Dated, was, is *Entry) (said []string) {
	if was.From != is.From {
		said = append(said, say("now at %s", is.From.ToGo()))
	} else if is.Block == nil && was.To != is.To {
		said = append(said, say("now %s", clock.Lasting(is.Seconds())))
	}
	for _, c := range []struct {
		format string
		of     func(Dated, *Entry) string
	}{{"now at: %s", placeOf}, {"now led by %s", leaderOf}} {
		if to := c.of(after, is); to != "" && to != c.of(before, was) {
			said = append(said, say(c.format, to))
		}
	}
	return append(said, drills(say, was, is)...)
}

func placeOf(d Dated, e *Entry) string {
	if d.Place == nil {
		return ""
	}
	return d.Place(e)
}

func leaderOf(d Dated, e *Entry) string {
	if d.Leader == nil {
		return ""
	}
	return d.Leader(e)
}

// drills says what of an entry's drills is otherwise.
func drills(say speech.Say, was, is *Entry) (said []string) {
	for _, now := range is.Drills {
		then := slices.IndexFunc(was.Drills, func(d Doing) bool { return d.Drill.Name == now.Drill.Name })
		if then < 0 {
			said = append(said, say("with %s", now.Drill.Name))
			continue
		}
		before := was.Drills[then]
		words := now.Drill.WordsIn(say, now.Amount)
		if words == before.Drill.WordsIn(say, before.Amount) {
			continue
		}
		if len(is.Drills) > 1 {
			words = now.Drill.Name + " " + words
		}
		switch more := now.Amount - before.Amount; {
		case now.Drill.Dose.Kind == drill.Time:
		case more > 0:
			words += say(" (%d more)", more)
		case more < 0:
			words += say(" (%d fewer)", -more)
		}
		said = append(said, words)
	}
	for _, then := range was.Drills {
		if !slices.ContainsFunc(is.Drills, func(d Doing) bool { return d.Drill.Name == then.Drill.Name }) {
			said = append(said, say("without %s", then.Drill.Name))
		}
	}
	return said
}
