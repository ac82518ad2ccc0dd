package missions

import (
	"bytes"
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"mainstay/api"
	"mainstay/core/why"
	"mainstay/internal/formats/missionfile"
	"mainstay/internal/planning"
	"mainstay/internal/platform/fault"
)

// Handlers serve the mission plans.
type Handlers struct{ Missions *Service }

// plan answers with a plan as it is after something was done to it.
func (h *Handlers) plan(ctx context.Context, job, aircraft uuid.UUID, done error) (api.MissionPlan, error) {
	if done != nil {
		return api.MissionPlan{}, done
	}
	p, err := h.Missions.Get(ctx, job, aircraft)
	if err != nil {
		return api.MissionPlan{}, err
	}
	return h.Missions.wire(ctx, p), nil
}

func (h *Handlers) GetMissionPlan(ctx context.Context,
	r api.GetMissionPlanRequestObject) (api.GetMissionPlanResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, nil)
	return api.GetMissionPlan200JSONResponse(out), err
}

func wishOf(w api.MissionWish) Wish { return Wish{Survey: w.Survey, Inspect: w.Inspect} }

func (h *Handlers) TryMissionPlan(ctx context.Context,
	r api.TryMissionPlanRequestObject) (api.TryMissionPlanResponseObject, error) {
	p, err := h.Missions.Try(ctx, r.Id, r.Aircraft, wishOf(*r.Body))
	if err != nil {
		return nil, err
	}
	return api.TryMissionPlan200JSONResponse(h.Missions.wire(ctx, p)), nil
}

func (h *Handlers) SaveMissionPlan(ctx context.Context,
	r api.SaveMissionPlanRequestObject) (api.SaveMissionPlanResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.Save(ctx, r.Body.Id, r.Id, r.Aircraft, wishOf(r.Body.Wish),
		r.Body.Version))
	return api.SaveMissionPlan200JSONResponse(out), err
}

func (h *Handlers) ExportMission(ctx context.Context,
	r api.ExportMissionRequestObject) (api.ExportMissionResponseObject, error) {
	_, m, err := h.Missions.flight(ctx, r.Id, r.Aircraft, r.Number)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err = missionfile.Write(&b, missionfile.Format(r.Params.Format), m)
	return api.ExportMission200TextResponse(b.String()), err
}

func (h *Handlers) SendMission(ctx context.Context,
	r api.SendMissionRequestObject) (api.SendMissionResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.Send(ctx, r.Id, r.Aircraft, r.Number))
	return api.SendMission200JSONResponse(out), err
}

func (h *Handlers) ReadMission(ctx context.Context,
	r api.ReadMissionRequestObject) (api.ReadMissionResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.ReadBack(ctx, r.Id, r.Aircraft, r.Number))
	return api.ReadMission200JSONResponse(out), err
}

func (h *Handlers) ReadMissionFile(ctx context.Context,
	r api.ReadMissionFileRequestObject) (api.ReadMissionFileResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.ReadFile(ctx, r.Id, r.Aircraft, r.Number, r.Params.Name, r.Body))
	return api.ReadMissionFile200JSONResponse(out), err
}

func (h *Handlers) FillCameraCard(ctx context.Context,
	r api.FillCameraCardRequestObject) (api.FillCameraCardResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.FillCard(ctx, r.Body.Id, r.Id, r.Aircraft, r.Body.Card))
	return api.FillCameraCard201JSONResponse(out), err
}

func wireShots(all []missionfile.Shot) api.PictureList {
	out := api.PictureList{Pictures: []api.PictureShot{}}
	for _, x := range all {
		out.Pictures = append(out.Pictures, api.PictureShot{Name: x.Name, At: x.At, Time: x.Time})
	}
	return out
}

func (h *Handlers) GetMissionPictures(ctx context.Context,
	r api.GetMissionPicturesRequestObject) (api.GetMissionPicturesResponseObject, error) {
	all, err := h.Missions.Pictures(ctx, r.Id, r.Aircraft)
	return api.GetMissionPictures200JSONResponse(wireShots(all)), err
}

func (h *Handlers) ReadPictureList(_ context.Context,
	r api.ReadPictureListRequestObject) (api.ReadPictureListResponseObject, error) {
	all, err := missionfile.ReadShots(r.Body)
	if errors.Is(err, missionfile.ErrFile) {
		return nil, fault.Bad("file", "The list cannot be read: %s. Nothing was saved.", why.Words(err))
	}
	return api.ReadPictureList200JSONResponse(wireShots(all)), err
}

func afterOf(number int, b api.AfterFlight) After {
	a := After{ID: b.Id, Number: number, Running: b.Running}
	if b.Shake != nil {
		a.Shake = *b.Shake
	}
	if b.OffsetS != nil {
		a.Offset = time.Duration(*b.OffsetS * float64(time.Second))
	}
	for _, x := range b.Pictures {
		a.Shots = append(a.Shots, missionfile.Shot{Name: x.Name, At: x.At, Time: x.Time})
	}
	return a
}

func (h *Handlers) LookAtPictures(ctx context.Context,
	r api.LookAtPicturesRequestObject) (api.LookAtPicturesResponseObject, error) {
	p, t, err := h.Missions.Look(ctx, r.Id, r.Aircraft, afterOf(r.Number, *r.Body))
	if err != nil {
		return nil, err
	}
	return api.LookAtPictures200JSONResponse(p.wireTaken(t)), nil
}

func (h *Handlers) PutMissionFlown(ctx context.Context,
	r api.PutMissionFlownRequestObject) (api.PutMissionFlownResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.Fly(ctx, r.Id, r.Aircraft, afterOf(r.Number, *r.Body)))
	return api.PutMissionFlown201JSONResponse(out), err
}

func (h *Handlers) TakeMissionBack(ctx context.Context,
	r api.TakeMissionBackRequestObject) (api.TakeMissionBackResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.Unfly(ctx, r.Id, r.Aircraft, r.Number))
	return api.TakeMissionBack200JSONResponse(out), err
}

func (h *Handlers) FlyMissionAgain(ctx context.Context,
	r api.FlyMissionAgainRequestObject) (api.FlyMissionAgainResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.FlyAgain(ctx, r.Id, r.Aircraft, r.Number))
	return api.FlyMissionAgain200JSONResponse(out), err
}

func (h *Handlers) AddPictureFinding(ctx context.Context,
	r api.AddPictureFindingRequestObject) (api.AddPictureFindingResponseObject, error) {
	b := r.Body
	err := h.Missions.Find(ctx, r.Id, r.Aircraft, Found{ID: b.Id, Picture: b.Picture, Place: b.Place, Words: b.Words,
		Severity: string(b.Severity), PhotoID: b.Photo})
	out, err := h.plan(ctx, r.Id, r.Aircraft, err)
	return api.AddPictureFinding201JSONResponse(out), err
}

func (h *Handlers) RemovePictureFinding(ctx context.Context,
	r api.RemovePictureFindingRequestObject) (api.RemovePictureFindingResponseObject, error) {
	out, err := h.plan(ctx, r.Id, r.Aircraft, h.Missions.Unfind(ctx, r.Id, r.Aircraft, r.Finding))
	return api.RemovePictureFinding200JSONResponse(out), err
}

func (h *Handlers) ListCameras(ctx context.Context,
	_ api.ListCamerasRequestObject) (api.ListCamerasResponseObject, error) {
	all, err := h.Missions.CameraList(ctx)
	return api.ListCameras200JSONResponse{Cameras: wireCameras(all)}, err
}

func (h *Handlers) SaveCamera(ctx context.Context,
	r api.SaveCameraRequestObject) (api.SaveCameraResponseObject, error) {
	b := r.Body
	if err := h.Missions.SaveCamera(ctx, Camera{Kind: planning.Kind{ID: r.Id, Key: b.Key, Name: b.Name, Active: b.Active,
		Version: b.Version}, SensorWMM: b.SensorWMm, SensorHMM: b.SensorHMm, FocalMM: b.FocalMm, PixelsW: b.PixelsW,
		PixelsH: b.PixelsH, LeastS: b.LeastS, PictureMB: b.PictureMb, BaseISO: b.BaseIso}); err != nil {
		return nil, err
	}
	all, err := h.Missions.CameraList(ctx)
	return api.SaveCamera200JSONResponse{Cameras: wireCameras(all)}, err
}

func (h *Handlers) ListCanopies(ctx context.Context,
	_ api.ListCanopiesRequestObject) (api.ListCanopiesResponseObject, error) {
	all, err := h.Missions.CanopyList(ctx)
	return api.ListCanopies200JSONResponse{Canopies: wireCanopies(all)}, err
}

func (h *Handlers) SaveCanopy(ctx context.Context,
	r api.SaveCanopyRequestObject) (api.SaveCanopyResponseObject, error) {
	b := r.Body
	row := Canopy{Kind: planning.Kind{ID: r.Id, Key: b.Key, Name: b.Name, Active: b.Active, Version: b.Version},
		HeightM: b.HeightM}
	if err := h.Missions.SaveCanopy(ctx, row); err != nil {
		return nil, err
	}
	all, err := h.Missions.CanopyList(ctx)
	return api.SaveCanopy200JSONResponse{Canopies: wireCanopies(all)}, err
}
