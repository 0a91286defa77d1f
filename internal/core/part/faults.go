package part

import "deepbay/internal/core/fact"

// This file lists the codes of what can be wrong. Each has its words in say.

// What can be wrong, by name.
const (
	BoxOverPCIe         fact.Code = "part/box-over-pcie"
	NotchBoundsLanes    fact.Code = "part/notch-bounds-lanes"
	USBIsEnclosure      fact.Code = "part/usbis-enclosure"
	OneOfTheKinds       fact.Code = "part/one-of-the-kinds"
	AdapterWithoutEnds  fact.Code = "part/adapter-without-ends"
	BoxWithoutSlot      fact.Code = "part/box-without-slot"
	EdgeTooShort        fact.Code = "part/edge-too-short"
	EdgeNotchedAt       fact.Code = "part/edge-notched-at"
	AdapterWithoutEdge  fact.Code = "part/adapter-without-edge"
	NeedsM2Facts        fact.Code = "part/needs-m2facts"
	LanesMissing        fact.Code = "part/lanes-missing"
	NoID                fact.Code = "part/no-id"
	LaneTaken           fact.Code = "part/lane-taken"
	LanesBeyondCard     fact.Code = "part/lanes-beyond-card"
	OnlyM2HasThese      fact.Code = "part/only-m2has-these"
	SATAGenerations     fact.Code = "part/satagenerations"
	PortsNeedController fact.Code = "part/ports-need-controller"
	OneUse              fact.Code = "part/one-use"
	OpticalForms        fact.Code = "part/optical-forms"
	OpticalOverSATA     fact.Code = "part/optical-over-sata"
	LeadWithoutPlug     fact.Code = "part/lead-without-plug"
	ThreadMissing       fact.Code = "part/thread-missing"
)
