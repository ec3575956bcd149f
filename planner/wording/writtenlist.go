package wording

import (
	"context"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/planner"
)

// HearList reads a list that is of no session, as it is typed: for a usual day of the club's first
// squad.
func (wo *Wording) HearList(ctx context.Context, clubID uint64, text string) (*InWords, error) {
	if err := tooMuch(text); err != nil {
		return nil, err
	}
	d, err := wo.diary.UsualDay(ctx, clubID)
	if err != nil {
		return nil, err
	}
	d.Blocks, d.Notes = nil, nil
	known, err := wo.books.Playbook(ctx, clubID)
	if err != nil {
		return nil, err
	}
	of := pen.ContextOf(d, known.Sport.Key, known.Book.Drills)
	of.Index, of.Plays = known.Names(), known.Sport
	w := &InWords{Lines: strings.Split(text, "\n"), Document: d}
	w.Anew = make([]bool, len(w.Lines))
	w.read(say.NewReader(of))
	return w, nil
}

// WriteList keeps a list that is of no session as a routine: by a name, or by its title. It fails
// with [plan.Problems] and ErrForbidden.
func (wo *Wording) WriteList(ctx context.Context, by planner.Account, name, text string) (id uint64, err error) {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return 0, err
	}
	w, err := wo.HearList(ctx, by.ClubID, text)
	if err != nil {
		return 0, err
	}
	if len(w.Document.Blocks) == 0 && len(w.Document.Lists) == 0 {
		return 0, plan.In("say", "write a drill, as you say it: leg swings, 8 each way a leg")
	}
	if name = strings.TrimSpace(name); name == "" {
		name = w.title()
	}
	all, err := wo.books.Routines(ctx, by.ClubID)
	if err != nil {
		return 0, err
	}
	if slices.ContainsFunc(all,
		func(r planner.Entry[club.Routine]) bool { return strings.EqualFold(r.Is.Name, name) }) {
		return 0, plan.In("name", "there is a routine called %s: give this one another name", name)
	}
	if err := wo.boards.KeepOwn(ctx, by, w.Document); err != nil {
		return 0, err
	}
	ids, err := wo.base.Save(ctx, by, name+" written as a list",
		planner.Change{Is: club.NewRoutine(w.Document, name, "")})
	if err != nil {
		return 0, err
	}
	return ids[0], nil
}

// title is what a list is called: its first line where that is a title or a heading, else what its
// first block holds.
func (w *InWords) title() string {
	for i := range w.Became {
		switch l := &w.Became[i].Line; l.Is {
		case say.IsBlank:
			continue
		case say.IsNote, say.IsBlock, say.IsPhase:
			return shortened(strings.Trim(say.AsTyped(l.Said), " :-"), plan.MaxName)
		}
		break
	}
	for b := range w.Document.AllBlocks() {
		return shortened(b.Name, plan.MaxName)
	}
	return "List"
}

// shortened is a text of so many letters at most.
func shortened(text string, most int) string {
	if letters := []rune(text); len(letters) > most {
		return strings.TrimSpace(string(letters[:most-1])) + "…"
	}
	return text
}
