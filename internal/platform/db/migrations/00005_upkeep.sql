-- +goose Up
alter table aircraft add column litres double precision not null default 0 constraint aircraft_litres check (litres >= 0);
alter table parts add column type_key text not null default '', add column batch text not null default '', add column price_cents bigint,
    add column litres double precision not null default 0 constraint parts_litres check (litres >= 0), add column discarded_why text not null default '';
alter table flight_use add column litres double precision not null default 0;
alter table flights add column litres double precision not null default 0 constraint flights_litres check (litres between 0 and 100000),
    add column hover_set double precision[], add column warmth_set double precision[], add column acceptance_order uuid;
alter table releases add column acceptance_order uuid;
create index parts_shelf on parts (kind, type_key) where aircraft_id is null and discarded_at is null;
create index part_moves_part on part_moves (part_id, fitted_at desc);

-- The maintenance programme of a type, in versions.
create table programmes (
    type_key text not null, version int not null constraint programme_version_positive check (version > 0),
    content jsonb not null, created_at timestamptz not null,
    constraint programme_version_once primary key (type_key, version)
);
-- When a task was last done, with the aircraft's counters then.
create table task_done (
    aircraft_id uuid not null references aircraft, task_id text not null, done_at timestamptz not null,
    seconds bigint not null, flights int not null, landings int not null, litres double precision not null,
    primary key (aircraft_id, task_id)
);
create table work_orders (
    id uuid primary key, aircraft_id uuid not null references aircraft, station text not null, title text not null,
    cause text not null constraint work_orders_cause_known check (cause in ('programme', 'event', 'defect', 'hand')), cause_note text not null default '',
    task_id text not null default '', programme_version int not null default 0, defect_id uuid references defects, grounds boolean not null,
    work jsonb not null, opened_by text not null, opened_at timestamptz not null,
    state text not null constraint work_orders_state_known check (state in ('open', 'signed', 'closed', 'cancelled')),
    signed_by text not null default '', signed_at timestamptz, second_by text not null default '', note text not null default '', closed_at timestamptz,
    version int not null default 1
);
create index work_orders_open on work_orders (aircraft_id) where state in ('open', 'signed');
create index work_orders_newest on work_orders (opened_at desc, id desc);
create unique index work_orders_task_once on work_orders (aircraft_id, task_id) where state in ('open', 'signed') and task_id <> '';
create unique index work_orders_defect_once on work_orders (defect_id) where state in ('open', 'signed');
create table work_entries (
    order_id uuid not null references work_orders, step_id text not null, value jsonb not null, verdict text not null, sentence text not null,
    by_name text not null, at timestamptz not null, primary key (order_id, step_id)
);
create table work_used (
    id uuid primary key, order_id uuid not null references work_orders, line_id uuid, part_id uuid references parts, name text not null,
    quantity int not null constraint work_used_quantity check (quantity between 1 and 1000), by_name text not null, at timestamptz not null
);
create index work_used_order on work_used (order_id);
create table acceptance_flights (
    order_id uuid not null references work_orders, load text not null, flight_id uuid not null references flights, at timestamptz not null,
    primary key (order_id, load)
);
create table deferrals (
    id uuid primary key, aircraft_id uuid not null references aircraft, defect_id uuid references defects, task_id text not null default '',
    limits text not null, expires_on date not null, max_seconds bigint not null default 0, max_flights int not null default 0,
    reason text not null, by_name text not null, at timestamptz not null, ended_at timestamptz,
    constraint deferrals_of_one_thing check ((defect_id is null) <> (task_id = ''))
);
create index deferrals_open on deferrals (aircraft_id) where ended_at is null;
create unique index deferrals_defect_once on deferrals (defect_id) where ended_at is null and defect_id is not null;
create unique index deferrals_task_once on deferrals (aircraft_id, task_id) where ended_at is null and task_id <> '';

-- What lies on the shelf: serial-numbered parts are counted there, the rest here.
create table stock_lines (
    id uuid primary key, name text not null, kind text not null default '', type_key text not null default '',
    quantity int not null default 0 constraint stock_quantity check (quantity >= 0), minimum int not null constraint stock_minimum check (minimum between 0 and 10000),
    delivery_days int not null constraint stock_delivery check (delivery_days between 0 and 730), price_cents bigint, source text not null default '', version int not null default 1
);
create unique index stock_name_once on stock_lines (lower(name));
create unique index stock_kind_once on stock_lines (kind, type_key) where kind <> '';
create table part_approvals (
    kind text not null, type_key text not null, note text not null, by_name text not null, at timestamptz not null, primary key (kind, type_key)
);

create table firmware_sets (
    type_key text not null, version int not null, content jsonb not null, note text not null, created_at timestamptz not null,
    constraint firmware_version_once primary key (type_key, version)
);
create table firmware_installed (
    thing_id uuid not null, component text not null, version text not null, at timestamptz not null, by_name text not null, primary key (thing_id, component)
);

-- Packs in depth.
alter table packs add column full_since timestamptz, add column out_mah double precision not null default 0 constraint packs_out check (out_mah >= 0);
update packs set full_since = state_since where state = 'charged';
alter table pack_readings add column resistance_mohm double precision[] not null default '{}', add column mah_in double precision, add column mah_out double precision,
    add column start_percent double precision, add column end_percent double precision, add column capacity_mah double precision, add column capacity_pm double precision,
    add column cycles double precision;
alter table pack_readings drop constraint pack_readings_source;
alter table pack_readings add constraint pack_readings_source check (source in ('hand', 'walkround', 'landing', 'file', 'charger'));
create table pack_looks (
    id uuid primary key, pack_id uuid not null references packs, faces jsonb not null, photos uuid[] not null, note text not null,
    clean boolean not null, by_name text not null, at timestamptz not null
);
create index pack_looks_newest on pack_looks (pack_id, at desc);
-- What the history of a pack says, computed when a reading comes and by the nightly run.
create table pack_outlooks (
    pack_id uuid primary key references packs, content jsonb not null, at timestamptz not null
);
create table charges (
    id uuid primary key, pack_id uuid not null references packs, channel int not null, target text not null, started_at timestamptz not null, by_name text not null,
    ended_at timestamptz, outcome text not null default ''
);
create unique index charges_channel_once on charges (channel) where ended_at is null;
create unique index charges_pack_once on charges (pack_id) where ended_at is null;

-- The evening at base.
create table gear (
    id uuid primary key, name text not null, kind text not null constraint gear_kind_known check (kind in ('controller', 'tablet', 'laptop', 'comms', 'base-station', 'goggles', 'camera', 'light')),
    minimum double precision not null constraint gear_minimum check (minimum between 1 and 100), level double precision constraint gear_level check (level between 0 and 100),
    checked_at timestamptz, checked_by text not null default '', active boolean not null default true, version int not null default 1
);
create unique index gear_name_once on gear (lower(name));
create table chargers (
    id uuid primary key, name text not null, channels int not null constraint chargers_channels check (channels between 1 and 32),
    watts double precision not null constraint chargers_watts check (watts between 10 and 20000), active boolean not null default true
);
create unique index chargers_name_once on chargers (lower(name));
create table evenings (
    day date primary key, start_at timestamptz not null, ready_by timestamptz not null, by_name text not null, at timestamptz not null
);
create table evening_sorties (
    day date not null references evenings on delete cascade, aircraft_id uuid not null references aircraft,
    sorties int not null constraint evening_sorties_count check (sorties between 1 and 60), primary key (day, aircraft_id)
);
create table evening_ticks (
    day date not null, item text not null, by_name text not null, at timestamptz not null, primary key (day, item)
);
create table background_work (
    kind text primary key, done int not null, total int not null, state text not null, message text not null default '', started_at timestamptz not null, ended_at timestamptz
);

-- +goose StatementBegin
do $$
declare t text;
begin
    foreach t in array array['programmes', 'task_done', 'work_orders', 'work_entries', 'work_used', 'deferrals', 'stock_lines', 'part_approvals', 'firmware_sets', 'firmware_installed',
        'pack_looks', 'pack_outlooks', 'charges', 'gear', 'chargers', 'evenings', 'evening_ticks', 'background_work'] loop
        execute format('create trigger %I after insert or update or delete on %I for each statement execute function tell_change()', t || '_tell', t);
    end loop;
end $$;
-- +goose StatementEnd

-- +goose Down
drop table background_work;
drop table evening_ticks;
drop table evening_sorties;
drop table evenings;
drop table chargers;
drop table gear;
drop table charges;
drop table pack_outlooks;
drop table pack_looks;
alter table pack_readings drop constraint pack_readings_source;
delete from pack_readings where source in ('file', 'charger');
alter table pack_readings add constraint pack_readings_source check (source in ('hand', 'walkround', 'landing'));
alter table pack_readings drop column resistance_mohm, drop column mah_in, drop column mah_out, drop column start_percent, drop column end_percent, drop column capacity_mah, drop column capacity_pm,
    drop column cycles;
alter table packs drop column full_since, drop column out_mah;
drop table firmware_installed;
drop table firmware_sets;
drop table part_approvals;
drop table stock_lines;
drop table deferrals;
drop table acceptance_flights;
drop table work_used;
drop table work_entries;
drop table work_orders;
drop table task_done;
drop table programmes;
drop index part_moves_part;
drop index parts_shelf;
alter table releases drop column acceptance_order;
alter table flights drop column litres, drop column hover_set, drop column warmth_set, drop column acceptance_order;
alter table flight_use drop column litres;
alter table parts drop column type_key, drop column batch, drop column price_cents, drop column litres, drop column discarded_why;
alter table aircraft drop column litres;
