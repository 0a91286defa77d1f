package say

import (
	"math"
	"strconv"
	"strings"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// gainWords is what is said of measurements.
var gainWords = map[fact.Code]string{
	job.TransferIs:      "data comes from {0:serial} onto {1:serial}",
	job.TransferNot:     "data does not come from {0:serial} onto {1:serial} after all",
	job.TransferBegun:   "what comes from {0} onto {1} has begun: take its steps back first",
	job.TransferMember:  "{0} is a member of an array: its data comes over with the array, from the running system",
	job.ArrayMoves:      "data comes from {0} onto {1}: give that up first",
	job.TransferTwice:   "two transfers have this number",
	job.WhichTransfer:   "no transfer is given",
	job.WhatProof:       "no proof is given: how many files and bytes were compared",
	job.NothingCopied:   "nothing was copied from {0} onto {1} yet",
	job.LessArrived:     "{0:dec} arrived, and {1:dec} lie on the old drive: compare again, and look what is missing",
	job.Arrived:         "all of {0:serial} was proved to be on {1:serial}: {2} files, {3:dec}",
	job.DoesNotFit:      "what lies on {0} does not fit on {1}",
	job.OtherSectors:    "the logical sectors of {0} and {1} differ in size: a clone does not work, copy files instead",
	job.TransferSame:    "what is on {0} comes onto {1} already",
	job.TogetherTooMuch: "all that comes onto {0} together is {1:dec} more than it has room for",
	job.TargetTaken:     "something else comes onto {0} already",
	job.NothingOnIt:     "{0} is said to be blank: nothing lies on it to be copied",
	job.NeedsFirst:      "{0}: before it, “{1}” must be done",
	job.ProofFirst:      "prove first that all of {0} arrived on {1}: how many files and bytes were compared is noted with the transfer",

	job.LettersAre:    "the volumes of {0} are seen as {1}",
	job.LettersUnsaid: "nobody says where the volumes of {0} are seen",
	job.NoModeNeeded:  "an array of the system needs no setting of the firmware",
	job.PapersAre:     "{0}: warranty until {1:day}, can be returned until {2:day}",
	job.FateIs:        "{0:serial}: {1:fate}",
	job.FateUnsaid:    "{0:serial}: nobody says what became of it",
	job.NoSuchFate:    "{0:quoted} is no place where an old part goes: owner, shelf, returned or recycled",
	job.FateStays:     "{0} is in the machine as planned: only what was taken out goes elsewhere",
	job.OwnerAgreed:   "{0} agreed to what was done",
	job.AgreedNot:     "took back that the owner agreed",
	job.NobodyAgreed:  "nobody agreed yet",
	job.WhoAgreed:     "say who agreed: the owner, or who speaks for the owner",
	job.PlainFitted:   "New in it: {0:plain}.",
	job.PlainMoved:    "In another place than before: {0:plain}.",
	job.PlainOut:      "No longer in it: {0:plain}.",
	job.PlainOutTo:    "No longer in it: {0:plain}; {1:fate}.",
	job.PlainMemory:   "It has {1} of memory; before, it had {0}.",
	job.PlainRoom:     "Its drives have room for {1:dec} in all; before, it was {0:dec}.",
	job.PlainData:     "All files of {0} are on {1} now, and were compared one by one.",

	job.DidMeasure:      "measured: {1}, {2}",
	job.NotMeasured:     "took back a measurement: {0}",
	job.NothingMeasured: "nothing was measured: give at least one series of runs",
	job.NoSuchSeries:    "{0:quoted} is no measurement of this job",
	job.SeriesTwice:     "two measurements have this number",
	job.SeriesIs:        "{0:measured}{1:ofit}",
	job.LooksCached:     "{0} is more than drive and path carry, which is {1} at most: it came out of memory. Measure with a file larger than the memory, or past the cache.",
	job.LooksFair:       "As drive and path allow: {0}.",
	job.LooksShort:      "Drive and path allow {0}: look at the link it runs at, then at its temperature under load, then at how full it is, then at what else works.",
	job.HeldByShared:    "{0:startshared} holds it, for what it shares.",
	job.SmallAre:        "Single small reads come to {0} to {1} on drives of this kind, whatever the link.",
	job.ReadingWas:      "Reading was {0} of the time, and is {1} now: a faster drive can take it to {2} at best.",
	job.ReadingBeyond:   "More was saved than faster reading explains: something else got faster too, such as more memory.",
	job.FewRuns:         "Fewer than {0} runs: the median may be chance. Leave the first out, and measure again.",
	job.RoomUntold:      "Without the level of the room with the machine off, this is both together.",
	job.RoomRough:       "{0:startwhen} it was less than 6 dB above the room: the number is a guide.",
	job.RoomNear:        "{0:startwhen} it was less than 3 dB above the room: {1} at most.",

	job.RoomForDrive:   "A further drive goes into {0}: {1}.",
	job.NoRoomForDrive: "There is no free place for a further drive.",
	job.RoomForMemory:  "More memory goes into {0}.",

	job.LayoutIs:         "{0} gets {1}",
	job.ArrayLayoutIs:    "array {0} gets {1}",
	job.NoLayoutNow:      "{0} gets no volumes",
	job.NoArrayLayoutNow: "array {0} gets no volumes",
	job.WhichLayout:      "no layout is given",
	job.NoSuchLayout:     "{0:quoted} has no layout",
	job.LayoutTwice:      "has two layouts",
	job.LayoutMember:     "{0} is a member of an array: the array gets volumes",
	job.LayoutNoDrive:    "{0} is no drive that can be written on",
	job.ConfirmFirst:     "{0}: this erases. Read the serial number off the drive, and type its last four characters first",
	job.ConfirmPlace:     "{0}: this erases. {1} cannot be told by a serial number: see where it is connected, and type that: {2}",
	job.ConfirmTape:      "{0}: this erases. {1} cannot be told from another connected drive: disconnect the other, or put tape on it, write {2} on the tape, and type that",
	job.ErasesAlone:      "{0}: this erases, and is confirmed by itself, never together with other steps",
	job.ErasesWhat:       "{0} holds something: everything on it will be erased. Confirm that this was agreed",
	job.FateHolds:        "{0} may still hold data: it is wiped first, or goes back to its owner",
	job.LawNotHere:       "{0:serial} is not connected in the machine: fit it first, and reconnect it where it was disconnected",
	job.LawIsInside:      "{0:serial} is still in the machine: take it out first",
	job.LawWaits:         "a copy from {0} onto {1} is not proved: prove that all of it arrived first, or drop that transfer",
	job.LawOneCopy:       "there would be one copy only of what is on {0}: read a second one back, or say where the owner has one",
	job.LawUnlooked:      "nobody said what {0} holds: look at it first, and say so on its card",
	job.LawNoCopy:        "no copy of what is on {1} was read back: see that the backup can be read, or prove a copy of it, before {0} is erased",
	job.WipeTape:         "{0} cannot be told from others by its serial number: put tape on it, write {1} on the tape, and type that",
	job.StepHeld:         "held back: {0}",
	job.WipedIs:          "wiped {0:serial}: {1}",
	job.WipedNot:         "{0} is not wiped after all",
	job.WipeLevel:        "{0:quoted} is no way to wipe: clear, purge or destroy",
	job.WipeNoDrive:      "{0} is no drive",
	job.WipeNotRead:      "read it back after it was wiped, from its beginning, its middle and its end, and say that you did",
	job.WipeConfirm:      "type the last four characters of the serial number of {0}, read off the drive",
	job.NotWiped:         "{0} was not wiped",
	job.WasWiped:         "wiped: {0}{1:by}",
	volume.ClearPlatters: "Overwrite all of it once. A quick format erases nothing.",
	volume.ClearFlash:    "Reset it by its own command; overwriting does not reach the spare blocks of flash. A quick format erases nothing.",
	volume.PurgeATA:      "The ATA sanitize command: block erase. Wait until it says that it has ended.",
	volume.PurgePlatters: "The ATA sanitize command: overwrite, which takes as long as writing all of it.",
	volume.PurgeNVMe:     "The NVMe sanitize command, or format with secure erase, of all namespaces.",
	volume.PurgeUnknown:  "The sanitize command of what it speaks, which nobody said: look on its label.",
	volume.PurgeByKey:    "By its key alone only where it was encrypted from the first day.",
	volume.DestroyFlash:  "Shred or melt it; a drill can miss a chip. It goes to a licensed recycler.",
	volume.DestroyAll:    "Shred or melt it. It goes to a licensed recycler.",
	volume.OntoItself:    "a drive is not copied onto itself",
	volume.MeanTooLarge:  "a file is larger than all of them together",
	volume.NoVolumes:     "no volume is named",
	volume.FourAtMost:    "the older table has four entries",
	volume.BeyondDrive:   "{0:dec} are more than is left, which is {1:dec}",
	volume.RestIsLast:    "only the last volume can take what is left: give a size",
	volume.NothingLeft:   "nothing is left for it",
	volume.TooSmall:      "is smaller than {0}",
	volume.BeyondSystem:  "{0:filesystem} has volumes of {1} at most",
	volume.LabelTooLong:  "{0:filesystem} has labels of {1} letters at most",
	volume.LabelLetters:  "{0:quoted} has a character that labels cannot have",
	volume.NoLetter:      "{0:quoted} is no letter: write C: to Z:",
	volume.NoMount:       "{0:quoted} is no place to mount at: write it like /srv/tides",
	volume.TakenAt:       "{0} is taken",
	volume.TakenLabel:    "another volume is labelled {0}",
	volume.NoSuchSystem:  "{0:quoted} is no file system that is known here",
	volume.NoSuchTable:   "{0:quoted} is no partition table: gpt or mbr",
	volume.OneOfTwo:      "a layout is of a drive or of an array",

	measure.NotMeasured: "is no file of measurements: give the JSON of fio, or CSV with a head line",
	measure.NotJSON:     "is no JSON of measurements: {0}",
	measure.NotCSV:      "is not CSV: {0}",
	measure.NoJobs:      "has no jobs, so nothing was measured",
	measure.NoRate:      "has no rate: it neither read nor wrote",
	measure.NoColumn:    "the head line has no column {0:quoted}: it may name {1}",
	measure.NoSuchWhat:  "{0:quoted} is nothing that is measured: write one of {1}",
	measure.NoSuchWhen:  "{0:quoted} is neither before nor after",
	measure.NoSuchBlock: "{0:quoted} is no size of blocks: write 512 B to 1 GiB, such as 4 KiB",
	measure.NoSuchDepth: "{0:quoted} is no number of requests at once: write 1 to 65536",
	measure.OutOfBounds: "{0:quoted} cannot be: write a number from {1} to {2}, in {3}",
	measure.NoRuns:      "has no run: write at least one number",
	measure.TooManyRuns: "has more than {0} runs",
	measure.OneSubject:  "a series is of a drive or of an array, not of both",
	measure.OnlyOfRates: "only rates have blocks and requests at once",
	measure.OnlyOfSound: "only sounds have a background",
	measure.NeedsName:   "a load time needs a name: what was loaded",
	measure.TooLongName: "is longer than {0} letters",
}

var measuredWords = map[measure.What]string{
	measure.ReadsOn: "Large files, reading", measure.WritesOn: "Large files, writing", measure.Reads: "Small pieces, reading", measure.Writes: "Small pieces, writing",
	measure.Start: "From the button to a system that answers", measure.Load: "Loading", measure.Idle: "Temperature at rest", measure.Hot: "Temperature at work",
	measure.Quiet: "Sound at rest", measure.Loud: "Sound at work",
}

// Gains is what was measured before the work and after it.
type Gains struct {
	Changes []Gained    `json:"changes"`
	Whats   []WhatToAsk `json:"whats"` // what can be measured
}

// WhatToAsk is something that can be measured.
type WhatToAsk struct {
	What measure.What `json:"what"`
	Says Text         `json:"says"`
	Unit measure.Unit `json:"unit"`
	Rate bool         `json:"rate,omitempty"` // of blocks, at a depth
	Loud bool         `json:"loud,omitempty"` // with a background
}

// Gained is one thing before and after.
type Gained struct {
	What    Text            `json:"what"`
	Unit    measure.Unit    `json:"unit"`
	Sound   bool            `json:"sound,omitempty"`
	Verdict measure.Verdict `json:"verdict"`
	Says    Text            `json:"says"`
	Looks   []Text          `json:"looks"`
	Sides   []Measured      `json:"sides"`           // before and after, those that there are
	Allows  float64         `json:"allows,omitzero"` // at most, in its unit
}

// Measured is one side of it.
type Measured struct {
	ID         int          `json:"id"`
	When       measure.When `json:"when"`
	Runs       []float64    `json:"runs"`
	Background []float64    `json:"background,omitempty"`
	Low        float64      `json:"low"` // quartiles and median
	Mid        float64      `json:"mid"`
	Up         float64      `json:"up"`
	Level      float64      `json:"level,omitzero"` // of a sound, without the room's
	AtMost     bool         `json:"atMost,omitempty"`
	Says       Text         `json:"says"`
	By         Name         `json:"by,omitempty"`
	At         time.Time    `json:"at,omitzero"`
	With       Name         `json:"with,omitempty"`
}

// Gains words what was measured.
func (v *Voice) Gains(j *job.Job) Gains {
	out := Gains{Changes: []Gained{}}
	for _, g := range j.Gains() {
		out.Changes = append(out.Changes, v.gained(&g))
	}
	for _, w := range measure.What("").Values() {
		w := measure.What(w)
		out.Whats = append(out.Whats, WhatToAsk{w, v.text(measuredWords[w]), w.Unit(), w.Rate(), w.Sound()})
	}
	return out
}

func (v *Voice) gained(g *job.Gain) Gained {
	any := g.After
	if any == nil {
		any = g.Before
	}
	out := Gained{What: v.text(v.seriesName(any)), Unit: any.What.Unit(), Sound: any.What.Sound(), Verdict: g.Verdict, Looks: []Text{}, Sides: []Measured{}, Says: v.text(gainSays(g))}
	for _, f := range g.Looks {
		out.Looks = append(out.Looks, v.Fact(f))
	}
	if any.What.Rate() && (!any.What.Random() || g.Standing == measure.Cached) { // small pieces are not held by the path
		out.Allows = g.Allows.High.MBps()
	}
	for k, s := range []*measure.Series{g.Before, g.After} {
		if s == nil {
			continue
		}
		spread, heard := []measure.Spread{g.Was, g.Is}[k], []measure.Heard{g.HeardBefore, g.HeardAfter}[k]
		m := Measured{ID: s.ID, When: s.When, Runs: s.Runs, Background: s.Background, Low: spread.Low, Mid: spread.Mid, Up: spread.Up, By: Name(s.By), At: s.At, With: Name(s.With)}
		says := amount(spread.Mid, any.What.Unit())
		if any.What.Sound() {
			m.Level, m.AtMost = heard.Level, heard.AtMost
			says = level(heard)
		}
		m.Says = v.text(says)
		out.Sides = append(out.Sides, m)
	}
	return out
}

// seriesName says what was measured: "Loading: the tide model", "Small pieces, reading: 4 KiB, 1 at once".
func (v *Voice) seriesName(s *measure.Series) string {
	out := measuredWords[s.What]
	var of []string
	if s.Of != "" {
		of = append(of, s.Of)
	}
	if s.BlockBytes > 0 {
		of = append(of, "blocks of "+s.BlockBytes.Binary())
	}
	if s.Depth > 0 {
		of = append(of, strconv.Itoa(s.Depth)+" at once")
	}
	if len(of) > 0 {
		out += ": " + strings.Join(of, ", ")
	}
	return out
}

// amount prints a number in its unit, to three digits that tell something.
func amount(x float64, u measure.Unit) string {
	digits := 0
	switch abs := math.Abs(x); {
	case u == measure.Decibels || u == measure.Celsius || u == measure.Seconds && abs >= 100:
	case abs < 10:
		digits = 2
	case abs < 100:
		digits = 1
	}
	if u == measure.Decibels {
		digits = 1
	}
	whole, rest, _ := strings.Cut(strconv.FormatFloat(x, 'f', digits, 64), ".")
	if n, err := strconv.ParseInt(whole, 10, 64); err == nil && math.Abs(x) >= 1000 {
		whole = quantity.Thousands(n)
	}
	if rest != "" {
		whole += "." + rest
	}
	return whole + " " + string(u)
}

func level(h measure.Heard) string {
	if h.AtMost {
		return "at most " + amount(h.Level, measure.Decibels)
	}
	return amount(h.Level, measure.Decibels)
}

// gainSays is a change in one line.
func gainSays(g *job.Gain) string {
	switch g.Verdict {
	case measure.Lone:
		if g.After == nil {
			return "Measured before the work only: measure it again after."
		}
		return "Measured after the work only: nothing to hold it against."
	case measure.Near:
		return "Too close to the sound of the room to tell."
	}
	u := g.After.What.Unit()
	was, is := amount(g.Was.Mid, u), amount(g.Is.Mid, u)
	better := g.Verdict == measure.Better
	switch {
	case u == measure.Decibels && g.Verdict == measure.Alike:
		return "Less than 3 dB apart: hardly to be noticed."
	case u == measure.Decibels:
		at := map[bool]string{true: "at least ", false: ""}[g.HeardBefore.AtMost || g.HeardAfter.AtMost]
		return at + amountOf(math.Abs(g.By)) + " dB " + map[bool]string{true: "quieter", false: "louder"}[better] + ": " + loudness(math.Abs(g.By), better)
	case g.Verdict == measure.Alike:
		return "No change beyond how far the runs lie apart: " + was + ", then " + is + "."
	case u == measure.Celsius:
		return amountOf(math.Abs(g.By)) + " °C " + map[bool]string{true: "cooler", false: "hotter"}[better] + ": " + was + ", then " + is + "."
	}
	times := g.Factor
	if u == measure.Seconds {
		times = 1 / g.Factor
	}
	how := strconv.FormatFloat(times, 'f', 1, 64) + " times as fast"
	switch {
	case times < 1:
		how = strconv.FormatFloat(100*(1-times), 'f', 0, 64) + " % slower"
	case times < 1.5:
		how = strconv.FormatFloat(100*(times-1), 'f', 0, 64) + " % faster"
	}
	return how + ": " + was + ", then " + is + "."
}

func amountOf(x float64) string { return strconv.FormatFloat(x, 'f', 0, 64) }

// loudness is what a change of so many dB means to an ear.
func loudness(by float64, less bool) string {
	switch {
	case by >= 9.5 && less:
		return "about half as loud."
	case by >= 9.5:
		return "about twice as loud."
	case by >= 5:
		return "plainly noticed."
	}
	return "just noticed."
}

// ArrayChoices is what some drives can come to together.
type ArrayChoices struct {
	Offers  []ArrayOffer `json:"offers"`
	PerYear float64      `json:"perYear"` // the risk that was reckoned with
	Hours   float64      `json:"hours"`
	Years   float64      `json:"years"`
	Says    Text         `json:"says"` // what the risk means
	Makers  []ArrayMaker `json:"makers"`
}

// ArrayMaker is who can make an array, and what hangs on it.
type ArrayMaker struct {
	By   rig.Maker `json:"by"`
	Name Text      `json:"name"`
	Says []Text    `json:"says"`
}

// makerWords says what hangs on who makes an array.
var makerWords = map[rig.Maker][]string{
	rig.ByFirmware: {"The board's firmware", "It is there before the system starts, and can start one.",
		"The installer sees it with the controller's driver only: have that on a stick.",
		"Where the board dies, another with the same kind of controller is needed to read it.",
		"Where firmware is cleared, its mode is lost: set it again before anything is written, and never initialise what then looks blank."},
	rig.BySystem: {"The running system", "No setting and no driver: firmware and installer show each member by itself.",
		"Where the board dies, any machine with this kind of system reads it.",
		"It is there once the system runs: most systems do not start from it.",
		"Parity costs some of the processor while it writes."},
}

// ArrayOffer is one of them.
type ArrayOffer struct {
	Level   rig.Level `json:"level"`
	Name    Text      `json:"name"`
	Usable  Text      `json:"usable"`
	Reads   Text      `json:"reads"`
	Writes  Text      `json:"writes"`
	Loses   Text      `json:"loses"` // the chance of losing data
	OneGone Text      `json:"oneGone"`
	Notes   []Text    `json:"notes"`
}

var levelWords = map[rig.Level]string{
	volume.Apart: "Separate volumes", rig.Joined: "Joined, one behind the other", rig.Stripe: "0: striped", rig.Mirror: "1: mirrored", rig.MirrorsOver: "10: striped mirrors", rig.Parity: "5: one parity", rig.TwoParities: "6: two parities",
}

// chance prints a chance; one that is next to none is told as one in so many.
func chance(x float64) string {
	switch p := x * 100; {
	case x <= 0:
		return "none"
	case p < 0.01:
		n := math.Pow(10, math.Floor(-math.Log10(x)))
		if n >= 1e9 {
			return "less than 1 in 1,000,000,000"
		}
		return "less than 1 in " + quantity.Thousands(int64(n))
	case p < 1:
		return strconv.FormatFloat(p, 'g', 2, 64) + " %"
	default:
		return strconv.FormatFloat(p, 'f', 1, 64) + " %"
	}
}

// ArrayChoices words what drives can come to together.
func (v *Voice) ArrayChoices(offers []volume.Offer, r volume.Risk) ArrayChoices {
	out := ArrayChoices{Offers: []ArrayOffer{}, Makers: []ArrayMaker{}, PerYear: r.PerYear, Hours: r.Hours, Years: r.Years,
		Says: v.text("By drives that fail with a chance of " + chance(r.PerYear) + " a year, apart from one another, and " + strconv.FormatFloat(r.Hours, 'f', -1, 64) + " hours from a failure until a new drive holds its share. Drives of one batch fail together more often. No array is a backup.")}
	for _, by := range []rig.Maker{rig.ByFirmware, rig.BySystem} {
		m := ArrayMaker{By: by, Name: v.text(makerWords[by][0])}
		for _, s := range makerWords[by][1:] {
			m.Says = append(m.Says, v.text(s))
		}
		out.Makers = append(out.Makers, m)
	}
	for _, o := range offers {
		out.Offers = append(out.Offers, v.arrayOffer(&o, r))
	}
	return out
}

func (v *Voice) arrayOffer(o *volume.Offer, r volume.Risk) ArrayOffer {
	a := ArrayOffer{Level: o.Level, Name: v.text(levelWords[o.Level]), Notes: []Text{}}
	note := func(s string) { a.Notes = append(a.Notes, v.text(s)) }
	if a.Usable = v.text("not known: a capacity is not"); o.Usable > 0 {
		a.Usable = v.text(o.Usable.Label() + ", shown as " + o.Usable.Binary())
	}
	a.Reads = v.text("not known")
	if o.Read.High > 0 {
		a.Reads = v.text(between(o.Read, quantity.Rate.String, o.Read.Low == 0, false))
	}
	if a.Writes = v.text("not known"); o.Write > 0 {
		a.Writes = v.text("up to " + o.Write.String())
	}
	years := strconv.FormatFloat(r.Years, 'f', -1, 64) + " years"
	if a.Loses = v.text(chance(o.Loss) + " a year, " + chance(o.LossAll) + " in " + years); o.LossAll < 1e-6 {
		a.Loses = v.text("less than 1 in 1,000,000, even in " + years)
	}
	switch {
	case o.Level == volume.Apart:
		a.OneGone = v.text("what lies on that one is lost, the others stay")
	case o.Survives == 0:
		a.OneGone = v.text("all of it is lost")
	case o.Survives == 1 && o.Luckily == 1:
		a.OneGone = v.text("nothing is lost; a second loses all")
	case o.Luckily > o.Survives:
		a.OneGone = v.text("nothing is lost; a second loses all if it is the other of the pair")
	default:
		a.OneGone = v.text("nothing is lost, up to " + strconv.Itoa(o.Survives) + " may fail")
	}
	if o.Unused > 0 {
		note(o.Unused.Label() + " of the larger drives stay unused.")
	}
	if o.Held.Is() && o.Level != volume.Apart {
		note(v.startShared(o.Held) + " holds them back when all work at once.")
	}
	if o.Filling > 0.005 {
		note("Filling a new drive comes upon a sector that cannot be read with a chance of " + chance(o.Filling) + " by the drives' rating; real drives do better.")
	}
	switch o.Level {
	case volume.Apart:
		note("Erases nothing. Each can be read in another machine.")
	case rig.Stripe:
		note("Erases every member. Start and small files gain next to nothing.")
	default:
		note("Erases every member.")
	}
	return a
}

// spanOf prints a time as people say it: "42 s", "12 min", "3 h 20 min".
func spanOf(seconds float64) string {
	minutes := int(math.Round(seconds / 60))
	switch {
	case seconds < 10:
		return strconv.FormatFloat(seconds, 'f', 1, 64) + " s"
	case seconds < 100:
		return strconv.FormatFloat(seconds, 'f', 0, 64) + " s"
	case minutes < 100:
		return strconv.Itoa(minutes) + " min"
	}
	return quantity.Thousands(int64(minutes/60)) + " h " + strconv.Itoa(minutes%60) + " min"
}

var fileSystems = map[volume.FileSystem]string{volume.NTFS: "NTFS", volume.ExFAT: "exFAT", volume.FAT32: "FAT32", volume.Ext4: "ext4", volume.XFS: "XFS"}
