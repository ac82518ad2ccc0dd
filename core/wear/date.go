package wear

import (
	"math"
	"time"
)

// Recent is what a part did lately, one entry per day, for the forecast.
type Recent struct {
	Hours    []DayUse
	Flights  []DayUse
	Landings []DayUse
	Cycles   []DayUse
	Litres   []DayUse
}

// DueDate is the day on which the first limit of a part is reached.
type DueDate struct {
	On       time.Time // civil date, UTC midnight
	By       string    // the limit that is reached first
	Forecast bool      // true when it rests on use, false when the calendar decides
	Known    bool      // false: no limit, or no use and no calendar limit
}

// When finds the day on which a part falls due: the earliest of its calendar
// limit and of the forecasts of its counters. What is due already is due
// today. now is a civil date or a time; only its day counts. Errors:
// ErrCounters, and a calendar limit without a start date.
func When(c Counters, l Limits, r Recent, now time.Time) (DueDate, error) {
	d, err := First(c, l, now)
	if err != nil {
		return DueDate{}, err
	}
	y, m, day := now.Date()
	today := time.Date(y, m, day, 0, 0, 0, 0, time.UTC)
	if d.By == "" {
		return DueDate{}, nil
	}
	if d.Fraction >= 1 {
		return DueDate{On: today, By: d.By, Known: true}, nil
	}
	best := DueDate{}
	take := func(x DueDate) {
		if !best.Known || x.On.Before(best.On) {
			best = x
		}
	}
	count := func(by string, uses []DayUse, limit, used float64) {
		if limit <= 0 {
			return
		}
		// Beyond ten years a forecast from four weeks says nothing.
		if days, ok := Forecast(uses, limit-used); ok && days < 3650 {
			take(DueDate{On: today.AddDate(0, 0, int(math.Floor(days))), By: by, Forecast: true, Known: true})
		}
	}
	count("hours", r.Hours, l.Hours, float64(c.Seconds)/3600)
	count("flights", r.Flights, float64(l.Flights), float64(c.Flights))
	count("landings", r.Landings, float64(l.Landings), float64(c.Landings))
	count("cycles", r.Cycles, float64(l.Cycles), float64(c.Cycles))
	count("litres", r.Litres, l.Litres, c.Litres)
	calendar := func(by string, end time.Time) {
		y, m, day := end.Date()
		take(DueDate{On: time.Date(y, m, day, 0, 0, 0, 0, time.UTC), By: by, Known: true})
	}
	if l.Days > 0 {
		calendar("days", c.Since.AddDate(0, 0, l.Days))
	}
	if l.Months > 0 {
		calendar("months", AddMonths(c.Since, l.Months))
	}
	return best, nil
}
