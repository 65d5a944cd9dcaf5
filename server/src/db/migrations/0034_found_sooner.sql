-- A fitting carries the names of its player and its frames: a search of fittings looks through no other frame. The database keeps them.
alter table fitting add column words text not null default '';

create function words_of_fitting(of_shop text, of_fitting text, of_player text) returns text language sql stable as $$
  select concat_ws(' ', (select p.name_words from player p where p.id = of_player and p.shop_id = of_shop),
    (select string_agg(fr.words, ' ' order by ff.position) from fitting_frame ff
      join frame fr on fr.id = ff.frame_id and fr.shop_id = of_shop
      where ff.fitting_id = of_fitting and ff.shop_id = of_shop)) $$;

-- Whatever they are set to, they are written anew: to set them is to ask for that.
create function words_on_fitting() returns trigger language plpgsql as $$
  begin
    new.words := words_of_fitting(new.shop_id, new.id, new.player_id);
    return new;
  end $$;
create trigger words_on_fitting before insert or update of player_id, words on fitting
  for each row execute function words_on_fitting();

create function words_by_frame_in_fitting() returns trigger language plpgsql as $$
  begin
    update fitting set words = '' where id = coalesce(new.fitting_id, old.fitting_id) and shop_id = coalesce(new.shop_id, old.shop_id);
    return null;
  end $$;
create trigger words_by_frame_in_fitting after insert or delete on fitting_frame
  for each row execute function words_by_frame_in_fitting();

-- In a backup that is restored, a fitting comes before its player and its frames do.
create function words_by_frame() returns trigger language plpgsql as $$
  begin
    if tg_op = 'INSERT' or old.words is distinct from new.words then
      update fitting set words = '' where shop_id = new.shop_id
        and id in (select fitting_id from fitting_frame where frame_id = new.id and shop_id = new.shop_id);
    end if;
    return null;
  end $$;
create trigger words_by_frame after insert or update on frame for each row execute function words_by_frame();

create function words_by_player() returns trigger language plpgsql as $$
  begin
    if tg_op = 'INSERT' or old.name_words is distinct from new.name_words then
      update fitting set words = '' where player_id = new.id and shop_id = new.shop_id;
    end if;
    return null;
  end $$;
create trigger words_by_player after insert or update on player for each row execute function words_by_player();

update fitting set words = '';

-- The nearest setups of a frame are found in one index, gram by gram and by swing weight, without reading a setup that is not shown.
drop index setup_by_bare_mass;
drop index setup_by_bare_swing;
create index setup_by_bare_swing on setup (sport, retired, floor(bare_mass), bare_axis, bare_swing)
  include (bare_mass, bare_moment, bare_twist, shape_id, stands_back, batch_id, id, shop_id);
