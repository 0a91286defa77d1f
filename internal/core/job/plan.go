package job

// This file asks the planner about a job.

import (
	"context"
	"slices"
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/workorder"
)

// PlanQuestion is what the technician adds to a job when asking for the best plan.
type PlanQuestion struct {
	Pins     []rig.Placement    `json:"pins,omitempty" jsonschema:"maxItems=200"`    // these pieces go there
	Bans     []rig.Placement    `json:"bans,omitempty" jsonschema:"maxItems=200"`    // and these do not
	Stay     []rig.ItemID       `json:"stay,omitempty" jsonschema:"maxItems=200"`    // found pieces that are not moved
	Scratch  []rig.ItemID       `json:"scratch,omitempty" jsonschema:"maxItems=200"` // drives whose own rate matters
	Array    []rig.ItemID       `json:"array,omitempty" jsonschema:"maxItems=200"`   // drives that work together, as fast as their slowest
	Leave    []rig.ItemID       `json:"leave,omitempty" jsonschema:"maxItems=200"`   // found pieces that may come out
	Ports    []machine.SocketID `json:"ports,omitempty" jsonschema:"maxItems=200"`   // sockets that stay on and free
	UseShelf bool               `json:"useShelf,omitempty"`                          // carriers, adapters and boxes of the shelf may be taken where that is better
	Shelf    []shelf.Stock      `json:"-"`                                           // what else is at hand, tried where there is no plan
	Fitted   bool               `json:"fitted,omitempty"`                            // what hands fitted stays, as far as there is a plan with it
	Order    []string           `json:"order,omitempty" jsonschema:"maxItems=20"`    // criteria, what counts most first
}

// Try is what would come of a part that is not in the job in each place of its plan, the best
// first, and the machine with it on the mat.
func (j *Job) Try(p *part.Part) (rig.Rig, []fit.Offer) {
	r, id := j.PlannedRig(), plan.OnShelf(p.ID)
	r.Pieces = append(slices.Clone(r.Pieces), rig.Piece{ID: id, Part: p, New: true})
	return r, fit.Offers(&r, id)
}

// PlanInput makes the planner's question; an error is a problem.List into the question.
func (j *Job) PlanInput(q PlanQuestion) (plan.Input, error) {
	var list problem.List
	in := plan.Input{Found: j.FoundRig(), Pieces: j.PlannedRig().Pieces, Wish: j.wish(), Pins: q.Pins, Bans: q.Bans, Bays: j.Planned.Bays, Barred: j.barred(), Stuck: j.tried(), Ports: q.Ports, Scratch: q.Scratch, Array: q.Array, May: map[rig.ItemID]plan.Role{}, Prices: map[rig.ItemID]shelf.Cents{}}
	j.leaveOut(&in, &q)
	for i := range q.Shelf {
		e := &q.Shelf[i]
		if e.Count == 0 {
			continue
		}
		in.Shelf = append(in.Shelf, &e.Part)
		if q.UseShelf && len(e.Part.Positions()) > 0 && j.Part(e.Part.ID) == nil {
			id := plan.OnShelf(e.Part.ID)
			in.Pieces = append(in.Pieces, rig.Piece{ID: id, Part: &e.Part})
			in.May[id], in.Prices[id] = plan.Leave, e.Price
		}
	}
	for i, p := range q.Pins {
		j.mustKnow(&list, "/pins/"+strconv.Itoa(i)+"/item", p.Item)
	}
	for i, p := range q.Bans {
		if p.Item != "" {
			j.mustKnow(&list, "/bans/"+strconv.Itoa(i)+"/item", p.Item)
		}
	}
	each := func(field string, ids []rig.ItemID, role plan.Role) {
		for i, id := range ids {
			j.mustKnow(&list, field+"/"+strconv.Itoa(i), id)
			if role != "" {
				in.May[id] = role
			}
		}
	}
	for _, it := range j.Items { // what a piece is for is said once, in the job
		switch {
		case it.Role == RoleScratch:
			in.Scratch = append(slices.Clip(in.Scratch), it.ID)
		case it.Role == RoleArray:
			in.Array = append(slices.Clip(in.Array), it.ID)
		case it.Role == RoleLeaves && !it.New || it.Role == RoleTool:
			in.May[it.ID] = plan.Leave
		}
	}
	each("/scratch", q.Scratch, "")
	each("/array", q.Array, "")
	each("/leave", q.Leave, plan.Leave)
	each("/stay", q.Stay, plan.Stay)
	for i, id := range q.Ports {
		if j.Sheet.Socket(id) == nil {
			list.Add("/ports/"+strconv.Itoa(i), fact.Of(NoSocketIsNamed, id, j.Sheet.SocketIDs()))
		}
	}
	for i, name := range q.Order {
		c, ok := plan.ParseCriterion(name)
		if !ok {
			list.Add("/order/"+strconv.Itoa(i), fact.Of(NoSuchCriterion, name, plan.Criteria()))
		}
		in.Order = append(in.Order, c)
	}
	return in, list.Err()
}

// leaveOut takes away the drives and cards that somebody took out of the plan by hand,
// with what they carry: they leave, as if they had not been found, unless they must stay
// or are asked about. Modules come and go with every plan, so nothing is told by them.
func (j *Job) leaveOut(in *plan.Input, q *PlanQuestion) {
	out := func(id rig.ItemID) bool {
		if it := j.Item(id); it == nil || j.Part(it.Part).Module != nil {
			return false
		}
		if slices.Contains(in.Stuck, rig.Placement{Item: id, Socket: j.Found.Where(id)}) {
			return false // it does not come out
		}
		return !j.Found.Where(id).IsZero() && j.Planned.Where(id).IsZero() && !slices.Contains(in.Wish.Keep, id) && !slices.Contains(q.Stay, id) &&
			!slices.Contains(q.Leave, id) && rig.PlaceOf(q.Pins, id).IsZero()
	}
	if !slices.ContainsFunc(in.Found.Placements, func(p rig.Placement) bool { return out(p.Item) }) {
		return
	}
	in.Found.Setup = in.Found.Setup.Clone()
	in.Found.Placements = slices.DeleteFunc(in.Found.Placements, func(p rig.Placement) bool { return out(p.Item) })
	in.Pieces = slices.DeleteFunc(slices.Clone(in.Pieces), func(p rig.Piece) bool { return out(p.ID) })
}

// AskPlan finds the best plan for a job, the alternatives, or why there is none.
func (j *Job) AskPlan(ctx context.Context, q PlanQuestion) (plan.Advice, error) {
	in, err := j.PlanInput(q)
	if err != nil {
		return plan.Advice{}, err
	}
	if q.Fitted {
		in.Now = &j.Planned
	}
	if fitted := j.fitted(&in); q.Fitted && len(fitted) > 0 {
		with := in
		with.Pins = slices.Concat(in.Pins, fitted)
		if a, err := plan.Ask(ctx, with); err != nil || a.Best != nil {
			return a, err
		}
	}
	return plan.Ask(ctx, in)
}

// fitted is what hands put where it is planned, and nobody pinned elsewhere.
func (j *Job) fitted(in *plan.Input) []rig.Placement {
	var out []rig.Placement
	for _, d := range j.deeds() {
		p := rig.Placement{Item: d.Item, Socket: d.Socket}
		if workorder.Fits(d.Step) && j.Planned.Where(d.Item) == d.Socket && rig.PlaceOf(in.Pins, d.Item).IsZero() && !slices.Contains(in.Stuck, p) && !slices.Contains(out, p) {
			out = append(out, p)
		}
	}
	return out
}

// WhyNot says why a piece is not in a socket in the best plan for a job.
func (j *Job) WhyNot(ctx context.Context, q PlanQuestion, item rig.ItemID, socket rig.Path) (fact.Fact, error) {
	in, err := j.PlanInput(q)
	if err != nil {
		return fact.Fact{}, err
	}
	var list problem.List
	if j.mustKnow(&list, "/item", item); len(list) > 0 {
		return fact.Fact{}, list
	}
	return plan.WhyNot(ctx, in, item, socket)
}

// Shop finds which parts of the shelf meet a need in this machine. What was planned
// to be fitted so far stays part of it.
func (j *Job) Shop(ctx context.Context, need plan.Need, stock []shelf.Stock) (plan.Shopping, error) {
	in, err := j.PlanInput(PlanQuestion{})
	if err != nil {
		return plan.Shopping{}, err
	}
	return plan.Shop(ctx, in, need, stock)
}
