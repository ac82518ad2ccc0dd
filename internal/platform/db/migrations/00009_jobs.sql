-- +goose Up
-- Exclusion constraints over an id and a span of time need it; it ships with PostgreSQL.
create extension if not exists btree_gist;

alter table crew add column rule_pack text not null default 'us-small', add column tile_url text not null default '',
    add column sight_m double precision not null default 500 constraint crew_sight check (sight_m between 50 and 5000);

-- Licences, certificates, exemptions, waivers; of a person, or of the crew.
create table documents (
    id uuid primary key, kind text not null, person_id uuid references people, number text not null, issued_on date, expires_on date,
    rules text[] not null default '{}', conditions text not null default '', version int not null default 1,
    changed_at timestamptz not null, changed_by text not null, removed_at timestamptz,
    constraint documents_order check (issued_on is null or expires_on is null or expires_on >= issued_on)
);
create index documents_held on documents (person_id) where removed_at is null;

-- What a person declared about being fit to fly; the newest of a day counts.
create table fitness (
    id uuid primary key, person_id uuid not null references people, day date not null, at timestamptz not null, against text[] not null
);
create index fitness_newest on fitness (person_id, day, at desc);

-- Manual flying on a type, signed by who watched it.
create table practice (
    id uuid primary key, person_id uuid not null references people, type_key text not null,
    phase text not null constraint practice_phase_known check (phase in ('empty', 'loaded')),
    packs int not null constraint practice_packs check (packs between 0 and 20), landings int not null constraint practice_landings check (landings between 0 and 100),
    nose_in boolean not null, flown_on date not null, note text not null, signed_by text not null, at timestamptz not null, record_seq bigint references records
);
create index practice_held on practice (person_id, type_key);

create table local_rules (
    id uuid primary key, content jsonb not null, version int not null default 1, changed_at timestamptz not null, changed_by text not null, removed_at timestamptz
);

-- What must be reported to the authority, and by when.
create table incident_reports (
    id uuid primary key, aircraft_id uuid references aircraft, what text not null, happened_at timestamptz not null, due_at timestamptz not null,
    reported_at timestamptz, reference text not null default '', raised_by text not null, at timestamptz not null
);

create table zones (
    id uuid primary key, outside_id text not null, name text not null, class text not null, floor_m double precision, ceiling_m double precision,
    from_at timestamptz, to_at timestamptz, calls boolean not null, area jsonb not null, source text not null, taken_at timestamptz not null, by_name text not null, gone_at timestamptz,
    constraint zones_upright check (floor_m is null or ceiling_m is null or ceiling_m > floor_m), constraint zones_order check (from_at is null or to_at is null or to_at > from_at)
);
create unique index zones_outside_once on zones (source, outside_id) where gone_at is null;
create table site_airspace (
    site_id uuid primary key references sites, looked_at timestamptz not null, by_name text not null, source text not null
);
create table authorisations (
    id uuid primary key, zone_id uuid not null references zones, site_id uuid not null references sites,
    state text not null constraint authorisations_state_known check (state in ('asked', 'granted', 'refused', 'withdrawn')),
    ref text not null default '', number text not null default '', ceiling_m double precision not null constraint authorisations_ceiling check (ceiling_m between 1 and 3000),
    from_at timestamptz not null, to_at timestamptz not null, why text not null default '', asked_at timestamptz not null, asked_by text not null, answered_at timestamptz,
    constraint authorisations_order check (to_at > from_at), constraint authorisations_numbered check (state <> 'granted' or number <> '')
);
create index authorisations_site on authorisations (site_id);
create table authorisation_calls (
    id uuid primary key, authorisation_id uuid not null references authorisations, kind text not null constraint calls_kind_known check (kind in ('start', 'end')),
    how text not null constraint calls_how_known check (how in ('desk', 'spoken')), at timestamptz not null, by_name text not null
);
create index authorisation_calls_of on authorisation_calls (authorisation_id, at);

create table jobs (
    id uuid primary key, work text not null constraint jobs_work_known check (work in ('spraying', 'mapping', 'inspection')),
    site_id uuid not null references sites, aim text not null, product text not null default '', from_at timestamptz not null, to_at timestamptz not null,
    sorties int constraint jobs_sorties check (sorties between 1 and 500), meeting text not null default '', channel text not null default '',
    state text not null default 'planned' constraint jobs_state_known check (state in ('planned', 'done', 'called-off')),
    version int not null default 1, created_at timestamptz not null, created_by text not null,
    constraint jobs_window check (to_at > from_at and to_at <= from_at + interval '24 hours')
);
create index jobs_time on jobs (from_at desc);
-- Nobody and no aircraft is in two jobs at once; done and called-off jobs hold nobody.
create table job_aircraft (
    job_id uuid not null references jobs, aircraft_id uuid not null references aircraft, span tstzrange not null, open boolean not null,
    return_m double precision constraint job_return check (return_m between 0 and 500), home_follows boolean not null default false,
    route_m double precision constraint job_route check (route_m between 0.5 and 500), speed_ms double precision constraint job_speed check (speed_ms between 0 and 100),
    primary key (job_id, aircraft_id),
    constraint job_aircraft_once exclude using gist (aircraft_id with =, span with &&) where (open)
);
create table job_people (
    job_id uuid not null references jobs, person_id uuid not null references people, post text not null constraint job_post_known check (post in ('rpic', 'pilot', 'observer', 'ground')),
    span tstzrange not null, open boolean not null, primary key (job_id, person_id),
    constraint job_people_once exclude using gist (person_id with =, span with &&) where (open)
);
create unique index job_command_once on job_people (job_id) where post = 'rpic';
create table job_answers (
    job_id uuid not null references jobs, ask text not null, option text not null, at timestamptz not null, by_name text not null, primary key (job_id, ask)
);
create table job_kit (
    job_id uuid not null references jobs, item text not null, label text not null default '', quantity int not null default 0,
    packed_at timestamptz, packed_by text not null default '', checked_at timestamptz, checked_by text not null default '', primary key (job_id, item)
);
create table briefings (
    id uuid primary key, job_id uuid not null references jobs, content jsonb not null, basis jsonb not null, hash text not null, at timestamptz not null, by_name text not null
);
create index briefings_newest on briefings (job_id, at desc);
create table briefing_signatures (
    briefing_id uuid not null references briefings, person_id uuid not null references people, at timestamptz not null, record_seq bigint references records, primary key (briefing_id, person_id)
);

alter table walkrounds add column job_id uuid references jobs;
alter table releases add column job_id uuid references jobs;
alter table flights add column job_id uuid references jobs;
create index flights_job on flights (job_id) where job_id is not null;

-- +goose StatementBegin
do $$ declare t text; begin
    foreach t in array array['documents', 'fitness', 'practice', 'local_rules', 'incident_reports', 'zones', 'site_airspace', 'authorisations', 'authorisation_calls', 'jobs', 'job_aircraft', 'job_people', 'job_answers', 'job_kit', 'briefings', 'briefing_signatures', 'crew'] loop
        execute format('create trigger %I after insert or update or delete on %I for each statement execute function tell_change()', t || '_tell', t);
    end loop;
end $$;
-- +goose StatementEnd

-- +goose Down
alter table flights drop column job_id;
alter table releases drop column job_id;
alter table walkrounds drop column job_id;
drop table briefing_signatures;
drop table briefings;
drop table job_kit;
drop table job_answers;
drop table job_people;
drop table job_aircraft;
drop table jobs;
drop table authorisation_calls;
drop table authorisations;
drop table site_airspace;
drop table zones;
drop table incident_reports;
drop table local_rules;
drop table practice;
drop table fitness;
drop table documents;
drop trigger crew_tell on crew;
alter table crew drop column sight_m, drop column tile_url, drop column rule_pack;
drop extension btree_gist;
