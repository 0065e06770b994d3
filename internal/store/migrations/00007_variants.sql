-- +goose Up
-- A site can have several plans: variants. One that is removed can be taken out again.
alter table plan add column removed_at timestamptz;
alter table plan add column request text unique; -- key under which a variant is made once

-- +goose Down
alter table plan drop column request;
alter table plan drop column removed_at;
