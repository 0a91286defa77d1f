package power

// This file foretells the lines of the screens from a resolved rig.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// lines lists everything worth looking at, in the order it is come upon: set-up
// first, then the running system.
func lines(b *rig.Rig, r *fit.Answer) []foretold {
	f := forecast{b: b, r: r}
	f.message()
	f.memory()
	for _, memory := range []bool{true, false} {
		for i := range r.Sockets {
			if f.memorySlot(i) == memory {
				f.at(i)
			}
		}
	}
	f.arrays()
	f.settings()
	return slices.Concat(f.out[0], f.out[1], f.out[2], f.out[3])
}

type forecast struct {
	b   *rig.Rig
	r   *fit.Answer
	out [4][]foretold // by screen
}

// at foretells what is shown of one socket of the answer, and of what lies in it.
func (f *forecast) at(i int) {
	s := &f.r.Sockets[i]
	switch {
	case f.memorySlot(i):
		f.slot(&f.b.Sheet.Sockets[i], s)
	case s.Item != "":
		f.drive(s)
		f.card(s)
	}
}

// memorySlot reports a socket of the answer that takes a module: the board's come first.
func (f *forecast) memorySlot(i int) bool {
	return i < len(f.b.Sheet.Sockets) && f.b.Sheet.Sockets[i].Kind.Memory()
}

// some foretells the lines among which one is, if it is shown at all.
func (f *forecast) some(id LineID) {
	switch {
	case id.Kind == Message:
		f.message()
	case id.Kind == Total || id.Kind == Rate || id.Kind == Usable || id.Kind == Fitted:
		f.memory()
	case id.Array != "":
		f.arrays()
	case id.Kind == Setting:
		f.settings()
	default:
		if i := slices.IndexFunc(f.r.Sockets, func(s fit.SocketState) bool { return s.Socket == id.Socket }); i >= 0 {
			f.at(i)
		}
	}
}

// add completes a line: what is shown is known where want and upTo are one.
func (f *forecast) add(l foretold) {
	l.want.Line, l.want.Origin, l.upTo.Line, l.upTo.Origin = l.ID, Foretold, l.ID, Foretold
	if !l.ID.Socket.IsZero() {
		l.about(f.b)
	} else if l.of == "" && l.ID.Kind != Setting {
		l.of = f.placed(func(k machine.Kind) bool { return k.Memory() })
	}
	l.About, l.Screen = Named(f.b, l.ID), ScreenOf(f.b, l.ID)
	l.known = l.known || l.want == l.upTo
	l.Exact, l.Want = l.known || l.single, l.want
	switch {
	case l.Expected.Is():
	case l.known:
		l.Expected = l.want.shown()
	default:
		l.Expected = fact.Of(NotKnown)
	}
	f.out[screenOrder[l.Screen]] = append(f.out[screenOrder[l.Screen]], l)
}

// both is a reading that is known.
func both(l Line, want Reading) foretold {
	return foretold{Line: l, want: want, upTo: want, known: true}
}

// about says which piece lies in the place that a line is about, and what holds it.
func (l *foretold) about(b *rig.Rig) {
	for at := l.ID.Socket; ; at = at.Holder() {
		l.of += string(b.In(at)) + "/"
		if !at.Nested() {
			break
		}
	}
	if p := b.PieceIn(l.ID.Socket); p != nil {
		l.Item, l.Serial = p.ID, p.Serial
	}
}

// placed is what lies where in sockets of some kinds of the board, in the sheet's order.
func (f *forecast) placed(of func(machine.Kind) bool) string {
	var out strings.Builder
	for i := range f.b.Sheet.Sockets {
		if k := &f.b.Sheet.Sockets[i]; of(k.Kind) {
			out.WriteString(string(f.b.In(rig.On(k.ID))) + "/")
		}
	}
	return out.String()
}

// message foretells the first screens, on which everything that lies in the machine has a say.
func (f *forecast) message() {
	l := both(Line{ID: LineID{Kind: Message}}, Reading{Value: Starts})
	l.of = f.placed(func(k machine.Kind) bool { return k != machine.USB })
	f.add(l)
}

func (f *forecast) memory() {
	m := &f.r.Memory
	if !m.Slots {
		return
	}
	total := foretold{Line: Line{ID: LineID{Kind: Total}, Expected: fact.Of(MemoryIs, m.Total)},
		want: Reading{Bytes: m.Total.Low}, upTo: Reading{Bytes: m.Total.High}}
	if m.Sized() && m.Total.Low > 0 {
		total.Shows = []Show{{fact.Of(InMegabytes), fact.Of(Megabytes, fact.Typed(quantity.Thousands(int64(m.Total.Low/quantity.MiB))))}}
	} else if m.Sized() {
		total.Expected, total.upTo = fact.Of(NotKnown), Reading{Bytes: 1}
	}
	f.add(total)
	rate := foretold{Line: Line{ID: LineID{Kind: Rate}, Expected: fact.Of(SpeedIs, m.MTps)},
		want: Reading{MTps: m.MTps.Low}, upTo: Reading{MTps: m.MTps.High}}
	if m.MTps.Exact() && m.MTps.Low > 0 {
		rate.Shows = []Show{{fact.Of(AsClock), fact.Of(Megahertz, int(m.MTps.Low/2))}}
	} else if m.MTps.Exact() {
		rate.Expected, rate.upTo = fact.Of(NotKnown), Reading{MTps: 1}
	}
	f.add(rate)
	normal := fact.Of(FirmwareKeeps)
	switch kept := f.b.Sheet.Memory.Reserved; {
	case kept > 0:
		normal = fact.Of(GraphicsKeeps, kept)
	case m.Usable.Low < m.Usable.High && m.Sized():
		normal = fact.Of(GraphicsUnstated, m.Usable.High-m.Usable.Low)
	}
	usable := m.Usable
	if most := f.b.Wish.SystemMax; most.Known() && most < usable.High {
		usable = known.Between(min(usable.Low, most), most)
		normal = fact.Of(SystemOnly, most)
	}
	l := foretold{Line: Line{ID: LineID{Kind: Usable}, Normal: normal, Expected: fact.Of(UpTo, usable.High)},
		want: Reading{Bytes: usable.Low}, upTo: Reading{Bytes: usable.High}}
	if !m.Sized() || m.Total.Low == 0 {
		l.Expected, l.upTo = fact.Of(NotKnown), Reading{}
	} else {
		l.want, l.known = l.upTo, true // less is ordinary: see same
	}
	fitted := total
	fitted.Line = Line{ID: LineID{Kind: Fitted}, Expected: total.Expected, Normal: fact.Of(FittedAndUsable)}
	f.add(fitted)
	f.add(l)
}

func (f *forecast) slot(k *machine.Socket, s *fit.SocketState) {
	at := rig.On(k.ID)
	l := Line{ID: LineID{Kind: Slot, Socket: at}}
	p := f.part(s.Item)
	switch {
	case p == nil && f.b.IsUnlooked(k.ID):
		f.add(foretold{Line: l, upTo: Reading{Bytes: 1}, mayBeAbsent: true})
	case p == nil || p.Module == nil || s.State == fit.Stopped || s.State == fit.Off:
		f.add(both(l, Reading{Absent: true}))
	case s.State == fit.Live && p.Module.SizeBytes.Known():
		f.add(both(l, Reading{Bytes: p.Module.SizeBytes}))
	default:
		f.add(foretold{Line: l, want: Reading{Bytes: p.Module.SizeBytes}, upTo: Reading{Bytes: p.Module.SizeBytes + 1}, mayBeAbsent: s.State == fit.Unsure, single: p.Module.SizeBytes.Known()})
	}
}

func (f *forecast) part(id rig.ItemID) *part.Part {
	if p := f.b.Piece(id); p != nil {
		return p.Part
	}
	return nil
}

// link foretells a link that the system shows, from and to where it is not known.
func (f *forecast) link(l Line, s *fit.SocketState) {
	a := s.Link
	l.Expected = fact.Of(LinkIs, *a)
	out := foretold{Line: l, want: Reading{Gen: a.Gen.Low, Lanes: a.Lanes.Low}, upTo: Reading{Gen: a.Gen.High, Lanes: a.Lanes.High}, mayBeAbsent: s.State != fit.Live}
	if a.Protocol == link.USB {
		out.want, out.upTo = Reading{Gbps: a.USB.LineGbps()}, Reading{Gbps: a.USB.LineGbps()}
	}
	out.known = a.Known() && s.State == fit.Live
	if !out.known && out.want == out.upTo {
		out.single = true
		out.upTo.Gen++ // whether it is seen is not known
	}
	f.add(out)
}

// card foretells the link of a card or USB box that is seen itself; a carrier is not.
func (f *forecast) card(s *fit.SocketState) {
	p := f.part(s.Item)
	if p == nil || s.Link == nil {
		return
	}
	id := LineID{Kind: LinkOf, Socket: s.Socket}
	if p.Enclosure != nil {
		l := Line{ID: id, Normal: fact.Of(LeadOrPort)}
		if s.Link.USB != "" {
			l.Shows = []Show{{fact.Of(InMegabits), fact.Of(Plainly, fact.Typed(number(s.Link.USB.LineGbps()*1000)))}, {fact.Of(AtMost), fact.Of(RateIs, *s.Link)}}
		}
		f.link(l, s)
		return
	}
	if p.Card == nil || p.Card.Carrier != nil {
		return
	}
	f.link(Line{ID: id, Shows: []Show{{fact.Of(AtMost), fact.Of(RateIs, *s.Link)}}, Normal: fact.Of(IdleCard)}, s)
}

func (f *forecast) drive(s *fit.SocketState) {
	p := f.part(s.Item)
	if p == nil || p.Drive == nil || p.Drive.Form.Optical() { // which has no capacity to be read
		return
	}
	c := p.Drive.CapacityBytes
	box := f.b.Outside(s.Socket)
	l := Line{ID: LineID{Kind: Drive, Socket: s.Socket}}
	f.views(p.Drive, s, box)
	if s.State == fit.Stopped || s.State == fit.Off {
		f.add(both(l, Reading{Absent: true}))
		return
	}
	if c.Known() {
		l.Expected = fact.Of(CapacityIs, c)
		l.Shows = []Show{{fact.Of(InDecimal), fact.Of(DecimalExact, c)}, {fact.Of(InBinary), fact.Of(BinaryIs, c)}, {fact.Of(AsSystems), fact.Of(SystemPrints, c)}}
	}
	l.Normal = f.normal(f.b.Piece(s.Item))
	sure := s.State == fit.Live
	out := foretold{Line: l, want: Reading{Bytes: c}, upTo: Reading{Bytes: c}, known: sure && c.Known(), mayBeAbsent: !sure}
	switch {
	case out.known:
	case c.Known():
		out.Expected, out.upTo.Bytes, out.single = fact.Of(IfSeen, c), c+1, true
	default:
		out.Expected, out.upTo.Bytes = fact.Of(NotKnown), c+1
	}
	f.add(out)
	if s.Link == nil || box || f.b.Firmwares(s.Item) != nil { // what is behind a bridge or an array is not seen
		return
	}
	l = Line{ID: LineID{Kind: LinkOf, Socket: s.Socket}}
	if s.Link.Known() {
		l.Shows = []Show{{fact.Of(AtMost), fact.Of(RateIs, *s.Link)}}
	}
	if s.Link.Protocol == link.PCIe {
		l.Normal = fact.Of(IdleLink)
	}
	f.link(l, s)
}

// arrays foretells the arrays all of whose members lie in the machine: set-up shows them
// beside their members, the system shows each as one disk.
func (f *forecast) arrays() {
	for i := range f.b.Arrays {
		a := &f.b.Arrays[i]
		of, sure := string(a.Level), true
		for _, id := range a.Members {
			at := f.b.Where(id)
			s := f.r.Socket(at)
			sure = sure && s != nil && s.State == fit.Live
			of += "/" + string(id) + "@" + at.String()
		}
		if st := f.b.ModeOf(a); st != nil && f.b.Choice(st) != a.Mode.Value {
			continue // firmware does not offer arrays in that mode
		}
		c := f.b.ArrayBytes(a)
		for _, id := range ArrayLines(a.ID) {
			if a.By == rig.BySystem && !id.System { // it is there once the system runs, and not before
				continue
			}
			l := Line{ID: id, Normal: fact.Of(ArrayTwice)}
			switch id.Kind {
			case Boots:
				f.bootsArray(a, sure, of)
				continue
			case Installs:
				l.Extra, l.Normal = true, fact.Of(InstallsArray)
			}
			out := foretold{Line: l, want: Reading{Bytes: c}, upTo: Reading{Bytes: c}, known: sure && c.Known(), mayBeAbsent: !sure, of: of}
			if c.Known() {
				out.Expected = fact.Of(CapacityIs, c)
				out.Shows = []Show{{fact.Of(InDecimal), fact.Of(DecimalExact, c)}, {fact.Of(AsSystems), fact.Of(SystemPrints, c)}}
			} else {
				out.Expected, out.upTo.Bytes = fact.Of(NotKnown), 1
			}
			f.add(out)
		}
	}
}

// bootsArray foretells an array in the boot list, by what its members hold.
func (f *forecast) bootsArray(a *rig.DriveArray, sure bool, of string) {
	held := map[rig.Content]int{}
	for _, id := range a.Members {
		if p := f.b.Piece(id); p != nil {
			held[p.Holds]++
		}
	}
	out := both(Line{ID: LineID{Kind: Boots, Array: a.ID}, Extra: true}, Reading{Absent: true})
	out.of = of
	switch n := len(a.Members); {
	case sure && held[rig.System] == n:
		out.Expected, out.Normal = fact.Of(Listed), fact.Of(BootsByName)
		out.want, out.upTo = Reading{Value: Here}, Reading{Value: Here}
	case sure && held[rig.Blank] == n:
		out.Normal = fact.Of(BootsNothing)
	case sure && held[rig.Data] == n:
		out.Normal = fact.Of(BootsData)
	default:
		out.want, out.upTo, out.known, out.mayBeAbsent = Reading{Value: Here}, Reading{Value: "?"}, false, true
		out.Expected = fact.Of(NotKnown)
	}
	f.add(out)
}

// normal is what looks wrong of a drive and is not, by what it holds: only one that is
// known to be blank is ever spoken of as to be initialised.
func (f *forecast) normal(p *rig.Piece) fact.Fact {
	switch {
	case p.Holds == rig.Blank:
		return fact.Of(BlankDrive)
	case p.Holds == rig.Data || p.Holds == rig.System:
		return fact.Of(HoldsData)
	case p.New:
		return fact.Of(HoldsUnknown)
	}
	return fact.Fact{}
}

func (f *forecast) settings() {
	for i := range f.b.Sheet.Settings {
		st := &f.b.Sheet.Settings[i]
		l := Line{ID: LineID{Kind: Setting, Setting: st.ID}}
		v := f.b.Choice(st)
		if v == "" {
			f.add(foretold{Line: l, upTo: Reading{Value: "?"}})
			continue
		}
		l.Expected = fact.Of(OptionIs, Choice{Setting: st.ID, Value: v})
		f.add(both(l, Reading{Value: v}))
	}
}

// number prints a number as systems do, without needless zeros.
func number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// Named is what a line is about.
func Named(b *rig.Rig, id LineID) fact.Fact {
	item := b.In(id.Socket)
	on := func(c fact.Code) fact.Fact { return fact.Of(c, item, id.Socket) }
	if n := slices.IndexFunc(b.Arrays, func(a rig.DriveArray) bool { return a.ID == id.Array }); n >= 0 {
		a := &b.Arrays[n]
		code := ArrayLine
		switch {
		case id.Kind == Boots:
			code = ArrayBoots
		case id.Kind == Installs:
			code = ArrayInstalls
		case id.System:
			code = ArrayOneDisk
		}
		return fact.Of(code, fact.Typed(a.Level))
	}
	switch id.Kind {
	case Message:
		return fact.Of(FirstScreens)
	case Total:
		return fact.Of(MemoryTotal)
	case Rate:
		return fact.Of(MemorySpeed)
	case Usable:
		return fact.Of(SystemMemory)
	case Fitted:
		return fact.Of(MemoryFitted)
	case Slot:
		return fact.Of(SlotLine, id.Socket)
	case Drive:
		return on(DriveLine)
	case Boots:
		return on(BootLine)
	case Installs:
		return on(InstallerLine)
	case Disk:
		return on(DiskLine)
	case Counts:
		return on(CountsLine)
	case Heat:
		return on(HeatLine)
	case LinkOf:
		if p := b.Piece(item); p != nil && p.Part.Card != nil {
			return on(LinkIn)
		}
		return on(LinkOn)
	case Setting:
		if st := b.Sheet.Setting(id.Setting); st != nil {
			return fact.Of(SettingLine, fact.Typed(st.Name))
		}
	}
	return fact.Of(AsRead, fact.Typed(id.String()))
}
