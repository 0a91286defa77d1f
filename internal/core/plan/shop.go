package plan

// This file goes from a wish to parts: which of those on the shelf to take, together
// with where they go.

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
)

// Need is what parts are looked for: at least so much, for at most so much.
type Need struct {
	MemoryBytes quantity.Bytes `json:"memoryBytes,omitzero" jsonschema:"minimum=1"` // in the machine, with what may stay
	SystemBytes quantity.Bytes `json:"systemBytes,omitzero" jsonschema:"minimum=1"` // one drive for the system
	SystemFast  bool           `json:"systemFast,omitempty"`                        // over PCIe
	DataBytes   quantity.Bytes `json:"dataBytes,omitzero" jsonschema:"minimum=1"`   // further drives, of one kind, together
	AtMost      shelf.Cents    `json:"atMostCents,omitzero" jsonschema:"minimum=1"`
}

// Basket is parts that meet a need and the plan they make.
type Basket struct {
	Picks []Pick
	Cents shelf.Cents
	Says  []fact.Fact // the first: what it comes to; those after: what the money more buys
	score Score
}

// Pick is so many of one part.
type Pick struct {
	Part  part.ID `json:"part"`
	Name  string  `json:"name"`
	Count int     `json:"count"`
}

// Shopping is the baskets worth their money, the cheapest first: each is better by
// the criteria than all that cost less.
type Shopping struct {
	Baskets []Basket
	Says    fact.Fact // how many were looked at, or why there is none
}

// baskets is how many combinations of parts are looked at, at most.
const baskets = 400

// Shop finds the baskets for a need. Parts without a price are left out, for nobody
// could say what a basket costs.
func Shop(ctx context.Context, in Input, need Need, stock []shelf.Stock) (Shopping, error) {
	in.Order = in.order()
	in.Wish.MemoryBytes, in.Wish.SystemBytes, in.Wish.SystemFast = need.MemoryBytes, need.SystemBytes, need.SystemFast
	in = in.empty()
	stock = slices.DeleteFunc(slices.Clone(stock), func(e shelf.Stock) bool { return e.Count == 0 || e.Price == 0 })
	all, tooMany := in.combine(need, stock)
	var out Shopping
	looked, dear := 0, 0
	for i := range all {
		b := &all[i]
		if need.AtMost > 0 && b.Cents > need.AtMost {
			dear++
			continue
		}
		try := in
		try.Pieces = slices.Clone(in.Pieces)
		for _, p := range b.Picks {
			e := stocked(stock, p.Part)
			for range p.Count {
				try.Pieces = append(try.Pieces, rig.Piece{ID: rig.ItemID(fmt.Sprint("shelf/", len(try.Pieces))), Part: &e.Part, New: true})
			}
		}
		r, err := Find(ctx, try)
		if err != nil {
			return out, err
		}
		looked++
		if r.End != Optimal {
			continue
		}
		b.score = r.Best.Score
		if n := len(out.Baskets); n == 0 {
			b.Says = try.way(r.Best, nil).Says
		} else if last := &out.Baskets[n-1]; compare(in.Order, &b.score, &last.score) >= 0 {
			continue
		} else {
			for _, c := range in.Order {
				if b.score[c] != last.score[c] {
					b.Says = append(b.Says, c.against(b.score[c], last.score[c]))
				}
			}
		}
		out.Baskets = append(out.Baskets, *b)
	}
	many, more, none := fact.Of(Nothing), fact.Of(Nothing), fact.Of(Nothing)
	if tooMany {
		many = fact.Of(CheapestOfMany)
	}
	if dear > 0 {
		more = fact.Of(CostMore, dear)
	}
	if len(out.Baskets) == 0 {
		none = fact.Of(NoneMeets)
	}
	out.Says = fact.Of(Combinations, looked, many, more, none)
	return out, nil
}

// combine lists the combinations of one choice of modules, one of a system drive and
// one of data drives, the cheapest first; true where there were too many.
func (in *Input) combine(need Need, stock []shelf.Stock) ([]Basket, bool) {
	var out []Basket
	systems, data := in.systems(need, stock), in.data(need, stock)
	for _, m := range in.modules(need, stock) {
		for _, s := range systems {
			for _, d := range data {
				b, ok := basket(stock, m, s, d)
				if ok && !slices.ContainsFunc(out, func(c Basket) bool { return slices.Equal(c.Picks, b.Picks) }) {
					out = append(out, b)
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Basket) int { return cmp.Compare(a.Cents, b.Cents) })
	return out[:min(len(out), baskets)], len(out) > baskets
}

// basket joins picks; false where the shelf has too few of a part.
func basket(stock []shelf.Stock, picks ...Pick) (Basket, bool) {
	var b Basket
	for _, p := range picks {
		if p.Count == 0 {
			continue
		}
		if i := slices.IndexFunc(b.Picks, func(q Pick) bool { return q.Part == p.Part }); i >= 0 {
			b.Picks[i].Count += p.Count
		} else {
			b.Picks = append(b.Picks, p)
		}
	}
	for _, p := range b.Picks {
		e := stocked(stock, p.Part)
		if e.Count < p.Count {
			return b, false
		}
		b.Cents += e.Price * shelf.Cents(p.Count)
	}
	return b, true
}

// stocked is the entry of a part that is on the shelf.
func stocked(stock []shelf.Stock, id part.ID) *shelf.Stock {
	return &stock[slices.IndexFunc(stock, func(e shelf.Stock) bool { return e.Part.ID == id })]
}

// modules are the choices of memory: so many of one part that, with what is in the
// machine or without, the wish is met, and not one more.
func (in *Input) modules(need Need, stock []shelf.Stock) []Pick {
	var old quantity.Bytes
	for _, p := range in.Pieces {
		if p.Part.Module != nil {
			old += p.Part.Module.SizeBytes
		}
	}
	if need.MemoryBytes == 0 {
		return []Pick{{}}
	}
	var out []Pick
	if old >= need.MemoryBytes {
		out = append(out, Pick{})
	}
	for _, e := range stock {
		m := e.Part.Module
		if m == nil || m.SizeBytes == 0 || !in.goesSomewhere(&e.Part) {
			continue
		}
		for n := 1; n <= e.Count; n++ {
			alone, before := m.SizeBytes*quantity.Bytes(n), m.SizeBytes*quantity.Bytes(n-1)
			if alone+old >= need.MemoryBytes {
				out = append(out, Pick{e.Part.ID, e.Part.Name, n})
			}
			if alone >= need.MemoryBytes && before < need.MemoryBytes {
				break
			}
		}
	}
	return out
}

func (in *Input) systems(need Need, stock []shelf.Stock) []Pick {
	if need.SystemBytes == 0 {
		return []Pick{{}}
	}
	var out []Pick
	if slices.ContainsFunc(in.Pieces, func(p rig.Piece) bool { return p.New && in.Wish.System(p.Part.Drive) }) {
		out = append(out, Pick{}) // one came along
	}
	for _, e := range stock {
		if in.Wish.System(e.Part.Drive) && in.goesSomewhere(&e.Part) {
			out = append(out, Pick{e.Part.ID, e.Part.Name, 1})
		}
	}
	return out
}

// data are as many drives of one kind as hold the data.
func (in *Input) data(need Need, stock []shelf.Stock) []Pick {
	if need.DataBytes == 0 {
		return []Pick{{}}
	}
	var out []Pick
	for _, e := range stock {
		d := e.Part.Drive
		if d == nil || d.CapacityBytes == 0 || !in.goesSomewhere(&e.Part) {
			continue
		}
		// A drive sold as 4 TB holds a little more than the 4 TB that are wished for.
		n := int((need.DataBytes + d.CapacityBytes - 1) / d.CapacityBytes)
		if n <= e.Count {
			out = append(out, Pick{e.Part.ID, e.Part.Name, n})
		}
	}
	return out
}

// goesSomewhere reports that the board has a socket of the part's kind.
func (in *Input) goesSomewhere(p *part.Part) bool {
	return slices.ContainsFunc(in.Found.Sheet.Sockets, func(k machine.Socket) bool { return rig.Suits(p, &k) })
}
