-- What a shop says the weights of parts in.
alter table shop add column part_unit text not null default 'g' check (part_unit in ('g', 'oz', 'grains'));
