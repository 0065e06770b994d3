-- +goose Up
-- How far a site has come, where it is and what it is tagged with: said by people, and of no plan. A template is no place: others take
-- from it how the company plans.
alter table site add column stage text not null default 'planned' check (stage in ('planned', 'handed', 'measure', 'template'));
alter table site add column place text not null default '';
alter table site add column tags text[] not null default '{}';

-- What lists show of a plan, so that they need not take its document apart.
alter table plan
  add column site_name text generated always as (document->'site'->>'name') stored,
  add column customer text generated always as (document->'site'->>'customer') stored,
  add column variant text generated always as (document->>'name') stored,
  add column channels int generated always as
    (case jsonb_typeof(document->'channels') when 'array' then jsonb_array_length(document->'channels') else 0 end) stored;

-- Each site's adopted plan in one line, of a version and by a method, with what of it can be searched for. Made in the background: a line of
-- another version or method is made again. was is what the method before said of the same version, where that moved. Whoever makes it holds
-- it for a while.
create table site_line (
  site    text primary key references site on delete cascade,
  plan    text not null default '',
  version bigint not null default 0,
  mark    text not null default '',
  method  text not null default '',
  said    jsonb,                        -- null for a plan that cannot be read
  found   jsonb not null default '[]', -- findings by rule
  words   jsonb not null default '[]',
  lower   text not null default '',     -- all of them in small letters
  was     jsonb,
  made_at timestamptz,
  held    timestamptz not null default '-infinity'
);
alter table site_line alter column lower set storage external;

-- Searches that somebody keeps; person is empty where nobody signs in.
create table kept_search (
  company text not null references company on delete cascade,
  person  text not null default '',
  name    text not null,
  said    jsonb not null,
  primary key (company, person, name)
);

-- +goose Down
drop table kept_search;
drop table site_line;
alter table plan drop column channels, drop column variant, drop column customer, drop column site_name;
alter table site drop column tags;
alter table site drop column place;
alter table site drop column stage;
