package drill

import "fmt"

// MaxAmount is the largest amount that any dose may have.
const MaxAmount = 7200

// Range is how far the amount of a dose may go: no less than Min, Target
// where nothing presses, Max with minutes to spare, in steps of Step.
type Range struct {
	Min    int `json:"min"`
	Target int `json:"target"`
	Max    int `json:"max"`
	Step   int `json:"step"`

	Said bool `json:"said,omitempty"` // the minimum too: "8-10"
}

// Validate says what is wrong with the range, in one sentence, or nil.
func (r Range) Validate() error {
	switch {
	case r.Step < 1:
		return fmt.Errorf("the step must be 1 or more")
	case r.Min < 1:
		return fmt.Errorf("the minimum must be 1 or more")
	case r.Max > MaxAmount:
		return fmt.Errorf("the maximum must be %d or less", MaxAmount)
	case r.Min > r.Target || r.Target > r.Max:
		return fmt.Errorf("minimum %d, target %d and maximum %d must not fall", r.Min, r.Target, r.Max)
	}
	return nil
}

// Clamp brings amount to the nearest step between Min and Max.
func (r Range) Clamp(amount int) int {
	if amount <= r.Min {
		return r.Min
	}
	steps := (amount - r.Min + r.Step/2) / max(1, r.Step)
	return min(r.Min+steps*r.Step, r.Max)
}

// Steps is the number of amounts from Min up to Target.
func (r Range) Steps() int {
	return (r.Target-r.Min+r.Step-1)/max(1, r.Step) + 1
}

// At is the amount a share of the way from Min (0) to Target (1), on a step;
// Target itself is always reached.
func (r Range) At(share float64) int {
	if share >= 1 {
		return r.Target
	}
	return min(r.Clamp(r.Min+int(share*float64(r.Target-r.Min)+0.5)), r.Target)
}

// Worth is what an amount counts for, as a share of a drill done in full:
// 0.6 at Min, 1 at Target, 1.05 at Max, straight in between, 0 below Min.
func (r Range) Worth(amount int) float64 {
	switch {
	case amount < r.Min:
		return 0
	case amount >= r.Max && r.Max > r.Target:
		return 1.05
	case amount >= r.Target:
		if r.Max == r.Target {
			return 1
		}
		return 1 + 0.05*float64(amount-r.Target)/float64(r.Max-r.Target)
	}
	return 0.6 + 0.4*float64(amount-r.Min)/float64(r.Target-r.Min)
}
