-- Setups in full: what was told of them, how far it is trusted, and the sums of their bare frame, so that the nearest are found by one query.

-- What a dress adds depends on the shape alone: it is worked out once a shape.
create table setup_shape (
  id integer generated always as identity primary key,
  key text not null unique,
  sport text not null,
  shape jsonb not null
);
create index setup_shape_of_sport on setup_shape (sport);

-- The rows of an import count only once all of them are there.
create table setup_batch (
  id integer generated always as identity primary key,
  live boolean not null default false
);

alter table setup
  add column paint text not null default '',
  add column link text not null default '',
  add column reported_on date,
  add column confidence text not null default 'medium',
  add column style text not null default '',
  add column as_reported jsonb not null default '{}',
  add column facts jsonb not null default '{}',
  add column strings jsonb not null default '{}',
  -- Another report of the same frame was chosen.
  add column stands_back boolean not null default false,
  -- Worked out of the other reports of its frame; it is none itself.
  add column averaged boolean not null default false,
  -- What of it was reported, in short: the same file twice adds nothing.
  add column fingerprint text,
  add column batch_id integer references setup_batch (id),
  add column sport text,
  add column shape_id integer references setup_shape (id),
  add column bare_mass double precision,
  add column bare_moment double precision,
  add column bare_swing double precision,
  add column bare_twist double precision,
  add column bare_axis double precision,
  add column words text generated always as
    (lower(name || ' ' || frame_name || ' ' || paint || ' ' || source || ' ' || style)) stored;
