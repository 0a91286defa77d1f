package cure

import "deepbay/internal/core/fact"

// This file lists the codes of what this room says. Each has its sentence in say.

// What may be said, by name.
const (
	GoOff        fact.Code = "cure/go-off"
	LayInto      fact.Code = "cure/lay-into"
	MoveLead     fact.Code = "cure/move-lead"
	MoveLeadFrom fact.Code = "cure/move-lead-from"
	PutFrom      fact.Code = "cure/put-from"
	PutInto      fact.Code = "cure/put-into"
	PutThem      fact.Code = "cure/put-them"
	RunsSlower   fact.Code = "cure/runs-slower"
	SetTo        fact.Code = "cure/set-to"
	SwapWith     fact.Code = "cure/swap-with"
)
