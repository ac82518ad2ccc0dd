-- +goose Up
-- The load under which the resistance was measured, where it was worked out from volts.
alter table pack_readings add column load_a double precision constraint readings_load_a check (load_a > 0),
    add column load_s double precision constraint readings_load_s check (load_s > 0);

-- +goose Down
alter table pack_readings drop column load_a, drop column load_s;
