package board

import (
	"cuestart/planner/boards"
	"cuestart/planner/books"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/planner/pitchside"
	"cuestart/planner/reach"
	"cuestart/planner/whatif"
	"cuestart/planner/wording"
)

// Room is what these screens may touch.
type Room struct {
	Boards    *boards.Boards
	Books     *books.Books
	Diary     *diary.Diary
	Keep      *keep.Keep
	Pitchside *pitchside.Pitchside
	Reach     *reach.Reach
	WhatIf    *whatif.WhatIf
	Wording   *wording.Wording
}
