package layer

// This file is the way back: not the way out reversed, for a lead is plugged before it is out
// of reach, and what comes out with a cage is loaded before the cage goes in.

import "slices"

// Act is one thing done on the way back. Exactly one of the three is meant: a layer goes back, a
// lead is plugged, or a task is done.
type Act struct {
	Layer int // the layer that goes back, or whose lead it is; -1 for a task
	Lead  int // of that layer, -1 for the layer itself
	Task  int // -1 for none
}

// Task is what is done while the machine is open: something is fitted into places. It is done
// before these are out of reach again, and before the tasks after it in their list where
// Before says so.
type Task struct {
	Places []Named
	Layer  ID    // the layer that it puts in: a card that lies over others; "" for none
	Before []int // tasks that must wait for it
}

// Back is the way back from layers that are off, with tasks done at the right moment, each as
// early as it can be. stuck is what cannot be done, where some of it waits for itself: a lead
// that can never be plugged, a place that is out of reach.
func (s *Stack) Back(off []int, tasks []Task) (acts, stuck []Act) {
	b := way{s: s, off: off}
	for t := range tasks {
		b.nodes = append(b.nodes, Act{Layer: -1, Lead: -1, Task: t})
	}
	// Leads stand before their layer where either will do, so that they are not forgotten;
	// those that must wait stand after it.
	for _, i := range slices.Backward(off) {
		l := &s.Layers[i]
		for k := range l.Leads {
			if l.Leads[k].Again != OnceBack {
				b.nodes = append(b.nodes, Act{i, k, -1})
			}
		}
		b.nodes = append(b.nodes, Act{i, -1, -1})
		for k := range l.Leads {
			if l.Leads[k].Again == OnceBack {
				b.nodes = append(b.nodes, Act{i, k, -1})
			}
		}
	}
	b.waits = make([][]int, len(b.nodes))
	b.layers()
	b.tasks(tasks)
	return b.run()
}

// way is the things to do on the way back, and what each waits for.
type way struct {
	s     *Stack
	off   []int
	nodes []Act
	waits [][]int
}

func (b *way) at(a Act) int { return slices.Index(b.nodes, a) }

// first makes what waits for what.
func (b *way) first(a, then Act) {
	i, n := b.at(a), b.at(then)
	if i >= 0 && n >= 0 && i != n {
		b.waits[n] = append(b.waits[n], i)
	}
}

func on(i int) Act { return Act{i, -1, -1} }

// layers orders layers and their leads: what came off first goes back last.
func (b *way) layers() {
	was := make(set, len(b.s.Layers))
	all := b.s.allWays()
	for _, i := range b.off {
		// It came off by the first of its ways that was clear: that is the one to leave clear.
		if n := slices.IndexFunc(all[i], was.all); n >= 0 {
			for _, over := range all[i][n] {
				b.first(on(i), on(over))
			}
		}
		was[i] = true
		for k := range b.s.Layers[i].Leads {
			lead := &b.s.Layers[i].Leads[k]
			plug := Act{i, k, -1}
			for _, id := range lead.Under {
				b.first(plug, on(b.s.index(id)))
			}
			switch {
			case lead.Again == BeforeBack, lead.Again == "" && lead.Undone == Lifting: // it is within reach only while the layer is off
				b.first(plug, on(i))
			case lead.Again == OnceBack:
				b.first(on(i), plug)
			}
		}
	}
}

// tasks orders tasks before what would hide their places again. Of several ways to a place, one
// that is clear is kept clear.
func (b *way) tasks(tasks []Task) {
	isOff := make(set, len(b.s.Layers)).with(b.off)
	for t := range tasks {
		task := Act{-1, -1, t}
		for _, p := range tasks[t].Places {
			ways := b.s.To(p).Ways
			if n := slices.IndexFunc(ways, isOff.all); n >= 0 {
				for _, over := range ways[n] {
					b.first(task, on(over))
				}
			}
		}
		for _, later := range tasks[t].Before {
			b.first(task, Act{-1, -1, later})
		}
	}
	for t := range tasks { // what a task puts in lies over places and layers like any other
		n := b.s.index(tasks[t].Layer)
		if tasks[t].Layer == "" || n < 0 {
			continue
		}
		task := Act{-1, -1, t}
		for u := range tasks {
			if u != t && slices.ContainsFunc(tasks[u].Places, b.s.Layers[n].hides) {
				b.first(Act{-1, -1, u}, task)
			}
		}
		for _, i := range b.off {
			if slices.Contains(b.s.Layers[i].After, tasks[t].Layer) {
				b.first(on(i), task)
			}
		}
	}
}

// run does what waits for nothing that is open, the first in the list each time.
func (b *way) run() (acts, stuck []Act) {
	done := make([]bool, len(b.nodes))
	for {
		next := -1
		for n := range b.nodes {
			if !done[n] && !slices.ContainsFunc(b.waits[n], func(w int) bool { return !done[w] }) {
				next = n
				break
			}
		}
		if next < 0 {
			break
		}
		done[next] = true
		acts = append(acts, b.nodes[next])
	}
	for n := range b.nodes {
		if !done[n] {
			stuck = append(stuck, b.nodes[n])
		}
	}
	return acts, stuck
}
