package shorthand

// This file is the short form of each kind of part: a field for each fact that words can
// say, those that decide whether it fits first. A field holds words that Read reads, so that
// a form and a line are two ways to write the same.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// Kind is a kind of part that has a short form.
type Kind string

// The kinds, in the order in which they are offered.
const (
	Drive   Kind = "drive"
	Module  Kind = "module"
	Card    Kind = "card"
	Carrier Kind = "carrier"
	Box     Kind = "box"
	Lead    Kind = "lead"
	Adapter Kind = "power adapter"
	Supply  Kind = "supply lead"
	Holder  Kind = "holder"
)

// Kinds lists the kinds.
func Kinds() []Kind { return []Kind{Drive, Module, Card, Carrier, Box, Lead, Adapter, Supply, Holder} }

// Values lists the kinds for the formats.
func (Kind) Values() []string {
	out := make([]string, len(Kinds()))
	for i, k := range Kinds() {
		out[i] = string(k)
	}
	return out
}

// KindOf is the kind whose form a part has.
func KindOf(p *part.Part) Kind {
	switch {
	case p.Module != nil:
		return Module
	case p.Card != nil && p.Card.Carrier != nil:
		return Carrier
	case p.Card != nil:
		return Card
	case p.Enclosure != nil:
		return Box
	case p.Fitting != nil && p.Fitting.Kind == part.DataLead:
		return Lead
	case p.Fitting != nil && p.Fitting.Kind == part.PowerAdapter:
		return Adapter
	case p.Fitting != nil && p.Fitting.Kind == part.SupplyLead:
		return Supply
	case p.Fitting != nil:
		return Holder
	}
	return Drive
}

// Field is one fact of a form.
type Field struct {
	Name    string
	Label   fact.Code
	Choices []Choice // the words it can hold; none where it is typed
	Example string   // of what is typed
	Fold    bool     // it seldom decides whether the part fits

	Blank fact.Code // what an empty field means; "" is that it is not known

	unit string // follows a number that is typed alone
	of   func(p *part.Part) string
	on   func(p *part.Part) bool // whether such a part has the fact; nil is always
}

// Choice is a word that a field can hold, and what it means.
type Choice struct {
	Word string
	Says fact.Fact
}

// On reports whether a part has the fact at all: a drive in a box has no notches.
func (f *Field) On(p *part.Part) bool { return f.on == nil || f.on(p) || f.of(p) != "" }

// Of is the words of a field for a part, "" where it is not known.
func (f *Field) Of(p *part.Part) string { return f.of(p) }

// What only some parts of a kind have.
func isM2(p *part.Part) bool {
	return p.M2() != nil || p.Drive != nil && p.Drive.Form == "" && p.Drive.Protocol != link.SATA
}
func isBox(p *part.Part) bool  { return p.Drive == nil || p.Drive.Form != part.FormM2 }
func isPCIe(p *part.Part) bool { return p.Drive == nil || p.Drive.Protocol != link.SATA }
func isSlot(p *part.Part) bool { return p.Card == nil || p.Card.M2 == nil }

// Fields is the form of a kind.
func Fields(k Kind) []Field { return forms[k].fields }

// form is the fields of a kind, and the noun that lines of it have.
type form struct {
	noun   string
	empty  func() *part.Part // of which all fields are unknown
	fields []Field
}

// as makes a field of a fact of one kind of part.
func as[T any](get func(*part.Part) *T, of func(*T) string) func(*part.Part) string {
	return func(p *part.Part) string {
		if v := get(p); v != nil {
			return of(v)
		}
		return ""
	}
}

func ofDrive(of func(*part.Drive) string) func(*part.Part) string {
	return as(func(p *part.Part) *part.Drive { return p.Drive }, of)
}
func ofModule(of func(*part.Module) string) func(*part.Part) string {
	return as(func(p *part.Part) *part.Module { return p.Module }, of)
}
func ofCard(of func(*part.Card) string) func(*part.Part) string {
	return as(func(p *part.Part) *part.Card { return p.Card }, of)
}
func ofBox(of func(*part.Enclosure) string) func(*part.Part) string {
	return as(func(p *part.Part) *part.Enclosure { return p.Enclosure }, of)
}
func ofFitting(of func(*part.Fitting) string) func(*part.Part) string {
	return as(func(p *part.Part) *part.Fitting { return p.Fitting }, of)
}
func ofM2(of func(*part.M2) string) func(*part.Part) string { return as((*part.Part).M2, of) }

// when is a word where something is so.
func when(is bool, word string) string {
	if is {
		return word
	}
	return ""
}

func either(a quantity.Answer, yes, no string) string {
	return when(a == quantity.Yes, yes) + when(a == quantity.No, no)
}

// choices pairs words with what they mean.
func choices(pairs ...any) []Choice {
	var out []Choice
	for i := 0; i < len(pairs); i += 2 {
		word, _ := pairs[i].(string)
		c := Choice{Word: word}
		switch says := pairs[i+1].(type) {
		case fact.Code:
			c.Says = fact.Of(says)
		case fact.Fact:
			c.Says = says
		}
		out = append(out, c)
	}
	return out
}

// ofNumbers is a choice for each of some numbers.
func ofNumbers[T ~int | ~uint8 | ~uint16](word func(T) string, means fact.Code, list ...T) []Choice {
	out := make([]Choice, len(list))
	for i, n := range list {
		out[i] = Choice{word(n), fact.Of(means, int(n))}
	}
	return out
}

func genWord(g quantity.Gen) string { return when(g.Known(), "gen"+strconv.Itoa(int(g))) }

func laneWord(l quantity.Lanes) string { return when(l.Known(), l.String()) }

func wattWord(w float64) string { return when(w > 0, strconv.FormatFloat(w, 'f', 1, 64)+"W") }

func mmWord(m quantity.Millimetres) string {
	return when(m.Known(), strings.ReplaceAll(m.String(), " ", ""))
}

var (
	gens       = ofNumbers(genWord, IsOfGeneration, 1, 2, 3, 4, 5, 6)
	keyChoices = choices("M-key", fact.Of(IsNotchedAt, []part.Key{part.KeyM}), "B-key", fact.Of(IsNotchedAt, []part.Key{part.KeyB}), "B+M", fact.Of(IsNotchedAt, []part.Key{part.KeyB, part.KeyM}),
		"E-key", fact.Of(IsNotchedAt, []part.Key{part.KeyE}), "A-key", fact.Of(IsNotchedAt, []part.Key{part.KeyA}), "A+E", fact.Of(IsNotchedAt, []part.Key{part.KeyA, part.KeyE}))
	sizeChoices = func() (out []Choice) {
		for _, wide := range []quantity.Millimetres{22, 25, 30} {
			for _, long := range m2Sizes[wide] {
				out = append(out, Choice{(&part.M2{WidthMM: wide, LengthMM: long}).Size(), fact.Of(SizedM2, wide, long)})
			}
		}
		return out
	}()
	// m2Fields is the mechanical side of all M.2 cards.
	m2Fields = []Field{
		{Name: "size", Label: FieldSize, on: isM2, Choices: sizeChoices, of: ofM2(func(m *part.M2) string {
			if !m.WidthMM.Known() { // "80mm" says no width
				return mmWord(m.LengthMM)
			}
			return when(m.LengthMM.Known(), m.Size())
		})},
		{Name: "keys", Label: FieldKeys, on: isM2, Choices: keyChoices, of: ofM2(func(m *part.M2) string {
			names := make([]string, len(m.Keys))
			for i, k := range m.Keys {
				names[i] = string(k)
			}
			return when(len(names) > 0, strings.Join(names, "+")+when(len(names) == 1, "-key"))
		})},
		{Name: "sides", Label: FieldSides, on: isM2, Choices: choices("1s", OnOneSide, "2s", OnBothSides), of: ofM2(func(m *part.M2) string { return either(m.TwoSided, "2s", "1s") })},
	}
	heightFields = []Field{
		{Name: "top", Label: FieldTop, on: isM2, Fold: true, Example: "top-3.5mm", of: ofM2(func(m *part.M2) string { return when(m.TopMM.Known(), "top-"+mmWord(m.TopMM)) })},
		{Name: "under", Label: FieldUnder, on: isM2, Fold: true, Example: "under-1.35mm", of: ofM2(func(m *part.M2) string { return when(m.BottomMM.Known(), "under-"+mmWord(m.BottomMM)) })},
		{Name: "heatsink", Label: FieldHeatsink, on: isM2, Choices: choices("heatsink", BringsSink, "bare", IsBare), of: ofM2(func(m *part.M2) string { return either(m.Heatsink, "heatsink", "bare") })},
	}
)

// cardFields are those of cards and carriers.
func cardFields(middle ...Field) []Field {
	return slices.Concat([]Field{
		{Name: "into", Label: FieldInto, Blank: IntoSlot, Choices: choices("M.2", IsM2Card), of: ofCard(func(c *part.Card) string { return when(c.M2 != nil, "M.2") })},
		{Name: "edge", Label: FieldEdge, on: isSlot, Choices: ofNumbers(laneWord, EdgeOf, 1, 4, 8, 16), of: ofCard(func(c *part.Card) string { return laneWord(c.Connector) })},
	}, middle, m2Fields, []Field{
		{Name: "gen", Label: FieldGen, Choices: gens, of: ofCard(func(c *part.Card) string { return genWord(c.Gen) })},
		{Name: "wired", Label: FieldWired, Choices: ofNumbers(func(l quantity.Lanes) string { return "wired-" + l.String() }, WiredWith, 1, 2, 4, 8, 16),
			of: ofCard(func(c *part.Card) string { return when(c.Lanes.Known(), "wired-"+c.Lanes.String()) })},
		{Name: "openings", Label: FieldOpenings, on: isSlot, Choices: ofNumbers(func(n int) string { return strconv.Itoa(n) + "-slot" }, Covers, 1, 2, 3, 4),
			of: ofCard(func(c *part.Card) string { return when(c.Openings > 0, strconv.Itoa(c.Openings)+"-slot") })},
		{Name: "length", Label: FieldCardLength, on: isSlot, Example: "240mm", unit: "mm", of: ofCard(func(c *part.Card) string { return mmWord(c.LengthMM) })},
		{Name: "bracket", Label: FieldBracket, on: isSlot, Choices: choices("low-profile", LowBracket, "full-height", FullBracket),
			of: ofCard(func(c *part.Card) string { return either(c.LowBracket, "low-profile", "full-height") })},
		{Name: "plugs", Label: FieldPlugs, Example: "8-pin", of: ofCard(func(c *part.Card) string {
			list := make([]string, len(c.Plugs))
			for i, p := range c.Plugs {
				if list[i] = string(p); p == part.PlugSATA {
					list[i] = "sata power"
				}
			}
			return strings.Join(list, " ")
		})},
		{Name: "watts", Label: FieldWatts, Fold: true, Example: "75W", unit: "W", of: ofCard(func(c *part.Card) string { return wattWord(c.Watts) })},
	})
}

// first is the first position of a carrier; the others are alike where words can say them.
func ofPlaces(of func(c *part.Card, first *part.Position) string) func(*part.Part) string {
	return ofCard(func(c *part.Card) string {
		if c.Carrier == nil {
			return ""
		}
		return of(c, &c.Carrier.Positions[0])
	})
}

func ofBay(of func(p *part.Position) string) func(*part.Part) string {
	return ofBox(func(e *part.Enclosure) string {
		if len(e.Positions) == 0 {
			return ""
		}
		return of(&e.Positions[0])
	})
}

func postWords(list []quantity.Millimetres) string {
	sizes := make([]string, len(list))
	for i, l := range list {
		sizes[i] = "22" + strconv.Itoa(int(l))
	}
	return strings.Join(sizes, "/")
}

var forms = map[Kind]form{
	Drive: {empty: func() *part.Part { return &part.Part{Drive: &part.Drive{}} }, fields: slices.Concat([]Field{
		{Name: "capacity", Label: FieldCapacity, Example: "1TB", unit: "GB", of: ofDrive(func(d *part.Drive) string { return when(d.CapacityBytes.Known(), soldAs(d.CapacityBytes)) })},
		{Name: "speaks", Label: FieldSpeaks, Choices: choices("nvme", IsPCIeDrive, "sata", IsSATADrive),
			of: ofDrive(func(d *part.Drive) string {
				return when(d.Protocol == link.PCIe, "nvme") + when(d.Protocol == link.SATA, "sata")
			})},
		{Name: "form", Label: FieldForm, Choices: choices("M.2", IsM2Card, "2.5", fact.Of(IsOfForm, part.Form2i5), "3.5", fact.Of(IsOfForm, part.Form3i5), "U.2", fact.Of(IsOfForm, part.FormU2),
			"slim", fact.Of(IsOfForm, part.FormSlim), "5.25", fact.Of(IsOfForm, part.Form5i25)), of: ofDrive(func(d *part.Drive) string { return FormWord(d.Form) })},
		m2Fields[0],
		{Name: "gen", Label: FieldGen, Choices: gens, of: ofDrive(func(d *part.Drive) string { return genWord(d.Gen) })},
		{Name: "lanes", Label: FieldLanes, on: isPCIe, Choices: ofNumbers(laneWord, HasLanes, 1, 2, 4), of: ofDrive(func(d *part.Drive) string { return laneWord(d.Lanes) })},
		{Name: "media", Label: FieldMedia, Choices: choices("ssd", IsFlash, "hdd", IsPlatters, "optical", IsOptical), Fold: true, of: ofDrive(func(d *part.Drive) string {
			return map[part.Media]string{part.Flash: "ssd", part.Platter: "hdd", part.Optical: "optical"}[d.Media]
		})},
		{Name: "turns", Label: FieldTurns, Fold: true, Example: "7200rpm", unit: "rpm", of: ofDrive(func(d *part.Drive) string { return when(d.TurnsPerMin > 0, strconv.Itoa(d.TurnsPerMin)+"rpm") })},
	}, m2Fields[1:], heightFields, []Field{
		{Name: "height", Label: FieldHeight, on: isBox, Example: "7mm", unit: "mm", of: ofDrive(func(d *part.Drive) string { return mmWord(d.HeightMM) })},
		{Name: "reads", Label: FieldReads, Fold: true, Example: "3500MB/s", unit: "MB/s", of: ofDrive(func(d *part.Drive) string {
			return when(d.ReadMBps >= 10 && d.ReadMBps < 100_000, strconv.FormatFloat(d.ReadMBps, 'f', 0, 64)+"MB/s")
		})},
		{Name: "watts", Label: FieldWatts, Fold: true, Example: "8.5W", unit: "W", of: ofDrive(func(d *part.Drive) string { return wattWord(d.Watts) })},
		{Name: "power-pin", Label: FieldPinOff, Fold: true, Choices: choices("power-disable", HasPinOff, "no-power-disable", NoPinOff),
			of: ofDrive(func(d *part.Drive) string { return either(d.PowerDisable, "power-disable", "no-power-disable") })},
	})},
	Module: {empty: func() *part.Part { return &part.Part{Module: &part.Module{}} }, fields: []Field{
		{Name: "capacity", Label: FieldCapacity, Example: "16GB", unit: "GB", of: ofModule(func(m *part.Module) string {
			switch {
			case !m.SizeBytes.Known():
				return ""
			case m.SizeBytes%quantity.GiB == 0:
				return strconv.FormatInt(int64(m.SizeBytes/quantity.GiB), 10) + "GB"
			case m.SizeBytes%quantity.MiB == 0:
				return strconv.FormatInt(int64(m.SizeBytes/quantity.MiB), 10) + "MB"
			}
			return strconv.FormatInt(int64(m.SizeBytes), 10) + "B"
		})},
		{Name: "speed", Label: FieldSpeed, Example: "DDR4-3200", of: ofModule(func(m *part.Module) string {
			if !m.RateMTps.Known() || m.Generation == "" {
				return when(m.Generation != "", m.Generation.String())
			}
			return memory.Rated{Generation: m.Generation, Label: m.RateMTps}.Name() + when(mostBase[m.Generation] > 0 && m.RateMTps > mostBase[m.Generation], " "+base)
		})},
		{Name: "profile", Label: FieldProfile, Example: "profile-6000", of: ofModule(func(m *part.Module) string {
			return when(m.ProfileMTps.Known(), "profile-"+strconv.Itoa(int(m.ProfileMTps)))
		})},
		{Name: "form", Label: FieldForm, Choices: choices("DIMM", LongModule, "SODIMM", ShortModule), of: ofModule(func(m *part.Module) string {
			return map[memory.Form]string{memory.DIMM: "DIMM", memory.SODIMM: "SODIMM"}[m.Form]
		})},
		{Name: "latency", Label: FieldLatency, Fold: true, Example: "CL16", of: ofModule(func(m *part.Module) string { return when(m.CL > 0, "CL"+strconv.Itoa(m.CL)) })},
		{Name: "ranks", Label: FieldRanks, Choices: ofNumbers(func(n int) string { return strconv.Itoa(n) + "R" }, HasRanks, 1, 2, 4, 8), of: ofModule(func(m *part.Module) string { return when(m.Ranks > 0, strconv.Itoa(m.Ranks)+"R") })},
		{Name: "ecc", Label: FieldECC, Choices: choices("ECC", HasCheckBits, "non-ECC", NoCheckBits), of: ofModule(func(m *part.Module) string { return either(m.ECC, "ECC", "non-ECC") })},
		{Name: "register", Label: FieldRegister, Choices: choices("reg", IsRegistered, "unbuffered", IsUnbuffered), of: ofModule(func(m *part.Module) string { return either(m.Registered, "reg", "unbuffered") })},
		{Name: "clock", Label: FieldClock, Fold: true, Choices: choices("clock-driver", HasClockDriver, "no-clock-driver", NoClockDriver), of: ofModule(func(m *part.Module) string { return either(m.ClockDriver, "clock-driver", "no-clock-driver") })},
		{Name: "volts", Label: FieldVolts, Fold: true, Example: "1.2V", unit: "V", of: ofModule(func(m *part.Module) string {
			list := make([]string, len(m.Millivolts))
			for i, v := range m.Millivolts {
				list[i] = strings.ReplaceAll(v.String(), " ", "")
			}
			return strings.Join(list, " ")
		})},
		{Name: "height", Label: FieldHeight, Fold: true, Example: "31mm", unit: "mm", of: ofModule(func(m *part.Module) string { return mmWord(m.HeightMM) })},
	}},
	Card: {noun: "card", empty: func() *part.Part { return &part.Part{Card: &part.Card{}} }, fields: cardFields(
		Field{Name: "use", Label: FieldUse, Choices: choices(string(graphics), IsForPictures, string(part.NetworkCard), IsForNetwork, string(part.WirelessCard), IsForRadio, string(part.CaptureCard), IsForCapture, string(part.SoundCard), IsForSound),
			of: ofCard(func(c *part.Card) string { return when(c.Graphics, string(graphics)) + string(c.Use) })})},
	Carrier: {noun: "carrier", empty: func() *part.Part { return &part.Part{Card: &part.Card{}} }, fields: cardFields(
		Field{Name: "places", Label: FieldPlaces, Example: "4x m.2", of: ofPlaces(func(c *part.Card, first *part.Position) string {
			n := strconv.Itoa(len(c.Carrier.Positions))
			switch first.Kind() {
			case part.TakesSATA:
				return n + "-port sata" + when(first.SATAGen.Known(), strconv.Itoa(int(first.SATAGen)))
			case part.TakesU2:
				return n + "x u.2"
			case part.TakesSlot:
				return n + "x slot"
			}
			return n + "x m.2"
		})},
		Field{Name: "posts", Label: FieldPosts, Example: "2280/22110", of: ofPlaces(func(_ *part.Card, first *part.Position) string { return postWords(first.LengthsMM) })},
		Field{Name: "chip", Label: FieldChip, Choices: choices("no-switch", NoChip, "switch", HasChip), of: ofPlaces(func(c *part.Card, first *part.Position) string {
			return when(first.Kind() != part.TakesSATA, map[bool]string{true: "switch", false: "no-switch"}[c.Carrier.Switch])
		})},
		Field{Name: "each", Label: FieldEach, Fold: true, Choices: ofNumbers(func(l quantity.Lanes) string { return "each-" + l.String() }, LanesEach, 1, 2, 4, 8, 16), of: ofPlaces(func(_ *part.Card, first *part.Position) string {
			return when(first.Kind() != part.TakesSATA && first.Lanes.Known(), "each-"+first.Lanes.String())
		})},
		Field{Name: "lanes", Label: FieldFirstLanes, Fold: true, Example: "lanes-0-4-8-12", of: ofPlaces(func(c *part.Card, first *part.Position) string {
			if c.Carrier.Switch || len(c.Carrier.Positions) < 2 || first.Kind() == part.TakesSATA {
				return ""
			}
			word := "lanes"
			for i := range c.Carrier.Positions {
				word += "-" + strconv.Itoa(c.Carrier.Positions[i].FirstLane)
			}
			return word
		})})},
	Box: {noun: "box", empty: func() *part.Part { return &part.Part{Enclosure: &part.Enclosure{}} }, fields: []Field{
		{Name: "usb", Label: FieldUSB, Choices: func() []Choice {
			var out []Choice
			for _, m := range link.USBModes() {
				out = append(out, Choice{m.String(), fact.Of(OverUSB, m.String())})
			}
			return out
		}(), of: ofBox(func(e *part.Enclosure) string { return when(e.USB != "", e.USB.String()) })},
		{Name: "bays", Label: FieldBays, Fold: true, Example: "2-bay", unit: "-bay", of: ofBox(func(e *part.Enclosure) string {
			return when(len(e.Positions) > 1, strconv.Itoa(len(e.Positions))+"-bay")
		})},
		{Name: "form", Label: FieldForm, Choices: choices("M.2", fact.Of(TakesDrives, part.FormM2), "2.5", fact.Of(TakesDrives, part.Form2i5), "3.5", fact.Of(TakesDrives, part.Form3i5), "2.5 3.5", fact.Of(TakesDrives, []part.Form{part.Form2i5, part.Form3i5})),
			of: ofBay(func(p *part.Position) string {
				list := []string{}
				for _, f := range []part.Form{part.Form2i5, part.Form3i5} {
					if slices.Contains(p.Drives, f) {
						list = append(list, FormWord(f))
					}
				}
				return when(p.Kind() == part.TakesM2, "M.2") + strings.Join(list, " ")
			})},
		{Name: "speaks", Label: FieldSpeaks, Choices: choices("nvme", DrivesPCIe, "sata", DrivesSATA, "nvme sata", fact.Of(AllOf, []fact.Fact{fact.Of(DrivesPCIe), fact.Of(DrivesSATA)}), "sata3", fact.Of(IsSATAOf, 3), "sata2", fact.Of(IsSATAOf, 2)), of: ofBay(func(p *part.Position) string {
			isSATA := p.Kind() == part.TakesSATA && p.SATAGen.Known() || slices.Contains(p.Protocols, link.SATA)
			return strings.TrimSpace(when(slices.Contains(p.Protocols, link.PCIe), "nvme ") + when(isSATA, "sata"+when(p.SATAGen.Known(), strconv.Itoa(int(p.SATAGen)))))
		})},
		{Name: "posts", Label: FieldPosts, Example: "2280", of: ofBay(func(p *part.Position) string { return postWords(p.LengthsMM) })},
		{Name: "gen", Label: FieldGen, Fold: true, Choices: gens, of: ofBay(func(p *part.Position) string { return genWord(p.Gen) })},
		{Name: "lanes", Label: FieldLanes, Fold: true, Choices: ofNumbers(laneWord, HasLanes, 1, 2, 4), of: ofBay(func(p *part.Position) string { return laneWord(p.Lanes) })},
		{Name: "height", Label: FieldBayHeight, Fold: true, Example: "9.5mm", unit: "mm", of: ofBay(func(p *part.Position) string { return mmWord(p.HeightMM) })},
		{Name: "queues", Label: FieldQueues, Choices: choices("uas", HasQueues, "no-uas", NoQueues), of: ofBox(func(e *part.Enclosure) string { return either(e.Queues, "uas", "no-uas") })},
		{Name: "trim", Label: FieldTrim, Choices: choices("trim", HasTrim, "no-trim", NoTrim), of: ofBox(func(e *part.Enclosure) string { return either(e.Trims, "trim", "no-trim") })},
		{Name: "supply", Label: FieldSupply, Choices: choices("own-supply", FedByMains, "bus-powered", FedByPort), of: ofBox(func(e *part.Enclosure) string { return either(e.OwnSupply, "own-supply", "bus-powered") })},
		{Name: "translates", Label: FieldTranslates, Fold: true, Choices: choices("translates", HasTranslation, "no-translation", NoTranslation), of: ofBox(func(e *part.Enclosure) string { return either(e.Translates, "translates", "no-translation") })},
	}},
	Lead: {noun: "data lead", empty: func() *part.Part { return &part.Part{Fitting: &part.Fitting{Kind: part.DataLead}} }, fields: []Field{
		{Name: "ends", Label: FieldEnds, Choices: choices("straight", fact.Of(LeadEnd, fact.Typed(part.StraightEnd)), "angled", fact.Of(LeadEnd, fact.Typed(part.AngledEnd)),
			"straight to straight", fact.Of(LeadEnds, fact.Typed(part.StraightEnd), fact.Typed(part.StraightEnd)), "straight to angled", fact.Of(LeadEnds, fact.Typed(part.StraightEnd), fact.Typed(part.AngledEnd)),
			"angled to straight", fact.Of(LeadEnds, fact.Typed(part.AngledEnd), fact.Typed(part.StraightEnd)), "angled to angled", fact.Of(LeadEnds, fact.Typed(part.AngledEnd), fact.Typed(part.AngledEnd))),
			of: ofFitting(func(f *part.Fitting) string {
				return when(f.PortEnd != "" && f.End != "", string(f.PortEnd)+" to ") + string(f.End)
			})},
		{Name: "length", Label: FieldLeadLength, Example: "50cm", unit: "cm", of: ofFitting(func(f *part.Fitting) string { return mmWord(f.Length) })},
	}},
	Adapter: {noun: "power adapter", empty: func() *part.Part { return &part.Part{Fitting: &part.Fitting{Kind: part.PowerAdapter}} }, fields: []Field{
		{Name: "plugs", Label: FieldFromTo, Example: "molex to 2x sata", of: ofFitting(func(f *part.Fitting) string {
			if f.To == "" {
				return plugWord(f.From)
			}
			return plugWord(f.From) + " to " + when(f.Plugs > 0, strconv.Itoa(f.Plugs)+"x ") + plugWord(f.To)
		})},
		{Name: "make", Label: FieldMake, Choices: choices("crimped", IsCrimped, "moulded", IsMoulded), of: ofFitting(func(f *part.Fitting) string { return either(f.Crimped, "crimped", "moulded") })},
		{Name: "length", Label: FieldLeadLength, Example: "15cm", unit: "cm", of: ofFitting(func(f *part.Fitting) string { return mmWord(f.Length) })},
	}},
	Supply: {noun: "supply lead", empty: func() *part.Part { return &part.Part{Fitting: &part.Fitting{Kind: part.SupplyLead}} }, fields: []Field{
		{Name: "plugs", Label: FieldLeadPlugs, Example: "3x sata", of: ofFitting(func(f *part.Fitting) string {
			return when(f.To != "" && f.Plugs > 0, strconv.Itoa(f.Plugs)+"x ") + plugWord(f.To)
		})},
		{Name: "of", Label: FieldOfSupply, Example: "of Gale-450", of: ofFitting(func(f *part.Fitting) string { return when(f.Supply != "", "of "+f.Supply) })},
		{Name: "length", Label: FieldLeadLength, Fold: true, Example: "60cm", unit: "cm", of: ofFitting(func(f *part.Fitting) string { return mmWord(f.Length) })},
	}},
	Holder: {empty: func() *part.Part { return &part.Part{Fitting: &part.Fitting{}} }, fields: []Field{
		{Name: "holds", Label: FieldHolds, Choices: choices("2.5", fact.Of(HoldsOne, part.Form2i5), "3.5", fact.Of(HoldsOne, part.Form3i5),
			"2.5 in 3.5", fact.Of(HoldsIn, part.Form2i5, part.Form3i5), "2.5 in slim", fact.Of(HoldsIn, part.Form2i5, part.FormSlim), "2.5 in 5.25", fact.Of(HoldsIn, part.Form2i5, part.Form5i25), "3.5 in 5.25", fact.Of(HoldsIn, part.Form3i5, part.Form5i25)),
			of: ofFitting(func(f *part.Fitting) string {
				if f.Holds == "" {
					return when(f.Fits == part.FormSlim, "slim bay")
				}
				return FormWord(f.Holds) + when(f.Fits != "", " in "+FormWord(f.Fits))
			})},
		{Name: "kind", Label: FieldKind, Choices: choices(string(part.Bracket), fact.Of(IsFitting, fact.Typed(part.Bracket)), string(part.Caddy), fact.Of(IsFitting, fact.Typed(part.Caddy)), string(part.Spacer), fact.Of(IsFitting, fact.Typed(part.Spacer)), string(part.Screws), fact.Of(IsFitting, fact.Typed(part.Screws))),
			of: ofFitting(func(f *part.Fitting) string { return string(f.Kind) })},
		{Name: "thread", Label: FieldThread, Choices: choices("M3", fact.Of(HasThread, fact.Typed(part.M3)), "6-32", fact.Of(HasThread, fact.Typed(part.UNC632))), of: ofFitting(func(f *part.Fitting) string { return string(f.Thread) })},
	}},
}

// Filled is a form that was filled in.
type Filled struct {
	Reading
	Wrong map[string]fact.Fact // by the name of a field
	Fault fact.Fact            // what is wrong with all of it together
}

// Fill makes a part of what stands in the fields of a form. What the form has no field for
// stays as it was in old, which may be nil.
func Fill(k Kind, values map[string]string, old *part.Part) Filled {
	f := forms[k]
	out := Filled{Reading: Reading{Count: 1, Part: *f.empty()}, Wrong: map[string]fact.Fact{}}
	words := []string{f.noun}
	for i := range f.fields {
		field := &f.fields[i]
		v := strings.Join(strings.Fields(values[field.Name]), " ")
		if v == "" {
			continue
		}
		if field.unit != "" && strings.Trim(v, "0123456789.") == "" {
			v += field.unit
		}
		if err := understood(k, v); err != nil {
			out.Wrong[field.Name] = fact.From(err)
			continue
		}
		words = append(words, v)
	}
	if k == Holder && values["kind"] == "" {
		words = append(words, string(part.Bracket))
	}
	if strings.TrimSpace(strings.Join(words, "")) == "" {
		out.Fault = fact.Of(NothingTyped)
		return out
	}
	got, err := Read(strings.Join(words, " "))
	if err != nil {
		out.Fault = fact.From(err)
		return out
	}
	out.Reading = got
	if old != nil {
		out.Part.ID, out.Part.Name, out.Part.Number, out.Part.Source = old.ID, old.Name, old.Number, old.Source
		keepRest(&out.Part, old)
	}
	if list := out.Part.Validate(); len(list) > 0 && len(out.Asks) == 0 {
		out.Fault = list[0].Fact
	}
	return out
}

// understood is why words mean nothing in the form of a kind.
func understood(k Kind, words string) error {
	r := reader{left: plainText.Replace(words), claims: map[attribute]claim{}}
	r.kind = map[Kind]kind{Card: slotCard, Carrier: slotCard, Box: box, Lead: lead, Adapter: powerLead, Supply: supplyLead, Holder: holder}[k]
	for r.skip(); r.left != ""; r.skip() {
		if err := r.next(); err != nil {
			return r.hinted(err)
		}
	}
	return nil
}

// keepRest keeps of an old part what no words say: positions that words print alike stay
// whole, and so does what an M.2 card for other things than drives has above its board.
func keepRest(p, old *part.Part) {
	switch {
	case p.Card != nil && old.Card != nil && p.Card.Carrier != nil && old.Card.Carrier != nil:
		if placesOf(p) == placesOf(old) {
			p.Card.Carrier = old.Clone().Card.Carrier
		}
	case p.Enclosure != nil && old.Enclosure != nil:
		if written(&part.Part{Enclosure: &part.Enclosure{Positions: p.Enclosure.Positions}}) == written(&part.Part{Enclosure: &part.Enclosure{Positions: old.Enclosure.Positions}}) {
			p.Enclosure.Positions = old.Clone().Enclosure.Positions
		}
	}
	if p.Card != nil && old.Card != nil && p.Card.M2 != nil && old.Card.M2 != nil {
		p.Card.M2.TopMM, p.Card.M2.BottomMM, p.Card.M2.Heatsink = old.Card.M2.TopMM, old.Card.M2.BottomMM, old.Card.M2.Heatsink
	}
}

// placesOf is the positions of a carrier in words.
func placesOf(p *part.Part) string {
	return written(&part.Part{Card: &part.Card{Carrier: p.Card.Carrier}})
}
