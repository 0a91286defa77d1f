package job

// This file is what was measured before the work and after it, and what that tells.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/known"
	"deepbay/internal/core/link"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// mostSeries is how many series a job keeps.
const mostSeries = 500

// measured keeps series that were measured, or forgets one.
func (a *applier) measured() fact.Fact {
	c, j := &a.change, &a.job
	if c.Do == DoUnmeasure {
		i := slices.IndexFunc(j.Measured, func(s measure.Series) bool { return strconv.Itoa(s.ID) == c.Value })
		if i < 0 {
			return a.refuse("/value", fact.Of(NoSuchSeries, fact.Typed(c.Value)))
		}
		says := fact.Of(NotMeasured, seriesIs(&j.Measured[i]))
		j.Measured = slices.Delete(j.Measured, i, i+1)
		return says
	}
	switch n := len(c.Measured); {
	case n == 0:
		return a.refuse("/measured", fact.Of(NothingMeasured))
	case n+len(j.Measured) > mostSeries:
		return a.refuse("/measured", fact.Of(TooMany, mostSeries))
	}
	last, runs := 0, 0
	for i := range j.Measured {
		last = max(last, j.Measured[i].ID)
	}
	for i := range c.Measured {
		s, at := c.Measured[i], "/measured/"+strconv.Itoa(i)
		a.list = append(a.list, s.Check().Under(at)...)
		if s.Item != "" {
			j.mustKnow(&a.list, at+"/item", s.Item)
		}
		if s.Array != "" && j.array(s.Array) == nil {
			a.list.Add(at+"/array", fact.Of(NoSuchArray, fact.Typed(s.Array)))
		}
		s.ID, s.By, s.At = last+1+i, a.by.By, a.by.At
		s.Runs, s.Background = slices.Clone(s.Runs), slices.Clone(s.Background)
		runs += len(s.Runs)
		j.Measured = append(j.Measured, s)
	}
	if len(a.list) > 0 {
		return fact.Fact{}
	}
	return fact.Of(DidMeasure, fact.Count{N: len(c.Measured), Of: Measurements}, seriesIs(&c.Measured[0]), fact.Count{N: runs, Of: Runs})
}

// seriesIs names a series.
func seriesIs(s *measure.Series) fact.Fact {
	return fact.Of(SeriesIs, fact.Typed(s.What), fact.Typed(s.Of))
}

// validateMeasured reports series that contradict themselves.
func (j *Job) validateMeasured(l *problem.List) {
	ids := map[int]bool{}
	for i := range j.Measured {
		s, at := &j.Measured[i], "/measured/"+strconv.Itoa(i)
		*l = append(*l, s.Check().Under(at)...)
		if ids[s.ID] {
			l.Add(at+"/id", fact.Of(SeriesTwice))
		}
		ids[s.ID] = true
		if s.Item != "" {
			j.mustKnow(l, at+"/item", s.Item)
		}
	}
}

// Gain is one thing before and after, and what it tells.
type Gain struct {
	measure.Change
	Allows   known.Range[quantity.Rate] // what drive and path allow the series that counts: the one after, or the only one
	Standing measure.Standing
	Looks    []fact.Fact // where to look, and what to think of it
}

// Gains is what was measured, in the order in which it was.
func (j *Job) Gains() []Gain {
	if len(j.Measured) == 0 {
		return nil
	}
	found, planned := j.FoundRig(), j.PlannedRig()
	was, is := fit.Resolve(&found), fit.Resolve(&planned)
	return j.gains(&was, &is)
}

// gains is that by the resolved machine as it came and as it is now.
func (j *Job) gains(was, is *fit.Answer) []Gain {
	changes := measure.Changes(j.Measured)
	out := make([]Gain, len(changes))
	for i, c := range changes {
		g := Gain{Change: c, Standing: measure.Untold}
		switch s := c.After; {
		case s != nil && s.What.Rate():
			j.path(&g, s, is)
		case s == nil && c.Before.What.Rate():
			j.path(&g, c.Before, was)
		}
		g.sound()
		g.reading(changes)
		for _, s := range []*measure.Series{c.Before, c.After} {
			if s != nil && len(s.Runs) < measure.FewRuns && !s.What.Sound() {
				g.Looks = append(g.Looks, fact.Of(FewRuns, measure.FewRuns))
				break
			}
		}
		out[i] = g
	}
	return out
}

// path holds a rate against what its drive and the way to it allow.
func (j *Job) path(g *Gain, s *measure.Series, a *fit.Answer) {
	mid := quantity.MBps(measure.SpreadOf(s.Runs).Mid)
	var held fit.Shared
	made := measure.OfFlashPCIe
	switch array := j.array(s.Array); {
	case array != nil:
		o := volume.Of(array.Level, j.Drives(array.Members, a), volume.Usual)
		if g.Allows, held = o.Read, o.Held; s.What == measure.WritesOn || s.What == measure.Writes {
			g.Allows = known.Between(0, o.Write)
		}
	case s.Item != "":
		for _, f := range a.AtWork([]rig.ItemID{s.Item}) {
			g.Allows = f.Alone
			if f.Held.Is() {
				held = f.Held
			}
		}
		d := j.Part(j.Item(s.Item).Part).Drive
		switch {
		case d == nil:
		case d.Media == part.Platter:
			made = measure.OfPlatters
		case d.Protocol == link.SATA:
			made = measure.OfFlashSATA
		}
		if s.What == measure.WritesOn || s.What == measure.Writes {
			g.Allows.Low = 0 // what is written at is on no label
		}
	default:
		return
	}
	if s.What.Random() {
		g.Allows.Low = 0 // blocks of this size are not held by the path
	}
	g.Standing = measure.Stands(mid, g.Allows)
	switch g.Standing {
	case measure.Cached:
		g.Looks = append(g.Looks, fact.Of(LooksCached, mid, g.Allows.High))
	case measure.Short:
		g.Looks = append(g.Looks, fact.Of(LooksShort, g.Allows))
	case measure.Fair:
		if g.Allows.Low > 0 {
			g.Looks = append(g.Looks, fact.Of(LooksFair, g.Allows))
		}
	}
	if held.Is() && !s.What.Random() {
		g.Looks = append(g.Looks, fact.Of(HeldByShared, held))
	}
	if s.What == measure.Reads && s.Depth <= 1 && s.BlockBytes <= 4*quantity.KiB && s.Item != "" {
		from, to := measure.SmallReads(made)
		g.Looks = append(g.Looks, fact.Of(SmallAre, quantity.MBps(from), quantity.MBps(to)))
	}
}

// sound says what a level is worth.
func (g *Gain) sound() {
	for k, s := range []*measure.Series{g.Before, g.After} {
		if s == nil || !s.What.Sound() {
			continue
		}
		switch h := []measure.Heard{g.HeardBefore, g.HeardAfter}[k]; {
		case !h.Alone:
			g.Looks = append(g.Looks, fact.Of(RoomUntold))
		case h.AtMost:
			g.Looks = append(g.Looks, fact.Of(RoomNear, fact.Typed(s.When), measure.Level(h.Level)))
		case h.Rough:
			g.Looks = append(g.Looks, fact.Of(RoomRough, fact.Typed(s.When)))
		}
	}
}

// Share is a part of a whole, 0 to 1.
type Share float64

// Time is seconds.
type Time float64

// reading says how much of a time was waiting for the drive, by how much faster large files are read.
func (g *Gain) reading(all []measure.Change) {
	if g.Before == nil || g.After == nil || g.Before.What.Unit() != measure.Seconds {
		return
	}
	faster := 0.0
	for _, c := range all {
		if c.After != nil && c.After.What == measure.ReadsOn && c.Verdict == measure.Better {
			faster = max(faster, c.Factor)
		}
	}
	r, ok := measure.ReadingOf(g.Was.Mid, g.Is.Mid, faster)
	switch {
	case !ok || g.Verdict != measure.Better:
	case r.Beyond:
		g.Looks = append(g.Looks, fact.Of(ReadingBeyond))
	default:
		g.Looks = append(g.Looks, fact.Of(ReadingWas, Share(r.Was), Share(r.Is), Time(r.Fastest)))
	}
}

// Drives is pieces as drives that may work together, by what the resolved machine lets them do.
func (j *Job) Drives(items []rig.ItemID, a *fit.Answer) []volume.Drive {
	out := make([]volume.Drive, 0, len(items))
	flows := a.AtWork(items)
	for _, id := range items {
		it := j.Item(id)
		if it == nil || j.Part(it.Part).Drive == nil {
			continue
		}
		p := j.Part(it.Part).Drive
		d := volume.Drive{Item: id, Bytes: p.CapacityBytes, Flash: p.Media != part.Platter}
		for _, f := range flows {
			if f.Item == id {
				d.Alone, d.Beside, d.Held = f.Alone, f.Together, f.Held
			}
		}
		out = append(out, d)
	}
	return out
}
