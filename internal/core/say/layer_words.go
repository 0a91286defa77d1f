package say

// This file is how layers, fasteners and leads are said.

import (
	"strconv"
	"strings"

	"deepbay/internal/core/access"
	"deepbay/internal/core/layer"
)

// layer is what a layer is called: as the sheet names it, a part by its own name.
func (v *Voice) layer(id layer.ID) string {
	if item := access.Item(id); item != "" {
		return v.name(item)
	}
	if l := v.rig.Sheet.Layer(id); l != nil {
		return l.Name
	}
	return string(id)
}

// driverWords is the tool for each bit.
var driverWords = map[layer.Bit]string{
	layer.ByHand: "by hand", layer.PH00: "cross-head 00", layer.PH0: "cross-head 0", layer.PH1: "cross-head 1", layer.PH2: "cross-head 2",
	layer.T5: "T5", layer.T6: "T6", layer.T8: "T8", layer.T10: "T10", layer.T15: "T15", layer.T20: "T20",
	layer.Flat3: "flat blade 3 mm", layer.Flat5: "flat blade 5.5 mm", layer.Hex2: "hex key 2 mm", layer.Hex5: "nut driver 5 mm",
}

// screw is a fastener by thread and length: "M3 x 6 mm".
func screw(f *layer.Fastener) string {
	s := string(f.Thread)
	switch f.Thread {
	case layer.Self, layer.Rivet, "":
		if f.Length.Known() {
			s = strings.TrimSpace(s + " " + f.Length.String())
		}
		return s
	}
	if f.Length.Known() {
		return s + " x " + f.Length.String()
	}
	return s
}

// fasteners is how many of what: "3 screws M3 x 6 mm, cross-head 1".
func fasteners(f *layer.Fastener) string {
	thing := "screw"
	switch {
	case f.Thread == layer.Rivet:
		thing = "push rivet"
	case f.Bit == layer.ByHand:
		thing = "thumbscrew"
	}
	s := plural(f.Count, thing)
	if what := screw(f); what != "" && f.Thread != layer.Rivet {
		s += " " + what
	}
	if f.Bit != "" && f.Bit != layer.ByHand {
		s += ", " + driverWords[f.Bit]
	}
	if f.Where != "" {
		s += ", " + f.Where
	}
	return s
}

func fastenerWords(f *layer.Fastener, verb string) string {
	switch {
	case verb == "screws":
		return fasteners(f)
	case verb == "undo" && !f.Loose():
		return "Back off " + fasteners(f) + map[bool]string{true: ": captive, it stays", false: ": captive, they stay"}[f.Count == 1]
	case verb == "undo":
		return fasteners(f) + ": out"
	}
	hard := "snug, no more"
	if f.Torque != "" {
		hard = f.Torque
	}
	if f.Count > 1 {
		hard = "start all before you tighten any; " + hard
	}
	return fasteners(f) + ": " + hard
}

// cellWords is the cell of the tray that fasteners go into, or come from; 0 is none.
func cellWords(n int, verb string) string {
	switch {
	case n == 0:
		return ""
	case verb == "cell":
		return "Into cell " + strconv.Itoa(n) + ": "
	}
	return "From cell " + strconv.Itoa(n) + ": "
}

var sideWords = map[layer.Side]string{layer.Top: "up", layer.Bottom: "down", layer.Front: "to the front", layer.Rear: "to the rear", layer.Left: "to the left", layer.Right: "to the right"}

var against = map[layer.Side]layer.Side{layer.Top: layer.Bottom, layer.Bottom: layer.Top, layer.Front: layer.Rear, layer.Rear: layer.Front, layer.Left: layer.Right, layer.Right: layer.Left}

// catches is catches of one kind, by number.
func catches(c *layer.Catch) string {
	switch {
	case c.Kind == layer.Glue:
		return "the adhesive"
	case c.Count <= 1:
		return "the " + string(c.Kind)
	case c.Kind == layer.Latch:
		return strconv.Itoa(c.Count) + " latches"
	}
	return plural(c.Count, string(c.Kind))
}

func catchWords(c *layer.Catch, verb string) string {
	what, where := catches(c), ""
	if c.Where != "" {
		where = ", " + c.Where
	}
	if verb == "holds" {
		return map[layer.CatchKind]string{layer.Tab: "Home behind ", layer.Clip: "Press until it snaps: ", layer.Latch: "Press until it clicks: ", layer.Lock: "Close ", layer.Glue: "Press firmly on "}[c.Kind] + what + where
	}
	do := map[layer.CatchKind]string{layer.Tab: "Free ", layer.Clip: "Prise off ", layer.Latch: "Press ", layer.Lock: "Open ", layer.Glue: "Ease off "}[c.Kind] + what
	if c.Toward != "" {
		do += " " + sideWords[c.Toward]
	}
	return do + where
}

// motionNames is how each way of moving is said, on the way out and on the way back.
var motionNames = map[layer.How][2]string{
	layer.Lift: {"Lift it off", "Set it down"}, layer.Slide: {"Slide it", "Slide it"}, layer.Swing: {"Swing it", "Swing it"}, layer.Tilt: {"Tilt it", "Tilt it"}, layer.Pull: {"Pull it straight", "Push it straight"},
}

func motionWords(m *layer.Motion, verb string) string {
	toward, do := m.Toward, motionNames[m.How][0]
	if verb == "back" {
		toward, do = against[toward], motionNames[m.How][1]
	}
	if toward != "" && (m.How != layer.Lift || m.Toward != layer.Top) {
		do += " " + sideWords[toward]
	}
	if m.By.Known() {
		do += " by " + m.By.String()
	}
	return do
}

// minutes prints how long something takes: "30 s", "1.5 min", "2 h 10 min".
func minutes(m layer.Minutes) string {
	switch n := int(float64(m) + 0.5); {
	case m < 1:
		return strconv.Itoa(int(float64(m)*60+0.5)) + " s"
	case n >= 60:
		return strconv.Itoa(n/60) + " h " + strconv.Itoa(n%60) + " min"
	case m < 10:
		return strconv.FormatFloat(float64(int(float64(m)*10+0.5))/10, 'f', -1, 64) + " min"
	default:
		return strconv.Itoa(n) + " min"
	}
}
