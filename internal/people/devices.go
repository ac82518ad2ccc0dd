package people

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"net/netip"
	"time"

	"github.com/google/uuid"
)

// deviceLife is how long a device stays known without a sign-in on it, and how
// many of a person are.
const (
	deviceLife = 400 * 24 * time.Hour
	deviceMost = 20
	// deviceNew is how many become known in a day: each has a count of wrong tries
	// of its own, and whoever has learnt a password must not make them at will.
	deviceNew = 5
)

// Device is where a request comes from: a browser, known by a token only it
// has, and the address it shows.
type Device struct {
	Token   string // empty: a browser that never signed in
	Address string
}

// Hash names the device in the database, where the token itself is not kept.
func (d Device) Hash() []byte {
	if d.Token == "" {
		return nil
	}
	h := sha256.Sum256([]byte(d.Token))
	return h[:]
}

// name is short, for keys.
func (d Device) name() string { return hex.EncodeToString(d.Hash()) }

// network is the address as it counts: of IPv6 the network, for one house has
// more addresses than anybody could count.
func (d Device) network() string {
	a, err := netip.ParseAddr(d.Address)
	if err != nil {
		return d.Address
	}
	if a = a.Unmap(); a.Is6() {
		if p, err := a.Prefix(64); err == nil {
			return p.String()
		}
	}
	return a.String()
}

type deviceKey struct{}

// On returns a context of a request from d.
func On(ctx context.Context, d Device) context.Context {
	return context.WithValue(ctx, deviceKey{}, d)
}

// DeviceOf returns the device of a context, zero outside a request.
func DeviceOf(ctx context.Context) Device { d, _ := ctx.Value(deviceKey{}).(Device); return d }

// knows reports whether the person has signed in on the device of ctx before.
func (s *Service) knows(ctx context.Context, person uuid.UUID) (bool, error) {
	d := DeviceOf(ctx)
	if d.Token == "" || person == uuid.Nil {
		return false, nil
	}
	var n int64
	err := s.DB.WithContext(ctx).Raw("select count(*) from devices where person_id = ? and token_hash = ?", person,
		d.Hash()).Scan(&n).Error
	return n > 0, err
}

// keepDevice makes the device of ctx one of the person's, unless too many
// became so today.
func (s *Service) keepDevice(ctx context.Context, person uuid.UUID) error {
	d := DeviceOf(ctx)
	if d.Token == "" {
		return nil
	}
	now := s.Clock.Now()
	g := s.DB.WithContext(ctx)
	if err := g.Exec(`insert into devices (person_id, token_hash, since, last_at) select ?, ?, ?, ?
		where (select count(*) from devices where person_id = ? and since > ?) < ? or exists (select from devices where person_id = ? and token_hash = ?)
		on conflict (person_id, token_hash) do update set last_at = excluded.last_at`, person, d.Hash(), now, now, person, now.Add(-24*time.Hour), deviceNew, person, d.Hash()).Error; err != nil {
		return err
	}
	return g.Exec("delete from devices where person_id = ? and token_hash not in (select token_hash from devices where person_id = ? order by last_at desc limit ?)",
		person, person, deviceMost).Error
}
