package job_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/workorder"
)

// TestCure looks for a fault in every deep machine of the demo shop, from the first start to the
// cure: checks go into the journal in words, the cure's steps stand before the machine is closed,
// safety and all, leave what hands did alone, and once they are done what differed is read
// again.
func TestCure(t *testing.T) {
	tried := 0
	for _, name := range demoJobs {
		b := &bench{t, load(t, name)}
		if name == "echo-sounding-tower" {
			b = ready(t)
		}
		order := b.job.Order()
		if len(order) == 0 || b.job.Closed != nil || !slices.ContainsFunc(order, func(s workorder.Step) bool { return s.Phase == workorder.Open }) {
			continue
		}
		if _, _, err := job.Apply(b.job, carryOut(order[0]), stamp); err != nil {
			continue // something is to be answered first
		}
		tried++
		b.carry()
		b.job.Seen, b.job.Explained = nil, nil // whatever was read before
		c := b.job.Case()
		var hidden fault.Fault
		for _, f := range c.Faults() {
			if f.Kind == fault.HalfSeated || f.Kind == fault.M2NotSeated {
				hidden = f
			}
		}
		w := c.World([]fault.Fault{hidden}, nil)
		done := len(b.job.Done)
		read := func() {
			t.Helper()
			for _, l := range job.Look(b.job).Lines {
				r, ok := w.Read(l.ID)
				switch {
				case !ok || l.Verdict != power.NotLooked:
				case w.Differs(l.ID) && r.Absent:
					b.do(job.Change{Do: job.DoRead, Line: l.ID, Text: "not there"})
				case w.Differs(l.ID):
					b.do(job.Change{Do: job.DoRead, Line: l.ID, Text: say.English(w.Rig()).Fact(power.Shown(w.Rig(), r)).String()})
				case l.Exact:
					b.do(job.Change{Do: job.DoConfirm, Line: l.ID})
				}
			}
		}
		read()
		var d fault.Diagnosis
		for range 20 {
			if d = b.job.Diagnosis(); d.Certain {
				break
			}
			if d.Next == nil {
				t.Fatalf("%s: %v: nothing tells %v apart: %+v", name, hidden, d.Leaders, b.job.Seen)
			}
			if d.Next.Check.Look == fault.ReadLine {
				b.do(job.Change{Do: job.DoConfirm, Line: d.Next.Check.Line})
				continue
			}
			b.do(job.Change{Do: job.DoCheck, Check: &fault.Answered{Check: d.Next.Check, Is: w.Check(d.Next.Check)}})
		}
		if !d.Certain || d.Leaders[0].Faults[0] != hidden {
			t.Fatalf("%s: %v was found as %v: %v %+v", name, hidden, d.Leaders, b.job.Checked, b.job.Seen)
		}
		b.do(job.Change{Do: job.DoCure, Value: hidden.String()})
		v := job.Look(b.job)
		var mend []workorder.Step
		for i, s := range v.Order {
			if n, _ := workorder.Mends(s.ID); n == 1 {
				mend = append(mend, s)
			} else if s.Phase == workorder.Close && len(mend) == 0 {
				t.Errorf("%s: closed at step %d, before the cure", name, i)
			}
		}
		has := func(part string) bool {
			return slices.ContainsFunc(mend, func(s workorder.Step) bool { return strings.Contains(s.ID, part) })
		}
		if !has("/power-down/") || !has("/open/strap") || !has("/cure") || !has("/power-on/start") || len(b.job.Done) < done {
			t.Errorf("%s: the cure's steps are %v, and %d of %d ticks are left", name, mend, len(b.job.Done), done)
		}
		for _, s := range mend {
			b.do(carryOut(s))
		}
		v = job.Look(b.job)
		if b.job.Cures[0].Ended.IsZero() || len(b.job.Checked) > 0 {
			t.Errorf("%s: the cure goes on: %+v, %v", name, b.job.Cures, b.job.Checked)
		}
		for _, l := range v.Lines {
			if l.Verdict == power.Differs {
				t.Errorf("%s: %s still counts, which was read before the cure", name, l.ID)
			}
		}
		w = c.World(nil, nil)
		read()
		if d := b.job.Diagnosis(); len(d.Differs) > 0 {
			t.Errorf("%s: after the cure %v differ", name, d.Differs)
		}
	}
	if tried < 4 {
		t.Errorf("%d machines could be begun", tried)
	}
}

// TestChecksRefused refuses checks and cures that are none, and says where.
func TestChecksRefused(t *testing.T) {
	b := ready(t)
	for _, c := range []struct {
		change job.Change
		want   string
	}{
		{job.Change{Do: job.DoCheck}, "/check: which check"},
		{job.Change{Do: job.DoCheck, Check: &fault.Answered{Check: fault.ParseCheck("gaze@A1"), Is: fault.Same}}, `/check/check: there is no check "gaze@A1"`},
		{job.Change{Do: job.DoCheck, Check: &fault.Answered{Check: fault.ParseCheck("seat@A1"), Is: fault.Dirty}}, `/check/is: "dirty" is nothing that this check shows`},
		{job.Change{Do: job.DoCheck, Check: &fault.Answered{Check: fault.ParseCheck("seat@Z9"), Is: fault.Home}}, "/check/check: no socket is named"},
		{job.Change{Do: job.DoUncheck, Value: "seat@A1"}, `/value: "seat@A1" was not checked`},
		{job.Change{Do: job.DoCure, Value: "bad-luck"}, `/value: "bad-luck" cannot be wrong`},
		{job.Change{Do: job.DoUncure, Value: "7"}, "/value: "},
	} {
		if _, _, err := job.Apply(b.job, c.change, stamp); err == nil || !strings.Contains(say.About(say.Plain, &b.job).Err(err).Error(), c.want) {
			t.Errorf("%+v: %v", c.change, err)
		}
	}
}

// TestStrangeCures refuses a job file that names a fault or check that there is not, with its
// place.
func TestStrangeCures(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	j.Cures = []job.Mending{{ID: 1, Fault: fault.Parse("supply-off")}, {ID: 2, Fault: fault.Parse("bad-luck@A1")}}
	j.Checked = []job.Checked{{Answered: fault.Answered{Check: fault.ParseCheck("gaze@A1"), Is: fault.Same}}}
	err := j.Validate().Err()
	for _, want := range []string{`/cures/1/fault: "bad-luck@A1" cannot be wrong`, `/checked/0/check: there is no check "gaze@A1"`} {
		if err == nil || !strings.Contains(say.Plain.Err(err).Error(), want) {
			t.Errorf("%v does not say %s", err, want)
		}
	}
}

// TestAfterLoad has links read once more after a test at work, and asks then for temperatures and
// for what is counted.
func TestAfterLoad(t *testing.T) {
	b := ready(t)
	b.do(job.Change{Do: job.DoWish, Wish: &rig.Wish{Tests: []rig.Test{rig.LoadTest}}})
	asked := func(kind power.LineKind) (n int) {
		for _, l := range job.Look(b.job).Lines {
			if l.ID.Kind == kind && l.Verdict == power.NotLooked {
				n++
			}
		}
		return n
	}
	for _, s := range b.job.Order() {
		if s.Phase != workorder.Close && s.Test != rig.LoadTest {
			b.do(carryOut(s))
		}
	}
	b.confirm()
	if asked(power.LinkOf)+asked(power.Counts) > 0 {
		t.Errorf("asked before the test: %d, %d", asked(power.LinkOf), asked(power.Counts))
	}
	for _, s := range b.job.Order() {
		if s.Test == rig.LoadTest {
			if s.Runs < 10 {
				t.Errorf("it runs for %v", s.Runs)
			}
			b.do(carryOut(s))
		}
	}
	if asked(power.LinkOf) == 0 || asked(power.Heat) == 0 || asked(power.Counts) == 0 {
		t.Errorf("asked after it: %d links, %d temperatures, %d counts", asked(power.LinkOf), asked(power.Heat), asked(power.Counts))
	}
}
