package say

// This file words facts that are not known, and answers to them.

import (
	"strconv"
	"strings"

	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Missing asks for a fact.
func (v *Voice) Missing(f rig.Fact) Missing {
	out := Missing{Fact: f, Says: v.text(v.missing(f))}
	if ask, ok := v.rig.HowToAsk(f); ok {
		a := v.question(ask)
		out.Ask = &a
	}
	return out
}

// missed asks for several.
func (v *Voice) missed(facts []rig.Fact) []Missing {
	out := make([]Missing, len(facts))
	for i, f := range facts {
		out[i] = v.Missing(f)
	}
	return out
}

// provided asks for what a plan hangs on, and says how it must turn out; of a number
// only that it is asked for.
func (v *Voice) provided(list []rig.Learned) []Missing {
	out := make([]Missing, len(list))
	for i, a := range list {
		out[i] = v.Missing(a.Fact)
		if ask := out[i].Ask; ask != nil && a.Is != "" && len(ask.Options) > 0 {
			out[i].If = v.text(v.learned(a))
		}
	}
	return out
}

// question words the answers that there are.
func (v *Voice) question(a rig.Ask) Question {
	out := Question{Kind: a.Kind, Unit: a.Unit}
	for _, o := range a.Options {
		out.Options = append(out.Options, Possible{o.Value, v.text(v.option(o.Of))})
	}
	return out
}

// option is one answer in the trade's words.
func (v *Voice) option(x any) string {
	switch x := x.(type) {
	case quantity.Answer:
		return x.String()
	case rig.Lies:
		return "nothing lies there"
	}
	return v.arg(x, "")
}

// source is who is silent about a fact.
func (v *Voice) source(f rig.Fact) fit.Source {
	switch {
	case f.Attr == rig.Fitted || f.Attr == rig.HoldsNow || f.Attr == rig.RoomForCard || f.Setting != "":
		return fit.FromPlan
	case f.Item != "":
		return fit.FromPart
	}
	return fit.FromSheet
}

// silent says who does not say it.
func (v *Voice) silent(f rig.Fact) string {
	switch {
	case f.Attr == rig.HoldsNow || f.Attr == rig.RoomForCard:
		return "nobody has looked"
	case f.Attr == rig.Fitted:
		return "the job does not say"
	case f.Pos > 0:
		return "the description of " + v.name(f.Item) + " does not say"
	case f.Item != "":
		return "its label does not say"
	}
	return "the sheet does not say"
}

// about is the thing that a fact is about.
func (v *Voice) about(f rig.Fact) string {
	thing := f.Socket.String()
	switch {
	case f.Setting != "":
		thing, _ = settingName(v.rig.Sheet, f.Setting, "")
	case f.Pos > 0:
		thing = "position " + strconv.Itoa(f.Pos) + " of " + v.name(f.Item)
		if at := v.rig.Where(f.Item); !at.IsZero() {
			thing = at.Position(f.Pos).String()
		}
	case f.Item != "":
		thing = v.name(f.Item)
	}
	if f.Attr.OfBay() {
		return v.bay(machine.BayID(thing))
	}
	return thing
}

// missing says what is not known of a thing.
func (v *Voice) missing(f rig.Fact) string {
	if p := f.Attr.Plug(); p != "" {
		return "how many " + string(p) + " power plugs are free"
	}
	a, ok := attributes[f.Attr]
	if !ok {
		return string(f.Attr)
	}
	if f.Attr == rig.BoardSpeeds && f.N > 0 {
		return "how fast the board runs " + plural(f.N, "module") + " a channel"
	}
	return fill(a.asks, v.about(f))
}

// learned says what somebody saw.
func (v *Voice) learned(a rig.Learned) string {
	if p := a.Attr.Plug(); p != "" {
		if n, err := strconv.Atoi(a.Is); err == nil {
			return "there " + map[bool]string{true: "is ", false: "are "}[n == 1] + plural(n, "free "+string(p)+" power plug")
		}
		return "free " + string(p) + " power plugs: " + a.Is
	}
	s, ok := attributes[a.Attr]
	if !ok {
		return string(a.Attr) + " " + a.Is
	}
	about, is := v.about(a.Fact), v.answer(a)
	if a.Attr == rig.BoardSpeeds {
		return "the board runs " + plural(a.N, "module") + " a channel at " + is
	}
	if a.Is == "no" {
		return fill(s.isNot, about)
	}
	return strings.ReplaceAll(fill(s.is, about), "$", is)
}

// answer is an answer in words.
func (v *Voice) answer(a rig.Learned) string {
	ask, ok := v.rig.HowToAsk(a.Fact)
	if !ok {
		return a.Is
	}
	switch ask.Kind {
	case rig.AskSize:
		return a.Is
	case rig.AskNumber:
		if ask.Unit == rig.InOpenings {
			return a.Is
		}
		return a.Is + " " + string(ask.Unit)
	}
	var out []string
	for _, word := range words(ask.Kind, a.Is) {
		for _, o := range ask.Options {
			if o.Value == word {
				out = append(out, v.option(o.Of))
			}
		}
	}
	return list(out, func(s string) string { return s }, ", ", " and ")
}

func words(kind rig.AskKind, is string) []string {
	if kind == rig.AskSeveral {
		return strings.Fields(is)
	}
	return []string{is}
}

// asked says which answers there are.
func (v *Voice) asked(a rig.Ask) string {
	switch a.Kind {
	case rig.AskNumber:
		if a.Unit == rig.InOpenings || a.Unit == rig.InRanks {
			return "write a whole number, such as 2"
		}
		return "write a number of " + string(a.Unit)
	case rig.AskSize:
		return "write a capacity with its unit, such as 16 GB"
	}
	values := list(a.Options, func(o rig.Option) string { return o.Value }, ", ", " or ")
	if a.Kind == rig.AskSeveral {
		return "write one or several of " + values + ", blanks between them"
	}
	return "write " + values
}

// LookedUp is what somebody looked up, worded.
type LookedUp struct {
	Fact  rig.Fact `json:"fact"`
	Says  Text     `json:"says"`
	By    Name     `json:"by"`
	Keeps LookedIn `json:"keeps,omitempty"` // what the shop keeps that it can be written into
	ID    string   `json:"id,omitempty"`    // of that sheet or part
}

// LookedIn is where the shop can keep what was looked up.
type LookedIn string

// The shop's own copies: of the sheet, of a part.
const (
	InSheet LookedIn = "sheet"
	InPart  LookedIn = "part"
)

// Values lists them for the formats.
func (LookedIn) Values() []string { return []string{string(InSheet), string(InPart)} }

// Answers says which answers there are to a fact.
func (v *Voice) Answers(f rig.Fact) Text {
	ask, ok := v.rig.HowToAsk(f)
	if !ok {
		return Text{}
	}
	return v.text(v.asked(ask))
}

// Looked words what was looked up in a job.
func (v *Voice) Looked(j *job.Job) []LookedUp {
	out := make([]LookedUp, len(j.Looked))
	for i := range j.Looked {
		l := &j.Looked[i]
		out[i] = LookedUp{Fact: l.Fact, Says: v.text(v.learned(l.Learned)), By: Name(l.By)}
		switch it := j.Item(l.Item); {
		case it != nil && l.OfPart():
			out[i].Keeps, out[i].ID = InPart, string(it.Part)
		case l.OfSheet():
			out[i].Keeps, out[i].ID = InSheet, string(j.Sheet.ID)
		}
	}
	return out
}
