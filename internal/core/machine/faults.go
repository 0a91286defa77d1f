package machine

import "deepbay/internal/core/fact"

// This file lists the codes of what can be wrong. Each has its words in say.

// What can be wrong, by name.
const (
	ChipsetWithoutUplink fact.Code = "machine/chipset-without-uplink"
	ConditionOfNothing   fact.Code = "machine/condition-of-nothing"
	SlotWithoutChannel   fact.Code = "machine/slot-without-channel"
	ProcessorWithUplink  fact.Code = "machine/processor-with-uplink"
	SlotTooShort         fact.Code = "machine/slot-too-short"
	KeyBoundsLanes       fact.Code = "machine/key-bounds-lanes"
	LanesClaimedTwice    fact.Code = "machine/lanes-claimed-twice"
	NoSuchSplit          fact.Code = "machine/no-such-split"
	BeyondGroup          fact.Code = "machine/beyond-group"
	NoPCIeWidth          fact.Code = "machine/no-pcie-width"
	NotAmongOptions      fact.Code = "machine/not-among-options"
	NoOption             fact.Code = "machine/no-option"
	OutsideBoard         fact.Code = "machine/outside-board"
	MoreThanGroup        fact.Code = "machine/more-than-group"
	SplitDoesNotFit      fact.Code = "machine/split-does-not-fit"
	ProfileStandsAlone   fact.Code = "machine/profile-stands-alone"
	NamedTwice           fact.Code = "machine/named-twice"
	NoGroupIsNamed       fact.Code = "machine/no-group-is-named"
	NoMemorySlotIsNamed  fact.Code = "machine/no-memory-slot-is-named"
	ProvenNotMore        fact.Code = "machine/proven-not-more"
	NoProcessorIsNamed   fact.Code = "machine/no-processor-is-named"
	NoRootIsNamed        fact.Code = "machine/no-root-is-named"
	NoSettingIsNamed     fact.Code = "machine/no-setting-is-named"
	NoSocketIsNamed      fact.Code = "machine/no-socket-is-named"
	NothingHappens       fact.Code = "machine/nothing-happens"
	OnlySlotsSplit       fact.Code = "machine/only-slots-split"
	OnlyUSBHasMode       fact.Code = "machine/only-usbhas-mode"
	OnlyMemoryHasChannel fact.Code = "machine/only-memory-has-channel"
	NotOneProcessor      fact.Code = "machine/not-one-processor"
	GroupSaysRoot        fact.Code = "machine/group-says-root"
	ProofNotNamed        fact.Code = "machine/proof-not-named"
	UplinksInCircle      fact.Code = "machine/uplinks-in-circle"
	UnderWhichCard       fact.Code = "machine/under-which-card"
	HoldsMissing         fact.Code = "machine/holds-missing"
)
