package chalk_test

import (
	"encoding/xml"
	"math"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/drill"
	"cuestart/core/figure"
	"cuestart/web/chalk"
)

// matrix is a place and a direction on a page: what groups within groups come to.
type matrix struct{ a, b, c, d, e, f float64 }

func (m matrix) times(o matrix) matrix {
	return matrix{a: m.a*o.a + m.c*o.b, b: m.b*o.a + m.d*o.b, c: m.a*o.c + m.c*o.d, d: m.b*o.c + m.d*o.d,
		e: m.a*o.e + m.c*o.f + m.e,
		f: m.b*o.e + m.d*o.f + m.f}
}

func (m matrix) at(x, y float64) figure.Point {
	return figure.Point{X: m.a*x + m.c*y + m.e, Y: -(m.b*x + m.d*y + m.f)}
}

func transform(kind, value string) matrix {
	var n []float64
	for _, one := range strings.Fields(strings.ReplaceAll(value, ",", " ")) {
		v, _ := strconv.ParseFloat(one, 64)
		n = append(n, v)
	}
	if kind == "rotate" {
		sin, cos := math.Sincos(n[0] * math.Pi / 180)
		return matrix{a: cos, b: sin, c: -sin, d: cos, e: 0, f: 0}
	}
	return matrix{a: 1, b: 0, c: 0, d: 1, e: n[0], f: n[1]}
}

type node struct {
	XMLName   xml.Name
	Class     string `xml:"class,attr"`
	Transform string `xml:"transform,attr"`
	Type      string `xml:"type,attr"`
	Values    string `xml:"values,attr"`
	D         string `xml:"d,attr"`
	R         string `xml:"r,attr"`
	CY        string `xml:"cy,attr"`
	Kids      []node `xml:",any"`
}

// tips are the ends of the limbs of what moves, at a moment: each path "M0 0V24" from its
// group, and the head's middle.
func (n *node) tips(m matrix, frame int, ends *[]figure.Point) {
	if kind, value, is := strings.Cut(strings.TrimSuffix(n.Transform, ")"), "("); is {
		m = m.times(transform(kind, value))
	}
	for i := range n.Kids {
		if k := &n.Kids[i]; k.XMLName.Local == "animateTransform" {
			m = m.times(transform(k.Type, strings.Split(k.Values, ";")[frame]))
		}
	}
	for i := range n.Kids {
		k := &n.Kids[i]
		switch {
		case k.XMLName.Local == "g":
			k.tips(m, frame, ends)
		case strings.HasPrefix(k.D, "M0 0V"):
			y, _ := strconv.ParseFloat(k.D[len("M0 0V"):], 64)
			*ends = append(*ends, m.at(0, y))
		case k.XMLName.Local == "circle" && k.R == "6.5":
			y, _ := strconv.ParseFloat(k.CY, 64)
			*ends = append(*ends, m.at(0, y))
		}
	}
}

// What the browser moves is the body that the core has, joint by joint, at every moment
// that is written; angles are written in whole degrees.
func TestWhatMovesIsTheBody(t *testing.T) {
	for _, code := range []string{"leg-swings", "air-squat", "back-wave", "jump-and-stick", "side-lunge",
		"turkish-stand", "high-knees", "push-up-plus"} {
		f := book.Figure(code)
		require.NotNil(t, f, code)
		var svg node
		require.NoError(t, xml.Unmarshal([]byte(chalk.Of(f, &drill.Drill{Name: code}).Moving()), &svg), code)
		var moving *node
		for i := range svg.Kids {
			if svg.Kids[i].Class == "fig-moving" {
				moving = &svg.Kids[i]
			}
		}
		require.NotNil(t, moving, code)
		count := 9
		if len(f.Poses) > 2 {
			count = 13
		}
		frames := f.Frames(count)
		for n, frame := range frames {
			var ends []figure.Point
			moving.tips(matrix{a: 1, b: 0, c: 0, d: 1, e: 0, f: 0}, n, &ends)
			joints := []figure.Joint{figure.FarElbow, figure.FarHand, figure.FarKnee, figure.FarAnkle, figure.FarToe,
				figure.MidBack, figure.Shoulder, figure.Neck, figure.Head, figure.Knee, figure.Ankle, figure.Toe,
				figure.Elbow, figure.Hand}
			if f.View.Frontal() {
				joints = []figure.Joint{figure.Neck, figure.Head, figure.FarKnee, figure.FarAnkle, figure.FarToe,
					figure.Knee, figure.Ankle, figure.Toe, figure.FarElbow, figure.FarHand, figure.Elbow, figure.Hand}
			} else { // the near arm has an edge of paper, so that its parts come twice
				joints = append(joints[:12:12], figure.Elbow, figure.Elbow, figure.Hand, figure.Hand)
			}
			require.Len(t, ends, len(joints), code)
			for i, joint := range joints {
				is := frame.Body[joint]
				assert.InDelta(t, 0, math.Hypot(is.X-ends[i].X, is.Y-ends[i].Y), 1.2, "%s, moment %d, %s", code, n,
					figure.Joints[joint])
			}
		}
	}
}
