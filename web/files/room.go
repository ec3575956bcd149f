// Package files is what is read in from files and saved as files: squads, fixtures, drills, tests, routines.
package files

import (
	"embed"

	"cuestart/planner/books"
	"cuestart/planner/diary"
	"cuestart/planner/keep"
	"cuestart/planner/staff"
	"cuestart/web/shell"
)

//go:embed *.html
var templates embed.FS

var screens = shell.Parse(templates, nil)

// Room is what these screens may touch.
type Room struct {
	Books *books.Books
	Diary *diary.Diary
	Keep  *keep.Keep
	Staff *staff.Staff
}
