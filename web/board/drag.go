package board

import (
	"encoding/json"
	"strconv"

	"cuestart/core/clock"
	"cuestart/planner"
	"cuestart/web/shell"
)

// earliest is how long before the start something may be dropped, in seconds.
const earliest = 24 * 60 * 60

// dropOf is where a block is dragged to: block, at and hold.
func dropOf(get func(name string) string) (to planner.Drop, known bool) {
	at, err := strconv.Atoi(get("at"))
	return planner.Drop{Block: get("block"), At: clock.Offset(at), Hold: get("hold") != ""}, err == nil && at >= -earliest && at <= 0
}

// Drag answers while a block is dragged: where it would stand, and what else would move.
func Drag(r *shell.Request) (shell.Answer, error) {
	to, known := dropOf(r.Query)
	if !known {
		return nil, planner.ErrNotFound
	}
	says, err := r.Planner.Drag(r.Context(), r.Club(), r.ParamID("session"), to)
	if err != nil {
		return nil, err
	}
	content, err := json.Marshal(says)
	return shell.Raw{Kind: shell.JSON, Content: content}, err
}

// Drop puts a block where it was dragged.
func Drop(r *shell.Request) (shell.Answer, error) {
	to, known := dropOf(r.Form.Raw)
	if !known {
		r.Form.Refuse("at", "drop it before the start")
	}
	b, err := (*planner.Board)(nil), r.Form.Err()
	if err == nil {
		b, err = r.Planner.Drop(asked(r), r.By, r.ParamID("session"), r.Form.Count("revision"), to)
	}
	return changed(r, r.Form.Raw("open"), b, err, nil)
}
