package job

// This file is what becomes of what an old drive holds.

import (
	"slices"
	"strings"
	"time"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
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

// wipeEvent names the wiping of a drive in the record.
func wipeEvent(id rig.ItemID) string { return string(DoWipe) + "/" + string(id) }

// tapeOf is the mark on the tape that tells a drive from others on the bench.
func tapeOf(j *Job, id rig.ItemID) string {
	return "TAPE-" + tape(slices.IndexFunc(j.Items, func(x Item) bool { return x.ID == id }))
}

// WipeAsk is what is typed of a drive before it counts as wiped.
func (j *Job) WipeAsk(id rig.ItemID) workorder.Ask {
	it := j.Item(id)
	if end := volume.Ending(it.Serial); end != "" && j.toldBench(it, end) {
		return workorder.Ask{Item: id, By: workorder.BySerial, Word: end}
	}
	return workorder.Ask{Item: id, By: workorder.ByTape, Word: tapeOf(j, id)}
}

// toldBench reports that what was typed tells a drive from all others of the job: the end of its
// serial number where no other has it, else the mark on its tape.
func (j *Job) toldBench(it *Item, text string) bool {
	serial := fact.Fold(it.Serial)
	return slices.ContainsFunc(typedWords(text), func(w string) bool {
		if w == fact.Fold(tapeOf(j, it.ID)) {
			return true
		}
		return len(w) >= 3 && volume.Ending(it.Serial) != "" && strings.HasSuffix(serial, w) && !slices.ContainsFunc(j.drives(), func(o *Item) bool {
			return o.ID != it.ID && strings.HasSuffix(fact.Fold(o.Serial), w)
		})
	})
}

// wipe keeps that a drive was wiped, or takes that back: of one that hands took out, and that is told
// from all others.
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
		j.void(wipeEvent(c.Item), a.by)
		j.Wiped = slices.DeleteFunc(j.Wiped, func(w Wiped) bool { return w.Item == c.Item })
		return fact.Of(WipedNot, c.Item)
	}
	level, ask := volume.Wipe(c.Value), j.WipeAsk(c.Item)
	switch d := j.Part(it.Part).Drive; {
	case d == nil || d.Form.Optical():
		return a.refuse("/item", fact.Of(WipeNoDrive, j.Name(c.Item)))
	case !slices.Contains(level.Values(), c.Value):
		return a.refuse("/value", fact.Of(WipeLevel, fact.Typed(c.Value)))
	case !j.toldBench(it, c.Text):
		return a.refuse("/text", fact.Of(map[workorder.Mark]fact.Code{workorder.BySerial: WipeConfirm, workorder.ByTape: WipeTape}[ask.By], j.Name(c.Item), fact.Typed(ask.Word)))
	case level != volume.Destroy && !c.Sure:
		return a.refuse("/sure", fact.Of(WipeNotRead))
	}
	if !a.deed("/item", wipeEvent(c.Item), data.Act{What: data.Leaves, Item: c.Item}) {
		return fact.Fact{}
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
