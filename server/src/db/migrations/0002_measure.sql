-- Players and frames in full, instruments with their calibrations, and the readings that a measurement is made of.

alter table shop add column calibration_hours integer not null default 72;

alter table player
  add column sports jsonb not null default '[]',
  add column height_cm double precision,
  add column build text,
  add column level_scale integer,
  add column handedness text,
  add column puts_first text,
  add column bother_note text not null default '',
  add column sessions_a_week double precision,
  add column arm_history text not null default '',
  add column archived boolean not null default false;
alter table player add column words text generated always as
  (lower(name || ' ' || level || ' ' || style || ' ' || bother_note)) stored;
alter table player add column name_words text generated always as (lower(name)) stored;
update player set sports = jsonb_build_array(sport), bother_note = bothers;
alter table player drop column sport, drop column bothers;
alter table player add column bothers jsonb not null default '[]';

-- What a maker states of a model, for all frames of it.
create table model (
  sport text not null,
  maker text not null,
  name text not null,
  nominal jsonb not null,
  primary key (sport, maker, name)
);

alter table frame
  add column paint text not null default '',
  add column beam text not null default '',
  add column stiffness double precision,
  add column on_it jsonb not null default '{}',
  add column weights jsonb not null default '[]',
  add column archived boolean not null default false,
  add column newest_measurement_id text references measurement (id),
  add column measured_at timestamptz,
  add column words text generated always as (lower(tag || ' ' || maker || ' ' || model || ' ' || paint)) stored;
create index frame_of_owner on frame (owner_id);
create index frame_by_tag on frame (archived, lower(tag), id);
create index frame_by_model on frame (archived, lower(maker), lower(model), lower(tag), id);
create index frame_by_time on frame (archived, measured_at desc nulls last, lower(tag), id);
create index player_by_name on player (lower(name), id);

alter table measurement
  add column estimated jsonb not null default '[]',
  add column left_right jsonb,
  add column how jsonb not null default '{}';
update frame set newest_measurement_id =
  (select m.id from measurement m where m.frame_id = frame.id order by m.seq desc limit 1);
update frame set on_it = m.dress, measured_at = m.taken_at from measurement m where m.id = frame.newest_measurement_id;

create table stringing (
  id text primary key,
  frame_id text not null references frame (id),
  strung_on date not null,
  seq bigint generated always as identity,
  data jsonb not null
);
create index stringing_of_frame on stringing (frame_id, strung_on desc, seq desc);

create table instrument (
  id text primary key,
  seq bigint generated always as identity,
  name text not null unique,
  kind text not null check (kind in ('scale', 'board', 'machine')),
  driver text not null,
  sheet jsonb not null,
  note text not null
);

-- A calibration that was refused is kept too: it is why the machine may not measure.
create table calibration (
  id text primary key,
  key text not null unique,
  instrument_id text not null references instrument (id),
  taken_at timestamptz not null,
  seq bigint generated always as identity,
  rods jsonb not null,
  slope double precision not null,
  off_by double precision not null,
  residuals jsonb not null,
  refused text
);
create index calibration_of_instrument on calibration (instrument_id, seq desc);

-- The readings of a frame before they are stored as one measurement: at most one open capture a frame.
create table capture (
  id text primary key,
  frame_id text not null references frame (id),
  opened_at timestamptz not null,
  dress jsonb not null,
  dress_said boolean not null default false,
  dropped boolean not null default false,
  measurement_id text references measurement (id)
);
create unique index open_capture on capture (frame_id) where measurement_id is null and not dropped;

create table reading (
  id text primary key,
  capture_id text not null references capture (id),
  seq bigint generated always as identity,
  taken_at timestamptz not null,
  instrument_id text references instrument (id),
  calibration_id text references calibration (id),
  set_aside boolean not null default false,
  data jsonb not null
);
create index reading_of_capture on reading (capture_id, seq);
