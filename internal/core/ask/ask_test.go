package ask_test

import (
	"fmt"
	"strings"
	"testing"

	"deepbay/demo"
	"deepbay/internal/core/ask"
	"deepbay/internal/core/link"
	"deepbay/internal/core/part"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

func brief(a say.Reply) string {
	s := a.Says.String()
	for _, l := range a.Lines {
		s += "; " + l.What.String() + ": " + l.Value.String()
	}
	return s
}

func TestFigures(t *testing.T) {
	up, err := ask.Uplink(link.Link{Gen: 3, Lanes: 4}, link.Link{Gen: 3, Lanes: 4}, 4)
	if err != nil {
		t.Fatal(err)
	}
	unstated, err := ask.Uplink(link.Link{Gen: 3}, link.Link{Gen: 3, Lanes: 4}, 4)
	if err != nil {
		t.Fatal(err)
	}
	capacity, err := ask.Capacity("500 GB")
	if err != nil {
		t.Fatal(err)
	}
	code, err := ask.Code("12800")
	if err != nil {
		t.Fatal(err)
	}
	words, err := ask.Part("2x16 DDR5-5600 SODIMM")
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		got  ask.Reply
		want string
	}{
		{ask.Link(link.Link{Gen: 4, Lanes: 4}, link.Link{Gen: 3, Lanes: 4}), "Gen 3 x4, 3.94 GB/s; before packet overhead: 3.94 GB/s; with 128-byte packets: 3.32 GB/s; with 256-byte packets: 3.60 GB/s; with 512-byte packets: 3.76 GB/s; to plan with: 3.53 GB/s"},
		{ask.Link(link.Link{Gen: 4, Lanes: 4}, link.Link{}), "Gen ? x?, unknown; before packet overhead: unknown; with 128-byte packets: unknown; with 256-byte packets: unknown; with 512-byte packets: unknown; to plan with: unknown"},
		{up, "882 MB/s each; each, all at once: 882 MB/s; one alone: 3.53 GB/s; all together: 3.53 GB/s; asked of the uplink: 4.00 times what it carries"},
		{unstated, "unknown"},
		{capacity, "500 GB is 465.66 GiB; decimal: 500 GB; binary: 465.66 GiB; as many systems print it: 465 GB; exactly: 500,000,000,000 bytes; a drive sold as this: 500,107,862,016 bytes, printed 465 GB; if it is memory, or a system printed it: 536,870,912,000 bytes"},
		{code, "DDR3-1600 or DDR4-1600; DDR3-1600: PC3-12800, one channel 12.80 GB/s, two 25.60 GB/s; DDR4-1600: PC4-12800, one channel 12.80 GB/s, two 25.60 GB/s"},
		{words, "2 of 16 GiB DDR5-5600 SO-DIMM; 2x16: 2 pieces of 16; DDR5-5600: DDR5-5600, PC5-44800; SODIMM: short module; it does not say: its ranks, whether it has check bits, whether it is registered"},
	} {
		if got := brief(say.Plain.Reply(&c.got)); got != c.want {
			t.Errorf("%s\nwant\n%s", got, c.want)
		}
	}
	for name, err := range map[string]error{
		"capacity": second(ask.Capacity("much")), "code": second(ask.Code("fast")), "part": second(ask.Part("banana")), "drives": second(ask.Uplink(link.Link{}, link.Link{}, 0)),
	} {
		if err == nil {
			t.Errorf("a wrong %s was answered", name)
		}
	}
}

// TestAfter holds the second half of the slide rule against cases worked by hand; see docs/model.md.
func TestAfter(t *testing.T) {
	for _, c := range []struct {
		what string
		got  func() (ask.Reply, error)
		want string
	}{
		{"sum", func() (ask.Reply, error) { return ask.Sum("2 TB + 500 GB - 3 x 100 GB") }, "2.20 TB, shown as 2.00 TB; decimal: 2.20 TB; binary: 2.00 TiB; as many systems print it: 2.00 TB; exactly: 2,200,000,000,000 bytes"},
		{"sum, a minus of print", func() (ask.Reply, error) { return ask.Sum("1 TB − 1 GB") }, "999 GB"},
		{"sum of nothing", func() (ask.Reply, error) { return ask.Sum("1 TB - 1 TB") }, "that is nothing, or less"},
		{"sum of too much", func() (ask.Reply, error) { return ask.Sum("64 x 900000 TB") }, "more than any shop has"},
		{"sum without a number", func() (ask.Reply, error) { return ask.Sum("1 TB + ") }, `"" is no capacity`},
		{"two signs", func() (ask.Reply, error) { return ask.Sum("1 TB +- 1 GB") }, "is no capacity"},
		{"parity", func() (ask.Reply, error) { return ask.Array("3 x 4 TB, 2 TB", rig.Parity) }, "6 TB, shown as 5.45 TB; decimal: 6 TB; as many systems print it: 5.45 TB; all drives: 14 TB; of larger drives, unused: 6 TB; may fail without loss: 1"},
		{"joined", func() (ask.Reply, error) { return ask.Array("4 TB\n2 TB", rig.Joined) }, "6 TB, shown"},
		{"too few", func() (ask.Reply, error) { return ask.Array("2 TB", rig.Parity) }, "one parity takes 3 drives or more"},
		{"odd", func() (ask.Reply, error) { return ask.Array("5 x 1 TB", rig.MirrorsOver) }, "striped mirrors takes 4 drives or more"},
		{"no level", func() (ask.Reply, error) { return ask.Array("2 x 1 TB", "9") }, `"9" is no level`},
		// 2 TB at 200 MB/s are 10,000 s; 20,000,000 files of 100 KB at 12 ms are 240,000 s.
		{"copy", func() (ask.Reply, error) { return ask.Copy("2 TB", "100 KB", "200 MB/s", "7 GB/s", false) }, "69 h 27 min; moving the bytes: 2 h 47 min; opening and closing files: 20,000,000 files, 66 h 40 min"},
		{"copy, large files", func() (ask.Reply, error) { return ask.Copy("500 GB", "", "0,5GB/s", "540", true) }, "17 min; moving the bytes: 17 min"},
		{"copy at no rate", func() (ask.Reply, error) { return ask.Copy("500 GB", "", "0", "540", true) }, `"0" is no rate`},
		{"sounds", func() (ask.Reply, error) { return ask.Sounds("30 30", "") }, "30.0 dB(A); one after the other, on the whole: 30.0 dB(A); all of them at once: 33.0 dB(A)"},
		{"without the room", func() (ask.Reply, error) { return ask.Sounds("40", "30") }, "39.5 dB(A)"},
		{"too near", func() (ask.Reply, error) { return ask.Sounds("31", "30") }, "at most 28.0 dB(A)"},
		{"no sound", func() (ask.Reply, error) { return ask.Sounds("", "30") }, "is no level of sound"},
		{"prices", func() (ask.Reply, error) { return ask.Prices("2x16GB 79.90\n32 GB 89") }, "2x16GB is cheapest, 2.50 a GB; 2x16GB: 2.50 a GB; 32 GB: 2.78 a GB"},
		{"no price", func() (ask.Reply, error) { return ask.Prices("2x16GB") }, "write what it is and what all of it costs"},
	} {
		a, err := c.got()
		got := brief(say.Plain.Reply(&a))
		if err != nil {
			got = say.Plain.Cannot(err).Fault.String()
		}
		if !strings.Contains(got, c.want) {
			t.Errorf("%s: %s\nwant %s", c.what, got, c.want)
		}
	}
}

func second(_ ask.Reply, err error) error { return err }

// The table of modules against sockets: what goes in, and what works.
func TestKeys(t *testing.T) {
	both := []link.Protocol{link.PCIe, link.SATA}
	for _, c := range []struct {
		key       part.Key
		protocols []link.Protocol
		want      string
	}{
		{"M", both, "live live live live stopped"},
		{"M", []link.Protocol{link.PCIe}, "live stopped stopped live stopped"},
		{"M", []link.Protocol{link.SATA}, "stopped live live stopped stopped"},
		{"B", both, "stopped stopped live live stopped"},
		{"B", []link.Protocol{link.SATA}, "stopped stopped live stopped stopped"},
		{"E", []link.Protocol{link.PCIe}, "stopped stopped stopped stopped live"},
		{"A", []link.Protocol{link.PCIe}, "stopped stopped stopped stopped live"},
		{"M", nil, "unknown unknown unknown unknown stopped"},
	} {
		var got []string
		for _, f := range say.Plain.Keys(c.key, c.protocols) {
			got = append(got, string(f.State))
			if f.State == "stopped" && len(f.Findings) == 0 {
				t.Errorf("%s in %s %v is stopped without a reason", f.Card, c.key, c.protocols)
			}
		}
		if strings.Join(got, " ") != c.want {
			t.Errorf("socket %s %v: %v, want %s", c.key, c.protocols, got, c.want)
		}
	}
}

func TestPopulation(t *testing.T) {
	j, err := demo.Job("echo-sounding-tower")
	if err != nil {
		t.Fatal(err)
	}
	for text, want := range map[string]string{
		"2x16 DDR4-3200 2R":                   "32 GiB, 3200 MT/s, dual channel; A2: 16 GiB DDR4-3200 DIMM; B2: 16 GiB DDR4-3200 DIMM",
		"2x16 DDR4-3200 2R\n2x4 DDR4-2400 1R": "40 GiB, 2400 MT/s, dual channel; A1: 16 GiB DDR4-3200 DIMM; B1: 16 GiB DDR4-3200 DIMM; A2: 4 GiB DDR4-2400 DIMM; B2: 4 GiB DDR4-2400 DIMM",
		"16 DDR4-3200 + 8 DDR4-3200":          "24 GiB, 3200 MT/s, 16 GiB dual, 8 GiB single channel; A2: 16 GiB DDR4-3200 DIMM; B2: 8 GiB DDR4-3200 DIMM",
		"2x16 DDR5-5600":                      "no memory; ",
	} {
		p, err := ask.Population(&j.Sheet, text)
		if err != nil {
			t.Fatal(err)
		}
		if got := brief(say.Plain.Population(&p)); !strings.HasPrefix(got, want) {
			t.Errorf("%q: %s\nwant %s", text, got, want)
		}
	}
	for text, want := range map[string]string{"": "no module was written", "1TB nvme": "is a drive", "5x8 DDR4-3200": "5 modules and 4 slots", "x": "means nothing here"} {
		if a, err := ask.Population(&j.Sheet, text); err == nil || !strings.Contains(say.Plain.Err(err).Error(), want) {
			t.Errorf("%q: %v, %v; want %s", text, a, err, want)
		}
	}
}

func ExampleLink() {
	a := ask.Link(link.Link{Gen: 3, Lanes: 4}, link.Link{Gen: 4, Lanes: 2})
	fmt.Println(say.Plain.Reply(&a).Says)
	// Output: Gen 3 x2, 1.97 GB/s
}
