package web_test

import (
	"bytes"
	"context"
	"errors"
	"image/png"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/core/club"
	"cuestart/demo"
	"cuestart/store"
)

// newestLetter is the last that was written, and the path of the link in it.
func newestLetter(t *testing.T) (letter store.Letter, path string) {
	letters, err := storeOf(t).Accounts.Letters(ctx)
	require.NoError(t, err)
	require.NotEmpty(t, letters)
	link := regexp.MustCompile(`https?://[^/\s]+(/\S+)`).FindStringSubmatch(letters[0].Body)
	require.NotNil(t, link, letters[0].Body)
	return letters[0], link[1]
}

// A forgotten password is set anew by a letter's link: once, and every browser of its
// owner has to sign in again. Who has no account gets the same answer, and no letter.
func TestAForgottenPassword(t *testing.T) {
	base, _ := site(t, "forgot")
	owner, nobody := visit(t, base, demo.Email), visit(t, base, "")
	_, unknown, _ := nobody.post("/forgot", url.Values{"email": {"who@else.example"}})
	before, err := storeOf(t).Accounts.Letters(ctx)
	require.NoError(t, err)
	_, known, _ := nobody.post("/forgot", url.Values{"email": {" COACH@brackwater.example"}})
	assert.Equal(t, words(unknown), words(known))
	letter, link := newestLetter(t)
	assert.Equal(t, demo.Email, letter.To)
	after, err := storeOf(t).Accounts.Letters(ctx)
	require.NoError(t, err)
	assert.Len(t, after, len(before)+1, "and none to who has no account")
	assert.Contains(t, page(t, nobody, link), demo.Email)
	status, _, _ := nobody.post(link, url.Values{"password": {"short"}})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Equal(t, http.StatusOK, first(owner.get("/today")), "nothing has changed yet")
	status, _, to := nobody.post(link, url.Values{"password": {"four kettles on a roof"}})
	assert.Equal(t, []any{http.StatusSeeOther, "/sign-in"}, []any{status, to})
	assert.Equal(t, http.StatusSeeOther, first(owner.get("/today")), "signed out everywhere")
	for _, over := range []string{link, "/reset/" + strings.Repeat("a", 43), "/reset/x"} {
		assert.Equal(t, http.StatusNotFound, first(nobody.get(over)), over)
		assert.Equal(t, http.StatusNotFound, first(nobody.post(over, url.Values{"password": {"another one of mine"}})),
			over)
	}
	assert.Equal(t, http.StatusUnauthorized,
		first(nobody.post("/sign-in", url.Values{"email": {demo.Email}, "password": {demo.Password}})))
	assert.Equal(t, http.StatusSeeOther,
		first(nobody.post("/sign-in", url.Values{"email": {demo.Email}, "password": {"four kettles on a roof"}})))
}

func first(status int, _, _ string) int { return status }

// One's own account: its password asks for the present one, a second factor comes and
// goes, and other browsers are signed out one by one.
func TestOnesOwnAccount(t *testing.T) {
	base, _ := site(t, "account")
	here, there := visit(t, base, demo.Email), visit(t, base, demo.Email)
	for present, want := range map[string]int{"wrong": http.StatusUnprocessableEntity,
		demo.Password: http.StatusSeeOther} {
		assert.Equal(t, want, first(here.post("/me/password",
			url.Values{"present": {present}, "password": {"four kettles on a roof"}})), present)
	}
	assert.Equal(t, http.StatusOK, first(here.get("/me")), "still in here")
	assert.Equal(t, http.StatusSeeOther, first(there.get("/me")), "and nowhere else")
	status, _, _ := here.post("/me/factor/start", nil)
	require.Equal(t, http.StatusSeeOther, status)
	status, image, _ := here.get("/me/factor.png")
	require.Equal(t, http.StatusOK, status)
	picture, err := png.Decode(bytes.NewReader([]byte(image)))
	require.NoError(t, err)
	assert.Positive(t, picture.Bounds().Dx())
	assert.Equal(t, http.StatusUnprocessableEntity,
		first(here.post("/me/factor/off", url.Values{"present": {"wrong"}})))

	third := visit(t, base, "")
	require.Equal(t, http.StatusSeeOther,
		first(third.post("/sign-in", url.Values{"email": {demo.Email}, "password": {"four kettles on a roof"}})))
	for _, row := range strings.Split(page(t, here, "/me"), "<li")[1:] {
		if found := regexp.MustCompile(`/me/sign-ins/(\d+)/end`).FindStringSubmatch(row); found != nil &&
			!strings.Contains(row, "this one") {
			assert.Equal(t, http.StatusSeeOther, first(here.post("/me/sign-ins/"+found[1]+"/end", nil)))
		}
	}
	assert.Equal(t, http.StatusSeeOther, first(third.get("/today")), "signed out from afar")
	assert.Equal(t, http.StatusOK, first(here.get("/today")))
	stranger := visit(t, base, stranger)
	for n := range 9 {
		stranger.post("/me/sign-ins/"+id(uint64(n))+"/end", nil)
	}
	assert.Equal(t, http.StatusOK, first(here.get("/today")), "nobody else's are ended")
}

// Pages speak the club's language, and to whoever chose another that one.
func TestTheLanguageIsTheClubsOrOnesOwn(t *testing.T) {
	base, _ := site(t, "language")
	head, assistant := visit(t, base, demo.Email), visit(t, base, "assistant@brackwater.example")
	assert.Contains(t, page(t, head, "/today"), `<html lang="en"`)
	require.Equal(t, http.StatusSeeOther,
		first(head.post("/terms", url.Values{"reasons": {"90"}, "tests": {"400"}, "sessions": {"300"},
			"language": {"es"}})))
	for _, who := range []*visitor{head, assistant} {
		today := page(t, who, "/today")
		assert.Contains(t, today, `<html lang="es"`)
		assert.Contains(t, words(today), "Sesión nueva")
	}
	require.Equal(t, http.StatusSeeOther, first(assistant.post("/me/language", url.Values{"language": {"en"}})))
	assert.Contains(t, words(page(t, assistant, "/today")), "New session")
	assert.Contains(t, words(page(t, head, "/sessions/1")), "Rising loop", "what a club calls its own stays")
	_, refused, _ := head.post("/me/password", url.Values{"present": {"wrong"}, "password": {"four kettles on a roof"}})
	assert.Contains(t, refused, "Contraseña actual")
}

// How long things are kept is the head's to set, within bounds; what is set is written
// down.
func TestTheClubSetsHowLongThingsAreKept(t *testing.T) {
	base, _ := site(t, "terms")
	head, assistant := visit(t, base, demo.Email), visit(t, base, "assistant@brackwater.example")
	terms := url.Values{"reasons": {"90"}, "tests": {"400"}, "sessions": {"300"}}
	assert.Equal(t, http.StatusForbidden, first(assistant.post("/terms", terms)))
	assert.Equal(t, http.StatusSeeOther, first(head.post("/terms", terms)))
	members := page(t, head, "/staff")
	for _, value := range []string{`name="reasons" inputmode="numeric" required value="90"`, `value="400"`,
		`value="300"`} {
		assert.Contains(t, members, value)
	}
	for field, wrong := range map[string]string{"reasons": "-1", "tests": "3", "sessions": "99999"} {
		form := url.Values{"reasons": {"90"}, "tests": {"400"}, "sessions": {"300"}}
		form.Set(field, wrong)
		assert.Equal(t, http.StatusUnprocessableEntity, first(head.post("/terms", form)), field)
	}
	assert.Equal(t, http.StatusForbidden, first(assistant.get("/audit")))
	log := words(page(t, head, "/audit"))
	assert.Contains(t, log, "Ines Varley")
	assert.Equal(t, http.StatusOK, first(head.get("/audit?from=100000")))
}

// A letter that cannot be sent is tried again, and one that was sent is not.
func TestLettersAreSentOnce(t *testing.T) {
	base, _ := site(t, "letters")
	head := visit(t, base, demo.Email)
	require.NoError(t, storeOf(t).Accounts.Deliver(ctx, func(context.Context, store.Letter) error { return nil }),
		"the demo's own")
	require.Equal(t, http.StatusSeeOther,
		first(head.post("/invitations", url.Values{"name": {"Odd Fenn"}, "email": {"odd@brackwater.example"},
			"role": {"assistant"}})))
	sent, down := 0, true
	send := func(_ context.Context, l store.Letter) error {
		if down {
			return errors.New("no answer")
		}
		sent++
		assert.Equal(t, "odd@brackwater.example", l.To)
		return nil
	}
	assert.ErrorContains(t, storeOf(t).Accounts.Deliver(ctx, send), "no answer")
	down = false
	require.NoError(t, storeOf(t).Accounts.Deliver(ctx, send))
	require.NoError(t, storeOf(t).Accounts.Deliver(ctx, send))
	assert.Equal(t, 1, sent)
	_, link := newestLetter(t)
	nobody := visit(t, base, "")
	assert.Equal(t, http.StatusUnprocessableEntity, first(nobody.post(link, url.Values{"password": {"short"}})))
	assert.Equal(t, http.StatusSeeOther, first(nobody.post(link, url.Values{"password": {"four kettles on a roof"}})))
	assert.Equal(t, http.StatusOK, first(nobody.get("/today")), "in at once")
	assert.Equal(t, http.StatusNotFound, first(visit(t, base, "").get(link)), "good once")
}

// A ruling is lifted by medical staff alone.
func TestARulingIsLifted(t *testing.T) {
	base, p := site(t, "lifted")
	physio, coach := visit(t, base, demo.MedicalEmail), visit(t, base, demo.Email)
	squad, err := p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	rulings, err := store.Entries[club.Restriction](ctx, storeOf(t).Clubs, 1)
	require.NoError(t, err)
	require.NotEmpty(t, rulings)
	path := "/rulings/" + id(rulings[0].ID) + "/lift"
	assert.Equal(t, http.StatusForbidden, first(coach.post(path, nil)))
	assert.Equal(t, http.StatusSeeOther, first(physio.post(path, nil)))
	assert.NotContains(t, words(page(t, coach, "/squad?squad="+id(squad.ID))), "Under a ruling")
}
