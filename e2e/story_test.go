package e2e

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"deepbay/internal/server"
)

const tower = "/jobs/echo-sounding-tower"

// as names the hands at this bench, in the dialog a person would use.
func (b *tab) as(name string) {
	b.t.Helper()
	b.button("header", "Who is at the bench?")
	b.do(chromedp.WaitVisible(chromedp.CSS("#who")),
		chromedp.SendKeys(chromedp.CSS("#who"), name+kb.Enter),
		chromedp.WaitNotPresent(chromedp.CSS("dialog[open]")))
}

// button clicks the button of an accessible name inside a part of the page.
func (b *tab) button(within, name string) {
	b.t.Helper()
	js := fmt.Sprintf(`(() => {
		const named = (e) => (e.getAttribute('aria-label') ?? e.innerText).replace(/\s+/g, ' ').trim();
		const all = [...document.querySelectorAll(%q + ' button, ' + %q + ' a')];
		const hit = all.find((e) => named(e) === %q && !e.disabled);
		document.querySelectorAll('[data-hit]').forEach((e) => e.removeAttribute('data-hit'));
		hit?.setAttribute('data-hit', '');
		return !!hit;
	})()`, within, within, name)
	b.do(pollTrue(js), clickOn("[data-hit]"))
}

// drag takes a part from the mat onto a socket.
func (b *tab) drag(item, socket string) {
	b.t.Helper()
	b.do(chromedp.Evaluate[chromedp.Void]("window.scrollTo(0, 0)"),
		chromedp.DragAndDrop(chromedp.CSS(`[data-item="`+item+`"]`), chromedp.CSS(`button[data-socket="`+socket+`"]`)))
	b.wants(`button[data-socket="`+socket+`"]`, "") // the page is alive
}

func socket(id string) string { return `button[data-socket="` + id + `"]` }

// erase types the ends of the serial numbers that the first step in a place asks for before it is
// done; false is that none does.
func (b *tab) erase(in string) bool {
	b.t.Helper()
	held := fmt.Sprintf(`[...document.querySelectorAll(%q)].map((e) => e.querySelector('[data-testid="held"] button')).find(Boolean)`, in)
	if looked, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool](held+" !== undefined")); err != nil {
		b.t.Fatal(err)
	} else if looked { // nobody said what it holds: it is looked at first
		b.do(pollTrue(`(() => { const b = ` + held + `; if (b && !b.dataset.hit) { b.dataset.hit = '1'; b.click(); } return !b; })()`)) // each once, however slow the answer is
	}
	step, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](fmt.Sprintf(
		`[...document.querySelectorAll(%q)].map((e) => e.querySelector('form[data-testid="asks"]')).find(Boolean)?.closest('[data-step]').dataset.step ?? ''`, in)))
	if err != nil {
		b.t.Fatal(err)
	}
	if step == "" {
		return false
	}
	ends, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`fetch('/api/jobs/' + location.pathname.split('/')[2]).then((a) => a.json()).then((v) => [...v.view.job.items.map((i) => (i.serial ?? '').slice(-4)), ...v.view.job.planned.placements.map((p) => p.socket)].filter(Boolean).join(' '))`, chromedp.EvalAwaitPromise))
	if err != nil {
		b.t.Fatal(err)
	}
	row := fmt.Sprintf(`[data-step=%q]`, step)
	b.do(chromedp.SendKeys(chromedp.CSS(row+" form input"), ends+kb.Enter))
	b.wants(row, "done by")
	return true
}

// tickAll does every step of some phases, and lets tests pass.
func (b *tab) tickAll(until string) {
	b.t.Helper()
	for range 60 {
		id, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](fmt.Sprintf(
			`[...document.querySelectorAll('[data-step]')].find((e) => !e.innerText.match(/done by|passed,/) && !e.dataset.step.startsWith(%q))?.dataset.step ?? ''`, until)))
		if err != nil {
			b.t.Fatal(err)
		}
		row := fmt.Sprintf(`[data-step=%q]`, id)
		switch {
		case b.erase(row):
		case id == "":
			return
		case strings.HasPrefix(id, "test/"):
			b.click(row + ` button[aria-label^="It passed"]`)
			b.do(chromedp.SendKeys(chromedp.CSS(row+" form input"), "4"+kb.Enter))
			b.wants(row, "passed")
		default:
			// The page brings the next step into view when the tick is held, not when it is made.
			before := b.text(`[data-testid="progress"]`)
			b.do(clickOn(row + " input"))
			b.wants(row, "done by")
			b.do(pollTrue(fmt.Sprintf(`document.querySelector('[data-testid="progress"]').innerText !== %q`, before)))
		}
	}
	b.t.Fatal("the order does not end")
}

// TestStory is one job from arrival to hand-over, in the real interface, with
// the mouse; a reload and a second tab come in between.
func TestStory(t *testing.T) {
	base := shop(t)
	b := open(t, base)
	b.visit("/")
	b.as("Oda Finch")

	// Bench: the jobs with stage, what each waits for, and its next action.
	b.wants("main", "14 open, 4 closed", "Echo-sounding tower", "a place for Ternlight 500", "Go on with the work order", "Compare what the screens show")
	b.axe()
	b.button("main", "Place Ternlight 500: Echo-sounding tower")
	b.wants("main", "A1 and A2 use 1 of the 2 channels", "single channel")
	b.axe()

	// The lower socket: the drive is slower there, and the soundings vanish.
	b.drag("item-4", "M2_2")
	b.wants(socket("M2_2"), "Gen 3 x4, 3.94 GB/s")
	b.wants(socket("SATA6"), "off")
	b.wants("main", "Mudlark 2 TB is not seen on SATA6", "when M2_2 holds anything, SATA5 is off and SATA6 is off",
		"Ternlight 500 could do 7.88 GB/s and runs at Gen 3 x4, 3.94 GB/s before packet overhead, in M2_2", "move the data lead of Mudlark 2 TB to SATA1")
	b.axe()
	b.visit(tower + "/order")
	b.wants("main", "The plan is stopped, and nothing can be ticked")
	b.axe()

	// A SATA-only card in the upper socket is stopped, and says why.
	b.visit(tower + "/fit")
	b.addPart("skerry-240", "SK24-9", true)
	b.drag("item-7", "M2_1")
	b.wants(socket("M2_1"), "Skerry 240", "does not work here")
	b.wants("main", "Skerry 240 speaks SATA; M2_1 takes PCIe only, so the drive would not be seen", "a notch tells what goes in, not what it speaks")
	b.do(clickOn(socket("M2_1")))
	b.button(`[data-testid="socket"]`, "Take it out")
	b.wants(socket("M2_1"), "free")
	b.button("[data-mat]", "Remove Skerry 240 SK24-9 from the job")
	b.do(pollTrue(`!document.querySelector('[data-mat]').innerText.includes('SK24-9')`)) // what lies below it has moved up by then

	// The upper socket it is: first by the cure, back, and then by hand.
	b.button("main", "move Ternlight 500 from M2_2 into M2_1")
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.button("main", "Undo")
	b.wants(socket("M2_2"), "Gen 3 x4, 3.94 GB/s")
	b.do(clickOn(socket("M2_2")))
	b.button(`[data-testid="socket"]`, "Move it")
	b.wants(`[data-testid="dock"]`, "Put it down")
	b.do(clickOn(socket("M2_1")))
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.wants(socket("SATA6"), "SATA 6 Gb/s, 600 MB/s")

	// Memory: old ones out, new ones by the sheet; kept, there is more and it is slower.
	b.drag("item-5", "A2")
	b.drag("item-6", "B2")
	b.panel("memory")
	b.wants("main", "New modules alone", "32 GiB, 3200 MT/s", "peak 51.20 GB/s", "Old modules kept as well", "40 GiB, 2400 MT/s", "peak 38.40 GB/s")
	b.button("main", "Use: New modules alone")
	b.wants(`[data-testid="memory-total"]`, "32 GiB")
	b.wants(`[data-testid="memory-speed"]`, "3200 MT/s · dual channel · peak 51.20 GB/s")
	b.wants(`[data-panel="findings"]`, "no stop, no warning")

	// Work order: ticks are saved as they are made; a reload loses nothing.
	b.button("main", "Begin the work order")
	b.wants("main", "Pull the mains plug and every other lead", "Never open a power supply", "Label side up, notch to the key",
		"Move the post to 80 mm", "Peel the films off", "Press one end until it clicks, then the other", "Strap on, clipped to bare metal")
	b.axe()
	for _, id := range []string{"prepare/backup", "prepare/parts"} {
		b.do(clickOn(fmt.Sprintf(`[data-step=%q] input`, id)))
		b.wants(fmt.Sprintf(`[data-step=%q]`, id), "done by Oda Finch")
	}
	b.do(chromedp.Reload())
	b.wants(`[data-testid="progress"]`, "2 of")
	b.wants(`[data-step="prepare/parts"]`, "done by Oda Finch")

	// A second tab was faster: the first is told, and loses nothing.
	b.deaf()
	other := open(t, base)
	other.visit(tower + "/order")
	other.as("Wim Tarn")
	other.do(clickOn(`[data-step="power-down/shut"] input`))
	other.wants(`[data-step="power-down/shut"]`, "done by Wim Tarn")
	// Two steps at once: both are done, and nobody is asked.
	b.do(clickOn(`[data-step="power-down/unplug"] input`))
	b.wants(`[data-step="power-down/unplug"]`, "done by Oda Finch")
	b.wants(`[data-step="power-down/shut"]`, "done by Wim Tarn")
	// One step said differently: that is a conflict.
	b.deaf()
	now := read[server.JobView](t, base+"/api"+tower).Revision
	b.changed("echo-sounding-tower", now, map[string]any{"do": "leave out", "step": "power-down/drain", "text": "the board has no lights", "sure": true})
	b.allow("409")
	b.do(clickOn(`[data-step="power-down/drain"] input`))
	b.wants("dialog[open]", "Somebody else changed this job", "left out: Hold the power button", "Your change, on top of that: done: Hold the power button")
	b.axe()
	b.button("dialog[open]", "Put mine on top of theirs")
	b.wants(`[data-step="power-down/drain"]`, "done by Oda Finch")

	b.tickAll("close/")
	b.wants("main", "Compare them first")

	// Prove: confirm, or type what is shown; a difference stays until explained or cured.
	b.visit(tower + "/prove")
	b.wants(`[data-line="total"]`, "32 GiB", "32,768 MB")
	b.wants(`[data-line="drive/M2_1"]`, "500 GB", "500,107,862,016 bytes", "465.76 GiB", "465 GB")
	b.axe()
	for _, screen := range []string{"set-up", "system"} { // what the job does not touch is folded away
		b.click(`[data-screen="` + screen + `"] [data-testid="rest"] summary`)
	}
	b.wants(`[data-line="drive/SATA6"]`, "2 TB", "1.82 TiB", "1.81 TB")
	b.reading("drive/M2_1", "465 GB", "agrees")
	b.reading("drive/SATA6", "1.8 TB", "agrees")
	b.reading("rate", "2133", "differs")
	b.wants(`[data-line="rate"]`, "It shows 2133, expected 3200 MT/s")
	b.do(clickOn(`[data-line="rate"] button`)) // read again: it was cured
	b.wants(`[data-line="rate"]`, "not looked at")
	b.reading("link/M2_1", "Gen 3 x4", "differs")
	b.do(chromedp.SendKeys(chromedp.CSS(`[data-line="link/M2_1"] form input`), "read at idle"+kb.Enter))
	b.wants(`[data-line="link/M2_1"]`, "explained", "read at idle")
	b.confirmAll()
	b.wants(`[data-testid="tally"]`, "0 to read", "0 differ, 1 explained")

	// Close the machine, hand over, find it again.
	b.visit(tower + "/order")
	b.tickAll("none")
	b.visit(tower + "/handover")
	b.wants("article", "Echo-sounding tower", "TLN4-5A0C77", "M2_1", "Gen 4 x4, 7.88 GB/s", "Taken out", "was in A1", "SL4-220871",
		"Stayed where it was", "SATA6", "read at idle", "Memory now: 32 GiB", "by Oda Finch, Wim Tarn", "Run a memory test to the end: passed, 4 passes")
	b.axe()
	b.onePage()
	b.do(chromedp.SendKeys(chromedp.CSS("#note"), "SATA1 to SATA5 are free for a further disk"))
	b.button("aside", "Close the job")
	b.wants("article", "Closed by Oda Finch", "SATA1 to SATA5 are free")
	b.visit("/")
	b.do(chromedp.SendKeys(chromedp.CSS("#q"), "ml7 0093318"))
	b.wants("main", "2 found for", "Handed over", "Echo-sounding tower", "Read the hand-over page")
	b.axe()
}

// addPart takes a part from the shelf in the dialog.
func (b *tab) addPart(part, serial string, fit bool) {
	b.t.Helper()
	b.button("[data-mat]", "Add a part")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] select[id$=part]")))
	b.takes("Or choose from the shelf", part)
	b.field("Its serial number, as printed", serial)
	b.axe()
	checked, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool](`document.querySelector('dialog[open] input[type=checkbox]').checked`))
	if err != nil {
		b.t.Fatal(err)
	}
	if checked != fit {
		b.click("dialog[open] input[type=checkbox]")
	}
	b.button("dialog[open]", "Add it")
	b.do(chromedp.WaitNotPresent(chromedp.CSS("dialog[open]")))
}

// reading types what a line shows and waits for the verdict.
func (b *tab) reading(line, shown, verdict string) {
	b.t.Helper()
	row := fmt.Sprintf(`[data-line=%q]`, line)
	b.do(clickOn(row+` button[aria-label^="It shows"]`),
		chromedp.SendKeys(chromedp.CSS(row+" form input"), shown+kb.Enter))
	b.wants(row, verdict, "seen: "+shown)
}

// confirmAll takes all that is not read yet as expected, screen by screen.
func (b *tab) confirmAll() {
	b.t.Helper()
	for _, screen := range []string{"set-up", "system"} {
		b.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`[...document.querySelectorAll('[data-screen=%q] button')].find((e) => e.innerText.includes('as expected') && !e.ariaLabel)?.click()`, screen)),
			pollTrue(fmt.Sprintf(`!document.querySelector('[data-screen=%q]').innerText.includes('not looked at')`, screen)))
	}
}

// onePage checks that the hand-over page prints on one sheet of A4.
func (b *tab) onePage() {
	b.t.Helper()
	pdf, err := chromedp.Run(b.ctx, chromedp.PrintToPDF())
	if err != nil {
		b.t.Fatal(err)
	}
	if dir := os.Getenv("DEEPBAY_KEEP_PDF"); dir != "" {
		os.WriteFile(filepath.Join(dir, "page.pdf"), pdf, 0o644)
	}
	if n := strings.Count(string(pdf), "/Type /Page\n"); n != 1 {
		b.t.Errorf("the hand-over page prints on %d pages, want 1", n)
	}
}

// axe runs axe-core over the page as it is.
func (b *tab) axe(rules ...string) {
	b.t.Helper()
	there, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool]("'axe' in window")) // from an earlier look at this page
	if err != nil {
		b.t.Fatal(err)
	}
	if !there {
		source, err := os.ReadFile(filepath.Join("..", "web", "node_modules", "axe-core", "axe.min.js"))
		if err != nil {
			b.t.Fatalf("axe-core is missing: run make test, which installs it: %v", err)
		}
		b.do(chromedp.Evaluate[chromedp.Void](string(source) + "; void 0"))
	}
	only := ""
	if len(rules) > 0 {
		only = fmt.Sprintf("runOnly: ['%s'],", strings.Join(rules, "','"))
	}
	raw, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](
		`axe.run(document.querySelector('dialog[open]') ?? document, { `+only+` preload: false, iframes: false, resultTypes: ['violations'] }).then((r) => JSON.stringify(r.violations.map((v) => ({ id: v.id, help: v.help, nodes: v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160) + ' ' + (n.any[0]?.message ?? '')) }))))`,
		chromedp.EvalAwaitPromise))
	if err != nil {
		b.t.Fatal(err)
	}
	var violations []struct {
		ID, Help string
		Nodes    []string
	}
	if err := json.Unmarshal([]byte(raw), &violations); err != nil {
		b.t.Fatal(err)
	}
	for _, v := range violations {
		b.t.Errorf("axe: %s: %s\n  %s", v.ID, v.Help, strings.Join(v.Nodes, "\n  "))
	}
}

// TestKeyboard fits the parts of the same job without a mouse.
func TestKeyboard(t *testing.T) {
	b := open(t, shop(t))
	b.visit(tower + "/fit")
	press := func(keys string) { b.t.Helper(); b.do(chromedp.KeyEvent(keys)) }
	// onto goes to the chart with Tab, and there with the arrow keys.
	onto := func(id string) {
		t.Helper()
		for range 120 {
			key, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](fmt.Sprintf(`(() => {
				const at = document.activeElement, to = document.querySelector('button[data-socket=%q]');
				if (at === to) return 'there';
				if (!at?.dataset.socket) return 'Tab';
				const a = at.getBoundingClientRect(), b = to.getBoundingClientRect();
				const dx = (b.left + b.right - a.left - a.right) / 2, dy = (b.top + b.bottom - a.top - a.bottom) / 2;
				const level = Math.abs(dx) > Math.abs(dy) === (window.stuck !== at);
				window.stuck = at;
				return level ? (dx > 0 ? 'Right' : 'Left') : dy > 0 ? 'Down' : 'Up';
			})()`, id)))
			if err != nil {
				t.Fatal(err)
			}
			if key == "there" {
				return
			}
			press(map[string]string{"Tab": kb.Tab, "Right": kb.ArrowRight, "Left": kb.ArrowLeft, "Down": kb.ArrowDown, "Up": kb.ArrowUp}[key])
		}
		t.Fatalf("the keys do not reach %s", id)
	}
	put := func(part, id, says string) {
		t.Helper()
		press("m")
		b.wants(`[data-testid="dock"]`, "Where "+part+" goes")
		onto(id)
		press(kb.Enter)
		b.wants(socket(id), says)
	}
	put("Ternlight 500", "M2_1", "Gen 4 x4, 7.88 GB/s")
	put("Sallow 16 GB", "A2", "16 GiB")
	// The module that was in A2 went to the mat and is offered first now.
	press("m")
	b.wants(`[data-testid="dock"]`, "Where Sallow 4 GB goes")
	press(kb.Escape)
	b.do(chromedp.Evaluate[chromedp.Void]("document.activeElement.blur()"))
	press("m")
	press("m")
	b.wants(`[data-testid="dock"]`, "Where Sallow 16 GB goes")
	onto("B2")
	press(kb.Enter)
	b.wants(socket("B2"), "16 GiB")
	onto("A1")
	press(kb.Enter)
	b.wants(`[data-testid="socket"]`, "A1, nearest the processor")
	press("t")
	b.wants(socket("A1"), "free")
	b.panel("memory")
	b.wants(`[data-testid="memory-speed"]`, "3200 MT/s · dual channel")

	// Undo brings it back, and redo takes it out again.
	press("u")
	b.wants(socket("A1"), "Sallow 4 GB")
	b.button("main", "Redo")
	b.wants(socket("A1"), "free")

	// The work order with the space bar, from the next step on.
	press("w")
	b.wants("main", "See that the backup is there")
	b.do(chromedp.Focus(chromedp.CSS(`[data-step="prepare/backup"] input`)))
	press(" ")
	b.wants(`[data-step="prepare/backup"]`, "done by")
	press(kb.Tab + " ")
	b.wants(`[data-step="prepare/parts"]`, "done by")

	// Every key of the list answers.
	press("p")
	b.wants("main", "In set-up")
	press("h")
	b.wants("article", "Echo-sounding tower")
	press("f")
	b.wants("main", "Findings")
	press("?")
	b.wants("dialog[open]", "Undo the last change")
	b.axe()
	press(kb.Escape)
	b.do(chromedp.WaitNotPresent(chromedp.CSS("dialog[open]")))
	press("b")
	b.wants("main", "On the bench")
	press("n")
	b.wants("dialog[open]", "New job")
}

// TestTouch fits a part with a finger, by tap and tap.
func TestTouch(t *testing.T) {
	b := open(t, shop(t))
	b.do(chromedp.EmulateViewport(820, 1180, chromedp.EmulateTouch))
	b.visit(tower + "/fit")
	b.do(chromedp.Tap(chromedp.CSS(`[data-item="item-4"]`)))
	b.wants(`[data-testid="dock"]`, "Put it down")
	b.do(chromedp.Tap(chromedp.CSS(socket("M2_1"))))
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.visit(tower + "/order")
	b.do(chromedp.Tap(chromedp.CSS(`[data-step="prepare/backup"] input`)))
	b.wants(`[data-step="prepare/backup"]`, "done by")
}

// finger drags what stands at one selector to another with a finger that rests first.
func (b *tab) finger(from, to string) {
	b.t.Helper()
	middle := func(of string) (x, y float64) {
		at, err := chromedp.Run(b.ctx, chromedp.Evaluate[[]float64](fmt.Sprintf(`(() => {
			const e = [...document.querySelectorAll(%q)].find((e) => e.checkVisibility());
			e.scrollIntoView({ block: 'nearest' });
			const r = e.getBoundingClientRect();
			return [r.x + r.width / 2, r.y + Math.min(r.height / 2, 30)];
		})()`, of)))
		if err != nil {
			b.t.Fatal(err)
		}
		return at[0], at[1]
	}
	x, y := middle(from)
	touch := func(kind input.DispatchTouchEventType, points ...*input.TouchPoint) chromedp.Action[chromedp.Void] {
		return chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			_, err := cdp.Call(ctx, t, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: append([]*input.TouchPoint{}, points...)})
			return err
		})
	}
	b.do(touch(input.DispatchTouchEventTypeTouchStart, &input.TouchPoint{X: x, Y: y}), chromedp.Sleep(400*time.Millisecond))
	toX, toY := middle(to)
	for i := 1.0; i <= 8; i++ {
		b.do(touch(input.DispatchTouchEventTypeTouchMove, &input.TouchPoint{X: x + (toX-x)*i/8, Y: y + (toY-y)*i/8}))
	}
	b.do(touch(input.DispatchTouchEventTypeTouchEnd))
}

// TestTouchDrag fits a part with a finger that drags it, and brings it back: on a tablet and
// on a phone, where the way is up and down.
func TestTouchDrag(t *testing.T) {
	for _, size := range []struct{ w, h int64 }{{820, 1180}, {390, 844}} {
		b := open(t, shop(t))
		b.do(chromedp.EmulateViewport(size.w, size.h, chromedp.EmulateTouch))
		b.visit(tower + "/fit")
		if size.w < 640 {
			b.click(`[data-testid="dock"] button[aria-expanded]`)
		}
		b.finger(`[data-item="item-4"]`, socket("M2_1"))
		b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
		b.finger(socket("M2_1"), `[data-testid="dock"]`)
		b.wants(socket("M2_1"), "free")
		b.do(pollTrue(`!document.querySelector('[data-testid=dock]').innerText.includes('Put it down')`))
	}
}

// takes sets the pick list with a label to a value.
func (b *tab) takes(label, value string) {
	b.t.Helper()
	got, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](fmt.Sprintf(`(() => {
		const l = [...document.querySelectorAll('label')].find((l) => l.innerText.trim() === %q);
		const s = l && document.getElementById(l.htmlFor);
		if (!s) return 'no field is labelled so';
		s.value = %q;
		s.dispatchEvent(new Event('change', { bubbles: true }));
		return s.value;
	})()`, label, value)))
	if err != nil || got != value {
		b.t.Fatalf("%s: %q is %q (%v)", label, value, got, err)
	}
}

// TestForms fills in the short form of a carrier, which answers as it is filled, and corrects
// what was written of a piece on the mat and of a part on the shelf.
func TestForms(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/wave-model-desktop/fit")
	b.button("[data-mat]", "Add a part")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] select[id$=kind]")))
	b.takes("Or fill in a form", "carrier")
	b.wants(`[data-testid="part-form"]`, "Positions", "Length of its edge")
	b.takes("Length of its edge", "x16")
	b.wants(`[data-testid="part-form"]`, "not said")
	b.field("Positions", "4x m.2"+kb.Tab)
	b.wants(`[data-testid="part-form"]`, "with a switch chip or without?")
	b.axe()
	b.button(`[data-testid="part-form"]`, "no-switch")
	b.wants(`[data-testid="part-form"]`, "4-position carrier")
	b.field("Lengths of M.2 cards", "2290"+kb.Tab)
	b.wants(`[data-testid="part-form"]`, `"2290" means nothing here`)
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[data-testid="part-form"] input[aria-invalid]').select()`))
	b.field("Lengths of M.2 cards", "2280/22110"+kb.Tab)
	b.field("Its serial number, as printed", "RF-77")
	b.wants(`[data-testid="part-form"]`, "4-position carrier")
	b.button("dialog[open]", "Add it")
	b.wants("[data-mat]", "RF-77", "4x m.2")

	// What was written of it was wrong.
	b.click(`button[aria-label^="Correct"][aria-label$="RF-77"]`)
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] form")))
	b.wants(`[data-testid="part-form"]`, "4-position carrier")
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('dialog[open] input[id$=name]').select()`))
	b.field("What it is called", "Raft from the crate")
	b.takes("Switch chip", "switch")
	b.wants(`[data-testid="part-form"]`, "with a switch chip")
	b.axe()
	b.button("dialog[open]", "Save")
	b.wants("[data-mat]", "Raft from the crate", "RF-77")
	b.do(chromedp.WaitNotPresent(chromedp.CSS("dialog[open]")))
	b.button("main", "Undo")
	b.wants("[data-mat]", "4x m.2")

	// On the shelf as well.
	b.visit("/shelf")
	b.button("main", "Correct Skerry 480")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] form")))
	b.click("dialog[open] summary")
	b.wants(`[data-testid="part-form"]`, "480 GB 2.5-inch SATA")
	b.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('dialog[open] details')].forEach((d) => (d.open = true))`))
	b.wants(`[data-testid="part-form"]`, "Reads at")
	b.field("Power", "3"+kb.Tab)
	b.axe()
	b.button("dialog[open]", "Save")
	b.do(chromedp.WaitNotPresent(chromedp.CSS("dialog[open]")))
}

// TestWrittenDown takes a machine in by what is written down at its open lid: places, words
// and what is new, in one go; a line that is wrong is named while it is typed, and nothing of
// it is taken.
func TestWrittenDown(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.button("main", "New job")
	b.button("dialog[open]", "Fill in the form")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] select")), inDialog("plover-m2"))
	b.field("What the owner calls the machine", "Slipway tide display")
	b.field("What lies in it, as far as you know, and what is new", "sodimm1: 8GB PC4-2666V-S S/N SO-1\nM2: 240GB m.2 2280 B+M\nSODIMM7: 8GB")
	b.wants("dialog[open]", "CAS latency of 19 clocks", "240 GB M.2", "serial number SO-1", `no place is called "SODIMM7"`)
	b.axe()
	b.allow("422")
	b.button("dialog[open]", "Start the job")
	b.wants("dialog[open] form", `line 3: no place is called "SODIMM7"`)
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('dialog[open] textarea').select()`))
	b.field("What lies in it, as far as you know, and what is new", "sodimm1: 8GB PC4-2666V-S S/N SO-1\nM2: 240GB sata m.2 2280 B+M\nnew: 8GB PC4-2666V-S S/N SO-2")
	b.wants("dialog[open]", "SODIMM1", "to fit")
	b.button("dialog[open]", "Start the job")
	b.wants("[data-mat]", "SO-2")
	b.wants(socket("SODIMM1"), "8 GiB")
	b.button("main", "As found")
	b.button("[data-mat]", "Add a part")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] textarea")))
	b.button("dialog[open]", "SODIMM2")
	b.do(chromedp.SendKeys(chromedp.CSS("dialog[open] textarea"), "4GB DDR4"))
	b.wants("dialog[open]", "4 GiB DDR4 SO-DIMM", "does not say its speed")
	b.axe()
	b.button("dialog[open]", "Add it")
	b.wants(socket("SODIMM2"), "4 GiB")
}

// TestLine takes a machine in by one line, which is shown as it was understood.
func TestLine(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.button("main", "New job")
	line := "What is wished, and for which machine"
	b.field(line, "256 GB for HS-0417")
	b.wants("dialog[open]", "HS-0417 is here: Echo-sounding tower, and that job is open", "256 GB: memory or a drive? Say which", "Go to that job")
	b.axe()
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('dialog[open] input').select()`))
	b.field(line, "32 GB and a fast 1 TB for the quay camera, plover m2, a new machine")
	b.wants("dialog[open]", "32 GB at least 32 GiB of memory", "1 TB a system drive of at least 1 TB, over PCIe", "sheet: Plover M2 mini PC", "a new machine with nothing in it")
	b.button("dialog[open]", "Start the job")
	b.wants("main", "Quay camera", "32 GB and a fast 1 TB for the quay camera")
	b.button("main", "Change it")
	b.do(pollTrue(`[...document.querySelectorAll('dialog[open] input[type=number]')].slice(0, 2).map((i) => i.value).join() === '32,1000'`))
}

// TestNewJob takes a machine in from a sheet and a wish, enters what is found in
// it, and meets the errors a person would.
func TestNewJob(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.button("main", "New job")
	b.button("dialog[open]", "Fill in the form")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] select")))
	b.axe()
	b.do(inDialog("plover-m2"))
	b.field("What the owner calls the machine", "Lock-keeper's mini PC")
	b.field("Memory of at least (GiB)", "16")
	b.field("The wish, in the owner's words", "twice the memory")
	b.button("dialog[open]", "Start the job")
	b.wants("main", "No parts yet", "Enter what is in the machine")

	b.button("main", "As found")
	b.addPart("sallow-8g-so", "SO-1", false)
	b.do(clickOn(`[data-item="item-1"]`))
	b.wants(`[data-testid="dock"]`, "Put it down")
	b.do(clickOn(socket("SODIMM1")))
	b.wants(socket("SODIMM1"), "8 GiB at 2666 MT/s")
	b.do(clickOn(socket("SODIMM1")))
	b.button("main", "Change it")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] textarea")))
	b.axe()
	b.field("What must not be touched", "the lock log")
	b.button("dialog[open]", "Save")
	b.do(chromedp.WaitNotPresent(chromedp.CSS("dialog[open]")))

	// A kit by the words that are printed on it, with what they leave open.
	b.button("main", "As planned")
	b.button("[data-mat]", "Add a part")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] form")))
	b.field("Type or paste what is printed on them, a line for each kind", "2x8 12800")
	b.wants("dialog[open]", "which speed?")
	b.axe()
	b.button("dialog[open]", "DDR4-1600")
	b.wants("dialog[open]", "2 of 8 GiB DDR4-1600 SO-DIMM", "does not say its ranks")
	b.do(chromedp.SendKeys(chromedp.CSS("dialog[open] textarea"), " S/N SO-2 S/N SO-3"))
	b.wants("dialog[open]", "serial number SO-3")
	b.button("dialog[open]", "Add it")
	b.wants("[data-mat]", "SO-2", "SO-3")

	// A job that is not there, and a page that is not.
	b.allow("404")
	b.visit("/jobs/no-such-job/fit")
	b.wants("main", "Nothing of that name is here", `job "no-such-job": not found`)
	b.axe()

	// A file that is not a job says where it is wrong, and nothing changes.
	b.visit("/")
	bad := filepath.Join(t.TempDir(), "bad.json")
	if err := os.WriteFile(bad, []byte(`{"format":"deepbay/part","version":1,"id":"x","name":"X","colour":"red","drive":{"form":"m2","m2":{}}}`), 0o644); err != nil {
		t.Fatal(err)
	}
	b.allow("422")
	b.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{bad}, chromedp.NodeReady))
	b.wants(`[data-testid="toasts"]`, "bad.json was not taken: /colour: this field is not known")
	b.axe()
}

// field types into the field of a label.
func (b *tab) field(label, text string) {
	b.t.Helper()
	of := fmt.Sprintf(`[...document.querySelectorAll('label')].find((l) => l.innerText.trim() === %q)?.htmlFor`, label)
	b.do(pollTrue("!!" + of)) // a dialog is fetched when it is opened
	id, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](of))
	if err != nil || id == "" {
		b.t.Fatalf("no field is labelled %q (%v)", label, err)
	}
	b.do(chromedp.SendKeys(chromedp.ID(id), text))
}

// TestSlideRule types questions and reads the answers as they come.
func TestSlideRule(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.do(chromedp.KeyEvent("r"))
	b.wants("main", "2 of 16 GiB DDR5-5600 SO-DIMM")
	// A question is asked when somebody comes to it.
	b.do(chromedp.Evaluate[chromedp.Void](`(async () => {
		for (const ask of document.querySelectorAll('[data-ask]')) {
			ask.scrollIntoView();
			await new Promise((done) => setTimeout(done, 50));
		}
	})()`, chromedp.EvalAwaitPromise))
	b.wants("main", "2 of 16 GiB DDR5-5600 SO-DIMM", "it does not say", "Gen 3 x4, 3.94 GB/s", "882 MB/s each", "1.81 TB", "DDR4-2666", "40 GiB, 2400 MT/s, dual channel",
		"M-key SATA speaks SATA; socket takes PCIe only")
	b.axe()
	set := func(id, text string) {
		t.Helper()
		b.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("document.getElementById(%q).select()", id)), chromedp.SendKeys(chromedp.ID(id), text))
	}
	set("code", "12800")
	b.wants("main", "which speed:", "DDR3-1600 or DDR4-1600")
	b.button("main", "DDR3-1600")
	b.wants("main", "PC3-12800, one channel 12.80 GB/s")
	set("words", "16GB 2Rx8 PC3L-12800S-11-11-F3")
	b.wants("main", "2 ranks of devices 8 bits wide", "CAS latency of 11 clocks", "runs at 1.35 V or 1.5 V", "13.75 ns")
	set("words", "16GB banana")
	b.wants("main", "\"banana\" means nothing here")
	b.axe()
	b.do(chromedp.EmulateViewport(390, 844))
	wide, err := chromedp.Run(b.ctx, chromedp.Evaluate[float64]("document.documentElement.scrollWidth"))
	if err != nil || wide > 391 {
		t.Errorf("the slide rule is %v px wide on a phone (%v)", wide, err)
	}
}

// TestShelf puts a part on the shelf by its words, corrects it, and brings in a list.
func TestShelf(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.do(chromedp.KeyEvent("l"))
	b.wants("main", "Ternlight 500", "TL-N4-0500", "Echo-sounding tower", "44.00")
	b.axe()
	b.do(chromedp.SendKeys(chromedp.ID("words"), "8 12800"))
	b.wants("form", "which speed?", "which form?")
	b.button("form", "DDR3-1600")
	b.wants("form", "8 GiB DDR3-1600 memory module")
	b.button("form", "SODIMM")
	b.wants("form", "8 GiB DDR3-1600 SO-DIMM")
	b.axe()
	b.do(chromedp.SendKeys(chromedp.ID("price"), "12.5"))
	b.button("form", "Put it on the shelf")
	b.wants(`[data-part="8gb-ddr3-1600-sodimm"]`, "12.50")
	b.button(`[data-part="8gb-ddr3-1600-sodimm"]`, "Correct 8GB DDR3-1600 SODIMM")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] input[type=number]")),
		chromedp.Evaluate[chromedp.Void](`document.querySelector('dialog[open] input[type=number]').select()`),
		chromedp.SendKeys(chromedp.CSS("dialog[open] input[type=number]"), "7"))
	b.axe()
	b.button("dialog[open]", "Save")
	b.wants(`[data-part="8gb-ddr3-1600-sodimm"]`, "7")

	// Somebody else counts meanwhile: that is said, and shown, and not written over.
	b.button(`[data-part="8gb-ddr3-1600-sodimm"]`, "Correct 8GB DDR3-1600 SODIMM")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] input[type=number]")))
	b.allow("409")
	b.do(chromedp.Evaluate[chromedp.Void](`fetch('/api/shelf/words', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({text: '8GB DDR3-1600 SODIMM', by: 'Runa Gannet'})}).then(a => { if (!a.ok) throw new Error(a.status) })`, chromedp.EvalAwaitPromise))
	b.button("dialog[open]", "Save")
	b.wants("dialog[open]", "Changed meanwhile by Runa Gannet: 1 more, 8 in all", "nothing of yours was kept")
	b.do(clickOn("dialog[open] details:last-of-type summary"))
	b.wants("dialog[open] ol", "6 more, 7 in all", "put on the shelf, 1 of it")
	b.axe()
	b.button("dialog[open]", "Save")
	b.wants(`[data-part="8gb-ddr3-1600-sodimm"]`, "8")
	list := filepath.Join(t.TempDir(), "list.csv")
	if err := os.WriteFile(list, []byte("id,shorthand,count\nraft-4,,9\nx,banana,1\n"), 0o644); err != nil {
		t.Fatal(err)
	}
	b.do(chromedp.SetUploadFiles(chromedp.CSS(`input[type=file]`), []string{list}, chromedp.NodeReady))
	b.wants("dialog[open]", "1 good rows, 1 faults", "line 3, shorthand:", "means nothing here")
	b.axe()
	b.button("dialog[open]", "Take the 1 good rows")
	b.wants(`[data-part="raft-4"]`, "9")
}

// TestSheets looks at the shop's sheets.
func TestSheets(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.do(chromedp.KeyEvent("s"))
	b.wants("main", "Avocet E1 entry desktop", "Cormorant W8 workstation")
	b.do(clickOn(`a[href="/sheets/kittiwake-d2"]`))
	b.wants("main", "when M2_2 holds anything, PCIE1 is at most x8 (manual p. 12)")
	b.axe()
	b.do(clickOn(socket("PCIE1")))
	b.wants("main", "can be split", "8+8")
}

// TestCarrier cures a plan in which three of four drives on a card would not be seen.
func TestCarrier(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/dive-camera-ingest/fit")
	b.wants(socket("SLOT3"), "lanes for 1 of 4 positions")
	b.wants("main", "Ternlight 2000 is not seen in SLOT3/2: no lanes of the slot reach this position", "SLOT3 is x16, not split")
	b.axe()
	b.button("main", "Do it: set Slot 3 layout to x4 x4 x4 x4")
	b.wants(socket("SLOT3"), "lanes for 4 of 4 positions")
	b.wants(socket("SLOT3/4"), "Gen 4 x4, 7.88 GB/s")
	b.do(clickOn(socket("SLOT3/2")))
	b.wants(`[data-testid="socket"]`, "position 2 of Raft Four", "to plan with: 7.06 GB/s alone")
	b.visit("/jobs/dive-camera-ingest/order")
	b.wants("main", "Set Slot 3 layout to x4 x4 x4 x4", "Fit Ternlight 2000, serial TLN4-20B117 into SLOT3/1")
}

// TestUndoOfAnother takes back what somebody else did only when that is said twice.
func TestUndoOfAnother(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.as("Oda Finch")
	b.do(chromedp.Evaluate[chromedp.Void](`fetch('/api'+'`+tower+`/changes', {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify({revision: 1, by: 'Runa Gannet', change: {do: 'place', item: 'item-4', socket: 'M2_1'}})}).then(a => { if (!a.ok) throw new Error(a.status) })`, chromedp.EvalAwaitPromise))
	b.visit(tower + "/fit")
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.allow("409")
	b.button("main", "Undo")
	b.wants("dialog[open]", "the last change is by Runa Gannet: put Ternlight 500 into M2_1")
	b.axe()
	b.button("dialog[open]", "Cancel")
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.button("main", "Undo")
	b.button("dialog[open]", "Take it back all the same")
	b.wants(socket("M2_1"), "free")
}

// TestBusy lets the server say twice that it is busy: the change waits and arrives, once.
func TestBusy(t *testing.T) {
	b := open(t, shop(t))
	b.visit(tower + "/fit")
	b.do(chromedp.Evaluate[chromedp.Void](`window.asked = 0; window.realFetch = window.fetch;
		window.fetch = (...a) => a[1]?.method === 'POST' && ++window.asked < 3 ? Promise.resolve(new Response('{}', {status: 503, headers: {'Retry-After': '0.2'}})) : window.realFetch(...a)`))
	b.do(clickOn(`[data-item="item-4"]`), clickOn(socket("M2_1")))
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.do(chromedp.Evaluate[chromedp.Void](`if (window.asked !== 3) throw new Error('asked ' + window.asked + ' times')`))
}

// TestPages fills a bench and a shelf beyond a page: what is not shown is said to be there,
// comes when asked for, and is found by what is printed on it.
func TestPages(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.do(chromedp.Evaluate[chromedp.Void](`(async () => {
		const post = async (path, body) => { const a = await fetch(path, {method: 'POST', headers: {'Content-Type': 'application/json'}, body: JSON.stringify(body)}); if (!a.ok) throw new Error(await a.text()) };
		for (let i = 0; i < 60; i++) await post('/api/jobs', {title: 'Buoy logger ' + i, sheet: 'harrier-t4', wish: {}, tag: 'BL-' + (100 + i)});
		for (let i = 0; i < 80; i++) await post('/api/shelf/words', {text: (120 + i) + ' GB ssd 2.5 sata gen3'});
	})()`, chromedp.EvalAwaitPromise))
	rows := func(selector string, want int) {
		t.Helper()
		b.do(pollTrue(fmt.Sprintf(`document.querySelectorAll(%q).length === %d`, selector, want)))
	}
	b.visit("/")
	b.wants("main", "74 open, 4 closed; 50 are shown", "50 of 78 are shown")
	b.axe()
	b.button("main", "Show more")
	rows("main li h2", 78)
	b.do(chromedp.SendKeys(chromedp.ID("q"), "bl 107"))
	b.wants("main", "1 found for “bl 107”", "Buoy logger 7")
	b.visit("/shelf")
	b.wants("main", "112 kinds of part; 100 are shown")
	b.axe()
	b.button("main", "Show more")
	rows("tr[data-part]", 112)
	b.do(chromedp.SendKeys(chromedp.ID("find"), "ternlight 500"))
	b.wants("main", "carry “ternlight 500”", "TL-N4-0500")
	rows("tr[data-part]", 1)
}

// TestTypingGoesOn types on while the answer to the first letters is under way: no letter is
// lost.
func TestTypingGoesOn(t *testing.T) {
	b := open(t, shopBehind(t, filepath.Join(t.TempDir(), "shop.db"), func(h http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			if r.URL.Query().Get("q") != "" {
				time.Sleep(600 * time.Millisecond)
			}
			h.ServeHTTP(w, r)
		})
	}))
	for _, c := range []struct{ path, field, said string }{{"/", "q", "1 found for “hs-0447”"}, {"/shelf", "find", "carry “ternlight 500”"}} {
		words := c.said[strings.Index(c.said, "“")+len("“") : strings.Index(c.said, "”")]
		b.visit(c.path)
		b.do(chromedp.SendKeys(chromedp.ID(c.field), words[:4]), chromedp.Sleep(500*time.Millisecond))
		for _, letter := range words[4:] {
			b.do(chromedp.KeyEvent(string(letter)), chromedp.Sleep(60*time.Millisecond))
		}
		b.wants("main", c.said)
	}
}

// TestDamaged damages a job, a sheet and a part in the file: the bench names each, saves what is
// there, and brings each back; everything else works meanwhile.
func TestDamaged(t *testing.T) {
	path := filepath.Join(t.TempDir(), "shop.db")
	b := open(t, shopAt(t, path))
	db, err := sql.Open("sqlite", path)
	if err != nil {
		t.Fatal(err)
	}
	defer db.Close()
	for _, q := range []string{
		`UPDATE jobs SET doc = replace(doc, 'Tide-gauge', 'Tide-gauhe') WHERE id = 'tide-gauge-mini-pc'`,
		`UPDATE sheets SET doc = replace(doc, 'Harrier', 'Harriet') WHERE id = 'harrier-t4'`,
		`UPDATE stock SET count = count + 64 WHERE part = 'raft-4'`,
	} {
		if _, err := db.ExecContext(t.Context(), q); err != nil {
			t.Fatal(err)
		}
	}
	b.visit("/shelf") // which meets the part
	b.wants("main", "31 kinds of part")
	b.visit("/")
	b.wants("main", `job "tide-gauge-mini-pc" is damaged`, `sheet "harrier-t4" is damaged`, `part "raft-4" is damaged`, "Echo-sounding tower")
	b.axe()
	for _, what := range []string{"sheet harrier-t4", "part raft-4", "tide-gauge-mini-pc"} {
		b.button("main", "Bring back its last good revision: "+what)
		b.do(pollTrue(fmt.Sprintf(`![...document.querySelectorAll('main [aria-label]')].some((e) => e.ariaLabel.endsWith(%q) && e.ariaLabel.startsWith('Bring'))`, what)))
	}
	b.wants("main", "Tide-gauge mini PC")
	b.visit("/shelf")
	b.wants("main", "32 kinds of part")
	b.visit("/sheets/harrier-t4")
	b.wants("main", "brought back revision 1")
}

// TestOwner saves and deletes the data of an owner from the page of a closed job; that there
// was one stays on the bench.
func TestOwner(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.as("Oda Finch")
	b.do(chromedp.Evaluate[chromedp.Void](`(async () => {
		const j = await (await fetch('/api/jobs/lock-gate-recorder/file')).json();
		Object.assign(j, {id: 'gate-9', title: 'Gate nine', owner: 'Pilot station', closed: {by: 'Oda Finch', at: '2026-11-20T10:00:00Z'}});
		const a = await fetch('/api/files', {method: 'POST', body: JSON.stringify(j)}); if (!a.ok) throw new Error(await a.text());
	})()`, chromedp.EvalAwaitPromise))
	b.visit(tower + "/handover")
	b.click(`aside details:last-child summary`)
	b.wants("aside", "2 jobs of Harbour survey, echo-sounding desk", "To delete it: of them 1 is open")
	b.visit("/jobs/gate-9/handover")
	b.click(`aside details:last-child summary`)
	b.wants("aside", "1 job of Pilot station", "Gate nine", "Save all of it")
	b.axe()
	b.button("aside", "Delete all of it…")
	b.wants("dialog[open]", "nobody can bring that back", "local law says")
	b.axe()
	b.do(pollTrue(`[...document.querySelectorAll('dialog[open] button')].some((b) => b.innerText === 'Delete for good' && b.disabled)`),
		chromedp.SendKeys(chromedp.CSS(`dialog[open] input`), "Pilot station"))
	b.button("dialog[open]", "Delete for good")
	b.wants("main", "14 open, 4 closed")
	b.click("main details summary")
	b.wants("main", "Oda Finch: a job of 1 revision was deleted, with all there was of it")
	b.axe()
}

// TestOffline breaks the connection under a change: nothing is lost, and it can
// be sent again.
func TestOffline(t *testing.T) {
	b := open(t, shop(t))
	b.visit(tower + "/fit")
	b.allow("ERR_")
	b.do(chromedp.Evaluate[chromedp.Void](`window.realFetch = window.fetch; window.fetch = () => Promise.reject(new TypeError('offline'))`))
	b.do(clickOn(`[data-item="item-4"]`), clickOn(socket("M2_1")))
	b.wants(`[role="alert"]`, "Deep Bay does not answer", "1 change is not saved yet")
	b.axe()
	// A server that answers, and cannot keep it, says why: the change waits all the same.
	b.do(chromedp.Evaluate[chromedp.Void](`window.fetch = () => Promise.resolve(new Response(JSON.stringify({ type: 'urn:deepbay:problem:disk-full', title: 'disk full', status: 507, detail: 'the disk is full: make room on it; nothing was changed' }), { status: 507, headers: { 'Content-Type': 'application/problem+json' } }))`))
	b.wants(`[role="alert"]`, "the disk is full: make room on it", "1 change is not saved yet")
	b.do(chromedp.Evaluate[chromedp.Void](`window.fetch = window.realFetch`))
	b.button(`[role="alert"]`, "Send now")
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
}

// TestOutbox makes ten ticks while the server is away and loads the page again, which can be read
// all the same; when the server was started again all ten are there, once each, in their order.
func TestOutbox(t *testing.T) {
	gate := &gate{}
	path := filepath.Join(t.TempDir(), "shop.db")
	b := open(t, shopBehind(t, path, gate.before))
	b.visit("/jobs/chart-table-workstation/order")
	b.as("Oda Finch")
	b.do(pollTrue("!!navigator.serviceWorker.controller"))
	// The job that was opened first of all can be read from now on, without being opened again.
	b.do(chromedp.Evaluate[chromedp.Void](`(async () => {
		while (!(await caches.match('/api/jobs/chart-table-workstation'))) await new Promise((done) => setTimeout(done, 50));
	})()`, chromedp.EvalAwaitPromise))
	b.allow("ERR_")
	b.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('[data-step] input[type=checkbox]:checked')].at(-1).click()`))
	b.wants("main", "6 of 18 steps done")
	gate.shut.Store(true)
	for i := range 10 {
		b.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('[data-step] input[type=checkbox]')].find((e) => !e.checked).click()`))
		b.wants(`[role="alert"]`, "Deep Bay does not answer", fmt.Sprintf("%d change", i+1))
	}
	b.axe()
	b.wants("main", "not saved yet")
	ticked := `[...document.querySelectorAll('[data-step] input[type=checkbox]:checked')].slice(6).map((e) => e.closest('[data-step]').dataset.step).join(' ')`
	want, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](ticked))
	if err != nil || len(strings.Fields(want)) != 10 {
		t.Fatalf("ticked %q, %v", want, err)
	}
	b.do(chromedp.Navigate("about:blank"))
	b.visit("/jobs/chart-table-workstation/order")
	b.wants(`[role="alert"]`, "10 changes are not saved yet")
	b.do(pollTrue(fmt.Sprintf(`%s === %q`, ticked, want)))
	gate.restart(t, path)
	gate.shut.Store(false)
	b.button(`[role="alert"]`, "Send now")
	b.do(chromedp.Reload(), chromedp.WaitVisible(chromedp.CSS("[data-step]"))) // while they are sent: what had arrived is not done twice
	b.do(pollTrue(fmt.Sprintf(`%s === %q`, ticked, want)))
	b.wants("main", "16 of 18 steps done")
	journal, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`fetch('/api/jobs/chart-table-workstation').then((a) => a.json()).then((v) => v.revision + ' ' + v.view.job.done.slice(-10).map((d) => d.step).join(' '))`, chromedp.EvalAwaitPromise))
	if err != nil || journal != "12 "+want {
		t.Errorf("kept %q, want %q (%v)", journal, "12 "+want, err)
	}
}

// TestUndoUnanswered takes a change back whose answer was lost: it had arrived, and is undone.
func TestUndoUnanswered(t *testing.T) {
	gate := &gate{}
	b := open(t, shopBehind(t, filepath.Join(t.TempDir(), "shop.db"), gate.before))
	b.visit("/jobs/chart-table-workstation/order")
	b.as("Oda Finch")
	b.allow("ERR_")
	gate.lost.Store(true)
	next := `[...document.querySelectorAll('[data-step] input[type=checkbox]')].find((e) => !e.checked)`
	b.do(chromedp.Evaluate[chromedp.Void](next+`.focus()`), chromedp.Evaluate[chromedp.Void](`document.activeElement.click()`))
	ticked := func(n int) {
		t.Helper()
		b.do(pollTrue(fmt.Sprintf("document.querySelectorAll('[data-step] input[type=checkbox]:checked').length === %d", n)))
	}
	ticked(8)
	b.wants(`[role="alert"]`, "1 change is not saved yet")
	b.button("main", "Undo")
	b.click(`[role="alert"] summary`)
	b.wants(`[role="alert"]`, "Fit Sallow 32 GB registered, serial SL32-611875 into D1: to be taken back")
	ticked(7)
	b.axe()
	gate.lost.Store(false)
	b.do(chromedp.WaitNotPresent(chromedp.CSS(`[role="alert"]`))) // it is sent again by itself
	ticked(7)
	journal, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`fetch('/api/jobs/chart-table-workstation').then((a) => a.json()).then((v) => v.journal.slice(-2).map((e) => e.says).join(' | '))`, chromedp.EvalAwaitPromise))
	if err != nil || !strings.HasPrefix(journal, "done: Fit Sallow 32 GB") || !strings.Contains(journal, "| undid: done: Fit Sallow 32 GB") {
		t.Errorf("the journal ends with %q (%v)", journal, err)
	}
}

// views are the main views, the largest machine among them.
var views = []string{"/", "/sheets", "/sheets/cormorant-w8", "/sheets/edit?id=cormorant-w8", "/shelf", "/shelf?for=echo-sounding-tower", "/rule", "/jobs/bathymetry-render/fit",
	"/jobs/dive-camera-ingest/fit", "/jobs/chart-table-workstation/order", "/jobs/multibeam-workstation/step", "/practice", "/jobs/tide-gauge-mini-pc/prove", "/jobs/hydrophone-listening-desk/measure", "/jobs/tide-gauge-mini-pc/handover"}

// TestEveryView looks at every main view on a screen, a tablet and a phone, by day and by
// night: nothing is wider than the screen, and axe finds nothing. All of it is asked of the phone by
// day (and of the screen by every other test); what lies where does not hang on the colours, so at
// night contrast is, and of the tablet what hangs on room.
func TestEveryView(t *testing.T) {
	b := open(t, shop(t))
	look := func(what string, width int64, rules ...string) {
		t.Helper()
		b.do(chromedp.Sleep(50 * time.Millisecond)) // the drawing takes its width
		wide, err := chromedp.Run(b.ctx, chromedp.Evaluate[float64]("document.documentElement.scrollWidth"))
		if err != nil || wide > float64(width)+1 {
			t.Errorf("%s is %v px wide on a screen of %d (%v)", what, wide, width, err)
		}
		b.axe(rules...)
		if t.Failed() {
			t.Fatalf("at %s, %d px wide", what, width)
		}
	}
	for _, path := range views {
		b.visit(path)
		for _, scheme := range []string{"Night", "Day"} {
			b.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`[...document.querySelectorAll('header button')].find((e) => e.innerText.startsWith(%q)).click()`, scheme)))
			for _, size := range []struct{ w, h int64 }{{1280, 800}, {820, 1180}, {390, 844}} {
				var rules []string
				switch {
				case scheme == "Day" && size.w == 1280, scheme == "Night" && size.w == 820:
					continue // every other test looks at that, and this one by day
				case scheme == "Night":
					rules = []string{"color-contrast"}
				case size.w == 820:
					rules = []string{"target-size", "scrollable-region-focusable"}
				}
				b.do(chromedp.EmulateViewport(size.w, size.h))
				look(path+", after "+scheme, size.w, rules...)
			}
		}
	}
	// Dialogs, on the screen that leaves them the least room, and a page that is three times as large.
	for _, c := range []struct{ path, press string }{{"/", "New job"}, {"/sheets", "New sheet"}, {tower + "/fit", "Add a part"}, {tower + "/fit", "Change it"}, {"/shelf", "Correct"}} {
		b.visit(c.path)
		if c.press == "Add a part" {
			b.click(`[data-testid="dock"] button[aria-expanded]`)
		}
		b.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`[...document.querySelectorAll('main button')].find((e) => e.innerText.trim() === %q && e.checkVisibility()).click()`, c.press)),
			chromedp.WaitVisible(chromedp.CSS("dialog[open]")), chromedp.Sleep(200*time.Millisecond))
		look(c.path+", "+c.press, 390)
	}
	b.do(chromedp.EmulateViewport(320, 200)) // 1280x800 at 400 %
	for _, path := range []string{tower + "/fit", "/jobs/chart-table-workstation/order"} {
		b.visit(path)
		look(path, 320)
		b.do(pollTrue(`(() => { const v = document.querySelector('[data-testid=verdict]').getBoundingClientRect(); return v.height < 110; })()`))
	}
}

// TestTour goes the way from the bench to a hand-over by keys alone. After each step the focus
// is where the next one can go on.
func TestTour(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	press := func(keys ...string) {
		t.Helper()
		for _, k := range keys {
			b.do(chromedp.KeyEvent(k))
		}
	}
	name := `(document.activeElement?.ariaLabel || document.activeElement?.labels?.[0]?.innerText || document.activeElement?.dataset?.socket || document.activeElement?.innerText || '').trim()`
	onto := func(want string) {
		t.Helper()
		at := ""
		for range 150 {
			var err error
			if at, err = chromedp.Run(b.ctx, chromedp.Evaluate[string](name)); err != nil {
				t.Fatal(err)
			}
			if strings.HasPrefix(at, want) {
				return
			}
			press(kb.Tab)
		}
		t.Fatalf("Tab does not reach %q; it is at %q", want, at)
	}
	// on waits until the focus is on what begins so: it went there by itself.
	on := func(want string) {
		t.Helper()
		b.do(pollTrue(fmt.Sprintf(`%s.startsWith(%q) && document.activeElement !== document.body`, name, want)))
	}
	// key strikes a letter as a keyboard does: one event that is a command or a letter, not both.
	key := func(k string) {
		t.Helper()
		b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			code := int64(strings.ToUpper(k)[0])
			for _, kind := range []input.DispatchKeyEventType{input.DispatchKeyEventTypeKeyDown, input.DispatchKeyEventTypeKeyUp} {
				p := input.DispatchKeyEventParams{Type: kind, Key: k, WindowsVirtualKeyCode: code}
				if kind == input.DispatchKeyEventTypeKeyDown {
					p.Text = k
				}
				if _, err := cdp.Call(ctx, t, input.DispatchKeyEvent, p); err != nil {
					return err
				}
			}
			return nil
		}))
	}
	key("n")
	on("What is wished")
	press("16 GB for BK-7, plover m2, a new machine")
	b.wants("dialog[open]", "sheet: Plover M2 mini PC")
	press(kb.Enter)
	b.wants("main", "Enter what is in the machine", "Add a part")
	key("a")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] textarea")))
	on("Type or paste")
	press("2x 8GB PC4-2666V-S")
	onto("Add it")
	press(kb.Enter)
	b.wants("[data-mat]", "8GB")
	on("Add a part") // where the dialog was opened from
	key("m")
	on("SODIMM") // the best place for it
	press(kb.Enter)
	b.wants("main", "8 GiB")
	on("SODIMM")
	key("m")
	b.wants(`[data-testid="dock"]`, "Where")
	b.do(pollTrue(`document.activeElement.dataset.socket === document.querySelector('[data-testid=dock] ol strong')?.innerText`)) // the best first
	press(kb.Enter)
	b.wants(`[data-testid="verdict"]`, "Not ready to begin: nothing is said to start this machine afterwards", "Next: Answer what is open")
	onto("What starts it afterwards") // the panel is open, for it is asked
	key("n")                          // nothing yet
	b.wants(`[data-testid="verdict"]`, "It works", "Begin the work order")
	on("What starts it afterwards")
	onto("Begin the work order")
	press(kb.Enter)
	b.wants("main", "Lay out parts and tools")
	onto("Lay out parts")
	press(" ")
	b.wants(`[data-step="prepare/parts"]`, "done by")
	on("Lay out parts")
	onto("All")
	press(kb.Enter) // the button is gone with what it did
	b.do(pollTrue(`document.activeElement !== document.body && !!document.activeElement.closest('main')`))
	key("p")
	b.wants("main", "In set-up")
	onto("As expected: ")
	press(kb.Enter)
	b.wants(`[data-testid="tally"]`, "1 agree")
	b.do(pollTrue(`document.activeElement !== document.body && !!document.activeElement.closest('main')`))
	onto("As expected: ")
	press(kb.Enter)
	b.wants(`[data-testid="tally"]`, "2 agree")
	key("h")
	b.wants("article", "BK-7", "Fitted")
	onto("A last word")
	press("goes to the quay")
	key("b") // a letter, not a command
	b.wants("article", "BK-7")
	onto("Close the job")
}

// TestKeys switches the letters off, gives a command another key, and finds one by its words.
func TestKeys(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/sheets")
	press := func(keys string) { b.t.Helper(); b.do(chromedp.KeyEvent(keys)) }
	gone := chromedp.WaitNotPresent(chromedp.CSS("dialog[open]"))
	here := func(path string) {
		t.Helper()
		b.do(pollTrue(fmt.Sprintf("location.pathname === %q", path)))
	}
	press("?")
	b.wants("dialog[open]", "Single keys give commands", "Find the best plan")
	b.axe()
	b.do(clickOn(`dialog[open] input[type="checkbox"]`))
	press(kb.Escape)
	b.do(gone)
	press("l")
	b.do(chromedp.Sleep(200 * time.Millisecond))
	here("/sheets") // no letter answers
	find := func(words string) {
		t.Helper()
		b.do(chromedp.KeyEvent("k", chromedp.KeyModifiers(chromedp.ModifierCtrl)),
			chromedp.WaitVisible(chromedp.CSS("#palette")), chromedp.SendKeys(chromedp.CSS("#palette"), words))
		b.axe()
		press(kb.Enter)
	}
	find("list keys")
	b.wants("dialog[open]", "Single keys give commands")
	b.do(clickOn(`dialog[open] input[type="checkbox"]`))
	b.button("dialog[open]", "L: The shelf; change this key")
	press("g")
	b.wants("dialog[open]", "Take the usual keys again")
	press(kb.Escape)
	b.do(gone)
	b.do(chromedp.Reload(), chromedp.WaitVisible(chromedp.CSS("main h1")))
	press("g")
	here("/shelf")
	find("bench")
	here("/")
}

// TestLive: two screens on one job, and the bench, follow each other, with who did it.
func TestLive(t *testing.T) {
	base := shop(t)
	b, other, bench := open(t, base), open(t, base), open(t, base)
	b.visit(tower + "/fit")
	bench.visit("/")
	bench.wants("main", "Place Ternlight 500")
	other.visit(tower + "/fit")
	other.as("Wim Tarn")
	other.do(clickOn(`[data-item="item-4"]`), clickOn(socket("M2_1")))
	other.wants(socket("M2_1"), "Ternlight 500")
	b.wants(socket("M2_1"), "Ternlight 500", "Gen 4 x4, 7.88 GB/s")
	b.wants("body", "Wim Tarn: put Ternlight 500 into M2_1")
	bench.do(pollTrue(`![...document.querySelectorAll('main a')].some((e) => e.innerText.includes('Place Ternlight 500'))`))
	// And the other way, after a while without the net.
	b.deaf()
	other.do(clickOn(`[data-item="item-5"]`), clickOn(socket("B1")))
	other.wants(socket("B1"), "Sallow 16 GB")
	b.wants(socket("B1"), "free")
	b.do(chromedp.Evaluate[chromedp.Void](`window.dispatchEvent(new Event('online'))`))
	other.do(clickOn(`[data-item="item-6"]`), clickOn(socket("B2")))
	other.wants(socket("B2"), "Sallow 16 GB")
	b.wants(socket("B1"), "Sallow 16 GB")
	b.wants(socket("B2"), "Sallow 16 GB")
}

// TestBench groups the jobs by stage and by place, which the browser remembers, and says where
// a machine stands and when it is due.
func TestBench(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/side-scan-archive/fit")
	b.button("main", "rack")
	b.do(chromedp.WaitVisible(chromedp.CSS(`dialog[open] input[type="date"]`)),
		chromedp.Evaluate[chromedp.Void](`(() => { const i = document.querySelector('dialog[open] input[type=date]'); i.value = '2026-11-24'; i.dispatchEvent(new Event('input', { bubbles: true })); })()`))
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('dialog[open] input[maxlength="60"]').select()`))
	b.field("The machine stands at", "quay hut")
	b.axe()
	b.button("dialog[open]", "Save")
	b.wants("main", "due 24 Nov 2026 · quay hut")
	b.visit("/")
	b.wants("main", "late: due 24 Nov 2026 · quay hut", "due 27 Nov 2026 · bench 2")
	group := func(want string) {
		t.Helper()
		b.do(pollTrue(fmt.Sprintf(`[...document.querySelectorAll('main ul[aria-label^="Open jobs"]')].map((u) => u.ariaLabel.slice(11) + ' ' + u.children.length).join(', ') === %q`, want)))
	}
	b.button("main", "By stage")
	group("fit 12, work order 1, prove 1")
	b.axe()
	b.button("main", "By place")
	group("bench 1 3, bench 2 4, bench 3 2, quay hut 1, rack 2, shelf by the door 2")
	b.visit("/")
	group("bench 1 3, bench 2 4, bench 3 2, quay hut 1, rack 2, shelf by the door 2")
}

// TestNextInView opens a work order that was begun: the step that comes next is in sight, on
// every size of screen, whether the page is loaded or come to.
func TestNextInView(t *testing.T) {
	b := open(t, shop(t))
	inView := pollTrue(`(() => {
		const next = [...document.querySelectorAll('[data-step]')].find((s) => s.querySelector('input[type=checkbox]:not(:checked)'));
		const r = next?.getBoundingClientRect();
		return r && r.top > 50 && r.top < window.innerHeight / 2 && (r.bottom < window.innerHeight || r.top < 140);
	})()`)
	for _, size := range [][2]int64{{1280, 800}, {820, 1180}, {390, 844}} {
		b.do(chromedp.EmulateViewport(size[0], size[1]))
		b.visit("/jobs/chart-table-workstation/order")
		b.do(inView)
		b.visit("/")
		b.do(clickOn(`a[aria-label="Go on with the work order: Chart-table workstation"]`), inView)
	}
}
