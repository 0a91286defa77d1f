package build

// This file works out what the modules come to: channels, interleave, speed.

import (
	"strconv"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// live calls f for every module that is seen.
func (r *resolver) live(f func(*sock, *part.Module)) {
	for i := range r.sockets {
		s := &r.sockets[i]
		if m := s.module(); m != nil && s.Kind.Memory() && (s.state == Live || s.state == Unsure) {
			f(s, m)
		}
	}
}

// remember fills r.memory.
func (r *resolver) remember() {
	m := &r.memory
	for i := range r.sockets {
		if s := &r.sockets[i]; s.Kind.Memory() {
			channel(m, s.Channel)
		}
	}
	sizesKnown := true
	r.live(func(s *sock, mod *part.Module) {
		c := channel(m, s.Channel)
		c.Modules++
		c.Bytes += mod.SizeBytes
		m.TotalBytes += mod.SizeBytes
		sizesKnown = sizesKnown && mod.SizeBytes.Known()
	})
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
	m.Total, m.Speed, m.Peak = m.TotalBytes.Binary(), m.MTps.String(), peak.String()
	switch {
	case n == 0:
		m.Total, m.Spread = "no memory", "no channel filled"
	case !sizesKnown:
		m.Total, m.Spread = "unknown", "unknown, because a module's size is not stated"
	default:
		m.Spread = spread(m.Regions)
	}
	if m.Because == nil {
		m.Because = []Reason{}
	}
}

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
	perChannel, ranks, modules := 0, 0, 0
	for _, c := range m.Channels {
		perChannel = max(perChannel, c.Modules)
	}
	r.live(func(s *sock, mod *part.Module) {
		modules++
		rate := r.moduleRate(mod)
		if !rate.Known() {
			unknown = "the label of " + r.name(s) + " does not state its speed"
		}
		if which == nil || rate < slowest {
			slowest, which = rate, s
		}
		ranks = max(ranks, mod.Ranks)
	})
	if modules == 0 {
		return
	}
	if unknown != "" {
		m.Because = append(m.Because, Reason{FromPart, "speed unknown, because " + unknown})
		return
	}
	m.Because = append(m.Because, Reason{FromPart, r.name(which) + " can run at " + slowest.String()})
	if r.profile != nil {
		m.Because = append(m.Because, r.ruleReason(r.profile))
	}
	limit := r.boardRate(perChannel, ranks)
	if !limit.Known() {
		m.Because = append(m.Because, Reason{FromSheet, "speed unknown, because the sheet has no speed for " + perChannelText(perChannel) + ranksText(ranks)})
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
		return " of unstated ranks"
	}
	return " of " + strconv.Itoa(n) + " ranks"
}

func (r *resolver) moduleRate(m *part.Module) quantity.MTps {
	if r.profile != nil && m.ProfileMTps.Known() {
		return m.ProfileMTps
	}
	return m.RateMTps
}

// boardRate is the board's limit; a row without ranks covers all. A profile is
// an overclock of memory and controller, so the board's table of plain speeds
// does not bind it: every module's profile then stands alone.
func (r *resolver) boardRate(perChannel, ranks int) quantity.MTps {
	var best quantity.MTps
	if r.profile != nil {
		all := true
		r.live(func(_ *sock, m *part.Module) {
			all = all && m.ProfileMTps.Known()
			best = max(best, m.ProfileMTps)
		})
		if all {
			return best
		}
		best = 0
	}
	for _, row := range r.sheet.Memory.Speeds {
		if row.PerChannel != perChannel {
			continue
		}
		if row.Ranks != 0 && ranks == 0 {
			return 0 // the table tells ranks apart and a label does not state them
		}
		if (row.Ranks == 0 || row.Ranks == ranks) && (best == 0 || row.MTps < best) {
			best = row.MTps
		}
	}
	return best
}
