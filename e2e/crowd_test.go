package e2e

import (
	"bufio"
	"bytes"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// crowd is how many phones are open at once.
const crowd = 10_000

// players measures what players do: many pages at once, many phones open at once, and a
// new edition for all of them.
func (s *program) players(link string) error {
	if err := s.pages(link); err != nil {
		return err
	}
	before := s.memory()
	phones, err := s.openPhones(link)
	if err != nil {
		return err
	}
	defer func() {
		for _, p := range phones {
			p.line.Close()
		}
	}()
	measured("live_clients", float64(len(phones)), "phones")
	measured("kb_a_client", float64(s.memory()-before)/crowd, "kB")
	return s.newEdition(phones)
}

// pages measures pages of single players, four asked for at once.
func (s *program) pages(link string) error {
	const each, workers = 500, 4
	var mu sync.Mutex
	var times []time.Duration
	var failed atomic.Int64
	began := time.Now()
	var all sync.WaitGroup
	for w := range workers {
		all.Go(func() {
			client := http.Client{Transport: &http.Transport{DisableCompression: true}}
			for n := range each {
				asked := time.Now()
				answer, err := client.Get(fmt.Sprintf("%s%s/p%d", s.address, link, 1+(n+w)%23))
				if err != nil || answer.StatusCode != http.StatusOK {
					failed.Add(1)
					continue
				}
				bytes.NewBuffer(nil).ReadFrom(answer.Body)
				answer.Body.Close()
				mu.Lock()
				times = append(times, time.Since(asked))
				mu.Unlock()
			}
		})
	}
	all.Wait()
	if failed.Load() > 0 {
		return fmt.Errorf("%d pages of players failed", failed.Load())
	}
	measured("player_rps", workers*each/time.Since(began).Seconds(), "pages/s")
	measured("player_p95_ms", p95(times), "ms")
	return nil
}

// phone is an open page that listens.
type phone struct {
	line net.Conn
	read *bufio.Reader
}

// openPhones opens the pages' lines; each has heard the time before the next few are.
func (s *program) openPhones(link string) (phones []phone, err error) {
	host := strings.TrimPrefix(s.address, "http://")
	phones = make([]phone, crowd)
	errs := make(chan error, crowd)
	limit := make(chan struct{}, 64)
	for n := range phones {
		limit <- struct{}{}
		go func() {
			defer func() { <-limit }()
			line, err := net.Dial("tcp", host)
			if err != nil {
				errs <- err
				return
			}
			fmt.Fprintf(line, "GET %s/p%d/live?have=1 HTTP/1.1\r\nHost: %s\r\nAccept: text/event-stream\r\n\r\n", link,
				1+n%23, host)
			phones[n] = phone{line, bufio.NewReaderSize(line, 512)}
			errs <- phones[n].until("event: time")
		}()
	}
	for range phones {
		if e := <-errs; e != nil {
			err = e
		}
	}
	return phones, err
}

// until reads up to a line that begins so.
func (p phone) until(begins string) error {
	p.line.SetReadDeadline(time.Now().Add(60 * time.Second))
	for {
		line, err := p.read.ReadString('\n')
		if err != nil {
			return err
		}
		if strings.HasPrefix(line, begins) {
			return nil
		}
	}
}

// newEdition publishes a changed plan, and measures until every phone has it.
func (s *program) newEdition(phones []phone) error {
	board, err := s.get("/sessions/1?block=high")
	if err != nil {
		return err
	}
	revision := func() string {
		return regexp.MustCompile(`name="revision" value="(\d+)"`).FindStringSubmatch(board.text)[1]
	}
	if board, err = s.post("/sessions/1/blocks/high/dose", url.Values{"revision": {revision()}, "item": {"0"},
		"by": {"-1"}}); err != nil {
		return err
	}
	times, errs := make([]time.Duration, len(phones)), make(chan error, len(phones))
	var published atomic.Int64
	for n, p := range phones {
		go func() {
			err := p.until("event: edition")
			times[n] = time.Duration(time.Now().UnixNano() - published.Load())
			errs <- err
		}()
	}
	published.Store(time.Now().UnixNano())
	if _, err = s.post("/sessions/1/publish", url.Values{"revision": {revision()}}); err != nil {
		return err
	}
	for range phones {
		if err := <-errs; err != nil {
			return err
		}
	}
	slices.Sort(times)
	measured("edition_to_10000_p99_ms", float64(times[len(times)*99/100].Milliseconds()), "ms")
	update, err := phones[14].read.ReadString('\n')
	measured("update_kb", float64(len(update))/1000, "kB")
	return err
}

// memory is what the program holds, in kB.
func (s *program) memory() int {
	status, _ := os.ReadFile(fmt.Sprintf("/proc/%d/status", s.process.Process.Pid))
	found := regexp.MustCompile(`VmRSS:\s+(\d+) kB`).FindSubmatch(status)
	if found == nil {
		return 0
	}
	kb, _ := strconv.Atoi(string(found[1]))
	return kb
}

// follows measures how smoothly the bar of a step moves on a slow phone: a browser whose
// processor is six times slower.
func follows(t *testing.T, p *program) {
	page, err := p.get("/sessions/1")
	require.NoError(t, err)
	link := regexp.MustCompile(`value="http://[^/]+(/r/[\w-]+)"`).FindStringSubmatch(page.text)
	require.NotNil(t, link)
	b := newBrowser(t, p.address)
	b.size(390, 844)
	b.open(link[1] + "/p4")
	b.click(`[data-do=follow]`)
	b.click(`[data-do=own]`)
	for !eval[bool](b, `document.getAnimations().some(a => a.playState == "running")`) {
		b.click(`[data-do=done]`)
	}
	_, err = chromedp.Call(b.ctx, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: 6})
	require.NoError(t, err)
	frames := evalPromise(b, `new Promise(done => {
		let shift = 0;
		new PerformanceObserver(list => { for (const e of list.getEntries()) if (!e.hadRecentInput) shift += e.value; }).observe({type: "layout-shift", buffered: true});
		const from = performance.now();
		let n = 0;
		const next = () => { n++; performance.now() - from < 4000 ? requestAnimationFrame(next) : done(n / 4 + " " + shift); };
		requestAnimationFrame(next);
	})`)
	var fps, shift float64
	_, err = fmt.Sscan(frames, &fps, &shift)
	require.NoError(t, err)
	measured("follow_fps_6x_slower", fps, "frames/s")
	measured("follow_layout_shift", shift, "")
}
