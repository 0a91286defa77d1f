package shorthand

// This file reads the words of boxes for USB ports.

import (
	"slices"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// What words of boxes are about.
const (
	usbMode    attribute = "USB mode"
	usbRate    attribute = "USB rate"
	bays       attribute = "bays"
	small      attribute = "2.5"
	large      attribute = "3.5"
	speaksPCIe attribute = "nvme"
	speaksSATA attribute = "sata"
	queues     attribute = "queues"
	trims      attribute = "trims"
	ownSupply  attribute = "own supply"
	translates attribute = "translates"
)

var boxPhrases = []phrase{
	read(`(?:usb[ -]?)?3\.2 ?gen ?([12])(?: ?x ?([12]))?`, func(r *reader, word string, m []string) error {
		mode := map[string]link.USBMode{"11": link.USB5, "12": link.USB5x2, "21": link.USB10, "22": link.USB20}[m[1]+orOne(m[2])]
		return r.claim(word, usbMode, mode, fact.Of(OverUSB, mode.String()))
	}),
	read(`usb[ -]?3\.1 ?gen ?([12])`, func(r *reader, word string, m []string) error {
		mode := map[string]link.USBMode{"1": link.USB5, "2": link.USB10}[m[1]]
		return r.claim(word, usbMode, mode, fact.Of(OverUSB, mode.String()))
	}),
	read(`usb ?4 ?gen ?([234]) ?x ?2`, func(r *reader, word string, m []string) error {
		mode := map[string]link.USBMode{"2": link.USB4By20, "3": link.USB4By40, "4": link.USB4By80}[m[1]]
		return r.claim(word, usbMode, mode, fact.Of(OverUSB, mode.String()))
	}),
	say(`usb[ -]?3\.0`, usbMode, link.USB5, OverUSB, link.USB5.String()),
	say(`usb[ -]?2(?:\.0)?`, usbMode, link.USB2, OverUSB, link.USB2.String()),
	read(`usb ?4`, func(r *reader, word string, _ []string) error {
		return r.set(word, usbRate, "4")
	}),
	read(`usb[ -]?(3(?:\.[12])?)`, func(r *reader, word string, m []string) error {
		return r.set(word, usbRate, m[1])
	}),
	read(`(5|10|20|40|80) ?(?:gbps|gb/s|gbit/s|g)`, func(r *reader, word string, m []string) error {
		switch m[1] {
		case "20":
			r.claims[usbRate] = claim{word, "20"}
			return nil
		case "40", "80":
			mode := map[string]link.USBMode{"40": link.USB4By40, "80": link.USB4By80}[m[1]]
			return r.claim(word, usbMode, mode, fact.Of(OverUSB, mode.String()))
		}
		mode := map[string]link.USBMode{"5": link.USB5, "10": link.USB10}[m[1]]
		return r.claim(word, usbMode, mode, fact.Of(OverUSB, mode.String()))
	}),
	say(`nvme`, speaksPCIe, true, DrivesPCIe),
	read(`(?:pcie )?gen ?([1-6])(?: ?x ?([124]))?`, func(r *reader, word string, m []string) error { return r.ended(word, m[1], m[2]) }),
	read(`x([124])`, func(r *reader, word string, m []string) error {
		return r.claim(word, lanes, quantity.Lanes(number(m[1])), fact.Of(HasLanes, number(m[1])))
	}),
	read(`sata[ -]?(III|II|I)|sata([123])`, func(r *reader, word string, m []string) error {
		if err := r.set(word, placeSATA, quantity.Gen(sataGen(m[1]+m[2]))); err != nil {
			return err
		}
		return r.claim(word, speaksSATA, true, fact.Of(DrivesSATA))
	}),
	say(`sata`, speaksSATA, true, DrivesSATA),
	say(`m\.?2(?: ssd)?`, driveForm, part.FormM2, TakesDrives, part.FormM2),
	say(`2\.5`+inch, small, true, TakesDrives, part.Form2i5),
	say(`3\.5`+inch, large, true, TakesDrives, part.Form3i5),
	read(`([1-9]|1[0-6])[- ](?:bays?|drives)|(dual|quad)[- ]bay`, func(r *reader, word string, m []string) error {
		n := max(number(m[1]), map[string]int{"dual": 2, "quad": 4}[strings.ToLower(m[2])])
		return r.claim(word, bays, n, fact.Of(HasBays, n))
	}),
	read(`((?:22|25|30)(?:30|42|52|60|80|110)(?:/(?:22|25|30)(?:30|42|52|60|80|110)){0,5})()()`, (*reader).postsOrSize),
	read(`(\d{1,2}(?:\.\d)?) ?mm`, func(r *reader, word string, m []string) error {
		return r.claim(word, thick, millimetres(m[1]), fact.Of(RoomForHigh, millimetres(m[1])))
	}),
	say(`no[- ]uasp?`, queues, quantity.No, NoQueues),
	say(`uasp?`, queues, quantity.Yes, HasQueues),
	say(`no[- ]trim`, trims, quantity.No, NoTrim),
	say(`trim`, trims, quantity.Yes, HasTrim),
	say(`bus[- ]powered|no[- ]own[- ]supply`, ownSupply, quantity.No, FedByPort),
	say(`own[- ]supply|(?:self[- ])?powered|mains|with (?:power )?supply`, ownSupply, quantity.Yes, FedByMains),
	say(`no[- ]translation|plain`, translates, quantity.No, NoTranslation),
	say(`translates|encrypts|encrypting`, translates, quantity.Yes, HasTranslation),
	read(`usb(?:-c| c)?|type-c|external|drive|(?:usb )?(?:box|enclosure|dock(?:ing station)?)`, func(_ *reader, _ string, _ []string) error { return nil }),
}

func orOne(s string) string {
	if s == "" {
		return "1"
	}
	return s
}

// box makes the part.
func (r *reader) box() error {
	e := &part.Enclosure{USB: of[link.USBMode](r, usbMode), Queues: of[quantity.Answer](r, queues), Trims: of[quantity.Answer](r, trims),
		OwnSupply: of[quantity.Answer](r, ownSupply), Translates: of[quantity.Answer](r, translates)}
	r.out.Part.Enclosure = e
	if err := r.usb(e); err != nil {
		return err
	}
	lengths, err := r.sized(false)
	if err != nil {
		return err
	}
	isBox := r.has(small) || r.has(large)
	isM2 := r.has(driveForm) || r.has(speaksPCIe) || len(lengths) > 0
	p := part.Position{SATAGen: of[quantity.Gen](r, placeSATA)}
	switch {
	case isBox && isM2:
		return fact.Err(TwoAnswers, r.word(small, large), r.word(driveForm, speaksPCIe, posts))
	case isM2:
		p.LengthsMM, p.Gen, p.Lanes = lengths, of[quantity.Gen](r, generation), of[quantity.Lanes](r, lanes)
		if r.has(thick) {
			return fact.Err(MeansNothing, r.word(thick))
		}
		if r.has(speaksPCIe) {
			p.Protocols = append(p.Protocols, link.PCIe)
		}
		if r.has(speaksSATA) {
			p.Protocols = append(p.Protocols, link.SATA)
		}
		r.lacks(len(p.Protocols) > 0, LacksProtocol)
	case isBox:
		if word := r.word(generation, lanes); word != "" {
			return fact.Err(MeansNothing, word)
		}
		p.Takes, p.HeightMM = part.TakesSATA, of[quantity.Millimetres](r, thick)
		if r.has(small) {
			p.Drives = append(p.Drives, part.Form2i5)
		}
		if r.has(large) {
			p.Drives = append(p.Drives, part.Form3i5)
		}
	default:
		r.ask(WhichForm, "M.2", "2.5", "3.5")
	}
	for range max(1, of[int](r, bays)) {
		p.LengthsMM, p.Protocols, p.Drives = slices.Clone(p.LengthsMM), slices.Clone(p.Protocols), slices.Clone(p.Drives)
		e.Positions = append(e.Positions, p)
	}
	r.lacks(e.USB != "", LacksUSB)
	r.lacks(e.Queues != quantity.Unknown, LacksQueues)
	r.lacks(e.Trims != quantity.Unknown, LacksTrim)
	r.lacks(e.OwnSupply != quantity.Unknown, LacksSupply)
	r.lacks(e.Translates != quantity.Unknown, LacksTranslation)
	return nil
}

// usb settles what names more than one mode: "USB 3.2" says nothing.
func (r *reader) usb(e *part.Enclosure) error {
	rate, said := r.claims[usbRate].value.(string)
	if !said {
		return nil
	}
	modes := map[string][]link.USBMode{
		"3":   {link.USB5, link.USB10, link.USB20},
		"3.1": {link.USB5, link.USB10},
		"3.2": {link.USB5, link.USB10, link.USB20},
		"4":   {link.USB4By20, link.USB4By40, link.USB4By80},
		"20":  {link.USB20, link.USB4By20},
	}[rate]
	if e.USB == "" {
		choices := make([]string, len(modes))
		for i, m := range modes {
			choices[i] = m.String()
		}
		r.ask(WhichUSB, choices...)
	} else if !slices.Contains(modes, e.USB) {
		return fact.Err(TwoAnswers, r.claims[usbRate].word, r.claims[usbMode].word)
	}
	return nil
}
