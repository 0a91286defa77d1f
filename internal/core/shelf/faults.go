package shelf

import "deepbay/internal/core/fact"

// This file lists the codes of what can be wrong. Each has its words in say.

// What can be wrong, by name.
const (
	NotCSV      fact.Code = "shelf/not-csv"
	NoSuchPart  fact.Code = "shelf/no-such-part"
	NoCount     fact.Code = "shelf/no-count"
	NoCondition fact.Code = "shelf/no-condition"
	NoPrice     fact.Code = "shelf/no-price"
	NoHeadLine  fact.Code = "shelf/no-head-line"
	NoColumn    fact.Code = "shelf/no-column"
)
