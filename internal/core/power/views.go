package power

// This file foretells the views besides set-up and the system's own pages: the firmware's boot
// list, the installer's list of drives, the system's list of disks, and what counts up or
// gets hot. They are listed apart: nobody need read them where all is as it should be.

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// screenOrder is the order in which screens are come upon.
var screenOrder = map[Screen]int{InSetUp: 0, InBootList: 1, InInstaller: 2, InSystem: 3}

// HotM2 is the temperature at work from which an M.2 drive is too hot: most slow themselves down
// a little above.
const HotM2 quantity.Celsius = 75

// views foretells what else is shown of a drive.
func (f *forecast) views(d *part.Drive, s *fit.SocketState, box bool) {
	piece, off := f.b.Piece(s.Item), s.State == fit.Stopped || s.State == fit.Off
	line := func(k LineKind) Line { return Line{ID: LineID{Kind: k, Socket: s.Socket}, Extra: true} }
	gone := func(l Line, why fact.Code) {
		if l.Normal = fact.Of(why); off {
			l.Normal = fact.Fact{}
		}
		f.add(both(l, Reading{Absent: true}))
	}
	array := f.b.Firmwares(s.Item) != nil
	boot := line(Boots)
	switch {
	case off:
		gone(boot, NoFact)
	case array:
		gone(boot, BootsArray)
	case piece.Holds == rig.Blank:
		gone(boot, BootsNothing)
	case piece.Holds == rig.Data:
		gone(boot, BootsData)
	case piece.Holds == rig.System && s.State == fit.Live && (s.Link == nil || s.Link.Protocol != link.PCIe || f.b.Sheet.Firmware.StartsPCIe != quantity.No) && !box:
		boot.Expected, boot.Normal = fact.Of(Listed), fact.Of(BootsByName)
		f.add(both(boot, Reading{Value: Here}))
	case piece.Holds == rig.System && s.Link != nil && s.Link.Protocol == link.PCIe && f.b.Sheet.Firmware.StartsPCIe == quantity.No:
		gone(boot, BootsNoPCIe)
	default:
		boot.Expected = fact.Of(NotKnown)
		f.add(foretold{Line: boot, want: Reading{Value: Here}, upTo: Reading{Value: "?"}, mayBeAbsent: true})
	}
	for _, kind := range []LineKind{Installs, Disk} {
		l := line(kind)
		c := d.CapacityBytes
		switch {
		case off:
			gone(l, NoFact)
		case array:
			gone(l, MemberHidden)
		case s.State == fit.Live && c.Known():
			l.Expected = fact.Of(SystemPrints, c)
			if kind == Installs && piece.Holds == rig.Blank {
				l.Normal = fact.Of(InstallsBlank)
			} else if kind == Disk {
				l.Normal = f.normal(piece)
			}
			f.add(both(l, Reading{Bytes: c}))
		default:
			f.add(foretold{Line: l, want: Reading{Bytes: c}, upTo: Reading{Bytes: c + 1}, mayBeAbsent: s.State != fit.Live})
		}
	}
	if off || box || array {
		return
	}
	l := line(Counts)
	l.Expected, l.Normal = fact.Of(CountsNothing), fact.Of(CountsOld)
	f.add(both(l, Reading{Value: Quiet}))
	if d.Form == part.FormM2 {
		l := line(Heat)
		l.Expected = fact.Of(AtMostCelsius, HotM2)
		f.add(foretold{Line: l, want: Reading{Celsius: 1}, upTo: Reading{Celsius: HotM2}})
	}
}

// ScreenOf is the screen on which a line is read.
func ScreenOf(b *rig.Rig, id LineID) Screen {
	switch id.Kind {
	case Boots:
		return InBootList
	case Installs:
		return InInstaller
	case Usable, Fitted, LinkOf, Disk, Counts, Heat:
		return InSystem
	case Array:
		if id.System {
			return InSystem
		}
	case Drive:
		if b.Outside(id.Socket) { // set-up need not list what is outside
			return InSystem
		}
	}
	return InSetUp
}

// CompareScreens orders screens as they are come upon.
func CompareScreens(a, b Screen) int { return screenOrder[a] - screenOrder[b] }
