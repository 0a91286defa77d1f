package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// hands does at a tab what a person does, and counts: a press, a choice, a field filled in.
type hands struct {
	*tab
	actions int
}

// press presses a button or follows a link by its name.
func (h *hands) press(within, name string) {
	h.t.Helper()
	h.button(within, name)
	h.actions++
}

// fill fills in a field; several lines at once are one paste.
func (h *hands) fill(label, text string) {
	h.t.Helper()
	h.field(label, text)
	h.actions++
}

// panel opens a panel beside the chart.
func (h *hands) panel(id string) {
	h.t.Helper()
	if h.tab.panel(id) {
		h.actions++
	}
}

func (h *hands) pick(label, option string) {
	h.t.Helper()
	h.choose(label, option)
	h.actions++
}

// visits goes to another screen of the job by its tab.
func (h *hands) visits(name string) {
	h.t.Helper()
	h.press(`nav[aria-label="This job"]`, name)
	h.do(pollTrue(fmt.Sprintf(`document.querySelector('nav[aria-label="This job"] [aria-current]')?.innerText.trim() === %q`, name)))
}

// arrival is a machine that comes in: its sheet, what lies in it and what is new, and the
// wish in numbers.
type arrival struct {
	sheet, title, lines string
	memory, drive       string
	slow, fresh         bool
}

// takeIn takes a machine in: by a line, and what lies in it.
func (h *hands) takeIn(a arrival) {
	h.t.Helper()
	wish := ""
	if a.memory != "" {
		wish += a.memory + " GB of memory, "
	}
	if a.drive != "" {
		wish += map[bool]string{true: "a drive of ", false: "a fast drive of "}[a.slow] + a.drive + " GB, "
	}
	lies := "What lies in it, as far as you know, and what is new"
	if a.fresh {
		wish += "a new machine, "
		lies = "What goes into it, and where, as far as you know"
	}
	h.press("main", "New job")
	h.fill("What is wished, and for which machine", wish+"for "+a.title+", "+a.sheet)
	h.wants(`[data-testid="read"]`, "sheet: ")
	h.press("dialog[open]", "Fill in the form")
	h.do(pollTrue(fmt.Sprintf(`document.querySelector('dialog[open] select')?.value === %q`, a.sheet)))
	h.fill(lies, a.lines)
	h.press("dialog[open]", "Start the job")
	h.wants("main", "On the mat", a.title)
}

// check presses a box with a label.
func (h *hands) check(label string) {
	h.t.Helper()
	h.do(pollTrue(fmt.Sprintf(`(() => {
		const l = [...document.querySelectorAll('label')].find((l) => l.innerText.trim() === %q);
		document.querySelectorAll('[data-hit]').forEach((e) => e.removeAttribute('data-hit'));
		l?.setAttribute('data-hit', '');
		return !!l;
	})()`, label)), clickOn("[data-hit]"))
	h.actions++
}

// plan asks for the best plan and waits until it is there and nothing stops it.
func (h *hands) plan(says string) {
	h.t.Helper()
	h.press("main", "Find the best plan")
	h.wants(`[data-testid="plan"]`, says)
	h.do(pollTrue(`document.querySelector('[data-panel="findings"]')?.innerText.includes('no stop')`))
}

// undone is the phase of the first step that is open, "" for none; how many of it can be
// ticked together.
func (h *hands) undone() (phase string, test bool) {
	h.t.Helper()
	got, err := chromedp.Run(h.ctx, chromedp.Evaluate[string](`(() => {
		const open = (e) => !e.innerText.match(/done by|passed,|left out by/);
		const step = [...document.querySelectorAll('[data-step]')].find(open);
		if (!step) return '';
		return step.closest('section').querySelector('h2').id + '|' + step.dataset.step;
	})()`))
	if err != nil {
		h.t.Fatal(err)
	}
	phase, step, _ := strings.Cut(got, "|")
	return phase, strings.HasPrefix(step, "test/")
}

// work does the order up to the closing, phase by phase.
func (h *hands) work() {
	h.t.Helper()
	h.do(pollTrue(`document.querySelectorAll('[data-step]').length > 0`))
	for range 30 {
		phase, test := h.undone()
		switch {
		case phase == "" || phase == "close":
			return
		case test:
			row := `[data-step="test/memory"]`
			h.click(row + ` button[aria-label^="It passed"]`)
			h.do(chromedp.SendKeys(chromedp.CSS(row+" form input"), "4"+kb.Enter))
			h.wants(row, "passed, 4 passes")
			h.actions += 3
		default:
			h.phase(phase)
		}
	}
	h.t.Fatal("the order does not end")
}

// phase says that all of a phase is done: with one press, with the one box there is, or, of what cuts
// the power, box by box.
func (h *hands) phase(name string) {
	h.t.Helper()
	for h.erase(fmt.Sprintf(`[aria-labelledby="%s-h"]`, name)) {
		h.actions += 2
	}
	if name == "power down" {
		for range 3 {
			h.do(pollTrue(`(() => { const b = document.getElementById('power down').closest('section').querySelector('input[type=checkbox]:not(:checked)'); b?.click(); return true; })()`))
			h.do(pollTrue(`document.querySelector('[aria-busy=true]') === null`))
			h.actions++
		}
		h.actions-- // the last is counted below
	}
	h.do(pollTrue(fmt.Sprintf(`(() => {
		const s = document.getElementById(%q).closest('section');
		const one = [...s.querySelectorAll('input[type=checkbox]:not(:checked)')];
		const all = s.querySelector('button[aria-label$="done: ' + %q + '"]');
		const hit = one.length === 1 ? one[0] : all;
		hit?.click();
		return !!hit || one.length === 0;
	})()`, name, name)),
		pollTrue(fmt.Sprintf(`[...document.getElementById(%q).closest('section').querySelectorAll('[data-step]')].every((e) => e.innerText.match(/done by|passed,|left out by/))`, name)))
	h.actions++
}

// read types what a line shows that the label leaves open.
func (h *hands) read(line, shown string) {
	h.t.Helper()
	h.reading(line, shown, "agrees")
	h.actions += 2
}

// prove takes both screens as expected.
func (h *hands) prove() {
	h.t.Helper()
	h.visits("Prove")
	h.confirmAll()
	h.actions += 2
}

// nextStage ends the stage at work.
func (h *hands) nextStage() {
	h.t.Helper()
	h.visits("Hand over")
	h.do(pollTrue(`[...document.querySelectorAll('aside button')].some((b) => b.innerText.startsWith('Go on to'))`),
		chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('aside button')].find((b) => b.innerText.startsWith('Go on to')).click()`))
	h.actions++
}

// handOver closes the machine and the job.
func (h *hands) handOver() {
	h.t.Helper()
	h.visits("Work order")
	h.do(pollTrue(`document.getElementById('close') !== null`))
	h.phase("close")
	h.visits("Hand over")
	h.wants("article", "Open Nothing.")
	h.press("aside", "Close the job")
	h.wants("article", "Closed by Oda Finch")
}

// arrive opens the bench.
func arrive(t *testing.T) *hands {
	b := open(t, shop(t))
	b.visit("/")
	b.as("Oda Finch")
	return &hands{tab: b}
}

// TestThinClient: memory beyond what the sheet states, under a network card; what the job
// proves is kept, and the next plan on the model says so.
func TestThinClient(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "petrel-l1", title: "Pier lamp controller", lines: "SODIMM1: 4GB PC3L-12800S 1.35V\nM2: network card m.2 2242 M key\nSATA1: 64GB 2.5 sata 7mm\nnew: 16GB PC3L-12800S 1.35V S/N LAMP-16", memory: "16"})
	h.plan("4 warnings")
	planned := h.actions
	h.press("main", "Begin the work order")
	h.work()
	h.prove()
	h.visits("Hand over")
	h.wants(`[data-testid="proven"]`, "16 GiB of memory seen and tested, where the sheet states 4 GiB")
	h.press("main", "Accept the 2 warnings of the plan")
	h.wants("article", "Accepted knowingly")
	h.press(`[data-testid="proven"]`, "Keep it on the sheet: 16 GiB of memory seen and tested, where the sheet states 4 GiB")
	h.wants("body", "kept on the sheet as proven")
	h.handOver()
	h.count(planned, 12, 22)
	h.visit("/")
	h.takeIn(arrival{sheet: "petrel-l1", title: "North lamp controller", lines: "SODIMM1: 4GB PC3L-12800S 1.35V\nnew: 16GB PC3L-12800S 1.35V", memory: "16"})
	h.plan("1 warning")
	h.wants("main", "is known to take")
	h.visit("/sheets/petrel-l1")
	h.wants("main", "16 GiB of memory seen and tested, where the sheet states 4 GiB (job ", "Pier lamp controller")
}

// count holds the actions up to a checked plan, and from there to the closed job, against
// what they may be.
func (h *hands) count(planned, plan, closed int) {
	h.t.Helper()
	h.t.Logf("%d actions to a checked plan, %d more to closed", planned, h.actions-planned)
	if planned > plan || h.actions-planned > closed {
		h.t.Errorf("%d actions to a checked plan, at most %d; %d more to closed, at most %d", planned, plan, h.actions-planned, closed)
	}
}

// TestBudgetTower: two used modules, a SATA and an M.2 drive: the known machine with four
// pieces by which the actions are counted.
func TestBudgetTower(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "harrier-t4", title: "Chandlery till", lines: "A2: 8GB PC4-2666V-U 1Rx8\nSATA1: 500GB 3.5 sata\nnew: 2x 16GB PC4-3200AA-U 2Rx8\nnew: 1TB nvme 2280 gen3 x4 M key", memory: "32", drive: "1000"})
	h.plan("proved best")
	planned := h.actions
	h.press("main", "Begin the work order")
	h.work()
	h.prove()
	h.handOver()
	h.count(planned, 12, 22)

	// It comes back: what was left in it is what is found.
	h.press("aside", "The machine is here again")
	h.wants(socket("A2"), "16 GiB")
	h.wants("main", "Find the best plan")
	h.press("main", "As found")
	h.wants(socket("M2_1"), "1TB nvme")
	h.panel("after")
	h.wants(`[data-testid="after"]`, "It starts from:")
}

// take opens what lies in a socket.
func (h *hands) take(id string) {
	h.t.Helper()
	h.do(clickOn(socket(id)))
	h.wants(`[data-testid="socket"]`, id)
	h.actions++
}

// TestOfficeOptical: a slim optical drive gives its port and its bay to an SSD, by the caddy
// and the plug that came with it.
func TestOfficeOptical(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "dunlin-s3", title: "Berth office desk", lines: "A1: 8GB PC4-2666V-U\nSATA1: 1TB 3.5 sata S/N DESK-1\nSATA3: slim optical 9.5mm S/N DVD-7\nnew: 480GB 2.5 sata ssd 7mm S/N SSD-480\nnew: caddy 2.5 slim bay\nnew: slimline to sata crimped\nnew: sata lead straight to angled 50cm", drive: "480", slow: true})
	h.take("SATA3")
	h.press(`[data-testid="socket"]`, "Take it out")
	h.wants(socket("SATA3"), "free")
	h.drag("item-4", "SATA3")
	h.actions++
	h.wants(socket("SATA3"), "480GB")
	h.wants(`[data-panel="findings"]`, "no stop")
	h.panel("after")
	h.pick("What starts it afterwards", "a copy of the system on 480GB sata 2.5 ssd 7mm SSD-480")
	h.panel("after")
	h.wants(`[data-testid="after"]`, "a copy of the system on")
	planned := h.actions
	h.press("main", "Begin the work order")
	h.wants("main", "slide it out to the front", "Into its caddy first", "Copy the system onto 480GB", "What is on the target is gone")
	h.work()
	h.visits("Prove")
	h.read("link/SATA3", "6 Gb/s")
	h.prove()
	h.visits("Hand over")
	h.wants("article", "was in SATA3", "SSD-480", "starts afterwards: a copy of the system on")
	h.handOver()
	h.count(planned, 12, 25)
}

// TestCarrierBySerial: four equal drives on a plain carrier are told apart by their serial
// numbers: one that shows on another's line is named.
func TestCarrierBySerial(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "cormorant-w8", title: "Wreck-model workstation", lines: "A1, C1: 2x 32GB PC4-3200AA-R 2Rx4 ECC\nM2_1: 1TB nvme 2280 gen4 x4 M key S/N SYS-1\nnew: x16 carrier 4x m.2 2280 no switch gen4 1 slot\nnew: 4x 2TB nvme 2280 gen4 x4 M key single-sided S/N W-1 S/N W-2 S/N W-3 S/N W-4"})
	h.plan("proved best")
	planned := h.actions
	h.press("main", "Begin the work order")
	h.wants("main", "Set ", "serial W-3")
	h.work()
	h.visits("Prove")
	h.wants(`[data-screen="set-up"]`, "serial W-1", "serial W-4")
	where, err := chromedp.Run(h.ctx, chromedp.Evaluate[string](`(() => {
		const at = (s) => [...document.querySelectorAll('[data-line^="drive/"]')].find((e) => e.innerText.includes('serial ' + s)).dataset.line;
		return at('W-2') + ' ' + at('W-3');
	})()`))
	if err != nil {
		t.Fatal(err)
	}
	second, third, _ := strings.Cut(where, " ")
	h.reading(second, "S/N W-3", "differs")
	h.wants(fmt.Sprintf("[data-line=%q]", second), "shows serial number W-3, which is that of", "serial W-3")
	h.axe()
	// It was the neighbour's line that was read: read anew, each is where it is planned.
	h.do(clickOn(fmt.Sprintf("[data-line=%q] button[aria-label^='Read again']", second)))
	h.wants(fmt.Sprintf("[data-line=%q]", second), "not looked at")
	h.reading(second, "W-2", "agrees")
	h.reading(third, "W-3", "agrees")
	h.actions += 8
	h.confirmAll()
	h.actions += 2
	h.handOver()
	h.count(planned, 8, 28)
}

// TestStripeAndDisk: two drives become a stripe that holds the system, and the data disk is
// unplugged until it is installed.
func TestStripeAndDisk(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "avocet-e1", title: "Tide-table printer", lines: "A1: 4GB DDR3-1600 DIMM\nSATA1: 2TB 3.5 sata S/N TIDES\nnew: 2x 500GB 2.5 sata ssd 7mm S/N ST-1 S/N ST-2", drive: "900", slow: true})
	h.plan("proved best")
	h.panel("after")
	h.press(`[data-testid="after"]`, "Use drives together…")
	h.do(chromedp.WaitVisible(chromedp.CSS("dialog[open]")))
	h.axe()
	h.check("500GB sata 2.5 ssd 7mm ST-1")
	h.check("500GB sata 2.5 ssd 7mm ST-2")
	h.wants(`[data-testid="levels"]`, "1: mirrored", "500 GB, shown as 465.76 GiB", "0: striped", "1 TB, shown as 931.52 GiB", "3.0 % a year", "all of it is lost")
	h.check("0: striped")
	h.wants(`[data-testid="levels"]`, "Erases every member. Start and small files gain next to nothing.")
	h.axe()
	h.press("dialog[open]", "Make it")
	h.wants("main", "To be answered first", "the array needs")
	h.do(clickOn(`button[aria-label^="Set it: the array needs"]`))
	h.actions++
	h.panel("after")
	h.pick("What starts it afterwards", "a new install on array array-1")
	h.panel("after")
	h.wants(`[data-testid="after"]`, "a new install on the array of level 0")
	h.take("SATA1")
	h.do(clickOn(`button[aria-label^="Out for now"]`))
	h.actions++
	h.wants(`[data-testid="stages"]`, "(now)", "back in")
	h.wants("[data-mat]", "comes back later")
	h.axe()
	planned := h.actions
	h.press("main", "Begin the work order")
	h.wants("main", "It comes back in a later stage", "Make the array of level 0 in set-up", "Making an array erases every member", "Install the system on the array") // while the disk is out
	h.work()
	h.visits("Prove")
	h.wants("main", "Array of level 0, as one disk", "1 TB")
	h.confirmAll()
	h.actions += 2
	h.visits("Work order")
	h.do(pollTrue(`document.getElementById('close') !== null`))
	h.phase("close")
	h.nextStage()
	h.wants("article", "Stage 1: without")
	h.visits("Work order")
	h.wants("main", "TIDES into SATA1")
	h.do(pollTrue(`document.querySelector('[data-step="system/install"]') === null`)) // it is done, and the disk is in again
	h.work()
	h.visits("Prove")
	h.read("link/SATA1", "6 Gb/s")
	h.prove()
	h.handOver()
	h.count(planned, 18, 40)
}

// TestAudioBoxThenInside: an SSD is copied to in a box outside, and then goes inside in place
// of the disk; both stages are planned before the first begins.
func TestAudioBoxThenInside(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "harrier-t4", title: "Hydrophone listening desk", lines: "A2, B2: 2x 16GB PC4-3200AA-U\nPCIE2: sound card x1\nSATA1: 1TB 3.5 sata S/N OLD-1\nnew: 1TB 2.5 sata ssd 7mm S/N SSD-9\nnew: usb 3.2 gen 2 box sata 2.5 UAS S/N BOX-1\nnew: screws M3"})
	h.drag("item-6", "USB1")
	h.wants(socket("USB1"), "USB")
	h.do(pollTrue(`document.querySelector('button[data-socket="USB1/1"]') !== null`))
	h.drag("item-5", "USB1/1")
	h.actions += 2
	h.wants(socket("USB1/1"), "ssd")
	h.panel("after")
	h.press("main", "Do it in stages…")
	h.fill("What the present stage is for", "box outside, for the copy")
	h.fill("What the next one is for", "inside, in place of the disk")
	h.axe()
	h.press("dialog[open]", "Add it")
	h.wants(`[data-testid="stages"]`, "inside, in place of the disk")
	h.wants("main", "As it begins")
	h.take("SATA1")
	h.press(`[data-testid="socket"]`, "Take it out")
	h.wants(socket("SATA1"), "free")
	h.take("USB1/1")
	h.press(`[data-testid="socket"]`, "Move it")
	h.do(clickOn(socket("SATA1")))
	h.actions++
	h.wants(socket("SATA1"), "ssd")
	h.take("USB1")
	h.press(`[data-testid="socket"]`, "Take it out")
	h.wants(socket("USB1"), "free")
	h.panel("after")
	h.pick("What starts it afterwards", "a copy of the system on 1TB sata 2.5 ssd 7mm SSD-9")
	h.press(`[data-testid="stages"]`, "box outside, for the copy (now)")
	h.wants(socket("USB1/1"), "ssd")
	planned := h.actions
	h.visits("Work order")
	h.wants("main", "BOX-1", "Copy the system onto") // in the stage that is for it
	h.work()
	h.visits("Prove")
	h.confirmAll()
	h.actions += 2
	h.nextStage()
	h.wants("article", "Stage 1: box outside, for the copy")
	h.visits("Work order")
	h.wants("main", "OLD-1 out of SATA1", "SSD-9 into SATA1")
	h.do(pollTrue(`document.querySelector('[data-step="system/copy"]') === null`))
	h.work()
	h.visits("Prove")
	h.read("link/SATA1", "6 Gb/s")
	h.prove()
	h.handOver()
	h.count(planned, 21, 32)
}

// TestMiniKit: a mini PC that comes without anything in it is not shut down and not backed up.
func TestMiniKit(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "plover-m2", title: "Quay camera PC", fresh: true, lines: "SODIMM1, SODIMM2: 2x 8GB PC4-2666V-S\nM2: 500GB nvme 2280 gen3 x4 M key S/N KIT-1", memory: "16", drive: "500"})
	h.wants(`[data-panel="findings"]`, "no stop")
	h.panel("after")
	h.pick("What starts it afterwards", "a new install on 500GB nvme M.2 2280 gen3 x4 M-key KIT-1")
	planned := h.actions
	h.press("main", "Begin the work order")
	h.wants("main", "See that no mains lead is in it", "Install the system on 500GB")
	if s := h.text("main"); strings.Contains(s, "Shut the system down") || strings.Contains(s, "backup") {
		t.Errorf("a machine that never ran is shut down:\n%s", s)
	}
	h.work()
	h.prove()
	h.handOver()
	h.count(planned, 12, 22)
}

// TestDeadSocket: a processor leaves an M.2 socket of the board dead, which is seen before
// anything is opened; the drive goes where it is alive, and the owner is told.
func TestDeadSocket(t *testing.T) {
	h := arrive(t)
	h.takeIn(arrival{sheet: "gannet-d1", title: "Mooring planner", lines: "A2: 16GB PC4-3200AA-U\nSATA1: 1TB 3.5 sata\nnew: 1TB nvme 2280 gen4 x4 M key S/N MOOR", drive: "1000"})
	h.panel("settings")
	h.pick("Processor fitted", "first generation")
	h.plan("proved best")
	h.wants(socket("M2_1"), "off")
	h.wants(socket("M2_2"), "1TB")
	planned := h.actions
	h.press("main", "Begin the work order")
	h.work()
	h.prove()
	h.visits("Hand over")
	h.wants("article", "M2_1 stays off")
	h.press("main", "Accept the warning of the plan")
	h.handOver()
	h.count(planned, 12, 22)
}

// TestNewerSheet: the shop learns more of a model while a job on it is open: what differs is
// shown, taken by one action and given back by one.
func TestNewerSheet(t *testing.T) {
	h := arrive(t)
	h.do(chromedp.Evaluate[chromedp.Void](`(async () => {
		const now = await (await fetch('/api/sheets/harrier-t4')).json();
		now.sheet.sockets.find((k) => k.id === 'M2_1').gen = 3;
		await fetch('/api/sheets/harrier-t4', { method: 'PUT', headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify({ revision: now.revision, by: 'Wim Tarn', sheet: now.sheet }) });
	})()`, chromedp.EvalAwaitPromise))
	h.visit(tower + "/fit")
	h.drag("item-4", "M2_1")
	h.wants(socket("M2_1"), "Gen 4 x4")
	h.wants(`[data-testid="newer"]`, "The shop's sheet is another by now", "M2_1")
	h.axe()
	h.press(`[data-testid="newer"]`, "Take it into this job")
	h.wants(socket("M2_1"), "Gen 3 x4")
	h.do(chromedp.WaitNotPresent(chromedp.CSS(`[data-testid="newer"]`)))
	h.press("main", "Undo")
	h.wants(socket("M2_1"), "Gen 4 x4")
}

// TestScan: where the browser reads codes, a serial number comes from the camera; where it
// does not, there is no button.
func TestScan(t *testing.T) {
	beside.Store(t, true) // alone: the stand-in for a camera gives a picture only while its page is painted
	h := arrive(t)
	h.visit(tower + "/fit")
	correct := `button[aria-label^="Correct Ternlight 500"]`
	h.click(correct)
	h.do(chromedp.WaitVisible(chromedp.CSS(`form[aria-label="Correct the piece"]`)))
	if strings.Contains(h.text("dialog[open]"), "with the camera") {
		t.Error("a camera is offered where no code can be read")
	}
	h.visit("/")
	// A stand-in for a browser that reads codes: its camera shows nothing, and its reader a number.
	h.do(chromedp.Evaluate[chromedp.Void](`
		window.BarcodeDetector = class { async detect() { return [{ rawValue: ' TL-FROM-CODE ' }]; } };
		navigator.mediaDevices.getUserMedia = async () => document.createElement('canvas').captureStream();
		HTMLMediaElement.prototype.play = async () => undefined;
	`))
	h.press("main", "Place Ternlight 500: Echo-sounding tower")
	h.click(correct)
	h.do(chromedp.WaitVisible(chromedp.CSS(`form[aria-label="Correct the piece"]`)))
	h.axe()
	h.press("dialog[open]", "Read its code with the camera: Ternlight 500")
	h.do(pollTrue(`[...document.querySelectorAll('dialog[open] input')].some((e) => e.value === 'TL-FROM-CODE')`))
	h.press("dialog[open]", "Save")
	h.wants("[data-mat]", "TL-FROM-CODE")
}

// TestHandsByKeys does a stage, a step left out and a screen without a mouse.
func TestHandsByKeys(t *testing.T) {
	h := arrive(t)
	h.visit("/jobs/chart-table-workstation/order")
	press := func(keys string) { t.Helper(); h.do(chromedp.KeyEvent(keys)) }
	onto := func(name string) {
		t.Helper()
		for range 200 {
			at, err := chromedp.Run(h.ctx, chromedp.Evaluate[string](`(document.activeElement?.ariaLabel || document.activeElement?.labels?.[0]?.innerText || document.activeElement?.innerText || '').trim()`))
			if err != nil {
				t.Fatal(err)
			}
			if strings.HasPrefix(at, name) {
				return
			}
			press(kb.Tab)
		}
		t.Fatalf("Tab does not reach %q", name)
	}
	onto("Leave it out: Look once more before power")
	press(kb.Enter)
	onto("Why it is left out")
	press("the owner looks")
	onto("I know that, and leave it out")
	press(" ")
	onto("Leave it out")
	press(kb.Enter)
	h.wants(`[data-step="power-on/look"]`, "left out by Oda Finch", "the owner looks")
	onto("It runs now: Run a memory test")
	press(kb.Enter)
	h.wants(`[data-step="test/memory"]`, "running since")
	h.visit("/jobs/tide-gauge-mini-pc/prove")
	onto("The other 2 in set-up as expected")
	press(kb.Enter)
	h.wants(`[data-testid="tally"]`, "4 to read")
	h.visit("/jobs/chart-table-workstation/fit")
	h.panel("after")
	onto("Do it in stages")
	press(kb.Enter)
	h.do(chromedp.WaitVisible(chromedp.CSS("dialog[open]")))
	onto("What the present stage is for")
	press("first")
	onto("What the next one is for")
	press("then" + kb.Enter)
	h.wants(`[data-testid="stages"]`, "first (now)", "then")
	onto("first (now)")
	press(kb.Enter)
	h.wants("main", "As found")
}
