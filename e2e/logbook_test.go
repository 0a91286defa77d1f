package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// TestLogbook, by keys: what somebody wrote is found by its words and its hand, narrowed to a
// machine's life and from there to the life of one of its parts; figures say what jobs came to; what
// a model proved is kept on its sheet.
func TestLogbook(t *testing.T) {
	b := open(t, shop(t))
	b.visit("/")
	b.do(chromedp.KeyEvent("g"))
	b.wants("main", "the latest 50 lines; there are earlier ones", "brought in with the demo shop")
	b.axe()
	b.tabTo("Earlier lines")
	b.enter("Earlier lines")
	b.wants(`[data-testid="lines"]`, "closed the job")
	b.do(chromedp.KeyEvent("/"))
	b.do(chromedp.KeyEvent("skb-40117"))
	b.wants(`[aria-label="Machines and parts"]`, "Echo-sounding tower", "Tide-gauge mini PC", "the life of a part with serial number")
	b.wants(`[data-testid="lines"]`, "Take Skerry 480, serial SKB-40117 out of SATA6", "10 Mar 2025")
	b.axe()
	b.field("By", "Nils Brandt"+kb.Enter)
	b.wants("main", "1 line")
	b.click(`[aria-label="Machines and parts"] li:last-child a`)
	b.wants("h1", "Skerry 480")
	b.wants(`[data-testid="events"]`, "Echo-sounding tower: Skerry 480, serial SKB-40117 came out of SATA6", "Tide-gauge mini PC: Skerry 480")
	b.axe()

	b.visit(tower)
	b.tabTo("its life")
	b.enter("its life")
	b.wants("h1", "Echo-sounding tower")
	b.wants("main", "2 jobs on this machine", "ML7-0093318", "mended: the data lead of Mudlark 2 TB is not home")
	b.axe()

	b.visit("/logbook/figures")
	b.wants(`[data-testid="figures-phase"]`, "take out", "first power-on", "longer")
	b.wants(`[data-testid="figures-fault"]`, "the data lead of a piece is not home")
	b.wants("main", "Take the shop along")
	b.axe()

	b.visit("/sheets/dotterel-m4")
	b.wants(`[data-testid="showed"]`, "64 GiB of memory seen and tested, where the sheet states 32 GiB")
	b.axe()
	b.visit("/jobs/quay-camera-mini-pc/fit")
	b.wants(`[data-testid="proofs"]`, "in Current-model mini PC")
	b.button(`[data-testid="proofs"] li:first-child`, "Keep it on the sheet as proven")
	b.wants(`[data-testid="newer"]`, "Take it into this job")
	b.button(`[data-testid="newer"]`, "Take it into this job")
	b.wants(`[data-testid="proofs"]`, "a module of 32 GiB")
}
