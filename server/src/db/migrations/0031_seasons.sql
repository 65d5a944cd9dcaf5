-- What players alike taught a programme; whether the shop learns at all; and the matches and rests of a player.
alter table shop add column learns_from_all boolean not null default true;
alter table programme add column happiest jsonb;
create table season_date (
  id text not null,
  shop_id text not null default the_shop(),
  seq bigint generated always as identity,
  key text not null,
  player_id text not null,
  kind text not null check (kind in ('match', 'rest')),
  from_day date not null,
  to_day date not null check (to_day >= from_day),
  title text not null default '',
  venue text not null default 'usual' check (venue in ('usual', 'hot-fast', 'cold-slow')),
  uid text not null default '',
  primary key (id, shop_id),
  unique (key, shop_id),
  foreign key (player_id, shop_id) references player (id, shop_id)
);
create policy own_shop on season_date using (shop_id = the_shop()) with check (shop_id = the_shop());
create index season_of_player on season_date (player_id, from_day, shop_id);
create unique index season_date_of_file on season_date (player_id, uid, shop_id) where uid <> '';
