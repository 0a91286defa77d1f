package shorthand

// This file reads the words of memory modules.

import (
	"cmp"
	"errors"
	"math"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// What words of modules are about.
const (
	family     attribute = "family"
	moduleForm attribute = "module form"
	rate       attribute = "rate"
	unitRate   attribute = "rate with a unit"
	profile    attribute = "profile"
	speedIs    attribute = "speed is" // base or profile
	latency    attribute = "latency"
	rankCount  attribute = "ranks"
	devices    attribute = "devices"
	checkBits  attribute = "ecc"
	registered attribute = "registered"
	clockChip  attribute = "clock driver"
	voltages   attribute = "voltages"
	labelVolts attribute = "voltages of its family"
	inDoubt    attribute = "letter in doubt"
)

const (
	base      = "base"
	isProfile = "profile"
)

var modulePhrases = []phrase{
	read(`([1-8])(?:([DQS])([1-8]))?Rx?(4|8|16)`, (*reader).organisation),
	read(`PC([2-5][LU]?)[ -]?(\d{4,5}[A-Z]{0,2}(?:-[^\s,;()]*)?)`, (*reader).code),
	read(`PC([2-5])(L?)`, (*reader).familyAlone),
	read(`DDR([2-5])(L?)[ -]?(\d{2,5})([A-Z]{1,2})?(?: ?(?:MHz|MT/s|MTps))?`, (*reader).familyAt),
	read(`DDR([2-5])(L?)`, (*reader).familyAlone),
	read(`LPDDR\d?X?`, func(_ *reader, word string, _ []string) error { return fact.Err(SolderedDown, word) }),
	read(`(\d{3,5}) ?(?:MT/s|MTps|MHz)`, func(r *reader, word string, m []string) error {
		return r.claim(word, unitRate, quantity.MTps(number(m[1])), fact.Of(TransfersAt, quantity.MTps(number(m[1]))))
	}),
	read(`(?:CL ?|C)(\d{1,2})((?:-\d{1,3}){0,4})`, (*reader).latency),
	read(`(\d{2})((?:-\d{2}){2}(?:-\d{2,3})?)`, (*reader).latency),
	read(`profile[- ]?(\d{3,5})(?: ?(?:MHz|MT/s|MTps))?`, func(r *reader, word string, m []string) error {
		at := quantity.MTps(number(m[1]))
		if at < 100 || at > 20_000 {
			return fact.Err(MeansNothing, word)
		}
		return r.claim(word, profile, at, fact.Of(HasProfile, at))
	}),
	say(`profile`, speedIs, isProfile, SpeedIsProfile),
	say(`base`, speedIs, base, SpeedIsBase),
	read(`(single|dual|quad)[- ]rank(?:ed)?`, func(r *reader, word string, m []string) error {
		n := map[string]int{"single": 1, "dual": 2, "quad": 4}[strings.ToLower(m[1])]
		return r.claim(word, rankCount, n, fact.Of(HasRanks, n))
	}),
	read(`(\d{1,2})R`, func(r *reader, word string, m []string) error {
		n := number(m[1])
		if n < 1 || n > 16 {
			return fact.Err(MeansNothing, word)
		}
		return r.claim(word, rankCount, n, fact.Of(HasRanks, n))
	}),
	say(`DIMM|long|desktop`, moduleForm, memory.DIMM, LongModule),
	say(`SO-?DIMM|laptop|notebook`, moduleForm, memory.SODIMM, ShortModule),
	formed(`UDIMM`, memory.DIMM, quantity.No, LongUnbuffered),
	formed(`(?:LR|R)-?DIMM`, memory.DIMM, quantity.Yes, LongRegistered),
	clocked(`CU-?DIMM`, memory.DIMM, LongClocked),
	clocked(`CSO-?DIMM`, memory.SODIMM, ShortClocked),
	pins(`288[- ]?pins?`, memory.DIMM, "", LongPins),
	pins(`240[- ]?pins?`, memory.DIMM, "", LongPins),
	pins(`200[- ]?pins?`, memory.SODIMM, memory.DDR2, ShortPins),
	pins(`204[- ]?pins?`, memory.SODIMM, memory.DDR3, ShortPins),
	pins(`260[- ]?pins?`, memory.SODIMM, memory.DDR4, ShortPins),
	pins(`262[- ]?pins?`, memory.SODIMM, memory.DDR5, ShortPins),
	say(`non-?ECC|no ECC`, checkBits, quantity.No, NoCheckBits),
	say(`ECC`, checkBits, quantity.Yes, HasCheckBits),
	say(`reg(?:istered)?`, registered, quantity.Yes, IsRegistered),
	say(`unbuffered|unregistered`, registered, quantity.No, IsUnbuffered),
	say(`no clock driver|no-clock-driver`, clockChip, quantity.No, NoClockDriver),
	say(`clock[- ]driver|CKD`, clockChip, quantity.Yes, HasClockDriver),
	read(`(\d(?:\.\d{1,3})?) ?V?/ ?(\d(?:\.\d{1,3})?) ?V`, (*reader).volts),
	read(`(\d(?:\.\d{1,3})?) ?V`, (*reader).volts),
}

// formed is a word that tells form and registration.
func formed(pattern string, f memory.Form, reg quantity.Answer, means fact.Code) phrase {
	return read(pattern, func(r *reader, word string, _ []string) error {
		if err := r.set(word, registered, reg); err != nil {
			return err
		}
		return r.claim(word, moduleForm, f, fact.Of(means))
	})
}

// clocked is a word for modules that bring a clock driver, which are DDR5 (JESD323, JESD324).
func clocked(pattern string, f memory.Form, means fact.Code) phrase {
	return read(pattern, func(r *reader, word string, _ []string) error {
		if err := errors.Join(r.set(word, family, memory.DDR5), r.set(word, clockChip, quantity.Yes), r.set(word, registered, quantity.No)); err != nil {
			return err
		}
		return r.claim(word, moduleForm, f, fact.Of(means))
	})
}

// pins is a number of contacts, which tells the form and, of short modules, the family
// (JEDEC MO-224, -268, -310, -337).
func pins(pattern string, f memory.Form, g memory.Generation, means fact.Code) phrase {
	return read(pattern, func(r *reader, word string, _ []string) error {
		if g == "" {
			return r.claim(word, moduleForm, f, fact.Of(means))
		}
		if err := r.set(word, family, g); err != nil {
			return err
		}
		return r.claim(word, moduleForm, f, fact.Of(means, g))
	})
}

// organisation is "2Rx8" or "4S2Rx4": ranks of devices of a width. A stack counts its
// dies as ranks, dual and quad dies in a package do not.
func (r *reader) organisation(word string, m []string) error {
	n := number(m[1])
	if strings.EqualFold(m[2], "S") {
		n *= number(m[3])
	}
	if n > 16 {
		return fact.Err(MeansNothing, word)
	}
	if err := r.set(word, devices, number(m[4])); err != nil {
		return err
	}
	return r.claim(word, rankCount, n, fact.Of(RanksOf, n, number(m[4])))
}

// code is a module code, whole or short.
func (r *reader) code(word string, m []string) error {
	p, err := memory.ReadCode("PC" + m[1] + "-" + m[2])
	if err != nil {
		return err
	}
	if err := r.speed(word, p.Rated); err != nil {
		return err
	}
	means := []fact.Fact{fact.Of(IsSpeed, fact.Typed(p.Name()), fact.Typed(p.ModuleName()))}
	for _, c := range []struct {
		said  bool
		a     attribute
		value any
		means fact.Fact
	}{
		{p.CL > 0, latency, p.CL, fact.Of(Clocks, p.CL)},
		{p.Form != "", moduleForm, p.Form, fact.Of(OfForm, p.Form)},
		{p.Registered == quantity.Yes, registered, p.Registered, fact.Of(IsRegistered)},
		{p.Registered == quantity.No, registered, p.Registered, fact.Of(IsUnbuffered)},
		{p.ECC == quantity.Yes, checkBits, p.ECC, fact.Of(HasCheckBits)},
		{p.ECC == quantity.No, checkBits, p.ECC, fact.Of(NoCheckBits)},
		{p.Doubt != "", inDoubt, p, fact.Of(LetterInDoubt, fact.Typed(p.Doubt))},
		{len(p.Millivolts) > 0, labelVolts, voltage(p.Millivolts), fact.Of(RunsAt, p.Millivolts)},
	} {
		if !c.said {
			continue
		}
		if c.a == inDoubt {
			r.claims[inDoubt] = claim{word, p}
		} else if err := r.set(word, c.a, c.value); err != nil {
			return err
		}
		means = append(means, c.means)
	}
	r.means(word, fact.Of(AllOf, means))
	return nil
}

// speed claims family and rate.
func (r *reader) speed(word string, s memory.Rated) error {
	if err := r.set(word, family, s.Generation); err != nil {
		return err
	}
	return r.set(word, rate, s.Label)
}

func (r *reader) familyAlone(word string, m []string) error {
	g := memory.Generation("ddr" + m[1])
	if err := r.low(word, g, m[2]); err != nil {
		return err
	}
	return r.claim(word, family, g, fact.Of(IsOfFamily, g))
}

// low is the L of DDR3L.
func (r *reader) low(word string, g memory.Generation, letter string) error {
	if letter == "" {
		return nil
	}
	if g != memory.DDR3 {
		return fact.Err(MeansNothing, word)
	}
	v := []quantity.Millivolts{1350, 1500}
	r.means(word, fact.Of(RunsAt, v))
	return r.set(word, labelVolts, voltage(v))
}

// familyAt is "DDR4-3200", "DDR5 6000" or "DDR4-2400T". Of a speed that no module of the
// family has of its own, that of a stored profile is meant.
func (r *reader) familyAt(word string, m []string) error {
	g, n := memory.Generation("ddr"+m[1]), number(m[3])
	s, ok := memory.Speed(g, n)
	if most := mostBase[g]; !ok && most > 0 && quantity.MTps(n) > most && quantity.MTps(n) <= 2*most && m[4] == "" {
		if err := r.set(word, family, g); err != nil {
			return err
		}
		return r.claim(word, profile, quantity.MTps(n), fact.Of(FamilyAtProfile, g, quantity.MTps(n)))
	}
	if !ok {
		if strings.ContainsRune(word, ' ') {
			return errNotThis{} // the family, and a number of something else
		}
		return fact.Err(memory.HasNoSpeedNear, word, g, n)
	}
	if err := r.low(word, g, m[2]); err != nil {
		return err
	}
	if err := r.speed(word, s); err != nil {
		return err
	}
	r.means(word, fact.Of(IsSpeed, fact.Typed(s.Name()), fact.Typed(s.ModuleName())))
	if m[4] == "" {
		return nil
	}
	p, err := memory.ReadCode("PC" + m[1] + "-" + m[3] + m[4])
	if err != nil || p.CL == 0 && p.Doubt == "" {
		return fact.Err(MeansNothing, word)
	}
	_, cl := p.Doubted() // a letter after the speed name is the bin
	return r.claim(word, latency, max(p.CL, cl), fact.Of(Clocks, max(p.CL, cl)))
}

func (r *reader) latency(word string, m []string) error {
	n := number(m[1])
	if n < 2 {
		return fact.Err(MeansNothing, word)
	}
	if m[2] != "" {
		return r.claim(word, latency, n, fact.Of(Timings, n))
	}
	return r.claim(word, latency, n, fact.Of(Clocks, n))
}

func (r *reader) volts(word string, m []string) error {
	list := of[string](r, voltages)
	for _, s := range m[1:] {
		v, err := strconv.ParseFloat(s, 64)
		if err != nil || v < 0.5 || v > 5 {
			return fact.Err(MeansNothing, word)
		}
		mv := quantity.Millivolts(math.Round(v * 1000))
		r.means(word, fact.Of(RunsAt, []quantity.Millivolts{mv}))
		if list = joined(list, mv); len(parted(list)) > 4 {
			return fact.Err(MeansNothing, word)
		}
	}
	r.claims[voltages] = claim{word, list}
	return nil
}

// Voltages are claimed as one value: rising, with a slash between.
func voltage(list []quantity.Millivolts) string {
	out := ""
	for _, v := range list {
		out = joined(out, v)
	}
	return out
}

func joined(list string, v quantity.Millivolts) string {
	out, in := "", false
	for _, o := range parted(list) {
		if !in && v <= o {
			out, in = out+"/"+strconv.Itoa(int(v)), true
		}
		if o != v {
			out += "/" + strconv.Itoa(int(o))
		}
	}
	if !in {
		out += "/" + strconv.Itoa(int(v))
	}
	return strings.TrimPrefix(out, "/")
}

func parted(list string) (out []quantity.Millivolts) {
	for _, s := range strings.FieldsFunc(list, func(c rune) bool { return c == '/' }) {
		out = append(out, quantity.Millivolts(number(s)))
	}
	return out
}

// mostBase is the fastest that modules of a generation commonly are of their own, without
// a stored profile (JESD79-3 and -4 in full, JESD79-5 as it came out): a label beyond it
// is a profile, or, of DDR5, either.
var mostBase = map[memory.Generation]quantity.MTps{memory.DDR3: 1866, memory.DDR4: 3200, memory.DDR5: 5600}

// module makes the part of what was claimed.
func (r *reader) module() (*part.Module, error) {
	m := &part.Module{
		Generation: of[memory.Generation](r, family), Form: of[memory.Form](r, moduleForm), RateMTps: of[quantity.MTps](r, rate), ProfileMTps: of[quantity.MTps](r, profile),
		CL: of[int](r, latency), Ranks: of[int](r, rankCount), ECC: of[quantity.Answer](r, checkBits), Registered: of[quantity.Answer](r, registered),
		ClockDriver: of[quantity.Answer](r, clockChip), HeightMM: of[quantity.Millimetres](r, thick),
	}
	// What a label says of its family, and what is printed beside it, is one list.
	m.Millivolts = parted(of[string](r, cmp.Or(map[bool]attribute{true: labelVolts}[r.has(labelVolts)], voltages)))
	for _, v := range parted(of[string](r, voltages)) {
		if !slices.Contains(m.Millivolts, v) {
			return nil, fact.Err(TwoAnswers, r.claims[labelVolts].word, r.claims[voltages].word)
		}
	}
	if err := r.unitRate(m); err != nil {
		return nil, err
	}
	r.profiled(m)
	if p, ok := r.claims[inDoubt].value.(memory.Printed); ok {
		reg, cl := p.Doubted()
		switch {
		case m.CL == 0 && m.Registered == quantity.Unknown:
			word := map[quantity.Answer]string{quantity.Yes: "registered", quantity.No: "unbuffered"}[reg]
			r.ask(KindOrBin, word, "CL"+strconv.Itoa(cl))
		case m.CL != 0 && m.CL != cl && m.Registered != reg:
			return nil, fact.Err(TwoAnswers, r.claims[inDoubt].word, r.claims[latency].word)
		}
	}
	if at := cmp.Or(m.RateMTps, m.ProfileMTps); m.CL > 0 && at.Known() {
		r.means(r.claims[latency].word, fact.Of(HasLatency, m.CL, memory.Latency(m.CL, at)))
	}
	r.lacks(m.SizeBytes.Known() || len(r.sizes) > 0, LacksSize)
	r.lacks(m.Generation != "", LacksFamily)
	r.lacks(m.RateMTps.Known(), LacksSpeed)
	if m.Form == "" {
		r.ask(WhichForm, "DIMM", "SODIMM")
	}
	r.lacks(m.Ranks > 0, LacksRanks)
	r.lacks(m.ECC != quantity.Unknown, LacksECC)
	r.lacks(m.Registered != quantity.Unknown, LacksRegister)
	return m, nil
}

// unitRate is "3200 MHz", which needs the family to be a speed. What is sold as MHz is
// transfers: the clock is half of it.
func (r *reader) unitRate(m *part.Module) error {
	at, word := of[quantity.MTps](r, unitRate), r.claims[unitRate].word
	if !at.Known() || at == m.ProfileMTps {
		return nil
	}
	if m.Generation == "" {
		var choices []string
		for _, g := range []memory.Generation{memory.DDR2, memory.DDR3, memory.DDR4, memory.DDR5} {
			if s, ok := transfers(g, at); ok {
				choices = append(choices, s.Name())
			}
		}
		if len(choices) == 0 {
			return fact.Err(memory.NearNoSpeed, word)
		}
		r.ask(WhichSpeed, choices...)
		return nil
	}
	s, ok := transfers(m.Generation, at)
	switch most := mostBase[m.Generation]; {
	case !ok && most > 0 && at > most && at <= 2*most && !m.ProfileMTps.Known():
		m.ProfileMTps = at
	case !ok:
		return fact.Err(memory.HasNoSpeed, word, m.Generation, int(at))
	case m.RateMTps.Known() && m.RateMTps != s.Label:
		return fact.Err(TwoAnswers, r.claims[rate].word, word)
	default:
		m.RateMTps = s.Label
	}
	return nil
}

// transfers is the speed of a family that is so many transfers a second: labels cut them.
func transfers(g memory.Generation, at quantity.MTps) (memory.Rated, bool) {
	s, ok := memory.Speed(g, int(at))
	return s, ok && max(s.Label-at, at-s.Label) < 2
}

// profiled settles whether the speed that is printed is the module's own or a profile's.
// The standard's label, which has the ranks of its devices, prints the module's own.
func (r *reader) profiled(m *part.Module) {
	switch {
	case !m.RateMTps.Known() || m.ProfileMTps.Known() && m.ProfileMTps != m.RateMTps:
	case m.ProfileMTps == m.RateMTps, of[string](r, speedIs) == isProfile:
		m.ProfileMTps, m.RateMTps = m.RateMTps, 0
	case !r.has(speedIs) && !r.has(devices) && mostBase[m.Generation] > 0 && m.RateMTps > mostBase[m.Generation]:
		r.ask(BaseOrProfile, base, isProfile)
	}
}
