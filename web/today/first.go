package today

import (
	"fmt"
	"strconv"
	"strings"

	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner"
	"cuestart/web/shell"
)

// first is what a new club does before its first session: who there is, where, with what. Each
// has its default and may be left for later.
type first struct {
	Squad   uint64
	People  int
	Example string
	Venue   uint64
	Ground  string   // its name
	Zones   []string // as they are said
	Other   string   // the zones of the sport's other form, where they are not there yet
	Kit     []sport.Kit
	Counted int // kinds of kit
}

// firstOf is what a club without any session has so far; nil where there is one.
func (in Room) firstOf(r *shell.Request) (*first, error) {
	any, err := in.Boards.AnySession(r.Context(), r.Club())
	if any || err != nil || !r.Coach() {
		return nil, err
	}
	squad, err := in.Keep.Squad(r.Context(), r.Club(), 0)
	if err != nil {
		return nil, err
	}
	ground, err := in.Keep.Ground(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	f := &first{Squad: squad.ID, People: len(squad.Players), Example: shell.ExampleNames(plays.Positions),
		Kit: plays.Kit, Counted: len(ground.Kit)}
	if len(ground.Venues) == 0 {
		return f, nil
	}
	home := ground.Venues[0]
	f.Venue, f.Ground = home.ID, home.Is.Name
	have := map[string]bool{}
	for _, z := range home.Zones {
		have[z.Is.Name] = true
		f.Zones = append(f.Zones, fmt.Sprintf("%s (%s, %s)", z.Is.Name, drill.Number(z.Is.Lanes, "lanes"),
			plays.System.Length(z.Is.Metres)))
	}
	var others []string
	for _, z := range plays.Elsewhere {
		if !have[z.Name] {
			others = append(others, z.Name)
		}
	}
	f.Other = strings.Join(others, ", ")
	return f, nil
}

// CountKit counts the kit of a new club.
func (in Room) CountKit(r *shell.Request) (shell.Answer, error) {
	var changes []planner.Change
	counts := r.Form.List("pieces")
	for i, name := range r.Form.List("kit") {
		if i >= len(counts) || strings.TrimSpace(counts[i]) == "" {
			continue
		}
		pieces, err := strconv.Atoi(strings.TrimSpace(counts[i]))
		if err != nil || pieces < 0 || pieces > club.MaxPieces {
			r.Form.Refuse("kit", "%s: write how many there are, up to %d", name, club.MaxPieces)
		}
		changes = append(changes, planner.Change{Is: club.Kit{Name: name, Pieces: pieces}})
	}
	err := r.Form.Err()
	if err == nil && len(changes) == 0 {
		err = plan.In("kit", "write how many there are of one thing at least")
	}
	if err == nil {
		_, err = in.Keep.Save(r.Context(), r.By, "kit counted", changes...)
	}
	return r.Saved(err, "The kit is counted", "/today", func(wrong plan.Problems) (*shell.Page, error) {
		return in.page(r, wrong)
	})
}

// OtherZones adds the zones of the sport's other form to the first ground.
func (in Room) OtherZones(r *shell.Request) (shell.Answer, error) {
	err := in.Keep.OtherZones(r.Context(), r.By, r.Form.ID("venue"))
	return r.Saved(err, "Added to your ground", "/today", func(wrong plan.Problems) (*shell.Page, error) {
		return in.page(r, wrong)
	})
}
