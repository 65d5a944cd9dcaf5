-- The first tables. Measurements, aims and plans are append-only: a later row supersedes an earlier one.

create table shop (
  only_row boolean primary key default true check (only_row),
  name text not null,
  town text not null,
  demo boolean not null default false
);

create table player (
  id text primary key,
  name text not null,
  sport text not null,
  birth_year integer,
  level text not null,
  style text not null,
  bothers text not null,
  ceiling_swing_weight double precision,
  guide text
);

create table frame (
  id text primary key,
  tag text not null unique,
  maker text not null,
  model text not null,
  owner_id text references player (id),
  shape jsonb not null,
  pattern text not null,
  grip_size text not null,
  note text not null
);

create table measurement (
  id text primary key,
  key text not null unique,
  frame_id text not null references frame (id),
  taken_at timestamptz not null,
  seq bigint generated always as identity,
  dress jsonb not null,
  mass_g double precision not null check (mass_g > 0),
  balance_cm double precision not null check (balance_cm > 0),
  swing_weight double precision not null check (swing_weight > 0),
  twist_weight double precision check (twist_weight > 0),
  axis_cm double precision not null,
  uncertainty jsonb not null,
  note text not null
);
create index measurement_of_frame on measurement (frame_id, seq desc);

create table setup (
  id text primary key,
  name text not null,
  frame_name text not null,
  source_kind text not null,
  source text not null,
  year integer,
  shape jsonb not null,
  dress jsonb not null,
  mass_g double precision,
  balance_cm double precision,
  swing_weight double precision,
  twist_weight double precision,
  axis_cm double precision
);

create table part (
  id text primary key,
  kind text not null check (kind in ('tape', 'filling')),
  seq bigint generated always as identity,
  data jsonb not null
);

create table fitting (
  id text primary key,
  player_id text not null references player (id),
  frame_id text not null references frame (id),
  opened_at timestamptz not null,
  seq bigint generated always as identity
);

create table fitting_reference (
  fitting_id text not null references fitting (id),
  setup_id text not null references setup (id),
  position integer not null,
  primary key (fitting_id, setup_id)
);

create table aim (
  id text primary key,
  fitting_id text not null references fitting (id),
  created_at timestamptz not null,
  seq bigint generated always as identity,
  way text not null,
  setup_id text references setup (id),
  target jsonb not null
);
create index aim_of_fitting on aim (fitting_id, seq desc);

create table plan (
  id text primary key,
  fitting_id text not null references fitting (id),
  aim_id text not null references aim (id),
  measurement_id text not null references measurement (id),
  created_at timestamptz not null,
  seq bigint generated always as identity,
  school text not null,
  by_hand boolean not null,
  materials jsonb not null,
  placements jsonb not null,
  specs jsonb not null,
  uncertainty jsonb not null,
  within_tolerance boolean not null
);
create index plan_of_fitting on plan (fitting_id, seq desc);

create table build_step (
  plan_id text not null references plan (id),
  step text not null,
  done_at timestamptz not null,
  primary key (plan_id, step)
);
