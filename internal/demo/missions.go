package demo

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"math"
	"strings"

	"github.com/google/uuid"

	"mainstay/core/camera"
	"mainstay/core/inspect"
	"mainstay/core/mission"
	"mainstay/core/survey"
	"mainstay/internal/formats/missionfile"
	"mainstay/internal/missions"
	"mainstay/internal/server"
	"mainstay/internal/standins/aircraft"
)

// surveyPlan plans the flood bank in its parts. The first flight was made in a gap of the
// weather and has a gap of its own; what the aircraft holds for the next is an old mission.
func (g *generator) surveyPlan(ctx context.Context, job, craft uuid.UUID) error {
	// 4 km of bank, and what lies beside it.
	if err := g.svc.Sites.PutTerrain(ctx, g.sites["Long Bank"], "long-bank.asc", 0.5,
		strings.NewReader(grid(bankAt, 1140, 240, bankGround))); err != nil {
		return err
	}
	w := survey.Defaults(true)
	w.Camera, w.By, w.HeightM, w.Side, w.Front, w.Shutter = "map-42", survey.ByHeight, 90, 70, 70, 4000
	if err := g.svc.Missions.Save(ctx, newID(), job, craft, missions.Wish{Survey: &w}, 0); err != nil {
		return err
	}
	p, err := g.svc.Missions.Get(ctx, job, craft)
	if err != nil {
		return err
	}
	if len(p.Missions) < 2 {
		return fmt.Errorf("the flood bank is %d flights in %d parts", len(p.Missions), len(p.Out.Survey.Parts))
	}
	shots := shotsOf(p, 0)
	if len(shots) < 40 {
		return errors.New("the first flight of the flood bank has few pictures")
	}
	middle := len(shots) / 2
	shots = append(shots[:middle:middle], shots[middle+9:]...) // the camera stayed out for a while
	running := true
	if err := g.svc.Missions.Fly(ctx, job, craft, missions.After{ID: newID(), Number: 1, Shots: shots,
		Running: &running}); err != nil {
		return err
	}
	if err := g.svc.Missions.FlyAgain(ctx, job, craft, 1); err != nil {
		return err
	}
	// What is still in it is the mission of the flight before.
	return g.readBack(ctx, job, craft, 2, p.Missions[0])
}

// shotsOf are the pictures of a flight as they were planned.
func shotsOf(p missions.Plan, i int) []missionfile.Shot {
	var out []missionfile.Shot
	for _, x := range p.Out.Survey.Flights[i].Pieces {
		for _, q := range x.Shots() {
			at := p.Ground.Chart.Frame.Point(q)
			out = append(out, missionfile.Shot{Name: fmt.Sprintf("IMG_%04d.jpg", len(out)+1), At: &at})
		}
	}
	return out
}

// readBack compares what the aircraft holds, as a file, with a flight.
func (g *generator) readBack(ctx context.Context, job, craft uuid.UUID, number int, held mission.Mission) error {
	var b bytes.Buffer
	if err := missionfile.Write(&b, missionfile.CSV, held); err != nil {
		return err
	}
	return g.svc.Missions.ReadFile(ctx, job, craft, number, "read-back.csv", &b)
}

// roofPlan plans the panels on the roof of the station: read back equal, the camera card
// filled in, and one finding from the flight before.
func (g *generator) roofPlan(ctx context.Context, job, craft uuid.UUID) error {
	w := inspect.Defaults()
	w.Form, w.HeightM, w.PitchDeg, w.FacesDeg, w.DetailMM, w.Camera, w.SafeM = inspect.Roof, 9, 12, 180, 2.5, "look-48", 8
	w.Look = []inspect.Look{{What: "Panels, south row: cracks, soiling"}, {What: "Intake grate: leaves, rust"},
		{What: "Lightning rod at the ridge"}}
	if err := g.svc.Missions.Save(ctx, newID(), job, craft, missions.Wish{Inspect: &w}, 0); err != nil {
		return err
	}
	p, err := g.svc.Missions.Get(ctx, job, craft)
	if err != nil {
		return err
	}
	if err := g.readBack(ctx, job, craft, 1, p.Missions[0]); err != nil {
		return err
	}
	yes := true
	before, after, free := 412, 413, 58.0
	c := camera.Card{Camera: w.Camera, Light: camera.Sun, Shutter: 800, ISO: 100, KelvinK: 5600, Profile: "plain",
		Formatted: &yes, FreeGB: &free, CapOff: &yes, Before: &before, After: &after}
	if err := g.svc.Missions.FillCard(ctx, newID(), job, craft, c); err != nil {
		return err
	}
	var panel bytes.Buffer
	if err := png.Encode(&panel, cracked()); err != nil {
		return err
	}
	photo, err := g.svc.Walkrounds.KeepPhoto(ctx, newID(), &panel)
	if err != nil {
		return err
	}
	return g.svc.Missions.Find(ctx, job, craft, missions.Found{ID: newID(), PhotoID: &photo.ID, Picture: "IMG_0007.jpg",
		Place: "Panel 4, south row", Words: "Crack from the lower left corner, about 12 cm.", Severity: "serious"})
}

// cracked is a drawn panel with a crack from its lower left corner.
func cracked() image.Image {
	const w, h, cell = 640, 400, 80
	m := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{24, 40, 84, 255}
			if x%cell < 2 || y%cell < 2 {
				c = color.RGBA{150, 160, 180, 255}
			}
			// The crack runs up from the corner, with a bend every 40 pixels.
			at := float64(h-y)*0.6 + 12*math.Abs(float64((h-y)%80)/40-1)
			if y > 150 && math.Abs(float64(x)-at) < 2 {
				c = color.RGBA{235, 235, 225, 255}
			}
			m.SetRGBA(x, y, c)
		}
	}
	return m
}

// Crafts are the aircraft of the crew as the stand-in of a link reaches them.
func Crafts(ctx context.Context, svc *server.Services) ([]aircraft.Craft, error) {
	names, err := svc.Fleet.Names(ctx)
	if err != nil {
		return nil, err
	}
	var out []aircraft.Craft
	for id := range names {
		a, err := svc.Fleet.Aircraft(ctx, id)
		if err != nil {
			return nil, err
		}
		t, err := svc.Fleet.Type(ctx, a.TypeKey)
		if err != nil {
			return nil, err
		}
		c := aircraft.Craft{Serial: a.Serial, Motors: t.SisterMotors(), Cells: t.Packs.Cells * t.Packs.Count, At: depotAt}
		var set []aircraft.Limits // as its newest job sets it
		if err := svc.DB.WithContext(ctx).Raw("select return_m, 120 as height_m, lost_link from job_aircraft where aircraft_id = ? and return_m is not null order by lower(span) desc limit 1",
			id).Scan(&set).Error; err != nil {
			return nil, err
		}
		if len(set) > 0 {
			c.Limits = &set[0]
		}
		out = append(out, c)
	}
	return out, nil
}
