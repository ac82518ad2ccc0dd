-- +goose Up
-- Chargers that go to the field, and the most that their generator gives them, W; 0 is no limit.
alter table chargers add column in_field boolean not null default false, add column generator_w double precision not null default 0,
    add constraint chargers_generator check (generator_w between 0 and 1000000);

-- +goose Down
alter table chargers drop column in_field, drop column generator_w;
