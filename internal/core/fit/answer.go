// Package fit answers what a machine does with parts in it: what every socket, link,
// uplink and memory channel does, and which rules of fit speak.
//
// A rule is a function from facts to yes, no, or unknown because facts are missing.
// Judge runs them all and counts; Resolve tells, as facts, what was found and why;
// neither makes a sentence, which is say's work. The order of pieces, placements and
// rules never matters.
//
//	a := fit.Resolve(&r)
//	a.Socket(rig.On("M2_1")).Link.Rate // what the link carries, or from what to what
//
// Numbers are ranges: the lowest and the highest that what is known allows.
package fit

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// State is what a socket does in a rig.
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
	FromFound    Source = "found"  // what lay there when the machine came
	FromLooked   Source = "looked" // what somebody at the bench looked up
	FromSeen     Source = "seen"   // what a screen of the running machine showed
	FromUsual    Source = "usual"  // what nobody stated and is nearly always so
)

// Values lists the sources for the formats.
func (Source) Values() []string {
	return []string{string(FromSheet), string(FromPart), string(FromSetting), string(FromStandard), string(FromWish), string(FromPlan), string(FromFound), string(FromLooked), string(FromSeen), string(FromUsual)}
}

// Reason is one fact in the chain that leads to an answer.
type Reason struct {
	From Source
	Fact fact.Fact
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

// rank orders grades, the worst first.
func (s Severity) rank() int { return slices.Index(s.Values(), string(s)) }

// Finding is one judgement about a rig.
type Finding struct {
	Code     Code
	Severity Severity
	Socket   rig.Path
	Item     rig.ItemID
	Says     fact.Fact
	Because  []Reason
	Missing  []rig.Fact      // what is not known and would settle it
	Cures    []Cure          // moves that may cure it; see Tried
	Advice   []fact.Fact     // what else a person may do
	Also     []rig.Placement // other pieces of which the same is true
	Quiet    bool            // of parts that nobody touches, as it was when the machine came
}

// Names reports that the finding is about a place.
func (f *Finding) Names(at rig.Path) bool {
	return f.Socket == at || slices.ContainsFunc(f.Also, func(p rig.Placement) bool { return p.Socket == at })
}

// Cure is moves that make a finding go away; at most one is applied.
type Cure struct {
	Says  fact.Fact
	Moves []rig.Move
	Costs []fact.Fact // what else the moves change for the worse
}

// Link is the link a part runs at, or the one a free socket offers.
type Link struct {
	Protocol link.Protocol
	Gen      known.Range[quantity.Gen]   // PCIe or SATA
	Lanes    known.Range[quantity.Lanes] // PCIe
	USB      link.USBMode                // "" where it is not known
	Rate     known.Range[quantity.Rate]  // line rate after coding, one direction
}

// Known reports a link that nothing unstated leaves open.
func (l *Link) Known() bool { return l.Rate.Exact() && l.Rate.Low > 0 }

// Planning is the rate to plan with, from and to.
func (l *Link) Planning() known.Range[quantity.Rate] {
	switch l.Protocol {
	case link.PCIe:
		return known.Between(planning[l.Gen.Low][l.Lanes.Low], planning[l.Gen.High][l.Lanes.High])
	case link.USB:
		if l.USB != "" {
			return known.Exactly(l.USB.Planning())
		}
		return known.Between(0, l.Rate.High)
	}
	return l.Rate
}

// SocketState is the answer for one socket.
type SocketState struct {
	Socket rig.Path
	State  State
	Item   rig.ItemID
	Link   *Link // of the part in it, or what a free socket offers
	Served int   // of a carrier: positions that the slot serves
	Brings int   // and how many it has
	Dead   bool  // off because what brings it is not served

	settled *resolver // which can say why
	sock    *sock
}

// Because is why the socket is what it is: worked out when it is asked for, for most
// answers are never asked why.
func (s *SocketState) Because() []Reason {
	if s.settled == nil {
		return nil
	}
	return s.settled.sourced(s.settled.whySocket(s.sock))
}

// InBay reports that what lies in the socket lies in a bay, or would if one were free.
func (s *SocketState) InBay() bool { return s.sock != nil && s.Item != "" && s.sock.inBay() }

// ChannelAnswer is what sits on one memory channel.
type ChannelAnswer struct {
	Channel machine.ChannelID `json:"channel"`
	Bytes   quantity.Bytes    `json:"bytes"`
	Modules int               `json:"modules"`
}

// MemoryAnswer is what the modules come to.
type MemoryAnswer struct {
	Slots    bool // the machine has slots
	Unlooked bool // nobody has looked into some of them
	Unsure   bool // some modules may not work
	Total    known.Range[quantity.Bytes]
	Usable   known.Range[quantity.Bytes] // less what graphics keeps
	MTps     known.Range[quantity.MTps]  // {0, 0}: no module
	Channels []ChannelAnswer
	Regions  []memory.Region            // nil where the sizes are not all known
	Peak     known.Range[quantity.Rate] // of evenly spread access
	Because  []Reason                   // why this speed
}

// Sized reports that the total is known.
func (m *MemoryAnswer) Sized() bool { return m.Total.Exact() }

// Answer is the whole answer: sockets in the sheet's order, then those of carriers.
type Answer struct {
	Sockets  []SocketState
	Carried  []rig.Place
	Flows    []Flow
	Memory   MemoryAnswer
	Findings []Finding // the worst first

	settled *resolver // which can say more when it is asked
}

// Stops reports whether any finding stops the plan.
func (a *Answer) Stops() bool { return a.FirstStop() != nil }

// FirstStop is the first finding that stops the plan, nil for none.
func (a *Answer) FirstStop() *Finding {
	for i := range a.Findings {
		if a.Findings[i].Severity == Stops {
			return &a.Findings[i]
		}
	}
	return nil
}

// Socket is the state of one socket, nil if there is none of that name.
func (a *Answer) Socket(at rig.Path) *SocketState {
	for i := range a.Sockets {
		if a.Sockets[i].Socket == at {
			return &a.Sockets[i]
		}
	}
	return nil
}
