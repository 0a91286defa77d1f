package memory

import "deepbay/internal/core/fact"

// This file lists the codes of what can be wrong. Each has its words in say.

// What can be wrong, by name.
const (
	HasNoSpeed     fact.Code = "memory/has-no-speed"
	HasNoSpeedNear fact.Code = "memory/has-no-speed-near"
	NearNoSpeed    fact.Code = "memory/near-no-speed"
	NoModuleCode   fact.Code = "memory/no-module-code"
	FamilyOnly     fact.Code = "memory/family-only"
	NoSuchLetter   fact.Code = "memory/no-such-letter"
)
