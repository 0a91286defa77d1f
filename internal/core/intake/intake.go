// Package intake reads the one line with which a job begins: what is wished, and for which
// machine.
//
//	Read("32 GB and a fast 1 TB for HS-0417", sheets, seen)
//
// It says what it took each word for, asks where a word could mean two things, and guesses
// nothing: what no word says stays unsaid. The line itself is kept as the wish's words.
package intake

import (
	"cmp"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Most is how long a line may be, in bytes.
const Most = 300

// Sheet is a machine sheet of the shop by what it may be called.
type Sheet struct {
	ID   machine.ID
	Name string
}

// Seen is a machine that was here before, by the tag it carries.
type Seen struct {
	Job               string // the latest about it
	Tag, Title, Owner string
	Sheet             machine.ID
	Open              bool // that job is not finished
}

// Meaning is some words and what they were taken for.
type Meaning struct {
	Words string
	Says  fact.Fact
}

// Intake is a new job as a line tells it. Means and Open are in the order of the line.
type Intake struct {
	Sheet             machine.ID // "" where the line names no machine
	Title, Tag, Owner string
	Wish              rig.Wish
	Fresh             bool // nothing lies in it yet
	Seen              *Seen
	Means             []Meaning
	Open              []fact.Fact // what is to be said before the job can begin, or could mean two things
}

// What is said of a line.
const (
	TooLong      fact.Code = "intake/too-long"     // the most bytes
	NoMachine    fact.Code = "intake/no-machine"   // which machine is not said
	WhichSize    fact.Code = "intake/which-size"   // words: memory or a drive
	MoreOrAll    fact.Code = "intake/more-or-all"  // words: on top of what is there, or in all
	SaidTwice    fact.Code = "intake/said-twice"   // which field, the words
	IsMemory     fact.Code = "intake/is-memory"    // how much
	IsDrive      fact.Code = "intake/is-drive"     // how much
	IsFastDrive  fact.Code = "intake/is-fast"      // how much
	IsData       fact.Code = "intake/is-data"      // how much
	IsSheet      fact.Code = "intake/is-sheet"     // its name
	IsTag        fact.Code = "intake/is-tag"       // the tag
	WasHere      fact.Code = "intake/was-here"     // its title
	IsHere       fact.Code = "intake/is-here"      // its title: a job about it is open
	IsFresh      fact.Code = "intake/is-fresh"     //
	IsEncrypted  fact.Code = "intake/is-encrypted" //
	IsOpenDisk   fact.Code = "intake/is-not-encrypted"
	IsBackup     fact.Code = "intake/is-backup"    // where
	IsUntouched  fact.Code = "intake/is-untouched" // what
	IsMemoryTest fact.Code = "intake/is-memory-test"
	IsSelfTest   fact.Code = "intake/is-self-test"
	IsLoadTest   fact.Code = "intake/is-load-test"
	Memory       fact.Code = "intake/memory"       // the field
	SystemDrive  fact.Code = "intake/system-drive" // the field
)

var (
	size      = regexp.MustCompile(`(?:\b(\d{1,2}) ?x ?|\b)(\d{1,6})([.,]\d+)? ?(tib|tb|gib|gb|t|g)\b`)
	between   = regexp.MustCompile(`[,;+]|\band\b|\bplus\b|\bwith\b|\bbeside\b`)
	asMemory  = regexp.MustCompile(`\b(?:memory|ram|so-?dimms?|dimms?|ddr\d?|modules?)\b`)
	asDrive   = regexp.MustCompile(`\b(?:ssd|nvme|m\.?2|sata|drives?|disks?|hdd|storage|pcie|system|boot)\b`)
	asData    = regexp.MustCompile(`\b(?:data|archive|scratch|cache|second|further|more\sdrives?)\b`)
	asFast    = regexp.MustCompile(`\b(?:fast|quick|nvme|pcie)\b`)
	fresh     = regexp.MustCompile(`\b(?:a )?(?:new|bare|empty)\s(?:machine|kit)\b|\bnothing\s(?:is |lies )?in\sit\b`)
	plain     = regexp.MustCompile(`\b(?:not|nothing|no\sdisk\sis|isn't)\sencrypted\b`)
	encrypted = regexp.MustCompile(`\bencrypted\b`)
	backup    = regexp.MustCompile(`\bback(?:ed)? ?up\s(?:is )?(?:on|in|at|to)\s([^,;]+)`)
	untouched = regexp.MustCompile(`\b(?:do\snot|don't|must\snot|never)\s(?:touch|wipe|erase)\s([^,;]+)|\bleave\s([^,;]+?)\salone\b`)
	tests     = []struct {
		test rig.Test
		is   *regexp.Regexp
		says fact.Code
	}{
		{rig.MemoryTest, regexp.MustCompile(`\bmemory\stest\b`), IsMemoryTest},
		{rig.SelfTest, regexp.MustCompile(`\bself-?test\b`), IsSelfTest},
		{rig.LoadTest, regexp.MustCompile(`\b(?:load\stest|under\sload)\b`), IsLoadTest},
	}
	model   = regexp.MustCompile(`^.*?\d\S*`) // "Harrier T4" of "Harrier T4 tower"
	orMore  = regexp.MustCompile(`\bor\smore\b`)
	onTop   = regexp.MustCompile(`\b(?:more|extra|another|additional)\b`)
	target  = regexp.MustCompile(`(?:^|[\s,;])for\s(?:the |a |an |our )?`)
	newTag  = regexp.MustCompile(`\b[a-z]{1,6}-?\d{2,8}\b`)
	trailer = regexp.MustCompile(`^(?:(?:the|a|an|our|of|machine)\b|[^\p{L}\p{N}])+|(?:[^\p{L}\p{N}]|\b(?:the|for|in|on)\b)+$`)
)

// reader eats a line: what was read is blanked, so that nothing is read twice and places stay.
type reader struct {
	text  string // as typed
	low   string // the same in small letters, blank where it was read
	found []placed
	out   Intake
}

// placed is something that was found, and where.
type placed struct {
	at      int
	meaning Meaning
	open    fact.Fact
}

// Read reads a line. sheets and seen are what the shop knows.
func Read(text string, sheets []Sheet, seen []Seen) (Intake, error) {
	if len(text) > Most {
		return Intake{}, fact.Err(TooLong, Most)
	}
	text = strings.TrimSpace(strings.Join(strings.Fields(text), " "))
	r := reader{text: text, low: lower(text), out: Intake{Wish: rig.Wish{Text: text}}}
	r.machine(sheets, seen)
	r.remarks()
	r.sizes()
	r.name(sheets)
	slices.SortStableFunc(r.found, func(a, b placed) int { return cmp.Compare(a.at, b.at) })
	for _, f := range r.found {
		if f.open.Is() {
			r.out.Open = append(r.out.Open, f.open)
		} else {
			r.out.Means = append(r.out.Means, f.meaning)
		}
	}
	if r.out.Sheet == "" {
		r.out.Open = append(r.out.Open, fact.Of(NoMachine))
	}
	return r.out, nil
}

// lower makes the letters from A to Z small and leaves every other byte where it is.
func lower(s string) string {
	b := []byte(s)
	for i, c := range b {
		if 'A' <= c && c <= 'Z' {
			b[i] = c + 'a' - 'A'
		}
	}
	return string(b)
}

// eat notes what some words mean and blanks them.
func (r *reader) eat(from, to int, says fact.Fact) {
	r.found = append(r.found, placed{at: from, meaning: Meaning{strings.TrimSpace(r.text[from:to]), says}})
	r.low = r.low[:from] + strings.Repeat(" ", to-from) + r.low[to:]
}

// ask notes a question about some words.
func (r *reader) ask(at int, open fact.Fact) {
	r.found = append(r.found, placed{at: at, open: open})
}

// whole finds a name in the line, not as part of a longer word; -1 for not there.
func (r *reader) whole(name string) int {
	name = lower(name)
	for at := 0; name != ""; {
		i := strings.Index(r.low[at:], name)
		if i < 0 {
			return -1
		}
		i += at
		end := i + len(name)
		if (i == 0 || !wordy(r.low[i-1])) && (end == len(r.low) || !wordy(r.low[end])) {
			return i
		}
		at = i + 1
	}
	return -1
}

func wordy(c byte) bool {
	return c == '-' || c >= '0' && c <= '9' || c >= 'a' && c <= 'z'
}

// machine reads which machine it is: by the tag of one that was here, by the name of a sheet,
// the longest name first.
func (r *reader) machine(sheets []Sheet, seen []Seen) {
	for i := range seen {
		s := &seen[i]
		if at := r.whole(s.Tag); at >= 0 {
			r.out.Seen, r.out.Tag, r.out.Title, r.out.Owner, r.out.Sheet = s, s.Tag, s.Title, s.Owner, s.Sheet
			says := fact.Of(WasHere, fact.Typed(s.Title))
			if s.Open {
				says = fact.Of(IsHere, fact.Typed(s.Title))
			}
			r.eat(at, at+len(s.Tag), says)
			break
		}
	}
	type called struct {
		name  string
		sheet *Sheet
	}
	var names []called
	for i := range sheets {
		s := &sheets[i]
		for _, n := range []string{s.Name, model.FindString(s.Name), string(s.ID), strings.ReplaceAll(string(s.ID), "-", " ")} {
			names = append(names, called{n, s})
		}
	}
	slices.SortStableFunc(names, func(a, b called) int { return cmp.Compare(len(b.name), len(a.name)) })
	for _, n := range names {
		if at := r.whole(n.name); at >= 0 {
			r.out.Sheet = n.sheet.ID
			r.eat(at, at+len(n.name), fact.Of(IsSheet, fact.Typed(n.sheet.Name)))
			return
		}
	}
}

// remarks reads what is said besides sizes.
func (r *reader) remarks() {
	w := &r.out.Wish
	take := func(re *regexp.Regexp, says func(inside string) fact.Fact) {
		if m := re.FindStringSubmatchIndex(r.low); m != nil {
			inside := ""
			for i := 2; i < len(m); i += 2 {
				if m[i] >= 0 {
					inside = strings.TrimSpace(r.text[m[i]:m[i+1]])
				}
			}
			r.eat(m[0], m[1], says(inside))
		}
	}
	take(backup, func(where string) fact.Fact { w.BackedUp = where; return fact.Of(IsBackup, fact.Typed(where)) })
	take(untouched, func(what string) fact.Fact { w.Untouched = what; return fact.Of(IsUntouched, fact.Typed(what)) })
	take(fresh, func(string) fact.Fact { r.out.Fresh = true; return fact.Of(IsFresh) })
	take(plain, func(string) fact.Fact { w.Encrypted = quantity.No; return fact.Of(IsOpenDisk) })
	take(encrypted, func(string) fact.Fact { w.Encrypted = quantity.Yes; return fact.Of(IsEncrypted) })
	for _, t := range tests {
		take(t.is, func(string) fact.Fact { w.Tests = append(w.Tests, t.test); return fact.Of(t.says) })
	}
}

// sizes reads amounts, each by the words that stand with it: up to the next comma or "and".
func (r *reader) sizes() {
	starts := []int{0}
	for _, m := range between.FindAllStringIndex(r.low, -1) {
		starts = append(starts, m[1])
	}
	starts = append(starts, len(r.low))
	for i := range starts[1:] {
		from, to := starts[i], starts[i+1]
		words := r.low[from:to]
		for _, m := range size.FindAllStringSubmatchIndex(words, -1) {
			r.size(from+m[0], from+m[1], words, size.FindStringSubmatch(words[m[0]:m[1]]))
		}
	}
}

// mostBare is the most memory, and leastBare the least drive, that a size without a word for
// either is taken for: kits of memory end where drives begin, with 120 GB to 512 GB on both.
const (
	mostBare  = 96 * quantity.GiB
	leastBare = 513 * quantity.GB
)

func (r *reader) size(from, to int, words string, m []string) {
	n, err := strconv.ParseFloat(m[2]+strings.Replace(m[3], ",", ".", 1), 64)
	if err != nil || n == 0 {
		return
	}
	if count, err := strconv.Atoi(m[1]); err == nil {
		n *= float64(count)
	}
	big := m[4][0] == 't'
	binary, decimal := quantity.Bytes(n*float64(quantity.GiB)), quantity.Bytes(n*float64(quantity.GB))
	if big {
		binary, decimal = binary*1024, decimal*1000
	}
	w := &r.out.Wish
	memory := asMemory.MatchString(words)
	drive := asDrive.MatchString(words) || asData.MatchString(words) || !memory && asFast.MatchString(words)
	if memory == drive { // by neither word, or by both
		memory = !big && binary <= mostBare && !drive
		drive = big || decimal >= leastBare
	}
	printed := fact.Typed(strings.TrimSpace(r.text[from:to]))
	switch {
	case memory == drive:
		r.ask(from, fact.Of(WhichSize, printed))
	case memory && onTop.MatchString(orMore.ReplaceAllString(words, "")):
		r.ask(from, fact.Of(MoreOrAll, printed))
	case memory && w.MemoryBytes != 0:
		r.ask(from, fact.Of(SaidTwice, fact.Of(Memory), printed))
	case memory:
		w.MemoryBytes = binary
		r.eat(from, to, fact.Of(IsMemory, binary))
	case asData.MatchString(words):
		r.eat(from, to, fact.Of(IsData, decimal))
	case w.SystemBytes != 0:
		r.ask(from, fact.Of(SaidTwice, fact.Of(SystemDrive), printed))
	default:
		w.SystemBytes, w.SystemFast = decimal, asFast.MatchString(words)
		says := fact.Of(IsDrive, decimal)
		if w.SystemFast {
			says = fact.Of(IsFastDrive, decimal)
		}
		r.eat(from, to, says)
	}
}

// name reads what the machine is called, behind the last "for": a new tag, and the words
// beside it.
func (r *reader) name(sheets []Sheet) {
	all := target.FindAllStringIndex(r.low, -1)
	if len(all) > 0 {
		from := all[len(all)-1][1]
		to := len(r.low)
		if m := between.FindStringIndex(r.low[from:]); m != nil {
			to = from + m[0]
		}
		if m := newTag.FindStringIndex(r.low[from:to]); m != nil && r.out.Tag == "" {
			r.out.Tag = strings.ToUpper(r.text[from+m[0] : from+m[1]])
			r.eat(from+m[0], from+m[1], fact.Of(IsTag, fact.Typed(r.out.Tag)))
		}
		if r.out.Title == "" {
			var words strings.Builder
			for i := from; i < to; i++ {
				c := r.text[i]
				if r.low[i] == ' ' {
					c = ' '
				}
				words.WriteByte(c)
			}
			title := strings.Join(strings.Fields(words.String()), " ")
			for was := ""; was != title; {
				was, title = title, trailer.ReplaceAllString(title, "")
			}
			if !asData.MatchString(lower(title)) && title != "" {
				letters := []rune(title)
				letters[0] = unicode.ToUpper(letters[0])
				r.out.Title = string(letters)
			}
		}
	}
	if i := slices.IndexFunc(sheets, func(s Sheet) bool { return s.ID == r.out.Sheet }); r.out.Title == "" && i >= 0 {
		r.out.Title = sheets[i].Name
	}
	if r.out.Title == "" {
		r.out.Title = r.out.Tag
	}
}
