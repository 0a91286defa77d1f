package workorder

// This file lists the steps of a cure: the machine as it stands is shut down, opened down to the
// place, put right, closed and started. They stand after the work they belong to, safety and all.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/access"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/practice"
)

// mendStep begins the steps of a cure.
const mendStep = "mend-"

// Mends is the number of the cure that a step belongs to, and the step within it; 0 for any
// other.
func Mends(step string) (n int, within string) {
	rest, ok := strings.CutPrefix(step, mendStep)
	number, within, _ := strings.Cut(rest, "/")
	n, err := strconv.Atoi(number)
	if !ok || err != nil {
		return 0, step
	}
	return n, within
}

// CureStep is the step of a cure in which something is put right, CureSaved the one after a
// setting.
const (
	CureStep  = "cure"
	CureSaved = "saved"
)

// Mend adds the steps of a cure to an order. off is the layers that are off already: nothing
// takes them off, and they go back with the rest of the work. Where the machine was closed, the
// cure comes last; else before it is closed.
func (o *Order) Mend(j Job, n int, do Step, off []layer.ID, closed bool) {
	j.Found, j.Done, j.Back, j.Fresh, j.Again = j.Planned, nil, nil, false, false
	m := maker{Job: j, steps: []Step{}, cells: len(o.Tray)}
	m.Planned.Found = &m.Found.Setup
	m.wasIn, m.liesIn = fit.Bays(&m.Found), fit.Bays(&m.Planned)
	if m.layered() {
		m.opening.found, m.opening.planned = access.Of(&m.Found, m.wasIn, m.Barred), access.Of(&m.Planned, m.liesIn, m.Barred)
	}
	do.ID = CureStep
	switch {
	case do.Inside:
		do.Phase, m.back = Fit, []Step{do}
		m.reach()
		m.powerDown()
		m.open()
		m.add(do)
		now, then := m.opening.before(m.Practice.Of(practice.FirstStart) == practice.Closed)
		m.putTogether(now, then, Fit)
		m.powerOn(then)
		m.close(then)
	case do.Choice.Setting != "":
		do.Phase = Settings
		m.setUp(fact.Of(RestartSetUp))
		m.add(do)
		m.add(Step{ID: CureSaved, Phase: Settings, Do: fact.Of(SaveLeave)})
	default:
		do.Phase = PowerOn
		m.add(do)
	}
	named := func(id string) string { return mendStep + strconv.Itoa(n) + "/" + id }
	var steps []Step
	for _, s := range m.steps {
		if s.Layer != "" && slices.Contains(off, s.Layer) {
			continue
		}
		s.ID = named(s.ID)
		steps = append(steps, s)
	}
	for i := range m.tray {
		m.tray[i].Out, m.tray[i].Back = named(m.tray[i].Out), named(m.tray[i].Back)
	}
	at := len(o.Steps)
	if i := slices.IndexFunc(o.Steps, func(s Step) bool { k, _ := Mends(s.ID); return k == 0 && s.Phase == Close }); i >= 0 && !closed {
		at = i
	}
	o.Steps = slices.Insert(slices.Clone(o.Steps), at, steps...)
	o.Tray = append(slices.Clone(o.Tray), m.tray...)
	o.Lost = append(slices.Clone(o.Lost), m.opening.lost...)
	for _, l := range m.opening.planned.Layers {
		if !slices.ContainsFunc(o.Layers, func(f layer.Layer) bool { return f.ID == l.ID }) {
			o.Layers = append(o.Layers, l)
		}
	}
}
