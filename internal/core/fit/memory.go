package fit

// This file works out what the modules come to: channels, interleave, speed.

import (
	"strconv"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// remember fills r.memory.
func (r *resolver) remember() {
	m := &r.memory
	sizesKnown := true
	for i := range r.sockets {
		s := &r.sockets[i]
		if !s.Kind.Memory() {
			continue
		}
		c := channel(m, s.Channel)
		mod := s.module()
		if mod == nil || s.state != Live && s.state != Unsure {
			continue
		}
		r.filled = append(r.filled, s)
		c.Modules++
		c.Bytes += mod.SizeBytes
		m.TotalBytes += mod.SizeBytes
		sizesKnown = sizesKnown && mod.SizeBytes.Known()
	}
	if m.Channels == nil {
		m.Channels = []ChannelAnswer{}
	}
	m.UsableBytes = max(0, m.TotalBytes-r.sheet.Memory.Reserved)

	var filled [64]quantity.Bytes
	n := 0
	for _, c := range m.Channels {
		if c.Modules > 0 && n < len(filled) {
			filled[n] = c.Bytes
			n++
		}
	}
	if !sizesKnown {
		m.TotalBytes, m.UsableBytes = 0, 0
	} else {
		m.Regions = memory.Regions(filled[:n])
	}
	if m.Regions == nil {
		m.Regions = []memory.Region{}
	}
	r.speed()

	peak := memory.Effective(m.Regions, m.MTps)
	m.PeakMBps = peak.MBps()
	if r.quiet() {
		if !sizesKnown {
			m.Total = unknownTotal
		}
		return
	}
	m.Total, m.Speed, m.Peak = m.TotalBytes.Binary(), m.MTps.String(), peak.String()
	switch {
	case n == 0:
		m.Total, m.Spread = "no memory", "no channel filled"
	case !sizesKnown:
		m.Total, m.Spread = unknownTotal, "unknown, because a module's size is not stated"
	default:
		m.Spread = spread(m.Regions)
	}
	if m.Because == nil {
		m.Because = []Reason{}
	}
}

// unknownTotal is the total where a module's size is not stated.
const unknownTotal = "unknown"

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

// spread puts regions into words: "dual channel" or "16 GiB dual, 8 GiB single".
func spread(regions []memory.Region) string {
	if len(regions) == 1 {
		return ways(regions[0].Ways) + " channel"
	}
	s := ""
	for i, g := range regions {
		if i > 0 {
			s += ", "
		}
		s += g.Bytes.Binary() + " " + ways(g.Ways)
	}
	return s + " channel"
}

func ways(n int) string {
	switch n {
	case 1:
		return "single"
	case 2:
		return "dual"
	case 4:
		return "quad"
	}
	return strconv.Itoa(n) + "-way"
}

// speed is the one rate all modules run at: the least of what each module can
// (at its profile where that is switched on) and what the board allows for so
// many modules on the fullest channel.
func (r *resolver) speed() {
	m := &r.memory
	var slowest quantity.MTps
	var which *sock
	unknown := ""
	perChannel, ranks := 0, 0
	ranksKnown := true
	for _, c := range m.Channels {
		perChannel = max(perChannel, c.Modules)
	}
	for _, s := range r.filled {
		mod := s.module()
		rate := r.moduleRate(mod)
		if !rate.Known() {
			unknown = "the label of " + r.name(s) + " does not state its speed"
		}
		if which == nil || rate < slowest {
			slowest, which = rate, s
		}
		ranks = max(ranks, mod.Ranks)
		ranksKnown = ranksKnown && mod.Ranks > 0
	}
	if !ranksKnown {
		ranks = 0
	}
	if which == nil {
		return
	}
	if unknown != "" {
		m.Because = append(m.Because, Reason{FromPart, "speed unknown, because " + unknown})
		return
	}
	if r.quiet() {
		if limit, missing := r.boardRate(perChannel, ranks); missing.Says == "" {
			m.MTps = min(slowest, limit)
		}
		return
	}
	m.Because = append(m.Because, Reason{FromPart, r.name(which) + " can run at " + slowest.String()})
	if r.profile != nil {
		m.Because = append(m.Because, r.ruleReason(r.profile))
	}
	limit, missing := r.boardRate(perChannel, ranks)
	if missing.Says != "" {
		m.Because = append(m.Because, missing)
		return
	}
	m.Because = append(m.Because, Reason{FromSheet, "the board runs " + perChannelText(perChannel) + " at up to " + limit.String()},
		Reason{FromStandard, "all modules run at one rate, the lowest of these"})
	m.MTps = min(slowest, limit)
}

func perChannelText(n int) string {
	if n == 1 {
		return "1 module a channel"
	}
	return strconv.Itoa(n) + " modules a channel"
}

func ranksText(n int) string {
	if n == 0 {
		return ""
	}
	return " of " + plural(n, "rank")
}

func (r *resolver) moduleRate(m *part.Module) quantity.MTps {
	if r.profile != nil && m.ProfileMTps.Known() {
		return m.ProfileMTps
	}
	return m.RateMTps
}

// boardRate is the board's limit; a row without ranks covers all. A profile is
// an overclock of memory and controller, so the board's table of plain speeds
// does not bind it: every module's profile then stands alone. Where the rate
// cannot be told the reason says why.
func (r *resolver) boardRate(perChannel, ranks int) (quantity.MTps, Reason) {
	var best quantity.MTps
	if r.profile != nil {
		all := true
		for _, s := range r.filled {
			all = all && s.module().ProfileMTps.Known()
			best = max(best, s.module().ProfileMTps)
		}
		if all {
			return best, Reason{}
		}
		best = 0
	}
	for _, row := range r.sheet.Memory.Speeds {
		if row.PerChannel != perChannel {
			continue
		}
		if row.Ranks != 0 && ranks == 0 {
			return 0, Reason{FromPart, "speed unknown, because a module's label does not state its ranks, which the board's table asks for"}
		}
		if (row.Ranks == 0 || row.Ranks == ranks) && (best == 0 || row.MTps < best) {
			best = row.MTps
		}
	}
	if best == 0 {
		return 0, Reason{FromSheet, "speed unknown, because the sheet has no speed for " + perChannelText(perChannel) + ranksText(ranks)}
	}
	return best, Reason{}
}
