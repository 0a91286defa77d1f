package measure

import (
	"math"

	"deepbay/internal/core/known"
	"deepbay/internal/core/quantity"
)

// Standing is how a rate stands to what its path carries.
type Standing string

// How a rate stands.
const (
	Untold Standing = "untold" // nothing is known of the path
	Cached Standing = "cached" // more than the path carries: it came out of memory
	Fair   Standing = "fair"
	Short  Standing = "short" // less than four fifths of what drive and path allow
)

// The marks of a rate against its path (practice): above the one it was no drive that answered, below
// the other something holds it.
const (
	above = 1.05
	below = 0.8
)

// Stands says how a rate stands to what drive and path allow.
func Stands(rate quantity.Rate, allows known.Range[quantity.Rate]) Standing {
	switch {
	case allows.High <= 0:
		return Untold
	case float64(rate) > above*float64(allows.High):
		return Cached
	case float64(rate) < below*float64(allows.Low):
		return Short
	}
	return Fair
}

// Drives by what they are made of, as far as single small reads go.
type Made int

// How drives are made.
const (
	OfPlatters Made = iota
	OfFlashSATA
	OfFlashPCIe
)

// SmallReads is what single reads of 4 KiB come to, one after the other, on a drive of a kind: what is
// found, and no rating (MB/s).
func SmallReads(m Made) (from, to float64) {
	switch m {
	case OfPlatters:
		return 0.3, 0.8
	case OfFlashSATA:
		return 25, 45
	}
	return 45, 90
}

// PerSecond is how many blocks a second a rate comes to.
func PerSecond(rate quantity.Rate, block quantity.Bytes) float64 {
	if block <= 0 {
		return 0
	}
	return float64(rate) / float64(block)
}

// Latency is how many seconds a request takes that is one of so many at once: depth by blocks a second
// (Little's law).
func Latency(rate quantity.Rate, block quantity.Bytes, depth int) float64 {
	n := PerSecond(rate, block)
	if n <= 0 {
		return 0
	}
	return float64(max(1, depth)) / n
}

// Speedup is how many times as fast something gets of which a share was reading, when reading gets s
// times as fast: 1/((1-f)+f/s), Amdahl's law.
func Speedup(f, s float64) float64 {
	if f < 0 || f > 1 || s <= 0 {
		return 0
	}
	return 1 / ((1 - f) + f/s)
}

// Reading is how much of a time was waiting for the drive.
type Reading struct {
	Was     float64 // the share of the time before, 0 to 1
	Is      float64 // the share of the time after
	Fastest float64 // seconds that are left when reading takes none at all
	Beyond  bool    // more was saved than reading alone can explain: something else got faster too
}

// ReadingOf is what a time before and a time after tell about the share of reading, when the drive got
// s times as fast: T2 = T1((1-f)+f/s), solved for f. It is none where the drive is no faster.
func ReadingOf(before, after, s float64) (Reading, bool) {
	if s <= 1 || before <= 0 || after <= 0 {
		return Reading{}, false
	}
	f := (1 - after/before) / (1 - 1/s)
	beyond := f > 1
	f = math.Min(1, math.Max(0, f))
	left := before * (1 - f)
	is := 0.0
	if after > 0 {
		is = math.Min(1, math.Max(0, before*f/s/after))
	}
	return Reading{Was: f, Is: is, Fastest: left, Beyond: beyond}, true
}
