package plan

// This file puts a search into an answer people can judge: the best plan, the
// real alternatives, and why a socket was not chosen.

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
)

// Advice is the whole answer.
type Advice struct {
	End          End      `json:"end"`
	Proof        string   `json:"proof"` // why the best is the best, or why there is none
	Best         *Way     `json:"best,omitempty"`
	Alternatives []Way    `json:"alternatives"`
	Clash        []string `json:"clash"` // wishes of which one must give way
	Cures        []string `json:"cures"`
	Judged       int      `json:"judged"`
}

// Way is one plan in words and numbers.
type Way struct {
	Placements []rig.Placement `json:"placements"`
	Choices    []rig.Choice    `json:"choices"`
	Says       []string        `json:"says"`    // the best: what it comes to; an alternative: only what differs
	Differs    []string        `json:"differs"` // an alternative: which pieces lie elsewhere, which settings are others
	Moves      []rig.Move      `json:"moves"`   // that make it out of any other plan
	Takes      []part.ID       `json:"takes"`   // from the shelf: pieces named OnShelf before they are in the job
}

// OnShelf names a piece that lies on the shelf and may be taken.
func OnShelf(id part.ID) rig.ItemID { return "shelf/" + rig.ItemID(id) }

// alternatives is how many are shown at most.
const alternatives = 4

// Ask searches and explains. The error is the context's.
func Ask(ctx context.Context, in Input) (Advice, error) {
	in.Order = in.order()
	out := Advice{Alternatives: []Way{}, Clash: []string{}, Cures: []string{}}
	r, err := Find(ctx, in)
	if err != nil {
		return out, err
	}
	out.End, out.Judged = r.End, r.Judged
	out.Proof = r.proof()
	if r.Best == nil {
		if r.End == Impossible {
			err = in.explainClash(ctx, &out)
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
		if out.Judged += other.Judged; other.End != Optimal || other.Best.Score[c] >= r.Best.Score[c] {
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

func (r *Result) proof() string {
	tried := strconv.Itoa(r.Judged) + " builds judged"
	switch {
	case r.End == Impossible && r.Judged == 0:
		return "proved impossible: the parts cannot lie together, wherever each may lie"
	case r.End == Impossible:
		return "proved impossible: " + tried + ", and every other place is ruled out"
	case r.End == GaveUp:
		return "not proved: the search stopped at its budget, " + tried
	case r.Best.Score == r.Bound:
		return "proved best: no plan can be better in anything; " + tried
	}
	return "proved best: everything that could be better was searched; " + tried
}

// way words a plan: what it comes to or, beside the best, what is other.
func (in *Input) way(p, best *Plan) Way {
	out := Way{Placements: p.Placements, Choices: p.Choices, Says: []string{}, Differs: []string{}, Moves: in.moves(p), Takes: []part.ID{}}
	if out.Choices == nil {
		out.Choices = []rig.Choice{}
	}
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
		case best == nil:
			out.Says = append(out.Says, c.says(p.Score[c]))
		default:
			out.Says = append(out.Says, c.against(p.Score[c], best.Score[c]))
		}
	}
	if best == nil {
		return out
	}
	for i := range in.Pieces {
		q := &in.Pieces[i]
		if at := rig.PlaceOf(p.Placements, q.ID); at != rig.PlaceOf(best.Placements, q.ID) {
			where := "stays out"
			if !at.IsZero() {
				where = "in " + at.String()
			}
			out.Differs = append(out.Differs, q.Part.Name+" "+where)
		}
	}
	for i := range in.Found.Sheet.Settings {
		s := &in.Found.Sheet.Settings[i]
		if v := rig.Value(s, p.Choices); v != rig.Value(s, best.Choices) {
			out.Differs = append(out.Differs, s.Name+": "+s.OptionName(v))
		}
	}
	return out
}

// lost names what was in use in the machine and is not in a plan.
func (in *Input) lost(p *Plan) string {
	b := in.rig(p.Placements, p.Choices)
	before, after := fit.Judge(&in.Found), fit.Judge(&b)
	var names, out []string
	for i := range in.Pieces {
		q := &in.Pieces[i]
		if q.Part.Drive == nil && !in.home(q.ID).IsZero() && rig.PlaceOf(p.Placements, q.ID).IsZero() {
			out = append(out, q.Part.Name)
		}
	}
	for i, name := range out {
		if slices.Index(out, name) != i {
			continue // named before
		}
		come := " comes out"
		n := len(slices.DeleteFunc(slices.Clone(out), func(s string) bool { return s != name }))
		if n > 1 {
			come = " come out"
		}
		names = append(names, several(n, name)+come)
	}
	for i := range in.Found.Sheet.Sockets { // the board's own come first, in the order of the sheet
		if o := &after.Sockets[i]; o.State == fit.Off && o.Item == "" && before.Sockets[i].State != fit.Off {
			names = append(names, o.Socket.String()+" goes off")
		}
	}
	if len(names) == 0 {
		return "nothing that was in use is lost"
	}
	return strings.Join(names, ", ")
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
			out = append(out, rig.Move{Setting: s.ID, Value: rig.Value(s, p.Choices)})
		}
	}
	return out
}

// says words what a plan comes to by one criterion.
func (c Criterion) says(n int64) string {
	switch c {
	case Data:
		return count(n, "drive with data comes out or goes behind another bridge", "drives with data come out or go behind another bridge")
	case System:
		return "system drive: " + rate(n) + ", " + per100GB(n) + " for 100 GB"
	case Graphics:
		return "cards lose " + lostRate(n) + " of their rate"
	case Roles:
		return "scratch and array: " + rate(n)
	case Rates:
		return "all drives at once: " + rate(n)
	case Memory:
		s := "memory: " + peak(n) + " at its peak"
		if w := slotWarnings(n); w > 0 {
			s += ", slots not in the sheet's order"
		}
		return s
	case InUse:
		if n == 0 {
			return "nothing in use is lost"
		}
		return count(n, "thing in use is lost", "things in use are lost")
	case Cooling:
		return count(n, "drive may get warm for want of a heatsink", "drives may get warm for want of a heatsink, one that surely does counted twice")
	case Warnings:
		return count(n, "warning", "warnings")
	case Opened:
		return count(n, "socket inside is touched", "sockets inside are touched")
	case Settings:
		return count(n, "setting changes", "settings change")
	case Cost:
		if n == 0 {
			return "nothing from the shelf"
		}
		return "from the shelf for " + shelf.Cents(n).String()
	}
	return ""
}

// against words a criterion beside the best plan's.
func (c Criterion) against(n, best int64) string {
	switch c {
	case System, Roles, Rates:
		what := map[Criterion]string{System: "system drive ", Roles: "scratch and array ", Rates: "all drives at once "}[c]
		return what + rate(n) + " instead of " + rate(best) + ": " + saved(n, best) + " for 100 GB"
	case Graphics:
		return c.says(n) + ", instead of " + lostRate(best)
	case Memory:
		if peak(n) != peak(best) {
			return "memory " + peak(n) + " at its peak instead of " + peak(best)
		}
		if n < best {
			return "memory slots in the sheet's order"
		}
		return "memory slots not in the sheet's order"
	}
	return c.says(n) + ", instead of " + strconv.FormatInt(best, 10)
}

func count(n int64, one, many string) string {
	switch n {
	case 0:
		return "no " + one
	case 1:
		return "1 " + one
	}
	return strconv.FormatInt(n, 10) + " " + many
}

// lostRate prints a rate that is lost.
func lostRate(n int64) string {
	if n == 0 {
		return "nothing"
	}
	return quantity.MBps(float64(n)).String()
}

// rate prints a score that is less a rate.
func rate(n int64) string {
	if n == 0 {
		return "no rate that is known"
	}
	return quantity.MBps(float64(-n)).String()
}

// A score of memory is less four times its peak, and one for each warning about
// its slots, of which there are at most two.
func slotWarnings(n int64) int64 { return ((n % 4) + 4) % 4 }

func peak(n int64) string { return rate((n - slotWarnings(n)) / 4) }

// seconds is the time for 100 GB at a rate, decimal as drives are sold.
func seconds(n int64) float64 { return 100_000 / float64(-n) }

func per100GB(n int64) string { return fmt.Sprintf("%.0f s", math.Ceil(seconds(n))) }

func saved(n, best int64) string {
	if n == 0 || best == 0 {
		return "no telling how long"
	}
	d := seconds(n) - seconds(best)
	if d < 0 {
		return fmt.Sprintf("%.0f s less", math.Round(-d))
	}
	return fmt.Sprintf("%.0f s more", math.Round(d))
}

// WhyNot says why the best plan does not have a piece in a socket: what stops it
// there, or what the best plan with it there loses.
func WhyNot(ctx context.Context, in Input, best *Plan, item rig.ItemID, socket rig.Path) (string, error) {
	in.Order = in.order()
	p := in.piece(item)
	if p == nil {
		return "no such piece", nil
	}
	name := p.Part.Name
	pinned := in
	pinned.Pins = append(slices.DeleteFunc(slices.Clone(in.Pins), func(p rig.Placement) bool { return p.Item == item }), rig.Placement{Item: item, Socket: socket})
	r, err := Find(ctx, pinned)
	if err != nil {
		return "", err
	}
	switch {
	case r.End == GaveUp:
		return "not known: the search stopped at its budget", nil
	case r.End == Impossible:
		return in.stopped(best, item, socket), nil
	case best == nil:
		return name + " would work in " + socket.String(), nil
	}
	for _, c := range in.Order {
		if r.Best.Score[c] > best.Score[c] {
			return name + " works in " + socket.String() + ", but: " + c.against(r.Best.Score[c], best.Score[c]), nil
		}
	}
	return name + " would be as good in " + socket.String() + "; of equal plans the one with the earlier sockets is taken", nil
}

// stopped words what stops a piece in a socket, with the rest as in the best plan.
func (in *Input) stopped(best *Plan, item rig.ItemID, socket rig.Path) string {
	b := in.rig(in.Found.Placements, in.Found.Settings)
	if best != nil {
		b.Setup = rig.Setup{Placements: best.Placements, Settings: best.Choices}
	}
	after, _, err := b.Moved([]rig.Move{{Item: item, Socket: socket}})
	if err != nil {
		return socket.String() + " is not there in the best plan"
	}
	b.Setup = after
	r := fit.Resolve(&b)
	for _, f := range r.Findings {
		if f.Severity == fit.Stops && f.Item == item || f.Code == "fit-unknown" && f.Item == item {
			return f.Says
		}
	}
	for _, f := range r.Findings {
		if f.Severity == fit.Stops {
			return f.Says
		}
	}
	return "with it there, nothing works for the other parts"
}
