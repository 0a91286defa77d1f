package plan

import (
	"context"
	"fmt"
	"math/rand"
	"slices"
	"testing"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// unstated is a fact that can be left out of a question, and what it may turn out to be.
type unstated struct {
	values int
	set    func(in *Input, value int) // 0: not stated
}

// at is a value of a list, the zero value for 0.
func at[T any](value int, of ...T) T {
	if value == 0 {
		var none T
		return none
	}
	return of[value-1]
}

// leavable lists facts of a question that may be left out and rest on nothing usual.
func leavable(in *Input) []unstated {
	var out []unstated
	socket := func(i, values int, set func(k *machine.Socket, value int)) {
		out = append(out, unstated{values, func(in *Input, v int) { set(&in.Found.Sheet.Sockets[i], v) }})
	}
	for i := range in.Found.Sheet.Sockets {
		k := in.Found.Sheet.Sockets[i]
		if k.Gen.Known() {
			socket(i, 5, func(k *machine.Socket, v int) { k.Gen = quantity.Gen(v) })
		}
		if k.SATAGen.Known() {
			socket(i, 3, func(k *machine.Socket, v int) { k.SATAGen = quantity.Gen(v) })
		}
		if k.Kind != machine.M2 {
			continue
		}
		socket(i, 2, func(s *machine.Socket, v int) { s.LengthsMM = at(v, k.LengthsMM, []quantity.Millimetres{30}) })
		socket(i, 3, func(s *machine.Socket, v int) {
			s.Protocols = at(v, []link.Protocol{link.PCIe}, []link.Protocol{link.SATA}, []link.Protocol{link.PCIe, link.SATA})
		})
		if k.Key != "" {
			socket(i, 3, func(s *machine.Socket, v int) { s.Key = at(v, k.Key, part.KeyM, part.KeyB) })
		}
	}
	for i := range in.Pieces {
		piece := func(values int, set func(p *part.Part, value int)) {
			out = append(out, unstated{values, func(in *Input, v int) { set(in.Pieces[i].Part, v) }})
		}
		if d := in.Pieces[i].Part.Drive; d != nil {
			piece(2, func(p *part.Part, v int) {
				p.Drive.CapacityBytes = at(v, quantity.DriveBytes(100), quantity.DriveBytes(4000))
			})
			if d.Protocol == link.PCIe {
				piece(5, func(p *part.Part, v int) { p.Drive.Gen = quantity.Gen(v) })
			}
		}
		if in.Pieces[i].Part.Module != nil {
			piece(2, func(p *part.Part, v int) { p.Module.SizeBytes = at(v, 4*quantity.GiB, 32*quantity.GiB) })
			piece(2, func(p *part.Part, v int) { p.Module.RateMTps = at[quantity.MTps](v, 2133, 3200) })
		}
	}
	for i := range in.Found.Sheet.Settings {
		st := in.Found.Sheet.Settings[i]
		if st.Default == "" || slices.ContainsFunc(in.Found.Settings, func(c rig.Choice) bool { return c.Setting == st.ID }) {
			continue
		}
		out = append(out, unstated{len(st.Options), func(in *Input, v int) {
			in.Found.Sheet.Settings[i].Default = ""
			if v > 0 {
				in.Found.Sheet.Settings[i].Default = st.Options[v-1].Value
			}
		}})
	}
	for _, p := range in.Found.Sheet.Chassis.Plugs {
		out = append(out, unstated{3, func(in *Input, v int) {
			c := &in.Found.Sheet.Chassis
			c.Plugs = slices.DeleteFunc(slices.Clone(c.Plugs), func(q machine.PlugCount) bool { return q.Kind == p.Kind })
			if v > 0 {
				c.Plugs = append(c.Plugs, machine.PlugCount{Kind: p.Kind, Count: at(v, 0, p.Count, 20)})
			}
		}})
	}
	if n := len(in.Found.Sheet.Processors); n > 0 {
		out = append(out, unstated{n, func(in *Input, v int) {
			in.Found.Processor = ""
			if v > 0 {
				in.Found.Processor = in.Found.Sheet.Processors[v-1].ID
			}
		}})
	}
	return out
}

// apart is a copy of a question whose sheet and parts can be changed.
func apart(in Input) Input {
	sheet := *in.Found.Sheet
	sheet.Sockets, sheet.Settings = slices.Clone(sheet.Sockets), slices.Clone(sheet.Settings)
	in.Found.Sheet = &sheet
	parts := map[*part.Part]*part.Part{}
	in.Pieces, in.Found.Pieces = slices.Clone(in.Pieces), slices.Clone(in.Found.Pieces)
	own := func(p **part.Part) {
		if parts[*p] == nil {
			parts[*p] = (*p).Clone()
		}
		*p = parts[*p]
	}
	for i := range in.Pieces {
		own(&in.Pieces[i].Part)
	}
	for i := range in.Found.Pieces {
		own(&in.Found.Pieces[i].Part)
	}
	return in
}

// TestProved leaves facts out of random questions and tries what they may turn out to
// be: a sure plan works in every case, what is proved best is as good as the best in
// every case, and what is proved impossible is so in every case.
func TestProved(t *testing.T) {
	for name, ask := range map[string]func(*rand.Rand) Input{"machines": question, "crowded": crowded} {
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			want := *questions / 5
			if testing.Short() {
				want = 40
			}
			ends, ctx := map[End]int{}, context.Background()
			turns, told := map[int64]bool{}, 0
			for seed := int64(0); int(seed) < want; seed++ {
				rng := rand.New(rand.NewSource(seed))
				in := apart(ask(rng))
				in.Order = in.order()
				in.Found.Shown = shown(rng, &in)
				all := leavable(&in)
				rng.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
				out := all[:min(len(all), 1+rng.Intn(3))]
				for _, u := range out {
					u.set(&in, 0)
				}
				r, err := Find(ctx, in)
				if err != nil {
					t.Fatal(err)
				}
				p, err := Prove(ctx, in, r)
				if err != nil {
					t.Fatal(err)
				}
				ends[p.End]++
				if p.End == Depends && p.Other == nil || p.Other != nil && p.End == BestSure && len(p.Hangs) == 0 {
					t.Fatalf("seed %d: %+v names nothing", seed, p)
				}
				told += learnt(t, seed, &in, r, p)
				if r.Best != nil && p.Other != nil {
					if want := promised(&in, p.Other, r.Best); p.Other.Score != want {
						t.Fatalf("seed %d: %+v is told to come to that, and comes to %v", seed, p.Other, want)
					}
				}
				var try func(n int)
				try = func(n int) {
					if n < len(out) {
						for v := 1; v <= out[n].values; v++ {
							out[n].set(&in, v)
							try(n + 1)
						}
						return
					}
					turned(t, seed, in, r, p, turns)
				}
				try(0)
			}
			t.Logf("%v; %d of the merely sure are not the best in some case; in %d it is said how things must turn out for another", ends, len(turns), told)
			for _, end := range []End{Optimal, BestSure, Depends, Impossible} {
				if ends[end] < want/100 {
					t.Errorf("%s: %d times of %d shows little", end, ends[end], want)
				}
			}
		})
	}
}

// promised is what another plan comes to if all turns out well: where it is the sure one,
// as much as that is sure of.
func promised(in *Input, other, sure *Plan) (sum Score) {
	for _, h := range split(in, newCover(in).shares()) {
		s, mine, told := newScorer(in, h), other.of(h), sure.of(h)
		at := atBest
		if fmt.Sprint(mine.Placements, mine.Choices) == fmt.Sprint(told.Placements, told.Choices) {
			at = asTold
		}
		score, _ := s.score(mine.Placements, mine.Choices, at)
		sum = sum.plus(score)
	}
	return sum
}

// shown is what screens showed of some of what works in the machine as it came.
func shown(rng *rand.Rand, in *Input) []rig.Shown {
	var out []rig.Shown
	now := fit.Resolve(&in.Found)
	for _, s := range now.Sockets {
		if s.Item == "" || s.State != fit.Live || rng.Intn(2) == 0 {
			continue
		}
		line := rig.Shown{Item: s.Item, Socket: s.Socket, Under: &in.Found.Setup}
		if s.Link != nil && s.Link.Known() && s.Link.Protocol != link.USB && rng.Intn(2) == 0 {
			line.Gen, line.Lanes = s.Link.Gen.Low, s.Link.Lanes.Low
		}
		out = append(out, line)
	}
	return out
}

// shows reports that what screens showed can be so.
func shows(in *Input) bool {
	now := fit.Resolve(&in.Found)
	return !slices.ContainsFunc(in.Found.Shown, func(line rig.Shown) bool {
		s := now.Socket(line.Socket)
		return s.State != fit.Live || s.Link != nil && line.Gen.Known() && s.Link.Gen.High < line.Gen
	})
}

// learnt checks what another plan is said to hang on: with all of it told the plan is
// sure and better, without any one of it it is not. It is 1 where that was found.
func learnt(t *testing.T, seed int64, in *Input, r Result, p Proof) int {
	t.Helper()
	if p.Other == nil || len(p.Hangs) == 0 || p.Hangs[0].Is == "" {
		return 0
	}
	for i := -1; i < len(p.Hangs); i++ {
		told := p.Hangs
		if i >= 0 {
			told = slices.Delete(slices.Clone(told), i, i+1)
		}
		now := *in
		now.Found = in.Found.Learn(told)
		mine := rig.Rig{Sheet: in.Found.Sheet, Pieces: in.Pieces}
		mine = mine.Learn(told)
		now.Pieces = mine.Pieces
		score := func(p *Plan) (Score, bool) {
			s := newScorer(&now, now.whole())
			return s.score(p.Placements, p.Choices, asTold)
		}
		got, ok := score(p.Other)
		if ok && r.Best != nil {
			before, sure := score(r.Best)
			ok = !sure || compare(in.Order, &got, &before) < 0
		}
		if ok != (i < 0) {
			t.Fatalf("seed %d: %+v hangs on %+v, and without number %d it is better and sure: %v\n%s", seed, p.Other, p.Hangs, i, ok, pieceNames(*in))
		}
	}
	return 1
}

// turned checks what was proved against one way in which the facts turned out.
func turned(t *testing.T, seed int64, in Input, r Result, p Proof, turns map[int64]bool) {
	t.Helper()
	if found := fit.Judge(&in.Found); found.Count("found-otherwise") > 0 || !shows(&in) {
		return // it cannot have turned out so
	}
	now, err := Find(context.Background(), in)
	if err != nil {
		t.Fatal(err)
	}
	if p.End == Impossible && now.End != Impossible {
		t.Fatalf("seed %d: proved impossible, and %s with %+v\n%s", seed, now.End, now.Best, pieceNames(in))
	}
	if r.Best == nil {
		return
	}
	whole := newScorer(&in, in.whole())
	score, ok := whole.score(r.Best.Placements, r.Best.Choices, asTold)
	if !ok {
		b := in.rig(r.Best.Placements, r.Best.Choices)
		t.Fatalf("seed %d: %+v was sure, and does not work: %+v\n%s", seed, r.Best, fit.Judge(&b).Troubles, pieceNames(in))
	}
	better := now.End == Optimal && compare(in.Order, &now.Best.Score, &score) < 0
	if better && score[Rates]-now.Best.Score[Rates] <= int64(len(in.Pieces)) {
		rounded := now.Best.Score // each drive's rate is cut to full MB/s, so a sum of shares is that much uncertain
		rounded[Rates] = score[Rates]
		better = compare(in.Order, &rounded, &score) < 0
	}
	if better && p.End == BestSure {
		turns[seed] = true
	}
	if p.End == Optimal && better {
		t.Fatalf("seed %d: %+v was proved best and comes to %v; better is %+v\n%s", seed, r.Best, score, now.Best, pieceNames(in))
	}
}
