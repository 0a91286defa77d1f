package say

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/shelf"
)

// shelfWords is what happened to a kind of part on the shelf, for its history.
var shelfWords = map[fact.Code]string{
	shelf.Listed:        "described, none of it on the shelf",
	shelf.PutUp:         "put on the shelf, {0} of it",
	shelf.Changed:       "{0:semicolons}",
	shelf.CountUp:       "{0} more, {1} in all",
	shelf.CountDown:     "{0} fewer, {1} in all",
	shelf.PriceIs:       "price {0}",
	shelf.PriceGone:     "price no longer stated",
	shelf.ConditionIs:   "condition: {0}",
	shelf.ConditionGone: "condition no longer stated",
	shelf.SerialsCame:   "with serial {0}",
	shelf.SerialsWent:   "without serial {0}",
	shelf.SerialsOrder:  "serials listed otherwise",
	shelf.DescribedAs:   "described otherwise: {0}",
	shelf.BroughtBack:   "brought back as it was at revision {0}",
}
