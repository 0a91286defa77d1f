package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"deepbay/internal/core/fault"
	"deepbay/internal/server"
)

// tabTo goes with Tab to what has a name that begins so, from where the focus is.
func (b *tab) tabTo(name string) {
	b.t.Helper()
	for range 300 {
		b.do(chromedp.KeyEvent(kb.Tab))
		at, err := chromedp.Run(b.ctx, chromedp.Evaluate[string](`(() => {
			const e = document.activeElement;
			return e.ariaLabel || e.innerText || '';
		})()`))
		if err != nil {
			b.t.Fatal(err)
		}
		if strings.HasPrefix(strings.TrimSpace(at), name) {
			return
		}
	}
	b.shot()
	b.t.Fatalf("Tab does not reach %q", name)
}

// enter goes to what has a name that begins so, and presses it.
func (b *tab) enter(name string) {
	b.t.Helper()
	b.do(chromedp.Evaluate[chromedp.Void](`document.activeElement?.blur()`))
	b.tabTo(name)
	b.do(chromedp.KeyEvent(kb.Enter))
}

// hide puts a simulated machine with a fault onto the bench of a job, as whoever sets the task does.
func (b *tab) hide(id, hidden string) {
	b.t.Helper()
	body, _ := json.Marshal(server.SimAction{Do: server.SimMake, Fault: fault.Parse(hidden)})
	r, err := http.Post(b.base+"/api/jobs/"+id+"/sim", "application/json", bytes.NewReader(body))
	if err != nil {
		b.t.Fatal(err)
	}
	defer r.Body.Close()
	if r.StatusCode != http.StatusOK {
		b.t.Fatalf("%s cannot be hidden: %s", hidden, r.Status)
	}
}

// TestHiddenFault does a whole job by keys, with no machine but the simulated one: the plan, the
// work order, the first start; what differs, the checks, the cure as steps of its own, and the
// screens once more.
func TestHiddenFault(t *testing.T) {
	const id = "echo-sounding-tower"
	b := open(t, shop(t))
	b.visit("/jobs/" + id + "/fit")
	b.do(chromedp.WaitVisible(chromedp.CSS(`[data-testid="chart"]`)), chromedp.KeyEvent("o"))
	b.wants(`[data-testid="plan"]`, "proved best")
	b.do(chromedp.KeyEvent("w"))
	b.wants("main", "See that the backup is there")
	b.do(chromedp.KeyEvent("i"))
	on := func(int) { // past a test the focus is in what was typed, until it is taken
		b.do(pollTrue(`document.activeElement.tagName !== 'INPUT'`))
		key := kb.Enter
		if button, err := chromedp.Run(b.ctx, chromedp.Evaluate[bool](`document.activeElement.closest('button:not([data-next]), a') !== null`)); err != nil {
			t.Fatal(err)
		} else if button { // Enter would press it
			key = kb.ArrowRight
		}
		b.do(chromedp.KeyEvent(key))
	}
	b.walk(id, on, "close/off")
	b.hide(id, "plug-off@SATA6")

	prove := func() {
		t.Helper()
		b.do(chromedp.KeyEvent("w"), pollTrue(`!!document.querySelector('[data-testid="progress"]')`), chromedp.KeyEvent("p"))
	}
	prove()
	b.wants(`[data-testid="sim"]`, "off")
	b.enter("Start it")
	b.wants(`[data-testid="sim"]`, "Running system")
	b.axe()
	b.enter("Let it tell about itself")
	b.wants(`[data-testid="tally"]`, "1 differ")
	for range 12 {
		b.wants(`[data-testid="trouble"]`, "What is wrong")
		left := b.text(`[data-testid="stand"]`)
		if left == "One explanation is left." {
			break
		}
		made := len(read[server.TroubleView](t, b.base+"/api/jobs/"+id+"/trouble").Checked)
		b.enter("Let the simulated machine answer")
		b.do(pollTrue(fmt.Sprintf(`document.querySelector('[data-testid="stand"]').innerText !== %q || document.querySelectorAll('[data-testid="trouble"] summary').length > 0 && document.querySelector('[data-testid="trouble"]').innerText.includes('%d check')`, left, made+1)))
	}
	b.wants(`[data-testid="leader"]`, "power plug of", "is not home", "Press it on straight")
	b.axe()
	b.enter("Put it right")
	b.do(pollTrue(`document.querySelector('[data-testid="step"]')?.dataset.at.startsWith('mend-1/')`))
	b.wants(`[data-testid="step"]`, "Shut the system down")
	// Its steps are those of the order that are not done.
	for _, s := range read[server.JobView](t, b.base+"/api/jobs/"+id).View.Order {
		if strings.HasPrefix(string(s.ID), "mend-1/") {
			b.at(string(s.ID))
			on(0)
		}
	}
	b.at("close/off")

	// The simulated machine was put right with the steps; it is read once more.
	prove()
	b.wants(`[data-testid="cure"]`, "put right")
	b.enter("Close and start it")
	b.wants(`[data-testid="sim"]`, "Running system")
	b.enter("Let it tell about itself")
	b.wants(`[data-testid="tally"]`, "0 differ")
	b.enter("Take it away")
	b.wants(`[data-testid="sim"]`, "to do the whole job without one")
	v := read[server.JobView](t, b.base+"/api/jobs/"+id).View
	if len(v.Job.Cures) != 1 || v.Job.Cures[0].Ended.IsZero() {
		t.Errorf("the cure goes on: %+v", v.Job.Cures)
	}
}

// TestMachineFile drops what a machine told about itself on its job, on a screen that has no place
// for it; starts a sheet from such a file; and is told what is wrong with a file that is none.
func TestMachineFile(t *testing.T) {
	b := open(t, shop(t))
	b.hide("tide-gauge-mini-pc", "m2-not-seated@M2")
	r, err := http.Post(b.base+"/api/jobs/tide-gauge-mini-pc/sim", "application/json", strings.NewReader(`{"do":"start"}`))
	if err != nil {
		t.Fatal(err)
	}
	defer r.Body.Close()
	var sim server.SimView
	if err := json.NewDecoder(r.Body).Decode(&sim); err != nil || sim.Probe == nil {
		t.Fatal(sim, err)
	}
	told, err := json.Marshal(sim.Probe)
	if err != nil {
		t.Fatal(err)
	}
	file := func(text string) string {
		return fmt.Sprintf(`(() => { const d = new DataTransfer(); d.items.add(new File([%q], 'seen.json')); return d; })()`, text)
	}
	drop := func(text string) {
		b.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`window.dispatchEvent(new DragEvent('drop', { dataTransfer: %s, cancelable: true }))`, file(text))))
	}
	b.visit("/jobs/tide-gauge-mini-pc/order")
	drop(string(told))
	b.wants(`[data-testid="toasts"]`, "Read what the machine tells: ")
	b.visit("/jobs/tide-gauge-mini-pc/prove")
	b.wants(`[data-testid="leader"]`, "Ternlight 1000 is not home in M2")
	b.allow("422")
	drop("not a machine")
	b.wants(`[data-testid="toasts"]`, "not JSON: ", "line 1, column 2")

	b.visit("/sheets")
	b.button("main", "New sheet")
	b.do(chromedp.WaitVisible(chromedp.CSS(`[data-testid="read-machine"]`)), chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`(() => {
		const i = document.querySelector('[data-testid="read-machine"] input');
		i.files = %s.files;
		i.dispatchEvent(new Event('change', { bubbles: true }));
	})()`, file(string(told)))))
	b.wants(`[data-testid="read-machine"]`, "3 sockets of Plover M2 mini PC were read", "SODIMM1: 8GB DDR4", "What a probe cannot see")
	b.axe()
	b.button("dialog[open]", "Start writing")
	b.wants("main", "Plover M2 mini PC", "SODIMM1")
}
