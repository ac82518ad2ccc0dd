-- +goose Up
-- Gear that a job depends on, beside what belongs to its aircraft.
create table job_gear (
    job_id uuid not null references jobs (id) on delete cascade,
    gear_id uuid not null references gear (id),
    primary key (job_id, gear_id)
);
create trigger job_gear_tell after insert or update or delete on job_gear for each statement execute function tell_change();
alter table gear drop constraint gear_kind_known, add constraint gear_kind_known check (kind in ('controller', 'tablet', 'laptop', 'comms', 'base-station', 'goggles', 'camera', 'light', 'charger'));

-- +goose Down
delete from gear where kind = 'charger';
alter table gear drop constraint gear_kind_known, add constraint gear_kind_known check (kind in ('controller', 'tablet', 'laptop', 'comms', 'base-station', 'goggles', 'camera', 'light'));
drop table job_gear;
