package volume

// This file is what is written on a blank drive: its table, its volumes, and where each begins.

import (
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/fact"
	"deepbay/internal/core/problem"
	"deepbay/internal/core/quantity"
	"deepbay/internal/core/rig"
)

// Table is a kind of partition table.
type Table string

// The tables: that of UEFI, and the older one.
const (
	GPT Table = "gpt"
	MBR Table = "mbr"
)

// Values lists the tables for the formats.
func (Table) Values() []string { return []string{string(GPT), string(MBR)} }

// FileSystem is a kind of file system.
type FileSystem string

// The file systems.
const (
	NTFS  FileSystem = "ntfs"
	ExFAT FileSystem = "exfat"
	FAT32 FileSystem = "fat32"
	Ext4  FileSystem = "ext4"
	XFS   FileSystem = "xfs"
)

// Values lists the file systems for the formats.
func (FileSystem) Values() []string {
	return []string{string(NTFS), string(ExFAT), string(FAT32), string(Ext4), string(XFS)}
}

// limits of a file system: the longest label, the largest volume and file in bytes, and whether its
// volumes are known by letters.
type limits struct {
	label        int
	volume, file quantity.Bytes
	letters      bool
}

// exbibyte is 2^60 bytes.
const exbibyte = quantity.Bytes(1) << 60

// of is the limits of each: NTFS with clusters of up to 64 KiB, FAT32 by sectors of 512 bytes, exFAT
// as far as it is advised, ext4 with blocks of 4 KiB.
var of = map[FileSystem]limits{
	NTFS:  {32, 256*quantity.TiB - 64*quantity.KiB, 256*quantity.TiB - 64*quantity.KiB, true},
	ExFAT: {11, 512 * quantity.TiB, 512 * quantity.TiB, true},
	FAT32: {11, 2 * quantity.TiB, 4*quantity.GiB - 1, true},
	Ext4:  {16, exbibyte, 16 * quantity.TiB, false},
	XFS:   {12, 4 * exbibyte, 4 * exbibyte, false},
}

// Lettered reports a file system whose volumes are known by letters.
func (f FileSystem) Lettered() bool { return of[f].letters }

// Volume is one volume of a drive.
type Volume struct {
	Bytes  quantity.Bytes `json:"bytes,omitzero" jsonschema:"minimum=1"` // 0 is what is left; of the last one only
	System FileSystem     `json:"fileSystem"`
	Label  string         `json:"label,omitempty" jsonschema:"maxLength=32"`
	At     string         `json:"at,omitempty" jsonschema:"maxLength=60"` // a letter, or where it is mounted
}

// Layout is what is written on one blank drive, or on an array.
type Layout struct {
	Item    rig.ItemID  `json:"item,omitempty" jsonschema:"maxLength=60"`
	Array   rig.ArrayID `json:"array,omitempty" jsonschema:"maxLength=60"`
	Table   Table       `json:"table"`
	Sector  int         `json:"sectorBytes,omitzero" jsonschema:"enum=512,enum=4096"` // logical; 0 is 512
	Volumes []Volume    `json:"volumes" jsonschema:"minItems=1,maxItems=16"`
}

// What can be wrong with a layout.
const (
	OntoItself   fact.Code = "volume/onto-itself"
	MeanTooLarge fact.Code = "volume/mean-too-large"
	NoVolumes    fact.Code = "volume/no-volumes"
	FourAtMost   fact.Code = "volume/four-at-most" // of the older table
	BeyondDrive  fact.Code = "volume/beyond-drive" // what is asked, what there is
	RestIsLast   fact.Code = "volume/rest-is-last"
	NothingLeft  fact.Code = "volume/nothing-left"
	TooSmall     fact.Code = "volume/too-small"
	BeyondSystem fact.Code = "volume/beyond-system"  // file system, most
	LabelTooLong fact.Code = "volume/label-too-long" // file system, most letters
	LabelLetters fact.Code = "volume/label-letters"  // label
	NoLetter     fact.Code = "volume/no-letter"      // as given
	NoMount      fact.Code = "volume/no-mount"       // as given
	TakenAt      fact.Code = "volume/taken-at"       // letter or place
	TakenLabel   fact.Code = "volume/taken-label"    // label
	NoSuchSystem fact.Code = "volume/no-such-system" // as given
	NoSuchTable  fact.Code = "volume/no-such-table"  // as given
	OneOfTwo     fact.Code = "volume/one-of-two"
)

// Kind is what a stretch of a drive holds.
type Kind string

// What stretches hold.
const (
	TableKind  Kind = "table" // the partition table, and its copy at the end
	VolumeKind Kind = "volume"
	FreeKind   Kind = "free"
	LostKind   Kind = "lost" // beyond what the older table can name

	StartKind    Kind = "start"    // what firmware starts from
	ReservedKind Kind = "reserved" // by the installer
	SystemKind   Kind = "system"
	RecoveryKind Kind = "recovery"
)

// Values lists the kinds for the formats.
func (Kind) Values() []string {
	return []string{string(TableKind), string(VolumeKind), string(FreeKind), string(LostKind)}
}

// Stretch is a piece of a drive, from one byte on.
type Stretch struct {
	Kind  Kind
	From  quantity.Bytes
	Bytes quantity.Bytes
	N     int // which volume, from 0
}

// grain is what volumes begin on and are measured in: a multiple of every sector and of the pages of
// flash.
const grain = quantity.MiB

// smallest is the smallest volume that is worth a table entry.
const smallest = 16 * quantity.MiB

// entries of the older table are 32 bits of sectors, and it has four.
const (
	mbrSectors = 1 << 32
	mbrEntries = 4
)

func (l *Layout) sector() quantity.Bytes {
	if l.Sector == 4096 {
		return 4096
	}
	return 512
}

// span is where volumes can lie: from the first grain on, to the last before the copy of the table,
// or to what the older one can name. GPT keeps a header and 16 KiB of entries at the end (UEFI).
func (l *Layout) span(capacity quantity.Bytes) (from, to quantity.Bytes) {
	to = capacity
	if l.Table == GPT {
		to -= 16*quantity.KiB + l.sector()
	} else if most := l.sector() * mbrSectors; to > most {
		to = most
	}
	return grain, to &^ (grain - 1)
}

// Draw lays volumes out on a drive of a capacity, in order, each on a whole MiB. A layout that Check
// finds nothing wrong with fits.
func (l *Layout) Draw(capacity quantity.Bytes) []Stretch {
	from, to := l.span(capacity)
	out := []Stretch{{Kind: TableKind, Bytes: min(from, capacity)}}
	at := from
	for i, v := range l.Volumes {
		size := v.Bytes &^ (grain - 1)
		if v.Bytes == 0 {
			size = to - at
		}
		size = max(0, min(size, to-at))
		if size > 0 {
			out = append(out, Stretch{VolumeKind, at, size, i})
		}
		at += size
	}
	if at < to {
		out = append(out, Stretch{Kind: FreeKind, From: at, Bytes: to - at})
		at = to
	}
	if at < capacity {
		kind := TableKind
		switch {
		case l.Table == MBR && capacity-at >= grain:
			kind = LostKind
		case l.Table == MBR: // less than a grain
			kind = FreeKind
		}
		out = append(out, Stretch{Kind: kind, From: at, Bytes: capacity - at})
	}
	return out
}

// Check reports what is wrong with a layout of a drive of a capacity, 0 where that is not known.
func (l *Layout) Check(capacity quantity.Bytes) problem.List {
	var list problem.List
	if (l.Item == "") == (l.Array == "") {
		list.Add("/item", fact.Of(OneOfTwo))
	}
	if !slices.Contains(l.Table.Values(), string(l.Table)) {
		list.Add("/table", fact.Of(NoSuchTable, fact.Typed(l.Table)))
		return list
	}
	switch n := len(l.Volumes); {
	case n == 0:
		list.Add("/volumes", fact.Of(NoVolumes))
	case l.Table == MBR && n > mbrEntries:
		list.Add("/volumes", fact.Of(FourAtMost))
	}
	from, to := l.span(capacity)
	left := to - from
	for i := range l.Volumes {
		v, at := &l.Volumes[i], "/volumes/"+strconv.Itoa(i)
		size := v.Bytes &^ (grain - 1)
		switch {
		case v.Bytes == 0 && i < len(l.Volumes)-1:
			list.Add(at+"/bytes", fact.Of(RestIsLast))
		case v.Bytes == 0 && capacity > 0 && left < smallest:
			list.Add(at+"/bytes", fact.Of(NothingLeft))
		case v.Bytes != 0 && v.Bytes < smallest:
			list.Add(at+"/bytes", fact.Of(TooSmall, smallest))
		case capacity > 0 && size > left:
			list.Add(at+"/bytes", fact.Of(BeyondDrive, v.Bytes, max(0, left)))
		}
		if v.Bytes == 0 && i == len(l.Volumes)-1 {
			size = max(0, left)
		}
		left -= size
		list = append(list, v.check(at, size)...)
	}
	return list
}

// check reports what is wrong with one volume of a size.
func (v *Volume) check(at string, size quantity.Bytes) problem.List {
	var list problem.List
	most, ok := of[v.System]
	if !ok {
		list.Add(at+"/fileSystem", fact.Of(NoSuchSystem, fact.Typed(v.System)))
		return list
	}
	if size > most.volume {
		list.Add(at+"/fileSystem", fact.Of(BeyondSystem, fact.Typed(v.System), most.volume))
	}
	switch {
	case len([]rune(v.Label)) > most.label:
		list.Add(at+"/label", fact.Of(LabelTooLong, fact.Typed(v.System), most.label))
	case strings.ContainsAny(v.Label, `*?/\|.,;:+=<>[]"`) || strings.ContainsFunc(v.Label, func(r rune) bool { return r < ' ' }) || strings.TrimSpace(v.Label) != v.Label:
		list.Add(at+"/label", fact.Of(LabelLetters, v.Label))
	}
	switch {
	case v.At == "":
	case most.letters && !letter(v.At):
		list.Add(at+"/at", fact.Of(NoLetter, v.At))
	case !most.letters && !mount(v.At):
		list.Add(at+"/at", fact.Of(NoMount, v.At))
	}
	return list
}

// letter reports a letter that a volume can have: A and B are kept for floppy drives.
func letter(s string) bool { return len(s) == 2 && s[1] == ':' && s[0] >= 'C' && s[0] <= 'Z' }

// mount reports a place where a volume can be mounted.
func mount(s string) bool {
	return strings.HasPrefix(s, "/") && len(s) > 1 && !strings.HasSuffix(s, "/") && !strings.Contains(s, "//") && !strings.ContainsFunc(s, func(r rune) bool { return r <= ' ' }) && !slices.Contains(strings.Split(s, "/"), "..")
}

// CheckAll reports letters, places and labels that two volumes have. Taken are letters of volumes that
// stay as they are.
func CheckAll(layouts []Layout, taken []string) problem.List {
	var list problem.List
	at, labels := map[string]bool{}, map[string]bool{}
	for _, t := range taken {
		at[t] = true
	}
	for i := range layouts {
		for k := range layouts[i].Volumes {
			v, here := &layouts[i].Volumes[k], "/layouts/"+strconv.Itoa(i)+"/volumes/"+strconv.Itoa(k)
			if v.At != "" && at[v.At] {
				list.Add(here+"/at", fact.Of(TakenAt, v.At))
			}
			if name := strings.ToUpper(v.Label); name != "" && labels[name] {
				list.Add(here+"/label", fact.Of(TakenLabel, v.Label))
			}
			at[v.At], labels[strings.ToUpper(v.Label)] = true, true
		}
	}
	return list
}

// InstallerMakes is how a drive looks when a system was installed on all of it, roughly: what
// installers make differs by a few hundred mebibytes (practice; UEFI wants a FAT32 partition to start
// from, of 260 MiB at least where sectors are 4 KiB). A system with drive letters keeps 16 MiB for
// itself, and a partition to recover from at the end.
func InstallerMakes(fs FileSystem, capacity quantity.Bytes) []Stretch {
	start, reserved, recovery := 300*quantity.MiB, quantity.Bytes(0), quantity.Bytes(0)
	if fs.Lettered() {
		reserved, recovery = 16*quantity.MiB, 750*quantity.MiB
	}
	rest := capacity - 2*grain - start - reserved - recovery
	if rest <= 0 {
		return nil
	}
	var out []Stretch
	at := quantity.Bytes(0)
	for _, p := range []struct {
		kind  Kind
		bytes quantity.Bytes
	}{{TableKind, grain}, {StartKind, start}, {ReservedKind, reserved}, {SystemKind, rest}, {RecoveryKind, recovery}, {TableKind, grain}} {
		if p.bytes > 0 {
			out = append(out, Stretch{Kind: p.kind, From: at, Bytes: p.bytes})
			at += p.bytes
		}
	}
	return out
}

// Ats reads letters or mount points as they are typed, with blanks or commas between; what is none
// is an error.
func Ats(text string) ([]string, problem.List) {
	var out []string
	var l problem.List
	for _, t := range strings.FieldsFunc(text, func(r rune) bool { return r == ' ' || r == ',' || r == ';' }) {
		if len(t) == 1 || len(t) == 2 && t[1] == ':' {
			if t = strings.ToUpper(t[:1]) + ":"; t[0] < 'A' || t[0] > 'Z' {
				l.Add("/text", fact.Of(NoLetter, t))
			}
		} else if !strings.HasPrefix(t, "/") || strings.Contains(t, "//") {
			l.Add("/text", fact.Of(NoMount, t))
		}
		if slices.Contains(out, t) {
			l.Add("/text", fact.Of(TakenAt, t))
		}
		out = append(out, t)
	}
	return out, l
}

// Blank is a drive that may be written on.
type Blank struct {
	Item   rig.ItemID
	Array  rig.ArrayID
	Bytes  quantity.Bytes
	Serial string
	Held   rig.Content // what it holds and loses when it gets volumes; blank for a blank one
	Use    string      // what it is for, in a word: its label begins with it
}

// Suggest is a layout for each blank drive: one volume over all of it, of a file system, with a label
// that tells twins apart by the end of their serial numbers, and letters in sequence.
func Suggest(blanks []Blank, fs FileSystem, others []Layout, taken []string) []Layout {
	used, labels := map[string]bool{}, map[string]bool{}
	for _, t := range taken {
		used[t] = true
	}
	for i := range others {
		for _, v := range others[i].Volumes {
			used[v.At], labels[strings.ToUpper(v.Label)] = true, true
		}
	}
	out := make([]Layout, len(blanks))
	for i, b := range blanks {
		v := Volume{System: fs, Label: label(b, of[fs].label, labels)}
		labels[strings.ToUpper(v.Label)] = true
		if fs.Lettered() {
			for c := byte('D'); c <= 'Z'; c++ {
				if at := string(c) + ":"; !used[at] {
					v.At, used[at] = at, true
					break
				}
			}
		} else if at := "/srv/" + strings.ToLower(v.Label); !used[at] {
			v.At, used[at] = at, true
		}
		out[i] = Layout{Item: b.Item, Array: b.Array, Table: GPT, Volumes: []Volume{v}}
	}
	return out
}

// label makes a label of what a drive is for and the end of its serial number, or a number that nothing
// has.
func label(b Blank, most int, taken map[string]bool) string {
	use := strings.ToUpper(b.Use)
	if len(use) > most-5 {
		use = use[:most-5]
	}
	if end := Ending(b.Serial); end != "" && !taken[use+"-"+end] {
		return use + "-" + end
	}
	for n := 1; ; n++ {
		if s := use + "-" + strconv.Itoa(n); !taken[s] {
			return s
		}
	}
}

// Ending is the last characters of a serial number by which a drive is told from others: four letters
// and digits, in capitals. It is none where there are fewer.
func Ending(serial string) string {
	s := []rune(fact.Fold(serial))
	if len(s) < 4 {
		return ""
	}
	return string(s[len(s)-4:])
}
