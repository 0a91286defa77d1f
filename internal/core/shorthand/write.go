package shorthand

// This file writes parts as words that Read reads as the same.

import (
	"strconv"
	"strings"

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

// written is the noun of a part and the words of all its fields, some in one.
func written(p *part.Part) string {
	k := KindOf(p)
	var words []string
	add := func(word string) {
		if word != "" {
			words = append(words, word)
		}
	}
	if k != Card && k != Carrier { // their edge stands before their noun
		add(forms[k].noun)
	}
	code := ""
	if p.Drive != nil && p.Drive.M2 != nil {
		code = coded(p.Drive.M2)
	}
	for i := range forms[k].fields {
		f := &forms[k].fields[i]
		word := f.of(p)
		switch {
		case code != "" && f.Name == "size":
			word = code
		case code != "" && (f.Name == "keys" || f.Name == "sides" || f.Name == "top" || f.Name == "under"):
			word = "" // the code says it
		case f.Name == "media" && p.Drive != nil && p.Drive.TurnsPerMin > 0:
			word = "" // what turns has platters
		}
		add(word)
		if f.Name == "edge" {
			add(cardNoun(p.Card))
		}
	}
	return strings.Join(words, " ")
}

// cardNoun is what a card is called.
func cardNoun(c *part.Card) string {
	switch {
	case c.Carrier == nil || c.Carrier.Positions[0].Kind() == part.TakesSATA && c.M2 == nil:
		return "card"
	case len(c.Carrier.Positions) == 1 || c.M2 != nil:
		return "adapter"
	}
	return "carrier"
}

// coded is the designation of an M.2 card whose heights have a code, "2280-D2-M", "" where
// they have none.
func coded(m *part.M2) string {
	if !m.LengthMM.Known() || !m.WidthMM.Known() || m.TwoSided == quantity.Unknown {
		return ""
	}
	for _, c := range []string{"S1", "S2", "S3", "D1", "D2", "D3", "D4", "D5"} {
		h := heights[c]
		if h.top != m.TopMM || h.bottom != m.BottomMM || (m.TwoSided == quantity.Yes) != h.bottom.Known() {
			continue
		}
		s := m.Size() + "-" + c
		for _, k := range m.Keys {
			s += "-" + string(k)
		}
		return s
	}
	return ""
}

func plugWord(p part.Plug) string {
	if p == part.PlugMolex {
		return "molex"
	}
	return string(p)
}

// FormWord is the word for a form of drives, "" for one that is not known.
func FormWord(f part.Form) string {
	return map[part.Form]string{part.FormM2: "M.2", part.Form2i5: "2.5", part.Form3i5: "3.5", part.FormU2: "U.2", part.FormSlim: "slim", part.Form5i25: "5.25"}[f]
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
