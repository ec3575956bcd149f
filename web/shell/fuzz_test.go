package shell

import (
	"net/url"
	"testing"
	"time"
)

// Whatever is sent, a field is read within its limits or refused; nothing else
// comes of it.
func FuzzForm(f *testing.F) {
	for _, seed := range []string{"", "0", "12", "-5", "1,5", "4:30", "@13:52", "@25:61", "1e309", "NaN", "\x00",
		"99999999999999999999", "2026-11-28T15:00"} {
		f.Add(seed)
	}
	start := time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)
	f.Fuzz(func(t *testing.T, sent string) {
		read := func(do func(f *Form)) (refused bool) {
			form := NewForm(url.Values{"field": {sent}})
			do(form)
			return form.Err() != nil
		}
		var n int
		if !read(func(f *Form) { n = f.Int("field", -3, 1440) }) && (n < -3 || n > 1440) {
			t.Errorf("%q was read as %d", sent, n)
		}
		if !read(func(f *Form) { n = f.IntOr("field", 7, 0, 10) }) && n != 7 && (n < 0 || n > 10) {
			t.Errorf("%q was read as %d", sent, n)
		}
		var x float64
		var there bool
		if !read(func(f *Form) { x, there = f.Decimal("field", "no") }) && there && (x != x || x-x != 0) {
			t.Errorf("%q was read as %v", sent, x)
		}
		form := NewForm(url.Values{"field": {sent}})
		if m := form.Moment("field"); form.Err() == nil {
			again := NewForm(url.Values{"field": {MomentText(m, start)}})
			if again.Moment("field") != m || again.Err() != nil {
				t.Errorf("%q was read as %v, which is written %q", sent, m, MomentText(m, start))
			}
		}
		read(func(f *Form) { f.ID("field"); f.Count("field"); f.Entries("field"); f.Day() })
	})
}
