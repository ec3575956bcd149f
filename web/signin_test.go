package web

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestTheFirstClubsFormIsCheckedFieldByField(t *testing.T) {
	good := welcomeBody{Club: "Hollinmere", Squad: "Firsts", Sport: "Netball", Grade: "club", Name: "Ada Quill", Email: " Ada@Hollinmere.example "}
	checked := good
	checked.check("three words here")
	assert.Empty(t, checked.Problems)
	for field, spoil := range map[string]func(*welcomeBody) string{
		"club":     func(f *welcomeBody) string { f.Club = "  "; return "three words here" },
		"squad":    func(f *welcomeBody) string { f.Squad = strings.Repeat("x", 81); return "three words here" },
		"sport":    func(f *welcomeBody) string { f.Sport = strings.Repeat("x", 41); return "three words here" },
		"grade":    func(f *welcomeBody) string { f.Grade = "best"; return "three words here" },
		"name":     func(f *welcomeBody) string { f.Name = ""; return "three words here" },
		"password": func(f *welcomeBody) string { return "too short" },
	} {
		form := good
		password := spoil(&form)
		form.check(password)
		assert.NotEmpty(t, form.Problems.At(field), field)
		assert.Len(t, form.Problems, 1, field)
	}
	for _, email := range []string{"", "x", "@x", "x@", "a@b@c", "a b@c.example", strings.Repeat("x", 260) + "@c.example"} {
		form := good
		form.Email = email
		form.check("three words here")
		assert.NotEmpty(t, form.Problems.At("email"), email)
	}
}
