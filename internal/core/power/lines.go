package power

// This file foretells the lines of the screens from a resolved build.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

const (
	setUp  = "set-up"
	system = "system"
)

func settingOf(id LineID) machine.SettingID {
	_, s, _ := strings.Cut(string(id), "/")
	return machine.SettingID(s)
}

// lines lists everything worth looking at, in the order it is come upon: set-up
// first, then the running system.
func lines(b *rig.Rig, r *fit.Resolved) []foretold {
	f := forecast{b: b, r: r}
	f.memory()
	for i := range b.Sheet.Sockets {
		if k := &b.Sheet.Sockets[i]; k.Kind.Memory() {
			f.slot(k, &r.Sockets[i])
		}
	}
	for i := range r.Sockets {
		if s := &r.Sockets[i]; s.Item != "" {
			f.drive(s)
			f.card(s)
		}
	}
	f.settings()
	slices.SortStableFunc(f.out, func(a, b foretold) int { return strings.Compare(a.Screen, b.Screen) })
	return f.out
}

type forecast struct {
	b   *rig.Rig
	r   *fit.Resolved
	out []foretold
}

// add completes a line; known is false where the build cannot tell the value.
func (f *forecast) add(l Line, want Reading, known bool) {
	want.Line, want.Origin = l.ID, Foretold
	if l.Expected == "" {
		l.Expected = l.ID.print(want)
	}
	if !known {
		l.Expected = "unknown"
	}
	if l.Shows == nil {
		l.Shows = []Show{}
	}
	f.out = append(f.out, foretold{l, want, known})
}

func (f *forecast) memory() {
	m := &f.r.Memory
	if len(m.Channels) == 0 {
		return
	}
	mib := quantity.Thousands(int64(m.TotalBytes/quantity.MiB)) + " MB"
	f.add(Line{ID: "total", Screen: setUp, About: "Memory total",
		Shows: []Show{{"in megabytes", mib}}},
		Reading{Bytes: m.TotalBytes}, m.TotalBytes.Known())
	f.add(Line{ID: "rate", Screen: setUp, About: "Memory speed",
		Shows: []Show{{"as a clock, on older screens", strconv.Itoa(int(m.MTps/2)) + " MHz"}}},
		Reading{MTps: m.MTps}, m.MTps.Known())
	normal := "Firmware keeps up to about 0.4 GiB for itself."
	if kept := m.TotalBytes - m.UsableBytes; kept > 0 {
		normal = "Graphics in the processor keeps " + kept.Binary() + " and firmware up to about 0.4 GiB more."
	}
	f.add(Line{ID: "usable", Screen: system, About: "Memory the system can use", Normal: normal,
		Expected: "up to " + m.UsableBytes.Binary()},
		Reading{Bytes: m.UsableBytes}, m.UsableBytes.Known())
}

func (f *forecast) slot(k *machine.Socket, s *fit.SocketState) {
	l := Line{ID: LineID("slot/" + string(k.ID)), Screen: setUp, About: "Slot " + string(k.ID)}
	p := f.part(s.Item)
	switch {
	case p == nil || p.Module == nil || s.State == fit.Stopped || s.State == fit.Off:
		f.add(l, Reading{Absent: true}, true)
	default:
		f.add(l, Reading{Bytes: p.Module.SizeBytes}, p.Module.SizeBytes.Known() && s.State == fit.Live)
	}
}

func (f *forecast) part(id rig.ItemID) *part.Part {
	for i := range f.b.Pieces {
		if f.b.Pieces[i].ID == id {
			return f.b.Pieces[i].Part
		}
	}
	return nil
}

func (f *forecast) isNew(id rig.ItemID) bool {
	return slices.ContainsFunc(f.b.Pieces, func(p rig.Piece) bool { return p.ID == id && p.New })
}

// card foretells the link of a card or USB box that is seen itself; a carrier is not.
func (f *forecast) card(s *fit.SocketState) {
	p := f.part(s.Item)
	if p == nil || s.Link == nil {
		return
	}
	if e := p.Enclosure; e != nil {
		mbps := s.Link.USB.LineGbps()
		f.add(Line{ID: LineID("link/" + s.Socket.String()), Screen: system, About: "Link of " + p.Name + " on " + s.Socket.String(), Expected: s.Link.Text,
			Shows:  []Show{{"in megabits a second", strconv.FormatFloat(mbps*1000, 'f', -1, 64)}, {"at most", s.Link.Rate}},
			Normal: "480 is the lead or the port: take the lead that came with the box, and a rear port."},
			Reading{Gbps: mbps}, s.State == fit.Live && mbps > 0)
		return
	}
	if p.Card == nil || p.Card.Carrier != nil {
		return
	}
	f.add(Line{ID: LineID("link/" + s.Socket.String()), Screen: system, About: "Link of " + p.Name + " in " + s.Socket.String(), Expected: s.Link.Text,
		Shows:  []Show{{"at most", s.Link.Rate}},
		Normal: "An idle card may drop to Gen 1: read the link under load. A narrower width does not come back by itself."},
		Reading{Gen: s.Link.Gen, Lanes: s.Link.Lanes}, s.State == fit.Live && s.Link.MBps > 0)
}

func (f *forecast) drive(s *fit.SocketState) {
	p := f.part(s.Item)
	if p == nil || p.Drive == nil {
		return
	}
	c := p.Drive.CapacityBytes
	box := f.b.Outside(s.Socket)
	screen := setUp
	if box {
		screen = system // set-up need not list what is outside
	}
	l := Line{ID: LineID("drive/" + s.Socket.String()), Screen: screen, About: p.Name + " on " + s.Socket.String()}
	if s.State == fit.Stopped || s.State == fit.Off {
		f.add(l, Reading{Absent: true}, true)
		return
	}
	sure := s.State == fit.Live
	if c.Known() {
		l.Shows = []Show{
			{"decimal", c.Decimal() + " (" + c.Exact() + ")"},
			{"binary", c.Binary()},
			{"as many systems print it", c.AsSystemPrints()},
		}
	}
	if f.isNew(s.Item) {
		l.Normal = "A blank drive says \"no system\" in set-up and has no letter in the system until it is initialised: that is right. Check size and serial number before you initialise anything."
	}
	f.add(l, Reading{Bytes: c}, sure && c.Known())
	if a := s.Link; a != nil && !box { // what is behind a bridge is not seen
		l := Line{ID: LineID("link/" + s.Socket.String()), Screen: system, About: "Link of " + p.Name + " on " + s.Socket.String(), Expected: a.Text}
		if a.MBps > 0 {
			l.Shows = []Show{{"at most", a.Rate}}
		}
		if a.Protocol == link.PCIe {
			l.Normal = "An idle drive may drop to Gen 1: read the link under load. A narrower width does not come back by itself."
		}
		f.add(l, Reading{Gen: a.Gen, Lanes: a.Lanes}, sure && a.MBps > 0)
	}
}

func (f *forecast) settings() {
	for i := range f.b.Sheet.Settings {
		st := &f.b.Sheet.Settings[i]
		v := f.b.Choice(st)
		f.add(Line{ID: LineID("setting/" + string(st.ID)), Screen: setUp, About: st.Name, Expected: st.OptionName(v)},
			Reading{Value: v}, true)
	}
}
