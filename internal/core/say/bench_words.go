package say

// This file words what lies about at the open machine: the tray, what is off, what happened.

import (
	"deepbay/internal/core/job"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/workorder"
)

func (v *Voice) bench(w *job.View, out *View) {
	j := &w.Job
	out.Tray, out.Off, out.Pick = make([]Cell, len(w.Tray)), make([]Off, len(w.Off)), v.Picks(w.Pick)
	for i := range w.Tray {
		c := &w.Tray[i]
		out.Tray[i] = Cell{c.N, v.Fact(c.Of), v.text(fasteners(&c.Fastener)), c.Layer, c.Fastener, StepID(c.Out), StepID(c.Back), c.Laid(j.Did)}
	}
	for i := range w.Off {
		o := &w.Off[i]
		out.Off[i] = Off{o.Layer, o.Lead, v.Fact(o.Names), StepID(o.ID)}
	}
	out.Layers = make([]layer.Layer, len(w.Layers))
	for i := range w.Layers {
		if out.Layers[i] = w.Layers[i]; out.Layers[i].Name == "" {
			out.Layers[i].Name = v.layer(w.Layers[i].ID)
		}
	}
	out.Stands = v.facts(w.Stands)
	out.Incidents, out.Differs, out.Stuck = make([]Mishap, len(j.Incidents)), make([]Observed, len(j.Differs)), make([]Observed, len(j.Stuck))
	for i := range j.Incidents {
		n := &j.Incidents[i]
		out.Incidents[i] = Mishap{n.ID, n.Kind, v.Fact(n.Says()), Name(n.Text), Name(n.By), n.Ended, n.Kind == job.Dropped && n.Ended == ""}
	}
	for i := range j.Differs {
		d := &j.Differs[i]
		out.Differs[i] = Observed{d.ID, v.Fact(d.Says(j)), Name(d.Text), Name(d.By), d.Taken, !d.Taken && (d.Gone || d.Is != nil), d.Layer}
	}
	for i := range j.Stuck {
		s := &j.Stuck[i]
		out.Stuck[i] = Observed{ID: s.ID, Says: v.Fact(s.Says(j)), Text: Name(s.Text), By: Name(s.By), Layer: s.Layer}
	}
}

// Picks words a pick list.
func (v *Voice) Picks(list []workorder.Need) []PickLine {
	out := make([]PickLine, len(list))
	for i := range list {
		n := &list[i]
		out[i] = PickLine{Sort: n.Sort, Says: v.Fact(n.Says), Count: n.Count, Have: min(n.Have, n.Count), Item: n.Item, Part: n.Want != nil}
	}
	return out
}
