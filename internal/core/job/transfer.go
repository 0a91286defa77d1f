package job

// This file is data that comes from old drives onto new ones.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// mostTransfers is how many a job keeps.
const mostTransfers = 32

// Moving is a transfer with what the machine says to it.
type Moving struct {
	volume.Transfer
	Conditions []volume.Condition
	From, To   *part.Part
	Reads      quantity.Rate  // of the old drive through its link here; 0 is not known
	Writes     quantity.Rate  // of the new one; where nobody measured it, what it reads
	Takes      volume.Seconds // at least; 0 is not known
	Measured   bool           // both rates were measured
}

// transferOf finds a transfer by its number.
func (j *Job) transferOf(id string) *volume.Transfer {
	for i := range j.Transfers {
		if strconv.Itoa(j.Transfers[i].ID) == id {
			return &j.Transfers[i]
		}
	}
	return nil
}

// Moving is what the machine says to a transfer.
func (j *Job) Moving(t *volume.Transfer) Moving { return j.moving(t, j.states()) }

// states is the machine as planned, and as found.
func (j *Job) states() [2]fit.Answer {
	planned, found := j.PlannedRig(), j.FoundRig()
	return [2]fit.Answer{fit.Resolve(&planned), fit.Resolve(&found)}
}

func (j *Job) moving(t *volume.Transfer, states [2]fit.Answer) Moving {
	m := Moving{Transfer: *t}
	var ends volume.Ends
	if it := j.Item(t.From); it != nil {
		if m.From = j.Part(it.Part); m.From.Drive != nil {
			ends.From = m.From.Drive.CapacityBytes
		}
	}
	if it := j.Item(t.To); it != nil {
		if m.To = j.Part(it.Part); m.To.Drive != nil {
			ends.To = m.To.Drive.CapacityBytes
		}
	}
	m.Conditions = t.Conditions(ends)
	together := quantity.No
	if j.bothIn(t) {
		together = quantity.Yes
	}
	second := quantity.No
	if j.Wish.BackedUp != "" {
		second = quantity.Yes
	}
	m.Conditions = append(m.Conditions, volume.Condition{Need: volume.Together, Met: together}, volume.Condition{Need: volume.SecondCopy, Met: second})
	var read, written bool
	m.Reads, read = j.rate(states, t.From, measure.ReadsOn)
	m.Writes, written = j.rate(states, t.To, measure.WritesOn)
	m.Measured = read && written
	flash := m.From != nil && m.To != nil && m.From.Drive != nil && m.To.Drive != nil && m.From.Drive.Media == part.Flash && m.To.Drive.Media == part.Flash
	m.Takes, _ = volume.CopyTime(t.Load(), m.Reads, m.Writes, flash)
	return m
}

// bothIn reports that both drives of a transfer lie in the machine as planned, or as found.
func (j *Job) bothIn(t *volume.Transfer) bool {
	return slices.ContainsFunc([]*rig.Setup{&j.Planned, &j.Found}, func(s *rig.Setup) bool {
		return !s.Where(t.From).IsZero() && !s.Where(t.To).IsZero()
	})
}

// rate is how fast a drive moves data alone: as it was measured last, else as its link and its label
// allow, in the machine as planned or as found. A copy loads each direction of a shared link once.
func (j *Job) rate(states [2]fit.Answer, id rig.ItemID, what measure.What) (quantity.Rate, bool) {
	for i := len(j.Measured) - 1; i >= 0; i-- {
		if s := &j.Measured[i]; s.Item == id && s.What == what {
			return quantity.MBps(measure.SpreadOf(s.Runs).Mid), true
		}
	}
	for i := range states {
		for _, f := range states[i].AtWork([]rig.ItemID{id}) {
			return f.Alone.Low, false
		}
	}
	return 0, false
}

// transfersNow is the transfers of the stage at work: those whose new drive lies in the machine as
// planned.
func (j *Job) transfersNow() []workorder.Transfer {
	if len(j.Transfers) == 0 {
		return nil
	}
	states := j.states()
	var out []workorder.Transfer
	for i := range j.Transfers {
		t := &j.Transfers[i]
		if j.Planned.Where(t.To).IsZero() || j.Item(t.From) == nil || len(j.Past) > 0 && !j.Found.Where(t.To).IsZero() && t.Proof != nil {
			continue
		}
		m := j.moving(t, states)
		out = append(out, workorder.Transfer{Transfer: *t, Conditions: m.Conditions, Runs: layer.Minutes(float64(m.Takes) / 60), Both: !j.Planned.Where(t.From).IsZero()})
	}
	return out
}

// transfer keeps that data comes over, forgets it, or keeps the proof that it did.
func (a *applier) transfer() fact.Fact {
	c, j := &a.change, &a.job
	if c.Do == DoTransfer {
		return a.newTransfer()
	}
	t := j.transferOf(c.Value)
	if t == nil {
		return a.refuse("/value", fact.Of(NoSuchNumber, fact.Typed(c.Value)))
	}
	if c.Do == DoNoTransfer {
		if j.copied(t) && t.Proof == nil {
			return a.refuse("/value", fact.Of(TransferBegun, t.From, t.To))
		}
		says := fact.Of(TransferNot, t.From, t.To)
		j.Transfers = slices.DeleteFunc(j.Transfers, func(x volume.Transfer) bool { return x.ID == t.ID })
		return says
	}
	switch {
	case c.Proof == nil:
		return a.refuse("/proof", fact.Of(WhatProof))
	case !j.copied(t):
		return a.refuse("/value", fact.Of(NothingCopied, t.From, t.To))
	case t.Bytes.Known() && t.How != volume.Clone && c.Proof.Bytes < t.Bytes*9/10:
		return a.refuse("/proof/bytes", fact.Of(LessArrived, c.Proof.Bytes, t.Bytes))
	}
	if !a.deed("/value", string(DoProve), data.Act{What: data.Proves, Item: t.To, From: t.From, Pair: t.ID}) {
		return fact.Fact{}
	}
	if it := j.Item(t.To); j.Item(t.From).Holds != "" {
		it.Holds = j.Item(t.From).Holds
	} else {
		it.Holds = rig.Data
	}
	p := *c.Proof
	p.By, p.At = a.by.By, a.by.At
	t.Proof = &p
	return fact.Of(Arrived, t.From, t.To, int(p.Files), p.Bytes)
}

func (a *applier) newTransfer() fact.Fact {
	c, j := &a.change, &a.job
	if c.Transfer == nil {
		return a.refuse("/transfer", fact.Of(WhichTransfer))
	}
	t := *c.Transfer
	t.Proof = nil
	if len(j.Transfers) >= mostTransfers {
		return a.refuse("/transfer", fact.Of(TooMany, mostTransfers))
	}
	if j.faultyTransfer(&t, &a.list, "/transfer"); len(a.list) > 0 {
		return fact.Fact{}
	}
	for _, m := range j.Moving(&t).Conditions {
		if m.Hard && m.Met == quantity.No {
			return a.refuse("/transfer", fact.Of(map[volume.Must]fact.Code{volume.Fits: DoesNotFit, volume.SameSectors: OtherSectors}[m.Need], t.From, t.To))
		}
	}
	if j.Item(t.From).Holds == rig.Blank {
		return a.refuse("/transfer/from", fact.Of(NothingOnIt, t.From))
	}
	if !j.mayErase(t.To) && !c.Sure {
		return a.refuse("/sure", fact.Of(ErasesWhat, t.To))
	}
	if slices.ContainsFunc(j.Transfers, func(x volume.Transfer) bool { return x.To == t.To && (x.How == volume.Clone || t.How == volume.Clone) }) {
		return a.refuse("/transfer/to", fact.Of(TargetTaken, t.To))
	}
	if slices.ContainsFunc(j.Transfers, func(x volume.Transfer) bool { return x.From == t.From && x.To == t.To }) {
		return a.refuse("/transfer/to", fact.Of(TransferSame, t.From, t.To))
	}
	sum := t.Bytes
	for _, x := range j.Transfers { // all that comes onto one drive must have room on it together
		if x.To == t.To {
			sum += x.Bytes
		}
	}
	if d := j.Part(j.Item(t.To).Part).Drive; d.CapacityBytes.Known() && sum > d.CapacityBytes {
		return a.refuse("/transfer/to", fact.Of(TogetherTooMuch, t.To, sum-d.CapacityBytes))
	}
	t.ID = nextID(j.Transfers, func(x *volume.Transfer) int { return x.ID })
	j.Transfers = append(j.Transfers, t)
	return fact.Of(TransferIs, t.From, t.To)
}

// faultyTransfer reports what is wrong with a transfer of this job.
func (j *Job) faultyTransfer(t *volume.Transfer, l *problem.List, at string) {
	*l = append(*l, t.Check().Under(at)...)
	for _, end := range []struct {
		at string
		id rig.ItemID
	}{{"/from", t.From}, {"/to", t.To}} {
		if it := j.Item(end.id); it == nil {
			l.Add(at+end.at, fact.Of(NoItemIsNamed, end.id))
		} else if d := j.Part(it.Part).Drive; d == nil || d.Form.Optical() {
			l.Add(at+end.at, fact.Of(LayoutNoDrive, j.Name(end.id)))
		} else if slices.ContainsFunc(j.Arrays, func(a rig.DriveArray) bool { return slices.Contains(a.Members, end.id) }) {
			l.Add(at+end.at, fact.Of(TransferMember, j.Name(end.id)))
		}
	}
}

// validateTransfers reports transfers that contradict themselves.
func (j *Job) validateTransfers(l *problem.List) {
	seen := map[int]bool{}
	for i := range j.Transfers {
		t, at := &j.Transfers[i], "/transfers/"+strconv.Itoa(i)
		if seen[t.ID] {
			l.Add(at+"/id", fact.Of(TransferTwice))
		}
		seen[t.ID] = true
		j.faultyTransfer(t, l, at)
	}
}

// needed is the first step that must be done before a step, and is not; none where nothing lacks.
func (j *Job) needed(s *workorder.Step) fact.Fact {
	for _, id := range s.Needs {
		if j.Did(id) {
			continue
		}
		for _, first := range j.Order() {
			if first.ID == id {
				return first.Do
			}
		}
	}
	return fact.Fact{}
}

// unproved is the transfer whose proof a step waits for, nil where it waits for none.
func (j *Job) unproved(s *workorder.Step) *volume.Transfer {
	for i := range j.Transfers {
		if t := &j.Transfers[i]; s.ID == workorder.ProveStep(t.ID) && t.Proof == nil {
			return t
		}
	}
	return nil
}

// copied reports that hands copied what a transfer is of, in whatever stage.
func (j *Job) copied(t *volume.Transfer) bool {
	return j.record().Last(workorder.CopyStep(t.ID)) != nil
}

// mayErase reports that a drive is not said to hold anything: else writing over it must have been agreed.
func (j *Job) mayErase(id rig.ItemID) bool {
	it := j.Item(id)
	return it == nil || it.Holds == rig.Blank || it.Holds == "" || slices.ContainsFunc(j.Transfers, func(t volume.Transfer) bool { return t.To == id })
}
