-- A superuser passes over row level security. Who connects as one acts as this role, which does not.
do $$ begin
  if (select rolsuper or rolbypassrls from pg_roles where rolname = current_user) then
    begin
      create role wakefield_rows nologin;
    exception when duplicate_object or unique_violation then
      null;
    end;
    grant usage on schema public to wakefield_rows;
    grant select, insert, update, delete on all tables in schema public to wakefield_rows;
    grant usage, select on all sequences in schema public to wakefield_rows;
    revoke update, delete on audit from wakefield_rows;
  end if;
end $$;
