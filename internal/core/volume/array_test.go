package volume

import (
	"math"
	"math/rand"
	"testing"

	"deepbay/internal/core/known"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

func alike(n int, bytes quantity.Bytes, rate float64, flash bool) []Drive {
	out := make([]Drive, n)
	for i := range out {
		r := known.Exactly(quantity.MBps(rate))
		out[i] = Drive{Bytes: bytes, Alone: r, Beside: r, Flash: flash}
	}
	return out
}

// TestLoss holds the table of chances that the trade prints, in percent a year.
func TestLoss(t *testing.T) {
	for _, c := range []struct {
		p     float64
		level rig.Level
		n     int
		want  float64
	}{
		{0.005, rig.Stripe, 2, 0.997}, {0.005, rig.Stripe, 3, 1.493}, {0.005, rig.Stripe, 4, 1.985}, {0.015, rig.Stripe, 2, 2.977}, {0.03, rig.Stripe, 4, 11.471},
		{0.005, rig.Mirror, 2, 1.37e-05}, {0.015, rig.Mirror, 2, 1.23e-04}, {0.03, rig.Mirror, 2, 4.93e-04},
		{0.005, rig.Parity, 3, 4.11e-05}, {0.015, rig.Parity, 4, 7.40e-04}, {0.03, rig.Parity, 3, 1.48e-03},
		{0.005, rig.MirrorsOver, 4, 2.74e-05}, {0.03, rig.MirrorsOver, 4, 9.86e-04},
		{0.015, rig.TwoParities, 4, 100 * 24 * 0.015 * 0.015 * 0.015 * (24. / 8760) * (24. / 8760)},
		{0.015, Apart, 2, 2.977}, {0.015, rig.Joined, 2, 2.977},
	} {
		o := Of(c.level, alike(c.n, quantity.TB, 500, true), Risk{c.p, 24, 5})
		if got := o.Loss * 100; math.Abs(got-c.want) > c.want*0.005 {
			t.Errorf("level %s of %d at %v: %v %%, want %v", c.level, c.n, c.p, got, c.want)
		}
		if o.LossAll < o.Loss || o.LossAll > 5*o.Loss*1.0000001 {
			t.Errorf("level %s: %v a year, %v in five", c.level, o.Loss, o.LossAll)
		}
	}
	for tb, want := range map[int64]float64{1: 7.69, 4: 27.4, 12: 61.7} { // by the rating of platters
		o := Of(rig.Mirror, alike(2, quantity.Bytes(tb)*quantity.TB, 200, false), Usual)
		if got := o.Filling * 100; math.Abs(got-want) > 0.06 {
			t.Errorf("filling %d TB: %v %%, want %v", tb, got, want)
		}
	}
}

// TestRates holds what the levels come to by drives of 500 MB/s.
func TestRates(t *testing.T) {
	for _, c := range []struct {
		level             rig.Level
		n                 int
		usable            quantity.Bytes
		low, high, writes float64
		survives          int
	}{
		{Apart, 2, 2 * quantity.TB, 500, 500, 500, 0}, {rig.Joined, 3, 3 * quantity.TB, 500, 500, 500, 0}, {rig.Stripe, 2, 2 * quantity.TB, 1000, 1000, 1000, 0},
		{rig.Mirror, 2, quantity.TB, 500, 1000, 500, 1}, {rig.Mirror, 3, quantity.TB, 500, 1500, 500, 2}, {rig.MirrorsOver, 4, 2 * quantity.TB, 1000, 2000, 1000, 1},
		{rig.Parity, 3, 2 * quantity.TB, 1000, 1500, 1000, 1}, {rig.TwoParities, 4, 2 * quantity.TB, 1000, 2000, 1000, 2},
	} {
		o := Of(c.level, alike(c.n, quantity.TB, 500, true), Usual)
		if o.Usable != c.usable || o.Read.Low.MBps() != c.low || o.Read.High.MBps() != c.high || o.Write.MBps() != c.writes || o.Survives != c.survives {
			t.Errorf("level %s of %d: %+v", c.level, c.n, o)
		}
	}
}

// TestOffers: of any drives no level gives more than there is, a mirror is the smallest, and what
// survives more loses less.
func TestOffers(t *testing.T) {
	rng := rand.New(rand.NewSource(1))
	for range 2000 {
		drives := make([]Drive, rng.Intn(9))
		least := quantity.Bytes(math.MaxInt64)
		for i := range drives {
			rate := known.Exactly(quantity.MBps(50 + 7000*rng.Float64()))
			drives[i] = Drive{Bytes: quantity.Bytes(1 + rng.Int63n(20e12)), Alone: rate, Beside: known.Exactly(rate.Low * quantity.Rate(0.2+0.8*rng.Float64())), Flash: rng.Intn(2) > 0}
			least = min(least, drives[i].Bytes)
		}
		risk := Risk{0.001 + 0.1*rng.Float64(), 200 * rng.Float64(), 1 + 9*rng.Float64()}
		offers := Offers(drives, risk)
		if want := map[int]int{0: 0, 1: 1, 2: 4, 3: 5, 4: 7, 5: 6, 6: 7, 7: 6, 8: 7}[len(drives)]; len(offers) != want {
			t.Fatalf("of %d drives %d offers", len(drives), len(offers))
		}
		var stripe, mirror float64
		for _, o := range offers {
			switch {
			case o.Usable > o.Raw || o.Usable < least || o.Unused < 0 || o.Usable+o.Unused > o.Raw:
				t.Fatalf("level %s: %d usable and %d over, of %d", o.Level, o.Usable, o.Unused, o.Raw)
			case o.Level == rig.Mirror && o.Usable != least:
				t.Fatalf("a mirror shows %d, and its smallest has %d", o.Usable, least)
			case o.Read.Low > o.Read.High || o.Loss < 0 || o.Loss > 1 || o.LossAll < 0 || o.LossAll > 1 || o.Filling < 0 || o.Filling > 1 || o.Survives > o.Luckily || o.Luckily >= o.N && o.N > 1:
				t.Fatalf("level %s: %+v", o.Level, o)
			}
			if o.Level == rig.Stripe {
				stripe = o.Loss
			} else if o.Level == rig.Mirror {
				mirror = o.Loss
			}
		}
		if len(drives) > 1 && mirror > stripe {
			t.Fatalf("a mirror loses %v, a stripe %v", mirror, stripe)
		}
	}
}
