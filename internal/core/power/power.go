// Package power says what set-up and the system should show after power-on,
// and compares it with what they do show.
//
// Expected and observed have one shape: an Observation is a list of Readings,
// each about one line of a screen. A reading that is absent was not taken.
// Memory is read in powers of two and drives in powers of ten, and screens mix
// the two freely; Agree knows both.
package power

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Format and Version head every observation file.
const (
	Format  = "deepbay/observation"
	Version = 1
)

// Origin is where a reading comes from.
type Origin string

// The origins: foretold by the core, confirmed or typed by a person, read from a
// machine, or from the simulated one.
const (
	Foretold  Origin = "expected"
	Confirmed Origin = "confirmed"
	Typed     Origin = "typed"
	Probed    Origin = "probe"
	Simulated Origin = "simulated"
)

// Values lists the origins for the formats.
func (Origin) Values() []string {
	return []string{string(Foretold), string(Confirmed), string(Typed), string(Probed), string(Simulated)}
}

// LineID names one line of a screen: its kind and, after a slash, what it is
// about. "total", "usable", "rate", "slot/A2", "drive/M2_1", "link/M2_1", "setting/profile".
type LineID string

// kind is the part of the ID before the slash.
func (l LineID) kind() string {
	k, _, _ := strings.Cut(string(l), "/")
	return k
}

// Reading is one line as it is or should be shown. The field that is filled
// follows from the line's kind; Absent says that the thing is not shown at all.
type Reading struct {
	Line   LineID         `json:"line" jsonschema:"minLength=1,maxLength=80"`
	Bytes  quantity.Bytes `json:"bytes,omitzero" jsonschema:"minimum=1"`
	MTps   quantity.MTps  `json:"rateMTps,omitzero" jsonschema:"minimum=1,maximum=20000"`
	Gen    quantity.Gen   `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"`
	Lanes  quantity.Lanes `json:"lanes,omitzero" jsonschema:"minimum=1,maximum=16"`
	Gbps   float64        `json:"lineGbps,omitzero" jsonschema:"minimum=0.4,maximum=200"` // of a USB link, all lanes together
	Value  string         `json:"value,omitempty" jsonschema:"maxLength=80"`              // a setting's option
	Absent bool           `json:"absent,omitempty"`
	Raw    string         `json:"raw,omitempty" jsonschema:"maxLength=80"` // as typed
	Origin Origin         `json:"origin"`
	By     string         `json:"by,omitempty" jsonschema:"maxLength=80"`
	At     time.Time      `json:"at,omitzero"`
}

// Observation is what was seen, or is expected to be.
type Observation struct {
	Format   string    `json:"format" jsonschema:"enum=deepbay/observation"`
	Version  int       `json:"version" jsonschema:"enum=1"`
	Readings []Reading `json:"readings" jsonschema:"maxItems=2000"`
}

// Expect foretells what a resolved build shows. Lines whose value cannot be told
// are left out of the readings; Lines lists them all the same.
func Expect(b *rig.Rig, r *fit.Resolved) Observation {
	out := Observation{Format: Format, Version: Version, Readings: []Reading{}}
	for _, l := range lines(b, r) {
		if l.known {
			out.Readings = append(out.Readings, l.want)
		}
	}
	return out
}

// Verdict is what comparing a line came to.
type Verdict string

// The verdicts.
const (
	NotLooked Verdict = "not looked at"
	Agrees    Verdict = "agrees"
	Differs   Verdict = "differs"
	Explained Verdict = "explained" // differs, and somebody said why that is right
	Noted     Verdict = "noted"     // nothing to compare it with
)

// Values lists the verdicts for the formats.
func (Verdict) Values() []string {
	return []string{string(NotLooked), string(Agrees), string(Differs), string(Explained), string(Noted)}
}

// Open reports whether a line still needs somebody.
func (v Verdict) Open() bool { return v == NotLooked || v == Differs }

// Show is how one kind of screen prints a value.
type Show struct {
	Where string `json:"where"`
	Text  string `json:"text"`
}

// Line is one line to compare: what should be shown, in the words and numbers of
// the screens, and what is.
type Line struct {
	ID       LineID   `json:"id"`
	Screen   string   `json:"screen"` // "set-up" or "system"
	About    string   `json:"about"`  // "Memory total"
	Expected string   `json:"expected"`
	Shows    []Show   `json:"shows"`
	Normal   string   `json:"normal,omitempty"` // what looks wrong and is not
	Verdict  Verdict  `json:"verdict"`
	Seen     string   `json:"seen,omitempty"`
	Says     string   `json:"says,omitempty"` // what the difference is
	Reading  *Reading `json:"reading,omitempty"`
	Reason   string   `json:"reason,omitempty"` // why an explained difference is right
}

// foretold is a line with its reading before it is compared.
type foretold struct {
	Line
	want  Reading
	known bool
}

// Compare puts what was seen beside what was expected, line by line. reasons
// are the explanations given for lines that differ.
func Compare(b *rig.Rig, r *fit.Resolved, readings []Reading, reasons map[LineID]string) []Line {
	found := map[LineID]*Reading{}
	for i := range readings {
		found[readings[i].Line] = &readings[i]
	}
	all := lines(b, r)
	out := make([]Line, len(all))
	for i, l := range all {
		got := found[l.ID]
		switch {
		case got == nil:
			l.Verdict = NotLooked
		case !l.known:
			l.Verdict = Noted
		case Agree(l.want, *got, b, r):
			l.Verdict = Agrees
		default:
			l.Verdict = Differs
			l.Says = "shows " + seen(b, *got) + ", expected " + l.Expected
			if l.Reason = reasons[l.ID]; l.Reason != "" {
				l.Verdict = Explained
			}
		}
		if got != nil {
			l.Reading = got
			l.Seen = seen(b, *got)
		}
		out[i] = l.Line
	}
	return out
}

// seen is a reading in words, a setting's value in those of its screen.
func seen(b *rig.Rig, r Reading) string {
	if st := b.Sheet.Setting(settingOf(r.Line)); st != nil && r.Raw == "" {
		return st.OptionName(r.Value)
	}
	return r.Line.print(r)
}

// print is a reading in words.
func (l LineID) print(r Reading) string {
	if r.Absent {
		if l.kind() == "slot" {
			return "empty"
		}
		return "not there"
	}
	if r.Raw != "" {
		return r.Raw
	}
	switch l.kind() {
	case "total", "usable", "slot":
		return r.Bytes.Binary()
	case "rate":
		return r.MTps.String()
	case "drive":
		return r.Bytes.Label()
	case "link":
		if r.Gbps > 0 {
			return strconv.FormatFloat(r.Gbps, 'f', -1, 64) + " Gb/s"
		}
		if r.Lanes.Known() {
			return link.Link{Gen: r.Gen, Lanes: r.Lanes}.String()
		}
		return "SATA " + r.Gen.String()
	}
	return r.Value
}

// systemLoss is what firmware keeps for itself even without graphics: up to
// about 0.4 GiB is ordinary.
const systemLoss = 512 * quantity.MiB

// Agree reports whether a reading is what was expected, allowing for the ways
// screens print one and the same thing.
func Agree(want, got Reading, b *rig.Rig, r *fit.Resolved) bool {
	if want.Absent || got.Absent {
		return want.Absent == got.Absent
	}
	switch want.Line.kind() {
	case "total", "slot":
		return within(float64(got.Bytes), float64(want.Bytes), 0.001)
	case "usable":
		return got.Bytes <= r.Memory.TotalBytes && got.Bytes >= want.Bytes-systemLoss
	case "rate":
		// Labels cut thirds off (2666, 2667), and older screens print the clock, half of it.
		return math.Abs(float64(got.MTps-want.MTps)) <= 2 || math.Abs(float64(2*got.MTps-want.MTps)) <= 2
	case "drive":
		return sameCapacity(want.Bytes, got)
	case "link":
		return got.Gen == want.Gen && got.Lanes == want.Lanes && within(got.Gbps, want.Gbps, 0.01)
	case "setting":
		if st := b.Sheet.Setting(settingOf(want.Line)); st != nil {
			return strings.EqualFold(got.Value, want.Value) || strings.EqualFold(got.Value, st.OptionName(want.Value))
		}
	}
	return false
}

func within(a, b, share float64) bool { return math.Abs(a-b) <= share*b }

// sameCapacity accepts half a percent either way in powers of ten or two, and
// figures cut off where a system cuts them, up to two percent: 1.8 TB for 2 TB.
func sameCapacity(want quantity.Bytes, got Reading) bool {
	if within(float64(got.Bytes), float64(want), 0.005) {
		return true
	}
	if got.Raw == "" {
		return false
	}
	binary, err := quantity.ParseBinary(got.Raw)
	if err != nil {
		return false
	}
	if within(float64(binary), float64(want), 0.005) {
		return true
	}
	// Cut off at the decimals typed?
	number := strings.TrimRight(got.Raw, " abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ")
	v, err := strconv.ParseFloat(number, 64)
	if err != nil || v == 0 {
		return false
	}
	decimals := 0
	if _, frac, ok := strings.Cut(number, "."); ok {
		decimals = len(frac)
	}
	unit := float64(binary) / v
	scale := math.Pow10(decimals)
	return within(float64(binary), float64(want), 0.02) && math.Trunc(float64(want)/unit*scale) == math.Round(v*scale)
}

// Read makes a reading of what a person typed for a line, or says what it
// expected instead. "none", "empty" and "not there" mean that nothing is shown.
func Read(id LineID, typed string) (Reading, error) {
	r := Reading{Line: id, Raw: strings.TrimSpace(typed), Origin: Typed}
	switch strings.ToLower(r.Raw) {
	case "":
		return r, fmt.Errorf("nothing was typed: write what the screen shows, or \"not there\"")
	case "none", "empty", "not there", "nothing", "missing", "-":
		r.Absent = true
		return r, nil
	}
	var err error
	switch id.kind() {
	case "total", "usable", "slot":
		r.Bytes, err = quantity.ParseBinary(r.Raw)
	case "drive":
		r.Bytes, err = quantity.ParseBytes(r.Raw)
	case "rate":
		var n int
		n, err = strconv.Atoi(strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(strings.ToUpper(r.Raw), "MHZ"), "MT/S")))
		if err != nil || n <= 0 || n > 20000 {
			return r, fmt.Errorf("%q is not a memory speed: write it as 2666 or 2666 MT/s", typed)
		}
		r.MTps = quantity.MTps(n)
	case "link":
		if r.Gbps, err = parseUSB(r.Raw); err != nil {
			r.Gen, r.Lanes, err = parseLink(r.Raw)
		}
	case "setting":
		r.Value = r.Raw
	default:
		err = fmt.Errorf("no line is named %q", id)
	}
	return r, err
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
	if err == nil && (v/per < 0.4 || v/per > 200) {
		err = fmt.Errorf("%q is no speed of a USB link: write it as 10000 or USB 10 Gb/s", s)
	}
	return v / per, err
}

// gtps maps the transfer rates that tools print to generations.
var gtps = map[string]quantity.Gen{"2.5": 1, "5": 2, "5.0": 2, "8": 3, "8.0": 3, "16": 4, "16.0": 4, "32": 5, "32.0": 5, "64": 6}

// sataGbps maps the line rates of SATA to generations.
var sataGbps = map[string]quantity.Gen{"1.5": 1, "3": 2, "3.0": 2, "6": 3, "6.0": 3}

// parseLink reads "Gen 3 x4", "gen3x4", "8 GT/s x4", "SATA Gen 3" or "6 Gb/s".
func parseLink(s string) (quantity.Gen, quantity.Lanes, error) {
	fail := fmt.Errorf("%q is not a link: write it as Gen 3 x4, 8 GT/s x4 or 6 Gb/s", s)
	t := strings.ToLower(strings.ReplaceAll(s, " ", ""))
	t = strings.TrimPrefix(strings.TrimPrefix(t, "sata"), "pcie")
	if g, ok := strings.CutSuffix(t, "gb/s"); ok {
		if sataGbps[g] == 0 {
			return 0, 0, fail
		}
		return sataGbps[g], 0, nil
	}
	speed, width, hasWidth := strings.Cut(t, "x")
	var gen quantity.Gen
	if g, ok := strings.CutSuffix(speed, "gt/s"); ok {
		gen = gtps[g]
	} else if n, err := strconv.Atoi(strings.TrimPrefix(speed, "gen")); err == nil && n >= 1 && n <= int(link.MaxGen) {
		gen = quantity.Gen(n)
	}
	if gen == 0 {
		return 0, 0, fail
	}
	if !hasWidth {
		return gen, 0, nil
	}
	w, err := strconv.Atoi(width)
	if err != nil || w < 1 || w > 16 {
		return 0, 0, fail
	}
	return gen, quantity.Lanes(w), nil
}
