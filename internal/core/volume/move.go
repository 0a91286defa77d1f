package volume

import (
	"deepbay/internal/core/quantity"
)

// Load is what is copied: how much, in files of which size on the whole.
type Load struct {
	Bytes quantity.Bytes
	Mean  quantity.Bytes // of a file; 0 where a few large ones are copied
}

// Seconds is a span of time.
type Seconds float64

// PerFile is what opening, closing and noting one file costs beside moving its bytes: on flash, and on
// platters, whose head goes to and fro. What is found in practice; no standard states it.
func PerFile(flash bool) Seconds {
	if flash {
		return 0.0005
	}
	return 0.012
}

// Files is how many files a load is of.
func (l Load) Files() int64 {
	if l.Mean <= 0 {
		return 0
	}
	return int64((l.Bytes + l.Mean - 1) / l.Mean)
}

// CopyTime is how long a load takes from a drive that reads so fast to one that writes so fast: the
// slower of both moves the bytes, and every file costs what the slower kind of drive takes for one. No
// rate is no time.
func CopyTime(l Load, reads, writes quantity.Rate, flash bool) (Seconds, bool) {
	rate := min(reads, writes)
	if rate <= 0 || l.Bytes <= 0 {
		return 0, false
	}
	return Seconds(float64(l.Bytes)/float64(rate)) + Seconds(l.Files())*PerFile(flash), true
}
