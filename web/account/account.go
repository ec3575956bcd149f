// Package account is who signs in: the ways in, one's own account, the staff and what they may
// do, and what is written down of it.
package account

import (
	"embed"
	"html/template"

	"cuestart/web/shell"
)

//go:embed *.html
var files embed.FS

var screens = shell.Parse(files, template.FuncMap{"pick": pickLanguage})
