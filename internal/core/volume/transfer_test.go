package volume

import (
	"strings"
	"testing"

	"deepbay/internal/core/quantity"
)

// TestConditions holds what must hold for a transfer against the limits of facts: 2^32 sectors of 512
// bytes in the older table, UEFI with GPT, partitions that begin at multiples of 2048 sectors. What
// nobody looked up is unknown, and telling it never makes another answer less sure.
func TestConditions(t *testing.T) {
	const limit quantity.Bytes = 2_199_023_255_552
	for _, c := range []struct {
		name string
		t    Transfer
		ends Ends
		want string
	}{
		{"nothing known", Transfer{How: Swap}, Ends{}, "fits?! open?"},
		{"files fit", Transfer{How: Swap, Bytes: 300 * quantity.GB, Encrypted: quantity.No}, Ends{To: 500 * quantity.GB}, "fits+! open+"},
		{"to the byte", Transfer{How: Fresh, Bytes: 500 * quantity.GB, Encrypted: quantity.Yes}, Ends{To: 500 * quantity.GB}, "fits+! open-"},
		{"one byte more", Transfer{How: Swap, Bytes: 500*quantity.GB + 1}, Ends{To: 500 * quantity.GB}, "fits-! open?"},
		{"a clone onto one as large", Transfer{How: Clone, Table: GPT, Start: UEFI, FirstSector: 2048, Sectors: quantity.Yes, Encrypted: quantity.No}, Ends{quantity.TB, quantity.TB}, "fits+! open+ named+ starts-so+ aligned+ same-sectors+!"},
		{"onto a smaller one, what lies on it unknown", Transfer{How: Clone}, Ends{2 * quantity.TB, quantity.TB}, "shrinks? open? named+ starts-so? aligned? same-sectors?!"},
		{"onto a smaller one that takes it", Transfer{How: Clone, Bytes: 800 * quantity.GB}, Ends{2 * quantity.TB, quantity.TB}, "shrinks- open? named+ starts-so? aligned? same-sectors?!"},
		{"onto one that does not", Transfer{How: Clone, Bytes: 1100 * quantity.GB}, Ends{2 * quantity.TB, quantity.TB}, "fits-! open? named+ starts-so? aligned? same-sectors?!"},
		{"the older table, at its limit", Transfer{How: Clone, Table: MBR, Start: Legacy}, Ends{quantity.TB, limit}, "fits+! open? named+ starts-so+ aligned? same-sectors?!"},
		{"a sector beyond", Transfer{How: Clone, Table: MBR, Start: Legacy}, Ends{quantity.TB, limit + 512}, "fits+! open? named- starts-so+ aligned? same-sectors?!"},
		{"beyond, and nobody looked", Transfer{How: Clone}, Ends{quantity.TB, limit + 512}, "fits+! open? named? starts-so? aligned? same-sectors?!"},
		{"GPT started the older way", Transfer{How: Clone, Table: GPT, Start: Legacy}, Ends{quantity.TB, quantity.TB}, "fits+! open? named+ starts-so- aligned? same-sectors?!"},
		{"the older table started by UEFI", Transfer{How: Clone, Table: MBR, Start: UEFI}, Ends{quantity.TB, quantity.TB}, "fits+! open? named+ starts-so- aligned? same-sectors?!"},
		{"sector 63", Transfer{How: Clone, FirstSector: 63}, Ends{quantity.TB, quantity.TB}, "fits+! open? named+ starts-so? aligned- same-sectors?!"},
		{"sectors of two sizes", Transfer{How: Clone, FirstSector: 4096, Sectors: quantity.No}, Ends{quantity.TB, quantity.TB}, "fits+! open? named+ starts-so? aligned+ same-sectors-!"},
	} {
		var got []string
		for _, n := range c.t.Conditions(c.ends) {
			s := string(n.Need) + map[quantity.Answer]string{quantity.Yes: "+", quantity.No: "-", quantity.Unknown: "?"}[n.Met]
			if n.Hard {
				s += "!"
			}
			got = append(got, s)
		}
		if strings.Join(got, " ") != c.want {
			t.Errorf("%s: %s, want %s", c.name, strings.Join(got, " "), c.want)
		}
	}
	for _, c := range []struct {
		t    Transfer
		want Load
	}{
		{Transfer{How: Swap, Bytes: 10, Mean: 2}, Load{10, 2}},
		{Transfer{How: Clone, Bytes: 10, Mean: 2}, Load{Bytes: 10}}, // it is read as one large file
	} {
		if got := c.t.Load(); got != c.want {
			t.Errorf("%+v: %+v", c.t, got)
		}
	}
}
