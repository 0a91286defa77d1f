package say

import (
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// Sayable is all that a rule of a sheet can say, in the words of its sentences.
type Sayable struct {
	When []Asks `json:"when"`
	Then []Does `json:"then"`
}

// Asks is what a condition can ask of one thing.
type Asks struct {
	About Text     `json:"about"` // "M2_2"
	Can   []CanAsk `json:"can"`
}

// CanAsk is one of them.
type CanAsk struct {
	When machine.Condition `json:"when"`
	Says Text              `json:"says"` // "holds anything"
}

// Does is what an effect can do to one thing.
type Does struct {
	On  Text    `json:"on"` // "SATA5"
	Can []CanDo `json:"can"`
}

// CanDo is one of them.
type CanDo struct {
	Then machine.Effect `json:"then"`
	Says Text           `json:"says"` // "is off"
}

// SayableOf words what the rules of a sheet can say.
func SayableOf(l Language, s *machine.Sheet) Sayable {
	v := In(l, &rig.Rig{Sheet: s})
	out := Sayable{When: []Asks{}, Then: []Does{}}
	for _, can := range s.Asks() {
		about, _ := v.condition(&can[0])
		a := Asks{About: v.text(about)}
		for _, c := range can {
			_, asks := v.condition(&c)
			a.Can = append(a.Can, CanAsk{c, v.text(asks)})
		}
		out.When = append(out.When, a)
	}
	for _, can := range s.Does() {
		on, _ := effect(&can[0])
		d := Does{On: v.text(on)}
		for _, e := range can {
			_, does := effect(&e)
			d.Can = append(d.Can, CanDo{e, v.text(does)})
		}
		out.Then = append(out.Then, d)
	}
	return out
}
