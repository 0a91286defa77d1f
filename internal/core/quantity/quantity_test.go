package quantity

import (
	"encoding/json"
	"fmt"
	"testing"
)

func ExampleBytes_AsSystemPrints() {
	drive := DriveBytes(500)
	fmt.Println(drive.Exact())
	fmt.Println(drive.Decimal())
	fmt.Println(drive.Binary())
	fmt.Println(drive.AsSystemPrints())
	// Output:
	// 500,107,862,016 bytes
	// 500.11 GB
	// 465.76 GiB
	// 465 GB
}

// The sector counts of drives as sold (IDEMA LBA1-03, SFF-8447 above 8 TB), and
// how they are printed.
func TestDriveBytes(t *testing.T) {
	for _, c := range []struct {
		gb                              int64
		bytes                           Bytes
		label, decimal, binary, printed string
	}{
		{120, 120_034_123_776, "120 GB", "120.03 GB", "111.79 GiB", "111 GB"},
		{240, 240_057_409_536, "240 GB", "240.06 GB", "223.57 GiB", "223 GB"},
		{256, 256_060_514_304, "256 GB", "256.06 GB", "238.47 GiB", "238 GB"},
		{500, 500_107_862_016, "500 GB", "500.11 GB", "465.76 GiB", "465 GB"},
		{512, 512_110_190_592, "512 GB", "512.11 GB", "476.94 GiB", "476 GB"},
		{1000, 1_000_204_886_016, "1 TB", "1.00 TB", "931.51 GiB", "931 GB"},
		{1920, 1_920_383_410_176, "1920 GB", "1.92 TB", "1.75 TiB", "1.74 TB"},
		{2000, 2_000_398_934_016, "2 TB", "2.00 TB", "1.82 TiB", "1.81 TB"},
		{4000, 4_000_787_030_016, "4 TB", "4.00 TB", "3.64 TiB", "3.63 TB"},
		{8000, 8_001_563_222_016, "8 TB", "8.00 TB", "7.28 TiB", "7.27 TB"},
		{10000, 10_000_831_348_736, "10 TB", "10.00 TB", "9.10 TiB", "9.09 TB"},
		{20000, 20_000_588_955_648, "20 TB", "20.00 TB", "18.19 TiB", "18.1 TB"},
		{32, 32_000_000_000, "32 GB", "32 GB", "29.80 GiB", "29.8 GB"},
	} {
		b := DriveBytes(c.gb)
		if b != c.bytes || b.Label() != c.label || b.Decimal() != c.decimal || b.Binary() != c.binary || b.AsSystemPrints() != c.printed {
			t.Errorf("DriveBytes(%d) = %d %q %q %q %q, want %d %q %q %q %q", c.gb, b, b.Label(), b.Decimal(), b.Binary(), b.AsSystemPrints(),
				c.bytes, c.label, c.decimal, c.binary, c.printed)
		}
	}
}

func TestParseBytes(t *testing.T) {
	for _, c := range []struct {
		in              string
		decimal, binary Bytes // 0: refused
	}{
		{"16 GiB", 16 * GiB, 16 * GiB},
		{"16 GB", 16 * GB, 16 * GiB},
		{"500gb", 500 * GB, 500 * GiB},
		{"32,768 MB", 32768 * MB, 32 * GiB},
		{"1.5 TB", 1500 * GB, TiB + TiB/2},
		{"500107862016", 500107862016, 500107862016},
		{"512 bytes", 512, 512},
		{" 8G ", 8 * GiB, 8 * GiB},
		{"", 0, 0},
		{"GB", 0, 0},
		{"-16 GB", 0, 0},
		{"0 GB", 0, 0},
		{"16 GHz", 0, 0},
		{"1.2.3 GB", 0, 0},
		{"99999999999999 TB", 0, 0},
	} {
		d, errD := ParseBytes(c.in)
		b, errB := ParseBinary(c.in)
		if d != c.decimal || b != c.binary || (errD == nil) != (c.decimal > 0) || (errB == nil) != (c.binary > 0) {
			t.Errorf("ParseBytes(%q) = %d, %v; ParseBinary = %d, %v; want %d and %d", c.in, d, errD, b, errB, c.decimal, c.binary)
		}
	}
}

// What is printed whole can be read again.
func FuzzParseBytes(f *testing.F) {
	for _, s := range []string{"16 GiB", "500 GB", "1.81 TB", "7", "x", "1e9 GB", "９ GB", "1,,2 MB"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		b, err := ParseBytes(s)
		if (err == nil) != (b > 0) {
			t.Fatalf("ParseBytes(%q) = %d, %v: either a capacity or an error", s, b, err)
		}
		if err != nil {
			return
		}
		if again, err := ParseBytes(b.Exact()); err != nil || again != b {
			t.Fatalf("%q is %d, printed %q, read again as %d, %v", s, b, b.Exact(), again, err)
		}
	})
}

func TestUnknownIsSaid(t *testing.T) {
	for _, c := range []struct{ got, want string }{
		{Bytes(0).Binary(), "unknown"},
		{Bytes(0).AsSystemPrints(), "unknown"},
		{Bytes(0).Label(), "? GB"},
		{Rate(0).String(), "unknown"},
		{Gen(0).String(), "Gen ?"},
		{Lanes(0).String(), "x?"},
		{MTps(0).String(), "unknown"},
		{Millimetres(0).String(), "unknown length"},
		{Unknown.String(), "unknown"},
	} {
		if c.got != c.want {
			t.Errorf("got %q, want %q", c.got, c.want)
		}
	}
}

// Absent, true and false are three things, also after a round through JSON.
func TestAnswerJSON(t *testing.T) {
	type doc struct {
		A Answer `json:"a,omitzero"`
	}
	for text, want := range map[string]Answer{`{}`: Unknown, `{"a":true}`: Yes, `{"a":false}`: No} {
		var d doc
		if err := json.Unmarshal([]byte(text), &d); err != nil || d.A != want {
			t.Errorf("%s = %v, %v; want %v", text, d.A, err, want)
		}
		if back, err := json.Marshal(d); err != nil || string(back) != text {
			t.Errorf("%v = %s, %v; want %s", want, back, err, text)
		}
	}
	if err := json.Unmarshal([]byte(`{"a":"yes"}`), new(doc)); err == nil {
		t.Error(`"yes" was taken`)
	}
}
