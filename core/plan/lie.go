package plan

import "fmt"

// Lie is where a zone lies on the plan of its ground, seen from above. x runs to the right
// and y down, in metres from a corner that the ground's zones share.
type Lie struct {
	X    float64 `json:"x"` // its middle
	Y    float64 `json:"y"`
	Long float64 `json:"long"` // along its lanes
	Wide float64 `json:"wide"`
	Turn int     `json:"turn,omitempty"` // degrees clockwise; 0: its lanes run from left to right
}

// Limits of a lie, in metres.
const (
	FarthestLie = 2000
	LongestLie  = 500
)

// Problem says what is wrong with a lie, or "".
func (l Lie) Problem() string {
	switch {
	case !(l.Long >= 1 && l.Long <= LongestLie && l.Wide >= 1 && l.Wide <= LongestLie):
		return fmt.Sprintf("a place is between 1 and %d m long and wide", LongestLie)
	case !(l.X >= -FarthestLie && l.X <= FarthestLie && l.Y >= -FarthestLie && l.Y <= FarthestLie):
		return fmt.Sprintf("a place lies within %d m", FarthestLie)
	case l.Turn < 0 || l.Turn >= 360:
		return "it is turned by 0 to 359 degrees"
	}
	return ""
}
