// Package field is the core at the pitch side: what a phone asks of it while a session runs,
// in JSON, with or without a signal. field/wasm is the same for a browser.
package field

import (
	"context"
	"encoding/json"

	"cuestart/core/conduct"
)

// Phone is a plan on a phone.
type Phone struct{ plan conduct.Plan }

// Open reads a plan as the server sends it. It fails where that is none.
func Open(plan []byte) (*Phone, error) {
	p := new(Phone)
	err := json.Unmarshal(plan, &p.plan)
	if err == nil && (p.plan.Document == nil || p.plan.Schedule == nil) {
		err = errNoPlan
	}
	return p, err
}

// On is a phone with a plan that is at hand.
func On(plan conduct.Plan) *Phone { return &Phone{plan} }

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
	return json.Marshal(viewOf(p.plan.Document, stand))
}

// Propose is what becomes of the plan if something is different, as JSON of a
// [conduct.Proposal], within so many steps. It fails with [plan.Problems] where that cannot be.
func (p *Phone) Propose(events []byte, now int64, different []byte, steps int) ([]byte, error) {
	stand, err := p.stand(events, now)
	if err != nil {
		return nil, err
	}
	var is conduct.Different
	if err := json.Unmarshal(different, &is); err != nil {
		return nil, err
	}
	made, err := stand.Propose(context.Background(), is, steps)
	if err != nil {
		return nil, err
	}
	return json.Marshal(made)
}

func (p *Phone) stand(text []byte, now int64) (*conduct.Stand, error) {
	var events []conduct.Event
	if err := json.Unmarshal(text, &events); err != nil {
		return nil, err
	}
	return conduct.Of(p.plan, events, now)
}
