package say

// This file words links and ranges: exact, at most, at least, between.

import (
	"cmp"
	"strconv"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/quantity"
)

// between prints a range; an end that nothing bounds is open.
func between[T cmp.Ordered](r known.Range[T], print func(T) string, openLow, openHigh bool) string {
	switch {
	case r.Exact():
		return print(r.Low)
	case openLow && openHigh:
		return "unknown"
	case openLow:
		return "at most " + print(r.High)
	case openHigh:
		return "at least " + print(r.Low)
	}
	low, high := print(r.Low), print(r.High)
	if i := strings.LastIndexByte(low, ' '); i >= 0 && strings.HasSuffix(high, low[i:]) {
		low = low[:i] // the unit is said once
	}
	return low + " to " + high
}

func genWords(r known.Range[quantity.Gen]) string {
	if !r.Exact() && r.Low <= 1 && r.High >= link.MaxGen {
		return quantity.Gen(0).String()
	}
	return between(r, quantity.Gen.String, r.Low <= 1, r.High >= link.MaxGen)
}

func lanesWords(r known.Range[quantity.Lanes]) string {
	if !r.Exact() && r.Low <= 1 && r.High >= 16 {
		return quantity.Lanes(0).String()
	}
	return between(r, quantity.Lanes.String, r.Low <= 1, r.High >= 16)
}

// sataSpeed is how the trade calls a generation of SATA.
func sataSpeed(g quantity.Gen) string {
	return map[quantity.Gen]string{1: "1.5 Gb/s", 2: "3 Gb/s", 3: "6 Gb/s"}[g]
}

// linkText is "Gen 3 x4", "at most Gen 3 x4", "Gen ? x4", "SATA 6 Gb/s" or a USB mode.
func linkText(l *fit.Link) string {
	switch l.Protocol {
	case link.SATA:
		if !l.Gen.Exact() && l.Gen.High >= 3 {
			return "SATA, speed unknown"
		}
		return "SATA " + between(l.Gen, sataSpeed, l.Gen.Low <= 1, false)
	case link.USB:
		return l.USB.String()
	}
	gen, lanes := genWords(l.Gen), lanesWords(l.Lanes)
	switch {
	case l.Gen.Exact() && l.Lanes.Exact(), l.Lanes.Exact(), !l.Gen.Exact() && l.Lanes.Low <= 1 && l.Lanes.High >= 16, l.Gen.Exact() && l.Lanes.High >= 16:
		return gen + " " + lanes
	case l.Gen.Low <= 1 && l.Lanes.Low <= 1 && l.Gen.High < link.MaxGen:
		return "at most " + l.Gen.High.String() + " " + l.Lanes.High.String()
	}
	return gen + ", " + lanes
}

// bounded reports a rate that something stated bounds from above.
func bounded(l *fit.Link) bool {
	switch l.Protocol {
	case link.PCIe:
		return l.Gen.High < link.MaxGen && l.Lanes.High < 16 || l.Gen.Exact() && l.Lanes.High <= 16
	case link.USB:
		return l.Rate.High < link.USB4By80.LineRate()
	}
	return true
}

// rateWords is the rate after coding, without more: "3.94 GB/s", "at most 3.94 GB/s".
func rateWords(l *fit.Link) string {
	switch {
	case l.Known():
		return l.Rate.Low.String()
	case bounded(l):
		return "at most " + l.Rate.High.String()
	}
	return "unknown"
}

// linkWords prints a link as a verb asks.
func linkWords(l *fit.Link, verb string) string {
	switch verb {
	case "rate":
		return rateWords(l)
	case "long":
		return rateLong(l)
	case "usable":
		return link.Link{Gen: l.Gen.High, Lanes: l.Lanes.High}.Usable(link.Typical).String()
	case "bound":
		return linkLine(l)
	}
	return linkText(l)
}

// linkLine is a link with its rate, as far as they are bounded: "Gen 3 x4, 3.94 GB/s",
// "at most Gen 3 x4, 3.94 GB/s".
func linkLine(l *fit.Link) string {
	text := linkText(l)
	switch {
	case !l.Known() && !bounded(l):
		return text
	case !l.Known() && strings.HasPrefix(text, "at most "):
		return text + ", " + l.Rate.High.String()
	}
	return text + ", " + rateWords(l)
}

// rateLong is the rate with what it leaves out.
func rateLong(l *fit.Link) string {
	if !l.Known() && !bounded(l) {
		return "rate unknown"
	}
	switch l.Protocol {
	case link.SATA:
		return rateWords(l) + " after coding"
	case link.USB:
		if l.USB == "" {
			return rateWords(l) + " after coding"
		}
		low, high := l.USB.Practice()
		return rateWords(l) + " after coding, " + low.String() + " to " + high.String() + " in practice"
	}
	return rateWords(l) + " before packet overhead"
}

// decimal prints a number without needless zeros.
func decimal(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }
