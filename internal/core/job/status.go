package job

// This file says where a job stands: its stage, what it waits for, its one next
// action. It is computed from the job each time, so it cannot disagree with it.

import (
	"cmp"
	"reflect"
	"slices"

	"deepbay/internal/core/cure"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
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

// Standing is what a verdict comes to.
type Standing string

// The grades, the best first.
const (
	GradeGood  Standing = "good"    // nothing stands against it
	GradeWarns Standing = "warns"   // it works, with a loss nobody has agreed to yet
	GradeOpen  Standing = "unknown" // something is not known, or not done yet
	GradeStops Standing = "stops"   // it does not work, or may not be begun
)

// Values lists the grades for the formats.
func (Standing) Values() []string {
	return []string{string(GradeGood), string(GradeWarns), string(GradeOpen), string(GradeStops)}
}

// Judgement is a verdict in a few words, and its reason: none where nothing stands against it.
type Judgement struct {
	Grade Standing
	Says  fact.Fact
	Why   fact.Fact
}

// Status is where a job stands.
type Status struct {
	Stage   Stage
	Verdict Judgement // of the plan, then of the work
	Waits   fact.Fact // what it waits for
	Next    fact.Fact // the one next action, as a button says it
	Go      Stage     // the screen on which it is done
	Stops   bool      // the plan is stopped
	Done    int       // steps done
	Steps   int
	Name    string // of the stage at work, where there are several
	Of      [2]int // which that is, and of how many
}

// View is a job with everything the core says about it.
type View struct {
	Job      Job
	Status   Status
	Found    fit.Answer
	Planned  fit.Answer
	Order    []workorder.Step
	Layers   []layer.Layer // of the machine as it stands, fitted parts among them
	Tray     []workorder.Cell
	Pick     []workorder.Need
	Off      []workorder.Step // what is off now, by the steps that put it back
	Stands   []fact.Fact      // where the work stands, for somebody who goes on with it
	Lines    []power.Line
	Before   []power.Line // what the screens of the machine showed as it came
	Variants []Variant
	Report   Report
	Blocks   []Block   // what holds the work back besides the rules of fit
	Starts   fact.Fact // what starts the machine afterwards, none where nobody said and nothing tells
	Stages   []StageOf
	At       int        // the stage that is looked at
	Usual    []rig.Fact // what was taken as it nearly always is
}

// Look computes the view of a job.
func Look(j Job) View {
	found, planned := j.FoundRig(), j.PlannedRig()
	v := View{Job: j, Found: resolve(&found), Planned: resolve(&planned), Variants: variants(&j)}
	work := j.Work()
	v.Order, v.Layers, v.Tray, v.Pick, v.Off = work.Steps, work.Layers, work.Tray, work.Pick, j.off(work.Steps)
	v.Lines = j.Lines(&v.Planned, &v.Found)
	quiet(&j, &v.Found, &v.Planned)
	v.Usual = v.Planned.Usual()
	v.Blocks = j.blocks(&v.Planned, work.Lost)
	v.Starts, _ = j.Starts()
	v.Stages = j.stages()
	v.Before = power.Compare(&found, &v.Found, power.Seen{Readings: j.Before})
	v.Status = status(&v)
	v.Report = report(&v)
	v.Stands = stands(&v)
	return v
}

// LookAt computes the view of a stage that is to come; false is one that there is not.
func LookAt(j Job, n int) (View, bool) {
	ahead, ok := j.Ahead(n)
	if !ok {
		return View{}, false
	}
	v := Look(ahead)
	v.At, v.Stages = n, j.stages()
	return v, true
}

// Stand is where a job stands, without the rest of its view.
func Stand(j Job) Status {
	found, planned := j.FoundRig(), j.PlannedRig()
	work := j.Work()
	v := View{Job: j, Found: fit.Resolve(&found), Planned: fit.Resolve(&planned), Order: work.Steps}
	quiet(&j, &v.Found, &v.Planned)
	v.Blocks = j.blocks(&v.Planned, work.Lost)
	v.Lines = j.Lines(&v.Planned, &v.Found)
	return status(&v)
}

// quiet marks the findings about parts that nobody touches and that were so when the
// machine came: they are no news, unless they stop something.
func quiet(j *Job, found, planned *fit.Answer) {
	untouched := func(p rig.Placement) bool {
		it := j.Item(p.Item)
		return it != nil && !it.New && j.Found.Where(p.Item) == p.Socket
	}
	for i := range planned.Findings {
		f := &planned.Findings[i]
		if f.Severity == fit.Stops || f.Item == "" || !untouched(rig.Placement{Item: f.Item, Socket: f.Socket}) ||
			slices.ContainsFunc(f.Also, func(p rig.Placement) bool { return !untouched(p) }) {
			continue
		}
		f.Quiet = slices.ContainsFunc(found.Findings, func(g fit.Finding) bool {
			return g.Code == f.Code && g.Item == f.Item && g.Socket == f.Socket && reflect.DeepEqual(g.Says, f.Says)
		})
	}
}

// resolve answers a rig, its findings with their cures.
func resolve(r *rig.Rig) fit.Answer {
	a := fit.Resolve(r)
	cure.Fill(r, &a)
	return a
}

func status(v *View) Status {
	s := Status{Steps: len(v.Order), Stops: v.Planned.Stops()}
	if n := len(v.Job.Past) + len(v.Job.Later); n > 0 {
		s.Name, s.Of = v.Job.StageName, [2]int{len(v.Job.Past) + 1, n + 1}
	}
	var next, nextClose *workorder.Step
	var test fact.Fact
	for i := range v.Order {
		step := &v.Order[i]
		t := v.Job.testOf(step.ID)
		switch {
		case v.Job.tickOf(step.ID) != nil:
			s.Done++
		case t != nil:
			if !test.Is() {
				test = t.says(step)
			}
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
	stand := func(verdict Judgement, stage Stage, waits, next fact.Fact) Status {
		s.Verdict, s.Stage, s.Go, s.Waits, s.Next = verdict, stage, stage, waits, next
		return s
	}
	working := func(grade Standing, says fact.Fact, stage Stage, waits, next fact.Fact) Status {
		return stand(Judgement{grade, says, waits}, stage, waits, next)
	}
	steps := fact.Of(StepsAreDone, s.Done, fact.Count{N: s.Steps, Of: Steps})
	item := unplaced(v)
	switch {
	case v.Job.Closed != nil:
		stand(Judgement{GradeGood, fact.Of(HandedOver), fact.Fact{}}, StageClosed, fact.Of(Nothing), fact.Of(ReadHandover))
		s.Go = StageHandOver
		return s
	case len(v.Job.Items) == 0:
		return working(GradeOpen, fact.Of(NothingToJudge), StageFit, fact.Of(FoundAndToFit), fact.Of(EnterFound))
	case s.Stops:
		stop := v.Planned.FirstStop().Says
		return stand(Judgement{GradeStops, fact.Of(DoesNotWork), stop}, StageFit, fact.Of(ACure, stop), fact.Of(CureStop))
	case item != "":
		return stand(Judgement{GradeOpen, fact.Of(NotAllPlaced), fact.Of(HasNoPlace, item)}, StageFit, fact.Of(APlaceFor, item), fact.Of(Place, item))
	case len(v.Blocks) > 0 && len(v.Order) > 0:
		s.Stops = true
		return working(GradeStops, fact.Of(NotReady), StageFit, v.Blocks[0].Says, fact.Of(AnswerFirst))
	case len(v.Order) == 0 && len(v.Job.Past) == 0:
		return stand(judged(v), StageFit, fact.Of(APlan), fact.Of(PlanFit))
	case next != nil && s.Done == 0:
		stand(judged(v), StageFit, fact.Of(HandsReady), fact.Of(BeginOrder))
		s.Go = StageOrder
		return s
	case next != nil && next.Powered() && v.Job.Dropped() != nil:
		return working(GradeStops, fact.Of(HeldByScrew), StageOrder, v.Job.Dropped().Says(), fact.Of(FindScrew))
	case next != nil && next.Held.Is():
		return working(GradeStops, fact.Of(StepHeld, next.Do), StageOrder, next.Held, fact.Of(GoOnOrder))
	case next != nil:
		return stand(Judgement{GradeOpen, steps, next.Do}, StageOrder, fact.Of(Hands, next.Do), fact.Of(GoOnOrder))
	case notLooked > 0:
		return working(GradeOpen, fact.Of(FittedNotProved), StageProve, fact.Of(LinesToRead, fact.Count{N: notLooked, Of: Lines}), fact.Of(CompareScreens))
	case differ > 0:
		return working(GradeStops, fact.Of(NotAsForetold), StageProve, fact.Of(DifferencesOpen, fact.Count{N: differ, Of: Differences}), fact.Of(ExplainOrCure))
	case test.Is():
		return working(GradeOpen, steps, StageOrder, test, fact.Of(SayHowTestEnded))
	case nextClose != nil:
		return working(GradeOpen, steps, StageOrder, fact.Of(Closing_, nextClose.Do), fact.Of(CloseMachine))
	}
	if len(v.Job.Later) > 0 {
		name := fact.Typed(v.Job.Later[0].Name)
		return working(GradeGood, fact.Of(StageProved), StageHandOver, fact.Of(StageIsDone, name), fact.Of(GoOnTo, name))
	}
	return working(GradeGood, fact.Of(FittedAndProved), StageHandOver, fact.Of(TheOwner), fact.Of(HandOver))
}

// judged is what a plan comes to that nothing stops, before hands begin: the worst there is to
// say of it.
func judged(v *View) Judgement {
	var unsure, loss *fit.Finding
	losses := 0
	for i := range v.Planned.Findings {
		f := &v.Planned.Findings[i]
		switch {
		case f.Severity != fit.Warns || f.Quiet || v.Job.AcceptedAs(f) != nil:
		case len(f.Missing) > 0:
			unsure = cmp.Or(unsure, f)
		default:
			loss = cmp.Or(loss, f)
			losses++
		}
	}
	switch {
	case unsure != nil:
		return Judgement{GradeOpen, fact.Of(MayWork), unsure.Says}
	case loss != nil:
		return Judgement{GradeWarns, fact.Of(WorksWithLoss, fact.Count{N: losses, Of: Warnings}), loss.Says}
	case len(v.Order) == 0 && len(v.Job.Past) == 0:
		return Judgement{GradeGood, fact.Of(WorksAsItIs), fact.Of(NothingPlanned)}
	}
	return Judgement{GradeGood, fact.Of(Works), fact.Fact{}}
}

// unplaced is the first new part that has no place, "" for none.
func unplaced(v *View) rig.ItemID {
	for _, it := range v.Job.Items {
		if p := v.Job.Part(it.Part); it.New && !v.Job.everFitted(it.ID) && (p == nil || p.Fitting == nil) {
			return it.ID
		}
	}
	return ""
}
