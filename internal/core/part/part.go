// Package part describes what is fitted: drives, memory modules, cards, boxes for
// USB ports and the small fittings that go with them, each as its label or data
// sheet gives it. What the label does not say is left out and
// stays unknown.
//
// A Part is a kind of thing; the pieces on the bench, with their serial
// numbers, belong to a job.
package part

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// Format and Version head every part file.
const (
	Format  = "deepbay/part"
	Version = 1
)

// ID names a part in a job or on the shelf.
type ID string

// idPattern is the pattern in the tag of Part.ID, for ids that come by another
// way than a file.
var idPattern = regexp.MustCompile(`^[a-z0-9][a-z0-9._-]*$`)

// Check says what is wrong with an id, nil if nothing is.
func (id ID) Check() error {
	if len(id) > 60 || !idPattern.MatchString(string(id)) {
		return fact.Err(NoID, string(id))
	}
	return nil
}

// Part is one kind of thing. Exactly one of drive, module, card, enclosure and
// fitting is given.
type Part struct {
	Format    string     `json:"format" jsonschema:"enum=deepbay/part"`
	Version   int        `json:"version" jsonschema:"enum=1"`
	ID        ID         `json:"id" jsonschema:"minLength=1,maxLength=60,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Name      string     `json:"name" jsonschema:"minLength=1,maxLength=120"` // what people call it
	Number    string     `json:"number,omitempty" jsonschema:"maxLength=80"`  // part number as printed
	Source    string     `json:"source,omitempty" jsonschema:"maxLength=200"` // what its description rests on, beside its label: a job
	Drive     *Drive     `json:"drive,omitempty"`
	Module    *Module    `json:"module,omitempty"`
	Card      *Card      `json:"card,omitempty"`
	Enclosure *Enclosure `json:"enclosure,omitempty"`
	Fitting   *Fitting   `json:"fitting,omitempty"`
}

// Clone is a copy that shares nothing that is written to.
func (p *Part) Clone() *Part {
	out := *p
	clone(&out.Drive)
	clone(&out.Module)
	clone(&out.Card)
	clone(&out.Enclosure)
	clone(&out.Fitting)
	switch {
	case out.Drive != nil:
		clone(&out.Drive.M2)
	case out.Enclosure != nil:
		out.Enclosure.Positions = slices.Clone(out.Enclosure.Positions)
	case out.Card != nil:
		clone(&out.Card.M2)
		if clone(&out.Card.Carrier); out.Card.Carrier != nil {
			out.Card.Carrier.Positions = slices.Clone(out.Card.Carrier.Positions)
		}
	}
	return &out
}

// clone replaces what is pointed at by a copy.
func clone[T any](p **T) {
	if *p != nil {
		v := **p
		*p = &v
	}
}

// Positions are the sockets that the part brings: those of a carrier, an adapter
// or an enclosure. nil for all other parts.
func (p *Part) Positions() []Position {
	switch {
	case p.Card != nil && p.Card.Carrier != nil:
		return p.Card.Carrier.Positions
	case p.Enclosure != nil:
		return p.Enclosure.Positions
	}
	return nil
}

// M2 is the mechanical side of an M.2 drive or adapter, nil for all other parts.
func (p *Part) M2() *M2 {
	switch {
	case p.Drive != nil:
		return p.Drive.M2
	case p.Card != nil:
		return p.Card.M2
	}
	return nil
}

// Form is the shape of a drive.
type Form string

// Drive forms: an M.2 card, a box of 2.5 or 3.5 inch, or an optical drive.
const (
	FormM2  Form = "m2"
	Form2i5 Form = "2.5in"
	Form3i5 Form = "3.5in"
	FormU2  Form = "u2" // 2.5 inch with the U.2 connector (SFF-8639)

	FormSlim Form = "slim"   // 128 mm wide, with the slimline SATA plug (SFF-8552, SFF-8553)
	Form5i25 Form = "5.25in" // optical drives of full size (SFF-8501)
)

// Values lists the forms for the formats.
func (Form) Values() []string {
	return []string{string(FormM2), string(Form2i5), string(Form3i5), string(FormU2), string(FormSlim), string(Form5i25)}
}

// Optical reports the forms that only optical drives have.
func (f Form) Optical() bool { return f == FormSlim || f == Form5i25 }

// String prints the trade's spelling.
func (f Form) String() string {
	switch f {
	case FormM2:
		return "M.2"
	case Form2i5:
		return "2.5-inch"
	case Form3i5:
		return "3.5-inch"
	case FormU2:
		return "U.2"
	case FormSlim:
		return "slim optical"
	case Form5i25:
		return "5.25-inch"
	}
	return "unknown form"
}

// Media is what the drive stores on.
type Media string

// Flash, rotating platters, or discs that are laid in.
const (
	Flash   Media = "flash"
	Platter Media = "platter"
	Optical Media = "optical"
)

// Values lists the media for the formats.
func (Media) Values() []string { return []string{string(Flash), string(Platter), string(Optical)} }

// Drive is a storage drive, or a drive for optical discs.
type Drive struct {
	Form          Form                 `json:"form"`
	Protocol      link.Protocol        `json:"protocol,omitempty"` // a notch tells what goes in, not what it speaks: absent is unknown
	CapacityBytes quantity.Bytes       `json:"capacityBytes,omitzero" jsonschema:"minimum=1,maximum=1152921504606846976"`
	Media         Media                `json:"media,omitempty"`
	Gen           quantity.Gen         `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"` // PCIe or SATA generation, by protocol
	Lanes         quantity.Lanes       `json:"lanes,omitzero" jsonschema:"enum=1,enum=2,enum=4"`
	TurnsPerMin   int                  `json:"turnsPerMinute,omitzero" jsonschema:"minimum=3000,maximum=20000"` // of platters
	ReadMBps      float64              `json:"readMBps,omitzero" jsonschema:"minimum=1"`                        // rated, sequential
	Watts         float64              `json:"watts,omitzero" jsonschema:"minimum=0.1"`                         // at full load
	HeightMM      quantity.Millimetres `json:"heightMM,omitzero" jsonschema:"minimum=1"`                        // of a 2.5 or 3.5-inch drive
	PowerDisable  quantity.Answer      `json:"powerDisable,omitzero"`                                           // 3.3 V on its power plug holds it off (SATA 3.3)
	M2            *M2                  `json:"m2,omitempty"`
}

// Link is the drive's own PCIe end.
func (d *Drive) Link() link.Link { return link.Link{Gen: d.Gen, Lanes: d.Lanes} }

// Key is a keyed position of the M.2 edge connector.
type Key string

// The keys in use on sockets for drives and radios (PCI Express M.2).
const (
	KeyA Key = "A"
	KeyB Key = "B"
	KeyE Key = "E"
	KeyM Key = "M"
)

// Values lists the keys for the formats.
func (Key) Values() []string {
	return []string{string(KeyA), string(KeyB), string(KeyE), string(KeyM)}
}

// M2 is the mechanical side of an M.2 card.
type M2 struct {
	Keys     []Key                `json:"keys,omitempty" jsonschema:"minItems=1,uniqueItems=true"` // notches cut: B and M fits either socket
	LengthMM quantity.Millimetres `json:"lengthMM,omitzero" jsonschema:"enum=30,enum=42,enum=52,enum=60,enum=80,enum=110"`
	WidthMM  quantity.Millimetres `json:"widthMM,omitzero" jsonschema:"enum=22,enum=25,enum=30"`
	Heatsink quantity.Answer      `json:"heatsink,omitzero"`                          // brings one of its own
	TopMM    quantity.Millimetres `json:"topMM,omitzero" jsonschema:"minimum=0.1"`    // tallest thing on the upper side, heatsink included
	BottomMM quantity.Millimetres `json:"bottomMM,omitzero" jsonschema:"minimum=0.1"` // tallest thing on the under side; absent with twoSided false is none
	TwoSided quantity.Answer      `json:"twoSided,omitzero"`
}

// MaxLanes is the widest PCIe link a card so notched can have: a notch at A, B or
// E takes the contacts of the upper lanes (PCI Express M.2), so two are left.
func (m *M2) MaxLanes() quantity.Lanes {
	most := KeyM.MaxLanes()
	for _, k := range m.Keys {
		most = min(most, k.MaxLanes())
	}
	return most
}

// MaxLanes is the widest PCIe link through a socket of this key (PCI Express M.2).
func (k Key) MaxLanes() quantity.Lanes {
	switch k {
	case KeyA, KeyB, KeyE:
		return 2
	}
	return 4
}

// Keys prints keys as "B and M".
func Keys(k []Key) string {
	names := make([]string, len(k))
	for i := range k {
		names[i] = string(k[i])
	}
	return strings.Join(names, " and ")
}

// Size prints "2280"; a width that is not stated is the usual 22 mm.
func (m *M2) Size() string {
	w := m.WidthMM
	if !w.Known() {
		w = 22
	}
	return strconv.Itoa(int(w)) + strconv.Itoa(int(m.LengthMM))
}

// Module is a memory module.
type Module struct {
	Generation  memory.Generation     `json:"generation,omitzero"`
	Form        memory.Form           `json:"form"`
	SizeBytes   quantity.Bytes        `json:"sizeBytes,omitzero" jsonschema:"minimum=1,maximum=1125899906842624"`
	RateMTps    quantity.MTps         `json:"rateMTps,omitzero" jsonschema:"minimum=100,maximum=20000"`    // base speed, without a profile
	ProfileMTps quantity.MTps         `json:"profileMTps,omitzero" jsonschema:"minimum=100,maximum=20000"` // vendor-stored overclock profile
	CL          int                   `json:"casLatency,omitzero" jsonschema:"minimum=2,maximum=99"`       // in clocks, at the printed speed
	Ranks       int                   `json:"ranks,omitzero" jsonschema:"minimum=1,maximum=16"`
	ECC         quantity.Answer       `json:"ecc,omitzero"`
	Registered  quantity.Answer       `json:"registered,omitzero"`
	ClockDriver quantity.Answer       `json:"clockDriver,omitzero"`                         // DDR5 with a clock driver of its own (CUDIMM, CSODIMM)
	Millivolts  []quantity.Millivolts `json:"millivolts,omitempty" jsonschema:"maxItems=4"` // supply voltages it runs at
	HeightMM    quantity.Millimetres  `json:"heightMM,omitzero" jsonschema:"minimum=1"`     // with its spreader
}

// Validate reports what makes the part unusable beyond the schema.
func (p *Part) Validate() problem.List {
	var l problem.List
	given := 0
	for _, is := range []bool{p.Drive != nil, p.Module != nil, p.Card != nil, p.Enclosure != nil, p.Fitting != nil} {
		if is {
			given++
		}
	}
	if given != 1 {
		l.Add("", fact.Of(OneOfTheKinds))
	}
	if p.Card != nil {
		l = append(l, p.Card.validate().Under("/card")...)
	}
	if p.Enclosure != nil {
		l = append(l, p.Enclosure.validate().Under("/enclosure")...)
	}
	if p.Fitting != nil {
		l = append(l, p.Fitting.validate().Under("/fitting")...)
	}
	if d := p.Drive; d != nil {
		if d.Form == FormM2 && d.M2 == nil {
			l.Add("/drive", fact.Of(NeedsM2Facts))
		}
		if d.Form != FormM2 && d.M2 != nil {
			l.Add("/drive/m2", fact.Of(OnlyM2HasThese))
		}
		if (d.Form == Form2i5 || d.Form == Form3i5) && d.Protocol == link.PCIe {
			l.Add("/drive/protocol", fact.Of(BoxOverPCIe))
		}
		if d.Protocol == link.USB {
			l.Add("/drive/protocol", fact.Of(USBIsEnclosure))
		}
		if d.M2 != nil && d.Protocol == link.PCIe && d.Lanes > d.M2.MaxLanes() {
			l.Add("/drive/lanes", fact.Of(NotchBoundsLanes, Keys(d.M2.Keys), d.M2.MaxLanes()))
		}
		if d.Media == Optical && !d.Form.Optical() || d.Form.Optical() && d.Media != "" && d.Media != Optical {
			l.Add("/drive/media", fact.Of(OpticalForms))
		}
		if d.Form.Optical() && d.Protocol == link.PCIe {
			l.Add("/drive/protocol", fact.Of(OpticalOverSATA))
		}
		if d.Protocol == link.SATA && d.Gen > 3 {
			l.Add("/drive/gen", fact.Of(SATAGenerations))
		}
	}
	return l
}
