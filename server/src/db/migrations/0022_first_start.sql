-- What a shop fits and what it measures with, as it was said when the shop began; empty where nothing was said.
alter table shop add column fits jsonb not null default '[]', add column measures_with jsonb not null default '[]';
