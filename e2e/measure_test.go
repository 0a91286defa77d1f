package e2e

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
)

// measured is where TestMeasure writes what it measured; without it, it measures nothing.
var measured = flag.String("measure", "", "write a table of loading times to this file")

// observer is put into each page before its own scripts: it keeps what the browser tells.
const observer = `window.tasks = []; window.shift = 0;
new PerformanceObserver((l) => l.getEntries().forEach((e) => tasks.push(e.duration))).observe({ type: 'longtask', buffered: true });
new PerformanceObserver((l) => l.getEntries().forEach((e) => { if (!e.hadRecentInput) shift += e.value; })).observe({ type: 'layout-shift', buffered: true });
new PerformanceObserver((l) => { window.shown = l.getEntries().at(-1).startTime; }).observe({ type: 'largest-contentful-paint', buffered: true });`

// observe puts the observer into every page of a tab from now on.
func observe(b *tab) {
	b.t.Helper()
	b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: observer})
		return err
	}))
}

// load is what one view took to load.
type load struct {
	Shown, Longest, Shift float64
	Asked                 []string // each request of the view, by its address
}

// gzipped is how much the answers to requests for files of a kind come to with gzip, kB.
func (l *load) gzipped(t *testing.T, kind string) float64 {
	t.Helper()
	var sum int64
	for _, url := range l.Asked {
		if !strings.HasSuffix(url, kind) {
			continue
		}
		r, err := http.NewRequest(http.MethodGet, url, nil)
		if err != nil {
			t.Fatal(err)
		}
		r.Header.Set("Accept-Encoding", "gzip")
		answer, err := http.DefaultTransport.RoundTrip(r)
		if err != nil {
			t.Fatal(err)
		}
		n, err := io.Copy(io.Discard, answer.Body)
		if err != nil || answer.StatusCode != http.StatusOK {
			t.Fatal(url, answer.Status, err)
		}
		answer.Body.Close()
		sum += n
	}
	return float64(sum) / 1000
}

// TestLight holds the view that is opened most to what it may ask for: 20 requests, and scripts of
// less than 100 kB gzipped.
func TestLight(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/dive-camera-ingest/fit")
	b.wants(`[data-testid="panel-findings"]`, "Ways to fix it")
	asked, err := chromedp.Run(b.ctx, chromedp.Evaluate[[]string](addresses))
	if err != nil {
		t.Fatal(err)
	}
	l := load{Asked: asked}
	t.Logf("%.1f kB", l.gzipped(t, ".js"))
	if kB := l.gzipped(t, ".js"); kB >= 100 || kB < 50 || len(asked) > 20 {
		t.Errorf("%.1f kB of scripts in %d requests", kB, len(asked))
	}
}

// addresses are those of all that a page asked for, but for what goes on as long as it is open.
const addresses = `[location.href, ...performance.getEntriesByType('resource').map((e) => e.name).filter((n) => !n.includes('/api/live') && !n.includes('service-worker'))]`

// TestMeasure measures each main view: cold, in a browser that has seen nothing, and warm.
func TestMeasure(t *testing.T) {
	if *measured == "" {
		t.Skip("measures only with -measure FILE: make measure")
	}
	base := shop(t)
	var out strings.Builder
	fmt.Fprintf(&out, "# Loading\n\nWritten by `make measure`: each main view in a browser that has seen nothing, and once more. The server and the\nbrowser share one small machine; figures vary by a third from run to run. *Shown* is the largest paint; *requests* and\nsizes, with gzip, are those of the first view (a browser that takes Brotli gets an eighth less); the longest task and the\nshift are the worse of both.\n\n| view | shown cold, ms | warm, ms | requests | JS, kB gzipped | CSS, kB gzipped | longest task, ms | layout shift |\n|---|---|---|---|---|---|---|---|\n")
	for _, path := range views {
		b := open(t, base) // a browser of its own
		at := func() load {
			t.Helper()
			b.visit(path)
			b.do(pollTrue(`document.readyState === 'complete' && window.shown > 0`), chromedp.Sleep(time.Second))
			got, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`(() => {
				return JSON.stringify({ Shown: shown, Longest: Math.max(0, ...tasks), Shift: shift, Asked: `+addresses+` });
			})()`))
			if err != nil {
				t.Fatal(err)
			}
			var l load
			if err := json.Unmarshal([]byte(got), &l); err != nil {
				t.Fatal(err)
			}
			return l
		}
		observe(b)
		cold := at()
		warm := at()
		fmt.Fprintf(&out, "| `%s` | %.0f | %.0f | %d | %.1f | %.1f | %.0f | %.3f |\n", path, cold.Shown, warm.Shown, len(cold.Asked), cold.gzipped(t, ".js"), cold.gzipped(t, ".css"), max(cold.Longest, warm.Longest), max(cold.Shift, warm.Shift))
	}
	b := open(t, base)
	observe(b)
	largest := "/jobs/dive-camera-ingest/fit"
	b.visit(largest)
	b.do(pollTrue(`document.querySelectorAll('[data-socket]').length > 20`), chromedp.Sleep(time.Second))
	fmt.Fprintf(&out, "\nThe longest task of what is done on the largest job, `%s`:\n\n| what | longest task, ms |\n|---|---|\n", largest)
	for _, x := range [][2]string{
		{"a socket is looked at", `document.querySelector('[data-socket="M2_1"]').click()`},
		{"its piece is picked up", `[...document.querySelectorAll('button')].find((b) => b.textContent.trim() === 'Move it').click()`},
		{"it is put down again", `[...document.querySelectorAll('button')].find((b) => b.textContent.trim() === 'Put it down').click()`},
		{"a piece is taken out", `[...document.querySelectorAll('button')].find((b) => b.textContent.trim() === 'Take it out').click()`},
		{"undone", `[...document.querySelectorAll('button')].find((b) => b.textContent.trim() === 'Undo').click()`},
		{"the best plan is asked for", `[...document.querySelectorAll('button')].find((b) => b.textContent.trim() === 'Find the best plan').click()`},
	} {
		ms, err := chromedp.Run(b.ctx, chromedp.Evaluate[float64](`(async () => { tasks.length = 0; `+x[1]+`; await new Promise((r) => setTimeout(r, 2500)); return Math.max(0, ...tasks); })()`, chromedp.EvalAwaitPromise))
		if err != nil {
			t.Fatal(x[0], err)
		}
		fmt.Fprintf(&out, "| %s | %s |\n", x[0], map[bool]string{true: "under 50", false: fmt.Sprintf("%.0f", ms)}[ms == 0])
	}
	if err := os.WriteFile(*measured, []byte(out.String()), 0o644); err != nil {
		t.Fatal(err)
	}
	t.Log("\n" + out.String())
}
