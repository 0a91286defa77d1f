package volume

// This file is how data comes from an old drive onto a new one: what must hold for it, and how long
// it takes.

import (
	"time"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// TransferHow is how data comes over.
type TransferHow string

// The three ways.
const (
	Fresh TransferHow = "fresh" // a new system, then the owner's files are copied
	Clone TransferHow = "clone" // the whole drive, its table and systems included
	Swap  TransferHow = "swap"  // files are copied, then the new volume takes the old one's letter or mount point
)

// Values lists the ways for the formats.
func (TransferHow) Values() []string { return []string{string(Fresh), string(Clone), string(Swap)} }

// StartMode is how a system starts.
type StartMode string

// The two; "" is that nobody looked.
const (
	UEFI   StartMode = "uefi"
	Legacy StartMode = "legacy"
)

// Values lists the modes for the formats.
func (StartMode) Values() []string { return []string{string(UEFI), string(Legacy)} }

// Transfer is data that comes from an old drive onto a new one, with what was looked up for it.
type Transfer struct {
	ID          int             `json:"id" jsonschema:"minimum=1,maximum=100000"`
	How         TransferHow     `json:"how"`
	From        rig.ItemID      `json:"from" jsonschema:"minLength=1,maxLength=60"`
	To          rig.ItemID      `json:"to" jsonschema:"minLength=1,maxLength=60"`
	Bytes       quantity.Bytes  `json:"bytes,omitzero" jsonschema:"minimum=1"`       // that lie on the old one; absent is not looked
	Mean        quantity.Bytes  `json:"meanFile,omitzero" jsonschema:"minimum=1"`    // of a file; absent is a few large ones
	Table       Table           `json:"table,omitempty"`                             // of the old one; absent is not looked
	Start       StartMode       `json:"start,omitempty"`                             // of the system on it; absent is not looked
	Encrypted   quantity.Answer `json:"encrypted,omitzero"`                          // the old one; absent is not looked
	FirstSector int64           `json:"firstSector,omitzero" jsonschema:"minimum=1"` // at which its first partition begins; absent is not looked
	Sectors     quantity.Answer `json:"sameSectors,omitzero"`                        // both drives tell the same logical sector size; absent is not looked
	Proof       *Proof          `json:"proof,omitempty"`                             // that all of it arrived
}

// Proof is that all data arrived: by a comparison of all files.
type Proof struct {
	Files  int64          `json:"files" jsonschema:"minimum=1"`
	Bytes  quantity.Bytes `json:"bytes" jsonschema:"minimum=0"`
	Digest string         `json:"digest,omitempty" jsonschema:"maxLength=64,pattern=^[0-9a-f]*$"` // over all names and sums, as deepbay verify prints it; absent where only counts were compared
	By     string         `json:"by,omitempty" jsonschema:"maxLength=80"`
	At     time.Time      `json:"at,omitzero"`
}

// Must is something that must hold for a transfer.
type Must string

// The needs.
const (
	Fits        Must = "fits"
	Shrinks     Must = "shrinks" // it fits once its volumes are made smaller
	Open        Must = "open"    // the old drive is not encrypted, or opened
	Named       Must = "named"   // its table names all of the new drive
	StartsSo    Must = "starts-so"
	Aligned     Must = "aligned"
	SameSectors Must = "same-sectors"
	Together    Must = "together" // both can be in the machine at a time
	SecondCopy  Must = "second-copy"
)

// Condition is a need, and whether it is met.
type Condition struct {
	Need Must
	Met  quantity.Answer
	Hard bool // where it is not met nothing can be moved so
}

// Ends is the two drives of a transfer: how large they are, 0 where that is not known.
type Ends struct{ From, To quantity.Bytes }

// Conditions lists what must hold for a transfer between drives of these sizes. What nobody looked
// up is unknown.
func (t *Transfer) Conditions(e Ends) []Condition {
	out := []Condition{t.fits(e)}
	add := func(n Must, met quantity.Answer, hard bool) { out = append(out, Condition{n, met, hard}) }
	open := map[quantity.Answer]quantity.Answer{quantity.Yes: quantity.No, quantity.No: quantity.Yes}[t.Encrypted]
	add(Open, open, false)
	if t.How != Clone {
		return out
	}
	switch {
	case t.Table == GPT || e.To.Known() && e.To <= mbrSectors*512:
		add(Named, quantity.Yes, false)
	case t.Table == MBR && e.To.Known():
		add(Named, quantity.No, false)
	default:
		add(Named, quantity.Unknown, false)
	}
	switch {
	case t.Table == "" || t.Start == "":
		add(StartsSo, quantity.Unknown, false)
	case (t.Table == GPT) == (t.Start == UEFI): // UEFI starts from GPT, the older way from the older table
		add(StartsSo, quantity.Yes, false)
	default:
		add(StartsSo, quantity.No, false)
	}
	switch {
	case t.FirstSector == 0:
		add(Aligned, quantity.Unknown, false)
	case t.FirstSector%alignedTo == 0:
		add(Aligned, quantity.Yes, false)
	default:
		add(Aligned, quantity.No, false)
	}
	add(SameSectors, t.Sectors, true)
	return out
}

// alignedTo is the sectors of 512 bytes in the mebibyte at whose multiples partitions begin.
const alignedTo = 2048

// fits says whether the data has room on the new drive.
func (t *Transfer) fits(e Ends) Condition {
	need := t.Bytes
	if t.How == Clone { // the whole of it, unless its volumes are made smaller
		need = e.From
	}
	switch {
	case t.Bytes.Known() && e.To.Known() && t.Bytes > e.To:
		return Condition{Fits, quantity.No, true}
	case !need.Known() || !e.To.Known():
		return Condition{Fits, quantity.Unknown, true}
	case need <= e.To:
		return Condition{Fits, quantity.Yes, true}
	case t.Bytes.Known():
		return Condition{Shrinks, quantity.No, false}
	}
	return Condition{Shrinks, quantity.Unknown, false}
}

// Load is what is copied. A clone reads the drive as one large file.
func (t *Transfer) Load() Load {
	if t.How == Clone {
		return Load{Bytes: t.Bytes}
	}
	return Load{t.Bytes, t.Mean}
}

// Check reports what contradicts itself in a transfer.
func (t *Transfer) Check() problem.List {
	var l problem.List
	if t.From == t.To {
		l.Add("/to", fact.Of(OntoItself))
	}
	if t.Mean.Known() && t.Bytes.Known() && t.Mean > t.Bytes {
		l.Add("/meanFile", fact.Of(MeanTooLarge))
	}
	return l
}
