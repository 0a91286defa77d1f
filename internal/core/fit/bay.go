package fit

// This file says in which bay a drive lies. A bay is a place of its own: the port says what
// its data comes from, the bay what takes, holds and feeds it. Where nobody told in which bay
// a drive lies, it lies where it was found while its lead alone is moved, and else where it
// fits best; drives that want the same bays are dealt with together.

import (
	"math"
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
)

// berth is the bay in which a drive lies; one without a name is not known, or is what holds
// the socket itself.
type berth struct {
	*machine.Mount
	id    machine.BayID
	ports []machine.SocketID // whose leads reach it; nil is any
	full  bool               // it is none: those that there are, are taken
}

// reached reports that the leads of a port reach it as the machine is built.
func (b *berth) reached(port rig.Path) bool {
	return b.id == "" || len(b.ports) == 0 || !port.Nested() && slices.Contains(b.ports, port.Top())
}

// Bays tells in which bays the drives of a rig lie, in the order of the sheet's sockets.
func Bays(b *rig.Rig) []rig.Lying { return laid(b).lying() }

// Bays is the same of a rig that was answered.
func (a *Answer) Bays() []rig.Lying {
	if a.settled == nil {
		return nil
	}
	return a.settled.lying()
}

// Bays is the same of a rig that was judged.
func (v *Verdict) Bays() []rig.Lying { return v.settled.lying() }

func (r *resolver) lying() []rig.Lying {
	var out []rig.Lying
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && s.berth.id != "" {
			out = append(out, rig.Lying{Item: s.piece.ID, Bay: s.berth.id})
		}
	}
	return out
}

// inBay reports a drive in a bay of the machine, on a port with leads.
func (s *sock) inBay() bool {
	return s.drive() != nil && (s.Kind == machine.SATA || s.Kind == machine.U2) && !s.outside()
}

// kept reports a drive that stays in the bay in which it was found and only gets its data
// lead moved to another port: it lies there, so it fits.
func (s *sock) kept() bool { return s.stays && s.moved }

// bayFact is an attribute of the bay of a drive.
func (s *sock) bayFact(a rig.Attr) rig.Fact {
	if s.berth.id != "" {
		return rig.Fact{Socket: rig.On(machine.SocketID(s.berth.id)), Attr: a}
	}
	return s.fact(a)
}

// bayName is the bay of a drive as an argument of facts.
func (s *sock) bayName() machine.BayID {
	if s.berth.id != "" {
		return s.berth.id
	}
	return machine.BayID(s.path.String())
}

// What a bay costs a drive: whether it works there counts before all else, then whether it is
// moved, then what has to be brought.
const (
	costNowhere = 5_000_000 // no bay at all
	costOthers  = 2_000_000 // the bay of another port, where the sheet says that each port has its own
	costNo      = 1_000_000
	costUnknown = 10_000
	costMade    = 100 // a bracket or an adapter makes it fit
	costMoved   = 30  // it lay in another
	costLead    = 10  // the lead of another port
	costHolder  = 5   // what holds it is not there
)

// dealBays gives every drive at a port its bay.
func (r *resolver) dealBays() {
	var drives []*sock
	dealt := len(r.sheet.Bays)+len(r.b.Bays) > 0
	for i := range r.sockets {
		s := &r.sockets[i]
		s.berth.Mount = &s.Socket.Mount
		if s.drive() == nil || !r.b.InBay(s.path, s.Socket) {
			continue
		}
		drives = append(drives, s)
		s.stays = !s.piece.New && (r.b.Found == nil || r.b.Found.Where(s.piece.ID) == s.path)
		s.moved = !s.piece.New && !s.stays && !r.b.Found.Where(s.piece.ID).IsZero()
		if b, ok := r.ownBay(s); ok {
			s.berth = b
		}
		dealt = dealt || s.moved
	}
	if !dealt || len(drives) == 0 { // every drive lies in the bay of its port
		return
	}
	bays := r.bays()
	costs := make([][]int, len(drives))
	for i, s := range drives {
		costs[i] = r.bayCosts(s, bays)
	}
	for i, n := range assigned(costs) {
		s := drives[i]
		switch {
		case n < len(bays):
			s.stays = !s.piece.New && bays[n].id == r.foundBay(s.piece.ID)
			s.berth = bays[n]
		case len(r.sheet.Bays) > 0 || s.berth.id != "":
			s.stays, s.berth = false, berth{Mount: &machine.Mount{}, full: true}
		}
	}
}

// ownBay is the bay that a port has for itself.
func (r *resolver) ownBay(s *sock) (berth, bool) {
	if s.path.Nested() {
		return berth{}, false
	}
	if _, ok := r.sheet.OwnBay(s.Socket); !ok {
		return berth{}, false
	}
	return berth{Mount: &s.Socket.Mount, id: machine.BayID(s.ID), ports: []machine.SocketID{s.ID}}, true
}

// bays is every bay of the machine.
func (r *resolver) bays() []berth {
	var out []berth
	for i := range r.sheet.Sockets {
		if b, ok := r.ownBay(&r.sockets[i]); ok {
			out = append(out, b)
		}
	}
	for i := range r.sheet.Bays {
		b := &r.sheet.Bays[i]
		out = append(out, berth{Mount: &b.Mount, id: b.ID, ports: b.Ports})
	}
	return out
}

// never is the cost of what cannot be.
const never = math.MaxInt32

// bayCosts is what each bay costs a drive, and last what none does.
func (r *resolver) bayCosts(s *sock, bays []berth) []int {
	out := make([]int, len(bays)+1)
	told, found, was := r.b.Told(s.piece.ID), r.foundBay(s.piece.ID), s.berth
	if told == "" && s.stays { // nobody said that it is moved
		told = found
	}
	for i := range bays {
		b := &bays[i]
		s.berth = *b
		switch {
		case told != "" && b.id != told:
			out[i] = never
		case told != "":
		case b.id == found: // it lies there
		case !r.goesTo(s, b) || len(r.sheet.Bays) == 0 && was.id == "":
			out[i] = never
		default:
			out[i] = r.bayCost(s, b)
			if s.moved {
				out[i] += costMoved
			}
		}
		if out[i] < never { // the first of equals
			out[i] = out[i]*len(bays) + i
		}
	}
	s.berth = was
	out[len(bays)] = costNowhere * max(1, len(bays))
	return out
}

// goesTo reports that the lead of a drive's port can go to a bay: that of a U.2 port is its own,
// and other drives have none there.
func (r *resolver) goesTo(s *sock, b *berth) bool {
	u2 := func(port machine.SocketID) bool { return r.sheet.Socket(port).Kind == machine.U2 }
	if s.Kind == machine.U2 {
		return b.reached(s.path)
	}
	return len(b.ports) == 0 || !slices.ContainsFunc(b.ports, u2) || b.reached(s.path)
}

// bayCost is what a bay costs a drive that it is offered to.
func (r *resolver) bayCost(s *sock, b *berth) int {
	cost := 0
	l := look{resolver: r, s: s}
	switch known.And(known.And(bayForm(&l), bayHeight(&l)), plugRight(&l)) {
	case known.No:
		cost += costNo
	case known.Unknown:
		cost += costUnknown
	}
	if r.b.Found == nil && !s.piece.New { // it lies in one of them
		cost /= 1000
	}
	d := s.drive()
	if len(b.Drives) > 0 && !slices.Contains(b.Drives, d.Form) || s.fedOtherwise() {
		cost += costMade
	}
	switch {
	case b.reached(s.path):
	case len(r.sheet.Bays) > 0:
		cost += costLead
	default:
		cost += costOthers
	}
	if b.Holder != "" && b.Holder != machine.HeldByScrews && b.HasHolder != known.Yes && !d.Form.Optical() {
		cost += costHolder
	}
	return cost + len(b.Drives) // one that takes nothing else
}

// foundBay is the bay in which a piece was found, "" where it was in none.
func (r *resolver) foundBay(id rig.ItemID) machine.BayID {
	if r.b.Found == nil {
		return ""
	}
	if len(r.sheet.Bays)+len(r.b.Found.Bays) > 0 {
		if r.foundIn == nil {
			r.foundIn = append([]rig.Lying{}, Bays(&rig.Rig{Sheet: r.sheet, Pieces: r.b.Pieces, Setup: *r.b.Found})...)
		}
		for _, l := range r.foundIn {
			if l.Item == id {
				return l.Bay
			}
		}
		return ""
	}
	at := r.b.Found.Where(id)
	if k := r.sheet.Socket(at.Top()); k != nil && !at.Nested() {
		if b, ok := r.sheet.OwnBay(k); ok {
			return b.ID
		}
	}
	return ""
}

// assigned gives every row a column of its own so that together they cost the least; the last
// column is there for all. It is the Hungarian method, with the last column told apart for
// each row.
func assigned(costs [][]int) []int {
	n := len(costs)
	last := len(costs[0]) - 1
	m := last + n
	cost := func(i, j int) int {
		switch {
		case j < last:
			return costs[i][j]
		case j == last+i:
			return costs[i][last]
		}
		return never
	}
	u, v, row, way := make([]int, n+1), make([]int, m+1), make([]int, m+1), make([]int, m+1)
	for i := 1; i <= n; i++ {
		row[0] = i
		j0 := 0
		least, used := make([]int, m+1), make([]bool, m+1)
		for j := range least {
			least[j] = math.MaxInt
		}
		for row[j0] != 0 {
			used[j0] = true
			i0, delta, j1 := row[j0], math.MaxInt, 0
			for j := 1; j <= m; j++ {
				if used[j] {
					continue
				}
				if c := cost(i0-1, j-1) - u[i0] - v[j]; c < least[j] {
					least[j], way[j] = c, j0
				}
				if least[j] < delta {
					delta, j1 = least[j], j
				}
			}
			for j := range used {
				if used[j] {
					u[row[j]] += delta
					v[j] -= delta
				} else {
					least[j] -= delta
				}
			}
			j0 = j1
		}
		for j0 != 0 {
			row[j0] = row[way[j0]]
			j0 = way[j0]
		}
	}
	out := make([]int, n)
	for j := 1; j <= m; j++ {
		if row[j] > 0 {
			out[row[j]-1] = min(j-1, last)
		}
	}
	return out
}

// taken says which drives lie in the bays that there are.
func (r *resolver) taken() []Reason {
	var out []Reason
	for i := range r.sockets {
		if s := &r.sockets[i]; s.inBay() && s.berth.id != "" {
			out = append(out, Reason{FromPlan, fact.Of(LiesInBay, s.piece.ID, s.bayName())})
		}
	}
	return out
}

// Adapter is the power adapter that a drive wants in a bay; false where the plug that reaches the bay
// is the drive's own.
func Adapter(d *part.Drive, bay *machine.Mount) (part.Fitting, bool) {
	from, to := plugOf(bay), plugAt(d)
	return part.Fitting{Kind: part.PowerAdapter, From: from, To: to}, from != to
}

// plugOf is the plug that reaches a bay.
func plugOf(m *machine.Mount) part.Plug {
	if m.Power == "" {
		return part.PlugSATA
	}
	return m.Power
}
