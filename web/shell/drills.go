package shell

import (
	"strconv"

	"cuestart/core/drill"
)

// Words of the drill book's filters that mean something of their own.
const (
	OnTheSpot  = "spot"  // the room that there is
	EverySport = "every" // drills of all sports, not of the club's alone
)

// DrillQuery is what an address asks of the drill book: the club's own sport where it says
// none. Plain tells that it asks for nothing.
func DrillQuery(r *Request) (q drill.Query, plain bool) {
	q = drill.Query{Text: r.Query("q"), Phase: r.Query("phase"), Region: r.Query("region"), Plane: r.Query("plane"),
		Quality: r.Query("quality"),
		Kit:     r.Query("kit"), Grade: drill.Grade(r.Query("level")), Sport: r.Query("sport")}
	if q.Metres, _ = strconv.Atoi(r.Query("space")); r.Query("space") == OnTheSpot {
		q.Metres = -1
	}
	plain = q == drill.Query{}
	switch q.Sport {
	case "":
		if plays, err := r.shell.Office.Books.Sport(r.Context(), r.Club()); err == nil { // else every sport's are shown
			q.Sport = plays.Key
		}
		q.Season = r.Query("season")
	case EverySport:
		q.Sport = ""
	}
	return q, plain
}
