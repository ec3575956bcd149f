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
	is := viewOf(p.plan.Document, stand)
	is.say(p.in.Told)
	return json.Marshal(is)
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
		return nil, p.told(err)
	}
	for _, list := range [][]string{made.Goes, made.Comes, made.Less, made.Moves, made.Cold, made.Mind} {
		each(list, p.in.Told)
	}
	made.Said, made.Why = p.in.Told(made.Said), p.in.Told(made.Why)
	return json.Marshal(made)
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
