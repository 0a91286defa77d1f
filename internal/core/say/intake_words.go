package say

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/intake"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// intakeWords is what room intake says.
var intakeWords = map[fact.Code]string{
	intake.TooLong:      "this line is longer than {0} bytes: the form takes more",
	intake.NoMachine:    "which machine is it? Name its tag or its sheet",
	intake.WhichSize:    "{0}: memory or a drive? Say which",
	intake.MoreOrAll:    "{0} more: how much is it to be in all?",
	intake.SaidTwice:    "{0} is said twice, the second time {1}",
	intake.Memory:       "the memory",
	intake.SystemDrive:  "the system drive",
	intake.IsMemory:     "at least {0} of memory",
	intake.IsDrive:      "a system drive of at least {0:dec}",
	intake.IsFastDrive:  "a system drive of at least {0:dec}, over PCIe",
	intake.IsData:       "{0:dec} for data, as the words of the wish say",
	intake.IsSheet:      "sheet: {0}",
	intake.IsTag:        "a new tag",
	intake.WasHere:      "was here: {0}",
	intake.IsHere:       "is here: {0}, and that job is open",
	intake.IsFresh:      "a new machine with nothing in it",
	intake.IsEncrypted:  "a disk is encrypted: have the recovery key ready",
	intake.IsOpenDisk:   "no disk is encrypted",
	intake.IsBackup:     "the backup is on {0}",
	intake.IsUntouched:  "not to be touched: {0}",
	intake.IsMemoryTest: "with a memory test",
	intake.IsSelfTest:   "with the self-test of the drives",
	intake.IsLoadTest:   "with a test under load",
}

// TookFor is some words of a line and what they were taken for.
type TookFor struct {
	Words Name `json:"words"`
	Says  Text `json:"says"`
}

// Intake is a new job as a line tells it.
type Intake struct {
	Sheet machine.ID `json:"sheet,omitempty"`
	Title Name       `json:"title,omitempty"`
	Tag   Name       `json:"tag,omitempty"`
	Owner Name       `json:"owner,omitempty"`
	Wish  rig.Wish   `json:"wish"`
	Fresh bool       `json:"fresh,omitempty"`
	Job   string     `json:"job,omitempty"`  // the latest job about this machine
	Here  bool       `json:"here,omitempty"` // and that is open
	Means []TookFor  `json:"means"`
	Open  []Text     `json:"open"` // what is to be said, or could mean two things
}

// Intake words what a line was read as.
func (l Language) Intake(in *intake.Intake) Intake {
	v := In(l, &nobody)
	out := Intake{Sheet: in.Sheet, Title: Name(in.Title), Tag: Name(in.Tag), Owner: Name(in.Owner), Wish: in.Wish, Fresh: in.Fresh, Means: make([]TookFor, len(in.Means)), Open: v.facts(in.Open)}
	if in.Seen != nil {
		out.Job, out.Here = in.Seen.Job, in.Seen.Open
	}
	for i, m := range in.Means {
		out.Means[i] = TookFor{Name(m.Words), v.Fact(m.Says)}
	}
	return out
}
