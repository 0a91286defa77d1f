package probe

// This file reads what a Windows machine's own management classes tell, as its shell prints them in
// JSON: memory modules, physical disks, system slots. The line that asks for them is Ask.

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
	"unicode/utf16"

	"deepbay/internal/core/memory"
	"deepbay/internal/core/power"
	"deepbay/internal/core/quantity"
)

// Ask is the line that makes a Windows machine tell about itself, for its own shell. It changes
// nothing and needs no administrator.
const Ask = `@{memory=@(Get-CimInstance Win32_PhysicalMemory|Select-Object DeviceLocator,BankLabel,Capacity,FormFactor,SMBIOSMemoryType,Speed,ConfiguredClockSpeed,Manufacturer,PartNumber,SerialNumber);disks=@(Get-PhysicalDisk|Select-Object FriendlyName,Model,SerialNumber,FirmwareVersion,Size,@{n='Bus';e={"$($_.BusType)"}},@{n='Media';e={"$($_.MediaType)"}});slots=@(Get-CimInstance Win32_SystemSlot|Select-Object SlotDesignation,CurrentUsage);system=(Get-CimInstance Win32_ComputerSystem|Select-Object Manufacturer,Model,TotalPhysicalMemory);firmware=(Get-CimInstance Win32_BIOS|Select-Object SMBIOSBIOSVersion,SerialNumber)}|ConvertTo-Json -Depth 4`

// number is a whole number that the shell prints as one, as text, or not at all.
type number int64

func (n *number) UnmarshalJSON(b []byte) error {
	s := strings.Trim(string(b), `" `)
	if s == "null" || s == "" {
		return nil
	}
	v, err := strconv.ParseInt(s, 10, 64)
	if err != nil || v < 0 {
		return fmt.Errorf("%s is no whole number", clip(s, 40))
	}
	*n = number(v)
	return nil
}

// several is a list; of one alone the shell prints the thing itself.
type several[T any] []T

func (l *several[T]) UnmarshalJSON(b []byte) error {
	if b = bytes.TrimSpace(b); len(b) > 0 && b[0] == '[' {
		return json.Unmarshal(b, (*[]T)(l))
	}
	var one T
	if err := json.Unmarshal(b, &one); err != nil || bytes.Equal(b, []byte("null")) {
		return err
	}
	*l = []T{one}
	return nil
}

type classes struct {
	Memory several[struct {
		DeviceLocator, BankLabel, Manufacturer, PartNumber, SerialNumber    string
		Capacity, FormFactor, SMBIOSMemoryType, Speed, ConfiguredClockSpeed number
	}] `json:"memory"`
	Disks several[struct {
		FriendlyName, Model, SerialNumber, FirmwareVersion, Bus, Media string
		Size                                                           number
	}] `json:"disks"`
	Slots several[struct {
		SlotDesignation string
		CurrentUsage    number
	}] `json:"slots"`
	System struct {
		Manufacturer, Model string
		TotalPhysicalMemory number
	} `json:"system"`
	Firmware struct{ SMBIOSBIOSVersion, SerialNumber string } `json:"firmware"`
}

// buses is the shell's words for how a disk hangs.
var buses = map[string]power.Bus{"nvme": power.BusNVMe, "sata": power.BusSATA, "ata": power.BusSATA, "usb": power.BusUSB, "sas": power.BusSAS, "raid": power.BusRAID}

// IsWindows reports text that has the form of what a Windows machine tells.
func IsWindows(b []byte) bool {
	var top map[string]json.RawMessage
	return json.Unmarshal(unicode(b), &top) == nil && top["format"] == nil && (top["memory"] != nil || top["disks"] != nil || top["slots"] != nil)
}

// unicode is text in UTF-8: a file that the shell wrote is in UTF-16, or begins with a mark.
func unicode(b []byte) []byte {
	b = bytes.TrimPrefix(b, []byte("\xef\xbb\xbf"))
	if len(b) < 2 || b[0] != 0xff || b[1] != 0xfe {
		return b
	}
	words := make([]uint16, 0, len(b)/2)
	for i := 2; i+1 < len(b); i += 2 {
		words = append(words, uint16(b[i])|uint16(b[i+1])<<8)
	}
	return []byte(string(utf16.Decode(words)))
}

// Windows makes an observation of what a Windows machine told.
func Windows(b []byte) (power.Observation, error) {
	var in classes
	d := json.NewDecoder(bytes.NewReader(unicode(b)))
	if err := d.Decode(&in); err != nil {
		return power.Observation{}, fmt.Errorf("what the machine told cannot be read: %w", err)
	}
	short := func(s string, n int) string { return clip(word(plain(s)), n) }
	m := power.Inventory{Source: power.FromWindows, Maker: short(in.System.Manufacturer, 200), Product: short(in.System.Model, 200), Firmware: short(in.Firmware.SMBIOSBIOSVersion, 200), Serial: short(in.Firmware.SerialNumber, 200)}
	m.Memory.Usable = quantity.Bytes(in.System.TotalPhysicalMemory)
	for _, x := range in.Memory {
		if len(m.Memory.Modules) == 256 {
			break
		}
		s := power.ModuleSeen{Locator: short(x.DeviceLocator, 120), Bank: short(x.BankLabel, 120), Bytes: quantity.Bytes(x.Capacity), Maker: short(x.Manufacturer, 120), Number: short(x.PartNumber, 120), Serial: short(x.SerialNumber, 120),
			Rate: speed(x.Speed), Configured: speed(x.ConfiguredClockSpeed)}
		if x.SMBIOSMemoryType < 256 {
			s.Generation = generation[byte(x.SMBIOSMemoryType)]
		}
		switch x.FormFactor { // of the class, not of the tables
		case 8:
			s.Form = memory.DIMM
		case 12:
			s.Form = memory.SODIMM
		}
		m.Memory.Modules = append(m.Memory.Modules, s)
	}
	for _, x := range in.Slots {
		if len(m.Slots) < 256 {
			m.Slots = append(m.Slots, power.SlotSeen{Name: short(x.SlotDesignation, 120), InUse: x.CurrentUsage == 4})
		}
	}
	for _, x := range in.Disks {
		if len(m.Drives) == 256 {
			break
		}
		model := short(x.Model, 120)
		if model == "" {
			model = short(x.FriendlyName, 120)
		}
		m.Drives = append(m.Drives, power.DriveSeen{Model: model, Serial: strings.TrimRight(short(x.SerialNumber, 120), "."), Firmware: short(x.FirmwareVersion, 40), Bytes: quantity.Bytes(x.Size), Bus: buses[strings.ToLower(x.Bus)], Turns: strings.EqualFold(x.Media, "HDD")})
	}
	return power.Observation{Format: power.Format, Version: power.Version, Readings: []power.Reading{}, Machine: &m}, nil
}

func speed(n number) quantity.MTps {
	if n > 20_000 {
		return 0
	}
	return quantity.MTps(n)
}
