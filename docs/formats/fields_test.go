package formats_test

import (
	"encoding/json"
	"os"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/figure"
	"cuestart/core/plan"
)

// schema is what the test needs to know of one.
type schema struct {
	Ref        string            `json:"$ref"`
	Properties map[string]schema `json:"properties"`
	Items      *schema           `json:"items"`
	Defs       map[string]schema `json:"$defs"`
}

// A field that is written and that no file may have would lose a plan or a figure on its way.
func TestEveryFieldMayStandInAFile(t *testing.T) {
	everyField(t, "plan", reflect.TypeFor[plan.Document]())
	everyField(t, "figure", reflect.TypeFor[figure.Figure]())
}

func everyField(t *testing.T, name string, of reflect.Type) {
	text, err := os.ReadFile(name + ".schema.json")
	require.NoError(t, err)
	var root schema
	require.NoError(t, json.Unmarshal(text, &root))
	var walk func(at string, of reflect.Type, s schema)
	walk = func(at string, of reflect.Type, s schema) {
		for s.Ref != "" {
			if name, is := strings.CutPrefix(s.Ref, "#/$defs/"); is {
				s = root.Defs[name]
			} else {
				s = root.Properties[strings.TrimPrefix(s.Ref, "#/properties/")]
			}
		}
		switch of.Kind() {
		case reflect.Pointer:
			walk(at, of.Elem(), s)
		case reflect.Slice:
			if s.Items != nil {
				walk(at+"[]", of.Elem(), *s.Items)
			}
		case reflect.Struct:
			for i := range of.NumField() {
				name, _, _ := strings.Cut(of.Field(i).Tag.Get("json"), ",")
				if name == "" || name == "-" {
					continue
				}
				one, known := s.Properties[name]
				if assert.True(t, known, at+"."+name) {
					walk(at+"."+name, of.Field(i).Type, one)
				}
			}
		}
	}
	walk(name, of, root)
}
