-- +goose Up
-- Which signed record a part belongs to: what comes later from a device without network belongs to the next one, whenever it was pressed.
alter table spray_done add column record_id uuid references spray_records;
update spray_done d set record_id = (select r.id from spray_records r where r.plan_id = d.plan_id and r.to_at >= d.at order by r.to_at limit 1) where d.back_at is null;

-- +goose Down
alter table spray_done drop column record_id;
