package job_test

import (
	"flag"
	"maps"
	"math/rand"
	"reflect"
	"runtime/debug"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/coretest/jobs"
	"deepbay/internal/format"
)

// jobsTried is how many random jobs are carried through; make soak asks for more.
var jobsTried = flag.Int("jobs", 150, "random jobs in TestRandomJobs")

// TestRandomJobs carries random jobs through everything the core says about one:
// nothing panics, and the order can be walked as it is written.
func TestRandomJobs(t *testing.T) {
	count := *jobsTried
	steps := 0
	for seed := range int64(count) {
		j := jobs.Random(rand.New(rand.NewSource(seed)))
		if err := j.Validate().Err(); err != nil {
			t.Fatalf("seed %d: %v", seed, err)
		}
		v := look(t, seed, j)
		if stand := job.Stand(j); !reflect.DeepEqual(stand, v.Status) {
			t.Errorf("seed %d: stands at %+v, and its view says %+v", seed, stand, v.Status)
		}
		walk(t, seed, &v)
		deeds(t, seed, &v)
		apart(t, seed, &v)
		if seed%*planEvery == 0 {
			planned(t, seed, j)
		}
		steps += len(v.Order)
	}
	if steps < 10*count {
		t.Errorf("only %d steps in %d jobs", steps, count)
	}
}

func look(t *testing.T, seed int64, j job.Job) job.View {
	t.Helper()
	defer func() {
		if p := recover(); p != nil {
			t.Fatalf("seed %d: %v\n%s", seed, p, debug.Stack())
		}
	}()
	return job.Look(j)
}

// seat is what a piece lies on: the board, or another piece, on the bench or in the machine.
type seat struct {
	on     rig.ItemID
	socket machine.SocketID
	pos    int
}

func seats(s *rig.Setup) map[rig.ItemID]seat {
	out := map[rig.ItemID]seat{}
	for _, p := range s.Placements {
		out[p.Item] = seatIn(s, p.Socket)
	}
	return out
}

func seatIn(s *rig.Setup, at rig.Path) seat {
	if !at.Nested() {
		return seat{socket: at.Top()}
	}
	return seat{on: s.In(at.Holder()), pos: at.Last()}
}

// walk carries the order out by hand: nothing is taken from where it is not, nothing
// goes where something lies, and in the end all lies as planned.
func walk(t *testing.T, seed int64, v *job.View) {
	t.Helper()
	now := seats(&v.Job.Found)
	in := func(at seat) rig.ItemID {
		for id, s := range now {
			if s == at {
				return id
			}
		}
		return ""
	}
	ids := ""
	for _, s := range v.Order {
		if s.Item == "" {
			continue
		}
		ids += s.ID + "\n"
		switch {
		case s.Layer != "" && s.Lead > 0:
			continue
		case s.Layer != "" && s.Shuts: // a card that was in the way goes back
			now[s.Item] = seatIn(&v.Job.Planned, s.Socket)
			continue
		case s.Layer != "":
			delete(now, s.Item)
			continue
		}
		switch s.Phase {
		case "take out":
			if now[s.Item] != seatIn(&v.Job.Found, s.Socket) {
				t.Fatalf("seed %d: %s is not in %s any more:\n%s", seed, s.Item, s.Socket, ids)
			}
			delete(now, s.Item)
		case "fit":
			at := seatIn(&v.Job.Planned, s.Socket)
			if there := in(at); there != "" {
				t.Fatalf("seed %d: %s lies in %s still:\n%s", seed, there, s.Socket, ids)
			}
			now[s.Item] = at
		}
	}
	if want := seats(&v.Job.Planned); !maps.Equal(now, want) {
		t.Fatalf("seed %d: all lies as %v\nand is planned as %v\n%s", seed, now, want, ids)
	}
}

// deeds does some of what can be done to a job: what is kept of it in the journal says the
// same when it is read.
func deeds(t *testing.T, seed int64, v *job.View) {
	t.Helper()
	var changes []job.Change
	for i := range v.Order {
		changes = append(changes, job.Change{Do: job.DoTick, Step: v.Order[i].ID, Text: strings.Join(v.Order[i].Confirm, " ")}, job.Change{Do: job.DoUntick, Step: v.Order[i].ID})
	}
	for i := range v.Lines {
		changes = append(changes, job.Change{Do: job.DoConfirm, Line: v.Lines[i].ID}, job.Change{Do: job.DoRead, Line: v.Lines[i].ID, Text: "not there"})
	}
	for _, it := range v.Job.Items {
		changes = append(changes, job.Change{Do: job.DoTakeOut, Item: it.ID}, job.Change{Do: job.DoRemove, Item: it.ID})
	}
	words := say.About(say.Plain, &v.Job)
	for _, c := range changes[:min(len(changes), 12)] {
		_, done, err := job.Apply(v.Job, c, stamp)
		if err != nil {
			continue
		}
		b, err := format.WriteDeed(done, v.Job.Name)
		if err != nil {
			t.Fatalf("seed %d: %+v: %v", seed, c, err)
		}
		d, err := format.ReadDeed(b)
		if err != nil {
			t.Fatalf("seed %d: %s: %v", seed, b, err)
		}
		if was, is := words.Event(done, nil).String(), words.Event(d.Fact, d.Names).String(); was != is {
			t.Fatalf("seed %d: said %q, and read it says %q", seed, was, is)
		}
	}
}

// apart holds the cures of a finding against each other: no two read alike, even where
// all pieces have one name.
func apart(t *testing.T, seed int64, v *job.View) {
	t.Helper()
	j := v.Job
	j.Parts = slices.Clone(j.Parts)
	for i := range j.Parts {
		j.Parts[i].Name = "it"
	}
	words := say.About(say.Plain, &j)
	for _, f := range v.Planned.Findings {
		said := map[string]bool{}
		for _, c := range f.Cures {
			text := words.Fact(c.Says).String()
			if said[text] {
				t.Errorf("seed %d: of %s two cures say %q", seed, f.Code, text)
			}
			said[text] = true
		}
	}
}

// planEvery is how many jobs there are to one whose plan is asked for, too; make soak asks
// for all.
var planEvery = flag.Int64("planevery", 20, "of so many random jobs one is planned")

// planned asks for the best plan of a job: taken as it is said, nothing stops it, its order
// can be walked, and what it hangs on can be asked for.
func planned(t *testing.T, seed int64, j job.Job) {
	t.Helper()
	in, err := j.PlanInput(job.PlanQuestion{})
	if err != nil {
		t.Fatalf("seed %d: %v", seed, err)
	}
	in.Budget = 4000 // most are found by then
	a, err := plan.Ask(t.Context(), in)
	if err != nil {
		t.Fatalf("seed %d: %v", seed, err)
	}
	if a.Proof.Code == plan.Refuted {
		t.Fatalf("seed %d: the best plan does not hold", seed)
	}
	if a.Provided != nil {
		r := j.PlannedRig()
		for _, l := range a.Provided.Look {
			if _, ok := r.HowToAsk(l.Fact); !ok {
				t.Errorf("seed %d: the plan hangs on %+v, which cannot be asked for", seed, l.Fact)
			}
		}
	}
	if a.Best == nil || len(a.Best.Moves) == 0 {
		return
	}
	next, _, err := job.Apply(j, job.Change{Do: job.DoMoves, Moves: a.Best.Moves}, stamp)
	if err != nil {
		t.Fatalf("seed %d: the best plan is refused: %v", seed, say.About(say.Plain, &j).Err(err))
	}
	r := next.PlannedRig()
	if after := fit.Resolve(&r); after.Stops() && r.Piece(after.FirstStop().Item).Part.Fitting == nil { // what lies where nothing of its kind goes is not moved
		t.Errorf("seed %d: the best plan is stopped: %s", seed, say.About(say.Plain, &next).Fact(after.FirstStop().Says))
	}
	v := look(t, seed, next)
	walk(t, seed, &v)
}
