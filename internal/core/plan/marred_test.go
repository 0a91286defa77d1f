package plan

import (
	"context"
	"fmt"
	"testing"
	"time"

	"deepbay/internal/core/machine"
	"deepbay/internal/core/rig"
)

// marred is the monster with one socket not as good as its like.
func marred(n, socket int, how string) Input {
	in := monster(n)
	sheet := *in.Found.Sheet
	sheet.Sockets = append([]machine.Socket(nil), sheet.Sockets...)
	k := &sheet.Sockets[socket]
	switch how {
	case "a generation lower":
		k.Gen, k.SATAGen = max(1, k.Gen)-1, max(1, k.SATAGen)-1
	case "half as wide":
		k.Lanes /= 2
	case "unstated":
		k.Gen, k.SATAGen = 0, 0
	}
	in.Found.Sheet = &sheet
	return in
}

var marks = []string{"a generation lower", "half as wide", "unstated"}

// The monster stays provable with any one of its sockets marred.
func TestMarred(t *testing.T) {
	for _, how := range marks {
		var longest, proving time.Duration
		worst := machine.SocketID("")
		for i, k := range monster(7).Found.Sheet.Sockets {
			if k.Kind.Memory() {
				continue
			}
			in := marred(7, i, how)
			start := time.Now()
			r, err := Find(context.Background(), in)
			if took := time.Since(start); took > longest {
				longest, worst = took, k.ID
			}
			if err != nil || r.End != Optimal {
				t.Errorf("%s %s: %s %v after %d builds", k.ID, how, r.End, err, r.Judged)
				continue
			}
			start = time.Now()
			p, err := Prove(context.Background(), in, r)
			if err != nil || p.End == GaveUp {
				t.Errorf("%s %s: %s %v", k.ID, how, p.End, err)
			}
			proving = max(proving, time.Since(start))
			holds(t, &in, r.Best)
		}
		t.Logf("%s: at most %v, at %s; the proof that holds whatever is not known takes at most %v more", how, longest.Round(time.Millisecond), worst, proving.Round(time.Millisecond))
	}
}

// BenchmarkMarred plans the monster with one socket of each kind marred.
func BenchmarkMarred(b *testing.B) {
	for _, id := range []rig.Path{rig.On("SLOT2"), rig.On("M2_2"), rig.On("M2_5"), rig.On("U2_1"), rig.On("SATA1")} {
		for _, how := range marks {
			i := 0
			for monster(7).Found.Sheet.Sockets[i].ID != id.Top() {
				i++
			}
			in := marred(7, i, how)
			b.Run(fmt.Sprint(id, " ", how), func(b *testing.B) {
				for b.Loop() {
					if r, err := Find(context.Background(), in); err != nil || r.End != Optimal {
						b.Fatal(r.End, err)
					}
				}
			})
		}
	}
}
