package rig

import (
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
)

// System reports a drive that is what the wish asks of the system drive; none is
// where it asks for none.
func (w *Wish) System(d *part.Drive) bool {
	return d != nil && w.SystemBytes.Known() && d.CapacityBytes >= w.SystemBytes && (!w.SystemFast || d.Protocol == link.PCIe)
}
