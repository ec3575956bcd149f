package shell

import (
	"fmt"
	"net/url"
)

// The addresses of things, built in one place.

// Session is the address of a session's board, or of something under it.
func Session(id uint64, under ...string) string {
	path := fmt.Sprintf("/sessions/%d", id)
	for _, part := range under {
		path += "/" + part
	}
	return path
}

// Block is the address of a session's board with a block open; "": none is.
func Block(session uint64, block string) string {
	if block == "" {
		return Session(session)
	}
	return Session(session) + "?block=" + url.QueryEscape(block)
}

// Squad is the address of a squad's page; with name and value, of something
// that is open on it.
func Squad(id uint64, open ...any) string {
	path := fmt.Sprintf("/squad?squad=%d", id)
	if len(open) == 2 {
		path += fmt.Sprintf("&%v=%v", open...)
	}
	return path
}

// Routine is the address of a routine.
func Routine(id uint64) string { return fmt.Sprintf("/routines?routine=%d", id) }

// Drill is the address of a drill in the book.
func Drill(code string) string { return "/drills?drill=" + url.QueryEscape(code) }

// Picture is the address of a club's own picture of a drill, for who is signed in; stamp
// is of its content.
func Picture(code, stamp string) string {
	return "/drills/" + url.PathEscape(code) + "/picture.jpg?" + stamp
}

// Handed is the address of a routine that is handed out, under a token.
func Handed(token string) string { return "/handed/" + token }

// Link is the address of what players see, under a token.
func Link(token string) string { return "/r/" + token }

// Pitch is where a session is run.
func Pitch(session uint64) string { return fmt.Sprintf("/pitch/%d", session) }
