package job_test

import (
	"strings"
	"testing"

	"deepbay/internal/core/job"
	"deepbay/internal/core/rig"
	"deepbay/internal/core/say"
)

// TestPapers keeps warranty, returns, what became of old parts, and that the owner agreed; what
// cannot be is refused with its reason, and the owner's page says the rest in plain words.
func TestPapers(t *testing.T) {
	j := load(t, "hydrophone-listening-desk")
	j.Closed = nil
	for _, c := range []struct {
		name    string
		change  job.Change
		refused string
		says    string
	}{
		{"warranty and returns", job.Change{Do: job.DoPapers, Item: "item-5", Value: "2031-04-13", Text: "2026-05-13"}, "", "Ternlight 1000: warranty until 13 Apr 2031, can be returned until 13 May 2026"},
		{"no returns", job.Change{Do: job.DoPapers, Item: "item-5", Value: "2031-04-13"}, "", "a day that nobody said"},
		{"no such day", job.Change{Do: job.DoPapers, Item: "item-5", Value: "2031-02-30"}, "/value", ""},
		{"no such day to return", job.Change{Do: job.DoPapers, Item: "item-5", Text: "soon"}, "/text", ""},
		{"of nothing", job.Change{Do: job.DoPapers, Item: "item-99"}, "/item", ""},
		{"with its owner", job.Change{Do: job.DoFate, Item: "item-1", Value: "owner"}, "", "with its owner"},
		{"to the shelf with data on it", job.Change{Do: job.DoFate, Item: "item-1", Value: "shelf"}, "may still hold data", ""},
		{"recycled with data on it", job.Change{Do: job.DoFate, Item: "item-2", Value: "recycled"}, "may still hold data", ""},
		{"what is still in", job.Change{Do: job.DoFate, Item: "item-3", Value: "owner"}, "in the machine as planned", ""},
		{"nowhere", job.Change{Do: job.DoFate, Item: "item-1", Value: "sea"}, `"sea"`, ""},
		{"agreed", job.Change{Do: job.DoAgree, Text: " Ms Tern "}, "", "Ms Tern agreed"},
		{"by nobody", job.Change{Do: job.DoAgree, Text: " "}, "who agreed", ""},
		{"by a crowd", job.Change{Do: job.DoAgree, Text: strings.Repeat("x", 121)}, "120", ""},
		{"not after all, of nothing", job.Change{Do: job.DoDisagree}, "nobody agreed", ""},
	} {
		next, done, err := job.Apply(j, c.change, stamp)
		v := say.About(say.Plain, &next)
		switch {
		case c.refused != "":
			if err == nil || !strings.Contains(say.About(say.Plain, &j).Err(err).Error(), c.refused) {
				t.Errorf("%s: %v, want %q", c.name, err, c.refused)
			}
		case err != nil:
			t.Errorf("%s: %v", c.name, err)
		case !strings.Contains(v.Fact(done).String(), c.says):
			t.Errorf("%s: %s", c.name, v.Fact(done))
		case len(next.Validate()) > 0:
			t.Errorf("%s leaves %v", c.name, next.Validate())
		}
	}
	j.Items[1].Holds, j.Items[0].Fate = rig.Blank, job.WithOwner
	if _, _, err := job.Apply(j, job.Change{Do: job.DoFate, Item: "item-2", Value: "recycled"}, stamp); err != nil {
		t.Errorf("a blank one is not recycled: %v", err)
	}
	var says []string
	w := job.Look(j)
	for _, f := range w.Report.Plain {
		says = append(says, say.About(say.Plain, &j).Fact(f).String())
	}
	want := "New in it: a solid-state drive of 1.00 TB (Ternlight 1000).|New in it: a solid-state drive of 2.00 TB (Ternlight 2000).|No longer in it: a hard disk of 2.00 TB (Mudlark 2 TB); with its owner.|No longer in it: a hard disk of 2.00 TB (Mudlark 2 TB).|Its drives have room for 3.00 TB in all; before, it was 4.00 TB."
	if got := strings.Join(says, "|"); got != want {
		t.Errorf("%s\nwant\n%s", got, want)
	}
	mini := job.Look(load(t, "current-model-mini-pc"))
	if got := say.About(say.Plain, &mini.Job).Fact(mini.Report.Plain[len(mini.Report.Plain)-1]).String(); got != "It has 64 GiB of memory; before, it had 32 GiB." {
		t.Error(got)
	}
}
