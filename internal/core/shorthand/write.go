package shorthand

// This file writes parts as words that Read reads as the same.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/link"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// Write prints a part as words that Read reads as the same part, "" where words cannot say
// what it is. Facts that no word is for are left out.
func Write(p *part.Part) string {
	w := written(p)
	if p.Drive != nil || p.Module != nil || w == "" {
		return w
	}
	// The positions of a carrier can be such as no words describe.
	got, err := Read(w)
	if err != nil || len(got.Asks) > 0 || written(&got.Part) != w {
		return ""
	}
	return w
}

func written(p *part.Part) string {
	var w words
	switch {
	case p.Drive != nil:
		w.drive(p.Drive)
	case p.Module != nil:
		w.module(p.Module)
	case p.Card != nil:
		w.card(p.Card)
	case p.Enclosure != nil:
		w.box(p.Enclosure)
	case p.Fitting != nil:
		w.fitting(p.Fitting)
	}
	return strings.Join(w, " ")
}

type words []string

func (w *words) add(yes bool, word string) {
	if yes {
		*w = append(*w, word)
	}
}

// answer adds the word for yes or for no.
func (w *words) answer(a quantity.Answer, yes, no string) {
	w.add(a == quantity.Yes, yes)
	w.add(a == quantity.No, no)
}

func (w *words) drive(d *part.Drive) {
	w.add(d.CapacityBytes.Known(), soldAs(d.CapacityBytes))
	w.add(d.Protocol == link.PCIe, "nvme")
	w.add(d.Protocol == link.SATA, "sata")
	w.add(d.Form == part.FormM2, "M.2")
	w.add(d.Form == part.Form2i5, "2.5")
	w.add(d.Form == part.Form3i5, "3.5")
	w.add(d.Form == part.FormU2, "U.2")
	w.add(d.Form == part.FormSlim, "slim")
	w.add(d.Form == part.Form5i25, "5.25")
	if d.M2 != nil {
		w.size(d.M2)
	}
	w.add(d.Gen.Known(), "gen"+strconv.Itoa(int(d.Gen)))
	w.add(d.Lanes.Known(), d.Lanes.String())
	w.add(d.Media == part.Flash, "ssd")
	w.add(d.Media == part.Platter && d.TurnsPerMin == 0, "hdd")
	w.add(d.TurnsPerMin > 0, strconv.Itoa(d.TurnsPerMin)+"rpm")
	w.add(d.Media == part.Optical, "optical")
	if d.M2 != nil {
		w.rest(d.M2)
	}
	w.add(d.HeightMM.Known(), short(d.HeightMM))
	w.add(d.ReadMBps >= 10 && d.ReadMBps < 100_000, strconv.FormatFloat(d.ReadMBps, 'f', 0, 64)+"MB/s")
	w.add(d.Watts > 0, strconv.FormatFloat(d.Watts, 'f', 1, 64)+"W")
	w.answer(d.PowerDisable, "power-disable", "no-power-disable")
}

func short(m quantity.Millimetres) string { return strings.ReplaceAll(m.String(), " ", "") }

// heightCode is the code of a card's heights, "" where none says them exactly.
func heightCode(m *part.M2) string {
	for _, c := range []string{"S1", "S2", "S3", "D1", "D2", "D3", "D4", "D5"} {
		if h := heights[c]; m.LengthMM.Known() && h.top == m.TopMM && h.bottom == m.BottomMM && (m.TwoSided == quantity.Yes) == h.bottom.Known() && m.TwoSided != quantity.Unknown {
			return c
		}
	}
	return ""
}

// size prints "2280" or, where a height code says it, "2280-D2-M".
func (w *words) size(m *part.M2) {
	if !m.LengthMM.Known() {
		return
	}
	s := m.Size()
	if !m.WidthMM.Known() { // "80mm" says no width
		s = short(m.LengthMM)
	}
	if c := heightCode(m); c != "" && m.WidthMM.Known() {
		s = strings.Join(append([]string{s, c}, keyNames(m.Keys)...), "-")
	}
	*w = append(*w, s)
}

// rest prints what the size did not say.
func (w *words) rest(m *part.M2) {
	if heightCode(m) == "" || !m.WidthMM.Known() {
		w.add(len(m.Keys) == 1, strings.Join(keyNames(m.Keys), "+")+"-key")
		w.add(len(m.Keys) == 2, strings.Join(keyNames(m.Keys), "+"))
		w.answer(m.TwoSided, "2s", "1s")
		w.add(m.TopMM.Known(), "top-"+short(m.TopMM))
		w.add(m.BottomMM.Known(), "under-"+short(m.BottomMM))
	}
	w.answer(m.Heatsink, "heatsink", "bare")
}

func keyNames(k []part.Key) []string {
	out := make([]string, len(k))
	for i := range k {
		out[i] = string(k[i])
	}
	return out
}

func (w *words) module(m *part.Module) {
	switch {
	case !m.SizeBytes.Known():
	case m.SizeBytes%quantity.GiB == 0:
		w.add(true, strconv.FormatInt(int64(m.SizeBytes/quantity.GiB), 10)+"GB")
	case m.SizeBytes%quantity.MiB == 0:
		w.add(true, strconv.FormatInt(int64(m.SizeBytes/quantity.MiB), 10)+"MB")
	default:
		w.add(true, strconv.FormatInt(int64(m.SizeBytes), 10)+"B")
	}
	switch {
	case m.RateMTps.Known() && m.Generation != "":
		w.add(true, memory.Rated{Generation: m.Generation, Label: m.RateMTps}.Name())
		w.add(mostBase[m.Generation] > 0 && m.RateMTps > mostBase[m.Generation], base)
	default:
		w.add(m.Generation != "", m.Generation.String())
	}
	w.add(m.ProfileMTps.Known(), "profile-"+strconv.Itoa(int(m.ProfileMTps)))
	w.add(m.Form == memory.DIMM, "DIMM")
	w.add(m.Form == memory.SODIMM, "SODIMM")
	w.add(m.CL > 0, "CL"+strconv.Itoa(m.CL))
	w.add(m.Ranks > 0, strconv.Itoa(m.Ranks)+"R")
	w.answer(m.ECC, "ECC", "non-ECC")
	w.answer(m.Registered, "reg", "unbuffered")
	w.answer(m.ClockDriver, "clock-driver", "no-clock-driver")
	for _, v := range m.Millivolts {
		w.add(true, strings.ReplaceAll(v.String(), " ", ""))
	}
	w.add(m.HeightMM.Known(), short(m.HeightMM))
}

func (w *words) card(c *part.Card) {
	w.add(c.M2 != nil, "M.2")
	w.add(c.Connector.Known(), c.Connector.String())
	switch {
	case c.Carrier == nil || c.Carrier.Positions[0].Kind() == part.TakesSATA && c.M2 == nil:
		w.add(true, "card")
	case len(c.Carrier.Positions) == 1 || c.M2 != nil:
		w.add(true, "adapter")
	default:
		w.add(true, "carrier")
	}
	w.add(c.Graphics, string(graphics))
	w.add(c.Use != "", string(c.Use))
	if k := c.Carrier; k != nil {
		w.positions(k)
	}
	if c.M2 != nil {
		w.size(c.M2)
		w.rest(c.M2)
	}
	w.add(c.Gen.Known(), "gen"+strconv.Itoa(int(c.Gen)))
	w.add(c.Lanes.Known(), "wired-"+c.Lanes.String())
	w.add(c.Openings > 0, strconv.Itoa(c.Openings)+"-slot")
	w.add(c.LengthMM.Known(), short(c.LengthMM))
	w.answer(c.LowBracket, "low-profile", "full-height")
	for _, p := range c.Plugs {
		word := string(p)
		if p == part.PlugSATA {
			word = "sata power"
		}
		w.add(true, word)
	}
	w.add(c.Watts > 0, strconv.FormatFloat(c.Watts, 'f', 1, 64)+"W")
}

func (w *words) positions(k *part.Carrier) {
	first, n := &k.Positions[0], strconv.Itoa(len(k.Positions))
	switch first.Kind() {
	case part.TakesSATA:
		w.add(true, n+"-port sata"+map[bool]string{true: strconv.Itoa(int(first.SATAGen))}[first.SATAGen.Known()])
		return
	case part.TakesU2:
		w.add(true, n+"x u.2")
	case part.TakesSlot:
		w.add(true, n+"x slot")
	default:
		w.add(true, n+"x m.2")
	}
	sizes := make([]string, len(first.LengthsMM))
	for i, l := range first.LengthsMM {
		sizes[i] = "22" + strconv.Itoa(int(l))
	}
	w.add(len(sizes) > 0, strings.Join(sizes, "/"))
	w.add(k.Switch, "switch")
	w.add(!k.Switch, "no-switch")
	w.add(true, "each-"+first.Lanes.String())
	if !k.Switch && len(k.Positions) > 1 {
		at := make([]string, len(k.Positions))
		for i := range k.Positions {
			at[i] = strconv.Itoa(k.Positions[i].FirstLane)
		}
		w.add(true, "lanes-"+strings.Join(at, "-"))
	}
}

func (w *words) box(e *part.Enclosure) {
	w.add(true, "box")
	w.add(e.USB != "", e.USB.String())
	w.add(len(e.Positions) > 1, strconv.Itoa(len(e.Positions))+"-bay")
	if p := &e.Positions[0]; len(e.Positions) > 0 {
		w.add(p.Kind() == part.TakesM2, "M.2")
		w.add(slices.Contains(p.Drives, part.Form2i5), "2.5")
		w.add(slices.Contains(p.Drives, part.Form3i5), "3.5")
		w.add(slices.Contains(p.Protocols, link.PCIe), "nvme")
		sata := p.Kind() == part.TakesSATA && p.SATAGen.Known() || slices.Contains(p.Protocols, link.SATA)
		w.add(sata, "sata"+map[bool]string{true: strconv.Itoa(int(p.SATAGen))}[p.SATAGen.Known()])
		sizes := make([]string, len(p.LengthsMM))
		for i, l := range p.LengthsMM {
			sizes[i] = "22" + strconv.Itoa(int(l))
		}
		w.add(len(sizes) > 0, strings.Join(sizes, "/"))
		w.add(p.Gen.Known(), "gen"+strconv.Itoa(int(p.Gen)))
		w.add(p.Lanes.Known(), p.Lanes.String())
		w.add(p.HeightMM.Known(), short(p.HeightMM))
	}
	w.answer(e.Queues, "uas", "no-uas")
	w.answer(e.Trims, "trim", "no-trim")
	w.answer(e.OwnSupply, "own-supply", "bus-powered")
	w.answer(e.Translates, "translates", "no-translation")
}

func (w *words) fitting(f *part.Fitting) {
	switch f.Kind {
	case part.DataLead:
		w.add(true, "data lead")
		w.add(f.PortEnd != "" && f.End != "", string(f.PortEnd)+" to "+string(f.End))
		w.add(f.PortEnd == "" && f.End != "", string(f.End))
		w.add(f.Length.Known(), short(f.Length))
	case part.PowerAdapter:
		n := ""
		if f.Plugs > 0 {
			n = strconv.Itoa(f.Plugs) + "x "
		}
		w.add(f.From != "" && f.To != "", plugWord(f.From)+" to "+n+plugWord(f.To))
		w.add(f.From != "" && f.To == "", plugWord(f.From))
		w.add(true, "power adapter")
		w.answer(f.Crimped, "crimped", "moulded")
		w.add(f.Length.Known(), short(f.Length))
	default:
		w.add(f.Holds != "" && f.Fits != "", formName(f.Holds)+" in "+formName(f.Fits))
		w.add(f.Holds != "" && f.Fits == "", formName(f.Holds))
		w.add(f.Holds == "" && f.Fits == part.FormSlim, "slim bay")
		w.add(f.Kind == part.Screws && f.Thread != "", string(f.Thread))
		w.add(true, string(f.Kind))
		w.add(f.Kind != part.Screws && f.Thread != "", string(f.Thread))
	}
}

func plugWord(p part.Plug) string {
	if p == part.PlugMolex {
		return "molex"
	}
	return string(p)
}

func formName(f part.Form) string {
	switch f {
	case part.Form2i5:
		return "2.5"
	case part.Form3i5:
		return "3.5"
	case part.Form5i25:
		return "5.25"
	}
	return "slim"
}

// soldAs is a capacity as it is sold, or in bytes where it is no sold size.
func soldAs(b quantity.Bytes) string {
	for _, step := range []struct {
		gb   quantity.Bytes
		name string
	}{{1000, "TB"}, {1, "GB"}} {
		for n := b / (step.gb * quantity.GB); n > 0 && n*step.gb*quantity.GB > b-step.gb*quantity.GB; n-- { // a drive has a little more than it is sold as
			if quantity.DriveBytes(int64(n*step.gb)) == b || n*step.gb*quantity.GB == b && n*step.gb < 50 {
				return strconv.FormatInt(int64(n), 10) + step.name
			}
		}
	}
	return strconv.FormatInt(int64(b), 10) + "B"
}
