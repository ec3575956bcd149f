// Package web is the site: the map of its addresses, and the rooms that the
// screens of each part of the work lie in. What all of them stand on is web/shell.
package web

import (
	"net/http"

	"cuestart/web/account"
	"cuestart/web/board"
	"cuestart/web/book"
	"cuestart/web/files"
	"cuestart/web/links"
	"cuestart/web/log"
	"cuestart/web/otherwise"
	"cuestart/web/people"
	"cuestart/web/phone"
	"cuestart/web/pitch"
	"cuestart/web/place"
	"cuestart/web/sheet"
	"cuestart/web/shell"
	"cuestart/web/today"
	"cuestart/web/words"
)

// site is the rooms, each with the use cases that it may touch and no others.
type site struct {
	account   account.Room
	board     board.Room
	book      book.Room
	files     files.Room
	links     links.Room
	log       log.Room
	otherwise otherwise.Room
	people    people.Room
	phone     phone.Room
	pitch     pitch.Room
	place     place.Room
	sheet     sheet.Room
	today     today.Room
	words     words.Room
}

// Handler is the site as an HTTP handler.
func Handler(config shell.Config) http.Handler {
	o := config.Office
	s := site{
		account: account.Room{Keep: o.Keep, Staff: o.Staff, Passwords: account.NewPasswords(config.Hashing)},
		board: board.Room{Boards: o.Boards, Books: o.Books, Diary: o.Diary, Keep: o.Keep, Pitchside: o.Pitchside,
			Reach: o.Reach, WhatIf: o.WhatIf, Wording: o.Wording},
		book:      book.Room{Books: o.Books, Diary: o.Diary, Learn: o.Learn, Wording: o.Wording},
		files:     files.Room{Books: o.Books, Diary: o.Diary, Keep: o.Keep, Staff: o.Staff},
		links:     links.Room{Boards: o.Boards, Reach: o.Reach},
		log:       log.Room{Keep: o.Keep, Learn: o.Learn, Staff: o.Staff},
		otherwise: otherwise.Room{Boards: o.Boards, WhatIf: o.WhatIf},
		people:    people.Room{Books: o.Books, Keep: o.Keep, Staff: o.Staff},
		phone:     phone.New(o.Books, o.Reach),
		pitch:     pitch.Room{Keep: o.Keep, Pitchside: o.Pitchside},
		place:     place.Room{Books: o.Books, Keep: o.Keep},
		sheet:     sheet.Room{Boards: o.Boards, Books: o.Books, Reach: o.Reach},
		today:     today.Room{Boards: o.Boards, Books: o.Books, Diary: o.Diary, Keep: o.Keep, Learn: o.Learn},
		words:     words.Room{Boards: o.Boards, Books: o.Books, Wording: o.Wording},
	}
	return shell.New(config).Handler(s.routes)
}
