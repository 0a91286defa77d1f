package logbook

// This file is what jobs on one model showed of it: what differs again and again, and what it
// proved able to take.

import (
	"encoding/json"
	"slices"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
)

// Recurring is something in which machines of a model are not as its sheet says.
type Recurring struct {
	Says  fact.Fact // in the words of the latest
	Job   *job.Job  // the latest that says so
	ID    int       // of the difference there
	Times int       // in how many jobs
	Fits  bool      // it can be written into the sheet as it stands
}

// Differing is in what machines differ from the sheet of their model as it is now, what was seen
// most often first. What the sheet says by now is not among it.
func Differing(sheet *machine.Sheet, jobs []job.Job) []Recurring {
	var out []Recurring
	seen := map[string]int{}
	list := inOrder(jobs)
	slices.Reverse(list)
	for _, j := range list {
		own := map[string]bool{}
		for i := len(j.Differs) - 1; i >= 0; i-- {
			d := &j.Differs[i]
			taught := *sheet
			fits := d.Teach(&taught) && len(machine.Diff(sheet, &taught)) > 0
			if (d.Is != nil || d.Gone) && !fits {
				continue // the sheet says so by now
			}
			k := sameDifference(d)
			if own[k] {
				continue
			}
			own[k] = true
			if n, ok := seen[k]; ok {
				out[n].Times++
				continue
			}
			seen[k] = len(out)
			out = append(out, Recurring{Says: d.Says(j), Job: j, ID: d.ID, Times: 1, Fits: fits})
		}
	}
	slices.SortStableFunc(out, func(a, b Recurring) int { return b.Times - a.Times })
	return out
}

// sameDifference is what two notes of one difference have in common: the layer as it really is, or
// the words.
func sameDifference(d *job.Difference) string {
	if d.Is == nil && !d.Gone {
		return string(d.Layer) + " " + strings.ToLower(strings.Join(strings.Fields(d.Text), " "))
	}
	var is layer.Layer
	if d.Is != nil {
		is = *d.Is
	}
	b, err := json.Marshal(is)
	if err != nil {
		return d.Text
	}
	return string(d.Layer) + string(b)
}

// Proof is something that a finished job on a model showed beyond its sheet as it is now.
type Proof struct {
	job.Proven
	Job *job.Job
}

// Proofs is what finished jobs showed and the sheet of their model does not say yet, the latest
// first. Of two that show the same the later one is told; a larger one outdoes a smaller.
func Proofs(sheet *machine.Sheet, jobs []job.Job) []Proof {
	var out []Proof
	list := inOrder(jobs)
	slices.Reverse(list)
	for _, j := range list {
		if j.Closed == nil {
			continue
		}
		for _, stage := range j.Stages() {
			if !stage.SawBeyond(sheet) {
				continue
			}
			for _, p := range job.Look(stage).Report.Proven {
				if !p.Beyond(sheet) {
					continue
				}
				n := slices.IndexFunc(out, func(o Proof) bool { return o.Of == p.Of && o.Socket == p.Socket })
				switch {
				case n < 0:
					out = append(out, Proof{p, j})
				case p.Bytes > out[n].Bytes || p.Gen > out[n].Gen:
					out[n] = Proof{p, j}
				}
			}
		}
	}
	return out
}
