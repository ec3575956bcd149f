package say_test

import (
	"encoding/json"
	"os"
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/say"
)

type spoken struct {
	Context say.Context `json:"context"`
	Lines   []struct {
		Line   string         `json:"line"`
		Expect map[string]any `json:"expect"`
	} `json:"lines"`
}

func read(t testing.TB, file string) (s spoken) {
	text, err := os.ReadFile(file)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &s))
	s.Context.Book = book.Drills()
	return s
}

// A line is read as it is meant: what is expected is there, and no person, place,
// leader, hold, effort, part or cue that was not said.
func TestLinesAreReadAsTheyAreMeant(t *testing.T) {
	for _, file := range []string{"testdata/say.json", "testdata/more.json"} {
		s := read(t, file)
		r := say.NewReader(s.Context)
		for _, one := range s.Lines {
			t.Run(one.Line, func(t *testing.T) {
				line := r.Read(one.Line)
				text, err := json.Marshal(line)
				require.NoError(t, err)
				var got map[string]any
				require.NoError(t, json.Unmarshal(text, &got))
				compare(t, one.Expect, got, string(text))
			})
		}
	}
}

// unsaid may not be there unless it is expected.
var unsaid = []string{"who", "where", "leader", "at", "window", "before", "after", "straight_after", "cues", "parts",
	"effort", "efforts", "exact", "rounds", "priority", "loose", "share", "breaths", "tempo"}

func compare(t *testing.T, want, got map[string]any, whole string) {
	for field, value := range want {
		switch w := value.(type) {
		case map[string]any:
			g, _ := got[field].(map[string]any)
			compare(t, w, g, whole)
		case []any:
			list, _ := got[field].([]any)
			if inner, ok := w[0].(map[string]any); ok && inner != nil {
				if !assert.Len(t, list, len(w), "%s: %s", field, whole) {
					return
				}
				for i := range w {
					compare(t, w[i].(map[string]any), list[i].(map[string]any), whole)
				}
				continue
			}
			assert.Equal(t, value, got[field], "%s: %s", field, whole)
		default:
			if field == "directions" && value == 1. && got[field] == nil ||
				field == "sides" && value == 1. && got[field] == nil {
				continue
			}
			assert.True(t, reflect.DeepEqual(value, got[field]), "%s: want %v, got %v of %s", field, value, got[field],
				whole)
		}
	}
	for _, field := range unsaid {
		if _, expected := want[field]; !expected {
			assert.Nil(t, got[field], "%s was not said: %s", field, whole)
		}
	}
}
