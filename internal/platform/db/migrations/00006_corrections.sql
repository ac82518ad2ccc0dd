-- +goose Up
-- A logged flight does not change; a correction is a new row that says what is
-- right. The newest counts.
create table flight_corrections (
    id uuid primary key, flight_id uuid not null references flights, seconds int not null constraint correction_seconds check (seconds between 0 and 86400),
    landings int not null constraint correction_landings check (landings between 1 and 50), litres double precision not null constraint correction_litres check (litres between 0 and 100000),
    reason text not null, by_name text not null, at timestamptz not null
);
create index flight_corrections_newest on flight_corrections (flight_id, at desc);
create trigger flight_corrections_append_only before update or delete on flight_corrections for each row execute function refuse_change();
create trigger flight_corrections_tell after insert on flight_corrections for each statement execute function tell_change();

-- +goose Down
drop table flight_corrections;
