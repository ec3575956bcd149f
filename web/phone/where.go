package phone

import (
	"html/template"
	"slices"

	"cuestart/core/ground"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// Size of the little plan of the ground.
const (
	whereWide = 320
	whereHigh = 160
)

// wheres are the little plans of the ground of each entry of a list: where one is, and where
// what comes next is done. There is none where the club has not laid out its ground, and
// where one neither came from elsewhere nor goes on.
func wheres(tongue shell.Tongue, d *plan.Document, entries []list.Entry) []template.HTML {
	drawn := make([]template.HTML, len(entries))
	places := ground.Arrange(d.Zones)
	if !slices.ContainsFunc(places, func(p ground.Place) bool { return p.Said }) {
		return drawn
	}
	was := ""
	for i, e := range entries {
		if e.Block == nil || e.Block.Zone == "" {
			continue
		}
		here, next := e.Block.Zone, ""
		for _, later := range entries[i+1:] {
			if later.Block != nil && later.Block.Zone != "" {
				next = later.Block.Zone
				break
			}
		}
		if was != here || next != "" && next != here {
			drawn[i] = where(tongue, d, places, here, next)
		}
		was = here
	}
	return drawn
}

func where(tongue shell.Tongue, d *plan.Document, places []ground.Place, here, next string) template.HTML {
	label := tongue.T("You are here: %s", d.ZoneName(here))
	spots := make([]chalk.Spot, len(places))
	for i, p := range places {
		spots[i].Place = p
		switch p.ID {
		case here:
			spots[i].Class, spots[i].Lines = "here", []string{tongue.T("here")}
		case next:
			spots[i].Class, spots[i].Lines = "next", []string{tongue.T("next")}
			label += ". " + tongue.T("Next: %s", d.ZoneName(next))
		}
	}
	return chalk.Ground(label, d.Measure, spots, nil, whereWide, whereHigh)
}
