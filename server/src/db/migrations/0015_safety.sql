-- How many of the backups that are made by themselves are kept (0: none is made), and how long another device stays signed in.
alter table shop
  add column backups_kept integer not null default 14,
  add column signed_in_hours integer not null default 12;

-- The shop's passphrase, as scrypt leaves it. It is in no backup.
create table shop_lock (
  only_row boolean primary key default true check (only_row),
  salt text not null,
  hash text not null,
  set_at timestamptz not null
);

-- Devices that are signed in: of the token that each holds only its hash is kept. They are in no backup.
create table device (
  token_hash text primary key,
  name text not null,
  signed_in_at timestamptz not null
);
