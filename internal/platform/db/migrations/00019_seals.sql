-- +goose Up
-- What every row of the crew's data was, after each transaction that changed it, as a hash; and the seals that bind these
-- hashes into the chain of records. A seal follows the record with its number, or an earlier seal after that record.
create table seals (
    after_seq bigint not null, nth int not null, at timestamptz not null, by_id uuid, by_name text not null,
    rows int not null, root bytea not null, prev_hash bytea not null, hash bytea not null,
    primary key (after_seq, nth)
);
create table row_states (
    after_seq bigint not null, nth int not null, family text not null, key text not null, hash bytea,
    primary key (family, key, after_seq, nth)
);
create index row_states_sealed on row_states (after_seq, nth);
create trigger seals_append_only before update or delete on seals for each row execute function refuse_change();
create trigger seals_no_truncate before truncate on seals execute function refuse_change();
create trigger row_states_append_only before update or delete on row_states for each row execute function refuse_change();
create trigger row_states_no_truncate before truncate on row_states execute function refuse_change();

create index parts_counted on parts (coalesce(aircraft_id, id));

-- Rows changed by a transaction that has not sealed them yet. What is left here was changed by something else than Mainstay.
create unlogged table row_touched (
    xact xid8 not null, family text not null, key text not null, primary key (xact, family, key)
);

-- +goose StatementBegin
create function note_rows() returns trigger language plpgsql as $$
declare
    into_touched constant text := 'insert into row_touched (xact, family, key) select distinct pg_current_xact_id(), %1$L, q.k from (%4$s) q on conflict do nothing';
    rows_of text;
begin
    rows_of := case tg_op
        when 'INSERT' then 'select %2$s as k from new_rows x'
        when 'DELETE' then 'select %2$s as k from old_rows x'
        else '(select %2$s as k, %3$s as c from new_rows x except select %2$s, %3$s from old_rows x) union all (select %2$s, %3$s from old_rows x except select %2$s, %3$s from new_rows x)' end;
    rows_of := format(rows_of, tg_argv[0], tg_argv[1], tg_argv[2]);
    execute format(into_touched, tg_argv[0], tg_argv[1], tg_argv[2], rows_of);
    return null;
end $$;

-- A family is the rows of a table that are hashed together under one key; its name, key and content are the arguments.
create procedure note_family(family text, of_table text, key text, content text) language plpgsql as $$
begin
    execute format('create trigger %I after insert on %I referencing new table as new_rows for each statement execute function note_rows(%L, %L, %L)', family || '_note_insert', of_table, family, key, content);
    execute format('create trigger %I after update on %I referencing old table as old_rows new table as new_rows for each statement execute function note_rows(%L, %L, %L)', family || '_note_update', of_table, family, key, content);
    execute format('create trigger %I after delete on %I referencing old table as old_rows for each statement execute function note_rows(%L, %L, %L)', family || '_note_delete', of_table, family, key, content);
end $$;

do $$ declare t text; begin
    foreach t in array array['aircraft', 'part_moves', 'packs', 'pack_readings', 'groundings', 'photos', 'walkrounds', 'defects', 'releases', 'flights', 'flight_events', 'flight_corrections',
        'work_orders', 'work_used', 'deferrals', 'stock_lines', 'pack_looks', 'charges', 'gear', 'chargers', 'documents', 'fitness', 'practice', 'local_rules', 'incident_reports', 'zones',
        'authorisations', 'authorisation_calls', 'jobs', 'briefings', 'job_decisions', 'calibrations', 'sites', 'site_features', 'site_weather', 'people'] loop
        call note_family(t, t, 'x.id::text', 'to_jsonb(x)');
    end loop;
end $$;
call note_family('parts', 'parts', 'x.id::text', 'to_jsonb(x) - ''{seconds,flights,landings,cycles,litres}''::text[]');
call note_family('part_counters', 'parts', 'coalesce(x.aircraft_id, x.id)::text', 'jsonb_build_array(x.id, x.seconds, x.flights, x.landings, x.cycles, x.litres)');
call note_family('flight_use', 'flight_use', 'x.flight_id::text', 'to_jsonb(x)');
call note_family('walkround_entries', 'walkround_entries', 'x.walkround_id::text', 'to_jsonb(x)');
call note_family('work_entries', 'work_entries', 'x.order_id::text', 'to_jsonb(x)');
call note_family('acceptance_flights', 'acceptance_flights', 'x.order_id::text', 'to_jsonb(x)');
call note_family('task_done', 'task_done', 'x.aircraft_id::text', 'to_jsonb(x)');
call note_family('firmware_installed', 'firmware_installed', 'x.thing_id::text', 'to_jsonb(x)');
call note_family('job_aircraft', 'job_aircraft', 'x.job_id::text', 'to_jsonb(x)');
call note_family('job_people', 'job_people', 'x.job_id::text', 'to_jsonb(x)');
call note_family('job_answers', 'job_answers', 'x.job_id::text', 'to_jsonb(x)');
call note_family('job_kit', 'job_kit', 'x.job_id::text', 'to_jsonb(x)');
call note_family('job_gear', 'job_gear', 'x.job_id::text', 'to_jsonb(x)');
call note_family('briefing_signatures', 'briefing_signatures', 'x.briefing_id::text', 'to_jsonb(x)');
call note_family('site_airspace', 'site_airspace', 'x.site_id::text', 'to_jsonb(x)');
call note_family('site_terrain', 'site_terrain', 'x.site_id::text', 'to_jsonb(x)');
call note_family('aircraft_types', 'aircraft_types', 'x.key || ''/'' || x.version', 'to_jsonb(x)');
call note_family('checklists', 'checklists', 'x.type_key || ''/'' || x.version', 'to_jsonb(x)');
call note_family('programmes', 'programmes', 'x.type_key || ''/'' || x.version', 'to_jsonb(x)');
call note_family('firmware_sets', 'firmware_sets', 'x.type_key || ''/'' || x.version', 'to_jsonb(x)');
call note_family('part_approvals', 'part_approvals', 'x.kind || ''/'' || x.type_key', 'to_jsonb(x)');
call note_family('evenings', 'evenings', 'x.day::text', 'to_jsonb(x)');
call note_family('evening_sorties', 'evening_sorties', 'x.day::text', 'to_jsonb(x)');
call note_family('evening_ticks', 'evening_ticks', 'x.day::text', 'to_jsonb(x)');
call note_family('crew', 'crew', '''the crew''', 'to_jsonb(x)');
-- +goose StatementEnd

-- +goose Down
-- +goose StatementBegin
do $$ declare t record; begin
    for t in select tgname, tgrelid::regclass as rel from pg_trigger where tgfoid = 'note_rows'::regproc loop
        execute format('drop trigger %I on %s', t.tgname, t.rel);
    end loop;
end $$;
-- +goose StatementEnd
drop index parts_counted;
drop procedure note_family;
drop function note_rows;
drop table row_touched;
drop table row_states;
drop table seals;
