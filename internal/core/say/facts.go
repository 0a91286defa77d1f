package say

import (
	"strconv"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// SocketFacts is what a sheet says of one socket, in lines to read; what it does not say
// has no line.
type SocketFacts struct {
	Socket machine.SocketID `json:"socket"`
	Facts  []Figure         `json:"facts"`
}

// FactsOf words what a sheet says of each of its sockets, in the sheet's order.
func FactsOf(l Language, s *machine.Sheet) []SocketFacts {
	v := In(l, &rig.Rig{Sheet: s})
	out := make([]SocketFacts, len(s.Sockets))
	for i := range s.Sockets {
		out[i] = SocketFacts{Socket: s.Sockets[i].ID, Facts: v.stated(&s.Sockets[i])}
	}
	return out
}

func (v *Voice) stated(k *machine.Socket) []Figure {
	out := []Figure{}
	say := func(what string, stated bool, value string) {
		if stated {
			out = append(out, Figure{What: v.text(what), Value: v.text(value)})
		}
	}
	mm := func(what string, of quantity.Millimetres) { say(what, of.Known(), value(of, "")) }
	// told is a fact of which the machine may have told as well.
	told := func(what string, stated bool, value string, heard bool, was string) {
		if !stated && heard {
			value = "not stated"
		}
		say(what, stated || heard, value)
		switch {
		case heard && value == was:
			out[len(out)-1].Note = v.text("seen")
		case heard:
			out[len(out)-1].Note = v.text("the machine told " + was)
		}
	}
	heard := k.Told
	if heard == nil {
		heard = &machine.Told{}
	}
	yesNo := func(what string, a quantity.Answer) { say(what, a != quantity.Unknown, a.String()) }

	told("kind", true, kindWords[k.Kind], k.Told != nil, kindWords[k.Kind])
	say("where", k.Where != "", k.Where)
	say("fed by", k.Group != "", string(k.Group))
	say("fed by", k.Group == "" && k.Root != "", v.root(k.Root))
	told("PCIe", k.Gen.Known() || k.Lanes.Known(), k.Gen.String()+" "+k.Lanes.String(), heard.Gen.Known() || heard.Lanes.Known(), heard.Gen.String()+" "+heard.Lanes.String())
	say("SATA", k.SATAGen.Known(), sataSpeed(k.SATAGen))
	say("USB", k.USB != "", k.USB.String())
	say("speaks", len(k.Protocols) > 0, value(k.Protocols, ""))
	say("can be split", len(k.Splits) > 0, list(k.Splits, parts, ", ", " or "))
	told("as long as", k.Physical.Known(), k.Physical.String(), heard.Physical.Known(), heard.Physical.String())
	yesNo("open at its end", k.OpenEnd)
	told("key", k.Key != "", string(k.Key), heard.Key != "", string(heard.Key))
	say("contacts at the end towards", k.Contacts != "", string(k.Contacts)+" of the board")
	say("posts at", len(k.LengthsMM) > 0, value(k.LengthsMM, ""))
	mm("room for cards as wide as", k.WidthMM)
	mm("free above", k.TopMM)
	mm("free below", k.BottomMM)
	say("under the card at", k.Under > 0, "rear opening "+strconv.Itoa(k.Under))
	mm("free under that card", k.UnderMM)
	yesNo("heatsink of the board", k.Heatsink)
	say("takes", len(k.Drives) > 0, value(k.Drives, ""))
	mm("bay height", k.BayMM)
	yesNo("data lead", k.Lead)
	say("fed from", k.Power != "", string(k.Power))
	say("held by", k.Holder != "", string(k.Holder))
	yesNo("that holder is there", k.HasHolder)
	say("screws", k.Thread != "", string(k.Thread))
	told("channel", k.Channel != "" && k.Channel != machine.UntoldChannel, string(k.Channel), heard.Channel != "", string(heard.Channel))
	return out
}

// parts is a split as firmware names it: "8+4+4".
func parts(of []quantity.Lanes) string {
	return list(of, func(l quantity.Lanes) string { return strconv.Itoa(int(l)) }, "+", "+")
}
