-- Every row says whose shop it is of, and carries that in its keys: rows of one shop can refer to none of another, and a cluster can be split by shop. Where there is
-- but one shop nothing needs to be said: it is called “one”.
create function the_shop() returns text language sql stable
  as $$ select coalesce(nullif(current_setting('kevro.shop', true), ''), 'one') $$;

do $$
declare
  one record;
begin
  create temp table bound on commit drop as
    select conrelid::regclass::text as tab, conname as name, contype as kind, pg_get_constraintdef(oid) as def
    from pg_constraint
    where contype in ('f', 'p', 'u') and connamespace = 'public'::regnamespace and conrelid <> 'migration'::regclass;
  create temp table once_only on commit drop as
    select indexrelid::regclass::text as name, pg_get_indexdef(indexrelid) as def
    from pg_index i join pg_class c on c.oid = i.indrelid
    where i.indisunique and c.relnamespace = 'public'::regnamespace and c.relname <> 'migration'
      and not exists (select from pg_constraint where conindid = i.indexrelid);

  for one in select * from bound where kind = 'f' loop
    execute format('alter table %s drop constraint %I', one.tab, one.name);
  end loop;
  for one in select * from bound where kind <> 'f' loop
    execute format('alter table %s drop constraint %I', one.tab, one.name);
  end loop;
  for one in select * from once_only loop
    execute format('drop index %s', one.name);
  end loop;

  for one in
    select relname as name from pg_class
    where relkind = 'r' and relnamespace = 'public'::regnamespace and relpersistence = 'p' and relname <> 'migration'
  loop
    execute format('alter table %I add column shop_id text not null default the_shop()', one.name);
    -- A second wall, for where several shops are served: it stands once row-level security is on.
    execute format('create policy own_shop on %I using (shop_id = the_shop()) with check (shop_id = the_shop())', one.name);
  end loop;

  -- What was the key stays in front: a row is found by it as before.
  for one in select * from bound where kind <> 'f' loop
    execute format('alter table %s add constraint %I %s', one.tab, one.name, regexp_replace(one.def, '\)$', ', shop_id)'));
  end loop;
  for one in select * from once_only loop
    execute case
      when one.def like '%) WHERE %' then regexp_replace(one.def, '\) WHERE ', ', shop_id) WHERE ')
      else regexp_replace(one.def, '\)$', ', shop_id)')
    end;
  end loop;
  for one in select * from bound where kind = 'f' loop
    execute format(
      'alter table %s add constraint %I %s', one.tab, one.name,
      regexp_replace(one.def, '^FOREIGN KEY \((.*?)\) REFERENCES (.*?)\((.*?)\)', 'FOREIGN KEY (\1, shop_id) REFERENCES \2(\3, shop_id)')
    );
  end loop;
end
$$;

-- The shops of a database: by what each is called where its people sign in. Of no shop itself.
create table shop_list (
  shop_id text primary key,
  code text not null unique
);
insert into shop_list (shop_id, code) values ('one', 'one');
