package job

// This file learns how long steps take from jobs that are finished.

import (
	"slices"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/workorder"
)

// Median is how long a step took in the middle of finished jobs on one model.
type Median struct {
	Minutes layer.Minutes
	Jobs    int // of how many jobs
}

// timeKey is what steps of several jobs on one model have in common: the step of a layer by
// its name, that of a piece by its place, for pieces are others in each job.
func timeKey(step string, at string) string {
	verb, rest, _ := strings.Cut(step, "/")
	if at == "" || at == "-" || !strings.HasPrefix(rest, "+") && verb != "fit" && verb != "take-out" {
		return step
	}
	lead := ""
	if strings.HasPrefix(rest, "lead-") {
		lead = "lead-"
	}
	return verb + "/" + lead + "@" + at
}

// Medians is how long steps took in finished jobs, by what they have in common. Where one job
// did a step more than once, its times are added up.
func Medians(jobs []Job) map[string]Median {
	times := map[string][]int{}
	for i := range jobs {
		one := map[string]int{}
		for _, done := range append([][]Tick{jobs[i].Done}, pastTicks(&jobs[i])...) {
			for _, t := range done {
				if t.Seconds > 0 && t.Reason == "" {
					one[timeKey(t.Step, t.Socket.String())] += t.Seconds
				}
			}
		}
		for k, s := range one {
			times[k] = append(times[k], s)
		}
	}
	out := map[string]Median{}
	for k, list := range times {
		slices.Sort(list)
		n := len(list)
		middle := float64(list[n/2]+list[(n-1)/2]) / 2
		out[k] = Median{layer.Minutes(max(0.1, float64(int(middle/6+0.5))/10)), n}
	}
	return out
}

func pastTicks(j *Job) [][]Tick {
	var out [][]Tick
	for i := range j.Past {
		out = append(out, j.Past[i].Done)
	}
	return out
}

// Estimate is how long the steps of an order take.
type Estimate struct {
	Step    string
	Minutes layer.Minutes
	Guess   bool // nobody measured it
	Jobs    int  // of how many finished jobs it is the median; 0 where it is of the sheet, or a guess
}

// Says is an estimate and where it is from.
func (e *Estimate) Says() fact.Fact {
	switch {
	case e.Jobs > 0:
		return fact.Of(TimeLearnt, e.Minutes, fact.Count{N: e.Jobs, Of: FinishedJobs})
	case e.Guess:
		return fact.Of(TimeGuess, e.Minutes)
	}
	return fact.Of(TimeOfSheet, e.Minutes)
}

// TimeLeft is how long the rest of an order takes, and how much of that is learnt.
func TimeLeft(left layer.Minutes, learnt, of int) fact.Fact {
	if learnt == 0 {
		return fact.Of(TimeLeftGuess, left)
	}
	return fact.Of(TimeLeftLearnt, left, learnt, fact.Count{N: of, Of: Steps})
}

// Estimates is how long the steps of the order take, by finished jobs where there are such.
func (j *Job) Estimates(order []workorder.Step, learnt map[string]Median) []Estimate {
	out := make([]Estimate, len(order))
	for i := range order {
		s := &order[i]
		out[i] = Estimate{Step: s.ID, Minutes: s.Takes, Guess: s.Guess}
		if m, ok := learnt[timeKey(s.ID, s.Socket.String())]; ok {
			out[i].Minutes, out[i].Guess, out[i].Jobs = m.Minutes, false, m.Jobs
		}
	}
	return out
}
