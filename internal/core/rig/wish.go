package rig

import (
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
)

// System reports a drive that is surely what the wish asks of the system drive; none
// is where it asks for none.
func (w *Wish) System(d *part.Drive) bool {
	return d != nil && w.SystemBytes.Known() && w.IsSystem(d) == known.Yes
}

// IsSystem is whether a drive is what the wish asks of the system drive, as far as its
// label tells.
func (w *Wish) IsSystem(d *part.Drive) known.Truth {
	if d.Form.Optical() {
		return known.No
	}
	large, fast := known.Unknown, known.Yes
	if d.CapacityBytes.Known() {
		large = known.Of(d.CapacityBytes >= w.SystemBytes)
	}
	if w.SystemFast {
		if fast = known.Unknown; d.Protocol != "" {
			fast = known.Of(d.Protocol == link.PCIe)
		}
	}
	return known.And(large, fast)
}
