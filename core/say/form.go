package say

import (
	"fmt"
	"slices"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/pattern"
	"cuestart/core/plan"
)

// How a block is run, as it is said at its head.
var (
	stationsOf = Spaced(`^(?:at|in|on|over|round)?~(?:` + num + `~)?stations?(?:~of~` + dec +
		`~(secs?|seconds?|s|minutes?|min))?$`)
	changeOf = Spaced(`^(?:change|changing|swap|rotate|rotating)(?:~(?:in|within|every|after|takes))?~` + dec +
		`~(secs?|seconds?|s|minutes?|min)$`)
	onWhistle = Spaced(`^(?:change|changing|swap|rotate|rotating)(?:~(?:on|at|with)~(?:the~)?(?:whistle|signal|call|bell))?$`)
	groupsBy  = Spaced(`^(?:in~)?groups?~by~(position|positions|level|levels|hand)$`)
	choiceOf  = Spaced(`^(?:they~choose|free choice|by choice|choose|pick|their choice|own choice|your choice|choice)?~` +
		num + `~of~(?:the~|these~|them~)?(?:` + num + `)?$`)
	choiceWord = Spaced(`^(?:they~choose|free choice|by choice|their choice|own choice|your choice|one of)$`)
	choiceLast = Spaced(`~\b(?:they~choose|free choice|by choice|their choice|own choice|your choice)[ ,\x01]*$`)
	atOnceOf   = Spaced(`\b` + num + `~at (?:once|a time)\b`)
	inWaves    = Spaced(`\bin~` + num + `~(?:waves|turns|goes|shifts)\b`)
	besideOf   = Spaced(`^(?:alongside|meanwhile|while (?:you|they|we) (?:hold|do it|wait))~[:,]?~(.+)$`)
	perLane    = Spaced(`\b` + num + `~(?:a|per|each|in each|to a)~(?:lane|line)\b`)
	onDays     = Spaced(`^(?:only~)?(?:if~we~|if~|when~we~|when~|on~|for~)?(?:an?~|the~)?(.+?)(?:~days?)?(?:~only)?$`)
)

// linesOf is how people share lanes, as a sheet prints it: "4 lines of 9".
var linesOf = Spaced(`^(?:in~)?` + num + `~(?:lines?|lanes?)~of~` + num + `$`)

// Lanes that are said before a line, or behind it.
var (
	lanesFirst = Spaced(`^(?:in~)?` + num + `~(?:lanes|lines|channels|files)~:~`)
	inLanes    = Spaced(`,?~\bin~` + num + `~(?:lanes|lines|channels|files)\b`)
)

// saysDay is a word without which the name of a day is not one.
var saysDay = Spaced(`^(?:if|when|on|only)\b|\b(?:days?|only)$`)

// forms are what is said of how a block is run.
type Forms struct {
	Form   plan.Form  `json:"form,omitempty"`
	Split  plan.Split `json:"split,omitempty"`
	Change int        `json:"change,omitempty"` // seconds
	Pick   int        `json:"pick,omitempty"`
	On     plan.Turn  `json:"on,omitempty"`
	Lanes  int        `json:"lanes,omitempty"` // side by side
}

// form reads a segment that says how a block is run.
func (s *scan) form(l *Line, text string) bool {
	text = strings.Trim(softRun.ReplaceAllString(text, " "), " ")
	if m := stationsOf.FindStringSubmatch(text); m != nil {
		l.Form = plan.AtStations
		if m[1] != "" {
			l.count = number(m[1])
		}
		if m[2] != "" {
			l.shared = m[2] + " " + m[3]
		}
		return true
	}
	if m := changeOf.FindStringSubmatch(text); m != nil {
		l.Change = int(seconds(decimal(m[1]), m[2]))
		return true
	}
	if m := linesOf.FindStringSubmatch(text); m != nil {
		l.Lanes = number(m[1])
		return true
	}
	if m := groupsBy.FindStringSubmatch(text); m != nil {
		l.Split = map[byte]plan.Split{'p': plan.ByPosition, 'l': plan.ByLevel,
			'h': plan.ByHand}[strings.ToLower(m[1])[0]]
		return true
	}
	if m := choiceOf.FindStringSubmatch(text); m != nil {
		l.Form, l.Pick = plan.ByChoice, number(m[1])
		return true
	}
	if choiceWord.MatchString(text) {
		l.Form = plan.ByChoice
		return true
	}
	if m := onDays.FindStringSubmatch(text); m != nil && saysDay.MatchString(text) {
		if on := s.turn(m[1]); on != "" {
			l.On = on
			return true
		}
	}
	return onWhistle.MatchString(text)
}

// headed tells whether a text before a colon says how a block is run.
func (s *scan) headed(head string) bool {
	return slices.ContainsFunc(segments(head), func(g segment) bool {
		return stationsOf.MatchString(g.text) || choiceOf.MatchString(g.text) || choiceWord.MatchString(g.text)
	})
}

// turn is how a day begins by what that is called, or by the first word of it.
func (s *scan) turn(name string) plan.Turn {
	name = Fold(name)
	for turn, called := range map[plan.Turn]string{plan.First: s.Turns.First, plan.Later: s.Turns.Later} {
		first, _, _ := strings.Cut(Fold(called), " ")
		if called != "" && (name == Fold(called) || name == first || name == strings.TrimSuffix(first, "ing") ||
			name+name[max(0, len(name)-1):]+"ing" == first) {
			return turn
		}
	}
	return map[string]plan.Turn{"we begin": plan.First, "they begin": plan.Later, "begin": plan.First,
		"attack": plan.First, "defence": plan.Later}[name]
}

// formed reads a block that is run at stations or by choice: its head, and where a colon
// follows all its drills, in one line.
func (s *scan) formed(l *Line) bool {
	if l.Form != "" {
		s.rounds(l)
	}
	head, rest, parted := strings.Cut(s.text, colon)
	if !parted {
		head, rest, _ = strings.Cut(s.text, ":")
	}
	head, cues := s.cues(head)
	if at := choiceLast.FindStringIndex(head); at != nil {
		l.Form, head = plan.ByChoice, head[:at[0]]+soft+head[at[1]:]
	}
	if l.Form == "" {
		return false
	}
	probe := newScan(s.Reader, head, slices.Clone(s.hidden))
	if d := probe.dose(&Line{}); d != nil && l.shared == "" {
		for _, g := range segments(head) {
			one := newScan(s.Reader, g.text, slices.Clone(s.hidden))
			if one.dose(&Line{}) != nil {
				l.shared = g.text
			}
		}
	}
	l.Is, l.Cues = IsBlock, cues
	l.Name, l.Note = probe.name(probe.text)
	if l.Name == "" {
		l.Name = map[plan.Form]string{plan.AtStations: "Stations", plan.ByChoice: "Choice"}[l.Form]
	}
	s.list(l, rest, l.shared)
	if n := len(l.Drills); n > 0 && l.count > 0 && l.count != n && l.Form == plan.AtStations {
		l.Note = strings.TrimSpace(l.Note + " " + fmt.Sprintf("%d stations, and %d named", l.count, n))
	}
	return true
}

// list reads the drills of a block that stand in its line: those without a dose have the
// one that was said for all.
func (s *scan) list(l *Line, rest, shared string) {
	all := slices.DeleteFunc(segments(rest), func(g segment) bool { return g.text == "" })
	if shared == "" && len(all) > 1 { // "bike, rower, jog, 4 min"
		probe := newScan(s.Reader, all[len(all)-1].text, slices.Clone(s.hidden))
		if d := probe.dose(&Line{}); d != nil && strings.Trim(probe.text, " ,"+soft) == "" {
			shared, all = all[len(all)-1].text, all[:len(all)-1]
		}
	}
	for _, g := range all {
		text := g.text
		probe := newScan(s.Reader, text, slices.Clone(s.hidden))
		if shared != "" && probe.dose(&Line{}) == nil {
			text += " " + shared
		}
		line := s.drill(text)
		if d := line.Dose; text != g.text && l.Form == plan.AtStations && d != nil && d.Kind == drill.Hold &&
			d.Breaths == 0 && !d.held {
			line.Dose = &Dose{Kind: drill.Time, Seconds: int(d.HoldSeconds)} // in all, till the whistle
		}
		if line.Name != "" {
			l.Drills = append(l.Drills, line)
		}
	}
}

// turns take how many do a drill at once, and what stands in each lane.
func (s *counting) turns(l *Line) {
	if m := s.take(atOnceOf); m != nil {
		l.AtOnce = number(m[1])
	} else if m := s.take(inWaves); m != nil {
		l.Waves = number(m[1])
	}
	if m := s.take(perLane); m != nil {
		l.PerLane = number(m[1])
	}
}

// beside takes the word before a drill that is done while the one before it is.
func (s *scan) beside(l *Line, text string) string {
	if m := besideOf.FindStringSubmatch(strings.TrimLeft(text, " "+soft)); m != nil {
		l.Alongside = true
		return m[1]
	}
	return text
}

// listNames are the heads of lists with a line of their own.
var ListNames = map[plan.When][]string{
	plan.AfterEnd: {"after", "afterwards", "cool down", "cooldown", "after the end"},
	plan.AtBreak: {"half time", "halftime", "at half time", "half time re warm up", "re warm up",
		"second half warm up", "break"},
	plan.OnBench: {"bench top ups", "top ups", "top up", "on the bench", "bench list"},
}

// ends are what a day may end with, by the word for it: what the line of the list after it
// is called.
var ends = map[string]string{"whistle": "Final whistle", "final whistle": "Final whistle", "bell": "Bell",
	"siren": "Siren", "hooter": "Hooter",
	"match": "End of the match", "game": "End of the game", "race": "End of the race", "session": "End of the session",
	"training": "End of training",
	"lift":     "End of the lift", "lesson": "End of the lesson", "practice": "End of practice"}

// AfterHead is the head of a list after the end whose line has that name.
func AfterHead(line string) string {
	for word, name := range ends {
		if name == line && word != "whistle" {
			return "after the " + word
		}
	}
	return "after the end"
}

// listHead is the list that a head begins, by its name, and what its line is called; ""
// where nobody said.
func listHead(name string) (when plan.When, line string) {
	name = Fold(name)
	if word, after := strings.CutPrefix(name, "after "); after && ends[strings.TrimPrefix(word, "the ")] != "" {
		return plan.AfterEnd, ends[strings.TrimPrefix(word, "the ")]
	}
	for when, names := range ListNames {
		if slices.Contains(names, name) {
			return when, ""
		}
	}
	return "", ""
}

// ListHead is the line that begins a list.
func ListHead(when plan.When) Line {
	l := Line{Is: IsPhase, List: when}
	if when == plan.AfterEnd {
		l.Phase = string(drill.After)
	}
	return l
}

// section reads the head of a part of the list: a phase, or a list with a line of its own;
// what stands behind it.
func (k *knower) section(l *Line, text string) (rest string, only bool) {
	head, rest, colon := strings.Cut(text, ":")
	if m := afterWhich.FindStringSubmatch(text); m != nil && !colon {
		l.List, l.Phase, l.Ends = plan.AfterEnd, string(drill.After), ends[Fold(m[1])]
		return m[2], true
	}
	for _, name := range []string{text, head} {
		if when, line := listHead(name); when != "" && (colon || name == text) {
			if l.List, l.Phase, l.Ends = when, "", line; when == plan.AfterEnd {
				l.Phase = string(drill.After)
			}
			if name == text {
				rest = ""
			}
			return strings.TrimSpace(rest), true
		}
	}
	if phase, rest := k.heading(text); phase != "" {
		l.Phase = phase
		return rest, true
	}
	if head, rest, parted := strings.Cut(text, ","); parted && !l.Part && k.Phase(head) != "" &&
		!anyDigitOrQuote.MatchString(rest) {
		l.Phase, l.Note = k.Phase(head), strings.TrimSpace(rest)
		return "", true
	}
	return text, false
}

// afterWhich is a line that says that it comes after the end.
var afterWhich = Spaced(`^after the~((?:final~)?(?:bell|whistle)|match|game|race|session|lift|lesson|training|practice)\b,?~(?:(?:they|we|everyone|everybody|all)~)?(.{3,})$`)

var anyDigitOrQuote = pattern.Must(`[\d"]`)

// brings reads "bring: first-aid bag, ice".
var brings = pattern.Must(`(?i)^(?:bring|carry out|carry|take out): *(.+)$`)
