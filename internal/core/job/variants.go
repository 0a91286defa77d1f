package job

// This file compares the two usual answers to "and the old modules?": out, or kept.

import (
	"slices"

	"deepbay/internal/core/build"
	"deepbay/internal/core/machine"
)

// Variant is one way to arrange the memory, with what it comes to and the moves
// that lead there from the plan as it is.
type Variant struct {
	Name    string             `json:"name"`
	Memory  build.MemoryAnswer `json:"memory"`
	Slots   []build.Placement  `json:"slots"`
	Moves   []build.Move       `json:"moves"`
	Current bool               `json:"current"`
}

// variants is empty unless the job has both old and new modules.
func variants(j *Job) []Variant {
	var old, fresh []build.ItemID
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
	var loose []build.ItemID // old ones that have no place beside the new ones yet
	for _, id := range old {
		if i := j.Planned.where(id); i >= 0 && !taken(with, j.Planned.Placements[i].Socket) {
			with = append(with, j.Planned.Placements[i])
		} else {
			loose = append(loose, id)
		}
	}
	with = spread(j, with, loose)
	out := []Variant{}
	for _, v := range []struct {
		name  string
		slots []build.Placement
	}{{"New modules alone", without}, {"Old modules kept as well", with}} {
		if len(v.slots) == 0 || len(out) == 1 && len(v.slots) == len(out[0].Slots) {
			continue // no room for any, or none for the old ones
		}
		out = append(out, variant(j, v.name, v.slots))
	}
	return out
}

func variant(j *Job, name string, slots []build.Placement) Variant {
	rest := slices.DeleteFunc(slices.Clone(j.Planned.Placements), func(p build.Placement) bool {
		k := j.Sheet.Socket(p.Socket)
		return k != nil && k.Kind.Memory()
	})
	b := j.build(Setup{append(rest, slots...), j.Planned.Settings})
	v := Variant{Name: name, Memory: build.Resolve(&b).Memory, Slots: slots, Moves: []build.Move{}}
	for _, p := range slots {
		if !slices.Contains(j.Planned.Placements, p) {
			v.Moves = append(v.Moves, build.Move{Item: p.Item, Socket: p.Socket})
		}
	}
	for _, p := range j.Planned.Placements {
		k := j.Sheet.Socket(p.Socket)
		if k != nil && k.Kind.Memory() && !slices.ContainsFunc(slots, func(q build.Placement) bool { return q.Item == p.Item }) {
			v.Moves = append(v.Moves, build.Move{Item: p.Item})
		}
	}
	v.Current = len(v.Moves) == 0
	return v
}

// arrange leaves modules where they are planned if all of them are; otherwise it
// puts them where the sheet says, and where the sheet is silent in board order.
func arrange(j *Job, modules []build.ItemID) []build.Placement {
	var planned []build.Placement
	for _, id := range modules {
		if i := j.Planned.where(id); i >= 0 {
			planned = append(planned, j.Planned.Placements[i])
		}
	}
	if len(planned) == len(modules) {
		return planned
	}
	want, _ := j.Sheet.OrderOrGuess(len(modules))
	var out []build.Placement
	for i := 0; i < min(len(modules), len(want)); i++ {
		out = append(out, build.Placement{Item: modules[i], Socket: want[i]})
	}
	return out
}

// spread adds modules to free slots, each to the channel that holds least, the
// board's order breaking ties.
func spread(j *Job, have []build.Placement, modules []build.ItemID) []build.Placement {
	out := slices.Clone(have)
	size := func(id build.ItemID) int64 { return int64(j.Part(j.Item(id).Part).Module.SizeBytes) }
	load := map[machine.ChannelID]int64{}
	for _, p := range out {
		load[j.Sheet.Socket(p.Socket).Channel] += size(p.Item)
	}
	for _, id := range modules {
		var best *machine.Socket
		for i := range j.Sheet.Sockets {
			k := &j.Sheet.Sockets[i]
			if k.Kind.Memory() && !taken(out, k.ID) && (best == nil || load[k.Channel] < load[best.Channel]) {
				best = k
			}
		}
		if best == nil {
			break
		}
		out = append(out, build.Placement{Item: id, Socket: best.ID})
		load[best.Channel] += size(id)
	}
	return out
}

func taken(placed []build.Placement, id machine.SocketID) bool {
	return slices.ContainsFunc(placed, func(p build.Placement) bool { return p.Socket == id })
}
