package web_test

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
)

// What cannot be of the plan of a ground, of a second and of what might come is a sentence or
// nothing there; who may not change the plan changes nothing; what is another club's is not
// there.
func TestTheBoardIsAskedForWhatCannotBe(t *testing.T) {
	base, p := site(t, "hand")
	coach, physio, other := visit(t, base, demo.Email), visit(t, base, demo.MedicalEmail), visit(t, base, stranger)
	g, err := p.Keep.Ground(ctx, 1)
	require.NoError(t, err)
	at := "/ground-plan/" + itoa(uint32(g.Venues[0].ID))
	zone := itoa(uint32(g.Venues[0].Zones[0].ID))
	lay := func(name, value string) url.Values {
		sent := url.Values{"x-" + zone: {"10"}, "y-" + zone: {"10"}, "long-" + zone: {"20"}, "wide-" + zone: {"10"},
			"turn-" + zone: {"0"}}
		sent.Set(name+"-"+zone, value)
		return sent
	}
	for _, wrong := range []struct{ name, value, says string }{{"long", "900", "between 1 and 500 m"},
		{"wide", "0", "between 1 and 500 m"}, {"x", "far", `"far" is no number`}, {"y", "-9000", "within 2000 m"},
		{"wide", "NaN", "between 1 and 500 m"}, {"x", "Inf", "within 2000 m"}} {
		status, text, _ := coach.post(at, lay(wrong.name, wrong.value))
		assert.Equal(t, http.StatusUnprocessableEntity, status, wrong)
		assert.Contains(t, words(text), wrong.says)
		assert.Contains(t, text, `value="`+wrong.value+`"`, "what was written stays")
	}
	status, _, _ := coach.post(at, lay("turn", "-400"))
	require.Equal(t, http.StatusSeeOther, status)
	g, err = p.Keep.Ground(ctx, 1)
	require.NoError(t, err)
	assert.Equal(t, 320, g.Venues[0].Zones[0].Is.Lies.Turn, "a turn is a turn")
	coach.post("/ground/zone", url.Values{"id": {zone}, "of": {itoa(uint32(g.Venues[0].ID))},
		"owner": {itoa(uint32(g.Venues[0].ID))}, "name": {"Near half"}, "capacity": {"44"}, "lanes": {"8"},
		"metres": {"50"}})
	g, err = p.Keep.Ground(ctx, 1)
	require.NoError(t, err)
	assert.NotNil(t, g.Venues[0].Zones[0].Is.Lies, "a zone that is changed otherwise lies where it lay")
	for v, want := range map[*visitor]int{physio: http.StatusForbidden, other: http.StatusNotFound} {
		status, _, _ := v.post(at, lay("x", "20"))
		assert.Equal(t, want, status)
	}

	for _, path := range []string{"/sessions/1/moment", "/sessions/1/moment?at=x", "/sessions/1/moment?at=60",
		"/sessions/1/moment?at=-99999999", "/ground-plan/77"} {
		status, _, _ := coach.get(path)
		assert.Equal(t, http.StatusNotFound, status, path)
	}
	for _, path := range []string{"/sessions/1/moment?at=-900", "/sessions/1/what-if", "/sessions/1/better", at} {
		status, _, _ := physio.get(path)
		assert.Equal(t, http.StatusOK, status, path)
		status, _, _ = other.get(path)
		assert.Equal(t, http.StatusNotFound, status, path)
	}
	shown := words(page(t, coach, "/sessions/1/moment?at=-900"))
	assert.Contains(t, shown, "15′ to go, 14:45:00")
	assert.Contains(t, shown, "10 Juno Hands, until 13′10″ · Far half, Ines then Team run, Near half")

	for query, says := range map[string]string{
		"if=start&by=-10":                 "What is otherwise",
		"if=start&by=-9999":               "arrive too late",
		"if=late":                         "say who comes late",
		"if=late&who=gone":                "not in the plan",
		"if=place&id=gone":                "not of this plan",
		"if=leader&id=gone":               "pick who is not there",
		"if=minutes&by=3":                 "leaves nothing",
		"if=" + strings.Repeat("x", 3000): "pick what might come otherwise",
		"":                                "Pick above what might come otherwise",
	} {
		assert.Contains(t, words(page(t, coach, "/sessions/1/what-if?"+query)), says, query[:min(40, len(query))])
	}
	before := words(page(t, coach, "/sessions/1/history"))
	for _, refused := range []url.Values{{"if": {"leader"}, "id": {"gone"}}, {"if": {"minutes"}, "by": {"2"}}, {}} {
		refused.Set("revision", "1")
		status, text, _ := coach.post("/sessions/1/what-if", refused)
		assert.Equal(t, http.StatusUnprocessableEntity, status, refused.Encode())
		assert.Contains(t, text, `role="alert"`)
	}
	status, _, _ = physio.post("/sessions/1/what-if", url.Values{"if": {"minutes"}, "by": {"30"}, "revision": {"1"}})
	assert.Equal(t, http.StatusForbidden, status)
	status, _, _ = coach.post("/sessions/1/better", url.Values{"revision": {"77"}})
	assert.Equal(t, http.StatusConflict, status)
	assert.Equal(t, before, words(page(t, coach, "/sessions/1/history")))

	// However the board is to be looked at, it is one of the ways that there are, and stays so.
	for query, shows := range map[string]string{"?lanes=leader": `aria-label="by leader" aria-current="true"`,
		"?lanes=nonsense&zoom=-4&follow=gone": `aria-label="Lanes to Kick-off`,
		"?lanes=place&zoom=20":                `title="last 20 min" aria-current="true"`} {
		assert.Contains(t, strings.Join(strings.Fields(page(t, coach, "/sessions/1"+query)), " "), shows, query)
	}
	page(t, coach, "/sessions/1?lanes=ground")
	assert.NotContains(t, page(t, coach, "/sessions/1"), `class="chart"`, "it stays as it was looked at last")
	page(t, coach, "/sessions/1?lanes=&zoom=0&follow=p8")
	assert.Regexp(t, `data-lane="p15"[^>]*class="faint"`, strings.Join(strings.Fields(page(t, coach, "/sessions/1")),
		" "))

	// Any drill may stand anywhere, with a word to it.
	coach.part("/sessions/1/write", "board", url.Values{"revision": {"1"}, "text": {"sprints 3 x 15 m, 95 %"},
		"before": {"raise"}})
	assert.Contains(t, words(page(t, coach, "/sessions/1?block=b13")), "needs warm: 0.0 °C by then")
}
