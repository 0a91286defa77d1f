// Package power says what set-up and the system should show after power-on,
// and compares it with what they do show.
//
// Expected and observed have one shape: an Observation is a list of Readings,
// each about one line of a screen. A reading that is absent was not taken.
// Memory is read in powers of two and drives in powers of ten, and screens mix
// the two freely; Agree knows both.
package power

import (
	"cmp"
	"math"
	"strconv"
	"strings"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
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

// LineKind is what a line of a screen is about.
type LineKind string

// The kinds of line.
const (
	Message LineKind = "message" // what the first screens say
	Total   LineKind = "total"   // memory in all
	Usable  LineKind = "usable"  // memory the system can use
	Fitted  LineKind = "fitted"  // memory that the system says is there
	Rate    LineKind = "rate"    // memory speed
	Slot    LineKind = "slot"    // of memory
	Drive   LineKind = "drive"
	LinkOf  LineKind = "link"
	Array   LineKind = "array" // drives that firmware shows as one
	Setting LineKind = "setting"

	Boots    LineKind = "boot"      // a drive in the firmware's boot list
	Installs LineKind = "installer" // a drive in the installer's list
	Disk     LineKind = "disk"      // a drive in the system's list of disks
	Counts   LineKind = "errors"    // what a link counts up: CRC errors of a lead, corrected errors of lanes
	Heat     LineKind = "heat"      // of a drive at work
)

// What a line shows that has no number: that the thing is listed, and whether a count rises.
const (
	Here   = "listed"
	Quiet  = "none"
	Rising = "rising"
)

// LineID names one line of a screen: its kind and what it is about, a place or a
// setting. In files it reads "total", "slot/A2", "link/PCIE1/2", "setting/profile".
type LineID struct {
	Kind    LineKind
	Socket  rig.Path
	Setting machine.SettingID
	Array   rig.ArrayID
	System  bool // of an array: as the system shows it
}

// arrayMark is before an array's name where the name of a place can stand as well, which has no colon.
const arrayMark = "array:"

// ArrayLines names the lines that show an array.
func ArrayLines(id rig.ArrayID) []LineID {
	return []LineID{{Kind: Array, Array: id}, {Kind: Boots, Array: id}, {Kind: Installs, Array: id}, {Kind: Array, Array: id, System: true}}
}

// ParseLineID reads a line's name; one that is none names a line that is never shown.
func ParseLineID(s string) LineID {
	kind, rest, about := strings.Cut(s, "/")
	switch k := LineKind(kind); {
	case about && k == Setting:
		return LineID{Kind: k, Setting: machine.SettingID(rest)}
	case about && k == Array:
		id, system := strings.CutSuffix(rest, "/system")
		return LineID{Kind: k, Array: rig.ArrayID(id), System: system}
	case about && (k == Boots || k == Installs) && strings.HasPrefix(rest, arrayMark):
		return LineID{Kind: k, Array: rig.ArrayID(rest[len(arrayMark):])}
	case about && rest != "":
		return LineID{Kind: k, Socket: rig.ParsePath(rest)}
	}
	return LineID{Kind: LineKind(s)}
}

// String is the name as files write it.
func (l LineID) String() string {
	switch {
	case l.Setting != "":
		return string(l.Kind) + "/" + string(l.Setting)
	case l.System:
		return string(l.Kind) + "/" + string(l.Array) + "/system"
	case l.Array != "" && l.Kind != Array:
		return string(l.Kind) + "/" + arrayMark + string(l.Array)
	case l.Array != "":
		return string(l.Kind) + "/" + string(l.Array)
	case !l.Socket.IsZero():
		return string(l.Kind) + "/" + l.Socket.String()
	}
	return string(l.Kind)
}

// Compare orders lines by kind and what they are about.
func (l LineID) Compare(o LineID) int {
	return cmp.Or(cmp.Compare(l.Kind, o.Kind), l.Socket.Compare(o.Socket), cmp.Compare(l.Setting, o.Setting), cmp.Compare(l.Array, o.Array), map[bool]int{true: 1}[l.System]-map[bool]int{true: 1}[o.System])
}

// MarshalText writes the name as files do.
func (l LineID) MarshalText() ([]byte, error) { return []byte(l.String()), nil }

// UnmarshalText reads any name; see ParseLineID.
func (l *LineID) UnmarshalText(b []byte) error { *l = ParseLineID(string(b)); return nil }

// IsZero reports that no line is named.
func (l LineID) IsZero() bool { return l == LineID{} }

// Reading is one line as it is or should be shown. The field that is filled
// follows from the line's kind; Absent says that the thing is not shown at all.
type Reading struct {
	Line    LineID           `json:"line" jsonschema:"minLength=1,maxLength=80"`
	Bytes   quantity.Bytes   `json:"bytes,omitzero" jsonschema:"minimum=1"`
	MTps    quantity.MTps    `json:"rateMTps,omitzero" jsonschema:"minimum=1,maximum=20000"`
	Gen     quantity.Gen     `json:"gen,omitzero" jsonschema:"minimum=1,maximum=6"`
	Lanes   quantity.Lanes   `json:"lanes,omitzero" jsonschema:"minimum=1,maximum=16"`
	Gbps    float64          `json:"lineGbps,omitzero" jsonschema:"minimum=0.4,maximum=200"` // of a USB link, all lanes together
	Value   string           `json:"value,omitempty" jsonschema:"maxLength=80"`              // a setting's option
	Celsius quantity.Celsius `json:"celsius,omitzero" jsonschema:"minimum=1,maximum=150"`
	Absent  bool             `json:"absent,omitempty"`
	Raw     string           `json:"raw,omitempty" jsonschema:"maxLength=80"`    // as typed
	Item    rig.ItemID       `json:"item,omitempty" jsonschema:"maxLength=60"`   // the piece of which it was taken, where a line is about one
	Serial  string           `json:"serial,omitempty" jsonschema:"maxLength=80"` // the serial number that the line shows
	Lapsed  bool             `json:"lapsed,omitempty"`                           // what it proves was changed afterwards
	Proof   bool             `json:"proof,omitempty"`                            // all lies and is set as it was when it was read, so it proves what it shows
	Origin  Origin           `json:"origin"`
	By      string           `json:"by,omitempty" jsonschema:"maxLength=80"`
	At      time.Time        `json:"at,omitzero"`
}

// Lapse says that what a reading proves was changed afterwards: it proves nothing more.
func (r *Reading) Lapse() { r.Lapsed, r.Proof = true, false }

// Observation is what was seen, or is expected to be.
type Observation struct {
	Format   string     `json:"format" jsonschema:"enum=deepbay/observation"`
	Version  int        `json:"version" jsonschema:"enum=1"`
	Readings []Reading  `json:"readings" jsonschema:"maxItems=2000"`
	Machine  *Inventory `json:"machine,omitempty"` // what it tells about itself
}

// Expect foretells what a resolved build shows. Lines whose value cannot be told
// are left out of the readings; Lines lists them all the same.
func Expect(b *rig.Rig, r *fit.Answer) Observation {
	out := Observation{Format: Format, Version: Version, Readings: []Reading{}}
	for _, l := range lines(b, r) {
		if l.known {
			out.Readings = append(out.Readings, l.want)
		}
	}
	return out
}

// Forecast is what a machine shows, to be asked line by line: what is not asked for is not
// worked out.
type Forecast struct {
	rig    *rig.Rig
	answer *fit.Answer
	lines  map[LineID]*foretold // that were asked for, nil for one that is not shown
}

// Foretell makes the forecast of a resolved rig.
func Foretell(b *rig.Rig, r *fit.Answer) *Forecast {
	return &Forecast{b, r, map[LineID]*foretold{}}
}

// Lines lists all that is shown, in the order in which it is come upon.
func (f *Forecast) Lines() []LineID {
	list := lines(f.rig, f.answer)
	out := make([]LineID, len(list))
	for i := range list {
		out[i] = list[i].ID
		f.lines[out[i]] = &list[i]
	}
	return out
}

func (f *Forecast) line(id LineID) *foretold {
	if l, asked := f.lines[id]; asked {
		return l
	}
	c := forecast{b: f.rig, r: f.answer}
	c.some(id)
	f.lines[id] = nil
	for _, screen := range c.out {
		for i := range screen {
			f.lines[screen[i].ID] = &screen[i]
		}
	}
	return f.lines[id]
}

// Shows is what a line shows, where that can be told; there is that the line is shown at all.
func (f *Forecast) Shows(id LineID) (want Reading, known, there bool) {
	if l := f.line(id); l != nil {
		return l.want, l.known, true
	}
	return Reading{}, false, false
}

// Allows reports whether a reading may be of this machine: a line of which nothing is foretold
// may show anything.
func (f *Forecast) Allows(got Reading) bool {
	l := f.line(got.Line)
	return l == nil || l.agrees(got, f.rig, f.answer)
}

// Verdict is what comparing a line came to.
type Verdict string

// The verdicts.
const (
	NotAsked  Verdict = "not asked" // nobody touched it, and what it shows cannot be foretold
	NotLooked Verdict = "not looked at"
	Agrees    Verdict = "agrees"
	Differs   Verdict = "differs"
	Explained Verdict = "explained" // differs, and somebody said why that is right
	Noted     Verdict = "noted"     // nothing to compare it with
)

// Values lists the verdicts for the formats.
func (Verdict) Values() []string {
	return []string{string(NotAsked), string(NotLooked), string(Agrees), string(Differs), string(Explained), string(Noted)}
}

// Open reports whether a line still needs somebody.
func (v Verdict) Open() bool { return v == NotLooked || v == Differs }

// Screen is where a line is shown.
type Screen string

// The screens, in the order they are come upon.
const (
	InSetUp     Screen = "set-up"
	InBootList  Screen = "boot-list"
	InInstaller Screen = "installer"
	InSystem    Screen = "system"
)

// Show is how one kind of screen prints a value.
type Show struct{ Where, Text fact.Fact }

// Line is one line to compare: what should be shown, in the words and numbers of
// the screens, and what is.
type Line struct {
	ID       LineID
	Screen   Screen
	Extra    bool // nobody need read it where all is as it should be
	About    fact.Fact
	Item     rig.ItemID // the piece it is about, "" where it is about none
	Serial   string     // which it has
	Touched  bool       // this job can have changed what it shows
	Expected fact.Fact
	Exact    bool    // what is expected is one reading, if anything is shown at all, which can be confirmed
	Want     Reading // that reading
	Shows    []Show
	Normal   fact.Fact // what looks wrong and is not
	Verdict  Verdict
	Seen     fact.Fact
	Was      fact.Fact // what was read of it before that was changed
	Says     fact.Fact // what the difference is
	Proves   fact.Fact // what a message proves, and what it does not
	Reading  *Reading
	Reason   string // why an explained difference is right, as somebody typed it
}

// foretold is a line with its reading before it is compared: a reading from want to
// upTo may be shown, and one exactly where known says so.
type foretold struct {
	Line
	want, upTo  Reading
	known       bool
	mayBeAbsent bool   // whether it is seen at all is not known
	single      bool   // if it is seen, it shows want
	of          string // which pieces it is about
}

// Unchanged is the lines of which two rigs show the same, of the same pieces: what was
// read of them in one is true of the other.
func Unchanged(a *rig.Rig, ra *fit.Answer, b *rig.Rig, rb *fit.Answer) map[LineID]bool {
	was := map[LineID]foretold{}
	for _, l := range lines(a, ra) {
		was[l.ID] = l
	}
	out := map[LineID]bool{}
	for _, l := range lines(b, rb) {
		x, ok := was[l.ID]
		out[l.ID] = ok && x.of == l.of && x.want == l.want && x.upTo == l.upTo && x.known == l.known
	}
	return out
}

// Seen is what is known of the screens.
type Seen struct {
	Readings  []Reading
	Reasons   map[LineID]string // why lines that differ are right
	Untouched map[LineID]bool   // lines that the job cannot have changed
	Load      bool              // a load test ended well: what it heats and wears is read
}

// Compare puts what was seen beside what was expected, line by line.
func Compare(b *rig.Rig, r *fit.Answer, is Seen) []Line {
	found := map[LineID]*Reading{}
	for i := range is.Readings {
		found[is.Readings[i].Line] = &is.Readings[i]
	}
	all := lines(b, r)
	out := make([]Line, len(all))
	for i, l := range all {
		got := found[l.ID]
		if got != nil && (got.Lapsed || got.Item != "" && got.Item != l.Item) {
			l.Was, got = Shown(b, *got), nil
		}
		l.Touched = !is.Untouched[l.ID]
		switch {
		case got == nil && (l.Extra && !(is.Load && (l.ID.Kind == Heat || l.ID.Kind == Counts)) || !l.Touched && !l.Exact):
			l.Verdict = NotAsked
		case got == nil:
			l.Verdict = NotLooked
		case l.agrees(*got, b, r):
			l.Verdict = Agrees
			if !l.Exact {
				l.Verdict = Noted // it may be so: there is nothing exact to compare it with
			}
		default:
			l.Verdict = Differs
			if l.Says = fact.Of(ShowsExpected, Shown(b, *got), l.Expected); got.Serial != "" {
				l.Says = otherSerial(b, *got, l.Serial)
			}
			if l.Reason = is.Reasons[l.ID]; l.Reason != "" {
				l.Verdict = Explained
			}
		}
		if got != nil {
			l.Reading = got
			l.Seen = Shown(b, *got)
			l.Proves = proves(*got)
		}
		out[i] = l.Line
	}
	return out
}

// Choice is a setting at a value, as an argument of facts.
type Choice rig.Choice

// Shown is a reading as a fact, a setting's value in the words of its screen.
func Shown(b *rig.Rig, r Reading) fact.Fact {
	if st := b.Sheet.Setting(r.Line.Setting); st != nil && r.Raw == "" {
		return fact.Of(OptionIs, Choice{Setting: st.ID, Value: r.Value})
	}
	return r.shown()
}

// shown is a reading as its screen prints it.
func (r Reading) shown() fact.Fact {
	switch {
	case r.Absent && r.Line.Kind == Slot:
		return fact.Of(IsEmpty)
	case r.Absent:
		return fact.Of(NotThere)
	case bare.MatchString(r.Raw) && r.Bytes.Known(): // a number without a unit is said back as what it was taken for
		return fact.Of(TakenAs, fact.Typed(r.Raw), r.Bytes)
	case r.Raw != "":
		return fact.Of(AsRead, fact.Typed(r.Raw))
	}
	switch r.Line.Kind {
	case Message:
		return fact.Of(messageNamed(r.Value).says)
	case Total, Usable, Fitted, Slot:
		return fact.Of(MemoryIs, r.Bytes)
	case Rate:
		return fact.Of(SpeedIs, r.MTps)
	case Drive, Array, Installs, Disk:
		return fact.Of(CapacityIs, r.Bytes)
	case Boots:
		return fact.Of(Listed)
	case Counts:
		return fact.Of(map[string]fact.Code{Quiet: CountsNothing, Rising: CountsRise}[r.Value])
	case Heat:
		return fact.Of(CelsiusIs, r.Celsius)
	case LinkOf:
		l := fit.Link{Protocol: link.SATA, Gen: known.Exactly(r.Gen), Lanes: known.Exactly(r.Lanes)}
		switch {
		case r.Gbps > 0:
			return fact.Of(AsRead, fact.Typed(strconv.FormatFloat(r.Gbps, 'f', -1, 64)+" Gb/s"))
		case r.Lanes.Known():
			l.Protocol = link.PCIe
		}
		return fact.Of(LinkIs, l)
	}
	return fact.Of(AsRead, fact.Typed(r.Value))
}

// systemLoss is what firmware keeps for itself even without graphics: up to
// about 0.4 GiB is ordinary.
const systemLoss = 512 * quantity.MiB

// agrees reports whether a reading is what was expected, or may be, allowing for the
// ways screens print one and the same thing. That a thing is there at all does not hang
// on its size being known.
func (l *foretold) agrees(got Reading, b *rig.Rig, r *fit.Answer) bool {
	want := l.want
	switch {
	case want.Absent || got.Absent:
		return want.Absent == got.Absent || l.mayBeAbsent
	case got.Serial != "":
		return SameSerial(got.Serial, l.Serial)
	case l.known:
		return same(want, got, b, r)
	}
	upTo := l.upTo
	switch l.ID.Kind {
	case Total, Fitted, Slot:
		return (want.Bytes == 0 || float64(got.Bytes) >= float64(want.Bytes)*0.999) && (upTo.Bytes == 0 || float64(got.Bytes) <= float64(upTo.Bytes)*1.001)
	case Usable:
		return got.Bytes+systemLoss >= want.Bytes && (upTo.Bytes == 0 || got.Bytes <= upTo.Bytes)
	case Heat:
		return got.Celsius <= upTo.Celsius
	case Drive, Array, Installs, Disk: // whether it is seen is not known, its size may be
		return want.Bytes == 0 || sameCapacity(want.Bytes, got)
	case Rate:
		return (got.MTps+2 >= want.MTps || 2*got.MTps+2 >= want.MTps) && (upTo.MTps == 0 || got.MTps <= upTo.MTps+2)
	case LinkOf:
		return (upTo.Gen == 0 || got.Gen <= upTo.Gen) && (upTo.Lanes == 0 || got.Lanes <= upTo.Lanes && got.Lanes >= want.Lanes) && got.Gbps <= max(upTo.Gbps, 1000)
	}
	return true
}

// Agree reports whether a reading is what a machine shows that a rig with this answer is,
// where that is known: of the line in whole, or of the piece that lies there by its serial
// number.
func Agree(want, got Reading, b *rig.Rig, r *fit.Answer) bool {
	switch {
	case want.Absent || got.Absent:
		return want.Absent == got.Absent
	case got.Serial != "":
		p := b.PieceIn(got.Line.Socket)
		return p == nil || p.Serial == "" || SameSerial(got.Serial, p.Serial)
	}
	return same(want, got, b, r)
}

// same reports whether a reading is what was expected.
func same(want, got Reading, b *rig.Rig, r *fit.Answer) bool {
	switch want.Line.Kind {
	case Message:
		return messageNamed(got.Value).right == messageNamed(want.Value).right && (messageNamed(got.Value).right || got.Value == want.Value)
	case Total, Fitted, Slot:
		return within(float64(got.Bytes), float64(want.Bytes), 0.001)
	case Usable:
		return got.Bytes <= r.Memory.Total.High && got.Bytes >= min(want.Bytes, r.Memory.Usable.Low)-systemLoss
	case Rate:
		// Labels cut thirds off (2666, 2667), and older screens print the clock, half of it.
		return math.Abs(float64(got.MTps-want.MTps)) <= 2 || math.Abs(float64(2*got.MTps-want.MTps)) <= 2
	case Drive, Array, Installs, Disk:
		return sameCapacity(want.Bytes, got)
	case Boots, Counts:
		return got.Value == want.Value
	case Heat:
		return (got.Celsius > HotM2) == (want.Celsius > HotM2)
	case LinkOf:
		return got.Gen == want.Gen && got.Lanes == want.Lanes && within(got.Gbps, want.Gbps, 0.01)
	case Setting:
		if st := b.Sheet.Setting(want.Line.Setting); st != nil {
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

// Unreadable says why what was typed is no reading.
type Unreadable struct{ fact.Fact }

// Error is for programmers; people are told by say.
func (u Unreadable) Error() string { return string(u.Code) }

// Said is why.
func (u Unreadable) Said() fact.Fact { return u.Fact }

func unreadable(c fact.Code, typed string) error { return Unreadable{fact.Of(c, fact.Typed(typed))} }
