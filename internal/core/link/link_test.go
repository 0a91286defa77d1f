package link

import (
	"fmt"
	"math"
	"testing"

	"deepbay/internal/core/quantity"
)

func ExampleLink_Train() {
	drive, socket := Link{Gen: 4, Lanes: 4}, Link{Gen: 3, Lanes: 4}
	got := drive.Train(socket)
	fmt.Println(got, "at", got.LineRate(), "before packet overhead")
	// Output: Gen 3 x4 at 3.94 GB/s before packet overhead
}

// near allows for the last printed digit of the tables.
func near(got, want, within float64) bool { return math.Abs(got-want) <= within }

// MB/s of one direction after line coding: the table of PCI Express rates.
func TestLineRate(t *testing.T) {
	lanes := []quantity.Lanes{1, 2, 4, 8, 16}
	for gen, want := range map[quantity.Gen][]float64{
		1: {250, 500, 1000, 2000, 4000},
		2: {500, 1000, 2000, 4000, 8000},
		3: {984.6, 1969.2, 3938.5, 7876.9, 15753.8},
		4: {1969.2, 3938.5, 7876.9, 15753.8, 31507.7},
		5: {3938.5, 7876.9, 15753.8, 31507.7, 63015.4},
		6: {8000, 16000, 32000, 64000, 128000},
	} {
		for i, l := range lanes {
			if got := (Link{gen, l}).LineRate().MBps(); !near(got, want[i], 0.051) {
				t.Errorf("Gen %d x%d = %.1f MB/s, want %.1f", gen, l, got, want[i])
			}
		}
	}
	for _, l := range []Link{{}, {Gen: 3}, {Lanes: 4}, {7, 4}} {
		if r := l.LineRate(); r.Known() {
			t.Errorf("%v has a rate of %v, want unknown", l, r)
		}
	}
}

func TestTrain(t *testing.T) {
	for _, c := range []struct{ a, b, want Link }{
		{Link{4, 4}, Link{4, 4}, Link{4, 4}},
		{Link{4, 4}, Link{3, 4}, Link{3, 4}},
		{Link{3, 4}, Link{4, 2}, Link{3, 2}}, // not Gen 4 x2, though that has the rate of Gen 3 x4
		{Link{5, 16}, Link{1, 1}, Link{1, 1}},
		{Link{4, 4}, Link{}, Link{}},
		{Link{4, 4}, Link{Gen: 3}, Link{Gen: 3}},
		{Link{Lanes: 4}, Link{4, 2}, Link{Lanes: 2}},
	} {
		if got := c.a.Train(c.b); got != c.want {
			t.Errorf("%v.Train(%v) = %v, want %v", c.a, c.b, got, c.want)
		}
		if got := c.b.Train(c.a); got != c.want {
			t.Errorf("%v.Train(%v) = %v, want %v", c.b, c.a, got, c.want)
		}
	}
}

// The table of packet efficiency, in percent, and MB/s on four lanes.
func TestEfficiency(t *testing.T) {
	for _, c := range []struct {
		payload             int
		three, four         float64
		gen3x4, gen4x4, g54 float64
	}{
		{64, 76.19, 72.73, 2864, 5729, 11457},
		{128, 86.49, 84.21, 3317, 6633, 13266},
		{256, 92.75, 91.43, 3601, 7202, 14404},
		{512, 96.24, 95.52, 3762, 7524, 15048},
	} {
		e3, e4 := Efficiency{c.payload, ThreeDW}, Efficiency{c.payload, FourDW}
		if g := 100 * e3.Of(3); !near(g, c.three, 0.005) {
			t.Errorf("payload %d, 3DW: %.2f %%, want %.2f", c.payload, g, c.three)
		}
		if g := 100 * e4.Of(3); !near(g, c.four, 0.005) {
			t.Errorf("payload %d, 4DW: %.2f %%, want %.2f", c.payload, g, c.four)
		}
		for gen, want := range map[quantity.Gen]float64{3: c.gen3x4, 4: c.gen4x4, 5: c.g54} {
			if g := (Link{gen, 4}).Usable(e4).MBps(); !near(g, want, 0.6) {
				t.Errorf("payload %d, Gen %d x4: %.0f MB/s, want %.0f", c.payload, gen, g, want)
			}
		}
	}
	// Flit mode: 236 of 256 bytes carry packets, 7375 MB/s a lane.
	if got := (Link{6, 1}).LineRate().MBps() * flitTLP; !near(got, 7375, 0.01) {
		t.Errorf("Gen 6 x1 carries %.1f MB/s of packets, want 7375", got)
	}
	if got := (Efficiency{256, FourDW}).Of(6); !near(got, 236.0/256*256/272, 1e-9) {
		t.Errorf("Gen 6 efficiency = %v", got)
	}
}

func TestOtherLinks(t *testing.T) {
	for gen, want := range map[quantity.Gen]float64{0: 0, 1: 150, 2: 300, 3: 600, 4: 0} {
		if got := SATARate(gen).MBps(); got != want {
			t.Errorf("SATARate(%d) = %v MB/s, want %v", gen, got, want)
		}
	}
	if PCIe.String() != "PCIe" || SATA.String() != "SATA" || USB.String() != "USB" || Protocol("").String() != "unknown protocol" {
		t.Error("protocols are misspelt")
	}
}

// Two ends settle on the fastest mode both have, whichever is asked first.
func TestUSB(t *testing.T) {
	for _, c := range []struct{ port, box, want USBMode }{
		{USB20, USB20, USB20}, {USB10, USB20, USB10}, {USB4By40, USB20, USB10}, {USB4By40, USB4By20, USB4By20},
		{USB5x2, USB20, USB5x2}, {USB5x2, USB10, USB5}, {USB2, USB4By80, USB2}, {USB5, "", ""},
	} {
		if got := c.port.Train(c.box); got != c.want {
			t.Errorf("%s and %s run as %s, want %s", c.port, c.box, got, c.want)
		}
		if a, b := c.port.Train(c.box), c.box.Train(c.port); a != b {
			t.Errorf("%s and %s: %s one way, %s the other", c.port, c.box, a, b)
		}
	}
	if got := USBMode("").String() + ", " + USB10.String() + ", " + USB4By20.String(); got != "USB, mode unknown, USB 3.2 Gen 2, USB4 Gen 2x2" {
		t.Errorf("printed as %s", got)
	}
}
