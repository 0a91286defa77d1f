package workorder

// This file is what is done once the machine shows what was fitted: arrays are made, and the
// system comes onto its drive.

import (
	"slices"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// arrays asks for the arrays that are new in the plan, those of firmware or those of the system: all
// members of which lie in it, and not all of which lay in it before.
func (m *maker) arrays(system bool) {
	for i := range m.Planned.Arrays {
		a := &m.Planned.Arrays[i]
		there, was := true, true
		for _, id := range a.Members {
			there = there && !m.Planned.Where(id).IsZero()
			was = was && !m.Found.Where(id).IsZero()
		}
		if !there || was || a.By == rig.BySystem != system {
			continue
		}
		if system {
			s := Step{ID: "system/array-" + string(a.ID), Phase: System, Do: fact.Of(MakeArray, fact.Typed(a.Level), a.Members), How: []fact.Fact{fact.Of(ArrayBySystem), fact.Of(ArrayBySerial)}, Cautions: []Caution{cautionTarget}}
			if a.Level == rig.Stripe || a.Level == rig.Joined {
				s.How = append(s.How, fact.Of(StripeLoses))
			}
			m.target(&s, a.Members...)
			m.add(s)
			continue
		}
		s := Step{ID: "settings/array-" + string(a.ID), Phase: Settings, Do: fact.Of(MakeArray, fact.Typed(a.Level), a.Members),
			How: []fact.Fact{fact.Of(ArrayByMenu), fact.Of(ArrayBySerial)}, Cautions: []Caution{cautionArray}}
		if m.Practice.Of(practice.Array) == practice.Apart {
			s.How = append(s.How, fact.Of(ArrayByOwner))
		}
		if a.Level == rig.Stripe || a.Level == rig.Joined {
			s.How = append(s.How, fact.Of(StripeLoses))
		}
		m.target(&s, a.Members...)
		m.add(s)
	}
}

// others reports that other drives lie in the machine as planned.
func (m *maker) others(but rig.ItemID) bool {
	return slices.ContainsFunc(m.Planned.Pieces, func(p rig.Piece) bool {
		return p.ID != but && p.Part.Drive != nil && !p.Part.Drive.Form.Optical() && !m.Planned.Where(p.ID).IsZero()
	})
}

// system asks for the system to come onto its drive, in the last stage: as somebody said, or by the
// shop's practice.
func (m *maker) system() {
	st := m.Planned.Wish.Starts
	clones := func(id rig.ItemID) bool { // the clone brings the system along
		return slices.ContainsFunc(m.Transfers, func(t Transfer) bool { return t.How == volume.Clone && t.To == id })
	}
	switch {
	case !m.Last:
	case st.How == "":
		m.systemBySchool()
	case st.Array != "" && (st.How == rig.Install || st.How == rig.CopyOver):
		s := Step{ID: "system/" + string(st.How), Phase: System, Do: fact.Of(InstallArray), How: []fact.Fact{fact.Of(DriverStick)}, Cautions: []Caution{cautionTarget}}
		if n := slices.IndexFunc(m.Planned.Arrays, func(a rig.DriveArray) bool { return a.ID == st.Array }); n >= 0 {
			m.target(&s, m.Planned.Arrays[n].Members...)
		}
		m.add(s)
	case st.How == rig.Install:
		m.install(st.Item)
	case st.How == rig.CopyOver && !clones(st.Item):
		m.copyOver(st.Item)
	}
}

// install puts a fresh system onto a drive.
func (m *maker) install(id rig.ItemID) {
	s := Step{ID: "system/" + string(rig.Install), Phase: System, Do: fact.Of(InstallOn, id), How: []fact.Fact{fact.Of(ChooseBySerial)}, Item: id, Socket: m.Planned.Where(id), Cautions: []Caution{cautionTarget}}
	if m.needsDriver() {
		s.How = append(s.How, fact.Of(DriverStick))
	}
	m.target(&s, id)
	off := m.Practice.Of(practice.OldDrive) == practice.Unplugged && m.others(id)
	if off {
		m.add(m.othersStep("system/others-off", OthersOff, id))
	}
	m.add(s)
	if off {
		m.add(m.othersStep("system/others-on", OthersOn, id))
	}
}

// othersStep takes every other drive off for the installer, or puts them back.
func (m *maker) othersStep(id string, do fact.Code, but rig.ItemID) Step {
	s := Step{ID: id, Phase: System, Do: fact.Of(do), Cautions: []Caution{cautionMains}}
	for i := range m.Planned.Pieces {
		p := &m.Planned.Pieces[i]
		if d := p.Part.Drive; d != nil && p.ID != but && !d.Form.Optical() && !m.Planned.Where(p.ID).IsZero() {
			s.How = append(s.How, fact.Of(OtherAt, p.ID, m.Planned.Where(p.ID)))
		}
	}
	if do == OthersOff {
		s.How = append(s.How, fact.Of(OrInSetUp))
	}
	return s
}

// needsDriver reports that the controller is planned in a mode in which installers may lack its
// driver: one of arrays, or that maps drives elsewhere.
func (m *maker) needsDriver() bool {
	for i := range m.Sheet.Settings {
		st := &m.Sheet.Settings[i]
		value := strings.ToLower(m.Planned.Choice(st))
		switch {
		case st.Role == machine.StorageMode && (strings.Contains(value, "raid") || strings.Contains(value, "array")):
			return true
		case st.Role == machine.Remapping && m.Planned.Choice(st) != st.Default:
			return true
		}
	}
	return false
}

// copyOver copies the old system drive onto a new one.
func (m *maker) copyOver(id rig.ItemID) {
	s := Step{ID: "system/" + string(rig.CopyOver), Phase: System, Do: fact.Of(CopyOnto, id), How: []fact.Fact{fact.Of(CopyWhole), fact.Of(StartAlone)}, Item: id, Socket: m.Planned.Where(id), Cautions: []Caution{cautionTarget}}
	if m.Planned.Wish.Encrypted != quantity.No {
		s.Cautions = append(s.Cautions, cautionKey)
	}
	m.target(&s, id)
	m.add(s)
}

// target names the drives that a step erases by size and serial number, and asks for the ends of
// those numbers before it counts as done.
func (m *maker) target(s *Step, items ...rig.ItemID) {
	for _, id := range items {
		p := m.Planned.Piece(id)
		if p == nil || p.Part.Drive == nil {
			continue
		}
		s.How = append(s.How, sized(TargetIs, TargetOnly, p))
		if end := volume.Ending(p.Serial); end != "" && !slices.Contains(s.Confirm, end) {
			s.Confirm = append(s.Confirm, end)
		}
	}
}

// sized names a drive with its capacity, or without where that is not known.
func sized(with, without fact.Code, p *rig.Piece) fact.Fact {
	if c := p.Part.Drive.CapacityBytes; c.Known() {
		return fact.Of(with, p.ID, c)
	}
	return fact.Of(without, p.ID)
}

// DivideStep is the step that writes a layout.
func DivideStep(l *volume.Layout) string {
	if l.Array != "" {
		return "volumes/array-" + string(l.Array)
	}
	return "volumes/" + string(l.Item)
}

// volumes asks for volumes on blank drives, one drive a step, after the system is on its own. Drives
// that hold something are named only to be left alone.
func (m *maker) volumes() {
	for i := range m.Layouts {
		l := &m.Layouts[i]
		s := Step{ID: DivideStep(l), Phase: System, Do: fact.Of(DivideDrive, l.Item, fact.Typed(l.Table)), Item: l.Item, Cautions: []Caution{cautionTarget}}
		members := []rig.ItemID{l.Item}
		size := quantity.Bytes(0)
		if n := slices.IndexFunc(m.Planned.Arrays, func(a rig.DriveArray) bool { return l.Array != "" && a.ID == l.Array }); n >= 0 {
			a := &m.Planned.Arrays[n]
			members, size = a.Members, m.Planned.ArrayBytes(a)
			s.Do = fact.Of(DivideArray, fact.Typed(a.Level), fact.Typed(l.Table))
		} else if p := m.Planned.Piece(l.Item); p != nil && p.Part.Drive != nil {
			size, s.Socket = p.Part.Drive.CapacityBytes, m.Planned.Where(l.Item)
		}
		m.target(&s, members...)
		for _, p := range m.Planned.Pieces {
			if p.Part.Drive != nil && !slices.Contains(members, p.ID) && p.Holds != rig.Blank && !m.Planned.Where(p.ID).IsZero() && !p.Part.Drive.Form.Optical() {
				s.How = append(s.How, sized(NotThisOne, NotThisAtAll, &p))
			}
		}
		for _, x := range l.Draw(size) {
			if x.Kind == volume.VolumeKind {
				v := &l.Volumes[x.N]
				s.How = append(s.How, fact.Of(MakeVolume, x.N+1, x.Bytes, fact.Typed(v.System), fact.Typed(v.Label), fact.Typed(v.At)))
			}
		}
		s.See = fact.Of(VolumesSeen)
		m.add(s)
	}
}
