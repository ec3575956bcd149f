package runin_test

import (
	"context"
	"testing"

	"cuestart/core/runin"
	"cuestart/core/runin/runintest"
)

// BenchmarkFit measures each size over twenty problems, and the score that it
// comes to: what is faster must not be worse.
func BenchmarkFit(b *testing.B) {
	for name, size := range map[string]runintest.Size{"small": runintest.Small, "middle": runintest.Middle, "large": runintest.Large, "xlarge": runintest.XLarge, "tight": runintest.Tight, "crowded": runintest.Crowded} {
		b.Run(name, func(b *testing.B) {
			total := 0.0
			for n := 0; n < b.N; n++ {
				r, _ := runin.Fit(context.Background(), runintest.Problem(uint64(n%20), size), 0)
				total += r.Score
			}
			b.ReportMetric(total/float64(b.N), "score")
		})
	}
}
