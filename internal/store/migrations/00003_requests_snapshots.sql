-- +goose Up
-- A change or a new site that is sent again, as its answer was lost, is made once.
alter table plan add column request text unique;
alter table revision add column request text;
create unique index revision_request on revision (plan, request) where request is not null;

-- The plan as it stood after some revisions, so that no look back has far to go.
create table snapshot (
  plan     text not null references plan (id) on delete cascade,
  number   bigint not null,
  document jsonb not null,
  primary key (plan, number)
);

-- One row to write to, for whoever asks whether the database can be written to.
create table probe (
  one        boolean primary key default true check (one),
  written_at timestamptz not null default now()
);
insert into probe default values;

-- The whole document is written with every change; lz4 is quick where there is it.
-- +goose StatementBegin
do $$ begin
  alter table plan alter column document set compression lz4;
  alter table snapshot alter column document set compression lz4;
exception when feature_not_supported then
  null;
end $$;
-- +goose StatementEnd

-- +goose Down
drop table probe;
drop table snapshot;
drop index revision_request;
alter table revision drop column request;
alter table plan drop column request;
