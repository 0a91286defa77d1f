package cure_test

import (
	"flag"
	"fmt"
	"math/rand"
	"slices"
	"testing"

	"deepbay/internal/core/cure"
	"deepbay/internal/core/fit"
	"deepbay/internal/core/rig"
	"deepbay/internal/coretest"
)

// machinesTried is how many random machines cures are tried on; make soak asks for more.
var machinesTried = flag.Int("machines", 600, "random machines in TestCuresCure")

// Every cure with moves cures its finding, or makes the piece faster where that is what
// the finding is about, and stops nothing new: on random machines, whatever is wrong.
func TestCuresCure(t *testing.T) {
	count := *machinesTried
	tried, codes := 0, map[fit.Code]int{}
	for seed := range int64(count) {
		r := coretest.Machine(rand.New(rand.NewSource(seed)))
		r.Found = &rig.Setup{}
		a := fit.Resolve(&r)
		cure.Fill(&r, &a)
		for _, f := range a.Findings {
			for _, c := range f.Cures {
				tried++
				codes[f.Code]++
				after, done, err := r.Moved(c.Moves)
				if err != nil || len(done) != len(c.Moves) {
					t.Fatalf("seed %d: %s: %v cannot be carried out: %v", seed, f.Code, c.Moves, err)
				}
				next := r
				next.Setup = after
				b := fit.Resolve(&next)
				for _, g := range b.Findings {
					same := func(h fit.Finding) bool { // wherever the piece went, by itself or on its carrier
						return h.Code == g.Code && h.Item == g.Item && (g.Item != "" || h.Socket == g.Socket)
					}
					if g.Severity == fit.Stops && !slices.ContainsFunc(a.Findings, same) {
						t.Fatalf("seed %d: %v cures %s and %s stops %s in %s", seed, c.Moves, f.Code, g.Code, g.Item, g.Socket)
					}
					if g.Code == f.Code && g.Item == f.Item && (g.Item != "" || g.Socket == f.Socket) && !faster(&a, &b, f.Item) {
						t.Fatalf("seed %d: after %v it still stands: %s of %s in %s", seed, c.Moves, g.Code, g.Item, g.Socket)
					}
				}
			}
		}
	}
	if tried < 2*count || len(codes) < 10 {
		t.Errorf("only %d cures of %d kinds were tried: %v", tried, len(codes), codes)
	}
}

// faster reports that a piece's link or what it moves alone is above what it was.
func faster(before, after *fit.Answer, id rig.ItemID) bool {
	for _, f := range after.Flows {
		for _, g := range before.Flows {
			if f.Item == id && g.Item == id && f.Alone.Low > g.Alone.High {
				return true
			}
		}
	}
	for _, s := range after.Sockets {
		for _, k := range before.Sockets {
			if s.Item == id && k.Item == id && s.Link != nil && k.Link != nil && s.Link.Rate.Low > k.Link.Rate.High {
				return true
			}
		}
	}
	return false
}

// What it costs elsewhere is said with a cure.
func TestCosts(t *testing.T) {
	for lay, want := range map[string]string{
		"nvme:F m16:A2 m16':B2":                                       "uplink-below-link [{nvme U   }] 0; uplink-below-link [{nvme T   }] 0; ",
		"+sata2 nvme:U m16:A2 m16':B2":                                "not-placed [{sata2 L   }] 1; not-placed [{sata2 K   }] 0; ",
		"nvme3:U nvme:L m16:A2 m16':B2":                               "link-below-drive [{nvme T   }] 0; link-below-drive [{nvme U   } {nvme3 L   }] 0; ",
		"joined:X1 nvme:X1/1 nvme':X1/2 split=4+4+4+4 m16:A2 m16':B2": "carrier-shared [{joined X2   }] 0; carrier-shared [{   split 16}] 0; carrier-shared [{   split 8+8}] 0; carrier-shared [{   split 8+4+4}] 0; ",
	} {
		r := coretest.Lay(t, coretest.Board(), lay)
		a := fit.Resolve(r)
		cure.Fill(r, &a)
		got := ""
		for _, f := range a.Findings {
			if f.Code == "port-lost" {
				continue
			}
			for _, c := range f.Cures {
				got += fmt.Sprintf("%s %v %d; ", f.Code, c.Moves, len(c.Costs))
			}
		}
		if got != want {
			t.Errorf("%s: %s\nwant %s", lay, got, want)
		}
	}
}
