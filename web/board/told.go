package board

import (
	"context"
	"slices"

	"cuestart/planner/boards"
	"cuestart/planner/keep"
	"cuestart/planner/reach"
	"cuestart/web/shell"
)

// toldBody is what was said from phones and waits to be taken in.
type toldBody struct {
	ID      uint64
	Words   []toldWord
	Hurt    []shell.HurtRow // who is hurt, and has no answer yet
	Trouble string          // why the players do not have what was changed at the pitch side
	Clash   string          // what was changed there and here
	Problem string
}

// toldWord is one of them.
type toldWord struct {
	reach.Told
	When  string
	Takes bool // whoever looks may take it in
}

// To is the address of something under the session.
func (b toldBody) To(under ...string) string { return shell.Session(b.ID, under...) }

func (in Room) toldOf(r *shell.Request, b *boards.Board) (toldBody, error) {
	made := toldBody{ID: b.ID}
	words, err := in.Reach.Told(r.Context(), r.By, b)
	if err != nil {
		return made, err
	}
	for _, w := range words {
		made.Words = append(made.Words, toldWord{w, w.Pressed.In(b.Schedule.Start.Location()).Format("15:04"),
			r.Coach()})
	}
	hurt, err := in.Keep.HurtIn(r.Context(), r.By, b.ID)
	if err != nil {
		return made, err
	}
	made.Hurt = shell.HurtRows(r,
		slices.DeleteFunc(hurt, func(h keep.Hurt) bool { return h.Answer != "" && h.Answer != keep.StaysOut }))
	made.Trouble, made.Clash, err = in.Pitchside.RunTold(r.Context(), b.ID)
	return made, err
}

// Told is what was said from phones, by itself.
func (in Room) Told(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	made, err := in.toldOf(r, b)
	return &shell.Page{Screens: screens, Name: "told", Part: "told", Title: "From the phones", Nav: "runin",
		Body: made}, err
}

// TakeIn takes a word in: who is late is planned so, where that is pressed.
func (in Room) TakeIn(r *shell.Request) (shell.Answer, error) {
	err := in.Reach.TakeIn(r.Context(), r.By, r.ParamID("session"), r.ParamID("word"), r.Form.Has("plan"))
	if wrong := shell.Problems(err); wrong != nil {
		r.Say("That could not be planned: " + wrong[0].What)
		err = nil
	}
	return shell.Go(shell.Session(r.ParamID("session"))), err
}

// Live tells an open board that something is new.
func (in Room) Live(r *shell.Request) (shell.Answer, error) {
	if _, err := in.Boards.Document(r.Context(), r.Club(), r.ParamID("session")); err != nil {
		return nil, err
	}
	return shell.Stream{Run: func(ctx context.Context, send func(event, data string) error) error {
		news := r.Live().Listen(r.ParamID("session"), true)
		defer news.Close()
		had, err := in.tellPlan(r, 0, send)
		for err == nil {
			if err = send("news", ""); err != nil {
				break
			}
			select {
			case <-ctx.Done():
				return nil
			case <-news.Over():
				return nil
			case <-news.News:
				had, err = in.tellPlan(r, had, send)
			}
		}
		return err
	}}, nil
}
