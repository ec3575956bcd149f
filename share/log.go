package share

import (
	"io"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/conduct"
)

// LogFile is the log of a session as it is saved.
type LogFile struct {
	Title   string     `json:"title"`
	Day     string     `json:"day"` // 2026-11-28
	Season  string     `json:"season,omitempty"`
	Note    string     `json:"note,omitempty"`
	Differs []string   `json:"different,omitempty"` // from the plan, sentences
	Blocks  []LogBlock `json:"blocks"`
	Players []LogName  `json:"players"`
}

// LogBlock is a block of a log.
type LogBlock struct {
	Name     string     `json:"name"`
	Phase    string     `json:"phase"`
	Leader   string     `json:"leader,omitempty"`
	Planned  int        `json:"planned_seconds"`
	Lasted   int        `json:"lasted_seconds"`
	Measured bool       `json:"measured"` // somebody said when it was over
	Note     string     `json:"note,omitempty"`
	Who      []string   `json:"who"`
	Drills   []LogDrill `json:"drills"`
}

// LogDrill is a drill of a log.
type LogDrill struct {
	Code    string   `json:"code"`
	Name    string   `json:"name"`
	Amount  int      `json:"amount"`
	Seconds int      `json:"seconds"` // at work
	Without []string `json:"without,omitempty"`
	Ticks   string   `json:"ticked,omitempty"` // of its grid
}

// LogName is a player of a log.
type LogName struct {
	Name   string `json:"name"`
	Was    string `json:"was"`              // there, late, out or away
	Effort *int   `json:"effort,omitempty"` // 0 to 10
	Note   string `json:"note,omitempty"`
}

// NewLogFile is a log with names in place of ids.
func NewLogFile(title, day, season, note string, l *conduct.Log) *LogFile {
	f := &LogFile{Title: title, Day: day, Season: season, Note: note, Differs: l.Differs, Blocks: []LogBlock{},
		Players: []LogName{}}
	name := map[string]string{}
	for _, p := range l.Players {
		name[p.Person] = p.Name
		one := LogName{Name: p.Name, Was: p.Was, Note: p.Note}
		if p.Effort >= 0 {
			effort := p.Effort
			one.Effort = &effort
		}
		f.Players = append(f.Players, one)
	}
	names := func(ids []string) []string {
		list := []string{}
		for _, id := range ids {
			list = append(list, name[id])
		}
		return list
	}
	for _, b := range l.Blocks {
		block := LogBlock{Name: b.Name, Phase: b.Phase.Key(), Leader: b.Leader, Planned: b.Planned, Lasted: b.Actual,
			Measured: b.Measured, Note: b.Note, Who: names(b.Who)}
		for _, d := range b.Drills {
			block.Drills = append(block.Drills, LogDrill{Code: d.Code, Name: d.Name, Amount: d.Amount,
				Seconds: d.Seconds,
				Without: names(d.Without), Ticks: d.Ticks})
		}
		f.Blocks = append(f.Blocks, block)
	}
	return f
}

// WriteLog writes a log as CSV: a drill a row, with its block.
func WriteLog(w io.Writer, f *LogFile) error {
	var rows [][]string
	for _, b := range f.Blocks {
		for _, d := range b.Drills {
			rows = append(rows, []string{f.Day, f.Title, b.Name, b.Phase, b.Leader, clock.Duration(b.Planned),
				clock.Duration(b.Lasted), d.Name, strconv.Itoa(d.Amount), strconv.Itoa(d.Seconds),
				strings.Join(b.Who, "; "), strings.Join(d.Without, "; "), b.Note})
		}
	}
	return writeTable(w, []string{"day", "session", "block", "phase", "leader", "planned", "lasted", "drill", "amount",
		"seconds at work", "who", "without", "note"}, rows)
}

// WeekLine is what a week gave a player of a joint and a quality.
type WeekLine struct {
	Player  string  `json:"player"`
	Region  string  `json:"joint"`
	Quality string  `json:"quality"`
	Minutes float64 `json:"minutes"`
}

// WriteWeek writes a week as CSV: a player, a joint and a quality a row.
func WriteWeek(w io.Writer, lines []WeekLine) error {
	rows := make([][]string, len(lines))
	for i, l := range lines {
		rows[i] = []string{l.Player, l.Region, l.Quality, strconv.FormatFloat(l.Minutes, 'f', 2, 64)}
	}
	return writeTable(w, []string{"player", "joint", "quality", "minutes"}, rows)
}

// TestLine is a test of a player, as it is saved.
type TestLine struct {
	Player string `json:"player"`
	club.Trial
}

// NewTestFile is tests with their players' names.
func NewTestFile(trials []club.Trial) []TestLine {
	lines := make([]TestLine, len(trials))
	for i, t := range trials {
		lines[i] = TestLine{t.Player, t}
	}
	return lines
}
