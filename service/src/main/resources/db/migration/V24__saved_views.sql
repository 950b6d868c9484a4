-- What a page of the console showed, kept under a name: for whoever kept it, or for everybody.
create table saved_view (
  id bigint auto_increment primary key,
  account_id bigint not null references account (id),
  name varchar(80) not null,
  address varchar(1000) not null,
  shared boolean not null,
  created_at datetime(6) not null,
  unique (account_id, name),
  key (shared)
);
grant select, insert, update, delete on saved_view to '${service_user}'@'127.0.0.1';
-- Lists by time over all components.
alter table run add key (created_at);
alter table version add key (sealed_at);
alter table deployment add key (requested_at);
