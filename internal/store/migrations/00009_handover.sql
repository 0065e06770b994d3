-- +goose Up
-- What fitters have done of a plan's sheets. A tick is of what a step does, by its key, and says on which revision it was made.
create table tick (
  plan     text not null references plan on delete cascade,
  recorder text not null,
  key      text not null,
  subject  text not null, -- what the step is about, by which it is known again when it changes
  step     text not null, -- its number and words at the time
  words    text not null,
  revision bigint not null,
  author   text not null,
  at       timestamptz not null default now(),
  primary key (plan, recorder, key)
);

-- Which revision of a recorder's sheet was printed last, or taken along.
create table printed (
  plan     text not null references plan on delete cascade,
  recorder text not null,
  revision bigint not null,
  author   text not null,
  at       timestamptz not null default now(),
  primary key (plan, recorder)
);

-- The installer's company, as it stands at the head of papers.
create table company (
  one  boolean primary key default true check (one),
  name text not null default '',
  logo bytea
);
insert into company default values;

-- +goose Down
drop table company;
drop table printed;
drop table tick;
