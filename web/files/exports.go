package files

import (
	"io"
	"strings"

	"cuestart/core/club"
	"cuestart/planner"
	"cuestart/share"
	"cuestart/web/shell"
)

// Template is an empty table of a kind, to be filled in.
func Template(r *shell.Request) (shell.Answer, error) {
	kind := r.Query("kind")
	if known, _ := share.Template(io.Discard, kind); !known {
		return nil, planner.ErrNotFound
	}
	return shell.File{Name: kind + "-empty.csv", Kind: shell.CSV, Write: func(w io.Writer) error {
		_, err := share.Template(w, kind)
		return err
	}}, nil
}

// SaveSquad saves a squad's players as CSV.
func (in Room) SaveSquad(r *shell.Request) (shell.Answer, error) {
	if err := in.Staff.Audit(r.Context(), r.By, "exported", "the squad"); err != nil {
		return nil, err
	}
	squad, err := in.Keep.Squad(r.Context(), r.Club(), r.QueryID("squad"))
	if err != nil {
		return nil, err
	}
	players := these(squad.Players)
	return shell.File{Name: "squad.csv", Kind: shell.CSV, Write: func(w io.Writer) error {
		return share.WritePlayers(w, players)
	}}, nil
}

// SaveTests saves the tests of a squad's players as CSV or JSON.
func (in Room) SaveTests(r *shell.Request) (shell.Answer, error) {
	if err := in.Staff.Audit(r.Context(), r.By, "exported", "tests"); err != nil {
		return nil, err
	}
	squad, err := in.Keep.Squad(r.Context(), r.Club(), r.QueryID("squad"))
	if err != nil {
		return nil, err
	}
	kept, err := in.Keep.Trials(r.Context(), r.Club(), squad)
	if err != nil {
		return nil, err
	}
	for i := range kept {
		kept[i].Is.Player = squad.Player(kept[i].Owner).Is.Label()
	}
	trials := these(kept)
	if strings.HasSuffix(r.Path(), ".json") {
		return shell.File{Name: "tests.json", Kind: shell.JSON,
			Write: func(w io.Writer) error { return share.WriteJSON(w, share.NewTestFile(trials)) }}, nil
	}
	return shell.File{Name: "tests.csv", Kind: shell.CSV, Write: func(w io.Writer) error {
		return share.WriteTrials(w, trials)
	}}, nil
}

// SaveFixtures saves the club's fixtures as CSV.
func (in Room) SaveFixtures(r *shell.Request) (shell.Answer, error) {
	if err := in.Staff.Audit(r.Context(), r.By, "exported", "fixtures"); err != nil {
		return nil, err
	}
	kept, err := in.Keep.Fixtures(r.Context(), r.Club())
	fixtures := these(kept)
	return shell.File{Name: "fixtures.csv", Kind: shell.CSV,
		Write: func(w io.Writer) error { return share.WriteFixtures(w, fixtures) }}, err
}

// SaveDrills saves the club's drill book as CSV.
func (in Room) SaveDrills(r *shell.Request) (shell.Answer, error) {
	b, err := in.Books.Book(r.Context(), r.Club())
	return shell.File{Name: "drills.csv", Kind: shell.CSV, Write: func(w io.Writer) error {
		return share.WriteDrills(w, b.Written())
	}}, err
}

// SaveRoutine saves a routine as JSON.
func (in Room) SaveRoutine(r *shell.Request) (shell.Answer, error) {
	k, err := in.Books.Routine(r.Context(), r.Club(), r.ParamID("id"))
	return shell.File{Name: "routine.json", Kind: shell.JSON,
		Write: func(w io.Writer) error { return share.WriteJSON(w, k.Is) }}, err
}

// these are what entries hold.
func these[T club.Thing](kept []planner.Entry[T]) []T {
	list := make([]T, len(kept))
	for i, k := range kept {
		list[i] = k.Is
	}
	return list
}
