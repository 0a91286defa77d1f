package coretest

import (
	"testing"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// This file is the cases of the rules of fit: the tests hold the rules against them, and
// the document of rules prints one of each kind.

// Case is a machine as Lay reads it, what was wished for it, and the findings there are,
// one a line: grade, code, socket, piece. Rule is the rule it is there for.
type Case struct {
	Rule string
	Lay  string
	Wish rig.Wish
	Want string
}

// Rig lays a case out. The words of a wish may name a board that differs from the usual.
func (c *Case) Rig(t testing.TB) *rig.Rig {
	b := Lay(t, Board(), c.Lay)
	b.Wish = c.Wish
	switch c.Wish.Text {
	case "old firmware":
		b.Sheet.Firmware.StartsPCIe = quantity.No
	case "blind", "blind, two of them":
		b.Sheet.Processors = []machine.Processor{{ID: "blind", Name: "the blind one", Graphics: quantity.No, ModuleBytes: 16 * quantity.GiB, TotalBytes: 24 * quantity.GiB}, {ID: "other", Name: "the other", Graphics: quantity.No}}
		if c.Wish.Text == "blind" {
			b.Processor = "blind"
		}
	case "thin leads":
		b.Sheet.Chassis.Plugs = []machine.PlugCount{{Kind: part.PlugSATA, Count: 9, Watts: 15}}
	case "a workstation":
		b.Sheet.Class = machine.Workstation
	case "silent board":
		b.Sheet.Memory.Generation = ""
	}
	return b
}

// fine is two equal modules in the sheet's slots: nothing to say about memory.
const fine = " m16:A2 m16':B2"

// blind is a machine whose processor brings no graphics and addresses little memory.
var blind = rig.Wish{Text: "blind"}

// Cases has for each rule one in which it speaks and one, its neighbour, in which it does
// not. A finding too many is a fault, too.
var Cases = []Case{
	{"kind-mismatch", "ssd:U" + fine, rig.Wish{}, "stops kind-mismatch U ssd"},
	{"kind-mismatch", "so:A1" + fine, rig.Wish{}, "stops kind-mismatch A1 so"},
	{"kind-mismatch", "ssd:P1" + fine, rig.Wish{}, ""},
	{"memory-generation", "ddr5:A2", rig.Wish{}, "stops memory-generation A2 ddr5\nstops memory-none"},
	{"memory-generation", "m16:A2", rig.Wish{}, "notes channels-empty"},
	{"fit-unknown", "m16:A2", rig.Wish{Text: "silent board"}, "warns fit-unknown A2 m16\nwarns memory-unknown\nnotes channels-empty"},
	{"memory-generation", "@m16:A2", rig.Wish{Text: "silent board"}, "notes channels-empty"}, // what lies there tells
	{"memory-generation", "@m16:A2 +ddr5:B2", rig.Wish{Text: "silent board"}, "stops memory-generation B2 ddr5\nnotes channels-empty"},
	{"memory-registered", "reg:A1" + fine, rig.Wish{}, "stops memory-registered A1 reg"},
	{"memory-registered", fine, rig.Wish{Text: "a workstation"}, ""},
	{"memory-registered", "m16r2:A2", rig.Wish{}, "notes channels-empty"},
	{"m2-key", "nvme:K" + fine, rig.Wish{}, "stops m2-key K nvme"},
	{"m2-key", "sata2:K" + fine, rig.Wish{}, ""},
	{"m2-length", "long:U" + fine, rig.Wish{}, "stops m2-length U long"},
	{"m2-length", "nvme:U" + fine, rig.Wish{}, ""},
	{"fit-unknown", "@sata2:Q" + fine, rig.Wish{}, "warns fit-unknown Q sata2"}, // lying there does not prove that it is seen
	{"fit-unknown", "!sata2:Q" + fine, rig.Wish{}, ""},
	{"fit-unknown", "!sata2:Q mystery:U" + fine, rig.Wish{}, "warns fit-unknown U mystery"},
	{"fit-unknown", "!mystery:U" + fine, rig.Wish{}, "warns link-unknown U mystery"},    // it speaks what its place speaks
	{"found-otherwise", "!sata2:U" + fine, rig.Wish{}, "warns found-otherwise U sata2"}, // and was shown there all the same
	{"fit-unknown", "!m16:A2", rig.Wish{Text: "silent board"}, "notes channels-empty"},
	{"module-impossible", "m32:A2", blind, "stops module-impossible A2 m32\nstops memory-none\nwarns no-picture"},
	{"module-impossible", "m16:A2 display:X1", blind, "notes channels-empty"},
	{"memory-impossible", "m16:A2 m16':B2 display:X1", blind, "stops memory-impossible"},
	{"memory-impossible", "m16:A2 m8:B2 display:X1", blind, "notes memory-slowest B2 m8\nnotes memory-unequal\nnotes memory-speed A2 m16\nnotes memory-mixed"},
	{"no-picture", "nvme:U" + fine, rig.Wish{Text: "blind, two of them"}, "warns no-picture"}, // whichever of them is fitted
	{"no-picture", "nvme:U display:X1" + fine, rig.Wish{Text: "blind, two of them"}, ""},
	{"channels-empty", "m16:A2", rig.Wish{}, "notes channels-empty"},
	{"channels-empty", fine, rig.Wish{}, ""},
	{"memory-slowest", "m16:A2 m8:B2", rig.Wish{}, "notes memory-slowest B2 m8\nnotes memory-unequal\nnotes memory-speed A2 m16\nnotes memory-mixed"},
	{"memory-slowest", "m16:A2 m16':B2 m8:A1", rig.Wish{}, "notes memory-order-unstated\nnotes memory-slowest A1 m8\nnotes memory-unequal\nnotes memory-speed A2 m16\nnotes memory-speed B2 m16'\nnotes memory-mixed"},
	{"memory-slowest", "m16:A2 m16r2:B2", rig.Wish{}, "notes memory-mixed"},
	{"plug-watts", "loud:P5 loud':P6" + fine, rig.Wish{Text: "thin leads"}, "warns plug-watts"},
	{"plug-watts", "loud:P5" + fine, rig.Wish{Text: "thin leads"}, ""},
	{"start-pcie", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, Text: "old firmware"}, "warns start-pcie U nvme"}, // whatever the wish says of speed
	{"start-pcie", "nvme:U ssd:P1" + fine, rig.Wish{SystemBytes: 480 * quantity.GB, Text: "old firmware"}, ""},                 // the other can start
	{"looked-otherwise", "nvme:U U?key=B" + fine, rig.Wish{}, "stops m2-key U nvme\nwarns looked-otherwise"},
	{"looked-otherwise", "nvme3:Q Q?posts=42_80 Q?protocols=pcie" + fine, rig.Wish{}, ""}, // nothing was stated
	{"card-room", "riser:U nic:U/1" + fine, rig.Wish{}, "warns fit-unknown U/1 nic"},
	{"card-room", "riser:U nic:U/1 riser/1?room_for_a_card=no" + fine, rig.Wish{}, "stops card-room U/1 nic"},
	{"card-room", "riser:U nic:U/1 riser/1?room_for_a_card=yes" + fine, rig.Wish{}, ""},
	{"found-otherwise", "@long:U" + fine, rig.Wish{}, "warns found-otherwise U long"}, // it lies there
	{"found-otherwise", "long:U" + fine, rig.Wish{}, "stops m2-length U long"},
	{"found-otherwise", "@tall110:W @nic:X2" + fine, rig.Wish{}, "warns found-otherwise W tall110\nwarns uplink-below-link W tall110"},
	{"m2-cover", "@tall110:W +nic:X2" + fine, rig.Wish{}, "stops m2-cover W tall110"},   // the card came to be fitted
	{"fit-unknown", "riser:U @nic:U/1" + fine, rig.Wish{}, "warns fit-unknown U/1 nic"}, // not on this holder
	{"fit-unknown", "@riser:U @nic:U/1" + fine, rig.Wish{}, ""},
	{"protocol", "@sata2:U" + fine, rig.Wish{}, "stops protocol U sata2"}, // lying there does not prove that it is seen
	{"bay-form", "hdd:P1" + fine, rig.Wish{}, "stops bay-form P1 hdd"},
	{"bay-form", "hdd:P5" + fine, rig.Wish{}, ""},
	{"socket-off", "nvme3:L hdd:P6" + fine, rig.Wish{}, "stops socket-off P6 hdd\nnotes port-lost P5"},
	{"socket-off", "nvme:U hdd:P6" + fine, rig.Wish{}, ""},
	{"protocol", "sata2:U" + fine, rig.Wish{}, "stops protocol U sata2"},
	{"protocol", "nvme3:L sata-only=on" + fine, rig.Wish{}, "stops protocol L nvme3\nnotes port-lost P5\nnotes port-lost P6"},
	{"protocol", "sata2:L" + fine, rig.Wish{}, "notes port-lost P5\nnotes port-lost P6"},
	{"fit-unknown", "mystery:U" + fine, rig.Wish{}, "warns fit-unknown U mystery"},
	{"fit-unknown", "nvme3:Q" + fine, rig.Wish{}, "warns fit-unknown Q nvme3"},
	{"fit-unknown", "ssd:P7" + fine, rig.Wish{}, "warns fit-unknown P7 ssd"},
	{"fit-unknown", "ssd:P5" + fine, rig.Wish{}, ""},
	{"link-unknown", "nvme:G" + fine, rig.Wish{}, "warns link-unknown G nvme"},
	{"link-unknown", "nogen:U" + fine, rig.Wish{}, "warns link-unknown U nogen"},
	{"link-unknown", "plain:X2" + fine, rig.Wish{}, "warns link-unknown X2 plain"},
	{"link-unknown", "nvme:U" + fine, rig.Wish{}, ""},
	{"link-below-drive", "nvme:U cap=on" + fine, rig.Wish{}, "warns link-below-drive U nvme"},
	{"link-below-drive", "nvme3:U cap=on" + fine, rig.Wish{}, ""},
	{"uplink-below-link", "nvme:F" + fine, rig.Wish{}, "warns uplink-below-link F nvme"},
	{"uplink-below-link", "nvme3:L" + fine, rig.Wish{}, "notes port-lost P5\nnotes port-lost P6"},
	{"link-below-socket", "nvme3:U" + fine, rig.Wish{}, "notes link-below-socket U nvme3"},
	{"link-below-socket", "nvme:U" + fine, rig.Wish{}, ""},
	{"module-trial", "m64:A2", rig.Wish{}, "warns module-trial A2 m64\nnotes channels-empty"},
	{"module-trial", "m16:A2", rig.Wish{}, "notes channels-empty"},
	{"module-proven", "m32:A2", rig.Wish{}, "notes module-proven A2 m32\nnotes channels-empty"},
	{"module-proven", "m16:A2", rig.Wish{}, "notes channels-empty"},
	{"port-lost", "close=on" + fine, rig.Wish{}, "notes port-lost P1"},
	{"port-lost", "sata2:K half=on" + fine, rig.Wish{}, "notes port-lost P1"},
	{"port-lost", "sata2:K" + fine, rig.Wish{}, ""},
	{"memory-none", "nvme:U", rig.Wish{}, "stops memory-none"},
	{"memory-none", "nvme:U m16:A2", rig.Wish{}, "notes channels-empty"},
	{"memory-channels", "m16:A1 m16':A2", rig.Wish{}, "warns memory-channels\nnotes memory-speed A1 m16\nnotes memory-speed A2 m16'"},
	{"memory-channels", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-order", "m16:A1 m16':B1", rig.Wish{}, "warns memory-order"},
	{"memory-order", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-order-unstated", "m16:A1 m16':A2 m16'':B2", rig.Wish{}, "notes memory-order-unstated\nnotes memory-unequal\nnotes memory-speed A1 m16\nnotes memory-speed A2 m16'\nnotes memory-speed B2 m16''"},
	{"memory-order-unstated", "m16:A2", rig.Wish{}, "notes channels-empty"},
	{"memory-unequal", "m16:A2 m32:B2", rig.Wish{}, "notes module-proven B2 m32\nnotes memory-unequal\nnotes memory-mixed"},
	{"memory-unequal", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-speed", "m16:A2 m8:B2", rig.Wish{}, "notes memory-slowest B2 m8\nnotes memory-unequal\nnotes memory-speed A2 m16\nnotes memory-mixed"},
	{"memory-speed", "fast:A2 profile=off", rig.Wish{}, "notes channels-empty\nnotes memory-speed A2 fast"},
	{"memory-speed", "+fast:A2 profile=on", rig.Wish{}, "warns profile-trial\nnotes channels-empty"},
	{"profile-trial", "+fast:A2 +fast':B2 profile=on", rig.Wish{}, "warns profile-trial"},
	{"profile-trial", "fast:A2 m16:B2 profile=on", rig.Wish{}, "notes memory-speed A2 fast\nnotes memory-mixed"}, // one without holds both back
	{"memory-unknown", "nosize:A2", rig.Wish{}, "warns memory-unknown\nnotes channels-empty"},
	{"memory-unknown", "norate:A2", rig.Wish{}, "warns memory-unknown\nnotes channels-empty"},
	{"memory-unknown", "noranks:A1 m16:A2 m16':B1 m16'':B2", rig.Wish{}, "warns memory-unknown\nnotes memory-speed A1 noranks\nnotes memory-speed A2 m16\nnotes memory-speed B1 m16'\nnotes memory-speed B2 m16''\nnotes memory-mixed"},
	{"memory-unknown", "noranks:A2", rig.Wish{}, "notes channels-empty"}, // one a channel: the board's table does not ask for ranks
	{"slot-length", "thin:X3" + fine, rig.Wish{}, "stops slot-length X3 thin"},
	{"slot-length", "two:X2" + fine, rig.Wish{}, ""},
	{"slot-covered", "gpu:X1 nic:X2" + fine, rig.Wish{}, "stops slot-covered X2 nic\nwarns card-narrow X1 gpu"},
	{"slot-covered", "thin:X1 full:X3" + fine, rig.Wish{}, "stops card-bracket X3 full"},
	{"slot-covered", "gpu:X1" + fine, rig.Wish{}, ""},
	{"card-length", "longgpu:X1" + fine, rig.Wish{}, "stops card-length X1 longgpu"},
	{"card-length", "thin:X1" + fine, rig.Wish{}, ""},
	{"card-bracket", "full:X1" + fine, rig.Wish{}, "stops card-bracket X1 full"},
	{"card-bracket", "nic:X1" + fine, rig.Wish{}, ""},
	{"position-dead", "quad:X1 nvme:X1/2" + fine, rig.Wish{}, "stops position-dead X1/2 nvme"},
	{"position-dead", "quad:X1 nvme:X1/3 split=8+8" + fine, rig.Wish{}, ""},
	{"position-dead", "quad:X1 nic:X2 nvme:X1/3 split=4+4+4+4" + fine, rig.Wish{}, "stops position-dead X1/3 nvme"}, // eight lanes are left
	{"position-dead", "quad:X1 nic:X2 nvme:X1/2 split=4+4+4+4" + fine, rig.Wish{}, ""},
	{"position-dead", "joined:X1 nvme:X1/4" + fine, rig.Wish{}, ""},
	{"card-narrow", "nic:X3" + fine, rig.Wish{}, "warns card-narrow X3 nic"},
	{"card-narrow", "nic:X2" + fine, rig.Wish{}, ""},
	{"carrier-shared", "joined:X1 nvme:X1/1 nvme':X1/2 nvme'':X1/3" + fine, rig.Wish{}, "notes carrier-shared X1 joined"},
	{"carrier-shared", "joined:X1 nvme:X1/1 nvme':X1/2" + fine, rig.Wish{}, ""},
	{"m2-height", "tall:T" + fine, rig.Wish{}, "stops m2-height T tall"},
	{"m2-height", "tall:U" + fine, rig.Wish{}, ""},
	{"m2-under", "both:T" + fine, rig.Wish{}, "stops m2-under T both"},
	{"m2-under", "nvme:T" + fine, rig.Wish{}, ""},
	{"module-height", "spread:A1" + fine, rig.Wish{}, "stops module-height A1 spread"},
	{"module-height", "spread:A2", rig.Wish{}, "notes channels-empty"},
	{"memory-voltage", "volt:A1" + fine, rig.Wish{}, "stops memory-voltage A1 volt"},
	{"memory-voltage", "m16:A2", rig.Wish{}, "notes channels-empty"},
	{"bay-height", "thick:P1" + fine, rig.Wish{}, "stops bay-height P1 thick"},
	{"bay-height", "ssd:P1" + fine, rig.Wish{}, ""},
	{"power-disable", "pwdis:P5" + fine, rig.Wish{}, "stops power-disable P5 pwdis"},
	{"power-disable", "hdd:P5" + fine, rig.Wish{}, ""},
	{"m2-hot", "gen5:T" + fine, rig.Wish{}, "warns link-below-drive T gen5\nwarns m2-hot T gen5"},
	{"m2-hot", "warm:T" + fine, rig.Wish{}, "notes m2-warm T warm"},
	{"m2-heat-unknown", "gen5:U" + fine, rig.Wish{}, "warns link-below-drive U gen5\nnotes m2-heat-unknown U gen5"},
	{"m2-heat-unknown", "warm:U" + fine, rig.Wish{}, ""}, // slower drives are not asked about
	{"m2-warm", "warm:T" + fine, rig.Wish{}, "notes m2-warm T warm"},
	{"m2-warm", "warm:U" + fine, rig.Wish{}, ""}, // whether U brings a heatsink is not stated
	{"fit-unknown", "nvme:O" + fine, rig.Wish{}, "warns fit-unknown O nvme"},
	{"fit-unknown", "nvme:O cpu=new" + fine, rig.Wish{}, ""},
	{"socket-off", "nvme:O cpu=old" + fine, rig.Wish{}, "stops socket-off O nvme"},
	{"memory-ecc", "ecc:A2", rig.Wish{}, "notes channels-empty\nnotes memory-ecc"},
	{"memory-ecc", "ecc:A2 noecc:B2", rig.Wish{}, "notes memory-ecc\nnotes memory-mixed"},
	{"memory-ecc", "noecc:A2", rig.Wish{}, "notes channels-empty"},
	{"memory-mixed", "noecc:A2 m16:B2", rig.Wish{}, "notes memory-mixed"},
	{"memory-mixed", "m16:A2 m16':B2", rig.Wish{}, ""},
	{"memory-system", "m16:A2", rig.Wish{SystemMax: 4 * quantity.GiB}, "warns memory-system\nnotes channels-empty"},
	{"memory-system", "m16:A2", rig.Wish{SystemMax: 16 * quantity.GiB}, "notes channels-empty"},
	{"power-plugs", "ssd:P1 ssd':P5 ssd'':P6 ssd''':P7" + fine, rig.Wish{}, "stops power-plugs\nwarns fit-unknown P7 ssd'''"},
	{"power-plugs", "ssd:P1 ssd':P5 ssd'':P6" + fine, rig.Wish{}, ""},
	{"start-pcie", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true, Text: "old firmware"}, "warns start-pcie U nvme"},
	{"start-pcie", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true}, ""},
	{"memory-trial", "m32:A1 m32':A2 m32'':B1 m32''':B2", rig.Wish{}, "warns memory-trial\nnotes module-proven A1 m32\nnotes module-proven A2 m32'\nnotes module-proven B1 m32''\nnotes module-proven B2 m32'''\n" +
		"notes memory-speed A1 m32\nnotes memory-speed A2 m32'\nnotes memory-speed B1 m32''\nnotes memory-speed B2 m32'''"},
	{"memory-trial", "m16:A2", rig.Wish{}, "notes channels-empty"},
	{"not-placed", "+nvme" + fine, rig.Wish{}, "warns not-placed nvme"},
	{"not-placed", "nvme" + fine, rig.Wish{}, ""},        // taken out on purpose
	{"not-placed", "+lead +sled" + fine, rig.Wish{}, ""}, // fittings go into no socket
	{"m2-width", "wide25:W" + fine, rig.Wish{}, "stops m2-width W wide25"},
	{"m2-width", "long:W" + fine, rig.Wish{}, "warns uplink-below-link W long"},
	{"fit-unknown", "wide25:Q" + fine, rig.Wish{}, "warns fit-unknown Q wide25"},
	{"m2-cover", "tall110:W nic:X2" + fine, rig.Wish{}, "stops m2-cover W tall110"},
	{"m2-cover", "tall110:W gpu:X1" + fine, rig.Wish{}, "stops m2-cover W tall110"}, // two openings wide
	{"m2-cover", "tall110:W thin:X1" + fine, rig.Wish{}, "warns uplink-below-link W tall110"},
	{"m2-warm", "cool5:T" + fine, rig.Wish{}, "warns link-below-drive T cool5\nnotes m2-warm T cool5"},
	{"bay-form", "ssd:P9" + fine, rig.Wish{}, ""},
	{"plug-wrong", "ssd:PO" + fine, rig.Wish{}, "stops plug-wrong PO ssd"},
	{"plug-wrong", "ssd:PO toslim" + fine, rig.Wish{}, ""},
	{"box-supply", "dock:R1 hdd:R1/1" + fine, rig.Wish{}, "stops box-supply R1/1 hdd"},
	{"box-supply", "fed:R1 hdd:R1/1" + fine, rig.Wish{}, "notes outside R1/1 hdd"},
	{"box-supply", "dock:R1 ssd:R1/1" + fine, rig.Wish{}, "notes outside R1/1 ssd"},
	{"outside", "box:R1 nvme:R1/1" + fine, rig.Wish{}, "notes outside R1/1 nvme"},
	{"outside", "box:R1" + fine, rig.Wish{}, ""},
	{"box-narrow", "fastbox:R1" + fine, rig.Wish{}, "warns box-narrow R1 fastbox"},
	{"box-narrow", "fastbox:R2" + fine, rig.Wish{}, ""},
	{"link-unknown", "box:R3" + fine, rig.Wish{}, "warns link-unknown R3 box"},
	{"slot-power", "hungry:X1" + fine, rig.Wish{}, "warns slot-power X1 hungry"},
	{"slot-power", "plugged:X1" + fine, rig.Wish{}, "warns plugs-unknown"},
	{"plugs-unknown", "plugged:X1" + fine, rig.Wish{}, "warns plugs-unknown"}, // the sheet counts no 6-pin plugs
	{"plugs-unknown", "!plugged:X1" + fine, rig.Wish{}, ""},                   // one was in use
	{"plugs-unknown", "ssd:P1" + fine, rig.Wish{}, ""},
	{"screw-thread", "ssd:P8" + fine, rig.Wish{}, "warns screw-thread P8 ssd\nnotes bay-loose P8 ssd"},
	{"screw-thread", "thick:P8 m3" + fine, rig.Wish{}, ""},
	{"bay-loose", "ssd:P8 m3" + fine, rig.Wish{}, "notes bay-loose P8 ssd"},
	{"bay-loose", "ssd:P8 m3 spacer" + fine, rig.Wish{}, ""},
	{"memory-clocked", "clocked:A2", rig.Wish{}, "warns memory-clocked A2 clocked\nnotes channels-empty"},
	{"memory-clocked", "clocked:A2 unclocked:B2", rig.Wish{}, "warns memory-clocked A2 clocked\nnotes memory-mixed"},
	{"memory-clocked", "unclocked:A2", rig.Wish{}, "notes channels-empty"},
	{"lead-missing", "+thick:P8 +m3 +sled +ssd:P9 +frame +lead" + fine, rig.Wish{}, "warns lead-missing P9 ssd"}, // its end does not suit
	{"lead-missing", "+ssd:P9 +frame +bent" + fine, rig.Wish{}, ""},
	{"supply-lead", "+gale6" + fine, rig.Wish{}, "stops supply-lead gale6"},
	{"supply-lead", "+gale" + fine, rig.Wish{}, ""},
	{"supply-lead-unknown", "+drawer" + fine, rig.Wish{}, "warns supply-lead-unknown drawer"},
	{"supply-lead-unknown", "+gale" + fine, rig.Wish{}, ""},
	{"power-plugs", "ssd:P1 ssd':P5 ssd'':P6 ssd''':P9 gale" + fine, rig.Wish{}, ""}, // its plugs are there
	{"lead-unknown", "+ssd:P1" + fine, rig.Wish{}, "notes lead-unknown P1 ssd"},
	{"lead-unknown", "+ssd:P1 hdd" + fine, rig.Wish{}, ""}, // the disk that came out left its lead
	{"lead-unknown", "+ssd:P1 +ssd':P5 +lead" + fine, rig.Wish{}, "notes lead-unknown P5 ssd'"},
	{"holder-missing", "+ssd:P9 +bent" + fine, rig.Wish{}, "warns holder-missing P9 ssd"}, // nobody says whether it is there
	{"holder-missing", "+thick:P8 +m3" + fine, rig.Wish{}, "warns holder-missing P8 thick"},
	{"holder-missing", "+thick:P8 +m3 +sled" + fine, rig.Wish{}, ""},
	{"kind-mismatch", "box:U" + fine, rig.Wish{}, "stops kind-mismatch U box"},
	{"kind-mismatch", "riser:X1" + fine, rig.Wish{}, "stops kind-mismatch X1 riser"},
	{"kind-mismatch", "lead:P1" + fine, rig.Wish{}, "stops kind-mismatch P1 lead"},
	{"fit-unknown", "riser:U nic:U/1" + fine, rig.Wish{}, "warns fit-unknown U/1 nic"}, // room for a card there is not described
	{"carrier-rating", "tou2:U u2:U/1" + fine, rig.Wish{}, "warns carrier-rating U/1 u2"},
	{"carrier-rating", "tou2:L u2:L/1" + fine, rig.Wish{}, "warns link-below-drive L/1 u2\nnotes port-lost P5\nnotes port-lost P6"},
	{"link-below-drive", "u2:V" + fine, rig.Wish{}, "warns uplink-below-link V u2"},
	{"bay-form", "ssd:V" + fine, rig.Wish{}, "stops bay-form V ssd"},
	{"position-dead", "ports:X2 ssd:X2/1" + fine, rig.Wish{}, ""},
	{"fit-unknown", "ports:X2 ssd:X2/2" + fine, rig.Wish{}, "warns fit-unknown X2/2 ssd"}, // which bays its second port reaches
	{"power-plugs", "ssd:P1 ssd':P5 ssd'':P6 ssd''':P9 tomolex" + fine, rig.Wish{}, ""},
	{"wish-memory", "m16:A2", rig.Wish{MemoryBytes: 32 * quantity.GiB}, "warns wish-memory\nnotes channels-empty"},
	{"wish-memory", "m16:A2 +m16'", rig.Wish{MemoryBytes: 32 * quantity.GiB}, "warns not-placed m16'\nnotes channels-empty"}, // it follows from that
	{"wish-memory", "m16:A2 m16':B2", rig.Wish{MemoryBytes: 32 * quantity.GiB}, ""},
	{"wish-system", "ssd:P1" + fine, rig.Wish{SystemBytes: 500 * quantity.GB}, "warns wish-system"},
	{"wish-system", "sata2:K" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true}, "warns wish-system"},
	{"wish-system", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true, Keep: []rig.ItemID{"nvme"}}, "warns wish-system"},
	{"wish-system", "nvme:U" + fine, rig.Wish{SystemBytes: 500 * quantity.GB, SystemFast: true}, ""},
	{"wish-keep", "hdd" + fine, rig.Wish{Keep: []rig.ItemID{"hdd"}}, "stops wish-keep hdd"},
	{"wish-keep", "nvme3:L hdd:P6" + fine, rig.Wish{Keep: []rig.ItemID{"hdd"}}, "stops socket-off P6 hdd\nnotes port-lost P5"}, // said once
	{"wish-keep", "hdd:P5" + fine, rig.Wish{Keep: []rig.ItemID{"hdd"}}, ""},
}
