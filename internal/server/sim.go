package server

// This file is the simulated bench: a machine for each job that wants one, kept while the server
// runs. What is hidden in it is told only to whoever asks for it.

import (
	"errors"
	"math/rand/v2"
	"net/http"
	"sync"

	"github.com/gin-gonic/gin"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/workorder"
	"deepbay/internal/simbench"
	"deepbay/internal/store"
)

// SimDo is what is done with a simulated machine.
type SimDo string

// The ways.
const (
	SimMake   SimDo = "make" // a new one, with count faults hidden in it, or the one that is named
	SimTake   SimDo = "take" // it away
	SimStart  SimDo = "start"
	SimStop   SimDo = "stop"
	SimSet    SimDo = "set"    // setting to value
	SimHands  SimDo = "hands"  // hands do something at socket
	SimCheck  SimDo = "check"  // a check is made
	SimMend   SimDo = "mend"   // the cure of a fault is carried out
	SimReveal SimDo = "reveal" // what is hidden is told
)

// Values lists the ways for the formats.
func (SimDo) Values() []string {
	return []string{string(SimMake), string(SimTake), string(SimStart), string(SimStop), string(SimSet), string(SimHands), string(SimCheck), string(SimMend), string(SimReveal)}
}

// SimAction is something done with a simulated machine.
type SimAction struct {
	Do      SimDo             `json:"do"`
	Count   int               `json:"count,omitempty" jsonschema:"minimum=0,maximum=3"`
	Seed    uint64            `json:"seed,omitempty"`
	Fault   fault.Fault       `json:"fault,omitzero" jsonschema:"maxLength=200"`
	Socket  rig.Path          `json:"socket,omitzero" jsonschema:"maxLength=200"`
	Hands   simbench.Hands    `json:"hands,omitempty"`
	Setting machine.SettingID `json:"setting,omitempty" jsonschema:"maxLength=60"`
	Value   string            `json:"value,omitempty" jsonschema:"maxLength=60"`
	Check   fault.Inspection  `json:"check,omitzero" jsonschema:"maxLength=200"`
}

// SimView is how a simulated machine stands.
type SimView struct {
	There    bool               `json:"there"`
	On       bool               `json:"on"`
	Open     bool               `json:"open"`
	Minutes  layer.Minutes      `json:"minutes"`
	Says     say.Text           `json:"says"`            // what the last thing done came to
	Is       fault.Outcome      `json:"is,omitempty"`    // of a check
	Screens  []SimLine          `json:"screens"`         // what can be read off it
	Settings []SimSetting       `json:"settings"`        // while set-up can be reached
	Places   []SimPlace         `json:"places"`          // at which hands can do something
	Hidden   []say.Suspect      `json:"hidden"`          // only where it was asked for
	Probe    *power.Observation `json:"probe,omitempty"` // what it would send in
}

// SimLine is one line of a screen.
type SimLine struct {
	Line   power.LineID  `json:"line"`
	Screen power.Screen  `json:"screen"`
	About  say.Text      `json:"about"`
	Shows  say.Text      `json:"shows"`
	Is     power.Reading `json:"reading"`
}

// SimSetting is one setting as it stands.
type SimSetting struct {
	ID      machine.SettingID `json:"id"`
	Name    say.Name          `json:"name"`
	Value   string            `json:"value"`
	Options []machine.Option  `json:"options"`
}

// SimPlace is a place with something in it.
type SimPlace struct {
	Socket rig.Path         `json:"socket"`
	Name   say.Name         `json:"name"`
	Hands  []simbench.Hands `json:"hands"`
}

// benches is the simulated machines, each with the plan that it was made from.
type benches struct {
	mu sync.Mutex
	of map[job.ID]*kept
}

type kept struct {
	bench *simbench.Bench
	plan  rig.Setup
	done  map[string]bool // steps of the job that hands carried out on it
}

// follow carries out on the machine what hands did in the job since: settings made, cures.
func (b *kept) follow(j *job.Job) {
	for _, t := range j.Done {
		if t.Over || t.Reason != "" || b.done[t.Step] {
			continue
		}
		b.done[t.Step] = true
		if t.Choice.Setting != "" {
			b.bench.Hands(t.Choice)
		}
		if n, within := workorder.Mends(t.Step); within == workorder.CureStep {
			for _, c := range j.Cures {
				if c.ID == n {
					b.bench.Mend(c.Fault)
				}
			}
		}
	}
}

// mostBenches is how many simulated machines there are at once.
const mostBenches = 100

// noSim is a bench on which nothing stands.
func noSim() SimView {
	return SimView{Screens: []SimLine{}, Settings: []SimSetting{}, Places: []SimPlace{}, Hidden: []say.Suspect{}}
}

// sim says how the simulated machine of a job stands.
func (s *api) sim(c *gin.Context) error {
	k, err := s.named(c)
	if err != nil {
		return err
	}
	s.benches.mu.Lock()
	defer s.benches.mu.Unlock()
	b := s.benches.of[k.Job.ID]
	out := noSim()
	if b != nil && b.plan.Equal(&k.Job.Planned) {
		b.follow(&k.Job)
		s.simView(&k, b.bench, &out)
	}
	c.JSON(http.StatusOK, out)
	return nil
}

// simulated is a reading as it comes from the simulated bench.
func simulated(r power.Reading) power.Reading {
	r.Origin = power.Simulated
	return r
}

// simDo does something with it.
func (s *api) simDo(c *gin.Context) error {
	in, err := body[SimAction](c, "SimAction")
	if err != nil {
		return err
	}
	k, err := s.named(c)
	if err != nil {
		return err
	}
	s.benches.mu.Lock()
	defer s.benches.mu.Unlock()
	if s.benches.of == nil {
		s.benches.of = map[job.ID]*kept{}
	}
	v := say.About(s.Language, &k.Job)
	out := noSim()
	b := s.benches.of[k.Job.ID]
	switch {
	case in.Do == SimTake:
		delete(s.benches.of, k.Job.ID)
		c.JSON(http.StatusOK, out)
		return nil
	case in.Do == SimMake:
		if len(s.benches.of) >= mostBenches && b == nil {
			return problem.List{{Pointer: "", Says: "too many simulated machines stand on the bench", Cure: "take one away"}}
		}
		planned, found := k.Job.PlannedRig(), k.Job.FoundRig()
		b = &kept{simbench.Of(&planned, &found, k.Job.FaultWork()), k.Job.Planned.Clone(), map[string]bool{}}
		for _, x := range k.Job.Done { // cures of another machine are none of this one
			if n, _ := workorder.Mends(x.Step); n > 0 {
				b.done[x.Step] = true
			}
		}
		b.follow(&k.Job)
		if in.Fault.Kind != "" {
			if err := b.bench.Hide(in.Fault, 0); err != nil {
				return simProblem("/fault", err)
			}
		}
		b.bench.Surprise(rand.New(rand.NewPCG(in.Seed, uint64(len(k.Job.ID)))), in.Count)
		s.benches.of[k.Job.ID] = b
	case b == nil || !b.plan.Equal(&k.Job.Planned):
		return problem.List{{Pointer: "/do", Says: "no simulated machine stands on the bench as this job is planned", Cure: "make one"}}
	default:
		b.follow(&k.Job)
		says, err := s.simAct(&in, b.bench, v, &out)
		if err != nil {
			return simProblem("/do", err)
		}
		out.Says = says
	}
	s.simView(&k, b.bench, &out)
	c.JSON(http.StatusOK, out)
	return nil
}

func simProblem(at string, err error) error {
	return problem.List{{Pointer: at, Says: err.Error()}}
}

func (s *api) simAct(in *SimAction, b *simbench.Bench, v *say.Voice, out *SimView) (say.Text, error) {
	switch in.Do {
	case SimStart:
		b.Start()
		return v.SimStarted(), nil
	case SimStop:
		b.Stop()
		return v.SimStopped(), nil
	case SimSet:
		if err := b.Set(in.Setting, in.Value); err != nil {
			return say.Text{}, err
		}
		return v.SimSaved(), nil
	case SimHands:
		if err := b.Do(in.Hands, in.Socket); err != nil {
			return say.Text{}, err
		}
		return v.SimDone(), nil
	case SimCheck:
		is, err := b.Check(in.Check)
		if err != nil {
			return say.Text{}, err
		}
		out.Is = is
		return v.SimChecked(in.Check, is), nil
	case SimMend:
		return v.SimMended(b.Mend(in.Fault)), nil
	case SimReveal:
		for _, f := range b.Hidden() {
			out.Hidden = append(out.Hidden, v.SuspectOf(f))
		}
		return v.SimRevealed(len(out.Hidden)), nil
	}
	return say.Text{}, errors.New("nothing of that name can be done")
}

// simView fills in how the machine stands.
func (s *api) simView(k *store.Kept, b *simbench.Bench, out *SimView) {
	planned, v := k.Job.PlannedRig(), say.About(s.Language, &k.Job)
	out.There, out.On, out.Open, out.Minutes = true, b.On(), b.Open(), b.Minutes()
	for _, l := range b.Screens() {
		out.Screens = append(out.Screens, SimLine{l.Line, l.Screen, v.Fact(power.Named(&planned, l.Line)), v.Fact(power.Shown(&planned, l.Is)), simulated(l.Is)})
	}
	if b.On() && !b.World().Blind() {
		for i := range k.Job.Sheet.Settings {
			st := &k.Job.Sheet.Settings[i]
			out.Settings = append(out.Settings, SimSetting{st.ID, say.Name(st.Name), b.Value(st), st.Options})
		}
	}
	for _, p := range planned.Places() {
		if q := planned.PieceIn(p.Path); q != nil {
			out.Places = append(out.Places, SimPlace{p.Path, say.Name(q.Part.Name), simbench.HandsAt(&p, q)})
		}
	}
	if o, err := b.Observation(); err == nil {
		out.Probe = &o
	}
}
