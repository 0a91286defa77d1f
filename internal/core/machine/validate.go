package machine

// This file checks what a schema cannot: that names meet and lanes add up.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// Validate reports everything that makes the sheet contradict itself, each with
// its place in the file.
func (s *Sheet) Validate() problem.List {
	v := validator{sheet: s}
	seen := map[string]int{}
	for i, p := range s.Processors {
		v.unique("processors", string(p.ID), i, seen)
	}
	v.roots()
	v.groups()
	v.sockets()
	v.bays()
	v.settings()
	v.rules()
	v.memory()
	v.list = append(v.list, layer.Check(s.Layers, s.Places()).Under("/layers")...)
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
		v.list.Add(at(list, i, "id"), fact.Of(NamedTwice, id, int(first)))
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
			v.list.Add(at("roots", i, "uplink"), fact.Of(ProcessorWithUplink))
		case r.Kind != CPU && r.Uplink == nil:
			v.list.Add(at("roots", i, ""), fact.Of(ChipsetWithoutUplink))
		case r.Uplink != nil && v.sheet.Root(r.Uplink.To) == nil:
			v.list.Add(at("roots", i, "uplink/to"), fact.Of(NoRootIsNamed, r.Uplink.To))
		case r.Uplink != nil && !v.reachesCPU(r.ID):
			v.list.Add(at("roots", i, "uplink/to"), fact.Of(UplinksInCircle))
		}
	}
	if cpus != 1 {
		v.list.Add("/roots", fact.Of(NotOneProcessor, int(cpus)))
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
			v.list.Add(at("groups", i, "root"), fact.Of(NoRootIsNamed, g.Root))
		}
		v.lanes(i, g)
	}
}

// lanes checks that a group hands out no lane it does not have, and none twice
// without a rule that takes it from one of the two.
func (v *validator) lanes(i int, g Group) {
	var own []*Socket
	placed := false
	for j := range v.sheet.Sockets {
		if k := &v.sheet.Sockets[j]; k.Group == g.ID {
			own = append(own, k)
			placed = placed || k.FirstLane > 0
		}
	}
	if !placed { // no lane numbers are given: the sum must do
		dealt := 0
		for n, a := range own {
			if !v.instead(own, n) {
				dealt += int(a.Lanes)
			}
		}
		if dealt > int(g.Lanes) {
			v.list.Add(at("groups", i, "lanes"), fact.Of(MoreThanGroup, int(dealt), int(g.Lanes)))
		}
		return
	}
	for n, a := range own {
		if a.FirstLane+int(a.Lanes) > int(g.Lanes) {
			v.list.Add(at("groups", i, "lanes"), fact.Of(BeyondGroup, a.ID, int(a.FirstLane+int(a.Lanes)-1), int(g.Lanes-1)))
		}
		for _, b := range own[n+1:] {
			if a.FirstLane < b.FirstLane+int(b.Lanes) && b.FirstLane < a.FirstLane+int(a.Lanes) && !v.yields(a, b) && !v.yields(b, a) {
				v.list.Add(at("groups", i, ""), fact.Of(LanesClaimedTwice, a.ID, b.ID))
			}
		}
	}
}

// instead reports whether socket n only ever has its lanes instead of a wider one
// of the group, or an earlier one as wide: a rule lets one of the two live.
func (v *validator) instead(own []*Socket, n int) bool {
	a := own[n]
	for m, b := range own {
		if (b.Lanes > a.Lanes || b.Lanes == a.Lanes && m < n) && (v.yields(a, b) || v.yields(b, a)) {
			return true
		}
	}
	return false
}

// yields reports whether a rule takes from a the lanes that b claims as soon as
// b holds anything.
func (v *validator) yields(a, b *Socket) bool {
	for _, r := range v.sheet.Rules {
		if len(r.When) != 1 || r.When[0].Socket != b.ID || r.When[0].Holds != HoldsAnything {
			continue
		}
		for _, e := range r.Then {
			if e.Socket == a.ID && (e.Off || e.MaxLanes.Known() && a.FirstLane+int(e.MaxLanes) <= b.FirstLane) {
				return true
			}
		}
	}
	return false
}

func (v *validator) sockets() {
	seen := map[string]int{}
	for i := range v.sheet.Sockets {
		k := &v.sheet.Sockets[i]
		v.unique("sockets", string(k.ID), i, seen)
		if k.Group != "" && !slices.ContainsFunc(v.sheet.Groups, func(g Group) bool { return g.ID == k.Group }) {
			v.list.Add(at("sockets", i, "group"), fact.Of(NoGroupIsNamed, k.Group))
		}
		if k.Root != "" && v.sheet.Root(k.Root) == nil {
			v.list.Add(at("sockets", i, "root"), fact.Of(NoRootIsNamed, k.Root))
		}
		if k.Group != "" && k.Root != "" {
			v.list.Add(at("sockets", i, "root"), fact.Of(GroupSaysRoot))
		}
		if k.Kind.Memory() && k.Channel == "" {
			v.list.Add(at("sockets", i, ""), fact.Of(SlotWithoutChannel))
		}
		if !k.Kind.Memory() && k.Channel != "" {
			v.list.Add(at("sockets", i, "channel"), fact.Of(OnlyMemoryHasChannel))
		}
		if k.Kind == Slot && k.Physical.Known() && k.Lanes > k.Physical {
			v.list.Add(at("sockets", i, "lanes"), fact.Of(SlotTooShort, k.Physical, k.Lanes))
		}
		if k.Kind == M2 && k.Key != "" && k.Lanes > k.Key.MaxLanes() {
			v.list.Add(at("sockets", i, "lanes"), fact.Of(KeyBoundsLanes, k.Key, k.Key.MaxLanes()))
		}
		if k.Kind != USB && k.USB != "" {
			v.list.Add(at("sockets", i, "usb"), fact.Of(OnlyUSBHasMode))
		}
		if k.Kind == Slot && k.UnderMM.Known() || k.UnderMM.Known() && k.Under == 0 {
			v.list.Add(at("sockets", i, "clearUnderCardMM"), fact.Of(UnderWhichCard))
		}
		for n, split := range k.Splits {
			v.split(at("sockets", i, "splits/"+strconv.Itoa(n)), k, split)
		}
		b, p := v.sheet.Board, k.Place
		if p.XMM+p.WidthMM > b.WidthMM || p.YMM+p.HeightMM > b.HeightMM {
			v.list.Add(at("sockets", i, "place"), fact.Of(OutsideBoard, b.WidthMM, b.HeightMM))
		}
	}
}

// bays checks that bays have names of their own, that their ports are drive ports, and that
// none of those says what its own bay takes as well.
func (v *validator) bays() {
	seen := map[string]int{}
	for i := range v.sheet.Bays {
		b := &v.sheet.Bays[i]
		v.unique("bays", string(b.ID), i, seen)
		if v.sheet.Socket(SocketID(b.ID)) != nil {
			v.list.Add(at("bays", i, "id"), fact.Of(BayNamedAsSocket, b.ID))
		}
		for j, id := range b.Ports {
			place := at("bays", i, "ports/"+strconv.Itoa(j))
			switch k := v.sheet.Socket(id); {
			case k == nil:
				v.list.Add(place, fact.Of(NoSocketIsNamed, id))
			case k.Kind != SATA && k.Kind != U2:
				v.list.Add(place, fact.Of(NoDrivePort, id))
			case k.stated():
				v.list.Add(place, fact.Of(HasOwnBay, id))
			}
		}
	}
}

// split checks one way to divide a slot.
func (v *validator) split(place string, k *Socket, split []quantity.Lanes) {
	sum := 0
	for _, l := range split {
		sum += int(l)
		if !slices.Contains([]quantity.Lanes{1, 2, 4, 8, 16}, l) {
			v.list.Add(place, fact.Of(NoPCIeWidth, int(l)))
		}
	}
	switch {
	case k.Kind != Slot:
		v.list.Add(place, fact.Of(OnlySlotsSplit))
	case len(split) < 2 || k.Lanes.Known() && sum > int(k.Lanes):
		v.list.Add(place, fact.Of(SplitDoesNotFit, int(sum), int(len(split)), k.Lanes))
	}
}

func (v *validator) settings() {
	seen := map[string]int{}
	for i, s := range v.sheet.Settings {
		v.unique("settings", string(s.ID), i, seen)
		if s.Default != "" && !s.Offers(s.Default) {
			v.list.Add(at("settings", i, "default"), fact.Of(NotAmongOptions, s.Default))
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
			narrows := e.Off || e.MaxLanes.Known() || e.MaxGen.Known() || len(e.Protocols) > 0 || len(e.Split) > 0
			k := v.sheet.Socket(e.Socket)
			switch {
			case e.Profile && (e.Socket != "" || narrows):
				v.list.Add(place, fact.Of(ProfileStandsAlone))
			case !e.Profile && !narrows:
				v.list.Add(place, fact.Of(NothingHappens))
			case !e.Profile && k == nil:
				v.list.Add(place+"/socket", fact.Of(NoSocketIsNamed, e.Socket))
			case len(e.Split) > 0 && !slices.ContainsFunc(k.Splits, func(s []quantity.Lanes) bool { return slices.Equal(s, e.Split) }):
				v.list.Add(place+"/split", fact.Of(NoSuchSplit, k.ID))
			}
		}
	}
}

func (v *validator) condition(place string, c Condition) {
	switch {
	case btoi(c.Socket != "")+btoi(c.Setting != "")+btoi(c.Processor != "") != 1:
		v.list.Add(place, fact.Of(ConditionOfNothing))
	case c.Processor != "" && v.sheet.Processor(c.Processor) == nil:
		v.list.Add(place+"/processor", fact.Of(NoProcessorIsNamed, c.Processor))
	case c.Socket != "" && v.sheet.Socket(c.Socket) == nil:
		v.list.Add(place+"/socket", fact.Of(NoSocketIsNamed, c.Socket))
	case c.Socket != "" && c.Holds == "":
		v.list.Add(place, fact.Of(HoldsMissing))
	case c.Setting != "":
		s := v.sheet.Setting(c.Setting)
		if s == nil {
			v.list.Add(place+"/setting", fact.Of(NoSettingIsNamed, c.Setting))
		} else if !s.Offers(c.Is) {
			v.list.Add(place+"/is", fact.Of(NoOption, c.Is, s.ID))
		}
	}
}

func btoi(b bool) int {
	if b {
		return 1
	}
	return 0
}

func (v *validator) memory() {
	for i, f := range v.sheet.Memory.Fill {
		for j, id := range f.Slots {
			if k := v.sheet.Socket(id); k == nil || !k.Kind.Memory() {
				v.list.Add("/memory"+at("fill", i, "slots/"+strconv.Itoa(j)), fact.Of(NoMemorySlotIsNamed, id))
			}
		}
	}
	for _, l := range []struct {
		name string
		Limit
	}{{"module", v.sheet.Memory.Module}, {"total", v.sheet.Memory.Total}} {
		if l.ProvenBytes.Known() && l.StatedBytes.Known() && l.ProvenBytes <= l.StatedBytes {
			v.list.Add("/memory/"+l.name+"/provenBytes", fact.Of(ProvenNotMore))
		}
		if l.ProvenBytes.Known() && l.ProvenBy == "" {
			v.list.Add("/memory/"+l.name, fact.Of(ProofNotNamed))
		}
	}
}

// Largest is the more generous of stated and proven.
func (l Limit) Largest() quantity.Bytes { return max(l.StatedBytes, l.ProvenBytes) }
