package e2e

import (
	"context"
	"encoding/json"
	"flag"
	"fmt"
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

// load is what one view took to load.
type load struct {
	Shown, Longest, Shift float64
	Requests              int
	JS, CSS               float64 // kB as they came over the wire
}

// TestMeasure measures each main view: cold, in a browser that has seen nothing, and warm.
func TestMeasure(t *testing.T) {
	if *measured == "" {
		t.Skip("measures only with -measure FILE: make measure")
	}
	base := shop(t)
	var out strings.Builder
	fmt.Fprintf(&out, "# Loading\n\nWritten by `make measure`: each main view in a browser that has seen nothing, and once more. The server and the\nbrowser share one small machine; figures vary by a third from run to run. *Shown* is the largest paint; *requests* and\nsizes are those of the first view; the longest task and the shift are the worse of both.\n\n| view | shown cold, ms | warm, ms | requests | JS, kB gzipped | CSS, kB gzipped | longest task, ms | layout shift |\n|---|---|---|---|---|---|---|---|\n")
	for _, path := range views {
		b := open(t, base) // a browser of its own
		at := func() load {
			t.Helper()
			b.visit(path)
			b.do(pollTrue(`document.readyState === 'complete' && window.shown > 0`), chromedp.Sleep(time.Second))
			got, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`(() => {
				const all = performance.getEntriesByType('resource').filter((e) => !e.name.includes('/api/live') && !e.name.includes('service-worker'));
				const of = (kind) => all.filter((e) => e.name.endsWith(kind)).reduce((n, e) => n + e.encodedBodySize, 0) / 1000;
				return JSON.stringify({ Shown: shown, Longest: Math.max(0, ...tasks), Shift: shift, Requests: all.length + 1, JS: of('.js'), CSS: of('.css') });
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
		b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			_, err := cdp.Call(ctx, t, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: observer})
			return err
		}))
		cold := at()
		warm := at()
		fmt.Fprintf(&out, "| `%s` | %.0f | %.0f | %d | %.1f | %.1f | %.0f | %.3f |\n", path, cold.Shown, warm.Shown, cold.Requests, cold.JS, cold.CSS, max(cold.Longest, warm.Longest), max(cold.Shift, warm.Shift))
	}
	if err := os.WriteFile(*measured, []byte(out.String()), 0o644); err != nil {
		t.Fatal(err)
	}
	t.Log("\n" + out.String())
}
