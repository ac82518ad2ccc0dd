-- +goose Up
-- A person whose password somebody else gave them: until they have chosen their own, they can do nothing else. 'new' has no PIN
-- yet; 'reset' must enter the PIN they had.
alter table people add column once text not null default '' constraint people_once_known check (once in ('', 'new', 'reset')),
    add column once_until timestamptz;

-- One name is one person in every list and on every record.
update people p set name = p.name || ' (' || p.login || ')' where exists (select from people q where lower(q.name) = lower(p.name) and q.id <> p.id);
create unique index people_name_once on people (lower(name));

-- Tries are counted before the secret is looked at.
alter table attempts rename column failures to tries;
alter table attempts add column locks int not null default 0;
create index attempts_since on attempts (since);

-- Devices on which a person has signed in: tries made elsewhere do not lock these.
create table devices (
    person_id uuid not null references people, token_hash bytea not null, since timestamptz not null, last_at timestamptz not null,
    primary key (person_id, token_hash)
);

-- From now on the database holds only hashes of session tokens; sessions begun before end.
delete from sessions;

-- +goose Down
drop table devices;
drop index attempts_since;
alter table attempts drop column locks;
alter table attempts rename column tries to failures;
drop index people_name_once;
alter table people drop column once_until, drop column once;
