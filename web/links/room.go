// Package links is what publishing a plan brings whom, and the ways in to it: links, and codes
// to hold up or to print.
package links

import (
	"embed"
	"html/template"

	"cuestart/planner/boards"
	"cuestart/planner/reach"
	"cuestart/web/shell"
)

// Room is what these screens may touch.
type Room struct {
	Boards *boards.Boards
	Reach  *reach.Reach
}

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, template.FuncMap{"own": func(on *linksBody, is ownLink) any { return ownOn{on, is} }})
