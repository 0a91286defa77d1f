package e2e

import (
	"bytes"
	"flag"
	"fmt"
	"io"
	"math/rand"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"deepbay/demo"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest/jobs"
	"deepbay/internal/format"
)

var charts = flag.Int("charts", 6, "random machines in TestChartHolds")

// faults looks at a chart as it is drawn: no two things on it cover each other, nothing stands
// off it, no name is cut, no ribbon or lead runs over a name that stands free, and every socket
// can be reached.
const faults = `(async () => {
	const out = [];
	const chart = document.querySelector('[data-testid=chart]');
	const edge = chart.querySelector('svg').getBoundingClientRect();
	const of = (list, what) => [...list].map((el) => ({ el, what: what(el), r: el.getBoundingClientRect() }));
	const things = [
		...of(chart.querySelectorAll('ul[aria-label=Sockets] button'), (b) => b.dataset.socket),
		...of(chart.querySelectorAll('svg[role=img] > rect.fill-land'), () => 'a root'),
		...of(chart.querySelectorAll('svg[role=img] > g[data-socket] > rect'), (r) => 'port ' + r.parentNode.dataset.socket),
		...of(chart.querySelectorAll('svg[role=img] > rect.fill-none'), () => 'a bay'),
		...of(chart.querySelectorAll('svg[role=img] > text[data-label]'), (t) => 'the name ' + t.dataset.label)
	];
	if (!things.some((t) => t.what === 'a root') && chart.querySelector('rect.fill-land')) out.push('the test sees no root');
	things.forEach((a, i) => {
		if (a.r.left < edge.left - 1 || a.r.right > edge.right + 1 || a.r.top < edge.top - 1 || a.r.bottom > edge.bottom + 1)
			out.push(a.what + ' stands off the drawing');
		for (const b of things.slice(i + 1)) {
			const w = Math.min(a.r.right, b.r.right) - Math.max(a.r.left, b.r.left);
			const h = Math.min(a.r.bottom, b.r.bottom) - Math.max(a.r.top, b.r.top);
			if (w > 1.5 && h > 1.5) out.push(a.what + ' covers ' + b.what + ' by ' + Math.round(w) + ' x ' + Math.round(h));
		}
		if (a.el.matches('button.bg-land'))
			for (const text of a.el.querySelectorAll('strong, .font-semibold, span.block'))
				for (const r of text.getClientRects())
					if (r.bottom > a.r.bottom + 2 || r.right > a.r.right + 2) out.push(a.what + ' is cut: ' + text.innerText);
	});
	const free = things.filter((t) => t.el.dataset?.label);
	for (const line of chart.querySelectorAll('svg[role=img] > path.fill-none.stroke-line, svg[role=img] > path.fill-none.stroke-soft:not([d*=v4H])'))
		for (let l = 0, all = line.getTotalLength(); l < all; l += 4) {
			const p = line.getPointAtLength(l), x = p.x + edge.left, y = p.y + edge.top;
			const on = free.find((t) => x > t.r.left && x < t.r.right && y > t.r.top + 3 && y < t.r.bottom - 3);
			if (on) { out.push('a line runs over ' + on.what); break; }
		}
	const names = things.filter((t) => t.el.tagName === 'BUTTON').map((t) => t.what);
	for (const id of '%s'.split(' ')) if (names.filter((n) => n === id).length !== 1) out.push(id + ' cannot be reached');
	return out.join('; ');
})()`

// crossings counts the ribbons that cross another one.
const crossings = `(() => {
	const lines = [...document.querySelectorAll('[data-testid=chart] svg[role=img] > path.fill-none.stroke-line')].map((line) => {
		const out = [];
		for (let l = 0, all = line.getTotalLength(); l <= all; l += 3) out.push(line.getPointAtLength(l));
		return out;
	});
	const side = (p, q, r) => (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
	const cross = (a, b) => a.some((p, i) => i > 0 && b.some((q, j) => j > 0 &&
		side(a[i - 1], p, b[j - 1]) * side(a[i - 1], p, q) < 0 && side(b[j - 1], q, a[i - 1]) * side(b[j - 1], q, p) < 0));
	return lines.reduce((n, a, i) => n + lines.slice(i + 1).filter((b) => cross(a, b)).length, lines.length > 2 ? 0 : 1000);
})()`

// TestChartHolds draws every machine of the demo, which fit the window, and random ones.
func TestChartHolds(t *testing.T) {
	base := shop(t)
	b := open(t, base)
	b.do(chromedp.EmulateViewport(1280, 800))
	look := func(j *job.Job) {
		t.Helper()
		b.visit("/jobs/" + string(j.ID) + "/fit")
		b.do(chromedp.WaitVisible(chromedp.CSS(`[data-testid=chart] svg`)))
		r := j.PlannedRig()
		var all []string
		for _, p := range r.Places() {
			all = append(all, p.Path.String())
		}
		got, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](fmt.Sprintf(faults, strings.Join(all, " ")), chromedp.EvalAwaitPromise))
		if err != nil {
			t.Fatal(err)
		}
		if got != "" {
			t.Errorf("%s: %s", j.ID, got)
		}
	}
	files, err := demo.Files.ReadDir("jobs")
	if err != nil {
		t.Fatal(err)
	}
	for _, f := range files {
		j, err := demo.Job(strings.TrimSuffix(f.Name(), ".job.json"))
		if err != nil {
			t.Fatal(err)
		}
		look(&j)
		if n, err := chromedp.Run(b.ctx, chromedp.Evaluate[int](crossings)); err != nil || n > 1 {
			t.Errorf("%s: %d ribbons cross (%v)", j.ID, n, err)
		}
		below := `document.querySelector('[data-testid=chart] svg').getBoundingClientRect().bottom - window.innerHeight`
		if px, err := chromedp.Run(b.ctx, chromedp.Evaluate[float64](below)); err != nil || px > 0 {
			t.Errorf("%s: the chart ends %.0f px below the window (%v)", j.ID, px, err)
		}
	}
	for seed := range int64(*charts) {
		rng := rand.New(rand.NewSource(seed))
		j := jobs.Random(rng)
		j.ID = job.ID(fmt.Sprint("random-", seed))
		for i := range j.Parts {
			j.Parts[i].Format, j.Parts[i].Version = part.Format, part.Version
		}
		for _, s := range []*rig.Setup{&j.Found, &j.Planned} {
			s.Placements, s.Settings = append([]rig.Placement{}, s.Placements...), append([]rig.Choice{}, s.Settings...)
		}
		j.Sheet.Rules = append([]machine.Rule{}, j.Sheet.Rules...)
		j.Sheet.Format, j.Sheet.Version = machine.Format, machine.Version
		for i := range j.Sheet.Sockets { // each anywhere on the board
			k := &j.Sheet.Sockets[i]
			k.Place = machine.Place{WidthMM: 80, HeightMM: 8}
			if k.Kind.Memory() {
				k.Place = machine.Place{WidthMM: 7, HeightMM: 133}
			}
			k.Place.XMM = quantity.Millimetres(rng.Intn(int(j.Sheet.Board.WidthMM - k.Place.WidthMM)))
			k.Place.YMM = quantity.Millimetres(rng.Intn(int(j.Sheet.Board.HeightMM - k.Place.HeightMM)))
		}
		doc, err := format.Write(&j)
		if err != nil {
			t.Fatal(err)
		}
		res, err := http.Post(base+"/api/files", "application/json", bytes.NewReader(doc))
		if err != nil {
			t.Fatal(err)
		}
		said, _ := io.ReadAll(res.Body)
		res.Body.Close()
		if res.StatusCode >= 300 {
			t.Fatalf("seed %d: %s %s", seed, res.Status, said)
		}
		look(&j)
	}
}

// TestZoom looks closer at the largest machine by key, wheel and two fingers, walks it, and
// finds its way by the small map.
func TestZoom(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/bathymetry-render/fit")
	scale := func(want string) {
		t.Helper()
		b.do(pollTrue(`(() => { const drawn = document.querySelector('[data-testid=chart] svg[role=img]'); if (!drawn) return false; const k = new DOMMatrix(getComputedStyle(drawn.parentElement).transform).a; return ` + want + `; })()`))
	}
	scale("k === 1")
	b.do(chromedp.Focus(chromedp.CSS("#main")), chromedp.Evaluate[chromedp.Void]("document.activeElement.blur()")) // as a press on what takes no focus does
	b.do(chromedp.KeyEvent("+"), chromedp.KeyEvent("+"), chromedp.KeyEvent("+"))
	scale("k > 2.5 && k < 3")
	b.do(chromedp.Sleep(100*time.Millisecond), pollTrue("document.activeElement === document.body")) // it is left alone
	b.axe()
	seen := `(() => {
		const at = document.activeElement.getBoundingClientRect(), w = document.querySelector('[data-testid=chart]').getBoundingClientRect();
		return !!document.activeElement.dataset.socket && at.left >= w.left - 1 && at.right <= w.right + 1 && at.top >= w.top - 1 && (at.bottom <= w.bottom + 1 || at.height > w.height && at.top < w.top + 1);
	})()`
	b.do(chromedp.Focus(chromedp.CSS(`[data-testid="chart"] button[tabindex="0"]`)))
	b.do(pollTrue(seen))
	for _, key := range []string{kb.ArrowDown, kb.ArrowRight, kb.ArrowDown, kb.ArrowRight, kb.ArrowRight, kb.ArrowLeft, kb.ArrowUp} {
		b.do(chromedp.KeyEvent(key), pollTrue(seen))
	}
	at := func(expect string) { // which part of the drawing is seen
		t.Helper()
		b.do(pollTrue(`(() => { const m = new DOMMatrix(getComputedStyle(document.querySelector('[data-testid=chart] svg[role=img]').parentElement).transform); return ` + expect + `; })()`))
	}
	b.do(chromedp.Evaluate[chromedp.Void](`(() => { const e = document.querySelector('[aria-label^="Map"]'), r = e.getBoundingClientRect(); e.dispatchEvent(new MouseEvent('click', { clientX: r.left + 1, clientY: r.top + 1, detail: 1, bubbles: true })); })()`))
	at("m.e === 0 && m.f === 0")
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid=chart] svg[role=img]').dispatchEvent(new WheelEvent('wheel', { deltaX: 40, deltaY: 30, bubbles: true, cancelable: true }))`))
	at("m.e === -40 && m.f === -30")
	b.do(chromedp.KeyEvent("0"))
	scale("k === 1")
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid=chart] svg[role=img]').dispatchEvent(new WheelEvent('wheel', { deltaY: -200, ctrlKey: true, bubbles: true, cancelable: true }))`))
	scale("k > 2.7 && k < 2.8")
	b.click(`[aria-label="Zoom out"]`)
	scale("k < 2")
}
