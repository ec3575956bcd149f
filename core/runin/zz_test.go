package runin_test

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"testing"
	"time"

	"cuestart/core/runin"
	"cuestart/core/runin/runintest"
)

type ref struct {
	Value, Bound    float64
	Idle, IdleBound int
}

func TestZZQuality(t *testing.T) {
	refs := map[string]ref{}
	if text, err := os.ReadFile("/tmp/refs.json"); err == nil {
		json.Unmarshal(text, &refs)
	}
	for _, s := range []struct {
		name string
		size runintest.Size
		n    uint64
	}{{"middle", runintest.Middle, 20}, {"large", runintest.Large, 12}, {"xlarge", runintest.XLarge, 8}, {"tight", runintest.Tight, 8}, {"crowded", runintest.Crowded, 8}} {
		var worst time.Duration
		var total time.Duration
		vgap, igap, vbelow, ibelow, bestv, besti, proven, iproven := 0.0, 0.0, 0.0, 0.0, 0, 0, 0, 0
		maxbelow := 0.0
		for seed := range s.n {
			p := runintest.Problem(seed, s.size)
			key := fmt.Sprint(s.name, seed)
			began := time.Now()
			steps := 0
			if os.Getenv("LONG") != "" {
				steps = 40 * runin.DefaultSteps(p)
			}
			r, _ := runin.Fit(context.Background(), p, steps)
			took := time.Since(began)
			total += took
			worst = max(worst, took)
			old, known := refs[key]
			if !known || r.Value > old.Value+1e-6 || r.Value > old.Value-1e-6 && r.Idle < old.Idle {
				b := r.Bound
				if known {
					b = min(b, old.Bound)
				}
				refs[key] = ref{r.Value, b, r.Idle, r.IdleBound}
			}
			o := refs[key]
			vgap += (r.Bound - r.Value) / r.Bound * 100
			igap += float64(r.Idle-r.IdleBound) / float64(max(1, r.Idle)) * 100
			below := (o.Value - r.Value) / o.Value * 100
			vbelow += below
			maxbelow = max(maxbelow, below)
			if below < 1e-6 {
				bestv++
				ibelow += float64(r.Idle-o.Idle) / float64(max(1, o.Idle)) * 100
				if r.Idle == o.Idle {
					besti++
				}
			}
			if r.Bound <= r.Value+1e-6 {
				proven++
				if r.IdleBound == r.Idle {
					iproven++
				}
			}
		}
		n := float64(s.n)
		fmt.Printf("%-8s mean %v worst %v | below best: value %.3f%% (max %.2f%%), idle %.2f%%; best value %d, and idle %d of %d | gap %.2f%% idle %.1f%% | proven %d, idle too %d\n", s.name, total/time.Duration(s.n), worst, vbelow/n, maxbelow, ibelow/float64(max(1, bestv)), bestv, besti, s.n, vgap/n, igap/n, proven, iproven)
	}
	text, _ := json.Marshal(refs)
	os.WriteFile("/tmp/refs.json", text, 0o644)
}
