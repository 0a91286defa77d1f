package ask

// This file answers the questions of the job's second half: sums of capacities, arrays, copy times,
// sounds and prices.

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// What is said of them, by name.
const (
	SumIs        fact.Code = "ask/sum-is" // capacity
	LessThanNone fact.Code = "ask/less-than-none"
	SumTooLarge  fact.Code = "ask/sum-too-large"
	NoTerm       fact.Code = "ask/no-term" // what was written
	NoDrives     fact.Code = "ask/no-drives"
	TooManyTerms fact.Code = "ask/too-many-terms" // most
	NoLevel      fact.Code = "ask/no-level"       // as given
	LevelNeeds   fact.Code = "ask/level-needs"    // level, least, how many there are
	ArrayHolds   fact.Code = "ask/array-holds"    // capacity
	RawIs        fact.Code = "ask/raw-is"
	UnusedIs     fact.Code = "ask/unused-is"
	MayFail      fact.Code = "ask/may-fail"
	MembersAlike fact.Code = "ask/members-alike"
	MembersAdd   fact.Code = "ask/members-add"
	NoRate       fact.Code = "ask/no-rate"    // as given
	TakesTime    fact.Code = "ask/takes-time" // time
	BytesTake    fact.Code = "ask/bytes-take"
	FilesTake    fact.Code = "ask/files-take"
	ForFiles     fact.Code = "ask/for-files"    // how many, time
	Duration     fact.Code = "ask/duration"     // time
	SlowerHolds  fact.Code = "ask/slower-holds" // rate
	FileCosts    fact.Code = "ask/file-costs"
	NoLevels     fact.Code = "ask/no-levels"     // as given
	LevelIs      fact.Code = "ask/level-is"      // level
	LevelAtMost  fact.Code = "ask/level-at-most" // level
	TogetherLoud fact.Code = "ask/together-loud"
	MeanLoud     fact.Code = "ask/mean-loud"
	WithoutRoom  fact.Code = "ask/without-room"
	PowersAdd    fact.Code = "ask/powers-add"
	TooNearRoom  fact.Code = "ask/too-near-room"
	RoomIsRough  fact.Code = "ask/room-is-rough"
	NoPrice      fact.Code = "ask/no-price"   // the line
	PerGB        fact.Code = "ask/per-gb"     // price
	Cheapest     fact.Code = "ask/cheapest"   // what it is, price
	PriceLine    fact.Code = "ask/price-line" // what it is
)

// Money is a price in the shop's own money.
type Money float64

// mostTerms is how many numbers a question has.
const mostTerms = 64

// term is a capacity, or several of one: "500 GB", "4 x 2 TB", "2x16GiB".
var term = regexp.MustCompile(`(?i)^(?:([0-9]{1,3})\s*[x*×]\s*)?([0-9].*)$`)

// counted reads a term.
func counted(text string) (n int, b quantity.Bytes, err error) {
	text = strings.TrimSpace(text)
	m := term.FindStringSubmatch(text)
	if m == nil {
		return 0, 0, fact.Err(NoTerm, text)
	}
	if n = 1; m[1] != "" {
		n, _ = strconv.Atoi(m[1])
	}
	if n < 1 || n > mostTerms {
		return 0, 0, fact.Err(NoTerm, text)
	}
	b, err = quantity.ParseBytes(m[2])
	return n, b, err
}

// mostSum is more than any shop's drives hold together.
const mostSum = 1 << 61

// Sum adds and takes off capacities: "2 TB + 500 GB - 3 x 120 GB".
func Sum(text string) (Reply, error) {
	var sum quantity.Bytes
	rest, minus := strings.TrimSpace(text), false
	for terms := 0; ; terms++ {
		if terms == mostTerms {
			return Reply{}, fact.Err(TooManyTerms, mostTerms)
		}
		end := strings.IndexAny(rest, "+-−")
		one := rest
		if end >= 0 {
			one = rest[:end]
		}
		n, b, err := counted(one)
		if err != nil {
			return Reply{}, err
		}
		if float64(b)*float64(n) > mostSum || sum > mostSum {
			return Reply{}, fact.Err(SumTooLarge)
		}
		if minus {
			b = -b
		}
		sum += b * quantity.Bytes(n)
		if end < 0 {
			break
		}
		minus, rest = rest[end] != '+', rest[end:]
		rest = strings.TrimSpace(rest[len(string([]rune(rest)[0])):]) // behind the sign, whichever minus it is
	}
	if sum <= 0 {
		return Reply{}, fact.Err(LessThanNone)
	}
	a := reply(fact.Of(SumIs, sum))
	a.inUnits(sum)
	a.because(fit.FromStandard, fact.Of(TenAndTwo))
	return a, nil
}

// Array is what drives of these capacities come to at a level.
func Array(text string, level rig.Level) (Reply, error) {
	var drives []volume.Drive
	for _, one := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ';' || r == '\n' }) {
		if strings.TrimSpace(one) == "" {
			continue
		}
		n, b, err := counted(one)
		if err != nil {
			return Reply{}, err
		}
		for range n {
			drives = append(drives, volume.Drive{Bytes: b})
		}
	}
	switch {
	case len(drives) == 0:
		return Reply{}, fact.Err(NoDrives)
	case len(drives) > mostTerms:
		return Reply{}, fact.Err(TooManyTerms, mostTerms)
	case !slices.Contains(volume.Levels, level):
		return Reply{}, fact.Err(NoLevel, fact.Typed(level))
	case level != volume.Apart && !level.Takes(len(drives)):
		return Reply{}, fact.Err(LevelNeeds, fact.Typed(level), level.Fewest(), len(drives))
	}
	o := volume.Of(level, drives, volume.Usual)
	a := reply(fact.Of(ArrayHolds, o.Usable))
	a.line(InDecimal, fact.Of(DecimalOf, o.Usable))
	a.line(AsPrinted, fact.Of(SystemOf, o.Usable))
	a.line(RawIs, fact.Of(DecimalOf, o.Raw))
	if o.Unused > 0 {
		a.line(UnusedIs, fact.Of(DecimalOf, o.Unused))
	}
	a.line(MayFail, plain(strconv.Itoa(o.Survives)))
	if level == rig.Joined || level == volume.Apart {
		a.because(fit.FromStandard, fact.Of(MembersAdd))
	} else {
		a.because(fit.FromStandard, fact.Of(MembersAlike))
	}
	return a, nil
}

// megabytes reads a rate: "540", "540 MB/s", "7 GB/s".
func megabytes(text string) (quantity.Rate, error) {
	t := strings.TrimSuffix(strings.ToUpper(strings.Join(strings.Fields(text), "")), "/S")
	unit := 1e6
	if s, ok := strings.CutSuffix(t, "GB"); ok {
		t, unit = s, 1e9
	} else {
		t = strings.TrimSuffix(t, "MB")
	}
	v, err := strconv.ParseFloat(strings.Replace(t, ",", ".", 1), 64)
	if err != nil || !(v > 0 && v*unit < 1e12) {
		return 0, fact.Err(NoRate, text)
	}
	return quantity.Rate(v * unit), nil
}

// Copy is how long so much takes from one drive to another; mean is the size of a file on the whole,
// empty for a few large ones.
func Copy(bytes, mean, reads, writes string, flash bool) (Reply, error) {
	var l volume.Load
	var err error
	if l.Bytes, err = quantity.ParseBytes(bytes); err != nil {
		return Reply{}, err
	}
	if strings.TrimSpace(mean) != "" {
		if l.Mean, err = quantity.ParseBytes(mean); err != nil {
			return Reply{}, err
		}
	}
	from, err := megabytes(reads)
	if err != nil {
		return Reply{}, err
	}
	to, err := megabytes(writes)
	if err != nil {
		return Reply{}, err
	}
	all, _ := volume.CopyTime(l, from, to, flash)
	moving, _ := volume.CopyTime(volume.Load{Bytes: l.Bytes}, from, to, flash)
	a := reply(fact.Of(TakesTime, all))
	a.line(BytesTake, fact.Of(Duration, moving))
	if n := l.Files(); n > 0 {
		a.line(FilesTake, fact.Of(ForFiles, fact.Typed(quantity.Thousands(n)), all-moving))
		a.because(fit.FromStandard, fact.Of(FileCosts))
	}
	a.because(fit.FromPart, fact.Of(SlowerHolds, min(from, to)))
	return a, nil
}

// levels reads levels of sound.
func levels(text string) ([]float64, error) {
	var out []float64
	least, most := measure.Decibels.Bounds()
	for _, one := range strings.FieldsFunc(text, func(r rune) bool { return r == ' ' || r == ';' || r == '\n' || r == '\t' }) {
		v, err := strconv.ParseFloat(strings.Replace(one, ",", ".", 1), 64)
		if err != nil || !(v >= least && v <= most) {
			return nil, fact.Err(NoLevels, one)
		}
		out = append(out, v)
	}
	if len(out) > mostTerms {
		return nil, fact.Err(TooManyTerms, mostTerms)
	}
	return out, nil
}

// Sounds is what several sounds come to at once, what they are on the whole, and what is left of that
// without the room.
func Sounds(text, room string) (Reply, error) {
	all, err := levels(text)
	if err != nil {
		return Reply{}, err
	}
	background, err := levels(room)
	if err != nil {
		return Reply{}, err
	}
	if len(all) == 0 {
		return Reply{}, fact.Err(NoLevels, text)
	}
	mean := measure.Mean(all)
	a := reply(fact.Of(LevelIs, measure.Level(mean)))
	a.line(MeanLoud, fact.Of(LevelIs, measure.Level(mean)))
	if len(all) > 1 {
		a.line(TogetherLoud, fact.Of(LevelIs, measure.Level(measure.Sum(all...))))
	}
	a.because(fit.FromStandard, fact.Of(PowersAdd))
	if len(background) == 0 {
		return a, nil
	}
	h := measure.Without(mean, measure.Mean(background))
	code := LevelIs
	if h.AtMost {
		code = LevelAtMost
		a.because(fit.FromStandard, fact.Of(TooNearRoom))
	} else if h.Rough {
		a.because(fit.FromStandard, fact.Of(RoomIsRough))
	}
	a.Says = fact.Of(code, measure.Level(h.Level))
	a.line(WithoutRoom, fact.Of(code, measure.Level(h.Level)))
	return a, nil
}

// offered is a line of prices: a capacity, or several of one, and what all of it costs.
var offered = regexp.MustCompile(`^(.*\S)\s+([0-9]+(?:[.,][0-9]{1,2})?)$`)

// Prices compares kits by what a GB of them costs: a line each, "2x16GB 79.90". The GB is the one that
// is written on the label, whatever it is worth.
func Prices(text string) (Reply, error) {
	var a Reply
	best, what := -1.0, ""
	n := 0
	for _, line := range strings.Split(text, "\n") {
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		if n++; n > mostTerms {
			return Reply{}, fact.Err(TooManyTerms, mostTerms)
		}
		m := offered.FindStringSubmatch(line)
		if m == nil {
			return Reply{}, fact.Err(NoPrice, line)
		}
		count, b, err := counted(m[1])
		if err != nil {
			return Reply{}, err
		}
		price, err := strconv.ParseFloat(strings.Replace(m[2], ",", ".", 1), 64)
		if err != nil || !(price > 0 && price < 1e7) {
			return Reply{}, fact.Err(NoPrice, line)
		}
		each := price / (float64(b) * float64(count) / float64(quantity.GB))
		a.Lines = append(a.Lines, Figure{fact.Of(PriceLine, fact.Typed(m[1])), fact.Of(PerGB, Money(each))})
		if best < 0 || each < best {
			best, what = each, m[1]
		}
	}
	if n == 0 {
		return Reply{}, fact.Err(NoPrice, text)
	}
	a.Says = fact.Of(Cheapest, fact.Typed(what), Money(best))
	return a, nil
}
