// Package office puts the use cases together, for who starts the program and for tests. What
// serves a page is given the few that it may touch.
package office

import (
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/planner/learn"
	"cuestart/planner/pitchside"
	"cuestart/planner/reach"
	"cuestart/planner/staff"
	"cuestart/planner/whatif"
	"cuestart/planner/wording"
	"cuestart/store"
)

// Office is all use cases, on one base.
type Office struct {
	*planner.Base
	Staff     *staff.Staff
	Books     *books.Books
	Keep      *keep.Keep
	Boards    *boards.Boards
	WhatIf    *whatif.WhatIf
	Reach     *reach.Reach
	Pitchside *pitchside.Pitchside
	Learn     *learn.Learn
	Diary     *diary.Diary
	Wording   *wording.Wording
}

// New puts them together on the real clock.
func New(s *store.Store) *Office {
	base := planner.NewBase(s)
	o := &Office{Base: base, Staff: staff.New(base, s), Books: books.New(base, s)}
	o.Keep = keep.New(base, s, o.Books)
	o.Boards = boards.New(base, s, o.Books, o.Keep)
	o.WhatIf = whatif.New(base, s, o.Boards)
	o.Reach = reach.New(base, s, o.Books, o.Keep, o.Boards)
	o.Pitchside = pitchside.New(base, s, o.Keep, o.Boards, o.Reach)
	o.Learn = learn.New(base, s, o.Books, o.Keep, o.Boards, o.Pitchside)
	o.Diary = diary.New(base, s, o.Books, o.Keep, o.Boards, o.Learn)
	o.Wording = wording.New(base, o.Books, o.Boards, o.Diary)
	base.Follow, base.Erased = o.Boards.Follow, o.Reach.Forget
	return o
}
