package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/clock"
	"cuestart/core/plan"
	"cuestart/planner/diary"
	"cuestart/planner/office"
)

// begin makes a session through the form, to be written by hand, and returns its id.
func begin(b *browser, more string) (id uint64) {
	b.t.Helper()
	b.open("/sessions/new?kind=match&title=Mine&minutes=75&from=" + diary.FromEmpty)
	b.run(`document.querySelector("[name=from][value=empty]").checked = true;` + more)
	b.run(`document.querySelector("main form").requestSubmit()`)
	b.until(`document.querySelector("#words")`)
	_, err := fmt.Sscanf(eval[string](b, "location.pathname"), "/sessions/%d", &id)
	require.NoError(b.t, err)
	b.open(fmt.Sprintf("/sessions/%d", id))
	b.until(`document.querySelector("#say")`)
	return id
}

// document is the plan of a session as it is now.
func document(t *testing.T, p *office.Office, id uint64) *plan.Document {
	d, err := p.Boards.Document(context.Background(), 1, id)
	require.NoError(t, err)
	return d
}

// listed are the names of the blocks in their order, and how they are held.
func listed(d *plan.Document) (list []string) {
	for i := range d.Blocks {
		list = append(list, strings.TrimSpace(d.Blocks[i].Name+" "+d.HeldWords(&d.Blocks[i])))
	}
	return list
}

// A coach begins empty, writes the list as it is said, moves a block, turns doses and
// moves the start: the order and the holds are theirs throughout.
func TestAListIsWrittenAsItIsSaidAndStaysSo(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	id := begin(b, "")
	b.write(`jog 3 x 120 m, 50 %
leg swings 8 each way a leg (no bounce)
dead bug 4 a side, 3-1-3
neck holds forward / left / right / back, 3 x 6 s each
line-out throws 5 5 3 to front middle back
shoulder taps 2 x 10, rest 20 s, inside backs
out with high knees, back with heel kicks, 18 m
--- Potentiate
team talk 68-55
scrum sets 6 after line-out
kicks at posts at 40, 10 and 15, far half, Pell
squats 5, then 3 sprints 15 m`)
	b.until(`document.querySelector(".heard-panel")?.innerText.includes("12 lines put in")`)
	want := []string{"Jog", "Leg swings", "Dead bug, neck holds", "Line-out throws", "Shoulder taps",
		"Line: high knees", "Potentiate after Line-out throws", "Kicks at posts at 40′", "Squats, sprints"}
	assert.Equal(t, want, listed(document(t, p, id)))
	b.shot("written-1280")

	squats := document(t, p, id).Blocks[8].ID
	b.open(fmt.Sprintf("/sessions/%d?block=%s", id, squats))
	b.click("#sooner") // before the kicks, which two players do
	want[7], want[8] = want[8], want[7]
	b.until(fmt.Sprintf(`document.querySelector("[name=revision]").value == "%d"`, 3))
	assert.Equal(t, want, listed(document(t, p, id)))
	for n, press := range []string{"#more-0", "#more-0", "#more-1"} {
		b.run(fmt.Sprintf(`document.querySelector(%q).click()`, press))
		b.until(fmt.Sprintf(`document.querySelector("[name=revision]").value == "%d"`, 4+n))
	}
	b.run(`document.querySelector("[value='-5']").click()`)
	b.until(`document.querySelector("[name=revision]").value == "7"`)
	d := document(t, p, id)
	assert.Equal(t, want, listed(d))
	assert.Equal(t, []int{7, 4}, d.Blocks[7].Targets())
	board, err := p.Boards.Board(context.Background(), 1, id)
	require.NoError(t, err)
	at := map[string]clock.Offset{}
	for _, x := range board.Blocks {
		assert.True(t, x.Kept, x.Name)
		at[x.Name] = x.Start
	}
	assert.Equal(t, clock.Offset(-2400), at["Kicks at posts"])
	assert.Less(t, at["Jog"], at["Leg swings"])
	assert.Less(t, at["Line-out throws"], at["Potentiate"])
}

// A block is held in a slot, before something fixed and straight after another by saying
// so, and let go by not saying it any more.
func TestABlockIsHeldBySayingSo(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	held := func(block, part, said, want string) {
		t.Helper()
		b.open("/sessions/1?block=" + block)
		before := eval[string](b, `document.querySelector("[name=revision]").value`)
		b.set("#block-"+part, said)
		b.until(fmt.Sprintf(`document.querySelector("[name=revision]").value != %q`, before))
		d := document(t, p, 1)
		assert.Equal(t, want, d.HeldWords(d.Block(block)))
	}
	held("scrum", "said", "scrum, in-goal strip, dorrit, 26 to 18", "26′ to 18′")
	assert.True(t, eval[bool](b, `document.querySelector(".notch") != null`), "what is held is seen")
	held("kicks", "when", "before toss", "before Toss")
	held("hands", "said", "inside backs, far half, straight after high balls", "straight after High balls")
	held("kicks", "when", "when it fits", "")
	board, err := p.Boards.Board(context.Background(), 1, 1)
	require.NoError(t, err)
	for _, x := range board.Blocks {
		if x.ID == "scrum" && x.Kept {
			assert.GreaterOrEqual(t, x.Start, clock.Offset(-26*60))
			assert.LessOrEqual(t, x.End, clock.Offset(-18*60))
		}
	}
}

// A list of sixteen drills with cues is pasted and put in with a few presses; while it is
// read the doubtful lines come first. One player alone is planned without team words.
func TestAPastedListAndAPlanForOne(t *testing.T) {
	base, p := site(t, true)
	b := newBrowser(t, base)
	b.signIn()
	id := begin(b, `document.querySelector("#alone").value = document.querySelector("#alone").options[10].value;`)
	list := []string{"Raise:", "easy bike 4 min", "butt kicks 2 x 20 m (quick feet)",
		"karaoke 15 m each way (hips turn)", "Mobilise:", "toy soldier 6 a leg (tall; toes up)", "quad pull 10 m",
		"good morning 8 (flat back)", "spider reach 4 a side (elbow to instep)", "ankle rocks 8 a side (heel down)",
		"groin rocks 10", "Activate:", "plank 30 s", "dead bug 4 a side, 3-1-3 (ribs down)", "bridges 2 x 10",
		"Potentiate:", "pogo hops 2 x 10 (stiff ankles)", "skaters 5 a side", "strides 30 m at 70, 80, 90 %",
		"2 sprints 15 m", "kicks at posts 2 each, done by 12"}
	b.run(fmt.Sprintf(`(() => { const f = document.querySelector("#say"); f.value = %q; f.dispatchEvent(new Event("input", {bubbles: true})) })()`,
		strings.Join(list, "\n")))
	b.until(`document.querySelector(".heard-panel")?.innerText.includes("butt kicks")`)
	b.click("#put-in")
	b.until(`document.querySelector(".heard-panel")?.innerText.includes("put in")`)
	d := document(t, p, id)
	items := 0
	for _, block := range d.Blocks {
		items += len(block.Items)
	}
	assert.Equal(t, 17, items)
	assert.Len(t, d.Players, 1)
	assert.Empty(t, d.Fixed)
	assert.Equal(t, []string{"tall", "toes up"}, d.Blocks[1].Items[0].Drill.Cues)
	assert.NotContains(t, b.text("main"), "Whole squad")
	book, err := p.Books.Book(context.Background(), 1)
	require.NoError(t, err)
	_, known := book.Find("our-spider-reach")
	assert.False(t, known, "what the book does not have is the plan's alone until that is used")

	b.open(fmt.Sprintf("/sessions/%d?block=%s", id, d.Blocks[1].ID))
	b.run(`document.querySelector("#down-0").click()`)
	b.until(`document.querySelector("#chosen li")?.innerText.includes("Quad pull")`)
	b.run(`document.querySelector("#out-0").click()`)
	b.until(`document.querySelector("#chosen li")?.innerText.includes("Toy soldier")`)
	b.run(`document.querySelector("[name=drill]").click()`)
	b.until(`!document.querySelector("#chosen li").innerText.includes("Toy soldier")`)
	b.size(390, 844)
	b.open(fmt.Sprintf("/sessions/%d", id))
	b.until(`document.querySelector("#say")`)
}
