package drill

// Phase is a part of the warm-up with an aim of its own.
type Phase string

// The phases of RAMP (Jeffreys 2007), and the sport craft that follows them.
// Own stands outside the order: own time, treatment, early kicks.
const (
	Raise      Phase = "raise"
	Activate   Phase = "activate"
	Mobilise   Phase = "mobilise"
	Potentiate Phase = "potentiate"
	Sport      Phase = "sport"
	Own        Phase = ""
)

// After is what follows the session: static holds, rolling, breath. It is no
// part of a run-in.
const After Phase = "after"

// Phases lists all of them, in the order that a coach meets them.
var Phases = []Phase{Raise, Activate, Mobilise, Potentiate, Sport, Own, After}

var phaseNames = map[Phase]string{Raise: "Raise", Activate: "Activate", Mobilise: "Mobilise",
	Potentiate: "Potentiate", Sport: "Sport", Own: "Own time", After: "After"}

// Name is the phase as a coach says it.
func (p Phase) Name() string { return phaseNames[p] }

// Letter is what marks the phase; own time has none.
func (p Phase) Letter() string {
	if p == Own || p == After {
		return ""
	}
	return phaseNames[p][:1]
}

// Key is a word for the phase that is never empty: what forms send, and what its
// colours and hatch are called.
func (p Phase) Key() string {
	if p == Own {
		return "own"
	}
	return string(p)
}

// PhaseOf is the phase of a key; false where there is none.
func PhaseOf(key string) (Phase, bool) {
	for _, p := range Phases {
		if p.Key() == key {
			return p, true
		}
	}
	return "", false
}
