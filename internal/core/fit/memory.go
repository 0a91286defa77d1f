package fit

// This file works out what the modules come to, channels, interleave and speed, and
// holds the rules about memory as a whole.

import (
	"cmp"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// remember fills r.memory.
func (r *resolver) remember() {
	m := &r.memory
	sized, sure, spread := true, true, true
	for i := range r.sockets {
		s := &r.sockets[i]
		if !s.Kind.Memory() {
			continue
		}
		m.Slots = true
		c := channel(m, s.Channel)
		mod := s.module()
		if s.piece == nil && r.b.IsUnlooked(s.ID) {
			m.Unlooked = true
		}
		if mod == nil || !s.seen() {
			continue
		}
		r.filled = append(r.filled, s)
		c.Modules++
		c.Bytes += mod.SizeBytes
		size := sizeOf(mod)
		sized = sized && size.Exact()
		if s.state == Unsure {
			sure, m.Unsure = false, true
			size.Low = 0
		}
		spread = spread && s.Channel != machine.UntoldChannel
		m.Total.Low += size.Low
		m.Total.High = min(mostBytes, m.Total.High+size.High)
	}
	if m.Unlooked {
		m.Total.High = mostBytes
	}
	r.totalShown()
	kept := r.sheet.Memory.Reserved
	m.Usable = known.Between(max(0, m.Total.Low-kept), max(0, m.Total.High-kept))
	if kept == 0 { // what graphics in the processor keeps is not stated
		m.Usable.Low = max(0, m.Usable.Low-min(mostGraphics, m.Total.Low/2))
	}
	if sized && !m.Unlooked && (spread || len(r.filled) == 1) {
		var filled [64]quantity.Bytes
		n := 0
		for _, c := range m.Channels {
			if c.Modules > 0 && n < len(filled) {
				filled[n] = c.Bytes
				n++
			}
		}
		m.Regions = memory.Regions(filled[:n])
	}
	r.speed()
	switch {
	case m.Regions != nil && sure:
		m.Peak = known.Between(memory.Effective(m.Regions, m.MTps.Low), memory.Effective(m.Regions, m.MTps.High))
	case len(r.filled) > 0 || m.Unlooked: // between one channel and all of them
		ways := r.sheet.MostChannels()
		if !m.Unlooked {
			ways = min(ways, len(r.filled))
		}
		m.Peak = known.Between(0, memory.Peak(m.MTps.High)*quantity.Rate(ways))
	}
}

// mostGraphics is the most that graphics in a processor is found to keep where the
// set-up screen was left alone: shares of 64 MiB to 2 GiB are ordinary.
const mostGraphics = 2 * quantity.GiB

// channel finds a channel's entry, adding it in the order of the sheet.
func channel(m *MemoryAnswer, id machine.ChannelID) *ChannelAnswer {
	for i := range m.Channels {
		if m.Channels[i].Channel == id {
			return &m.Channels[i]
		}
	}
	m.Channels = append(m.Channels, ChannelAnswer{Channel: id})
	return &m.Channels[len(m.Channels)-1]
}

// speedReason is what the speed hangs on.
type speedReason struct {
	slowest *sock
	rate    known.Range[quantity.MTps] // of the slowest module
	limit   known.Range[quantity.MTps] // of the board
	trial   bool                       // profiles go beyond the board's table
	fullest int                        // modules on the fullest channel
	ranks   int
}

// speed is the one rate all modules run at: the least of what each module can
// (at its profile where that is switched on) and what the board allows for so
// many modules on the fullest channel. Profiles beyond the board's table are a trial:
// it may run at them, or no faster than without; nobody can hope for more than that.
func (r *resolver) speed() {
	m, by := &r.memory, &r.speedBy
	if len(r.filled) == 0 {
		if m.Unlooked {
			m.MTps = known.Between(0, MostMTps)
			r.speedShown()
		}
		return
	}
	by.rate = known.Exactly(MostMTps)
	base := known.Exactly(MostMTps)
	for _, s := range r.filled {
		mod := s.module()
		own, rate := rateOf(mod, false), rateOf(mod, r.profile != known.No)
		if r.profile == known.Unknown {
			rate = known.Between(min(own.Low, rate.Low), max(own.High, rate.High))
		}
		if s.state == Unsure { // it may not be there
			own.High, rate.High = MostMTps, MostMTps
		}
		base = known.Min(base, own)
		if by.slowest == nil || rate.Low < by.rate.Low {
			by.slowest = s
		}
		by.rate = known.Min(by.rate, rate)
	}
	by.limit, by.fullest, by.ranks = r.boardLimit(r.filled)
	m.MTps = known.Min(by.rate, by.limit)
	if r.profile != known.No && r.allProfiled() && by.rate.High > by.limit.Low { // it may be
		m.MTps.Low = min(base.Low, by.limit.Low)
		switch by.trial = by.rate.High > by.limit.High; {
		case by.trial && r.mode == hopeful:
			m.MTps = known.Min(base, by.limit)
		case by.trial:
			m.MTps.High = by.rate.High
		}
	}
	if m.Unlooked {
		m.MTps.Low = 0
	}
	r.speedShown()
}

// allProfiled reports that every module has a profile.
func (r *resolver) allProfiled() bool {
	return !slices.ContainsFunc(r.filled, func(s *sock) bool { return !s.module().ProfileMTps.Known() })
}

// boardLimit is the board's limit for so many modules a channel of so many ranks, from
// and to where not all of that is known; a row without ranks covers all.
func (r *resolver) boardLimit(filled []*sock) (limit known.Range[quantity.MTps], fullest, ranks int) {
	sure := 0
	for _, c := range r.memory.Channels {
		there, live := 0, 0
		for _, s := range filled {
			switch {
			case s.Channel == machine.UntoldChannel: // it may be this one as well
				if there++; s.state == Live {
					live = max(live, 1)
				}
			case s.Channel == c.Channel:
				if there++; s.state == Live {
					live++
				}
			}
		}
		fullest, sure = max(fullest, there), max(sure, live)
	}
	ranked := true
	for _, s := range filled {
		ranks = max(ranks, s.module().Ranks)
		ranked = ranked && s.module().Ranks > 0 && s.state == Live
	}
	limit.Low = MostMTps
	for n := max(1, sure); n <= max(1, fullest); n++ {
		row := r.row(n, ranks, ranked)
		limit.Low, limit.High = min(limit.Low, row.Low), max(limit.High, row.High)
	}
	return limit, fullest, ranks
}

// row is what the board's table says of so many modules a channel.
func (r *resolver) row(perChannel, ranks int, ranked bool) known.Range[quantity.MTps] {
	var out known.Range[quantity.MTps]
	asks := false
	for _, row := range r.sheet.Memory.Speeds {
		if row.PerChannel != perChannel {
			continue
		}
		asks = asks || row.Ranks != 0
		if row.Ranks != 0 && ranked && row.Ranks != ranks {
			continue
		}
		if out.High == 0 {
			out = known.Exactly(row.MTps)
		} else if out.Low = min(out.Low, row.MTps); row.Ranks != 0 && !ranked {
			out.High = max(out.High, row.MTps)
		} else {
			out.High = min(out.High, row.MTps)
		}
	}
	switch {
	case out.High == 0:
		return known.Between(0, MostMTps) // the table has no such row
	case asks && !ranked:
		out.Low = 0 // more ranks than any row tells of
	}
	return out
}

// whySpeed is why memory runs at its speed.
func (r *resolver) whySpeed() []Reason {
	by := &r.speedBy
	if by.slowest == nil {
		return nil
	}
	var out []Reason
	if by.rate.Exact() {
		out = append(out, Reason{FromPart, fact.Of(CanRunAt, by.slowest.piece.ID, by.rate)})
	}
	if r.profile == known.Yes {
		out = append(out, ruleReasons(r.profiled)...)
	}
	if !by.limit.Exact() {
		return out
	}
	out = append(out, Reason{FromSheet, fact.Of(BoardRuns, PerChannel(by.fullest), by.limit)})
	if by.trial {
		return append(out, Reason{FromStandard, fact.Of(ProfileBeyond)})
	}
	return append(out, Reason{FromStandard, fact.Of(OneRate)})
}

// PerChannel is modules a channel, as an argument of facts.
type PerChannel int

// speedFacts is what would tell the speed.
func (r *resolver) speedFacts() []rig.Fact {
	var out []rig.Fact
	by := &r.speedBy
	for _, s := range r.filled {
		if m := s.module(); !m.RateMTps.Known() && (r.profile != known.Yes || !m.ProfileMTps.Known()) {
			out = append(out, rig.Fact{Item: s.piece.ID, Attr: rig.ModuleRate})
		}
	}
	if !by.limit.Exact() && len(r.sheet.Memory.Speeds) > 0 {
		for _, s := range r.filled {
			if s.module().Ranks == 0 {
				out = append(out, rig.Fact{Item: s.piece.ID, Attr: rig.Ranks})
			}
		}
	}
	if r.profile == known.Unknown {
		out = append(out, r.hangsOn(r.profiled)...)
	}
	if by.limit.High == MostMTps {
		out = append(out, rig.Fact{N: max(1, by.fullest), Attr: rig.BoardSpeeds})
	}
	for _, s := range r.filled {
		if s.state == Unsure {
			out = append(out, r.missing(s)...)
		}
	}
	return out
}

// refill is the moves that bring modules from where they are into want, leaving
// alone those that are right already.
func refill(have []*sock, want []machine.SocketID) []rig.Move {
	var free []machine.SocketID
	for _, id := range want {
		if !slices.ContainsFunc(have, func(s *sock) bool { return s.path == rig.On(id) }) {
			free = append(free, id)
		}
	}
	var out []rig.Move
	for _, s := range have {
		if !slices.Contains(want, s.ID) {
			out = append(out, rig.Move{Item: s.piece.ID, Socket: rig.On(free[len(out)])})
		}
	}
	return out
}

// one reports a trouble of the whole.
func one(found func(trouble), t known.Truth) {
	if t != known.Yes {
		found(trouble{truth: t, item: -1})
	}
}

func portLost(r *resolver, found func(trouble)) {
	for i := range r.sockets {
		if s := &r.sockets[i]; s.piece == nil && s.closed == known.Yes {
			found(trouble{truth: known.No, s: s, item: -1})
		}
	}
}

func sayPortLost(r *resolver, t *trouble) telling {
	return telling{says: fact.Of(PortOff, t.s.path), because: r.whyOff(t.s)}
}

// memoryNone is whether a module is seen. Into slots of which nothing was told nobody
// has looked: that is no sign that the machine does not start.
func memoryNone(r *resolver, found func(trouble)) {
	if !r.memory.Slots || len(r.filled) > 0 || r.memory.Unlooked {
		return
	}
	one(found, known.No)
}

func sayMemoryNone(r *resolver, t *trouble) telling {
	out := telling{says: fact.Of(NoMemory), because: []Reason{{FromPlan, fact.Of(NoModuleWorks)}}, advice: []fact.Fact{fact.Of(PutModuleIn)}}
	if f := r.sheet.Memory.Order(1); f != nil {
		out.advice[0] = fact.Of(PutModuleInto, rig.On(f[0]))
	}
	return out
}

// used is the number of channels that hold a module, and whether the modules
// could fill more.
func (r *resolver) used() (used int, tooFew bool) {
	for _, c := range r.memory.Channels {
		if c.Modules > 0 {
			used++
		}
	}
	return used, used < min(len(r.filled), len(r.memory.Channels))
}

func memoryChannels(r *resolver, found func(trouble)) {
	if _, tooFew := r.used(); tooFew && !r.memory.Unlooked {
		one(found, known.No)
	}
}

func sayChannels(r *resolver, t *trouble) telling {
	used, _ := r.used()
	all := fact.Count{N: len(r.memory.Channels), Of: Channels}
	out := telling{says: fact.Of(ChannelsUsed, bySocket(r.filled), used, all),
		because: []Reason{{FromSheet, fact.Of(BoardHasChannels, all)}, {FromStandard, fact.Of(SideBySide)}}}
	for _, s := range r.filled {
		out.because = append(out.because, Reason{FromSheet, fact.Of(OnChannel, s.path, fact.Typed(s.Channel))})
	}
	if want := r.sheet.Memory.Order(len(r.filled)); want != nil {
		out.because = append(out.because, Reason{FromSheet, fact.Of(SheetOrder, fact.Count{N: len(r.filled), Of: Modules}, want)})
	}
	return out
}

// memoryOrder: too few channels has the same cure, and is said already.
func memoryOrder(r *resolver, found func(trouble)) {
	want := r.sheet.Memory.Order(len(r.filled))
	if _, tooFew := r.used(); tooFew || r.memory.Unlooked || want == nil || len(refill(r.filled, want)) == 0 {
		return
	}
	one(found, known.No)
}

func sayOrder(r *resolver, t *trouble) telling {
	n, want := fact.Count{N: len(r.filled), Of: Modules}, r.sheet.Memory.Order(len(r.filled))
	return telling{says: fact.Of(OtherSlots, n, bySocket(r.filled), want),
		because: []Reason{{FromSheet, fact.Of(SheetOrder, n, want)}, {FromStandard, fact.Of(FarSlotFirst)}}}
}

// memoryOrderUnstated: with every slot filled there is no order to ask for.
func memoryOrderUnstated(r *resolver, found func(trouble)) {
	slots := 0
	for i := range r.sheet.Sockets {
		if r.sheet.Sockets[i].Kind.Memory() {
			slots++
		}
	}
	if n := len(r.filled); n > 0 && n < slots && !r.memory.Unlooked && r.sheet.Memory.Order(n) == nil {
		one(found, known.No)
	}
}

func sayOrderUnstated(r *resolver, t *trouble) telling {
	n := fact.Count{N: len(r.filled), Of: Modules}
	return telling{says: fact.Of(NoOrderSaid, n), because: []Reason{{FromSheet, fact.Of(NoOrderGiven, n)}}, advice: []fact.Fact{fact.Of(LookUpOrder)}}
}

func memoryUnequal(r *resolver, found func(trouble)) {
	if len(r.memory.Regions) > 1 {
		one(found, known.No)
	}
}

func sayUnequal(r *resolver, t *trouble) telling {
	out := telling{says: fact.Of(ChannelsUnequal, r.memory.Regions), because: []Reason{{FromStandard, fact.Of(SpreadAsMuch)}}}
	for _, c := range r.memory.Channels {
		if c.Modules > 0 {
			out.because = append(out.because, Reason{FromPlan, fact.Of(ChannelHolds, fact.Typed(c.Channel), c.Bytes)})
		}
	}
	return out
}

// memorySpeed finds the modules that could run faster than memory does; like ones are
// said together.
func memorySpeed(r *resolver, found func(trouble)) {
	if len(r.filled) == 0 {
		return
	}
	for _, s := range r.filled {
		if m := s.module(); fastest(m) > r.memory.MTps.High && s.state == Live {
			found(trouble{truth: known.No, s: s, item: -1})
		}
	}
}

func saySpeed(r *resolver, t *trouble) telling {
	m := t.s.module()
	out := telling{says: fact.Of(ModuleSlowed, t.s.piece.ID, fastest(m), r.memory.MTps), because: r.whySpeed()}
	if m.ProfileMTps > r.memory.MTps.High && r.profile != known.Yes {
		out.because = append(out.because, Reason{FromSetting, fact.Of(ProfileOff)})
	}
	return out
}

// profileTrial is whether a profile that is switched on stays within what the board
// states. What ran so when the machine came is no trial of this job.
func profileTrial(r *resolver, found func(trouble)) {
	one(found, known.Of(!r.speedBy.trial || r.profiledAsFound()))
}

// profiledAsFound reports that the machine came with these modules in these slots, and
// with its profile switched as it is.
func (r *resolver) profiledAsFound() bool {
	for _, s := range r.filled {
		if s.piece.New || !r.asFound(s.piece.ID, s.path) {
			return false
		}
	}
	for i := range r.sheet.Rules {
		rule := &r.sheet.Rules[i]
		if !slices.ContainsFunc(rule.Then, func(e machine.Effect) bool { return e.Profile }) {
			continue
		}
		for _, c := range rule.When {
			if set := r.sheet.Setting(c.Setting); set != nil && r.b.Choice(set) != rig.Value(set, r.found().Settings) {
				return false
			}
		}
	}
	return true
}

func sayProfileTrial(r *resolver, _ *trouble) telling {
	return telling{says: fact.Of(ProfileIsTrial, r.speedBy.rate, r.speedBy.limit), because: r.whySpeed(), advice: []fact.Fact{fact.Of(ProveMemory)}}
}

func memoryUnknown(r *resolver, found func(trouble)) {
	if len(r.filled) == 0 {
		return
	}
	if !r.memory.Sized() || !r.memory.MTps.Exact() && !r.speedBy.trial {
		one(found, known.No)
	}
}

func sayMemoryUnknown(r *resolver, t *trouble) telling {
	out := telling{says: fact.Of(MemoryUnknown, r.memory.Total, r.memory.MTps)}
	if !r.memory.Sized() {
		for _, s := range r.filled {
			if !s.module().SizeBytes.Known() {
				out.missing = append(out.missing, rig.Fact{Item: s.piece.ID, Attr: rig.ModuleSize})
			}
			if s.state == Unsure {
				out.missing = append(out.missing, r.missing(s)...)
			}
		}
	}
	if !r.memory.MTps.Exact() {
		out.missing = append(out.missing, r.speedFacts()...)
	}
	for i := range r.sockets {
		if s := &r.sockets[i]; s.Kind.Memory() && s.piece == nil && r.b.IsUnlooked(s.ID) {
			out.missing = append(out.missing, s.fact(rig.HoldsNow))
		}
	}
	return out
}

// counted counts modules with and without something, and the first with it.
func (r *resolver) counted(has func(*sock) quantity.Answer) (with, without int, first *sock) {
	for _, s := range r.filled {
		switch has(s) {
		case known.Yes:
			if with++; first == nil {
				first = s
			}
		case known.No:
			without++
		}
	}
	return with, without, first
}

func checkBits(s *sock) quantity.Answer { return s.module().ECC }
func clocked(s *sock) quantity.Answer   { return s.module().ClockDriver }

func memoryECC(r *resolver, found func(trouble)) {
	with, without, _ := r.counted(checkBits)
	if with > 0 && (without > 0 || r.sheet.Memory.ECC == known.No) {
		one(found, known.No)
	}
}

func sayECC(r *resolver, t *trouble) telling {
	with, without, _ := r.counted(checkBits)
	n := fact.Count{N: with, Of: Modules}
	if without > 0 {
		return telling{says: fact.Of(ECCMixed), because: []Reason{{FromPart, fact.Of(WithECC, n, without)}, {FromStandard, fact.Of(OneWithout)}}, advice: []fact.Fact{fact.Of(UseOneKind)}}
	}
	return telling{says: fact.Of(ECCUnused), because: []Reason{{FromPart, fact.Of(AllECC, n)}, {FromSheet, fact.Of(BoardWithoutECC)}}}
}

// partsIn are the parts that modules are of, each once.
func (r *resolver) partsIn() []rig.ItemID {
	var out []rig.ItemID
	for _, s := range r.filled {
		if !slices.ContainsFunc(out, func(id rig.ItemID) bool { return r.b.Piece(id).Part.Name == s.piece.Part.Name }) {
			out = append(out, s.piece.ID)
		}
	}
	return out
}

func memoryMixed(r *resolver, found func(trouble)) {
	if len(r.filled) > 1 && len(r.partsIn()) > 1 {
		one(found, known.No)
	}
}

func sayMixed(r *resolver, t *trouble) telling {
	parts := r.partsIn()
	return telling{says: fact.Of(KindsMixed, len(parts)), because: []Reason{{FromPlan, fact.Of(Listed, parts)}, {FromStandard, fact.Of(SlowestTimings)}}, advice: []fact.Fact{fact.Of(UseMatched)}}
}

func memorySystem(r *resolver, found func(trouble)) {
	if most := r.b.Wish.SystemMax; most.Known() && known.AtMost(r.memory.Total, known.Exactly(most)) == known.No {
		one(found, known.No)
	}
}

func saySystem(r *resolver, t *trouble) telling {
	most := r.b.Wish.SystemMax
	return telling{says: fact.Of(SystemUses, most, r.memory.Total), because: []Reason{{FromWish, fact.Of(SystemEnds, most)}}, advice: []fact.Fact{fact.Of(OtherSystem)}}
}

func memoryClocked(r *resolver, found func(trouble)) {
	with, without, first := r.counted(clocked)
	if with > 0 && (without > 0 || r.sheet.Memory.ClockDrivers != known.Yes) {
		found(trouble{truth: known.No, s: first, item: -1})
	}
}

func sayClocked(r *resolver, t *trouble) telling {
	with, without, _ := r.counted(clocked)
	id := t.s.piece.ID
	out := telling{because: []Reason{{FromPart, fact.Of(BringsClock, id)}}, advice: []fact.Fact{fact.Of(UseUnclocked)}}
	switch {
	case without > 0:
		out.says, out.advice[0] = fact.Of(ClocksMixed), fact.Of(UseOneKind)
		out.because = append(out.because, Reason{FromPart, fact.Of(WithClock, fact.Count{N: with, Of: Modules}, without)})
	case r.sheet.Memory.ClockDrivers == known.No:
		out.says = fact.Of(ClockNotRun, id)
		out.because = append(out.because, Reason{FromSheet, fact.Of(BoardRunsNoClocks)}, Reason{FromStandard, fact.Of(ClockBypassed)})
	default:
		out.says, out.missing = fact.Of(ClockUnknown, id), []rig.Fact{{Attr: rig.BoardClock}}
	}
	return out
}

func memoryTrial(r *resolver, found func(trouble)) {
	limit := r.sheet.Memory.Total
	if limit.StatedBytes.Known() && known.AtMost(r.memory.Total, known.Exactly(limit.Largest())) == known.No {
		one(found, known.No)
	}
}

func sayMemoryTrial(r *resolver, t *trouble) telling {
	limit := r.sheet.Memory.Total
	return telling{says: fact.Of(TotalBeyond, r.memory.Total, limit.Largest()), because: limitReasons(OfAllSlots, limit), advice: []fact.Fact{fact.Of(ProveMemory)}}
}

func memoryAddressed(r *resolver, found func(trouble)) {
	if t, _ := r.addressed(r.memory.Total, inAll); t == known.No {
		one(found, t)
	}
}

func sayNotAddressed(r *resolver, t *trouble) telling {
	_, by := r.addressed(r.memory.Total, inAll)
	name := fact.Typed(by.Name)
	return telling{says: fact.Of(TotalNotAddressed, r.memory.Total, name, by.TotalBytes),
		because: []Reason{{FromSheet, fact.Of(AddressesInAll, name, by.TotalBytes)}}, advice: []fact.Fact{fact.Of(UseSmaller)}}
}

// channelsEmpty finds channels without a module, where there are too few modules for all.
func channelsEmpty(r *resolver, found func(trouble)) {
	used, tooFew := r.used()
	untold := slices.ContainsFunc(r.filled, func(s *sock) bool { return s.Channel == machine.UntoldChannel })
	if len(r.filled) > 0 && !tooFew && !r.memory.Unlooked && !untold && used < len(r.memory.Channels) {
		one(found, known.No)
	}
}

func sayChannelsEmpty(r *resolver, t *trouble) telling {
	used, _ := r.used()
	var empty []machine.SocketID
	for _, c := range r.memory.Channels {
		if c.Modules == 0 {
			empty = append(empty, machine.SocketID(c.Channel))
		}
	}
	all := fact.Count{N: len(r.memory.Channels), Of: Channels}
	return telling{says: fact.Of(ChannelsFree, used, all, empty), because: []Reason{{FromSheet, fact.Of(BoardHasChannels, all)}, {FromStandard, fact.Of(SideBySide)}},
		advice: []fact.Fact{fact.Of(SpreadOverMore)}}
}

// holder is the slowest module where the others, without it, would surely run faster, and
// how fast.
func (r *resolver) holder() (slowest *sock, others known.Range[quantity.MTps]) {
	if len(r.filled) < 2 || !r.memory.MTps.Exact() {
		return nil, others
	}
	others = known.Exactly(MostMTps)
	for _, s := range r.filled {
		rate := rateOf(s.module(), r.profile == known.Yes)
		switch {
		case s.state != Live || !rate.Exact():
			return nil, others
		case slowest == nil:
			slowest = s
		case rate.Low < rateOf(slowest.module(), r.profile == known.Yes).Low:
			others = known.Min(others, rateOf(slowest.module(), r.profile == known.Yes))
			slowest = s
		default:
			others = known.Min(others, rate)
		}
	}
	own := rateOf(slowest.module(), r.profile == known.Yes)
	if own.Low >= others.Low || own.Low != r.memory.MTps.Low { // it is not this one that holds them
		return nil, others
	}
	without, _, _ := r.boardLimit(slices.DeleteFunc(slices.Clone(r.filled), func(s *sock) bool { return s == slowest }))
	others = known.Min(others, without)
	if others.Low <= r.memory.MTps.High {
		return nil, others
	}
	return slowest, others
}

func memorySlowest(r *resolver, found func(trouble)) {
	if s, _ := r.holder(); s != nil {
		found(trouble{truth: known.No, s: s, item: -1})
	}
}

func saySlowest(r *resolver, t *trouble) telling {
	s, others := r.holder()
	return telling{says: fact.Of(HoldsOthers, s.piece.ID, r.memory.MTps, others), because: r.whySpeed()}
}

// sortedByID orders pieces by their names, for lists that must not hang on their order.
func sortedByID(list []int, pieces []rig.Piece) []int {
	slices.SortFunc(list, func(a, b int) int { return cmp.Compare(pieces[a].ID, pieces[b].ID) })
	return list
}
