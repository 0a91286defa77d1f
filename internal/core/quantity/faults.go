package quantity

import "deepbay/internal/core/fact"

// This file lists the codes of what can be wrong. Each has its words in say.

// What can be wrong, by name.
const (
	LessThanAByte    fact.Code = "quantity/less-than-abyte"
	MoreThanAnyDrive fact.Code = "quantity/more-than-any-drive"
	NoCapacity       fact.Code = "quantity/no-capacity"
	NoAnswer         fact.Code = "quantity/no-answer"
	UnknownUnit      fact.Code = "quantity/unknown-unit"
)
