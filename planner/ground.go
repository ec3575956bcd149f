package planner

import (
	"context"
	"slices"
	"strings"

	"cuestart/core/club"
	"cuestart/core/measure"
	"cuestart/core/sport"
)

// Ground is where the club trains and plays, with what, and led by whom.
type Ground struct {
	Venues []Venue
	Kit    []Entry[club.Kit]
	Staff  []Entry[club.Staff]
}

// Venue is a ground with its zones.
type Venue struct {
	Entry[club.Venue]
	Zones []Entry[club.Zone]
}

// Ground returns the club's ground, kit and staff.
func (p *Planner) Ground(ctx context.Context, clubID uint64) (*Ground, error) {
	venues, err := entries[club.Venue](ctx, p, clubID)
	if err != nil {
		return nil, err
	}
	zones, err := entries[club.Zone](ctx, p, clubID)
	if err != nil {
		return nil, err
	}
	g := &Ground{}
	for _, v := range venues {
		one := Venue{Entry: v}
		for _, z := range zones {
			if z.Owner == v.ID {
				one.Zones = append(one.Zones, z)
			}
		}
		g.Venues = append(g.Venues, one)
	}
	if g.Kit, err = entries[club.Kit](ctx, p, clubID); err != nil {
		return nil, err
	}
	slices.SortFunc(g.Kit, func(a, b Entry[club.Kit]) int { return strings.Compare(a.Is.Name, b.Is.Name) })
	g.Staff, err = entries[club.Staff](ctx, p, clubID)
	slices.SortStableFunc(g.Staff, func(a, b Entry[club.Staff]) int {
		return map[bool]int{a.Is.Leads: -1, b.Is.Leads: 1}[true]
	})
	return g, err
}

// UsualZones gives a new venue the zones of a usual ground of the club's sport.
func (p *Planner) UsualZones(ctx context.Context, by Account, venue uint64) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	plays, err := p.Sport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	_, err = p.Save(ctx, by, "usual zones", zonesOf(venue, plays.Zones, plays.System)...)
	return err
}

// zonesOf are zones of a sport as those of a venue, their lengths even in the club's units.
func zonesOf(venue uint64, zones []sport.Zone, in measure.System) (changes []Change) {
	for _, z := range zones {
		is := z.Plan("")
		changes = append(changes, Change{Owner: venue, Is: club.Zone{Name: is.Name, Capacity: is.Capacity, Lanes: is.Lanes, Metres: in.Nice(is.Metres), Surface: is.Surface, Covered: is.Covered, Celsius: is.Celsius}})
	}
	return changes
}

// OtherZones adds the zones of the sport's other form to a venue: the hall of one that is played
// outdoors.
func (p *Planner) OtherZones(ctx context.Context, by Account, venue uint64) error {
	if err := May(by, ToKeep); err != nil {
		return err
	}
	plays, err := p.Sport(ctx, by.ClubID)
	if err != nil {
		return err
	}
	ground, err := p.Ground(ctx, by.ClubID)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(ground.Venues, func(v Venue) bool { return v.ID == venue }) {
		return ErrNotFound
	}
	_, err = p.Save(ctx, by, "more zones", zonesOf(venue, plays.Elsewhere, plays.System)...)
	return err
}
