package say

// This file words the answers of the slide rule.

import (
	"errors"
	"slices"

	"deepbay/internal/core/ask"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/shorthand"
)

// Figure is one number or name of an answer with what it is.
type Figure struct {
	What  Text `json:"what"`
	Value Text `json:"value"`
	Note  Text `json:"note,omitzero"` // of a sheet's fact: how it is known, where the running machine told of it
}

// Reply is what is said to a question.
type Reply struct {
	Says    Text     `json:"says"` // the answer in one line
	Lines   []Figure `json:"lines"`
	Because []Reason `json:"because"`
	Asks    []Ask    `json:"asks"`           // what the question leaves open
	Fault   Text     `json:"fault,omitzero"` // why it cannot be answered as it is written
}

// Ask is what must be settled: a text could mean several things.
type Ask struct {
	About   Text     `json:"about"`
	Choices []string `json:"choices"` // words that settle it when added to the text
}

// Fit is whether one kind of M.2 card goes into a socket, and works there.
type Fit struct {
	Card     Text       `json:"card"`
	Keys     []part.Key `json:"keys"`
	State    fit.State  `json:"state"`
	Says     Text       `json:"says"`
	Findings []fit.Code `json:"findings"`
}

// nobody is a rig of nothing, for answers about no machine.
var nobody = rig.Rig{Sheet: &machine.Sheet{}}

// Reply words an answer of the slide rule.
func (l Language) Reply(a *ask.Reply) Reply {
	v := In(l, &nobody)
	out := Reply{Says: v.Fact(a.Says), Lines: make([]Figure, len(a.Lines)), Because: v.reasons(a.Because), Asks: v.asks(a.Asks)}
	for i, f := range a.Lines {
		out.Lines[i] = Figure{What: v.Fact(f.What), Value: v.Fact(f.Value)}
	}
	return out
}

// Written is what a line means that somebody wrote down at the open machine.
type Written struct {
	Line  Name       `json:"line"` // as written
	Where []rig.Path `json:"where"`
	Says  Text       `json:"says"`          // what lies there, or why the line cannot be taken
	Lines []Figure   `json:"lines"`         // what each word was taken for
	Asks  []Ask      `json:"asks"`          // what it leaves open
	Fault bool       `json:"fault"`         // it cannot be taken as it is
	New   bool       `json:"new,omitempty"` // it came to be fitted
}

// Writing words what was written down.
func (l Language) Writing(w job.Writing) []Written {
	v := In(l, &nobody)
	out := make([]Written, len(w))
	for i := range w {
		got := l.Reply(&ask.Reply{})
		if w[i].Read.Count > 0 {
			words := ask.Words(&w[i].Read)
			got = l.Reply(&words)
		}
		out[i] = Written{Line: Name(w[i].Line), Where: w[i].Places, Says: got.Says, Lines: got.Lines, Asks: got.Asks, New: w[i].New}
		switch {
		case w[i].Fault.Is() && len(got.Asks) == 0:
			out[i].Says, out[i].Fault = v.Fact(w[i].Fault), true
		case w[i].Fault.Is():
			out[i].Fault = true
		case w[i].Empty:
			out[i].Says = v.Fact(fact.Of(job.FoundEmpty, w[i].Places))
		}
		if out[i].Where == nil {
			out[i].Where = []rig.Path{}
		}
	}
	return out
}

// asks words what a question leaves open; the choices are words of the trade.
func (v *Voice) asks(list []shorthand.Ask) []Ask {
	out := make([]Ask, len(list))
	for i, a := range list {
		out[i] = Ask{v.Fact(fact.Of(a.About)), a.Choices}
	}
	return out
}

// Cannot is the reply to words that cannot be answered: while somebody types
// that is the ordinary case, and no error.
func (l Language) Cannot(err error) Reply {
	out := l.Reply(&ask.Reply{})
	out.Fault = l.Error(err)
	return out
}

// Error words an error of the core for people.
func (l Language) Error(err error) Text {
	v := In(l, &nobody)
	var many ask.TooMany
	if errors.As(err, &many) {
		return v.Fact(many.Fact)
	}
	if f := fact.From(err); f.Is() {
		return v.Fact(f)
	}
	return v.text(err.Error())
}

// Problems puts into words what is wrong, seen by a voice that knows the names. What is
// worded stays as it is.
func (v *Voice) Problems(list problem.List) problem.List {
	out := slices.Clone(list)
	for i := range out {
		p := &out[i]
		switch {
		case p.Fact.Is():
			p.Says, p.Cure = v.Fact(p.Fact).s, v.text(v.fill(cures[p.Fact.Code], p.Fact.Args)).s
			p.Fact = fact.Fact{}
		case !p.Worded: // from outside the core
			p.Says, p.Cure = v.text(p.Says).s, v.text(p.Cure).s
		}
		p.Worded = true
	}
	return out
}

// Err is an error with its words, seen by a voice that knows the names: problems, or the
// fact behind it. Others stay as they are.
func (v *Voice) Err(err error) error {
	var list problem.List
	if errors.As(err, &list) {
		return v.Problems(list)
	}
	if f := fact.From(err); f.Is() {
		return errors.New(v.Fact(f).s)
	}
	return err
}

// Err is an error with its words, where nothing else is known of what it is about.
func (l Language) Err(err error) error { return In(l, &nobody).Err(err) }

// Problems words what is wrong with a document of which nothing else is known.
func (l Language) Problems(list problem.List) problem.List { return In(l, &nobody).Problems(list) }

// Says is a sentence of a program's own.
func (l Language) Says(s string) Text { return In(l, &nobody).text(s) }

// Facts words facts of which nothing else is known.
func (l Language) Facts(list []fact.Fact) []Text { return In(l, &nobody).facts(list) }

// Rows words what is wrong with the rows of a list.
func (l Language) Rows(rows []shelf.RowProblem) []shelf.RowProblem {
	v := In(l, &nobody)
	out := slices.Clone(rows)
	for i := range out {
		out[i].Says = v.Fact(out[i].Fact).s
	}
	return out
}

// Population words how modules spread over a machine's slots.
func (l Language) Population(p *ask.Populated) Reply {
	v := In(l, &p.Rig)
	m := v.Memory(&p.Answer.Memory)
	out := Reply{Says: v.text(m.line()), Lines: []Figure{}, Asks: []Ask{}}
	line := func(what, value string) {
		out.Lines = append(out.Lines, Figure{What: v.text(what), Value: v.text(value)})
	}
	for _, q := range p.Rig.Placements {
		line(q.Socket.String(), describe(p.Rig.Piece(q.Item).Part))
	}
	line("peak", peakWords(&p.Answer.Memory))
	for i := range p.Answer.Findings {
		f := &p.Answer.Findings[i]
		out.Lines = append(out.Lines, Figure{What: v.text(string(f.Severity)), Value: v.Finding(f).Says})
	}
	n := fact.Count{N: len(p.Rig.Placements), Of: "module"}
	order := fact.Of(ask.OrderSaid, n)
	if p.Guess {
		order = fact.Of(ask.OrderGuessed, n)
	}
	out.Because = append([]Reason{{fit.FromSheet, v.Fact(order)}}, m.Because...)
	return out
}

// Keys words which kinds of M.2 card go into a socket.
func (l Language) Keys(key part.Key, protocols []link.Protocol) []Fit {
	fits := ask.Keys(key, protocols)
	out := make([]Fit, len(fits))
	for i := range fits {
		f := &fits[i]
		r := f.Rig
		r.Pieces = []rig.Piece{r.Pieces[0]}
		p := *r.Pieces[0].Part
		p.Name = sentences[f.Card]
		r.Pieces[0].Part = &p
		v := In(l, &r)
		s := v.socket(&f.Answer, &f.Answer.Sockets[0])
		out[i] = Fit{v.Fact(fact.Of(f.Card)), f.Keys, s.State, s.Says, []fit.Code{}}
		for n := range f.Answer.Findings {
			x := &f.Answer.Findings[n]
			if out[i].Findings = append(out[i].Findings, x.Code); x.Severity == fit.Stops {
				out[i].Says = v.Finding(x).Says
			}
		}
	}
	return out
}
