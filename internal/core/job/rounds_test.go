package job_test

import (
	"maps"
	"math/rand"
	"strings"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
	"deepbay/internal/coretest/jobs"
)

// TestRounds does some of an order, changes the plan, goes on, and again: whatever was done
// in between, nothing is taken from where it is not, nothing goes where something lies, and
// when all steps are done all lies and is set as planned.
func TestRounds(t *testing.T) {
	back, ended := 0, 0
	for seed := range int64(*jobsTried / 40) {
		rng := rand.New(rand.NewSource(seed))
		b := bench{t, jobs.Random(rng)}
		b.job.Wish.Starts.How = rig.StartNothing
		h := hands{T: t, seed: seed, now: seats(&b.job.Found), fitted: map[string]seat{}, led: map[rig.ItemID]bool{}, set: map[string]string{}, bays: bays(b.job.FoundRig())}
		for round := range 4 {
			for range 12 { // until nothing stops the plan
				if a := b.job.Check(); !a.Stops() {
					break
				}
				jobs.Shuffle(rng, &b.job)
			}
			if a := b.job.Check(); a.Stops() {
				continue
			}
			n := rng.Intn(12)
			if round == 3 {
				n = 1000
			}
			for range n {
				s := h.next(&b.job)
				if s == nil {
					break
				}
				h.do(&b.job, s)
				back += strings.Count(s.ID, "back/")
				b.do(carryOut(*s))
			}
			if round < 3 {
				jobs.Shuffle(rng, &b.job)
				continue
			}
			ended++
			if want := seats(&b.job.Planned); !maps.Equal(h.now, want) {
				t.Fatalf("seed %d: all lies as %v\nand is planned as %v\n%s", seed, h.now, want, h.log)
			}
			if want := bays(b.job.PlannedRig()); !maps.Equal(h.bays, want) {
				t.Fatalf("seed %d: drives lie in bays %v\nand are planned in %v\n%s", seed, h.bays, want, h.log)
			}
			r := b.job.PlannedRig()
			for id, v := range h.set {
				for i := range r.Sheet.Settings {
					if st := &r.Sheet.Settings[i]; string(st.ID) == id && r.Choice(st) != v {
						t.Fatalf("seed %d: %s is set to %s, planned %s\n%s", seed, id, v, r.Choice(st), h.log)
					}
				}
			}
		}
	}
	if n := *jobsTried / 40; n >= 50 && (back < n/10 || ended < n/8) {
		t.Errorf("only %d steps that take something back, in %d jobs", back, ended)
	}
}

// hands carry out what an order says, and see what really happens.
type hands struct {
	*testing.T
	seed   int64
	now    map[rig.ItemID]seat
	fitted map[string]seat     // by step: where it put its piece
	led    map[rig.ItemID]bool // its data lead was moved
	set    map[string]string
	bays   map[rig.ItemID]machine.BayID // where drives lie
	log    string
}

// bays is where drives of a rig lie.
func bays(r rig.Rig) map[rig.ItemID]machine.BayID {
	out := map[rig.ItemID]machine.BayID{}
	for _, l := range fit.Bays(&r) {
		out[l.Item] = l.Bay
	}
	return out
}

// next is the first step that is not done.
func (h *hands) next(j *job.Job) *workorder.Step {
	order := j.Order()
	for i := range order {
		if !done(j, order[i].ID) {
			return &order[i]
		}
	}
	return nil
}

func done(j *job.Job, step string) bool {
	for _, t := range j.Done {
		if t.Step == step && !t.Over {
			return true
		}
	}
	return false
}

func (h *hands) do(j *job.Job, s *workorder.Step) {
	h.Helper()
	if s.Choice.Setting != "" {
		h.set[string(s.Choice.Setting)] = s.Choice.Value
	}
	of := workorder.Undoes(s.ID)
	if s.Item == "" || s.Test != "" {
		return
	}
	h.log += s.ID + "\n"
	lead := strings.Contains(s.ID, "/lead-")
	switch {
	case s.Phase == workorder.TakeOut:
		at, again := h.fitted[of]
		if !again {
			at = seatIn(&j.Found, s.Socket)
		}
		if led := h.now[s.Item]; h.led[s.Item] && len(s.How) > 0 && strings.Contains(s.How[len(s.How)-1].String(), string(led.socket)) {
			at = led // the step says where the lead is now
		}
		if _, plugged := h.now[s.Item]; !plugged && !lead && h.bays[s.Item] != "" {
			at = seat{} // its lead was pulled before, and it lies in its bay
		}
		if h.now[s.Item] != at {
			h.Fatalf("seed %d: %s is not in %s any more, but in %v:\n%s", h.seed, s.Item, s.Socket, h.now[s.Item], h.log)
		}
		if delete(h.now, s.Item); !lead {
			delete(h.bays, s.Item)
		}
	case s.Phase == workorder.Fit:
		for id, bay := range h.bays {
			if s.Bay != "" && bay == s.Bay && id != s.Item {
				h.Fatalf("seed %d: %s lies in bay %s still:\n%s", h.seed, id, s.Bay, h.log)
			}
		}
		if s.Bay != "" && !lead {
			h.bays[s.Item] = s.Bay
		}
		at := seatIn(&j.Planned, s.Socket)
		if of != "" { // where the piece lies in the plan, be it by a lead
			at = seatIn(&j.Planned, j.Planned.Where(s.Item))
		}
		for id, there := range h.now {
			if there == at && id != s.Item {
				h.Fatalf("seed %d: %s lies in %s still:\n%s", h.seed, id, s.Socket, h.log)
			}
		}
		if _, in := h.now[s.Item]; in && !lead {
			h.Fatalf("seed %d: %s lies in %v already:\n%s", h.seed, s.Item, h.now[s.Item], h.log)
		}
		h.now[s.Item], h.fitted[s.ID], h.led[s.Item] = at, at, lead
	}
}
