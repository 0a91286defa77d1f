package say

import (
	"deepbay/internal/core/cure"
	"deepbay/internal/core/fact"
)

// cureWords is what room cure says. {0} is the first value of a fact, and so on; see
// Voice.arg for what may follow a colon.
var cureWords = map[fact.Code]string{
	cure.GoOff:        "{0:and} {0:goes} off",
	cure.MoveLead:     "move the data lead of {0} to {1}",
	cure.MoveLeadFrom: "move the data lead of {0} from {1} to {2}",
	cure.PutFrom:      "move {0} from {1} into {2}",
	cure.LayInto:      "lay {0} into {1}",
	cure.PutInto:      "put {0} into {1}",
	cure.PutThem:      "put them into {0:and}",
	cure.RunsSlower:   "{0} then runs at {1} instead of {2}",
	cure.SetTo:        "set {0}",
	cure.SwapWith:     "let {0} in {1} and {2} in {3} change places",
}
