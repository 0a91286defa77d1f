package fit

// This file is what somebody looked up: where it is said, and where sheet or label say
// otherwise.

import (
	"slices"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// lookedOtherwise finds what was seen to be another than the sheet or a label says.
func lookedOtherwise(r *resolver, found func(trouble)) {
	for i := range r.b.Against {
		found(trouble{truth: known.No, item: -1, n: i})
	}
}

func sayLookedOtherwise(r *resolver, t *trouble) telling {
	a := &r.b.Against[t.n]
	return telling{says: fact.Of(LookedOtherwise, a.Learned, Stated{a.Fact, a.Stated}),
		because: []Reason{{FromLooked, fact.Of(LookedUp, a.Learned)}, {describedBy(a.Fact), fact.Of(StatedAs, Stated{a.Fact, a.Stated})}},
		advice:  []fact.Fact{fact.Of(LookAgain)}}
}

// Stated is a fact as the sheet or a label says it, as an argument of facts.
type Stated rig.Learned

// describedBy is what states a fact, if anything does.
func describedBy(f rig.Fact) Source {
	if f.Item != "" {
		return FromPart
	}
	return FromSheet
}

// statedOf is the attributes that a reason states of its first argument.
var statedOf = map[fact.Code][]rig.Attr{
	KeyIs: {rig.Keyed}, PostsAt: {rig.Posts}, RoomWide: {rig.RoomBeside}, RoomTall: {rig.RoomAbove}, UnderCooler: {rig.RoomAbove}, RoomDeep: {rig.RoomUnder},
	LiesUnder: {rig.RoomCovered}, WiredFor: {rig.Speaks}, SocketLink: {rig.PlaceGen, rig.PlaceLanes, rig.SATAPort}, PortUSBIs: {rig.USBPort}, SlotIs: {rig.Long},
	BayTakesForms: {rig.BayTakes}, BayTakesHigh: {rig.BayHeight}, NoLeadAt: {rig.HasLead}, SocketHasNone: {rig.HasSink},
	NotchesAre: {rig.Notched}, PartLong: {rig.CardLong}, PartWide: {rig.CardWide}, PartTall: {rig.CardTall}, PartDeep: {rig.CardDeep}, PartHigh: {rig.DriveTall, rig.ModuleTall},
	DriveSpeaks: {rig.Protocol}, PartLink: {rig.PartGen, rig.PartLanes}, PartUSBIs: {rig.PartUSB}, EdgeIs: {rig.Edge}, FullBracketOnly: {rig.Bracket},
	ModuleIsGen: {rig.ModuleGen}, ModuleIsReg: {rig.ModuleReg}, ModuleIsOf: {rig.ModuleSize}, RunsAt: {rig.ModuleVolt}, CanRunAt: {rig.ModuleRate}, BringsNoHeatsink: {rig.HasSink},
	BoardTakesGen: {rig.BoardMemory}, BoardTakesReg: {rig.BoardReg}, BoardFeeds: {rig.BoardVolt}, BoardRunsNoClocks: {rig.BoardClock}, CardsUpTo: {rig.CaseLong},
	BoxOneByOne: {rig.Queues}, BoxNoTrim: {rig.Trims}, BoxTranslates: {rig.Translates}, LowOnly: {rig.CaseLow}, SupplyFeeds3V3: {rig.Feeds3V3},
}

// sourced says of each reason where what it states is from: sheet or label, somebody who
// looked, a screen; what nobody states is usual, or follows from a standard.
func (r *resolver) sourced(because []Reason) []Reason {
	for i := range because {
		why := &because[i]
		attrs := statedOf[why.Fact.Code]
		if why.From != FromSheet && why.From != FromPart || len(attrs) == 0 {
			continue
		}
		var about rig.Fact
		if len(why.Fact.Args) > 0 {
			switch x := why.Fact.Args[0].(type) {
			case rig.ItemID:
				about.Item = x
			case rig.Path:
				about.Socket = x
			case machine.BayID:
				about.Socket = rig.ParsePath(string(x))
			}
		}
		why.From = r.source(about, attrs)
	}
	return because
}

// source is where some attributes of a piece, a place or the machine are known from
// together.
func (r *resolver) source(about rig.Fact, attrs []rig.Attr) Source {
	from := FromStandard
	for _, a := range attrs {
		f := about
		f.Attr = a
		if s := r.place(f.Socket); !s.path.IsZero() { // else a bay that is listed apart
			f = s.fact(a)
		}
		switch {
		case slices.Contains(r.b.Looked, f):
			return FromLooked
		case slices.Contains(r.b.Screened, f):
			return FromSeen
		case from == FromSheet || from == FromPart:
		case r.b.States(f):
			from = describedBy(f)
		case slices.Contains(usuallySo, a):
			from = FromUsual
		}
	}
	return from
}

// usuallySo is what is taken as usual and may stop a part.
var usuallySo = []rig.Attr{rig.ModuleReg, rig.BoardReg, rig.BoardVolt}

// Usual lists what is not known of the parts that are fitted anew or moved and of their
// places, and was taken as it nearly always is. It is worked out when it is asked for.
func (a *Answer) Usual() []rig.Fact {
	r := a.settled
	if r == nil {
		return nil
	}
	var out []rig.Fact
	for i := range r.sockets {
		s := &r.sockets[i]
		if s.piece == nil || s.state != Live || !s.piece.New && r.asFound(s.piece.ID, s.path) {
			continue
		}
		l := look{resolver: r, s: s, notes: true}
		for _, n := range byKind[s.kind] {
			Rules[n].holds(&l)
		}
		out = rig.With(out, l.usual...)
	}
	return out
}
