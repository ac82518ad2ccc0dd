package evening

import (
	"context"

	"mainstay/core/airframe"
	"mainstay/core/energy"
	"mainstay/core/pack"
	"mainstay/core/rotation"
)

// Field is how packs are charged in the field.
type Field struct {
	Channels   int
	ChannelW   float64
	GeneratorW float64 // 0: no limit
}

// Field is what the chargers that go to the field give together; the weakest channel
// stands for all.
func (s *Service) Field(ctx context.Context) (Field, error) {
	var all []Charger
	if err := s.DB.WithContext(ctx).Find(&all, "active and in_field").Error; err != nil {
		return Field{}, err
	}
	var f Field
	limited := false
	for _, c := range all {
		f.Channels += c.Channels
		if f.ChannelW == 0 || c.Watts < f.ChannelW {
			f.ChannelW = c.Watts
		}
		power := float64(c.Channels) * c.Watts
		if c.GeneratorW > 0 {
			power, limited = min(power, c.GeneratorW), true
		}
		f.GeneratorW += power
	}
	if !limited {
		f.GeneratorW = 0
	}
	return f, nil
}

// Share is what so many of all aircraft have of it; a channel is not divided.
func (f Field) Share(mine, all int) Field {
	if all > mine {
		f.Channels, f.GeneratorW = f.Channels*mine/all, f.GeneratorW*float64(mine)/float64(all)
	}
	return f
}

// Sets is how many sets of packs are enough for so many flights of one type, made by so
// many aircraft, when they are charged in the field meanwhile: by the rotation of the
// day. Each flight takes all that its packs give over the level at which it lands. 0 is
// one for each flight, also where the day cannot be worked out.
func (f Field) Sets(t airframe.Type, flights, aircraft int) int {
	cell, err := pack.CellOf(t.Packs.Chemistry)
	if err != nil || f.Channels == 0 || flights < 2 || t.Packs.Count < 1 || t.Limits.PlannedMinutes <= 0 {
		return 0
	}
	one := energy.Pack{AmpereHours: float64(t.Packs.CapacityMAh) / 1000,
		Volts: float64(cell.Nominal) / 1000 * float64(t.Packs.Cells), Health: 1, Celsius: energy.ColdFrom,
		Percent: t.LaunchPercent()}
	store, err := energy.Together([]energy.Pack{one})
	if err != nil {
		return 0
	}
	sorties := make([]rotation.Sortie, flights)
	for i := range sorties {
		sorties[i] = rotation.Sortie{Seconds: t.Limits.PlannedMinutes * 60,
			Wh: store.Usable(float64(t.Limits.LandByPercent)) * float64(t.Packs.Count), Done: 1, Fill: t.TankL > 0}
	}
	d := rotation.Day{Sorties: sorties, Aircraft: max(aircraft, 1), Sets: 1, PerSet: t.Packs.Count, PackWh: store.FullWh,
		ChargeTo: t.LaunchPercent(), CoolS: rotation.UsualCoolS,
		Channels: f.Channels, ChannelW: f.ChannelW, GeneratorW: f.GeneratorW, Hands: rotation.UsualHands,
		SwapS: rotation.UsualSwapS, FillS: rotation.UsualFillS}
	n, err := d.LeastSets()
	if err != nil || n >= flights {
		return 0
	}
	return n
}
