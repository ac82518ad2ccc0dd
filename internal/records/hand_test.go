package records_test

// changesByHand are what somebody with the password of the database might do to
// the demo crew's year to look better, earn more, or hide something.
var changesByHand = []string{
	// the chain
	`update records set summary = 'nothing happened' where kind = 'grounding'`,
	`update records set by_name = 'Somebody Else (else)' where seq = (select max(seq) from records where signed)`,
	`update records set content = replace(content, 'stop', 'clear') where kind = 'release' and content like '%stop%'`,
	`delete from records where seq = (select max(seq) / 2 from records)`,
	`update seals set by_name = 'Somebody Else (else)' where after_seq = (select max(seq) / 2 from records)`,
	`update row_states set hash = sha256('x') where family = 'flights' and key = (select min(id::text) from flights)`,
	`delete from row_states where family = 'defects'`,
	// flights, uses and counters
	`update flights set seconds = seconds - 60, landed_at = landed_at - interval '1 minute' where id = (select id from flights where state = 'logged' and seconds > 120 order by took_off_at limit 1)`,
	`update flights set pilot_id = (select id from people where login = 'imre') where id = (select f.id from flights f join people p on p.id = f.pilot_id where p.login <> 'imre' limit 1)`,
	`update flights set landings = landings + 1 where id = (select id from flights where state = 'logged' limit 1)`,
	`update flights set took_off_at = took_off_at + interval '1 hour', landed_at = landed_at + interval '1 hour' where id = (select id from flights where state = 'logged' order by took_off_at limit 1)`,
	`update flights set remarks = 'all well' where id = (select id from flights where remarks <> 'all well' limit 1)`,
	`delete from flight_use where flight_id = (select flight_id from flight_use limit 1) and thing = 'aircraft'`,
	`update flight_use set seconds = 1 where (flight_id, thing, thing_id) = (select flight_id, thing, thing_id from flight_use where thing = 'part' limit 1)`,
	`update aircraft set seconds = seconds - 3600, flights = flights - 4 where id = (select id from aircraft where seconds > 3600 limit 1)`,
	`update parts set seconds = 0, cycles = 0 where id = (select id from parts where seconds > 0 and aircraft_id is not null limit 1)`,
	`update packs set cycles = cycles - 20 where id = (select id from packs where cycles > 20 limit 1)`,
	`delete from flight_events where id = (select id from flight_events limit 1)`,
	// parts and packs
	`update parts set serial = serial || 'x' where id = (select id from parts limit 1)`,
	`update parts set source = 'third-party' where id = (select id from parts where source = 'maker' limit 1)`,
	`update part_moves set fitted_at = fitted_at + interval '30 days' where id = (select id from part_moves where removed_at is null limit 1)`,
	`update packs set state = 'charged' where id = (select id from packs where state in ('quarantine', 'flown', 'storage') limit 1)`,
	`update pack_readings set percent = 99, cell_mv = '{4200,4200,4200,4200,4200,4200}' where id = (select id from pack_readings limit 1)`,
	`delete from pack_readings where id = (select id from pack_readings order by at desc limit 1)`,
	`insert into pack_readings (id, pack_id, at, by_name, source, cell_mv) select gen_random_uuid(), id, now(), 'Imre Castellan', 'hand', '{4100}' from packs limit 1`,
	`update packs set state_since = state_since + interval '1 day' where label = (select min(label) from packs)`,
	// groundings, walkrounds, releases, defects
	`update groundings set lifted_at = now(), lifted_by = 'Tamsin Okoro', lifted_note = 'ok' where lifted_at is null`,
	`update groundings set reason = 'practice' where id = (select id from groundings limit 1)`,
	`update walkrounds set verdict = 'clear', findings = '[]' where id = (select id from walkrounds where verdict <> 'clear' and completed_at is not null limit 1)`,
	`update walkrounds set completed_by = 'Imre Castellan' where id = (select id from walkrounds where completed_by not in ('', 'Imre Castellan') limit 1)`,
	`update walkround_entries set value = '{"look":"ok"}', verdict = 'clear', sentence = '' where id = (select id from walkround_entries where verdict <> 'clear' limit 1)`,
	`delete from walkround_entries where id = (select id from walkround_entries limit 1)`,
	`update releases set gate = '{}' where id = (select id from releases limit 1)`,
	`update releases set verdict = 'clear' where id = (select id from releases where verdict <> 'clear' limit 1)`,
	`update defects set title = 'dust' where id = (select id from defects limit 1)`,
	`update defects set closed_at = now(), closed_by = 'Tamsin Okoro', closing_note = 'fixed' where id = (select id from defects where closed_at is null limit 1)`,
	`delete from defects where id = (select d.id from defects d where not exists (select from work_orders w where w.defect_id = d.id) and not exists (select from deferrals x where x.defect_id = d.id) limit 1)`,
	// orders and deferrals
	`update work_orders set signed_by = 'Imre Castellan' where id = (select id from work_orders where signed_by not in ('', 'Imre Castellan') limit 1)`,
	`update work_entries set value = '{"done":true,"number":5}' where (order_id, step_id) = (select order_id, step_id from work_entries limit 1)`,
	`update task_done set seconds = seconds + 7200 where (aircraft_id, task_id) = (select aircraft_id, task_id from task_done limit 1)`,
	`update deferrals set expires_on = expires_on + 30 where id = (select id from deferrals limit 1)`,
	// people and papers
	`update people set roles = roles || '{technician}' where login = 'bao'`,
	`update people set pin_hash = (select pin_hash from people where login = 'imre') where login = 'odile'`,
	`update people set trained_on = '2026-06-01' where login = 'odile'`,
	`update documents set expires_on = expires_on + 365 where id = (select id from documents where expires_on is not null limit 1)`,
	`update practice set flown_on = flown_on + 10, landings = landings + 5 where id = (select id from practice limit 1)`,
	`delete from fitness where id = (select id from fitness limit 1)`,
	`insert into fitness (id, person_id, day, at, against) select gen_random_uuid(), id, '2026-06-11', now(), '{}' from people where login = 'odile'`,
	// jobs
	`update briefings set content = '[]' where id = (select id from briefings limit 1)`,
	`delete from briefing_signatures where (briefing_id, person_id) = (select briefing_id, person_id from briefing_signatures limit 1)`,
	`update jobs set label_high_ms = 20 where id = (select id from jobs limit 1)`,
	`update site_features set content = jsonb_set(content, '{height_m}', '3') where id = (select id from site_features where content ? 'height_m' limit 1)`,
	// files, settings and photos
	`update checklists set content = jsonb_set(content, '{items}', '[]') where (type_key, version) = (select type_key, version from checklists limit 1)`,
	`update aircraft_types set profile = jsonb_set(profile, '{limits,wind_ms}', '30') where (key, version) = (select key, version from aircraft_types limit 1)`,
	`update programmes set content = '{}' where (type_key, version) = (select type_key, version from programmes limit 1)`,
	`update crew set sight_m = 5000`,
	`update photos set sha256 = sha256('another') where id = (select id from photos limit 1)`,
	`update stock_lines set quantity = quantity + 4 where id = (select id from stock_lines limit 1)`,
}
