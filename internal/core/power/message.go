package power

// This file is what the first screens say: what a message proves, and what it does not.

import (
	"regexp"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/rig"
)

// message is one thing that first screens say.
type message struct {
	name   string // in a Reading's value
	words  *regexp.Regexp
	says   fact.Code
	proves fact.Code
	right  bool // a machine that is well says it too
}

// The messages, by the names that readings of them carry.
const (
	Starts    = "starts"
	NoSystem  = "no system"
	Key       = "key"
	Dark      = "dark"
	Beeps     = "beeps"
	Dead      = "dead"  // no light, no fan
	Loops     = "loops" // it starts and stops again
	CoverOpen = "cover"
	FanError  = "fan"
	ClockLost = "clock" // clock and settings are lost
	Stops     = "stops" // the system stops as it starts
	OldSystem = "old"   // another drive's system starts
	Alarm     = "alarm" // a smell, smoke, sparks, a disk that clicks: work stops
)

// Blind reports a message after which no screen can be read.
func Blind(name string) bool {
	return name == Dark || name == Beeps || name == Dead || name == Loops || name == Alarm
}

// Systemless reports a message after which set-up can be read and the system cannot.
func Systemless(name string) bool { return name == NoSystem || name == Stops || name == Key }

// messages is what is told apart, the more telling words first. Firmware has no common
// words for any of it, so each is known by several.
var messages = []message{
	{Alarm, regexp.MustCompile(`smell|smok|burn|spark|\bclick|grind|scrap(?:es|ing)|too hot`), SaysAlarm, ProvesAlarm, false},
	{OldSystem, regexp.MustCompile(`\b(?:old|former|previous) (?:system|dis[ck]|drive)\b`), SaysOld, ProvesOld, false},
	{Stops, regexp.MustCompile(`inaccessible|stop (?:error|code)|stops (?:as|while|when)|blue screen|kernel panic|crash`), SaysStops, ProvesStops, false},
	{Loops, regexp.MustCompile(`on and off|starts? and stops?|again and again|over and over|\bloop|keeps? (?:restart|start|turn)|turns? itself off|restarts`), SaysLoops, ProvesLoops, false},
	{Dead, regexp.MustCompile(`\bdead\b|no (?:sign|reaction|power)|nothing happens|does ?n[o']t (?:turn|switch|power) on`), SaysDead, ProvesDead, false},
	{NoSystem, regexp.MustCompile(`\bno (?:operating )?system|no boot|boot (?:device|disk|media) not found|insert (?:boot|system)|(?:system|bootable device) (?:was )?not found|missing operating system|select (?:a )?(?:proper )?boot|nothing to boot`), SaysNoSystem, ProvesNoSystem, false},
	{Key, regexp.MustCompile(`recovery key|unlock (?:this|the) drive`), SaysKey, ProvesKey, false},
	{"changed", regexp.MustCompile(`(?:memory|system memory|settings?|configuration|hardware|processor).* (?:has |have |was |were )?changed|new (?:memory|processor)`), SaysChanged, ProvesChanged, true},
	{Dark, regexp.MustCompile(`\bdark\b|\bblack\b|no (?:picture|signal|display|video|image)|nothing (?:on|at all)|blank screen`), StaysDark, ProvesDark, false},
	{CoverOpen, regexp.MustCompile(`\b(?:cover|lid|case|chassis|intrusion)\b`), SaysCover, ProvesCover, false},
	{FanError, regexp.MustCompile(`\bfan\b`), SaysFan, ProvesFan, false},
	{ClockLost, regexp.MustCompile(`\b(?:clock|date|time)\b.*\b(?:wrong|lost|not set|invalid)|\bbattery|checksum|defaults (?:were )?loaded`), SaysClock, ProvesClock, false},
	{Beeps, regexp.MustCompile(`\bbeep|\bcode\b|\bled\b|\blight`), SaysBeeps, ProvesBeeps, false},
	{Starts, regexp.MustCompile(`^(?:it )?(?:starts?|boots?|ok|okay|fine|as before|desktop|log-?in|sign-?in|set-?up)\b`), ItStarts, ProvesStart, true},
}

// other is a message that nothing here knows.
var other = message{name: "other", says: SaysElse, proves: ProvesElse}

// Telling reports a message that says something about the machine: what nothing here knows
// does not.
func Telling(name string) bool { return messageNamed(name).name != other.name }

func messageNamed(name string) message {
	for _, m := range messages {
		if m.name == name {
			return m
		}
	}
	return other
}

// readMessage tells which message was typed, by its name.
func readMessage(typed string) string {
	t := strings.ToLower(strings.Join(strings.Fields(typed), " "))
	for _, m := range messages {
		if m.words.MatchString(t) {
			return m.name
		}
	}
	return other.name
}

// proves is what a message proves, nothing for a reading that is none.
func proves(r Reading) fact.Fact {
	if r.Line.Kind != Message {
		return fact.Fact{}
	}
	return fact.Of(messageNamed(r.Value).proves)
}

// ReadSerial makes a reading of a serial number that a screen shows, if what was typed is
// the number of one of the pieces.
func ReadSerial(b *rig.Rig, id LineID, typed string) (Reading, bool) {
	if id.Kind != Drive && id.Kind != Slot {
		return Reading{}, false
	}
	for i := range b.Pieces {
		if s := b.Pieces[i].Serial; s != "" && SameSerial(s, typed) {
			return Reading{Line: id, Serial: s, Raw: strings.TrimSpace(typed), Origin: Typed}, true
		}
	}
	return Reading{}, false
}

// SameSerial compares serial numbers as labels and screens print them: without regard to
// case, blanks and dashes, and to the words in front.
func SameSerial(a, b string) bool {
	plain := func(s string) string {
		s = strings.ToLower(strings.TrimSpace(s))
		for _, word := range []string{"serial number", "serial no.", "serial", "s/n", "sn:", ":"} {
			s = strings.TrimSpace(strings.TrimPrefix(s, word))
		}
		return strings.NewReplacer(" ", "", "-", "", "_", "").Replace(s)
	}
	return a != "" && plain(a) == plain(b)
}

// otherSerial says whose serial number a line shows that is not the one expected there.
func otherSerial(b *rig.Rig, r Reading, want string) fact.Fact {
	for i := range b.Pieces {
		if p := &b.Pieces[i]; p.Serial != want && SameSerial(p.Serial, r.Serial) {
			return fact.Of(OtherPiece, fact.Typed(r.Serial), p.ID)
		}
	}
	return fact.Of(OtherSerial, fact.Typed(r.Serial))
}
