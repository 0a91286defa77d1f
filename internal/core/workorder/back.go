package workorder

// This file takes back what hands did and the plan asks for no more: a drive that was fitted
// and goes elsewhere now, a module that was taken out and stays after all, a setting.

import (
	"slices"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// Deed is a step that was done, with what it was about.
type Deed struct {
	Step   string        `json:"-"`
	Phase  Phase         `json:"phase,omitempty"`
	Item   rig.ItemID    `json:"item,omitempty" jsonschema:"maxLength=60"`
	Socket rig.Path      `json:"socket,omitzero" jsonschema:"maxLength=200"`
	Bay    machine.BayID `json:"bay,omitempty" jsonschema:"maxLength=40"`
	Choice rig.Choice    `json:"choice,omitzero"`
}

// DeedOf is a step as what was done.
func DeedOf(s *Step) Deed { return Deed{s.ID, s.Phase, s.Item, s.Socket, s.Bay, s.Choice} }

// back is what the steps that take a deed back begin with.
const back = "back/"

// Undoes is the step that a step takes back, "" for one that takes nothing back.
func Undoes(step string) string {
	of, ok := strings.CutPrefix(step, back)
	if !ok {
		return ""
	}
	return of
}

// leadStep begins the steps that move a data lead, unplugStep those that pull one first.
const (
	leadStep   = "fit/lead-"
	unplugStep = "take-out/lead-"
)

// MovesLead reports a step that moves or pulls a data lead and leaves the drive where it is, also one
// that takes such a step back.
func MovesLead(step string) bool {
	of := strings.TrimPrefix(step, back)
	return strings.HasPrefix(of, leadStep) || strings.HasPrefix(of, unplugStep)
}

// Fits reports a step that puts a piece into its place, or moves its data lead there.
func Fits(step string) bool { return strings.HasPrefix(step, "fit/") }

func placeStep(kind string, id rig.ItemID, at rig.Path) string {
	return kind + string(id) + "@" + at.String()
}

func settingStep(c rig.Choice) string { return "settings/" + string(c.Setting) + "=" + c.Value }

// takeBack finds the deeds that the plan asks for no more.
func (m *maker) takeBack() {
	for _, d := range m.Done {
		if of := Undoes(d.Step); of != "" { // that was taken back already, and stays to be seen
			d.Step = of
			d.Phase = map[Phase]Phase{TakeOut: Fit, Fit: TakeOut, Settings: Settings}[d.Phase]
		}
		if Opens(d.Step) || Opened(d.Step) != "" {
			continue // what is off is put back by the way back
		}
		s := Step{ID: back + d.Step, Item: d.Item, Socket: d.Socket, Bay: d.Bay, Choice: d.Choice}
		if m.listed(s.ID) || !m.unwanted(d, &s) {
			continue
		}
		if s.Phase != Fit {
			m.back = append(m.back, s)
			continue
		}
		// It goes in among the rest, each place once it is free.
		c := change{piece: *m.Planned.Piece(d.Item), back: &s, to: m.place(m.Planned.Where(d.Item))}
		if strings.HasPrefix(d.Step, leadStep) {
			c.from = m.place(d.Socket)
		}
		m.in = append(m.in, c)
	}
}

// place is a place in the machine as planned, nil for none.
func (m *maker) place(at rig.Path) *rig.Place {
	if k := m.Planned.Socket(at); k != nil {
		return &rig.Place{Path: at, Socket: *k}
	}
	return nil
}

// listed reports a step that takes back something and is in the order already.
func (m *maker) listed(id string) bool {
	return slices.ContainsFunc(m.back, func(b Step) bool { return b.ID == id }) ||
		slices.ContainsFunc(m.in, func(c change) bool { return c.back != nil && c.back.ID == id })
}

// unwanted completes the step that takes a deed back, where the plan does not ask for the deed.
func (m *maker) unwanted(d Deed, s *Step) bool {
	found, planned := m.Found.Where(d.Item), m.Planned.Where(d.Item)
	lead := strings.HasPrefix(d.Step, leadStep)
	if d.Phase != Settings {
		if m.Planned.Piece(d.Item) == nil {
			return false // it has left the job
		}
		s.Inside = m.Planned.Inside(d.Socket)
	}
	switch {
	case d.Phase == Settings:
		st := m.Sheet.Setting(d.Choice.Setting)
		if st == nil || m.Planned.Choice(st) == d.Choice.Value || m.Planned.Choice(st) != m.Found.Choice(st) {
			return false // it is wanted, or set to something else by a step of its own
		}
		s.Phase, s.Choice.Value = Settings, m.Planned.Choice(st)
		s.Do = fact.Of(SetBack, Setting(s.Choice))
	case d.Phase == TakeOut:
		if planned != d.Socket || found != d.Socket || m.comesBack(d) {
			return false
		}
		s.Phase, s.Do = Fit, fact.Of(PutBack, d.Item, d.Socket)
	case d.Phase == Fit && lead:
		if planned != found || planned.IsZero() {
			return false // another step moves the lead on
		}
		s.Phase, s.Do = Fit, fact.Of(MoveLead, d.Item, d.Socket, planned)
	case d.Phase == Fit:
		if planned == d.Socket && sameBay(d.Bay, bayOf(m.liesIn, d.Item)) {
			return false
		}
		s.Phase, s.Do = TakeOut, fact.Of(TakeOutAgain, d.Item, d.Socket)
	default:
		return false
	}
	return true
}

// comesBack reports that what was taken out lies where it lay, or the order itself puts it
// there: it was only set aside.
func (m *maker) comesBack(d Deed) bool {
	return slices.ContainsFunc(m.in, func(c change) bool { return c.piece.ID == d.Item }) ||
		slices.ContainsFunc(m.Done, func(x Deed) bool {
			return x.Phase == Fit && x.Item == d.Item && x.Socket == d.Socket && sameBay(x.Bay, d.Bay) && Undoes(x.Step) == ""
		})
}

// sameBay compares bays of deeds; those of old jobs name none.
func sameBay(a, b machine.BayID) bool { return a == b || a == "" || b == "" }

// leadAt is the port to which hands moved the data lead of a drive, zero where they did not.
func (m *maker) leadAt(id rig.ItemID) rig.Path {
	var at rig.Path
	for _, d := range m.Done {
		if d.Item == id && strings.HasPrefix(d.Step, leadStep) {
			at = d.Socket
		}
	}
	return at
}

// backAgain adds the steps of a phase that take something back.
func (m *maker) backAgain(p Phase) {
	for _, s := range m.back {
		if s.Phase != p {
			continue
		}
		if p == TakeOut && !s.Inside {
			s.How = append(s.How, fact.Of(UnmountFirst))
		}
		m.add(s)
	}
}
