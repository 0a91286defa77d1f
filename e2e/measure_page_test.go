package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// TestBeforeAndAfter: a job that was measured tells what it gained and what holds it; in another,
// a series is typed by keys, one is refused with its reason, a file is read, and one is taken back.
func TestBeforeAndAfter(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/jobs/sonar-mosaic-desktop/measure")
	b.wants("main", "12.2 times as fast: 534 MB/s, then 6,525 MB/s", "As drive and path allow: 7.06 GB/s", "The uplink of the chipset holds it", "Reading was 60 % of the time")
	b.axe()
	b.visit("/jobs/hydrophone-listening-desk/measure")
	b.wants("main", "10 dB quieter: about half as loud", "22.9 dB(A) at most", "Without the room: before 34.4 dB(A), after 24.5 dB(A)")

	b.visit("/jobs/hydrophone-listening-desk/handover")
	b.wants(`[data-testid="gained"]`, "From the button to a system that answers: 3.7 times as fast")
	b.wants("article", "Room for more", "A further drive goes into SATA1: SATA 6 Gb/s")
	b.button("aside", "Reopen it")
	b.wants("aside", "A last word for the owner")
	b.changed("hydrophone-listening-desk", 11, map[string]any{"do": "wish", "wish": map[string]any{"text": "silent", "backedUp": "the archive", "starts": map[string]any{"how": "copy", "item": "item-5"}}})
	b.wants("body", "changed the wish")
	b.button("aside", "It was wiped: Mudlark 2 TB MU2-118842")
	b.wants("dialog[open]", "Nothing brings it back", "The ATA sanitize command: overwrite")
	b.axe()
	b.allow("422")
	b.button("dialog[open]", "It is wiped")
	b.wants("body", "type the last four characters of the serial number")
	b.do(clickOn(`dialog[open] input[type=checkbox]`), chromedp.SendKeys(chromedp.CSS("dialog[open] form input"), "8842"+kb.Enter))
	b.wants(`[data-testid="old"]:nth-of-type(2)`, "wiped: purge")
	b.wants("article", "wiped: purge")
	b.button("aside", "Warranty, old parts, agreement…")
	b.axe()
	b.choose("Mudlark 2 TB MU2-118830", "with its owner")
	b.field("Who agreed to what was done", "Ms Tern")
	b.button("dialog[open]", "The owner agreed")
	b.wants("dialog[open]", "Ms Tern agreed to what was done")
	b.button("dialog[open]", "Close")
	b.button("main", "The owner’s page")
	b.wants(`[data-testid="plain"]`, "New in it: a solid-state drive of 1.00 TB (Ternlight 1000)", "a hard disk of 2.00 TB (Mudlark 2 TB); with its owner")
	b.wants("article", "wiped: purge", "Ms Tern agreed to what was done")
	b.axe()
	b.button("main", "The shop’s sheet")
	b.button("aside", "A label for the machine")
	b.wants(`[data-testid="label"]`, "Hydrophone listening desk", "M2_1: Ternlight 1000 TL1-10C5120")
	b.axe()

	b.visit(tower + "/measure")
	b.wants("main", "Nothing is measured yet", "deepbay measure DIRECTORY")
	b.tabTo("Enter a measurement")
	b.enter("Enter a measurement")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open]")))
	b.axe()
	b.field("Of what, in the owner’s words", "survey of the basin")
	b.field("The runs, in s, without the first", "42 41,5 fast")
	b.allow("422")
	b.button("dialog[open]", "Keep it")
	b.wants(`dialog[open] [role="alert"]`, `"fast" cannot be: write a number from 0.001 to 86400, in s`)
	b.do(chromedp.Evaluate[chromedp.Void](`document.querySelector('dialog[open] textarea').select()`))
	b.field("The runs, in s, without the first", "42 41,5 43; 42 42")
	b.button("dialog[open]", "Keep it")
	b.wants("main", "Loading: survey of the basin", "Measured before the work only: measure it again after")

	file := filepath.Join(t.TempDir(), "runs.csv")
	if err := os.WriteFile(file, []byte("what,when,of,block,depth,value\nload,after,survey of the basin,,,20\nload,after,survey of the basin,,,21\nload,after,survey of the basin,,,20\n"), 0o644); err != nil {
		t.Fatal(err)
	}
	b.do(chromedp.SetUploadFiles(chromedp.CSS(`input[aria-label="A file of measurements"]`), []string{file}, chromedp.NodeReady))
	b.wants("dialog[open]", "load, survey of the basin: 3 runs")
	b.choose("When", "after the work")
	b.button("dialog[open]", "Keep it")
	b.wants("main", "2.1 times as fast: 42.0 s, then 20.0 s", "Fewer than 5 runs")
	b.do(chromedp.Reload())
	b.wants("main", "2.1 times as fast")
	b.button("main", "Take back: Loading: survey of the basin, after")
	b.wants("main", "Measured before the work only")
	b.button("main", "Undo")
	b.wants("main", "2.1 times as fast")
	b.axe()
}

// TestVolumes: a drive that somebody found blank is divided on paper, to scale; the order names it by
// size and serial number, and is done only when the end of that is typed.
func TestVolumes(t *testing.T) {
	gate := &gate{}
	b := open(t, shopBehind(t, filepath.Join(t.TempDir(), "shop.db"), gate.before))
	b.changed("echo-sounding-tower", 1, map[string]any{"do": "place", "item": "item-4", "socket": "M2_1"})
	b.visit(tower + "/fit")
	b.as("Oda Finch")
	b.panel("after")
	b.button(`[data-testid="after"]`, "Volumes…")
	b.wants("dialog[open]", "No drive of the plan is known to be blank", "Ternlight 500, serial TLN4-5A0C77: nobody said what it holds")
	b.button("dialog[open]", "It is blank, somebody looked: Ternlight 500, serial TLN4-5A0C77")
	b.wants(`[data-testid="divided"]`, "volume 1: 500.11 GB, shown as 465 GB, NTFS, DATA-0C77, D:")
	b.axe()
	b.button(`[data-testid="divided"]`, "One more volume")
	b.wants(`[data-testid="divided"]`, "volume 1: 100.00 GB", "volume 2: 400.11 GB")
	b.choose("table", "MBR, the older one: for firmware that starts from nothing else")
	b.retype(`[data-testid="divided"] input[id$="-1a"]`, "D:") // of the second volume, as the first
	b.allow("422")
	b.button(`[data-testid="divided"]`, "Plan it so")
	b.wants("body", "D: is taken")
	b.retype(`[data-testid="divided"] input[id$="-1a"]`, "E:")
	b.button(`[data-testid="divided"]`, "Plan it so")
	b.wants(`[data-testid="divided"]`, "Plan it so now")
	b.button("dialog[open]", "Close")

	b.visit(tower + "/order")
	const row = `[data-step="volumes/item-4"]`
	b.wants(row, "Make an MBR table and volumes on Ternlight 500", "It is Ternlight 500, serial TLN4-5A0C77: 500.11 GB, shown as 465 GB", "Volume 2: 400.11 GB")
	b.do(clickOn(`[data-step="fit/item-4@M2_1"] input`)) // it is written on once hands have fitted it
	b.wants(`[data-step="fit/item-4@M2_1"]`, "done by")
	b.click(row + ` input[type="checkbox"]`)
	b.wants("body", "this erases. Read the serial number off the drive")
	b.allow("ERR_")
	gate.lost.Store(true) // what is typed is no reason for leaving it out, also while it waits to be saved
	b.do(chromedp.SendKeys(chromedp.CSS(row+" form input"), "0c77"+kb.Enter))
	b.wants(row, "done by Oda Finch", "not saved yet")
	gate.lost.Store(false)
	b.do(chromedp.WaitNotPresent(chromedp.CSS(`[role="alert"]`)))
	b.wants(row, "done by Oda Finch")
}

// TestMoves moves the soundings of the tower onto its new drive: what is not known is said, what does
// not fit is refused, the steps join the order one behind the other, and nothing counts as arrived
// before it was compared.
func TestMoves(t *testing.T) {
	b := open(t, shop(t))
	b.changed("echo-sounding-tower", 1, map[string]any{"do": "place", "item": "item-4", "socket": "M2_1"})
	b.changed("echo-sounding-tower", 2, map[string]any{"do": "correct", "item": "item-4", "serial": "TLN4-5A0C77", "new": true, "holds": "blank", "alone": true})
	b.visit(tower + "/fit")
	b.as("Oda Finch")
	b.panel("after")
	b.button(`[data-testid="after"]`, "Move data…")
	b.wants(`[data-testid="drawn"]`, "How long it takes is not known: say how much lies on the old drive", "whether it fits is not known", "both are in the machine at a time")
	b.axe()
	b.field("On the old one lie, in GB", "900")
	b.wants(`[data-testid="drawn"]`, "it does not fit")
	b.allow("422")
	b.button("dialog[open]", "Put it into the work order")
	b.wants("body", "what lies on Mudlark 2 TB does not fit on Ternlight 500")
	b.retype(`dialog[open] form:not([data-testid]) input[inputmode="decimal"]`, "300")
	b.choose("In files", "photographs and sound, about 5 MB")
	b.wants(`[data-testid="drawn"]`, "it fits", "60000 files", "Measure both")
	b.button("dialog[open]", "Put it into the work order")
	b.wants(`[data-testid="moved"]`, "From Mudlark 2 TB, serial ML7-0093318 onto Ternlight 500, serial TLN4-5A0C77")
	b.button(`[data-testid="moved"]`, "All of it arrived")
	b.wants("body", "no proof is given")
	b.axe()
	b.button("dialog[open]", "Close")
	b.wants(`[data-testid="after"]`, "not proved yet")

	b.visit(tower + "/order")
	b.wants(`[data-step="move/1/copy"]`, "Copy the files of Mudlark 2 TB", "It is Ternlight 500, serial TLN4-5A0C77", "it is read only")
	b.wants(`[data-step="move/1/prove"]`, "Prove that all of Mudlark 2 TB", "deepbay verify OLD NEW")
	b.wants(`[data-step="move/1/letters"]`, "Take the letter or mount point from Mudlark 2 TB")
	b.click(`[data-step="move/1/letters"] input[type="checkbox"]`)
	b.wants("body", "must be done")
}
