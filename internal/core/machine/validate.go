package machine

// This file checks what a schema cannot: that names meet and lanes add up.

import (
	"fmt"
	"slices"
	"strconv"

	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// Validate reports everything that makes the sheet contradict itself, each with
// its place in the file.
func (s *Sheet) Validate() problem.List {
	v := validator{sheet: s}
	v.roots()
	v.groups()
	v.sockets()
	v.settings()
	v.rules()
	v.memory()
	return v.list
}

type validator struct {
	sheet *Sheet
	list  problem.List
}

func at(list string, i int, field string) string {
	p := "/" + list + "/" + strconv.Itoa(i)
	if field != "" {
		p += "/" + field
	}
	return p
}

// unique reports the second and later of two entries with one name.
func (v *validator) unique(list, id string, i int, seen map[string]int) {
	if first, ok := seen[id]; ok {
		v.list.Add(at(list, i, "id"), fmt.Sprintf("%q names entry %d too", id, first), "give each its own name")
		return
	}
	seen[id] = i
}

func (v *validator) roots() {
	seen := map[string]int{}
	cpus := 0
	for i, r := range v.sheet.Roots {
		v.unique("roots", string(r.ID), i, seen)
		if r.Kind == CPU {
			cpus++
		}
		switch {
		case r.Kind == CPU && r.Uplink != nil:
			v.list.Add(at("roots", i, "uplink"), "a processor has no uplink", "remove it")
		case r.Kind != CPU && r.Uplink == nil:
			v.list.Add(at("roots", i, ""), "a chipset hangs on an uplink", "add uplink with to, gen and lanes as far as the manual says")
		case r.Uplink != nil && v.sheet.Root(r.Uplink.To) == nil:
			v.list.Add(at("roots", i, "uplink/to"), fmt.Sprintf("no root is named %q", r.Uplink.To), "name a root of this sheet")
		case r.Uplink != nil && !v.reachesCPU(r.ID):
			v.list.Add(at("roots", i, "uplink/to"), "the uplinks run in a circle", "let one of them end at the processor")
		}
	}
	if cpus != 1 {
		v.list.Add("/roots", fmt.Sprintf("%d processors", cpus), "version 1 describes machines with one processor")
	}
}

func (v *validator) reachesCPU(id RootID) bool {
	for range v.sheet.Roots {
		r := v.sheet.Root(id)
		if r == nil || r.Uplink == nil {
			return r != nil && r.Kind == CPU
		}
		id = r.Uplink.To
	}
	r := v.sheet.Root(id)
	return r != nil && r.Kind == CPU
}

func (v *validator) groups() {
	seen := map[string]int{}
	for i, g := range v.sheet.Groups {
		v.unique("groups", string(g.ID), i, seen)
		if v.sheet.Root(g.Root) == nil {
			v.list.Add(at("groups", i, "root"), fmt.Sprintf("no root is named %q", g.Root), "name a root of this sheet")
		}
		var dealt int
		for _, k := range v.sheet.Sockets {
			if k.Group == g.ID {
				dealt += int(k.Lanes)
			}
		}
		if dealt > int(g.Lanes) {
			v.list.Add(at("groups", i, "lanes"), fmt.Sprintf("its sockets take %d lanes, the group has %d", dealt, g.Lanes), "check the widths of the sockets or of the group")
		}
	}
}

func (v *validator) sockets() {
	seen := map[string]int{}
	for i := range v.sheet.Sockets {
		k := &v.sheet.Sockets[i]
		v.unique("sockets", string(k.ID), i, seen)
		if k.Group != "" && !slices.ContainsFunc(v.sheet.Groups, func(g Group) bool { return g.ID == k.Group }) {
			v.list.Add(at("sockets", i, "group"), fmt.Sprintf("no group is named %q", k.Group), "name a lane group of this sheet")
		}
		if k.Root != "" && v.sheet.Root(k.Root) == nil {
			v.list.Add(at("sockets", i, "root"), fmt.Sprintf("no root is named %q", k.Root), "name a root of this sheet")
		}
		if k.Group != "" && k.Root != "" {
			v.list.Add(at("sockets", i, "root"), "the group already says which root feeds it", "give group or root, not both")
		}
		if k.Kind.Memory() && k.Channel == "" {
			v.list.Add(at("sockets", i, ""), "a memory slot needs its channel", "add channel, such as A")
		}
		if !k.Kind.Memory() && k.Channel != "" {
			v.list.Add(at("sockets", i, "channel"), "only memory slots are on a channel", "remove it")
		}
		if k.Kind == Slot && k.Physical.Known() && k.Lanes > k.Physical {
			v.list.Add(at("sockets", i, "lanes"), fmt.Sprintf("a slot %s long cannot carry %s", k.Physical, k.Lanes), "lanes is the wiring, physicalLanes the length")
		}
		b, p := v.sheet.Board, k.Place
		if p.XMM+p.WidthMM > b.WidthMM || p.YMM+p.HeightMM > b.HeightMM {
			v.list.Add(at("sockets", i, "place"), "it lies outside the board", fmt.Sprintf("the board is %s x %s", b.WidthMM, b.HeightMM))
		}
	}
}

func (v *validator) settings() {
	seen := map[string]int{}
	for i, s := range v.sheet.Settings {
		v.unique("settings", string(s.ID), i, seen)
		if !slices.ContainsFunc(s.Options, func(o Option) bool { return o.Value == s.Default }) {
			v.list.Add(at("settings", i, "default"), fmt.Sprintf("%q is not among its options", s.Default), "use the value of an option")
		}
	}
}

func (v *validator) rules() {
	seen := map[string]int{}
	for i, r := range v.sheet.Rules {
		v.unique("rules", r.ID, i, seen)
		for j, c := range r.When {
			v.condition(at("rules", i, "when/"+strconv.Itoa(j)), c)
		}
		for j, e := range r.Then {
			place := at("rules", i, "then/"+strconv.Itoa(j))
			narrows := e.Off || e.MaxLanes.Known() || e.MaxGen.Known() || len(e.Protocols) > 0
			switch {
			case e.Profile && (e.Socket != "" || narrows):
				v.list.Add(place, "memoryProfile stands alone", "put the socket's effect in an entry of its own")
			case !e.Profile && !narrows:
				v.list.Add(place, "nothing happens", "say off, maxLanes, maxGen, protocols or memoryProfile")
			case !e.Profile && v.sheet.Socket(e.Socket) == nil:
				v.list.Add(place+"/socket", fmt.Sprintf("no socket is named %q", e.Socket), "name a socket of this sheet")
			}
		}
	}
}

func (v *validator) condition(place string, c Condition) {
	switch {
	case (c.Socket == "") == (c.Setting == ""):
		v.list.Add(place, "a condition asks about a socket or a setting", "give socket with holds, or setting with is")
	case c.Socket != "" && v.sheet.Socket(c.Socket) == nil:
		v.list.Add(place+"/socket", fmt.Sprintf("no socket is named %q", c.Socket), "name a socket of this sheet")
	case c.Socket != "" && c.Holds == "":
		v.list.Add(place, "what the socket holds is missing", "add holds: anything, pcie or sata")
	case c.Setting != "":
		s := v.sheet.Setting(c.Setting)
		if s == nil {
			v.list.Add(place+"/setting", fmt.Sprintf("no setting is named %q", c.Setting), "name a setting of this sheet")
		} else if !slices.ContainsFunc(s.Options, func(o Option) bool { return o.Value == c.Is }) {
			v.list.Add(place+"/is", fmt.Sprintf("%q is not an option of %s", c.Is, s.ID), "use the value of an option")
		}
	}
}

func (v *validator) memory() {
	for i, f := range v.sheet.Memory.Fill {
		for j, id := range f.Slots {
			if k := v.sheet.Socket(id); k == nil || !k.Kind.Memory() {
				v.list.Add("/memory"+at("fill", i, "slots/"+strconv.Itoa(j)), fmt.Sprintf("no memory slot is named %q", id), "name a memory slot of this sheet")
			}
		}
	}
	for _, l := range []struct {
		name string
		Limit
	}{{"module", v.sheet.Memory.Module}, {"total", v.sheet.Memory.Total}} {
		if l.ProvenBytes.Known() && l.StatedBytes.Known() && l.ProvenBytes <= l.StatedBytes {
			v.list.Add("/memory/"+l.name+"/provenBytes", "no more was proven than is stated", "leave it out")
		}
		if l.ProvenBytes.Known() && l.ProvenBy == "" {
			v.list.Add("/memory/"+l.name, "the proof is not named", "add provenBy: the job that showed it")
		}
	}
}

// Largest is the more generous of stated and proven.
func (l Limit) Largest() quantity.Bytes { return max(l.StatedBytes, l.ProvenBytes) }
