package boards

import (
	"context"

	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/planner"
)

// Lines writes a plan as lines that are read as that plan.
func (b *Board) Lines() []string { return pen.Print(b.Document, b.Book.Drills) }

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
	known, ok := b.Book.Find(k.Code)
	if !ok {
		known = k
	}
	take := func(word string, found drill.Drill, ok bool) {
		if ok {
			used[found.Code] = true
			list = append(list, Stand{word, found})
		}
	}
	easier, ok := b.Book.Easier(known)
	take("easier", easier, ok)
	harder, ok := b.Book.Harder(known)
	take("harder", harder, ok)
	instead, ok := b.Book.Find(known.Swap)
	take("instead", instead, ok)
	if another := drill.Another(b.Book.Drills, known, block.Phase, used, b.sport.Key); another != nil {
		list = append(list, Stand{"other", *another})
	}
	return list
}

// Principles tells what the plan has of what a warm-up usually has.
func (b *Board) Principles() []check.Principle { return check.Principles(b.reading) }

// AddPrinciple puts what a plan lacks into it. It fails as [Boards.Change] does.
func (bd *Boards) AddPrinciple(ctx context.Context, by planner.Account, id uint64, revision uint32,
	principle string) (*Board, error) {
	if err := planner.May(by, planner.ToPlan); err != nil {
		return nil, err
	}
	board, err := bd.Board(ctx, by.ClubID, id)
	if err != nil {
		return nil, err
	}
	return bd.Change(ctx, by, id, revision, check.AddPrinciple(board.reading, principle))
}

// Item is a drill of the book ready for a block of the plan.
func (b *Board) Item(k drill.Drill) plan.Item { return b.Book.Item(k, b.Document.Grade) }
