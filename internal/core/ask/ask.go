// Package ask answers the questions a bench asks ten times a day: what a link
// carries, what drives behind one uplink get, what a capacity is in other units,
// what a code or label means, what goes into which socket, and how a set of
// modules is spread. Every answer carries its reasons, and none has a rule of its
// own: it asks the rooms below.
package ask

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/flow"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shorthand"
)

// Figure is one number or name of an answer with what it is.
type Figure struct{ What, Value fact.Fact }

// Reply is what is said to a question.
type Reply struct {
	Says    fact.Fact // the answer in one line
	Lines   []Figure
	Because []fit.Reason
	Asks    []shorthand.Ask // what the question leaves open
}

func reply(says fact.Fact) Reply { return Reply{Says: says} }

func (a *Reply) line(what fact.Code, value fact.Fact) {
	a.Lines = append(a.Lines, Figure{fact.Of(what), value})
}

func (a *Reply) because(from fit.Source, says fact.Fact) {
	a.Because = append(a.Because, fit.Reason{From: from, Fact: says})
}

// end is a PCIe end as rooms above this speak of it; what is not stated is open.
func end(l link.Link) fit.Link { return fit.PCIe(l) }

func rate(r quantity.Rate) fact.Fact { return fact.Of(Rate, r) }

// Link is what two PCIe ends settle on.
func Link(drive, socket link.Link) Reply {
	got := drive.Train(socket)
	a := reply(fact.Of(LinkGives, end(got)))
	a.line(BeforeOverhead, rate(got.LineRate()))
	for _, p := range []int{128, 256, 512} {
		e := link.Efficiency{Payload: p, Header: link.FourDW}
		a.Lines = append(a.Lines, Figure{fact.Of(WithPackets, p), rate(got.Usable(e))})
	}
	a.line(ToPlanWith, rate(got.Planning()))
	a.because(fit.FromPart, fact.Of(OneEnd, end(drive)))
	a.because(fit.FromSheet, fact.Of(OtherEnd, end(socket)))
	a.because(fit.FromStandard, fact.Of(LowerOfTwo))
	return a
}

// TooMany is a number of drives nobody has.
type TooMany struct{ fact.Fact }

// Error is for programmers; people are told by say.
func (t TooMany) Error() string { return string(t.Code) }

// Uplink is what several drives of one kind get behind an uplink, all at once.
func Uplink(up, drive link.Link, count int) (Reply, error) {
	if count < 1 || count > 64 {
		return Reply{}, TooMany{fact.Of(DriveCount, count)}
	}
	if !up.Planning().Known() || !drive.Planning().Known() {
		a := reply(fact.Of(Unknown))
		if !up.Planning().Known() {
			a.because(fit.FromSheet, fact.Of(UplinkUnstated, end(up)))
		}
		if !drive.Planning().Known() {
			a.because(fit.FromPart, fact.Of(DrivesUnstated, end(drive)))
		}
		return a, nil
	}
	flows := make([]flow.Flow, count)
	for i := range flows {
		flows[i] = flow.Flow{Demand: drive.Planning(), Links: []int{0}}
	}
	shares := flow.Shares([]quantity.Rate{up.Planning()}, flows)
	var total quantity.Rate
	for _, s := range shares {
		total += s.Rate
	}
	a := reply(fact.Of(Each, shares[0].Rate))
	a.line(EachAtOnce, rate(shares[0].Rate))
	a.line(OneAlone, rate(min(drive.Planning(), up.Planning())))
	a.line(AllTogether, rate(total))
	a.line(Asked, fact.Of(TimesCarried, float64(drive.Planning())*float64(count)/float64(up.Planning())))
	a.because(fit.FromSheet, fact.Of(UplinkPlans, end(up), up.Planning()))
	a.because(fit.FromPart, fact.Of(DrivePlans, end(drive), drive.Planning()))
	a.because(fit.FromStandard, fact.Of(MaxMin))
	return a, nil
}

// inUnits lists a capacity in the ways it is printed.
func (a *Reply) inUnits(b quantity.Bytes) {
	a.line(InDecimal, fact.Of(DecimalOf, b))
	a.line(InBinary, fact.Of(BinaryOf, b))
	a.line(AsPrinted, fact.Of(SystemOf, b))
	a.line(Exactly, fact.Of(ExactOf, b))
}

// Capacity is a capacity in all the ways it is printed. Plain "GB" is taken as
// decimal; what it would be as binary is said as well.
func Capacity(text string) (Reply, error) {
	b, err := quantity.ParseBytes(text)
	if err != nil {
		return Reply{}, err
	}
	a := reply(fact.Of(CapacityIs, b))
	a.inUnits(b)
	if gb := int64(b / quantity.GB); b%quantity.GB == 0 && gb >= 50 && gb <= 100_000 {
		a.line(SoldAs, fact.Of(SoldExact, quantity.DriveBytes(gb)))
		a.because(fit.FromStandard, fact.Of(SoldInSizes))
	}
	if two, err := quantity.ParseBinary(text); err == nil && two != b {
		a.line(IfMemory, fact.Of(ExactOf, two))
	}
	a.because(fit.FromStandard, fact.Of(TenAndTwo))
	return a, nil
}

// Code is what a module code or speed means, or what it could mean.
func Code(text string) (Reply, error) {
	got, err := memory.Code(text)
	if err != nil {
		return Reply{}, err
	}
	names := make([]string, len(got))
	for i, r := range got {
		names[i] = r.Name()
	}
	a := reply(fact.Of(OneOf, names))
	for _, r := range got {
		peak := memory.Peak(r.Label)
		a.Lines = append(a.Lines, Figure{plain(r.Name()), fact.Of(ModuleCarries, fact.Typed(r.ModuleName()), peak, 2*peak)})
	}
	if len(got) > 1 {
		a.Asks = append(a.Asks, shorthand.Ask{About: shorthand.WhichSpeed, Choices: names})
	}
	a.because(fit.FromStandard, fact.Of(EightBytes))
	return a, nil
}

// plain is a name, or words as they were typed.
func plain(s string) fact.Fact { return fact.Of(Plain, fact.Typed(s)) }

// Part is what shorthand or a label says.
func Part(text string) (Reply, error) {
	got, err := shorthand.Read(text)
	if err != nil {
		return Reply{}, err
	}
	return Words(&got), nil
}

// Words is what was read: each word, what none says, and what is open.
func Words(got *shorthand.Reading) Reply {
	a := reply(fact.Of(ThisPart, &got.Part))
	if got.Count > 1 {
		a.Says = fact.Of(ManyOf, got.Count, &got.Part)
	}
	for _, m := range got.Means {
		a.Lines = append(a.Lines, Figure{plain(m.Word), m.Says})
	}
	if len(got.Unknown) > 0 {
		a.line(DoesNotSay, fact.Of(AllOf, got.Unknown))
	}
	a.Asks = got.Asks
	return a
}

// Fit is whether one kind of M.2 card goes into a socket, and works there.
type Fit struct {
	Card   fact.Code
	Keys   []part.Key
	Rig    rig.Rig // that was resolved to tell
	Answer fit.Answer
}

// cards is the kinds of M.2 card that are met.
var cards = []struct {
	name fact.Code
	d    part.Drive
}{
	{CardMKeyNVMe, part.Drive{Protocol: link.PCIe, Gen: 4, Lanes: 4, M2: &part.M2{Keys: []part.Key{part.KeyM}}}},
	{CardMKeySATA, part.Drive{Protocol: link.SATA, Gen: 3, M2: &part.M2{Keys: []part.Key{part.KeyM}}}},
	{CardBMSATA, part.Drive{Protocol: link.SATA, Gen: 3, M2: &part.M2{Keys: []part.Key{part.KeyB, part.KeyM}}}},
	{CardBMNVMe, part.Drive{Protocol: link.PCIe, Gen: 3, Lanes: 2, M2: &part.M2{Keys: []part.Key{part.KeyB, part.KeyM}}}},
	{CardAENVMe, part.Drive{Protocol: link.PCIe, Gen: 3, Lanes: 1, M2: &part.M2{Keys: []part.Key{part.KeyA, part.KeyE}}}},
}

// Keys tries the kinds of M.2 card in a socket of one key and some protocols, by
// resolving a machine that has nothing else.
func Keys(key part.Key, protocols []link.Protocol) []Fit {
	sheet := machine.Sheet{
		Roots:  []machine.Root{{ID: "cpu", Name: "processor", Kind: machine.CPU}},
		Groups: []machine.Group{{ID: "g", Root: "cpu", Lanes: 4}},
		Sockets: []machine.Socket{{ID: "socket", Kind: machine.M2, Group: "g", Gen: 4, Lanes: key.MaxLanes(), SATAGen: 3, Key: key, Protocols: protocols,
			LengthsMM: []quantity.Millimetres{80}}},
	}
	out := make([]Fit, len(cards))
	for i, c := range cards {
		d := c.d
		m := *d.M2
		m.LengthMM = 80
		d.Form, d.M2 = part.FormM2, &m
		b := rig.Rig{Sheet: &sheet, Pieces: []rig.Piece{{ID: "card", Part: &part.Part{Drive: &d}, New: true}},
			Setup: rig.Setup{Placements: []rig.Placement{{Item: "card", Socket: rig.On("socket")}}}}
		out[i] = Fit{Card: c.name, Keys: m.Keys, Rig: b, Answer: fit.Resolve(&b)}
	}
	return out
}

// Populated is a machine with modules spread over its slots.
type Populated struct {
	Rig    rig.Rig
	Answer fit.Answer
	Guess  bool // the sheet gives no order for so many
}

// Population spreads modules, written one kind a line as shorthand, over a
// machine's slots: the largest first, by the sheet's order where it has one.
func Population(sheet *machine.Sheet, text string) (Populated, error) {
	var pieces []rig.Piece
	for _, line := range strings.FieldsFunc(text, func(c rune) bool { return c == '\n' || c == '+' }) {
		if strings.TrimSpace(line) == "" {
			continue
		}
		got, err := shorthand.Read(line)
		if err != nil {
			return Populated{}, err
		}
		if got.Part.Module == nil {
			return Populated{}, fact.Err(ADriveAmongModules, strings.TrimSpace(line))
		}
		m := got.Part.Module
		if m.Form == "" { // the machine takes one form only
			for _, k := range sheet.Sockets {
				switch k.Kind {
				case machine.DIMM:
					m.Form = memory.DIMM
				case machine.SODIMM:
					m.Form = memory.SODIMM
				}
			}
		}
		for range got.Count {
			pieces = append(pieces, rig.Piece{ID: rig.ItemID("m" + strconv.Itoa(len(pieces)+1)), Part: &got.Part, New: true})
		}
	}
	if len(pieces) == 0 {
		return Populated{}, fact.Err(NoModuleWritten)
	}
	slots, guess := sheet.OrderOrGuess(len(pieces), true)
	if len(pieces) > len(slots) {
		return Populated{}, fact.Err(ModulesAndSlots, int(len(pieces)), int(len(slots)))
	}
	slices.SortStableFunc(pieces, func(a, b rig.Piece) int {
		return int(min(1, max(-1, b.Part.Module.SizeBytes-a.Part.Module.SizeBytes)))
	})
	b := rig.Rig{Sheet: sheet, Pieces: pieces}
	slots = spread(sheet, slots[:len(pieces)])
	for i, p := range pieces {
		b.Placements = append(b.Placements, rig.Placement{Item: p.ID, Socket: rig.On(slots[i])})
	}
	return Populated{b, fit.Resolve(&b), guess}, nil
}

// spread orders slots so that modules sorted by size land on the channels in
// turn: the two largest on two channels, not on one.
func spread(sheet *machine.Sheet, slots []machine.SocketID) []machine.SocketID {
	turn := map[machine.ChannelID]int{}
	rank := map[machine.SocketID]int{}
	for i, id := range slots {
		c := sheet.Socket(id).Channel
		rank[id] = turn[c]*len(slots) + i
		turn[c]++
	}
	out := slices.Clone(slots)
	slices.SortStableFunc(out, func(a, b machine.SocketID) int { return rank[a] - rank[b] })
	return out
}
