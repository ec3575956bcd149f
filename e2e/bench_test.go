package e2e

import (
	"bufio"
	"compress/gzip"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/base64"
	"errors"
	"flag"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"runtime/debug"
	"slices"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"cuestart/book"
	"cuestart/core/clock"
	"cuestart/core/compose"
	"cuestart/core/drill"
	"cuestart/core/odds"
	"cuestart/core/plan"
	"cuestart/core/runin"
	"cuestart/core/runin/runintest"
	"cuestart/demo"
	"cuestart/mariadb"
	"cuestart/web/chalk"
)

// figures is the built program to measure; empty: nothing is measured.
var figures = flag.String("figures", "", "built program whose figures are printed, one a line: name value unit")

// TestFigures measures the built program, on a data folder of its own, and the
// engine. It holds nothing against a limit: machines are shared and noisy.
func TestFigures(t *testing.T) {
	if *figures == "" {
		t.Skip("nothing to measure: see make bench")
	}
	data := t.TempDir()
	first, err := startProgram(*figures, data) // fills the folder
	require.NoError(t, err)
	first.stop()
	p, err := startProgram(*figures, data)
	require.NoError(t, err)
	defer p.stop()
	require.NoError(t, weigh("first", data))
	measured("demo_ready", p.ready.Seconds(), "s")
	require.NoError(t, p.measure())
	follows(t, p)
	require.NoError(t, underTheHand(t, p))
	onTheDay()
	require.NoError(t, atThePitch(t))
	require.NoError(t, seasons(t, p))
	require.NoError(t, fits())
	require.NoError(t, clubs())
	require.NoError(t, weigh("last", data))
}

// arithmetic is how many milliseconds a fixed piece of it takes here and now: machines differ by
// three times from hour to hour, so what takes time is said as a multiple of it too.
var arithmetic float64

func measured(name string, value float64, unit string) {
	times := ""
	if in := map[string]float64{"us": 1e-3, "ms": 1, "s": 1000}[unit]; in > 0 && arithmetic > 0 {
		times = fmt.Sprintf(" = %.3g x arithmetic", value*in/arithmetic)
	}
	fmt.Printf("%s %.3g %s%s\n", name, value, unit, times)
}

// weigh measures what the machine is worth: a fixed piece of arithmetic, and a fixed round trip to
// the program's database.
func weigh(when, data string) error {
	dsn, running := mariadb.Running(filepath.Join(data, "mariadb"), "cuestart")
	if !running {
		return errors.New("the program has no database")
	}
	db, err := sql.Open("mysql", dsn)
	if err != nil {
		return err
	}
	defer db.Close()
	db.SetMaxOpenConns(1)
	block := make([]byte, 1<<20)
	var sums, trips []time.Duration
	for range 20 {
		began := time.Now()
		for range 32 {
			sha256.Sum256(block)
		}
		sums = append(sums, time.Since(began))
		began = time.Now()
		for range 100 {
			var one int
			if err := db.QueryRow("SELECT 1").Scan(&one); err != nil {
				return err
			}
		}
		trips = append(trips, time.Since(began))
	}
	slices.Sort(sums)
	slices.Sort(trips)
	ms := func(sorted []time.Duration) float64 { return sorted[len(sorted)/2].Seconds() * 1000 }
	arithmetic = ms(sums)
	measured("arithmetic_"+when, arithmetic, "ms")
	measured("hundred_round_trips_"+when, ms(trips), "ms")
	return nil
}

// fits measures the engine on made-up problems of each size.
func fits() error {
	allocs, bytes := uint64(0), uint64(0)
	for _, size := range []struct {
		name string
		size runintest.Size
	}{{"small", runintest.Small}, {"middle", runintest.Middle}, {"large", runintest.Large},
		{"xlarge", runintest.XLarge}} {
		var times []time.Duration
		gap, wait, n := 0.0, 0.0, 0
		for seed := range uint64(20) {
			problem := runintest.Problem(seed, size.size)
			var before, after runtime.MemStats
			runtime.ReadMemStats(&before)
			began := time.Now()
			r, err := runin.Fit(context.Background(), problem, 0)
			if err != nil {
				return err
			}
			times = append(times, time.Since(began))
			runtime.ReadMemStats(&after)
			if r.Feasible {
				gap += (r.Bound - r.Value) / r.Bound * 100
				wait += float64(r.Idle-r.IdleBound) / float64(max(1, r.Idle)) * 100
				n++
			}
			if size.name == "middle" {
				allocs += (after.Mallocs - before.Mallocs) / 20
				bytes += (after.TotalAlloc - before.TotalAlloc) / 20
			}
		}
		measured("fit_"+size.name+"_p95", p95(times), "ms")
		measured("fit_"+size.name+"_value_gap", gap/float64(n), "%")
		measured("fit_"+size.name+"_idle_gap", wait/float64(n), "%")
	}
	fmt.Printf("fit_allocs %d allocations\n", allocs)
	measured("fit_mb", float64(bytes)/1e6, "MB")
	return nil
}

// clubs measures what a coach waits for when a session is made or found in.
func clubs() error {
	debug.SetGCPercent(400) // as the program has it
	rugby, _ := book.Sport("rugby-union")
	var times []time.Duration
	for n := range 60 {
		b := compose.Brief{Title: "A v B", Kind: plan.Match,
			Start: clock.Start{Local: "2026-11-28T15:00", Zone: "Europe/London"}, Minutes: 40 + n%20, Sport: &rugby,
			Book: book.Drills(), Steps: 3000,
			Leaders: []plan.Leader{{ID: "l1", Name: "A"}, {ID: "l2", Name: "B"}, {ID: "l3", Name: "C"}}}
		for i := range 23 {
			b.Players = append(b.Players, plan.Player{ID: fmt.Sprintf("p%d", i+1), First: "P", Last: fmt.Sprint(i),
				Position: rugby.Positions[(i+n)%len(rugby.Positions)]})
			if i == n%23 {
				b.Players[i].Late = 600
			}
		}
		for i, z := range rugby.Zones {
			b.Zones = append(b.Zones, plan.Zone{ID: fmt.Sprintf("z%d", i+1), Name: z.Name, Capacity: z.Capacity,
				Lanes: z.Lanes, Metres: float64(z.Metres)})
		}
		began := time.Now()
		if _, err := compose.Compose(context.Background(), b); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	measured("compose_p95", p95(times), "ms")

	var many []drill.Drill
	for len(many) < 2000 {
		many = append(many, book.Drills()...)
	}
	many, times = many[:2000], nil
	for n := range 200 {
		q := []drill.Query{{Text: "hip"}, {Text: "jump stick"}, {Phase: "mobilise", Region: "hip"}, {Text: "zzz"},
			{Kit: drill.NoKit, Metres: 20, Text: "side"}}[n%5]
		began := time.Now()
		q.Find(many)
		times = append(times, time.Since(began))
	}
	measured("drill_search_p95", p95(times), "ms")
	return nil
}

// program is a running site and a signed-in client.
type program struct {
	process *exec.Cmd
	address string
	ready   time.Duration
	client  *http.Client
}

func startProgram(binary, data string) (*program, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, err
	}
	address := l.Addr().String()
	l.Close()
	s := &program{process: exec.CommandContext(context.Background(), binary, "demo"), address: "http://" + address}
	s.process.Env = append(os.Environ(), "CUESTART_DATA="+data, "CUESTART_ADDR="+address)
	s.process.Stderr = os.Stderr
	out, err := s.process.StdoutPipe()
	if err != nil {
		return nil, err
	}
	began := time.Now()
	if err := s.process.Start(); err != nil {
		return nil, err
	}
	if _, err := bufio.NewReader(out).ReadString('\n'); err != nil {
		return nil, fmt.Errorf("%s did not get ready: %w", binary, err)
	}
	jar, err := cookiejar.New(nil)
	if err != nil {
		return nil, err
	}
	// Bodies are counted as they are sent, so they are not unpacked by the client.
	s.client = &http.Client{Jar: jar, Transport: &http.Transport{DisableCompression: true, MaxIdleConnsPerHost: 4}}
	if _, err := s.get("/sign-in"); err != nil {
		return nil, err
	}
	s.ready = time.Since(began)
	_, err = s.post("/sign-in", url.Values{"email": {demo.Email}, "password": {demo.Password}})
	return s, err
}

func (s *program) stop() {
	s.process.Process.Signal(syscall.SIGTERM)
	s.process.Wait()
}

// answer is the body of a page, and the bytes that were sent for it.
type answer struct {
	text  string
	bytes int
}

func (s *program) get(path string) (answer, error) {
	request, err := http.NewRequest("GET", s.address+path, nil)
	if err != nil {
		return answer{}, err
	}
	return s.send(request)
}

func (s *program) post(path string, form url.Values) (answer, error) {
	return s.part(path, "board", form)
}

// part posts a form as a script of the page does that wants a part of it.
func (s *program) part(path, part string, form url.Values) (answer, error) {
	request, err := http.NewRequest("POST", s.address+path, strings.NewReader(form.Encode()))
	if err != nil {
		return answer{}, err
	}
	request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	request.Header.Set("X-Part", part)
	return s.send(request)
}

func (s *program) send(request *http.Request) (answer, error) {
	request.Header.Set("Accept-Encoding", "gzip")
	got, err := s.client.Do(request)
	if err != nil {
		return answer{}, err
	}
	defer got.Body.Close()
	body, err := io.ReadAll(got.Body)
	if err != nil || got.StatusCode != http.StatusOK {
		return answer{}, fmt.Errorf("%s %s: %s %v", request.Method, request.URL.Path, got.Status, err)
	}
	a := answer{string(body), len(body)}
	if got.Header.Get("Content-Encoding") == "gzip" {
		unpacked, err := gzip.NewReader(strings.NewReader(a.text))
		if err != nil {
			return a, err
		}
		text, err := io.ReadAll(unpacked)
		a.text = string(text)
		return a, err
	}
	return a, nil
}

func (s *program) measure() error {
	if err := s.imports(); err != nil {
		return err
	}
	const board = "/sessions/1?block=lineout"
	if err := s.views("board_p95", board); err != nil {
		return err
	}
	if err := s.views("sheet_p95", "/sessions/1/sheet"); err != nil {
		return err
	}

	revisionOf := regexp.MustCompile(`name="revision" value="(\d+)"`)
	page, err := s.get(board)
	if err != nil {
		return err
	}
	var times []time.Duration
	for n := range 100 {
		by := []string{"1", "-1"}[n%2]
		form := url.Values{"revision": {revisionOf.FindStringSubmatch(page.text)[1]}, "item": {"0"}, "by": {by}}
		began := time.Now()
		if page, err = s.post("/sessions/1/blocks/lineout/dose", form); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	measured("refit_p95", p95(times), "ms")
	times = nil
	for n := range 60 {
		began := time.Now()
		if _, err := s.get(fmt.Sprintf("/sessions/1/drag?does=order&block=bands&at=%d", -2400+30*n)); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	measured("drag_answer_p95", p95(times), "ms")
	if err := s.says(); err != nil {
		return err
	}

	kb, err := s.load("/today")
	if err != nil {
		return err
	}
	measured("first_load_kb", kb, "kB")
	page, err = s.post("/sessions/1/publish", url.Values{"revision": {revisionOf.FindStringSubmatch(page.text)[1]}})
	if err != nil {
		return err
	}
	link := regexp.MustCompile(`value="http://[^/]+(/r/[\w-]+)"`).FindStringSubmatch(page.text)
	if link == nil {
		return fmt.Errorf("the board shows no link after publishing")
	}
	if kb, err = s.load(link[1] + "/p15"); err != nil {
		return err
	}
	measured("player_load_kb", kb, "kB")
	if err := s.drawn(); err != nil {
		return err
	}
	if err := s.players(link[1]); err != nil {
		return err
	}
	return s.manySessions()
}

// onTheDay measures a large plan run through its days: 46 players in 14 groups, 40 blocks.
func onTheDay() {
	d := odds.Day{Due: map[string]clock.Offset{}, Room: map[string]int{"hall": 3}}
	for n := range 46 {
		d.Due[fmt.Sprint("p", n)] = -300
	}
	for i := range 40 {
		start := clock.Offset(-3000 + 66*i)
		b := odds.Block{ID: fmt.Sprint(i), Start: start, End: start + 240, Needs: map[string]int{"hall": 1}}
		for n := range 46 {
			if (n%14+i)%4 == 0 {
				b.Players = append(b.Players, fmt.Sprint("p", n))
			}
		}
		d.Blocks = append(d.Blocks, b)
	}
	var times []time.Duration
	for range 20 {
		began := time.Now()
		odds.Of(d)
		times = append(times, time.Since(began))
	}
	measured("holds_2000_days", p95(times), "ms")
}

// drawn measures figures: one, and a paper of forty and more.
func (s *program) drawn() error {
	largest, n := 0, 0
	began := time.Now()
	for _, d := range book.Drills() {
		if f := book.Figure(d.Code); f != nil {
			largest, n = max(largest, len(chalk.Of(f, &d).Still())), n+1
		}
	}
	measured("figure_still_us", float64(time.Since(began).Microseconds())/float64(n), "us")
	measured("figure_kb", float64(largest)/1000, "kB")
	page, err := s.get("/drills/handout?phase=activate&sport=every")
	if err != nil {
		return err
	}
	if figures := strings.Count(page.text, `<svg class="fig"`); figures < 40 {
		return fmt.Errorf("the handout has %d figures", figures)
	}
	var times []time.Duration
	for range 20 {
		began := time.Now()
		if _, err := s.get("/drills/handout.pdf?phase=activate&sport=every"); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	measured("handout_40_figures_ms", p95(times), "ms")
	return nil
}

// says measures how long a line takes to be read while it is typed.
func (s *program) says() error {
	var times []time.Duration
	for n := range 100 {
		line := []string{"jog 3 x 120 m, 50 %", "leg swings 8 each way a leg (no bounce)",
			"neck holds forward / left / right / back, 3 x 6 s each", "kicks at posts at 40, 10 and 15, far half, Pell",
			"something that no book knows 4 a side, straight after line-out"}[n%5]
		began := time.Now()
		if _, err := s.part("/sessions/1/hear", "heard", url.Values{"text": {line}}); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	measured("say_line_p95", p95(times), "ms")
	times = nil
	form := url.Values{"line": strings.Split(fortyLines, "\n")}
	for range 20 { // beside what they will be
		began := time.Now()
		if _, err := s.part("/routines/words/read", "words-are", form); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	measured("paste_40_ms", p95(times), "ms")
	return nil
}

// views measures how long a page takes.
func (s *program) views(name, path string) error {
	var times []time.Duration
	for range 200 {
		began := time.Now()
		if _, err := s.get(path); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	measured(name, p95(times), "ms")
	return nil
}

// manySessions measures the list of sessions to come where there are 200.
func (s *program) manySessions() error {
	start := time.Now().AddDate(0, 0, 30)
	for n := 4; n <= 200; n++ {
		form := url.Values{"kind": {"training"}, "title": {fmt.Sprint("Training ", n)},
			"start": {start.AddDate(0, 0, n).Format("2006-01-02T15:04")}, "squad": {"1"}, "from": {"last"}}
		if _, err := s.post("/sessions", form); err != nil {
			return err
		}
	}
	return s.views("today_sessions_p95", "/today")
}

// imports measures how long a list of 300 players takes from the file to kept.
func (s *program) imports() error {
	text := "number;first name;last name\n"
	for n := 1; n <= 300; n++ {
		text += fmt.Sprintf("%d;Nova%d;Brisk\n", 100+n, n)
	}
	began := time.Now()
	form := url.Values{"kind": {"squad"}, "squad": {"1"}, "file64": {base64.StdEncoding.EncodeToString([]byte(text))}}
	if _, err := s.post("/import", form); err != nil {
		return err
	}
	form.Set("take", "yes")
	page, err := s.post("/import", form)
	if err != nil {
		return err
	}
	if !strings.Contains(page.text, "331 players") {
		return fmt.Errorf("the list was not taken over")
	}
	measured("import_300", time.Since(began).Seconds(), "s")
	_, err = s.post("/take-back", url.Values{"back": {"/today"}})
	return err
}

// load is what a browser with nothing kept fetches for a page: the page, what it names, and the
// fonts that its text needs.
func (s *program) load(path string) (kb float64, err error) {
	page, err := s.get(path)
	if err != nil {
		return 0, err
	}
	total := page.bytes
	wanted := map[string]bool{}
	for _, m := range regexp.MustCompile(`(?:src|href)="(/assets/[^"]+)"`).FindAllStringSubmatch(page.text, -1) {
		wanted[m[1]] = true
	}
	// The upright Latin fonts; bold text only where the page has it in text face.
	for _, m := range regexp.MustCompile(`/assets/\w+/`).FindAllString(page.text, 1) {
		if strings.Contains(page.text, `class="phone"`) {
			wanted[m+"fonts/barlow-condensed-small-600-normal.woff2"] = true
			wanted[m+"fonts/atkinson-hyperlegible-small-400-normal.woff2"] = true
			continue
		}
		for _, font := range []string{"barlow-condensed-latin-600", "atkinson-hyperlegible-latin-400",
			"atkinson-hyperlegible-latin-700"} {
			wanted[m+"fonts/"+font+"-normal.woff2"] = true
		}
	}
	for asset := range wanted {
		a, err := s.get(asset)
		if err != nil {
			return 0, err
		}
		total += a.bytes
	}
	return float64(total) / 1000, nil
}

func p95(times []time.Duration) float64 {
	slices.Sort(times)
	return float64(times[len(times)*95/100].Microseconds()) / 1000
}
