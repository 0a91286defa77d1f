package fit

import (
	"flag"
	"fmt"
	"math/rand"
	"strings"
	"testing"

	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/coretest"
)

// exempt is optional facts whose absence says something: what is not stated there is
// taken as usual, or as not there at all (closed lists).
var exempt = map[string]string{
	"Sheet.Firmware.StartsPCIe": "silent firmware is taken to start from PCIe, as usual",
	"Under":                     "a socket of which nothing is said lies under no card, as usual",
	"Openings":                  "a card covers one opening where nothing else is said, as usual",
	"Heatsink":                  "a card of which no heatsink is told is bare, as usual",
	"WidthMM":                   "22 mm, as usual", "TopMM": "bare cards clear open sockets, as usual", "BottomMM": "as usual", "UnderMM": "as usual", "TwoSided": "as usual",
	"HeightMM": "as usual", "BayMM": "as usual", "Registered": "unbuffered, as usual", "Millivolts": "the generation's, as usual", "LowSlots": "full slots, as usual",
	"LengthMM": "half length or shorter, as usual", "CardMM": "as usual", "Connector": "as long as it is wired, as usual", "PowerDisable": "a label without the pin says nothing of it",
	"Watts": "typical for its generation, as usual", "Reserved": "what graphics keeps", "ReadMBps": "as fast as its link, as usual", "Channel": "no sheet is without", "Class": "what is usual hangs on it",
}

// narrowed is how many machines facts are taken from; make soak asks for more.
var narrowed = flag.Int("narrowed", 300, "random machines in TestMoreKnowledgeNarrows")

// TestMoreKnowledgeNarrows takes optional facts away, one at a time, from random
// machines: no rule gets surer or turns from yes to no or back, and every range then
// contains the old one. All rules are run, and compared on their truths.
func TestMoreKnowledgeNarrows(t *testing.T) {
	tried := 0
	faults := map[string]int{}
	example := map[string]string{}
	for seed := range int64(*narrowed) {
		rng := rand.New(rand.NewSource(seed))
		b := coretest.Machine(rng)
		full := coretest.Copy(&b)
		before := settle(full, allRules)
		all := coretest.Removable(full)
		for range 12 {
			if len(all) == 0 {
				break
			}
			n := rng.Intn(len(all))
			if exempt[all[n].Field] != "" {
				continue
			}
			less := coretest.Copy(full)
			taken := coretest.Removable(less)[n]
			if taken.Field == "Drives" && strings.HasPrefix(taken.About, "socket u2") {
				continue // a U.2 port takes U.2 drives, as usual
			}
			taken.Value.SetZero()
			tried++
			if says := widened(before, settle(less, allRules)); says != "" {
				faults[taken.Field+": "+strings.Fields(says)[0]]++
				example[taken.Field+": "+strings.Fields(says)[0]] = fmt.Sprintf("seed %d without %s of %s: %s", seed, taken.Field, taken.About, says)
			}
		}
	}
	for k, n := range faults {
		t.Errorf("%s: %d times, such as %s", k, n, example[k])
	}
	t.Logf("%d facts taken away", tried)
	if tried < 5**narrowed {
		t.Errorf("only %d facts were taken away", tried)
	}
}

// TestUntoldClassAndChannels takes the class of a machine and the channels of some of its slots away:
// nothing gets surer for it.
func TestUntoldClassAndChannels(t *testing.T) {
	wider := 0
	for seed := range int64(*narrowed) {
		rng := rand.New(rand.NewSource(seed))
		b := coretest.Machine(rng)
		full, less := coretest.Copy(&b), coretest.Copy(&b)
		less.Sheet.Class = machine.Unclassed
		for i := range less.Sheet.Sockets {
			if k := &less.Sheet.Sockets[i]; k.Kind.Memory() && rng.Intn(3) > 0 {
				k.Channel = machine.UntoldChannel
			}
		}
		told, untold := settle(full, allRules), settle(less, allRules)
		if says := widened(told, untold); says != "" {
			t.Errorf("seed %d: %s", seed, says)
		}
		if told.memory.Peak.Exact() && !untold.memory.Peak.Exact() {
			wider++
		}
	}
	if wider < *narrowed/20 {
		t.Errorf("of %d machines only %d had a peak that hung on channels", *narrowed, wider)
	}
}

// widened says what got surer with less known, "" for nothing.
func widened(full, less *resolver) string {
	truths := func(r *resolver) map[string]known.Truth {
		out := map[string]known.Truth{}
		for i := range r.sockets {
			s := &r.sockets[i]
			if s.piece == nil {
				continue
			}
			l := look{resolver: r, s: s}
			for n := range Rules {
				if Rules[n].holds != nil && Rules[n].of&s.kind != 0 && !Rules[n].asks {
					key := string(Rules[n].Code) + " at " + s.path.String()
					if s.inBay() { // in which bay a drive lies is chosen by what is known: a truth is of one bay
						key += fmt.Sprint(" in ", s.berth.id, s.berth.full)
					}
					out[key] = Rules[n].holds(&l)
				}
			}
		}
		return out
	}
	a, b := truths(full), truths(less)
	for k, t := range b {
		if was, ok := a[k]; ok && t != known.Unknown && t != was {
			return fmt.Sprintf("%s: %v, was %v", k, t, was)
		}
	}
	for i := range less.sockets {
		s, was := &less.sockets[i], &full.sockets[i]
		if s.linked && was.linked && s.link.Protocol == was.link.Protocol && !(s.link.Rate.Low <= was.link.Rate.Low && was.link.Rate.High <= s.link.Rate.High) {
			return fmt.Sprintf("link at %s: %v, was %v", s.path, s.link, was.link)
		}
	}
	m, was := &less.memory, &full.memory
	if !m.Total.Holds(was.Total) || len(full.filled) > 0 && !m.MTps.Holds(was.MTps) || // where none works none has a speed
		!m.Peak.Holds(was.Peak) || !m.Usable.Holds(was.Usable) {
		return fmt.Sprintf("memory: %v %v %v, was %v %v %v", m.Total, m.MTps, m.Peak, was.Total, was.MTps, was.Peak)
	}
	flows := less.flows()
	for _, f := range full.flows() {
		for _, g := range flows {
			if g.Item == f.Item && (g.Alone.Low > f.Alone.Low*1.000001 || g.Alone.High < f.Alone.High*0.999999) {
				return fmt.Sprintf("flow of %s: %v, was %v", g.Socket, g.Alone, f.Alone)
			}
		}
	}
	return ""
}
