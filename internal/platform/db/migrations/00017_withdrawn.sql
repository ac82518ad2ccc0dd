-- +goose Up
-- A decision can be taken back, with name and reason; it stays on file.
alter table job_decisions add column withdrawn_at timestamptz, add column withdrawn_by text, add column withdrawn_why text,
    add constraint job_decisions_withdrawn check ((withdrawn_at is null) = (withdrawn_by is null) and (withdrawn_at is null) = (withdrawn_why is null) and (withdrawn_why is null or length(trim(withdrawn_why)) >= 3));
-- Who began a charge of a pack whose temperature nobody knew felt it first.
alter table charges add column felt boolean not null default false;

-- +goose Down
alter table charges drop column felt;
delete from job_decisions where withdrawn_at is not null;
alter table job_decisions drop constraint job_decisions_withdrawn, drop column withdrawn_at, drop column withdrawn_by, drop column withdrawn_why;
