package shell

import "cuestart/planner"

// HurtRow is that somebody is hurt, as every page says it (the template "hurt").
type HurtRow struct {
	ID                     uint64
	Name, When, Says, Told string // Told is what medical staff answered; "": nothing yet
}

// HurtRows says a list of them.
func HurtRows(list []planner.Hurt) (rows []HurtRow) {
	for _, h := range list {
		rows = append(rows, HurtRow{h.ID, h.Name, h.Pressed.Format("Mon 2 Jan, 15:04"), planner.HurtSays(h), planner.HurtAnswered(h)})
	}
	return rows
}
