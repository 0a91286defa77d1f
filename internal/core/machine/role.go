package machine

// This file is what settings are for: firmware calls them as it likes, and the work with them,
// its order and its cautions, hang on what they do.

import (
	"slices"
	"strings"
)

// Role is what a setting is for.
type Role string

// The roles, in the order in which settings are made: the storage mode before an array is built
// on it, what starts last.
const (
	StorageMode   Role = "storage-mode"   // how the SATA controller shows its drives
	Remapping     Role = "remapping"      // drives are claimed by a controller of firmware, and shown by its driver alone
	SocketMode    Role = "socket-mode"    // which protocol or width a socket has
	SlotSplit     Role = "slot-split"     // how the lanes of a slot are divided
	LinkSpeed     Role = "link-speed"     // the highest generation of a link
	MemoryProfile Role = "memory-profile" // memory runs at its stored profile
	PCIeStart     Role = "pcie-start"     // a system can start from a drive over PCIe
	LegacyStart   Role = "legacy-start"   // the older way to start, beside UEFI or in its place
	SecureStart   Role = "secure-start"   // only signed systems start
	BootOrder     Role = "boot-order"     // which drive starts first
)

// roles is the roles in their order.
var roles = []Role{StorageMode, Remapping, SocketMode, SlotSplit, LinkSpeed, MemoryProfile, PCIeStart, LegacyStart, SecureStart, BootOrder}

// Values lists the roles for the formats.
func (Role) Values() []string {
	out := make([]string, len(roles))
	for i, r := range roles {
		out[i] = string(r)
	}
	return out
}

// Order is where a role stands among settings that are made together; one that is not known
// comes before what starts.
func (r Role) Order() int {
	if i := slices.Index(roles, r); i >= 0 {
		return i
	}
	return slices.Index(roles, PCIeStart)
}

// RoleOf is what a setting is for: as the sheet states it, else as its rules and options tell;
// "" where nothing does.
func (s *Sheet) RoleOf(st *Setting) Role {
	if st.Role != "" {
		return st.Role
	}
	for _, r := range s.Rules {
		if !slices.ContainsFunc(r.When, func(w Condition) bool { return w.Setting == st.ID }) {
			continue
		}
		for _, e := range r.Then {
			switch {
			case e.Profile:
				return MemoryProfile
			case len(e.Split) > 0:
				return SlotSplit
			case len(e.Protocols) > 0, e.MaxLanes.Known(), e.Off:
				return SocketMode
			case e.MaxGen.Known():
				return LinkSpeed
			}
		}
	}
	if slices.ContainsFunc(st.Options, func(o Option) bool { return strings.EqualFold(o.Name, "AHCI") }) {
		return StorageMode // the trade's word for it (Serial ATA AHCI)
	}
	return ""
}
