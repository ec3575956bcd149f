package plan_test

import (
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/core/plan"
)

// fill gives everything that v holds a value, so that a field that was added
// later is looked at too.
func fill(v reflect.Value) {
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			fill(v.Field(i))
		}
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 2, 2))
		fill(v.Index(0))
		fill(v.Index(1))
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(v.Elem())
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
		key, value := reflect.New(v.Type().Key()).Elem(), reflect.New(v.Type().Elem()).Elem()
		fill(key)
		fill(value)
		v.SetMapIndex(key, value)
	case reflect.String:
		v.SetString("x")
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int, reflect.Int64:
		v.SetInt(7)
	case reflect.Uint64:
		v.SetUint(7)
	case reflect.Float64:
		v.SetFloat(0.5)
	}
}

// shared names what two values hold in the same memory.
func shared(a, b reflect.Value, path string) (found []string) {
	switch a.Kind() {
	case reflect.Struct:
		for i := range a.NumField() {
			found = append(found, shared(a.Field(i), b.Field(i), path+"."+a.Type().Field(i).Name)...)
		}
	case reflect.Slice, reflect.Pointer, reflect.Map:
		if a.Pointer() == b.Pointer() {
			return []string{path}
		}
		if a.Kind() == reflect.Pointer {
			return shared(a.Elem(), b.Elem(), path)
		}
		for i := 0; a.Kind() == reflect.Slice && i < a.Len(); i++ {
			found = append(found, shared(a.Index(i), b.Index(i), path)...)
		}
	}
	return found
}

func TestACopySharesNothing(t *testing.T) {
	var d plan.Document
	fill(reflect.ValueOf(&d).Elem())
	c := d.Clone()
	assert.Equal(t, &d, c)
	assert.Empty(t, shared(reflect.ValueOf(d), reflect.ValueOf(*c), "document"))
	assert.Equal(t, &plan.Document{}, (&plan.Document{}).Clone(), "nothing is made of nothing")
}
