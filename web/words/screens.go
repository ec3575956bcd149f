// Package words is a plan, or a list without a session, in its coach's own words: as they were
// typed, and beside each line what it will be.
package words

import (
	"embed"
	"html/template"

	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, template.FuncMap{})
