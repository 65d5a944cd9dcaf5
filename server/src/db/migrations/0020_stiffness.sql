-- Stiffness is a spec: measured with a frame, and published with a setup, beside the four that follow from weight.
alter table measurement add column stiffness double precision;
alter table setup add column stiffness double precision;
update setup set stiffness = (facts ->> 'stiffness')::double precision, facts = facts - 'stiffness'
  where facts ? 'stiffness';
create index setup_by_stiffness on setup (sport, retired, stiffness, lower(name), id);
