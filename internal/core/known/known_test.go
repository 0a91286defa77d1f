package known

import (
	"math/rand"
	"testing"
)

var truths = []Truth{Unknown, No, Yes}

// possible is the sure truths that a truth may turn out to be.
func possible(t Truth) []bool {
	switch t {
	case Yes:
		return []bool{true}
	case No:
		return []bool{false}
	}
	return []bool{true, false}
}

// What is said of truths holds however the unknown ones turn out, and knowing more
// only narrows.
func TestTruths(t *testing.T) {
	for _, a := range truths {
		for _, b := range truths {
			and, or := map[bool]bool{}, map[bool]bool{}
			for _, x := range possible(a) {
				for _, y := range possible(b) {
					and[x && y], or[x || y] = true, true
				}
			}
			for name, c := range map[string]struct {
				got  Truth
				seen map[bool]bool
			}{"and": {And(a, b), and}, "or": {Or(a, b), or}} {
				want := Unknown
				if len(c.seen) == 1 {
					want = Of(c.seen[true])
				}
				if c.got != want {
					t.Errorf("%v %s %v = %v, want %v", a, name, b, c.got, want)
				}
			}
		}
		if Not(Not(a)) != a || And(a) != a || Or(a) != a {
			t.Errorf("%v: not not is %v", a, Not(Not(a)))
		}
	}
	if And() != Yes || Or() != No {
		t.Error("of nothing: all are, and none is")
	}
}

// Ranges hold every value that numbers in them can come to, with no room to spare.
func TestRanges(t *testing.T) {
	rng := rand.New(rand.NewSource(1))
	span := func() Range[int] {
		a, b := rng.Intn(6), rng.Intn(6)
		return Between(min(a, b), max(a, b))
	}
	for range 2000 {
		a, b := span(), span()
		lows := map[string]*Range[int]{"min": {9, -9}, "max": {9, -9}, "cap": {9, -9}, "maybe": {9, -9}}
		yes, no := true, true
		for x := a.Low; x <= a.High; x++ {
			for y := b.Low; y <= b.High; y++ {
				for name, v := range map[string]int{"min": min(x, y), "max": max(x, y)} {
					lows[name].Low, lows[name].High = min(lows[name].Low, v), max(lows[name].High, v)
				}
				yes, no = yes && x <= y, no && x > y
			}
			for name, vs := range map[string][]int{"cap": {min(x, b.Low)}, "maybe": {x, min(x, b.Low)}} {
				for _, v := range vs {
					lows[name].Low, lows[name].High = min(lows[name].Low, v), max(lows[name].High, v)
				}
			}
		}
		for name, got := range map[string]Range[int]{"min": Min(a, b), "max": Max(a, b), "cap": a.Cap(b.Low, Yes), "maybe": a.Cap(b.Low, Unknown)} {
			if got != *lows[name] {
				t.Fatalf("%s of %v and %v: %v, want %v", name, a, b, got, *lows[name])
			}
		}
		want := Unknown
		if yes != no {
			want = Of(yes)
		}
		if got := AtMost(a, b); got != want {
			t.Fatalf("%v at most %v: %v, want %v", a, b, got, want)
		}
		if a.Cap(b.Low, No) != a || !a.Holds(a) || a.Exact() != (a.Low == a.High) {
			t.Fatalf("%v", a)
		}
	}
}
