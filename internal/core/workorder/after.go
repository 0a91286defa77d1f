package workorder

// This file is what is done once the machine shows what was fitted: arrays are made, and the
// system comes onto its drive.

import (
	"slices"
	"strings"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// arrays asks for the arrays that are new in the plan, those of firmware or those of the system: all
// members of which are in it, and not all of which were in it before. One that came with its data is
// never made anew.
func (m *maker) arrays(system bool) {
	for i := range m.Planned.Arrays {
		a := &m.Planned.Arrays[i]
		there, was := true, true
		for _, id := range a.Members {
			there = there && !m.Planned.Where(id).IsZero()
			was = was && !m.Found.Where(id).IsZero()
		}
		if !there || was || a.Came || a.By == rig.BySystem != system {
			continue
		}
		s := Step{ID: "settings/array-" + string(a.ID), Phase: Settings, Do: fact.Of(MakeArray, fact.Typed(a.Level), a.Members),
			How: []fact.Fact{fact.Of(ArrayByMenu), fact.Of(ArrayBySerial)}, Cautions: []Caution{cautionArray}}
		if system {
			s.ID, s.Phase, s.How[0], s.Cautions = "system/array-"+string(a.ID), System, fact.Of(ArrayBySystem), []Caution{cautionTarget}
		} else if m.Practice.Of(practice.Array) == practice.Apart {
			s.How = append(s.How, fact.Of(ArrayByOwner))
		}
		if a.Level == rig.Stripe || a.Level == rig.Joined {
			s.How = append(s.How, fact.Of(StripeLoses))
		}
		if n := m.Planned.ArrayBytes(a); n.Known() {
			s.How = append(s.How, fact.Of(ArraySize, n))
		}
		m.erases(s, data.Act{What: data.Erases}, nil, a.Members...)
	}
}

// erases adds a step that writes over drives. Every one goes through here: it names each target, each
// drive that must not be taken for one, and takes off beforehand what could be. needed is the drives
// that must run meanwhile, such as the source of a copy.
func (m *maker) erases(s Step, how data.Act, needed []rig.ItemID, targets ...rig.ItemID) {
	for _, id := range targets {
		e := how
		e.Item = id
		s.Effects = append(s.Effects, e)
		if p := m.Planned.Piece(id); p != nil && p.Part.Drive != nil {
			s.How = append(s.How, sized(TargetIs, TargetOnly, p))
		}
	}
	others := m.drives(append(slices.Clone(needed), targets...)...)
	var off []*rig.Piece
	for _, p := range others {
		if m.installs(&s) && m.Practice.Of(practice.OldDrive) == practice.Unplugged || slices.ContainsFunc(targets, func(id rig.ItemID) bool { return alike(p, m.Planned.Piece(id)) }) {
			off = append(off, p)
		} else {
			s.How = append(s.How, sized(NotThisOne, NotThisAtAll, p))
		}
	}
	for _, id := range needed {
		if p := m.piece(id); p != nil && p.Part.Drive != nil && !slices.Contains(targets, id) && how.From != id {
			s.How = append(s.How, sized(NotThisOne, NotThisAtAll, p))
		}
	}
	if len(off) == 0 {
		m.add(s)
		return
	}
	do, on, before, after := OthersOff, OthersOn, "system/others-off", "system/others-on"
	if !m.installs(&s) {
		do, on, before, after = AlikeOff, AlikeOn, "off/"+s.ID, "on/"+s.ID
	}
	m.add(m.connection(before, do, data.Disconnects, off, s.Phase))
	m.add(s)
	back := m.connection(after, on, data.Connects, off, s.Phase)
	if m.installs(&s) { // the new drive must start the machine by itself before an old one can hide that it does not
		m.add(Step{ID: AloneStep, Phase: System, Do: fact.Of(AloneFirst, targets), How: []fact.Fact{fact.Of(AloneWhy)}, Needs: []string{s.ID}, See: fact.Of(AloneSeen)})
		back.Needs = []string{AloneStep}
	}
	m.add(back)
}

// AloneStep is the start from the new system drive with no other connected.
const AloneStep = "system/alone"

// installs reports a step that puts a system onto its drive.
func (m *maker) installs(s *Step) bool {
	return s.ID == "system/"+string(rig.Install)
}

// alike reports that two drives could be taken for one another by a screen: they are of one size, or
// of an unknown one, and not both have a serial number that tells them apart.
func alike(a, b *rig.Piece) bool {
	if b == nil || b.Part.Drive == nil {
		return false
	}
	x, y := a.Part.Drive.CapacityBytes, b.Part.Drive.CapacityBytes
	if x.Known() && y.Known() && x != y {
		return false
	}
	end := volume.Ending(b.Serial)
	return end == "" || volume.Ending(a.Serial) == "" || end == volume.Ending(a.Serial)
}

// drives is the drives of the machine as planned, some left out.
func (m *maker) drives(but ...rig.ItemID) []*rig.Piece {
	var out []*rig.Piece
	for i := range m.Planned.Pieces {
		p := &m.Planned.Pieces[i]
		if d := p.Part.Drive; d != nil && !slices.Contains(but, p.ID) && !d.Form.Optical() && !m.Planned.Where(p.ID).IsZero() {
			out = append(out, p)
		}
	}
	return out
}

// connection takes drives off for a while, or connects them again.
func (m *maker) connection(id string, do fact.Code, what data.What, off []*rig.Piece, p Phase) Step {
	s := Step{ID: id, Phase: p, Do: fact.Of(do), Cautions: []Caution{cautionMains}}
	for _, d := range off {
		s.How = append(s.How, fact.Of(OtherAt, d.ID, m.Planned.Where(d.ID)))
		s.Effects = append(s.Effects, data.Act{What: what, Item: d.ID})
	}
	if what == data.Disconnects {
		s.How = append(s.How, fact.Of(OrInSetUp))
	}
	return s
}

// system asks for the system to come onto its drive, in the stage in which that drive comes: as
// somebody said, or by the shop's practice.
func (m *maker) system() {
	st := m.Planned.Wish.Starts
	clones := func(id rig.ItemID) bool { // the clone brings the system along
		return slices.ContainsFunc(m.Transfers, func(t Transfer) bool { return t.How == volume.Clone && t.To == id })
	}
	switch {
	case !m.System:
	case st.How == "":
		m.systemBySchool()
	case st.Array != "" && (st.How == rig.Install || st.How == rig.CopyOver):
		s := Step{ID: "system/" + string(st.How), Phase: System, Do: fact.Of(InstallArray), How: []fact.Fact{fact.Of(DriverStick)}, Cautions: []Caution{cautionTarget}}
		if n := slices.IndexFunc(m.Planned.Arrays, func(a rig.DriveArray) bool { return a.ID == st.Array }); n >= 0 {
			a := &m.Planned.Arrays[n]
			if size := m.Planned.ArrayBytes(a); size.Known() {
				s.How = append(s.How, fact.Of(ArraySize, size))
			}
			m.erases(s, data.Act{What: data.Erases}, m.source(st), a.Members...)
		}
	case st.How == rig.Install:
		m.install(st.Item)
	case st.How == rig.CopyOver && !clones(st.Item):
		m.copyOver(st.Item)
	}
}

// source is the drives that must run while a system is copied over: none for an installer.
func (m *maker) source(st rig.Start) []rig.ItemID {
	var out []rig.ItemID
	if st.How == rig.CopyOver || st.How == "" {
		for _, p := range m.drives(st.Item) {
			if p.Holds == rig.System || p.Holds == "" && !m.Found.Where(p.ID).IsZero() {
				out = append(out, p.ID)
			}
		}
	}
	return out
}

// install puts a fresh system onto a drive.
func (m *maker) install(id rig.ItemID) {
	s := Step{ID: "system/" + string(rig.Install), Phase: System, Do: fact.Of(InstallOn, id), How: []fact.Fact{fact.Of(ChooseBySerial)}, Item: id, Socket: m.Planned.Where(id), Cautions: []Caution{cautionTarget}}
	if m.needsDriver() {
		s.How = append(s.How, fact.Of(DriverStick))
	}
	m.erases(s, data.Act{What: data.Erases}, nil, id)
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
	m.erases(s, data.Act{What: data.Erases}, m.source(rig.Start{Item: id}), id)
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

// volumes asks for volumes, one drive a step: on blank drives after the system is on its own, and on
// drives that hold something after all of it has arrived elsewhere.
func (m *maker) volumes(emptied bool) {
	for i := range m.Layouts {
		l := &m.Layouts[i]
		s := Step{ID: DivideStep(l), Phase: System, Do: fact.Of(DivideDrive, l.Item, fact.Typed(l.Table)), Item: l.Item, Cautions: []Caution{cautionTarget}}
		members := []rig.ItemID{l.Item}
		size := quantity.Bytes(0)
		if n := slices.IndexFunc(m.Planned.Arrays, func(a rig.DriveArray) bool { return l.Array != "" && a.ID == l.Array }); n >= 0 {
			a := &m.Planned.Arrays[n]
			members, size = a.Members, m.Planned.ArrayBytes(a)
			s.Do = fact.Of(DivideArray, fact.Typed(a.Level), fact.Typed(l.Table))
			if size.Known() {
				s.How = append(s.How, fact.Of(ArraySize, size))
			}
		} else if p := m.Planned.Piece(l.Item); p != nil && p.Part.Drive != nil {
			size, s.Socket = p.Part.Drive.CapacityBytes, m.Planned.Where(l.Item)
		}
		empties := false
		for _, t := range m.Transfers {
			if slices.Contains(members, t.From) {
				empties, s.Needs = true, append(s.Needs, ProveStep(t.ID))
			}
		}
		for _, id := range members {
			if p := m.Planned.Piece(id); p != nil && p.Holds != rig.Blank && !m.wrote(l) {
				empties = true
			}
		}
		if empties != emptied {
			continue
		}
		if empties && l.Item != "" {
			s.Do = fact.Of(EmptyDrive, l.Item, fact.Typed(l.Table))
		}
		for _, x := range l.Draw(size) {
			if x.Kind == volume.VolumeKind {
				v := &l.Volumes[x.N]
				s.How = append(s.How, fact.Of(MakeVolume, x.N+1, x.Bytes, fact.Typed(v.System), fact.Typed(v.Label), fact.Typed(v.At)))
			}
		}
		s.See = fact.Of(VolumesSeen)
		m.erases(s, data.Act{What: data.Erases}, m.running(members), members...)
	}
}

// wrote reports that a layout was written already: what its drives hold came after it.
func (m *maker) wrote(l *volume.Layout) bool { return m.isDone(DivideStep(l)) }

// running is the drives besides some that the system runs from while they get volumes: they stay on.
func (m *maker) running(but []rig.ItemID) []rig.ItemID {
	var out []rig.ItemID
	for _, p := range m.drives(but...) {
		if p.Holds == rig.System || p.ID == m.Planned.Wish.Starts.Item {
			out = append(out, p.ID)
		}
	}
	return out
}
