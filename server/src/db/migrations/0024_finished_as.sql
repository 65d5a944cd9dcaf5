-- What a frame shall have on it when it is done; null where it stays as it is.
alter table aim add column finish jsonb;
