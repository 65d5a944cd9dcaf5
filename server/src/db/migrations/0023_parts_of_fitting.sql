-- The parts that the plans of a fitting may use; empty where nobody said.
alter table fitting add column parts jsonb not null default '[]';
