-- Fittings in rounds, parts of every kind, placements along the frame's lines, a ceiling and a guide for each sport. What stands in the old columns is brought
-- over by 0004, and the old columns go with 0005.

alter table fitting
  add column closed_at timestamptz,
  add column closed_how text,
  add column closed_note text not null default '';
create index fitting_open on fitting (seq desc) where closed_at is null;

create table fitting_frame (
  fitting_id text not null references fitting (id),
  frame_id text not null references frame (id),
  position integer not null,
  primary key (fitting_id, frame_id)
);
create index fitting_of_frame on fitting_frame (frame_id);

create table round (
  id text primary key,
  fitting_id text not null references fitting (id),
  frame_id text not null references frame (id),
  number integer not null,
  seq bigint generated always as identity,
  why text not null,
  note text not null default '',
  begun_at timestamptz not null,
  -- The measurement that the fitter made the start of the round.
  start_id text references measurement (id),
  unique (fitting_id, frame_id, number)
);

alter table measurement
  add column purpose text not null default 'found',
  add column round_id text references round (id);
create index measurement_of_round on measurement (round_id, seq);

alter table aim
  add column round_id text references round (id),
  add column guards jsonb not null default '[]',
  add column by text not null default '';
create index aim_of_round on aim (round_id, seq);

alter table plan
  add column round_id text references round (id),
  add column parts jsonb not null default '[]',
  add column swaps jsonb not null default '[]',
  add column removals jsonb not null default '[]',
  -- The steps as they were when the plan was chosen.
  add column steps jsonb not null default '[]',
  add column chance double precision;
create index plan_of_round on plan (round_id, seq);

-- Every mark on a step is kept; the last one counts.
create table step_mark (
  seq bigint generated always as identity primary key,
  plan_id text not null references plan (id),
  step text not null,
  mark text not null,
  at timestamptz not null,
  reason text not null default '',
  as_built jsonb,
  measurement_id text references measurement (id),
  by text not null default ''
);
create index mark_of_plan on step_mark (plan_id, seq);

create table sign_off (
  id text primary key,
  key text not null unique,
  seq bigint generated always as identity,
  plan_id text not null references plan (id),
  measurement_id text not null references measurement (id),
  at timestamptz not null,
  passed boolean not null,
  verdict jsonb not null,
  by text not null,
  note text not null
);
create index sign_off_of_plan on sign_off (plan_id, seq);

create table session (
  id text primary key,
  key text not null unique,
  seq bigint generated always as identity,
  round_id text not null references round (id),
  played_on date not null,
  at timestamptz not null,
  data jsonb not null
);
create index session_of_round on session (round_id, seq);

alter table part
  drop constraint part_kind_check,
  add column retired boolean not null default false;
alter table instrument drop constraint instrument_kind_check;

alter table player
  add column ceilings jsonb not null default '{}',
  add column guides jsonb not null default '{}';

-- Which came first is asked of the order of arrival, never of a clock.
drop index calibration_of_instrument;
create index calibration_of_instrument on calibration (instrument_id, seq desc);
