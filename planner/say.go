package planner

import (
	"context"
	"slices"
	"strings"
	"unicode/utf8"

	"cuestart/core/check"
	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/core/schedule"
	"cuestart/store"
)

// Place is where lines are written: into a block, before one, or last.
type Place struct {
	Into, Before string    // ids of blocks
	List         plan.When // the list that they go into; "": the run-in
}

// Heard is what lines became, with the plan that they are in.
type Heard struct {
	Lines    []say.Became
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
func (at Place) write(r *say.Reader, d *plan.Document, text string) []say.Became {
	lines, head := r.ReadAll(text), 0
	if at.List != "" {
		lines, head = append([]say.Line{say.ListHead(at.List)}, lines...), 1
	}
	var became []say.Became
	if at.Into != "" {
		became = r.WriteInto(d, lines, at.Into)
	} else {
		became = r.Write(d, lines, at.Before)
	}
	r.Keep(d, text, became[min(head, len(became)):])
	return became
}

// Hear reads lines as they are typed, and changes nothing.
func (p *Planner) Hear(ctx context.Context, clubID, id uint64, text string, at Place) (*Heard, error) {
	if err := tooMuch(text); err != nil {
		return nil, err
	}
	session, reader, err := p.reader(ctx, clubID, id)
	if err != nil {
		return nil, err
	}
	d := session.Document.Clone()
	d.Upgrade()
	lines := at.write(reader, d, text)
	return &Heard{lines, d}, nil
}

// reader reads lines about the plan of a session.
func (p *Planner) reader(ctx context.Context, clubID, id uint64) (*store.Session, *say.Reader, error) {
	return p.readerAt(ctx, clubID, id, "")
}

// readerAt is [Planner.reader] of a plan that starts on its day at a time, as 19:00; "": as it does.
func (p *Planner) readerAt(ctx context.Context, clubID, id uint64, starts string) (*store.Session, *say.Reader, error) {
	session, err := p.session(ctx, clubID, id)
	if err != nil {
		return nil, nil, err
	}
	known, err := p.playbook(ctx, clubID)
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
	of := say.ContextOf(session.Document, known.sport.Key, known.book.Drills)
	of.Index, of.Plays = known.names(), known.sport
	return session, say.NewReader(of), nil
}

// Write puts lines into a plan as they were said. Drills that the book does not have are
// the plan's until it is used ([Planner.keepOwn]). It fails as [Planner.Change] does; what
// could not be done of a line is said beside it.
func (p *Planner) Write(ctx context.Context, by Account, id uint64, revision uint32, text string, at Place) (*Board, *Heard, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, nil, err
	}
	if err := tooMuch(text); err != nil {
		return nil, nil, err
	}
	_, reader, err := p.reader(ctx, by.ClubID, id)
	if err != nil {
		return nil, nil, err
	}
	heard := &Heard{}
	board, err := p.Change(ctx, by, id, revision, func(d *plan.Document) (string, error) {
		heard.Lines = at.write(reader, d, text)
		heard.Document = d
		if !slices.ContainsFunc(heard.Lines, func(b say.Became) bool { return b.Line.Is != say.IsBlank }) {
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
func said(lines []say.Became) string {
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

// SetAttributes is the edit that reads what is said of a block beside its drills.
func (p *Planner) SetAttributes(ctx context.Context, clubID, id uint64, block, text string) (Edit, error) {
	_, reader, err := p.reader(ctx, clubID, id)
	return func(d *plan.Document) (string, error) { return reader.SetAttributes(d, block, text) }, err
}

// HoldCost says what it costs that a block of the plan is held: more waiting, blocks cut
// shorter or left out; "" where it costs nothing, or the block is not held.
func (p *Planner) HoldCost(ctx context.Context, b *Board, block string) (string, error) {
	free := b.Document.Clone()
	held := free.Block(block)
	if held == nil || !held.Held() && len(held.After) == 0 {
		return "", nil
	}
	if _, err := free.SetHold(block, plan.Holds{}); err != nil {
		return "", nil
	}
	fitted, err := schedule.Fit(ctx, free, schedule.AtOnce)
	if err != nil {
		return "", err
	}
	var costs []string
	if more := (b.Schedule.Result.Idle - fitted.Result.Idle) / max(1, len(b.Document.Players)); more >= 30 {
		costs = append(costs, clock.Lasting(more/5*5)+" more waiting each")
	}
	without := fitted.Blocks(free)
	for i, now := range b.Blocks {
		switch was := without[i]; {
		case was.Kept && !now.Kept:
			costs = append(costs, "no "+now.Name)
		case was.Kept && was.Length()-now.Length() >= 15:
			costs = append(costs, now.Name+" "+clock.Lasting(was.Length()-now.Length())+" shorter")
		}
	}
	return strings.Join(costs, "; "), nil
}

// Lines writes a plan as lines that are read as that plan.
func (b *Board) Lines() []string { return say.Print(b.Document, b.book.Drills) }

// Stand is a drill that may stand in for another.
type Stand struct {
	Word  string // easier, harder, instead, other
	Drill drill.Drill
}

// Stands lists what may stand in for drill item of a block with one press.
func (b *Board) Stands(block *plan.Block, item int) (list []Stand) {
	k := block.Items[item].Drill
	used := map[string]bool{}
	for _, other := range b.Document.Blocks {
		for _, i := range other.Items {
			used[i.Drill.Code] = true
		}
	}
	known, ok := b.book.Find(k.Code)
	if !ok {
		known = k
	}
	take := func(word string, found drill.Drill, ok bool) {
		if ok {
			used[found.Code] = true
			list = append(list, Stand{word, found})
		}
	}
	easier, ok := b.book.Easier(known)
	take("easier", easier, ok)
	harder, ok := b.book.Harder(known)
	take("harder", harder, ok)
	instead, ok := b.book.Find(known.Swap)
	take("instead", instead, ok)
	if another := drill.Another(b.book.Drills, known, block.Phase, used, b.sport.Key); another != nil {
		list = append(list, Stand{"other", *another})
	}
	return list
}

// Principles tells what the plan has of what a warm-up usually has.
func (b *Board) Principles() []check.Principle { return check.Principles(b.reading) }

// AddPrinciple puts what a plan lacks into it. It fails as [Planner.Change] does.
func (p *Planner) AddPrinciple(ctx context.Context, by Account, id uint64, revision uint32, principle string) (*Board, error) {
	if err := May(by, ToPlan); err != nil {
		return nil, err
	}
	board, err := p.Board(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	return p.Change(ctx, by, id, revision, check.AddPrinciple(board.reading, principle))
}

// Item is a drill of the book ready for a block of the plan.
func (b *Board) Item(k drill.Drill) plan.Item { return b.book.Item(k, b.Document.Grade) }
