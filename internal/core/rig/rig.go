// Package rig is a machine as fitted: a sheet, the pieces on the bench, which of
// them lie in which place, and what firmware is set to.
//
// It is the one room that moves things (see Moved), and the one that knows which
// sockets parts bring (see Carried). It judges nothing.
//
//	r := rig.Rig{Sheet: sheet, Pieces: pieces, Setup: rig.Setup{Placements: placed}}
//	after, done, err := r.Moved([]rig.Move{{Item: "drive", Socket: rig.On("M2_1")}})
package rig

import (
	"slices"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// ItemID names one physical piece in a job.
type ItemID string

// Piece is one physical part on the bench.
type Piece struct {
	ID     ItemID
	Part   *part.Part
	Serial string // as printed, "" is not known
	New    bool   // came to be fitted, as against found in the machine
	Holds  Content
}

// Content is what a drive holds. Nothing ever suggests to initialise one that is not
// known to be blank.
type Content string

// What drives hold; "" is not known.
const (
	Blank  Content = "blank"
	Data   Content = "data"
	System Content = "system"
)

// Values lists the contents for the formats.
func (Content) Values() []string { return []string{string(Blank), string(Data), string(System)} }

// Placement is a piece in a place.
type Placement struct {
	Item   ItemID `json:"item"`
	Socket Path   `json:"socket"`
}

// Choice gives one setting a value.
type Choice struct {
	Setting machine.SettingID `json:"setting"`
	Value   string            `json:"value"`
}

// Lying is a drive in a bay, where somebody told in which.
type Lying struct {
	Item ItemID        `json:"item" jsonschema:"maxLength=60"`
	Bay  machine.BayID `json:"bay" jsonschema:"maxLength=40"`
}

// Setup is what lies where, and what firmware is set to.
type Setup struct {
	Placements []Placement `json:"placements" jsonschema:"maxItems=512"`
	Bays       []Lying     `json:"bays,omitempty" jsonschema:"maxItems=64"` // of drives of which it was told; the others lie where they fit
	Settings   []Choice    `json:"settings" jsonschema:"maxItems=64"`
}

// Wish is what the owner asked for, as far as it can be checked.
type Wish struct {
	Text        string          `json:"text,omitempty" jsonschema:"maxLength=1000"`      // in their words
	MemoryBytes quantity.Bytes  `json:"memoryBytes,omitzero" jsonschema:"minimum=1"`     // at least this much memory
	SystemBytes quantity.Bytes  `json:"systemBytes,omitzero" jsonschema:"minimum=1"`     // a system drive of at least this
	SystemMax   quantity.Bytes  `json:"systemMaxBytes,omitzero" jsonschema:"minimum=1"`  // the system uses no more memory than this (its edition, or 32 bit)
	SystemFast  bool            `json:"systemFast,omitempty"`                            // and over PCIe
	Keep        []ItemID        `json:"keep,omitempty" jsonschema:"maxItems=64"`         // must stay in the machine and be seen
	Untouched   string          `json:"untouched,omitempty" jsonschema:"maxLength=1000"` // what must not be wiped or changed, in words
	BackedUp    string          `json:"backedUp,omitempty" jsonschema:"maxLength=300"`   // where the backup is, "" is not known
	Encrypted   quantity.Answer `json:"encrypted,omitzero"`                              // a recovery key is needed before settings change
	Starts      Start           `json:"starts,omitzero"`                                 // what starts the machine afterwards, where that was said
	Tests       []Test          `json:"tests,omitempty" jsonschema:"maxItems=3"`         // beyond what the work calls for by itself
}

// Test is a kind of test that a machine is put to.
type Test string

// The tests: of all memory, of the machine at work, and those that drives have built in.
const (
	MemoryTest Test = "memory"
	LoadTest   Test = "load"
	SelfTest   Test = "self-test"
)

// Values lists the tests for the formats.
func (Test) Values() []string {
	return []string{string(MemoryTest), string(LoadTest), string(SelfTest)}
}

// Rig is a sheet with pieces placed, settings chosen and a wish to meet. Names it
// refers to exist: the job that holds it was validated.
type Rig struct {
	Sheet     *machine.Sheet
	Pieces    []Piece
	Setup                         // what lies where, and what is set
	Arrays    []DriveArray        // drives that work together
	Processor machine.ProcessorID // which is fitted; "" is not stated
	Wish      Wish
	Found     *Setup             // the machine as it came, nil where that is this setup
	Unlooked  []machine.SocketID // sockets of the board into which nobody has looked: what is not told there is not known
	Looked    []Fact             // facts that somebody looked up; see Learn
	Against   []Contradiction    // and that sheet or label say otherwise
	Shown     []Shown            // lines that screens of this machine showed; see Seen
	Screened  []Fact             // facts that they told
}

// IsUnlooked reports a socket of the board of which nobody knows what it holds.
func (r *Rig) IsUnlooked(id machine.SocketID) bool { return slices.Contains(r.Unlooked, id) }

// Choice is the value a setting has in this machine: the chosen one or the default.
func (r *Rig) Choice(s *machine.Setting) string { return Value(s, r.Settings) }

// Value is the value a setting has under some choices: the chosen one or the default.
func Value(s *machine.Setting, choices []Choice) string {
	for _, c := range choices {
		if c.Setting == s.ID {
			return c.Value
		}
	}
	return s.Default
}

// PlaceOf is where an item lies, the zero Path on the mat.
func PlaceOf(placed []Placement, item ItemID) Path {
	for _, p := range placed {
		if p.Item == item {
			return p.Socket
		}
	}
	return Path{}
}

// ItemIn is what lies in a place, "" for nothing.
func ItemIn(placed []Placement, at Path) ItemID {
	for _, p := range placed {
		if p.Socket == at {
			return p.Item
		}
	}
	return ""
}

// Where is the place of an item, the zero Path on the mat.
func (s *Setup) Where(id ItemID) Path { return PlaceOf(s.Placements, id) }

// In is the item in a place, "" for nothing.
func (s *Setup) In(at Path) ItemID { return ItemIn(s.Placements, at) }

// Told is the bay in which a drive was told to lie, "" where nobody told.
func (s *Setup) Told(id ItemID) machine.BayID {
	for _, l := range s.Bays {
		if l.Item == id {
			return l.Bay
		}
	}
	return ""
}

// Clone is a copy that shares nothing.
func (s Setup) Clone() Setup {
	return Setup{slices.Clone(s.Placements), slices.Clone(s.Bays), slices.Clone(s.Settings)}
}

// Equal reports that all lies and is set the same, told in the same order.
func (s *Setup) Equal(o *Setup) bool {
	return slices.Equal(s.Placements, o.Placements) && slices.Equal(s.Bays, o.Bays) && slices.Equal(s.Settings, o.Settings)
}

// Piece finds a piece, nil if there is none of that name.
func (r *Rig) Piece(id ItemID) *Piece {
	for i := range r.Pieces {
		if r.Pieces[i].ID == id {
			return &r.Pieces[i]
		}
	}
	return nil
}

// PieceIn is the piece in a place, nil for none.
func (r *Rig) PieceIn(at Path) *Piece {
	if id := r.In(at); id != "" {
		return r.Piece(id)
	}
	return nil
}

// Outside reports a place in a box on a USB port, at any depth.
func (r *Rig) Outside(at Path) bool {
	k := r.Sheet.Socket(at.Top())
	return at.Nested() && k != nil && k.Kind == machine.USB
}

// InBay reports a place whose drive lies in a bay of the machine: a SATA or U.2 port of the
// board, or of a card, that is not in a box and does not hold the drive itself.
func (r *Rig) InBay(at Path, k *machine.Socket) bool {
	return k != nil && (k.Kind == machine.SATA || k.Kind == machine.U2 && !at.Nested()) && !r.Outside(at) &&
		(!at.Nested() || len(k.Drives) == 0)
}

// Inside reports a place for which the machine is opened: all but USB ports and
// what hangs on them.
func (r *Rig) Inside(at Path) bool {
	k := r.Sheet.Socket(at.Top())
	return k == nil || k.Kind != machine.USB
}
