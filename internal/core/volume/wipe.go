package volume

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
)

// Wipe is how thoroughly a drive is wiped, by the levels of NIST SP 800-88.
type Wipe string

// The levels: against what a system can read, against a laboratory, and for good.
const (
	Clear   Wipe = "clear"
	Purge   Wipe = "purge"
	Destroy Wipe = "destroy"
)

// Values lists the levels for the formats.
func (Wipe) Values() []string { return []string{string(Clear), string(Purge), string(Destroy)} }

// What a level takes, by name.
const (
	ClearPlatters fact.Code = "volume/clear-platters"
	ClearFlash    fact.Code = "volume/clear-flash"
	PurgeATA      fact.Code = "volume/purge-ata"
	PurgePlatters fact.Code = "volume/purge-platters"
	PurgeNVMe     fact.Code = "volume/purge-nvme"
	PurgeUnknown  fact.Code = "volume/purge-unknown"
	PurgeByKey    fact.Code = "volume/purge-by-key"
	DestroyFlash  fact.Code = "volume/destroy-flash"
	DestroyAll    fact.Code = "volume/destroy-all"
)

// Takes is what a level takes for a drive.
func (w Wipe) Takes(d *part.Drive) []fact.Fact {
	platters := d.Media == part.Platter
	switch {
	case w == Clear && platters:
		return []fact.Fact{fact.Of(ClearPlatters)}
	case w == Clear:
		return []fact.Fact{fact.Of(ClearFlash)}
	case w == Destroy && platters:
		return []fact.Fact{fact.Of(DestroyAll)}
	case w == Destroy:
		return []fact.Fact{fact.Of(DestroyFlash)}
	case platters:
		return []fact.Fact{fact.Of(PurgePlatters), fact.Of(PurgeByKey)}
	case d.Protocol == link.PCIe:
		return []fact.Fact{fact.Of(PurgeNVMe), fact.Of(PurgeByKey)}
	case d.Protocol == link.SATA:
		return []fact.Fact{fact.Of(PurgeATA), fact.Of(PurgeByKey)}
	}
	return []fact.Fact{fact.Of(PurgeUnknown), fact.Of(PurgeByKey)}
}
