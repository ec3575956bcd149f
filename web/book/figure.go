package book

import (
	"encoding/json"
	"fmt"
	"html/template"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/core/plan"
	"cuestart/planner"
	"cuestart/planner/books"
	"cuestart/share"
	"cuestart/web/chalk"
	"cuestart/web/shell"
)

// drawing is the page on which a club draws how a drill looks. It holds the figure as it
// is on the page; nothing is kept before it is saved.
type drawing struct {
	drill.Drill
	Edition uint32
	Own     bool // the club's own, or none by its wish
	Is      *figure.Figure
	At      int    // the pose that is changed; the faults count on
	Text    string // the figure as it is written, or as it was sent where that is none
	Photo   string
	Likes   []shell.Choice

	Problems plan.Problems
}

// acts are what a press on the page does to a figure.
var acts = map[string]func(*drawing, *shell.Form){
	"add":    (*drawing).add,
	"remove": (*drawing).remove,
	"mirror": func(f *drawing, _ *shell.Form) { *f.pose() = f.pose().Mirrored() },
	"fault":  (*drawing).fault,
	"drag":   (*drawing).drag,
}

// Figure is the page.
func (in Room) Figure(r *shell.Request) (shell.Answer, error) {
	f, _, err := in.drawingOf(r)
	if err != nil {
		return nil, err
	}
	return f.page(), nil
}

func (in Room) drawingOf(r *shell.Request) (*drawing, *books.Book, error) {
	b, d, err := in.drillOf(r)
	if err != nil {
		return nil, nil, err
	}
	own := b.Own[d.Code]
	f := &drawing{Drill: d, Edition: own.Edition, Own: own.Is.Figure != nil || own.Is.Plain, Is: b.Figure(d.Code)}
	if f.Is == nil {
		f.Is = &figure.Figure{Poses: []figure.Pose{{Arm: figure.Limb{6, 8}}}}
	}
	stamps, err := in.Books.Pictures(r.Context(), r.Club())
	if stamp := stamps[d.Code]; stamp != "" {
		f.Photo = shell.Picture(d.Code, stamp)
	}
	for _, other := range b.Drills {
		if b.Figure(other.Code) != nil && other.Code != d.Code {
			f.Likes = append(f.Likes, shell.Choice{Value: other.Code, Label: other.Name})
		}
	}
	slices.SortFunc(f.Likes, func(a, b shell.Choice) int { return strings.Compare(a.Label, b.Label) })
	return f, b, err
}

func (f *drawing) page() *shell.Page {
	if f.Text == "" {
		f.Text = written(f.Is)
	}
	f.At = max(0, min(f.At, len(f.Is.Poses)+len(f.Is.NotSo)-1))
	return &shell.Page{Screens: screens, Name: "figure", Part: "drawing", Title: f.Name + ", how it looks",
		Nav: "drills", Body: f}
}

// written is a figure as text.
func written(is *figure.Figure) string {
	text, _ := json.Marshal(is) // numbers that were validated, and words
	return string(text)
}

// TryFigure answers a press or a drag with the page as it then is.
func (in Room) TryFigure(r *shell.Request) (shell.Answer, error) {
	f, b, err := in.drawingOf(r)
	if err != nil {
		return nil, err
	}
	f.read(r.Form)
	do := r.Form.Raw("do")
	switch {
	case len(f.Problems) > 0:
	case do == "like":
		if like := b.Figure(r.Form.Raw("like")); like != nil {
			f.Is, f.At, f.Text = like, 0, ""
		}
	case acts[do] != nil && f.Is.View != figure.Above:
		acts[do](f, r.Form)
		f.Text = ""
	}
	return f.page(), nil
}

// SaveFigure keeps what is drawn, goes back to what the book has, or shows none.
func (in Room) SaveFigure(r *shell.Request) (shell.Answer, error) {
	f, _, err := in.drawingOf(r)
	if err != nil {
		return nil, err
	}
	code, said := f.Code, f.Name+" is drawn"
	switch r.Form.Raw("do") {
	case "book":
		err, said = in.Books.AsDrawn(r.Context(), r.By, code), f.Name+" is drawn as it came"
	case "none":
		err, said = in.Books.DrawDrill(r.Context(), r.By, code, nil, r.Form.Count("edition")), f.Name+" has no figure"
	default:
		if f.read(r.Form); len(f.Problems) > 0 {
			err = f.Problems
		} else {
			err = in.Books.DrawDrill(r.Context(), r.By, code, f.Is, r.Form.Count("edition"))
		}
	}
	f.Edition = r.Form.Count("edition")
	return r.Saved(err, said, shell.Drill(code), func(wrong plan.Problems) (*shell.Page, error) {
		f.Problems = wrong
		return f.page(), nil
	})
}

// FigureFile is a drill's figure as a file: a picture, or what it is drawn from.
func (in Room) FigureFile(r *shell.Request) (shell.Answer, error) {
	b, d, err := in.drillOf(r)
	if err != nil {
		return nil, err
	}
	figure := b.Figure(d.Code)
	if figure == nil {
		return nil, planner.ErrNotFound
	}
	content, kind, name := chalk.File(figure, d.Name), "image/svg+xml", d.Code+".svg"
	if strings.HasSuffix(r.Path(), ".json") {
		content, kind, name = written(figure), "application/json", d.Code+".json"
	}
	return shell.File{Name: name, Kind: kind, Write: func(w io.Writer) error {
		_,
			err := io.WriteString(w, content)
		return err
	}}, nil
}

// read takes what was sent: the figure as text, then the fields of the pose. A pose that no
// body takes is brought back to what a body does, with a word; what cannot be read stays
// as it was written.
func (f *drawing) read(in *shell.Form) {
	field := "figure"
	if in.Raw("do") == "text" {
		field = "text"
	}
	sent, err := share.ReadFigure(in.Raw(field))
	if sent == nil || err != nil && (field == "text" || len(sent.Poses) == 0 || len(sent.Poses) > figure.MostPoses ||
		len(sent.NotSo) > figure.MostFaults) {
		f.Problems, f.Text = plan.Problems{{Where: "text", What: err.Error()}}, in.Raw(field)
		return
	}
	last := max(0, len(sent.Poses)+len(sent.NotSo)-1)
	f.Is, f.At = sent, min(in.Int("at", 0, figure.MostPoses+figure.MostFaults), last)
	if field == "figure" && in.Has("fields") && sent.View != figure.Above {
		f.readFields(in)
	}
	if err := f.Is.Validate(); err != nil {
		f.Problems = plan.Problems{{Where: "figure", What: err.Error()}}
		*f.pose() = f.Is.Within(*f.pose())
	}
	if to, err := strconv.Atoi(in.Raw("go")); err == nil {
		f.At = max(0, min(to, last))
	}
}

// readFields takes the fields of the pose that is changed.
func (f *drawing) readFields(in *shell.Form) {
	is, p := f.Is, f.pose()
	is.View, is.Moves, is.Holds = figure.View(in.Raw("view")), figure.Moves(in.Raw("moves")), in.Ticked("holds", "yes")
	p.Touch = in.List("touch")
	for _, n := range f.Numbers() {
		if text := in.Text(n.Name); text != "" && text != n.Value {
			if v, err := strconv.ParseFloat(text, 64); err == nil {
				n.set(v)
			}
		}
	}
	if w := f.Wrong(); w != nil {
		w.Joint, w.Says = in.Raw("joint-wrong"), in.Text("says")
	}
}

// pose is the one that is changed.
func (f *drawing) pose() *figure.Pose {
	if n := f.At - len(f.Is.Poses); n >= 0 {
		return &f.Is.NotSo[n].Pose
	}
	return &f.Is.Poses[f.At]
}

// Wrong is the fault that is changed, or nil.
func (f *drawing) Wrong() *figure.Wrong {
	if n := f.At - len(f.Is.Poses); n >= 0 {
		return &f.Is.NotSo[n]
	}
	return nil
}

func (f *drawing) add(*shell.Form) {
	if at := min(f.At, len(f.Is.Poses)-1); len(f.Is.Poses) < figure.MostPoses {
		f.Is.Poses = slices.Insert(f.Is.Poses, at+1, *f.pose())
		f.At = at + 1
	}
}

func (f *drawing) remove(*shell.Form) {
	if n := f.At - len(f.Is.Poses); n >= 0 {
		f.Is.NotSo = slices.Delete(f.Is.NotSo, n, n+1)
	} else if len(f.Is.Poses) > 1 {
		f.Is.Poses = slices.Delete(f.Is.Poses, f.At, f.At+1)
	}
	f.At = max(0, f.At-1)
}

// fault adds one, begun from the pose that is shown; its words are those of the drill's
// own first fault.
func (f *drawing) fault(*shell.Form) {
	if len(f.Is.NotSo) >= figure.MostFaults {
		return
	}
	says := "knees fall in"
	if n := len(f.Is.NotSo); n < len(f.Faults) {
		words := strings.Fields(strings.ToLower(f.Faults[n]))
		says = strings.Join(words[:min(4, len(words))], " ")
	}
	f.Is.NotSo = append(f.Is.NotSo, figure.Wrong{Pose: *f.pose(), Joint: "knee", Says: says})
	f.At = len(f.Is.Poses) + len(f.Is.NotSo) - 1
}

// drag brings a joint to where a hand, or the keys, took it.
func (f *drawing) drag(in *shell.Form) {
	x, errX := strconv.ParseFloat(in.Raw("x"), 64)
	y, errY := strconv.ParseFloat(in.Raw("y"), 64)
	joint := slices.Index(figure.Joints, in.Raw("joint"))
	if errX != nil || errY != nil || joint < 0 || math.IsNaN(x+y) || math.Abs(x) > 500 || math.Abs(y) > 500 {
		return
	}
	*f.pose() = f.Is.Drag(*f.pose(), figure.Joint(joint), figure.Point{X: x, Y: y})
}

// tried is a button that changes what is drawn.
type tried struct{ Code, Do, Label string }

func tryOf(code, do, label string) tried { return tried{code, do, label} }

// Above tells whether it is a course, which is changed as text.
func (f *drawing) Above() bool { return f.Is.View == figure.Above }

// Stage is the pose with its handles.
func (f *drawing) Stage() template.HTML {
	var before *figure.Pose
	if f.At > 0 {
		before = &f.Is.Poses[min(f.At, len(f.Is.Poses))-1]
	}
	return chalk.Bench(f.Is, *f.pose(), before)
}

// Look is the figure as it is shown elsewhere.
func (f *drawing) Look() chalk.Drawn { return chalk.Of(f.Is, &f.Drill) }

// pick is a pose or a fault to change.
type pick struct {
	N       int
	Label   string
	On      bool
	Picture template.HTML
}

// Picks are the poses and the faults.
func (f *drawing) Picks() (all []pick) {
	for i, p := range f.Is.Poses {
		one := *f.Is
		one.Poses, one.Moves = []figure.Pose{p}, ""
		all = append(all, pick{N: i, Label: fmt.Sprint(i + 1), On: i == f.At,
			Picture: chalk.Of(&one, &f.Drill).Small()})
	}
	for i, w := range f.Is.NotSo {
		at := len(f.Is.Poses) + i
		all = append(all, pick{N: at, Label: "Not like this: " + w.Says, On: at == f.At,
			Picture: f.Look().Faults()[i].Picture})
	}
	return all
}

// More tells whether a pose may be added.
func (f *drawing) More() bool { return len(f.Is.Poses) < figure.MostPoses }

// Views and Goes are what may be chosen.
func (f *drawing) Views() []shell.Choice {
	return []shell.Choice{{Value: "", Label: "the side"}, {Value: "front", Label: "the front"},
		{Value: "back", Label: "the back"}}
}

// Goes are how its poses may follow each other.
func (f *drawing) Goes() []shell.Choice {
	return []shell.Choice{{Value: "", Label: "there and back"}, {Value: "once", Label: "once, and stays"},
		{Value: "loop", Label: "on and on, on the spot"},
		{Value: "travel", Label: "on and on, forwards"}, {Value: "travel back", Label: "on and on, backwards"}}
}

// Joints are where something may be wrong.
func (f *drawing) Joints() []string {
	return append(slices.Clone(figure.Joints[:figure.NearHip]), "back")
}

// Touches are what may be on the ground.
func (f *drawing) Touches() []shell.Tick {
	all := []string{"ankle", "far ankle", "toe", "far toe", "knee", "far knee", "hip", "shoulder", "elbow", "far elbow",
		"hand", "far hand"}
	on := f.pose().Touch
	if len(on) == 0 && f.pose().Lift == 0 {
		on = []string{"ankle", "far ankle"}
	}
	return shell.Ticks(all, on)
}

// number is an angle, or a height, that may be written instead of dragged.
type number struct {
	Name, Label, Value string
	set                func(float64)
}

// Numbers are those of the pose that is changed.
func (f *drawing) Numbers() (all []number) {
	p := f.pose()
	add := func(name, label string, now float64, set func(float64)) {
		all = append(all, number{Name: name, Label: label, Value: strconv.FormatFloat(now, 'f', -1, 64), set: set})
	}
	for _, one := range []struct {
		name, label string
		of          *float64
	}{{"lean", "trunk leans", &p.Lean}, {"tilt", "hips tilt", &p.Tilt}, {"turn", "chest turns", &p.Turn},
		{"round", "back rounds", &p.Round}, {"neck", "head nods", &p.Neck}, {"lift", "off the ground", &p.Lift},
		{"on", "gone on by", &p.On}} {
		add(one.name, one.label, *one.of, func(v float64) { *one.of = v })
	}
	whole := f.Is.Within(*p)
	for _, one := range []struct {
		name   string
		labels []string
		of     *figure.Limb
		now    figure.Limb
	}{{name: "leg", labels: []string{"near thigh", "near knee", "near foot"}, of: &p.Leg, now: whole.Leg},
		{name: "far-leg", labels: []string{"far thigh", "far knee", "far foot"}, of: &p.FarLeg, now: whole.FarLeg},
		{name: "arm", labels: []string{"near arm", "near elbow"}, of: &p.Arm, now: whole.Arm},
		{name: "far-arm", labels: []string{"far arm", "far elbow"}, of: &p.FarArm, now: whole.FarArm}} {
		for i, label := range one.labels {
			add(fmt.Sprint(one.name, i), label, one.now[i], func(v float64) {
				limb := slices.Clone(one.now)
				copy(limb, *one.of)
				limb[i] = v
				*one.of = limb
			})
		}
	}
	return all
}
