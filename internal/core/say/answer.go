package say

// This file words the answer of a rig: sockets, links, flows, memory, findings.

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"strconv"
	"strings"
)

// Reason is one fact in the chain that leads to an answer.
type Reason struct {
	From fit.Source `json:"from"`
	Says Text       `json:"says"`
}

// Cure is one way to make a finding go away; at most one is applied. Moves is
// empty where no placement or setting alone does it.
type Cure struct {
	Says  Text       `json:"says"`
	Moves []rig.Move `json:"moves,omitempty"`
	Costs []Text     `json:"costs,omitempty"` // what else they change for the worse
}

// Missing is a fact that is not known and would settle a finding.
type Missing struct {
	rig.Fact
	Says Text      `json:"says"`          // "how M2_1 is keyed"
	If   Text      `json:"if,omitzero"`   // how it must turn out for a plan: "M2_1 is keyed at M"
	Ask  *Question `json:"ask,omitempty"` // how it is asked for; absent where it cannot be answered here
}

// Question is how a fact is asked for.
type Question struct {
	Kind    rig.AskKind `json:"kind"`
	Unit    rig.AskUnit `json:"unit,omitempty"`
	Options []Possible  `json:"options,omitempty"`
}

// Possible is one answer to what is asked.
type Possible struct {
	Value string `json:"value"`
	Says  Text   `json:"says"`
}

// Finding is one judgement about a rig.
type Finding struct {
	Code     fit.Code        `json:"code"`
	Severity fit.Severity    `json:"severity"`
	Socket   rig.Path        `json:"socket,omitzero"`
	Item     rig.ItemID      `json:"item,omitempty"`
	Also     []rig.Placement `json:"also,omitempty"` // other pieces of which the same is true
	Says     Text            `json:"says"`
	Because  []Reason        `json:"because"`
	Cures    []Cure          `json:"cures"`
	Missing  []Missing       `json:"missing,omitempty"`
	Accepted Name            `json:"accepted,omitempty"` // by whom, as it is now
	Quiet    bool            `json:"quiet,omitempty"`    // of parts that nobody touches, as it was when the machine came
}

// LinkAnswer is the link a drive runs at, or the one a free socket offers. Generation,
// width and rate are left out where they are not known exactly; text and rate say from
// what to what.
type LinkAnswer struct {
	Protocol   link.Protocol  `json:"protocol,omitempty"`
	Gen        quantity.Gen   `json:"gen,omitzero"`
	Lanes      quantity.Lanes `json:"lanes,omitzero"`
	USB        link.USBMode   `json:"usb,omitempty"`
	MBps       float64        `json:"mbps,omitzero"`       // line rate after coding, one direction
	AtMostMBps float64        `json:"atMostMBps,omitzero"` // where that is not known: it is no more than this
	Text       Text           `json:"text"`                // "Gen 3 x4"
	Rate       Text           `json:"rate"`                // "3.94 GB/s before packet overhead"
}

// SocketState is the answer for one socket.
type SocketState struct {
	Socket  rig.Path    `json:"socket"`
	State   fit.State   `json:"state"`
	Item    rig.ItemID  `json:"item,omitempty"`
	Link    *LinkAnswer `json:"link,omitempty"`
	Says    Text        `json:"says"`            // one line: what this socket does now
	InBay   bool        `json:"inBay,omitempty"` // what lies in it lies in a bay, or would if one were free
	Because []Reason    `json:"because"`
}

// FlowAnswer is what one drive can move, reading, in one direction. Where a rate on the
// way is not stated the figures are the most it can be, and held names it.
type FlowAnswer struct {
	Item        rig.ItemID `json:"item"`
	Socket      rig.Path   `json:"socket"`
	Alone       float64    `json:"aloneMBps"`
	Together    float64    `json:"togetherMBps"`             // with all other drives at work
	AloneLow    float64    `json:"aloneLowMBps,omitzero"`    // the least it can be, where atMost
	TogetherLow float64    `json:"togetherLowMBps,omitzero"` // likewise
	Held        Text       `json:"held"`                     // what holds it then
	AtMost      bool       `json:"atMost,omitempty"`         // a rate on the way is not stated: the figures are the most it can be
	Says        Text       `json:"says"`
}

// MemoryAnswer is what the modules come to.
type MemoryAnswer struct {
	TotalBytes  quantity.Bytes      `json:"totalBytes"`
	UsableBytes quantity.Bytes      `json:"usableBytes"` // less what graphics keeps
	MTps        quantity.MTps       `json:"rateMTps,omitzero"`
	Channels    []fit.ChannelAnswer `json:"channels"`
	Regions     []memory.Region     `json:"regions"`
	PeakMBps    float64             `json:"peakMBps,omitzero"`  // of evenly spread access
	Unlooked    bool                `json:"unlooked,omitempty"` // nobody has looked into some slots

	Says    Text     `json:"says"`    // the next three in one line
	Total   Text     `json:"total"`   // "32 GiB"
	Speed   Text     `json:"speed"`   // "2933 MT/s", nothing where there is none
	Spread  Text     `json:"spread"`  // "dual channel, all of it"
	Peak    Text     `json:"peak"`    // "46.93 GB/s"
	Because []Reason `json:"because"` // why this speed and spread
}

// UplinkAnswer is an uplink, and how full it is.
type UplinkAnswer struct {
	Root machine.RootID `json:"root"`
	Link Text           `json:"link"`           // "uplink Gen 3 x4"
	Use  Text           `json:"use"`            // "wants 4.1 of 3.94 GB/s"; what it carries where no drive is behind it
	Full bool           `json:"full,omitempty"` // the drives behind it surely want more than it carries
}

// LanesAnswer is the ledger of one group of lanes. Used and idle are left out where they
// are not known exactly.
type LanesAnswer struct {
	Group machine.GroupID `json:"group"`
	Root  machine.RootID  `json:"root"`
	Dealt quantity.Lanes  `json:"dealt"`
	Used  *quantity.Lanes `json:"used,omitempty"`
	Idle  *quantity.Lanes `json:"idle,omitempty"`
	Free  []rig.Path      `json:"free"` // sockets that would use what is idle
	Says  Text            `json:"says"`
}

// BayState is one bay: what lies in it, or what it takes.
type BayState struct {
	Bay  machine.BayID `json:"bay"`
	Name Text          `json:"name"` // "bay low", or "the bay on SATA1"
	Item rig.ItemID    `json:"item,omitempty"`
	Told bool          `json:"told,omitempty"` // somebody said so; else it follows
	Says Text          `json:"says"`           // "takes 2.5 in up to 9.5 mm, leads from SATA1 and SATA2"
}

// SettingState is what a setting is set to, "" where nobody knows.
type SettingState struct {
	Setting machine.SettingID `json:"setting"`
	Value   string            `json:"value,omitempty"`
}

// Resolved is the whole answer, sockets in the sheet's order, then those of
// carriers.
type Resolved struct {
	Sockets  []SocketState    `json:"sockets"`
	Bays     []BayState       `json:"bays"`
	Carried  []machine.Socket `json:"carried"` // the sockets that carriers bring
	Flows    []FlowAnswer     `json:"flows"`
	Uplinks  []UplinkAnswer   `json:"uplinks"`
	Lanes    []LanesAnswer    `json:"lanes"`
	Settings []SettingState   `json:"settings"` // in the sheet's order
	Memory   MemoryAnswer     `json:"memory"`
	Findings []Finding        `json:"findings"`
	Tally    Text             `json:"tally"` // how many findings of which grade: "1 stop, 2 warnings"
}

// Tally counts findings by their grade.
func (v *Voice) Tally(findings []fit.Finding) Text {
	count := map[fit.Severity]int{}
	for i := range findings {
		count[findings[i].Severity]++
	}
	some := func(g fit.Severity, noun string) string {
		if count[g] == 0 {
			return "no " + noun
		}
		return plural(count[g], noun)
	}
	out := some(fit.Stops, "stop") + ", " + some(fit.Warns, "warning")
	if count[fit.Notes] > 0 {
		out += ", " + plural(count[fit.Notes], "note")
	}
	return v.text(out)
}

// Socket is the state of one socket, nil if there is none of that name.
func (r *Resolved) Socket(at rig.Path) *SocketState {
	for i := range r.Sockets {
		if r.Sockets[i].Socket == at {
			return &r.Sockets[i]
		}
	}
	return nil
}

// Answer words an answer.
func (v *Voice) Answer(a *fit.Answer) Resolved {
	out := Resolved{Sockets: make([]SocketState, len(a.Sockets)), Carried: make([]machine.Socket, len(a.Carried)),
		Flows: make([]FlowAnswer, len(a.Flows)), Lanes: []LanesAnswer{}, Findings: make([]Finding, len(a.Findings)), Memory: v.Memory(&a.Memory)}
	for i := range a.Carried {
		out.Carried[i] = a.Carried[i].Socket
		if p := v.rig.PieceIn(a.Carried[i].Path.Holder()); p != nil {
			out.Carried[i].Where = v.text("position " + strconv.Itoa(a.Carried[i].Path.Last()) + " of " + p.Part.Name).s
		}
	}
	for i := range a.Sockets {
		out.Sockets[i] = v.socket(a, &a.Sockets[i])
	}
	out.Bays, out.Uplinks = v.bays(a), v.uplinks(a)
	out.Settings = make([]SettingState, len(v.rig.Sheet.Settings))
	for i := range v.rig.Sheet.Settings {
		s := &v.rig.Sheet.Settings[i]
		out.Settings[i] = SettingState{s.ID, v.rig.Choice(s)}
	}
	for i := range a.Flows {
		out.Flows[i] = v.flow(&a.Flows[i], len(a.Flows))
	}
	for _, l := range a.Lanes() {
		out.Lanes = append(out.Lanes, v.lanes(&l))
	}
	for i := range a.Findings {
		out.Findings[i] = v.Finding(&a.Findings[i])
	}
	out.Tally = v.Tally(a.Findings)
	return out
}

// uplinks words how full the uplinks are.
func (v *Voice) uplinks(a *fit.Answer) []UplinkAnswer {
	out := []UplinkAnswer{}
	for _, u := range a.Uplinks() {
		use := "carries " + value(u.Carries, "?")
		if u.Drives > 0 {
			use = "wants " + value(u.Wants, "?") + " of " + value(u.Carries, "?")
		}
		out = append(out, UplinkAnswer{Root: u.Root, Link: v.text("uplink " + linkText(&u.Link)), Use: v.text(use), Full: u.Wants.Low > u.Carries.High})
	}
	return out
}

// bays words the bays of the machine.
func (v *Voice) bays(a *fit.Answer) []BayState {
	lies := a.Bays()
	out := []BayState{}
	for _, b := range v.rig.Sheet.EveryBay() {
		s := BayState{Bay: b.ID, Name: v.text(v.bay(b.ID))}
		for _, l := range lies {
			if l.Bay == b.ID {
				s.Item, s.Told = l.Item, v.rig.Told(l.Item) == b.ID
			}
		}
		says := "which drives it takes is not stated"
		if len(b.Drives) > 0 {
			says = "takes " + list(b.Drives, part.Form.String, ", ", " and ")
		}
		if b.BayMM.Known() {
			says += " up to " + b.BayMM.String()
		}
		if v.rig.Sheet.Socket(machine.SocketID(b.ID)) == nil && len(b.Ports) > 0 {
			says += ", leads from " + list(b.Ports, toString, ", ", " and ")
		}
		if b.Where != "" {
			says += ", " + b.Where
		}
		s.Says = v.text(says)
		out = append(out, s)
	}
	return out
}

// lanes words the ledger of a group.
func (v *Voice) lanes(l *fit.Ledger) LanesAnswer {
	out := LanesAnswer{Group: l.Group, Root: l.Root, Dealt: l.Dealt, Free: filled(l.Free)}
	idle := l.Idle()
	if l.Used.Exact() {
		out.Used, out.Idle = &l.Used.Low, &idle.Low
	}
	count := func(r known.Range[quantity.Lanes]) string {
		return between(known.Between(int(r.Low), int(r.High)), strconv.Itoa, false, false)
	}
	says := count(l.Used) + " of " + strconv.Itoa(int(l.Dealt)) + " lanes used"
	if len(l.By) > 0 {
		says += " by " + list(l.By, v.name, ", ", " and ")
	}
	if idle.High > 0 {
		says += ", " + count(idle) + " idle"
		switch len(l.Free) {
		case 0:
			says += ", and no open socket is free that would use them"
		default:
			says += ": " + list(l.Free, rig.Path.String, ", ", " and ") + " would use them"
		}
	}
	out.Says = v.text(says)
	return out
}

// Link words a link.
func (v *Voice) Link(l *fit.Link) *LinkAnswer {
	if l == nil {
		return nil
	}
	out := LinkAnswer{Protocol: l.Protocol, USB: l.USB, Text: v.text(linkText(l)), Rate: v.text(rateLong(l))}
	if l.Gen.Exact() {
		out.Gen = l.Gen.Low
	}
	if l.Lanes.Exact() {
		out.Lanes = l.Lanes.Low
	}
	switch {
	case l.Known():
		out.MBps = l.Rate.Low.MBps()
	case bounded(l):
		out.AtMostMBps = l.Rate.High.MBps()
	}
	return &out
}

func (v *Voice) reasons(list []fit.Reason) []Reason {
	out := make([]Reason, len(list))
	for i, r := range list {
		out[i] = Reason{r.From, v.Fact(r.Fact)}
	}
	return out
}

// socket words one socket: what it does now, in a line.
func (v *Voice) socket(a *fit.Answer, s *fit.SocketState) SocketState {
	out := SocketState{Socket: s.Socket, State: s.State, Item: s.Item, Link: v.Link(s.Link), InBay: s.InBay(), Because: v.reasons(s.Because())}
	says := ""
	p := v.rig.Piece(s.Item)
	switch {
	case s.State == fit.Off && s.Item == "" && s.Dead:
		says = "no lanes reach it"
	case s.State == fit.Off && s.Item != "":
		says = "off, not seen"
	case s.State == fit.Off:
		says = "off"
	case s.State == fit.Stopped:
		says = "does not work here"
	case s.State == fit.Unsure && s.Link == nil:
		says = "unknown: the sheet or the label does not say enough"
	case s.State != fit.Free && s.Link != nil && s.Brings > 0:
		says = linkText(s.Link) + ", lanes for " + decimal(float64(s.Served)) + " of " + plural(s.Brings, "position")
	case s.State != fit.Free && s.Link != nil && p != nil && p.Part.Card == nil:
		says = linkLine(s.Link)
	case s.State != fit.Free && s.Link != nil:
		says = linkText(s.Link)
	case s.State == fit.Live && p != nil && p.Part.Module != nil:
		says = p.Part.Module.SizeBytes.Binary() + ", " + speedWords(a.Memory.MTps)
		if a.Memory.MTps.Exact() {
			says = p.Part.Module.SizeBytes.Binary() + " at " + value(a.Memory.MTps, "")
		}
	case s.State == fit.Free && s.Link != nil:
		says = "free, " + linkText(s.Link)
	case s.State == fit.Free:
		says = "free"
		if v.rig.IsUnlooked(s.Socket.Top()) && !s.Socket.Nested() {
			says = "not looked at"
		}
	}
	out.Says = v.text(says)
	return out
}

// speedWords is the speed of memory, or that nobody knows it.
func speedWords(r known.Range[quantity.MTps]) string {
	if s := value(r, ""); s != "unknown" {
		return s
	}
	return "speed unknown"
}

// shared names a link that several drives pass.
func (v *Voice) shared(s fit.Shared) string {
	switch {
	case s.Root != "":
		return "the uplink of the " + v.root(s.Root)
	case s.Box:
		return "the USB link of " + s.At.String()
	case s.Is():
		return "the link of the carrier in " + s.At.String()
	}
	return "nothing"
}

// startShared names it at the start of a sentence.
func (v *Voice) startShared(s fit.Shared) string {
	name := v.shared(s)
	return strings.ToUpper(name[:1]) + name[1:]
}

func (v *Voice) flow(f *fit.Flow, drives int) FlowAnswer {
	out := FlowAnswer{Item: f.Item, Socket: f.Socket, Alone: f.Alone.High.MBps(), Together: f.Together.High.MBps()}
	held, says := v.shared(f.Held), ""
	switch {
	case f.Open.Is():
		held, out.AtMost = v.shared(f.Open), true
		says = "at most " + f.Alone.High.String() + ": what " + held + " carries is not stated"
	case !f.Sure():
		out.AtMost = true
		says = value(f.Alone, "") + " alone"
		if f.Held.Is() && f.Together != f.Alone {
			says += ", " + value(f.Together, "") + " with all " + plural(drives, "drive") + " at work"
		}
	default:
		says = f.Alone.High.String() + " alone"
		if f.Held.Is() && f.Together != f.Alone {
			says += ", " + f.Together.High.String() + " with all " + plural(drives, "drive") + " at work"
		}
		if f.Held.Is() {
			says += ", held by " + held
		}
	}
	if out.AtMost {
		out.AloneLow, out.TogetherLow = f.Alone.Low.MBps(), f.Together.Low.MBps()
	}
	out.Held, out.Says = v.text(held), v.text(says)
	return out
}

// Memory words what the modules come to.
func (v *Voice) Memory(m *fit.MemoryAnswer) MemoryAnswer {
	out := MemoryAnswer{Channels: m.Channels, Regions: m.Regions, Unlooked: m.Unlooked, Because: v.reasons(m.Because)}
	if m.Channels == nil {
		out.Channels = []fit.ChannelAnswer{}
	}
	if m.Regions == nil {
		out.Regions = []memory.Region{}
	}
	if m.Sized() {
		out.TotalBytes, out.UsableBytes = m.Total.Low, m.Usable.High
	}
	if m.MTps.Exact() {
		out.MTps = m.MTps.Low
	}
	if m.Peak.Exact() {
		out.PeakMBps = m.Peak.Low.MBps()
	}
	modules := 0
	for _, c := range m.Channels {
		modules += c.Modules
	}
	total, spreads := value(m.Total, ""), ""
	switch {
	case modules == 0 && m.Unlooked:
		total, spreads = "not looked at", "unknown, because nobody has looked into the slots"
	case modules == 0:
		total, spreads = "no memory", "no channel filled"
	case !m.Sized() && m.Unlooked:
		spreads = "unknown, because nobody has looked into the other slots"
	case !m.Sized() && m.Unsure:
		spreads = "unknown, because a module may not work"
	case !m.Sized():
		spreads = "unknown, because a module's size is not stated"
	default:
		spreads = spread(m.Regions)
	}
	out.Total, out.Spread = v.text(total), v.text(spreads)
	if modules > 0 { // else it runs at nothing
		out.Speed, out.Peak = v.text(value(m.MTps, "")), v.text(peakWords(m))
	}
	out.Says = v.text(out.line())
	return out
}

// peakWords is what memory moves at most; nothing bounds it where nothing bounds its speed.
func peakWords(m *fit.MemoryAnswer) string {
	return between(m.Peak, quantity.Rate.String, m.Peak.Low == 0, m.MTps.High >= fit.MostMTps)
}

// Finding words a finding.
func (v *Voice) Finding(f *fit.Finding) Finding {
	out := Finding{Code: f.Code, Severity: f.Severity, Socket: f.Socket, Item: f.Item, Also: f.Also, Because: v.reasons(f.Because), Cures: []Cure{}, Quiet: f.Quiet}
	says := v.words(f.Says)
	switch {
	case len(f.Also) == 0:
	case f.Item == "":
		says += "; likewise " + list(f.Also, func(p rig.Placement) string { return p.Socket.String() }, ", ", " and ")
	case f.Says.Code == fit.NoPlaceYet:
		says = several(1+len(f.Also), v.name(f.Item)) + " have no place yet"
	default:
		says += "; likewise " + v.placesOf(f.Also)
	}
	out.Says = v.text(says)
	for _, m := range f.Missing {
		out.Missing = append(out.Missing, v.Missing(m))
		out.Because = append(out.Because, Reason{v.source(m), v.text("unknown, because " + v.silent(m) + " " + v.missing(m))})
	}
	for _, c := range f.Cures {
		out.Cures = append(out.Cures, Cure{v.Fact(c.Says), c.Moves, v.facts(c.Costs)})
	}
	for _, a := range f.Advice {
		out.Cures = append(out.Cures, Cure{Says: v.Fact(a)})
	}
	return out
}

// State of memory in one line, for lists and questions: "32 GiB, 2933 MT/s, dual channel".
func (m *MemoryAnswer) line() string {
	if m.Speed.IsZero() {
		return m.Total.s
	}
	return m.Total.s + ", " + m.Speed.s + ", " + m.Spread.s
}

// Codes lists every code that has a sentence, for the test that none is without.
func Codes() []fact.Code {
	out := make([]fact.Code, 0, len(sentences))
	for c := range sentences {
		out = append(out, c)
	}
	return out
}
