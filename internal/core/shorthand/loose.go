package shorthand

// This file reads what modules and drives both have, sizes and counts, and tells which of
// the two a line is about.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// What words of both are about.
const (
	count attribute = "count"
	each  attribute = "size of each"
	times attribute = "x4" // pieces, or lanes
	kit   attribute = "kit"
)

// size is a capacity as it was written: its unit means one thing on memory and another on
// a drive.
type size struct {
	word, text string
	each       bool // with a count before it: of one piece
}

const units = `(TiB|GiB|MiB|TB|GB|MB)`

var eitherPhrases = []phrase{
	read(`(\d{1,2}) ?x ?(\d{1,5}(?:\.\d{1,3})?) ?(?:`+units+`|([TG]))?`, func(r *reader, word string, m []string) error {
		if err := r.counted(word, number(m[1])); err != nil {
			return err
		}
		r.sizes = append(r.sizes, size{word, m[2] + unit(m[3]+m[4]), true})
		r.means(word, fact.Of(PiecesOf, number(m[1]), fact.Typed(m[2]+m[3]+m[4])))
		return nil
	}),
	read(`(\d{1,2}) ?(?:x|pcs\.?|pieces|modules|sticks|drives)`, func(r *reader, word string, m []string) error {
		if err := r.counted(word, number(m[1])); err != nil {
			return err
		}
		r.means(word, fact.Of(Pieces, number(m[1])))
		return nil
	}),
	read(`pair(?: of)?`, func(r *reader, word string, _ []string) error {
		if err := r.counted(word, 2); err != nil {
			return err
		}
		r.means(word, fact.Of(Pieces, 2))
		return nil
	}),
	read(`(?:memory )?kit of ([2-8])`, func(r *reader, word string, m []string) error {
		if err := r.counted(word, number(m[1])); err != nil {
			return err
		}
		return r.claim(word, kit, true, fact.Of(IsKit))
	}),
	say(`(?:memory )?kit`, kit, true, IsKit),
	read(`(\d{1,12}(?:\.\d{1,3})?) ?(?:`+units+`|([TG]))`, func(r *reader, word string, m []string) error {
		if m[3] != "" && strings.Contains(word, " ") {
			return errNotThis{}
		}
		r.sizes = append(r.sizes, size{word, m[1] + unit(m[2]+m[3]), false})
		return nil
	}),
	read(`(\d{1,18}) ?B(?:ytes)?`, func(r *reader, word string, m []string) error {
		r.sizes = append(r.sizes, size{word, m[1] + "B", false})
		return nil
	}),
	read(`x ?(\d{1,2})`, func(r *reader, word string, m []string) error {
		return r.set(word, times, number(m[1]))
	}),
	read(`(?:height ?)?(\d{1,3}(?:\.\d{1,2})?) ?mm(?: ?(?:tall|high|thick|long))?`, func(r *reader, word string, m []string) error {
		return r.claim(word, thick, millimetres(m[1]), fact.Of(Measures, millimetres(m[1])))
	}),
	read(`\d{1,12}(?:\.\d{1,3})?`, func(r *reader, word string, _ []string) error {
		r.bare = append(r.bare, word)
		return nil
	}),
}

// unit is the whole name of a unit: "16G" is 16GB.
func unit(s string) string {
	if len(s) == 1 {
		return s + "B"
	}
	return s
}

func (r *reader) counted(word string, n int) error {
	if n < 1 || n > 64 {
		return fact.Err(MeansNothing, word)
	}
	return r.set(word, count, n)
}

// driveOrModule makes the part; where no word tells which of the two it is, it is asked
// and taken for memory meanwhile.
func (r *reader) driveOrModule() error {
	if err := r.numbers(); err != nil {
		return err
	}
	var err error
	of := of[string](r, kindOfPart)
	switch p := &r.out.Part; of {
	case aDrive:
		if p.Drive, err = r.drive(); err != nil {
			return err
		}
		p.Drive.CapacityBytes, err = r.capacity(1<<60, r.driveBytes)
		if p.Drive.Media == part.Optical && err == nil && p.Drive.CapacityBytes.Known() {
			err = fact.Err(OpticalHasNone, r.sizes[0].word)
		}
	default:
		if n, ok := r.claims[times].value.(int); ok {
			if err := r.counted(r.claims[times].word, n); err != nil {
				return err
			}
			r.means(r.claims[times].word, fact.Of(Pieces, n))
		}
		if of == "" {
			r.ask(MemoryOrDrive, "DDR4", "DDR5", "nvme", "sata")
		}
		if p.Module, err = r.module(); err != nil {
			return err
		}
		p.Module.SizeBytes, err = r.capacity(1<<50, quantity.ParseBinary)
	}
	return err
}

// numbers gives numbers without a unit their meaning, once all words are known.
func (r *reader) numbers() error {
	drive := of[string](r, kindOfPart) == aDrive
	for _, word := range r.bare {
		n, whole := strconv.Atoi(word)
		switch {
		case whole == nil && of[string](r, kindOfPart) != aModule && slices.Contains([]int{5400, 5900, 7200}, n):
			if err := r.spins(word, n); err != nil {
				return err
			}
			if err := r.set(word, kindOfPart, aDrive); err != nil {
				return err
			}
			drive = true
		case drive:
			r.driveNumber(word, n, whole == nil)
		case whole == nil && n >= 400 && (len(r.sizes) > 0 || len(r.bare) > 1 || of[string](r, kindOfPart) == aModule || len(r.claims) == 0):
			took, err := r.moduleNumber(word, n)
			if err != nil {
				return err
			}
			if took {
				continue
			}
			fallthrough
		default:
			r.sizes = append(r.sizes, size{word, word + "GB", false})
		}
	}
	return nil
}

// moduleNumber takes a bare number as a speed of memory, where it is one.
func (r *reader) moduleNumber(word string, n int) (bool, error) {
	got, err := memory.Code(word)
	if err != nil {
		return false, nil //nolint:nilerr // it is another kind of number
	}
	var fits []memory.Rated
	for _, s := range got {
		if g := of[memory.Generation](r, family); g == "" || g == s.Generation {
			fits = append(fits, s)
		}
	}
	switch {
	case len(fits) == 0:
		return false, fact.Err(memory.HasNoSpeed, word, of[memory.Generation](r, family), n)
	case r.has(rate): // which settles it
		if !slices.ContainsFunc(fits, func(s memory.Rated) bool { return s.Label == of[quantity.MTps](r, rate) }) {
			return false, fact.Err(TwoAnswers, r.claims[rate].word, word)
		}
	case len(fits) == 1:
		if err := r.speed(word, fits[0]); err != nil {
			return false, err
		}
		r.means(word, fact.Of(IsSpeed, fact.Typed(fits[0].Name()), fact.Typed(fits[0].ModuleName())))
	default:
		names := make([]string, len(fits))
		for i, s := range fits {
			names[i] = s.Name()
		}
		r.ask(WhichSpeed, names...)
	}
	return true, r.set(word, kindOfPart, aModule)
}

// sold is the numbers of gigabytes under which drives are sold, and which are no rates.
var sold = []int{60, 64, 80, 120, 128, 160, 180, 240, 250, 256, 320, 400, 480, 500, 512, 640, 750, 800, 960, 1000, 1024}

// driveNumber takes a bare number as a capacity where it can be nothing else; a number that
// another word has with its unit is settled by that.
func (r *reader) driveNumber(word string, n int, whole bool) {
	if slices.ContainsFunc(r.sizes, func(s size) bool { return s.text == word+"GB" || s.text == word+"TB" }) || whole && (of[float64](r, readRate) == float64(n) || of[int](r, turns) == n) {
		return
	}
	switch {
	case whole && slices.Contains(sold, n):
		r.sizes = append(r.sizes, size{word, word + "GB", false})
	case whole && n > 100:
		r.ask(WhichNumber, word+"GB", word+"MB/s")
	default:
		r.ask(WhichNumber, word+"TB", word+"GB")
	}
}

// driveBytes is what is sold under a name.
func (r *reader) driveBytes(text string) (quantity.Bytes, error) {
	b, err := quantity.ParseBytes(text)
	if gb := int64(b / quantity.GB); err == nil && b%quantity.GB == 0 && gb >= 50 && gb <= 100_000 {
		b = quantity.DriveBytes(gb)
	}
	return b, err
}

// capacity is the size of one piece. A kit may have its sum as well, which must be that.
func (r *reader) capacity(most quantity.Bytes, parse func(string) (quantity.Bytes, error)) (quantity.Bytes, error) {
	n := max(1, of[int](r, count))
	r.out.Count = n
	r.withUnits()
	var one, sum *size
	for i := range r.sizes {
		switch s := &r.sizes[i]; {
		case s.each && one != nil && one.text != s.text:
			return 0, fact.Err(TwoAnswers, one.word, s.word)
		case s.each:
			one = s
		}
	}
	bytes := func(s *size) (quantity.Bytes, error) { return quantity.ParseBytes(s.text) }
	for i := range r.sizes {
		s := &r.sizes[i]
		if s.each {
			continue
		}
		if one == nil {
			one = s
			continue
		}
		a, err := bytes(one)
		if err != nil {
			return 0, err
		}
		b, err := bytes(s)
		if err != nil {
			return 0, err
		}
		switch {
		case a == b:
		case one.each && b == a*quantity.Bytes(n):
			sum = s
		case one.each:
			return 0, fact.Err(KitAgainstSum, n, fact.Typed(one.text), fact.Typed(s.text))
		default:
			return 0, fact.Err(SecondSize, s.word, one.word)
		}
	}
	if one == nil {
		return 0, nil
	}
	b, err := parse(one.text)
	if err != nil {
		return 0, err
	}
	if b > most {
		return 0, fact.Err(quantity.MoreThanAnyDrive, one.word)
	}
	if !one.each {
		r.means(one.word, fact.Of(IsSize, fact.Typed(one.text)))
	}
	if sum != nil {
		r.means(sum.word, fact.Of(IsSumOf, n))
	}
	if r.has(kit) && !one.each {
		r.kitOf(one.text)
	}
	return b, nil
}

// kitOf asks how many pieces a kit has of which only one size is written.
func (r *reader) kitOf(text string) {
	i := strings.IndexFunc(text, func(c rune) bool { return c != '.' && (c < '0' || c > '9') })
	whole, err := strconv.Atoi(text[:i])
	if err != nil {
		return // a kit of halves nobody sells
	}
	counts := []int{2, 4}
	if r.has(count) { // of each, or of all together?
		counts = []int{of[int](r, count)}
	}
	var choices []string
	for _, n := range counts {
		if n > 1 && whole%n == 0 {
			choices = append(choices, strconv.Itoa(n)+"x"+strconv.Itoa(whole/n)+text[i:])
		}
	}
	if r.has(count) {
		choices = append(choices, strconv.Itoa(counts[0])+"x"+text)
	}
	if len(choices) > 0 {
		r.ask(HowManyInKit, choices...)
	}
}

// withUnits gives the numbers after a count their unit, which people leave off: memory is
// sold in gigabytes, and so are drives of a number that is sold; of others it is asked.
func (r *reader) withUnits() {
	drive := of[string](r, kindOfPart) == aDrive
	r.sizes = slices.DeleteFunc(r.sizes, func(s size) bool {
		n, err := strconv.Atoi(s.text)
		if isBare := strings.Trim(s.text, "0123456789.") == ""; !isBare || !drive || err == nil && slices.Contains(sold, n) {
			return false
		}
		if !slices.ContainsFunc(r.sizes, func(o size) bool { return o.each && (o.text == s.text+"TB" || o.text == s.text+"GB") }) {
			c := strconv.Itoa(of[int](r, count)) + "x" + s.text
			r.ask(WhichNumber, c+"TB", c+"GB")
		}
		return true
	})
	for i := range r.sizes {
		if s := &r.sizes[i]; strings.Trim(s.text, "0123456789.") == "" {
			s.text += "GB"
		}
	}
}
