-- Guides as the shop has changed them; what is not here is as it ships.

create table guide (
  sport text not null,
  name text not null,
  bands jsonb not null,
  primary key (sport, name)
);
