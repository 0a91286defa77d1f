package rig

// This file is what a person looked up at the bench: how each fact is asked for, and
// the rig that follows from the answers. What somebody saw is stronger than a sheet or
// a label; what those say otherwise is kept beside it.

import (
	"reflect"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// Learned is a fact as somebody who looked tells it. Is is the answer as files write
// it: "yes", "no", the value of an option, several of them with blanks between, a
// number in the unit asked for, or a capacity with its unit.
type Learned struct {
	Fact
	Is string `json:"is" jsonschema:"minLength=1,maxLength=60"`
}

// Contradiction is a fact that somebody saw to be another than the sheet or the label
// says.
type Contradiction struct {
	Learned
	Stated string // what they say
}

// Ask is how a fact is asked for.
type Ask struct {
	Kind    AskKind
	Unit    AskUnit
	Options []Option // of AskOne and AskSeveral; nil where the answer is a number
}

// Option is one answer: its value, and the value itself for those who word it.
type Option struct {
	Value string
	Of    any
}

// AskKind is what sort of answer there is to a fact.
type AskKind string

// The sorts of answer.
const (
	AskOne     AskKind = "one"     // of the options
	AskSeveral AskKind = "several" // of the options, or all of them
	AskNumber  AskKind = "number"  // in the unit
	AskSize    AskKind = "size"    // a capacity with its unit
)

// Values lists the sorts for the formats.
func (AskKind) Values() []string {
	return []string{string(AskOne), string(AskSeveral), string(AskNumber), string(AskSize)}
}

// AskUnit is what a number counts.
type AskUnit string

// The units.
const (
	InMillimetres AskUnit = "mm"
	InMTps        AskUnit = "MT/s"
	InOpenings    AskUnit = "opening"
	InRanks       AskUnit = "ranks"
)

// Values lists the units for the formats.
func (AskUnit) Values() []string {
	return []string{string(InMillimetres), string(InMTps), string(InOpenings), string(InRanks)}
}

// field is where a fact is kept in a description: how it is asked for, what is there
// now ("" for nothing), and a way to put an answer there, which refuses what is none.
type field struct {
	ask Ask
	is  string
	put func(string) bool
}

// HowToAsk says how a fact is asked for; false is a fact that nobody can look up here,
// for what it is about is not in the job.
func (r *Rig) HowToAsk(f Fact) (Ask, bool) {
	l := learner{Rig: *r}
	at, ok := l.field(f)
	return at.ask, ok
}

// CanBe reports whether a text is an answer to a fact.
func (r *Rig) CanBe(a Learned) bool {
	l := learner{Rig: *r}
	at, ok := l.field(a.Fact)
	return ok && at.put(a.Is)
}

// Learn is the rig with what was looked up. The sheet and the parts that it changes are
// copies. What is no answer, or about something that is not here, is left out.
func (r *Rig) Learn(answers []Learned) Rig {
	l := learner{Rig: *r}
	for _, a := range answers {
		at, ok := l.field(a.Fact)
		if !ok || !at.put(a.Is) {
			continue
		}
		l.Looked = append(l.Looked, a.Fact)
		if now, ok := l.field(a.Fact); ok && at.is != "" && at.is != now.is {
			l.Against = append(l.Against, Contradiction{a, at.is})
		}
	}
	return l.Rig
}

// OfSheet and OfPart report a fact that a sheet, or the description of a part, can keep:
// it is true of every machine and every piece of the kind.
func (f Fact) OfSheet() bool {
	return f.Item == "" && f.Setting == "" && f.Attr != HoldsNow && f.Attr != Fitted
}

func (f Fact) OfPart() bool { return f.Item != "" && f.Attr != RoomForCard }

// Teach writes an answer into a sheet; false is an answer that is not about it.
func Teach(s *machine.Sheet, a Learned) bool {
	l := learner{Rig: Rig{Sheet: s}, ownSheet: true}
	at, ok := l.field(a.Fact)
	return a.OfSheet() && ok && at.put(a.Is)
}

// TeachPart writes an answer into the description of a part; false is an answer that is
// not about it.
func TeachPart(p *part.Part, a Learned) bool {
	l := learner{Rig: Rig{Sheet: &machine.Sheet{}, Pieces: []Piece{{ID: a.Item, Part: p}}}, own: []*part.Part{p}}
	at, ok := l.field(a.Fact)
	return a.OfPart() && ok && at.put(a.Is)
}

// learner is a rig whose sheet and parts become copies where they are written to.
type learner struct {
	Rig
	ownSheet bool
	own      []*part.Part
}

// sheet is a copy of the sheet that may be written to.
func (l *learner) sheet() *machine.Sheet {
	if !l.ownSheet {
		s := *l.Sheet
		s.Sockets, s.Bays, s.Settings = slices.Clone(s.Sockets), slices.Clone(s.Bays), slices.Clone(s.Settings)
		s.Memory.Speeds = slices.Clone(s.Memory.Speeds)
		l.Sheet, l.ownSheet = &s, true
	}
	return l.Sheet
}

// part is a copy of what a piece is that may be written to: what is learnt of one piece
// is true of all of its kind.
func (l *learner) part(id ItemID) *part.Part {
	q := l.Piece(id)
	if q == nil {
		return nil
	}
	if slices.Contains(l.own, q.Part) {
		return q.Part
	}
	was, own := q.Part, q.Part.Clone()
	l.Pieces, l.own = slices.Clone(l.Pieces), append(l.own, own)
	for i := range l.Pieces {
		if l.Pieces[i].Part == was {
			l.Pieces[i].Part = own
		}
	}
	return own
}

func (l *learner) field(f Fact) (field, bool) {
	switch {
	case f.Setting != "":
		if s := l.sheet().Setting(f.Setting); s != nil && f.Attr == SetTo {
			list := make([]Option, len(s.Options))
			for i, o := range s.Options {
				list[i] = Option{o.Value, o.Name}
			}
			return chosen(&s.Default, list), true
		}
	case f.Item == "" && !f.Socket.IsZero() && f.Attr == HoldsNow: // of what was told to lie there it is known
		k := l.Sheet.Socket(f.Socket.Top())
		return l.emptied(f.Socket.Top()), !f.Socket.Nested() && k != nil && k.Kind.Memory() && l.found().In(f.Socket) == ""
	case f.Item == "" && f.Socket.IsZero() && f.Attr == Fitted:
		list := make([]Option, len(l.Sheet.Processors))
		for i, p := range l.Sheet.Processors {
			list[i] = Option{string(p.ID), p.Name}
		}
		return chosen(&l.Processor, list), len(list) > 0
	case f.Item == "" && f.Socket.IsZero() && f.Attr == BoardSpeeds:
		return l.speed(f.N), f.N > 0
	case f.Item == "" && f.Socket.IsZero() && f.Attr.Plug() != "":
		return l.freePlugs(f.Attr.Plug()), true
	}
	return fieldAt(l.address(f), f.Attr)
}

// address is where the description of a place, a part or the machine keeps a fact; nil
// is a fact that none of them keeps.
func (l *learner) address(f Fact) any {
	switch {
	case f.Setting != "":
	case f.Item != "" && f.Pos > 0:
		if p := l.part(f.Item); p != nil && f.Pos <= len(p.Positions()) {
			return ofPosition(&p.Positions()[f.Pos-1], f.Attr)
		}
	case f.Item != "":
		if p := l.part(f.Item); p != nil {
			return ofPart(p, f.Attr)
		}
	case !f.Socket.IsZero():
		if s := l.sheet().Socket(f.Socket.Top()); s != nil && !f.Socket.Nested() {
			return ofSocket(s, f.Attr)
		}
		for i := range l.Sheet.Bays {
			if b := &l.Sheet.Bays[i]; On(machine.SocketID(b.ID)) == f.Socket {
				return ofMount(&b.Mount, f.Attr)
			}
		}
	default:
		return ofSheet(l.sheet(), f.Attr)
	}
	return nil
}

// States reports whether a sheet or a label says a fact; what it says otherwise was found
// running, is usual, or follows from a standard. A fact that neither could say is not
// stated.
func (r *Rig) States(f Fact) bool {
	l := learner{Rig: *r, ownSheet: true} // nothing is written
	if p := r.Piece(f.Item); p != nil {
		l.own = []*part.Part{p.Part}
	}
	switch at := l.address(f).(type) {
	case nil: // what a position speaks is told by its label or by nobody: it is not asked for
		p := r.Piece(f.Item)
		return p != nil && f.Attr == Speaks && f.Pos > 0 && f.Pos <= len(p.Part.Positions()) && len(p.Part.Positions()[f.Pos-1].Protocols) > 0
	case *part.M2:
		return at.BottomMM.Known() || at.TwoSided != quantity.Unknown
	case upTo[quantity.Gen]:
		return *at.at != 0
	case upTo[quantity.Lanes]:
		return *at.at != 0
	case m2Long:
		return *at.at != 0
	default:
		return !reflect.ValueOf(at).Elem().IsZero()
	}
}

// found is what lay where as the machine came.
func (l *learner) found() *Setup {
	if l.Found != nil {
		return l.Found
	}
	return &l.Setup
}

// has is the attributes that sockets of a kind have.
var has = map[machine.Kind][]Attr{
	machine.M2:     {Keyed, Posts, RoomBeside, RoomAbove, RoomUnder, RoomCovered, Speaks, PlaceGen, PlaceLanes, SATAPort, HasSink},
	machine.Slot:   {PlaceGen, PlaceLanes, Long, OpenEnded, Opens},
	machine.SATA:   {SATAPort, BayTakes, BayHeight, HasLead, HasHolder},
	machine.U2:     {Speaks, PlaceGen, PlaceLanes, SATAPort, BayTakes, BayHeight, HasLead, HasHolder},
	machine.DIMM:   {RoomAbove},
	machine.SODIMM: {RoomAbove},
	machine.USB:    {USBPort},
}

// ofSocket, ofPosition, ofPart and ofSheet are where a description keeps an attribute;
// nil is an attribute it has not.
func ofSocket(k *machine.Socket, a Attr) any {
	if !slices.Contains(has[k.Kind], a) {
		return nil
	}
	switch a {
	case Keyed:
		return &k.Key
	case Posts:
		return &k.LengthsMM
	case RoomBeside:
		return &k.WidthMM
	case RoomAbove:
		return &k.TopMM
	case RoomUnder:
		return &k.BottomMM
	case RoomCovered:
		return &k.UnderMM
	case Speaks:
		return &k.Protocols
	case PlaceGen:
		return &k.Gen
	case PlaceLanes:
		switch {
		case k.Kind == machine.M2 && k.Key != "":
			return upTo[quantity.Lanes]{&k.Lanes, k.Key.MaxLanes()}
		case k.Kind != machine.Slot:
			return upTo[quantity.Lanes]{&k.Lanes, 4}
		}
		return &k.Lanes
	case SATAPort:
		return upTo[quantity.Gen]{&k.SATAGen, 3}
	case USBPort:
		return &k.USB
	case Long:
		return &k.Physical
	case OpenEnded:
		return &k.OpenEnd
	case Opens:
		return &k.Opening
	case HasLead:
		return &k.Lead
	case HasSink:
		return &k.Heatsink
	}
	return ofMount(&k.Mount, a)
}

func ofMount(m *machine.Mount, a Attr) any {
	switch a {
	case BayTakes:
		return &m.Drives
	case BayHeight:
		return &m.BayMM
	case HasHolder:
		return &m.HasHolder
	}
	return nil
}

func ofPosition(p *part.Position, a Attr) any {
	switch a {
	case Posts:
		return &p.LengthsMM
	case RoomBeside:
		return &p.WidthMM
	case RoomAbove:
		return &p.TopMM
	case RoomUnder:
		return &p.BottomMM
	case PlaceGen:
		return &p.Gen
	case PlaceLanes:
		return &p.Lanes
	case SATAPort:
		return upTo[quantity.Gen]{&p.SATAGen, 3}
	case Long:
		return &p.Physical
	case OpenEnded:
		return &p.OpenEnd
	case BayTakes:
		return &p.Drives
	case BayHeight:
		return &p.HeightMM
	case HasSink:
		return &p.Heatsink
	case RoomForCard:
		return &p.CardRoom
	}
	return nil
}

func ofPart(p *part.Part, a Attr) any {
	if m := p.M2(); m != nil {
		switch a {
		case Notched:
			return &m.Keys
		case CardLong:
			return m2Long{&m.LengthMM}
		case CardWide:
			return &m.WidthMM
		case CardTall:
			return &m.TopMM
		case CardDeep:
			return m
		case HasSink:
			return &m.Heatsink
		}
	}
	switch {
	case p.Drive != nil:
		return ofDrive(p.Drive, a)
	case p.Card != nil:
		return ofCard(p.Card, a)
	case p.Module != nil:
		return ofModule(p.Module, a)
	case p.Enclosure != nil:
		return ofBox(p.Enclosure, a)
	}
	return nil
}

func ofBox(e *part.Enclosure, a Attr) any {
	switch a {
	case PartUSB:
		return &e.USB
	case OwnSupply:
		return &e.OwnSupply
	case Queues:
		return &e.Queues
	case Trims:
		return &e.Trims
	case Translates:
		return &e.Translates
	}
	return nil
}

func ofDrive(d *part.Drive, a Attr) any {
	switch a {
	case Protocol:
		return &d.Protocol
	case PartGen:
		if d.Protocol == link.SATA || d.Form == part.Form2i5 || d.Form == part.Form3i5 || d.Form.Optical() {
			return upTo[quantity.Gen]{&d.Gen, 3}
		}
		return &d.Gen
	case PartLanes:
		return upTo[quantity.Lanes]{&d.Lanes, 4}
	case DriveTall:
		return &d.HeightMM
	case Capacity:
		if !d.Form.Optical() { // which has none
			return &d.CapacityBytes
		}
	}
	return nil
}

func ofCard(c *part.Card, a Attr) any {
	switch a {
	case CardLong:
		return &c.LengthMM
	case PartGen:
		return &c.Gen
	case PartLanes:
		return &c.Lanes
	case Edge:
		return &c.Connector
	case Bracket:
		return &c.LowBracket
	}
	return nil
}

func ofModule(m *part.Module, a Attr) any {
	switch a {
	case ModuleGen:
		return &m.Generation
	case ModuleReg:
		return &m.Registered
	case ModuleTall:
		return &m.HeightMM
	case ModuleVolt:
		return &m.Millivolts
	case ModuleSize:
		return &m.SizeBytes
	case ModuleRate:
		return &m.RateMTps
	case Ranks:
		return &m.Ranks
	}
	return nil
}

func ofSheet(s *machine.Sheet, a Attr) any {
	switch a {
	case BoardMemory:
		return &s.Memory.Generation
	case BoardReg:
		return &s.Memory.Registered
	case BoardVolt:
		return &s.Memory.Millivolts
	case BoardClock:
		return &s.Memory.ClockDrivers
	case CaseLong:
		return &s.Chassis.CardMM
	case CaseLow:
		return &s.Chassis.LowSlots
	case Feeds3V3:
		return &s.Chassis.Feeds3V3
	}
	return nil
}

// fieldAt is the field at an address. The answers that there can be are those of the
// formats.
func fieldAt(at any, a Attr) (field, bool) {
	switch at := at.(type) {
	case *quantity.Answer:
		return oneOf(at, []Option{{"yes", quantity.Yes}, {"no", quantity.No}}), true
	case *part.Key:
		return oneOf(at, options(word, part.KeyM, part.KeyB, part.KeyE, part.KeyA)), true
	case *[]part.Key:
		return severalOf(at, options(word, part.KeyM, part.KeyB, part.KeyE, part.KeyA)), true
	case *[]part.Form:
		return severalOf(at, options(word, part.Form2i5, part.Form3i5, part.FormSlim, part.Form5i25)), true
	case *link.Protocol:
		return oneOf(at, options(word, link.PCIe, link.SATA)), true
	case *[]link.Protocol:
		return severalOf(at, options(word, link.PCIe, link.SATA)), true
	case *link.USBMode:
		return oneOf(at, listed[link.USBMode]()), true
	case *memory.Generation:
		return oneOf(at, listed[memory.Generation]()), true
	case *quantity.Gen:
		return oneOf(at, gens(6)), true
	case upTo[quantity.Gen]:
		return oneOf(at.at, gens(at.most)), true
	case *quantity.Lanes:
		if a == Long || a == Edge { // no slot is of two
			return oneOf(at, widths(1, 4, 8, 16)), true
		}
		return oneOf(at, widths(1, 2, 4, 8, 16)), true
	case upTo[quantity.Lanes]:
		return oneOf(at.at, slices.DeleteFunc(widths(1, 2, 4), func(o Option) bool { return o.Of.(quantity.Lanes) > at.most })), true
	case *quantity.Millivolts:
		return oneOf(at, volts), true
	case *[]quantity.Millivolts:
		return severalOf(at, volts), true
	case *[]quantity.Millimetres:
		return severalOf(at, lengths(30, 42, 60, 80, 110)), true
	case *quantity.Millimetres:
		switch a {
		case RoomBeside, CardWide:
			return oneOf(at, lengths(22, 25, 30)), true
		}
		return measured(at), true
	case m2Long:
		return oneOf(at.at, lengths(30, 42, 52, 60, 80, 110)), true
	case *part.M2: // how deep it is on its under side: nothing at all is an answer
		return underside(at), true
	case *quantity.MTps:
		return numbered(at, InMTps, 100, 20_000), true
	case *int:
		if a == Ranks {
			return numbered(at, InRanks, 1, 16), true
		}
		return numbered(at, InOpenings, 1, 16), true
	case *quantity.Bytes:
		return sized(at, a == ModuleSize), true
	}
	return field{}, false
}

// upTo is a field whose values end sooner than those of its type, m2Long the length of
// an M.2 card, which is one of a few (PCI Express M.2).
type (
	upTo[T any] struct {
		at   *T
		most T
	}
	m2Long struct{ at *quantity.Millimetres }
)

// options are values with the texts that name them in files.
func options[T any](text func(T) string, values ...T) []Option {
	out := make([]Option, len(values))
	for i, v := range values {
		out[i] = Option{text(v), v}
	}
	return out
}

// word and whole name words by themselves, and whole numbers.
func word[T ~string](v T) string { return string(v) }

func whole[T ~uint8 | ~uint16 | ~int32](v T) string { return strconv.Itoa(int(v)) }

// listed are the options of a type that lists its values.
func listed[T interface {
	~string
	Values() []string
}]() []Option {
	var none T
	var values []T
	for _, v := range none.Values() {
		values = append(values, T(v))
	}
	return options(word, values...)
}

// volts are the voltages that modules are made for (JESD79 and its successors).
var volts = options[quantity.Millivolts](whole, 1100, 1200, 1350, 1500, 1800)

func gens(most quantity.Gen) []Option {
	return options(whole, []quantity.Gen{1, 2, 3, 4, 5, 6}[:most]...)
}

func widths(lanes ...quantity.Lanes) []Option { return options(whole, lanes...) }

func lengths(mm ...quantity.Millimetres) []Option { return options(number, mm...) }

// named is the option of a value.
func named[T comparable](list []Option, v T) string {
	for _, o := range list {
		if o.Of == any(v) {
			return o.Value
		}
	}
	return ""
}

func oneOf[T comparable](at *T, list []Option) field {
	return field{Ask{AskOne, "", list}, named(list, *at), func(s string) bool {
		for _, o := range list {
			if v, ok := o.Of.(T); ok && o.Value == s {
				*at = v
				return true
			}
		}
		return false
	}}
}

func severalOf[T comparable](at *[]T, list []Option) field {
	var is []string
	for _, o := range list {
		if slices.Contains(*at, o.Of.(T)) {
			is = append(is, o.Value)
		}
	}
	return field{Ask{AskSeveral, "", list}, strings.Join(is, " "), func(s string) bool {
		words := strings.Fields(s)
		var got []T
		for _, o := range list {
			if slices.Contains(words, o.Value) {
				got = append(got, o.Of.(T))
			}
		}
		if len(got) == 0 || len(got) != len(words) {
			return false
		}
		*at = got
		return true
	}}
}

// chosen is the name of one of several things, which people call otherwise.
func chosen[T ~string](at *T, list []Option) field {
	return field{Ask{AskOne, "", list}, string(*at), func(s string) bool {
		ok := slices.ContainsFunc(list, func(o Option) bool { return o.Value == s })
		if ok {
			*at = T(s)
		}
		return ok
	}}
}

// number prints a measure in whole tenths.
func number(v quantity.Millimetres) string {
	if !v.Known() {
		return ""
	}
	return strconv.FormatFloat(float64(v), 'f', -1, 64)
}

// tooLong is longer than anything on a bench.
const tooLong = 1000

func parseMM(s string) (quantity.Millimetres, bool) {
	v, err := strconv.ParseFloat(s, 64)
	return quantity.Millimetres(v), err == nil && v >= 0 && v <= tooLong
}

func measured(at *quantity.Millimetres) field {
	return field{Ask{AskNumber, InMillimetres, nil}, number(*at), func(s string) bool {
		v, ok := parseMM(s)
		if !ok || v < 0.1 {
			return false
		}
		*at = v
		return true
	}}
}

func underside(m *part.M2) field {
	is := number(m.BottomMM)
	if m.TwoSided == quantity.No {
		is = "0"
	}
	return field{Ask{AskNumber, InMillimetres, nil}, is, func(s string) bool {
		v, ok := parseMM(s)
		if !ok || v > 0 && v < 0.1 {
			return false
		}
		if m.BottomMM, m.TwoSided = v, quantity.Yes; v == 0 {
			m.TwoSided = quantity.No
		}
		return true
	}}
}

func numbered[T ~int | ~int32](at *T, unit AskUnit, low, high T) field {
	is := ""
	if *at > 0 {
		is = strconv.Itoa(int(*at))
	}
	return field{Ask{AskNumber, unit, nil}, is, func(s string) bool {
		n, err := strconv.Atoi(s)
		if err != nil || n < int(low) || n > int(high) {
			return false
		}
		*at = T(n)
		return true
	}}
}

// sized is a capacity: of memory, where GB means 2^30, or of a drive.
func sized(at *quantity.Bytes, memory bool) field {
	read, print := quantity.ParseBytes, quantity.Bytes.Decimal
	if memory {
		read, print = quantity.ParseBinary, quantity.Bytes.Binary
	}
	is := ""
	if at.Known() {
		is = print(*at)
	}
	return field{Ask{AskSize, "", nil}, is, func(s string) bool {
		v, err := read(s)
		if err != nil || !v.Known() {
			return false
		}
		*at = v
		return true
	}}
}

// emptied is a socket into which nobody had looked: nothing lies in it. What lies there
// is told by putting it there as found.
func (l *learner) emptied(id machine.SocketID) field {
	return field{Ask{AskOne, "", []Option{{"nothing", Nothing}}}, "", func(s string) bool {
		if s != string(Nothing) {
			return false
		}
		l.Unlooked = slices.DeleteFunc(slices.Clone(l.Unlooked), func(k machine.SocketID) bool { return k == id })
		return true
	}}
}

// Nothing lies in a place.
const Nothing = Lies("nothing")

// Lies is what is seen in a place.
type Lies string

// mostPlugs is more than anybody has to tell apart: there are enough then.
const mostPlugs = 12

// freePlugs is how many plugs of a kind are free in the case.
func (l *learner) freePlugs(kind part.Plug) field {
	c := &l.sheet().Chassis
	at := slices.IndexFunc(c.Plugs, func(p machine.PlugCount) bool { return p.Kind == kind })
	var n countOf
	list := make([]Option, mostPlugs+1)
	for i := range list {
		list[i] = Option{strconv.Itoa(i), countOf(i)}
	}
	f := oneOf(&n, list)
	put := f.put
	if f.is = ""; at >= 0 {
		f.is = strconv.Itoa(c.Plugs[at].Count)
	}
	f.put = func(s string) bool {
		if !put(s) {
			return false
		}
		c.Plugs = slices.Clone(c.Plugs)
		if at < 0 {
			c.Plugs = append(c.Plugs, machine.PlugCount{Kind: kind, Count: int(n)})
		} else {
			c.Plugs[at].Count = int(n)
		}
		return true
	}
	return f
}

// countOf is a number of things.
type countOf int

// speed is the row of the board's table for so many modules a channel, of any ranks.
func (l *learner) speed(perChannel int) field {
	m := &l.sheet().Memory
	var v quantity.MTps
	at := numbered(&v, InMTps, 100, 20_000)
	put := at.put
	at.put = func(s string) bool {
		if !put(s) {
			return false
		}
		m.Speeds = append(slices.DeleteFunc(m.Speeds, func(r machine.Speed) bool { return r.PerChannel == perChannel && r.Ranks == 0 }), machine.Speed{PerChannel: perChannel, MTps: v})
		return true
	}
	return at
}
