package say_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"deepbay/internal/core/cure"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
	"deepbay/internal/coretest"
)

// Two equal modules in the sheet's slots: nothing to say about memory.
const fine = " m16:A2 m16':B2"

// resolved is what is said of a machine, cures tried.
func resolved(t testing.TB, sheet *machine.Sheet, text string) say.Resolved {
	r := coretest.Lay(t, sheet, text)
	a := fit.Resolve(r)
	cure.Fill(r, &a)
	return say.English(r).Answer(&a)
}

func offered(t testing.TB, text string, item rig.ItemID) []say.Offer {
	r := coretest.Lay(t, coretest.Board(), text)
	return say.English(r).Offers(fit.Offers(r, item))
}

// The chain behind the answer of the lower socket, to the letter.
func TestWhy(t *testing.T) {
	r := resolved(t, coretest.Board(), "nvme:L hdd:P6"+fine)
	var got []string
	for _, f := range r.Findings {
		if f.Severity == fit.Notes {
			continue
		}
		got = append(got, f.Says.String())
		for _, why := range f.Because {
			got = append(got, "  because "+why.Says.String()+" ("+string(why.From)+")")
		}
		for _, c := range f.Cures {
			got = append(got, fmt.Sprintf("  cure %s %v", c.Says, c.Moves))
		}
	}
	want := `hdd is not seen on P6: the socket is off
  because when L holds anything, P5 is off and P6 is off (p. 18) (sheet)
  cure move the data lead of hdd to P9 [{hdd P9   }]
  cure move nvme from L into U [{nvme U   }]
  cure move nvme from L into F [{nvme F   }]
  cure move nvme from L into G [{nvme G   }]
  cure move nvme from L into T [{nvme T   }]
nvme could do 7.88 GB/s and runs at Gen 3 x4, 3.94 GB/s before packet overhead, in L
  because nvme is Gen 4 x4 (part)
  because L is Gen 3 x4, on the chipset behind its uplink of Gen 3 x4, which everything there shares (sheet)
  because a PCIe link runs at the lower generation and the narrower width of its two ends: Gen 3 x4 (standard)
  because 3.94 GB/s is the line rate after coding; with 256-byte packets about 3.60 GB/s is left for data (standard)
  cure put nvme into U [{nvme U   }]
  cure put nvme into T [{nvme T   }]`
	if strings.Join(got, "\n") != want {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "\n"), want)
	}
}

// What is said to be unknown names the fact that is missing.
func TestUnknownNamesTheFact(t *testing.T) {
	for lay1, want := range map[string]string{
		"mystery:U":         "unknown, because its label does not say whether mystery speaks PCIe or SATA",
		"nvme3:Q":           "unknown, because the sheet does not say what Q speaks",
		"ssd:P7":            "unknown, because the sheet does not say which drives the bay on P7 takes",
		"nvme:G":            "unknown, because the sheet does not say the generation of G",
		"norate:A2":         "unknown, because its label does not say the speed of norate",
		"nosize:A2":         "unknown, because its label does not say the size of nosize",
		"m16:A2 noranks:A1": "unknown, because its label does not say the ranks of noranks, which the board's table asks for",
	} {
		r := resolved(t, coretest.Board(), lay1)
		all := ""
		for _, f := range r.Findings {
			for _, why := range f.Because {
				all += why.Says.String() + "\n"
			}
		}
		if !strings.Contains(all, want) {
			t.Errorf("%s: no reason says %q in\n%s", lay1, want, all)
		}
	}
}

func TestMemoryAnswer(t *testing.T) {
	for _, c := range []struct{ lay, want string }{
		{"m8:A1 m8':A2", "16 GiB, 2400 MT/s, single channel, 19.20 GB/s"},
		{"m16r2:A2 m16r2':B2", "32 GiB, 3200 MT/s, dual channel, 51.20 GB/s"},
		{"m16r2:A2 m16r2':B2 m8:A1 m8':B1", "48 GiB, 2400 MT/s, dual channel, 38.40 GB/s"},
		{"m16r2:A1 m16r2':A2 m16r2'':B1 m16r2''':B2", "64 GiB, 2666 MT/s, dual channel, 42.67 GB/s"},
		{"m16:A2 m8:B2", "24 GiB, 2400 MT/s, 16 GiB dual, 8 GiB single channel, 28.80 GB/s"},
		{"m8:A1 m8':A2 m16:B2", "32 GiB, 2400 MT/s, dual channel, 38.40 GB/s"}, // only the channel's total counts
		{"fast:A2 fast':B2 profile=on", "32 GiB, 2666 to 3600 MT/s, dual channel, 42.67 to 57.60 GB/s"},
		{"fast:A2 m16:B2 profile=on", "32 GiB, 3200 MT/s, dual channel, 51.20 GB/s"},
		{"nosize:A2", "unknown, 3200 MT/s, unknown, because a module's size is not stated, at most 25.60 GB/s"},
		{"nvme:U", "no memory, , no channel filled, "},
	} {
		r := resolved(t, coretest.Board(), c.lay)
		m := r.Memory
		if got := m.Total.String() + ", " + m.Speed.String() + ", " + m.Spread.String() + ", " + m.Peak.String(); got != c.want {
			t.Errorf("%s: %s\nwant %s", c.lay, got, c.want)
		}
	}
}

// What drives can move alone and all at once, and what holds them.
func TestFlows(t *testing.T) {
	for text, want := range map[string]string{
		"nvme:U":           "U: 7.06 GB/s alone",
		"nvme3:L ssd:P1":   "L: 3.53 GB/s alone, 2.93 GB/s with all 2 drives at work, held by the uplink of the chipset\nP1: 600 MB/s alone",
		"nvme3:L nvme3':F": "L: 3.53 GB/s alone, 1.76 GB/s with all 2 drives at work, held by the uplink of the chipset\nF: 3.53 GB/s alone, 1.76 GB/s with all 2 drives at work, held by the uplink of the chipset",
		"nvme3:L nvme3':U": "U: 3.53 GB/s alone\nL: 3.53 GB/s alone",
		"joined:X2 nvme:X2/1 nvme':X2/2 nvme'':X2/4": "X2/1: 7.06 GB/s alone, 4.71 GB/s with all 3 drives at work, held by the link of the carrier in X2" + "\n" + "X2/2: 7.06 GB/s alone, 4.71 GB/s with all 3 drives at work, held by the link of the carrier in X2" + "\n" + "X2/4: 7.06 GB/s alone, 4.71 GB/s with all 3 drives at work, held by the link of the carrier in X2",
		"quad:X1 nvme:X1/1 nvme':X1/2 split=4+4+4+4": "X1/1: 7.06 GB/s alone\nX1/2: 7.06 GB/s alone",
		"mystery:U hdd":                       "",
		"box:R1 nvme:R1/1":                    "R1/1: 900 MB/s alone, held by the USB link of R1",
		"dock:R3 ssd:R3/1":                    "R3/1: at most 500 MB/s: what the USB link of R3 carries is not stated",
		"ports:X3 ssd:X3/1 nvme3:L":           "L: 3.53 GB/s alone, 2.93 GB/s with all 2 drives at work, held by the uplink of the chipset\nX3/1: 600 MB/s alone",
		"riser:F quad:F/1 nvme3:F/1/1 ssd:P1": "P1: 600 MB/s alone",
	} {
		var got []string
		for _, f := range resolved(t, coretest.Board(), text).Flows {
			got = append(got, f.Socket.String()+": "+f.Says.String())
		}
		if strings.Join(got, "\n") != want {
			t.Errorf("%s:\n%s\nwant\n%s", text, strings.Join(got, "\n"), want)
		}
	}
	unstated := coretest.Board()
	unstated.Roots[1].Uplink.Gen = 0
	f := resolved(t, unstated, "nvme3:L ssd:P1").Flows
	if len(f) != 2 || f[0].Says.String() != "at most 3.53 GB/s: what the uplink of the chipset carries is not stated" || f[0].Held.String() != "the uplink of the chipset" {
		t.Errorf("behind an unstated uplink: %+v", f)
	}
}

func TestOffers(t *testing.T) {
	var got []string
	for _, o := range offered(t, "+nvme hdd:P6"+fine, "nvme") {
		got = append(got, fmt.Sprintf("%s %s: %s %d", o.Socket, o.State, o.Says, len(o.Costs)))
	}
	want := []string{"U live: Gen 4 x4, 7.88 GB/s 0", "T live: Gen 4 x4, 7.88 GB/s 0", "F live: Gen 4 x4, 7.88 GB/s 0", "G live: at most Gen 4 x4, 7.88 GB/s 0",
		"O unknown: Gen 4 x4, 7.88 GB/s 0", "Q unknown: Gen 3 x4, 3.94 GB/s 0", "L live: turns off hdd 1", "K stopped: no notch at the socket's key 1", "W stopped: no post at the card's length 1"}
	if !slices.Equal(got, want) {
		t.Errorf("got\n%s\nwant\n%s", strings.Join(got, "\n"), strings.Join(want, "\n"))
	}
	for _, o := range offered(t, "+nvme quad:X1"+fine, "nvme") {
		switch {
		case o.Socket == rig.ParsePath("X1/1") && o.State != fit.Live:
			t.Errorf("a position that is served is offered as %+v", o)
		case o.Socket == rig.ParsePath("X1/2") && o.Says.String() != "no lanes of the slot reach this position":
			t.Errorf("one that is not as %+v", o)
		}
	}
	if first := offered(t, "+nvme nvme':U"+fine, "nvme")[0]; first.Socket == rig.On("U") || first.Out.String() != "" {
		t.Errorf("where nothing has to give way comes first, not %+v", first)
	}
	// A carrier is offered with what is on it.
	for _, o := range offered(t, "quad:X1 nvme:X1/1"+fine, "quad") {
		if want := map[string]string{"X1": "Gen 4 x16, lanes for 1 of 4 positions", "X2": "Gen 4 x8, lanes for 1 of 4 positions", "X3": "the slot is too short for the card"}[o.Socket.String()]; o.Says.String() != want {
			t.Errorf("a carrier is offered %s as %q, want %q", o.Socket, o.Says, want)
		}
	}
	if n := len(offered(t, fine, "nobody")); n != 0 {
		t.Errorf("%d offers for nothing", n)
	}
}
