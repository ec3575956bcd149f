package keep

import (
	"context"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner"
)

// Ground is where the club trains and plays, with what, and led by whom.
type Ground struct {
	Venues []Venue
	Kit    []planner.Entry[club.Kit]
	Staff  []planner.Entry[club.Staff]
}

// Venue is a ground with its zones.
type Venue struct {
	planner.Entry[club.Venue]
	Zones []planner.Entry[club.Zone]
}

// Ground returns the club's ground, kit and staff.
func (kp *Keep) Ground(ctx context.Context, clubID uint64) (*Ground, error) {
	venues, err := planner.Entries[club.Venue](ctx, kp.base, clubID)
	if err != nil {
		return nil, err
	}
	zones, err := planner.Entries[club.Zone](ctx, kp.base, clubID)
	if err != nil {
		return nil, err
	}
	g := &Ground{}
	for _, v := range venues {
		venue := Venue{Entry: v}
		for _, z := range zones {
			if z.Owner == v.ID {
				venue.Zones = append(venue.Zones, z)
			}
		}
		g.Venues = append(g.Venues, venue)
	}
	if g.Kit, err = planner.Entries[club.Kit](ctx, kp.base, clubID); err != nil {
		return nil, err
	}
	slices.SortFunc(g.Kit, func(a, b planner.Entry[club.Kit]) int { return strings.Compare(a.Is.Name, b.Is.Name) })
	g.Staff, err = planner.Entries[club.Staff](ctx, kp.base, clubID)
	slices.SortStableFunc(g.Staff, func(a, b planner.Entry[club.Staff]) int {
		switch {
		case a.Is.Leads == b.Is.Leads:
			return 0
		case a.Is.Leads:
			return -1
		}
		return 1
	})
	return g, err
}

// UsualZones gives a new venue the zones of a usual ground of the club's sport.
func (kp *Keep) UsualZones(ctx context.Context, by planner.Account, venue uint64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	plays, err := kp.books.Sport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	_, err = kp.base.Save(ctx, by, "usual zones", zonesOf(venue, plays.Zones, plays.System)...)
	return err
}

// zonesOf are zones of a sport as those of a venue, their lengths even in the club's units.
func zonesOf(venue uint64, zones []sport.Zone, in measure.System) (changes []planner.Change) {
	for _, z := range zones {
		zone := z.Plan("")
		changes = append(changes,
			planner.Change{Owner: venue, Is: club.Zone{Name: zone.Name, Capacity: zone.Capacity, Lanes: zone.Lanes,
				Metres: in.Nice(zone.Metres), Surface: zone.Surface, Covered: zone.Covered, Celsius: zone.Celsius}})
	}
	return changes
}

// OtherZones adds the zones of the sport's other form to a venue: the hall of one that is played
// outdoors.
func (kp *Keep) OtherZones(ctx context.Context, by planner.Account, venue uint64) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	plays, err := kp.books.Sport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	ground, err := kp.Ground(ctx, by.ClubID)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(ground.Venues, func(v Venue) bool { return v.ID == venue }) {
		return planner.ErrNotFound
	}
	_, err = kp.base.Save(ctx, by, "more zones", zonesOf(venue, plays.Elsewhere, plays.System)...)
	return err
}

// Lay keeps where zones of a venue lie, by id. It fails with [plan.Problems], and with
// ErrNotFound where one is not the venue's.
func (kp *Keep) Lay(ctx context.Context, by planner.Account, venue uint64, lies map[uint64]plan.Lie) error {
	if err := planner.May(by, planner.ToKeep); err != nil {
		return err
	}
	g, err := kp.Ground(ctx, by.ClubID)
	if err != nil {
		return err
	}
	at := slices.IndexFunc(g.Venues, func(v Venue) bool { return v.ID == venue })
	if at < 0 {
		return planner.ErrNotFound
	}
	var changes []planner.Change
	for _, z := range g.Venues[at].Zones {
		if l, there := lies[z.ID]; there && (z.Is.Lies == nil || *z.Is.Lies != l) {
			z.Is.Lies = &l
			changes = append(changes, planner.Change{ID: z.ID, Owner: venue, Edition: z.Edition, Is: z.Is})
		}
	}
	if changes == nil {
		return nil
	}
	_, err = kp.base.Save(ctx, by, "the plan of "+g.Venues[at].Is.Name, changes...)
	return err
}
