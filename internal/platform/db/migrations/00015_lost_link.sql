-- +goose Up
-- What the aircraft does when the link is lost, as read in it; empty: not read.
alter table job_aircraft add column lost_link text not null default '' constraint job_lost_link check (lost_link in ('', 'return', 'hover', 'land', 'continue'));

-- +goose Down
alter table job_aircraft drop column lost_link;
