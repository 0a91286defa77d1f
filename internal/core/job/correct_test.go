package job_test

import (
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/part"
	"deepbay/internal/core/power"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

// A piece is other than was written: its kind or this one alone; the journal tells what is
// other, and what was read of it before proves nothing any more.
func TestCorrect(t *testing.T) {
	j := load(t, "echo-sounding-tower")
	two := *j.Part(j.Item("item-1").Part) // item-1 and item-2 are of one kind
	two.Module.Ranks, two.Name = 2, "Sallow four"
	impossible := two
	impossible.Drive = &part.Drive{Form: part.FormSlim}
	for _, c := range []struct {
		name   string
		change job.Change
		want   string
		ranks  string // of item-1 and item-2 afterwards
	}{
		{"serial", job.Change{Item: "item-1", Serial: "NEW-1"}, "corrected Sallow 4 GB: serial number NEW-1", "00"},
		{"what it holds", job.Change{Item: "item-3", Serial: j.Item("item-3").Serial, Holds: rig.Blank}, "corrected Mudlark 2 TB: holds: blank", "00"},
		{"the kind", job.Change{Item: "item-1", Serial: j.Item("item-1").Serial, Part: &two}, "corrected Sallow 4 GB: called Sallow four, it is 4GB", "22"},
		{"this one alone", job.Change{Item: "item-1", Serial: j.Item("item-1").Serial, Part: &two, Alone: true}, "corrected Sallow 4 GB: called Sallow four, it is 4GB", "20"},
		{"nothing", job.Change{Item: "item-1", Serial: j.Item("item-1").Serial}, "left everything where it is", "00"},
		{"nobody", job.Change{Item: "nobody"}, `/item: no item is named "nobody"`, ""},
		{"found and to be fitted", job.Change{Item: "item-1", New: true}, "/new: Sallow 4 GB was found in A1, so it is not new", ""},
		{"two kinds at once", job.Change{Item: "item-1", Part: &impossible}, "/part: a part is one of drive, module, card, enclosure and fitting", ""},
	} {
		j := load(t, "echo-sounding-tower")
		for _, id := range []rig.ItemID{"item-1", "item-2"} { // as somebody wrote them down who saw no more
			j.Part(j.Item(id).Part).Module.Ranks = 0
		}
		j.Before = []power.Reading{{Line: power.ParseLineID("slot/A1"), Bytes: 4 * quantity.GiB, Proof: true}}
		c.change.Do = job.DoCorrect
		next, says, err := job.Apply(j, c.change, stamp)
		got := say.About(say.Plain, &j).Fact(says).String()
		if err != nil {
			list, _ := err.(problem.List) //nolint:errorlint // Apply's errors are lists
			got = strings.Split(say.About(say.Plain, &j).Problems(list).Error(), "\n")[0]
		}
		if !strings.HasPrefix(got, c.want) {
			t.Errorf("%s: %s\nwant %s", c.name, got, c.want)
		}
		if err != nil {
			continue
		}
		ranks := ""
		for _, id := range []rig.ItemID{"item-1", "item-2"} {
			ranks += string(rune('0' + next.Part(next.Item(id).Part).Module.Ranks))
		}
		if ranks != c.ranks {
			t.Errorf("%s: they have %s ranks, want %s", c.name, ranks, c.ranks)
		}
		if changed := c.name != "nothing"; next.Before[0].Proof == changed {
			t.Errorf("%s: what was read before proves %v", c.name, next.Before[0].Proof)
		}
		if err := next.Validate().Err(); err != nil {
			t.Errorf("%s: %v", c.name, err)
		}
	}
}
