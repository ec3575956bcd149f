package web_test

import (
	"bufio"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
)

// cut sends a form of which half is missing, and reads the answer all the same.
func (v *visitor) cut(path, sent string) int {
	at, err := url.Parse(v.base)
	require.NoError(v.t, err)
	line, err := net.Dial("tcp", at.Host)
	require.NoError(v.t, err)
	defer line.Close()
	cookies := ""
	for _, c := range v.http.Jar.Cookies(at) {
		cookies += c.String() + "; "
	}
	_, err = fmt.Fprintf(line, "POST %s HTTP/1.1\r\nHost: %s\r\nCookie: %s\r\n"+
		"Content-Type: application/x-www-form-urlencoded\r\nContent-Length: %d\r\n\r\n%s",
		path, at.Host, cookies, 2*len(sent), sent)
	require.NoError(v.t, err)
	require.NoError(v.t, line.(*net.TCPConn).CloseWrite())
	answer, err := http.ReadResponse(bufio.NewReader(line), nil)
	require.NoError(v.t, err, path)
	defer answer.Body.Close()
	return answer.StatusCode
}

// A form whose sending breaks off changes nothing, whichever it is, though each of its fields
// that came is good; and one of a plan that nobody has any more is answered with a sentence.
func TestAFormThatEndsEarlyChangesNothing(t *testing.T) {
	base, p, parts := planted(t, "early")
	coach := visit(t, base, demo.Email)
	revision, _, err := p.Boards.InForce(ctx, 1, 1)
	require.NoError(t, err)
	squad, err := p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	before, tried := whole(t, coach), 0
	for _, r := range routesOf(t) {
		if r.method != "Post" || r.path == "/sign-out" || strings.HasPrefix(r.path, "/me/") {
			continue
		}
		path := address(r, parts)
		sent := "revision=" + itoa(revision) + "&title=Cut&name=Cut&first=Cut&slack=60&use=yes&text=Jog+2+min&"
		assert.Equal(t, http.StatusBadRequest, coach.cut(path, sent), path)
		tried++
	}
	assert.Greater(t, tried, 100)
	now, _, err := p.Boards.InForce(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, revision, now)
	assert.Equal(t, before, whole(t, coach))
	after, err := p.Keep.Squad(ctx, 1, 1)
	require.NoError(t, err)
	assert.Equal(t, squad, after)
	for _, r := range routesOf(t) {
		if r.method != "Post" || !strings.HasPrefix(r.path, "/sessions/:session/") {
			continue
		}
		for _, outdated := range []string{"0", "-1", "4294967295", "18446744073709551616", "x", ""} {
			status, text, _ := coach.post(address(r, parts), url.Values{"revision": {outdated}})
			assert.Less(t, status, 500, "%s as of %s", r.path, outdated)
			assert.NotContains(t, text, "runtime error", r.path)
		}
	}
}
