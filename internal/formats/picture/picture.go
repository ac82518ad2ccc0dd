// Package picture looks at pictures that people send: whether they can be
// decoded at all, how large they are, and what they tell besides the picture.
package picture

import (
	"bytes"
	"encoding/binary"
	"errors"
	"hash/crc32"
	"image"
	"image/jpeg"
	_ "image/png" // the kinds that are taken, with JPEG
	"mainstay/core/why"
	"slices"

	"golang.org/x/image/draw"
	_ "golang.org/x/image/webp"
)

// MaxPixels bounds a picture: decoding one takes four bytes a pixel.
const MaxPixels = 50_000_000

// ErrPicture is wrapped when something is no picture that can be kept.
var ErrPicture = errors.New("not usable")

// decoding bounds how many pictures are decoded at once.
var decoding = make(chan struct{}, 1)

// Check decodes a JPEG, PNG or WebP picture and returns its media type.
func Check(b []byte) (media string, err error) {
	c, kind, err := image.DecodeConfig(bytes.NewReader(b))
	if err != nil {
		return "", why.Not(ErrPicture, "this is not a JPEG, PNG or WebP picture")
	}
	if c.Width <= 0 || c.Height <= 0 || c.Width*c.Height > MaxPixels {
		return "", why.Not(ErrPicture, "it has more than %d million pixels", MaxPixels/1_000_000)
	}
	decoding <- struct{}{}
	defer func() { <-decoding }()
	if _, _, err := image.Decode(bytes.NewReader(b)); err != nil {
		return "", why.Not(ErrPicture, "it is damaged or cut off")
	}
	return "image/" + kind, nil
}

// Small returns the picture as a JPEG of at most that many pixels a side, for paper.
func Small(b []byte, most int) ([]byte, error) {
	c, _, err := image.DecodeConfig(bytes.NewReader(b))
	if err != nil || c.Width <= 0 || c.Height <= 0 || c.Width*c.Height > MaxPixels {
		return nil, why.Not(ErrPicture, "it cannot be shown")
	}
	decoding <- struct{}{}
	defer func() { <-decoding }()
	whole, _, err := image.Decode(bytes.NewReader(b))
	if err != nil {
		return nil, why.Not(ErrPicture, "it cannot be shown")
	}
	scale := min(1, float64(most)/float64(max(c.Width, c.Height)))
	small := image.NewRGBA(image.Rect(0, 0, max(1, int(float64(c.Width)*scale)), max(1, int(float64(c.Height)*scale))))
	draw.ApproxBiLinear.Scale(small, small.Bounds(), whole, whole.Bounds(), draw.Src, nil)
	var out bytes.Buffer
	err = jpeg.Encode(&out, small, &jpeg.Options{Quality: 85})
	return out.Bytes(), err
}

// Bare returns the picture without what cameras write beside it, such as where
// it was taken, and without anything after its end. How it is turned stays. The
// pixels are untouched.
func Bare(b []byte, media string) ([]byte, error) {
	switch media {
	case "image/jpeg":
		return bareJPEG(b)
	case "image/png":
		return barePNG(b)
	case "image/webp":
		return bareWebP(b)
	}
	return nil, why.Not(ErrPicture, "%s", media)
}

var errCut = why.Not(ErrPicture, "it is damaged or cut off")

// Markers of JPEG.
const (
	soi, eoi, sos    = 0xd8, 0xd9, 0xda
	app0, app1, app2 = 0xe0, 0xe1, 0xe2
	app14, com       = 0xee, 0xfe
)

func bareJPEG(b []byte) ([]byte, error) {
	if len(b) < 4 || b[0] != 0xff || b[1] != soi {
		return nil, errCut
	}
	out, turned, rest := []byte{0xff, soi}, 1, []byte{}
	for at := 2; ; {
		for at+1 < len(b) && b[at] == 0xff && b[at+1] == 0xff { // fill
			at++
		}
		if at+1 >= len(b) || b[at] != 0xff {
			return nil, errCut
		}
		m := b[at+1]
		if m == eoi {
			if turned > 1 {
				out = append(out, orientation(turned)...)
			}
			return append(append(out, rest...), 0xff, eoi), nil
		}
		if at+4 > len(b) {
			return nil, errCut
		}
		end := at + 2 + int(binary.BigEndian.Uint16(b[at+2:]))
		if end < at+4 || end > len(b) {
			return nil, errCut
		}
		if m == sos {
			for end+1 < len(b) && (b[end] != 0xff || b[end+1] == 0 || b[end+1] >= 0xd0 && b[end+1] <= 0xd7) {
				end++
			}
		}
		if t := turn(b[at+4 : end]); m == app1 && t > 0 {
			turned = t
		}
		icc := m == app2 && bytes.HasPrefix(b[at+4:end], []byte("ICC_PROFILE\x00"))
		if m == app0 || m == app14 || icc || (m < app0 || m > 0xef) && m != com {
			rest = append(rest, b[at:end]...)
		}
		at = end
	}
}

// turn reads the orientation out of an Exif block; 0 when there is none.
func turn(exif []byte) int {
	t, ok := bytes.CutPrefix(exif, []byte("Exif\x00\x00"))
	if !ok || len(t) < 14 {
		return 0
	}
	var order binary.ByteOrder = binary.BigEndian
	if t[0] == 'I' {
		order = binary.LittleEndian
	}
	at := int(order.Uint32(t[4:]))
	if at < 8 || at+2 > len(t) {
		return 0
	}
	n := int(order.Uint16(t[at:]))
	for i := range n {
		e := at + 2 + 12*i
		if e+12 > len(t) {
			return 0
		}
		if order.Uint16(t[e:]) == 0x0112 {
			if v := int(order.Uint16(t[e+8:])); v >= 1 && v <= 8 {
				return v
			}
		}
	}
	return 0
}

// orientation is an Exif block that says how the picture is turned, and nothing else.
func orientation(v int) []byte {
	return append([]byte{0xff, app1, 0, 34}, append([]byte("Exif\x00\x00"), 'M', 'M', 0, 42, 0, 0, 0, 8, 0, 1, 0x01, 0x12,
		0, 3, 0, 0, 0, 1, 0, byte(v), 0, 0, 0, 0, 0, 0)...)
}

// chunksPNG are those that make the picture; the others tell of it.
var chunksPNG = []string{"IHDR", "PLTE", "IDAT", "IEND", "tRNS", "gAMA", "cHRM", "sRGB", "iCCP", "sBIT", "pHYs", "bKGD"}

func barePNG(b []byte) ([]byte, error) {
	const sign = "\x89PNG\r\n\x1a\n"
	if !bytes.HasPrefix(b, []byte(sign)) {
		return nil, errCut
	}
	out := []byte(sign)
	for at := len(sign); ; {
		if at+12 > len(b) {
			return nil, errCut
		}
		n := int(binary.BigEndian.Uint32(b[at:]))
		if n < 0 || n > len(b)-at-12 {
			return nil, errCut
		}
		kind, end := string(b[at+4:at+8]), at+12+n
		if crc32.ChecksumIEEE(b[at+4:end-4]) != binary.BigEndian.Uint32(b[end-4:]) {
			return nil, errCut
		}
		if slices.Contains(chunksPNG, kind) {
			out = append(out, b[at:end]...)
		}
		if at = end; kind == "IEND" {
			return out, nil
		}
	}
}

func bareWebP(b []byte) ([]byte, error) {
	if len(b) < 12 || string(b[:4]) != "RIFF" || string(b[8:12]) != "WEBP" {
		return nil, errCut
	}
	all := 8 + int(binary.LittleEndian.Uint32(b[4:]))
	if all > len(b) || all < 12 {
		return nil, errCut
	}
	out := slices.Clone(b[:12])
	for at := 12; at < all; {
		if at+8 > all {
			return nil, errCut
		}
		n := int(binary.LittleEndian.Uint32(b[at+4:]))
		end := at + 8 + n + n%2
		if n < 0 || at+8+n > all {
			return nil, errCut
		}
		end = min(end, all)
		switch kind := string(b[at : at+4]); kind {
		case "EXIF", "XMP ":
		case "VP8X":
			c := slices.Clone(b[at:end])
			if len(c) > 8 {
				c[8] &^= 0x08 | 0x04 // neither follows any more
			}
			out = append(out, c...)
		case "VP8 ", "VP8L", "ALPH", "ICCP", "ANIM", "ANMF":
			out = append(out, b[at:end]...)
		}
		at = end
	}
	binary.LittleEndian.PutUint32(out[4:], uint32(len(out)-8))
	return out, nil
}
