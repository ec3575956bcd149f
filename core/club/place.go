package club

import (
	"fmt"
	"time"

	"cuestart/core/clock"
	"cuestart/core/plan"
)

// Venue is a ground.
type Venue struct {
	Name     string `json:"name"`
	TimeZone string `json:"time_zone"` // IANA name
}

func (Venue) Kind() Kind       { return KindVenue }
func (v Venue) Label() string  { return v.Name }
func (v Venue) Unique() string { return v.Name }
func (v Venue) Validate() error {
	p := problems{}
	p.mustName("name", v.Name)
	_, err := time.LoadLocation(v.TimeZone)
	p.when(err != nil || v.TimeZone == "", "time_zone", fmt.Sprintf("the time zone %q is not known", v.TimeZone))
	return p.err()
}

// Limits of a place and its kit.
const (
	MaxPeople = 999    // in a zone
	MaxLanes  = 99     // side by side
	MaxMetres = 500    // of a lane
	MaxPieces = 10_000 // of one kind of kit
)

// Zone is a place of a venue.
type Zone struct {
	Name     string   `json:"name"`
	Capacity int      `json:"capacity"`
	Lanes    int      `json:"lanes"`
	Metres   float64  `json:"metres,omitempty"` // of a lane; 0: not known
	Surface  string   `json:"surface,omitempty"`
	Covered  bool     `json:"covered,omitempty"`
	Celsius  *float64 `json:"air_celsius,omitempty"` // under its roof; nil: not said
	Fittings []string `json:"fittings,omitempty"`    // what it has: wall, posts, bars, shade
	Opens    string   `json:"opens,omitempty"`       // time on the clock, 13:30; "": always
	Closes   string   `json:"closes,omitempty"`      // "": never

	Lies *plan.Lie `json:"lies,omitempty"` // on the plan of the ground; nil: nobody laid it there
}

func (Zone) Kind() Kind       { return KindZone }
func (z Zone) Label() string  { return z.Name }
func (z Zone) Unique() string { return z.Name }
func (z Zone) Validate() error {
	v := problems{}
	v.mustName("name", z.Name)
	v.when(z.Capacity < 1 || z.Capacity > MaxPeople, "capacity",
		fmt.Sprintf("it holds between 1 and %d people", MaxPeople))
	v.when(z.Lanes < 1 || z.Lanes > MaxLanes, "lanes", fmt.Sprintf("it has between 1 and %d lanes", MaxLanes))
	if z.Celsius != nil {
		v.when(plan.AirProblem(*z.Celsius) != "", "air", plan.AirProblem(*z.Celsius))
	}
	v.when(len(z.Fittings) > 20, "fittings", "name 20 things at most")
	for _, one := range z.Fittings {
		v.mustName("fittings", one)
	}
	v.when(z.Metres < 0 || z.Metres > MaxMetres, "metres", fmt.Sprintf("a lane is up to %d m long", MaxMetres))
	v.hours(z.Opens, z.Closes)
	if z.Lies != nil {
		v.when(z.Lies.Problem() != "", "lies", z.Lies.Problem())
	}
	return v.err()
}

// Plan is the zone as a plan carries it, free in its hours.
func (z Zone) Plan(id string) plan.Zone {
	p := plan.Zone{ID: id, Name: z.Name, Capacity: z.Capacity, Lanes: z.Lanes, Metres: z.Metres, Surface: z.Surface,
		Covered: z.Covered, Celsius: z.Celsius, Fittings: z.Fittings, Lies: z.Lies}
	p.Free = hours(z.Opens, z.Closes)
	return p
}

// Kit is how much there is of one thing.
type Kit struct {
	Name   string `json:"name"`
	Pieces int    `json:"pieces"`
}

func (Kit) Kind() Kind       { return KindKit }
func (k Kit) Label() string  { return k.Name }
func (k Kit) Unique() string { return k.Name }
func (k Kit) Validate() error {
	v := problems{}
	v.mustName("name", k.Name)
	v.when(k.Pieces < 0 || k.Pieces > MaxPieces, "pieces", "there are between 0 and 10,000")
	return v.err()
}

// Staff is one who leads blocks.
type Staff struct {
	Name   string `json:"name"`
	Role   string `json:"role,omitempty"`
	Leads  bool   `json:"leads,omitempty"` // the whole squad's blocks
	Opens  string `json:"opens,omitempty"` // time on the clock at which they come, 13:30; "": all day
	Closes string `json:"closes,omitempty"`
}

func (Staff) Kind() Kind       { return KindStaff }
func (s Staff) Label() string  { return s.Name }
func (s Staff) Unique() string { return s.Name }
func (s Staff) Validate() error {
	v := problems{}
	v.mustName("name", s.Name)
	v.mayName("role", s.Role)
	v.hours(s.Opens, s.Closes)
	return v.err()
}

// Plan is the leader as a plan carries them, there in their hours.
func (s Staff) Plan(id string) plan.Leader {
	return plan.Leader{ID: id, Name: s.Name, Role: s.Role, Free: hours(s.Opens, s.Closes)}
}

// hours is the time from opens to closes on the clock; none if both are "".
func hours(opens, closes string) []plan.Span {
	if opens == "" && closes == "" {
		return nil
	}
	from, to := clock.BeforeStart(24*3600), clock.BeforeStart(-4*3600)
	if opens != "" {
		from = clock.AtClock(opens)
	}
	if closes != "" {
		to = clock.AtClock(closes)
	}
	return []plan.Span{{From: from, To: to}}
}
