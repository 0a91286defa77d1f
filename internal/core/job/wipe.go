package job

// This file is what becomes of what an old drive holds.

import (
	"slices"
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// Wiped is that a drive was wiped, and that it was read back.
type Wiped struct {
	Item  rig.ItemID  `json:"item" jsonschema:"minLength=1,maxLength=60"`
	Level volume.Wipe `json:"level"`
	Held  rig.Content `json:"held,omitempty"` // before
	By    string      `json:"by,omitempty" jsonschema:"maxLength=80"`
	At    time.Time   `json:"at,omitzero"`
}

// Says is that it was wiped as a fact.
func (w *Wiped) Says() fact.Fact { return fact.Of(WipedIs, w.Item, fact.Typed(w.Level)) }

// WipedAs is how a drive was wiped, nil where it was not.
func (j *Job) WipedAs(id rig.ItemID) *Wiped {
	for i := range j.Wiped {
		if j.Wiped[i].Item == id {
			return &j.Wiped[i]
		}
	}
	return nil
}

// wipe keeps that a drive was wiped, or takes that back. Only one that is out of the machine and stays
// out is wiped, only when somebody said where a copy is, and only when the end of its serial number is
// typed: at every moment there is a good copy of what must stay.
func (a *applier) wipe() fact.Fact {
	c, j := &a.change, &a.job
	if j.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	it := j.Item(c.Item)
	if c.Do == DoUnwipe {
		was := j.WipedAs(c.Item)
		if was == nil {
			return a.refuse("/item", fact.Of(NotWiped, j.Name(c.Item)))
		}
		it.Holds = was.Held
		j.Wiped = slices.DeleteFunc(j.Wiped, func(w Wiped) bool { return w.Item == c.Item })
		return fact.Of(WipedNot, c.Item)
	}
	level, end := volume.Wipe(c.Value), volume.Ending(it.Serial)
	switch d := j.Part(it.Part).Drive; {
	case d == nil || d.Form.Optical():
		return a.refuse("/item", fact.Of(WipeNoDrive, j.Name(c.Item)))
	case !slices.Contains(level.Values(), c.Value):
		return a.refuse("/value", fact.Of(WipeLevel, fact.Typed(c.Value)))
	case !j.last().Where(c.Item).IsZero() || !j.Planned.Where(c.Item).IsZero():
		return a.refuse("/item", fact.Of(WipeStays, j.Name(c.Item)))
	case j.Wish.BackedUp == "" && it.Holds != rig.Blank:
		return a.refuse("/item", fact.Of(WipeNoCopy))
	case j.stillOnly(c.Item):
		return a.refuse("/item", fact.Of(WipeNotProved, j.Name(c.Item)))
	case end == "" || !confirmed(c.Text, []string{end}):
		return a.refuse("/text", fact.Of(WipeConfirm, j.Name(c.Item)))
	case level != volume.Destroy && !c.Sure:
		return a.refuse("/sure", fact.Of(WipeNotRead))
	}
	held := it.Holds
	if was := j.WipedAs(c.Item); was != nil {
		held = was.Held
	}
	w := Wiped{c.Item, level, held, a.by.By, a.by.At}
	j.Wiped = append(slices.DeleteFunc(j.Wiped, func(w Wiped) bool { return w.Item == c.Item }), w)
	it.Holds = rig.Blank
	return w.Says()
}
