package job

// This file reads what somebody wrote down at the open machine: a line for each kind of
// piece, with the place where it was found in front.

import (
	"regexp"
	"slices"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/shorthand"
)

// Written is one line of what somebody wrote down: "A2: 8GB PC4-2666".
type Written struct {
	Line   string          // as written
	Places []rig.Path      // where its pieces were found; none where the line does not say
	Bays   []machine.BayID // and in which bays drives lie, "" where it does not say: "SATA1 in cage-2"
	Empty  bool            // nothing lies there
	New    bool            // "new:" was written in front: it came to be fitted
	Read   shorthand.Reading
	Fault  fact.Fact // why it cannot be taken as it is
}

// Writing is many lines. Lines end where a line does, and at semicolons.
type Writing []Written

// Fault is the first line that cannot be taken, none where all can be.
func (w Writing) Fault() fact.Fact {
	for i := range w {
		switch {
		case !w[i].Fault.Is():
		case len(w) == 1:
			return w[i].Fault
		default:
			return fact.Of(InLine, i+1, w[i].Fault)
		}
	}
	return fact.Fact{}
}

// prefix is what stands before a colon.
var prefix = regexp.MustCompile(`^([^:"]{1,120}):\s*(.*)$`)

// inBay is a port and the bay that its drive lies in.
var inBay = regexp.MustCompile(`(?i)^(.+?)\s+in\s+(?:bay\s+)?(.+)$`)

// Write reads what was written down about the machine. What the words leave open and the
// place settles, which form a piece has that was found there, is taken from the place.
func (j *Job) Write(text string) Writing {
	var out Writing
	taken := map[rig.Path]bool{}
	for _, line := range strings.FieldsFunc(text, func(c rune) bool { return c == '\n' || c == '\r' || c == ';' }) {
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		w := j.line(line)
		for _, p := range w.Places {
			if taken[p] && !w.Fault.Is() {
				w.Fault = fact.Of(WrittenTwice, p)
			}
			taken[p] = true
		}
		for _, b := range w.Bays {
			if at := rig.On(machine.SocketID(b)); b != "" && taken[at] && !w.Fault.Is() {
				w.Fault = fact.Of(BayHoldsAnother, b)
			} else if b != "" {
				taken[at] = true
			}
		}
		out = append(out, w)
	}
	return out
}

func (j *Job) line(line string) Written {
	w := Written{Line: line}
	words := line
	if m := prefix.FindStringSubmatch(line); m != nil && !shorthand.EndsInMark(m[1]) {
		words = m[2]
		for _, name := range strings.FieldsFunc(m[1], func(c rune) bool { return c == ',' || c == '+' || c == '&' }) {
			name = strings.TrimSpace(name)
			if strings.EqualFold(name, "new") {
				w.New = true
				continue
			}
			bay := machine.BayID("")
			if in := inBay.FindStringSubmatch(name); in != nil {
				if bay = j.bayNamed(in[2]); bay == "" {
					w.Fault = fact.Of(NoBayIsNamed, fact.Typed(in[2]), j.bayNames())
					return w
				}
				name = in[1]
			}
			found, ok := j.places(name)
			if !ok {
				w.Fault = fact.Of(NoSuchPlace, fact.Typed(name), j.Sheet.SocketIDs())
				return w
			}
			for _, at := range found {
				w.Places, w.Bays = append(w.Places, at), append(w.Bays, bay)
			}
		}
	}
	switch strings.ToLower(strings.Trim(words, " .")) {
	case "empty", "free", "nothing", "-":
		if len(w.Places) > 0 {
			w.Empty = true
			return w
		}
	}
	settles := j.settles(&w)
	w.read(words, settles, j.bayForms(&w))
	for i := range w.Read.Means { // what no word says is said by the place, or by the machine
		if m := &w.Read.Means[i]; slices.Contains(settles, m.Word) && !strings.Contains(words, m.Word) {
			if m.Word = j.Sheet.Name; len(w.Places) > 0 {
				m.Word = w.Places[0].String()
			}
		}
	}
	switch n := len(w.Places); {
	case w.Fault.Is() || n == 0:
	case w.Read.Count == 1:
		w.Read.Count = n
	case w.Read.Count != n:
		w.Fault = fact.Of(PiecesAndPlaces, w.Read.Count, n)
	}
	if n := len(w.Read.Serials); !w.Fault.Is() && n > w.Read.Count {
		w.Fault = fact.Of(MoreSerials, n, w.Read.Count)
	}
	return w
}

// read reads the words, with a word that the place adds where they leave that open.
func (w *Written) read(words string, settles, forms []string) {
	got, err := shorthand.Read(words)
	for _, word := range settles {
		asked := slices.ContainsFunc(got.Asks, func(a shorthand.Ask) bool {
			return slices.Contains(a.Choices, word) || a.About == shorthand.MemoryOrDrive
		})
		unsaid := got.Part.Drive != nil && got.Part.Drive.Protocol == ""
		if err != nil || !asked && !unsaid {
			continue
		}
		if more, err := shorthand.Read(words + " " + word); err == nil && len(more.Asks) <= len(got.Asks) {
			got = more
		}
	}
	for i := range got.Asks {
		a := &got.Asks[i]
		fits := slices.DeleteFunc(slices.Clone(a.Choices), func(c string) bool { return !slices.Contains(forms, c) })
		if a.About == shorthand.WhichForm && len(fits) > 0 {
			a.Choices = fits // no other goes in there
		}
	}
	w.Read = got
	if err != nil {
		w.Fault = fact.From(err)
	} else if len(got.Asks) > 0 {
		w.Fault = fact.Of(shorthand.CouldBe, fact.Of(got.Asks[0].About), got.Asks[0].Choices)
	} else if l := got.Part.Validate(); len(l) > 0 {
		w.Fault = l[0].Fact
	}
}

// settles is the words that a place has for what lies in it. A machine with one kind of
// memory slots has its word for all modules.
func (j *Job) settles(w *Written) []string {
	places := w.Places
	form := func(k machine.Kind) string {
		return map[machine.Kind]string{machine.DIMM: "DIMM", machine.SODIMM: "SODIMM", machine.M2: "M.2", machine.U2: "U.2"}[k]
	}
	var out []string
	if len(places) == 0 {
		for _, k := range j.Sheet.Sockets {
			if word := form(k.Kind); k.Kind.Memory() && !slices.Contains(out, word) {
				out = append(out, word)
			}
		}
		if len(out) > 1 {
			return nil
		}
		return out
	}
	k := j.Sheet.Socket(places[0].Top())
	if k == nil || places[0].Nested() {
		return nil
	}
	if word := form(k.Kind); word != "" {
		out = append(out, word)
	}
	if k.Kind == machine.SATA {
		out = append(out, "sata")
		if forms := j.bayForms(w); len(forms) == 1 {
			out = append(out, forms...)
		}
	}
	if k.Kind == machine.M2 && len(k.Protocols) == 1 {
		out = append(out, map[link.Protocol]string{link.PCIe: "nvme", link.SATA: "sata"}[k.Protocols[0]])
	}
	return out
}

// bayForms is the forms of drives that go into the bays which the lead of a SATA port reaches, or
// into the one that was named, as words; all boxes where the sheet does not say.
func (j *Job) bayForms(w *Written) []string {
	if len(w.Places) == 0 || w.Places[0].Nested() {
		return nil
	}
	k := j.Sheet.Socket(w.Places[0].Top())
	if k == nil || k.Kind != machine.SATA {
		return nil
	}
	var forms []part.Form
	for _, b := range j.Sheet.EveryBay() {
		if b.ID == w.Bays[0] || w.Bays[0] == "" && b.Reached(k.ID) {
			if len(b.Drives) == 0 {
				forms = nil
				break
			}
			forms = append(forms, b.Drives...)
		}
	}
	if len(forms) == 0 {
		forms = []part.Form{part.Form2i5, part.Form3i5}
	}
	var out []string
	for _, f := range forms {
		if word := shorthand.FormWord(f); !slices.Contains(out, word) {
			out = append(out, word)
		}
	}
	return out
}

// places finds sockets by what people write for them: "m2-1" for M2_1, "A1 B1" for two.
func (j *Job) places(name string) ([]rig.Path, bool) {
	if p, ok := j.place(name); ok {
		return []rig.Path{p}, true
	}
	var out []rig.Path
	for _, one := range strings.Fields(name) {
		p, ok := j.place(one)
		if !ok {
			return nil, false
		}
		out = append(out, p)
	}
	return out, len(out) > 0
}

// plain is a name as people write it, without what they leave out.
func plain(s string) string {
	return strings.ToLower(strings.NewReplacer(" ", "", "_", "", "-", "", ".", "").Replace(s))
}

// bayNamed finds a bay by what people write for it, "" for none.
func (j *Job) bayNamed(name string) machine.BayID {
	for _, id := range j.bayNames() {
		if plain(string(id)) == plain(name) {
			return id
		}
	}
	return ""
}

func (j *Job) place(name string) (rig.Path, bool) {
	top, rest, nested := strings.Cut(name, "/")
	for _, k := range j.Sheet.Sockets {
		if plain(string(k.ID)) == plain(top) {
			p := rig.On(k.ID)
			if nested {
				p = rig.ParsePath(string(k.ID) + "/" + strings.TrimSpace(rest))
			}
			return p, p.Top() == k.ID
		}
	}
	return rig.Path{}, false
}

// write adds the pieces of lines to the job, where they were found.
func (a *applier) write() fact.Fact {
	c := &a.change
	lines := a.job.Write(c.Text)
	if len(lines) == 0 {
		return a.refuse("/text", fact.Of(shorthand.NothingTyped))
	}
	if f := lines.Fault(); f.Is() {
		return a.refuse("/text", f)
	}
	var says []fact.Fact
	for i := range lines {
		w := &lines[i]
		if w.Empty {
			if f := a.empty(w.Places); f.Is() {
				says = append(says, f)
			}
			continue
		}
		serials := w.Read.Serials
		if len(lines) == 1 && c.Serial != "" {
			if serials = append(serials, c.Serial); w.Read.Count > 1 {
				serials = append(w.Read.Serials, strings.Fields(c.Serial)...)
			}
			if len(serials) > w.Read.Count {
				return a.refuse("/serial", fact.Of(MoreSerials, len(serials), w.Read.Count))
			}
		}
		isNew := w.New || a.job.Fresh || c.New && len(w.Places) == 0 // in a new machine nothing was found
		says = append(says, a.pieces(&w.Read.Part, w.Read.Count, serials, isNew, w.Places, w.Bays))
		if len(a.list) > 0 {
			return fact.Fact{}
		}
	}
	switch len(says) {
	case 0:
		return fact.Of(LeftAll)
	case 1:
		return says[0]
	}
	return fact.Of(Together, says)
}

// pieces adds pieces of one kind, and puts them where they were found; as far as the plan
// has those places as they were found, into the plan as well. New ones go into the plan alone.
func (a *applier) pieces(what *part.Part, count int, serials []string, isNew bool, places []rig.Path, bays []machine.BayID) fact.Fact {
	// The same part again is one entry; another under the same name is refused by Validate.
	if old := a.job.Part(what.ID); old == nil {
		a.job.Parts = append(a.job.Parts, *what)
	}
	n := len(a.job.Items) + 1
	for i := range count {
		id := itemID(n)
		for a.job.Item(id) != nil {
			n++
			id = itemID(n)
		}
		piece := Item{ID: id, Part: what.ID, New: isNew}
		if i < len(serials) {
			piece.Serial = serials[i]
		}
		a.job.Items = append(a.job.Items, piece)
		if i >= len(places) {
			continue
		}
		at := places[i]
		put := []rig.Move{{Item: id, Socket: at, Bay: bays[i]}}
		agree := a.job.Planned.In(at) == a.job.Found.In(at)
		if !isNew {
			a.job.Fresh = false // something lies in it
			if there := a.job.Found.In(at); there != "" {
				return a.refuse("/text", fact.Of(LiesThere, a.job.Name(there), at))
			}
			a.move(&a.job.Found, put, itself)
			a.job.Looked = slices.DeleteFunc(a.job.Looked, func(l Looked) bool { return l.Attr == rig.HoldsNow && l.Socket == at })
		}
		if agree || isNew {
			a.move(&a.job.Planned, put, itself)
		}
		if len(a.list) > 0 {
			why := a.list[0].Fact // of a field that the change has not
			a.list = nil
			return a.refuse("/text", why)
		}
	}
	name := fact.Typed(what.Name)
	switch {
	case len(places) > 0 && isNew:
		return fact.Of(AddedInto, count, name, places)
	case len(places) > 0:
		return fact.Of(AddedIn, count, name, places)
	case count > 1 && isNew:
		return fact.Of(AddedManyToFit, count, name)
	case count > 1:
		return fact.Of(AddedManyFound, count, name)
	case isNew:
		return fact.Of(AddedToFit, name)
	}
	return fact.Of(AddedFound, name)
}

// empty says of places that nothing lies there, which is kept where it would not be known.
func (a *applier) empty(places []rig.Path) fact.Fact {
	for _, at := range places {
		if there := a.job.Found.In(at); there != "" {
			return a.refuse("/text", fact.Of(LiesThere, a.job.Name(there), at))
		}
		if at.Nested() || !slices.Contains(a.job.unlooked(), at.Top()) {
			continue
		}
		f := rig.Fact{Socket: at, Attr: rig.HoldsNow}
		a.job.Looked = slices.DeleteFunc(a.job.Looked, func(l Looked) bool { return l.Fact == f })
		a.job.Looked = append(a.job.Looked, Looked{rig.Learned{Fact: f, Is: string(rig.Nothing)}, a.by.By, a.by.At})
	}
	return fact.Of(FoundEmpty, places)
}
