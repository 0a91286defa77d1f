// Package quantity holds the units of the job as types: bytes, rates, lanes,
// generations, transfers a second. No bare number of lanes or bytes crosses a
// function boundary in Deep Bay.
//
// The zero of every quantity here means "not stated": a sheet or a label that
// does not give a figure leaves it out, and an answer that needs it says
// "unknown" instead of taking it for nothing. Known tells the two apart.
//
//	quantity.DriveBytes(500).Decimal() // "500.11 GB", what the label calls 500 GB
//	quantity.DriveBytes(500).Binary()  // "465.76 GiB", what many systems print
package quantity

import (
	"math"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
)

// Bytes is a capacity in bytes. Zero is "not stated".
type Bytes int64

// Binary units, in which memory is sold, and decimal units, in which drives
// are sold (IEC 80000-13). Both are defined so that neither is taken for the other.
const (
	KiB Bytes = 1 << 10
	MiB       = KiB << 10
	GiB       = MiB << 10
	TiB       = GiB << 10

	KB Bytes = 1000
	MB       = 1000 * KB
	GB       = 1000 * MB
	TB       = 1000 * GB
)

// Known reports whether the capacity was stated.
func (b Bytes) Known() bool { return b > 0 }

// Decimal prints in powers of ten, as drive labels do: "500.11 GB", "2.00 TB".
func (b Bytes) Decimal() string {
	return b.print([]unit{{TB, "TB"}, {GB, "GB"}, {MB, "MB"}, {KB, "kB"}})
}

// Binary prints in powers of two with the unit's true name: "465.76 GiB", "16 GiB".
func (b Bytes) Binary() string {
	return b.print([]unit{{TiB, "TiB"}, {GiB, "GiB"}, {MiB, "MiB"}, {KiB, "KiB"}})
}

type unit struct {
	size Bytes
	name string
}

func (b Bytes) print(units []unit) string {
	if !b.Known() {
		return "unknown"
	}
	for _, u := range units {
		if b < u.size {
			continue
		}
		if b%u.size == 0 {
			return strconv.FormatInt(int64(b/u.size), 10) + " " + u.name
		}
		return strconv.FormatFloat(float64(b)/float64(u.size), 'f', 2, 64) + " " + u.name
	}
	return strconv.FormatInt(int64(b), 10) + " B"
}

// AsSystemPrints is the capacity as file managers that divide by powers of two
// and still write "GB" or "TB" show it: three digits, cut off, not rounded.
// 500 GB is shown as "465 GB", 2 TB as "1.81 TB". Nothing is missing.
func (b Bytes) AsSystemPrints() string {
	if !b.Known() {
		return "unknown"
	}
	v, name := float64(b)/float64(MiB), "MB"
	for _, bigger := range []string{"GB", "TB"} {
		if v < 1000 {
			break
		}
		v, name = v/1024, bigger
	}
	decimals := 0
	if v < 10 {
		decimals = 2
	} else if v < 100 {
		decimals = 1
	}
	scale := math.Pow10(decimals)
	return strconv.FormatFloat(math.Trunc(v*scale)/scale, 'f', decimals, 64) + " " + name
}

// Exact prints the bytes with thousands separators: "500,107,862,016 bytes".
func (b Bytes) Exact() string { return Thousands(int64(b)) + " bytes" }

// Thousands prints a whole number with commas between groups of three digits.
func Thousands(n int64) string {
	s := strconv.FormatInt(n, 10)
	start := 0
	if n < 0 {
		start = 1
	}
	for i := len(s) - 3; i > start; i -= 3 {
		s = s[:i] + "," + s[i:]
	}
	return s
}

// ParseBytes reads "16 GiB", "500GB", "1.81 TB" or a plain number of bytes.
// It takes the unit at its word: "GB" is 10^9. Where people write GB and mean
// GiB (memory, file managers) the caller knows, and says so with ParseBinary.
func ParseBytes(s string) (Bytes, error) { return parseBytes(s, false) }

// ParseBinary reads like ParseBytes but takes KB, MB, GB and TB as powers of
// two, as memory labels and set-up screens mean them.
func ParseBinary(s string) (Bytes, error) { return parseBytes(s, true) }

func parseBytes(s string, binary bool) (Bytes, error) {
	t := strings.TrimSpace(s)
	i := 0
	for i < len(t) && (t[i] >= '0' && t[i] <= '9' || t[i] == '.' || t[i] == ',') {
		i++
	}
	number, name := strings.ReplaceAll(t[:i], ",", ""), strings.ToUpper(strings.TrimSpace(t[i:]))
	v, err := strconv.ParseFloat(number, 64)
	if err != nil || v <= 0 {
		return 0, fact.Err(NoCapacity, s)
	}
	decimal := map[string]Bytes{"": 1, "B": 1, "BYTES": 1, "KB": KB, "MB": MB, "GB": GB, "TB": TB}
	two := map[string]Bytes{"KB": KiB, "MB": MiB, "GB": GiB, "TB": TiB, "KIB": KiB, "MIB": MiB, "GIB": GiB, "TIB": TiB, "G": GiB, "M": MiB}
	factor, ok := decimal[name]
	if b, is := two[name]; is && (binary || !ok) {
		factor, ok = b, true
	}
	if !ok {
		return 0, fact.Err(UnknownUnit, s, t[i:])
	}
	bytes := v * float64(factor)
	if bytes < 0.5 {
		return 0, fact.Err(LessThanAByte, s)
	}
	if bytes > float64(1<<62) {
		return 0, fact.Err(MoreThanAnyDrive, s)
	}
	return Bytes(math.Round(bytes)), nil
}

// DriveBytes is the exact capacity of a drive sold as gb decimal gigabytes:
// IDEMA LBA1-03 up to 8 TB, the next full GiB above that (SFF-8447).
// Below 50 GB the standards fix nothing and gb*10^9 is returned.
func DriveBytes(gb int64) Bytes {
	switch {
	case gb < 50:
		return Bytes(gb) * GB
	case gb <= 8000:
		return Bytes(97_696_368+1_953_504*(gb-50)) * 512
	default:
		return (Bytes(gb)*GB + GiB - 1) / GiB * GiB
	}
}

// Rate is bytes per second in one direction. Zero is "not known".
type Rate float64

// MBps makes a Rate of n million bytes a second.
func MBps(n float64) Rate { return Rate(n * 1e6) }

// Known reports whether the rate is known.
func (r Rate) Known() bool { return r > 0 }

// MBps is the rate in units of 10^6 bytes a second.
func (r Rate) MBps() float64 { return float64(r) / 1e6 }

// String prints "3.94 GB/s" from one GB/s up and "600 MB/s" below.
func (r Rate) String() string {
	switch {
	case !r.Known():
		return "unknown"
	case r >= 1e9:
		return strconv.FormatFloat(float64(r)/1e9, 'f', 2, 64) + " GB/s"
	default:
		return strconv.FormatFloat(float64(r)/1e6, 'f', 0, 64) + " MB/s"
	}
}

// Gen is a generation: of PCI Express 1 to 6, of SATA 1 to 3. Zero is "not stated".
type Gen uint8

// Known reports whether the generation was stated.
func (g Gen) Known() bool { return g > 0 }

// String prints "Gen 4".
func (g Gen) String() string {
	if !g.Known() {
		return "Gen ?"
	}
	return "Gen " + strconv.Itoa(int(g))
}

// Lanes is a link width. (Not a uint8: encoding/json writes a slice of those as
// base64 text.) Zero is "not stated"; a socket that has no lane left
// is off, which is said in words and not by a zero.
type Lanes uint16

// Known reports whether the width was stated.
func (l Lanes) Known() bool { return l > 0 }

// String prints "x4".
func (l Lanes) String() string {
	if !l.Known() {
		return "x?"
	}
	return "x" + strconv.Itoa(int(l))
}

// MTps is a memory transfer rate in 10^6 transfers a second, as labels carry
// it (3200, 2666). It is not a clock in MHz, which is half. Zero is "not stated".
type MTps int32

// Known reports whether the rate was stated.
func (m MTps) Known() bool { return m > 0 }

// String prints "3200 MT/s".
func (m MTps) String() string {
	if !m.Known() {
		return "unknown"
	}
	return strconv.Itoa(int(m)) + " MT/s"
}

// Millivolts is a supply voltage. Zero is "not stated".
type Millivolts int32

// Known reports whether the voltage was stated.
func (v Millivolts) Known() bool { return v > 0 }

// String prints "1.35 V".
func (v Millivolts) String() string {
	if !v.Known() {
		return "unknown voltage"
	}
	return strconv.FormatFloat(float64(v)/1000, 'f', -1, 64) + " V"
}

// Millimetres is a length on a board or of a part. Zero is "not stated" for
// the size of a thing and the origin for a place.
type Millimetres float64

// Known reports whether the length was stated.
func (m Millimetres) Known() bool { return m > 0 }

// String prints "80 mm".
func (m Millimetres) String() string {
	if !m.Known() {
		return "unknown length"
	}
	return strconv.FormatFloat(float64(m), 'f', -1, 64) + " mm"
}

// Answer is yes, no, or not stated. In JSON it is true, false, or absent.
type Answer uint8

// The three answers; the zero is the honest one.
const (
	Unknown Answer = iota
	No
	Yes
)

// String prints the word.
func (a Answer) String() string {
	return [...]string{"unknown", "no", "yes"}[min(a, Yes)]
}

// MarshalJSON writes true, false or null.
func (a Answer) MarshalJSON() ([]byte, error) {
	return []byte([...]string{"null", "false", "true"}[min(a, Yes)]), nil
}

// UnmarshalJSON reads true, false or null.
func (a *Answer) UnmarshalJSON(b []byte) error {
	switch string(b) {
	case "true":
		*a = Yes
	case "false":
		*a = No
	case "null":
		*a = Unknown
	default:
		return fact.Err(NoAnswer, b)
	}
	return nil
}

// Label is the capacity as a drive's label rounds it: 500,107,862,016 bytes is "500 GB".
func (b Bytes) Label() string {
	if !b.Known() {
		return "? GB"
	}
	if b >= TB && (b+TB/200)%TB < TB/100 {
		return strconv.FormatInt(int64((b+TB/200)/TB), 10) + " TB"
	}
	if b >= GB {
		return strconv.FormatInt(int64(b/GB), 10) + " GB"
	}
	return b.Decimal()
}

// Celsius is a temperature in degrees Celsius. Zero is "not stated".
type Celsius float64

// Known reports whether the temperature was stated.
func (c Celsius) Known() bool { return c > 0 }

// String prints "48 °C".
func (c Celsius) String() string {
	if !c.Known() {
		return "unknown"
	}
	return strconv.FormatFloat(float64(c), 'f', -1, 64) + " °C"
}
