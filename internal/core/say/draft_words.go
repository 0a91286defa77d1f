package say

import (
	"deepbay/internal/core/draft"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/machine"
)

// draftWords is what a drafted sheet asks, and why nothing can be drafted.
var draftWords = map[fact.Code]string{
	draft.AskClass:     "what kind of machine it is: its firmware does not say",
	draft.AskMemory:    "whether it takes long or short memory modules: none lies in it that says so",
	draft.AskRoots:     "which sockets hang on the processor and which on a chipset: all are drawn on the processor",
	draft.AskChannel:   "on which memory channel {0} is",
	draft.AskM2:        "which lengths {0} takes, and whether it takes SATA as well",
	draft.AskSlotLanes: "how many lanes {0} has",
	draft.AskHome:      "in which socket or bay {0} lies ({1}), and of which form it is",
	draft.AskBays:      "the bays, their leads and plugs, and how each holds a drive",
	draft.AskSettings:  "the settings of its firmware, and what each does",
	draft.AskLayers:    "what comes off before what, and where things are: the picture shows them in order, and nobody measured it",
	draft.AskUnread:    "what stands in {0}, which was not read",
	draft.NotAMachine:  "this is a virtual machine: it has no sockets of its own",
	draft.TellsNothing: "it tells of no socket: read it as root, on the machine itself",
	draft.ReadFrom:     "read from the running machine; what a probe cannot see is left out",
}

// Drafted is a machine as it tells of itself: its sheet, what lies in it, what is asked.
type Drafted struct {
	Sheet machine.Sheet `json:"sheet"`
	Lines []Name        `json:"lines"` // a piece a line, as it is written down
	Asks  []Text        `json:"asks"`  // what a probe cannot see
}

// Draft words a draft.
func Draft(l Language, d *draft.Draft) Drafted {
	v := In(l, &nobody)
	out := Drafted{Sheet: d.Sheet, Lines: make([]Name, len(d.Lines)), Asks: v.facts(d.Asks)}
	out.Sheet.Source = v.Fact(fact.Of(draft.ReadFrom)).String()
	for i, s := range d.Lines {
		out.Lines[i] = Name(s)
	}
	return out
}
