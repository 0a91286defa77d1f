package machine

import (
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/problem"
)

// What is doubtful of a sheet that can be kept all the same.
const (
	LiesOn       fact.Code = "machine/lies-on"       // which other socket
	NamedAlike   fact.Code = "machine/named-alike"   // which other socket
	ClosesItself fact.Code = "machine/closes-itself" // the socket
	ChangesNone  fact.Code = "machine/changes-none"  // the socket
	NeverSo      fact.Code = "machine/never-so"      // the condition asks two things that are never true at once
	SaidBefore   fact.Code = "machine/said-before"   // the rule that says it
	SaidOther    fact.Code = "machine/said-other"    // the rule that says otherwise, the socket
)

// Doubts lists what of a sheet that can be kept contradicts itself or can hardly be so:
// mostly a slip of whoever wrote it down. It stops nothing.
func (s *Sheet) Doubts() problem.List {
	d := doubter{sheet: s}
	d.sockets()
	for i := range s.Rules {
		d.rule(i)
	}
	return d.list
}

type doubter struct {
	sheet *Sheet
	list  problem.List
}

// overlap is which share of the smaller of two places the other covers.
func (p Place) overlap(q Place) float64 {
	w := math.Min(float64(p.XMM+p.WidthMM), float64(q.XMM+q.WidthMM)) - math.Max(float64(p.XMM), float64(q.XMM))
	h := math.Min(float64(p.YMM+p.HeightMM), float64(q.YMM+q.HeightMM)) - math.Max(float64(p.YMM), float64(q.YMM))
	if w <= 0 || h <= 0 {
		return 0
	}
	return w * h / math.Min(float64(p.WidthMM*p.HeightMM), float64(q.WidthMM*q.HeightMM))
}

// mostOverlap is how much of a socket another may cover: a place taken off a photograph is a
// few millimetres out, and a socket below another is not drawn on top of it by half.
const mostOverlap = 0.5

func (d *doubter) sockets() {
	alike := strings.NewReplacer("-", "", "_", "", " ", "", ".", "")
	for i := range d.sheet.Sockets {
		a := &d.sheet.Sockets[i]
		for k := range d.sheet.Sockets[:i] {
			b := &d.sheet.Sockets[k]
			if a.Place.overlap(b.Place) > mostOverlap {
				d.list.Add(at("sockets", i, "place"), fact.Of(LiesOn, b.ID))
			}
			if a.ID != b.ID && strings.EqualFold(alike.Replace(string(a.ID)), alike.Replace(string(b.ID))) {
				d.list.Add(at("sockets", i, "id"), fact.Of(NamedAlike, b.ID))
			}
		}
	}
}

func (d *doubter) rule(i int) {
	r := &d.sheet.Rules[i]
	for j, c := range r.When {
		if slices.ContainsFunc(r.When[:j], func(b Condition) bool { return never(b, c) }) {
			d.list.Add(at("rules", i, "when/"+strconv.Itoa(j)), fact.Of(NeverSo))
		}
	}
	for j := range r.Then {
		e := &r.Then[j]
		place := at("rules", i, "then/"+strconv.Itoa(j))
		k := d.sheet.Socket(e.Socket)
		if k == nil {
			continue
		}
		if e.Off && slices.ContainsFunc(r.When, func(c Condition) bool { return c.Socket == k.ID }) {
			d.list.Add(place, fact.Of(ClosesItself, k.ID))
		}
		if e.MaxLanes.Known() && k.Lanes.Known() && e.MaxLanes >= k.Lanes || e.MaxGen.Known() && k.Gen.Known() && e.MaxGen >= k.Gen {
			d.list.Add(place, fact.Of(ChangesNone, k.ID))
		}
	}
	for n := range d.sheet.Rules[:i] {
		b := &d.sheet.Rules[n]
		if !same(r.When, b.When) {
			continue
		}
		for j := range r.Then {
			place := at("rules", i, "then/"+strconv.Itoa(j))
			for k := range b.Then {
				switch e, f := &r.Then[j], &b.Then[k]; {
				case reflect.DeepEqual(e, f):
					d.list.Add(place, fact.Of(SaidBefore, b.ID))
				case e.Socket == f.Socket && e.Socket != "" && opposed(e, f):
					d.list.Add(place, fact.Of(SaidOther, b.ID, e.Socket))
				}
			}
		}
	}
}

// never reports two conditions of one rule that are never both so.
func never(a, b Condition) bool {
	switch {
	case a.Setting != "" && a.Setting == b.Setting:
		return a.Is != b.Is
	case a.Processor != "" && b.Processor != "":
		return a.Processor != b.Processor
	case a.Socket != "" && a.Socket == b.Socket:
		return a.Holds != b.Holds && a.Holds != HoldsAnything && b.Holds != HoldsAnything
	}
	return false
}

// same reports rules that ask the same, in whatever order.
func same(a, b []Condition) bool {
	within := func(a, b []Condition) bool {
		return !slices.ContainsFunc(a, func(c Condition) bool { return !slices.Contains(b, c) })
	}
	return within(a, b) && within(b, a)
}

// opposed reports effects that cannot both be meant of one socket.
func opposed(a, b *Effect) bool {
	only := func(e *Effect) link.Protocol {
		if len(e.Protocols) == 1 {
			return e.Protocols[0]
		}
		return ""
	}
	split := len(a.Split) > 0 && len(b.Split) > 0 && !slices.Equal(a.Split, b.Split)
	return split || only(a) != "" && only(b) != "" && only(a) != only(b)
}
