package shelf

import (
	"fmt"
	"testing"

	"deepbay/internal/core/part"
)

// Whatever differs is told, and what does not is not: an entry of which nothing is told
// would not be kept.
func TestDiff(t *testing.T) {
	a := Stock{Part: part.Part{ID: "p", Name: "Plug", Fitting: &part.Fitting{Kind: part.Spacer}}, Count: 3, Price: 420, Condition: New, Serials: []string{"A", "B"}}
	for _, c := range []struct {
		change func(*Stock)
		want   string
	}{
		{func(*Stock) {}, "[]"},
		{func(s *Stock) { s.Count = 5 }, "[shelf/count-up 2 5]"},
		{func(s *Stock) { s.Count = 0 }, "[shelf/count-down 3 0]"},
		{func(s *Stock) { s.Price = 500 }, "[shelf/price-is 5.00]"},
		{func(s *Stock) { s.Price = 0 }, "[shelf/price-gone]"},
		{func(s *Stock) { s.Condition = Tested }, "[shelf/condition-is tested]"},
		{func(s *Stock) { s.Condition = "" }, "[shelf/condition-gone]"},
		{func(s *Stock) { s.Serials = []string{"B", "C"} }, "[shelf/serials-came [C] shelf/serials-went [A]]"},
		{func(s *Stock) { s.Serials = []string{"B", "A"} }, "[shelf/serials-order]"},
		{func(s *Stock) { s.Serials = []string{"A", "B", "B"} }, "[shelf/serials-order]"},
		{func(s *Stock) { s.Part.Number = "N1" }, "[shelf/described-as [machine/field-set number N1]]"},
		{func(s *Stock) { s.Part.Fitting = &part.Fitting{Kind: part.Caddy} }, "[shelf/described-as [machine/part-changed fitting [machine/field-from-to kind spacer caddy]]]"},
	} {
		b := a
		b.Serials = append([]string(nil), a.Serials...)
		c.change(&b)
		if got := fmt.Sprint(Diff(&a, &b)); got != c.want {
			t.Errorf("%s, want %s", got, c.want)
		}
	}
}
