package job

// This file is what the machine is for after the job: what it starts from, which drives work
// together, and what each is for. What nobody answered holds the work back, for it decides
// what may be erased.

import (
	"slices"
	"strconv"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/volume"
	"deepbay/internal/core/workorder"
)

// Role is what a piece is for once the job is done; "" is not said.
type Role string

// The roles.
const (
	RoleSystem  Role = "system"
	RoleData    Role = "data"
	RoleScratch Role = "scratch"
	RoleArray   Role = "array"  // a member, as fast as the slowest
	RoleLeaves  Role = "leaves" // it was found, and goes
	RoleTool    Role = "tool"   // it came to help, and goes again
)

// Values lists the roles for the formats.
func (Role) Values() []string {
	return []string{string(RoleSystem), string(RoleData), string(RoleScratch), string(RoleArray), string(RoleLeaves), string(RoleTool)}
}

// Block is what holds the work back besides the rules of fit, with moves that would do.
type Block struct {
	Says  fact.Fact
	Moves []rig.Move
	Start bool // it is answered by saying what starts the machine
}

// last is the plan with which the machine leaves.
func (j *Job) last() *rig.Setup {
	if n := len(j.Later); n > 0 {
		return &j.Later[n-1].Planned
	}
	return &j.Planned
}

// drives is the pieces that are drives and hold data.
func (j *Job) drives() []*Item {
	var out []*Item
	for i := range j.Items {
		if p := j.Part(j.Items[i].Part); p.Drive != nil && !p.Drive.Form.Optical() {
			out = append(out, &j.Items[i])
		}
	}
	return out
}

// array finds an array by its name, nil for none.
func (j *Job) array(id rig.ArrayID) *rig.DriveArray {
	for i := range j.Arrays {
		if j.Arrays[i].ID == id {
			return &j.Arrays[i]
		}
	}
	return nil
}

// Starts says what starts the machine afterwards: what somebody said, else what follows from
// what its drives hold. Where nothing tells, it is none, and the block says what to answer.
func (j *Job) Starts() (says fact.Fact, block fact.Fact) {
	s, plan := j.Wish.Starts, j.last()
	placed := func(id rig.ItemID) bool { return !plan.Where(id).IsZero() }
	if s.How != "" {
		switch a := j.array(s.Array); {
		case s.How == rig.StartNothing:
			return fact.Of(StartsNothing), fact.Fact{}
		case s.Array != "" && a == nil:
			return fact.Fact{}, fact.Of(StartArrayGone)
		case s.Array != "":
			return fact.Of(StartsArray, fact.Of(ArrayNamed, fact.Typed(a.Level), a.Members)), fact.Fact{}
		case j.Item(s.Item) == nil || !placed(s.Item):
			return fact.Fact{}, fact.Of(StartNotThere, s.Item)
		case s.How == rig.FromDisk && j.Item(s.Item).Holds == rig.Blank:
			return fact.Fact{}, fact.Of(StartIsBlank, s.Item)
		}
		return fact.Of(map[rig.StartHow]fact.Code{rig.Install: StartsInstall, rig.CopyOver: StartsCopy, rig.FromDisk: StartsDisk}[s.How], s.Item), fact.Fact{}
	}
	for _, it := range j.drives() {
		if placed(it.ID) && (it.Holds == rig.System || it.Role == RoleSystem && it.Holds == "" && !it.New) {
			return fact.Of(StartsAsItCame, it.ID), fact.Fact{}
		}
	}
	for _, it := range j.drives() { // one that is meant for it: by a new install or a copy
		if p := j.Part(it.Part); placed(it.ID) && it.New && (it.Role == RoleSystem || j.Wish.System(p.Drive)) {
			return fact.Of(StartsNew, it.ID), fact.Fact{}
		}
	}
	if j.Fresh {
		return fact.Fact{}, fact.Of(StartUnsaid)
	}
	for _, it := range j.drives() {
		if it.Holds != rig.Data && it.Holds != rig.Blank && !j.first().Where(it.ID).IsZero() && !placed(it.ID) {
			return fact.Fact{}, fact.Of(StartMayLeave, it.ID)
		}
	}
	return fact.Of(StartsAsBefore), fact.Fact{}
}

// blocks is what holds the work back besides the rules of fit: of the machine as planned, and
// of what its work order does not reach.
func (j *Job) blocks(planned *fit.Answer, lost []workorder.Lost) []Block {
	var out []Block
	if len(j.Items) == 0 {
		return nil
	}
	if _, why := j.Starts(); why.Is() {
		out = append(out, Block{Says: why, Start: true})
	}
	plan := j.last()
	for i := range j.Arrays {
		a := &j.Arrays[i]
		for _, id := range a.Members {
			if plan.Where(id).IsZero() {
				out = append(out, Block{Says: fact.Of(MemberNotThere, id)})
			}
		}
		if st := j.Sheet.Setting(a.Mode.Setting); st != nil && rig.Value(st, plan.Settings) != a.Mode.Value {
			out = append(out, Block{Says: fact.Of(ArrayMode, Setting(a.Mode)), Moves: []rig.Move{{Setting: a.Mode.Setting, Value: a.Mode.Value}}})
		}
	}
	out = append(out, j.stuckBlocks()...)
	if j.Practice.Of(practice.Beyond) == practice.Never {
		for i := range planned.Findings {
			f := &planned.Findings[i]
			if (f.Code == "memory-trial" || f.Code == "module-trial") && (f.Item == "" || j.Found.Where(f.Item).IsZero()) {
				out = append(out, Block{Says: fact.Of(BeyondPractice, f.Says)})
				break
			}
		}
	}
	for _, l := range lost {
		if l.Item != "" {
			out = append(out, Block{Says: fact.Of(OutOfReach, l.Item, machine.SocketID(l.Place))})
		} else {
			out = append(out, Block{Says: fact.Of(NoWayBack, l.Layer)})
		}
	}
	return out
}

// Afterwards is what starts the machine, and what is to be answered before anything is done.
func (j *Job) Afterwards() (starts fact.Fact, blocks []Block) {
	starts, _ = j.Starts()
	if work := j.Work(); len(work.Steps) > 0 {
		planned := j.PlannedRig()
		a := fit.Resolve(&planned)
		blocks = j.blocks(&a, work.Lost)
	}
	return starts, blocks
}

// validateArrays reports arrays that contradict themselves.
func (j *Job) validateArrays(l *problem.List) {
	ids, in := map[rig.ArrayID]bool{}, map[rig.ItemID]bool{}
	for i := range j.Arrays {
		a, at := &j.Arrays[i], "/arrays/"+strconv.Itoa(i)
		if ids[a.ID] {
			l.Add(at+"/id", fact.Of(ArrayTwice, fact.Typed(a.ID)))
		}
		ids[a.ID] = true
		if n := len(a.Members); !a.Level.Takes(n) {
			l.Add(at+"/members", fact.Of(TooFewMembers, fact.Typed(a.Level), a.Level.Fewest(), n))
		}
		for k, id := range a.Members {
			here := at + "/members/" + strconv.Itoa(k)
			it := j.Item(id)
			switch {
			case it == nil:
				l.Add(here, fact.Of(NoItemIsNamed, id))
			case j.Part(it.Part).Drive == nil || j.Part(it.Part).Drive.Form.Optical():
				l.Add(here, fact.Of(NoMember, j.Name(id)))
			case in[id]:
				l.Add(here, fact.Of(MemberTwice, j.Name(id)))
			}
			in[id] = true
		}
		if a.By == rig.BySystem && a.Mode.Setting != "" {
			l.Add(at+"/mode", fact.Of(NoModeNeeded))
		}
		if st := j.Sheet.Setting(a.Mode.Setting); a.Mode.Setting != "" && (st == nil || !st.Offers(a.Mode.Value)) {
			l.Add(at+"/mode", fact.Of(NoSettingIsNamed, a.Mode.Setting))
		}
	}
}

// role keeps what a piece is for.
func (a *applier) role() fact.Fact {
	c := &a.change
	if a.job.mustKnow(&a.list, "/item", c.Item); len(a.list) > 0 {
		return fact.Fact{}
	}
	role := Role(c.Value)
	if role != "" && !slices.Contains(role.Values(), c.Value) {
		return a.refuse("/value", fact.Of(NoSuchRole, fact.Typed(c.Value)))
	}
	a.job.Item(c.Item).Role = role
	if role == "" {
		return fact.Of(RoleOpen, c.Item)
	}
	return fact.Of(RoleIs, c.Item, fact.Typed(role))
}

// setArray makes an array, changes it, or gives it up.
func (a *applier) setArray() fact.Fact {
	c, j := &a.change, &a.job
	if c.Do == DoNoArray {
		i := slices.IndexFunc(j.Arrays, func(x rig.DriveArray) bool { return string(x.ID) == c.Value })
		if i < 0 {
			return a.refuse("/value", fact.Of(NoSuchArray, fact.Typed(c.Value)))
		}
		says := fact.Of(NoArrayNow, fact.Of(ArrayNamed, fact.Typed(j.Arrays[i].Level), j.Arrays[i].Members))
		for _, id := range j.Arrays[i].Members {
			if it := j.Item(id); it.Role == RoleArray {
				it.Role = ""
			}
		}
		j.Layouts = slices.DeleteFunc(j.Layouts, func(l volume.Layout) bool { return l.Array == j.Arrays[i].ID })
		j.Arrays = slices.Delete(slices.Clone(j.Arrays), i, i+1)
		return says
	}
	if c.Array == nil {
		return a.refuse("/array", fact.Of(NoSuchArray, fact.Typed("")))
	}
	next := *c.Array
	for _, id := range next.Members {
		if !next.Came && !j.mayErase(id) && j.array(next.ID) == nil && !c.Sure {
			return a.refuse("/sure", fact.Of(ErasesWhat, id))
		}
	}
	for _, t := range j.Transfers {
		if slices.Contains(next.Members, t.From) || slices.Contains(next.Members, t.To) {
			return a.refuse("/array/members", fact.Of(ArrayMoves, t.From, t.To))
		}
	}
	j.Layouts = slices.DeleteFunc(j.Layouts, func(l volume.Layout) bool { return l.Item != "" && slices.Contains(next.Members, l.Item) }) // the array gets volumes
	j.Arrays = append(slices.DeleteFunc(slices.Clone(j.Arrays), func(x rig.DriveArray) bool { return x.ID == next.ID }), next)
	for _, id := range next.Members {
		if it := j.Item(id); it != nil {
			it.Role = RoleArray
		}
	}
	return fact.Of(ArrayIs, fact.Of(ArrayNamed, fact.Typed(next.Level), next.Members))
}

// fresh says that the machine is new and that nothing lies in it, or that it is not.
func (a *applier) fresh() fact.Fact {
	yes := a.change.Value == "yes"
	if yes && (len(a.job.Found.Placements) > 0 || len(a.job.Past) > 0) {
		return a.refuse("/value", fact.Of(NotFresh))
	}
	a.job.Fresh = yes
	return fact.Of(map[bool]fact.Code{true: IsFresh, false: IsNotFresh}[yes])
}
