package e2e

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"image"
	"image/jpeg"
	"math"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mainstay/core/geo"
	"mainstay/internal/demo"
	"mainstay/internal/formats/missionfile"
	"mainstay/internal/people"
	"mainstay/internal/platform/clock"
	"mainstay/internal/standins/aircraft"
	"mainstay/internal/testbed"
)

// tagged is a small picture with place and time in its tags, as cameras write them.
func tagged(t *testing.T, at *geo.Point, when time.Time) []byte {
	var plain bytes.Buffer
	require.NoError(t, jpeg.Encode(&plain, image.NewGray(image.Rect(0, 0, 8, 8)), nil))
	if at == nil {
		return plain.Bytes()
	}
	le := binary.LittleEndian
	entry := func(b []byte, tag, kind uint16, n, v uint32) []byte {
		return le.AppendUint32(le.AppendUint32(le.AppendUint16(le.AppendUint16(b, tag), kind), n), v)
	}
	degrees := func(b []byte, v float64) []byte {
		d, m := math.Modf(math.Abs(v))
		m, s := math.Modf(m * 60)
		for _, x := range [3][2]uint32{{uint32(d), 1}, {uint32(m), 1}, {uint32(math.Round(s * 60 * 10000)), 10000}} {
			b = le.AppendUint32(le.AppendUint32(b, x[0]), x[1])
		}
		return b
	}
	side := func(v float64, plus, minus byte) uint32 {
		if v < 0 {
			return uint32(minus)
		}
		return uint32(plus)
	}
	const head, exifAt, gpsAt = 8, 8 + 2 + 2*12 + 4, 8 + 2 + 2*12 + 4 + 2 + 12 + 4
	const data = gpsAt + 2 + 4*12 + 4
	b := le.AppendUint32([]byte{'I', 'I', 42, 0}, head)
	b = le.AppendUint32(entry(entry(le.AppendUint16(b, 2), 0x8769, 4, 1, exifAt), 0x8825, 4, 1, gpsAt), 0)
	b = le.AppendUint32(entry(le.AppendUint16(b, 1), 0x9003, 2, 20, data), 0)
	b = entry(entry(le.AppendUint16(b, 4), 1, 2, 2, side(at.Lat, 'N', 'S')), 2, 5, 3, data+20)
	b = le.AppendUint32(entry(entry(b, 3, 2, 2, side(at.Lon, 'E', 'W')), 4, 5, 3, data+44), 0)
	b = append(b, when.UTC().Format("2006:01:02 15:04:05")+"\x00"...)
	b = degrees(degrees(b, at.Lat), at.Lon)
	body := append([]byte("Exif\x00\x00"), b...)
	out := append(bytes.Clone(plain.Bytes()[:2]), binary.BigEndian.AppendUint16([]byte{0xff, 0xe1},
		uint16(len(body)+2))...)
	return append(append(out, body...), plain.Bytes()[2:]...)
}

// Pictures as they lie on the card of the camera are read on the device:
// those of the flight stand where they were taken, those without tags count as such.
func TestPicturesByTheirTags(t *testing.T) {
	t.Parallel()
	const bare = 12
	all := 600
	if n, err := strconv.Atoi(os.Getenv("PICTURES")); err == nil { // to try with thousands
		all = n
	}
	svc, _ := testbed.Demo(t, clock.From(testbed.Noon))
	link := linked(t, svc)
	at, serial := planAt(t, svc, "Tally W")
	ctx := people.With(t.Context(), func() people.Person {
		x, err := svc.People.ByLogin(t.Context(), "imre")
		require.NoError(t, err)
		return x
	}())
	parts := strings.Split(at, "/")
	job, craft := uuid.MustParse(parts[2]), uuid.MustParse(parts[4])
	link.Set(aircraft.Faults{})
	require.NoError(t, svc.Missions.Send(ctx, job, craft, 2))
	require.NoError(t, link.Fly(serial))
	shots, err := svc.Missions.Pictures(ctx, job, craft)
	require.NoError(t, err)
	dir := t.TempDir()
	var files []string
	for i := range all {
		shot := missionfile.Shot{}
		if i >= bare {
			shot = shots[i%len(shots)]
		}
		file := filepath.Join(dir, fmt.Sprintf("IMG_%04d.jpg", i))
		when := testbed.Noon.Add(time.Duration(i) * time.Second / 2)
		require.NoError(t, os.WriteFile(file, tagged(t, shot.At, when), 0o600))
		files = append(files, file)
	}
	p := chromium.Open(t, testbed.Serve(t, svc), at+"?tab=pictures&flight=2", 1280, 800)
	p.SignIn("imre", demo.Password)
	p.See("Pictures of flight 2", "The pictures themselves")
	began := time.Now()
	p.Upload("main input[multiple]", files...)
	p.See(fmt.Sprintf("%d pictures", all), "are here; nothing is kept yet",
		fmt.Sprintf("%d of %d pictures carry no place", bare, all))
	t.Logf("%d pictures read and held against the plan in %s", all, time.Since(began).Round(100*time.Millisecond))
	p.Gone("have no picture")
	assert.Empty(t, p.Faults())
}
