package e2e

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/core/schedule"
	"cuestart/core/speech"
	"cuestart/planner/diary"
	"cuestart/store"
)

// at waits until the board is at a revision.
func (b *browser) at(revision int) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.querySelector("[name=revision]")?.value == "%d"`, revision))
}

// Forty-two pupils at seven stations, with twelve rollers: groups are made by the program,
// the kit goes round in turns with one press, and each pupil's phone says where they begin.
func TestAClassAtStationsWithTooLittleKit(t *testing.T) {
	base, p := site(t, false)
	ctx := context.Background()
	b := newBrowser(t, base)
	b.open("/welcome")
	for field, value := range map[string]string{"club": "Hollinmere School", "squad": "Year 8", "name": "Ada Quill",
		"email": "ada@hollinmere.example", "password": "three words here"} {
		b.fill("[name="+field+"]", value)
	}
	b.set("[name=sport]", "class")
	b.click("main .act-first")
	b.until(`location.pathname == "/today"`)
	teacher, _, err := p.Staff.AccountByEmail(ctx, "ada@hollinmere.example")
	require.NoError(t, err)
	for kit, pieces := range map[string]int{"roller": 12, "hurdle": 20, "rope": 10} {
		_, err = p.Save(ctx, teacher, "counted", store.Change{Is: club.Kit{Name: kit, Pieces: pieces}})
		require.NoError(t, err)
	}
	id := begin(b, `document.querySelector("[name=players]").value = 42;`)
	b.write(`seven stations, 40 s: balance, throw at the wall, ladder, crab walk, plank, squats, rest and watch

roll the calves 30 s

over the hurdles, five a lane, twice`)
	b.until(`document.querySelector(".heard-panel")?.innerText.includes("3 lines put in")`)
	d := document(t, p, id)
	require.Len(t, d.Blocks, 3)
	for _, team := range d.Teams(&d.Blocks[0]) {
		assert.Len(t, team, 6)
	}
	for id := range map[string]bool{d.Blocks[0].ID: true} {
		b.open(b.base + eval[string](b, "location.pathname") + "?block=" + id)
	}
	assert.Contains(t, b.text("#chosen"), "7 stations of 6, 40 s each, change in 15 s")
	b.click("#drawer-groups summary")
	b.until(`document.querySelectorAll("#drawer-groups select").length == 42`)
	b.shot("stations-1280")
	first := `#drawer-groups select`
	b.set(first, "3") // from the first station to the fourth
	b.at(3)
	d = document(t, p, id)
	assert.Equal(t, plan.ByHand, d.Blocks[0].Split)
	assert.Len(t, d.Teams(&d.Blocks[0])[3], 7)

	b.click("#close-block")
	b.until(`!document.querySelector("#chosen")`)
	b.click("#drawer-found summary")
	b.until(`document.querySelector("[aria-label=Findings]")`)
	assert.Contains(t, eval[string](b, `document.querySelector("[aria-label=Findings]").textContent`),
		"wants 42 × roller, and there are 12")
	b.run(`[...document.querySelectorAll("main button")].find(b => b.textContent.includes("Take 4 turns, 12 at once")).click()`)
	b.at(4)
	board, err := p.Boards.Board(ctx, teacher.ClubID, id)
	require.NoError(t, err)
	said := map[string]string{}
	for i := range board.Blocks {
		said[board.Blocks[i].Items[0].Drill.Code] = board.Blocks[i].Spread(speech.English, 0)
	}
	assert.Equal(t, "4 turns of 12", said["roll-calves"])
	assert.Equal(t, "4 lines of 11", said["hurdle-steps"])
	board, err = p.Reach.Publish(ctx, teacher, id, board.Revision)
	require.NoError(t, err)

	phone := newBrowser(t, base)
	phone.size(390, 844)
	phone.open(ownLinks(t, p, board)[d.Players[40].ID])
	phone.until(`document.querySelector("[data-steps]")`)
	phone.run(`document.querySelectorAll("details").forEach(d => d.open = true)`)
	text := phone.text("main")
	for _, says := range []string{"you begin at", "turn 4 of 4", "4 lines of 11"} {
		assert.Contains(t, text, says)
	}
	steps := eval[string](phone, `[...document.querySelectorAll("[data-steps]")].map(e => e.textContent).join()`)
	assert.Contains(t, steps, "wait", "three turns of others come first")
	phone.shot("stations-390")
}

// A day that begins in attack is made one that begins in defence in one press: the blocks
// of the one give way to those of the other, and due times follow. A role's block is run
// once somebody has the role.
func TestADayIsTurnedInOnePress(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1?block=high")
	b.set("#run-on", "first")
	b.at(2)
	b.open("/sessions/1?block=hands")
	b.set("#run-on", "later")
	b.at(3)
	kept := func(block string) bool {
		board, err := p.Boards.Board(context.Background(), 1, 1)
		require.NoError(t, err)
		for _, x := range board.Blocks {
			if x.ID == block {
				return x.Kept
			}
		}
		return false
	}
	b.open("/sessions/1?tab=day")
	b.click("#turn-first")
	b.at(4)
	assert.Equal(t, []bool{true, false}, []bool{kept("high"), kept("hands")})
	b.click("#turn-later")
	b.at(5)
	assert.Equal(t, []bool{false, true}, []bool{kept("high"), kept("hands")})
	assert.Contains(t, b.text("main"), "High balls", "it is not lost: it waits among what is left out")

	b.open("/sessions/1?tab=people")
	b.fill("#role-name", "Nudger")
	b.run(`document.querySelector("#role-name").form.requestSubmit()`)
	b.at(6)
	d := document(t, p, 1)
	role := d.Roles()[len(d.Roles())-1]
	assert.Equal(t, "Nudger", role.Name)
	b.open("/sessions/1?block=touch")
	b.set("#block-said", "nudger, far half, Runa, could")
	b.at(7)
	assert.False(t, kept("touch"), "nobody is it")
	b.open("/sessions/1?tab=people")
	b.set("#role-"+role.ID, "p20")
	b.at(8)
	assert.True(t, kept("touch"))
}

// Who comes late says when, gets a short list of their own, is told of nothing before that,
// and may work on over the line-up. What comes after the end is written, and followed on the
// phone at one's own pace.
func TestALatecomerAndWhatComesAfter(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/sessions/1?tab=people")
	b.set("#late-p15", "14:40")
	b.at(2)
	d := document(t, p, 1)
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	after, missed := board.Schedule.Lateness(board.Document, "p15")
	assert.Contains(t, b.text("#tab-people"), schedule.LateWords(after, missed))
	own := board.Schedule.All(d)[len(d.Blocks)]
	assert.True(t, own.Length() >= 60 && own.Length() <= missed, "%d s", own.Length())
	b.run(`document.querySelector("[name=over]").click()`)
	b.at(3)
	assert.True(t, document(t, p, 1).Player("p15").Over)

	b.open("/sessions/1?tab=lists")
	b.click("#add-break")
	b.at(4)
	b.fill("#after-1-say", "calf stretch 20 s a side")
	b.run(`document.querySelector("#after-1-say").form.requestSubmit()`)
	b.at(5)
	assert.Contains(t, b.text("#list-after-1"), "Calf stretch: 1 hold of 20 s a side")
	d = document(t, p, 1)
	assert.Len(t, d.Lists[0].Blocks, 4)
	require.Len(t, d.Lists, 2)
	line := schedule.Lists(d)[1]
	assert.Empty(t, line.Findings(), "what is usual at half-time is sound")
	b.shot("lists-1280")

	_, links, _ := published(t, p)
	phone := newBrowser(t, base)
	phone.size(390, 844)
	phone.open(links["p15"])
	phone.until(`document.querySelector("[data-later]")`)
	text := phone.text("main")
	assert.NotContains(t, text, "Team talk", "it is over before she comes")
	assert.Contains(t, text, "Catch-up")
	for _, says := range []string{"After the end", "from: Final whistle", "Half-time",
		"done 1 min before: Second half"} {
		assert.Contains(t, text, says)
	}
	phone.run(`[...document.querySelectorAll("[data-later] a")].find(a => a.href.includes("after-1")).click()`)
	phone.until(`location.search.includes("after-1") && document.querySelector("[data-do=own]")`) // its script is there
	phone.run(`document.querySelector("[data-do=own]").click()`)
	phone.until(`document.querySelector(".follow")?.innerText.includes("Walk it down")`)
	phone.shot("after-390")
}

// A place kicker's day: hers alone, a grid with counts, the kick-off called fifteen minutes
// early; and the same again away.
func TestAPlaceKickersDay(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	id := begin(b, `document.querySelector("#alone").value = document.querySelector("#alone").options[10].value;`)
	b.write(`read the wind 3, at 62
leg swings 10 each way a leg, at 50
run-ups without a ball 5, 44 to 38
no-step kicks 5, straight after run-ups
one-step kicks 5
kicking grid, 2 left touch / 2 left / 2 middle / 2 right / 3 right touch, exactly
--- Raise
jog 3 min, at 30
--- Sport
kicks at posts 2, done by 9`)
	b.until(`document.querySelector(".heard-panel")?.innerText.includes("put in")`)
	d := document(t, p, id)
	grid := d.Blocks[0]
	for _, block := range d.Blocks {
		for _, item := range block.Items {
			if item.Drill.Code == "ru-kick-grid" {
				grid = block
			}
		}
	}
	words := grid.Items[len(grid.Items)-1].Drill.Words(grid.Items[len(grid.Items)-1].Drill.Range.Target)
	assert.Equal(t, "2 left touch, 2 left, 2 middle, 2 right, 3 right touch", words)
	held := listed(d)
	for range 3 {
		before := eval[string](b, `document.querySelector("[name=revision]").value`)
		b.run(`document.querySelector("[value='-5']").click()`)
		b.until(fmt.Sprintf(`document.querySelector("[name=revision]").value != %q`, before))
	}
	d = document(t, p, id)
	assert.Equal(t, held, listed(d), "fifteen minutes early, and the order and the holds stand")
	assert.Contains(t, d.Start.Local, "T14:45")
	board, err := p.Boards.Board(context.Background(), 1, id)
	require.NoError(t, err)
	for _, x := range board.Blocks {
		if x.ID == grid.ID {
			assert.Equal(t, words, x.Items[len(x.Items)-1].Drill.Words(x.Amount(len(x.Items)-1)),
				"as written, whatever is cut")
		}
	}

	coach, _, err := p.Staff.AccountByEmail(context.Background(), "coach@brackwater.example")
	require.NoError(t, err)
	away, err := p.Diary.Add(context.Background(), coach, diary.NewSession{Kind: plan.Match, Title: "Away",
		Start: d.Start, From: diary.FromLast, Place: "Oxlode Vale", Alone: d.Players[0].Roster})
	require.NoError(t, err)
	assert.Equal(t, held, listed(document(t, p, away.ID)), "the same again, away")
}
