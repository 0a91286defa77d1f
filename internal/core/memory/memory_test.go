package memory

import (
	"math"
	"reflect"
	"testing"

	"deepbay/internal/core/quantity"
)

const gib = quantity.GiB

// Exact rate and peak of one channel behind each label.
func TestExactAndPeak(t *testing.T) {
	for _, c := range []struct {
		label       quantity.MTps
		exact, peak float64
	}{
		{400, 400, 3200}, {533, 533.333, 4266.7}, {667, 666.667, 5333.3}, {800, 800, 6400}, {1066, 1066.667, 8533.3},
		{1333, 1333.333, 10666.7}, {1600, 1600, 12800}, {1866, 1866.667, 14933.3}, {2133, 2133.333, 17066.7},
		{2400, 2400, 19200}, {2666, 2666.667, 21333.3}, {2933, 2933.333, 23466.7}, {3200, 3200, 25600},
		{3600, 3600, 28800}, {4800, 4800, 38400}, {5200, 5200, 41600}, {5600, 5600, 44800}, {6000, 6000, 48000},
		{6400, 6400, 51200}, {8800, 8800, 70400}, {0, 0, 0},
	} {
		if got := Exact(c.label); math.Abs(got-c.exact) > 0.001 {
			t.Errorf("Exact(%d) = %.3f, want %.3f", c.label, got, c.exact)
		}
		if got := Peak(c.label).MBps(); math.Abs(got-c.peak) > 0.06 {
			t.Errorf("Peak(%d) = %.1f MB/s, want %.1f", c.label, got, c.peak)
		}
	}
}

func TestRegions(t *testing.T) {
	for _, c := range []struct {
		name     string
		channels []quantity.Bytes
		want     []Region
		rate     float64 // MB/s at DDR4-3200
	}{
		{"none", nil, nil, 0},
		{"one", []quantity.Bytes{16 * gib}, []Region{{1, 16 * gib}}, 25600},
		{"equal pair", []quantity.Bytes{16 * gib, 16 * gib}, []Region{{2, 32 * gib}}, 51200},
		{"16 and 8", []quantity.Bytes{8 * gib, 16 * gib}, []Region{{2, 16 * gib}, {1, 8 * gib}}, 38400},
		{"only the channel counts: (8+8) and 16", []quantity.Bytes{16 * gib, 16 * gib}, []Region{{2, 32 * gib}}, 51200},
		{"four", []quantity.Bytes{8 * gib, 8 * gib, 8 * gib, 8 * gib}, []Region{{4, 32 * gib}}, 102400},
		{"stairs", []quantity.Bytes{16 * gib, 8 * gib, 4 * gib}, []Region{{3, 12 * gib}, {2, 8 * gib}, {1, 8 * gib}}, 0},
	} {
		before := append([]quantity.Bytes(nil), c.channels...)
		got := Regions(c.channels)
		if !reflect.DeepEqual(got, c.want) {
			t.Errorf("%s: %v, want %v", c.name, got, c.want)
		}
		if !reflect.DeepEqual(before, append([]quantity.Bytes(nil), c.channels...)) {
			t.Errorf("%s: the caller's channels were reordered", c.name)
		}
		if r := Effective(got, 3200).MBps(); c.rate > 0 && math.Abs(r-c.rate) > 0.1 {
			t.Errorf("%s: %.0f MB/s, want %.0f", c.name, r, c.rate)
		}
	}
	if r := Effective([]Region{{2, gib}}, 0); r.Known() {
		t.Errorf("a rate of %v without a speed", r)
	}
}

func TestNames(t *testing.T) {
	for got, want := range map[string]string{
		DDR4.String(): "DDR4", DDR5.String(): "DDR5", Generation("").String(): "unknown generation",
		DIMM.String(): "DIMM", SODIMM.String(): "SO-DIMM", Form("").String(): "unknown form",
	} {
		if got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
}
