-- +goose Up
-- A site is one thing, a plan of it another: a site can have several, one of them
-- adopted. So far every site has the one plan that was made with it, under the same id.
create table site (
  id          text primary key,
  adopted     text not null, -- the plan that is carried out
  created_at  timestamptz not null default now(),
  archived_at timestamptz, -- when it was put away; nothing is deleted then
  request     text unique  -- key under which it is made once however often it is asked for
);
insert into site (id, adopted, created_at, archived_at, request) select id, id, created_at, archived_at, request from plan;

alter table plan add column site text;
update plan set site = id;
alter table plan alter column site set not null;
alter table plan add foreign key (site) references site (id) on delete cascade;
create index plan_site on plan (site);
-- A site and its first plan are made in one transaction.
alter table site add foreign key (adopted) references plan (id) deferrable initially deferred;
alter table plan drop column archived_at;
alter table plan drop column request;

-- +goose Down
alter table plan add column archived_at timestamptz;
alter table plan add column request text unique;
update plan p set archived_at = s.archived_at, request = s.request from site s where s.adopted = p.id;
alter table site drop constraint site_adopted_fkey;
alter table plan drop column site;
drop table site;
