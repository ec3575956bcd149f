package words

import (
	"encoding/json"
	"net/http"
	"slices"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/movement"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/say"
	"cuestart/planner/wording"
	"cuestart/share"
	"cuestart/web/heard"
	"cuestart/web/shell"
)

// wordsBody is a plan as lines in its coach's words, and what each will be.
type wordsBody struct {
	ID       uint64
	Title    string
	Starts   string // Saturday 5 December, first point 15:00
	Revision uint32
	Empty    bool   // nothing is planned yet
	List     bool   // it is a list of no session
	Name     string // of such a list
	Prompt   string // of a first line
	Rows     []wordRow
	Sum      wordSum
	Problems plan.Problems
}

// To is the address of something under the session.
func (b *wordsBody) To(under ...string) string {
	if b.List {
		return "/" + strings.Join(append([]string{"routines"}, under...), "/")
	}
	return shell.Session(b.ID, under...)
}

// Blank is a row without anything.
func (b *wordsBody) Blank() wordRow { return wordRow{} }

// wordRow is a line with what it will be.
type wordRow struct {
	N    int
	Text string
	Anew bool // changed by hand since it was written
	Ink  string
	Are  []wordIs // a sentence each
}

// wordIs is what a sentence of a line will be.
type wordIs struct {
	heard.Line
	Heads  bool // it is the heading of what follows
	Remark bool
	Chips  []wordChip // of the block that it begins: who, where, by whom, when
	Cues   string
	Asks   []ask
	Starts string // the start that it says, where the session has another
}

// wordChip is what is known of a block, and what else it may be: each is an answer to press.
type wordChip struct {
	Is   string
	Asks []ask
}

// everyone is how lines say that all do something.
const everyone = "everyone"

// mostChoices are as many answers as a chip offers.
const mostChoices = 12

// ask is an answer to what is not sure, and the line that it makes.
type ask struct{ Answer, Line string }

// wordSum is how much there is against the minutes there are.
type wordSum struct {
	Said string // 4 blocks, 12 drills: 18:05 of your 32 minutes
	Over bool   // more than there are
	Asks string // one question · one drill is new
}

// ShowWords is the page of a plan's words.
func (in Room) ShowWords(r *shell.Request) (shell.Answer, error) {
	w, err := in.Wording.Words(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	return in.wordsPage(r, w, nil)
}

func (in Room) wordsPage(r *shell.Request, w *wording.InWords, problems plan.Problems) (*shell.Page, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	body := wordsOf(w)
	if len(body.Rows) == 0 {
		body.Rows = []wordRow{{}}
	}
	body.ID, body.Title, body.Revision, body.Problems = b.ID, b.Document.Title, b.Revision, problems
	body.Empty, body.Prompt = len(b.Document.Blocks) == 0, strings.Join(b.Plays().Example, ", ")
	body.Starts = b.Schedule.Start.Format("Monday 2 January") + ", " + b.Document.StartName + " " +
		b.Schedule.Start.Format("15:04")
	return &shell.Page{Screens: screens, Name: "words", Title: body.Title + ", your words", Nav: "runin", Body: body},
		nil
}

// wordsOf sets lines beside what they are.
func wordsOf(w *wording.InWords) *wordsBody {
	b := &wordsBody{}
	begun, questions, own := map[string]bool{}, 0, map[string]bool{}
	for n, text := range w.Lines {
		row := wordRow{N: n, Text: text, Anew: w.Anew[n]}
		for i := range w.Became {
			written := &w.Became[i]
			if written.At != n || written.Line.Is == say.IsBlank {
				continue
			}
			is := wordOf(w, i, begun)
			if len(is.Asks) > 0 {
				questions++
			}
			for _, k := range is.Yours {
				own[k.Block+is.Became] = true
			}
			row.Are = append(row.Are, is)
		}
		spans, _ := json.Marshal(w.Spans[n]) // numbers and short words
		row.Ink = string(spans)
		b.Rows = append(b.Rows, row)
	}
	b.Sum = sumOf(w.Document)
	var open []string
	if questions > 0 {
		open = append(open, drill.Number(questions, "questions"))
	}
	if len(own) > 0 {
		open = append(open, drill.Number(len(own), "drills")+" new to the book")
	}
	b.Sum.Asks = strings.Join(open, " · ")
	return b
}

// wordOf is what sentence i of the words will be.
func wordOf(w *wording.InWords, i int, begun map[string]bool) wordIs {
	written, d := &w.Became[i], w.Document
	l := &written.Line
	is := wordIs{Line: heard.Of(d, &written.Became), Cues: strings.Join(l.Told(), "; ")}
	if l.Dose != nil && l.Dose.To != "" {
		is.Became += " to the " + strings.TrimPrefix(l.Dose.To, "the ")
	}
	// they are answers here
	is.Doubts = slices.DeleteFunc(is.Doubts, func(s string) bool { return strings.HasPrefix(s, "Or did you mean") })
	if is.Beside != "" && l.Is == say.IsFixed {
		is.Chips = []wordChip{{Is: is.Beside}}
	}
	block, moves := written.Block, movement.Lead(l.Name) != ""
	switch l.Is {
	case say.IsNote:
		is.Became, is.Remark, is.Doubts = "kept as your remark", true, nil
		is.Asks = []ask{{"it is a drill", "drill: " + say.AsTyped(l.Said)}}
	case say.IsBlock, say.IsPhase:
		block = is.heading(w, i, moves)
	case say.IsDrill:
		if l.Dose == nil && l.Code == "" && !moves && len(l.Likely) == 0 && i+1 < len(w.Became) {
			is.Asks = []ask{{"it heads what follows", strings.TrimRight(w.Lines[written.At], " :.") + ":"}}
		}
	}
	is.starting(w, written)
	if b := d.Block(block); b != nil && !begun[block] && (written.Block != "" || is.Heads) {
		begun[block] = true
		is.Chips = chipsOf(w, written, b, is.Heads)
		if is.Heads || l.Is == say.IsBlock {
			is.Lasts = clock.Lasting(b.Seconds(b.Targets(), d.Group(b)))
		}
	}
	if written.Block != "" {
		is.Asks = append(is.Asks, otherwise(w.Lines[written.At], l)...)
	}
	return is
}

// heading makes sentence i of the words the heading of what follows it, or a block with what is
// done in it, and gives the block.
func (is *wordIs) heading(w *wording.InWords, i int, moves bool) (block string) {
	written := &w.Became[i]
	l := &written.Line
	if len(written.Items) > 0 { // "six stations: rope, ladder"
		is.Became = shell.Joined(": ", l.Name, is.Became)
		return written.Block
	}
	is.Heads, is.Became = true, l.Name
	for _, next := range w.Became[i:] { // what stands under it
		if block == "" {
			block = next.Block
		}
	}
	if is.Became == "" && is.Phase != nil {
		is.Became = is.Phase.Name()
	}
	if is.Phase, is.Lasts = nil, ""; moves && l.Is == say.IsBlock && len(l.Who) == 0 &&
		!strings.Contains(w.Lines[written.At], ":") {
		is.Asks = []ask{{"it is a drill", "drill: " + say.AsTyped(w.Lines[written.At])}}
	}
	return block
}

// starting is what a sentence says of the day: of its start where the session has another.
func (is *wordIs) starting(w *wording.InWords, written *pen.Written) {
	if is.Starts = say.OtherStart(w.Document, written.Line.Said); is.Starts == "" && w.Starts != "" &&
		say.SaysStart(written.Line.Said) {
		is.Became = "the session starts at " + w.Starts + ", once this is planned"
	}
	if written.Noted != "" {
		is.Doubts = append(is.Doubts, written.Noted)
	}
}

// otherwise are the other ways in which a line may be meant.
func otherwise(text string, l *say.Line) []ask {
	asks := likely(text, l)
	for _, near := range say.NearOf(l, text) {
		asks = append(asks, ask{near.Answer, near.Line})
	}
	return asks
}

// likely are the drills of the book that those of a line may be, and that they are the coach's own.
func likely(text string, l *say.Line) (asks []ask) {
	list := l.Drills
	if l.Is == say.IsDrill {
		list = []say.Line{*l}
	}
	for _, k := range list {
		if k.Code != "" || len(k.Likely) == 0 {
			continue
		}
		for _, name := range k.Likely {
			asks = append(asks, ask{name, replaced(text, k.Name, name)})
		}
		asks = append(asks, ask{"no, it is ours", replaced(text, k.Name, `"`+k.Name+`"`)})
	}
	return asks
}

// replaced is a text with a name in it put otherwise, in whatever letters it stands there.
func replaced(text, name, by string) string {
	if at := strings.Index(strings.ToLower(text), strings.ToLower(name)); at >= 0 && at+len(name) <= len(text) {
		return text[:at] + by + text[at+len(name):]
	}
	return by
}

// chipsOf say who does a block, where, by whom it is led and when it is held: all of it of a heading,
// else what the line says itself.
func chipsOf(w *wording.InWords, written *pen.Written, b *plan.Block, all bool) (list []wordChip) {
	d, l, p := w.Document, &written.Line, phrase{w.Lines[written.At], w.Spans[written.At]}
	put := func(said bool, is, gave, joint string, others []string) {
		if is == "" || !all && !said {
			return
		}
		chip := wordChip{Is: is}
		for _, other := range others[:min(len(others), mostChoices)] {
			if other != is && other != "" && !(other == everyone && is == d.Audience([]string{plan.Everyone})) {
				chip.Asks = append(chip.Asks, ask{other, p.with(gave, is, joint+other)})
			}
		}
		list = append(list, chip)
	}
	if of := d.ListOf(b.ID); of != nil && !all {
		list = append(list, wordChip{Is: of.Name})
	}
	var who, where, leaders []string
	for _, u := range d.Units {
		who = append(who, u.Name)
	}
	for _, z := range d.Zones {
		where = append(where, z.Name)
	}
	for _, leader := range d.Leaders {
		leaders = append(leaders, leader.Name)
	}
	put(len(l.Who) > 0 || len(l.Not) > 0, d.Audience(b.Who), "who", "", append(who, everyone))
	put(l.Where != "", d.ZoneName(b.Zone), "where", "", where)
	put(l.Leader != "", d.LeaderName(b.Leader), "leader", "with ", leaders)
	if held := d.HeldWords(b); held != "" && (all || l.At != nil || l.Window != nil ||
		l.Before+l.After+l.StraightAfter != "") {
		chip := wordChip{Is: held}
		if freed := p.with("when", held, ""); freed != p.text {
			chip.Asks = []ask{{"any time", freed}}
		}
		list = append(list, chip)
	}
	return list
}

// phrase is a line with the pieces that gave something.
type phrase struct {
	text  string
	spans []wording.Span
}

// with is a line in which what gave something, or what it is called, is put otherwise; where nothing
// did, it is added.
func (p phrase) with(gave, is, by string) string {
	put := func(from, to int) string {
		return strings.Trim(strings.ReplaceAll(p.text[:from]+by+p.text[to:], " ,", ","), " ,")
	}
	for _, s := range p.spans {
		if s.Gave == gave && s.To <= len(p.text) {
			return put(s.From, s.To)
		}
	}
	if at := strings.Index(p.text, is); at >= 0 && is != "" {
		return put(at, at+len(is))
	}
	if by == "" {
		return p.text
	}
	head, colon := strings.CutSuffix(strings.TrimRight(p.text, " "), ":")
	if head += ", " + by; colon {
		head += ":"
	}
	return head
}

// sumOf is what a plan asks of whoever does most, against the minutes that there are.
func sumOf(d *plan.Document) (sum wordSum) {
	drills, most, each := 0, 0, map[string]int{}
	for i := range d.Blocks {
		b := &d.Blocks[i]
		drills += len(b.Items)
		seconds := b.Seconds(b.Targets(), d.Group(b))
		for _, id := range d.Members(b.Who) {
			each[id] += seconds
			most = max(most, each[id])
		}
	}
	sum.Said = drill.Number(len(d.Blocks), "blocks") + ", " + drill.Number(drills, "drills") + ": " +
		clock.Lasting(most)
	start, err := d.Start.Resolve()
	if err != nil {
		return sum
	}
	if open, err := d.Open.Offset(start); err == nil {
		have := -int(open) - d.Margin
		if sum.Over = most > have; sum.Over { // the fit shortens what may be
			sum.Said += " in full,"
		}
		sum.Said += " of your " + clock.Lasting(have)
	}
	return sum
}

// DropWords reads a file that was dropped on the words: the lines it holds.
func DropWords(r *shell.Request) (shell.Answer, error) {
	file, err := r.File("file")
	if err != nil {
		return shell.Sentence{Status: http.StatusUnprocessableEntity,
			Line: "That file did not come through: drop it once more"}, nil
	}
	lines, err := share.Lines(file.Filename, file.Size, file.Open)
	if err != nil {
		return shell.Sentence{Status: http.StatusUnprocessableEntity, Line: err.Error()}, nil
	}
	return shell.Sentence{Status: http.StatusOK, Line: strings.Join(lines, "\n")}, nil
}

// NewList is the page on which a list of no session is written.
func (in Room) NewList(r *shell.Request) (shell.Answer, error) { return in.listPage(r, "", "", nil) }

func (in Room) listPage(r *shell.Request, name, text string, problems plan.Problems) (*shell.Page, error) {
	plays, err := in.Books.Sport(r.Context(), r.Club())
	if err != nil {
		return nil, err
	}
	b := &wordsBody{List: true, Name: name, Empty: true, Title: "New list",
		Starts: "kept as a routine: for any day, or handed out", Prompt: strings.Join(plays.Example, ", "),
		Problems: problems}
	for n, line := range strings.Split(text, "\n") {
		b.Rows = append(b.Rows, wordRow{N: n, Text: line})
	}
	return &shell.Page{Screens: screens, Name: "words", Title: b.Title, Nav: "routines", Body: b}, nil
}

// HearList reads a list of no session as it is typed.
func (in Room) HearList(r *shell.Request) (shell.Answer, error) {
	w, err := in.Wording.HearList(r.Context(), r.Club(), r.Form.Lines("line"))
	return wordsAre(w, err, ofAList)
}

// KeepList keeps such a list.
func (in Room) KeepList(r *shell.Request) (shell.Answer, error) {
	name, text := r.Form.Text("name"), r.Form.Lines("line")
	id, err := in.Wording.WriteList(r.Context(), r.By, name, text)
	return r.Changed(err, shell.Go(shell.Routine(id)), func(wrong plan.Problems) (*shell.Page, error) {
		page, err := in.listPage(r, name, text, wrong)
		if page != nil {
			page.Status = http.StatusUnprocessableEntity
		}
		return page, err
	})
}

// HearWords reads lines as they are edited.
func (in Room) HearWords(r *shell.Request) (shell.Answer, error) {
	w, err := in.Wording.HearWords(r.Context(), r.Club(), r.ParamID("session"), r.Form.Lines("line"),
		r.Form.Raw("starts"))
	return wordsAre(w, err, ofAPlan)
}

// What the words are of.
const ofAList, ofAPlan = true, false

// wordsAre is what lines are, for the page that they are typed on.
func wordsAre(w *wording.InWords, err error, list bool) (shell.Answer, error) {
	b := &wordsBody{Problems: shell.Problems(err)}
	if err != nil && b.Problems == nil {
		return nil, err
	}
	if err == nil {
		if b = wordsOf(w); list { // there is no day whose minutes they would be
			b.Sum.Said, _, _ = strings.Cut(b.Sum.Said, " of your ")
			b.Sum.Over = false
		}
	}
	return &shell.Page{Screens: screens, Name: "words", Part: "words-are", Body: b}, nil
}

// PutWords makes the plan what its words say.
func (in Room) PutWords(r *shell.Request) (shell.Answer, error) {
	id, text := r.ParamID("session"), r.Form.Lines("line")
	_, err := in.Wording.PutWords(r.Insisting(), r.By, id, r.Form.Count("revision"), text, r.Form.Raw("starts"))
	return r.Changed(err, shell.Go(shell.Session(id)), func(wrong plan.Problems) (*shell.Page, error) {
		lines := strings.Split(text, "\n")
		w, err := in.Wording.Words(r.Context(), r.Club(), id)
		if err != nil {
			return nil, err
		}
		page, err := in.wordsPage(r, &wording.InWords{Lines: lines, Anew: make([]bool, len(lines)),
			Spans: make([][]wording.Span, len(lines)), Document: w.Document}, wrong)
		if page != nil {
			page.Status = http.StatusUnprocessableEntity
		}
		return page, err
	})
}
