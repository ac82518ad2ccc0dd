-- +goose Up
-- A reading that was taken of another pack, or read wrongly: it stays, and counts for nothing.
alter table pack_readings add column withdrawn_at timestamptz, add column withdrawn_by text not null default '', add column withdrawn_why text not null default '',
    add constraint pack_readings_withdrawn check ((withdrawn_at is null) = (withdrawn_why = ''));
-- The serial number of a pack may be not known yet.
drop index packs_serial_once;
create unique index packs_serial_once on packs (lower(serial)) where serial <> '';

-- +goose Down
update packs set serial = 'not known, ' || label where serial = '';
drop index packs_serial_once;
create unique index packs_serial_once on packs (lower(serial));
alter table pack_readings drop column withdrawn_at, drop column withdrawn_by, drop column withdrawn_why;
