// Package machine is the sheet: what a machine is, before anything is fitted.
//
// A Sheet has Roots (the processor, the chipset behind its uplink), Groups of
// lanes that a root deals out, Sockets that take parts, Settings of the firmware,
// and Rules: when sockets hold something or settings have a value, then other
// sockets are off, narrower, slower or take fewer protocols. Rules look at what
// is placed and set, never at each other's results, so one pass settles them and
// their order does not matter. A setting has no effect of its own: rules refer to it.
//
// A fact the sheet does not state is absent, and what depends on it is unknown.
package machine

import (
	"slices"

	"deepbay/internal/core/layer"
	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// Format and Version head every sheet file.
const (
	Format  = "deepbay/sheet"
	Version = 1
)

// The names that tie a sheet together, each as printed on the board or in the manual.
type (
	// ID names a sheet.
	ID string
	// RootID names a root.
	RootID string
	// GroupID names a lane group.
	GroupID string
	// SocketID names a socket by its silkscreen text.
	SocketID string
	// ChannelID names a memory channel.
	ChannelID string
	// SettingID names a firmware setting.
	SettingID string
	// BayID names a bay: as listed, or by the port whose leads reach it.
	BayID string
	// ProcessorID names a processor the board takes.
	ProcessorID string
)

// Sheet is one model of machine.
type Sheet struct {
	Format     string        `json:"format" jsonschema:"enum=deepbay/sheet"`
	Version    int           `json:"version" jsonschema:"enum=1"`
	ID         ID            `json:"id" jsonschema:"minLength=1,maxLength=60,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Name       string        `json:"name" jsonschema:"minLength=1,maxLength=120"`
	Class      Class         `json:"class"`
	Source     string        `json:"source,omitempty" jsonschema:"maxLength=200"` // the manual and edition the sheet was typed from
	Board      Board         `json:"board"`
	Chassis    Chassis       `json:"chassis,omitzero"`
	Firmware   Firmware      `json:"firmware,omitzero"`
	Processors []Processor   `json:"processors,omitempty" jsonschema:"maxItems=64"` // where it matters which one is fitted
	Roots      []Root        `json:"roots" jsonschema:"minItems=1,maxItems=16"`
	Groups     []Group       `json:"groups" jsonschema:"maxItems=64"`
	Sockets    []Socket      `json:"sockets" jsonschema:"minItems=1,maxItems=512"`
	Bays       []Bay         `json:"bays,omitempty" jsonschema:"maxItems=64"`   // places for drives, apart from the ports their data comes from
	Layers     []layer.Layer `json:"layers,omitempty" jsonschema:"maxItems=64"` // what lies over what; none is not stated
	Settings   []Setting     `json:"settings" jsonschema:"maxItems=64"`
	Rules      []Rule        `json:"rules" jsonschema:"maxItems=512"`
	Memory     Memory        `json:"memory"`
}

// UntoldChannel is the channel of slots of which nobody told on which they are: each may be on any.
const UntoldChannel ChannelID = "?"

// Class is the kind of machine.
type Class string

// The classes of machine.
const (
	Tower       Class = "tower"
	Small       Class = "small form factor"
	MiniPC      Class = "mini PC"
	ThinClient  Class = "thin client"
	Workstation Class = "workstation"
	Unclassed   Class = "unknown" // nobody told: what is usual of a class is then not known either
)

// Values lists the classes for the formats.
func (Class) Values() []string {
	return []string{string(Tower), string(Small), string(MiniPC), string(ThinClient), string(Workstation), string(Unclassed)}
}

// Place is a rectangle on the board in millimetres, from its top left corner.
type Place struct {
	XMM      quantity.Millimetres `json:"xMM" jsonschema:"minimum=0,maximum=1000"`
	YMM      quantity.Millimetres `json:"yMM" jsonschema:"minimum=0,maximum=1000"`
	WidthMM  quantity.Millimetres `json:"widthMM" jsonschema:"exclusiveMinimum=0,maximum=1000"`
	HeightMM quantity.Millimetres `json:"heightMM" jsonschema:"exclusiveMinimum=0,maximum=1000"`
}

// Board is the outline everything is placed on, seen with the rear panel at the left.
type Board struct {
	WidthMM  quantity.Millimetres `json:"widthMM" jsonschema:"exclusiveMinimum=0,maximum=1000"`
	HeightMM quantity.Millimetres `json:"heightMM" jsonschema:"exclusiveMinimum=0,maximum=1000"`
}

// Chassis says how the machine opens.
type Chassis struct {
	Cover    string               `json:"cover,omitempty" jsonschema:"maxLength=300"` // how the cover comes off, one sentence
	CardMM   quantity.Millimetres `json:"cardMM,omitzero" jsonschema:"minimum=1"`     // the longest card that goes in
	LowSlots quantity.Answer      `json:"lowProfileSlots,omitzero"`                   // its slots take low brackets only
	Plugs    []PlugCount          `json:"plugs,omitempty" jsonschema:"maxItems=16"`   // free power plugs
	Supply   string               `json:"supply,omitempty" jsonschema:"maxLength=60"` // the model of its power supply, as printed on it
	Feeds3V3 quantity.Answer      `json:"feeds3V3,omitzero"`                          // its SATA plugs carry 3.3 V, which holds drives with the power-disable pin off
	Earthed  quantity.Answer      `json:"earthed,omitzero"`                           // supply with a three-pin lead and its own switch
	WeightKG float64              `json:"weightKG,omitzero" jsonschema:"minimum=0,maximum=200"`
}

// PlugCount is how many free plugs of one kind there are. Zero is a statement: none.
// Those in use as the machine is delivered are another number.
type PlugCount struct {
	Kind  part.Plug `json:"kind"`
	Count int       `json:"count" jsonschema:"minimum=0,maximum=64"`
	InUse int       `json:"inUse,omitzero" jsonschema:"minimum=0,maximum=64"`
	Watts float64   `json:"watts,omitzero" jsonschema:"minimum=1,maximum=2000"` // what the leads with these plugs may carry together
	From  string    `json:"from,omitempty" jsonschema:"maxLength=120"`          // where they come from, if not from the supply: "a lead of the board's own"
}

// Processor is one processor a board takes; rules say what differs with it.
type Processor struct {
	ID          ProcessorID     `json:"id" jsonschema:"minLength=1,maxLength=40,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Name        string          `json:"name" jsonschema:"minLength=1,maxLength=120"`
	Graphics    quantity.Answer `json:"graphics,omitzero"`                           // brings graphics of its own
	ModuleBytes quantity.Bytes  `json:"moduleBytes,omitzero" jsonschema:"minimum=1"` // the largest module its memory controller addresses: beyond is not a trial, it cannot be
	TotalBytes  quantity.Bytes  `json:"totalBytes,omitzero" jsonschema:"minimum=1"`  // and all of them together
}

// Firmware says how to reach the set-up screens.
type Firmware struct {
	SetupKey   string          `json:"setupKey,omitempty" jsonschema:"maxLength=60"`
	BootKey    string          `json:"bootKey,omitempty" jsonschema:"maxLength=60"`
	StartsPCIe quantity.Answer `json:"startsPCIe,omitzero"` // can start a system from a PCIe drive
	Version    string          `json:"version,omitempty" jsonschema:"maxLength=60"`
}

// RootKind is what a root is.
type RootKind string

// The kinds of root.
const (
	CPU     RootKind = "cpu"
	Chipset RootKind = "chipset"
)

// Values lists the root kinds for the formats.
func (RootKind) Values() []string { return []string{string(CPU), string(Chipset)} }

// Root is where lanes start.
type Root struct {
	ID     RootID   `json:"id" jsonschema:"minLength=1,maxLength=40"`
	Name   string   `json:"name" jsonschema:"minLength=1,maxLength=80"`
	Kind   RootKind `json:"kind"`
	Place  Place    `json:"place"`
	Uplink *Uplink  `json:"uplink,omitempty"` // every root but the processor hangs on one
}

// Uplink is the link everything below a root shares on its way to the processor.
type Uplink struct {
	To    RootID         `json:"to"`
	Gen   quantity.Gen   `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"`
	Lanes quantity.Lanes `json:"lanes,omitzero" jsonschema:"enum=1,enum=2,enum=4,enum=8,enum=16"`
}

// Link is the uplink as a link.
func (u *Uplink) Link() link.Link { return link.Link{Gen: u.Gen, Lanes: u.Lanes} }

// Group is lanes of one root that are dealt out together.
type Group struct {
	ID    GroupID        `json:"id" jsonschema:"minLength=1,maxLength=40"`
	Root  RootID         `json:"root"`
	Lanes quantity.Lanes `json:"lanes" jsonschema:"minimum=1,maximum=128"`
}

// Kind is what a socket is.
type Kind string

// The kinds of socket.
const (
	M2     Kind = "m2"
	Slot   Kind = "pcie"
	SATA   Kind = "sata"
	U2     Kind = "u2"
	DIMM   Kind = "dimm"
	SODIMM Kind = "sodimm"
	USB    Kind = "usb"
)

// Values lists the socket kinds for the formats.
func (Kind) Values() []string {
	return []string{string(M2), string(Slot), string(SATA), string(U2), string(DIMM), string(SODIMM), string(USB)}
}

// Edge is an edge of a place, as the board is drawn: the rear panel at the left.
type Edge string

// The edges.
const (
	RearEdge  Edge = "rear"
	FrontEdge Edge = "front"
	UpperEdge Edge = "upper"
	LowerEdge Edge = "lower"
)

// Values lists the edges for the formats.
func (Edge) Values() []string {
	return []string{string(RearEdge), string(FrontEdge), string(UpperEdge), string(LowerEdge)}
}

// Memory reports whether the socket takes memory modules.
func (k Kind) Memory() bool { return k == DIMM || k == SODIMM }

// Socket is one place a part goes into.
type Socket struct {
	ID    SocketID `json:"id" jsonschema:"minLength=1,maxLength=40,pattern=^[A-Za-z0-9][A-Za-z0-9_.-]*$"`
	Kind  Kind     `json:"kind"`
	Place Place    `json:"place"`
	Where string   `json:"where,omitempty" jsonschema:"maxLength=120"` // in words: "upper, below the processor"

	// Electrical side. Group feeds PCIe lanes; Root is given where no lanes are
	// dealt out (SATA ports, memory slots).
	Group     GroupID            `json:"group,omitempty"`
	Root      RootID             `json:"root,omitempty"`
	Protocols []link.Protocol    `json:"protocols,omitempty" jsonschema:"uniqueItems=true"`
	Gen       quantity.Gen       `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"`
	Lanes     quantity.Lanes     `json:"lanes,omitzero" jsonschema:"enum=1,enum=2,enum=4,enum=8,enum=16"`
	FirstLane int                `json:"firstLane,omitzero" jsonschema:"minimum=0,maximum=127"` // in its group; lanes that two sockets claim need a rule that takes them from one
	Splits    [][]quantity.Lanes `json:"splits,omitempty" jsonschema:"maxItems=16"`             // how firmware can divide a slot; silent means it cannot
	SATAGen   quantity.Gen       `json:"sataGen,omitzero" jsonschema:"minimum=1,maximum=3"`
	USB       link.USBMode       `json:"usb,omitempty"` // the fastest mode of a USB port

	// Mechanical side, by kind.
	Key       part.Key               `json:"key,omitempty"`
	Contacts  Edge                   `json:"contacts,omitempty"` // at which end of its place an M.2 card's contacts go in; its post stands towards the other
	LengthsMM []quantity.Millimetres `json:"lengthsMM,omitempty" jsonschema:"uniqueItems=true"`
	WidthMM   quantity.Millimetres   `json:"widthMM,omitzero" jsonschema:"enum=22,enum=25,enum=30"` // the widest M.2 card there is room for
	Heatsink  quantity.Answer        `json:"heatsink,omitzero"`                                     // the board brings one for this socket
	Physical  quantity.Lanes         `json:"physicalLanes,omitzero" jsonschema:"enum=1,enum=4,enum=8,enum=16"`
	OpenEnd   quantity.Answer        `json:"openEnded,omitzero"`                                      // longer cards go in over the end
	CardRoom  quantity.Answer        `json:"-"`                                                       // of an adapter's slot only: a card has room where it is mounted
	Opening   int                    `json:"opening,omitzero" jsonschema:"minimum=1,maximum=16"`      // rear opening, counted away from the processor
	TopMM     quantity.Millimetres   `json:"clearTopMM,omitzero" jsonschema:"minimum=0.1"`            // free height above an M.2 card's board, or over a memory slot under the cooler
	BottomMM  quantity.Millimetres   `json:"clearBottomMM,omitzero" jsonschema:"minimum=0.1"`         // free height below it: parts on the under side need it
	UnderMM   quantity.Millimetres   `json:"clearUnderCardMM,omitzero" jsonschema:"minimum=0.1"`      // what is left of clearTopMM when a card lies over it
	Under     int                    `json:"underOpening,omitzero" jsonschema:"minimum=1,maximum=16"` // the rear opening whose card lies over this socket
	Mount                            // the bay on this port's leads, where the sheet does not list bays apart
	Lead      quantity.Answer        `json:"lead,omitzero"` // a data lead lies ready at this port

	Channel ChannelID `json:"channel,omitempty" jsonschema:"maxLength=20"` // memory slots only

	Told *Told `json:"told,omitempty"` // where the running machine told of it
}

// Told is what a running machine told of one of its sockets. What the sheet states and the machine
// told alike was seen; where they differ, one is wrong.
type Told struct {
	Gen      quantity.Gen   `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"`
	Lanes    quantity.Lanes `json:"lanes,omitzero" jsonschema:"enum=1,enum=2,enum=4,enum=8,enum=16"`
	Physical quantity.Lanes `json:"physicalLanes,omitzero" jsonschema:"enum=1,enum=4,enum=8,enum=16"`
	Key      part.Key       `json:"key,omitempty"`
	Channel  ChannelID      `json:"channel,omitempty" jsonschema:"maxLength=20"`
}

// Mount is how a bay takes, holds and feeds a drive.
type Mount struct {
	Drives    []part.Form          `json:"drives,omitempty" jsonschema:"uniqueItems=true"` // what the bay takes
	BayMM     quantity.Millimetres `json:"bayHeightMM,omitzero" jsonschema:"minimum=1"`    // the tallest drive of the bay
	Power     part.Plug            `json:"power,omitempty"`                                // the plug that reaches the bay, where it is not a SATA plug
	LeadEnd   part.LeadEnd         `json:"leadEnd,omitempty"`                              // the end of a data lead the bay has room for
	Holder    Holder               `json:"holder,omitempty"`                               // how the bay holds a drive
	HasHolder quantity.Answer      `json:"holderThere,omitzero"`                           // the bracket or caddy is in the machine
	Thread    part.Thread          `json:"thread,omitempty"`                               // of the screws kept with the bay
}

// stated reports that the sheet says anything of the bay.
func (m *Mount) stated() bool {
	return len(m.Drives) > 0 || m.BayMM.Known() || m.Power != "" || m.LeadEnd != "" || m.Holder != "" || m.HasHolder != quantity.Unknown || m.Thread != ""
}

// Bay is a place for a drive. Leads reach it from ports; a drive in it may hang on any
// port, and moving its lead to another does not move the drive.
type Bay struct {
	ID    BayID      `json:"id" jsonschema:"minLength=1,maxLength=40,pattern=^[A-Za-z0-9][A-Za-z0-9_.-]*$"`
	Where string     `json:"where,omitempty" jsonschema:"maxLength=120"`                // in words: "lower cage, at the front"
	Ports []SocketID `json:"ports,omitempty" jsonschema:"maxItems=64,uniqueItems=true"` // whose data leads reach it as the machine is built; none is any
	Mount
}

// Reached reports that the leads of a port reach the bay as the machine is built.
func (b *Bay) Reached(port SocketID) bool { return len(b.Ports) == 0 || slices.Contains(b.Ports, port) }

// OwnBay is the bay on a port's leads, named by the port: that of a drive port on a sheet
// which lists no bays, or which says what that port's own bay takes. False is none.
func (s *Sheet) OwnBay(k *Socket) (Bay, bool) {
	if k.Kind != SATA && k.Kind != U2 || len(s.Bays) > 0 && !k.stated() && (k.Kind == SATA || s.reached(k.ID)) {
		return Bay{}, false
	}
	return Bay{ID: BayID(k.ID), Where: k.Where, Ports: []SocketID{k.ID}, Mount: k.Mount}, true
}

// reached reports a port whose leads reach a listed bay.
func (s *Sheet) reached(port SocketID) bool {
	return slices.ContainsFunc(s.Bays, func(b Bay) bool { return slices.Contains(b.Ports, port) })
}

// EveryBay lists the bays on ports' own leads, in the order of the ports, and then those
// listed apart.
func (s *Sheet) EveryBay() []Bay {
	var out []Bay
	for i := range s.Sockets {
		if b, ok := s.OwnBay(&s.Sockets[i]); ok {
			out = append(out, b)
		}
	}
	return append(out, s.Bays...)
}

// Places is the names of all that can be reached: sockets and bays.
func (s *Sheet) Places() []layer.Named {
	var out []layer.Named
	for i := range s.Sockets {
		out = append(out, layer.Named(s.Sockets[i].ID))
	}
	for _, b := range s.Bays {
		out = append(out, layer.Named(b.ID))
	}
	return out
}

// Layer finds a layer by its name, nil if the sheet has none.
func (s *Sheet) Layer(id layer.ID) *layer.Layer {
	for i := range s.Layers {
		if s.Layers[i].ID == id {
			return &s.Layers[i]
		}
	}
	return nil
}

// Bay finds a bay by its name; false if the sheet has none.
func (s *Sheet) Bay(id BayID) (Bay, bool) {
	for _, b := range s.Bays {
		if b.ID == id {
			return b, true
		}
	}
	if k := s.Socket(SocketID(id)); k != nil {
		return s.OwnBay(k)
	}
	return Bay{}, false
}

// Holder is how a bay holds a drive.
type Holder string

// The holders: screws through the cage, a bracket, or a sled that slides in.
const (
	HeldByScrews  Holder = "screws"
	HeldByBracket Holder = "bracket"
	HeldByCaddy   Holder = "caddy"
)

// Values lists the holders for the formats.
func (Holder) Values() []string {
	return []string{string(HeldByScrews), string(HeldByBracket), string(HeldByCaddy)}
}

// Link is the socket's own PCIe end before rules.
func (s *Socket) Link() link.Link { return link.Link{Gen: s.Gen, Lanes: s.Lanes} }

// Setting is one firmware choice in this machine's own words.
type Setting struct {
	ID      SettingID `json:"id" jsonschema:"minLength=1,maxLength=40,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Name    string    `json:"name" jsonschema:"minLength=1,maxLength=120"`  // as the screen prints it
	Role    Role      `json:"role,omitempty"`                               // what it is for; silent, its rules tell
	Where   string    `json:"where,omitempty" jsonschema:"maxLength=200"`   // the way through the menus
	Caution string    `json:"caution,omitempty" jsonschema:"maxLength=300"` // what a change can break
	Options []Option  `json:"options" jsonschema:"minItems=2,maxItems=32"`
	Default string    `json:"default,omitempty"` // absent is not stated: then what it is set to is looked up
}

// Option is one value of a setting.
type Option struct {
	Value string `json:"value" jsonschema:"minLength=1,maxLength=40"`
	Name  string `json:"name" jsonschema:"minLength=1,maxLength=120"` // as the screen prints it
}

// Offers reports that a value is one of the setting's options.
func (s *Setting) Offers(value string) bool {
	return slices.ContainsFunc(s.Options, func(o Option) bool { return o.Value == value })
}

// OptionName is the screen's word for a value.
func (s *Setting) OptionName(value string) string {
	for _, o := range s.Options {
		if o.Value == value {
			return o.Name
		}
	}
	return value
}

// Holds is what a condition asks of a socket.
type Holds string

// A socket may hold anything at all, or a part of one protocol.
const (
	HoldsAnything Holds = "anything"
	HoldsPCIe     Holds = "pcie"
	HoldsSATA     Holds = "sata"
)

// Values lists the conditions for the formats.
func (Holds) Values() []string {
	return []string{string(HoldsAnything), string(HoldsPCIe), string(HoldsSATA)}
}

// Rule is one footnote of the manual: when all conditions hold, all effects apply.
type Rule struct {
	ID   string      `json:"id" jsonschema:"minLength=1,maxLength=60"`
	When []Condition `json:"when" jsonschema:"minItems=1,maxItems=16"`
	Then []Effect    `json:"then" jsonschema:"minItems=1,maxItems=32"`
	Says string      `json:"says,omitempty" jsonschema:"maxLength=300"` // the manual's place or words
}

// Condition asks what a socket holds, which value a setting has, or which
// processor is fitted: exactly one of them.
type Condition struct {
	Processor ProcessorID `json:"processor,omitempty"`

	Socket  SocketID  `json:"socket,omitempty"`
	Holds   Holds     `json:"holds,omitempty"`
	Setting SettingID `json:"setting,omitempty"`
	Is      string    `json:"is,omitempty"`
}

// Effect narrows one socket, or lets memory run at its profile. Effects only
// ever take away, so several on one socket combine in any order.
type Effect struct {
	Socket    SocketID         `json:"socket,omitempty"`
	Off       bool             `json:"off,omitempty"`
	MaxLanes  quantity.Lanes   `json:"maxLanes,omitzero" jsonschema:"enum=1,enum=2,enum=4,enum=8,enum=16"`
	MaxGen    quantity.Gen     `json:"maxGen,omitzero" jsonschema:"minimum=1,maximum=6"`
	Protocols []link.Protocol  `json:"protocols,omitempty" jsonschema:"uniqueItems=true"` // only these remain
	Split     []quantity.Lanes `json:"split,omitempty" jsonschema:"maxItems=16"`          // a slot is divided like this, from its first lane on
	Profile   bool             `json:"memoryProfile,omitempty"`                           // modules run at their stored profile
}

// Limit is a capacity as the spec sheet states it and, where a finished job
// showed more, the capacity proven. Beyond both is a trial, not an error.
type Limit struct {
	StatedBytes quantity.Bytes `json:"statedBytes,omitzero" jsonschema:"minimum=1"`
	ProvenBytes quantity.Bytes `json:"provenBytes,omitzero" jsonschema:"minimum=1"`
	ProvenBy    string         `json:"provenBy,omitempty" jsonschema:"maxLength=120"`
}

// Memory says what the memory slots take together.
type Memory struct {
	Generation   memory.Generation   `json:"generation,omitempty"`
	Registered   quantity.Answer     `json:"registered,omitzero"`                                       // takes registered modules, and only those
	ECC          quantity.Answer     `json:"ecc,omitzero"`                                              // uses the check bits of modules that have them
	Millivolts   quantity.Millivolts `json:"millivolts,omitzero" jsonschema:"minimum=500,maximum=5000"` // feeds its modules with this
	ClockDrivers quantity.Answer     `json:"clockDrivers,omitzero"`                                     // runs DDR5 modules that bring a clock driver, with it on
	Module       Limit               `json:"module,omitzero"`                                           // the largest single module
	Total        Limit               `json:"total,omitzero"`
	Fill         []Fill              `json:"fill,omitempty" jsonschema:"maxItems=64"`
	Speeds       []Speed             `json:"speeds,omitempty" jsonschema:"maxItems=64"`
	Reserved     quantity.Bytes      `json:"graphicsBytes,omitzero" jsonschema:"minimum=1"` // kept by graphics in the processor
}

// Fill says which slots a number of modules goes into, as printed in the manual.
type Fill struct {
	Slots []SocketID `json:"slots" jsonschema:"minItems=1,maxItems=64,uniqueItems=true"`
}

// Order is the slots that n modules go into as printed, nil where the sheet is
// silent.
func (m *Memory) Order(n int) []SocketID {
	for _, f := range m.Fill {
		if len(f.Slots) == n {
			return f.Slots
		}
	}
	return nil
}

// MostChannels is how many memory channels the slots can be on: each of which nobody told its channel
// may be on one of its own.
func (s *Sheet) MostChannels() int {
	seen, untold := map[ChannelID]bool{}, 0
	for _, k := range s.Sockets {
		switch {
		case k.Channel == UntoldChannel:
			untold++
		case k.Kind.Memory():
			seen[k.Channel] = true
		}
	}
	return len(seen) + untold
}

// OrderOrGuess is the slots for n modules: the printed order, or where the sheet is silent all
// memory slots, channel by channel in turn, which is a guess: the first slot of each channel first,
// or, where there are two of each and seconds says so, the second.
func (s *Sheet) OrderOrGuess(n int, seconds bool) (slots []SocketID, guess bool) {
	if slots = s.Memory.Order(n); slots != nil {
		return slots, false
	}
	var channels [][]SocketID
	at := map[ChannelID]int{}
	deepest := 0
	for _, k := range s.Sockets {
		if !k.Kind.Memory() {
			continue
		}
		c, ok := at[k.Channel]
		if !ok {
			c = len(channels)
			at[k.Channel], channels = c, append(channels, nil)
		}
		channels[c] = append(channels[c], k.ID)
		deepest = max(deepest, len(channels[c]))
	}
	if seconds && len(channels) > 1 && !slices.ContainsFunc(channels, func(c []SocketID) bool { return len(c) != 2 }) {
		for _, c := range channels {
			slices.Reverse(c)
		}
	}
	for i := range deepest {
		for _, c := range channels {
			if i < len(c) {
				slots = append(slots, c[i])
			}
		}
	}
	return slots, true
}

// Speed is one row of the board's speed table: the fastest rate with so many
// modules on the fullest channel and, where the table tells them apart, so many
// ranks on each module.
type Speed struct {
	PerChannel int           `json:"modulesPerChannel" jsonschema:"minimum=1,maximum=8"`
	Ranks      int           `json:"ranks,omitzero" jsonschema:"minimum=1,maximum=16"`
	MTps       quantity.MTps `json:"rateMTps" jsonschema:"minimum=100,maximum=20000"`
}

// SocketIDs is the names of all sockets, in the sheet's order.
func (s *Sheet) SocketIDs() []SocketID {
	out := make([]SocketID, len(s.Sockets))
	for i := range s.Sockets {
		out[i] = s.Sockets[i].ID
	}
	return out
}

// Socket finds a socket by name, nil if the sheet has none.
func (s *Sheet) Socket(id SocketID) *Socket {
	for i := range s.Sockets {
		if s.Sockets[i].ID == id {
			return &s.Sockets[i]
		}
	}
	return nil
}

// Processor finds a processor by name, nil if the sheet has none.
func (s *Sheet) Processor(id ProcessorID) *Processor {
	for i := range s.Processors {
		if s.Processors[i].ID == id {
			return &s.Processors[i]
		}
	}
	return nil
}

// Setting finds a setting by name, nil if the sheet has none.
func (s *Sheet) Setting(id SettingID) *Setting {
	for i := range s.Settings {
		if s.Settings[i].ID == id {
			return &s.Settings[i]
		}
	}
	return nil
}

// RootOf is the root that feeds a socket, nil if the sheet does not say.
func (s *Sheet) RootOf(k *Socket) *Root {
	id := k.Root
	for i := range s.Groups {
		if s.Groups[i].ID == k.Group {
			id = s.Groups[i].Root
		}
	}
	return s.Root(id)
}

// Root finds a root by name, nil if the sheet has none.
func (s *Sheet) Root(id RootID) *Root {
	for i := range s.Roots {
		if s.Roots[i].ID == id {
			return &s.Roots[i]
		}
	}
	return nil
}
