package job_test

import (
	"fmt"
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

// arrived is a machine on the bench of which nothing is written down yet.
func arrived(t *testing.T, like string) job.Job {
	t.Helper()
	j := load(t, like)
	return job.New("just-arrived", "Just arrived", j.Sheet, rig.Wish{}, stamp.At)
}

// What is written down at the open machine is what lies in it, all of it or nothing: pieces
// by words, where they were found, and what was found empty.
func TestWrite(t *testing.T) {
	for _, c := range []struct {
		name, text string
		isNew      bool
		want       string // the sentence, or the fault
		lies       string // what lies where afterwards, as found and as planned
	}{
		{"as found in one go", "A1, B1: 4GB PC3-12800U\nSATA6: 2TB 3.5 sata 7200rpm S/N ML7\nPCIE1: x16 graphics card 2 slots 240mm", false,
			"added, found in A1 and B1: 2 of 4GB DDR3-1600 DIMM non-ECC unbuffered; added, found in SATA6: 1 of 2TB sata 3.5 7200rpm; added, found in PCIE1: 1 of x16 card graphics 2-slot 240mm",
			"A1=4GB B1=4GB SATA6=2TB/ML7 PCIE1=x16 | A1=4GB B1=4GB SATA6=2TB/ML7 PCIE1=x16"},
		{"semicolons, and the form from the slot", "A2: 8GB PC4-2666; sata 1: 1TB 3.5", false,
			"added, found in A2: 1 of 8GB DDR4-2666 DIMM; added, found in SATA1: 1 of 1TB sata 3.5", "A2=8GB SATA1=1TB | A2=8GB SATA1=1TB"},
		{"a place as people write it", "m2-1: 500GB nvme 2280", false, "added, found in M2_1: 1 of 500GB nvme M.2 2280", "M2_1=500GB | M2_1=500GB"},
		{"a size in a slot is memory", "A1: 8GB", false, "added, found in A1: 1 of 8GB DIMM", "A1=8GB | A1=8GB"},
		{"a kit over two slots", "A1 B1: 2x8GB DDR4-3200", false, "added, found in A1 and B1: 2 of 8GB DDR4-3200 DIMM", "A1=8GB B1=8GB | A1=8GB B1=8GB"},
		{"empty", "A1: 8GB DDR4; A2, B2: empty", false, "added, found in A1: 1 of 8GB DDR4 DIMM; found empty: A2 and B2", "A1=8GB | A1=8GB"},
		{"only empty", "A2: empty", false, "found empty: A2", " | "},
		{"to be fitted", "1TB nvme 2280 gen4 x4", true, "added, to fit: 1TB nvme M.2 2280 gen4 x4", " | "},
		{"found and new in one text", "A1: 8GB DDR4\nnew: 1TB nvme 2280\nnew, M2_1: 2TB nvme 2280", false,
			"added, found in A1: 1 of 8GB DDR4 DIMM; added, to fit: 1TB nvme M.2 2280; added, to fit into M2_1: 1 of 2TB nvme M.2 2280", "A1=8GB | A1=8GB M2_1=2TB"},
		{"a drive on a carrier", "PCIE1: x16 carrier 4x m.2 2280 no switch\nPCIE1/3: 1TB nvme 2280", false,
			"added, found in PCIE1: 1 of x16 carrier 4x m.2 2280 no-switch each-x4 lanes-0-4-8-12 wired-x16; added, found in PCIE1/3: 1 of 1TB nvme M.2 2280", "PCIE1=x16 PCIE1/3=1TB | PCIE1=x16 PCIE1/3=1TB"},
		{"serials are no places", "S/N: 0093318 1TB nvme 2280", false, "added, found: 1TB nvme M.2 2280", " | "},
		{"no such place", "Q7: 8GB DDR4", false, `/text: no place is called "Q7"; the sheet has M2_1, M2_2, PCIE1, PCIE2, A1, A2, B1, B2, SATA1, SATA2, SATA3, SATA4 and 4 more; write its name as printed on the board, then a colon`, ""},
		{"a question in the second line", "A1: 8GB DDR4\n1TB ssd", false, "/text: line 2: which form? it could be M.2 or 2.5 or 3.5", ""},
		{"a question whose answers fit the place", "SATA1: 1TB ssd", false, "/text: which form? it could be 2.5 or 3.5", ""},
		{"one place twice", "A1: 8GB DDR4\na1: 4GB DDR4", false, "/text: line 2: A1 stands in two lines", ""},
		{"a bay that is none", "SATA1 in cage 9: 2TB 3.5 sata", false, `/text: "cage 9" is no bay in which it can lie there; the machine has the bays cage-1, cage-2, cage-3, cage-4`, ""},
		{"one bay twice", "SATA1 in cage 4: 2TB 3.5 sata\nSATA2 in cage-4: 2TB 3.5 sata", false, "/text: line 2: bay cage-4 is told to hold another drive already", ""},
		{"too few places", "A1: 2x8GB DDR4", false, "/text: 2 pieces and 1 place: write as many places as pieces", ""},
		{"nonsense in the third line", "A1: 8GB DDR4\nB1: 8GB DDR4\nA2: 8GB banana", false, `/text: line 3: "banana" means nothing here`, ""},
		{"nothing", " ; \n", false, "/text: nothing was typed", ""},
	} {
		j := arrived(t, "echo-sounding-tower")
		next, says, err := job.Apply(j, job.Change{Do: job.DoAdd, Text: c.text, New: c.isNew}, stamp)
		got := say.About(say.Plain, &next).Fact(says).String()
		if err != nil {
			list, _ := err.(problem.List) //nolint:errorlint // Apply's errors are lists
			got = strings.Split(say.About(say.Plain, &j).Problems(list).Error(), "\n")[0]
			if len(next.Items) > 0 {
				t.Errorf("%s: refused, and %d pieces are there", c.name, len(next.Items))
			}
		}
		if err == nil && got != c.want || err != nil && !strings.HasPrefix(got, c.want) {
			t.Errorf("%s: %s\nwant %s", c.name, got, c.want)
		}
		if err != nil {
			continue
		}
		var lies []string
		for _, s := range []rig.Setup{next.Found, next.Planned} {
			var all []string
			for _, p := range s.Placements {
				it := next.Item(p.Item)
				word, _, _ := strings.Cut(next.Part(it.Part).Name, " ")
				if it.Serial != "" {
					word += "/" + it.Serial
				}
				all = append(all, fmt.Sprint(p.Socket, "=", word))
			}
			lies = append(lies, strings.Join(all, " "))
		}
		if got := strings.Join(lies, " | "); got != c.lies {
			t.Errorf("%s: there lies %s\nwant %s", c.name, got, c.lies)
		}
	}
}

// What lies somewhere already is not written over.
func TestWriteWhereSomethingLies(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	for _, text := range []string{"A1: 8GB DDR4", "A1: empty"} {
		_, _, err := job.Apply(j, job.Change{Do: job.DoAdd, Text: text}, stamp)
		list, ok := err.(problem.List) //nolint:errorlint // Apply's errors are lists
		if !ok || !strings.HasPrefix(say.About(say.Plain, &j).Problems(list).Error(), "/text: Sallow 4 GB lies in A1 already") {
			t.Errorf("%s: %v", text, err)
		}
	}
}
