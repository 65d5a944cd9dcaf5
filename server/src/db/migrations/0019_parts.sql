-- Every uncertainty of a measurement in its two parts: what repeats lessen, and what an instrument in one calibration shares. Measurements from before keep their
-- sum, split as their means usually split: 0.6 and 0.8 of it; a twist weight read edge-on 0.8 and 0.6, by two threads 0.4 and 0.917; an estimate is all shared.
alter table measurement add column parts jsonb;
update measurement set parts = (
  select jsonb_object_agg(spec, jsonb_build_object('random', random * u, 'common', sqrt(1 - random * random) * u))
  from (
    select key as spec, value::text::float8 as u,
      case
        when estimated ? key then 0
        when key = 'twistWeight' and how #> '{twistWeight,means}' ? 'threads' then 0.4
        when key = 'twistWeight' and how #> '{twistWeight,means}' ? 'edge-on' then 0.8
        else 0.6
      end as random
    from jsonb_each(uncertainty)
  ) of_each
);
alter table measurement alter column parts set not null;
alter table measurement drop column uncertainty;

-- With how many readings a plan passes, and how likely the true values are in tolerance. Plans from before were not asked.
alter table plan
  add column readings jsonb,
  add column truly double precision;

-- How often a shop wants a check to pass at first.
alter table shop add column wanted_chance double precision not null default 0.9;
