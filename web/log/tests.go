package log

import (
	"encoding/json"
	"fmt"
	"html/template"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/plan"
	"cuestart/core/trial"
	"cuestart/planner/learn"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// testsBody is a test before and after a session.
type testsBody struct {
	ID       uint64
	Title    string
	Day      string
	Test     trial.Test
	Known    []shell.Choice
	Rows     []testRow
	Squad    string
	Noise    string
	Others   int
	Chart    template.HTML
	Edits    bool
	Problems plan.Problems
}

// testRow is a player with their tries.
type testRow struct {
	learn.Tested
	BeforeT, AfterT string // as they are typed
	Words           string
	Problem         string
}

// To is the address of something under the session.
func (b *testsBody) To(under ...string) string { return shell.Session(b.ID, under...) }

// ShowTests is the test card of a session.
func (in Room) ShowTests(r *shell.Request) (shell.Answer, error) {
	t, err := in.Learn.Tests(r.Context(), r.Club(), r.ParamID("session"), trial.Test{Name: r.Query("test")})
	if err != nil {
		return nil, err
	}
	return testsPage(r, t, nil), nil
}

func testsPage(r *shell.Request, t *learn.Tests, wrong plan.Problems) *shell.Page {
	b := &testsBody{ID: r.ParamID("session"), Title: t.Title, Day: t.Day, Test: t.Test, Others: t.Others,
		Edits: r.Coach(), Problems: wrong}
	for _, k := range t.Known {
		b.Known = append(b.Known, shell.Choice{Value: k.Name, Label: k.Name})
	}
	if !slices.ContainsFunc(t.Known, func(k trial.Test) bool { return k.Name == t.Test.Name }) {
		b.Known = append(b.Known, shell.Choice{Value: t.Test.Name, Label: t.Test.Name})
	}
	var lines []chalk.Pair
	for _, tested := range t.Players {
		row := testRow{Tested: tested, BeforeT: tries(tested.Before), AfterT: tries(tested.After)}
		if tested.Did[0] && tested.Did[1] {
			row.Words = strings.TrimSuffix(t.Test.Words(tested.Change), ", n 1")
			lines = append(lines, chalk.Pair{Name: tested.Name, From: tested.Was, To: tested.Is,
				Real: tested.Change.Real()})
		}
		for _, part := range []string{"before", "after"} {
			row.Problem += wrong.At(fmt.Sprint(part, "-", tested.ID))
		}
		b.Rows = append(b.Rows, row)
	}
	if t.Both {
		b.Squad = t.Test.Words(t.Squad)
	}
	switch {
	case t.Noise > 0:
		b.Noise = fmt.Sprintf("The noise of this test here is %.2g %s, from %d repeats without a warm-up between.",
			t.Noise, t.Test.Unit, t.Repeats)
		if t.Smallest > 0 {
			b.Noise += fmt.Sprintf(" The smallest change that matters is %.2g %s.", t.Smallest, t.Test.Unit)
		}
	default:
		b.Noise = "How noisy this test is here shows with two repeats: the same player before a session on two " +
			"days within four weeks. Until then one player's change is not judged."
	}
	b.Chart = chalk.Pairs(lines, t.Test.Unit)
	return &shell.Page{Screens: screens, Name: "tests", Title: "Tests, " + t.Title, Nav: "log", Body: b}
}

// tries writes tries as they are typed: "31.2 32 31.5".
func tries(list []float64) string {
	words := make([]string, len(list))
	for i, x := range list {
		words[i] = strconv.FormatFloat(x, 'f', -1, 64)
	}
	return strings.Join(words, "  ")
}

// SaveTests keeps the tries of a test.
func (in Room) SaveTests(r *shell.Request) (shell.Answer, error) {
	f, id := r.Form, r.ParamID("session")
	test := trial.Test{Name: f.Text("name"), Unit: f.Text("unit"), Lower: f.Raw("better") == "lower",
		Mean: f.Raw("counts") == "mean"}
	if len([]rune(test.Unit)) > 20 {
		f.Refuse("test", "keep the unit to 20 characters")
	}
	t, err := in.Learn.Tests(r.Context(), r.Club(), id, test)
	if err != nil {
		return nil, err
	}
	before, after := map[uint64][]float64{}, map[uint64][]float64{}
	for i := range t.Players {
		tested := &t.Players[i]
		before[tested.ID], after[tested.ID] = readTries(f, fmt.Sprint("before-", tested.ID)),
			readTries(f, fmt.Sprint("after-", tested.ID))
		tested.Before, tested.After = before[tested.ID], after[tested.ID]
	}
	if err = f.Err(); err == nil {
		err = in.Learn.SaveTests(r.Context(), r.By, id, test, before, after)
	}
	next := shell.Session(id, "tests") + "?test=" + template.URLQueryEscaper(test.Name)
	return r.Saved(err, "The tests are kept", next, func(wrong plan.Problems) (*shell.Page, error) {
		page := testsPage(r, t, wrong)
		rows := page.Body.(*testsBody).Rows
		for i := range rows { // what was written stays
			rows[i].BeforeT, rows[i].AfterT = f.Raw(fmt.Sprint("before-", rows[i].ID)),
				f.Raw(fmt.Sprint("after-", rows[i].ID))
		}
		return page, nil
	})
}

// readTries reads tries as they are typed, with white space or semicolons between.
func readTries(f *shell.Form, name string) (list []float64) {
	for _, word := range strings.FieldsFunc(f.Raw(name), func(r rune) bool {
		return r == ' ' || r == ';' || r == '/' || r == '\t' || r == '\u00a0'
	}) {
		x, err := strconv.ParseFloat(strings.Replace(word, ",", ".", 1), 64)
		if err != nil || x != x {
			f.Refuse(name, "%q is no number; part several tries with a space", word)
			continue
		}
		list = append(list, x)
	}
	if len(list) > 20 {
		f.Refuse(name, "20 tries are the most")
	}
	return list
}

// gateReading is what a device measured, or why there is nothing.
type gateReading struct {
	Value   float64 `json:"value"`
	Problem string  `json:"problem,omitempty"`
}

// ReadGate asks a measuring device for a reading.
func (in Room) ReadGate(r *shell.Request) (shell.Answer, error) {
	reading, err := in.Learn.Read(r.Context(), r.Form.Raw("device"))
	is := gateReading{Value: reading.Value}
	if wrong := shell.Problems(err); wrong != nil {
		is.Problem, err = wrong[0].What, nil
	} else if unit := r.Form.Text("unit"); err == nil && unit != "" && unit != reading.Unit {
		is.Problem = fmt.Sprintf("The device measures in %s, and this test is in %s. Type the result.", reading.Unit,
			unit)
	}
	if err != nil {
		return nil, err
	}
	text, err := json.Marshal(is)
	return shell.Raw{Kind: shell.JSON, Content: text}, err
}
