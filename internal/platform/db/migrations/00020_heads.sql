-- +goose Up
-- Settings are edited like everything else: with a version. And where the newest head of the chain is sent.
alter table crew add column version int not null default 1, add column head_to text not null default '',
    add column keep_places boolean not null default false; -- photos keep where they were taken

alter table chargers add column version int not null default 1;

-- An event of a flight that was taken back stays, with who did so.
alter table flight_events add column by_id uuid references people, add column taken_back_at timestamptz, add column taken_back_by text not null default '';

-- +goose Down
alter table flight_events drop column by_id, drop column taken_back_at, drop column taken_back_by;
alter table chargers drop column version;
alter table crew drop column version, drop column head_to, drop column keep_places;
