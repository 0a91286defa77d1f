package job_test

import (
	"encoding/json"
	"math/rand"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest/jobs"
)

// TestRandomChanges does what somebody at the bench might do, in any order, to random jobs:
// whatever is taken leaves a job that holds together, can be looked at, and is the same
// when it is written and read.
func TestRandomChanges(t *testing.T) {
	taken := map[job.Do]int{}
	for seed := range int64(max(50, *jobsTried/20)) {
		rng := rand.New(rand.NewSource(seed))
		j := jobs.Random(rng)
		for range 25 {
			v := look(t, seed, j)
			c := anyChange(rng, &v)
			next, _, err := job.Apply(j, c, stamp)
			if err != nil {
				continue
			}
			taken[c.Do]++
			b, err := json.Marshal(next)
			if err != nil {
				t.Fatalf("seed %d: after %+v: %v", seed, c, err)
			}
			var read job.Job
			if err := json.Unmarshal(b, &read); err != nil {
				t.Fatalf("seed %d: after %+v: %v", seed, c, err)
			}
			if err := read.Validate().Err(); err != nil {
				t.Fatalf("seed %d: after %+v it is refused: %v", seed, c, err)
			}
			j = read
		}
		look(t, seed, j)
	}
	for _, do := range []job.Do{job.DoPlace, job.DoTakeOut, job.DoLook, job.DoUnlook, job.DoRead, job.DoConfirm, job.DoForget, job.DoTick, job.DoRemove, job.DoMoves} {
		if taken[do] == 0 {
			t.Errorf("no %q was taken of %v", do, taken)
		}
	}
	t.Log(taken)
}

func anyChange(rng *rand.Rand, v *job.View) job.Change {
	j := &v.Job
	in := job.InPlanned
	lines, answer := v.Lines, &v.Planned
	if rng.Intn(2) == 0 {
		in, lines, answer = job.InFound, v.Before, &v.Found
	}
	item := func() rig.ItemID {
		if len(j.Items) == 0 {
			return "nobody"
		}
		return j.Items[rng.Intn(len(j.Items))].ID
	}
	switch rng.Intn(9) {
	case 0:
		return job.Change{Do: job.DoPlace, In: in, Item: item(), Socket: answer.Sockets[rng.Intn(len(answer.Sockets))].Socket}
	case 1:
		return job.Change{Do: job.DoTakeOut, In: in, Item: item()}
	case 2:
		if len(lines) > 0 {
			return job.Change{Do: []job.Do{job.DoConfirm, job.DoForget}[rng.Intn(2)], In: in, Line: lines[rng.Intn(len(lines))].ID}
		}
	case 3:
		if len(lines) > 0 {
			return job.Change{Do: job.DoRead, In: in, Line: lines[rng.Intn(len(lines))].ID, Text: []string{"500 GB", "16 GB", "Gen 3 x4", "2400", "none"}[rng.Intn(5)]}
		}
	case 4:
		if len(v.Order) > 0 {
			return job.Change{Do: job.DoTick, Step: v.Order[rng.Intn(len(v.Order))].ID}
		}
	case 5:
		for _, f := range answer.Findings {
			if len(f.Cures) > 0 && rng.Intn(2) == 0 {
				return job.Change{Do: job.DoMoves, In: in, Moves: f.Cures[0].Moves}
			}
		}
	case 6:
		if len(j.Looked) > 0 {
			return job.Change{Do: job.DoUnlook, Fact: &j.Looked[rng.Intn(len(j.Looked))].Fact}
		}
	case 7:
		if rng.Intn(4) == 0 {
			return job.Change{Do: job.DoRemove, Item: item()}
		}
	}
	facts := v.Usual
	for _, f := range answer.Findings {
		facts = rig.With(facts, f.Missing...)
	}
	if len(facts) == 0 {
		return job.Change{Do: job.DoUntick, Step: "x"}
	}
	f := facts[rng.Intn(len(facts))]
	r := j.PlannedRig()
	is := "1"
	if ask, ok := r.HowToAsk(f); ok && len(ask.Options) > 0 {
		is = ask.Options[rng.Intn(len(ask.Options))].Value
	} else if ok && ask.Kind == rig.AskSize {
		is = "8 GB"
	}
	return job.Change{Do: job.DoLook, Fact: &f, Value: is}
}
