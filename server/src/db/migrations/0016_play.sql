-- Programmes on a frame of a fitting: one change at a time. What was done about one is kept event by event; its state comes from all of them.
create table programme (
  id text primary key,
  key text not null unique,
  seq bigint generated always as identity,
  fitting_id text not null references fitting (id),
  frame_id text not null references frame (id),
  name text not null,
  begun_at timestamptz not null,
  -- The round in which it begins, how many sessions of it came before, and what the frame measured then.
  round_id text not null references round (id),
  sessions_before integer not null default 0,
  start_id text not null references measurement (id),
  towards jsonb,
  -- What lay on the frame then, zone by zone.
  there jsonb not null default '[]',
  note text not null default '',
  by text not null default ''
);
create index programme_of_fitting on programme (fitting_id, seq);

create table programme_event (
  seq bigint generated always as identity primary key,
  programme_id text not null references programme (id),
  what text not null,
  at timestamptz not null,
  -- How many sessions of the programme there were then.
  sessions integer not null,
  day text,
  note text not null default '',
  by text not null default ''
);
create index event_of_programme on programme_event (programme_id, seq);

-- The programme that a round belongs to; and what was on the frame when the round began and when a build was signed off, so that there is a way back.
alter table round
  add column programme_id text references programme (id),
  add column on_frame jsonb,
  -- Made by the client: a step that is sent twice is taken once.
  add column key text unique;
alter table sign_off add column on_frame jsonb;

-- Days on which a player or a frame is to be looked at again.
create table look_again (
  id text primary key,
  seq bigint generated always as identity,
  player_id text not null references player (id),
  fitting_id text references fitting (id),
  due_on date not null,
  why text not null,
  note text not null default '',
  set_at timestamptz not null,
  done_at timestamptz
);
create index look_again_open on look_again (due_on, seq) where done_at is null;
create index look_again_of_player on look_again (player_id, seq);

-- Links by which a player notes one session: of the code only its hash is kept.
create table session_link (
  code_hash text primary key,
  round_id text not null references round (id),
  made_at timestamptz not null,
  ends_at timestamptz not null,
  session_id text references session (id)
);
create index link_of_round on session_link (round_id);

-- What a player is known to carry: how sure, since when, and by what it was found.
alter table player add column ceiling_notes jsonb not null default '{}';

-- Who changed what and when: the call and the record it was about, no words of it.
create table change_log (
  seq bigint generated always as identity primary key,
  at timestamptz not null,
  who text not null,
  call text not null,
  record text,
  record_id text
);

-- What the shop has set otherwise than it ships: tolerances and noticeable steps, sport by sport.
alter table shop add column sports jsonb not null default '{}';

-- A session that was noted by mistake stays, and counts no more.
alter table session
  add column counts boolean not null default true,
  add column why text not null default '';

create index session_played on session (played_on desc, seq desc);
