-- A search of setups reads their words alone, not whole rows. Each text has its greatest length, so that an entry always fits a page of an index.

create index setup_words on setup (retired, batch_id) include (id, words);
