-- +goose Up
-- Sites that are no longer worked on are put away, not deleted.
alter table plan add column archived_at timestamptz;

-- +goose Down
alter table plan drop column archived_at;
