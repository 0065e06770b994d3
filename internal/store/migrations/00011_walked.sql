-- +goose Up
-- What was seen and decided on site: walks, trials, clocks, decisions, photos, signatures. It is added to and never changed; what is
-- not to count is set aside by another row. Ids are made where it was noted, so that what arrives twice is kept once.
create table walked (
  plan     text not null references plan on delete cascade,
  id       text not null,
  kind     text not null,
  about    text not null, -- a channel, a trial, a recorder or another row, by its id
  said     jsonb not null,
  revision bigint not null, -- of the plan, on which it was noted
  noted_by text not null,
  author   text not null, -- who sent it
  at       timestamptz not null,
  clock    text not null, -- by which clock the phone knew the time
  arrived  timestamptz not null default now(),
  primary key (plan, id)
);

-- +goose Down
drop table walked;
