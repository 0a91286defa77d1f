package job_test

import (
	"flag"
	"fmt"
	"math/rand"
	"slices"
	"strings"
	"testing"
	"time"

	"deepbay/demo"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// walks is how many random walks the law of data is tried on; make soak asks for 100,000.
var walks = flag.Int("walks", 2000, "random walks in TestDataLaw")

// dataJobs are the machines of the shop in which drives can be moved, copied and erased.
var dataJobs = []string{"sonar-mosaic-desktop", "hydrophone-listening-desk", "echo-sounding-tower-2025", "echo-sounding-tower", "buoy-tracker-desktop", "multibeam-workstation", "dive-camera-ingest", "weather-mast-logger", "wave-model-desktop", "side-scan-archive"}

// bare is a job of the shop as if the work were still to do, with cards filled in by chance: what
// drives hold, serial numbers that are missing, short or shared.
func bare(rng *rand.Rand, j job.Job) job.Job {
	j.Closed, j.Done, j.Tests, j.Cures, j.Incidents, j.Wiped, j.Transfers, j.Layouts, j.Seen, j.Strange = nil, []job.Tick{}, nil, nil, nil, nil, nil, nil, nil, nil
	j.Arrays, j.Hands, j.Past, j.Later, j.Measured = nil, nil, nil, nil, nil
	j.Explained = []job.Explanation{}
	j.Wish.Starts, j.Wish.SystemBytes, j.Wish.Keep, j.Wish.Tests = rig.Start{}, 0, nil, nil
	j.Items = slices.Clone(j.Items)
	if j.Wish.BackedUp = ""; rng.Intn(2) == 0 {
		j.Wish.BackedUp = "the archive"
	}
	if rng.Intn(6) > 0 { // else nobody said, and the work waits for that
		j.Wish.Starts = rig.Start{How: rig.StartNothing}
	}
	for i := range j.Items {
		it := &j.Items[i]
		if !isDrive(&j, it.ID) {
			continue
		}
		it.Role = ""
		it.Holds = []rig.Content{"", rig.Blank, rig.Data, rig.System}[rng.Intn(4)]
		if it.New && rng.Intn(2) == 0 {
			it.Holds = rig.Blank
		}
		switch rng.Intn(8) {
		case 0:
			it.Serial = ""
		case 1:
			it.Serial = "7A"
		case 2:
			it.Serial = fmt.Sprint("TWIN", rng.Intn(2), "-0001")
		}
	}
	return j
}

// demoBare reads each job of the shop once.
func demoBare(t *testing.T) []job.Job {
	t.Helper()
	var out []job.Job
	for _, name := range dataJobs {
		j, err := demo.Job(name)
		if err != nil {
			t.Fatal(err)
		}
		out = append(out, j)
	}
	return out
}

// TestDataLaw walks at random through all that can be done to a job, sense or nonsense, and lets a
// world of bytes do the same: there is no moment at which what must stay has fewer good copies than the
// table of docs/model.md asks for, nothing is taken for another drive, and no true word is refused.
func TestDataLaw(t *testing.T) {
	all := demoBare(t)
	drawn, taken := map[job.Do]int{}, map[job.Do]int{}
	erased := 0
	for seed := range int64(*walks) {
		rng := rand.New(rand.NewSource(seed))
		j := bare(rng, all[rng.Intn(len(all))])
		if rng.Intn(5) > 0 {
			room(&j)
		}
		w := newWorld(&j)
		var story []string
		var last *job.Change // and the job and the world before it, while it can be undone
		var before job.Job
		var as *world
		for n := range 30 {
			if last != nil && rng.Intn(12) == 0 {
				story = append(story, "undo")
				w.undo(as, last)
				j, last = job.Undone(j, before, job.Stamp{By: "x", At: time.Unix(1e9+int64(n), 0)}), nil
				continue
			}
			c := act(rng, &j)
			drawn[c.Do]++
			by := job.Stamp{By: "x", At: time.Unix(1e9+int64(n), 0)}
			next, _, err := job.Apply(j, c, by)
			if err != nil {
				if why := say.About(say.Plain, &j).Err(err).Error(); c.Do == job.DoCorrect || c.Do == job.DoObserve || c.Do == job.DoSheet {
					for _, code := range []string{"no copy", "one copy", "not proved"} {
						if strings.Contains(why, code) {
							t.Fatalf("seed %d: a statement is refused: %+v: %s", seed, c, why)
						}
					}
				}
				continue
			}
			taken[c.Do]++
			story = append(story, brief(&c))
			if c.Do == job.DoTick && slices.ContainsFunc(stepsOf(&j, &c), func(s workorder.Step) bool { return s.Erases() }) {
				erased++
			}
			before, as, last = j, w.clone(), &c
			if broken := w.apply(&j, &next, &c); broken != nil {
				t.Fatalf("seed %d (%s): %v\nafter %s", seed, j.ID, broken, strings.Join(story, "\n      "))
			}
			j = next
		}
	}
	for _, name := range job.Do("").Values() {
		if do := job.Do(name); drawn[do] == 0 {
			t.Errorf("%s was never drawn", do)
		}
	}
	for _, do := range []job.Do{job.DoTransfer, job.DoProve, job.DoWipe, job.DoLayout, job.DoArray, job.DoFate, job.DoRemove, job.DoCorrect, job.DoNextStage, job.DoUntick, job.DoLeaveOut} {
		if taken[do] < *walks/200 {
			t.Errorf("%s was taken %d times in %d walks", do, taken[do], *walks)
		}
	}
	if erased < *walks/10 {
		t.Errorf("drives were erased %d times in %d walks", erased, *walks)
	}
	t.Log(taken, "erased", erased)
}

func brief(c *job.Change) string {
	out := fmt.Sprint(c.Do, " ", c.Item, " ", c.Step, c.Steps, " ", c.Value, " ", c.Socket, " holds ", c.Holds, " in ", c.In, " text ", c.Text)
	if c.Transfer != nil {
		out += fmt.Sprintf(" %+v", *c.Transfer)
	}
	if c.Array != nil {
		out += fmt.Sprintf(" %+v", *c.Array)
	}
	if c.Wish != nil {
		out += fmt.Sprintf(" %+v", c.Wish.Starts)
	}
	return out
}

// room plans each drive that has no place into a free one where nothing stops it.
func room(j *job.Job) {
	for i := range j.Items {
		id := j.Items[i].ID
		if !isDrive(j, id) || !j.Planned.Where(id).IsZero() {
			continue
		}
		for _, k := range j.Sheet.Sockets {
			if !rig.Suits(j.Part(j.Items[i].Part), &k) || j.Planned.In(rig.On(k.ID)) != "" {
				continue
			}
			next, _, err := job.Apply(*j, job.Change{Do: job.DoPlace, Item: id, Socket: rig.On(k.ID)}, job.Stamp{})
			if err != nil {
				continue
			}
			r := next.PlannedRig()
			if a := fit.Resolve(&r); !a.Stops() {
				*j = next
				break
			}
		}
	}
}

// act is something that hands, or a word, may do: mostly about drives, and of every kind there is.
func act(rng *rand.Rand, j *job.Job) job.Change {
	if rng.Intn(10) == 0 {
		return anything(rng, j)
	}
	var drives []rig.ItemID
	for i := range j.Items {
		if isDrive(j, j.Items[i].ID) {
			drives = append(drives, j.Items[i].ID)
		}
	}
	if len(drives) == 0 || j.Closed != nil {
		return job.Change{Do: job.DoReopen}
	}
	drive := func() rig.ItemID { return drives[rng.Intn(len(drives))] }
	kinds := []job.Do{job.DoTransfer, job.DoTransfer, job.DoTransfer, job.DoProve, job.DoProve, job.DoProve, job.DoWipe, job.DoWipe, job.DoWish, job.DoWish, job.DoCorrect, job.DoCorrect, job.DoLayout, job.DoLayout, job.DoArray, job.DoFate,
		job.DoUntick, job.DoUntick, job.DoLeaveOut, job.DoNoTransfer, job.DoUnwipe, job.DoNoLayout, job.DoNoArray, job.DoPlace, job.DoTakeOut, job.DoAside, job.DoNextStage, job.DoRemove}
	c := job.Change{Do: job.DoTick, Item: drive(), Sure: rng.Intn(5) > 0, Text: "because", Value: "1"}
	if rng.Intn(2) == 0 {
		c.Do = kinds[rng.Intn(len(kinds))]
	}
	if c.Do == job.DoTick && len(j.Transfers) > 0 && rng.Intn(4) == 0 {
		c.Do = job.DoProve
	}
	switch c.Do {
	case job.DoTick, job.DoUntick, job.DoLeaveOut:
		ticked(rng, j, &c)
	case job.DoTransfer:
		c.Transfer = &volume.Transfer{ID: 1, How: volume.TransferHow(volume.TransferHow("").Values()[rng.Intn(3)]), From: drive(), To: drive()}
	case job.DoProve, job.DoNoTransfer:
		if n := len(j.Transfers); n > 0 {
			c.Value = fmt.Sprint(j.Transfers[rng.Intn(n)].ID)
		}
		c.Proof = &volume.Proof{Files: 1, Bytes: quantity.TB}
	case job.DoWipe:
		c.Value, c.Text = "purge", j.Item(c.Item).Serial
		if rng.Intn(3) == 0 {
			c.Text = "tape-" + string(rune('A'+rng.Intn(4)))
		}
	case job.DoFate:
		c.Value = append(job.Fate("").Values(), "")[rng.Intn(5)]
	case job.DoPlace:
		c.Socket = rig.On(j.Sheet.Sockets[rng.Intn(len(j.Sheet.Sockets))].ID)
		for _, k := range j.Sheet.Sockets { // where it goes, if that is free
			if rig.Suits(j.Part(j.Item(c.Item).Part), &k) && j.Planned.In(rig.On(k.ID)) == "" && rng.Intn(2) == 0 {
				c.Socket = rig.On(k.ID)
			}
		}
	case job.DoWish:
		w := j.Wish
		if w.BackedUp = ""; rng.Intn(3) > 0 {
			w.BackedUp = "the archive"
		}
		w.Starts = rig.Start{How: []rig.StartHow{rig.Install, rig.CopyOver, rig.StartNothing}[rng.Intn(3)], Item: drive()}
		if len(j.Arrays) > 0 && rng.Intn(3) == 0 {
			w.Starts.Item, w.Starts.Array = "", j.Arrays[0].ID
		}
		c.Wish = &w
	case job.DoCorrect:
		it := j.Item(c.Item)
		c.Serial, c.New, c.Holds = it.Serial, it.New, append([]rig.Content{""}, rig.Blank, rig.Data, rig.System)[rng.Intn(4)]
	case job.DoLayout:
		c.Layout = &volume.Layout{Item: c.Item, Table: volume.GPT, Volumes: []volume.Volume{{System: volume.NTFS, Label: fmt.Sprint("v", rng.Intn(99))}}}
		if len(j.Arrays) > 0 && rng.Intn(3) == 0 {
			c.Layout.Item, c.Layout.Array = "", j.Arrays[0].ID
		}
	case job.DoArray:
		c.Array = &rig.DriveArray{ID: "a", Level: rig.Stripe, Members: []rig.ItemID{drives[0], drives[len(drives)-1]}}
		if rng.Intn(2) == 0 {
			c.Array.By = rig.BySystem
		}
	case job.DoNoArray:
		c.Value = "a"
	case job.DoAside, job.DoAddStage:
		c.Text, c.Value = "later", "now"
	}
	return c
}

// ticked goes on with the order: as hands do, up to the next step that asks for something, or that step
// alone; and now and then any step, or with something else typed than what was asked for.
func ticked(rng *rand.Rand, j *job.Job, c *job.Change) {
	order := j.Order()
	if len(order) == 0 {
		c.Step = "none"
		return
	}
	if c.Do != job.DoTick || rng.Intn(4) == 0 {
		c.Step = order[rng.Intn(len(order))].ID
		for range 6 { // rather one that erases, copies or proves
			if s := order[rng.Intn(len(order))]; s.Erases() || workorder.Moves(s.ID) > 0 || s.ID == workorder.BackupStep {
				c.Step = s.ID
			}
		}
	}
	for _, s := range order {
		switch {
		case c.Step != "" && s.ID == c.Step:
			c.Text = typed(rng, &s)
			return
		case c.Step != "" || j.Did(s.ID) || s.Test != "" || s.Held.Is():
		case !s.Erases() && !strings.HasSuffix(s.ID, "/prove"):
			c.Steps = append(c.Steps, s.ID)
		case len(c.Steps) == 0:
			c.Step, c.Text = s.ID, typed(rng, &s)
			return
		default:
			return
		}
	}
}

func typed(rng *rand.Rand, s *workorder.Step) string {
	asked := strings.Join(s.Confirm, " ")
	return []string{asked, asked, asked, asked, asked, "", fact.Fold(asked), "0001 tape-A"}[rng.Intn(8)]
}
