package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/club"
	"cuestart/core/plan"
	"cuestart/planner/diary"
	"cuestart/store"
)

// TestEveryViewIsWhole opens each main view at each width: nothing may stick out sideways, and
// axe may find nothing. With -shots it takes the pictures.
func TestEveryViewIsWhole(t *testing.T) {
	base, p := site(t, true)
	token, err := storeOf(t).Shares.Publish(context.Background(), 1, 1, 1, anything)
	require.NoError(t, err)
	require.NoError(t, p.Diary.SaveRoutine(context.Background(), store.Account{ID: 1, ClubID: 1, Role: store.Coach}, 1,
		diary.Keep{Name: "Match day", For: "home matches"}))
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	own := ownLinks(t, p, board)
	looksWhole(t, base, []view{
		{"today", "/today", []int64{1280, 768, 360}},
		{"new-session", "/sessions/new", []int64{1280, 360}},
		{"run-in", "/sessions/1", []int64{1280, 768, 360}},
		{"run-in-block", "/sessions/1?block=jumps", []int64{1280, 768, 360}},
		{"run-in-opened", "/sessions/1?block=lineout", []int64{1280, 360}},
		{"new-session-opened", "/sessions/new", []int64{360}},
		{"ground-opened", "/ground", []int64{360}},
		{"who-does-what", "/sessions/1/people", []int64{1280, 360}},
		{"history", "/sessions/1/history?look=1", []int64{1280, 360}},
		{"words", "/sessions/1/words", []int64{1280, 768, 360}},
		{"new-list", "/routines/new", []int64{1280, 360}},
		{"run-in-away", "/sessions/3", []int64{1280}},
		{"what-if", "/sessions/1/what-if?if=start&by=-20", []int64{1280, 360}},
		{"what-if-late", "/sessions/1/what-if?if=late", []int64{1280, 360}},
		{"one-second", "/sessions/1/moment?at=-900", []int64{1280, 360}},
		{"ground-plan", "/ground-plan/1", []int64{1280, 360}},
		{"run-in-places", "/sessions/1?lanes=place", []int64{1280, 768}},
		{"run-in-ground", "/sessions/1?lanes=ground", []int64{1280, 768}},
		{"run-in-people", "/sessions/1?lanes=&follow=p8", []int64{1280}},
		{"drills", "/drills?q=hip&drill=lunge-reach", []int64{1280, 768, 360}},
		{"drills-found", "/drills?q=hip", []int64{1280, 360}},
		{"drill-edit", "/drills/kicks-at-posts/edit", []int64{1280, 360}},
		{"figures", "/drills/handout?phase=activate&poster=yes", []int64{1280, 360}},
		{"drill-drawn", "/drills/air-squat/figure", []int64{1280, 360}},
		{"drill-drawn-opened", "/drills/ladder-feet/figure", []int64{360}},
		{"squad", "/squad?player=" + playerNamed(t, "Keziah"), []int64{1280, 360}},
		{"squad-unit", "/squad?unit=new", []int64{1280, 360}},
		{"ground", "/ground?edit=zone&id=new&of=1", []int64{1280, 360}},
		{"routines", "/routines?slot=raise.0", []int64{1280, 360}},
		{"sport", "/sport", []int64{1280, 360}},
		{"import", "/import", []int64{1280, 360}},
		{"sheet", "/sessions/1/sheet", []int64{1280, 360}},
		{"members", "/staff", []int64{1280, 360}},
		{"account", "/me", []int64{1280, 360}},
		{"log", "/audit", []int64{1280, 360}},
		{"links", "/sessions/1/links", []int64{1280, 360}},
		{"publish", "/sessions/1/publish", []int64{1280, 360}},
		{"codes", "/sessions/1/codes", []int64{1280, 360}},
		{"sheet-by-leader", "/sessions/1/sheet?by=leader&cues=yes", []int64{1280, 360}},
		{"cards", "/sessions/1/cards", []int64{1280, 360}},
		{"drill-list", "/sessions/1/handout", []int64{1280, 360}},
		{"routine-steps", fmt.Sprintf("/routines/%d/steps#steps", things[club.Routine](t)[0].ID), []int64{390}},
		{"wall", "/r/" + token + "/wall", []int64{1280, 360}},
		{"leader-opened", own["l-pell"], []int64{390, 360}},
		{"step-opened", own["p15"] + "#steps", []int64{390, 360}},
		{"again", "/again", []int64{1280, 360}},
		{"forgot", "/forgot", []int64{360}},
		{"who-are-you", "/r/" + token, []int64{390, 360}},
		{"my-run-in", "/r/" + token + "/p15", []int64{390, 360}},
		{"not-there", "/sessions/99", []int64{1280, 360}},
		{"pitch", "/pitch/1?try=1500", []int64{1280, 390, 360}},
		{"pitch-early", "/pitch/1", []int64{360}},
		{"session-log", "/sessions/4/log", []int64{1280, 360}},
		{"session-log-opened", "/sessions/4/log", []int64{360}},
		{"tests", "/sessions/4/tests", []int64{1280, 360}},
		{"logbook", "/log", []int64{1280, 360}},
		{"week", "/week", []int64{1280, 360}},
		{"report", "/sessions/4/report", []int64{1280, 360}},
	})
}

// Names of 77 characters without a space stick out nowhere.
func TestEveryViewHoldsLongNames(t *testing.T) {
	base, p := site(t, true)
	require.NoError(t, p.Diary.SaveRoutine(context.Background(), store.Account{ID: 1, ClubID: 1, Role: store.Coach}, 1,
		diary.Keep{Name: "Match day", For: "home matches"}))
	long := strings.Repeat("Unbreakable", 7)
	_, err := p.Boards.Change(context.Background(), store.Account{ID: 1, ClubID: 1, Role: store.Coach}, 2, 1,
		func(d *plan.Document) (string, error) {
			d.Title, d.Blocks[0].Name, d.Players[0].First, d.Zones[0].Name, d.Fixed[0].Name = long, long, long, long,
				long
			return "long names", nil
		})
	require.NoError(t, err)
	coach := store.Account{ID: 1, ClubID: 1, Role: store.Coach}
	ours, _ := book.Find("skips")
	ours.Code, ours.Name, ours.Aim, ours.Cues, ours.Kit = "long", long, long, []string{long, long}, []string{long}
	_, err = p.Save(context.Background(), coach, long,
		store.Change{Owner: 1, Is: club.Player{First: long, Last: long, Position: long, Number: 999, Notes: long}},
		store.Change{Owner: 1, Is: club.Unit{Name: long, Players: []uint64{21, 22}}},
		store.Change{Is: club.Kit{Name: long, Pieces: 10_000}}, store.Change{Is: club.Staff{Name: long, Role: long}},
		store.Change{Owner: 1, Is: club.Zone{Name: long, Capacity: 999, Lanes: 99, Metres: 500, Surface: long}},
		store.Change{Is: club.Drill{Drill: ours}},
		store.Change{Is: club.Fixture{UID: "long", For: plan.Match, Title: long, Place: long,
			Start: clock.Start{Local: "2026-12-12T15:00", Zone: "Europe/London"}}})
	require.NoError(t, err)
	require.NoError(t, p.Diary.SaveRoutine(context.Background(), coach, 2, diary.Keep{Name: long, For: long}))
	_, err = p.Staff.Invite(context.Background(), coach, long, strings.Repeat("unbreakable", 5)+"@brackwater.example",
		store.Assistant, base)
	require.NoError(t, err)
	longToken, err := storeOf(t).Shares.Publish(context.Background(), 1, 2, 2, anything)
	require.NoError(t, err)
	looksWhole(t, base, []view{
		{"long-run-in-opened", "/sessions/2?block=tag", []int64{360}},
		{"long-run-in", "/sessions/2?block=tag", []int64{1280, 360}},
		{"long-who-does-what", "/sessions/2/people", []int64{1280, 360}},
		{"long-history", "/sessions/2/history", []int64{1280, 360}},
		{"long-today", "/today", []int64{1280, 360}},
		{"long-squad", "/squad?player=" + playerNamed(t, long), []int64{1280, 360}},
		{"long-ground", "/ground?edit=staff&id=new", []int64{1280, 360}},
		{"long-drills", "/drills?q=unbreakable&drill=long", []int64{1280, 360}},
		{"long-routines", "/routines?routine=" + fmt.Sprint(things[club.Routine](t)[1].ID), []int64{1280, 360}},
		{"long-new-opened", "/sessions/new", []int64{1280, 360}},
		{"long-links", "/sessions/2/links", []int64{1280, 360}},
		{"long-members", "/staff", []int64{1280, 360}},
		{"long-sheet", "/sessions/2/sheet", []int64{360}},
		{"long-my-run-in", "/r/" + longToken + "/p1", []int64{360}},
		{"long-step", "/r/" + longToken + "/p1#steps", []int64{360}},
		{"long-wall", "/r/" + longToken + "/wall", []int64{1280}},
		{"long-publish", "/sessions/2/publish", []int64{360}},
		{"long-pitch", "/pitch/2?try=900", []int64{360}},
		{"long-log", "/sessions/2/log", []int64{360}},
		{"long-report", "/sessions/2/report", []int64{360}},
		{"long-cards", "/sessions/2/cards", []int64{1280, 360}},
		{"long-who-are-you", "/r/" + longToken, []int64{360}},
	})
}

type view struct {
	name, path string
	widths     []int64
}

// looksWhole opens views in two tabs side by side.
func looksWhole(t *testing.T, base string, views []view) {
	axe, err := os.ReadFile("testdata/axe.min.js")
	require.NoError(t, err)
	half := len(views) / 2
	for tab, some := range [][]view{views[:half], views[half:]} {
		t.Run(fmt.Sprint("tab ", tab+1), func(t *testing.T) {
			t.Parallel()
			b := newBrowser(t, base)
			b.open("/sign-in")
			if tab == 0 {
				b.shot("sign-in")
			}
			b.signIn()
			for _, view := range some {
				view.looksWhole(t, b, string(axe))
			}
		})
	}
}

// looksWhole looks at a view at each of its widths.
func (v view) looksWhole(t *testing.T, b *browser, axe string) {
	for i, width := range v.widths {
		const phones = 500
		judged := i == 0 || (width < phones) != (v.widths[i-1] < phones) // by axe: a desk and a phone
		t.Run(fmt.Sprintf("%s at %d", v.name, width), func(t *testing.T) {
			b := &browser{t, b.ctx, b.base}
			height := int64(800)
			if width < phones {
				height = 844
			}
			b.size(width, height)
			opened := strings.HasSuffix(v.name, "-opened")
			if i == 0 || opened {
				b.open(v.path)
			}
			b.until(`(() => { // drawn for the room there is; the first time, for a wide one
				const board = document.querySelector("[data-screen]");
				return !board || (board.dataset.screen || "wide") == document.cookie.match(/screen=(\w+)/)?.[1];
			})()`)
			if opened {
				b.run(`document.querySelectorAll("main details").forEach(d => { d.open = true })`)
				b.until(`!document.querySelector("details[open][data-empty]")`)
			}
			b.shot(fmt.Sprintf("%s-%d", v.name, width))
			wide := eval[int](b, `document.documentElement.scrollWidth`)
			if !assert.LessOrEqual(t, wide, int(width), "something sticks out") {
				t.Log(eval[string](b, sticksOut))
			}
			if judged {
				b.run(axe)
				var violations []string
				require.NoError(t, json.Unmarshal([]byte(evalPromise(b, judge)), &violations))
				assert.Empty(t, violations)
			}
		})
	}
}

const sticksOut = `[...document.querySelectorAll("main *")].filter(e =>
	e.getBoundingClientRect().right > innerWidth + 1 && !e.closest("[role=region], svg")).slice(0, 4).map(e =>
	e.outerHTML.slice(0, 200)).join(" | ")`

// judge is what axe finds. What is inside a picture is nothing to it; of things that lie side by side and differ in
// their words alone (a list of sixty drills) two are judged: all others have the same marks, classes and styles.
const judge = `(async () => {
	const out = new Map();
	const shape = e => e.nodeName + [...e.attributes].map(a =>
		/^(class|style|role|type|hidden|open|disabled|tabindex)$/.test(a.name) ? a.name + a.value : a.name).join() +
		"(" + [...e.children].map(shape).join(" ") + ")";
	const leave = e => { out.set(e, document.createComment("")); e.replaceWith(out.get(e)); };
	const runs = /^\/(r|pitch)\/|\/steps$/.test(location.pathname); // by itself, with what lies there
	const all = css => runs ? [] : document.querySelectorAll(css);
	all("svg[aria-hidden] > *, svg[role=img] > :not(title)").forEach(leave);
	for (const parent of all("main, main *:not(select, textarea)")) {
		if (parent.children.length < 4 || !parent.isConnected) continue;
		const seen = new Map();
		for (const child of [...parent.children]) {
			const of = shape(child);
			seen.set(of, (seen.get(of) ?? 0) + 1);
			if (seen.get(of) > 2) leave(child);
		}
	}
	const found = await axe.run({ resultTypes: ["violations"], preload: false });
	[...out].reverse().forEach(([e, mark]) => mark.replaceWith(e));
	return JSON.stringify(found.violations.map(v =>
		v.id + ": " + v.nodes.map(n => n.html.slice(0, 120)).join(" | ")));
})()`
