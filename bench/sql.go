package main

// The same data as the requests, fetched by plain SQL: what any program would
// have to ask for.
const (
	runsOf = `select w.* from aircraft a cross join lateral (
		(select * from walkrounds w where w.aircraft_id = a.id and w.kind = 'walkround' and w.completed_at is not null order by w.completed_at desc limit 1)
		union all (select * from walkrounds w where w.aircraft_id = a.id and w.kind = 'turnaround' and w.completed_at is not null order by w.completed_at desc limit 1)
		union all (select * from walkrounds w where w.aircraft_id = a.id and w.completed_at is null and w.abandoned_at is null)) w`
	lastFlight = `select f.aircraft_id, f.warmth_motor, f.landed_at, f.warmth from aircraft a cross join lateral (select * from flights f where f.aircraft_id = a.id order by f.took_off_at desc limit 1) f`
	types      = `select distinct on (key) key, version, profile from aircraft_types order by key, version desc`
	openFlight = `select f.*, p.name, a.name from flights f join people p on p.id = f.pilot_id join aircraft a on a.id = f.aircraft_id where f.state <> 'logged'`
	openRel    = `select r.*, p.name from releases r join people p on p.id = r.pilot_id where r.state = 'open'`
	session    = `select data from sessions where token = 'x' and current_timestamp < expiry`
)

var daySQL = []string{
	session, `select * from people where login = 'imre'`, `select * from crew`, types,
	`select * from aircraft order by lower(name)`, `select * from groundings where lifted_at is null`, `select * from parts where aircraft_id is not null`,
	`select chemistry, cells, capacity_mah, state, count(*) from packs group by 1, 2, 3, 4`,
	runsOf, `select * from defects where closed_at is null order by raised_at`, openFlight, openRel, lastFlight + ` where f.warmth_motor is not null`,
}

var gateSQL = []string{
	session, `select * from people where id = $3::uuid`, `select * from crew`, types,
	`select * from aircraft where id = $1::uuid`, `select * from groundings where lifted_at is null and aircraft_id = $1::uuid`, `select * from parts where aircraft_id = $1::uuid`,
	`select chemistry, cells, capacity_mah, count(*) from packs where state = 'charged' group by 1, 2, 3`,
	runsOf + ` where a.id = $1::uuid`, `select * from defects where closed_at is null and aircraft_id = $1::uuid`, openFlight, openRel, lastFlight + ` where a.id = $1::uuid`,
	`select a.name from flights f join aircraft a on a.id = f.aircraft_id where f.pilot_id = $3::uuid and f.state = 'air' and f.aircraft_id <> $1::uuid`,
	`select p.*, r.* from packs p cross join lateral (select * from pack_readings x where x.pack_id = p.id order by x.at desc limit 1) r where p.id = $2::uuid`,
}

var logSQL = []string{
	session, `select * from people where login = 'imre'`, `select * from crew`,
	`select f.*, a.name, a.serial, p.name, array(select k.label from packs k where k.id = any(f.pack_ids)) from flights f join aircraft a on a.id = f.aircraft_id join people p on p.id = f.pilot_id
		where f.state = 'logged' and (f.purpose ilike '%spraying%' or f.remarks ilike '%spraying%' or a.name ilike '%spraying%' or p.name ilike '%spraying%') order by f.took_off_at desc, f.id desc limit 51`,
}
