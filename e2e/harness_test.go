// Package e2e drives the real interface in headless Chromium against a real
// server on loopback, with the demo shop in a real file.
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

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	demoshop "deepbay/demo/shop"
	"deepbay/internal/server"
	"deepbay/internal/store"
	"deepbay/web"
)

// bayTime is the clock of the shop in all browser tests.
var bayTime = time.Date(2026, 11, 25, 9, 30, 0, 0, time.UTC)

// shop starts a server with a fresh demo shop and returns its address.
func shop(t *testing.T) string { return shopAt(t, filepath.Join(t.TempDir(), "shop.db")) }

// shopAt does so with its data in a file of a name.
func shopAt(t *testing.T, path string) string {
	return shopBehind(t, path, func(h http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.URL.Path == "/service-worker.js" { // it fetches the whole program anew for each test, and only one is about it
				w.Header().Set("Content-Type", "text/javascript")
				return
			}
			h.ServeHTTP(w, r)
		})
	})
}

// gate is a way to the server that can be shut: then nothing answers, as during a restart or in
// a dead spot. Or only the answers are lost on their way back.
type gate struct {
	shut, lost atomic.Bool
	instead    atomic.Pointer[http.Handler] // the server that was started since
}

// restart puts a new server on a data file in the place of the one there was.
func (g *gate) restart(t *testing.T, path string) {
	t.Helper()
	h, _ := serving(t, path)
	g.instead.Store(&h)
}

func (g *gate) before(h http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if g.shut.Load() {
			panic(http.ErrAbortHandler)
		}
		if again := g.instead.Load(); again != nil {
			h = *again
		}
		if g.lost.Load() && r.Method == http.MethodPost {
			h.ServeHTTP(httptest.NewRecorder(), r)
			panic(http.ErrAbortHandler)
		}
		h.ServeHTTP(w, r)
	})
}

// beside is the tests that run beside others already.
var beside sync.Map

// shopBehind serves the demo shop behind something.
func shopBehind(t *testing.T, path string, before func(http.Handler) http.Handler) string {
	t.Helper()
	if _, is := beside.LoadOrStore(t, true); !is {
		t.Parallel() // a shop of its own, and tabs of its own: most of a test is waiting
	}
	full, err := template()
	if err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(path, full, 0o600); err != nil {
		t.Fatal(err)
	}
	h, _ := serving(t, path)
	srv := httptest.NewServer(before(h))
	t.Cleanup(srv.Close)
	return srv.URL
}

// template is the data file of a demo shop whose jobs were listed once: filling it, and judging
// all its jobs, would take a second of every test.
var template = sync.OnceValues(func() ([]byte, error) {
	dir, err := os.MkdirTemp("", "deepbay-e2e")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(dir)
	path := filepath.Join(dir, "shop.db")
	s, err := store.Open(context.Background(), path)
	if err != nil {
		return nil, err
	}
	err = demoshop.Fill(context.Background(), s)
	if err == nil {
		var h http.Handler
		if h, err = handler(s); err == nil {
			h.ServeHTTP(httptest.NewRecorder(), httptest.NewRequest(http.MethodGet, "http://127.0.0.1/api/jobs", nil))
		}
	}
	if err := errors.Join(err, s.Close()); err != nil {
		return nil, err
	}
	return os.ReadFile(path)
})

// handler is the server of a store.
func handler(s *store.Store) (http.Handler, error) {
	files, err := web.Files()
	if err != nil {
		return nil, err
	}
	if _, err := files.Open("index.html"); err != nil {
		return nil, errors.New("the front end is not built: run make build")
	}
	return server.New(server.Options{Data: s, Files: files, Version: "test",
		Now: func() time.Time { return bayTime }, Log: slog.New(slog.NewTextHandler(io.Discard, nil))})
}

// serving is a server of a data file.
func serving(t *testing.T, path string) (http.Handler, *store.Store) {
	t.Helper()
	s, err := store.Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	h, err := handler(s)
	if err != nil {
		t.Fatal(err)
	}
	return h, s
}

// browser is one Chromium for the run; every test gets tabs of it.
var browser = sync.OnceValues(func() (context.Context, error) {
	path, err := exec.LookPath("chromium")
	if err != nil {
		return nil, fmt.Errorf("Chromium is missing: run make setup (%w)", err)
	}
	opts := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.ExecPath(path), chromedp.NoSandbox, chromedp.DisableGPU, chromedp.NoFirstRun,
		chromedp.WindowSize(1280, 800),
		chromedp.Flag("disable-quic", true),
		chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true),
		chromedp.Flag("disable-sync", true),
		chromedp.Flag("force-prefers-reduced-motion", true),
	)
	alloc, cancel := chromedp.NewExecAllocator(context.Background(), opts...)
	ctx, _ := chromedp.NewContext(alloc)
	if err := chromedp.Do(ctx); err != nil {
		cancel()
		return nil, err
	}
	stopBrowser = cancel
	return ctx, nil
})

var stopBrowser = func() {}

func TestMain(m *testing.M) {
	flag.Parse()
	if err := flag.Set("test.parallel", "3"); err != nil { // tests wait for the browser more than they work
		panic(err)
	}
	code := m.Run()
	stopBrowser()
	os.Exit(code)
}

// tab is a page under test. Anything on its console that is an error or a
// warning fails the test, unless allowed names it.
type tab struct {
	t       *testing.T
	ctx     context.Context
	base    string
	mu      sync.Mutex
	allowed []string
}

// open makes a tab in a profile of its own, so that nothing is shared by accident.
func open(t *testing.T, base string) *tab {
	t.Helper()
	parent, err := browser()
	if err != nil {
		t.Fatal(err)
	}
	ctx, cancel := chromedp.NewContext(parent, chromedp.WithNewBrowserContext())
	b := &tab{t: t, ctx: ctx, base: base}
	messages := chromedp.Console(ctx)
	done := make(chan struct{})
	go func() {
		defer close(done)
		for m, err := range messages {
			if err != nil {
				return
			}
			if m.Type == chromedp.ConsoleError || m.Type == chromedp.ConsoleWarning || m.IsException() {
				b.complain(m.String() + " " + m.URL)
			}
		}
	}()
	t.Cleanup(func() { cancel(); <-done })                                   // every message was heard before the test ends
	b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error { // tests run beside one another, each as if it were alone
		_, err := cdp.Call(ctx, t, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true})
		return err
	}))
	return b
}

// allow lets a console line through that a test provokes on purpose, such as the
// browser's own note of a 409.
func (b *tab) allow(text string) {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.allowed = append(b.allowed, text)
}

func (b *tab) complain(text string) {
	b.mu.Lock()
	defer b.mu.Unlock()
	for _, a := range b.allowed {
		if strings.Contains(text, a) {
			return
		}
	}
	b.t.Errorf("the console is not clean: %s", text)
}

// do runs actions and ends the test when one fails; it waits 45 seconds at most, for
// machines are slow at times.
func (b *tab) do(actions ...chromedp.Action[chromedp.Void]) {
	b.t.Helper()
	ctx, cancel := context.WithTimeout(b.ctx, 45*time.Second)
	defer cancel()
	if err := chromedp.Do(ctx, actions...); err != nil {
		b.shot()
		b.t.Fatalf("%v\npage: %s", err, b.text("main"))
	}
}

// shot keeps a picture of a failure.
func (b *tab) shot() {
	ctx, cancel := context.WithTimeout(b.ctx, 5*time.Second)
	defer cancel()
	png, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
	if err != nil {
		return
	}
	path := filepath.Join(os.TempDir(), strings.ReplaceAll(b.t.Name(), "/", "-")+".png")
	if os.WriteFile(path, png, 0o644) == nil {
		b.t.Logf("picture: %s", path)
	}
}

func (b *tab) text(selector string) string {
	ctx, cancel := context.WithTimeout(b.ctx, 5*time.Second)
	defer cancel()
	s, _ := chromedp.Run(ctx, chromedp.Evaluate[string](fmt.Sprintf("document.querySelector(%q)?.innerText ?? ''", selector)))
	return s
}

func (b *tab) visit(path string) {
	b.t.Helper()
	b.do(chromedp.Navigate(b.base+path), chromedp.WaitVisible(chromedp.CSS("main h1, main h2")))
}

// deaf makes a tab hear nothing of what others do, as in a dead spot of the workshop.
func (b *tab) deaf() {
	b.t.Helper()
	b.do(chromedp.Evaluate[chromedp.Void](`window.dispatchEvent(new Event('offline'))`))
}

func (b *tab) click(selector string) {
	b.t.Helper()
	b.do(clickOn(selector))
}

// wants waits until the page, or the part of it named by a selector, says all of these.
func (b *tab) wants(selector string, texts ...string) {
	b.t.Helper()
	for _, want := range texts {
		ctx, cancel := context.WithTimeout(b.ctx, 30*time.Second)
		_, err := chromedp.Run(ctx, chromedp.Poll[bool](fmt.Sprintf(
			"(document.querySelector(%q)?.innerText ?? '').replace(/\\s+/g, ' ').includes(%q)", selector, want)))
		cancel()
		if err != nil {
			b.shot()
			b.t.Fatalf("%s does not say %q; it says:\n%s", selector, want, b.text(selector))
		}
	}
}

// panel opens a panel beside the chart; true where it was not open.
func (b *tab) panel(id string) bool {
	b.t.Helper()
	at := fmt.Sprintf(`[data-panel="%s"]`, id)
	b.do(chromedp.WaitVisible(chromedp.CSS(at)))
	shut, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool](fmt.Sprintf(`(() => {
		const at = document.querySelector('%s').closest('button');
		if (at.getAttribute('aria-expanded') === 'true') return false;
		at.click();
		return true;
	})()`, at)))
	if err != nil {
		b.t.Fatal(err)
	}
	b.do(chromedp.WaitVisible(chromedp.CSS(fmt.Sprintf(`[data-testid="panel-%s"]`, id))))
	return shut
}

// inDialog takes a value of the pick list in the open dialog.
func inDialog(value string) chromedp.Action[chromedp.Void] {
	return func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		if _, err := chromedp.SetValue(chromedp.CSS("dialog[open] select"), value)(ctx, t); err != nil {
			return chromedp.Void{}, err
		}
		return chromedp.Evaluate[chromedp.Void](`document.querySelector('dialog[open] select').dispatchEvent(new Event('change', { bubbles: true }))`)(ctx, t)
	}
}

// clickOn clicks as a hand does: on the first element of a selector once it can be seen, lies still
// for a frame and nothing covers it. A page that brings its next step into view moves under a click
// that was aimed before: one that went elsewhere, or came to none because what was pressed had moved
// before it was let go, is made again.
func clickOn(selector string) chromedp.Action[chromedp.Void] {
	return func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		for range 5 {
			if _, err := aimed(selector)(ctx, t); err != nil {
				return chromedp.Void{}, err
			}
			// The page may have gone on to another by now, which knows of no click.
			if missed, err := chromedp.Evaluate[bool]("window.aim ? window.aim.missed !== false : false")(ctx, t); err != nil || !missed {
				return chromedp.Void{}, nil
			}
		}
		return chromedp.Void{}, fmt.Errorf("click on %s: it goes elsewhere each time", selector)
	}
}

// aimed is one click where an element is; the page keeps whether it went elsewhere.
func aimed(selector string) chromedp.Action[chromedp.Void] {
	return func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		at, err := chromedp.Poll[[]float64](fmt.Sprintf(`(() => {
			const e = document.querySelector(%q);
			if (!e?.checkVisibility({ visibilityProperty: true })) return null;
			const where = () => { const r = (e.getClientRects()[0] ?? e.getBoundingClientRect()); return [r.x + r.width / 2, r.y + r.height / 2]; };
			let [x, y] = where();
			if (x < 0 || y < 0 || x > innerWidth || y > innerHeight) e.scrollIntoView({ block: 'center', inline: 'center' });
			[x, y] = where();
			const still = e === window.aim?.e && x === window.aim.x && y === window.aim.y;
			window.aim = { e, x, y };
			const hit = document.elementFromPoint(x, y);
			if (hit && !e.contains(hit) && !hit.closest('label')?.contains(e)) e.scrollIntoView({ block: 'center' });
			else if (still && hit) {
				const aim = window.aim;
				addEventListener('click', (c) => (aim.missed = !e.contains(c.target) && !c.target.closest('label')?.contains(e)), { capture: true, once: true });
				return [x, y];
			}
			return null;
		})()`, selector), chromedp.WithPollingTimeout(30*time.Second))(ctx, t)
		if err != nil {
			return chromedp.Void{}, fmt.Errorf("click on %s: %w", selector, err)
		}
		return chromedp.MouseClickXY(at[0], at[1])(ctx, t)
	}
}

// pollTrue waits for a JavaScript expression to be true.
func pollTrue(js string) chromedp.Action[chromedp.Void] {
	return func(ctx context.Context, t *chromedp.Target) (chromedp.Void, error) {
		_, err := chromedp.Poll[bool](js, chromedp.WithPollingTimeout(30*time.Second))(ctx, t)
		return chromedp.Void{}, err
	}
}
