package people

import (
	"context"

	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"

	"mainstay/api"
	"mainstay/core/crew"
	"mainstay/core/rules"
	"mainstay/core/units"
)

// Handlers serve the operations about people and sessions.
type Handlers struct {
	People   *Service
	Sessions *scs.SessionManager
}

// Keys in the session.
const (
	SessionPerson = "person"
	SessionEpoch  = "epoch"
)

// zones offered at set-up; any other IANA name is accepted too.
var zones = []string{"America/Los_Angeles", "America/Denver", "America/Phoenix", "America/Chicago", "America/New_York", "America/Anchorage", "Pacific/Honolulu",
	"America/Toronto", "America/Sao_Paulo", "Europe/London", "Europe/Lisbon", "Europe/Madrid", "Europe/Paris", "Europe/Berlin", "Europe/Rome", "Europe/Warsaw",
	"Europe/Athens", "Africa/Nairobi", "Africa/Johannesburg", "Asia/Kolkata", "Asia/Tokyo", "Australia/Sydney", "Pacific/Auckland", "UTC"}

func (h *Handlers) GetSetup(ctx context.Context, _ api.GetSetupRequestObject) (api.GetSetupResponseObject, error) {
	_, done, err := h.People.Crew(ctx)
	return api.GetSetup200JSONResponse{Needed: !done, Zones: zones}, err
}

func (h *Handlers) CreateCrew(ctx context.Context, r api.CreateCrewRequestObject) (api.CreateCrewResponseObject, error) {
	b := r.Body
	p, err := h.People.SetUp(ctx, Crew{Name: b.CrewName, Zone: b.Zone, Units: shown(b.Units)}, New{Login: b.Login, Name: b.Name, Password: b.Password, PIN: b.Pin})
	if err != nil {
		return nil, err
	}
	s, err := h.start(ctx, p)
	return api.CreateCrew201JSONResponse(s), err
}

func (h *Handlers) SignIn(ctx context.Context, r api.SignInRequestObject) (api.SignInResponseObject, error) {
	address := "none"
	if g, ok := ctx.(*gin.Context); ok {
		address = g.ClientIP()
	}
	p, err := h.People.SignIn(ctx, r.Body.Login, r.Body.Password, address)
	if err != nil {
		return nil, err
	}
	s, err := h.start(ctx, p)
	return api.SignIn200JSONResponse(s), err
}

// start gives the person a fresh session, so that one planted before sign-in
// is worth nothing.
func (h *Handlers) start(ctx context.Context, p Person) (api.Session, error) {
	ctx = requestContext(ctx)
	if err := h.Sessions.RenewToken(ctx); err != nil {
		return api.Session{}, err
	}
	h.Sessions.Put(ctx, SessionPerson, p.ID.String())
	h.Sessions.Put(ctx, SessionEpoch, p.SessionEpoch)
	return h.session(ctx, p)
}

func requestContext(ctx context.Context) context.Context {
	if g, ok := ctx.(*gin.Context); ok {
		return g.Request.Context()
	}
	return ctx
}

func (h *Handlers) session(ctx context.Context, p Person) (api.Session, error) {
	c, _, err := h.People.Crew(ctx)
	return api.Session{Person: h.wire(p, c), Crew: wireCrew(c), Units: units.All, Caution: rules.Caution, Now: h.People.Clock.Now()}, err
}

func (h *Handlers) GetSession(ctx context.Context, _ api.GetSessionRequestObject) (api.GetSessionResponseObject, error) {
	s, err := h.session(ctx, From(ctx))
	return api.GetSession200JSONResponse(s), err
}

func (h *Handlers) SignOut(ctx context.Context, _ api.SignOutRequestObject) (api.SignOutResponseObject, error) {
	return api.SignOut204Response{}, h.Sessions.Destroy(requestContext(ctx))
}

func (h *Handlers) ChangePin(ctx context.Context, r api.ChangePinRequestObject) (api.ChangePinResponseObject, error) {
	return api.ChangePin204Response{}, h.People.ChangePIN(ctx, From(ctx).ID, r.Body.Password, r.Body.Pin)
}

func (h *Handlers) ChangePassword(ctx context.Context, r api.ChangePasswordRequestObject) (api.ChangePasswordResponseObject, error) {
	p := From(ctx)
	if err := h.People.ChangePassword(ctx, p.ID, r.Body.Password, r.Body.NewPassword); err != nil {
		return nil, err
	}
	p.SessionEpoch++
	_, err := h.start(ctx, p)
	return api.ChangePassword204Response{}, err
}

func (h *Handlers) UpdateCrew(ctx context.Context, r api.UpdateCrewRequestObject) (api.UpdateCrewResponseObject, error) {
	c, err := h.People.UpdateCrew(ctx, Crew{Name: r.Body.Name, Zone: r.Body.Zone, TileURL: r.Body.TileUrl, Units: shown(r.Body.Units)})
	return api.UpdateCrew200JSONResponse(wireCrew(c)), err
}

func (h *Handlers) ListPeople(ctx context.Context, _ api.ListPeopleRequestObject) (api.ListPeopleResponseObject, error) {
	ps, err := h.People.List(ctx)
	if err != nil {
		return nil, err
	}
	c, _, err := h.People.Crew(ctx)
	out := api.ListPeople200JSONResponse{People: []api.Person{}}
	for _, p := range ps {
		out.People = append(out.People, h.wire(p, c))
	}
	return out, err
}

func (h *Handlers) AddPerson(ctx context.Context, r api.AddPersonRequestObject) (api.AddPersonResponseObject, error) {
	b := r.Body
	p, err := h.People.Add(ctx, New{ID: b.Id, Login: b.Login, Name: b.Name, Roles: b.Roles, Password: b.Password, PIN: b.Pin, Certificate: b.Certificate, TrainedOn: api.TimeOf(b.TrainedOn)})
	if err != nil {
		return nil, err
	}
	c, _, err := h.People.Crew(ctx)
	return api.AddPerson201JSONResponse(h.wire(p, c)), err
}

func (h *Handlers) UpdatePerson(ctx context.Context, r api.UpdatePersonRequestObject) (api.UpdatePersonResponseObject, error) {
	b := r.Body
	e := Edit{Version: b.Version, Name: b.Name, Roles: b.Roles, Active: b.Active, Certificate: b.Certificate, TrainedOn: api.TimeOf(b.TrainedOn)}
	if b.Password != nil {
		e.Password = *b.Password
	}
	p, err := h.People.Update(ctx, r.Id, e)
	if err != nil {
		return nil, err
	}
	c, _, err := h.People.Crew(ctx)
	return api.UpdatePerson200JSONResponse(h.wire(p, c)), err
}

func (h *Handlers) wire(p Person, c Crew) api.Person {
	out := api.Person{Id: p.ID, Login: p.Login, Name: p.Name, Roles: p.Held(), Active: p.Active, Certificate: p.Certificate, Version: p.Version}
	if p.TrainedOn != nil {
		out.TrainedOn = api.DateOf(p.TrainedOn)
		through := crew.CurrentThrough(*p.TrainedOn)
		out.CurrentThrough = api.DateOf(&through)
		out.Current = crew.Current(*p.TrainedOn, c.Day(h.People.Clock.Now()))
	}
	return out
}

func wireCrew(c Crew) api.Crew {
	return api.Crew{Name: c.Name, Zone: c.Zone, TileUrl: c.TileURL, Units: api.Units{Length: api.UnitsLength(c.Units.Length), Speed: api.UnitsSpeed(c.Units.Speed),
		Mass: api.UnitsMass(c.Units.Mass), Temperature: api.UnitsTemperature(c.Units.Temperature), Volume: api.UnitsVolume(c.Units.Volume)}}
}

func shown(u api.Units) Shown {
	return Shown{Length: string(u.Length), Speed: string(u.Speed), Mass: string(u.Mass), Temperature: string(u.Temperature), Volume: string(u.Volume)}
}
