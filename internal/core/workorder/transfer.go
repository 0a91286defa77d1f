package workorder

// This file is how data comes from an old drive onto a new one: a step after another, so that at
// each moment there are two good copies of it.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/data"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
)

// Transfer is data that comes over in this stage.
type Transfer struct {
	volume.Transfer
	Conditions []volume.Condition
	Runs       layer.Minutes // how long the copy runs by itself, at least; 0 is not known
	Both       bool          // both drives lie in the machine as planned
}

// moveStep names a step of a transfer.
func moveStep(id int, what string) string { return "move/" + strconv.Itoa(id) + "/" + what }

// ProveStep is the step of a transfer that is done when its proof is there.
func ProveStep(id int) string { return moveStep(id, "prove") }

// CopyStep is the step of a transfer that writes onto the new drive.
func CopyStep(id int) string { return moveStep(id, "copy") }

// SecondStep is the step of a transfer that makes a second copy, where no backup is asked for
// otherwise.
func SecondStep(id int) string { return moveStep(id, "second") }

// Moves is the number of the transfer that a step belongs to, 0 for none.
func Moves(step string) int {
	rest, is := strings.CutPrefix(step, "move/")
	number, _, _ := strings.Cut(rest, "/")
	n, err := strconv.Atoi(number)
	if !is || err != nil {
		return 0
	}
	return n
}

// transfers asks for data to be moved, after the drives have their volumes.
func (m *maker) transfers() {
	for i := range m.Transfers {
		m.transfer(&m.Transfers[i])
	}
}

func (m *maker) transfer(t *Transfer) {
	first := []string{BackupStep}
	if !slices.ContainsFunc(m.steps, func(s Step) bool { return s.ID == BackupStep }) { // the old drive came from elsewhere
		first[0] = SecondStep(t.ID)
		m.add(Step{ID: first[0], Phase: System, Do: fact.Of(SecondFirst, t.From), Item: t.From, Cautions: []Caution{cautionBackup}, Effects: []data.Act{{What: data.BacksUp, Item: t.From}}})
	}
	at := m.Planned.Where(t.To)
	look := Step{ID: moveStep(t.ID, "look"), Phase: System, Do: fact.Of(LookBefore, t.From), Item: t.From}
	for _, c := range t.Conditions {
		if says, is := lookFor[c.Need]; is && c.Met != quantity.Yes {
			look.How = append(look.How, fact.Of(says[c.Met]))
		}
	}
	if len(look.How) > 0 {
		if t.Encrypted != quantity.No {
			look.Cautions = []Caution{cautionKey}
		}
		m.add(look)
		first = append(first, look.ID)
	}
	copies := Step{ID: CopyStep(t.ID), Phase: System, Item: t.To, Socket: at, Needs: first, Runs: t.Runs, Cautions: []Caution{cautionTarget},
		How: []fact.Fact{sized(SourceIs, SourceOnly, m.piece(t.From))}}
	switch t.How {
	case volume.Clone:
		copies.Do = fact.Of(CloneOnto, t.From, t.To)
		copies.How = append(copies.How, fact.Of(CopyWhole))
	case volume.Swap:
		copies.Do = fact.Of(CopyFiles, t.From, t.To)
		copies.How = append(copies.How, fact.Of(CopyAttributes))
	default:
		copies.Do = fact.Of(CopyFiles, t.From, t.To)
		copies.How = append(copies.How, fact.Of(FreshFirst), fact.Of(CopyAttributes))
	}
	if t.How != volume.Clone && !slices.ContainsFunc(m.Layouts, func(l volume.Layout) bool { return l.Item == t.To }) && m.Planned.Wish.Starts.Item != t.To {
		copies.How = append(copies.How, fact.Of(VolumesFirst))
	}
	if !t.Both {
		copies.How = append(copies.How, fact.Of(ByBox, t.From))
	}
	how := data.Act{What: data.Copies, From: t.From, Pair: t.ID}
	if t.How == volume.Clone {
		how.What = data.Clones
	}
	m.erases(copies, how, append(m.running([]rig.ItemID{t.To}), t.From), t.To)
	last := copies.ID
	if t.How == volume.Clone {
		m.add(Step{ID: moveStep(t.ID, "apart"), Phase: System, Do: fact.Of(OldApart, t.From), Item: t.From, Needs: []string{last}, How: []fact.Fact{fact.Of(SameSignature), fact.Of(StartAlone)}, Cautions: []Caution{cautionMains}})
		last = moveStep(t.ID, "apart")
	}
	m.add(Step{ID: ProveStep(t.ID), Phase: System, Do: fact.Of(ProveArrived, t.From, t.To), Item: t.To, Needs: []string{last}, How: []fact.Fact{fact.Of(ByVerify), fact.Of(OldReadOnly)}, See: fact.Of(NothingMissing),
		Effects: []data.Act{{What: data.Proves, Item: t.To, From: t.From, Pair: t.ID}}})
	if t.How == volume.Swap {
		m.add(Step{ID: moveStep(t.ID, "letters"), Phase: System, Do: fact.Of(GiveLetter, t.From, t.To), Item: t.To, Needs: []string{ProveStep(t.ID)}, How: []fact.Fact{fact.Of(LetterOrder), fact.Of(ProgramsFind)}, Cautions: []Caution{cautionOldData}})
	}
	m.add(Step{ID: moveStep(t.ID, "keep"), Phase: System, Do: fact.Of(KeepOld, t.From), Item: t.From, Needs: []string{ProveStep(t.ID)}, How: []fact.Fact{fact.Of(OldKept), fact.Of(WipeLater)}, Cautions: []Caution{cautionOldData}})
}

// piece is a piece of the machine, whether or not it lies in the plan.
func (m *maker) piece(id rig.ItemID) *rig.Piece {
	if p := m.Planned.Piece(id); p != nil {
		return p
	}
	return m.Found.Piece(id)
}

// lookFor is what to do about needs that are not met, or of which nobody knows.
var lookFor = map[volume.Must]map[quantity.Answer]fact.Code{
	volume.Fits:        {quantity.Unknown: LookFits, quantity.No: LookFitsNot},
	volume.Shrinks:     {quantity.Unknown: LookShrink, quantity.No: DoShrink},
	volume.Open:        {quantity.Unknown: LookKey, quantity.No: DoUnlock},
	volume.Named:       {quantity.Unknown: LookTable, quantity.No: DoTable},
	volume.StartsSo:    {quantity.Unknown: LookStart, quantity.No: DoStart},
	volume.Aligned:     {quantity.Unknown: LookAligned, quantity.No: DoAlign},
	volume.SameSectors: {quantity.Unknown: LookSectors, quantity.No: SectorsDiffer},
}
