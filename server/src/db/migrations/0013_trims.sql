-- A trim says which build it corrects: what is on the frame then is that build's.
alter table plan add column trims text references plan (id);
