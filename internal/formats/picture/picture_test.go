package picture_test

import (
	"bytes"
	"encoding/base64"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/internal/formats/picture"
)

func drawn() image.Image {
	m := image.NewRGBA(image.Rect(0, 0, 40, 30))
	for x := range 40 {
		for y := range 30 {
			m.Set(x, y, color.RGBA{uint8(x * 6), uint8(y * 8), 90, 255})
		}
	}
	return m
}

// exif is a block with an orientation and a place, as cameras write it.
func exif(turned uint16) []byte {
	t := []byte{'I', 'I', 42, 0, 8, 0, 0, 0, 2, 0}
	entry := func(tag, kind uint16, n, v uint32) {
		t = binary.LittleEndian.AppendUint16(t, tag)
		t = binary.LittleEndian.AppendUint16(t, kind)
		t = binary.LittleEndian.AppendUint32(t, n)
		t = binary.LittleEndian.AppendUint32(t, v)
	}
	entry(0x0112, 3, 1, uint32(turned))
	entry(0x8825, 4, 1, 38)
	t = append(t, "GPSPLACE 46.3 -119.7"...)
	body := append([]byte("Exif\x00\x00"), t...)
	return append(binary.BigEndian.AppendUint16([]byte{0xff, 0xe1}, uint16(len(body)+2)), body...)
}

func photo(t *testing.T, turned uint16) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, drawn(), nil))
	plain := b.Bytes()
	xmp := []byte("http://ns.adobe.com/xap/1.0/\x00<x exif:GPSLatitude='46,18N'/>")
	xmp = append(binary.BigEndian.AppendUint16([]byte{0xff, 0xe1}, uint16(len(xmp)+2)), xmp...)
	out := append(bytes.Clone(plain[:2]), exif(turned)...)
	out = append(append(out, xmp...), plain[2:]...)
	return append(out, "trailer with GPS"...)
}

func pixels(t *testing.T, b []byte) []color.Color {
	m, _, err := image.Decode(bytes.NewReader(b))
	require.NoError(t, err)
	var out []color.Color
	for y := range m.Bounds().Dy() {
		for x := range m.Bounds().Dx() {
			out = append(out, m.At(x, y))
		}
	}
	return out
}

func TestPlacesAreTakenOut(t *testing.T) {
	for turned := uint16(1); turned <= 8; turned++ {
		b := photo(t, turned)
		require.Contains(t, string(b), "GPS")
		media, err := picture.Check(b)
		require.NoError(t, err)
		bare, err := picture.Bare(b, media)
		require.NoError(t, err)
		assert.NotContains(t, string(bare), "GPS")
		assert.Equal(t, pixels(t, b), pixels(t, bare), "the pixels are untouched")
		if turned > 1 {
			assert.Contains(t, string(bare),
				"Exif\x00\x00MM\x00*\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00"+string(rune(turned)),
				"how it is turned stays")
		}
		again, err := picture.Bare(bare, media)
		require.NoError(t, err)
		assert.Equal(t, bare, again, "once is enough")
	}
	var b bytes.Buffer
	require.NoError(t, png.Encode(&b, drawn()))
	told := []byte("tEXtComment\x00GPS 46.3 -119.7")
	chunk := binary.BigEndian.AppendUint32(nil, uint32(len(told)-4))
	chunk = binary.BigEndian.AppendUint32(append(chunk, told...), crc32.ChecksumIEEE(told))
	with := append(append(bytes.Clone(b.Bytes()[:33]), chunk...), b.Bytes()[33:]...)
	bare, err := picture.Bare(with, "image/png")
	require.NoError(t, err)
	assert.Equal(t, b.Bytes(), bare)
}

// A lossless WebP of one pixel, with a place beside it.
func TestWebP(t *testing.T) {
	b, err := base64.StdEncoding.DecodeString("UklGRhoAAABXRUJQVlA4TA0AAAAvAAAAEAcQERGIiP4HAA==")
	require.NoError(t, err)
	media, err := picture.Check(b)
	require.NoError(t, err)
	assert.Equal(t, "image/webp", media)
	with := append(bytes.Clone(b), "EXIF\x04\x00\x00\x00GPS!"...)
	binary.LittleEndian.PutUint32(with[4:], uint32(len(with)-8))
	bare, err := picture.Bare(with, media)
	require.NoError(t, err)
	assert.Equal(t, b, bare)
}

func TestWhatIsNoPicture(t *testing.T) {
	var huge bytes.Buffer
	require.NoError(t, png.Encode(&huge, image.NewGray(image.Rect(0, 0, 3, 3))))
	bomb := huge.Bytes()
	binary.BigEndian.PutUint32(bomb[16:], 60_000)
	binary.BigEndian.PutUint32(bomb[20:], 60_000)
	binary.BigEndian.PutUint32(bomb[29:], crc32.ChecksumIEEE(bomb[12:29]))
	_, err := picture.Check(bomb)
	assert.ErrorContains(t, err, "more than 50 million pixels")
	good := photo(t, 1)
	for _, b := range [][]byte{nil, []byte("GIF89a"), []byte("<svg/>"), good[:len(good)/2],
		[]byte("\xff\xd8\xff\xe0JFIF")} {
		_, err := picture.Check(b)
		assert.ErrorIs(t, err, picture.ErrPicture)
	}
}

func FuzzBare(f *testing.F) {
	f.Add([]byte("\xff\xd8\xff\xda\x00\x02\x00\xff\xd9"), uint8(0))
	f.Add([]byte("\x89PNG\r\n\x1a\n\x00\x00\x00\x00IEND\xaeB`\x82"), uint8(1))
	f.Add([]byte("RIFF\x04\x00\x00\x00WEBP"), uint8(2))
	f.Fuzz(func(t *testing.T, b []byte, kind uint8) {
		media := []string{"image/jpeg", "image/png", "image/webp"}[kind%3]
		bare, err := picture.Bare(b, media)
		if err != nil {
			return
		}
		again, err := picture.Bare(bare, media)
		require.NoError(t, err)
		assert.Equal(t, bare, again)
	})
}
