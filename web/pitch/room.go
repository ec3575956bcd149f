package pitch

import (
	"cuestart/planner/keep"
	"cuestart/planner/pitchside"
)

// Room is what these screens may touch.
type Room struct {
	Keep      *keep.Keep
	Pitchside *pitchside.Pitchside
}
