-- Photos that a frame's own outline was taken from lie with the films, and links say which of the two they take.
alter table film add column of_outline boolean not null default false;
alter table film_link add column takes text not null default 'film';
alter table film_link add constraint film_link_takes check (takes in ('film', 'photo'));
create index frame_outlined on frame (maker, model, shop_id) where shape->'outline' is not null;
