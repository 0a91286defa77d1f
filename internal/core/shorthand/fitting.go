package shorthand

// This file reads the words of the small parts that help another in.

import (
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// What words of fittings are about.
const (
	fittingIs attribute = "kind of fitting"
	driveEnd  attribute = "end at the drive"
	portEnd   attribute = "end at the port"
	leadLong  attribute = "length of the lead"
	fromPlug  attribute = "from"
	toPlug    attribute = "to"
	feeds     attribute = "plugs it feeds"
	crimped   attribute = "crimped"
	holdsForm attribute = "holds"
	fitsForm  attribute = "fits"
	thread    attribute = "thread"
	splits    attribute = "splits"
	supplyOf  attribute = "model of supply"
)

// plug is the words for a plug.
const plug = `(sata|slimline(?: sata)?|molex|4-pin peripheral|6-pin|8-pin|12V-2x6)`

var (
	lengthPhrase = read(`(\d{1,3}(?:\.\d)?) ?(mm|cm|m)(?: long)?`, func(r *reader, word string, m []string) error {
		long := quantity.Millimetres(float(m[1]) * map[string]float64{"mm": 1, "cm": 10, "m": 1000}[strings.ToLower(m[2])])
		if long < 10 || long > 2000 {
			return fact.Err(MeansNothing, word)
		}
		return r.claim(word, leadLong, long, fact.Of(IsLong, long))
	})
	leadPhrases = []phrase{
		read(`(straight|angled|right[- ]angled?) to (straight|angled|right[- ]angled?)`, func(r *reader, word string, m []string) error {
			if err := r.set(word, portEnd, end(m[1])); err != nil {
				return err
			}
			return r.claim(word, driveEnd, end(m[2]), fact.Of(LeadEnds, fact.Typed(end(m[1])), fact.Typed(end(m[2]))))
		}),
		read(`(straight|angled|right[- ]angled?|90°?)(?: end)?`, func(r *reader, word string, m []string) error {
			return r.claim(word, driveEnd, end(m[1]), fact.Of(LeadEnd, fact.Typed(end(m[1]))))
		}),
		lengthPhrase,
		read(`sata(?: ?(?:III|3|6 ?gb/s))?|data|leads?|cables?`, func(_ *reader, _ string, _ []string) error { return nil }),
	}
	powerPhrases = []phrase{
		read(plug+` to (?:([1-4]) ?x ?)?`+plug, func(r *reader, word string, m []string) error {
			if err := r.set(word, fromPlug, plugOf(m[1])); err != nil {
				return err
			}
			if m[2] != "" {
				if err := r.set(word, feeds, number(m[2])); err != nil {
					return err
				}
			}
			return r.claim(word, toPlug, plugOf(m[3]), fact.Of(FromTo, fact.Typed(plugOf(m[1])), fact.Typed(plugOf(m[3]))))
		}),
		read(`([1-4]) ?x|([1-4])[- ]way`, func(r *reader, word string, m []string) error {
			return r.claim(word, feeds, number(m[1]+m[2]), fact.Of(Feeds, number(m[1]+m[2])))
		}),
		say(`crimped`, crimped, quantity.Yes, IsCrimped),
		say(`moulded|molded`, crimped, quantity.No, IsMoulded),
		read(plug, func(r *reader, word string, m []string) error {
			return r.claim(word, fromPlug, plugOf(m[1]), fact.Of(FromPlug, fact.Typed(plugOf(m[1]))))
		}),
		lengthPhrase,
		say(`splitters?`, splits, true, IsSplitter),
		read(`power|adapters?|leads?|cables?`, func(_ *reader, _ string, _ []string) error { return nil }),
	}
	supplyPhrases = []phrase{
		read(`(?:([1-6]) ?x ?)?`+plug, func(r *reader, word string, m []string) error {
			if m[1] != "" {
				if err := r.set(word, feeds, number(m[1])); err != nil {
					return err
				}
			}
			return r.claim(word, toPlug, plugOf(m[2]), fact.Of(EndsIn, max(1, number(m[1])), fact.Typed(plugOf(m[2]))))
		}),
		read(`(?:of|for)[- ](?:a |the )?([A-Za-z][\w.-]{1,39})`, func(r *reader, word string, m []string) error {
			return r.claim(word, supplyOf, m[1], fact.Of(OfSupply, fact.Typed(m[1])))
		}),
		lengthPhrase,
		read(`supply|psu|modular|power|leads?|cables?`, func(_ *reader, _ string, _ []string) error { return nil }),
	}
	holderPhrases = []phrase{
		kindOfFitting(`(?:2\.5 ?mm )?spacers?`, part.Spacer),
		read(formWord+` (?:to|in|for) `+formWord+`(?: bay)?`, func(r *reader, word string, m []string) error {
			if err := r.set(word, fitsForm, formOf(m[2])); err != nil {
				return err
			}
			return r.claim(word, holdsForm, formOf(m[1]), fact.Of(HoldsIn, formOf(m[1]), formOf(m[2])))
		}),
		say(`(?:slim|slimline)(?: optical)?(?: bay)?`, fitsForm, part.FormSlim, FitsBay, part.FormSlim),
		read(formWord, func(r *reader, word string, m []string) error {
			return r.claim(word, holdsForm, formOf(m[1]), fact.Of(HoldsOne, formOf(m[1])))
		}),
		say(`M3`, thread, part.M3, HasThread, fact.Typed(part.M3)),
		say(`6-32`, thread, part.UNC632, HasThread, fact.Typed(part.UNC632)),
		kindOfFitting(`(?:drive )?brackets?|frames?`, part.Bracket),
		kindOfFitting(`(?:optical bay )?(?:drive )?(?:cadd(?:y|ies)|sleds?)`, part.Caddy),
		kindOfFitting(`(?:drive )?screws?`, part.Screws),
		read(`drive|optical|ssd|with|and`, func(_ *reader, _ string, _ []string) error { return nil }),
	}
)

func kindOfFitting(pattern string, k part.FittingKind) phrase {
	return read(pattern, func(r *reader, word string, _ []string) error {
		if k == part.Screws && r.has(fittingIs) { // those that come with it
			return nil
		}
		if old, ok := r.claims[fittingIs]; ok && old.value == part.Screws {
			delete(r.claims, fittingIs)
		}
		return r.claim(word, fittingIs, k, fact.Of(IsFitting, fact.Typed(k)))
	})
}

// formWord is a form of drive by its size.
const formWord = `(2\.5|3\.5|5\.25|slim(?:line)? optical|slim(?:line)?)` + inch

func formOf(word string) part.Form {
	switch word[0] {
	case '2':
		return part.Form2i5
	case '3':
		return part.Form3i5
	case '5':
		return part.Form5i25
	}
	return part.FormSlim
}

func end(word string) part.LeadEnd {
	if strings.HasPrefix(strings.ToLower(word), "s") {
		return part.StraightEnd
	}
	return part.AngledEnd
}

// fitting makes the part.
func (r *reader) fitting() error {
	f := &part.Fitting{Kind: of[part.FittingKind](r, fittingIs), End: of[part.LeadEnd](r, driveEnd), PortEnd: of[part.LeadEnd](r, portEnd), Length: of[quantity.Millimetres](r, leadLong),
		From: of[part.Plug](r, fromPlug), To: of[part.Plug](r, toPlug), Plugs: of[int](r, feeds), Crimped: of[quantity.Answer](r, crimped),
		Holds: of[part.Form](r, holdsForm), Fits: of[part.Form](r, fitsForm), Thread: of[part.Thread](r, thread), Supply: of[string](r, supplyOf)}
	r.out.Part.Fitting = f
	switch r.kind {
	case lead:
		f.Kind = part.DataLead
		r.lacks(f.End != "", LacksEnd)
		r.lacks(f.PortEnd != "", LacksPortEnd)
		r.lacks(f.Length.Known(), LacksLeadLength)
	case powerLead:
		f.Kind = part.PowerAdapter
		switch {
		case f.From == "":
			r.ask(WhichPlug, "molex", "sata")
		case f.To == "" && f.Plugs > 1 && r.has(splits): // a splitter gives what it takes
			f.To = f.From
		case f.To == "" && r.has(splits):
			r.ask(HowManyPlugs, "2x", "3x", "4x")
		case f.To == "":
			from := plugWord(f.From)
			r.ask(WhichPlugs, from+" to sata", from+" to 2x sata")
		}
		if f.From == part.PlugMolex {
			r.lacks(f.Crimped != quantity.Unknown, LacksMake)
		}
	case supplyLead:
		f.Kind = part.SupplyLead
		if f.To == "" {
			r.ask(WhichPlug, "sata", "molex")
		}
		r.lacks(f.Supply != "", LacksSupplyOf)
	default:
		if f.Kind == "" {
			f.Kind = part.Bracket
		}
		switch f.Kind {
		case part.Screws:
			if f.Thread == "" {
				r.ask(WhichThread, string(part.M3), string(part.UNC632))
			}
		case part.Bracket, part.Caddy:
			r.lacks(f.Holds != "", LacksHolds)
			r.lacks(f.Fits != "", LacksFits)
			r.lacks(f.Thread != "", LacksThread)
		}
		if f.Kind == part.Screws && f.Holds != "" || f.Kind == part.Spacer && (f.Holds != "" || f.Fits != "" || f.Thread != "") {
			return fact.Err(MeansNothing, r.word(holdsForm, fitsForm, thread))
		}
	}
	return nil
}
