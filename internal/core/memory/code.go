package memory

// This file reads the coded part of a module's label, whole or as shops shorten it.

import (
	"regexp"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/quantity"
)

// Printed is what a code such as "PC4-2400T-RE1-11" or "PC3L-12800S" says.
type Printed struct {
	Rated
	Millivolts []quantity.Millivolts
	CL         int // CAS latency in clocks
	Form       Form
	ECC        quantity.Answer
	Registered quantity.Answer
	Doubt      string // a letter that is a speed bin and a kind of module too: "R" of PC4-2400R
}

var (
	printed = regexp.MustCompile(`^PC([2345])([LU]?)-?(\d{4,5})([A-Z]{1,2})?(?:-(.+))?$`)
	// tails is what follows the speed, by family; what is shortened is left off the end.
	tails = map[Generation]*regexp.Regexp{
		DDR2: regexp.MustCompile(`^(?:(\d)\d\d(?:-\d{2}(?:-[A-Z]{1,2}\d)?)?)()$`),
		DDR3: regexp.MustCompile(`^(?:(\d{1,2})(?:-\d{2}(?:-[A-Z]{1,2}\d)?)?)()$`),
		DDR4: regexp.MustCompile(`^()([A-Z])(?:[A-Z]{1,2}[0-9A-Z](?:-\d{2})?)?$`),
		DDR5: regexp.MustCompile(`^()([A-Z])(?:[A-Z]{1,2}\d(?:-\d{4}(?:-[A-Z]{2})?)?)?$`),
	}
)

// ReadCode reads a module code as labels carry it. DDR4 and DDR5 print the speed bin after
// the rate and the kind of module after that; DDR2 and DDR3 print the kind alone. Shops
// leave the bin out, so that a letter may be either: then it is in doubt.
func ReadCode(s string) (Printed, error) {
	m := printed.FindStringSubmatch(strings.ToUpper(strings.TrimSpace(s)))
	if m == nil {
		return Printed{}, fact.Err(NoModuleCode, s)
	}
	g := Generation("ddr" + m[1])
	n, letters, tail := number(m[3]), m[4], m[5]
	rated, ok := Speed(g, n)
	if !ok {
		return Printed{}, fact.Err(HasNoSpeedNear, s, g, n)
	}
	out := Printed{Rated: rated}
	switch {
	case m[2] != "" && g != DDR3:
		return out, fact.Err(NoSuchLetter, s, m[2])
	case m[2] == "L":
		out.Millivolts = []quantity.Millivolts{1350, 1500} // a low-voltage module runs at 1.5 V as well
	case m[2] == "U":
		out.Millivolts = []quantity.Millivolts{1250, 1350, 1500}
	}
	kind := ""
	if tail != "" {
		t := tails[g].FindStringSubmatch(tail)
		if t == nil || t[1] != "" && number(t[1]) < 2 {
			return out, fact.Err(NoSuchLetter, s, tail)
		}
		out.CL, kind = number(t[1]), t[2]
		if out.Millivolts == nil { // the standard's label, on which the voltage goes with the family
			out.Millivolts = []quantity.Millivolts{volts[g]}
		}
	}
	if g == DDR2 || g == DDR3 {
		kind, letters = letters, ""
	}
	if letters != "" {
		_, isKind := moduleTypes[letters]
		cl := binLatency(rated, letters)
		switch {
		case cl > 0 && isKind && kind == "" && letters != "T" && n < perSecond[g]: // T is a common bin and a rare kind
			out.Doubt = letters
		case cl > 0 && (n < perSecond[g] || !isKind):
			out.CL = cl
		case isKind && kind == "":
			kind = letters
		default:
			return out, fact.Err(NoSuchLetter, s, letters)
		}
	}
	if kind != "" {
		k, ok := moduleTypes[kind]
		if !ok {
			return out, fact.Err(NoSuchLetter, s, kind)
		}
		out.Form, out.ECC, out.Registered = k.form, k.ecc, k.registered
	}
	return out, nil
}

// Doubted is what a letter in doubt means as a kind of module and as a speed bin.
func (p *Printed) Doubted() (registered quantity.Answer, cl int) {
	return moduleTypes[p.Doubt].registered, binLatency(p.Rated, p.Doubt)
}

// volts is what the modules of a family run at (JESD79).
var volts = map[Generation]quantity.Millivolts{DDR2: 1800, DDR3: 1500, DDR4: 1200, DDR5: 1100}

// binLatency is the CAS latency of a speed bin, 0 where there is no such bin.
func binLatency(r Rated, bin string) int {
	if r.Generation == DDR5 {
		return ddr5CL[r.Label][bin]
	}
	if r.Generation == DDR4 {
		return binCL[bin]
	}
	return 0
}

// binCL is the CAS latency that a speed-bin letter stands for in DDR4, whatever
// the rate (JESD79-4).
var binCL = map[string]int{"J": 10, "K": 11, "L": 12, "M": 13, "N": 14, "P": 15, "R": 16, "T": 17, "U": 18, "V": 19, "W": 20, "Y": 21, "AA": 22, "AC": 24}

// ddr5CL is the CAS latency of the bins A, B (the usual one) and C, by rate
// (JESD79-5): the letters mean fast, normal and slow within a rate.
var ddr5CL = map[quantity.MTps]map[string]int{
	4400: {"A": 32, "B": 36, "C": 40}, 4800: {"A": 34, "B": 40, "C": 42}, 5200: {"A": 38, "B": 42, "C": 46},
	5600: {"A": 40, "B": 46, "C": 50}, 6000: {"A": 42, "B": 48, "C": 54}, 6400: {"A": 46, "B": 52, "C": 56},
}

// moduleTypes says what the module letter means.
var moduleTypes = map[string]struct {
	form            Form
	ecc, registered quantity.Answer
}{
	"U": {DIMM, quantity.No, quantity.No}, "E": {DIMM, quantity.Yes, quantity.No},
	"S": {SODIMM, quantity.No, quantity.No}, "T": {SODIMM, quantity.Yes, quantity.No},
	"R": {DIMM, quantity.Unknown, quantity.Yes}, "L": {DIMM, quantity.Unknown, quantity.Yes},
}

func number(s string) int {
	n, err := strconv.Atoi(s)
	if err != nil {
		return 0 // an optional part that is not there; the pattern lets only digits in
	}
	return n
}
