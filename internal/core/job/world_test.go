package job_test

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/job"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// world is a bench with real bytes on real drives. It does what a change says that hands did, and
// says where the table of docs/model.md ("The law of data") was broken. It was written from that table
// and from the names of steps alone: it never asks the rule, the record or what a step says of itself.
type world struct {
	bytes   map[rig.ItemID]map[datum]bool // what lies on each drive
	own     map[rig.ItemID]datum          // what was on a drive as it came, or was last said to be on it
	backup  map[datum]bool                // copies outside that somebody opened
	proved  map[datum]map[rig.ItemID]bool // copies that were compared on this job
	copied  map[int]volume.Transfer       // transfers that hands carried out, by number
	at      map[rig.ItemID]rig.Path       // where hands have put each part
	off     map[rig.ItemID]bool           // disconnected for the time being
	gone    map[rig.ItemID]bool           // it left the shop, or the job
	counter int
}

// datum is some owner's data: what lay on one drive.
type datum string

// newWorld makes the world of a job on which nobody has laid hands. A drive of which nobody said
// what it holds does hold something: that is the worst case.
func newWorld(j *job.Job) *world {
	w := &world{map[rig.ItemID]map[datum]bool{}, map[rig.ItemID]datum{}, map[datum]bool{}, map[datum]map[rig.ItemID]bool{}, map[int]volume.Transfer{}, map[rig.ItemID]rig.Path{}, map[rig.ItemID]bool{}, map[rig.ItemID]bool{}, 0}
	for _, it := range j.Items {
		w.arrive(j, it.ID)
	}
	for _, p := range j.Found.Placements {
		w.at[p.Item] = p.Socket
	}
	return w
}

func isDrive(j *job.Job, id rig.ItemID) bool {
	it := j.Item(id)
	if it == nil {
		return false
	}
	d := j.Part(it.Part).Drive
	return d != nil && !d.Form.Optical()
}

// arrive puts a drive on the bench with what its card says is on it.
func (w *world) arrive(j *job.Job, id rig.ItemID) {
	if w.bytes[id] != nil || !isDrive(j, id) {
		return
	}
	w.bytes[id] = map[datum]bool{}
	if j.Item(id).Holds != rig.Blank {
		w.fill(id)
	}
}

// fill gives a drive data of its own.
func (w *world) fill(id rig.ItemID) {
	w.counter++
	w.own[id] = datum(fmt.Sprint(id, "/", w.counter))
	w.bytes[id][w.own[id]] = true
}

// in reports whether hands have put a drive into the machine, and everything that carries it.
func (w *world) in(id rig.ItemID) bool {
	at := w.at[id]
	for {
		if at.IsZero() {
			return false
		}
		if !at.Nested() {
			return true
		}
		at = at.Holder()
		found := false
		for _, p := range w.at {
			found = found || p == at
		}
		if !found {
			return false
		}
	}
}

// connected is the drives that run at this moment.
func (w *world) connected() []rig.ItemID {
	var out []rig.ItemID
	for id := range w.bytes {
		if w.in(id) && !w.off[id] && !w.gone[id] {
			out = append(out, id)
		}
	}
	slices.Sort(out)
	return out
}

// apply does in the world what an accepted change says, and reports the first break of the law.
func (w *world) apply(before, after *job.Job, c *job.Change) error {
	for _, it := range after.Items {
		w.arrive(after, it.ID)
	}
	switch c.Do {
	case job.DoTick:
		return w.tick(before, c)
	case job.DoUntick, job.DoLeaveOut:
		w.untick(before, c)
	case job.DoProve:
		return w.prove(before, c)
	case job.DoWipe:
		if w.in(c.Item) && !w.gone[c.Item] {
			return fmt.Errorf("%s counts as wiped and is in the machine", c.Item)
		}
		if err := w.givenAway(before, c.Item); err != nil {
			return err
		}
		clear(w.bytes[c.Item])
	case job.DoFate:
		switch fate := job.Fate(c.Value); fate {
		case "":
			w.gone[c.Item] = false
		default:
			if w.in(c.Item) && w.bytes[c.Item] != nil {
				return fmt.Errorf("%s is gone (%s) and is in the machine", c.Item, fate)
			}
			if fate != job.WithOwner {
				if err := w.givenAway(before, c.Item); err != nil {
					return err
				}
			}
			w.gone[c.Item] = true
		}
	case job.DoCorrect:
		w.said(before, c)
	case job.DoRemove:
		for _, id := range append([]rig.ItemID{c.Item}, c.Items...) {
			if after.Item(id) == nil {
				w.gone[id] = true
			}
		}
	case job.DoPlace, job.DoTakeOut, job.DoMoves, job.DoObserve: // of the machine as found: it was always so
		if c.In == job.InFound || c.Do == job.DoObserve {
			for id := range w.bytes {
				if was, is := before.Found.Where(id), after.Found.Where(id); was != is && w.at[id] == was {
					w.at[id] = is
				}
			}
			for _, it := range after.Items {
				if was, is := before.Found.Where(it.ID), after.Found.Where(it.ID); was != is && w.at[it.ID] == was {
					w.at[it.ID] = is
				}
			}
		}
	case job.DoAdd:
		for _, p := range after.Found.Placements {
			if before.Item(p.Item) == nil {
				w.at[p.Item] = p.Socket
			}
		}
	case job.DoNextStage:
		for id := range w.bytes {
			if after.Item(id) != nil && !w.gone[id] && w.in(id) == after.Found.Where(id).IsZero() {
				return fmt.Errorf("the next stage finds %s in %q, and hands have it in %q", id, after.Found.Where(id), w.at[id])
			}
		}
	}
	return nil
}

// said is that somebody corrects what a card says a drive holds. What was told before was wrong,
// then, unless something is still to be copied from it: nobody copies what is not there.
func (w *world) said(before *job.Job, c *job.Change) {
	bytes := w.bytes[c.Item]
	if bytes == nil || before.Item(c.Item).Holds == c.Holds {
		return
	}
	if c.Holds != rig.Blank {
		if !bytes[w.own[c.Item]] {
			w.fill(c.Item)
		}
		return
	}
	for _, t := range before.Transfers {
		if t.From == c.Item && t.Proof == nil {
			return
		}
	}
	for _, t := range w.copied {
		if t.From == c.Item {
			return
		}
	}
	clear(bytes)
}

func stepsOf(j *job.Job, c *job.Change) []workorder.Step {
	ids := c.Steps
	if len(ids) == 0 {
		ids = []string{c.Step}
	}
	var out []workorder.Step
	for _, s := range j.Order() {
		if slices.Contains(ids, s.ID) {
			out = append(out, s)
		}
	}
	return out
}

func (w *world) tick(j *job.Job, c *job.Change) error {
	for _, s := range stepsOf(j, c) {
		if err := w.do(j, &s, c.Text); err != nil {
			return fmt.Errorf("%s: %w", s.ID, err)
		}
	}
	return nil
}

// do carries out one step.
func (w *world) do(j *job.Job, s *workorder.Step, typed string) error {
	if n, _ := workorder.Mends(s.ID); n > 0 || j.Did(s.ID) { // said twice: it happened once
		return nil
	}
	room, rest, _ := strings.Cut(s.ID, "/")
	switch {
	case s.ID == workorder.BackupStep:
		for _, p := range j.Found.Placements {
			if j.Item(p.Item).Holds != rig.Blank {
				w.backedUp(p.Item)
			}
		}
	case s.Layer != "":
	case s.Phase == workorder.Fit && s.Item != "" && !strings.HasPrefix(rest, "lead-"):
		w.at[s.Item] = s.Socket
	case s.Phase == workorder.TakeOut && s.Item != "" && !strings.HasPrefix(rest, "lead-"):
		w.at[s.Item] = rig.Path{}
	case room == "off" || s.ID == "system/others-off":
		for id := range w.bytes {
			w.off[id] = w.off[id] || w.named(s, id)
		}
	case room == "on" || s.ID == "system/others-on":
		for id := range w.bytes {
			if w.named(s, id) {
				w.off[id] = false
			}
		}
	case room == "volumes":
		if array, is := strings.CutPrefix(rest, "array-"); is {
			return w.erase(j, members(j, array), typed, false)
		}
		return w.erase(j, []rig.ItemID{rig.ItemID(rest)}, typed, false)
	case room == "empty":
		return w.erase(j, []rig.ItemID{rig.ItemID(rest)}, typed, false)
	case (room == "settings" || room == "system") && strings.HasPrefix(rest, "array-"):
		return w.erase(j, members(j, strings.TrimPrefix(rest, "array-")), typed, false)
	case s.ID == "system/install" || s.ID == "system/copy" || s.ID == "system/swap":
		targets := []rig.ItemID{s.Item}
		if j.Wish.Starts.Array != "" {
			targets = members(j, string(j.Wish.Starts.Array))
		}
		return w.erase(j, targets, typed, false)
	case room == "move":
		return w.move(j, s, typed)
	case s.ID == "system/how":
	default:
		for _, c := range s.Cautions {
			if c.Topic.Code == workorder.TopicTarget || c.Topic.Code == workorder.TopicArray {
				return fmt.Errorf("a step that erases, and this world does not know what it does")
			}
		}
	}
	return nil
}

func members(j *job.Job, array string) []rig.ItemID {
	for i := range j.Arrays {
		if string(j.Arrays[i].ID) == array {
			return j.Arrays[i].Members
		}
	}
	return nil
}

// named reports whether a step names a drive as something to take off or put back.
func (w *world) named(s *workorder.Step, id rig.ItemID) bool {
	return slices.ContainsFunc(s.How, func(f fact.Fact) bool {
		return f.Code == workorder.OtherAt && slices.Contains(f.Args, any(id))
	})
}

func (w *world) backedUp(id rig.ItemID) {
	for d := range w.bytes[id] {
		w.backup[d] = true
	}
}

// move carries out a step of a transfer.
func (w *world) move(j *job.Job, s *workorder.Step, typed string) error {
	var t *volume.Transfer
	for i := range j.Transfers {
		if j.Transfers[i].ID == workorder.Moves(s.ID) {
			t = &j.Transfers[i]
		}
	}
	switch {
	case t == nil:
	case strings.HasSuffix(s.ID, "/second"):
		w.backedUp(t.From)
	case strings.HasSuffix(s.ID, "/copy"):
		if err := w.erase(j, []rig.ItemID{t.To}, typed, t.How != volume.Clone); err != nil {
			return err
		}
		if w.gone[t.From] {
			return fmt.Errorf("%s is copied, and is gone", t.From)
		}
		for d := range w.bytes[t.From] {
			w.bytes[t.To][d] = true
		}
		w.copied[t.ID] = *t
	}
	return nil
}

// prove is that somebody compared: it must be true at this moment.
func (w *world) prove(j *job.Job, c *job.Change) error {
	id, _ := strconv.Atoi(c.Value)
	t, done := w.copied[id]
	if !done {
		return fmt.Errorf("a proof is taken, and nothing was copied")
	}
	if w.gone[t.To] || !w.in(t.To) {
		return fmt.Errorf("a proof is taken of %s, which is not in the machine", t.To)
	}
	for d := range w.bytes[t.From] {
		if d == w.own[t.From] && !w.bytes[t.To][d] {
			return fmt.Errorf("a proof is taken of %s, and the copy of %s is not on it any more", t.To, d)
		}
	}
	for d := range w.bytes[t.To] {
		if d != w.own[t.To] {
			if w.proved[d] == nil {
				w.proved[d] = map[rig.ItemID]bool{}
			}
			w.proved[d][t.To] = d == w.own[t.From] || w.proved[d][t.To]
		}
	}
	return nil
}

// untick is that a step was not done after all: no bytes come back, and no copy counts that is said
// not to have been made.
func (w *world) untick(j *job.Job, c *job.Change) {
	for _, s := range stepsOf(j, c) {
		room, rest, _ := strings.Cut(s.ID, "/")
		switch {
		case !j.Did(s.ID):
		case s.ID == workorder.BackupStep || strings.HasSuffix(s.ID, "/second"):
			clear(w.backup) // said of all; a second copy has its own step and is told again
		case room == "move" && strings.HasSuffix(s.ID, "/copy"):
			if t, is := w.copied[workorder.Moves(s.ID)]; is {
				for _, at := range w.proved {
					delete(at, t.To)
				}
				delete(w.copied, t.ID)
			}
		case s.Layer != "":
		case s.Phase == workorder.Fit && s.Item != "" && !strings.HasPrefix(rest, "lead-"):
			w.at[s.Item] = w.back(j, &s)
		case s.Phase == workorder.TakeOut && s.Item != "" && !strings.HasPrefix(rest, "lead-"):
			w.at[s.Item] = s.Socket
		case room == "off" || s.ID == "system/others-off":
			for id := range w.bytes {
				if w.named(&s, id) {
					w.off[id] = false
				}
			}
		}
	}
}

// back is where a part was before a step of fitting that was not done: on the bench, unless it never
// was taken out.
func (w *world) back(j *job.Job, s *workorder.Step) rig.Path {
	if at := j.Found.Where(s.Item); !at.IsZero() && !slices.ContainsFunc(j.Done, func(t job.Tick) bool {
		return t.Item == s.Item && t.Phase == workorder.TakeOut && t.Reason == ""
	}) {
		return at
	}
	return rig.Path{}
}

// copies counts the good copies of a datum besides one drive: those that were read back on this job,
// and whether another untouched original is there.
func (w *world) copies(d datum, but rig.ItemID) (readBack int, original bool) {
	if w.backup[d] {
		readBack++
	}
	for id, good := range w.proved[d] {
		if good && id != but && !w.gone[id] && w.bytes[id][d] {
			readBack++
		}
	}
	for id, own := range w.own {
		original = original || own == d && id != but && !w.gone[id] && w.bytes[id][d]
	}
	return readBack, original
}

// waits reports a copy from a drive that is meant or made, and not proved.
func (w *world) waits(j *job.Job, id rig.ItemID) bool {
	for _, t := range j.Transfers {
		if t.From == id && t.Proof == nil && !w.gone[t.To] && w.bytes[id][w.own[id]] {
			return true
		}
	}
	return false
}

// erase writes over drives: the first three rows of the table.
func (w *world) erase(j *job.Job, targets []rig.ItemID, typed string, keeps bool) error {
	for _, id := range targets {
		switch {
		case w.bytes[id] == nil || w.gone[id]:
			return fmt.Errorf("%s is not here", id)
		case !w.in(id):
			return fmt.Errorf("%s is erased, and is not in the machine", id)
		case w.off[id]:
			return fmt.Errorf("%s is erased, and is disconnected", id)
		}
		if err := w.told(j, id, targets, typed); err != nil {
			return err
		}
		if w.waits(j, id) {
			return fmt.Errorf("%s is written over, and a copy from it is not proved", id)
		}
		for d := range w.bytes[id] {
			if keeps && d != w.own[id] {
				continue
			}
			if n, original := w.copies(d, id); n == 0 && !original {
				return fmt.Errorf("%s is on %s, which is written over, and nowhere else", d, id)
			}
		}
	}
	for _, id := range targets {
		for d := range w.bytes[id] {
			if !keeps || d == w.own[id] {
				delete(w.bytes[id], d)
				delete(w.proved[d], id)
			}
		}
	}
	return nil
}

// givenAway is the last row but one: wiped, recycled, sold or given back.
func (w *world) givenAway(j *job.Job, id rig.ItemID) error {
	for d := range w.bytes[id] {
		n, original := w.copies(d, id)
		if original && d != w.own[id] {
			continue // a copy may go while its source lies untouched
		}
		word := 0
		if j.Wish.BackedUp != "" {
			word = 1
		}
		if n == 0 || n+word < 2 {
			return fmt.Errorf("%s leaves %s with %d copies that were read back, and %d by word", d, id, n, word)
		}
	}
	return nil
}

// told reports whether what was typed can mean no other drive that runs: its serial number, else the
// place it is in where nothing else that runs has its size, else a mark that only it wears.
func (w *world) told(j *job.Job, id rig.ItemID, targets []rig.ItemID, typed string) error {
	var words []string
	for _, word := range strings.FieldsFunc(typed, func(r rune) bool { return r == ' ' || r == ',' }) {
		words = append(words, fact.Fold(word))
	}
	others := slices.DeleteFunc(w.connected(), func(o rig.ItemID) bool { return slices.Contains(targets, o) })
	serial := fact.Fold(j.Item(id).Serial)
	for _, word := range words {
		if len(word) >= 3 && len(serial) >= 4 && strings.HasSuffix(serial, word) && !slices.ContainsFunc(others, func(o rig.ItemID) bool {
			return j.Item(o) != nil && strings.HasSuffix(fact.Fold(j.Item(o).Serial), word)
		}) {
			return nil
		}
	}
	size := func(id rig.ItemID) int64 { return int64(j.Part(j.Item(id).Part).Drive.CapacityBytes) }
	alone := size(id) > 0 || len(others) == 0
	for _, o := range others {
		alone = alone && j.Item(o) != nil && size(o) > 0 && size(o) != size(id)
	}
	if slices.Contains(words, fact.Fold(w.at[id].String())) && alone {
		return nil
	}
	if slices.ContainsFunc(words, func(s string) bool { return strings.HasPrefix(s, "TAPE") && len(s) > 4 }) {
		return nil
	}
	return fmt.Errorf("%q may mean another drive than %s (%s) beside %v", typed, id, serial, others)
}

func (w *world) clone() *world {
	out := *w
	out.bytes, out.own, out.backup, out.copied, out.at, out.off, out.gone = map[rig.ItemID]map[datum]bool{}, maps.Clone(w.own), maps.Clone(w.backup), maps.Clone(w.copied), maps.Clone(w.at), maps.Clone(w.off), maps.Clone(w.gone)
	for id, b := range w.bytes {
		out.bytes[id] = maps.Clone(b)
	}
	out.proved = map[datum]map[rig.ItemID]bool{}
	for d, at := range w.proved {
		out.proved[d] = maps.Clone(at)
	}
	return &out
}

// undo is that the last change is taken back. Words are unsaid; what hands did stays done, and is only
// said not to have happened: no bytes come back, and no copy counts.
func (w *world) undo(as *world, c *job.Change) {
	switch c.Do {
	case job.DoTick, job.DoProve, job.DoWipe:
		bytes := w.bytes
		*w = *as
		for id, was := range w.bytes { // the worse of both: what was written over is gone
			for d := range was {
				if !bytes[id][d] {
					delete(was, d)
					delete(w.proved[d], id)
				}
			}
		}
	default:
		*w = *as
	}
}
