-- +goose Up
create table crew (
    one boolean primary key default true constraint crew_is_one check (one),
    name text not null, zone text not null, units jsonb not null, created_at timestamptz not null
);

create table people (
    id uuid primary key,
    login text not null, name text not null,
    roles text[] not null constraint people_roles_known check (roles <@ array['pilot','crew','technician','chief','reader'] and cardinality(roles) > 0),
    password_hash text not null, pin_hash text not null, active boolean not null default true,
    certificate text not null default '', trained_on date, session_epoch int not null default 1,
    version int not null default 1, created_at timestamptz not null
);
create unique index people_login_once on people (lower(login));

-- Failed sign-ins and PINs, so that guessing is slowed whatever server it hits.
create table attempts (
    key text primary key, failures int not null, since timestamptz not null, locked_until timestamptz
);
create table sessions (token text primary key, data bytea not null, expiry timestamptz not null);
create index sessions_expiry on sessions (expiry);

-- The chain of records. Nothing in it is ever changed or removed.
create table records (
    seq bigint primary key, id uuid not null, kind text not null, subject uuid, at timestamptz not null,
    by_id uuid, by_name text not null, signed boolean not null, summary text not null, content text not null,
    content_hash bytea not null, prev_hash bytea not null, hash bytea not null
);
create index records_subject on records (subject, seq desc);
-- +goose StatementBegin
create function refuse_change() returns trigger language plpgsql as $$
begin
    raise exception 'records are append-only' using errcode = 'restrict_violation', constraint = 'records_append_only';
end $$;
-- +goose StatementEnd
create trigger records_append_only before update or delete on records for each row execute function refuse_change();
create trigger records_no_truncate before truncate on records execute function refuse_change();

-- +goose Down
drop table records;
drop function refuse_change;
drop table sessions;
drop table attempts;
drop table people;
drop table crew;
