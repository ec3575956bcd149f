package keep

import (
	"context"
	"time"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/measure"
	"cuestart/planner"
)

// Founding is what the first page asks for: a club, its squad and its coach.
type Founding struct {
	Club, Sport, Squad, Grade string
	Name, Email               string // of the coach, the e-mail in lower case
	PasswordHash              string
	Zone                      string // of its time, an IANA name; "": not said
	Units                     string // m, yd or ft; "": what is usual where it is
	Language                  string // in which pages speak to it, such as "es"; "": English
}

// Found makes the first club. It fails with ErrTaken where there is one already.
func (kp *Keep) Found(ctx context.Context, f Founding) (planner.Account, error) {
	coach, squad, err := kp.clubs.Found(ctx, f.Club, f.Sport, f.Squad, f.Grade,
		planner.Account{Email: f.Email, Name: f.Name, Role: planner.Coach}, f.PasswordHash)
	if err != nil {
		return coach, err
	}
	if f.Language != "" {
		terms, err := kp.accounts.Terms(ctx, coach.ClubID)
		if terms.Language = f.Language; err == nil {
			err = kp.accounts.SetTerms(ctx, coach, terms)
		}
		if err != nil {
			return coach, err
		}
	}
	// Who founds a club leads in it, and has a leader's page, until somebody says otherwise.
	ids, err := kp.base.Save(ctx, coach, "the club begins",
		planner.Change{Is: club.Staff{Name: f.Name, Role: "coach", Leads: true}},
		planner.Change{Is: club.Venue{Name: "Home", TimeZone: f.zone()}})
	plays, ok := book.Sport(f.Sport)
	if units := f.units(plays.System); err == nil && ok && units != plays.System {
		plays.System = units
		err = kp.books.SaveSport(ctx, coach, plays, 0)
	}
	if err == nil {
		err = kp.UsualZones(ctx, coach, ids[1])
	}
	var targets []planner.Change
	for _, t := range plays.Targets {
		targets = append(targets,
			planner.Change{Is: club.Target{Squad: squad, Region: t.Region, Quality: t.Quality, Hard: t.Hard,
				Days: t.Days, AtMost: t.AtMost}})
	}
	if err == nil && len(targets) > 0 {
		_, err = kp.base.Save(ctx, coach, "targets of a week to begin with", targets...)
	}
	return coach, err
}

// zone is the club's time zone; where none is known, coordinated universal time.
func (f Founding) zone() string {
	if _, err := time.LoadLocation(f.Zone); err != nil || f.Zone == "" || f.Zone == "Local" {
		return "UTC"
	}
	return f.Zone
}

// units are what the club says lengths, air and wind in: as was said, else as the sport has it,
// else as is usual where the club is.
func (f Founding) units(of measure.System) measure.System {
	usual := measure.Usual(f.Zone)
	switch f.Units {
	case "m":
		return measure.System{}
	case "yd", "ft":
		usual.Yards, usual.Feet = f.Units == "yd", f.Units == "ft"
	case "":
		usual.Yards = usual.Yards || of.Yards
	}
	return usual
}
