-- Whether other devices of the network are listened for: said on the page, and only where there is a passphrase.
alter table shop_lock add column let_in boolean not null default false;
