-- A shop that is restored beside others comes table by table, and what its rows name may come later. Those others are at work meanwhile, so that what binds their rows is
-- not taken away for it: it may be looked at when all has come.
do $$
declare
  one record;
begin
  for one in
    select conrelid::regclass as tab, conname as name from pg_constraint
    where contype = 'f' and connamespace = 'public'::regnamespace
  loop
    execute format('alter table %s alter constraint %I deferrable initially immediate', one.tab, one.name);
  end loop;
end
$$;
