package plan

import "cuestart/core/drill"

// Method is a school of warming up, told in the phases of RAMP: those are aims, not exercises, so
// every school can be expressed in them and checked by the same rules.
type Method struct {
	Name   string
	Why    string                 // why one would choose it
	Phases []drill.Phase          // in its order; a phase that it lacks is left out
	Steps  map[drill.Phase]string // what the school calls a phase, where it has a word of its own

	// StaticOnceWarm: brief static holds have a place in it, on warm tissue and
	// with dynamic work after them (Behm et al. 2016).
	StaticOnceWarm bool
}

// DefaultMethod is the key of RAMP (Jeffreys 2007) in Methods.
const DefaultMethod = "ramp"

// Methods are the schools that a plan can follow, by key.
var Methods = map[string]Method{
	DefaultMethod: {
		Name:   "RAMP",
		Why:    "Built to rise: every minute has a job, and it is the most widely taught",
		Phases: []drill.Phase{drill.Raise, drill.Activate, drill.Mobilise, drill.Potentiate, drill.Sport},
	},
	"five-stages": {
		Name:   "Five stages",
		Why:    "For indoor group rooms: players assemble their own pieces within a frame, and it ends with a game",
		Phases: []drill.Phase{drill.Raise, drill.Mobilise, drill.Activate, drill.Potentiate, drill.Sport},
		Steps: map[drill.Phase]string{drill.Raise: "Thermal, soft tissue",
			drill.Mobilise: "Mobility in several planes", drill.Activate: "Light strength holds",
			drill.Potentiate: "Athletic play"},
	},
	"brief-static": {
		Name: "Warm, dynamic, then brief static",
		Why: "Calm minutes for mental rehearsal, for players who feel tight; ball or hand skills " +
			"follow the holds",
		Phases: []drill.Phase{drill.Raise, drill.Activate, drill.Potentiate, drill.Mobilise, drill.Sport},
		Steps: map[drill.Phase]string{drill.Raise: "Pulse", drill.Activate: "Dynamic",
			drill.Potentiate: "Quick", drill.Mobilise: "Static holds, 8 to 14 s", drill.Sport: "Ball or hand skills"},
		StaticOnceWarm: true,
	},
	"ground-up": {
		Name: "Ground up",
		Why: "Joint by joint from the feet, then the sprint taken apart: nothing is forgotten, and it works " +
			"as a self-check",
		Phases: []drill.Phase{drill.Raise, drill.Mobilise, drill.Activate, drill.Potentiate, drill.Sport},
		Steps:  map[drill.Phase]string{drill.Mobilise: "Joint by joint", drill.Potentiate: "The sprint taken apart"},
	},
	"countdown": {
		Name: "Countdown specialist",
		Why: "For one player whose first act is maximal: small-muscle work, run and sprint, then the act in " +
			"growing distance and effort",
		Phases: []drill.Phase{drill.Activate, drill.Raise, drill.Mobilise, drill.Potentiate, drill.Sport},
		Steps: map[drill.Phase]string{drill.Activate: "Small-muscle work", drill.Raise: "Run",
			drill.Potentiate: "Sprint", drill.Sport: "The act, growing"},
	},
}
