package plan

// This file puts a search into an answer people can judge: the best plan, the
// real alternatives, and why a socket was not chosen.

import (
	"context"
	"math"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
)

// Advice is the whole answer.
type Advice struct {
	End          End
	Proof        fact.Fact // why the best is the best, or why there is none
	Best         *Way
	Provided     *Provided // a plan that is better, or the only one, if what is not known turns out well
	Alternatives []Way
	Clash        []fact.Fact // wishes of which one must give way
	Help         []Help      // ways out of it
	Judged       int
}

// Provided is a plan that hangs on what is not known, and what to look at, the
// cheapest first.
type Provided struct {
	Way
	Look []rig.Learned // and how it must turn out, "" where any of several ways would do
}

// Help is one way out of a clash.
type Help struct {
	Says   fact.Fact
	Do     HelpKind     // "" where nobody here can carry it out
	Item   rig.ItemID   // which piece, where it is about one
	Also   []rig.ItemID // and others like it
	Socket rig.Path
	Part   part.ID // from the shelf
}

// HelpKind is what is done.
type HelpKind string

// The ways out: a pin, a ban, a port or a place that is given up, a piece that is left
// out, a wish that is changed, a part that is taken from the shelf.
const (
	UnpinHelp   HelpKind = "unpin"
	AllowHelp   HelpKind = "allow"
	PortHelp    HelpKind = "give up port"
	LetMoveHelp HelpKind = "let move"
	LeaveHelp   HelpKind = "leave out"
	WishHelp    HelpKind = "change wish"
	TakeHelp    HelpKind = "take"
)

// Values lists the ways for the formats.
func (HelpKind) Values() []string {
	return []string{string(UnpinHelp), string(AllowHelp), string(PortHelp), string(LetMoveHelp), string(LeaveHelp), string(WishHelp), string(TakeHelp)}
}

// Way is one plan in numbers and facts.
type Way struct {
	Placements []rig.Placement
	Choices    []rig.Choice
	Says       []fact.Fact // the best: what it comes to; an alternative: only what differs
	Differs    []fact.Fact // an alternative: which pieces lie elsewhere, which settings are others
	Moves      []rig.Move  // that make it out of any other plan
	Takes      []part.ID   // from the shelf: pieces named OnShelf before they are in the job
}

// OnShelf names a piece that lies on the shelf and may be taken.
func OnShelf(id part.ID) rig.ItemID { return "shelf/" + rig.ItemID(id) }

// alternatives is how many are shown at most.
const alternatives = 4

// Ask searches and explains. The error is the context's.
func Ask(ctx context.Context, in Input) (Advice, error) {
	in.Order = in.order()
	if in.unlooked() {
		out, err := in.askEmpty(ctx)
		if err != nil || out.Provided != nil {
			return out, err
		}
	}
	var out Advice
	r, err := Find(ctx, in)
	if err != nil {
		return out, err
	}
	if r.Best != nil && !in.stands(r.Best) {
		return Advice{End: GaveUp, Proof: fact.Of(Refuted), Judged: r.Judged}, nil
	}
	proof, err := Prove(ctx, in, r)
	if err != nil {
		return out, err
	}
	out.End, out.Judged = proof.End, r.Judged+proof.Judged
	out.Proof = r.proof(out.End, out.Judged)
	if proof.Other != nil {
		out.Provided = &Provided{in.way(proof.Other, r.Best), proof.Hangs}
		if r.Best == nil { // nothing to differ from but the machine as it came
			out.Provided.Differs = in.differs(proof.Other, &in.Found.Setup)
		}
	}
	if r.Best == nil {
		switch out.End {
		case Impossible:
			err = in.explainClash(ctx, &out, r.Open)
		case Depends:
			err = in.fromShelf(ctx, &out)
		}
		return out, err
	}
	best := in.way(r.Best, nil)
	out.Best = &best
	seen := []*Plan{r.Best}
	for _, c := range in.Order {
		if len(out.Alternatives) == alternatives || r.Best.Score[c] <= r.Bound[c] {
			continue // nothing is better in this
		}
		first := in
		first.Order = append([]Criterion{c}, slices.DeleteFunc(slices.Clone(in.Order), func(d Criterion) bool { return d == c })...)
		other, err := Find(ctx, first)
		if err != nil {
			return out, err
		}
		if out.Judged += other.Judged; other.End != Optimal || other.Best.Score[c] >= r.Best.Score[c] || !in.stands(other.Best) {
			continue
		}
		if slices.ContainsFunc(seen, func(p *Plan) bool { return p.Score == other.Best.Score }) {
			continue
		}
		seen = append(seen, other.Best)
		out.Alternatives = append(out.Alternatives, in.way(other.Best, r.Best))
	}
	return out, nil
}

func (r *Result) proof(end End, judged int) fact.Fact {
	tried := fact.Count{N: judged, Of: Builds}
	switch {
	case end == Impossible && judged == 0:
		return fact.Of(NoLying)
	case end == Impossible:
		return fact.Of(ProvedImpossible, tried)
	case end == GaveUp:
		return fact.Of(NotProved, tried)
	case end == Depends:
		return fact.Of(DependsOn, tried)
	case end == BestSure:
		return fact.Of(BestOfSure, tried)
	case r.Best.Score == r.Bound && !r.Open: // the bound is of plans that are sure
		return fact.Of(BestInAll, tried)
	}
	return fact.Of(BestOfAll, tried)
}

// unlooked reports that memory is in question and nobody has looked into the slots.
func (in *Input) unlooked() bool {
	return len(in.Found.Unlooked) > 0 && (in.Wish.MemoryBytes.Known() || slices.ContainsFunc(in.Pieces, func(p rig.Piece) bool { return p.Part.Module != nil }))
}

// empty is the question for a machine with nothing in the slots into which nobody looked.
func (in Input) empty() Input {
	if in.unlooked() {
		in.Found.Unlooked = nil
	}
	return in
}

// askEmpty plans for slots that are empty: whether they are is the first thing to look at.
// It provides nothing where there is no such plan.
func (in *Input) askEmpty(ctx context.Context) (Advice, error) {
	out, err := Ask(ctx, in.empty())
	switch {
	case err != nil:
		return out, err
	case out.Best != nil:
		out.Provided = &Provided{Way: *out.Best}
		out.Provided.Differs = in.differs(&Plan{Placements: out.Best.Placements, Choices: out.Best.Choices}, &in.Found.Setup)
	case out.Provided == nil:
		return out, nil
	}
	var look []rig.Learned
	for _, id := range in.Found.Unlooked {
		look = append(look, rig.Learned{Fact: rig.Fact{Socket: rig.On(id), Attr: rig.HoldsNow}, Is: string(rig.Nothing)})
	}
	out.Provided.Look = append(look, out.Provided.Look...)
	out.Best, out.Alternatives = nil, nil
	out.End, out.Proof = Depends, fact.Of(DependsOn, fact.Count{N: out.Judged, Of: Builds})
	return out, nil
}

// settled is a plan in which, of new pieces that nothing tells apart, each keeps the place it has
// in the plan at hand, where the plan has one of them there.
func (in *Input) settled(p *Plan) *Plan {
	if in.Now == nil {
		return p
	}
	like := func(a, b *rig.Piece) bool {
		return a.New && b.New && samePart(a.Part, b.Part) && in.told(a.ID) == in.told(b.ID) &&
			slices.Contains(in.Scratch, a.ID) == slices.Contains(in.Scratch, b.ID) && slices.Contains(in.Array, a.ID) == slices.Contains(in.Array, b.ID)
	}
	bound := func(id rig.ItemID, at rig.Path) bool {
		return slices.ContainsFunc(in.Pins, func(q rig.Placement) bool { return q.Item == id }) ||
			slices.ContainsFunc(slices.Concat(in.Bans, in.Stuck), func(q rig.Placement) bool { return q.Item == id && q.Socket == at })
	}
	out := *p
	out.Placements = slices.Clone(p.Placements)
	for i := range in.Pieces {
		a := &in.Pieces[i]
		keeps, now := in.Now.Where(a.ID), rig.PlaceOf(out.Placements, a.ID)
		b := in.piece(rig.ItemIn(out.Placements, keeps))
		if keeps.IsZero() || now.IsZero() || keeps == now || b == nil || !like(a, b) || bound(a.ID, keeps) || bound(b.ID, now) {
			continue
		}
		for n := range out.Placements {
			switch q := &out.Placements[n]; q.Item {
			case a.ID:
				q.Socket = keeps
			case b.ID:
				q.Socket = now
			}
		}
	}
	return &out
}

func (in *Input) way(p, best *Plan) Way {
	p = in.settled(p)
	if best != nil {
		best = in.settled(best)
	}
	out := Way{Placements: p.Placements, Choices: p.Choices, Moves: in.moves(p)}
	for i := range in.Pieces {
		if q := &in.Pieces[i]; q.ID == OnShelf(q.Part.ID) && !rig.PlaceOf(p.Placements, q.ID).IsZero() {
			out.Takes = append(out.Takes, q.Part.ID)
		}
	}
	for _, c := range in.Order {
		switch {
		case best == nil && p.Score[c] == 0, best != nil && p.Score[c] == best.Score[c]:
		case c == InUse:
			out.Says = append(out.Says, in.lost(p))
		case c == Layers:
			out.Says = append(out.Says, in.opens(p, best))
		case best == nil:
			out.Says = append(out.Says, c.says(p.Score[c]))
		default:
			out.Says = append(out.Says, c.against(p.Score[c], best.Score[c]))
		}
	}
	if best != nil {
		out.Differs = in.differs(p, &rig.Setup{Placements: best.Placements, Settings: best.Choices})
	}
	return out
}

// differs is which pieces lie elsewhere in a plan, and which settings are others.
func (in *Input) differs(p *Plan, from *rig.Setup) []fact.Fact {
	var out []fact.Fact
	for i := range in.Pieces {
		q := &in.Pieces[i]
		if at := rig.PlaceOf(p.Placements, q.ID); at != from.Where(q.ID) {
			if at.IsZero() {
				out = append(out, fact.Of(StaysOut, q.ID))
			} else {
				out = append(out, fact.Of(LiesIn, q.ID, at))
			}
		}
	}
	for i := range in.Found.Sheet.Settings {
		s := &in.Found.Sheet.Settings[i]
		if v := rig.Value(s, p.Choices); v != rig.Value(s, from.Settings) {
			out = append(out, fact.Of(SetAt, Choice{Setting: s.ID, Value: v}))
		}
	}
	return out
}

// Choice is a setting at a value, as an argument of facts.
type Choice rig.Choice

// lost names what was in use in the machine and is not in a plan.
func (in *Input) lost(p *Plan) fact.Fact {
	b := in.rig(p.Placements, p.Choices)
	before, after := fit.Judge(&in.Found), fit.Judge(&b)
	var out []fact.Fact
	count := map[string]int{}
	var first []*rig.Piece
	for i := range in.Pieces {
		q := &in.Pieces[i]
		if q.Part.Drive == nil && !in.home(q.ID).IsZero() && rig.PlaceOf(p.Placements, q.ID).IsZero() {
			if count[q.Part.Name]++; count[q.Part.Name] == 1 {
				first = append(first, q)
			}
		}
	}
	for _, q := range first {
		if n := count[q.Part.Name]; n > 1 {
			out = append(out, fact.Of(ComeOut, n, q.ID))
		} else {
			out = append(out, fact.Of(ComesOut, q.ID))
		}
	}
	for i := range in.Found.Sheet.Sockets { // the board's own come first, in the order of the sheet
		if o := &after.Sockets[i]; o.State == fit.Off && o.Item == "" && before.Sockets[i].State != fit.Off {
			out = append(out, fact.Of(GoesOff, o.Socket))
		}
	}
	if len(out) == 0 {
		return fact.Of(NothingLost)
	}
	return fact.Of(All, out)
}

// opens is which layers a plan takes off, beside those of the best.
func (in *Input) opens(p, best *Plan) fact.Fact {
	if best == nil {
		return fact.Of(ToOpen, in.layers(p))
	}
	return fact.Of(InsteadOf, fact.Of(ToOpen, in.layers(p)), in.layers(best))
}

// layers names what comes off for a plan.
func (in *Input) layers(p *Plan) fact.Fact {
	c := in.covers()
	r := in.rig(p.Placements, p.Choices)
	var names []layer.ID
	takes := layer.Minutes(0)
	for _, i := range c.opens(c.touched(in.Pieces, &r, fit.Bays(&r))) {
		l := &c.stack.Layers[i]
		m, _ := l.Takes()
		names, takes = append(names, l.ID), takes+m
	}
	if len(names) == 0 {
		return fact.Of(NoLayers)
	}
	return fact.Of(LayersFor, names, takes)
}

// tried reports that a piece was tried at a place and does not go in there, or not come out.
func (in *Input) tried(item rig.ItemID, at rig.Path) bool {
	return !at.IsZero() && slices.Contains(in.Stuck, rig.Placement{Item: item, Socket: at})
}

// untouchable is why hands cannot bring a piece to a place, or do not get it away from where it
// is, though rules and room would let them; no fact where they can.
func (in *Input) untouchable(item rig.ItemID, at rig.Path) fact.Fact {
	home := in.home(item)
	switch {
	case at == home:
		return fact.Fact{}
	case in.tried(item, home):
		return fact.Of(HeldFast, item, home)
	case in.tried(item, at):
		return fact.Of(TriedThere, item, at)
	}
	if c := in.covers(); c != nil {
		for _, p := range []rig.Path{at, home} {
			switch {
			case p.IsZero() || !c.lost[layer.Named(p.Top())]:
			case len(in.Barred) > 0:
				return fact.Of(OutOfReach, p, in.Barred)
			default:
				return fact.Of(NoWayThere, p)
			}
		}
	}
	return fact.Fact{}
}

// moves make a plan out of any other: every piece into its place or out, every
// setting that rules ask about at its value.
func (in *Input) moves(p *Plan) []rig.Move {
	out := []rig.Move{}
	for i := range in.Pieces {
		if q := &in.Pieces[i]; q.Part.Fitting == nil && (q.ID != OnShelf(q.Part.ID) || !rig.PlaceOf(p.Placements, q.ID).IsZero()) {
			out = append(out, rig.Move{Item: q.ID, Socket: rig.PlaceOf(p.Placements, q.ID)})
		}
	}
	for i := range in.Found.Sheet.Settings {
		if s := &in.Found.Sheet.Settings[i]; in.asks(s) {
			if v := rig.Value(s, p.Choices); v != "" { // else it stays at what nobody knows
				out = append(out, rig.Move{Setting: s.ID, Value: v})
			}
		}
	}
	return out
}

// counted picks the code for none, one and many.
func counted(n int64, none, one, many fact.Code, args ...any) fact.Fact {
	switch n {
	case 0:
		return fact.Of(none)
	case 1:
		return fact.Of(one, args...)
	}
	return fact.Of(many, args...)
}

func count(n int64, of fact.Noun) fact.Count { return fact.Count{N: int(n), Of: of} }

// says is what a plan comes to by one criterion.
func (c Criterion) says(n int64) fact.Fact {
	switch c {
	case Data:
		return counted(n, DriveAtRisk, DriveAtRisk, DrivesAtRisk, count(n, Drives))
	case System:
		return fact.Of(SystemIs, rate(n), seconds(n))
	case Graphics:
		return fact.Of(CardsLose, quantity.MBps(float64(n)))
	case Roles:
		return fact.Of(RolesAre, rate(n))
	case Rates:
		return fact.Of(RatesAre, rate(n))
	case Memory:
		if peak(n).MBps() >= boundless {
			return fact.Of(MemoryPeakOpen)
		}
		if slotWarnings(n) > 0 {
			return fact.Of(MemoryPeakSlots, peak(n))
		}
		return fact.Of(MemoryPeak, peak(n))
	case InUse:
		return counted(n, NothingInUse, OneInUse, ManyInUse, int(n))
	case Cooling:
		return counted(n, NoneWarm, OneWarm, ManyWarm, int(n))
	case Warnings:
		return fact.Of(WarningsAre, count(n, WarningsCounted))
	case Opened:
		return counted(n, NoSocketTouched, SocketTouched, SocketsTouched, count(n, Sockets))
	case Layers:
		return fact.Fact{} // a plan says which: see opens
	case Settings:
		return counted(n, NoSettingChanges, SettingChanges, SettingsChange, count(n, SettingsChanged))
	case Cost:
		if n == 0 {
			return fact.Of(NothingFromShelf)
		}
		return fact.Of(FromShelfFor, shelf.Cents(n))
	}
	return fact.Fact{}
}

// against is a criterion beside the best plan's.
func (c Criterion) against(n, best int64) fact.Fact {
	switch c {
	case System, Roles, Rates:
		code := map[Criterion]fact.Code{System: SystemAgainst, Roles: RolesAgainst, Rates: RatesAgainst}[c]
		return fact.Of(code, rate(n), rate(best), saved(n, best))
	case Graphics:
		return fact.Of(GraphicsAgainst, quantity.MBps(float64(n)), quantity.MBps(float64(best)))
	case Memory:
		switch {
		case peak(n).MBps() >= boundless:
			return fact.Of(MemoryPeakOpen)
		case peak(n) != peak(best):
			return fact.Of(PeakAgainst, peak(n), peak(best))
		case n < best:
			return fact.Of(SlotsInOrder)
		}
		return fact.Of(SlotsNotInOrder)
	}
	return fact.Of(InsteadOf, c.says(n), int(best))
}

// rate is a score that is less a rate; zero is none that is known.
func rate(n int64) quantity.Rate { return quantity.MBps(float64(-n)) }

// A score of memory is less four times its peak, and one for each warning about
// its slots, of which there are at most two.
func slotWarnings(n int64) int64 { return ((n % 4) + 4) % 4 }

func peak(n int64) quantity.Rate { return rate((n - slotWarnings(n)) / 4) }

// Seconds is a time, as an argument of facts.
type Seconds float64

// seconds is the time for 100 GB at a rate, decimal as drives are sold.
func seconds(n int64) Seconds { return Seconds(math.Ceil(100_000 / float64(-n))) }

func saved(n, best int64) any {
	if n == 0 || best == 0 {
		return fact.Of(NoTelling)
	}
	return Seconds(math.Round(100_000/float64(-n) - 100_000/float64(-best)))
}

// WhyNot says why the best plan does not have a piece in a socket: what stops it
// there, or what the best plan with it there loses.
func WhyNot(ctx context.Context, in Input, item rig.ItemID, socket rig.Path) (fact.Fact, error) {
	in = in.empty()
	in.Order = in.order()
	if in.piece(item) == nil {
		return fact.Of(NoSuchPiece), nil
	}
	found, err := Find(ctx, in)
	if err != nil {
		return fact.Fact{}, err
	}
	best := found.Best
	pinned := in
	pinned.Pins = append(slices.DeleteFunc(slices.Clone(in.Pins), func(p rig.Placement) bool { return p.Item == item }), rig.Placement{Item: item, Socket: socket})
	r, err := Find(ctx, pinned)
	if err != nil {
		return fact.Fact{}, err
	}
	switch {
	case r.End == GaveUp:
		return fact.Of(NotKnownBudget), nil
	case r.End == Impossible:
		return in.stopped(best, item, socket), nil
	case best == nil:
		return fact.Of(WouldWork, item, socket), nil
	}
	for _, c := range in.Order {
		if now, was := r.Best.Score[c], best.Score[c]; now > was {
			loses := c.against(now, was)
			if c == Layers {
				loses = in.opens(r.Best, best)
			}
			return fact.Of(WorksBut, item, socket, loses), nil
		} else if now < was { // better, for it was pinned elsewhere
			break
		}
	}
	return fact.Of(AsGood, item, socket), nil
}

// stopped is what stops a piece in a socket, with the rest as in the best plan.
func (in *Input) stopped(best *Plan, item rig.ItemID, socket rig.Path) fact.Fact {
	if why := in.untouchable(item, socket); why.Is() {
		return why
	}
	b := in.rig(in.Found.Placements, in.Found.Settings)
	if best != nil {
		b.Setup = rig.Setup{Placements: best.Placements, Settings: best.Choices}
	}
	after, _, err := b.Moved([]rig.Move{{Item: item, Socket: socket}})
	if err != nil {
		return fact.Of(NotThere, socket)
	}
	b.Setup = after
	r := fit.Resolve(&b)
	for i := range r.Findings {
		if f := &r.Findings[i]; f.Item == item && (f.Severity == fit.Stops || f.Code == "fit-unknown") {
			return f.Says
		}
	}
	if f := r.FirstStop(); f != nil {
		return f.Says
	}
	return fact.Of(NothingWorks)
}
