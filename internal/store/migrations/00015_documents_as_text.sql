-- +goose Up
-- A document is written and read whole, and the database is asked for no part of it: taken as text it costs a fifth of the time that taking
-- it apart did, with every change. What lists show of it stands beside it.
alter table plan drop column channels, drop column variant, drop column customer, drop column site_name;
alter table plan
  add column site_name text,
  add column customer text,
  add column variant text,
  add column channels int not null default 0;
update plan set site_name = document->'site'->>'name', customer = document->'site'->>'customer', variant = document->>'name',
  channels = case jsonb_typeof(document->'channels') when 'array' then jsonb_array_length(document->'channels') else 0 end;
alter table plan alter column document type json using document::json;
alter table snapshot alter column document type json using document::json;
-- +goose StatementBegin
do $$ begin
  alter table plan alter column document set compression lz4;
  alter table snapshot alter column document set compression lz4;
exception when feature_not_supported then
  null;
end $$;
-- +goose StatementEnd

-- +goose Down
alter table snapshot alter column document type jsonb using document::jsonb;
alter table plan alter column document type jsonb using document::jsonb;
alter table plan drop column channels, drop column variant, drop column customer, drop column site_name;
alter table plan
  add column site_name text generated always as (document->'site'->>'name') stored,
  add column customer text generated always as (document->'site'->>'customer') stored,
  add column variant text generated always as (document->>'name') stored,
  add column channels int generated always as
    (case jsonb_typeof(document->'channels') when 'array' then jsonb_array_length(document->'channels') else 0 end) stored;
