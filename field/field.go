// Package field is the core at the pitch side: what a phone asks of it while a session runs,
// in JSON, with or without a signal. field/wasm is the same for a browser.
package field

import (
	"context"
	"encoding/json"
	"errors"

	"cuestart/core/conduct"
	"cuestart/core/speech"
)

// Phone is a plan on a phone, and the language in which it is told; nil: English.
type Phone struct {
	plan conduct.Plan
	in   *speech.Table
}

// Open reads a plan as the server sends it, and the pieces of its language where that is not
// English. It fails where it is no plan.
func Open(plan []byte) (*Phone, error) {
	is := struct {
		conduct.Plan
		Pieces map[string]string `json:"pieces"`
	}{}
	err := json.Unmarshal(plan, &is)
	if err == nil && (is.Document == nil || is.Schedule == nil) {
		err = errNoPlan
	}
	p := On(is.Plan, nil)
	if is.Pieces != nil {
		p.in = speech.NewTable(is.Pieces)
	}
	return p, err
}

// On is a phone with a plan that is at hand, and its language.
func On(plan conduct.Plan, in *speech.Table) *Phone { return &Phone{plan, in} }

type noPlan struct{}

func (noPlan) Error() string { return "this is no plan" }

var errNoPlan error = noPlan{}

// View is how the plan stands after events, as JSON of a [View], at a moment in Unix
// milliseconds.
func (p *Phone) View(events []byte, now int64) ([]byte, error) {
	stand, err := p.stand(events, now)
	if err != nil {
		return nil, err
	}
	view := viewOf(p.plan.Document, stand)
	view.say(p.in.Told)
	return json.Marshal(view)
}

// Proposal is what becomes of the plan, as a phone shows it and sends it back where it is taken.
type Proposal struct {
	Is     conduct.Different `json:"is"`
	Placed []conduct.Place   `json:"placed"`
	Said   string            `json:"said"` // what is different
	Left   int               `json:"left"` // seconds from now until everybody is due
	Goes   []string          `json:"goes"`
	Comes  []string          `json:"comes"`
	Less   []string          `json:"less"`
	Moves  []string          `json:"moves"`
	Cold   []string          `json:"cold"`
	Mind   []string          `json:"mind"`
	TopUps []TopUp           `json:"topUps"`
	Fits   bool              `json:"fits"`
	Why    string            `json:"why"` // what stands in the way, where it does not fit
}

// TopUp is a short block that keeps people moving who would be cold at the start.
type TopUp struct {
	Who     []string `json:"who"` // ids
	Name    string   `json:"name"`
	Seconds int      `json:"seconds"`
	Effort  float64  `json:"effort"` // 0 to 1
	At      int      `json:"at"`     // when it begins, in seconds from the start
}

// Propose is what becomes of the plan if something is different, as JSON of a [Proposal], within
// so many steps. It fails with [plan.Problems] where that cannot be.
func (p *Phone) Propose(events []byte, now int64, different []byte, steps int) ([]byte, error) {
	stand, err := p.stand(events, now)
	if err != nil {
		return nil, err
	}
	var is conduct.Different
	if err := json.Unmarshal(different, &is); err != nil {
		return nil, err
	}
	proposal, err := stand.Propose(context.Background(), is, steps)
	if err != nil {
		return nil, p.told(err)
	}
	for _, list := range [][]string{proposal.Goes, proposal.Comes, proposal.Less, proposal.Moves, proposal.Cold,
		proposal.Mind} {
		each(list, p.in.Told)
	}
	told := Proposal{Is: proposal.Is, Placed: proposal.Placed, Said: p.in.Told(proposal.Said), Left: proposal.Left,
		Goes:  proposal.Goes,
		Comes: proposal.Comes, Less: proposal.Less, Moves: proposal.Moves, Cold: proposal.Cold, Mind: proposal.Mind,
		Fits: proposal.Fits,
		Why:  p.in.Told(proposal.Why)}
	for _, up := range proposal.TopUps {
		told.TopUps = append(told.TopUps, TopUp{Who: up.Who, Name: up.Name, Seconds: up.Seconds, Effort: up.Effort,
			At: int(up.At)})
	}
	return json.Marshal(told)
}

func (p *Phone) stand(text []byte, now int64) (*conduct.Stand, error) {
	var events []conduct.Event
	if err := json.Unmarshal(text, &events); err != nil {
		return nil, err
	}
	return conduct.Of(p.plan, events, now)
}

// told is what failed, in the language of the phone.
func (p *Phone) told(err error) error {
	if p.in == nil {
		return err
	}
	return errors.New(p.in.Told(err.Error()))
}
