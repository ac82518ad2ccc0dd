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
	`select * from aircraft order by lower(name)`, `select * from groundings where lifted_at is null`,
	`select * from parts where aircraft_id is not null`,
	`select chemistry, cells, capacity_mah, state, count(*) from packs group by 1, 2, 3, 4`,
	runsOf, `select * from defects where closed_at is null order by raised_at`, openFlight, openRel, lastFlight +
		` where f.warmth_motor is not null`,
}

var gateSQL = []string{
	session, `select * from people where id = $3::uuid`, `select * from crew`, types,
	`select * from aircraft where id = $1::uuid`,
	`select * from groundings where lifted_at is null and aircraft_id = $1::uuid`,
	`select * from parts where aircraft_id = $1::uuid`,
	`select chemistry, cells, capacity_mah, count(*) from packs where state = 'charged' group by 1, 2, 3`,
	runsOf + ` where a.id = $1::uuid`, `select * from defects where closed_at is null and aircraft_id = $1::uuid`,
	openFlight, openRel, lastFlight + ` where a.id = $1::uuid`,
	`select a.name from flights f join aircraft a on a.id = f.aircraft_id where f.pilot_id = $3::uuid and f.state = 'air' and f.aircraft_id <> $1::uuid`,
	`select p.*, r.* from packs p cross join lateral (select * from pack_readings x where x.pack_id = p.id order by x.at desc limit 1) r where p.id = $2::uuid`,
}

var logSQL = []string{
	session, `select * from people where login = 'imre'`, `select * from crew`,
	`select f.*, a.name, a.serial, p.name, array(select k.label from packs k where k.id = any(f.pack_ids)) from flights f join aircraft a on a.id = f.aircraft_id join people p on p.id = f.pilot_id
		where f.state = 'logged' and (f.purpose ilike '%spraying%' or f.remarks ilike '%spraying%' or a.name ilike '%spraying%' or p.name ilike '%spraying%') order by f.took_off_at desc, f.id desc limit 51`,
}

// overviewSQL fetches what the Day and Fleet views show of a large fleet.
var overviewSQL = []string{
	session, `select * from people where login = 'chief'`, `select * from crew`,
	`select distinct on (key) key, version from aircraft_types order by key, version desc`,
	`select distinct on (type_key) type_key, version from programmes order by type_key, version desc`,
	`select * from aircraft order by lower(name)`, `select * from groundings where lifted_at is null`,
	`with lim as (select t.key as type_key, w.key as kind, (w.value->>'hours')::float8 as hours, (w.value->>'flights')::float8 as flights, (w.value->>'landings')::float8 as landings, (w.value->>'litres')::float8 as litres, (w.value->>'months')::float8 * 30.44 as days
			from aircraft_types t cross join lateral jsonb_each(t.profile->'wear') w),
		f as materialized (select p.id, p.aircraft_id, p.fitted_at, l.hours - p.seconds / 3600::float8 as hours_left, coalesce(greatest(p.seconds / 3600::float8 / l.hours, p.flights / l.flights, p.landings / l.landings, p.litres / l.litres,
				extract(epoch from timestamptz '2026-06-10 16:40Z' - p.since)::float8 / 86400 / l.days), 0) as share
			from parts p join aircraft a on a.id = p.aircraft_id left join lim l on l.type_key = a.type_key and l.kind = p.kind),
		g as (select aircraft_id, max(share) as most, count(*) as fitted, max(fitted_at) as newest, min(hours_left) as hours_left from f group by 1)
		select p.*, g.* from f join g on g.aircraft_id = f.aircraft_id join parts p on p.id = f.id where f.share >= 0.85 or f.share = g.most`,
	`select chemistry, cells, capacity_mah, state, count(*) from packs group by 1, 2, 3, 4`,
	runsOf, `select * from defects where closed_at is null order by raised_at`, openFlight, openRel, lastFlight +
		` where f.warmth_motor is not null`,
	`select * from task_done`, `select * from work_orders where state in ('open', 'signed')`,
	`select * from deferrals where ended_at is null`, `select * from firmware_sets`, `select * from firmware_installed`,
}

var rackSQL = []string{
	session, `select * from people where login = 'chief'`, types,
	`select p.*, a.name, o.summary, (select max(l.at) from pack_looks l where l.pack_id = p.id and l.clean) from packs p left join aircraft a on a.id = p.aircraft_id left join pack_outlooks o on o.pack_id = p.id order by p.label`,
	`select r.* from packs p cross join lateral (select * from pack_readings x where x.pack_id = p.id order by x.at desc, x.id desc limit 1) r`,
}

var dueSQL = []string{
	session, `select * from people where login = 'chief'`, `select * from crew`, types,
	`select * from aircraft order by lower(name)`, `select * from parts where aircraft_id is not null`,
	`select * from task_done`, `select * from work_orders where state in ('open', 'signed')`,
	`select * from deferrals where ended_at is null`,
	`select u.thing, u.thing_id, date_trunc('day', f.took_off_at, 'UTC'), sum(u.seconds), sum(u.flights), sum(u.landings), sum(u.cycles), sum(u.litres)
		from flights f join flight_use u on u.flight_id = f.id and u.thing in ('part', 'aircraft') where f.took_off_at > (select max(took_off_at) from flights) - interval '28 days' group by 1, 2, 3`,
}

var packSQL = []string{
	session, `select * from people where login = 'chief'`, types,
	`select p.*, a.name, o.content from packs p left join aircraft a on a.id = p.aircraft_id left join pack_outlooks o on o.pack_id = p.id where p.id = $1::uuid`,
	`select * from pack_readings where pack_id = $1::uuid order by at desc, id desc limit 60`,
	`select * from pack_looks where pack_id = $1::uuid order by at desc limit 40`,
}
