// Command bench measures the built program and prints a figure a line: name,
// value, unit. It runs against a data folder of its own.
package main

import (
	"bufio"
	"compress/gzip"
	"context"
	"fmt"
	"io"
	"log"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"regexp"
	"runtime"
	"slices"
	"strings"
	"syscall"
	"time"

	"cuestart/core/runin"
	"cuestart/core/runin/runintest"
	"cuestart/demo"
)

func main() {
	log.SetFlags(0)
	if len(os.Args) != 2 {
		log.Fatal("usage: bench PROGRAM")
	}
	if err := run(os.Args[1]); err != nil {
		log.Fatal("bench: ", err)
	}
}

func figure(name string, value float64, unit string) { fmt.Printf("%s %.3g %s\n", name, value, unit) }

func run(binary string) error {
	data, err := os.MkdirTemp("", "cuestart-bench")
	if err != nil {
		return err
	}
	defer os.RemoveAll(data)
	first, err := start(binary, data) // fills the folder
	if err != nil {
		return err
	}
	first.stop()
	site, err := start(binary, data)
	if err != nil {
		return err
	}
	defer site.stop()
	figure("demo_ready", site.ready.Seconds(), "s")
	if err := site.measure(); err != nil {
		return err
	}
	return fits()
}

// fits measures the engine on made-up problems of each size.
func fits() error {
	gap, n, allocs := 0.0, 0, uint64(0)
	for _, size := range []struct {
		name string
		size runintest.Size
	}{{"small", runintest.Small}, {"middle", runintest.Middle}, {"large", runintest.Large}, {"xlarge", runintest.XLarge}} {
		var times []time.Duration
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
			if r.Feasible && r.Score > 0 {
				gap += (r.Bound - r.Score) / r.Score * 100
				n++
			}
			if size.name == "middle" {
				allocs += (after.Mallocs - before.Mallocs) / 20
			}
		}
		figure("fit_"+size.name+"_p95", p95(times), "ms")
	}
	figure("fit_gap_pct", gap/float64(n), "%")
	fmt.Printf("fit_allocs %d allocations\n", allocs)
	return nil
}

// site is a running program and a signed-in client.
type site struct {
	process *exec.Cmd
	address string
	ready   time.Duration
	client  *http.Client
}

func start(binary, data string) (*site, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return nil, err
	}
	address := l.Addr().String()
	l.Close()
	s := &site{process: exec.CommandContext(context.Background(), binary, "demo"), address: "http://" + address}
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

func (s *site) stop() {
	s.process.Process.Signal(syscall.SIGTERM)
	s.process.Wait()
}

// answer is the body of a page, and the bytes that were sent for it.
type answer struct {
	text  string
	bytes int
}

func (s *site) get(path string) (answer, error) {
	request, err := http.NewRequest("GET", s.address+path, nil)
	if err != nil {
		return answer{}, err
	}
	return s.send(request)
}

func (s *site) post(path string, form url.Values) (answer, error) {
	request, err := http.NewRequest("POST", s.address+path, strings.NewReader(form.Encode()))
	if err != nil {
		return answer{}, err
	}
	request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	request.Header.Set("X-Part", "board")
	return s.send(request)
}

func (s *site) send(request *http.Request) (answer, error) {
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

func (s *site) measure() error {
	const board = "/sessions/1?block=lineout"
	var times []time.Duration
	for range 200 {
		began := time.Now()
		if _, err := s.get(board); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	figure("board_p95", p95(times), "ms")

	editionOf := regexp.MustCompile(`name="edition" value="(\d+)"`)
	page, err := s.get(board)
	if err != nil {
		return err
	}
	times = nil
	for n := range 100 {
		by := []string{"1", "-1"}[n%2]
		form := url.Values{"edition": {editionOf.FindStringSubmatch(page.text)[1]}, "item": {"0"}, "by": {by}}
		began := time.Now()
		if page, err = s.post("/sessions/1/blocks/lineout/dose", form); err != nil {
			return err
		}
		times = append(times, time.Since(began))
	}
	figure("refit_p95", p95(times), "ms")

	kb, err := s.load("/today")
	if err != nil {
		return err
	}
	figure("first_load_kb", kb, "kB")
	page, err = s.post("/sessions/1/publish", url.Values{"edition": {editionOf.FindStringSubmatch(page.text)[1]}})
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
	figure("player_load_kb", kb, "kB")
	return nil
}

// load is what a browser with nothing kept fetches for a page: the page, what
// it names, and the fonts that its text needs.
func (s *site) load(path string) (kb float64, err error) {
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
		wanted[m+"fonts/barlow-condensed-latin-600-normal.woff2"] = true
		wanted[m+"fonts/atkinson-hyperlegible-latin-400-normal.woff2"] = true
		if !strings.Contains(page.text, `class="phone"`) {
			wanted[m+"fonts/atkinson-hyperlegible-latin-700-normal.woff2"] = true
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
