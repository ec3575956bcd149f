// Package web is the site: the map of its addresses, and the rooms that the
// screens of each part of the work lie in. What all of them stand on is web/shell.
package web

import (
	"net/http"

	"cuestart/web/shell"
)

// Handler is the site as an HTTP handler.
func Handler(config shell.Config) http.Handler { return shell.New(config).Handler(routes) }
