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
			out = append(out, Figure{v.text(what), v.text(value)})
		}
	}
	mm := func(what string, of quantity.Millimetres) { say(what, of.Known(), value(of, "")) }
	yesNo := func(what string, a quantity.Answer) { say(what, a != quantity.Unknown, a.String()) }

	say("kind", true, kindWords[k.Kind])
	say("where", k.Where != "", k.Where)
	say("fed by", k.Group != "", string(k.Group))
	say("fed by", k.Group == "" && k.Root != "", v.root(k.Root))
	say("PCIe", k.Gen.Known() || k.Lanes.Known(), k.Gen.String()+" "+k.Lanes.String())
	say("SATA", k.SATAGen.Known(), sataSpeed(k.SATAGen))
	say("USB", k.USB != "", k.USB.String())
	say("speaks", len(k.Protocols) > 0, value(k.Protocols, ""))
	say("can be split", len(k.Splits) > 0, list(k.Splits, parts, ", ", " or "))
	say("as long as", k.Physical.Known(), k.Physical.String())
	yesNo("open at its end", k.OpenEnd)
	say("key", k.Key != "", string(k.Key))
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
	say("channel", k.Channel != "", string(k.Channel))
	return out
}

// parts is a split as firmware names it: "8+4+4".
func parts(of []quantity.Lanes) string {
	return list(of, func(l quantity.Lanes) string { return strconv.Itoa(int(l)) }, "+", "+")
}
