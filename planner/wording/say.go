package wording

import (
	"context"
	"slices"
	"unicode/utf8"

	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/store"
)

// Place is where lines are written: into a block, before one, or last.
type Place struct {
	Into, Before string    // ids of blocks
	List         plan.When // the list that they go into; "": the run-in
}

// Heard is what lines became, with the plan that they are in.
type Heard struct {
	Lines    []pen.Became
	Document *plan.Document
}

// tooMuch says why so much cannot be read at once, or nil.
func tooMuch(text string) error {
	lines := say.Lines(text)
	if len(lines) > say.MaxLines {
		return plan.In("say", "put in %d lines at a time: these are %d", say.MaxLines, len(lines))
	}
	for i, line := range lines {
		if n := utf8.RuneCountInString(line); n > say.MaxLength {
			return plan.In("say", "line %d has %d letters: keep a line to %d", i+1, n, say.MaxLength)
		}
	}
	return nil
}

// write puts lines into a document.
func (at Place) write(r *say.Reader, d *plan.Document, text string) []pen.Became {
	lines, head := r.ReadAll(text), 0
	if at.List != "" {
		lines, head = append([]say.Line{say.ListHead(at.List)}, lines...), 1
	}
	var became []pen.Became
	if at.Into != "" {
		became = pen.WriteInto(r, d, lines, at.Into)
	} else {
		became = pen.Write(r, d, lines, at.Before)
	}
	pen.Keep(r, d, text, became[min(head, len(became)):])
	return became
}

// Hear reads lines as they are typed, and changes nothing.
func (wo *Wording) Hear(ctx context.Context, clubID, id uint64, text string, at Place) (*Heard, error) {
	if err := tooMuch(text); err != nil {
		return nil, err
	}
	session, reader, err := wo.reader(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	d := session.Document.Clone()
	d.Upgrade()
	lines := at.write(reader, d, text)
	return &Heard{lines, d}, nil
}

// reader reads lines about the plan of a session.
func (wo *Wording) reader(ctx context.Context, clubID, id uint64) (*store.Session, *say.Reader, error) {
	return wo.readerAt(ctx, clubID, id, "")
}

// readerAt is [Wording.reader] of a plan that starts on its day at a time, as 19:00; "": as it does.
func (wo *Wording) readerAt(ctx context.Context, clubID, id uint64,
	starts string) (*store.Session, *say.Reader, error) {
	session, err := wo.boards.Session(ctx, clubID, id)
	if err != nil {
		return nil, nil, err
	}
	known, err := wo.books.Playbook(ctx, clubID)
	if err != nil {
		return nil, nil, err
	}
	start, err := startingAt(session.Document, starts)
	if err != nil {
		return nil, nil, err
	}
	if start != session.Document.Start {
		moved := *session
		moved.Document, session = session.Document.Clone(), &moved
		moved.Document.Start = start
	}
	of := pen.ContextOf(session.Document, known.Sport.Key, known.Book.Drills)
	of.Index, of.Plays = known.Names(), known.Sport
	return session, say.NewReader(of), nil
}

// Write puts lines into a plan as they were said. Drills that the book does not have are
// the plan's until it is used ([boards.Boards.KeepOwn]). It fails as [boards.Boards.Change] does; what
// could not be done of a line is said beside it.
func (wo *Wording) Write(ctx context.Context, by planner.Account, id uint64, revision uint32, text string,
	at Place) (*boards.Board, *Heard, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, nil, err
	}
	if err := tooMuch(text); err != nil {
		return nil, nil, err
	}
	_, reader, err := wo.reader(ctx, by.ClubID, id)
	if err != nil {
		return nil, nil, err
	}
	heard := &Heard{}
	board, err := wo.boards.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		heard.Lines = at.write(reader, d, text)
		heard.Document = d
		if !slices.ContainsFunc(heard.Lines, func(b pen.Became) bool { return b.Line.Is != say.IsBlank }) {
			return "", plan.In("say", "write a drill, as you say it: leg swings, 8 each way a leg")
		}
		return said(heard.Lines), nil
	})
	if err != nil {
		return nil, nil, err
	}
	return board, heard, nil
}

// said names what was written, for an undo.
func said(lines []pen.Became) string {
	n, first := 0, ""
	for _, b := range lines {
		if b.Line.Is == say.IsBlank || b.Line.Said == "" {
			continue
		}
		if n++; first == "" {
			first = b.Line.Said
		}
	}
	if letters := []rune(first); len(letters) > 40 {
		first = string(letters[:39]) + "…"
	}
	if n > 1 {
		return drill.Number(n, "lines") + " written"
	}
	return first
}

// SetPart is the edit that reads what is said of a part of a block.
func (wo *Wording) SetPart(ctx context.Context, clubID, id uint64, block string, part pen.Part,
	text string) (boards.Edit, error) {
	_, reader, err := wo.reader(ctx, clubID, id)
	return func(d *plan.Document) (string, error) { return pen.SetPart(reader, d, block, part, text) }, err
}
