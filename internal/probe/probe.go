// Package probe reads a Linux machine into an observation: PCI functions with both ends of their
// links, drives, SATA ports, temperatures, and firmware's own tables (SMBIOS).
//
// It reads files under a root and nothing else: no ioctl, no device, no network. It never
// writes. What it cannot read it names, with the reason.
//
//	got, err := probe.Read("/")
//	got.Machine.Drives // as the system lists them
package probe

import (
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
)

// most is how much of a file is read: kernel attributes are pages, firmware's tables less than
// this (SMBIOS 2: 64 KiB; 3: as large, in practice).
const most = 1 << 20

// tree is the files under a root. Links that lead out of it are not followed.
type tree struct {
	root   *os.Root
	missed []power.Missed
}

// Read reads the machine whose file tree begins at a folder: "/" is this one.
func Read(root string) (power.Observation, error) {
	r, err := os.OpenRoot(root)
	if err != nil {
		return power.Observation{}, err
	}
	defer r.Close()
	t := &tree{root: r}
	m := power.Inventory{Source: power.FromLinux}
	t.firmware(&m)
	devices := t.pci()
	m.Devices = devices
	t.drives(&m, devices)
	t.memory(&m)
	m.Missed = t.missed
	return power.Observation{Format: power.Format, Version: power.Version, Readings: []power.Reading{}, Machine: &m}, nil
}

// miss notes what could not be read, once.
func (t *tree) miss(what string, why power.Unread) {
	x := power.Missed{What: clip(what, 200), Why: why}
	if len(t.missed) < 100 && !slices.Contains(t.missed, x) {
		t.missed = append(t.missed, x)
	}
}

// file reads a file that should be there; nil is that it is not, or cannot be read, which is
// noted where it is worth a word.
func (t *tree) file(name string) []byte {
	info, err := t.root.Stat(name)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		return nil
	case errors.Is(err, fs.ErrPermission):
		t.miss(name, power.NeedsRoot)
		return nil
	case err != nil:
		t.miss(name, power.NotAFile)
		return nil
	case !info.Mode().IsRegular(): // a pipe would never end
		t.miss(name, power.NotAFile)
		return nil
	}
	f, err := t.root.Open(name)
	if err != nil {
		if errors.Is(err, fs.ErrPermission) {
			t.miss(name, power.NeedsRoot)
		}
		return nil
	}
	defer f.Close()
	b, err := io.ReadAll(io.LimitReader(f, most+1))
	switch {
	case len(b) > most:
		t.miss(name, power.TooBig)
		return nil
	case err != nil && len(b) == 0: // kernels answer so for what a device does not tell
		return nil
	}
	return b
}

// text is a short attribute, without blanks around it and control letters in it.
func (t *tree) text(name string) string {
	return clip(plain(string(t.file(name))), 200)
}

// plain drops what is no letter for people.
func plain(s string) string {
	return strings.TrimSpace(strings.Map(func(r rune) rune {
		if r < ' ' || r == 0x7f || r == '\uFFFD' {
			return -1
		}
		return r
	}, strings.ToValidUTF8(s, "")))
}

func clip(s string, n int) string {
	if r := []rune(s); len(r) > n {
		return string(r[:n])
	}
	return s
}

// number is an attribute that is a whole number from 0 to a bound; 0 is that it is none.
func (t *tree) number(name string, bound int64) int64 {
	s := t.text(name)
	n, err := strconv.ParseInt(s, 0, 64)
	if err != nil || n < 0 || n > bound {
		return 0
	}
	return n
}

// list is the names in a folder, sorted, so many at most.
func (t *tree) list(name string) []string {
	f, err := t.root.Open(name)
	if err != nil {
		if errors.Is(err, fs.ErrPermission) {
			t.miss(name, power.NeedsRoot)
		}
		return nil
	}
	defer f.Close()
	names, _ := f.Readdirnames(4096)
	slices.Sort(names)
	return names
}

// at is where a link in the tree of devices leads: the path below the root, "" for none.
func (t *tree) at(name string) string {
	to, err := t.root.Readlink(name)
	if err != nil {
		return ""
	}
	if path.IsAbs(to) {
		return strings.TrimPrefix(path.Clean(to), "/")
	}
	to = path.Join(path.Dir(name), to)
	if strings.HasPrefix(to, "..") {
		return ""
	}
	return to
}

// address is a PCI function as the kernel names it: domain, bus, device, function.
var address = regexp.MustCompile(`^[0-9a-f]{4,8}:[0-9a-f]{2}:[0-9a-f]{2}\.[0-7]$`)

// gts is a link's speed as kernels print it: "8.0 GT/s PCIe", "8 GT/s".
var gts = regexp.MustCompile(`^([0-9.]+) GT/s`)

// generations is the transfer rates of PCI Express (section 1.1 of the base specification), in GT/s.
var generations = map[string]quantity.Gen{"2.5": 1, "5": 2, "5.0": 2, "8": 3, "8.0": 3, "16": 4, "16.0": 4, "32": 5, "32.0": 5, "64": 6, "64.0": 6}

func (t *tree) gen(name string) quantity.Gen {
	m := gts.FindStringSubmatch(t.text(name))
	if m == nil {
		return 0
	}
	return generations[m[1]]
}

// lanes is a width; 0 and 255 are that the kernel does not know.
func (t *tree) lanes(name string) quantity.Lanes {
	n := t.number(name, 254)
	if n > 16 {
		return 0
	}
	return quantity.Lanes(n)
}

// aer is the count of corrected errors, as the kernel prints it.
var aer = regexp.MustCompile(`(?m)^TOTAL_ERR_COR (\d+)$`)

// pci lists the PCI functions that are no bridges.
func (t *tree) pci() []power.PCIDevice {
	const folder = "sys/bus/pci/devices"
	var out []power.PCIDevice
	names := t.list(folder)
	if names == nil {
		t.miss(folder, power.NotOffered)
	}
	for _, name := range names {
		at := path.Join(folder, name)
		class := t.text(path.Join(at, "class"))
		if !address.MatchString(name) || len(out) == 1024 || strings.HasPrefix(class, "0x06") {
			continue
		}
		d := power.PCIDevice{Address: name, Class: clip(class, 10), Vendor: clip(t.text(path.Join(at, "vendor")), 10), Device: clip(t.text(path.Join(at, "device")), 10),
			Gen: t.gen(path.Join(at, "current_link_speed")), Lanes: t.lanes(path.Join(at, "current_link_width")),
			MostGen: t.gen(path.Join(at, "max_link_speed")), MostLanes: t.lanes(path.Join(at, "max_link_width"))}
		if m := aer.FindStringSubmatch(string(t.file(path.Join(at, "aer_dev_correctable")))); m != nil {
			d.Errors, _ = strconv.Atoi(clip(m[1], 9))
		}
		for _, up := range strings.Split(path.Dir(t.at(at)), "/") {
			if address.MatchString(up) && d.Depth < 32 {
				d.Parent = up
				d.Depth++
			}
		}
		if d.Parent != "" {
			port := path.Join(folder, d.Parent)
			d.PortGen, d.PortLanes = t.gen(path.Join(port, "max_link_speed")), t.lanes(path.Join(port, "max_link_width"))
		}
		out = append(out, d)
	}
	return out
}

// sectors is the unit of a block device's size, whatever its own sectors are (kernel ABI).
const sectors = 512

// ignored is block devices that are no drives.
var ignored = regexp.MustCompile(`^(?:loop|ram|zram|dm-|md|sr|fd|nbd|zd|mtdblock)`)

// partition is a folder of a block device that is a partition of it.
func partition(disk, name string) bool {
	rest, ok := strings.CutPrefix(name, disk)
	return ok && strings.Trim(strings.TrimPrefix(rest, "p"), "0123456789") == "" && rest != "" && rest != "p"
}

var (
	ataName  = regexp.MustCompile(`^ata([0-9]{1,4})$`)
	usbName  = regexp.MustCompile(`^usb[0-9]+$`)
	nvmeName = regexp.MustCompile(`^nvme[0-9]+$`)
	spd      = regexp.MustCompile(`^([0-9.]+) Gbps$`)
)

// sataGens is the rates of Serial ATA, in Gb/s.
var sataGens = map[string]quantity.Gen{"1.5": 1, "3.0": 2, "6.0": 3}

func (t *tree) sata(ata string) quantity.Gen {
	m := spd.FindStringSubmatch(t.text("sys/class/ata_link/link" + strings.TrimPrefix(ata, "ata") + "/sata_spd"))
	if m == nil {
		return 0
	}
	return sataGens[m[1]]
}

// drives lists block devices that are drives, and SATA ports.
func (t *tree) drives(m *power.Inventory, devices []power.PCIDevice) {
	heat := t.temperatures()
	for _, name := range t.list("sys/block") {
		if ignored.MatchString(name) || len(m.Drives) == 256 {
			continue
		}
		at := path.Join("sys/block", name)
		d := power.DriveSeen{Name: clip(plain(name), 60), Bytes: quantity.Bytes(t.number(path.Join(at, "size"), 1<<51) * sectors),
			Turns: t.text(path.Join(at, "queue/rotational")) == "1", Removable: t.text(path.Join(at, "removable")) == "1"}
		d.Model, d.Serial = clip(t.text(path.Join(at, "device/model")), 120), clip(t.text(path.Join(at, "device/serial")), 120)
		if d.Firmware = clip(t.text(path.Join(at, "device/firmware_rev")), 40); d.Firmware == "" {
			d.Firmware = clip(t.text(path.Join(at, "device/rev")), 40)
		}
		if d.Serial == "" {
			if b := t.file(path.Join(at, "device/vpd_pg80")); len(b) > 4 { // SPC: page 80h, four bytes before the number
				d.Serial = clip(plain(string(b[4:])), 120)
			}
		}
		d.Blank = !slices.ContainsFunc(t.list(at), func(n string) bool { return partition(name, n) }) &&
			len(t.list(path.Join(at, "holders"))) == 0 && t.unsigned(t.text(path.Join(at, "dev")))
		t.hangs(&d, at, devices)
		for _, key := range []string{d.Address + "/" + strconv.Itoa(d.Port), d.Address} {
			if c := heat[key]; c > 0 && d.Celsius == 0 {
				d.Celsius = c
			}
		}
		if d.Bytes == 0 && d.Removable {
			continue // a card reader without a card
		}
		m.Drives = append(m.Drives, d)
	}
	for _, name := range t.list("sys/class/ata_port") {
		if ataName.MatchString(name) && len(m.Ports) < 256 {
			controller, _ := t.chain(path.Join("sys/class/ata_port", name))
			m.Ports = append(m.Ports, power.PortSeen{Controller: controller, Port: int(t.number("sys/class/ata_port/"+name+"/port_no", 999)), Gen: t.sata(name)})
		}
	}
	slices.SortStableFunc(m.Ports, func(a, b power.PortSeen) int {
		return strings.Compare(fmt.Sprintf("%s %4d", a.Controller, a.Port), fmt.Sprintf("%s %4d", b.Controller, b.Port))
	})
}

// unsigned reports that nothing was found on a whole drive that a file system, a member of an array or
// an encrypted volume begins with. The device manager looked for that as the drive appeared; where it
// keeps no note of the drive, nobody looked, and it is not called blank.
func (t *tree) unsigned(number string) bool {
	note := t.file("run/udev/data/b" + number)
	if number == "" || len(note) == 0 {
		return false
	}
	for line := range strings.Lines(string(note)) {
		for _, sign := range []string{"E:ID_FS_TYPE=", "E:ID_FS_USAGE=", "E:ID_PART_TABLE_TYPE="} {
			if strings.HasPrefix(line, sign) && strings.TrimSpace(line) != sign {
				return false
			}
		}
	}
	return true
}

// chain is the last PCI function on the way to a device, and the names on that way.
func (t *tree) chain(name string) (function string, names []string) {
	names = strings.Split(t.at(name), "/")
	for _, n := range names {
		if address.MatchString(n) {
			function = n
		}
	}
	return function, names
}

// hangs finds how a drive hangs on the machine.
func (t *tree) hangs(d *power.DriveSeen, at string, devices []power.PCIDevice) {
	function, names := t.chain(at)
	d.Address = function
	on := func(is func(string) bool) int { return slices.IndexFunc(names, is) }
	switch ata, usb := on(ataName.MatchString), on(usbName.MatchString); {
	case usb >= 0:
		d.Bus = power.BusUSB
		for i := len(names); i > usb; i-- {
			if n := t.number(path.Join(strings.Join(names[:i], "/"), "speed"), 200_000); n > 0 {
				d.Mbps = int(n)
				break
			}
		}
	case ata >= 0:
		d.Bus = power.BusSATA
		d.Port = int(t.number("sys/class/ata_port/"+names[ata]+"/port_no", 999))
		d.Gen = t.sata(names[ata])
	case on(nvmeName.MatchString) >= 0 || strings.HasPrefix(d.Name, "nvme"):
		d.Bus = power.BusNVMe
		if function == "" { // it hangs under its subsystem: its controller is told by the serial number
			function = t.controller(d.Serial)
			d.Address = function
		}
	case strings.HasPrefix(d.Name, "vd") || on(func(n string) bool { return strings.HasPrefix(n, "virtio") || strings.HasPrefix(n, "vbd") }) >= 0:
		d.Bus = power.BusVirtual
	case function != "":
		d.Bus = power.BusRAID
	}
	i := slices.IndexFunc(devices, func(p power.PCIDevice) bool { return p.Address == function })
	if d.Bus == power.BusNVMe && i >= 0 {
		d.Gen, d.Lanes, d.Errors = devices[i].Gen, devices[i].Lanes, devices[i].Errors
	}
}

// controller is the PCI function of the NVMe controller with a serial number: with multipath
// on, the numbers of controllers and disks need not be the same.
func (t *tree) controller(serial string) string {
	for _, name := range t.list("sys/class/nvme") {
		at := path.Join("sys/class/nvme", name)
		if serial != "" && t.text(path.Join(at, "serial")) == serial {
			if a := t.text(path.Join(at, "address")); address.MatchString(a) {
				return a
			}
		}
	}
	return ""
}

// temperatures is what sensors of drives tell, by the PCI function of the drive or, of a SATA drive, by
// that of its controller and the port.
func (t *tree) temperatures() map[string]quantity.Celsius {
	out := map[string]quantity.Celsius{}
	for _, name := range t.list("sys/class/hwmon") {
		at := path.Join("sys/class/hwmon", name)
		sensor := t.text(path.Join(at, "name"))
		if sensor != "nvme" && sensor != "drivetemp" {
			continue
		}
		function, names := t.chain(at)
		c := quantity.Celsius(t.number(path.Join(at, "temp1_input"), 200_000)) / 1000
		if i := slices.IndexFunc(names, ataName.MatchString); i >= 0 {
			function += "/" + strconv.FormatInt(t.number("sys/class/ata_port/"+names[i]+"/port_no", 999), 10)
		}
		if function != "" && c >= 1 && c <= 150 {
			out[function] = c
		}
	}
	return out
}

// total is what the system can use, in KiB, as the kernel prints it.
var total = regexp.MustCompile(`(?m)^MemTotal:\s+(\d{1,15}) kB$`)

// memory adds what the system says of memory to what firmware's tables told.
func (t *tree) memory(m *power.Inventory) {
	if f := total.FindStringSubmatch(string(t.file("proc/meminfo"))); f != nil {
		n, _ := strconv.ParseInt(f[1], 10, 64)
		m.Memory.Usable = quantity.Bytes(n) * quantity.KiB
	} else {
		t.miss("proc/meminfo", power.NotOffered)
	}
	m.Memory.Watched = slices.ContainsFunc(t.list("sys/devices/system/edac/mc"), func(n string) bool { return strings.HasPrefix(n, "mc") })
	_, err := t.root.Stat("sys/firmware/efi")
	m.UEFI = err == nil
}
