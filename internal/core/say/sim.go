package say

import "deepbay/internal/core/fault"

// This file is what the simulated bench says of what was done with it.

// SimStarted and the like say what was done.
func (v *Voice) SimStarted() Text { return v.text("It was closed and started.") }
func (v *Voice) SimStopped() Text { return v.text("It was shut down.") }
func (v *Voice) SimSaved() Text   { return v.text("Set and saved.") }
func (v *Voice) SimDone() Text {
	return v.text("Done, with the machine shut down and open. Start it to see what that changed.")
}

// SimChecked says what a check showed.
func (v *Voice) SimChecked(k fault.Inspection, is fault.Outcome) Text {
	return v.text(v.check(k) + ": " + v.outcome(is) + ".")
}

// SimMended says whether a cure met what was wrong.
func (v *Voice) SimMended(met bool) Text {
	if met {
		return v.text("That was it: put right. Start the machine and read what differed again.")
	}
	return v.text("Done, and it changed nothing: that was not what was wrong.")
}

// SimRevealed says how much is hidden.
func (v *Voice) SimRevealed(n int) Text {
	if n == 0 {
		return v.text("Nothing is wrong with it.")
	}
	return v.text("Hidden in it: " + plural(n, "fault") + ".")
}
