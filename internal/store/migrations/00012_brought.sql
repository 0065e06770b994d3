-- +goose Up
-- What was found at a site after it was handed over: logs, bitrates, oldest footage, settings, each as it was understood. It is
-- brought in, and can be taken away again; nothing of it is changed.
create table brought (
  site text not null references site on delete cascade,
  id   text not null,
  kind text not null,
  name text not null, -- of the file, or what was typed
  said jsonb not null,
  author text not null,
  at   timestamptz not null default now(),
  primary key (site, id)
);

-- What a comparison of that with the adopted plan said, for how right plans are over all sites.
create table compared (
  site text primary key references site on delete cascade,
  said jsonb not null,
  at   timestamptz not null default now()
);

alter table company add column learns boolean not null default false; -- whether new sites begin with what was found at others

-- +goose Down
alter table company drop column learns;
drop table compared;
drop table brought;
