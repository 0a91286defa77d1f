// Package plan finds the best way to fit parts into a machine, and proves it.
//
// An Input is the machine as it arrived, the pieces to place and what binds the
// search. Find decides which piece goes into which socket, carriers and adapters
// included, and every firmware setting that matters; what is seen, at which rate,
// is always build's answer. A Score is a list of small whole numbers, less is
// better, compared one after the other in an order the technician may change.
//
//	r, err := plan.Find(ctx, in)
//	if err == nil && r.End == plan.Optimal {
//		fmt.Println(r.Best.Placements, r.Best.Score)
//	}
//
// The search is branch and bound. A bound is what the pieces would come to if each
// had the machine to itself; the rules of a sheet only ever take away, so no plan
// is better than its bound. The same input has the same answer: of plans that
// score alike, the one whose pieces lie in the earlier sockets.
package plan

import (
	"cmp"
	"context"
	"slices"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
)

// Criterion is one thing that makes a plan better than another.
type Criterion int

// The criteria, in the order they count unless the technician says otherwise.
const (
	Data     Criterion = iota // drives found in the machine that are in it no more, or behind another bridge: some translate sectors
	System                    // less the rate of the system drive that was wished for, MB/s
	Graphics                  // what cards lose of the rate they had, MB/s
	Roles                     // less the rates of scratch drives alone, and of an array: its slowest drive, as often as it has drives, MB/s
	Rates                     // less the rates of all drives at work at once, MB/s
	Memory                    // less the peak rate of memory, MB/s, four to one of a warning about its slots
	InUse                     // sockets that were open and are off, parts that were in and are out
	Cooling                   // PCIe drives that may get warm, twice for those that surely do
	Warnings                  // other findings that warn
	Opened                    // sockets inside whose part changes
	Layers                    // what must come off to reach these, in tenths of a minute, a risk counted as minutes
	Settings                  // firmware settings that change
	Cost                      // of parts taken from the shelf, hundredths of the shop's currency
	criteria
)

// Criteria lists them in their usual order.
func Criteria() []Criterion {
	out := make([]Criterion, criteria)
	for i := range out {
		out[i] = Criterion(i)
	}
	return out
}

// Score is what a plan comes to by each criterion; less is better.
type Score [criteria]int64

func (s Score) plus(t Score) Score {
	for i := range s {
		s[i] += t[i]
	}
	return s
}

// Role says what may be done with a piece.
type Role string

// The roles. A new piece must be placed, a drive or card that was found may move,
// a module that was found may also leave, unless another role is given.
const (
	Stay  Role = "stay"  // where it was found
	Move  Role = "move"  // anywhere, but in the machine
	Leave Role = "leave" // it may also come out
)

// Input is a question to the planner.
type Input struct {
	Found   rig.Rig // the machine as it arrived
	Pieces  []rig.Piece
	Wish    rig.Wish
	May     map[rig.ItemID]Role
	Scratch []rig.ItemID               // drives whose own rate matters
	Array   []rig.ItemID               // drives that work together, as fast as their slowest
	Prices  map[rig.ItemID]shelf.Cents // of pieces that would have to be taken from the shelf
	Pins    []rig.Placement            // the technician's: these pieces go there
	Bans    []rig.Placement            // and these do not go there; an empty item bans all
	Barred  []layer.ID                 // layers that were tried and do not come off
	Stuck   []rig.Placement            // pieces that were tried there and do not go in, or, found there, not come out
	Bays    []rig.Lying                // in which bays drives were told to lie
	Ports   []machine.SocketID         // sockets that stay on and free for later, or hold what they held
	Now     *rig.Setup                 // the plan at hand, nil for none: of pieces that nothing tells apart each keeps its place in it
	Shelf   []*part.Part               // what else is at hand, tried where there is no plan
	Order   []Criterion                // the first counts most; those left out follow in their usual order
	Budget  int                        // steps before the search gives up, twenty or more for a judged build; 0 is DefaultBudget
	corner  corner                     // what a plan is judged by
	shared  []fit.Doubt                // losses that may be and do not tell plans apart: all are taken to have them
	any     bool                       // whether there is a plan is all that is asked
	without map[want]bool              // wishes set aside, while a clash is looked for
	cover   *cover                     // what is read of the layers, once for a search
}

// DefaultBudget bounds a search to a few seconds on a slow machine.
const DefaultBudget = 1_000_000

// End is how a search ended.
type End string

// Five different answers.
const (
	Optimal    End = "optimal"    // proved best, however what is not known turns out
	BestSure   End = "sure"       // the best of the plans that are sure; something unknown could make another better
	Depends    End = "depends"    // no plan is sure; whether there is one depends on what is not known
	Impossible End = "impossible" // proved, however what is not known turns out
	GaveUp     End = "gave up"    // the budget ended before the proof
)

// Values lists the ends for the formats.
func (End) Values() []string {
	return []string{string(Optimal), string(BestSure), string(Depends), string(Impossible), string(GaveUp)}
}

// Plan is one way to do it.
type Plan struct {
	Placements []rig.Placement
	Choices    []rig.Choice // of the settings that rules ask about, where they differ from the default
	Score      Score
}

// Result is the answer of a search. Where it gave up, Best is the best it met,
// not proved, or nil.
type Result struct {
	End    End
	Best   *Plan
	Judged int   // builds that were judged
	Bound  Score // no plan is better than this in any single criterion
	Open   bool  // something unstated was met: of plans that are not sure, nothing is proved
}

// Find searches for the best of the plans that are sure; Prove looks at the others.
// The error is the context's: a search that is no longer wanted stops.
func Find(ctx context.Context, in Input) (Result, error) {
	in.Order = in.order()
	in.cover = newCover(&in)
	f := finding{in: &in, budget: cmp.Or(in.Budget, DefaultBudget)}
	halves := split(&in, in.cover.ties())
	openings := in.cover.openings()
	if len(halves) < 2 || len(openings) == 0 {
		return f.each(ctx, halves)
	}
	return f.together(ctx, halves[0], halves[1], openings)
}

// finding is a search by halves, out of one budget.
type finding struct {
	in     *Input
	budget int // steps left
}

// each searches halves whose scores add up.
func (f *finding) each(ctx context.Context, halves []half) (Result, error) {
	out := Result{End: Optimal, Best: &Plan{Placements: []rig.Placement{}, Choices: []rig.Choice{}}}
	for _, h := range halves {
		s := newSearch(ctx, f.in, h, f.budget)
		s.run()
		f.budget = s.budget
		out.Judged += s.judged
		out.Open = out.Open || s.unsettled
		if err := ctx.Err(); err != nil {
			return Result{}, err
		}
		out.Bound = out.Bound.plus(s.floor)
		switch {
		case s.out:
			out.End = GaveUp
		case s.best == nil:
			return Result{End: Impossible, Judged: out.Judged, Open: out.Open}, nil
		}
		if s.best == nil || out.Best == nil {
			out.Best = nil
			continue
		}
		out.Best = out.Best.and(s.plan())
	}
	return out, nil
}

// and is two plans of different halves as one.
func (p *Plan) and(q Plan) *Plan {
	return &Plan{slices.Concat(p.Placements, q.Placements), slices.Concat(p.Choices, q.Choices), p.Score.plus(q.Score)}
}

// together searches two halves that may lie under the same layers. For every set of places that
// memory may reach, its best plan that reaches no other is joined to the best plan of the rest for
// which those places are open anyway. The best of these pairs is the best of all: the best pair of
// all is no better than what is found for the places that its own memory reaches.
func (f *finding) together(ctx context.Context, rest, memory half, openings []places) (Result, error) {
	if f.in.any { // whether there is one is all that is asked
		openings = openings[len(openings)-1:]
	}
	out := Result{End: Impossible}
	type tried struct {
		within places
		Result
	}
	var ways []tried
	gaveUp := false
	for _, within := range openings {
		memory.within = &within
		r, err := f.each(ctx, []half{memory})
		if err != nil {
			return Result{}, err
		}
		out.Judged, out.Open = out.Judged+r.Judged, out.Open || r.Open
		out.Bound = r.Bound // the last may reach all
		gaveUp = gaveUp || r.End == GaveUp
		if r.Best != nil && !slices.ContainsFunc(ways, func(w tried) bool { // to reach more gains nothing, not even an earlier socket
			return w.within.within(within) && w.Best.Score == r.Best.Score && slices.Equal(w.Best.Placements, r.Best.Placements)
		}) {
			ways = append(ways, tried{within, r})
		}
	}
	ways = slices.DeleteFunc(slices.Clone(ways), func(w tried) bool { // what counts before the layers is the memory's own affair
		return slices.ContainsFunc(ways, func(v tried) bool { return f.in.before(Layers, &v.Best.Score, &w.Best.Score) < 0 })
	})
	memoryBound := out.Bound
	for _, w := range ways {
		rest.open = w.within
		r, err := f.each(ctx, []half{rest})
		if err != nil {
			return Result{}, err
		}
		out.Judged, out.Open = out.Judged+r.Judged, out.Open || r.Open
		if r.End == Impossible {
			return Result{End: Impossible, Judged: out.Judged, Open: out.Open}, nil
		}
		gaveUp = gaveUp || r.End == GaveUp
		out.Bound = memoryBound.plus(r.Bound)
		out.Bound[Layers] = max(memoryBound[Layers], r.Bound[Layers])
		if r.Best == nil {
			continue
		}
		if p := r.Best.and(*w.Best); out.Best == nil || f.in.better(p, out.Best) {
			out.Best = p
		}
	}
	switch {
	case gaveUp:
		out.End = GaveUp
	case out.Best != nil:
		out.End = Optimal
	}
	return out, nil
}

// before compares scores by what counts before a criterion.
func (in *Input) before(c Criterion, a, b *Score) int {
	return compare(in.Order[:slices.Index(in.Order, c)], a, b)
}

// better reports a plan that is better than another, or as good and its pieces lie in the earlier
// sockets.
func (in *Input) better(p, than *Plan) bool {
	if c := compare(in.Order, &p.Score, &than.Score); c != 0 {
		return c < 0
	}
	for _, q := range inSearchOrder(in.Pieces) {
		a, b := rig.PlaceOf(p.Placements, q.ID), rig.PlaceOf(than.Placements, q.ID)
		switch {
		case a == b:
		case a.IsZero() || b.IsZero():
			return b.IsZero()
		default:
			return in.Found.Compare(a, b) < 0
		}
	}
	return false
}

// order completes the technician's order by what it leaves out.
func (in *Input) order() []Criterion {
	out := slices.Clone(in.Order)
	for _, c := range Criteria() {
		if !slices.Contains(out, c) {
			out = append(out, c)
		}
	}
	return out
}

// asks reports whether a rule of the sheet asks about a setting.
func (in *Input) asks(set *machine.Setting) bool {
	return slices.ContainsFunc(in.Found.Sheet.Rules, func(r machine.Rule) bool { return asksAbout(&r, set) })
}

func asksAbout(r *machine.Rule, set *machine.Setting) bool {
	return slices.ContainsFunc(r.When, func(c machine.Condition) bool { return c.Setting == set.ID })
}

// criterionNames are the criteria in the words of files and requests.
var criterionNames = [criteria]string{"data", "system", "graphics", "roles", "rates", "memory", "in use", "cooling", "warnings", "opened", "layers", "settings", "cost"}

// String names a criterion: "system".
func (c Criterion) String() string { return criterionNames[c] }

// ParseCriterion finds a criterion by its name; false if none has it.
func ParseCriterion(name string) (Criterion, bool) {
	i := slices.Index(criterionNames[:], name)
	return Criterion(i), i >= 0
}

// compare orders scores: negative when a is better.
func compare(order []Criterion, a, b *Score) int {
	for _, c := range order {
		if a[c] != b[c] {
			if a[c] < b[c] {
				return -1
			}
			return 1
		}
	}
	return 0
}

func (in *Input) role(p *rig.Piece) Role {
	switch r := in.May[p.ID]; {
	case p.New:
		return Move
	case r != "":
		return r
	case slices.Contains(in.Wish.Keep, p.ID):
		return Move
	case p.Part.Module != nil || p.Holds == rig.System && in.Wish.SystemBytes.Known(): // a new one was wished for in its place
		return Leave
	}
	return Move
}

// home is where a piece was found, the mat for a new one.
func (in *Input) home(id rig.ItemID) rig.Path {
	return in.Found.Where(id)
}

// told is the bay in which a piece was told to lie, "" for none.
func (in *Input) told(id rig.ItemID) machine.BayID {
	return (&rig.Setup{Bays: in.Bays}).Told(id)
}

// piece finds a piece by its name, nil if there is none.
func (in *Input) piece(id rig.ItemID) *rig.Piece {
	if i := slices.IndexFunc(in.Pieces, func(p rig.Piece) bool { return p.ID == id }); i >= 0 {
		return &in.Pieces[i]
	}
	return nil
}

// rig is the machine with pieces placed and settings chosen.
func (in *Input) rig(placed []rig.Placement, choices []rig.Choice) rig.Rig {
	b := in.Found
	b.Pieces, b.Setup, b.Wish, b.Found = in.Pieces, rig.Setup{Placements: placed, Bays: in.Bays, Settings: choices}, in.Wish, &in.Found.Setup
	if len(in.without) > 0 { // a piece that was set aside and lies nowhere is not waited for
		b.Pieces = slices.DeleteFunc(slices.Clone(in.Pieces), func(p rig.Piece) bool {
			return in.without[want{kind: wantIn, item: p.ID}] && rig.PlaceOf(placed, p.ID).IsZero()
		})
	}
	return b
}
