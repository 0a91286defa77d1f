package fault

// This file is what a machine shows when something is wrong with it.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// does is how a fault changes the facts of a machine.
type does string

// The ways.
const (
	lift    does = "lift"    // what lies at the place is not found, nor what lies in it
	halve   does = "halve"   // what lies there shows half its size
	move    does = "move"    // what lies there lies elsewhere, and what lies elsewhere there
	set     does = "set"     // a setting is at another value
	speaks  does = "speaks"  // the drive there speaks SATA
	fitted  does = "fitted"  // another processor is fitted
	narrow  does = "narrow"  // the link has so many lanes
	slow    does = "slow"    // the link has this generation
	unseen  does = "unseen"  // the drive is shown in set-up and nowhere else
	offline does = "offline" // the drive is not in the system's list
	boots   does = "boots"   // the drive is not in the boot list
	counts  does = "counts"  // errors are counted
	heats   does = "heats"   // the drive gets hot
	uses    does = "uses"    // the system uses no more than so much
	crawls  does = "crawls"  // a USB link at 480 Mb/s
	says    does = "says"    // the first screens say something else
)

// change is one change of the facts.
type change struct {
	does    does
	at, to  rig.Path
	setting machine.SettingID
	value   string
	n       int64
}

// key tells changes apart.
func key(list []change) string {
	var b strings.Builder
	for _, c := range list {
		b.WriteString(string(c.does) + " " + c.at.String() + " " + c.to.String() + " " + string(c.setting) + " " + c.value + " " + strconv.FormatInt(c.n, 10) + ";")
	}
	return b.String()
}

// variant is one way in which a fault shows, with its share among them.
type variant struct {
	share float64
	do    []change
}

// shown is what a machine shows, line by line, and what it is then. Lines are worked out when
// they are asked for: most are never asked.
type shown struct {
	rig      *rig.Rig
	answer   *fit.Answer
	base     *shown // the machine without a fault, nil for that itself
	foretold *power.Forecast
	altered  map[power.LineID]power.Reading // what is shown otherwise than the rules say
	message  string
}

// show foretells a machine with some changes. Answers are kept: many faults come to the same.
func (c *Case) show(list []change) *shown {
	k := key(list)
	if s, ok := c.worlds[k]; ok {
		return s
	}
	s := &shown{rig: c.rig, answer: &c.answer, base: c.base, message: power.Starts}
	if r, changed := c.changed(list); changed {
		a := fit.Resolve(r)
		s.rig, s.answer = r, &a
	}
	if c.base != nil && s.rig == c.rig {
		s.foretold = c.base.foretold
	} else {
		s.foretold = power.Foretell(s.rig, s.answer)
	}
	if c.base != nil && s.answer.Memory.Slots && s.answer.Memory.Total.High == 0 && c.answer.Memory.Total.High > 0 {
		s.message = power.Beeps // without memory nothing starts
	}
	for _, x := range list {
		s.alter(x)
	}
	c.worlds[k] = s
	return s
}

// line is what a line shows, as far as it can be told. What is not found any more is shown as
// not there.
func (s *shown) line(id power.LineID) (power.Reading, bool) {
	if r, ok := s.altered[id]; ok {
		return r, true
	}
	if id.Kind == power.Message {
		return power.Reading{Line: id, Value: s.message, Origin: power.Foretold}, true
	}
	want, known, there := s.foretold.Shows(id)
	if there || s.base == nil {
		return want, known
	}
	if _, known := s.base.line(id); !known || s.holds(id) {
		return power.Reading{}, false
	}
	return power.Reading{Line: id, Absent: true, Origin: power.Foretold}, true
}

// gone reports a line that shows that something is not there.
func (s *shown) gone(id power.LineID) bool {
	r, _ := s.line(id)
	return r.Absent
}

// holds reports a line about something that is there and found, of which the forecast says
// nothing.
func (s *shown) holds(id power.LineID) bool {
	if id.Array != "" || !id.Socket.IsZero() && s.rig.In(id.Socket) == "" {
		return false
	}
	seen, _, there := s.foretold.Shows(power.LineID{Kind: power.Drive, Socket: id.Socket})
	return !there || !seen.Absent
}

// changed is the rig as the machine finds it after some changes; false is that it is as it was.
func (c *Case) changed(list []change) (*rig.Rig, bool) {
	r, changed := *c.rig, false
	own := func() {
		if !changed {
			r.Setup, changed = r.Clone(), true
			r.Pieces = slices.Clone(r.Pieces)
		}
	}
	for _, x := range list {
		switch x.does {
		case lift:
			if c.staysInBay(x.at) {
				continue
			}
			own()
			r.Placements = slices.DeleteFunc(r.Placements, func(p rig.Placement) bool { return p.Socket.Within(x.at) })
		case move:
			own()
			moves := []rig.Move{{Item: r.In(x.at), Socket: x.to}}
			if other := r.In(x.to); other != "" {
				moves = append(moves, rig.Move{Item: other, Socket: x.at})
			}
			if moves[0].Item == "" {
				continue
			}
			if after, _, err := r.Moved(moves); err == nil {
				r.Setup = after
			}
		case set:
			own()
			r.Settings = slices.DeleteFunc(r.Settings, func(s rig.Choice) bool { return s.Setting == x.setting })
			r.Settings = append(r.Settings, rig.Choice{Setting: x.setting, Value: x.value})
		case fitted:
			own()
			r.Processor = machine.ProcessorID(x.value)
		case halve, speaks:
			own()
			for i := range r.Pieces {
				if p := &r.Pieces[i]; p.ID == r.In(x.at) {
					q := *p.Part
					switch {
					case q.Module != nil:
						m := *q.Module
						m.SizeBytes /= 2
						q.Module = &m
					case q.Drive != nil && x.does == halve:
						d := *q.Drive
						d.CapacityBytes /= 2
						q.Drive = &d
					case q.Drive != nil:
						d := *q.Drive
						d.Protocol, d.Gen, d.Lanes = link.SATA, 3, 0
						q.Drive = &d
					}
					p.Part = &q
				}
			}
		}
	}
	return &r, changed
}

// staysInBay reports a drive on a lead: one that is not found fills its bay and its port still,
// so nothing else changes.
func (c *Case) staysInBay(at rig.Path) bool {
	k := c.socket(at)
	return k != nil && k.Kind == machine.SATA
}

// alter changes what screens show.
func (s *shown) alter(x change) {
	line := func(k power.LineKind, do func(*power.Reading)) {
		id := power.LineID{Kind: k, Socket: x.at}
		if r, known := s.line(id); known && !r.Absent {
			do(&r)
			if s.altered == nil {
				s.altered = map[power.LineID]power.Reading{}
			}
			s.altered[id] = r
		}
	}
	gone := func(r *power.Reading) { *r = power.Reading{Line: r.Line, Absent: true, Origin: power.Foretold} }
	switch x.does {
	case lift: // of a drive that fills its bay still
		if k := s.rig.Socket(x.at); k == nil || k.Kind != machine.SATA {
			break
		}
		for _, k := range []power.LineKind{power.Drive, power.Boots, power.Installs, power.Disk, power.LinkOf, power.Counts, power.Heat} {
			line(k, gone)
		}
		if a := s.rig.ArrayOf(s.rig.In(x.at)); a != nil {
			for _, id := range power.ArrayLines(a.ID) {
				if s.altered != nil {
					s.altered[id] = power.Reading{Line: id, Absent: true, Origin: power.Foretold}
				}
			}
		}
	case narrow:
		line(power.LinkOf, func(r *power.Reading) { r.Lanes = min(r.Lanes, quantity.Lanes(x.n)) })
	case slow:
		line(power.LinkOf, func(r *power.Reading) { r.Gen = min(r.Gen, quantity.Gen(x.n)) })
	case crawls:
		line(power.LinkOf, func(r *power.Reading) { r.Gbps = min(r.Gbps, 0.48) })
	case unseen:
		for _, k := range []power.LineKind{power.Boots, power.Installs, power.Disk, power.LinkOf} {
			line(k, gone)
		}
	case offline:
		line(power.Disk, gone)
	case boots:
		line(power.Boots, gone)
	case counts:
		line(power.Counts, func(r *power.Reading) { r.Value = power.Rising })
	case heats:
		id := power.LineID{Kind: power.Heat, Socket: x.at}
		if _, _, there := s.foretold.Shows(id); there {
			s.altered = map[power.LineID]power.Reading{id: {Line: id, Celsius: quantity.Celsius(x.n), Origin: power.Foretold}}
		}
	case uses:
		line(power.Usable, func(r *power.Reading) { r.Bytes = min(r.Bytes, quantity.Bytes(x.n)) })
	case says:
		s.message = x.value
	}
}

// blind reports that no screen can be read.
func (s *shown) blind() bool { return power.Blind(s.message) }

// foretells is what a line shows; false is that nothing is foretold of it. A line that no
// screen shows, for the machine does not come so far, is out of sight.
func (s *shown) foretells(id power.LineID) (r power.Reading, known, inSight bool) {
	if id.Kind != power.Message && s.blind() || power.Systemless(s.message) && inSystem(id) {
		return power.Reading{}, true, false
	}
	r, known = s.line(id)
	return r, known, true
}

// inSystem reports a line that the running system shows.
func inSystem(id power.LineID) bool {
	switch id.Kind {
	case power.Usable, power.Fitted, power.LinkOf, power.Disk, power.Counts, power.Heat:
		return true
	}
	return id.System
}

// allows reports whether a machine that shows this can have shown a reading.
func (s *shown) allows(got power.Reading) bool {
	want, known, inSight := s.foretells(got.Line)
	switch {
	case !inSight: // what the system would show is not there; of a machine that shows nothing, nothing is read
		return got.Absent && !s.blind()
	case !known && got.Line.Kind == power.LinkOf && !got.Absent && s.speaksSATA(got.Line.Socket):
		return !got.Lanes.Known() // a link with lanes is none of SATA
	case !known:
		return s.foretold.Allows(got)
	case got.Line.Kind == power.Message && !power.Telling(got.Value):
		return true
	case got.Line.Kind == power.Usable && !got.Absent && want.Bytes < s.answer.Memory.Usable.Low: // less than firmware would keep
		return got.Bytes <= want.Bytes+want.Bytes/10
	}
	return power.Agree(want, got, s.rig, s.answer)
}

// speaksSATA reports a place with a drive that speaks SATA.
func (s *shown) speaksSATA(at rig.Path) bool {
	p := s.rig.PieceIn(at)
	return p != nil && p.Part.Drive != nil && p.Part.Drive.Protocol == link.SATA
}

// usable is what a system without 64 bits uses of its memory (fact sheet, fault 6).
const usable = 3_500_000_000

// partOf is the part that lies at a place, nil for none.
func (c *Case) partOf(at rig.Path) *part.Part {
	if p := c.rig.PieceIn(at); p != nil {
		return p.Part
	}
	return nil
}
