package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image"
	"image/jpeg"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"deepbay/internal/server"
)

// read is what the server says at a path.
func read[T any](t *testing.T, url string) T {
	t.Helper()
	var out T
	r, err := http.Get(url)
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	b, err := io.ReadAll(r.Body)
	if err == nil {
		err = json.Unmarshal(b, &out)
	}
	if err != nil {
		t.Fatalf("%s: %v: %.200s", url, err, b)
	}
	return out
}

// at waits until a step fills the screen.
func (b *tab) at(step string) {
	b.t.Helper()
	b.do(pollTrue(fmt.Sprintf(`document.querySelector('[data-testid="step"]')?.dataset.at === %q`, step)))
}

// walk goes through an order from where it stands, a press for each step, and tells tests.
func (b *tab) walk(job string, press func(i int), until string) {
	b.t.Helper()
	for i, s := range read[server.JobView](b.t, b.base+"/api/jobs/"+job).View.Order {
		if string(s.ID) == until {
			b.at(until)
			return
		}
		if b.at(string(s.ID)); s.Test != "" {
			b.tell()
		}
		press(i)
	}
}

// tell says that a memory test came through one pass.
func (b *tab) tell() {
	b.t.Helper()
	b.click(`[data-testid="test"] button[aria-label^="It passed"]`)
	b.do(chromedp.SendKeys(chromedp.CSS(`[data-testid="test"] form input`), "1"+kb.Enter))
	b.wants(`[data-testid="test"]`, "passed, 1 pass")
}

// TestStepsByKeys goes through a whole work order with keys alone: Enter says that a step is
// done; arrows only look, and keys that scroll say nothing. Nothing is off in the end, and no screw is left over.
func TestStepsByKeys(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/buoy-tracker-desktop/order")
	b.do(chromedp.WaitVisible(chromedp.CSS("main h2")), chromedp.KeyEvent("i"))
	b.do(chromedp.WaitVisible(chromedp.CSS(`[data-testid="step"]`)), chromedp.KeyEvent(kb.PageDown), chromedp.KeyEvent(kb.End), chromedp.KeyEvent(" "), chromedp.KeyEvent(kb.Home))
	if v := read[server.JobView](t, b.base+"/api/jobs/buoy-tracker-desktop").View; v.Status.Done > 0 {
		t.Errorf("keys that scroll say that %d steps are done", v.Status.Done)
	}
	b.walk("buoy-tracker-desktop", func(i int) { b.do(chromedp.KeyEvent(kb.Enter)) }, "open/riser-cage")
	b.wants(`[data-testid="step"]`, "Take off the riser cage", "6-32 x 6 mm", "pull straight up, both ends at once", "cross-head 2")
	b.wants(`[data-testid="off"]`, "side panel", "fan duct", "fan lead of the duct")
	b.do(chromedp.KeyEvent(kb.ArrowLeft))
	b.at("open/fan-duct")
	b.wants(`[data-testid="step"]`, "done by")
	b.do(chromedp.KeyEvent(kb.ArrowRight))
	b.at("open/riser-cage")
	b.axe()
	order := read[server.JobView](t, b.base+"/api/jobs/buoy-tracker-desktop").View.Order
	for i, s := range order {
		if b.step() != string(s.ID) {
			continue // done before
		}
		key := kb.Enter
		if s.Test != "" {
			b.passed()
			key = kb.ArrowRight // Enter would press the button that has the focus
		}
		b.do(chromedp.KeyEvent(key))
		if i < len(order)-1 {
			b.at(string(order[i+1].ID))
		}
	}
	b.do(pollTrue(`document.querySelector('[data-testid="off"]').innerText.includes('it is closed') && document.querySelector('progress').value === document.querySelector('progress').max`))
	v := read[server.JobView](t, b.base+"/api/jobs/buoy-tracker-desktop").View
	if v.Status.Done != len(v.Order) || len(v.Off) > 0 {
		t.Errorf("%d of %d steps are done, and %v is off", v.Status.Done, len(v.Order), v.Off)
	}
	for _, c := range v.Tray {
		if c.Laid {
			t.Errorf("left over in the tray: %s", c.Says)
		}
	}
}

// step is the one that fills the screen.
func (b *tab) step() string {
	b.t.Helper()
	id, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`document.querySelector('[data-testid="step"]')?.dataset.at ?? ''`))
	if err != nil {
		b.t.Fatal(err)
	}
	return id
}

// passed tells with keys alone that the test of the step came through.
func (b *tab) passed() {
	b.t.Helper()
	for range 40 {
		b.do(chromedp.KeyEvent(kb.Tab))
		at, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`document.activeElement.ariaLabel ?? ''`))
		if err != nil {
			b.t.Fatal(err)
		}
		if strings.HasPrefix(at, "It passed") {
			b.do(chromedp.KeyEvent(kb.Enter), pollTrue(`document.activeElement.ariaLabel === 'How many passes'`), chromedp.KeyEvent("1"), chromedp.KeyEvent(kb.Enter))
			b.wants(`[data-testid="test"]`, "passed, 1 pass")
			b.do(pollTrue(`document.activeElement.tagName !== 'INPUT'`)) // the focus goes to the next sensible thing
			return
		}
	}
	b.t.Fatal("Tab does not reach the end of the test")
}

// TestStepsByTouch goes through a whole work order with a thumb on a phone.
func TestStepsByTouch(t *testing.T) {
	b := open(t, shop(t))
	b.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateTouch))
	b.visit("/jobs/pilot-office-desktop/step")
	tap := func(selector string) { b.t.Helper(); b.do(chromedp.Tap(chromedp.CSS(selector))) }
	order := read[server.JobView](t, b.base+"/api/jobs/pilot-office-desktop").View.Order
	for i, s := range order {
		b.at(string(s.ID))
		if s.Test != "" {
			b.tell()
		}
		if i == 12 {
			b.axe()
			wide, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool](`document.documentElement.scrollWidth > innerWidth`))
			if err != nil || wide {
				t.Errorf("it is wider than the screen (%v)", err)
			}
		}
		tap(`[data-next]`)
	}
	b.do(pollTrue(`document.querySelector('progress').value === document.querySelector('progress').max`))
	if v := read[server.JobView](t, b.base+"/api/jobs/pilot-office-desktop").View; v.Status.Done != len(v.Order) {
		t.Errorf("%d of %d steps are done", v.Status.Done, len(v.Order))
	}
}

// TestDroppedScrew holds the power until the screw is found.
func TestDroppedScrew(t *testing.T) {
	b := open(t, shop(t))
	b.allow("422")
	b.visit("/jobs/quay-camera-mini-pc/step")
	next := func(int) { b.click("[data-next]") }
	b.walk("quay-camera-mini-pc", next, "open/board-tray")
	b.button("footer", "A screw…")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open]")))
	b.button("dialog[open]", "Note it")
	b.wants("aside", "Dropped into the machine", "No power until it is found")
	b.axe()
	order := read[server.JobView](t, b.base+"/api/jobs/quay-camera-mini-pc").View.Order
	from := false
	for _, s := range order {
		if from = from || s.ID == "open/board-tray"; !from {
			continue
		}
		if s.ID == "power-on/start" {
			break
		}
		b.at(string(s.ID))
		b.click("[data-next]")
	}
	b.at("power-on/start")
	b.click("[data-next]")
	b.wants("body", "no power until it is found")
	if v := read[server.JobView](t, b.base+"/api/jobs/quay-camera-mini-pc").View; v.Status.Verdict.Says.String() != "No power yet" {
		t.Errorf("it says %s", v.Status.Verdict.Says)
	}
	b.button("aside", "Found: Dropped into the machine: 1 screw")
	b.do(pollTrue(`!document.querySelector('aside').innerText.includes('No power')`))
	b.click("[data-next]")
	b.at("power-on/set-up")
}

// TestDiffersHere notes at a step that the machine is other than its sheet says; one press
// changes the sheet, and with it the rest of the order.
func TestDiffersHere(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/buoy-tracker-desktop/step")
	b.walk("buoy-tracker-desktop", func(int) { b.click("[data-next]") }, "open/riser-cage")
	b.wants(`[data-testid="step"]`, "2 screws 6-32 x 6 mm")
	b.button("footer", "It differs here")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open]")))
	b.retype(`dialog[open] input[type="number"]`, "4")
	b.axe()
	b.button("dialog[open]", "Note it")
	b.button("aside", "Change the sheet: Differs: the riser cage is held or lies otherwise")
	b.wants(`[data-testid="step"]`, "4 screws 6-32 x 6 mm")
	b.wants("body", "written into the shop's sheet")
	sheet := read[server.SheetView](t, b.base+"/api/sheets/gannet-d1").Sheet
	if l := sheet.Layer("riser-cage"); l == nil || l.Fasteners[0].Count != 4 {
		t.Errorf("the shop's sheet says %+v", l)
	}
	shut := ""
	for _, s := range read[server.JobView](t, b.base+"/api/jobs/buoy-tracker-desktop").View.Order {
		if s.ID == "shut/riser-cage" {
			for _, h := range s.How {
				shut += h.String()
			}
		}
	}
	if !strings.Contains(shut, "4 screws") {
		t.Errorf("the way back says %s", shut)
	}
}

// TestDoesNotGo says at a step that the module does not go in: the rest is planned anew with what hands
// fitted left where it is, and one press takes that plan.
func TestDoesNotGo(t *testing.T) {
	b := open(t, shop(t))
	const job = "pilot-office-desktop"
	v := read[server.JobView](t, b.base+"/api/jobs/"+job)
	var before []string
	for _, s := range v.View.Order {
		if s.ID == "fit/item-3@B1" {
			break
		}
		before = append(before, string(s.ID))
	}
	b.changed(job, v.Revision, map[string]any{"do": "tick", "steps": before})
	b.visit("/jobs/" + job + "/step")
	b.at("fit/item-3@B1")
	b.button("footer", "It does not go")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open]")))
	b.axe()
	b.button("dialog[open]", "Note it, and plan the rest anew")
	b.wants(`[data-testid="replanned"]`, "into A1", "into B1", "To open: lid")
	b.axe()
	b.button("dialog[open]", "Take this plan, and go on")
	b.do(pollTrue(`!document.querySelector('dialog[open]') && document.querySelector('[data-testid="step"]').dataset.at.includes('item-1')`))
	now := read[server.JobView](t, b.base+"/api/jobs/"+job).View
	if at := now.Job.Planned.Where("item-3").String(); at != "A1" {
		t.Errorf("the module is planned in %s", at)
	}
	if at := now.Job.Planned.Where("item-4").String(); at != "M2_1" {
		t.Errorf("the drive that is in M2_1 is planned in %q", at)
	}
}

// changed makes a change as somebody else's machine would.
func (b *tab) changed(job string, revision int, change map[string]any) {
	b.t.Helper()
	body, err := json.Marshal(map[string]any{"revision": revision, "by": "Oda Finch", "change": change})
	if err != nil {
		b.t.Fatal(err)
	}
	r, err := http.Post(b.base+"/api/jobs/"+job+"/changes", "application/json", bytes.NewReader(body))
	if err != nil {
		b.t.Fatal(err)
	}
	defer r.Body.Close()
	if r.StatusCode != http.StatusOK {
		said, _ := io.ReadAll(r.Body)
		b.t.Fatalf("%s: %s", r.Status, said)
	}
}

// TestPhotograph adds a photograph at a step: it comes out without where it was taken.
func TestPhotograph(t *testing.T) {
	var plain bytes.Buffer
	if err := jpeg.Encode(&plain, image.NewRGBA(image.Rect(0, 0, 60, 40)), nil); err != nil {
		t.Fatal(err)
	}
	// A TIFF with one entry, the pointer to a GPS part, and in that one the latitude's letter.
	tiff := []byte("II*\x00\x08\x00\x00\x00" + "\x01\x00" + "\x25\x88\x04\x00\x01\x00\x00\x00\x1a\x00\x00\x00" + "\x00\x00\x00\x00" + "\x01\x00" + "\x01\x00\x02\x00\x02\x00\x00\x00N\x00\x00\x00" + "\x00\x00\x00\x00")
	body := append([]byte("Exif\x00\x00"), tiff...)
	head := []byte{0xff, 0xd8, 0xff, 0xe1, byte((len(body) + 2) >> 8), byte(len(body) + 2)}
	file := filepath.Join(t.TempDir(), "inside.jpg")
	if err := os.WriteFile(file, slices.Concat(head, body, plain.Bytes()[2:]), 0o600); err != nil {
		t.Fatal(err)
	}
	b := open(t, shop(t))
	b.visit("/jobs/multibeam-workstation/step")
	b.walk("multibeam-workstation", func(int) { b.click("[data-next]") }, "open/strap")
	b.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-testid="photos"] input[type=file]`), []string{file}, chromedp.NodeReady))
	b.do(pollTrue(`document.querySelector('[data-testid="photos"] img')?.naturalWidth === 60`))
	b.axe()
	there := read[[]server.SheetPicture](t, b.base+"/api/jobs/multibeam-workstation/pictures")
	if len(there) != 1 || !strings.Contains(there[0].Says, "photograph the inside") {
		t.Fatalf("kept are %+v", there)
	}
	r, err := http.Get(b.base + "/api/jobs/multibeam-workstation/pictures/" + string(there[0].ID))
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	got, err := io.ReadAll(r.Body)
	if _, _, bad := image.Decode(bytes.NewReader(got)); err != nil || bad != nil || bytes.Contains(got, []byte("Exif")) {
		t.Errorf("%d bytes come out, with %v %v", len(got), err, bad)
	}
	b.visit("/jobs/multibeam-workstation/handover")
	b.do(pollTrue(`document.querySelector('[data-testid="photographs"] img')?.naturalWidth === 60`))
	b.wants(`[data-testid="photographs"]`, "photograph the inside")
	b.axe()
}

// TestOnPaper prints the work order: on A4 and on Letter no step is longer than a page, none is
// torn between two, and the pages hold every step.
func TestOnPaper(t *testing.T) {
	b := open(t, shop(t))
	for _, job := range []string{"multibeam-workstation", "echo-sounding-tower"} {
		b.visit("/jobs/" + job + "/order")
		b.visit("/jobs/" + job + "/print")
		b.wants(`[data-testid="paper"]`, "Lay out", "Steps")
		b.axe()
		order := read[server.JobView](t, b.base+"/api/jobs/"+job).View.Order
		for name, high := range map[string]float64{"A4": 297, "Letter": 279} {
			wide := map[string]int64{"A4": 210, "Letter": 216}[name]
			b.do(chromedp.EmulateViewport((wide-24)*96/25, 1000), chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
				_, err := cdp.Call(ctx, t, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: "print"})
				return err
			}))
			got, err := chromedp.Run(b.ctx, chromedp.Evaluate[struct {
				Steps   int
				Longest float64
				Torn    bool
			}](`(() => {
				const all = [...document.querySelectorAll('[data-print-step]')];
				return { Steps: all.length, Longest: Math.max(0, ...all.map((e) => e.getBoundingClientRect().height)), Torn: all.some((e) => getComputedStyle(e).breakInside !== 'avoid') };
			})()`))
			if err != nil {
				t.Fatal(err)
			}
			if most := (high - 24) * 96 / 25.4; got.Steps != len(order) || got.Longest > most || got.Torn {
				t.Errorf("%s on %s: %d of %d steps, the longest %.0f px of %.0f, torn: %v", job, name, got.Steps, len(order), got.Longest, most, got.Torn)
			}
		}
		b.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			_, err := cdp.Call(ctx, t, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{})
			return err
		}))
		pdf, err := chromedp.Run(b.ctx, chromedp.PrintToPDF())
		if err != nil || !bytes.HasPrefix(pdf, []byte("%PDF")) || bytes.Count(pdf, []byte("/Type /Page\n")) > 12 {
			t.Errorf("%s: %d bytes, %v", job, len(pdf), err)
		}
	}
}
