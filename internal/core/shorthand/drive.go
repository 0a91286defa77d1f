package shorthand

// This file reads the words of drives, optical ones included.

import (
	"errors"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// What words of drives are about.
const (
	protocol   attribute = "protocol"
	driveForm  attribute = "drive form"
	media      attribute = "media"
	turns      attribute = "turns"
	generation attribute = "generation"
	lanes      attribute = "lanes"
	readRate   attribute = "read rate"
	writeRate  attribute = "write rate"
	gigabits   attribute = "gigabits"
	watts      attribute = "watts"
	pinOff     attribute = "power disable"
	keys       attribute = "keys"
	length     attribute = "length"
	width      attribute = "width"
	topHeight  attribute = "height above"
	sides      attribute = "sides"
	underside  attribute = "height below"
	heatsink   attribute = "heatsink"
	thick      attribute = "millimetres"
)

// inch is how the sizes of boxes are written.
const inch = `(?: ?(?:"|''|-?inch|in))?`

// m2Phrases are of all M.2 cards, drives and others.
var m2Phrases = []phrase{
	read(`([ABEM])(?: ?[-+&/] ?([ABEM]))?[ -]?key(?:ed)?`, (*reader).notched),
	read(`key[ -]?([ABEM])(?: ?[+&/] ?([ABEM]))?`, (*reader).notched),
	read(`([ABEM])\+([ABEM])`, (*reader).notched),
	say(`1S|(?:single|one)[- ]sided`, sides, quantity.No, OnOneSide),
	say(`2S|(?:double|dual|two)[- ]sided`, sides, quantity.Yes, OnBothSides),
}

var drivePhrases = slices.Concat([]phrase{
	read(`(22|25|30)(30|42|52|60|80|110)(?:-([SD]\d))?((?:-[ABEM]){0,2})`, (*reader).designation),
	read(`(22|25|30) ?x ?(30|42|52|60|80|110)()() ?(?:mm)?`, (*reader).designation),
	say(`nvme(?: (?:1\.[0-4]|2\.[01])[a-e]?)?`, protocol, link.PCIe, IsPCIeDrive),
	read(`(?:pcie|pci express)[ -]?(?:gen ?)?([1-6])(?:\.\d)?(?: ?x ?([124]))?`, func(r *reader, word string, m []string) error {
		if err := r.set(word, protocol, link.PCIe); err != nil {
			return err
		}
		return r.ended(word, m[1], m[2])
	}),
	say(`pcie`, protocol, link.PCIe, IsPCIeDrive),
	read(`gen ?([1-6])(?: ?x ?([124]))?`, func(r *reader, word string, m []string) error { return r.ended(word, m[1], m[2]) }),
	read(`sata[ -]?(III|II|I)`, func(r *reader, word string, m []string) error { return r.sata(word, sataGen(m[1])) }),
	read(`sata-?([123])(?:\.0)?`, func(r *reader, word string, m []string) error { return r.sata(word, sataGen(m[1])) }),
	read(`sata ([123])\.0`, func(r *reader, word string, m []string) error { return r.sata(word, sataGen(m[1])) }),
	say(`(?:s-?ata|serial ata)`, protocol, link.SATA, IsSATADrive),
	read(`(\d{1,2}(?:\.\d{1,2})?) ?(?:Gb/s|Gbps|Gbit/s)(?: read)?`, (*reader).giga),
	say(`(?:M\.?2|NGFF)(?: ssd| card)?`, driveForm, part.FormM2, IsM2Card),
	say(`2\.5`+inch, driveForm, part.Form2i5, IsOfForm, part.Form2i5),
	say(`3\.5`+inch, driveForm, part.Form3i5, IsOfForm, part.Form3i5),
	say(`U\.?2`, driveForm, part.FormU2, IsOfForm, part.FormU2),
	say(`5\.25`+inch, driveForm, part.Form5i25, IsOfForm, part.Form5i25),
	say(`slim(?:line)?(?: optical)?(?: drive)?`, driveForm, part.FormSlim, IsOfForm, part.FormSlim),
	say(`ssd|flash|[TQM]LC`, media, part.Flash, IsFlash),
	say(`hdd|hard (?:disk|drive)|disk`, media, part.Platter, IsPlatters),
	say(`optical(?: drive)?|(?:DVD|CD|BD|blu-?ray)(?:[-+ ]?(?:RW|ROM|RE|R))?(?:[ -](?:drive|burner|writer))?`, media, part.Optical, IsOptical),
	read(`(\d{4,5}) ?(?:rpm|r/min|/min)`, func(r *reader, word string, m []string) error { return r.spins(word, number(m[1])) }),
	read(`(5|7|10|15)(?:\.(\d))?k ?(?:rpm)?`, func(r *reader, word string, m []string) error {
		return r.spins(word, number(m[1])*1000+number(m[2])*100)
	}),
}, m2Phrases, []phrase{
	read(`(?:with )?heatsink (\d{1,2}(?:\.\d)?) ?mm`, func(r *reader, word string, m []string) error {
		if err := r.set(word, heatsink, quantity.Yes); err != nil {
			return err
		}
		return r.claim(word, topHeight, millimetres(m[1]), fact.Of(SinkUpTo, millimetres(m[1])))
	}),
	say(`no heatsink|without heatsink|bare`, heatsink, quantity.No, IsBare),
	say(`(?:with )?heatsink`, heatsink, quantity.Yes, BringsSink),
	read(`top-(\d{1,2}(?:\.\d{1,2})?)mm`, func(r *reader, word string, m []string) error {
		return r.claim(word, topHeight, millimetres(m[1]), fact.Of(StandsUpTo, millimetres(m[1])))
	}),
	read(`under-(\d{1,2}(?:\.\d{1,2})?)mm`, func(r *reader, word string, m []string) error {
		return r.claim(word, underside, millimetres(m[1]), fact.Of(HangsDownTo, millimetres(m[1])))
	}),
	read(`(?:write|w:?) ?(\d{2,5}) ?(?:MB/s|MBps)|(\d{2,5}) ?(?:MB/s|MBps) write`, func(r *reader, word string, m []string) error {
		n := number(m[1] + m[2])
		return r.claim(word, writeRate, n, fact.Of(WritesAt, quantity.MBps(float64(n))))
	}),
	read(`(?:up to |read |r:? ?)?(\d{2,5})(?: ?/ ?(\d{2,5}))? ?(?:MB/s|MBps)(?: read)?`, func(r *reader, word string, m []string) error {
		if m[2] != "" {
			r.means(word, fact.Of(WritesAt, quantity.MBps(float64(number(m[2])))))
		}
		return r.reads(word, float64(number(m[1])))
	}),
	read(`(\d{1,3}(?:\.\d)?) ?W`, func(r *reader, word string, m []string) error {
		return r.claim(word, watts, float(m[1]), fact.Of(DrawsUpTo, fact.Typed(m[1])))
	}),
	say(`power[- ]disable|PWDIS`, pinOff, quantity.Yes, HasPinOff),
	say(`no[- ]power[- ]disable`, pinOff, quantity.No, NoPinOff),
})

func float(s string) float64 {
	v, err := strconv.ParseFloat(s, 64)
	if err != nil {
		return 0 // a pattern let it in
	}
	return v
}

func millimetres(s string) quantity.Millimetres { return quantity.Millimetres(float(s)) }

// ended is a generation and, where it follows, a width of the drive's end.
func (r *reader) ended(word, gen, wide string) error {
	if wide != "" {
		if err := r.claim(word, lanes, quantity.Lanes(number(wide)), fact.Of(HasLanes, number(wide))); err != nil {
			return err
		}
	}
	return r.claim(word, generation, quantity.Gen(number(gen)), fact.Of(IsOfGeneration, number(gen)))
}

// sataGen reads the generation of SATA in Roman or other figures.
func sataGen(s string) int {
	if strings.Trim(s, "iI") == "" {
		return len(s)
	}
	return number(s)
}

func (r *reader) sata(word string, gen int) error {
	if err := r.set(word, generation, quantity.Gen(gen)); err != nil {
		return err
	}
	return r.claim(word, protocol, link.SATA, fact.Of(IsSATAOf, gen))
}

// giga is "6Gb/s", a rate of SATA's link. Where capitals are used for all letters it may be
// gigabytes: what the drive speaks tells.
func (r *reader) giga(word string, m []string) error {
	if strings.Contains(word, "B/s") || strings.Contains(word, "B/S") || strings.Contains(word, "GBps") || strings.Contains(word, "GBPS") {
		r.claims[gigabits] = claim{word, m[1]}
		return nil
	}
	return r.linkRate(word, m[1])
}

// linkRate is a rate of SATA's link, by which its generations are known.
func (r *reader) linkRate(word, gbps string) error {
	gen, ok := map[string]int{"1.5": 1, "3": 2, "6": 3, "3.0": 2, "6.0": 3}[gbps]
	if !ok {
		return fact.Err(MeansNothing, word)
	}
	return r.sata(word, gen)
}

func (r *reader) reads(word string, mbps float64) error {
	return r.claim(word, readRate, mbps, fact.Of(ReadsAt, quantity.MBps(mbps)))
}

func (r *reader) spins(word string, n int) error {
	if n < 3000 || n > 20_000 {
		return fact.Err(MeansNothing, word)
	}
	if err := r.set(word, media, part.Platter); err != nil {
		return err
	}
	return r.claim(word, turns, n, fact.Of(IsPlattersAt, n))
}

// notched is the keys a card is notched at: one, or two different ones.
func (r *reader) notched(word string, m []string) error {
	list := []part.Key{part.Key(strings.ToUpper(m[1]))}
	if m[2] != "" {
		list = append(list, part.Key(strings.ToUpper(m[2])))
	}
	return r.keyed(word, list)
}

func (r *reader) keyed(word string, list []part.Key) error {
	slices.Sort(list)
	if len(list) == 2 && list[0] == list[1] {
		return fact.Err(MeansNothing, word)
	}
	return r.claim(word, keys, part.Keys(list), fact.Of(IsNotchedAt, list))
}

// keysOf is the keys that part.Keys printed.
func keysOf(s string) (out []part.Key) {
	for _, k := range strings.Split(s, " and ") {
		if k != "" {
			out = append(out, part.Key(k))
		}
	}
	return out
}

// heights is the height codes of M.2 cards: the tallest thing above the board and
// below it (PCI Express M.2). Later codes vary by revision and are not read.
var heights = map[string]struct{ top, bottom quantity.Millimetres }{
	"S1": {1.2, 0}, "S2": {1.35, 0}, "S3": {1.5, 0},
	"D1": {1.2, 1.35}, "D2": {1.35, 1.35}, "D3": {1.5, 1.35}, "D4": {1.5, 0.7}, "D5": {1.5, 1.5},
}

// m2Sizes is the M.2 sizes of cards for sockets, by width (PCI Express M.2).
var m2Sizes = map[quantity.Millimetres][]quantity.Millimetres{22: {30, 42, 60, 80, 110}, 25: {110}, 30: {30, 42, 52}}

// designation takes apart "2280-D2-M" or "2280-S3-B-M": size, height code, keys.
func (r *reader) designation(word string, m []string) error {
	wide, long := millimetres(m[1]), millimetres(m[2])
	if !slices.Contains(m2Sizes[wide], long) {
		return fact.Err(MeansNothing, word)
	}
	if err := errors.Join(r.set(word, width, wide), r.set(word, length, long)); err != nil {
		return err
	}
	means := fact.Of(SizedM2, wide, long)
	if m[3] != "" {
		h, ok := heights[strings.ToUpper(m[3])]
		if !ok {
			return fact.Err(MeansNothing, word)
		}
		two := quantity.No
		means = fact.Of(SizedM2Above, wide, long, h.top)
		if h.bottom.Known() {
			two = quantity.Yes
			means = fact.Of(SizedM2Between, wide, long, h.top, h.bottom)
			if err := r.set(word, underside, h.bottom); err != nil {
				return err
			}
		}
		if err := errors.Join(r.set(word, topHeight, h.top), r.set(word, sides, two)); err != nil {
			return err
		}
	}
	r.means(word, means)
	if m[4] == "" {
		return nil
	}
	var list []part.Key
	for _, k := range strings.Split(strings.ToUpper(m[4][1:]), "-") {
		list = append(list, part.Key(k))
	}
	return r.keyed(word, list)
}

// m2Words is what only M.2 cards have.
var m2Words = []attribute{keys, length, topHeight, sides, underside, heatsink}

// m2 is the mechanical side of an M.2 card.
func (r *reader) m2() *part.M2 {
	return &part.M2{Keys: keysOf(of[string](r, keys)), LengthMM: of[quantity.Millimetres](r, length), WidthMM: of[quantity.Millimetres](r, width), Heatsink: of[quantity.Answer](r, heatsink),
		TopMM: of[quantity.Millimetres](r, topHeight), BottomMM: of[quantity.Millimetres](r, underside), TwoSided: of[quantity.Answer](r, sides)}
}

// drive makes the part of what was claimed, all but its capacity.
func (r *reader) drive() (*part.Drive, error) {
	if g, ok := r.claims[gigabits].value.(string); ok {
		word := r.claims[gigabits].word
		switch of[link.Protocol](r, protocol) {
		case link.SATA:
			if err := r.linkRate(word, g); err != nil {
				return nil, err
			}
		case link.PCIe:
			if err := r.reads(word, float(g)*1000); err != nil {
				return nil, err
			}
		default:
			r.ask(WhichProtocol, "nvme", "sata")
		}
	}
	d := &part.Drive{
		Form: of[part.Form](r, driveForm), Protocol: of[link.Protocol](r, protocol), Media: of[part.Media](r, media), TurnsPerMin: of[int](r, turns),
		Gen: of[quantity.Gen](r, generation), Lanes: of[quantity.Lanes](r, lanes), ReadMBps: of[float64](r, readRate), Watts: of[float64](r, watts), PowerDisable: of[quantity.Answer](r, pinOff),
	}
	if n, ok := r.claims[times].value.(int); ok {
		if n > 4 {
			return nil, fact.Err(MeansNothing, r.claims[times].word)
		}
		if err := r.claim(r.claims[times].word, lanes, quantity.Lanes(n), fact.Of(HasLanes, n)); err != nil {
			return nil, err
		}
		d.Lanes = quantity.Lanes(n)
	}
	for _, a := range m2Words {
		if !r.has(a) {
			continue
		}
		if d.Form != "" && d.Form != part.FormM2 {
			return nil, fact.Err(WordsOfTwoForms, d.Form)
		}
		d.Form = part.FormM2
	}
	switch {
	case d.Media == part.Optical && d.Form == part.Form2i5, d.Media == part.Optical && d.Form == part.Form3i5, d.Media == part.Optical && d.Form == part.FormM2:
		return nil, fact.Err(TwoAnswers, r.claims[media].word, r.claims[driveForm].word)
	case d.Form.Optical():
		d.Media = part.Optical
	}
	if (d.Media == part.Platter || d.Media == part.Optical) && d.Protocol == "" { // those for these sockets are SATA
		d.Protocol = link.SATA
	}
	if err := r.measured(d); err != nil {
		return nil, err
	}
	if d.Form == part.FormM2 {
		d.M2 = r.m2()
		if d.Protocol != link.SATA && d.Lanes > d.M2.MaxLanes() {
			return nil, fact.Err(NotchAgainstWidth, part.Keys(d.M2.Keys), d.M2.MaxLanes())
		}
	}
	r.driveLacks(d)
	return d, nil
}

// measured is millimetres without a word of what they measure: the height of a box, the
// length of an M.2 card where cards have such a length.
func (r *reader) measured(d *part.Drive) error {
	mm := of[quantity.Millimetres](r, thick)
	switch {
	case !mm.Known():
	case d.Form == part.FormM2 && slices.Contains(m2Sizes[22], mm):
		return r.set(r.claims[thick].word, length, mm)
	case d.Form == part.FormM2 && of[quantity.Answer](r, heatsink) == quantity.Yes && !r.has(topHeight):
		return r.set(r.claims[thick].word, topHeight, mm)
	case d.Form == part.FormM2:
		return fact.Err(WhichMeasure, r.claims[thick].word)
	default:
		d.HeightMM = mm
	}
	return nil
}

func (r *reader) driveLacks(d *part.Drive) {
	if d.Form == "" {
		choices := []string{"M.2", "2.5", "3.5"}
		switch {
		case d.Protocol == link.PCIe:
			choices = []string{"M.2", "U.2"}
		case d.Media == part.Optical:
			choices = []string{"slim", "5.25"}
		case d.Media == part.Platter:
			choices = []string{"2.5", "3.5"}
		}
		if d.HeightMM.Known() && choices[0] == "M.2" { // of a box
			choices = choices[1:]
		}
		r.ask(WhichForm, choices...)
	}
	r.lacks(d.Media == part.Optical || len(r.sizes) > 0, LacksCapacity)
	r.lacks(d.Protocol != "", LacksProtocol)
	r.lacks(d.Gen.Known(), LacksGeneration)
	if d.Protocol == link.PCIe {
		r.lacks(d.Lanes.Known(), LacksLanes)
	}
	if d.M2 != nil {
		r.lacks(d.M2.LengthMM.Known(), LacksLength)
		r.lacks(len(d.M2.Keys) > 0, LacksNotch)
		r.lacks(d.M2.TwoSided != quantity.Unknown, LacksSides)
	}
	if d.Form == part.FormSlim {
		r.lacks(d.HeightMM.Known(), LacksHeight)
	}
}
