package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/mariadb/mariadbtest"
)

var binary string

func TestMain(m *testing.M) {
	os.Exit(func() int {
		os.Setenv("TMPDIR", mariadbtest.Folder()) // for t.TempDir
		dir, err := os.MkdirTemp("", "cuestart-cmd")
		if err != nil {
			panic(err)
		}
		defer os.RemoveAll(dir)
		binary = filepath.Join(dir, "cuestart")
		if out, err := exec.Command("go", "build", "-o", binary, ".").CombinedOutput(); err != nil {
			panic(string(out))
		}
		return m.Run()
	}())
}

// program is a running cuestart.
type program struct {
	*exec.Cmd
	address string
	lines   chan string
}

func freePort(t *testing.T) string {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	return l.Addr().String()
}

// start runs a command until it says that it is ready.
func start(t *testing.T, data, address, command string) *program {
	p := &program{Cmd: exec.Command(binary, command), address: "http://" + address, lines: make(chan string, 20)}
	p.Env = append(os.Environ(), "CUESTART_DATA="+data, "CUESTART_ADDR="+address)
	p.Stderr = os.Stderr
	out, err := p.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, p.Start())
	t.Cleanup(func() { p.Process.Kill(); p.Wait() })
	go func() {
		for lines := bufio.NewScanner(out); lines.Scan(); {
			p.lines <- lines.Text()
		}
		close(p.lines)
	}()
	select {
	case line := <-p.lines:
		require.Contains(t, line, "is ready at "+p.address)
	case <-time.After(90 * time.Second):
		require.Fail(t, "it did not get ready")
	}
	return p
}

// fails runs a command that must end by itself, and returns its one sentence.
func fails(t *testing.T, env []string, args ...string) string {
	c := exec.Command(binary, args...)
	c.Env = append(os.Environ(), env...)
	var said bytes.Buffer
	c.Stderr = &said
	err := c.Run()
	var exit *exec.ExitError
	require.ErrorAs(t, err, &exit)
	assert.Equal(t, 1, exit.ExitCode())
	assert.Equal(t, 1, strings.Count(said.String(), "\n"), said.String())
	return said.String()
}

// coach signs in to a running demo.
func coach(t *testing.T, p *program) *http.Client {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	client := &http.Client{Jar: jar, Timeout: 20 * time.Second}
	answer, err := client.PostForm(p.address+"/sign-in", url.Values{"email": {demo.Email}, "password": {demo.Password}})
	require.NoError(t, err)
	answer.Body.Close()
	require.Equal(t, "/today", answer.Request.URL.Path)
	return client
}

// alive tells whether a process runs; one that ended but was not fetched by its
// parent does not.
func alive(pid int) bool {
	line, err := os.ReadFile(fmt.Sprintf("/proc/%d/cmdline", pid))
	return err == nil && len(line) > 0
}

func page(t *testing.T, c *http.Client, address string) string {
	answer, err := c.Get(address)
	require.NoError(t, err)
	defer answer.Body.Close()
	var text bytes.Buffer
	_, err = text.ReadFrom(answer.Body)
	require.NoError(t, err)
	return text.String()
}

func TestNothingIsLostWhenEitherProcessIsKilled(t *testing.T) {
	data, address := t.TempDir(), freePort(t)
	p := start(t, data, address, "demo")
	assert.Contains(t, <-p.lines, demo.Password, "the sign-in comes last")
	client := coach(t, p)
	answer, err := client.PostForm(p.address+"/sessions/1/blocks/lineout/dose",
		url.Values{"revision": {"1"}, "item": {"0"}, "amount": {"11"}})
	require.NoError(t, err)
	answer.Body.Close()
	require.Equal(t, http.StatusOK, answer.StatusCode)

	assert.Contains(t, fails(t, []string{"CUESTART_DATA=" + data, "CUESTART_ADDR=" + address}, "demo"),
		"running already")
	assert.Contains(t, fails(t, []string{"CUESTART_DATA=" + data, "CUESTART_ADDR=" + freePort(t)}, "demo"),
		"another Cue Start is running with this data folder")

	// The database dies: the site brings it back by itself.
	pid := func() int {
		text, err := os.ReadFile(filepath.Join(data, "mariadb", "pid"))
		require.NoError(t, err)
		n, err := strconv.Atoi(strings.TrimSpace(string(text)))
		require.NoError(t, err)
		return n
	}
	require.NoError(t, syscall.Kill(pid(), syscall.SIGKILL))
	require.Eventually(t, func() bool {
		return strings.Contains(page(t, client, p.address+"/sessions/1?block=lineout"), "11 throws")
	}, 30*time.Second, 200*time.Millisecond)

	// The database stalls: who asks is told soon, and served again afterwards.
	require.NoError(t, syscall.Kill(pid(), syscall.SIGSTOP))
	health := func(status int) func() bool {
		return func() bool {
			begun := time.Now()
			answer, err := client.Get(p.address + "/healthz")
			require.NoError(t, err)
			answer.Body.Close()
			assert.Less(t, time.Since(begun), 5*time.Second)
			return answer.StatusCode == status
		}
	}
	require.Eventually(t, health(http.StatusServiceUnavailable), 30*time.Second, 100*time.Millisecond)
	require.NoError(t, syscall.Kill(pid(), syscall.SIGCONT))
	require.Eventually(t, health(http.StatusOK), 30*time.Second, 100*time.Millisecond)

	// The site dies, and its database with it: the same command comes up again.
	orphan := pid()
	require.NoError(t, p.Process.Kill())
	p.Wait()
	require.Eventually(t, func() bool { return !alive(orphan) }, 10*time.Second, 20*time.Millisecond,
		"nothing is left behind")
	p = start(t, data, address, "demo")
	assert.Contains(t, page(t, client, p.address+"/sessions/1?block=lineout"), "11 throws",
		"and the coach is still signed in")
	assert.False(t, alive(orphan))

	// A polite end ends both.
	second := pid()
	require.NoError(t, p.Process.Signal(syscall.SIGTERM))
	require.NoError(t, p.Wait())
	assert.False(t, alive(second))
}

func TestWhatCannotStartSaysSoInOneSentence(t *testing.T) {
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer taken.Close()
	go http.Serve(taken, http.NotFoundHandler())
	data := "CUESTART_DATA=" + t.TempDir()
	assert.Contains(t, fails(t, []string{data, "CUESTART_ADDR=" + taken.Addr().String()}, "serve"),
		"another program uses")
	free := "CUESTART_ADDR=" + freePort(t)
	assert.Contains(t, fails(t, []string{free, "CUESTART_DATA=/proc/nowhere"}, "serve"), "cannot be made")
	assert.Contains(t, fails(t, []string{free, data, "PATH=/nowhere", "CUESTART_DSN=nonsense"}, "serve"),
		"CUESTART_DSN is not of the form")
	assert.Contains(t, fails(t, []string{free, data, "CUESTART_DSN=a:b@tcp(127.0.0.1:1)/c"}, "serve"),
		"does not answer")
}

func TestADiskThatIsFullIsSaid(t *testing.T) {
	if os.Geteuid() != 0 {
		t.Skip("only root can make a small disk")
	}
	disk := t.TempDir()
	if err := syscall.Mount("tmpfs", disk, "tmpfs", 0, "size=40m"); err != nil {
		t.Skip("no small disk can be made here: ", err)
	}
	defer syscall.Unmount(disk, 0)
	assert.Contains(t, fails(t, []string{"CUESTART_ADDR=" + freePort(t), "CUESTART_DATA=" + disk}, "serve"),
		"the disk is full")
}

// command runs a command on an input, and returns output, complaint and exit code.
func command(t *testing.T, input string, args ...string) (out, said string, code int) {
	c := exec.Command(binary, args...)
	c.Stdin = strings.NewReader(input)
	var stdout, stderr bytes.Buffer
	c.Stdout, c.Stderr = &stdout, &stderr
	err := c.Run()
	var exit *exec.ExitError
	if errors.As(err, &exit) {
		return stdout.String(), stderr.String(), exit.ExitCode()
	}
	require.NoError(t, err)
	return stdout.String(), stderr.String(), 0
}

func TestTheEngineReadsAndAnswersJSON(t *testing.T) {
	text, err := os.ReadFile("../../core/runin/testdata/fit-01.json")
	require.NoError(t, err)
	var vector struct{ Problem json.RawMessage }
	require.NoError(t, json.Unmarshal(text, &vector))
	problem := string(vector.Problem)
	out, _, code := command(t, problem, "fit", "-")
	assert.Equal(t, 0, code)
	assert.Contains(t, out, `"feasible":true,"value":21,"bound":21,"idle":0,"idle_bound":0`)
	out, _, code = command(t, problem, "cutdowns", "--steps", "20000", "-")
	assert.Equal(t, 0, code)
	assert.Contains(t, out, `"less":300`)
	out, _, code = command(t, `{"air_celsius":18,"pieces":[{"effort":0.5,"seconds":600},{"effort":0,"seconds":480}]}`,
		"warmth", "-")
	assert.Equal(t, 0, code)
	assert.Contains(t, out, `"end":1.384`)
	home, err := json.Marshal(demo.HomeMatch(time.Date(2026, 11, 28, 15, 0, 0, 0, time.UTC)))
	require.NoError(t, err)
	out, said, code := command(t, string(home), "check", "-")
	assert.Equal(t, 0, code, said)
	assert.Contains(t, out, `"rule":"queue"`)

	out, said, code = command(t, `{"poses":[{"leg":[40,70],"lean":20}]}`, "draw", "-")
	assert.Equal(t, 0, code, said)
	assert.NoError(t, xml.Unmarshal([]byte(out), new(struct {
		XMLName xml.Name `xml:"svg"`
	})))
	for bad, place := range map[string]string{
		`{"poses":[{"leg":[0,200]}]}`: "pose 1: the knee does -8 to 160 degrees, not 200",
		`{"poses":[{"lean":NaN}]}`:    "line 1, column 19", `{"poses":[{"tail":[1]}]}`: "poses[0]",
		`{"poses":[` + strings.Repeat("{},", 999) + `{}]}`: "poses: maxItems", `{}`: "a figure has 1 to 4 poses, not 0",
		`{"view":"above","course":{"ways":[]}}`: "course.ways",
	} {
		out, said, code := command(t, bad, "draw", "-")
		assert.Equal(t, 2, code, place)
		assert.Empty(t, out)
		assert.Contains(t, said, place)
	}

	for bad, place := range map[string]string{
		`{`:  "unexpected EOF",
		`[]`: "the file: got array, want object",
		strings.Replace(problem, `"grid": 5`, `"grid": 5, "jumps": 1`, 1): "jumps",
		strings.Replace(problem, `"grid": 5`, `"grid": "x"`, 1):           "grid: got string, want integer",
		strings.Replace(problem, `"seconds": 180`, `"seconds": NaN`, 1):   "line",
		strings.Replace(problem, `"open": -1200`, `"open": -100`,
			1): `players[0] "p1": it ends at -480, before it begins at -100`,
		problem + "x": "not one JSON value",
		strings.Replace(problem, `"id": "catch",`, `"id": "catch", "after": ["catch"],`,
			1): "in a circle",
		`{"grid":5,"phases":[],"players":[],"blocks":` + strings.Repeat("[", 20000) + strings.Repeat("]", 20000) +
			"}": "max depth",
		`{"grid":5,"phases":[],"players":[{"id":"a","open":-9,"due":0}],"blocks":[` + strings.Repeat(`{},`, 100000) +
			"{}]}": "blocks",
		strings.Repeat(" ", 17<<20): "larger than 16 MB",
	} {
		out, said, code := command(t, bad, "fit", "-")
		assert.Equal(t, 2, code, place)
		assert.Empty(t, out)
		assert.Equal(t, 1, strings.Count(said, "\n"), said)
		assert.Contains(t, said, place)
	}
	_, said, code = command(t, "", "fit", "no-such-file.json")
	assert.Equal(t, 2, code)
	assert.Contains(t, said, "cannot be read")
	_, said, code = command(t, strings.Replace(string(home), `"margin":600`, `"margin":-1`, 1), "check", "-")
	assert.Equal(t, 2, code)
	assert.Contains(t, said, "margin")
}
