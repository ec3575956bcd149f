package sport

import (
	"cmp"
	"fmt"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/plan"
)

// Side is what a match at home, or away, is called, and what is different there.
type Side struct {
	Called string `json:"called,omitempty"` // Home game, On the road; "": Home, Away
	// minutes before the start from which one may work on the ground; 0: always
	From   int       `json:"from,omitempty"`
	Sooner int       `json:"sooner,omitempty"` // minutes by which work ends sooner than usual
	Turn   plan.Turn `json:"turn,omitempty"`   // how it begins there, where that is settled; "": it is not
}

// Limits of a side, in minutes.
const (
	earliestGround = 240
	mostSooner     = 30
)

// problem says what is wrong with a side, or "".
func (d Side) problem() string {
	switch {
	case d.From < 0 || d.From > earliestGround:
		return fmt.Sprintf("the ground is yours at most %d minutes before the start", earliestGround)
	case d.Sooner < 0 || d.Sooner > mostSooner:
		return fmt.Sprintf("work ends at most %d minutes sooner", mostSooner)
	case d.Turn != "" && d.Turn != plan.First && d.Turn != plan.Later:
		return fmt.Sprintf("%q is no way to begin", d.Turn)
	}
	return ""
}

// sides says what is wrong with home and away.
func (s *Sport) sides(say func(text string, args ...any)) {
	for name, side := range map[string]Side{s.NameOf(AtHome): s.Home, s.NameOf(AtTheirs): s.Away} {
		if problem := side.problem(); problem != "" {
			say("%s: %s", name, problem)
		}
	}
}

// Where a match is played.
const AtHome, AtTheirs = false, true

// At is the sport as it is played at home, or away: when work ends there, and from when its
// usual zones are free, in minutes before the start. What stays free after the start is beside
// the ground of play, and free before it too.
func (s Sport) At(away bool) (there Sport, side Side) {
	side = s.Home
	if away {
		side = s.Away
	}
	s.Margin += side.Sooner
	return s, side
}

// Free is when a zone may be used where the side says from when; nil: it does not say.
func (d Side) Free(z Zone) []plan.Span {
	if d.From == 0 || z.After {
		return nil
	}
	return []plan.Span{{From: clock.BeforeStart(d.From * 60), To: clock.BeforeStart(0)}}
}

// Says is what is different on a match day at home, or away, in words; "": nothing is.
func (s *Sport) Says(away bool) string {
	_, side := s.At(away)
	var says []string
	if side.From > 0 {
		says = append(says, fmt.Sprintf("the ground is yours %d min before", side.From))
	}
	if side.Sooner > 0 {
		says = append(says, fmt.Sprintf("work ends %d min sooner", side.Sooner))
	}
	if side.Turn != "" {
		says = append(says, strings.ToLower(s.Begins.Name(side.Turn))+" unless you say otherwise")
	}
	if len(says) == 0 {
		return ""
	}
	return s.NameOf(away) + ": " + strings.Join(says, ", ") + "."
}

// NameOf is what playing at home, or away, is called.
func (s *Sport) NameOf(away bool) string {
	if away {
		return cmp.Or(s.Away.Called, "Away")
	}
	return cmp.Or(s.Home.Called, "Home")
}
