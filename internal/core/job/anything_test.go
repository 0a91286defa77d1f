package job_test

import (
	"encoding/json"
	"fmt"
	"math/rand"
	"strings"
	"testing"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/power"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/volume"
	"deepbay/internal/coretest/jobs"
	"deepbay/internal/format"
)

// TestRandomAnything does anything whatever to random jobs, sense or nonsense: nothing panics,
// what is taken leaves a job that its own format reads back and whose every stage can be
// looked at, and what is refused says why.
func TestRandomAnything(t *testing.T) {
	taken := map[job.Do]int{}
	for seed := range int64(max(100, *jobsTried/10)) {
		rng := rand.New(rand.NewSource(seed))
		j, demo := jobs.Random(rng), seed%2 == 0
		if demo { // half of them are whole files
			j = load(t, demoJobs[rng.Intn(len(demoJobs))])
		}
		for n := range 48 {
			c := anything(rng, &j)
			next, done, err := job.Apply(j, c, stamp)
			if err != nil {
				if say.About(say.Plain, &j).Err(err).Error() == "" {
					t.Fatalf("seed %d: %+v is refused without a word", seed, c)
				}
				continue
			}
			taken[c.Do]++
			if err := next.Validate().Err(); err != nil {
				t.Fatalf("seed %d, change %d: %+v leaves %v", seed, n, c, err)
			}
			if _, err := format.WriteDeed(done, next.Name); err != nil {
				t.Fatalf("seed %d: %+v: %v", seed, c, err)
			}
			if say.About(say.Plain, &next).Event(done, nil).String() == "" {
				t.Fatalf("seed %d: %+v is done without a word", seed, c)
			}
			j = next
		}
		b, err := json.Marshal(j)
		if err != nil {
			t.Fatal(err)
		}
		back := j
		if demo {
			if back, err = format.Job(b); err != nil {
				t.Fatalf("seed %d: its own format does not read it: %v", seed, err)
			}
		}
		for n := range len(j.Later) + 1 {
			v, ok := job.LookAt(back, n)
			if !ok {
				t.Fatalf("seed %d: no stage %d", seed, n)
			}
			say.Look(say.Plain, &v)
			d := v.Job.Diagnosis()
			say.About(say.Plain, &v.Job).Trouble(&d)
		}
	}
	for _, do := range []job.Do{job.DoTick, job.DoLeaveOut, job.DoTest, job.DoConfirm, job.DoAside, job.DoAddStage, job.DoNextStage, job.DoRole, job.DoArray, job.DoAccept, job.DoFresh, job.DoSchedule, job.DoReopen, job.DoIncident, job.DoSettle, job.DoDiffers, job.DoToSheet, job.DoPractice, job.DoStuck, job.DoUnstuck, job.DoCheck, job.DoUncheck, job.DoCure, job.DoUncure, job.DoMeasure, job.DoUnmeasure, job.DoLayout, job.DoNoLayout, job.DoWipe, job.DoTransfer, job.DoNoTransfer} {
		if taken[do] == 0 {
			t.Errorf("%s was never taken", do)
		}
	}
}

var demoJobs = []string{"bathymetry-render", "buoy-tracker-desktop", "multibeam-workstation", "rain-gauge-logger", "chart-table-workstation", "dive-camera-ingest", "echo-sounding-tower", "lock-gate-recorder", "side-scan-archive", "tide-gauge-mini-pc", "wave-model-desktop", "weather-mast-logger"}

// anything is a change with fields that are mostly of the job.
func anything(rng *rand.Rand, j *job.Job) job.Change {
	all := job.Do("").Values()
	c := job.Change{Do: job.Do(all[rng.Intn(len(all))]), Text: "8GB", Value: "yes"}
	if j.Closed != nil {
		c.Do = job.DoReopen
	}
	switch chance := rng.Intn(8); {
	case j.Closed != nil:
	case chance == 5 && rng.Intn(3) == 0:
		c.Do = job.DoClose
	case len(j.Layouts) > 0 && chance < 4:
		c.Do = job.DoNoLayout
	case chance < 3 && len(j.Blanks()) > 0:
		c.Do = job.DoLayout
	case chance == 4:
		c.Do = job.DoWipe
	case chance == 6 && rng.Intn(3) == 0:
		c.Do = []job.Do{job.DoTransfer, job.DoTransfer, job.DoProve, job.DoNoTransfer}[rng.Intn(4)]
	}
	pick := func(ids []rig.ItemID) rig.ItemID {
		if len(ids) == 0 {
			return "nobody"
		}
		return ids[rng.Intn(len(ids))]
	}
	var items []rig.ItemID
	for _, it := range j.Items {
		items = append(items, it.ID)
	}
	c.Item = pick(items)
	c.Socket = rig.On(j.Sheet.Sockets[rng.Intn(len(j.Sheet.Sockets))].ID)
	if rng.Intn(6) == 0 {
		c.Socket = c.Socket.Position(1)
	}
	if rng.Intn(4) == 0 {
		c.Stage = rng.Intn(3) + 1
	}
	if rng.Intn(4) == 0 {
		c.In = job.InFound
	}
	c.Sure = rng.Intn(2) == 0
	if rng.Intn(3) == 0 { // longer than what a job keeps of some texts
		c.Text, c.Value = strings.Repeat("é", 50<<rng.Intn(6)), strings.Repeat("é", 50<<rng.Intn(3))
	}
	switch c.Do {
	case job.DoTick, job.DoUntick, job.DoLeaveOut, job.DoTest:
		for _, s := range j.Order() {
			if rng.Intn(3) > 0 && (c.Do == job.DoTest) == (s.Test != "") {
				c.Steps = append(c.Steps, s.ID)
			}
		}
		if c.Do == job.DoTest && len(c.Steps) > 1 {
			c.Steps = c.Steps[:1]
		}
		for _, s := range j.Order() {
			c.Text += " " + strings.Join(s.Confirm, " ")
		}
		if c.Do == job.DoTick && rng.Intn(3) > 0 {
			c.Text = strings.TrimSpace(c.Text)
		}
		c.Result = &job.TestRun{State: job.TestState(job.TestRuns.Values()[rng.Intn(3)]), Passes: rng.Intn(2), Text: "12"}
	case job.DoConfirm, job.DoForget, job.DoRead, job.DoExplain:
		r := j.PlannedRig()
		if c.In == job.InFound {
			r = j.FoundRig()
		}
		a := fit.Resolve(&r)
		for _, l := range power.Compare(&r, &a, power.Seen{}) {
			if c.Line = l.ID; c.Do == job.DoConfirm && l.Exact {
				c.Lines = append(c.Lines, l.ID)
			} else if rng.Intn(5) == 0 {
				break
			}
		}
	case job.DoArray:
		c.Array = &rig.DriveArray{ID: rig.ArrayID(fmt.Sprint("a", rng.Intn(2))), Level: rig.Level([]string{"0", "1"}[rng.Intn(2)])}
		for _, it := range j.Items {
			if j.Part(it.Part).Drive != nil && rng.Intn(3) > 0 {
				c.Array.Members = append(c.Array.Members, it.ID)
			}
		}
	case job.DoMeasure:
		for range rng.Intn(3) {
			s := measure.Series{ID: 1, What: measure.What(measure.What("").Values()[rng.Intn(10)]), When: measure.When(measure.When("").Values()[rng.Intn(2)]), Runs: []float64{1 + 100*rng.Float64()}, Of: "tides"}
			if rng.Intn(2) == 0 && s.What.Rate() {
				s.Item, s.Depth, s.BlockBytes = c.Item, 1, 4096
			}
			c.Measured = append(c.Measured, s)
		}
	case job.DoUnmeasure:
		c.Value = fmt.Sprint(1 + rng.Intn(3))
	case job.DoCorrect:
		c.Holds, c.New = rig.Content(rig.Content("").Values()[rng.Intn(3)]), rng.Intn(2) == 0
	case job.DoLayout:
		for _, l := range volume.Suggest(j.Blanks(), []volume.FileSystem{volume.NTFS, volume.XFS}[rng.Intn(2)], j.Layouts, nil) {
			if c.Layout == nil || rng.Intn(2) == 0 {
				c.Layout = &l
			}
		}
	case job.DoWipe, job.DoUnwipe:
		c.Value, c.Sure = volume.Wipe("").Values()[rng.Intn(3)], true
		if it := j.Item(c.Item); it != nil {
			c.Text = it.Serial
		}
	case job.DoTransfer:
		c.Transfer = &volume.Transfer{ID: 1, How: volume.TransferHow(volume.TransferHow("").Values()[rng.Intn(3)]), From: pick(items), To: pick(items)}
		if b := j.Blanks(); len(b) > 0 {
			c.Transfer.To = b[rng.Intn(len(b))].Item
		}
		for _, it := range j.Items {
			if j.Part(it.Part).Drive != nil && it.ID != c.Transfer.To && rng.Intn(2) == 0 {
				c.Transfer.From = it.ID
			}
		}
	case job.DoNoTransfer, job.DoProve:
		c.Value, c.Proof = fmt.Sprint(1+rng.Intn(2)), &volume.Proof{Files: 1, Bytes: 1}
	case job.DoNoLayout:
		for _, l := range j.Layouts {
			c.Value = string(l.Item)
		}
	case job.DoRole:
		c.Value = job.Role("").Values()[rng.Intn(6)]
	case job.DoDropStage, job.DoNameStage:
		c.Value = fmt.Sprint(rng.Intn(3))
	case job.DoWish:
		c.Wish = &rig.Wish{Starts: rig.Start{How: rig.StartHow(rig.StartHow("").Values()[rng.Intn(4)]), Item: c.Item}, Tests: []rig.Test{rig.MemoryTest, rig.LoadTest, rig.SelfTest}[:rng.Intn(4)]}
	case job.DoSet:
		if len(j.Sheet.Settings) > 0 {
			s := j.Sheet.Settings[rng.Intn(len(j.Sheet.Settings))]
			c.Setting, c.Value = s.ID, s.Options[rng.Intn(len(s.Options))].Value
		}
	}
	number := fmt.Sprint(1 + rng.Intn(3))
	if len(j.Later) > 0 && rng.Intn(10) == 0 {
		c.Do = job.DoNextStage
	}
	if n := len(j.Cures); n > 0 && rng.Intn(4) == 0 {
		c.Do, number = job.DoUncure, fmt.Sprint(j.Cures[n-1].ID)
	}
	if n := len(j.Differs); n > 0 && !j.Differs[n-1].Taken && rng.Intn(3) == 0 {
		c.Do, number = job.DoToSheet, fmt.Sprint(n)
	}
	switch c.Do {
	case job.DoIncident:
		c.Incident = &job.Incident{Kind: job.IncidentKind(job.IncidentKind("").Values()[rng.Intn(3)]), Count: rng.Intn(3)}
		if rng.Intn(2) == 0 {
			c.Incident.Screw = &layer.Fastener{Count: 2, Thread: layer.M3, Length: 6}
		}
	case job.DoSettle:
		c.Value, c.Incident = number, &job.Incident{Ended: job.Ended(job.Ended("").Values()[rng.Intn(3)])}
	case job.DoToSheet, job.DoUnstuck, job.DoUncure:
		c.Value = number
	case job.DoCheck:
		looks := fault.Looks()
		l := looks[rng.Intn(len(looks))]
		c.Check = &fault.Answered{Check: fault.Inspection{Look: l, At: c.Socket}, Is: l.Outcomes()[rng.Intn(len(l.Outcomes()))]}
	case job.DoUncheck:
		if len(j.Checked) > 0 {
			c.Value = j.Checked[0].Check.String()
		}
	case job.DoCure:
		if all := j.Case().Faults(); rng.Intn(5) > 0 && len(all) > 0 {
			c.Value = all[rng.Intn(len(all))].String()
		}
	case job.DoDiffers:
		c.Differs = &job.Difference{Text: "eight screws", Gone: rng.Intn(3) == 0, Layer: "lid"}
		if n := len(j.Sheet.Layers); n > 0 {
			l := j.Sheet.Layers[rng.Intn(n)].Clone()
			if c.Differs.Layer = l.ID; rng.Intn(2) == 0 && !c.Differs.Gone {
				l.Minutes++
				c.Differs.Is = &l
			}
		}
	case job.DoPractice:
		rows := practice.Rows()
		r := rows[rng.Intn(len(rows))]
		c.Practice = practice.Practice{{Matter: r.Matter, School: r.Schools[rng.Intn(len(r.Schools))]}}
	case job.DoStuck:
		c.Stuck = &job.Stuck{Item: c.Item, Socket: c.Socket}
		if list := append(append([]rig.Placement{}, j.Planned.Placements...), j.Found.Placements...); len(list) > 0 && rng.Intn(6) > 0 {
			p := list[rng.Intn(len(list))]
			c.Stuck.Item, c.Stuck.Socket = p.Item, p.Socket
		}
		if n := len(j.Sheet.Layers); n > 0 && rng.Intn(2) == 0 {
			c.Stuck.Layer = j.Sheet.Layers[rng.Intn(n)].ID
		}
	}
	if c.Do == job.DoSchedule {
		c.Text = []string{"", "2026-11-30", c.Text}[len(c.Text)%3]
	}
	return c
}
