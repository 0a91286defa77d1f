package job_test

import (
	"maps"
	"math/rand"
	"slices"
	"strconv"
	"strings"
	"testing"

	"deepbay/internal/core/access"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
	"deepbay/internal/coretest/jobs"
)

// TestRounds does some of an order, changes the plan, goes on, and again: whatever was done
// in between, nothing is taken from where it is not, nothing goes where something lies, and
// when all steps are done all lies and is set as planned.
func TestRounds(t *testing.T) {
	back, ended, opened := 0, 0, 0
	for seed := range int64(max(25, *jobsTried/40)) {
		rng := rand.New(rand.NewSource(seed))
		b := bench{t, jobs.Random(rng)}
		b.job.Wish.Starts.How = rig.StartNothing
		h := handsAt(t, seed, &b.job)
		for round := range 4 {
			for range 12 { // until nothing stops the plan
				if a := b.job.Check(); !a.Stops() {
					break
				}
				b.shuffle(rng)
			}
			if a := b.job.Check(); a.Stops() {
				continue
			}
			n := rng.Intn(12)
			if round == 3 {
				n = 1000
			}
			back += strings.Count(strings.Join(h.goOn(&b, n), " "), "back/")
			if round < 3 {
				b.shuffle(rng)
				continue
			}
			ended++
			opened += h.opened
			h.asPlanned(&b.job)
		}
	}
	if n := *jobsTried / 40; n >= 50 && (back < n/10 || ended < n/8 || opened < n/5) {
		t.Errorf("only %d steps that take something back, and %d layers, in %d jobs", back, opened, ended)
	}
}

// forget lets a layer and its leads lie: it does not go back.
func (h *hands) forget(id layer.ID) {
	maps.DeleteFunc(h.off, func(key string, _ bool) bool {
		return key == "open/"+string(id) || strings.HasPrefix(key, "open/"+string(id)+"/")
	})
}

// asPlanned holds, when all steps are done, that all lies and is set as planned, and nothing is off.
func (h *hands) asPlanned(j *job.Job) {
	h.Helper()
	for i := range j.Sheet.Layers { // a board's heatsink that a drive with its own replaces
		if l := &j.Sheet.Layers[i]; l.Kind == layer.Heatsink && !slices.ContainsFunc(j.Order(), func(s workorder.Step) bool { return s.Layer == l.ID && s.Shuts }) {
			h.forget(l.ID)
		}
	}
	if len(h.off) > 0 {
		h.Fatalf("seed %d: all is done, and %v is off:\n%s", h.seed, h.off, h.log)
	}
	if want := seats(&j.Planned); !maps.Equal(h.now, want) {
		h.Fatalf("seed %d: all lies as %v\nand is planned as %v\n%s", h.seed, h.now, want, h.log)
	}
	if want := bays(j.PlannedRig()); !maps.Equal(h.bays, want) {
		h.Fatalf("seed %d: drives lie in bays %v\nand are planned in %v\n%s", h.seed, h.bays, want, h.log)
	}
	r := j.PlannedRig()
	for id, v := range h.set {
		for i := range r.Sheet.Settings {
			if st := &r.Sheet.Settings[i]; string(st.ID) == id && r.Choice(st) != v {
				h.Fatalf("seed %d: %s is set to %s, planned %s\n%s", h.seed, id, v, r.Choice(st), h.log)
			}
		}
	}
}

// shuffle changes the plan, and asks for the opening anew as Apply does.
func (b *bench) shuffle(rng *rand.Rand) {
	old := b.job
	old.Done = slices.Clone(old.Done)
	jobs.Shuffle(rng, &b.job)
	job.Renew(&old, &b.job)
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
	off    map[string]bool              // layers that are off, and leads
	opened int
	log    string
}

// handsAt are at a machine as it was found.
func handsAt(t *testing.T, seed int64, j *job.Job) hands {
	return hands{T: t, seed: seed, now: seats(&j.Found), fitted: map[string]seat{}, led: map[rig.ItemID]bool{}, set: map[string]string{}, off: map[string]bool{}, bays: bays(j.FoundRig())}
}

// goOn carries out so many steps more, as far as there are any and the plan is not stopped, and tells
// which.
func (h *hands) goOn(b *bench, steps int) (done []string) {
	h.Helper()
	for range steps {
		s := h.next(&b.job)
		if s == nil || stops(&b.job) {
			break
		}
		h.do(&b.job, s)
		b.do(carryOut(*s))
		done = append(done, s.ID)
	}
	return done
}

// interrupted carries out an order with something coming in between so many times, after fewer than so
// many steps each, and reports whether it came to its end: then all lies as planned.
func (h *hands) interrupted(b *bench, rng *rand.Rand, times, within int, by func()) bool {
	h.Helper()
	for range times {
		h.goOn(b, rng.Intn(within))
		by()
	}
	h.goOn(b, 1000)
	if stops(&b.job) || h.next(&b.job) != nil {
		return false
	}
	h.asPlanned(&b.job)
	return true
}

// layer takes a layer off or puts it back, or does so with a lead of it: never twice.
func (h *hands) layer(s *workorder.Step) {
	h.Helper()
	h.log += s.ID + "\n"
	of := workorder.Opened(s.ID)
	if off := h.off[of]; of != "" && !off || of == "" && h.off[s.ID] {
		h.Fatalf("seed %d: %s, and it is so already:\n%s", h.seed, s.ID, h.log)
	}
	if of != "" {
		delete(h.off, of)
		return
	}
	h.off[s.ID] = true
	h.opened++
}

// reaches fails where a layer that hides the place from everywhere is on.
func (h *hands) reaches(j *job.Job, s *workorder.Step) {
	h.Helper()
	for i := range j.Sheet.Layers {
		l := &j.Sheet.Layers[i]
		hides := l.All || slices.Contains(l.Hides, layer.Named(s.Socket.Top())) && s.Phase == workorder.Fit
		if l.Side == "" && hides && l.Kind != layer.Heatsink && !h.off["open/"+string(l.ID)] {
			h.Fatalf("seed %d: %s, and the %s is on:\n%s", h.seed, s.ID, l.Name, h.log)
		}
	}
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
	if s.Layer != "" {
		h.layer(s)
		return
	}
	of := workorder.Undoes(s.ID)
	if s.Item == "" || s.Test != "" {
		return
	}
	if s.Inside && (s.Phase == workorder.TakeOut || s.Phase == workorder.Fit) {
		h.reaches(j, s)
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
		maps.DeleteFunc(h.off, func(step string, _ bool) bool { return strings.Contains(step, "/"+string(s.Item)+"-") }) // its leads are off for good
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

// TestDoesNotGo says of a piece at hand that it does not go in, or not come out, takes the plan
// that is found then, and goes on: nothing is planned where it was tried, what hands fitted is left
// where there is a plan with it, and when all steps are done all lies as planned and nothing is off.
func TestDoesNotGo(t *testing.T) {
	replanned, held, ended := 0, 0, 0
	for seed := range int64(max(60, *jobsTried/10)) {
		rng := rand.New(rand.NewSource(seed))
		b := bench{t, load(t, deep[rng.Intn(len(deep))])}
		if seed%3 == 0 {
			b.job = jobs.Random(rng)
			b.job.Wish.Starts.How = rig.StartNothing
		}
		if _, blocks := b.job.Afterwards(); len(blocks) > 0 || stops(&b.job) {
			continue
		}
		h := handsAt(t, seed, &b.job)
		if h.interrupted(&b, rng, 2, 25, func() {
			var open []workorder.Step
			for _, s := range b.job.Order() {
				if workorder.Opens(s.ID) && s.Lead == 0 && s.Layer != "" && !b.job.Did(s.ID) && access.Item(s.Layer) == "" {
					open = append(open, s)
				}
				if (s.Phase == workorder.Fit || s.Phase == workorder.TakeOut) && s.Layer == "" && s.Item != "" && !b.job.Did(s.ID) &&
					(b.job.Planned.Where(s.Item) == s.Socket || b.job.Found.Where(s.Item) == s.Socket) && !s.Socket.IsZero() {
					open = append(open, s)
				}
			}
			if len(open) == 0 {
				return
			}
			s := open[rng.Intn(len(open))]
			b.do(job.Change{Do: job.DoStuck, Stuck: &job.Stuck{Step: s.ID, Layer: s.Layer, Item: s.Item, Socket: s.Socket}})
			if _, blocks := b.job.Afterwards(); s.Layer != "" && len(blocks) == 0 {
				return // there is another way
			}
			a, err := b.job.AskPlan(t.Context(), job.PlanQuestion{Fitted: true})
			if err != nil {
				t.Fatal(err)
			}
			if a.Best == nil { // the honest answer; the work goes on when it goes after all
				held++
				b.do(job.Change{Do: job.DoUnstuck, Value: strconv.Itoa(b.job.Stuck[len(b.job.Stuck)-1].ID)})
				return
			}
			replanned++
			at, was := rig.PlaceOf(a.Best.Placements, s.Item), b.job.Found.Where(s.Item)
			if s.Layer == "" && (at == s.Socket) != (was == s.Socket) {
				t.Fatalf("seed %d: %s does not go at %s, was in %q and is planned in %q", seed, s.Item, s.Socket, was, at)
			}
			b.do(job.Change{Do: job.DoMoves, Moves: a.Best.Moves})
			if _, blocks := b.job.Afterwards(); len(blocks) > 0 {
				t.Fatalf("seed %d: %s does not go, and the plan found for that is held: %+v", seed, s.ID, blocks)
			}
		}) {
			ended++
		}
	}
	t.Logf("%d planned anew, %d held, %d carried to the end", replanned, held, ended)
	if replanned < 5 || held < 5 || ended < 15 {
		t.Errorf("%d planned anew, %d held, %d carried to the end: it shows little", replanned, held, ended)
	}
}

func stops(j *job.Job) bool {
	a := j.Check()
	return a.Stops()
}

// TestDiffersAnyway notes at any moment that the machine is other than its sheet, and has the sheet
// changed: a layer is not there, is held by more, lies under another or over other sockets, or there is one
// more. The rest of the order is one that hands can carry out.
func TestDiffersAnyway(t *testing.T) {
	taught, ended := 0, 0
	for seed := range int64(max(60, *jobsTried/10)) {
		rng := rand.New(rand.NewSource(seed))
		b := bench{t, load(t, deep[rng.Intn(len(deep))])}
		h := handsAt(t, seed, &b.job)
		if h.interrupted(&b, rng, 3, 16, func() {
			d := otherwise(rng, &b.job)
			next, _, err := job.Apply(b.job, job.Change{Do: job.DoDiffers, Differs: &d}, stamp)
			if err != nil {
				return // it makes no sheet
			}
			before := b.job
			b.job = next
			b.do(job.Change{Do: job.DoToSheet, Value: strconv.Itoa(next.Differs[len(next.Differs)-1].ID)})
			if _, blocks := b.job.Afterwards(); len(blocks) > 0 {
				b.job = before // the order says that it cannot be done so
				return
			}
			taught++
			if d.Gone {
				h.forget(d.Layer)
			}
		}) {
			ended++
		}
	}
	t.Logf("%d differences, %d carried to the end", taught, ended)
	if taught < 40 || ended < 30 {
		t.Errorf("%d differences, %d carried to the end: it shows little", taught, ended)
	}
}

// otherwise is a difference between a machine and its sheet.
func otherwise(rng *rand.Rand, j *job.Job) job.Difference {
	l := j.Sheet.Layers[rng.Intn(len(j.Sheet.Layers))].Clone()
	switch rng.Intn(5) {
	case 0:
		return job.Difference{Layer: l.ID, Gone: true}
	case 1:
		l.Fasteners = append(l.Fasteners, layer.Fastener{Count: 1 + rng.Intn(3), Bit: layer.PH1})
	case 2:
		l.Leads = append(l.Leads, layer.Lead{For: "another light", Plug: layer.Latched})
	case 3:
		l.Hides = append(l.Hides, layer.Named(j.Sheet.Sockets[rng.Intn(len(j.Sheet.Sockets))].ID))
		if k := j.Sheet.Layers[rng.Intn(len(j.Sheet.Layers))].ID; k != l.ID {
			l.After = append(l.After, k)
		}
	default:
		l = layer.Layer{ID: layer.ID("more-" + strconv.Itoa(rng.Intn(1000))), Name: "one more", Kind: layer.Bracket, After: []layer.ID{l.ID}, Hides: []layer.Named{layer.Named(j.Sheet.Sockets[rng.Intn(len(j.Sheet.Sockets))].ID)}}
		return job.Difference{Is: &l}
	}
	return job.Difference{Layer: l.ID, Is: &l}
}
