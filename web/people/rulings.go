package people

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/keep"
	"cuestart/web/shell"
)

type rulingRow struct {
	ID                  uint64
	Words, Days, Reason string
}

type rulingForm struct {
	club.Restriction
	Player                uint64
	Name                  string
	MaxEffort, MaxMinutes string
	Joints                []shell.Tick
}

// trialRow is a test of a player: the latest, and what it was before.
type trialRow struct{ Test, Result, Day, Before string }

// trialsOf lists the latest result of each test of a player.
func trialsOf(kept []planner.Entry[club.Trial], player uint64) (rows []trialRow) {
	by := map[string][]club.Trial{}
	var tests []string
	for _, k := range kept {
		if k.Owner != player {
			continue
		}
		if by[k.Is.Test] == nil {
			tests = append(tests, k.Is.Test)
		}
		by[k.Is.Test] = append(by[k.Is.Test], k.Is)
	}
	slices.Sort(tests)
	words := func(t club.Trial) string { return strings.TrimSpace(fmt.Sprintf("%g %s", t.Best(), t.Unit)) }
	for _, test := range tests {
		list := by[test]
		slices.SortFunc(list, func(a, b club.Trial) int { return strings.Compare(b.Day, a.Day) })
		row := trialRow{Test: test, Result: words(list[0]), Day: fmt.Sprintf("best of %d, %s", len(list[0].Tries),
			dayWords(list[0].Day))}
		if len(list) > 1 {
			row.Before = fmt.Sprintf("%s on %s", words(list[1]), dayWords(list[1].Day))
		}
		rows = append(rows, row)
	}
	return rows
}

// rulingsOf lists what is ruled for a player, now and later; the reason is for
// medical staff alone.
func (in Room) rulingsOf(r *shell.Request, squad *keep.Squad, player uint64,
	today string) (rows []rulingRow, err error) {
	holds, later := squad.In(player, today)
	reasons := map[uint64]string{}
	if r.May(planner.ToRead) && len(holds)+len(later) > 0 {
		if reasons, err = in.Keep.Reasons(r.Context(), r.By, player); err != nil {
			return nil, err
		}
	}
	for _, r := range append(holds, later...) {
		row := rulingRow{ID: r.ID, Words: r.Is.Words(), Days: "from " + dayWords(r.Is.From) + " until it is lifted"}
		if r.Is.Until != "" {
			row.Days = "from " + dayWords(r.Is.From) + " until " + dayWords(r.Is.Until)
		}
		if r.Is.Review != "" {
			row.Days += ", looked at again " + dayWords(r.Is.Review)
		}
		row.Reason = reasons[r.ID]
		rows = append(rows, row)
	}
	return rows, nil
}

func rulingFormOf(k *planner.Entry[club.Player], r club.Restriction) *rulingForm {
	f := &rulingForm{Restriction: r, Player: k.ID, Name: k.Is.Label(), Joints: shell.Ticks(drill.Regions, r.Spare)}
	if r.MaxEffort > 0 {
		f.MaxEffort = fmt.Sprint(r.MaxEffort)
	}
	if r.MaxMinutes > 0 {
		f.MaxMinutes = fmt.Sprint(r.MaxMinutes)
	}
	return f
}

// SaveRuling makes a ruling for a player.
func (in Room) SaveRuling(r *shell.Request) (shell.Answer, error) {
	if r.Medical() {
		if err := r.MustProve(); err != nil {
			return nil, err
		}
	}
	squad, player, err := in.playerOf(r, "player")
	if err != nil {
		return nil, err
	}
	f := r.Form
	ruling := club.Restriction{NoJumps: f.Ticked("rules", "jumps"), NoOverhead: f.Ticked("rules", "overhead"),
		Spare:     f.List("spare"),
		MaxEffort: f.IntOr("max_effort", 0, 1, 100), MaxMinutes: f.IntOr("max_minutes", 0, 1, club.MaxRuledMinutes),
		From: f.Raw("from"), Until: f.Raw("until"), Review: f.Raw("review"), Reason: f.Text("reason")}
	said := player.Is.Label() + ": " + ruling.Words()
	if err = f.Err(); err == nil {
		_, err = in.Keep.Save(r.Context(), r.By, said, planner.Change{Owner: player.ID, Is: ruling})
	}
	if err == nil {
		err = in.Staff.Audit(r.Context(), r.By, "made a ruling", player.Is.Label())
	}
	return r.Saved(err, said, shell.Squad(squad.ID, "player", player.ID),
		func(wrong plan.Problems) (*shell.Page, error) {
			return in.squadPage(r, squad, wrong, func(b *squadBody) {
				b.Ruling = rulingFormOf(player, ruling)
				b.Ruling.MaxEffort, b.Ruling.MaxMinutes = f.Raw("max_effort"), f.Raw("max_minutes")
			})
		})
}

// LiftRuling lifts a ruling; one that is lifted already is no failure.
func (in Room) LiftRuling(r *shell.Request) (shell.Answer, error) {
	if r.Medical() {
		if err := r.MustProve(); err != nil {
			return nil, err
		}
	}
	_, err := in.Keep.Save(r.Context(), r.By, "a ruling lifted",
		planner.Change{ID: r.ParamID("id"), Is: club.Restriction{}, Gone: true})
	if errors.Is(err, planner.ErrNotFound) {
		err = nil
	}
	if err == nil {
		err = in.Staff.Audit(r.Context(), r.By, "lifted a ruling", fmt.Sprintf("ruling %d", r.ParamID("id")))
	}
	return r.Saved(err, "The ruling is lifted", shell.Squad(r.Form.ID("squad")), shell.Gone)
}
