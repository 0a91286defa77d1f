package job

// This file is what goes with the machine on paper: until when parts can go back, what became of the
// old ones, and that the owner agreed.

import (
	"slices"
	"strings"
	"time"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Fate is where a piece went that is not in the machine any more.
type Fate string

// The fates.
const (
	WithOwner Fate = "owner"
	OnShelf   Fate = "shelf"    // of the shop
	SentBack  Fate = "returned" // to where it came from
	Recycled  Fate = "recycled"
)

// Values lists the fates for the formats.
func (Fate) Values() []string {
	return []string{string(WithOwner), string(OnShelf), string(SentBack), string(Recycled)}
}

// Agreement is that the owner agreed to what was done.
type Agreement struct {
	Owner string    `json:"owner" jsonschema:"minLength=1,maxLength=120"` // who agreed
	By    string    `json:"by,omitempty" jsonschema:"maxLength=80"`       // who noted it
	At    time.Time `json:"at,omitzero"`
}

// papers keeps until when a part is under warranty, and until when it can be returned.
func (a *applier) papers() fact.Fact {
	c := &a.change
	if a.job.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	warranty, returns := Date(strings.TrimSpace(c.Value)), Date(strings.TrimSpace(c.Text))
	switch {
	case !warranty.Valid():
		return a.refuse("/value", fact.Of(NoSuchDay, string(warranty)))
	case !returns.Valid():
		return a.refuse("/text", fact.Of(NoSuchDay, string(returns)))
	}
	it := a.job.Item(c.Item)
	it.Warranty, it.Returns = warranty, returns
	return fact.Of(PapersAre, c.Item, fact.Typed(warranty), fact.Typed(returns))
}

// fateEvent names what became of a part in the record.
func fateEvent(id rig.ItemID) string { return string(DoFate) + "/" + string(id) }

// fate keeps what became of a piece that is taken out.
func (a *applier) fate() fact.Fact {
	c, j := &a.change, &a.job
	if j.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	it, fate := j.Item(c.Item), Fate(c.Value)
	switch {
	case fate == "":
		it.Fate = ""
		j.void(fateEvent(c.Item), a.by)
		return fact.Of(FateUnsaid, c.Item)
	case !slices.Contains(fate.Values(), c.Value):
		return a.refuse("/value", fact.Of(NoSuchFate, fact.Typed(c.Value)))
	case !j.last().Where(c.Item).IsZero() || !j.Planned.Where(c.Item).IsZero():
		return a.refuse("/item", fact.Of(FateStays, j.Name(c.Item)))
	case (fate == OnShelf || fate == Recycled) && j.Part(it.Part).Drive != nil && !j.Part(it.Part).Drive.Form.Optical() && it.Holds != rig.Blank:
		return a.refuse("/value", fact.Of(FateHolds, j.Name(c.Item))) // nobody's data goes on with a used drive
	}
	effects := []data.Act{{What: data.Leaves, Item: c.Item}, {What: data.Removed, Item: c.Item}}
	if fate == WithOwner { // whose data it is
		effects = effects[1:]
	}
	j.void(fateEvent(c.Item), a.by)
	if !a.deed("/value", fateEvent(c.Item), effects...) {
		return fact.Fact{}
	}
	it.Fate = fate
	return fact.Of(FateIs, c.Item, fact.Typed(fate))
}

// agreed keeps that the owner agreed, or takes that back.
func (a *applier) agreed() fact.Fact {
	c := &a.change
	if c.Do == DoDisagree {
		if a.job.Agreed == nil {
			return a.refuse("/do", fact.Of(NobodyAgreed))
		}
		a.job.Agreed = nil
		return fact.Of(AgreedNot)
	}
	owner := strings.TrimSpace(c.Text)
	switch {
	case owner == "":
		return a.refuse("/text", fact.Of(WhoAgreed))
	case len([]rune(owner)) > 120:
		return a.refuse("/text", fact.Of(TooLong, 120))
	}
	a.job.Agreed = &Agreement{owner, a.by.By, a.by.At}
	return fact.Of(OwnerAgreed, fact.Typed(owner))
}

// plainly is what was done in words that an owner understands.
func plainly(v *View) []fact.Fact {
	r, out := &v.Report, []fact.Fact{}
	for i := range r.Fitted {
		if f := &r.Fitted[i]; f.From.IsZero() {
			out = append(out, fact.Of(PlainFitted, f.Item))
		} else {
			out = append(out, fact.Of(PlainMoved, f.Item))
		}
	}
	for i := range r.Removed {
		f := &r.Removed[i]
		if fate := v.Job.Item(f.Item).Fate; fate != "" {
			out = append(out, fact.Of(PlainOutTo, f.Item, fact.Typed(fate)))
		} else {
			out = append(out, fact.Of(PlainOut, f.Item))
		}
	}
	if was, is := v.Found.Memory, v.Planned.Memory; is.Sized() && was.Sized() && was.Total.Low != is.Total.Low {
		out = append(out, fact.Of(PlainMemory, was.Total.Low, is.Total.Low))
	}
	if was, is := room(&v.Job, &v.Found), room(&v.Job, &v.Planned); is != was && is > 0 {
		out = append(out, fact.Of(PlainRoom, was, is))
	}
	for i := range v.Job.Transfers {
		if t := &v.Job.Transfers[i]; t.Proof != nil {
			out = append(out, fact.Of(PlainData, t.From, t.To))
		}
	}
	return out
}

// room is what the drives of a machine hold together, as their labels say, 0 where one does not.
func room(j *Job, a *fit.Answer) quantity.Bytes {
	sum := quantity.Bytes(0)
	for i := range a.Sockets {
		it := j.Item(a.Sockets[i].Item)
		if it == nil {
			continue
		}
		if d := j.Part(it.Part).Drive; d != nil && !d.Form.Optical() {
			if !d.CapacityBytes.Known() {
				return 0
			}
			sum += d.CapacityBytes
		}
	}
	return sum
}
