package planner

import (
	"context"
	"strings"
	"unicode/utf16"

	"cuestart/core/hear"
	"cuestart/core/plan"
	"cuestart/core/say"
)

// InWords is a plan in its coach's words, with what each line of them is.
type InWords struct {
	Lines    []string
	Anew     []bool   // the line was changed by hand, or never said: it is written here
	Spans    [][]Span // of each line, what gave what
	Became   []say.Written
	Document *plan.Document // as it is with these words
}

// Span is a part of a line, in UTF-16 units as pages count them, and what it gave.
type Span = hear.Span

// read reads the lines of words, for a plan that they are then of.
func (w *InWords) read(reader *say.Reader) {
	w.Became = reader.Rewrite(w.Document, strings.Join(w.Lines, "\n"))
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
func (p *Planner) Words(ctx context.Context, clubID, id uint64) (*InWords, error) {
	session, reader, err := p.reader(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	d := session.Document.Clone()
	d.Upgrade()
	w := &InWords{Document: d}
	for _, l := range reader.YourWords(d) {
		w.Lines, w.Anew = append(w.Lines, l.Text), append(w.Anew, l.Anew)
	}
	w.read(reader)
	return w, nil
}

// HearWords reads words as they are edited, and changes nothing.
func (p *Planner) HearWords(ctx context.Context, clubID, id uint64, text string) (*InWords, error) {
	if err := tooMuch(text); err != nil {
		return nil, err
	}
	session, reader, err := p.reader(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	d := session.Document.Clone()
	d.Upgrade()
	w := &InWords{Lines: strings.Split(text, "\n"), Document: d}
	w.Anew = make([]bool, len(w.Lines))
	w.read(reader)
	return w, nil
}

// PutWords makes a plan what its words say, as they were edited; what was not edited is left alone.
// It fails as [Planner.Change] does.
func (p *Planner) PutWords(ctx context.Context, by Account, id uint64, revision uint32, text string) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	if err := tooMuch(text); err != nil {
		return nil, err
	}
	_, reader, err := p.reader(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		became := reader.Rewrite(d, text)
		var list []say.Became
		for _, b := range became {
			list = append(list, b.Became)
		}
		return said(list), nil
	})
}
