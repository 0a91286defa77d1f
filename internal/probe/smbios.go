package probe

// This file reads firmware's tables: System Management BIOS, DSP0134. A field is there when the
// structure is long enough for it, whatever the version says; words that makers leave standing
// are no words.

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"strings"

	"github.com/digitalocean/go-smbios/smbios"

	"deepbay/internal/core/memory"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
)

// The types of structure that are read.
const (
	typeFirmware  = 0
	typeSystem    = 1
	typeBoard     = 2
	typeChassis   = 3
	typeProcessor = 4
	typeSlot      = 9
	typeArray     = 16
	typeModule    = 17
)

const tables = "sys/firmware/dmi/tables/DMI"

// firmware reads the tables, or what the kernel tells of them to everybody.
func (t *tree) firmware(m *power.Inventory) {
	b := t.file(tables)
	if b == nil {
		const id = "sys/class/dmi/id/"
		m.Maker, m.Product, m.Board, m.Firmware, m.Dated = word(t.text(id+"sys_vendor")), word(t.text(id+"product_name")), word(t.text(id+"board_name")), word(t.text(id+"bios_version")), clip(word(t.text(id+"bios_date")), 40)
		m.Chassis = chassis[byte(t.number(id+"chassis_type", 127))]
		m.Virtual = virtual(m)
		if len(t.list("sys/class/dmi/id")) == 0 {
			t.miss(tables, power.NotOffered)
		}
		return
	}
	if !fill(m, b) {
		t.miss(tables, power.Damaged)
	}
}

// fill reads tables into an inventory; false is that they are damaged, and read as far as they
// are whole.
func fill(m *power.Inventory, b []byte) bool {
	list, whole := structures(b)
	for _, s := range list {
		read(m, structure{s})
	}
	m.Virtual = m.Virtual || virtual(m)
	return whole
}

// structures decodes a table as far as it is whole: the package gives all or nothing, so what
// is damaged is cut off first, with what comes after it.
func structures(b []byte) (list []*smbios.Structure, whole bool) {
	end := 0
	for end+4 <= len(b) && b[end+1] >= 4 {
		strings := end + int(b[end+1])
		if strings > len(b) {
			break
		}
		n := bytes.Index(b[strings:], []byte{0, 0})
		if n < 0 {
			break
		}
		last := b[end] == 127
		end = strings + n + 2
		if whole = last; last {
			break
		}
	}
	list, err := smbios.NewDecoder(bytes.NewReader(append(b[:end:end], 127, 4, 0xff, 0xfe, 0, 0))).Decode()
	return list, whole && err == nil
}

// structure reads fields by their offsets as DSP0134 counts them, from the header on.
type structure struct{ *smbios.Structure }

func (s structure) has(offset, size int) bool {
	return int(s.Header.Length) >= offset+size && len(s.Formatted) >= offset-4+size
}

func (s structure) byte(offset int) byte {
	if !s.has(offset, 1) {
		return 0
	}
	return s.Formatted[offset-4]
}

func (s structure) word(offset int) uint16 {
	if !s.has(offset, 2) {
		return 0
	}
	return binary.LittleEndian.Uint16(s.Formatted[offset-4:])
}

func (s structure) long(offset int) uint32 {
	if !s.has(offset, 4) {
		return 0
	}
	return binary.LittleEndian.Uint32(s.Formatted[offset-4:])
}

func (s structure) quad(offset int) uint64 {
	if !s.has(offset, 8) {
		return 0
	}
	return binary.LittleEndian.Uint64(s.Formatted[offset-4:])
}

// text is a string of the structure, by the number that a field holds.
func (s structure) text(offset, most int) string {
	n := int(s.byte(offset))
	if n == 0 || n > len(s.Strings) {
		return ""
	}
	return clip(word(plain(s.Strings[n-1])), most)
}

// blanks is what makers leave standing where nothing was filled in.
var blanks = []string{"to be filled", "default string", "unknown", "not specified", "none", "n/a", "not available", "undefined", "system manufacturer", "system product name", "no module", "no dimm", "0123456789", "xxxxxx"}

// word is a string with something in it.
func word(s string) string {
	low := strings.ToLower(s)
	for _, b := range blanks {
		if strings.HasPrefix(low, b) {
			return ""
		}
	}
	if strings.Trim(s, "0 .-") == "" {
		return ""
	}
	return s
}

// virtual reports a machine that is none.
func virtual(m *power.Inventory) bool {
	low := strings.ToLower(m.Maker + " " + m.Product)
	return strings.Contains(low, "virtual")
}

// chassis is the kinds of chassis in the trade's words (type 3, offset 05h).
var chassis = map[byte]string{0x03: "desktop", 0x04: "low-profile", 0x06: "mini-tower", 0x07: "tower", 0x0d: "all-in-one", 0x0f: "space-saving", 0x17: "rack", 0x23: "mini", 0x24: "stick"}

func read(m *power.Inventory, s structure) {
	switch s.Header.Type {
	case typeFirmware:
		m.Firmware, m.Dated = s.text(0x05, 200), s.text(0x08, 40)
		m.Virtual = m.Virtual || s.byte(0x13)&(1<<4) != 0
	case typeSystem:
		m.Maker, m.Product, m.Serial = s.text(0x04, 200), s.text(0x05, 200), s.text(0x07, 200)
	case typeBoard:
		if m.Board == "" {
			m.Board = s.text(0x05, 200)
		}
	case typeChassis:
		if m.Chassis == "" {
			m.Chassis = chassis[s.byte(0x05)&0x7f]
		}
	case typeProcessor:
		if m.Processor == "" && s.byte(0x18)&(1<<6) != 0 {
			m.Processor = s.text(0x10, 200)
		}
	case typeSlot:
		if len(m.Slots) < 256 {
			m.Slots = append(m.Slots, slot(s))
		}
	case typeArray:
		array(&m.Memory, s)
	case typeModule:
		if len(m.Memory.Modules) < 256 {
			m.Memory.Modules = append(m.Memory.Modules, module(s))
		}
	}
}

func array(m *power.MemorySeen, s structure) {
	if s.byte(0x05) != 0x03 { // not the system's memory
		return
	}
	m.ECC = m.ECC || s.byte(0x06) >= 0x05 && s.byte(0x06) <= 0x07
	m.Slots += min(int(s.word(0x0d)), 256-m.Slots)
	kib := uint64(s.long(0x07))
	most := quantity.Bytes(kib << 10)
	if kib == 0x80000000 {
		if q := s.quad(0x0f); q < 1<<60 {
			most = quantity.Bytes(q)
		} else {
			most = 0
		}
	}
	m.Most += most
}

// generation is the kinds of memory (type 17, offset 12h).
var generation = map[byte]memory.Generation{0x13: memory.DDR2, 0x18: memory.DDR3, 0x1a: memory.DDR4, 0x22: memory.DDR5}

func module(s structure) power.ModuleSeen {
	m := power.ModuleSeen{Locator: s.text(0x10, 120), Bank: s.text(0x11, 120), Generation: generation[s.byte(0x12)],
		Maker: s.text(0x17, 120), Serial: s.text(0x18, 120), Number: s.text(0x1a, 120), Ranks: int(s.byte(0x1b) & 0x0f)}
	switch size := s.word(0x0c); {
	case size == 0:
		return power.ModuleSeen{Locator: m.Locator, Bank: m.Bank, Empty: true}
	case size == 0xffff:
	case size == 0x7fff:
		m.Bytes = quantity.Bytes(s.long(0x1c)&0x7fffffff) * quantity.MiB
	case size&0x8000 != 0:
		m.Bytes = quantity.Bytes(size&0x7fff) * quantity.KiB
	default:
		m.Bytes = quantity.Bytes(size) * quantity.MiB
	}
	switch s.byte(0x0e) {
	case 0x09:
		m.Form = memory.DIMM
	case 0x0d:
		m.Form = memory.SODIMM
	case 0x05, 0x0b, 0x10:
		m.Soldered = true
	}
	wide, data := s.word(0x08), s.word(0x0a)
	m.ECC = wide != 0xffff && data != 0xffff && wide > data && data > 0
	m.Registered = s.word(0x13)&(1<<13) != 0
	m.Rate, m.Configured = rate(s, 0x15, 0x54), rate(s, 0x20, 0x58)
	return m
}

// rate is a speed; one that does not fit stands in a longer field.
func rate(s structure, short, long int) quantity.MTps {
	n := uint32(s.word(short))
	if n == 0xffff {
		n = s.long(long) & 0x7fffffff
	}
	if n > 20_000 {
		return 0
	}
	return quantity.MTps(n)
}

// slotGens is the first of the six codes that each generation has among slot types (type 9,
// offset 05h): any width, x1, x2, x4, x8, x16.
var slotGens = []struct {
	first byte
	gen   quantity.Gen
}{{0xbe, 5}, {0xb8, 4}, {0xb1, 3}, {0xab, 2}, {0xa5, 1}}

// widths is the codes of widths (type 9, offset 06h).
var widths = map[byte]quantity.Lanes{0x08: 1, 0x09: 2, 0x0a: 4, 0x0b: 8, 0x0d: 16}

func slot(s structure) power.SlotSeen {
	k := power.SlotSeen{Name: s.text(0x04, 120), Lanes: widths[s.byte(0x06)], InUse: s.byte(0x07) == 0x04}
	kind := s.byte(0x05)
	switch {
	case kind >= 0x14 && kind <= 0x17:
		k.M2, k.Key = true, []string{"A", "E", "B", "M"}[kind-0x14]
	case kind == 0x1f || kind == 0x20 || kind == 0x24 || kind == 0x25:
		k.U2 = true
		k.Gen = map[byte]quantity.Gen{0x1f: 2, 0x20: 3, 0x24: 4, 0x25: 5}[kind]
	default:
		for _, g := range slotGens {
			if kind >= g.first && kind <= g.first+5 {
				k.Gen = g.gen
				k.Long = []quantity.Lanes{0, 1, 2, 4, 8, 16}[kind-g.first]
				break
			}
		}
	}
	if segment, bus, function := s.word(0x0d), s.byte(0x0f), s.byte(0x10); s.has(0x0d, 4) && (segment != 0xffff || bus != 0xff || function != 0xff) {
		k.Address = fmt.Sprintf("%04x:%02x:%02x.%d", segment, bus, function>>3, function&7)
	}
	return k
}
