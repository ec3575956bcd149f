package place

import (
	"encoding/json"
	"net/url"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/measure"
	"cuestart/core/plan"
	"cuestart/core/sport"
	"cuestart/planner/books"
	"cuestart/web/shell"
)

func TestASportIsReadAsItIsShown(t *testing.T) {
	drills := books.NewBook(book.Drills(), nil)
	for _, s := range book.Sports() {
		b := bodyOf(&s, drills)
		form := url.Values{"key": {b.Key}, "name": {b.Name}, "start": {b.Start}, "first": {b.First},
			"margin": {b.Margin}, "lengths": {b.Unit()}, "long": {b.Long}, "wide": {b.Wide}, "round": {b.Round},
			"training": {b.Training}, "season": {b.Season}, "begins_first": {b.Begins.First},
			"begins_later": {b.Begins.Later}}
		for _, tick := range b.Stresses {
			if tick.On {
				form.Add("stresses", tick.Value)
			}
		}
		for _, table := range b.Tables {
			for _, row := range table.Rows {
				for _, cell := range row {
					form.Add(cell.Name, cell.Value)
				}
			}
		}
		f := shell.NewForm(form)
		back, _ := readSport(f, s, drills)
		require.NoError(t, f.Err(), s.Key)
		require.NoError(t, back.Validate(func(code string) bool { _, ok := drills.Find(code); return ok }))
		slices.Sort(back.Stresses)
		slices.Sort(s.Stresses)
		if len(s.Due) == 0 {
			s.Due = nil
		}
		if len(s.Fixed) == 0 {
			s.Fixed = nil
		}
		if len(s.Units) == 0 {
			s.Units = nil
		}
		for i := range s.Roles {
			s.Roles[i].Of = max(1, s.Roles[i].Of)
		}
		x, _ := json.Marshal(s)
		y, _ := json.Marshal(back)
		assert.JSONEq(t, string(x), string(y))
	}
}

// What is no number in a row is refused by the row's name, and shown again.
func TestARowSaysWhatIsWrongWithIt(t *testing.T) {
	drills := books.NewBook(book.Drills(), nil)
	f := shell.NewForm(url.Values{"key": {"netball"}, "margin": {"5"}, "fixed-name": {"Toss", ""},
		"fixed-who": {"captain", "x"}, "fixed-from": {"soon", ""}, "fixed-to": {"38", ""},
		"craft-name": {"Shots"}, "craft-stations": {"many"}, "principle-words": {"zumba", "a game"},
		"line-name": {"half way", "far post"}, "line-far": {"soon", "22 yd"}, "wide": {"broad"},
		"position-name": {"Shooter"}, "position-called": {"GS; shot"}, "side-called": {"At ours", "Away"},
		"side-from": {"0", "45"}, "side-sooner": {"", "40"}, "side-turn": {"first", "later"}})
	p, sent := readSport(f, book.Sports()[0], drills)
	assert.Len(t, p.Fixed, 1, "a row without a name is none")
	wrong := shell.Problems(f.Err())
	require.Len(t, wrong, 5)
	for i, says := range []string{`"broad" is no length`, `Toss: "soon" is no whole number of minutes`,
		`Shots: "many" is no number at once`, `"zumba": say it by what the drills do`,
		"line half way: write how far it is"} {
		assert.Contains(t, wrong[i].What, says)
	}
	assert.InDelta(t, 22*measure.Yard, p.Lines[1].Metres, 0.001)
	assert.Equal(t, []string{"GS", "shot"}, p.Called["Shooter"])
	assert.Equal(t, []string{"zumba", "a game"}, p.PrinciplesOf(plan.Match))
	assert.Equal(t, []sport.Side{{Called: "At ours", Turn: plan.First},
		{Called: "Away", From: 45, Sooner: 40, Turn: plan.Later}}, []sport.Side{p.Home, p.Away})
	assert.ErrorContains(t, p.Validate(func(string) bool { return true }), "Away: work ends at most 30 minutes sooner")
	assert.Equal(t, "soon", sent[5].Rows[0][2].Value)
}
