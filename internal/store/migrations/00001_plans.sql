-- +goose Up
create table plan (
  id         text primary key,
  version    bigint not null,
  document   jsonb not null,
  -- Where undo and redo go from here: the revision that would be undone, and the
  -- undo that would be taken back.
  undo_next  bigint,
  redo_next  bigint,
  created_at timestamptz not null default now(),
  changed_at timestamptz not null default now()
);

create table revision (
  plan      text not null references plan (id) on delete cascade,
  number    bigint not null,
  kind      text not null check (kind in ('made', 'edit', 'undo', 'redo')),
  target    bigint, -- the revision that an undo takes back or a redo makes again
  at        timestamptz not null default now(),
  author    text not null,
  sentence  text not null,
  forward   jsonb not null, -- JSON Patch (RFC 6902) from the version before
  backward  jsonb not null, -- and back to it
  undo_next bigint,
  redo_next bigint,
  primary key (plan, number)
);

-- +goose Down
drop table revision;
drop table plan;
