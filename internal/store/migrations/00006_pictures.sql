-- +goose Up
-- Stills of cameras, each once a site. A plan names them by their ids. They stay as long
-- as the site, so that undo and history find them again.
create table picture (
  site     text not null references site (id) on delete cascade,
  id       text not null, -- from a hash of its bytes
  width    integer not null, -- pixels
  height   integer not null,
  jpeg     bytea not null,
  added_at timestamptz not null default now(),
  primary key (site, id)
);
alter table picture alter column jpeg set storage external; -- it does not shrink any more

-- +goose Down
drop table picture;
