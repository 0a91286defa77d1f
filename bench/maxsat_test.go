package bench

import (
	"context"
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/crillab/gophersat/maxsat"
	"github.com/crillab/gophersat/solver"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// patience is how long the general solver may take for one problem.
const patience = 60 * time.Second

// What one unit of a criterion weighs, so that the sum orders plans as the planner's
// list does: rates before sockets touched before settings.
const (
	perSetting = 1
	perOpened  = 100
	perMBps    = 10_000
)

// encoding is a monster as clauses. It knows that machine: every drive has its full
// rate wherever it goes, apart from the chipset's uplink; positions of a carrier want
// their slot's split; the graphics card covers the slot after its own.
type encoding struct {
	constrs []maxsat.Constr
}

func at(what part.ID, socket machine.SocketID) maxsat.Lit {
	return maxsat.Var(string(what) + "@" + string(socket))
}

func (e *encoding) hard(lits ...maxsat.Lit) {
	e.constrs = append(e.constrs, maxsat.HardClause(lits...))
}

func (e *encoding) soft(weight int, lit maxsat.Lit) {
	e.constrs = append(e.constrs, maxsat.WeightedClause([]maxsat.Lit{lit}, weight))
}

// exactly asks for so many of the literals.
func (e *encoding) exactly(lits []maxsat.Lit, count int) {
	not, coeffs := make([]maxsat.Lit, len(lits)), make([]int, len(lits))
	for i, l := range lits {
		not[i], coeffs[i] = l.Negation(), 1
	}
	e.constrs = append(e.constrs, maxsat.HardPBConstr(lits, coeffs, count), maxsat.HardPBConstr(not, slices.Clone(coeffs), len(lits)-count))
}

// one asks for at most one of the literals, and for one at least where it must be.
func (e *encoding) one(lits []maxsat.Lit, must bool) {
	if must {
		e.hard(lits...)
	}
	if len(lits) < 2 {
		return
	}
	not, coeffs := make([]maxsat.Lit, len(lits)), make([]int, len(lits))
	for i, l := range lits {
		not[i], coeffs[i] = l.Negation(), 1
	}
	e.constrs = append(e.constrs, maxsat.HardPBConstr(not, coeffs, len(lits)-1))
}

// encode writes the monster of a size; rates is what its drives move alone, all
// together, in MB/s.
func encode(n int) (e *encoding, rates int64) {
	found, pieces, _ := coretest.Monster(n)
	e = &encoding{}
	bySocket := map[machine.SocketID][]maxsat.Lit{}
	var order []machine.SocketID
	var behind []maxsat.Lit
	var loads []int
	slot := func(i int) machine.SocketID { return machine.SocketID(fmt.Sprint("SLOT", i)) }
	setting := func(i int, value string) maxsat.Lit { return maxsat.Var(fmt.Sprint("slot", i, "=", value)) }
	split := map[int][]string{1: {"whole", "two", "four"}, 2: {"four"}, 3: {"two", "four"}, 4: {"four"}}
	// Pieces that nothing tells apart are one class with a count, as somebody who knows
	// such solvers would write it: apart they drown it in plans that are the same.
	type class struct {
		*rig.Piece
		count int
	}
	var classes []*class
	for p := range pieces {
		i := slices.IndexFunc(classes, func(c *class) bool { return c.Part == pieces[p].Part })
		if i < 0 {
			classes = append(classes, &class{Piece: &pieces[p]})
			i = len(classes) - 1
		}
		classes[i].count++
	}
	for _, c := range classes {
		var may []maxsat.Lit
		put := func(id machine.SocketID) maxsat.Lit {
			l := at(c.Part.ID, id)
			if bySocket[id] == nil {
				order = append(order, id)
			}
			bySocket[id] = append(bySocket[id], l)
			may = append(may, l)
			return l
		}
		d := c.Part.Drive
		for i := range found.Sheet.Sockets {
			k := &found.Sheet.Sockets[i]
			if !rig.Suits(c.Part, k) {
				continue
			}
			l := put(k.ID)
			if root := found.Sheet.RootOf(k); d != nil && root.Uplink != nil {
				behind, loads = append(behind, l), append(loads, int(d.ReadMBps))
			}
		}
		if d != nil {
			rates += int64(d.ReadMBps) * int64(c.count)
		}
		if d != nil && d.M2 != nil {
			for i := 1; i <= n; i++ {
				for pos := 1; pos <= 4; pos++ {
					l := put(machine.SocketID(rig.On(slot(i)).Position(pos).String()))
					e.hard(l.Negation(), at("carrier", slot(i)))
					ok := []maxsat.Lit{l.Negation()}
					for _, v := range split[pos] {
						ok = append(ok, setting(i, v))
					}
					e.hard(ok...)
				}
			}
		}
		e.exactly(may, c.count)
	}
	for _, id := range order {
		e.one(bySocket[id], false)
	}
	for i := 1; i <= n; i++ {
		e.one([]maxsat.Lit{setting(i, "whole"), setting(i, "two"), setting(i, "four")}, true)
		e.soft(perSetting, setting(i, "whole"))
		for _, l := range bySocket[slot(i+1)] {
			e.hard(at("card", slot(i)).Negation(), l.Negation())
		}
	}
	// The graphics card was found in the first slot: moved, it touches where it goes,
	// and the first slot too if that stays empty.
	empty := maxsat.Var("SLOT1 is empty")
	e.hard(append([]maxsat.Lit{empty}, bySocket[slot(1)]...)...)
	e.soft(perOpened, at("card", slot(1)))
	e.soft(perOpened, empty.Negation())
	// What the uplink does not carry is lost, in powers of two.
	root := found.Sheet.Root("chipset")
	carries := int(root.Uplink.Link().Planning().MBps())
	lits, coeffs, sum := []maxsat.Lit{}, []int{}, 0
	for i, l := range behind {
		lits, coeffs = append(lits, l.Negation()), append(coeffs, loads[i])
		sum += loads[i]
	}
	for bit := 1; bit < sum; bit *= 2 {
		lost := maxsat.Var(fmt.Sprint("lost ", bit))
		lits, coeffs = append(lits, lost), append(coeffs, bit)
		e.soft(perMBps*bit, lost.Negation())
	}
	e.constrs = append(e.constrs, maxsat.HardPBConstr(lits, coeffs, sum-carries))
	return e, rates
}

// cost is the planner's score in the weights of the encoding.
func cost(s plan.Score, rates int64, pieces int) int64 {
	return perMBps*(rates+s[plan.Rates]) + perOpened*(s[plan.Opened]-int64(pieces-1)) + perSetting*s[plan.Settings]
}

// solve returns the optimum; false where patience ended.
func (e *encoding) solve(b *testing.B) (int64, bool) {
	stop := make(chan struct{})
	results := make(chan solver.Result)
	timer := time.AfterFunc(patience, func() { close(stop) })
	go func() {
		for range results { // better and better; only the last counts
		}
	}()
	got := maxsat.New(e.constrs...).Solver().Optimal(results, stop)
	inTime := timer.Stop()
	if inTime && got.Status != solver.Sat {
		b.Fatal("the encoding has no solution")
	}
	return int64(got.Weight), inTime
}

// BenchmarkMonster is the same problem for the planner and for the general solver,
// one after the other in one run, with the same optimum where both prove one.
func BenchmarkMonster(b *testing.B) {
	for n := 3; n <= 7; n++ {
		found, pieces, wish := coretest.Monster(n)
		in := plan.Input{Found: found, Pieces: pieces, Wish: wish}
		var ours int64
		name := fmt.Sprintf("slots=%d/pieces=%d", n, len(pieces))
		b.Run(name+"/planner", func(b *testing.B) {
			for b.Loop() {
				r, err := plan.Find(context.Background(), in)
				if err != nil || r.End != plan.Optimal {
					b.Fatal(r.End, err)
				}
				_, rates := encode(n)
				ours = cost(r.Best.Score, rates, len(pieces))
			}
			b.ReportMetric(float64(ours), "cost")
		})
		b.Run(name+"/maxsat", func(b *testing.B) {
			e, _ := encode(n)
			for b.Loop() {
				got, inTime := e.solve(b)
				if !inTime {
					b.Skipf("not proved within %v; its best so far weighs %d, the planner's optimum %d", patience, got, ours)
				}
				if got != ours {
					b.Fatalf("the general solver proves %d, the planner %d", got, ours)
				}
				b.ReportMetric(float64(got), "cost")
			}
		})
	}
}
