package fit

// This file is the leads of modular supplies. Their plugs at the supply fit those of other
// models, and are wired otherwise: 12 V where a drive expects 5 V kills it at the first start.

import (
	"slices"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/known"
	"deepbay/internal/core/part"
)

// belongs is whether a supply lead is one of the supply in this machine.
func (r *resolver) belongs(f *part.Fitting) known.Truth {
	if f.Supply == "" || r.sheet.Chassis.Supply == "" {
		return known.Unknown
	}
	return known.Of(sameModel(f.Supply, r.sheet.Chassis.Supply))
}

// sameModel compares the names of models as they are printed and typed.
func sameModel(a, b string) bool {
	plain := func(s string) string {
		return strings.ToLower(strings.NewReplacer(" ", "", "-", "", "_", "", ".", "").Replace(s))
	}
	return plain(a) == plain(b)
}

// supplyLeads finds the supply leads among the pieces of which it is so that they belong.
func (r *resolver) supplyLeads(is known.Truth, found func(trouble)) {
	var all []int
	for i := range r.b.Pieces {
		if f := r.b.Pieces[i].Part.Fitting; f != nil && f.Kind == part.SupplyLead && r.belongs(f) == is {
			all = append(all, i)
		}
	}
	for _, i := range sortedByID(all, r.b.Pieces) {
		found(trouble{truth: known.No, item: i})
	}
}

func supplyLead(r *resolver, found func(trouble))        { r.supplyLeads(known.No, found) }
func supplyLeadUnknown(r *resolver, found func(trouble)) { r.supplyLeads(known.Unknown, found) }

func saySupplyLead(r *resolver, t *trouble) telling {
	p := &r.b.Pieces[t.item]
	return telling{says: fact.Of(LeadOfOther, p.ID, fact.Typed(p.Part.Fitting.Supply), fact.Typed(r.sheet.Chassis.Supply)),
		because: []Reason{{FromPart, fact.Of(LeadIsOf, p.ID, fact.Typed(p.Part.Fitting.Supply))}, {FromSheet, fact.Of(SupplyIs, fact.Typed(r.sheet.Chassis.Supply))}, {FromUsual, fact.Of(WiredOtherwise)}},
		advice:  []fact.Fact{fact.Of(LeadOfSupply)}}
}

func saySupplyUnknown(r *resolver, t *trouble) telling {
	p := &r.b.Pieces[t.item]
	out := telling{says: fact.Of(LeadOfUnknown, p.ID), because: []Reason{{FromUsual, fact.Of(WiredOtherwise)}}, advice: []fact.Fact{fact.Of(ReadSupply)}}
	if r.sheet.Chassis.Supply != "" {
		out.because = slices.Insert(out.because, 0, Reason{FromSheet, fact.Of(SupplyIs, fact.Typed(r.sheet.Chassis.Supply))})
	}
	return out
}

// suppliedPlugs is the plugs that supply leads at hand add, which surely belong.
func (r *resolver) suppliedPlugs() (out plugs) {
	for i := range r.b.Pieces {
		f := r.b.Pieces[i].Part.Fitting
		if f != nil && f.Kind == part.SupplyLead && plugIndex(f.To) >= 0 && r.belongs(f) == known.Yes {
			out[plugIndex(f.To)] += f.Feeds()
		}
	}
	return out
}
