// Package shorthand reads the words people type and what is printed on labels as parts,
// and writes parts as such words.
//
//	Read("2x16GB 2Rx8 PC3L-12800S-11-11-F3") // two modules, with all the label says
//	Read("x16 carrier 4x m.2 2280 no switch") // a card with four positions
//
// Each word claims something of one fact. Nothing is guessed: what no word says stays
// unknown and is named, what could mean two things is asked, two words that say different
// things of one fact are refused, and so is a word that means nothing.
package shorthand

import (
	"regexp"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
)

// Ask is a question that the words leave open: they could mean several things.
type Ask struct {
	About   fact.Code
	Choices []string // words that settle it when added to the text
}

// Meaning is a word and what it was taken for.
type Meaning struct {
	Word string
	Says fact.Fact
}

// Reading is what a line was taken to mean.
type Reading struct {
	Count   int // how many pieces: 2 for a kit of two
	Part    part.Part
	Serials []string // of the pieces, as printed
	Means   []Meaning
	Unknown []fact.Fact // what the words do not say
	Asks    []Ask       // what must be settled before the part is complete
}

// Most is how long a line may be.
const Most = 300

// Keep is Read for a part that is to be kept: what must still be settled, and what makes
// the part impossible, are problems.
func Keep(text string) (Reading, problem.List) {
	got, err := Read(text)
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

// Read reads one line about one kind of part: shorthand, or what is printed on its label.
func Read(text string) (Reading, error) {
	if len(text) > Most {
		return Reading{}, fact.Err(TooLong, Most)
	}
	r := reader{left: plainText.Replace(text), out: Reading{Count: 1}, claims: map[attribute]claim{}}
	if strings.TrimSpace(r.left) == "" {
		return Reading{}, fact.Err(NothingTyped)
	}
	if err := r.read(); err != nil {
		return Reading{}, r.hinted(err)
	}
	r.identify()
	return r.out, nil
}

// hinted adds to a word that means nothing which words do.
func (r *reader) hinted(err error) error {
	if f := fact.From(err); f.Code == MeansNothing {
		return fact.Err(MeansNothing, f.Args[0], fact.Of(hints[r.kind]))
	}
	return err
}

func (r *reader) read() error {
	r.names()
	r.kind = kindOf(r.left)
	for r.skip(); r.left != ""; r.skip() {
		if err := r.next(); err != nil {
			return err
		}
	}
	return r.build()
}

// plainText makes one character of those that print alike.
var plainText = strings.NewReplacer("×", "x", "″", `"`, "”", `"`, "“", `"`, "–", "-", "‑", "-", " ", " ", "·", " ", "_", " ")

// reader gathers what the words claim before it is clear what the part is.
type reader struct {
	left   string // what is not read yet
	kind   kind
	out    Reading
	claims map[attribute]claim
	bare   []string // numbers without a unit
	sizes  []size
}

// claim is what a word says of one fact.
type claim struct {
	word  string
	value any
}

// attribute is a fact of a part that words are about.
type attribute string

// phrase is a way to say something: the pattern is tried where a word begins and must end
// where one ends.
type phrase struct {
	pattern *regexp.Regexp
	take    func(r *reader, word string, m []string) error
}

// say is a phrase that claims one value, whatever else it says.
func say(pattern string, a attribute, value any, means fact.Code, args ...any) phrase {
	return read(pattern, func(r *reader, word string, _ []string) error {
		return r.claim(word, a, value, fact.Of(means, args...))
	})
}

func read(pattern string, take func(r *reader, word string, m []string) error) phrase {
	return phrase{regexp.MustCompile(`^(?i:` + pattern + `)(?:$|[\s,;()\[\]|]+)`), take}
}

// skip leaves out what stands between words.
func (r *reader) skip() { r.left = strings.TrimLeft(r.left, apart) }

// next reads one word or phrase.
func (r *reader) next() error {
	for _, d := range dialects[r.kind] {
		for i := range d.phrases {
			m := d.phrases[i].pattern.FindStringSubmatch(r.left)
			if m == nil {
				continue
			}
			word := strings.TrimRight(m[0], apart)
			err := d.phrases[i].take(r, word, m)
			if notThis(err) {
				continue
			}
			r.left = r.left[len(m[0]):]
			if err == nil && d.of != "" {
				if old, ok := r.claims[kindOfPart]; ok && old.value != d.of {
					return fact.Err(WordsOfTwoKinds, old.word, word)
				} else if !ok {
					r.claims[kindOfPart] = claim{word, d.of}
				}
			}
			return err
		}
	}
	word, _, _ := strings.Cut(r.left, " ")
	return fact.Err(MeansNothing, strings.TrimRight(word, apart))
}

// apart is what stands between words.
const apart = " \t\r\n,;()[]|"

// errNotThis is of a phrase that looks like what it is not: others are tried.
type errNotThis struct{}

func (errNotThis) Error() string { return "" }

func notThis(err error) bool { _, is := err.(errNotThis); return is } //nolint:errorlint // it is never wrapped

// means keeps what a word was taken for.
func (r *reader) means(word string, f fact.Fact) {
	r.out.Means = append(r.out.Means, Meaning{word, f})
}

// claim keeps what a word says of a fact; a second word may say the same.
func (r *reader) claim(word string, a attribute, value any, means fact.Fact) error {
	if err := r.set(word, a, value); err != nil {
		return err
	}
	r.means(word, means)
	return nil
}

// set is claim for one of several facts that a word is about.
func (r *reader) set(word string, a attribute, value any) error {
	if old, ok := r.claims[a]; ok && old.value != value {
		return fact.Err(TwoAnswers, old.word, word)
	}
	r.claims[a] = claim{word, value}
	return nil
}

// of is what is claimed of a fact, the zero value where nothing is.
func of[T any](r *reader, a attribute) T {
	v, _ := r.claims[a].value.(T)
	return v
}

func (r *reader) has(a attribute) bool { _, ok := r.claims[a]; return ok }

// ask leaves something open.
func (r *reader) ask(about fact.Code, choices ...string) {
	r.out.Asks = append(r.out.Asks, Ask{about, choices})
}

// lacks names a fact that no word is about.
func (r *reader) lacks(known bool, what fact.Code) {
	if !known {
		r.out.Unknown = append(r.out.Unknown, fact.Of(what))
	}
}

// What a person or a maker calls the thing, wherever it stands in the line.
var (
	named    = regexp.MustCompile(`(?:^|\s)"([^"\s][^"]{0,118})"(?:$|[\s,;])`)
	numbered = regexp.MustCompile(`(?i)(?:^|[\s,;])(?:P/N|PN|part no\.?|number)[:\s]\s*([^\s,;]{1,80})`)
	serial   = regexp.MustCompile(`(?i)(?:^|[\s,;])(?:S/N|SN|serial(?: no\.?)?)[:\s]\s*([^\s,;]{1,80})`)
)

// mark ends in what stands before a number on labels, with a colon between.
var mark = regexp.MustCompile(`(?i)(?:^|\s)(?:S/N|SN|P/N|PN|serial(?: no\.?)?|part no\.?|number)$`)

// EndsInMark reports whether a colon after these words belongs to a label: "S/N: 0093318".
func EndsInMark(words string) bool { return mark.MatchString(words) }

// names takes name, number and serial numbers out of the line.
func (r *reader) names() {
	take := func(p *regexp.Regexp, means fact.Code, keep func(string)) bool {
		at := p.FindStringSubmatchIndex(r.left)
		if at == nil {
			return false
		}
		word, value := strings.Trim(r.left[at[0]:at[1]], " \t\r\n,;"), strings.TrimSpace(r.left[at[2]:at[3]])
		r.left = r.left[:at[0]] + " " + r.left[at[1]:]
		keep(value)
		r.means(word, fact.Of(means, fact.Typed(value)))
		return true
	}
	take(named, IsNamed, func(v string) { r.out.Part.Name = v })
	take(numbered, IsNumbered, func(v string) { r.out.Part.Number = v })
	for len(r.out.Serials) < 64 && take(serial, HasSerial, func(v string) { r.out.Serials = append(r.out.Serials, v) }) {
	}
}

// identify gives the part its head, and a name where nobody gave one.
func (r *reader) identify() {
	p := &r.out.Part
	p.Format, p.Version = part.Format, part.Version
	words := written(p)
	if p.Name == "" {
		p.Name = words
	} else {
		words = p.Name + " " + words
	}
	p.ID = part.ID(slug(words))
}

// slug is an id made of words.
func slug(s string) string {
	var b strings.Builder
	for _, c := range strings.ToLower(s) {
		if c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c == '.' {
			b.WriteRune(c)
		} else if b.Len() > 0 && !strings.HasSuffix(b.String(), "-") {
			b.WriteByte('-')
		}
	}
	out := strings.TrimLeft(b.String(), "-.")
	if out = strings.TrimRight(out[:min(60, len(out))], "-."); out != "" {
		return out
	}
	return "part"
}

// kind is what a line is about: which words it may have.
type kind int

// The kinds. Modules and drives have no noun that must be there: until a word tells them
// apart a line may be about either.
const (
	loose kind = iota
	slotCard
	box
	lead
	powerLead
	supplyLead
	holder
)

// hints name the words of a kind, for one that means nothing.
var hints = map[kind]fact.Code{loose: HintLoose, slotCard: HintCard, box: HintBox, lead: HintLead, powerLead: HintPower, supplyLead: HintSupply, holder: HintHolder}

// nouns tell the kind of a line; the first that stands in it does.
var nouns = []struct {
	pattern *regexp.Regexp
	kind    kind
}{
	{noun(`(?:(?:supply|psu|modular)(?: supply| psu)? (?:leads?|cables?))`), supplyLead},
	{noun(`(?:power (?:adapters?|splitters?|leads?|cables?)|(?:molex|4-pin peripheral|sata|slimline(?: sata)?|6-pin|8-pin) to (?:[1-4] ?x ?)?(?:molex|4-pin peripheral|sata|slimline(?: sata)?|6-pin|8-pin|12V-2x6)|splitters?)`), powerLead},
	{noun(`(?:brackets?|cadd(?:y|ies)|sleds?|spacers?|screws?)`), holder},
	{noun(`(?:data (?:lead|cable)s?|(?:lead|cable)s?)`), lead},
	{noun(`(?:box|enclosure|dock(?:ing station)?)`), box},
	{noun(`(?:cards?|carrier|adapter|controller|gpu|nic)`), slotCard},
}

func noun(words string) *regexp.Regexp {
	return regexp.MustCompile(`(?i)(?:^|[\s,;()])` + words + `(?:$|[\s,;()])`)
}

func kindOf(text string) kind {
	for _, n := range nouns {
		if n.pattern.MatchString(text) {
			return n.kind
		}
	}
	return loose
}

// dialect is phrases, and what a part is by each of them, where that tells it.
type dialect struct {
	of      string
	phrases []phrase
}

// dialects is the phrases of each kind, in the order in which they are tried.
var dialects map[kind][]dialect

func init() { // the phrases of kinds refer to the reader, which refers to them
	dialects = map[kind][]dialect{
		loose:      {{aModule, modulePhrases}, {aDrive, drivePhrases}, {"", eitherPhrases}},
		slotCard:   {{"", cardPhrases}},
		box:        {{"", boxPhrases}},
		lead:       {{"", leadPhrases}},
		powerLead:  {{"", powerPhrases}},
		supplyLead: {{"", supplyPhrases}},
		holder:     {{"", holderPhrases}},
	}
}

// kindOfPart is claimed by words that modules, or drives, alone have.
const kindOfPart attribute = "kind"

// What it is claimed to be.
const (
	aModule = "module"
	aDrive  = "drive"
)

// build makes the part of what was claimed.
func (r *reader) build() error {
	switch r.kind {
	case slotCard:
		return r.card()
	case box:
		return r.box()
	case lead, powerLead, supplyLead, holder:
		return r.fitting()
	}
	return r.driveOrModule()
}

// number reads digits that a pattern let in.
func number(s string) int {
	n := 0
	for _, c := range s {
		n = min(n*10+int(c-'0'), 1<<30)
	}
	return n
}
