-- +goose Up
-- What a device pressed without network and sent later: each once, and when it was made.
create table presses (
    id uuid primary key, person_id uuid not null references people, what text not null,
    pressed_at timestamptz not null, heard_at timestamptz not null,
    constraint presses_order check (pressed_at <= heard_at)
);
create index presses_heard on presses (heard_at);

alter table flights add column took_off_heard_at timestamptz, add column landed_heard_at timestamptz,
    add column unasked text not null default ''; -- what the gate said when a take-off without network was heard

-- A tick that moves a pack remembers where it came from; a pack remembers the state it left, so that a slip of the hand is undone as it was.
alter table evening_ticks add column was text not null default '';
alter table packs add column left_state text not null default '', add column left_full_since timestamptz;

-- +goose Down
alter table packs drop column left_full_since, drop column left_state;
alter table evening_ticks drop column was;
alter table flights drop column unasked, drop column landed_heard_at, drop column took_off_heard_at;
drop table presses;
