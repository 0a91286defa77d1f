// Package fit answers what a machine does with parts in it.
//
// A Build is a sheet with pieces placed and settings chosen. Resolve says, for
// every socket, what is live, at which generation, width and rate, and why; what
// the memory comes to; and each Finding: something that stops the plan, warns or
// is worth noting, with its reasons and cures. Nothing here reads a file or the
// clock, and the order of placements never matters.
//
// A fact that a sheet or label does not state leads to an answer of "unknown"
// that says which fact is missing; it is never taken for a yes.
package fit

import (
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

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

// Cure is one way to make a finding go away; at most one is applied. Moves is
// empty where no placement or setting alone does it.
type Cure struct {
	Says  string     `json:"says"`
	Moves []rig.Move `json:"moves,omitempty"`
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
	Code     Code       `json:"code"`
	Severity Severity   `json:"severity"`
	Socket   rig.Path   `json:"socket,omitzero"`
	Item     rig.ItemID `json:"item,omitempty"`
	Says     string     `json:"says"`
	Because  []Reason   `json:"because"`
	Cures    []Cure     `json:"cures"`
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
	Socket  rig.Path    `json:"socket"`
	State   State       `json:"state"`
	Item    rig.ItemID  `json:"item,omitempty"`
	Link    *LinkAnswer `json:"link,omitempty"`
	Says    string      `json:"says"` // one line: what this socket does now
	Because []Reason    `json:"because"`
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
func (r *Resolved) Socket(id rig.Path) *SocketState {
	for i := range r.Sockets {
		if r.Sockets[i].Socket == id {
			return &r.Sockets[i]
		}
	}
	return nil
}
