package account

import (
	"context"
	"net/http"
	"net/url"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/web/shell"
)

func TestTheFirstClubsFormIsCheckedFieldByField(t *testing.T) {
	good := welcomeBody{Club: "Hollinmere", Squad: "Firsts", Sport: "netball", Grade: "club", Name: "Ada Quill",
		Email: " Ada@Hollinmere.example "}
	check := func(b welcomeBody, password string) (where []string) {
		f := shell.NewForm(url.Values{"password": {password}})
		b.check(f)
		for _, p := range shell.Problems(f.Err()) {
			where = append(where, p.Where)
		}
		return where
	}
	assert.Empty(t, check(good, "three words, my own"))
	assert.Equal(t, []string{"password"}, check(good, "too short 1"))
	for field, spoil := range map[string]func(*welcomeBody){
		"club":  func(b *welcomeBody) { b.Club = "  " },
		"squad": func(b *welcomeBody) { b.Squad = strings.Repeat("x", 81) },
		"sport": func(b *welcomeBody) { b.Sport = strings.Repeat("x", 41) },
		"grade": func(b *welcomeBody) { b.Grade = "best" },
		"name":  func(b *welcomeBody) { b.Name = "" },
	} {
		b := good
		spoil(&b)
		assert.Equal(t, []string{field}, check(b, "three words, my own"))
	}
	for _, email := range []string{"", "x", "@x", "x@", "a@b@c", "a b@c.example",
		strings.Repeat("x", 260) + "@c.example"} {
		b := good
		b.Email = email
		assert.Equal(t, []string{"email"}, check(b, "three words, my own"), email)
	}
}

func TestACommonPasswordIsRefused(t *testing.T) {
	for _, bad := range []string{"password1234", "Passw0rd!2026", "qwertyuiop12", "123456789012", "aaaaaaaaaaaa",
		"abcdefghijkl", "iloveyou2026!", "welcome12345", "adaquill2026", "hollinmere12", "elevenchars"} {
		assert.NotEmpty(t, passwordProblem(bad, "ada@hollinmere.example", "Ada Quill", "Hollinmere"), bad)
	}
	for _, good := range []string{"four kettles on a roof", "tin-Lantern-owl-9", "correct horse staple",
		"brackwater kick-off", "Marrow&Thistle88x"} {
		assert.Empty(t, passwordProblem(good, "ada@hollinmere.example", "Ada Quill", "Hollinmere"), good)
	}
}

// However many sign in at once, two passwords are hashed at a time; who waits too long
// is told so.
func TestFewPasswordsAreHashedAtOnce(t *testing.T) {
	of := NewPasswords(nil)
	first, err := of.turn(t.Context())
	require.NoError(t, err)
	second, err := of.turn(t.Context())
	require.NoError(t, err)
	hurried, cancel := context.WithTimeout(t.Context(), 20*time.Millisecond)
	defer cancel()
	_, err = of.turn(hurried)
	assert.ErrorIs(t, err, context.DeadlineExceeded)
	_, err = of.turn(t.Context())
	var refused shell.Refusal
	require.ErrorAs(t, err, &refused)
	assert.Equal(t, http.StatusServiceUnavailable, refused.Status)
	first()
	third, err := of.turn(t.Context())
	require.NoError(t, err)
	second()
	third()
}
