package link

// This file is about USB links: their modes, and what two ends settle on.

import (
	"slices"

	"deepbay/internal/core/quantity"
)

// USBMode names one way a USB link runs, in the standard's own words.
type USBMode string

// The modes of USB 2.0, 3.2 and USB4, from slow to fast. "3.0", "3.1 Gen 1" and
// "3.2 Gen 1" are one mode; "3.2" alone says nothing.
const (
	USB2     USBMode = "2.0"
	USB5     USBMode = "3.2 Gen 1"
	USB5x2   USBMode = "3.2 Gen 1x2"
	USB10    USBMode = "3.2 Gen 2"
	USB20    USBMode = "3.2 Gen 2x2"
	USB4By20 USBMode = "USB4 Gen 2x2"
	USB4By40 USBMode = "USB4 Gen 3x2"
	USB4By80 USBMode = "USB4 Gen 4x2"
)

// usbMode is what a mode comes to.
type usbMode struct {
	name     USBMode
	lineGbps float64 // all lanes together
	coded    float64 // share of bits left after line coding
	low      float64 // MB/s that drives behind a bridge are seen to move: typical, from
	high     float64 // and to
	runs     []USBMode
}

// usbModes is in the order of speed. USB 2.0 has no block code; bit stuffing is
// not counted. USB4 carries tunnel overhead on top of its coding. runs is the
// slower modes an end of this mode must support too; the two-lane modes of 3.2
// are optional, so a USB4 end is not taken to have them.
var usbModes = []usbMode{
	{USB2, 0.48, 1, 30, 42, nil},
	{USB5, 5, 8.0 / 10, 400, 460, []USBMode{USB2}},
	{USB5x2, 10, 8.0 / 10, 800, 900, []USBMode{USB2, USB5}},
	{USB10, 10, 128.0 / 132, 900, 1060, []USBMode{USB2, USB5}},
	{USB20, 20, 128.0 / 132, 1800, 2050, []USBMode{USB2, USB5, USB5x2, USB10}},
	{USB4By20, 20, 64.0 / 66, 1600, 2000, []USBMode{USB2, USB5, USB10}},
	{USB4By40, 40, 128.0 / 132, 2700, 3200, []USBMode{USB2, USB5, USB10, USB4By20}},
	{USB4By80, 80.46, 1, 5500, 7000, []USBMode{USB2, USB5, USB10, USB4By20, USB4By40}},
}

// USBModes lists the modes from slow to fast.
func USBModes() []USBMode {
	out := make([]USBMode, len(usbModes))
	for i := range usbModes {
		out[i] = usbModes[i].name
	}
	return out
}

// Values lists the modes for the formats.
func (USBMode) Values() []string {
	out := make([]string, len(usbModes))
	for i := range usbModes {
		out[i] = string(usbModes[i].name)
	}
	return out
}

// of finds a mode; one that is not stated has no rates.
func (m USBMode) of() usbMode {
	for _, u := range usbModes {
		if u.name == m {
			return u
		}
	}
	return usbMode{}
}

// String prints "USB 3.2 Gen 2".
func (m USBMode) String() string {
	switch {
	case m == "":
		return "USB, mode unknown"
	case m[0] == 'U':
		return string(m)
	}
	return "USB " + string(m)
}

// LineGbps is the signalling rate of all lanes together, one direction.
func (m USBMode) LineGbps() float64 { return m.of().lineGbps }

// LineRate is the payload after line coding, one direction.
func (m USBMode) LineRate() quantity.Rate {
	u := m.of()
	return quantity.MBps(u.lineGbps * 1000 / 8 * u.coded)
}

// Practice is what drives behind a bridge are seen to move in this mode, from and
// to: fairly sure figures of the trade, not of the standard.
func (m USBMode) Practice() (low, high quantity.Rate) {
	u := m.of()
	return quantity.MBps(u.low), quantity.MBps(u.high)
}

// Planning is what to plan with: the lower end of Practice.
func (m USBMode) Planning() quantity.Rate { low, _ := m.Practice(); return low }

// Train is the fastest mode both ends have: a Gen 2x2 box on a port without the
// second lane falls to Gen 2. What either end does not state is unknown.
func (m USBMode) Train(o USBMode) USBMode {
	if m == "" || o == "" {
		return ""
	}
	for _, u := range slices.Backward(usbModes) {
		if m.has(u.name) && o.has(u.name) {
			return u.name
		}
	}
	return ""
}

func (m USBMode) has(n USBMode) bool { return m == n || slices.Contains(m.of().runs, n) }
