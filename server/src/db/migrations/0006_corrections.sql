-- What was stored can be put right: nothing is lost, and what is wrong says so.

alter table shop add column time_zone text not null default '';

alter table setup add column retired boolean not null default false;
alter table instrument add column retired boolean not null default false;
alter table stringing add column retired boolean not null default false;

-- A measurement is never changed. One that is wrong does not count; one that puts it right takes its place in the order of arrival.
alter table measurement
  add column counts boolean not null default true,
  add column why text not null default '',
  add column supersedes text references measurement (id),
  add column superseded_by text references measurement (id),
  add column place bigint;
create table measurement_mark (
  seq bigint generated always as identity primary key,
  measurement_id text not null references measurement (id),
  at timestamptz not null,
  counts boolean not null,
  reason text not null
);
