package ask

import "deepbay/internal/core/fact"

// This file lists the codes of what can be wrong. Each has its words in say.

// What can be wrong, by name.
const (
	ADriveAmongModules fact.Code = "ask/adrive-among-modules"
	ModulesAndSlots    fact.Code = "ask/modules-and-slots"
	NoModuleWritten    fact.Code = "ask/no-module-written"
)
