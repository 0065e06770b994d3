-- +goose Up
-- Several companies on one server. What was there belongs to the first.
alter table company drop constraint company_pkey;
alter table company add column id text;
update company set id = 'own';
insert into company (id) select 'own' where not exists (select from company);
alter table company alter column id set not null;
alter table company add primary key (id);
alter table company drop column one;
alter table company add column made_at timestamptz not null default now();
alter table company add column asks_two boolean not null default false; -- whether signing in takes a passkey, or a code beside the password

alter table site add column company text not null default 'own' references company;
create index site_company on site (company);

-- Who may sign in. Who was removed stays, as the history and the audit name people; the name is free again.
create table person (
  id         text primary key,
  company    text not null references company,
  name       text not null,
  key        text, -- the name as it is compared: case, width and look-alikes apart; null for who was removed
  planner    boolean not null, -- of all sites of the company
  password   text, -- Argon2id, in its usual writing; null for none
  code       text, -- secret of one-time codes; null for none
  code_step  bigint not null default 0, -- the last one that was used: no code is taken twice
  handle     bytea not null unique, -- under which passkeys know the person
  made_at    timestamptz not null default now(),
  removed_at timestamptz
);
create unique index person_key on person (key);
create index person_company on person (company);

create table site_role (
  person text not null references person on delete cascade,
  site   text not null references site on delete cascade,
  role   text not null check (role in ('planner', 'fitter', 'reader')),
  primary key (person, site)
);
create index site_role_site on site_role (site);

create table passkey (
  id         text primary key, -- base64url
  person     text not null references person on delete cascade,
  name       text not null,
  credential jsonb not null, -- public key and counter
  made_at    timestamptz not null default now(),
  used_at    timestamptz
);
create index passkey_person on passkey (person);

-- Codes that are good once each, for who lost the device that makes the others.
create table recovery (
  person text not null references person on delete cascade,
  hash   text not null,
  primary key (person, hash)
);

-- Links by which an account is made or a password set: good once, for a time.
create table invitation (
  hash       text primary key,
  company    text not null references company on delete cascade,
  kind       text not null check (kind in ('first', 'invited', 'reset')),
  person     text references person on delete cascade, -- whose password is set
  name       text not null default '',
  planner    boolean not null default false,
  roles      jsonb not null default '[]',
  made_by    text not null default '',
  made_at    timestamptz not null default now(),
  expires_at timestamptz not null
);

-- What a browser's cookie leads to, and what a person sees of it: where they are signed in.
create table sessions (
  token  text primary key,
  data   bytea not null,
  expiry timestamptz not null
);
create index sessions_expiry on sessions (expiry);
create table seat (
  id         text primary key,
  person     text not null references person on delete cascade,
  device     text not null,
  address    text not null,
  made_at    timestamptz not null default now(),
  seen_at    timestamptz not null default now(),
  expires_at timestamptz not null
);
create index seat_person on seat (person);

-- Keys of programs, as hashes.
create table token (
  id         text primary key,
  company    text not null references company on delete cascade,
  person     text not null references person on delete cascade, -- who made it; it may no more than they may
  name       text not null,
  hash       text not null unique,
  writes     boolean not null,
  sites      jsonb not null default '[]', -- ids; empty for all that its maker may see
  made_at    timestamptz not null default now(),
  used_at    timestamptz,
  expires_at timestamptz not null
);

-- What a customer may see of a site, and when they looked.
create table link (
  id         text primary key,
  site       text not null references site on delete cascade,
  plan       text not null references plan on delete cascade,
  name       text not null,
  hash       text not null unique,
  shows      jsonb not null,
  password   text,
  made_by    text not null,
  made_at    timestamptz not null default now(),
  expires_at timestamptz not null,
  ended_at   timestamptz
);
create index link_site on link (site);
create table viewing (
  link    text not null references link on delete cascade,
  at      timestamptz not null default now(),
  what    text not null,
  address text not null
);
create index viewing_link on viewing (link, at);

-- What happened around accounts. Nobody changes it, not this program either.
create table audit (
  number  bigint generated always as identity primary key,
  at      timestamptz not null default now(),
  company text not null,
  who     text not null,
  person  text not null default '',
  what    text not null,
  site    text not null default '',
  detail  text not null default '',
  address text not null default '',
  request text not null default ''
);
create index audit_company on audit (company, number);

-- +goose Down
drop table audit;
drop table viewing;
drop table link;
drop table token;
drop table seat;
drop table sessions;
drop table invitation;
drop table recovery;
drop table passkey;
drop table site_role;
drop table person;
alter table site drop column company;
delete from company where id <> 'own';
alter table company drop column asks_two;
alter table company drop column made_at;
alter table company add column one boolean primary key default true check (one);
alter table company drop column id;
