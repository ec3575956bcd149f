// Package e2e drives the real interface: the site on a real private MariaDB, in headless
// Chromium.
package e2e

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"
	_ "time/tzdata"

	"github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"cuestart/demo"
	"cuestart/demo/demotest"
	"cuestart/live"
	"cuestart/mariadb"
	"cuestart/mariadb/mariadbtest"
	"cuestart/planner/office"
	"cuestart/store"
	"cuestart/web"
	"cuestart/web/shell"
)

// shots is where pictures of the main views are written; empty: none are.
var shots = flag.String("shots", "", "folder for a picture of each main view")

// now is the moment of every test: the Wednesday before the home match.
var now = time.Date(2026, 11, 25, 10, 42, 0, 0, time.UTC)

var server *mariadb.Server

func TestMain(m *testing.M) {
	flag.Parse()
	code := mariadbtest.Run(m, &server)
	endChromium()
	os.Exit(code)
}

// dbName is the name of a test's own database.
func dbName(t *testing.T) string {
	return "test_" + strings.ToLower(strings.NewReplacer("/", "_", "#", "_").Replace(t.Name()))[:min(50, len(t.Name()))]
}

// site is a site of its own database, with the demo club if wanted. Tests with one run side by side.
func site(t *testing.T, withDemo bool) (address string, p *office.Office) {
	t.Parallel()
	var s *store.Store
	if withDemo {
		s = demotest.Filled(t, server.DSN, dbName(t), now)
	} else {
		s = demotest.Open(t, server.DSN, dbName(t))
	}
	p = office.New(s)
	p.Now = func() time.Time { return now }
	signIns, end := s.SignIns()
	handler := web.Handler(shell.Config{Office: p, Live: live.Over(t.Context(), p.Base), SignIns: signIns,
		Log: slog.New(slog.DiscardHandler), Hashing: demotest.Cheap})
	var cut atomic.Bool
	own := &standing{store: s}
	listening := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if cut.Load() {
			panic(http.ErrAbortHandler) // the line is dead
		}
		if r.Header.Get("Accept") != "text/event-stream" { // which stays open
			own.asked.Add(1)
			own.open.Add(1)
			defer own.open.Add(-1)
		}
		handler.ServeHTTP(w, r)
	}))
	own.signal = func(there bool) {
		cut.Store(!there)
		if !there {
			listening.CloseClientConnections()
		}
	}
	sites.Store(whole(t), own)
	t.Cleanup(func() { listening.Close(); end() })
	return listening.URL, p
}

// standing is what a test's own site stands on.
type standing struct {
	store       *store.Store
	signal      func(there bool)
	asked, open atomic.Int64 // requests so far, and those that wait for their answer
}

// sites are those of the tests that run, by the test's name.
var sites sync.Map

// whole is the name of a test, of which this may be a part.
func whole(t *testing.T) string {
	name, _, _ := strings.Cut(t.Name(), "/")
	return name
}

func siteOf(t *testing.T) *standing {
	is, _ := sites.Load(whole(t))
	return is.(*standing)
}

// storeOf is the database of a test's site.
func storeOf(t *testing.T) *store.Store { return siteOf(t).store }

// signal cuts the line to a test's site, or mends it.
func signal(t *testing.T, there bool) { siteOf(t).signal(there) }

// browser is a tab of headless Chromium on a site.
type browser struct {
	t    *testing.T
	ctx  context.Context
	base string
}

// chromium is the one Chromium that all tests use, each with tabs that know nothing of
// another's.
var chromium = sync.OnceValue(func() context.Context {
	options := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.NoSandbox, chromedp.DisableGPU,
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("hide-scrollbars", true))
	if *figures == "" { // the core for the browser runs for moments only: it is not worth making it faster
		options = append(options, chromedp.Flag("js-flags", "--liftoff-only --wasm-lazy-validation"))
	}
	if windowless, err := exec.LookPath("chromium-headless-shell"); err == nil {
		options = append(options, chromedp.ExecPath(windowless))
	}
	ctx, _ := chromedp.NewExecAllocator(context.Background(), options...)
	ctx, endChromium = chromedp.NewContext(ctx, chromedp.WithErrorf(func(string, ...any) {}))
	if err := chromedp.Do(ctx); err != nil {
		panic(err)
	}
	return ctx
})

// endChromium ends it, once it was begun.
var endChromium = func() {}

func newBrowser(t *testing.T, base string) *browser {
	// a busy machine takes a quarter of it for the longest test
	ctx, cancel := context.WithTimeout(chromium(), 12*time.Minute)
	t.Cleanup(cancel)
	ctx, closeTab := chromedp.NewContext(ctx, chromedp.WithNewBrowserContext(), chromedp.WithListener(complaints(t)))
	t.Cleanup(closeTab)
	require.NoError(t, chromedp.Do(ctx)) // the tab is there for as long as the test
	b := &browser{t, ctx, base}
	b.size(1280, 800)
	return b
}

// complaints fails the test for whatever a page throws or writes to its console
// as an error. An answer of 4xx is no error of the page.
func complaints(t *testing.T) func(event any) {
	return func(event any) {
		switch e := event.(type) {
		case *runtime.EventExceptionThrown:
			t.Errorf("the page threw: %v", e.ExceptionDetails)
		case *runtime.EventConsoleAPICalled:
			if e.Type == runtime.ConsoleAPICalledTypeError {
				t.Errorf("the page's console: %s", e.Args[0].Value)
			}
		case *log.EventEntryAdded:
			if e.Entry.Level == log.EntryLevelError && e.Entry.Source != log.EntrySourceNetwork {
				t.Errorf("the page's log: %s %s", e.Entry.Text, e.Entry.URL)
			}
		}
	}
}

// do does what a person does on the page. Where the page was just drawn anew,
// what was found is gone before it could be used: then it is found again.
func (b *browser) do(actions ...chromedp.Action[chromedp.Void]) {
	b.t.Helper()
	ctx, cancel := context.WithTimeout(b.ctx, time.Minute) // what is not there by then is not coming
	defer cancel()
	err := errors.New("")
	for tries := 0; err != nil && tries < 20; tries++ {
		if err = chromedp.Do(ctx, actions...); err != nil && !strings.Contains(err.Error(), "Could not find node") {
			break
		}
	}
	require.NoError(b.t, err)
}

func (b *browser) size(width, height int64) { b.do(chromedp.EmulateViewport(width, height)) }

func (b *browser) open(path string) {
	b.t.Helper()
	if !strings.HasPrefix(path, "http") {
		path = b.base + path
	}
	b.do(chromedp.Navigate(path))
	b.until(`!document.querySelector("#board[aria-busy]")`) // it is not drawn anew under the hand
}

// click presses the middle of what is there, once it has stopped moving: a press is a place on the glass.
func (b *browser) click(css string) {
	b.t.Helper()
	still := fmt.Sprintf(`new Promise(done => {
		let was = "", looks = 0
		const look = () => {
			const at = JSON.stringify(document.querySelector(%q)?.getBoundingClientRect())
			if (at === was || ++looks > 40) return done(true)
			was = at
			setTimeout(look, 15)
		}
		look()
	})`, css)
	ctx, cancel := context.WithTimeout(b.ctx, 5*time.Second)
	defer cancel()
	// a page that went meanwhile is still enough
	_ = chromedp.Do(ctx, chromedp.Evaluate[chromedp.Void](still, chromedp.EvalAwaitPromise))
	b.do(chromedp.Click(chromedp.CSS(css)))
}

func (b *browser) fill(css, value string) {
	b.t.Helper()
	b.do(chromedp.Clear(chromedp.CSS(css)), chromedp.SendKeys(chromedp.CSS(css), value))
}

// set gives a field a value and lets it settle, as picking a date does. It waits
// for a field that is yet to come.
func (b *browser) set(css, value string) {
	b.t.Helper()
	b.until(fmt.Sprintf("document.querySelector(%q)", css))
	b.run(fmt.Sprintf(`(() => { const f = document.querySelector(%q); f.value = %q; f.dispatchEvent(new Event("change", {bubbles: true})) })()`,
		css, value))
}

// write puts lines into the plan, as a coach types or pastes them.
func (b *browser) write(lines string) {
	b.t.Helper()
	b.until(`document.querySelector("#say")`)
	b.run(fmt.Sprintf(`(() => { const f = document.querySelector("#say"); f.value = %q; f.form.requestSubmit() })()`,
		lines))
}

func (b *browser) run(script string) {
	b.t.Helper()
	b.do(chromedp.Evaluate[chromedp.Void](script))
}

func eval[T any](b *browser, expression string) T {
	b.t.Helper()
	value, err := chromedp.Run(b.ctx, chromedp.Evaluate[T](expression))
	require.NoError(b.t, err, expression)
	return value
}

func (b *browser) text(css string) string {
	b.t.Helper()
	return eval[string](b, fmt.Sprintf(`document.querySelector(%q)?.innerText ?? "nothing there"`, css))
}

func evalPromise(b *browser, expression string) string {
	b.t.Helper()
	value, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](expression, chromedp.EvalAwaitPromise))
	require.NoError(b.t, err, expression)
	return value
}

// until waits for a condition in a page that is there whole.
func (b *browser) until(condition string) {
	b.t.Helper()
	require.Eventually(b.t, func() bool {
		met, err := chromedp.Run(b.ctx,
			chromedp.Evaluate[bool](`document.readyState == "complete" && Boolean(`+condition+`)`))
		return err == nil && met
	}, 30*time.Second, 30*time.Millisecond, condition)
}

// settled waits until all that was pressed is sent, answered and drawn: what has not come of it by then never will.
func (b *browser) settled() {
	b.t.Helper()
	own, calm, before := siteOf(b.t), 0, int64(-1)
	require.Eventually(b.t, func() bool {
		evalPromise(b,
			`new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => done("")))))`)
		asked := own.asked.Load()
		if calm++; asked != before || own.open.Load() > 0 {
			calm, before = 0, asked
		}
		return calm == 2
	}, 30*time.Second, 5*time.Millisecond)
}

// kept waits until the keeper holds the page that is open, for a time without a signal.
func (b *browser) kept() {
	b.t.Helper()
	b.until(`navigator.serviceWorker.controller`)
	require.Eventually(b.t, func() bool {
		return evalPromise(b,
			`caches.open("pages").then(c => c.match(location.pathname)).then(m => m ? "yes" : "no")`) == "yes"
	}, 30*time.Second, 50*time.Millisecond, "the page is kept")
}

func (b *browser) signIn() {
	b.t.Helper()
	b.open("/sign-in")
	b.fill("[name=email]", demo.Email)
	b.fill("[name=password]", demo.Password)
	b.click("main button")
	b.until(`location.pathname == "/today"`)
}

// shot writes a picture of what the window shows, where pictures are wanted.
func (b *browser) shot(name string) {
	b.t.Helper()
	if *shots == "" {
		return
	}
	// the site's time is the test's
	b.run(`document.activeElement?.blur(); document.querySelectorAll("[data-notice=clock]").forEach(n => n.remove())`)
	b.until(`document.fonts.status == "loaded"`)
	time.Sleep(150 * time.Millisecond)
	image, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
	require.NoError(b.t, err)
	require.NoError(b.t, os.WriteFile(filepath.Join(*shots, name+".png"), image, 0o644))
}

func readAll(answer *http.Response) string {
	text, _ := io.ReadAll(answer.Body)
	return string(text)
}
