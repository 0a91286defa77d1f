package power

// This file finds in what a machine tells about itself the pieces that should be in it: by
// serial number, then by model and size, then by kind and order. What is left over on either side
// is missing, or was not expected.

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Strange is something that a machine shows and nobody expected there.
type Strange struct {
	Name   string         `json:"name" jsonschema:"maxLength=200"` // as it calls itself
	Serial string         `json:"serial,omitempty" jsonschema:"maxLength=120"`
	Bytes  quantity.Bytes `json:"bytes,omitzero" jsonschema:"minimum=1"`
	Place  string         `json:"place,omitempty" jsonschema:"maxLength=120"` // as the machine names it
}

// recogniser matches one inventory with one rig.
type recogniser struct {
	b   *rig.Rig
	r   *fit.Answer
	m   *Inventory
	out []Reading
	odd []Strange
}

// Recognise makes readings of the lines of a rig out of what a machine tells about itself. A line
// of which it tells nothing has none.
func Recognise(b *rig.Rig, r *fit.Answer, m *Inventory) ([]Reading, []Strange) {
	x := recogniser{b: b, r: r, m: m}
	x.add(Reading{Line: LineID{Kind: Message}, Value: Starts})
	x.memory()
	x.drives()
	x.cards()
	origin := Probed
	if m.Source == FromBench {
		origin = Simulated
	}
	for i := range x.out {
		x.out[i].Origin = origin
	}
	return x.out, x.odd
}

func (x *recogniser) add(r Reading) { x.out = append(x.out, r) }

// key is a name of a place or part without what writers differ in.
func key(s string) string {
	return strings.Map(func(r rune) rune {
		if r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' {
			return r
		}
		return -1
	}, strings.ToUpper(s))
}

// slotWords is what boards print round the name of a memory slot.
var slotWords = strings.NewReplacer("SODIMM", "", "DIMM", "", "CHANNEL", "", "SLOT", "", "NODE0", "", "P0", "", "CPU1", "")

func slotKey(s string) string { return slotWords.Replace(key(s)) }

// slots pairs the slots that the machine names with those of the sheet: by name, else in
// order where there are as many; nil where they cannot be told.
func (x *recogniser) slots() map[int]machine.SocketID {
	var ids []machine.SocketID
	for i := range x.b.Sheet.Sockets {
		if k := &x.b.Sheet.Sockets[i]; k.Kind.Memory() {
			ids = append(ids, k.ID)
		}
	}
	out := map[int]machine.SocketID{}
	for i, s := range x.m.Memory.Modules {
		n := slices.IndexFunc(ids, func(id machine.SocketID) bool { return key(string(id)) == key(s.Locator) })
		if n < 0 {
			n = slices.IndexFunc(ids, func(id machine.SocketID) bool { return slotKey(string(id)) == slotKey(s.Locator) })
		}
		if n >= 0 {
			out[i] = ids[n]
		}
	}
	used := map[machine.SocketID]bool{}
	for _, id := range out {
		used[id] = true
	}
	switch {
	case len(used) == len(x.m.Memory.Modules):
		return out
	case len(ids) == len(x.m.Memory.Modules):
		for i, id := range ids {
			out[i] = id
		}
		return out
	}
	return nil
}

func (x *recogniser) memory() {
	mem := &x.m.Memory
	if mem.Usable > 0 {
		x.add(Reading{Line: LineID{Kind: Usable}, Bytes: mem.Usable})
	}
	if len(mem.Modules) == 0 {
		return
	}
	var sum quantity.Bytes
	rate := quantity.MTps(math.MaxInt32)
	known := true
	for _, s := range mem.Modules {
		if s.Empty {
			continue
		}
		sum += s.Bytes
		known = known && s.Bytes > 0
		if s.Configured.Known() {
			rate = min(rate, s.Configured)
		}
	}
	if known && sum > 0 {
		x.add(Reading{Line: LineID{Kind: Total}, Bytes: sum})
		x.add(Reading{Line: LineID{Kind: Fitted}, Bytes: sum})
	}
	if rate < math.MaxInt32 {
		x.add(Reading{Line: LineID{Kind: Rate}, MTps: rate})
	}
	at := x.slots()
	for i, s := range mem.Modules {
		id, ok := at[i]
		if !ok {
			if !s.Empty && !s.Soldered {
				x.odd = append(x.odd, Strange{Name: strings.TrimSpace(s.Maker + " " + s.Number), Serial: s.Serial, Bytes: s.Bytes, Place: s.Locator})
			}
			continue
		}
		r := Reading{Line: LineID{Kind: Slot, Socket: rig.On(id)}, Bytes: s.Bytes, Absent: s.Empty}
		if p := x.b.PieceIn(rig.On(id)); p != nil && !s.Empty {
			r.Item = p.ID
			if p.Serial != "" && s.Serial != "" && !SameSerial(p.Serial, s.Serial) && x.known(s.Serial) {
				r.Serial = s.Serial // another of the job's pieces
			}
		}
		x.add(r)
	}
}

// known reports the serial number of one of the job's pieces.
func (x *recogniser) known(serial string) bool {
	return slices.ContainsFunc(x.b.Pieces, func(p rig.Piece) bool { return p.Serial != "" && SameSerial(p.Serial, serial) })
}

// seat is a drive that should be in the machine.
type seat struct {
	piece *rig.Piece
	at    rig.Path
}

// drives pairs drives that the system lists with those that should be there.
func (x *recogniser) drives() {
	var left []seat
	for _, k := range x.b.Places() {
		if p := x.b.PieceIn(k.Path); p != nil && p.Part.Drive != nil && !p.Part.Drive.Form.Optical() {
			left = append(left, seat{p, k.Path})
		}
	}
	pool := slices.DeleteFunc(slices.Clone(x.m.Drives), func(d DriveSeen) bool { return d.Bus == BusVirtual })
	pair := func(same func(seat, *DriveSeen) bool) {
		for i := 0; i < len(left); i++ {
			n := slices.IndexFunc(pool, func(d DriveSeen) bool { return same(left[i], &d) })
			if n < 0 {
				continue
			}
			x.drive(left[i], &pool[n])
			left, pool = slices.Delete(left, i, i+1), slices.Delete(pool, n, n+1)
			i--
		}
	}
	size := func(s seat, d *DriveSeen) bool {
		c := s.piece.Part.Drive.CapacityBytes
		return !c.Known() || within(float64(d.Bytes), float64(c), 0.005)
	}
	pair(func(s seat, d *DriveSeen) bool { return s.piece.Serial != "" && SameSerial(s.piece.Serial, d.Serial) })
	pair(func(s seat, d *DriveSeen) bool {
		return size(s, d) && x.bus(s, d) && model(s.piece.Part, d) && x.may(s, d)
	})
	pair(func(s seat, d *DriveSeen) bool { return size(s, d) && x.bus(s, d) && x.may(s, d) })
	if x.m.Drives != nil || x.m.Devices != nil {
		for _, s := range left {
			x.add(Reading{Line: LineID{Kind: Disk, Socket: s.at}, Absent: true, Item: s.piece.ID})
		}
	}
	for _, d := range pool {
		if !d.Removable {
			x.odd = append(x.odd, Strange{Name: cmp.Or(d.Model, d.Name), Serial: d.Serial, Bytes: d.Bytes, Place: d.Name})
		}
	}
}

// may reports that serial numbers do not speak against it.
func (x *recogniser) may(s seat, d *DriveSeen) bool {
	return s.piece.Serial == "" || d.Serial == "" || SameSerial(s.piece.Serial, d.Serial)
}

// bus reports that a drive hangs as it should.
func (x *recogniser) bus(s seat, d *DriveSeen) bool {
	switch {
	case x.b.Outside(s.at):
		return d.Bus == BusUSB
	case s.piece.Part.Drive.Protocol == link.PCIe:
		return d.Bus == BusNVMe
	case s.piece.Part.Drive.Protocol == link.SATA:
		return d.Bus == BusSATA || d.Bus == BusRAID
	}
	return d.Bus != BusUSB
}

// model reports that a drive calls itself as its part is called, or as its number says.
func model(p *part.Part, d *DriveSeen) bool {
	m := key(d.Model)
	for _, s := range []string{p.Name, p.Number} {
		if k := key(s); k != "" && m != "" && (strings.Contains(m, k) || strings.Contains(k, m)) {
			return true
		}
	}
	return false
}

func (x *recogniser) drive(s seat, d *DriveSeen) {
	read := func(k LineKind, r Reading) {
		r.Line, r.Item = LineID{Kind: k, Socket: s.at}, s.piece.ID
		x.add(r)
	}
	if d.Bytes > 0 {
		read(Drive, Reading{Bytes: d.Bytes})
		read(Disk, Reading{Bytes: d.Bytes})
	}
	if d.Bus != BusUSB && d.Gen > 0 {
		read(LinkOf, Reading{Gen: d.Gen, Lanes: d.Lanes})
	}
	if d.Errors == 0 && (d.Bus == BusNVMe || d.Bus == BusSATA) {
		read(Counts, Reading{Value: Quiet})
	}
	if d.Celsius > HotM2 { // cooler than that says nothing: nobody knows whether it works
		read(Heat, Reading{Celsius: d.Celsius})
	}
	if box := s.at.Holder(); d.Mbps > 0 && x.b.Outside(s.at) {
		x.add(Reading{Line: LineID{Kind: LinkOf, Socket: box}, Item: x.b.In(box), Gbps: float64(d.Mbps) / 1000})
	}
}

// cards reads the links of graphics cards, which alone are told by their class. In the order
// of the sheet's slots, for there is mostly one.
func (x *recogniser) cards() {
	var seen []*PCIDevice
	for i := range x.m.Devices {
		if d := &x.m.Devices[i]; strings.HasPrefix(d.Class, "0x03") && d.Depth > 0 {
			seen = append(seen, d)
		}
	}
	for _, k := range x.b.Places() {
		p := x.b.PieceIn(k.Path)
		if p == nil || p.Part.Card == nil || !p.Part.Card.Graphics {
			continue
		}
		r := Reading{Line: LineID{Kind: LinkOf, Socket: k.Path}, Item: p.ID, Absent: true}
		if len(seen) > 0 {
			r.Absent, r.Gen, r.Lanes, seen = false, seen[0].Gen, seen[0].Lanes, seen[1:]
		}
		if len(x.m.Devices) > 0 && (r.Absent || r.Gen > 0) {
			x.add(r)
		}
	}
}
