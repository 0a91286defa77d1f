package part

// This file describes small parts that help another in. They go into no socket:
// that they are at hand is what counts.

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
)

// FittingKind is what a fitting does.
type FittingKind string

// The kinds of fitting.
const (
	DataLead     FittingKind = "data lead"     // SATA, at most 1 m
	PowerAdapter FittingKind = "power adapter" // from one plug to others
	SupplyLead   FittingKind = "supply lead"   // from a supply's own socket to plugs; of one model of supply alone
	Bracket      FittingKind = "bracket"       // holds a small drive in a larger bay
	Caddy        FittingKind = "caddy"         // a bay's sled or frame
	Spacer       FittingKind = "spacer"        // 2.5 mm, brings a 7 mm drive to 9.5
	Screws       FittingKind = "screws"        // four of one thread
)

// Values lists the kinds for the formats.
func (FittingKind) Values() []string {
	return []string{string(DataLead), string(PowerAdapter), string(SupplyLead), string(Bracket), string(Caddy), string(Spacer), string(Screws)}
}

// LeadEnd is the shape of a data lead's end at the drive.
type LeadEnd string

// The ends: in line with the lead, or at a right angle where the bay leaves no
// room behind the drive.
const (
	StraightEnd LeadEnd = "straight"
	AngledEnd   LeadEnd = "angled"
)

// Values lists the ends for the formats.
func (LeadEnd) Values() []string { return []string{string(StraightEnd), string(AngledEnd)} }

// Thread is the thread of a drive's screws.
type Thread string

// The threads in use: M3 x 0.5 for 2.5-inch and optical drives (SFF-8201,
// SFF-8551), 6-32 UNC for 3.5-inch ones (SFF-8301). Either spoils the other's hole.
const (
	M3     Thread = "M3"
	UNC632 Thread = "6-32"
)

// Values lists the threads for the formats.
func (Thread) Values() []string { return []string{string(M3), string(UNC632)} }

// Thread is the thread of the holes in a drive of this form, "" where it has none.
func (f Form) Thread() Thread {
	switch f {
	case Form2i5, FormU2:
		return M3
	case Form3i5:
		return UNC632
	}
	return ""
}

// Fitting is one kind of small part. Which fields have a meaning follows from the kind.
type Fitting struct {
	Kind    FittingKind          `json:"kind"`
	End     LeadEnd              `json:"end,omitempty"`                                          // a data lead's, at the drive
	PortEnd LeadEnd              `json:"portEnd,omitempty"`                                      // and at the port
	Length  quantity.Millimetres `json:"lengthMM,omitzero" jsonschema:"minimum=10,maximum=2000"` // of a lead
	From    Plug                 `json:"from,omitempty"`                                         // a power adapter's, at the supply
	To      Plug                 `json:"to,omitempty"`                                           // at the drive or card; a supply lead's
	Plugs   int                  `json:"plugs,omitzero" jsonschema:"minimum=1,maximum=6"`        // how many it feeds; absent is one
	Supply  string               `json:"supply,omitempty" jsonschema:"maxLength=60"`             // the model of supply that a supply lead belongs to
	Crimped quantity.Answer      `json:"crimped,omitzero"`                                       // moulded ones from 4-pin are a known cause of fire
	Holds   Form                 `json:"holds,omitempty"`                                        // the drive of a bracket or caddy
	Fits    Form                 `json:"fits,omitempty"`                                         // the drive whose bay it goes into
	Thread  Thread               `json:"thread,omitempty"`                                       // of screws, or those that come with a bracket
}

// Feeds is how many plugs a power adapter or supply lead gives.
func (f *Fitting) Feeds() int { return max(1, f.Plugs) }

func (f *Fitting) validate() problem.List {
	var l problem.List
	if f.Kind == PowerAdapter && (f.From == "" || f.To == "") {
		l.Add("", fact.Of(AdapterWithoutEnds))
	}
	if f.Kind == SupplyLead && f.To == "" {
		l.Add("", fact.Of(LeadWithoutPlug))
	}
	if f.Kind == Screws && f.Thread == "" {
		l.Add("", fact.Of(ThreadMissing))
	}
	return l
}
