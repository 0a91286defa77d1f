package say

// This file is the catalogue of faults in words: what is wrong, its cure, what to beware of, and
// how each check is made. In a sentence {0} is the piece, {1} its place, {2} another place,
// {3} a setting as it stands and {4} as it should, {5} another setting.

import (
	"deepbay/internal/core/fact"
	"deepbay/internal/core/fault"
	"deepbay/internal/core/layer"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/plan"
	"deepbay/internal/core/power"
	"deepbay/internal/core/rig"
)

// faultSays is what is wrong, and the cure.
var faultSays = map[fault.Kind][2]string{
	fault.HalfSeated:      {"{0} is not home in {1}", "Take it out, look that nothing lies in the slot, press one end and then the other until each latch clicks; run a finger along its top edge."},
	fault.ModuleDirty:     {"the contacts of {0} in {1} are dirty", "Wipe them with a lint-free cloth and isopropyl alcohol, let them dry, and put the module back."},
	fault.ModuleDead:      {"{0} in {1} is dead", "Send it back, and fit another of the same part number."},
	fault.SlotDead:        {"slot {1} is dead", "Leave it empty: use the slots that the manual names for fewer modules, and note it on the sheet."},
	fault.ChannelPressed:  {"the memory channel of {1} is cut off: the processor does not lie evenly in its socket", "Loosen the cooler, lift it off, look at the socket without touching its pins, and tighten the cooler crosswise, a turn at a time. New paste."},
	fault.ModuleMislabel:  {"{0} in {1} is not what its label says", "Send it back: its chips come to less than is printed on it."},
	fault.ModuleDense:     {"the memory controller does not know the chips of {0} in {1}", "Update the firmware with the old memory in, or fit a module with twice as many, smaller chips."},
	fault.ProfileUnstable: {"memory does not hold at its profile", "Leave the profile off, or set one step less than it; then test memory to the end."},
	fault.MemoryErrors:    {"{0} in {1} makes errors", "Test it alone at base speed; if it fails there too, send it back. Run no system from drives that hold data until then."},
	fault.FirmwareOld:     {"the firmware is too old for the new memory", "Put the old memory back, update the firmware for exactly this board with the mains secure, and fit the new memory again."},
	fault.Training:        {"memory is being trained: a first start may stay dark for minutes", "Wait a quarter of an hour, and switch nothing off."},
	fault.ThirtyTwoBit:    {"the system is one of 32 bits and uses no more than about 3.5 GB", "Nothing is wrong with the memory. A system of 64 bits uses it all."},
	fault.LiesElsewhere:   {"{0} lies in {2}, not in {1}", "Move it to {1}; or plan it where it is, if it may stay there."},
	fault.Swapped:         {"{0} and what should lie in {2} have changed places", "Change them back; or plan them where they are, if they may stay there."},
	fault.ProfileNotSet:   {"the memory profile is not as planned: {3}", "Set {4}, save, and let memory be trained again."},
	fault.SplitNotSet:     {"a slot is not divided as planned: {3}", "Set {4} and save. It has nothing to do with an array and erases nothing, whatever it is called."},
	fault.SplitWrongSlot:  {"{5} was divided in place of the right slot", "Set {4}, and the other slot back. Slots in set-up are numbered as the maker likes: count with the manual."},
	fault.ModeWrong:       {"the storage mode is not as planned: {3}", "Set {4} and save. Initialise nothing and let no system repair anything until then: no data is lost by the mode alone."},
	fault.SpeedCapped:     {"a link is held to a lower generation: {3}", "Set {4} and save."},
	fault.SettingOther:    {"a setting is not as planned: {3}", "Set {4} and save."},
	fault.NotSaved:        {"what was set in set-up was not saved", "Set it again, and leave set-up by saving."},
	fault.CellEmpty:       {"the coin cell is empty: settings went back to those from the works", "Fit a new cell the right way round, set date and time, and make the settings again, the storage mode first."},
	fault.ProcessorOther:  {"another processor is fitted than was written down", "Correct which is fitted: what the board offers hangs on it."},
	fault.M2NotSeated:     {"{0} is not home in {1}", "Undo its screw, draw it out, put it in again at a slant until no gold shows, fold it flat and screw it down."},
	fault.M2Dirty:         {"the contacts of {0} in {1} are dirty", "Wipe them with a lint-free cloth and isopropyl alcohol, let them dry, and put the drive back."},
	fault.DriveDead:       {"{0} on {1} is dead", "A new one goes back. One that holds data goes to whoever recovers data: try nothing more on it."},
	fault.PortDead:        {"{1} is dead", "Use another place of its kind, and note it on the sheet."},
	fault.PostShorts:      {"a post stands where it must not, under {0} in {1}", "Take the drive out, move the post to the drive's length, and leave no other under it."},
	fault.PostMissing:     {"{0} in {1} has no post at its end, and bends", "Put the post at the drive's length, and fit the drive again with its screw."},
	fault.FilmOn:          {"the film is still on the pad over {0} in {1}", "Take the heatsink off, peel the films, and fit it again. The drive's own label stays on."},
	fault.NoAir:           {"no air reaches {0} in {1}", "Give it a heatsink, or move it from under the card; free what blocks the fan."},
	fault.SATACard:        {"{0} in {1} speaks SATA, and the place does not or should not", "Look at its label; fit one that speaks PCIe, or move this one to a socket that takes SATA."},
	fault.DriveMislabel:   {"{0} on {1} holds less than its label says", "Write nothing more to it. Send it back: it is not what it was sold as."},
	fault.DriveFailing:    {"{0} on {1} is failing", "Stop. Save its data first, onto another medium, before anything else is tried; then replace it."},
	fault.Remapped:        {"{0} on {1} is claimed by a controller of firmware: without its driver no system sees it", "Load the driver in the installer; or switch the claim off in set-up, if no system hangs on it."},
	fault.PathTooLong:     {"the path to {0} in {1} is too long for its generation", "Take a rated riser, or set the link one generation lower."},
	fault.IdleLink:        {"{0} on {1} was read while it had nothing to do", "Read its link again while it works: an idle link goes slower, never narrower."},
	fault.LeadOff:         {"the data lead of {0} is not home, at {1} or at the drive", "Press both ends on until they latch."},
	fault.LeadBad:         {"the data lead of {0} on {1} is bad", "Fit another lead, and write the count of errors down: it must stand still from then on."},
	fault.LeadDead:        {"the data lead of {0} on {1} is broken", "Fit another lead."},
	fault.PlugOff:         {"the power plug of {0} on {1} is not home", "Press it on straight, all the way."},
	fault.PinHolds:        {"the 3.3 V of its power plug holds {0} on {1} off", "Feed it through a plug without 3.3 V, such as an adapter from the older four-pin plug, not one with moulded SATA ends."},
	fault.PowerLeadDead:   {"the power lead of {0} on {1} is broken", "Use another lead of this supply; leads of another supply can destroy every drive."},
	fault.SplitterWeak:    {"{0} on {1} drops out: its power comes over a splitter that is too weak", "Feed it from a lead of the supply itself."},
	fault.CardNotSeated:   {"{0} is not home in {1}", "Take it out, look into the slot, and press it in level until the latch at the slot's end snaps."},
	fault.CardDirty:       {"the contacts of {0} in {1} are dirty", "Wipe them with a lint-free cloth and isopropyl alcohol, let them dry, and put the card back."},
	fault.CardPlugOff:     {"the power plug of {0} in {1} is off", "Press it on until it latches."},
	fault.CardDead:        {"{0} in {1} is dead", "Send it back, and fit another."},
	fault.WrongOutput:     {"the screen hangs on the board's output, not on the card's", "Plug the screen into the card."},
	fault.BoxSlow:         {"the lead or the port of {0} on {1} is one of USB 2", "Take the lead that came with the box, and a rear port."},
	fault.BoxOff:          {"{0} on {1} has no power", "Give it its own supply, or another port."},
	fault.StartOrder:      {"firmware starts another drive first", "Put the drive with the system first in the boot order, after all other settings."},
	fault.LegacyStart:     {"firmware starts the older way, and the system on {0} is a UEFI one", "Set the start to UEFI alone."},
	fault.NoStartFiles:    {"{0} on {1} has no start files: they are still on the other drive", "Keep the old drive. Have the system's own tool write start files onto the new one, then start with it alone."},
	fault.SameSignature:   {"{0} on {1} carries the same signature as the drive it was copied from, and the system keeps it offline", "Start with one of the two alone, then give the other a new signature: not the one with the only copy of the data."},
	fault.NoLetter:        {"{0} on {1} is blank, and has no letter until it is initialised", "That is right. Tell it by size and serial number, then initialise this one, never a drive with data."},
	fault.KeyAsked:        {"the system asks for its recovery key, for its machine changed", "Type the key. Suspend the protection before the next change."},
	fault.SupplyOff:       {"no mains: the supply's switch, the strip or the outlet is off", "Switch it on."},
	fault.SupplyDead:      {"the supply is dead", "Replace it whole, with its own leads. Never open it: electrical work is for licensed people."},
	fault.MainPlugOff:     {"the board's main power plug is not home", "Press it on until it latches."},
	fault.CPUPlugOff:      {"the processor's power plug is off", "Press it on until it latches."},
	fault.FrontLeadOff:    {"the lead of the power button is off", "Plug it onto its two pins as the manual draws them."},
	fault.LooseScrew:      {"a loose screw or a post too many shorts the board", "Pull the mains plug. Find it, count the screws, and only then give it power."},
	fault.StandBy:         {"the supply sulks after its mains came back", "Mains off for half a minute, hold the button, mains on."},
	fault.CoverSwitch:     {"the switch of the cover is not pressed", "Close the cover, or plug the switch's lead; clear the event in set-up."},
	fault.FanOff:          {"a fan is not on its header", "Plug it onto the header that firmware watches, and lead the cable away from the blades."},
}

// faultCautions is what to beware of with a cure, beyond those of any work inside.
var faultCautions = map[fault.Kind]string{
	fault.ModeWrong:      "An array on these drives looks blank in the other mode: never initialise what looks blank. Have the recovery key at hand before the mode is changed.",
	fault.CellEmpty:      "Clearing settings loses the mode of an array too: set it before any drive is touched. Keep cells away from children.",
	fault.DriveFailing:   "Each further start may be its last. Data first.",
	fault.DriveDead:      "It may hold the only copy: data recovery is not for the bench.",
	fault.SameSignature:  "Be sure which is the copy before anything is written to either.",
	fault.NoLetter:       "Initialising erases: check model, size and serial number of this one drive.",
	fault.NoStartFiles:   "Wipe nothing of the old drive until the new one starts alone.",
	fault.FirmwareOld:    "A firmware update that is cut off ends the board. Note the settings first, and the recovery key.",
	fault.LooseScrew:     "No power until it is found.",
	fault.SupplyDead:     "Never open a supply.",
	fault.PowerLeadDead:  "A modular lead fits many supplies and is wired for one.",
	fault.Remapped:       "A system that was installed under the claim may not start without it.",
	fault.KeyAsked:       "Do not set the machine up anew: the data is whole.",
	fault.ChannelPressed: "Never touch the pins of a processor or its socket.",
}

// lookSays is how each check is made.
var lookSays = map[fault.Look]string{
	fault.Wait:        "Wait a quarter of an hour with the machine on, and watch its lights",
	fault.Restart:     "Mains off for half a minute, hold the power button, and start again",
	fault.Label:       "Read the label of {0} in {1} once more, number by number",
	fault.Place:       "Look where {0} lies: it should be {1}",
	fault.Seat:        "Look at {0} in {1} from the side: is it home",
	fault.Contacts:    "Take {0} out of {1} and look at its contacts against the light",
	fault.Swap:        "Let {0} in {1} and the piece in {2} change places, and start",
	fault.OtherPlace:  "Put {0} from {1} into {2}, and start",
	fault.Spare:       "Put a piece that is known to be good in place of {0} in {1}, and start",
	fault.Alone:       "Start with one module alone, in the slot that the manual names first",
	fault.DataLead:    "Feel both ends of the data lead of {0} on {1}",
	fault.OtherLead:   "Try another data lead between {0} and {1}",
	fault.PowerPlug:   "Feel the power plug of {0} on {1}",
	fault.OtherPlug:   "Feed {0} on {1} from a plug on another lead of this supply",
	fault.NoThird:     "Feed {0} on {1} through a plug without 3.3 V",
	fault.Listen:      "Start, and listen to {0} on {1} with a hand on its case",
	fault.Post:        "Take {0} out of {1} and look at the posts under it",
	fault.Film:        "Lift the heatsink over {0} in {1}: is a film on the pad",
	fault.Air:         "Look what lies over {0} in {1}, and whether air reaches it",
	fault.Straight:    "Put {0} from {1} straight into the board, without riser or adapter, and start",
	fault.Cooler:      "Mount the processor's cooler anew, evenly, and start",
	fault.Loose:       "Look and listen for a loose screw: tilt the machine, count screws and posts",
	fault.MainPlugs:   "Press on the board's main power plug",
	fault.CPUPlug:     "Press on the processor's power plug",
	fault.FrontLead:   "Look at the lead of the power button on the board",
	fault.SupplyOn:    "Look at the supply's switch, the strip and the outlet",
	fault.OtherSupply: "Try another supply with its own leads",
	fault.Screen:      "Look which output the screen hangs on",
	fault.Lid:         "Close the cover, and look whether its switch is pressed",
	fault.FanPlug:     "Look whether every fan is on its header",
	fault.Cell:        "Measure the coin cell: 3 V is good, below 2.7 V it is empty",
	fault.Version:     "Read the firmware's version in set-up, and compare it with the maker's list for these parts",
	fault.Order:       "Look which drive stands first in the boot order",
	fault.Menu:        "Choose the drive in the boot menu, once",
	fault.StartMode:   "Look in set-up how systems start: UEFI, or the older way",
	fault.Disks:       "Look at {0} on {1} in the system's page of disks, not in its file window",
	fault.Driver:      "Load the storage driver in the installer, and look at its list again",
	fault.MemTest:     "Test memory with {0} in {1} alone, to the end",
	fault.ProfileOff:  "Switch the memory profile off, and start",
	fault.AtWork:      "Copy something large to {0} on {1}, and read its link meanwhile",
	fault.Bits:        "Look whether the system is one of 32 or 64 bits",
	fault.OtherPort:   "Put {0} from {1} on a rear port, with the lead it came with",
	fault.Health:      "Read what {0} on {1} says of itself: health, size, hours",
	fault.Processor:   "Read in set-up which processor is fitted",
}

// outcomeSays is what checks may show.
var outcomeSays = map[fault.Outcome]string{
	fault.Unclear: "cannot tell", fault.Same: "as before", fault.Gone: "right now", fault.AsWritten: "as written", fault.Another: "another",
	fault.Home: "home", fault.NotHome: "not home", fault.Clean: "clean", fault.Dirty: "dirty", fault.WithPlace: "stays with the place", fault.WithPiece: "goes with the piece",
	fault.Turns: "runs smoothly", fault.Silent: "does not turn", fault.Clicks: "clicks or grinds", fault.Right: "right", fault.Wrong: "wrong or missing",
	fault.Off: "off", fault.On: "on", fault.Free: "free", fault.Covered: "covered", fault.Nothing: "nothing", fault.Found: "found one",
	fault.Good: "good", fault.Failing: "not good", fault.Closed: "closed and pressed", fault.Open: "open or not pressed", fault.NewEnough: "new enough", fault.TooOld: "too old",
	fault.First: "the right one", fault.Starts: "starts", fault.StartsNot: "does not start", fault.UEFI: "UEFI", fault.Legacy: "the older way",
	fault.Online: "online", fault.SameID: "offline", fault.NotYet: "not initialised", fault.Passes: "no error", fault.Fails: "errors",
	fault.SixtyFour: "64", fault.ThirtyTwo: "32", fault.OnTheCard: "on the card", fault.OnTheBoard: "on the board",
}

// faultArgs is the values of a fault's sentence.
func (v *Voice) faultArgs(f fault.Fault) []any {
	st := v.rig.Sheet.Setting(f.Setting)
	want := plan.Choice{}
	if st != nil {
		want = plan.Choice{Setting: st.ID, Value: v.rig.Choice(st)}
	}
	other, _ := settingName(v.rig.Sheet, machine.SettingID(f.Value), "") // of the wrong slot
	return []any{v.rig.In(f.At), f.At, f.To, plan.Choice{Setting: f.Setting, Value: f.Value}, want, fact.Typed(other)}
}

// fault says what is wrong.
func (v *Voice) fault(f fault.Fault) string { return v.fill(faultSays[f.Kind][0], v.faultArgs(f)) }

// check says how a check is made.
func (v *Voice) check(k fault.Inspection) string {
	if k.Look == fault.ReadLine {
		return v.reads(k.Line)
	}
	return v.fill(lookSays[k.Look], []any{v.rig.In(k.At), k.At, k.With})
}

// reads says which line is to be read, and where.
func (v *Voice) reads(id power.LineID) string {
	item, at := v.rig.In(id.Socket), id.Socket
	on := []any{item, at}
	switch id.Kind {
	case power.Message:
		return "Start, and read what the first screens say"
	case power.Total:
		return "Read the memory total in set-up"
	case power.Rate:
		return "Read the memory speed in set-up"
	case power.Slot:
		return v.fill("Read slot {1} in set-up", on)
	case power.Fitted:
		return "Read in the system how much memory is there"
	case power.Usable:
		return "Read in the system how much memory it can use"
	case power.Drive:
		return v.fill("Look for {0} on {1} in set-up", on)
	case power.LinkOf:
		return v.fill("Read the link of {0} on {1} in the system, while it works", on)
	case power.Boots:
		return v.fill("Look for {0} on {1} in the boot list", on)
	case power.Installs:
		return v.fill("Look for {0} on {1} in the installer's list", on)
	case power.Disk:
		return v.fill("Look for {0} on {1} in the system's list of disks", on)
	case power.Counts:
		return v.fill("Read the errors counted on {1}, copy something large, and read them again", on)
	case power.Heat:
		return v.fill("Read the temperature of {0} in {1} after five minutes of writing", on)
	case power.Setting:
		name, _ := settingName(v.rig.Sheet, id.Setting, "")
		return "Look in set-up at what " + name + " stands"
	case power.Array:
		return "Look for the array, and what size it has"
	}
	return id.String()
}

// outcome says what a check shows.
func (v *Voice) outcome(o fault.Outcome) string { return outcomeSays[o] }

// Suspect is a fault with its cure.
type Suspect struct {
	Fault   fault.Fault   `json:"fault" jsonschema:"maxLength=200"`
	Says    Text          `json:"says"`
	Cure    Text          `json:"cure"`
	Caution Text          `json:"caution,omitzero"`
	Minutes layer.Minutes `json:"minutes"`          // that the cure takes, without opening the machine
	Inside  bool          `json:"inside"`           // the machine must be opened for it
	Normal  bool          `json:"normal,omitempty"` // it only looks like a fault
	Socket  rig.Path      `json:"socket,omitzero"`
}

// SuspectOf words a fault.
func (v *Voice) SuspectOf(f fault.Fault) Suspect {
	return Suspect{f, v.text(v.fault(f)), v.text(v.fill(faultSays[f.Kind][1], v.faultArgs(f))), v.text(faultCautions[f.Kind]), f.Kind.Minutes(), f.Kind.Inside(), f.Kind.Normal(), f.At}
}

// Leading is an explanation that agrees with all that was seen.
type Leading struct {
	Faults  []Suspect `json:"faults"`
	Percent int       `json:"percent"` // of all that agree
	For     []Text    `json:"for"`     // what it explains
	Open    []Text    `json:"open"`    // what it would show besides
}

// CheckWords is a check in words.
type CheckWords struct {
	Check   fault.Inspection `json:"check" jsonschema:"maxLength=200"`
	Does    Text             `json:"does"`
	Line    power.LineID     `json:"line,omitzero"` // that is to be read
	Socket  rig.Path         `json:"socket,omitzero"`
	With    rig.Path         `json:"with,omitzero"`
	Minutes layer.Minutes    `json:"minutes"`
	Inside  bool             `json:"inside"`
	Answers []PossibleAnswer `json:"answers"`
}

// PossibleAnswer is one thing that a check may show, and what is left then.
type PossibleAnswer struct {
	Is      fault.Outcome `json:"is,omitempty"`
	Says    Text          `json:"says"`
	Percent int           `json:"percent"`
	Leaves  Text          `json:"leaves,omitzero"` // the likeliest of what is left
}

// RuledOut is a fault that what was seen rules out.
type RuledOut struct {
	Says Text `json:"says"`
	By   Text `json:"by"`
}

// Trouble is what is wrong with a machine, as far as what was seen tells.
type Trouble struct {
	Differs []Text      `json:"differs"`
	Leaders []Leading   `json:"leaders"`
	More    int         `json:"more"`
	Next    *CheckWords `json:"next,omitempty"`
	Certain bool        `json:"certain"`
	Says    Text        `json:"says"` // where it stands, in a sentence
	Danger  Text        `json:"danger,omitzero"`
	Out     []RuledOut  `json:"out"`
}

// sign says what was seen.
func (v *Voice) sign(s fault.Sign) Text {
	if s.Answer != nil {
		return v.text(v.check(s.Answer.Check) + ": " + v.outcome(s.Answer.Is))
	}
	return v.text(v.lineName(s.Reading.Line) + ": " + v.words(power.Shown(v.rig, *s.Reading)))
}

// lineName is what a line is about.
func (v *Voice) lineName(id power.LineID) string { return v.words(power.Named(v.rig, id)) }

func (v *Voice) signs(list []fault.Sign) []Text {
	out := make([]Text, len(list))
	for i := range list {
		out[i] = v.sign(list[i])
	}
	return out
}

// Trouble words a diagnosis.
func (v *Voice) Trouble(d *fault.Diagnosis) Trouble {
	out := Trouble{Differs: v.signs(d.Differs), Leaders: make([]Leading, len(d.Leaders)), More: d.More, Certain: d.Certain, Out: make([]RuledOut, len(d.Out))}
	for i, l := range d.Leaders {
		w := Leading{Percent: percent(l.Share), For: v.signs(l.For), Open: v.signs(l.Open)}
		for _, f := range l.Faults {
			w.Faults = append(w.Faults, v.SuspectOf(f))
		}
		out.Leaders[i] = w
	}
	for i, o := range d.Out {
		out.Out[i] = RuledOut{v.text(v.fault(o.Fault)), v.sign(o.By)}
	}
	if d.Next != nil {
		out.Next = v.next(d.Next)
	}
	says := ""
	switch {
	case len(d.Differs) == 0:
		says = "Nothing was read that is other than it should be."
	case len(d.Leaders) == 0 && d.Danger:
		says = "No fault is looked for while it is so."
	case len(d.Leaders) == 0:
		says = "Nothing in the catalogue agrees with all that was seen, alone or two together. Read again what is odd; what was ruled out stands below."
	case d.Certain && len(d.Leaders) == 1 && d.Leaders[0].Faults[0].Kind.Normal():
		says = "It only looks like a fault."
	case d.Certain:
		says = "One explanation is left."
	case d.Next == nil:
		says = "No check tells these apart: try the cures, the cheapest first."
	default:
		says = plural(len(d.Leaders)+d.More, "explanation") + " agree with what was seen."
	}
	out.Says = v.text(says)
	if d.Danger {
		out.Danger = v.text("Stop here: no further start. Pull the mains plug if it smells, is hot or smokes. What is on the drives comes first: save it, or give it to whoever recovers data, before anything else is tried.")
	}
	return out
}

func percent(share float64) int { return int(share*100 + 0.5) }

func (v *Voice) next(n *fault.Next) *CheckWords {
	w := &CheckWords{Check: n.Check, Does: v.text(v.check(n.Check)), Line: n.Check.Line, Socket: n.Check.At, With: n.Check.With, Minutes: n.Minutes, Inside: n.Inside}
	if n.Check.Look == fault.ReadLine {
		w.Socket = n.Check.Line.Socket
	}
	for _, f := range n.Shows {
		a := PossibleAnswer{Is: f.Is, Percent: percent(f.Share)}
		if f.Reading != nil {
			a.Says = v.Fact(power.Shown(v.rig, *f.Reading))
		} else {
			a.Says = v.text(v.outcome(f.Is))
		}
		left := ""
		for i, x := range f.Leaves {
			if i > 0 {
				left += "; and "
			}
			left += v.fault(x)
		}
		a.Leaves = v.text(left)
		w.Answers = append(w.Answers, a)
	}
	return w
}
