package probe

import (
	"os"
	"path/filepath"
	"testing"
)

// TestBlank: a drive is called blank only where somebody looked for a file system of the whole drive, a
// member of an array and an encrypted volume, and found none of them, no partition and no holder.
func TestBlank(t *testing.T) {
	for name, c := range map[string]struct {
		files map[string]string
		blank bool
	}{
		"looked, nothing found":         {map[string]string{"run/udev/data/b8:0": "E:ID_SERIAL=X\n"}, true},
		"nobody looked":                 {nil, false},
		"an empty note":                 {map[string]string{"run/udev/data/b8:0": ""}, false},
		"a partition":                   {map[string]string{"run/udev/data/b8:0": "E:ID_SERIAL=X\n", "sys/block/sda/sda1/partition": "1"}, false},
		"a table without partitions":    {map[string]string{"run/udev/data/b8:0": "E:ID_PART_TABLE_TYPE=gpt\n"}, false},
		"a file system of the whole":    {map[string]string{"run/udev/data/b8:0": "E:ID_FS_TYPE=xfs\n"}, false},
		"a member of an array":          {map[string]string{"run/udev/data/b8:0": "E:ID_FS_TYPE=linux_raid_member\n"}, false},
		"encrypted as a whole":          {map[string]string{"run/udev/data/b8:0": "E:ID_FS_USAGE=crypto\n"}, false},
		"an array that holds it now":    {map[string]string{"run/udev/data/b8:0": "E:ID_SERIAL=X\n", "sys/block/sda/holders/md0": ""}, false},
		"a note of another drive alone": {map[string]string{"run/udev/data/b8:16": "E:ID_SERIAL=X\n"}, false},
	} {
		t.Run(name, func(t *testing.T) {
			dir := t.TempDir()
			write := func(file, text string) {
				file = filepath.Join(dir, filepath.FromSlash(file))
				if err := os.MkdirAll(filepath.Dir(file), 0o755); err != nil {
					t.Fatal(err)
				}
				if err := os.WriteFile(file, []byte(text), 0o644); err != nil {
					t.Fatal(err)
				}
			}
			write("sys/block/sda/size", "1953525168\n")
			write("sys/block/sda/dev", "8:0\n")
			for file, text := range c.files {
				write(file, text)
			}
			o, err := Read(dir)
			if err != nil {
				t.Fatal(err)
			}
			if o.Machine == nil || len(o.Machine.Drives) != 1 {
				t.Fatalf("%+v", o)
			}
			if got := o.Machine.Drives[0].Blank; got != c.blank {
				t.Errorf("blank: %t", got)
			}
		})
	}
}
