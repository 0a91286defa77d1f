package memory

// This file reads the label strings that JEDEC prints on modules.

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/quantity"
)

// Label is what a module's label string says. What it does not say is unknown.
type Label struct {
	SizeBytes  quantity.Bytes // in front of the string, often left off
	Generation Generation
	Ranks      int // package ranks, times stacked ranks where printed
	Width      int // of each device: x4, x8, x16
	Millivolts quantity.Millivolts
	MTps       quantity.MTps
	CL         int // CAS latency in clocks; 0 where the bin is not known
	Form       Form
	ECC        quantity.Answer
	Registered quantity.Answer
	Bin        string // speed bin letters of DDR4 and DDR5
	RawCard    string // letter and revision
	SPD        string // revision as printed
	Grade      string // temperature grade of DDR5
	stack      string // "D2", "S4": dual die or stack, as printed
	module     string // module type letter as printed
}

var (
	labelDDR3 = regexp.MustCompile(`^(?:(\d{1,4})\s?([GM])B\s+)?(\d)Rx?(4|8|16)\s+PC3([LU]?)-(\d{4,5})([A-Z])-(\d{1,2})-(\d{2})-([A-Z]{1,2})(\d)$`)
	labelDDR4 = regexp.MustCompile(`^(?:(\d{1,4})\s?GB\s+)?(\d)(?:([DQS])(\d))?Rx(4|8|16)\s+PC4-(\d{4})([A-Z]{1,2})-([A-Z])([A-Z]{1,2})([0-9A-Z])-(\d{2})$`)
	labelDDR5 = regexp.MustCompile(`^(?:(\d{1,4})\s?GB\s+)?(\d)(?:([DQS])(\d))?Rx(4|8|16)\s+PC5-(\d{4})([A-Z]{1,2})-([A-Z]{1,2}?)([A-Z])(\d)-(\d{4})(?:-([A-Z]{2}))?$`)
)

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

// ParseLabel reads a label string such as "16GB 2Rx8 PC3L-12800S-11-11-F3",
// "1Rx8 PC4-2666V-SA2-11" or "16GB 1Rx8 PC5-4800B-SA0-1010-XT".
func ParseLabel(s string) (Label, error) {
	t := strings.Join(strings.Fields(strings.ToUpper(s)), " ")
	t = strings.ReplaceAll(t, "RX", "Rx")
	if m := labelDDR3.FindStringSubmatch(t); m != nil {
		l := Label{Generation: DDR3, Ranks: number(m[3]), Width: number(m[4]), CL: number(m[8]), SPD: m[9], RawCard: m[10] + m[11],
			Millivolts: map[string]quantity.Millivolts{"": volts[DDR3], "L": 1350, "U": 1250}[m[5]]}
		unit := quantity.GiB
		if m[2] == "M" {
			unit = quantity.MiB
		}
		l.SizeBytes = quantity.Bytes(number(m[1])) * unit
		return l.finish(s, number(m[6]), m[7])
	}
	if m := labelDDR4.FindStringSubmatch(t); m != nil {
		l := Label{Generation: DDR4, SizeBytes: quantity.Bytes(number(m[1])) * quantity.GiB, Ranks: ranks(m[2], m[3], m[4]), stack: m[3] + m[4], Width: number(m[5]),
			Millivolts: volts[DDR4], Bin: m[7], CL: binCL[m[7]], RawCard: m[9] + m[10], SPD: m[11]}
		return l.finish(s, number(m[6]), m[8])
	}
	if m := labelDDR5.FindStringSubmatch(t); m != nil {
		l := Label{Generation: DDR5, SizeBytes: quantity.Bytes(number(m[1])) * quantity.GiB, Ranks: ranks(m[2], m[3], m[4]), stack: m[3] + m[4], Width: number(m[5]),
			Millivolts: volts[DDR5], Bin: m[7], RawCard: m[9] + m[10], SPD: m[11], Grade: m[12]}
		l, err := l.finish(s, number(m[6]), m[8])
		l.CL = ddr5CL[l.MTps][l.Bin]
		return l, err
	}
	return Label{}, fact.Err(NoModuleLabel, s)
}

func number(s string) int {
	n, err := strconv.Atoi(s)
	if err != nil {
		return 0 // an optional part that is not there; the pattern lets only digits in
	}
	return n
}

// ranks counts logical ranks: package ranks times those of a 3DS stack. Dual-die
// and quad-die packages add none.
func ranks(pkg, stack, each string) int {
	n := number(pkg)
	if stack == "S" && number(each) > 0 {
		n *= number(each)
	}
	return n
}

func (l Label) finish(s string, speed int, module string) (Label, error) {
	r, ok := Speed(l.Generation, speed)
	if !ok {
		return Label{}, fact.Err(HasNoSpeed, s, l.Generation, int(speed))
	}
	l.MTps, l.module = r.Label, module
	if l.Ranks < 1 {
		return Label{}, fact.Err(NoRanks, s)
	}
	if k, known := moduleTypes[module]; known {
		l.Form, l.ECC, l.Registered = k.form, k.ecc, k.registered
	}
	return l, nil
}

// String prints the label as it is printed on the module.
func (l Label) String() string {
	size := ""
	switch {
	case l.SizeBytes >= quantity.GiB && l.SizeBytes%quantity.GiB == 0:
		size = strconv.FormatInt(int64(l.SizeBytes/quantity.GiB), 10) + "GB "
	case l.SizeBytes.Known():
		size = strconv.FormatInt(int64(l.SizeBytes/quantity.MiB), 10) + "MB "
	}
	pkg := l.Ranks
	if strings.HasPrefix(l.stack, "S") && number(l.stack[1:]) > 0 {
		pkg /= number(l.stack[1:])
	}
	head := fmt.Sprintf("%s%d%sRx%d", size, pkg, l.stack, l.Width)
	switch l.Generation {
	case DDR3:
		v := map[quantity.Millivolts]string{1350: "L", 1250: "U"}[l.Millivolts]
		r, _ := Speed(DDR3, int(l.MTps))
		return fmt.Sprintf("%s PC3%s-%d%s-%d-%s-%s", head, v, r.Module, l.module, l.CL, l.SPD, l.RawCard)
	case DDR4:
		return fmt.Sprintf("%s PC4-%d%s-%s%s-%s", head, l.MTps, l.Bin, l.module, l.RawCard, l.SPD)
	}
	s := fmt.Sprintf("%s PC5-%d%s-%s%s-%s", head, l.MTps, l.Bin, l.module, l.RawCard, l.SPD)
	if l.Grade != "" {
		s += "-" + l.Grade
	}
	return s
}
