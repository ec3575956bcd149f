package shell

import (
	"unicode"
	"unicode/utf8"

	"cuestart/planner/keep"
)

// HurtRow is that somebody is hurt, as every page says it (the template "hurt").
type HurtRow struct {
	ID                     uint64
	Name, When, Says, Told string // Told is what medical staff answered; "": nothing yet
	Answers                bool   // whoever looks may answer
}

// Line is what is said, as a sentence begins.
func (h HurtRow) Line() string {
	first, size := utf8.DecodeRuneInString(h.Says)
	return string(unicode.ToUpper(first)) + h.Says[size:]
}

// HurtRows says a list of them to whoever asks.
func HurtRows(r *Request, list []keep.Hurt) (rows []HurtRow) {
	answers := len(list) > 0 && r.shell.Office.Keep.MayAnswer(r.Context(), r.By) == nil
	for _, h := range list {
		rows = append(rows, HurtRow{ID: h.ID, Name: h.Name, When: h.Pressed.Format("Mon 2 Jan, 15:04"),
			Says: keep.HurtSays(h),
			Told: keep.HurtAnswered(h), Answers: h.Answer == "" && answers})
	}
	return rows
}
