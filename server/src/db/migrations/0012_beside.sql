-- What stands beside the frame of a fitting besides setups: a measurement of any frame, a guide, the average of a class of shapes.
create table fitting_beside (
  fitting_id text not null references fitting (id),
  position integer not null,
  what jsonb not null,
  primary key (fitting_id, position)
);
