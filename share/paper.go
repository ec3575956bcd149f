package share

import (
	"bytes"
	"embed"
	"fmt"
	"slices"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"

	"cuestart/core/figure"
)

//go:embed fonts/*.ttf
var paperFonts embed.FS

// PaperSize is the format of a page.
type PaperSize string

// The sizes.
const (
	A4     PaperSize = "A4"
	Letter PaperSize = "Letter"
)

// Line is a piece of text on paper: a paragraph of a cell or of a page.
type Line struct {
	Text string
	Bold bool
	Big  bool // in the face of figures and headings

	Picture *figure.Picture // stands at the left of this line and those that follow it
	Wide    float64         // of the picture, in mm
	indent  float64
}

// Cell is what stands in one field of a table, line below line.
type Cell []Line

// Column is one of a table: its heading, and its share of the width.
type Column struct {
	Head  string
	Share float64
	Right bool
}

// Language is what a paper is written in: its code, such as "en", and how it says a piece of text;
// Say nil: as it stands.
type Language struct {
	Code string
	Say  func(text string) string
}

// Paper is a document to print, black on white, in the order in which it is read. Every
// piece is tagged, so that a screen reader reads it so too.
type Paper struct {
	pdf    *fpdf.Fpdf
	title  string
	in     Language
	root   *tag
	within *tag
	marks  map[int]int // marked pieces by page
	foot   string
	small  float64 // letters of text, in points
	line   float64 // height of a line, in mm
}

// Measures of a page, in mm, and of letters, in points.
const (
	paperEdge   = 10.0
	smallLetter = 8.5
	bigLetter   = 10.5
	lineHeight  = 3.7
	cellGap     = 1.0
)

// NewPaper is an empty document; foot stands at the bottom of each page.
func NewPaper(title string, in Language, size PaperSize, foot string, made time.Time) *Paper {
	p := &Paper{pdf: fpdf.New("P", "mm", string(size), ""), title: title, in: in, root: &tag{kind: "Document"},
		marks: map[int]int{}, foot: foot, small: smallLetter, line: lineHeight}
	p.within = p.root
	for style, file := range map[string]string{"": "AtkinsonHyperlegible_400Regular",
		"B": "AtkinsonHyperlegible_700Bold"} {
		p.pdf.AddUTF8FontFromBytes("text", style, font(file))
	}
	p.pdf.AddUTF8FontFromBytes("figure", "", font("BarlowCondensed_600SemiBold"))
	p.pdf.SetTitle(title, true)
	p.pdf.SetLang(in.Code)
	p.pdf.SetCreationDate(made)
	p.pdf.SetModificationDate(made)
	p.pdf.SetMargins(paperEdge, paperEdge, paperEdge)
	p.pdf.SetAutoPageBreak(false, 0)
	p.pdf.SetLineWidth(0.2)
	p.Page()
	return p
}

func font(name string) []byte {
	content, err := paperFonts.ReadFile("fonts/" + name + ".ttf")
	if err != nil {
		panic(err) // they are embedded
	}
	return content
}

// Page begins a new page.
func (p *Paper) Page() {
	p.pdf.AddPage()
	if p.foot != "" {
		_, height := p.pdf.GetPageSize()
		p.artifact(func() {
			p.pdf.SetFont("text", "", 7)
			p.pdf.SetXY(paperEdge, height-paperEdge+2)
			p.pdf.CellFormat(p.width(), 3, fmt.Sprintf("%s · %d", p.clean(p.foot), p.pdf.PageNo()), "", 0, "L", false,
				0, "")
		})
	}
	p.pdf.SetXY(paperEdge, paperEdge)
}

func (p *Paper) width() float64 {
	width, _ := p.pdf.GetPageSize()
	return width - 2*paperEdge
}

// room is the height that is left on the page.
func (p *Paper) room() float64 {
	_, height := p.pdf.GetPageSize()
	return height - paperEdge - p.pdf.GetY()
}

// Heading writes a heading of level 1 to 3, with something at the right of the line.
func (p *Paper) Heading(level int, text, right string) {
	size := []float64{20, 14, 12}[level-1]
	right = p.clean(right)
	if p.room() < 3*size/2 {
		p.Page()
	}
	y := p.pdf.GetY()
	p.pdf.SetFont("figure", "", size)
	rightWidth := p.pdf.GetStringWidth(right) + 2
	lines := p.pdf.SplitText(p.clean(text), p.width()-rightWidth)
	step := size * 0.42
	for i, line := range lines {
		p.mark(fmt.Sprintf("H%d", level), func() { p.at(paperEdge, y+float64(i)*step, line) })
	}
	if right != "" {
		p.mark("P", func() { p.at(paperEdge+p.width()-rightWidth+1, y, right) })
	}
	y += float64(len(lines)) * step
	p.rule(y+0.5, 0.5)
	p.pdf.SetXY(paperEdge, y+2)
}

// at writes one line of the font in force at a place.
func (p *Paper) at(x, y float64, text string) {
	p.pdf.SetXY(x, y)
	_, size := p.pdf.GetFontSize()
	p.pdf.CellFormat(0, size, text, "", 0, "LT", false, 0, "")
}

func (p *Paper) rule(y, thick float64) {
	p.artifact(func() {
		p.pdf.SetLineWidth(thick)
		p.pdf.Line(paperEdge, y, paperEdge+p.width(), y)
		p.pdf.SetLineWidth(0.2)
	})
}

// Together begins a new page where less than so many mm are left on this one.
func (p *Paper) Together(height float64) {
	if p.room() < height {
		p.Page()
	}
}

// Text writes a paragraph.
func (p *Paper) Text(lines ...Line) {
	for _, line := range lines {
		made := p.wrap(Cell{line}, p.width())
		if height := float64(len(made)) * p.line; p.room() < height {
			p.Page()
		}
		for len(made) > 0 { // what is longer than a page goes on on the next one
			some := made[:min(len(made), p.fits())]
			y := p.pdf.GetY()
			p.mark("P", func() { p.draw(some, paperEdge, y, p.width(), false) })
			p.pdf.SetXY(paperEdge, y+float64(len(some))*p.line+cellGap)
			if made = made[len(some):]; len(made) > 0 {
				p.Page()
			}
		}
	}
}

// fits is how many lines have room on this page, one at the least.
func (p *Paper) fits() int { return max(1, int((p.room()-cellGap)/p.line)) }

// Table writes a table; its heading comes again on each page. A row stays whole where it is no
// taller than a page.
func (p *Paper) Table(columns []Column, rows [][]Cell) {
	total := 0.0
	for _, c := range columns {
		total += c.Share
	}
	widths := make([]float64, len(columns))
	for i, c := range columns {
		widths[i] = c.Share / total * p.width()
	}
	p.inside("Table", func() {
		head := func() {
			cells := make([]Cell, len(columns))
			for i, c := range columns {
				cells[i] = Cell{{Text: c.Head, Big: true}}
			}
			p.row("TH", columns, widths, p.wrapped(widths, cells))
		}
		head()
		for _, row := range rows {
			lines := p.wrapped(widths, row)
			if p.height(lines) > p.room() {
				p.Page()
				head()
			}
			for p.height(lines) > p.room() { // it is taller than a page: it goes on on the next one
				some, left := split(lines, p.fits())
				p.row("TD", columns, widths, some)
				p.Page()
				head()
				lines = left
			}
			p.row("TD", columns, widths, lines)
		}
	})
	p.pdf.SetXY(paperEdge, p.pdf.GetY()+2)
}

// wrapped are the lines of a row's cells.
func (p *Paper) wrapped(widths []float64, row []Cell) [][]Line {
	lines := make([][]Line, len(row))
	for i, cell := range row {
		lines[i] = p.wrap(cell, widths[i]-1)
	}
	return lines
}

// split cuts a row after so many lines.
func split(lines [][]Line, most int) (some, left [][]Line) {
	for _, cell := range lines {
		some, left = append(some, cell[:min(len(cell), most)]), append(left, cell[min(len(cell), most):])
	}
	return some, left
}

// height is that of a row.
func (p *Paper) height(row [][]Line) (height float64) {
	for _, lines := range row {
		height = max(height, float64(len(lines))*p.line+cellGap)
	}
	return height
}

func (p *Paper) row(kind string, columns []Column, widths []float64, row [][]Line) {
	x, y, height := paperEdge, p.pdf.GetY(), p.height(row)
	p.inside("TR", func() {
		for i, lines := range row {
			at, width, right := x, widths[i], columns[i].Right
			p.mark(kind, func() { p.draw(lines, at, y+0.5, width, right) })
			p.pictures(lines, at, y+0.5)
			x += width
		}
	})
	p.rule(y+height, map[string]float64{"TH": 0.4, "TD": 0.1}[kind])
	p.pdf.SetXY(paperEdge, y+height)
}

// wrap breaks the lines of a cell where they are too wide.
func (p *Paper) wrap(cell Cell, width float64) (lines []Line) {
	indent, beside, needs := 0.0, 0, 0
	fill := func() {
		for ; beside < needs; beside++ {
			lines = append(lines, Line{})
		}
	}
	for _, line := range cell {
		if line.Text == "" {
			continue
		}
		picture := line.Picture
		if picture != nil {
			fill()
			indent, beside, needs = line.Wide, 0, p.linesOf(line.Wide)
		}
		p.face(line)
		for _, text := range p.pdf.SplitText(p.clean(line.Text), width-indent) {
			lines = append(lines, Line{Text: text, Bold: line.Bold, Big: line.Big, Picture: picture, Wide: line.Wide,
				indent: indent})
			picture, beside = nil, beside+1
		}
	}
	fill()
	return lines
}

func (p *Paper) face(line Line) {
	switch {
	case line.Big:
		p.pdf.SetFont("figure", "", bigLetter*p.small/smallLetter)
	case line.Bold:
		p.pdf.SetFont("text", "B", p.small)
	default:
		p.pdf.SetFont("text", "", p.small)
	}
}

func (p *Paper) draw(lines []Line, x, y, width float64, right bool) {
	for _, line := range lines {
		if line.Text == "" {
			y += p.line
			continue
		}
		p.face(line)
		at := x + line.indent
		if right {
			at = x + width - p.pdf.GetStringWidth(line.Text) - 2
		}
		p.at(at, y, line.Text)
		y += p.line
	}
}

// clean is a text in the language of the paper, in letters that its faces have.
func (p *Paper) clean(text string) string {
	if p.in.Say != nil {
		text = p.in.Say(text)
	}
	return strings.NewReplacer("→", "to", "′", "'", "″", "\"", "\t", " ", "\n", " ").Replace(text)
}

// Card is a small paper of one person, to be cut out.
type Card struct {
	Head, Sub string
	Lines     []Line
}

// How cards lie on a page, and how far from its edge their text begins, in mm.
const (
	cardsAcross, cardsDown = 2, 4
	cardInner, cardHead    = 2.0, 8.5
)

// Cards writes cards, eight a page: two beside each other, in the largest letters in
// which every list fits on its card. What fits in none goes on on the next one.
func (p *Paper) Cards(cards []Card) {
	width, sheet := p.pdf.GetPageSize()
	wide, high := (width-2*paperEdge)/cardsAcross, (sheet-2*paperEdge-4)/cardsDown
	most := 0
	for _, size := range []struct{ letter, line float64 }{{8, 3.4}, {7.2, 3}, {6.6, 2.7}, {6, 2.45}, {5.6, 2.25}} {
		p.small, p.line = size.letter, size.line
		most = int((high - cardHead - cardInner) / p.line)
		if !slices.ContainsFunc(cards, func(c Card) bool { return len(p.wrap(c.Lines, wide-2*cardInner)) > most }) {
			break
		}
	}
	n := 0
	for _, c := range cards {
		lines := p.wrap(c.Lines, wide-2*cardInner)
		for len(lines) > most {
			p.card(n, wide, high, c, lines[:most])
			lines, c.Sub = lines[most:], "…"
			n++
		}
		p.card(n, wide, high, c, lines)
		n++
	}
}

// card draws card n in its place.
func (p *Paper) card(n int, wide, high float64, c Card, lines []Line) {
	if n > 0 && n%(cardsAcross*cardsDown) == 0 {
		p.Page()
	}
	x, y := paperEdge+float64(n%cardsAcross)*wide, paperEdge+float64(n/cardsAcross%cardsDown)*high
	p.artifact(func() { p.pdf.Rect(x, y, wide, high, "D") })
	p.inside("Sect", func() {
		p.mark("H2", func() { p.pdf.SetFont("figure", "", 14); p.at(x+cardInner, y+1.5, p.clean(c.Head)) })
		p.mark("P", func() { p.pdf.SetFont("text", "", 6.5); p.at(x+cardInner, y+6, p.clean(c.Sub)) })
		p.mark("P", func() { p.draw(lines, x+cardInner, y+cardHead, wide-2*cardInner, false) })
	})
}

// PDF is the document as a file.
func (p *Paper) PDF() ([]byte, error) {
	var plain bytes.Buffer
	if err := p.pdf.Output(&plain); err != nil {
		return nil, fmt.Errorf("the paper cannot be written: %w", err)
	}
	return p.tagged(plain.Bytes())
}
