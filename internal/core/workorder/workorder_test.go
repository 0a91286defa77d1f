package workorder_test

import (
	"slices"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/job"
	"deepbay/internal/core/link"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/memory"
	"deepbay/internal/core/part"
	"deepbay/internal/core/practice"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/core/workorder"
)

func tower(t *testing.T) job.Job {
	t.Helper()
	j, err := demo.Job("echo-sounding-tower")
	if err != nil {
		t.Fatal(err)
	}
	return j
}

// said is the order in words.
func said(j *job.Job) []say.Step { return say.About(say.Plain, j).Steps(j.Order()) }

func joined(texts []say.Text) string {
	var out []string
	for _, t := range texts {
		out = append(out, t.String())
	}
	return strings.Join(out, "\n")
}

func place(pairs ...string) []rig.Placement {
	var out []rig.Placement
	for _, p := range pairs {
		item, socket, _ := strings.Cut(p, ":")
		out = append(out, rig.Placement{Item: rig.ItemID(item), Socket: rig.ParsePath(socket)})
	}
	return out
}

func ids(steps []workorder.Step) string {
	var out []string
	for _, s := range steps {
		out = append(out, s.ID)
	}
	return strings.Join(out, " ")
}

const before = "prepare/backup prepare/parts power-down/shut power-down/unplug power-down/drain open/cover open/strap "
const after = " close/off close/cover close/leads"

// The order follows the difference: what leaves, what enters, what is set.
func TestMake(t *testing.T) {
	for _, c := range []struct {
		name    string
		planned []rig.Placement
		set     []rig.Choice
		want    string
	}{
		{"nothing differs", place("item-1:A1", "item-2:A2", "item-3:SATA6"), nil, ""},
		{"the story", place("item-3:SATA6", "item-4:M2_1", "item-5:A2", "item-6:B2"), nil,
			before + "take-out/item-1@A1 take-out/item-2@A2 fit/item-5@A2 fit/item-6@B2 between/memory fit/item-4@M2_1 power-on/look power-on/start power-on/set-up test/memory system/how" + after},
		{"only a lead moves", place("item-1:A1", "item-2:A2", "item-3:SATA1"), nil,
			before + "fit/lead-item-3@SATA1 power-on/look power-on/start power-on/set-up" + after},
		{"only a setting", place("item-1:A1", "item-2:A2", "item-3:SATA6"), []rig.Choice{{Setting: "sata-mode", Value: "raid"}},
			"prepare/backup power-on/set-up settings/sata-mode=raid settings/save"}, // nothing to open for
		{"a box outside", place("item-1:A1", "item-2:A2", "item-3:SATA6", "box:USB1", "item-4:USB1/1"), nil,
			"prepare/parts fit/item-4@USB1/1 fit/box@USB1"},
		{"a disk moves out", place("item-1:A1", "item-2:A2", "dock:USB1", "item-3:USB1/1"), nil,
			before + "take-out/item-3@SATA6 fit/item-3@USB1/1 fit/dock@USB1 power-on/look power-on/start power-on/set-up" + after},
	} {
		j := tower(t)
		j.Sheet.Sockets = append(j.Sheet.Sockets, machine.Socket{ID: "USB1", Kind: machine.USB, Root: "cpu", Protocols: []link.Protocol{link.USB}, USB: link.USB10})
		j.Parts = append(j.Parts, part.Part{ID: "box", Name: "Box", Enclosure: &part.Enclosure{USB: link.USB10, Positions: []part.Position{{Lanes: 4, Gen: 3}}}},
			part.Part{ID: "dock", Name: "Dock", Enclosure: &part.Enclosure{USB: link.USB5, OwnSupply: quantity.Yes, Positions: []part.Position{{Takes: part.TakesSATA, SATAGen: 3, Drives: []part.Form{part.Form3i5}}}}})
		j.Items = append(j.Items, job.Item{ID: "box", Part: "box", New: true}, job.Item{ID: "dock", Part: "dock", New: true})
		j.Planned.Placements, j.Planned.Settings = c.planned, c.set
		if got := ids(j.Order()); got != c.want {
			t.Errorf("%s:\n%s\nwant\n%s", c.name, got, c.want)
		}
	}
}

// How each thing is fitted, and what can hurt, stands at its step.
func TestHowAndCautions(t *testing.T) {
	j := tower(t)
	j.Planned.Placements = place("item-1:A1", "item-3:SATA1", "item-4:M2_1", "item-5:A2", "item-6:B2")
	j.Planned.Settings = []rig.Choice{{Setting: "sata-mode", Value: "raid"}}
	j.Wish.Encrypted = quantity.Unknown
	steps := map[string]say.Step{}
	for _, s := range said(&j) {
		steps[string(s.ID)] = s
		if s.Do.IsZero() || s.How == nil || s.Cautions == nil {
			t.Errorf("%s lacks words: %+v", s.ID, s)
		}
	}
	for id, want := range map[string][]string{
		"prepare/backup":          {"No verified copy, no start", "recovery key", "The owner says: copied to the chart-room store", "three seasons of soundings"},
		"prepare/parts":           {"Ternlight 500, serial TLN4-5A0C77 (500 GB M.2 PCIe Gen 4 x4 2280)", "M.2 post and screw"},
		"power-down/unplug":       {"Never open a power supply", "licensed people"},
		"power-down/drain":        {"5 V", "10 seconds"},
		"open/cover":              {"Two thumbscrews", "60 to 90 °C", "swollen"},
		"open/strap":              {"clipped to bare metal"},
		"take-out/item-2@A2":      {"SL4-220872", "levers"},
		"fit/item-4@M2_1":         {"upper, between processor and long slot", "Move the post to 80 mm", "notch to the key, in at about 30 degrees", "Peel the films off", "start both screws before you tighten either"},
		"fit/item-5@A2":           {"Press one end until it clicks, then the other", "Run a finger along"},
		"fit/lead-item-3@SATA1":   {"Move the data lead of Mudlark 2 TB, serial ML7-0093318 from SATA6 to SATA1", "never force"},
		"power-on/start":          {"5 to 30 seconds longer", "Fingers and leads out"},
		"power-on/set-up":         {"Press F2"},
		"settings/sata-mode=raid": {"Set SATA controller mode to RAID", "Under Advanced / Storage", "may not start after a change of the controller mode", "recovery key"},
		"test/memory":             {"all patterns; hours"},
		"close/cover":             {"No tool, film or screw left inside"},
	} {
		s := steps[id]
		text := s.Do.String() + "\n" + joined(s.How)
		for _, c := range s.Cautions {
			text += "\n" + c.Topic.String() + ": " + c.Says.String()
		}
		for _, w := range want {
			if !strings.Contains(text, w) {
				t.Errorf("%s does not say %q:\n%s", id, w, text)
			}
		}
	}

	// Beyond the sheet the test is the proof.
	j.Sheet.Memory.Total.StatedBytes = 8 * quantity.GiB
	trial := false
	for _, s := range said(&j) {
		trial = trial || s.ID == "test/memory" && strings.Contains(joined(s.How), "This is a trial: 36 GiB is more than the 8 GiB")
	}
	if !trial {
		t.Error("the order does not say that this much memory is a trial")
	}
	j.Sheet.Memory.Total.StatedBytes = 64 * quantity.GiB

	// An old drive that goes holds data; a heavy case takes two; own heatsink means one heatsink only.
	j.Planned.Placements = place("item-4:M2_1", "item-5:A2", "item-6:B2")
	j.Sheet.Chassis.WeightKG = 23
	j.Part("ternlight-500").Drive.M2.Heatsink = quantity.Yes
	all := ""
	for _, s := range said(&j) {
		for _, c := range s.Cautions {
			all += c.Topic.String() + "\n"
		}
		all += joined(s.How)
	}
	for _, want := range []string{"Old drive", "Weight", "One heatsink only"} {
		if !strings.Contains(all, want) {
			t.Errorf("nowhere is said %q", want)
		}
	}
}

// A caddy is called a caddy, screws are screws, an optical drive slides; and each family of
// memory has its word for a slow first start.
func TestHolders(t *testing.T) {
	for _, c := range []struct {
		holder machine.Holder
		form   part.Form
		fit    string
		out    string
	}{
		{"", part.Form2i5, "Into its bracket first", "Undo the bracket"},
		{machine.HeldByBracket, part.Form3i5, "6-32 screws", "Undo the bracket"},
		{machine.HeldByCaddy, part.Form2i5, "Into its caddy first", "Press the caddy's latch"},
		{machine.HeldByScrews, part.Form3i5, "Fasten it in the cage, the right way round for its leads: 6-32 screws", "Undo its screws"},
		{machine.HeldByScrews, part.Form2i5, "M3 screws", "Undo its screws"},
		{machine.HeldByCaddy, part.FormSlim, "Slide it in from the front", "slide it out to the front"},
	} {
		j := tower(t)
		for i := range j.Sheet.Bays {
			j.Sheet.Bays[i].Holder = c.holder
		}
		d := j.Part("mudlark-2000").Drive
		d.Form, d.HeightMM = c.form, 0
		steps := map[string]string{}
		j.Planned.Placements = place("item-1:A1", "item-2:A2")
		for _, s := range said(&j) {
			steps[string(s.ID)] = joined(s.How)
		}
		if got := steps["take-out/item-3@SATA6"]; !strings.Contains(got, c.out) {
			t.Errorf("out of a bay held by %q: %s", c.holder, got)
		}
		j.Found.Placements, j.Planned.Placements = place("item-1:A1", "item-2:A2"), place("item-1:A1", "item-2:A2", "item-3:SATA6")
		for _, s := range said(&j) {
			steps[string(s.ID)] = joined(s.How)
		}
		if got := steps["fit/item-3@SATA6#cage-3"]; !strings.Contains(got, c.fit) {
			t.Errorf("into a bay held by %q: %s", c.holder, got)
		}
	}
	for family, want := range map[memory.Generation]string{memory.DDR2: "show a notice that memory changed", memory.DDR3: "show a notice that memory changed", memory.DDR4: "5 to 30 seconds longer", memory.DDR5: "up to 15", "": "5 to 30 seconds longer"} {
		j := tower(t) // its modules are DDR4
		j.Sheet.Memory.Generation = family
		j.Planned.Placements = place("item-1:A1", "item-3:SATA6", "item-5:A2")
		for _, s := range said(&j) {
			if s.ID == "power-on/start" && !strings.Contains(joined(s.How), want) {
				t.Errorf("%q: %s", family, joined(s.How))
			}
		}
	}
}

// Where practitioners differ the order does as the shop does, and only where its condition holds.
func TestPractice(t *testing.T) {
	silent := func(j *job.Job) { j.Sheet.Memory.Fill = nil }
	mixed := func(j *job.Job) {
		j.Planned.Placements = append(j.Planned.Placements, rig.Placement{Item: "item-1", Socket: rig.On("A1")})
	}
	alike := func(j *job.Job) {
		j.Items = append(slices.Clone(j.Items), job.Item{ID: "item-7", Part: "mudlark-2000", New: true}, job.Item{ID: "item-8", Part: "mudlark-2000", New: true})
		j.Planned.Placements = append(j.Planned.Placements, rig.Placement{Item: "item-7", Socket: rig.On("SATA3")}, rig.Placement{Item: "item-8", Socket: rig.On("SATA4")})
	}
	asked := map[practice.School]bool{practice.Closed: true, practice.Never: true} // below, and of what holds a job
	defer func() {
		for _, r := range practice.Rows() {
			for _, s := range r.Schools[1:] {
				if !asked[s] {
					t.Errorf("%s: %s steers nothing that is asked here", r.Matter, s)
				}
			}
		}
	}()
	for _, c := range []struct {
		matter practice.Matter
		school practice.School
		change func(*job.Job)
		step   string
		want   string
		usual  string
	}{
		{practice.Earth, practice.Switch, nil, "power-down/switch", "earth was tested", "Pull the mains plug"},
		{practice.Earth, practice.Switch, nil, "between/memory", "switch the supply off", "unplug"},
		{practice.Earth, practice.Switch, func(j *job.Job) { j.Sheet.Chassis.Earthed = quantity.Unknown }, "power-down/unplug", "Pull the mains plug", "Pull the mains plug"},
		{practice.Label, practice.LabelOff, nil, "fit/item-4@M2_1", "a paper label under the pad comes off", "own label stays on"},
		{practice.Heatsink, practice.Always, func(j *job.Job) { j.Sheet.Socket("M2_1").Heatsink = quantity.No }, "fit/item-4@M2_1", "gets a heatsink", ""},
		{practice.Slots, practice.LowerFirst, silent, "fit/item-5@A2", "A1 and B1, a guess", ""},
		{practice.Array, practice.Striped, alike, "prepare/parts", "the shop makes a striped array of such", ""},
		{practice.Screws, practice.MagneticMat, nil, "open/cover", "magnetic mat", "in the order and place"},
		{practice.Screws, practice.Cups, nil, "open/cover", "into cups", "in the order and place"},
		{practice.Test, practice.EachKind, nil, "between/memory", "with the new memory alone", "with the new memory alone"},
		{practice.Test, practice.AtTheEnd, nil, "power-on/start", "Strap off", ""},
		{practice.Slots, practice.BySheet, silent, "fit/item-5@A2", "A2 and B2, a guess", "A2 and B2, a guess"},
		{practice.Slots, practice.FirstThird, silent, "fit/item-5@A2", "It is planned otherwise, A2 and B2", ""},
		{practice.More, practice.Kit, mixed, "prepare/mix", "all run at", "offer that instead"},
		{practice.More, practice.Mix, mixed, "prepare/parts", "A mix of modules: all run at", ""},
		{practice.Speed, practice.ByHand, func(j *job.Job) { j.Part("sallow-16g-3200").Module.ProfileMTps = 3600 }, "settings/memory-speed", "by hand: 3200 MT/s", ""},
		{practice.Array, practice.Apart, alike, "prepare/parts", "a volume of its own", "a volume of its own"},
		{practice.Array, practice.Mirrored, alike, "prepare/parts", "the shop mirrors such", ""},
		{practice.System, practice.ByGoal, nil, "system/how", "Agree with the owner", "Agree with the owner"},
		{practice.System, practice.Fresh, nil, "system/install", "Install the system on", ""},
		{practice.System, practice.Clone, nil, "system/copy", "Copy", ""},
		{practice.System, practice.CopyAndSwap, nil, "system/swap", "swap the letters", ""},
		{practice.Speed, practice.Base, nil, "power-on/start", "profile stays off", ""},
		{practice.OldDrive, practice.Connected, func(j *job.Job) { j.Wish.Starts = rig.Start{How: rig.Install, Item: "item-4"} }, "system/install", "size and serial", "size and serial"},
	} {
		asked[c.school] = true
		said := func(p practice.Practice) string {
			j := tower(t)
			j.Sheet.Sockets = slices.Clone(j.Sheet.Sockets)
			j.Planned.Placements = place("item-3:SATA6", "item-4:M2_1", "item-5:A2", "item-6:B2")
			if c.change != nil {
				c.change(&j)
			}
			j.Practice = p
			out := ""
			for _, s := range say.About(say.Plain, &j).Steps(j.Order()) {
				if string(s.ID) == c.step || p == nil && s.Phase == workorder.PowerDown {
					out += s.Do.String() + " " + joined(s.How)
				}
			}
			return out
		}
		if got := said(practice.Practice{{Matter: c.matter, School: c.school}}); !strings.Contains(got, c.want) {
			t.Errorf("%s: %s: %s lacks %q: %s", c.matter, c.school, c.step, c.want, got)
		}
		if got := said(nil); !strings.Contains(got, c.usual) {
			t.Errorf("%s as usual lacks %q: %s", c.matter, c.usual, got)
		}
	}
	for _, c := range []struct {
		school practice.School
		want   string
	}{{practice.Unplugged, "system/others-off system/install system/alone system/others-on"}, {practice.Connected, "system/install"}} {
		j := tower(t)
		j.Planned.Placements = place("item-3:SATA6", "item-4:M2_1", "item-5:A2", "item-6:B2")
		j.Wish.Starts = rig.Start{How: rig.Install, Item: "item-4"}
		j.Practice = practice.Practice{{Matter: practice.OldDrive, School: c.school}}
		var steps []string
		for _, s := range j.Order() {
			if s.Phase == workorder.System {
				steps = append(steps, s.ID)
			}
			if s.ID == "system/others-off" && !strings.Contains(joined(say.About(say.Plain, &j).Steps([]workorder.Step{s})[0].How), "Mudlark 2 TB, serial ML7-0093318, in SATA6") {
				t.Errorf("what is taken off is not named: %v", s.How)
			}
		}
		if got := strings.Join(steps, " "); got != c.want {
			t.Errorf("%s: %s, want %s", c.school, got, c.want)
		}
	}
	j, err := demo.Job("rain-gauge-logger")
	if err != nil {
		t.Fatal(err)
	}
	tower := tower(t)
	tower.Planned.Placements = place("item-3:SATA6", "item-4:M2_1", "item-5:A2", "item-6:B2")
	if steps := tower.Order(); !slices.ContainsFunc(steps, func(s workorder.Step) bool { return s.ID == workorder.BetweenStep && s.Powered() }) {
		t.Error("the start in between is not one for which the machine has power: a dropped screw would not hold it")
	}
	for _, name := range []string{"multibeam-workstation", "buoy-tracker-desktop"} { // its air, or a card with its lead, is off
		if j, err := demo.Job(name); err != nil || strings.Contains(ids(j.Order()), workorder.BetweenStep) {
			t.Errorf("%s is started without what it runs with, %v", name, err)
		}
	}
	j.Practice = practice.Practice{{Matter: practice.FirstStart, School: practice.Closed}}
	if order := ids(j.Order()); strings.Index(order, "shut/rear-foot") > strings.Index(order, "power-on/start") {
		t.Errorf("a shop that starts closed machines has %s", order)
	}
}
