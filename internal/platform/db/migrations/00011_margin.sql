-- +goose Up
-- What the crew keeps over the highest thing on the way home.
alter table crew add column margin_m double precision not null default 10 constraint crew_margin_m check (margin_m between 5 and 100),
    add column margin_percent double precision not null default 20 constraint crew_margin_percent check (margin_percent between 0 and 100);

-- +goose Down
alter table crew drop column margin_m, drop column margin_percent;
