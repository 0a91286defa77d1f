package say

// This file is the shop's practice in words: what practitioners differ in, the schools, why
// one holds them, and on what condition.

import (
	"deepbay/internal/core/practice"
)

// PracticeRow is one question with its schools, the default first.
type PracticeRow struct {
	Matter  practice.Matter  `json:"question"`
	Asks    Text             `json:"asks"`
	Schools []PracticeSchool `json:"schools"`
	Chosen  practice.School  `json:"chosen"`
}

// PracticeSchool is one answer.
type PracticeSchool struct {
	School practice.School `json:"school"`
	Says   Text            `json:"says"`
	Why    Text            `json:"why"`
	Needs  Text            `json:"needs,omitzero"` // the condition on which it may be done
}

var practiceAsks = map[practice.Matter]string{
	practice.Earth:      "Earth while the machine is open",
	practice.Slots:      "Slots for two modules where the sheet is silent",
	practice.More:       "More memory",
	practice.Speed:      "Memory speed",
	practice.Beyond:     "Beyond the stated maximum",
	practice.Array:      "Several drives",
	practice.Heatsink:   "Heatsink on M.2 drives",
	practice.Label:      "A drive's label under a pad",
	practice.OldDrive:   "Old system drive during an installation",
	practice.FirstStart: "First start",
	practice.Test:       "Tests with several kinds of parts",
	practice.System:     "System on a new drive",
	practice.Screws:     "Screws",
}

// practiceSchools is what each school does, why, and on what condition.
var practiceSchools = map[practice.School][3]string{
	practice.Strap:       {"Unplugged, mat and strap", "A switch may sit in the wrong wire, outlets may lack earth, and small machines have no switch.", ""},
	practice.Switch:      {"Plugged in, supply switched off", "The case stays on the building's earth.", "Only with a supply that has its own switch and a three-pin lead, on an outlet whose earth was tested by a licensed person; any other machine is unplugged."},
	practice.BySheet:     {"Second and fourth", "It is so on most boards with four slots; it is marked as a guess.", ""},
	practice.FirstThird:  {"First and third", "Some makers count so.", "The manual says so."},
	practice.LowerFirst:  {"Lower one first", "Small boards with slots over one another want it.", "The manual says so."},
	practice.Kit:         {"A matched kit, or the same part again", "It runs at its speed with both channels.", ""},
	practice.Mix:         {"Mix what is there", "It costs nothing.", "The speed and the channels that result are shown and agreed to."},
	practice.Profile:     {"Profile where the board takes it, then test", "It is the speed that was paid for.", "The memory test ends without an error."},
	practice.ByHand:      {"Speed by hand", "Between base and profile, where the profile does not hold.", "The memory test ends without an error."},
	practice.Base:        {"Leave it at base", "Reliability comes first.", ""},
	practice.TryAndTest:  {"Try and test", "Sheets are frozen on the day of release; denser modules came later.", "The modules can go back, and the test runs to its end."},
	practice.Never:       {"Never", "What is not stated is not promised to an owner.", ""},
	practice.Apart:       {"Separate volumes", "One that dies takes only its own data.", ""},
	practice.Striped:     {"Striped", "Rate for what can be made again.", "One dies, all is lost: the owner knows, and has a backup."},
	practice.Mirrored:    {"Mirrored", "One may die.", "It is no backup; the owner has one."},
	practice.ByLoad:      {"By generation, watts and load", "A slow drive at rest needs none; one that the board brings is always used.", ""},
	practice.Always:      {"Always", "Drives last longer cool.", "Its height fits under what lies above."},
	practice.LabelStays:  {"It stays on", "It conducts, and carries the warranty.", ""},
	practice.LabelOff:    {"It comes off", "Thick paper insulates.", "The label is paper, and the owner gives up what it warrants."},
	practice.Unplugged:   {"Unplug or disable it", "Nothing of the new system lands on it.", ""},
	practice.Connected:   {"It stays connected", "It is not opened twice.", "The target is chosen by size and serial number."},
	practice.Open:        {"Before closing", "Cover loose, hands out: it is easy to go back in.", "A cover switch or the air may demand it closed: the sheet's layers say so, and those are put on first."},
	practice.Closed:      {"After closing", "Nothing can fall in, and the air goes as it should.", ""},
	practice.EachKind:    {"After each kind of part", "What fails is known at once.", ""},
	practice.AtTheEnd:    {"Once, at the end", "It opens and closes once.", ""},
	practice.ByGoal:      {"By goal", "Fresh for a slow system, a clone for one that must stay, letters swapped for data.", ""},
	practice.Fresh:       {"Fresh", "Nothing old comes along.", "Installers and licences are at hand."},
	practice.Clone:       {"Clone", "All stays as it was.", "The old drive is sound, and its recovery key is at hand."},
	practice.CopyAndSwap: {"Copy and swap letters", "Programs find their files.", "Only data moves."},
	practice.PlaceOrder:  {"Laid out in order and place", "They go back where they came from; the tray is drawn so.", ""},
	practice.Cups:        {"In cups", "They do not roll.", "Each cup carries the number of its cell."},
	practice.MagneticMat: {"On a magnetic mat", "They stay where they were put.", "No drive with platters lies near it."},
}

// Practice words the shop's practice.
func Practice(l Language, p practice.Practice) []PracticeRow {
	v := In(l, &nobody)
	var out []PracticeRow
	for _, r := range practice.Rows() {
		row := PracticeRow{Matter: r.Matter, Asks: v.text(practiceAsks[r.Matter]), Chosen: p.Of(r.Matter)}
		for _, s := range r.Schools {
			w := practiceSchools[s]
			row.Schools = append(row.Schools, PracticeSchool{s, v.text(w[0]), v.text(w[1]), v.text(w[2])})
		}
		out = append(out, row)
	}
	return out
}
