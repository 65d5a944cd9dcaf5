-- Lists and searches of a hundred thousand frames and a million setups.

-- A frame carries its owner's name, in small letters, for the order of a list and for its words: nobody is joined to every frame for them. The database keeps it.
alter table frame add column owner_words text;

create function words_of_owner() returns trigger language plpgsql as $$
  begin
    new.owner_words := (select p.name_words from player p where p.id = new.owner_id and p.shop_id = new.shop_id);
    return new;
  end $$;
create trigger words_of_owner before insert or update of owner_id on frame for each row execute function words_of_owner();

create function words_on_frames() returns trigger language plpgsql as $$
  begin
    update frame set owner_words = new.name_words where owner_id = new.id and shop_id = new.shop_id;
    return null;
  end $$;
create trigger words_on_frames after insert or update of name on player for each row execute function words_on_frames();

update frame set owner_words = p.name_words from player p where p.id = frame.owner_id and p.shop_id = frame.shop_id;

alter table frame drop column words;
alter table frame add column words text generated always as
  (lower(tag || ' ' || maker || ' ' || model || ' ' || paint || ' ' || coalesce(owner_words, 'stock'))) stored;

-- Each answers with what lies in it, so that a page in the middle of a list, or a count of a search, reads no row on its way there. A wall asks whose a row is.
drop index frame_by_model;
drop index frame_by_time;
create index frame_by_model on frame (archived, lower(maker), lower(model), lower(tag), id) include (maker, model, tag, shop_id);
create index frame_by_time on frame (archived, measured_at desc nulls last, lower(tag), id) include (tag, shop_id);
create index frame_by_owner on frame (archived, owner_words nulls first, lower(tag), id) include (tag, shop_id);
create index frame_words on frame (archived) include (id, words, shop_id);

-- Setups within ranges are counted without reading them.
drop index setup_by_weight;
create index setup_by_weight on setup (sport, retired, mass_g, lower(name), id)
  include (batch_id, stands_back, source_kind, balance_cm, swing_weight, twist_weight, shop_id);
