// Package build answers what a machine does with parts in it.
//
// A Build is a sheet with pieces placed and settings chosen. Resolve says, for
// every socket, what is live, at which generation, width and rate, and why; what
// the memory comes to; and each Finding: something that stops the plan, warns or
// is worth noting, with its reasons and cures. Nothing here reads a file or the
// clock, and the order of placements never matters.
//
// A fact that a sheet or label does not state leads to an answer of "unknown"
// that says which fact is missing; it is never taken for a yes.
package build

import (
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// ItemID names one physical piece in a job.
type ItemID string

// Piece is one physical part on the bench.
type Piece struct {
	ID   ItemID
	Part *part.Part
	New  bool // came to be fitted, as against found in the machine
}

// Placement puts one piece into one socket.
type Placement struct {
	Item   ItemID           `json:"item"`
	Socket machine.SocketID `json:"socket"`
}

// Choice gives one setting a value.
type Choice struct {
	Setting machine.SettingID `json:"setting"`
	Value   string            `json:"value"`
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
}

// Build is a sheet with pieces placed, settings chosen and a wish to meet.
// Names it refers to exist: the job that holds it was validated.
type Build struct {
	Sheet      *machine.Sheet
	Pieces     []Piece
	Placements []Placement
	Choices    []Choice
	Processor  machine.ProcessorID // which is fitted; "" is not stated
	Wish       Wish
}

// Choice is the value a setting has in this build: the chosen one or the default.
func (b *Build) Choice(s *machine.Setting) string {
	return Value(s, b.Choices)
}

// Value is the value a setting has under some choices: the chosen one or the default.
func Value(s *machine.Setting, choices []Choice) string {
	for _, c := range choices {
		if c.Setting == s.ID {
			return c.Value
		}
	}
	return s.Default
}

// SocketOf is the socket an item lies in, "" on the mat.
func SocketOf(placed []Placement, item ItemID) machine.SocketID {
	for _, p := range placed {
		if p.Item == item {
			return p.Socket
		}
	}
	return ""
}

func (b *Build) piece(id ItemID) *Piece {
	for i := range b.Pieces {
		if b.Pieces[i].ID == id {
			return &b.Pieces[i]
		}
	}
	return nil
}

// State is what a socket does in a build.
type State string

// The states of a socket.
const (
	Free    State = "free"    // nothing in it; a part would be seen
	Live    State = "live"    // its part is detected
	Off     State = "off"     // a rule closes it; what is in it is not seen
	Stopped State = "stopped" // its part does not go in or is not seen there
	Unsure  State = "unknown" // the sheet or label does not say enough
)

// Values lists the states for the formats.
func (State) Values() []string {
	return []string{string(Free), string(Live), string(Off), string(Stopped), string(Unsure)}
}

// Source is where a reason comes from.
type Source string

// The sources of reasons.
const (
	FromSheet    Source = "sheet"
	FromPart     Source = "part"
	FromSetting  Source = "setting"
	FromStandard Source = "standard"
	FromWish     Source = "wish"
	FromPlan     Source = "placement"
)

// Values lists the sources for the formats.
func (Source) Values() []string {
	return []string{string(FromSheet), string(FromPart), string(FromSetting), string(FromStandard), string(FromWish), string(FromPlan)}
}

// Reason is one fact in the chain that leads to an answer.
type Reason struct {
	From Source `json:"from"`
	Says string `json:"says"`
}

// Move is a change that would cure a finding: an item into a socket, or a
// setting to a value.
type Move struct {
	Item    ItemID            `json:"item,omitempty"`
	Socket  machine.SocketID  `json:"socket,omitempty"`
	Setting machine.SettingID `json:"setting,omitempty"`
	Value   string            `json:"value,omitempty"`
}

// Cure is one way to make a finding go away; at most one is applied. Moves is
// empty where no placement or setting alone does it.
type Cure struct {
	Says  string `json:"says"`
	Moves []Move `json:"moves,omitempty"`
}

// Severity grades a finding.
type Severity string

// The three grades.
const (
	Stops Severity = "stops" // the plan cannot be carried out, or something is not seen
	Warns Severity = "warns" // it works, with a loss somebody should agree to
	Notes Severity = "notes" // worth knowing
)

// Values lists the grades for the formats.
func (Severity) Values() []string { return []string{string(Stops), string(Warns), string(Notes)} }

// Finding is one judgement about a build.
type Finding struct {
	Code     Code             `json:"code"`
	Severity Severity         `json:"severity"`
	Socket   machine.SocketID `json:"socket,omitempty"`
	Item     ItemID           `json:"item,omitempty"`
	Says     string           `json:"says"`
	Because  []Reason         `json:"because"`
	Cures    []Cure           `json:"cures"`
}

// LinkAnswer is the link a drive runs at, or the one a free socket offers.
type LinkAnswer struct {
	Protocol link.Protocol  `json:"protocol,omitempty"`
	Gen      quantity.Gen   `json:"gen,omitzero"`
	Lanes    quantity.Lanes `json:"lanes,omitzero"`
	USB      link.USBMode   `json:"usb,omitempty"`
	MBps     float64        `json:"mbps,omitzero"` // line rate after coding, one direction
	Text     string         `json:"text"`          // "Gen 3 x4"
	Rate     string         `json:"rate"`          // "3.94 GB/s before packet overhead"
}

// SocketState is the answer for one socket.
type SocketState struct {
	Socket  machine.SocketID `json:"socket"`
	State   State            `json:"state"`
	Item    ItemID           `json:"item,omitempty"`
	Link    *LinkAnswer      `json:"link,omitempty"`
	Says    string           `json:"says"` // one line: what this socket does now
	Because []Reason         `json:"because"`
}

// ChannelAnswer is what sits on one memory channel.
type ChannelAnswer struct {
	Channel machine.ChannelID `json:"channel"`
	Bytes   quantity.Bytes    `json:"bytes"`
	Modules int               `json:"modules"`
}

// MemoryAnswer is what the modules come to.
type MemoryAnswer struct {
	TotalBytes  quantity.Bytes  `json:"totalBytes"`
	UsableBytes quantity.Bytes  `json:"usableBytes"` // less what graphics keeps
	MTps        quantity.MTps   `json:"rateMTps,omitzero"`
	Channels    []ChannelAnswer `json:"channels"`
	Regions     []memory.Region `json:"regions"`
	PeakMBps    float64         `json:"peakMBps,omitzero"` // of evenly spread access

	Total   string   `json:"total"`   // "32 GiB"
	Speed   string   `json:"speed"`   // "2933 MT/s"
	Spread  string   `json:"spread"`  // "dual channel, all of it"
	Peak    string   `json:"peak"`    // "46.93 GB/s"
	Because []Reason `json:"because"` // why this speed and spread
}

// Resolved is the whole answer, sockets in the sheet's order, then those of
// carriers.
type Resolved struct {
	Sockets  []SocketState    `json:"sockets"`
	Carried  []machine.Socket `json:"carried"` // the sockets that carriers bring
	Flows    []FlowAnswer     `json:"flows"`
	Memory   MemoryAnswer     `json:"memory"`
	Findings []Finding        `json:"findings"`
}

// Stops reports whether any finding stops the plan.
func (r *Resolved) Stops() bool {
	for i := range r.Findings {
		if r.Findings[i].Severity == Stops {
			return true
		}
	}
	return false
}

// Socket is the state of one socket, nil if the sheet has none of that name.
func (r *Resolved) Socket(id machine.SocketID) *SocketState {
	for i := range r.Sockets {
		if r.Sockets[i].Socket == id {
			return &r.Sockets[i]
		}
	}
	return nil
}
