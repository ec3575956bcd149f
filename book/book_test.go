package book_test

import (
	"bytes"
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/club"
	"cuestart/core/drill"
	"cuestart/docs/formats"
)

func TestEveryDrillIsCompleteAndItsLinksResolve(t *testing.T) {
	text, err := json.Marshal(book.Drills())
	require.NoError(t, err)
	require.NoError(t, formats.Read(strings.NewReader(string(text)), formats.Drills, new([]drill.Drill)))
	codes, names := map[string]bool{}, map[string]bool{}
	for _, d := range book.Drills() {
		assert.False(t, codes[d.Code] || names[d.Name], "%s is there twice", d.Code)
		codes[d.Code], names[d.Name] = true, true
	}
	for _, d := range book.Drills() {
		assert.True(t, d.Easier != "" || d.Harder != "", "%s has neither an easier nor a harder form", d.Code)
		for _, link := range []string{d.Easier, d.Harder, d.Swap} {
			assert.True(t, link == "" || codes[link] && link != d.Code, "%s names %q", d.Code, link)
		}
		if easier, ok := book.Find(d.Easier); ok {
			assert.LessOrEqual(t, easier.Effort, d.Effort, "%s is easier than %s", easier.Code, d.Code)
			assert.LessOrEqual(t, easier.ContactsPerUnit*float64(easier.Dose.WithAmount(1).Units()),
				max(1, d.ContactsPerUnit)*float64(d.Dose.WithAmount(d.Range.Target).Units()), d.Code)
		}
		assert.True(t, len(d.Regions) > 0 && len(d.Planes) > 0 || slices.Contains(d.Qualities, "calm"), d.Code)
		for _, key := range d.Sports {
			_, ok := book.Sport(key)
			assert.True(t, ok, "%s: %s", d.Code, key)
		}
		full := d.Effort >= drill.SprintEffort || d.EndRange && d.Effort >= 0.45
		assert.True(t, !full || d.NeedsWarm, "%s is done cold", d.Code)
		seen := map[string]bool{}
		for at := d; at.Easier != ""; {
			require.False(t, seen[at.Code], "the easier forms of %s run in a circle", d.Code)
			seen[at.Code] = true
			at, _ = book.Find(at.Easier)
		}
	}
}

func TestTheBookIsSpread(t *testing.T) {
	count := func(fits func(drill.Drill) bool) (n int) {
		for _, d := range book.Drills() {
			if fits(d) {
				n++
			}
		}
		return n
	}
	serves := func(phase drill.Phase) func(drill.Drill) bool {
		return func(d drill.Drill) bool { return d.Serves(phase) }
	}
	trains := func(qualities ...string) func(drill.Drill) bool {
		return func(d drill.Drill) bool {
			return slices.ContainsFunc(qualities, func(q string) bool { return slices.Contains(d.Qualities, q) })
		}
	}
	assert.GreaterOrEqual(t, len(book.Drills()), 160)
	assert.GreaterOrEqual(t, count(serves(drill.Raise)), 30)
	assert.GreaterOrEqual(t, count(serves(drill.Activate)), 25)
	assert.GreaterOrEqual(t, count(func(d drill.Drill) bool {
		return d.Serves(drill.Activate) && strings.Contains(strings.Join(d.Kit, " "), "band")
	}), 7)
	assert.GreaterOrEqual(t, count(serves(drill.Mobilise)), 35)
	assert.GreaterOrEqual(t, count(trains("jump", "landing", "sprint", "acceleration", "change", "reaction")), 30)
	assert.GreaterOrEqual(t, count(trains("tissue", "hold")), 15)
	assert.GreaterOrEqual(t, count(serves(drill.Sport)), 40)
	for _, plane := range drill.Planes {
		for _, joint := range []string{"hip", "back", "shoulder"} {
			assert.Positive(t, count(func(d drill.Drill) bool {
				return d.Serves(drill.Mobilise) && slices.Contains(d.Planes, plane) && slices.Contains(d.Regions, joint)
			}), "%s, %s", joint, plane)
		}
	}
}

func TestFiguresTouchWhatTheySayAndMayStandInAFile(t *testing.T) {
	drawn, faults := 0, 0
	for _, d := range book.Drills() {
		f := book.Figure(d.Code)
		if f == nil {
			continue
		}
		drawn, faults = drawn+1, faults+len(f.NotSo)
		for i, p := range f.Poses {
			assert.Empty(t, f.Loose(p), "%s, pose %d", d.Code, i+1)
		}
		text, err := json.Marshal([]club.Drill{{Drill: d, Figure: f}})
		require.NoError(t, err)
		assert.NoError(t, formats.Read(bytes.NewReader(text), formats.Drills, new([]club.Drill)), d.Code)
	}
	assert.GreaterOrEqual(t, drawn, 280)
	assert.GreaterOrEqual(t, faults, 70)
}

func TestEverySportHolds(t *testing.T) {
	known := func(code string) bool { _, ok := book.Find(code); return ok }
	assert.GreaterOrEqual(t, len(book.Sports()), 14)
	for _, s := range book.Sports() {
		assert.NoError(t, s.Validate(known))
		assert.NotEmpty(t, s.Craft, s.Key)
		for _, c := range append(slices.Clone(s.Craft), s.Team) {
			for _, code := range c.Drills {
				d, _ := book.Find(code)
				assert.True(t, d.Serves(c.In()), "%s: %s does not serve %q", s.Key, code, c.In())
				assert.True(t, len(d.Sports) == 0 || slices.Contains(d.Sports, s.Key), "%s: %s is not of it", s.Key,
					code)
			}
		}
	}
}

func TestABookWithAMistakeIsRefused(t *testing.T) {
	for _, bad := range []string{"- x: [", "- {code: a, name: A, aim: b, jumps: 3}",
		"- {code: a, name: A, aim: b, dose: {kind: time}, range: {min: 0, target: 1, max: 1, step: 1}}",
		"- {code: a, name: A, aim: b, dose: {kind: time}, range: {min: 1, target: 1, max: 1, step: 1}, figure: " +
			"{poses: [{leg: [0, 200]}]}}",
		"- {code: a, name: A, aim: b, regions: [elbow, nose], dose: {kind: time}, range: {min: 1, target: 1, " +
			"max: 1, step: 1}}"} {
		_, err := book.Read([]byte(bad))
		assert.Error(t, err, bad)
	}
}
