package say

import (
	"strconv"
	"strings"

	"deepbay/internal/core/job"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// Volumes is what is written on the blank drives of a job.
type Volumes struct {
	Drives []Divided `json:"drives"`
	Open   []Unsaid  `json:"open"`             // drives of which nobody said what they hold
	System *SystemOn `json:"system,omitempty"` // what the drive gets that starts the machine
	Stays  []Staying `json:"stays"`            // drives that hold something, with their letters
	Says   Text      `json:"says"`             // which drives are not among them, and why
}

// SystemOn is the drive that gets the system.
type SystemOn struct {
	Before Text    `json:"before"` // what it holds now
	Name   Text    `json:"name"`
	Size   Text    `json:"size"`  // as the installer's list tells it
	Strip  []Strip `json:"strip"` // how it looks afterwards, roughly
	Says   []Text  `json:"says"`
}

// Staying is a drive that stays and holds something, or may.
type Staying struct {
	Item rig.ItemID `json:"item"`
	Name Text       `json:"name"`
	At   string     `json:"at"` // its letters or mount points, as far as somebody said
}

// Unsaid is a drive of which nobody said what it holds.
type Unsaid struct {
	Item rig.ItemID `json:"item"`
	Name Text       `json:"name"`
}

// Divided is a blank drive, or an array of them, with its volumes.
type Divided struct {
	Item    rig.ItemID    `json:"item,omitempty"`
	Array   rig.ArrayID   `json:"array,omitempty"`
	Name    Text          `json:"name"`
	Size    Text          `json:"size"`
	Before  Text          `json:"before"`
	Empties bool          `json:"empties,omitempty"` // what it holds is erased
	Planned bool          `json:"planned,omitempty"` // somebody said so; else it is what is suggested
	Layout  volume.Layout `json:"layout"`
	Strip   []Strip       `json:"strip"` // the drive to scale
	Notes   []Text        `json:"notes"`
	Faults  []Text        `json:"faults"` // what is wrong with it now
}

// Strip is a stretch of a drive.
type Strip struct {
	Kind  volume.Kind `json:"kind"`
	Share float64     `json:"share"` // of the drive, 0 to 1
	Says  Text        `json:"says"`
}

// Volumes words what is written on blank drives: as somebody said, else as is suggested for volumes of
// a file system.
func (v *Voice) Volumes(j *job.Job, fs volume.FileSystem) Volumes {
	out := Volumes{Drives: []Divided{}, Open: []Unsaid{}, Stays: []Staying{}, System: v.systemOn(j, fs), Says: v.text("Drives that hold something, or of which nobody knows what they hold, are not among these: nothing is written on them.")}
	for _, id := range j.Untold() {
		out.Open = append(out.Open, Unsaid{id, v.text(v.piece(id, "serial"))})
	}
	blanks := j.Blanks()
	var open []volume.Blank
	said := func(b *volume.Blank) *volume.Layout {
		for i := range j.Layouts {
			if l := &j.Layouts[i]; l.Item == b.Item && l.Array == b.Array {
				return l
			}
		}
		return nil
	}
	for i := range blanks {
		if said(&blanks[i]) == nil {
			open = append(open, blanks[i])
		}
	}
	taken := j.Taken()
	if fs.Lettered() {
		taken = append(taken, "C:") // of the system
	}
	for _, it := range j.Lettered() {
		out.Stays = append(out.Stays, Staying{it.ID, v.text(v.piece(it.ID, "serial")), strings.Join(it.At, " ")})
	}
	suggested := volume.Suggest(open, fs, j.Layouts, taken)
	for i := range blanks {
		b := &blanks[i]
		if l := said(b); l != nil {
			out.Drives = append(out.Drives, v.divided(b, *l, true))
			continue
		}
		out.Drives = append(out.Drives, v.divided(b, suggested[0], false))
		suggested = suggested[1:]
	}
	return out
}

// systemOn is what the drive gets that starts the machine, where the installer or a copy makes it.
func (v *Voice) systemOn(j *job.Job, fs volume.FileSystem) *SystemOn {
	id, how := j.SystemDrive()
	it := j.Item(id)
	if it == nil {
		return nil
	}
	out := &SystemOn{Name: v.text(v.piece(id, "serial")), Size: v.text("of a capacity that nobody stated"), Strip: []Strip{}, Says: []Text{}}
	out.Before = v.text(map[rig.Content]string{rig.Blank: "before: blank, no table", rig.Data: "before: data, which the install erases", rig.System: "before: a system, which the install erases"}[it.Holds])
	if it.Holds == "" {
		out.Before = v.text("before: nobody said what it holds")
	}
	size := j.Part(it.Part).Drive.CapacityBytes
	if size.Known() {
		out.Size = v.text("in the installer's list: " + size.AsSystemPrints() + ", which is " + size.Decimal())
	}
	if how == rig.CopyOver {
		out.Says = append(out.Says, v.text("Its partitions come with the copy, as they were on the old drive; where the new one is larger, the last is made larger afterwards."))
		return out
	}
	if size.Known() {
		for _, s := range volume.InstallerMakes(fs, size) {
			out.Strip = append(out.Strip, Strip{s.Kind, float64(s.Bytes) / float64(size), v.text(v.stretch(nil, &s))})
		}
	}
	out.Says = append(out.Says, v.text("The installer makes them by itself, on all of the drive; sizes differ a little from system to system."))
	if it.Serial != "" {
		out.Says = append(out.Says, v.text("Where its list shows serial numbers, it is "+it.Serial+"; where not, its size tells it from the others, or they are off meanwhile."))
	}
	return out
}

// Divide words one layout of a job, whatever is wrong with it; false is that it is of no blank drive.
func (v *Voice) Divide(j *job.Job, l volume.Layout) (Divided, bool) {
	blanks := j.Blanks()
	for i := range blanks {
		if b := &blanks[i]; b.Item == l.Item && b.Array == l.Array {
			return v.divided(b, l, false), true
		}
	}
	return Divided{}, false
}

func (v *Voice) divided(b *volume.Blank, l volume.Layout, planned bool) Divided {
	d := Divided{Item: b.Item, Array: b.Array, Planned: planned, Layout: l, Strip: []Strip{}, Notes: []Text{}, Faults: []Text{}, Size: v.text("of a capacity that nobody stated")}
	d.Before = v.text("before: blank, no table")
	if b.Item != "" && b.Held != rig.Blank {
		d.Empties, d.Before = true, v.text(map[rig.Content]string{"": "before: nobody said what it holds; all of it is erased", rig.Data: "before: data, all of which is erased", rig.System: "before: a system, all of which is erased"}[b.Held])
	}
	if d.Name = v.text("the array " + string(b.Array)); b.Item != "" {
		d.Name = v.text(v.piece(b.Item, "serial"))
	}
	for _, p := range l.Check(b.Bytes) {
		d.Faults = append(d.Faults, v.Fact(p.Fact))
	}
	if !b.Bytes.Known() {
		return d
	}
	d.Size = v.text(b.Bytes.Decimal() + ", shown as " + b.Bytes.AsSystemPrints())
	if l.Table != volume.GPT && l.Table != volume.MBR {
		return d
	}
	for _, s := range l.Draw(b.Bytes) {
		d.Strip = append(d.Strip, Strip{s.Kind, float64(s.Bytes) / float64(b.Bytes), v.text(v.stretch(&l, &s))})
		if s.Kind == volume.LostKind {
			d.Notes = append(d.Notes, v.text(s.Bytes.Decimal()+" lie beyond what the older table can name: a GPT table names all of it."))
		}
	}
	for i := range l.Volumes {
		switch w := &l.Volumes[i]; w.System {
		case volume.FAT32:
			d.Notes = append(d.Notes, v.text("FAT32 has no file of 4 GiB or more."))
		case volume.ExFAT:
			d.Notes = append(d.Notes, v.text("exFAT keeps no journal: a plug that is pulled while it writes can cost files."))
		case volume.NTFS:
			if w.Bytes == 0 && b.Bytes > 16*quantity.TiB || w.Bytes > 16*quantity.TiB {
				d.Notes = append(d.Notes, v.text("NTFS needs clusters of more than 4 KiB beyond 16 TiB: choose 8 KiB or larger when it is formatted."))
			}
		}
	}
	return d
}

func (v *Voice) stretch(l *volume.Layout, s *volume.Stretch) string {
	switch s.Kind {
	case volume.VolumeKind:
		w := &l.Volumes[s.N]
		says := "volume " + strconv.Itoa(s.N+1) + ": " + s.Bytes.Decimal() + ", shown as " + s.Bytes.AsSystemPrints() + ", " + fileSystems[w.System]
		if w.Label != "" {
			says += ", " + w.Label
		}
		if w.At != "" {
			says += ", " + w.At
		}
		return says
	case volume.FreeKind:
		return "free: " + s.Bytes.Decimal()
	case volume.StartKind:
		return "to start from: " + s.Bytes.Binary() + ", FAT32"
	case volume.ReservedKind:
		return "reserved: " + s.Bytes.Binary()
	case volume.SystemKind:
		return "the system: " + s.Bytes.Decimal() + ", shown as " + s.Bytes.AsSystemPrints()
	case volume.RecoveryKind:
		return "to recover from: " + s.Bytes.Binary()
	case volume.LostKind:
		return "beyond the table: " + s.Bytes.Decimal()
	}
	return "kept for the table: " + s.Bytes.Decimal()
}
