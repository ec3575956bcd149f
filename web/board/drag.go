package board

import (
	"encoding/json"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/clock"
	"cuestart/planner"
	"cuestart/planner/boards"
	"cuestart/planner/whatif"
	"cuestart/web/shell"
)

// farthest is how far from the start, or by how much, something may be dragged, in seconds.
const farthest = 24 * 60 * 60

// dropOf is what a drag asks for: does, with block, event, at, by, who and zone.
func dropOf(get func(name string) string) (to whatif.Drop, known bool) {
	number := func(name string, least, most int) int {
		n, err := strconv.Atoi(get(name))
		known = known && (get(name) == "" || err == nil && n >= least && n <= most)
		return n
	}
	known = true
	to = whatif.Drop{Does: whatif.Does(get("does")), Block: get("block"), Event: get("event"),
		At: clock.Offset(number("at", -farthest, 0)), By: number("by", -farthest, farthest), Zone: get("zone"),
		Leader: get("leader")}
	if who := get("who"); who != "" {
		to.Who = strings.Split(who, " ")
	}
	all := []whatif.Does{whatif.Order, whatif.Hold, whatif.Doses, whatif.TakeOut, whatif.Join, whatif.Goes,
		whatif.Leads, whatif.Shift, whatif.Longer, whatif.Sooner}
	return to, known && slices.Contains(all, to.Does)
}

// Drag answers while something is dragged: what dropping it would bring.
func (in Room) Drag(r *shell.Request) (shell.Answer, error) {
	to, known := dropOf(r.Query)
	if !known {
		return nil, planner.ErrNotFound
	}
	says, err := in.WhatIf.Drag(r.Context(), r.Club(), r.ParamID("session"), to)
	if err != nil {
		return nil, err
	}
	says.Says = r.Speaks().Told(says.Says)
	content, err := json.Marshal(says)
	return shell.Raw{Kind: shell.JSON, Content: content}, err
}

// Drop does what was dragged.
func (in Room) Drop(r *shell.Request) (shell.Answer, error) {
	to, known := dropOf(r.Form.Raw)
	if !known {
		r.Form.Refuse("board", "Drop it somewhere before the start.")
	}
	b, err := (*boards.Board)(nil), r.Form.Err()
	if err == nil {
		b, err = in.WhatIf.Drop(r.Insisting(), r.By, r.ParamID("session"), r.Form.Count("revision"), to)
	}
	return in.changed(r, r.Form.Raw("open"), b, err, nil)
}

// TakeBetter puts a better fit in place.
func (in Room) TakeBetter(r *shell.Request) (shell.Answer, error) {
	b, err := in.WhatIf.TakeBetter(r.Context(), r.By, r.ParamID("session"), r.Form.Count("revision"))
	return in.changed(r, "", b, err, nil)
}
