package part

// This file reads the shorthand people type and what is printed on labels, and
// writes it.

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// Ask is a question that the text leaves open: it could mean several things.
type Ask struct {
	About   fact.Code
	Choices []string // words that settle it when added to the text
}

// Meaning is a word and what it was taken for.
type Meaning struct {
	Word string
	Says fact.Fact
}

// Shorthand is what a line of shorthand or a label was taken to mean.
type Shorthand struct {
	Count   int // how many pieces: 2 for a kit of two
	Part    Part
	Means   []Meaning
	Unknown []fact.Fact // what it does not say
	Asks    []Ask       // what must be settled before the part is complete
}

// ReadWords is ParseShorthand for a part that is to be kept: what must still be
// settled, and what makes the part impossible, are problems.
func ReadWords(text string) (Shorthand, problem.List) {
	got, err := ParseShorthand(text)
	if err != nil {
		return got, problem.List{{Fact: fact.From(err)}}
	}
	var list problem.List
	for _, a := range got.Asks {
		list.Add("", fact.Of(CouldBe, fact.Of(a.About), a.Choices))
	}
	for _, p := range got.Part.Validate() {
		list.Add("", p.Fact)
	}
	return got, list
}

// ParseShorthand reads "2x16 DDR5-5600 SODIMM", "1TB nvme 2280 gen4 x4 1s",
// "PC4-21300", "8TB 3.5 sata 7200" or a module's label string. What the text does
// not say stays unknown; what could mean two things is asked. A word that means
// nothing here is an error that names it.
func ParseShorthand(text string) (Shorthand, error) {
	r := reader{words: len(strings.Fields(text)), out: Shorthand{Count: 1}}
	if l, err := memory.ParseLabel(text); err == nil {
		r.label(l)
		return r.finish(), nil
	}
	words := strings.Fields(strings.NewReplacer(",", " ", ";", " ", "·", " ").Replace(text))
	if len(words) == 0 {
		return Shorthand{}, fact.Err(NothingTyped)
	}
	for i := 0; i < len(words); i++ {
		w := words[i]
		if _, each, kit := strings.Cut(strings.ToUpper(w), "X"); i+1 < len(words) && isUnit(words[i+1]) && (isNumber(w) || kit && isNumber(each)) { // "16 GB", "1.92 TB", "2x16 GB"
			w += words[i+1]
			i++
		}
		if err := r.word(w); err != nil {
			return Shorthand{}, err
		}
	}
	if err := r.settle(); err != nil {
		return Shorthand{}, err
	}
	return r.finish(), nil
}

func isUnit(s string) bool {
	switch strings.ToUpper(s) {
	case "GB", "TB", "MB", "GIB", "TIB", "MIB":
		return true
	}
	return false
}

func isNumber(s string) bool {
	_, err := strconv.ParseFloat(s, 64)
	return err == nil && s[0] >= '0' && s[0] <= '9'
}

// reader gathers what words say before it is clear what the part is.
type reader struct {
	out    Shorthand
	words  int
	size   string // "16", "16GB", "1TB", as typed
	module Module
	drive  Drive
	m2     M2
	isMod  bool // a word said module
	isDrv  bool // a word said drive
	isM2   bool
	speed  []memory.Rated
	named  string // "base" or "profile", what the speed on the label is
}

func (r *reader) says(word string, means fact.Code, args ...any) {
	r.taken(word, fact.Of(means, args...))
}

func (r *reader) taken(word string, means fact.Fact) {
	r.out.Means = append(r.out.Means, Meaning{word, means})
}

// plain is the words with one meaning: what each sets, and what it was taken for.
var plain = map[string]func(*reader) fact.Fact{
	"NVME":       (*reader).pcie,
	"PCIE":       (*reader).pcie,
	"SATA":       func(r *reader) fact.Fact { r.isDrv, r.drive.Protocol = true, link.SATA; return fact.Of(IsSATADrive) },
	"M.2":        (*reader).card,
	"M2":         (*reader).card,
	"2.5":        func(r *reader) fact.Fact { return r.box(Form2i5) },
	"3.5":        func(r *reader) fact.Fact { return r.box(Form3i5) },
	"U.2":        func(r *reader) fact.Fact { return r.box(FormU2) },
	"SSD":        func(r *reader) fact.Fact { r.isDrv, r.drive.Media = true, Flash; return fact.Of(IsFlash) },
	"HDD":        func(r *reader) fact.Fact { r.isDrv, r.drive.Media = true, Platter; return fact.Of(IsPlatters) },
	"5400":       func(r *reader) fact.Fact { return r.turns(5400) },
	"7200":       func(r *reader) fact.Fact { return r.turns(7200) },
	"1S":         (*reader).oneSided,
	"2S":         (*reader).twoSided,
	"HEATSINK":   func(r *reader) fact.Fact { return r.sink(quantity.Yes, BringsSink) },
	"BARE":       func(r *reader) fact.Fact { return r.sink(quantity.No, IsBare) },
	"DIMM":       func(r *reader) fact.Fact { return r.formed(memory.DIMM, quantity.Unknown, LongModule) },
	"UDIMM":      func(r *reader) fact.Fact { return r.formed(memory.DIMM, quantity.No, LongUnbuffered) },
	"RDIMM":      func(r *reader) fact.Fact { return r.formed(memory.DIMM, quantity.Yes, LongRegistered) },
	"SODIMM":     func(r *reader) fact.Fact { return r.formed(memory.SODIMM, quantity.Unknown, ShortModule) },
	"SO-DIMM":    func(r *reader) fact.Fact { return r.formed(memory.SODIMM, quantity.Unknown, ShortModule) },
	"BASE":       func(r *reader) fact.Fact { return r.name("base", SpeedIsBase) },
	"PROFILE":    func(r *reader) fact.Fact { return r.name("profile", SpeedIsProfile) },
	"ECC":        func(r *reader) fact.Fact { r.isMod, r.module.ECC = true, quantity.Yes; return fact.Of(HasCheckBits) },
	"NON-ECC":    func(r *reader) fact.Fact { r.isMod, r.module.ECC = true, quantity.No; return fact.Of(NoCheckBits) },
	"REG":        func(r *reader) fact.Fact { return r.formed("", quantity.Yes, IsRegistered) },
	"UNBUFFERED": func(r *reader) fact.Fact { return r.formed("", quantity.No, IsUnbuffered) },
}

func (r *reader) pcie() fact.Fact {
	r.isDrv, r.drive.Protocol = true, link.PCIe
	return fact.Of(IsPCIeDrive)
}

func (r *reader) card() fact.Fact {
	r.isDrv, r.isM2 = true, true
	return fact.Of(IsM2Card)
}

func (r *reader) box(f Form) fact.Fact {
	r.isDrv, r.drive.Form = true, f
	return fact.Of(IsOfForm, f)
}

func (r *reader) turns(n int) fact.Fact {
	r.isDrv, r.drive.Media = true, Platter
	return fact.Of(IsPlattersAt, n)
}

func (r *reader) oneSided() fact.Fact {
	r.isM2, r.isDrv, r.m2.TwoSided, r.m2.BottomMM = true, true, quantity.No, 0
	return fact.Of(OnOneSide)
}

func (r *reader) twoSided() fact.Fact {
	r.isM2, r.isDrv, r.m2.TwoSided = true, true, quantity.Yes
	if !r.m2.BottomMM.Known() { // a code for one side said otherwise
		r.m2.TopMM = 0
	}
	return fact.Of(OnBothSides)
}

func (r *reader) sink(has quantity.Answer, means fact.Code) fact.Fact {
	r.isM2, r.isDrv, r.m2.Heatsink = true, true, has
	return fact.Of(means)
}

// formed is a word of modules that tells form, registration or both.
func (r *reader) formed(f memory.Form, registered quantity.Answer, means fact.Code) fact.Fact {
	r.isMod = true
	if f != "" {
		r.module.Form = f
	}
	if registered != quantity.Unknown {
		r.module.Registered = registered
	}
	return fact.Of(means)
}

func (r *reader) name(speed string, means fact.Code) fact.Fact {
	r.isMod, r.named = true, speed
	return fact.Of(means)
}

// sizes is the M.2 sizes of cards for sockets, as width and length (PCI Express M.2).
var sizes = map[string]struct{ width, length quantity.Millimetres }{
	"2230": {22, 30}, "2242": {22, 42}, "2260": {22, 60}, "2280": {22, 80}, "22110": {22, 110},
	"25110": {25, 110}, "3042": {30, 42}, "3052": {30, 52},
}

// notches reads the keys that a card is notched at: one, or two different ones.
func notches(names []string) []Key {
	keys := make([]Key, len(names))
	for i, n := range names {
		if keys[i] = Key(n); !slices.Contains(keys[i].Values(), n) {
			return nil
		}
	}
	slices.Sort(keys)
	if len(keys) > 2 || len(keys) == 2 && keys[0] == keys[1] {
		return nil
	}
	return keys
}

// heights is the height codes of M.2 cards: the tallest thing above the board and
// below it (PCI Express M.2). Later codes vary by revision and are not read.
var heights = map[string]struct{ top, bottom quantity.Millimetres }{
	"S1": {1.2, 0}, "S2": {1.35, 0}, "S3": {1.5, 0},
	"D1": {1.2, 1.35}, "D2": {1.35, 1.35}, "D3": {1.5, 1.35}, "D4": {1.5, 0.7}, "D5": {1.5, 1.5},
}

// designation takes apart "2280-D2-M" or "2280-S3-B-M": size, height code, keys.
func (r *reader) designation(word, w string) bool {
	parts := strings.Split(w, "-")
	size, ok := sizes[parts[0]]
	if !ok {
		return false
	}
	m := M2{LengthMM: size.length, WidthMM: size.width}
	means := fact.Of(SizedM2, size.width, size.length)
	if len(parts) > 1 {
		h, ok := heights[parts[1]]
		if !ok {
			return false
		}
		m.TopMM, m.BottomMM, m.TwoSided = h.top, h.bottom, quantity.No
		means = fact.Of(SizedM2Above, size.width, size.length, h.top)
		if h.bottom.Known() {
			m.TwoSided = quantity.Yes
			means = fact.Of(SizedM2Between, size.width, size.length, h.top, h.bottom)
		}
	}
	m.Keys = r.m2.Keys
	if len(parts) > 2 {
		if m.Keys = notches(parts[2:]); m.Keys == nil {
			return false
		}
	}
	if m.TwoSided == quantity.Unknown {
		m.TwoSided = r.m2.TwoSided
	}
	m.Heatsink = r.m2.Heatsink
	r.isDrv, r.isM2, r.m2 = true, true, m
	r.taken(word, means)
	return true
}

func (r *reader) word(word string) error {
	w := strings.ToUpper(word)
	switch {
	case plain[w] != nil:
		r.taken(word, plain[w](r))
		return nil
	case strings.HasSuffix(w, "\"") && plain[strings.TrimSuffix(w, "\"")] != nil, strings.HasSuffix(w, "IN") && plain[strings.TrimSuffix(w, "IN")] != nil:
		r.taken(word, plain[strings.TrimSuffix(strings.TrimSuffix(w, "\""), "IN")](r))
		return nil
	case r.designation(word, w):
		return nil
	}
	if k := notches(strings.Split(strings.TrimSuffix(w, "-KEY"), "+")); k != nil && len(w) > 1 {
		r.isM2, r.isDrv, r.m2.Keys = true, true, k
		r.says(word, IsNotchedAt, k)
		return nil
	}
	if n, ok := strings.CutSuffix(w, "R"); ok && isNumber(n) {
		if k, err := strconv.Atoi(n); err == nil && k >= 1 && k <= 16 {
			r.isMod, r.module.Ranks = true, k
			r.says(word, HasRanks, k)
			return nil
		}
	}
	if n, ok := strings.CutSuffix(w, "V"); ok && isNumber(n) {
		if v, err := strconv.ParseFloat(n, 64); err == nil && v >= 0.5 && v <= 5 {
			mv := quantity.Millivolts(math.Round(v * 1000))
			r.isMod, r.module.Millivolts = true, append(r.module.Millivolts, mv)
			r.says(word, RunsAt, mv)
			return nil
		}
	}
	if g, ok := strings.CutPrefix(w, "GEN"); ok {
		if n, err := strconv.Atoi(g); err == nil && n >= 1 && n <= int(link.MaxGen) {
			r.isDrv, r.drive.Gen = true, quantity.Gen(n)
			r.says(word, IsOfGeneration, n)
			return nil
		}
	}
	if l, ok := strings.CutPrefix(w, "X"); ok && (l == "1" || l == "2" || l == "4") {
		n, _ := strconv.Atoi(l)
		r.isDrv, r.drive.Lanes = true, quantity.Lanes(n)
		r.says(word, HasLanes, n)
		return nil
	}
	if count, each, ok := strings.Cut(w, "X"); ok && isNumber(count) && each != "" { // 2x16GB
		if n, err := strconv.Atoi(count); err == nil && n >= 1 && n <= 64 {
			r.out.Count = n
			r.says(word, PiecesOf, n, fact.Typed(each))
			return r.capacity(word, each)
		}
	}
	if n, ok := strings.CutPrefix(w, "PROFILE-"); ok && isNumber(n) {
		if v, err := strconv.Atoi(n); err == nil && v >= 100 && v <= 20_000 {
			r.isMod, r.module.ProfileMTps = true, quantity.MTps(v)
			r.says(word, HasProfile, r.module.ProfileMTps)
			return nil
		}
	}
	if strings.HasPrefix(w, "DDR") || strings.HasPrefix(w, "PC") {
		return r.code(word, w)
	}
	if isNumber(strings.TrimRight(w, "GMTIB")) {
		return r.capacity(word, w)
	}
	return fact.Err(MeansNothing, word)
}

// code takes a speed name; the family alone is a word too.
func (r *reader) code(word, w string) error {
	r.isMod = true
	for _, g := range []memory.Generation{memory.DDR2, memory.DDR3, memory.DDR4, memory.DDR5} {
		if w == strings.ToUpper(string(g)) {
			r.module.Generation = g
			r.says(word, IsOfFamily, g)
			return nil
		}
	}
	got, err := memory.Code(w)
	if g, rate, ok := beyond(w); err != nil && ok {
		r.module.Generation, r.module.ProfileMTps = g, rate
		r.says(word, FamilyAtProfile, g, rate)
		return nil
	}
	if err != nil {
		return err
	}
	r.module.Generation, r.module.RateMTps = got[0].Generation, got[0].Label
	r.says(word, IsSpeed, fact.Typed(got[0].Name()), fact.Typed(got[0].ModuleName()))
	if strings.HasPrefix(w, "PC3L") {
		r.module.Millivolts = []quantity.Millivolts{1350, 1500}
	}
	return nil
}

// mostBase is the fastest that modules of a generation commonly are of their own, without
// a stored profile (JESD79-3 and -4 in full, JESD79-5 as it came out): a label beyond it
// is a profile, or, of DDR5, either.
var mostBase = map[memory.Generation]quantity.MTps{memory.DDR3: 1866, memory.DDR4: 3200, memory.DDR5: 5600}

// beyond reads "DDR4-3600", which is no speed of the standard and on kits all the same.
func beyond(w string) (memory.Generation, quantity.MTps, bool) {
	for g, most := range mostBase {
		if n, ok := strings.CutPrefix(w, strings.ToUpper(string(g))+"-"); ok && isNumber(n) {
			v, err := strconv.Atoi(n)
			return g, quantity.MTps(v), err == nil && quantity.MTps(v) > most && quantity.MTps(v) <= 2*most
		}
	}
	return "", 0, false
}

// profiled settles whether the speed on the label is the module's own or a profile's.
func (r *reader) profiled() {
	m := &r.module
	switch {
	case !m.RateMTps.Known() || m.ProfileMTps.Known():
	case r.named == "profile":
		m.ProfileMTps, m.RateMTps = m.RateMTps, 0
	case r.named == "" && mostBase[m.Generation] > 0 && m.RateMTps > mostBase[m.Generation]:
		r.out.Asks = append(r.out.Asks, Ask{BaseOrProfile, []string{"base", "profile"}})
	}
}

// capacity keeps a size until it is clear whether it is memory (powers of two) or
// a drive (powers of ten). A number that is a speed rather than a size is asked.
func (r *reader) capacity(word, w string) error {
	if n, err := strconv.Atoi(w); err == nil && n >= 400 && len(r.speed) == 0 {
		if got, err := memory.Code(w); err == nil && (r.size != "" || r.words == 1) {
			r.speed, r.isMod = got, true
			return nil
		}
	}
	if r.size != "" {
		return fact.Err(SecondSize, word, r.size)
	}
	r.size = w
	return nil
}

// settle gives sizes and bare speeds their meaning once all words are known.
func (r *reader) settle() error {
	if r.isM2 && r.drive.Protocol != link.SATA && r.drive.Lanes > r.m2.MaxLanes() {
		return fact.Err(NotchAgainstWidth, Keys(r.m2.Keys), r.m2.MaxLanes())
	}
	if r.isM2 && r.drive.Form != "" {
		return fact.Err(WordsOfTwoForms, r.drive.Form)
	}
	if r.isMod && r.isDrv {
		return fact.Err(WordsOfTwoKinds)
	}
	switch {
	case len(r.speed) == 1:
		r.module.Generation, r.module.RateMTps = r.speed[0].Generation, r.speed[0].Label
	case len(r.speed) > 1:
		a := Ask{About: WhichSpeed}
		for _, s := range r.speed {
			if r.module.Generation == "" || s.Generation == r.module.Generation {
				a.Choices = append(a.Choices, s.Name())
			}
		}
		if len(a.Choices) == 1 {
			g, err := memory.Code(a.Choices[0])
			if err != nil {
				return err
			}
			r.module.Generation, r.module.RateMTps = g[0].Generation, g[0].Label
		} else {
			r.out.Asks = append(r.out.Asks, a)
		}
	}
	return r.bytes()
}

func (r *reader) bytes() error {
	if r.size == "" {
		return nil
	}
	text := r.size
	if isNumber(text) {
		text += "GB"
	}
	if !r.isDrv {
		b, err := quantity.ParseBinary(text)
		if err != nil {
			return err
		}
		if !r.isMod {
			r.out.Asks = append(r.out.Asks, Ask{MemoryOrDrive, []string{"DDR4", "DDR5", "nvme", "sata"}})
		}
		r.module.SizeBytes = b
		return nil
	}
	b, err := quantity.ParseBytes(text)
	if err != nil {
		return err
	}
	if gb := int64(b / quantity.GB); b%quantity.GB == 0 && gb >= 50 && gb <= 100_000 {
		b = quantity.DriveBytes(gb) // what is sold under that name
	}
	r.drive.CapacityBytes = b
	return nil
}

func (r *reader) label(l memory.Label) {
	r.named = "base" // the standard's label names the module's own speed
	r.isMod = true
	r.module = Module{Generation: l.Generation, Form: l.Form, SizeBytes: l.SizeBytes, RateMTps: l.MTps, Ranks: l.Ranks, ECC: l.ECC, Registered: l.Registered}
	r.module.Millivolts = []quantity.Millivolts{l.Millivolts}
	if l.Generation == memory.DDR3 && l.Millivolts < 1500 {
		r.module.Millivolts = append(r.module.Millivolts, 1500) // a low-voltage module runs at 1.5 V as well
	}
	r.says(l.String(), IsLabel)
	if l.CL > 0 {
		r.says("CL", HasLatency, l.CL, memory.Latency(l.CL, l.MTps))
	}
}

// finish makes the part and lists what the text left unsaid.
func (r *reader) finish() Shorthand {
	unknown := func(known bool, what fact.Code) {
		if !known {
			r.out.Unknown = append(r.out.Unknown, fact.Of(what))
		}
	}
	p := &r.out.Part
	p.Format, p.Version = Format, Version
	if r.isDrv {
		d := r.drive
		if r.isM2 || d.Protocol == link.PCIe && d.Form == "" {
			d.Form, d.M2 = FormM2, &r.m2
		}
		if d.Media == Platter && d.Protocol == "" {
			d.Protocol = link.SATA // rotating drives for these sockets are SATA
		}
		if d.Form == "" {
			r.out.Asks = append(r.out.Asks, Ask{WhichForm, []string{"M.2", "2.5", "3.5"}})
		}
		p.Drive = &d
		unknown(d.CapacityBytes.Known(), LacksCapacity)
		unknown(d.Protocol != "", LacksProtocol)
		unknown(d.Gen.Known(), LacksGeneration)
		if d.Protocol == link.PCIe {
			unknown(d.Lanes.Known(), LacksLanes)
		}
		if d.M2 != nil {
			unknown(d.M2.LengthMM.Known(), LacksLength)
			unknown(len(d.M2.Keys) > 0, LacksNotch)
			unknown(d.M2.TwoSided != quantity.Unknown, LacksSides)
		}
	} else {
		r.profiled()
		m := r.module
		p.Module = &m
		unknown(m.SizeBytes.Known(), LacksSize)
		unknown(m.Generation != "", LacksFamily)
		unknown(m.RateMTps.Known(), LacksSpeed)
		if m.Form == "" {
			r.out.Asks = append(r.out.Asks, Ask{WhichForm, []string{"DIMM", "SODIMM"}})
		}
		unknown(m.Ranks > 0, LacksRanks)
		unknown(m.ECC != quantity.Unknown, LacksECC)
		unknown(m.Registered != quantity.Unknown, LacksRegister)
	}
	p.Name = p.Shorthand()
	p.ID = ID(slug(p.Name))
	return r.out
}

func slug(s string) string {
	var b strings.Builder
	for _, c := range strings.ToLower(s) {
		if c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c == '.' {
			b.WriteRune(c)
		} else if b.Len() > 0 && !strings.HasSuffix(b.String(), "-") {
			b.WriteByte('-')
		}
	}
	if out := strings.Trim(b.String(), "-."); out != "" {
		return out[:min(60, len(out))]
	}
	return "part"
}

// heightCode is the code of a card's heights, "" where none says them exactly.
func (m *M2) heightCode() string {
	for _, c := range []string{"S1", "S2", "S3", "D1", "D2", "D3", "D4", "D5"} {
		if h := heights[c]; m.LengthMM.Known() && h.top == m.TopMM && h.bottom == m.BottomMM && (m.TwoSided == quantity.Yes) == h.bottom.Known() {
			return c
		}
	}
	return ""
}

// designation prints "2280" or, where a height code says it, "2280-D2-M".
func (m *M2) designation() string {
	s := m.Size()
	if c := m.heightCode(); c != "" {
		s = strings.Join(append([]string{s, c}, keyNames(m.Keys)...), "-")
	}
	return s
}

func keyNames(k []Key) []string {
	out := make([]string, len(k))
	for i := range k {
		out[i] = string(k[i])
	}
	return out
}

// Shorthand prints a drive or module as ParseShorthand reads it.
func (p *Part) Shorthand() string {
	var w []string
	add := func(yes bool, word string) {
		if yes {
			w = append(w, word)
		}
	}
	if d := p.Drive; d != nil {
		add(d.CapacityBytes.Known(), sold(d.CapacityBytes))
		add(d.Protocol == link.PCIe, "nvme")
		add(d.Protocol == link.SATA, "sata")
		add(d.Form == FormM2, "M.2")
		add(d.Form == Form2i5, "2.5")
		add(d.Form == Form3i5, "3.5")
		add(d.Form == FormU2, "U.2")
		if d.M2 != nil {
			add(d.M2.LengthMM.Known(), d.M2.designation())
		}
		add(d.Gen.Known(), "gen"+strconv.Itoa(int(d.Gen)))
		add(d.Lanes.Known(), d.Lanes.String())
		add(d.Media == Flash, "ssd")
		add(d.Media == Platter, "hdd")
		if d.M2 != nil {
			coded := d.M2.heightCode() != "" // which says keys and sides too
			add(!coded && len(d.M2.Keys) == 1, strings.Join(keyNames(d.M2.Keys), "+")+"-key")
			add(!coded && len(d.M2.Keys) == 2, strings.Join(keyNames(d.M2.Keys), "+"))
			add(!coded && d.M2.TwoSided == quantity.No, "1s")
			add(!coded && d.M2.TwoSided == quantity.Yes, "2s")
			add(d.M2.Heatsink == quantity.Yes, "heatsink")
			add(d.M2.Heatsink == quantity.No, "bare")
		}
		return strings.Join(w, " ")
	}
	if m := p.Module; m != nil {
		switch {
		case !m.SizeBytes.Known():
		case m.SizeBytes%quantity.GiB == 0:
			add(true, strconv.FormatInt(int64(m.SizeBytes/quantity.GiB), 10)+"GB")
		case m.SizeBytes%quantity.MiB == 0:
			add(true, strconv.FormatInt(int64(m.SizeBytes/quantity.MiB), 10)+"MB")
		default:
			add(true, strconv.FormatInt(int64(m.SizeBytes), 10)+"B")
		}
		if m.RateMTps.Known() {
			add(true, memory.Rated{Generation: m.Generation, Label: m.RateMTps}.Name())
			add(mostBase[m.Generation] > 0 && m.RateMTps > mostBase[m.Generation], "base")
		} else {
			add(m.Generation != "", m.Generation.String())
		}
		add(m.ProfileMTps.Known(), "profile-"+strconv.Itoa(int(m.ProfileMTps)))
		add(m.Form == memory.DIMM, "DIMM")
		add(m.Form == memory.SODIMM, "SODIMM")
		add(m.Ranks > 0, strconv.Itoa(m.Ranks)+"R")
		add(m.ECC == quantity.Yes, "ECC")
		add(m.ECC == quantity.No, "non-ECC")
		add(m.Registered == quantity.Yes, "reg")
		add(m.Registered == quantity.No, "unbuffered")
		for _, v := range m.Millivolts {
			add(true, strings.ReplaceAll(v.String(), " ", ""))
		}
	}
	return strings.Join(w, " ")
}

// sold is a capacity as it is sold, or in bytes where it is no sold size.
func sold(b quantity.Bytes) string {
	for _, step := range []struct {
		gb   quantity.Bytes
		name string
	}{{1000, "TB"}, {1, "GB"}} {
		n := (b + step.gb*quantity.GB/2) / (step.gb * quantity.GB)
		if n > 0 && (quantity.DriveBytes(int64(n*step.gb)) == b || n*step.gb*quantity.GB == b && n*step.gb < 50) {
			return strconv.FormatInt(int64(n), 10) + step.name
		}
	}
	return strconv.FormatInt(int64(b), 10) + "B"
}
