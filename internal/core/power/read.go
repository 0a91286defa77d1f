package power

// This file reads what a person typed of a screen, in the ways in which screens print it.

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/quantity"
)

// absent is how people type that nothing is shown.
var absent = []string{"none", "empty", "not there", "nothing", "missing", "-"}

// Read makes a reading of what a person typed for a line; the error is an Unreadable.
// "none", "empty" and "not there" mean that nothing is shown.
func Read(id LineID, typed string) (Reading, error) {
	r := Reading{Line: id, Raw: strings.TrimSpace(typed), Origin: Typed}
	switch t := strings.ToLower(r.Raw); {
	case t == "":
		return r, unreadable(NothingTyped, typed)
	case id.Kind != Counts && slices.Contains(absent, t): // no errors counted is a count
		r.Absent = true
		return r, nil
	}
	var err error
	switch id.Kind {
	case Message:
		r.Value = readMessage(r.Raw)
	case Total, Usable, Fitted, Slot:
		r.Bytes, err = readMemory(r.Raw, id.Kind)
	case Boots:
		r.Value = Here
	case Counts:
		r.Value, err = readCount(r.Raw)
	case Heat:
		r.Celsius, err = readHeat(r.Raw)
	case Drive, Array, Installs, Disk:
		if r.Bytes, err = quantity.ParseBytes(r.Raw); err != nil || bare.MatchString(r.Raw) && r.Bytes < quantity.GB {
			return r, unreadable(NoCapacity, typed)
		}
	case Rate:
		r.MTps, err = readRate(r.Raw)
	case LinkOf:
		if r.Gbps, err = parseUSB(r.Raw); err != nil {
			r.Gen, r.Lanes, err = readLink(r.Raw)
		}
	case Setting:
		r.Value = r.Raw
	default:
		err = unreadable(NoLine, id.String())
	}
	return r, err
}

// readCount reads whether a count of errors rises: "none", "0", "rising", "12 more".
func readCount(s string) (string, error) {
	t := strings.ToLower(s)
	digits := strings.TrimFunc(t, func(r rune) bool { return r < '0' || r > '9' })
	switch {
	case t == Quiet || t == "steady" || digits != "" && strings.Trim(digits, "0") == "":
		return Quiet, nil
	case strings.Contains(t, "ris") || strings.Contains(t, "more") || digits != "":
		return Rising, nil
	}
	return "", unreadable(NoCount, s)
}

// readHeat reads a temperature: "48", "48 C", "48 °C".
func readHeat(s string) (quantity.Celsius, error) {
	t := strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(strings.ToUpper(strings.TrimSpace(s)), "C"), "°"))
	v, err := strconv.ParseFloat(t, 64)
	if err != nil || !(v >= 1 && v <= 150) { // NaN is neither
		return 0, unreadable(NoTemperature, s)
	}
	return quantity.Celsius(v), nil
}

// bare is a number without a unit.
var bare = regexp.MustCompile(`^[\d,.]+$`)

// withUsable is how systems print what is installed and what of it they use.
var withUsable = regexp.MustCompile(`(?i)^([\d.,]+ ?[KMGT]i?B) ?\(([\d.,]+ ?[KMGT]i?B) usable\)$`)

// readMemory reads a capacity of memory. Of "16.0 GB (15.9 GB usable)" a line takes what it is
// about. A bare number is what screens leave the unit off: up to 256 it is GiB, from 1024 on MiB;
// between it could be either.
func readMemory(s string, kind LineKind) (quantity.Bytes, error) {
	fail := unreadable(NoCapacity, s)
	if m := withUsable.FindStringSubmatch(s); m != nil {
		if s = m[1]; kind == Usable {
			s = m[2]
		}
	}
	if bare.MatchString(s) {
		n, err := strconv.ParseFloat(strings.ReplaceAll(s, ",", ""), 64)
		switch {
		case err != nil || n <= 0:
			return 0, fail
		case n <= 256:
			return quantity.Bytes(n * float64(quantity.GiB)), nil
		case n >= 1024 && n < 1<<26:
			return quantity.Bytes(n * float64(quantity.MiB)), nil
		case n < 1<<28:
			return 0, fail
		}
	}
	b, err := quantity.ParseBinary(s)
	if err != nil {
		return 0, fail
	}
	return b, nil
}

// readRate reads a speed of memory: "2666", "2667 MT/s", "1333 MHz", "2.4 GHz", "DDR4-2400" or
// "PC4-19200". Whether a clock or transfers are meant is for the comparison.
func readRate(s string) (quantity.MTps, error) {
	fail := unreadable(NoSpeed, s)
	t := strings.ToUpper(strings.ReplaceAll(s, " ", ""))
	if strings.HasPrefix(t, "DDR") || strings.HasPrefix(t, "PC") {
		got, err := memory.Code(strings.NewReplacer("MT/S", "", "MHZ", "").Replace(t))
		if err != nil || len(got) != 1 {
			return 0, fail
		}
		return got[0].Label, nil
	}
	per := 1.0
	if g, ok := strings.CutSuffix(t, "GHZ"); ok {
		t, per = g, 1000
	}
	v, err := strconv.ParseFloat(strings.TrimSuffix(strings.TrimSuffix(t, "MHZ"), "MT/S"), 64)
	if err != nil || !(v*per >= 1 && v*per <= 20_000) { // NaN is neither
		return 0, fail
	}
	if per > 1 { // two decimals name a speed well enough
		for _, r := range memory.Rates {
			if d := v*per - float64(r.Label); d > -8 && d < 8 {
				return r.Label, nil
			}
		}
	}
	return quantity.MTps(v*per + 0.5), nil
}

// parseUSB reads the speed of a USB link, "USB 10 Gb/s" or the bare "10000" and
// "480" that systems print for megabits a second.
func parseUSB(s string) (float64, error) {
	t := strings.ToLower(strings.ReplaceAll(s, " ", ""))
	t, named := strings.CutPrefix(t, "usb")
	per := 1000.0
	switch {
	case named && strings.HasSuffix(t, "gb/s"):
		t, per = strings.TrimSuffix(t, "gb/s"), 1
	case strings.HasSuffix(t, "mb/s"):
		t = strings.TrimSuffix(t, "mb/s")
	}
	v, err := strconv.ParseFloat(t, 64)
	if err == nil && !(v/per >= 0.4 && v/per <= 200) { // NaN is neither
		err = unreadable(NoUSBSpeed, s)
	}
	return v / per, err
}

// gtps maps the transfer rates that tools print to generations.
var gtps = map[string]quantity.Gen{"2.5": 1, "5": 2, "5.0": 2, "8": 3, "8.0": 3, "16": 4, "16.0": 4, "32": 5, "32.0": 5, "64": 6}

// sataGbps maps the line rates of SATA to generations.
var sataGbps = map[string]quantity.Gen{"1.5": 1, "3": 2, "3.0": 2, "6": 3, "6.0": 3}

// The ways in which a link's generation and width are printed.
var (
	genWords   = regexp.MustCompile(`(?:gen|generation|pcie|pci\sexpress)[ -]?(?:gen ?)?([1-6])(?:\.[0-9])?(?:\b|x)|\bgen ?([1-6])\b`)
	gtWords    = regexp.MustCompile(`(\d+(?:\.\d)?) ?gt/s`)
	sataWords  = regexp.MustCompile(`^sata[ -]?(iii|ii|i|[123](?:\.0)?)$|^(?:sata ?)?(?:gen ?([123])|(1\.5|3(?:\.0)?|6(?:\.0)?) ?(?:gb/s|gbps|gbit/s))$`)
	widthWords = regexp.MustCompile(`x ?(\d{1,2})\b`)
	linkNoise  = regexp.MustCompile(`\b(?:pcie|pci\sexpress|speed|width|link|current|lanes?|ok|at|downgraded)\b|[,;@()]`)
)

// readLink reads "Gen 3 x4", "gen3x4", "PCIe 3.0 x4", "8 GT/s x4", "Speed 8GT/s, Width x4",
// "SATA Gen 3" or "6 Gb/s".
func readLink(s string) (quantity.Gen, quantity.Lanes, error) {
	fail := unreadable(NoLinkTyped, s)
	t := strings.ToLower(strings.Join(strings.Fields(s), " "))
	if m := sataWords.FindStringSubmatch(t); m != nil && (m[3] != "" || strings.HasPrefix(t, "sata")) {
		switch {
		case m[3] != "":
			return sataGbps[m[3]], 0, nil
		case m[2] != "":
			return quantity.Gen(m[2][0] - '0'), 0, nil
		case m[1][0] == 'i':
			return quantity.Gen(len(m[1])), 0, nil
		}
		return quantity.Gen(m[1][0] - '0'), 0, nil
	}
	var gen quantity.Gen
	var lanes quantity.Lanes
	if m := widthWords.FindStringSubmatch(t); m != nil {
		n, err := strconv.Atoi(m[1])
		if err != nil || n < 1 || n > 16 {
			return 0, 0, fail
		}
		lanes = quantity.Lanes(n)
		t = strings.Replace(t, m[0], " ", 1)
	}
	switch m := gtWords.FindStringSubmatch(t); {
	case m != nil:
		gen, t = gtps[m[1]], strings.Replace(t, m[0], " ", 1)
	default:
		if m := genWords.FindStringSubmatch(t); m != nil {
			gen, t = quantity.Gen((m[1] + m[2])[0]-'0'), strings.Replace(t, m[0], " ", 1)
		} else if n, err := strconv.Atoi(strings.TrimSpace(t)); err == nil && n >= 1 && n <= int(link.MaxGen) { // "3 x4"
			gen, t = quantity.Gen(n), ""
		}
	}
	if gen == 0 || strings.TrimSpace(linkNoise.ReplaceAllString(t, " ")) != "" {
		return 0, 0, fail
	}
	return gen, lanes, nil
}
