package chalk

import (
	"fmt"
	"html/template"
	"math"
	"strings"
)

// Pair is a result before and after.
type Pair struct {
	Name     string
	From, To float64
	Real     bool // the change is likely real
}

// Sizes of a chart of pairs, in its own units.
const (
	pairsWide   = 540
	pairsLeft   = 150
	pairsRight  = 60
	pairsRow    = 26
	pairsTop    = 34
	pairsBottom = 30
)

// Pairs draws results before and after, a player a line, on one scale with its unit: a ring
// before, a full dot after, bold where the change is likely real. Nothing is drawn of nobody.
func Pairs(list []Pair, unit string) template.HTML {
	if len(list) == 0 {
		return ""
	}
	low, high := math.Inf(1), math.Inf(-1)
	for _, p := range list {
		low, high = min(low, p.From, p.To), max(high, p.From, p.To)
	}
	step := niceStep((high - low) / 4)
	low, high = math.Floor(low/step)*step, math.Ceil(high/step)*step
	if high <= low {
		high = low + step
	}
	x := func(v float64) float64 { return pairsLeft + (v-low)/(high-low)*(pairsWide-pairsLeft-pairsRight) }
	height := pairsTop + pairsRow*len(list) + pairsBottom
	var b strings.Builder
	fmt.Fprintf(&b,
		`<svg class="chart" viewBox="0 0 %d %d" role="img" aria-label="Results before and after in %s, by player">`,
		pairsWide, height, template.HTMLEscapeString(unit))
	for v := low; v <= high+step/2; v += step {
		fmt.Fprintf(&b,
			`<line class="grid" x1="%.1f" y1="%d" x2="%.1f" y2="%d"/><text class="clock" x="%.1f" y="%d" text-anchor="middle">%s</text>`,
			x(v), pairsTop-8, x(v), height-pairsBottom+4, x(v), height-10, plainNumber(v, step))
	}
	fmt.Fprintf(&b, `<text class="clock" x="%d" y="%d" text-anchor="end">%s</text>`, pairsWide-2, height-10,
		template.HTMLEscapeString(unit))
	for i, p := range list {
		y := float64(pairsTop + pairsRow*i + pairsRow/2)
		width, last := 1.5, x(max(p.From, p.To))+10
		if p.Real {
			width = 4
		}
		fmt.Fprintf(&b, `<text class="names" x="%d" y="%.1f" text-anchor="end">%s</text>`, pairsLeft-12, y+5,
			template.HTMLEscapeString(p.Name))
		fmt.Fprintf(&b, `<line x1="%.1f" y1="%.1f" x2="%.1f" y2="%.1f" stroke="var(--ink)" stroke-width="%g"/>`,
			x(p.From), y, x(p.To), y, width)
		fmt.Fprintf(&b,
			`<circle cx="%.1f" cy="%.1f" r="5" fill="var(--paper)" stroke="var(--ink)" stroke-width="1.5"/><circle cx="%.1f" cy="%.1f" r="5.5" fill="var(--ink)"/>`,
			x(p.From), y, x(p.To), y)
		fmt.Fprintf(&b, `<text class="name-small" x="%.1f" y="%.1f">%+.3g</text>`, last, y+5, p.To-p.From)
	}
	fmt.Fprintf(&b,
		`<circle cx="%d" cy="11" r="5" fill="var(--paper)" stroke="var(--ink)" stroke-width="1.5"/><text class="clock" x="%d" y="16">before</text>`,
		pairsLeft+5, pairsLeft+16)
	fmt.Fprintf(&b,
		`<circle cx="%d" cy="11" r="5.5" fill="var(--ink)"/><text class="clock" x="%d" y="16">after; a bold line: likely real</text></svg>`,
		pairsLeft+85, pairsLeft+96)
	return template.HTML(b.String())
}

// niceStep is a round step of a scale that is at least so large.
func niceStep(least float64) float64 {
	if !(least > 0) {
		return 1
	}
	ten := math.Pow(10, math.Floor(math.Log10(least)))
	for _, by := range []float64{1, 2, 5} {
		if by*ten >= least {
			return by * ten
		}
	}
	return 10 * ten
}

// plainNumber writes a number of a scale with as many places as its step has.
func plainNumber(v, step float64) string {
	places := max(0, int(math.Ceil(-math.Log10(step))))
	return fmt.Sprintf("%.*f", places, v)
}
