-- An act and its line in the change log are stored together. The key is made by the client: the same act sent again finds its line, and what it made.
-- Of key and content only hashes are kept.
alter table change_log
  add column key text unique,
  add column sent text,
  add column made_id text;

-- The bench's own browsers: known by their token once the shop has a passphrase, and not by their address.
alter table device add column bench boolean not null default false;
update device set name = '' where lower(trim(name)) = 'bench';

-- What was begun and has to be gone through with at the next start: an erasing whose old pages are still in the files.
create table unfinished (
  what text primary key,
  since timestamptz not null
);
