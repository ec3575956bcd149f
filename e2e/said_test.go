package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/demo"
	"cuestart/planner/diary"
)

// said are lists as many people typed them, the sport of each and its text.
func said(t *testing.T) (lists []struct{ Sport, Text string }) {
	files, err := filepath.Glob("../core/say/testdata/said/*.json")
	require.NoError(t, err)
	for _, file := range files {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		var of struct {
			Lists []struct{ Sport, Text string }
		}
		require.NoError(t, json.Unmarshal(text, &of))
		lists = append(lists, of.Lists...)
	}
	return lists
}

// readBack are lists whose every dose is read, by their first words: all that they say has to
// come back from phone and sheet.
var readBack = []string{"1. jog round both courts", "Warm-up before doubles", "bici 5 min", "futsal tues",
	"Year 8, sports hall"}

var (
	numbers = regexp.MustCompile(`\d+`)
	marks   = regexp.MustCompile(`^\s*(?:\d{1,2}[.)]|[a-zA-Z]\)|[-*•])\s*`)
)

// Lists are pasted as many people typed them: none is refused, and every line is answered. Of
// five no block is cut, and every number that was written stands with the drills on a phone and
// on the sheet, line after line in the order in which they were written.
func TestListsThatManyPeopleTypedArePastedAsTheyStand(t *testing.T) {
	base, p := site(t, true)
	ctx := context.Background()
	coach, _, err := p.Staff.AccountByEmail(ctx, demo.Email)
	require.NoError(t, err)
	b, phone := newBrowser(t, base), newBrowser(t, base)
	b.signIn()
	phone.size(390, 844)
	back := 0
	for n, l := range said(t) {
		first, _, _ := strings.Cut(l.Text, "\n")
		at := fmt.Sprintf("list %d, %s: %s", n+1, l.Sport, first)
		added, err := p.Diary.Add(ctx, coach, diary.NewSession{Kind: plan.Training, Title: l.Sport,
			Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, From: diary.FromEmpty, Minutes: 120})
		require.NoError(t, err)
		b.open(fmt.Sprintf("/sessions/%d", added.ID))
		b.write(l.Text)
		b.until(`document.querySelector(".heard-panel")`)
		lines := slices.DeleteFunc(strings.Split(l.Text, "\n"), func(line string) bool {
			return strings.TrimSpace(line) == "" || strings.Contains(line, "double lesson") ||
				strings.HasPrefix(line, "Station") || strings.HasSuffix(line, "presentación")
		}) // a title, and what is fixed, have no dose; stations begin at each player's own
		b.open(fmt.Sprintf("/sessions/%d/words", added.ID))
		assert.GreaterOrEqual(t, eval[int](b, `document.querySelectorAll(".word-is").length`), len(lines), at)
		assert.Equal(t, l.Text, eval[string](b,
			`[...document.querySelectorAll(".word-row textarea")].map(e => e.value).join("\n")`), at)
		board, err := p.Boards.Board(ctx, 1, added.ID)
		require.NoError(t, err)
		assert.NotEmpty(t, board.Blocks, at)
		if !slices.ContainsFunc(readBack, func(begins string) bool { return strings.HasPrefix(l.Text, begins) }) {
			continue
		}
		back++
		board, err = p.Reach.Publish(ctx, coach, added.ID, board.Revision)
		require.NoError(t, err, at)
		for _, block := range board.Blocks {
			assert.Empty(t, block.Cut, "%s: %s", at, block.Name)
		}
		links := ownLinks(t, p, board)
		phone.open(links[board.Document.Players[9].ID])
		b.open(fmt.Sprintf("/sessions/%d/sheet?cues=1", added.ID))
		for where, doses := range map[string][]string{
			"phone": eval[[]string](phone, `[...document.querySelectorAll("[data-move]")].map(e => e.textContent)`),
			"sheet": eval[[]string](b, `[...document.querySelectorAll("[data-dose]")].map(e => e.textContent)`),
		} {
			from := 0
			for _, line := range lines {
				from = comesAfter(t, doses, from, numbers.FindAllString(marks.ReplaceAllString(line, ""), -1),
					fmt.Sprintf("%s, %s: %s", at, where, line))
			}
		}
	}
	assert.Equal(t, len(readBack), back)
}

// comesAfter checks that all numbers of a line stand in some doses that come one after the other,
// not before the one from which they are looked for, and returns the last of these.
func comesAfter(t *testing.T, doses []string, from int, said []string, what string) int {
	if len(said) == 0 {
		return from
	}
	for n := from; n < len(doses); n++ {
		for to := n; to < min(len(doses), n+4); to++ {
			has := numbers.FindAllString(strings.Join(doses[n:to+1], " "), -1)
			if !slices.ContainsFunc(said, func(number string) bool { return !slices.Contains(has, number) }) {
				return to
			}
		}
	}
	assert.Fail(t, "not as it was written", what)
	return from
}
