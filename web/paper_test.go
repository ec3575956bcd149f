package web_test

import (
	"fmt"
	"html"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner/boards"
	"cuestart/planner/diary"
	"cuestart/planner/office"
)

// words is what a page says, without its tags.
func words(page string) string {
	page = regexp.MustCompile(`(?s)<(script|style).*?</(script|style)>`).ReplaceAllString(page, " ")
	return strings.Join(strings.Fields(html.UnescapeString(regexp.MustCompile(`<[^>]+>`).ReplaceAllString(page, " "))),
		" ")
}

// The board, the sheet and every player's phone say the same of each block: when,
// where, how much.
func TestBoardPaperAndPhoneSayTheSame(t *testing.T) {
	base, p := site(t, "paper")
	coach, nobody := visit(t, base, demo.Email), visit(t, base, "")
	for _, id := range []uint64{1, 2, 3, written(t, p, coach)} {
		b, err := p.Boards.Board(ctx, 1, id)
		require.NoError(t, err)
		coach.post(fmt.Sprintf("/sessions/%d/publish", id), url.Values{"revision": {itoa(b.Revision)}})
		b, err = p.Boards.Board(ctx, 1, id)
		require.NoError(t, err)
		onPaper := words(page(t, coach, fmt.Sprintf("/sessions/%d/sheet", id)))
		full := words(page(t, coach, fmt.Sprintf("/sessions/%d/sheet?cues=yes", id)))
		phones := map[string]string{}
		for _, player := range b.Document.Players {
			phones[player.ID] = words(page(t, nobody, "/r/"+b.Publication.Token+"/"+player.ID))
		}
		for _, block := range b.Blocks {
			onBoard := words(page(t, coach, fmt.Sprintf("/sessions/%d?block=%s", id, block.ID)))
			if !block.Kept {
				assert.Contains(t, onBoard, block.Name, "what is left out is said too")
				continue
			}
			starts := clock.Clock(b.Schedule.Start, block.Start)
			for where, text := range map[string]string{"board": onBoard, "paper": onPaper} {
				assert.Contains(t, text, block.Name, where)
				assert.Contains(t, text, block.Start.ToGo(), "%s: %s", where, block.Name)
				for _, dose := range block.Doses() {
					assert.Contains(t, text, dose, "%s: %s", where, block.Name)
				}
			}
			for n, dose := range block.Named() {
				told := dose
				if cues := block.Items[n].Drill.Cues; len(cues) > 0 {
					told += " Say " + strings.Join(cues, ". ") + "."
				}
				assert.Contains(t, full, told, "the full sheet tells how")
			}
			for _, player := range b.Document.Players {
				mine := phones[player.ID]
				if !block.Has(player.ID) {
					continue
				}
				assert.Contains(t, mine, block.Name, player.ID)
				assert.Contains(t, mine, starts, "%s: %s", player.ID, block.Name)
				for n, dose := range block.Doses() {
					told := []string{block.Items[n].Drill.Name, dose}
					for _, cue := range block.Items[n].Drill.Cues {
						told = append(told, cue)
					}
					assert.Contains(t, mine, strings.Join(told, " "), "%s: each drill with its dose and all its cues",
						player.ID)
				}
			}
		}
		for _, cut := range mustCut(t, p, b) {
			for _, says := range cut {
				assert.Contains(t, onPaper, says)
			}
		}
	}
}

// written is a session whose plan says everything that a line can say.
func written(t *testing.T, p *office.Office, coach *visitor) uint64 {
	status, text, to := coach.post("/sessions", url.Values{"kind": {"match"}, "title": {"Written"},
		"start": {"2026-12-05T15:00"}, "squad": {"1"}, "from": {diary.FromEmpty}, "minutes": {"60"}})
	require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	id, err := strconv.ParseUint(regexp.MustCompile(`/sessions/(\d+)`).FindStringSubmatch(to)[1], 10, 64)
	require.NoError(t, err)
	b, err := p.Boards.Board(ctx, 1, id)
	require.NoError(t, err)
	status, text, _ = coach.post(fmt.Sprintf("/sessions/%d/write", id),
		url.Values{"revision": {itoa(b.Revision)}, "text": {`jog 3 x 120 m, 50 %
leg swings 8 each way a leg (no bounce)
dead bug 4 a side, 3-1-3
neck holds forward / left / right / back, 3 x 6 s each
plank 3 x 20 s, rest 10 s
line-out throws 5 5 3 to front middle back
out with high knees, back with heel kicks, 18 m
bike 3 min, 60 %
press-ups 8-10
strides 3 x 30 m at 70, 80, 90
pogo 2 x 10, 3 breaths of box breathing`}})
	require.Contains(t, []int{http.StatusOK, http.StatusSeeOther}, status, problemIn(text))
	b, err = p.Boards.Board(ctx, 1, id)
	require.NoError(t, err)
	all := ""
	for _, block := range b.Blocks {
		all += strings.Join(block.Doses(), "\n") + "\n"
	}
	for _, says := range []string{"3 lengths of 120 m at 50 %", "8 each way, a side", "3-1-3",
		"forward / left / right / back", "3 holds of 20 s", "5 front, 5 middle, 3 back",
		"out with high knees, back with heel kicks, 18 m", "3 min at 60 %", "10", "at 70, 80, 90 %"} {
		require.Contains(t, all, says)
	}
	return id
}

func mustCut(t *testing.T, p *office.Office, b *boards.Board) (says [][]string) {
	cuts, err := p.Boards.Cutdowns(ctx, b)
	require.NoError(t, err)
	for _, c := range cuts {
		says = append(says, c.Says)
	}
	return says
}

// Two coaches press at once. On different blocks both are in; on the same one the slower is
// told who did what, and takes theirs or has it all the same; nothing is half done.
func TestTwoCoachesPressAtOnce(t *testing.T) {
	base, p := site(t, "atonce")
	one, two := visit(t, base, demo.Email), visit(t, base, "assistant@brackwater.example")
	press := func(revision uint32, blocks, by []string) (statuses []int, pages []string) {
		var all sync.WaitGroup
		statuses, pages = make([]int, 2), make([]string, 2)
		for i, v := range []*visitor{one, two} {
			all.Go(func() {
				statuses[i], pages[i], _ = v.post("/sessions/1/blocks/"+blocks[i]+"/dose",
					url.Values{"revision": {itoa(revision)}, "item": {"0"}, "by": {by[i]}})
			})
		}
		all.Wait()
		return statuses, pages
	}
	for range 3 { // a fourth time both could come to the most of the range
		b, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		statuses, _ := press(b.Revision, []string{"lineout", "raise"}, []string{"-1", "-1"})
		after, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		assert.Equal(t, []int{http.StatusSeeOther, http.StatusSeeOther}, statuses)
		for _, id := range []string{"lineout", "raise"} {
			was, is := b.Document.Block(id).Items[0].Drill.Range, after.Document.Block(id).Items[0].Drill.Range
			assert.Equal(t, was.Clamp(was.Target-was.Step), is.Target, id)
		}

		statuses, pages := press(after.Revision, []string{"lineout", "lineout"}, []string{"2", "1"})
		late := slices.Index(statuses, http.StatusConflict)
		require.Equal(t, http.StatusSeeOther+http.StatusConflict, statuses[0]+statuses[1], "%v", statuses)
		assert.Regexp(t, `(Ines Varley|Ulla Renn) changed Line-out too`, words(pages[late]))
		assert.Contains(t, words(pages[late]), "Use mine")
		by := []string{"2", "1"}[late]
		status, _, _ := []*visitor{one, two}[late].post("/sessions/1/blocks/lineout/dose",
			url.Values{"revision": {itoa(after.Revision)}, "item": {"0"}, "by": {by}, "insist": {"yes"}})
		assert.Equal(t, http.StatusSeeOther, status)
		last, err := p.Boards.Board(ctx, 1, 1)
		require.NoError(t, err)
		r := after.Document.Block("lineout").Items[0].Drill.Range
		assert.Equal(t, r.Clamp(r.Target+map[string]int{"1": 1, "2": 2}[by]*r.Step),
			last.Document.Block("lineout").Items[0].Drill.Range.Target, "mine, not the sum of both")
	}
	status, page, _ := one.post("/sessions/1/blocks/lineout/dose",
		url.Values{"revision": {"77"}, "item": {"0"}, "by": {"1"}})
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, words(page), "Somebody else has just changed this plan")
}

// A start is yet to come, on the venue's clock, also in the hour that a clock
// change skips or repeats.
func TestANewSessionIsSaidOnTheVenuesClock(t *testing.T) {
	base, p := site(t, "newsession")
	coach := visit(t, base, demo.Email)
	add := func(form string) (int, string, string) {
		values, err := url.ParseQuery("kind=training&squad=1&venue=1&from=last&title=Practice&" + form)
		require.NoError(t, err)
		return coach.post("/sessions", values)
	}
	for form, says := range map[string]string{
		"start=2026-11-25T10:00":       "has passed",
		"start=2027-03-28T01:30":       "does not exist",
		"start=2027-10-31T01:30":       "comes twice",
		"start=soon":                   "date and time",
		"start=2026-12-01T19:00&from=": "",
	} {
		status, text, to := add(form)
		if says == "" {
			assert.Equal(t, http.StatusSeeOther, status)
			assert.Contains(t, to, "/sessions/")
			continue
		}
		assert.Equal(t, http.StatusUnprocessableEntity, status, form)
		assert.Contains(t, words(text), says, form)
	}
	status, _, to := add("start=2027-10-31T01:30&occurrence=second")
	require.Equal(t, http.StatusSeeOther, status)
	var id uint64
	_, err := fmt.Sscanf(to, "/sessions/%d", &id)
	require.NoError(t, err)
	b, err := p.Boards.Board(ctx, 1, id)
	require.NoError(t, err)
	assert.Equal(t, "2027-10-31T01:30:00Z", b.Schedule.Start.UTC().Format(time.RFC3339),
		"the second time the clock shows it")
	assert.Equal(t, plan.Training, b.Document.Kind)
}

// Fifty sessions to come are enough for a page; the rest is one press away.
func TestALongListIsCutWithAWayOn(t *testing.T) {
	base, p := site(t, "longlist")
	coach := visit(t, base, demo.Email)
	assert.NotContains(t, page(t, coach, "/today"), "all=yes", "three are all there are")
	first := now.AddDate(0, 0, 20)
	for n := range 49 {
		at := first.AddDate(0, 0, n).Format("2006-01-02") + "T19:00"
		status, text, _ := coach.post("/sessions", url.Values{"kind": {"training"}, "squad": {"1"}, "venue": {"1"},
			"from": {"last"}, "title": {fmt.Sprintf("Practice %d.", n)}, "start": {at}})
		require.Equal(t, http.StatusSeeOther, status, problemIn(text))
	}
	short, long := page(t, coach, "/today"), page(t, coach, "/today?all=yes")
	assert.Contains(t, words(short), "And 2 later")
	assert.Equal(t, []int{50, 52}, []int{strings.Count(short, "<h2 class=\"text-3xl"),
		strings.Count(long, "<h2 class=\"text-3xl")})
	assert.NotContains(t, short, "Practice 48.")
	assert.Contains(t, long, "Practice 48.")
	listed, more, err := p.Boards.Sessions(ctx, 1, 52)
	require.NoError(t, err)
	assert.Zero(t, more)
	for n := 1; n < len(listed); n++ {
		assert.False(t, listed[n].Start.Before(listed[n-1].Start), "the nearest first")
	}
}
