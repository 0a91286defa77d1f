// Package picture takes in pictures that somebody took or was given. What is kept of one is
// what can be seen: it is decoded, turned upright, made no larger than one can use, and
// written anew, so that where and when it was taken, by which camera, and whatever else a
// file may carry, stays behind.
package picture

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	_ "image/png" // the decoder

	"github.com/bep/imagemeta"
	xdraw "golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // the decoder
)

const (
	// MostPoints is how many points a picture may have: a telephone's has 50 million at most,
	// and 64 million are a quarter of a gigabyte while one is decoded.
	MostPoints = 64 << 20
	// LongestSide of a picture that is kept: the lettering of a manual's page stays legible.
	LongestSide = 2000

	quality = 85 // of JPEG, where no difference is seen
)

// Why a picture is not taken.
var (
	ErrKind   = errors.New("it is no JPEG, PNG or WebP picture")
	ErrLarge  = fmt.Errorf("it has more than %d million points", MostPoints>>20)
	ErrBroken = errors.New("it cannot be read to its end")
)

// Picture is one as it is kept: JPEG, upright, with nothing in it but what is seen.
type Picture struct {
	Width, Height int
	JPEG          []byte
}

// Read takes a picture in. The error is one of this package.
func Read(file []byte) (Picture, error) {
	head, kind, err := image.DecodeConfig(bytes.NewReader(file))
	switch {
	case err != nil:
		return Picture{}, ErrKind
	case head.Width <= 0 || head.Height <= 0:
		return Picture{}, ErrBroken
	case head.Width > MostPoints/head.Height:
		return Picture{}, ErrLarge
	}
	img, _, err := image.Decode(bytes.NewReader(file))
	if err != nil {
		return Picture{}, ErrBroken
	}
	img = upright(shrunk(img), orientation(file, kind))
	var out bytes.Buffer
	if err := jpeg.Encode(&out, img, &jpeg.Options{Quality: quality}); err != nil {
		return Picture{}, fmt.Errorf("write a picture: %w", err)
	}
	return Picture{Width: img.Bounds().Dx(), Height: img.Bounds().Dy(), JPEG: out.Bytes()}, nil
}

// shrunk is a picture on white, its longest side no longer than LongestSide.
func shrunk(img image.Image) *image.RGBA {
	w, h := img.Bounds().Dx(), img.Bounds().Dy()
	if most := max(w, h); most > LongestSide {
		w, h = max(1, w*LongestSide/most), max(1, h*LongestSide/most)
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(out, out.Bounds(), image.NewUniform(color.White), image.Point{}, draw.Src)
	xdraw.CatmullRom.Scale(out, out.Bounds(), img, img.Bounds(), draw.Over, nil)
	return out
}

// orientation is how the camera was held (EXIF 2.32, tag 0x0112): 1 where nothing is said
// of it, or nothing that can be read.
func orientation(file []byte, kind string) int {
	format, ok := map[string]imagemeta.ImageFormat{"jpeg": imagemeta.JPEG, "png": imagemeta.PNG, "webp": imagemeta.WebP}[kind]
	if !ok {
		return 1
	}
	is := 1
	_, err := imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(file), ImageFormat: format, Sources: imagemeta.EXIF,
		ShouldHandleTag: func(t imagemeta.TagInfo) bool { return t.Tag == "Orientation" },
		HandleTag: func(t imagemeta.TagInfo) error {
			if n, ok := t.Value.(uint16); ok && n >= 1 && n <= 8 {
				is = int(n)
			}
			return nil
		},
	})
	if err != nil {
		return 1 // what it says of itself is damaged: it is shown as it lies
	}
	return is
}

// upright turns and mirrors a picture so that its top is at the top: the eight ways in
// which EXIF says that row 0 and column 0 lie.
func upright(img *image.RGBA, how int) *image.RGBA {
	if how == 1 {
		return img
	}
	w, h := img.Bounds().Dx(), img.Bounds().Dy()
	size := image.Rect(0, 0, w, h)
	if how >= 5 { // rows become columns
		size = image.Rect(0, 0, h, w)
	}
	out := image.NewRGBA(size)
	for y := range h {
		for x := range w {
			tx, ty := x, y
			switch how {
			case 2:
				tx = w - 1 - x
			case 3:
				tx, ty = w-1-x, h-1-y
			case 4:
				ty = h - 1 - y
			case 5:
				tx, ty = y, x
			case 6:
				tx, ty = h-1-y, x
			case 7:
				tx, ty = h-1-y, w-1-x
			case 8:
				tx, ty = y, w-1-x
			}
			out.SetRGBA(tx, ty, img.RGBAAt(x, y))
		}
	}
	return out
}
