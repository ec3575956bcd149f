package board

import (
	"cmp"
	"fmt"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/planner/boards"
	"cuestart/web/chart"
	"cuestart/web/shell"
)

// Lengths of the chart, and of its lane labels, in its own units.
const (
	wideWidth, wideLabels     = 906, 120
	narrowWidth, narrowLabels = 720, 112
)

// drawn is what of a board its chart shows.
func drawn(b *boards.Board) chart.Plan {
	return chart.Plan{Document: b.Document, Schedule: b.Schedule, Strands: b.Strands}
}

// viewForm is how the board is looked at: it stays so for who looks, on every board.
type viewForm struct {
	By   []look // what the lanes are
	Zoom []look // what of the time
}

// look is a way to look at the board that one press takes.
type look struct {
	press
	Short string
}

// Looked is the address of the board looked at otherwise.
func (b *body) Looked(what, value string) string {
	query := url.Values{what: {value}}
	if b.Chosen != nil {
		query.Set("block", b.Chosen.ID)
	}
	return b.To() + "?" + query.Encode()
}

var laneNames = []look{{press{Value: chart.ByPeople, Name: "by people"}, "people"},
	{press{Value: chart.ByZone, Name: "by place"}, "place"},
	{press{Value: chart.ByLeader, Name: "by leader"}, "leader"},
	{press{Value: chart.OnGround, Name: "on the ground"}, "ground"}}

// zooms are the minutes before the start that the board may show alone.
var zooms = []int{0, 45, 30, 20, 10}

// roomOf reads the pixels that a window has for the chart, as its script wrote them:
// "1546x840".
func roomOf(kept string) (room [2]int) {
	var wide, high int
	if n, err := fmt.Sscanf(kept, "%dx%d", &wide, &high); n == 2 && err == nil && wide >= 600 && wide <= 8000 &&
		high >= 300 && high <= 8000 {
		room = [2]int{wide, high}
	}
	return room
}

// looked keeps how a board is looked at, as the address says, and completes the view.
func (b *body) looked(r *shell.Request, board *boards.Board, v chart.View) chart.View {
	parts := append(strings.Split(r.Cookie("view"), "."), "", "", "")
	asked := r.Asked()
	for i, name := range []string{"lanes", "zoom", "follow"} {
		if asked.Has(name) {
			parts[i] = asked.Get(name)
		}
	}
	if len(asked) > 0 {
		r.Keep("view", strings.Join(parts[:3], "."))
	}
	v.Href, v.Edits, v.Room = b.Open, b.Edits, roomOf(r.Cookie("plot"))
	for _, p := range laneNames {
		if p.On = p.Value == parts[0]; p.On {
			v.By = p.Value
		}
		b.View.By = append(b.View.By, p)
	}
	zoom, _ := strconv.Atoi(parts[1])
	for _, minutes := range zooms {
		name := "all of it"
		if minutes > 0 {
			name = "last " + strconv.Itoa(minutes) + " min"
		}
		one := look{press{strconv.Itoa(minutes), name, minutes == zoom}, strconv.Itoa(minutes) + "′"}
		if minutes == 0 {
			one.Short = "all"
		}
		if one.On && minutes > 0 {
			v.From = clock.Offset(-60 * minutes)
		}
		b.View.Zoom = append(b.View.Zoom, one)
	}
	if board.Document.Player(parts[2]) != nil {
		v.Follow = parts[2]
	}
	v.FollowHref = func(players []string) string {
		to := cmp.Or(players...)
		if v.Follow != "" && slices.Contains(players, v.Follow) {
			to = "" // again: nobody
		}
		query := url.Values{"follow": {to}}
		if v.Chosen != "" {
			query.Set("block", v.Chosen)
		}
		return b.To() + "?" + query.Encode()
	}
	return v
}
