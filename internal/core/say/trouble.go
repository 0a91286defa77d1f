package say

import (
	"time"

	"deepbay/internal/core/fault"
	"deepbay/internal/core/job"
	"deepbay/internal/core/power"
)

// CheckMade is a check that was made, and what it showed.
type CheckMade struct {
	Check fault.Inspection `json:"check" jsonschema:"maxLength=200"`
	Says  Text             `json:"says"`
	Is    Text             `json:"is"`
	By    Name             `json:"by,omitempty"`
	At    time.Time        `json:"at"`
}

// CureBegun is a cure under way, or done.
type CureBegun struct {
	ID    int     `json:"id"`
	Of    Suspect `json:"of"`
	First StepID  `json:"first,omitempty"` // its first step that is not done
	Done  int     `json:"done"`
	Steps int     `json:"steps"`
	Ended bool    `json:"ended"`
	By    Name    `json:"by,omitempty"`
}

// Keys is what is pressed for set-up and for the boot menu.
type Keys struct {
	SetUp Text `json:"setUp"`
	Boot  Text `json:"boot"`
	Guess bool `json:"guess,omitempty"` // the sheet is silent on one of them
}

// ChecksMade words the checks of a job, the latest first.
func (v *Voice) ChecksMade(j *job.Job) []CheckMade {
	out := make([]CheckMade, 0, len(j.Checked))
	for i := len(j.Checked) - 1; i >= 0; i-- {
		c := &j.Checked[i]
		out = append(out, CheckMade{c.Check, v.text(v.check(c.Check)), v.text(v.outcome(c.Is)), Name(c.By), c.At})
	}
	return out
}

// CuresBegun words the cures of a job, the latest first.
func (v *Voice) CuresBegun(j *job.Job) []CureBegun {
	out := make([]CureBegun, 0, len(j.Cures))
	progress := j.CureProgress()
	for i := len(j.Cures) - 1; i >= 0; i-- {
		c, p := &j.Cures[i], progress[i]
		out = append(out, CureBegun{c.ID, v.SuspectOf(c.Fault), StepID(p.Next), p.Done, p.Steps, !c.Ended.IsZero(), Name(c.By)})
	}
	return out
}

// Strange words what a machine told of and nobody expected.
func (v *Voice) Strange(list []power.Strange) []Text {
	out := make([]Text, len(list))
	for i, s := range list {
		says := s.Name
		if s.Bytes.Known() {
			says += ", " + s.Bytes.Label()
		}
		if s.Serial != "" {
			says += ", serial " + s.Serial
		}
		if s.Place != "" {
			says += ", as " + s.Place
		}
		out[i] = v.text(says + ": nobody expected it in this machine")
	}
	return out
}

// The keys that firmware mostly takes, to be tried one after the other where the sheet is silent.
const (
	likelySetUp = "Delete, F2, F1, F10 or Escape"
	likelyBoot  = "F12, F11, F8, F9 or Escape"
)

// Keys says which keys lead into set-up and to the boot menu.
func (v *Voice) Keys() Keys {
	f := &v.rig.Sheet.Firmware
	k := Keys{SetUp: v.text(f.SetupKey), Boot: v.text(f.BootKey), Guess: f.SetupKey == "" || f.BootKey == ""}
	if f.SetupKey == "" {
		k.SetUp = v.text("by trial: " + likelySetUp + ", pressed again and again from the start on")
	}
	if f.BootKey == "" {
		k.Boot = v.text("by trial: " + likelyBoot)
	}
	return k
}

// Door says how a machine sends itself in, NoDoor that none listens.
func (v *Voice) Door() Text {
	return v.text("Start the machine from any Linux stick and type these lines. They work once, for an hour. The program reads, writes nothing, and says what it could not read.")
}

// NoDoor says how a machine is read without one.
func (v *Voice) NoDoor() Text {
	return v.text("This program answers to its own machine alone. Start it with an address for machines on the bench, or read the machine from a stick with this very program: its command is probe, with a file to write. Then drop the file here.")
}
