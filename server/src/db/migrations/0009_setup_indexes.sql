-- After the sums are there (0008).

alter table setup alter column sport set not null, alter column shape_id set not null, alter column bare_axis set not null,
  alter column fingerprint set not null;
create index setup_by_name on setup (retired, lower(name), year, id);
create index setup_by_sport_name on setup (sport, retired, lower(name), year, id);
create index setup_by_year on setup (sport, retired, year desc nulls last, lower(name), id);
create index setup_by_weight on setup (sport, retired, mass_g, lower(name), id);
create index setup_by_balance on setup (sport, retired, balance_cm, lower(name), id);
create index setup_by_swing on setup (sport, retired, swing_weight, lower(name), id);
create index setup_by_twist on setup (sport, retired, twist_weight, lower(name), id);
-- The nearest are looked for within a window of weight first.
create index setup_by_bare_mass on setup (sport, retired, bare_mass);
create index setup_counted on setup (sport, retired, stands_back, batch_id);
create index setup_by_sport on setup (sport, id);
create index setup_by_fingerprint on setup (fingerprint);
create index setup_of_batch on setup (batch_id) where batch_id is not null;
create index setup_of_player on setup (sport, lower(name));
