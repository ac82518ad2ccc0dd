package people

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"net/http"

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
var zones = []string{"America/Los_Angeles", "America/Denver", "America/Phoenix", "America/Chicago", "America/New_York",
	"America/Anchorage", "Pacific/Honolulu",
	"America/Toronto", "America/Sao_Paulo", "Europe/London", "Europe/Lisbon", "Europe/Madrid", "Europe/Paris",
	"Europe/Berlin", "Europe/Rome", "Europe/Warsaw",
	"Europe/Athens", "Africa/Nairobi", "Africa/Johannesburg", "Asia/Kolkata", "Asia/Tokyo", "Australia/Sydney",
	"Pacific/Auckland", "UTC"}

func (h *Handlers) GetSetup(ctx context.Context, _ api.GetSetupRequestObject) (api.GetSetupResponseObject, error) {
	_, done, err := h.People.Crew(ctx)
	return api.GetSetup200JSONResponse{Needed: !done, Zones: zones}, err
}

func (h *Handlers) CreateCrew(ctx context.Context,
	r api.CreateCrewRequestObject) (api.CreateCrewResponseObject, error) {
	b := r.Body
	ctx, err := h.device(ctx)
	if err != nil {
		return nil, err
	}
	p, err := h.People.SetUp(ctx, Crew{Name: b.CrewName, Zone: b.Zone, Units: shown(b.Units)},
		New{Login: b.Login, Name: b.Name, Password: b.Password, PIN: b.Pin})
	if err != nil {
		return nil, err
	}
	s, err := h.start(ctx, p)
	return api.CreateCrew201JSONResponse(s), err
}

func (h *Handlers) SignIn(ctx context.Context, r api.SignInRequestObject) (api.SignInResponseObject, error) {
	ctx, err := h.device(ctx)
	if err != nil {
		return nil, err
	}
	p, err := h.People.SignIn(ctx, r.Body.Login, r.Body.Password)
	if err != nil {
		return nil, err
	}
	s, err := h.start(ctx, p)
	return api.SignIn200JSONResponse(s), err
}

// DeviceCookie names the cookie by which a browser is known again.
const DeviceCookie = "mainstay-device"

// device makes sure that the browser has a token of its own: tries made on it
// count apart from those made elsewhere.
func (h *Handlers) device(ctx context.Context) (context.Context, error) {
	g, ok := ctx.(*gin.Context)
	d := DeviceOf(ctx)
	if !ok {
		return ctx, nil
	}
	if d.Token == "" {
		var b [32]byte
		if _, err := rand.Read(b[:]); err != nil {
			return nil, err
		}
		d.Token = base64.RawURLEncoding.EncodeToString(b[:])
	}
	http.SetCookie(g.Writer, &http.Cookie{Name: DeviceCookie, Value: d.Token, Path: "/", MaxAge: int(deviceLife.Seconds()),
		HttpOnly: true, Secure: h.Sessions.Cookie.Secure, SameSite: http.SameSiteStrictMode})
	return On(ctx, d), nil
}

// start gives the person a fresh session, so that one planted before sign-in
// is worth nothing.
func (h *Handlers) start(ctx context.Context, p Person) (api.Session, error) {
	at := requestContext(ctx)
	if err := h.Sessions.RenewToken(at); err != nil {
		return api.Session{}, err
	}
	h.Sessions.Put(at, SessionPerson, p.ID.String())
	h.Sessions.Put(at, SessionEpoch, p.SessionEpoch)
	return h.session(ctx, p)
}

// again goes on in this session after the secrets changed, which ended all others.
func (h *Handlers) again(ctx context.Context, p Person) error {
	p, err := h.People.Get(ctx, p.ID)
	if err != nil {
		return err
	}
	_, err = h.start(ctx, p)
	return err
}

// requestContext is where the session lies: in the context of the request.
func requestContext(ctx context.Context) context.Context {
	if r, ok := ctx.Value(gin.ContextRequestKey).(*http.Request); ok {
		return r.Context()
	}
	return ctx
}

func (h *Handlers) session(ctx context.Context, p Person) (api.Session, error) {
	c, _, err := h.People.Crew(ctx)
	return api.Session{Person: h.wire(p, c), Crew: wireCrew(c), Units: units.All, Caution: rules.Caution,
		Now: h.People.Clock.Now()}, err
}

func (h *Handlers) GetSession(ctx context.Context,
	_ api.GetSessionRequestObject) (api.GetSessionResponseObject, error) {
	s, err := h.session(ctx, From(ctx))
	return api.GetSession200JSONResponse(s), err
}

func (h *Handlers) SignOut(ctx context.Context, _ api.SignOutRequestObject) (api.SignOutResponseObject, error) {
	return api.SignOut204Response{}, h.Sessions.Destroy(requestContext(ctx))
}

func (h *Handlers) ChangePin(ctx context.Context, r api.ChangePinRequestObject) (api.ChangePinResponseObject, error) {
	return api.ChangePin204Response{}, h.People.ChangePIN(ctx, From(ctx).ID, r.Body.Password, r.Body.Pin)
}

func (h *Handlers) ChangePassword(ctx context.Context,
	r api.ChangePasswordRequestObject) (api.ChangePasswordResponseObject, error) {
	p := From(ctx)
	if err := h.People.ChangePassword(ctx, p.ID, r.Body.Password, r.Body.NewPassword); err != nil {
		return nil, err
	}
	return api.ChangePassword204Response{}, h.again(ctx, p)
}

func (h *Handlers) ChooseSecrets(ctx context.Context,
	r api.ChooseSecretsRequestObject) (api.ChooseSecretsResponseObject, error) {
	p := From(ctx)
	if err := h.People.FirstSecrets(ctx, p.ID, r.Body.NewPassword, r.Body.Pin); err != nil {
		return nil, err
	}
	return api.ChooseSecrets204Response{}, h.again(ctx, p)
}

func (h *Handlers) ResetPassword(ctx context.Context,
	r api.ResetPasswordRequestObject) (api.ResetPasswordResponseObject, error) {
	once, err := h.People.Reset(ctx, r.Id)
	return api.ResetPassword200JSONResponse{Password: once, Until: h.People.Clock.Now().Add(onceFor)}, err
}

func (h *Handlers) UpdateCrew(ctx context.Context,
	r api.UpdateCrewRequestObject) (api.UpdateCrewResponseObject, error) {
	c, err := h.People.UpdateCrew(ctx, Crew{Name: r.Body.Name, Zone: r.Body.Zone, TileURL: r.Body.TileUrl,
		HeadTo: r.Body.HeadTo, KeepPlaces: r.Body.KeepPlaces, Version: r.Body.Version, Units: shown(r.Body.Units)})
	return api.UpdateCrew200JSONResponse(wireCrew(c)), err
}

func (h *Handlers) ListPeople(ctx context.Context,
	_ api.ListPeopleRequestObject) (api.ListPeopleResponseObject, error) {
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
	p, once, err := h.People.Enrol(ctx, New{ID: b.Id, Login: b.Login, Name: b.Name, Roles: b.Roles,
		Certificate: b.Certificate, TrainedOn: api.TimeOf(b.TrainedOn), StickMode: b.StickMode})
	if err != nil {
		return nil, err
	}
	c, _, err := h.People.Crew(ctx)
	return api.AddPerson201JSONResponse{Person: h.wire(p, c),
		Once: api.OncePassword{Password: once, Until: h.People.Clock.Now().Add(onceFor)}}, err
}

func (h *Handlers) UpdatePerson(ctx context.Context,
	r api.UpdatePersonRequestObject) (api.UpdatePersonResponseObject, error) {
	b := r.Body
	e := Edit{Version: b.Version, Name: b.Name, Roles: b.Roles, Active: b.Active, Certificate: b.Certificate,
		TrainedOn: api.TimeOf(b.TrainedOn), StickMode: b.StickMode}
	p, err := h.People.Update(ctx, r.Id, e)
	if err != nil {
		return nil, err
	}
	c, _, err := h.People.Crew(ctx)
	return api.UpdatePerson200JSONResponse(h.wire(p, c)), err
}

func (h *Handlers) wire(p Person, c Crew) api.Person {
	out := api.Person{Id: p.ID, Login: p.Login, Name: p.Name, Roles: p.Held(), Active: p.Active,
		Certificate: p.Certificate, Version: p.Version, Once: api.PersonOnce(p.Once), StickMode: p.StickMode}
	if p.TrainedOn != nil {
		out.TrainedOn = api.DateOf(p.TrainedOn)
		through := crew.CurrentThrough(*p.TrainedOn)
		out.CurrentThrough = api.DateOf(&through)
		out.Current = crew.Current(*p.TrainedOn, c.Day(h.People.Clock.Now()))
	}
	return out
}

func wireCrew(c Crew) api.Crew {
	return api.Crew{Name: c.Name, Zone: c.Zone, TileUrl: c.TileURL, HeadTo: c.HeadTo, KeepPlaces: c.KeepPlaces,
		Version: c.Version, Units: api.Units{Length: api.UnitsLength(c.Units.Length), Speed: api.UnitsSpeed(c.Units.Speed),
			Mass: api.UnitsMass(c.Units.Mass), Temperature: api.UnitsTemperature(c.Units.Temperature),
			Volume: api.UnitsVolume(c.Units.Volume)}}
}

func shown(u api.Units) Shown {
	return Shown{Length: string(u.Length), Speed: string(u.Speed), Mass: string(u.Mass),
		Temperature: string(u.Temperature), Volume: string(u.Volume)}
}
