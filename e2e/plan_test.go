package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// TestPlan lets the planner place the parts, takes an alternative and goes back,
// pins a part by hand and asks why another socket was not chosen.
func TestPlan(t *testing.T) {
	b := open(t, shop(t))
	b.visit(tower + "/fit")
	b.button("main", "Find the best plan")
	plan := `[data-testid="plan"]`
	b.wants(plan, "proved best", "system drive: 6.50 GB/s, 16 s for 100 GB", "2 of Sallow 4 GB come out", "Alternatives")
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.wants(socket("A2"), "16 GiB at 3200 MT/s")
	b.axe()
	b.button(plan, "Take alternative 1")
	b.wants(socket("A1"), "4 GiB at 2400 MT/s")
	b.wants(plan, "Alternative 1 is taken")
	b.button(plan, "Take the best plan")
	b.wants(socket("A1"), "free")

	// What counts most can be said; what was found can be told to stay.
	b.choose("What counts most", "nothing in use lost")
	b.wants(socket("A1"), "4 GiB at 2400 MT/s")
	b.wants(plan, "memory: 38.40 GB/s at its peak")
	b.choose("What counts most", "the usual order")
	b.wants(socket("A1"), "free")

	// Put somewhere by hand, a part is pinned there and the rest goes round it.
	b.do(chromedp.Evaluate[chromedp.Void]("window.scrollTo(0, 0)"), clickOn(socket("M2_1")))
	b.button(`[data-testid="socket"]`, "Move it")
	b.do(clickOn(socket("M2_2")))
	b.wants(plan, "Ternlight 500 is pinned to M2_2", "system drive: 3.")
	b.wants(socket("SATA1"), "Mudlark 2 TB")
	b.axe()
	b.do(clickOn(socket("SATA6")))
	b.choose("Why not here?", "Mudlark 2 TB ML7-0093318")
	b.wants(`[data-testid="why-not"]`, "Mudlark 2 TB is not seen on SATA6: the socket is off")
	b.axe()
	keep := clickOn(`[data-testid="socket"] input[type="checkbox"]`)
	b.do(clickOn(socket("SATA5")), keep)
	b.wants(plan, "proved impossible", "SATA5 stays on and free", "give up SATA5")
	b.axe()
	b.do(keep)
	b.wants(plan, "proved best")
	b.do(clickOn(socket("SATA1")))
	b.choose("When planning it", "stays where it was found")
	b.wants(plan, "proved impossible", "the new Ternlight 500 is pinned to M2_2", "Mudlark 2 TB from SATA6 stays there", "let Mudlark 2 TB from SATA6 move")
	b.axe()
	b.choose("When planning it", "is treated as usual")
	b.wants(plan, "proved best")
	b.button(plan, "Let go")
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.wants(socket("SATA6"), "Mudlark 2 TB")

	b.do(clickOn(socket("M2_1")))
	b.choose("Afterwards it is for", "scratch: its rate matters")
	b.wants(plan, "scratch and array: 6.50 GB/s")
	b.choose("Afterwards it is for", "not said")
	b.do(pollTrue(`document.querySelector('[data-testid="plan"]')?.innerText.includes('scratch and array: ')`))

	b.button(`[data-testid="socket"]`, "Not here")
	b.wants(plan, "Ternlight 500 does not go into M2_1")
	b.wants(socket("M2_2"), "Ternlight 500")
	b.axe()
	b.button(plan, "Allow it")
	b.wants(socket("M2_1"), "Ternlight 500")

	// By keys alone: undo, and plan again.
	b.do(chromedp.Evaluate[chromedp.Void]("document.activeElement.blur()"), chromedp.KeyEvent("u"))
	b.wants(socket("M2_2"), "Gen 3 x4")
	b.do(chromedp.KeyEvent("o"))
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")

	// Something from the shelf may be what is missing.
	other := open(t, b.base)
	other.visit("/jobs/lock-gate-recorder/fit")
	other.button("main", "Find the best plan")
	other.wants(plan, "proved impossible", "take from the shelf: Haven Dock", "take from the shelf: Slim plug adapter")
	other.button(plan, "Do it: take from the shelf: Haven Dock")
	other.wants(plan, "proved best")
	other.wants(socket("USB1"), "Haven Dock")
	other.wants(socket("USB1/1"), "Skerry 480")
	other.axe()

	// Where nobody knows enough, a plan is shown provided that, with what to look up.
	other.visit("/jobs/weather-mast-logger/fit")
	other.button("main", "Find the best plan")
	other.wants(plan, "no plan is sure", "Look up, the least trouble first", "what M2B speaks", "Ternlight 1000 in M2B")
	other.button(plan, "Lay it out to look")
	other.wants(socket("M2B"), "Ternlight 1000")
	other.wants(plan, "It is laid out")
	other.axe()

	// What its screens showed before the work is proof; what was looked up is answered where it is missing.
	other.visit("/jobs/weather-mast-logger/prove")
	other.click(`[data-testid="before"] summary`)
	other.button(`[data-testid="before"]`, "It shows something else: Skerry 240 on M2A")
	other.do(chromedp.SendKeys(chromedp.CSS(`[aria-label="What is shown for Skerry 240 on M2A"]`), "240 GB"))
	other.button(`[data-testid="before"]`, "Save")
	other.wants(`[data-testid="before"]`, "1 of", "agrees")
	other.axe()
	other.visit("/jobs/weather-mast-logger/fit")
	other.button("main", "Find the best plan")
	other.wants(plan, "no plan is sure", "it works if M2B has posts at 80 mm", "it works if M2B speaks PCIe")
	other.button(plan+" li:nth-child(1)", "80 mm")
	other.button(plan+" li:nth-child(1)", "It is so")
	other.wants(`[data-panel="looked"]`, "Looked up at the bench 1")
	other.button(plan+" li:nth-child(1)", "PCIe")
	other.button(plan+" li:nth-child(1)", "It is so")
	other.wants(plan, "proved best of the plans that are sure")
	other.wants(socket("M2B"), "Ternlight 1000")
	other.axe()
	other.panel("looked")
	other.wants(`[data-testid="looked"]`, "M2B has posts at 80 mm", "M2B speaks PCIe")
	other.click(`[aria-label="Keep it on the sheet: M2B speaks PCIe"]`)
	other.wants("body", "kept on the sheet: M2B speaks PCIe")
	other.visit("/sheets/snipe-p1")
	other.wants("main", "M2B")

	// What cannot be had is said, with what would help.
	b.do(chromedp.KeyEvent(kb.Escape))
	b.addPart("skerry-240", "SK24-1", true)
	b.addPart("skerry-240", "SK24-2", true)
	b.button("main", "Plan again")
	b.wants(plan, "proved impossible", "These cannot all be had", "Skerry 240 is in the machine and seen", "leave out the new Skerry 240")
	b.axe()
}

// TestShop goes from a wish to parts of the shelf and on to the plan.
func TestShop(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.button("main", "New job")
	b.button("dialog[open]", "Fill in the form")
	b.do(chromedp.WaitVisible(chromedp.CSS("dialog[open] select")))
	b.do(inDialog("harrier-t4"))
	b.field("What the owner calls the machine", "Buoy-yard tower")
	b.field("Memory of at least (GiB)", "32")
	b.field("System drive of at least (GB)", "500")
	b.button("dialog[open]", "Start the job")
	b.wants("main", "Best plan")
	b.do(chromedp.KeyEvent("c"))
	b.wants("dialog[open]", "Choose parts from the shelf")
	b.field("Further drives for data, together (GB)", "2000")
	b.field("For at most", "300")
	b.button("dialog[open]", "Look on the shelf")
	b.wants("dialog[open]", "combinations of what is on the shelf were planned", "2 of Sallow 16 GB, Ternlight 500, Mudlark 2 TB, 165.80", "system drive: 6.50 GB/s")
	b.axe()
	b.button("dialog[open]", "Take basket 1 and plan")
	plan := `[data-testid="plan"]`
	b.wants(plan, "Look up, the least trouble first", "it works if nothing lies in B2", "all drives at once: 6.71 GB/s")
	for i, slot := range []string{"A1", "A2", "B1", "B2"} { // nobody has looked into the slots
		b.button(plan, "what lies in "+slot+": nothing lies there")
		b.wants(`[data-panel="looked"]`, fmt.Sprintf("Looked up at the bench %d", i+1))
		b.do(pollTrue(`document.querySelector('[data-testid="plan"]')?.innerText.includes('what lies in ` + slot + `:') === false`)) // it is planned again
	}
	b.wants(plan, "proved best", "all drives at once: 6.71 GB/s")
	b.wants(socket("M2_1"), "Gen 4 x4, 7.88 GB/s")
	b.wants(socket("B2"), "16 GiB at 3200 MT/s")
	b.wants(socket("SATA1"), "Mudlark 2 TB")
}

// TestSearching shows how far a question is that takes long, and stops it.
func TestSearching(t *testing.T) {
	b := open(t, shop(t))
	b.visit(tower + "/fit")
	b.do(chromedp.Evaluate[chromedp.Void](`window.realFetch = window.fetch; window.stopped = 0;
		window.fetch = (url, init) => /\/plan\?search=/.test(url) ? new Promise((_, no) => init.signal.addEventListener('abort', () => { window.stopped++; no(new DOMException('', 'AbortError')) }))
			: /\/searches\//.test(url) ? Promise.resolve(new Response(JSON.stringify({says: 'searching: 12 thousand steps', steps: 12345, seconds: 4, most: 20})))
			: window.realFetch(url, init)`))
	b.button("main", "Find the best plan")
	b.wants(`[data-testid="plan"]`, "searching: 12 thousand steps. 4 s of 20 s at most.")
	b.axe()
	b.button(`[data-testid="plan"]`, "Stop")
	b.do(pollTrue(`!document.querySelector('progress') && window.stopped === 1`),
		chromedp.Evaluate[chromedp.Void](`window.fetch = window.realFetch`))
	b.button("main", "Find the best plan")
	b.wants(`[data-testid="plan"]`, "proved")
}

// TestShelfForJob looks through one kind of part of the shelf for what suits a job, and takes
// one for it.
func TestShelfForJob(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/shelf")
	b.do(clickOn(`nav[aria-label="Kinds of part"] a:nth-child(2)`))
	b.wants("main", "7 kinds of part", "Mudlark 2 TB", "Spindrift 3840")
	b.choose("What suits the job", "Echo-sounding tower")
	b.wants(`[data-part="skerry-240"]`, "M2_2", "turns off Mudlark 2 TB", "Mudlark 2 TB is not seen on SATA6")
	b.wants(`[data-part="ternlight-1000"]`, "M2_1", "Gen 3 x4, 3.94 GB/s")
	b.wants(`[data-part="spindrift-3840"]`, "no place for it")
	order, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`[...document.querySelectorAll('[data-part]')].map((e) => e.dataset.part).slice(-2).join(' ')`))
	if err != nil || order != "skerry-240 spindrift-3840" {
		t.Errorf("what does not suit stands last: %q (%v)", order, err)
	}
	b.axe()
	b.button("main", "Take it: Ternlight 1000 for Echo-sounding tower")
	b.wants("body", "Ternlight 1000: on the mat of Echo-sounding tower")
	b.visit(tower + "/fit")
	b.wants("[data-mat]", "Ternlight 1000")
}
