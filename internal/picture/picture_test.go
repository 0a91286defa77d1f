package picture

import (
	"bytes"
	"encoding/binary"
	"errors"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"strings"
	"testing"
)

var red, blue, green, black = color.RGBA{200, 0, 0, 255}, color.RGBA{0, 0, 200, 255}, color.RGBA{0, 160, 0, 255}, color.RGBA{0, 0, 0, 255}

// corners is a picture whose corners tell how it lies: red, blue above; green, black below.
func corners(w, h int) *image.RGBA {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := [2][2]color.RGBA{{red, blue}, {green, black}}[2*y/h][2*x/w]
			img.SetRGBA(x, y, c)
		}
	}
	return img
}

// withEXIF puts what a camera writes into a JPEG: how it was held, and where.
func withEXIF(t testing.TB, img image.Image, orientation int) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, nil); err != nil {
		t.Fatal(err)
	}
	e := binary.LittleEndian
	tiff := []byte("II*\x00\x08\x00\x00\x00")
	entry := func(tag, kind uint16, count, value uint32) {
		tiff = e.AppendUint32(e.AppendUint32(e.AppendUint16(e.AppendUint16(tiff, tag), kind), count), value)
	}
	tiff = e.AppendUint16(tiff, 3)
	entry(0x0112, 3, 1, uint32(orientation)) // Orientation
	entry(0x010F, 2, 12, 62)                 // Make, behind this table and that of the place
	entry(0x8825, 4, 1, 50)                  // where the place stands
	tiff = e.AppendUint32(tiff, 0)
	tiff = e.AppendUint16(tiff, 0) // a table of no place, and its end, up to 62
	tiff = append(tiff, make([]byte, 62-len(tiff))...)
	tiff = append(tiff, "Harbour Cam\x00"...)
	body := append([]byte("Exif\x00\x00"), tiff...)
	out := append([]byte{}, b.Bytes()[:2]...)
	out = binary.BigEndian.AppendUint16(append(out, 0xFF, 0xE1), uint16(len(body)+2))
	return append(append(out, body...), b.Bytes()[2:]...)
}

func asPNG(t testing.TB, img image.Image) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// TestUpright holds a camera in all eight ways: the picture that is kept has its top at the
// top, and says neither how it was held nor by whom.
func TestUpright(t *testing.T) {
	// What is seen upright, from left to right and from above, where the file lies in this way.
	for how, want := range map[int]string{1: "red blue green black", 2: "blue red black green", 3: "black green blue red", 4: "green black red blue",
		5: "red green blue black", 6: "green red black blue", 7: "black blue green red", 8: "blue black red green"} {
		file := withEXIF(t, corners(80, 40), how)
		if !bytes.Contains(file, []byte("Harbour Cam")) {
			t.Fatal("the test's own file says nothing")
		}
		got, err := Read(file)
		if err != nil {
			t.Fatal(how, err)
		}
		img, err := jpeg.Decode(bytes.NewReader(got.JPEG))
		if err != nil {
			t.Fatal(how, err)
		}
		w, h := 80, 40
		if how >= 5 {
			w, h = h, w
		}
		if got.Width != w || got.Height != h || img.Bounds().Dx() != w || img.Bounds().Dy() != h {
			t.Errorf("held %d: %d x %d, want %d x %d", how, got.Width, got.Height, w, h)
		}
		var seen []string
		for _, at := range [][2]int{{w / 4, h / 4}, {3 * w / 4, h / 4}, {w / 4, 3 * h / 4}, {3 * w / 4, 3 * h / 4}} {
			r, g, b, _ := img.At(at[0], at[1]).RGBA()
			name := "black"
			switch max(r, g, b, 0x5000) {
			case r:
				name = "red"
			case g:
				name = "green"
			case b:
				name = "blue"
			}
			seen = append(seen, name)
		}
		if is := strings.Join(seen, " "); is != want {
			t.Errorf("held %d: %s, want %s", how, is, want)
		}
		if bytes.Contains(got.JPEG, []byte("Exif")) || bytes.Contains(got.JPEG, []byte("Harbour Cam")) {
			t.Errorf("held %d: what the camera wrote is still there", how)
		}
	}
}

// TestRead takes what is a picture, no larger than it is of use, and says why it does not
// take what is none.
func TestRead(t *testing.T) {
	wide := asPNG(t, corners(5000, 1000))
	var huge bytes.Buffer // a PNG that says it has 100,000 by 100,000 points
	huge.Write(wide[:16])
	binary.Write(&huge, binary.BigEndian, [2]uint32{100_000, 100_000}) //nolint:errcheck // a buffer
	huge.Write(wide[24:])
	fixed := huge.Bytes()
	binary.BigEndian.PutUint32(fixed[29:], crc32.ChecksumIEEE(fixed[12:29]))
	for _, c := range []struct {
		name          string
		file          []byte
		width, height int
		err           error
	}{
		{"as it is", asPNG(t, corners(640, 480)), 640, 480, nil},
		{"too wide", wide, 2000, 400, nil},
		{"a line", asPNG(t, corners(4001, 2)), 2000, 1, nil},
		{"one point", asPNG(t, corners(2, 2)), 2, 2, nil},
		{"cut", wide[:len(wide)/2], 0, 0, ErrBroken},
		{"says it is huge", fixed, 0, 0, ErrLarge},
		{"a job", []byte(`{"format":"deepbay/job"}`), 0, 0, ErrKind},
		{"nothing", nil, 0, 0, ErrKind},
	} {
		got, err := Read(c.file)
		if !errors.Is(err, c.err) || got.Width != c.width || got.Height != c.height {
			t.Errorf("%s: %d x %d, %v; want %d x %d, %v", c.name, got.Width, got.Height, err, c.width, c.height, c.err)
		}
	}
	clear, err := Read(asPNG(t, image.NewNRGBA(image.Rect(0, 0, 8, 8))))
	if err != nil {
		t.Fatal(err)
	}
	img, err := jpeg.Decode(bytes.NewReader(clear.JPEG))
	if err != nil {
		t.Fatal(err)
	}
	if r, g, b, _ := img.At(4, 4).RGBA(); r>>8 < 250 || g>>8 < 250 || b>>8 < 250 {
		t.Error("what is clear is not white")
	}
}

// FuzzRead takes anything: what it takes is a picture without more in it, and it never fails
// otherwise than it says.
func FuzzRead(f *testing.F) {
	f.Add(withEXIF(f, corners(8, 4), 6))
	f.Add(asPNG(f, corners(4, 8)))
	f.Add([]byte("RIFF\x00\x00\x00\x00WEBPVP8 "))
	f.Fuzz(func(t *testing.T, file []byte) {
		got, err := Read(file)
		if err != nil {
			if !errors.Is(err, ErrKind) && !errors.Is(err, ErrLarge) && !errors.Is(err, ErrBroken) {
				t.Fatal(err)
			}
			return
		}
		head, kind, err := image.DecodeConfig(bytes.NewReader(got.JPEG))
		if err != nil || kind != "jpeg" || head.Width != got.Width || head.Height != got.Height || max(head.Width, head.Height) > LongestSide {
			t.Fatalf("%v %s %v of %+v", err, kind, head, got)
		}
	})
}
