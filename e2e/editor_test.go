package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"deepbay/internal/server"
)

// labelled is the selector of a control by its accessible name.
func labelled(label string) string { return fmt.Sprintf(`[aria-label=%q]`, label) }

// choose takes an option of a pick list by its words; the list is named by its
// accessible name.
func (b *tab) choose(label, option string) {
	b.t.Helper()
	b.do(pollTrue(fmt.Sprintf(`(() => {
		const seen = [...document.querySelectorAll('label')].find((l) => l.innerText.trim() === %q);
		const list = seen ? document.getElementById(seen.htmlFor) : document.querySelector(%q);
		const hit = [...(list?.options ?? [])].find((o) => o.text.trim() === %q);
		if (!hit) return false;
		list.value = hit.value;
		list.dispatchEvent(new Event('change', { bubbles: true }));
		return true;
	})()`, label, labelled(label), option)))
}

// retype replaces what a control holds and leaves it.
func (b *tab) retype(selector, text string) {
	b.t.Helper()
	b.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("document.querySelector(%q).select()", selector)),
		chromedp.SendKeys(chromedp.CSS(selector), text+kb.Tab))
}

// at is a field by its place in the file.
func at(pointer string) string { return fmt.Sprintf(`[data-at=%q]`, pointer) }

func (b *tab) value(selector string) string {
	b.t.Helper()
	v, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](fmt.Sprintf("document.querySelector(%q)?.value ?? ''", selector)))
	if err != nil {
		b.t.Fatal(err)
	}
	return v
}

const judged = `main [role="status"]`

// TestSheetEditor writes a sheet from a generic layout as a technician would who
// has the manual open, and keeps it; a reload and a fault come in between.
func TestSheetEditor(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/sheets")
	b.as("Oda Finch")
	b.button("main", "New sheet")
	b.wants("dialog[open]", "Entry desktop", "Many-lane workstation", "Or as a copy", "Harrier T4 tower")
	b.axe()
	b.field("Name of the machine", "Turnstone T7")
	b.button("dialog[open]", "Start writing")
	b.wants("main", "Turnstone T7", "No fault")

	// Tables: what the manual says, and one row made the model of the others.
	b.button("main", "M.2")
	b.choose("PCIe Gen of M2_1", "5")
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('[aria-label="Name of M2_1"]').select()`),
		chromedp.SendKeys(chromedp.CSS(labelled("Name of M2_1")), "M2_"),
		chromedp.Sleep(600*time.Millisecond), // the answer to the change before arrives meanwhile
		chromedp.SendKeys(chromedp.CSS(labelled("Name of M2_1")), "B"))
	if got := b.value(labelled("Name of M2_1")); got != "M2_B" {
		t.Errorf("what was typed became %q", got)
	}
	b.retype(labelled("Name of M2_1"), "M2_A")
	b.wants(judged, "No fault, not saved yet")
	b.button("main", "Make all like M2_A")
	b.do(pollTrue(fmt.Sprintf("document.querySelector(%q)?.selectedOptions[0].text === '5'", labelled("PCIe Gen of M2_2"))))
	b.do(chromedp.KeyEvent("u"))
	b.do(pollTrue(fmt.Sprintf("document.querySelector(%q)?.selectedOptions[0].text === '?'", labelled("PCIe Gen of M2_2"))))
	b.choose("speaks of M2_A", "PCIe")
	b.button("main", "Add an M.2 socket")
	b.wants(judged, "No fault, not saved yet")
	b.do(pollTrue(fmt.Sprintf("document.querySelector(%q).selectedOptions[0].text === '?' && document.querySelector(%q).selectedOptions[0].text === '?'", labelled("key of M2_1"), labelled("wired of M2_1")))) // it claims nothing
	b.choose("wired of M2_1", "x4")
	b.choose("lanes from of M2_1", "graphics")
	b.wants("main", "1 fault", "its sockets take 20 lanes, the group has 16")
	b.axe()
	b.button("main", "Take M2_1 off the sheet")
	b.wants(judged, "No fault, not saved yet")

	// A rule out of pick lists, with its place in the manual.
	b.button("main", "Rules")
	b.button("main", "Add a rule")
	b.choose("Rule 2: what condition 1 asks about", "M2_2")
	b.choose("Rule 2: what condition 1 says", "holds a SATA part")
	b.wants("main", "Faults", "rule-1, then")
	b.choose("Rule 2: what effect 1 is on", "M2_2")
	b.choose("Rule 2: what effect 1 does", "is off")
	b.wants(`section[aria-labelledby="Doubts-h"]`, "what lies in M2_2 turns M2_2 off", "look again which socket the note means")
	b.axe()
	b.choose("Rule 2: what effect 1 is on", "SATA4")
	b.choose("Rule 2: what effect 1 does", "is off")
	b.button("main", "Add an effect to rule 2")
	b.choose("Rule 2: what effect 2 is on", "PCIE2")
	b.choose("Rule 2: what effect 2 does", "is at most Gen 3")
	b.retype(labelled("Rule 2: place in the manual"), "manual p. 9")
	b.wants(judged, "No fault, not saved yet")
	b.axe()

	// A group with fewer lanes than its sockets take: named, and gone to.
	b.button("main", "Lanes")
	lanes := `/groups/2/lanes`
	was := b.value(at(lanes))
	b.retype(at(lanes), "2")
	b.wants("main", "Faults", "chipset-lanes")
	b.button("main", "Machine")
	b.do(clickOn(`section[aria-labelledby="Faults-h"] li button`))
	b.do(pollTrue(`!!document.activeElement?.dataset.at`))
	b.axe()
	b.do(chromedp.Evaluate[chromedp.Void]("document.activeElement.blur()"), chromedp.KeyEvent("u"))
	b.wants(judged, "No fault, not saved yet")
	b.button("main", "Lanes")
	if now := b.value(at(lanes)); now != was {
		t.Errorf("undo leaves %s lanes, not %s", now, was)
	}

	// The drawing: dragged, moved by keys, turned.
	b.button("main", "USB")
	place := func(what string) string { return b.value(`[data-at$="/place/` + what + `"]`) }
	b.do(chromedp.Evaluate[chromedp.Void]("window.scrollTo(0, 0)"), clickOn(`g[data-socket="M2_A"]`))
	b.wants("main", "Drag it on the board")
	x, y := place("xMM"), place("yMM")
	b.do(chromedp.DragAndDrop(chromedp.CSS(`g[data-socket="M2_A"]`), chromedp.CSS(`g[data-socket="PCIE2"]`)))
	b.do(pollTrue(fmt.Sprintf(`document.querySelector('[data-at$="/place/yMM"]').value !== %q`, y)))
	dragged := place("yMM")
	b.do(chromedp.Focus(chromedp.CSS(`g[data-socket="M2_A"]`)), chromedp.KeyEvent(kb.ArrowDown), chromedp.KeyEvent(kb.ArrowUp), chromedp.KeyEvent(kb.ArrowRight))
	if place("yMM") != dragged || place("xMM") == x {
		t.Errorf("the keys moved it from %s, %s to %s, %s", x, dragged, place("xMM"), place("yMM"))
	}
	for range 4 { // three keys and the drag, each taken back by itself
		b.do(chromedp.KeyEvent("u"))
	}
	if place("xMM") != x || place("yMM") != y {
		t.Errorf("undone, it lies at %s, %s and not at %s, %s", place("xMM"), place("yMM"), x, y)
	}
	b.axe()

	// A reload loses nothing; kept, it is a sheet of the shop with its history.
	b.do(chromedp.Reload())
	b.wants("main", "This goes on with the draft", "No fault, not saved yet")
	b.button("main", "Save to the shop")
	b.wants("main", "when M2_2 holds a SATA part, SATA4 is off and PCIE2 is at most Gen 3 (manual p. 9)", "Oda Finch", "free, Gen 5 x4")
	b.axe()
	b.visit("/sheets")
	b.wants("nav[aria-label^=Sheets]", "Turnstone T7")
}

// TestSheetConflict has two people at one sheet, and brings an older version back.
func TestSheetConflict(t *testing.T) {
	base := shop(t)
	const path = "/sheets/edit?id=petrel-l1"
	b, other := open(t, base), open(t, base)
	for _, e := range []*tab{b, other} {
		e.visit(path)
		e.button("main", "Machine")
	}
	other.as("Wim Tarn")
	other.retype(at("/chassis/weightKG"), "1.6")
	other.button("main", "Save to the shop")
	other.wants("main", "History", "Wim Tarn")

	b.retype(at("/name"), "Petrel L1 logger, second board")
	b.wants(judged, "No fault, not saved yet")
	b.allow("409")
	b.button("main", "Save to the shop")
	b.wants("dialog[open]", "Changed meanwhile", "Petrel L1 logger, second board")
	b.axe()
	b.button("dialog[open]", "Save mine over it")
	b.wants("main", "History", "Petrel L1 logger, second board")

	b.do(clickOn(`section[aria-labelledby="history-h"] li:last-child button`))
	b.wants("main", "Revision 1 of 3, as it was")
	b.axe()
	b.button("main", "Bring it back")
	b.wants(`section[aria-labelledby="history-h"]`, "4 brought back revision 1")
	if text := b.text("h2"); strings.Contains(text, "second board") {
		t.Errorf("the sheet is still called %q", text)
	}
}

// TestSheetEditorTouch works on a tablet with a finger, and offline.
func TestSheetEditorTouch(t *testing.T) {
	b := open(t, shop(t))
	b.do(chromedp.EmulateViewport(820, 1180, chromedp.EmulateTouch))
	b.visit("/sheets/edit?id=plover-m2")
	b.wants(judged, "No fault")
	b.do(chromedp.Tap(chromedp.CSS(`g[data-socket="M2"]`)))
	b.wants("main", "Drag it on the board")
	wide := b.value(`[data-at$="/place/widthMM"]`)
	b.do(chromedp.Tap(chromedp.CSS(`section[aria-label="The chosen socket"] button`)))
	b.do(pollTrue(fmt.Sprintf(`document.querySelector('[data-at$="/place/heightMM"]').value === %q`, wide)))
	b.wants(judged, "not saved yet")

	b.allow("ERR_")
	b.do(chromedp.Evaluate[chromedp.Void](`window.realFetch = window.fetch; window.fetch = () => Promise.reject(new TypeError('offline'))`))
	b.retype(`[data-at$="/place/xMM"]`, "21")
	b.wants(judged, "Deep Bay does not answer; the draft is kept here")
	b.axe()
	b.do(chromedp.Evaluate[chromedp.Void](`window.fetch = window.realFetch`))
	b.retype(`[data-at$="/place/xMM"]`, "20")
	b.wants(judged, "not saved yet")
}

// TestBays lists the bays of a sheet apart from its ports, and lays a drive of a job into
// another bay.
func TestBays(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/sheets/edit?id=kittiwake-d2")
	b.as("Oda Finch")
	b.button(`[role="tablist"]`, "Drives")
	b.button("main", "List the bays apart")
	b.do(chromedp.WaitVisible(chromedp.CSS(at("/bays/3/ports"))))
	if got := b.value(at("/bays/1/ports")); got != "SATA2" {
		t.Errorf("the second bay is reached from %q", got)
	}
	b.retype(at("/bays/0/ports"), "SATA1 SATA9")
	b.wants("main", "no socket is named \"SATA9\"")
	b.retype(at("/bays/0/ports"), "SATA1, SATA2")
	b.button("main", "Take bay-4 off the sheet")
	b.wants(judged, "No fault")
	b.axe()
	b.button("main", "Save to the shop")
	b.wants("main", "bay-1 takes 3.5-inch and 2.5-inch, leads from SATA1 and SATA2")

	b.visit("/jobs/echo-sounding-tower/fit")
	b.do(clickOn(socket("SATA6")))
	b.wants(`[data-testid="socket"]`, "leads from SATA6, drive cage, third")
	b.choose("Lies in", "bay cage-1")
	b.wants(`[data-testid="socket"]`, "leads from SATA1, drive cage, uppermost")
	b.axe()
	b.visit("/jobs/echo-sounding-tower/order")
	b.wants("main", "It goes into bay cage-1: drive cage, uppermost")
}

// TestManualPages keeps a picture of a manual's page beside a sheet that is written: it is shown
// there and where the sheet is read, and can be taken away again.
func TestManualPages(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.as("Ines Roe")
	b.visit("/sheets/edit?id=harrier-t4")
	b.wants(`[data-testid="pages"]`, "page 18", "Keep a picture of it")
	b.axe()
	var page bytes.Buffer
	if err := png.Encode(&page, image.NewGray(image.Rect(0, 0, 300, 400))); err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(t.TempDir(), "page.png")
	if err := os.WriteFile(file, page.Bytes(), 0o600); err != nil {
		t.Fatal(err)
	}
	b.field("What it shows", "page 31")
	b.do(chromedp.SetUploadFiles(chromedp.CSS(`[data-testid="pages"] input[type=file]`), []string{file}, chromedp.NodeReady))
	seen := `document.querySelector('[data-testid="pages"] img[alt="page 31 of the manual"]')?.naturalWidth === 300`
	b.do(pollTrue(seen))
	b.wants(`[data-testid="pages"]`, "Ines Roe")
	b.button(`[data-testid="pages"]`, "page 31") // away with it, and the board is there again
	b.do(chromedp.WaitVisible(chromedp.CSS(`section[aria-label="Board"]`)))
	b.visit("/sheets/harrier-t4")
	b.button(`[data-testid="pages"]`, "page 31")
	b.do(pollTrue(seen))
	b.axe()
	b.do(chromedp.Evaluate[chromedp.Void](`window.confirm = () => true`))
	b.button(`[data-testid="pages"]`, "Take it away")
	b.do(pollTrue(`!document.querySelector('[data-testid="pages"]').innerText.includes('page 31')`))
	b.visit("/sheets/harrier-t4")
	if b.wants(`[data-testid="pages"]`, "page 18"); strings.Contains(b.text(`[data-testid="pages"]`), "page 31") {
		t.Error("what was taken away is back")
	}
}

// TestEditLayers writes layers of a sheet: the drawings answer, a circle is a fault with its
// place, and a layer that is taken away is named by no other.
func TestEditLayers(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/sheets/edit?id=gannet-d1")
	b.button("main", "Layers")
	b.button("main", "riser cage")
	b.do(pollTrue(`document.querySelector('main svg[aria-label^="The riser cage"]') !== null`))
	b.axe()
	b.retype(`[data-at="/layers/2/fasteners/0/lengthMM"]`, "8")
	b.do(pollTrue(`document.querySelector('svg[aria-label^="The riser cage"]').textContent.includes('8 mm')`))
	b.retype(`[data-at="/layers/2/fasteners/0/at"]`, "1,2,3")
	b.wants("main", "write points as 10,20")
	b.retype(`[data-at="/layers/2/fasteners/0/at"]`, "-4,128 -4,212")
	b.button("main", "fan duct")
	b.retype(`[data-at="/layers/1/after"]`, "side-panel, riser-cage")
	b.wants(`section[aria-labelledby="Faults-h"]`, "these wait for one another")
	b.button(`section[aria-labelledby="Faults-h"]`, "riser-cage, after, 1: these wait for one another, so none can come off first: fan duct, riser cage")
	b.retype(`[data-at="/layers/1/after"]`, "side-panel")
	b.do(pollTrue(`!document.querySelector('section[aria-labelledby="Faults-h"]')`))
	b.button("main", "Add a layer")
	b.retype(`[data-at="/layers/4/name"]`, "cable guide")
	b.retype(`[data-at="/layers/4/hides"]`, "A1, A2")
	b.button("main", "drive heatsink")
	b.button("main", "Take the drive heatsink away")
	b.button("main", "Save to the shop")
	b.do(pollTrue(`location.pathname === '/sheets/gannet-d1'`))
	sheet := read[server.SheetView](t, b.base+"/api/sheets/gannet-d1").Sheet
	if len(sheet.Layers) != 4 || sheet.Layers[2].Fasteners[0].Length != 8 || sheet.Layers[3].Name != "cable guide" || len(sheet.Layers[3].Hides) != 2 {
		t.Errorf("kept is %+v", sheet.Layers)
	}
}
