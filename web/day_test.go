package web_test

import (
	"fmt"
	"net/http"
	"net/url"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/planner"
	"cuestart/planner/boards"
)

// How it will go on the day stands beneath the verdict; what would help is planned with one
// press, and taken out with one.
func TestHowTheDayWillGoIsSaidAndMended(t *testing.T) {
	base, p := site(t, "day")
	coach, physio := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail)
	before := page(t, coach, "/sessions/1?drawer=found")
	assert.Regexp(t,
		`Runs late about .+? days? in \w+\. Finish [\d:]+ (min|s) earlier .+ is what makes it late\.`,
		words(before))
	wants := regexp.MustCompile(`name="slack" value="(\d+)"`).FindStringSubmatch(before)
	require.NotNil(t, wants)
	assert.NotContains(t, page(t, physio, "/sessions/1?drawer=found"), `name="slack"`)
	press := func(slack string) int {
		b, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		status, _, _ := coach.post("/sessions/1/slack", url.Values{"revision": {itoa(b.Revision)}, "slack": {slack}})
		return status
	}
	for _, nonsense := range []string{"", "-1", "x", "1801", "1e9"} {
		assert.Equal(t, http.StatusUnprocessableEntity, press(nonsense), nonsense)
	}
	require.Equal(t, http.StatusSeeOther, press(wants[1]))
	after := words(page(t, coach, "/sessions/1?drawer=found"))
	assert.Regexp(t, `Hardly ever late\. Without the spare time`, after)
	b, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, wants[1], fmt.Sprint(b.Document.Slack))
	assert.Contains(t, page(t, coach, "/sessions/1/plan.json"), `"slack": `+wants[1])
	// What is dropped nowhere, or by who may not, changes nothing.
	b, err = p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	for _, wrong := range []url.Values{{"does": {"order"}, "block": {"bands"}, "at": {"x"}},
		{"does": {"order"}, "block": {"bands"}, "at": {"90"}},
		{"does": {"order"}, "block": {"bands"}, "at": {"-999999"}},
		{"does": {"order"}, "block": {"gone"}, "at": {"-900"}}, {"does": {"order"}, "at": {"-900"}},
		{"does": {"hold"}, "block": {"bands"}, "at": {"-300"}}, {"does": {"fly"}, "block": {"bands"}, "at": {"-900"}},
		{"block": {"bands"}},
		{"does": {"doses"}, "block": {"kicks"}, "by": {"-9000000"}},
		{"does": {"join"}, "block": {"high"}, "who": {"p15 p14"}},
		{"does": {"join"}, "block": {"high"}, "who": {"gone"}}, {"does": {"goes"}, "block": {"high"}, "zone": {"gone"}},
		{"does": {"leads"}, "block": {"high"}, "leader": {"gone"}},
		{"does": {"shift"}, "event": {"gone"}, "by": {"60"}}, {"does": {"longer"}, "event": {"toss"}, "by": {"-3000"}},
		{"does": {"out"}, "block": {"gone"}}} {
		wrong.Set("revision", itoa(b.Revision))
		status, _, _ := coach.post("/sessions/1/drop", wrong)
		assert.Equal(t, http.StatusUnprocessableEntity, status, wrong.Encode())
	}
	status, _, _ := physio.post("/sessions/1/drop", url.Values{"revision": {itoa(b.Revision)}, "does": {"order"},
		"block": {"bands"}, "at": {"-1500"}})
	assert.Equal(t, http.StatusForbidden, status)
	status, _, _ = physio.get("/sessions/1/drag?does=order&block=bands&at=-1500")
	assert.Equal(t, http.StatusForbidden, status)
	assert.Contains(t, page(t, coach, "/sessions/1/drag?does=order&block=bands&at=-1500"),
		`"says":"after Neck holds, before Jumps, sprints; `)
	for _, wrong := range []string{"", "in", "in bands", "in bands nobody", "in gone p1", "out kicks *",
		"up bands p1 p2"} {
		status, text, _ := coach.post("/sessions/1/people", url.Values{"revision": {itoa(b.Revision)}, "put": {wrong}})
		assert.Equal(t, http.StatusUnprocessableEntity, status, wrong)
		assert.Contains(t, text, `role="alert"`, wrong)
	}
	status, _, _ = physio.post("/sessions/1/people", url.Values{"revision": {itoa(b.Revision)},
		"put": {"out bands p1"}})
	assert.Equal(t, http.StatusForbidden, status)
	now, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, b.Revision, now.Revision)
	require.Equal(t, http.StatusSeeOther, press("0"))
	assert.Contains(t, words(page(t, coach, "/sessions/1?drawer=found")), "Plan it so")
}

// The history says who changed what when, shows what is otherwise since, and goes back to
// any step as a change that can be undone; another club's, and who may not, get nothing.
func TestAPlanGoesBackToAnyStep(t *testing.T) {
	base, p := site(t, "history")
	coach, physio := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail)
	board := func() *boards.Board {
		b, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		return b
	}
	came := board()
	for _, change := range []struct {
		path string
		form url.Values
	}{{"/slack", url.Values{"slack": {"120"}}},
		{"/drop", url.Values{"does": {"order"}, "block": {"bands"}, "at": {"-1500"}}},
		{"/people", url.Values{"put": {"in high p1"}}}} {
		change.form.Set("revision", itoa(board().Revision))
		status, text, _ := coach.post("/sessions/1"+change.path, change.form)
		require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	}
	listed := words(page(t, coach, "/sessions/1/history?look=1"))
	assert.Regexp(t,
		`4 Orla P\. into High balls .+ Ines Varley · as it is now 3 Bands before Line-out .+ Ines Varley Look Go back to it 2 2 min of slack`,
		listed)
	assert.Contains(t, listed, "Since then: ")
	assert.Contains(t, listed, "2 min of slack")
	assert.NotContains(t, words(page(t, physio, "/sessions/1/history")), "Go back to it")
	back := func(v *visitor, step string) int {
		status, _, _ := v.post("/sessions/1/history", url.Values{"revision": {itoa(board().Revision)}, "step": {step}})
		return status
	}
	assert.Equal(t, http.StatusForbidden, back(physio, "1"))
	for wrong, status := range map[string]int{"99": http.StatusNotFound, "0": http.StatusUnprocessableEntity,
		"x": http.StatusUnprocessableEntity} {
		assert.Equal(t, status, back(coach, wrong), wrong)
	}
	status, _, _ := coach.get("/sessions/999/history")
	assert.Equal(t, http.StatusNotFound, status)
	changed := board()
	require.Equal(t, http.StatusSeeOther, back(coach, "1"))
	assert.Equal(t, came.Document, board().Document, "as it came, word for word")
	coach.post("/sessions/1/undo", url.Values{"revision": {itoa(board().Revision)}})
	assert.Equal(t, changed.Document, board().Document, "and that is undone too")
	_, err := p.Boards.GoBack(ctx, planner.Account{ID: 1, ClubID: 2, Role: planner.Coach}, 1, board().Revision, 1, "x")
	assert.ErrorIs(t, err, planner.ErrNotFound, "another club's is not there")
	_, err = p.Boards.History(ctx, 2, 1)
	assert.ErrorIs(t, err, planner.ErrNotFound)
}
