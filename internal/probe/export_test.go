package probe

import "deepbay/internal/core/power"

// Tables reads firmware's tables alone.
func Tables(b []byte) (power.Inventory, bool) {
	var m power.Inventory
	whole := fill(&m, b)
	return m, whole
}
