package fit_test

import (
	"flag"
	"fmt"
	"math/rand"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// machinesTried is how many random machines hold the invariants; make soak asks for more.
var machinesTried = flag.Int("machines", 800, "random machines in TestMachines")

// TestMachines holds what is true of every machine on many random ones.
func TestMachines(t *testing.T) {
	live := 0
	for seed := range int64(*machinesTried) {
		rng := rand.New(rand.NewSource(seed))
		b := coretest.Machine(rng)
		if err := b.Sheet.Validate().Err(); err != nil {
			t.Fatalf("seed %d: %v", seed, err)
		}
		r := fit.Resolve(&b)
		c := invariants{t, seed, &b, &r}
		c.lanes()
		c.ends()
		c.flows()
		c.order(rng)
		c.adding()
		c.offers(rng)
		c.turns()
		for _, s := range r.Sockets {
			if s.State == fit.Live {
				live++
			}
		}
	}
	if live < 6**machinesTried {
		t.Errorf("only %d live sockets in all: the machines are too bad to show anything", live)
	}
}

type invariants struct {
	t    *testing.T
	seed int64
	b    *rig.Rig
	r    *fit.Answer
}

func (c *invariants) fail(format string, args ...any) {
	c.t.Helper()
	c.t.Fatalf("seed %d: %s", c.seed, fmt.Sprintf(format, args...))
}

func (c *invariants) part(id rig.ItemID) *part.Part {
	for _, p := range c.b.Pieces {
		if p.ID == id {
			return p.Part
		}
	}
	return nil
}

// lanes: no lane of a group or of a slot is in use by two links at once.
func (c *invariants) lanes() {
	taken := map[string]rig.Path{}
	for _, s := range c.r.Sockets {
		k := c.b.Socket(s.Socket)
		if s.State != fit.Live || s.Link == nil || s.Link.Protocol != link.PCIe || !s.Link.Lanes.Exact() {
			continue
		}
		pool := "group " + string(k.Group)
		if up := s.Socket.Holder(); s.Socket.Nested() {
			p := c.part(c.r.Socket(up).Item)
			if p.Enclosure != nil || p.Card.Carrier.Switch {
				continue // behind a chip, lanes are its own
			}
			pool = "slot " + up.String()
		}
		width := int(s.Link.Lanes.Low)
		if p := c.part(s.Item); p.Card != nil && p.Card.Carrier != nil && !p.Card.Carrier.Switch {
			width = int(min(s.Link.Lanes.Low, k.Lanes)) // all its positions together
		}
		for lane := k.FirstLane; lane < k.FirstLane+width; lane++ {
			at := fmt.Sprint(pool, " lane ", lane)
			if other, twice := taken[at]; twice {
				c.fail("%s is used by %s and %s", at, other, s.Socket)
			}
			taken[at] = s.Socket
		}
	}
}

// ends: no link is above its part, its socket, or the slot that carries it; and
// what is unknown at an end is never a rate.
func (c *invariants) ends() {
	for _, s := range c.r.Sockets {
		if s.Item == "" || s.Link == nil {
			continue
		}
		p, k := c.part(s.Item), c.b.Socket(s.Socket)
		switch s.Link.Protocol {
		case link.PCIe:
			own := link.Link{}
			if p.Drive != nil {
				own = p.Drive.Link()
			} else {
				own = p.Card.Link()
			}
			lanes := []quantity.Lanes{own.Lanes, k.Lanes}
			at, plain := s.Socket, true
			for at.Nested() && plain { // what a plain card is rated for is no end
				q := c.part(c.r.Socket(at.Holder()).Item)
				if plain = q.Card != nil && !q.Card.Carrier.Switch; plain {
					at = at.Holder()
					lanes = append(lanes, c.b.Socket(at).Lanes)
				}
			}
			gens := []quantity.Gen{own.Gen, c.b.Socket(at).Gen}
			for _, l := range lanes {
				if l.Known() && s.Link.Lanes.High > l || !l.Known() && p.Drive != nil && s.Link.Known() {
					c.fail("%s runs at %v, and one end is %v", s.Socket, s.Link, l)
				}
			}
			for _, g := range gens {
				if g.Known() && s.Link.Gen.High > g {
					c.fail("%s runs at %v, and one end is %v", s.Socket, s.Link, g)
				}
			}
		case link.SATA:
			if p.Drive.Gen.Known() && k.SATAGen.Known() && s.Link.Rate.High > link.SATARate(min(p.Drive.Gen, k.SATAGen)) {
				c.fail("%s runs at %v", s.Socket, s.Link)
			}
		case link.USB:
			if s.Link.Rate.High > min(k.USB.LineRate(), p.Enclosure.USB.LineRate()) {
				c.fail("%s runs at %v", s.Socket, s.Link)
			}
		}
	}
}

// path lists the shared links of a socket with what each carries, by its own
// reading of the machine.
func (c *invariants) path(id rig.Path) map[string]quantity.Rate {
	out := map[string]quantity.Rate{}
	own := id
	for up := id.Holder(); !up.IsZero(); up = up.Holder() {
		own = up
		l := c.r.Socket(up).Link
		switch p := c.part(c.r.Socket(up).Item); {
		case p.Enclosure != nil:
			out["box "+up.String()] = l.Planning().High
		case p.Card.Carrier.Switch:
			out["chip "+up.String()] = l.Planning().High
		}
	}
	for root := c.b.Sheet.RootOf(c.b.Sheet.Socket(own.Top())); root.Uplink != nil; root = c.b.Sheet.Root(root.Uplink.To) {
		up := fit.PCIe(root.Uplink.Link())
		out["uplink "+string(root.ID)] = up.Planning().High
	}
	return out
}

// flows: where all rates are known, no link carries more than it can; nobody moves more
// together than alone; and whoever moves less than alone passes a full link on which
// nobody has more. Where some are not, the low figures are below the high ones.
func (c *invariants) flows() {
	const slack = 1e-6
	sum, most, carries := map[string]quantity.Rate{}, map[string]quantity.Rate{}, map[string]quantity.Rate{}
	sure := true
	for _, f := range c.r.Flows {
		if f.Alone.Low > f.Alone.High || f.Together.Low > f.Together.High || f.Together.High > f.Alone.High*(1+slack) || f.Together.Low > f.Alone.Low*(1+slack) {
			c.fail("%s moves %v alone and %v together", f.Socket, f.Alone, f.Together)
		}
		sure = sure && f.Sure()
		for name, rate := range c.path(f.Socket) {
			carries[name] = rate
			sum[name] += f.Together.High
			most[name] = max(most[name], f.Together.High)
		}
	}
	if !sure {
		return
	}
	for name, rate := range carries {
		if sum[name] > rate*(1+slack) {
			c.fail("%s carries %v of %v", name, sum[name], rate)
		}
	}
	for _, f := range c.r.Flows {
		if f.Together.Low > f.Alone.Low*(1-slack) {
			continue
		}
		held := false
		for name := range c.path(f.Socket) {
			held = held || sum[name] > carries[name]*(1-slack) && f.Together.Low > most[name]*(1-slack)
		}
		if !held {
			c.fail("%s moves %v of %v and could be given more without taking from a smaller one", f.Socket, f.Together, f.Alone)
		}
	}
}

// gist is an answer whole, reasons and all.
func gist(r *fit.Answer) string {
	var lines []string
	add := func(x ...any) { lines = append(lines, plain(x...)) }
	for _, f := range r.Findings {
		add(f.Code, f.Socket, f.Item, f.Says, f.Because, f.Missing, f.Advice)
	}
	for _, s := range r.Sockets {
		add(s.Socket, s.State, s.Item, s.Link, s.Because())
	}
	for _, f := range r.Flows {
		lines = append(lines, fmt.Sprintf("%s %.3f %.3f", f.Socket, f.Alone, f.Together))
	}
	add(r.Memory.Total, r.Memory.MTps, r.Memory.Peak, r.Memory.Regions, r.Memory.Because)
	return strings.Join(lines, "\n")
}

// plain prints values, what they point to in their place.
func plain(x ...any) string {
	out := ""
	for _, v := range x {
		switch a := v.(type) {
		case fact.Fact:
			out += string(a.Code) + "(" + plain(a.Args...) + ") "
		case []fact.Fact:
			for _, f := range a {
				out += plain(f)
			}
		case []fit.Reason:
			for _, why := range a {
				out += plain(why.Fact)
			}
		case *machine.Rule:
			out += a.ID + " "
		case *fit.Link:
			if a != nil {
				out += fmt.Sprint(*a, " ")
			}
		case fit.Feed:
			out += string(a.Root) + " "
		default:
			out += fmt.Sprint(v, " ")
		}
	}
	return out
}

// order: of placements, pieces and rules.
func (c *invariants) order(rng *rand.Rand) {
	other := *c.b
	sheet := *c.b.Sheet
	other.Sheet = &sheet
	other.Placements, other.Pieces, sheet.Rules = slices.Clone(other.Placements), slices.Clone(other.Pieces), slices.Clone(sheet.Rules)
	rng.Shuffle(len(other.Placements), func(i, j int) {
		other.Placements[i], other.Placements[j] = other.Placements[j], other.Placements[i]
	})
	rng.Shuffle(len(other.Pieces), func(i, j int) { other.Pieces[i], other.Pieces[j] = other.Pieces[j], other.Pieces[i] })
	rng.Shuffle(len(sheet.Rules), func(i, j int) { sheet.Rules[i], sheet.Rules[j] = sheet.Rules[j], sheet.Rules[i] })
	again := fit.Resolve(&other)
	if a, b := gist(c.r), gist(&again); a != b {
		for i, line := range strings.Split(a, "\n") {
			if other := strings.Split(b, "\n"); i >= len(other) || other[i] != line {
				c.fail("order matters:\n%s\nagainst\n%s", line, other[min(i, len(other)-1)])
			}
		}
		c.fail("order matters")
	}
}

// adding: with any piece away that brings no sockets, no other is slower; so
// putting it in speeds nothing up, unless it takes another drive's place at the
// shared links by switching that one off.
func (c *invariants) adding() {
	for i, p := range c.b.Placements {
		if c.part(p.Item).Positions() != nil {
			continue
		}
		less := *c.b
		less.Placements = slices.Delete(slices.Clone(c.b.Placements), i, i+1)
		r := fit.Resolve(&less)
		for n, s := range c.r.Sockets {
			if was := r.Sockets[n]; s.Item != "" && s.Item == was.Item && s.State == fit.Live && s.Link != nil && was.Link != nil && (s.Link.Rate.High > was.Link.Rate.High || s.Link.Rate.Low > was.Link.Rate.Low) {
				c.fail("%s in %s makes %s faster: %s against %s", p.Item, p.Socket, s.Socket, s.Link, was.Link)
			}
		}
		killed := slices.ContainsFunc(r.Flows, func(f fit.Flow) bool { // which leaves more for the rest
			return !slices.ContainsFunc(c.r.Flows, func(g fit.Flow) bool { return g.Item == f.Item })
		})
		for _, f := range c.r.Flows {
			for _, g := range r.Flows {
				if !killed && f.Item == g.Item && f.Together.High > g.Together.High*(1+1e-6) {
					c.fail("%s in %s lets %s move more: %v against %v", p.Item, p.Socket, f.Socket, f.Together, g.Together)
				}
			}
		}
		if c.part(p.Item).Module != nil && r.Memory.MTps.High > 0 && c.r.Memory.MTps.High > r.Memory.MTps.High {
			c.fail("module %s speeds memory up: %v against %v", p.Item, c.r.Memory.MTps, r.Memory.MTps)
		}
	}
}

// offers: what is offered for a socket is what moving the piece there comes to, with what
// sits on it, and without what lay there and sat on that.
func (c *invariants) offers(rng *rand.Rand) {
	if len(c.b.Placements) == 0 {
		return
	}
	p := c.b.Placements[rng.Intn(len(c.b.Placements))]
	for _, o := range fit.Offers(c.b, p.Item) {
		moved := *c.b
		setup, _, err := c.b.Moved([]rig.Move{{Item: p.Item, Socket: o.Socket}})
		if err != nil {
			c.fail("%s is offered %s and cannot be moved there: %v", p.Item, o.Socket, err)
		}
		moved.Setup = setup
		r := fit.Resolve(&moved)
		if got := r.Socket(o.Socket); got == nil || got.State != o.State() {
			c.fail("%s is offered %s as %s and comes to %+v", p.Item, o.Socket, o.State(), got)
		}
	}
}

// turns holds that what differs between two answers is told, once, and the other way round as
// the opposite; and that of two equal ones nothing is.
func (c *invariants) turns() {
	if got := fit.Turns(c.r, c.r); len(got) > 0 {
		c.fail("an answer differs from itself: %v", got)
	}
	if len(c.b.Placements) == 0 {
		return
	}
	less := *c.b
	setup, _, err := c.b.Moved([]rig.Move{{Item: c.b.Placements[0].Item}})
	if err != nil {
		c.fail("%s cannot be taken out: %v", c.b.Placements[0].Item, err)
	}
	less.Setup = setup
	after := fit.Resolve(&less)
	back := map[rig.Path]fit.Turn{}
	for _, t := range fit.Turns(&after, c.r) {
		back[t.Socket] = t.Turn
	}
	there := map[rig.Path]fit.Turn{}
	opposite := map[fit.Turn]fit.Turn{fit.NowIn: fit.NowOut, fit.NowOut: fit.NowIn, fit.NowMore: fit.NowLess, fit.NowLess: fit.NowMore}
	for _, t := range fit.Turns(c.r, &after) {
		if _, twice := there[t.Socket]; twice {
			c.fail("%v is told twice", t.Socket)
		}
		there[t.Socket] = t.Turn
		if was, now := back[t.Socket], t.Turn; was != opposite[now] {
			c.fail("%v is %s, and the other way round %s", t.Socket, now, was)
		}
	}
	for i := range c.r.Sockets {
		was := &c.r.Sockets[i]
		now := after.Socket(was.Socket)
		same := now == nil && was.Item == "" || now != nil && now.Item == was.Item && now.State == was.State && plain(now.Link) == plain(was.Link)
		if _, told := there[was.Socket]; told == same {
			c.fail("%v: %v, then %v, told: %v", was.Socket, was, now, told)
		}
	}
}
