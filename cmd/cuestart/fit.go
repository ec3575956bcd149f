package main

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"cuestart/book"
	"cuestart/core/check"
	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/core/hear"
	"cuestart/core/movement"
	"cuestart/core/pen"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/say"
	"cuestart/core/schedule"
	"cuestart/core/warmth"
	"cuestart/docs/formats"
	"cuestart/web/chalk"
)

// engineCommand reads a file and answers in JSON.
type engineCommand struct {
	use, short string
	answer     func(ctx context.Context, name string, steps int) (any, error)
}

var engine = []engineCommand{
	{"fit", "Fit a run-in problem: JSON in, JSON out", fit},
	{"cutdowns", "Fit a run-in problem with 5, 10, 15 … minutes less", cutdowns},
	{"check", "Fit a plan document and say what is wrong with it", checkPlan},
	{"warmth", "Estimate the warmth over pieces of constant effort", estimate},
	{"compose", "Make a plan for a brief", composePlan},
	{"say", "Read lines as coaches say them", spoken},
	{"draw", "Draw a drill's figure: JSON in, SVG out", draw},
}

const stepsHelp = "how many steps the search may take; 0: by the size of the problem; " +
	"with 2000000 a day of 16 blocks is proven best in a second or so"

func engineCommands() (list []*cobra.Command) {
	for _, e := range engine {
		steps := 0
		c := &cobra.Command{Use: e.use + " FILE|-", Short: e.short, Args: cobra.ExactArgs(1),
			RunE: func(c *cobra.Command, args []string) error {
				said, err := e.answer(c.Context(), args[0], steps)
				if err != nil {
					return err
				}
				if text, ok := said.(picture); ok {
					_, err := fmt.Println(text)
					return err
				}
				out := json.NewEncoder(os.Stdout)
				if list, several := said.(objects); several {
					for _, one := range list {
						err = errors.Join(err, out.Encode(one))
					}
					return err
				}
				return out.Encode(said)
			}}
		c.Flags().IntVar(&steps, "steps", 0, stepsHelp)
		list = append(list, c)
	}
	return list
}

func fit(ctx context.Context, name string, steps int) (any, error) {
	p, err := readProblem(name)
	if err != nil {
		return nil, err
	}
	return runin.Fit(ctx, p, steps)
}

func cutdowns(ctx context.Context, name string, steps int) (any, error) {
	p, err := readProblem(name)
	if err != nil {
		return nil, err
	}
	return runin.Cutdowns(ctx, p, steps)
}

func checkPlan(ctx context.Context, name string, steps int) (any, error) {
	d := new(plan.Document)
	if err := readFile(name, formats.Plan, d); err != nil {
		return nil, err
	}
	s, err := schedule.Fit(ctx, d, steps)
	var wrong plan.Problems
	if errors.As(err, &wrong) {
		return nil, malformed{fmt.Errorf("%s: %w", name, err)}
	} else if err != nil {
		return nil, err
	}
	findings := check.Check(check.Input{Document: d, Schedule: s, Book: book.Drills()})
	return map[string]any{"schedule": s, "findings": append([]check.Finding{}, findings...)}, nil
}

func estimate(_ context.Context, name string, _ int) (any, error) {
	in := struct {
		Title string `json:"title"`
		warmth.Air
		Pieces []warmth.Piece `json:"pieces"`
	}{Air: warmth.Air{Celsius: 18}}
	if err := readFile(name, formats.Warmth, &in); err != nil {
		return nil, err
	}
	curve := warmth.Run(in.Pieces, in.Air)
	points := []map[string]float64{}
	at := 0.0
	for _, p := range append([]warmth.Piece{{}}, in.Pieces...) {
		at += p.Seconds
		points = append(points, map[string]float64{"at": at, "warmth": curve.At(at)})
	}
	return map[string]any{"end": curve.End(), "peak": curve.Peak(), "seconds_above_2": curve.SecondsAbove(warmth.Warm),
		"points": points}, nil
}

// spoken reads lines in their context and answers one object a line.
func spoken(_ context.Context, name string, _ int) (any, error) {
	in := struct {
		say.Context `json:"context"`
		Lines       []spokenLine `json:"lines"`
		Texts       [][]string   `json:"texts"`
	}{}
	if err := readFile(name, formats.Say, &in); err != nil {
		return nil, err
	}
	in.Book = book.Drills()
	if plays, ok := book.Sport(in.Sport); ok {
		in.Plays, in.Sport = &plays, plays.Key
	}
	in.Index = say.NewIndex(in.Book, in.Sport)
	r := say.NewReader(in.Context)
	var answers objects
	for _, line := range in.Lines {
		answers = append(answers, r.Read(string(line)))
	}
	for text, lines := range in.Texts {
		answers = append(answers, readText(in.Context, text, lines)...)
	}
	return answers, nil
}

// readText reads one of several texts, by itself.
func readText(in say.Context, text int, lines []string) (answers objects) {
	r := say.NewReader(in)
	block, heading := 0, ""
	var all []*said
	for _, piece := range r.Pieces(lines) {
		is := &said{Line: r.ReadPiece(piece), Text: text, At: piece.Line}
		switch {
		case is.Is == say.IsBlock || is.Is == say.IsPhase:
			block, heading = block+1, cmp.Or(is.Name, say.AsTyped(piece.Text))
		case piece.Ends:
			block, heading = block+1, ""
		case is.Phase != "": // "mobility: ankle rocks 10": the word before is its heading
			block++
			heading, _, _ = strings.Cut(piece.Text, ":")
		case is.Is == say.IsBlank && heading == "": // where there are no headings, blank lines part
			block++
		}
		is.Block, is.Heading = block, heading
		is.Understood, is.Seconds = pen.Understands(r, &is.Line)
		is.Spans = r.Spans(lines[piece.Line], &is.Line)
		if i := slices.IndexFunc(in.Book,
			func(k drill.Drill) bool { return k.Code == is.Code && is.Code != "" }); i >= 0 {
			is.Names = append([]string{in.Book[i].Name}, in.Book[i].Also...)
		}
		r.Remember(is.Line)
		all = append(all, is)
	}
	for _, is := range beside(all) {
		answers = append(answers, is)
	}
	return answers
}

// beside parts what several groups do beside one another under one heading into a block for each group:
// lines that all say before a colon who does them, in turn.
func beside(all []*said) []*said {
	groups := map[int][]string{}
	for _, is := range all {
		if is.Does() && !slices.Contains(groups[is.Block], is.Label()) {
			groups[is.Block] = append(groups[is.Block], is.Label())
		}
	}
	before := 0 // how many blocks more there are than were read
	for at, block := 0, -1; at < len(all); at++ {
		is := all[at]
		if is.Block != block {
			if labels := groups[block]; parted(labels) {
				before += len(labels) - 1
			}
			block = is.Block
		}
		labels := groups[block]
		if is.Block += before; parted(labels) {
			if n := slices.Index(labels, is.Label()); n >= 0 && is.Does() {
				is.Block, is.Heading = is.Block+n, is.Label()
			}
		}
	}
	slices.SortStableFunc(all, func(a, b *said) int { return cmp.Compare(a.Block, b.Block) })
	return all
}

// parted tells whether labels are of several groups, and nothing is done without one.
func parted(labels []string) bool { return len(labels) > 1 && !slices.Contains(labels, "") }

// said is a line or sentence of one of several texts, as it is read.
type said struct {
	say.Line
	Text       int                  `json:"text"`
	At         int                  `json:"line"`
	Block      int                  `json:"block"`             // the part of the list that it belongs to
	Heading    string               `json:"heading,omitempty"` // and what that is called
	Names      []string             `json:"names,omitempty"`   // of the drill that was found
	Understood *movement.Understood `json:"understood,omitempty"`
	Spans      []hear.Span          `json:"spans,omitempty"`   // which bytes of the line gave what
	Seconds    float64              `json:"seconds,omitempty"` // it takes one player, without a queue
}

// picture is written as it is.
type picture string

func draw(_ context.Context, name string, _ int) (any, error) {
	f := new(figure.Figure)
	if err := readFile(name, formats.Figure, f); err != nil {
		return nil, err
	}
	if err := f.Validate(); err != nil {
		return nil, malformed{fmt.Errorf("%s: %w", name, err)}
	}
	return picture(chalk.File(f, "")), nil
}

// objects are written one a line.
type objects []any

// spokenLine is a line, alone or as the "line" of an object.
type spokenLine string

func (l *spokenLine) UnmarshalJSON(text []byte) error {
	if json.Unmarshal(text, (*string)(l)) == nil {
		return nil
	}
	var of struct{ Line string }
	err := json.Unmarshal(text, &of)
	*l = spokenLine(of.Line)
	return err
}

func readProblem(name string) (*runin.Problem, error) {
	p := new(runin.Problem)
	if err := readFile(name, formats.Problem, p); err != nil {
		return nil, err
	}
	if err := p.Validate(); err != nil {
		return nil, malformed{fmt.Errorf("%s: %w", name, err)}
	}
	return p, nil
}

// readFile reads a file, or the standard input where the name is "-".
func readFile(name, format string, into any) error {
	var from io.Reader = os.Stdin
	if name != "-" {
		file, err := os.Open(name)
		if err != nil {
			return malformed{fmt.Errorf("%s cannot be read: %w", name, err)}
		}
		defer file.Close()
		from = file
	}
	if err := formats.Read(from, format, into); err != nil {
		return malformed{fmt.Errorf("%s: %w", name, err)}
	}
	return nil
}
