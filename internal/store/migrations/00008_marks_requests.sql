-- +goose Up
-- Which history a database holds. A backup that is restored begins another: whoever
-- remembers anything of the one before has to forget it.
create table epoch (
  one  boolean primary key default true check (one),
  mark text not null default gen_random_uuid()::text
);
insert into epoch default values;

-- The same of a plan: no two histories share it, though they may share numbers.
alter table plan add column mark text not null default gen_random_uuid()::text;

-- What a change was asked with: its key, and what it was a key of. Of those from before
-- nobody knows that any more.
create table request (
  key    text primary key,
  what   text not null, -- operation, place and a hash of the body; empty for unknown
  plan   text not null,
  number bigint not null, -- of the revision that it made
  foreign key (plan, number) references revision (plan, number) on delete cascade
);
create index request_revision on request (plan, number);
insert into request (key, what, plan, number)
  select s.request, '', r.plan, r.number from site s join revision r on r.plan = s.id and r.number = 1 where s.request is not null
  on conflict do nothing;
insert into request (key, what, plan, number)
  select p.request, '', r.plan, r.number from plan p join revision r on r.plan = p.id and r.number = 1 where p.request is not null
  on conflict do nothing;
insert into request (key, what, plan, number)
  select request, '', plan, number from revision where request is not null
  on conflict do nothing;
alter table site drop column request;
alter table plan drop column request;
alter table revision drop column request;

-- +goose Down
alter table site add column request text unique;
alter table plan add column request text unique;
alter table revision add column request text;
create unique index revision_request on revision (plan, request) where request is not null;
update revision r set request = q.key from request q where q.plan = r.plan and q.number = r.number and r.number > 1;
drop table request;
alter table plan drop column mark;
drop table epoch;
