-- Films of a frame, in pieces as base64: those that came and wait to be read, and those that were kept with a reading. Links by which phones send them.
create table film (
  id text not null,
  shop_id text not null default the_shop(),
  seq bigint generated always as identity,
  frame_id text not null,
  reading_id text,
  name text not null,
  type text not null,
  bytes bigint not null,
  is_whole boolean not null default false,
  sent_at timestamptz not null,
  primary key (id, shop_id),
  foreign key (frame_id, shop_id) references frame (id, shop_id),
  foreign key (reading_id, shop_id) references reading (id, shop_id) on delete cascade
);
create table film_piece (
  film_id text not null,
  shop_id text not null default the_shop(),
  place integer not null,
  data text not null,
  primary key (film_id, place, shop_id),
  foreign key (film_id, shop_id) references film (id, shop_id) on delete cascade
);
create table film_link (
  code_hash text not null,
  shop_id text not null default the_shop(),
  frame_id text not null,
  ends_at timestamptz not null,
  primary key (code_hash, shop_id),
  foreign key (frame_id, shop_id) references frame (id, shop_id)
);
create policy own_shop on film using (shop_id = the_shop()) with check (shop_id = the_shop());
create policy own_shop on film_piece using (shop_id = the_shop()) with check (shop_id = the_shop());
create policy own_shop on film_link using (shop_id = the_shop()) with check (shop_id = the_shop());
create index film_by_frame on film (frame_id, shop_id);
create index film_by_reading on film (reading_id, shop_id);
create index film_link_by_frame on film_link (frame_id, shop_id);
