package volume

import (
	"fmt"
	"math/rand"
	"strings"
	"testing"

	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// TestDraw holds the numbers of the tables: what GPT keeps at both ends, and where the older table ends.
func TestDraw(t *testing.T) {
	whole := []Volume{{System: NTFS, Label: "DATA-0613", At: "D:"}}
	for _, c := range []struct {
		name     string
		l        Layout
		capacity quantity.Bytes
		want     string
	}{
		// 500,107,862,016 bytes are 476,940 MiB and 24,576 bytes, of which the copy of the table takes 16,896.
		{"500 GB", Layout{Item: "a", Table: GPT, Volumes: whole}, 500_107_862_016, "table 0+1048576, volume 1048576+500106788864, table 500107837440+24576"},
		{"two volumes", Layout{Item: "a", Table: GPT, Volumes: []Volume{{Bytes: 100*quantity.GB + 1, System: NTFS}, {System: NTFS}}}, 500_107_862_016, "table 0+1048576, volume 1048576+99999547392, volume 100000595968+400107241472, table 500107837440+24576"},
		{"room left", Layout{Item: "a", Table: GPT, Volumes: []Volume{{Bytes: quantity.GiB, System: NTFS}}}, 2 * quantity.GiB, "table 0+1048576, volume 1048576+1073741824, free 1074790400+1071644672, table 2146435072+1048576"},
		{"the older table, 4 TB", Layout{Item: "a", Table: MBR, Volumes: whole}, 4_000_787_030_016, "table 0+1048576, volume 1048576+2199022206976, lost 2199023255552+1801763774464"},
		{"and with sectors of 4 KiB", Layout{Item: "a", Table: MBR, Sector: 4096, Volumes: whole}, 4_000_787_030_016, "table 0+1048576, volume 1048576+4000785104896, free 4000786153472+876544"},
	} {
		var got []string
		for _, s := range c.l.Draw(c.capacity) {
			got = append(got, fmt.Sprintf("%s %d+%d", s.Kind, s.From, s.Bytes))
		}
		if is := strings.Join(got, ", "); is != c.want {
			t.Errorf("%s: %s\nwant %s", c.name, is, c.want)
		}
	}
}

// TestCheck names what is wrong with a layout, and its place.
func TestCheck(t *testing.T) {
	tb := quantity.DriveBytes(4000)
	for _, c := range []struct {
		l    Layout
		want string
	}{
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: NTFS, At: "D:", Label: "TIDES 1"}}}, ""},
		{Layout{Item: "a", Array: "b", Table: GPT, Volumes: []Volume{{System: NTFS}}}, "/item volume/one-of-two"},
		{Layout{Item: "a", Table: "apm", Volumes: []Volume{{System: NTFS}}}, "/table volume/no-such-table"},
		{Layout{Item: "a", Table: GPT}, "/volumes volume/no-volumes"},
		{Layout{Item: "a", Table: MBR, Volumes: []Volume{{quantity.GiB, NTFS, "", ""}, {quantity.GiB, NTFS, "", ""}, {quantity.GiB, NTFS, "", ""}, {quantity.GiB, NTFS, "", ""}, {quantity.GiB, NTFS, "", ""}}}, "/volumes volume/four-at-most"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: NTFS}, {quantity.GiB, NTFS, "", ""}}}, "/volumes/0/bytes volume/rest-is-last"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{5 * quantity.TB, NTFS, "", ""}}}, "/volumes/0/bytes volume/beyond-drive"},
		{Layout{Item: "a", Table: MBR, Volumes: []Volume{{3 * quantity.TB, NTFS, "", ""}}}, "/volumes/0/bytes volume/beyond-drive"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{quantity.MiB, NTFS, "", ""}}}, "/volumes/0/bytes volume/too-small"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: FAT32}}}, "/volumes/0/fileSystem volume/beyond-system"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: "zfs"}}}, "/volumes/0/fileSystem volume/no-such-system"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: ExFAT, Label: "twelve chars"}}}, "/volumes/0/label volume/label-too-long"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: NTFS, Label: "a/b"}}}, "/volumes/0/label volume/label-letters"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: NTFS, At: "A:"}}}, "/volumes/0/at volume/no-letter"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: NTFS, At: "/srv"}}}, "/volumes/0/at volume/no-letter"},
		{Layout{Item: "a", Table: GPT, Volumes: []Volume{{System: Ext4, At: "/srv/../etc"}}}, "/volumes/0/at volume/no-mount"},
	} {
		got := c.l.Check(tb)
		is := ""
		for _, p := range got {
			is = p.Pointer + " " + string(p.Fact.Code)
		}
		if is != c.want || len(got) > 1 {
			t.Errorf("%+v: %v, want %s", c.l, got, c.want)
		}
	}
	twice := []Layout{{Volumes: []Volume{{Label: "Tides", At: "D:"}}}, {Volumes: []Volume{{Label: "TIDES", At: "D:"}, {At: "C:"}}}}
	if got := CheckAll(twice, []string{"C:"}); len(got) != 3 {
		t.Errorf("twice: %v", got)
	}
}

// TestSuggest: whatever is blank, what is suggested has nothing wrong with it, lies on whole MiB within
// the drive without a gap, and no letter, place or label is there twice.
func TestSuggest(t *testing.T) {
	rng := rand.New(rand.NewSource(3))
	for range 2000 {
		fs := []FileSystem{NTFS, ExFAT, Ext4, XFS}[rng.Intn(4)]
		var blanks []Blank
		for i := range rng.Intn(20) {
			b := Blank{Item: rig.ItemID(fmt.Sprint("item-", i)), Bytes: quantity.GB + quantity.Bytes(rng.Int63n(20e12)), Use: []string{"data", "scratch", "a-very-long-use"}[rng.Intn(3)]}
			if rng.Intn(3) > 0 {
				b.Serial = fmt.Sprintf("TL-%04d", rng.Intn(30)) // twins that end alike
			}
			blanks = append(blanks, b)
		}
		taken := []string{"C:", "E:"}
		all := Suggest(blanks, fs, nil, taken)
		if got := CheckAll(all, taken); len(got) > 0 {
			t.Fatalf("%v", got)
		}
		for i := range all {
			if got := all[i].Check(blanks[i].Bytes); len(got) > 0 {
				t.Fatalf("%+v: %v", all[i], got)
			}
			at := quantity.Bytes(0)
			for _, s := range all[i].Draw(blanks[i].Bytes) {
				if s.From != at || s.Bytes <= 0 || s.Kind == VolumeKind && (s.From%quantity.MiB != 0 || s.Bytes%quantity.MiB != 0) {
					t.Fatalf("%+v of %d: %+v", all[i], blanks[i].Bytes, s)
				}
				at += s.Bytes
			}
			if at != blanks[i].Bytes {
				t.Fatalf("%d of %d bytes are drawn", at, blanks[i].Bytes)
			}
		}
	}
	for serial, want := range map[string]string{"TL2-20A0613": "0613", "ab-1": "", "": "", "x-y9z_2": "Y9Z2"} {
		if got := Ending(serial); got != want {
			t.Errorf("%q ends in %q, want %q", serial, got, want)
		}
	}
}

// TestInstallerMakes: stretches lie one behind the other, none is empty, and together they are the
// drive; a drive that is too small gets nothing.
func TestInstallerMakes(t *testing.T) {
	for _, fs := range []FileSystem{NTFS, Ext4} {
		for _, size := range []quantity.Bytes{quantity.GiB, 64 * quantity.GB, 500107862016, 4 * quantity.TB} {
			at, system := quantity.Bytes(0), false
			list := InstallerMakes(fs, size)
			if fs == NTFS && size == quantity.GiB {
				if list != nil {
					t.Errorf("%v of a gibibyte", list)
				}
				continue
			}
			for _, s := range list {
				if s.From != at || s.Bytes <= 0 {
					t.Errorf("%s on %v: %v after %v", fs, size, s, at)
				}
				at += s.Bytes
				system = system || s.Kind == SystemKind && s.Bytes > size*9/10-quantity.GiB
			}
			if at != size || !system {
				t.Errorf("%s on %v: %v in all, %v", fs, size, at, list)
			}
		}
	}
	for text, want := range map[string]string{"d, E:": "D: E:", "/srv/tides": "/srv/tides", "": "", "D d": "refused", "1:": "refused", "srv": "refused", "/a//b": "refused"} {
		at, list := Ats(text)
		got := strings.Join(at, " ")
		if len(list) > 0 {
			got = "refused"
		}
		if got != want {
			t.Errorf("%q: %s, want %s", text, got, want)
		}
	}
}
