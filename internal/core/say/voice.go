// Package say puts facts, findings, cures, steps, lines, changes and answers into
// words. It is the only prose in the core: it knows the values of all rooms, and none of
// them knows it.
//
// A Voice speaks about one rig, in one language. Every sentence passes its Language
// once, which is where another language comes in.
//
//	v := say.English(&r)
//	doc := v.Answer(&answer) // as the API and files carry it
package say

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/ask"
	"deepbay/internal/core/cure"
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/job"
	"deepbay/internal/core/known"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/measure"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shelf"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// Text is words for people. It can be neither compared nor cut: what a program needs to
// know stands beside it as a code or value.
type Text struct {
	_ [0]func()
	s string
}

// String is the words, for a screen.
func (t Text) String() string { return t.s }

// MarshalText writes the words.
func (t Text) MarshalText() ([]byte, error) { return []byte(t.s), nil }

// UnmarshalText reads them back, for clients.
func (t *Text) UnmarshalText(b []byte) error { t.s = string(b); return nil }

// IsZero reports that nothing is said; files leave such a text out.
func (t Text) IsZero() bool { return t.s == "" }

// Language is what every sentence passes on its way out.
type Language func(string) string

// Plain is English as it stands in this room.
var Plain Language = func(s string) string { return s }

// Voice words what is said about one rig.
type Voice struct {
	rig   *rig.Rig
	job   *job.Job              // whose rig it is, nil where there is none
	names map[rig.ItemID]string // of pieces that have left
	speak Language
}

// English speaks about a rig.
func English(r *rig.Rig) *Voice { return &Voice{rig: r, speak: Plain} }

// In speaks about a rig in a language.
func In(l Language, r *rig.Rig) *Voice { return &Voice{rig: r, speak: l} }

// text is a finished sentence; an empty one stays empty.
func (v *Voice) text(s string) Text {
	if s == "" {
		return Text{}
	}
	return Text{s: v.speak(s)}
}

// Fact is one fact as a sentence.
func (v *Voice) Fact(f fact.Fact) Text { return v.text(v.words(f)) }

func (v *Voice) facts(list []fact.Fact) []Text {
	out := make([]Text, len(list))
	for i, f := range list {
		out[i] = v.Fact(f)
	}
	return out
}

// sentences is what every code says.
var sentences = join(fitWords, workorderWords, powerWords, planWords, jobWords, askWords, cureWords, faultWords, sheetWords, shelfWords, partWords, intakeWords, draftWords, gainWords, logbookWords)

func join(rooms ...map[fact.Code]string) map[fact.Code]string {
	out := map[fact.Code]string{}
	for _, r := range rooms {
		for code, s := range r {
			out[code] = s
		}
	}
	return out
}

// words fills a fact's sentence: {0} is its first value, {0:verb} that value said in
// another way.
func (v *Voice) words(f fact.Fact) string {
	if !f.Is() {
		return ""
	}
	s, ok := sentences[f.Code]
	if !ok {
		return string(f.Code) // a test sees to it that this does not happen
	}
	return v.fill(s, f.Args)
}

// fill puts values into a sentence.
func (v *Voice) fill(s string, args []any) string {
	var b strings.Builder
	for {
		before, rest, found := strings.Cut(s, "{")
		b.WriteString(before)
		if !found {
			return strings.ReplaceAll(b.String(), " at at ", " at ") // runs at, at most
		}
		place, after, _ := strings.Cut(rest, "}")
		number, verb, _ := strings.Cut(place, ":")
		if i, err := strconv.Atoi(number); err == nil && i < len(args) {
			b.WriteString(v.arg(args[i], verb))
		}
		s = after
	}
}

// bay names a bay: one listed apart by its own name, else by what its lead hangs on.
func (v *Voice) bay(id machine.BayID) string {
	if v.rig.Sheet.Socket(machine.SocketID(id)) == nil && !strings.Contains(string(id), "/") { // not a port's
		return "bay " + string(id)
	}
	return "the bay on " + string(id)
}

// arg prints one value of a fact.
func (v *Voice) arg(x any, verb string) string {
	if verb == "quoted" {
		return strconv.Quote(fmt.Sprint(x))
	}
	switch a := x.(type) {
	case fact.Fact:
		return v.words(a)
	case fact.Count:
		switch {
		case a.N == 0 && verb == "none":
			return "no " + string(a.Of)
		case verb == "draws":
			return map[bool]string{true: "draws", false: "draw"}[a.N == 1]
		}
		return plural(a.N, string(a.Of))
	case fact.Noun:
		return string(a)
	case fact.Typed:
		switch {
		case verb == "by" && a != "":
			return ", by " + string(a)
		case verb == "by":
			return ""
		case verb == "table":
			return map[volume.Table]string{volume.GPT: "a GPT table", volume.MBR: "an MBR table"}[volume.Table(a)]
		case verb == "filesystem":
			return fileSystems[volume.FileSystem(a)]
		case verb == "labelled" && a != "":
			return ", labelled " + string(a)
		case verb == "placed" && a != "":
			return ", as " + string(a)
		case verb == "labelled" || verb == "placed":
			return ""
		case verb == "day":
			return calendar(job.Date(a))
		case verb == "fate":
			return fateWords[job.Fate(a)]
		case verb == "level":
			return levelWords[rig.Level(a)]
		case verb == "measured":
			return strings.ToLower(measuredWords[measure.What(a)])
		case verb == "ofit" && a != "":
			return ", " + string(a)
		case verb == "ofit":
			return ""
		case verb == "startwhen":
			return map[bool]string{true: "Before", false: "After the work"}[measure.When(a) == measure.Before]
		case verb == "from" && a != "":
			return ", on " + string(a)
		}
		return string(a)
	case []fact.Typed:
		return list(a, toString, ", ", ", ")
	case machine.Field:
		return fieldName(a)
	case shelf.Grade:
		return string(a)
	case int:
		switch {
		case verb == "cell" || verb == "fromcell":
			return cellWords(a, verb)
		case verb != "":
			return noun(a, verb)
		}
		return strconv.Itoa(a)
	case rig.ItemID:
		return v.piece(a, verb)
	case rig.Fact:
		return v.missing(a)
	case rig.Learned:
		if verb == "about" {
			return strconv.Quote(string(a.Attr))
		}
		return v.learned(a)
	case fit.Stated:
		if a.Item != "" {
			return "its label says that " + v.learned(rig.Learned(a))
		}
		return "the sheet says that " + v.learned(rig.Learned(a))
	case rig.Ask:
		return v.asked(a)
	case []fact.Fact:
		between := ", "
		if verb == "semicolons" {
			between = "; "
		}
		return list(a, v.words, between, between)
	case plan.Known:
		if a.Item == "" {
			return "anything"
		}
		if !a.Home.IsZero() {
			return v.name(a.Item) + " from " + a.Home.String()
		}
		if a.Of > 1 {
			return "each of the " + strconv.Itoa(a.Of) + " new " + v.name(a.Item)
		}
		return "the new " + v.name(a.Item)
	case workorder.Setting:
		return v.setting(a.Setting, a.Value, " to ")
	case job.Setting:
		return v.setting(a.Setting, a.Value, " to ")
	case plan.Choice:
		return v.setting(a.Setting, a.Value, ": ")
	case power.Choice:
		_, option := settingName(v.rig.Sheet, a.Setting, a.Value)
		return option
	case []rig.ItemID:
		return list(a, v.name, ", ", ", ")
	case rig.Path:
		return a.String()
	case cure.Setting:
		return v.setting(a.Setting, a.Value, " to ")
	case []rig.Path:
		if verb == "goes" {
			return map[bool]string{true: "goes", false: "go"}[len(a) == 1]
		}
		return list(a, rig.Path.String, ", ", " and ")
	case machine.BayID:
		return v.bay(a)
	case []machine.BayID:
		names := make([]machine.SocketID, len(a))
		for i, id := range a {
			names[i] = machine.SocketID(id)
		}
		return v.arg(names, verb)
	case []machine.SocketID:
		switch verb {
		case "lies":
			return map[bool]string{true: "lies", false: "lie"}[len(a) == 1]
		case "few":
			if more := len(a) - manyNames; more > 0 {
				return list(a[:manyNames], toString, ", ", ", ") + " and " + strconv.Itoa(more) + " more"
			}
			return list(a, toString, ", ", ", ")
		case "channels":
			return noun(len(a), "channel") + " " + list(a, toString, ", ", " and ")
		}
		return list(a, toString, ", ", " and ")
	case fit.Shared:
		if verb == "startshared" {
			return v.startShared(a)
		}
		return v.shared(a)
	case ask.Money:
		return strconv.FormatFloat(float64(a), 'f', 2, 64)
	case volume.Seconds:
		return spanOf(float64(a))
	case measure.Level:
		return amount(float64(a), measure.Decibels)
	case job.Share:
		return strconv.FormatFloat(100*float64(a), 'f', 0, 64) + " %"
	case job.Time:
		return amount(float64(a), measure.Seconds)
	case machine.Kind:
		return kindWords[a]
	case fault.Fault:
		switch verb {
		case "cure":
			return v.fill(faultSays[a.Kind][1], v.faultArgs(a))
		case "caution":
			return v.fill(faultCautions[a.Kind], v.faultArgs(a))
		}
		return v.fault(a)
	case fault.Inspection:
		return v.check(a)
	case fault.Answered:
		return v.outcome(a.Is)
	case layer.ID:
		return v.layer(a)
	case []layer.ID:
		if verb == "do" {
			return map[bool]string{true: "does", false: "do"}[len(a) == 1]
		}
		return list(a, v.layer, ", ", " and ")
	case layer.Fastener:
		return fastenerWords(&a, verb)
	case layer.Catch:
		return catchWords(&a, verb)
	case layer.Motion:
		return motionWords(&a, verb)
	case layer.Minutes:
		return minutes(a)
	case layer.Bit:
		return driverWords[a]
	case []layer.Named:
		return list(a, toString, ", ", " and ")
	case *part.Part:
		return describe(a)
	case machine.RootID:
		return v.root(a)
	case *machine.Rule:
		return v.rule(a)
	case fit.Link:
		return linkWords(&a, verb)
	case fit.Split:
		return splitWords(a)
	case fit.Feed:
		return v.feed(a)
	case fit.PerChannel:
		return plural(int(a), "module") + " a channel"
	case fit.Registered:
		return map[fit.Registered]string{true: "registered", false: "unbuffered"}[a]
	case fit.Shape:
		return map[fit.Shape]string{fit.ShapeAdapter: "M.2 adapter", fit.ShapeCard: "PCIe card", fit.ShapeBox: "USB box", fit.ShapeFitting: "fitting"}[a]
	case fit.Watts:
		return strconv.FormatFloat(float64(a), 'f', -1, 64) + " W"
	case part.Plug:
		if verb == "trade" {
			return strings.ReplaceAll(string(a), "sata", "SATA")
		}
		return string(a)
	case part.Takes:
		return takes[a]
	case part.Form:
		if verb == "shape" {
			return a.String() + " drive"
		}
		return a.String()
	case []memory.Region:
		return spread(a)
	}
	return value(x, verb)
}

// value prints what needs no rig: quantities, ranges and lists of the trade's words.
func value(x any, verb string) string {
	switch a := x.(type) {
	case quantity.Bytes:
		switch verb {
		case "label":
			return a.Label()
		case "decimal":
			return a.Decimal() + " (" + a.Exact() + ")"
		case "dec":
			return a.Decimal()
		case "exact":
			return a.Exact()
		case "system":
			return a.AsSystemPrints()
		}
		return a.Binary()
	case quantity.Rate:
		switch {
		case !a.Known() && verb == "lost":
			return "nothing"
		case !a.Known() && verb == "knownrate":
			return "no rate that is known"
		}
		return a.String()
	case plan.Seconds:
		s := strconv.FormatFloat(math.Abs(float64(a)), 'f', 0, 64) + " s"
		switch {
		case verb == "more" && a < 0:
			return s + " less"
		case verb == "more":
			return s + " more"
		}
		return s
	case quantity.Millimetres:
		if verb == "fine" { // hundredths, as height codes have them
			return a.String()
		}
		return millimetres(a)
	case []quantity.Millimetres:
		return list(a, millimetres, ", ", ", ")
	case []quantity.Millivolts:
		return list(a, quantity.Millivolts.String, " or ", " or ")
	case []string: // names
		return list(a, toString, " or ", " or ")
	case float64:
		return strconv.FormatFloat(a, 'f', 2, 64)
	case []part.Key:
		return list(a, toString, " and ", " and ")
	case []part.Form:
		return list(a, part.Form.String, " or ", " or ")
	case []link.Protocol:
		return list(a, link.Protocol.String, " or ", " or ")
	case known.Range[quantity.Bytes]:
		return between(a, quantity.Bytes.Binary, a.Low == 0, a.High >= 1<<50)
	case known.Range[quantity.MTps]:
		return between(a, quantity.MTps.String, a.Low == 0, a.High >= 20_000)
	case known.Range[quantity.Rate]:
		if verb == "high" {
			return a.High.String()
		}
		return between(a, quantity.Rate.String, a.Low == 0, a.High == 0)
	case known.Range[quantity.Gen]:
		return genWords(a)
	case known.Range[quantity.Lanes]:
		return lanesWords(a)
	}
	return fmt.Sprint(x)
}

// manyNames is how many names are read in a sentence; the others are counted.
const manyNames = 12

func toString[T ~string](x T) string { return string(x) }

func list[T any](items []T, print func(T) string, between, last string) string {
	s := ""
	for i, x := range items {
		switch {
		case i == 0:
		case i == len(items)-1:
			s += last
		default:
			s += between
		}
		s += print(x)
	}
	return s
}

func plural(n int, what string) string { return strconv.Itoa(n) + " " + noun(n, what) }

func noun(n int, what string) string {
	switch {
	case n == 1:
		return what
	case strings.HasSuffix(what, "s"):
		return what + "es"
	}
	return what + "s"
}

// millimetres prints whole tenths: 45 less 41.2 is 3.8.
func millimetres(m quantity.Millimetres) string {
	return quantity.Millimetres(float64(int64(float64(m)*10+0.5)) / 10).String()
}

// setting is a setting at a value.
func (v *Voice) setting(id machine.SettingID, value, between string) string {
	name, option := settingName(v.rig.Sheet, id, value)
	return name + between + option
}

// piece is a piece as a verb asks: with its serial number, or what kind of part it is.
func (v *Voice) piece(id rig.ItemID, verb string) string {
	switch verb {
	case "serial":
		if v.job != nil {
			if it := v.job.Item(id); it != nil && it.Serial != "" {
				return v.name(id) + ", serial " + it.Serial
			}
		}
	case "what":
		if p := v.rig.Piece(id); p != nil {
			return describe(p.Part)
		}
	case "plain":
		if p := v.rig.Piece(id); p != nil {
			return plain(p.Part)
		}
	}
	return v.name(id)
}

// plain is a part in the words of somebody who only uses it.
func plain(p *part.Part) string {
	what := "a part"
	switch {
	case p.Drive != nil && p.Drive.Form.Optical():
		what = "an optical drive"
	case p.Drive != nil && p.Drive.Media == part.Platter:
		what = "a hard disk"
	case p.Drive != nil:
		what = "a solid-state drive"
	case p.Module != nil:
		what = "a memory module"
	case p.Card != nil:
		what = "a card"
	}
	switch {
	case p.Drive != nil && p.Drive.CapacityBytes.Known():
		what += " of " + p.Drive.CapacityBytes.Decimal()
	case p.Module != nil && p.Module.SizeBytes.Known():
		what += " of " + p.Module.SizeBytes.Binary()
	}
	return what + " (" + p.Name + ")"
}

// name is what a piece is called.
func (v *Voice) name(id rig.ItemID) string {
	if p := v.rig.Piece(id); p != nil {
		return p.Part.Name
	}
	return cmp.Or(v.names[id], string(id))
}

func (v *Voice) root(id machine.RootID) string {
	if r := v.rig.Sheet.Root(id); r != nil {
		return r.Name
	}
	return string(id)
}

// feed is how a socket is fed, as the end of a sentence about it.
func (v *Voice) feed(f fit.Feed) string {
	switch {
	case f.Bridge:
		return ", by its bridge"
	case f.Root == "":
		return ""
	case f.Uplink == nil:
		return ", on the " + v.root(f.Root)
	}
	return ", on the " + v.root(f.Root) + " behind its uplink of " + linkWords(f.Uplink, "") + ", which everything there shares"
}

// rule is a rule of the sheet as a sentence: "when M2_2 holds anything, SATA5 is off".
func (v *Voice) rule(rule *machine.Rule) string {
	s := "when "
	for i, c := range rule.When {
		if i > 0 {
			s += " and "
		}
		about, asks := v.condition(&c)
		s += about + " " + asks
	}
	s += ", "
	for i := range rule.Then {
		if i > 0 {
			s += " and "
		}
		on, does := effect(&rule.Then[i])
		s += on + " " + does
	}
	if rule.Says != "" {
		s += " (" + rule.Says + ")"
	}
	return s
}

// condition is what a condition is about, and what it asks of that.
func (v *Voice) condition(c *machine.Condition) (about, asks string) {
	sheet := v.rig.Sheet
	switch {
	case c.Processor != "":
		return "the processor", "is " + processorName(sheet, c.Processor)
	case c.Setting != "":
		name, option := settingName(sheet, c.Setting, c.Is)
		return name, "is " + option
	case c.Holds == machine.HoldsAnything:
		return string(c.Socket), "holds anything"
	}
	return string(c.Socket), "holds a " + link.Protocol(c.Holds).String() + " part"
}

func processorName(sheet *machine.Sheet, id machine.ProcessorID) string {
	if p := sheet.Processor(id); p != nil {
		return p.Name
	}
	return string(id)
}

// settingName is a setting and one of its options in the words of its screen.
func settingName(sheet *machine.Sheet, id machine.SettingID, value string) (name, option string) {
	if s := sheet.Setting(id); s != nil {
		return s.Name, s.OptionName(value)
	}
	return string(id), value
}

// effect is what an effect is on, and what it does there.
func effect(e *machine.Effect) (on, does string) {
	switch on = string(e.Socket); {
	case e.Profile:
		return "memory", "runs at its profile"
	case e.Off:
		return on, "is off"
	case len(e.Split) > 0:
		return on, "is " + splitWords(fit.Split(e.Split))
	case !e.MaxGen.Known() && !e.MaxLanes.Known() && len(e.Protocols) > 0:
		return on, "takes " + list(e.Protocols, link.Protocol.String, " or ", " or ") + " only"
	}
	does = "is at most"
	if e.MaxGen.Known() {
		does += " " + e.MaxGen.String()
	}
	if e.MaxLanes.Known() {
		does += " " + e.MaxLanes.String()
	}
	if len(e.Protocols) > 0 {
		does += " and takes " + list(e.Protocols, link.Protocol.String, " or ", " or ") + " only"
	}
	return on, does
}

func splitWords(split fit.Split) string {
	if len(split) == 0 {
		return "not split"
	}
	return "split " + parts(split)
}

// Rule is a rule of a sheet as a sentence.
func (v *Voice) Rule(rule *machine.Rule) Text { return v.text(v.rule(rule)) }

// Rules is all rules of the voice's sheet.
func (v *Voice) Rules() []Text {
	out := make([]Text, len(v.rig.Sheet.Rules))
	for i := range out {
		out[i] = v.Rule(&v.rig.Sheet.Rules[i])
	}
	return out
}

// spread puts regions into words: "dual channel" or "16 GiB dual, 8 GiB single channel".
func spread(regions []memory.Region) string {
	if len(regions) == 1 {
		return ways(regions[0].Ways) + " channel"
	}
	return list(regions, func(g memory.Region) string { return g.Bytes.Binary() + " " + ways(g.Ways) }, ", ", ", ") + " channel"
}

func ways(n int) string {
	if w := map[int]string{1: "single", 2: "dual", 4: "quad"}[n]; w != "" {
		return w
	}
	return strconv.Itoa(n) + "-way"
}

// several names so many of one part: "2 of Sallow 16 GB", "Ternlight 500".
func several(n int, name string) string {
	if n == 1 {
		return name
	}
	return strconv.Itoa(n) + " of " + name
}

// placesOf names several pieces with where they lie.
func (v *Voice) placesOf(list []rig.Placement) string {
	var out []string
	for _, p := range list {
		out = append(out, v.name(p.Item)+" in "+p.Socket.String())
	}
	slices.Sort(out)
	return strings.Join(out, ", ")
}
