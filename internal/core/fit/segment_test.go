package fit

import (
	"slices"
	"testing"

	"deepbay/internal/core/quantity"
)

// Which positions of a plain carrier are seen: four drives on lanes 0, 4, 8 and
// 12, and two on 0 and 4, in every set-up of the slot.
func TestPositions(t *testing.T) {
	for _, c := range []struct {
		slot  quantity.Lanes
		split []quantity.Lanes
		four  []int
		two   []int
	}{
		{16, nil, []int{1}, []int{1}},
		{16, []quantity.Lanes{8, 8}, []int{1, 3}, []int{1}},
		{16, []quantity.Lanes{8, 4, 4}, []int{1, 3, 4}, []int{1}},
		{16, []quantity.Lanes{4, 4, 8}, []int{1, 2, 3}, []int{1, 2}},
		{16, []quantity.Lanes{4, 4, 4, 4}, []int{1, 2, 3, 4}, []int{1, 2}},
		{8, nil, []int{1}, []int{1}},
		{8, []quantity.Lanes{4, 4}, []int{1, 2}, []int{1, 2}},
		{8, []quantity.Lanes{4, 4, 4, 4}, []int{1, 2}, []int{1, 2}}, // an x16 slot that fell to eight lanes
		{8, []quantity.Lanes{8, 8}, []int{1}, []int{1}},
		{4, nil, []int{1}, []int{1}},
		{4, []quantity.Lanes{4, 4, 4, 4}, []int{1}, []int{1}},
	} {
		for positions, want := range map[int][]int{4: c.four, 2: c.two} {
			var got []int
			for k := range positions {
				if _, live := segment(c.slot, c.split, 4*k); live {
					got = append(got, k+1)
				}
			}
			if !slices.Equal(got, want) {
				t.Errorf("%d positions in %v %v: %v seen, want %v", positions, c.slot, c.split, got, want)
			}
		}
	}
}
