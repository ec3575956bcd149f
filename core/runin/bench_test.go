package runin_test

import (
	"context"
	"testing"

	"cuestart/core/runin"
	"cuestart/core/runin/runintest"
)

// BenchmarkFit measures each size over twenty problems, and the value and the
// idle that it comes to: what is faster must not be worse.
func BenchmarkFit(b *testing.B) {
	for name, size := range map[string]runintest.Size{"small": runintest.Small, "middle": runintest.Middle,
		"large": runintest.Large, "xlarge": runintest.XLarge, "tight": runintest.Tight, "crowded": runintest.Crowded} {
		b.Run(name, func(b *testing.B) {
			value, idle, gap, wait := 0.0, 0.0, 0.0, 0.0
			for n := 0; n < b.N; n++ {
				r, _ := runin.Fit(context.Background(), runintest.Problem(uint64(n%20), size), 0)
				value += r.Value / float64(b.N)
				idle += float64(r.Idle) / float64(b.N)
				gap += (r.Bound - r.Value) / r.Bound * 100 / float64(b.N)
				wait += float64(r.Idle-r.IdleBound) / float64(max(1, r.Idle)) * 100 / float64(b.N)
			}
			b.ReportMetric(value, "value")
			b.ReportMetric(idle, "idle")
			b.ReportMetric(gap, "gap%")
			b.ReportMetric(wait, "idle-gap%")
		})
	}
}
