package plan

// This file proves what can be proved where not all is known. A second search takes
// every answer that is not known at its best: where even that finds nothing, there is
// no plan; where it finds none better than a sure plan at its worst, that plan is the
// best, to the rounding of rates, one MB/s a drive. Else what it found is best provided
// that some things turn out so.

import (
	"cmp"
	"context"
	"slices"

	"deepbay/internal/core/rig"
)

// Proof is what is known of the plans that are not sure.
type Proof struct {
	End    End
	Other  *Plan         // better than the best sure plan, or a plan where none is sure, if what it hangs on turns out well
	Hangs  []rig.Learned // what that is, the cheapest to look at first; see provided
	Judged int
}

// Prove says how far the result of Find holds, whatever is not known.
func Prove(ctx context.Context, in Input, r Result) (Proof, error) {
	in.Order = in.order()
	out := Proof{End: r.End}
	if !r.Open || r.End == GaveUp {
		return out, nil
	}
	in.corner = atBest
	in.cover = newCover(&in)
	if r.Best == nil {
		h, err := Find(ctx, in)
		out.Judged = h.Judged
		switch {
		case err != nil:
			return out, err
		case h.End == GaveUp && h.Best == nil:
			out.End = GaveUp
		case h.Best != nil:
			out.End, out.Other = Depends, h.Best
			out.Hangs = in.provided(h.Best, nil)
		}
		return out, nil
	}
	if in.unset() { // what is as good with one value of it need not be with another
		out.End = BestSure
	}
	rival, err := in.rival(ctx, &out, r.Best)
	if err != nil || rival == nil {
		return out, err
	}
	if out.Hangs = in.provided(rival, r.Best); len(out.Hangs) > 0 {
		out.Other = rival
	}
	return out, nil
}

// unset reports a setting that rules ask about and of which nobody knows the value.
func (in *Input) unset() bool {
	for i := range in.Found.Sheet.Settings {
		if s := &in.Found.Sheet.Settings[i]; in.asks(s) && in.Found.Choice(s) == "" {
			return true
		}
	}
	return false
}

// rival is the best other plan there may be, nil if none may be better than a sure plan
// at its worst; of those that may be, only one better than that at its best is
// returned. A loss that may be of one piece in one place, in both plans, does not tell
// them apart.
func (in *Input) rival(ctx context.Context, out *Proof, sure *Plan) (*Plan, error) {
	rival, better := &Plan{}, false
	budget := cmp.Or(in.Budget, DefaultBudget)
	for _, h := range split(in, in.cover.shares()) { // what both open is opened once
		mine := sure.of(h)
		apart := newScorer(in, h) // which counts no loss that both share
		if told, ok := apart.score(mine.Placements, mine.Choices, asTold); ok {
			mine.Score = told // what is not beaten stays as it was told
		}
		held := *in
		held.shared = newScorer(in, h).judge(mine.Placements, mine.Choices, atWorst).Doubts
		s := newSearch(ctx, &held, h, budget)
		low, ok := s.score(mine.Placements, mine.Choices, atWorst)
		if ok {
			s.best = &low
		}
		s.not = &mine
		s.run()
		budget = s.budget
		out.Judged += s.judged
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if s.out || s.met || !ok { // not searched to its end, something better found, or not as sure as it looked
			out.End = BestSure
		}
		if s.met {
			if high, ok := s.score(mine.Placements, mine.Choices, atBest); !ok || compare(in.Order, s.best, &high) < 0 {
				better = true
				mine = s.plan()
				if told, ok := apart.score(mine.Placements, mine.Choices, atBest); ok {
					mine.Score = told
				}
			}
		}
		rival.Placements = append(rival.Placements, mine.Placements...)
		rival.Choices = append(rival.Choices, mine.Choices...)
		rival.Score = rival.Score.plus(mine.Score)
	}
	if !better {
		return nil, nil
	}
	return rival, nil
}

// of is the half of a plan.
func (p *Plan) of(h half) Plan {
	var out Plan
	for _, at := range p.Placements {
		if slices.ContainsFunc(h.pieces, func(q rig.Piece) bool { return q.ID == at.Item }) {
			out.Placements = append(out.Placements, at)
		}
	}
	for _, c := range p.Choices {
		for _, set := range h.settings {
			if set.ID == c.Setting {
				out.Choices = append(out.Choices, c)
			}
		}
	}
	return out
}

// same reports that what is placed and chosen now is a plan, up to pieces that nothing
// tells apart.
func (s *search) same(p *Plan) bool {
	if len(s.placed) != len(p.Placements) || slices.ContainsFunc(s.placed, func(q rig.Placement) bool {
		other := rig.ItemIn(p.Placements, q.Socket)
		return other == "" || !s.alike(other, q.Item)
	}) {
		return false
	}
	for j, set := range s.half.settings {
		if s.chosen[j].Value != rig.Value(set, p.Choices) {
			return false
		}
	}
	return true
}

// alike reports one piece, or twins.
func (s *search) alike(a, b rig.ItemID) bool {
	root := func(id rig.ItemID) int {
		i := slices.IndexFunc(s.choices, func(c choice) bool { return c.piece.ID == id })
		for s.choices[i].twin >= 0 {
			i = s.choices[i].twin
		}
		return i
	}
	return a == b || root(a) == root(b)
}
