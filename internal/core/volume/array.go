// Package volume is what drives become once they are detected: what several of them come to together,
// what is written on a blank one, and how what an old one holds gets onto a new one.
//
//	for _, o := range volume.Offers(drives, volume.Usual) {
//	    o.Usable // what the system sees of it
//	    o.Loss   // the chance that a year costs data
//	}
package volume

import (
	"math"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Apart is no array: separate volumes side by side.
const Apart rig.Level = "apart"

// Levels is all ways in which drives can be used together, the plainest first.
var Levels = []rig.Level{Apart, rig.Joined, rig.Stripe, rig.Mirror, rig.MirrorsOver, rig.Parity, rig.TwoParities}

// Drive is one that may become a member.
type Drive struct {
	Item   rig.ItemID
	Bytes  quantity.Bytes
	Alone  known.Range[quantity.Rate] // reading with no other at work; zero is not known
	Beside known.Range[quantity.Rate] // while the other members work too
	Held   fit.Shared                 // what they share that holds them then
	Flash  bool
}

// Risk is what the chance of loss hangs on. None of it can be measured on one machine.
type Risk struct {
	PerYear float64 // the chance that a drive fails within a year; makers and fleets tell 0.005 to 0.02
	Hours   float64 // from a failure to the moment when a new drive holds its share again: noticing, buying, filling
	Years   float64 // how long it is to last
}

// Usual is a risk where nobody says another: drives fail once in 67 years, a day to put one back, five
// years of use.
var Usual = Risk{PerYear: 0.015, Hours: 24, Years: 5}

// Fault is what of a risk cannot be; "" for nothing.
func (r Risk) Fault() string {
	switch {
	case !(r.PerYear > 0 && r.PerYear < 1):
		return "perYear"
	case !(r.Hours >= 0 && r.Hours <= hoursOfYear):
		return "hours"
	case !(r.Years >= 1 && r.Years <= 30):
		return "years"
	}
	return ""
}

const hoursOfYear = 8760

// Unreadable is how many bits are read per one that cannot be: what data sheets rate drives at. Real
// drives do better.
func unreadable(flash bool) float64 {
	if flash {
		return 1e16
	}
	return 1e14
}

// Offer is what a level makes of drives.
type Offer struct {
	Level    rig.Level
	N        int
	Raw      quantity.Bytes
	Usable   quantity.Bytes             // 0 where a capacity is not known
	Unused   quantity.Bytes             // what larger members have over the smallest
	Read     known.Range[quantity.Rate] // one large file; zero is not known
	Write    quantity.Rate              // at most: data sheets tell what is read
	Held     fit.Shared                 // the link that holds the members back together
	Survives int                        // how many may fail, whichever they are
	Luckily  int                        // how many may fail at best
	Loss     float64                    // the chance that a year costs data; apart, that of some drive
	LossAll  float64                    // and within the wanted years
	Filling  float64                    // the chance that filling a new drive comes upon a sector that cannot be read, by rating
}

// Of is what a level makes of drives. It must take so many; see rig.Level.Takes.
func Of(level rig.Level, drives []Drive, risk Risk) Offer {
	n := len(drives)
	o := Offer{Level: level, N: n}
	sizes, flash, told := make([]quantity.Bytes, n), true, true
	least := quantity.Bytes(math.MaxInt64)
	alone, beside := drives[0].Alone, drives[0].Beside
	fastest := alone
	for i, d := range drives {
		sizes[i] = d.Bytes
		o.Raw += d.Bytes
		least = min(least, d.Bytes)
		told = told && d.Bytes > 0
		flash = flash && d.Flash
		alone, beside = known.Min(alone, d.Alone), known.Min(beside, d.Beside)
		fastest = known.Between(min(fastest.Low, d.Alone.Low), max(fastest.High, d.Alone.High))
		if d.Held.Is() {
			o.Held = d.Held
		}
	}
	if told {
		o.Usable = o.Raw
		if level != Apart {
			o.Usable = level.Capacity(sizes)
		}
		if level != Apart && level != rig.Joined {
			o.Unused = o.Raw - least*quantity.Bytes(n)
		}
	} else {
		o.Raw = 0
	}
	times := func(low, high int) known.Range[quantity.Rate] {
		return known.Between(beside.Low*quantity.Rate(low), beside.High*quantity.Rate(high))
	}
	p, t := risk.PerYear, risk.Hours/hoursOfYear
	any := 1 - math.Pow(1-p, float64(n))
	fn := float64(n)
	refill := quantity.Bytes(0) // what is read to fill a new drive
	switch level {
	case Apart, rig.Joined: // a file lies on one of them
		o.Read, o.Write, o.Held = fastest, fastest.High, fit.Shared{}
		o.Loss = any
	case rig.Stripe:
		o.Read, o.Write, o.Loss = times(n, n), beside.High*quantity.Rate(n), any
	case rig.Mirror: // one stream is read from one of them, or from all
		o.Read, o.Write = known.Between(alone.Low, max(alone.High, beside.High*quantity.Rate(n))), beside.High
		o.Survives, o.Luckily, refill = n-1, n-1, least
		o.Loss = math.Gamma(fn+1) * math.Pow(p, fn) * math.Pow(t, fn-1)
	case rig.MirrorsOver:
		o.Read, o.Write = times(n/2, n), beside.High*quantity.Rate(n/2)
		o.Survives, o.Luckily, refill = 1, n/2, least
		o.Loss = fn * p * p * t
	case rig.Parity:
		o.Read, o.Write = times(n-1, n), beside.High*quantity.Rate(n-1)
		o.Survives, o.Luckily, refill = 1, 1, least*quantity.Bytes(n-1)
		o.Loss = fn * (fn - 1) * p * p * t
	case rig.TwoParities:
		o.Read, o.Write = times(n-2, n), beside.High*quantity.Rate(n-2)
		o.Survives, o.Luckily, refill = 2, 2, least*quantity.Bytes(n-2)
		o.Loss = fn * (fn - 1) * (fn - 2) * p * p * p * t * t
	}
	o.Loss = min(1, o.Loss)
	o.LossAll = -math.Expm1(risk.Years * math.Log1p(-min(o.Loss, 1-1e-12)))
	if told {
		o.Filling = -math.Expm1(-8 * float64(refill) / unreadable(flash))
	}
	return o
}

// Offers is all that can be made of drives, in the order of Levels.
func Offers(drives []Drive, risk Risk) []Offer {
	var out []Offer
	for _, l := range Levels {
		if l == Apart && len(drives) > 0 || l != Apart && l.Takes(len(drives)) {
			out = append(out, Of(l, drives, risk))
		}
	}
	return out
}
