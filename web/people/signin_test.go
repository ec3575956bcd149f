package people

import (
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"cuestart/web/shell"
)

func TestTheFirstClubsFormIsCheckedFieldByField(t *testing.T) {
	good := welcomeBody{Club: "Hollinmere", Squad: "Firsts", Sport: "netball", Grade: "club", Name: "Ada Quill", Email: " Ada@Hollinmere.example "}
	check := func(b welcomeBody, password string) (where []string) {
		f := shell.NewForm(url.Values{"password": {password}})
		b.check(f)
		for _, p := range shell.Problems(f.Err()) {
			where = append(where, p.Where)
		}
		return where
	}
	assert.Empty(t, check(good, "three words here"))
	assert.Equal(t, []string{"password"}, check(good, "too short"))
	for field, spoil := range map[string]func(*welcomeBody){
		"club":  func(b *welcomeBody) { b.Club = "  " },
		"squad": func(b *welcomeBody) { b.Squad = strings.Repeat("x", 81) },
		"sport": func(b *welcomeBody) { b.Sport = strings.Repeat("x", 41) },
		"grade": func(b *welcomeBody) { b.Grade = "best" },
		"name":  func(b *welcomeBody) { b.Name = "" },
	} {
		b := good
		spoil(&b)
		assert.Equal(t, []string{field}, check(b, "three words here"))
	}
	for _, email := range []string{"", "x", "@x", "x@", "a@b@c", "a b@c.example", strings.Repeat("x", 260) + "@c.example"} {
		b := good
		b.Email = email
		assert.Equal(t, []string{"email"}, check(b, "three words here"), email)
	}
}
