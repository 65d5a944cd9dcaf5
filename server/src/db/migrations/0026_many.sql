-- People of the shop who sign in by a name of their own. In no backup, as the lock is.
create table staff (
  id text primary key,
  seq bigint generated always as identity,
  name text not null,
  role text not null check (role in ('owner', 'fitter', 'reader')),
  salt text not null,
  hash text not null,
  set_at timestamptz not null,
  has_left boolean not null default false
);
-- A name is one person's, however it is written.
create unique index staff_by_name on staff (lower(name));
alter table device add column staff_id text references staff (id);

-- Wrong tries of the whole shop, counted by whichever process they come to; and codes that let one device in each.
create table wrong_tries (
  only_row boolean primary key default true check (only_row),
  wrong integer not null,
  wait_until timestamptz not null
);
create table pairing (
  code_hash text primary key,
  until timestamptz not null
);

-- The bench machine that an instrument is plugged into; empty where there is but one.
alter table instrument add column bench text not null default '';

-- Of a player and of a frame everything is read at once, in a shop with many of them.
create index fitting_of_player on fitting (player_id);
create index round_of_frame on round (frame_id);
create index programme_of_frame on programme (frame_id);

-- The nearest setups of a frame: most are told about one axis, and are found by weight and swing weight at once.
create index setup_by_bare_swing on setup (sport, retired, bare_axis, bare_mass, bare_swing);
