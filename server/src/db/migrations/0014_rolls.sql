-- What was done with what builds taught of a roll: when it was begun, what it was said to be before, and the correction that was taken.
create table roll (
  part_id text primary key references part (id),
  begun_at timestamptz,
  stated jsonb,
  applied float8,
  applied_at timestamptz,
  applied_builds integer
);
