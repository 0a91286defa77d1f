package simbench

// This file writes a simulated machine as the files in which a Linux kernel tells of one: what
// the probe reads of it is what was simulated.

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"os"
	"path"
	"path/filepath"
	"strconv"
	"strings"

	"deepbay/internal/core/memory"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
)

// tree writes files under a folder, and keeps the first error.
type tree struct {
	dir string
	err error
}

// WriteTree writes the files of a machine under a folder, which must be empty or not there.
func WriteTree(dir string, m *power.Inventory) error {
	t := &tree{dir: dir}
	t.file("sys/firmware/dmi/tables/DMI", string(tables(m)))
	if m.UEFI {
		t.file("sys/firmware/efi/fw_platform_size", "64\n")
	}
	if m.Memory.Usable > 0 {
		t.file("proc/meminfo", fmt.Sprintf("MemTotal:       %d kB\nMemFree:        %d kB\n", m.Memory.Usable/quantity.KiB, m.Memory.Usable/quantity.KiB/2))
	}
	if m.Memory.Watched {
		t.file("sys/devices/system/edac/mc/mc0/mc_name", "simulated\n")
	}
	for i := range m.Devices {
		t.device(&m.Devices[i])
	}
	t.folder("sys/bus/pci/devices")
	t.folder("sys/block")
	ata := map[string]int{}
	for i, p := range m.Ports {
		ata[p.Controller+"/"+strconv.Itoa(p.Port)] = i + 1
		t.port(i+1, p)
	}
	for i := range m.Drives {
		t.drive(i, &m.Drives[i], ata)
	}
	return t.err
}

func (t *tree) file(name, text string) {
	at := filepath.Join(t.dir, filepath.FromSlash(name))
	if t.err == nil {
		t.err = os.MkdirAll(filepath.Dir(at), 0o777)
	}
	if t.err == nil {
		t.err = os.WriteFile(at, []byte(text), 0o666)
	}
}

func (t *tree) folder(name string) {
	if t.err == nil {
		t.err = os.MkdirAll(filepath.Join(t.dir, filepath.FromSlash(name)), 0o777)
	}
}

// link makes a link from a name to a place in the tree, by the way between them, as the kernel
// makes them.
func (t *tree) link(name, to string) {
	t.folder(path.Dir(name))
	if t.err == nil {
		up := strings.Repeat("../", strings.Count(name, "/"))
		t.err = os.Symlink(filepath.FromSlash(up+to), filepath.Join(t.dir, filepath.FromSlash(name)))
	}
}

// rates is what the kernel prints of links, by generation.
var rates = map[quantity.Gen]string{1: "2.5 GT/s PCIe", 2: "5.0 GT/s PCIe", 3: "8.0 GT/s PCIe", 4: "16.0 GT/s PCIe", 5: "32.0 GT/s PCIe", 6: "64.0 GT/s PCIe"}

// folderOf is where a PCI function lies among the devices.
func folderOf(parent, address string) string {
	const root = "sys/devices/pci0000:00"
	if parent == "" {
		return root + "/" + address
	}
	return root + "/" + parent + "/" + address
}

func (t *tree) device(d *power.PCIDevice) {
	at := folderOf(d.Parent, d.Address)
	t.file(at+"/class", d.Class+"\n")
	t.file(at+"/vendor", d.Vendor+"\n")
	t.file(at+"/device", d.Device+"\n")
	ends := func(at, which string, gen quantity.Gen, lanes quantity.Lanes) {
		if gen > 0 {
			t.file(at+"/"+which+"_link_speed", rates[gen]+"\n")
			t.file(at+"/"+which+"_link_width", strconv.Itoa(int(lanes))+"\n")
		}
	}
	ends(at, "current", d.Gen, d.Lanes)
	ends(at, "max", d.MostGen, d.MostLanes)
	if d.Errors > 0 {
		t.file(at+"/aer_dev_correctable", fmt.Sprintf("RxErr 0\nBadTLP %d\nTOTAL_ERR_COR %d\n", d.Errors, d.Errors))
	}
	t.link("sys/bus/pci/devices/"+d.Address, at)
	if d.Parent != "" {
		bridge := folderOf("", d.Parent)
		t.file(bridge+"/class", "0x060400\n")
		ends(bridge, "max", d.PortGen, d.PortLanes)
		t.link("sys/bus/pci/devices/"+d.Parent, bridge)
	}
}

func (t *tree) port(n int, p power.PortSeen) {
	at := fmt.Sprintf("%s/ata%d", folderOf("", p.Controller), n)
	t.file(fmt.Sprintf("%s/ata_port/ata%d/port_no", at, n), strconv.Itoa(p.Port)+"\n")
	t.link(fmt.Sprintf("sys/class/ata_port/ata%d", n), fmt.Sprintf("%s/ata_port/ata%d", at, n))
	speed := map[quantity.Gen]string{0: "<unknown>", 1: "1.5 Gbps", 2: "3.0 Gbps", 3: "6.0 Gbps"}[p.Gen]
	t.file(fmt.Sprintf("%s/link%d/ata_link/link%d/sata_spd", at, n, n), speed+"\n")
	t.link(fmt.Sprintf("sys/class/ata_link/link%d", n), fmt.Sprintf("%s/link%d/ata_link/link%d", at, n, n))
}

func (t *tree) drive(i int, d *power.DriveSeen, ata map[string]int) {
	at, sensor := "", ""
	switch d.Bus {
	case power.BusNVMe:
		parent := ""
		if link, err := os.Readlink(filepath.Join(t.dir, "sys/bus/pci/devices", d.Address)); err == nil {
			parent = path.Base(path.Dir(filepath.ToSlash(link)))
		}
		name, _, _ := strings.Cut(d.Name, "n1")
		control := folderOf(parent, d.Address) + "/nvme/" + name
		at, sensor = control+"/"+d.Name, control
		t.file(control+"/model", d.Model+"\n")
		t.file(control+"/serial", fmt.Sprintf("%-20s\n", d.Serial))
		t.file(control+"/firmware_rev", d.Firmware+"\n")
		t.link(at+"/device", control)
	case power.BusUSB:
		box := fmt.Sprintf("%s/usb2/2-%d", folderOf("", d.Address), i+1)
		t.file(box+"/speed", strconv.Itoa(d.Mbps)+"\n")
		at = t.scsi(box+fmt.Sprintf("/2-%d:1.0", i+1), i, d)
	default:
		n := ata[d.Address+"/"+strconv.Itoa(d.Port)]
		host := fmt.Sprintf("%s/ata%d", folderOf("", d.Address), n)
		at = t.scsi(host, i, d)
		sensor = path.Dir(path.Dir(at))
	}
	t.file(at+"/size", strconv.FormatInt(int64(d.Bytes)/512, 10)+"\n")
	t.file(at+"/removable", "0\n")
	t.file(at+"/queue/rotational", map[bool]string{true: "1\n", false: "0\n"}[d.Turns])
	if !d.Blank {
		one := d.Name + "1"
		if d.Bus == power.BusNVMe {
			one = d.Name + "p1"
		}
		t.file(at+"/"+one+"/partition", "1\n")
	}
	t.file(at+"/dev", fmt.Sprintf("259:%d\n", i))
	t.file(fmt.Sprintf("run/udev/data/b259:%d", i), "E:ID_SERIAL="+d.Serial+"\n")
	t.link("sys/block/"+d.Name, at)
	if d.Celsius > 0 && sensor != "" {
		hwmon := fmt.Sprintf("%s/hwmon/hwmon%d", sensor, i)
		t.file(hwmon+"/name", map[bool]string{true: "nvme\n", false: "drivetemp\n"}[d.Bus == power.BusNVMe])
		t.file(hwmon+"/temp1_input", strconv.Itoa(int(d.Celsius*1000))+"\n")
		t.link(fmt.Sprintf("sys/class/hwmon/hwmon%d", i), hwmon)
	}
}

// scsi writes a disk as the SCSI layer shows it: the model cut to 16 letters is on a page of
// its own, so here it is whole.
func (t *tree) scsi(host string, i int, d *power.DriveSeen) string {
	target := fmt.Sprintf("%s/host%d/target%d:0:0/%d:0:0:0", host, i, i, i)
	t.file(target+"/model", d.Model+"\n")
	t.file(target+"/vendor", "ATA     \n")
	t.file(target+"/rev", d.Firmware+"\n")
	if d.Serial != "" {
		t.file(target+"/vpd_pg80", "\x00\x80\x00"+string(rune(len(d.Serial)))+d.Serial)
	}
	at := target + "/block/" + d.Name
	t.link(at+"/device", target)
	return at
}

// table collects the structures of firmware's tables.
type table struct {
	bytes.Buffer
	handle uint16
}

// structure is one under way: its formatted part and its strings.
type structure struct {
	kind    byte
	fields  []byte
	strings []string
}

// newStructure is one whose formatted part is so long, header included.
func newStructure(kind byte, long int) *structure {
	return &structure{kind: kind, fields: make([]byte, long)}
}

func (s *structure) text(offset int, words string) {
	if words == "" {
		return
	}
	s.strings = append(s.strings, words)
	s.fields[offset] = byte(len(s.strings))
}

func (s *structure) word(offset int, v uint16) { binary.LittleEndian.PutUint16(s.fields[offset:], v) }
func (s *structure) long(offset int, v uint32) { binary.LittleEndian.PutUint32(s.fields[offset:], v) }
func (s *structure) quad(offset int, v uint64) { binary.LittleEndian.PutUint64(s.fields[offset:], v) }

func (t *table) add(s *structure) {
	s.fields[0], s.fields[1] = s.kind, byte(len(s.fields))
	binary.LittleEndian.PutUint16(s.fields[2:], t.handle)
	t.handle++
	t.Write(s.fields)
	for _, w := range s.strings {
		t.WriteString(w)
		t.WriteByte(0)
	}
	if len(s.strings) == 0 {
		t.WriteByte(0)
	}
	t.WriteByte(0)
}

// tables is firmware's tables of a machine (System Management BIOS, DSP0134).
func tables(m *power.Inventory) []byte {
	var t table
	firmware := newStructure(0, 0x18)
	firmware.text(0x05, m.Firmware)
	firmware.text(0x08, m.Dated)
	t.add(firmware)
	system := newStructure(1, 0x1b)
	system.text(0x04, m.Maker)
	system.text(0x05, m.Product)
	system.text(0x07, m.Serial)
	t.add(system)
	board := newStructure(2, 0x0f)
	board.text(0x05, m.Board)
	t.add(board)
	if m.Processor != "" {
		p := newStructure(4, 0x30)
		p.fields[0x18] = 1<<6 | 1
		p.text(0x10, m.Processor)
		t.add(p)
	}
	for _, k := range m.Slots {
		t.slot(k)
	}
	if m.Memory.Slots > 0 {
		a := newStructure(16, 0x17)
		a.fields[0x04], a.fields[0x05], a.fields[0x06] = 3, 3, map[bool]byte{true: 5, false: 3}[m.Memory.ECC]
		a.long(0x07, 0x80000000)
		a.quad(0x0f, uint64(m.Memory.Most))
		a.word(0x0d, uint16(m.Memory.Slots))
		t.add(a)
	}
	for _, d := range m.Memory.Modules {
		t.module(d)
	}
	t.add(newStructure(127, 4))
	return t.Bytes()
}

func (t *table) slot(k power.SlotSeen) {
	s := newStructure(9, 0x11)
	s.text(0x04, k.Name)
	s.fields[0x05] = map[bool]byte{true: 0x17, false: 0xb1}[k.M2]
	if k.Gen > 0 && !k.M2 {
		s.fields[0x05] = map[quantity.Gen]byte{1: 0xa5, 2: 0xab, 3: 0xb1, 4: 0xb8, 5: 0xbe}[k.Gen] + map[quantity.Lanes]byte{0: 0, 1: 1, 2: 2, 4: 3, 8: 4, 16: 5}[k.Long]
	}
	s.fields[0x06] = map[quantity.Lanes]byte{0: 2, 1: 8, 2: 9, 4: 0x0a, 8: 0x0b, 16: 0x0d}[k.Lanes]
	s.fields[0x07] = map[bool]byte{true: 4, false: 3}[k.InUse]
	s.word(0x0d, 0xffff)
	s.fields[0x0f], s.fields[0x10] = 0xff, 0xff
	t.add(s)
}

func (t *table) module(d power.ModuleSeen) {
	s := newStructure(17, 0x5c)
	s.text(0x10, d.Locator)
	s.text(0x11, d.Bank)
	if !d.Empty {
		s.word(0x08, 64)
		s.word(0x0a, 64)
		if d.ECC {
			s.word(0x08, 72)
		}
		switch mib := d.Bytes / quantity.MiB; {
		case mib >= 0x7fff:
			s.word(0x0c, 0x7fff)
			s.long(0x1c, uint32(mib))
		default:
			s.word(0x0c, uint16(mib))
		}
		s.fields[0x0e] = map[memory.Form]byte{memory.DIMM: 0x09, memory.SODIMM: 0x0d}[d.Form]
		s.fields[0x12] = map[memory.Generation]byte{memory.DDR2: 0x13, memory.DDR3: 0x18, memory.DDR4: 0x1a, memory.DDR5: 0x22}[d.Generation]
		if d.Registered {
			s.word(0x13, 1<<13)
		}
		s.word(0x15, uint16(d.Rate))
		s.word(0x20, uint16(d.Configured))
		s.fields[0x1b] = byte(d.Ranks)
		s.text(0x17, d.Maker)
		s.text(0x18, d.Serial)
		s.text(0x1a, d.Number)
	}
	t.add(s)
}
