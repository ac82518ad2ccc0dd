-- +goose Up
-- The crew's table of heights by what grows.
create table canopies (
    id uuid primary key, key text not null, name text not null, height_m double precision not null,
    active boolean not null default true, version int not null default 1,
    constraint canopies_key_once unique (key),
    constraint canopies_height check (height_m between 2 and 500),
    constraint canopies_name check (length(trim(name)) between 1 and 60)
);
create trigger canopies_tell after insert or update or delete on canopies for each statement execute function tell_change();
call note_family('canopies', 'canopies', 'x.id::text', 'to_jsonb(x)');
-- The picture that a finding was seen on, where it was kept.
alter table mission_findings add column photo_id uuid references photos;

-- +goose Down
alter table mission_findings drop column photo_id;
drop table canopies;
