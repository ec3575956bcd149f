package shell

import (
	"errors"
	"net/http"

	"cuestart/core/club"
	"cuestart/planner"
)

// FindHanded finds the routine that a link hands out, and the club whose it is. A wrong,
// an old and a guessed link are told apart by nothing.
func FindHanded(r *Request) (clubID uint64, routine *planner.Entry[club.Routine], err error) {
	r.Unlisted()
	clubID, routine, err = r.shell.Office.Books.Handed(r.Context(), r.Param("token"))
	if errors.Is(err, planner.ErrNotFound) {
		err = Refusal{Status: http.StatusNotFound, Heading: "This link shows nothing",
			Line: "It is not whole, or no longer good. Ask your coach for the link again."}
	}
	return clubID, routine, err
}
