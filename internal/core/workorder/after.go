package workorder

// This file is what is done once the machine shows what was fitted: arrays are made, and the
// system comes onto its drive.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// arrays asks for the arrays that are new in the plan: all members of which lie in it, and not
// all of which lay in it before.
func (m *maker) arrays() {
	for i := range m.Planned.Arrays {
		a := &m.Planned.Arrays[i]
		there, was := true, true
		for _, id := range a.Members {
			there = there && !m.Planned.Where(id).IsZero()
			was = was && !m.Found.Where(id).IsZero()
		}
		if !there || was {
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
	switch {
	case !m.Last:
	case st.How == "":
		m.systemBySchool()
	case st.Array != "" && (st.How == rig.Install || st.How == rig.CopyOver):
		m.add(Step{ID: "system/" + string(st.How), Phase: System, Do: fact.Of(InstallArray), How: []fact.Fact{fact.Of(DriverStick)}, Cautions: []Caution{cautionTarget}})
	case st.How == rig.Install:
		m.install(st.Item)
	case st.How == rig.CopyOver:
		m.copyOver(st.Item)
	}
}

// install puts a fresh system onto a drive.
func (m *maker) install(id rig.ItemID) {
	s := Step{ID: "system/" + string(rig.Install), Phase: System, Do: fact.Of(InstallOn, id), How: []fact.Fact{fact.Of(ChooseBySerial)}, Item: id, Socket: m.Planned.Where(id), Cautions: []Caution{cautionTarget}}
	if m.Practice.Of(practice.OldDrive) == practice.Unplugged && m.others(id) {
		s.How = append(s.How, fact.Of(OthersOff))
	}
	m.add(s)
}

// copyOver copies the old system drive onto a new one.
func (m *maker) copyOver(id rig.ItemID) {
	s := Step{ID: "system/" + string(rig.CopyOver), Phase: System, Do: fact.Of(CopyOnto, id), How: []fact.Fact{fact.Of(CopyWhole), fact.Of(StartAlone)}, Item: id, Socket: m.Planned.Where(id), Cautions: []Caution{cautionTarget}}
	if m.Planned.Wish.Encrypted != quantity.No {
		s.Cautions = append(s.Cautions, cautionKey)
	}
	m.add(s)
}
