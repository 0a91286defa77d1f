// Package practice is what a shop does where practitioners differ. Each question has schools;
// one of them is the default, for a reason; some have conditions. The words stand in say.
//
//	p := practice.Practice{{practice.FirstStart, practice.Closed}}
//	p.Of(practice.FirstStart) // Closed
//	p.Of(practice.Label)      // LabelStays, the default
package practice

import "slices"

type (
	// Matter is what practitioners differ in.
	Matter string
	// School is one answer to it.
	School string
)

// The questions, in the order of the work.
const (
	Earth      Matter = "earth"
	Slots      Matter = "slots"
	More       Matter = "more-memory"
	Speed      Matter = "memory-speed"
	Beyond     Matter = "beyond-stated"
	Array      Matter = "array"
	Heatsink   Matter = "heatsink"
	Label      Matter = "drive-label"
	OldDrive   Matter = "old-drive"
	FirstStart Matter = "first-start"
	Test       Matter = "test"
	System     Matter = "system"
	Screws     Matter = "screws"
)

// The schools.
const (
	Strap       School = "strap"  // unplugged, mat and strap
	Switch      School = "switch" // plugged in with the supply's switch off, so that the case is earthed
	BySheet     School = "sheet"  // second and fourth where the sheet is silent
	FirstThird  School = "first-third"
	LowerFirst  School = "lower-first"
	Kit         School = "kit" // one matched kit, or the same part again
	Mix         School = "mix"
	Profile     School = "profile" // where the board takes it, then tested
	ByHand      School = "by-hand"
	Base        School = "base"
	TryAndTest  School = "try" // as a trial with its proof
	Never       School = "never"
	Apart       School = "apart" // separate volumes
	Striped     School = "striped"
	Mirrored    School = "mirrored"
	ByLoad      School = "by-load" // by generation, watts and load
	Always      School = "always"
	LabelStays  School = "label-stays"
	LabelOff    School = "label-off"
	Unplugged   School = "unplugged" // the old system drive during an installation
	Connected   School = "connected"
	Open        School = "open" // before closing, cover loose, hands out
	Closed      School = "closed"
	AtTheEnd    School = "at-the-end"
	EachKind    School = "each-kind" // after each kind of part, when several are fitted
	ByGoal      School = "by-goal"   // fresh, clone, or copy and swap letters: offered by goal
	Fresh       School = "fresh"
	Clone       School = "clone"
	CopyAndSwap School = "copy"
	PlaceOrder  School = "place-order" // laid out in the order and place they came from, drawn
	Cups        School = "cups"
	MagneticMat School = "magnetic-mat"
)

// Row is a question with its schools, the default first.
type Row struct {
	Matter  Matter
	Schools []School
}

// Rows is all questions.
func Rows() []Row {
	return []Row{
		{Earth, []School{Strap, Switch}},
		{Slots, []School{BySheet, FirstThird, LowerFirst}},
		{More, []School{Kit, Mix}},
		{Speed, []School{Profile, ByHand, Base}},
		{Beyond, []School{TryAndTest, Never}},
		{Array, []School{Apart, Striped, Mirrored}},
		{Heatsink, []School{ByLoad, Always}},
		{Label, []School{LabelStays, LabelOff}},
		{OldDrive, []School{Unplugged, Connected}},
		{FirstStart, []School{Open, Closed}},
		{Test, []School{EachKind, AtTheEnd}},
		{System, []School{ByGoal, Fresh, Clone, CopyAndSwap}},
		{Screws, []School{PlaceOrder, Cups, MagneticMat}},
	}
}

// Values lists the questions for the formats.
func (Matter) Values() []string {
	var out []string
	for _, r := range Rows() {
		out = append(out, string(r.Matter))
	}
	return out
}

// Values lists the schools for the formats.
func (School) Values() []string {
	var out []string
	for _, r := range Rows() {
		for _, s := range r.Schools {
			out = append(out, string(s))
		}
	}
	return out
}

// Held is a question answered.
type Held struct {
	Matter Matter `json:"question"`
	School School `json:"school"`
}

// Practice is what a shop chose; what is absent is as usual.
type Practice []Held

// Of is the school that holds for a question: the chosen one, else the default. One that
// answers another question counts for nothing.
func (p Practice) Of(q Matter) School {
	rows := Rows()
	r := rows[slices.IndexFunc(rows, func(r Row) bool { return r.Matter == q })]
	for _, c := range p {
		if c.Matter == q && slices.Contains(r.Schools, c.School) {
			return c.School
		}
	}
	return r.Schools[0]
}

// Same reports that two shops do the same, however it is written down.
func (p Practice) Same(o Practice) bool {
	return !slices.ContainsFunc(Rows(), func(r Row) bool { return p.Of(r.Matter) != o.Of(r.Matter) })
}

// Fault is the first choice that is none: a question asked twice, or a school of another
// question; -1 where all are right.
func (p Practice) Fault() int {
	for i, c := range p {
		if p.Of(c.Matter) != c.School || slices.ContainsFunc(p[:i], func(d Held) bool { return d.Matter == c.Matter }) {
			return i
		}
	}
	return -1
}
