package plan

import (
	"context"
	"flag"
	"fmt"
	"maps"
	"math/rand"
	"slices"
	"testing"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/shorthand"
	"deepbay/internal/coretest"
)

// question makes a small random input: a random machine with a few of its parts,
// some found in it, some new, some alike, under random wishes, roles, pins and bans.
func question(rng *rand.Rand) Input {
	b := coretest.Machine(rng)
	keep := 1 + rng.Intn(4)
	rng.Shuffle(len(b.Pieces), func(i, j int) { b.Pieces[i], b.Pieces[j] = b.Pieces[j], b.Pieces[i] })
	if i := slices.IndexFunc(b.Pieces, func(p rig.Piece) bool { return p.Part.Module != nil }); i > 0 && rng.Intn(20) > 0 {
		b.Pieces[0], b.Pieces[i] = b.Pieces[i], b.Pieces[0] // mostly with memory: without it nothing starts
	}
	b.Pieces = b.Pieces[:min(keep, len(b.Pieces))]
	if len(b.Pieces) > 1 && rng.Intn(3) == 0 {
		b.Pieces[1].Part = b.Pieces[0].Part
	}
	in := Input{Pieces: b.Pieces, May: map[rig.ItemID]Role{}, Prices: map[rig.ItemID]shelf.Cents{}}
	where := map[rig.Path]rig.ItemID{}
	for _, p := range b.Placements {
		where[p.Socket] = p.Item
	}
	old := func(id rig.ItemID) bool {
		return slices.ContainsFunc(b.Pieces, func(p rig.Piece) bool { return p.ID == id && !p.New })
	}
	var found []rig.Placement
	for _, p := range b.Placements {
		up := p.Socket.Holder()
		i := slices.IndexFunc(b.Pieces, func(q rig.Piece) bool { return q.ID == p.Item })
		if k := b.Socket(p.Socket); i < 0 || k == nil || !rig.Suits(b.Pieces[i].Part, k) {
			continue // found lying in another kind of socket: nobody would count that as a home
		}
		if old(p.Item) && (up.IsZero() || old(where[up])) {
			found = append(found, p)
		}
	}
	for i := range in.Pieces {
		p := &in.Pieces[i]
		if p.Part.Drive != nil {
			switch rng.Intn(5) {
			case 0:
				in.Scratch = append(in.Scratch, p.ID)
			case 1:
				in.Array = append(in.Array, p.ID)
			}
		}
		if !slices.ContainsFunc(found, func(q rig.Placement) bool { return q.Item == p.ID }) {
			p.New = true                       // found nowhere: it came along
			if brings(p) && rng.Intn(3) == 0 { // or may be taken from the shelf
				p.New, in.May[p.ID], in.Prices[p.ID] = false, Leave, shelf.Cents(100+rng.Intn(3000))
			}
		}
		if !p.New && in.Prices[p.ID] == 0 && rng.Intn(3) == 0 {
			in.May[p.ID] = []Role{Stay, Move, Leave}[rng.Intn(3)]
		}
		if len(b.Sheet.Sockets) > 0 && rng.Intn(8) == 0 {
			in.Bans = append(in.Bans, rig.Placement{Item: p.ID, Socket: rig.On(b.Sheet.Sockets[rng.Intn(len(b.Sheet.Sockets))].ID)})
		}
		if k := b.Sheet.Sockets[rng.Intn(len(b.Sheet.Sockets))]; rng.Intn(12) == 0 && rig.Suits(p.Part, &k) {
			in.Pins = append(in.Pins, rig.Placement{Item: p.ID, Socket: rig.On(k.ID)})
		}
	}
	b.Placements = found
	in.Found = b
	if rng.Intn(6) == 0 {
		in.Ports = append(in.Ports, b.Sheet.Sockets[rng.Intn(len(b.Sheet.Sockets))].ID)
	}
	if rng.Intn(4) == 0 {
		in.Wish.MemoryBytes = 8 * quantity.GiB
	}
	if rng.Intn(2) == 0 {
		in.Wish.SystemBytes, in.Wish.SystemFast = quantity.DriveBytes(250), rng.Intn(2) == 0
	}
	if rng.Intn(4) == 0 {
		in.Order = []Criterion{Criterion(rng.Intn(int(criteria))), Rates}
	}
	return in
}

// exhaustive tries every place of every piece under every setting, with none of the
// planner's shortcuts, and keeps the best; nil where nothing works, false where
// there are too many to try.
//
// It also keeps the least of each criterion over all plans that work.
func exhaustive(in Input, limit int) (*Plan, Score, bool) {
	var floor Score
	in.Order = in.order()
	settings := in.whole().settings
	pieces := inSearchOrder(in.Pieces)
	places := make([][]rig.Path, len(pieces))
	total := 1
	for i := range pieces {
		places[i] = anywhere(&in, pieces, i)
		if total *= len(places[i]); total > limit {
			return nil, floor, false
		}
	}
	for _, s := range settings {
		total *= len(s.Options)
	}
	if total > limit {
		return nil, floor, false
	}
	var best *Plan
	at := make([]rig.Path, len(pieces))
	choices := make([]rig.Choice, len(settings))
	var setting func(int)
	setting = func(j int) {
		if j < len(choices) {
			for _, o := range settings[j].Options {
				choices[j] = rig.Choice{Setting: settings[j].ID, Value: o.Value}
				setting(j + 1)
			}
			return
		}
		var placed []rig.Placement
		for i, id := range at {
			if !id.IsZero() {
				placed = append(placed, rig.Placement{Item: pieces[i].ID, Socket: id})
			}
		}
		b := in.rig(placed, choices)
		for i, id := range at {
			if id.IsZero() {
				continue
			}
			k := b.Socket(id)
			if k == nil || !rig.Suits(pieces[i].Part, k) || slices.Index(at, id) != i {
				return
			}
		}
		score, ok := oracle(&in, placed, choices)
		if ok && best == nil {
			floor = score
		} else if ok {
			floor = least(floor, score)
		}
		if ok && (best == nil || compare(in.Order, &score, &best.Score) < 0) { // the first of equals stays
			best = &Plan{Placements: placed, Choices: slices.Clone(choices), Score: score}
		}
	}
	var place func(int)
	place = func(i int) {
		if i == len(pieces) {
			setting(0)
			return
		}
		for _, id := range places[i] {
			at[i] = id
			place(i + 1)
		}
	}
	place(0)
	return best, floor, true
}

// anywhere lists where one piece may go by its kind, role, pins and bans, in the
// order of the sheet, on every other piece that brings sockets as well.
func anywhere(in *Input, pieces []rig.Piece, i int) []rig.Path {
	p := &pieces[i]
	var out []rig.Path
	var visit func(k *rig.Place, chain []rig.Placement)
	visit = func(k *rig.Place, chain []rig.Placement) {
		if rig.Suits(p.Part, &k.Socket) && !slices.Contains(out, k.Path) {
			out = append(out, k.Path)
		}
		for j := range pieces {
			h := &pieces[j]
			if j == i || !brings(h) || !rig.Suits(h.Part, &k.Socket) || slices.ContainsFunc(chain, func(q rig.Placement) bool { return q.Item == h.ID }) {
				continue
			}
			next := append(slices.Clone(chain), rig.Placement{Item: h.ID, Socket: k.Path})
			b := in.rig(next, nil)
			for _, c := range b.Carried() {
				if c.Path.Holder() == k.Path {
					visit(&c, next)
				}
			}
		}
	}
	for n := range in.Found.Sheet.Sockets {
		visit(&rig.Place{Path: rig.On(in.Found.Sheet.Sockets[n].ID), Socket: in.Found.Sheet.Sockets[n]}, nil)
	}
	slices.SortStableFunc(out, in.Found.Compare)
	pinned := false
	for _, q := range in.Pins {
		if q.Item == p.ID {
			pinned = true
			out = slices.DeleteFunc(out, func(id rig.Path) bool { return id != q.Socket })
		}
	}
	for _, q := range in.Bans {
		if q.Item == p.ID {
			out = slices.DeleteFunc(out, func(id rig.Path) bool { return id == q.Socket })
		}
	}
	out = slices.DeleteFunc(out, func(id rig.Path) bool {
		return !id.Nested() && slices.Contains(in.Ports, id.Top()) && id != in.home(p.ID)
	})
	switch home := in.home(p.ID); in.role(p) {
	case Stay:
		out = slices.DeleteFunc(out, func(id rig.Path) bool { return id != home })
	case Leave:
		if !pinned {
			out = append(out, rig.Path{})
		}
	}
	return out
}

// questions is how many random questions of each kind the planner is held against;
// make soak asks for more.
var questions = flag.Int("questions", 800, "random questions of each kind in TestExhaustive")

// once is seeds of questions that were answered wrongly: an adapter lay in the box that was
// left out; a port that is off with one of two processors was taken to stay on; a slower
// place behind a full uplink was taken to lose something; the lead of a drive that keeps its bay
// came off a port that nobody reaches.
var once = []int64{9543, 9949, 3110, 1805}

// TestExhaustive holds the planner against trying everything, judged by the text of
// the criteria, ties included, on random small machines and on boards where places are
// short; and every plan against fit's own words.
func TestExhaustive(t *testing.T) {
	for name, ask := range map[string]func(*rand.Rand) Input{"machines": question, "crowded": crowded} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			want, impossible, settings, layers := *questions, 0, 0, 0
			if testing.Short() {
				want = 200
			}
			for seed, done := int64(0), 0; done < want; seed++ {
				if done >= want-len(once) { // seeds that were wrong once
					seed = once[want-1-done]
				}
				in := ask(rand.New(rand.NewSource(seed)))
				best, floor, ok := exhaustive(in, 1500)
				if !ok {
					continue
				}
				done++
				got, err := Find(context.Background(), in)
				if err != nil {
					t.Fatal(err)
				}
				if best == nil {
					impossible++
					if got.End != Impossible {
						t.Fatalf("seed %d: %s, but nothing works: %+v", seed, got.End, got.Best)
					}
					continue
				}
				if got.End != Optimal || got.Best.Score != best.Score {
					t.Fatalf("seed %d: %s %+v\nwant %+v\npieces %s", seed, got.End, got.Best, best, pieceNames(in))
				}
				if !samePlan(&in, got.Best, best) {
					t.Fatalf("seed %d: %+v\nscores like %+v", seed, got.Best, best)
				}
				if least(got.Bound, floor) != got.Bound {
					t.Fatalf("seed %d: the bound %v is above what some plan comes to, %v", seed, got.Bound, floor)
				}
				if len(got.Best.Choices) > 0 {
					settings++
				}
				bare := in
				sheet := *in.Found.Sheet
				if bare.Found.Sheet, sheet.Layers = &sheet, nil; len(in.Found.Sheet.Layers) > 0 {
					if other, err := Find(context.Background(), bare); err != nil || !samePlan(&in, got.Best, other.Best) {
						layers++ // what lies over what decided it
					}
				}
				holds(t, &in, got.Best)
			}
			t.Logf("%d impossible, %d with settings, %d by layers", impossible, settings, layers)
			if impossible < want/20 || impossible > want*3/4 || settings < want/50 || layers < want/200 {
				t.Errorf("of %d questions %d are impossible, %d want a setting and %d hang on layers: they show little", want, impossible, settings, layers)
			}
		})
	}
}

func pieceNames(in Input) string {
	s := ""
	for _, p := range in.Pieces {
		s += fmt.Sprintf("%s new=%v %s at %q; ", p.ID, p.New, shorthand.Write(p.Part), in.home(p.ID))
	}
	return s
}

// samePlan compares placements whatever their order, and settings whatever is default.
func samePlan(in *Input, a, b *Plan) bool {
	for _, p := range in.Pieces {
		if rig.PlaceOf(a.Placements, p.ID) != rig.PlaceOf(b.Placements, p.ID) {
			return false
		}
	}
	for _, s := range in.whole().settings {
		if rig.Value(s, a.Choices) != rig.Value(s, b.Choices) {
			return false
		}
	}
	return true
}

// holds asks build for the whole plan: nothing stops, all that must be seen is.
func holds(t *testing.T, in *Input, p *Plan) {
	t.Helper()
	b := in.Found
	b.Pieces, b.Setup, b.Wish, b.Found = in.Pieces, rig.Setup{Placements: p.Placements, Settings: p.Choices}, in.Wish, &in.Found.Setup
	r := fit.Resolve(&b)
	for _, f := range r.Findings {
		if f.Severity == fit.Stops && f.Code != "memory-none" && f.Code != "wish-keep" {
			t.Fatalf("the plan is stopped: %v", f.Says)
		}
	}
	for _, q := range p.Placements {
		if s := r.Socket(q.Socket); s.State != fit.Live {
			t.Fatalf("%s is %s in %s", q.Item, s.State, q.Socket)
		}
	}
	whole := newScorer(in, in.whole())
	if score, ok := whole.score(p.Placements, p.Choices, asTold); !ok || score != p.Score {
		t.Fatalf("the plan claims %v and comes to %v, %v", p.Score, score, ok)
	}
}

// TestAlternatives: each is better than the best in something, none is at least as
// bad as another in everything, and what clashes is really needed for the clash.
func TestAlternatives(t *testing.T) {
	shown, clashes := 0, 0
	for seed := range int64(400) {
		in := question(rand.New(rand.NewSource(seed)))
		a, err := Ask(context.Background(), in)
		if err != nil {
			t.Fatal(err)
		}
		if a.End == Impossible {
			clashes += min(1, len(a.Clash))
			if len(a.Clash) == 0 {
				t.Fatalf("seed %d: impossible, and nothing clashes", seed)
			}
			continue
		}
		if a.End == Depends {
			if a.Provided == nil || a.Best != nil {
				t.Fatalf("seed %d: it depends, and on what is not said", seed)
			}
			continue
		}
		in.Order = in.order()
		whole := newScorer(&in, in.whole())
		var scores []Score
		for _, w := range append([]Way{*a.Best}, a.Alternatives...) {
			score, ok := whole.score(w.Placements, w.Choices, asTold)
			if !ok {
				t.Fatalf("seed %d: a way that does not work: %+v", seed, w)
			}
			scores = append(scores, score)
		}
		for i := range scores {
			for j := range scores {
				if i != j && least(scores[i], scores[j]) == scores[i] {
					t.Fatalf("seed %d: %v is as good as %v in everything", seed, scores[i], scores[j])
				}
			}
		}
		shown += len(a.Alternatives)
	}
	if shown < 20 || clashes < 100 {
		t.Errorf("only %d alternatives and %d clashes", shown, clashes)
	}
}

// A profile beyond what the board states is no part of a plan that is proved best: it is
// switched on only by hand, and goes off where modules join those it was on for.
func TestNoTrialIsProvedBest(t *testing.T) {
	for _, set := range []string{"", " profile=on"} {
		b := coretest.Lay(t, coretest.Board(), "@fast:A2"+set)
		b.Found.Settings = b.Settings
		second := rig.Piece{ID: "second", Part: coretest.Parts["fast"], New: true}
		in := Input{Found: *b, Pieces: append(b.Pieces, second), Wish: rig.Wish{MemoryBytes: 32 * quantity.GiB}}
		a, err := Ask(t.Context(), in)
		if err != nil || a.Best == nil {
			t.Fatalf("%q: %v, %v", set, a.End, err)
		}
		r := in.rig(a.Best.Placements, a.Best.Choices)
		for _, f := range fit.Resolve(&r).Findings {
			if f.Code == "profile-trial" {
				t.Errorf("%q: the best plan, %v, is a trial", set, a.End)
			}
		}
	}
}

// What is said to help, helps: without the pieces or the wish that it names there is a
// plan, or may be one. And where a wish alone cannot be met, nothing else is blamed.
func TestHelpHelps(t *testing.T) {
	helped := map[HelpKind]int{}
	for seed := range int64(*questions) {
		rng := rand.New(rand.NewSource(seed))
		in := question(rng)
		if rng.Intn(2) == 0 {
			in.Wish.MemoryBytes = quantity.Bytes(8<<rng.Intn(5)) * quantity.GiB
		}
		a, err := Ask(context.Background(), in)
		if err != nil {
			t.Fatal(err)
		}
		for _, h := range a.Help {
			less := in
			switch h.Do {
			case LeaveHelp:
				less.Pieces = slices.DeleteFunc(slices.Clone(in.Pieces), func(p rig.Piece) bool { return p.ID == h.Item || slices.Contains(h.Also, p.ID) })
				if slices.ContainsFunc(in.Found.Placements, func(p rig.Placement) bool { return p.Item == h.Item }) {
					continue // what was found there leaves otherwise
				}
			case WishHelp:
				if less.Wish.MemoryBytes = 0; len(a.Clash) > 1 || !in.Wish.MemoryBytes.Known() || in.Wish.SystemBytes.Known() {
					continue
				}
			case UnpinHelp:
				less.Pins = slices.DeleteFunc(slices.Clone(in.Pins), func(p rig.Placement) bool { return p.Item == h.Item })
			case AllowHelp:
				less.Bans = slices.DeleteFunc(slices.Clone(in.Bans), func(p rig.Placement) bool { return p.Item == h.Item && p.Socket == h.Socket })
			case PortHelp:
				less.Ports = slices.DeleteFunc(slices.Clone(in.Ports), func(id machine.SocketID) bool { return id == h.Socket.Top() })
			case LetMoveHelp:
				less.May = maps.Clone(in.May)
				less.May[h.Item] = Move
			default:
				continue
			}
			helped[h.Do]++
			got, err := Ask(context.Background(), less)
			if err != nil {
				t.Fatal(err)
			}
			if got.End == Impossible {
				t.Errorf("seed %d: %+v helps, it says, and it is impossible all the same", seed, h)
			}
		}
	}
	for _, k := range []HelpKind{LeaveHelp, WishHelp, UnpinHelp, AllowHelp, PortHelp, LetMoveHelp} {
		if helped[k] == 0 {
			t.Errorf("no help of the kind %q was tried", k)
		}
	}
}

// Why a piece cannot be had is what stops it, not that its place is taken, where it would
// not go in with the place free.
func TestWhyNowhere(t *testing.T) {
	for _, c := range []struct {
		lay, new string
		only     machine.SocketID // the board has no other
		want     fact.Code
	}{
		{"@nvme:U", "gen5", "U", NoFreePlace},
		{"@nvme:U", "tall110", "U", fit.NoPost},
		{"", "tall110", "U", fit.NoPost},
		{"@m16:A1", "ddr5", "A1", fit.WrongGeneration},
		{"@m16:A1", "m32", "A1", NoFreePlace},
	} {
		b := coretest.Lay(t, coretest.Board(), c.lay)
		b.Sheet.Sockets = slices.DeleteFunc(b.Sheet.Sockets, func(k machine.Socket) bool { return k.ID != c.only })
		b.Sheet.Rules = nil
		in := Input{Found: *b, Pieces: append(b.Pieces, rig.Piece{ID: "it", Part: coretest.Parts[c.new], New: true})}
		if got := in.whyNowhere(&Plan{Placements: b.Placements}, "it"); got.Code != c.want {
			t.Errorf("%q, and %s cannot be had: %s, want %s", c.lay, c.new, got.Code, c.want)
		}
	}
}

// Of each place of a plan WhyNot says that it is as good, and of any other that it works
// if and only if there is a plan with it.
func TestWhyNotAgrees(t *testing.T) {
	said := map[fact.Code]int{}
	for seed := range int64(100) {
		rng := rand.New(rand.NewSource(seed))
		in := question(rng)
		a, err := Ask(context.Background(), in)
		if err != nil {
			t.Fatal(err)
		}
		if a.Best == nil {
			continue
		}
		for _, p := range a.Best.Placements {
			if why, err := WhyNot(context.Background(), in, p.Item, p.Socket); err != nil || why.Code != AsGood {
				t.Errorf("seed %d: the best plan has %s in %s, and why not there: %v, %v", seed, p.Item, p.Socket, why, err)
			}
		}
		item := in.Pieces[rng.Intn(len(in.Pieces))]
		for _, k := range in.Found.Sheet.Sockets {
			at := rig.On(k.ID)
			why, err := WhyNot(context.Background(), in, item.ID, at)
			if err != nil {
				t.Fatal(err)
			}
			pinned := in
			pinned.Pins = append(slices.DeleteFunc(slices.Clone(in.Pins), func(p rig.Placement) bool { return p.Item == item.ID }), rig.Placement{Item: item.ID, Socket: at})
			got, err := Ask(context.Background(), pinned)
			if err != nil {
				t.Fatal(err)
			}
			said[why.Code]++
			if works := why.Code == AsGood || why.Code == WorksBut || why.Code == WouldWork; works != (got.Best != nil) {
				t.Errorf("seed %d: why not %s in %s: %v; pinned there it is %s", seed, item.ID, at, why, got.End)
			}
		}
	}
	if said[WorksBut] == 0 || said[AsGood] == 0 {
		t.Errorf("only %v was said", said)
	}
}

// Every best plan stands when it is judged anew, and no longer once a piece of it lies
// elsewhere, or is missing, without the plan being told so.
func TestStands(t *testing.T) {
	stood, fell := 0, 0
	for seed := range int64(max(375, *questions/4)) {
		rng := rand.New(rand.NewSource(seed))
		in := question(rng)
		in.Order = in.order()
		r, err := Find(context.Background(), in)
		if err != nil {
			t.Fatal(err)
		}
		if r.Best == nil || r.End != Optimal || len(r.Best.Placements) == 0 {
			continue
		}
		if stood++; !in.stands(r.Best) {
			t.Errorf("seed %d: the best plan does not stand: %+v", seed, r.Best)
			continue
		}
		n := rng.Intn(len(r.Best.Placements))
		for _, k := range in.Found.Sheet.Sockets {
			b := in.rig(r.Best.Placements, r.Best.Choices)
			after, _, err := b.Moved([]rig.Move{{Item: r.Best.Placements[n].Item, Socket: rig.On(k.ID)}})
			if err != nil {
				continue
			}
			worse := Plan{Placements: after.Placements, Choices: r.Best.Choices}
			if _, ok := newScorer(&in, in.whole()).score(worse.Placements, worse.Choices, asTold); ok {
				continue // another plan
			}
			if fell++; in.stands(&worse) {
				t.Errorf("seed %d: %+v stands", seed, worse)
			}
		}
	}
	if stood < 100 || fell < 100 {
		t.Errorf("only %d plans stood and %d fell", stood, fell)
	}
}
