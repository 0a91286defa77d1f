package layer

// This file finds what makes layers contradict one another. Each fault has its code here and
// its words, with the cure, in say.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/problem"
)

// What can be wrong, by name.
const (
	NamedTwice   fact.Code = "layer/named-twice"
	NoLayer      fact.Code = "layer/no-layer"
	NoPlace      fact.Code = "layer/no-place"
	HidesItself  fact.Code = "layer/hides-itself"
	Circle       fact.Code = "layer/circle"
	OutOfReach   fact.Code = "layer/out-of-reach"
	NeverUndone  fact.Code = "layer/never-undone"
	NeverPlugged fact.Code = "layer/never-plugged"
	MorePoints   fact.Code = "layer/more-points"
	FixedHeld    fact.Code = "layer/fixed-held"
)

// Check reports everything that makes layers contradict one another or name what there is not,
// with its place below the list. places are the sockets and bays of the sheet.
func Check(layers []Layer, places []Named) problem.List {
	c := checker{stack: Stack{Layers: layers}, places: places}
	c.names()
	if len(c.list) > 0 {
		return c.list // what follows would speak of layers that there are not
	}
	if c.circles(); len(c.list) == 0 {
		c.leads()
		c.reach()
	}
	return c.list
}

type checker struct {
	stack  Stack
	places []Named
	list   problem.List
}

func at(i int, rest string) string { return "/" + strconv.Itoa(i) + rest }

func nth(field string, i int) string { return "/" + field + "/" + strconv.Itoa(i) }

func (c *checker) names() {
	for i := range c.stack.Layers {
		l := &c.stack.Layers[i]
		if first := c.stack.index(l.ID); first < i {
			c.list.Add(at(i, "/id"), fact.Of(NamedTwice, fact.Typed(l.ID), first))
		}
		known := func(field string, ids []ID) {
			for k, id := range ids {
				switch {
				case c.stack.index(id) < 0:
					c.list.Add(at(i, nth(field, k)), fact.Of(NoLayer, fact.Typed(id)))
				case id == l.ID && field == "after":
					c.list.Add(at(i, nth(field, k)), fact.Of(HidesItself, fact.Typed(l.Name)))
				}
			}
		}
		known("after", l.After)
		for k := range l.Leads {
			known("leads/"+strconv.Itoa(k)+"/under", l.Leads[k].Under)
			if n := slices.Index(l.Leads[k].Under, l.ID); n >= 0 && l.Leads[k].Undone != Lifting {
				c.list.Add(at(i, nth("leads", k)+nth("under", n)), fact.Of(NeverUndone, fact.Typed(l.Leads[k].For), fact.Typed(l.Name)))
			}
		}
		there := func(pointer string, p Named) {
			if !slices.Contains(c.places, p) {
				c.list.Add(at(i, pointer), fact.Of(NoPlace, fact.Typed(p)))
			}
		}
		each := func(field string, list []Named) {
			for k, p := range list {
				there(nth(field, k), p)
			}
		}
		each("hides", l.Hides)
		each("crowds", l.Crowds)
		each("holds", l.Holds)
		if l.In != "" {
			there("/in", l.In)
		}
		if l.Fixed && len(l.Fasteners)+len(l.Leads) > 0 {
			c.list.Add(at(i, "/fixed"), fact.Of(FixedHeld, fact.Typed(l.Name)))
		}
		for k := range l.Fasteners {
			if f := &l.Fasteners[k]; len(f.At) > f.Count {
				c.list.Add(at(i, nth("fasteners", k)+"/at"), fact.Of(MorePoints, len(f.At), f.Count))
			}
		}
	}
}

// over is one layer that another waits for, and where the sheet says so.
type over struct {
	layer   int
	pointer string
}

func (c *checker) overs(i int) []over {
	l := &c.stack.Layers[i]
	var out []over
	for k, id := range l.After {
		out = append(out, over{c.stack.index(id), nth("after", k)})
	}
	for n := range l.Leads {
		for k, id := range l.Leads[n].Under {
			if id != l.ID {
				out = append(out, over{c.stack.index(id), nth("leads", n) + nth("under", k)})
			}
		}
	}
	return out
}

// circles reports layers that wait for one another.
func (c *checker) circles() {
	state := make([]int, len(c.stack.Layers)) // 1 is being looked at, 2 is done
	var path []int
	var visit func(i int) bool
	visit = func(i int) bool {
		state[i], path = 1, append(path, i)
		for _, o := range c.overs(i) {
			switch state[o.layer] {
			case 1:
				var names []fact.Typed
				for _, n := range path[slices.Index(path, o.layer):] {
					names = append(names, fact.Typed(c.stack.Layers[n].Name))
				}
				c.list.Add(at(i, o.pointer), fact.Of(Circle, names))
				return false
			case 0:
				if !visit(o.layer) {
					return false
				}
			}
		}
		state[i], path = 2, path[:len(path)-1]
		return true
	}
	for i := range state {
		if state[i] == 0 && !visit(i) {
			return
		}
	}
}

// leads reports leads that can never be plugged: they must wait for their layer, and that for
// what would hide the plug.
func (c *checker) leads() {
	all := c.comesOff()
	_, stuck := c.stack.Back(all, nil)
	for _, a := range stuck {
		if a.Lead >= 0 && c.stack.Layers[a.Layer].Leads[a.Lead].Again == OnceBack {
			l := &c.stack.Layers[a.Layer]
			c.list.Add(at(a.Layer, nth("leads", a.Lead)), fact.Of(NeverPlugged, fact.Typed(l.Leads[a.Lead].For), fact.Typed(l.Name)))
		}
	}
}

// comesOff is all layers that come off at all, in order.
func (c *checker) comesOff() []int {
	all := make(set, len(c.stack.Layers))
	for i := range all {
		all[i] = true
	}
	order, _ := comesOff(all, c.stack.allWays())
	return order
}

// reach reports places that cannot be reached.
func (c *checker) reach() {
	asks := c.stack.Search()
	for i := range c.stack.Layers {
		for k, p := range c.stack.Layers[i].Hides {
			if !asks.Reaches(c.stack.To(p)) && c.blame(i) {
				c.list.Add(at(i, nth("hides", k)), fact.Of(OutOfReach, fact.Typed(p), fact.Typed(c.stack.Layers[i].Name)))
			}
		}
	}
}

// blame reports a layer that does not come off, or lies under one that does not.
func (c *checker) blame(i int) bool {
	return !slices.Contains(c.comesOff(), i)
}
