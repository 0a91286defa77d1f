package job

// This file compares the two usual answers to "and the old modules?": out, or kept.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/workorder"
)

// Variant is one way to arrange the memory, with what it comes to and the moves
// that lead there from the plan as it is.
type Variant struct {
	Name    fact.Fact
	Memory  fit.MemoryAnswer
	Slots   []rig.Placement
	Moves   []rig.Move
	Current bool
}

// variants is empty unless the job has both old and new modules.
func variants(j *Job) []Variant {
	var old, fresh []rig.ItemID
	for _, it := range j.Items {
		if p := j.Part(it.Part); p == nil || p.Module == nil {
			continue
		}
		if it.New {
			fresh = append(fresh, it.ID)
		} else {
			old = append(old, it.ID)
		}
	}
	if len(old) == 0 || len(fresh) == 0 {
		return []Variant{}
	}
	without := arrange(j, fresh)
	with := slices.Clone(without)
	var loose []rig.ItemID // old ones that have no place beside the new ones yet
	for _, id := range old {
		if at := j.Planned.Where(id); memorySlot(j, at) && rig.ItemIn(with, at) == "" {
			with = append(with, rig.Placement{Item: id, Socket: at})
		} else {
			loose = append(loose, id)
		}
	}
	with = spread(j, with, loose)
	out := []Variant{}
	for _, v := range []struct {
		name  fact.Code
		slots []rig.Placement
	}{{NewAlone, without}, {OldAsWell, with}} {
		if len(v.slots) == 0 || len(out) == 1 && len(v.slots) == len(out[0].Slots) {
			continue // no room for any, or none for the old ones
		}
		out = append(out, variant(j, v.name, v.slots))
	}
	return out
}

func variant(j *Job, name fact.Code, slots []rig.Placement) Variant {
	v := Variant{Name: fact.Of(name), Slots: slots, Moves: []rig.Move{}}
	for _, p := range slots {
		if !slices.Contains(j.Planned.Placements, p) {
			v.Moves = append(v.Moves, rig.Move{Item: p.Item, Socket: p.Socket})
		}
	}
	for _, p := range j.Planned.Placements {
		if memorySlot(j, p.Socket) && rig.PlaceOf(slots, p.Item).IsZero() {
			v.Moves = append(v.Moves, rig.Move{Item: p.Item})
		}
	}
	r := j.PlannedRig()
	if after, _, err := r.Moved(v.Moves); err == nil {
		r.Setup = after
	}
	v.Memory = fit.Resolve(&r).Memory
	v.Current = len(v.Moves) == 0
	return v
}

// memorySlot reports a place for modules; the mat is none.
func memorySlot(j *Job, at rig.Path) bool {
	k := j.Sheet.Socket(at.Top())
	return k != nil && k.Kind.Memory() && !at.Nested()
}

// arrange leaves modules where they are planned if all of them are; otherwise it
// puts them where the sheet says, and where the sheet is silent as the shop does.
func arrange(j *Job, modules []rig.ItemID) []rig.Placement {
	var planned []rig.Placement
	for _, id := range modules {
		if at := j.Planned.Where(id); memorySlot(j, at) {
			planned = append(planned, rig.Placement{Item: id, Socket: at})
		}
	}
	if len(planned) == len(modules) {
		return planned
	}
	want, _ := j.Sheet.OrderOrGuess(len(modules), workorder.Seconds(j.Practice))
	var out []rig.Placement
	for i := 0; i < min(len(modules), len(want)); i++ {
		out = append(out, rig.Placement{Item: modules[i], Socket: rig.On(want[i])})
	}
	return out
}

// spread adds modules to free slots, each to the channel that holds least, the
// board's order breaking ties.
func spread(j *Job, have []rig.Placement, modules []rig.ItemID) []rig.Placement {
	out := slices.Clone(have)
	size := func(id rig.ItemID) int64 { return int64(j.Part(j.Item(id).Part).Module.SizeBytes) }
	load := map[machine.ChannelID]int64{}
	for _, p := range out {
		load[j.Sheet.Socket(p.Socket.Top()).Channel] += size(p.Item)
	}
	for _, id := range modules {
		var best *machine.Socket
		for i := range j.Sheet.Sockets {
			k := &j.Sheet.Sockets[i]
			if k.Kind.Memory() && rig.ItemIn(out, rig.On(k.ID)) == "" && (best == nil || load[k.Channel] < load[best.Channel]) {
				best = k
			}
		}
		if best == nil {
			break
		}
		out = append(out, rig.Placement{Item: id, Socket: rig.On(best.ID)})
		load[best.Channel] += size(id)
	}
	return out
}
