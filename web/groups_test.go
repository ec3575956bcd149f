package web_test

import (
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/demo"
	"cuestart/planner/diary"
)

// Stations, turns, cells, legs and lists are the same on the board, on paper, and on the
// phones of who leads and who plays.
func TestGroupsAreSaidEverywhere(t *testing.T) {
	base, p := site(t, "groups")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	status, text, to := coach.post("/sessions", url.Values{"kind": {"match"}, "title": {"Groups"},
		"start": {"2026-12-05T15:00"}, "squad": {"1"}, "from": {diary.FromEmpty}, "minutes": {"75"}})
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	at := regexp.MustCompile(`/sessions/(\d+)`).FindStringSubmatch(to)
	status, text, _ = coach.post(at[0]+"/write", url.Values{"revision": {"1"}, "text": {`We have 4 rollers.
everyone: three stations, 40 s, Pell: squats, plank, side plank
everyone: roll calves 30 s, 4 at once, Pell
place kickers: one of: skips, jog, 1 min, Pell
place kickers: out with skips, back with jog, 20 m, twice, Pell
place kickers: full kicks: 2 near left, 2 near right, 3 far left, 1 far right, Pell
After the bell: stretch calves and thighs, 15 s each`}})
	require.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status, problemIn(text))
	_, own, b := published(t, p, coach, at[1])
	id, everybody := "", []string(nil)
	for i := range b.Document.Blocks {
		if block := &b.Document.Blocks[i]; strings.HasPrefix(string(block.Form), "stations") {
			id, everybody = block.ID, b.Document.Members(block.Who)
		}
	}
	require.NotEmpty(t, id)
	groups := b.Document.Groups(b.Document.Block(id))
	require.Len(t, groups, 3)

	says := []string{"3 stations of", "change in 15 s", "begin here: " + b.Document.GroupNames(groups[1]), "do this: ",
		"2 trips: out with skips, back with jog, 20 m", "8 turns of 4"}
	pell := slices.IndexFunc(b.Document.Leaders, func(l plan.Leader) bool { return l.Name == "Pell" })
	leader := words(page(t, nobody, own["l-"+b.Document.Leaders[pell].ID]+"?show=all"))
	sheet := words(page(t, coach, at[0]+"/sheet"))
	for _, one := range says {
		assert.Contains(t, leader, one, "who leads")
		assert.Contains(t, sheet, one, "on paper")
	}
	assert.Contains(t, leader, "left right near again again far", "the grid is one of rows and columns")
	assert.Contains(t, sheet, "2 near left, 2 near right, 3 far left, 1 far right")
	assert.Contains(t, sheet, "Bell")
	second := groups[1][0]
	mine := words(page(t, nobody, own[second]))
	begins := b.Document.Block(id).Items[1].Drill.Name
	assert.Contains(t, mine, "you begin at "+begins)
	after := mine[strings.Index(mine, "you begin at "+begins)+len("you begin at "+begins):]
	assert.Less(t, strings.Index(after, begins), strings.Index(after, b.Document.Block(id).Items[0].Drill.Name),
		"theirs comes first: %s", after[:200])
	require.Greater(t, len(everybody), 20)
	assert.Contains(t, words(page(t, nobody, own[everybody[5]])), "turn 2 of")
	list := ""
	for _, l := range b.Document.Lists {
		if l.Line == "Bell" {
			list = l.ID
		}
	}
	assert.Contains(t, words(page(t, nobody, own[second]+"?list="+list)), "Stretch calves")
	for _, gone := range []string{"gone", "after-9", "..", "%00"} {
		status, _, _ := nobody.get(own[second] + "?list=" + gone)
		assert.Equal(t, http.StatusNotFound, status, gone)
	}

	// A player who is moved begins elsewhere, and a group that is not there is refused.
	status, text, _ = coach.post(at[0]+"/blocks/"+id+"/group",
		url.Values{"revision": {itoa(b.Revision)}, "player": {second}, "to": {"2"}})
	require.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status, problemIn(text))
	moved, err := p.Boards.Board(ctx, 1, b.ID)
	require.NoError(t, err)
	assert.Contains(t, moved.Document.Groups(moved.Document.Block(id))[2], second)
	for _, bad := range []url.Values{{"player": {second}, "to": {"7"}}, {"player": {"p99"}, "to": {"1"}},
		{"player": {second}, "to": {"x"}}} {
		bad.Set("revision", itoa(moved.Revision))
		status, _, _ = coach.post(at[0]+"/blocks/"+id+"/group", bad)
		assert.Equal(t, http.StatusUnprocessableEntity, status, "%v", bad)
	}
}

// A player who would rather do another drill of a choice says so; one press plans it. Who
// says that they are late gets their short list with the same press.
func TestAChoiceIsMadeFromThePhone(t *testing.T) {
	base, p := site(t, "choosing")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	status, text, _ := coach.post("/sessions/1/write", url.Values{"revision": {"1"},
		"text": {"kickers: one of: skips, jog, must"}})
	require.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status, problemIn(text))
	_, own, b := reached(t, p, coach)
	block := &b.Document.Blocks[slices.IndexFunc(b.Document.Blocks,
		func(b plan.Block) bool { return b.Form == plan.ByChoice })]
	does := b.Document.Chosen(block)["p15"]
	require.Len(t, does, 1)
	other := block.Items[1-does[0]].Drill.Name
	assert.Contains(t, page(t, nobody, own["p15"]), `data-choice="`+other+`"`)
	assert.NotContains(t, page(t, nobody, own["p3"]), "data-choice", "who is in no choice has none")
	say := func(who string, fields url.Values) int {
		status, _, _ := nobody.post(own[who]+"/say", fields)
		return status
	}
	chooses := func(once, block, says string) url.Values {
		return url.Values{"kind": {"choice"}, "once": {once}, "block": {block}, "says": {says}}
	}
	for who, wrong := range map[string]url.Values{"p15": chooses("w1", block.ID, "Nothing of the kind"),
		"p10": chooses("w2", "lineout", "Line-out throws"), "p3": chooses("w3", block.ID, other)} {
		assert.Equal(t, http.StatusUnprocessableEntity, say(who, wrong), "%v", wrong)
	}
	require.Equal(t, http.StatusNoContent, say("p15", chooses("c1", block.ID, other)))
	require.Equal(t, http.StatusNoContent, say("p9", url.Values{"kind": {"late"}, "once": {"l1"}, "says": {"14:40"}}))
	told := page(t, coach, "/sessions/1/told")
	assert.Contains(t, words(told), "would do "+other+" at "+block.Name)
	for _, id := range regexp.MustCompile(`/words/(\d+)`).FindAllStringSubmatch(told, -1) {
		status, _, _ := coach.post("/sessions/1/words/"+id[1], url.Values{"plan": {"yes"}})
		require.Equal(t, http.StatusSeeOther, status)
	}
	now, err := p.Boards.Board(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, []int{1 - does[0]}, now.Document.Chosen(now.Document.Block(block.ID))["p15"])
	assert.Equal(t, schedule.ShortListID("p9"), now.Schedule.All(now.Document)[len(now.Blocks)].ID,
		"who is late has their short list")
	assert.NotContains(t, words(page(t, coach, "/sessions/1/told")), "would do")
	coach.post("/sessions/1/blocks/"+block.ID+"/form", url.Values{"revision": {itoa(now.Revision)}, "pressed": {"to "}})
	assert.Equal(t, http.StatusNoContent, say("p15", chooses("c2", block.ID, other)),
		"the plan that they have is as it was published")
	assert.NotContains(t, page(t, coach, "/sessions/1/told"), "Plan it so", "but there is nothing to choose any more")
}
