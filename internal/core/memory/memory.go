// Package memory holds the arithmetic of memory modules and channels: names
// and exact rates, peak bandwidth, and how much of unequal channels runs interleaved.
//
// A channel is 64 data bits wide (DDR5: two sub-channels of 32, the same total),
// so it carries eight bytes a transfer.
package memory

import (
	"slices"

	"deepbay/internal/core/quantity"
)

// Generation is a family of modules. No generation fits another's slot.
type Generation string

// The generations (JEDEC JESD79 and its successors).
const (
	DDR2 Generation = "ddr2"
	DDR3 Generation = "ddr3"
	DDR4 Generation = "ddr4"
	DDR5 Generation = "ddr5"
)

// Values lists the generations for the formats.
func (Generation) Values() []string {
	return []string{string(DDR2), string(DDR3), string(DDR4), string(DDR5)}
}

// String prints the trade's spelling: "DDR4".
func (g Generation) String() string {
	if g == "" {
		return "unknown generation"
	}
	return "DDR" + string(g[len(g)-1])
}

// Form is the shape of a module.
type Form string

// Long modules for desktops, short ones for small machines.
const (
	DIMM   Form = "dimm"
	SODIMM Form = "sodimm"
)

// Values lists the forms for the formats.
func (Form) Values() []string { return []string{string(DIMM), string(SODIMM)} }

// String prints the trade's spelling.
func (f Form) String() string {
	switch f {
	case DIMM:
		return "DIMM"
	case SODIMM:
		return "SO-DIMM"
	}
	return "unknown form"
}

// Exact is the true transfer rate behind a label: labels cut 2666.67 to 2666.
// True rates are multiples of 400/3 (JESD79); a label is at most 1 below the
// multiple it stands for, or rounded up to it (DDR2-667).
func Exact(label quantity.MTps) float64 {
	thirds := (3*int64(label) + 200) / 400 // nearest multiple of 400/3
	exact := float64(thirds) * 400 / 3
	if d := exact - float64(label); d > -1 && d < 1 {
		return exact
	}
	return float64(label)
}

// Peak is what one 64-bit channel moves at a labelled rate: exact MT/s x 8 bytes.
func Peak(label quantity.MTps) quantity.Rate {
	return quantity.MBps(Exact(label) * 8)
}

// Latency is the time of a CAS latency in nanoseconds: clocks at half the
// transfer rate.
func Latency(clocks int, label quantity.MTps) float64 {
	if !label.Known() {
		return 0
	}
	return float64(clocks) * 2000 / float64(label)
}

// Organised is the capacity of a module without check bits: ranks of devices of a
// width (x4, x8, x16) that fill 64 bits, each of one die of so many Gbit (JEDEC).
func Organised(ranks, width, dieGbit int) quantity.Bytes {
	if width <= 0 {
		return 0
	}
	return quantity.Bytes(ranks*(64/width)*dieGbit) * quantity.GiB / 8
}

// Region is a stretch of memory spread over Ways channels.
type Region struct {
	Ways  int            `json:"ways"`
	Bytes quantity.Bytes `json:"bytes"`
}

// Regions tells how memory in channels of unequal size is interleaved: with the
// capacities sorted from large to small, region j has j*(c_j - c_(j+1)) bytes with
// j-way interleave. For two channels: twice the smaller runs dual, the rest
// single. Empty channels are left out; the widest region comes first.
func Regions(channels []quantity.Bytes) []Region {
	c := slices.Clone(channels)
	slices.SortFunc(c, func(a, b quantity.Bytes) int { return int(min(1, max(-1, b-a))) })
	var out []Region
	for j := len(c); j >= 1; j-- {
		next := quantity.Bytes(0)
		if j < len(c) {
			next = c[j]
		}
		if n := quantity.Bytes(j) * (c[j-1] - next); n > 0 {
			out = append(out, Region{Ways: j, Bytes: n})
		}
	}
	return out
}

// Effective is the peak rate of evenly spread access over regions:
// the total divided by the time each region takes at its own width.
func Effective(regions []Region, label quantity.MTps) quantity.Rate {
	var total quantity.Bytes
	var seconds float64
	one := float64(Peak(label))
	if one == 0 {
		return 0
	}
	for _, r := range regions {
		total += r.Bytes
		seconds += float64(r.Bytes) / (float64(r.Ways) * one)
	}
	if total == 0 {
		return 0
	}
	return quantity.Rate(float64(total) / seconds)
}
