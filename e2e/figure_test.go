package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/figure"
)

// handle is where the handle of a joint is on the screen.
func (b *browser) handle(joint string) (x, y float64) {
	at := eval[[]float64](b,
		fmt.Sprintf(`(() => { const r = document.querySelector('[data-joint="%s"]').getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`,
			joint))
	return at[0], at[1]
}

// A club draws its own: a joint is dragged by the pointer, moved by the keys, stops where a
// body does, is taken back; a pose and a fault are added; the page, the phone and the paper
// show it after it is saved.
func TestAClubDrawsADrill(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/drills/air-squat/figure")
	b.until(`document.querySelector(".bench [data-joint=hand]")`)
	sent := func() *figure.Figure {
		f := new(figure.Figure)
		require.NoError(t, json.Unmarshal([]byte(eval[string](b, `document.querySelector("[name=figure]").value`)), f))
		return f
	}
	first := sent()
	x, y := b.handle("hand")
	b.mouse("mousePressed", x, y, false)
	for n := 1.0; n <= 6; n++ {
		b.mouse("mouseMoved", x-3*n, y-25*n, false)
	}
	b.until(`JSON.parse(document.querySelector("[name=figure]").value).poses[0].arm[0] > 110`)
	b.mouse("mouseReleased", x-18, y-150, false)
	b.until(`!document.querySelector("[data-back]").disabled`)
	assert.NotEqual(t, first.Poses[0].Arm, sent().Poses[0].Arm)
	assert.Equal(t, "hand", eval[string](b, `document.activeElement.dataset.joint`))

	before := sent().Poses[0].Leg
	b.run(`document.querySelector("[data-joint=knee]").focus()`)
	for range 40 { // far beyond where a knee goes
		b.do(chromedp.KeyEvent(kb.ArrowLeft))
	}
	b.until(`JSON.parse(document.querySelector("[name=figure]").value).poses[0].leg[0] < 0`)
	now := sent()
	require.NoError(t, now.Validate())
	assert.NotEqual(t, before, now.Poses[0].Leg)
	b.open("/drills/air-squat/figure")
	assert.Equal(t, first, sent(), "nothing is kept before it is saved")

	b.click(`button[value="add"]`)
	b.until(`JSON.parse(document.querySelector("[name=figure]").value).poses.length == 3`)
	b.click(`[data-back]`)
	b.until(`JSON.parse(document.querySelector("[name=figure]").value).poses.length == 2`)
	b.click(`[data-again]`)
	b.until(`JSON.parse(document.querySelector("[name=figure]").value).poses.length == 3`)
	b.click(`button[value="fault"]`)
	b.until(`document.querySelector("[name=says]")`)
	b.set("[name=says]", "back rounds")
	b.until(`JSON.parse(document.querySelector("[name=figure]").value).not_so?.length == 3`)
	b.until(`document.querySelector("[name=figure]").value.includes("back rounds")`)
	b.click(`button[value="save"]`)
	b.until(`location.pathname == "/drills"`)
	b.until(`document.querySelector(".fig-fault:nth-of-type(4)")?.innerText.includes("back rounds")`)
	coach, _, err := p.Staff.AccountByEmail(context.Background(), "coach@brackwater.example")
	require.NoError(t, err)
	book, err := p.Books.Book(context.Background(), coach.ClubID)
	require.NoError(t, err)
	assert.Len(t, book.Figure("air-squat").Poses, 3)
	kept, _ := book.Find("air-squat")
	assert.Equal(t, []string{"Heels down", "Sit between the knees"}, kept.Cues, "its words stay")
}

// A drill that nobody drew begins from one like it: five presses from the board.
func TestADrillStartsFromOneLikeIt(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/drills?drill=lineout-opposed")
	b.until(`[...document.querySelectorAll(".panel a")].find(a => a.textContent == "Draw it")?.click() ?? location.pathname.endsWith("/figure")`)
	b.until(`document.querySelector("[name=like]")`)
	b.set("[name=like]", "march-lengths")
	b.click(`button[value="like"]`)
	b.until(`JSON.parse(document.querySelector("[name=figure]").value).moves == "travel"`)
	b.click(`button[value="save"]`)
	b.until(`document.querySelector(".fig-large .fig-moving")`)
	book, err := p.Books.Book(context.Background(), 1)
	require.NoError(t, err)
	assert.Equal(t, book.Figure("march-lengths").Poses, book.Figure("lineout-opposed").Poses)
}

// What moves moves, and its limbs keep their lengths on the way; who wants less motion sees
// it still.
func TestAFigureMoves(t *testing.T) {
	base, _ := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	b.open("/drills?drill=leg-swings")
	b.until(`document.querySelector(".fig-large .fig-moving")`)
	// shank is where the near shank's two ends are on the screen after so many seconds.
	shank := func(seconds float64) []float64 {
		return eval[[]float64](b, fmt.Sprintf(`(() => {
			const svg = document.querySelector(".fig-large svg"), legs = svg.querySelectorAll('.fig-moving path[d="M0 0V24"]');
			svg.pauseAnimations(); svg.setCurrentTime(%g);
			const shank = legs[legs.length - 1], at = (y) => new DOMPoint(0, y).matrixTransform(shank.getCTM());
			return [at(0).x, at(0).y, at(24).x, at(24).y] })()`, seconds))
	}
	long := func(s []float64) float64 { return (s[2]-s[0])*(s[2]-s[0]) + (s[3]-s[1])*(s[3]-s[1]) }
	start := shank(0)
	moved := 0
	for _, at := range []float64{0.23, 0.5, 0.71, 1.05, 1.4} {
		then := shank(at)
		assert.InDelta(t, long(start), long(then), 0.05*long(start)/100, "at %g s", at)
		if then[2] != start[2] {
			moved++
		}
	}
	assert.Equal(t, 5, moved)
	shown := `getComputedStyle(document.querySelector(".fig-large .%s")).display`
	assert.Equal(t, []string{"none", "inline"}, []string{eval[string](b, fmt.Sprintf(shown, "fig-still")),
		eval[string](b, fmt.Sprintf(shown, "fig-moving"))})
	_, err := chromedp.Call(b.ctx, emulation.SetEmulatedMedia,
		emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion",
			Value: "reduce"}}})
	require.NoError(t, err)
	assert.Equal(t, []string{"inline", "none"}, []string{eval[string](b, fmt.Sprintf(shown, "fig-still")),
		eval[string](b, fmt.Sprintf(shown, "fig-moving"))})
}

// A player sees each drill in the list, still, and moving step by step, without a signal
// too, the other side mirrored; who leads sees how it is not done; the papers have them.
func TestFiguresReachEverybody(t *testing.T) {
	base, p := site(t, true)
	_, links, _ := published(t, p)
	phone := newBrowser(t, base)
	phone.size(390, 844)
	phone.open(links["p15"])
	phone.kept()
	figures := eval[int](phone, `document.querySelectorAll("[data-look] svg").length`)
	assert.GreaterOrEqual(t, figures, 10)
	assert.Equal(t, "none", eval[string](phone,
		`getComputedStyle(document.querySelector("[data-look] .fig-moving")).display`), "a list is still")
	signal(t, false)
	defer signal(t, true)
	phone.open(links["p15"])
	phone.until(`document.querySelector("[data-do=follow]")`)
	assert.Equal(t, figures, eval[int](phone, `document.querySelectorAll("[data-look] svg").length`),
		"they are part of the page")
	phone.click(`[data-do=follow]`)
	phone.click(`[data-do=own]`)
	mirrored := map[string]bool{}
	for range 60 {
		step := phone.text("[data-f=drill]")
		if step == "Plank with reach" {
			mirrored[phone.text("[data-f=what]")] = eval[bool](phone,
				`document.querySelector(".follow-look").classList.contains("mirrored")`)
			assert.Equal(t, "inline",
				eval[string](phone, `getComputedStyle(document.querySelector(".follow-look .fig-moving")).display`))
		} else if len(mirrored) > 0 {
			break
		}
		phone.click(`[data-do=done]`)
	}
	assert.Equal(t, map[string]bool{"left": true, "right": false}, mirrored,
		"seen from the side, the right one is the nearer")
	signal(t, true)

	phone.open(links["l-pell"] + "?show=all")
	phone.until(`document.querySelector("[data-items]")`)
	assert.Contains(t, eval[string](phone, `document.querySelector("[data-items]").textContent`), "Not like this: falls away")
	phone.open(links["l-pell"] + "?show=all&lang=es")
	phone.until(`document.documentElement.lang == "es"`)
	assert.Contains(t, eval[string](phone, `document.querySelector("[data-items]").textContent`),
		"Así no: se va hacia atrás")
	phone.open(links["l-pell"] + "?show=simple")
	assert.NotEmpty(t, eval[int](phone, `document.querySelectorAll("[data-items] .fig-row svg").length`),
		"who stands in sees them too")
	desk := newBrowser(t, base)
	desk.signIn()
	desk.open("/sessions/1?block=bands")
	desk.until(`document.querySelectorAll("#chosen .fig-tiny svg").length == 3`)
	for path, least := range map[string]int{"/sessions/1/sheet?cues=yes": 15, "/sessions/1/cards": 100,
		"/sessions/1/handout": 20, "/drills/handout?phase=mobilise&poster=yes": 50, "/drills?phase=raise": 30} {
		desk.open(path)
		assert.GreaterOrEqual(t, eval[int](desk, `document.querySelectorAll("main svg.fig").length`), least, path)
		assert.Zero(t, eval[int](desk,
			`[...document.querySelectorAll("main svg.fig")].filter(f => f.getBoundingClientRect().width < 20).length`),
			path)
	}
}
