package data

import (
	"time"

	"deepbay/internal/core/rig"
)

// What is one thing that a step, a deed or a statement does to a drive.
type What string

// The effects.
const (
	Puts        What = "puts"        // hands put the part at At
	Takes       What = "takes"       // hands took it out
	Disconnects What = "disconnects" // it is off for the time being
	Connects    What = "connects"    // it runs again
	Erases      What = "erases"      // all of it is written over
	Copies      What = "copies"      // files of From come onto it; what it held by itself is written over
	Clones      What = "clones"      // the whole of From comes onto it; all it held is written over
	Proves      What = "proves"      // what came from From was compared and is all there
	BacksUp     What = "backs up"    // a copy of it outside was opened and read
	Leaves      What = "leaves"      // it is wiped, recycled, sold or sent back
	Returns     What = "returns"     // it is here again
	Removed     What = "removed"     // it is no part of this job any more
	Says        What = "says"        // its card says Now, and said Was
)

// Values lists the effects for the formats.
func (What) Values() []string {
	return []string{string(Puts), string(Takes), string(Disconnects), string(Connects), string(Erases), string(Copies), string(Clones), string(Proves), string(BacksUp), string(Leaves), string(Returns), string(Removed), string(Says)}
}

// Act is what happens to one drive.
type Act struct {
	What What        `json:"what"`
	Item rig.ItemID  `json:"item" jsonschema:"minLength=1,maxLength=60"`
	From rig.ItemID  `json:"from,omitempty" jsonschema:"maxLength=60"` // of a copy: the drive it is of
	Pair int         `json:"pair,omitempty" jsonschema:"minimum=1"`    // of a copy: the number of its transfer; of a statement: of one from that drive, not proved then
	At   rig.Path    `json:"at,omitzero" jsonschema:"maxLength=200"`   // where a part was put
	Was  rig.Content `json:"was,omitempty"`                            // what its card said before
	Now  rig.Content `json:"now,omitempty"`                            // and says from then on
}

// Event is one entry of a record. No event is ever taken out: one that is said not to have happened
// is named by the Voids of a later one, for bytes do not come back by a word.
type Event struct {
	N       int       `json:"n" jsonschema:"minimum=1"`
	Step    string    `json:"step,omitempty" jsonschema:"maxLength=200"` // which step, or the name of the change
	Effects []Act     `json:"effects,omitempty" jsonschema:"maxItems=500"`
	Voids   int       `json:"voids,omitempty" jsonschema:"minimum=1"` // the number of an event that did not happen after all
	By      string    `json:"by,omitempty" jsonschema:"maxLength=80"`
	At      time.Time `json:"at,omitzero"`
}

// Record is what hands did and what was said, oldest first, over all stages of a job.
type Record []Event

// Next is the number of the event that follows.
func (r Record) Next() int {
	if len(r) == 0 {
		return 1
	}
	return r[len(r)-1].N + 1
}

// Voided reports which events are said not to have happened. Voiding may itself be voided.
func (r Record) Voided() map[int]bool {
	out := map[int]bool{}
	for i := len(r) - 1; i >= 0; i-- {
		if e := &r[i]; e.Voids > 0 && !out[e.N] {
			out[e.Voids] = true
		}
	}
	return out
}

// Last is the newest event of a step that is not voided, nil for none.
func (r Record) Last(step string) *Event {
	void := r.Voided()
	for i := len(r) - 1; i >= 0; i-- {
		if e := &r[i]; e.Step == step && e.Voids == 0 && !void[e.N] {
			return e
		}
	}
	return nil
}
