package e2e

import (
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

var shotsDir = flag.String("screenshots", "", "write a picture of each main view into this folder")

// TestScreenshots writes docs/screenshots; `make screenshots` asks for it.
func TestScreenshots(t *testing.T) {
	if *shotsDir == "" {
		t.Skip("asked for by make screenshots only")
	}
	b := open(t, shop(t))
	night := chromedp.Evaluate[chromedp.Void](`localStorage.setItem('deepbay.theme', 'night')`)
	day := chromedp.Evaluate[chromedp.Void](`localStorage.setItem('deepbay.theme', 'day')`)
	pick := clickOn(`[data-item="item-4"]`)
	for _, s := range []struct {
		name, path string
		width      int64
		height     int64
		before     []chromedp.Action[chromedp.Void]
	}{
		{"bench", "/", 1280, 800, nil},
		{"fit-picked-up", "/jobs/echo-sounding-tower/fit", 1280, 800, []chromedp.Action[chromedp.Void]{pick}},
		{"fit-stopped", "/jobs/echo-sounding-tower/fit", 1280, 800, []chromedp.Action[chromedp.Void]{pick, clickOn(socket("M2_2"))}},
		{"fit-workstation-night", "/jobs/chart-table-workstation/fit", 1280, 800, []chromedp.Action[chromedp.Void]{night, chromedp.Reload()}},
		{"work-order", "/jobs/chart-table-workstation/order", 1280, 800, []chromedp.Action[chromedp.Void]{day, chromedp.Reload()}},
		{"step", "/jobs/quay-camera-mini-pc/step", 1280, 800, []chromedp.Action[chromedp.Void]{untilStep("quay-camera-mini-pc", "open/board-tray"), chromedp.Reload()}},
		{"sheet-layers", "/sheets/edit?id=gannet-d1", 1280, 800, []chromedp.Action[chromedp.Void]{chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('[role=tab]')].find((t) => t.innerText.startsWith('Layers')).click()`),
			pollTrue(`(() => { const b = [...document.querySelectorAll('main button')].find((b) => b.innerText === 'riser cage'); b?.click(); return Boolean(b); })()`)}},
		{"prove", "/jobs/tide-gauge-mini-pc/prove", 1280, 800, nil},
		{"plan", "/jobs/wave-model-desktop/fit", 1280, 800, []chromedp.Action[chromedp.Void]{chromedp.KeyEvent("o"), chromedp.WaitVisible(chromedp.CSS(`[data-testid="plan"] li button`))}},
		{"logbook", "/logbook/life?job=echo-sounding-tower", 1280, 800, nil},
		{"sheets", "/sheets/kittiwake-d2", 1280, 800, nil},
		{"sheet-editor", "/sheets/edit?id=harrier-t4", 1280, 800, []chromedp.Action[chromedp.Void]{clickOn(`g[data-socket="M2_2"]`)}},
		{"measure", "/jobs/sonar-mosaic-desktop/measure", 1280, 800, nil},
		{"shelf", "/shelf", 1280, 800, nil},
		{"slide-rule", "/rule", 1280, 800, nil},
		{"carrier", "/jobs/dive-camera-ingest/fit", 1280, 800, nil},
		{"hand-over", "/jobs/tide-gauge-mini-pc/handover", 1280, 800, nil},
		{"stages", "/jobs/lock-gate-recorder/fit", 1280, 800, []chromedp.Action[chromedp.Void]{clickOn(socket("SATA1")), clickOn(`button[aria-label^="Out for now"]`),
			chromedp.WaitVisible(chromedp.CSS(`[data-testid="stages"] ol`)), chromedp.Evaluate[chromedp.Void]("window.scrollTo(0, 0)")}},
		{"fit-phone", "/jobs/tide-gauge-mini-pc/fit", 390, 844, nil},
	} {
		b.do(chromedp.EmulateViewport(s.width, s.height))
		b.visit(s.path)
		b.do(s.before...)
		b.do(chromedp.WaitVisible(chromedp.CSS("main h1, main h2")), chromedp.Sleep(400*time.Millisecond))
		png, err := chromedp.Run(b.ctx, chromedp.CaptureScreenshot())
		if err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(filepath.Join(*shotsDir, s.name+".png"), png, 0o644); err != nil {
			t.Fatal(err)
		}
	}
}

// untilStep ticks an order up to a step, as hands would have.
func untilStep(job, step string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`(async () => {
		const at = '/api/jobs/%s', v = await (await fetch(at)).json(), all = v.view.order.map((s) => s.id);
		await fetch(at + '/changes', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ revision: v.revision, key: crypto.randomUUID(), by: 'Oda Finch', change: { do: 'tick', steps: all.slice(0, all.indexOf('%s')) } }) });
	})()`, job, step), chromedp.EvalAwaitPromise)
}
