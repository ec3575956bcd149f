// Package otherwise is a plan as it might be, and as it was: what if something came otherwise,
// and what was changed.
package otherwise

import (
	"embed"

	"cuestart/planner/boards"
	"cuestart/planner/whatif"
	"cuestart/web/chart"
	"cuestart/web/shell"
)

// Room is what these screens may touch.
type Room struct {
	Boards *boards.Boards
	WhatIf *whatif.WhatIf
}

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, nil, chart.Files)
