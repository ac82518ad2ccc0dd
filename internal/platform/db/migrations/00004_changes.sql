-- +goose Up
-- Every change that a screen may show is told to all servers, which tell all
-- open screens. One transaction tells each table once.
-- +goose StatementBegin
create function tell_change() returns trigger language plpgsql as $$
begin
    perform pg_notify('mainstay_change', tg_table_name);
    return null;
end $$;
-- +goose StatementEnd
create trigger aircraft_tell after insert or update or delete on aircraft for each statement execute function tell_change();
create trigger parts_tell after insert or update or delete on parts for each statement execute function tell_change();
create trigger packs_tell after insert or update or delete on packs for each statement execute function tell_change();
create trigger pack_readings_tell after insert or update or delete on pack_readings for each statement execute function tell_change();
create trigger groundings_tell after insert or update or delete on groundings for each statement execute function tell_change();
create trigger defects_tell after insert or update or delete on defects for each statement execute function tell_change();
create trigger walkrounds_tell after insert or update or delete on walkrounds for each statement execute function tell_change();
create trigger releases_tell after insert or update or delete on releases for each statement execute function tell_change();
create trigger flights_tell after insert or update or delete on flights for each statement execute function tell_change();
create trigger flight_events_tell after insert or update or delete on flight_events for each statement execute function tell_change();
create trigger people_tell after insert or update or delete on people for each statement execute function tell_change();

-- +goose Down
drop trigger people_tell on people;
drop trigger flight_events_tell on flight_events;
drop trigger flights_tell on flights;
drop trigger releases_tell on releases;
drop trigger walkrounds_tell on walkrounds;
drop trigger defects_tell on defects;
drop trigger groundings_tell on groundings;
drop trigger pack_readings_tell on pack_readings;
drop trigger packs_tell on packs;
drop trigger parts_tell on parts;
drop trigger aircraft_tell on aircraft;
drop function tell_change;
