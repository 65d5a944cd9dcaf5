-- What 0004 has brought over goes.

alter table aim alter column round_id set not null, drop column fitting_id;
alter table plan alter column round_id set not null, drop column fitting_id, drop column materials;
alter table fitting drop column frame_id;
alter table player drop column ceiling_swing_weight, drop column guide;
drop table build_step;
