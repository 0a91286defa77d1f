package say

import "deepbay/internal/core/fault"

// FaultSays and LookSays are words as the tables hold them.
func FaultSays(k fault.Kind) string { return faultSays[k][0] }
func LookSays(l fault.Look) string  { return lookSays[l] }
