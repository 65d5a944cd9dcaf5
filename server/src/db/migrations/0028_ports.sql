-- Where a device is plugged in, and how its lines are read; nothing of a stand-in.
alter table instrument add column link jsonb;
alter table instrument add constraint instrument_at_port check ((driver = 'serial') = (link is not null));
