// Package ask answers the questions a bench asks ten times a day: what a link
// carries, what drives behind one uplink get, what a capacity is in other units,
// what a code or label means, what goes into which socket, and how a set of
// modules is spread. Every answer carries its reasons, and none has a rule of its
// own: it asks the rooms below.
package ask

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/flow"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Figure is one number or name of an answer with what it is.
type Figure struct {
	What  string `json:"what"`
	Value string `json:"value"`
}

// Reply is what is said to a question.
type Reply struct {
	Says    string       `json:"says"` // the answer in one line
	Lines   []Figure     `json:"lines"`
	Because []fit.Reason `json:"because"`
	Asks    []part.Ask   `json:"asks"`            // what the question leaves open
	Fault   string       `json:"fault,omitempty"` // why it cannot be answered as it is written
}

// Cannot is the reply to words that cannot be answered: while somebody types
// that is the ordinary case, and no error.
func Cannot(err error) Reply {
	r := reply("")
	r.Fault = err.Error()
	return r
}

func reply(says string) Reply {
	return Reply{Says: says, Lines: []Figure{}, Because: []fit.Reason{}, Asks: []part.Ask{}}
}

func (a *Reply) line(what, value string) { a.Lines = append(a.Lines, Figure{what, value}) }

func (a *Reply) because(from fit.Source, says string) {
	a.Because = append(a.Because, fit.Reason{From: from, Says: says})
}

// Link is what two PCIe ends settle on.
func Link(drive, socket link.Link) Reply {
	got := drive.Train(socket)
	a := reply(got.String() + ", " + got.LineRate().String())
	a.line("before packet overhead", got.LineRate().String())
	for _, p := range []int{128, 256, 512} {
		e := link.Efficiency{Payload: p, Header: link.FourDW}
		a.line("with "+strconv.Itoa(p)+"-byte packets", got.Usable(e).String())
	}
	a.line("to plan with", got.Planning().String())
	a.because(fit.FromPart, "one end is "+drive.String())
	a.because(fit.FromSheet, "the other is "+socket.String())
	a.because(fit.FromStandard, "a PCIe link runs at the lower generation and the narrower width of its two ends")
	return a
}

// Uplink is what several drives of one kind get behind an uplink, all at once.
func Uplink(up, drive link.Link, count int) (Reply, error) {
	if count < 1 || count > 64 {
		return Reply{}, fmt.Errorf("%d drives: write 1 to 64", count)
	}
	if !up.Planning().Known() || !drive.Planning().Known() {
		a := reply("unknown")
		if !up.Planning().Known() {
			a.because(fit.FromSheet, "unknown, because the uplink's generation or width is not stated: "+up.String())
		}
		if !drive.Planning().Known() {
			a.because(fit.FromPart, "unknown, because the drives' generation or width is not stated: "+drive.String())
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
	a := reply(shares[0].Rate.String() + " each")
	a.line("each, all at once", shares[0].Rate.String())
	a.line("one alone", min(drive.Planning(), up.Planning()).String())
	a.line("all together", total.String())
	a.line("asked of the uplink", strconv.FormatFloat(float64(drive.Planning())*float64(count)/float64(up.Planning()), 'f', 2, 64)+" times what it carries")
	a.because(fit.FromSheet, "the uplink is "+up.String()+", "+up.Planning().String()+" to plan with")
	a.because(fit.FromPart, "each drive is "+drive.String()+", "+drive.Planning().String()+" to plan with")
	a.because(fit.FromStandard, "shares are max-min fair; reads and writes load the uplink in different directions")
	return a, nil
}

// Capacity is a capacity in all the ways it is printed. Plain "GB" is taken as
// decimal; what it would be as binary is said as well.
func Capacity(text string) (Reply, error) {
	b, err := quantity.ParseBytes(text)
	if err != nil {
		return Reply{}, err
	}
	a := reply(b.Decimal() + " is " + b.Binary())
	a.line("decimal", b.Decimal())
	a.line("binary", b.Binary())
	a.line("as many systems print it", b.AsSystemPrints())
	a.line("exactly", b.Exact())
	if gb := int64(b / quantity.GB); b%quantity.GB == 0 && gb >= 50 && gb <= 100_000 {
		sold := quantity.DriveBytes(gb)
		a.line("a drive sold as this", sold.Exact()+", printed "+sold.AsSystemPrints())
		a.because(fit.FromStandard, "drives are sold in sizes of IDEMA LBA1-03, above 8 TB of SFF-8447")
	}
	if two, err := quantity.ParseBinary(text); err == nil && two != b {
		a.line("if it is memory, or a system printed it", two.Exact())
	}
	a.because(fit.FromStandard, "1 GB is 10^9 bytes, 1 GiB is 2^30; some systems divide by 2^30 and write GB")
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
	a := reply(strings.Join(names, " or "))
	for _, r := range got {
		a.line(r.Name(), r.ModuleName()+", one channel "+memory.Peak(r.Label).String()+", two "+(2*memory.Peak(r.Label)).String())
	}
	if len(got) > 1 {
		a.Asks = append(a.Asks, part.Ask{About: "which speed", Choices: names})
	}
	a.because(fit.FromStandard, "a channel moves 8 bytes a transfer; module names are the peak in MB/s cut to hundreds")
	return a, nil
}

// Part is what shorthand or a label says.
func Part(text string) (Reply, error) {
	got, err := part.ParseShorthand(text)
	if err != nil {
		return Reply{}, err
	}
	count := ""
	if got.Count > 1 {
		count = strconv.Itoa(got.Count) + " of "
	}
	a := reply(count + got.Part.Describe())
	for _, m := range got.Means {
		word, means, _ := strings.Cut(m, ": ")
		a.line(word, means)
	}
	if len(got.Unknown) > 0 {
		a.line("it does not say", strings.Join(got.Unknown, ", "))
	}
	a.Asks = got.Asks
	return a, nil
}

// Fit is whether one kind of M.2 card goes into a socket, and works there.
type Fit struct {
	Card     string     `json:"card"`
	Keys     []part.Key `json:"keys"`
	State    fit.State  `json:"state"`
	Says     string     `json:"says"`
	Findings []fit.Code `json:"findings"`
}

// cards is the kinds of M.2 card that are met.
var cards = []struct {
	name string
	d    part.Drive
}{
	{"M-key NVMe x4", part.Drive{Protocol: link.PCIe, Gen: 4, Lanes: 4, M2: &part.M2{Keys: []part.Key{part.KeyM}}}},
	{"M-key SATA", part.Drive{Protocol: link.SATA, Gen: 3, M2: &part.M2{Keys: []part.Key{part.KeyM}}}},
	{"B+M SATA", part.Drive{Protocol: link.SATA, Gen: 3, M2: &part.M2{Keys: []part.Key{part.KeyB, part.KeyM}}}},
	{"B+M NVMe x2", part.Drive{Protocol: link.PCIe, Gen: 3, Lanes: 2, M2: &part.M2{Keys: []part.Key{part.KeyB, part.KeyM}}}},
	{"A+E NVMe x1", part.Drive{Protocol: link.PCIe, Gen: 3, Lanes: 1, M2: &part.M2{Keys: []part.Key{part.KeyA, part.KeyE}}}},
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
		b := rig.Rig{Sheet: &sheet, Pieces: []rig.Piece{{ID: "card", Part: &part.Part{Name: c.name, Drive: &d}}},
			Setup: rig.Setup{Placements: []rig.Placement{{Item: "card", Socket: rig.On("socket")}}}}
		r := fit.Resolve(&b)
		f := Fit{Card: c.name, Keys: m.Keys, State: r.Sockets[0].State, Says: r.Sockets[0].Says, Findings: []fit.Code{}}
		for _, x := range r.Findings {
			f.Findings = append(f.Findings, x.Code)
			if x.Severity == fit.Stops {
				f.Says = x.Says
			}
		}
		out[i] = f
	}
	return out
}

// Population spreads modules, written one kind a line as shorthand, over a
// machine's slots: the largest first, by the sheet's order where it has one.
func Population(sheet *machine.Sheet, text string) (Reply, error) {
	var pieces []rig.Piece
	for _, line := range strings.FieldsFunc(text, func(c rune) bool { return c == '\n' || c == '+' }) {
		if strings.TrimSpace(line) == "" {
			continue
		}
		got, err := part.ParseShorthand(line)
		if err != nil {
			return Reply{}, err
		}
		if got.Part.Module == nil {
			return Reply{}, fmt.Errorf("%q is a drive: write modules, one kind a line", strings.TrimSpace(line))
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
			pieces = append(pieces, rig.Piece{ID: rig.ItemID("m" + strconv.Itoa(len(pieces)+1)), Part: &got.Part})
		}
	}
	if len(pieces) == 0 {
		return Reply{}, fmt.Errorf("no module was written: write for example 2x16 DDR4-3200")
	}
	slots, guess := sheet.OrderOrGuess(len(pieces))
	if len(pieces) > len(slots) {
		return Reply{}, fmt.Errorf("%d modules and %d slots", len(pieces), len(slots))
	}
	slices.SortStableFunc(pieces, func(a, b rig.Piece) int {
		return int(min(1, max(-1, b.Part.Module.SizeBytes-a.Part.Module.SizeBytes)))
	})
	b := rig.Rig{Sheet: sheet, Pieces: pieces}
	slots = spread(sheet, slots[:len(pieces)])
	for i, p := range pieces {
		b.Placements = append(b.Placements, rig.Placement{Item: p.ID, Socket: rig.On(slots[i])})
	}
	r := fit.Resolve(&b)
	a := reply(r.Memory.Total + ", " + r.Memory.Speed + ", " + r.Memory.Spread)
	for i, p := range pieces {
		a.line(string(slots[i]), p.Part.Describe())
	}
	a.line("peak", r.Memory.Peak)
	for _, f := range r.Findings {
		a.line(string(f.Severity), f.Says)
	}
	if guess {
		a.because(fit.FromSheet, "the sheet gives no order for "+strconv.Itoa(len(pieces))+" modules; these slots are a guess")
	} else {
		a.because(fit.FromSheet, "for "+strconv.Itoa(len(pieces))+" modules the sheet says these slots")
	}
	a.Because = append(a.Because, r.Memory.Because...)
	return a, nil
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
