package say

// This file words the short forms of parts.

import (
	"cmp"

	"deepbay/internal/core/ask"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/part"
	"deepbay/internal/core/shorthand"
)

// ShortForm is the short form of a part, as it is filled in.
type ShortForm struct {
	Kind   shorthand.Kind `json:"kind"`
	Fields []FormField    `json:"fields"` // those that decide whether it fits first
	Part   part.Part      `json:"part"`   // as far as it is known
	Says   Text           `json:"says"`
	Lacks  Text           `json:"lacks,omitzero"` // what no field says
	Asks   []Ask          `json:"asks"`
	Fault  Text           `json:"fault,omitzero"` // what is wrong with all of it together
	Whole  bool           `json:"whole"`          // it can be kept
}

// FormField is one fact of a form.
type FormField struct {
	Name    string       `json:"name"`
	Label   Text         `json:"label"`
	Value   string       `json:"value"` // the words that a line has for it
	Choices []FormChoice `json:"choices"`
	Blank   Text         `json:"blank"` // what an empty field means
	Example string       `json:"example,omitempty"`
	Fold    bool         `json:"fold,omitempty"` // it seldom decides whether the part fits
	Fault   Text         `json:"fault,omitzero"`
}

// FormChoice is a word that a field can hold.
type FormChoice struct {
	Word string `json:"word"`
	Says Text   `json:"says"`
}

// Form words a form that was filled in.
func (l Language) Form(k shorthand.Kind, values map[string]string, f *shorthand.Filled) ShortForm {
	v := In(l, &nobody)
	out := ShortForm{Kind: k, Part: f.Part, Asks: v.asks(f.Asks), Whole: !f.Fault.Is() && len(f.Wrong) == 0 && len(f.Asks) == 0}
	if words := ask.Words(&f.Reading); !f.Fault.Is() {
		out.Says = v.Fact(words.Says)
		if len(f.Unknown) > 0 {
			out.Lacks = v.Fact(fact.Of(shorthand.AllOf, f.Unknown))
		}
	} else if f.Fault.Code != shorthand.NothingTyped { // an empty form is no fault
		out.Fault = v.Fact(f.Fault)
	}
	for _, field := range shorthand.Fields(k) {
		if !field.On(&f.Part) && values[field.Name] == "" {
			continue
		}
		ff := FormField{Name: field.Name, Label: v.Fact(fact.Of(field.Label)), Value: values[field.Name], Choices: make([]FormChoice, len(field.Choices)), Example: field.Example, Fold: field.Fold,
			Blank: v.Fact(fact.Of(cmp.Or(field.Blank, shorthand.NotKnown)))}
		for i, c := range field.Choices {
			ff.Choices[i] = FormChoice{c.Word, v.Fact(c.Says)}
		}
		switch wrong, ok := f.Wrong[field.Name]; {
		case ok:
			ff.Fault = v.Fact(wrong)
		case !f.Fault.Is() && len(f.Asks) == 0:
			ff.Value = field.Of(&f.Part) // as it was understood
		}
		out.Fields = append(out.Fields, ff)
	}
	return out
}
