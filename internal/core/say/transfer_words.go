package say

import (
	"math"
	"strconv"

	"deepbay/internal/core/job"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// needWords says how a need is met, by answer: yes, no, not known.
var needWords = map[volume.Must][3]string{
	volume.Fits:        {"it fits", "it does not fit", "whether it fits is not known: say how much lies on the old drive"},
	volume.Shrinks:     {"it fits", "it fits once its volumes are made smaller", "the new drive is smaller: say how much lies on the old one"},
	volume.Open:        {"not encrypted", "encrypted: the recovery key, and opened first", "whether it is encrypted is not known: look first"},
	volume.Named:       {"its table names all of the new drive", "the older table names 2 TiB of the new drive and no more", "which table it has is not known: the older one names 2 TiB and no more"},
	volume.StartsSo:    {"its table and the way its system starts go together", "its table and the way its system starts do not go together", "how its system starts is not known"},
	volume.Aligned:     {"its partitions begin at whole mebibytes", "its partitions begin off the mebibyte: the copy is slow on flash", "where its first partition begins is not known"},
	volume.SameSectors: {"logical sectors of one size", "logical sectors of two sizes: a clone does not work", "whether both have logical sectors of one size is not known"},
	volume.Together:    {"both are in the machine at a time", "not both in the machine as planned: the old one hangs in a USB box for the copy, or the work has two stages", ""},
	volume.SecondCopy:  {"there is a backup, as the owner says", "no backup is told of: a second copy is the first step", ""},
}

// NeedLine is something that must hold, and whether it does.
type NeedLine struct {
	Need volume.Must     `json:"need"`
	Met  quantity.Answer `json:"met,omitzero"`
	Hard bool            `json:"hard,omitempty"` // nothing can be moved so
	Says Text            `json:"says"`
}

// Moved is a transfer in words.
type Moved struct {
	Transfer volume.Transfer `json:"transfer"`
	From     Text            `json:"from"`
	To       Text            `json:"to"`
	Needs    []NeedLine      `json:"needs"`
	Time     Text            `json:"time"`
	Proof    Text            `json:"proof,omitzero"`
	Faults   []Text          `json:"faults"`
}

// Transfers is what comes over in a job, and between which drives more can.
type Transfers struct {
	Moved []Moved   `json:"moved"`
	From  []MoveEnd `json:"from"` // drives that hold something, or may
	To    []MoveEnd `json:"to"`   // blank ones
}

// MoveEnd is a drive that data can come from, or onto.
type MoveEnd struct {
	Item rig.ItemID `json:"item"`
	Name Text       `json:"name"`
}

// Transfers words what comes over in a job.
func (v *Voice) Transfers(j *job.Job) Transfers {
	out := Transfers{Moved: []Moved{}, From: []MoveEnd{}, To: []MoveEnd{}}
	for i := range j.Transfers {
		out.Moved = append(out.Moved, v.Moved(j, &j.Transfers[i]))
	}
	for i := range j.Items {
		it := &j.Items[i]
		if d := j.Part(it.Part).Drive; d == nil || d.Form.Optical() {
			continue
		}
		end := MoveEnd{it.ID, v.text(v.piece(it.ID, "serial"))}
		if it.Holds == rig.Blank || it.Holds == "" && it.New { // the step waits until somebody looked
			out.To = append(out.To, end)
		}
		if it.Holds != rig.Blank {
			out.From = append(out.From, end)
		}
	}
	return out
}

// Moved words a transfer, whatever is wrong with it.
func (v *Voice) Moved(j *job.Job, t *volume.Transfer) Moved {
	m := j.Moving(t)
	out := Moved{Transfer: *t, From: v.text(v.piece(t.From, "serial")), To: v.text(v.piece(t.To, "serial")), Needs: []NeedLine{}, Faults: []Text{}}
	for _, c := range m.Conditions {
		n := map[quantity.Answer]int{quantity.Yes: 0, quantity.No: 1, quantity.Unknown: 2}[c.Met]
		out.Needs = append(out.Needs, NeedLine{c.Need, c.Met, c.Hard, v.text(needWords[c.Need][n])})
	}
	for _, p := range t.Check() {
		out.Faults = append(out.Faults, v.Fact(p.Fact))
	}
	out.Time = v.text(moveTime(&m))
	if p := t.Proof; p != nil {
		out.Proof = v.text("proved by " + p.By + ": " + plural(int(min(p.Files, math.MaxInt32)), "file") + ", " + p.Bytes.Decimal())
	}
	return out
}

// moveTime is how long a copy takes, and by what.
func moveTime(m *job.Moving) string {
	if m.Takes == 0 {
		switch {
		case !m.Bytes.Known():
			return "How long it takes is not known: say how much lies on the old drive."
		case m.Reads == 0:
			return "How long it takes is not known: neither place, label nor measurement tells how fast the old drive is."
		}
		return "How long it takes is not known: neither place, label nor measurement tells how fast the new drive is."
	}
	says := "At least " + spanOf(float64(m.Takes)) + ", at " + m.Reads.String() + " from the old drive and " + m.Writes.String() + " onto the new one"
	if n := m.Load().Files(); n > 0 {
		says += ", and " + strconv.FormatInt(n, 10) + " files"
	}
	if !m.Measured {
		return says + ". Measure both, and it is told better: what a drive writes is less than what it reads."
	}
	return says + ", as they were measured."
}
