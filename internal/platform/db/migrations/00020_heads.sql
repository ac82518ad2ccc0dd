-- +goose Up
-- Settings are edited like everything else: with a version. And where the newest head of the chain is sent.
alter table crew add column version int not null default 1, add column head_to text not null default '';

-- +goose Down
alter table crew drop column version, drop column head_to;
