-- An aim says what it was taken from, and why.

alter table aim
  add column source jsonb not null default '{}',
  add column note text not null default '';
