package wording

import (
	"context"
	"strings"
	"time"
	"unicode/utf16"

	"cuestart/core/clock"
	"cuestart/core/hear"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// InWords is a plan in its coach's words, with what each line of them is.
type InWords struct {
	Lines    []string
	Anew     []bool   // the line was changed by hand, or never said: it is written here
	Spans    [][]Span // of each line, what gave what
	Became   []pen.Written
	Document *plan.Document // as it is with these words
	Starts   string         // the time of the day to which its start is to move with them, as 19:00; "": to none
}

// Span is a part of a line, in UTF-16 units as pages count them, and what it gave.
type Span = hear.Span

// read reads the lines of words, for a plan that they are then of.
func (w *InWords) read(reader *say.Reader) {
	w.Became = pen.Rewrite(reader, w.Document, strings.Join(w.Lines, "\n"))
	w.Spans = make([][]Span, len(w.Lines))
	for n, line := range w.Lines {
		var read []*say.Line
		for i := range w.Became {
			if b := &w.Became[i]; b.At == n && b.Line.Is != say.IsBlank {
				read = append(read, &b.Line)
			}
		}
		if len(read) == 0 {
			continue
		}
		for _, s := range reader.Spans(line, read...) {
			s.From, s.To = utf16Len(line[:s.From]), utf16Len(line[:s.To])
			w.Spans[n] = append(w.Spans[n], s)
		}
	}
}

// utf16Len is how many UTF-16 units a text has.
func utf16Len(text string) int { return len(utf16.Encode([]rune(text))) }

// Words are the plan's words as they are.
func (wo *Wording) Words(ctx context.Context, clubID, id uint64) (*InWords, error) {
	session, reader, err := wo.reader(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	d := session.Document.Clone()
	d.Upgrade()
	w := &InWords{Document: d}
	for _, l := range pen.YourWords(reader, d) {
		w.Lines, w.Anew = append(w.Lines, l.Text), append(w.Anew, l.Anew)
	}
	w.read(reader)
	return w, nil
}

// startingAt is a plan that starts on its day at a time, as 19:00; "": as it does. It fails on what
// is no time of a day.
func startingAt(d *plan.Document, starts string) (clock.Start, error) {
	start := d.Start
	if starts == "" {
		return start, nil
	}
	at, err := time.Parse("15:04", starts)
	day, _, parted := strings.Cut(start.Local, "T")
	if err != nil || !parted {
		return start, plan.In("start", "%q is no time of the day, as 19:00", starts)
	}
	start.Local = day + "T" + at.Format("15:04")
	return start, nil
}

// HearWords reads words as they are edited, for a plan whose start moves to a time of its day where starts is one, and
// changes nothing.
func (wo *Wording) HearWords(ctx context.Context, clubID, id uint64, text, starts string) (*InWords, error) {
	if err := tooMuch(text); err != nil {
		return nil, err
	}
	session, reader, err := wo.readerAt(ctx, clubID, id, starts)
	if err != nil {
		return nil, err
	}
	d := session.Document.Clone()
	d.Upgrade()
	w := &InWords{Lines: strings.Split(text, "\n"), Document: d, Starts: starts}
	w.Anew = make([]bool, len(w.Lines))
	w.read(reader)
	return w, nil
}

// PutWords makes a plan what its words say, as they were edited; what was not edited is left alone. Its start moves to
// a time of its day where starts is one. It fails as [boards.Boards.Change] does.
func (wo *Wording) PutWords(ctx context.Context, by planner.Account, id uint64, revision uint32, text,
	starts string) (*boards.Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	if err := tooMuch(text); err != nil {
		return nil, err
	}
	_, reader, err := wo.readerAt(ctx, by.ClubID, id, starts)
	if err != nil {
		return nil, err
	}
	return wo.boards.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		start, err := startingAt(d, starts)
		if err != nil {
			return "", err
		}
		if start != d.Start {
			if _, err := boards.SetStart(start, wo.base.Now())(d); err != nil {
				return "", err
			}
		}
		became := pen.Rewrite(reader, d, text)
		var list []pen.Became
		for _, b := range became {
			list = append(list, b.Became)
		}
		return said(list), nil
	})
}
