package memory

// This file knows the names of memory speeds: the rates of each family, the
// module names shops use, and other spellings in circulation.

import (
	"math"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/quantity"
)

// Rated is one speed of a family as labels carry it.
type Rated struct {
	Generation Generation
	Label      quantity.MTps // 2666
	Module     int           // 21300, of PC4-21300
}

// Name prints "DDR4-2666".
func (r Rated) Name() string { return r.Generation.String() + "-" + strconv.Itoa(int(r.Label)) }

// ModuleName prints "PC4-21300".
func (r Rated) ModuleName() string {
	return "PC" + string(r.Generation[len(r.Generation)-1]) + "-" + strconv.Itoa(r.Module)
}

// Rates is the speeds of JESD79-2 to -5 by family. Module names of DDR2 to DDR4
// are cut to hundreds of the exact peak in MB/s.
var Rates = func() []Rated {
	var out []Rated
	for _, f := range []struct {
		g      Generation
		labels []quantity.MTps
	}{
		{DDR2, []quantity.MTps{400, 533, 667, 800, 1066}},
		{DDR3, []quantity.MTps{800, 1066, 1333, 1600, 1866, 2133}},
		{DDR4, []quantity.MTps{1600, 1866, 2133, 2400, 2666, 2933, 3200}},
		{DDR5, []quantity.MTps{3200, 3600, 4000, 4400, 4800, 5200, 5600, 6000, 6400, 6800, 7200, 7600, 8000, 8400, 8800}},
	} {
		for _, l := range f.labels {
			out = append(out, Rated{f.g, l, int(Exact(l)*8) / 100 * 100})
		}
	}
	return out
}()

// perSecond is the number below which the figure of a module code is MT/s, by
// family: PC4-2666 is MT/s, PC4-21300 is MB/s.
var perSecond = map[Generation]int{DDR2: 1100, DDR3: 2200, DDR4: 5000, DDR5: 10000}

// Speed finds the speed that a number means in a family: MT/s as they are, or
// the nearest row to an eighth of it within 1.6 percent, which takes the other
// spellings in (10666, 23500).
func Speed(g Generation, n int) (Rated, bool) {
	want := float64(n)
	if n >= perSecond[g] {
		want /= 8
	}
	best, off := Rated{}, 0.016 // PC2-4200 stands for 533.33 x 8, 1.56 percent off
	for _, r := range Rates {
		if r.Generation != g {
			continue
		}
		for _, as := range []float64{float64(r.Label), Exact(r.Label)} {
			if d := math.Abs(as-want) / as; d < off {
				best, off = r, d
			}
		}
	}
	return best, best.Label > 0
}

// Code reads a module code or speed name: "PC4-21300", "PC3L-12800S",
// "DDR5-5600". A bare number may mean several speeds; all are returned, and it
// is for a person to choose.
func Code(s string) ([]Rated, error) {
	t := strings.ToUpper(strings.TrimSpace(s))
	for _, g := range []Generation{DDR2, DDR3, DDR4, DDR5} {
		digit := string(g[len(g)-1])
		for _, head := range []string{"DDR" + digit, "PC" + digit} {
			rest, ok := strings.CutPrefix(t, head)
			if !ok {
				continue
			}
			rest = strings.TrimLeft(strings.TrimLeft(rest, "LU"), "- ")
			n, err := strconv.Atoi(strings.TrimRight(rest, "ABCDEFGHIJKLMNOPQRSTUVWXYZ"))
			if err != nil {
				return nil, fact.Err(FamilyOnly, s)
			}
			if r, ok := Speed(g, n); ok {
				return []Rated{r}, nil
			}
			return nil, fact.Err(HasNoSpeedNear, s, g, int(n))
		}
	}
	n, err := strconv.Atoi(t)
	if err != nil {
		return nil, fact.Err(NoModuleCode, s)
	}
	var out []Rated
	for _, g := range []Generation{DDR2, DDR3, DDR4, DDR5} {
		if r, ok := Speed(g, n); ok {
			out = append(out, r)
		}
	}
	if out == nil {
		return nil, fact.Err(NearNoSpeed, s)
	}
	return out, nil
}
