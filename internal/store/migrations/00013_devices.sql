-- +goose Up
-- Recorders and cameras of a site that are spoken with. The secret is sealed with a key that the database does not have. What was
-- read is said; before is what was read before anything was written, and written what was read back after the last writing.
create table device (
  site        text not null references site on delete cascade,
  id          text not null,
  recorder    text not null default '',
  channel     text not null default '',
  address     text not null,
  username    text not null default '',
  secret      bytea,
  fingerprint text not null default '', -- of a certificate that was accepted
  daily       boolean not null default true,
  said        jsonb,
  said_at     timestamptz,
  before      jsonb,
  before_at   timestamptz,
  written     jsonb,
  written_at  timestamptz,
  trouble     text not null default '',
  primary key (site, id)
);

-- What is being done with a device, or was last: one thing at a time, however many servers there are. Whoever does it holds it for a
-- few seconds and says so again; who does not is taken to be gone.
create table device_work (
  site   text not null,
  device text not null,
  what   text not null,
  holder text not null,
  author text not null,
  began  timestamptz not null default now(),
  until  timestamptz not null,
  done   int not null default 0,
  total  int not null default 0,
  at     text not null default '',
  stop   boolean not null default false,
  ended  timestamptz,
  result jsonb,
  trouble text not null default '',
  primary key (site, device),
  foreign key (site, device) references device on delete cascade
);

-- Every call of a device, newest kept.
create table device_call (
  id     bigint generated always as identity primary key,
  site   text not null references site on delete cascade,
  device text not null,
  author text not null,
  call   text not null,
  ended  text not null,
  at     timestamptz not null default now()
);
create index device_call_site on device_call (site, id);

-- +goose Down
drop table device_call;
drop table device_work;
drop table device;
