// Package layer is what lies over what inside a machine: covers, cages, cards and coolers,
// with the fasteners that hold them and the leads that tie them down.
//
// A Layer comes off when those it lies under are off and its leads are undone; it goes back
// the other way, each lead before it is out of reach. A Stack of layers says which of them
// must come off so that certain places can be reached, in what order, and the way back:
//
//	s := layer.Stack{Layers: sheet.Layers}
//	open, ok := s.Least([]layer.Goal{s.To("M2_1")}, nil)
//	s.Off(open)          // a valid order
//	s.Back(open, nil)    // and the way back, with what is fitted meanwhile
//
// What a fact does not state is absent. How long something takes and how much can break is
// taken as usual for its kind where nobody said (Usual).
package layer

import (
	"slices"

	"deepbay/internal/core/quantity"
)

type (
	// ID names a layer of one machine.
	ID string
	// Named is a socket or a bay by its name on the sheet.
	Named string
)

// Layer is one thing that lies over others.
type Layer struct {
	ID        ID         `json:"id" jsonschema:"minLength=1,maxLength=40,pattern=^[a-z0-9][a-z0-9._-]*$"`
	Name      string     `json:"name" jsonschema:"minLength=1,maxLength=80"` // with its article left out: "fan duct"
	Kind      Kind       `json:"kind"`
	Where     string     `json:"where,omitempty" jsonschema:"maxLength=120"`
	Outline   *Outline   `json:"outline,omitempty"`                                     // as seen on the board, for drawings
	Side      Side       `json:"side,omitempty"`                                        // from which it is taken off; what it hides can be reached from another side too
	After     []ID       `json:"after,omitempty" jsonschema:"maxItems=64"`              // must be off first
	All       bool       `json:"all,omitempty"`                                         // hides everything inside
	Hides     []Named    `json:"hides,omitempty" jsonschema:"maxItems=512"`             // sockets and bays that cannot be reached while it is on
	Crowds    []Named    `json:"crowds,omitempty" jsonschema:"maxItems=512"`            // that can, but it is tight
	Along     bool       `json:"leadsAlong,omitempty"`                                  // the leads of the drives it holds come out with it
	Holds     []Named    `json:"holds,omitempty" jsonschema:"maxItems=64"`              // bays that come out with it: drives are loaded while it is out
	In        Named      `json:"in,omitempty"`                                          // it is whatever lies in this socket or bay, and is not there where nothing does
	Fasteners []Fastener `json:"fasteners,omitempty" jsonschema:"maxItems=32"`          // all must be undone
	Catches   []Catch    `json:"catches,omitempty" jsonschema:"maxItems=16"`            // tabs, clips and latches
	Moves     []Motion   `json:"moves,omitempty" jsonschema:"maxItems=8"`               // how it comes away, in order
	Leads     []Lead     `json:"leads,omitempty" jsonschema:"maxItems=32"`              // that must be undone
	Tools     []string   `json:"tools,omitempty" jsonschema:"maxItems=8"`               // besides the drivers of its fasteners
	Minutes   Minutes    `json:"minutes,omitzero" jsonschema:"minimum=0.1,maximum=240"` // to take it off
	Risk      Risk       `json:"risk,omitempty"`
	Caution   string     `json:"caution,omitempty" jsonschema:"maxLength=300"` // what can break or hurt
	Stays     bool       `json:"stays,omitempty"`                              // it swings aside on its hinge and hangs there
	Fixed     bool       `json:"fixed,omitempty"`                              // it does not come off
	RunsWith  bool       `json:"runsWith,omitempty"`                           // the machine must not run, or does not start, without it: a cover switch, the air
	Typical   bool       `json:"typical,omitempty"`                            // as machines of this class mostly are: nobody looked at this one
}

// Kind is what a layer is.
type Kind string

// The kinds of layer.
const (
	Cover    Kind = "cover"
	Bezel    Kind = "bezel"
	Shell    Kind = "shell"
	Cage     Kind = "cage"
	Bracket  Kind = "bracket"
	Shroud   Kind = "shroud"
	Duct     Kind = "fan duct"
	Card     Kind = "card"
	Shield   Kind = "shield"
	Cooler   Kind = "cooler"
	Heatsink Kind = "heatsink"
	Board    Kind = "board"
	Supply   Kind = "supply"
	Drive    Kind = "drive"
	Foot     Kind = "foot"
)

// Values lists the kinds for the formats.
func (Kind) Values() []string {
	return []string{string(Cover), string(Bezel), string(Shell), string(Cage), string(Bracket), string(Shroud), string(Duct), string(Card), string(Shield), string(Cooler), string(Heatsink), string(Board), string(Supply), string(Drive), string(Foot)}
}

// Side is a side of the machine as its board is drawn, rear panel at the left: top is towards
// whoever looks at the board.
type Side string

// The sides; as a direction, towards them.
const (
	Top    Side = "top"
	Bottom Side = "bottom"
	Front  Side = "front"
	Rear   Side = "rear"
	Left   Side = "left"
	Right  Side = "right"
)

// Values lists the sides for the formats.
func (Side) Values() []string {
	return []string{string(Top), string(Bottom), string(Front), string(Rear), string(Left), string(Right)}
}

// Risk is how easily something breaks when it is taken off.
type Risk string

// The risks.
const (
	Low  Risk = "low"
	Some Risk = "some" // a clip, a ribbon, a pad that sticks
	High Risk = "high" // a processor's cooler, a glued screen
)

// Values lists the risks for the formats.
func (Risk) Values() []string { return []string{string(Low), string(Some), string(High)} }

// Minutes is how long something takes. Zero is not stated.
type Minutes float64

// Point is a point on the drawing of the board, in millimetres from its top left corner; it
// may lie beyond the board's edges.
type Point struct {
	XMM quantity.Millimetres `json:"xMM" jsonschema:"minimum=-1000,maximum=2000"`
	YMM quantity.Millimetres `json:"yMM" jsonschema:"minimum=-1000,maximum=2000"`
}

// Outline is a rectangle on that drawing.
type Outline struct {
	XMM      quantity.Millimetres `json:"xMM" jsonschema:"minimum=-1000,maximum=2000"`
	YMM      quantity.Millimetres `json:"yMM" jsonschema:"minimum=-1000,maximum=2000"`
	WidthMM  quantity.Millimetres `json:"widthMM" jsonschema:"exclusiveMinimum=0,maximum=2000"`
	HeightMM quantity.Millimetres `json:"heightMM" jsonschema:"exclusiveMinimum=0,maximum=2000"`
}

// Bit is what turns a fastener.
type Bit string

// The bits: by hand, cross-head by size (ISO 8764), hexalobular by size (ISO 10664), flat and
// hexagon socket by millimetres.
const (
	ByHand Bit = "by hand"
	PH00   Bit = "PH00"
	PH0    Bit = "PH0"
	PH1    Bit = "PH1"
	PH2    Bit = "PH2"
	T5     Bit = "T5"
	T6     Bit = "T6"
	T8     Bit = "T8"
	T10    Bit = "T10"
	T15    Bit = "T15"
	T20    Bit = "T20"
	Flat3  Bit = "flat 3 mm"
	Flat5  Bit = "flat 5.5 mm"
	Hex2   Bit = "hex 2 mm"
	Hex5   Bit = "hex nut 5 mm"
)

// Values lists the bits for the formats.
func (Bit) Values() []string {
	return []string{string(ByHand), string(PH00), string(PH0), string(PH1), string(PH2), string(T5), string(T6), string(T8), string(T10), string(T15), string(T20), string(Flat3), string(Flat5), string(Hex2), string(Hex5)}
}

// Screw is the thread of a fastener.
type Screw string

// The threads met inside computers: metric coarse (ISO 261) and 6-32 UNC (ASME B1.1).
const (
	M1i6  Screw = "M1.6"
	M2    Screw = "M2"
	M2i5  Screw = "M2.5"
	M3    Screw = "M3"
	M3i5  Screw = "M3.5"
	M4    Screw = "M4"
	UNC   Screw = "6-32"
	Self  Screw = "self-tapping"
	Rivet Screw = "push rivet"
)

// Values lists the threads for the formats.
func (Screw) Values() []string {
	return []string{string(M1i6), string(M2), string(M2i5), string(M3), string(M3i5), string(M4), string(UNC), string(Self), string(Rivet)}
}

// Fastener is screws of one kind in one layer.
type Fastener struct {
	Count   int                  `json:"count" jsonschema:"minimum=1,maximum=64"`
	Bit     Bit                  `json:"bit,omitempty"`
	Thread  Screw                `json:"thread,omitempty"`
	Length  quantity.Millimetres `json:"lengthMM,omitzero" jsonschema:"minimum=1,maximum=200"` // of the thread
	Captive quantity.Answer      `json:"captive,omitzero"`                                     // backs off and stays in its layer
	Where   string               `json:"where,omitempty" jsonschema:"maxLength=120"`           // "under the left front foot"
	At      []Point              `json:"at,omitempty" jsonschema:"maxItems=64"`                // one for each, for drawings
	Torque  string               `json:"torque,omitempty" jsonschema:"maxLength=60"`           // how hard, in the manual's words
}

// CatchKind is what holds without a screw.
type CatchKind string

// The catches.
const (
	Tab   CatchKind = "tab"
	Clip  CatchKind = "clip"
	Latch CatchKind = "latch"
	Lock  CatchKind = "lock"
	Glue  CatchKind = "adhesive"
)

// Values lists the catches for the formats.
func (CatchKind) Values() []string {
	return []string{string(Tab), string(Clip), string(Latch), string(Lock), string(Glue)}
}

// Catch holds a layer without a screw.
type Catch struct {
	Kind   CatchKind `json:"kind"`
	Count  int       `json:"count,omitzero" jsonschema:"minimum=1,maximum=64"`
	Where  string    `json:"where,omitempty" jsonschema:"maxLength=120"`
	At     []Point   `json:"at,omitempty" jsonschema:"maxItems=64"`
	Toward Side      `json:"toward,omitempty"` // pressed or drawn that way to let go
}

// How is a way of moving.
type How string

// The ways of moving.
const (
	Lift  How = "lift"
	Slide How = "slide"
	Swing How = "swing"
	Tilt  How = "tilt"
	Pull  How = "pull"
)

// Values lists the ways for the formats.
func (How) Values() []string {
	return []string{string(Lift), string(Slide), string(Swing), string(Tilt), string(Pull)}
}

// Motion is one stretch of the way a layer comes off.
type Motion struct {
	How    How                  `json:"how"`
	Toward Side                 `json:"toward,omitempty"`
	By     quantity.Millimetres `json:"byMM,omitzero" jsonschema:"minimum=1,maximum=1000"`
}

// Plug is how a lead's plug lets go.
type Plug string

// The plugs.
const (
	Friction  Plug = "friction"   // pulled straight, by its body
	Latched   Plug = "latch"      // its latch pressed, then pulled
	FlipLock  Plug = "flip lock"  // a ribbon's bar is flipped up
	SlideLock Plug = "slide lock" // a ribbon's bar is drawn out a millimetre
	Coax      Plug = "coax"       // an antenna's, pressed on: lifted straight up
	SATAData  Plug = "SATA data"
	SATAPower Plug = "SATA power"
	CardPower Plug = "card power" // latched, of a card
)

// Plugs lists them.
func Plugs() []Plug {
	return []Plug{Friction, Latched, FlipLock, SlideLock, Coax, SATAData, SATAPower, CardPower}
}

// Values lists the plugs for the formats.
func (Plug) Values() []string {
	var out []string
	for _, p := range Plugs() {
		out = append(out, string(p))
	}
	return out
}

// Undone is when a lead can be undone.
type Undone string

// Before its layer moves, which is meant where nothing is said, or only once it is lifted, as
// far as the lead reaches.
const (
	First   Undone = "first"
	Lifting Undone = "lifting"
)

// Values lists them for the formats.
func (Undone) Values() []string { return []string{string(First), string(Lifting)} }

// Again is when a lead must be plugged again.
type Again string

// Before its layer goes back, because it is out of reach then; or once the layer is back,
// because it is too short before. Where nothing is said, either will do.
const (
	BeforeBack Again = "before"
	OnceBack   Again = "after"
)

// Values lists them for the formats.
func (Again) Values() []string { return []string{string(BeforeBack), string(OnceBack)} }

// Lead ties a layer to the rest.
type Lead struct {
	For    string               `json:"for" jsonschema:"minLength=1,maxLength=80"` // what it is: "front panel light"
	Plug   Plug                 `json:"plug,omitempty"`
	Where  string               `json:"where,omitempty" jsonschema:"maxLength=120"` // where its plug is
	At     *Point               `json:"at,omitempty"`
	Under  []ID                 `json:"under,omitempty" jsonschema:"maxItems=32"` // layers that hide its plug; its own too, where it is undone once that is lifted
	Undone Undone               `json:"undone,omitempty"`
	Again  Again                `json:"again,omitempty"`
	Length quantity.Millimetres `json:"lengthMM,omitzero" jsonschema:"minimum=1,maximum=2000"` // how far its layer can be moved away with it on
	Item   string               `json:"-"`                                                     // of a lead that a fitted part has: the piece's name
}

// Loose reports fasteners that come away and are laid into the tray: not those that are
// captive.
func (f *Fastener) Loose() bool { return f.Captive != quantity.Yes }

// Clone is a copy that shares nothing that is written to.
func (l *Layer) Clone() Layer {
	out := *l
	out.After, out.Hides, out.Crowds, out.Holds = slices.Clone(l.After), slices.Clone(l.Hides), slices.Clone(l.Crowds), slices.Clone(l.Holds)
	out.Fasteners, out.Catches, out.Moves, out.Leads, out.Tools = slices.Clone(l.Fasteners), slices.Clone(l.Catches), slices.Clone(l.Moves), slices.Clone(l.Leads), slices.Clone(l.Tools)
	return out
}

// usual is how long the kinds take to come off, and how easily they break, where nobody said:
// the middle of what hands need that know the machine.
var usual = map[Kind]struct {
	minutes Minutes
	risk    Risk
}{
	Cover: {1, Low}, Bezel: {1.5, Some}, Shell: {4, Some}, Cage: {3, Low}, Bracket: {1.5, Low}, Shroud: {1.5, Low}, Duct: {1, Low},
	Card: {2, Low}, Shield: {1.5, Low}, Cooler: {6, High}, Heatsink: {1.5, Some}, Board: {6, Some}, Supply: {4, Low}, Drive: {2, Low}, Foot: {0.5, Low},
}

// Takes is how long it takes to come off, and whether that is only usual for its kind.
func (l *Layer) Takes() (m Minutes, guess bool) {
	if l.Minutes > 0 {
		return l.Minutes, false
	}
	return usual[l.Kind].minutes, true
}

// Risks is how easily it breaks, that of its kind where nobody said.
func (l *Layer) Risks() Risk {
	if l.Risk != "" {
		return l.Risk
	}
	return usual[l.Kind].risk
}

// worth is what a risk weighs, in minutes: so much more work is better than to run it.
var worth = map[Risk]Minutes{Low: 0, Some: 3, High: 15}

// Weight is what it costs to take it off and put it back, in tenths of a minute, so that sums
// are exact. It is at least one: a layer less is better.
func (l *Layer) Weight() int {
	m, _ := l.Takes()
	return max(1, int((m+worth[l.Risks()])*10+0.5))
}
