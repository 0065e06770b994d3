-- +goose Up
-- What is told of a revision beside what it changed: the name that somebody gave it,
-- and the days that the plan kept with it, as they were worked out then.
alter table revision add column name text not null default '';
alter table revision add column kept_days double precision;

-- +goose Down
alter table revision drop column kept_days;
alter table revision drop column name;
