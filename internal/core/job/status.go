package job

// This file says where a job stands: its stage, what it waits for, its one next
// action. It is computed from the job each time, so it cannot disagree with it.

import (
	"strconv"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/power"
	"deepbay/internal/core/workorder"
)

// Stage is how far a job has come.
type Stage string

// The stages, in order.
const (
	StageFit      Stage = "fit"
	StageOrder    Stage = "work order"
	StageProve    Stage = "prove"
	StageHandOver Stage = "hand over"
	StageClosed   Stage = "closed"
)

// Values lists the stages for the formats.
func (Stage) Values() []string {
	return []string{string(StageFit), string(StageOrder), string(StageProve), string(StageHandOver), string(StageClosed)}
}

// Status is where a job stands.
type Status struct {
	Stage Stage  `json:"stage"`
	Waits string `json:"waits"` // what it waits for
	Next  string `json:"next"`  // the one next action, as a button says it
	Go    Stage  `json:"go"`    // the screen on which it is done
	Stops bool   `json:"stops"` // the plan is stopped
	Done  int    `json:"done"`  // steps done
	Steps int    `json:"steps"`
}

// View is a job with everything the core says about it.
type View struct {
	Job      Job              `json:"job"`
	Status   Status           `json:"status"`
	Found    fit.Resolved     `json:"found"`
	Planned  fit.Resolved     `json:"planned"`
	Order    []workorder.Step `json:"order"`
	Lines    []power.Line     `json:"lines"`
	Variants []Variant        `json:"variants"`
	Report   Report           `json:"report"`
}

// Look computes the view of a job.
func Look(j Job) View {
	found, planned := j.FoundRig(), j.PlannedRig()
	v := View{Job: j, Found: fit.Resolve(&found), Planned: fit.Resolve(&planned), Order: j.Order(), Variants: variants(&j)}
	v.Lines = j.Lines(&v.Planned)
	v.Status = status(&v)
	v.Report = report(&v)
	return v
}

func status(v *View) Status {
	done := v.Job.ticked()
	s := Status{Steps: len(v.Order), Stops: v.Planned.Stops()}
	var next, nextClose *workorder.Step
	for i := range v.Order {
		step := &v.Order[i]
		switch {
		case done[step.ID]:
			s.Done++
		case step.Phase == workorder.Close && nextClose == nil:
			nextClose = step
		case step.Phase != workorder.Close && next == nil:
			next = step
		}
	}
	notLooked, differ := 0, 0
	for i := range v.Lines {
		switch v.Lines[i].Verdict {
		case power.NotLooked:
			notLooked++
		case power.Differs:
			differ++
		}
	}
	say := func(stage Stage, waits, next string) Status {
		s.Stage, s.Go, s.Waits, s.Next = stage, stage, waits, next
		return s
	}
	switch {
	case v.Job.Closed != nil:
		s.Go = StageHandOver
		s.Stage, s.Waits, s.Next = StageClosed, "nothing", "Read the hand-over page"
		return s
	case len(v.Job.Items) == 0:
		return say(StageFit, "the parts found and the parts to fit", "Enter what is in the machine")
	case s.Stops:
		return say(StageFit, "a cure: "+firstStop(&v.Planned), "Cure what stops the plan")
	case unplaced(v) != "":
		return say(StageFit, "a place for "+unplaced(v), "Place "+unplaced(v))
	case len(v.Order) == 0:
		return say(StageFit, "a plan that changes something", "Plan the fit")
	case next != nil && s.Done == 0:
		s.Stage, s.Go, s.Waits, s.Next = StageFit, StageOrder, "hands: the plan is ready", "Begin the work order"
		return s
	case next != nil:
		return say(StageOrder, "hands: "+next.Do, "Go on with the work order")
	case notLooked > 0:
		return say(StageProve, lines(notLooked)+" to read off the screens", "Compare what the screens show")
	case differ > 0:
		return say(StageProve, differences(differ), "Explain or cure what differs")
	case nextClose != nil:
		return say(StageOrder, "closing: "+nextClose.Do, "Close the machine")
	}
	return say(StageHandOver, "the owner", "Hand it over")
}

func lines(n int) string {
	if n == 1 {
		return "1 line"
	}
	return strconv.Itoa(n) + " lines"
}

func differences(n int) string {
	if n == 1 {
		return "1 difference to be explained or cured"
	}
	return strconv.Itoa(n) + " differences to be explained or cured"
}

// unplaced names the first new part that has no place.
func unplaced(v *View) string {
	for _, it := range v.Job.Items {
		if p := v.Job.Part(it.Part); it.New && v.Job.Planned.Where(it.ID).IsZero() && (p == nil || p.Fitting == nil) {
			return v.Job.Name(it.ID)
		}
	}
	return ""
}
