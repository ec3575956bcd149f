package sheet

import (
	"cmp"
	"fmt"
	"strings"

	"cuestart/core/clock"
	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/core/list"
	"cuestart/core/plan"
	"cuestart/core/speech"
	"cuestart/planner/boards"
	"cuestart/share"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// cautions stand at the foot of every paper.
const cautions = "Warm before deep or maximal. Stop on pain. A knock to the head means out. Medical rulings " +
	"come first; so do heat, lightning and the rules of the ground. Estimates."

// everywhere is a caution that every paper and card says once.
const everywhere = "Stop on pain"

func paper(r *shell.Request, title string) *share.Paper {
	size := share.A4
	if r.Query("paper") == string(share.Letter) {
		size = share.Letter
	}
	speaks := r.Speaks()
	return share.NewPaper(title, share.Language{Code: cmp.Or(speaks.Lang, "en"), Say: speaks.Told}, size, cautions,
		r.Now())
}

// pdf offers a paper to be saved or printed.
func pdf(p *share.Paper, err error) (shell.Answer, error) {
	if err != nil {
		return nil, err
	}
	content, err := p.PDF()
	return shell.Raw{Kind: shell.PDF, Content: content}, err
}

// SheetPDF is the staff's sheet as a file, with the cut-downs on its back.
func (in Room) SheetPDF(r *shell.Request) (shell.Answer, error) {
	b, err := in.asked(r)
	if err != nil {
		return nil, err
	}
	p, say := paper(r, b.Title+", run-in"), saying(r.Speaks().Told)
	p.Heading(1, b.Title, b.StartName+" "+b.Start)
	p.Text(share.Line{Text: fmt.Sprintf("%s. %s. As of %s.", b.Sub,
		shell.Joined(": ", strings.TrimSuffix(b.Verdict.Head, "."), b.Verdict.Line), b.Made)})
	columns := []share.Column{{Head: "To go", Share: 1.1}, {Head: "Clock", Share: 0.9}, {Head: "", Share: 0.5},
		{Head: "What", Share: 2.6}, {Head: "Who", Share: 2.2},
		{Head: "Dose", Share: 5.6}, {Head: "Where, led by", Share: 2}, {Head: "Length", Share: 1.3, Right: true}}
	for _, g := range b.Groups {
		if g.Head != "" {
			p.Heading(2, g.Head, "")
		}
		if b.Full {
			columns[3].Share, columns[4].Share, columns[5].Share, columns[6].Share = 2, 1.8, 7, 1.8
		}
		columns[0].Head = cmp.Or(g.Line, "To go")
		var rows [][]share.Cell
		for _, one := range g.Rows {
			rows = append(rows, one.cells(b.Full, say))
		}
		p.Table(columns, rows)
	}
	for _, f := range b.Facing {
		p.Text(share.Line{Text: say("Today,") + " " + f.Name + ": " + say(f.Says) + "."})
	}
	p.Text(share.Line{Text: say("Carry out:") + " " + say.list(b.Kit) + ".", Bold: true})
	if len(b.Cuts) > 0 {
		p.Page()
		p.Heading(1, "If there is less time", "")
		var rows [][]share.Cell
		for _, c := range b.Cuts {
			rows = append(rows, []share.Cell{{{Text: strings.TrimSuffix(c.Minutes+" to "+c.DownTo, " to "), Big: true}},
				{{Text: c.Says}}, {{Text: c.Work}}})
		}
		p.Table([]share.Column{{Head: "Time on the ground", Share: 2},
			{Head: "What changes from the line above", Share: 7}, {Head: "Work, at most", Share: 1.3, Right: true}},
			rows)
	}
	if len(b.places) > 0 {
		p.Together(120)
		p.Heading(1, "What happens where", "")
		p.Ground(b.places, b.there, 100)
	}
	return pdf(p, nil)
}

// cells are a row of the sheet on paper.
func (one row) cells(full bool, say saying) []share.Cell {
	letter := one.Phase.Letter()
	if one.Fixed {
		letter = ""
	}
	dose := share.Cell{{Text: one.Often, Bold: true}}
	for _, d := range one.Drills {
		dose = append(dose, share.Line{Text: d.Name + ": " + d.Dose, Bold: true, Picture: d.pictured(full), Wide: 11},
			share.Line{Text: d.Here})
		if full {
			dose = append(dose, share.Line{Text: say.as("Say", d.Say)}, share.Line{Text: say.as("Look for", d.Look)})
		}
	}
	dose = append(dose, share.Line{Text: say.all(one.Cautions)})
	if full {
		dose = append(dose, share.Line{Text: one.Note})
	}
	for _, v := range one.Versions {
		dose = append(dose, share.Line{Text: v, Bold: true})
	}
	return []share.Cell{{{Text: one.ToGo, Big: true}}, {{Text: one.Clock}}, {{Text: letter, Big: true}},
		{{Text: one.Name, Bold: true}, {Text: one.Cut}}, {{Text: one.Who}, {Text: one.Numbers}},
		dose, {{Text: one.Where}, {Text: one.Leader}}, {{Text: one.Length}}}
}

// pictured is the figure of a drill on the sheet, where there is room for it.
func (d told) pictured(full bool) *figure.Picture {
	if !full || !d.Drawn.Is() {
		return nil
	}
	return d.Drawn.Picture()
}

// saying says a piece of text in the language of who asks.
type saying func(text string) string

// as is something said of a drill as a sentence, behind a word that says what it is; "" where nothing is.
func (say saying) as(word, what string) string {
	if what == "" {
		return ""
	}
	return shell.Joined(" ", say(word), say(what)) + "."
}

// all are sentences, one after the other.
func (say saying) all(pieces []string) string {
	if len(pieces) == 0 {
		return ""
	}
	return say.joined(pieces, ". ") + "."
}

func (say saying) joined(pieces []string, by string) string {
	said := make([]string, len(pieces))
	for i, piece := range pieces {
		said[i] = say(piece)
	}
	return strings.Join(said, by)
}

// list says each of several things, with commas.
func (say saying) list(things []string) string {
	return say.joined(things, ", ")
}

// each says each of several pieces, in one sentence after the other.
func (say saying) each(pieces []string) string {
	return say.joined(pieces, ". ")
}

// card is a player's list on a small paper.
type card struct {
	Name, Sub string
	Entries   []cardEntry
}

type cardEntry struct {
	ToGo, Clock, Name, Where string
	Phase                    drill.Phase
	Fixed                    bool
	Lines                    []cardLine
}

type cardLine struct {
	Text, Caution string
	Drawn         chalk.Drawn
}

// cardsBody are the cards of all players.
type cardsBody struct {
	ID    uint64
	Title string
	Cards []card
}

// To is the address of something under the session.
func (b cardsBody) To(under string) string { return shell.Session(b.ID, under) }

// cardsOf are the players' cards: each their own list, with what stands in by a ruling.
func cardsOf(b *boards.Board) cardsBody {
	made := cardsBody{ID: b.ID, Title: b.Document.Title}
	d := b.Document
	of := list.Each(d, b.Schedule)
	for i := range d.Players {
		p := &d.Players[i]
		one := card{Name: p.Label(), Sub: fmt.Sprintf("%s · %s %s · %s", d.Title, d.StartName,
			b.Schedule.Start.Format("Mon 2 Jan 15:04"), everywhere)}
		entries := of(p.ID)
		for k := range entries {
			one.Entries = append(one.Entries,
				entryOf(b, d, &entries[k], clock.Clock(b.Schedule.Start, entries[k].From)))
		}
		one.Entries = append(one.Entries, laterOn(b, p.ID)...)
		if carry := append(list.Carry(entries), list.Brought(d, p.ID)...); len(carry) > 0 {
			one.Entries = append(one.Entries, cardEntry{Name: "Carry out: " + strings.Join(carry, ", "), Fixed: true})
		}
		made.Cards = append(made.Cards, one)
	}
	return made
}

// laterOn are a player's lists with a line of their own.
func laterOn(b *boards.Board, player string) (entries []cardEntry) {
	lines := b.Lists()
	for i := range lines {
		l := &lines[i]
		mine := list.Of(l.Document, l.Schedule, player)
		if len(mine) == 0 {
			continue
		}
		entry := cardEntry{Name: l.Name + ", " + l.Line, Phase: drill.After}
		for n := range mine {
			entry.Lines = append(entry.Lines, entryOf(b, l.Document, &mine[n], "").Lines...)
		}
		entries = append(entries, entry)
	}
	return entries
}

func entryOf(b *boards.Board, d *plan.Document, e *list.Entry, at string) cardEntry {
	entry := cardEntry{ToGo: e.From.ToGo(), Clock: at, Name: e.Name, Fixed: e.Block == nil}
	if entry.Fixed {
		return entry
	}
	entry.Phase, entry.Where = e.Block.Phase, d.ZoneName(e.Block.Zone)
	if often := e.How(speech.English); often != "" {
		entry.Lines = append(entry.Lines, cardLine{Text: often})
	}
	for _, own := range e.Own {
		entry.Lines = append(entry.Lines, cardLine{Text: own})
	}
	for _, doing := range e.Drills {
		if doing.Other {
			continue
		}
		if doing.Out {
			entry.Lines = append(entry.Lines, cardLine{Text: "leave out " + doing.Drill.Name})
			continue
		}
		line := cardLine{doing.Drill.Name + ": " + doing.Words(speech.English), doing.Drill.Caution,
			chalk.Of(b.Looks(&doing.Drill), &doing.Drill)}
		// the card says it once, for all
		line.Caution = strings.TrimSuffix(strings.TrimSuffix(line.Caution, everywhere), "; stop on pain")
		entry.Lines = append(entry.Lines, line)
	}
	return entry
}

// Cards are a small paper for each player, eight a page.
func (in Room) Cards(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	return &shell.Page{Screens: screens, Name: "cards", Title: b.Document.Title + ", cards", Nav: "runin",
		Body: cardsOf(b)}, nil
}

// CardsPDF are the same as a file.
func (in Room) CardsPDF(r *shell.Request) (shell.Answer, error) {
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return nil, err
	}
	p, say := paper(r, b.Document.Title+", cards"), saying(r.Speaks().Told)
	var cards []share.Card
	for _, one := range cardsOf(b).Cards {
		c := share.Card{Head: one.Name, Sub: one.Sub}
		c.Lines = one.lines(say)
		cards = append(cards, c)
	}
	p.Cards(cards)
	return pdf(p, nil)
}

// lines are a card's list. Events that follow one another share a line.
func (c card) lines(say saying) (lines []share.Line) {
	events := ""
	for _, e := range c.Entries {
		if e.Fixed {
			events = shell.Joined(" · ", events, shell.Joined(" ", e.ToGo, say(e.Name)))
			continue
		}
		lines = append(append(lines, share.Line{Text: events, Bold: true}), e.lines(say)...)
		events = ""
	}
	return append(lines, share.Line{Text: events, Bold: true})
}

// lines are a block on a card: what it holds beneath it, or where that is one thing beside it.
func (e cardEntry) lines(say saying) []share.Line {
	var does []string
	for _, l := range e.Lines {
		does = append(does, strings.TrimSuffix(say(l.Text)+" ("+say(l.Caution)+")", " ()"))
	}
	head := shell.Joined("  ", e.ToGo, e.Clock, shell.Joined(", ", say(e.Name), say(e.Where)))
	if len(does) == 1 {
		return []share.Line{{Text: head + ". " + does[0], Bold: true}}
	}
	return []share.Line{{Text: head, Bold: true}, {Text: strings.Join(does, "; ")}}
}

// handoutBody is a list of drills to hand out: of a session, or of a routine, without
// any day.
type handoutBody struct {
	Title, Back string // Back "": whoever reads it has nothing to go back to
	PDF         string // its address
	Steps       string // address of it step by step; "": none
	Blocks      []handoutBlock
	Nav         string // the part of the site that it belongs to
	Poster      bool   // the figures alone
	Other       string // address of the list as a poster, or of the poster as a list
}

// Letter is the address of the file in the other size.
func (b handoutBody) Letter() string {
	if strings.Contains(b.PDF, "?") {
		return b.PDF + "&paper=Letter"
	}
	return b.PDF + "?paper=Letter"
}

type handoutBlock struct {
	Name, Why, Often string
	Phase            drill.Phase
	Drills           []handoutDrill
}

type handoutDrill struct {
	Name, Dose, Caution string
	Cues, Faults        []string
	Drawn               chalk.Drawn
}

// handoutOf is the list of blocks, with amounts as they are planned.
func handoutOf(title, pdf, back string, entries []list.Entry, looks func(*drill.Drill) *figure.Figure) handoutBody {
	made := handoutBody{Title: title, PDF: pdf, Back: back, Nav: "runin"}
	for i := range entries {
		e := &entries[i]
		if e.Block == nil {
			continue
		}
		block := handoutBlock{Name: e.Name, Why: e.Block.Says(), Often: e.Block.How(speech.English),
			Phase: e.Block.Phase}
		for _, doing := range e.Drills {
			k := &doing.Drill
			block.Drills = append(block.Drills, handoutDrill{Name: k.Name, Dose: doing.Words(speech.English),
				Caution: k.Caution, Cues: k.Cues,
				Faults: k.Faults, Drawn: chalk.Of(looks(k), k)})
		}
		made.Blocks = append(made.Blocks, block)
	}
	return made
}

// mostPrinted is how many drills of the book are printed at once.
const mostPrinted = 120

// found are the drills of the book that the address asks for, by phase.
func (in Room) found(r *shell.Request) (handoutBody, error) {
	book, err := in.Books.Book(r.Context(), r.Club())
	if err != nil {
		return handoutBody{}, err
	}
	q, _ := shell.DrillQuery(r)
	fit, err := in.Books.Search(r.Context(), r.Club(), q)
	if err != nil {
		return handoutBody{}, err
	}
	var blocks []plan.Block
	for _, phase := range drill.Phases {
		block := plan.Block{ID: phase.Key(), Name: phase.Name(), Phase: phase, Aim: phase.Name()}
		for _, d := range fit[:min(len(fit), mostPrinted)] {
			if of := q.Phase == phase.Key() || q.Phase == "" && d.Phases[0] == phase; of {
				block.Items = append(block.Items, plan.Item{Drill: d})
			}
		}
		if len(block.Items) > 0 {
			blocks = append(blocks, block)
		}
	}
	asked := "?" + r.Asked().Encode()
	b := handoutOf("Drills", "/drills/handout.pdf"+asked, "/drills"+asked, list.Alone(blocks), book.Looks)
	b.Nav = "drills"
	for i := range b.Blocks {
		b.Blocks[i].Why = ""
	}
	return b, nil
}

// handout is what the address asks for.
func (in Room) handout(r *shell.Request) (handoutBody, error) {
	if strings.HasPrefix(r.Path(), "/drills/") {
		return in.found(r)
	}
	if id := r.ParamID("id"); id > 0 {
		routine, err := in.Books.Routine(r.Context(), r.Club(), id)
		if err != nil {
			return handoutBody{}, err
		}
		book, err := in.Reach.Shown(r.Context(), r.Club())
		if err != nil {
			return handoutBody{}, err
		}
		return handoutOf(routine.Is.Name, fmt.Sprintf("/routines/%d/handout.pdf", id), shell.Routine(id),
			list.Alone(routine.Is.Blocks), book.Looks), nil
	}
	b, err := in.Boards.Board(r.Context(), r.Club(), r.ParamID("session"))
	if err != nil {
		return handoutBody{}, err
	}
	return handoutOf(b.Document.Title, shell.Session(b.ID, "handout.pdf"), shell.Session(b.ID, "sheet"),
		list.All(b.Document, b.Schedule), b.Looks), nil
}

// asPoster shows the list as it is asked for.
func (b *handoutBody) asPoster(r *shell.Request) {
	asked := r.Asked()
	if b.Poster = asked.Has("poster"); b.Poster {
		asked.Del("poster")
	} else {
		asked.Set("poster", "yes")
	}
	b.Other = "?" + asked.Encode()
}

// Handout is a list of drills with what to do, to say and to look for.
func (in Room) Handout(r *shell.Request) (shell.Answer, error) {
	b, err := in.handout(r)
	b.asPoster(r)
	return &shell.Page{Screens: screens, Name: "handout", Title: b.Title + ", drills", Nav: b.Nav, Body: b}, err
}

// HandoutPDF is the same as a file.
func (in Room) HandoutPDF(r *shell.Request) (shell.Answer, error) {
	b, err := in.handout(r)
	if err != nil {
		return nil, err
	}
	return b.paper(r)
}

// Handed is a routine's drills, for whoever has the link.
func (in Room) Handed(r *shell.Request) (shell.Answer, error) {
	b, err := in.handed(r)
	b.asPoster(r)
	return &shell.Page{Screens: screens, Name: "handout", Title: b.Title + ", drills", Body: b}, err
}

// HandedPDF is the same as a file.
func (in Room) HandedPDF(r *shell.Request) (shell.Answer, error) {
	b, err := in.handed(r)
	if err != nil {
		return nil, err
	}
	return b.paper(r)
}

func (in Room) handed(r *shell.Request) (handoutBody, error) {
	clubID, routine, err := shell.FindHanded(r)
	if err != nil {
		return handoutBody{}, err
	}
	book, err := in.Reach.Shown(r.Context(), clubID)
	if err != nil {
		return handoutBody{}, err
	}
	at := shell.Handed(r.Param("token"))
	b := handoutOf(routine.Is.Name, at+"/list.pdf", "", list.Alone(routine.Is.Blocks), book.Looks)
	b.Steps = at + "/steps"
	return b, nil
}

// notSo is the first way in which a drill is not done, drawn.
func (d handoutDrill) notSo(say saying) share.Cell {
	for _, f := range d.Drawn.Faults() {
		return share.Cell{{Text: say("Not like this:") + " " + say(f.Says), Picture: f.Drawing, Wide: 12}}
	}
	return nil
}

// paper is the list as a file.
func (b handoutBody) paper(r *shell.Request) (shell.Answer, error) {
	p, say := paper(r, b.Title+", drills"), saying(r.Speaks().Told)
	p.Heading(1, b.Title, "")
	for _, block := range b.Blocks {
		p.Together(45)
		p.Heading(3, shell.Joined(" · ", block.Phase.Letter(), block.Name), block.Often)
		p.Text(share.Line{Text: say.as("Why:", block.Why)})
		var rows [][]share.Cell
		for _, d := range block.Drills {
			rows = append(rows, []share.Cell{{{Text: d.Name, Bold: true, Picture: d.Drawn.Picture(), Wide: 18},
				{Text: d.Dose}}, {{Text: say.each(d.Cues)}},
				append(share.Cell{{Text: say.each(d.Faults)}, {Text: d.Caution, Bold: true}}, d.notSo(say)...)})
		}
		p.Table([]share.Column{{Head: "Drill", Share: 3}, {Head: "Say", Share: 2.4}, {Head: "Look for", Share: 2.4}},
			rows)
	}
	return pdf(p, nil)
}
