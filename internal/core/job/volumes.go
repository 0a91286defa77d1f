package job

// This file is what is written on blank drives once they are detected.

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// arrayMark is before an array's name where a piece can be named as well.
const arrayMark = "array:"

// written is the drives that a layout is written on.
func (j *Job) written(l *volume.Layout) []rig.ItemID {
	if a := j.array(l.Array); l.Array != "" && a != nil {
		return a.Members
	}
	if j.Item(l.Item) == nil {
		return nil
	}
	return []rig.ItemID{l.Item}
}

// room is how much a layout has to lie on, 0 where that is not known.
func (j *Job) room(l *volume.Layout) quantity.Bytes {
	if a := j.array(l.Array); l.Array != "" && a != nil {
		r := j.bare(j.Planned)
		return r.ArrayBytes(a)
	}
	if it := j.Item(l.Item); it != nil {
		if d := j.Part(it.Part).Drive; d != nil {
			return d.CapacityBytes
		}
	}
	return 0
}

// layoutsNow is the layouts that are written in the stage at work: of drives that are in the machine as
// planned and came with this stage, or were there and no other stage is to come.
func (j *Job) layoutsNow() []volume.Layout {
	var out []volume.Layout
	for _, l := range j.Layouts {
		items := j.written(&l)
		now := len(items) > 0
		came := false
		for _, id := range items {
			it := j.Item(id)
			now = now && !j.Planned.Where(id).IsZero()
			came = came || j.Found.Where(id).IsZero() || !it.New && len(j.Later) == 0
		}
		if now && came {
			out = append(out, l)
		}
	}
	return out
}

// layout keeps what is written on a blank drive, or that nothing is.
func (a *applier) layout() fact.Fact {
	c, j := &a.change, &a.job
	if c.Do == DoNoLayout {
		array, isArray := strings.CutPrefix(c.Value, arrayMark)
		i := slices.IndexFunc(j.Layouts, func(l volume.Layout) bool {
			return isArray && string(l.Array) == array || !isArray && l.Item != "" && string(l.Item) == c.Value
		})
		if i < 0 {
			return a.refuse("/value", fact.Of(NoSuchLayout, fact.Typed(c.Value)))
		}
		j.Layouts = slices.Delete(j.Layouts, i, i+1)
		if isArray {
			return fact.Of(NoArrayLayoutNow, fact.Typed(array))
		}
		return fact.Of(NoLayoutNow, rig.ItemID(c.Value))
	}
	if c.Layout == nil {
		return a.refuse("/layout", fact.Of(WhichLayout))
	}
	next := *c.Layout
	next.Volumes = slices.Clone(next.Volumes)
	if j.faulty(&next, &a.list, "/layout"); len(a.list) > 0 {
		return fact.Fact{}
	}
	for _, id := range j.written(&next) {
		if !j.mayErase(id) && !c.Sure {
			return a.refuse("/sure", fact.Of(ErasesWhat, id))
		}
	}
	j.Layouts = append(slices.DeleteFunc(j.Layouts, func(l volume.Layout) bool { return l.Item == next.Item && l.Array == next.Array }), next)
	if list := volume.CheckAll(j.Layouts, j.Taken()); len(list) > 0 {
		for _, p := range list { // of what is there already nothing is wrong: it is this one
			at := strings.SplitN(p.Pointer, "/", 4)
			a.list.Add("/layout/"+at[len(at)-1], p.Fact)
		}
		return fact.Fact{}
	}
	n := fact.Count{N: len(next.Volumes), Of: Volumes}
	if next.Array != "" {
		return fact.Of(ArrayLayoutIs, fact.Typed(next.Array), n)
	}
	return fact.Of(LayoutIs, next.Item, n)
}

// faulty reports what is wrong with a layout of this job.
func (j *Job) faulty(l *volume.Layout, list *problem.List, at string) {
	*list = append(*list, l.Check(j.room(l)).Under(at)...)
	switch it := j.Item(l.Item); {
	case l.Array != "" && j.array(l.Array) == nil:
		list.Add(at+"/array", fact.Of(NoSuchArray, fact.Typed(l.Array)))
	case l.Item == "":
	case it == nil:
		list.Add(at+"/item", fact.Of(NoItemIsNamed, l.Item))
	case j.Part(it.Part).Drive == nil || j.Part(it.Part).Drive.Form.Optical():
		list.Add(at+"/item", fact.Of(LayoutNoDrive, j.Name(l.Item)))
	case slices.ContainsFunc(j.Arrays, func(a rig.DriveArray) bool { return slices.Contains(a.Members, l.Item) }):
		list.Add(at+"/item", fact.Of(LayoutMember, j.Name(l.Item)))
	}
}

// Taken is the letters and mount points of volumes that are there already, as far as somebody said.
func (j *Job) Taken() []string {
	var out []string
	for i := range j.Items { // of one that is out, too: it may come back
		out = append(out, j.Items[i].At...)
	}
	return out
}

// letters keeps under which letters, or where, the volumes of a drive are seen.
func (a *applier) letters() fact.Fact {
	c, j := &a.change, &a.job
	if j.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	it := j.Item(c.Item)
	if d := j.Part(it.Part).Drive; d == nil {
		return a.refuse("/item", fact.Of(LayoutNoDrive, j.Name(c.Item)))
	}
	at, list := volume.Ats(c.Text)
	if a.list = append(a.list, list...); len(a.list) > 0 {
		return fact.Fact{}
	}
	if len(at) > 26 {
		return a.refuse("/text", fact.Of(TooMany, 26))
	}
	it.At = at
	for i := range j.Items {
		if o := &j.Items[i]; o.ID != it.ID {
			for _, t := range o.At {
				if slices.Contains(at, t) {
					return a.refuse("/text", fact.Of(volume.TakenAt, t))
				}
			}
		}
	}
	if list := volume.CheckAll(j.Layouts, j.Taken()); len(list) > 0 {
		return a.refuse("/text", list[0].Fact)
	}
	if len(at) == 0 {
		return fact.Of(LettersUnsaid, c.Item)
	}
	return fact.Of(LettersAre, c.Item, fact.Typed(strings.Join(at, " ")))
}

// SystemDrive is the drive that gets the system, and how; none where nobody said, or an array does.
func (j *Job) SystemDrive() (rig.ItemID, rig.StartHow) {
	s := j.Wish.Starts
	if s.Item != "" && !j.Planned.Where(s.Item).IsZero() && (s.How == rig.Install || s.How == rig.CopyOver) {
		return s.Item, s.How
	}
	return "", ""
}

// Lettered is the drives that stay in the machine and may have volumes.
func (j *Job) Lettered() []*Item {
	var out []*Item
	for i := range j.Items {
		it := &j.Items[i]
		if d := j.Part(it.Part).Drive; d != nil && !d.Form.Optical() && it.Holds != rig.Blank && !j.Planned.Where(it.ID).IsZero() && !slices.ContainsFunc(j.Layouts, func(l volume.Layout) bool { return l.Item == it.ID }) {
			out = append(out, it)
		}
	}
	return out
}

// validateLayouts reports layouts that contradict themselves or one another.
func (j *Job) validateLayouts(list *problem.List) {
	for i := range j.Layouts {
		l, at := &j.Layouts[i], "/layouts/"+strconv.Itoa(i)
		j.faulty(l, list, at)
		if slices.ContainsFunc(j.Layouts[:i], func(o volume.Layout) bool { return o.Item == l.Item && o.Array == l.Array }) {
			list.Add(at+"/item", fact.Of(LayoutTwice))
		}
	}
	*list = append(*list, volume.CheckAll(j.Layouts, j.Taken())...)
}

// Blanks is the drives, and arrays of them, that may get volumes: in the machine as planned, and known
// to be blank or planned to be emptied.
func (j *Job) Blanks() []volume.Blank {
	var out []volume.Blank
	emptied := func(id rig.ItemID) bool {
		return slices.ContainsFunc(j.Layouts, func(l volume.Layout) bool { return l.Item == id })
	}
	free := func(id rig.ItemID) bool { return j.Item(id).Holds == rig.Blank && !j.Planned.Where(id).IsZero() }
	for _, it := range j.drives() {
		if (free(it.ID) || emptied(it.ID) && !j.Planned.Where(it.ID).IsZero()) && it.Role != RoleSystem && !slices.ContainsFunc(j.Arrays, func(a rig.DriveArray) bool { return slices.Contains(a.Members, it.ID) }) && j.Wish.Starts.Item != it.ID {
			out = append(out, volume.Blank{Item: it.ID, Bytes: j.Part(it.Part).Drive.CapacityBytes, Serial: it.Serial, Held: it.Holds, Use: string(cmp.Or(it.Role, RoleData))})
		}
	}
	for i := range j.Arrays {
		a := &j.Arrays[i]
		if j.Wish.Starts.Array != a.ID && !slices.ContainsFunc(a.Members, func(id rig.ItemID) bool { return !free(id) }) {
			out = append(out, volume.Blank{Array: a.ID, Bytes: j.room(&volume.Layout{Array: a.ID}), Use: string(RoleArray)})
		}
	}
	return out
}

// Untold is the drives in the machine as planned of which nobody said what they hold.
func (j *Job) Untold() []rig.ItemID {
	var out []rig.ItemID
	for _, it := range j.drives() {
		if it.Holds == "" && !j.Planned.Where(it.ID).IsZero() {
			out = append(out, it.ID)
		}
	}
	return out
}
