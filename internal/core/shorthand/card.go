package shorthand

// This file reads the words of cards, carriers and adapters.

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/part"
	"deepbay/internal/core/quantity"
)

// What words of cards are about.
const (
	edge      attribute = "edge"
	wired     attribute = "wired lanes"
	openings  attribute = "openings"
	cardLong  attribute = "card length"
	low       attribute = "low bracket"
	use       attribute = "use"
	cardSlot  attribute = "goes into"
	plugs     attribute = "plugs"
	places    attribute = "positions"
	takes     attribute = "position takes"
	chip      attribute = "switch"
	firstAt   attribute = "first lanes"
	eachLanes attribute = "lanes of each position"
	posts     attribute = "lengths of positions"
	placeSATA attribute = "generation of ports"
)

// graphics is the use of a card that shows a picture.
const graphics part.CardUse = "graphics"

// cardNouns are the words that say no more than that it is a card.
const cardNouns = `(?:card|adapter|carrier|controller)`

var cardPhrases = slices.Concat([]phrase{
	say(`(?:video )?capture|frame grabber`, use, part.CaptureCard, IsForCapture),
	read(`(?:(\d) ?x ?)?(sata) power(?: plugs?)?`, (*reader).plugged),
	say(`(?:m\.?2|nvme) carrier`, takes, part.TakesM2, TakesM2),
	// What is adapted: the edge first, the position after it.
	read(`(m\.?2|(?:pcie )?x(?:1|4|8|16)|pcie(?: x(?:1|4|8|16))?) to (?:(\d) ?x ?|(\d)[- ]ports? )?(m\.?2|sata|u\.?2|pcie(?: x(1|4|8|16))?|slot)(?: adapter)?`, (*reader).adapts),
	read(`(\d{1,2}) ?(?:x|×)? ?(m\.?2|u\.?2)(?: (?:sockets?|slots?|positions?))?`, (*reader).holds),
	read(`(?:dual|two|2)[- ]?(m\.?2)`, func(r *reader, word string, m []string) error { return r.holds(word, []string{"", "2", m[1]}) }),
	read(`(?:quad|four|4)[- ]?(m\.?2)`, func(r *reader, word string, m []string) error { return r.holds(word, []string{"", "4", m[1]}) }),
	read(`(\d{1,2}) ?x ?(slots?)`, (*reader).holds),
	read(`(\d{1,2})[- ]?(?:x|ports?)? ?sata(?: ?(III|II|I|[123]))?(?: ports?)?`, (*reader).ports),
	read(`(\d{1,2})[- ]?ports?`, (*reader).someports),
	read(`sata(?: ?(III|II|I|[123]))?(?: ports?)?`, func(r *reader, word string, m []string) error { return r.ports(word, []string{"", "", m[1]}) }),
	say(`no[- ]switch|without switch|plain|passive`, chip, false, NoChip),
	say(`(?:with )?switch(?: chip)?`, chip, true, HasChip),
	read(`lanes((?:[ -]\d{1,2}){1,16})`, func(r *reader, word string, m []string) error {
		list := strings.Join(strings.FieldsFunc(m[1], func(c rune) bool { return c == ' ' || c == '-' }), " ")
		return r.claim(word, firstAt, list, fact.Of(FirstLanes, fact.Typed(list)))
	}),
	read(`each-x(1|2|4|8|16)`, func(r *reader, word string, m []string) error {
		return r.claim(word, eachLanes, quantity.Lanes(number(m[1])), fact.Of(LanesEach, number(m[1])))
	}),
	read(`((?:22|25|30)(?:30|42|52|60|80|110)(?:/(?:22|25|30)(?:30|42|52|60|80|110)){0,5})(?:-([SD]\d))?((?:-[ABEM]){0,2})`, (*reader).postsOrSize),
}, m2Phrases, []phrase{
	// The card itself.
	read(`(?:pcie|pci express)[ -]?(?:gen ?)?([1-6])(?:\.\d)?(?: ?x ?(1|4|8|16))?`, (*reader).genAndEdge),
	read(`gen ?([1-6])(?: ?x ?(1|4|8|16))?`, (*reader).genAndEdge),
	read(`(?:wired|electrical(?:ly)?)[ -]?x?(1|2|4|8|16)|x(1|2|4|8|16) (?:wired|electrical(?:ly)?)`, func(r *reader, word string, m []string) error {
		n := number(m[1] + m[2])
		return r.claim(word, wired, quantity.Lanes(n), fact.Of(WiredWith, n))
	}),
	read(`(?:pcie )?x ?(1|4|8|16)(?: slot)?(?: `+cardNouns+`)?`, func(r *reader, word string, m []string) error { return r.edged(word, m[1]) }),
	read(`([1-4])(?:\.([05]))?[- ](?:slots?|openings?)(?: wide)?`, (*reader).covers),
	read(`(single|dual|double|triple)[- ]slot`, func(r *reader, word string, m []string) error {
		return r.covers(word, []string{"", map[string]string{"single": "1", "dual": "2", "double": "2", "triple": "3"}[strings.ToLower(m[1])], ""})
	}),
	read(`(\d{2,3})(?:\.\d)? ?x ?\d{2,3}(?:\.\d)?(?: ?x ?\d{1,3}(?:\.\d)?)? ?mm|(\d{2,3}) ?mm(?: long)?`, func(r *reader, word string, m []string) error {
		long := millimetres(m[1] + m[2])
		return r.claim(word, cardLong, long, fact.Of(CardLong, long))
	}),
	say(`low[- ]profile(?: bracket)?|LP|half[- ]height`, low, quantity.Yes, LowBracket),
	say(`full[- ]height(?: bracket)?|full[- ]profile`, low, quantity.No, FullBracket),
	read(`(?:(\d) ?x ?)?(6-?pin|8-?pin|6\+2-?pin|12V-?2x6|12VHPWR|16-?pin|molex|4-pin peripheral)(?: (?:plugs?|power))?`, (*reader).plugged),
	read(`(\d{1,3}(?:\.\d)?) ?W`, func(r *reader, word string, m []string) error {
		return r.claim(word, watts, float(m[1]), fact.Of(DrawsUpTo, fact.Typed(m[1])))
	}),
	// What it is for.
	say(`graphics(?: card)?|gpu|video(?: card)?|display`, use, graphics, IsForPictures),
	say(`(?:[\d.]+ ?(?:gbe|gbit|gb/s) )?(?:network|lan|ethernet|nic)|[\d.]+ ?gbe`, use, part.NetworkCard, IsForNetwork),
	say(`wi-?fi(?: [4-7]e?)?|wireless|wlan|radio`, use, part.WirelessCard, IsForRadio),
	say(`sound|audio`, use, part.SoundCard, IsForSound),
	say(`m\.?2`, cardSlot, "m2", IsM2Card),
	say(`u\.?2`, takes, part.TakesU2, TakesU2),
	read(`pcie|`+cardNouns+`s?|raid|hba`, func(_ *reader, _ string, _ []string) error { return nil }),
})

// edged is the length of a card's edge. How many of its lanes are wired is another fact.
func (r *reader) edged(word, n string) error {
	return r.claim(word, edge, quantity.Lanes(number(n)), fact.Of(EdgeOf, number(n)))
}

// genAndEdge is a generation and, where it follows, the length of the edge.
func (r *reader) genAndEdge(word string, m []string) error {
	if m[2] != "" {
		if err := r.edged(word, m[2]); err != nil {
			return err
		}
	}
	return r.ended(word, m[1], "")
}

// covers is how many rear openings a card takes: half of one is one that nothing else has.
func (r *reader) covers(word string, m []string) error {
	n := number(m[1])
	if m[2] == "5" {
		n++
	}
	if n < 1 || n > 4 {
		return fact.Err(MeansNothing, word)
	}
	return r.claim(word, openings, n, fact.Of(Covers, n))
}

// plugWords is the plugs by the words for them.
var plugWords = map[string]part.Plug{"6pin": part.Plug6, "8pin": part.Plug8, "6+2pin": part.Plug8, "12v2x6": part.Plug16, "12vhpwr": part.Plug16, "16pin": part.Plug16,
	"sata": part.PlugSATA, "molex": part.PlugMolex, "4pinperipheral": part.PlugMolex, "slimline": part.PlugSlim, "slimlinesata": part.PlugSlim}

func plugOf(word string) part.Plug {
	return plugWords[strings.ToLower(strings.NewReplacer("-", "", " ", "").Replace(word))]
}

// plugged is power plugs a card needs beside the slot.
func (r *reader) plugged(word string, m []string) error {
	n := max(1, number(m[1]))
	if n > 4 {
		return fact.Err(MeansNothing, word)
	}
	list := of[string](r, plugs)
	for range n {
		list += string(plugOf(m[2])) + "/"
	}
	if strings.Count(list, "/") > 4 {
		return fact.Err(MeansNothing, word)
	}
	r.claims[plugs] = claim{word, list}
	r.means(word, fact.Of(NeedsPlugs, n, fact.Typed(plugOf(m[2]))))
	return nil
}

// takesOf is what positions take, by the words for it.
func takesOf(word string) part.Takes {
	switch w := strings.ToLower(word); {
	case strings.HasPrefix(w, "m"):
		return part.TakesM2
	case strings.HasPrefix(w, "u"):
		return part.TakesU2
	case strings.HasPrefix(w, "sata"):
		return part.TakesSATA
	}
	return part.TakesSlot
}

// adapts is "m.2 to sata" or "x4 to m.2".
func (r *reader) adapts(word string, m []string) error {
	from := strings.ToLower(m[1])
	if strings.HasPrefix(from, "m") {
		if err := r.set(word, cardSlot, "m2"); err != nil {
			return err
		}
	} else if i := strings.LastIndex(from, "x"); i >= 0 {
		if err := r.set(word, edge, quantity.Lanes(number(from[i+1:]))); err != nil {
			return err
		}
	}
	if n := number(m[2] + m[3]); n > 0 {
		if err := r.set(word, places, n); err != nil {
			return err
		}
	} else if t := takesOf(m[4]); t != part.TakesSATA {
		if err := r.set(word, places, 1); err != nil {
			return err
		}
	}
	if m[5] != "" {
		if err := r.set(word, eachLanes, quantity.Lanes(number(m[5]))); err != nil {
			return err
		}
	}
	return r.claim(word, takes, takesOf(m[4]), fact.Of(Adapts, takesOf(m[4])))
}

// holds is "4x m.2": so many positions of a kind.
func (r *reader) holds(word string, m []string) error {
	n := number(m[1])
	if n < 1 || n > 16 {
		return fact.Err(MeansNothing, word)
	}
	if err := r.set(word, places, n); err != nil {
		return err
	}
	return r.claim(word, takes, takesOf(m[2]), fact.Of(Holds, n, takesOf(m[2])))
}

func (r *reader) someports(word string, m []string) error {
	n := number(m[1])
	if n < 1 || n > 16 {
		return fact.Err(MeansNothing, word)
	}
	return r.claim(word, places, n, fact.Of(HasPorts, n))
}

// ports is SATA ports, with their count or without.
func (r *reader) ports(word string, m []string) error {
	if m[1] != "" {
		if n := number(m[1]); n < 1 || n > 16 {
			return fact.Err(MeansNothing, word)
		}
		if err := r.set(word, places, number(m[1])); err != nil {
			return err
		}
	}
	if m[2] != "" {
		if err := r.set(word, placeSATA, quantity.Gen(sataGen(m[2]))); err != nil {
			return err
		}
	}
	return r.claim(word, takes, part.TakesSATA, fact.Of(HoldsPorts))
}

// postsOrSize is the lengths a carrier has posts for, or the size of a card for an M.2
// socket: what the card is tells which.
func (r *reader) postsOrSize(word string, m []string) error {
	return r.set(word, posts, m[1]+"|"+m[2]+"|"+m[3])
}

// sized settles postsOrSize.
func (r *reader) sized(isM2 bool) ([]quantity.Millimetres, error) {
	c, ok := r.claims[posts]
	if !ok {
		return nil, nil
	}
	m := strings.SplitN(c.value.(string), "|", 3) //nolint:forcetypeassert // postsOrSize alone claims it
	list := strings.Split(m[0], "/")
	if isM2 {
		if len(list) > 1 {
			return nil, fact.Err(MeansNothing, c.word)
		}
		return nil, r.designation(c.word, []string{"", list[0][:2], list[0][2:], m[1], m[2]})
	}
	if m[1] != "" || m[2] != "" {
		return nil, fact.Err(MeansNothing, c.word)
	}
	var out []quantity.Millimetres
	for _, s := range list {
		wide, long := millimetres(s[:2]), millimetres(s[2:])
		if !slices.Contains(m2Sizes[wide], long) || wide != 22 {
			return nil, fact.Err(MeansNothing, c.word)
		}
		if !slices.Contains(out, long) {
			out = append(out, long)
		}
	}
	slices.Sort(out)
	r.means(c.word, fact.Of(PostsFor, out))
	return out, nil
}

// card makes the part.
func (r *reader) card() error {
	c := &part.Card{Connector: of[quantity.Lanes](r, edge), Gen: of[quantity.Gen](r, generation), Lanes: of[quantity.Lanes](r, wired), Openings: of[int](r, openings),
		LengthMM: of[quantity.Millimetres](r, cardLong), LowBracket: of[quantity.Answer](r, low), Watts: of[float64](r, watts)}
	r.out.Part.Card = c
	for _, p := range strings.FieldsFunc(of[string](r, plugs), func(c rune) bool { return c == '/' }) {
		c.Plugs = append(c.Plugs, part.Plug(p))
	}
	switch u := of[part.CardUse](r, use); u {
	case graphics:
		c.Graphics = true
	default:
		c.Use = u
	}
	holds := r.has(takes) || r.has(places)
	isM2 := r.has(cardSlot) || !holds && r.has(keys)
	if isM2 && (c.Connector.Known() || c.Openings > 0 || c.LowBracket != quantity.Unknown || c.LengthMM.Known()) {
		return fact.Err(EdgeOrM2, r.word(edge, openings, low, cardLong), r.word(cardSlot, keys))
	}
	lengths, err := r.sized(isM2 || !holds)
	if err != nil {
		return err
	}
	if isM2 || !holds && r.has(length) {
		c.M2 = r.m2()
	} else if word := r.word(keys, sides); word != "" {
		return fact.Err(MeansNothing, word)
	}
	if holds {
		if c.Graphics || c.Use != "" {
			return fact.Err(TwoAnswers, r.word(use), r.word(takes, places))
		}
		if err := r.carrier(c, lengths); err != nil {
			return err
		}
	}
	r.cardLacks(c)
	return nil
}

// word is the first word that claims one of these facts.
func (r *reader) word(list ...attribute) string {
	for _, a := range list {
		if c, ok := r.claims[a]; ok {
			return c.word
		}
	}
	return ""
}

func (r *reader) cardLacks(c *part.Card) {
	r.lacks(c.Gen.Known(), LacksGeneration)
	if c.M2 != nil {
		r.lacks(c.M2.LengthMM.Known(), LacksLength)
		r.lacks(len(c.M2.Keys) > 0, LacksNotch)
		r.lacks(c.M2.TwoSided != quantity.Unknown, LacksSides)
		return
	}
	r.lacks(c.Connector.Known(), LacksEdge)
	r.lacks(c.Lanes.Known(), LacksWired)
	r.lacks(c.Openings > 0, LacksOpenings)
	r.lacks(c.LengthMM.Known(), LacksCardLength)
	r.lacks(c.LowBracket != quantity.Unknown, LacksBracket)
	r.lacks(len(c.Plugs) > 0, LacksPlugs)
	if c.Carrier == nil && !c.Graphics {
		r.lacks(c.Use != "", LacksUse)
	}
}

// carrier makes the positions.
func (r *reader) carrier(c *part.Card, lengths []quantity.Millimetres) error {
	t, n := of[part.Takes](r, takes), of[int](r, places)
	if t == "" {
		r.ask(PortsOfWhat, "sata")
		return nil
	}
	if n == 0 {
		switch {
		case t == part.TakesSATA:
			r.ask(HowManyPorts, "2-port", "4-port", "5-port", "6-port")
			return nil
		default:
			n = 1
		}
	}
	if len(lengths) > 0 && t != part.TakesM2 {
		return fact.Err(MeansNothing, r.word(posts))
	}
	k := &part.Carrier{Positions: make([]part.Position, n)}
	for i := range k.Positions {
		p := &k.Positions[i]
		if p.Takes = t; t == part.TakesM2 {
			p.Takes, p.LengthsMM = "", slices.Clone(lengths)
		}
		p.SATAGen = of[quantity.Gen](r, placeSATA)
	}
	c.Carrier = k
	has, said := r.claims[chip].value.(bool)
	switch {
	case t == part.TakesSATA && said && !has:
		return fact.Err(TwoAnswers, r.word(chip), r.word(takes))
	case t == part.TakesSATA:
		k.Switch = true // ports come from a controller
		return nil
	case !said && n > 1:
		r.ask(SwitchOrNot, "no-switch", "switch")
	}
	k.Switch = has
	return r.wire(c, t)
}

// wire deals the lanes of the edge out to the positions of a carrier: those of a switch
// chip have four each, as M.2 has; those of a plain one are counted off.
func (r *reader) wire(c *part.Card, t part.Takes) error {
	k, n := c.Carrier, len(c.Carrier.Positions)
	most := c.Connector
	if c.M2 != nil {
		most = c.M2.MaxLanes()
	}
	if c.Lanes.Known() {
		most = c.Lanes
	}
	each := of[quantity.Lanes](r, eachLanes)
	if !each.Known() {
		switch {
		case n == 1 && t == part.TakesSlot:
			each = most
		case !most.Known() || k.Switch:
			each = 4
		default:
			each = min(4, quantity.Lanes(math.Exp2(math.Floor(math.Log2(max(1, float64(most)/float64(n)))))))
		}
	}
	if !each.Known() {
		r.ask(HowWide, "x1", "x4", "x8", "x16")
		return nil
	}
	first := strings.Fields(of[string](r, firstAt))
	if len(first) > 0 && len(first) != n {
		return fact.Err(LanesForEach, r.word(firstAt), n)
	}
	for i := range k.Positions {
		p := &k.Positions[i]
		switch p.Lanes = each; {
		case k.Switch:
		case len(first) > 0:
			p.FirstLane = number(first[i])
		default:
			p.FirstLane = i * int(each)
		}
	}
	if k.Switch {
		return nil
	}
	if len(first) == 0 && n > 1 && int(each)*n < int(most) { // which of them? the first, or spread over the edge
		tight, wide := "lanes", "lanes"
		for i := range n {
			tight += "-" + strconv.Itoa(i*int(each))
			wide += "-" + strconv.Itoa(i*int(most)/n)
		}
		r.ask(WhichLanes, tight, wide)
	}
	if most.Known() && int(each)*n > int(most) {
		return fact.Err(TooManyPositions, n, each, most)
	}
	// Positions that use up the edge say how it is wired.
	if last := k.Positions[n-1]; n > 0 && !c.Lanes.Known() && last.FirstLane+int(last.Lanes) == int(c.Connector) {
		c.Lanes = c.Connector
	}
	r.means(r.word(takes, places), fact.Of(WiredEach, int(each)))
	return nil
}
